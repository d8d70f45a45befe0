package groove

import (
	"context"

	"github.com/google/uuid"

	"corte/core/blade"
	"corte/core/choose"
	"corte/core/cut"
	"corte/core/groove"
	"corte/core/guide"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/say"
	"corte/core/verdict"
	"corte/internal/refusal"
	shopchoose "corte/internal/shop/choose"
	"corte/internal/store"
)

// cautions are those of the cut, and what a groove at the very edge adds.
func (c scene) cautions() []say.Line {
	out := guide.Cautions(c.job, c.saw.Saw)
	if c.job.Form == cut.Rabbet {
		out = append(out, say.Of("The blade runs into the fence. Put a sacrificial board on the fence that covers the unused part of the blade."))
	}
	if k := c.job.Material.Kind; (k == material.Plywood || k == material.Laminate) && c.job.Direction != cut.Rip {
		out = append(out, say.Of("Score both edges of the groove with a knife first. The face veneer tears out across the grain."))
	}
	for _, f := range c.found {
		if f.Verdict == verdict.Caution {
			out = append(out, say.Of("%s %s", f.Why, f.WayOut))
		}
	}
	return out
}

// tool makes a blade a tool for a groove; set is nil for a single blade.
func (c scene) tool(b store.Blade, set *DadoSet) groove.Tool {
	t := groove.Tool{Blade: b.Blade, Mounted: c.saw.Mounted != nil && *c.saw.Mounted == b.ID}
	if bar := choose.Bar(b.Condition); bar != nil {
		t.Stop, t.WayOut = bar.Why, bar.WayOut
	} else if shopchoose.Worst(c.found) == verdict.Stop {
		t.Stop = say.Of("%s %s", c.found[0].Why, c.found[0].WayOut)
	} else if stops := choose.Stops(b.Blade, c.job, c.saw.Saw); len(stops) > 0 {
		t.Stop, t.WayOut = stops[0].Why, stops[0].WayOut
	}
	if b.Make != blade.Dado {
		return t
	}
	switch {
	case set == nil || set.Version == 0:
		if t.Stop.Zero() {
			t.Stop, t.WayOut = say.Of("its parts aren't recorded"), say.Of("enter its parts under Blades")
		}
	default:
		t.Set, t.Estimate = &set.Set, set.Held.Estimate
	}
	return t
}

// A Plan is every way in which the shop can cut a groove.
type Plan struct {
	Target, Allowance measure.Length
	Piece             groove.Piece
	Mind              say.Line
	Cautions          []say.Line
	Found             []guide.Finding // what stands against it on the saw, whatever cuts it
	Ways              []Way
	Earlier           []Row
}

// flatter reports whether a flat-top blade suits a groove better: kept for
// joints, then sharper.
func flatter(a, b store.Blade) bool {
	if x, y := a.KeptFor == blade.UseJoints, b.KeptFor == blade.UseJoints; x != y {
		return x
	}
	return a.Condition.WearShare(a.Grind) < b.Condition.WearShare(b.Grind)
}

// sets are the shop's dado sets with what is held of their parts.
func (s Station) sets(ctx context.Context, shop uuid.UUID) (map[uuid.UUID]*DadoSet, error) {
	rows, err := s.Store.DadoSets(ctx, shop)
	if err != nil {
		return nil, err
	}
	out := make(map[uuid.UUID]*DadoSet, len(rows))
	for _, r := range rows {
		set := told(r)
		out[r.Blade] = &set
	}
	return out, nil
}

// way is one blade put to a groove, standing as it is set.
func (s Station) way(ctx context.Context, shop uuid.UUID, c scene, id uuid.UUID, now *groove.Stand) (Way, error) {
	b, err := s.Store.Blade(ctx, shop, id)
	if err != nil {
		return Way{}, refusal.NotThere(err, "blade_id", "blade")
	}
	out := Way{Blade: b, Mounted: c.saw.Mounted != nil && *c.saw.Mounted == id}
	if b.Make == blade.Dado {
		set, err := s.dadoSet(ctx, shop, id)
		if err != nil {
			return out, err
		}
		out.Set = &set
	}
	out.Way = c.want.Ways([]groove.Tool{c.tool(b, out.Set)})[0]
	if now != nil {
		out.Way = c.fitting(out, *now, nil).Way()
	}
	return out, nil
}
