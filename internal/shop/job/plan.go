package job

import (
	"context"
	"errors"
	"slices"

	"github.com/google/uuid"

	"corte/core/blade"
	"corte/core/choose"
	"corte/core/cut"
	"corte/core/guide"
	"corte/core/job"
	"corte/core/runsheet"
	"corte/core/say"
	"corte/core/verdict"
	"corte/internal/record"
	"corte/internal/refusal"
	shopchoose "corte/internal/shop/choose"
)

// stackMin is what putting a dado set on takes beyond another change: a stack is
// some twenty minutes where a blade is three (craft section 16).
const stackMin = 17

// A column of the weighing is a blade on a saw that it fits.
type column struct {
	saw, blade int // of the shelf
}

// A way is a row cut with one blade on one saw.
type way struct {
	shopchoose.Way
	minutes float64 // of all pieces, setting up included
	setUp   float64
	job     cut.Job
	option  choose.Option
	verdict verdict.Verdict
}

// A weighing is every row of a job with every blade on every saw.
type weighing struct {
	shelf record.Shelf
	pace  float64 // what minutes of cutting are multiplied by
	saws  []int   // of the shelf, that are used
	cols  []column
	rows  []Row
	left  []int
	ways  [][]way // [row][column]
	why   []say.Line
}

// layOut makes a run sheet for what is left of a job.
func (s Station) layOut(ctx context.Context, shop uuid.UUID, j Job, k Knobs) (Sheet, error) {
	shelf, err := s.Store.Shelf(ctx, shop)
	if err != nil {
		return Sheet{}, err
	}
	pace := 1.0
	if k.Pace {
		learnt, err := s.Pace(ctx, shop)
		if err != nil {
			return Sheet{}, err
		}
		pace = learnt.Factor()
	}
	w, err := weigh(ctx, shelf, j, k, pace)
	if err != nil {
		return Sheet{}, err
	}
	sheet, err := w.sheet(s, k)
	if err != nil {
		return sheet, err
	}
	sheet.Foretold = map[uuid.UUID]float64{}
	pieces := map[uuid.UUID]int{}
	for _, t := range sheet.Turns {
		for _, c := range t.Cuts { // a row is parted where its blade is washed
			pieces[c.Row] += c.Pieces
			sheet.Foretold[c.Row] += c.Minutes / pace
		}
	}
	for row, n := range pieces {
		sheet.Foretold[row] /= float64(n)
	}
	if j.Sheet != nil {
		for row, minutes := range j.Sheet.Foretold {
			if j.Done[row].Made > 0 {
				sheet.Foretold[row] = minutes
			}
		}
	}
	return sheet, nil
}

// recent is the number of newest jobs that the pace is learnt from.
const recent = 50

// Pace is how long this shop takes against what was foretold.
func (s Station) Pace(ctx context.Context, shop uuid.UUID) (job.Pace, error) {
	all, err := s.Jobs(ctx, shop, recent)
	if err != nil {
		return job.Pace{}, err
	}
	var rows []job.Took
	for _, j := range all {
		for _, r := range j.Rows {
			rows = append(rows, job.Took{Foretold: j.Foretold(r.ID), Minutes: j.Took[r.ID]})
		}
	}
	return job.Learn(rows), nil
}

