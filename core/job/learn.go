package job

import "math"

// A Took is a row whose pieces somebody timed, with all that belongs to them.
type Took struct {
	Foretold float64 // minutes of the pieces that were timed
	Minutes  float64 // that they took
}

// A Pace is how long this shop takes against what is foretold: its handling and
// its rework are its own. The zero Pace is as foretold.
type Pace struct {
	Ln   float64 // of the ratio
	SD   float64 // of Ln; how well it is known
	Rows int
}

const (
	paceSD = 0.35 // that a shop differs by, before anything is known of it
	rowSD  = 0.4  // that rows of one shop differ by among themselves
)

// Learn is the pace that timed rows teach, by the same rule as a material's
// corrections (model section 8): a normal prior, and each row a reading.
func Learn(rows []Took) Pace {
	p := Pace{}
	weight, sum := 1/(paceSD*paceSD), 0.0
	for _, r := range rows {
		if r.Foretold <= 0 || r.Minutes <= 0 {
			continue
		}
		p.Rows++
		weight += 1 / (rowSD * rowSD)
		sum += math.Log(r.Minutes/r.Foretold) / (rowSD * rowSD)
	}
	p.Ln, p.SD = sum/weight, 1/math.Sqrt(weight)
	return p
}

// Factor is what foretold minutes are multiplied by.
func (p Pace) Factor() float64 { return math.Exp(p.Ln) }

// Range is the factor a standard deviation to each side.
func (p Pace) Range() (low, high float64) { return math.Exp(p.Ln - p.SD), math.Exp(p.Ln + p.SD) }
