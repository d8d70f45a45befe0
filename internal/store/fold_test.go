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
	"corte/core/history"
)

var update = flag.Bool("update", false, "write what the golden log folds into")

// The fold is held to a log and what it came to: a Corte that folds otherwise
// has to say so by a new number, or old snapshots would stand beside new rows.
func TestTheFoldIsNumbered(t *testing.T) {
	path := filepath.Join("testdata", "fold.json")
	var golden struct {
		Fold  int             `json:"fold"`
		Blade blade.Blade     `json:"blade"`
		Rows  []goldenEntry   `json:"rows"`
		Sum   storedCondition `json:"sum"`
	}
	raw, err := os.ReadFile(path)
	if err != nil {
		t.Fatal(err)
	}
	if err := json.Unmarshal(raw, &golden); err != nil {
		t.Fatal(err)
	}
	rows := make([]history.Row, len(golden.Rows))
	for i, row := range golden.Rows {
		rows[i] = history.Row{Kind: row.Kind, At: row.At, Detail: row.Detail}
	}
	sum, err := history.Condition(golden.Blade, care.Condition{}, rows...)
	if err != nil {
		t.Error(err)
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
		golden.Fold = history.ConditionFold
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
	case golden.Fold != history.ConditionFold:
		t.Errorf("the golden log is of fold %d and this is %d: go test ./internal/store -run Numbered -update writes it anew", golden.Fold, history.ConditionFold)
	case !bytes.Equal(written, was):
		t.Errorf("the golden log folds into\n%s, not\n%s: where that is meant, raise history.ConditionFold, and then -update", written, was)
	}
	seen := map[history.Kind]bool{}
	for _, row := range golden.Rows {
		seen[row.Kind] = true
	}
	for _, k := range history.ConditionKinds {
		if !seen[k] {
			t.Errorf("the golden log has no row of kind %s", k)
		}
	}
}

type goldenEntry struct {
	Kind   history.Kind    `json:"kind"`
	At     time.Time       `json:"at"`
	Detail json.RawMessage `json:"detail"`
}
