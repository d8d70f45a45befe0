package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"strings"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5/pgconn"
	"github.com/jmoiron/sqlx"
)

// A Table is one whose rows belong to a shop, as a copy of the shop has it.
type Table struct {
	Name    string
	Key     string // that rows are copied in the order of
	Columns []string
}

// copied are the tables of a copy, each after those that its rows point to.
var copied = []struct{ name, key string }{
	{"members", "id"}, {"saws", "id"}, {"blades", "id"}, {"sign_offs", "id"}, {"practised", "id"}, {"log", "id"}, {"conditions", "blade_id"}, {"corrections", "material"}, {"photos", "blade_id"},
	{"dado_sets", "blade_id"}, {"grooves", "id"}, {"mountings", "id"}, {"baths", "id"}, {"washes", "id"}, {"trials", "id"}, {"traces", "id"},
	{"jobs", "id"}, {"job_ticks", "id"}, {"owning", "shop_id"},
	// A client that missed an answer retries, even after its shop was restored.
	{"idempotency", "key"},
}

// NotCopied lists the tables of a shop that a copy leaves out: secrets that open the
// shop, and the record of who did what on this server.
var NotCopied = []string{"calendars", "passes", "audit", "imports"}

// secret lists the columns that a copy leaves out: how a person signs in.
var secret = []string{"shop_id", "person_id", "pin"}

// unless leaves rows out of a copy: an answer may hold the calendar's address.
var unless = map[string]string{"idempotency": ` AND position('calendar'::bytea IN body) = 0`}

// Tables are a shop's tables with the columns that can be written: neither the
// shop's id nor what follows from other columns.
func (s *Store) Tables(ctx context.Context) ([]Table, error) {
	out := make([]Table, 0, len(copied))
	for _, c := range copied {
		t := Table{Name: c.name, Key: c.key}
		if err := s.db.SelectContext(ctx, &t.Columns, `SELECT column_name FROM information_schema.columns
			WHERE table_schema = current_schema() AND table_name = $1 AND is_generated = 'NEVER' AND column_name <> ALL ($2) ORDER BY ordinal_position`, c.name, secret); err != nil {
			return nil, err
		}
		if len(t.Columns) == 0 {
			return nil, fmt.Errorf("there is no table %s", c.name)
		}
		out = append(out, t)
	}
	return out, nil
}

// shopSettings are a shop's own columns in a copy.
var shopSettings = []string{"name", "change_minutes", "height_school", "learning", "sharpening_price", "rework", "time_zone", "sign_off", "pins", "drills"}

// Still runs f in a snapshot of the database: it doesn't see what others change
// meanwhile.
func (s *Store) Still(ctx context.Context, f func(*Store) error) error {
	in, err := s.begin(ctx, &sql.TxOptions{Isolation: sql.LevelRepeatableRead, ReadOnly: true})
	if err != nil {
		return err
	}
	defer in.tx.Rollback() //nolint:errcheck // nothing was changed
	return f(in)
}

// Settings are a shop's own, as JSON.
func (s *Store) Settings(ctx context.Context, shop uuid.UUID) (json.RawMessage, error) {
	var row json.RawMessage
	err := s.db.GetContext(ctx, &row, `SELECT to_jsonb(t) FROM (SELECT `+strings.Join(shopSettings, ", ")+` FROM shops WHERE id = $1) t`, shop)
	return row, noneIfNoRows(err)
}

// CopyOut hands over a table's rows of a shop one by one, as JSON objects; the
// bytes are the callback's only until it returns. Columns may be left out.
func (s *Store) CopyOut(ctx context.Context, t Table, shop uuid.UUID, without string, row func([]byte) error) error {
	columns := make([]string, 0, len(t.Columns))
	for _, c := range t.Columns {
		if c != without {
			columns = append(columns, c)
		}
	}
	return s.rows(ctx, func(rows *sqlx.Rows) error {
		var raw sql.RawBytes
		if err := rows.Scan(&raw); err != nil {
			return err
		}
		return row(raw)
	}, `SELECT to_jsonb(t) FROM (SELECT `+strings.Join(columns, ", ")+` FROM `+t.Name+` WHERE shop_id = $1`+unless[t.Name]+` ORDER BY `+t.Key+`) t`, shop)
}

// A RowError is a row of a copy that the database does not take.
type RowError struct {
	Row int // of those handed over, from 0
	Why string
}

func (e *RowError) Error() string { return fmt.Sprintf("row %d: %s", e.Row+1, e.Why) }

// CopyIn writes rows, JSON objects with the given columns, into a table of a
// shop. A row that the database does not take is a *RowError, and none is kept.
func (s *Store) CopyIn(ctx context.Context, t Table, columns []string, shop uuid.UUID, rows []json.RawMessage) error {
	if len(rows) == 0 {
		return nil
	}
	list := strings.Join(columns, ", ")
	insert := func(rows []json.RawMessage) error {
		all, err := json.Marshal(rows)
		if err != nil {
			return err
		}
		return s.within(ctx, func() error {
			_, err := s.db.ExecContext(ctx, `INSERT INTO `+t.Name+` (shop_id`+comma(list)+`) OVERRIDING SYSTEM VALUE
				SELECT $1`+comma(list)+` FROM jsonb_populate_recordset(NULL::`+t.Name+`, $2)`, shop, all)
			return err
		})
	}
	err := insert(rows)
	var refused *pgconn.PgError
	if err == nil || !errors.As(err, &refused) {
		return err
	}
	for i := range rows { // the first that is refused by itself
		if err := insert(rows[i : i+1]); errors.As(err, &refused) {
			return &RowError{i, refused.Message}
		} else if err != nil {
			return err
		}
	}
	return err
}

