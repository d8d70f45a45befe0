package choose

import (
	"math"

	"corte/core/blade"
	"corte/core/care"
	"corte/core/cut"
	"corte/core/groove"
	"corte/core/material"
	"corte/core/saw"
	"corte/core/word"
)

// A Term is one of the things that are weighed against each other.
type Term uint8

const (
	TermFinish    Term = iota // splintering against what the finish bears
	TermScorch                // chance of a burn at the suggested feed
	TermLoad                  // power against the limit
	TermRoom                  // width of the feed window
	TermWall                  // marks on the wall against what the finish bears
	TermFitness               // what the owner keeps the blade for
	TermCondition             // how sharp and clean it is
	TermChange                // minutes to put it on
	termCount
)

//corte:enum Term
var termNames = word.Names{Kind: "term", Of: []string{"finish", "scorch", "load", "room", "wall", "fitness", "condition", "change"}}

// Why is the drawing of Learn (core/practice) in which a term can be tried; empty
// where there is none.
func (t Term) Why() string { return whys[t] }

var whys = [termCount]string{
	TermFinish: "backer", TermScorch: "heat", TermLoad: "arc", TermRoom: "heat", TermWall: "line", TermFitness: "grinds", TermCondition: "heat",
}

// Terms holds a value from just over 0 (bad) to 1 (nothing to wish for) each.
type Terms [termCount]float64

// weights of the terms in the mean. The feed range counts most, a blade's condition
// least.
var weights = Terms{
	TermFinish: 2, TermScorch: 2, TermLoad: 1, TermRoom: 3, TermWall: 1,
	TermFitness: 1.5, TermCondition: 0.75, TermChange: 1,
}

// logs are the terms' logarithms, in which they are weighed.
func (t Terms) logs() Terms {
	for i, v := range t {
		t[i] = math.Log(v)
	}
	return t
}

// score is the weighted geometric mean of terms given as logarithms.
func (ln Terms) score() float64 {
	var sum, of float64
	for i, v := range ln {
		sum += weights[i] * v
		of += weights[i]
	}
	return math.Exp(sum / of)
}

// falling is 1 at 0, a half at 1, and goes on down: the shape of every term
// that compares a figure, to some power, with its limit.
func falling(x float64) float64 { return 1 / (1 + x) }

// leastTerm keeps a hopeless term from wiping out all others.
const leastTerm = 0.01

func weigh(r Request, c Candidate, o Option) Terms {
	t := Terms{1, 1, 1, 1, 1, 1, 1, 1}
	f := o.Figures
	if r.Job.Material.Kind.Modelled() {
		splinter, load, room := f.WorstFace()/r.Job.SplinterLimit(), f.Load/f.Allowed, f.Window.Room()
		t[TermFinish] = falling(splinter * splinter)
		t[TermScorch] = 1 - f.Burn
		t[TermLoad] = falling(load * load * load)
		t[TermRoom] = 1 - falling(room*room)
		if limit := r.Job.Finish.WallLimit(); limit > 0 {
			mark := float64(f.WallMark / limit)
			t[TermWall] = falling(mark * mark)
		}
	}
	t[TermFitness] = fitValues[fitOf(c, r.Job)]
	t[TermCondition] = 1 / (1 + 0.4*max(0, c.State.Sharpness-1) + 0.12*c.State.Pitch)
	if c.State.Chipped {
		t[TermCondition] *= chippedTerm
	}
	if hookMatters(c.Blade, r.Saw) {
		t[TermCondition] *= unreadTerm
	}
	if !c.Mounted {
		// The longer the work, the less a change counts beside it.
		t[TermChange] = math.Exp(-r.ChangeMinutes / (changeScale + o.Minutes.Total()*float64(r.Job.Count())))
	}
	for i := range t {
		t[i] = max(t[i], leastTerm)
	}
	return t
}

const (
	// changeScale is how many minutes of changing weigh, beside a cut that takes
	// no time, as much as one that is worse by a factor of e in one term.
	changeScale = 12
	// chippedTerm ranks a blade with a chipped tip under its sound twin: the chip
	// scores the wall once a turn, and grows.
	chippedTerm = 0.6
	// unreadTerm ranks a blade whose hook nobody has read under one whose hook is
	// known, where a strong one would climb.
	unreadTerm = 0.2
)

// hookMatters reports whether nobody has read the hook of a blade on a saw where
// a strong one climbs: a miter saw, or one that is held by hand.
func hookMatters(b blade.Blade, s saw.Saw) bool {
	return b.HookUnknown && b.Teeth > 0 && s.Kind != saw.Table
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
	case j.Form.Bears():
		return blade.UseJoints
	case k.Sheet():
		return blade.UseSheet
	case j.Direction == cut.Rip:
		return blade.UseRip
	}
	return blade.UseCrosscut
}

