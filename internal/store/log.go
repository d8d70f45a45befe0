package store

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"maps"
	"slices"
	"strconv"
	"strings"
	"time"

	"github.com/google/uuid"

	"corte/core/history"
)

// An Entry is one row of the log. Detail holds what belongs to its kind alone:
// a history.Cut for a cut, a HeelDetail for a heel reading.
type Entry struct {
	ID      int64           `db:"id"`
	Shop    uuid.UUID       `db:"shop_id"`
	At      time.Time       `db:"at"`
	Kind    history.Kind    `db:"kind"`
	Blade   *uuid.UUID      `db:"blade_id"`
	Saw     *uuid.UUID      `db:"saw_id"`
	Strikes *int64          `db:"strikes"` // of a struck row: the row that was a mistake
	Amends  *int64          `db:"amends"`  // the struck row in whose place it stands
	By      string          `db:"by_name"`
	Note    string          `db:"note"`
	Detail  json.RawMessage `db:"detail"`

	SawName   *string `db:"saw_name"` // on reading
	BladeName *string `db:"blade_name"`
	StruckBy  *int64  `db:"struck_by"`
	AmendedBy *int64  `db:"amended_by"` // of a row that strikes: stands for what it strikes
	Zone      string  `db:"time_zone"`  // of its shop
}

// Append adds a row to the log. In the same transaction it updates the blade's
// snapshot and runs then.
func (s *Store) Append(ctx context.Context, e Entry, then ...func(tx *Store, row Entry) error) (Entry, error) {
	var row Entry
	err := s.Atomically(ctx, func(tx *Store) (err error) {
		row, err = tx.add(ctx, e)
		for _, f := range then {
			if err == nil {
				err = f(tx, row)
			}
		}
		return err
	})
	if err != nil {
		return Entry{}, err
	}
	return row, nil
}

func (s *Store) add(ctx context.Context, e Entry) (Entry, error) {
	if e.Detail == nil {
		e.Detail = json.RawMessage(`{}`)
	}
	e.At = e.At.Truncate(time.Microsecond) // as it is kept, and as it is folded
	var b Blade
	if e.Blade != nil {
		var err error
		if b, err = s.lock(ctx, e.Shop, *e.Blade); err != nil {
			return Entry{}, err
		}
	}
	var id int64
	if err := s.db.GetContext(ctx, &id, `INSERT INTO log (shop_id, at, kind, blade_id, saw_id, strikes, amends, by_name, note, detail)
		VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10) RETURNING id`,
		e.Shop, e.At, e.Kind, e.Blade, e.Saw, e.Strikes, e.Amends, e.By, e.Note, e.Detail); err != nil {
		return Entry{}, err
	}
	if e.Blade != nil {
		late, err := s.isLate(ctx, e)
		if err == nil {
			err = s.keepCondition(ctx, b, e, late)
		}
		if err == nil {
			err = s.keepHeld(ctx, e.Shop, b, e, late)
		}
		if err != nil {
			return Entry{}, err
		}
	}
	return s.Entry(ctx, e.Shop, id)
}

// HoldBlade locks a blade's log until the transaction ends.
func (s *Store) HoldBlade(ctx context.Context, shop, blade uuid.UUID) error {
	_, err := s.db.ExecContext(ctx, `SELECT 1 FROM blades WHERE shop_id = $1 AND id = $2 FOR UPDATE`, shop, blade)
	return err
}

// HoldSaw locks a saw, and the mounting of a blade on it, until the transaction ends.
func (s *Store) HoldSaw(ctx context.Context, shop, saw uuid.UUID) error {
	_, err := s.db.ExecContext(ctx, `SELECT 1 FROM saws WHERE shop_id = $1 AND id = $2 FOR UPDATE`, shop, saw)
	return err
}

// lock reads a blade and holds it until the transaction ends. The lock comes in
// a statement of its own: one that waits for it still sees the snapshot from
// before the wait, and would fold from that.
func (s *Store) lock(ctx context.Context, shop, blade uuid.UUID) (Blade, error) {
	if err := s.HoldBlade(ctx, shop, blade); err != nil {
		return Blade{}, err
	}
	return s.Blade(ctx, shop, blade)
}

