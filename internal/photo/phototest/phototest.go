// Package phototest draws photos for tests.
package phototest

import (
	"bytes"
	"image"
	"image/color"
	"image/jpeg"
	"math"
	"testing"
)

// Blade is a JPEG of a plain dark disc of pointed teeth on something light, with a
// tenth of its diameter bored out, from straight above. Its faces lie on the radius.
func Blade(t *testing.T, teeth int) []byte {
	t.Helper()
	const side, radius = 900, 380.0
	img := image.NewGray(image.Rect(0, 0, side, side))
	inside := func(x, y float64) float64 {
		dx, dy := x-side/2, y-side/2
		r, turn := math.Hypot(dx, dy), math.Atan2(dy, dx)/(2*math.Pi)*float64(teeth)
		if into := turn - math.Floor(turn); r < radius*(1-0.09*(1-into)) && r > radius/10 { // the back falls off from the tip
			return 1
		}
		return 0
	}
	const parts = 4 // of a pixel, either way: a camera has no hard edges
	for y := range side {
		for x := range side {
			share := 0.0
			for k := range parts * parts {
				share += inside(float64(x)+(float64(k%parts)+0.5)/parts, float64(y)+(float64(k/parts)+0.5)/parts) / (parts * parts)
			}
			img.SetGray(x, y, color.Gray{uint8(225 - 155*share)})
		}
	}
	return JPEG(t, img)
}

// JPEG is a picture as a camera would send it.
func JPEG(t *testing.T, img image.Image) []byte {
	t.Helper()
	var out bytes.Buffer
	if err := jpeg.Encode(&out, img, nil); err != nil {
		t.Fatal(err)
	}
	return out.Bytes()
}

// Wall is a JPEG of the wall of a cut, five times as long as it is thick, that is brown
// along its last fifth and has a mark at every fiftieth of its length.
func Wall(t *testing.T) []byte {
	t.Helper()
	img := image.NewRGBA(image.Rect(0, 0, 1200, 600))
	for y := range 600 {
		for x := range 1200 {
			c := color.RGBA{50, 55, 60, 255}
			if x >= 100 && x < 1100 && y >= 200 && y < 400 {
				c = color.RGBA{216, 181, 131, 255}
				if x >= 900 {
					c = color.RGBA{110, 75, 42, 255}
				}
				if x%20 < 6 {
					c.R, c.G, c.B = c.R-c.R/10, c.G-c.G/10, c.B-c.B/10
				}
			}
			img.SetRGBA(x, y, c)
		}
	}
	return JPEG(t, img)
}

// Edge is a JPEG of a face with its lower edge in the picture from end to end, a thousand
// pixels: splintered at a tenth, four and seven tenths of it, 25, 15 and 42 thousandths
// of it deep and 40, 30 and 50 wide, with a fibre that stands out at 0.55.
func Edge(t *testing.T) []byte {
	t.Helper()
	img := image.NewRGBA(image.Rect(0, 0, 1200, 600))
	for y := range 600 {
		for x := range 1200 {
			c := color.RGBA{50, 55, 60, 255}
			in, along := 400-y, x-100
			switch {
			case along < 0 || along >= 1000 || in > 300:
			case in > 0:
				c = color.RGBA{216, 181, 131, 255}
				for _, s := range [][3]int{{100, 40, 25}, {400, 30, 15}, {700, 50, 42}} {
					if off := max(along-s[0], s[0]-along); in <= s[2]*(s[1]/2-off)/(s[1]/2) {
						c = color.RGBA{150, 118, 80, 255}
					}
				}
			case in > -14 && along >= 548 && along < 552:
				c = color.RGBA{220, 186, 134, 255}
			}
			img.SetRGBA(x, y, c)
		}
	}
	return JPEG(t, img)
}
