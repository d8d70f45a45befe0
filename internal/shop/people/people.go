// Package people manages who belongs to a shop: roles, invitations, passes, and
// the cuts that a member may make alone. Sign-in is in package account.
package people

import (
	"cmp"
	"context"
	"errors"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"

	"corte/core/guide"
	"corte/core/practice"
	"corte/core/say"
	"corte/internal/account"
	"corte/internal/record"
	"corte/internal/refusal"
	"corte/internal/shop/env"
	shoppractice "corte/internal/shop/practice"
	"corte/internal/store"
)

// A Station does this work in every shop on one database.
type Station struct{ *env.Env }

// At is the station over an environment: a database, or a transaction of one.
func At(k *env.Env) Station { return Station{k} }

const (
	invitationLifetime = 7 * 24 * time.Hour
	firstLifetime      = 24 * time.Hour // the one that the console shows
)

// A Member belongs to the shop, with what they are signed off for, and how they
// stand with the drills; the last is nil for who may not know it of another.
type Member struct {
	store.Member
	SignedOff []store.SignOff
	Drills    []practice.Standing
}

// All are the shop's people, by name.
func (s Station) All(ctx context.Context, shop uuid.UUID) ([]Member, error) {
	rows, err := s.Store.Members(ctx, shop, s.Now())
	if err != nil {
		return nil, err
	}
	offs, err := s.Store.SignOffs(ctx, shop, nil)
	if err != nil {
		return nil, err
	}
	who := record.ActorOf(ctx)
	owner := who.Role == record.Owner
	var practised []store.Practised
	switch {
	case owner:
		practised, err = s.Store.PractisedByAll(ctx, shop)
	case who.Member != nil:
		practised, err = s.Store.Practised(ctx, shop, who.Member)
	}
	by := map[uuid.UUID][]store.Practised{}
	for _, p := range practised {
		by[*p.Member] = append(by[*p.Member], p)
	}
	out := make([]Member, len(rows))
	for i, m := range rows {
		out[i].Member = m
		if owner || who.Member != nil && *who.Member == m.ID {
			out[i].Drills = practice.Stand(shoppractice.Done(by[m.ID]), s.Now())
		}
		for _, o := range offs {
			if o.Member == m.ID {
				out[i].SignedOff = append(out[i].SignedOff, o)
			}
		}
	}
	return out, err
}

// One is one of them.
func (s Station) One(ctx context.Context, shop, id uuid.UUID) (Member, error) {
	all, err := s.All(ctx, shop)
	if err != nil {
		return Member{}, err
	}
	if i := slices.IndexFunc(all, func(m Member) bool { return m.ID == id }); i >= 0 {
		return all[i], nil
	}
	return Member{}, refusal.NotThere(store.ErrNone, "id", "person")
}

// audit writes down what the actor of a context does.
func audit(ctx context.Context, tx *store.Store, shop uuid.UUID, now time.Time, what, about string) error {
	who := record.ActorOf(ctx)
	return tx.Audit(ctx, store.Audited{Shop: shop, At: now, Who: who.Who(), What: what, About: about, Address: who.Address})
}

// Note writes down what the actor of a context did.
func (s Station) Note(ctx context.Context, shop uuid.UUID, what, about string) error {
	return audit(ctx, s.Store, shop, s.Now(), what, about)
}

// named refuses a name that somebody else of the shop has: work goes under it.
func named(ctx context.Context, tx *store.Store, shop, but uuid.UUID, name string, now time.Time) error {
	if strings.TrimSpace(name) == "" {
		return refusal.Of("name", "enter a name")
	}
	all, err := tx.Members(ctx, shop, now)
	if err != nil {
		return err
	}
	for _, m := range all {
		if m.ID != but && strings.EqualFold(m.Name, name) {
			return &refusal.Error{Reason: refusal.Conflict, Field: "name", What: say.Of("there is already a %s in this shop. Entries go by name, so use another one, such as one with an initial", say.Word(m.Name))}
		}
	}
	return nil
}

// Add adds somebody to the shop.
func (s Station) Add(ctx context.Context, shop uuid.UUID, name string, role record.Role) (Member, error) {
	id := uuid.New()
	err := s.Store.Atomically(ctx, func(tx *store.Store) error {
		if _, err := tx.HoldPeople(ctx, shop); err != nil {
			return err
		}
		name = strings.TrimSpace(name)
		if err := named(ctx, tx, shop, uuid.Nil, name, s.Now()); err != nil {
			return err
		}
		if err := tx.AddMember(ctx, store.Member{Shop: shop, ID: id, Name: name, Role: role.String(), Since: s.Now()}); err != nil {
			return err
		}
		return audit(ctx, tx, shop, s.Now(), "added a person as "+role.String(), name)
	})
	if err != nil {
		return Member{}, err
	}
	return s.One(ctx, shop, id)
}

