// Package saw describes the three kinds of saw that carry a circular blade,
// by what can be read off the saw and its manual: craft sections 3 and 4.
package saw

import (
	"fmt"
	"math"

	"corte/core/blade"
	"corte/core/cut"
	"corte/core/measure"
)

// A Kind is the way in which blade and work meet.
type Kind uint8

const (
	Table    Kind = iota // blade up through the work, work pushed past
	Miter                // blade down through the work, or pushed along it
	Circular             // hand-held, blade down through the work
)

var kindNames = [...]string{"table", "miter", "circular"}

func (k Kind) String() string { return kindNames[k] }

// ParseKind is the inverse of Kind.String.
func ParseKind(s string) (Kind, error) {
	for i, n := range kindNames {
		if n == s {
			return Kind(i), nil
		}
	}
	return 0, fmt.Errorf("unknown saw %q; use table, miter or circular", s)
}

// A Brake is a blade brake's allowed range; its makers refuse blades outside.
type Brake struct {
	MinKerf, MaxKerf         measure.Length
	MinDiameter, MaxDiameter measure.Length
}

// A Saw is one saw. A zero limit is one that the saw does not have or that
// nobody has read off yet; it stops nothing.
type Saw struct {
	Kind       Kind
	Sliding    bool           // a miter saw that can be pushed along the work
	Diameter   measure.Length // the blade that it is made for
	Least      measure.Length // the smallest blade that its guard and knife allow
	Arbor      measure.Length
	Bushings   []measure.Length // bores that the shop owns bushings for
	RPM        float64
	MotorW     float64 // shaft power
	Volts      float64
	BreakerA   float64
	Knife      measure.Length // thickness of the riving knife or splitter
	Brake      *Brake
	DadoSets   bool           // the maker allows dado sets
	Reach      measure.Length // greatest height or depth square, with a blade of Diameter
	Reach45    measure.Length // the same tilted to 45 degrees
	BelowTable measure.Length // how far a miter saw's blade goes below its table
	ChopWidth  measure.Length // widest work that a miter saw chops
	Crosscut   measure.Length // widest work that a sliding miter saw crosses on the push
	Wheels     bool           // the maker allows diamond or abrasive wheels
	Steel      bool           // made for cutting steel
}

// continuous is the share of a breaker's rating that a motor may draw for long
// (model section 2).
const continuous = 0.75

// PowerLimitW is what the blade may be given: the smaller of the motor's shaft
// power and 0.75 of what the circuit's breaker carries.
func (s Saw) PowerLimitW() float64 {
	circuit := continuous * s.Volts * s.BreakerA
	if circuit <= 0 {
		return s.MotorW
	}
	return min(s.MotorW, circuit)
}

// ReachWith is the greatest height or depth with a blade: a smaller blade on
// the same arbor reaches less by the difference of the radii.
func (s Saw) ReachWith(b blade.Blade) measure.Length {
	return max(0, s.Reach-(s.Diameter-b.Diameter)/2)
}

// ReachAt is the reach with the blade tilted by deg, worked out from the two
// plate depths (model section 10). Without a depth at 45 degrees it falls with
// the cosine alone.
func (s Saw) ReachAt(deg float64) measure.Length {
	c := math.Cos(deg * math.Pi / 180)
	if s.Reach45 <= 0 {
		return measure.Length(s.Reach.Mm() * c)
	}
	c45 := math.Sqrt2 / 2
	return s.Reach45 + measure.Length((s.Reach-s.Reach45).Mm()*(c-c45)/(1-c45))
}

// CarriesWork reports whether the work lies on the saw and is moved against a
// gauge or fence, rather than the saw being moved over the work.
func (k Kind) CarriesWork() bool { return k == Table }

// UsualMotion is how work of a width is cut: a miter saw chops what it can and
// is pushed through what is wider.
func (s Saw) UsualMotion(width measure.Length) cut.Motion {
	switch {
	case s.Kind != Miter:
		return cut.Along
	case s.Sliding && s.ChopWidth > 0 && width > s.ChopWidth:
		return cut.Push
	}
	return cut.Chop
}

// Directions are the cuts that a kind of saw makes.
func (k Kind) Directions() []cut.Direction {
	if k == Miter {
		return []cut.Direction{cut.Crosscut}
	}
	return []cut.Direction{cut.Rip, cut.Crosscut, cut.Sheet}
}

// TakesBore reports whether a blade's bore fits the arbor, and whether that
// needs one of the shop's bushings.
func (s Saw) TakesBore(bore measure.Length) (fits, bushed bool) {
	const play = 0.1 // mm; a bore looser than this is another size
	if d := (bore - s.Arbor).Mm(); d > -0.02 && d < play {
		return true, false
	}
	for _, outer := range s.Bushings {
		if math.Abs((bore - outer).Mm()) < play {
			return true, true
		}
	}
	return false, false
}
