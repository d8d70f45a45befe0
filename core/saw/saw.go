// Package saw describes the three kinds of saw that carry a circular blade,
// by what can be read off the saw and its manual: craft sections 3 and 4.
package saw

import (
	"cmp"
	"math"

	"corte/core/blade"
	"corte/core/cut"
	"corte/core/fault"
	"corte/core/measure"
	"corte/core/word"
)

// A Kind is the way in which blade and work meet.
type Kind uint8

const (
	Table    Kind = iota // blade up through the work, work pushed past
	Miter                // blade down through the work, or pushed along it
	Circular             // hand-held, blade down through the work
)

//corte:enum Kind parse
var kindNames = word.Names{Kind: "saw", Of: []string{"table", "miter", "circular"}}

// A Thread is the way in which the arbor's nut is cut.
type Thread uint8

const (
	UnknownThread Thread = iota
	RightHand
	LeftHand
)

//corte:enum Thread parse
var threadNames = word.Names{Kind: "thread", Of: []string{"unknown", "right", "left"}}

// A Side is left or right as somebody sees it who stands at the saw.
type Side = cut.Side

// The sides.
const (
	UnknownSide = cut.UnknownSide
	Left        = cut.Left
	Right       = cut.Right
)

// ParseSide is the inverse of Side.String.
func ParseSide(s string) (Side, error) { return cut.ParseSide(s) }

// A Brake is a blade brake's allowed range; its makers refuse blades outside.
type Brake struct {
	MinKerf, MaxKerf         measure.Length
	MinDiameter, MaxDiameter measure.Length
}

// A Saw is one saw. A zero limit is one that the saw does not have or that
// nobody has read off yet; it stops nothing.
type Saw struct {
	Kind        Kind
	Sliding     bool           // a miter saw that can be pushed along the work
	Diameter    measure.Length // the blade that it is made for
	Least       measure.Length // the smallest blade that its guard and knife allow
	Arbor       measure.Length
	Bushings    []measure.Length // bores that the shop owns bushings for
	RPM         float64
	MotorW      float64 // shaft power
	Volts       float64
	BreakerA    float64
	Knife       measure.Length // thickness of the riving knife or splitter
	Brake       *Brake
	DadoSets    bool           // the maker allows dado sets
	ArborLength measure.Length // from the inner flange to the end of the thread
	Washer      measure.Length // the outer one
	Nut         measure.Length
	WasherOff   bool           // the maker allows a dado set without the outer washer
	NutSide     Side           // of the blade that the nut is on
	Reach       measure.Length // greatest height or depth square, with a blade of Diameter
	Reach45     measure.Length // the same tilted to 45 degrees
	BelowTable  measure.Length // how far a miter saw's blade goes below its table
	ChopWidth   measure.Length // widest work that a miter saw chops
	Crosscut    measure.Length // widest work that a sliding miter saw crosses on the push
	Wheels      bool           // the maker allows diamond or abrasive wheels
	Steel       bool           // made for cutting steel
	Tilt        float64        // furthest bevel in degrees; 0 means the usual 45
	Turn        float64        // furthest miter in degrees; 0 means the usual 45
	Thread      Thread         // of the arbor's nut
	Lock        bool           // it has an arbor lock
	Knockout    bool           // its arbor takes a blade's diamond knock-out
	WheelLead   measure.Length // height that one turn of the wheel moves; 0 if not known
	FenceLead   measure.Length // way that one turn of the fence's screw moves; 0 if there is none
	ToBolt      measure.Length // from the trunnion's pivot to the bolt that moves it; 0 if not measured
	TiltSide    Side           // to which the top of a table saw's blade leans
	FenceReach  measure.Length // furthest that the fence stands from the blade, on its usual side; 0 if not measured
	Shoe        measure.Length // width of a hand-held saw's shoe; 0 if not measured

	Carriage       measure.Length // travel of a table saw's sliding carriage; 0 if it has none
	CarriageClamps bool           // the carriage has clamps of its own
	Scoring        Scoring        // of a table saw that has a scoring blade
}

// A Scoring is a small blade before the main one that turns with the feed and cuts
// the lower face, so that the main blade's exit finds nothing to tear (craft
// section 19). The zero Scoring is none.
type Scoring struct {
	Diameter measure.Length
	Kerf     measure.Length
	RPM      float64 // 0 if not known
	Tilts    bool    // the saw's manual allows it in tilted cuts
}

// Scores reports whether the saw's scoring blade may serve a cut tilted by deg.
func (s Saw) Scores(deg float64) bool {
	return s.Scoring.Kerf > 0 && (deg == 0 || s.Scoring.Tilts)
}

// HandHeld reports whether the saw is led over the work by hand.
func (k Kind) HandHeld() bool { return k == Circular }

