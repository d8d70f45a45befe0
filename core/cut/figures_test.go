package cut

import (
	"math"
	"testing"

	"corte/core/blade"
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
	f := Work(j, b, Drive{4000, 1300}, State{})
	if f.Window.FastBy != ByGullet || f.Feed > f.Window.Fastest {
		t.Errorf("with hardly a gullet the limit is %v and the feed %v", f.Window.FastBy, f.Feed)
	}
	at := WorkAt(j, rip24, Drive{4000, 1300}, State{}, f.Window.Scorch)
	if math.Abs(at.Burn-0.2) > 1e-9 {
		t.Errorf("at the scorch bound a burn has a chance of %v, want 0.2", at.Burn)
	}
	at = WorkAt(j, rip24, Drive{4000, 1300}, State{}, f.Window.Bog)
	if math.Abs(at.Load-0.9) > 1e-9 {
		t.Errorf("at the bog bound the load is %v, want 0.9", at.Load)
	}
	j.Direction, j.Exit, j.Other = Crosscut, Spare, Spare
	if f := Work(j, rip24, Drive{4000, 1300}, State{}); f.Window.FastBy == BySplinter {
		t.Error("faces that do not matter close the window")
	}
}

func TestJobCheckNamesTheField(t *testing.T) {
	for field, spoil := range map[string]func(*Job){
		"thickness_mm": func(j *Job) { j.Thickness = 0 },
		"width_mm":     func(j *Job) { j.Width = -3 },
		"length_mm":    func(j *Job) { j.Length = measure.Length(math.NaN()) },
	} {
		j := job(t, "cherry")
		spoil(&j)
		err, ok := j.Check().(*Error)
		if !ok || err.Field != field {
			t.Errorf("%s: Check() = %v", field, err)
		}
	}
}

func BenchmarkOneBladeOneCut(b *testing.B) {
	j := job(b, "hard-maple")
	b.ReportAllocs()
	for b.Loop() {
		Work(j, rip24, Drive{4000, 1300}, State{})
	}
}
