package people

import (
	"context"
	"errors"
	"time"

	"github.com/google/uuid"

	"corte/core/say"
	"corte/internal/account"
	"corte/internal/record"
	"corte/internal/refusal"
	"corte/internal/store"
)

// Passes are what opens the shop without a password, the newest first.
func (s Station) Passes(ctx context.Context, shop uuid.UUID) ([]store.Pass, error) {
	return s.Store.Passes(ctx, shop, s.Now())
}

func (s Station) add(ctx context.Context, p store.Pass, days int, what string) (secret string, ends time.Time, err error) {
	secret = account.Secret()
	p.ID, p.Digest, p.Made, p.MadeBy = uuid.New(), account.Digest(secret), s.Now(), record.ActorOf(ctx).Who()
	if days > 0 {
		ends = s.Now().Add(time.Duration(days) * 24 * time.Hour)
		p.Ends = &ends
	}
	err = s.Store.Atomically(ctx, func(tx *store.Store) error {
		if err := tx.AddPass(ctx, p); err != nil {
			return err
		}
		return audit(ctx, tx, p.Shop, s.Now(), what, p.Name)
	})
	return secret, ends, err
}

// AddTablet makes what a tablet of the shop is known by. Nobody has tapped
// themselves on it yet: until then it only looks.
func (s Station) AddTablet(ctx context.Context, shop uuid.UUID, name string) (secret string, err error) {
	secret, _, err = s.add(ctx, store.Pass{Shop: shop, Kind: "tablet", Name: name, Role: record.Viewer.String()}, 0, "made a shop tablet")
	return secret, err
}

// AddToken makes what a script comes in by. It may never more than who made it
// may at that time.
func (s Station) AddToken(ctx context.Context, shop uuid.UUID, name string, role record.Role, days int) (secret string, ends time.Time, err error) {
	return s.add(ctx, store.Pass{Shop: shop, Kind: "token", Name: name, Role: role.String(), Member: record.ActorOf(ctx).Member}, days, "made a token as "+role.String())
}

// AddGuest makes what a saw doctor reads the report of one blade by.
func (s Station) AddGuest(ctx context.Context, shop, blade uuid.UUID, name string, days int) (secret string, ends time.Time, err error) {
	b, err := s.Store.Blade(ctx, shop, blade)
	if err != nil {
		return "", ends, refusal.NotThere(err, "id", "blade")
	}
	return s.add(ctx, store.Pass{Shop: shop, Kind: "guest", Name: name, Role: record.Viewer.String(), Blade: &blade}, days, "created a guest link for "+b.Name)
}

// EndTokens ends the tokens that a person made in any shop. It is asked in no
// shop.
func (s Station) EndTokens(ctx context.Context, person uuid.UUID) error {
	all, err := s.Store.Belongings(ctx, person)
	if err != nil {
		return err
	}
	for _, b := range all {
		if err := s.Store.EndPassesOf(ctx, b.Shop, b.ID, s.Now(), true); err != nil {
			return err
		}
	}
	return nil
}

// Withdraw lets a pass open nothing any more.
func (s Station) Withdraw(ctx context.Context, shop, id uuid.UUID) error {
	return s.Store.Atomically(ctx, func(tx *store.Store) error {
		p, err := tx.EndPass(ctx, shop, id, s.Now())
		if err != nil {
			return refusal.NotThere(err, "id", "pass")
		}
		return audit(ctx, tx, shop, s.Now(), "revoked a "+p.Kind, p.Name)
	})
}

var errGuest = &refusal.Error{Reason: refusal.Missing, What: say.Of("this link no longer works. Ask the shop for a new one")}

// Guest finds whose report the holder of a secret may read. It is asked in no
// shop.
func (s Station) Guest(ctx context.Context, secret string) (store.Pass, store.Shop, error) {
	p, err := s.Store.PassOf(ctx, "guest", account.Digest(secret), s.Now())
	if errors.Is(err, store.ErrNone) {
		return p, store.Shop{}, errGuest
	}
	if err != nil {
		return p, store.Shop{}, err
	}
	if err := s.Store.UsedPass(ctx, p, s.Now()); err != nil {
		return p, store.Shop{}, err
	}
	sh, err := s.Store.Shop(ctx, p.Shop)
	return p, sh, err
}

// Audit are what an owner looks up, older than an ID, 0 for any.
func (s Station) Audit(ctx context.Context, shop uuid.UUID, before int64, limit int) ([]store.Audited, error) {
	return s.Store.AuditBefore(ctx, shop, before, limit)
}
