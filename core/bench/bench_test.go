package bench

import (
	"fmt"
	"testing"

	"corte/core/saw"
	"corte/core/truing"
	"corte/core/verdict"
)

func TestWhatPressesComesFirst(t *testing.T) {
	never, moved, aged := truing.Doubt{Cause: truing.Never}, truing.Doubt{Cause: truing.Moved}, truing.Doubt{Cause: truing.Aged, Months: 7}
	stand := func(test truing.Test, v verdict.Verdict, d truing.Doubt) Stand { return Stand{test, v, d} }
	for name, c := range map[string]struct {
		on     *Blade
		stands []Stand
		want   []string
	}{
		"all well":                    {&Blade{Name: "Quill", Sharpness: 2.49, Pitch: 1.49}, []Stand{stand(truing.HeelTest, verdict.Clear, truing.Doubt{})}, nil},
		"dull before pitchy":          {&Blade{Name: "Quill", Sharpness: 2.5, Pitch: 3}, nil, []string{"edge mount Quill is dull"}},
		"pitchy":                      {&Blade{Name: "Quill", Pitch: 1.5}, nil, []string{"pitch wash Quill has resin buildup"}},
		"unfit before all":            {&Blade{Name: "Quill", Unfit: true, Found: "a tip is loose", Sharpness: 3, Pitch: 3}, []Stand{stand(truing.HeelTest, verdict.Stop, truing.Doubt{})}, []string{"plate mount Don't use Quill: a tip is loose", "heel measure Blade to slot was off when last measured"}},
		"a hit that nobody looked at": {&Blade{Name: "Quill", Unfit: true}, nil, []string{"plate mount Quill hit something. Inspect it before you use it"}},
		"what is out before edges":    {&Blade{Name: "Quill", Sharpness: 3}, []Stand{stand(truing.TiltTest, verdict.Caution, truing.Doubt{})}, []string{"tilt measure Tilt was off when last measured", "edge mount Quill is dull"}},
		"a doubt hides an old verdict": {&Blade{Name: "Quill"}, []Stand{stand(truing.GaugeTest, verdict.Clear, never), stand(truing.TiltTest, verdict.Stop, aged), stand(truing.HeelTest, verdict.Stop, moved)},
			[]string{"heel measure Blade to slot: the saw was moved since the last measurement", "tilt measure Tilt: measured 7 months ago", "gauge measure Gauge: never measured"}},
		"nothing on it": {nil, []Stand{stand(truing.RunOutTest, verdict.Clear, never)}, []string{"arbor mount No blade installed", "runout measure Run-out: never measured"}},
	} {
		var got []string
		for _, d := range DueOn(c.on, c.stands) {
			got = append(got, fmt.Sprintf("%s %s %s", d.Place, d.Act(), d.Said()))
			if d.Presses() == (d.Doubt == never) {
				t.Errorf("%s: %s presses: %v", name, d.Said(), d.Presses())
			}
		}
		if fmt.Sprint(got) != fmt.Sprint(c.want) {
			t.Errorf("%s: %q, not %q", name, got, c.want)
		}
	}
}

// A saw is never asked for what it has not.
func TestTestsOfASaw(t *testing.T) {
	for k, want := range map[saw.Kind]string{
		saw.Table: "[heel fence runout tilt gauge clearance width depth]", saw.Miter: "[runout tilt gauge clearance]", saw.Circular: "[runout tilt clearance depth]", saw.Kind(9): "[]",
	} {
		if got := fmt.Sprint(truing.TestsOf(k)); got != want {
			t.Errorf("%v: %s", k, got)
		}
	}
	for _, test := range truing.TestsOf(saw.Table) {
		if want := test != truing.ClearanceTest && test != truing.WidthTest && test != truing.DepthTest; test.OfSaw() != want {
			t.Errorf("%s of a saw: %v", test, test.OfSaw())
		}
		if want := test == truing.TiltTest || test == truing.GaugeTest; test.InDegrees() != want {
			t.Errorf("%s in degrees: %v", test, test.InDegrees())
		}
	}
}
