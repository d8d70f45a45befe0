package docs

import (
	"os"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"testing"
	"unicode"
)

// Words that Corte's pages had once and a shop does not say, each with what stands for it now.
var oldWords = map[string]string{
	`scorch\w*`:              "burn marks, burning",
	`splinter\w*`:            "tear-out, chipping",
	`pitchy|caked`:           "resin buildup",
	`plug out`:               "unplug the saw",
	`saw doctor`:             "sharpening service",
	`mend(ed|ing)`:           "repair",
	`anew`:                   "again",
	`foretold`:               "estimated, expected",
	`whoever|whatever`:       "who or what it is",
	`somebody|nobody`:        "you, a person, an owner",
	`as far as .* know\w*`:   "nothing: leave it out",
	`not said|is said`:       "not recorded",
	`leads nowhere`:          "no longer works",
	`struck out|strike out`:  "deleted",
	`dawdl\w*|shy of`:        "too slow, less than",
	`upwards|afterwards`:     "upward, afterward",
	`colour|fibre|litres?`:   "American spelling",
}

// short entries that are whole in themselves.
var short = map[string]bool{"No": true, "no": true}

var (
	msgid = regexp.MustCompile(`(?m)^msgid ((?:".*"\n)+)`)
	tag   = regexp.MustCompile(`<[^>]*>`)
	form  = regexp.MustCompile(`say\.(?:Of|Word|All)\(|refusal\.|fault\.|errors\.New|Errorf|refuse\(`)
	text  = regexp.MustCompile(`"((?:[^"\\]|\\.)*)"`)
)

// sentences of the pages, from their catalogue.
func pageSentences(t *testing.T) []string {
	t.Helper()
	raw, err := os.ReadFile("../web/src/locales/en.po")
	if err != nil {
		t.Fatal(err)
	}
	var all []string
	for _, m := range msgid.FindAllStringSubmatch(string(raw), -1) {
		whole := ""
		for line := range strings.SplitSeq(strings.TrimSpace(m[1]), "\n") {
			part, err := strconv.Unquote(line)
			if err != nil {
				t.Fatalf("%s: %v", line, err)
			}
			whole += part
		}
		if whole != "" {
			all = append(all, whole)
		}
	}
	return all
}

// sentences of the server, from the lines that make one.
func serverSentences(t *testing.T) []string {
	t.Helper()
	var all []string
	for _, dir := range []string{"../core", "../internal", "../cmd"} {
		err := filepath.WalkDir(dir, func(path string, d os.DirEntry, err error) error {
			if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") || strings.HasSuffix(path, ".gen.go") {
				return err
			}
			raw, err := os.ReadFile(path)
			for line := range strings.SplitSeq(string(raw), "\n") {
				if !form.MatchString(line) {
					continue
				}
				for _, m := range text.FindAllStringSubmatch(line, -1) {
					if strings.Contains(m[1], " ") {
						all = append(all, m[1])
					}
				}
			}
			return err
		})
		if err != nil {
			t.Fatal(err)
		}
	}
	return all
}

// A sentence of a page is whole: a translator can use it, and no code glues it to another.
func TestSentencesAreWhole(t *testing.T) {
	all := pageSentences(t)
	if len(all) < 2000 {
		t.Fatalf("only %d sentences are in the catalogue", len(all))
	}
	for _, s := range all {
		bare, letters := tag.ReplaceAllString(s, ""), 0
		for _, r := range s {
			if unicode.IsLetter(r) || unicode.IsDigit(r) {
				letters++
			}
		}
		switch {
		case bare != strings.TrimSpace(bare), strings.IndexAny(bare, ",;:.)") == 0, strings.ContainsAny(bare[max(0, len(bare)-1):], ",;("):
			t.Errorf("%q is a fragment: make it a sentence or a phrase of its own", s)
		case letters < 3 && !strings.Contains(s, "{") && !short[s]:
			t.Errorf("%q is too short to be translated", s)
		}
	}
}

// Pages and server say what shops say.
func TestSentencesAreOfAShop(t *testing.T) {
	for name, all := range map[string][]string{"the catalogue": pageSentences(t), "the server": serverSentences(t)} {
		for old, now := range oldWords {
			word := regexp.MustCompile(`(?i)\b(?:` + old + `)\b`)
			for _, s := range all {
				if word.MatchString(s) && !strings.Contains(s, "half-worn, sharp, hard, pitchy") { // the codes of log files
					t.Errorf("%s has %q: say %s", name, s, now)
				}
			}
		}
	}
}
