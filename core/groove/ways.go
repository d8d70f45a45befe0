package groove

import (
	"math"
	"slices"
	"sort"

	"corte/core/blade"
	"corte/core/fault"
	"corte/core/measure"
	"corte/core/saw"
	"corte/core/say"
	"corte/core/verdict"
)

// A Request is a groove that is wanted.
type Request struct {
	Width  measure.Length // of the groove: the piece and its fit
	Depth  measure.Length
	Length measure.Length // of one groove
	Edge   measure.Length // from the work's edge on the fence to the near wall
	Count  int            // grooves of this size
	Shown  bool           // somebody will look into its end
	Saw    saw.Saw
	Heel   measure.Length
	Change float64 // minutes to change a blade
}

// Near is how near a groove comes that fits as it is meant to.
const Near measure.Length = 0.05

// Check reports what no tool could make of a request.
func (r Request) Check() error {
	between := func(v, lo, hi measure.Length) bool { return v >= lo && v <= hi }
	switch {
	case !between(r.Width, 0.5, widest):
		return fault.At("piece", "a groove is at most %s wide", widest)
	case !between(r.Depth, 0.2, 150):
		return fault.At("depth", "enter the depth of the groove")
	case !between(r.Edge, 0, 3000):
		return fault.At("edge", "the near wall is between 0 and 3 m from the edge")
	case r.Count < 1 || r.Count > 1000:
		return fault.At("count", "enter 1 to 1,000 grooves")
	}
	return nil
}

// A Tool is a blade of the rack, with what makes its width where it is a set.
type Tool struct {
	Blade    blade.Blade
	Mounted  bool
	Set      *Set     // of a dado set
	Estimate Estimate // of its parts
	Stop     say.Line // a rule that keeps it off this saw or this work; empty if none
	WayOut   say.Line
	Now      *Setting // that it stands at; nil for the one that suits the groove
}

// A Setting is how a tool stands, after test grooves perhaps.
type Setting struct {
	Counts  []int          // of a stack
	Cutters int            // of a dial set
	Turns   float64        // of its dial
	Shift   measure.Length // of the last pass's fence, so that it makes the width with the kerf that the blade really has
	Off     measure.Length // by how much its grooves come wider than its parts are held to be
}

// A Way is a tool put to a groove: its setting, what it leaves, what it costs.
type Way struct {
	Tool    int // its place among the tools
	Verdict verdict.Verdict
	Says    say.Line       // what decides, in a sentence
	Width   measure.Length // that it comes to, as its parts are held to be
	SD      measure.Length // how well that is known; 0 for a single blade
	Stack   *Stack         // of a stacked set
	Slots   []Slot         // in the order of the arbor
	Clocked bool           // every chipper has gullets of its own
	Arbor   *Arbor
	Insert  *Insert
	Needs   []say.Line // that a single blade does not
	Range   int        // of a dial set
	Turns   float64    // of its dial
	Passes  []Pass
	Bottom  [][2]measure.Length // from wall to wall, and what stands above the deepest
	Ridge   measure.Length
	FlatFor say.Line
	Fits    bool     // its bottom is flat enough for this groove
	SetUp   float64  // minutes
	Each    float64  // minutes for every groove
	Minutes float64  // in all, for this many
	Pays    say.Line // against the quickest other way to set up
}

// Minutes that a careful person takes, beside changing a blade. Ours.
const (
	stackMinutes = 8.0 // laying out, shimming and clocking a stack
	dialMinutes  = 2.0
	testMinutes  = 3.0 // a test groove in scrap, measured
	tests        = 2.0
	fenceMinutes = 0.7 // for every position
	handMinutes  = 0.4 // to lay a piece on and take it off again
	feedMMin     = 2500.0
)

