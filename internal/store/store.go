// Package store keeps a shop in PostgreSQL: its saws, blades and log, and the
// snapshot of each blade's condition. It knows tables and transactions, and
// nothing of the craft beyond turning rows into the core's values.
package store

import (
	"cmp"
	"context"
	"corte/internal/record"
	"database/sql"
	"errors"
	"fmt"
	"strings"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgconn"
	"github.com/jackc/pgx/v5/pgxpool"
	"github.com/jackc/pgx/v5/stdlib"
	"github.com/jmoiron/sqlx"
)

// ErrNone is returned where a row that was asked for is not in the shop.
var ErrNone = record.ErrNone

// A Store reads and writes the database. Its only state is its pool of connections,
// or the transaction that Atomically gave it.
type Store struct {
	url    string // of PostgreSQL itself
	conns  *pgxpool.Pool
	pool   *sqlx.DB // over conns
	apart  *apart   // signs in as one role for a shop and as another for the rest; nil where one pool changes roles
	pooled bool     // a pooler gives each transaction a connection, so a session's settings don't last
	tx     *sqlx.Tx // nil outside a transaction
	db     queryer  // the pool, or the transaction
}

// ErrUnknown is returned when the connection was lost during a commit: the database
// may have kept all of the transaction or nothing.
var ErrUnknown = errors.New("not known whether it was kept")

// queryer is what a pool and a transaction have in common.
type queryer interface {
	GetContext(ctx context.Context, dest any, query string, args ...any) error
	SelectContext(ctx context.Context, dest any, query string, args ...any) error
	ExecContext(ctx context.Context, query string, args ...any) (sql.Result, error)
	NamedExecContext(ctx context.Context, query string, arg any) (sql.Result, error)
}

const mostConns = 16

// Open connects to the database at a URL. It does not migrate. A tracer, where
// one is given, hears of every statement.
func Open(ctx context.Context, url string, tracer ...pgx.QueryTracer) (*Store, error) {
	return OpenThrough(ctx, "", url, tracer...)
}

// OpenThrough connects through a pooler in transaction mode, such as pgbouncer. What
// needs a session of its own, such as a migration, connects to PostgreSQL at url.
// Without a pooler it is Open.
func OpenThrough(ctx context.Context, pooler, url string, tracer ...pgx.QueryTracer) (*Store, error) {
	c, err := pgxpool.ParseConfig(cmp.Or(pooler, url))
	if err != nil {
		return nil, fmt.Errorf("the database's address cannot be read: %w", err)
	}
	if c.MaxConns = mostConns; pooler == "" {
		c.PrepareConn = takeRole
		// By a statement: a pooler that keeps a connection for us takes no settings
		// with which it begins.
		c.AfterConnect = settle
	} else if !strings.Contains(pooler, "default_query_exec_mode") {
		// A statement that was prepared would be on another's connection, unless
		// the pooler sees to that and its address says so.
		c.ConnConfig.DefaultQueryExecMode = pgx.QueryExecModeCacheDescribe
	}
	if len(tracer) > 0 {
		c.ConnConfig.Tracer = tracer[0]
	}
	pool, err := pgxpool.NewWithConfig(ctx, c)
	if err == nil {
		if err = pool.Ping(ctx); err != nil {
			pool.Close()
		}
	}
	if err != nil {
		return nil, fmt.Errorf("the database does not answer: %w", err)
	}
	// The pool alone bounds connections and hands them out, in the right role: a
	// bound above it would pass them on from one request to another by itself.
	db := sqlx.NewDb(stdlib.OpenDBFromPool(pool), "pgx")
	s := &Store{url: url, conns: pool, pool: db, pooled: pooler != "", db: db}
	if s.pooled {
		s.db = oneByOne{s}
	}
	return s, nil
}

// An apart store signs in to the database as two roles, neither of which may
// become another: one that serves a shop, and one for the rest.
type apart struct {
	serving *pgxpool.Pool
	shop    *sqlx.DB // over serving
	keeping string   // the URL of the other
}

