package shop_test

import (
	"errors"
	"math"
	"reflect"
	"strings"
	"testing"

	"corte/core/cut"
	"corte/core/groove"
	"corte/core/history"
	"corte/core/measure"
	"corte/core/say"
	"corte/core/verdict"
	"corte/internal/refusal"
	shopgroove "corte/internal/shop/groove"
	"corte/internal/store"
)

func (f floor) groove(saw, material string, depth measure.Length, piece ...measure.Length) shopgroove.Ask {
	c := f.cut(saw, material, cut.Sheet, 300)
	c.Form, c.Depth, c.Finish = cut.Groove, depth, cut.Hidden
	return shopgroove.Ask{Cut: c, Piece: piece, Fit: groove.Glue, Edge: 60, Count: 20}
}

func (f floor) ways(t *testing.T, ask shopgroove.Ask) map[string]shopgroove.Way {
	t.Helper()
	p, err := f.Groove.Plan(t.Context(), f.id, ask)
	if err != nil {
		t.Fatal(err)
	}
	out := map[string]shopgroove.Way{}
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
	case !on.Fits:
		t.Errorf("a nearly flat floor that nobody sees: %+v", on.Way)
	}
	shown := f.groove("table", "birch-ply", 6, 17.8, 17.85, 17.8)
	shown.Cut.Finish = cut.Show
	if f.ways(t, shown)["Chorus"].Fits {
		t.Error("a nearly flat floor passes for one that is shown")
	}
	for name, w := range f.ways(t, f.groove("circular", "birch-ply", 6, 17.8)) {
		if w.Set != nil && (w.Verdict != verdict.Stop || !strings.Contains(w.Says.String(), "never goes on a circular saw")) {
			t.Errorf("%s on a circular saw: %v, %s", name, w.Verdict, w.Says)
		}
	}
	var e *refusal.Error
	for field, change := range map[string]func(*shopgroove.Ask){
		"piece_mm":     func(a *shopgroove.Ask) { a.Piece = []measure.Length{17, 18.5} },
		"cut.depth_mm": func(a *shopgroove.Ask) { a.Cut.Thickness, a.Cut.Depth = 100, 90 },
		"ask.cut.form": func(a *shopgroove.Ask) { a.Cut.Form = cut.Cheek },
		"cut.form":     func(a *shopgroove.Ask) { a.Cut.SawID, a.Cut.Direction = f.saws["miter"].ID, cut.Crosscut },
		"edge_mm":      func(a *shopgroove.Ask) { a.Edge = -1 },
	} {
		ask := f.groove("table", "birch-ply", 6, 17.8)
		change(&ask)
		if _, err := f.Groove.Plan(t.Context(), f.id, ask); !errors.As(err, &e) || e.Field != field {
			t.Errorf("%s: %v", field, err)
		}
	}
	// The set reaches less deep than the saw's own blades.
	if w := f.ways(t, func() shopgroove.Ask {
		a := f.groove("table", "birch-ply", 60, 17.8)
		a.Cut.Thickness = 80
		return a
	}())["Trapdoor"]; !strings.Contains(w.Says.String(), "cuts only") {
		t.Errorf("60 mm deep with a small set: %s", w.Says)
	}
	if w := f.ways(t, f.groove("table", "birch-ply", 6, 30))["Trapdoor"]; len(w.Passes) != 2 || !strings.Contains(w.Says.String(), "two cuts, moving the fence") {
		t.Errorf("30 mm wide: %s", w.Says)
	}
}

