package logfile

import (
	"bytes"
	"encoding/json"
	"math"
	"reflect"
	"strings"
	"testing"
	"time"

	"corte/core/history"
	"corte/core/measure"
	"corte/internal/store"
)

func detail(t *testing.T, v any) json.RawMessage {
	t.Helper()
	raw, err := json.Marshal(v)
	if err != nil {
		t.Fatal(err)
	}
	return raw
}

// Whatever a row holds is the same after it went out and came back, in either
// format, quotes, commas, line ends and all.
func TestEveryRowComesBackAsItWent(t *testing.T) {
	blade, saw := `Plough, the "old" one`, "Long Table"
	at := time.Date(2026, 5, 12, 14, 30, 5, 123456000, time.UTC)
	no, left, other := false, 4, 0.42
	rows := []store.Entry{
		{Kind: history.KindCut, Note: "two\nlines; and more", By: "Ilse", Detail: detail(t, history.Cut{
			Material: "cherry", Direction: "crosscut", Motion: "along", Finish: "show", Form: "groove", Thickness: 19.05, Width: 90, Length: 900,
			Depth: 6, Height: 6, Bevel: 12.5, Miter: 3, Pieces: 7, Metres: 12.25, Exit: "zero-clearance", Other: "backer", Feed: 3.5, Seconds: 9.5,
			Wall: "brown", Splinters: "fuzz", OtherSplinters: "torn", Effort: "hard", Noise: "loud", CameBack: &no, BothFaces: true,
			Wears:    &history.Wears{Abrasion: 1.4, Resin: 0.2},
			Foretold: &history.Foretold{Heat: 0.8, Load: 0.5, Exit: 0.3, Other: &other}})},
		{Kind: history.KindSharpened, Detail: detail(t, history.Sharpened{Price: 21.5, Report: `"good", he said`, Replaced: 1, Left: &left, Kerf: 3.1})},
		{Kind: history.KindSent, Detail: detail(t, history.Sent{To: "Quay Street", Expected: &at, Asked: 22})},
		{Kind: history.KindWashed, Detail: detail(t, history.Washed{Cleaner: "citrus", Brush: "brass", With: 2})},
		{Kind: history.KindJudged, Detail: detail(t, history.Judged{Says: "dull"})},
		{Kind: history.KindInspected, Detail: detail(t, history.Inspected{Fault: "chipped"})},
		{Kind: history.KindMounted, Detail: json.RawMessage(`{}`)},
		{Kind: history.KindHeel, Detail: detail(t, history.Truing{Figure: 0.05, Unit: "mm", Verdict: "clear", Input: json.RawMessage(`{"span_mm": 200}`)})},
	}
	for _, asCSV := range []bool{true, false} {
		var file bytes.Buffer
		w, err := NewWriter(&file, asCSV)
		if err != nil {
			t.Fatal(err)
		}
		for i := range rows {
			rows[i].At, rows[i].BladeName, rows[i].SawName = at.Add(time.Duration(i)*time.Hour), &blade, &saw
			if err := w.Write(rows[i]); err != nil {
				t.Fatal(err)
			}
		}
		if err := w.Close(); err != nil {
			t.Fatal(err)
		}
		back, err := Read(file.Bytes(), measure.Millimetre, time.UTC)
		if err != nil || len(back) != len(rows) {
			t.Fatalf("csv %v: %d rows of %d, %v\n%s", asCSV, len(back), len(rows), err, &file)
		}
		for i, e := range rows {
			want, err := RecordOf(e)
			if err != nil || back[i].Err != nil || !same(back[i].Record, want) {
				t.Errorf("csv %v: %s became %+v (%v, %v)", asCSV, e.Kind, back[i].Record, back[i].Err, err)
			}
		}
	}
	// An empty log is a file too.
	for _, asCSV := range []bool{true, false} {
		var file bytes.Buffer
		w, _ := NewWriter(&file, asCSV)
		if err := w.Close(); err != nil {
			t.Fatal(err)
		}
		if rows, err := Read(file.Bytes(), measure.Millimetre, time.UTC); err != nil || len(rows) != 0 {
			t.Errorf("csv %v, empty: %d rows, %v", asCSV, len(rows), err)
		}
	}
}

// same compares details by what they say, not by their spaces.
func same(a, b Record) bool {
	plain := func(r Record) any {
		var v any
		if r.More != nil {
			_ = json.Unmarshal(r.More, &v)
		}
		return v
	}
	more := reflect.DeepEqual(plain(a), plain(b))
	a.More, b.More = nil, nil
	return more && reflect.DeepEqual(a, b)
}

