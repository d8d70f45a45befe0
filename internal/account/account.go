// Package account verifies who a person is: by name and password, by a recovery
// code, or by a passkey. It depends on no shop. A wrong name and a wrong
// password give the same answer after the same time. Attempts are limited by
// account and by address; a browser on which the owner has signed in before has
// a limit of its own, so that attempts of others lock no owner out.
package account

import (
	"context"
	"crypto/rand"
	"crypto/sha256"
	"encoding/base64"
	"errors"
	"net/netip"
	"strings"
	"time"

	"github.com/alexedwards/argon2id"
	"github.com/google/uuid"
	"golang.org/x/text/secure/precis"

	"corte/core/say"
	"corte/internal/refusal"
	"corte/internal/store"
)

// A Desk is where accounts are looked after.
type Desk struct {
	Store *store.Store
	Now   func() time.Time
	Cost  *argon2id.Params // of a hash; nil for the usual

	hashing chan struct{} // each takes tens of megabytes: only so many at once
	dummy   string        // what a name that is not there is compared with
}

// At is a desk over a store.
func At(st *store.Store, now func() time.Time, cost *argon2id.Params) (*Desk, error) {
	if cost == nil {
		cost = argon2id.DefaultParams
	}
	d := &Desk{Store: st, Now: now, Cost: cost, hashing: make(chan struct{}, hashesAtOnce)}
	var err error
	d.dummy, err = argon2id.CreateHash(rand.Text(), cost)
	return d, err
}

const (
	hashesAtOnce = 4
	// Forget is after how long tries are forgotten.
	Forget     = 15 * time.Minute
	perAccount = 10  // tries in that time, on browsers that never signed in
	perBrowser = 20  // on one that did
	perAddress = 100 // passwords from one address: a shop may share one
	perLink    = 300 // links and passkey challenges from one address
	perPin     = 6
	codes      = 10
)

// Errors that say why nobody came in.
var (
	errWrong = &refusal.Error{Reason: refusal.Unknown, What: say.Of("name and password don't match. Check Caps Lock and try again")}
	errCode  = &refusal.Error{Reason: refusal.Unknown, What: say.Of("name and recovery code don't match, or the code was used before")}
	errOften = &refusal.Error{Reason: refusal.TooOften, What: say.Of("too many attempts. Wait 15 minutes, or use a passkey, a recovery code, or a browser you signed in on before")}
)

// Digest is what is kept of a secret that is long and drawn by chance.
func Digest(secret string) []byte {
	sum := sha256.Sum256([]byte(secret))
	return sum[:]
}

// Secret draws one of 130 bits.
func Secret() string { return rand.Text() }

// fold is a name as names are compared: capitals, widths and blanks do not tell
// two people apart. A name that cannot be one folds to nothing.
func fold(name string) string {
	key, err := precis.Nickname.CompareKey(name)
	if err != nil {
		return ""
	}
	return key
}

// Hash is what is kept of a password or a PIN.
func (d *Desk) Hash(ctx context.Context, secret string) (string, error) {
	if err := d.turn(ctx); err != nil {
		return "", err
	}
	defer func() { <-d.hashing }()
	return argon2id.CreateHash(prepared(secret), d.Cost)
}

// Matches reports whether a secret is what a hash is of.
func (d *Desk) Matches(ctx context.Context, secret, hash string) (bool, error) {
	if err := d.turn(ctx); err != nil {
		return false, err
	}
	defer func() { <-d.hashing }()
	return argon2id.ComparePasswordAndHash(prepared(secret), hash)
}

func (d *Desk) turn(ctx context.Context) error {
	select {
	case d.hashing <- struct{}{}:
		return nil
	case <-ctx.Done():
		return ctx.Err()
	}
}

// prepared is a password as it is hashed, the same however a keyboard composes
// its letters.
func prepared(password string) string {
	if p, err := precis.OpaqueString.String(password); err == nil {
		return p
	}
	return password
}

