// Package groove works out the bottoms and widths of cuts that do not go
// through: craft section 12, model section 11.
package groove

import (
	"math"

	"corte/core/blade"
	"corte/core/measure"
	"corte/core/say"
)

// Bottom is what a blade leaves standing above the deepest point of its kerf,
// at a distance x from the middle of the kerf. Outside the kerf it is 0.
func Bottom(b blade.Blade, x measure.Length) measure.Length {
	half := b.Kerf / 2
	off := measure.Length(math.Abs(x.Mm()))
	if off > half {
		return 0
	}
	slope := measure.Length(math.Tan(b.Bevel * math.Pi / 180))
	switch b.Grind {
	case blade.ATB, blade.HighATB:
		return (half - off) * slope
	case blade.ATBR:
		return min((half-off)*slope, b.RakerStep())
	case blade.OneWay:
		return (half - x) * slope
	}
	return 0
}

// Profile is the bottom across the kerf from edge to edge in n points, at
// least 2: x and the height left standing there.
func Profile(b blade.Blade, n int) [][2]measure.Length {
	p := make([][2]measure.Length, n)
	for i := range p {
		x := b.Kerf * measure.Length(float64(i)/float64(n-1)-0.5)
		p[i] = [2]measure.Length{x, Bottom(b, x)}
	}
	return p
}

// A Bottoming says how flat a groove's bottom comes out.
type Bottoming uint8

const (
	Flat Bottoming = iota
	NearlyFlat
	Sloping // all to one side
	Ridged
)

// Flatness judges a blade by what glue and eye forgive: a film of glue fills a
// few hundredths, and two tenths vanish in a joint that nobody looks into.
func Flatness(b blade.Blade) Bottoming {
	switch r := Ridge(b); {
	case r <= 0.03:
		return Flat
	case r <= 0.2:
		return NearlyFlat
	case b.Grind == blade.OneWay:
		return Sloping
	}
	return Ridged
}

// FlatEnoughFor says in words what a blade's groove bottom will do for.
func FlatEnoughFor(b blade.Blade) say.Line {
	switch f := Flatness(b); {
	case f == Flat:
		return say.Of("flat, for any joint, visible or not")
	case f == NearlyFlat && b.Grind == blade.ATBR:
		return say.Of("nearly flat, with small ears in the corners, for joints whose end isn't visible")
	case f == NearlyFlat:
		return say.Of("nearly flat, for joints whose end isn't visible")
	case f == Sloping:
		return say.Of("sloping, for dovetails with the blade tilted to match")
	}
	return say.Of("ridged, for kerfs and loose grooves, not for a joint that carries load or is visible")
}

// Ridge is the most that a blade leaves standing in the bottom of its kerf.
func Ridge(b blade.Blade) measure.Length {
	if b.Grind == blade.OneWay {
		return Bottom(b, -b.Kerf/2)
	}
	return Bottom(b, 0)
}
