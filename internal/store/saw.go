package store

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5/pgtype"

	"corte/core/choose"
	"corte/core/measure"
	"corte/core/saw"
	"corte/internal/record"
)

type sawRow struct {
	ID   uuid.UUID `db:"id"`
	Shop uuid.UUID `db:"shop_id"`
	sawFields
	Bushings   lengths         `db:"bushings_mm"`
	MinKerf    *measure.Length `db:"brake_min_kerf_mm"`
	MaxKerf    *measure.Length `db:"brake_max_kerf_mm"`
	MinDiam    *measure.Length `db:"brake_min_diameter_mm"`
	MaxDiam    *measure.Length `db:"brake_max_diameter_mm"`
	Tolerances string          `db:"tolerances"` // JSON; empty for the usual ones
	Heel       *measure.Length `db:"heel_mm"`
	HeelAt     *time.Time      `db:"heel_at"`
	Mounted    *uuid.UUID      `db:"mounted"`
	Change     float64         `db:"change_minutes"`
	School     string          `db:"height_school"`
	Learning   bool            `db:"learning"`
	Version    int             `db:"version"`
	Rework     float64         `db:"rework"`
	Zone       string          `db:"time_zone"`
	HeardRPM   float64         `db:"heard_rpm"`
	Open       *measure.Length `db:"open_mm"`
	OpenAt     *time.Time      `db:"open_at"`
	TiltOff    *float64        `db:"tilt_off"`
	GaugeOff   *float64        `db:"gauge_off"`
	RunOut     *measure.Length `db:"runout_mm"`
	retiredRow
}

// allSawColumns are what a saw's row is written with.
var allSawColumns = slices.Concat(sawColumns, columns{"bushings_mm", "brake_min_kerf_mm", "brake_max_kerf_mm", "brake_min_diameter_mm", "brake_max_diameter_mm", "tolerances"})

// lengths is an array column.
type lengths []float64

// Scan reads PostgreSQL's array text.
func (l *lengths) Scan(v any) error { return pgtype.NewMap().SQLScanner((*[]float64)(l)).Scan(v) }

// saw reads a row. The error is a *record.DamagedError.
func (r sawRow) saw() (Saw, error) {
	w, err := r.numbers()
	if err != nil {
		return Saw{}, &record.DamagedError{Table: "saws", ID: r.ID.String(), Why: err}
	}
	return w, nil
}

func (r sawRow) numbers() (Saw, error) {
	w := Saw{ID: r.ID, HeelAt: r.HeelAt, Mounted: r.Mounted, ChangeMinutes: r.Change, Learning: r.Learning, Rework: r.Rework, Zone: r.Zone,
		TiltOff: r.TiltOff, GaugeOff: r.GaugeOff, RunOut: r.RunOut, HeardRPM: r.HeardRPM, Version: r.Version, Retired: r.retired()}
	by := append([]float64{r.HeardRPM}, r.Bushings...)
	for _, l := range []*measure.Length{r.MinKerf, r.MaxKerf, r.MinDiam, r.MaxDiam} {
		if l != nil {
			by = append(by, l.Mm())
		}
	}
	err := errors.Join(r.read(&w), figures(by...))
	switch {
	case err != nil:
		return Saw{}, err
	case w.Diameter <= 0 || w.Arbor <= 0 || w.RPM <= 0 || w.MotorW <= 0 || w.Reach <= 0:
		return Saw{}, errors.New("diameter, arbor, speed, motor and reach must be greater than 0")
	}
	if w.School, err = choose.ParseSchool(r.School); err != nil {
		return Saw{}, err
	}
	if r.Tolerances != "" {
		held, err := readTolerances([]byte(r.Tolerances))
		if err != nil {
			return Saw{}, fmt.Errorf("its tolerances: %w", err)
		}
		w.Tolerances = &held
	}
	if r.Open != nil {
		w.FenceOpen, w.FenceAt = *r.Open, r.OpenAt
	}
	for _, b := range r.Bushings {
		w.Bushings = append(w.Bushings, measure.Length(b))
	}
	if r.MinKerf != nil {
		w.Brake = &saw.Brake{MinKerf: *r.MinKerf, MaxKerf: *r.MaxKerf, MinDiameter: *r.MinDiam, MaxDiameter: *r.MaxDiam}
	}
	if r.Heel != nil {
		w.Heel = *r.Heel
	}
	return w, nil
}

// onSaw tells which blade is on which saw: the one that was last mounted on it
// or cut with and not taken off, unless it has since been used on another saw.
const onSaw = `
WITH on_saw AS MATERIALIZED (
    SELECT DISTINCT ON (last.blade_id) last.blade_id, s.id AS saw_id
    FROM saws s, LATERAL (
        SELECT l.id, l.at, l.blade_id, l.kind FROM log l WHERE l.shop_id = s.shop_id AND l.saw_id = s.id AND l.kind IN ('mounted', 'dismounted', 'cut')
        AND NOT EXISTS (SELECT 1 FROM log x WHERE x.shop_id = l.shop_id AND x.strikes = l.id) ORDER BY l.at DESC, l.id DESC LIMIT 1
    ) last
    WHERE s.shop_id = $1 AND last.kind <> 'dismounted' ORDER BY last.blade_id, last.at DESC, last.id DESC
)`

