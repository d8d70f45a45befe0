package shop_test

import (
	"encoding/json"
	"errors"
	"math"
	"os"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"

	"corte/core/choose"
	"corte/core/cut"
	"corte/core/joint"
	"corte/core/measure"
	"corte/internal/record"
	"corte/internal/refusal"
	"corte/internal/shop"
	shopchoose "corte/internal/shop/choose"
	"corte/internal/shop/run"
	"corte/internal/store"
	"corte/internal/testkit/pgtest"
)

func TestMain(m *testing.M) { os.Exit(pgtest.Run(m)) }

// A shop in which a test can say a cut on a saw by its kind.
type floor struct {
	*shop.Service
	st    *store.Store
	id    uuid.UUID
	saws  map[string]store.Saw
	blade map[string]store.Blade
}

func open(t *testing.T) floor {
	t.Helper()
	url, id := pgtest.Demo(t)
	st := pgtest.Open(t, url)
	f := floor{shop.New(st, time.Now), st, id, map[string]store.Saw{}, map[string]store.Blade{}}
	saws, err := f.Rack.Saws(t.Context(), f.id)
	if err != nil {
		t.Fatal(err)
	}
	for _, s := range saws {
		f.saws[s.Kind.String()] = s
	}
	blades, _, err := f.Rack.Blades(t.Context(), f.id, store.Place{}, 500)
	if err != nil {
		t.Fatal(err)
	}
	for _, b := range blades {
		f.blade[b.Name] = b
	}
	return f
}

func (f floor) cut(saw, material string, d cut.Direction, width measure.Length) record.Cut {
	return record.Cut{SawID: f.saws[saw].ID, Cut: cut.Cut{Part: cut.Part{Material: material, Direction: d, Finish: cut.Show, Thickness: 19, Width: width, Length: 900}}}
}

// What a cut leaves out is settled as a shop would do it without being told.
func TestWhatIsLeftOutIsSettled(t *testing.T) {
	f := open(t)
	for name, tt := range map[string]struct {
		c           record.Cut
		motion      cut.Motion
		exit, other cut.Support
	}{
		"a rip":              {f.cut("table", "cherry", cut.Rip, 90), cut.Along, cut.Open, cut.Open},
		"a crosscut":         {f.cut("table", "cherry", cut.Crosscut, 90), cut.Along, cut.Open, cut.Backer},
		"a sheet":            {f.cut("table", "birch-ply", cut.Sheet, 600), cut.Along, cut.Open, cut.Spare},
		"by hand":            {f.cut("circular", "cherry", cut.Crosscut, 90), cut.Along, cut.Open, cut.Open},
		"a narrow board":     {f.cut("miter", "cherry", cut.Crosscut, 90), cut.Chop, cut.Backer, cut.Open},
		"a wide board":       {f.cut("miter", "cherry", cut.Crosscut, 240), cut.Push, cut.Open, cut.Backer},
		"as wide as it goes": {f.cut("miter", "cherry", cut.Crosscut, 152), cut.Chop, cut.Backer, cut.Open},
	} {
		p, err := f.Choose.Plan(t.Context(), f.id, tt.c, 60)
		if err != nil || p.Job.Motion != tt.motion || p.Job.Exit != tt.exit || p.Job.Other != tt.other {
			t.Errorf("%s: %v, %v, %v, %v", name, p.Job.Motion, p.Job.Exit, p.Job.Other, err)
		}
	}
	taped := cut.Tape
	c := f.cut("table", "birch-ply", cut.Sheet, 600)
	c.Exit = &taped
	if p, err := f.Choose.Plan(t.Context(), f.id, c, 60); err != nil || p.Job.Exit != cut.Tape {
		t.Errorf("what was said is not kept: %v, %v", p.Job.Exit, err)
	}
}

// The log reaches the plan: heel, what is on the saw, and how a blade stands.
func TestThePlanKnowsWhatTheLogKnows(t *testing.T) {
	f := open(t)
	hidden := f.cut("table", "hard-maple", cut.Rip, 90)
	hidden.Finish = cut.Hidden // Rook is to be thrown away, and makes no face that shows
	p, err := f.Choose.Plan(t.Context(), f.id, hidden, 60)
	if err != nil || p.Saw.Heel == 0 {
		t.Fatalf("heel %v, %v", p.Saw.Heel, err)
	}
	seen := map[string]shopchoose.Option{}
	for _, o := range p.Options {
		for name, b := range f.blade {
			if b.ID == o.Blade {
				seen[name] = o
			}
		}
	}
	if !seen["Chorus"].Mounted || seen["Plough"].Mounted {
		t.Error("the plan does not know what is on the saw")
	}
	// Rook is Stagehand's twin, but dull: its window closes from the slow side.
	dull, sharp := seen["Rook"].Setting.Window, seen["Stagehand"].Setting.Window
	if dull.Scorch <= sharp.Scorch || dull.Room() >= sharp.Room() || seen["Rook"].Verdict != choose.Caution {
		t.Errorf("dull %v, sharp %v", dull, sharp)
	}
	said := ""
	for _, r := range seen["Rook"].Reasons {
		said += r.Text.String() + "; "
	}
	if !strings.Contains(said, "dull: sharpen it") {
		t.Errorf("of the dull blade it says %s", said)
	}
}

