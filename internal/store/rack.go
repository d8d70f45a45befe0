package store

import (
	"cmp"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"reflect"
	"strings"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5/pgtype"
	"github.com/jackc/pgx/v5/stdlib"

	"corte/core/blade"
	"corte/core/care"
	"corte/core/choose"
	"corte/core/groove"
	"corte/core/measure"
	"corte/core/saw"
	"corte/core/truing"
)

// A Saw is a saw of the shop, with what the log last said of it.
type Saw struct {
	saw.Saw
	ID            uuid.UUID
	Name          string
	Note          string
	Heel          measure.Length // toward the fence, last measured; 0 if never
	HeelAt        *time.Time
	Mounted       *uuid.UUID     // the blade that is on it
	ChangeMinutes float64        // what the shop counts a change of blade for
	Rework        float64        // what mending takes here against the usual
	School        choose.School  // of height, as the shop prefers
	Learning      bool           // the shop's own cuts correct the model
	FenceOpen     measure.Length // at the rear, last measured; negative where it closes
	FenceAt       *time.Time
	Tolerances    *truing.Tolerances // nil for the usual ones
	Version       int
	Retired       *Retired
}

// HeldTo is what the saw is held to: its own tolerances, or the usual ones.
func (w Saw) HeldTo() truing.Tolerances {
	if w.Tolerances != nil {
		return *w.Tolerances
	}
	return truing.Usual
}

// Retired says when and why something was taken out of use.
type Retired struct {
	At     time.Time
	Reason string
	Note   string
}

type retiredRow struct {
	RetiredAt     *time.Time `db:"retired_at"`
	RetiredReason string     `db:"retired_reason"`
	RetiredNote   string     `db:"retired_note"`
}

