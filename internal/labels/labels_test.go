package labels_test

import (
	"encoding/xml"
	"fmt"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"corte/core/blade"
	"corte/core/measure"
	"corte/internal/labels"
	"corte/internal/store"
)

// Every label lies on the paper by itself, its words clear of its code, however
// long they are.
func TestLabelsLieOnThePaper(t *testing.T) {
	var blades []store.Blade
	for i := range 30 {
		blades = append(blades, store.Blade{Name: strings.Repeat("Wide", i/5+1), Hangs: strings.Repeat("peg ", i), Blade: blade.Blade{
			Diameter: 305, Bore: 25.4, Kerf: 3.175, Teeth: 100, Grind: blade.Conical, Hook: -15, MaxRPM: 30000, KeptFor: blade.UseMineral}})
	}
	for _, u := range []measure.Unit{measure.Millimetre, measure.Inch} {
		raw, err := labels.Sheet(blades, func(store.Blade) string { return "http://127.0.0.1:8254/rack/47d88d7d-f9da-5f7d-8246-f647fe203613" }, 5, u)
		if err != nil {
			t.Fatal(err)
		}
		var svg struct {
			Height string `xml:"height,attr"`
			Labels []struct {
				At    string `xml:"transform,attr"`
				Texts []struct {
					X    float64 `xml:"x,attr"`
					Y    float64 `xml:"y,attr"`
					Size float64 `xml:"font-size,attr"`
					Said string  `xml:",chardata"`
				} `xml:"text"`
				Code struct {
					At   string `xml:"transform,attr"`
					Path string `xml:"d,attr"`
				} `xml:"path"`
			} `xml:"g"`
		}
		if err := xml.Unmarshal(raw, &svg); err != nil {
			t.Fatal(err)
		}
		if svg.Height != "594mm" || len(svg.Labels) != 30 {
			t.Fatalf("%d labels on %s of paper", len(svg.Labels), svg.Height)
		}
		places := map[string]bool{}
		for i, l := range svg.Labels {
			x, y := pair(t, l.At)
			if places[l.At] || x < 5 || x+64 > 205 || y < 5 || y > 594-34-5 {
				t.Errorf("label %d lies at %v, %v", i, x, y)
			}
			places[l.At] = true
			cx, cy := pair(t, l.Code.At)
			if cx+22 > 64 || cy+22 > 34 {
				t.Errorf("the code of label %d hangs over its edge", i)
			}
			for _, w := range l.Texts {
				wide := w.X + 0.56*w.Size*float64(len([]rune(w.Said))) // a sans-serif's usual width
				limit := cx
				if w.Y < cy {
					limit = 64
				}
				if wide > limit || w.Y > 33 {
					t.Errorf("label %d: %q reaches %.1f of %.1f", i, w.Said, wide, limit)
				}
			}
		}
		if said := fmt.Sprint(svg.Labels[0].Texts); u == measure.Inch && !strings.Contains(said, `kerf 0.125"`) {
			t.Errorf("in inches it says %s", said)
		}
	}
}

var numbers = regexp.MustCompile(`[\d.]+`)

func pair(t *testing.T, transform string) (x, y float64) {
	t.Helper()
	n := numbers.FindAllString(transform, -1)
	if len(n) != 2 {
		t.Fatalf("transform %q", transform)
	}
	x, _ = strconv.ParseFloat(n[0], 64)
	y, _ = strconv.ParseFloat(n[1], 64)
	return x, y
}
