package blade

import (
	"errors"
	"math"
	"testing"

	"corte/core/fault"
	"corte/core/measure"
)

func TestCheckNamesTheField(t *testing.T) {
	good := Blade{Diameter: 254, Bore: 15.875, Kerf: 3.2, Plate: 2.2, Teeth: 40, Grind: ATB, Bevel: 20, Hook: 15, MaxRPM: 7000}
	if err := good.Check(); err != nil {
		t.Fatalf("an ordinary blade: %v", err)
	}
	for field, spoil := range map[string]func(*Blade){
		"diameter":       func(b *Blade) { b.Diameter = measure.Length(math.NaN()) },
		"bore":           func(b *Blade) { b.Bore = 200 },
		"kerf":           func(b *Blade) { b.Kerf = -1 },
		"plate":          func(b *Blade) { b.Plate = 3.2 },
		"teeth":          func(b *Blade) { b.Teeth = 0 },
		"grind":          func(b *Blade) { b.Grind = 0 },
		"hook":           func(b *Blade) { b.Hook = 60 },
		"bevel":          func(b *Blade) { b.Bevel = 0 },
		"greatest speed": func(b *Blade) { b.MaxRPM = -5 },
		"raker":          func(b *Blade) { b.Raker = 3 },
	} {
		b := good
		spoil(&b)
		var e *fault.Error
		if err := b.Check(); !errors.As(err, &e) || e.Where != field {
			t.Errorf("%s: Check() = %v", field, err)
		}
	}
}

// Spacing is what matters, not the count alone (craft section 2).
func TestPitchAndGullet(t *testing.T) {
	small, large := Blade{Diameter: 125, Teeth: 16}, Blade{Diameter: 190, Teeth: 24}
	if d := math.Abs((small.Pitch() - large.Pitch()).Mm()); d > 0.5 {
		t.Errorf("16 teeth at 125 mm and 24 at 190 mm differ by %v mm in spacing", d)
	}
	if g := (Blade{Diameter: 254, Teeth: 10}).GulletDepth(); g != 14 {
		t.Errorf("a ten-tooth gullet is %v deep, want the cap of 14 mm", g)
	}
	for _, g := range Grinds() {
		if back, err := ParseGrind(g.String()); err != nil || back != g || g.Words().Zero() {
			t.Errorf("grind %v: %v, %v", g, back, err)
		}
	}
}

// Each number is taken up to its bounds and refused a hair past them.
func TestBounds(t *testing.T) {
	good := Blade{Diameter: 254, Bore: 15.875, Kerf: 3.2, Plate: 2.2, Teeth: 40, Grind: ATB, Bevel: 20, Hook: 15, MaxRPM: 7000}
	at := func(b Blade) string {
		var e *fault.Error
		if errors.As(b.Check(), &e) {
			return e.Where
		}
		return ""
	}
	mm := func(set func(*Blade, measure.Length)) func(*Blade, float64) {
		return func(b *Blade, v float64) { set(b, measure.Length(v)) }
	}
	for _, tt := range []struct {
		where       string
		least, most float64
		step        float64
		set         func(*Blade, float64)
	}{
		{"diameter", 50, 600, 0.01, func(b *Blade, v float64) { b.Diameter, b.Teeth, b.Bore = measure.Length(v), 8, 10 }},
		{"bore", 5, 80, 0.01, mm(func(b *Blade, v measure.Length) { b.Bore = v })},
		{"kerf", 0.5, 30, 0.01, mm(func(b *Blade, v measure.Length) { b.Kerf, b.Plate = v, 0 })},
		{"plate", 0, 30, 0.01, mm(func(b *Blade, v measure.Length) { b.Plate, b.Kerf = v, min(30, v+0.6) })},
		{"greatest speed", 0, 30_000, 1, func(b *Blade, v float64) { b.MaxRPM = v }},
		{"teeth", 2, 200, 1, func(b *Blade, v float64) { b.Teeth = int(v) }},
		{"hook", -15, 35, 0.01, func(b *Blade, v float64) { b.Hook = v }},
		{"bevel", 0, 50, 0.01, func(b *Blade, v float64) { b.Bevel, b.Grind = v, TCG }},
		{"group", 2, 9, 1, func(b *Blade, v float64) { b.Group = int(v) }},
		{"gullet", 0, 40, 0.01, mm(func(b *Blade, v measure.Length) { b.Gullet = v })},
		{"raker", 0, 1, 0.001, mm(func(b *Blade, v measure.Length) { b.Raker = v })},
	} {
		for v, ok := range map[float64]bool{tt.least: true, tt.most: true, tt.least - tt.step: false, tt.most + tt.step: false} {
			b := good
			tt.set(&b, v)
			if where := at(b); ok && where == tt.where || !ok && where != tt.where {
				if tt.where == "plate" && v == tt.most && where == "plate" { // it must be thinner than the widest kerf
					continue
				}
				t.Errorf("%s of %v: refused at %q", tt.where, v, where)
			}
		}
	}
	change := func(f func(*Blade)) Blade {
		b := good
		f(&b)
		return b
	}
	for what, tt := range map[string]struct {
		b     Blade
		where string
	}{
		"half the disc is bore":        {change(func(b *Blade) { b.Bore = 127 }), "bore"},
		"just less than half":          {change(func(b *Blade) { b.Diameter, b.Bore, b.Teeth = 100, 49.99, 20 }), ""},
		"exactly half":                 {change(func(b *Blade) { b.Diameter, b.Bore, b.Teeth = 100, 50, 20 }), "bore"},
		"a plate as thick as the kerf": {change(func(b *Blade) { b.Plate = b.Kerf }), "plate"},
		"teeth 3 mm apart":             {change(func(b *Blade) { b.Diameter, b.Teeth = measure.Length(3*100/math.Pi)+0.001, 100 }), ""},
		"teeth nearer":                 {change(func(b *Blade) { b.Diameter, b.Teeth = measure.Length(3*100/math.Pi)-0.001, 100 }), "teeth"},
		"a hook that nobody read":      {change(func(b *Blade) { b.Hook, b.HookUnknown = 99, true }), ""},
		"flat teeth without a bevel":   {change(func(b *Blade) { b.Grind, b.Bevel = FTG, 0 }), ""},
		"a group not said":             {change(func(b *Blade) { b.Group = 0 }), ""},
		"a wheel with teeth":           {change(func(b *Blade) { b.Make = Diamond }), "teeth"},
		"a wheel":                      {change(func(b *Blade) { b.Make, b.Teeth, b.Grind = Abrasive, 0, 0 }), ""},
	} {
		if where := at(tt.b); where != tt.where {
			t.Errorf("%s: refused at %q", what, where)
		}
	}
	for _, g := range []Grind{ATB, HighATB, ATBR, OneWay} {
		if where := at(change(func(b *Blade) { b.Grind, b.Bevel = g, 0 })); where != "bevel" {
			t.Errorf("%s without a bevel: refused at %q", g, where)
		}
	}
}