// Ways puts every tool to the request, the best first: those that may go on,
// those whose bottom is flat enough, the quickest.
func (r Request) Ways(tools []Tool) []Way {
	ways := make([]Way, len(tools))
	order := make([]int, len(tools))
	for i, t := range tools {
		ways[i], order[i] = r.way(t), i
		ways[i].Tool = i
	}
	r.pay(ways)
	sort.SliceStable(order, func(a, b int) bool {
		x, y := ways[order[a]], ways[order[b]]
		switch {
		case (x.Verdict == verdict.Stop) != (y.Verdict == verdict.Stop):
			return y.Verdict == verdict.Stop
		case x.Fits != y.Fits:
			return x.Fits
		}
		return x.Minutes < y.Minutes
	})
	out := make([]Way, len(tools))
	for i, at := range order {
		out[i] = ways[at]
	}
	return out
}

func (r Request) way(t Tool) Way {
	w := Way{Fits: true}
	if !t.Stop.Zero() {
		w.stop(t.Stop, t.WayOut)
		return w
	}
	handling := handMinutes + r.Length.Mm()/feedMMin
	change := r.Change
	if t.Mounted {
		change = 0
	}
	switch {
	case t.Set == nil:
		passes, err := Stepped(r.Edge, r.Width, t.Blade.Kerf, r.Depth)
		if err != nil {
			w.stop(say.Of("its kerf of %s is wider than the groove", say.Thin(t.Blade.Kerf)), say.Of("use a thinner blade"))
			return w
		}
		if t.Now != nil {
			if last := len(passes) - 1; last == 0 && t.Now.Shift > 0 {
				passes = append(passes, passes[0]) // its kerf alone came too narrow
			}
			if last := len(passes) - 1; last > 0 {
				passes[last].Fence += t.Now.Shift
			}
		}
		n := float64(len(passes))
		w.Width, w.Passes = r.Width, passes
		w.bottom(BottomOf(t.Blade, r.Width, passes, bottomPoints), FlatEnoughFor(t.Blade))
		w.Fits = Flatness(t.Blade) == Flat || !r.Shown && Flatness(t.Blade) == NearlyFlat
		w.SetUp, w.Each = change+n*fenceMinutes+testMinutes, n*handling
		w.Says = say.Of("%d passes, moving the fence %s each time, overlapping the pass before by %s", len(passes), say.Thin(step(passes)), say.Thin(t.Blade.Kerf-step(passes)))
		if len(passes) == 1 {
			w.Says = say.Of("one pass: its kerf is as wide as the groove")
		}
	case r.Width > t.Set.widest(t.Estimate):
		return r.inTwo(t)
	case t.Set.Kind == Dialled:
		at, turns, err := t.Set.Dial(t.Estimate, r.Width)
		if t.Now != nil {
			at, turns, err = slices.IndexFunc(t.Set.Ranges, func(x Range) bool { return x.Cutters == t.Now.Cutters }), t.Now.Turns, nil
			if at < 0 {
				err = fault.At("width", "its range with %d cutters is no longer recorded", t.Now.Cutters)
			}
		}
		if err != nil {
			w.stop(say.Error(err), say.Of("make two cuts, or use another set"))
			return w
		}
		w.Range, w.Turns = at, turns
		off, sd := t.Estimate.Foretold(t.Set.Turned(at, turns))
		w.Width, w.SD = t.Set.Ranges[at].Start+t.Set.Ranges[at].Turn*measure.Length(turns)+off, sd
		if t.Now != nil {
			w.Width += t.Now.Off
		}
		w.Says = OnDial(t.Set.Ranges[at].Cutters, turns)
		w.set(r, t)
		w.SetUp, w.Each = 2*r.Change+dialMinutes+tests*testMinutes, handling
		if t.Mounted {
			w.SetUp -= r.Change
		}
		if b := t.Set.Build; b != saw.UnknownSide && r.Saw.NutSide != saw.UnknownSide && b != r.Saw.NutSide {
			w.stop(say.Of("it is made for a nut on the %s, and this saw's is on the %s", b, r.Saw.NutSide), say.Of("rebuild it as its instructions say"))
		}
	default:
		stack, err := t.Set.Stack(t.Estimate, r.Width)
		if t.Now != nil {
			stack, err = t.Set.Made(t.Estimate, r.Width-t.Now.Off, t.Now.Counts), nil
			stack.Width += t.Now.Off
		}
		if err != nil {
			w.stop(say.Error(err), say.Line{})
			return w
		}
		w.Stack = &stack
		w.Width = stack.Width
		_, w.SD = t.Estimate.Foretold(t.Set.Use(stack.Counts))
		w.Slots, w.Clocked = t.Set.Order(stack.Counts, t.Blade.Teeth)
		w.Says = InStack(stack.Counts, t.Set.Parts)
		w.set(r, t)
		w.SetUp, w.Each = 2*r.Change+stackMinutes+tests*testMinutes, handling
		if t.Mounted {
			w.SetUp -= r.Change
		}
		if off := stack.Error; math.Abs(off.Mm()) > Near.Mm() && w.Verdict != verdict.Stop {
			w.Verdict = verdict.Caution
			w.Says = say.Of("%s; your parts make it %s %s", w.Says, say.Thin(measure.Length(math.Abs(off.Mm()))), WideOrNarrow(off))
		}
	}
	if w.Verdict == verdict.Stop {
		return w
	}
	if !w.Fits {
		w.Verdict = verdict.Caution
	}
	w.Minutes = w.SetUp + float64(r.Count)*w.Each
	return w
}

