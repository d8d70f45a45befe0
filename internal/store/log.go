package store

import (
	"bytes"
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"time"

	"github.com/google/uuid"

	"corte/core/care"
)

// A Kind says what a log row records.
type Kind string

const (
	KindCut       Kind = "cut"
	KindMounted   Kind = "mounted"
	KindWashed    Kind = "washed"
	KindSharpened Kind = "sharpened"
	KindHeel      Kind = "heel"
	KindRetired   Kind = "retired"
	KindRestored  Kind = "restored"

	KindDismounted Kind = "dismounted"
	KindMoved      Kind = "moved" // a saw, or bumped
	KindFence      Kind = "fence"
	KindRunOut     Kind = "runout"
	KindTilt       Kind = "tilt"
	KindGauge      Kind = "gauge"
	KindClearance  Kind = "clearance"
)

// An Entry is one row of the log. Detail holds what belongs to its kind alone:
// a CutDetail for a cut, a HeelDetail for a heel reading.
type Entry struct {
	ID      int64           `db:"id"`
	Shop    uuid.UUID       `db:"shop_id"`
	At      time.Time       `db:"at"`
	Kind    Kind            `db:"kind"`
	Blade   *uuid.UUID      `db:"blade_id"`
	Saw     *uuid.UUID      `db:"saw_id"`
	SawName *string         `db:"saw_name"` // on reading
	By      string          `db:"by_name"`
	Note    string          `db:"note"`
	Detail  json.RawMessage `db:"detail"`
}

// A CutDetail is what a log row keeps of a cut.
type CutDetail struct {
	Material  string  `json:"material"`
	Direction string  `json:"direction"`
	Motion    string  `json:"motion"`
	Finish    string  `json:"finish"`
	Thickness float64 `json:"thickness_mm"`
	Width     float64 `json:"width_mm"`
	Length    float64 `json:"length_mm"`
	Height    float64 `json:"height_mm,omitempty"`
	Pieces    int     `json:"pieces"`
	Exit      string  `json:"exit_support"`
	Other     string  `json:"other_support"`
	Feed      float64 `json:"feed_m_min,omitempty"`
	Wall      string  `json:"wall"`
	Splinters string  `json:"splinters"`

	Form      string  `json:"form,omitempty"` // through where it is not said
	Depth     float64 `json:"depth_mm,omitempty"`
	Bevel     float64 `json:"bevel_deg,omitempty"`
	Miter     float64 `json:"miter_deg,omitempty"`
	BothFaces bool    `json:"both_faces,omitempty"`
}

// A RetiredDetail is what a log row keeps of a blade or saw taken out of use.
type RetiredDetail struct {
	Reason string `json:"reason"`
}

// A TruingDetail is what a log row keeps of a truing: the figure that it came
// to, and everything that was read.
type TruingDetail struct {
	Figure  float64         `json:"figure"`
	Unit    string          `json:"figure_unit"` // mm or deg
	Verdict string          `json:"verdict"`
	Input   json.RawMessage `json:"input,omitempty"`

	Heel *float64 `json:"heel_mm,omitempty"` // toward the fence
	Open *float64 `json:"open_mm,omitempty"` // of the fence at the rear
}

type conditionRow struct {
	Wear        float64 `db:"wear_m2"`
	Resin       float64 `db:"resin_m2"`
	Metres      float64 `db:"metres"`
	Sharp       float64 `db:"metres_sharp"`
	Washed      float64 `db:"metres_washed"`
	Cuts        int     `db:"cuts"`
	Washes      int     `db:"washes"`
	Sharpenings int     `db:"sharpenings"`
}

func (r conditionRow) condition() care.Condition {
	return care.Condition{
		WearM2: r.Wear, ResinM2: r.Resin, Metres: r.Metres, MetresSharp: r.Sharp, MetresWashed: r.Washed,
		Cuts: r.Cuts, Washes: r.Washes, Sharpenings: r.Sharpenings,
	}
}

// ErrKeyReused is returned where an idempotency key comes again with other
// content.
var ErrKeyReused = errors.New("idempotency key reused")

// An IdempotencyKey ties a creating call to its content. The zero key ties
// nothing: the row is simply added.
type IdempotencyKey struct {
	Key     string
	Content []byte // a digest of what was sent
}

