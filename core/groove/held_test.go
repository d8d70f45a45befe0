package groove

import (
	"math"
	"testing"

	"corte/core/measure"
)

// What a set's log says is added up row by row: tests teach the parts they were
// made with, metres and renewals forget, and what is not the set's says nothing.
func TestWhatIsHeldOfASet(t *testing.T) {
	s := Set{Left: 3.2, Right: 3.2, Parts: []Part{{Thickness: 3.2, Count: 2}, {Thickness: 0.1, Count: 4, Shim: true}}}
	test := func(shims int, widths ...measure.Length) Event {
		return Event{What: Tested, Left: 3.2, Right: 3.2, Parts: []Part{{Thickness: 3.2, Count: 1}, {Thickness: 0.1, Shim: true, Count: shims}}, Widths: widths}
	}
	h := s.Then(s.New(), test(1, 9.75, 9.77)) // 9.7 by the stamps
	if h.Told != 1 || h.Tests[0] != 1 || h.Tests[1] != 1 || h.Tests[2] != 1 {
		t.Errorf("a test tells of %v, %d in all", h.Tests, h.Told)
	}
	// Three parts of the same prior share what is not the reading's own doubt.
	const miss = 0.06 * 3 * partSD * partSD / (3*partSD*partSD + measureSD*measureSD/2)
	for i, m := range h.Estimate.Mean {
		if math.Abs(m-miss/3) > 1e-12 {
			t.Errorf("part %d is %v over its stamp, not %v", i, m, miss/3)
		}
	}
	k := s.Known(h)
	if d := k[0].Held - k[0].Stamped; math.Abs(d.Mm()-miss/3) > 1e-12 || k[0].Stamped != 6.4 || k[2].What.String() != "shim" || k[2].Tests != 1 {
		t.Errorf("known are %+v", k)
	}
	without := s.Then(h, test(0, 9.6))
	if without.Tests[2] != 1 || without.Tests[1] != 2 || without.Told != 2 {
		t.Errorf("a test without the shim tells of %v", without.Tests)
	}
	for name, tt := range map[string]struct {
		e     Event
		new   [3]bool // parts that are as on the first day
		tests [3]int
	}{
		"sharpened":      {Event{What: Sharpened}, [3]bool{true, true, false}, [3]int{0, 0, 1}},
		"outer renewed":  {Event{What: Renewed, Outer: true}, [3]bool{true, false, false}, [3]int{0, 1, 1}},
		"shims renewed":  {Event{What: Renewed, Parts: []Part{{Thickness: 0.1 + 5e-7, Shim: true}}}, [3]bool{false, false, true}, [3]int{1, 1, 0}},
		"another part":   {Event{What: Renewed, Parts: []Part{{Thickness: 0.1}}}, [3]bool{}, [3]int{1, 1, 1}},
		"another stack":  {Event{What: Tested, Left: 3.2, Right: 3.1, Widths: []measure.Length{9}}, [3]bool{}, [3]int{1, 1, 1}},
		"nothing read":   {test(1), [3]bool{}, [3]int{1, 1, 1}},
		"a dial's":       {Event{What: Tested, Left: 3.2, Right: 3.2, Parts: []Part{{Thickness: 1.6}}, Widths: []measure.Length{9}}, [3]bool{}, [3]int{1, 1, 1}},
		"a metre of cut": {Event{What: Cut, Metres: 1}, [3]bool{}, [3]int{1, 1, 1}},
	} {
		got := s.Then(h, tt.e)
		for i := range got.Tests {
			if got.Tests[i] != tt.tests[i] || (got.Estimate.Mean[i] == 0) != tt.new[i] || (got.Estimate.SD(i) == partSD) != tt.new[i] {
				t.Errorf("%s: part %d is %v ± %v by %d tests", name, i, got.Estimate.Mean[i], got.Estimate.SD(i), got.Tests[i])
			}
		}
		if got.Told != h.Told {
			t.Errorf("%s: %d tests told", name, got.Told)
		}
	}
	// A thousand metres let teeth go stale by 0.0126 mm, and no shim.
	worn := s.Then(h, Event{What: Cut, Metres: 1000})
	if d := worn.Estimate.Cov[0][0] - h.Estimate.Cov[0][0]; math.Abs(d-1.6e-4) > 1e-12 || worn.Estimate.Cov[2][2] != h.Estimate.Cov[2][2] {
		t.Errorf("after 1,000 m a tooth is %v mm² less known, a shim %v", d, worn.Estimate.Cov[2][2]-h.Estimate.Cov[2][2])
	}
	if h.Tests[0] != 1 {
		t.Error("a later row changed what was held before it")
	}
	// Nine parts of a millimetre too wide is not the parts'.
	if !s.Surprising(h, test(1, 10.6)) || s.Surprising(h, test(1, 9.76)) || s.Surprising(h, Event{What: Tested, Widths: []measure.Length{99}}) {
		t.Error("what is surprising is taken for granted, or the other way round")
	}
	dial := Set{Kind: Dialled, Ranges: []Range{{Cutters: 2, Start: 6.4, Turn: 1.25}}}
	turned := dial.Then(dial.New(), Event{What: Tested, Dial: &Dial{Cutters: 2, Turns: 2}, Widths: []measure.Length{9.0}}) // 8.9
	if turned.Told != 1 || turned.Estimate.Mean[0] <= 0 || turned.Estimate.Mean[1] <= 0 {
		t.Errorf("a dial's test: %+v", turned)
	}
	if none := dial.Then(turned, Event{What: Tested, Dial: &Dial{Cutters: 3}, Widths: []measure.Length{9}}); none.Told != 1 {
		t.Error("a range that the set has not is told of")
	}
	if all := dial.Then(turned, Event{What: Renewed, Outer: true}); all.Estimate.Mean[0] != 0 || all.Estimate.Mean[1] != 0 {
		t.Errorf("new cutters: %+v", all)
	}
}
