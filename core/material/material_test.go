package material

import (
	"fmt"
	"os"
	"strings"
	"testing"
)

// The table that people read is the one that is reckoned with, row by row.
func TestTheTableIsTheDocuments(t *testing.T) {
	doc, err := os.ReadFile("../../docs/materials.md")
	if err != nil {
		t.Fatal(err)
	}
	var rows []string
	for line := range strings.Lines(string(doc)) {
		if strings.HasPrefix(line, "| ") && !strings.HasPrefix(line, "| id |") {
			rows = append(rows, strings.TrimSpace(line))
		}
	}
	for i, m := range All() {
		want := fmt.Sprintf("| %s | %s | %s | %g | %g | %g | %g | %g | %g | %s |", m.ID, m.Name, m.Kind, m.Density, m.ScorchDose, m.Abrasion, m.Resin, m.MAcross, m.MAlong, m.Source)
		if i >= len(rows) || rows[i] != want {
			t.Errorf("docs/materials.md has not, as row %d,\n%s", i+1, want)
		}
	}
	if len(rows) != len(All()) {
		t.Errorf("it has %d rows, and there are %d materials", len(rows), len(All()))
	}
}

// Every row is complete, has a source, and stays on the scale of the base rows.
func TestTable(t *testing.T) {
	seen, base := map[string]bool{}, 0
	for _, m := range All() {
		if seen[m.ID] || m.Name == "" || m.Source == "" || m.Kind.String() == "" {
			t.Errorf("%s: twice, or not complete: %+v", m.ID, m)
		}
		seen[m.ID] = true
		if got, err := Get(m.ID); err != nil || got != m {
			t.Errorf("Get(%q) = %+v, %v", m.ID, got, err)
		}
		within := func(name string, v, lo, hi float64) {
			if !(v >= lo && v <= hi) {
				t.Errorf("%s: %s %v is not between %v and %v", m.ID, name, v, lo, hi)
			}
		}
		if !m.Kind.Modelled() {
			if m.ScorchDose != 0 || m.MAcross != 0 {
				t.Errorf("%s has figures of a model that does not hold for it", m.ID)
			}
			within("density", m.Density, 500, 9500)
			continue
		}
		base++
		within("density", m.Density, 350, 1000)
		within("scorch dose", m.ScorchDose, 10, 25)
		within("abrasion", m.Abrasion, 0.5, 4)
		within("resin", m.Resin, 0.2, 3)
		within("splinter across", m.MAcross, 0.3, 2.5)
		within("splinter along", m.MAlong, 0.1, m.MAcross)
	}
	if base < 21 || len(seen) < base+8 {
		t.Errorf("%d woods and boards, %d materials", base, len(seen))
	}
	if _, err := Get("marzipan"); err == nil {
		t.Error("marzipan is a material")
	}
}

// The sayings of craft section 11 hold in the table.
func TestSayings(t *testing.T) {
	get := func(id string) Material {
		m, err := Get(id)
		if err != nil {
			t.Fatal(err)
		}
		return m
	}
	for _, prone := range []string{"cherry", "hard-maple", "purpleheart"} {
		for _, calm := range []string{"red-oak", "walnut", "ash", "poplar"} {
			if get(prone).ScorchDose >= get(calm).ScorchDose {
				t.Errorf("%s does not scorch sooner than %s", prone, calm)
			}
		}
	}
	for _, board := range []string{"mdf", "chipboard", "melamine-board"} {
		if get(board).Abrasion <= get("teak").Abrasion {
			t.Errorf("%s is no more abrasive than teak", board)
		}
	}
	if get("yellow-pine").Resin <= get("red-oak").Resin {
		t.Error("oak loads a blade as soon as pine")
	}
}
