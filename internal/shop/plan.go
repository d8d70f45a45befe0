package shop

import (
	"context"
	"math"

	"github.com/google/uuid"

	"corte/core/choose"
	"corte/core/cut"
	"corte/core/guide"
	"corte/core/measure"
	"corte/internal/store"
)

// A Plan is every blade of the rack weighed for one cut.
type Plan struct {
	Saw      store.Saw
	Job      cut.Job // with everything settled but the height
	Options  []Option
	Stopped  []Stopped
	Ideal    *choose.Ideal
	ShowFace string // which way the face that will be seen lies: up or down
	Cautions []string
}

// An Option is a blade that may make the cut.
type Option struct {
	Blade   uuid.UUID
	Mounted bool
	Verdict choose.Verdict
	Score   float64
	Reasons []choose.Reason
	Heights choose.Heights
	Setting *Setting // nil where the material has no feed window
	Change  *choose.Change
}

// A Setting is a blade at a height, and what the model says of it.
type Setting struct {
	Height  measure.Length
	Verdict choose.Verdict
	Through bool
	cut.Figures
	ExitName, OtherName string  // the two faces where teeth leave
	SplinterLimit       float64 // what the finish bears
}

// A Stopped is a blade that may not make the cut.
type Stopped struct {
	Blade uuid.UUID
	Stops []choose.Stop
}

// Plan weighs every blade of the rack for a cut.
func (s *Service) Plan(ctx context.Context, shop uuid.UUID, c Cut, u measure.Unit) (Plan, error) {
	w, j, r, err := s.request(ctx, shop, c, u)
	if err != nil {
		return Plan{}, err
	}
	blades, err := s.st.Blades(ctx, shop, store.Place{}, 0)
	if err != nil {
		return Plan{}, err
	}
	rack := make([]choose.Candidate, len(blades))
	for i, b := range blades {
		rack[i] = candidate(b, w)
	}
	ranking := choose.Rank(r, rack)
	p := Plan{Saw: w, Job: j, Cautions: guide.Cautions(j, w.Saw), ShowFace: guide.ShowFace(j, w.Saw),
		Options: make([]Option, len(ranking.Fit)), Stopped: make([]Stopped, len(ranking.Stopped))}
	modelled := j.Material.Kind.Modelled()
	for i, o := range ranking.Fit {
		c := rack[o.Index]
		out := Option{
			Blade: blades[o.Index].ID, Mounted: c.Mounted, Score: o.Score,
			Verdict: o.Verdict(modelled, c.State), Reasons: ranking.Reasons(r, c, o),
			Heights: choose.SetHeights(j, c.Blade, w.Saw),
		}
		if modelled {
			at := setting(w, j, o.Height, o.Figures)
			out.Setting = &at
			if out.Verdict != choose.Clear {
				if change, ok := choose.BestChange(r, c, o); ok {
					out.Change = &change
				}
			}
		}
		p.Options[i] = out
	}
	for i, o := range ranking.Stopped {
		p.Stopped[i] = Stopped{blades[o.Index].ID, o.Stops}
	}
	if ideal, ok := choose.FindIdeal(r); ok {
		p.Ideal = &ideal
	}
	return p, nil
}

// request loads the saw of a cut and settles and checks the cut on it.
func (s *Service) request(ctx context.Context, shop uuid.UUID, c Cut, u measure.Unit) (store.Saw, cut.Job, choose.Request, error) {
	fail := func(err error) (store.Saw, cut.Job, choose.Request, error) {
		return store.Saw{}, cut.Job{}, choose.Request{}, err
	}
	w, err := s.st.Saw(ctx, shop, c.SawID)
	if err != nil {
		return fail(missing(err, "cut.saw_id", "saw"))
	}
	j, err := c.job(w)
	if err != nil {
		return fail(err)
	}
	if err := choose.CheckJob(j, w.Saw, u); err != nil {
		return fail(cutError(err))
	}
	return w, j, choose.Request{Job: j, Saw: w.Saw, Heel: w.Heel, ChangeMinutes: w.ChangeMinutes, Unit: u}, nil
}

func candidate(b store.Blade, w store.Saw) choose.Candidate {
	return choose.Candidate{
		Blade: b.Blade, State: State(b.Blade, b.Condition),
		Mounted: w.Mounted != nil && *w.Mounted == b.ID,
	}
}

func setting(w store.Saw, j cut.Job, h measure.Length, f cut.Figures) Setting {
	j.Height = h
	at := Setting{Height: h, Figures: f, Through: !j.NotThrough(), Verdict: choose.Judge(f), SplinterLimit: j.Finish.SplinterLimit()}
	at.ExitName, at.OtherName = cut.FaceNames(j.Motion, w.Kind.CarriesWork())
	if !at.Through {
		at.Verdict = choose.Mind
	}
	return at
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
	Schools []School // none for a chop
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
	if err != nil {
		return Sweep{}, err
	}
	if !j.Material.Kind.Modelled() {
		return Sweep{}, invalid("cut.material", "%s has no feed window; its blade is chosen by rule", j.Material.Name)
	}
	cand, err := s.fit(ctx, shop, spec.Blade, w, j, u)
	if err != nil {
		return Sweep{}, err
	}
	schools := choose.SetHeights(j, cand.Blade, w.Saw)
	full := schools.Full
	at := func(h measure.Length) Setting { return setting(w, j, h, choose.At(r, cand, h)) }
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
		out.Schools = []School{{"proud", at(schools.Proud)}, {"gullets", at(schools.Gullets)}, {"full", at(schools.Full)}}
	}
	figures := make([]cut.Figures, len(heights))
	choose.Sweep(r, cand, heights, figures)
	out.All = make([]Setting, len(heights))
	for i, h := range heights {
		out.All[i] = setting(w, j, h, figures[i])
	}
	return out, nil
}

func pastReach(field string, h, full measure.Length, u measure.Unit) error {
	return invalid(field, "%s is past this saw's reach with this blade, %s", h.Format(u), full.Format(u))
}

// fit loads a blade and makes sure that it may go on this saw for this job.
func (s *Service) fit(ctx context.Context, shop, id uuid.UUID, w store.Saw, j cut.Job, u measure.Unit) (choose.Candidate, error) {
	b, err := s.st.Blade(ctx, shop, id)
	if err != nil {
		return choose.Candidate{}, missing(err, "blade_id", "blade")
	}
	if stops := choose.Stops(b.Blade, j, w.Saw, u); len(stops) > 0 {
		return choose.Candidate{}, invalid("blade_id", "%s may not make this cut: %s; %s", b.Name, stops[0].Why, stops[0].WayOut)
	}
	return candidate(b, w), nil
}
