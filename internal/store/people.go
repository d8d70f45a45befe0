package store

import (
	"context"
	"errors"
	"strings"
	"time"

	"github.com/google/uuid"

	"corte/internal/record"
)

// A Member belongs to a shop.
type Member struct {
	Shop    uuid.UUID  `db:"shop_id"`
	ID      uuid.UUID  `db:"id"`
	Person  *uuid.UUID `db:"person_id"` // nil where they have no sign-in of their own
	Name    string     `db:"name"`
	Role    string     `db:"role"` // viewer, learner, worker or owner
	Pin     string     `db:"pin"`  // argon2id; empty where none is set
	Since   time.Time  `db:"since"`
	Gone    *time.Time `db:"gone_at"`
	Version int        `db:"version"`
	Invited *time.Time `db:"invited_until"` // by an invitation that is open
}

const memberColumns = `m.shop_id, m.id, m.person_id, m.name, m.role, m.pin, m.since, m.gone_at, m.version`

// Members lists the members of a shop who have not left, by name.
func (s *Store) Members(ctx context.Context, shop uuid.UUID, now time.Time) (all []Member, err error) {
	err = s.db.SelectContext(ctx, &all, `SELECT `+memberColumns+`, (SELECT max(p.ends_at) FROM passes p
			WHERE p.shop_id = m.shop_id AND p.member_id = m.id AND p.kind = 'invitation' AND p.over_at IS NULL AND p.ends_at > $2) AS invited_until
		FROM members m WHERE shop_id = $1 AND gone_at IS NULL ORDER BY lower(name), id`, shop, now)
	return all, err
}

// Member finds a member of a shop who has not left.
func (s *Store) Member(ctx context.Context, shop, id uuid.UUID) (m Member, err error) {
	err = s.db.GetContext(ctx, &m, `SELECT `+memberColumns+` FROM members m WHERE shop_id = $1 AND id = $2 AND gone_at IS NULL`, shop, id)
	return m, noneIfNoRows(err)
}

// A Belonging is a shop that a person belongs to, as which member.
type Belonging struct {
	Member
	ShopName string `db:"shop_name"`
}

// Belongings are the shops that a person belongs to, the longest first. It is
// asked in no shop.
func (s *Store) Belongings(ctx context.Context, person uuid.UUID) (all []Belonging, err error) {
	err = s.db.SelectContext(ctx, &all, `SELECT `+memberColumns+`, s.name AS shop_name FROM members m JOIN shops s ON s.id = m.shop_id
		WHERE person_id = $1 AND gone_at IS NULL ORDER BY m.since, m.id`, person)
	return all, err
}

// AddMember adds a member.
func (s *Store) AddMember(ctx context.Context, m Member) error {
	_, err := s.db.NamedExecContext(ctx, `INSERT INTO members (shop_id, id, person_id, name, role, since) VALUES (:shop_id, :id, :person_id, :name, :role, :since)`, m)
	return err
}

// ChangeMember updates name, role and whether a member has left, from a version.
func (s *Store) ChangeMember(ctx context.Context, m Member) error {
	err := s.one(ctx, `UPDATE members SET name = $4, role = $5, gone_at = $6, person_id = CASE WHEN $6::timestamptz IS NULL THEN person_id END, version = version + 1
		WHERE shop_id = $1 AND id = $2 AND version = $3`, m.Shop, m.ID, m.Version, m.Name, m.Role, m.Gone)
	if errors.Is(err, ErrNone) {
		return ErrStale
	}
	return err
}

// GiveSignIn links a member to a person who signs in.
func (s *Store) GiveSignIn(ctx context.Context, shop, member, person uuid.UUID) error {
	return s.one(ctx, `UPDATE members SET person_id = $3, version = version + 1 WHERE shop_id = $1 AND id = $2 AND gone_at IS NULL`, shop, member, person)
}

