package verify

import (
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
)

// Every section of the craft that a comment names is a heading of docs/craft.md.
func TestSectionsOfTheCraftExist(t *testing.T) {
	const root = "../.."
	page, err := os.ReadFile(filepath.Join(root, "docs/craft.md"))
	if err != nil {
		t.Fatal(err)
	}
	headings := map[string]bool{}
	for _, h := range regexp.MustCompile(`(?m)^## (\d+)\. `).FindAllStringSubmatch(string(page), -1) {
		headings[h[1]] = true
	}
	var (
		reference = regexp.MustCompile(`(?i)craft[\s/]+sections?[\s/]+([\d, and/]+)`) // may run over a line of a comment
		number    = regexp.MustCompile(`\d+`)
		named     int
	)
	for _, dir := range []string{"core", "internal"} {
		err := filepath.WalkDir(filepath.Join(root, dir), func(path string, d fs.DirEntry, err error) error {
			if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") {
				return err
			}
			code, err := os.ReadFile(path)
			for _, m := range reference.FindAllStringSubmatch(string(code), -1) {
				for _, n := range number.FindAllString(m[1], -1) {
					if named++; !headings[n] {
						t.Errorf("%s names section %s, which docs/craft.md has not", path, n)
					}
				}
			}
			return err
		})
		if err != nil {
			t.Fatal(err)
		}
	}
	if named < 60 {
		t.Errorf("only %d sections are named", named)
	}
}
