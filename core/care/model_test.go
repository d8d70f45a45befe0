package care

import (
	"math"
	"testing"
	"time"

	"corte/core/blade"
)

// Cleaners and the steps of a wash, as craft section 9 has them.
func TestCleanersAreTheCrafts(t *testing.T) {
	for id, want := range map[string]struct {
		soak        time.Duration
		parts       float64
		uses, keeps int
	}{
		"detergent":    {10 * time.Minute, 10, 12, 14},
		"blade-wash":   {5 * time.Minute, 4, 40, 180},
		"citrus":       {6 * time.Minute, 6, 25, 60},
		"laundry-soap": {8 * time.Minute, 16, 12, 14},
		"vinegar":      {4 * time.Minute, 1, 6, 7},
		"oven-cleaner": {5 * time.Minute, 0, 1, 1},
		"solvent":      {5 * time.Minute, 0, 10, 60},
	} {
		k, err := CleanerByID(id)
		if err != nil || k.Soak != want.soak || k.Parts != want.parts || k.Uses != want.uses || k.Keeps != want.keeps {
			t.Errorf("%s: %+v, %v", id, k, err)
		}
	}
	k, _ := CleanerByID("vinegar")
	want := map[string][2]time.Duration{"soak": {4, 8}, "scrub": {0, 10}, "flip": {0, 10}, "rinse": {1, 5}, "dry": {2, 20}, "film": {2, 30}}
	for _, s := range WashSteps(k, "nylon", 1) {
		if got := [2]time.Duration{s.Least / time.Minute, s.Most / time.Minute}; got != want[s.ID] {
			t.Errorf("%s takes %v minutes, want %v", s.ID, got, want[s.ID])
		}
	}
}

// The bounds of docs/model.md, section 9, from both of their sides.
func TestBoundsAreTheModels(t *testing.T) {
	b := blade.Blade{Teeth: 40, Grind: blade.ATB}
	fed := func(share float64, s Saying, sd float64) bool { // moves the belief in the edge's life
		c := Condition{WearM2: share * Life(b.Grind)}
		c.say(b.Grind, s, sd)
		return c.Life != Belief{}
	}
	easy := func(share float64) bool { // an easy cut moves a life that ends before 1.3 times the wear
		c := Condition{WearM2: share * Life(b.Grind)}
		c.outlasts(b.Grind, easyFactor, sdSeen)
		return c.Life != Belief{}
	}
	wants := func(share float64) Urgency { return urgency(share, Date{}, time.Time{}) }
	due := func(days float64) Urgency {
		at := day0.Add(time.Duration(days * 24 * float64(time.Hour)))
		return urgency(0.1, Date{at, at, at}, day0)
	}
	dated := func(cuts int, days float64, share float64) bool {
		since := day0.Add(-time.Duration(days * 24 * float64(time.Hour)))
		return forecast(share, share, 0.5, cuts, since, day0).Known()
	}
	for name, tt := range map[string]struct{ within, beyond, want, then any }{
		"a tenth of its life is too fresh": {fed(0.099, Dull, sdSaid), fed(0.101, Dull, sdSaid), false, true},
		"an easy cut shows 1.3 times":      {easy(1/1.3 - 0.001), easy(1/1.3 + 0.001), false, true},
		"a burn surprises under 14 %":      {Surprising(true, false, 0.629, 1), Surprising(true, false, 0.631, 1), true, false},
		"a hard feed under 60 %":           {Surprising(false, true, 9, 0.599), Surprising(false, true, 9, 0.601), true, false},
		"soon is from 0.8":                 {wants(0.799), wants(0.801), Fine, Soon},
		"due is from 1":                    {wants(0.999), wants(1), Soon, Due},
		"soon is within 14 days":           {due(13.9), due(14.1), Soon, Fine},
		"a pace is from three cuts":        {dated(2, 5, 0.3), dated(3, 5, 0.3), false, true},
		"and three days":                   {dated(5, 2.9, 0.3), dated(5, 3.1, 0.3), false, true},
		"no date is over three years":      {dated(5, 10, 10./1110), dated(5, 10, 10./1090), false, true},
	} {
		if tt.within != tt.want || tt.beyond != tt.then {
			t.Errorf("%s: %v and beyond it %v, want %v and %v", name, tt.within, tt.beyond, tt.want, tt.then)
		}
	}
	if got := math.Round(100 / (1 + math.Pow(unlikelyHeat, -4))); got != 14 {
		t.Errorf("a burn is unlikely under %v %%", got)
	}
	if left, _ := SharpeningsLeft(Condition{}, blade.Blade{Carbide: blade.HardCarbide}, 0, 0); left != 13 { // 10/0.8 = 12.5 is rounded up
		t.Errorf("a hard grade takes %d", left)
	}
}
