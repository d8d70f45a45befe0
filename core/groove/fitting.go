package groove

import (
	"math"
	"slices"
	"time"

	"corte/core/fault"
	"corte/core/measure"
	"corte/core/say"
	"corte/core/verdict"
)

// A Dial is how the dial of a set stands.
type Dial struct {
	Cutters int
	Turns   float64
}

// A Stand is how a tool is set up for a groove, by the parts that it is made
// up of, so that it means the same when the set has others.
type Stand struct {
	Parts  []Part // of a stack, with their counts
	Dial   *Dial
	Shift  measure.Length // of the last pass
	Off    measure.Length // that the last test came wider than its parts say
	Passes int
	Height measure.Length
}

// Says is how it stands, in words.
func (s Stand) Says() say.Line {
	switch {
	case s.Dial != nil:
		return OnDial(s.Dial.Cutters, s.Dial.Turns)
	case s.Passes == 1:
		return say.Of("one pass")
	case s.Passes > 0 && len(s.Parts) == 0:
		return say.Of("%d passes", s.Passes)
	}
	counts := make([]int, len(s.Parts))
	for i, p := range s.Parts {
		counts[i] = p.Count
	}
	return InStack(counts, s.Parts)
}

// Shy is how much the first test groove stays short of its depth.
func Shy(depth measure.Length) measure.Length { return min(1, depth/4) }

// Stand is how a way to a groove stands at a height.
func (w Way) Stand(t Tool, height measure.Length) Stand {
	out := Stand{Height: height, Passes: len(w.Passes)}
	switch {
	case t.Set == nil:
	case t.Set.Kind == Dialled:
		out.Dial = &Dial{t.Set.Ranges[w.Range].Cutters, w.Turns}
	default:
		out.Parts = t.Set.parts(w.Stack.Counts)
	}
	return out
}

// parts are those of a stack that are used, with their counts.
func (s Set) parts(counts []int) (out []Part) {
	for i, n := range counts {
		if n > 0 {
			out = append(out, Part{s.Parts[i].Thickness, n, s.Parts[i].Shim})
		}
	}
	return out
}

// A Test is a groove that was cut in scrap and measured.
type Test struct {
	At    time.Time
	Width measure.Length
	Off   measure.Length // over the width that is wanted
	Depth measure.Length // 0 where nobody measured it
	With  Stand          // that it was made with
	Doubt bool           // its parts do not account for it
}

// A Fitting is a groove on its way to fit: a tool that stands somehow, and what
// its tests came to.
type Fitting struct {
	Want  Request
	Tool  Tool // without the setting that it stands at
	Held  Held // of a set's parts
	Stand Stand
	Tests []Test
	Lead  measure.Length // that a turn of the saw's height wheel lifts; 0 if not known
}

const (
	depthNear  = measure.Length(0.15) // how near a groove's depth is to come
	mostUneven = measure.Length(0.4)  // by how much readings of one groove may differ
	farWide    = measure.Length(3)    // further off, another groove was measured
	farDeep    = measure.Length(5)
	hair       = measure.Length(1e-9) // of rounding
)

// Way is what the tool makes as it stands.
func (f Fitting) Way() Way {
	t := f.Tool
	if t.Stop.Zero() {
		t.Now = &Setting{Shift: f.Stand.Shift, Off: f.Stand.Off}
		if d := f.Stand.Dial; d != nil {
			t.Now.Cutters, t.Now.Turns = d.Cutters, d.Turns
		}
		if t.Set != nil && t.Set.Kind == Stacked {
			var ok bool
			if t.Now.Counts, ok = t.Set.Counts(f.Stand.Parts); !ok {
				t.Stop, t.WayOut = say.Of("parts of this stack are no longer recorded in the set"), say.Of("start the groove again")
			}
		}
	}
	return f.Want.Ways([]Tool{t})[0]
}

// Good reports whether the last test groove is as it should be in width, and
// the last depth that was measured as well: the first one stands shy.
func (f Fitting) Good() bool {
	n := len(f.Tests)
	return n > 0 && near(f.Tests[n-1].Off, Near) && f.deepAs()
}

