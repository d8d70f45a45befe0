package choose

import (
	"math"
	"slices"
	"strings"
	"testing"

	"corte/core/blade"
	"corte/core/cut"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/saw"
)

var (
	table = saw.Saw{Kind: saw.Table, Diameter: 254, Least: 216, Arbor: 15.875, RPM: 4000, MotorW: 1300,
		Volts: 120, BreakerA: 15, Knife: 2.3, Reach: 79, Reach45: 57}
	slider = saw.Saw{Kind: saw.Miter, Sliding: true, Diameter: 305, Arbor: 25.4, RPM: 3800, MotorW: 1500,
		Reach: 92, BelowTable: 6, ChopWidth: 150, Crosscut: 340}

	rip24   = blade.Blade{Diameter: 254, Bore: 15.875, Kerf: 3.2, Plate: 2.2, Teeth: 24, Grind: blade.FTG, Hook: 20, MaxRPM: 7000, KeptFor: blade.UseRip}
	combo50 = blade.Blade{Diameter: 254, Bore: 15.875, Kerf: 3.2, Plate: 2.2, Teeth: 50, Grind: blade.ATBR, Bevel: 15, Hook: 12, MaxRPM: 7000}
	fine80  = blade.Blade{Diameter: 254, Bore: 15.875, Kerf: 3.0, Plate: 2.2, Teeth: 80, Grind: blade.HighATB, Bevel: 38, Hook: 5, MaxRPM: 7000, KeptFor: blade.UseSheet}
	tcg80   = blade.Blade{Diameter: 254, Bore: 15.875, Kerf: 3.2, Plate: 2.2, Teeth: 80, Grind: blade.TCG, Hook: -3, MaxRPM: 7000, KeptFor: blade.UsePlastic}
	rack    = []Candidate{{Blade: fine80}, {Blade: combo50, Mounted: true}, {Blade: rip24}, {Blade: tcg80}}
)

func request(t testing.TB, id string, d cut.Direction, f cut.Finish) Request {
	t.Helper()
	m, err := material.Get(id)
	if err != nil {
		t.Fatal(err)
	}
	return Request{Saw: table, ChangeMinutes: 3, Job: cut.Job{
		Material: m, Direction: d, Finish: f, Thickness: 25, Width: 120, Length: 900,
	}}
}

// What an experienced shop would reach for comes first.
func TestTheRightBladeWins(t *testing.T) {
	for _, tt := range []struct {
		material string
		d        cut.Direction
		f        cut.Finish
		exit     cut.Support
		want     []int // any of these first
		last     int
	}{
		{"hard-maple", cut.Rip, cut.Hidden, cut.Open, []int{2}, 3},
		{"cherry", cut.Rip, cut.Hidden, cut.Open, []int{2}, 3},
		{"birch-ply", cut.Sheet, cut.Show, cut.ZeroClearance, []int{0}, 2},
		{"melamine-board", cut.Sheet, cut.Show, cut.ZeroClearance, []int{0, 3}, 2},
		{"acrylic", cut.Crosscut, cut.Show, cut.Open, []int{3}, 3},
	} {
		r := request(t, tt.material, tt.d, tt.f)
		r.Job.Exit, r.Job.Other = tt.exit, cut.Backer
		k := Rank(r, rack)
		first, last := k.Fit[0].Index, k.Fit[len(k.Fit)-1].Index
		ok := false
		for _, w := range tt.want {
			ok = ok || w == first
		}
		if !ok || last != tt.last {
			for _, o := range k.Fit {
				t.Logf("%d %.3f %.2f %v", o.Index, o.Score, o.Terms, k.Reasons(r, rack[o.Index], o))
			}
			t.Errorf("%s %v %v: blade %d first, %d last", tt.material, tt.d, tt.f, first, last)
		}
		for _, o := range k.Fit {
			if n := len(k.Reasons(r, rack[o.Index], o)); n < 2 || n > 3 {
				t.Errorf("%s: %d reasons", tt.material, n)
			}
		}
	}
}

