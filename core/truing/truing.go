// Package truing turns the readings of a dial, a square and a rule into what a
// saw or a blade is out by, and what to move: craft sections 2, 7 and 10, model
// section 10.
//
// A dial indicator grows as the surface comes nearer to it, a distance (by rule,
// caliper or square) as it goes away; heel and fence take either. The fence
// stands to the right of the blade, and of the slot that it is measured from.
package truing

import (
	"math"

	"corte/core/fault"
	"corte/core/measure"
)

func positive(where, name string, v measure.Length) error {
	if !(v > 0 && v < 20_000) { // written so that NaN fails
		return fault.At(where, "the %s must be over 0", name)
	}
	return nil
}

func degrees(rad float64) float64 { return rad * 180 / math.Pi }

// Hook is the hook angle, in degrees, of a tooth whose face line, prolonged,
// passes the centre of the bore at an offset. Radius is that of the blade.
func Hook(offset, radius measure.Length) (float64, error) {
	if err := positive("radius", "radius", radius); err != nil {
		return 0, err
	}
	if s := float64(offset / radius); s >= -0.8 && s <= 0.8 {
		return degrees(math.Asin(s)), nil
	}
	return 0, fault.At("offset", "the offset is nearly as large as the radius. Lay the straightedge along the face of one tooth and measure square to it from the center of the bore")
}

// An Instrument is what a reading was taken with, which says what it means for
// it to grow.
type Instrument uint8

const (
	DialIndicator Instrument = iota // grows as the surface comes nearer
	Distance                        // grows as it goes away
)

// nearer is how much nearer the rear of a surface is than its front.
func (i Instrument) nearer(front, rear measure.Length) measure.Length {
	if i == Distance {
		return front - rear
	}
	return rear - front
}

// A Side is where the instrument rides, seen from where the person stands.
type Side uint8

const (
	Left Side = iota // of the blade, in the slot there
	Right
)

// A Heel is how far the rear of the blade is out of line with the slot.
type Heel struct {
	Heel         measure.Length // how much nearer the rear is to the instrument
	TowardFence  measure.Length // the same, positive where the rear leans toward the fence
	Per100       measure.Length // of it over 100 mm
	MoveAtBolt   measure.Length // at a bolt this far from the pivot
	AngleDeg     float64
	Span, ToBolt measure.Length
}

// HeelOf works out the heel from the same marked tooth read at the front and
// at the rear, span apart, with an instrument on a side of the blade. toBolt is
// the distance from the trunnion's pivot to the bolt that moves it, 0 if it is
// not known.
func HeelOf(front, rear, span, toBolt measure.Length, with Instrument, on Side) (Heel, error) {
	if err := positive("span", "way from front to rear", span); err != nil {
		return Heel{}, err
	}
	h := with.nearer(front, rear)
	out := Heel{Heel: h, TowardFence: h, Per100: 100 * h / span, MoveAtBolt: h / span * toBolt,
		AngleDeg: degrees(math.Atan(float64(h / span))), Span: span, ToBolt: toBolt}
	if on == Left {
		out.TowardFence = -h // nearer to what stands on the left is away from the fence
	}
	return out, nil
}

// A Fence is how the fence stands to the slot.
type Fence struct {
	Open     measure.Length // at the rear; negative where it closes
	AngleDeg float64
}

// FenceOf works it out from readings taken in the slot, of the fence at the front
// and at the rear, span apart.
func FenceOf(front, rear, span measure.Length, with Instrument) (Fence, error) {
	if err := positive("span", "way from front to rear", span); err != nil {
		return Fence{}, err
	}
	open := -with.nearer(front, rear)
	return Fence{open, degrees(math.Atan(float64(open / span)))}, nil
}

// AlongFence is the heel that work meets when the fence guides it: what the
// blade leans toward the fence, less what the fence opens.
func AlongFence(towardFence, open measure.Length) measure.Length { return towardFence - open }

// A Harmonic is a sway of once a turn.
type Harmonic struct {
	Amplitude measure.Length
	PhaseDeg  float64 // of the place where it is most, 0 to 360
}

// A RunOut is how far a plate wobbles, read at equal steps round it.
type RunOut struct {
	Mean   measure.Length
	Spread measure.Length // from the least reading to the most
	First  Harmonic
	Split  bool     // read again with the blade turned half round on the arbor
	Arbor  Harmonic // what stays with the arbor
	Blade  Harmonic // what travels with the blade
}