func (f Fitting) deepAs() bool {
	for _, t := range slices.Backward(f.Tests) {
		if t.Depth > 0 {
			return near(t.Depth-f.Want.Depth, depthNear)
		}
	}
	return false
}

// Next says what to do now, in order.
func (f Fitting) Next() []say.Line {
	if f.Good() {
		return say.All("It fits. Cut them all at this setting.")
	}
	way := f.Way()
	if way.Verdict == verdict.Stop {
		return []say.Line{say.Of("Stop: %s", way.Says)}
	}
	if len(f.Tests) == 0 {
		height := say.Of("Set the blade %s high.", say.Set(f.Stand.Height))
		if f.Stand.Height < f.Want.Depth {
			height = say.Of("Set the blade %s high, a little less than the depth. Add the difference after you measure.", say.Set(f.Stand.Height))
		}
		return []say.Line{height, say.Of("Cut a test groove in scrap of the same stock. Measure its width at three places, and its depth.")}
	}
	var out []say.Line
	tell := func(form string, with ...any) { out = append(out, say.Of(form, with...)) }
	last := f.Tests[len(f.Tests)-1]
	if last.Doubt {
		tell("That doesn't match its parts. Look for a chip or burr between them, and for chips in the groove. If the test was spoiled, delete it in the log so Corte doesn't learn from it.")
	}
	wide := say.Thin(size(last.Off))
	switch {
	case near(last.Off, Near):
		tell("Its width is right.")
	case f.Tool.Set == nil && len(way.Passes) == 1:
		tell("The groove is %s too wide: the kerf alone is wider than the target. Use a thinner blade, or reduce this one's run-out.", wide)
	case f.Tool.Set == nil && last.With.Passes == 1:
		tell("The groove is %s too narrow. Make a second pass with the fence %s further.", wide, wide)
	case f.Tool.Set == nil || len(way.Passes) > 1:
		to := say.Of("further")
		if last.Off > 0 {
			to = say.Of("nearer")
		}
		tell("The groove is %s too %s. Set the last pass %s %s.", wide, WideOrNarrow(last.Off), wide, to)
	default:
		change := changed(last.With, f.Stand)
		if len(change) == 0 {
			tell("The groove is %s too %s, and your parts can't bring it closer.", wide, WideOrNarrow(last.Off))
			break
		}
		tell("The groove is %s too %s. Disconnect the power, then %s.", wide, WideOrNarrow(last.Off), change)
	}
	if d := f.Want.Depth - last.Depth; last.Depth > 0 && !near(d, depthNear) {
		said := say.Of("Raise the blade by %s, to %s", say.Thin(d), say.Set(f.Stand.Height))
		if d < 0 {
			said = say.Of("Lower the blade by %s, to %s", say.Thin(-d), say.Set(f.Stand.Height))
		}
		if f.Lead > 0 {
			said = say.Of("%s: %.2f turns of the wheel", said, math.Abs(float64(d/f.Lead)))
		}
		tell("%s.", said)
	} else if last.Depth == 0 && !f.deepAs() {
		tell("Measure the depth as well: the blade is set to %s.", say.Set(f.Stand.Height))
	}
	return append(out, say.Of("Test again."))
}

// changed is how a set's stand differs from that of a test, in words; empty if
// it does not.
func changed(last, now Stand) say.List {
	if now.Dial != nil && last.Dial != nil {
		if now.Dial.Turns == last.Dial.Turns {
			return nil
		}
		return say.List{say.Of("turn the dial from %.2f to %.2f", last.Dial.Turns, now.Dial.Turns)}
	}
	of := func(parts []Part, p Part) int {
		for _, q := range parts {
			if q.Thickness == p.Thickness && q.Shim == p.Shim {
				return q.Count
			}
		}
		return 0
	}
	var out say.List
	move := func(p Part, form string, n int) { out = append(out, say.Of(form, p.some(n), say.Thin(p.Thickness))) }
	for _, p := range last.Parts {
		if n := p.Count - of(now.Parts, p); n > 0 {
			move(p, "take out %s of %s", n)
		}
	}
	for _, p := range now.Parts {
		if n := p.Count - of(last.Parts, p); n > 0 {
			move(p, "put in %s of %s", n)
		}
	}
	return out
}

