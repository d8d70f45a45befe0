// Package care folds a blade's log into its condition: how worn its edges are,
// how much pitch it carries, how far it has cut since it was washed and since
// it was sharpened. Craft section 9, model section 9.
//
// A condition is never typed in. It follows from what was cut, washed and
// sharpened, so that a blade whose log is known is known.
package care

import (
	"math"

	"corte/core/blade"
	"corte/core/material"
	"corte/core/measure"
)

// lifeM2 is the wood face, in m² per tooth at abrasion 1, after which an
// average edge is dull.
const lifeM2 = 1.9

// grindLife is how much longer or shorter than lifeM2 a grind stays sharp;
// grinds that are not named here last as long as ATB.
var grindLife = map[blade.Grind]float64{blade.FTG: 1.2, blade.HighATB: 0.6, blade.TCG: 1.4}

// Life is the m² per tooth after which a blade of this grind is dull, before
// its owner has said anything.
func Life(g blade.Grind) float64 {
	if f, ok := grindLife[g]; ok {
		return lifeM2 * f
	}
	return lifeM2
}

// A Condition is what the log adds up to. The zero Condition is new and clean.
type Condition struct {
	WearM2       float64 // per tooth since new or sharpened, weighted by abrasion
	ResinM2      float64 // per tooth since washed or sharpened, weighted by resin
	MetresSharp  float64 // cut since new or sharpened
	MetresWashed float64 // cut since washed or sharpened
	Metres       float64 // cut in all its lives
	Cuts         int
	Sharpenings  int
	Washes       int
}

// Cut adds a length of cut, through a thickness of a material, by a blade.
func (c Condition) Cut(b blade.Blade, m material.Material, length, thickness measure.Length) Condition {
	metres := length.Mm() / 1000
	c.Cuts++
	c.Metres += metres
	c.MetresSharp += metres
	c.MetresWashed += metres
	if b.Teeth > 0 {
		face := metres * thickness.Mm() / 1000 / float64(b.Teeth)
		c.WearM2 += face * m.Abrasion
		c.ResinM2 += face * m.Resin
	}
	return c
}

// Wash takes the pitch off.
func (c Condition) Wash() Condition {
	c.ResinM2, c.MetresWashed = 0, 0
	c.Washes++
	return c
}

// Sharpen makes the edges new; a sharpened blade comes back clean.
func (c Condition) Sharpen() Condition {
	c.WearM2, c.MetresSharp = 0, 0
	c.ResinM2, c.MetresWashed = 0, 0
	c.Sharpenings++
	return c
}

// Sharpness is the factor S by which the edge raises force and heat: 1 sharp,
// 2.5 where the wear has reached the life.
func (c Condition) Sharpness(lifeM2 float64) float64 {
	return 1 + 1.5*math.Pow(c.WearM2/lifeM2, 1.2)
}

// Pitch is the pitch level, from 0 clean to 3 caked.
func (c Condition) Pitch() float64 { return 3 * (1 - math.Exp(-c.ResinM2/0.6)) }

// WashAt is the pitch level from which a wash is due; at DullAt the edges are dull.
const (
	WashAt = 1.5
	DullAt = 2.5
)

// Word says in one word how a blade stands, the gravest first.
func (c Condition) Word(lifeM2 float64) string {
	switch s, p := c.Sharpness(lifeM2), c.Pitch(); {
	case s >= DullAt:
		return "dull"
	case p >= WashAt:
		return "pitchy"
	case s >= WornAt:
		return "worn"
	}
	return "fine"
}

// WornAt is the sharpness factor from which the edge is worth a word.
const WornAt = 1.6