// A Made names what was made under a key: a row of the log, or of the rack.
type Made struct {
	LogID *int64     `db:"log_id"`
	RowID *uuid.UUID `db:"made_id"`
}

// Once makes something under a key, all of it or nothing, and reports what. A
// retry with the same key and content reports what was made first and makes
// nothing.
func (s *Store) Once(ctx context.Context, shop uuid.UUID, key IdempotencyKey, create func(*Store) (Made, error)) (Made, error) {
	var out Made
	err := s.Atomically(ctx, func(tx *Store) (err error) {
		if key.Key == "" {
			out, err = create(tx)
			return err
		}
		// Serialises retries of one key, so that two at once cannot both make.
		if _, err := tx.db.ExecContext(ctx, `SELECT pg_advisory_xact_lock(hashtextextended($1, 0))`, shop.String()+key.Key); err != nil {
			return err
		}
		var seen struct {
			Request []byte `db:"request"`
			Made
		}
		err = tx.db.GetContext(ctx, &seen, `SELECT request, log_id, made_id FROM idempotency WHERE shop_id = $1 AND key = $2`, shop, key.Key)
		switch {
		case err == nil && !bytes.Equal(seen.Request, key.Content):
			return ErrKeyReused
		case err == nil:
			out = seen.Made
			return nil
		case !errors.Is(err, sql.ErrNoRows):
			return err
		}
		if out, err = create(tx); err != nil {
			return err
		}
		_, err = tx.db.ExecContext(ctx, `INSERT INTO idempotency (shop_id, key, request, log_id, made_id) VALUES ($1, $2, $3, $4, $5)`,
			shop, key.Key, key.Content, out.LogID, out.RowID)
		return err
	})
	return out, err
}

// Append adds a row to the log, once for its key, and in the same transaction
// brings the blade's snapshot up to date by fold, which is given the blade as
// it was.
func (s *Store) Append(ctx context.Context, key IdempotencyKey, e Entry, fold func(Blade) care.Condition) (Entry, error) {
	made, err := s.Once(ctx, e.Shop, key, func(tx *Store) (Made, error) {
		row, err := tx.add(ctx, e, fold)
		return Made{LogID: &row.ID}, err
	})
	if err != nil {
		return Entry{}, err
	}
	return s.entry(ctx, e.Shop, *made.LogID)
}

func (s *Store) add(ctx context.Context, e Entry, fold func(Blade) care.Condition) (Entry, error) {
	if e.Detail == nil {
		e.Detail = json.RawMessage(`{}`)
	}
	var b Blade
	if e.Blade != nil {
		// The lock comes in a statement of its own: one that waits for it still
		// sees the snapshot from before the wait, and would fold from that.
		if _, err := s.db.ExecContext(ctx, `SELECT 1 FROM blades WHERE id = $1 FOR UPDATE`, e.Blade); err != nil {
			return Entry{}, err
		}
		var err error
		if b, err = s.Blade(ctx, e.Shop, *e.Blade); err != nil {
			return Entry{}, err
		}
	}
	var id int64
	if err := s.db.GetContext(ctx, &id, `INSERT INTO log (shop_id, at, kind, blade_id, saw_id, by_name, note, detail)
		VALUES ($1, $2, $3, $4, $5, $6, $7, $8) RETURNING id`,
		e.Shop, e.At, e.Kind, e.Blade, e.Saw, e.By, e.Note, e.Detail); err != nil {
		return Entry{}, err
	}
	if e.Blade != nil && fold != nil {
		if err := s.saveCondition(ctx, *e.Blade, id, fold(b)); err != nil {
			return Entry{}, err
		}
	}
	return s.entry(ctx, e.Shop, id)
}

func (s *Store) saveCondition(ctx context.Context, blade uuid.UUID, logID int64, c care.Condition) error {
	_, err := s.db.ExecContext(ctx, `INSERT INTO conditions (blade_id, log_id, wear_m2, resin_m2, metres, metres_sharp,
		metres_washed, cuts, washes, sharpenings) VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)
		ON CONFLICT (blade_id) DO UPDATE SET log_id = $2, wear_m2 = $3, resin_m2 = $4, metres = $5, metres_sharp = $6,
		metres_washed = $7, cuts = $8, washes = $9, sharpenings = $10`,
		blade, logID, c.WearM2, c.ResinM2, c.Metres, c.MetresSharp, c.MetresWashed, c.Cuts, c.Washes, c.Sharpenings)
	return err
}

