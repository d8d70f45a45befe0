package starter

import (
	"fmt"
	"testing"

	"corte/core/blade"
	"corte/core/choose"
	"corte/core/measure"
	"corte/core/saw"
)

// What a new shop is offered is whole, goes onto the saw that it is offered
// for, and has the counts, hooks and bevels that the craft names.
func TestUsualBladesGoOntoTheirSaw(t *testing.T) {
	for k, want := range map[saw.Kind]string{
		saw.Table:    "254 mm, 4000 rpm, 1300 W, 78 mm: Rip 24 FTG 20/0, General 40 ATB 15/15, Combination 50 ATBR 12/12, Crosscut 60 ATB 10/20, Veneer 80 HIATB 5/35, Laminate 80 TCG -3/0, 3.2 mm",
		saw.Miter:    "305 mm, 3800 rpm, 1500 W, 97 mm: Chop 48 ATB 5/15, Ends 80 ATB -2/20, Trim 96 TCG -5/0, 3.2 mm",
		saw.Circular: "184 mm, 5200 rpm, 1200 W, 62 mm: Framing 24 ATB 18/15, Finish 40 ATB 12/15, Board 48 TCG -2/0, 1.8 mm",
	} {
		s := Saw(k)
		if err := s.Check(); err != nil {
			t.Errorf("%v: %v", k, err)
		}
		got := fmt.Sprintf("%v, %v rpm, %v W, %v:", s.Diameter, s.RPM, s.MotorW, s.Reach)
		var kerf measure.Length
		for _, b := range Blades(s) {
			if err := b.Blade.Check(); err != nil {
				t.Errorf("%v, %s: %v", k, b.Name, err)
			}
			if grouped := b.Blade.Group == 5; grouped != (b.Blade.Grind == blade.ATBR) || !grouped && b.Blade.Group != 0 {
				t.Errorf("%v, %s is in groups of %d", k, b.Name, b.Blade.Group)
			}
			if stops := choose.MountStops(b.Blade, s); len(stops) > 0 {
				t.Errorf("%v, %s may not go on: %+v", k, b.Name, stops)
			}
			got += fmt.Sprintf(" %s %v %v/%v,", b.Name, b.Blade.Grind, b.Blade.Hook, b.Blade.Bevel)
			kerf = b.Blade.Kerf
		}
		if got += fmt.Sprintf(" %v", kerf); got != want {
			t.Errorf("%v:\n%s, not\n%s", k, got, want)
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
