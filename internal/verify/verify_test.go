package verify

import (
	"bytes"
	"os"
	"path/filepath"
	"strings"
	"testing"
)

func TestWorkedCases(t *testing.T) {
	files, _ := filepath.Glob("testdata/*.json")
	if len(files) < 3 {
		t.Fatalf("found %d files of worked cases", len(files))
	}
	for _, file := range files {
		f, err := os.Open(file)
		if err != nil {
			t.Fatal(err)
		}
		defer f.Close()
		results, err := Run(f)
		if err != nil {
			t.Fatalf("%s: %v", file, err)
		}
		for _, r := range results {
			if !r.OK() {
				t.Errorf("%s: %v", file, r)
			}
		}
	}
}

// A checker that passes everything is worse than none.
func TestDifferencesAreSeen(t *testing.T) {
	raw, err := os.ReadFile("testdata/groove-bottom.json")
	if err != nil {
		t.Fatal(err)
	}
	for name, tt := range map[string]struct{ old, new, says string }{
		"a figure 0.5 % off": {"0.428719", "0.430862", "differs by 0.005"},
		"an unknown kind":    {"groove_bottom", "groove_top", `unknown kind "groove_top"`},
		"a misspelt input":   {"bevel_deg", "bevel", `unknown field "bevel"`},
		"a missing figure":   {`"profile_mm"`, `"profile"`, "differs by +Inf"},
	} {
		bad := bytes.Replace(raw, []byte(tt.old), []byte(tt.new), 1)
		results, err := Run(bytes.NewReader(bad))
		if err != nil || results[0].OK() || !strings.Contains(results[0].String(), tt.says) {
			t.Errorf("%s: %v, %v; want a failure that says %q", name, results, err, tt.says)
		}
	}
}

func FuzzRun(f *testing.F) {
	for _, file := range []string{"testdata/cutting.json", "testdata/groove-bottom.json", "testdata/wear.json"} {
		raw, err := os.ReadFile(file)
		if err != nil {
			f.Fatal(err)
		}
		f.Add(raw)
	}
	f.Add([]byte(`[{"kind":"cutting","input":{},"want":{}}]`))
	f.Fuzz(func(t *testing.T, raw []byte) {
		results, err := Run(bytes.NewReader(raw))
		for _, r := range results {
			if r.String() == "" {
				t.Error("a case without a line")
			}
		}
		if err == nil && len(results) == 0 {
			t.Error("a file without cases passed")
		}
	})
}
