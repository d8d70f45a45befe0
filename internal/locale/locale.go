// Package locale has what the server and the core say in other languages than
// English: a file for each, named by its tag. `make generate` brings the forms in
// them up to date (scripts/forms, where en.json lists each with the file that says it).
package locale

import (
	"embed"
	"encoding/json"
	"fmt"
	"regexp"
	"slices"
	"strings"
	"sync"

	"corte/core/say"
)

// English is the tag of the language that forms are written in.
const English = "en"

// A File is one language.
type File struct {
	Name    string            `json:"name"`    // what its speakers call it
	Decimal string            `json:"decimal"` // what stands for the point in figures
	Date    string            `json:"date"`    // a layout of package time, with {month} for the month's name
	Months  []string          `json:"months"`  // January first
	And     []Joint           `json:"and"`     // what joins the last of a list; the first that matches
	Or      []Joint           `json:"or"`
	Forms   map[string]string `json:"forms"` // by English form; one that is empty is said in English
}

// A Joint is a word between the last two of a list, where Before matches the last.
type Joint struct {
	Before string `json:"before,omitempty"` // a regular expression; every word if empty
	Word   string `json:"word"`
}

//go:embed *.json
var files embed.FS

// Tags are the languages that Corte speaks, English first.
func Tags() []string {
	all, err := files.ReadDir(".")
	if err != nil {
		panic(err) // embedded
	}
	tags := []string{English}
	for _, f := range all {
		tags = append(tags, strings.TrimSuffix(f.Name(), ".json"))
	}
	return tags
}

// Read reads a language's file.
func Read(tag string) (File, error) {
	var f File
	raw, err := files.ReadFile(tag + ".json")
	if err == nil {
		err = json.Unmarshal(raw, &f)
	}
	if err != nil {
		return f, fmt.Errorf("language %s: %w", tag, err)
	}
	return f, nil
}

var spoken = sync.OnceValue(func() map[string]*say.Language {
	all := map[string]*say.Language{}
	for _, tag := range Tags() {
		if tag == English {
			continue
		}
		f, err := Read(tag)
		if err != nil {
			panic(err) // embedded, and tested
		}
		all[tag] = f.language()
	}
	return all
})

// Of is the language of a tag; nil for English and for one that Corte doesn't speak.
func Of(tag string) *say.Language {
	if tag == "" || tag == English {
		return nil
	}
	return spoken()[tag]
}

func (f File) language() *say.Language {
	joints := map[string][]joint{" and ": compiled(f.And), " or ": compiled(f.Or)}
	return &say.Language{
		Form: func(form string) string {
			if said := f.Forms[form]; said != "" {
				return said
			}
			return form
		},
		Last: func(english, next string) string {
			i := slices.IndexFunc(joints[english], func(j joint) bool { return j.before.MatchString(next) })
			if i < 0 {
				return english
			}
			return joints[english][i].word
		},
		Decimal: f.Decimal, Months: f.Months, Date: f.Date,
	}
}

// Lacks gives the forms that a line is said with and that no language's file lists,
// for tests. What has no letter needs no other language.
func Lacks(l say.Line) []string {
	var lacks []string
	_ = say.Voice{Language: &say.Language{Form: func(form string) string {
		if _, ok := forms()[form]; !ok && letters.MatchString(verbs.ReplaceAllString(form, "")) {
			lacks = append(lacks, form)
		}
		return form
	}}}.Say(l)
	return lacks
}

var (
	verbs   = regexp.MustCompile(`%(\[\d+\])?[-+# 0-9.]*[a-zA-Z]`)
	letters = regexp.MustCompile(`\p{L}`)
)

// forms are all that the code says: every language's file lists them.
var forms = sync.OnceValue(func() map[string]string {
	f, err := Read(Tags()[1])
	if err != nil {
		panic(err) // embedded, and tested
	}
	return f.Forms
})

type joint struct {
	before *regexp.Regexp
	word   string
}

func compiled(all []Joint) []joint {
	out := make([]joint, len(all))
	for i, j := range all {
		out[i] = joint{regexp.MustCompile("(?i)^" + j.Before), " " + j.Word + " "}
	}
	return out
}
