package sight

import (
	"fmt"
	"testing"

	"corte/core/blade"
)

// A rack is asked which of its blades was seen: another count is another blade unless
// the count was unsure, and what differs weighs more than what agrees.
func TestAlike(t *testing.T) {
	of := func(teeth int, hook float64, grind blade.Grind) blade.Blade {
		return blade.Blade{Teeth: teeth, Hook: hook, Grind: grind, Diameter: 254, Bore: 30}
	}
	unread := of(60, 0, blade.ATB)
	unread.HookUnknown = true
	other := of(60, 10, blade.ATB)
	other.Bore = 25.4
	rack := []blade.Blade{of(60, 13.1, blade.ATB), of(62, 10, blade.ATB), {Make: blade.Diamond, Diameter: 254, Bore: 30}, other, unread, of(60, 13, blade.ATB), of(60, 10, blade.ATBR)}
	seen := Blade{Teeth: 60, TeethSure: 0.9, Hook: 10, HookSure: 0.6, BoreRatio: 30.0 / 254}
	for name, c := range map[string]struct {
		see  func(*Blade)
		want string
	}{
		"sure":                      {func(*Blade) {}, "[{5 [teeth hook bore] []} {4 [teeth bore] []} {6 [teeth hook bore] [groups]}]"},
		"the hook not read":         {func(b *Blade) { b.HookSure = 0.4 }, "[{0 [teeth bore] []} {4 [teeth bore] []} {5 [teeth bore] []}]"},
		"groups of five":            {func(b *Blade) { b.Group = 5 }, "[{6 [teeth hook bore groups] []} {5 [teeth hook bore] [groups]} {4 [teeth bore] [groups]}]"},
		"two off, and sure of it":   {func(b *Blade) { b.Teeth = 64 }, "[]"},
		"two off, and fairly sure":  {func(b *Blade) { b.Teeth, b.TeethSure = 64, 0.7 }, "[{1 [hook bore] [teeth]}]"},
		"three off and fairly sure": {func(b *Blade) { b.Teeth, b.TeethSure = 65, 0.7 }, "[]"},
	} {
		b := seen
		c.see(&b)
		if got := fmt.Sprint(b.Alike(rack)); got != c.want {
			t.Errorf("%s: %s, want %s", name, got, c.want)
		}
	}
}

func TestDoubts(t *testing.T) {
	for want, b := range map[int]Blade{
		0: {TeethSure: 0.8, HookSure: 0.5, BoreRatio: 0.1},
		1: {TeethSure: 0.79, HookSure: 0.5, BoreRatio: 0.1},
		2: {TeethSure: 0.49, HookSure: 0.49, BoreRatio: 0.1},
		3: {TeethSure: 0.9, HookSure: 0.2, Missing: []Place{{90, 3}}},
		5: {TeethSure: 0.9, HookSure: 0.2, Missing: []Place{{90, 3}}, Short: []Place{{80, 2}}, Bent: []Place{{70, 1}}},
	} {
		if got := b.Doubts(); len(got) != want {
			t.Errorf("%+v: %v", b, got)
		}
	}
}
