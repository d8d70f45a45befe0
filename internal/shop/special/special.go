// Package special works out the cuts that need a set-up of their own, for a saw
// and a blade of the shop.
package special

import (
	"context"

	"github.com/google/uuid"

	"corte/core/choose"
	"corte/core/guide"
	"corte/core/say"
	"corte/core/special"
	"corte/core/verdict"
	"corte/internal/record"
	"corte/internal/refusal"
	shopchoose "corte/internal/shop/choose"
	"corte/internal/shop/env"
)

// A Station does this work in every shop on one database. It holds no state.
type Station struct{ *env.Env }

// At is the station over an environment: a database, or a transaction of one.
func At(k *env.Env) Station { return Station{k} }

// A Plan is a special cut worked out, with what stands against it on this saw.
type Plan struct {
	special.Plan
	Blade    *record.Blade
	Findings []guide.Finding
}

// alongFence are the cuts that a fence or a parallel board guides.
var alongFence = map[special.Kind]bool{special.Taper: true, special.Resaw: true, special.Stopped: true}

// Plan works a cut out on a saw, with the blade that is named or else the one that
// is on it. A blade that may not go on is refused.
func (s Station) Plan(ctx context.Context, shop, sawID uuid.UUID, blade *uuid.UUID, ask special.Ask) (Plan, error) {
	w, err := s.Store.Saw(ctx, shop, sawID)
	if err != nil {
		return Plan{}, refusal.NotThere(err, "saw_id", "saw")
	}
	if err := shopchoose.InUse(w, "saw_id"); err != nil {
		return Plan{}, err
	}
	if blade == nil {
		blade = w.Mounted
	}
	var out Plan
	ask.Saw = w.Saw
	if blade != nil {
		b, err := s.Store.Blade(ctx, shop, *blade)
		if err != nil {
			return Plan{}, refusal.NotThere(err, "blade_id", "blade")
		}
		if err := shopchoose.MayGoOn(b, choose.MountStops(b.Blade, w.Saw), say.Of("be used on %s", say.Word(w.Name))); err != nil {
			return Plan{}, err
		}
		ask.Blade, out.Blade = b.Blade, &b
	} else if ask.Kind != special.Taper && ask.Kind != special.Hopper && ask.Kind != special.Crown {
		return Plan{}, refusal.Of("blade_id", "choose the blade first")
	}
	if out.Plan, err = special.Of(ask); err != nil {
		return Plan{}, refusal.Placed(err)
	}
	for _, f := range guide.Standing(w.Saw, w.Alignment(), w.HeldTo()) {
		if (f.Rule == guide.RuleHeel || f.Rule == guide.RuleFence) && !alongFence[ask.Kind] {
			f.Verdict = min(f.Verdict, verdict.Caution)
		}
		out.Findings = append(out.Findings, f)
	}
	if len(out.Findings) > 0 && out.Verdict < verdict.Stop && shopchoose.Worst(out.Findings) == verdict.Stop {
		// No set-up beside a stop.
		out.Plan = special.Plan{Verdict: verdict.Stop, Stop: out.Findings[0].Why, WayOut: out.Findings[0].WayOut}
	}
	return out, nil
}

// Says is a figure in words: its name is said beside it.
func Says(f special.Figure) say.Line {
	if f.Angle {
		return say.Of("%.1f°", f.Deg)
	}
	return say.Of("%s", say.Set(f.Length))
}
