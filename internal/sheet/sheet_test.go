package sheet_test

import (
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

func TestEitherSeparator(t *testing.T) {
	for _, text := range []string{"\ufeffname;kerf\n3/4\" ripper;3,2\n", "name,kerf\n3/4\" ripper,\"3,2\"\n"} {
		in := sheet.NewReader(text)
		if rows, err := in.ReadAll(); err != nil || !slices.Equal(rows[1], []string{`3/4" ripper`, "3,2"}) || rows[0][0] != "name" {
			t.Errorf("%q: %q, %v", text, rows, err)
		}
	}
}
