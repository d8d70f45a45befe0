package choose

import (
	"math"
	"strings"
	"testing"

	"corte/core/cut"
	"corte/core/measure"
	"corte/core/saw"
)

func TestHeightsAndBestChange(t *testing.T) {
	r := request(t, "hard-maple", cut.Rip, cut.Hidden)
	h := r.Heights(rip24)
	if !(25 < h.Proud && h.Proud < h.Gullets && h.Gullets < h.Full) || h.Suggested != h.Gullets || h.Full != 79 {
		t.Errorf("heights %+v", h)
	}
	r.Job.Thickness = 76
	if h := r.Heights(rip24); h.Suggested != 79 || !strings.Contains(h.Why.String(), "the full depth") {
		t.Errorf("in thick stock the suggestion %+v leaves the saw's reach", h)
	}
	r.Job.Thickness = 25
	for school, want := range map[School]measure.Length{JustProud: h.Proud, GulletsClear: h.Gullets, FullReach: h.Full} {
		r.School = school
		if got := r.Heights(rip24); got.Suggested != want || got.Why.Zero() {
			t.Errorf("a shop of the school %v is told %+v", school, got)
		}
	}
	walker := Request{Job: r.Job, Saw: saw.Saw{Kind: saw.Circular, Diameter: 254, Reach: 90, Reach45: 64}, School: FullReach}
	walker.Job.Bed = cut.Runners
	if got := walker.Heights(rip24).Suggested; got != 28 {
		t.Errorf("over runners a saw is set to %v, whatever the school", got)
	}
	r = request(t, "cherry", cut.Rip, cut.Hidden)
	caked := Candidate{Blade: combo50, State: cut.State{Sharpness: 1.1, Pitch: 2.8}}
	k := Rank(r, []Candidate{caked})
	c, ok := k.BestChange(r, caked, k.Fit[0])
	if !ok || c.Text.String() != "clean it" || c.Room <= k.Fit[0].Figures.Window.Room() {
		t.Errorf("for a caked blade the best change is %+v, %v", c, ok)
	}
	if v := k.Fit[0].Verdict(true, caked.State); v != Caution {
		t.Errorf("a caked blade is %v", v)
	}
}

// One-blade and right-blade shops (craft section 3): what a change costs
// decides between a better blade and the one that is on, and counts the less
// the more there is to cut.
func TestCostOfAChange(t *testing.T) {
	r := request(t, "red-oak", cut.Rip, cut.Hidden)
	for _, tt := range []struct {
		minutes float64
		pieces  int
		want    int
	}{{0, 1, 2}, {3, 1, 2}, {60, 1, 1}, {60, 200, 2}} {
		r.ChangeMinutes, r.Job.Pieces = tt.minutes, tt.pieces
		if k := Rank(r, rack); k.Fit[0].Index != tt.want {
			t.Errorf("with %v min a change and %d pieces blade %d is first, want %d", tt.minutes, tt.pieces, k.Fit[0].Index, tt.want)
		}
	}
}

// Change or stay is said in minutes over all pieces, never as a figure that a
// person would laugh at, and never as shut against shut.
func TestChangeOrStay(t *testing.T) {
	blades := []Candidate{{Blade: fine80}, {Blade: combo50, Mounted: true}, {Blade: rip24}, {Blade: tcg80}}
	swap := func(material string, d cut.Direction, f cut.Finish, change func(*Request)) Swap {
		t.Helper()
		r := request(t, material, d, f)
		change(&r)
		s, ok := Rank(r, blades).Swap(r, blades)
		if !ok {
			t.Fatal("no swap to weigh")
		}
		if strings.Contains(s.Text.String(), "shut") {
			t.Errorf("shut against shut: %s", s.Text)
		}
		return s
	}
	one := swap("cherry", cut.Rip, cut.Show, func(*Request) {})
	many := swap("cherry", cut.Rip, cut.Show, func(r *Request) { r.Job.Pieces = 60 })
	if one.On != 1 || one.Best != 2 || !one.Stay || many.Stay || math.Abs(many.OnMinutes/one.OnMinutes-60) > 1e-9 || many.OnMinutes-many.Minutes <= 3 {
		t.Errorf("one piece %+v, sixty %+v", one, many)
	}
	if !strings.Contains(many.Text.String(), "The 60 pieces take") || !strings.HasSuffix(many.Text.String(), "A change takes 3 min. Change") {
		t.Errorf("sixty pieces: %s", many.Text)
	}
	// The best one is on: nothing to weigh, and nothing that one takes longer.
	blades[1].Mounted, blades[2].Mounted = false, true
	if s := swap("cherry", cut.Rip, cut.Show, func(*Request) {}); s.On != 2 || s.Best != 2 || !s.Stay || !strings.Contains(s.Text.String(), "no other blade does this better") {
		t.Errorf("with the best one on: %+v", s)
	}
	blades[1].Mounted, blades[2].Mounted = true, false
	// At exactly the minutes that it saves, a change does not pay yet.
	for minutes, stay := range map[float64]bool{many.OnMinutes - many.Minutes: true, many.OnMinutes - many.Minutes - 0.01: false} {
		if s := swap("cherry", cut.Rip, cut.Show, func(r *Request) { r.Job.Pieces, r.ChangeMinutes = 60, minutes }); s.Stay != stay {
			t.Errorf("at %v min a change: %+v", minutes, s)
		}
	}
	blades[1].State = cut.State{Sharpness: 3, Pitch: 3}
	if s := swap("cherry", cut.Rip, cut.Show, func(*Request) {}); s.Stay || s.Minutes != 0 || !strings.Contains(s.Text.String(), "can't do this well at any feed rate: burning meets") {
		t.Errorf("with a blade on whose window is shut: %+v", s)
	}
	blades[2].State = cut.State{Sharpness: 4, Pitch: 3}
	if s := swap("cherry", cut.Rip, cut.Show, func(r *Request) { r.Job.Thickness = 60 }); s.Stay || s.Minutes != 0 || !strings.Contains(s.Text.String(), "Neither ON") {
		t.Errorf("where none makes it well: %+v", s)
	}
	if s := swap("acrylic", cut.Crosscut, cut.Show, func(*Request) {}); s.On != -1 || !strings.Contains(s.Text.String(), "can't make this cut") {
		t.Errorf("with a blade on that may not: %+v", s)
	}
	if _, ok := Rank(Request{}, nil).Swap(Request{}, nil); ok {
		t.Error("an empty rack has a swap")
	}
	for minutes, want := range map[float64]string{0.2: "under a minute", 0.74: "under a minute", 0.76: "1 min", 14.4: "14 min", 99.4: "99 min", 125: "2 h 05 min"} {
		if got := Took(minutes); got.String() != want {
			t.Errorf("Took(%v) = %q, want %q", minutes, got, want)
		}
	}
}

