package store

import (
	"context"
	"io/fs"
)

// MigrateFrom migrates as Migrate does, from a folder of the test's.
func (s *Store) MigrateFrom(ctx context.Context, dir fs.FS) error { return s.migrate(ctx, dir) }

// LogRead is how many rows of the log the transaction has looked at.
func (s *Store) LogRead(ctx context.Context) (rows int, err error) {
	err = s.db.GetContext(ctx, &rows, `SELECT coalesce(sum(seq_tup_read + coalesce(idx_tup_fetch, 0)), 0) FROM pg_stat_xact_user_tables WHERE relname ~ '^log_[0-9]+$'`)
	return rows, err
}
