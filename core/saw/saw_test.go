package saw

import (
	"math"
	"testing"

	"corte/core/blade"
	"corte/core/fault"
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
		"diameter":     func(s *Saw) { s.Diameter = 20 },
		"arbor":        func(s *Saw) { s.Arbor = 300 },
		"speed":        func(s *Saw) { s.RPM = math.NaN() },
		"motor":        func(s *Saw) { s.MotorW = 0 },
		"reach":        func(s *Saw) { s.Reach = 160 },
		"reach at 45°": func(s *Saw) { s.Reach45 = 99 },
		"sliding":      func(s *Saw) { s.Kind = Table },
		"bushings":     func(s *Saw) { s.Bushings = []measure.Length{20} },
		"tilt":         func(s *Saw) { s.Tilt = 80 },
		"arbor length": func(s *Saw) { s.ArborLength = 500 },
		"washer":       func(s *Saw) { s.Washer = -1 },
		"nut":          func(s *Saw) { s.Nut = measure.Length(math.NaN()) },
		"brake, kerf":  func(s *Saw) { s.Brake = &Brake{MinKerf: 4, MaxKerf: 3} },
	} {
		bad := good
		spoil(&bad)
		if err, ok := bad.Check().(*fault.Error); !ok || err.Where != field {
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

// Each number is taken up to its bounds and refused a hair past them.
func TestBounds(t *testing.T) {
	good := Saw{Kind: Table, Diameter: 254, Arbor: 15.875, RPM: 4000, MotorW: 1300, Reach: 79}
	at := func(s Saw) string {
		if e, ok := s.Check().(*fault.Error); ok {
			return e.Where
		}
		return ""
	}
	mm := func(set func(*Saw) *measure.Length) func(*Saw, float64) {
		return func(s *Saw, v float64) { *set(s) = measure.Length(v) }
	}
	for _, tt := range []struct {
		where       string
		least, most float64
		set         func(*Saw, float64)
	}{
		{"diameter", 80, 600, func(s *Saw, v float64) { s.Diameter, s.Reach = measure.Length(v), 20 }},
		{"least blade", 0, 254, mm(func(s *Saw) *measure.Length { return &s.Least })},
		{"arbor", 5, 80, mm(func(s *Saw) *measure.Length { return &s.Arbor })},
		{"speed", 300, 12_000, func(s *Saw, v float64) { s.RPM = v }},
		{"motor", 50, 20_000, func(s *Saw, v float64) { s.MotorW = v }},
		{"volts", 0, 700, func(s *Saw, v float64) { s.Volts = v }},
		{"circuit", 0, 125, func(s *Saw, v float64) { s.BreakerA = v }},
		{"riving knife", 0, 10, mm(func(s *Saw) *measure.Length { return &s.Knife })},
		{"reach", 1, 127, mm(func(s *Saw) *measure.Length { return &s.Reach })},
		{"reach at 45°", 0, 79, mm(func(s *Saw) *measure.Length { return &s.Reach45 })},
		{"below table", 0, 40, mm(func(s *Saw) *measure.Length { return &s.BelowTable })},
		{"chop width", 0, 254, mm(func(s *Saw) *measure.Length { return &s.ChopWidth })},
		{"crosscut", 0, 2000, mm(func(s *Saw) *measure.Length { return &s.Crosscut })},
		{"tilt", 0, 60, func(s *Saw, v float64) { s.Tilt = v }},
		{"turntable", 0, 60, func(s *Saw, v float64) { s.Turn = v }},
		{"wheel lead", 0, 50, mm(func(s *Saw) *measure.Length { return &s.WheelLead })},
		{"fence lead", 0, 50, mm(func(s *Saw) *measure.Length { return &s.FenceLead })},
		{"fence reach", 0, 3000, mm(func(s *Saw) *measure.Length { return &s.FenceReach })},
		{"way to the bolt", 0, 1000, mm(func(s *Saw) *measure.Length { return &s.ToBolt })},
		{"arbor length", 0, 120, mm(func(s *Saw) *measure.Length { return &s.ArborLength })},
		{"washer", 0, 20, mm(func(s *Saw) *measure.Length { return &s.Washer })},
		{"nut", 0, 30, mm(func(s *Saw) *measure.Length { return &s.Nut })},
		{"bushings", 15.875, 80, func(s *Saw, v float64) { s.Bushings = []measure.Length{measure.Length(v)} }},
		{"brake, kerf", 0.5, 4, func(s *Saw, v float64) { s.Brake = &Brake{measure.Length(v), 4, 250, 260} }},
		{"brake, kerf", 2, 30, func(s *Saw, v float64) { s.Brake = &Brake{2, measure.Length(v), 250, 260} }},
		{"brake, diameter", 50, 260, func(s *Saw, v float64) { s.Brake = &Brake{2, 4, measure.Length(v), 260} }},
		{"brake, diameter", 250, 600, func(s *Saw, v float64) { s.Brake = &Brake{2, 4, 250, measure.Length(v)} }},
	} {
		for v, ok := range map[float64]bool{tt.least: true, tt.most: true, tt.least - 0.01: false, tt.most + 0.01: false} {
			s := good
			tt.set(&s, v)
			if where := at(s); ok && where != "" || !ok && where != tt.where {
				t.Errorf("%s of %v: refused at %q", tt.where, v, where)
			}
		}
	}
	for what, tt := range map[string]struct {
		change func(*Saw)
		where  string
	}{
		"an arbor of half the blade":    {func(s *Saw) { s.Diameter, s.Reach, s.Arbor = 100, 20, 50 }, "arbor"},
		"an arbor of a little less":     {func(s *Saw) { s.Diameter, s.Reach, s.Arbor = 100, 20, 49.9 }, ""},
		"a fence on a miter saw":        {func(s *Saw) { s.Kind, s.FenceReach = Miter, 300 }, "kind"},
		"a hand-held saw that tilts to": {func(s *Saw) { s.Kind, s.TiltSide = Circular, Left }, "kind"},
		"a table saw that tilts to":     {func(s *Saw) { s.TiltSide = Left }, ""},
		"a table saw that slides":       {func(s *Saw) { s.Sliding = true }, "sliding"},
	} {
		s := good
		tt.change(&s)
		if where := at(s); where != tt.where {
			t.Errorf("%s: refused at %q", what, where)
		}
	}
}

// Which sets go on, how work goes past, and which bores fit, at their edges.
func TestEdgesOfASaw(t *testing.T) {
	for d, want := range map[measure.Length]float64{measure.Inches(10): 8, measure.Inches(10) - 1: 8, measure.Inches(10) - 1.01: 6, 216: 6} {
		if got := (Saw{Diameter: d}).LargestDado(); math.Abs((got-1).Inches()-want) > 1e-9 {
			t.Errorf("a saw for %v takes sets of %v", d, got)
		}
	}
	s := Saw{Arbor: 15.875, Bushings: []measure.Length{25.4}}
	for bore, want := range map[measure.Length][2]bool{15.974: {true, false}, 15.976: {}, 15.856: {true, false}, 15.854: {}, 25.49: {true, true}, 25.51: {}, 25.31: {true, true}, 25.29: {}} {
		if fits, bushed := s.TakesBore(bore); fits != want[0] || bushed != want[1] {
			t.Errorf("bore %v: fits %v, bushed %v", bore, fits, bushed)
		}
	}
	slide := Saw{Kind: Miter, Sliding: true, ChopWidth: 152}
	for width, want := range map[measure.Length]string{152: "chop", 152.01: "push"} {
		if got := slide.UsualMotion(width).String(); got != want {
			t.Errorf("%v wide goes by %s", width, got)
		}
	}
	for _, other := range []Saw{{Kind: Miter, ChopWidth: 152}, {Kind: Miter, Sliding: true}} {
		if got := other.UsualMotion(300).String(); got != "chop" {
			t.Errorf("%+v goes by %s", other, got)
		}
	}
	if len(Miter.Directions()) != 1 || len(Table.Directions()) != 3 || !Table.CarriesWork() || Miter.CarriesWork() || Circular.CarriesWork() {
		t.Error("what the kinds of saw do")
	}
}

// A smaller blade reaches less by the difference of the radii, and by its cosine
// when tilted; never less than nothing.
func TestReachWithASmallerBlade(t *testing.T) {
	s := Saw{Diameter: 254, Reach: 79, Reach45: 57}
	small := blade.Blade{Diameter: 216}
	if got := s.ReachWith(small, 0); got != 60 {
		t.Errorf("upright %v", got)
	}
	if got, want := s.ReachWith(small, 45).Mm(), 57-19*math.Sqrt2/2; math.Abs(got-want) > 1e-9 {
		t.Errorf("tilted %v, not %v", got, want)
	}
	if got := s.ReachWith(blade.Blade{Diameter: 80}, 0); got != 0 {
		t.Errorf("a tiny one reaches %v", got)
	}
}
