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
		f.do("Disconnect the power. Loosen all but one trunnion bolt and move the rear %s the fence: by %s at the bolt, %s from the pivot.", way, say.Dial(h.MoveAtBolt), say.Set(h.ToBolt))
	} else {
		f.do("Disconnect the power. Loosen all but one trunnion bolt and move the rear %s the fence, by %s for every %s from the pivot to the bolt.", way, say.Dial(h.Per100), say.Set(measure.Length(100)))
	}
	f.do("Tighten, turn the same tooth to the front and rear, and measure again.")
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
	f.say("Most of it is a wobble of %s per turn, greatest %.0f° from the first spot.", say.Dial(2*r.First.Amplitude), r.First.PhaseDeg)
	f.do("Clean both flanges, the plate and the arbor. A speck there moves the rim ten times as much. Measure again.")
	switch {
	case !r.Split:
		f.do("Then turn the blade half a turn on the arbor and measure again. That separates arbor from blade.")
	case r.Arbor.Amplitude > 1.5*r.Blade.Amplitude:
		f.say("It comes from the arbor (%s against %s), not from the blade.", say.Dial(r.Arbor.Amplitude), say.Dial(r.Blade.Amplitude))
		f.do("If it is still there after cleaning, have the maker's service check flange and arbor.")
	case r.Blade.Amplitude > 1.5*r.Arbor.Amplitude:
		f.say("It comes from the blade (%s against %s): the plate isn't flat.", say.Dial(r.Blade.Amplitude), say.Dial(r.Arbor.Amplitude))
		f.do("A sharpening service can flatten it. Until then, use it for rough work.")
	default:
		f.say("Arbor and blade share it (%s and %s). In some positions they may cancel.", say.Dial(r.Arbor.Amplitude), say.Dial(r.Blade.Amplitude))
		f.do("Turn the blade on the arbor until run-out is least, and mark the position.")
	}
	return f
}

// JudgeTilt says what a tilt means; positive is a gap that opens at the top.
func JudgeTilt(deg float64, t Tolerances) Finding {
	var f Finding
	j := t.Tilt(deg)
	f.take(j)
	if !j.Do.Zero() {
		f.do("Tilt it by %.2f°, half of what the gap shows. Set the stop there and cut again.", math.Abs(deg))
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
	f.do("Take the play out of its bar first. Then turn its fence so the far end moves %s by %s of fence, and repeat the five cuts.", way, g.over())
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
	return a.judge("Move the fence toward the blade by %s, against a dial. The piece is too wide.",
		"Move the fence away from the blade by more than %s, and come back. The last move is toward the blade, so the play is on one side. The piece is too narrow.", false)
}

// JudgeDepth says how to move the height or depth after a test cut. A blade
// that is fromAbove goes deeper where one in a table is raised.
func (a Adjustment) JudgeDepth(fromAbove bool) Finding {
	if fromAbove {
		return a.judge("Set the blade deeper by %s. The cut is too shallow, as intended at first.",
			"Set the blade shallower by more than %s, and go deeper again. The last move is deeper, so the play is on one side. The cut is too deep.", true)
	}
	return a.judge("Raise the blade by %s. The cut is too shallow, as intended at first.",
		"Lower the blade by more than %s, and raise it again. The last move is upward, so the play is on one side. The cut is too deep.", true)
}

func (a Adjustment) judge(onward, back string, more bool) Finding {
	var f Finding
	const there = 0.02 // mm; what a shop measures
	if math.Abs(a.Move.Mm()) <= there {
		f.say("That is the size, within %s.", say.Dial(there))
		return f
	}
	f.Verdict = verdict.Caution
	by := say.Of("%s", say.Dial(a.Move))
	if a.Turns != 0 {
		by = say.Of("%s (%.2f turns of the wheel)", say.Dial(a.Move), math.Abs(a.Turns))
	}
	text := back
	if (a.Move > 0) == more {
		text = onward
	}
	f.Do = append(f.Do, say.Line{Form: text, With: []any{by}})
	f.do("Cut again, measure, and move by what is left.")
	return f
}

// Judge says what the side clearance of one side means. apart is the distance
// between the marks that a proud tooth leaves, 0 if it is not known.
func (c Clearance) Judge(apart measure.Length) Finding {
	var f Finding
	f.say("%s: %s between lowest and highest, half of the teeth within %s of %s.", say.Of("%s", c.Grade).Upper(),
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
		check := "Check them. Don't use a blade with a loose or bent tooth: have it repaired. Have a chipped tooth sharpened soon, because the chip grows. An undamaged one can wait for the next sharpening."
		if len(names) == 1 {
			check = "Check it. Don't use a blade with a loose or bent tooth: have it repaired. Have a chipped tooth sharpened soon, because the chip grows. An undamaged one can wait for the next sharpening."
			f.say("Tooth %s sticks out, counted from the mark.", names[0])
		} else {
			f.say("Teeth %s stick out, counted from the mark.", names)
		}
		if apart > 0 {
			f.say("Each leaves one deep mark per turn, %s apart.", apart)
		}
		f.Do = append(f.Do, say.Word(check))
	}
	if s := c.Slots; s != nil {
		if d := s.Beside - s.Rest; math.Abs(d.Mm()) > 0.015 {
			f.say("Teeth beside body slots differ from the rest by %s. The plate is softer there and gave way in grinding.", say.Dial(d))
		} else {
			f.say("Teeth beside body slots are like the rest.")
		}
	}
	if c.Grade == Reject {
		f.do("This much variation means bad grinding or a bent plate. Send it back to the sharpening service.")
	}
	return f
}
