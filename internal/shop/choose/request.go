package choose

import (
	"context"
	"time"

	"github.com/google/uuid"

	"corte/core/choose"
	"corte/core/cut"
	"corte/core/learn"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/say"
	"corte/internal/record"
	"corte/internal/refusal"
)

// A request is one cut on one saw, and what the shop's own cuts have taught of
// its material.
type Request struct {
	choose.Request
	learnt  learn.Correction // zero where nothing was, or where it is switched off
	Table   material.Material
	wobbles map[uuid.UUID]record.Wobble // how blades were last measured, where a wall is looked at
	zone    string                      // the shop's
	stands  choose.Verdict              // of what stands against the cut on its saw
}

// InUse refuses a saw that was retired. What was cut on one before that is
// still logged and traced.
func InUse(w record.Saw, field string) error {
	if w.Retired != nil {
		return refusal.Of(field, "%s is retired. Bring it back, or choose another saw", w.Name)
	}
	return nil
}

// MayGoOn refuses a blade that is retired, that its log keeps off every saw, or
// that has a stop. to names what the stops forbid, such as "make this cut".
func MayGoOn(b record.Blade, stops []choose.Stop, to say.Line) error {
	if b.Retired != nil {
		return refusal.Of("blade_id", "%s is retired. Bring it back first", b.Name)
	}
	if bar := choose.Bar(b.Condition); bar != nil {
		return refusal.Of("blade_id", "%s can't be mounted: %s. %s", b.Name, bar.Why, bar.WayOut.Upper())
	}
	if len(stops) > 0 {
		return refusal.Of("blade_id", "%s can't %s: %s. %s", b.Name, to, stops[0].Why, stops[0].WayOut.Upper())
	}
	return nil
}

// Request loads the saw of a cut and settles and checks the cut on it.
func (s Station) Request(ctx context.Context, shop uuid.UUID, c record.Cut) (record.Saw, cut.Job, Request, error) {
	fail := func(err error) (record.Saw, cut.Job, Request, error) {
		return record.Saw{}, cut.Job{}, Request{}, err
	}
	w, err := s.Saw(ctx, shop, c.SawID)
	if err != nil {
		return fail(refusal.NotThere(err, "cut.saw_id", "saw"))
	}
	j, err := c.Job(w)
	if err != nil {
		return fail(refusal.Placed(err, "cut"))
	}
	if err := choose.CheckJob(j, w.Saw); err != nil {
		return fail(refusal.Placed(err, "cut"))
	}
	r := Request{Table: j.Material}
	if w.Learning && j.Material.Kind.Modelled() {
		lessons, err := s.Lessons(ctx, shop, j.Material.ID)
		if err != nil {
			return fail(err)
		}
		if len(lessons) > 0 {
			r.learnt = lessons[0].Correction
			j.Material = r.learnt.Apply(j.Material)
		}
	}
	if j.Finish.WallLimit() > 0 {
		if r.wobbles, err = s.Wobbles(ctx, shop, w.ID); err != nil {
			return fail(err)
		}
	}
	heel, _ := meets(j, w)
	r.zone = w.Zone
	r.Request = choose.Request{Job: j, Saw: w.Saw, Heel: heel, ChangeMinutes: w.ChangeMinutes, School: w.School, Rework: w.Rework, Tolerances: w.HeldTo(),
		Doubt: cut.Doubt{Scorch: r.learnt.SDScorch, Splinter: r.learnt.SDSplinter}}
	r.stands = Worst(Findings(j, w))
	return w, j, r, nil
}

// Candidate is a blade of the rack as the choice sees it: as its log says, and
// as it was last measured on this saw.
func (r Request) Candidate(b record.Blade, w record.Saw) choose.Candidate {
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
func (r Request) sure() say.Line {
	switch n := r.learnt.Cuts; n {
	case 0:
		return say.Of("from the table")
	case 1:
		return say.Of("from 1 cut here")
	default:
		return say.Of("from %d cuts here", n)
	}
}

func (r Request) setting(w record.Saw, blade uuid.UUID, j cut.Job, h measure.Length, f cut.Figures) Setting {
	j.Height = h
	at := Setting{Height: h, Figures: f, Through: choose.Parts(j, w.Saw), Verdict: choose.Judge(f), SplinterLimit: j.SplinterLimit(), WallLimit: j.Finish.WallLimit(),
		Fade: f.Window.Fade(r.Doubt), Minutes: f.Minutes(j, r.Rework), Pieces: j.Count(), WallFrom: r.wallFrom(blade)}
	at.ExitName, at.OtherName = cut.FaceNames(j.Motion, w.Kind.CarriesWork())
	if !at.Through || choose.SpoilsBed(j) {
		at.Verdict = choose.Caution
	}
	at.Verdict = max(at.Verdict, onlyHalt(r.stands))
	if at.Fade.Turns(f.Window, cut.FairRoom) {
		at.Hedge = r.sure()
	}
	if j.Motion == cut.Chop {
		at.Stroke = f.Feed.Seconds(j.FeedLength())
	}
	return at
}

// wallFrom says where the figures of wall marks are from.
func (r Request) wallFrom(blade uuid.UUID) say.Line {
	if r.Job.Finish.WallLimit() == 0 || !r.Job.Material.Kind.Modelled() {
		return say.Line{}
	}
	w := r.wobbles[blade]
	part := func(v float64, at time.Time, what say.Line) say.Line {
		if v == 0 {
			return say.Of("usual %s, never measured here", what)
		}
		return say.Of("%s %s, measured on %s", what, say.Thin(v), record.Day(at, r.zone))
	}
	return say.Of("%s; %s", part(w.Spread, w.SpreadAt, say.Of("side clearance")), part(w.RunOut, w.RunOutAt, say.Of("run-out")))
}

func PastReach(field string, h, full measure.Length) error {
	return refusal.Of(field, "%s is beyond this saw's cutting depth with this blade, %s", h, full)
}

// Fit loads a blade and makes sure that it may go on this saw for this job.
func (s Station) Fit(ctx context.Context, shop, id uuid.UUID, w record.Saw, j cut.Job, r Request) (choose.Candidate, error) {
	b, err := s.Blade(ctx, shop, id)
	if err != nil {
		return choose.Candidate{}, refusal.NotThere(err, "blade_id", "blade")
	}
	if err := MayGoOn(b, choose.Stops(b.Blade, j, w.Saw), say.Of("make this cut")); err != nil {
		return choose.Candidate{}, err
	}
	return r.Candidate(b, w), nil
}
