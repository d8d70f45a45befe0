package refusal

import (
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"corte/internal/httpapi/contract"
)

// Every place that the core finds fault with has a name in the contract, so
// that a form can say beside which field it stands; and no name is left over.
func TestEveryPlaceHasItsName(t *testing.T) {
	spec, err := contract.GetSpec()
	if err != nil {
		t.Fatal(err)
	}
	known := map[string]bool{"test": true}
	for _, s := range spec.Components.Schemas {
		for name, p := range s.Value.Properties {
			known[name] = true
			for name := range p.Value.Properties {
				known[name] = true
			}
		}
	}
	for _, path := range spec.Paths.Map() {
		for _, op := range path.Operations() {
			if op.RequestBody == nil {
				continue
			}
			for _, c := range op.RequestBody.Value.Content {
				for name := range c.Schema.Value.Properties {
					known[name] = true
				}
			}
		}
	}
	files, err := filepath.Glob("../../core/*/*.go")
	if err != nil || len(files) < 40 {
		t.Fatal(len(files), err)
	}
	place := regexp.MustCompile(`(?:fault\.At\(|fault\.Nth\(\w+, |positive\(|const where = |return refuse\()"([a-z][^"]*)"(?:, |\n)|\t\t+\{"([a-z][^"]*)", "`)
	said := map[string]bool{"first reading": true, "second reading": true}
	for _, f := range files {
		if strings.HasSuffix(f, "_test.go") {
			continue
		}
		src, err := os.ReadFile(f)
		if err != nil {
			t.Fatal(err)
		}
		if !strings.Contains(string(src), "fault.") {
			continue
		}
		for _, m := range place.FindAllStringSubmatch(string(src), -1) {
			said[m[1]+m[2]] = true
		}
	}
	for where := range said {
		name := where
		if other, ok := fields[where]; ok {
			name = other
		}
		if last := name[strings.LastIndexByte(name, '.')+1:]; !known[last] {
			t.Errorf("%q would stand at %q, which no form has", where, name)
		}
	}
	for where := range fields {
		if !said[where] {
			t.Errorf("nothing is found fault with at %q", where)
		}
	}
	if len(said) < 60 {
		t.Errorf("only %d places were found: %v", len(said), said)
	}
}
