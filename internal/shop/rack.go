package shop

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"github.com/google/uuid"

	"corte/core/blade"
	"corte/core/measure"
	"corte/internal/photo"
	"corte/internal/store"
)

// CheckBlade reports the first number that no real blade can have.
func CheckBlade(b store.Blade) error {
	if err := b.Check(); err != nil {
		return refused(err)
	}
	switch {
	case b.Set == nil:
		return nil
	case b.Make != blade.Dado:
		return invalid("set", "only a dado set has parts")
	}
	return refused(b.Set.Check(measure.Millimetre))
}

// CheckSaw reports the first number that no real saw can have.
func CheckSaw(w store.Saw) error { return refused(w.Check()) }

// AddBlade puts a blade on the rack.
func (s *Service) AddBlade(ctx context.Context, shop uuid.UUID, b store.Blade) (store.Blade, error) {
	if err := CheckBlade(b); err != nil {
		return b, err
	}
	id, err := s.add(ctx, func(tx *store.Store, id uuid.UUID) error {
		b.ID = id
		return tx.AddBlade(ctx, shop, b)
	})
	if err != nil {
		return b, err
	}
	return s.Blade(ctx, shop, id)
}

// AddSaw puts a saw into the shop.
func (s *Service) AddSaw(ctx context.Context, shop uuid.UUID, w store.Saw) (store.Saw, error) {
	if err := CheckSaw(w); err != nil {
		return w, err
	}
	id, err := s.add(ctx, func(tx *store.Store, id uuid.UUID) error {
		w.ID = id
		return tx.AddSaw(ctx, shop, w)
	})
	if err != nil {
		return w, err
	}
	return s.Saw(ctx, shop, id)
}

// add makes a row under a new id, with all that hangs on it, or nothing.
func (s *Service) add(ctx context.Context, make func(*store.Store, uuid.UUID) error) (uuid.UUID, error) {
	id := uuid.New()
	return id, s.st.Atomically(ctx, func(tx *store.Store) error { return make(tx, id) })
}

// ChangeBlade writes a blade's numbers over those of the version it carries.
func (s *Service) ChangeBlade(ctx context.Context, shop uuid.UUID, b store.Blade) (store.Blade, error) {
	if err := CheckBlade(b); err != nil {
		return b, err
	}
	if err := s.st.ChangeBlade(ctx, shop, b); err != nil {
		return b, stale(missing(err, "id", "blade"), "blade")
	}
	return s.Blade(ctx, shop, b.ID)
}

// ChangeSaw writes a saw's numbers over those of the version it carries.
func (s *Service) ChangeSaw(ctx context.Context, shop uuid.UUID, w store.Saw) (store.Saw, error) {
	if err := CheckSaw(w); err != nil {
		return w, err
	}
	if err := s.st.ChangeSaw(ctx, shop, w); err != nil {
		return w, stale(missing(err, "id", "saw"), "saw")
	}
	return s.Saw(ctx, shop, w.ID)
}

// ChangeShop writes how the shop likes to work over the version it carries.
func (s *Service) ChangeShop(ctx context.Context, sh store.Shop) (store.Shop, error) {
	if err := checkZone(sh); err != nil {
		return sh, err
	}
	if err := s.st.ChangeShop(ctx, sh); err != nil {
		return sh, stale(missing(err, "", "shop"), "shop")
	}
	return s.Shop(ctx, sh.ID)
}

func stale(err error, what string) error {
	if errors.Is(err, store.ErrStale) {
		return &Error{Stale, "", fmt.Sprintf("somebody else has changed this %s since you opened it; nothing was saved. Look at what they changed, then save again", what)}
	}
	return err
}

// Saw finds one saw of the shop, retired or not.
func (s *Service) Saw(ctx context.Context, shop, id uuid.UUID) (store.Saw, error) {
	w, err := s.st.Saw(ctx, shop, id)
	return w, missing(err, "id", "saw")
}

// RetireBlade takes a blade off the rack and says so in its log.
func (s *Service) RetireBlade(ctx context.Context, shop, id uuid.UUID, reason, note string) (store.Blade, error) {
	r := &store.Retired{At: s.now(), Reason: reason, Note: note}
	return s.setRetired(ctx, shop, id, r)
}

// RestoreBlade puts a retired blade back and says so in its log.
func (s *Service) RestoreBlade(ctx context.Context, shop, id uuid.UUID) (store.Blade, error) {
	return s.setRetired(ctx, shop, id, nil)
}

