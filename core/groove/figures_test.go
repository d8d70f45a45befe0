package groove

import (
	"math"
	"testing"

	"corte/core/blade"
	"corte/core/measure"
	"corte/core/saw"
	"corte/core/verdict"
)

// Figures of a set at their bounds, one by one.
func TestFiguresOfASet(t *testing.T) {
	for name, tt := range map[string]struct{ got, want any }{
		"an arbor of which only the nut is known": {OnArbor(saw.Saw{Nut: 12}, 18).Verdict, verdict.Caution},
		"an arbor whose nut nobody measured":      {OnArbor(saw.Saw{ArborLength: 44}, 18).Verdict, verdict.Caution},
		"a nut that just takes its thread":        {OnArbor(saw.Saw{ArborLength: 30, Nut: 12}, 18).Verdict, verdict.Clear},
		"ridged, though its rakers are low":       {FlatEnoughFor(blade.Blade{Grind: blade.ATBR, Kerf: 3.2, Bevel: 15, Raker: 0.3}).String(), "ridged, for kerfs and loose grooves, not for a joint that carries load or is visible"},
		"nearly flat without rakers":              {FlatEnoughFor(blade.Blade{Grind: blade.ATB, Kerf: 3.2, Bevel: 5}).String(), "nearly flat, for joints whose end isn't visible"},
		"nearly flat with rakers":                 {FlatEnoughFor(blade.Blade{Grind: blade.ATBR, Kerf: 3.2, Bevel: 15, Raker: 0.1}).String(), "nearly flat, with small ears in the corners, for joints whose end isn't visible"},
		"two shims of three parts":                {trapdoor.Made(trapdoor.Believed(), 8.5, []int{0, 0, 1, 1, 1, 0, 0}).Shims, 2},
		"three parts":                             {trapdoor.Made(trapdoor.Believed(), 8.5, []int{0, 0, 1, 1, 1, 0, 0}).Parts, 3},
		"a left blade's least and most":           {Set{Left: 1}.Check().Error(), "an outer blade cuts between 1.5 mm and 8 mm"},
		"a right blade's least and most":          {Set{Left: 3, Right: 9}.Check().Error(), "an outer blade cuts between 1.5 mm and 8 mm"},
		"no room at all, in a box joint":          {refused(BoxOf(120, 10, -0.01)), true},
		"half a millimetre of it":                 {refused(BoxOf(120, 10, 0.5)), false},
		"more":                                    {refused(BoxOf(120, 10, 0.51)), true},
	} {
		if tt.got != tt.want {
			t.Errorf("%s: %v, not %v", name, tt.got, tt.want)
		}
	}
	for cutters, ok := range map[int]bool{1: false, 2: true, 3: true, 4: false} {
		d := Set{Kind: Dialled, Ranges: []Range{{Cutters: cutters, Least: 6, Most: 12, Start: 6, Turn: 1.2}}}
		if err := d.Check(); (err == nil) != ok {
			t.Errorf("a range with %d cutters: %v", cutters, err)
		}
	}
	twice := Set{Kind: Dialled, Ranges: []Range{{2, 6, 12, 6, 1.2}, {2, 12, 20, 12, 1.2}}}
	if twice.Check() == nil {
		t.Error("two ranges with two cutters")
	}
}

func refused(_ Box, err error) bool { return err != nil }

// What was kept is taken up again only where every part of it is as long as the
// set has parts.
func TestHoldRefusesAnotherSet(t *testing.T) {
	s := Set{Left: 3, Right: 3, Parts: []Part{{3.2, 2, false}}}
	square := [][]float64{{1, 0}, {0, 1}}
	for name, tt := range map[string]struct {
		mean  []float64
		cov   [][]float64
		tests []int
		ok    bool
	}{
		"as it was":   {[]float64{0.1, 0.2}, square, []int{1, 2}, true},
		"a mean less": {[]float64{0.1}, square, []int{1, 2}, false},
		"a row less":  {[]float64{0.1, 0.2}, square[:1], []int{1, 2}, false},
		"a short row": {[]float64{0.1, 0.2}, [][]float64{{1, 0}, {0}}, []int{1, 2}, false},
		"a test more": {[]float64{0.1, 0.2}, square, []int{1, 2, 3}, false},
	} {
		if h, ok := s.Hold(tt.mean, tt.cov, tt.tests, 3); ok != tt.ok || ok && (h.Told != 3 || h.Tests[1] != 2 || h.Estimate.Mean[1] != 0.2) {
			t.Errorf("%s: %v, %+v", name, ok, h)
		}
	}
}

// Sixteen readings do not make a miss less of a surprise than one.
func TestManyReadingsAreSurer(t *testing.T) {
	e := NewEstimate(1e-6)
	for _, readings := range []int{1, 16} {
		if e.Surprising([]float64{1}, 6, 6.079, readings) || !e.Surprising([]float64{1}, 6, 6.081, readings) {
			t.Errorf("a hair under 0.08 and one more, with %d readings to %v each", readings, measureSD)
		}
	}
}

// Two chippers that are clocked a gullet apart, and one that stands in a tooth.
func TestNearest(t *testing.T) {
	for _, tt := range []struct {
		turned      []float64
		wing, tooth float64
	}{
		{[]float64{7.5}, 360, 7.5},
		{[]float64{7.5, 22.5}, 15, 7.5},
		{[]float64{7.5, 7.5}, 0, 7.5},
		{[]float64{7.5, 172.5}, 15, 7.5}, // 165 on, where wings come round every 180
		{[]float64{14}, 360, 1},
		{[]float64{1}, 360, 1},
	} {
		if wing, tooth := Nearest(tt.turned, 2, 24); math.Abs(wing-tt.wing) > 1e-9 || math.Abs(tooth-tt.tooth) > 1e-9 {
			t.Errorf("%v: %v to a wing, %v to a tooth", tt.turned, wing, tooth)
		}
	}
}

// The bottom that a stack leaves is alike from both walls: down at them, as
// deep as its ears between.
func TestTheBottomOfAStack(t *testing.T) {
	w := Way{Width: 18}
	w.set(Request{Depth: 6, Saw: saw.Saw{ArborLength: 44, Nut: 12}}, Tool{Blade: blade.Blade{Diameter: 203}, Set: &Set{Left: 3.2, Right: 3.2, Ears: 0.1}})
	last := len(w.Bottom) - 1
	for i, at := range w.Bottom {
		mirror := w.Bottom[last-i]
		if math.Abs((at[0]+mirror[0]).Mm()) > 1e-9 || math.Abs((at[1]-mirror[1]).Mm()) > 1e-9 {
			t.Fatalf("%v on one side, %v on the other", at, mirror)
		}
	}
	if w.Bottom[0] != [2]measure.Length{-9, 0} || w.Bottom[last/2] != [2]measure.Length{0, 0.1} || w.Ridge != 0.1 {
		t.Errorf("from %v by %v, %v stand", w.Bottom[0], w.Bottom[last/2], w.Ridge)
	}
}
