package cut

import (
	"errors"
	"fmt"
	"maps"
	"slices"
	"testing"

	"corte/core/blade"
	"corte/core/fault"
	"corte/core/measure"
	"corte/internal/testkit/golden"
)

// Every figure over cuts, grinds, states and supports that bring each term of
// the model into play; read over once beside docs/model.md and held to it.
func TestFiguresAreAsTheyWereReadOver(t *testing.T) {
	blades := map[string]blade.Blade{
		"flat 24":  rip24,
		"bevelled": {Diameter: 254, Bore: 15.875, Kerf: 3.2, Plate: 2.2, Teeth: 40, Grind: blade.ATB, Bevel: 15, Hook: 15},
		"steep":    {Diameter: 254, Bore: 15.875, Kerf: 3, Plate: 2.2, Teeth: 80, Grind: blade.HighATB, Bevel: 38, Hook: 5, Shear: true},
		"raker":    {Diameter: 254, Bore: 15.875, Kerf: 3.2, Plate: 2.2, Teeth: 50, Grind: blade.ATBR, Bevel: 15, Hook: 12, Group: 5},
		"chip":     {Diameter: 254, Bore: 15.875, Kerf: 3.2, Plate: 2.2, Teeth: 80, Grind: blade.TCG, Hook: -3},
		"one way":  {Diameter: 254, Bore: 15.875, Kerf: 3.2, Plate: 2.2, Teeth: 40, Grind: blade.OneWay, Bevel: 8, Hook: 10},
		"unread":   {Diameter: 184, Bore: 15.875, Kerf: 1.8, Plate: 1.2, Teeth: 24, Grind: blade.ATB, Bevel: 15, HookUnknown: true, Shoulder: true, GulletShape: blade.NarrowGullet},
	}
	jobs := map[string]func(*Job){
		"rip":    func(*Job) {},
		"across": func(j *Job) { j.Direction, j.Finish = Crosscut, Show },
		"sheet": func(j *Job) {
			j.Direction, j.Finish, j.Exit, j.Thickness, j.Height = Sheet, Fine, ZeroClearance, 18, 30
		},
		"low":        func(j *Job) { j.Height = 26 },
		"rough":      func(j *Job) { j.Finish = Rough },
		"groove":     func(j *Job) { j.Form, j.Depth, j.Height = Groove, 8, 8 },
		"bevel":      func(j *Job) { j.BevelDeg, j.Direction = 30, Crosscut },
		"miter":      func(j *Job) { j.MiterDeg, j.Direction = 45, Crosscut },
		"chop":       func(j *Job) { j.Motion, j.Direction, j.Height, j.Other = Chop, Crosscut, 0, Backer },
		"push":       func(j *Job) { j.Motion, j.Direction, j.Exit = Push, Crosscut, Scored },
		"wet":        func(j *Job) { j.Moisture = Wet },
		"frozen":     func(j *Job) { j.Moisture, j.Moves = Frozen, true },
		"both faces": func(j *Job) { j.BothFaces, j.Thickness, j.Height = true, 110, 57 },
		"trimmed":    func(j *Job) { j.Exit, j.Other, j.Direction, j.Pieces = Spare, Tape, Crosscut, 24 },
	}
	states := map[string]State{"sharp": {}, "worn": {Sharpness: 1.8, Pitch: 1.6}, "out": {Sharpness: 1.2, Heel: -0.15, Spread: 0.1, RunOut: 0.12, Chipped: true}}
	for _, hand := range []bool{false, true} {
		d := Drive{RPM: 4000, PowerLimitW: 1300, HandHeld: hand}
		for name, b := range blades {
			if hand && name != "unread" && name != "bevelled" {
				continue
			}
			var said []any
			for _, what := range slices.Sorted(maps.Keys(jobs)) {
				j := job(t, map[bool]string{false: "hard-maple", true: "birch-ply"}[what == "sheet"])
				jobs[what](&j)
				for _, state := range []string{"out", "sharp", "worn"} {
					// One blade is read over in every cut; of the others what tells them from it.
					if name != "flat 24" && (state != "sharp" || !slices.Contains([]string{"across", "rip", "sheet"}, what)) {
						continue
					}
					if state != "sharp" && !slices.Contains([]string{"rip", "sheet"}, what) {
						continue
					}
					f := Work(j, b, d, states[state])
					quick := WorkAt(j, b, d, states[state], 9)
					fade := f.Window.Fade(Doubt{Scorch: 0.2, Splinter: 0.1})
					said = append(said, fmt.Sprint("== ", what, ", ", state), map[string]any{"work": f, "quick": quick, "minutes": f.Minutes(j, 1.5), "rework": quick.Minutes(j, 1).Rework(), "worst": f.WorstFace(), "fade": fade,
						"turns": []bool{fade.Turns(f.Window, 1), fade.Turns(f.Window, 1.5)}, "open": f.Window.Open(), "grade": f.Window.Grade()})
				}
			}
			golden.Check(t, fmt.Sprint(name, map[bool]string{true: " by hand"}[hand]), said...)
		}
	}
	var said []any
	for _, what := range slices.Sorted(maps.Keys(jobs)) {
		j := job(t, "cherry")
		jobs[what](&j)
		said = append(said, what, map[string]any{"cut": j.CutLength(), "wall": j.WallLength(), "feed": j.FeedLength(), "swept": j.Swept(), "not through": j.NotThrough(), "parts": j.Parts(), "limit": j.SplinterLimit(),
			"width": j.MeetsWidth(), "thickness": j.MeetsThickness(), "engages": Engage(j, rip24), "count": j.Count(), "bears": j.Form.Bears(), "allowed": AllowedLoad(j.Direction)})
	}
	for _, d := range []Direction{Rip, Crosscut, Sheet} {
		for _, m := range []Motion{Along, Chop, Push} {
			for _, gauge := range []bool{true, false} {
				exit, other := UsualSupport(d, m, gauge)
				face, back := FaceNames(m, gauge)
				said = append(said, fmt.Sprint(d, m, gauge, ": ", exit, other, face, back))
			}
		}
	}
	golden.Check(t, "geometry", said...)
}

