package shop

import (
	"context"
	"errors"
	"fmt"
	"math"
	"strings"
	"time"

	"github.com/google/uuid"

	"corte/core/choose"
	"corte/core/cut"
	"corte/core/guide"
	"corte/core/learn"
	"corte/core/material"
	"corte/core/measure"
	"corte/internal/store"
)

// A Plan is every blade of the rack weighed for one cut.
type Plan struct {
	Saw      store.Saw
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
	HeelFrom string         // a phrase; empty if nothing was measured
	ShowFace string         // which way the face that will be seen lies: up or down
	Cautions []string
	Verdict  choose.Verdict  // of the cut on this saw, whatever blade is on it
	Findings []guide.Finding // what stands against it
	Fence    cut.Side        // of the blade that the fence goes to
	Exits    []cut.Support   // what can hold the faces where teeth leave
	Others   []cut.Support
	Learnt   []string // what the shop's own cuts correct in it, in words
	Sure     string   // how well the material's figures are known, in words
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
	WallFrom            string  // where side clearance and run-out are from
	Stroke              float64 // seconds that a chop takes; 0 for another cut
	Fade                cut.Fade
	Hedge               string // how well the verdict is known, where what is not known could turn it
	Minutes             cut.Minutes
	Pieces              int
}

// A Stopped is what stops some of the blades.
type Stopped struct {
	choose.Stop
	Blades []uuid.UUID
}