func weigh(ctx context.Context, shelf record.Shelf, j Job, k Knobs, pace float64) (*weighing, error) {
	w := &weighing{shelf: shelf, pace: pace}
	column := map[column]int{}
	for i, saw := range shelf.Saws {
		if saw.Retired == nil && !slices.Contains(k.Without, saw.ID) {
			w.saws = append(w.saws, i)
		}
	}
	if len(w.saws) == 0 {
		return nil, refusal.Of("knobs.without", "no saw is left. Select one")
	}
	station := shopchoose.At(shelf)
	for _, r := range j.Rows {
		left := j.Done[r.ID].Left
		if left == 0 {
			continue
		}
		ways := make([]way, len(w.cols))
		var why say.Line
		for _, si := range w.saws {
			saw := shelf.Saws[si]
			if r.Saw != nil && *r.Saw != saw.ID {
				continue
			}
			stops, err := w.on(ctx, station, r, left, si, k, column, &ways)
			if err != nil {
				return nil, err
			}
			if why.Zero() && !stops.Zero() {
				why = say.Of("%s: %s", say.Word(saw.Name), stops)
			}
		}
		if why.Zero() {
			why = say.Of("its saw and blade aren't used today")
		}
		w.rows, w.left, w.ways, w.why = append(w.rows, r), append(w.left, left), append(w.ways, ways), append(w.why, why)
	}
	for i := range w.ways { // columns that later rows added
		w.ways[i] = append(w.ways[i], make([]way, len(w.cols)-len(w.ways[i]))...)
	}
	return w, nil
}

// on weighs a row on one saw; it reports why no blade may cut it there.
func (w *weighing) on(ctx context.Context, station shopchoose.Station, r Row, left, si int, k Knobs, places map[column]int, ways *[]way) (say.Line, error) {
	saw := w.shelf.Saws[si]
	c := CutOf(r, saw.ID)
	c.Pieces = left
	_, j, req, err := station.Request(ctx, uuid.Nil, c)
	var refused *refusal.Error
	if errors.As(err, &refused) {
		return refused.What, nil
	}
	if err != nil {
		return say.Line{}, err
	}
	found := shopchoose.Findings(j, saw)
	// A sheet sets the fence for each row. Working round a fence that doesn't
	// reach is for the person at the saw to decide.
	if i := slices.IndexFunc(found, func(f guide.Finding) bool { return f.Verdict == verdict.Stop || f.Rule == guide.RuleReach }); i >= 0 {
		return say.Of("%s %s", found[i].Why, found[i].WayOut), nil
	}
	rack := make([]choose.Candidate, 0, len(w.shelf.Blades))
	of := make([]int, 0, len(w.shelf.Blades))
	for bi, b := range w.shelf.Blades {
		if b.Retired != nil || len(k.Only) > 0 && !slices.Contains(k.Only, b.ID) || r.Blade != nil && *r.Blade != b.ID {
			continue
		}
		rack, of = append(rack, req.Candidate(b, saw)), append(of, bi)
	}
	ranking := choose.Rank(req.Request, rack)
	modelled := j.Material.Kind.Modelled()
	for n, o := range ranking.Fit {
		if !modelled && n > 0 && !o.Level {
			break // by rule: only those at the head
		}
		at := column{si, of[o.Index]}
		place, known := places[at]
		if !known {
			place = len(w.cols)
			places[at] = place
			w.cols = append(w.cols, at)
		}
		for len(*ways) <= place {
			*ways = append(*ways, way{})
		}
		jj := j
		jj.Height = o.Height
		one := way{Way: shopchoose.WayOf(o, modelled), minutes: o.Minutes.Total() * float64(left), job: jj, option: o,
			verdict: max(o.Verdict(modelled, rack[o.Index].State), shopchoose.Worst(found))}
		if !modelled {
			one.minutes = ByRule(j) * float64(left)
		}
		one.setUp = setUp
		if saw.Kind.HandHeld() {
			one.setUp = setUp * float64(left)
		}
		one.minutes = w.pace * (one.minutes + one.setUp)
		(*ways)[place] = one
	}
	switch {
	case len(ranking.Fit) > 0:
		return say.Line{}, nil
	case len(rack) == 0:
		return say.Of("none of the selected blades is in your rack"), nil
	case len(ranking.Stopped) > 0:
		return nearest(ranking.Stopped).Why, nil
	}
	return say.Of("no blade for it"), nil
}

// nearest is the stop that says most of why no blade will do: that it is not for
// this material or this cut, rather than that it does not fit the saw.
func nearest(stopped []choose.Option) choose.Stop {
	about := func(s choose.Stop) int {
		switch s.Rule {
		case choose.RuleMaterial:
			return 0
		case choose.RuleDiameter, choose.RuleBore, choose.RuleMake, choose.RuleDado:
			return 2
		}
		return 1
	}
	best := stopped[0].Stops[0]
	for _, o := range stopped {
		for _, s := range o.Stops {
			if about(s) < about(best) {
				best = s
			}
		}
	}
	return best
}

