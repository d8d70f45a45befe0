package sheet_test

import (
	"fmt"
	"io"
	"slices"
	"strings"
	"testing"

	"corte/internal/sheet"
)

// What would run in a spreadsheet goes out behind a quote and comes back as it
// was; numbers stay numbers.
func TestCellsThatWouldRun(t *testing.T) {
	cells := map[string]string{
		"": "", "Plough": "Plough", "-5": "-5", "+0.25": "+0.25", "'": "'", "'tis": "'tis", "Österreich": "Österreich",
		"=1+1": "'=1+1", "@SUM(A1)": "'@SUM(A1)", "-rip": "'-rip", "+rip": "'+rip", "\t=1": "'\t=1", "'=1": "''=1", "''-x": "'''-x", `3/4"`: `3/4"`,
		"  =1": "'  =1", ";=1": "';=1", " ;, +1+2": "' ;, +1+2", "\u00a0@x": "'\u00a0@x", "\u200b=1": "'\u200b=1", "\uff1d1": "'\uff1d1", "\uff0dx": "'\uff0dx", "; two": "; two", " 5": " 5",
	}
	for in, want := range cells {
		if got := sheet.Safe(in); got != want || sheet.Plain(got) != in {
			t.Errorf("%q went out as %q, not %q, and came back as %q", in, got, want, sheet.Plain(got))
		}
	}
	var out strings.Builder
	w := sheet.NewWriter(&out)
	if err := w.Write([]string{"=1", "a,b"}); err != nil {
		t.Fatal(err)
	}
	w.Flush()
	if out.String() != "'=1,\"a,b\"\n" {
		t.Errorf("written %q", out.String())
	}
}

// Either separator parts the cells; each row is told by its line, and one that
// is wrong does not take the others with it.
func TestTables(t *testing.T) {
	for _, text := range []string{"\ufeffName ;kerf\n3/4\" ripper;3,2\n\n'=1;;9\nlast\n", "Name ,kerf\n3/4\" ripper,\"3,2\"\n\n'=1,,9\nlast"} {
		in, err := sheet.Open(text)
		if err != nil || !slices.Equal(in.Columns, []string{"name", "kerf"}) {
			t.Fatalf("%q: %v", text, err)
		}
		var got []string
		for {
			line, cells, err := in.Next()
			if err == io.EOF {
				break
			}
			got = append(got, fmt.Sprint(line, cells, err))
		}
		want := []string{`2 map[0:3/4" ripper 1:3,2] <nil>`, "4 map[0:=1] the row has more cells than the first line has names", "5 map[0:last] <nil>"}
		if !slices.Equal(got, want) {
			t.Errorf("%q: %q", text, got)
		}
	}
	for _, text := range []string{"", "name,kerf,Name\n"} {
		if _, err := sheet.Open(text); err == nil {
			t.Errorf("%q is taken", text)
		}
	}
	if _, err := sheet.Open("name,,\n"); err != nil {
		t.Errorf("columns without a name: %v", err)
	}
}