// Limit counts a try under a key and refuses where there were more than most.
func (d *Desk) Limit(ctx context.Context, key string, most int) error {
	n, err := d.Store.Try(ctx, key, d.Now(), Forget)
	if err == nil && n > most {
		err = errOften
	}
	return err
}

func accountKey(folded string) string {
	return "account " + base64.RawStdEncoding.EncodeToString(Digest(folded))
}

// network is what an address is counted as. Anybody has as many addresses of
// version 6 as they like, so those count by their network of 64 bits.
func network(address string) string {
	if at, err := netip.ParseAddr(address); err == nil && at.Is6() && !at.Is4In6() {
		if n, err := at.WithZone("").Prefix(64); err == nil {
			return n.String()
		}
	}
	return address
}

// A Counter is one kind of attempt. Each is counted apart, so that using up one
// of them closes no other.
type Counter string

// Attempts that are counted by the address they come from.
const (
	Links        Counter = "link"     // invitations, guests' links, calendars
	Passkeys     Counter = "passkey"  // challenges, which cost a session each
	recoveries   Counter = "recovery" // recovery codes, which cannot be guessed
	passwordsOut Counter = "address"  // passwords from browsers that are not known
)

// From counts an attempt from an address, and refuses it where there were too
// many of its kind in the last quarter of an hour.
func (d *Desk) From(ctx context.Context, kind Counter, address string) error {
	most := perLink
	if kind == passwordsOut {
		most = perAddress
	}
	return d.Limit(ctx, string(kind)+" "+network(address), most)
}

// SignIn answers whose name and password these are. browser is the secret of a
// browser that somebody signed in on before, or empty.
func (d *Desk) SignIn(ctx context.Context, name, password, address, browser string) (store.Person, error) {
	folded := fold(name)
	p, err := d.Store.PersonNamed(ctx, folded)
	missing := errors.Is(err, store.ErrNone)
	if err != nil && !missing {
		return p, err
	}
	// For a name that is not there the same is done, in the same order.
	known, err := d.Store.KnowsBrowser(ctx, p.ID, Digest(browser))
	if err != nil {
		return p, err
	}
	key, most := accountKey(folded), perAccount
	if known {
		key, most = "browser "+base64.RawStdEncoding.EncodeToString(Digest(browser)), perBrowser
	} else if err := d.From(ctx, passwordsOut, address); err != nil {
		return store.Person{}, err // neighbors at one address never close a browser that is known
	}
	if err := d.Limit(ctx, key, most); err != nil {
		return p, err
	}
	hash := p.Password
	if missing {
		hash = d.dummy
	}
	ok, err := d.Matches(ctx, password, hash)
	if err != nil {
		return p, err
	}
	if !ok || missing {
		return store.Person{}, errWrong
	}
	return p, d.Store.Forgive(ctx, key)
}

// Again checks the password of who is signed in, before what only they may do.
func (d *Desk) Again(ctx context.Context, person uuid.UUID, password string) error {
	p, err := d.Store.Person(ctx, person)
	if err == nil {
		err = d.Limit(ctx, "again "+person.String(), perBrowser)
	}
	if err != nil {
		return err
	}
	ok, err := d.Matches(ctx, password, p.Password)
	if err == nil && !ok {
		return &refusal.Error{Reason: refusal.Forbidden, Field: "password", What: say.Of("that isn't your password. Nothing was changed")}
	}
	return err
}

// Named finds whose name this is.
func (d *Desk) Named(ctx context.Context, name string) (store.Person, error) {
	return d.Store.PersonNamed(ctx, fold(name))
}

// New makes an account.
func (d *Desk) New(ctx context.Context, st *store.Store, name, password string) (store.Person, error) {
	folded := fold(name)
	if folded == "" {
		return store.Person{}, refusal.Of("name", "a name needs at least one visible letter and no invisible characters")
	}
	if err := strong(password, folded); err != nil {
		return store.Person{}, err
	}
	hash, err := d.Hash(ctx, password)
	if err != nil {
		return store.Person{}, err
	}
	p := store.Person{ID: uuid.New(), Name: strings.TrimSpace(name), Folded: folded, Password: hash, Epoch: 1, Since: d.Now()}
	err = st.AddPerson(ctx, p)
	if store.IsDuplicate(err) {
		err = &refusal.Error{Reason: refusal.Conflict, Field: "name", What: say.Of("this name is taken. Choose another one to sign in with, such as one with your initials. If it is yours, sign in first and open the invitation again")}
	}
	return p, err
}

