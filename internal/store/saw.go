package store

import (
	"context"
	"errors"
	"fmt"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5/pgtype"

	"corte/core/choose"
	"corte/core/measure"
	"corte/core/saw"
	"corte/internal/record"
)

// sawRow is a row of saws. Lengths scan as what they are: floats of millimetres.
type sawRow struct {
	ID          uuid.UUID       `db:"id"`
	Shop        uuid.UUID       `db:"shop_id"`
	Name        string          `db:"name"`
	Kind        string          `db:"kind"`
	Sliding     bool            `db:"sliding"`
	Diameter    measure.Length  `db:"diameter_mm"`
	Least       measure.Length  `db:"least_mm"`
	Arbor       measure.Length  `db:"arbor_mm"`
	Bushings    lengths         `db:"bushings_mm"`
	RPM         float64         `db:"rpm"`
	MotorW      float64         `db:"motor_w"`
	Volts       float64         `db:"volts"`
	BreakerA    float64         `db:"breaker_a"`
	Knife       measure.Length  `db:"knife_mm"`
	MinKerf     *measure.Length `db:"brake_min_kerf_mm"`
	MaxKerf     *measure.Length `db:"brake_max_kerf_mm"`
	MinDiam     *measure.Length `db:"brake_min_diameter_mm"`
	MaxDiam     *measure.Length `db:"brake_max_diameter_mm"`
	DadoSets    bool            `db:"dado_sets"`
	Wheels      bool            `db:"wheels"`
	Steel       bool            `db:"steel"`
	Reach       measure.Length  `db:"reach_mm"`
	Reach45     measure.Length  `db:"reach45_mm"`
	BelowTable  measure.Length  `db:"below_table_mm"`
	ChopWidth   measure.Length  `db:"chop_width_mm"`
	Crosscut    measure.Length  `db:"crosscut_mm"`
	Note        string          `db:"note"`
	Heel        *measure.Length `db:"heel_mm"`
	HeelAt      *time.Time      `db:"heel_at"`
	Mounted     *uuid.UUID      `db:"mounted"`
	Change      float64         `db:"change_minutes"`
	School      string          `db:"height_school"`
	Learning    bool            `db:"learning"`
	Tilt        float64         `db:"tilt_deg"`
	Turn        float64         `db:"turn_deg"`
	Version     int             `db:"version"`
	Thread      string          `db:"thread"`
	Lock        bool            `db:"arbor_lock"`
	Knockout    bool            `db:"knockout"`
	WheelLead   measure.Length  `db:"wheel_lead_mm"`
	FenceLead   measure.Length  `db:"fence_lead_mm"`
	ToBolt      measure.Length  `db:"to_bolt_mm"`
	Tolerances  string          `db:"tolerances"` // JSON; empty for the usual ones
	ArborLength measure.Length  `db:"arbor_length_mm"`
	Washer      measure.Length  `db:"washer_mm"`
	Nut         measure.Length  `db:"nut_mm"`
	WasherOff   bool            `db:"washer_off"`
	NutSide     string          `db:"nut_side"`
	TiltSide    string          `db:"tilt_side"`
	FenceReach  measure.Length  `db:"fence_reach_mm"`
	Shoe        measure.Length  `db:"shoe_mm"`
	Carriage    measure.Length  `db:"carriage_mm"`
	Clamps      bool            `db:"carriage_clamps"`
	ScoringD    measure.Length  `db:"scoring_diameter_mm"`
	ScoringKerf measure.Length  `db:"scoring_kerf_mm"`
	ScoringRPM  float64         `db:"scoring_rpm"`
	ScoringTilt bool            `db:"scoring_tilts"`
	Rework      float64         `db:"rework"`
	Zone        string          `db:"time_zone"`
	HeardRPM    float64         `db:"heard_rpm"`
	Open        *measure.Length `db:"open_mm"`
	OpenAt      *time.Time      `db:"open_at"`
	TiltOff     *float64        `db:"tilt_off"`
	GaugeOff    *float64        `db:"gauge_off"`
	RunOut      *measure.Length `db:"runout_mm"`
	retiredRow
}

