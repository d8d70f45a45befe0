package truing

import (
	"math"

	"corte/core/fault"
	"corte/core/measure"
	"corte/core/say"
	"corte/core/verdict"
)

// A Scored is how a scoring kerf lies over the main one, from a cut of 50 mm that
// was stopped: how far the score stands out on either side (craft section 19).
type Scored struct {
	Wider measure.Length // than the main kerf, both sides together
	Move  measure.Length // of the scoring blade, to the right; negative to the left
}

// The scoring kerf is wider than the main one by ScoresLeast to ScoresMost, and lies
// within scoresAside of its middle (craft section 19).
const (
	ScoresLeast = measure.Length(0.05)
	ScoresMost  = measure.Length(0.15)
	scoresAside = measure.Length(0.02)
)

// ScoredOf works it out from how far the score stands out on the left and on the
// right; negative where it falls short of the kerf.
func ScoredOf(left, right measure.Length) (Scored, error) {
	for _, l := range []measure.Length{left, right} {
		if !(math.Abs(l.Mm()) <= 3) { // written so that NaN fails
			return Scored{}, fault.At("first reading", "a score extends at most 3 mm on either side. Measure from the edge of the main kerf")
		}
	}
	return Scored{Wider: left + right, Move: (left - right) / 2}, nil
}

// Judge says what to set.
func (s Scored) Judge() Finding {
	var f Finding
	mind := func(form string, with ...any) {
		f.Verdict = verdict.Caution
		f.say(form, with...)
	}
	switch {
	case s.Wider < ScoresLeast-1e-9:
		mind("The scoring kerf is %s wider than the main kerf, less than the %s it needs: the face chips beside it.", say.Dial(s.Wider), say.Dial(ScoresLeast))
		f.do("Disconnect the power. Shim the scoring blade out, or raise it if it is a conical one.")
	case s.Wider > ScoresMost+1e-9:
		mind("The scoring kerf is %s wider than the main kerf, more than %s: it leaves a step that you can feel.", say.Dial(s.Wider), say.Dial(ScoresMost))
		f.do("Disconnect the power. Take shims out of the scoring blade, or lower it if it is a conical one.")
	default:
		f.say("The scoring kerf is %s wider than the main kerf, as it should be.", say.Dial(s.Wider))
	}
	switch {
	case s.Move > scoresAside+1e-9:
		mind("It is too far to the left.")
		f.do("Move the scoring blade %s to the right.", say.Dial(s.Move))
	case s.Move < -scoresAside-1e-9:
		mind("It is too far to the right.")
		f.do("Move the scoring blade %s to the left.", say.Dial(s.Move))
	default:
		f.say("It is centered on the kerf.")
	}
	if f.Verdict == verdict.Caution {
		f.do("Cut 50 mm into scrap, stop, and look at both sides of the score again.")
	}
	return f
}