// SetPin keeps the hash of a member's PIN; empty forgets it.
func (s *Store) SetPin(ctx context.Context, shop, member uuid.UUID, pin string) error {
	return s.one(ctx, `UPDATE members SET pin = $3 WHERE shop_id = $1 AND id = $2 AND gone_at IS NULL`, shop, member, pin)
}

// ShopsWithPeople are the shops that somebody can sign in to.
func (s *Store) ShopsWithPeople(ctx context.Context) (ids []uuid.UUID, err error) {
	err = s.db.SelectContext(ctx, &ids, `SELECT DISTINCT shop_id FROM members WHERE person_id IS NOT NULL AND gone_at IS NULL ORDER BY shop_id`)
	return ids, err
}

// HoldPeople locks the members of a shop until the transaction ends, and returns the
// number of owners who can sign in.
func (s *Store) HoldPeople(ctx context.Context, shop uuid.UUID) (owners int, err error) {
	if err := s.db.GetContext(ctx, new(bool), `SELECT true FROM shops WHERE id = $1 FOR UPDATE`, shop); err != nil {
		return 0, noneIfNoRows(err)
	}
	err = s.db.GetContext(ctx, &owners, `SELECT count(*) FROM members WHERE shop_id = $1 AND role = 'owner' AND person_id IS NOT NULL AND gone_at IS NULL`, shop)
	return owners, err
}

// OnlyWayIn reports whether the password of a person is all that opens a shop to
// an owner: no other owner signs in, and they have neither recovery codes nor a
// passkey. It is asked in no shop.
func (s *Store) OnlyWayIn(ctx context.Context, shop, person uuid.UUID) (only bool, err error) {
	err = s.db.GetContext(ctx, &only, `SELECT NOT EXISTS (SELECT FROM members WHERE shop_id = $1 AND role = 'owner' AND person_id <> $2 AND gone_at IS NULL)
		AND NOT EXISTS (SELECT FROM recovery_codes WHERE person_id = $2) AND NOT EXISTS (SELECT FROM passkeys WHERE person_id = $2)`, shop, person)
	return only, err
}

// SamePeople makes one of two members of the same name, where one came with a
// copy and the other signs in here: who signs in goes on as the one of the copy,
// with the role that they have here.
func (s *Store) SamePeople(ctx context.Context, shop uuid.UUID) error {
	var same []struct {
		Here   uuid.UUID `db:"here"`
		Copied uuid.UUID `db:"copied"`
		Person uuid.UUID `db:"person_id"`
		Role   string    `db:"role"`
	}
	if err := s.db.SelectContext(ctx, &same, `SELECT h.id AS here, c.id AS copied, h.person_id, h.role FROM members h
		JOIN members c ON c.shop_id = h.shop_id AND c.id <> h.id AND lower(c.name) = lower(h.name) AND c.person_id IS NULL AND c.gone_at IS NULL
		WHERE h.shop_id = $1 AND h.person_id IS NOT NULL AND h.gone_at IS NULL`, shop); err != nil {
		return err
	}
	for _, m := range same {
		if err := s.one(ctx, `UPDATE members SET person_id = NULL, gone_at = now() WHERE shop_id = $1 AND id = $2`, shop, m.Here); err != nil {
			return err
		}
		if err := s.one(ctx, `UPDATE members SET person_id = $3, role = $4 WHERE shop_id = $1 AND id = $2`, shop, m.Copied, m.Person, m.Role); err != nil {
			return err
		}
	}
	return nil
}

// A SignOff says which cuts a member may make alone on a saw.
type SignOff struct {
	Shop   uuid.UUID `db:"shop_id"`
	Member uuid.UUID `db:"member_id"`
	Saw    uuid.UUID `db:"saw_id"`
	Cuts   []string  `db:"-"`
	By     string    `db:"by"`
	At     time.Time `db:"at"`

	Listed string `db:"cuts"` // with commas between; Cuts of those that were read
}