var sawColumns = columns{"thread", "arbor_lock", "knockout", "wheel_lead_mm", "fence_lead_mm", "to_bolt_mm", "tolerances", "arbor_length_mm", "washer_mm", "nut_mm", "washer_off", "nut_side", "tilt_side", "fence_reach_mm",
	"shoe_mm", "carriage_mm", "carriage_clamps", "scoring_diameter_mm", "scoring_kerf_mm", "scoring_rpm", "scoring_tilts",
	"name", "kind", "sliding", "diameter_mm", "least_mm", "arbor_mm", "bushings_mm", "rpm", "motor_w",
	"volts", "breaker_a", "knife_mm", "brake_min_kerf_mm", "brake_max_kerf_mm", "brake_min_diameter_mm",
	"brake_max_diameter_mm", "dado_sets", "wheels", "steel", "reach_mm", "reach45_mm", "tilt_deg", "turn_deg",
	"below_table_mm", "chop_width_mm", "crosscut_mm", "note"}

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
	all := []float64{r.Diameter.Mm(), r.Least.Mm(), r.Arbor.Mm(), r.RPM, r.MotorW, r.Volts, r.BreakerA, r.Knife.Mm(), r.Reach.Mm(), r.Reach45.Mm(), r.BelowTable.Mm(), r.ChopWidth.Mm(),
		r.Crosscut.Mm(), r.Tilt, r.Turn, r.WheelLead.Mm(), r.FenceLead.Mm(), r.ToBolt.Mm(), r.ArborLength.Mm(), r.Washer.Mm(), r.Nut.Mm(), r.FenceReach.Mm(), r.HeardRPM,
		r.Shoe.Mm(), r.Carriage.Mm(), r.ScoringD.Mm(), r.ScoringKerf.Mm(), r.ScoringRPM}
	for _, l := range []*measure.Length{r.MinKerf, r.MaxKerf, r.MinDiam, r.MaxDiam} {
		if l != nil {
			all = append(all, l.Mm())
		}
	}
	err := figures(append(all, r.Bushings...)...)
	switch {
	case err != nil:
		return Saw{}, err
	case r.Diameter <= 0 || r.Arbor <= 0 || r.RPM <= 0 || r.MotorW <= 0 || r.Reach <= 0:
		return Saw{}, errors.New("diameter, arbor, speed, motor and reach must be greater than 0")
	case max(len(r.Name), len(r.Note)) > mostText:
		return Saw{}, errors.New("a text is too long")
	}
	kind, err := saw.ParseKind(r.Kind)
	if err != nil {
		return Saw{}, err
	}
	s := Saw{ID: r.ID, Name: r.Name, Note: r.Note, HeelAt: r.HeelAt, Mounted: r.Mounted,
		ChangeMinutes: r.Change, Learning: r.Learning, HeardRPM: r.HeardRPM, Version: r.Version, Retired: r.retired()}
	if s.School, err = choose.ParseSchool(r.School); err != nil {
		return Saw{}, err
	}
	s.Saw = saw.Saw{
		Kind: kind, Sliding: r.Sliding, Diameter: r.Diameter, Least: r.Least, Arbor: r.Arbor,
		RPM: r.RPM, MotorW: r.MotorW, Volts: r.Volts, BreakerA: r.BreakerA, Knife: r.Knife,
		DadoSets: r.DadoSets, Wheels: r.Wheels, Steel: r.Steel, Reach: r.Reach, Reach45: r.Reach45,
		BelowTable: r.BelowTable, ChopWidth: r.ChopWidth, Crosscut: r.Crosscut,
		Tilt: r.Tilt, Turn: r.Turn, Lock: r.Lock, Knockout: r.Knockout, WheelLead: r.WheelLead, FenceLead: r.FenceLead, ToBolt: r.ToBolt,
		ArborLength: r.ArborLength, Washer: r.Washer, Nut: r.Nut, WasherOff: r.WasherOff,
	}
	if s.NutSide, err = saw.ParseSide(r.NutSide); err != nil {
		return Saw{}, err
	}
	if s.TiltSide, err = saw.ParseSide(r.TiltSide); err != nil {
		return Saw{}, err
	}
	s.FenceReach, s.Rework, s.Zone = r.FenceReach, r.Rework, r.Zone
	s.Shoe, s.Carriage, s.CarriageClamps = r.Shoe, r.Carriage, r.Clamps
	s.Scoring = saw.Scoring{Diameter: r.ScoringD, Kerf: r.ScoringKerf, RPM: r.ScoringRPM, Tilts: r.ScoringTilt}
	if s.Thread, err = saw.ParseThread(r.Thread); err != nil {
		return Saw{}, err
	}
	if r.Tolerances != "" {
		held, err := readTolerances([]byte(r.Tolerances))
		if err != nil {
			return Saw{}, fmt.Errorf("its tolerances: %w", err)
		}
		s.Tolerances = &held
	}
	if r.Open != nil {
		s.FenceOpen, s.FenceAt = *r.Open, r.OpenAt
	}
	s.TiltOff, s.GaugeOff, s.RunOut = r.TiltOff, r.GaugeOff, r.RunOut
	for _, b := range r.Bushings {
		s.Bushings = append(s.Bushings, measure.Length(b))
	}
	if r.MinKerf != nil {
		s.Brake = &saw.Brake{MinKerf: *r.MinKerf, MaxKerf: *r.MaxKerf, MinDiameter: *r.MinDiam, MaxDiameter: *r.MaxDiam}
	}
	if r.Heel != nil {
		s.Heel = *r.Heel
	}
	return s, nil
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
SELECT s.id, s.shop_id, s.version, s.heard_rpm, s.retired_at, s.retired_reason, s.retired_note, ` + sawColumns.of("s") + `,
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
	_, err := s.db.NamedExecContext(ctx, sawColumns.insert("saws"), sawRowOf(shop, w))
	return err
}

