package shop_test

import (
	"errors"
	"math"
	"strings"
	"testing"

	"corte/core/cut"
	"corte/core/groove"
	"corte/core/measure"
	"corte/core/verdict"
	"corte/internal/shop"
	"corte/internal/store"
)

func (f floor) groove(saw, material string, depth measure.Length, piece ...measure.Length) shop.GrooveAsk {
	c := f.cut(saw, material, cut.Sheet, 300)
	c.Form, c.Depth, c.Finish = cut.Groove, depth, cut.Hidden
	return shop.GrooveAsk{Cut: c, Piece: piece, Fit: groove.Glue, Edge: 60, Count: 20}
}

func (f floor) ways(t *testing.T, ask shop.GrooveAsk) map[string]shop.GrooveWay {
	t.Helper()
	p, err := f.PlanGroove(t.Context(), f.id, ask, measure.Millimetre)
	if err != nil {
		t.Fatal(err)
	}
	out := map[string]shop.GrooveWay{}
	for _, w := range p.Ways {
		out[w.Blade.Name] = w
	}
	return out
}

// The shop's own ways: its sets, its flat-top blade, the blade that is on; and
// on a saw that may not, the rule.
func TestWaysToAGroove(t *testing.T) {
	f := open(t)
	ways := f.ways(t, f.groove("table", "birch-ply", 6, 17.8, 17.85, 17.8))
	stack, flat, on := ways["Trapdoor"], ways["Mortise"], ways["Chorus"]
	switch {
	case stack.Stack == nil || math.Abs((stack.Width-17.95).Mm()) > 0.05 || stack.Arbor.Verdict != verdict.Clear:
		t.Errorf("the stack: %+v", stack.Way)
	case len(flat.Passes) != 7 || flat.Ridge != 0:
		t.Errorf("the flat-top blade: %+v", flat.Way)
	case !on.Mounted || len(on.Passes) != 7:
		t.Errorf("the blade that is on: %+v", on.Way)
	case ways["Bellows"].Turns <= 0:
		t.Errorf("the dial set: %+v", ways["Bellows"].Way)
	}
	for name, w := range f.ways(t, f.groove("circular", "birch-ply", 6, 17.8)) {
		if w.Set != nil && (w.Verdict != verdict.Stop || !strings.Contains(w.Says, "never goes on a circular saw")) {
			t.Errorf("%s on a circular saw: %v, %s", name, w.Verdict, w.Says)
		}
	}
	var e *shop.Error
	for field, change := range map[string]func(*shop.GrooveAsk){
		"piece_mm":     func(a *shop.GrooveAsk) { a.Piece = []measure.Length{17, 18.5} },
		"cut.depth_mm": func(a *shop.GrooveAsk) { a.Cut.Thickness, a.Cut.Depth = 100, 90 },
		"ask.cut.form": func(a *shop.GrooveAsk) { a.Cut.Form = cut.Cheek },
		"cut.form":     func(a *shop.GrooveAsk) { a.Cut.SawID, a.Cut.Direction = f.saws["miter"].ID, cut.Crosscut },
		"edge_mm":      func(a *shop.GrooveAsk) { a.Edge = -1 },
	} {
		ask := f.groove("table", "birch-ply", 6, 17.8)
		change(&ask)
		if _, err := f.PlanGroove(t.Context(), f.id, ask, measure.Millimetre); !errors.As(err, &e) || e.Field != field {
			t.Errorf("%s: %v", field, err)
		}
	}
	// The set reaches less deep than the saw's own blades.
	if w := f.ways(t, func() shop.GrooveAsk { a := f.groove("table", "birch-ply", 60, 17.8); a.Cut.Thickness = 80; return a }())["Trapdoor"]; !strings.Contains(w.Says, "reaches only") {
		t.Errorf("60 mm deep with a small set: %s", w.Says)
	}
	if w := f.ways(t, f.groove("table", "birch-ply", 6, 30))["Trapdoor"]; !strings.Contains(w.Says, "wider than all parts together") {
		t.Errorf("30 mm wide: %s", w.Says)
	}
}