// ByRule is what a piece takes where nothing says how fast it is fed: handling
// and a slow, even push. It only keeps such rows from counting for nothing.
func ByRule(j cut.Job) float64 {
	const slow = 1.5 // m/min
	return 0.5 + j.FeedLength().Mm()/1000/slow
}

// CutOf is the cut of a row on a saw.
func CutOf(r Row, saw uuid.UUID) record.Cut {
	return record.Cut{SawID: saw, Cut: cut.Cut{Part: r.Part}}
}

func plain(ways []way) []shopchoose.Way {
	out := make([]shopchoose.Way, len(ways))
	for i, x := range ways {
		out[i] = x.Way
	}
	return out
}

// day is a weighing in numbers, over the rows that some blade may cut.
func (w *weighing) day(k Knobs, barred map[column]bool) (d runsheet.Day, rows []int) {
	d.Saw = make([]int, len(w.cols))
	d.Mounted, d.ChangeMin = make([]int, len(w.saws)), make([]float64, len(w.saws))
	for i, si := range w.saws {
		saw := w.shelf.Saws[si]
		d.Mounted[i], d.ChangeMin[i] = runsheet.None, saw.ChangeMinutes
		if k.ChangeMin != nil {
			d.ChangeMin[i] = *k.ChangeMin
		}
		for c, col := range w.cols {
			if col.saw != si {
				continue
			}
			d.Saw[c] = i
			if saw.Mounted != nil && *saw.Mounted == w.shelf.Blades[col.blade].ID {
				d.Mounted[i] = c
			}
		}
	}
	if k.ChangeMin == nil || *k.ChangeMin > 0 {
		d.Extra = make([]float64, len(w.cols))
		for c, col := range w.cols {
			if w.shelf.Blades[col.blade].Make == blade.Dado {
				d.Extra[c] = stackMin
			}
		}
	}
	for i, ways := range w.ways {
		left := plain(ways)
		for c := range left {
			left[c].May = left[c].May && !barred[w.cols[c]]
		}
		may := shopchoose.Likely(left)
		minutes, any := make([]float64, len(w.cols)), false
		for c, x := range ways {
			minutes[c] = runsheet.Never
			if may[c] {
				minutes[c], any = x.minutes, true
			}
		}
		if any {
			d.Minutes, d.Stage, rows = append(d.Minutes, minutes), append(d.Stage, int(w.rows[i].In())), append(rows, i)
		}
	}
	return d, rows
}

func (w *weighing) sheet(s Station, k Knobs) (Sheet, error) {
	out := Sheet{V: sheetNow, Turns: []Turn{}, People: max(1, k.People)}
	barred := map[column]bool{}
	d, rows := w.day(k, barred)
	plan, err := runsheet.Plan(d)
	if err != nil {
		return out, err
	}
	out.BoundMin = plan.BoundMin
	// A blade is on one saw at a time: where the sheet wants it on two, it stays
	// where it does most, and the rest is planned anew. The bound holds for both.
	moved := false
	for again := true; again; {
		if again, moved = w.twice(d, plan, barred); !again {
			break
		}
		d, rows = w.day(k, barred)
		if plan, err = runsheet.Plan(d); err != nil {
			return out, err
		}
	}
	out.Exact = !moved && plan.TotalMin()-out.BoundMin <= 1e-6*(1+plan.TotalMin())
	planned := map[int]bool{}
	for _, i := range rows {
		planned[i] = true
	}
	for i, r := range w.rows {
		if !planned[i] {
			out.LeftOut = append(out.LeftOut, LeftOut{r.ID, w.why[i]})
		}
	}
	for _, i := range w.saws {
		saw := w.shelf.Saws[i]
		for _, f := range guide.Standing(saw.Saw, saw.Alignment(), saw.HeldTo()) {
			out.Heard = append(out.Heard, Heard{saw.Name, f.Verdict.String(), f.Why, f.WayOut})
		}
	}
	steps, passes := w.passes(s, d, w.steps(plan, rows))
	w.write(&out, d, steps)
	out.Passes = passes
	return out, nil
}

