package store

import (
	"context"
	"embed"
	"errors"
	"fmt"
	"io/fs"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgconn"
	"github.com/jackc/pgx/v5/pgxpool"
	"github.com/jackc/pgx/v5/stdlib"
	"github.com/pressly/goose/v3"
	"github.com/pressly/goose/v3/lock"
)

//go:embed migrations/*.sql
var migrations embed.FS

// A migration waits for a table no longer than this, since everybody else who
// wants the table waits behind it, and then stands back and tries again.
const (
	waitForTable = "2s"
	standBack    = time.Second
	tries        = 40
)

// Migrate brings the database's tables up to date. It is safe to run at every
// start, from several servers at once and while others serve: one migrates, and
// the tables are theirs again where it does not get them soon. A database of a
// later Corte is left as it is.
func (s *Store) Migrate(ctx context.Context) error {
	dir, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return err
	}
	if err := s.migrate(ctx, dir); err != nil {
		return fmt.Errorf("can't update the database: %w", err)
	}
	if err := s.FoldNew(ctx); err != nil {
		return err
	}
	if err := s.holdNew(ctx); err != nil {
		return err
	}
	return s.LearnNew(ctx)
}

func (s *Store) migrate(ctx context.Context, dir fs.FS) error {
	// Two minutes for another server's migration.
	locker, err := lock.NewPostgresSessionLocker(lock.WithLockTimeout(1, 120))
	if err != nil {
		return err
	}
	c, err := pgxpool.ParseConfig(s.url) // which takes the pool's settings out of it
	if err != nil {
		return err
	}
	db := stdlib.OpenDB(*c.ConnConfig, stdlib.OptionAfterConnect(func(ctx context.Context, conn *pgx.Conn) error {
		_, err := conn.Exec(ctx, `SELECT set_config('lock_timeout', $1, false)`, waitForTable)
		return err
	}))
	defer db.Close()
	p, err := goose.NewProvider(goose.DialectPostgres, db, dir, goose.WithSessionLocker(locker))
	if err != nil {
		return err
	}
	for try := 1; ; try++ {
		_, err = p.Up(ctx)
		var refused *pgconn.PgError
		if err == nil || !errors.As(err, &refused) || refused.Code != "55P03" {
			return err
		}
		if try == tries {
			return fmt.Errorf("its tables were in use for two minutes, perhaps by a running backup. Start Corte again afterward: %w", err)
		}
		select {
		case <-ctx.Done():
			return ctx.Err()
		case <-time.After(standBack):
		}
	}
}
