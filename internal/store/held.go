package store

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"slices"

	"github.com/google/uuid"

	"corte/core/groove"
	"corte/core/history"
	"corte/internal/record"
)

// storedHeld is the stored form of groove.Held, part by part.
type storedHeld struct {
	V     int         `json:"v"`
	Mean  []float64   `json:"mean_mm"`
	Cov   [][]float64 `json:"cov_mm2"`
	Tests []int       `json:"tests"`
	Told  int         `json:"told"`
}

func writeHeld(h groove.Held) ([]byte, error) {
	return json.Marshal(storedHeld{storedVersion, h.Estimate.Mean, h.Estimate.Cov, h.Tests, h.Told})
}

// readHeld reads what is known of a set's parts. What is of other parts than the set
// has counts as nothing.
func readHeld(raw []byte, s groove.Set) (groove.Held, error) {
	if raw == nil {
		return s.New(), nil
	}
	var k storedHeld
	if err := read(raw, &k, &k.V, storedVersion); err != nil {
		return groove.Held{}, err
	}
	h, _ := s.Hold(k.Mean, k.Cov, k.Tests, k.Told)
	return h, nil
}

// keepHeld brings what is held of a blade's parts up to date with a row that
// was just added to its log; late says that the row is not its last word.
func (s *Store) keepHeld(ctx context.Context, shop uuid.UUID, b Blade, e Entry, late bool) error {
	if b.Set == nil {
		return nil
	}
	if late {
		return s.refoldHeld(ctx, shop, b.ID, *b.Set)
	}
	if !slices.Contains(history.SetKinds, e.Kind) {
		return nil
	}
	d, err := s.DadoSet(ctx, shop, b.ID)
	if err != nil {
		return err
	}
	held, left := history.Parts(d.Set, d.Held, e.row())
	unread(left, b.ID)
	return s.saveHeld(ctx, shop, b.ID, held)
}

// foldHeld folds the whole log of a set.
func (s *Store) foldHeld(ctx context.Context, shop, blade uuid.UUID, set groove.Set) (groove.Held, error) {
	rows, err := s.folded(ctx, shop, blade, history.SetKinds)
	h, left := history.Parts(set, set.New(), rows...)
	unread(left, blade)
	return h, err
}

func (s *Store) refoldHeld(ctx context.Context, shop, blade uuid.UUID, set groove.Set) error {
	h, err := s.foldHeld(ctx, shop, blade, set)
	if err != nil {
		return err
	}
	return s.saveHeld(ctx, shop, blade, h)
}

// heldDrifts reports whether the stored fold of a set differs from its log. With mend
// it stores the fold of the log.
func (s *Store) heldDrifts(ctx context.Context, shop, blade uuid.UUID, mend bool) (bool, error) {
	d, err := s.DadoSet(ctx, shop, blade)
	if err != nil {
		return false, err
	}
	h, err := s.foldHeld(ctx, shop, blade, d.Set)
	if err != nil {
		return false, err
	}
	kept, err := writeHeld(d.Held)
	if err != nil {
		return false, err
	}
	folded, err := writeHeld(h)
	if err == nil && mend {
		err = s.saveHeld(ctx, shop, blade, h)
	}
	return !bytes.Equal(kept, folded), err
}

func (s *Store) saveHeld(ctx context.Context, shop, blade uuid.UUID, h groove.Held) error {
	raw, err := writeHeld(h)
	if err != nil {
		return err
	}
	_, err = s.db.ExecContext(ctx, `UPDATE dado_sets SET held = $3, held_fold = $4 WHERE shop_id = $1 AND blade_id = $2`, shop, blade, raw, history.SetFold)
	return err
}

// holdNew folds the sets whose stored fold is missing or older.
func (s *Store) holdNew(ctx context.Context) error {
	var old []struct {
		Shop  uuid.UUID `db:"shop_id"`
		Blade uuid.UUID `db:"blade_id"`
	}
	if err := s.db.SelectContext(ctx, &old, `SELECT shop_id, blade_id FROM dado_sets WHERE held_fold <> $1 ORDER BY shop_id, blade_id`, history.SetFold); err != nil {
		return err
	}
	for _, o := range old {
		err := s.Atomically(ctx, func(tx *Store) error {
			b, err := tx.lock(ctx, o.Shop, o.Blade)
			if err != nil || b.Set == nil {
				return err
			}
			return tx.refoldHeld(ctx, o.Shop, o.Blade, *b.Set)
		})
		var damaged *record.DamagedError
		if errors.As(err, &damaged) {
			continue // Conditions has said so
		}
		if err != nil {
			return err
		}
	}
	return nil
}
