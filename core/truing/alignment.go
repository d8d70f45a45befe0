package truing

import (
	"math"

	"corte/core/measure"
	"corte/core/say"
	"corte/core/verdict"
)

// An Alignment is how a saw stood when it was last measured. A nil figure was
// never measured.
type Alignment struct {
	Heel   *measure.Length // rear of the blade toward the fence
	Fence  *measure.Length // open at the rear; negative where it closes
	RunOut *measure.Length // total, read with no blade named
	Tilt   *float64        // degrees from square; positive opens at the top
	Gauge  *float64        // degrees from square
}

// A Judgement is what one figure means, wherever it is read: beside the
// instrument, or before a cut that it bears on.
type Judgement struct {
	Verdict verdict.Verdict
	Says    say.Line // a sentence
	Do      say.Line // a sentence; nothing where all is well
}

// Heel judges how far the rear of the blade leans toward the fence; negative is
// away from it.
func (t Tolerances) Heel(toward measure.Length) Judgement {
	size := measure.Length(math.Abs(toward.Mm()))
	switch {
	case size <= t.HeelAim:
		return Judgement{Says: say.Of("The blade is parallel to the miter slot, within %s.", say.Dial(toward))}
	case toward > 2*t.HeelAct:
		return Judgement{verdict.Stop,
			say.Of("The blade toes in %s toward the fence. That pinches the wood and can kick back: don't rip along the fence.", say.Dial(toward)),
			say.Of("Disconnect the power, set the blade parallel to the miter slot, and measure again.")}
	case toward > t.HeelAct:
		return Judgement{verdict.Caution,
			say.Of("The blade toes in %s toward the fence. It pinches the wood, and the edge against the fence burns.", say.Dial(toward)),
			say.Of("Set the blade parallel to the miter slot, and measure again.")}
	case toward < -t.HeelAct:
		return Judgement{verdict.Caution,
			say.Of("The blade toes out %s from the fence. Its teeth scuff the offcut.", say.Dial(toward)),
			say.Of("Set the blade parallel to the miter slot, and measure again.")}
	}
	way := "The blade toes in %s toward the fence. That is acceptable, but %s or less is better."
	if toward < 0 {
		way = "The blade toes out %s from the fence. That is acceptable, but %s or less is better."
	}
	return Judgement{Says: say.Line{Form: way, With: []any{say.Dial(toward), say.Dial(t.HeelAim)}}}
}

// Fence judges how far a fence opens at the rear; negative is closing.
func (t Tolerances) Fence(open measure.Length) Judgement {
	switch {
	case open < -closingNoise:
		return Judgement{verdict.Stop,
			say.Of("The fence toes in by %s. It pinches the wood and can kick back: don't cut along the fence.", say.Dial(open)),
			say.Of("Disconnect the power, open the rear of the fence by %s and measure again.", say.Dial(-open+t.FenceOpen/2))}
	case open > t.FenceOpen:
		return Judgement{verdict.Caution,
			say.Of("The fence toes out by %s at the rear, more than the limit of %s. The stock drifts off it and the cut edge is stepped.", say.Dial(open), say.Dial(t.FenceOpen)),
			say.Of("Bring the rear of the fence in by %s, and measure again.", say.Dial(open-t.FenceOpen/2))}
	}
	return Judgement{Says: say.Of("The fence is parallel, or toes out a little at the rear: %s.", say.Dial(open))}
}

// RunOut judges the spread of readings round the plate.
func (t Tolerances) RunOut(spread measure.Length) Judgement {
	clean := say.Of("Clean the flanges, the plate and the arbor, and measure again.")
	switch {
	case spread <= t.RunOutAim:
		return Judgement{Says: say.Of("Run-out is good: %s.", say.Dial(spread))}
	case spread <= t.RunOutAct:
		return Judgement{verdict.Caution, say.Of("Run-out is %s: enough for a faint mark once per turn.", say.Dial(spread)), clean}
	}
	return Judgement{verdict.Caution, say.Of("Run-out is %s: the kerf is that much wider, with one mark per turn.", say.Dial(spread)), clean}
}

// Tilt judges how far the blade is from square, in degrees.
func (t Tolerances) Tilt(deg float64) Judgement {
	if math.Abs(deg) <= t.TiltDeg {
		return Judgement{Says: say.Of("The blade is square to the table, within %.2f°.", math.Abs(deg))}
	}
	says := say.Of("The blade is %.2f° from square: the gap opens at the top.", math.Abs(deg))
	if deg < 0 {
		says = say.Of("The blade is %.2f° from square: the gap opens at the bottom.", math.Abs(deg))
	}
	return Judgement{verdict.Caution, says, say.Of("Tilt the blade by %.2f°, set the stop there, and cut a test board.", math.Abs(deg))}
}

// Gauge judges how far a gauge is from square to the blade, in degrees.
func (t Tolerances) Gauge(deg float64) Judgement {
	off := Gauge{math.Tan(deg * math.Pi / 180), deg}.over()
	if math.Abs(deg) <= t.GaugeDeg {
		return Judgement{Says: say.Of("The miter gauge is square to the blade, within %.3f°: %s.", math.Abs(deg), off)}
	}
	return Judgement{verdict.Caution, say.Of("The miter gauge is %.3f° from square: %s.", math.Abs(deg), off),
		say.Of("Set the miter gauge square to the blade, and make the five-cut test again.")}
}

// Spread judges the range of side clearance over a blade's teeth.
func Spread(spread measure.Length) Judgement {
	switch g := gradeOf(spread); {
	case g >= Reject:
		return Judgement{verdict.Caution, say.Of("Side clearance varies by %s between teeth: bad grinding, or a bent plate.", say.Dial(spread)),
			say.Of("Send it back to the sharpening service, or use another blade.")}
	case g >= Poor:
		return Judgement{verdict.Caution, say.Of("Side clearance varies by %s between teeth. Expect one mark per turn.", say.Dial(spread)),
			say.Of("Have it corrected at the next sharpening, or use another blade.")}
	}
	return Judgement{Says: say.Of("Side clearance is even, within %s.", say.Dial(spread))}
}
