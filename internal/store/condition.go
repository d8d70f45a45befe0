package store

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"math"
	"slices"

	"github.com/google/uuid"

	"corte/core/care"
	"corte/core/cut"
	"corte/core/history"
	"corte/core/learn"
	"corte/core/outcome"
	"corte/internal/record"
)

// names lists kinds as text for SQL.
func names(kinds []history.Kind) []string {
	out := make([]string, len(kinds))
	for i, k := range kinds {
		out[i] = string(k)
	}
	return out
}

func (e Entry) row() history.Row { return history.Row{At: e.At, Kind: e.Kind, Detail: e.Detail} }

// folded reads the rows of some kinds of a blade's log that stand, in their order.
func (s *Store) folded(ctx context.Context, shop, blade uuid.UUID, kinds []history.Kind) ([]history.Row, error) {
	var entries []Entry
	err := s.db.SelectContext(ctx, &entries, `SELECT l.id, l.at, l.kind, l.detail FROM log l
		WHERE l.shop_id = $1 AND l.blade_id = $2 AND l.kind = ANY($3)`+stands+` ORDER BY l.at, l.id`, shop, blade, names(kinds))
	rows := make([]history.Row, len(entries))
	for i, e := range entries {
		rows[i] = e.row()
	}
	return rows, err
}

// unread logs the rows that a fold had to leave out.
func unread(err error, blade uuid.UUID) {
	if err != nil {
		slog.Warn("rows of a blade's log cannot be read and are left out of its condition", "blade", blade, "why", err)
	}
}

// isLate reports whether a row that was just added isn't the newest of its blade's
// log, or strikes another row. Then the whole log is folded anew.
func (s *Store) isLate(ctx context.Context, e Entry) (late bool, err error) {
	if e.Kind == history.KindStruck {
		return true, nil
	}
	err = s.db.GetContext(ctx, &late, `SELECT EXISTS (SELECT 1 FROM log WHERE shop_id = $1 AND blade_id = $2 AND at > $3)`, e.Shop, *e.Blade, e.At)
	return late, err
}

// keepCondition updates a blade's snapshot after a row was added to its log.
func (s *Store) keepCondition(ctx context.Context, b Blade, e Entry, late bool) error {
	switch {
	case !slices.Contains(history.ConditionKinds, e.Kind) && e.Kind != history.KindStruck:
		return nil
	case late:
		return s.refold(ctx, e.Shop, b)
	}
	c, err := history.Condition(b.Blade, b.Condition, e.row())
	unread(err, b.ID)
	return s.saveCondition(ctx, e.Shop, b.ID, c)
}

func (s *Store) saveCondition(ctx context.Context, shop, blade uuid.UUID, c care.Condition) error {
	raw, err := writeCondition(c)
	if err != nil {
		return err
	}
	_, err = s.db.ExecContext(ctx, `INSERT INTO conditions (shop_id, blade_id, fold, condition) VALUES ($1, $2, $3, $4)
		ON CONFLICT (shop_id, blade_id) DO UPDATE SET fold = $3, condition = $4`, shop, blade, history.ConditionFold, raw)
	return err
}

// Events are the rows of a blade's log that change its condition, in their order.
func (s *Store) Events(ctx context.Context, shop, blade uuid.UUID) ([]care.Event, error) {
	rows, err := s.folded(ctx, shop, blade, history.ConditionKinds)
	events, left := history.Events(rows)
	unread(left, blade)
	return events, err
}

// fold folds the whole log of a blade.
func (s *Store) fold(ctx context.Context, shop uuid.UUID, b Blade) (care.Condition, error) {
	rows, err := s.folded(ctx, shop, b.ID, history.ConditionKinds)
	c, left := history.Condition(b.Blade, care.Condition{}, rows...)
	unread(left, b.ID)
	return c, err
}

func (s *Store) refold(ctx context.Context, shop uuid.UUID, b Blade) error {
	c, err := s.fold(ctx, shop, b)
	if err != nil {
		return err
	}
	return s.saveCondition(ctx, shop, b.ID, c)
}

// A Drift is a snapshot that differs from the fold of its log.
type Drift struct {
	Blade        string
	Kept, Folded care.Condition
	Parts        bool // of its dado set are not held to be what the log says
}

