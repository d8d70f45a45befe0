package store

import (
	"context"
	"encoding/json"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5/pgtype"

	"corte/core/measure"
)

// A Bath is a tray of cleaner.
type Bath struct {
	ID       uuid.UUID      `db:"id"`
	Shop     uuid.UUID      `db:"shop_id"`
	Name     string         `db:"name"`
	Cleaner  string         `db:"cleaner"`
	Length   measure.Length `db:"length_mm"`
	Width    measure.Length `db:"width_mm"`
	Depth    measure.Length `db:"depth_mm"`
	Round    bool           `db:"round"`
	Litres   float64        `db:"litres"`
	Made     time.Time      `db:"made_at"`
	Uses     int            `db:"uses"`        // blades washed in it
	Strained int            `db:"strained_at"` // uses when it was last strained
}

var bathColumns = columns{"name", "cleaner", "length_mm", "width_mm", "depth_mm", "round", "litres", "made_at"}

// Baths lists the shop's baths that are not emptied, oldest first.
func (s *Store) Baths(ctx context.Context, shop uuid.UUID) ([]Bath, error) {
	all := []Bath{}
	err := s.db.SelectContext(ctx, &all, `SELECT id, shop_id, uses, strained_at, `+bathColumns.of("b")+`
		FROM baths b WHERE shop_id = $1 AND emptied_at IS NULL ORDER BY made_at, id`, shop)
	return all, err
}

// AddBath makes up a bath.
func (s *Store) AddBath(ctx context.Context, b Bath) error {
	_, err := s.db.NamedExecContext(ctx, bathColumns.insert("baths"), b)
	return err
}

// StrainBath notes that a bath was strained.
func (s *Store) StrainBath(ctx context.Context, shop, id uuid.UUID) error {
	return s.one(ctx, `UPDATE baths SET strained_at = uses WHERE shop_id = $1 AND id = $2 AND emptied_at IS NULL`, shop, id)
}

// EmptyBath marks a bath as emptied.
func (s *Store) EmptyBath(ctx context.Context, shop, id uuid.UUID, at time.Time) error {
	return s.one(ctx, `UPDATE baths SET emptied_at = $3 WHERE shop_id = $1 AND id = $2 AND emptied_at IS NULL`, shop, id, at)
}

// UseBath counts blades that were washed in a bath.
func (s *Store) UseBath(ctx context.Context, shop, id uuid.UUID, blades int) error {
	return s.one(ctx, `UPDATE baths SET uses = uses + $3 WHERE shop_id = $1 AND id = $2`, shop, id, blades)
}

// one runs a change that must affect exactly one row.
func (s *Store) one(ctx context.Context, sql string, args ...any) error {
	res, err := s.db.ExecContext(ctx, sql, args...)
	if err != nil {
		return err
	}
	if n, _ := res.RowsAffected(); n == 0 {
		return ErrNone
	}
	return nil
}

// uuids is an array column.
type uuids []uuid.UUID

// Scan reads PostgreSQL's array text.
func (u *uuids) Scan(v any) error {
	var text []string
	if err := pgtype.NewMap().SQLScanner(&text).Scan(v); err != nil {
		return err
	}
	*u = nil
	for _, t := range text {
		id, err := uuid.Parse(t)
		if err != nil {
			return err
		}
		*u = append(*u, id)
	}
	return nil
}

// A Wash is a wash under way.
type Wash struct {
	ID      uuid.UUID  `db:"id"`
	Shop    uuid.UUID  `db:"shop_id"`
	Blades  uuids      `db:"blade_ids"`
	Cleaner string     `db:"cleaner"`
	Brush   string     `db:"brush"`
	Bath    *uuid.UUID `db:"bath_id"`
	Step    int        `db:"step"`
	StepAt  time.Time  `db:"step_at"` // when the step began
	Started time.Time  `db:"started_at"`
	By      string     `db:"by_name"`
	Version int        `db:"version"`
}

var washColumns = columns{"blade_ids", "cleaner", "brush", "bath_id", "step", "step_at", "started_at", "by_name"}

// Washes lists those that are under way, oldest first.
func (s *Store) Washes(ctx context.Context, shop uuid.UUID) ([]Wash, error) {
	all := []Wash{}
	err := s.db.SelectContext(ctx, &all, `SELECT id, shop_id, version, `+washColumns.of("w")+` FROM washes w WHERE shop_id = $1 ORDER BY started_at, id`, shop)
	return all, err
}

// Wash finds a wash that is under way.
func (s *Store) Wash(ctx context.Context, shop, id uuid.UUID) (Wash, error) {
	var w Wash
	err := s.db.GetContext(ctx, &w, `SELECT id, shop_id, version, `+washColumns.of("w")+` FROM washes w WHERE shop_id = $1 AND id = $2`, shop, id)
	return w, noneIfNoRows(err)
}

// StartWash begins a wash.
func (s *Store) StartWash(ctx context.Context, w Wash) error {
	_, err := s.db.NamedExecContext(ctx, washColumns.insert("washes"), w)
	return err
}

// StepWash sets the step of a wash, from a version.
func (s *Store) StepWash(ctx context.Context, w Wash) error {
	return s.change(ctx, "washes", `UPDATE washes SET step = :step, step_at = :step_at, version = version + 1
		WHERE id = :id AND shop_id = :shop_id AND version = :version`, w.Shop, w.ID, w)
}

