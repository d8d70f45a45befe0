package store

import (
	"context"
	"encoding/json"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5/pgtype"
)

// words is an array column of text.
type words []string

// Scan reads PostgreSQL's array text.
func (w *words) Scan(v any) error { return pgtype.NewMap().SQLScanner((*[]string)(w)).Scan(v) }

// A Trace is fault finding, under way or done.
type Trace struct {
	ID      uuid.UUID       `db:"id"`
	Shop    uuid.UUID       `db:"shop_id"`
	Saw     uuid.UUID       `db:"saw_id"`
	Blade   *uuid.UUID      `db:"blade_id"`
	Cut     json.RawMessage `db:"cut"`
	Finish  string          `db:"finish"`
	Groove  bool            `db:"groove"`
	Facts   json.RawMessage `db:"facts"`
	Present words           `db:"present"`
	Absent  words           `db:"absent"`
	Answers json.RawMessage `db:"answers"`
	By      string          `db:"by_name"`
	Started time.Time       `db:"started_at"`
	Ended   *time.Time      `db:"ended_at"`
	Cause   string          `db:"cause"`
	Fixed   bool            `db:"fixed"`
	Note    string          `db:"note"`
	Version int             `db:"version"`
}

var traceColumns = columns{"saw_id", "blade_id", "cut", "finish", "groove", "facts", "present", "absent", "answers", "by_name", "started_at"}

const traceEnd = `, ended_at, cause, fixed, note, version FROM traces t WHERE shop_id = $1`

// AddTrace begins to trace a fault.
func (s *Store) AddTrace(ctx context.Context, t Trace) error {
	_, err := s.db.NamedExecContext(ctx, traceColumns.insert("traces"), t)
	return err
}

// Trace finds one.
func (s *Store) Trace(ctx context.Context, shop, id uuid.UUID) (Trace, error) {
	var t Trace
	err := s.db.GetContext(ctx, &t, `SELECT id, shop_id, `+traceColumns.of("t")+traceEnd+` AND id = $2`, shop, id)
	return t, noneIfNoRows(err)
}

// Traces lists at most limit traces, newest first; those of a saw or of a blade
// where one is named, of either where both are.
func (s *Store) Traces(ctx context.Context, shop uuid.UUID, saw, blade *uuid.UUID, limit int) ([]Trace, error) {
	all := []Trace{}
	err := s.db.SelectContext(ctx, &all, `SELECT id, shop_id, `+traceColumns.of("t")+traceEnd+`
		AND ($2::uuid IS NULL AND $3::uuid IS NULL OR saw_id = $2 OR blade_id = $3) ORDER BY started_at DESC, id LIMIT $4`, shop, saw, blade, limit)
	return all, err
}

// ChangeTrace writes what is known of a fault, or how it ended, over its version.
func (s *Store) ChangeTrace(ctx context.Context, t Trace) error {
	return s.change(ctx, "traces", `UPDATE traces SET present = :present, absent = :absent, answers = :answers,
		ended_at = :ended_at, cause = :cause, fixed = :fixed, note = :note, version = version + 1
		WHERE id = :id AND shop_id = :shop_id AND version = :version`, t.Shop, t.ID, t)
}

// DropTrace gives one up that has not ended.
func (s *Store) DropTrace(ctx context.Context, shop, id uuid.UUID) error {
	return s.one(ctx, `DELETE FROM traces WHERE shop_id = $1 AND id = $2 AND ended_at IS NULL`, shop, id)
}
