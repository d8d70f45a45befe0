package truing

import (
	"slices"
	"testing"

	"corte/core/measure"
	"corte/core/verdict"
)

// Every bound of docs/model.md, section 10, from both of its sides: the figure in
// the name is the one in the document.
func TestBoundsAreTheModels(t *testing.T) {
	grade := func(spread measure.Length) Evenness { return gradeOf(spread) }
	for name, tt := range map[string]struct{ within, beyond, want, then any }{
		"clearance is excellent to 0.015": {grade(0.015), grade(0.0151), Excellent, Good},
		"clearance is good to 0.05":       {grade(0.05), grade(0.0501), Good, Poor},
		"clearance is poor to 0.12":       {grade(0.12), grade(0.1201), Poor, Reject},
		"a tooth stands out over 0.03":    {proud(t, 0.03), proud(t, 0.0301), 0, 1},
		"a score is wider by 0.05":        {score(0.05, 0), score(0.049, 0), verdict.Clear, verdict.Caution},
		"a score is wider by up to 0.15":  {score(0.15, 0), score(0.151, 0), verdict.Clear, verdict.Caution},
		"a score lies within 0.02":        {score(0.1, 0.02), score(0.1, -0.021), verdict.Clear, verdict.Caution},
		"a reading is doubted over 3":     {slips(3, 0.2), slips(3.01, 0.2), 0, 1},
		"and over 0.5 of a still dial":    {slips(0.5, 0), slips(0.51, 0), 0, 1},
		"but not under 25 times a spread": {slips(0.99, 0.04), slips(1.01, 0.04), 0, 1},
		"a hook reaches 0.8 of a radius":  {hooked(80), hooked(80.1), true, false},
		"either way":                      {hooked(-80), hooked(-80.1), true, false},
	} {
		if tt.within != tt.want || tt.beyond != tt.then {
			t.Errorf("%s: %v and beyond it %v, want %v and %v", name, tt.within, tt.beyond, tt.want, tt.then)
		}
	}
	if want := (Tolerances{HeelAim: 0.05, HeelAct: 0.1, FenceOpen: 0.1, RunOutAim: 0.08, RunOutAct: 0.15, TiltDeg: 0.1, GaugeDeg: 0.05}); Usual != want {
		t.Errorf("usual tolerances %+v", Usual)
	}
	if low, _ := Usual.Band(FenceTest); low != -0.02 {
		t.Errorf("a fence that closes by %v cannot be told from parallel, want 0.02", -low)
	}
}

// proud counts the teeth that are named where one of twelve stands out.
func proud(t *testing.T, by measure.Length) int {
	t.Helper()
	teeth := make([]measure.Length, 12)
	teeth[4] = by
	c, err := ClearanceOf(teeth, nil)
	if err != nil {
		t.Fatal(err)
	}
	return len(c.Proud)
}

func score(wider, aside measure.Length) verdict.Verdict {
	return Scored{Wider: wider, Move: aside}.Judge().Verdict
}

// slips counts what is doubted of a reading that is off, among twelve that sway by
// a scaled median deviation of the given size.
func slips(off, spread measure.Length) int {
	d := spread / 1.4826
	readings := slices.Concat(slices.Repeat([]measure.Length{-d, d}, 5), []measure.Length{0, 0, off})
	return len(Doubtful(readings))
}

func hooked(offset measure.Length) bool {
	_, err := Hook(offset, 100)
	return err == nil
}