// inTwo is a groove that is wider than a set: two cuts with it, set to a little
// over half, the second made by moving the fence. That is sooner done, and leaves
// a flatter bottom, than many passes of one blade.
func (r Request) inTwo(t Tool) Way {
	half := r
	half.Width = r.Width/2 + twoOverlap/2
	shift := measure.Length(0)
	if t.Now != nil {
		now := *t.Now
		shift, now.Shift, t.Now = now.Shift, 0, &now
	}
	if half.Width > t.Set.widest(t.Estimate) {
		w := Way{}
		w.stop(say.Of("the groove is more than twice as wide as the set cuts"), say.Of("use another set, or rout it"))
		return w
	}
	w := half.way(t)
	if w.Verdict == verdict.Stop {
		return w
	}
	move := r.Width - w.Width + shift
	first := Pass{Fence: r.Edge, Centre: (w.Width - r.Width) / 2, Height: r.Depth}
	second := Pass{Fence: r.Edge + move, Centre: first.Centre + move, Height: r.Depth}
	w.Passes = []Pass{first, second}
	w.Says = say.Of("two cuts, moving the fence %s for the second: %s", say.Thin(move), w.Says)
	w.Width = r.Width
	w.SetUp, w.Each = w.SetUp+fenceMinutes, 2*w.Each
	w.Minutes = w.SetUp + float64(r.Count)*w.Each
	return w
}

// twoOverlap is by how much the second of two cuts with a set takes in the first.
const twoOverlap = measure.Length(3)

// OnDial is how a dial set stands, in words.
func OnDial(cutters int, turns float64) say.Line {
	return say.Of("%d cutters, the dial at %.2f turns", cutters, turns)
}

// InStack is what goes between the outer blades, in words.
func InStack(counts []int, parts []Part) say.Line {
	list := func(shim bool) say.And {
		var said say.And
		for i, n := range counts {
			switch p := parts[i]; {
			case n == 0 || p.Shim != shim:
			case n == 1:
				said = append(said, say.Of("%s", say.Thin(p.Thickness)))
			default:
				said = append(said, say.Of("%d × %s", n, say.Thin(p.Thickness)))
			}
		}
		return said
	}
	out := say.Of("the outer pair alone")
	if chippers := list(false); len(chippers) > 0 {
		out = say.Of("the outer pair, chippers %s", chippers)
	}
	if shims := list(true); len(shims) > 0 {
		out = say.Of("%s; shims %s", out, shims)
	}
	return out
}

const bottomPoints = 121

