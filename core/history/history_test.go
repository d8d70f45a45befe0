package history

import (
	"strings"
	"testing"
	"time"

	"corte/core/blade"
	"corte/core/care"
	"corte/core/cut"
	"corte/core/groove"
	"corte/core/learn"
	"corte/core/measure"
	"corte/core/outcome"
)

func TestUnreadableRowsChangeNothingAndAreNamed(t *testing.T) {
	b := blade.Blade{Teeth: 40, Grind: blade.ATB}
	sound := Row{Kind: KindCut, Detail: []byte(`{"material": "poplar", "thickness_mm": 20, "width_mm": 100, "length_mm": 1000, "pieces": 3}`)} // as the oldest rows are
	want, err := Condition(b, care.Condition{}, sound)
	if err != nil || want.WearM2 <= 0 {
		t.Fatalf("%+v, %v", want, err)
	}
	at := time.Date(2026, 5, 4, 10, 0, 0, 0, time.UTC)
	for name, row := range map[string]Row{
		"no object":   {at, KindCut, []byte(`[]`)},
		"direction":   {at, KindCut, []byte(`{"material": "poplar", "direction": "sideways", "pieces": 1}`)},
		"moisture":    {at, KindCut, []byte(`{"material": "poplar", "moisture": "soaked", "pieces": 1}`)},
		"material":    {at, KindCut, []byte(`{"material": "moon rock", "pieces": 1}`)},
		"saying":      {at, KindJudged, []byte(`{"says": "humming"}`)},
		"fault":       {at, KindInspected, []byte(`{"fault": "haunted"}`)},
		"sharpenings": {at, KindReturned, []byte(`{"sharpenings_left": "two"}`)},
	} {
		got, err := Condition(b, care.Condition{}, row, sound)
		if got != want || err == nil || !strings.Contains(err.Error(), `row "`+string(row.Kind)+`" of 2026-05-04T10:00:00Z`) {
			t.Errorf("%s: %+v, %v", name, got, err)
		}
	}
	if got, err := Condition(b, want, Row{Kind: KindNoted, Detail: []byte(`[]`)}); got != want || err != nil {
		t.Errorf("a note: %+v, %v", got, err)
	}
	set := groove.Set{Parts: []groove.Part{{Thickness: 3.2}}}
	before, _ := Parts(set, set.New())
	for kind, detail := range map[Kind]string{KindGrooved: `{"test": true, "width_mm": "wide"}`, KindRenewed: `[]`, KindCut: `[]`} {
		if got, err := Parts(set, set.New(), Row{at, kind, []byte(detail)}); err == nil || got.Told != before.Told {
			t.Errorf("%s of a set: %+v, %v", kind, got, err)
		}
	}
}

// What a test groove told of a part is less sure after every metre that it cut.
func TestCutsBlurWhatIsKnownOfASet(t *testing.T) {
	set := groove.Set{Left: 3.2, Right: 3.2, Parts: []groove.Part{{Thickness: 3.2}}}
	tested := Row{Kind: KindGrooved, Detail: []byte(`{"test": true, "left_mm": 3.2, "right_mm": 3.2, "width_mm": [6.5, 6.5, 6.5]}`)}
	made := Row{Kind: KindCut, Detail: []byte(`{"direction": "rip", "length_mm": 1000, "pieces": 50}`)}
	known, err := Parts(set, set.New(), tested)
	if err != nil || known.Told != 1 {
		t.Fatalf("%+v, %v", known, err)
	}
	got, err := Parts(set, known, made)
	if err != nil || !(got.Estimate.Cov[0][0] > known.Estimate.Cov[0][0]) {
		t.Errorf("%v of %v after 50 m, %v", got.Estimate.Cov, known.Estimate.Cov, err)
	}
}

func TestLesson(t *testing.T) {
	other := 0.9
	c := Cut{Wall: outcome.Brown, Splinters: outcome.Fuzz, OtherSplinters: outcome.Torn, Foretold: &Foretold{Edition: 0, Heat: 0.7, Exit: 0.4, Other: &other}}
	if _, teaches := c.Lesson(); teaches {
		t.Error("what another edition foretold, and can't be worked anew, teaches nothing")
	}
	c.Foretold.Edition = cut.Edition
	got, teaches := c.Lesson()
	if want := (learn.Cut{Heat: 0.7, Burnt: true}); !teaches || got.Heat != want.Heat || !got.Burnt || len(got.Grades) != 2 ||
		got.Grades[0] != learn.Fuzz || got.Foretold[0] != 0.4 || got.Grades[1] != learn.Torn || got.Foretold[1] != 0.9 {
		t.Errorf("%+v, %v", got, teaches)
	}
	c.Wall, c.OtherSplinters, c.Foretold.Exit = outcome.Clean, "", 0
	if got, _ := c.Lesson(); got.Burnt || len(got.Grades) != 0 {
		t.Errorf("clean, one face without a figure and one that nobody looked at: %+v", got)
	}
}

func TestLengths(t *testing.T) {
	c := Cut{Direction: "rip", Thickness: 20, Width: 100, Length: 1000, Pieces: 3, Seconds: 12, Feed: 4}
	if got := c.CutLength(); got != 3000 {
		t.Errorf("three pieces: %v", got)
	}
	if got := c.RealFeed(); got != measure.Feed(5) {
		t.Errorf("1 m in 12 s is %v", got)
	}
	c.Metres, c.Seconds = 7.5, 0
	if c.CutLength() != 7500 || c.RealFeed() != 4 {
		t.Errorf("counted in metres: %v at %v", c.CutLength(), c.RealFeed())
	}
	c.Direction = "sideways"
	if got := c.PieceLength(); got != 0 {
		t.Errorf("of no known direction: %v", got)
	}
}