func (s *Service) setRetired(ctx context.Context, shop, id uuid.UUID, r *store.Retired) (store.Blade, error) {
	b, err := s.Blade(ctx, shop, id)
	if err != nil || (b.Retired == nil) == (r == nil) {
		return b, err // as it should be already
	}
	err = s.st.Atomically(ctx, func(tx *store.Store) error {
		if err := tx.RetireBlade(ctx, shop, id, r); err != nil {
			return err
		}
		_, err := tx.Append(ctx, retiredEntry(shop, r, s.now(), &id, nil))
		return err
	})
	if err != nil {
		return b, missing(err, "id", "blade")
	}
	return s.Blade(ctx, shop, id)
}

// RetireSaw takes a saw out of the shop, or brings it back where reason is
// empty, and says so in the log.
func (s *Service) RetireSaw(ctx context.Context, shop, id uuid.UUID, reason, note string) (store.Saw, error) {
	var r *store.Retired
	if reason != "" {
		r = &store.Retired{At: s.now(), Reason: reason, Note: note}
	}
	w, err := s.Saw(ctx, shop, id)
	if err != nil || (w.Retired == nil) == (r == nil) {
		return w, err
	}
	err = s.st.Atomically(ctx, func(tx *store.Store) error {
		if err := tx.RetireSaw(ctx, shop, id, r); err != nil {
			return err
		}
		_, err := tx.Append(ctx, retiredEntry(shop, r, s.now(), nil, &id))
		return err
	})
	if err != nil {
		return w, missing(err, "id", "saw")
	}
	return s.Saw(ctx, shop, id)
}

func retiredEntry(shop uuid.UUID, r *store.Retired, at time.Time, blade, saw *uuid.UUID) store.Entry {
	e := store.Entry{Shop: shop, At: at, Kind: store.KindRestored, Blade: blade, Saw: saw}
	if r != nil {
		e.Kind, e.Note = store.KindRetired, r.Note
		e.Detail, _ = json.Marshal(store.RetiredDetail{Reason: r.Reason})
	}
	return e
}

// Whole loads everything that a file of the rack is compared with: saws and
// blades, the retired ones too.
func (s *Service) Whole(ctx context.Context, shop uuid.UUID) ([]store.Saw, []store.Blade, error) {
	saws, err := s.st.Saws(ctx, shop)
	if err != nil {
		return nil, nil, err
	}
	blades, err := s.st.Blades(ctx, shop, store.Place{}, 0)
	if err != nil {
		return nil, nil, err
	}
	retired, err := s.st.Blades(ctx, shop, store.Place{Retired: true}, 0)
	return saws, append(blades, retired...), err
}

// Import adds and changes saws and blades, all or none. Rows that carry a
// version are changed, the others added.
func (s *Service) Import(ctx context.Context, shop uuid.UUID, saws []store.Saw, blades []store.Blade) error {
	return s.st.Atomically(ctx, func(tx *store.Store) error {
		for _, w := range saws {
			save := tx.AddSaw
			if w.Version > 0 {
				save = tx.ChangeSaw
			}
			if err := save(ctx, shop, w); err != nil {
				return stale(err, "rack")
			}
		}
		for _, b := range blades {
			save := tx.AddBlade
			if b.Version > 0 {
				save = tx.ChangeBlade
			}
			if err := save(ctx, shop, b); err != nil {
				return stale(err, "rack")
			}
		}
		return nil
	})
}

const photoSide = 1280 // pixels, the longer side of what is kept

// Develop makes a photo ready to be kept: turned upright, made smaller and
// encoded anew, so that nothing else that was in the file is kept. It takes its
// time, and so comes before any transaction.
func Develop(ctx context.Context, file []byte) ([]byte, error) {
	small, err := photo.Small(ctx, file, photoSide)
	var size *photo.SizeError
	switch {
	case errors.Is(err, photo.ErrLate):
		return nil, &Error{Busy, "photo", err.Error()}
	case errors.Is(err, photo.ErrUnreadable) || errors.As(err, &size):
		return nil, invalid("photo", "%v", err)
	}
	return small, err
}

// SetPhoto keeps a photo of a blade that was developed.
func (s *Service) SetPhoto(ctx context.Context, shop, id uuid.UUID, developed []byte) (store.Blade, error) {
	b, err := s.Blade(ctx, shop, id)
	if err != nil {
		return b, err
	}
	if err := s.st.SetPhoto(ctx, shop, id, s.now(), developed); err != nil {
		return b, err
	}
	return s.Blade(ctx, shop, id)
}

// Photo finds a blade's photo, a JPEG.
func (s *Service) Photo(ctx context.Context, shop, id uuid.UUID) ([]byte, error) {
	raw, err := s.st.Photo(ctx, shop, id)
	return raw, missing(err, "id", "photo")
}

// DropPhoto throws a blade's photo away.
func (s *Service) DropPhoto(ctx context.Context, shop, id uuid.UUID) (store.Blade, error) {
	if err := s.st.DropPhoto(ctx, shop, id); err != nil {
		return store.Blade{}, err
	}
	return s.Blade(ctx, shop, id)
}
