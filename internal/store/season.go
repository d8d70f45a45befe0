package store

import (
	"bytes"
	"cmp"
	"context"
	"encoding/json"
	"maps"
	"slices"
	"time"

	"github.com/google/uuid"
	"github.com/jmoiron/sqlx"

	"corte/core/history"
)

// A DayMark is what rows of one kind came to on one day of the shop, for one
// saw, blade, material and finish. Only cuts have the figures.
type DayMark struct {
	Day       time.Time // midnight UTC of the day that it was in the shop
	Kind      history.Kind
	Saw       uuid.UUID // zero if none
	Blade     uuid.UUID
	Material  string
	Finish    string
	SawName   string
	BladeName string

	Rows      int
	Pieces    int
	Metres    float64
	Burnt     int // rows whose wall browned or worse
	Splintery int // rows whose faces splintered at all
}

// Season sums up the rows that stand from a time to another, by the days of a
// zone, the oldest first. It reads every row once: how long a cut was is said
// by history.Cut alone.
func (s *Store) Season(ctx context.Context, shop uuid.UUID, from, to time.Time, zone *time.Location) ([]DayMark, error) {
	type of struct {
		day              time.Time
		kind             history.Kind
		saw, blade       uuid.UUID
		material, finish string
	}
	sums := map[of]*DayMark{}
	err := s.rows(ctx, func(rows *sqlx.Rows) error {
		var e Entry
		if err := rows.StructScan(&e); err != nil {
			return err
		}
		var d history.Cut
		if e.Kind == history.KindCut {
			if json.Unmarshal(e.Detail, &d) != nil {
				d = history.Cut{} // it was a cut on that day; nothing else of it can be read
			}
		}
		k := of{DayOf(e.At, zone), e.Kind, orZero(e.Saw), orZero(e.Blade), d.Material, d.Finish}
		m := sums[k]
		if m == nil {
			m = &DayMark{Day: k.day, Kind: e.Kind, Saw: k.saw, Blade: k.blade, Material: k.material, Finish: k.finish, SawName: orZero(e.SawName), BladeName: orZero(e.BladeName)}
			sums[k] = m
		}
		m.Rows++
		if e.Kind != history.KindCut {
			return nil
		}
		m.Pieces += d.Pieces
		m.Metres += d.CutLength().Mm() / 1000
		if d.Wall.Burnt() {
			m.Burnt++
		}
		if d.Splintered() {
			m.Splintery++
		}
		return nil
	}, `SELECT l.at, l.kind, l.saw_id, l.blade_id, l.detail, w.name AS saw_name, b.name AS blade_name
		FROM log l LEFT JOIN blades b ON b.shop_id = l.shop_id AND b.id = l.blade_id LEFT JOIN saws w ON w.shop_id = l.shop_id AND w.id = l.saw_id
		WHERE l.shop_id = $1 AND l.at >= $2 AND l.at < $3 AND l.strikes IS NULL`+stands, shop, from, to)
	if err != nil {
		return nil, err
	}
	out := make([]DayMark, 0, len(sums))
	for _, k := range slices.SortedFunc(maps.Keys(sums), func(a, b of) int {
		return cmp.Or(a.day.Compare(b.day), cmp.Compare(a.kind, b.kind), bytes.Compare(a.blade[:], b.blade[:]), bytes.Compare(a.saw[:], b.saw[:]),
			cmp.Compare(a.material, b.material), cmp.Compare(a.finish, b.finish))
	}) {
		out = append(out, *sums[k])
	}
	return out, nil
}

// DayOf names the day of a moment in a zone by its midnight UTC.
func DayOf(at time.Time, zone *time.Location) time.Time {
	y, m, d := at.In(zone).Date()
	return time.Date(y, m, d, 0, 0, 0, 0, time.UTC)
}

func orZero[T any](p *T) T {
	var none T
	if p == nil {
		return none
	}
	return *p
}
