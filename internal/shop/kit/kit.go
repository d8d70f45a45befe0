// Package kit is what every station of a shop stands on: the store, the clock,
// the errors that a person reads, and the shop's own days.
package kit

import (
	"context"
	"time"

	"github.com/google/uuid"

	"corte/internal/store"
)

// A Kit is the tools of one station: a store, which is a transaction where one
// is under way, and the clock.
type Kit struct {
	Store *store.Store
	Now   func() time.Time
}

// In is the kit inside a transaction: what is done with it is kept with the rest
// of it, or not at all.
func (k *Kit) In(tx *store.Store) *Kit { return &Kit{tx, k.Now} }

// Add makes a row under a new id, with all that hangs on it, or nothing.
func (k *Kit) Add(ctx context.Context, make func(*store.Store, uuid.UUID) error) (uuid.UUID, error) {
	id := uuid.New()
	return id, k.Store.Atomically(ctx, func(tx *store.Store) error { return make(tx, id) })
}
