package shopfile

import (
	"testing"
	"time"
)

// A copy is due a day after the last, to the moment; one that a wrong clock has
// dated ahead is no last one.
func TestACopyIsDueADayAfterTheLast(t *testing.T) {
	k := &Keeper{Now: func() time.Time { return now }}
	ago := func(ds ...time.Duration) (all []Copy) {
		for _, d := range ds {
			all = append(all, Copy{At: now.Add(-d)})
		}
		return all
	}
	for _, tt := range []struct {
		all []Copy
		due bool
	}{{nil, true}, {ago(daily), true}, {ago(daily - 1), false}, {ago(0, 30*daily), false}, {ago(-daily), true}, {ago(-9*daily, daily-1), false}, {ago(-9*daily, daily), true}} {
		if k.due(tt.all) != tt.due {
			t.Errorf("%v: due is %v", tt.all, !tt.due)
		}
	}
}
