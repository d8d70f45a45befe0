package store

import (
	"context"
	"io/fs"
)

// MigrateFrom migrates as Migrate does, from a folder of the test's.
func (s *Store) MigrateFrom(ctx context.Context, dir fs.FS) error { return s.migrate(ctx, dir) }
