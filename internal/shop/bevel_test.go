package shop_test

import (
	"errors"
	"math"
	"strings"
	"testing"
	"time"

	"corte/core/cut"
	"corte/core/history"
	"corte/core/measure"
	"corte/internal/record"
	"corte/internal/refusal"
	"corte/internal/shop"
	shopchoose "corte/internal/shop/choose"
	"corte/internal/shop/run"
	"corte/internal/store"
)

// A tilted cut, a groove and a cut from both faces wear a blade by the wood
// that it really went through.
func TestWearFollowsTheWoodThatWasMet(t *testing.T) {
	f := open(t)
	wear := func(name string, height measure.Length, change func(*record.Cut)) float64 {
		t.Helper()
		c := f.cut("table", "red-oak", cut.Rip, 90)
		change(&c)
		before, err := f.Rack.Blade(t.Context(), f.id, f.blade[name].ID)
		if err != nil {
			t.Fatal(err)
		}
		made := run.CutMade{Cut: c, Blade: before.ID, Height: height, Pieces: 10, Wall: "clean", Splinters: "none"}
		if _, err := f.Run.LogCut(t.Context(), f.id, made); err != nil {
			t.Fatal(err)
		}
		after, err := f.Rack.Blade(t.Context(), f.id, before.ID)
		if err != nil {
			t.Fatal(err)
		}
		return after.Condition.WearM2 - before.Condition.WearM2
	}
	square := wear("Plough", 30, func(*record.Cut) {})
	for name, tt := range map[string]struct {
		height measure.Length
		change func(*record.Cut)
		times  float64
	}{
		"tilted to 45":    {30, func(c *record.Cut) { c.BevelDeg = 45 }, math.Sqrt2},
		"a shallow kerf":  {6, func(c *record.Cut) { c.Form, c.Depth = cut.Groove, 6 }, 6.0 / 19},
		"from both faces": {62, func(c *record.Cut) { c.Thickness = 120 }, 120.0 / 19},
	} {
		if got := wear("Plough", tt.height, tt.change) / square; math.Abs(got-tt.times) > 1e-9 {
			t.Errorf("%s wears %v times as much as square, want %v", name, got, tt.times)
		}
	}
}

// Pins are answered one by one: one that may not be does not spoil the rest.
func TestComparedPinsStandAlone(t *testing.T) {
	f := open(t)
	insert := cut.ZeroClearance
	c := f.cut("table", "birch-ply", cut.Sheet, 600)
	_, got, err := f.Choose.Compare(t.Context(), f.id, c, []shopchoose.Pin{
		{Blade: f.blade["Needle"].ID}, {Blade: f.blade["Needle"].ID, Exit: &insert}, {Blade: f.blade["Reed"].ID}, {Blade: f.blade["Needle"].ID, Height: 200},
	})
	if err != nil || len(got) != 4 {
		t.Fatalf("%d, %v", len(got), err)
	}
	if open, closed := got[0].Setting, got[1].Setting; closed.Exit.Splinter >= open.Exit.Splinter || got[1].Job.Exit != cut.ZeroClearance {
		t.Errorf("open %v, with the insert %v", open.Exit, closed.Exit)
	}
	if got[2].Setting != nil || !strings.Contains(got[2].Refused.String(), "riving knife") || !strings.Contains(got[3].Refused.String(), "beyond this saw's cutting depth") {
		t.Errorf("refused: %q and %q", got[2].Refused, got[3].Refused)
	}
	if _, got, err = f.Choose.Compare(t.Context(), f.id, f.cut("table", "aluminium", cut.Crosscut, 90), []shopchoose.Pin{{Blade: f.blade["Tinsel"].ID}}); err != nil || !strings.Contains(got[0].Refused.String(), "chosen by rule") {
		t.Errorf("without a window: %+v, %v", got, err)
	}
	var e *refusal.Error
	steep := c
	steep.BevelDeg = 50
	if _, _, err := f.Choose.Compare(t.Context(), f.id, steep, []shopchoose.Pin{{Blade: f.blade["Needle"].ID}}); !errors.As(err, &e) || e.Field != "cut.bevel_deg" {
		t.Errorf("a cut that cannot be: %v", err)
	}
}

// A blade that was never used gets its oil off, one from the saw doctor is
// measured again and carries its new diameter, one that hung long is looked
// over longer.
func TestMountingKnowsTheLog(t *testing.T) {
	f := open(t)
	later := time.Now().AddDate(1, 0, 0)
	clock := time.Now()
	svc := shop.New(f.st, func() time.Time { return clock })
	ids := func(name string) string {
		t.Helper()
		m, err := svc.Mount.Start(t.Context(), f.id, f.saws["table"].ID, f.blade[name].ID, nil, "")
		if err != nil {
			t.Fatal(err)
		}
		out := " "
		for _, s := range m.Steps {
			out += s.ID + " "
			if s.ID == "look" && len(s.Checks) > 2 {
				out += "long "
			}
		}
		return out
	}
	if got := ids("Dovecote"); !strings.Contains(got, " oil ") || strings.Contains(got, " numbers ") {
		t.Errorf("a blade that was never used: %s", got)
	}
	if got := ids("Needle"); strings.Contains(got, " oil ") || strings.Contains(got, " long ") {
		t.Errorf("a blade in use: %s", got)
	}
	clock = later
	if got := ids("Needle"); !strings.Contains(got, " long ") {
		t.Errorf("a year on: %s", got)
	}
	needle := f.blade["Needle"]
	back := store.Entry{Shop: f.id, At: later, Kind: history.KindSharpened, Blade: &needle.ID}
	if _, err := f.st.Append(t.Context(), back); err != nil {
		t.Fatal(err)
	}
	if got := ids("Needle"); !strings.Contains(got, " numbers ") {
		t.Errorf("back from the saw doctor: %s", got)
	}
	m, err := svc.Mount.Start(t.Context(), f.id, f.saws["table"].ID, needle.ID, nil, "Ilse")
	if err != nil {
		t.Fatal(err)
	}
	answers := map[string]bool{}
	for _, s := range m.Steps {
		for _, c := range s.Checks {
			answers[c.ID] = true
		}
	}
	if m, err = svc.Mount.Step(t.Context(), m.Mounting, answers); err != nil {
		t.Fatal(err)
	}
	if _, err := svc.Mount.End(t.Context(), f.id, m.ID, m.Version, "", 9000); err == nil {
		t.Error("a diameter of 9 m was taken")
	}
	if _, err := svc.Mount.End(t.Context(), f.id, m.ID, m.Version, "Ilse", 253.2); err != nil {
		t.Fatal(err)
	}
	if b, err := svc.Rack.Blade(t.Context(), f.id, needle.ID); err != nil || b.Diameter != 253.2 || b.MountedOn == nil {
		t.Errorf("after it: %v on %v, %v", b.Diameter, b.MountedOn, err)
	}
}
