// Package care runs inspections, washes, sharpenings, baths and the calendar of
// what is due.
package care

import (
	"context"
	"encoding/json"
	"maps"
	"slices"
	"strings"

	"github.com/google/uuid"

	"corte/core/care"
	"corte/core/choose"
	"corte/core/history"
	"corte/core/saw"
	"corte/core/say"
	"corte/core/truing"
	"corte/core/verdict"
	"corte/internal/record"
	"corte/internal/refusal"
	"corte/internal/shop/bench"
	shopchoose "corte/internal/shop/choose"
	"corte/internal/shop/env"
	shopgroove "corte/internal/shop/groove"
	"corte/internal/shop/rack"
	"corte/internal/store"
)

// A Station does this work in every shop on one database. It holds no state.
type Station struct{ *env.Env }

// At is the station over an environment: a database, or a transaction of one.
func At(k *env.Env) Station { return Station{k} }

// A Care is how all of a shop's blades stand, and what is under way.
type Care struct {
	Blades  []BladeCare // the most urgent first
	Washes  []Wash
	Grooves []shopgroove.Row // that are being fitted
	Away    []store.Entry    // sent rows of the blades that are with the saw doctor
	Baths   []Bath
}

// A BladeCare is what one blade wants.
type BladeCare struct {
	Blade    store.Blade
	Health   care.Health
	Path     []care.Step // where somebody complained of it
	Left     int         // sharpenings
	LeftFrom say.Line
}

// All tells of every blade that has teeth and is not retired.
func (s Station) All(ctx context.Context, shop uuid.UUID) (Care, error) {
	var out Care
	blades, err := s.Store.Blades(ctx, shop, store.Place{}, 0)
	if err != nil {
		return out, err
	}
	aligned, err := s.aligned(ctx, shop)
	if err != nil {
		return out, err
	}
	now := s.Now()
	for _, b := range blades {
		if b.Teeth == 0 {
			continue
		}
		one := BladeCare{Blade: b, Health: care.HealthOf(b.Condition, b.Grind, now),
			Path: care.Path(b.Condition, b.Grind, b.MountedOn != nil && aligned[*b.MountedOn])}
		one.Left, one.LeftFrom = care.SharpeningsLeft(b.Condition, b.Blade, b.Tip.Mm(), b.Sharpened)
		out.Blades = append(out.Blades, one)
	}
	slices.SortStableFunc(out.Blades, func(a, b BladeCare) int {
		if d := int(b.Health.Worst()) - int(a.Health.Worst()); d != 0 {
			return d
		}
		return strings.Compare(a.Blade.Name, b.Blade.Name)
	})
	all, err := s.Store.Washes(ctx, shop)
	if err != nil {
		return out, err
	}
	rack := make(map[uuid.UUID]store.Blade, len(blades))
	for _, b := range blades {
		rack[b.ID] = b
	}
	for _, w := range all {
		if missing := slices.DeleteFunc(slices.Clone(w.Blades), func(id uuid.UUID) bool { _, ok := rack[id]; return ok }); len(missing) > 0 { // retired while it soaks
			more, err := s.Store.BladesOf(ctx, shop, missing)
			if err != nil {
				return out, err
			}
			maps.Copy(rack, more)
		}
	}
	if out.Washes, err = record.Readable(all, func(w store.Wash) (Wash, error) { return wash(w, rack) }); err != nil {
		return out, err
	}
	if out.Grooves, err = shopgroove.At(s.Env).Fitting(ctx, shop); err != nil {
		return out, err
	}
	if out.Away, err = s.Store.Away(ctx, shop); err != nil {
		return out, err
	}
	out.Baths, err = s.Baths(ctx, shop)
	return out, err
}

// StandIns names the blades that can serve while one is away: of its kind, fit
// for a saw that takes it, and neither dull nor pitchy. At most so many.
func (s Station) StandIns(ctx context.Context, shop, id uuid.UUID, most int) ([]string, error) {
	b, err := rack.At(s.Env).Blade(ctx, shop, id)
	if err != nil {
		return nil, err
	}
	owned, err := s.Store.Saws(ctx, shop)
	if err != nil {
		return nil, err
	}
	saws := make([]saw.Saw, len(owned))
	for i, w := range owned {
		saws[i] = w.Saw
	}
	rack, err := s.Store.Rack(ctx, shop)
	if err != nil {
		return nil, err
	}
	names := []string{}
	for _, o := range rack {
		if o.ID != id && choose.StandsIn(o.Blade, b.Blade, saws) && choose.Bar(o.Condition) == nil && choose.CareVerdict(shopchoose.State(o.Blade, o.Condition)) == verdict.Clear {
			names = append(names, o.Name)
		}
	}
	slices.Sort(names)
	return names[:min(most, len(names))], nil
}

// aligned tells the saws whose heel and run-out were measured lately and found
// good; a saw that has no slot needs only the latter.
func (s Station) aligned(ctx context.Context, shop uuid.UUID) (map[uuid.UUID]bool, error) {
	saws, err := s.Store.Saws(ctx, shop)
	if err != nil {
		return nil, err
	}
	all, err := s.Store.Stands(ctx, shop)
	if err != nil {
		return nil, err
	}
	out := map[uuid.UUID]bool{}
	for _, w := range saws {
		ok := true
		for _, st := range bench.StandsOf(w, all, s.Now()) {
			if st.Test == truing.HeelTest || st.Test == truing.RunOutTest {
				ok = ok && st.Doubt.Cause == truing.Trusted && st.Verdict == verdict.Clear
			}
		}
		out[w.ID] = ok
	}
	return out, nil
}

