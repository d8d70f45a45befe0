// Package store keeps a shop in PostgreSQL: its saws, blades and log, and the
// snapshot of each blade's condition. It knows tables and transactions, and
// nothing of the craft beyond turning rows into the core's values.
package store

import (
	"context"
	"database/sql"
	"embed"
	"errors"
	"fmt"
	"io/fs"
	"strings"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5/pgconn"
	_ "github.com/jackc/pgx/v5/stdlib" // the "pgx" driver
	"github.com/jmoiron/sqlx"
	"github.com/pressly/goose/v3"
	"github.com/pressly/goose/v3/lock"
)

// ErrNone is returned where a row that was asked for is not in the shop.
var ErrNone = errors.New("no such row")

// A Store is the seam to the database. It holds no state beside its pool, or
// the transaction that Atomically gave it.
type Store struct {
	pool *sqlx.DB
	conn *sqlx.Conn // the transaction's, nil outside one
	db   queryer    // the pool, or the transaction
}

// ErrUnknown is returned where the database went away while it was told to keep
// something: it may have kept all of it or nothing.
var ErrUnknown = errors.New("not known whether it was kept")

// queryer is what a pool and a transaction have in common.
type queryer interface {
	GetContext(ctx context.Context, dest any, query string, args ...any) error
	SelectContext(ctx context.Context, dest any, query string, args ...any) error
	ExecContext(ctx context.Context, query string, args ...any) (sql.Result, error)
	NamedExecContext(ctx context.Context, query string, arg any) (sql.Result, error)
}

// Open connects to the database at a URL. It does not migrate.
func Open(ctx context.Context, url string) (*Store, error) {
	db, err := sqlx.ConnectContext(ctx, "pgx", url)
	if err != nil {
		return nil, fmt.Errorf("the database does not answer: %w", err)
	}
	db.SetMaxOpenConns(16)
	db.SetMaxIdleConns(16)
	return &Store{pool: db, db: db}, nil
}

// Close ends all connections.
func (s *Store) Close() error { return s.pool.Close() }

// Ping reports whether the database answers.
func (s *Store) Ping(ctx context.Context) error { return s.pool.PingContext(ctx) }

//go:embed migrations/*.sql
var migrations embed.FS

// Migrate brings the database's tables up to date. It is safe to run at every
// start and from several servers at once.
func (s *Store) Migrate(ctx context.Context) error {
	dir, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return err
	}
	locker, err := lock.NewPostgresSessionLocker()
	if err != nil {
		return err
	}
	p, err := goose.NewProvider(goose.DialectPostgres, s.pool.DB, dir, goose.WithSessionLocker(locker))
	if err != nil {
		return err
	}
	if _, err := p.Up(ctx); err != nil {
		return fmt.Errorf("the database could not be brought up to date: %w", err)
	}
	if err := s.FoldNew(ctx); err != nil {
		return err
	}
	return s.LearnNew(ctx)
}

// Atomically runs f on a store whose every change is kept together, or not at
// all where f fails.
func (s *Store) Atomically(ctx context.Context, f func(*Store) error) error {
	if s.conn != nil {
		return f(s) // already inside
	}
	conn, err := s.pool.Connx(ctx)
	if err != nil {
		return err
	}
	defer conn.Close() //nolint:errcheck // it goes back to the pool
	tx, err := conn.BeginTxx(ctx, nil)
	if err != nil {
		return err
	}
	defer tx.Rollback() //nolint:errcheck // after a commit there is nothing to roll back
	if err := f(&Store{s.pool, conn, tx}); err != nil {
		return err
	}
	err = tx.Commit()
	var refused *pgconn.PgError
	if err != nil && (!errors.As(err, &refused) || strings.HasPrefix(refused.Code, "57P")) {
		return fmt.Errorf("%w: %w", ErrUnknown, err)
	}
	return err
}

// IsDuplicate reports whether a row was refused because there is one already.
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
	Rework        float64   `db:"rework"` // what mending takes here against the usual
	Version       int       `db:"version"`
}

const shopColumns = `id, slug, name, change_minutes, height_school, learning, sharpening_price, rework, version`

// Shop finds a shop by its ID.
func (s *Store) Shop(ctx context.Context, id uuid.UUID) (Shop, error) {
	var row Shop
	err := s.db.GetContext(ctx, &row, `SELECT `+shopColumns+` FROM shops WHERE id = $1`, id)
	return row, noneIfNoRows(err)
}

// ChangeShop writes how a shop likes to work over its version. The error is
// ErrStale where somebody else was first.
func (s *Store) ChangeShop(ctx context.Context, shop Shop) error {
	return s.change(ctx, "shops", `UPDATE shops SET name = :name, change_minutes = :change_minutes,
		height_school = :height_school, learning = :learning, sharpening_price = :sharpening_price, rework = :rework, version = version + 1 WHERE id = :id AND version = :version`, shop.ID, shop)
}

// EnsureShop finds a shop by its slug, or founds it, and reports whether it
// was founded now.
func (s *Store) EnsureShop(ctx context.Context, want Shop) (shop Shop, founded bool, err error) {
	res, err := s.db.NamedExecContext(ctx, `INSERT INTO shops (id, slug, name, change_minutes, sharpening_price)
		VALUES (:id, :slug, :name, :change_minutes, :sharpening_price) ON CONFLICT (slug) DO NOTHING`, want)
	if err != nil {
		return Shop{}, false, err
	}
	n, _ := res.RowsAffected()
	err = s.db.GetContext(ctx, &shop, `SELECT `+shopColumns+` FROM shops WHERE slug = $1`, want.Slug)
	return shop, n == 1, err
}
