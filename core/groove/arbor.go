package groove

import (
	"math"

	"corte/core/measure"
	"corte/core/saw"
	"corte/core/say"
	"corte/core/verdict"
)

// An Arbor is how a set sits on a saw's arbor.
type Arbor struct {
	Length, Set, Washer, Nut measure.Length // what there is, and what goes on; 0 where not known
	Spare                    measure.Length // of thread beyond the nut; under 0 it does not take its full thread
	WasherOff                bool           // it goes on only without the outer washer, which the saw's maker allows
	Verdict                  verdict.Verdict
	Says                     say.Line
}

// OnArbor works out whether the nut takes its full thread over a set. A nut on
// half a thread lets go (craft section 12).
func OnArbor(s saw.Saw, set measure.Length) Arbor {
	a := Arbor{Length: s.ArborLength, Set: set, Washer: s.Washer, Nut: s.Nut}
	if a.Length <= 0 || a.Nut <= 0 {
		a.Verdict = verdict.Caution
		a.Says = say.Of("This arbor's length isn't recorded. Check that the nut has its full thread, and add the length to the saw")
		return a
	}
	a.Spare = a.Length - set - a.Washer - a.Nut
	switch {
	case a.Spare >= 0:
		a.Says = say.Of("The nut has its full thread with %s to spare", a.Spare)
	case s.WasherOff && a.Spare+a.Washer >= 0:
		a.WasherOff, a.Verdict = true, verdict.Caution
		a.Spare += a.Washer
		a.Says = say.Of("The nut has its full thread only without the outer washer, which this saw's manual allows")
	default:
		a.Verdict = verdict.Stop
		a.Says = say.Of("The nut doesn't have its full thread: the stack is %s too wide for the arbor. Cut it in two passes with fewer chippers", -a.Spare)
	}
	return a
}

// An Insert is what a set's own throat insert comes to.
type Insert struct {
	Width  measure.Length // of its opening, which the set cuts itself
	Length measure.Length // of the opening at the table, at the groove's depth
	Fence  measure.Length // at least that far from the set while it is raised
}

// nearFence is what is left between the set and the fence's face at the least,
// so that a clamp or a hold-down finds wood there.
const nearFence = measure.Length(10)

// InsertFor works an insert out: a set that is raised by depth opens it as long
// as the chord of its circle, and heel sways it sideways over that.
// heel is over the whole diameter.
func InsertFor(set, diameter, depth, heel measure.Length) Insert {
	r := diameter.Mm() / 2
	h := min(depth.Mm(), r)
	chord := measure.Length(2 * math.Sqrt(r*r-(r-h)*(r-h)))
	sway := measure.Length(math.Abs(heel.Mm())) * chord / diameter
	return Insert{Width: set, Length: chord, Fence: nearFence + sway}
}