func (r retiredRow) retired() *Retired {
	if r.RetiredAt == nil {
		return nil
	}
	return &Retired{*r.RetiredAt, r.RetiredReason, r.RetiredNote}
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

func (c columns) of(alias string) string { return alias + "." + strings.Join(c, ", "+alias+".") }

// ErrStale is returned where a row has been changed since the version that was
// edited.
var ErrStale = errors.New("changed by somebody else")

// change runs a versioned change and tells a row that is not there from one
// that has moved on.
func (s *Store) change(ctx context.Context, table, update string, id uuid.UUID, row any) error {
	res, err := s.db.NamedExecContext(ctx, update, row)
	if err != nil {
		return err
	}
	if n, _ := res.RowsAffected(); n == 1 {
		return nil
	}
	var there bool
	if err := s.db.GetContext(ctx, &there, `SELECT true FROM `+table+` WHERE id = $1`, id); err != nil {
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
	return s.change(ctx, table, `DELETE FROM `+table+` WHERE id = :id AND shop_id = :shop_id AND version = :version`, id, key)
}

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
	Rework      float64         `db:"rework"`
	Open        *measure.Length `db:"open_mm"`
	OpenAt      *time.Time      `db:"open_at"`
	retiredRow
}

var sawColumns = columns{"thread", "arbor_lock", "knockout", "wheel_lead_mm", "fence_lead_mm", "to_bolt_mm", "tolerances", "arbor_length_mm", "washer_mm", "nut_mm", "washer_off", "nut_side", "tilt_side", "fence_reach_mm",
	"name", "kind", "sliding", "diameter_mm", "least_mm", "arbor_mm", "bushings_mm", "rpm", "motor_w",
	"volts", "breaker_a", "knife_mm", "brake_min_kerf_mm", "brake_max_kerf_mm", "brake_min_diameter_mm",
	"brake_max_diameter_mm", "dado_sets", "wheels", "steel", "reach_mm", "reach45_mm", "tilt_deg", "turn_deg",
	"below_table_mm", "chop_width_mm", "crosscut_mm", "note"}

// lengths is an array column.
type lengths []float64

// Scan reads PostgreSQL's array text.
func (l *lengths) Scan(v any) error { return pgtype.NewMap().SQLScanner((*[]float64)(l)).Scan(v) }

func (r sawRow) saw() (Saw, error) {
	kind, err := saw.ParseKind(r.Kind)
	if err != nil {
		return Saw{}, err
	}
	s := Saw{ID: r.ID, Name: r.Name, Note: r.Note, HeelAt: r.HeelAt, Mounted: r.Mounted,
		ChangeMinutes: r.Change, Learning: r.Learning, Version: r.Version, Retired: r.retired()}
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
	s.FenceReach, s.Rework = r.FenceReach, r.Rework
	if s.Thread, err = saw.ParseThread(r.Thread); err != nil {
		return Saw{}, err
	}
	if r.Tolerances != "" {
		s.Tolerances = new(truing.Tolerances)
		if err := json.Unmarshal([]byte(r.Tolerances), s.Tolerances); err != nil {
			return Saw{}, fmt.Errorf("tolerances of %q: %w", r.Name, err)
		}
	}
	if r.Open != nil {
		s.FenceOpen, s.FenceAt = *r.Open, r.OpenAt
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
// or cut with and not taken off, unless it has since been used on another saw.
const onSaw = `
WITH on_saw AS MATERIALIZED (
    SELECT DISTINCT ON (last.blade_id) last.blade_id, s.id AS saw_id
    FROM saws s, LATERAL (
        SELECT l.id, l.at, l.blade_id, l.kind FROM log l WHERE l.saw_id = s.id AND l.kind IN ('mounted', 'dismounted', 'cut')
        AND NOT EXISTS (SELECT 1 FROM log x WHERE x.strikes = l.id) ORDER BY l.at DESC, l.id DESC LIMIT 1
    ) last
    WHERE s.shop_id = $1 AND last.kind <> 'dismounted' ORDER BY last.blade_id, last.at DESC, last.id DESC
)`

var selectSaws = onSaw + `
SELECT s.id, s.shop_id, s.version, s.retired_at, s.retired_reason, s.retired_note, ` + sawColumns.of("s") + `,
       on_saw.blade_id AS mounted, h.mm AS heel_mm, h.at AS heel_at, f.mm AS open_mm, f.at AS open_at,
       shop.change_minutes, shop.height_school, shop.learning, shop.rework
FROM saws s
JOIN shops shop ON shop.id = s.shop_id
LEFT JOIN on_saw ON on_saw.saw_id = s.id
LEFT JOIN LATERAL (SELECT (detail->>'heel_mm')::float8 AS mm, at FROM log l WHERE saw_id = s.id AND kind = 'heel'` + stands + ` ORDER BY at DESC, id DESC LIMIT 1) h ON true
LEFT JOIN LATERAL (SELECT (detail->>'open_mm')::float8 AS mm, at FROM log l WHERE saw_id = s.id AND kind = 'fence'` + stands + ` ORDER BY at DESC, id DESC LIMIT 1) f ON true
WHERE s.shop_id = $1`

// Saws lists the shop's saws that are not retired, by name.
func (s *Store) Saws(ctx context.Context, shop uuid.UUID) ([]Saw, error) {
	var rows []sawRow
	if err := s.db.SelectContext(ctx, &rows, selectSaws+` AND s.retired_at IS NULL ORDER BY s.name, s.id`, shop); err != nil {
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
	_, err := s.db.NamedExecContext(ctx, sawColumns.insert("saws"), sawRowOf(shop, w))
	return err
}

// ChangeSaw writes a saw's numbers over those of its version. The error is
// ErrStale where somebody else was first.
func (s *Store) ChangeSaw(ctx context.Context, shop uuid.UUID, w Saw) error {
	return s.change(ctx, "saws", sawColumns.update("saws"), w.ID, sawRowOf(shop, w))
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
	}
	if w.Tolerances != nil {
		raw, _ := json.Marshal(w.Tolerances)
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

// RetireBlade takes a blade out of use, or back into it where r is nil.
func (s *Store) RetireBlade(ctx context.Context, shop, id uuid.UUID, r *Retired) error {
	return s.retire(ctx, "blades", shop, id, r)
}

// RetireSaw takes a saw out of use, or back into it where r is nil.
func (s *Store) RetireSaw(ctx context.Context, shop, id uuid.UUID, r *Retired) error {
	return s.retire(ctx, "saws", shop, id, r)
}

// A Blade is a blade of the shop, with the condition that its log adds up to.
type Blade struct {
	blade.Blade
	ID        uuid.UUID
	Name      string
	Hangs     string // where it hangs
	Note      string
	Coating   string         // none, nitride or slick
	Slots     int            // in the body
	Price     float64        // in the shop's own money; 0 if not said
	Tip       measure.Length // carbide left on the face of a tip; 0 if not measured
	Sharpened int            // times before its log began
	Set       *groove.Set    // that a dado set is made of; nil for a single blade, or where nobody has said
	Condition care.Condition
	MountedOn *uuid.UUID // the saw that it is on
	PhotoAt   *time.Time
	Version   int
	Retired   *Retired
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
	Coating   string         `db:"coating"`
	Slots     int            `db:"slots"`
	Price     float64        `db:"price"`
	Tip       measure.Length `db:"carbide_mm"`
	HookUnk   bool           `db:"hook_unknown"`
	Shoulder  bool           `db:"shoulder"`
	Shear     bool           `db:"shear"`
	Throwaway bool           `db:"throwaway"`
	Carbide   string         `db:"carbide"`
	Shape     string         `db:"gullet_shape"`
	Sharpened int            `db:"sharpened_before"`
	MountedOn *uuid.UUID     `db:"mounted_on"`
	PhotoAt   *time.Time     `db:"photo_at"`
	Version   int            `db:"version"`
	Condition []byte         `db:"condition"` // JSON; nil for a blade that has no log yet
	MadeOf    []byte         `db:"made_of"`   // JSON
	retiredRow
}

var bladeColumns = columns{"name", "make", "diameter_mm", "bore_mm", "kerf_mm", "plate_mm", "teeth", "grind", "raker_group",
	"bevel_deg", "hook_deg", "max_rpm", "gullet_mm", "raker_mm", "kept_for", "nails", "ferrous", "hangs", "note",
	"coating", "slots", "price", "carbide_mm", "sharpened_before", "hook_unknown", "shoulder", "shear", "throwaway", "carbide", "gullet_shape"}

func (r bladeRow) blade() (Blade, error) {
	b := Blade{ID: r.ID, Name: r.Name, Hangs: r.Hangs, Note: r.Note, MountedOn: r.MountedOn,
		Coating: r.Coating, Slots: r.Slots, Price: r.Price, Tip: r.Tip, Sharpened: r.Sharpened,
		PhotoAt: r.PhotoAt, Version: r.Version, Retired: r.retired()}
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
		KeptFor: use, Nails: r.Nails, Ferrous: r.Ferrous, HookUnknown: r.HookUnk, Shoulder: r.Shoulder, Shear: r.Shear, Throwaway: r.Throwaway,
	}
	if b.Blade.Carbide, err = blade.ParseCarbide(r.Carbide); err != nil {
		return Blade{}, fmt.Errorf("blade %q: %w", r.Name, err)
	}
	if b.GulletShape, err = blade.ParseGulletShape(r.Shape); err != nil {
		return Blade{}, fmt.Errorf("blade %q: %w", r.Name, err)
	}
	if r.Condition != nil {
		if err := json.Unmarshal(r.Condition, &b.Condition); err != nil {
			return Blade{}, fmt.Errorf("condition of blade %q: %w", r.Name, err)
		}
	}
	if r.MadeOf != nil {
		if err := json.Unmarshal(r.MadeOf, &b.Set); err != nil {
			return Blade{}, fmt.Errorf("set %q: %w", r.Name, err)
		}
	}
	return b, nil
}

var selectBlades = onSaw + `
SELECT b.id, b.shop_id, b.version, b.retired_at, b.retired_reason, b.retired_note, ` + bladeColumns.of("b") + `,
       c.condition, d.made_of, on_saw.saw_id AS mounted_on, p.at AS photo_at
FROM blades b
LEFT JOIN conditions c ON c.blade_id = b.id
LEFT JOIN on_saw ON on_saw.blade_id = b.id
LEFT JOIN photos p ON p.blade_id = b.id
LEFT JOIN dado_sets d ON d.blade_id = b.id
WHERE b.shop_id = $1`

// weighed are the columns that decide about a cut: half of a row, because a
// plan reads every row of the rack.
var weighed = columns{"name", "make", "diameter_mm", "bore_mm", "kerf_mm", "plate_mm", "teeth", "grind", "raker_group",
	"bevel_deg", "hook_deg", "max_rpm", "gullet_mm", "raker_mm", "kept_for", "nails", "ferrous", "hook_unknown", "shoulder", "shear", "throwaway", "gullet_shape"}

var selectWeighed = onSaw + `
SELECT b.id, ` + weighed.of("b") + `, coalesce(c.wear_m2, 0), coalesce(c.resin_m2, 0),
       coalesce(c.life_shift, 0), coalesce(c.pitch_shift, 0), coalesce(c.unfit, ''), coalesce(c.away, false), coalesce(c.hit, false), coalesce(c.flaw, ''), on_saw.saw_id
FROM blades b
LEFT JOIN conditions c ON c.blade_id = b.id
LEFT JOIN on_saw ON on_saw.blade_id = b.id
WHERE b.shop_id = $1 AND b.retired_at IS NULL ORDER BY b.id`

// mm is a length as the driver knows it.
func mm(l *measure.Length) *float64 { return (*float64)(l) }

// Rack lists every blade that is not retired, in no order that means anything
// but always the same, with what decides about
// a cut and no more: notes, money and counts are left out. A plan waits for all
// of it, so the rows are taken from the driver as it has them, which is three
// times as quick as value by value through database/sql.
func (s *Store) Rack(ctx context.Context, shop uuid.UUID) ([]Blade, error) {
	conn := s.conn
	if conn == nil {
		var err error
		if conn, err = s.pool.Connx(ctx); err != nil {
			return nil, err
		}
		defer conn.Close()
	}
	var out []Blade
	err := conn.Raw(func(driver any) error {
		rows, err := driver.(*stdlib.Conn).Conn().Query(ctx, selectWeighed, shop)
		if err != nil {
			return err
		}
		defer rows.Close()
		var r bladeRow
		var c care.Condition
		for rows.Next() {
			r.MountedOn = nil
			if err := rows.Scan((*[16]byte)(&r.ID), &r.Name, &r.Make, mm(&r.Diameter), mm(&r.Bore), mm(&r.Kerf), mm(&r.Plate), &r.Teeth,
				&r.Grind, &r.Group, &r.Bevel, &r.Hook, &r.MaxRPM, mm(&r.Gullet), mm(&r.Raker), &r.KeptFor, &r.Nails, &r.Ferrous,
				&r.HookUnk, &r.Shoulder, &r.Shear, &r.Throwaway, &r.Shape,
				&c.WearM2, &c.ResinM2, &c.Life.Shift, &c.Pitch.Shift, &c.Unfit, &c.Away, &c.Hit, &c.Flaw, &r.MountedOn); err != nil {
				return err
			}
			b, err := r.blade()
			if err != nil {
				return err
			}
			b.Condition = c
			out = append(out, b)
		}
		return rows.Err()
	})
	return out, err
}

// A Place is where a page of the rack left off. It may be on the wall of the
// retired.
type Place struct {
	Name    string
	ID      uuid.UUID
	Retired bool
}

// Blades lists at most limit blades that are not retired, or those that are,
// by name, after a place. A limit of 0 lists all.
func (s *Store) Blades(ctx context.Context, shop uuid.UUID, after Place, limit int) ([]Blade, error) {
	q, args := selectBlades+` AND b.retired_at IS NULL`, []any{shop}
	if after.Retired {
		q = selectBlades + ` AND b.retired_at IS NOT NULL`
	}
	if after.ID != uuid.Nil {
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
	if _, err := s.db.NamedExecContext(ctx, bladeColumns.insert("blades"), bladeRowOf(shop, b)); err != nil || b.Set == nil {
		return err
	}
	return s.SetDadoSet(ctx, shop, DadoSet{Blade: b.ID, Set: *b.Set})
}

// ChangeBlade writes a blade's numbers over those of its version. The error is
// ErrStale where somebody else was first.
func (s *Store) ChangeBlade(ctx context.Context, shop uuid.UUID, b Blade) error {
	return s.Atomically(ctx, func(tx *Store) error {
		was, err := tx.lock(ctx, shop, b.ID)
		if err != nil {
			return err
		}
		if err := tx.change(ctx, "blades", bladeColumns.update("blades"), b.ID, bladeRowOf(shop, b)); err != nil {
			return err
		}
		if b.Set != nil && !reflect.DeepEqual(was.Set, b.Set) {
			now, err := tx.DadoSet(ctx, shop, b.ID)
			if err != nil && !errors.Is(err, ErrNone) {
				return err
			}
			if err := tx.SetDadoSet(ctx, shop, DadoSet{b.ID, *b.Set, now.Version}); err != nil {
				return err
			}
		}
		if was.Teeth == b.Teeth && was.Grind == b.Grind {
			return nil
		}
		return tx.refold(ctx, b) // they decide what a cut does to it
	})
}

func bladeRowOf(shop uuid.UUID, b Blade) bladeRow {
	return bladeRow{
		ID: b.ID, Shop: shop, Version: b.Version, Name: b.Name, Make: b.Make.String(), Diameter: b.Diameter, Bore: b.Bore,
		Kerf: b.Kerf, Plate: b.Plate, Teeth: b.Teeth, Grind: b.Grind.String(), Group: b.Group, Bevel: b.Bevel, Hook: b.Hook,
		MaxRPM: b.MaxRPM, Gullet: b.Gullet, Raker: b.Raker, KeptFor: b.KeptFor.String(), Nails: b.Nails,
		Ferrous: b.Ferrous, Hangs: b.Hangs, Note: b.Note, Coating: cmp.Or(b.Coating, "none"), Slots: b.Slots, Price: b.Price,
		Tip: b.Tip, Sharpened: b.Sharpened, HookUnk: b.HookUnknown, Shoulder: b.Shoulder, Shear: b.Shear, Throwaway: b.Throwaway,
		Carbide: b.Blade.Carbide.String(), Shape: b.GulletShape.String(),
	}
}

// SetPhoto keeps a photo of a blade in place of the one before.
func (s *Store) SetPhoto(ctx context.Context, shop, blade uuid.UUID, at time.Time, jpeg []byte) error {
	_, err := s.db.ExecContext(ctx, `INSERT INTO photos (blade_id, shop_id, at, jpeg) VALUES ($1, $2, $3, $4)
		ON CONFLICT (blade_id) DO UPDATE SET at = $3, jpeg = $4`, blade, shop, at, jpeg)
	return err
}

// DropPhoto throws a blade's photo away.
func (s *Store) DropPhoto(ctx context.Context, shop, blade uuid.UUID) error {
	_, err := s.db.ExecContext(ctx, `DELETE FROM photos WHERE blade_id = $1 AND shop_id = $2`, blade, shop)
	return err
}

// Photo finds a blade's photo, a JPEG.
func (s *Store) Photo(ctx context.Context, shop, blade uuid.UUID) ([]byte, error) {
	var jpeg []byte
	err := s.db.GetContext(ctx, &jpeg, `SELECT jpeg FROM photos WHERE blade_id = $1 AND shop_id = $2`, blade, shop)
	return jpeg, noneIfNoRows(err)
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
