package choose

import (
	"math"
	"slices"

	"corte/core/blade"
	"corte/core/care"
	"corte/core/cut"
	"corte/core/groove"
	"corte/core/measure"
	"corte/core/saw"
	"corte/core/say"
)

// A Reason is one term that decided where an option stands, in words.
type Reason struct {
	Term Term
	For  bool // speaks for the blade
	Text say.Line
}

// mostReasons is how many a person takes in at a glance.
const mostReasons = 3

// Reasons gives the two or three terms that decided about an option: those in
// which it differs most from the other blades that may go on, or, where it is
// alone, from perfection.
func (k Ranking) Reasons(r Request, c Candidate, o Option) []Reason {
	type pull struct {
		t Term
		d float64
	}
	pulls := make([]pull, 0, termCount)
	for t, v := range o.Terms {
		d := math.Log(v)
		if len(k.Fit) > 1 {
			d -= k.mean[t]
		}
		pulls = append(pulls, pull{Term(t), weights[t] * d})
	}
	first := func(p pull) bool { return p.t == TermCondition && CareVerdict(c.State) != Clear } // it is at caution for that
	slices.SortStableFunc(pulls, func(a, b pull) int {
		if x, y := first(a), first(b); x != y {
			return -compareBool(x, y)
		}
		if math.Abs(a.d) > math.Abs(b.d) {
			return -1
		}
		return 1
	})
	reasons := make([]Reason, 0, mostReasons)
	for _, p := range pulls {
		const hardly = 0.03
		if len(reasons) == mostReasons || math.Abs(p.d) < hardly && len(reasons) >= 2 {
			break
		}
		if text := told(p.t, r, c, o); !text.Zero() {
			reasons = append(reasons, Reason{p.t, p.d >= 0 && good(p.t, o), text})
		}
	}
	return reasons
}

// good reports whether a term's value is good in itself. Being the best of a bad lot
// isn't enough.
func good(t Term, o Option) bool {
	switch t {
	case TermScorch:
		return o.Figures.Burn < 0.1
	case TermRoom:
		return o.Figures.Window.Grade() > cut.Tight
	case TermWall:
		return o.Figures.Window.FastBy != cut.ByWall
	}
	return o.Terms[t] >= 0.5
}

// burnAtBound is where the window's slow end stands, less a rounding error.
const burnAtBound = 0.2 - 1e-9

