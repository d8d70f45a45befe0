// Package refusal has the errors that a person reads: a sentence, the field of
// the contract that it is about, and the kind of problem.
package refusal

import (
	"errors"
	"time"

	"corte/core/say"
	"corte/internal/record"
)

// A Reason says in which way a request could not be met.
type Reason uint8

const (
	Invalid   Reason = iota // what was asked cannot be
	Missing                 // what was named is not in this shop
	Conflict                // what was sent contradicts what was sent before
	Stale                   // somebody else changed it in the meantime
	Busy                    // there was no time for it
	Unknown                 // nobody is signed in, or not rightly
	Forbidden               // who asks may not
	TooOften                // it was tried too often
)

// An Error is a sentence for the person at the saw, and the field it is about.
type Error struct {
	Reason Reason
	Field  string // as in the API, such as "cut.thickness_mm"; empty if about the whole
	What   say.Line
	After  time.Duration // until it may be tried again; 0 for the usual of its reason
}

func (e *Error) Error() string { return e.What.String() }

// Said is what it says, to whoever reads it.
func (e *Error) Said() say.Line { return e.What }

// RetryAfter is how long a client waits before it tries again, 0 where trying
// again does not help. Attempts that were too many are forgotten after a quarter
// of an hour.
func (e *Error) RetryAfter() time.Duration {
	switch {
	case e.After > 0:
		return e.After
	case e.Reason == TooOften:
		return 15 * time.Minute
	case e.Reason == Busy:
		return 5 * time.Second
	}
	return 0
}

// Status is the contract's number for it.
func (e *Error) Status() int {
	switch {
	case e.Reason == Conflict:
		return 409
	case e.Reason == Busy:
		return 503
	case e.Reason == Stale:
		return 412
	case e.Reason == Unknown:
		return 401
	case e.Reason == Forbidden:
		return 403
	case e.Reason == TooOften:
		return 429
	case e.Reason == Missing && (e.Field == "id" || e.Field == ""):
		return 404
	}
	return 422
}

// Of refuses what is invalid at a field, with a form and its figures as say.Of
// takes them.
func Of(field, form string, with ...any) error {
	return &Error{Reason: Invalid, Field: field, What: say.Of(form, with...)}
}

// NotThere turns a row that is not there into a sentence about a field.
func NotThere(err error, field, what string) error {
	if errors.Is(err, record.ErrNone) {
		return &Error{Reason: Missing, Field: field, What: say.Of("there is no such %s in this shop", say.Word(what))}
	}
	return err
}

// OfDamaged turns a row that cannot be read into a sentence.
func OfDamaged(err *record.DamagedError) *Error {
	return &Error{Reason: Conflict, What: say.Of("this record is damaged and can't be read (%s). Nothing was changed. An owner can repair or remove it on the Settings page", say.Word(err.Why.Error()))}
}

// Changed turns a row that was changed in the meantime into a sentence.
func Changed(err error, what string) error {
	if errors.Is(err, record.ErrStale) {
		return &Error{Reason: Stale, What: say.Of("another person changed this %s since you opened it. Nothing was saved. Look at what they changed, then save again", say.Word(what))}
	}
	return err
}
