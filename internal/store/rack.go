package store

import (
	"context"
	"fmt"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5/pgtype"

	"corte/core/blade"
	"corte/core/care"
	"corte/core/measure"
	"corte/core/saw"
)

// A Saw is a saw of the shop, with what the log last said of it.
type Saw struct {
	saw.Saw
	ID            uuid.UUID
	Name          string
	Note          string
	Heel          measure.Length // last measured; 0 if never
	HeelAt        *time.Time
	Mounted       *uuid.UUID // the blade that is on it
	ChangeMinutes float64    // what the shop counts a change of blade for
}

// sawRow is a row of saws. Lengths scan as what they are: floats of millimetres.
type sawRow struct {
	ID         uuid.UUID       `db:"id"`
	Shop       uuid.UUID       `db:"shop_id"`
	Name       string          `db:"name"`
	Kind       string          `db:"kind"`
	Sliding    bool            `db:"sliding"`
	Diameter   measure.Length  `db:"diameter_mm"`
	Least      measure.Length  `db:"least_mm"`
	Arbor      measure.Length  `db:"arbor_mm"`
	Bushings   lengths         `db:"bushings_mm"`
	RPM        float64         `db:"rpm"`
	MotorW     float64         `db:"motor_w"`
	Volts      float64         `db:"volts"`
	BreakerA   float64         `db:"breaker_a"`
	Knife      measure.Length  `db:"knife_mm"`
	MinKerf    *measure.Length `db:"brake_min_kerf_mm"`
	MaxKerf    *measure.Length `db:"brake_max_kerf_mm"`
	MinDiam    *measure.Length `db:"brake_min_diameter_mm"`
	MaxDiam    *measure.Length `db:"brake_max_diameter_mm"`
	DadoSets   bool            `db:"dado_sets"`
	Wheels     bool            `db:"wheels"`
	Steel      bool            `db:"steel"`
	Reach      measure.Length  `db:"reach_mm"`
	Reach45    measure.Length  `db:"reach45_mm"`
	BelowTable measure.Length  `db:"below_table_mm"`
	ChopWidth  measure.Length  `db:"chop_width_mm"`
	Crosscut   measure.Length  `db:"crosscut_mm"`
	Note       string          `db:"note"`
	Heel       *measure.Length `db:"heel_mm"`
	HeelAt     *time.Time      `db:"heel_at"`
	Mounted    *uuid.UUID      `db:"mounted"`
	Change     float64         `db:"change_minutes"`
}

// lengths is an array column.
type lengths []float64

// Scan reads PostgreSQL's array text.
func (l *lengths) Scan(v any) error { return pgtype.NewMap().SQLScanner((*[]float64)(l)).Scan(v) }

