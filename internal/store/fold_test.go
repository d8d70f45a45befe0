package store

import (
	"bytes"
	"encoding/json"
	"flag"
	"os"
	"path/filepath"
	"testing"
	"time"

	"corte/core/blade"
	"corte/core/care"
)

var update = flag.Bool("update", false, "write what the golden log folds into")

// The fold is held to a log and what it came to: a Corte that folds otherwise
// has to say so by a new number, or old snapshots would stand beside new rows.
func TestTheFoldIsNumbered(t *testing.T) {
	path := filepath.Join("testdata", "fold.json")
	var golden struct {
		Fold  int           `json:"fold"`
		Blade blade.Blade   `json:"blade"`
		Rows  []goldenEntry `json:"rows"`
		Sum   keptCondition `json:"sum"`
	}
	raw, err := os.ReadFile(path)
	if err != nil {
		t.Fatal(err)
	}
	if err := json.Unmarshal(raw, &golden); err != nil {
		t.Fatal(err)
	}
	var sum care.Condition
	for i, row := range golden.Rows {
		e, counts := Entry{Kind: row.Kind, At: row.At, Detail: row.Detail}.event()
		if !counts {
			t.Errorf("row %d, %s, changes nothing", i, row.Kind)
		}
		sum = sum.Then(golden.Blade, e)
	}
	written, err := writeCondition(sum)
	if err != nil {
		t.Fatal(err)
	}
	was, err := json.Marshal(golden.Sum)
	if err != nil {
		t.Fatal(err)
	}
	switch {
	case *update:
		golden.Fold = Fold
		if err := json.Unmarshal(written, &golden.Sum); err != nil {
			t.Fatal(err)
		}
		raw, err := json.MarshalIndent(golden, "", "  ")
		if err != nil {
			t.Fatal(err)
		}
		if err := os.WriteFile(path, append(raw, '\n'), 0o644); err != nil {
			t.Fatal(err)
		}
	case golden.Fold != Fold:
		t.Errorf("the golden log is of fold %d and this is %d: go test ./internal/store -run Numbered -update writes it anew", golden.Fold, Fold)
	case !bytes.Equal(written, was):
		t.Errorf("the golden log folds into\n%s, not\n%s: where that is meant, raise Fold, and then -update", written, was)
	}
	seen := map[Kind]bool{}
	for _, row := range golden.Rows {
		seen[row.Kind] = true
	}
	for _, k := range folded {
		if !seen[k] {
			t.Errorf("the golden log has no row of kind %s", k)
		}
	}
}

type goldenEntry struct {
	Kind   Kind            `json:"kind"`
	At     time.Time       `json:"at"`
	Detail json.RawMessage `json:"detail"`
}