// AddSignOff adds one; it holds in place of earlier ones of its member and saw.
func (s *Store) AddSignOff(ctx context.Context, o SignOff) error {
	_, err := s.db.ExecContext(ctx, `INSERT INTO sign_offs (shop_id, member_id, saw_id, cuts, by, at) VALUES ($1, $2, $3, $4, $5, $6)`,
		o.Shop, o.Member, o.Saw, o.Cuts, o.By, o.At)
	return err
}

// SignOffs are those of a shop that hold, of one member where one is given.
func (s *Store) SignOffs(ctx context.Context, shop uuid.UUID, member *uuid.UUID) (all []SignOff, err error) {
	err = s.db.SelectContext(ctx, &all, `SELECT shop_id, member_id, saw_id, array_to_string(cuts, ',') AS cuts, by, at FROM (
			SELECT DISTINCT ON (member_id, saw_id) * FROM sign_offs WHERE shop_id = $1 AND ($2::uuid IS NULL OR member_id = $2)
			ORDER BY member_id, saw_id, id DESC) o WHERE cardinality(cuts) > 0 ORDER BY member_id, at`, shop, member)
	for i := range all {
		all[i].Cuts = strings.Split(all[i].Listed, ",")
	}
	return all, err
}

// Alone is what the actor of a context may do alone on a saw; nothing is asked of
// owners, nor where nobody is known.
func (s *Store) Alone(ctx context.Context, shop, saw uuid.UUID) (a record.Alone, err error) {
	who := record.ActorOf(ctx)
	if who.Member == nil {
		return a, nil
	}
	var row struct {
		SignOff string `db:"sign_off"`
		Role    string `db:"role"`
		Cuts    string `db:"cuts"`
	}
	err = s.db.GetContext(ctx, &row, `SELECT s.sign_off, m.role, coalesce((SELECT array_to_string(cuts, ',') FROM sign_offs o
			WHERE o.shop_id = m.shop_id AND o.member_id = m.id AND o.saw_id = $3 ORDER BY o.id DESC LIMIT 1), '') AS cuts
		FROM shops s JOIN members m ON m.shop_id = s.id WHERE s.id = $1 AND m.id = $2`, shop, *who.Member, saw)
	if err != nil || row.SignOff == "off" || row.Role == record.Owner.String() {
		return a, noneIfNoRows(err)
	}
	return record.Alone{Asked: true, Stop: row.SignOff == "stop", Cuts: strings.Split(row.Cuts, ",")}, nil
}

// A Pass opens a shop to whoever holds the secret of its digest.
type Pass struct {
	Shop   uuid.UUID  `db:"shop_id"`
	ID     uuid.UUID  `db:"id"`
	Kind   string     `db:"kind"` // invitation, tablet, token or guest
	Digest []byte     `db:"digest"`
	Name   string     `db:"name"`
	Role   string     `db:"role"`
	Member *uuid.UUID `db:"member_id"` // whom an invitation is for
	Blade  *uuid.UUID `db:"blade_id"`  // whose report a guest reads
	MadeBy string     `db:"made_by"`
	Made   time.Time  `db:"made_at"`
	Ends   *time.Time `db:"ends_at"`
	Used   *time.Time `db:"used_at"`
	Over   *time.Time `db:"over_at"`

	BladeName *string `db:"blade_name"`
}

const passColumns = `p.shop_id, p.id, p.kind, p.digest, p.name, p.role, p.member_id, p.blade_id, p.made_by, p.made_at, p.ends_at, p.used_at, p.over_at`

// AddPass adds a pass.
func (s *Store) AddPass(ctx context.Context, p Pass) error {
	_, err := s.db.NamedExecContext(ctx, `INSERT INTO passes (shop_id, id, kind, digest, name, role, member_id, blade_id, made_by, made_at, ends_at)
		VALUES (:shop_id, :id, :kind, :digest, :name, :role, :member_id, :blade_id, :made_by, :made_at, :ends_at)`, p)
	return err
}

