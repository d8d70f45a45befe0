package truing

import (
	"math"

	"corte/core/measure"
	"corte/core/say"
	"corte/core/verdict"
)

// Tolerances are what a saw is held to. The usual ones are craft section 7's;
// where the craft gives none they are ours, and docs/model.md says so.
type Tolerances struct {
	HeelAim, HeelAct     measure.Length
	FenceOpen            measure.Length // at the rear, at most; it never closes
	RunOutAim, RunOutAct measure.Length // spread at the plate
	TiltDeg, GaugeDeg    float64
}

// Usual are the tolerances of a shop that has not set its own.
var Usual = Tolerances{HeelAim: 0.05, HeelAct: 0.1, FenceOpen: 0.1, RunOutAim: 0.08, RunOutAct: 0.15, TiltDeg: 0.1, GaugeDeg: 0.05}

// Band is the least and the greatest figure of a test that is held good, in
// the test's own unit: mm, or degrees for tilt and gauge. Side clearance is
// graded alike on every saw.
func (t Tolerances) Band(test Test) (low, high float64) {
	switch test {
	case HeelTest:
		return -t.HeelAct.Mm(), t.HeelAct.Mm()
	case FenceTest:
		return -closingNoise.Mm(), t.FenceOpen.Mm()
	case RunOutTest:
		return 0, t.RunOutAct.Mm()
	case TiltTest:
		return -t.TiltDeg, t.TiltDeg
	case GaugeTest:
		return -t.GaugeDeg, t.GaugeDeg
	case ClearanceTest:
		return 0, goodUpTo.Mm()
	}
	return 0, 0
}

// A Finding is what readings come to: a word, what it means, and what to do.
type Finding struct {
	Verdict verdict.Verdict
	Says    []say.Line
	Do      []say.Line
}

func (f *Finding) say(form string, with ...any) { f.Says = append(f.Says, say.Of(form, with...)) }
func (f *Finding) do(form string, with ...any)  { f.Do = append(f.Do, say.Of(form, with...)) }

// closingNoise is what a dial cannot tell from parallel.
const closingNoise = measure.Length(0.02)

// take puts a judgement at the head of a finding.
func (f *Finding) take(j Judgement) {
	f.Verdict, f.Says = j.Verdict, append(f.Says, j.Says)
}

// Judge says what a heel means.
func (h Heel) Judge(t Tolerances) Finding {
	var f Finding
	f.take(t.Heel(h.TowardFence))
	if f.Verdict == verdict.Clear {
		return f
	}
	way := say.Of("away from")
	if h.TowardFence < 0 {
		way = say.Of("toward")
	}
	if h.ToBolt > 0 {
		f.do("Unplug the saw. Loosen all but one trunnion bolt and move the rear %s the fence: by %s at the bolt, %s from the pivot.", way, say.Dial(h.MoveAtBolt), say.Set(h.ToBolt))
	} else {
		f.do("Unplug the saw. Loosen all but one trunnion bolt and move the rear %s the fence, by %s for every %s from the pivot to the bolt.", way, say.Dial(h.Per100), say.Set(measure.Length(100)))
	}
	f.do("Tighten, turn the same tooth to front and rear, and read again.")
	return f
}

// Judge says what a fence's stand means.
func (c Fence) Judge(t Tolerances) Finding {
	var f Finding
	j := t.Fence(c.Open)
	f.take(j)
	if !j.Do.Zero() {
		f.Do = append(f.Do, j.Do)
	}
	return f
}

// Judge says what a run-out means.
func (r RunOut) Judge(t Tolerances) Finding {
	var f Finding
	f.take(t.RunOut(r.Spread))
	if f.Verdict == verdict.Clear {
		return f
	}
	f.say("Most of it is a sway of %s once a turn, greatest %.0f° from the first place.", say.Dial(2*r.First.Amplitude), r.First.PhaseDeg)
	f.do("Clean both flanges, the plate and the arbor; a speck there grows ten times at the rim. Read again.")
	switch {
	case !r.Split:
		f.do("Then turn the blade half round on the arbor and read again: that tells the arbor from the blade.")
	case r.Arbor.Amplitude > 1.5*r.Blade.Amplitude:
		f.say("It stays with the arbor (%s against %s): the blade is not to blame.", say.Dial(r.Arbor.Amplitude), say.Dial(r.Blade.Amplitude))
		f.do("If it is still there after cleaning, the flange is faced or the arbor looked at by the maker's service.")
	case r.Blade.Amplitude > 1.5*r.Arbor.Amplitude:
		f.say("It travels with the blade (%s against %s): the plate is not flat.", say.Dial(r.Blade.Amplitude), say.Dial(r.Arbor.Amplitude))
		f.do("A saw doctor can flatten it; until then it takes rough work.")
	default:
		f.say("Arbor and blade share it (%s and %s): turned half round, they may cancel.", say.Dial(r.Arbor.Amplitude), say.Dial(r.Blade.Amplitude))
		f.do("Turn the blade on the arbor until the spread is least, and mark the place.")
	}
	return f
}

