// Package own says which blades a shop should own: what to buy next, what is
// never the best, what has no substitute, and what to begin with.
package own

import (
	"context"
	"errors"
	"fmt"
	"math"
	"slices"
	"time"

	"github.com/google/uuid"

	"corte/core/blade"
	"corte/core/care"
	"corte/core/choose"
	"corte/core/cut"
	"corte/core/guide"
	"corte/core/measure"
	"corte/core/own"
	"corte/core/say"
	"corte/core/starter"
	"corte/core/truing"
	"corte/core/verdict"
	"corte/internal/record"
	"corte/internal/refusal"
	shopchoose "corte/internal/shop/choose"
	"corte/internal/shop/env"
	"corte/internal/shop/job"
)

// A Station does this work in every shop on one database. It holds no state.
type Station struct{ *env.Env }

// At is the station over an environment: a database, or a transaction of one.
func At(k *env.Env) Station { return Station{k} }

// An Ask is what the blades are weighed over, and what things cost.
type Ask struct {
	Rows   []job.Row          // to be cut; nil for the log of a year
	Hour   float64            // what an hour is worth; 0 if not said
	Prices map[string]float64 // of the sold blades, by their ids
}

// A Sold is a blade of a kind that is sold.
type Sold struct {
	ID    string
	Name  string
	For   string
	Blade blade.Blade
	Saws  []string // that it fits
}

// A Bought is blades bought together, and what comes of it.
type Bought struct {
	Blades  []Sold
	Saves   float64 // minutes over the work
	Changes float64
	Takes   []Taken
	Pay     *own.Pay // nil without prices and an hour's worth
}

// A Taken is a kind of cut that a bought blade takes over.
type Taken struct {
	What   say.Line
	Blade  string
	Pieces int
	Saves  float64
}

// Owning is what a shop's blades come to over its work.
type Owning struct {
	Rows, Pieces int
	Metres       float64
	From         *time.Time // the first row of the log; nil for other work
	Years        float64    // that the work is of: 1 where it is no log
	Total        float64    // minutes
	One          []Bought
	Two, Three   *Bought
	NeverBest    []record.Blade
	Alone        []record.Blade
	Undone       []say.Line
	Market       []Sold // all that was weighed
	Several      []Several
	Kerfs        []Kerfs
	Heard        []Heard
}

// A Heard is what was found of a saw or a blade that stands against its cuts
// today. The work is weighed as if it were put right.
type Heard struct {
	Name string
	guide.Finding
}

// soon is within how many years a blade is to have paid for itself.
const soon = 2

// Pays reports whether a purchase pays for itself soon enough to be named.
func (b Bought) Pays() bool { return b.Pay != nil && b.Pay.After() <= soon }

// Says puts what a purchase gives into words.
func (b Bought) Says() say.Line {
	saves := say.Of("saves %s on this work", choose.Took(b.Saves))
	if b.Pay == nil {
		return saves
	}
	switch after := b.Pay.After(); {
	case math.IsInf(after, 1):
		return say.Of("%s, and keeping it sharp costs more than that is worth: it does not pay", saves)
	case after > soon:
		return say.Of("%s, and pays for itself after %.0f years, so hardly ever", saves, after)
	case after <= 1.0/12:
		return say.Of("%s, and pays for itself within a month", saves)
	default:
		return say.Of("%s, and pays for itself in %.0f months", saves, math.Max(1, math.Ceil(12*after)))
	}
}

// Says is the honest answer in one sentence.
func (o Owning) Says() say.Line {
	switch {
	case o.Rows == 0 && o.From == nil:
		return say.Of("no cuts are logged yet. Choose a job, or enter your work under first blades")
	case len(o.One) == 0:
		return say.Of("you don't need another blade: none would save time on this work")
	case o.One[0].Pay != nil && !o.One[0].Pays():
		return say.Of("no blade pays off: the best, %s, %s", say.Word(o.One[0].Blades[0].Name), o.One[0].Says())
	}
	return say.Of("%s adds most: it %s", say.Word(o.One[0].Blades[0].Name), o.One[0].Says())
}

const (
	year        = 365 * 24 * time.Hour
	mostRows    = 20_000
	sharpenings = 8 // that a good blade takes (craft section 14)
)

