// Package docs holds the documentation to itself: links and anchors lead
// somewhere.
package docs

import (
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
)

var (
	heading = regexp.MustCompile(`(?m)^#+ (.+)$`)
	link    = regexp.MustCompile(`\]\(([\w./-]*)(#[\w-]+)?\)`)
	anchor  = regexp.MustCompile(`#\d+-[\w-]+`)           // of the craft, in a table's source
	section = regexp.MustCompile(`craft sections? (\d+)`) // in a comment
)

// anchors of a page, as a browser of the repository makes them from its headings.
func anchors(t *testing.T, page string) map[string]bool {
	t.Helper()
	raw, err := os.ReadFile(page)
	if err != nil {
		t.Fatal(err)
	}
	all := map[string]bool{}
	for _, m := range heading.FindAllStringSubmatch(string(raw), -1) {
		slug := regexp.MustCompile(`[^\w\- ]`).ReplaceAllString(strings.ToLower(m[1]), "")
		all["#"+strings.ReplaceAll(slug, " ", "-")] = true
	}
	return all
}

func TestLinksLeadSomewhere(t *testing.T) {
	pages, _ := filepath.Glob("*.md")
	pages = append(pages, "../README.md", "../CONTRIBUTING.md")
	for _, page := range pages {
		raw, err := os.ReadFile(page)
		if err != nil {
			t.Fatal(err)
		}
		for _, m := range link.FindAllStringSubmatch(string(raw), -1) {
			to := page
			if m[1] != "" {
				to = filepath.Join(filepath.Dir(page), m[1])
			}
			if _, err := os.Stat(to); err != nil {
				t.Errorf("%s leads to %s, which is not there", page, m[0])
			} else if m[2] != "" && !anchors(t, to)[m[2]] {
				t.Errorf("%s leads to %s, which %s has not", page, m[2], to)
			}
		}
	}
}

// The trace tables and the comments of core name sections of docs/craft.md.
func TestTheCraftIsWhereItIsNamed(t *testing.T) {
	craft, named := anchors(t, "craft.md"), 0
	numbered := map[string]bool{}
	for a := range craft {
		numbered[regexp.MustCompile(`\d+`).FindString(a)] = true
	}
	err := filepath.WalkDir("../core", func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() {
			return err
		}
		raw, err := os.ReadFile(path)
		switch filepath.Ext(path) {
		case ".csv":
			for _, a := range anchor.FindAllString(string(raw), -1) {
				if named++; !craft[a] {
					t.Errorf("%s names %s, which craft.md has not", path, a)
				}
			}
		case ".go":
			for _, m := range section.FindAllStringSubmatch(string(raw), -1) {
				if named++; !numbered[m[1]] {
					t.Errorf("%s names %s, which craft.md has not", path, m[0])
				}
			}
		}
		return err
	})
	if err != nil || named < 600 {
		t.Errorf("%d places name the craft, %v", named, err)
	}
}
