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
			say.Of("The rear of the blade leans %s toward the fence. That much pinches the work and can throw it back at you: don’t rip along the fence.", say.Dial(toward)),
			say.Of("Unplug the saw, set the blade parallel to the miter slot, and measure again.")}
	case toward > t.HeelAct:
		return Judgement{verdict.Caution,
			say.Of("The rear of the blade leans %s toward the fence: it pinches the work, and the edge against the fence burns.", say.Dial(toward)),
			say.Of("Set the blade parallel to the miter slot, and measure again.")}
	case toward < -t.HeelAct:
		return Judgement{verdict.Caution,
			say.Of("The rear of the blade leans %s away from the fence: its teeth scuff the offcut.", say.Dial(toward)),
			say.Of("Set the blade parallel to the miter slot, and measure again.")}
	}
	way := "The rear of the blade leans %s toward the fence. It will do, but %s or less is better."
	if toward < 0 {
		way = "The rear of the blade leans %s away from the fence. It will do, but %s or less is better."
	}
	return Judgement{Says: say.Line{Form: way, With: []any{say.Dial(toward), say.Dial(t.HeelAim)}}}
}

// Fence judges how far a fence opens at the rear; negative is closing.
func (t Tolerances) Fence(open measure.Length) Judgement {
	switch {
	case open < -closingNoise:
		return Judgement{verdict.Stop,
			say.Of("The fence closes on the blade by %s. It pinches the work and throws it back at you: don’t cut along the fence.", say.Dial(open)),
			say.Of("Unplug the saw, open the rear of the fence by %s, and measure again.", say.Dial(-open+t.FenceOpen/2))}
	case open > t.FenceOpen:
		return Judgement{verdict.Caution,
			say.Of("The fence opens by %s at the rear, more than the %s it may: the work drifts off it and the cut edge comes out stepped.", say.Dial(open), say.Dial(t.FenceOpen)),
			say.Of("Bring the rear of the fence in by %s, and measure again.", say.Dial(open-t.FenceOpen/2))}
	}
	return Judgement{Says: say.Of("The fence is parallel, or a little open at the rear: %s.", say.Dial(open))}
}

// RunOut judges the spread of readings round the plate.
func (t Tolerances) RunOut(spread measure.Length) Judgement {
	clean := say.Of("Clean the flanges, the plate and the arbor, and measure again.")
	switch {
	case spread <= t.RunOutAim:
		return Judgement{Says: say.Of("The plate runs true: %s from least to most.", say.Dial(spread))}
	case spread <= t.RunOutAct:
		return Judgement{verdict.Caution, say.Of("The plate wobbles by %s: enough for a faint mark once per turn.", say.Dial(spread)), clean}
	}
	return Judgement{verdict.Caution, say.Of("The plate wobbles by %s: the kerf comes out that much wider, with a mark once per turn.", say.Dial(spread)), clean}
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
		return Judgement{Says: say.Of("The gauge is square to the blade, within %.3f°: %s.", math.Abs(deg), off)}
	}
	return Judgement{verdict.Caution, say.Of("The gauge is %.3f° from square: %s.", math.Abs(deg), off),
		say.Of("Set the gauge square to the blade, and make the five-cut test again.")}
}

// Spread judges the range of side clearance over a blade's teeth.
func Spread(spread measure.Length) Judgement {
	switch g := gradeOf(spread); {
	case g >= Reject:
		return Judgement{verdict.Caution, say.Of("Its teeth stand out to the side by up to %s more than one another: bad grinding, or a bent plate.", say.Dial(spread)),
			say.Of("Send it back to the sharpening service, or use another blade.")}
	case g >= Poor:
		return Judgement{verdict.Caution, say.Of("Its teeth stand out to the side by up to %s more than one another: expect a mark once per turn.", say.Dial(spread)),
			say.Of("Have it ground at the next sharpening, or use another blade.")}
	}
	return Judgement{Says: say.Of("Its teeth stand out evenly, within %s.", say.Dial(spread))}
}
