package care

import (
	"math"

	"corte/core/blade"
)

// A Belief is what is held of a quantity that is known only by what people say
// and see: log-normal, kept as the distance from a prior. The zero Belief is
// the prior itself, with a standard deviation of 0.5 in the logarithm.
type Belief struct {
	Shift  float64 // of ln median from the prior's
	Gained float64 // precision beyond the prior's
}

const (
	priorSD    = 0.5
	sdSaid     = 0.4 // of what the owner says (model section 9)
	sdSeen     = 1.0 // of what a single cut shows; our judgement
	newFactor  = 3   // "like new" puts the life at this many times the wear, at least
	easyFactor = 1.3 // a cut that fed easily likewise
	seenOften  = 3   // cuts that come out worse than they should are a complaint
	tooFresh   = 0.1 // under this share of its life a blade that cuts badly has another reason
	farthest   = 3.0 // that one observation is from the prior: nobody's edge lasts a twentieth of the table's
)

// SD is the standard deviation of the logarithm.
func (b Belief) SD() float64 { return 1 / math.Sqrt(1/(priorSD*priorSD)+b.Gained) }

// Observe moves the belief by an observation at ln (over the prior) with a
// standard deviation.
func (b Belief) Observe(ln, sd float64) Belief {
	ln = max(-farthest, min(farthest, ln))
	have := 1/(priorSD*priorSD) + b.Gained
	mean, after := conjugate(b.Shift, have, ln, sd)
	return Belief{mean, b.Gained + after - have}
}

// Update is Observe from any prior: what a life of median m2 with standard
// deviation sd becomes when its owner says "dull now" at a wear.
func Update(m2, sd, dullAt float64) (median, after float64) {
	ln, precision := conjugate(math.Log(m2), 1/(sd*sd), math.Log(dullAt), sdSaid)
	return math.Exp(ln), 1 / math.Sqrt(precision)
}

// conjugate weighs a normal belief with an observation of it.
func conjugate(mean, precision, at, sd float64) (float64, float64) {
	more := 1 / (sd * sd)
	return (mean*precision + at*more) / (precision + more), precision + more
}

// say takes in how a blade is said, or seen, to cut. What only sets a bound
// moves a belief that breaks the bound, and no other.
func (c *Condition) say(g blade.Grind, s Saying, sd float64) {
	switch s {
	case Hit: // says nothing of edge or pitch
		c.Hit = true
		return
	case HalfWorn: // no complaint
		c.stands(g, half)
		return
	case Sharp:
		c.outlasts(g, 1, sd)
		c.stands(g, 0)
		c.DullSaid = false
		return
	}
	if s != LikeNew {
		if !c.Complained && c.Seen == 0 {
			c.Before.Life, c.Before.Pitch = c.Life, c.Pitch
		}
		if sd == sdSeen {
			c.Seen++
		}
		c.Complained = c.Complained || sd == sdSaid || c.Seen >= seenOften
	}
	wear := c.WearShare(g)
	switch s {
	case Dull:
		// Said of a fresh edge it is a complaint like any other, and when it is
		// said again later it is news; said twice of a worn one it is not.
		if wear > tooFresh {
			if !c.DullSaid {
				c.Life = c.Life.Observe(math.Log(c.seenM2()/Life(g)), sd)
			}
			c.DullSaid = true
		}
		if c.WearShare(g) < 1 {
			c.stands(g, 1)
		}
	case Gummed:
		c.gums(c.GumM2(), sd)
		if c.PitchLevel() < saidPitch {
			c.cakes(saidPitch)
		}
	case Hard:
		// Edge and pitch share the blame as they share the force.
		edge, pitch := math.Log(0.6+0.4*c.Sharpness(g)), math.Log(1+0.1*c.PitchLevel())
		if edge+pitch == 0 {
			return
		}
		share := edge / (edge + pitch)
		if wear > tooFresh && wear < 1 && share > 0 {
			c.Life = c.Life.Observe(math.Log(c.seenM2()/Life(g)), sd/math.Sqrt(share))
		}
		if share < 1 {
			c.gums(c.GumM2(), sd/math.Sqrt(1-share))
		}
	case LikeNew:
		c.outlasts(g, newFactor, sd)
		c.stands(g, 0)
		c.cakes(0)
		c.Complained, c.Looked, c.DullSaid, c.Seen = false, false, false, 0
	}
}

// half is the share of its life that a half-worn edge has used up, and saidPitch
// the level of pitch that somebody calls pitchy: over that of a wash.
const (
	half      = 0.5
	saidPitch = 2.0
)

// stands puts the edge where its owner says it is, as a share of its life.
func (c *Condition) stands(g blade.Grind, share float64) {
	c.ToldM2 = share*c.LifeM2(g) - c.WearM2
}

// seenM2 is the wear that a life is told by: all since the edge was new, logged
// or not. That somebody has called it sharp since gives none of it back.
func (c *Condition) seenM2() float64 { return c.WearM2 + max(0, c.ToldM2) }

// cakes puts pitch and resin at a level.
func (c *Condition) cakes(level float64) {
	c.ToldResinM2 = -math.Log(1-level/Caked)*pitchM2*math.Exp(c.Pitch.Shift) - c.ResinM2
}

// outlasts takes in that a life is at least so many times the wear.
func (c *Condition) outlasts(g blade.Grind, times, sd float64) {
	if c.seenM2()*times > c.LifeM2(g) {
		c.Life = c.Life.Observe(math.Log(c.seenM2()*times/Life(g)), sd)
	}
}

// gums takes in that a blade with so much resin wanted a wash.
func (c *Condition) gums(resin, sd float64) {
	atWash := -math.Log(1 - WashAt/3) // resin over scale at the level of a wash
	scale := pitchM2 * math.Exp(c.Pitch.Shift)
	if share := resin / scale / atWash; share > tooFresh && share < 1 {
		c.Pitch = c.Pitch.Observe(math.Log(resin/atWash/pitchM2), sd)
	}
}

// LifeRange is the m² per tooth between which two of three such blades dull.
func (c Condition) LifeRange(g blade.Grind) (low, high float64) {
	sd := c.Life.SD()
	return c.LifeM2(g) * math.Exp(-sd), c.LifeM2(g) * math.Exp(sd)
}

// Confidence says how well the edge's life is known.
func (c Condition) Confidence() string {
	switch sd := c.Life.SD(); {
	case sd > 0.45:
		return "from the table. Record when it's dull and Corte learns its own figure"
	case sd > 0.25:
		return "from one or two of your notes"
	}
	return "from your notes"
}

// A burn is a surprise where the model gave it less than about one chance in
// seven, a hard feed where less than this share of the allowed load was used.
const (
	unlikelyHeat = 0.63 // over the scorch dose: 1/(1+0.63^-4) is 0.14
	lightLoad    = 0.6
)

// Surprising reports whether a cut came out worse than it should: it burnt or
// fed hard where the model saw no reason to. heat is the dose over the table's
// scorch dose, load the share of what may be asked.
func Surprising(burnt, hard bool, heat, load float64) bool {
	return burnt && heat < unlikelyHeat || hard && load < lightLoad
}