// write puts steps on a sheet, by the clock.
func (w *weighing) write(out *Sheet, d runsheet.Day, steps []step) {
	all := spells(d, steps)
	timed := make([]runsheet.Spell, len(all))
	for i, s := range all {
		timed[i] = s.Spell
	}
	slots, end := runsheet.Clock(timed, out.People)
	out.EndMin = end
	burn, pieces := 0.0, 0
	for i, sp := range all {
		col, slot := w.cols[sp.col], slots[i]
		saw, b := w.shelf.Saws[col.saw], w.shelf.Blades[col.blade]
		turn := Turn{Stage: job.Stage(sp.Stage), Saw: saw.ID, SawName: saw.Name, Blade: b.ID, BladeName: b.Name, Teeth: b.Teeth, Changed: sp.changed,
			Wash: sp.steps[0].wash, Person: slot.Person, Begin: slot.Begin, CutsFrom: slot.CutsFrom, End: slot.End}
		if sp.changed {
			out.Changes++
			out.ChangesMin += d.PutOn(sp.col)
		}
		if turn.Wash {
			out.WashMin += washMin
		}
		out.CutMin += sp.CutMin
		at := slot.CutsFrom
		for _, t := range sp.steps {
			x := w.ways[t.row][t.col]
			one := Cut{Row: w.rows[t.row].ID, Pieces: t.pieces, Begin: at, Minutes: t.minutes, Height: x.option.Height, Verdict: x.verdict.String(), Shut: !x.Open,
				Burn: x.option.Figures.Burn, Rework: x.option.Minutes.Rework() * float64(t.pieces)}
			if f := x.option.Figures.Feed; f > 0 {
				one.Feed, one.Seconds = float64(f), f.Seconds(x.job.FeedLength())
				burn, pieces = burn+x.option.Figures.Burn*float64(t.pieces), pieces+t.pieces
			}
			if x.job.Motion == cut.Chop {
				one.Height = 0
			}
			at += t.minutes
			turn.Cuts = append(turn.Cuts, one)
		}
		out.Turns = append(out.Turns, turn)
	}
	if pieces > 0 {
		out.Burn = burn / float64(pieces)
	}
}

// twice bars a blade that a plan has on two saws from all but the one where it
// cuts longest. It reports whether that bars anything new, and whether a blade
// stays on two because some row can be cut in no other way: it is moved then,
// which the plan does not count.
func (w *weighing) twice(d runsheet.Day, plan runsheet.Sheet, barred map[column]bool) (again, moved bool) {
	minutes := map[int]map[int]float64{} // by blade of the shelf and column
	for c, at := range plan.Blade {
		b := w.cols[at].blade
		if minutes[b] == nil {
			minutes[b] = map[int]float64{}
		}
		minutes[b][at] += d.Minutes[c][at]
	}
	for b, on := range minutes {
		if len(on) < 2 {
			continue
		}
		most := -1
		for c := range w.cols {
			if m, is := on[c]; is && (most < 0 || m > on[most]) {
				most = c
			}
		}
		for c, col := range w.cols {
			if _, used := on[c]; col.blade != b || c == most || barred[col] {
				continue
			} else if w.alone(c, barred) {
				moved = moved || used
				continue
			}
			barred[col], again = true, true
		}
	}
	return again, moved
}

// alone reports whether some row can be cut in no other way than by a column, as
// far as others are not barred already.
func (w *weighing) alone(c int, barred map[column]bool) bool {
	return slices.ContainsFunc(w.ways, func(ways []way) bool {
		for i, x := range ways {
			if i != c && x.May && !barred[w.cols[i]] {
				return false
			}
		}
		return ways[c].May
	})
}