// Each size of a job is taken up to its bounds and refused a hair past them.
func TestBoundsOfAJob(t *testing.T) {
	for _, tt := range []struct {
		where       string
		least, most float64
		set         func(*Job, float64)
	}{
		{"thickness", 0.5, 400, func(j *Job, v float64) { j.Thickness = measure.Length(v) }},
		{"width", 1, 5000, func(j *Job, v float64) { j.Width = measure.Length(v) }},
		{"length", 1, 20_000, func(j *Job, v float64) { j.Length = measure.Length(v) }},
		{"bevel", 0, 60, func(j *Job, v float64) { j.BevelDeg = v }},
		{"miter", 0, 60, func(j *Job, v float64) { j.MiterDeg, j.Direction = v, Crosscut }},
		{"depth", 0.5, 24.99, func(j *Job, v float64) { j.Form, j.Depth = Groove, measure.Length(v) }},
		{"piece", 0, 20_000, func(j *Job, v float64) { j.Piece = measure.Length(v) }},
		{"pieces", 0, 9999, func(j *Job, v float64) { j.Pieces = int(v) }},
	} {
		step := 0.01
		if tt.where == "pieces" {
			step = 1
		}
		for v, ok := range map[float64]bool{tt.least: true, tt.most: true, tt.least - step: false, tt.most + step: false} {
			j := job(t, "cherry")
			tt.set(&j, v)
			if err := j.Check(); (err == nil) != ok || err != nil && whereOf(err) != tt.where {
				t.Errorf("%s of %v: %v", tt.where, v, err)
			}
		}
	}
	j := job(t, "cherry")
	if j.MiterDeg = 1; whereOf(j.Check()) != "miter" {
		t.Errorf("a rip with a miter: %v", j.Check())
	}
}

func whereOf(err error) string {
	var f *fault.Error
	if errors.As(err, &f) {
		return f.Where
	}
	return ""
}

// A setting parts the work, or stops where it should, to a hundredth.
func TestParts(t *testing.T) {
	for _, tt := range []struct {
		change func(*Job)
		parts  bool
	}{
		{func(j *Job) { j.Height = 28 }, true}, {func(j *Job) { j.Height = 27.991 }, true}, {func(j *Job) { j.Height = 27.989 }, false},
		{func(j *Job) { j.Height, j.Motion = 0, Chop }, true},
		{func(j *Job) { j.BothFaces, j.Height = true, 12.5 }, false}, {func(j *Job) { j.BothFaces, j.Height = true, 12.51 }, true},
		{func(j *Job) { j.Form, j.Depth, j.Height = Groove, 8, 8.009 }, true}, {func(j *Job) { j.Form, j.Depth, j.Height = Groove, 8, 8.011 }, false}, {func(j *Job) { j.Form, j.Depth, j.Height = Groove, 8, 7.989 }, false},
	} {
		j := job(t, "cherry")
		tt.change(&j)
		if j.Parts() != tt.parts {
			t.Errorf("%v high in %v, %s: parts %v", j.Height, j.Thickness, j.Form, j.Parts())
		}
	}
	for f, limit := range map[Finish]float64{Rough: 2.5, Hidden: 1.2, Show: 0.6, Fine: 0.3} {
		if j := (Job{Finish: f, Direction: Crosscut}); j.SplinterLimit() != limit || (Job{Finish: f}).SplinterLimit() != 2*limit {
			t.Errorf("a %s face bears %v across and %v along", f, j.SplinterLimit(), (Job{Finish: f}).SplinterLimit())
		}
	}
}