// A groove is tested until it fits; what the tests say of the parts stands in
// the log, is used from then on, and is forgotten when they are sharpened.
func TestAGrooveIsTestedUntilItFits(t *testing.T) {
	f, ctx := open(t), t.Context()
	set := f.blade["Trapdoor"].ID
	before, err := f.Groove.DadoSet(ctx, f.id, set)
	if err != nil || before.Held.Told < 3 || math.Abs((before.Known[0].Held-6.44).Mm()) > 0.03 || before.Known[0].SD > 0.025 {
		t.Fatalf("the season's grooves taught %+v, %v", before.Known, err)
	}
	g, err := f.Groove.Start(ctx, f.id, f.groove("table", "poplar", 8, 13.3, 13.35), set, "Ilse")
	if err != nil || g.Fitting.Stand.Height != 7 || len(g.Says) != 2 {
		t.Fatalf("begun: %v, %+v", err, g.Says)
	}
	var e *refusal.Error
	if _, err := f.Groove.Test(ctx, f.id, g.ID, g.Version, []measure.Length{13.2, 13.9}, 0); !errors.As(err, &e) || e.Field != "width_mm" {
		t.Errorf("uneven readings: %v", err)
	}
	if _, err := f.Groove.Test(ctx, f.id, g.ID, g.Version+1, []measure.Length{13.45}, 0); !errors.As(err, &e) || e.Reason != refusal.Stale {
		t.Errorf("another's version: %v", err)
	}
	if after, _ := f.Groove.DadoSet(ctx, f.id, set); after.Held.Told != before.Held.Told {
		t.Error("a refused test was learnt from")
	}
	// Narrow by 0.2: shims go in, and the blade is raised by what was shy.
	if g, err = f.Groove.Test(ctx, f.id, g.ID, g.Version, []measure.Length{13.25, 13.25, 13.25}, 6.9); err != nil {
		t.Fatal(err)
	}
	said := strings.Join(say.Voice{}.Each(g.Says), " ")
	if g.Good || math.Abs(g.Fitting.Stand.Height.Mm()-8.1) > 1e-9 || !strings.Contains(said, "0.2 mm too narrow") || !strings.Contains(said, "put in") || !strings.Contains(said, "0.14 turns of the wheel") {
		t.Errorf("after a narrow test, %v high: %s", g.Fitting.Stand.Height, said)
	}
	// Its parts have made other grooves before: something lies between them.
	if !strings.Contains(said, "a chip or burr") || math.Abs((g.Way.Width-13.45).Mm()) > 0.05 {
		t.Errorf("the next is to be %v wide: %s", g.Way.Width, said)
	}
	if g, err = f.Groove.Test(ctx, f.id, g.ID, g.Version, []measure.Length{13.44, 13.46}, 8.05); err != nil || !g.Good {
		t.Fatalf("a right one: %v, %v", g.Says, err)
	}
	stack := g.Way.Says.String()
	if g, err = f.Groove.End(ctx, f.id, g.ID, g.Version, 20, "clean", "none", ""); err != nil || g.Ended == nil {
		t.Fatal(err)
	}
	rows, _, err := f.Log.Rows(ctx, f.id, store.Filter{Blade: &set}, store.Mark{}, 4)
	if err != nil || rows[0].Kind != history.KindGrooved || rows[1].Kind != history.KindCut || rows[2].Kind != history.KindGrooved {
		t.Fatalf("the log ends with %+v, %v", rows, err)
	}
	// The same again for the same sheet: the settings that fitted.
	p, err := f.Groove.Plan(ctx, f.id, f.groove("table", "poplar", 8, 13.3))
	if err != nil || p.Earlier[0].ID != g.ID {
		t.Fatalf("earlier: %+v, %v", p.Earlier, err)
	}
	again, err := f.Groove.CallUp(ctx, f.id, g.ID, "")
	if err != nil || again.Way.Says.String() != stack || math.Abs(again.Fitting.Stand.Height.Mm()-8.1) > 1e-9 {
		t.Errorf("called up: %v, %v, %v", again.Way.Says, again.Fitting.Stand.Height, err)
	}
	// Sharpened, the chippers are strangers again; shims are not.
	knew, _ := f.Groove.DadoSet(ctx, f.id, set)
	if _, err := f.Care.SendOut(ctx, f.id, set, history.Sent{To: "the sharpening service"}, "", ""); err != nil {
		t.Fatal(err)
	}
	if _, err := f.Care.TakeBack(ctx, f.id, set, true, history.Sharpened{}, "", ""); err != nil {
		t.Fatal(err)
	}
	now, err := f.Groove.DadoSet(ctx, f.id, set)
	if err != nil || now.Known[0].Held != now.Known[0].Stamped || now.Known[0].Tests != 0 || now.Known[7].Held != knew.Known[7].Held {
		t.Errorf("sharpened: %+v, before %+v, %v", now.Known, knew.Known, err)
	}
	if _, err := f.Groove.RenewParts(ctx, f.id, set, "replaced", false, []int{6}, "", ""); err != nil {
		t.Fatal(err)
	}
	if now, err = f.Groove.DadoSet(ctx, f.id, set); err != nil || now.Known[7].Held != now.Known[7].Stamped {
		t.Errorf("new shims: %+v, %v", now.Known[7], err)
	}
}

