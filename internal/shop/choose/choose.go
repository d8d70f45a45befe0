// Package choose answers with which blade a cut is made, at which height and how fast.
package choose

import (
	"context"
	"slices"

	"github.com/google/uuid"

	"corte/core/choose"
	"corte/core/cut"
	"corte/core/guide"
	"corte/core/measure"
	"corte/core/say"
	"corte/internal/record"
	"corte/internal/refusal"
)

// A Shelf is where saws and blades are kept, with what was learnt and measured of
// them: the store, or what a browser last saw of it.
type Shelf interface {
	Saw(ctx context.Context, shop, id uuid.UUID) (record.Saw, error)
	Blade(ctx context.Context, shop, id uuid.UUID) (record.Blade, error)
	Rack(ctx context.Context, shop uuid.UUID) ([]record.Blade, error)
	Lessons(ctx context.Context, shop uuid.UUID, material string) ([]record.Lesson, error)
	Wobbles(ctx context.Context, shop, saw uuid.UUID) (map[uuid.UUID]record.Wobble, error)
	Alone(ctx context.Context, shop, saw uuid.UUID) (record.Alone, error)
}

// A Station does this work in every shop on one shelf. It holds no state, and
// knows no database.
type Station struct{ Shelf }

// At is the station over a shelf.
func At(s Shelf) Station { return Station{s} }

// A Plan is every blade of the rack weighed for one cut.
type Plan struct {
	Saw      record.Saw
	Job      cut.Job  // with everything settled but the height
	Options  []Option // the best ones
	Total    int      // how many may make the cut
	Stopped  []Stopped
	Ideal    *choose.Ideal
	Swap     *Swap
	Kerfs    *choose.KerfAdvice
	ByRule   *choose.Sheet
	Hold     []guide.Advice
	Heel     measure.Length // that the work meets
	HeelFrom say.Line       // a phrase; nothing if nothing was measured
	ShowFace string         // which way the face that will be seen lies: up or down
	Cautions []say.Line
	Verdict  choose.Verdict  // of the cut on this saw, whatever blade is on it
	Findings []guide.Finding // what stands against it
	Fence    cut.Side        // of the blade that the fence goes to
	Exits    []cut.Support   // what can hold the faces where teeth leave
	Others   []cut.Support
	Learnt   []say.Line // what the shop's own cuts correct in it, in words
	Sure     say.Line   // how well the material's figures are known, in words
}

// A Swap is whether to change the blade for one cut.
type Swap struct {
	choose.Swap
	On, Best *uuid.UUID
}

// An Option is a blade that may make the cut.
type Option struct {
	Blade   uuid.UUID
	Mounted bool
	Verdict choose.Verdict
	Score   float64
	Reasons []choose.Reason
	Minds   []choose.Stop // what is to be known or asked before it goes on
	Level   bool          // it is one of several at the head whose scores cannot be told apart
	Heights choose.Heights
	Setting *Setting // nil where the material has no feed window
	Change  *Change
}

// A Change is the one that would open an option's window most; Blade is the one
// to take instead, where that is it.
type Change struct {
	choose.Change
	Blade *uuid.UUID
}

// A Setting is a blade at a height, and what the model says of it.
type Setting struct {
	Height  measure.Length
	Verdict choose.Verdict
	Through bool // it does what the form asks: parts the work, or stops at its depth
	cut.Figures
	ExitName, OtherName string  // the two faces where teeth leave
	SplinterLimit       float64 // what the finish bears
	WallLimit           measure.Length
	WallFrom            say.Line // where side clearance and run-out are from
	Stroke              float64  // seconds that a chop takes; 0 for another cut
	Fade                cut.Fade
	Hedge               say.Line // how well the verdict is known, where what is not known could turn it
	Minutes             cut.Minutes
	Pieces              int
}

// A Stopped is what stops some of the blades.
type Stopped struct {
	choose.Stop
	Blades []uuid.UUID
}

// Findings is what stands against a job on a saw as it was last measured, stops
// first; whoever may not make it is another matter.
func Findings(j cut.Job, w record.Saw) []guide.Finding {
	return guide.Findings(j, w.Saw, w.Alignment(), w.HeldTo())
}

// Worst is the gravest verdict of findings.
func Worst(found []guide.Finding) (v choose.Verdict) {
	for _, f := range found {
		v = max(v, f.Verdict)
	}
	return v
}

// WithSignOff adds that whoever asks is not signed off for a job on a saw, where
// they are not and the shop asks for it; stops stay first.
func (s Station) WithSignOff(ctx context.Context, shop uuid.UUID, found []guide.Finding, j cut.Job, w record.Saw) ([]guide.Finding, error) {
	a, err := s.Alone(ctx, shop, w.ID)
	if err != nil || !a.Asked || slices.Contains(a.Cuts, string(guide.DutyOf(j))) {
		return found, err
	}
	f, ok := guide.NotSignedOff(j, w.Name, a.Stop)
	switch {
	case !ok:
		return found, nil
	case f.Verdict == choose.Halt:
		return append([]guide.Finding{f}, found...), nil
	}
	return append(found, f), nil
}