// A fit says how a blade suits a cut by what its owner keeps it for and by the
// shape that its teeth leave: steep points are spared abrasive board, a fine
// blade rough work, and where another piece bears on the bottom it is flat.
type fit uint8

const (
	fitKept    fit = iota // kept for this
	fitFlat               // not kept for joints, but flat where it matters
	fitGeneral            // kept for general work
	fitNear               // crosscut for sheet and the other way round, metal for plastic
	fitFiner              // a fine blade on work that a common one does as well
	fitEars               // nearly flat
	fitOther              // kept for something else
	fitSteep              // steep points that the board would dull
	fitSaved              // kept sharp for something that this cut would spoil it for
	fitRidged             // leaves a ridge where a piece bears
	fitFraming            // coarse teeth for a rough cut, whatever they are set aside for
	fitCoarse             // framing teeth in veneer, laminate or ply that is looked at
)

var fitValues = [...]float64{fitKept: 1, fitFlat: 0.9, fitGeneral: 0.85, fitNear: 0.85, fitFiner: 0.5, fitEars: 0.6, fitOther: 0.5,
	fitSteep: 0.35, fitSaved: 0.35, fitRidged: 0.15, fitFraming: 1, fitCoarse: 0.3}

// fitOf is fitnessOf of a candidate: a fine blade that is on the saw is not used
// up by one more cut, and nobody takes it off for that.
func fitOf(c Candidate, j cut.Job) fit {
	f := fitnessOf(c.Blade, j)
	if f == fitFiner && c.Mounted {
		return fitGeneral
	}
	return f
}

func fitnessOf(b blade.Blade, j cut.Job) fit {
	want := wanted(j)
	if b.Grind == blade.HighATB && j.Material.Abrasion >= 2.5 && j.Material.Kind == material.Composite {
		return fitSteep
	}
	pair := func(a, c blade.Use) bool {
		return b.KeptFor == a && want == c || b.KeptFor == c && want == a
	}
	saved := b.KeptFor == blade.UseSheet || b.KeptFor == blade.UseJoints || b.KeptFor == blade.UsePlastic || b.KeptFor == blade.UseMetal
	if j.Form.Bears() {
		switch flat := groove.Flatness(b); {
		case flat == groove.Ridged, flat == groove.Sloping:
			return fitRidged
		case flat == groove.NearlyFlat:
			return fitEars
		case b.KeptFor != want && !saved:
			return fitFlat
		}
	}
	near := pair(blade.UseCrosscut, blade.UseSheet)
	framing := b.Teeth > 0 && b.Pitch() > framingPitch
	switch {
	case framing && j.Finish > cut.Rough && j.Material.Kind.Sheet() && j.Material.Kind.Fibres() || framing && j.Finish > cut.Rough && j.Material.Kind == material.Laminate:
		return fitCoarse // a knife line or tape holds an edge; it does not make coarse teeth fine
	case j.Finish == cut.Rough && j.Form == cut.Through && j.Material.Kind.Modelled() && !saved && !fine(b) && b.Pitch() > roughPitch:
		return fitFraming
	case (b.KeptFor == want || near) && j.Finish <= cut.Hidden && !j.Form.Bears() && fine(b) && j.Material.Kind.Modelled():
		return fitFiner
	case b.KeptFor == want:
		return fitKept
	case b.KeptFor == blade.UseGeneral:
		return fitGeneral
	case near, pair(blade.UseMetal, blade.UsePlastic):
		return fitNear
	case saved:
		return fitSaved
	}
	return fitOther
}

// finePitch is the spacing of teeth under which a blade is one for fine work:
// 80 teeth at 305 mm, 72 at 254 mm; judgement.
const finePitch = 12.5

// roughPitch is the spacing from which teeth are for rough work (40 at 254 mm),
// and framingPitch that of framing teeth (24 at 184 mm); judgement.
const (
	roughPitch   = 19.0
	framingPitch = 22.0
)

// fine reports whether a blade is one for fine work, which is dear to keep sharp.
func fine(b blade.Blade) bool {
	return b.Grind == blade.HighATB || b.Teeth > 0 && b.Pitch() < finePitch
}

// CareVerdict is caution where a blade should be washed or sharpened first.
func CareVerdict(s cut.State) Verdict {
	if s.Sharpness >= care.DullAt || s.Pitch >= care.WashAt {
		return Caution
	}
	return Clear
}