// A dial set and a single blade follow their tests too.
func TestDialAndPassesFollowTheirTests(t *testing.T) {
	f, ctx := open(t), t.Context()
	ask := f.groove("table", "poplar", 8, 13.3, 13.35)
	g, err := f.Groove.Start(ctx, f.id, ask, f.blade["Bellows"].ID, "")
	if err != nil {
		t.Fatal(err)
	}
	turns := g.Way.Turns
	if g, err = f.Groove.Test(ctx, f.id, g.ID, g.Version, []measure.Length{13.6, 13.6}, 0); err != nil || g.Way.Turns >= turns || !strings.Contains(strings.Join(say.Voice{}.Each(g.Says), " "), "turn the dial from 0.60 to 0.48") {
		t.Errorf("a wide test: %v turns, before %v; %v, %v", g.Way.Turns, turns, g.Says, err)
	}
	if g, err = f.Groove.Start(ctx, f.id, ask, f.blade["Mortise"].ID, ""); err != nil {
		t.Fatal(err)
	}
	last := g.Way.Passes[len(g.Way.Passes)-1].Fence
	if g, err = f.Groove.Test(ctx, f.id, g.ID, g.Version, []measure.Length{13.35}, 7); err != nil || math.Abs((g.Way.Passes[len(g.Way.Passes)-1].Fence-last).Mm()-0.1) > 1e-9 {
		t.Errorf("a narrow test: %v, %v", g.Says, err)
	}
	if g, err = f.Groove.End(ctx, f.id, g.ID, g.Version, 3, "clean", "none", ""); err != nil {
		t.Fatal(err)
	}
	mortise := f.blade["Mortise"].ID
	rows, _, err := f.Log.Rows(ctx, f.id, store.Filter{Blade: &mortise, Kinds: []history.Kind{history.KindCut}}, store.Mark{}, 1)
	if err != nil || !strings.Contains(string(rows[0].Detail), `"metres": 13.5`) {
		t.Errorf("five passes of 0.9 m, three times, are %s, %v", rows[0].Detail, err)
	}
}

// The first test stands shy: a groove is not called right before its depth was
// measured, whatever its width.
func TestAShyGrooveIsNotRight(t *testing.T) {
	f, ctx := open(t), t.Context()
	g, err := f.Groove.Start(ctx, f.id, f.groove("table", "poplar", 8, 13.3, 13.35), f.blade["Trapdoor"].ID, "")
	if err != nil {
		t.Fatal(err)
	}
	test := func(width, depth measure.Length) string {
		t.Helper()
		if g, err = f.Groove.Test(ctx, f.id, g.ID, g.Version, []measure.Length{width, width}, depth); err != nil {
			t.Fatal(err)
		}
		return strings.Join(say.Voice{}.Each(g.Says), " ")
	}
	if said := test(13.45, 0); g.Good || !strings.Contains(said, "Measure the depth as well: the blade is set to 7 mm.") {
		t.Errorf("never measured for depth: %s", said)
	}
	if said := test(13.45, 7.1); g.Good || !strings.Contains(said, "Its width is right.") || !strings.Contains(said, "Raise the blade by 0.9 mm, to 7.9 mm") {
		t.Errorf("shy: %s", said)
	}
	if said := test(13.45, 8); !g.Good {
		t.Errorf("deep as it should be: %s", said)
	}
	if said := test(13.46, 0); !g.Good {
		t.Errorf("its depth was right before: %s", said)
	}
	if said := test(13.45, 8.6); g.Good || !strings.Contains(said, "Lower the blade by 0.6 mm") {
		t.Errorf("too deep: %s", said)
	}
}

// A kerf that is a groove by itself, a rabbet at its edge, and a set of which
// nobody has said what it is made of.
func TestKerfRabbetAndAnUnknownSet(t *testing.T) {
	f, ctx := open(t), t.Context()
	ask := f.groove("table", "poplar", 6, 3.1)
	g, err := f.Groove.Start(ctx, f.id, ask, f.blade["Mortise"].ID, "")
	if err != nil || len(g.Way.Passes) != 1 {
		t.Fatalf("a groove of one kerf: %+v, %v", g.Way.Passes, err)
	}
	narrow, err := f.Groove.Test(ctx, f.id, g.ID, g.Version, []measure.Length{3.1, 3.1}, 6)
	if err != nil || len(narrow.Way.Passes) != 2 || !strings.Contains(strings.Join(say.Voice{}.Each(narrow.Says), " "), "Make a second pass with the fence 0.1 mm further") {
		t.Errorf("too narrow: %+v, %v, %v", narrow.Way.Passes, narrow.Says, err)
	}
	g, _ = f.Groove.Start(ctx, f.id, ask, f.blade["Mortise"].ID, "")
	wide, err := f.Groove.Test(ctx, f.id, g.ID, g.Version, []measure.Length{3.4, 3.4}, 6)
	if err != nil || len(wide.Way.Passes) != 1 || !strings.Contains(strings.Join(say.Voice{}.Each(wide.Says), " "), "Use a thinner blade") {
		t.Errorf("too wide: %+v, %v, %v", wide.Way.Passes, wide.Says, err)
	}

	ask = f.groove("table", "poplar", 6, 12)
	ask.Cut.Form, ask.Edge = cut.Rabbet, 80
	p, err := f.Groove.Plan(ctx, f.id, ask)
	if err != nil || !strings.Contains(strings.Join(say.Voice{}.Each(p.Cautions), " "), "sacrificial board") {
		t.Fatalf("a rabbet: %v, %v", p.Cautions, err)
	}
	for _, w := range p.Ways {
		if len(w.Passes) > 0 && w.Passes[0].Fence != 0 {
			t.Errorf("%s begins a rabbet %v from the edge", w.Blade.Name, w.Passes[0].Fence)
		}
	}

	b := f.blade["Trapdoor"]
	b.Name, b.Set = "Hatch", nil
	added, err := f.Rack.AddBlade(ctx, f.id, b)
	if err != nil {
		t.Fatal(err)
	}
	if w := f.ways(t, f.groove("table", "poplar", 6, 12))["Hatch"]; w.Verdict != verdict.Stop || !strings.Contains(w.Says.String(), "its parts aren't recorded") {
		t.Errorf("a set of nothing: %v, %s", w.Verdict, w.Says)
	}
	var e *refusal.Error
	if _, err := f.Groove.Start(ctx, f.id, f.groove("table", "poplar", 6, 12), added.ID, ""); !errors.As(err, &e) || e.Field != "blade_id" {
		t.Errorf("begun with it: %v", err)
	}
	if _, err := f.Groove.RenewParts(ctx, f.id, added.ID, "worn", true, nil, "", ""); !errors.As(err, &e) || e.Field != "id" {
		t.Errorf("worn, of a set of nothing: %v", err)
	}
}