// change changes a member under a lock. The last owner who can sign in stays
// one, or nobody could let anybody in.
func (s Station) change(ctx context.Context, shop, id uuid.UUID, version int, f func(*store.Member) (what string)) error {
	return s.Store.Atomically(ctx, func(tx *store.Store) error {
		owners, err := tx.HoldPeople(ctx, shop)
		if err != nil {
			return err
		}
		m, err := tx.Member(ctx, shop, id)
		if err != nil {
			return refusal.NotThere(err, "id", "person")
		}
		was := m
		what := f(&m)
		if version > 0 {
			m.Version = version
		}
		lost := was.Role == record.Owner.String() && was.Person != nil && (m.Role != was.Role || m.Gone != nil)
		if lost && owners == 1 {
			return &refusal.Error{Reason: refusal.Conflict, Field: "role", What: say.Of("%s is the only owner who can sign in. Make another person an owner first", say.Word(was.Name))}
		}
		if m.Name != was.Name {
			if err := named(ctx, tx, shop, id, m.Name, s.Now()); err != nil {
				return err
			}
		}
		if err := tx.ChangeMember(ctx, m); err != nil {
			return refusal.Changed(err, "person")
		}
		if m.Gone != nil || m.Role != was.Role {
			// What was promised them as something else is promised no more, and tokens of
			// theirs end where they may do less than before.
			from, _ := record.ParseRole(was.Role)
			to, _ := record.ParseRole(m.Role)
			if err := tx.EndPassesOf(ctx, shop, id, s.Now(), m.Gone != nil || to < from); err != nil {
				return err
			}
		}
		return audit(ctx, tx, shop, s.Now(), what, was.Name)
	})
}

// Change gives somebody another name or role.
func (s Station) Change(ctx context.Context, shop, id uuid.UUID, version int, name string, role record.Role) (Member, error) {
	err := s.change(ctx, shop, id, version, func(m *store.Member) string {
		was := m.Role
		m.Name, m.Role = strings.TrimSpace(name), role.String()
		if was != m.Role {
			return "changed a role from " + was + " to " + m.Role
		}
		return "changed a name to " + m.Name
	})
	if err != nil {
		return Member{}, err
	}
	return s.One(ctx, shop, id)
}

// Remove lets somebody belong to the shop no more; what they did stays under
// their name.
func (s Station) Remove(ctx context.Context, shop, id uuid.UUID) error {
	now := s.Now()
	return s.change(ctx, shop, id, 0, func(m *store.Member) string {
		m.Gone = &now
		return "removed a person"
	})
}

// SetPin keeps the hash of a PIN, or forgets the one there was where it is empty.
func (s Station) SetPin(ctx context.Context, shop, id uuid.UUID, hash string) error {
	return s.Store.Atomically(ctx, func(tx *store.Store) error {
		m, err := tx.Member(ctx, shop, id)
		if err != nil {
			return refusal.NotThere(err, "id", "person")
		}
		if err := tx.SetPin(ctx, shop, id, hash); err != nil {
			return err
		}
		what := "set a PIN"
		if hash == "" {
			what = "reset a PIN"
		}
		return audit(ctx, tx, shop, s.Now(), what, m.Name)
	})
}

// SignOff says which cuts somebody may make alone on a saw, in place of what was
// said before.
func (s Station) SignOff(ctx context.Context, shop, id, saw uuid.UUID, cuts []string) (Member, error) {
	slices.Sort(cuts)
	cuts = slices.Compact(cuts)
	err := s.Store.Atomically(ctx, func(tx *store.Store) error {
		m, err := tx.Member(ctx, shop, id)
		if err != nil {
			return refusal.NotThere(err, "id", "person")
		}
		w, err := tx.Saw(ctx, shop, saw)
		if err != nil {
			return refusal.NotThere(err, "saw", "saw")
		}
		for _, c := range cuts {
			if !slices.Contains(guide.Duties(w.Saw), guide.Duty(c)) {
				return refusal.Of("cuts", "%s can't make that kind of cut, so there is no sign-off for it", say.Word(w.Name))
			}
		}
		if err := (Station{s.In(tx)}).practised(ctx, m, saw, cuts); err != nil {
			return err
		}
		who := record.ActorOf(ctx)
		if err := tx.AddSignOff(ctx, store.SignOff{Shop: shop, Member: id, Saw: saw, Cuts: cuts, By: who.Who(), At: s.Now()}); err != nil {
			return err
		}
		what := "signed a person off for " + strings.Join(cuts, ", ") + " on " + w.Name
		if len(cuts) == 0 {
			what = "revoked a sign-off on " + w.Name
		}
		return audit(ctx, tx, shop, s.Now(), what, m.Name)
	})
	if err != nil {
		return Member{}, err
	}
	return s.One(ctx, shop, id)
}

