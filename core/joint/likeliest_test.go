package joint

import (
	"testing"

	"corte/core/blade"
	"corte/core/saw"
	"corte/core/starter"
)

func TestLikeliest(t *testing.T) {
	w := starter.Saw(saw.Table)
	of := func(g blade.Grind, use blade.Use) blade.Blade {
		return blade.Blade{Diameter: w.Diameter, Bore: w.Arbor, Kerf: 3.2, Teeth: 40, Grind: g, Hook: 10, KeptFor: use}
	}
	atb, flat, oneWay := of(blade.ATB, blade.UseGeneral), of(blade.FTG, blade.UseRip), of(blade.OneWay, blade.UseGeneral)
	wheel, small := flat, flat
	wheel.Make, small.Bore = blade.Diamond, 20
	for name, c := range map[string]struct {
		kind   string
		blades []blade.Blade
		want   int
	}{
		"tails want one side, whatever it is kept for": {"tails", []blade.Blade{of(blade.FTG, blade.UseJoints), oneWay}, 1},
		"and a flat top where there is none":           {"tails", []blade.Blade{atb, flat}, 1},
		"a tenon wants a flat top":                     {"tenon", []blade.Blade{of(blade.OneWay, blade.UseJoints), flat}, 1},
		"that is kept for joints":                      {"tenon", []blade.Blade{flat, of(blade.FTG, blade.UseJoints)}, 1},
		"the first of two alike":                       {"tenon", []blade.Blade{atb, flat, flat}, 1},
		"what goes on, if nothing fits better":         {"box", []blade.Blade{wheel, small, atb}, 2},
		"nothing goes on":                              {"box", []blade.Blade{wheel, small}, -1},
	} {
		if got := Likeliest(c.kind, c.blades, w); got != c.want {
			t.Errorf("%s: %d, not %d", name, got, c.want)
		}
	}
}
