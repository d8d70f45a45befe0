package store

import (
	"context"
	"time"

	"github.com/google/uuid"
)

// A Practised is an answer of somebody in a drill.
type Practised struct {
	Shop   uuid.UUID  `db:"shop_id"`
	ID     int64      `db:"id"`
	Member *uuid.UUID `db:"member_id"` // nil where nobody is known: the shop's own
	Skill  string     `db:"skill"`
	Number int64      `db:"number"` // of the task
	Level  int        `db:"level"`
	Right  bool       `db:"is_right"`
	At     time.Time  `db:"at"`
}

// Practise keeps one.
func (s *Store) Practise(ctx context.Context, p Practised) error {
	_, err := s.db.NamedExecContext(ctx, `INSERT INTO practised (shop_id, member_id, skill, number, level, is_right, at)
		VALUES (:shop_id, :member_id, :skill, :number, :level, :is_right, :at)`, p)
	return err
}

// mostPractised is as far back as anybody's standing reaches: years of it.
const mostPractised = 5000

// Practised are the answers of one member of a shop, or those that are nobody's,
// in their order.
func (s *Store) Practised(ctx context.Context, shop uuid.UUID, member *uuid.UUID) (all []Practised, err error) {
	err = s.db.SelectContext(ctx, &all, `SELECT * FROM (SELECT shop_id, id, member_id, skill, number, level, is_right, at FROM practised
		WHERE shop_id = $1 AND member_id IS NOT DISTINCT FROM $2 ORDER BY id DESC LIMIT $3) p ORDER BY id`, shop, member, mostPractised)
	return all, err
}

// PractisedByAll are the answers of all members of a shop, in their order.
func (s *Store) PractisedByAll(ctx context.Context, shop uuid.UUID) (all []Practised, err error) {
	err = s.db.SelectContext(ctx, &all, `SELECT shop_id, id, member_id, skill, number, level, is_right, at FROM practised
		WHERE shop_id = $1 AND member_id IS NOT NULL ORDER BY id`, shop)
	return all, err
}