// ChangeSaw writes a saw's numbers over those of its version. The error is
// ErrStale where somebody else was first.
func (s *Store) ChangeSaw(ctx context.Context, shop uuid.UUID, w Saw) error {
	return s.change(ctx, "saws", sawColumns.update("saws"), shop, w.ID, sawRowOf(shop, w))
}

// HearSaw keeps how fast a saw was heard to idle, a minute. It is no change of the
// saw's numbers: those stay at their version.
func (s *Store) HearSaw(ctx context.Context, shop, id uuid.UUID, rpm float64) error {
	_, err := s.db.ExecContext(ctx, `UPDATE saws SET heard_rpm = $3 WHERE shop_id = $1 AND id = $2`, shop, id, rpm)
	return err
}

func sawRowOf(shop uuid.UUID, w Saw) sawRow {
	row := sawRow{
		ID: w.ID, Shop: shop, Version: w.Version, Name: w.Name, Note: w.Note, Kind: w.Kind.String(), Sliding: w.Sliding,
		Diameter: w.Diameter, Least: w.Least, Arbor: w.Arbor, Bushings: lengths{},
		RPM: w.RPM, MotorW: w.MotorW, Volts: w.Volts, BreakerA: w.BreakerA, Knife: w.Knife,
		DadoSets: w.DadoSets, Wheels: w.Wheels, Steel: w.Steel, Reach: w.Reach, Reach45: w.Reach45,
		BelowTable: w.BelowTable, ChopWidth: w.ChopWidth, Crosscut: w.Crosscut, Tilt: w.Tilt, Turn: w.Turn,
		Thread: w.Thread.String(), Lock: w.Lock, Knockout: w.Knockout, WheelLead: w.WheelLead, FenceLead: w.FenceLead, ToBolt: w.ToBolt,
		ArborLength: w.ArborLength, Washer: w.Washer, Nut: w.Nut, WasherOff: w.WasherOff, NutSide: w.NutSide.String(),
		TiltSide: w.TiltSide.String(), FenceReach: w.FenceReach,
		Shoe: w.Shoe, Carriage: w.Carriage, Clamps: w.CarriageClamps, ScoringD: w.Scoring.Diameter, ScoringKerf: w.Scoring.Kerf, ScoringRPM: w.Scoring.RPM, ScoringTilt: w.Scoring.Tilts,
	}
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
