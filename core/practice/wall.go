package practice

import (
	"math/rand/v2"
	"slices"

	"corte/core/choose"
	"corte/core/fault"
	"corte/core/say"
	"corte/core/trace"
)

// A Hidden is a fault to be found, with what is known of it at first.
type Hidden struct {
	trace.Hidden
	Saw    string
	State  map[string]float64 // of the blade, as the shop's records have it
	Seen   []trace.Sign       // on the piece
	Checks []trace.Check      // that can be made
	own    way
}

// A way is how a fault was looked for.
type way struct {
	checks  []string
	minutes float64
	cause   string
}

const (
	offered  = 5  // reasons to choose from
	mostOwn  = 12 // checks after which Trace gives up too
	shownWay = 8  // checks that are offered, at least where there are so many
)

// wall hides a fault that Trace itself would find. The harder, the fewer signs.
func (t *Task) wall(r *rand.Rand) {
	for {
		kind := pick(r, "table", "table", "miter", "circular")
		h := &Hidden{Hidden: trace.Hide(r, kind, 4-t.Level), Saw: kind}
		h.State = map[string]float64{"sharpness": 1 + 0.9*r.Float64(), "pitch_level": 1.8 * r.Float64()}
		switch h.Cause { // a blade is not always as its records say, but these are what they are of
		case "edge-dull":
			h.State["sharpness"] = 1.8 + 0.7*r.Float64()
		case "blade-pitchy":
			h.State["pitch_level"] = 1.4 + 1.6*r.Float64()
		}
		if h.own = h.search(); h.own.cause != h.Cause {
			continue
		}
		for _, id := range h.Present {
			s, _ := trace.SignByID(id)
			h.Seen = append(h.Seen, s)
		}
		w := trace.Weigh(h.evidence(nil))
		reasons := w.Reasons()
		likely := slices.IndexFunc(reasons, func(c trace.Reason) bool { return c.ID == h.Cause })
		if t.Level == easiest && likely > 2 {
			continue // what a beginner is shown looks like what it is
		}
		chosen := []trace.Reason{reasons[likely]}
		for _, c := range reasons {
			if len(chosen) < offered && c.ID != h.Cause && slices.Contains(c.On, kind) {
				chosen = append(chosen, c)
			}
		}
		// Checks that tell something of what is seen, not all that there are.
		for _, n := range w.Checks(nil) {
			if len(h.Checks) < shownWay || slices.Contains(h.own.checks, n.ID) {
				h.Checks = append(h.Checks, n.Check)
			}
		}
		for _, id := range h.own.checks {
			if !slices.ContainsFunc(h.Checks, func(k trace.Check) bool { return k.ID == id }) {
				k, _ := trace.CheckByID(id)
				h.Checks = append(h.Checks, k)
			}
		}
		for _, i := range r.Perm(len(chosen)) {
			t.Choices = append(t.Choices, Choice{Key: chosen[i].ID, Say: say.Word(chosen[i].Label)})
		}
		t.Case, t.truth = h, h.Cause
		t.Ask = say.Of("This was cut on a %s. Look, make the checks you need, and name the cause.", sawWords[kind])
		return
	}
}

var sawWords = map[string]say.Line{"table": say.Of("table saw"), "miter": say.Of("miter saw"), "circular": say.Of("hand-held circular saw")}

// evidence is what is known once checks were made.
func (h *Hidden) evidence(checks []string) trace.Evidence {
	e := trace.Evidence{Present: h.Present, Saw: h.Saw, State: h.State, Checks: map[string]bool{}}
	for _, s := range trace.Signs() {
		if s.Place != "groove" && !slices.Contains(h.Present, s.ID) {
			e.Absent = append(e.Absent, s.ID)
		}
	}
	for _, id := range checks {
		e.Checks[id] = h.Found(id)
	}
	return e
}

// search is Trace's own way: the check that tells most a minute, until one reason
// is as good as found.
func (h *Hidden) search() (w way) {
	for range mostOwn {
		b := trace.Weigh(h.evidence(w.checks))
		reasons := b.Reasons()
		if w.cause = reasons[0].ID; reasons[0].Share >= trace.ProvenAt {
			return w
		}
		next := b.Checks(nil)
		if len(next) == 0 {
			break
		}
		w.checks, w.minutes = append(w.checks, next[0].ID), w.minutes+next[0].Minutes
	}
	w.cause = "" // never as good as found
	return w
}

func (t Task) judgeWall(a Answer) (Verdict, error) {
	h := t.Case
	if !slices.ContainsFunc(t.Choices, func(c Choice) bool { return c.Key == a.Choice }) {
		return Verdict{}, fault.At("choice", "choose one of the causes shown")
	}
	var minutes float64
	var made []string
	for _, id := range a.Checks {
		i := slices.IndexFunc(h.Checks, func(k trace.Check) bool { return k.ID == id })
		if i < 0 || slices.Contains(made, id) {
			return Verdict{}, fault.At("checks", "make each check shown once")
		}
		made, minutes = append(made, id), minutes+h.Checks[i].Minutes
	}
	cause, _ := trace.CauseByID(h.Cause)
	v := Verdict{Right: a.Choice == h.Cause, Truth: h.Cause}
	v.Says = []say.Line{say.Of("It was: %s. %s", say.Word(cause.Label), say.Word(cause.Remedy))}
	all := slices.Concat(made, h.own.checks)
	slices.Sort(all)
	best := trace.Weigh(h.evidence(slices.Compact(all))).Reasons()
	i := slices.IndexFunc(best, func(c trace.Reason) bool { return c.ID == h.Cause })
	var gave say.And
	for _, id := range best[i].For {
		if s, ok := trace.SignByID(id); ok {
			gave = append(gave, say.Word(s.Label))
		} else if k, ok := trace.CheckByID(id); ok {
			gave = append(gave, say.Word(k.Label))
		}
	}
	if len(gave) > 0 {
		v.Says = append(v.Says, say.Of("What gave it away: %s.", gave))
	}
	v.Says = append(v.Says, say.Of("You took %s. Diagnose takes %s.", effort(len(a.Checks), minutes), effort(len(h.own.checks), h.own.minutes)))
	if len(h.own.checks) > 0 && !slices.Contains(made, h.own.checks[0]) {
		k, _ := trace.CheckByID(h.own.checks[0])
		v.Says = append(v.Says, say.Of("It starts with the check that tells most per minute: %s.", say.Word(k.Label)))
	}
	return v, nil
}

func effort(checks int, minutes float64) say.Line {
	switch checks {
	case 0:
		return say.Of("a look alone")
	case 1:
		return say.Of("one check, %s", choose.Took(minutes))
	}
	return say.Of("%d checks, %s", checks, choose.Took(minutes))
}
