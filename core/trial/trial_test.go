package trial

import (
	"math"
	"slices"
	"strings"
	"testing"
)

func TestOneChangeAtATime(t *testing.T) {
	low, high := Setting{"Plough", 30, "open", 3.5}, Setting{"Plough", 60, "open", 3.5}
	if note, err := Check([]Setting{low, high}, 3); err != nil || !note.Zero() {
		t.Errorf("one change: %q, %v", note, err)
	}
	other := high
	other.Support = "zero-clearance"
	if note, err := Check([]Setting{low, other}, 3); err != nil || note.String() != "Between A and B, height and insert or backer changed at once, so a difference may come from either" {
		t.Errorf("two changes: %q, %v", note, err)
	}
	for _, all := range [][]Setting{{low}, {low, low}, {low, high, high}} {
		if _, err := Check(all, 3); err == nil {
			t.Errorf("%v is let pass", all)
		}
	}
}

func TestOrderIsFair(t *testing.T) {
	order := Order(3, 4, 99)
	for s := range 3 {
		n := 0
		for _, v := range order {
			if v == s {
				n++
			}
		}
		if n != 4 {
			t.Errorf("setting %d is cut %d times", s, n)
		}
	}
	if !slices.Equal(order, Order(3, 4, 99)) || slices.Equal(order, Order(3, 4, 100)) || slices.IsSorted(order) {
		t.Error("the order is not that of its seed")
	}
}

// Worked by hand: three against three, wholly apart, is 2 of 20 ways.
func TestExact(t *testing.T) {
	for _, tt := range []struct {
		a, b         []float64
		mean, chance float64
	}{
		{[]float64{0, 0, 1}, []float64{2, 3, 2}, 2, 0.1},
		{[]float64{1, 1}, []float64{1, 1}, 0, 1},
		{[]float64{0, 0, 0, 0}, []float64{1, 1, 1, 1}, 1, 2.0 / 70},
		{[]float64{3, 3, 3, 3}, []float64{0, 0, 0, 0}, -3, 2.0 / 70},
		{[]float64{0}, []float64{3}, 3, 1},
	} {
		mean, chance := Compare(tt.a, tt.b)
		if math.Abs(mean-tt.mean) > 1e-12 || math.Abs(chance-tt.chance) > 1e-12 {
			t.Errorf("%v and %v: %v, %v", tt.a, tt.b, mean, chance)
		}
	}
}

// Words turn at exactly the chance that they promise.
func TestSure(t *testing.T) {
	for _, tt := range []struct {
		chance float64
		pieces int
		want   string
	}{{0.05, 8, "sure"}, {0.0501, 8, "likely"}, {0.15, 8, "likely"}, {0.1501, 8, "no difference shown; if"}, {0.1501, 7, "no difference shown; more"}} {
		if got := Sure(tt.chance, tt.pieces); !strings.HasPrefix(got.String(), tt.want) {
			t.Errorf("a chance of %v over %d pieces: %q", tt.chance, tt.pieces, got)
		}
	}
}

func BenchmarkExact(b *testing.B) {
	x, y := make([]float64, 10), make([]float64, 10)
	for i := range x {
		x[i], y[i] = float64(i%3), float64(i%4)
	}
	for b.Loop() {
		Compare(x, y)
	}
}
