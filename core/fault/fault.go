// Package fault has the error type of the core: what is wrong and where, in the
// craft's own words. Package internal/refusal maps the place to a field of the
// contract.
package fault

import "corte/core/say"

// An Error says that something that was said or measured cannot be.
type Error struct {
	Where string   // such as "thickness" or "part, count"
	Nth   int      // of several such places, from 0
	What  say.Line // what is wrong and what can be, a sentence without its full stop
	Cause error    // nil where it is the first cause
}

func (e *Error) Error() string { return e.What.String() }

// Said is what it says, to whoever reads it.
func (e *Error) Said() say.Line { return e.What }

// Unwrap gives the cause.
func (e *Error) Unwrap() error { return e.Cause }

// At refuses what stands at a place, with a form and its figures as say.Of takes
// them. An error among them is its cause.
func At(where, form string, with ...any) error { return Nth(0, where, form, with...) }

// Nth is At one of several such places, counted from 0.
func Nth(n int, where, form string, with ...any) error {
	e := &Error{Where: where, Nth: n, What: say.Of(form, with...)}
	for _, w := range with {
		if err, ok := w.(error); ok {
			e.Cause = err
		}
	}
	return e
}
