package env

import "time"

// Sent says how long a change waited on a device while the server was unreachable. The
// zero Sent came at once.
type Sent struct {
	Waited time.Duration // between being done and being sent
	After  time.Time     // the row of what was done just before it at the same bench; zero if not known
}

// At is when it was done by the shop's clock, which reads now. What was done
// before it stays before it, since a fold reads rows in their order: the first
// of two may have been longer on its way than lay between them.
func (s Sent) At(now time.Time) time.Time {
	at := now.Add(-s.Waited)
	if next := s.After.Add(time.Microsecond); at.Before(next) && !next.After(now) {
		return next
	}
	return at
}
