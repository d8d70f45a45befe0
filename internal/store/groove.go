package store

import (
	"context"
	"encoding/json"
	"time"

	"github.com/google/uuid"

	"corte/core/groove"
)

// A DadoSet is what makes the width of a blade that is a dado set.
type DadoSet struct {
	Blade   uuid.UUID
	Set     groove.Set
	Version int // 0 where nobody has said what it is made of
}

type setRow struct {
	Blade   uuid.UUID       `db:"blade_id"`
	MadeOf  json.RawMessage `db:"made_of"`
	Version int             `db:"version"`
}

func (r setRow) set() (DadoSet, error) {
	s := DadoSet{Blade: r.Blade, Version: r.Version}
	return s, json.Unmarshal(r.MadeOf, &s.Set)
}

// DadoSets lists the sets of the shop's blades that are not retired.
func (s *Store) DadoSets(ctx context.Context, shop uuid.UUID) ([]DadoSet, error) {
	var rows []setRow
	if err := s.db.SelectContext(ctx, &rows, `SELECT d.blade_id, d.made_of, d.version FROM dado_sets d JOIN blades b ON b.id = d.blade_id
		WHERE d.shop_id = $1 AND b.retired_at IS NULL`, shop); err != nil {
		return nil, err
	}
	return each(rows, setRow.set)
}

// DadoSet finds what one set is made of.
func (s *Store) DadoSet(ctx context.Context, shop, blade uuid.UUID) (DadoSet, error) {
	var row setRow
	if err := s.db.GetContext(ctx, &row, `SELECT blade_id, made_of, version FROM dado_sets WHERE shop_id = $1 AND blade_id = $2`, shop, blade); err != nil {
		return DadoSet{}, noneIfNoRows(err)
	}
	return row.set()
}

// SetDadoSet writes what a set is made of over its version; version 0 is one
// that is not there yet.
func (s *Store) SetDadoSet(ctx context.Context, shop uuid.UUID, d DadoSet) error {
	raw, err := json.Marshal(d.Set)
	if err != nil {
		return err
	}
	res, err := s.db.ExecContext(ctx, `INSERT INTO dado_sets (blade_id, shop_id, made_of) SELECT $1, $2, $3 WHERE $4 = 0
		ON CONFLICT (blade_id) DO NOTHING`, d.Blade, shop, raw, d.Version)
	if err == nil && d.Version > 0 {
		res, err = s.db.ExecContext(ctx, `UPDATE dado_sets SET made_of = $3, version = version + 1 WHERE blade_id = $1 AND shop_id = $2 AND version = $4`,
			d.Blade, shop, raw, d.Version)
	}
	if err != nil {
		return err
	}
	if n, _ := res.RowsAffected(); n == 0 {
		return ErrStale
	}
	return nil
}

// SetRows lists the rows of the log that tell how thick a set's parts are,
// oldest first: grooves, renewals, sharpenings, and the cuts that wore it.
func (s *Store) SetRows(ctx context.Context, shop, blade uuid.UUID) ([]Entry, error) {
	rows := []Entry{}
	err := s.db.SelectContext(ctx, &rows, selectLog+` AND l.blade_id = $2 AND l.kind IN ('grooved', 'renewed', 'sharpened', 'cut')`+stands+`
		ORDER BY l.at, l.id`, shop, blade)
	return rows, err
}

// A GroovedDetail is what a log row keeps of a groove: a test in scrap, or so
// many that were made.
type GroovedDetail struct {
	Groove uuid.UUID  `json:"groove_id"`
	Test   bool       `json:"test,omitempty"`
	Target float64    `json:"target_mm"`
	Width  []float64  `json:"width_mm,omitempty"` // as it was measured
	Depth  float64    `json:"depth_mm,omitempty"`
	Made   int        `json:"made,omitempty"`
	Left   float64    `json:"left_mm,omitempty"` // tip widths of the outer pair, as stamped
	Right  float64    `json:"right_mm,omitempty"`
	Parts  []PartUsed `json:"parts,omitempty"` // of a stack
	Dial   *DialUsed  `json:"dial,omitempty"`
}

// A PartUsed is how many of a part were in a stack.
type PartUsed struct {
	Thickness float64 `json:"thickness_mm"` // as stamped
	Shim      bool    `json:"shim,omitempty"`
	Count     int     `json:"count"`
}

// A DialUsed is how a dial set stood.
type DialUsed struct {
	Cutters int     `json:"cutters"`
	Turns   float64 `json:"turns"`
}

// A RenewedDetail is what a log row keeps of parts that are no longer what they
// were.
type RenewedDetail struct {
	Why   string     `json:"why"` // sharpened, replaced or worn
	Outer bool       `json:"outer,omitempty"`
	Parts []PartUsed `json:"parts,omitempty"`
}

// A Groove is a groove that is being set up, or was made.
type Groove struct {
	ID       uuid.UUID       `db:"id"`
	Shop     uuid.UUID       `db:"shop_id"`
	Saw      uuid.UUID       `db:"saw_id"`
	Blade    uuid.UUID       `db:"blade_id"`
	Material string          `db:"material"`
	Asked    json.RawMessage `db:"asked"`
	Setting  json.RawMessage `db:"setting"`
	Tests    json.RawMessage `db:"tests"`
	By       string          `db:"by_name"`
	Started  time.Time       `db:"started_at"`
	Ended    *time.Time      `db:"ended_at"`
	Made     int             `db:"made"`
	Version  int             `db:"version"`
}

var grooveColumns = columns{"saw_id", "blade_id", "material", "asked", "setting", "tests", "by_name", "started_at"}

const grooveEnd = `, ended_at, made, version FROM grooves g WHERE shop_id = $1`

// AddGroove begins a groove.
func (s *Store) AddGroove(ctx context.Context, g Groove) error {
	_, err := s.db.NamedExecContext(ctx, grooveColumns.insert("grooves"), g)
	return err
}

// Groove finds one.
func (s *Store) Groove(ctx context.Context, shop, id uuid.UUID) (Groove, error) {
	var g Groove
	err := s.db.GetContext(ctx, &g, `SELECT id, shop_id, `+grooveColumns.of("g")+grooveEnd+` AND id = $2`, shop, id)
	return g, noneIfNoRows(err)
}

// Grooves lists at most limit grooves, newest first: of a material where one is
// named, and those that have ended or have not where ended says which.
func (s *Store) Grooves(ctx context.Context, shop uuid.UUID, material string, ended *bool, limit int) ([]Groove, error) {
	all := []Groove{}
	err := s.db.SelectContext(ctx, &all, `SELECT id, shop_id, `+grooveColumns.of("g")+grooveEnd+`
		AND ($2 = '' OR material = $2) AND ($3::boolean IS NULL OR (ended_at IS NOT NULL) = $3) ORDER BY started_at DESC, id LIMIT $4`, shop, material, ended, limit)
	return all, err
}

// ChangeGroove writes how a groove stands over its version.
func (s *Store) ChangeGroove(ctx context.Context, g Groove) error {
	return s.change(ctx, "grooves", `UPDATE grooves SET setting = :setting, tests = :tests, ended_at = :ended_at, made = :made, version = version + 1
		WHERE id = :id AND shop_id = :shop_id AND version = :version`, g.ID, g)
}

// DropGroove gives one up that has not ended.
func (s *Store) DropGroove(ctx context.Context, shop, id uuid.UUID) error {
	return s.one(ctx, `DELETE FROM grooves WHERE shop_id = $1 AND id = $2 AND ended_at IS NULL`, shop, id)
}