// PassOf finds one that still opens something by its digest. It is asked in no
// shop, since the pass says which.
func (s *Store) PassOf(ctx context.Context, kind string, digest []byte, now time.Time) (p Pass, err error) {
	err = s.db.GetContext(ctx, &p, `SELECT `+passColumns+` FROM passes p WHERE digest = $1 AND kind = $2 AND over_at IS NULL AND (ends_at IS NULL OR ends_at > $3)`, digest, kind, now)
	return p, noneIfNoRows(err)
}

// UsedPass writes down that a pass was used, to the hour.
func (s *Store) UsedPass(ctx context.Context, p Pass, now time.Time) error {
	if p.Used != nil && now.Sub(*p.Used) < time.Hour {
		return nil
	}
	_, err := s.db.ExecContext(ctx, `UPDATE passes SET used_at = $3 WHERE shop_id = $1 AND id = $2`, p.Shop, p.ID, now.Truncate(time.Hour))
	return err
}

// Passes are a shop's that still open something, the newest first; invitations
// are not among them.
func (s *Store) Passes(ctx context.Context, shop uuid.UUID, now time.Time) (all []Pass, err error) {
	err = s.db.SelectContext(ctx, &all, `SELECT `+passColumns+`, b.name AS blade_name FROM passes p LEFT JOIN blades b ON b.shop_id = p.shop_id AND b.id = p.blade_id
		WHERE p.shop_id = $1 AND p.kind <> 'invitation' AND p.over_at IS NULL AND (p.ends_at IS NULL OR p.ends_at > $2) ORDER BY p.made_at DESC, p.id`, shop, now)
	return all, err
}

// EndPass ends a pass. It returns ErrNone if the pass had ended already, so only one of
// two simultaneous uses succeeds.
func (s *Store) EndPass(ctx context.Context, shop, id uuid.UUID, now time.Time) (p Pass, err error) {
	err = s.db.GetContext(ctx, &p, `UPDATE passes p SET over_at = $3 WHERE shop_id = $1 AND id = $2 AND over_at IS NULL RETURNING `+passColumns, shop, id, now)
	return p, noneIfNoRows(err)
}

// EndPassesOf lets what was made for or by a member open nothing any more:
// invitations, and tokens where they go.
func (s *Store) EndPassesOf(ctx context.Context, shop, member uuid.UUID, now time.Time, gone bool) error {
	_, err := s.db.ExecContext(ctx, `UPDATE passes SET over_at = $3 WHERE shop_id = $1 AND member_id = $2 AND over_at IS NULL AND ($4 OR kind = 'invitation')`, shop, member, now, gone)
	return err
}

// An Audited is something that an owner may want to look up later.
type Audited struct {
	Shop    uuid.UUID `db:"shop_id"`
	ID      int64     `db:"id"`
	At      time.Time `db:"at"`
	Who     string    `db:"who"`
	What    string    `db:"what"`
	About   string    `db:"about"`
	Address string    `db:"address"`
}

// Audit records an action.
func (s *Store) Audit(ctx context.Context, a Audited) error {
	_, err := s.db.NamedExecContext(ctx, `INSERT INTO audit (shop_id, at, who, what, about, address) VALUES (:shop_id, :at, :who, :what, :about, :address)`, a)
	return err
}

// AuditBefore are a shop's older than an ID, 0 for any, the newest first.
func (s *Store) AuditBefore(ctx context.Context, shop uuid.UUID, before int64, limit int) (all []Audited, err error) {
	err = s.db.SelectContext(ctx, &all, `SELECT shop_id, id, at, who, what, about, address FROM audit WHERE shop_id = $1 AND ($2 = 0 OR id < $2) ORDER BY id DESC LIMIT $3`, shop, before, limit)
	return all, err
}
