// Package mount runs a mounting: its steps, answers and end.
package mount

import (
	"context"
	"encoding/json"
	"time"

	"github.com/google/uuid"

	"corte/core/choose"
	"corte/core/guide"
	"corte/core/history"
	"corte/core/measure"
	"corte/core/mount"
	"corte/core/say"
	"corte/core/verdict"
	"corte/internal/record"
	"corte/internal/refusal"
	shopchoose "corte/internal/shop/choose"
	"corte/internal/shop/env"
	shopgroove "corte/internal/shop/groove"
	"corte/internal/shop/rack"
	"corte/internal/store"
)

// A Station does this work in every shop on one database. It holds no state.
type Station struct{ *env.Env }

// At is the station over an environment: a database, or a transaction of one.
func At(k *env.Env) Station { return Station{k} }

// A Mounting is a mounting that is under way, with its steps.
type Mounting struct {
	store.Mounting
	Saw     store.Saw
	Blade   store.Blade
	Steps   []mount.Step
	Answers map[string]bool
	Way     *shopgroove.Way // that a dado set is put together for; nil for none
}

// Start begins to mount a blade, or goes on where it was left. A blade
// that fails a hard rule of the saw is refused. A dado set may be put together
// for a groove.
func (s Station) Start(ctx context.Context, shop, saw, blade uuid.UUID, groove *uuid.UUID, by string) (Mounting, error) {
	w, err := s.Store.Saw(ctx, shop, saw)
	if err != nil {
		return Mounting{}, refusal.NotThere(err, "saw_id", "saw")
	}
	if err := shopchoose.InUse(w, "saw_id"); err != nil {
		return Mounting{}, err
	}
	b, err := s.Store.Blade(ctx, shop, blade)
	if err != nil {
		return Mounting{}, refusal.NotThere(err, "blade_id", "blade")
	}
	if err := shopchoose.MayGoOn(b, choose.MountStops(b.Blade, w.Saw), say.Of("be mounted on %s", say.Word(w.Name))); err != nil {
		return Mounting{}, err
	}
	if groove != nil {
		g, err := shopgroove.At(s.Env).Get(ctx, shop, *groove)
		switch {
		case err != nil:
			return Mounting{}, err
		case g.Saw != saw || g.Blade != blade || g.Ended != nil:
			return Mounting{}, refusal.Of("groove_id", "this groove isn't in progress with %s on %s", b.Name, w.Name)
		case g.Way.Verdict == verdict.Stop:
			return Mounting{}, refusal.Of("groove_id", "%s", g.Way.Says)
		}
	}
	m, err := s.Store.StartMounting(ctx, store.Mounting{ID: uuid.New(), Shop: shop, Saw: saw, Blade: blade, Groove: groove, By: by, Started: s.Now()})
	if err != nil {
		return Mounting{}, err
	}
	return s.mounting(ctx, m)
}

// Get finds one that is under way.
func (s Station) Get(ctx context.Context, shop, id uuid.UUID) (Mounting, error) {
	m, err := s.Store.Mounting(ctx, shop, id)
	if err != nil {
		return Mounting{}, refusal.NotThere(err, "id", "mounting in progress")
	}
	return s.mounting(ctx, m)
}

