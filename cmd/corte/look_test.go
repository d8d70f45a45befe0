package main

import (
	"encoding/json"
	"image"
	"image/color"
	"image/jpeg"
	"math"
	"os"
	"path/filepath"
	"strings"
	"testing"
)

// bladePhoto draws a plain dark disc of 24 pointed teeth on something light, with a
// tenth of its diameter bored out, from straight above.
func bladePhoto(t *testing.T) string {
	t.Helper()
	const side, radius, teeth = 900, 380.0, 24
	img := image.NewGray(image.Rect(0, 0, side, side))
	for y := range side {
		for x := range side {
			dx, dy := float64(x)-side/2, float64(y)-side/2
			r, turn := math.Hypot(dx, dy), math.Atan2(dy, dx)/(2*math.Pi)*teeth
			into := turn - math.Floor(turn) // the back falls off from the tip, the face lies on the radius
			light := uint8(225)
			if r < radius*(1-0.09*(1-into)) && r > radius/10 {
				light = 70
			}
			img.SetGray(x, y, color.Gray{light})
		}
	}
	f, err := os.Create(filepath.Join(t.TempDir(), "blade.jpg"))
	if err != nil {
		t.Fatal(err)
	}
	if err := jpeg.Encode(f, img, nil); err != nil {
		t.Fatal(err)
	}
	if err := f.Close(); err != nil {
		t.Fatal(err)
	}
	return f.Name()
}

func TestLookPrintsWhatItSaw(t *testing.T) {
	name := bladePhoto(t)
	for _, c := range []struct {
		said           []string
		diameter, bore float64
	}{{nil, 0, 0}, {[]string{"--bore", "25.4"}, 254, 25.4}, {[]string{"--diameter", "300"}, 300, 30}} {
		out, err := ran(lookCommand(), append([]string{name}, c.said...)...)
		var got seen
		if err != nil || json.Unmarshal([]byte(out), &got) != nil {
			t.Fatalf("%v: %v\n%s", c.said, err, out)
		}
		if got.Teeth != 24 || got.TeethSure < 0.9 || math.Abs(got.Hook) > 2 || got.Group != 0 || len(got.Missing) > 0 || math.Abs(got.BoreRatio-0.1) > 0.002 {
			t.Errorf("%v: %s", c.said, out)
		}
		if math.Abs(got.Diameter-c.diameter) > 0.02*c.diameter || math.Abs(got.Bore-c.bore) > 0.02*c.bore {
			t.Errorf("%v: %g mm with a bore of %g", c.said, got.Diameter, got.Bore)
		}
	}
}

func TestLookSaysWhatItCannot(t *testing.T) {
	dir := t.TempDir()
	text, plain := filepath.Join(dir, "a.jpg"), filepath.Join(dir, "b.jpg")
	if err := os.WriteFile(text, []byte("no photo"), 0o600); err != nil {
		t.Fatal(err)
	}
	f, err := os.Create(plain)
	if err != nil {
		t.Fatal(err)
	}
	if err := jpeg.Encode(f, image.NewGray(image.Rect(0, 0, 400, 300)), nil); err != nil {
		t.Fatal(err)
	}
	if err := f.Close(); err != nil {
		t.Fatal(err)
	}
	for want, args := range map[string][]string{
		"not a photo":       {text},
		"no such file":      {text + "x"},
		"no blade was":      {plain},
		"not both":          {plain, "--bore", "30", "--diameter", "250"},
		"no saw blade's; f": {plain, "--diameter", "20"},
		"a bore of 500":     {plain, "--bore", "500"},
	} {
		if out, err := ran(lookCommand(), args...); err == nil || !strings.Contains(err.Error(), want) {
			t.Errorf("%v: %v\n%s", args[1:], err, out)
		}
	}
}