// OpenAs connects as a role that serves one shop at a time, and as one for
// accounts and what is done over all shops. url is the database's as its owner
// has it, for migrations; nothing that a request asks goes there.
func OpenAs(ctx context.Context, url, serving, keeping string, tracer ...pgx.QueryTracer) (*Store, error) {
	s, err := OpenThrough(ctx, "", keeping, tracer...)
	if err != nil {
		return nil, err
	}
	s.url = url
	c, err := pgxpool.ParseConfig(serving)
	if err != nil {
		s.Close()
		return nil, fmt.Errorf("the database's address cannot be read: %w", err)
	}
	c.MaxConns, c.PrepareConn, c.AfterConnect = mostConns, takeShop, settle
	if len(tracer) > 0 {
		c.ConnConfig.Tracer = tracer[0]
	}
	pool, err := pgxpool.NewWithConfig(ctx, c)
	if err != nil {
		s.Close()
		return nil, fmt.Errorf("the database does not answer: %w", err)
	}
	s.apart = &apart{pool, sqlx.NewDb(stdlib.OpenDBFromPool(pool), "pgx"), keeping}
	s.db = byShop{s}
	return s, nil
}

// of is the pool for the statements of a context.
func (s *Store) of(ctx context.Context) *sqlx.DB {
	if s.apart != nil && shopOf(ctx) != uuid.Nil {
		return s.apart.shop
	}
	return s.pool
}

// byShop asks as the role of its context.
type byShop struct{ *Store }

func (b byShop) GetContext(ctx context.Context, dest any, query string, args ...any) error {
	return b.of(ctx).GetContext(ctx, dest, query, args...)
}

func (b byShop) SelectContext(ctx context.Context, dest any, query string, args ...any) error {
	return b.of(ctx).SelectContext(ctx, dest, query, args...)
}

func (b byShop) ExecContext(ctx context.Context, query string, args ...any) (sql.Result, error) {
	return b.of(ctx).ExecContext(ctx, query, args...)
}

func (b byShop) NamedExecContext(ctx context.Context, query string, arg any) (sql.Result, error) {
	return b.of(ctx).NamedExecContext(ctx, query, arg)
}

// Close ends all connections.
func (s *Store) Close() error {
	err := s.pool.Close()
	s.conns.Close()
	if s.apart != nil {
		err = errors.Join(err, s.apart.shop.Close())
		s.apart.serving.Close()
	}
	return err
}

// DB is the pool as database/sql has it, for packages that keep something of
// their own in the database.
func (s *Store) DB() *sql.DB { return s.pool.DB }

// Stat has the statistics of the pool that serves shops.
func (s *Store) Stat() *pgxpool.Stat {
	if s.apart != nil {
		return s.apart.serving.Stat()
	}
	return s.conns.Stat()
}

// Notify sends payloads on a channel of PostgreSQL's own, to whoever listens.
func (s *Store) Notify(ctx context.Context, channel string, payloads []string) error {
	_, err := s.db.ExecContext(ctx, `SELECT pg_notify($1, p) FROM unnest($2::text[]) p`, channel, payloads)
	return err
}

// Ping reports whether the database answers.
func (s *Store) Ping(ctx context.Context) error { return s.of(ctx).PingContext(ctx) }

// begin begins a transaction in the role of its context.
func (s *Store) begin(ctx context.Context, o *sql.TxOptions) (*Store, error) {
	tx, err := s.of(ctx).BeginTxx(ctx, o)
	if err != nil {
		return nil, err
	}
	if s.pooled {
		if err := setTxRole(ctx, tx); err != nil {
			tx.Rollback() //nolint:errcheck // it is the first error that counts
			return nil, err
		}
	}
	in := *s
	in.tx, in.db = tx, tx
	return &in, nil
}

// Atomically runs f in a transaction: all of its changes are committed, or none if f
// fails.
func (s *Store) Atomically(ctx context.Context, f func(*Store) error) error {
	if s.tx != nil {
		return f(s)
	}
	in, err := s.begin(ctx, nil)
	if err != nil {
		return err
	}
	defer in.tx.Rollback() //nolint:errcheck // after a commit there is nothing to roll back
	if err := f(in); err != nil {
		return err
	}
	err = in.tx.Commit()
	var refused *pgconn.PgError
	if err != nil && (!errors.As(err, &refused) || strings.HasPrefix(refused.Code, "57P")) {
		return fmt.Errorf("%w: %w", ErrUnknown, err)
	}
	return err
}

