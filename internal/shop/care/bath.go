package care

import (
	"context"
	"time"

	"github.com/google/uuid"

	"corte/core/care"
	"corte/core/measure"
	"corte/core/say"
	"corte/internal/refusal"
	"corte/internal/store"
)

// A Bath is a tray of cleaner and what it wants.
type Bath struct {
	store.Bath
	Cleaner care.Cleaner
	Word    string // good, strain or replace
	Why     say.Line
	Until   time.Time // when it is too old
}

// Baths lists the shop's baths and what they want.
func (s Station) Baths(ctx context.Context, shop uuid.UUID) ([]Bath, error) {
	rows, err := s.Store.Baths(ctx, shop)
	if err != nil {
		return nil, err
	}
	out := make([]Bath, 0, len(rows))
	for _, b := range rows {
		k, err := care.CleanerByID(b.Cleaner)
		if err != nil {
			continue // a damaged row costs itself alone
		}
		one := Bath{Bath: b, Cleaner: k, Until: b.Made.AddDate(0, 0, k.Keeps)}
		one.Word, one.Why = care.BathState(k, b.Uses, b.Uses-b.Strained, s.Now().Sub(b.Made))
		out = append(out, one)
	}
	return out, nil
}

// A BathAsk is a bath to make up.
type BathAsk struct {
	Name     string
	Cleaner  string
	Tray     care.Tray
	Diameter measure.Length
	Kerf     measure.Length
	Blades   int
}

// MixBath works out how a bath is made up.
func (s Station) MixBath(a BathAsk) (care.Mix, error) {
	k, err := care.CleanerByID(a.Cleaner)
	if err != nil {
		return care.Mix{}, refusal.Placed(err)
	}
	m, err := care.MixFor(a.Tray, k, a.Diameter, a.Kerf, a.Blades)
	if err != nil {
		return m, refusal.Placed(err)
	}
	return m, nil
}

// MakeBath notes that a bath was made up.
func (s Station) MakeBath(ctx context.Context, shop uuid.UUID, a BathAsk) (Bath, error) {
	m, err := s.MixBath(a)
	if err != nil {
		return Bath{}, err
	}
	id, err := s.Add(ctx, func(tx *store.Store, id uuid.UUID) error {
		return tx.AddBath(ctx, store.Bath{ID: id, Shop: shop, Name: a.Name, Cleaner: a.Cleaner, Length: a.Tray.Length, Width: a.Tray.Width,
			Depth: a.Tray.Depth, Round: a.Tray.Round, Litres: m.Litres, Made: s.Now()})
	})
	if err != nil {
		return Bath{}, err
	}
	return s.bath(ctx, shop, id)
}

func (s Station) bath(ctx context.Context, shop, id uuid.UUID) (Bath, error) {
	all, err := s.Baths(ctx, shop)
	if err != nil {
		return Bath{}, err
	}
	for _, b := range all {
		if b.ID == id {
			return b, nil
		}
	}
	return Bath{}, refusal.NotThere(store.ErrNone, "id", "bath")
}

// StrainBath notes that a bath was strained.
func (s Station) StrainBath(ctx context.Context, shop, id uuid.UUID) (Bath, error) {
	if err := s.Store.StrainBath(ctx, shop, id); err != nil {
		return Bath{}, refusal.NotThere(err, "id", "bath")
	}
	return s.bath(ctx, shop, id)
}

// EmptyBath notes that a bath was thrown away.
func (s Station) EmptyBath(ctx context.Context, shop, id uuid.UUID) error {
	return refusal.NotThere(s.Store.EmptyBath(ctx, shop, id, s.Now()), "id", "bath")
}
