// Package joint lays out the cuts of a joint on a saw.
package joint

import (
	"context"

	"github.com/google/uuid"

	"corte/core/choose"
	"corte/core/joint"
	"corte/core/measure"
	shopchoose "corte/internal/shop/choose"
	"corte/internal/shop/kit"
)

// A Station does this work in every shop on one database. It holds no state.
type Station struct{ *kit.Kit }

// At is the station over a kit.
func At(k *kit.Kit) Station { return Station{k} }

// Plan works a joint or fold out for one blade on a saw. A blade that may
// not go on it is refused.
func (s Station) Plan(ctx context.Context, shop, saw, blade uuid.UUID, ask joint.Ask, u measure.Unit) (joint.Plan, error) {
	w, err := s.Store.Saw(ctx, shop, saw)
	if err != nil {
		return joint.Plan{}, kit.NotThere(err, "saw_id", "saw")
	}
	b, err := s.Store.Blade(ctx, shop, blade)
	if err != nil {
		return joint.Plan{}, kit.NotThere(err, "blade_id", "blade")
	}
	if err := shopchoose.InUse(w, "saw_id"); err != nil {
		return joint.Plan{}, err
	}
	if b.Retired != nil {
		return joint.Plan{}, kit.Refuse("blade_id", "%s is retired; put it back on the rack, or choose another blade", b.Name)
	}
	if bar := choose.Bar(b.Condition); bar != nil {
		return joint.Plan{}, kit.Refuse("blade_id", "%s does not go on: %s; %s", b.Name, bar.Why, bar.WayOut)
	}
	p, err := joint.Of(ask, joint.Tool{Blade: b.Blade, BladeName: b.Name, Saw: w.Saw, SawName: w.Name}, u)
	return p, kit.Placed(err)
}
