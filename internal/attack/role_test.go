package attack

import (
	"context"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"corte/internal/store"
	"corte/internal/testkit/pgtest"
)

// as connects to the target's database as a serving Corte does: to a shop, or
// for accounts and all shops.
func (x *target) as(shop bool) *pgx.Conn {
	x.t.Helper()
	serving, keeping := pgtest.RoleURLs(x.url)
	at := keeping
	if shop {
		at = serving
	}
	conn, err := pgx.Connect(x.t.Context(), at)
	if err != nil {
		x.t.Fatal(err)
	}
	x.t.Cleanup(func() { conn.Close(context.WithoutCancel(x.t.Context())) })
	return conn
}

// What a statement could do that reached the database as the roles that serve,
// if one of somebody else's ever did: neither is a superuser, becomes another
// role, owns a table, or reads the disk; the one that serves a shop sees no
// password and no session. It can name another shop and see that one's rows:
// docs/security.md says why that is so, and what stands before it.
func TestTheServingRolesAreHeld(t *testing.T) {
	x := open(t)
	ctx := t.Context()
	for name, conn := range map[string]*pgx.Conn{"serving": x.as(true), "keeping": x.as(false)} {
		for _, sql := range []string{
			`SET ROLE corte`, `SET SESSION AUTHORIZATION corte`, `CREATE ROLE thief SUPERUSER`, `ALTER ROLE corte_serves SUPERUSER`, `ALTER ROLE corte_serves BYPASSRLS`,
			`DROP TABLE blades`, `TRUNCATE log`, `ALTER TABLE log DISABLE TRIGGER ALL`, `ALTER TABLE blades DISABLE ROW LEVEL SECURITY`, `COPY blades TO PROGRAM 'cat'`,
			`SELECT pg_read_file('/etc/passwd')`, `CREATE TABLE public.mine (x int)`, `CREATE DATABASE thiefs`, `UPDATE log SET note = 'x'`, `DELETE FROM log`,
		} {
			if _, err := conn.Exec(ctx, sql); err == nil {
				t.Errorf("%s: %s goes through", name, sql)
			}
		}
		var super, other bool
		if err := conn.QueryRow(ctx, `SELECT rolsuper OR rolcreaterole OR rolcreatedb OR rolreplication, EXISTS (SELECT FROM pg_auth_members WHERE member = r.oid) FROM pg_roles r WHERE rolname = current_user`).Scan(&super, &other); err != nil || super || other {
			t.Errorf("%s: powerful %v, in another role %v, %v", name, super, other, err)
		}
	}
	serving := x.as(true)
	for _, table := range []string{"people", "sessions", "recovery_codes", "passkeys", "browsers", "attempts"} {
		if _, err := serving.Exec(ctx, `SELECT * FROM `+table); err == nil || !strings.Contains(err.Error(), "permission denied") {
			t.Errorf("serving a shop, it reads %s: %v", table, err)
		}
	}
	count := func() (n int) {
		if err := serving.QueryRow(ctx, `SELECT count(*) FROM blades`).Scan(&n); err != nil {
			t.Fatal(err)
		}
		return n
	}
	if n := count(); n != 0 {
		t.Errorf("serving nobody, %d blades are seen", n)
	}
	// This is what it can do, and all of it.
	if _, err := serving.Exec(ctx, `SELECT set_config('corte.shop', $1, false)`, x.shop.String()); err != nil {
		t.Fatal(err)
	}
	if n := count(); n == 0 {
		t.Error("what docs/security.md says that a statement of somebody else's could do, it cannot; say so there")
	}
}

// Lists that grow with time are swept by age, in every shop, by the sweep that a
// server makes at its start and once a day.
func TestOldListsAreSwept(t *testing.T) {
	x := open(t)
	now := x.clock.now()
	db := x.db()
	for _, age := range []time.Duration{0, store.AnswerRetention - time.Hour, store.AnswerRetention + time.Hour, store.AuditRetention + time.Hour} {
		db.MustExec(`INSERT INTO imports (shop_id, id, at, state, rows, beat_at) VALUES ($1, $2, $3, 'done', 1, $3)`, x.shop, uuid.New(), now.Add(-age))
		db.MustExec(`INSERT INTO audit (shop_id, at, who, what) VALUES ($1, $2, 'Maren', 'test')`, x.shop, now.Add(-age))
		db.MustExec(`INSERT INTO idempotency (shop_id, key, request, status, created_at) VALUES ($1, $2, '', 200, $3)`, x.shop, uuid.NewString(), now.Add(-age))
	}
	if err := x.svc.Sweep(t.Context()); err != nil {
		t.Fatal(err)
	}
	for table, want := range map[string]int{"imports": 2, "audit": 3, "idempotency": 2} {
		var n int
		if err := db.Get(&n, `SELECT count(*) FROM `+table+` WHERE shop_id = $1`, x.shop); err != nil || n != want {
			t.Errorf("%d rows of %s are left, not %d: %v", n, table, want, err)
		}
	}
}

// A connection that is lost in the middle is no fault inside Corte: it is said to
// be away, and when to come back.
func TestALostConnectionSaysWhenToComeBack(t *testing.T) {
	x := open(t)
	c := x.client()
	saw := c.ids("/saws", "kind")["table"]
	db := x.db()
	lost := 0
	for range 60 {
		db.MustExec(`SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = current_database() AND pid <> pg_backend_pid()`)
		w := c.do("POST", "/plans", obj{"cut": cut(saw, nil), "units": "mm"})
		switch {
		case w.code == 200:
		case w.code == 503 && w.header.Get("Retry-After") != "":
			lost++
		default:
			t.Fatalf("a plan over a lost connection: %d %q %s", w.code, w.header.Get("Retry-After"), w.body)
		}
	}
	t.Logf("%d of 60 were told to come back", lost)
}
