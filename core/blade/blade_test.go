package blade

import (
	"errors"
	"math"
	"testing"

	"corte/core/measure"
)

func TestCheckNamesTheField(t *testing.T) {
	good := Blade{Diameter: 254, Bore: 15.875, Kerf: 3.2, Plate: 2.2, Teeth: 40, Grind: ATB, Bevel: 20, Hook: 15, MaxRPM: 7000}
	if err := good.Check(); err != nil {
		t.Fatalf("an ordinary blade: %v", err)
	}
	for field, spoil := range map[string]func(*Blade){
		"diameter_mm": func(b *Blade) { b.Diameter = measure.Length(math.NaN()) },
		"bore_mm":     func(b *Blade) { b.Bore = 200 },
		"kerf_mm":     func(b *Blade) { b.Kerf = -1 },
		"plate_mm":    func(b *Blade) { b.Plate = 3.2 },
		"teeth":       func(b *Blade) { b.Teeth = 0 },
		"grind":       func(b *Blade) { b.Grind = 0 },
		"hook_deg":    func(b *Blade) { b.Hook = 60 },
		"bevel_deg":   func(b *Blade) { b.Bevel = 0 },
		"max_rpm":     func(b *Blade) { b.MaxRPM = -5 },
		"raker_mm":    func(b *Blade) { b.Raker = 3 },
	} {
		b := good
		spoil(&b)
		var e *Error
		if err := b.Check(); !errors.As(err, &e) || e.Field != field {
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
		if back, err := ParseGrind(g.String()); err != nil || back != g || g.Words() == "" {
			t.Errorf("grind %v: %v, %v", g, back, err)
		}
	}
}