// Conditions folds every blade of every shop anew and reports the snapshots
// that differ. Where mend is set it writes what the log adds up to.
func (s *Store) Conditions(ctx context.Context, mend bool) (blades int, drifts []Drift, err error) {
	var ids []struct {
		ID   uuid.UUID `db:"id"`
		Shop uuid.UUID `db:"shop_id"`
	}
	if err := s.db.SelectContext(ctx, &ids, `SELECT id, shop_id FROM blades ORDER BY shop_id, name, id`); err != nil {
		return 0, nil, err
	}
	for _, row := range ids {
		err := s.Atomically(ctx, func(tx *Store) error {
			b, err := tx.lock(ctx, row.Shop, row.ID)
			if err != nil {
				return err
			}
			blades++
			c, err := tx.fold(ctx, row.Shop, b)
			if err != nil {
				return err
			}
			drift := Drift{b.Name, b.Condition, c, false}
			if b.Set != nil {
				if drift.Parts, err = tx.heldDrifts(ctx, row.Shop, b.ID, mend); err != nil {
					return err
				}
			}
			if drift.Parts || !same(c, b.Condition) {
				drifts = append(drifts, drift)
			}
			if mend { // also what is the same: it is of this fold now
				return tx.saveCondition(ctx, row.Shop, b.ID, c)
			}
			return nil
		})
		var damaged *record.DamagedError
		if errors.As(err, &damaged) { // it costs that blade, and no other
			slog.Warn("a blade is left out: its row is damaged; an owner can repair it", "shop", row.Shop, "blade", row.ID, "why", damaged.Why)
			continue
		}
		if err != nil {
			return 0, nil, fmt.Errorf("blade %s: %w", row.ID, err)
		}
	}
	return blades, drifts, nil
}

// same compares conditions in their stored form, where a time has no zone.
func same(a, b care.Condition) bool {
	x, err := writeCondition(a)
	y, err2 := writeCondition(b)
	return err == nil && err2 == nil && bytes.Equal(x, y)
}

// FoldNew folds the blades whose snapshot is missing or of an older fold.
func (s *Store) FoldNew(ctx context.Context) error {
	var stale bool
	err := s.db.GetContext(ctx, &stale, `SELECT EXISTS (SELECT 1 FROM blades b LEFT JOIN conditions c ON c.shop_id = b.shop_id AND c.blade_id = b.id
		WHERE (c.fold IS NULL OR c.fold <> $1 OR c.unfit IS NULL) AND EXISTS (SELECT 1 FROM log l WHERE l.shop_id = b.shop_id AND l.blade_id = b.id AND l.kind = ANY($2)))`, history.ConditionFold, names(history.ConditionKinds))
	if err != nil || !stale {
		return err
	}
	_, _, err = s.Conditions(ctx, true)
	return err
}

// FoldShop folds every blade of a shop anew and works out its corrections anew. It
// runs after rows came from a file, whose own sums are not trusted.
func (s *Store) FoldShop(ctx context.Context, shop uuid.UUID) error {
	var ids []uuid.UUID
	if err := s.db.SelectContext(ctx, &ids, `SELECT id FROM blades b WHERE shop_id = $1 AND (EXISTS (SELECT 1 FROM conditions c WHERE c.shop_id = b.shop_id AND c.blade_id = b.id)
		OR EXISTS (SELECT 1 FROM log l WHERE l.shop_id = b.shop_id AND l.blade_id = b.id AND l.kind = ANY($2))) ORDER BY id`, shop, names(history.ConditionKinds)); err != nil {
		return err
	}
	for _, id := range ids {
		b, err := s.lock(ctx, shop, id)
		var damaged *record.DamagedError
		if errors.As(err, &damaged) {
			continue // it came as it was, by who has the machine
		}
		if err == nil {
			err = s.refold(ctx, shop, b)
		}
		if err == nil && b.Set != nil {
			err = s.refoldHeld(ctx, shop, id, *b.Set)
		}
		if err != nil {
			return err
		}
	}
	var taught []string
	if err := s.db.SelectContext(ctx, &taught, `SELECT material FROM corrections WHERE shop_id = $1 ORDER BY material`, shop); err != nil {
		return err
	}
	for _, m := range taught {
		if err := s.Learn(ctx, shop, m); err != nil {
			return err
		}
	}
	return nil
}

type lessonRow struct {
	Material string  `db:"material"`
	Scorch   float64 `db:"ln_scorch"`
	Splinter float64 `db:"ln_splinter"`
	SDScorch float64 `db:"sd_scorch"`
	SDSplit  float64 `db:"sd_splinter"`
	Cuts     int     `db:"cuts"`
}

// mostLearned bounds a stored correction, in ln: a factor of 22,000, far more than
// cuts can teach.
const mostLearned = 10

func (r lessonRow) lesson() (Lesson, error) {
	for _, v := range []float64{r.Scorch, r.Splinter, r.SDScorch, r.SDSplit} {
		if !(math.Abs(v) <= mostLearned) {
			return Lesson{}, &record.DamagedError{Table: "corrections", ID: r.Material, Why: fmt.Errorf("%g is more than cuts can teach", v)}
		}
	}
	return Lesson{Material: r.Material, Correction: learn.Correction{LnScorch: r.Scorch, LnSplinter: r.Splinter, SDScorch: r.SDScorch, SDSplinter: r.SDSplit, Cuts: r.Cuts}}, nil
}

