package shop

import (
	"context"

	"github.com/google/uuid"

	"corte/core/choose"
	"corte/core/joint"
	"corte/core/measure"
)

// PlanJoint works a joint or fold out for one blade on a saw. A blade that may
// not go on it is refused.
func (s *Service) PlanJoint(ctx context.Context, shop, saw, blade uuid.UUID, ask joint.Ask, u measure.Unit) (joint.Plan, error) {
	w, err := s.st.Saw(ctx, shop, saw)
	if err != nil {
		return joint.Plan{}, missing(err, "saw_id", "saw")
	}
	b, err := s.st.Blade(ctx, shop, blade)
	if err != nil {
		return joint.Plan{}, missing(err, "blade_id", "blade")
	}
	if err := inUse(w, "saw_id"); err != nil {
		return joint.Plan{}, err
	}
	if b.Retired != nil {
		return joint.Plan{}, invalid("blade_id", "%s is retired; put it back on the rack, or choose another blade", b.Name)
	}
	if bar := choose.Bar(b.Condition); bar != nil {
		return joint.Plan{}, invalid("blade_id", "%s does not go on: %s; %s", b.Name, bar.Why, bar.WayOut)
	}
	p, err := joint.Of(ask, joint.Tool{Blade: b.Blade, BladeName: b.Name, Saw: w.Saw, SawName: w.Name}, u)
	return p, refused(err)
}