// What no log could hold is refused with the reason, and only its own row.
func TestRefusals(t *testing.T) {
	const head = "at,kind,blade,saw,material,thickness_mm,width_mm,length_mm,direction,wall,effort,pieces,detail\n"
	const good = "2026-03-01,cut,Plough,Table,oak,20,80,900,rip,clean,,1,"
	for row, says := range map[string]string{
		strings.Replace(good, "oak", "red-oak", 1): "",
		good: "not a material",
		strings.Replace(strings.Replace(good, "oak", "red-oak", 1), ",20,", ",thick,", 1):                                       "is not a length",
		strings.Replace(strings.Replace(good, "oak", "red-oak", 1), "clean", "purple", 1):                                       `wall "purple" is none of`,
		strings.Replace(strings.Replace(good, "oak", "red-oak", 1), "rip", "up", 1):                                             "up",
		strings.Replace(strings.Replace(good, "oak", "red-oak", 1), ",1,", ",0.5,", 1):                                          "is not a count",
		strings.Replace(strings.Replace(good, "oak", "red-oak", 1), "clean,,", "clean,heavy,", 1):                               `effort "heavy"`,
		strings.Replace(strings.Replace(good, "oak", "red-oak", 1), "2026-03-01", "March", 1):                                   "is not a date",
		"2026-03-01,washed,Plough,,,,,,,,,,{\"cleaner\": \"citrus\"}":                                                           "",
		`2026-03-01,washed,Plough,,,,,,,,,,"{""cleaner"": ""citrus""}"`:                                                         "",
		`2026-03-01,washed,Plough,,,,,,,,,,"{""soap"": 1}"`:                                                                     "unknown field",
		"2026-03-01,struck,Plough,,,,,,,,,,":                                                                                    "aren't imported",
		"2026-03-01,danced,Plough,,,,,,,,,,":                                                                                    "is not a kind of row",
		",washed,Plough,,,,,,,,,,":                                                                                              "enter the date",
		strings.Replace(strings.Replace(good, "oak", "red-oak", 1), ",900,", ",0,", 1):                                          "length",
		strings.ReplaceAll(strings.Replace(strings.Replace(good, "oak", "red-oak", 1), "cut", "cut", 1), ",20,80,900,", ",,,,"): "thick",
	} {
		rows, err := Read([]byte(head+row+"\n2026-03-02,washed,Plough\n"), measure.Millimetre, time.UTC)
		if err != nil || len(rows) != 2 || rows[1].Err != nil {
			t.Errorf("%s: %d rows, %v", row, len(rows), err)
			continue
		}
		if got := rows[0].Err; (got == nil) != (says == "") || got != nil && !strings.Contains(got.Error(), says) {
			t.Errorf("%s: %v, want %q", row, got, says)
		}
	}
	for file, says := range map[string]string{
		"": "empty", "kind,blade\n": "needs the columns at and kind", "at,kind,colour\n": `column "colour"`,
		`{"format": "other"}`: "isn't a Corte log", `{"format": `: "not JSON",
	} {
		if _, err := Read([]byte(file), measure.Millimetre, time.UTC); err == nil || !strings.Contains(err.Error(), says) {
			t.Errorf("%q: %v, want %q", file, err, says)
		}
	}
	// Old lists come with a mark at their head, semicolons, and inches.
	rows, err := Read([]byte("\xef\xbb\xbfKind; At ;material;thickness_mm;width_mm;length_mm\ncut;2026-03-01 14:30;cherry;3/4;3 1/2\";4' 2\"\n"), measure.Inch, time.FixedZone("east", 7200))
	if err != nil || len(rows) != 1 || rows[0].Err != nil {
		t.Fatalf("%+v, %v", rows, err)
	}
	if d := rows[0].Cut; math.Abs((d.Thickness-19.05).Mm())+math.Abs((d.Width-88.9).Mm())+math.Abs((d.Length-1270).Mm()) > 1e-9 || d.Pieces != 1 || d.Wall != "clean" || !rows[0].At.Equal(time.Date(2026, 3, 1, 12, 30, 0, 0, time.UTC)) {
		t.Errorf("an old row is read as %+v at %v", d, rows[0].At)
	}
}

// What no name could be, and what no database keeps, is refused row by row.
func TestOddCharacters(t *testing.T) {
	rows, err := Read([]byte("at,kind,blade,by,note,detail\n"+
		"2026-03-01,noted,Plough,Ilse,\"two\nlines\",\n"+
		"2026-03-01,noted,\"Plo\nugh\",Ilse,,\n2026-03-01,noted,Plough,\"Il\nse\",,\n2026-03-01,noted,Plough,I\x00,,\n2026-03-01,noted,Plough,,no\x00te,\n"+
		"2026-03-01,judged,Plough,,,\"{\"\"says\"\":\"\"du\\u0000ll\"\"}\"\n"), measure.Millimetre, time.UTC)
	if err != nil || len(rows) != 6 {
		t.Fatalf("%+v, %v", rows, err)
	}
	for i, r := range rows {
		if (r.Err == nil) != (i == 0) {
			t.Errorf("row %d, %q by %q: %v", i, r.Blade, r.By, r.Err)
		}
	}
}

func FuzzRead(f *testing.F) {
	f.Add("at,kind\n2026-03-01,washed\n")
	f.Add(`{"format": "corte-log", "version": 1, "rows": [{"at": "2026-03-01T00:00:00Z", "kind": "cut", "cut": {"material": "cherry"}}]}`)
	f.Fuzz(func(t *testing.T, file string) {
		rows, err := Read([]byte(file), measure.Inch, time.UTC)
		for _, r := range rows {
			if err != nil || r.Err == nil && r.At.IsZero() {
				t.Errorf("%q: %+v, %v", file, r, err)
			}
		}
	})
}
