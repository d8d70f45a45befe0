package store

import (
	"context"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

// servingRole sees the rows of one shop, and only adds to the log (migration 10).
const servingRole = "corte_serves"

type shopKey struct{}

// For is a context in which the database serves one shop: whatever is asked in
// it sees and changes that shop's rows alone. In any other context the store
// acts as the database's owner, for migrations and sweeps over all shops.
func For(ctx context.Context, shop uuid.UUID) context.Context {
	return context.WithValue(ctx, shopKey{}, shop)
}

const sessionKey = "corte.shop"

// takeRole puts a connection into the role of the context that asks for it. It
// is a round trip only where the connection served another before.
func takeRole(ctx context.Context, conn *pgx.Conn) (bool, error) {
	shop, _ := ctx.Value(shopKey{}).(uuid.UUID)
	session := conn.PgConn().CustomData()
	if was, _ := session[sessionKey].(uuid.UUID); was == shop {
		return true, nil
	}
	role, setting := servingRole, shop.String()
	if shop == uuid.Nil {
		role, setting = "none", ""
	}
	if _, err := conn.Exec(ctx, `SELECT set_config('role', $1, false), set_config('corte.shop', $2, false)`, role, setting); err != nil {
		return false, err
	}
	session[sessionKey] = shop
	return true, nil
}