// Entry finds one row of the log.
func (s *Store) Entry(ctx context.Context, shop uuid.UUID, id int64) (Entry, error) {
	var e Entry
	err := s.db.GetContext(ctx, &e, selectLog+` AND l.id = $2`, shop, id)
	return e, noneIfNoRows(err)
}

// selectLog compares with bare columns alone: before a policy has let a row
// through, PostgreSQL looks it up by nothing that could tell of it, as a
// coalesce might, and would go through the whole log of the shop instead.
const selectLog = `
SELECT l.id, l.shop_id, l.at, l.kind, l.blade_id, l.saw_id, l.strikes, l.amends, l.by_name, l.note, l.detail,
       s.name AS saw_name, b.name AS blade_name, x.id AS struck_by, coalesce(y.id, z.id) AS amended_by, shop.time_zone
FROM log l JOIN shops shop ON shop.id = l.shop_id 
	LEFT JOIN saws s ON s.shop_id = l.shop_id AND s.id = l.saw_id
	LEFT JOIN blades b ON b.shop_id = l.shop_id AND b.id = l.blade_id
	LEFT JOIN log x ON x.shop_id = l.shop_id AND x.strikes = l.id
	LEFT JOIN log y ON y.shop_id = l.shop_id AND y.amends = l.id
	LEFT JOIN log z ON z.shop_id = l.shop_id AND z.amends = l.strikes
WHERE l.shop_id = $1`

// stands leaves out the rows that were struck out.
const stands = ` AND NOT EXISTS (SELECT 1 FROM log x WHERE x.shop_id = l.shop_id AND x.strikes = l.id)`

// A Filter selects rows of the log; a zero field selects all.
type Filter struct {
	Blade, Saw *uuid.UUID
	Kinds      []history.Kind
	From, To   time.Time // To is not in it
	FirstDay   time.Time // as DayOf names it: shop/log puts it into From by the shop's zone
	LastDay    time.Time // it is in it
	Material   string    // of cuts
	Finish     string
	Standing   bool // without what was struck out, and without the rows that strike
}

// A Mark is where a page of the log left off. The zero Mark is the newest row.
type Mark struct {
	At time.Time
	ID int64
}

// Log lists at most limit rows, newest first, that come before a mark.
func (s *Store) Log(ctx context.Context, shop uuid.UUID, f Filter, before Mark, limit int) ([]Entry, error) {
	q, args := selectLog, []any{shop}
	and := func(sql string, v any) {
		args = append(args, v)
		q += strings.ReplaceAll(sql, "?", fmt.Sprintf("$%d", len(args)))
	}
	if f.Blade != nil {
		and(` AND l.blade_id = ?`, *f.Blade)
	}
	if f.Saw != nil {
		and(` AND l.saw_id = ?`, *f.Saw)
	}
	if len(f.Kinds) > 0 {
		and(` AND l.kind = ANY(?)`, names(f.Kinds))
	}
	if f.Material != "" {
		and(` AND l.detail->>'material' = ?`, f.Material)
	}
	if f.Finish != "" {
		and(` AND l.detail->>'finish' = ?`, f.Finish)
	}
	if !f.From.IsZero() {
		and(` AND l.at >= ?`, f.From)
	}
	if !f.To.IsZero() {
		and(` AND l.at < ?`, f.To)
	}
	if f.Standing {
		q += stands + ` AND l.strikes IS NULL`
	}
	if before.ID != 0 {
		args = append(args, before.At, before.ID)
		q += fmt.Sprintf(` AND (l.at, l.id) < ($%d, $%d)`, len(args)-1, len(args))
	}
	rows := []Entry{}
	err := s.db.SelectContext(ctx, &rows, q+fmt.Sprintf(` ORDER BY l.at DESC, l.id DESC LIMIT %d`, limit), args...)
	return rows, err
}

// LastOfSaws lists the newest rows that stand of every saw, at most so many of
// each, newest first.
func (s *Store) LastOfSaws(ctx context.Context, shop uuid.UUID, each int) (map[uuid.UUID][]Entry, error) {
	var rows []Entry
	err := s.db.SelectContext(ctx, &rows, `SELECT last.* FROM saws w, LATERAL (`+selectLog+stands+` AND l.strikes IS NULL AND l.saw_id = w.id
		ORDER BY l.at DESC, l.id DESC LIMIT `+strconv.Itoa(each)+`) last WHERE w.shop_id = $1 ORDER BY last.at DESC, last.id DESC`, shop)
	out := map[uuid.UUID][]Entry{}
	for _, r := range rows {
		out[*r.Saw] = append(out[*r.Saw], r)
	}
	return out, err
}

