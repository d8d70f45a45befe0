// Package bench says what a saw needs before its next cut, the most urgent
// first. It takes what core/care says of the blade and core/truing of the saw
// and puts it in order: what may not run, what is known to be out, edges, pitch,
// and what is not known. The order is our judgement.
package bench

import (
	"cmp"
	"slices"

	"corte/core/care"
	"corte/core/say"
	"corte/core/truing"
	"corte/core/verdict"
)

// A Place is where on a saw something shows.
type Place string

const (
	Arbor Place = "arbor" // nothing on it
	Plate Place = "plate" // of the blade
	Edge  Place = "edge"
	Pitch Place = "pitch"
)

// At is where a test shows; the places of tests go by their names.
func At(t truing.Test) Place { return Place(t) }

// A Reason is why something is due.
type Reason string

const (
	Unfit   Reason = "unfit" // to run until somebody has inspected it
	Out     Reason = "out"   // when it was last measured
	Dull    Reason = "dull"
	Pitchy  Reason = "pitchy"
	Bare    Reason = "bare" // no blade on it
	Moved   Reason = "moved"
	Aged    Reason = "aged"
	Unknown Reason = "unknown" // never measured
)

// urgency orders the reasons, the most urgent first.
var urgency = map[Reason]int{Unfit: 0, Out: 1, Dull: 2, Pitchy: 3, Bare: 4, Moved: 5, Aged: 6, Unknown: 7}

// An Act is what to do about it.
type Act string

const (
	Mount   Act = "mount" // another blade
	Wash    Act = "wash"
	Measure Act = "measure"
)

// A Due is one thing to do at a saw.
type Due struct {
	Place  Place
	Reason Reason
	Test   truing.Test  // of what is measured
	Doubt  truing.Doubt // why it is to be measured again; none where it is out
	Blade  string       // name, of what is a blade's
	Found  string       // by whoever inspected an unfit blade; empty where nobody has since it hit something
}

// Act is what to do about it.
func (d Due) Act() Act {
	switch d.Reason {
	case Unfit, Dull, Bare:
		return Mount
	case Pitchy:
		return Wash
	}
	return Measure
}

// Presses reports whether it should be done before the next cut. What was never
// measured may well be in order, so it can wait.
func (d Due) Presses() bool { return d.Reason != Unknown }

// Said is a sentence without its full stop.
func (d Due) Said() say.Line {
	switch d.Reason {
	case Bare:
		return say.Of("No blade installed")
	case Unfit:
		if d.Found != "" {
			return say.Of("Don't use %s: %s", d.Blade, say.Word(d.Found))
		}
		return say.Of("%s hit something. Inspect it before you use it", d.Blade)
	case Dull:
		return say.Of("%s is dull", d.Blade)
	case Pitchy:
		return say.Of("%s has resin buildup", d.Blade)
	case Out:
		return say.Of("%s was off when last measured", d.Test.Words())
	}
	return say.Of("%s: %s", d.Test.Words(), d.Doubt.Said())
}

// A Stand is what a test of a saw last came to.
type Stand struct {
	Test    truing.Test
	Verdict verdict.Verdict // of the last reading, if there is one
	Doubt   truing.Doubt
}

// A Blade is the one that is on a saw.
type Blade struct {
	Name             string
	Unfit            bool    // to run
	Found            string  // why, if somebody has looked
	Sharpness, Pitch float64 // levels
}

// DueOn lists what to do at a saw, the most urgent first. on is nil where no
// blade is on it.
func DueOn(on *Blade, stands []Stand) []Due {
	out := []Due{}
	switch {
	case on == nil:
		out = append(out, Due{Place: Arbor, Reason: Bare})
	case on.Unfit:
		out = append(out, Due{Place: Plate, Reason: Unfit, Blade: on.Name, Found: on.Found})
	case on.Sharpness >= care.DullAt:
		out = append(out, Due{Place: Edge, Reason: Dull, Blade: on.Name})
	case on.Pitch >= care.WashAt:
		out = append(out, Due{Place: Pitch, Reason: Pitchy, Blade: on.Name})
	}
	for _, s := range stands {
		d := Due{Place: At(s.Test), Test: s.Test, Doubt: s.Doubt}
		switch s.Doubt.Cause {
		case truing.Never:
			d.Reason = Unknown
		case truing.Moved:
			d.Reason = Moved
		case truing.Aged:
			d.Reason = Aged
		default:
			if s.Verdict == verdict.Clear {
				continue
			}
			d.Reason = Out
		}
		out = append(out, d)
	}
	slices.SortStableFunc(out, func(a, b Due) int { return cmp.Compare(urgency[a.Reason], urgency[b.Reason]) })
	return out
}
