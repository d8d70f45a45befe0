package verify

import (
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
)

// Every section of the craft or the model that a comment names is a heading of
// docs/craft.md or docs/model.md.
func TestSectionsNamedInCodeExist(t *testing.T) {
	const root = "../.."
	headings := map[string]map[string]bool{"craft": {}, "model": {}}
	for page, on := range headings {
		text, err := os.ReadFile(filepath.Join(root, "docs", page+".md"))
		if err != nil {
			t.Fatal(err)
		}
		for _, h := range regexp.MustCompile(`(?m)^## (\d+[a-z]?)\. `).FindAllStringSubmatch(string(text), -1) {
			on[h[1]] = true
		}
	}
	var (
		reference = regexp.MustCompile(`(?i)\b(craft|model)[\s/]+sections?[\s/]+(\d+[a-z]?(?:(?:,| and)[\s/]+\d+[a-z]?)*)`) // may run over a line of a comment
		number    = regexp.MustCompile(`\d+[a-z]?`)
		named     = map[string]int{}
	)
	for _, dir := range []string{"core", "internal"} {
		err := filepath.WalkDir(filepath.Join(root, dir), func(path string, d fs.DirEntry, err error) error {
			if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") {
				return err
			}
			code, err := os.ReadFile(path)
			for _, m := range reference.FindAllStringSubmatch(string(code), -1) {
				page := strings.ToLower(m[1])
				for _, n := range number.FindAllString(m[2], -1) {
					if named[page]++; !headings[page][n] {
						t.Errorf("%s names section %s, which docs/%s.md has not", path, n, page)
					}
				}
			}
			return err
		})
		if err != nil {
			t.Fatal(err)
		}
	}
	if named["craft"] < 60 || named["model"] < 30 {
		t.Errorf("only %v sections are named", named)
	}
}