// Truings lists at most limit truings, newest first, of a saw or a blade (nil
// for any) and of one test (empty for all).
func (s *Store) Truings(ctx context.Context, shop uuid.UUID, saw, blade *uuid.UUID, test string, limit int) ([]Entry, error) {
	rows := []Entry{}
	err := s.db.SelectContext(ctx, &rows, selectLog+`
		AND l.kind IN ('heel', 'fence', 'runout', 'tilt', 'gauge', 'clearance')
		AND ($2::uuid IS NULL OR l.saw_id = $2) AND ($3::uuid IS NULL OR l.blade_id = $3) AND ($4 = '' OR l.kind = $4)`+stands+`
		ORDER BY l.at DESC, l.id DESC LIMIT `+strconv.Itoa(limit), shop, saw, blade, test)
	return rows, err
}

// ofSaws are the kinds of row that say how a saw stands, as the index log_truings
// has them.
const ofSaws = `'heel', 'fence', 'runout', 'tilt', 'gauge', 'moved'`

// Stands lists the last truing of each test of every saw, and when each saw
// was last moved.
func (s *Store) Stands(ctx context.Context, shop uuid.UUID) ([]Entry, error) {
	rows := []Entry{}
	err := s.db.SelectContext(ctx, &rows, `SELECT last.* FROM saws w, unnest(ARRAY[`+ofSaws+`]) k, LATERAL (
		SELECT l.id, l.shop_id, l.at, l.kind, l.blade_id, l.saw_id, l.by_name, l.note, l.detail FROM log l
		WHERE l.shop_id = $1 AND l.saw_id = w.id AND l.kind = k AND l.kind IN (`+ofSaws+`)`+stands+`
		ORDER BY l.at DESC, l.id DESC LIMIT 1) last WHERE w.shop_id = $1 ORDER BY last.saw_id, last.kind`, shop)
	return rows, err
}

// Wobbles finds the last readings of blades on one saw. Clearance that was measured
// before a sharpening doesn't count.
func (s *Store) Wobbles(ctx context.Context, shop, saw uuid.UUID) (map[uuid.UUID]Wobble, error) {
	all, err := s.wobbles(ctx, shop, saw)
	return all[saw], err
}

// wobbles are those on several saws.
func (s *Store) wobbles(ctx context.Context, shop uuid.UUID, saws ...uuid.UUID) (map[uuid.UUID]map[uuid.UUID]Wobble, error) {
	var rows []struct {
		Blade  uuid.UUID  `db:"blade_id"`
		Saw    *uuid.UUID `db:"on_saw"` // of a run-out
		At     time.Time  `db:"at"`
		Figure *float64   `db:"figure"`
	}
	err := s.db.SelectContext(ctx, &rows, `SELECT DISTINCT ON (l.blade_id, on_saw) l.blade_id, l.at, `+number("l.detail", "figure")+` AS figure,
			CASE l.kind WHEN 'runout' THEN l.saw_id END AS on_saw
		FROM log l WHERE l.shop_id = $1 AND l.blade_id IS NOT NULL AND (l.kind = 'clearance' OR l.kind = 'runout' AND l.saw_id = ANY($2))`+stands+`
		AND NOT EXISTS (SELECT 1 FROM log s WHERE s.shop_id = l.shop_id AND s.blade_id = l.blade_id AND s.kind = 'sharpened' AND s.at > l.at AND l.kind = 'clearance')
		ORDER BY l.blade_id, on_saw, l.at DESC, l.id DESC`, shop, saws)
	if err != nil {
		return nil, err
	}
	out := make(map[uuid.UUID]map[uuid.UUID]Wobble, len(saws))
	for _, saw := range saws {
		of := map[uuid.UUID]Wobble{}
		for _, r := range rows {
			w := of[r.Blade]
			switch {
			case r.Figure == nil: // what was measured cannot be read
				continue
			case r.Saw == nil:
				w.Spread, w.SpreadAt = *r.Figure, r.At
			case *r.Saw == saw:
				w.RunOut, w.RunOutAt = *r.Figure, r.At
			default:
				continue
			}
			of[r.Blade] = w
		}
		out[saw] = of
	}
	return out, nil
}

