// Package learn corrects the model's table by the outcome of a shop's own cuts:
// model section 8. Each material has one correction of its scorch dose and one
// of its proneness to splinter, both in the logarithm, estimated by maximum a
// posteriori from a normal prior.
package learn

import (
	"math"

	"corte/core/material"
	"corte/core/say"
)

const (
	priorSD = 0.35 // of both corrections, in the logarithm
	steep   = 4.0  // of the scorch curve (model section 3), and of the grades
	steps   = 40   // of Newton's method; it needs five or six
	still   = 1e-10
)

// A Grade is how a face came out, in the order of outcome.Faces.
type Grade uint8

const (
	None      Grade = iota // good enough for a fine face
	Fuzz                   // for a show face, with a light sanding
	Splinters              // for a hidden one
	Torn                   // for nothing that is looked at
)

// limits are where one grade becomes the next on the model's splinter scale:
// what fine, show and hidden faces bear (model section 4).
var limits = [...]float64{0.3, 0.6, 1.2}

// Chances of each grade at a splinter figure T.
func Chances(t float64) (p [4]float64) {
	past := 1.0
	for i, l := range limits {
		over := logistic(steep * math.Log(t/l))
		p[i] = past - over
		past = over
	}
	p[Torn] = past
	return p
}

// A Cut is what one logged cut shows: what the table foretold, and what came.
type Cut struct {
	Heat     float64 // dose over the table's scorch dose; 0 if not known
	Burnt    bool
	Grades   []Grade   // per face that was graded
	Foretold []float64 // the splinter figure of each
}

// A Correction of a material. The zero Correction is the table as it is.
type Correction struct {
	LnScorch, LnSplinter float64
	SDScorch, SDSplinter float64 // what is left of the doubt
	Cuts                 int     // that it is from
}

// From finds the corrections that the cuts make likeliest.
func From(cuts []Cut) Correction {
	c := Correction{Cuts: len(cuts)}
	c.LnScorch, c.SDScorch = newton(func(x float64) (grad, curve float64) {
		for _, k := range cuts {
			if k.Heat <= 0 {
				continue
			}
			p := logistic(steep * (math.Log(k.Heat) - x))
			hit := 0.0
			if k.Burnt {
				hit = 1
			}
			grad -= steep * (hit - p)
			curve -= steep * steep * p * (1 - p)
		}
		return
	})
	c.LnSplinter, c.SDSplinter = newton(func(x float64) (grad, curve float64) {
		for _, k := range cuts {
			for i, g := range k.Grades {
				up, low := 1.0, 0.0 // chances to be past the limit below, and past the one above
				ln := math.Log(k.Foretold[i]) + x
				if g > None {
					up = logistic(steep * (ln - math.Log(limits[g-1])))
				}
				if g < Torn {
					low = logistic(steep * (ln - math.Log(limits[g])))
				}
				// ln(up - low) of a logistic in x: its slope is steep(1 - up - low).
				grad += steep * (1 - up - low)
				curve -= steep * steep * (up*(1-up) + low*(1-low))
			}
		}
		return
	})
	return c
}

// newton climbs a log likelihood, given by its slope and curvature, plus the
// prior. Both are concave, so it cannot go astray; steps are cut to one prior.
func newton(slope func(x float64) (grad, curve float64)) (x, sd float64) {
	const prior = 1 / (priorSD * priorSD)
	curve := 0.0
	for range steps {
		var grad float64
		grad, curve = slope(x)
		grad, curve = grad-prior*x, curve-prior
		step := max(-priorSD, min(priorSD, -grad/curve))
		x += step
		if math.Abs(step) < still {
			break
		}
	}
	return x, 1 / math.Sqrt(-curve)
}

func logistic(x float64) float64 { return 1 / (1 + math.Exp(-x)) }

// Apply corrects a material's row of the table.
func (c Correction) Apply(m material.Material) material.Material {
	m.ScorchDose *= math.Exp(c.LnScorch)
	m.MAcross *= math.Exp(c.LnSplinter)
	m.MAlong *= math.Exp(c.LnSplinter)
	return m
}

// Says puts a correction into words, or nothing where it is too small to say.
func (c Correction) Says(material say.Line) []say.Line {
	var out []say.Line
	tell := func(ln float64, less, more string) {
		if pct := math.Round(100 * (math.Exp(math.Abs(ln)) - 1)); pct >= 5 {
			form := more
			if ln < 0 {
				form = less
			}
			out = append(out, say.Line{Form: form, With: []any{material, pct, c.from()}})
		}
	}
	tell(c.LnScorch, "%s burns about %.0f %% sooner in this shop, from %s", "%s burns about %.0f %% later in this shop, from %s")
	tell(c.LnSplinter, "%s tears out %.0f %% less in this shop, from %s", "%s tears out %.0f %% more in this shop, from %s")
	return out
}

func (c Correction) from() say.Line {
	if c.Cuts == 1 {
		return say.Of("1 cut")
	}
	return say.Of("%d cuts", c.Cuts)
}
