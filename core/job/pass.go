package job

import (
	"cmp"
	"slices"
	"sort"
	"time"

	"corte/core/blade"
	"corte/core/care"
	"corte/core/cut"
)

// A Use is pieces alike that a blade cuts one after the other.
type Use struct {
	Job cut.Job // with its pieces and height
}

// event is so many pieces of a use, as the fold of a blade's log has cuts.
func (u Use) event(pieces int, at time.Time) care.Event {
	metres := float64(pieces) * u.Job.CutLength().Mm() / 1000
	return care.Event{Kind: care.Cut, At: at, Metres: metres, FaceM2: metres * u.Job.Swept().Mm() / 1000,
		Abrasion: u.Job.Material.Abrasion, Resin: u.Job.Material.Resin * u.Job.Moisture.Pitches()}
}

// A Pass is where a blade becomes due in the middle of its work.
type Pass struct {
	Use    int            // of those given
	Pieces int            // of that use that are cut before it is due; fewer than all
	Dull   bool           // or else pitchy
	Then   care.Condition // as it is by then
}

// Passes says where a blade passes pitchy, and where dull, over uses in their
// order. What it was before the first is not said again.
func Passes(b blade.Blade, c care.Condition, uses []Use, at time.Time) []Pass {
	due := func(c care.Condition, dull bool) bool {
		h := care.HealthOf(c, b.Grind, at)
		if dull {
			return h.Sharpen == care.Due
		}
		return h.Wash == care.Due
	}
	var out []Pass
	said := [2]bool{due(c, false), due(c, true)}
	for i, u := range uses {
		n := u.Job.Count()
		after := c.Then(b, u.event(n, at))
		for k, dull := range [...]bool{false, true} {
			if said[k] || !due(after, dull) {
				continue
			}
			said[k] = true
			first := sort.Search(n, func(p int) bool { return due(c.Then(b, u.event(p+1, at)), dull) })
			out = append(out, Pass{i, first, dull, c.Then(b, u.event(first, at))})
		}
		c = after
	}
	slices.SortStableFunc(out, func(a, b Pass) int { return cmp.Or(a.Use-b.Use, a.Pieces-b.Pieces) })
	return out
}

// Washed is a condition with its pitch taken off.
func Washed(b blade.Blade, c care.Condition, at time.Time) care.Condition {
	return c.Then(b, care.Event{Kind: care.Wash, At: at})
}
