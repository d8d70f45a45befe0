package main

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"maps"
	"os"
	"path/filepath"
	"regexp"
	"slices"

	"corte/internal/locale"
)

// Where the catalogues are: one for each language, and the forms themselves, each
// with the file that says it, for who translates.
const (
	locales = "internal/locale"
	english = "scripts/forms/en.json"
)

var verbs = regexp.MustCompile(`%(\[\d+\])?[-+# 0-9.*]*[a-zA-Z]|[^\p{L}]`)

func sorted(said map[string]string) []string { return slices.Sorted(maps.Keys(said)) }

// write brings the catalogues up to date and says what each language lacks.
func write(said map[string]string) error {
	paths, err := filepath.Glob(filepath.Join(locales, "*.json"))
	if err != nil {
		return err
	}
	for _, path := range paths {
		raw, err := os.ReadFile(path)
		if err != nil {
			return err
		}
		var file locale.File
		if err := json.Unmarshal(raw, &file); err != nil {
			return fmt.Errorf("%s: %w", path, err)
		}
		had := file.Forms
		file.Forms = map[string]string{}
		for _, form := range sorted(said) {
			if file.Forms[form] = had[form]; had[form] == "" {
				fmt.Fprintf(os.Stderr, "%s lacks: %s\n", path, form)
			}
		}
		if err := save(path, file); err != nil {
			return err
		}
	}
	return save(english, said)
}

func save(path string, all any) error {
	var out bytes.Buffer
	e := json.NewEncoder(&out)
	e.SetEscapeHTML(false)
	e.SetIndent("", "  ")
	return errors.Join(e.Encode(all), os.WriteFile(path, out.Bytes(), 0o644))
}
