package choose

import (
	"math"

	"corte/core/blade"
	"corte/core/care"
	"corte/core/cut"
	"corte/core/material"
)

// A Term is one of the things that are weighed against each other.
type Term uint8

const (
	TermFinish    Term = iota // splintering against what the finish bears
	TermScorch                // chance of a burn at the suggested feed
	TermLoad                  // power against the limit
	TermRoom                  // width of the feed window
	TermFitness               // what the owner keeps the blade for
	TermCondition             // how sharp and clean it is
	TermChange                // minutes to put it on
	termCount
)

var termNames = [...]string{"finish", "scorch", "load", "room", "fitness", "condition", "change"}

func (t Term) String() string { return termNames[t] }

// Terms holds a value from just over 0 (bad) to 1 (nothing to wish for) each.
type Terms [termCount]float64

// weights say how much a term counts in the mean. Whether the cut can be made
// well at all counts most; whose turn it is counts least.
var weights = Terms{
	TermFinish: 2, TermScorch: 2, TermLoad: 1, TermRoom: 3,
	TermFitness: 1.5, TermCondition: 0.75, TermChange: 1,
}

func (t Terms) score() float64 {
	var sum, of float64
	for i, v := range t {
		sum += weights[i] * math.Log(v)
		of += weights[i]
	}
	return math.Exp(sum / of)
}

// falling is 1 at 0, a half at 1, and goes on down: the shape of every term
// that compares a figure with its limit.
func falling(x, power float64) float64 { return 1 / (1 + math.Pow(x, power)) }

// leastTerm keeps a hopeless term from wiping out all others.
const leastTerm = 0.01

func weigh(r Request, c Candidate, f cut.Figures) Terms {
	t := Terms{1, 1, 1, 1, 1, 1, 1}
	if r.Job.Material.Kind.Modelled() {
		t[TermFinish] = falling(worstFace(f)/r.Job.Finish.SplinterLimit(), 2)
		t[TermScorch] = 1 - f.Burn
		t[TermLoad] = falling(f.Load/f.Allowed, 3)
		t[TermRoom] = 1 - falling(f.Window.Room(), 2)
	}
	t[TermFitness] = fitness(c.Blade, r.Job)
	t[TermCondition] = 1 / (1 + 0.4*max(0, c.State.Sharpness-1) + 0.12*c.State.Pitch)
	if !c.Mounted {
		t[TermChange] = math.Exp(-r.ChangeMinutes / changeScale)
	}
	for i := range t {
		t[i] = max(t[i], leastTerm)
	}
	return t
}

// changeScale is how many minutes of changing weigh as much as a cut that is
// worse by a factor of e in one term.
const changeScale = 12

func worstFace(f cut.Figures) float64 {
	worst := 0.0
	for _, face := range [...]cut.Face{f.Exit, f.Other} {
		if face.Matters {
			worst = max(worst, face.Splinter)
		}
	}
	return worst
}

// wanted is the use that a cut calls for.
func wanted(j cut.Job) blade.Use {
	switch k := j.Material.Kind; {
	case k == material.SoftMetal || k == material.Steel:
		return blade.UseMetal
	case k == material.Plastic || k == material.SolidSurface:
		return blade.UsePlastic
	case k == material.Nailed || k == material.CementBoard:
		return blade.UseDirty
	case k == material.Mineral:
		return blade.UseMineral
	case k.Sheet():
		return blade.UseSheet
	case j.Direction == cut.Rip:
		return blade.UseRip
	}
	return blade.UseCrosscut
}

// Fitness of a blade for a cut: what it is kept for, with steep points spared
// abrasive board and a fine blade spared rough work.
const (
	fitKept    = 1.0
	fitGeneral = 0.85
	fitNear    = 0.7  // crosscut for sheet and the other way round, metal for plastic
	fitOther   = 0.5  // kept for something else
	fitSaved   = 0.35 // kept sharp for something that this cut would spoil it for
)

func fitness(b blade.Blade, j cut.Job) float64 {
	want := wanted(j)
	if b.Grind == blade.HighATB && j.Material.Abrasion >= 2.5 && j.Material.Kind == material.Composite {
		return fitSaved
	}
	pair := func(a, c blade.Use) bool {
		return b.KeptFor == a && want == c || b.KeptFor == c && want == a
	}
	switch {
	case b.KeptFor == want:
		return fitKept
	case b.KeptFor == blade.UseGeneral:
		return fitGeneral
	case pair(blade.UseCrosscut, blade.UseSheet), pair(blade.UseMetal, blade.UsePlastic):
		return fitNear
	case b.KeptFor == blade.UseSheet || b.KeptFor == blade.UseJoints || b.KeptFor == blade.UsePlastic || b.KeptFor == blade.UseMetal:
		return fitSaved
	}
	return fitOther
}

// CareVerdict is mind where a blade should be washed or sharpened first.
func CareVerdict(s cut.State) Verdict {
	if s.Sharpness >= care.DullAt || s.Pitch >= care.WashAt {
		return Mind
	}
	return Clear
}