// A stack whose parts have left the record is not set up as if they were there,
// a struck test teaches nothing, and of two devices one is first.
func TestPartsThatAreGoneAndTestsThatAreStruck(t *testing.T) {
	f, ctx := open(t), t.Context()
	set := f.blade["Trapdoor"].ID
	g, err := f.Groove.Start(ctx, f.id, f.groove("table", "poplar", 8, 13.3, 13.35), set, "")
	if err != nil {
		t.Fatal(err)
	}
	before, err := f.Groove.DadoSet(ctx, f.id, set)
	if err != nil {
		t.Fatal(err)
	}
	errs := make(chan error, 2)
	for range 2 {
		go func() {
			_, err := f.Groove.Test(ctx, f.id, g.ID, g.Version, []measure.Length{13.2, 13.2}, 7)
			errs <- err
		}()
	}
	stale := 0
	for range 2 {
		var e *refusal.Error
		if err := <-errs; errors.As(err, &e) && e.Reason == refusal.Stale {
			stale++
		} else if err != nil {
			t.Fatal(err)
		}
	}
	taught, err := f.Groove.DadoSet(ctx, f.id, set)
	if err != nil || stale != 1 || taught.Held.Told != before.Held.Told+1 || taught.Known[0].Held == before.Known[0].Held {
		t.Fatalf("two at once: %d were late, %d tests, before %d; %v", stale, taught.Held.Told, before.Held.Told, err)
	}
	rows, _, err := f.Log.Rows(ctx, f.id, store.Filter{Blade: &set, Kinds: []history.Kind{history.KindGrooved}}, store.Mark{}, 1)
	if err != nil {
		t.Fatal(err)
	}
	if _, err := f.Log.Strike(ctx, f.id, rows[0].ID, "a chip lay in it"); err != nil {
		t.Fatal(err)
	}
	if struck, err := f.Groove.DadoSet(ctx, f.id, set); err != nil || struck.Held.Told != before.Held.Told || !reflect.DeepEqual(struck.Known[0], before.Known[0]) {
		t.Errorf("struck out, the outer pair is %+v, before the test %+v, %v", struck.Known[0], before.Known[0], err)
	}
	made := before.DadoSet
	made.Set.Parts = made.Set.Parts[3:] // the chippers were lent out
	if _, err := f.Groove.SetDadoSet(ctx, f.id, made); err != nil {
		t.Fatal(err)
	}
	gone, err := f.Groove.Get(ctx, f.id, g.ID)
	if err != nil || gone.Way.Verdict != verdict.Stop || !strings.Contains(strings.Join(say.Voice{}.Each(gone.Says), " "), "no longer recorded in the set") {
		t.Errorf("without its chippers: %v, %v, %v", gone.Way.Verdict, gone.Says, err)
	}
	var e *refusal.Error
	if _, err := f.Groove.End(ctx, f.id, g.ID, gone.Version, 3, "clean", "none", ""); !errors.As(err, &e) || e.Field != "made" {
		t.Errorf("made with parts that are gone: %v", err)
	}
	if closed, err := f.Groove.End(ctx, f.id, g.ID, gone.Version, 0, "clean", "none", ""); err != nil || closed.Ended == nil || closed.Made != 0 {
		t.Errorf("closed with none made: %v, %v", closed.Ended, err)
	}
}
