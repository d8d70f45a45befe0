// Package joint lays out the cuts of a joint on a saw.
package joint

import (
	"context"
	"slices"

	"github.com/google/uuid"

	"corte/core/blade"
	"corte/core/choose"
	"corte/core/joint"
	"corte/core/say"
	"corte/internal/refusal"
	shopchoose "corte/internal/shop/choose"
	"corte/internal/shop/env"
	"corte/internal/store"
)

// A Station does this work in every shop on one database. It holds no state.
type Station struct{ *env.Env }

// At is the station over an environment: a database, or a transaction of one.
func At(k *env.Env) Station { return Station{k} }

// A Plan is a joint worked out, and the blade that it was worked out for.
type Plan struct {
	joint.Plan
	Blade uuid.UUID
}

// Plan works a joint or fold out for one blade on a saw, or for the likeliest
// where none is named. A blade that may not go on it is refused.
func (s Station) Plan(ctx context.Context, shop, saw uuid.UUID, named *uuid.UUID, ask joint.Ask) (Plan, error) {
	w, err := s.Store.Saw(ctx, shop, saw)
	if err != nil {
		return Plan{}, refusal.NotThere(err, "saw_id", "saw")
	}
	b, err := s.blade(ctx, shop, w, named, ask.Kind)
	if err != nil {
		return Plan{}, err
	}
	if err := shopchoose.InUse(w, "saw_id"); err != nil {
		return Plan{}, err
	}
	if err := shopchoose.MayGoOn(b, nil, say.Line{}); err != nil { // joint.Of has the rules of its tools
		return Plan{}, err
	}
	p, err := joint.Of(ask, joint.Tool{Blade: b.Blade, BladeName: b.Name, Saw: w.Saw, SawName: w.Name})
	return Plan{p, b.ID}, refusal.Placed(err)
}

// blade is the one that is named, or the likeliest of those that may go on.
func (s Station) blade(ctx context.Context, shop uuid.UUID, w store.Saw, named *uuid.UUID, kind string) (store.Blade, error) {
	if named != nil {
		b, err := s.Store.Blade(ctx, shop, *named)
		return b, refusal.NotThere(err, "blade_id", "blade")
	}
	rack, err := s.Store.Blades(ctx, shop, store.Place{}, 0)
	if err != nil {
		return store.Blade{}, err
	}
	rack = slices.DeleteFunc(rack, func(b store.Blade) bool { return choose.Bar(b.Condition) != nil })
	blades := make([]blade.Blade, len(rack))
	for i, b := range rack {
		blades[i] = b.Blade
	}
	i := joint.Likeliest(kind, blades, w.Saw)
	if i < 0 {
		return store.Blade{}, refusal.Of("blade_id", "none of your blades can be used on %s for a joint. Add one, or choose another saw", w.Name)
	}
	return rack[i], nil
}
