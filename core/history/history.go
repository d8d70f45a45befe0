// Package history has the rows of the log: what each kind holds, what the rows
// of a blade add up to, what the cuts of a material teach, and what the model
// foretold of a cut. It is pure; internal/store stores the rows.
package history

import (
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"time"

	"corte/core/blade"
	"corte/core/care"
	"corte/core/groove"
)

// A Kind says what a row of the log records.
type Kind string

const (
	KindCut       Kind = "cut"
	KindMounted   Kind = "mounted"
	KindWashed    Kind = "washed"
	KindSharpened Kind = "sharpened"
	KindHeel      Kind = "heel"
	KindReturned  Kind = "returned" // from the saw doctor, not sharpened
	KindSent      Kind = "sent"     // to the saw doctor
	KindJudged    Kind = "judged"
	KindInspected Kind = "inspected"
	KindMended    Kind = "mended" // somebody mended a blade, and somebody inspected it
	KindNoted     Kind = "noted"
	KindCompared  Kind = "compared"
	KindTraced    Kind = "traced"
	KindGrooved   Kind = "grooved"
	KindRenewed   Kind = "renewed" // parts of a dado set
	KindStruck    Kind = "struck"  // another row was a mistake
	KindRetired   Kind = "retired"
	KindRestored  Kind = "restored"

	KindDismounted Kind = "dismounted"
	KindMoved      Kind = "moved" // a saw, or bumped
	KindFence      Kind = "fence"
	KindRunOut     Kind = "runout"
	KindTilt       Kind = "tilt"
	KindGauge      Kind = "gauge"
	KindClearance  Kind = "clearance"
)

// NeedsBlade reports whether a row of a kind must be about a blade.
func (k Kind) NeedsBlade() bool {
	switch k {
	case KindCut, KindMounted, KindDismounted, KindWashed, KindSharpened, KindReturned, KindSent, KindJudged,
		KindInspected, KindMended, KindGrooved, KindRenewed, KindClearance:
		return true
	}
	return false
}

// NeedsSaw reports whether a row of a kind must be about a saw.
func (k Kind) NeedsSaw() bool {
	switch k {
	case KindCut, KindMounted, KindDismounted, KindMoved, KindHeel, KindFence, KindTilt, KindGauge:
		return true
	}
	return false
}

// A Row is one row of the log as it is folded. Detail is the JSON of what
// belongs to its kind: a Cut, a Sharpened and so on.
type Row struct {
	At     time.Time
	Kind   Kind
	Detail json.RawMessage
}

// ConditionFold and SetFold number the folds of this version of Corte. A
// snapshot of another fold is made anew at the next start: raise the number with
// every change of what a row does to a condition, or to the parts of a dado set.
const (
	ConditionFold = 4
	SetFold       = 2
)

// ConditionKinds are the rows that change a blade's condition, and SetKinds
// those that tell how thick the parts of a dado set are.
var (
	ConditionKinds = []Kind{KindCut, KindWashed, KindSharpened, KindReturned, KindSent, KindJudged, KindInspected, KindMended}
	SetKinds       = []Kind{KindGrooved, KindRenewed, KindSharpened, KindCut}
)

// Condition is what rows add up to for a blade, in the order given, from what
// the rows before them came to. The error joins what could not be read; those
// rows change nothing.
func Condition(b blade.Blade, from care.Condition, rows ...Row) (care.Condition, error) {
	events, err := Events(rows)
	for _, e := range events {
		from = from.Then(b, e)
	}
	return from, err
}

// Events are the rows that change a blade's condition, in the order given. The
// error joins what could not be read; those rows are left out.
func Events(rows []Row) ([]care.Event, error) {
	out, unread := make([]care.Event, 0, len(rows)), []error(nil)
	for _, r := range rows {
		if !slices.Contains(ConditionKinds, r.Kind) {
			continue
		}
		e, err := r.event()
		if err != nil {
			unread = append(unread, r.unread(err))
			continue
		}
		out = append(out, e)
	}
	return out, errors.Join(unread...)
}

// Parts is Condition for the parts of a dado set.
func Parts(set groove.Set, from groove.Held, rows ...Row) (groove.Held, error) {
	var unread []error
	for _, r := range rows {
		e, says, err := r.ofSet()
		switch {
		case err != nil:
			unread = append(unread, r.unread(err))
		case says:
			from = set.Then(from, e)
		}
	}
	return from, errors.Join(unread...)
}

func (r Row) read(detail any) error { return json.Unmarshal(r.Detail, detail) }

func (r Row) unread(err error) error {
	return fmt.Errorf("row %q of %s: %w", r.Kind, r.At.UTC().Format(time.RFC3339), err)
}

// event is a row of one of the ConditionKinds as the fold sees it.
func (r Row) event() (out care.Event, err error) {
	out.At = r.At
	switch r.Kind {
	case KindCut:
		var c Cut
		if err = r.read(&c); err == nil {
			err = c.wear(&out)
		}
	case KindWashed:
		out.Kind = care.Wash
	case KindSharpened, KindReturned:
		var d Sharpened
		err = r.read(&d)
		out.Kind, out.Sharpened, out.Price = care.Return, r.Kind == KindSharpened, d.Price
		if d.Left != nil {
			out.SaidLeft, out.Left = true, *d.Left
		}
	case KindSent:
		out.Kind = care.Send
	case KindJudged:
		var d Judged
		err = r.read(&d)
		if out.Kind, out.Says = care.Say, care.ParseSaying(d.Says); err == nil && out.Says == 0 {
			err = fmt.Errorf("%q doesn't describe a blade", d.Says)
		}
	case KindInspected:
		var d Inspected
		err = r.read(&d)
		if out.Kind, out.Fault = care.Look, care.Fault(d.Fault); err == nil && out.Fault != care.Sound && !slices.Contains(care.Faults(), out.Fault) {
			err = fmt.Errorf("%q is not a blade fault", d.Fault)
		}
	case KindMended:
		out.Kind = care.Mend
	}
	return out, err
}

// ofSet is a row as the fold of a dado set sees it; false where it says nothing
// of one.
func (r Row) ofSet() (e groove.Event, says bool, err error) {
	switch r.Kind {
	case KindCut:
		var c Cut
		if err = r.read(&c); err == nil {
			e, says = groove.Event{What: groove.Cut, Metres: c.CutLength().Mm() / 1000}, true
		}
	case KindSharpened:
		e, says = groove.Event{What: groove.Sharpened}, true
	case KindRenewed:
		var d Renewed
		if err = r.read(&d); err == nil {
			e, says = groove.Event{What: groove.Renewed, Outer: d.Outer, Parts: PartsOf(d.Parts)}, true
		}
	case KindGrooved:
		var d Grooved
		if err = r.read(&d); err == nil && d.Test {
			e, says = d.Event(), true
		}
	}
	return e, says, err
}
