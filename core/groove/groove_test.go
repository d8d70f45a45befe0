package groove

import (
	"math"
	"strings"
	"testing"

	"corte/core/blade"
)

// What each grind leaves in the bottom of a groove (craft section 2).
func TestBottoms(t *testing.T) {
	for _, tt := range []struct {
		b     blade.Blade
		ridge float64 // mm
	}{
		{blade.Blade{Grind: blade.FTG, Kerf: 3.2}, 0},
		{blade.Blade{Grind: blade.TCG, Kerf: 3.2}, 0},
		{blade.Blade{Grind: blade.ATB, Kerf: 3.2, Bevel: 15}, 0.42872},
		{blade.Blade{Grind: blade.HighATB, Kerf: 3.0, Bevel: 38}, 1.17193},
		{blade.Blade{Grind: blade.ATBR, Kerf: 3.2, Bevel: 15}, 0.15},
		{blade.Blade{Grind: blade.ATBR, Kerf: 3.2, Bevel: 15, Raker: 0.25}, 0.25},
		{blade.Blade{Grind: blade.OneWay, Kerf: 3.2, Bevel: 8}, 0.44973},
	} {
		if got := Ridge(tt.b).Mm(); math.Abs(got-tt.ridge) > 1e-4 {
			t.Errorf("%v leaves %v mm, want %v", tt.b.Grind, got, tt.ridge)
		}
		highest := 0.0
		for _, p := range Profile(tt.b, 101) {
			highest = max(highest, p[1].Mm())
		}
		if math.Abs(highest-tt.ridge) > 1e-4 {
			t.Errorf("the profile of %v is %v high, its ridge %v", tt.b.Grind, highest, tt.ridge)
		}
		if Bottom(tt.b, tt.b.Kerf) != 0 {
			t.Errorf("%v leaves something outside its kerf", tt.b.Grind)
		}
	}
	// A raker leaves small ears at the corners and a flat between them.
	p := Profile(blade.Blade{Grind: blade.ATBR, Kerf: 3.2, Bevel: 15}, 33)
	if p[0][1] != 0 || p[1][1] >= p[8][1] || p[16][1] != p[12][1] {
		t.Errorf("ears and flat: %v", p)
	}
}

func TestFlatEnoughIsSaidPlainly(t *testing.T) {
	for _, tt := range []struct {
		b    blade.Blade
		says string
	}{
		{blade.Blade{Grind: blade.FTG, Kerf: 3.2}, "flat, for any joint"},
		{blade.Blade{Grind: blade.ATBR, Kerf: 3.2, Bevel: 15}, "small ears"},
		{blade.Blade{Grind: blade.ATB, Kerf: 3.2, Bevel: 15}, "ridged"},
		{blade.Blade{Grind: blade.OneWay, Kerf: 3.2, Bevel: 8}, "dovetail"},
	} {
		if got := FlatEnoughFor(tt.b); !strings.Contains(got.String(), tt.says) {
			t.Errorf("%v is %q, want %q", tt.b.Grind, got, tt.says)
		}
	}
}