// JudgeTilt says what a tilt means; positive is a gap that opens at the top.
func JudgeTilt(deg float64, t Tolerances) Finding {
	var f Finding
	j := t.Tilt(deg)
	f.take(j)
	if !j.Do.Zero() {
		f.do("Tilt it by %.2f°, half of what the gap shows, set the stop there, and cut again.", math.Abs(deg))
	}
	return f
}

// Judge says what a gauge's error means; positive makes the strip wider at the
// end that is cut first.
func (g Gauge) Judge(t Tolerances) Finding {
	var f Finding
	if f.take(t.Gauge(g.AngleDeg)); f.Verdict == verdict.Clear {
		return f
	}
	way := say.Of("out")
	if g.AngleDeg < 0 {
		way = say.Of("in")
	}
	f.do("Take the slack out of its bar first. Then swing the far end of its fence %s by %s of fence, and cut five again.", way, g.over())
	return f
}

// over is by how much it is off over a length that shops use: 300 mm, or a
// foot.
func (g Gauge) over() say.Line {
	off := func(l measure.Length) say.Line {
		return say.Of("%s over %s", say.Dial(l*measure.Length(g.PerLength)), say.Set(l))
	}
	return say.Of("%s", say.Either{Mm: off(300), Inch: off(measure.Inches(12))})
}

// JudgeWidth says how to move the fence after a test cut.
func (a Adjustment) JudgeWidth() Finding {
	return a.judge("Move the fence %s toward the blade%s, against a dial. The piece is too wide.",
		"Move the fence away from the blade by more than %s, and come back%s: the last move is toward the blade, so that the slack is on one side. The piece is too narrow.", false)
}

// JudgeDepth says how to move the height or depth after a test cut. A blade
// that is fromAbove goes deeper where one in a table is raised.
func (a Adjustment) JudgeDepth(fromAbove bool) Finding {
	if fromAbove {
		return a.judge("Set the blade %s deeper%s. The cut is too shallow, as it should be at first.",
			"Set the blade shallower by more than %s, and go deeper again%s: the last move is the deeper one, so that the slack is on one side. The cut is too deep.", true)
	}
	return a.judge("Raise the blade by %s%s. The cut is too shallow, as it should be at first.",
		"Lower the blade by more than %s, and come up%s: the last move is upwards, so that the slack is on one side. The cut is too deep.", true)
}

func (a Adjustment) judge(onward, back string, more bool) Finding {
	var f Finding
	const there = 0.02 // mm; what a shop measures
	if math.Abs(a.Move.Mm()) <= there {
		f.say("That is the size, within %s.", say.Dial(there))
		return f
	}
	f.Verdict = verdict.Caution
	turns := say.Line{}
	if a.Turns != 0 {
		turns = say.Of(" (%.2f turns of the wheel)", math.Abs(a.Turns))
	}
	text := back
	if (a.Move > 0) == more {
		text = onward
	}
	f.Do = append(f.Do, say.Line{Form: text, With: []any{say.Dial(a.Move), turns}})
	f.do("Cut again, measure, and move by what is left.")
	return f
}

// Judge says what the side clearance of one side means. apart is the distance
// between the marks that a proud tooth leaves, 0 if it is not known.
func (c Clearance) Judge(apart measure.Length) Finding {
	var f Finding
	f.say("%s: %s from least to most, half of the teeth within %s of %s.", say.Of("%s", c.Grade).Upper(),
		say.Dial(c.Range), say.Dial(c.MAD/1.4826), say.Dial(c.Median))
	if c.Grade >= Poor {
		f.Verdict = verdict.Caution
	}
	if len(c.Proud) > 0 {
		f.Verdict = verdict.Caution
		names := make(say.List, len(c.Proud))
		for i, t := range c.Proud {
			names[i] = say.Of("%d", t+1)
		}
		them := say.Of("it")
		if len(names) == 1 {
			f.say("Tooth %s stands out, counted from the mark.", names[0])
		} else {
			them = say.Of("them")
			f.say("Teeth %s stand out, counted from the mark.", names)
		}
		if apart > 0 {
			f.say("Each turn scores the wall once for %s: marks %s apart.", them, apart)
		}
		f.do("Look at %s: loose or bent is not run, and goes to a saw doctor. Chipped, it is ground soon, for a chip grows; sound, with the rest at the next sharpening.", them)
	}
	if s := c.Slots; s != nil {
		if d := s.Beside - s.Rest; math.Abs(d.Mm()) > 0.015 {
			f.say("Teeth beside body slots differ from the rest by %s: the softer plate there gave way in grinding.", say.Dial(d))
		} else {
			f.say("Teeth beside body slots are like the rest.")
		}
	}
	if c.Grade == Reject {
		f.do("Spread like this is bad grinding, or a bent plate: back to the saw doctor.")
	}
	return f
}
