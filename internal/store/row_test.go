package store

import (
	"math"
	"testing"
)

// Figures and counts that are real, and those that are none, on both sides.
func TestFiguresAndCounts(t *testing.T) {
	for v, ok := range map[float64]bool{0: true, -largest: false, 1 - largest: true, largest: false, largest - 1: true, math.NaN(): false, math.Inf(1): false, math.Inf(-1): false} {
		if err := figures(1, v); (err == nil) != ok {
			t.Errorf("%g: %v", v, err)
		}
	}
	for v, ok := range map[int]bool{0: true, -1: false, 1_000_000: true, 1_000_001: false} {
		if err := counts(1, v); (err == nil) != ok {
			t.Errorf("%d: %v", v, err)
		}
	}
}
