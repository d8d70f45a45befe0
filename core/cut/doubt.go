package cut

import (
	"math"

	"corte/core/measure"
)

// A Doubt is how well the two figures of a material are known that no table
// can know for one board: standard deviations of the logarithms of its scorch
// dose and of its proneness to splinter. The zero Doubt is the table's.
type Doubt struct{ Scorch, Splinter float64 }

// TableDoubt is what the table leaves open before the shop has cut: about a
// third either way (model section 5).
const TableDoubt = 0.35

func (d Doubt) orTable() Doubt {
	if d.Scorch == 0 {
		d.Scorch = TableDoubt
	}
	if d.Splinter == 0 {
		d.Splinter = TableDoubt
	}
	return d
}

// A Fade is a feed window whose ends are not sharp: each may lie anywhere
// between two feeds, one standard deviation to either side.
type Fade struct {
	SlowFrom, SlowTo measure.Feed // where scorch begins to end
	FastFrom, FastTo measure.Feed // where splinters begin
}

// Feed goes with heat to the power 1/0.8, and with the square of splintering.
const (
	scorchInFeed   = 1.25
	splinterInFeed = 2
)

// Fade says how far the ends of the window may lie from where they are drawn.
// An end that a hand, the motor or the wall sets does not fade until the other
// bound comes past it.
func (w Window) Fade(d Doubt) Fade {
	d = d.orTable()
	rest := min(w.Hand, w.Bog, w.Gullet, w.Wall, w.Shoulder)
	at := func(f measure.Feed, ln float64) measure.Feed { return f * measure.Feed(math.Exp(ln)) }
	return Fade{
		SlowFrom: max(w.slow, at(w.Scorch, -scorchInFeed*d.Scorch)), SlowTo: max(w.slow, at(w.Scorch, scorchInFeed*d.Scorch)),
		FastFrom: min(rest, at(w.Splinter, -splinterInFeed*d.Splinter)), FastTo: min(rest, at(w.Splinter, splinterInFeed*d.Splinter)),
	}
}

// Turns reports whether the room would fall on the other side of a limit if
// either end lay where it fades to.
func (f Fade) Turns(w Window, room float64) bool {
	over := w.Room() >= room
	for _, r := range [...]measure.Feed{w.Fastest / f.SlowFrom, w.Fastest / f.SlowTo, f.FastFrom / w.Slowest, f.FastTo / w.Slowest} {
		if (float64(r) >= room) != over {
			return true
		}
	}
	return false
}

// Where one grade of room becomes the next (model section 5).
const (
	tightRoom = 1
	FairRoom  = 1.5
	roomyRoom = 2.5
)