func TestHardRules(t *testing.T) {
	with := func(change func(*blade.Blade)) blade.Blade {
		b := combo50
		change(&b)
		return b
	}
	braked := table
	braked.Brake = &saw.Brake{MinKerf: 2.3, MaxKerf: 4.8, MinDiameter: 250, MaxDiameter: 260}
	for name, tt := range map[string]struct {
		b        blade.Blade
		s        saw.Saw
		material string
		rule     Rule
		says     string
	}{
		"too large":             {with(func(b *blade.Blade) { b.Diameter = 305 }), table, "cherry", RuleDiameter, "305 mm does not fit"},
		"too small":             {with(func(b *blade.Blade) { b.Diameter = 210 }), table, "cherry", RuleDiameter, "too small"},
		"wrong bore":            {with(func(b *blade.Blade) { b.Bore = 30 }), table, "cherry", RuleBore, "bore of 30 mm"},
		"too slow":              {with(func(b *blade.Blade) { b.MaxRPM = 3000 }), table, "cherry", RuleSpeed, "3000 rpm"},
		"knife fills the kerf":  {with(func(b *blade.Blade) { b.Kerf, b.Plate = 2.3, 1.6 }), table, "cherry", RuleKnife, "would jam"},
		"knife under the plate": {with(func(b *blade.Blade) { b.Plate = 2.4 }), table, "cherry", RuleKnife, "hold the kerf open"},
		"brake kerf":            {with(func(b *blade.Blade) { b.Kerf = 5 }), braked, "cherry", RuleBrake, "kerfs from 2.3 mm"},
		"brake diameter":        {with(func(b *blade.Blade) { b.Diameter = 240 }), braked, "cherry", RuleBrake, "diameters from"},
		"hook on a miter saw":   {with(func(b *blade.Blade) { b.Hook, b.Bore = 15, 25.4 }), slider, "cherry", RuleHook, "climb"},
		"dado on a miter saw":   {with(func(b *blade.Blade) { b.Make, b.Bore = blade.Dado, 25.4 }), slider, "cherry", RuleDado, "never goes on a miter saw"},
		"dado not allowed":      {with(func(b *blade.Blade) { b.Make = blade.Dado }), table, "cherry", RuleDado, "does not allow dado"},
		"bevel on aluminium":    {combo50, table, "aluminium", RuleMaterial, "grab aluminium"},
		"hook on aluminium":     {with(func(b *blade.Blade) { b.Grind, b.Hook = blade.TCG, 10 }), table, "aluminium", RuleMaterial, "hook of 10"},
		"teeth on tile":         {combo50, table, "tile", RuleMaterial, "teeth do not cut tile"},
		"wood blade on steel":   {combo50, table, "steel", RuleMaterial, "not made for steel"},
		"nails":                 {combo50, table, "nailed-wood", RuleMaterial, "takes the tips off"},
		"wheel on wood":         {blade.Blade{Make: blade.Diamond, Diameter: 254, Bore: 15.875, Kerf: 2.4}, table, "cherry", RuleMaterial, "grinds and burns"},
		"conical":               {with(func(b *blade.Blade) { b.Grind = blade.Conical }), table, "cherry", RuleMake, "scoring"},
		"out of reach":          {with(func(b *blade.Blade) { b.Diameter = 218 }), table, "cherry", RuleReach, "reaches only"},
	} {
		r := request(t, tt.material, cut.Crosscut, cut.Show)
		if tt.rule == RuleReach {
			r.Job.Thickness = 65
		}
		if tt.s.Kind == saw.Miter {
			r.Job.Motion = cut.Push
		}
		found := false
		for _, s := range Stops(tt.b, r.Job, tt.s, measure.Millimetre) {
			found = found || s.Rule == tt.rule && strings.Contains(s.Why, tt.says) && s.WayOut != ""
		}
		if !found {
			t.Errorf("%s: %+v; want rule %v that says %q", name, Stops(tt.b, r.Job, tt.s, measure.Millimetre), tt.rule, tt.says)
		}
	}
	if s := Stops(combo50, request(t, "cherry", cut.Crosscut, cut.Show).Job, braked, measure.Millimetre); len(s) > 0 {
		t.Errorf("an ordinary blade on an ordinary saw: %v", s)
	}
}

// What keeps a blade off a saw can be told before any cut is said; what only a
// cut forbids does not keep it off.
func TestMountStopsNeedNoCut(t *testing.T) {
	strong := combo50
	strong.Bore, strong.Hook = 25.4, 18
	for name, tt := range map[string]struct {
		b     blade.Blade
		s     saw.Saw
		rules []Rule
	}{
		"an ordinary blade":        {combo50, table, nil},
		"a blade for acrylic":      {tcg80, table, nil},
		"a strong hook on a slide": {strong, slider, []Rule{RuleHook}},
		"a wrong bore":             {strong, table, []Rule{RuleBore}},
	} {
		var got []Rule
		for _, s := range MountStops(tt.b, tt.s, measure.Millimetre) {
			got = append(got, s.Rule)
		}
		if !slices.Equal(got, tt.rules) {
			t.Errorf("%s is stopped by %v, want %v", name, got, tt.rules)
		}
	}
}