// EndWash ends a wash, at a version.
func (s *Store) EndWash(ctx context.Context, shop, id uuid.UUID, version int) error {
	return s.end(ctx, "washes", shop, id, version)
}

// DropWash abandons a wash.
func (s *Store) DropWash(ctx context.Context, shop, id uuid.UUID) error {
	return s.one(ctx, `DELETE FROM washes WHERE shop_id = $1 AND id = $2`, shop, id)
}

// A Trial is settings compared on one board.
type Trial struct {
	ID       uuid.UUID       `db:"id"`
	Shop     uuid.UUID       `db:"shop_id"`
	Saw      uuid.UUID       `db:"saw_id"`
	Blade    uuid.UUID       `db:"blade_id"`
	Material string          `db:"material"`
	Asked    json.RawMessage `db:"asked"`
	Runs     json.RawMessage `db:"runs"`
	Blind    bool            `db:"blind"`
	By       string          `db:"by_name"`
	Started  time.Time       `db:"started_at"`
	Ended    *time.Time      `db:"ended_at"`
	Version  int             `db:"version"`
}

var trialColumns = columns{"saw_id", "blade_id", "material", "asked", "runs", "blind", "by_name", "started_at"}

// AddTrial begins a comparison.
func (s *Store) AddTrial(ctx context.Context, t Trial) error {
	_, err := s.db.NamedExecContext(ctx, trialColumns.insert("trials"), t)
	return err
}

// Trial finds one comparison.
func (s *Store) Trial(ctx context.Context, shop, id uuid.UUID) (Trial, error) {
	var t Trial
	err := s.db.GetContext(ctx, &t, `SELECT id, shop_id, ended_at, version, `+trialColumns.of("t")+` FROM trials t WHERE shop_id = $1 AND id = $2`, shop, id)
	return t, noneIfNoRows(err)
}

// Trials lists at most limit comparisons, newest first; those with a
// blade where one is named.
func (s *Store) Trials(ctx context.Context, shop uuid.UUID, blade *uuid.UUID, limit int) ([]Trial, error) {
	all := []Trial{}
	err := s.db.SelectContext(ctx, &all, `SELECT id, shop_id, ended_at, version, `+trialColumns.of("t")+` FROM trials t
		WHERE shop_id = $1 AND ($2::uuid IS NULL OR asked @> jsonb_build_object('settings', jsonb_build_array(jsonb_build_object('blade_id', $2::text))))
		ORDER BY started_at DESC, id LIMIT $3`, shop, blade, limit)
	return all, err
}

// ChangeTrial writes a comparison's runs, and its end, over its version.
func (s *Store) ChangeTrial(ctx context.Context, t Trial) error {
	return s.change(ctx, "trials", `UPDATE trials SET runs = :runs, ended_at = :ended_at, version = version + 1
		WHERE id = :id AND shop_id = :shop_id AND version = :version`, t.Shop, t.ID, t)
}

// SetCalendar sets the digest of the shop's calendar address; nil withdraws the
// address.
func (s *Store) SetCalendar(ctx context.Context, shop uuid.UUID, digest []byte, at time.Time) error {
	if digest == nil {
		_, err := s.db.ExecContext(ctx, `DELETE FROM calendars WHERE shop_id = $1`, shop)
		return err
	}
	_, err := s.db.ExecContext(ctx, `INSERT INTO calendars (shop_id, digest, made_at) VALUES ($1, $2, $3)
		ON CONFLICT (shop_id) DO UPDATE SET digest = $2, made_at = $3`, shop, digest, at)
	return err
}

// Calendar is when the shop's calendar address was made, or nil.
func (s *Store) Calendar(ctx context.Context, shop uuid.UUID) (*time.Time, error) {
	var at time.Time
	err := s.db.GetContext(ctx, &at, `SELECT made_at FROM calendars WHERE shop_id = $1`, shop)
	if noneIfNoRows(err) == ErrNone {
		return nil, nil
	}
	return &at, err
}

// CalendarOf finds the shop whose calendar address has a digest.
func (s *Store) CalendarOf(ctx context.Context, digest []byte) (uuid.UUID, error) {
	var id uuid.UUID
	err := s.db.GetContext(ctx, &id, `SELECT shop_id FROM calendars WHERE digest = $1`, digest)
	return id, noneIfNoRows(err)
}

// Away lists the last row of every blade that is with the saw doctor.
func (s *Store) Away(ctx context.Context, shop uuid.UUID) ([]Entry, error) {
	rows := []Entry{}
	err := s.db.SelectContext(ctx, &rows, selectLog+` AND l.kind = 'sent'`+stands+`
		AND l.blade_id IN (SELECT blade_id FROM conditions WHERE shop_id = $1 AND away) AND b.retired_at IS NULL
		AND NOT EXISTS (SELECT 1 FROM log n WHERE n.shop_id = l.shop_id AND n.blade_id = l.blade_id AND n.kind = 'sent' AND (n.at, n.id) > (l.at, l.id)
			AND NOT EXISTS (SELECT 1 FROM log x WHERE x.shop_id = n.shop_id AND x.strikes = n.id))
		ORDER BY l.at, l.id`, shop)
	return rows, err
}
