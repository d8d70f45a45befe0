package store

import (
	"context"
	"encoding/json"
	"time"

	"github.com/google/uuid"
)

// A Mounting is a blade on its way onto a saw.
type Mounting struct {
	ID      uuid.UUID       `db:"id"`
	Shop    uuid.UUID       `db:"shop_id"`
	Saw     uuid.UUID       `db:"saw_id"`
	Blade   uuid.UUID       `db:"blade_id"`
	Step    int             `db:"step"`
	Answers json.RawMessage `db:"answers"`   // check to yes or no
	Groove  *uuid.UUID      `db:"groove_id"` // that a dado set is put together for
	By      string          `db:"by_name"`
	Started time.Time       `db:"started_at"`
	Version int             `db:"version"`
}

const mountingColumns = `id, shop_id, saw_id, blade_id, groove_id, step, answers, by_name, started_at, version`

// StartMounting begins a mounting, or finds the one that is under way on the
// saw with the same blade for the same groove; another one is given up for it.
func (s *Store) StartMounting(ctx context.Context, m Mounting) (Mounting, error) {
	err := s.Atomically(ctx, func(tx *Store) error {
		// Two that begin at once come one after the other, so that each sees its own.
		if err := tx.HoldSaw(ctx, m.Shop, m.Saw); err != nil {
			return err
		}
		if _, err := tx.db.ExecContext(ctx, `DELETE FROM mountings WHERE shop_id = $1 AND saw_id = $2 AND (blade_id <> $3 OR groove_id IS DISTINCT FROM $4)`, m.Shop, m.Saw, m.Blade, m.Groove); err != nil {
			return err
		}
		if _, err := tx.db.NamedExecContext(ctx, `INSERT INTO mountings (id, shop_id, saw_id, blade_id, groove_id, by_name, started_at)
			VALUES (:id, :shop_id, :saw_id, :blade_id, :groove_id, :by_name, :started_at) ON CONFLICT (shop_id, saw_id) DO NOTHING`, m); err != nil {
			return err
		}
		return tx.db.GetContext(ctx, &m, `SELECT `+mountingColumns+` FROM mountings WHERE shop_id = $1 AND saw_id = $2`, m.Shop, m.Saw)
	})
	return m, err
}

// Mounting finds a mounting that is under way.
func (s *Store) Mounting(ctx context.Context, shop, id uuid.UUID) (Mounting, error) {
	var m Mounting
	err := s.db.GetContext(ctx, &m, `SELECT `+mountingColumns+` FROM mountings WHERE shop_id = $1 AND id = $2`, shop, id)
	return m, noneIfNoRows(err)
}

// Mountings lists those that are under way.
func (s *Store) Mountings(ctx context.Context, shop uuid.UUID) ([]Mounting, error) {
	all := []Mounting{}
	err := s.db.SelectContext(ctx, &all, `SELECT `+mountingColumns+` FROM mountings WHERE shop_id = $1`, shop)
	return all, err
}

// StepMounting writes how far a mounting has come over its version.
func (s *Store) StepMounting(ctx context.Context, m Mounting) error {
	return s.change(ctx, "mountings", `UPDATE mountings SET step = :step, answers = :answers, version = version + 1
		WHERE id = :id AND shop_id = :shop_id AND version = :version`, m.Shop, m.ID, m)
}

// EndMounting ends a mounting that has come to a version.
func (s *Store) EndMounting(ctx context.Context, shop, id uuid.UUID, version int) error {
	return s.end(ctx, "mountings", shop, id, version)
}

// DropMounting ends a mounting without a trace.
func (s *Store) DropMounting(ctx context.Context, shop, id uuid.UUID) error {
	_, err := s.db.ExecContext(ctx, `DELETE FROM mountings WHERE shop_id = $1 AND id = $2`, shop, id)
	return err
}