// SendOut logs that a blade goes to the saw doctor. A retired blade does not.
func (s Station) SendOut(ctx context.Context, shop uuid.UUID, blade uuid.UUID, d history.Sent, by, note string) (store.Entry, error) {
	var out store.Entry
	err := s.WithBlade(ctx, shop, blade, func(in *env.Env, b store.Blade) (err error) {
		switch {
		case b.Retired != nil:
			return refusal.Of("id", "%s is retired", b.Name)
		case b.Condition.Away:
			return env.Already("id", "%s is already out for sharpening. Nothing was saved; take it back first", b.Name)
		case d.To == "":
			return refusal.Of("to", "enter where it goes")
		}
		out, err = At(in).note(ctx, shop, blade, history.KindSent, d, by, note)
		return err
	})
	return out, err
}

// TakeBack logs that a blade came back, sharpened or only mended, and writes
// its new kerf and diameter into its numbers.
func (s Station) TakeBack(ctx context.Context, shop uuid.UUID, blade uuid.UUID, sharpened bool, d history.Sharpened, by, note string) (store.Entry, error) {
	raw, err := json.Marshal(d)
	if err != nil {
		return store.Entry{}, err
	}
	kind := history.KindReturned
	if sharpened {
		kind = history.KindSharpened
	}
	var out store.Entry
	err = s.WithBlade(ctx, shop, blade, func(in *env.Env, b store.Blade) (err error) {
		changed := b
		if d.Kerf > 0 {
			changed.Kerf = d.Kerf
		}
		if d.Diameter > 0 {
			changed.Diameter = d.Diameter
		}
		switch {
		case !b.Condition.Away:
			return env.Already("id", "%s isn't out for sharpening, so it can't come back. Nothing was saved; send it out first, or look in its log", b.Name)
		case d.Diameter > b.Diameter+1:
			return refusal.Of("diameter_mm", "a blade can't come back larger than the %v it went out with", b.Diameter)
		}
		if err := rack.CheckBlade(changed); err != nil {
			return err
		}
		e := store.Entry{Shop: shop, At: s.Now(), Kind: kind, Blade: &blade, By: by, Note: note, Detail: raw}
		if out, err = in.Store.Append(ctx, e); err != nil || changed == b {
			return err
		}
		return refusal.Changed(in.Store.ChangeBlade(ctx, shop, changed), "blade")
	})
	return out, err
}

// A Money is what a blade costs and has cost, in the shop's own money.
type Money struct {
	SoFar    float64 // a metre; 0 if nothing is known
	Expected float64
	Spent    float64
	LifeM    float64 // metres of the usual work that one sharp edge lasts
	Dear     care.Plan
	Cheap    care.Plan
	Line     []care.Point
	Pays     *float64 // metres from which it costs less than throwing cheap ones away; nil if never
}

// A MoneyAsk may put prices in place of those that are known; 0 leaves them.
type MoneyAsk struct {
	Price, Sharpening     float64
	Sharpenings           int     // -1 for those that are left
	CheapPrice, CheapLife float64 // the latter as a share of this blade's life on one edge
}

// Money works out what a blade costs by the metre, and from when it costs less
// than cheap blades that are thrown away.
func (s Station) Money(ctx context.Context, shop, id uuid.UUID, a MoneyAsk) (Money, error) {
	b, err := rack.At(s.Env).Blade(ctx, shop, id)
	if err != nil {
		return Money{}, err
	}
	sh, err := rack.At(s.Env).Shop(ctx, shop)
	if err != nil {
		return Money{}, err
	}
	c := b.Condition
	if b.Teeth == 0 {
		return Money{}, refusal.Of("id", "a wheel can't be sharpened")
	}
	out := Money{Spent: b.Price + c.Spent, LifeM: c.LifeM(b.Blade)}
	out.Dear = care.Plan{Price: a.Price, Sharpening: a.Sharpening, Sharpenings: a.Sharpenings, LifeM: out.LifeM}
	if out.Dear.Price == 0 {
		out.Dear.Price = b.Price
	}
	if out.Dear.Sharpening == 0 {
		out.Dear.Sharpening = sh.Sharpening
		if c.Spent > 0 && c.Sharpenings > 0 {
			out.Dear.Sharpening = c.Spent / float64(c.Sharpenings)
		}
	}
	if a.Sharpenings < 0 {
		left, _ := care.SharpeningsLeft(c, b.Blade, b.Tip.Mm(), b.Sharpened)
		out.Dear.Sharpenings = left + c.Sharpenings + b.Sharpened
	}
	if c.Metres > 0 && out.Spent > 0 {
		out.SoFar = out.Spent / c.Metres
	}
	if out.Dear.Price > 0 && out.Dear.Known() {
		out.Expected = care.CostPerMetre(out.Dear.Price, out.Dear.Sharpening, out.Dear.Sharpenings, out.LifeM)
	}
	if a.CheapPrice > 0 && out.Dear.Price > 0 {
		out.Cheap = care.Plan{Price: a.CheapPrice, LifeM: out.LifeM * a.CheapLife}
		line, from, ever := care.Compare(out.Dear, out.Cheap, out.LifeM*float64(out.Dear.Sharpenings+1))
		out.Line = line
		if ever {
			out.Pays = &from
		}
	}
	return out, nil
}
