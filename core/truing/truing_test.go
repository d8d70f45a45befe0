package truing

import (
	"math"
	"strings"
	"testing"
	"time"

	"corte/core/fault"
	"corte/core/measure"
	"corte/core/say"
	"corte/core/verdict"
)

func sway(n int, arbor, blade Harmonic, turned bool) []measure.Length {
	out := make([]measure.Length, n)
	for i := range out {
		at := 2 * math.Pi * float64(i) / float64(n)
		sign := 1.0
		if turned {
			sign = -1
		}
		out[i] = measure.Length(arbor.Amplitude.Mm()*math.Cos(at-arbor.PhaseDeg*math.Pi/180) + sign*blade.Amplitude.Mm()*math.Cos(at-blade.PhaseDeg*math.Pi/180))
	}
	return out
}

// The half turn of the blade on the arbor tells the two apart, whatever their
// sizes and directions.
func TestRunOutIsSplit(t *testing.T) {
	for _, n := range []int{4, 8, 12, 37} {
		arbor, blade := Harmonic{0.04, 200}, Harmonic{0.11, 35}
		r, err := RunOutOf(sway(n, arbor, blade, false), sway(n, arbor, blade, true))
		near := func(a, b Harmonic) bool {
			return math.Abs((a.Amplitude-b.Amplitude).Mm()) < 1e-12 && math.Abs(a.PhaseDeg-b.PhaseDeg) < 1e-9
		}
		if err != nil || !near(r.Arbor, arbor) || !near(r.Blade, blade) {
			t.Errorf("%d steps: %+v, %v", n, r, err)
		}
	}
}

// Which way to move what, and which wall scorches until then.
func TestFindings(t *testing.T) {
	heel := func(rear measure.Length, s Side) Finding {
		h, err := HeelOf(0, rear, 200, 300, DialIndicator, s)
		if err != nil {
			t.Fatal(err)
		}
		return h.Judge(Usual)
	}
	fence := func(rear measure.Length) Finding {
		f, _ := FenceOf(100, 100+rear, 600, Distance)
		return f.Judge(Usual)
	}
	adjust := func(wanted, measured measure.Length, depth bool) Finding {
		a, err := Adjust(wanted, measured, 5)
		if err != nil {
			t.Fatal(err)
		}
		if depth {
			return a.JudgeDepth(false)
		}
		return a.JudgeWidth()
	}
	r, _ := RunOutOf(sway(8, Harmonic{0.1, 0}, Harmonic{0.01, 0}, false), sway(8, Harmonic{0.1, 0}, Harmonic{0.01, 0}, true))
	gauge, _ := FiveCut(22, 20, 300)
	for name, tt := range map[string]struct {
		f    Finding
		v    verdict.Verdict
		says string
	}{
		"true":                 {heel(0.04, Right), verdict.Clear, "parallel to the miter slot"},
		"toward the fence":     {heel(0.14, Right), verdict.Caution, "edge against the fence burns"},
		"move it away":         {heel(0.14, Right), verdict.Caution, "away from the fence: by 0.21 mm at the bolt"},
		"a dial on the left":   {heel(0.14, Left), verdict.Caution, "scuff the offcut"},
		"far toward the fence": {heel(0.3, Right), verdict.Stop, "can kick back"},
		"far away from it":     {heel(-0.3, Right), verdict.Caution, "toward the fence"},
		"parallel":             {fence(0), verdict.Clear, "parallel"},
		"closing":              {fence(-0.2), verdict.Stop, "pinches the wood"},
		"opening too far":      {fence(0.4), verdict.Caution, "Bring the rear of the fence in by 0.35 mm"},
		"the arbor":            {r.Judge(Usual), verdict.Caution, "not from the blade"},
		"tilted":               {JudgeTilt(-0.3, Usual), verdict.Caution, "opens at the bottom"},
		"the gauge":            {gauge.Judge(Usual), verdict.Caution, "out by 0.5 mm over 300 mm"},
		"too wide":             {adjust(100, 100.5, false), verdict.Caution, "toward the blade by 0.5 mm (0.10 turns"},
		"too narrow":           {adjust(100, 99, false), verdict.Caution, "The last move is toward the blade"},
		"too shallow":          {adjust(9, 8.5, true), verdict.Caution, "Raise the blade by 0.5 mm"},
		"too deep":             {adjust(9, 9.4, true), verdict.Caution, "The last move is upward"},
		"the size":             {adjust(9, 9.01, true), verdict.Clear, "That is the size"},
	} {
		if text := strings.Join(say.Voice{}.Each(append(tt.f.Says, tt.f.Do...)), " "); tt.f.Verdict != tt.v || !strings.Contains(text, tt.says) {
			t.Errorf("%s: %v %q; want %v and %q", name, tt.f.Verdict, text, tt.v, tt.says)
		}
	}
}

