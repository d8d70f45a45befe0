// Package kit is what every station of a shop stands on: the store, the clock,
// the errors that a person reads, and the shop's own days.
package kit

import (
	"context"
	"errors"
	"time"

	"github.com/google/uuid"

	"corte/core/say"
	"corte/internal/store"
)

// A Reason says in which way a request could not be met.
type Reason uint8

const (
	Invalid  Reason = iota // what was asked cannot be
	Missing                // what was named is not in this shop
	Conflict               // what was sent contradicts what was sent before
	Stale                  // somebody else changed it in the meantime
	Busy                   // there was no time for it
)

// An Error is a sentence for the person at the saw, and the field it is about.
type Error struct {
	Reason Reason
	Field  string // as in the API, such as "cut.thickness_mm"; empty if about the whole
	What   say.Line
}

func (e *Error) Error() string { return e.What.String() }

// Said is what it says, to whoever reads it.
func (e *Error) Said() say.Line { return e.What }

func Refuse(field, form string, with ...any) error {
	return &Error{Invalid, field, say.Of(form, with...)}
}

// NotThere turns a row that is not there into a sentence about a field.
func NotThere(err error, field, what string) error {
	if errors.Is(err, store.ErrNone) {
		return &Error{Missing, field, say.Of("there is no such %s in this shop", say.Word(what))}
	}
	return err
}

func Changed(err error, what string) error {
	if errors.Is(err, store.ErrStale) {
		return &Error{Stale, "", say.Of("somebody else has changed this %s since you opened it; nothing was saved. Look at what they changed, then save again", say.Word(what))}
	}
	return err
}

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
