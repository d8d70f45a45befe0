// Package pgtest gives tests a real PostgreSQL: one throwaway server for each
// test binary, and a database of its own for each test, copied from a template
// that is migrated once, or from one that is furnished with the demo shop once.
package pgtest

import (
	"context"
	"fmt"
	"os"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"corte/internal/demo"
	"corte/internal/pg"
	"corte/internal/store"
)

const (
	migrated  = "corte_migrated"
	furnished = "corte_furnished"
)

// Tables asks for the names of the tables whose rows belong to shops.
const Tables = `SELECT c.relname::text FROM pg_class c JOIN pg_attribute a ON a.attrelid = c.oid AND a.attname = 'shop_id'
	WHERE c.relnamespace = 'public'::regnamespace AND c.relkind IN ('r', 'p') AND NOT c.relispartition ORDER BY 1`

var (
	server *pg.Server
	count  atomic.Int64
)

// furnish makes the furnished template when the first test asks for it, and
// gives the demo shop's ID.
var furnish = sync.OnceValues(func() (shop uuid.UUID, err error) {
	ctx := context.Background()
	if err := copied(ctx, furnished, migrated); err != nil {
		return shop, err
	}
	st, err := store.Open(ctx, server.URL(furnished))
	if err != nil {
		return shop, err
	}
	defer st.Close() // a template that is in use cannot be copied
	sh, err := demo.Furnish(ctx, st, time.Now())
	return sh.ID, err
})

// Run starts the server, runs the tests and stops it. Call it from TestMain:
//
//	func TestMain(m *testing.M) { os.Exit(pgtest.Run(m)) }
func Run(m *testing.M) int {
	ctx := context.Background()
	dir, err := os.MkdirTemp("", "corte-pgtest-")
	if err != nil {
		return fail(err)
	}
	defer os.RemoveAll(dir)
	if server, err = pg.Start(ctx, pg.Options{Dir: dir, Throwaway: true}); err != nil {
		return fail(err)
	}
	defer server.Stop()
	if err := prepare(ctx); err != nil {
		return fail(err)
	}
	code := m.Run()
	if err := said.keep(); err != nil {
		return fail(err)
	}
	return code
}

func fail(err error) int {
	fmt.Fprintln(os.Stderr, "pgtest:", err)
	return 1
}

func prepare(ctx context.Context) error {
	if err := server.EnsureDatabase(ctx, migrated); err != nil {
		return err
	}
	st, err := store.Open(ctx, server.URL(migrated))
	if err != nil {
		return err
	}
	defer st.Close()
	if err := st.Migrate(ctx); err != nil {
		return err
	}
	return server.EnsureRoles(ctx, migrated)
}

// copied makes a database out of a template.
func copied(ctx context.Context, name, template string) error {
	conn, err := pgx.Connect(ctx, server.URL("postgres"))
	if err != nil {
		return err
	}
	defer conn.Close(context.WithoutCancel(ctx)) //nolint:errcheck // nothing hangs on it
	_, err = conn.Exec(ctx, `CREATE DATABASE `+name+` TEMPLATE `+template)
	return err
}

// URL makes an empty, migrated database for this test and says where it is.
func URL(t testing.TB) string { return own(t, migrated) }

// Demo makes a database with the demo shop for this test, and says where it is
// and what the shop's ID is.
func Demo(t testing.TB) (string, uuid.UUID) {
	t.Helper()
	shop, err := furnish()
	if err != nil {
		t.Fatal(err)
	}
	return own(t, furnished), shop
}

func own(t testing.TB, template string) string {
	t.Helper()
	name := fmt.Sprintf("t%d", count.Add(1))
	if err := copied(t.Context(), name, template); err != nil {
		t.Fatal(err)
	}
	return server.URL(name)
}

// Store opens a store on an empty database made for this test.
func Store(t testing.TB) *store.Store { return Open(t, URL(t)) }

// Open opens a store that closes with the test. It signs in as a Corte does that
// serves over a PostgreSQL of its own.
func Open(t testing.TB, url string) *store.Store {
	t.Helper()
	serving, keeping := RoleURLs(url)
	st, err := store.OpenAs(t.Context(), url, serving, keeping, &said)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { st.Close() })
	return st
}

// RoleURLs are where a serving Corte signs in to a database of a test.
func RoleURLs(url string) (serving, keeping string) {
	return server.RoleURLs(url[strings.LastIndexByte(url, '/')+1:])
}

// OpenThrough opens one by way of a pooler.
func OpenThrough(t testing.TB, pooler, url string) *store.Store {
	t.Helper()
	st, err := store.OpenThrough(t.Context(), pooler, url, &said)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { st.Close() })
	return st
}
