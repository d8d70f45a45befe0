package cut

import (
	"math"
	"testing"

	"corte/core/blade"
	"corte/core/fault"
	"corte/core/material"
	"corte/core/measure"
)

var rip24 = blade.Blade{Diameter: 254, Bore: 15.875, Kerf: 3.2, Plate: 2.2, Teeth: 24, Grind: blade.FTG, Hook: 20}

func job(t testing.TB, id string) Job {
	t.Helper()
	m, err := material.Get(id)
	if err != nil {
		t.Fatal(err)
	}
	return Job{Material: m, Thickness: 25, Width: 120, Length: 900, Height: 37, Finish: Hidden}
}

// What people at the saw know must come out of the figures, whatever the
// constants.
func TestEverydayExperience(t *testing.T) {
	drive := Drive{RPM: 4000, PowerLimitW: 1300}
	base := job(t, "hard-maple")
	now := Work(base, rip24, drive, State{})
	with := func(change func(*Job, *blade.Blade, *State)) Figures {
		j, b, s := base, rip24, State{}
		change(&j, &b, &s)
		return Work(j, b, drive, s)
	}
	for name, got := range map[string]Figures{
		"a low blade": with(func(j *Job, _ *blade.Blade, _ *State) { j.Height = 26 }),
		"more teeth":  with(func(_ *Job, b *blade.Blade, _ *State) { b.Teeth = 60 }),
		"a dull edge": with(func(_ *Job, _ *blade.Blade, s *State) { s.Sharpness = 2 }),
		"pitch":       with(func(_ *Job, _ *blade.Blade, s *State) { s.Pitch = 2 }),
		"heel":        with(func(_ *Job, _ *blade.Blade, s *State) { s.Heel = -0.1 }),
		"cherry":      with(func(j *Job, _ *blade.Blade, _ *State) { j.Material = job(t, "cherry").Material }),
	} {
		if got.Window.Scorch <= now.Window.Scorch {
			t.Errorf("%s scorches under %.2f m/min, no sooner than %.2f", name, got.Window.Scorch, now.Window.Scorch)
		}
	}
	if wide := with(func(_ *Job, b *blade.Blade, _ *State) { b.Kerf = 6 }); wide.Load <= now.Load {
		t.Errorf("a wider kerf loads the motor %.2f, no more than %.2f", wide.Load, now.Load)
	}
	shown := base
	shown.Direction, shown.Finish = Crosscut, Show
	open := Work(shown, rip24, drive, State{})
	shown.Exit, shown.Other = ZeroClearance, Backer
	held := Work(shown, rip24, drive, State{})
	if held.Window.Splinter <= open.Window.Splinter || held.Window.Room() <= open.Window.Room() {
		t.Errorf("insert and backer leave the window at %v, open faces at %v", held.Window, open.Window)
	}
}

func TestWindowBounds(t *testing.T) {
	j := job(t, "white-pine")
	b := rip24
	b.Gullet = 0.5
	f := Work(j, b, Drive{RPM: 4000, PowerLimitW: 1300}, State{})
	if f.Window.FastBy != ByGullet || f.Feed > f.Window.Fastest {
		t.Errorf("with hardly a gullet the limit is %v and the feed %v", f.Window.FastBy, f.Feed)
	}
	at := WorkAt(j, rip24, Drive{RPM: 4000, PowerLimitW: 1300}, State{}, f.Window.Scorch)
	if math.Abs(at.Burn-0.2) > 1e-9 {
		t.Errorf("at the scorch bound a burn has a chance of %v, want 0.2", at.Burn)
	}
	at = WorkAt(j, rip24, Drive{RPM: 4000, PowerLimitW: 1300}, State{}, f.Window.Bog)
	if math.Abs(at.Load-0.9) > 1e-9 {
		t.Errorf("at the bog bound the load is %v, want 0.9", at.Load)
	}
	j.Direction, j.Exit, j.Other = Crosscut, Spare, Spare
	if f := Work(j, rip24, Drive{RPM: 4000, PowerLimitW: 1300}, State{}); f.Window.FastBy == BySplinter {
		t.Error("faces that do not matter close the window")
	}
}

