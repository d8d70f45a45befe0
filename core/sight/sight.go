// Package sight measures a blade on a photo of it lying flat: tooth count, hook,
// groups with a deeper gullet, body slots, teeth that are missing, short or
// bent, and the bore as a share of the diameter, so that one known size gives
// all sizes (craft section 18).
//
// The picture is scaled down and the blade located. The circle of the tips is
// fitted and corrected by its ellipse and the bore. The rim is unrolled, and
// each point is classified as plate or background, sector by sector, since light
// differs. The period that repeats all the way round is the tooth; the average
// tooth shows its face. Lengths are in radii of the tips' circle until a size is
// known.
package sight

import (
	"corte/core/fault"
)

// A Picture is rows of pixels from the top, each four bytes: red, green, blue and
// one that is not looked at.
type Picture struct {
	Wide, High int
	Pix        []uint8
}

// MostPixels is the largest picture that is looked at.
const MostPixels = 50_000_000

// EnoughSide is what a larger picture may be made smaller to, either way: finer ones
// show no more of a tooth.
const EnoughSide = 4096

// leastSide is the smallest side of a picture, in pixels, that teeth can be told in.
const leastSide = 160

func (p Picture) fault() error {
	switch {
	case p.Wide < leastSide || p.High < leastSide:
		return fault.At("", "a photo of %d by %d pixels is too small to count teeth. Take one of at least %d each way", p.Wide, p.High, leastSide)
	case p.Wide*p.High > MostPixels:
		return fault.At("", "a photo of %d by %d pixels is too large. Send at most %d million pixels", p.Wide, p.High, MostPixels/1_000_000)
	case len(p.Pix) < 4*p.Wide*p.High:
		return fault.At("", "a picture of %d by %d pixels has %d bytes and not %d", p.Wide, p.High, len(p.Pix), 4*p.Wide*p.High)
	}
	return nil
}

// ErrNoBlade is returned where nothing in a picture is round with teeth.
var ErrNoBlade = fault.At("", "no blade found in this photo. Lay it flat on a plain surface of a different color and take the whole blade from straight above")

// A Point is a place in a picture, in pixels from its upper left corner.
type Point struct{ X, Y float64 }

// A Blade is what was read off a picture. How sure runs from 0 to 1.
type Blade struct {
	Teeth     int
	TeethSure float64
	Hook      float64 // degrees
	HookSure  float64
	Group     int     // teeth from one deeper gullet to the next; 0 where all are alike
	Gullet    float64 // its depth, in radii
	Slots     int     // in the body, from the rim inwards
	Missing   []Place // teeth that are not there, or hardly
	Short     []Place // such that stand a good deal lower than the others: chipped, or bent
	Bent      []Place // and such that stand further on or back than the others
	BoreRatio float64 // bore to diameter; 0 where no bore was found
	BoreSure  float64
	// Clockwise reports whether the faces look the way a clock's hand runs.
	Clockwise bool

	Rim  []Point // the tips' circle as it lies in the picture, 72 points from the right on, clockwise
	Bore []Point // and the bore's
	Tips []Point // of every tooth, in the same order, missing ones where they ought to be
}

// A Place is where on the rim, as an hour on a clock's face has it: degrees from the
// top of the picture on, clockwise; and which of Tips it is.
type Place struct {
	Degrees float64
	Tooth   int
}

// Look reads the blade off a picture; where somebody has tapped three places of its
// rim, each in shares of its width and height, the one that they show. The error is
// ErrNoBlade, or of a picture or of taps that cannot be looked at.
func (p Picture) Look(taps []Point) (Blade, error) {
	if err := p.fault(); err != nil {
		return Blade{}, err
	}
	if len(taps) > 0 {
		return p.lookAt(taps)
	}
	best := reading{}
	for _, m := range rims(p) {
		if r := readingOf(p, m); r.better(best) {
			best = r
		}
		if best.share > plain {
			break
		}
	}
	return best.blade()
}

func (p Picture) lookAt(taps []Point) (Blade, error) {
	if len(taps) != 3 {
		return Blade{}, fault.At("", "you tapped %d spots. Tap three teeth far apart", len(taps))
	}
	var at [3]Point
	for i, tap := range taps {
		at[i] = Point{tap.X * float64(p.Wide), tap.Y * float64(p.High)}
	}
	c, ok := through(at)
	if !ok {
		return Blade{}, fault.At("", "the three spots are in a line. Tap three teeth far apart around the rim")
	}
	m, ok := settled(p, c)
	if !ok {
		return Blade{}, ErrNoBlade
	}
	return readingOf(p, m).blade()
}
