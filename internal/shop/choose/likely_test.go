package choose

import (
	"slices"
	"testing"
)

// Who picks a blade for many cuts thinks of those that cut well and are meant for
// it, then of those that cut well, then of what Choose puts first.
func TestLikely(t *testing.T) {
	well, spare, shut := Way{May: true, Open: true, Fits: true, Score: 0.8}, Way{May: true, Open: true, Score: 0.7}, Way{May: true, Fits: true, Score: 0.5}
	near, far := Way{May: true, Score: 0.45}, Way{May: true, Score: 0.44}
	gone := Way{Open: true, Fits: true, Score: 0.99}
	for _, tt := range []struct {
		name string
		ways []Way
		want []bool
	}{
		{"those that are meant for it", []Way{spare, well, shut, gone}, []bool{false, true, false, false}},
		{"those that cut well", []Way{spare, shut, gone}, []bool{true, false, false}},
		{"those that come near the best", []Way{shut, near, far, gone}, []bool{true, true, false, false}},
		{"none", []Way{gone}, []bool{false}},
	} {
		if got := Likely(tt.ways); !slices.Equal(got, tt.want) {
			t.Errorf("%s: %v, want %v", tt.name, got, tt.want)
		}
	}
}