// A groove is tested until it fits; what the tests say of the parts stands in
// the log, is used from then on, and is forgotten when they are sharpened.
func TestAGrooveIsTestedUntilItFits(t *testing.T) {
	f, ctx := open(t), t.Context()
	set := f.blade["Trapdoor"].ID
	before, err := f.DadoSet(ctx, f.id, set)
	if err != nil || before.Tests < 3 || math.Abs((before.Known[0].Held-6.44).Mm()) > 0.03 || before.Known[0].SD > 0.025 {
		t.Fatalf("the season's grooves taught %+v, %v", before.Known, err)
	}
	g, err := f.StartGroove(ctx, f.id, "g1", f.groove("table", "poplar", 8, 13.3, 13.35), set, "Ilse", measure.Millimetre)
	if err != nil || g.Height != 7 || len(g.Says) != 2 {
		t.Fatalf("begun: %v, %+v", err, g.Says)
	}
	if again, err := f.StartGroove(ctx, f.id, "g1", f.groove("table", "poplar", 8, 13.3, 13.35), set, "Ilse", measure.Millimetre); err != nil || again.ID != g.ID {
		t.Errorf("a retry began %v, %v", again.ID, err)
	}
	var e *shop.Error
	if _, err := f.TestGroove(ctx, f.id, g.ID, g.Version, []float64{13.2, 13.9}, 0, measure.Millimetre); !errors.As(err, &e) || e.Field != "width_mm" {
		t.Errorf("uneven readings: %v", err)
	}
	if _, err := f.TestGroove(ctx, f.id, g.ID, g.Version+1, []float64{13.45}, 0, measure.Millimetre); !errors.As(err, &e) || e.Reason != shop.Stale {
		t.Errorf("another's version: %v", err)
	}
	if after, _ := f.DadoSet(ctx, f.id, set); after.Tests != before.Tests {
		t.Error("a refused test was learnt from")
	}
	// Narrow by 0.2: shims go in, and the blade is raised by what was shy.
	if g, err = f.TestGroove(ctx, f.id, g.ID, g.Version, []float64{13.25, 13.25, 13.25}, 6.9, measure.Millimetre); err != nil {
		t.Fatal(err)
	}
	said := strings.Join(g.Says, " ")
	if g.Good || math.Abs(g.Height.Mm()-8.1) > 1e-9 || !strings.Contains(said, "0.2 mm too narrow") || !strings.Contains(said, "put in") || !strings.Contains(said, "0.14 turns of the wheel") {
		t.Errorf("after a narrow test, %v high: %s", g.Height, said)
	}
	// Its parts have made other grooves before: something lies between them.
	if !strings.Contains(said, "a chip or a burr") || math.Abs((g.Way.Width-13.45).Mm()) > 0.05 {
		t.Errorf("the next is to be %v wide: %s", g.Way.Width, said)
	}
	if g, err = f.TestGroove(ctx, f.id, g.ID, g.Version, []float64{13.44, 13.46}, 8.05, measure.Millimetre); err != nil || !g.Good {
		t.Fatalf("a right one: %v, %v", g.Says, err)
	}
	stack := g.Way.Says
	if g, err = f.EndGroove(ctx, f.id, g.ID, g.Version, 20, "clean", "none", "", measure.Millimetre); err != nil || g.Ended == nil {
		t.Fatal(err)
	}
	rows, _, err := f.Log(ctx, f.id, store.Filter{Blade: &set}, store.Mark{}, 4)
	if err != nil || rows[0].Kind != store.KindGrooved || rows[1].Kind != store.KindCut || rows[2].Kind != store.KindGrooved {
		t.Fatalf("the log ends with %+v, %v", rows, err)
	}
	// The same again for the same sheet: the settings that fitted.
	p, err := f.PlanGroove(ctx, f.id, f.groove("table", "poplar", 8, 13.3), measure.Millimetre)
	if err != nil || p.Earlier[0].ID != g.ID {
		t.Fatalf("earlier: %+v, %v", p.Earlier, err)
	}
	again, err := f.CallUp(ctx, f.id, "g2", g.ID, "", measure.Millimetre)
	if err != nil || again.Way.Says != stack || math.Abs(again.Height.Mm()-8.1) > 1e-9 {
		t.Errorf("called up: %v, %v, %v", again.Way.Says, again.Height, err)
	}
	// Sharpened, the chippers are strangers again; shims are not.
	knew, _ := f.DadoSet(ctx, f.id, set)
	if _, err := f.TakeBack(ctx, f.id, "r", set, true, store.SharpenedDetail{}, "", ""); err != nil {
		t.Fatal(err)
	}
	now, err := f.DadoSet(ctx, f.id, set)
	if err != nil || now.Known[0].Held != now.Known[0].Stamped || now.Known[0].Tests != 0 || now.Known[7].Held != knew.Known[7].Held {
		t.Errorf("sharpened: %+v, before %+v, %v", now.Known, knew.Known, err)
	}
	if _, err := f.RenewParts(ctx, f.id, "n", set, "replaced", false, []int{6}, "", ""); err != nil {
		t.Fatal(err)
	}
	if now, err = f.DadoSet(ctx, f.id, set); err != nil || now.Known[7].Held != now.Known[7].Stamped {
		t.Errorf("new shims: %+v, %v", now.Known[7], err)
	}
}

// A dial set and a single blade follow their tests too.
func TestDialAndPassesFollowTheirTests(t *testing.T) {
	f, ctx := open(t), t.Context()
	ask := f.groove("table", "poplar", 8, 13.3, 13.35)
	g, err := f.StartGroove(ctx, f.id, "", ask, f.blade["Bellows"].ID, "", measure.Millimetre)
	if err != nil {
		t.Fatal(err)
	}
	turns := g.Way.Turns
	if g, err = f.TestGroove(ctx, f.id, g.ID, g.Version, []float64{13.6, 13.6}, 0, measure.Millimetre); err != nil || g.Way.Turns >= turns || !strings.Contains(strings.Join(g.Says, " "), "turn the dial from 0.60 to 0.48") {
		t.Errorf("a wide test: %v turns, before %v; %v, %v", g.Way.Turns, turns, g.Says, err)
	}
	if g, err = f.StartGroove(ctx, f.id, "", ask, f.blade["Mortise"].ID, "", measure.Millimetre); err != nil {
		t.Fatal(err)
	}
	last := g.Way.Passes[len(g.Way.Passes)-1].Fence
	if g, err = f.TestGroove(ctx, f.id, g.ID, g.Version, []float64{13.35}, 7, measure.Millimetre); err != nil || math.Abs((g.Way.Passes[len(g.Way.Passes)-1].Fence-last).Mm()-0.1) > 1e-9 {
		t.Errorf("a narrow test: %v, %v", g.Says, err)
	}
	if g, err = f.EndGroove(ctx, f.id, g.ID, g.Version, 3, "clean", "none", "", measure.Millimetre); err != nil {
		t.Fatal(err)
	}
	mortise := f.blade["Mortise"].ID
	rows, _, err := f.Log(ctx, f.id, store.Filter{Blade: &mortise, Kinds: []store.Kind{store.KindCut}}, store.Mark{}, 1)
	if err != nil || !strings.Contains(string(rows[0].Detail), `"metres": 13.5`) {
		t.Errorf("five passes of 0.9 m, three times, are %s, %v", rows[0].Detail, err)
	}
}