func comma(list string) string {
	if list == "" {
		return ""
	}
	return ", " + list
}

// within runs f in a savepoint, so that its failure doesn't end the transaction.
func (s *Store) within(ctx context.Context, f func() error) error {
	if s.tx == nil {
		return f()
	}
	if _, err := s.db.ExecContext(ctx, `SAVEPOINT part`); err != nil {
		return err
	}
	if err := f(); err != nil {
		if _, back := s.db.ExecContext(ctx, `ROLLBACK TO SAVEPOINT part`); back != nil {
			return back
		}
		return err
	}
	_, err := s.db.ExecContext(ctx, `RELEASE SAVEPOINT part`)
	return err
}

// TakeSettings writes a shop's own settings out of a copy.
func (s *Store) TakeSettings(ctx context.Context, shop uuid.UUID, settings json.RawMessage) error {
	list := strings.Join(shopSettings, ", ")
	_, err := s.db.ExecContext(ctx, `UPDATE shops SET (`+list+`) = (SELECT `+list+` FROM jsonb_populate_record(
			(SELECT t FROM shops t WHERE id = $1), $2)), version = version + 1 WHERE id = $1`, shop, []byte(settings))
	return err
}

// Holds counts the rows of a shop that a copy would have, without its members and
// stored answers, and locks the shop until the transaction ends.
func (s *Store) Holds(ctx context.Context, shop uuid.UUID) (rows int, err error) {
	if err := s.db.GetContext(ctx, new(bool), `SELECT true FROM shops WHERE id = $1 FOR UPDATE`, shop); err != nil {
		return 0, noneIfNoRows(err)
	}
	for _, c := range copied {
		if c.name == "idempotency" || c.name == "members" {
			continue // an answer is no work of anybody's, and an empty shop has an owner
		}
		n := 0
		if err := s.db.GetContext(ctx, &n, `SELECT count(*) FROM `+c.name+` WHERE shop_id = $1`, shop); err != nil {
			return 0, err
		}
		rows += n
	}
	return rows, nil
}

// Beyond puts the counters of ids past every row that was brought in.
func (s *Store) Beyond(ctx context.Context) error {
	for _, t := range []string{"log", "job_ticks", "sign_offs", "practised"} {
		if _, err := s.db.ExecContext(ctx, `SELECT setval(pg_get_serial_sequence($1, 'id'), greatest((SELECT max(id) FROM `+t+`), nextval(pg_get_serial_sequence($1, 'id'))))`, t); err != nil {
			return err
		}
	}
	return nil
}

// Newest hands over a table's rows of a shop as CopyOut does, the last by key
// first, at most so many.
func (s *Store) Newest(ctx context.Context, t Table, shop uuid.UUID, most int, row func([]byte) error) error {
	return s.rows(ctx, func(rows *sqlx.Rows) error {
		var raw sql.RawBytes
		if err := rows.Scan(&raw); err != nil {
			return err
		}
		return row(raw)
	}, `SELECT to_jsonb(t) FROM (SELECT `+strings.Join(t.Columns, ", ")+` FROM `+t.Name+` WHERE shop_id = $1 ORDER BY `+t.Key+` DESC LIMIT $2) t`, shop, most)
}

// where is the condition that finds a row by its table's key.
func (t Table) where() string {
	if t.Key == "shop_id" { // a shop has one
		return ` WHERE shop_id = $1 AND $2::text IS NOT NULL`
	}
	return ` WHERE shop_id = $1 AND ` + t.Key + `::text = $2`
}

// HoldRow reads a row as JSON and locks it until the transaction ends.
func (s *Store) HoldRow(ctx context.Context, t Table, shop uuid.UUID, id string) (json.RawMessage, error) {
	if t.Name != "log" { // whose rows nobody changes
		if _, err := s.db.ExecContext(ctx, `SELECT 1 FROM `+t.Name+t.where()+` FOR UPDATE`, shop, id); err != nil {
			return nil, err
		}
	}
	var raw json.RawMessage
	err := s.db.GetContext(ctx, &raw, `SELECT to_jsonb(t) FROM (SELECT `+strings.Join(t.Columns, ", ")+` FROM `+t.Name+t.where()+`) t`, shop, id)
	return raw, noneIfNoRows(err)
}

// WriteRow writes a row, JSON of its columns, over the one with an ID. The error
// is a *RowError where the database does not take it.
func (s *Store) WriteRow(ctx context.Context, t Table, shop uuid.UUID, id string, row json.RawMessage) error {
	list := strings.Join(t.Columns, ", ")
	err := s.within(ctx, func() error {
		return s.one(ctx, `UPDATE `+t.Name+` SET (`+list+`) = (SELECT `+list+` FROM jsonb_populate_record(NULL::`+t.Name+`, $3))`+t.where(), shop, id, []byte(row))
	})
	var refused *pgconn.PgError
	if errors.As(err, &refused) {
		return &RowError{0, refused.Message}
	}
	return err
}

// DeleteRow deletes a row by its ID. IsReferenced tells that others name it.
func (s *Store) DeleteRow(ctx context.Context, t Table, shop uuid.UUID, id string) error {
	return s.within(ctx, func() error { return s.one(ctx, `DELETE FROM `+t.Name+t.where(), shop, id) })
}

// IsReferenced reports whether a row was kept because others name it.
func IsReferenced(err error) bool {
	var pe *pgconn.PgError
	return errors.As(err, &pe) && pe.Code == "23503"
}