func size(l measure.Length) measure.Length { return max(l, -l) }

// near reports whether a length is within a limit, give or take rounding.
func near(l, limit measure.Length) bool { return size(l) <= limit+hair }

// Event is a test groove as the set's log has it.
func (f Fitting) Event(widths []measure.Length) Event {
	e := Event{What: Tested, Parts: f.Stand.Parts, Dial: f.Stand.Dial, Widths: widths}
	if f.Tool.Set != nil {
		e.Left, e.Right = f.Tool.Set.Left, f.Tool.Set.Right
	}
	return e
}

// Check refuses readings that no test of this groove can have come to. depth is
// 0 where it was not measured. The error is a *fault.Error.
func (f Fitting) Check(widths []measure.Length, depth measure.Length) error {
	mean := Mean(widths)
	switch {
	case len(widths) == 0:
		return fault.At("width", "measure the width at three places")
	case !near(slices.Max(widths)-slices.Min(widths), mostUneven):
		return fault.At("width", "the readings of this groove range from %s to %s. Clear out the chips and measure again", slices.Min(widths), slices.Max(widths))
	case !near(mean-f.Want.Width, farWide):
		return fault.At("width", "%s is far from the target of %s. Did you measure another groove?", mean, f.Want.Width)
	case depth > 0 && !near(depth-f.Stand.Height, farDeep):
		return fault.At("depth", "%s is far from the %s you set. Measure again", depth, say.Set(f.Stand.Height))
	}
	return nil
}

// Tested is the fitting after one more test groove: what it taught of the
// parts, and how the tool is to stand for the next. The error says that no
// setting comes nearer.
func (f Fitting) Tested(at time.Time, widths []measure.Length, depth measure.Length) (Fitting, error) {
	mean := Mean(widths)
	t := Test{At: at, Width: mean, Off: mean - f.Want.Width, Depth: depth, With: f.Stand}
	out := f
	was := f.Way()
	if s := f.Tool.Set; s != nil && len(was.Passes) < 2 { // the sum of two cuts tells nothing of the parts
		e := f.Event(widths)
		t.Doubt = s.Surprising(f.Held, e)
		out.Held = s.Then(f.Held, e)
		out.Tool.Estimate = out.Held.Estimate
	}
	out.Tests = append(slices.Clip(f.Tests), t)
	var err error
	out.Stand, err = out.reset(was, t)
	return out, err
}

// reset is the next stand after a test; was is the way that made it.
func (f Fitting) reset(was Way, t Test) (Stand, error) {
	now := f.Stand
	if d := f.Want.Depth - t.Depth; t.Depth > 0 && !near(d, depthNear) {
		now.Height += d
	}
	if near(t.Off, Near) {
		return now, nil
	}
	next := f
	if f.Tool.Set == nil || len(was.Passes) > 1 {
		now.Shift -= t.Off
		next.Stand = now
		now.Passes = len(next.Way().Passes)
		return now, nil
	}
	// What its parts do not account for stays as it is with the next setting.
	now.Off = 0
	next.Stand = now
	now.Off = f.Want.Width + t.Off - next.Way().Width
	aim := f.Want.Width - now.Off
	if f.Tool.Set.Kind == Dialled {
		at, turns, err := f.Tool.Set.Dial(f.Held.Estimate, aim)
		if err != nil {
			return now, err
		}
		now.Dial = &Dial{f.Tool.Set.Ranges[at].Cutters, turns}
		return now, nil
	}
	stack, err := f.Tool.Set.Restack(f.Held.Estimate, aim, was.Stack.Counts)
	if err != nil {
		return now, err
	}
	now.Parts = f.Tool.Set.parts(stack.Counts)
	return now, nil
}
