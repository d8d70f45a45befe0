package sight

import (
	"math"
	"slices"

	"corte/core/blade"
	"corte/core/say"
)

// A Trait is something of a blade that a photo shows.
type Trait string

const (
	Teeth  Trait = "teeth"
	Hook   Trait = "hook"
	Bore   Trait = "bore" // against the diameter
	Groups Trait = "groups"
)

// A Match is a blade of a rack that may be the one in the picture.
type Match struct {
	Index           int // in the rack
	Agrees, Differs []Trait
}

// A Trust is how far something that was read may be relied on.
type Trust string

const (
	Sure     Trust = "sure"
	Fair     Trust = "fair"     // to be looked over
	Doubtful Trust = "doubtful" // to be counted or measured again
)

// TrustIn says it of how sure something is, from 0 to 1; judgement, held by the tests'
// blades.
func TrustIn(sure float64) Trust {
	switch {
	case sure >= 0.8:
		return Sure
	case sure >= 0.5:
		return Fair
	}
	return Doubtful
}

const (
	mostMatches = 3
	hookAlike   = 3.0 // degrees
	boreAlike   = 0.04
)

// Alike finds the blades of a rack that may be the one that was seen, the likeliest
// first, three at most. A blade with another number of teeth is none of them, unless
// the count was unsure and is two off at most.
func (b Blade) Alike(rack []blade.Blade) []Match {
	var out []Match
	for i, r := range rack {
		off := r.Teeth - b.Teeth
		if r.Teeth == 0 || off != 0 && (TrustIn(b.TeethSure) == Sure || off < -2 || off > 2) {
			continue
		}
		m := Match{Index: i}
		m.weigh(Teeth, off == 0)
		if !r.HookUnknown && TrustIn(b.HookSure) != Doubtful {
			m.weigh(Hook, math.Abs(r.Hook-b.Hook) <= hookAlike)
		}
		if b.BoreRatio > 0 && r.Diameter > 0 {
			m.weigh(Bore, math.Abs(b.BoreRatio*float64(r.Diameter)/float64(r.Bore)-1) <= boreAlike)
		}
		if grouped := r.Grind == blade.ATBR; grouped || b.Group > 0 {
			m.weigh(Groups, grouped && b.Group == r.GroupSize())
		}
		out = append(out, m)
	}
	slices.SortStableFunc(out, func(x, y Match) int { return y.worth() - x.worth() })
	return out[:min(len(out), mostMatches)]
}

func (m *Match) weigh(t Trait, same bool) {
	if same {
		m.Agrees = append(m.Agrees, t)
	} else {
		m.Differs = append(m.Differs, t)
	}
}

// worth sorts matches: what differs says more than what agrees.
func (m Match) worth() int { return len(m.Agrees) - 2*len(m.Differs) }

// Doubts are what is not sure of what was read, and what to do about it.
func (b Blade) Doubts() []say.Line {
	var out []say.Line
	if len(b.Missing) > 0 {
		out = append(out, say.Of("a tooth may be missing. Check it before you use this blade. If it is missing, don't use the blade until it is repaired"))
	}
	if len(b.Short) > 0 {
		out = append(out, say.Of("a tooth looks shorter than the others. Check it before you use this blade. If it is chipped, have it sharpened soon. If it is loose or bent, don't use the blade until it is repaired"))
	}
	if len(b.Bent) > 0 {
		out = append(out, say.Of("a tooth looks out of line. Check it before you use this blade. If a hit bent it, don't use the blade until it is repaired and inspected for cracks"))
	}
	switch TrustIn(b.TeethSure) {
	case Doubtful:
		out = append(out, say.Of("the count isn't certain. Move the three marks onto tips far apart, take the photo again from straight above, or count by hand"))
	case Fair:
		out = append(out, say.Of("the count is fairly certain. Check that every tip has its mark, all the way around"))
	}
	if TrustIn(b.HookSure) == Doubtful {
		out = append(out, say.Of("the hook angle isn't certain. Measure it with a straightedge"))
	}
	if b.BoreRatio == 0 {
		out = append(out, say.Of("no bore found, so the size is unknown. Measure bore and diameter"))
	}
	return out
}