// Plan weighs every blade of the rack for a cut and tells of at most limit of
// those that may make it.
func (s *Service) Plan(ctx context.Context, shop uuid.UUID, c Cut, limit int, u measure.Unit) (Plan, error) {
	w, j, r, err := s.request(ctx, shop, c, u)
	if err == nil {
		err = inUse(w, "cut.saw_id")
	}
	if err != nil {
		return Plan{}, err
	}
	blades, err := s.st.Rack(ctx, shop)
	if err != nil {
		return Plan{}, err
	}
	rack := make([]choose.Candidate, len(blades))
	for i, b := range blades {
		rack[i] = r.candidate(b, w)
	}
	ranking := choose.Rank(r.Request, rack)
	p := Plan{Saw: w, Job: j, Total: len(ranking.Fit), Cautions: guide.Cautions(j, w.Saw), ShowFace: guide.ShowFace(j, w.Saw),
		Hold: guide.Hold(j, w.Saw, u), Findings: guide.Findings(j, w.Saw, u), Fence: guide.FenceSide(j, w.Saw), Sure: r.sure(), Options: make([]Option, min(limit, len(ranking.Fit)))}
	p.Heel, p.HeelFrom = meets(j, w, u)
	p.Learnt = r.learnt.Says(j.Material.Name)
	p.Exits, p.Others = choose.Supports(j, w.Saw)
	for _, f := range p.Findings {
		p.Verdict = max(p.Verdict, f.Verdict)
	}
	modelled := j.Material.Kind.Modelled()
	for i := range p.Options {
		o := ranking.Fit[i]
		c := rack[o.Index]
		out := Option{
			Blade: blades[o.Index].ID, Mounted: c.Mounted, Score: o.Score,
			Verdict: o.Verdict(modelled, c.State), Reasons: ranking.Reasons(r.Request, c, o),
			Heights: r.Heights(c.Blade), Minds: o.Minds, Level: o.Level,
		}
		if modelled {
			at := r.setting(w, blades[o.Index].ID, j, o.Height, o.Figures)
			out.Setting = &at
			if out.Verdict != choose.Clear {
				if change, ok := ranking.BestChange(r.Request, c, o); ok {
					out.Change = &Change{Change: change}
					if change.Blade >= 0 {
						instead := blades[change.Blade]
						out.Change.Blade, out.Change.Text = &instead.ID, strings.ReplaceAll(change.Text, "NAME", instead.Name)
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

// gather puts blades together that the same rule stops for the same reason.
func gather(stopped []choose.Option, blades []store.Blade) []Stopped {
	out := []Stopped{}
	place := map[choose.Stop]int{}
	for _, o := range stopped {
		first := o.Stops[0]
		i, seen := place[first]
		if !seen {
			i = len(out)
			place[first] = i
			out = append(out, Stopped{Stop: first})
		}
		out[i].Blades = append(out[i].Blades, blades[o.Index].ID)
	}
	return out
}

// named puts the blades' names into the sentence of a swap.
func named(s choose.Swap, blades []store.Blade, rack []choose.Candidate) *Swap {
	out := Swap{Swap: s, Best: &blades[s.Best].ID}
	on := ""
	for i, c := range rack {
		if c.Mounted {
			on = blades[i].Name
			out.On = &blades[i].ID
		}
	}
	out.Text = strings.NewReplacer("NAME", blades[s.Best].Name, "ON", on).Replace(s.Text)
	return &out
}

// A request is one cut on one saw, and what the shop's own cuts have taught of
// its material.
type request struct {
	choose.Request
	learnt  learn.Correction // zero where nothing was, or where it is switched off
	table   material.Material
	wobbles map[uuid.UUID]store.Wobble // how blades were last measured, where a wall is looked at
	unit    measure.Unit
	zone    string // the shop's
}

// inUse refuses a saw that was retired. What was cut on one before that is
// still logged and traced.
func inUse(w store.Saw, field string) error {
	if w.Retired != nil {
		return invalid(field, "%s is retired; put it back into use, or choose another saw", w.Name)
	}
	return nil
}

// request loads the saw of a cut and settles and checks the cut on it.
func (s *Service) request(ctx context.Context, shop uuid.UUID, c Cut, u measure.Unit) (store.Saw, cut.Job, request, error) {
	fail := func(err error) (store.Saw, cut.Job, request, error) {
		return store.Saw{}, cut.Job{}, request{}, err
	}
	w, err := s.st.Saw(ctx, shop, c.SawID)
	if err != nil {
		return fail(missing(err, "cut.saw_id", "saw"))
	}
	j, err := c.Job(w)
	if err != nil {
		return fail(err)
	}
	if err := choose.CheckJob(j, w.Saw, u); err != nil {
		return fail(refused(err, "cut"))
	}
	r := request{table: j.Material}
	if w.Learning && j.Material.Kind.Modelled() {
		lessons, err := s.st.Lessons(ctx, shop, j.Material.ID)
		if err != nil {
			return fail(err)
		}
		if len(lessons) > 0 {
			r.learnt = lessons[0].Correction
			j.Material = r.learnt.Apply(j.Material)
		}
	}
	if j.Finish.WallLimit() > 0 && j.Material.Kind.Modelled() {
		if r.wobbles, err = s.st.Wobbles(ctx, shop, w.ID); err != nil {
			return fail(err)
		}
	}
	heel, _ := meets(j, w, u)
	r.unit, r.zone = u, w.Zone
	r.Request = choose.Request{Job: j, Saw: w.Saw, Heel: heel, ChangeMinutes: w.ChangeMinutes, School: w.School, Unit: u, Rework: w.Rework,
		Doubt: cut.Doubt{Scorch: r.learnt.SDScorch, Splinter: r.learnt.SDSplinter}}
	return w, j, r, nil
}

// candidate is a blade of the rack as the choice sees it: as its log says, and
// as it was last measured on this saw.
func (r request) candidate(b store.Blade, w store.Saw) choose.Candidate {
	c := choose.Candidate{
		Blade: b.Blade, State: State(b.Blade, b.Condition),
		Mounted: w.Mounted != nil && *w.Mounted == b.ID, Barred: choose.Bar(b.Condition),
	}
	wobble := r.wobbles[b.ID]
	c.State.Spread, c.State.RunOut = measure.Length(wobble.Spread), measure.Length(wobble.RunOut)
	return c
}

// sure says how well the material's figures are known: what the table only
// guesses, and what the shop's own cuts made firmer.
func (r request) sure() string {
	switch n := r.learnt.Cuts; n {
	case 0:
		return "as far as the table knows"
	case 1:
		return "from 1 cut here"
	default:
		return fmt.Sprintf("from %d cuts here", n)
	}
}

func (r request) setting(w store.Saw, blade uuid.UUID, j cut.Job, h measure.Length, f cut.Figures) Setting {
	j.Height = h
	at := Setting{Height: h, Figures: f, Through: j.Parts(), Verdict: choose.Judge(f), SplinterLimit: j.SplinterLimit(), WallLimit: j.Finish.WallLimit(),
		Fade: f.Window.Fade(r.Doubt), Minutes: f.Minutes(j, r.Rework), Pieces: j.Count(), WallFrom: r.wallFrom(blade)}
	at.ExitName, at.OtherName = cut.FaceNames(j.Motion, w.Kind.CarriesWork())
	if !at.Through || choose.SpoilsBed(j) {
		at.Verdict = choose.Mind
	}
	if at.Fade.Turns(f.Window, cut.FairRoom) {
		at.Hedge = r.sure()
	}
	if j.Motion == cut.Chop {
		at.Stroke = f.Feed.Seconds(j.FeedLength())
	}
	return at
}

// wallFrom says where the figures of wall marks are from.
func (r request) wallFrom(blade uuid.UUID) string {
	if r.Job.Finish.WallLimit() == 0 || !r.Job.Material.Kind.Modelled() {
		return ""
	}
	w := r.wobbles[blade]
	part := func(v float64, at time.Time, name string) string {
		if v == 0 {
			return name + " taken as usual, never measured here"
		}
		return fmt.Sprintf("%s %s, measured on %s", name, measure.Length(v).Thin(r.unit), Day(at, r.zone))
	}
	return part(w.Spread, w.SpreadAt, "side clearance") + "; " + part(w.RunOut, w.RunOutAt, "run-out")
}

// A SweepSpec asks for one blade at every step of height, and perhaps at one
// more height that is not on the steps.
type SweepSpec struct {
	Blade uuid.UUID
	Step  measure.Length
	Also  measure.Length // 0 for none
}

// A Sweep is one blade at every step of height.
type Sweep struct {
	All     []Setting
	Also    *Setting // the one that was asked for beside the steps
	Schools []School // none where the cut leaves no choice
	Passes  []Pass   // none where one pass does
}

// A Pass is one of the passes of a cut that takes more than one.
type Pass struct {
	Name    string
	Scoring bool
	Setting
}

// A School is a school of setting a blade (craft section 4), and where it
// would set this one.
type School struct {
	Name string // proud, gullets or full
	Setting
}

// Sweep works out one blade at every height up to the saw's reach. A chop has
// no height and gives one setting.
func (s *Service) Sweep(ctx context.Context, shop uuid.UUID, c Cut, spec SweepSpec, u measure.Unit) (Sweep, error) {
	w, j, r, err := s.request(ctx, shop, c, u)
	if err == nil {
		err = inUse(w, "cut.saw_id")
	}
	if err != nil {
		return Sweep{}, err
	}
	if !j.Material.Kind.Modelled() {
		return Sweep{}, invalid("cut.material", "%s has no feed window; its blade is chosen by rule", j.Material.Name)
	}
	cand, err := s.fit(ctx, shop, spec.Blade, w, j, r, u)
	if err != nil {
		return Sweep{}, err
	}
	schools := r.Heights(cand.Blade)
	full := schools.Full
	at := func(h measure.Length) Setting { return r.setting(w, spec.Blade, j, h, choose.At(r.Request, cand, h)) }
	var out Sweep
	heights := []measure.Length{0}
	if j.Motion != cut.Chop {
		n := int(math.Floor(float64(full/spec.Step) + 1e-9))
		heights = make([]measure.Length, n)
		for i := range heights {
			heights[i] = spec.Step * measure.Length(i+1)
		}
		if spec.Also > 0 {
			if spec.Also > full {
				return Sweep{}, pastReach("also_mm", spec.Also, full, u)
			}
			one := at(spec.Also)
			out.Also = &one
		}
		if !schools.Exact {
			out.Schools = []School{{"proud", at(schools.Proud)}, {"gullets", at(schools.Gullets)}, {"full", at(schools.Full)}}
		}
		h := schools.Suggested
		if spec.Also > 0 {
			h = spec.Also
		}
		for _, p := range r.Passes(h) {
			out.Passes = append(out.Passes, Pass{p.Name, p.Scoring, r.setting(w, spec.Blade, p.Job, p.Height, choose.AtPass(r.Request, cand, p))})
		}
	}
	figures := make([]cut.Figures, len(heights))
	choose.Sweep(r.Request, cand, heights, figures)
	out.All = make([]Setting, len(heights))
	for i, h := range heights {
		out.All[i] = r.setting(w, spec.Blade, j, h, figures[i])
	}
	return out, nil
}

func pastReach(field string, h, full measure.Length, u measure.Unit) error {
	return invalid(field, "%s is past this saw's reach with this blade, %s", h.Format(u), full.Format(u))
}

// fit loads a blade and makes sure that it may go on this saw for this job.
func (s *Service) fit(ctx context.Context, shop, id uuid.UUID, w store.Saw, j cut.Job, r request, u measure.Unit) (choose.Candidate, error) {
	b, err := s.st.Blade(ctx, shop, id)
	if err != nil {
		return choose.Candidate{}, missing(err, "blade_id", "blade")
	}
	if b.Retired != nil {
		return choose.Candidate{}, invalid("blade_id", "%s is retired and does not go on; put it back on the rack first", b.Name)
	}
	if bar := choose.Bar(b.Condition); bar != nil {
		return choose.Candidate{}, invalid("blade_id", "%s does not go on: %s; %s", b.Name, bar.Why, bar.WayOut)
	}
	if stops := choose.Stops(b.Blade, j, w.Saw, u); len(stops) > 0 {
		return choose.Candidate{}, invalid("blade_id", "%s may not make this cut: %s; %s", b.Name, stops[0].Why, stops[0].WayOut)
	}
	return r.candidate(b, w), nil
}

// A Pin is a blade, and perhaps a height and supports, to compare.
type Pin struct {
	Blade       uuid.UUID
	Height      measure.Length // 0 for the suggested one
	Exit, Other *cut.Support
}

// A Compared is what became of a pin: a setting, or why it may not be.
type Compared struct {
	Pin
	Job     cut.Job
	Setting *Setting
	Refused string
}

// Compare puts blades and settings side by side for the same cut.
func (s *Service) Compare(ctx context.Context, shop uuid.UUID, c Cut, pins []Pin, u measure.Unit) (store.Saw, []Compared, error) {
	out := make([]Compared, len(pins))
	var saw store.Saw
	for i, pin := range pins {
		one := c
		if pin.Exit != nil {
			one.Exit = pin.Exit
		}
		if pin.Other != nil {
			one.Other = pin.Other
		}
		w, j, r, err := s.request(ctx, shop, one, u)
		if err == nil {
			err = inUse(w, "cut.saw_id")
		}
		if err != nil {
			return saw, nil, err
		}
		saw = w
		out[i] = Compared{Pin: pin, Job: j}
		cand, err := s.fit(ctx, shop, pin.Blade, w, j, r, u)
		var refused *Error
		switch {
		case errors.As(err, &refused):
			out[i].Refused = refused.Detail
			continue
		case err != nil:
			return saw, nil, err
		case !j.Material.Kind.Modelled():
			out[i].Refused = j.Material.Name + " has no feed window; its blade is chosen by rule"
			continue
		}
		h := r.Heights(cand.Blade)
		at := h.Suggested
		if pin.Height > 0 && j.Motion != cut.Chop {
			at = pin.Height
		}
		if at > h.Full && j.Motion != cut.Chop {
			out[i].Refused = pastReach("", at, h.Full, u).Error()
			continue
		}
		set := r.setting(w, pin.Blade, j, at, choose.At(r.Request, cand, at))
		out[i].Setting = &set
	}
	return saw, out, nil
}

// Supports says where four supports carry a board, and what comes of where
// they are now, if that is said.
func (s *Service) Supports(b guide.Board, now []measure.Length, u measure.Unit) (plan guide.SupportPlan, as *guide.SupportPlan, err error) {
	if err := b.Check(); err != nil {
		return plan, nil, refused(err)
	}
	plan = guide.PlanSupports(b, u)
	if len(now) > 0 {
		judged := guide.JudgeSupports(b, now, u)
		as = &judged
	}
	return plan, as, nil
}
