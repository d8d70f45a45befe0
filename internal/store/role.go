package store

import (
	"context"
	"database/sql"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/jmoiron/sqlx"
)

// servingRole sees the rows of one shop, and only adds to the log (migration 10).
const servingRole = "corte_serves"

type shopKey struct{}

// For returns a context for one shop: statements in it see and change only that
// shop's rows. In any other context the store acts as the database's owner, for
// migrations and sweeps over all shops.
func For(ctx context.Context, shop uuid.UUID) context.Context {
	return context.WithValue(ctx, shopKey{}, shop)
}

// shopOf is the shop of a context; zero if there is none.
func shopOf(ctx context.Context) uuid.UUID {
	shop, _ := ctx.Value(shopKey{}).(uuid.UUID)
	return shop
}

const sessionKey = "corte.shop"

// takeShop sets the shop of a connection. It costs a round trip only if the
// connection served another shop before.
func takeShop(ctx context.Context, conn *pgx.Conn) (bool, error) {
	shop, session := shopOf(ctx), conn.PgConn().CustomData()
	if was, _ := session[sessionKey].(uuid.UUID); was == shop {
		return true, nil
	}
	if _, err := conn.Exec(ctx, `SELECT set_config('corte.shop', $1, false)`, shop.String()); err != nil {
		return false, err
	}
	session[sessionKey] = shop
	return true, nil
}

// settle gives a new connection its settings. It is a statement: a pooler that
// keeps a connection for us takes no settings with which it begins.
func settle(ctx context.Context, conn *pgx.Conn) error {
	_, err := conn.Exec(ctx, `SELECT `+ownSettings, false)
	return err
}

// takeRole sets the role of a connection. It costs a round trip only if the
// connection had another role before.
func takeRole(ctx context.Context, conn *pgx.Conn) (bool, error) {
	shop, session := shopOf(ctx), conn.PgConn().CustomData()
	if was, _ := session[sessionKey].(uuid.UUID); was == shop {
		return true, nil
	}
	role, setting := servingRole, shop.String()
	if shop == uuid.Nil {
		role, setting = "none", ""
	}
	if _, err := conn.Exec(ctx, setRole, false, role, setting); err != nil {
		return false, err
	}
	session[sessionKey] = shop
	return true, nil
}

// ownSettings are the settings of every connection. Queries about a shop are small:
// planning each anew, compiling it or starting workers takes longer than running it.
// $1 says whether they hold for the transaction only.
const ownSettings = `set_config('plan_cache_mode', 'force_generic_plan', $1), set_config('jit', 'off', $1), set_config('max_parallel_workers_per_gather', '0', $1)`

// setRole takes that as $1, too, and then the role and the shop.
const setRole = `SELECT set_config('role', $2, $1), set_config('corte.shop', $3, $1)`

// setTxRole puts a transaction into the role of its context. The setting ends with
// the transaction, so the next user of the connection doesn't inherit it.
func setTxRole(ctx context.Context, tx *sqlx.Tx) error {
	shop := shopOf(ctx)
	if shop == uuid.Nil {
		return nil
	}
	_, err := tx.ExecContext(ctx, setRole+`, `+ownSettings, true, servingRole, shop.String())
	return err
}

// oneByOne runs every statement in a transaction of its own: behind a pooler the
// role of its context holds nowhere else.
type oneByOne struct{ *Store }

func (o oneByOne) GetContext(ctx context.Context, dest any, query string, args ...any) error {
	return o.Atomically(ctx, func(s *Store) error { return s.db.GetContext(ctx, dest, query, args...) })
}

func (o oneByOne) SelectContext(ctx context.Context, dest any, query string, args ...any) error {
	return o.Atomically(ctx, func(s *Store) error { return s.db.SelectContext(ctx, dest, query, args...) })
}

func (o oneByOne) ExecContext(ctx context.Context, query string, args ...any) (res sql.Result, err error) {
	err = o.Atomically(ctx, func(s *Store) error { res, err = s.db.ExecContext(ctx, query, args...); return err })
	return res, err
}

func (o oneByOne) NamedExecContext(ctx context.Context, query string, arg any) (res sql.Result, err error) {
	err = o.Atomically(ctx, func(s *Store) error { res, err = s.db.NamedExecContext(ctx, query, arg); return err })
	return res, err
}
