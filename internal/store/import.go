package store

import (
	"context"
	"time"

	"github.com/google/uuid"
)

// An Import is a file of old records that is worked through in the background.
type Import struct {
	Shop   uuid.UUID `db:"shop_id"`
	ID     uuid.UUID `db:"id"`
	At     time.Time `db:"at"`
	By     string    `db:"by_name"`
	State  string    `db:"state"` // working, done or failed
	Rows   int       `db:"rows"`  // that are to be added
	Done   int       `db:"done"`  // of them
	Beat   time.Time `db:"beat_at"`
	Same   int       `db:"same"`
	Refuse int       `db:"refuse"`
	Says   string    `db:"says"` // why it failed
}

const importColumns = `shop_id, id, at, by_name, state, rows, done, beat_at, same, refuse, says`

// ImportSilent is the silence after which an import counts as dead. A server that
// works on one reports many times in that time.
const ImportSilent = 60 * time.Second

// BeginImport writes down that an import begins and reports whether it does: it
// does not where it is done, or another server is at it.
func (s *Store) BeginImport(ctx context.Context, i Import) (Import, bool, error) {
	i.State, i.Done, i.Says, i.Beat = "working", 0, "", i.At
	row := struct {
		Import
		Silent time.Time `db:"silent"`
	}{i, i.At.Add(-ImportSilent)}
	res, err := s.db.NamedExecContext(ctx, `INSERT INTO imports AS i (`+importColumns+`)
		VALUES (:shop_id, :id, :at, :by_name, :state, :rows, :done, :beat_at, :same, :refuse, :says)
		ON CONFLICT (shop_id, id) DO UPDATE SET at = EXCLUDED.at, by_name = EXCLUDED.by_name, state = EXCLUDED.state, rows = EXCLUDED.rows, done = 0,
			beat_at = EXCLUDED.beat_at, same = EXCLUDED.same, refuse = EXCLUDED.refuse, says = ''
		WHERE i.state = 'failed' OR i.state = 'working' AND i.beat_at < :silent`, row)
	if err != nil {
		return i, false, err
	}
	if n, _ := res.RowsAffected(); n == 1 {
		return i, true, nil
	}
	err = s.db.GetContext(ctx, &i, `SELECT `+importColumns+` FROM imports WHERE shop_id = $1 AND id = $2`, i.Shop, i.ID)
	return i, false, noneIfNoRows(err)
}

// BeatImport reports the progress of an import. It runs outside the transaction of
// the rows, so that others see it at once.
func (s *Store) BeatImport(ctx context.Context, i Import, done int, now time.Time) error {
	_, err := s.db.ExecContext(ctx, `UPDATE imports SET done = $3, beat_at = $4 WHERE shop_id = $1 AND id = $2 AND state = 'working'`, i.Shop, i.ID, done, now)
	return err
}

// HoldImports lets one import of a shop at a time weigh what its log has already.
// It is held until the transaction is over.
func (s *Store) HoldImports(ctx context.Context, shop uuid.UUID) error {
	_, err := s.db.ExecContext(ctx, `SELECT pg_advisory_xact_lock(hashtextextended($1, 2))`, shop.String())
	return err
}

// EndImport says how an import ended: done, in the transaction of its rows, or
// failed, for a reason, which is not believed where its rows are in: a commit may
// have gone through though nobody heard of it.
func (s *Store) EndImport(ctx context.Context, i Import, state, says string) error {
	_, err := s.db.ExecContext(ctx, `UPDATE imports SET state = $3, says = $4, rows = $5, done = CASE WHEN $3 = 'done' THEN $5 ELSE done END, same = $6, refuse = $7
		WHERE shop_id = $1 AND id = $2 AND ($3 = 'done' OR state = 'working')`, i.Shop, i.ID, state, says, i.Rows, i.Same, i.Refuse)
	return err
}

// Imports are a shop's since a time, the newest first.
func (s *Store) Imports(ctx context.Context, shop uuid.UUID, since time.Time, limit int) (all []Import, err error) {
	err = s.db.SelectContext(ctx, &all, `SELECT `+importColumns+` FROM imports WHERE shop_id = $1 AND at >= $2 ORDER BY at DESC, id LIMIT $3`, shop, since, limit)
	return all, err
}

// AuditRetention is how long an owner can look up who did what: three years.
const AuditRetention = 3 * 365 * 24 * time.Hour

// SweepAudit forgets what was done before a time, in every shop. The role that
// serves a shop may not.
func (s *Store) SweepAudit(ctx context.Context, before time.Time) error {
	_, err := s.db.ExecContext(ctx, `DELETE FROM audit WHERE at < $1`, before)
	return err
}

// SweepImports forgets those from before a time, of every shop.
func (s *Store) SweepImports(ctx context.Context, before time.Time) error {
	_, err := s.db.ExecContext(ctx, `DELETE FROM imports WHERE at < $1`, before)
	return err
}