// kind is a kind of cut: what differs by less is cut alike.
type kind struct {
	saw                             uuid.UUID
	material                        string
	direction                       cut.Direction
	finish                          cut.Finish
	form                            cut.Form
	thickness, width, length, depth int // mm, in steps
	bevel, miter                    int
	moisture                        cut.Moisture
}

// piece is a row of the work.
type piece struct {
	kind   kind
	cut    record.Cut
	pieces int
	metres float64
}

func kindOf(c record.Cut) kind {
	step := func(l measure.Length, by float64) int { return int(math.Round(l.Mm()/by) * by) }
	return kind{c.SawID, c.Material, c.Direction, c.Finish, c.Form, step(c.Thickness, 2), step(c.Width, 25), step(c.Length, 100), step(c.Depth, 1),
		int(math.Round(c.BevelDeg)), int(math.Round(c.MiterDeg)), c.Moisture}
}

// Weigh weighs what is sold over a shop's work.
func (s Station) Weigh(ctx context.Context, shop uuid.UUID, a Ask) (Owning, error) {
	shelf, err := s.Store.Shelf(ctx, shop)
	if err != nil {
		return Owning{}, err
	}
	sh, err := s.Store.Shop(ctx, shop)
	if err != nil {
		return Owning{}, err
	}
	out := Owning{Years: 1, One: []Bought{}}
	var work []piece
	if a.Rows != nil {
		work = planned(shelf, a.Rows)
	} else if work, out.From, err = s.logged(ctx, shop, shelf); err != nil {
		return out, err
	} else if out.From != nil {
		out.Years = max(1.0/12, min(1, s.Now().Sub(*out.From).Hours()/year.Hours()))
	}
	w, err := weigh(ctx, shelf, work)
	if err != nil {
		return out, err
	}
	for _, p := range work {
		out.Rows, out.Pieces, out.Metres = out.Rows+1, out.Pieces+p.pieces, out.Metres+p.metres
	}
	report, err := own.Weigh(w.Work, w.owned(), w.sold())
	if err != nil {
		return out, err
	}
	out.Total, out.Market = report.Total, w.market
	buy := func(p own.Purchase) Bought { return w.bought(p, a, out.Years, sh.Sharpening) }
	for _, p := range report.One {
		out.One = append(out.One, buy(p))
	}
	for into, p := range map[**Bought]*own.Purchase{&out.Two: report.Two, &out.Three: report.Three} {
		if p != nil {
			b := buy(*p)
			*into = &b
		}
	}
	for _, b := range report.NeverBest {
		if r := w.blades[b]; r.Teeth > 0 && r.Make == blade.Toothed {
			out.NeverBest = append(out.NeverBest, r)
		}
	}
	for _, b := range report.Alone {
		out.Alone = append(out.Alone, w.blades[b])
	}
	out.Kerfs = w.kerfs(shelf.Saws)
	out.Heard = heard(shelf)
	if out.Several, err = w.several(); err != nil {
		return out, err
	}
	for _, k := range report.Undone {
		out.Undone = append(out.Undone, w.says[k])
	}
	return out, nil
}

func heard(shelf record.Shelf) (out []Heard) {
	for _, w := range shelf.Saws {
		if w.Retired != nil {
			continue
		}
		for _, f := range guide.Standing(w.Saw, w.Alignment(), w.HeldTo()) {
			out = append(out, Heard{w.Name, f})
		}
	}
	for _, b := range shelf.Blades {
		if b.Retired == nil && b.Condition.Unfit != "" {
			bar := choose.Bar(b.Condition)
			out = append(out, Heard{b.Name, guide.Finding{Verdict: verdict.Stop, Why: bar.Why, WayOut: bar.WayOut}})
		}
	}
	return out
}

// weighed is work in numbers, with what its places stand for.
type weighed struct {
	own.Work
	blades []record.Blade // owned, the first of the blades
	market []Sold         // the others
	says   []say.Line     // of each kind
	metres []float64      // of each kind, a piece
	both   []*[2]Kerf     // of each kind, a piece with a thin and a full kerf; nil where that is no question
}

func (w weighed) owned() []int {
	out := make([]int, len(w.blades))
	for i := range out {
		out[i] = i
	}
	return out
}

func (w weighed) sold() []int {
	out := make([]int, len(w.market))
	for i := range out {
		out[i] = len(w.blades) + i
	}
	return out
}

