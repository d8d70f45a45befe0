package store

import (
	"context"
	"encoding/json"
	"errors"

	"github.com/google/uuid"
)

// Owning are a shop's notes on owning; version 0 and nil where nobody has made any.
func (s *Store) Owning(ctx context.Context, shop uuid.UUID) (notes json.RawMessage, version int, err error) {
	var row struct {
		Notes   json.RawMessage `db:"notes"`
		Version int             `db:"version"`
	}
	err = noneIfNoRows(s.db.GetContext(ctx, &row, `SELECT notes, version FROM owning WHERE shop_id = $1`, shop))
	if errors.Is(err, ErrNone) {
		return nil, 0, nil
	}
	return row.Notes, row.Version, err
}

// NoteOwning writes them over a version, 0 where there are none yet.
func (s *Store) NoteOwning(ctx context.Context, shop uuid.UUID, version int, notes json.RawMessage) error {
	res, err := s.db.ExecContext(ctx, `INSERT INTO owning AS o (shop_id, notes) SELECT $1, $2 WHERE $3 = 0 OR EXISTS (SELECT FROM owning WHERE shop_id = $1)
		ON CONFLICT (shop_id) DO UPDATE SET notes = EXCLUDED.notes, version = o.version + 1 WHERE o.version = $3`, shop, notes, version)
	if err != nil {
		return err
	}
	if n, _ := res.RowsAffected(); n == 0 {
		return ErrStale
	}
	return nil
}