func (r sawRow) saw() (Saw, error) {
	kind, err := saw.ParseKind(r.Kind)
	if err != nil {
		return Saw{}, err
	}
	s := Saw{ID: r.ID, Name: r.Name, Note: r.Note, HeelAt: r.HeelAt, Mounted: r.Mounted, ChangeMinutes: r.Change}
	s.Saw = saw.Saw{
		Kind: kind, Sliding: r.Sliding, Diameter: r.Diameter, Least: r.Least, Arbor: r.Arbor,
		RPM: r.RPM, MotorW: r.MotorW, Volts: r.Volts, BreakerA: r.BreakerA, Knife: r.Knife,
		DadoSets: r.DadoSets, Wheels: r.Wheels, Steel: r.Steel, Reach: r.Reach, Reach45: r.Reach45,
		BelowTable: r.BelowTable, ChopWidth: r.ChopWidth, Crosscut: r.Crosscut,
	}
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
// or cut with, unless that blade has since been used on another saw.
const onSaw = `
WITH on_saw AS (
    SELECT DISTINCT ON (last.blade_id) last.blade_id, s.id AS saw_id
    FROM saws s, LATERAL (
        SELECT id, blade_id FROM log WHERE saw_id = s.id AND kind IN ('mounted', 'cut') ORDER BY id DESC LIMIT 1
    ) last
    WHERE s.shop_id = $1 ORDER BY last.blade_id, last.id DESC
)`

const selectSaws = onSaw + `
SELECT s.id, s.shop_id, s.name, s.kind, s.sliding, s.diameter_mm, s.least_mm, s.arbor_mm, s.bushings_mm, s.rpm,
       s.motor_w, s.volts, s.breaker_a, s.knife_mm, s.brake_min_kerf_mm, s.brake_max_kerf_mm,
       s.brake_min_diameter_mm, s.brake_max_diameter_mm, s.dado_sets, s.wheels, s.steel, s.reach_mm, s.reach45_mm,
       s.below_table_mm, s.chop_width_mm, s.crosscut_mm, s.note,
       on_saw.blade_id AS mounted, h.mm AS heel_mm, h.at AS heel_at, shop.change_minutes
FROM saws s
JOIN shops shop ON shop.id = s.shop_id
LEFT JOIN on_saw ON on_saw.saw_id = s.id
LEFT JOIN LATERAL (SELECT (detail->>'heel_mm')::float8 AS mm, at FROM log WHERE saw_id = s.id AND kind = 'heel' ORDER BY id DESC LIMIT 1) h ON true
WHERE s.shop_id = $1`

// Saws lists the shop's saws by name.
func (s *Store) Saws(ctx context.Context, shop uuid.UUID) ([]Saw, error) {
	var rows []sawRow
	if err := s.db.SelectContext(ctx, &rows, selectSaws+` ORDER BY s.name, s.id`, shop); err != nil {
		return nil, err
	}
	return each(rows, sawRow.saw)
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
	row := sawRow{
		ID: w.ID, Shop: shop, Name: w.Name, Note: w.Note, Kind: w.Kind.String(), Sliding: w.Sliding,
		Diameter: w.Diameter, Least: w.Least, Arbor: w.Arbor, Bushings: lengths{},
		RPM: w.RPM, MotorW: w.MotorW, Volts: w.Volts, BreakerA: w.BreakerA, Knife: w.Knife,
		DadoSets: w.DadoSets, Wheels: w.Wheels, Steel: w.Steel, Reach: w.Reach, Reach45: w.Reach45,
		BelowTable: w.BelowTable, ChopWidth: w.ChopWidth, Crosscut: w.Crosscut,
	}
	for _, b := range w.Bushings {
		row.Bushings = append(row.Bushings, b.Mm())
	}
	if k := w.Brake; k != nil {
		row.MinKerf, row.MaxKerf, row.MinDiam, row.MaxDiam = &k.MinKerf, &k.MaxKerf, &k.MinDiameter, &k.MaxDiameter
	}
	_, err := s.db.NamedExecContext(ctx, `INSERT INTO saws (id, shop_id, name, kind, sliding, diameter_mm, least_mm,
		arbor_mm, bushings_mm, rpm, motor_w, volts, breaker_a, knife_mm, brake_min_kerf_mm, brake_max_kerf_mm,
		brake_min_diameter_mm, brake_max_diameter_mm, dado_sets, wheels, steel, reach_mm, reach45_mm, below_table_mm,
		chop_width_mm, crosscut_mm, note)
		VALUES (:id, :shop_id, :name, :kind, :sliding, :diameter_mm, :least_mm, :arbor_mm, :bushings_mm, :rpm, :motor_w,
		:volts, :breaker_a, :knife_mm, :brake_min_kerf_mm, :brake_max_kerf_mm, :brake_min_diameter_mm,
		:brake_max_diameter_mm, :dado_sets, :wheels, :steel, :reach_mm, :reach45_mm, :below_table_mm, :chop_width_mm,
		:crosscut_mm, :note)`, row)
	return err
}

// A Blade is a blade of the shop, with the condition that its log adds up to.
type Blade struct {
	blade.Blade
	ID        uuid.UUID
	Name      string
	Hangs     string // where it hangs
	Note      string
	Condition care.Condition
	MountedOn *uuid.UUID // the saw that it is on
}

type bladeRow struct {
	ID        uuid.UUID      `db:"id"`
	Shop      uuid.UUID      `db:"shop_id"`
	Name      string         `db:"name"`
	Make      string         `db:"make"`
	Diameter  measure.Length `db:"diameter_mm"`
	Bore      measure.Length `db:"bore_mm"`
	Kerf      measure.Length `db:"kerf_mm"`
	Plate     measure.Length `db:"plate_mm"`
	Teeth     int            `db:"teeth"`
	Grind     string         `db:"grind"`
	Group     int            `db:"raker_group"`
	Bevel     float64        `db:"bevel_deg"`
	Hook      float64        `db:"hook_deg"`
	MaxRPM    float64        `db:"max_rpm"`
	Gullet    measure.Length `db:"gullet_mm"`
	Raker     measure.Length `db:"raker_mm"`
	KeptFor   string         `db:"kept_for"`
	Nails     bool           `db:"nails"`
	Ferrous   bool           `db:"ferrous"`
	Hangs     string         `db:"hangs"`
	Note      string         `db:"note"`
	MountedOn *uuid.UUID     `db:"mounted_on"`
	conditionRow
}

func (r bladeRow) blade() (Blade, error) {
	b := Blade{ID: r.ID, Name: r.Name, Hangs: r.Hangs, Note: r.Note, MountedOn: r.MountedOn, Condition: r.condition()}
	mk, err := blade.ParseMake(r.Make)
	if err != nil {
		return Blade{}, fmt.Errorf("blade %q: %w", r.Name, err)
	}
	use, err := blade.ParseUse(r.KeptFor)
	if err != nil {
		return Blade{}, fmt.Errorf("blade %q: %w", r.Name, err)
	}
	var grind blade.Grind
	if r.Grind != "" {
		if grind, err = blade.ParseGrind(r.Grind); err != nil {
			return Blade{}, fmt.Errorf("blade %q: %w", r.Name, err)
		}
	}
	b.Blade = blade.Blade{
		Make: mk, Diameter: r.Diameter, Bore: r.Bore, Kerf: r.Kerf, Plate: r.Plate, Teeth: r.Teeth, Grind: grind,
		Group: r.Group, Bevel: r.Bevel, Hook: r.Hook, MaxRPM: r.MaxRPM, Gullet: r.Gullet, Raker: r.Raker,
		KeptFor: use, Nails: r.Nails, Ferrous: r.Ferrous,
	}
	return b, nil
}

const selectBlades = onSaw + `
SELECT b.id, b.shop_id, b.name, b.make, b.diameter_mm, b.bore_mm, b.kerf_mm, b.plate_mm, b.teeth, b.grind,
       b.raker_group, b.bevel_deg, b.hook_deg, b.max_rpm, b.gullet_mm, b.raker_mm, b.kept_for, b.nails, b.ferrous,
       b.hangs, b.note, c.blade_id, c.log_id, c.wear_m2, c.resin_m2, c.metres, c.metres_sharp, c.metres_washed,
       c.cuts, c.washes, c.sharpenings, on_saw.saw_id AS mounted_on
FROM blades b
LEFT JOIN conditions c ON c.blade_id = b.id
LEFT JOIN on_saw ON on_saw.blade_id = b.id
WHERE b.shop_id = $1`

// A Place is where a page of the rack left off.
type Place struct {
	Name string
	ID   uuid.UUID
}

// Blades lists at most limit blades that are not retired, by name, after a
// place. A limit of 0 lists all.
func (s *Store) Blades(ctx context.Context, shop uuid.UUID, after Place, limit int) ([]Blade, error) {
	q, args := selectBlades+` AND b.retired_at IS NULL`, []any{shop}
	if after != (Place{}) {
		q, args = q+` AND (b.name, b.id) > ($2, $3)`, append(args, after.Name, after.ID)
	}
	q += ` ORDER BY b.name, b.id`
	if limit > 0 {
		q += fmt.Sprintf(` LIMIT %d`, limit)
	}
	var rows []bladeRow
	if err := s.db.SelectContext(ctx, &rows, q, args...); err != nil {
		return nil, err
	}
	return each(rows, bladeRow.blade)
}

// Blade finds one blade of the shop, retired or not.
func (s *Store) Blade(ctx context.Context, shop, id uuid.UUID) (Blade, error) {
	var row bladeRow
	if err := s.db.GetContext(ctx, &row, selectBlades+` AND b.id = $2`, shop, id); err != nil {
		return Blade{}, noneIfNoRows(err)
	}
	return row.blade()
}

// AddBlade puts a blade into the rack. What the log says of it is left out.
func (s *Store) AddBlade(ctx context.Context, shop uuid.UUID, b Blade) error {
	_, err := s.db.NamedExecContext(ctx, `INSERT INTO blades (id, shop_id, name, make, diameter_mm, bore_mm, kerf_mm,
		plate_mm, teeth, grind, raker_group, bevel_deg, hook_deg, max_rpm, gullet_mm, raker_mm, kept_for, nails,
		ferrous, hangs, note)
		VALUES (:id, :shop_id, :name, :make, :diameter_mm, :bore_mm, :kerf_mm, :plate_mm, :teeth, :grind, :raker_group,
		:bevel_deg, :hook_deg, :max_rpm, :gullet_mm, :raker_mm, :kept_for, :nails, :ferrous, :hangs, :note)`,
		bladeRow{
			ID: b.ID, Shop: shop, Name: b.Name, Make: b.Make.String(), Diameter: b.Diameter, Bore: b.Bore, Kerf: b.Kerf,
			Plate: b.Plate, Teeth: b.Teeth, Grind: b.Grind.String(), Group: b.Group, Bevel: b.Bevel, Hook: b.Hook,
			MaxRPM: b.MaxRPM, Gullet: b.Gullet, Raker: b.Raker, KeptFor: b.KeptFor.String(), Nails: b.Nails,
			Ferrous: b.Ferrous, Hangs: b.Hangs, Note: b.Note,
		})
	return err
}

func each[R, V any](rows []R, f func(R) (V, error)) ([]V, error) {
	out := make([]V, len(rows))
	for i, r := range rows {
		v, err := f(r)
		if err != nil {
			return nil, err
		}
		out[i] = v
	}
	return out, nil
}
