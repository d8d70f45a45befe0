package store

import (
	"context"

	"github.com/google/uuid"

	"corte/core/cut"
	"corte/internal/record"
)

// Shelf is all that decides about a cut in a shop.
func (s *Store) Shelf(ctx context.Context, shop uuid.UUID) (out record.Shelf, err error) {
	err = s.Atomically(ctx, func(tx *Store) error {
		out = record.Shelf{Edition: cut.Edition}
		if out.Saws, err = tx.Saws(ctx, shop); err != nil {
			return err
		}
		if out.Blades, err = tx.Rack(ctx, shop); err != nil {
			return err
		}
		if out.Taught, err = tx.Lessons(ctx, shop, ""); err != nil {
			return err
		}
		ids := make([]uuid.UUID, len(out.Saws))
		for i, w := range out.Saws {
			ids[i] = w.ID
		}
		if out.Swayed, err = tx.wobbles(ctx, shop, ids...); err != nil {
			return err
		}
		out.Mine = map[uuid.UUID]record.Alone{}
		for _, id := range ids {
			if out.Mine[id], err = tx.Alone(ctx, shop, id); err != nil {
				return err
			}
		}
		return nil
	})
	return out, err
}