var selectSaws = onSaw + `
SELECT s.id, s.shop_id, s.version, s.heard_rpm, s.retired_at, s.retired_reason, s.retired_note, ` + allSawColumns.of("s") + `,
       on_saw.blade_id AS mounted, h.mm AS heel_mm, h.at AS heel_at, f.mm AS open_mm, f.at AS open_at,
       t.figure AS tilt_off, g.figure AS gauge_off, o.figure AS runout_mm,
       shop.change_minutes, shop.height_school, shop.learning, shop.rework, shop.time_zone
FROM saws s
JOIN shops shop ON shop.id = s.shop_id
LEFT JOIN on_saw ON on_saw.saw_id = s.id
LEFT JOIN LATERAL (SELECT ` + number("detail", "heel_mm") + ` AS mm, at FROM log l WHERE shop_id = s.shop_id AND saw_id = s.id AND kind = 'heel'` + stands + ` ORDER BY at DESC, id DESC LIMIT 1) h ON true
LEFT JOIN LATERAL (SELECT ` + number("detail", "open_mm") + ` AS mm, at FROM log l WHERE shop_id = s.shop_id AND saw_id = s.id AND kind = 'fence'` + stands + ` ORDER BY at DESC, id DESC LIMIT 1) f ON true
LEFT JOIN LATERAL (SELECT ` + number("detail", "figure") + ` AS figure FROM log l WHERE shop_id = s.shop_id AND saw_id = s.id AND kind = 'tilt'` + stands + ` ORDER BY at DESC, id DESC LIMIT 1) t ON true
LEFT JOIN LATERAL (SELECT ` + number("detail", "figure") + ` AS figure FROM log l WHERE shop_id = s.shop_id AND saw_id = s.id AND kind = 'gauge'` + stands + ` ORDER BY at DESC, id DESC LIMIT 1) g ON true
LEFT JOIN LATERAL (SELECT ` + number("detail", "figure") + ` AS figure, blade_id FROM log l WHERE shop_id = s.shop_id AND saw_id = s.id AND kind = 'runout'` + stands + ` ORDER BY at DESC, id DESC LIMIT 1) o ON o.blade_id IS NULL
WHERE s.shop_id = $1`

// Saws lists the shop's saws that are not retired, by name.
func (s *Store) Saws(ctx context.Context, shop uuid.UUID) ([]Saw, error) {
	var rows []sawRow
	if err := s.db.SelectContext(ctx, &rows, selectSaws+` AND s.retired_at IS NULL ORDER BY s.name, s.id`, shop); err != nil {
		return nil, err
	}
	return record.Readable(rows, sawRow.saw)
}

// Saw finds one saw of the shop.
func (s *Store) Saw(ctx context.Context, shop, id uuid.UUID) (Saw, error) {
	var row sawRow
	if err := s.db.GetContext(ctx, &row, selectSaws+` AND s.id = $2`, shop, id); err != nil {
		return Saw{}, noneIfNoRows(err)
	}
	return row.saw()
}

// AddSaw puts a saw into the shop. What the log says of it is left out.
func (s *Store) AddSaw(ctx context.Context, shop uuid.UUID, w Saw) error {
	_, err := s.db.NamedExecContext(ctx, allSawColumns.insert("saws"), sawRowOf(shop, w))
	return err
}

// ChangeSaw writes a saw's numbers over those of its version. The error is
// ErrStale where somebody else was first.
func (s *Store) ChangeSaw(ctx context.Context, shop uuid.UUID, w Saw) error {
	return s.change(ctx, "saws", allSawColumns.update("saws"), shop, w.ID, sawRowOf(shop, w))
}

// HearSaw keeps how fast a saw was heard to idle, a minute. It is no change of the
// saw's numbers: those stay at their version.
func (s *Store) HearSaw(ctx context.Context, shop, id uuid.UUID, rpm float64) error {
	_, err := s.db.ExecContext(ctx, `UPDATE saws SET heard_rpm = $3 WHERE shop_id = $1 AND id = $2`, shop, id, rpm)
	return err
}

func sawRowOf(shop uuid.UUID, w Saw) sawRow {
	row := sawRow{ID: w.ID, Shop: shop, Version: w.Version, sawFields: sawFieldsOf(w), Bushings: lengths{}}
	if w.Tolerances != nil {
		raw, _ := writeTolerances(*w.Tolerances)
		row.Tolerances = string(raw)
	}
	for _, b := range w.Bushings {
		row.Bushings = append(row.Bushings, b.Mm())
	}
	if k := w.Brake; k != nil {
		row.MinKerf, row.MaxKerf, row.MinDiam, row.MaxDiam = &k.MinKerf, &k.MaxKerf, &k.MinDiameter, &k.MaxDiameter
	}
	return row
}

// RetireSaw takes a saw out of use, or back into it where r is nil.
func (s *Store) RetireSaw(ctx context.Context, shop, id uuid.UUID, r *Retired) error {
	return s.retire(ctx, "saws", shop, id, r)
}