// A Power is what has to be taken off a saw before a hand touches its blade.
type Power uint8

const (
	UnknownPower Power = iota // nobody has said: plug and battery both
	Plug
	Battery
)

// Power follows from the volts: low ones with no breaker are a battery's.
func (s Saw) Power() Power {
	switch {
	case s.Volts == 0:
		return UnknownPower
	case s.BreakerA == 0 && s.Volts <= mostBatteryV:
		return Battery
	}
	return Plug
}

// mostBatteryV is more than any battery for a saw gives.
const mostBatteryV = 90

// continuous is the share of a breaker's rating that a motor may draw for long
// (model section 2).
const continuous = 0.75

// CircuitW is what the circuit carries for long, or 0 where there is no
// breaker, as on a battery.
func (s Saw) CircuitW() float64 { return continuous * s.Volts * s.BreakerA }

// FullDroop is the share of its idle speed that a motor loses under all that it may
// bear: little for a table saw's induction motor, a fifth for the brushed ones of saws
// that are carried. Judgement, of usual motors.
func (k Kind) FullDroop() float64 {
	if k == Table {
		return 0.045
	}
	return 0.2
}

// PowerLimitW is what the blade may be given: the smaller of the motor's shaft
// power and what the circuit carries.
func (s Saw) PowerLimitW() float64 {
	if circuit := s.CircuitW(); circuit > 0 {
		return min(s.MotorW, circuit)
	}
	return s.MotorW
}

// usualLimit is how far nearly every saw tilts and turns.
const usualLimit = 45

// MostBevel is how far the saw tilts, in degrees.
func (s Saw) MostBevel() float64 { return cmp.Or(s.Tilt, usualLimit) }

// MostMiter is how far the saw, or its gauge, turns, in degrees.
func (s Saw) MostMiter() float64 { return cmp.Or(s.Turn, usualLimit) }

// Below is how far a miter saw's blade of its own size goes below its table:
// just through, where nobody has measured it.
func (s Saw) Below() measure.Length { return cmp.Or(s.BelowTable, cut.Clears) }

// ReachWith is the greatest height or depth, straight through the work, with a
// blade tilted by deg: a smaller blade on the same arbor reaches less by the
// difference of the radii.
func (s Saw) ReachWith(b blade.Blade, deg float64) measure.Length {
	short := (s.Diameter - b.Diameter) / 2 * measure.Length(math.Cos(deg*math.Pi/180))
	return max(0, s.ReachAt(deg)-short)
}

// ReachAt is the reach with the blade tilted by deg, worked out from the two
// plate depths (model section 1). Without a depth at 45 degrees it falls with
// the cosine alone.
func (s Saw) ReachAt(deg float64) measure.Length {
	c := math.Cos(deg * math.Pi / 180)
	if s.Reach45 <= 0 {
		return measure.Length(s.Reach.Mm() * c)
	}
	c45 := math.Sqrt2 / 2
	return s.Reach45 + measure.Length((s.Reach-s.Reach45).Mm()*(c-c45)/(1-c45))
}