// set fills in what a stack and a dial set have in common: their bottom, their
// seat on the arbor, their insert.
func (w *Way) set(r Request, t Tool) {
	left, right := t.Set.Left, t.Set.Right
	if t.Set.Kind == Dialled {
		left, right = w.Width/3, w.Width/3
	}
	bottom := make([][2]measure.Length, bottomPoints)
	for i := range bottom {
		x := w.Width * measure.Length(float64(i)/float64(bottomPoints-1)-0.5)
		bottom[i] = [2]measure.Length{x, ear(x+w.Width/2, w.Width/2-x, left, right, t.Set.Ears)}
	}
	b := blade.Blade{Grind: blade.ATBR, Raker: t.Set.Ears, Kerf: w.Width, Bevel: 45}
	w.bottom(bottom, FlatEnoughFor(b))
	if t.Set.Ears == 0 {
		w.FlatFor = FlatEnoughFor(blade.Blade{Grind: blade.FTG})
	}
	w.Fits = t.Set.Ears <= 0.03 || t.Set.Ears <= 0.2 && !r.Shown
	on, insert := OnArbor(r.Saw, w.Width), InsertFor(w.Width, t.Blade.Diameter, r.Depth, r.Heel)
	w.Arbor, w.Insert = &on, &insert
	w.Needs = []say.Line{say.Of("its own throat plate, opened %s by %s by the stack itself, the fence %s clear", say.Set(insert.Width), say.Set(insert.Length), say.Set(insert.Fence))}
	if r.Saw.Brake != nil {
		w.Needs = append(w.Needs, say.Of("the brake cartridge for a dado stack of %s", t.Blade.Diameter))
	}
	switch on.Verdict {
	case verdict.Stop:
		w.stop(on.Says, say.Line{})
	case verdict.Caution:
		w.Verdict = verdict.Caution
	}
}

// ear is what stands at a distance from the left and the right wall: the points
// of an outer blade reach its full depth at the wall and the rest at its inner
// side.
func ear(fromLeft, fromRight, left, right, deep measure.Length) measure.Length {
	at := measure.Length(1)
	if left > 0 {
		at = min(at, fromLeft/left)
	}
	if right > 0 {
		at = min(at, fromRight/right)
	}
	return deep * max(0, at)
}

func (w *Way) bottom(p [][2]measure.Length, flatFor say.Line) {
	w.Bottom, w.FlatFor = p, flatFor
	for _, at := range p {
		w.Ridge = max(w.Ridge, at[1])
	}
}

func (w *Way) stop(why, wayOut say.Line) {
	w.Verdict, w.Says, w.Fits = verdict.Stop, why, false
	if !wayOut.Zero() {
		w.Says = say.Of("%s; %s", why, wayOut)
	}
}

// WideOrNarrow says which way a groove is off.
func WideOrNarrow(off measure.Length) say.Line {
	if off > 0 {
		return say.Of("wide")
	}
	return say.Of("narrow")
}

func step(p []Pass) measure.Length {
	if len(p) < 2 {
		return 0
	}
	return p[1].Fence - p[0].Fence
}

// pay says of each way what its setting up buys against the one that is
// quickest to set up: from how many grooves on it pays.
func (r Request) pay(ways []Way) {
	quick := -1
	for i, w := range ways {
		if w.Verdict != verdict.Stop && w.Fits && (quick < 0 || w.SetUp < ways[quick].SetUp) {
			quick = i
		}
	}
	for i := range ways {
		w := &ways[i]
		if w.Verdict == verdict.Stop || quick < 0 || i == quick || w.SetUp <= ways[quick].SetUp {
			continue
		}
		q := ways[quick]
		saved := float64(r.Count)*(q.Each-w.Each) - (w.SetUp - q.SetUp)
		from := math.Ceil((w.SetUp - q.SetUp) / (q.Each - w.Each))
		switch {
		case q.Each <= w.Each:
			w.Pays = say.Of("costs %.0f min more", -saved)
		case math.Abs(saved) < 0.5:
			w.Pays = say.Of("takes as long on %d; pays from groove %.0f on", r.Count, from)
		case saved > 0:
			w.Pays = say.Of("saves %.0f min on %d; pays from groove %.0f on", saved, r.Count, from)
		default:
			w.Pays = say.Of("costs %.0f min more on %d; pays from groove %.0f on", -saved, r.Count, from)
		}
	}
}
