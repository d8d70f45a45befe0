package job

import (
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"fmt"

	"github.com/google/uuid"

	"corte/core/cut"
	"corte/core/job"
	"corte/core/material"
	"corte/core/measure"
	"corte/internal/refusal"
)

// A list is kept as JSON with a version, under names of its own. They are the
// names of the published schema as well: a job's file is this, beside its name.
const listNow = 1

type storedList struct {
	V     int         `json:"v"`
	Rows  []storedRow `json:"rows"`
	Knobs Knobs       `json:"knobs"`
}

type storedRow struct {
	ID        uuid.UUID      `json:"id"`
	Name      string         `json:"name"`
	Assembly  string         `json:"assembly,omitempty"`
	Pieces    int            `json:"pieces"`
	Material  string         `json:"material"`
	Direction cut.Direction  `json:"direction"`
	Finish    cut.Finish     `json:"finish"`
	Thickness measure.Length `json:"thickness_mm"`
	Width     measure.Length `json:"width_mm"`
	Length    measure.Length `json:"length_mm"`
	Form      cut.Form       `json:"form"`
	Depth     measure.Length `json:"depth_mm,omitempty"`
	Bevel     float64        `json:"bevel_deg,omitempty"`
	Miter     float64        `json:"miter_deg,omitempty"`
	Moisture  cut.Moisture   `json:"moisture"`
	Moves     bool           `json:"moves,omitempty"`
	Stage     job.Stage      `json:"stage"`
	Saw       *uuid.UUID     `json:"saw_id,omitempty"`
	Blade     *uuid.UUID     `json:"blade_id,omitempty"`
}

func write(rows []Row, k Knobs) (json.RawMessage, error) {
	if len(rows) > MostRows {
		return nil, refusal.Of("rows", "a job has at most %d rows; part it into two", MostRows)
	}
	seen := map[uuid.UUID]bool{}
	list := storedList{V: listNow, Rows: []storedRow{}, Knobs: k}
	for i, r := range rows {
		if seen[r.ID] {
			return nil, refusal.Of(fmt.Sprintf("rows.%d.id", i), "two rows have the same id; each has its own")
		}
		seen[r.ID] = true
		list.Rows = append(list.Rows, storedRow{r.ID, r.Name, r.Assembly, r.Pieces, r.Material.ID, r.Direction, r.Finish,
			r.Thickness, r.Width, r.Length, r.Form, r.Depth, r.BevelDeg, r.MiterDeg, r.Moisture, r.Moves, r.Stage, r.Saw, r.Blade})
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
	rows := make([]Row, len(list.Rows))
	for i, k := range list.Rows {
		m, err := material.Get(k.Material)
		if err != nil {
			return nil, list.Knobs, err
		}
		rows[i] = Row{ID: k.ID, Saw: k.Saw, Blade: k.Blade, Row: job.Row{Name: k.Name, Assembly: k.Assembly, Pieces: k.Pieces, Material: m,
			Direction: k.Direction, Finish: k.Finish, Thickness: k.Thickness, Width: k.Width, Length: k.Length, Form: k.Form, Depth: k.Depth,
			BevelDeg: k.Bevel, MiterDeg: k.Miter, Moisture: k.Moisture, Moves: k.Moves, Stage: k.Stage}}
	}
	list.Knobs.People = max(1, list.Knobs.People)
	return rows, list.Knobs, nil
}
