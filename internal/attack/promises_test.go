package attack

import (
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
)

// Every promise of docs/security.md names tests that are there.
func TestEveryPromiseNamesItsTests(t *testing.T) {
	const root = "../.."
	raw, err := os.ReadFile(filepath.Join(root, "docs/security.md"))
	if err != nil {
		t.Fatal(err)
	}
	there := map[string]bool{}
	for _, dir := range []string{"internal", "cmd", "core"} {
		err := filepath.WalkDir(filepath.Join(root, dir), func(path string, d fs.DirEntry, err error) error {
			if err != nil || !strings.HasSuffix(path, "_test.go") {
				return err
			}
			text, err := os.ReadFile(path)
			for _, f := range regexp.MustCompile(`(?m)^func ((?:Test|Fuzz)\w+)\(`).FindAllSubmatch(text, -1) {
				there[string(f[1])] = true
			}
			return err
		})
		if err != nil {
			t.Fatal(err)
		}
	}
	promises := 0
	for _, row := range regexp.MustCompile(`(?m)^\| (\*\*.*) \| (.*) \|$`).FindAllStringSubmatch(string(raw), -1) {
		promises++
		names := regexp.MustCompile("`(\\w+)`|`(\\w+\\.journey\\.ts)`").FindAllStringSubmatch(row[2], -1)
		if len(names) == 0 {
			t.Errorf("no test holds: %.80s", row[1])
		}
		for _, n := range names {
			if n[2] != "" {
				if _, err := os.Stat(filepath.Join(root, "e2e", n[2])); err != nil {
					t.Error(err)
				}
			} else if !there[n[1]] {
				t.Errorf("there is no %s, which holds: %.80s", n[1], row[1])
			}
		}
	}
	if promises < 20 {
		t.Errorf("%d promises are found", promises)
	}
}
