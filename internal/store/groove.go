package store

import (
	"context"
	"encoding/json"
	"time"

	"github.com/google/uuid"

	"corte/core/groove"
	"corte/internal/record"
)

// A DadoSet is what makes the width of a blade that is a dado set.
type DadoSet struct {
	Blade   uuid.UUID
	Set     groove.Set
	Held    groove.Held // what its log adds up to
	Version int         // 0 where nobody has said what it is made of
}

type setRow struct {
	Blade   uuid.UUID `db:"blade_id"`
	MadeOf  []byte    `db:"made_of"`
	Held    []byte    `db:"held"`
	Version int       `db:"version"`
}

func (r setRow) set() (DadoSet, error) {
	set, err := readSet(r.MadeOf)
	if err != nil {
		return DadoSet{}, &record.DamagedError{Table: "dado_sets", ID: r.Blade.String(), Why: err}
	}
	held, err := readHeld(r.Held, set)
	if err != nil { // as good as nothing: what its log adds up to comes at the next start
		held = set.New()
	}
	return DadoSet{r.Blade, set, held, r.Version}, nil
}

// DadoSets lists the sets of the shop's blades that are not retired.
func (s *Store) DadoSets(ctx context.Context, shop uuid.UUID) ([]DadoSet, error) {
	var rows []setRow
	if err := s.db.SelectContext(ctx, &rows, `SELECT d.blade_id, d.made_of, d.held, d.version FROM dado_sets d JOIN blades b ON b.shop_id = d.shop_id AND b.id = d.blade_id
		WHERE d.shop_id = $1 AND b.retired_at IS NULL`, shop); err != nil {
		return nil, err
	}
	return record.Readable(rows, setRow.set)
}

// DadoSet finds what one set is made of.
func (s *Store) DadoSet(ctx context.Context, shop, blade uuid.UUID) (DadoSet, error) {
	var row setRow
	if err := s.db.GetContext(ctx, &row, `SELECT blade_id, made_of, held, version FROM dado_sets WHERE shop_id = $1 AND blade_id = $2`, shop, blade); err != nil {
		return DadoSet{}, noneIfNoRows(err)
	}
	return row.set()
}

// SetDadoSet writes what a set is made of over its version; version 0 is one
// that is not there yet. What its log says of the parts is added up anew.
func (s *Store) SetDadoSet(ctx context.Context, shop uuid.UUID, d DadoSet) error {
	raw, err := writeSet(d.Set)
	if err != nil {
		return err
	}
	return s.Atomically(ctx, func(tx *Store) error {
		if _, err := tx.lock(ctx, shop, d.Blade); err != nil {
			return err
		}
		res, err := tx.db.ExecContext(ctx, `INSERT INTO dado_sets (blade_id, shop_id, made_of) SELECT $1, $2, $3 WHERE $4 = 0
			ON CONFLICT (shop_id, blade_id) DO NOTHING`, d.Blade, shop, raw, d.Version)
		if err == nil && d.Version > 0 {
			res, err = tx.db.ExecContext(ctx, `UPDATE dado_sets SET made_of = $3, version = version + 1 WHERE blade_id = $1 AND shop_id = $2 AND version = $4`,
				d.Blade, shop, raw, d.Version)
		}
		if err != nil {
			return err
		}
		if n, _ := res.RowsAffected(); n == 0 {
			return ErrStale
		}
		return tx.refoldHeld(ctx, shop, d.Blade, d.Set)
	})
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

	SawName   string `db:"saw_name"` // on reading
	BladeName string `db:"blade_name"`
}

var grooveColumns = columns{"saw_id", "blade_id", "material", "asked", "setting", "tests", "by_name", "started_at"}

var selectGrooves = `
SELECT g.id, g.shop_id, ` + grooveColumns.of("g") + `, g.ended_at, g.made, g.version, w.name AS saw_name, b.name AS blade_name
FROM grooves g JOIN saws w ON w.shop_id = g.shop_id AND w.id = g.saw_id JOIN blades b ON b.shop_id = g.shop_id AND b.id = g.blade_id
WHERE g.shop_id = $1`

// AddGroove begins a groove.
func (s *Store) AddGroove(ctx context.Context, g Groove) error {
	_, err := s.db.NamedExecContext(ctx, grooveColumns.insert("grooves"), g)
	return err
}

// Groove finds one.
func (s *Store) Groove(ctx context.Context, shop, id uuid.UUID) (Groove, error) {
	var g Groove
	err := s.db.GetContext(ctx, &g, selectGrooves+` AND g.id = $2`, shop, id)
	return g, noneIfNoRows(err)
}

// Grooves lists at most limit grooves, newest first: of a material where one is
// named, and those that have ended or have not where ended says which.
func (s *Store) Grooves(ctx context.Context, shop uuid.UUID, material string, ended *bool, limit int) ([]Groove, error) {
	all := []Groove{}
	err := s.db.SelectContext(ctx, &all, selectGrooves+`
		AND ($2 = '' OR g.material = $2) AND ($3::boolean IS NULL OR (g.ended_at IS NOT NULL) = $3) ORDER BY g.started_at DESC, g.id LIMIT $4`, shop, material, ended, limit)
	return all, err
}

// ChangeGroove writes how a groove stands over its version.
func (s *Store) ChangeGroove(ctx context.Context, g Groove) error {
	return s.change(ctx, "grooves", `UPDATE grooves SET setting = :setting, tests = :tests, ended_at = :ended_at, made = :made, version = version + 1
		WHERE id = :id AND shop_id = :shop_id AND version = :version`, g.Shop, g.ID, g)
}

// DropGroove gives one up that has not ended.
func (s *Store) DropGroove(ctx context.Context, shop, id uuid.UUID) error {
	return s.one(ctx, `DELETE FROM grooves WHERE shop_id = $1 AND id = $2 AND ended_at IS NULL`, shop, id)
}