// Lessons lists the corrections by material, or that of one material.
func (s *Store) Lessons(ctx context.Context, shop uuid.UUID, material string) ([]Lesson, error) {
	var rows []lessonRow
	if err := s.db.SelectContext(ctx, &rows, `SELECT material, ln_scorch, ln_splinter, sd_scorch, sd_splinter, cuts FROM corrections
		WHERE shop_id = $1 AND ($2 = '' OR material = $2) ORDER BY material`, shop, material); err != nil {
		return nil, err
	}
	return record.Readable(rows, lessonRow.lesson)
}

// taughtBy is the number of newest cuts of a material that count: wood bought years
// ago says little of today's.
const taughtBy = 300

// A taughtRow is what of a cut teaches: a row is a kilobyte, and this is asked
// for every time that a cut is logged. What another edition foretold comes
// whole, to be worked anew.
type taughtRow struct {
	Wall      outcome.Wall `db:"wall"`
	Splinters outcome.Face `db:"splinters"`
	OtherCame outcome.Face `db:"other_splinters"`
	Heat      float64      `db:"heat"`
	Exit      float64      `db:"exit"`
	Other     *float64     `db:"other"`
	Whole     []byte       `db:"whole"` // JSON; nil where this edition foretold it
}

const selectTaught = `
SELECT coalesce(t.wall, '') AS wall, coalesce(t.splinters, '') AS splinters, coalesce(t.other_splinters, '') AS other_splinters, coalesce(f.heat, 0) AS heat, coalesce(f.exit, 0) AS exit, f.other,
       CASE WHEN f.edition = $4 THEN NULL ELSE l.detail END AS whole
FROM log l, jsonb_to_record(l.detail) AS t(wall text, splinters text, other_splinters text, foretold jsonb),
     jsonb_to_record(t.foretold) AS f(edition integer, heat double precision, exit double precision, other double precision)
WHERE l.shop_id = $1 AND l.kind = 'cut' AND l.detail->>'material' = $2` + stands + ` ORDER BY l.at DESC, l.id DESC LIMIT $3`

// lesson is false where a row teaches nothing.
func (r taughtRow) lesson() (learn.Cut, bool) {
	c := history.Cut{Wall: r.Wall, Splinters: r.Splinters, OtherSplinters: r.OtherCame,
		Foretold: &history.Foretold{Edition: cut.Edition, Heat: r.Heat, Exit: r.Exit, Other: r.Other}}
	if r.Whole != nil {
		c = history.Cut{}
		if json.Unmarshal(r.Whole, &c) != nil {
			return learn.Cut{}, false
		}
	}
	return c.Lesson()
}

// Learn updates the correction of a material from its cuts. It runs last in its
// transaction and takes a lock of the material, so that of two transactions that log
// a cut of it the second sees the first one's rows.
func (s *Store) Learn(ctx context.Context, shop uuid.UUID, material string) error {
	if _, err := s.db.ExecContext(ctx, `SELECT pg_advisory_xact_lock(hashtextextended($1, 1))`, shop.String()+material); err != nil {
		return err
	}
	var rows []taughtRow
	if err := s.db.SelectContext(ctx, &rows, selectTaught, shop, material, taughtBy, cut.Edition); err != nil {
		return err
	}
	var cuts []learn.Cut
	for _, r := range rows {
		if c, teaches := r.lesson(); teaches {
			cuts = append(cuts, c)
		}
	}
	c := learn.From(cuts)
	_, err := s.db.ExecContext(ctx, `INSERT INTO corrections (shop_id, material, ln_scorch, ln_splinter, sd_scorch, sd_splinter, cuts, edition)
		VALUES ($1, $2, $3, $4, $5, $6, $7, $8) ON CONFLICT (shop_id, material) DO UPDATE
		SET ln_scorch = $3, ln_splinter = $4, sd_scorch = $5, sd_splinter = $6, cuts = $7, edition = $8`,
		shop, material, c.LnScorch, c.LnSplinter, c.SDScorch, c.SDSplinter, c.Cuts, cut.Edition)
	return err
}

// LearnNew recomputes the corrections that another edition of the model computed.
func (s *Store) LearnNew(ctx context.Context) error {
	var old []struct {
		Shop     uuid.UUID `db:"shop_id"`
		Material string    `db:"material"`
	}
	if err := s.db.SelectContext(ctx, &old, `SELECT shop_id, material FROM corrections WHERE edition <> $1 ORDER BY shop_id, material`, cut.Edition); err != nil {
		return err
	}
	for _, o := range old {
		if err := s.Learn(ctx, o.Shop, o.Material); err != nil {
			return err
		}
	}
	return nil
}
