package demo

import (
	"context"
	"fmt"
	"math/rand/v2"
	"time"

	"corte/core/cut"
	"corte/core/groove"
	"corte/core/history"
	"corte/core/measure"
	"corte/core/saw"
	"corte/internal/record"
	"corte/internal/shop"
	shopgroove "corte/internal/shop/groove"
	"corte/internal/store"
)

// sets are what the demo shop's dado sets are made of.
var sets = map[string]groove.Set{
	"Trapdoor": {Left: 3.2, Right: 3.2, Wings: 2, Ears: 0.08, Parts: []groove.Part{
		{Thickness: 3.2, Count: 2}, {Thickness: 2.4, Count: 1}, {Thickness: 1.6, Count: 2},
		{Thickness: 0.5, Count: 1, Shim: true}, {Thickness: 0.25, Count: 2, Shim: true}, {Thickness: 0.1, Count: 4, Shim: true}, {Thickness: 0.05, Count: 3, Shim: true}}},
	"Bellows": {Kind: groove.Dialled, Build: saw.Left, Ears: 0.15, Ranges: []groove.Range{
		{Cutters: 2, Least: 6.4, Most: 12.7, Start: 6.4, Turn: 1.25}, {Cutters: 3, Least: 12.7, Most: 20.6, Start: 12.7, Turn: 1.25}}},
}

// trapdoorTruth is how thick the parts of Trapdoor really are beyond what is
// stamped on them: the outer pair, then its parts. Its test grooves show it.
var trapdoorTruth = []float64{0.04, -0.02, 0.03, 0.01, 0, 0.01, -0.005, 0}

// A housing is a batch of grooves that the shop made in its season.
type housing struct {
	material  string
	direction cut.Direction
	stock     measure.Length
	width     measure.Length
	length    measure.Length
	depth     measure.Length
	piece     []measure.Length
	fit       groove.Fit
	count     int
	by        string
}

var housings = map[int]housing{
	40:  {"birch-ply", cut.Sheet, 18, 300, 900, 6, []measure.Length{17.7, 17.75, 17.7}, groove.Glue, 12, "Ilse"},
	72:  {"poplar", cut.Crosscut, 19, 240, 900, 6, []measure.Length{11.9, 11.85, 11.9}, groove.Slip, 8, "Maren"},
	104: {"birch-ply", cut.Sheet, 18, 400, 900, 6, []measure.Length{17.85, 17.9, 17.85}, groove.Glue, 10, "Ilse"},
}

// dig makes one batch: mounted, tested until it fits, cut, and off again.
func (h housing) dig(ctx context.Context, st *store.Store, at time.Time, dice *rand.Rand) error {
	svc := shop.New(st, func() time.Time { at = at.Add(7 * time.Minute); return at })
	blade := named("Trapdoor").ID
	tell := func(kind history.Kind) error {
		_, err := st.Append(ctx, store.Entry{Shop: shopRow.ID, At: svc.Now(), Kind: kind, Blade: &blade, Saw: &longTable.ID, By: h.by})
		return err
	}
	if err := tell(history.KindMounted); err != nil {
		return err
	}
	ask := shopgroove.Ask{Piece: h.piece, Fit: h.fit, Edge: 60, Count: h.count, Cut: record.Cut{SawID: longTable.ID, Cut: cut.Cut{Part: cut.Part{Material: h.material, Direction: h.direction,
		Finish: cut.Hidden, Thickness: h.stock, Width: h.width, Length: h.length, Form: cut.Groove, Depth: h.depth}}}}
	g, err := svc.Groove.Start(ctx, shopRow.ID, ask, blade, h.by)
	if err != nil {
		return fmt.Errorf("a groove in %s: %w", h.material, err)
	}
	for range 3 {
		if g, err = svc.Groove.Test(ctx, shopRow.ID, g.ID, g.Version, h.reads(g, dice), g.Fitting.Stand.Height); err != nil {
			return err
		}
		if g.Good {
			break
		}
	}
	if _, err := svc.Groove.End(ctx, shopRow.ID, g.ID, g.Version, h.count, "clean", "none", ""); err != nil {
		return err
	}
	return tell(history.KindDismounted)
}

// reads is what a caliper shows of a groove at three places.
func (h housing) reads(g shopgroove.Groove, dice *rand.Rand) []measure.Length {
	set := sets["Trapdoor"]
	width := set.Nominal(g.Way.Stack.Counts).Mm() + trapdoorTruth[0]
	for i, n := range g.Way.Stack.Counts {
		width += float64(n) * trapdoorTruth[i+1]
	}
	out := make([]measure.Length, 3)
	for i := range out {
		out[i] = measure.Length(int((width+0.015*dice.NormFloat64())*100+0.5)) / 100
	}
	return out
}