// A stand-in passes the hard rules of the saws that the blade runs on.
func TestStandsIn(t *testing.T) {
	braked := table
	braked.Brake = &saw.Brake{MinKerf: 2.5, MaxKerf: 4, MinDiameter: 250, MaxDiameter: 258}
	thin, thirty := combo50, combo50
	thin.Kerf, thin.Plate = 2.4, 1.7
	thirty.Teeth = 30
	for name, tt := range map[string]struct {
		b    blade.Blade
		saws []saw.Saw
		want bool
	}{
		"a twin":                {combo50, []saw.Saw{braked, slider}, true},
		"a thin one":            {thin, []saw.Saw{table}, true},
		"that the brake stops":  {thin, []saw.Saw{table, braked}, false},
		"another kind":          {thirty, []saw.Saw{table}, false},
		"a saw that takes none": {thin, []saw.Saw{slider}, true},
	} {
		if got := StandsIn(tt.b, combo50, tt.saws); got != tt.want {
			t.Errorf("%s stands in: %v", name, got)
		}
	}
}

func TestJobsThatNoBladeCanDo(t *testing.T) {
	for name, tt := range map[string]struct {
		field, says string
		s           saw.Saw
		change      func(*cut.Job)
	}{
		"rip on a miter saw": {"direction", "cuts across", slider, func(j *cut.Job) { j.Direction = cut.Rip }},
		"too thick":          {"thickness_mm", `3 7/64"`, table, func(j *cut.Job) { j.Motion, j.Thickness = cut.Along, 160 }},
		"too thick tilted":   {"thickness_mm", "other face", table, func(j *cut.Job) { j.Motion, j.Thickness, j.BevelDeg = cut.Along, 60, 45 }},
		"tilted too far":     {"bevel_deg", "tilts to 45", table, func(j *cut.Job) { j.Motion, j.BevelDeg = cut.Along, 50 }},
		"too thick to chop":  {"thickness_mm", "use another machine", slider, func(j *cut.Job) { j.Motion, j.Width, j.Thickness = cut.Chop, 90, 92.1 }},
		"a groove on a chop": {"form", "cuts through", slider, func(j *cut.Job) { j.Form, j.Depth = cut.Groove, 9 }},
		"a deep groove":      {"depth_mm", "deeper than this saw", table, func(j *cut.Job) { j.Motion, j.Form, j.Thickness, j.Depth = cut.Along, cut.Groove, 120, 90 }},
		"a groove through":   {"depth_mm", "leaves wood standing", table, func(j *cut.Job) { j.Motion, j.Form, j.Depth = cut.Along, cut.Groove, 25 }},
		"mitred too wide":    {"width_mm", "across the cut", slider, func(j *cut.Job) { j.Motion, j.Width, j.MiterDeg = cut.Chop, 120, 45 }},
		"past the fence":     {"width_mm", "fence reaches", func() saw.Saw { s := table; s.FenceReach = 700; return s }(), func(j *cut.Job) { j.Motion, j.Direction, j.Width = cut.Along, cut.Sheet, 701 }},
		"an insert at a top": {"exit_support", "teeth leave at the top face", slider, func(j *cut.Job) { j.Exit = cut.ZeroClearance }},
		"an end's insert":    {"other_support", "does nothing for the end edge", table, func(j *cut.Job) { j.Motion, j.Other = cut.Along, cut.ZeroClearance }},
		"10,000 pieces":      {"pieces", "1 to 9999", table, func(j *cut.Job) { j.Motion, j.Pieces = cut.Along, 10_000 }},
		"longer than it is":  {"piece_mm", "cannot come off", table, func(j *cut.Job) { j.Motion, j.Piece = cut.Along, 1000 }},
		"too wide to chop":   {"width_mm", "push it", slider, func(j *cut.Job) { j.Motion, j.Width = cut.Chop, 200 }},
		"too wide to push":   {"width_mm", "slide crosses", slider, func(j *cut.Job) { j.Width = 400 }},
		"chop on a table":    {"motion", "only a miter saw", table, func(j *cut.Job) { j.Motion = cut.Chop }},
	} {
		j := request(t, "cherry", cut.Crosscut, cut.Show).Job
		j.Motion = cut.Push
		tt.change(&j)
		err, ok := CheckJob(j, tt.s, measure.Inch).(*cut.Error)
		if !ok || err.Field != tt.field || !strings.Contains(err.Reason, tt.says) {
			t.Errorf("%s: %v", name, err)
		}
	}
	// A miter saw's blade goes past its table, so that it cuts what it reaches; and square work is never told of its tilt.
	j := request(t, "cherry", cut.Crosscut, cut.Show).Job
	j.Motion, j.Width, j.Thickness = cut.Chop, 90, 92
	if err := CheckJob(j, slider, measure.Millimetre); err != nil {
		t.Errorf("at a miter saw's reach: %v", err)
	}
	j.Motion, j.Thickness = cut.Along, 170
	if err := CheckJob(j, table, measure.Millimetre); err == nil || strings.Contains(err.Error(), "tilted") {
		t.Errorf("far past a table saw's reach: %v", err)
	}
}

