package groove

import (
	"slices"

	"corte/core/measure"
	"corte/core/say"
)

// Held is what a set's log adds up to: how thick its parts are held to be, and
// by how many test grooves.
type Held struct {
	Estimate Estimate
	Tests    []int // that each part was in since it was new or sharpened
	Told     int   // test grooves in all that said something
}

// New is what is held of a set before its log begins.
func (s Set) New() Held {
	b := s.Believed()
	return Held{b, make([]int, len(b.Mean)), 0}
}

// Hold is Held as it was kept: means in mm and covariances in mm² of the parts
// of this set. It is false where the set has other parts.
func (s Set) Hold(mean []float64, cov [][]float64, tests []int, told int) (Held, bool) {
	h := s.New()
	n := len(h.Estimate.Mean)
	if len(mean) != n || len(cov) != n || len(tests) != n || slices.ContainsFunc(cov, func(row []float64) bool { return len(row) != n }) {
		return h, false
	}
	h.Estimate.Mean, h.Estimate.Cov, h.Tests, h.Told = mean, cov, tests, told
	return h, true
}

// What happened to a set.
type What uint8

const (
	Cut       What = iota // wood was cut with it
	Sharpened             // all that cuts
	Renewed               // some parts are no longer what they were
	Tested                // a groove was measured
)

// An Event is a row of a set's log.
type Event struct {
	What   What
	Metres float64 // that were cut

	Outer bool   // of what was renewed: the outer pair, or all cutters of a dial set
	Parts []Part // that were renewed, or that made the groove, with their counts

	// Of a test groove.
	Left, Right measure.Length   // tip widths of the outer pair, as stamped
	Dial        *Dial            // of a dial set
	Widths      []measure.Length // as they were read
}

// Then is what is held after one more row. A test with parts that the set no
// longer has says nothing.
func (s Set) Then(h Held, e Event) Held {
	out := Held{h.Estimate, slices.Clone(h.Tests), h.Told}
	renew := func(part int) { out.Estimate, out.Tests[part] = out.Estimate.Renewed(part), 0 }
	switch e.What {
	case Cut:
		out.Estimate = out.Estimate.Worn(e.Metres, s.Toothed)
	case Sharpened:
		for i := range out.Tests {
			if s.Toothed(i) {
				renew(i)
			}
		}
	case Renewed:
		if e.Outer {
			for i := range s.outer() {
				renew(i)
			}
		}
		for _, p := range e.Parts {
			if i := s.index(p); i >= 0 {
				renew(1 + i)
			}
		}
	case Tested:
		use, nominal, ok := s.UseOf(e)
		if !ok || len(e.Widths) == 0 {
			break
		}
		out.Told++
		out.Estimate = out.Estimate.Measured(use, nominal, Mean(e.Widths), len(e.Widths))
		for i, n := range use {
			if n != 0 {
				out.Tests[i]++
			}
		}
	}
	return out
}

// outer is how many parts of the belief the outer pair is: all of a dial set,
// whose cutters are in every range.
func (s Set) outer() int {
	if s.Kind == Dialled {
		return 2 * len(s.Ranges)
	}
	return 1
}

// same is how far two stamps may differ and be of one part.
const same = measure.Length(1e-6)

// index is the place of a part among the set's; -1 where it has none like it.
func (s Set) index(p Part) int {
	return slices.IndexFunc(s.Parts, func(q Part) bool {
		return q.Shim == p.Shim && q.Thickness-p.Thickness > -same && q.Thickness-p.Thickness < same
	})
}

// Counts are the counts of a stack in the order of the set's parts; false where
// the set no longer has one of them.
func (s Set) Counts(parts []Part) ([]int, bool) {
	counts := make([]int, len(s.Parts))
	for _, p := range parts {
		i := s.index(p)
		if i < 0 {
			return nil, false
		}
		counts[i] = p.Count
	}
	return counts, true
}

// UseOf is what a test says of the parts of the set as it is now, and the width
// that they should have made.
func (s Set) UseOf(e Event) (use []float64, nominal measure.Length, ok bool) {
	if s.Kind == Dialled {
		if e.Dial == nil {
			return nil, 0, false
		}
		at := slices.IndexFunc(s.Ranges, func(r Range) bool { return r.Cutters == e.Dial.Cutters })
		if at < 0 {
			return nil, 0, false
		}
		r := s.Ranges[at]
		return s.Turned(at, e.Dial.Turns), r.Start + r.Turn*measure.Length(e.Dial.Turns), true
	}
	counts, ok := s.Counts(e.Parts)
	if !ok || e.Left != s.Left || e.Right != s.Right {
		return nil, 0, false
	}
	return s.Use(counts), s.Nominal(counts), true
}

// Surprising reports whether the parts of a set hardly account for a test.
func (s Set) Surprising(h Held, e Event) bool {
	use, nominal, ok := s.UseOf(e)
	return ok && h.Estimate.Surprising(use, nominal, Mean(e.Widths), len(e.Widths))
}

// A KnownPart is one part as it is held to be.
type KnownPart struct {
	What          say.Line
	Stamped, Held measure.Length
	SD            measure.Length
	Tests         int // that it was in since it was new or sharpened
}

// Known tells of every part.
func (s Set) Known(h Held) (out []KnownPart) {
	add := func(i int, what say.Line, stamped measure.Length) {
		out = append(out, KnownPart{what, stamped, stamped + measure.Length(h.Estimate.Mean[i]), h.Estimate.SD(i), h.Tests[i]})
	}
	if s.Kind == Dialled {
		for i, r := range s.Ranges {
			add(2*i, say.Of("%d cutters, dial at 0", r.Cutters), r.Start)
			add(2*i+1, say.Of("%d cutters, one turn", r.Cutters), r.Turn)
		}
		return out
	}
	add(0, say.Of("outer pair"), s.Outer())
	_, real := s.True(h.Estimate)
	for i, p := range s.Parts {
		add(i+1, p.what(), p.Thickness)
		out[i+1].Held = real[i].Thickness
	}
	return out
}

// Mean of readings; 0 of none.
func Mean(readings []measure.Length) measure.Length {
	sum := measure.Length(0)
	for _, l := range readings {
		sum += l
	}
	return sum / measure.Length(max(1, len(readings)))
}
