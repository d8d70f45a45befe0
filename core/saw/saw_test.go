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
	if got := s.ReachWith(blade.Blade{Diameter: 160}, 0); got != 56 {
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

func TestCheckNamesTheField(t *testing.T) {
	good := Saw{Kind: Miter, Sliding: true, Diameter: 305, Arbor: 25.4, RPM: 3800, MotorW: 1500, Reach: 98, Reach45: 60}
	if err := good.Check(); err != nil {
		t.Fatal(err)
	}
	for field, spoil := range map[string]func(*Saw){
		"diameter_mm":       func(s *Saw) { s.Diameter = 20 },
		"arbor_mm":          func(s *Saw) { s.Arbor = 300 },
		"rpm":               func(s *Saw) { s.RPM = math.NaN() },
		"motor_w":           func(s *Saw) { s.MotorW = 0 },
		"reach_mm":          func(s *Saw) { s.Reach = 160 },
		"reach45_mm":        func(s *Saw) { s.Reach45 = 99 },
		"sliding":           func(s *Saw) { s.Kind = Table },
		"bushings_mm":       func(s *Saw) { s.Bushings = []measure.Length{20} },
		"tilt_deg":          func(s *Saw) { s.Tilt = 80 },
		"arbor_length_mm":   func(s *Saw) { s.ArborLength = 500 },
		"washer_mm":         func(s *Saw) { s.Washer = -1 },
		"nut_mm":            func(s *Saw) { s.Nut = measure.Length(math.NaN()) },
		"brake.min_kerf_mm": func(s *Saw) { s.Brake = &Brake{MinKerf: 4, MaxKerf: 3} },
	} {
		bad := good
		spoil(&bad)
		if err, ok := bad.Check().(*Error); !ok || err.Field != field {
			t.Errorf("%s: %v", field, bad.Check())
		}
	}
}

// 8 in sets go on 10 in saws, 6 in sets on smaller ones.
func TestLargestDado(t *testing.T) {
	for saw, set := range map[measure.Length]measure.Length{305: 203.2, 254: 203.2, 250: 152.4, 216: 152.4} {
		if most := (Saw{Diameter: saw}).LargestDado(); set > most || set < most-1.01 {
			t.Errorf("a saw of %v takes %v", saw, most)
		}
	}
}

func TestSidesReadBack(t *testing.T) {
	for s := UnknownSide; s <= Right; s++ {
		text, _ := s.MarshalText()
		var back Side
		if err := back.UnmarshalText(text); err != nil || back != s {
			t.Errorf("%v: %v, %v", s, back, err)
		}
	}
	if _, err := ParseSide("front"); err == nil {
		t.Error("a nut on the front is read")
	}
}