func told(t Term, r Request, c Candidate, o Option) say.Line {
	f := o.Figures
	modelled := r.Job.Material.Kind.Modelled()
	if !modelled && t < TermFitness {
		return say.Line{}
	}
	switch t {
	case TermFinish:
		worst := f.WorstFace()
		switch ratio := worst / r.Job.SplinterLimit(); {
		case worst == 0:
			return say.Of("no visible face can tear out")
		case ratio > 1.05:
			return say.Of("%.1f times the tear-out a %s face allows", ratio, r.Job.Finish)
		case ratio > 0.67:
			return say.Of("just clean enough for a %s face", r.Job.Finish)
		case ratio > 0.34:
			return say.Of("cleaner than a %s face asks", r.Job.Finish)
		default:
			return say.Of("far cleaner than a %s face asks", r.Job.Finish)
		}
	case TermWall:
		limit := r.Job.Finish.WallLimit()
		switch {
		case limit == 0:
			return say.Line{}
		case f.WallMark > limit*1.01:
			return say.Of("one deep mark per turn: %s deep, where %s is allowed", say.Thin(f.WallMark), say.Thin(limit))
		case f.Window.FastBy == cut.ByWall:
			return say.Of("tooth marks limit the feed rate: %s per turn is allowed", say.Thin(limit))
		}
		return say.Of("tooth marks %s deep, under the %s allowed", say.Thin(f.WallMark), say.Thin(limit))
	case TermScorch:
		if f.Burn >= burnAtBound {
			return say.Of("thin chips: burn risk %.0f %%", 100*f.Burn)
		}
		if f.Burn < 0.01 {
			return say.Of("chips thick enough to avoid burn marks")
		}
		return say.Of("burn risk %.0f %%", 100*f.Burn)
	case TermLoad:
		if f.Load > f.Allowed {
			return say.Of("needs %.0f %% of motor and circuit power", 100*f.Load)
		}
		return say.Of("%.0f %% motor load", 100*f.Load)
	case TermRoom:
		if !f.Window.Open() {
			return say.Of("no feed range: %s meets %s", f.Window.SlowBy.Words(), f.Window.FastBy.Words())
		}
		return say.Of("%s feed range (%.1f×)", f.Window.Grade(), f.Window.Room())
	case TermFitness:
		switch fitOf(c, r.Job) {
		case fitKept:
			return say.Of("set aside for this")
		case fitFlat:
			return say.Of("leaves a flat bottom")
		case fitGeneral:
			if c.Blade.KeptFor != blade.UseGeneral {
				return say.Of("finer than needed, but on the saw")
			}
			return say.Of("for general work")
		case fitEars:
			return say.Of("leaves a nearly flat bottom, %s off", groove.Ridge(c.Blade))
		case fitFraming:
			return say.Of("coarse teeth for a rough cut")
		case fitCoarse:
			return say.Of("framing teeth tear out a visible face")
		case fitRidged:
			return say.Of("leaves a ridge of %s on the bottom", groove.Ridge(c.Blade))
		case fitSteep:
			return say.Of("steep bevel: %s would dull it soon", r.Job.Material)
		case fitFiner:
			return say.Of("finer than needed: a common blade does it as well")
		case fitSaved:
			return say.Of("set aside for %s: this would wear its edge", say.Word(useWords[c.Blade.KeptFor]))
		}
		return say.Of("set aside for %s", say.Word(useWords[c.Blade.KeptFor]))
	case TermCondition:
		s := c.State
		switch {
		case s.Chipped:
			return say.Of("a tip is chipped")
		case s.Sharpness >= care.DullAt:
			return say.Of("dull: sharpen it")
		case s.Pitch >= care.WashAt:
			return say.Of("resin buildup: clean it first")
		case s.Sharpness >= care.WornAt:
			return say.Of("edges well worn")
		case s.Pitch >= 0.8:
			return say.Of("some resin buildup")
		}
		return say.Of("sharp and clean")
	case TermChange:
		if c.Mounted {
			return say.Of("on the saw now")
		}
		if r.ChangeMinutes > 0 {
			return say.Of("%.0f min to change", r.ChangeMinutes)
		}
	}
	return say.Line{}
}

var useWords = map[blade.Use]string{
	blade.UseGeneral: "general work", blade.UseRip: "ripping", blade.UseCrosscut: "crosscuts",
	blade.UseSheet: "sheet goods", blade.UseJoints: "joints", blade.UseMetal: "metal",
	blade.UsePlastic: "plastics", blade.UseDirty: "dirty work", blade.UseMineral: "tile and stone",
}

// A Change is one thing that could be done differently, and how wide the
// window would stand then.
type Change struct {
	Text   say.Line // a sentence without its full stop; Other stands for a blade's name
	Room   float64
	Height measure.Length // the height to set, where that is the change; else 0
	Blade  int            // the candidate to take instead, where that is the change; else -1
}

// mostBare is how much blade an offered height may leave standing over the
// work (craft section 4): more is for no cure.
const mostBare = measure.Length(20)

