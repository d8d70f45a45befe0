package store

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"

	"corte/internal/record"
)

type retiredRow struct {
	RetiredAt     *time.Time `db:"retired_at"`
	RetiredReason string     `db:"retired_reason"`
	RetiredNote   string     `db:"retired_note"`
}

func (r retiredRow) retired() *Retired {
	if r.RetiredAt == nil {
		return nil
	}
	return &Retired{At: *r.RetiredAt, Reason: r.RetiredReason, Note: r.RetiredNote}
}

// columns are what somebody can say of a row of the rack; an insert, an update
// and a select are written from one list.
type columns []string

func (c columns) insert(table string) string {
	return `INSERT INTO ` + table + ` (id, shop_id, ` + strings.Join(c, ", ") + `) VALUES (:id, :shop_id, :` + strings.Join(c, ", :") + `)`
}

func (c columns) update(table string) string {
	set := make([]string, len(c))
	for i, name := range c {
		set[i] = name + " = :" + name
	}
	return `UPDATE ` + table + ` SET ` + strings.Join(set, ", ") + `, version = version + 1
		WHERE id = :id AND shop_id = :shop_id AND version = :version`
}

// without leaves some out; it panics at the start where one isn't there.
func (c columns) without(names ...string) columns {
	for _, name := range names {
		if !slices.Contains(c, name) {
			panic("no column " + name)
		}
	}
	return slices.DeleteFunc(slices.Clone(c), func(name string) bool { return slices.Contains(names, name) })
}

func (c columns) of(alias string) string { return alias + "." + strings.Join(c, ", "+alias+".") }

// ErrStale is returned where a row has been changed since the version that was
// edited.
var ErrStale = record.ErrStale

// change runs a versioned change and tells a row that is not there from one
// that has moved on.
func (s *Store) change(ctx context.Context, table, update string, shop, id uuid.UUID, row any) error {
	res, err := s.db.NamedExecContext(ctx, update, row)
	if err != nil {
		return err
	}
	if n, _ := res.RowsAffected(); n == 1 {
		return nil
	}
	var there bool
	if err := s.db.GetContext(ctx, &there, `SELECT true FROM `+table+` WHERE shop_id = $1 AND id = $2`, shop, id); err != nil {
		return noneIfNoRows(err)
	}
	return ErrStale
}

// end deletes a row over its version, with the errors of change.
func (s *Store) end(ctx context.Context, table string, shop, id uuid.UUID, version int) error {
	key := struct {
		Shop    uuid.UUID `db:"shop_id"`
		ID      uuid.UUID `db:"id"`
		Version int       `db:"version"`
	}{shop, id, version}
	return s.change(ctx, table, `DELETE FROM `+table+` WHERE id = :id AND shop_id = :shop_id AND version = :version`, shop, id, key)
}

// retire takes a row of the rack out of use, or back into it where r is nil.
// The table is blades or saws.
func (s *Store) retire(ctx context.Context, table string, shop, id uuid.UUID, r *Retired) error {
	row := retiredRow{}
	if r != nil {
		row = retiredRow{&r.At, r.Reason, r.Note}
	}
	res, err := s.db.ExecContext(ctx, `UPDATE `+table+` SET retired_at = $3, retired_reason = $4, retired_note = $5, version = version + 1
		WHERE id = $1 AND shop_id = $2`, id, shop, row.RetiredAt, row.RetiredReason, row.RetiredNote)
	if err != nil {
		return err
	}
	if n, _ := res.RowsAffected(); n == 0 {
		return ErrNone
	}
	return nil
}

// largest is more than any figure of a blade, a saw or a cut.
const largest = 1e7

// figures reports the first that is no number or larger than any that is real.
func figures(all ...float64) error {
	for _, v := range all {
		if !(v > -largest && v < largest) { // false for NaN
			return fmt.Errorf("%g is not a possible value", v)
		}
	}
	return nil
}

// counts reports the first that is negative or larger than any that is real.
func counts(all ...int) error {
	for _, v := range all {
		if v < 0 || v > 1_000_000 {
			return fmt.Errorf("%d is not a possible count", v)
		}
	}
	return nil
}

// texts reports whether one is longer than any that may be typed.
func texts(all ...string) error {
	for _, s := range all {
		if len(s) > mostText {
			return errors.New("a text is too long")
		}
	}
	return nil
}

// number reads a field of a JSON column that is meant to be a number, as SQL;
// NULL where something else stands in it.
func number(column, field string) string {
	return `CASE WHEN jsonb_typeof(` + column + `->'` + field + `') = 'number' AND abs((` + column + `->>'` + field + `')::numeric) < 1e7 THEN (` + column + `->>'` + field + `')::float8 END`
}