// What the second edition added, by how much each changes one figure of a cut.
func TestWhatMovesAFigure(t *testing.T) {
	drive := Drive{RPM: 4000, PowerLimitW: 1300}
	type state struct {
		j Job
		b blade.Blade
		d Drive
		s State
	}
	start := state{job(t, "white-pine"), rip24, drive, State{}}
	start.b.Gullet = 10
	ply := start
	ply.j.Material, ply.j.Direction = job(t, "birch-ply").Material, Sheet
	w := func(mm float64) float64 { return 0.4 + 0.6*(1-math.Exp(-mm/500)) }
	const feed = 3
	for name, tt := range map[string]struct {
		of     state
		change func(*state)
		figure func(Figures) float64
		times  float64
	}{
		"hand-held heat":       {start, func(x *state) { x.d.HandHeld = true }, func(f Figures) float64 { return f.Dose }, 1.6},
		"pushed heat":          {start, func(x *state) { x.j.Motion = Push }, func(f Figures) float64 { return f.Dose }, 1.2},
		"heel unknown":         {start, func(x *state) { x.s.Heel = -0.03 }, func(f Figures) float64 { return f.Dose }, 1},
		"heel 0.18":            {start, func(x *state) { x.s.Heel = 0.18 }, func(f Figures) float64 { return f.Dose }, 2},
		"a short rip":          {start, func(x *state) { x.j.Length = 300 }, func(f Figures) float64 { return f.Dose }, w(300) / w(900)},
		"half from each face":  {start, func(x *state) { x.j.BothFaces = true }, func(f Figures) float64 { return f.Dose }, 1},
		"wet force":            {start, func(x *state) { x.j.Moisture = Wet }, func(f Figures) float64 { return f.PowerW }, 1.25},
		"wet splinters":        {start, func(x *state) { x.j.Moisture = Wet }, func(f Figures) float64 { return f.Exit.Splinter }, 1.3},
		"frozen force":         {start, func(x *state) { x.j.Moisture = Frozen }, func(f Figures) float64 { return f.PowerW }, 1.35},
		"shear in ply":         {ply, func(x *state) { x.b.Shear = true }, func(f Figures) float64 { return f.Exit.Splinter }, 0.85},
		"shear in solid wood":  {start, func(x *state) { x.b.Shear = true }, func(f Figures) float64 { return f.Exit.Splinter }, 1},
		"a hook unread":        {start, func(x *state) { x.b.HookUnknown = true }, func(f Figures) float64 { return f.PowerW }, 1 / 0.88},
		"round gullets":        {start, func(x *state) { x.b.GulletShape = blade.RoundGullet }, func(f Figures) float64 { return float64(f.Window.Gullet) }, 0.52 / 0.45},
		"narrow gullets":       {start, func(x *state) { x.b.GulletShape = blade.NarrowGullet }, func(f Figures) float64 { return float64(f.Window.Gullet) }, 0.36 / 0.45},
		"not through, by hand": {start, func(x *state) { x.j.Form, x.j.Depth = Groove, 6 }, func(f Figures) float64 { return float64(f.Window.Hand) }, 4.0 / 6},
		"twice the wobble":     {start, func(x *state) { x.s.Spread, x.s.RunOut = 0.08, 0.06 }, func(f Figures) float64 { return f.WallMark.Mm() }, 2},
		"only run-out":         {start, func(x *state) { x.s.RunOut = 0.1 }, func(f Figures) float64 { return f.WallMark.Mm() }, 2},
		"across bears half":    {start, func(x *state) { x.j.Direction = Crosscut }, func(f Figures) float64 { return f.Allowed }, 1.2 / 0.9},
	} {
		x := tt.of
		was := tt.figure(WorkAt(x.j, x.b, x.d, x.s, feed))
		tt.change(&x)
		if got := tt.figure(WorkAt(x.j, x.b, x.d, x.s, feed)) / was; math.Abs(got-tt.times) > 1e-9 {
			t.Errorf("%s: %.6g times, want %.6g", name, got, tt.times)
		}
	}
	// Four times the feed: twice the splinters on both faces, and a mark that nears its most.
	one, four := WorkAt(ply.j, ply.b, drive, State{}, 1), WorkAt(ply.j, ply.b, drive, State{}, 4)
	if a, b := four.Exit.Splinter/one.Exit.Splinter, four.Other.Splinter/one.Other.Splinter; math.Abs(a-2) > 1e-9 || math.Abs(b-2) > 1e-9 {
		t.Errorf("four times the feed: splinters %v and %v times", a, b)
	}
	mark := func(feed float64) float64 { return 1 - math.Exp(-feed/4/0.6) } // 4 turns a mm of m/min
	if got := four.WallMark.Mm() / one.WallMark.Mm(); math.Abs(got-mark(4)/mark(1)) > 1e-9 {
		t.Errorf("four times the feed: marks %v times as deep, want %v", got, mark(4)/mark(1))
	}
	shouldered := start
	shouldered.b.Shoulder, shouldered.b.Teeth = true, 2
	if f := Work(shouldered.j, shouldered.b, drive, State{}); math.Abs(float64(f.Window.Shoulder)-1.1*4000*2/1000) > 1e-9 {
		t.Errorf("shoulders let %v m/min by", f.Window.Shoulder)
	}
	if f := Work(start.j, start.b, drive, State{}); !math.IsInf(float64(f.Window.Shoulder), 1) || !math.IsInf(float64(f.Window.Wall), 1) {
		t.Errorf("bounds that cannot bind: %+v", f.Window)
	}
	// Under the blunt edge force grows with feed, over it with a power of it.
	thin := start
	thin.b.Teeth = 100
	for feed, power := range map[measure.Feed]float64{0.2: 2, 8: math.Pow(2, 0.62)} {
		one, two := WorkAt(thin.j, thin.b, drive, State{}, feed), WorkAt(thin.j, thin.b, drive, State{}, 2*feed)
		if got := two.PowerW / one.PowerW; math.Abs(got-power) > 1e-9 {
			t.Errorf("from %v mm of chip twice the feed takes %v times the power, want %v", one.MeanChip, got, power)
		}
	}
	weak := WorkAt(thin.j, thin.b, Drive{RPM: 4000, PowerLimitW: 100}, State{}, 1)
	if at := WorkAt(thin.j, thin.b, Drive{RPM: 4000, PowerLimitW: 100}, State{}, weak.Window.Bog); at.MeanChip >= bluntChip || math.Abs(at.Load-0.9) > 1e-9 {
		t.Errorf("at its bog bound, a chip of %v, it loads %v", at.MeanChip, at.Load)
	}
}