// What stands in for what, and what is reckoned with where nothing was measured.
func TestStandInsAndUsualParts(t *testing.T) {
	b := Blade{Diameter: 254, Bore: 15.875, Kerf: 3.2, Plate: 2.2, Teeth: 40, Grind: ATBR, Bevel: 15}
	change := func(f func(*Blade)) Blade {
		o := b
		f(&o)
		return o
	}
	for what, tt := range map[string]struct {
		o      Blade
		serves bool
	}{
		"itself":          {b, true},
		"50 teeth":        {change(func(b *Blade) { b.Teeth = 50 }), true},
		"51 teeth":        {change(func(b *Blade) { b.Teeth = 51 }), false},
		"30 teeth":        {change(func(b *Blade) { b.Teeth = 30 }), true},
		"29 teeth":        {change(func(b *Blade) { b.Teeth = 29 }), false},
		"3 mm larger":     {change(func(b *Blade) { b.Diameter = 257 }), true},
		"more than that":  {change(func(b *Blade) { b.Diameter = 257.01 }), false},
		"3 mm smaller":    {change(func(b *Blade) { b.Diameter = 251 }), true},
		"less than that":  {change(func(b *Blade) { b.Diameter = 250.99 }), false},
		"another bore":    {change(func(b *Blade) { b.Bore = 16 }), false},
		"another grind":   {change(func(b *Blade) { b.Grind = TCG }), false},
		"another make":    {change(func(b *Blade) { b.Make = Scoring }), false},
		"a thinner plate": {change(func(b *Blade) { b.Plate = 1.8 }), true},
	} {
		if got := tt.o.Serves(b); got != tt.serves {
			t.Errorf("%s serves: %v", what, got)
		}
	}
	if b.GroupSize() != 5 || change(func(b *Blade) { b.Group = 4 }).GroupSize() != 4 {
		t.Error("a group is of 5 unless it is said")
	}
	if b.RakerStep() != 0.15 || change(func(b *Blade) { b.Raker = 0.2 }).RakerStep() != 0.2 {
		t.Error("a raker stands 0.15 back unless it was measured")
	}
	if d := b.GulletDepth().Mm() - 0.45*math.Pi*254/40; math.Abs(d) > 1e-9 || change(func(b *Blade) { b.Gullet = 9 }).GulletDepth() != 9 {
		t.Errorf("a gullet is %v deep", b.GulletDepth())
	}
	if c := b.SideClearance().Mm(); math.Abs(c-0.5) > 1e-12 || change(func(b *Blade) { b.Plate = 0 }).SideClearance() != 0 {
		t.Errorf("a tip stands out %v", c)
	}
	for shape, share := range map[GulletShape]float64{UnknownGullet: 0.45, RoundGullet: 0.52, HookedGullet: 0.45, NarrowGullet: 0.36} {
		one := change(func(b *Blade) { b.GulletShape = shape })
		if got := one.GulletArea() / (one.Pitch().Mm() * one.GulletDepth().Mm()); math.Abs(got-share) > 1e-12 {
			t.Errorf("%s gullets are %v of pitch and depth", shape, got)
		}
	}
	if c, err := ParseCarbide(""); c != UnknownCarbide || err != nil {
		t.Errorf("no carbide said: %v, %v", c, err)
	}
	if g, err := ParseGulletShape(""); g != UnknownGullet || err != nil {
		t.Errorf("no gullet said: %v, %v", g, err)
	}
}

// Each thing that a person cannot see in the numbers is said by itself, and
// nothing is said of a common blade.
func TestFeatures(t *testing.T) {
	for want, b := range map[string]Blade{
		"":                           {Carbide: UsualCarbide, GulletShape: HookedGullet},
		"hook angle unknown":         {HookUnknown: true},
		"shoulder behind each tooth": {Shoulder: true},
		"face bevel":                 {Shear: true},
		"disposable":                 {Throwaway: true},
		"tough carbide":              {Carbide: ToughCarbide},
		"hard carbide":               {Carbide: HardCarbide},
		"round gullets":              {GulletShape: RoundGullet},
		"narrow gullets":             {GulletShape: NarrowGullet},
	} {
		got := b.Features()
		if want == "" && len(got) > 0 || want != "" && (len(got) != 1 || got[0].Name != want || got[0].Why == "") {
			t.Errorf("%q: %+v", want, got)
		}
	}
}
