package truing

import (
	"math"
	"slices"

	"corte/core/fault"
	"corte/core/measure"
	"corte/core/word"
)

// An Evenness judges how even the tips of a blade stand out from its plate.
type Evenness uint8

const (
	Excellent Evenness = iota
	Good
	Poor
	Reject
)

//corte:enum Evenness
var gradeNames = word.Names{Kind: "grade", Of: []string{"excellent", "good", "poor", "reject"}}

// goodUpTo is the greatest spread that is still good.
const goodUpTo = measure.Length(0.05)

// gradeOf judges a spread (craft section 10).
func gradeOf(spread measure.Length) Evenness {
	switch {
	case spread <= 0.015:
		return Excellent
	case spread <= goodUpTo:
		return Good
	case spread <= 0.12:
		return Poor
	}
	return Reject
}

// A Clearance is what the side clearance of every tooth of one side adds up to.
type Clearance struct {
	Range  measure.Length
	Mean   measure.Length
	SD     measure.Length // of a sample
	Median measure.Length
	MAD    measure.Length // scaled to a standard deviation
	Proud  []int          // teeth that stand out, from 0
	Grade  Evenness
	Slots  *Beside // where teeth beside body slots were named
}

// Beside compares teeth beside body slots, which softer plate carries, with
// the rest.
type Beside struct {
	Beside, Rest measure.Length // means
}

// standsOut is the least distance from the median at which a tooth scores the
// wall.
const standsOut = measure.Length(0.03)

// ClearanceOf works out one side of a blade from the reading at each tooth.
// slots holds the teeth, from 0, that stand beside a body slot.
func ClearanceOf(readings []measure.Length, slots []int) (Clearance, error) {
	n := len(readings)
	if n < 3 {
		return Clearance{}, fault.At("first reading", "read every tooth on one side. There are %d readings", n)
	}
	var sum measure.Length
	for _, r := range readings {
		sum += r
	}
	c := Clearance{Range: slices.Max(readings) - slices.Min(readings), Mean: sum / measure.Length(n), Median: median(readings), Proud: []int{}}
	var square float64
	for _, r := range readings {
		d := (r - c.Mean).Mm()
		square += d * d
	}
	c.SD = measure.Length(math.Sqrt(square / float64(n-1)))
	c.MAD = mad(readings, c.Median)
	bound := max(standsOut, 3*c.MAD)
	for i, r := range readings {
		if d := r - c.Median; d > bound || -d > bound {
			c.Proud = append(c.Proud, i)
		}
	}
	c.Grade = gradeOf(c.Range)
	if len(slots) > 0 {
		var b Beside
		k := 0
		for i, r := range readings {
			if slices.Contains(slots, i) {
				b.Beside += r
				k++
			} else {
				b.Rest += r
			}
		}
		if k > 0 && k < n {
			b.Beside, b.Rest = b.Beside/measure.Length(k), b.Rest/measure.Length(n-k)
			c.Slots = &b
		}
	}
	return c, nil
}

// UsualFeed is the feed at which marks on a wall are told where no cut is at
// hand: that of an ordinary rip.
const UsualFeed = measure.Feed(3.5)

// MarksApart is the distance between the marks that one tooth, or one sway of
// the plate, leaves on the wall: one a turn.
func MarksApart(feed measure.Feed, rpm float64) measure.Length {
	return measure.Length(float64(feed) * 1000 / rpm)
}

func median(r []measure.Length) measure.Length {
	s := slices.Clone(r)
	slices.Sort(s)
	n := len(s)
	if n%2 == 1 {
		return s[n/2]
	}
	return (s[n/2-1] + s[n/2]) / 2
}

// mad is the median distance from the median, scaled so that it is the
// standard deviation of readings that scatter evenly.
func mad(r []measure.Length, mid measure.Length) measure.Length {
	d := make([]measure.Length, len(r))
	for i, v := range r {
		d[i] = measure.Length(math.Abs((v - mid).Mm()))
	}
	return 1.4826 * median(d)
}
