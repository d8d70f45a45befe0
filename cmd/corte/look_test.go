package main

import (
	"encoding/json"
	"image"
	"math"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"corte/internal/photo/phototest"
)

// file puts one down for a command to read.
func file(t *testing.T, raw []byte) string {
	t.Helper()
	name := filepath.Join(t.TempDir(), "photo.jpg")
	if err := os.WriteFile(name, raw, 0o600); err != nil {
		t.Fatal(err)
	}
	return name
}

func TestLookPrintsWhatItSaw(t *testing.T) {
	name := file(t, phototest.Blade(t, 24))
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
	text := file(t, []byte("no photo"))
	plain := file(t, phototest.JPEG(t, image.NewGray(image.Rect(0, 0, 400, 300))))
	for want, args := range map[string][]string{
		"can't read this photo": {text},
		"no such file":          {text + "x"},
		"no blade found":        {plain},
		"not both":              {plain, "--bore", "30", "--diameter", "250"},
		"no saw blade's; f":     {plain, "--diameter", "20"},
		"a bore of 500":         {plain, "--bore", "500"},
	} {
		if out, err := ran(lookCommand(), args...); err == nil || !strings.Contains(err.Error(), want) {
			t.Errorf("%v: %v\n%s", args[1:], err, out)
		}
	}
}
