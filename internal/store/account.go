package store

import (
	"context"
	"encoding/json"
	"time"

	"github.com/google/uuid"
)

// Accounts belong to no shop. They are read and written as the database's owner,
// outside For; the role that serves a shop can't read their tables.

// A Person is somebody who signs in.
type Person struct {
	ID       uuid.UUID `db:"id"`
	Name     string    `db:"name"`
	Folded   string    `db:"folded"` // the name as names are compared
	Password string    `db:"password"`
	Epoch    int       `db:"epoch"` // sessions of an earlier one are over
	Since    time.Time `db:"since"`
}

const personColumns = `id, name, folded, password, epoch, since`

// AddPerson adds one. IsDuplicate tells that the name is taken.
func (s *Store) AddPerson(ctx context.Context, p Person) error {
	_, err := s.db.NamedExecContext(ctx, `INSERT INTO people (id, name, folded, password, since) VALUES (:id, :name, :folded, :password, :since)`, p)
	return err
}

// Person finds one by ID.
func (s *Store) Person(ctx context.Context, id uuid.UUID) (p Person, err error) {
	err = s.db.GetContext(ctx, &p, `SELECT `+personColumns+` FROM people WHERE id = $1`, id)
	return p, noneIfNoRows(err)
}

// PersonNamed finds one by the folded name.
func (s *Store) PersonNamed(ctx context.Context, folded string) (p Person, err error) {
	err = s.db.GetContext(ctx, &p, `SELECT `+personColumns+` FROM people WHERE folded = $1`, folded)
	return p, noneIfNoRows(err)
}

// NewEpoch ends every session of a person, sets a new password if one is given, and
// returns the new epoch.
func (s *Store) NewEpoch(ctx context.Context, id uuid.UUID, password string) (epoch int, err error) {
	err = s.db.GetContext(ctx, &epoch, `UPDATE people SET epoch = epoch + 1, password = coalesce(nullif($2, ''), password) WHERE id = $1 RETURNING epoch`, id, password)
	return epoch, noneIfNoRows(err)
}

// SetCodes replaces the digests of a person's recovery codes.
func (s *Store) SetCodes(ctx context.Context, person uuid.UUID, digests [][]byte) error {
	if _, err := s.db.ExecContext(ctx, `DELETE FROM recovery_codes WHERE person_id = $1`, person); err != nil {
		return err
	}
	_, err := s.db.ExecContext(ctx, `INSERT INTO recovery_codes (person_id, digest) SELECT $1, unnest($2::bytea[])`, person, digests)
	return err
}

// Codes counts the recovery codes that are left.
func (s *Store) Codes(ctx context.Context, person uuid.UUID) (n int, err error) {
	err = s.db.GetContext(ctx, &n, `SELECT count(*) FROM recovery_codes WHERE person_id = $1`, person)
	return n, err
}

// UseCode uses a recovery code up, and reports whether there was one.
func (s *Store) UseCode(ctx context.Context, person uuid.UUID, digest []byte) (bool, error) {
	res, err := s.db.ExecContext(ctx, `DELETE FROM recovery_codes WHERE person_id = $1 AND digest = $2`, person, digest)
	if err != nil {
		return false, err
	}
	n, err := res.RowsAffected()
	return n == 1, err
}

// A Passkey is one that a person signs in with.
type Passkey struct {
	ID         uuid.UUID       `db:"id"`
	Person     uuid.UUID       `db:"person_id"`
	Handle     []byte          `db:"handle"` // the authenticator's own ID of it
	Name       string          `db:"name"`
	Credential json.RawMessage `db:"credential"`
	Made       time.Time       `db:"made_at"`
	Used       *time.Time      `db:"used_at"`
}

// AddPasskey adds one.
func (s *Store) AddPasskey(ctx context.Context, k Passkey) error {
	_, err := s.db.NamedExecContext(ctx, `INSERT INTO passkeys (id, person_id, handle, name, credential, made_at) VALUES (:id, :person_id, :handle, :name, :credential, :made_at)`, k)
	return err
}

// Passkeys are a person's, the oldest first.
func (s *Store) Passkeys(ctx context.Context, person uuid.UUID) (all []Passkey, err error) {
	err = s.db.SelectContext(ctx, &all, `SELECT id, person_id, handle, name, credential, made_at, used_at FROM passkeys WHERE person_id = $1 ORDER BY made_at, id`, person)
	return all, err
}

// UsePasskey records a use of a passkey: its counter and the time.
func (s *Store) UsePasskey(ctx context.Context, handle []byte, credential json.RawMessage, at time.Time) error {
	_, err := s.db.ExecContext(ctx, `UPDATE passkeys SET credential = $2, used_at = $3 WHERE handle = $1`, handle, []byte(credential), at)
	return err
}

// DropPasskey removes a passkey of a person.
func (s *Store) DropPasskey(ctx context.Context, person, id uuid.UUID) error {
	return s.one(ctx, `DELETE FROM passkeys WHERE person_id = $1 AND id = $2`, person, id)
}

// KnowBrowser records that a person signed in on a browser.
func (s *Store) KnowBrowser(ctx context.Context, person uuid.UUID, digest []byte, at time.Time) error {
	_, err := s.db.ExecContext(ctx, `INSERT INTO browsers (person_id, digest, at) VALUES ($1, $2, $3) ON CONFLICT (person_id, digest) DO UPDATE SET at = $3`, person, digest, at)
	return err
}

// KnowsBrowser reports whether a person signed in on a browser before.
func (s *Store) KnowsBrowser(ctx context.Context, person uuid.UUID, digest []byte) (known bool, err error) {
	err = s.db.GetContext(ctx, &known, `SELECT EXISTS (SELECT FROM browsers WHERE person_id = $1 AND digest = $2)`, person, digest)
	return known, err
}

// Try counts an attempt under a key and returns the number of attempts within the
// window that began with the first.
func (s *Store) Try(ctx context.Context, key string, now time.Time, forget time.Duration) (tries int, err error) {
	err = s.db.GetContext(ctx, &tries, `INSERT INTO attempts AS a (key, tries, since) VALUES ($1, 1, $2)
		ON CONFLICT (key) DO UPDATE SET tries = CASE WHEN a.since < $3 THEN 1 ELSE a.tries + 1 END, since = CASE WHEN a.since < $3 THEN $2 ELSE a.since END
		RETURNING tries`, key, now, now.Add(-forget))
	return tries, err
}

// Forgive forgets the attempts under a key.
func (s *Store) Forgive(ctx context.Context, key string) error {
	_, err := s.db.ExecContext(ctx, `DELETE FROM attempts WHERE key = $1`, key)
	return err
}

// SweepAccounts forgets sessions that are over and attempts that are old.
func (s *Store) SweepAccounts(ctx context.Context, now time.Time, forget time.Duration) error {
	if _, err := s.db.ExecContext(ctx, `DELETE FROM sessions WHERE expiry < $1`, now); err != nil {
		return err
	}
	if _, err := s.db.ExecContext(ctx, `DELETE FROM browsers WHERE at < $1`, now.Add(-browserLifetime)); err != nil {
		return err
	}
	_, err := s.db.ExecContext(ctx, `DELETE FROM attempts WHERE since < $1`, now.Add(-forget))
	return err
}

// browserLifetime is how long a browser stays known after its last sign-in.
const browserLifetime = 400 * 24 * time.Hour
