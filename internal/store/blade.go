package store

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"reflect"
	"slices"
	"time"

	"github.com/google/uuid"
	"github.com/jmoiron/sqlx"

	"corte/internal/record"
)

// RetireBlade takes a blade out of use, or back into it where r is nil.
func (s *Store) RetireBlade(ctx context.Context, shop, id uuid.UUID, r *Retired) error {
	return s.retire(ctx, "blades", shop, id, r)
}

type bladeRow struct {
	ID   uuid.UUID `db:"id"`
	Shop uuid.UUID `db:"shop_id"`
	bladeFields
	HookUnknown bool       `db:"hook_unknown"`
	MountedOn   *uuid.UUID `db:"mounted_on"`
	PhotoAt     *time.Time `db:"photo_at"`
	Version     int        `db:"version"`
	Condition   []byte     `db:"condition"` // JSON; nil for a blade that has no log yet
	MadeOf      []byte     `db:"made_of"`   // JSON
	retiredRow
}

// allBladeColumns are what a blade's row is written with.
var allBladeColumns = slices.Concat(bladeColumns, columns{"hook_unknown"})

// most bounds what a row may hold, far beyond what a request may say.
const (
	mostTeeth = 1000
	mostText  = 4000
)

// blade reads a row. The error is a *record.DamagedError, or a *tornError where
// only the snapshot of its log is damaged.
func (r bladeRow) blade() (Blade, error) {
	b, err := r.numbers()
	if err != nil {
		return Blade{}, &record.DamagedError{Table: "blades", ID: r.ID.String(), Why: err}
	}
	if r.Condition != nil {
		if b.Condition, err = readCondition(r.Condition); err != nil {
			return Blade{}, &tornError{b, err}
		}
	}
	return b, nil
}

// A tornError is a blade whose snapshot cannot be read. What its log adds up to
// is folded anew.
type tornError struct {
	blade Blade
	why   error
}

func (e *tornError) Error() string {
	return "condition of blade " + e.blade.Name + ": " + e.why.Error()
}

// whole completes a row: a snapshot that can't be read is folded anew from the log.
func (s *Store) whole(ctx context.Context, shop uuid.UUID, b Blade, err error) (Blade, error) {
	var torn *tornError
	if !errors.As(err, &torn) {
		return b, err
	}
	b = torn.blade
	b.Condition, err = s.fold(ctx, shop, b)
	return b, err
}

// numbers are what somebody said of a blade.
func (r bladeRow) numbers() (Blade, error) {
	b := Blade{ID: r.ID, MountedOn: r.MountedOn, PhotoAt: r.PhotoAt, Version: r.Version, Retired: r.retired()}
	b.HookUnknown = r.HookUnknown
	err := r.read(&b)
	switch {
	case err != nil:
		return Blade{}, err
	case r.Teeth > mostTeeth:
		return Blade{}, fmt.Errorf("a blade can't have %d teeth", r.Teeth)
	case b.Diameter <= 0 || b.Bore <= 0 || b.Kerf <= 0:
		return Blade{}, errors.New("diameter, bore and kerf must be greater than 0")
	}
	if r.MadeOf != nil {
		set, err := readSet(r.MadeOf)
		if err != nil {
			return Blade{}, fmt.Errorf("its dado set: %w", err)
		}
		b.Set = &set
	}
	return b, nil
}

var selectBlades = onSaw + `
SELECT b.id, b.shop_id, b.version, b.retired_at, b.retired_reason, b.retired_note, ` + allBladeColumns.of("b") + `,
       c.condition, d.made_of, on_saw.saw_id AS mounted_on, p.at AS photo_at
FROM blades b
LEFT JOIN conditions c ON c.shop_id = b.shop_id AND c.blade_id = b.id
LEFT JOIN on_saw ON on_saw.blade_id = b.id
LEFT JOIN photos p ON p.shop_id = b.shop_id AND p.blade_id = b.id
LEFT JOIN dado_sets d ON d.shop_id = b.shop_id AND d.blade_id = b.id
WHERE b.shop_id = $1`

// weighed lists the columns that a plan needs. It reads every row of the rack, so
// notes, prices and counts are left out.
var weighed = allBladeColumns.without("coating", "slots", "carbide", "hangs", "price", "carbide_mm", "sharpened_before", "note")

