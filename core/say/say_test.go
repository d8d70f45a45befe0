package say_test

import (
	"encoding/json"
	"errors"
	"fmt"
	"strings"
	"testing"
	"time"

	"corte/core/cut"
	"corte/core/fault"
	"corte/core/measure"
	"corte/core/say"
)

var (
	inches = say.Voice{Unit: measure.Inch}
	// shout is another language: its own words, its own order.
	shout = say.Voice{Language: &say.Language{
		Form: func(form string) string {
			if form == "%s of %s" {
				return "%[2]s: %[1]s!"
			}
			return strings.NewReplacer("%S", "%s", "%.1F", "%.1f", "%D", "%d").Replace(strings.ToUpper(form))
		},
		Last: func(joint, next string) string {
			if joint == " and " && strings.HasPrefix(next, "T") {
				return " & "
			}
			return strings.ToUpper(joint)
		},
		Decimal: ",", Months: []string{"JAN", "FEB"}, Date: "2 {month} 06",
	}}
)

// Lines are said to a reader, and are the same lines when they were kept in
// between.
func TestLinesAreSaidToAReader(t *testing.T) {
	for _, tt := range []struct {
		line          say.Line
		mm, in, other string
	}{
		{say.Line{}, "", "", ""},
		{say.Of("plain"), "plain", "plain", "PLAIN"},
		{say.Word("10 % of it"), "10 % of it", "10 % of it", "10 % OF IT"},
		{say.Of("%s long", measure.Length(25.4)), "25.4 mm long", `1" long`, ""},
		{say.Of("%s long", measure.Length(20)), "20 mm long", `25/32" +0.006 long`, ""},
		{say.Of("set it to %s", say.Set(20.04)), "set it to 20 mm", `set it to 25/32"`, ""},
		{say.Of("off by %s", say.Thin(-0.18)), "off by -0.18 mm", `off by -0.007"`, ""},
		{say.Of("off by %s", say.Dial(-0.0885)), "off by 0.089 mm", `off by 0.0035"`, ""},
		{say.Of("a block of %s", say.Either{Mm: say.Set(100), Inch: say.Set(measure.Inches(4))}), "a block of 100 mm", `a block of 4"`, ""},
		{say.Of("%s of %s", say.Of("a rip"), cut.Fine), "a rip of fine", "a rip of fine", "FINE: A RIP!"},
		{say.Of("%s of %s", "Plough", say.And{say.Of("one"), say.Of("two"), say.Of("three")}), "Plough of one, two and three", "Plough of one, two and three", "ONE, TWO & THREE: Plough!"},
		{say.Of("%s", say.Or{say.Of("one"), say.Of("two")}), "one or two", "one or two", "ONE OR TWO"},
		{say.Of("%s", say.List{say.Of("one"), say.Of("two")}), "one, two", "one, two", "ONE, TWO"},
		{say.Of("%s", say.And{say.Of("one")}), "one", "one", "ONE"},
		{say.Of("%d of %.1f", 3, 2.55), "3 of 2.5", "3 of 2.5", "3 OF 2,5"},
		{say.Of("%s", measure.Length(2.5)), "2.5 mm", `3/32" +0.005`, "2,5 mm"},
		{say.Of("since %s", say.On(time.Date(2026, 2, 9, 23, 0, 0, 0, time.FixedZone("", 7200)))), "since 9 February 2026", "since 9 February 2026", "SINCE 9 FEB 26"},
		{say.Of("setting %c", 'A'+1), "setting B", "setting B", ""},
		{say.Of("übrig: %s", say.Of("é")).Upper(), "Übrig: é", "Übrig: é", "ÜBRIG: É"},
		{say.Of("no: %s", fault.At("depth", "over %s", measure.Length(25.4))), "no: over 25.4 mm", `no: over 1"`, ""},
		{say.Of("no: %s", errors.New("50 % gone")), "no: 50 % gone", "no: 50 % gone", ""},
	} {
		kept, err := json.Marshal(tt.line)
		var back say.Line
		if err == nil {
			err = json.Unmarshal(kept, &back)
		}
		if err != nil {
			t.Errorf("%s is not kept: %v", tt.mm, err)
		}
		for which, l := range map[string]say.Line{"made": tt.line, "kept": back} {
			if l.String() != tt.mm || inches.Say(l) != tt.in || tt.other != "" && shout.Say(l) != tt.other && which == "made" {
				t.Errorf("%s: %q, %q, %q; want %q, %q, %q", which, l, inches.Say(l), shout.Say(l), tt.mm, tt.in, tt.other)
			}
		}
	}
}

func TestNamesAreFilledIn(t *testing.T) {
	const on, other say.Stand = "ON", "NAME"
	l := say.Of("%s stays; %s", on, say.Of("%s goes", other)).Upper()
	got := l.Filled(map[say.Stand]string{on: "plough", other: "Chorus"})
	if got.String() != "Plough stays; Chorus goes" || fmt.Sprint(l.With[0]) != "ON" {
		t.Errorf("%s, from %v", got, l.With)
	}
}

// Rows that lie in shops' logs are read by these names.
func TestWhatIsKeptGoesByItsNames(t *testing.T) {
	const kept = `{"form":"%s: %s, %s, %s, %s; %s, %s, %s, %s, %s; %d %.1f","with":[{"text":"Plough"},{"mm":25.4},{"mm":20,"as":"set"},{"mm":0.18,"as":"thin"},{"mm":0.0885,"as":"dial"},` +
		`{"as":"list","list":[{"form":"a"},{"form":"b"}]},{"as":"and","list":[{"form":"a"},{"form":"b"}]},{"as":"or","list":[{"form":"a"},{"form":"b"}]},` +
		`{"as":"either","list":[{"mm":100,"as":"set"},{"mm":101.6,"as":"set"}]},{"form":"fine"},{"whole":3},{"number":2.5}],"upper":true}`
	var l say.Line
	if err := json.Unmarshal([]byte(kept), &l); err != nil {
		t.Fatal(err)
	}
	if want := `Plough: 1", 25/32", 0.007", 0.0035"; a, b, a and b, a or b, 4", fine; 3 2.5`; inches.Say(l) != want {
		t.Errorf("%s, not %s", inches.Say(l), want)
	}
	if again, err := json.Marshal(l); err != nil || string(again) != kept {
		t.Errorf("kept again as %s, %v", again, err)
	}
}

func TestTheFirstEditionsRecordsAreText(t *testing.T) {
	var all []say.Line
	if err := json.Unmarshal([]byte(`["heel 0.09 mm, 20 % of it", ""]`), &all); err != nil || all[0].String() != "heel 0.09 mm, 20 % of it" || !all[1].Zero() {
		t.Errorf("%v, %v", all, err)
	}
	if err := json.Unmarshal([]byte(`[7]`), &all); err == nil {
		t.Errorf("a number is said as %v", all)
	}
	if _, err := json.Marshal(say.Of("%v", struct{}{})); err == nil {
		t.Error("what cannot be read again is kept")
	}
}
