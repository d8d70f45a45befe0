package practice

import (
	"math/rand/v2"
	"slices"

	"corte/core/blade"
	"corte/core/cut"
	"corte/core/fault"
	"corte/core/guide"
	"corte/core/measure"
	"corte/core/mount"
	"corte/core/saw"
	"corte/core/say"
	"corte/core/starter"
)

func (t *Task) setUp(r *rand.Rand) {
	switch t.Skill.Of() {
	case "supports":
		t.supports(r)
	case "trap":
		t.trap(r)
	case "face":
		t.face(r)
	default:
		t.order(r)
	}
}

// supports gives a board and supports that do not hold it.
func (t *Task) supports(r *rand.Rand) {
	for {
		b := guide.Board{Material: wood(pick(r, "birch-ply", "mdf", "white-pine", "red-oak")), Thickness: measure.Length(15 + 3*r.IntN(4)), Span: measure.Length(1200 + 100*r.IntN(13)), Breadth: measure.Length(300 + 100*r.IntN(10))}
		from := []float64{0.4, 0.3, 0.2}[t.Level-1] // the further out the line, the harder
		b.Line = measure.Length(float64(int(b.Span.Mm()*(from+0.2*r.Float64())/10)) * 10)
		if !guide.PlanSupports(b).Holds() {
			continue // a piece that nothing carries is no exercise
		}
		at := make([]measure.Length, 4)
		for i := range at {
			at[i] = measure.Length(float64(int(b.Span.Mm()*(0.05+0.9*r.Float64())/10)) * 10)
		}
		slices.Sort(at)
		if guide.JudgeSupports(b, at).Holds() {
			continue
		}
		t.Board, t.At = &b, at
		t.Ask = say.Of("You cut a board of %s, %s thick, in two on the line with a hand-held saw. Move the supports so both halves stay still during and after the cut. Then cut.", say.Word(b.Material.Name), say.Set(b.Thickness))
		return
	}
}

func (t Task) judgeSupports(a Answer) (Verdict, error) {
	if len(a.Places) != len(t.At) {
		return Verdict{}, fault.At("places", "place all %d supports", len(t.At))
	}
	for _, x := range a.Places {
		if !(x >= 0 && x <= t.Board.Span) {
			return Verdict{}, fault.At("places", "place each support along the board, from 0 to %s", t.Board.Span)
		}
	}
	p := guide.JudgeSupports(*t.Board, a.Places)
	return Verdict{Right: p.Holds(), Says: p.Text, Supports: &p}, nil
}

// trap asks for the set-up in which nothing is caught.
func (t *Task) trap(r *rand.Rand) {
	var plans []Plan // the first is right
	if t.Level > 1 && r.IntN(2) == 0 {
		leans := pick(r, cut.Left, cut.Right)
		good := safe(cut.Rip, r)
		good.Leans, good.FenceSide = leans, leans.Opposite()
		bad := good
		bad.FenceSide = leans
		plans = []Plan{good, bad}
		t.Ask = say.Of("A bevel rip: the blade tilts to the %s. On which side does the fence go?", leans)
	} else {
		good := safe(cut.Crosscut, r)
		good.Stop = OnGauge
		if r.IntN(2) == 0 {
			good.Stop, good.Block, good.Fence = BeforeIt, guide.StopBlock, true
		}
		beside, narrow, bare := good, good, good
		beside.Stop, beside.Block, beside.Fence = BesideIt, guide.StopBlock, true
		narrow.Stop, narrow.Block, narrow.Fence = BeforeIt, 20, true
		bare.Stop, bare.Fence = FenceStop, true
		plans = []Plan{good, beside, bare, narrow}[:min(4, 2+t.Level)]
		t.Ask = say.Of("Many pieces of one length, crosscut on the gauge. With which stop does every piece come free?")
	}
	t.show(r, plans)
	t.why = []say.Line{Offcut.Means()}
}

