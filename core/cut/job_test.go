package cut

import (
	"encoding/json"
	"math"
	"reflect"
	"strings"
	"testing"

	"corte/core/measure"
)

// Every word of a job reads back as itself, and nothing else reads at all.
func TestWordsRoundTrip(t *testing.T) {
	for d := Rip; d <= Sheet; d++ {
		if got, err := ParseDirection(d.String()); err != nil || got != d {
			t.Errorf("%v: %v, %v", d, got, err)
		}
	}
	for m := Along; m <= Push; m++ {
		if got, err := ParseMotion(m.String()); err != nil || got != m {
			t.Errorf("%v: %v, %v", m, got, err)
		}
	}
	for f := Through; f <= Fold; f++ {
		if got, err := ParseForm(f.String()); err != nil || got != f {
			t.Errorf("%v: %v, %v", f, got, err)
		}
	}
	for b := Air; b <= Sacrifice; b++ {
		if got, err := ParseBed(b.String()); err != nil || got != b {
			t.Errorf("%v: %v, %v", b, got, err)
		}
	}
	for f := Rough; f <= Fine; f++ {
		if got, err := ParseFinish(f.String()); err != nil || got != f {
			t.Errorf("%v: %v, %v", f, got, err)
		}
		if f > Rough && f.SplinterLimit() >= (f-1).SplinterLimit() {
			t.Errorf("a %v face bears no less than a %v one", f, f-1)
		}
	}
	for s := Open; s <= Spare; s++ {
		if got, err := ParseSupport(s.String()); err != nil || got != s {
			t.Errorf("%v: %v, %v", s, got, err)
		}
		if s > Open && s < Spare && s.Factor() >= Open.Factor() {
			t.Errorf("%v holds no fibres", s)
		}
	}
	for _, err := range []error{second(ParseDirection("diagonal")), second(ParseMotion("")), second(ParseFinish("shiny")), second(ParseSupport("hope"))} {
		if err == nil {
			t.Error("a word that is none was read")
		}
	}
}

func second[T any](_ T, err error) error { return err }

func TestCutLength(t *testing.T) {
	j := Job{Width: 120, Length: 900, Thickness: 19, Height: 12}
	if j.CutLength() != 900 || !j.NotThrough() {
		t.Errorf("a rip runs %v, not through %v", j.CutLength(), j.NotThrough())
	}
	j.Direction, j.Motion = Crosscut, Chop
	if j.CutLength() != 120 || j.NotThrough() {
		t.Errorf("a chop runs %v, not through %v", j.CutLength(), j.NotThrough())
	}
}

// A tilted or turned cut is an upright one through the section that the blade
// really meets.
func TestTheSectionThatIsMet(t *testing.T) {
	j := job(t, "cherry")
	j.Thickness, j.Height, j.BevelDeg = 20, 30, 60
	upright := j
	upright.Thickness, upright.Height, upright.BevelDeg = 40, 60, 0
	if a, b := Engage(j, rip24), Engage(upright, rip24); math.Abs((a.Arc-b.Arc).Mm()) > 1e-9 || math.Abs(a.ExitDeg-b.ExitDeg) > 1e-9 || math.Abs((a.Depth-b.Depth).Mm()) > 1e-9 {
		t.Errorf("tilted %+v, upright %+v", a, b)
	}
	chop := job(t, "cherry")
	chop.Motion, chop.Direction, chop.Width, chop.MiterDeg = Chop, Crosscut, 60, 60
	wide := chop
	wide.Width, wide.MiterDeg = 120, 0
	if a, b := Engage(chop, rip24), Engage(wide, rip24); math.Abs((a.Arc - b.Arc).Mm()) > 1e-9 {
		t.Errorf("mitred %+v, wide %+v", a, b)
	}
	for name, tt := range map[string]struct {
		change        func(*Job)
		length, swept measure.Length
		parts         bool
	}{
		"right through":     {func(*Job) {}, 900, 25, true},
		"too low":           {func(j *Job) { j.Height = 20 }, 900, 25, false},
		"a groove":          {func(j *Job) { j.Form, j.Depth, j.Height = Groove, 9, 9 }, 900, 9, true},
		"a groove too high": {func(j *Job) { j.Form, j.Depth, j.Height = Groove, 9, 12 }, 900, 9, false},
		"from both faces":   {func(j *Job) { j.BothFaces, j.Thickness, j.Height = true, 100, 52 }, 1800, 50, true},
		"not far enough":    {func(j *Job) { j.BothFaces, j.Thickness, j.Height = true, 100, 40 }, 1800, 50, false},
		"tilted":            {func(j *Job) { j.BevelDeg = 60 }, 900, 50, true},
		"across":            {func(j *Job) { j.Direction = Crosscut }, 120, 25, true},
		"mitred":            {func(j *Job) { j.Direction, j.MiterDeg = Crosscut, 60 }, 240, 25, true},
	} {
		j := Job{Direction: Rip, Thickness: 25, Width: 120, Length: 900, Height: 39}
		tt.change(&j)
		if l, s := j.CutLength(), j.Swept(); math.Abs((l-tt.length).Mm()) > 1e-9 || math.Abs((s-tt.swept).Mm()) > 1e-9 || j.Parts() != tt.parts {
			t.Errorf("%s: %v long, %v deep, parts %v", name, l, s, j.Parts())
		}
	}
}

// A job that is kept as JSON is kept in words, and comes back the same.
func TestWordsAreKept(t *testing.T) {
	type kept struct {
		Direction Direction
		Motion    *Motion
		Finish    Finish
		Exit      *Support
		Form      Form
		Bed       Bed
	}
	motion, exit := Push, ZeroClearance
	for _, k := range []kept{{}, {Direction: Sheet, Motion: &motion, Finish: Show, Exit: &exit, Form: Rabbet, Bed: Sacrifice}} {
		raw, err := json.Marshal(k)
		if err != nil {
			t.Fatal(err)
		}
		var back kept
		if err := json.Unmarshal(raw, &back); err != nil || !reflect.DeepEqual(back, k) {
			t.Errorf("%s comes back as %+v, %v", raw, back, err)
		}
		if !strings.Contains(string(raw), `"Form":"`+k.Form.String()+`"`) {
			t.Errorf("kept as %s", raw)
		}
	}
	for _, bad := range []string{`{"Direction":"up"}`, `{"Motion":"throw"}`, `{"Finish":"nice"}`, `{"Exit":"glue"}`, `{"Form":"hole"}`, `{"Bed":"sand"}`} {
		if err := json.Unmarshal([]byte(bad), &kept{}); err == nil {
			t.Errorf("%s is read", bad)
		}
	}
}