// rows calls f with the rows of a query one by one, without loading them all.
func (s *Store) rows(ctx context.Context, row func(*sqlx.Rows) error, query string, args ...any) error {
	return s.Atomically(ctx, func(s *Store) error {
		rows, err := s.tx.QueryxContext(ctx, query, args...)
		if err != nil {
			return err
		}
		defer rows.Close()
		for rows.Next() {
			if err := row(rows); err != nil {
				return err
			}
		}
		return rows.Err()
	})
}

// IsDuplicate reports whether a row violates a unique index.
func IsDuplicate(err error) bool {
	var pe *pgconn.PgError
	return errors.As(err, &pe) && pe.Code == "23505"
}

func noneIfNoRows(err error) error {
	if errors.Is(err, sql.ErrNoRows) {
		return ErrNone
	}
	return err
}

// A Shop is one shop.
type Shop struct {
	ID            uuid.UUID `db:"id"`
	Slug          string    `db:"slug"`
	Name          string    `db:"name"`
	ChangeMinutes float64   `db:"change_minutes"`
	HeightSchool  string    `db:"height_school"` // saw, proud, gullets or full
	Learning      bool      `db:"learning"`      // its own cuts correct the model
	Sharpening    float64   `db:"sharpening_price"`
	Rework        float64   `db:"rework"`    // what mending takes here against the usual
	Zone          string    `db:"time_zone"` // an IANA name; empty until somebody has said
	SignOff       string    `db:"sign_off"`  // off, caution or stop: what is said of a cut that nobody signed its maker off for
	Pins          bool      `db:"pins"`      // a name that is tapped wants its PIN
	Drills        string    `db:"drills"`    // that somebody has passed before they are signed off, with commas between
	Version       int       `db:"version"`
}

const shopColumns = `id, slug, name, change_minutes, height_school, learning, sharpening_price, rework, time_zone, sign_off, pins, drills, version`

// Shop finds a shop by its ID.
func (s *Store) Shop(ctx context.Context, id uuid.UUID) (Shop, error) {
	var row Shop
	err := s.db.GetContext(ctx, &row, `SELECT `+shopColumns+` FROM shops WHERE id = $1`, id)
	return row, noneIfNoRows(err)
}

// ShopNamed finds a shop by its slug.
func (s *Store) ShopNamed(ctx context.Context, slug string) (Shop, error) {
	var row Shop
	err := s.db.GetContext(ctx, &row, `SELECT `+shopColumns+` FROM shops WHERE slug = $1`, slug)
	return row, noneIfNoRows(err)
}

// URL is the address of PostgreSQL itself, past any pooler, as the database's
// owner has it.
func (s *Store) URL() string { return s.url }

// ListenURL is where to listen for what is notified: PostgreSQL itself, past any
// pooler, as a role that owns nothing where there is one.
func (s *Store) ListenURL() string {
	if s.apart != nil {
		return s.apart.keeping
	}
	return s.url
}

// ChangeShop updates a shop's settings from a version. It returns ErrStale if they
// have changed since.
func (s *Store) ChangeShop(ctx context.Context, shop Shop) error {
	res, err := s.db.NamedExecContext(ctx, `UPDATE shops SET name = :name, change_minutes = :change_minutes,
		height_school = :height_school, learning = :learning, sharpening_price = :sharpening_price, rework = :rework, time_zone = :time_zone, sign_off = :sign_off, pins = :pins, drills = :drills, version = version + 1
		WHERE id = :id AND version = :version`, shop)
	if err != nil {
		return err
	}
	if n, _ := res.RowsAffected(); n == 1 {
		return nil
	}
	if _, err := s.Shop(ctx, shop.ID); err != nil {
		return err
	}
	return ErrStale
}

// EnsureShop finds a shop by its slug, or founds it, and reports whether it
// was founded now.
func (s *Store) EnsureShop(ctx context.Context, want Shop) (shop Shop, founded bool, err error) {
	res, err := s.db.NamedExecContext(ctx, `INSERT INTO shops (id, slug, name, change_minutes, sharpening_price, time_zone)
		VALUES (:id, :slug, :name, :change_minutes, :sharpening_price, :time_zone) ON CONFLICT (slug) DO NOTHING`, want)
	if err != nil {
		return Shop{}, false, err
	}
	n, _ := res.RowsAffected()
	err = s.db.GetContext(ctx, &shop, `SELECT `+shopColumns+` FROM shops WHERE slug = $1`, want.Slug)
	return shop, n == 1, err
}
