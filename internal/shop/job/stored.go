package job

import (
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"fmt"

	"github.com/google/uuid"

	"corte/core/material"
	"corte/internal/refusal"
)

// A list is kept as JSON with a version, under the names of the published schema:
// a job's file is this, beside its name.
const listNow = 1

type storedList struct {
	V     int   `json:"v"`
	Rows  []Row `json:"rows"`
	Knobs Knobs `json:"knobs"`
}

func write(rows []Row, k Knobs) (json.RawMessage, error) {
	if len(rows) > MostRows {
		return nil, refusal.Of("rows", "a job has at most %d rows. Split it in two", MostRows)
	}
	seen := map[uuid.UUID]bool{}
	list := storedList{V: listNow, Rows: []Row{}, Knobs: k}
	for i, r := range rows {
		if seen[r.ID] {
			return nil, refusal.Of(fmt.Sprintf("rows.%d.id", i), "two rows have the same id. Each needs its own")
		}
		seen[r.ID] = true
		list.Rows = append(list.Rows, r)
	}
	return json.Marshal(list)
}

// digest tells one list of rows from another.
func digest(rows []Row) (string, error) {
	raw, err := write(rows, Knobs{})
	sum := sha256.Sum256(raw)
	return hex.EncodeToString(sum[:8]), err
}

func readList(raw json.RawMessage) ([]Row, Knobs, error) {
	var list storedList
	if err := json.Unmarshal(raw, &list); err != nil {
		return nil, list.Knobs, err
	}
	if list.V > listNow {
		return nil, list.Knobs, fmt.Errorf("it was written by a later Corte, as version %d; this one reads up to %d", list.V, listNow)
	}
	for _, r := range list.Rows {
		if _, err := material.Get(r.Material); err != nil {
			return nil, list.Knobs, err
		}
	}
	list.Knobs.People = max(1, list.Knobs.People)
	return list.Rows, list.Knobs, nil
}
