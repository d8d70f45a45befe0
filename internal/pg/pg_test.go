package pg

import (
	"context"
	"errors"
	"fmt"
	"os"
	"strings"
	"syscall"
	"testing"
	"time"

	"github.com/jackc/pgx/v5"
)

func folder(t *testing.T) string {
	t.Helper()
	dir, err := os.MkdirTemp("", "corte-pg-")
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { os.RemoveAll(dir) })
	return dir
}

// What was written before a crash is there after it, and a folder in use is
// not shared.
func TestStartAfterACrash(t *testing.T) {
	ctx, dir := t.Context(), folder(t)
	first, err := Start(ctx, Options{Dir: dir})
	if err != nil {
		t.Fatal(err)
	}
	if err := first.EnsureDatabase(ctx, "corte"); err != nil {
		t.Fatal(err)
	}
	query(t, first, `CREATE TABLE kept AS SELECT 42 AS n`)
	if _, err := Start(ctx, Options{Dir: dir, Patience: time.Millisecond}); !errors.Is(err, errHeld) {
		t.Errorf("a second start in the same folder: %v", err)
	}

	first.leave() // as when Corte dies with it
	_ = first.cmd.Process.Signal(syscall.SIGKILL)
	<-first.done
	second, err := Start(ctx, Options{Dir: dir})
	if err != nil {
		t.Fatalf("after a crash: %v", err)
	}
	defer second.Stop()
	if err := second.EnsureDatabase(ctx, "corte"); err != nil {
		t.Errorf("a database that is there already: %v", err)
	}
	query(t, second, `INSERT INTO kept VALUES (43)`)
}

// However often the postmaster is killed, it comes back where it was, with what
// was acknowledged, until it is stopped.
func TestItComesBack(t *testing.T) {
	s, err := Start(t.Context(), Options{Dir: folder(t)})
	if err != nil {
		t.Fatal(err)
	}
	if err := s.EnsureDatabase(t.Context(), "corte"); err != nil {
		t.Fatal(err)
	}
	query(t, s, `CREATE TABLE kept (n integer PRIMARY KEY)`)
	for i := range 3 {
		query(t, s, fmt.Sprintf(`INSERT INTO kept VALUES (%d)`, i))
		cmd, done := s.process()
		_ = cmd.Process.Kill()
		<-done
		deadline := time.Now().Add(5 * time.Second)
		for ; ; time.Sleep(20 * time.Millisecond) {
			conn, err := pgx.Connect(t.Context(), s.URL("corte"))
			if err == nil {
				var n int
				err = conn.QueryRow(t.Context(), `SELECT count(*) FROM kept`).Scan(&n)
				conn.Close(t.Context())
				if err == nil && n != i+1 {
					t.Fatalf("after %d kills %d rows are left", i+1, n)
				}
			}
			if err == nil {
				break
			}
			if time.Now().After(deadline) {
				t.Fatalf("after kill %d it does not answer: %v", i+1, err)
			}
		}
	}
	s.Stop()
	time.Sleep(3 * firstPause)
	if _, err := pgx.Connect(t.Context(), s.URL("corte")); err == nil {
		t.Error("it came back after Stop")
	}
}

// A first start that is cut short leaves half a cluster, which must not be
// taken for a whole one.
func TestStartAfterHalfASetUp(t *testing.T) {
	dir := folder(t)
	if err := os.MkdirAll(dir+"/cluster.new/base", 0o755); err != nil {
		t.Fatal(err)
	}
	s, err := Start(t.Context(), Options{Dir: dir, Throwaway: true})
	if err != nil {
		t.Fatal(err)
	}
	s.Stop()
	select {
	case <-s.done:
	default:
		t.Error("the server still runs after Stop")
	}
}

func TestAFullDiskIsSaid(t *testing.T) {
	err := fullOr(&os.PathError{Op: "write", Path: "x", Err: syscall.ENOSPC})
	if !strings.Contains(err.Error(), "disk is full") || !strings.Contains(err.Error(), "CORTE_DATA") {
		t.Errorf("a full disk is told as %q", err)
	}
}

func query(t *testing.T, s *Server, sql string) {
	t.Helper()
	conn, err := pgx.Connect(t.Context(), s.URL("corte"))
	if err != nil {
		t.Fatal(err)
	}
	defer conn.Close(context.Background())
	if _, err := conn.Exec(t.Context(), sql); err != nil {
		t.Fatal(err)
	}
}