func (s Station) mounting(ctx context.Context, m store.Mounting) (Mounting, error) {
	out := Mounting{Mounting: m, Answers: map[string]bool{}}
	var err error
	if out.Saw, err = s.Store.Saw(ctx, m.Shop, m.Saw); err != nil {
		return out, err
	}
	if out.Blade, err = s.Store.Blade(ctx, m.Shop, m.Blade); err != nil {
		return out, err
	}
	if err := json.Unmarshal(m.Answers, &out.Answers); err != nil {
		return out, record.Damaged("mountings", m.ID, err)
	}
	used, sharpened, err := s.Store.LastUse(ctx, m.Shop, m.Blade)
	if err != nil {
		return out, err
	}
	_, bushed := out.Saw.TakesBore(out.Blade.Bore)
	c := mount.Case{Saw: out.Saw.Saw, Blade: out.Blade.Blade, New: used.IsZero() && !sharpened && out.Blade.Sharpened == 0, Back: sharpened, Bushing: bushed, Chipped: out.Blade.Condition.Chipped(),
		LongAgo: !used.IsZero() && s.Now().Sub(used) > mount.LongUnused*24*time.Hour}
	if on := out.Saw.Mounted; on != nil && *on != m.Blade {
		off, err := s.Store.Blade(ctx, m.Shop, *on)
		if err != nil {
			return out, err
		}
		c.Off = off.Name
	}
	for _, f := range guide.Standing(out.Saw.Saw, out.Saw.Alignment(), out.Saw.HeldTo()) {
		c.Heard = append(c.Heard, say.Of("%s %s", f.Why, f.WayOut))
	}
	wobbles, err := s.Store.Wobbles(ctx, m.Shop, m.Saw)
	if err != nil {
		return out, err
	}
	wobble := wobbles[m.Blade]
	for _, is := range choose.Measured(measure.Length(wobble.Spread), measure.Length(wobble.RunOut), out.Saw.HeldTo()) {
		c.Heard = append(c.Heard, say.Of("%s %s", is.Why, is.WayOut))
	}
	if m.Groove != nil {
		g, err := shopgroove.At(s.Env).Get(ctx, m.Shop, *m.Groove)
		if err != nil {
			return out, err
		}
		out.Way, c.Way = &g.Way, &g.Way.Way
	}
	out.Steps = mount.Steps(c)
	return out, nil
}

// Step says how far a mounting has come, over the version it carries.
func (s Station) Step(ctx context.Context, m store.Mounting, answers map[string]bool) (Mounting, error) {
	raw, err := json.Marshal(answers)
	if err != nil {
		return Mounting{}, err
	}
	m.Answers = raw
	if err := s.Store.StepMounting(ctx, m); err != nil {
		return Mounting{}, refusal.Changed(refusal.NotThere(err, "id", "mounting in progress"), "mounting")
	}
	return s.Get(ctx, m.Shop, m.ID)
}

// Drop gives a mounting up.
func (s Station) Drop(ctx context.Context, shop, id uuid.UUID) error {
	return s.Store.DropMounting(ctx, shop, id)
}

// End logs what came off and what went on, of a mounting that has come
// to a version. Every check must have been answered with yes. diameter is what
// was measured after a sharpening, or 0.
func (s Station) End(ctx context.Context, shop, id uuid.UUID, version int, by string, diameter measure.Length) (store.Entry, error) {
	var out store.Entry
	err := s.Store.Atomically(ctx, func(tx *store.Store) error {
		m, err := At(s.In(tx)).Get(ctx, shop, id)
		if err != nil {
			return err
		}
		// What was read is what ends, or nothing: a "no" that came since has another version.
		if m.Version != version {
			return refusal.Changed(store.ErrStale, "mounting")
		}
		if err := ready(m); err != nil {
			return err
		}
		if err := tx.EndMounting(ctx, shop, id, version); err != nil {
			return refusal.Changed(refusal.NotThere(err, "id", "mounting in progress"), "mounting")
		}
		if by == "" {
			by = m.By
		}
		entry := func(kind history.Kind, blade uuid.UUID) (store.Entry, error) {
			return tx.Append(ctx, store.Entry{Shop: shop, At: s.Now(), Kind: kind, Blade: &blade, Saw: &m.Saw.ID, By: by})
		}
		if on := m.Saw.Mounted; on != nil && *on != m.Blade.ID {
			if _, err := entry(history.KindDismounted, *on); err != nil {
				return err
			}
		}
		if diameter > 0 {
			b := m.Blade
			b.Diameter = diameter
			if err := rack.CheckBlade(b); err != nil {
				return err
			}
			if err := tx.ChangeBlade(ctx, shop, b); err != nil {
				return refusal.Changed(err, "blade")
			}
		}
		out, err = entry(history.KindMounted, m.Blade.ID)
		return err
	})
	return out, err
}

// ready reports the first check that was not answered with yes.
func ready(m Mounting) error {
	for _, step := range m.Steps {
		for _, c := range step.Checks {
			yes, answered := m.Answers[c.ID]
			if !answered {
				return refusal.Of("answers", "%s is not answered yet: %s", step.Title, c.Ask)
			}
			if !yes {
				return refusal.Of("answers", "%s: %s", step.Title, c.IfNot)
			}
		}
	}
	return nil
}
