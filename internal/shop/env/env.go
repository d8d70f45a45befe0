// Package env has what all stations of a shop share: store, clock, errors for
// people, background work and the shop's days.
package env

import (
	"cmp"
	"context"
	"time"

	"github.com/google/uuid"

	"corte/core/say"
	"corte/internal/record"
	"corte/internal/refusal"
	"corte/internal/store"
)

// An Env is what one station works with: a store, which is a transaction where one
// is under way, and the clock.
type Env struct {
	Store      *store.Store
	Now        func() time.Time
	Background *Background
}

// In is the environment inside a transaction.
func (e *Env) In(tx *store.Store) *Env { return &Env{tx, e.Now, e.Background} }

// Add makes a row under a new id, with all that hangs on it, or nothing.
func (e *Env) Add(ctx context.Context, make func(*store.Store, uuid.UUID) error) (uuid.UUID, error) {
	id := uuid.New()
	return id, e.Store.Atomically(ctx, func(tx *store.Store) error { return make(tx, id) })
}

// WithBlade runs f with a lock on a blade's log, so that of several requests that do
// the same to it one succeeds and the others see its change.
func (e *Env) WithBlade(ctx context.Context, shop, id uuid.UUID, f func(in *Env, b store.Blade) error) error {
	return e.Store.Atomically(ctx, func(tx *store.Store) error {
		if err := tx.HoldBlade(ctx, shop, id); err != nil {
			return err
		}
		b, err := tx.Blade(ctx, shop, id)
		if err != nil {
			return refusal.NotThere(err, "id", "blade")
		}
		return f(e.In(tx), b)
	})
}

// Already refuses a change that was made before.
func Already(field, form string, with ...any) error {
	return &refusal.Error{Reason: refusal.Conflict, Field: field, What: say.Of(form, with...)}
}

// By is the name that a row of the log carries: the name of the session that
// writes it, or of whoever began the work where no name is known.
func By(ctx context.Context, begun string) string {
	return cmp.Or(record.ActorOf(ctx).Name, begun)
}
