// Package fault has the one error with which the core refuses what cannot be:
// what is wrong, and where, in the craft's own words. It knows no form and no
// contract; who asked puts the place into his own terms.
package fault

import "fmt"

// An Error says that something that was said or measured cannot be.
type Error struct {
	Where string // such as "thickness" or "part, count"
	Nth   int    // of several such places, from 0
	What  string // what is wrong and what can be, a sentence without its full stop
	Cause error  // nil where it is the first cause
}

func (e *Error) Error() string { return e.What }

// Unwrap gives the cause.
func (e *Error) Unwrap() error { return e.Cause }

// At refuses what stands at a place. A cause is wrapped with %w.
func At(where, format string, args ...any) error { return Nth(0, where, format, args...) }

// Nth is At one of several such places, counted from 0.
func Nth(n int, where, format string, args ...any) error {
	said := fmt.Errorf(format, args...)
	e := &Error{Where: where, Nth: n, What: said.Error()}
	if w, ok := said.(interface{ Unwrap() error }); ok {
		e.Cause = w.Unwrap()
	}
	return e
}