var selectWeighed = onSaw + `
SELECT b.id, ` + weighed.of("b") + `, coalesce(c.wear_m2, 0) AS wear_m2, coalesce(c.resin_m2, 0) AS resin_m2,
       coalesce(c.told_m2, 0) AS told_m2, coalesce(c.told_resin_m2, 0) AS told_resin_m2,
       coalesce(c.life_shift, 0) AS life_shift, coalesce(c.pitch_shift, 0) AS pitch_shift, coalesce(c.unfit, '') AS unfit,
       coalesce(c.away, false) AS away, coalesce(c.hit, false) AS hit, coalesce(c.flaw, '') AS flaw, c.blade_id IS NOT NULL AND c.unfit IS NULL AS torn, on_saw.saw_id AS mounted_on
FROM blades b
LEFT JOIN conditions c ON c.shop_id = b.shop_id AND c.blade_id = b.id
LEFT JOIN on_saw ON on_saw.blade_id = b.id
WHERE b.shop_id = $1 AND b.retired_at IS NULL ORDER BY b.id`

type weighedRow struct {
	bladeRow
	Wear   float64 `db:"wear_m2"`
	Resin  float64 `db:"resin_m2"`
	Told   float64 `db:"told_m2"`
	ToldRs float64 `db:"told_resin_m2"`
	Life   float64 `db:"life_shift"`
	Pitchy float64 `db:"pitch_shift"`
	Unfit  string  `db:"unfit"`
	Away   bool    `db:"away"`
	Hit    bool    `db:"hit"`
	Flaw   string  `db:"flaw"`
	Torn   bool    `db:"torn"` // the snapshot is none
}

func (r weighedRow) blade() (Blade, error) {
	b, err := r.bladeRow.blade()
	c := &b.Condition
	c.WearM2, c.ResinM2, c.Life.Shift, c.Pitch.Shift = r.Wear, r.Resin, r.Life, r.Pitchy
	c.ToldM2, c.ToldResinM2 = r.Told, r.ToldRs
	c.Unfit, c.Away, c.Hit, c.Flaw = r.Unfit, r.Away, r.Hit, r.Flaw
	if err == nil && (r.Torn || figures(r.Wear, r.Resin, max(r.Told, 0), max(r.ToldRs, 0), r.Life, r.Pitchy) != nil) {
		return Blade{}, &tornError{b, errors.New("it has no figures")}
	}
	return b, err
}

// Rack lists every blade that is not retired, in a fixed order without meaning, with
// the columns that a plan needs.
func (s *Store) Rack(ctx context.Context, shop uuid.UUID) ([]Blade, error) {
	var rows []weighedRow
	if err := s.db.SelectContext(ctx, &rows, selectWeighed, shop); err != nil {
		return nil, err
	}
	return record.Readable(rows, func(r weighedRow) (Blade, error) { b, err := r.blade(); return s.whole(ctx, shop, b, err) })
}

// A Place is where a page of the rack ended, among the blades in use or the retired
// ones.
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
	return record.Readable(rows, func(r bladeRow) (Blade, error) { b, err := r.blade(); return s.whole(ctx, shop, b, err) })
}

// Blade finds one blade of the shop, retired or not.
func (s *Store) Blade(ctx context.Context, shop, id uuid.UUID) (Blade, error) {
	var row bladeRow
	if err := s.db.GetContext(ctx, &row, selectBlades+` AND b.id = $2`, shop, id); err != nil {
		return Blade{}, noneIfNoRows(err)
	}
	b, err := row.blade()
	return s.whole(ctx, shop, b, err)
}

// BladesOf finds blades of the shop by their IDs, retired or not. An ID that is
// not there is left out.
func (s *Store) BladesOf(ctx context.Context, shop uuid.UUID, ids []uuid.UUID) (map[uuid.UUID]Blade, error) {
	out := make(map[uuid.UUID]Blade, len(ids))
	if len(ids) == 0 {
		return out, nil
	}
	var rows []bladeRow
	if err := s.db.SelectContext(ctx, &rows, selectBlades+` AND b.id = ANY($2)`, shop, ids); err != nil {
		return nil, err
	}
	found, err := record.Readable(rows, func(r bladeRow) (Blade, error) { b, err := r.blade(); return s.whole(ctx, shop, b, err) })
	for _, b := range found {
		out[b.ID] = b
	}
	return out, err
}

