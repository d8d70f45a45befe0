package choose

import (
	"context"
	"math"

	"github.com/google/uuid"

	"corte/core/choose"
	"corte/core/cut"
	"corte/core/measure"
	"corte/internal/record"
	"corte/internal/refusal"
)

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
func (s Station) Sweep(ctx context.Context, shop uuid.UUID, c record.Cut, spec SweepSpec) (Sweep, error) {
	w, j, r, err := s.Request(ctx, shop, c)
	if err == nil {
		err = InUse(w, "cut.saw_id")
	}
	if err != nil {
		return Sweep{}, err
	}
	if !j.Material.Kind.Modelled() {
		return Sweep{}, refusal.Of("cut.material", "%s has no feed range. Its blade is chosen by rule", j.Material)
	}
	cand, err := s.Fit(ctx, shop, spec.Blade, w, j, r)
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
				return Sweep{}, PastReach("also_mm", spec.Also, full)
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
