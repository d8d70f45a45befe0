package truing

import (
	"fmt"
	"time"
)

// keeps is how long a reading is trusted on a saw that stood still.
const keeps = 180 * 24 * time.Hour

// Stale says why a reading is not to be trusted any more, a phrase without its
// full stop, or nothing where it is. at is when it was taken, moved when the
// saw was last moved or bumped; zero stands for never.
func Stale(at, moved, now time.Time) string {
	switch {
	case at.IsZero():
		return "never measured"
	case moved.After(at):
		return "the saw was moved since it was measured"
	case now.Sub(at) > keeps:
		return fmt.Sprintf("measured %d months ago", int(now.Sub(at).Hours()/24/30))
	}
	return ""
}
