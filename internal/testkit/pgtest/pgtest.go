// Package pgtest gives tests a real PostgreSQL: one throwaway server for each
// test binary, and a database of its own, copied from a migrated template, for
// each test.
package pgtest

import (
	"context"
	"fmt"
	"os"
	"sync/atomic"
	"testing"

	"github.com/jackc/pgx/v5"

	"corte/internal/pg"
	"corte/internal/store"
)

const template = "corte_template"

var (
	server *pg.Server
	count  atomic.Int64
)

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
	return m.Run()
}

func fail(err error) int {
	fmt.Fprintln(os.Stderr, "pgtest:", err)
	return 1
}

func prepare(ctx context.Context) error {
	if err := server.EnsureDatabase(ctx, template); err != nil {
		return err
	}
	st, err := store.Open(ctx, server.URL(template))
	if err != nil {
		return err
	}
	defer st.Close() // a template that is in use cannot be copied
	return st.Migrate(ctx)
}

// URL makes a database for this test and returns where it is.
func URL(t testing.TB) string {
	t.Helper()
	name := fmt.Sprintf("t%d", count.Add(1))
	conn, err := pgx.Connect(t.Context(), server.URL("postgres"))
	if err != nil {
		t.Fatal(err)
	}
	defer conn.Close(context.Background())
	if _, err := conn.Exec(t.Context(), `CREATE DATABASE `+name+` TEMPLATE `+template); err != nil {
		t.Fatal(err)
	}
	return server.URL(name)
}

// Store opens a store on a database made for this test.
func Store(t testing.TB) *store.Store {
	t.Helper()
	st, err := store.Open(t.Context(), URL(t))
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { st.Close() })
	return st
}