// show offers plans in any order; the first is the right one.
func (t *Task) show(r *rand.Rand, plans []Plan) {
	for i, from := range r.Perm(len(plans)) {
		if from == 0 {
			t.truth = letters[i]
		}
		t.Choices = append(t.Choices, Choice{Key: letters[i], Plan: &plans[from]})
	}
}

func (t *Task) face(r *rand.Rand) {
	w := starter.Saw(pick(r, saw.Table, saw.Miter, saw.Circular))
	j := cut.Job{Direction: cut.Crosscut}
	if w.Kind == saw.Miter {
		j.Motion = cut.Chop
		if r.IntN(2) == 0 {
			w.Sliding, j.Motion = true, cut.Push
		}
	}
	t.truth = guide.ShowFace(j, w)
	on := say.Of("on a table saw")
	enter := say.Of("The teeth come down into the top face, which stays clean. They tear out the bottom face.")
	switch {
	case w.Kind == saw.Circular:
		on = say.Of("with a hand-held circular saw")
		enter = say.Of("The teeth come up from below and tear out the top face. Put the show face down.")
	case j.Motion == cut.Push:
		on = say.Of("on a miter saw that is pushed from front to back")
		enter = say.Of("When you push, the teeth come up through the board and tear out the top face. Put the show face down.")
	case w.Kind == saw.Miter:
		on = say.Of("on a miter saw, straight down")
		enter = say.Of("The teeth come down into the top face, which stays clean.")
	}
	t.Ask = say.Of("You cut veneered plywood %s. Which way does the show face go?", on)
	t.Choices = []Choice{{Key: "up", Say: say.Of("Up")}, {Key: "down", Say: say.Of("Down")}}
	t.why = []say.Line{enter}
}

// mistakes are steps of a blade change that stand behind another where they may
// not, and what comes of it.
var mistakes = []struct{ step, behind, why string }{
	{"power", "undo", "Your hands are at the teeth before the power is off. Power off comes first, every time."},
	{"flange", "nut", "With the nut on you can't wipe the flanges. A speck there moves the rim ten times as much."},
	{"teeth", "spin", "Check the tooth direction while you put the blade on. After the nut it would all have to come off again, or run backward."},
	{"nut", "test", "You ran it before the nut was on."},
	{"spin", "test", "Turn it by hand before you run it. If it touches something under power, teeth break."},
	{"lock", "flange", "The nut doesn't come off while the arbor turns. Hold the arbor first."},
}

func (t *Task) order(r *rand.Rand) {
	w := starter.Saw(pick(r, saw.Table, saw.Miter, saw.Circular))
	w.Lock = r.IntN(2) == 0
	if w.Kind == saw.Table {
		w.Knife = 2.5
	}
	steps := mount.Steps(mount.Case{Saw: w, Blade: blade.Blade{Diameter: w.Diameter, Bore: w.Arbor, Kerf: 3.2, Plate: 2.2, Teeth: 40, Grind: blade.ATB, Bevel: 15, Hook: 10, MaxRPM: 9000}, Off: "The other blade"})
	at := func(id string) int {
		return slices.IndexFunc(steps, func(s mount.Step) bool { return s.ID == id })
	}
	for {
		m := pick(r, mistakes...)
		from, to := at(m.step), at(m.behind)
		if from < 0 || to < from+2 { // of two neighbours either could be the one that stands wrongly
			continue
		}
		moved := steps[from]
		steps = slices.Insert(slices.Delete(slices.Clone(steps), from, from+1), to, moved)
		t.truth = moved.ID
		t.why = []say.Line{say.Word(m.why)}
		break
	}
	t.Ask = say.Of("%s: a blade change, step by step. One step is in the wrong place. Which?", changeOn[w.Kind])
	for _, s := range steps {
		t.Choices = append(t.Choices, Choice{Key: s.ID, Say: s.Title})
	}
}

var changeOn = map[saw.Kind]say.Line{saw.Table: say.Of("On a table saw"), saw.Miter: say.Of("On a miter saw"), saw.Circular: say.Of("On a hand-held saw")}