// Plan weighs every blade of the rack for a cut and tells of at most limit of
// those that may make it.
func (s Station) Plan(ctx context.Context, shop uuid.UUID, c record.Cut, limit int) (Plan, error) {
	w, j, r, err := s.Request(ctx, shop, c)
	if err == nil {
		err = InUse(w, "cut.saw_id")
	}
	if err != nil {
		return Plan{}, err
	}
	blades, err := s.Rack(ctx, shop)
	if err != nil {
		return Plan{}, err
	}
	rack := make([]choose.Candidate, len(blades))
	for i, b := range blades {
		rack[i] = r.Candidate(b, w)
	}
	ranking := choose.Rank(r.Request, rack)
	p := Plan{Saw: w, Job: j, Total: len(ranking.Fit), Cautions: guide.Cautions(j, w.Saw), ShowFace: guide.ShowFace(j, w.Saw),
		Hold: guide.Hold(j, w.Saw), Findings: Findings(j, w), Fence: guide.FenceSide(j, w.Saw), Sure: r.sure(), Options: make([]Option, min(limit, len(ranking.Fit)))}
	p.Heel, p.HeelFrom = meets(j, w)
	p.Learnt = r.learnt.Says(say.Word(j.Material.Name))
	p.Exits, p.Others = choose.Supports(j, w.Saw)
	if p.Findings, err = s.WithSignOff(ctx, shop, p.Findings, j, w); err != nil {
		return Plan{}, err
	}
	if p.Verdict = Worst(p.Findings); p.Total == 0 {
		p.Verdict = choose.Halt
	}
	if p.Verdict == choose.Halt { // no set-up beside a stop, but what it would take
		p.Hold = slices.DeleteFunc(p.Hold, func(a guide.Advice) bool { return !a.Halt })
	}
	modelled := j.Material.Kind.Modelled()
	for i := range p.Options {
		o := ranking.Fit[i]
		c := rack[o.Index]
		out := Option{
			Blade: blades[o.Index].ID, Mounted: c.Mounted, Score: o.Score,
			Verdict: max(o.Verdict(modelled, c.State), onlyHalt(p.Verdict)), Reasons: ranking.Reasons(r.Request, c, o),
			Heights: r.Heights(c.Blade), Minds: o.Minds, Level: o.Level,
		}
		if modelled {
			r.stands = p.Verdict
			at := r.setting(w, blades[o.Index].ID, j, o.Height, o.Figures)
			out.Setting = &at
			if out.Verdict == choose.Caution {
				if change, ok := ranking.BestChange(r.Request, c, o); ok {
					out.Change = &Change{Change: change}
					if change.Blade >= 0 {
						instead := blades[change.Blade]
						out.Change.Blade, out.Change.Text = &instead.ID, change.Text.Filled(map[say.Stand]string{choose.Other: instead.Name})
					}
				}
			}
		}
		p.Options[i] = out
	}
	p.Stopped = gather(ranking.Stopped, blades)
	if ideal, ok := choose.FindIdeal(r.Request); ok {
		p.Ideal = &ideal
	}
	if sheet, ok := choose.RuleSheet(j.Material, w.Saw); ok {
		p.ByRule = &sheet
	}
	if p.Verdict == choose.Halt {
		return p, nil
	}
	if swap, ok := ranking.Swap(r.Request, rack); ok {
		p.Swap = named(swap, blades, rack)
	}
	if len(ranking.Fit) > 0 {
		if kerfs, ok := choose.Kerfs(r.Request, rack[ranking.Fit[0].Index].Blade); ok {
			p.Kerfs = &kerfs
		}
	}
	return p, nil
}

// onlyHalt is a verdict that forbids, or clear: a caution of the saw is said once,
// beside the blades and not of each.
func onlyHalt(v choose.Verdict) choose.Verdict {
	if v == choose.Halt {
		return v
	}
	return choose.Clear
}

// gather puts blades together that the same rule stops for the same reason.
func gather(stopped []choose.Option, blades []record.Blade) []Stopped {
	out := []Stopped{}
	place := map[string]int{}
	for _, o := range stopped {
		first := o.Stops[0]
		says := say.Of("%s %s %s", first.Rule, first.Why, first.WayOut).String()
		i, seen := place[says]
		if !seen {
			i = len(out)
			place[says] = i
			out = append(out, Stopped{Stop: first})
		}
		out[i].Blades = append(out[i].Blades, blades[o.Index].ID)
	}
	return out
}

// named puts the blades' names into the sentence of a swap.
func named(s choose.Swap, blades []record.Blade, rack []choose.Candidate) *Swap {
	out := Swap{Swap: s, Best: &blades[s.Best].ID}
	on := ""
	for i, c := range rack {
		if c.Mounted {
			on = blades[i].Name
			out.On = &blades[i].ID
		}
	}
	out.Text = s.Text.Filled(map[say.Stand]string{choose.Other: blades[s.Best].Name, choose.OnIt: on})
	return &out
}

// Supports says where four supports carry a board, and what comes of where
// they are now, if that is said.
func (s Station) Supports(b guide.Board, now []measure.Length) (plan guide.SupportPlan, as *guide.SupportPlan, err error) {
	if err := b.Check(); err != nil {
		return plan, nil, refusal.Placed(err)
	}
	plan = guide.PlanSupports(b)
	if len(now) > 0 {
		judged := guide.JudgeSupports(b, now)
		as = &judged
	}
	return plan, as, nil
}