// Market is what is sold for a shop's saws, each blade once.
func Market(saws []record.Saw) []Sold {
	var out []Sold
	for _, w := range saws {
		if w.Retired != nil {
			continue
		}
		for _, b := range starter.Blades(w.Saw) {
			id := fmt.Sprintf("%s-%.0f-%.1f-%.1f", b.ID, b.Blade.Diameter.Mm(), b.Blade.Bore.Mm(), b.Blade.Kerf.Mm())
			if i := slices.IndexFunc(out, func(s Sold) bool { return s.ID == id }); i >= 0 {
				out[i].Saws = append(out[i].Saws, w.Name)
				continue
			}
			out = append(out, Sold{id, b.Name, b.For, b.Blade, []string{w.Name}})
		}
	}
	return out
}

// weigh works out the minutes of every kind of cut with every blade, sharp and
// clean: what is owned for years is weighed so, not by how it hangs there today.
func weigh(ctx context.Context, shelf record.Shelf, work []piece) (weighed, error) {
	w := weighed{market: Market(shelf.Saws)}
	for _, b := range shelf.Blades {
		if b.Retired == nil && b.Condition.Unfit == "" { // one that may not run does no work
			w.blades = append(w.blades, b)
		}
	}
	sharp := shopchoose.State
	rack := make([]choose.Candidate, 0, len(w.blades)+len(w.market))
	for _, b := range w.blades {
		rack = append(rack, choose.Candidate{Blade: b.Blade, State: sharp(b.Blade, care.Condition{})})
	}
	for _, b := range w.market {
		rack = append(rack, choose.Candidate{Blade: b.Blade, State: sharp(b.Blade, care.Condition{})})
	}
	place := map[uuid.UUID]int{}
	for _, x := range shelf.Saws {
		place[x.ID] = len(w.Change)
		w.Change = append(w.Change, x.ChangeMinutes)
	}
	kinds := map[kind]int{}
	station := shopchoose.At(shelf)
	for _, p := range work {
		k, known := kinds[p.kind]
		if !known {
			one, err := w.kind(ctx, station, p.cut, rack)
			var refused *refusal.Error
			if errors.As(err, &refused) {
				k = -1 // as the saw is today it would not be cut
			} else if err != nil {
				return w, err
			} else {
				k = len(w.Minutes)
				w.Minutes, w.Could, w.Saw = append(w.Minutes, one.minutes), append(w.Could, one.could), append(w.Saw, place[p.cut.SawID])
				w.says, w.metres, w.both = append(w.says, one.says), append(w.metres, one.metres), append(w.both, one.both)
			}
			kinds[p.kind] = k
		}
		if k >= 0 {
			w.Rows = append(w.Rows, own.Row{Kind: k, Pieces: p.pieces})
		}
	}
	return w, nil
}

// A weighedKind is a kind of cut, weighed a piece.
type weighedKind struct {
	minutes []float64
	could   []bool
	says    say.Line
	metres  float64
	both    *[2]Kerf
}

// kind weighs one kind of cut. A sold blade counts where somebody would think of
// it for this beside everything that is owned.
func (w weighed) kind(ctx context.Context, station shopchoose.Station, c record.Cut, rack []choose.Candidate) (weighedKind, error) {
	saw, j, r, err := station.Request(ctx, uuid.Nil, c)
	if err != nil {
		return weighedKind{}, err
	}
	minutes := make([]float64, len(rack))
	for i := range minutes {
		minutes[i] = own.Never
	}
	could := make([]bool, len(rack))
	modelled := j.Material.Kind.Modelled()
	// A year's work is weighed on saws in order: what was measured today is said
	// beside it, and put right before the next cut.
	if shopchoose.Worst(guide.Findings(j, saw.Saw, truing.Alignment{}, saw.HeldTo())) < verdict.Stop {
		ways := make([]shopchoose.Way, len(rack))
		for n, o := range choose.Rank(r.Request, rack).Fit {
			ways[o.Index] = shopchoose.WayOf(o, modelled)
			if !modelled && n > 0 && !o.Level {
				ways[o.Index].May = false // by rule: only those at the head
			}
			could[o.Index] = ways[o.Index].May && ways[o.Index].Open
			minutes[o.Index] = o.Minutes.Total()
			if !modelled {
				minutes[o.Index] = job.ByRule(j)
			}
		}
		for i, sold := range w.market { // a blade that is made for another saw is bought for no cut on this one
			if !slices.Contains(sold.Saws, saw.Name) {
				ways[len(w.blades)+i] = shopchoose.Way{}
			}
		}
		mine, all := shopchoose.Likely(ways[:len(w.blades)]), shopchoose.Likely(ways)
		for i := range minutes {
			if i < len(w.blades) && !mine[i] || i >= len(w.blades) && !all[i] {
				minutes[i] = own.Never
			}
		}
	}
	out := weighedKind{minutes, could, kindOfWork(j, saw.Name),
		j.CutLength().Mm() / 1000, nil}
	best := -1
	for i := range w.blades {
		if minutes[i] < own.Never && (best < 0 || minutes[i] < minutes[best]) {
			best = i
		}
	}
	if best >= 0 && through(j) && w.blades[best].Make == blade.Toothed {
		both := thinFull(r.Request, w.blades[best].Blade)
		out.both = &both
	}
	return out, nil
}

