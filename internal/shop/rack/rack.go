// Package rack keeps what the shop owns: its blades, its saws, and the shop itself.
package rack

import (
	"context"
	"encoding/json"
	"errors"
	"slices"
	"time"

	"github.com/google/uuid"

	"corte/core/blade"
	"corte/core/history"
	"corte/core/say"
	"corte/core/sight"
	"corte/internal/photo"
	"corte/internal/record"
	"corte/internal/refusal"
	"corte/internal/shop/env"
	"corte/internal/store"
)

// A Station does this work in every shop on one database. It holds no state.
type Station struct{ *env.Env }

// At is the station over an environment: a database, or a transaction of one.
func At(k *env.Env) Station { return Station{k} }

// CheckBlade reports the first number that no real blade can have.
func CheckBlade(b store.Blade) error {
	if err := b.Check(); err != nil {
		return refusal.Placed(err)
	}
	switch {
	case b.Set == nil:
		return nil
	case b.Make != blade.Dado:
		return refusal.Of("set", "only a dado stack has parts")
	}
	return refusal.Placed(b.Set.Check())
}

// CheckSaw reports the first number that no real saw can have.
func CheckSaw(w store.Saw) error { return refusal.Placed(w.Check()) }

// AddBlade puts a blade on the rack.
func (s Station) AddBlade(ctx context.Context, shop uuid.UUID, b store.Blade) (store.Blade, error) {
	if err := CheckBlade(b); err != nil {
		return b, err
	}
	if err := s.free(ctx, shop, b.Name, uuid.Nil); err != nil {
		return b, err
	}
	id, err := s.Add(ctx, func(tx *store.Store, id uuid.UUID) error {
		b.ID = id
		return tx.AddBlade(ctx, shop, b)
	})
	if err != nil {
		return b, taken(err)
	}
	return s.Blade(ctx, shop, id)
}

// free refuses a name that a blade of the shop has already, and offers another.
func (s Station) free(ctx context.Context, shop uuid.UUID, name string, but uuid.UUID) error {
	names, err := s.Store.Called(ctx, shop, but)
	if err != nil {
		return err
	}
	if other := record.FreeName(name, names); other != name {
		return &refusal.Error{Reason: refusal.Conflict, Field: "name", What: say.Of("a blade is already called %s. Call this one %s", say.Word(name), say.Word(other))}
	}
	return nil
}

// taken is the refusal of a name that somebody else took at the same moment.
func taken(err error) error {
	if store.IsDuplicate(err) {
		return &refusal.Error{Reason: refusal.Conflict, Field: "name", What: say.Of("another blade was just given this name. Nothing was saved. Choose another name")}
	}
	return err
}

// AddSaw puts a saw into the shop.
func (s Station) AddSaw(ctx context.Context, shop uuid.UUID, w store.Saw) (store.Saw, error) {
	if err := CheckSaw(w); err != nil {
		return w, err
	}
	id, err := s.Add(ctx, func(tx *store.Store, id uuid.UUID) error {
		w.ID = id
		return tx.AddSaw(ctx, shop, w)
	})
	if err != nil {
		return w, err
	}
	return s.Saw(ctx, shop, id)
}

// ChangeBlade writes a blade's numbers over those of the version it carries.
func (s Station) ChangeBlade(ctx context.Context, shop uuid.UUID, b store.Blade) (store.Blade, error) {
	if err := CheckBlade(b); err != nil {
		return b, err
	}
	if err := s.free(ctx, shop, b.Name, b.ID); err != nil {
		return b, err
	}
	if err := s.Store.ChangeBlade(ctx, shop, b); err != nil {
		return b, refusal.Changed(refusal.NotThere(taken(err), "id", "blade"), "blade")
	}
	return s.Blade(ctx, shop, b.ID)
}

// ChangeSaw writes a saw's numbers over those of the version it carries.
func (s Station) ChangeSaw(ctx context.Context, shop uuid.UUID, w store.Saw) (store.Saw, error) {
	if err := CheckSaw(w); err != nil {
		return w, err
	}
	if err := s.Store.ChangeSaw(ctx, shop, w); err != nil {
		return w, refusal.Changed(refusal.NotThere(err, "id", "saw"), "saw")
	}
	return s.Saw(ctx, shop, w.ID)
}

// ChangeShop writes how the shop likes to work over the version it carries.
func (s Station) ChangeShop(ctx context.Context, sh store.Shop) (store.Shop, error) {
	if err := env.CheckZone(sh); err != nil {
		return sh, err
	}
	if err := s.Store.ChangeShop(ctx, sh); err != nil {
		return sh, refusal.Changed(refusal.NotThere(err, "", "shop"), "shop")
	}
	return s.Shop(ctx, sh.ID)
}

// Saw finds one saw of the shop, retired or not.
func (s Station) Saw(ctx context.Context, shop, id uuid.UUID) (store.Saw, error) {
	w, err := s.Store.Saw(ctx, shop, id)
	return w, refusal.NotThere(err, "id", "saw")
}