// strong refuses what is guessed first. Length is what counts.
func strong(password, folded string) error {
	if folded != "" && fold(password) == folded {
		return refusal.Of("password", "a password like the name is guessed first. Use a few words that have nothing to do with it")
	}
	first := rune(-1)
	for _, r := range password {
		if first == -1 {
			first = r
		}
		if r != first {
			return nil
		}
	}
	return refusal.Of("password", "one repeated letter is guessed first. Use a few words")
}

// ChangePassword sets a new one and ends all sessions; it answers the epoch of
// those that begin now.
func (d *Desk) ChangePassword(ctx context.Context, person uuid.UUID, password string) (epoch int, err error) {
	p, err := d.Store.Person(ctx, person)
	if err == nil {
		err = strong(password, p.Folded)
	}
	if err != nil {
		return 0, err
	}
	hash, err := d.Hash(ctx, password)
	if err != nil {
		return 0, err
	}
	return d.Store.NewEpoch(ctx, person, hash)
}

// Recover answers whose name and code these are, uses the code up and sets a new
// password, all or nothing.
func (d *Desk) Recover(ctx context.Context, name, code, password, address string) (p store.Person, err error) {
	if err := d.From(ctx, recoveries, address); err != nil {
		return p, err
	}
	folded := fold(name)
	if err := strong(password, folded); err != nil {
		return p, err
	}
	hash, err := d.Hash(ctx, password) // before it is known whether there is such a name
	if err != nil {
		return p, err
	}
	code = strings.ToUpper(strings.NewReplacer("-", "", " ", "").Replace(code))
	err = d.Store.Atomically(ctx, func(tx *store.Store) error {
		p, err = tx.PersonNamed(ctx, folded)
		if err != nil && !errors.Is(err, store.ErrNone) {
			return err
		}
		used, err := tx.UseCode(ctx, p.ID, Digest(code))
		if err != nil {
			return err
		}
		if !used {
			return errCode
		}
		p.Epoch, err = tx.NewEpoch(ctx, p.ID, hash)
		return err
	})
	return p, err
}

// MakeCodes makes recovery codes in place of all earlier ones.
func (d *Desk) MakeCodes(ctx context.Context, person uuid.UUID) (all []string, err error) {
	digests := make([][]byte, codes)
	for i := range digests {
		raw := rand.Text()[:20] // 100 bits
		digests[i] = Digest(raw)
		all = append(all, raw[:5]+"-"+raw[5:10]+"-"+raw[10:15]+"-"+raw[15:])
	}
	err = d.Store.Atomically(ctx, func(tx *store.Store) error { return tx.SetCodes(ctx, person, digests) })
	return all, err
}

// Pin checks the PIN of a member at a tablet.
func (d *Desk) Pin(ctx context.Context, m store.Member, pin string) error {
	if err := d.Limit(ctx, "pin "+m.ID.String(), perPin); err != nil {
		return &refusal.Error{Reason: refusal.TooOften, Field: "pin", What: say.Of("too many PIN attempts. Wait 15 minutes, or sign in with your password")}
	}
	ok, err := d.Matches(ctx, pin, m.Pin)
	if err != nil {
		return err
	}
	if !ok || m.Pin == "" {
		return &refusal.Error{Reason: refusal.Unknown, Field: "pin", What: say.Of("wrong PIN for this name")}
	}
	return d.Store.Forgive(ctx, "pin "+m.ID.String())
}

// Apart is the context in which accounts are kept: none of a shop's.
func Apart(ctx context.Context) context.Context { return store.For(ctx, uuid.Nil) }