// kindOfWork names a kind of cut and its saw.
func kindOfWork(j cut.Job, saw string) say.Line {
	if j.Form != cut.Through {
		return say.Of("a %s in %s, %s thick, for a %s face, on %s", j.Form, j.Material, j.Thickness, j.Finish, saw)
	}
	form := map[cut.Direction]string{
		cut.Rip:      "rips in %s, %s thick, for a %s face, on %s",
		cut.Crosscut: "crosscuts in %s, %s thick, for a %s face, on %s",
		cut.Sheet:    "sheets of %s, %s thick, for a %s face, on %s",
	}[j.Direction]
	return say.Of(form, j.Material, j.Thickness, j.Finish, saw)
}

// bought is a purchase with the names of its parts, and in money where somebody
// has said what things cost.
func (w weighed) bought(p own.Purchase, a Ask, years, sharpening float64) Bought {
	out := Bought{Saves: p.Saves, Changes: p.Changes}
	metres := map[int]float64{}
	for _, t := range p.Takes {
		metres[t.Blade] += float64(t.Pieces) * w.metres[t.Kind]
		out.Takes = append(out.Takes, Taken{w.says[t.Kind], w.market[t.Blade-len(w.blades)].Name, t.Pieces, t.Saves})
	}
	pay, priced := own.Pays(p.Saves/years, 0, 0, 0, 0, 0, a.Hour), a.Hour > 0
	for _, b := range p.Blades {
		s := w.market[b-len(w.blades)]
		out.Blades = append(out.Blades, s)
		price := a.Prices[s.ID]
		priced = priced && price > 0
		pay = pay.And(own.Pays(0, metres[b]/years, care.Condition{}.LifeM(s.Blade), price, sharpening, sharpenings, a.Hour))
	}
	if priced {
		out.Pay = &pay
	}
	return out
}

// A First is a blade to begin with, and what else one could.
type First struct {
	Sold
	Undone int // pieces that it cannot make
	Total  float64
	Or     []First
}

// FirstBlades says which blades to begin with for some work on a shop's saws,
// whatever it owns.
func (s Station) FirstBlades(ctx context.Context, shop uuid.UUID, rows []job.Row) ([]First, error) {
	shelf, err := s.Store.Shelf(ctx, shop)
	if err != nil {
		return nil, err
	}
	shelf.Blades = nil
	w, err := weigh(ctx, shelf, planned(shelf, rows))
	if err != nil {
		return nil, err
	}
	steps, err := own.First(w.Work, w.sold(), 4, func(have []int, b int) bool {
		return w.market[b].Blade.KeptFor == blade.UseGeneral && !slices.ContainsFunc(have, func(h int) bool { return slices.Equal(w.market[h].Saws, w.market[b].Saws) })
	})
	if err != nil {
		return nil, err
	}
	of := func(x own.Step) First {
		f := First{Sold: w.market[x.Blade], Undone: x.Undone, Total: x.Total}
		for _, o := range x.Or {
			if slices.Equal(w.market[o.Blade].Saws, f.Saws) && len(f.Or) < 2 {
				f.Or = append(f.Or, First{Sold: w.market[o.Blade], Undone: o.Undone, Total: o.Total})
			}
		}
		return f
	}
	out := []First{}
	for _, x := range steps {
		out = append(out, of(x))
	}
	return out, nil
}
