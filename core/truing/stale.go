package truing

import (
	"corte/core/say"
	"time"
)

// keeps is how long a reading is trusted on a saw that stood still.
const keeps = 180 * 24 * time.Hour

// A Doubt is why a reading is not to be trusted any more. The zero Doubt is
// none.
type Doubt struct {
	Cause  DoubtCause
	Months int // that have gone by, of a reading that has Aged
}

// A DoubtCause is what took the trust out of a reading.
type DoubtCause uint8

const (
	Trusted DoubtCause = iota
	Never              // measured
	Moved              // the saw, since it was measured
	Aged
)

// Stale says what is to be doubted in a reading. at is when it was taken, moved
// when the saw was last moved or bumped; zero stands for never.
func Stale(at, moved, now time.Time) Doubt {
	switch {
	case at.IsZero():
		return Doubt{Cause: Never}
	case moved.After(at):
		return Doubt{Cause: Moved}
	case now.Sub(at) > keeps:
		return Doubt{Cause: Aged, Months: int(now.Sub(at).Hours() / 24 / 30)}
	}
	return Doubt{}
}

// Said is a phrase without its full stop; nothing where there is no doubt.
func (d Doubt) Said() say.Line {
	switch d.Cause {
	case Never:
		return say.Of("never measured")
	case Moved:
		return say.Of("the saw was moved since the last measurement")
	case Aged:
		return say.Of("measured %d months ago", d.Months)
	}
	return say.Line{}
}