// BestChange finds the single change that opens an option's window most:
// support of a face, washing, sharpening, truing the saw. Where none of them
// helps, another blade that makes the cut well is offered before another
// height, and no height that leaves more than 20 mm of blade bare. It reports
// false where nothing helps by a tenth.
func (k Ranking) BestChange(r Request, c Candidate, o Option) (Change, bool) {
	c.State.Heel = r.Heel
	drive := r.drive()
	best := Change{Room: o.Figures.Window.Room() * 1.1, Blade: -1}
	found := false
	try := func(text say.Line, height measure.Length, change func(*cut.Job, *cut.State)) {
		j, s := r.Job, c.State
		j.Height = o.Height
		change(&j, &s)
		if room := cut.Work(j, c.Blade, drive, s).Window.Room(); room > best.Room {
			best, found = Change{text, room, height, -1}, true
		}
	}
	exits, others := Supports(r.Job, r.Saw)
	if o.Figures.Exit.Matters && r.Job.Exit == cut.Open {
		switch {
		case slices.Contains(exits, cut.ZeroClearance):
			try(say.Of("close the gap on the exit side with a zero-clearance throat plate"), 0, func(j *cut.Job, _ *cut.State) { j.Exit = cut.ZeroClearance })
		case r.Job.Motion == cut.Push:
			try(say.Of("make a shallow scoring pass first, then the full cut, pushing both"), 0, func(j *cut.Job, _ *cut.State) { j.Exit = cut.Scored })
		case r.Job.Motion == cut.Along:
			try(say.Of("score the line with a knife first, or tape over it"), 0, func(j *cut.Job, _ *cut.State) { j.Exit = cut.Scored })
		}
	}
	if o.Figures.Other.Matters && r.Job.Other == cut.Open {
		if slices.Contains(others, cut.ZeroClearance) {
			try(say.Of("use a fresh sacrificial backer or a zero-clearance throat plate under the cut"), 0, func(j *cut.Job, _ *cut.State) { j.Other = cut.ZeroClearance })
		} else {
			try(say.Of("put a fresh sacrificial backer behind the cut"), 0, func(j *cut.Job, _ *cut.State) { j.Other = cut.Backer })
		}
	}
	if c.State.Pitch > 0.3 {
		try(say.Of("clean it"), 0, func(_ *cut.Job, s *cut.State) { s.Pitch = 0 })
	}
	if c.State.Sharpness > 1.3 {
		// Weighed without the wash that comes with it: a dirty blade feels like a
		// dull one, so washing is tried for itself first (craft section 9).
		try(say.Of("have it sharpened"), 0, func(_ *cut.Job, s *cut.State) { s.Sharpness = 1 })
	}
	if math.Abs(r.Heel.Mm()) > 0.03 {
		try(say.Of("align the blade with the miter slot"), 0, func(_ *cut.Job, s *cut.State) { s.Heel = 0 })
	}
	if o.Figures.Window.FastBy == cut.ByWall {
		try(say.Of("reduce its run-out: a true plate and arbor leave shallower marks"), 0, func(_ *cut.Job, s *cut.State) { s.Spread, s.RunOut = goodSpread, goodRunOut })
	}
	if found {
		return best, true
	}
	if i, ok := k.better(o); ok {
		return Change{say.Of("use %s, which has a wide feed range here", Other), k.Fit[i].Figures.Window.Room(), 0, k.Fit[i].Index}, true
	}
	h := r.Heights(c.Blade)
	if h.Exact || r.Saw.Kind == saw.Circular && r.Job.Bed != cut.Air || r.Job.Motion != cut.Along {
		return best, false
	}
	raise, lower := "raise it to %s", "lower it to %s"
	if r.Saw.Kind != saw.Table {
		raise, lower = "set it deeper, to %s", "set it shallower, to %s"
	}
	for _, to := range [...]measure.Length{h.Proud, h.Gullets, min(h.Full, r.Job.Thickness+mostBare)} {
		form := raise
		if to < o.Height {
			form = lower
		}
		// In thin stock a higher blade has fewer teeth in it, which is the greater evil.
		if to > o.Height && r.Job.Thickness <= thinSheet && o.Figures.TeethInCut < 2*leastTeeth {
			continue
		}
		if to >= r.Job.Thickness+cut.Clears && to-r.Job.Thickness <= mostBare && to != o.Height {
			try(say.Line{Form: form, With: []any{say.Set(to)}}, to, func(j *cut.Job, _ *cut.State) { j.Height = to })
		}
	}
	return best, found
}

// What a well-ground blade on a clean arbor comes to: model section 10's
// "excellent", and half the usual run-out.
const (
	goodSpread = measure.Length(0.015)
	goodRunOut = measure.Length(0.015)
)

// thinSheet is stock in which the count of teeth in the cut matters more than
// their heat, and leastTeeth how many are to stand in it at all times (craft
// section 3).
const (
	thinSheet  = measure.Length(4)
	leastTeeth = 2
)

// better finds the first blade of the ranking that makes the cut well where an
// option does not.
func (k Ranking) better(o Option) (int, bool) {
	for i, other := range k.Fit {
		if other.Index != o.Index && Judge(other.Figures) == Clear && len(other.Minds) == 0 {
			return i, true
		}
	}
	return 0, false
}
