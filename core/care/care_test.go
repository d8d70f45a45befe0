package care

import (
	"math"
	"testing"

	"corte/core/blade"
	"corte/core/material"
	"corte/core/measure"
)

func mat(t *testing.T, id string) material.Material {
	t.Helper()
	m, err := material.Get(id)
	if err != nil {
		t.Fatal(err)
	}
	return m
}

func TestALifeInTheShop(t *testing.T) {
	b := blade.Blade{Teeth: 40, Grind: blade.ATB}
	life := Life(b.Grind)
	var c Condition
	if c.Sharpness(life) != 1 || c.Pitch() != 0 || c.Word(life) != "fine" {
		t.Errorf("a new blade is %v", c.Word(life))
	}
	// Resinous pine loads a blade long before it dulls it.
	for c.Pitch() < WashAt {
		c = c.Cut(b, mat(t, "yellow-pine"), 3000, 38)
	}
	if c.Word(life) != "pitchy" || c.Sharpness(life) > WornAt {
		t.Errorf("after %v m of pine it is %s, sharpness %v", c.Metres, c.Word(life), c.Sharpness(life))
	}
	worn := c.WearM2
	c = c.Wash()
	if c.Pitch() != 0 || c.WearM2 != worn || c.MetresWashed != 0 || c.MetresSharp != c.Metres {
		t.Errorf("a wash left %+v", c)
	}
	for c.Word(life) != "dull" {
		c = c.Cut(b, mat(t, "mdf"), 2400, 18)
	}
	if math.Abs(c.WearM2/life-1) > 0.02 {
		t.Errorf("dull at %v of its life", c.WearM2/life)
	}
	metres := c.Metres
	c = c.Sharpen()
	if c.Word(life) != "fine" || c.Metres != metres || c.MetresSharp != 0 || c.Sharpenings != 1 || c.Washes != 1 {
		t.Errorf("a sharpening left %+v", c)
	}
}

// What one cut of two metres does, two cuts of one do as well.
func TestFoldAddsUp(t *testing.T) {
	b, m := blade.Blade{Teeth: 24, Grind: blade.FTG}, mat(t, "red-oak")
	once := Condition{}.Cut(b, m, 2000, 25)
	twice := Condition{}.Cut(b, m, 1000, 25).Cut(b, m, 1000, 25)
	twice.Cuts = once.Cuts
	if math.Abs(once.WearM2-twice.WearM2) > 1e-15 || once.Metres != twice.Metres {
		t.Errorf("%+v and %+v", once, twice)
	}
	wheel := Condition{}.Cut(blade.Blade{}, m, measure.Length(1000), 25)
	if wheel.WearM2 != 0 || math.IsNaN(wheel.ResinM2) || wheel.Metres != 1 {
		t.Errorf("a wheel without teeth: %+v", wheel)
	}
	if !(Life(blade.HighATB) < Life(blade.ATB) && Life(blade.ATB) < Life(blade.FTG) && Life(blade.FTG) < Life(blade.TCG)) {
		t.Error("steep points do not dull soonest, or triple chips not last")
	}
}
