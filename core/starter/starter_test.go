package starter

import (
	"fmt"
	"testing"

	"corte/core/choose"
	"corte/core/measure"
	"corte/core/saw"
)

// What a new shop is offered is whole, goes onto the saw that it is offered
// for, and has the counts that the craft names.
func TestUsualBladesGoOntoTheirSaw(t *testing.T) {
	counts := map[saw.Kind]string{saw.Table: "[24 40 50 60 80 80]", saw.Miter: "[48 80 96]", saw.Circular: "[24 40 48]"}
	for k, want := range counts {
		s := Saw(k)
		if err := s.Check(); err != nil {
			t.Errorf("%v: %v", k, err)
		}
		var teeth []int
		names := map[string]bool{}
		for _, b := range Blades(s) {
			if err := b.Blade.Check(); err != nil {
				t.Errorf("%v, %s: %v", k, b.Name, err)
			}
			if stops := choose.MountStops(b.Blade, s, measure.Millimetre); len(stops) > 0 {
				t.Errorf("%v, %s may not go on: %+v", k, b.Name, stops)
			}
			if names[b.Name] {
				t.Errorf("%v: two are called %s", k, b.Name)
			}
			names[b.Name] = true
			teeth = append(teeth, b.Blade.Teeth)
		}
		if got := fmt.Sprint(teeth); got != want {
			t.Errorf("%v: %s teeth, not %s", k, got, want)
		}
	}
}

func TestNumbersFollowTheDiameterAndThePower(t *testing.T) {
	for _, c := range []struct {
		d, arbor, reach measure.Length
	}{{254, 15.875, 78}, {299, 15.875, 92}, {300, 25.4, 93}} {
		if s := OfDiameter(saw.Saw{Kind: saw.Table, Diameter: c.d}); s.Arbor != c.arbor || s.Reach != c.reach {
			t.Errorf("%v: arbor %v, reach %v", c.d, s.Arbor, s.Reach)
		}
	}
	weak, strong := Saw(saw.Table), Saw(saw.Table)
	weak.MotorW, strong.MotorW = 1249, 1250
	if w, s := Blades(weak)[0].Blade.Kerf, Blades(strong)[0].Blade.Kerf; w != 2.4 || s != 3.2 {
		t.Errorf("kerf %v for a weak saw, %v for a strong one", w, s)
	}
	small := Saw(saw.Table)
	small.Diameter = 210
	if got := Blades(small)[2].Blade.Teeth; got != 40 { // 50 in groups of five, at the same spacing
		t.Errorf("a combination blade of 210 mm has %d teeth", got)
	}
}
