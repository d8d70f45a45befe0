package saw

import (
	"math"
	"testing"

	"corte/core/blade"
	"corte/core/measure"
)

func TestReachFollowsTiltAndDiameter(t *testing.T) {
	s := Saw{Diameter: 184, Reach: 68, Reach45: 47}
	// A worked case of the truing model: 68 mm square, 47 mm at 45 degrees.
	if got := s.ReachAt(29).Mm(); math.Abs(got-59.0104) > 1e-3 {
		t.Errorf("reach at 29 degrees = %v", got)
	}
	if got := s.ReachAt(45); got != 47 {
		t.Errorf("reach at 45 degrees = %v", got)
	}
	if got := s.ReachWith(blade.Blade{Diameter: 160}); got != 56 {
		t.Errorf("reach with a smaller blade = %v", got)
	}
}

func TestPowerLimitIsTheWeakerLink(t *testing.T) {
	if got := (Saw{MotorW: 1300, Volts: 120, BreakerA: 15}).PowerLimitW(); got != 1300 {
		t.Errorf("the motor limits: %v", got)
	}
	if got := (Saw{MotorW: 2200, Volts: 120, BreakerA: 15}).PowerLimitW(); got != 1350 {
		t.Errorf("the circuit limits: %v", got)
	}
}

func TestBore(t *testing.T) {
	s := Saw{Arbor: 15.875, Bushings: []measure.Length{25.4}}
	for bore, want := range map[measure.Length][2]bool{15.875: {true, false}, 15.9: {true, false}, 25.4: {true, true}, 30: {}, 15.8: {}} {
		if fits, bushed := s.TakesBore(bore); fits != want[0] || bushed != want[1] {
			t.Errorf("bore %v: fits %v, bushed %v", bore, fits, bushed)
		}
	}
}