func TestHeightsAndBestChange(t *testing.T) {
	r := request(t, "hard-maple", cut.Rip, cut.Hidden)
	h := r.Heights(rip24)
	if !(25 < h.Proud && h.Proud < h.Gullets && h.Gullets < h.Full) || h.Suggested != h.Gullets || h.Full != 79 {
		t.Errorf("heights %+v", h)
	}
	r.Job.Thickness = 76
	if h := r.Heights(rip24); h.Suggested != 79 || !strings.Contains(h.Why, "as far as") {
		t.Errorf("in thick stock the suggestion %+v leaves the saw's reach", h)
	}
	r.Job.Thickness = 25
	for school, want := range map[School]measure.Length{JustProud: h.Proud, GulletsClear: h.Gullets, FullReach: h.Full} {
		r.School = school
		if got := r.Heights(rip24); got.Suggested != want || got.Why == "" {
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
	if !ok || c.Text != "wash it" || c.Room <= k.Fit[0].Figures.Window.Room() {
		t.Errorf("for a caked blade the best change is %+v, %v", c, ok)
	}
	if v := k.Fit[0].Verdict(true, caked.State); v != Mind {
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
		if strings.Contains(s.Text, "shut") {
			t.Errorf("shut against shut: %s", s.Text)
		}
		return s
	}
	one := swap("cherry", cut.Rip, cut.Show, func(*Request) {})
	many := swap("cherry", cut.Rip, cut.Show, func(r *Request) { r.Job.Pieces = 60 })
	if one.On != 1 || one.Best != 2 || !one.Stay || many.Stay || math.Abs(many.OnMinutes/one.OnMinutes-60) > 1e-9 || many.OnMinutes-many.Minutes <= 3 {
		t.Errorf("one piece %+v, sixty %+v", one, many)
	}
	if !strings.Contains(many.Text, "The 60 pieces take") || !strings.HasSuffix(many.Text, "a change is 3 min. Change") {
		t.Errorf("sixty pieces: %s", many.Text)
	}
	// The best one is on: nothing to weigh, and nothing that one takes longer.
	blades[1].Mounted, blades[2].Mounted = false, true
	if s := swap("cherry", cut.Rip, cut.Show, func(*Request) {}); s.On != 2 || s.Best != 2 || !s.Stay || !strings.Contains(s.Text, "no other blade would do this better") {
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
	if s := swap("cherry", cut.Rip, cut.Show, func(*Request) {}); s.Stay || s.Minutes != 0 || !strings.Contains(s.Text, "cannot make this well at any feed, for scorch crosses") {
		t.Errorf("with a blade on whose window is shut: %+v", s)
	}
	blades[2].State = cut.State{Sharpness: 4, Pitch: 3}
	if s := swap("cherry", cut.Rip, cut.Show, func(r *Request) { r.Job.Thickness = 60 }); s.Stay || s.Minutes != 0 || !strings.Contains(s.Text, "Neither ON") {
		t.Errorf("where none makes it well: %+v", s)
	}
	if s := swap("acrylic", cut.Crosscut, cut.Show, func(*Request) {}); s.On != -1 || !strings.Contains(s.Text, "may not make this cut") {
		t.Errorf("with a blade on that may not: %+v", s)
	}
	if _, ok := Rank(Request{}, nil).Swap(Request{}, nil); ok {
		t.Error("an empty rack has a swap")
	}
	for minutes, want := range map[float64]string{0.2: "under a minute", 0.74: "under a minute", 0.76: "1 min", 14.4: "14 min", 99.4: "99 min", 125: "2 h 05 min"} {
		if got := Took(minutes); got != want {
			t.Errorf("Took(%v) = %q, want %q", minutes, got, want)
		}
	}
}

// Scores nearer than 2 % are level: then what is on the saw, what is kept for
// it and what costs least decide, in that order.
func TestLevelScores(t *testing.T) {
	r := request(t, "red-oak", cut.Rip, cut.Hidden)
	r.ChangeMinutes = 0
	twin, thinner := rip24, rip24
	twin.KeptFor = blade.UseGeneral
	thinner.Kerf = 3.1 // loads the motor a little less
	k := Rank(r, []Candidate{{Blade: thinner}, {Blade: rip24, Mounted: true}})
	if k.Fit[0].Index != 1 || !k.Fit[0].Level || !k.Fit[1].Level || k.Fit[1].Score <= k.Fit[0].Score {
		t.Errorf("the one on the saw does not lead its twin: %+v", k.Fit)
	}
	if d := k.Fit[0].Score / k.Fit[1].Score; d < levelShare {
		t.Fatalf("the twins differ by %v", d)
	}
	k = Rank(r, []Candidate{{Blade: fine80}, {Blade: rip24}})
	if k.Fit[0].Level || k.Fit[1].Level {
		t.Errorf("%v and %v are level", k.Fit[0].Score, k.Fit[1].Score)
	}
	// A hook that nobody has read never leads one that is known.
	unread := rip24
	unread.HookUnknown = true
	k = Rank(r, []Candidate{{Blade: unread, Mounted: true}, {Blade: tcg80}})
	if k.Fit[0].Index != 1 {
		t.Errorf("an unread hook leads: %+v", k.Fit)
	}
}

// Where the saw does not reach through, two passes meet in the middle, and a
// tilted blade has more wood in its way and less reach.
func TestBothFacesAndBevel(t *testing.T) {
	r := request(t, "red-oak", cut.Rip, cut.Hidden)
	r.Job.Thickness = 120
	r.Job = Settle(r.Job, table)
	if !r.Job.BothFaces || CheckJob(r.Job, table, measure.Millimetre) != nil {
		t.Fatalf("120 mm of oak: %+v", r.Job)
	}
	h := r.Heights(rip24)
	passes := r.Passes(h.Suggested)
	if !h.Exact || len(passes) != 2 || passes[0].Height+passes[1].Height < 120 {
		t.Errorf("heights %+v, passes %+v", h, passes)
	}
	for _, p := range passes {
		if f := AtPass(r, rack[2], p); !(f.TeethInCut > 0 && f.PowerW > 0) {
			t.Errorf("%s: %+v", p.Name, f)
		}
	}
	r = request(t, "red-oak", cut.Rip, cut.Hidden)
	square := Rank(r, rack[2:3]).Fit[0].Figures
	r.Job.BevelDeg = 45
	tilted := Rank(r, rack[2:3]).Fit[0]
	if tilted.Figures.Arc <= square.Arc || tilted.Figures.PowerW <= square.PowerW {
		t.Errorf("tilted %+v, square %+v", tilted.Figures, square)
	}
	if h := r.Heights(rip24); h.Full != 57 || h.Suggested >= 25+rip24.GulletDepth() {
		t.Errorf("heights at 45 degrees %+v", h)
	}
}

// A groove for a joint wants a flat bottom before anything else.
func TestAGrooveWantsAFlatBottom(t *testing.T) {
	r := request(t, "birch-ply", cut.Sheet, cut.Hidden)
	r.Job.Form, r.Job.Depth, r.Job.Exit, r.Job.Other = cut.Groove, 9, cut.ZeroClearance, cut.Spare
	flat := tcg80
	flat.KeptFor = blade.UseGeneral
	k := Rank(r, []Candidate{{Blade: fine80}, {Blade: flat}})
	if k.Fit[0].Index != 1 || k.Fit[0].Height != 9 {
		t.Errorf("first is %+v", k.Fit[0])
	}
	said := ""
	for _, one := range k.Reasons(r, Candidate{Blade: fine80}, k.Fit[1]) {
		said += one.Text
	}
	if !strings.Contains(said, "ridge of 1.17 mm") {
		t.Errorf("of the pointed blade it says %s", said)
	}
}

func TestKerfByMotorAndCircuit(t *testing.T) {
	r := request(t, "hard-maple", cut.Rip, cut.Hidden)
	r.Job.Thickness = 50
	free := table
	free.Knife = 0
	for name, tt := range map[string]struct {
		knife measure.Length
		motor float64
		says  string
	}{
		"a small motor":   {0, 900, "thin kerf"},
		"a strong motor":  {0, 3500, "full kerf: stiffer"},
		"a knife forbids": {2.5, 900, "riving knife (2.5 mm) is as thick"},
	} {
		r.Saw = free
		r.Saw.Knife, r.Saw.MotorW, r.Saw.BreakerA = tt.knife, tt.motor, 40
		a, ok := Kerfs(r, rip24)
		if !ok || !strings.Contains(a.Text, tt.says) || a.Thin.PowerW >= a.Full.PowerW || a.CircuitW != 3600 {
			t.Errorf("%s: %+v", name, a)
		}
	}
}

// Every material without a window has a sheet, and the saw's own limits are in it.
func TestEveryMaterialWithoutAWindowHasARule(t *testing.T) {
	for _, m := range material.All() {
		sheet, ok := RuleSheet(m, table)
		if ok == m.Kind.Modelled() {
			t.Errorf("%s: sheet %v", m.Name, ok)
		}
		refused := m.Kind == material.Steel || m.Kind == material.Mineral
		if ok && (sheet.Blade == "" || sheet.Saw == "" || sheet.SawMay == refused || len(sheet.Never) == 0 || len(sheet.Protection) == 0) {
			t.Errorf("%s: %+v", m.Name, sheet)
		}
	}
}

// A blade that is worse in any one way never gains by it.
func TestWorseNeverRanksHigher(t *testing.T) {
	r := request(t, "cherry", cut.Rip, cut.Hidden)
	base := Rank(r, []Candidate{{Blade: rip24}}).Fit[0].Score
	for name, c := range map[string]Candidate{
		"duller":   {Blade: rip24, State: cut.State{Sharpness: 1.8}},
		"pitchy":   {Blade: rip24, State: cut.State{Pitch: 1.2}},
		"unsuited": {Blade: func() blade.Blade { b := rip24; b.KeptFor = blade.UseMetal; return b }()},
	} {
		if got := Rank(r, []Candidate{c}).Fit[0].Score; got >= base {
			t.Errorf("%s: %v, no lower than %v", name, got, base)
		}
	}
	r.Heel = 0.15
	if got := Rank(r, []Candidate{{Blade: rip24}}).Fit[0].Score; got >= base {
		t.Errorf("on a saw out of line: %v, no lower than %v", got, base)
	}
	if k := Rank(r, nil); len(k.Fit)+len(k.Stopped) != 0 {
		t.Errorf("an empty rack: %+v", k)
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
	if !ok || change.Height != 45 || change.Blade != -1 || !strings.Contains(change.Text, "raise it to 45 mm") {
		t.Errorf("with nothing else to do: %+v, %v", change, ok)
	}
	both := []Candidate{c, {Blade: rip24}}
	k = Rank(r, both)
	if change, ok = k.BestChange(r, c, k.Fit[1]); !ok || change.Blade != 1 || change.Height != 0 || !strings.Contains(change.Text, "take NAME") {
		t.Errorf("with a better blade on the wall: %+v, %v", change, ok)
	}
	r.Heel = 0.1
	k = Rank(r, both)
	if change, ok = k.BestChange(r, c, k.Fit[1]); !ok || change.Blade != -1 || !strings.Contains(change.Text, "true the blade") {
		t.Errorf("on a saw out of line: %+v, %v", change, ok)
	}
	r = request(t, "birch-ply", cut.Sheet, cut.Show)
	for name, tt := range map[string]struct {
		s      saw.Saw
		motion cut.Motion
		says   string
	}{
		"on a table": {table, cut.Along, "zero-clearance insert"},
		"hand-held":  {saw.Saw{Kind: saw.Circular, Diameter: 254, Arbor: 15.875, RPM: 4500, MotorW: 1500, Reach: 85}, cut.Along, "with a knife first, or tape"},
		"on a slide": {slider, cut.Push, "scoring pass first"},
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
		if change, ok := k.BestChange(r, c, k.Fit[0]); !ok || !strings.Contains(change.Text, tt.says) {
			t.Errorf("%s: %+v, %v", name, change, ok)
		}
	}
}

// What is not known, or is a little wrong, is said and asked before a blade
// goes on: it is a mind, not a stop.
func TestMinds(t *testing.T) {
	with := func(change func(*blade.Blade)) blade.Blade {
		b := blade.Blade{Diameter: 305, Bore: 25.4, Kerf: 3, Plate: 2.2, Teeth: 80, Grind: blade.ATB, Bevel: 15, Hook: 5, MaxRPM: 5000}
		change(&b)
		return b
	}
	fixed := slider
	fixed.Sliding = false
	for name, tt := range map[string]struct {
		b    blade.Blade
		s    saw.Saw
		want []Rule
		stop []Rule
	}{
		"in order":               {with(func(*blade.Blade) {}), slider, nil, nil},
		"no speed limit":         {with(func(b *blade.Blade) { b.MaxRPM = 0 }), slider, []Rule{RuleSpeed}, nil},
		"no hook":                {with(func(b *blade.Blade) { b.HookUnknown = true }), fixed, []Rule{RuleHook}, nil},
		"no hook, on a table":    {func() blade.Blade { b := rip24; b.HookUnknown = true; return b }(), table, nil, nil},
		"a hook over 5, sliding": {with(func(b *blade.Blade) { b.Hook = 5.5 }), slider, []Rule{RuleHook}, nil},
		"over 5, fixed":          {with(func(b *blade.Blade) { b.Hook = 5.5 }), fixed, nil, nil},
		"10, sliding":            {with(func(b *blade.Blade) { b.Hook = 10 }), slider, []Rule{RuleHook}, nil},
		"over 10":                {with(func(b *blade.Blade) { b.Hook = 10.5 }), fixed, nil, []Rule{RuleHook}},
		"shoulders calm it":      {with(func(b *blade.Blade) { b.Hook, b.Shoulder = 8, true }), slider, []Rule{RuleHook}, nil},
	} {
		rules := func(stops []Stop) (out []Rule) {
			for _, s := range stops {
				if s.Why == "" || s.WayOut == "" {
					t.Errorf("%s: %+v", name, s)
				}
				out = append(out, s.Rule)
			}
			return out
		}
		if stops := rules(MountStops(tt.b, tt.s, measure.Millimetre)); !slices.Equal(stops, tt.stop) {
			t.Errorf("%s stops %v, want %v", name, stops, tt.stop)
		}
		if len(tt.stop) > 0 {
			continue
		}
		if got := rules(MountMinds(tt.b, tt.s, measure.Millimetre)); !slices.Equal(got, tt.want) {
			t.Errorf("%s is minded for %v, want %v", name, got, tt.want)
		}
	}
	r := request(t, "birch-ply", cut.Sheet, cut.Show)
	r.Job.Exit = cut.ZeroClearance
	for thick, want := range map[measure.Length]bool{3: true, 4: true, 4.1: false, 18: false} {
		r.Job.Thickness = thick
		o := Rank(r, []Candidate{{Blade: fine80}}).Fit[0]
		if got := len(o.Minds) == 1 && o.Minds[0].Rule == RuleTeeth; got != want || want && o.Verdict(true, cut.State{}) != Mind {
			t.Errorf("in %v stock %.2f teeth stand and it says %+v", thick, o.Figures.TeethInCut, o.Minds)
		}
	}
}

// Through is three millimetres through, never a hair.
func TestThrough(t *testing.T) {
	r := request(t, "red-oak", cut.Rip, cut.Hidden)
	walker := saw.Saw{Kind: saw.Circular, Diameter: 254, Arbor: 15.875, RPM: 4500, MotorW: 1500, Reach: 79}
	for _, tt := range []struct {
		name  string
		s     saw.Saw
		thick measure.Length
		proud measure.Length
		both  bool
	}{
		{"on a table", table, 25, 31, false},
		{"on a table near its reach", table, 75, 79, false},
		{"at its reach", table, 76, 79, false},
		{"past it", table, 76.1, 0, true},
		{"by hand", walker, 25, 28, false},
		{"by hand past its reach", walker, 77, 0, true},
	} {
		r.Saw, r.Job.Thickness, r.Job.BothFaces = tt.s, tt.thick, false
		r.Job = Settle(r.Job, tt.s)
		if r.Job.BothFaces != tt.both || CheckJob(r.Job, tt.s, measure.Millimetre) != nil {
			t.Errorf("%s, %v: from both faces %v, %v", tt.name, tt.thick, r.Job.BothFaces, CheckJob(r.Job, tt.s, measure.Millimetre))
		}
		if h := r.Heights(rip24); !tt.both && (h.Proud != tt.proud || h.Gullets < h.Proud) {
			t.Errorf("%s, %v: %+v", tt.name, tt.thick, h)
		}
		j := r.Job
		for height, want := range map[measure.Length]bool{j.Thickness + 2.9: false, j.Thickness + 3: true} {
			if j.Height = height; !j.BothFaces && j.Parts() != want {
				t.Errorf("%v in %v parts: %v", height, j.Thickness, !want)
			}
		}
	}
	r.Job.Motion, r.Job.Direction, r.Job.Width = cut.Chop, cut.Crosscut, 90
	for d, stopped := range map[measure.Length]bool{305: false, 299: false, 298.9: true, 290: true} { // 6 mm below the table
		b := blade.Blade{Diameter: d, Bore: 25.4, Kerf: 3, Teeth: 60, Grind: blade.ATB, Bevel: 15, MaxRPM: 5000}
		if got := len(Stops(b, cut.Job{Material: r.Job.Material, Motion: cut.Chop, Direction: cut.Crosscut, Thickness: 38, Width: 90, Length: 900}, slider, measure.Millimetre)) > 0; got != stopped {
			t.Errorf("a chop with %v is stopped: %v", d, got)
		}
	}
}

// Reasons speak in the reader's unit and say which two limits cross.
func TestReasonsInWords(t *testing.T) {
	r := request(t, "hard-maple", cut.Rip, cut.Hidden)
	k := Rank(r, rack)
	var said []string
	for _, o := range k.Fit {
		for _, reason := range k.Reasons(r, rack[o.Index], o) {
			said = append(said, reason.Text)
			if reason.For && strings.Contains(reason.Text, "shut") {
				t.Errorf("a shut window speaks for a blade: %q", reason.Text)
			}
		}
	}
	all := strings.Join(said, "; ")
	for _, want := range []string{"kept for this", "window shut: scorch crosses bog", "saved for sheet goods"} {
		if !strings.Contains(all, want) {
			t.Errorf("nobody says %q in: %s", want, all)
		}
	}
	r.Unit = measure.Inch
	thick := r.Job
	thick.Thickness = 65
	small := combo50
	small.Diameter = 218
	if stops := Stops(small, thick, table, r.Unit); len(stops) != 1 || !strings.Contains(stops[0].Why, `2 13/32"`) {
		t.Errorf("in inches: %+v", stops)
	}
}

func TestSweepIsWork(t *testing.T) {
	r := request(t, "hard-maple", cut.Rip, cut.Hidden)
	r.Heel = 0.1
	heights := []measure.Length{26, 31, 60}
	got := make([]cut.Figures, 3)
	Sweep(r, rack[2], heights, got)
	for i, h := range heights {
		if got[i] != At(r, rack[2], h) || math.IsNaN(got[i].Load) {
			t.Errorf("at %v the sweep says %+v", h, got[i])
		}
	}
	if got[0].Burn <= got[2].Burn {
		t.Error("the low blade is not the one that scorches")
	}
}

func BenchmarkRank1000(b *testing.B) {
	r := request(b, "hard-maple", cut.Rip, cut.Hidden)
	many := make([]Candidate, 1000)
	for i := range many {
		many[i] = rack[i%len(rack)]
		many[i].Blade.Teeth += 2 * (i % 17)
	}
	b.ReportAllocs()
	for b.Loop() {
		Rank(r, many)
	}
}

func BenchmarkSweep200(b *testing.B) {
	r := request(b, "hard-maple", cut.Rip, cut.Hidden)
	heights := make([]measure.Length, 200)
	for i := range heights {
		heights[i] = 1 + measure.Length(i)*0.39
	}
	dst := make([]cut.Figures, len(heights))
	for b.Loop() {
		Sweep(r, rack[2], heights, dst)
	}
}

func BenchmarkIdeal(b *testing.B) {
	r := request(b, "hard-maple", cut.Rip, cut.Hidden)
	for b.Loop() {
		FindIdeal(r)
	}
}

// The ideal follows the cut: few teeth along the grain, many and pointed
// through veneer.
func TestIdealFollowsTheCut(t *testing.T) {
	rip, ok := FindIdeal(request(t, "hard-maple", cut.Rip, cut.Hidden))
	if !ok || rip.Blade.Teeth > 30 || rip.Blade.Hook < 15 {
		t.Errorf("for a rip: %+v", rip)
	}
	r := request(t, "birch-ply", cut.Sheet, cut.Fine)
	r.Job.Exit, r.Job.Other = cut.ZeroClearance, cut.Backer
	sheet, ok := FindIdeal(r)
	if !ok || sheet.Blade.Teeth < 60 || sheet.Blade.Grind != blade.HighATB {
		t.Errorf("for veneer: %+v", sheet)
	}
	if err := sheet.Blade.Check(); err != nil || len(Stops(sheet.Blade, r.Job, r.Saw, r.Unit)) > 0 {
		t.Errorf("the ideal blade could not be used: %v", err)
	}
	if _, ok := FindIdeal(request(t, "tile", cut.Crosscut, cut.Show)); ok {
		t.Error("an ideal toothed blade for tile")
	}
}