func TestClearanceNamesTheProudTooth(t *testing.T) {
	even := make([]measure.Length, 60)
	for i := range even {
		even[i] = 0.5 + 0.004*measure.Length(i%3)
	}
	c, err := ClearanceOf(even, nil)
	if err != nil || c.Grade != Excellent || len(c.Proud) != 0 {
		t.Fatalf("even teeth: %+v, %v", c, err)
	}
	even[22] += 0.09
	for _, i := range []int{9, 10, 29, 30} {
		even[i] -= 0.025
	}
	c, _ = ClearanceOf(even, []int{9, 10, 29, 30})
	f := c.Judge(MarksApart(3.5, 4000))
	text := strings.Join(say.Voice{}.Each(append(f.Says, f.Do...)), " ")
	if len(c.Proud) != 1 || c.Proud[0] != 22 || c.Grade != Reject && c.Grade != Poor || !strings.Contains(text, "Tooth 23 sticks out") ||
		!strings.Contains(text, "0.88 mm apart") || !strings.Contains(text, "differ from the rest by 0.02") {
		t.Errorf("%+v\n%s", c, text)
	}
}

func TestDoubtfulAndStale(t *testing.T) {
	if got := Doubtful([]measure.Length{0.01, 0.02, -0.01, 3.9, 0.03}); len(got) != 1 || got[0] != 3 {
		t.Errorf("a slip of the finger: %v", got)
	}
	if got := Doubtful([]measure.Length{0.1, -0.2, 0.3, 0.25}); got != nil {
		t.Errorf("a real wobble: %v", got)
	}
	if got := Doubtful([]measure.Length{10, -10.1}); len(got) != 1 || got[0] != 1 {
		t.Errorf("of two, the one past a dial's travel: %v", got)
	}
	now := time.Date(2026, 5, 1, 0, 0, 0, 0, time.UTC)
	for want, at := range map[string][2]time.Time{
		"never measured":    {},
		"measured 7 months": {now.AddDate(0, -7, 0)},
		"the saw was moved": {now.AddDate(0, -2, 0), now.AddDate(0, -1, 0)},
		"":                  {now.AddDate(0, -1, 0), now.AddDate(0, -2, 0)},
	} {
		if got := Stale(at[0], at[1], now).Said().String(); got != want && !(want != "" && strings.HasPrefix(got, want)) {
			t.Errorf("%v: %q, want %q", at, got, want)
		}
	}
}

func TestBadReadingsAreNamed(t *testing.T) {
	for field, err := range map[string]error{
		"span":           second(HeelOf(0, 0, 0, 0, DialIndicator, Left)),
		"first reading":  second(RunOutOf([]measure.Length{1, 2}, nil)),
		"second reading": second(RunOutOf(make([]measure.Length, 8), make([]measure.Length, 7))),
		"height":         second(Tilt(1, measure.Length(math.NaN()))),
		"length":         second(FiveCut(1, 1, -3)),
		"offset":         second(Hook(120, 127)),
		"measured size":  second(Adjust(5, 0, 0)),
	} {
		if e, ok := err.(*fault.Error); !ok || e.Where != field {
			t.Errorf("%s: %v", field, err)
		}
	}
}

func second[T any](_ T, err error) error { return err }

// A blade that comes from above is never told to be raised to cut deeper.
func TestDepthFromAbove(t *testing.T) {
	for _, measured := range []measure.Length{5, 7} {
		a, err := Adjust(6, measured, 0)
		if err != nil {
			t.Fatal(err)
		}
		said := strings.Join(say.Voice{}.Each(a.JudgeDepth(true).Do), " ")
		if strings.Contains(said, "aise") || !strings.Contains(said, "deeper") {
			t.Errorf("%v measured: %s", measured, said)
		}
	}
}

// What is drawn as good over time is what a finding is clear within; heel and
// run-out have an aim inside it.
func TestBandIsThatOfTheFindings(t *testing.T) {
	own := Tolerances{HeelAim: 0.02, HeelAct: 0.2, FenceOpen: 0.05, RunOutAim: 0.02, RunOutAct: 0.3, TiltDeg: 0.4, GaugeDeg: 0.3}
	judge := map[Test]func(Tolerances, float64) verdict.Verdict{
		"fence": func(held Tolerances, v float64) verdict.Verdict {
			return Fence{Open: measure.Length(v)}.Judge(held).Verdict
		},
		"tilt":  func(held Tolerances, v float64) verdict.Verdict { return JudgeTilt(v, held).Verdict },
		"gauge": func(held Tolerances, v float64) verdict.Verdict { return Gauge{AngleDeg: v}.Judge(held).Verdict },
	}
	for test, verdictOf := range judge {
		for _, held := range []Tolerances{Usual, own} {
			low, high := held.Band(test)
			if verdictOf(held, low) != verdict.Clear || verdictOf(held, high) != verdict.Clear {
				t.Errorf("%s: what lies in %v to %v is not clear", test, low, high)
			}
			if verdictOf(held, low*1.01) == verdict.Clear || verdictOf(held, high*1.01) == verdict.Clear {
				t.Errorf("%s: what lies outside of %v to %v is clear", test, low, high)
			}
		}
	}
	if low, high := own.Band("heel"); low != -0.2 || high != 0.2 {
		t.Errorf("heel: %v to %v", low, high)
	}
}