// Minutes add up part by part, and half of what stands at its limit is mended.
func TestMinutes(t *testing.T) {
	rip, across, chop := job(t, "cherry"), job(t, "cherry"), job(t, "cherry")
	rip.Finish, across.Direction, across.Finish = Show, Crosscut, Fine
	chop.Direction, chop.Motion, chop.Finish, chop.Thickness = Crosscut, Chop, Hidden, 38
	for name, tt := range map[string]struct {
		j      Job
		at     Acting
		rework float64
		want   Minutes
	}{
		"a rip":                {rip, Acting{Feed: 3, Burn: 0.25}, 0, Minutes{Handling: 0.5, Feeding: 0.3, Burn: 0.25 * 1.8 * 2}},
		"across, at limits":    {across, Acting{Feed: 2, Worst: 0.3, WallMark: 0.03}, 1, Minutes{Handling: 0.3, Feeding: 0.06, Edge: 0.5 * 0.12 * 6, Wall: 0.5 * 0.24 * 4}},
		"a rip bears twice":    {rip, Acting{Feed: 3, Worst: 1.2}, 1, Minutes{Handling: 0.5, Feeding: 0.3, Edge: 0.5 * 0.9 * 3}},
		"a face of no matter":  {rip, Acting{Feed: 3}, 1, Minutes{Handling: 0.5, Feeding: 0.3}},
		"a chop":               {chop, Acting{Feed: 0.76, Burn: 1}, 1, Minutes{Handling: 0.3, Feeding: 0.05, Burn: 0.24 * 0.3}},
		"mended twice as long": {chop, Acting{Feed: 0.76, Burn: 1}, 2, Minutes{Handling: 0.3, Feeding: 0.05, Burn: 0.24 * 0.6}},
		"rough":                {func() Job { j := rip; j.Finish = Rough; return j }(), Acting{Feed: 3, Burn: 1, Worst: 9, WallMark: 1}, 1, Minutes{Handling: 0.5, Feeding: 0.3}},
	} {
		got := Figures{Acting: tt.at}.Minutes(tt.j, tt.rework)
		for part, d := range map[string]float64{"handling": got.Handling - tt.want.Handling, "feeding": got.Feeding - tt.want.Feeding, "burn": got.Burn - tt.want.Burn,
			"edge": got.Edge - tt.want.Edge, "wall": got.Wall - tt.want.Wall, "total": got.Total() - tt.want.Total(), "rework": got.Rework() - tt.want.Burn - tt.want.Edge - tt.want.Wall} {
			if math.Abs(d) > 1e-12 {
				t.Errorf("%s: %s is off by %v: %+v", name, part, d, got)
			}
		}
	}
}