func (s *Store) entry(ctx context.Context, shop uuid.UUID, id int64) (Entry, error) {
	var e Entry
	err := s.db.GetContext(ctx, &e, selectLog+` AND l.id = $2`, shop, id)
	return e, noneIfNoRows(err)
}

const selectLog = `
SELECT l.id, l.shop_id, l.at, l.kind, l.blade_id, l.saw_id, s.name AS saw_name, l.by_name, l.note, l.detail
FROM log l LEFT JOIN saws s ON s.id = l.saw_id WHERE l.shop_id = $1`

// SawLog lists at most limit rows of a saw's log, newest first.
func (s *Store) SawLog(ctx context.Context, shop, saw uuid.UUID, limit int) ([]Entry, error) {
	rows := []Entry{}
	err := s.db.SelectContext(ctx, &rows, selectLog+` AND l.saw_id = $2 ORDER BY l.id DESC LIMIT $3`, shop, saw, limit)
	return rows, err
}

// Truings lists at most limit truings, newest first, of a saw or a blade (nil
// for any) and of one test (empty for all).
func (s *Store) Truings(ctx context.Context, shop uuid.UUID, saw, blade *uuid.UUID, test string, limit int) ([]Entry, error) {
	rows := []Entry{}
	err := s.db.SelectContext(ctx, &rows, selectLog+`
		AND l.kind IN ('heel', 'fence', 'runout', 'tilt', 'gauge', 'clearance')
		AND ($2::uuid IS NULL OR l.saw_id = $2) AND ($3::uuid IS NULL OR l.blade_id = $3) AND ($4 = '' OR l.kind = $4)
		ORDER BY l.id DESC LIMIT $5`, shop, saw, blade, test, limit)
	return rows, err
}

// Stands lists the last truing of each test of every saw, and when each saw
// was last moved.
func (s *Store) Stands(ctx context.Context, shop uuid.UUID) ([]Entry, error) {
	rows := []Entry{}
	err := s.db.SelectContext(ctx, &rows, `SELECT DISTINCT ON (l.saw_id, l.kind) l.id, l.shop_id, l.at, l.kind, l.blade_id, l.saw_id,
		NULL AS saw_name, l.by_name, l.note, l.detail FROM log l
		WHERE l.shop_id = $1 AND l.saw_id IS NOT NULL AND l.kind IN ('heel', 'fence', 'runout', 'tilt', 'gauge', 'moved')
		ORDER BY l.saw_id, l.kind, l.id DESC`, shop)
	return rows, err
}

// LastUse is when a blade was last used or mounted, and whether it was
// sharpened since; zero where its log has nothing of it.
func (s *Store) LastUse(ctx context.Context, shop, blade uuid.UUID) (at time.Time, sharpenedSince bool, err error) {
	var row struct {
		Used  *time.Time `db:"used"`
		Sharp *time.Time `db:"sharp"`
	}
	err = s.db.GetContext(ctx, &row, `SELECT max(at) FILTER (WHERE kind IN ('cut', 'mounted')) AS used,
		max(at) FILTER (WHERE kind = 'sharpened') AS sharp FROM log WHERE shop_id = $1 AND blade_id = $2`, shop, blade)
	if err != nil || row.Used == nil {
		return time.Time{}, row.Sharp != nil, err
	}
	return *row.Used, row.Sharp != nil && row.Sharp.After(*row.Used), nil
}

// BladeLog lists at most limit rows of a blade's log, newest first, that come
// before the row before, or from the newest on where that is 0.
func (s *Store) BladeLog(ctx context.Context, shop, blade uuid.UUID, before int64, limit int) ([]Entry, error) {
	rows := []Entry{}
	err := s.db.SelectContext(ctx, &rows, selectLog+` AND l.blade_id = $2 AND ($3 = 0 OR l.id < $3)
		ORDER BY l.id DESC LIMIT $4`, shop, blade, before, limit)
	return rows, err
}