// A cure is looked for at the blade and the work first, then in another blade,
// then in another height, which leaves at most 20 mm of blade bare.
func TestCures(t *testing.T) {
	r := request(t, "hard-maple", cut.Rip, cut.Hidden)
	c := Candidate{Blade: combo50}
	r.School = JustProud
	k := Rank(r, []Candidate{c})
	change, ok := k.BestChange(r, c, k.Fit[0])
	if !ok || change.Height != 45 || change.Blade != -1 || !strings.Contains(change.Text.String(), "raise it to 45 mm") {
		t.Errorf("with nothing else to do: %+v, %v", change, ok)
	}
	both := []Candidate{c, {Blade: rip24}}
	k = Rank(r, both)
	if change, ok = k.BestChange(r, c, k.Fit[1]); !ok || change.Blade != 1 || change.Height != 0 || !strings.Contains(change.Text.String(), "use NAME") {
		t.Errorf("with a better blade on the wall: %+v, %v", change, ok)
	}
	r.Heel = 0.1
	k = Rank(r, both)
	if change, ok = k.BestChange(r, c, k.Fit[1]); !ok || change.Blade != -1 || !strings.Contains(change.Text.String(), "align the blade") {
		t.Errorf("on a saw out of line: %+v, %v", change, ok)
	}
	r = request(t, "birch-ply", cut.Sheet, cut.Show)
	for name, tt := range map[string]struct {
		s      saw.Saw
		motion cut.Motion
		says   string
	}{
		"on a table":       {table, cut.Along, "zero-clearance throat plate"},
		"hand-held":        {saw.Saw{Kind: saw.Circular, Diameter: 254, Arbor: 15.875, RPM: 4500, MotorW: 1500, Reach: 85}, cut.Along, "with a knife first, or tape"},
		"on a sliding saw": {slider, cut.Push, "scoring pass first"},
	} {
		r.Saw, r.Job.Motion, r.Job.Other = tt.s, tt.motion, cut.Spare
		k := Rank(r, []Candidate{{Blade: combo50}})
		if len(k.Fit) == 0 { // its bore is the table saw's
			wide := combo50
			wide.Bore, wide.Diameter, wide.Hook = 25.4, 305, 0
			k = Rank(r, []Candidate{{Blade: wide}})
			c = Candidate{Blade: wide}
		} else {
			c = Candidate{Blade: combo50}
		}
		if change, ok := k.BestChange(r, c, k.Fit[0]); !ok || !strings.Contains(change.Text.String(), tt.says) {
			t.Errorf("%s: %+v, %v", name, change, ok)
		}
	}
}

// Nobody is told to stay with a blade that needs care while one that needs none is
// as good, whatever a change costs; and the order says the same.
func TestNoStayAtCaution(t *testing.T) {
	r := request(t, "red-oak", cut.Rip, cut.Hidden)
	r.ChangeMinutes = 60
	for pitch, stay := range map[float64]bool{1.49: true, 1.51: false} { // a wash is due from 1.5
		k := Rank(r, []Candidate{{Blade: rip24, Mounted: true, State: cut.State{Sharpness: 1, Pitch: pitch}}, {Blade: rip24}})
		s, ok := k.Swap(r, []Candidate{{Blade: rip24, Mounted: true, State: cut.State{Sharpness: 1, Pitch: pitch}}, {Blade: rip24}})
		if !ok || s.Stay != stay || (k.Fit[0].Index == 0) != stay || k.Fit[0].Score < k.Fit[1].Score {
			t.Errorf("pitch %v: stay %v, first %d: %s", pitch, s.Stay, k.Fit[0].Index, s.Text)
		}
	}
}
