package measure

import (
	"encoding/json"
	"errors"
	"math"
	"os"
	"strings"
	"testing"
)

func TestParse(t *testing.T) {
	for _, tt := range []struct {
		text string
		bare Unit
		mm   float64
	}{
		{"1 3/16", Millimetre, 30.1625},
		{`1-3/16"`, Millimetre, 30.1625},
		{"1–3⁄16″", Inch, 30.1625},
		{"30mm", Inch, 30},
		{"0.1875", Inch, 4.7625},
		{"0.1875", Millimetre, 0.1875},
		{".5 in", Millimetre, 12.7},
		{"12,5", Millimetre, 12.5},
		{"0,125 in", Millimetre, 3.175},
		{"1,2205", Millimetre, 1.2205},
		{"1220,125", Millimetre, 1220.125},
		{"2' 3 1/2\"", Millimetre, 698.5},
		{"2ft-3", Millimetre, 685.8},
		{"6'", Millimetre, 1828.8},
		{"1½", Millimetre, 38.1},
		{"¾ inch", Millimetre, 19.05},
		{"9 cm", Inch, 90},
		{"1.2m", Inch, 1200},
		{"3/4 mm", Inch, 0.75},
		{`1 7/32" +0.005`, Millimetre, 31.08325},
		{`3937 1/64"`, Millimetre, 100_000},
		{`1/2 -0.062`, Millimetre, 11.1252},
		{"-0.05 mm", Inch, -0.05},
	} {
		got, err := Parse(tt.text, tt.bare)
		if err != nil || math.Abs(got.Mm()-tt.mm) > 1e-9 {
			t.Errorf("Parse(%q) = %v, %v; want %v mm", tt.text, got.Mm(), err, tt.mm)
		}
	}
}

func TestParseRefuses(t *testing.T) {
	for text, reason := range map[string]string{
		"":           "type a number",
		"thick":      "expected a number",
		"NaN":        "expected a number",
		"1/0":        "over zero",
		"3 furlongs": `"furlongs" is not a unit`,
		"30 mm 2":    `"2" at its end`,
		"1,220 mm":   "write 1220 or 1.22",
		"999,999":    "part thousands",
		"2 ft 30 mm": "after feet only inches",
		"1e9":        "\"e\" is not a unit",
		"999999999":  "longer than 100 m",
		"3937 1/32":  "longer than 100 m",
		"1 1/2/3":    "at its end",
		"0/01-7000":  "thousandths of an inch",
		"1/2+.0625":  "thousandths of an inch",
		"--3":        "expected a number",
	} {
		l, err := Parse(text, Millimetre)
		var pe *ParseError
		if !errors.As(err, &pe) || pe.Text != text || !strings.Contains(pe.Reason(), reason) || l != 0 {
			t.Errorf("Parse(%q) = %v, %v; want an error that says %q", text, l, err, reason)
		}
	}
}

func TestEvery64thRoundTrips(t *testing.T) {
	for n := -120 * 64; n <= 120*64; n++ {
		want := Inches(float64(n) / 64)
		text := want.Format(Inch)
		got, err := Parse(text, Millimetre)
		if err != nil || got != want {
			t.Fatalf("%d/64 in: Parse(%q) = %v, %v; want %v", n, text, got.Mm(), err, want.Mm())
		}
	}
}

// The browser prints lengths too; both sides are held to one table.
func TestFormatTable(t *testing.T) {
	raw, err := os.ReadFile("testdata/format.json")
	if err != nil {
		t.Fatal(err)
	}
	var rows []struct {
		Mm     float64 `json:"mm"`
		Metric string  `json:"metric"`
		Inch   string  `json:"inch"`
	}
	if err := json.Unmarshal(raw, &rows); err != nil {
		t.Fatal(err)
	}
	for _, r := range rows {
		if got := Length(r.Mm).Format(Millimetre); got != r.Metric {
			t.Errorf("%v mm in millimetres = %q, want %q", r.Mm, got, r.Metric)
		}
		if got := Length(r.Mm).Format(Inch); got != r.Inch {
			t.Errorf("%v mm in inches = %q, want %q", r.Mm, got, r.Inch)
		}
	}
}

func TestFeed(t *testing.T) {
	if got := Feed(3.5).SecondsPer300mm(); math.Abs(got-36.0/7) > 1e-12 {
		t.Errorf("3.5 m/min = %v s per 300 mm", got)
	}
	if got := Feed(3.048).SecondsPerFoot(); math.Abs(got-6) > 1e-12 {
		t.Errorf("3.048 m/min = %v s per foot", got)
	}
	if got := Feed(3).Seconds(500); math.Abs(got-10) > 1e-12 {
		t.Errorf("half a metre at 3 m/min takes %v s", got)
	}
}

func FuzzParse(f *testing.F) {
	for _, s := range []string{"1 3/16", `2' 3 1/2"`, "30mm", "12,5", "1/0", "½", `1 7/32" +0.005`, "-", "9999999999", "0/01-7000", "100000", "-,11"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, s string) {
		l, err := Parse(s, Millimetre)
		if err != nil {
			if l != 0 {
				t.Errorf("Parse(%q) failed yet returned %v", s, l)
			}
			return
		}
		if math.IsNaN(l.Mm()) || math.Abs(l.Mm()) > Longest.Mm() {
			t.Errorf("Parse(%q) = %v", s, l.Mm())
		}
		for unit, within := range map[Unit]float64{Millimetre: 0.005 + 1e-9, Inch: MmPerInch/128 + 1e-9} {
			back, err := Parse(l.Format(unit), Millimetre)
			if err != nil || math.Abs((back-l).Mm()) > within {
				t.Errorf("%q = %v mm, written %q, read back %v mm, %v", s, l.Mm(), l.Format(unit), back.Mm(), err)
			}
		}
	})
}