// The ends of the window fade by what is not known, and an end that something
// else sets does not until the other bound comes past it.
func TestFade(t *testing.T) {
	w := Window{Slowest: 2, Fastest: 5, Scorch: 2, Bog: 8, Splinter: 5, Hand: 6, Gullet: 20, Wall: 9, Shoulder: 30, slow: 1}
	for name, tt := range map[string]struct {
		w     Window
		d     Doubt
		want  [4]float64
		turns bool // over or under 1.5
	}{
		"the table's":    {w, Doubt{}, [4]float64{2 * math.Exp(-1.25*0.35), 2 * math.Exp(1.25*0.35), 5 * math.Exp(-0.7), 6}, true},
		"from many cuts": {w, Doubt{0.1, 0.1}, [4]float64{2 * math.Exp(-0.125), 2 * math.Exp(0.125), 5 * math.Exp(-0.2), 6}, false},
		"set by a hand":  {Window{Slowest: 1, Fastest: 6, Scorch: 0.5, Bog: 8, Splinter: 50, Hand: 6, Gullet: 20, Wall: 9, Shoulder: 30, slow: 1}, Doubt{}, [4]float64{1, 1, 6, 6}, false},
		"shut for good":  {Window{Slowest: 9, Fastest: 2, Scorch: 9, Bog: 2, Splinter: 50, Hand: 6, Gullet: 20, Wall: 9, Shoulder: 30, slow: 1}, Doubt{}, [4]float64{9 * math.Exp(-1.25*0.35), 9 * math.Exp(1.25*0.35), 2, 2}, false},
	} {
		f := tt.w.Fade(tt.d)
		for i, got := range [4]measure.Feed{f.SlowFrom, f.SlowTo, f.FastFrom, f.FastTo} {
			if math.Abs(float64(got)-tt.want[i]) > 1e-9 {
				t.Errorf("%s: end %d at %v, want %v", name, i, got, tt.want[i])
			}
		}
		if got := f.Turns(tt.w, FairRoom); got != tt.turns {
			t.Errorf("%s: turns %v", name, got)
		}
	}
}

func TestJobCheckNamesTheField(t *testing.T) {
	for field, spoil := range map[string]func(*Job){
		"thickness": func(j *Job) { j.Thickness = 0 },
		"width":     func(j *Job) { j.Width = -3 },
		"length":    func(j *Job) { j.Length = measure.Length(math.NaN()) },
	} {
		j := job(t, "cherry")
		spoil(&j)
		err, ok := j.Check().(*fault.Error)
		if !ok || err.Where != field {
			t.Errorf("%s: Check() = %v", field, err)
		}
	}
}

func BenchmarkOneBladeOneCut(b *testing.B) {
	j := job(b, "hard-maple")
	b.ReportAllocs()
	for b.Loop() {
		Work(j, rip24, Drive{RPM: 4000, PowerLimitW: 1300}, State{})
	}
}
