package trial

import (
	"fmt"
	"math"
	"testing"
)

// Sessions are taken up to their bounds, and what was changed is named.
func TestBounds(t *testing.T) {
	two := []Setting{{Blade: "a", Height: 30}, {Blade: "a", Height: 60}}
	many := func(n int) (out []Setting) {
		for i := range n {
			out = append(out, Setting{Blade: fmt.Sprint(i)})
		}
		return out
	}
	for n, ok := range map[int]bool{1: false, 2: true, 4: true, 5: false} {
		if _, err := Check(many(n), 2); (err == nil) != ok {
			t.Errorf("%d settings: %v", n, err)
		}
	}
	for n, ok := range map[int]bool{0: false, 1: true, 10: true, 11: false} {
		if _, err := Check(two, n); (err == nil) != ok {
			t.Errorf("%d of each: %v", n, err)
		}
	}
	for what, tt := range map[string]struct {
		a, b Setting
		want string
	}{
		"a hair of height":  {Setting{Height: 30}, Setting{Height: 30.049}, ""},
		"height":            {Setting{Height: 30}, Setting{Height: 30.051}, "height"},
		"a hair of feed":    {Setting{Feed: 3}, Setting{Feed: 3.009}, ""},
		"feed":              {Setting{Feed: 3}, Setting{Feed: 3.011}, "feed"},
		"blade and support": {Setting{Blade: "a", Support: "open"}, Setting{Blade: "b", Support: "backer"}, "blade and insert or backer"},
	} {
		if got := Differ([]Setting{tt.a, tt.b}).String(); got != tt.want {
			t.Errorf("%s: %s", what, got)
		}
	}
	// Of the 20 shares of three and three, one is as extreme on each side.
	if mean, chance := Compare([]float64{1, 1, 1}, []float64{0, 0, 0}); mean != -1 || math.Abs(chance-0.1) > 1e-12 {
		t.Errorf("three against three: %v, %v", mean, chance)
	}
	if mean, chance := Compare([]float64{1, 0}, []float64{0, 1}); mean != 0 || chance != 1 {
		t.Errorf("alike: %v, %v", mean, chance)
	}
}