// A logged cut moves the blade and its condition, and the next plan sees it.
func TestALoggedCutIsInTheNextPlan(t *testing.T) {
	f := open(t)
	c := f.cut("table", "yellow-pine", cut.Rip, 90)
	before := f.blade["Plough"]
	made := run.CutMade{Cut: c, Blade: before.ID, Height: 33, Pieces: 500, Wall: "clean", Splinters: "none"}
	if _, err := f.Run.LogCut(t.Context(), f.id, made); err != nil {
		t.Fatal(err)
	}
	after, err := f.Rack.Blade(t.Context(), f.id, before.ID)
	if err != nil {
		t.Fatal(err)
	}
	if d := after.Condition.Metres - before.Condition.Metres; math.Abs(d-450) > 1e-9 {
		t.Errorf("500 pieces of 900 mm added %v m", d)
	}
	if was, is := shopchoose.State(before.Blade, before.Condition), shopchoose.State(after.Blade, after.Condition); is.Pitch <= was.Pitch || is.Sharpness <= was.Sharpness {
		t.Errorf("from %+v to %+v", was, is)
	}
	if w := f.saws["table"].ID; after.MountedOn == nil || *after.MountedOn != w {
		t.Errorf("it is on %v", after.MountedOn)
	}
	// A height for a chop, or none for a rip, is refused by name.
	for field, m := range map[string]run.CutMade{
		"height_mm":     {Cut: c, Blade: before.ID, Pieces: 1},
		"blade_id":      {Cut: c, Blade: f.blade["Gallop"].ID, Height: 33, Pieces: 1},
		"cut.direction": {Cut: f.cut("miter", "cherry", cut.Rip, 90), Blade: before.ID, Height: 33, Pieces: 1},
	} {
		var e *refusal.Error
		if _, err := f.Run.LogCut(t.Context(), f.id, m); !errors.As(err, &e) || e.Field != field {
			t.Errorf("%s: %v", field, err)
		}
	}
}

// What is retired is not set up for anything new: neither a saw nor a blade.
// What was cut with it before is still logged and traced.
func TestWhatIsRetiredIsNotSetUp(t *testing.T) {
	f := open(t)
	ctx := t.Context()
	table, plough, trapdoor := f.saws["table"].ID, f.blade["Plough"].ID, f.blade["Trapdoor"].ID
	c := f.cut("table", "hard-maple", cut.Rip, 90)
	ask := f.groove("table", "birch-ply", 8, 18)
	tenon := joint.Ask{Kind: "tenon", Stock: 19, Tenon: 8, Length: 25}
	pins := []shopchoose.Pin{{Blade: plough, Height: 30}, {Blade: f.blade["Chorus"].ID, Height: 30}}
	asked := func() map[string]error {
		_, plan := f.Choose.Plan(ctx, f.id, c, 60)
		_, sweep := f.Choose.Sweep(ctx, f.id, c, shopchoose.SweepSpec{Blade: plough, Step: 5})
		_, _, compare := f.Choose.Compare(ctx, f.id, c, pins)
		_, mount := f.Mount.Start(ctx, f.id, table, plough, nil, "")
		_, grooves := f.Groove.Plan(ctx, f.id, ask)
		_, start := f.Groove.Start(ctx, f.id, ask, trapdoor, "")
		_, joints := f.Joint.Plan(ctx, f.id, table, &plough, tenon)
		_, trials := f.Run.StartTrial(ctx, f.id, c, json.RawMessage(`{}`), pins, []float64{0, 0}, 4, false, "")
		return map[string]error{"plan": plan, "sweep": sweep, "compare": compare, "mount": mount, "grooves": grooves, "groove": start, "joint": joints, "trial": trials}
	}
	refused := func(what string, err error) {
		t.Helper()
		var e *refusal.Error
		if !errors.As(err, &e) || !strings.Contains(e.What.String(), "is retired") {
			t.Errorf("%s: %v", what, err)
		}
	}
	if _, err := f.Rack.RetireBlade(ctx, f.id, plough, "worn", ""); err != nil {
		t.Fatal(err)
	}
	if _, err := f.Rack.RetireBlade(ctx, f.id, trapdoor, "worn", ""); err != nil {
		t.Fatal(err)
	}
	got := asked()
	for _, what := range []string{"sweep", "mount", "groove", "joint", "trial"} {
		refused("a retired blade, "+what, got[what])
	}
	for _, id := range []uuid.UUID{plough, trapdoor} {
		if _, err := f.Rack.RestoreBlade(ctx, f.id, id); err != nil {
			t.Fatal(err)
		}
	}
	for what, err := range asked() {
		if err != nil {
			t.Errorf("back on the rack, %s: %v", what, err)
		}
	}
	if _, err := f.Rack.RetireSaw(ctx, f.id, table, "sold", ""); err == nil {
		t.Error("a saw is retired while a blade is being mounted on it")
	}
	under, err := f.Store.Mountings(ctx, f.id)
	if err != nil {
		t.Fatal(err)
	}
	for _, m := range under {
		if err := f.Mount.Drop(ctx, f.id, m.ID); err != nil {
			t.Fatal(err)
		}
	}
	if _, err := f.Rack.RetireSaw(ctx, f.id, table, "sold", ""); err != nil {
		t.Fatal(err)
	}
	for what, err := range asked() {
		refused("a retired saw, "+what, err)
	}
	if _, err := f.Run.LogCut(ctx, f.id, run.CutMade{Cut: c, Blade: plough, Height: 30, Pieces: 1, Wall: "black", Splinters: "none"}); err != nil {
		t.Errorf("what was cut on it: %v", err)
	}
	if _, err := f.Trace.Start(ctx, f.id, c, json.RawMessage(`{}`), &plough, 30, []string{"scorch-both-walls"}, ""); err != nil {
		t.Errorf("why it came out so: %v", err)
	}
}