// RetireBlade takes a blade off the rack and says so in its log.
func (s Station) RetireBlade(ctx context.Context, shop, id uuid.UUID, reason, note string) (store.Blade, error) {
	r := &store.Retired{At: s.Now(), Reason: reason, Note: note}
	return s.setRetired(ctx, shop, id, r)
}

// RestoreBlade puts a retired blade back and says so in its log.
func (s Station) RestoreBlade(ctx context.Context, shop, id uuid.UUID) (store.Blade, error) {
	return s.setRetired(ctx, shop, id, nil)
}

func (s Station) setRetired(ctx context.Context, shop, id uuid.UUID, r *store.Retired) (store.Blade, error) {
	err := s.WithBlade(ctx, shop, id, func(in *env.Env, b store.Blade) error {
		if err := again(b.Name, b.Retired != nil, r != nil); err != nil {
			return err
		}
		if r == nil {
			if err := At(in).free(ctx, shop, b.Name, id); err != nil {
				return err
			}
		} else if err := underWay(ctx, in, shop, func(m store.Mounting) bool { return m.Blade == id }, b.Name); err != nil {
			return err
		}
		if err := in.Store.RetireBlade(ctx, shop, id, r); err != nil {
			return err
		}
		_, err := in.Store.Append(ctx, retiredEntry(ctx, shop, r, s.Now(), &id, nil))
		return err
	})
	if err != nil {
		return store.Blade{}, err
	}
	return s.Blade(ctx, shop, id)
}

// again refuses to retire what is retired, and to restore what is in use.
func again(name string, is, wanted bool) error {
	switch {
	case is && wanted:
		return env.Already("id", "%s is already retired. Nothing was saved", name)
	case !is && !wanted:
		return env.Already("id", "%s is in use already. Nothing was saved", name)
	}
	return nil
}

// underWay refuses to retire a saw or a blade while a mounting of it is open.
func underWay(ctx context.Context, in *env.Env, shop uuid.UUID, of func(store.Mounting) bool, name string) error {
	all, err := in.Store.Mountings(ctx, shop)
	if err == nil && slices.ContainsFunc(all, of) {
		err = env.Already("id", "%s has a mounting in progress. Nothing was saved. Finish or stop it first", name)
	}
	return err
}

// RetireSaw takes a saw out of the shop, or brings it back where reason is
// empty, and says so in the log.
func (s Station) RetireSaw(ctx context.Context, shop, id uuid.UUID, reason, note string) (store.Saw, error) {
	var r *store.Retired
	if reason != "" {
		r = &store.Retired{At: s.Now(), Reason: reason, Note: note}
	}
	err := s.Store.Atomically(ctx, func(tx *store.Store) error {
		in := s.In(tx)
		if err := tx.HoldSaw(ctx, shop, id); err != nil {
			return err
		}
		w, err := At(in).Saw(ctx, shop, id)
		if err != nil {
			return err
		}
		if err := again(w.Name, w.Retired != nil, r != nil); err != nil {
			return err
		}
		if r != nil {
			if err := underWay(ctx, in, shop, func(m store.Mounting) bool { return m.Saw == id }, w.Name); err != nil {
				return err
			}
		}
		if err := tx.RetireSaw(ctx, shop, id, r); err != nil {
			return err
		}
		_, err = tx.Append(ctx, retiredEntry(ctx, shop, r, s.Now(), nil, &id))
		return err
	})
	if err != nil {
		return store.Saw{}, err
	}
	return s.Saw(ctx, shop, id)
}

func retiredEntry(ctx context.Context, shop uuid.UUID, r *store.Retired, at time.Time, blade, saw *uuid.UUID) store.Entry {
	e := store.Entry{Shop: shop, At: at, Kind: history.KindRestored, Blade: blade, Saw: saw, By: env.By(ctx, "")}
	if r != nil {
		e.Kind, e.Note = history.KindRetired, r.Note
		e.Detail, _ = json.Marshal(history.Retired{Reason: r.Reason})
	}
	return e
}

// Whole loads everything that a file of the rack is compared with: saws and
// blades, the retired ones too.
func (s Station) Whole(ctx context.Context, shop uuid.UUID) ([]store.Saw, []store.Blade, error) {
	saws, err := s.Store.Saws(ctx, shop)
	if err != nil {
		return nil, nil, err
	}
	blades, err := s.Store.Blades(ctx, shop, store.Place{}, 0)
	if err != nil {
		return nil, nil, err
	}
	retired, err := s.Store.Blades(ctx, shop, store.Place{Retired: true}, 0)
	return saws, append(blades, retired...), err
}