// practised refuses cuts that are new to somebody on a saw, where the shop asks for
// drills first that they have not passed.
func (s Station) practised(ctx context.Context, m store.Member, saw uuid.UUID, cuts []string) error {
	sh, err := s.Store.Shop(ctx, m.Shop)
	if err != nil || sh.Drills == "" {
		return err
	}
	offs, err := s.Store.SignOffs(ctx, m.Shop, &m.ID)
	if err != nil {
		return err
	}
	var had []string
	for _, o := range offs {
		if o.Saw == saw {
			had = o.Cuts
		}
	}
	if !slices.ContainsFunc(cuts, func(c string) bool { return !slices.Contains(had, c) }) {
		return nil
	}
	rows, err := s.Store.Practised(ctx, m.Shop, &m.ID)
	if err != nil {
		return err
	}
	asked := shoppractice.Asked(sh)
	var missing say.And
	for _, st := range practice.Stand(shoppractice.Done(rows), s.Now()) {
		if slices.Contains(asked, st.Drill) && !st.Passed() {
			missing = append(missing, st.Drill.Name())
		}
	}
	if len(missing) == 0 {
		return nil
	}
	return refusal.Of("cuts", "%s hasn't passed %s yet, which this shop requires before sign-off. It takes a few minutes in Practice", say.Word(m.Name), missing)
}

// Invite makes a secret that gives a member a sign-in of their own. An earlier
// one of theirs opens nothing then.
func (s Station) Invite(ctx context.Context, shop, id uuid.UUID) (secret string, ends time.Time, err error) {
	return s.invite(ctx, shop, id, invitationLifetime)
}

func (s Station) invite(ctx context.Context, shop, id uuid.UUID, kept time.Duration) (secret string, ends time.Time, err error) {
	secret, ends = account.Secret(), s.Now().Add(kept)
	err = s.Store.Atomically(ctx, func(tx *store.Store) error {
		m, err := tx.Member(ctx, shop, id)
		if err != nil {
			return refusal.NotThere(err, "id", "person")
		}
		if m.Person != nil {
			return &refusal.Error{Reason: refusal.Conflict, Field: "id", What: say.Of("%s already has a sign-in. If they can't sign in, they use a recovery code, or you remove them and add them again", say.Word(m.Name))}
		}
		if err := tx.EndPassesOf(ctx, shop, id, s.Now(), false); err != nil {
			return err
		}
		who := record.ActorOf(ctx)
		err = tx.AddPass(ctx, store.Pass{Shop: shop, ID: uuid.New(), Kind: "invitation", Digest: account.Digest(secret), Name: m.Name, Role: m.Role, Member: &id,
			MadeBy: who.Who(), Made: s.Now(), Ends: &ends})
		if err != nil {
			return err
		}
		return audit(ctx, tx, shop, s.Now(), "invited a person as "+m.Role, m.Name)
	})
	return secret, ends, err
}

// FirstOwner makes the secret by which a shop without an owner who can sign in
// gets one; empty where it has one. It is asked in no shop.
func (s Station) FirstOwner(ctx context.Context, shop uuid.UUID) (secret string, err error) {
	err = s.Store.Atomically(ctx, func(tx *store.Store) error {
		owners, err := tx.HoldPeople(ctx, shop)
		if err != nil || owners > 0 {
			return err
		}
		secret, err = Station{s.In(tx)}.ownersInvitation(ctx, shop)
		return err
	})
	return secret, err
}

// AnotherOwner makes such a secret in any case, for whoever has the machine: it
// is how a shop whose owners cannot get in any more is opened.
func (s Station) AnotherOwner(ctx context.Context, shop uuid.UUID) (secret string, err error) {
	err = s.Store.Atomically(ctx, func(tx *store.Store) error {
		if _, err := tx.HoldPeople(ctx, shop); err != nil {
			return err
		}
		secret, err = Station{s.In(tx)}.ownersInvitation(ctx, shop)
		return err
	})
	return secret, err
}

// ownersInvitation invites an owner who has no sign-in yet; where there is none,
// one is added.
func (s Station) ownersInvitation(ctx context.Context, shop uuid.UUID) (string, error) {
	ctx = record.As(ctx, record.Actor{Shop: shop, Name: "the console"})
	all, err := s.Store.Members(ctx, shop, s.Now())
	if err != nil {
		return "", err
	}
	i := slices.IndexFunc(all, func(m store.Member) bool { return m.Role == record.Owner.String() && m.Person == nil })
	var id uuid.UUID
	if i >= 0 {
		id = all[i].ID
	} else {
		id = uuid.New()
		name := unnamed
		for named(ctx, s.Store, shop, uuid.Nil, name, s.Now()) != nil {
			name += " too"
		}
		if err := s.Store.AddMember(ctx, store.Member{Shop: shop, ID: id, Name: name, Role: record.Owner.String(), Since: s.Now()}); err != nil {
			return "", err
		}
	}
	secret, _, err := s.invite(ctx, shop, id, firstLifetime)
	return secret, err
}