// Since is the time of the first row of a blade's log; zero if there is none.
func (s *Store) Since(ctx context.Context, shop, blade uuid.UUID) (time.Time, error) {
	var at *time.Time
	err := s.db.GetContext(ctx, &at, `SELECT min(at) FROM log WHERE shop_id = $1 AND blade_id = $2`, shop, blade)
	if err != nil || at == nil {
		return time.Time{}, err
	}
	return *at, nil
}

// LastUse is when a blade was last used or mounted, and whether it was
// sharpened since; zero where its log has nothing of it.
func (s *Store) LastUse(ctx context.Context, shop, blade uuid.UUID) (at time.Time, sharpenedSince bool, err error) {
	var row struct {
		Used  *time.Time `db:"used"`
		Sharp *time.Time `db:"sharp"`
	}
	err = s.db.GetContext(ctx, &row, `SELECT max(at) FILTER (WHERE kind IN ('cut', 'mounted')) AS used,
		max(at) FILTER (WHERE kind = 'sharpened') AS sharp FROM log l WHERE shop_id = $1 AND blade_id = $2`+stands, shop, blade)
	if err != nil || row.Used == nil {
		return time.Time{}, row.Sharp != nil, err
	}
	return *row.Used, row.Sharp != nil && row.Sharp.After(*row.Used), nil
}

// RowsAt counts the rows that stand in the log at any of the times, by place.
func (s *Store) RowsAt(ctx context.Context, shop uuid.UUID, at []time.Time) (map[string]int, error) {
	var rows []Entry
	if err := s.db.SelectContext(ctx, &rows, `SELECT l.at, l.kind, l.blade_id, l.saw_id FROM log l WHERE l.shop_id = $1 AND l.at = ANY($2)`+stands, shop, at); err != nil {
		return nil, err
	}
	out := make(map[string]int, len(rows))
	for _, e := range rows {
		out[PlaceOf(e)]++
	}
	return out, nil
}

// PlaceOf tells rows of the log apart by what they are about and when.
func PlaceOf(e Entry) string {
	id := func(u *uuid.UUID) string {
		if u == nil {
			return "-"
		}
		return u.String()
	}
	return e.At.UTC().Format(time.RFC3339Nano) + string(e.Kind) + id(e.Blade) + id(e.Saw)
}

// AddOld adds rows from before, all or none, and folds the blades that they are
// about anew. It says how many it has added so far, where anybody asks.
func (s *Store) AddOld(ctx context.Context, shop uuid.UUID, rows []Entry, said func(done int)) error {
	return s.Atomically(ctx, func(tx *Store) error {
		blades, materials := map[uuid.UUID]bool{}, map[string]bool{}
		for _, e := range rows {
			if e.Blade != nil {
				blades[*e.Blade] = true
			}
			var d history.Cut
			if e.Kind == history.KindCut && json.Unmarshal(e.Detail, &d) == nil && d.Foretold != nil {
				materials[d.Material] = true
			}
		}
		// Blades are locked in one order, so that two imports cannot wait for each other.
		ids := slices.SortedFunc(maps.Keys(blades), func(a, b uuid.UUID) int { return bytes.Compare(a[:], b[:]) })
		for _, id := range ids {
			if _, err := tx.lock(ctx, shop, id); err != nil {
				return err
			}
		}
		done := 0
		for part := range slices.Chunk(rows, 2000) {
			if said != nil {
				said(done)
			}
			done += len(part)
			if _, err := tx.db.NamedExecContext(ctx, `INSERT INTO log (shop_id, at, kind, blade_id, saw_id, by_name, note, detail)
				VALUES (:shop_id, :at, :kind, :blade_id, :saw_id, :by_name, :note, :detail)`, part); err != nil {
				return err
			}
		}
		for _, id := range ids {
			b, err := tx.Blade(ctx, shop, id)
			if err != nil {
				return err
			}
			if err := tx.refold(ctx, shop, b); err != nil {
				return err
			}
			if b.Set == nil {
				continue
			}
			if err := tx.refoldHeld(ctx, shop, id, *b.Set); err != nil {
				return err
			}
		}
		for m := range materials {
			if err := tx.Learn(ctx, shop, m); err != nil {
				return err
			}
		}
		return nil
	})
}
