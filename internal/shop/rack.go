package shop

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"image"
	_ "image/png" // photos come as PNG as well
	"io"
	"time"

	"github.com/disintegration/imaging"
	"github.com/google/uuid"
	_ "golang.org/x/image/webp" // and as WebP

	"corte/core/blade"
	"corte/core/measure"
	"corte/core/saw"
	"corte/internal/store"
)

// CheckBlade reports the first number that no real blade can have.
func CheckBlade(b store.Blade) error {
	var be *blade.Error
	if err := b.Check(); errors.As(err, &be) {
		return invalid(be.Field, "%s", be.Reason)
	}
	switch {
	case b.Set == nil:
		return nil
	case b.Make != blade.Dado:
		return invalid("set", "only a dado set has parts")
	}
	return grooveError(b.Set.Check(measure.Millimetre))
}

// CheckSaw reports the first number that no real saw can have.
func CheckSaw(w store.Saw) error {
	var se *saw.Error
	if err := w.Check(); errors.As(err, &se) {
		return invalid(se.Field, "%s", se.Reason)
	}
	return nil
}

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

const (
	photoSide   = 1280 // pixels, the longer side of what is kept
	photoPixels = 50e6 // of what is taken: 200 MB once it is decoded, and as much again to turn it
	photoTone   = 82   // JPEG quality
)

// developing holds a place for each photo that is worked on at once.
var developing = make(chan struct{}, 2)

// A patientReader ends when its request does, and the decoder with it.
type patientReader struct {
	ctx context.Context
	io.Reader
}

func (r patientReader) Read(p []byte) (int, error) {
	if err := r.ctx.Err(); err != nil {
		return 0, err
	}
	return r.Reader.Read(p)
}

// SetPhoto keeps a photo of a blade: turned upright, made smaller and encoded
// anew, so that nothing else that was in the file is kept.
func (s *Service) SetPhoto(ctx context.Context, shop, id uuid.UUID, file io.Reader) (store.Blade, error) {
	b, err := s.Blade(ctx, shop, id)
	if err != nil {
		return b, err
	}
	raw, err := io.ReadAll(file)
	if err != nil {
		return b, err
	}
	const unreadable = "this is not a photo that can be read; send a JPEG, PNG or WebP"
	size, _, err := image.DecodeConfig(bytes.NewReader(raw))
	if err != nil {
		return b, invalid("photo", unreadable)
	}
	if size.Width*size.Height > photoPixels {
		return b, invalid("photo", "%d by %d pixels are more than are needed; send at most 50 million", size.Width, size.Height)
	}
	late := &Error{Busy, "photo", "many photos are being made smaller just now, and there was no time for this one; nothing was saved. Send it again, or a smaller one"}
	select {
	case developing <- struct{}{}:
		defer func() { <-developing }()
	case <-ctx.Done():
		return b, late
	}
	picture, err := imaging.Decode(patientReader{ctx, bytes.NewReader(raw)}, imaging.AutoOrientation(true))
	switch {
	case ctx.Err() != nil:
		return b, late
	case err != nil:
		return b, invalid("photo", unreadable)
	}
	var out bytes.Buffer
	if err := imaging.Encode(&out, imaging.Fit(picture, photoSide, photoSide, imaging.Lanczos), imaging.JPEG, imaging.JPEGQuality(photoTone)); err != nil {
		return b, err
	}
	if err := s.st.SetPhoto(ctx, shop, id, s.now(), out.Bytes()); err != nil {
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
