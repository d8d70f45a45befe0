package wire

import (
	"testing"

	"corte/core/saw"
	"corte/core/sound"
	"corte/internal/record"
)

// An idle speed that cannot be the saw's is not listened by.
func TestEar(t *testing.T) {
	for heard, want := range map[float64]float64{0: 0, 4319: 4319, 4321: 0, 3681: 3681, 3679: 0, 5000: 0} {
		w := record.Saw{Saw: saw.Saw{RPM: 4000}, HeardRPM: heard}
		if got := Ear(w, record.Blade{}).Idle; got != want {
			t.Errorf("of 4,000 said and %g heard, %g is listened by, want %g", heard, got, want)
		}
	}
}

// What is filled in can be logged, also where the saw idles slower by now than it turned
// in an older cut; seconds and speeds are the means of all that was cut.
func TestFilledIn(t *testing.T) {
	h := sound.Heard{IdleRPM: 4000, Cuts: []sound.Cut{{Start: 1, End: 4, LeastRPM: 4010, MeanRPM: 4020}, {Start: 6, End: 7, LeastRPM: 3995, MeanRPM: 3998}}}
	got := Voice{}.Hear(h, sound.Saw{}, 9, 0).Fill
	if f := got.Heard; got.Pieces != 2 || got.Seconds != 2 || got.Effort != "easy" || f.IdleRpm != 4000 || f.MeanRpm != 4000 || f.LeastRpm != 3995 {
		t.Errorf("%+v", got)
	}
	h.Cuts = []sound.Cut{{Start: 1, End: 4, LeastRPM: 3600, MeanRPM: 3700}, {Start: 6, End: 7, LeastRPM: 3500, MeanRPM: 3900}}
	got = Voice{}.Hear(h, sound.Saw{}, 9, 0).Fill
	if f := got.Heard; got.Effort != "hard" || f.MeanRpm != 3750 || f.LeastRpm != 3500 {
		t.Errorf("%+v", got)
	}
}
