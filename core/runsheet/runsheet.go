// Package runsheet lays a day's cuts over the saws: for every cut a blade, for
// every saw the order of its blades, so that what must come first comes first
// and cutting and changing take the fewest minutes. Model section 12.
//
// Cuts stand in stages; a stage is over before the next begins. Within a stage
// a saw needs each of its blades once, so a sheet is settled by which blades
// each stage uses and which of them each saw is left with. The search is over
// those: a Lagrangian bound (a price on every cut; each saw then goes its own
// cheapest way through the stages), mended into sheets, and branched upon until
// bound and sheet meet. Where they do not within the work that is allowed, the
// sheet is the best that was found and says how far off the best it can be.
package runsheet

import (
	"math"
	"slices"

	"corte/core/fault"
)

// None is no blade: a bare arbor.
const None = -1

// Never are the minutes of a blade that may not make a cut.
var Never = math.Inf(1)

// A Day is what a job asks, in numbers. Blades, saws and cuts are their places
// in these lists.
type Day struct {
	Minutes   [][]float64 // [cut][blade]: what all pieces of it take; Never where it may not
	Saw       []int       // of each blade
	Mounted   []int       // on each saw as the day begins; None where the first blade costs a change too
	ChangeMin []float64   // what a change costs on each saw
	Extra     []float64   // what putting on each blade costs beyond that, as a stack does; nil for nothing
	Stage     []int       // of each cut, 1 or more
}

// A Turn is a blade's time on its saw within a stage.
type Turn struct {
	Stage, Saw, Blade int
	Changed           bool  // it was put on for this
	Cuts              []int // in the order of the list; never empty
}

// A Sheet is a day laid out.
type Sheet struct {
	Blade      []int  // of each cut
	Turns      []Turn // by stage, then by saw, then as they follow each other
	Changes    int
	CutMin     float64
	ChangesMin float64
	BoundMin   float64 // no sheet takes less than this
}

// TotalMin is what all of it takes, one after the other.
func (s Sheet) TotalMin() float64 { return s.CutMin + s.ChangesMin }

// hair is what rounding may make of sums, as a share.
const hair = 1e-9

// Exact reports whether nothing shorter exists.
func (s Sheet) Exact() bool { return s.TotalMin()-s.BoundMin <= hair*(1+s.TotalMin()) }

// Gap is by how large a share the sheet may be longer than the best there is.
func (s Sheet) Gap() float64 {
	if s.Exact() {
		return 0
	}
	return (s.TotalMin() - s.BoundMin) / s.TotalMin()
}

// Plan lays out a day. It fails on the first cut that no blade may make, at
// "cuts[i]", and on a list that does not fit the others.
func Plan(d Day) (Sheet, error) {
	if err := d.check(); err != nil {
		return Sheet{}, err
	}
	s := newSearch(d)
	s.run()
	return s.sheet(), nil
}

// PutOn is the minutes that putting a blade on its saw takes.
func (d Day) PutOn(b int) float64 {
	if d.Extra == nil {
		return d.ChangeMin[d.Saw[b]]
	}
	return d.ChangeMin[d.Saw[b]] + d.Extra[b]
}

func (d Day) check() error {
	if len(d.Stage) != len(d.Minutes) {
		return fault.At("stage", "every cut stands in a stage: %d cuts, %d stages said", len(d.Minutes), len(d.Stage))
	}
	if len(d.ChangeMin) != len(d.Mounted) {
		return fault.At("change_min", "every saw has minutes for a change: %d saws, %d said", len(d.Mounted), len(d.ChangeMin))
	}
	if d.Extra != nil && len(d.Extra) != len(d.Saw) {
		return fault.At("change_min", "every blade has extra minutes, or none has: %d blades, %d said", len(d.Saw), len(d.Extra))
	}
	for b, m := range d.Extra {
		if !(m >= 0) || math.IsInf(m, 0) {
			return fault.Nth(b, "change_min", "putting a blade on takes 0 minutes or more")
		}
	}
	for i, w := range d.Saw {
		if w < 0 || w >= len(d.Mounted) {
			return fault.Nth(i, "saw", "there is no saw %d", w)
		}
	}
	for w, b := range d.Mounted {
		if b != None && (b < 0 || b >= len(d.Saw) || d.Saw[b] != w) {
			return fault.Nth(w, "mounted", "blade %d is not one of this saw's", b)
		}
		if !(d.ChangeMin[w] >= 0) || math.IsInf(d.ChangeMin[w], 0) {
			return fault.Nth(w, "change_min", "a change takes 0 minutes or more")
		}
	}
	for i, row := range d.Minutes {
		if len(row) != len(d.Saw) {
			return fault.Nth(i, "minutes", "every cut has minutes for each blade, or none: %d blades, %d said", len(d.Saw), len(row))
		}
		may := false
		for _, m := range row {
			if !(m >= 0) {
				return fault.Nth(i, "minutes", "a cut takes 0 minutes or more")
			}
			may = may || !math.IsInf(m, 1)
		}
		if !may {
			return fault.Nth(i, "cuts", "no blade may make this cut")
		}
		if d.Stage[i] < 1 {
			return fault.Nth(i, "stage", "stages count from 1")
		}
	}
	return nil
}

// stagesOf are the stages that occur, in order.
func stagesOf(d Day) []int {
	all := slices.Clone(d.Stage)
	slices.Sort(all)
	return slices.Compact(all)
}