// AddBlade adds a blade, without anything that its log says.
func (s *Store) AddBlade(ctx context.Context, shop uuid.UUID, b Blade) error {
	if _, err := s.db.NamedExecContext(ctx, allBladeColumns.insert("blades"), bladeRowOf(shop, b)); err != nil || b.Set == nil {
		return err
	}
	return s.SetDadoSet(ctx, shop, DadoSet{Blade: b.ID, Set: *b.Set})
}

// AddRetired adds a blade that is out of use. A blade in use may have its name, so it
// takes the name after it is retired.
func (s *Store) AddRetired(ctx context.Context, shop uuid.UUID, b Blade, r *Retired) error {
	return s.Atomically(ctx, func(tx *Store) error {
		name := b.Name
		b.Name = b.ID.String()
		if err := tx.AddBlade(ctx, shop, b); err != nil {
			return err
		}
		if err := tx.RetireBlade(ctx, shop, b.ID, r); err != nil {
			return err
		}
		return tx.one(ctx, `UPDATE blades SET name = $3 WHERE shop_id = $1 AND id = $2`, shop, b.ID, name)
	})
}

// ChangeBlade updates a blade from a version. It returns ErrStale if the blade has
// changed since.
func (s *Store) ChangeBlade(ctx context.Context, shop uuid.UUID, b Blade) error {
	return s.Atomically(ctx, func(tx *Store) error {
		was, err := tx.lock(ctx, shop, b.ID)
		if err != nil {
			return err
		}
		if err := tx.change(ctx, "blades", allBladeColumns.update("blades"), shop, b.ID, bladeRowOf(shop, b)); err != nil {
			return err
		}
		if b.Set != nil && !reflect.DeepEqual(was.Set, b.Set) {
			now, err := tx.DadoSet(ctx, shop, b.ID)
			if err != nil && !errors.Is(err, ErrNone) {
				return err
			}
			if err := tx.SetDadoSet(ctx, shop, DadoSet{Blade: b.ID, Set: *b.Set, Version: now.Version}); err != nil {
				return err
			}
		}
		if was.Teeth == b.Teeth && was.Grind == b.Grind {
			return nil
		}
		return tx.refold(ctx, shop, b) // they decide what a cut does to it
	})
}

func bladeRowOf(shop uuid.UUID, b Blade) bladeRow {
	b.Coating = cmp.Or(b.Coating, "none")
	return bladeRow{ID: b.ID, Shop: shop, Version: b.Version, bladeFields: bladeFieldsOf(b), HookUnknown: b.HookUnknown}
}

// SetPhoto stores a photo of a blade and replaces the earlier one.
func (s *Store) SetPhoto(ctx context.Context, shop, blade uuid.UUID, at time.Time, jpeg []byte) error {
	_, err := s.db.ExecContext(ctx, `INSERT INTO photos (blade_id, shop_id, at, jpeg) VALUES ($1, $2, $3, $4)
		ON CONFLICT (shop_id, blade_id) DO UPDATE SET at = $3, jpeg = $4`, blade, shop, at, jpeg)
	return err
}

// DropPhoto deletes a blade's photo.
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

// Photos calls each with every photo of a shop, one at a time.
func (s *Store) Photos(ctx context.Context, shop uuid.UUID, each func(blade uuid.UUID, jpeg []byte) error) error {
	return s.rows(ctx, func(rows *sqlx.Rows) error {
		var blade uuid.UUID
		var jpeg []byte
		if err := rows.Scan(&blade, &jpeg); err != nil {
			return err
		}
		return each(blade, jpeg)
	}, `SELECT blade_id, jpeg FROM photos WHERE shop_id = $1 ORDER BY blade_id`, shop)
}

// Called lists the names of the blades in use in a shop, in lower case, except one.
func (s *Store) Called(ctx context.Context, shop, but uuid.UUID) ([]string, error) {
	var names []string
	err := s.db.SelectContext(ctx, &names, `SELECT lower(name) FROM blades WHERE shop_id = $1 AND retired_at IS NULL AND id <> $2`, shop, but)
	return names, err
}
