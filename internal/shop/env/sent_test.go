package env

import (
	"testing"
	"time"
)

func TestWhatWasMadeAfterItIsLoggedAfterIt(t *testing.T) {
	now := time.Date(2026, 11, 30, 9, 0, 0, 0, time.UTC)
	for name, tt := range map[string]struct {
		sent Sent
		want time.Duration // before now
	}{
		"at once":                           {Sent{}, 0},
		"kept for a minute":                 {Sent{Waited: time.Minute}, time.Minute},
		"after the one before it":           {Sent{Waited: time.Minute, After: now.Add(-2 * time.Minute)}, time.Minute},
		"the one before it was longer away": {Sent{Waited: 2 * time.Minute, After: now.Add(-time.Minute)}, time.Minute - time.Microsecond},
		"after one that is yet to come":     {Sent{Waited: time.Minute, After: now.Add(time.Minute)}, time.Minute},
	} {
		if got := now.Sub(tt.sent.At(now)); got != tt.want {
			t.Errorf("%s: %v before now, not %v", name, got, tt.want)
		}
	}
}