// Import adds and changes saws and blades, all or none. Rows that carry a
// version are changed, the others added.
func (s Station) Import(ctx context.Context, shop uuid.UUID, saws []store.Saw, blades []store.Blade) error {
	return s.Store.Atomically(ctx, func(tx *store.Store) error {
		for _, w := range saws {
			save := tx.AddSaw
			if w.Version > 0 {
				save = tx.ChangeSaw
			}
			if err := save(ctx, shop, w); err != nil {
				return refusal.Changed(err, "rack")
			}
			if w.Retired != nil {
				if err := tx.RetireSaw(ctx, shop, w.ID, w.Retired); err != nil {
					return err
				}
				if _, err := tx.Append(ctx, retiredEntry(ctx, shop, w.Retired, w.Retired.At, nil, &w.ID)); err != nil {
					return err
				}
			}
		}
		for _, b := range blades {
			save := tx.AddBlade
			if b.Version > 0 {
				save = tx.ChangeBlade
			}
			if retired := b.Retired; retired != nil {
				if err := tx.AddRetired(ctx, shop, b, retired); err != nil {
					return err
				}
				if _, err := tx.Append(ctx, retiredEntry(ctx, shop, retired, retired.At, &b.ID, nil)); err != nil {
					return err
				}
				continue
			}
			if err := save(ctx, shop, b); err != nil {
				return refusal.Changed(taken(err), "rack")
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
	return small, unseen(err)
}

// lookers are the photos that are looked at at once: each takes a hundred
// megabytes and a second or two of a core.
var lookers = make(chan struct{}, 2)

// Look hands a photo on to be read, with how wide and high it is. What cannot be read
// of it is the photo's fault.
func Look(ctx context.Context, file []byte, read func(sight.Picture) error) (wide, high int, err error) {
	select {
	case lookers <- struct{}{}:
		defer func() { <-lookers }()
	case <-ctx.Done():
		return 0, 0, &refusal.Error{Reason: refusal.Busy, Field: "photo", What: say.Of("many photos are being processed. Send it again in a moment")}
	}
	img, err := photo.Upright(ctx, file, sight.EnoughSide)
	if err != nil {
		return 0, 0, unseen(err)
	}
	p := sight.Picture{Wide: img.Rect.Dx(), High: img.Rect.Dy(), Pix: img.Pix}
	if err = read(p); err != nil {
		err = refusal.Of("photo", "%v", err)
	}
	return p.Wide, p.High, err
}

// unseen says why a photo cannot be taken.
func unseen(err error) error {
	var size *photo.SizeError
	switch {
	case errors.Is(err, photo.ErrLate):
		return &refusal.Error{Reason: refusal.Busy, Field: "photo", What: say.Error(err)}
	case errors.Is(err, photo.ErrUnreadable) || errors.As(err, &size):
		return refusal.Of("photo", "%v", err)
	}
	return err
}

// Rack lists every blade of the shop that is not retired.
func (s Station) Rack(ctx context.Context, shop uuid.UUID) ([]store.Blade, error) {
	return s.Store.Rack(ctx, shop)
}

// SetPhoto keeps a photo of a blade that was developed.
func (s Station) SetPhoto(ctx context.Context, shop, id uuid.UUID, developed []byte) (store.Blade, error) {
	b, err := s.Blade(ctx, shop, id)
	if err != nil {
		return b, err
	}
	if err := s.Store.SetPhoto(ctx, shop, id, s.Now(), developed); err != nil {
		return b, err
	}
	return s.Blade(ctx, shop, id)
}

// Photo finds a blade's photo, a JPEG.
func (s Station) Photo(ctx context.Context, shop, id uuid.UUID) ([]byte, error) {
	raw, err := s.Store.Photo(ctx, shop, id)
	return raw, refusal.NotThere(err, "id", "photo")
}

// DropPhoto throws a blade's photo away.
func (s Station) DropPhoto(ctx context.Context, shop, id uuid.UUID) (store.Blade, error) {
	if err := s.Store.DropPhoto(ctx, shop, id); err != nil {
		return store.Blade{}, err
	}
	return s.Blade(ctx, shop, id)
}

// Shop finds a shop.
func (s Station) Shop(ctx context.Context, id uuid.UUID) (store.Shop, error) {
	shop, err := s.Store.Shop(ctx, id)
	return shop, refusal.NotThere(err, "", "shop")
}

// Saws lists the shop's saws by name.
func (s Station) Saws(ctx context.Context, shop uuid.UUID) ([]store.Saw, error) {
	return s.Store.Saws(ctx, shop)
}

// Blades lists one page of the rack by name, and the place where the next page
// begins, if there is one.
func (s Station) Blades(ctx context.Context, shop uuid.UUID, after store.Place, limit int) ([]store.Blade, *store.Place, error) {
	page, err := s.Store.Blades(ctx, shop, after, limit+1)
	if err != nil || len(page) <= limit {
		return page, nil, err
	}
	last := page[limit-1]
	return page[:limit], &store.Place{Name: last.Name, ID: last.ID}, nil
}

// Blade finds one blade of the rack.
func (s Station) Blade(ctx context.Context, shop, id uuid.UUID) (store.Blade, error) {
	b, err := s.Store.Blade(ctx, shop, id)
	return b, refusal.NotThere(err, "id", "blade")
}