// Check reports the first number that no real saw can have.
func (s Saw) Check() error {
	between := func(v, lo, hi float64) bool { return v >= lo && v <= hi } // false for NaN
	d := s.Diameter.Mm()
	switch {
	case !between(d, 80, 600):
		return fault.At("diameter", "a saw takes blades between 80 and 600 mm")
	case !between(s.Least.Mm(), 0, d):
		return fault.At("least blade", "the smallest blade is no larger than the saw's own, %v, or 0 if the manual gives none", s.Diameter)
	case !between(s.Arbor.Mm(), 5, 80) || s.Arbor >= s.Diameter/2:
		return fault.At("arbor", "an arbor is between 5 and 80 mm, and less than half the blade")
	case !between(s.RPM, 300, 12_000):
		return fault.At("speed", "a saw runs at 300 to 12,000 rpm")
	case !between(s.MotorW, 50, 20_000):
		return fault.At("motor", "a motor gives between 50 and 20,000 W at its shaft")
	case !between(s.Volts, 0, 700):
		return fault.At("volts", "volts are at most 700, or 0 if they are not known")
	case !between(s.BreakerA, 0, 125):
		return fault.At("circuit", "a breaker is at most 125 A, or 0 without one")
	case !between(s.Knife.Mm(), 0, 10):
		return fault.At("riving knife", "a riving knife is at most 10 mm thick, or 0 without one")
	case !between(s.Reach.Mm(), 1, d/2):
		return fault.At("reach", "a blade of %v can't cut deeper than its radius, and a saw cuts at least 1 mm deep", s.Diameter)
	case !between(s.Reach45.Mm(), 0, s.Reach.Mm()):
		return fault.At("reach at 45°", "tilted to 45 degrees a saw cuts less deep than square, %v, or 0 if not measured", s.Reach)
	case !between(s.BelowTable.Mm(), 0, 40):
		return fault.At("below table", "a miter saw's blade goes at most 40 mm below its table")
	case !between(s.ChopWidth.Mm(), 0, d):
		return fault.At("chop width", "a chop is no wider than the blade, %v; 0 if not measured", s.Diameter)
	case !between(s.Crosscut.Mm(), 0, 2000):
		return fault.At("crosscut", "a slide crosses at most 2 m, or 0 if not measured")
	case !between(s.Tilt, 0, 60):
		return fault.At("tilt", "a saw tilts at most 60 degrees; 0 for the usual 45")
	case !between(s.Turn, 0, 60):
		return fault.At("turntable", "a saw or its gauge turns at most 60 degrees; 0 for the usual 45")
	case !between(s.WheelLead.Mm(), 0, 50):
		return fault.At("wheel lead", "a turn of the wheel moves at most 50 mm; 0 if not known")
	case !between(s.FenceLead.Mm(), 0, 50):
		return fault.At("fence lead", "a turn of the fence's screw moves at most 50 mm, or 0 without one")
	case !between(s.FenceReach.Mm(), 0, 3000):
		return fault.At("fence reach", "a fence reaches at most 3 m; 0 if not measured")
	case !between(s.ToBolt.Mm(), 0, 1000):
		return fault.At("way to the bolt", "from pivot to bolt is at most 1 m; 0 if not measured")
	case !between(s.ArborLength.Mm(), 0, 120):
		return fault.At("arbor length", "an arbor extends at most 120 mm from its flange, or 0 if not measured")
	case !between(s.Washer.Mm(), 0, 20):
		return fault.At("washer", "an outer washer is at most 20 mm thick; 0 if not measured")
	case !between(s.Nut.Mm(), 0, 30):
		return fault.At("nut", "a nut is at most 30 mm thick; 0 if not measured")
	case s.TiltSide != UnknownSide && s.Kind != Table, s.FenceReach > 0 && s.Kind != Table:
		return fault.At("kind", "only a table saw has a fence and a tilt direction")
	case !between(s.Shoe.Mm(), 0, 400):
		return fault.At("shoe", "a shoe is at most 400 mm wide; 0 if not measured")
	case s.Shoe > 0 && s.Kind != Circular:
		return fault.At("shoe", "only a hand-held saw has a shoe")
	case !between(s.Carriage.Mm(), 0, 4000):
		return fault.At("carriage travel", "a sliding carriage travels at most 4 m, or 0 without one")
	case !between(s.Scoring.Diameter.Mm(), 0, 200), !between(s.Scoring.Kerf.Mm(), 0, 10), !between(s.Scoring.RPM, 0, 20_000):
		return fault.At("scoring blade", "a scoring blade is at most 200 mm, with a kerf of at most 10 mm and 20,000 rpm, or 0 without one")
	case (s.Scoring.Diameter > 0) != (s.Scoring.Kerf > 0):
		return fault.At("scoring blade", "enter both the scoring blade's diameter and kerf, or neither")
	case s.Kind != Table && (s.Carriage > 0 || s.CarriageClamps || s.Scoring != Scoring{}):
		return fault.At("kind", "only a table saw has a sliding carriage or a scoring blade")
	case s.CarriageClamps && s.Carriage == 0:
		return fault.At("carriage travel", "enter how far the carriage travels")
	case s.Sliding && s.Kind != Miter:
		return fault.At("sliding", "only a miter saw slides")
	}
	for _, b := range s.Bushings {
		if !between(b.Mm(), s.Arbor.Mm(), 80) {
			return fault.At("bushings", "a bushing fits a larger bore to the arbor, so it is wider than %v and at most 80 mm", s.Arbor)
		}
	}
	if k := s.Brake; k != nil {
		switch {
		case !between(k.MinKerf.Mm(), 0.5, k.MaxKerf.Mm()) || k.MaxKerf > 30:
			return fault.At("brake, kerf", "a brake's kerfs run from a smaller to a larger one, 0.5 to 30 mm")
		case !between(k.MinDiameter.Mm(), 50, k.MaxDiameter.Mm()) || k.MaxDiameter > 600:
			return fault.At("brake, diameter", "a brake's diameters run from a smaller to a larger one, 50 to 600 mm")
		}
	}
	return nil
}

// LargestDado is the largest dado set for the saw: 8 in sets go on saws of
// 10 in and more, 6 in sets on smaller ones (craft section 12).
func (s Saw) LargestDado() measure.Length {
	if s.Diameter >= measure.Inches(10)-1 {
		return measure.Inches(8) + 1
	}
	return measure.Inches(6) + 1
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
