package groove

import (
	"math"

	"corte/core/measure"
)

const (
	partSD    = 0.03 // mm, of a part's true thickness about its nominal one
	turnSD    = 0.02 // mm, of what one turn of a dial adds
	measureSD = 0.02 // mm, of one reading of a groove's width
)

// An Estimate is what is held of the true thickness of every part of a set: errors
// over the nominal ones, jointly normal. The outer pair is part 0.
type Estimate struct {
	Mean  []float64   // mm
	Cov   [][]float64 // mm²
	prior []float64   // standard deviations before any groove, mm
}

// NewEstimate is the belief before any groove is measured, of as many parts as
// there are standard deviations.
func NewEstimate(sd ...float64) Estimate {
	n := len(sd)
	b := Estimate{make([]float64, n), make([][]float64, n), sd}
	for i := range b.Cov {
		b.Cov[i] = make([]float64, n)
		b.Cov[i][i] = sd[i] * sd[i]
	}
	return b
}

// Measured takes in a test groove: how many of each part were in the stack (or
// turns, of a dial), the width that they should have made, and the mean of so
// many readings of what they did make. It is the linear-Gaussian update; the
// belief that it is called on stays as it is.
func (s Estimate) Measured(counts []float64, nominal, found measure.Length, readings int) Estimate {
	n := len(s.Mean)
	gain := make([]float64, n)
	variance, residual := measureSD*measureSD/float64(max(1, readings)), (found - nominal).Mm()
	for i := range n {
		for k := range n {
			gain[i] += s.Cov[i][k] * counts[k]
		}
		variance += gain[i] * counts[i]
		residual -= s.Mean[i] * counts[i]
	}
	out := Estimate{make([]float64, n), make([][]float64, n), s.prior}
	for i := range n {
		out.Mean[i] = s.Mean[i] + gain[i]*residual/variance
		out.Cov[i] = make([]float64, n)
		for k := range n {
			out.Cov[i][k] = s.Cov[i][k] - gain[i]*gain[k]/variance
		}
	}
	return out
}

// SD is how well a part's thickness is known.
func (s Estimate) SD(part int) measure.Length {
	return measure.Length(math.Sqrt(max(0, s.Cov[part][part])))
}

// Foretold is the error that so many of each part add up to, and how well it is
// known.
func (s Estimate) Foretold(counts []float64) (mean, sd measure.Length) {
	variance := 0.0
	for i, a := range counts {
		mean += measure.Length(a * s.Mean[i])
		for k, b := range counts {
			variance += a * b * s.Cov[i][k]
		}
	}
	return mean, measure.Length(math.Sqrt(max(0, variance)))
}

// Surprising reports whether a groove that many readings came to is hardly what
// its parts make: something else than their thickness is likelier, such as a
// chip between them.
func (s Estimate) Surprising(counts []float64, nominal, found measure.Length, readings int) bool {
	const slight = measure.Length(0.08) // below that nobody opens a stack for it
	mean, sd := s.Foretold(counts)
	miss := math.Abs((found - nominal - mean).Mm())
	return miss > slight.Mm() && miss > 3*math.Hypot(sd.Mm(), measureSD/math.Sqrt(float64(max(1, readings))))
}

// Renewed forgets what was learnt of a part that was sharpened or replaced.
func (s Estimate) Renewed(part int) Estimate {
	out := NewEstimate(s.prior...)
	for i := range s.Mean {
		for k := range s.Mean {
			if i != part && k != part {
				out.Cov[i][k] = s.Cov[i][k]
			}
		}
		if i != part {
			out.Mean[i] = s.Mean[i]
		}
	}
	return out
}

// wearSD is by how much a tooth's width may have changed, in mm, over every
// 100 m of groove. Carbide side tips wear slowly; it makes old grooves count a
// little less than new ones.
const wearSD = 0.004

// Worn lets what is known of toothed parts go stale with the metres that they
// have cut; no part is ever known less than before its first groove.
func (s Estimate) Worn(metres float64, toothed func(part int) bool) Estimate {
	out := NewEstimate(s.prior...)
	copy(out.Mean, s.Mean)
	for i := range s.Cov {
		copy(out.Cov[i], s.Cov[i])
		if toothed(i) {
			most := max(s.Cov[i][i], s.prior[i]*s.prior[i])
			out.Cov[i][i] = min(most, s.Cov[i][i]+wearSD*wearSD*metres/100)
		}
	}
	return out
}