// mostShops is how many shops somebody may belong to and still found another:
// nobody's mistake fills a server.
const mostShops = 50

// Found founds a shop of a person, who is its owner, beside the one that they
// are in. Under a key that they founded one by before it is that one; the ID
// follows from both, so that nobody chooses it. It is asked in no shop.
func (s Station) Found(ctx context.Context, in, key uuid.UUID, name string, by store.Person) (sh store.Shop, err error) {
	name = strings.TrimSpace(name)
	if name == "" {
		return sh, refusal.Of("name", "enter the shop's name")
	}
	id := uuid.NewSHA1(by.ID, key[:])
	err = s.Store.Atomically(ctx, func(tx *store.Store) error {
		here, err := tx.Shop(ctx, in)
		if err != nil {
			return err
		}
		var founded bool
		sh, founded, err = tx.EnsureShop(ctx, store.Shop{ID: id, Slug: "shop-" + id.String(), Name: name, ChangeMinutes: here.ChangeMinutes, Zone: here.Zone})
		if err != nil || !founded {
			return err
		}
		if all, err := tx.Belongings(ctx, by.ID); err != nil {
			return err
		} else if len(all) >= mostShops {
			return &refusal.Error{Reason: refusal.Conflict, Field: "", What: say.Of("you belong to %d shops here, as many as one may; have yourself taken out of one first", len(all))}
		}
		if err := tx.AddMember(ctx, store.Member{Shop: id, ID: uuid.New(), Person: &by.ID, Name: by.Name, Role: record.Owner.String(), Since: s.Now()}); err != nil {
			return err
		}
		return audit(ctx, tx, id, s.Now(), "created the shop", name)
	})
	return sh, err
}

// unnamed is what an owner is called whose name nobody knows yet.
const unnamed = "Owner"

var errInvitation = &refusal.Error{Reason: refusal.Missing, Field: "", What: say.Of("this invitation no longer works. It was used, revoked or is too old. Ask for a new one")}

// An Invitation is what one is invited to.
type Invitation struct {
	store.Pass
	ShopName string
}

// Invitation finds the one of a secret. It is asked in no shop.
func (s Station) Invitation(ctx context.Context, secret string) (Invitation, error) {
	p, err := s.Store.PassOf(ctx, "invitation", account.Digest(secret), s.Now())
	if errors.Is(err, store.ErrNone) {
		return Invitation{}, errInvitation
	}
	if err != nil {
		return Invitation{}, err
	}
	sh, err := s.Store.Shop(ctx, p.Shop)
	return Invitation{p, sh.Name}, err
}

// Accept uses an invitation up for the person that who answers. Name is what the
// member is called from then on, where it is given. It is asked in no shop.
func (s Station) Accept(ctx context.Context, secret, name string, who func(*store.Store) (store.Person, error)) (store.Person, uuid.UUID, error) {
	in, err := s.Invitation(ctx, secret)
	if err != nil {
		return store.Person{}, uuid.Nil, err
	}
	var p store.Person
	err = s.Store.Atomically(ctx, func(tx *store.Store) error {
		if _, err := tx.HoldPeople(ctx, in.Shop); err != nil {
			return err
		}
		if _, err := tx.EndPass(ctx, in.Shop, in.ID, s.Now()); err != nil {
			return errInvitation // somebody was quicker
		}
		if p, err = who(tx); err != nil {
			return err
		}
		err := tx.GiveSignIn(ctx, in.Shop, *in.Member, p.ID)
		if store.IsDuplicate(err) {
			return &refusal.Error{Reason: refusal.Conflict, Field: "", What: say.Of("you belong to this shop already")}
		}
		if err != nil {
			return refusal.NotThere(err, "", "person")
		}
		ctx := record.As(ctx, record.Actor{Name: in.Name, Address: record.ActorOf(ctx).Address})
		// Whom the console invited may have no name yet: it is that of their sign-in.
		if name = cmp.Or(strings.TrimSpace(name), p.Name); strings.HasPrefix(in.Name, unnamed) && named(ctx, tx, in.Shop, *in.Member, name, s.Now()) == nil {
			m, err := tx.Member(ctx, in.Shop, *in.Member)
			if err != nil {
				return err
			}
			m.Name = name
			if err := tx.ChangeMember(ctx, m); err != nil {
				return err
			}
		}
		return audit(ctx, tx, in.Shop, s.Now(), "accepted an invitation as "+in.Role, p.Name)
	})
	return p, in.Shop, err
}