// leastSteps round the plate tell a sway from a single bad reading.
const leastSteps = 4

// RunOutOf works out a run-out. turned holds the readings at the same places
// of the arbor with the blade turned half round on it, or nothing.
func RunOutOf(first, turned []measure.Length) (RunOut, error) {
	if len(first) < leastSteps {
		return RunOut{}, fault.At("first reading", "read at %d or more equal steps around the plate. There are %d", leastSteps, len(first))
	}
	if len(turned) != 0 && len(turned) != len(first) {
		return RunOut{}, fault.At("second reading", "the second round has %d readings and the first %d. Read at the same spots", len(turned), len(first))
	}
	lo, hi := first[0], first[0]
	var sum measure.Length
	for _, r := range first {
		lo, hi, sum = min(lo, r), max(hi, r), sum+r
	}
	a, b := components(first)
	out := RunOut{Mean: sum / measure.Length(len(first)), Spread: hi - lo, First: harmonic(a, b)}
	if len(turned) > 0 {
		ta, tb := components(turned)
		out.Split = true
		out.Arbor = harmonic((a+ta)/2, (b+tb)/2)
		out.Blade = harmonic((a-ta)/2, (b-tb)/2)
	}
	return out, nil
}

// components are the first harmonic's, a along the cosine and b along the sine.
func components(r []measure.Length) (a, b float64) {
	n := float64(len(r))
	for i, v := range r {
		s, c := math.Sincos(2 * math.Pi * float64(i) / n)
		a += 2 / n * v.Mm() * c
		b += 2 / n * v.Mm() * s
	}
	return a, b
}

func harmonic(a, b float64) Harmonic {
	phase := degrees(math.Atan2(b, a))
	if phase < 0 {
		phase += 360
	}
	return Harmonic{measure.Length(math.Hypot(a, b)), phase}
}

// Tilt is how far the blade is from square, in degrees, from a board crosscut
// on edge, one half flipped and butted: the gap shows twice the error.
func Tilt(gap, height measure.Length) (float64, error) {
	if err := positive("height", "height of the board", height); err != nil {
		return 0, err
	}
	return degrees(math.Atan(float64(gap / (2 * height)))), nil
}

// A Gauge is how far a miter gauge is from square to the blade.
type Gauge struct {
	PerLength float64 // mm for each mm of cut
	AngleDeg  float64
}

// FiveCut works it out from the fifth strip of the five-cut test: its width at
// the end cut first and at the end cut last, and its length.
func FiveCut(first, last, length measure.Length) (Gauge, error) {
	if err := positive("length", "length of the strip", length); err != nil {
		return Gauge{}, err
	}
	e := float64((first - last) / 4 / length)
	return Gauge{e, degrees(math.Atan(e))}, nil
}

// An Adjustment is how far to move a setting after a test cut.
type Adjustment struct {
	Move  measure.Length // positive: more
	Turns float64        // of the wheel; 0 if its lead is not known
}

// Adjust compares what was measured with what was wanted. lead is what one
// turn of the wheel moves, 0 if it is not known.
func Adjust(wanted, measured, lead measure.Length) (Adjustment, error) {
	if err := positive("wanted size", "size that is wanted", wanted); err != nil {
		return Adjustment{}, err
	}
	if err := positive("measured size", "size that was measured", measured); err != nil {
		return Adjustment{}, err
	}
	a := Adjustment{Move: wanted - measured}
	if lead > 0 {
		a.Turns = float64(a.Move / lead)
	}
	return a, nil
}

// Doubtful names the readings that are so far from the rest that a slip of the
// hand or the finger is likelier than the saw: they are asked for again.
func Doubtful(readings []measure.Length) []int {
	var out []int
	const far = 3 // mm; a dial's whole travel is little more
	if len(readings) < 3 {
		for i, r := range readings {
			if math.Abs(r.Mm()) > 10 {
				out = append(out, i)
			}
		}
		return out
	}
	mid := median(readings)
	spread := mad(readings, mid)
	for i, r := range readings {
		if d := math.Abs((r - mid).Mm()); d > far || d > 0.5 && d > 25*spread.Mm() {
			out = append(out, i)
		}
	}
	return out
}
