// Package request has what the handlers of every station share: the service and
// the shop that a request is in, and what its parameters say.
package request

import (
	"context"

	"github.com/gin-gonic/gin"
	"github.com/google/uuid"

	"corte/internal/record"
	"corte/internal/shop"
)

// Base is where the contract's addresses begin.
const Base = "/api/v1"

// A Scope finds the service that answers a request.
type Scope struct {
	Service *shop.Service // outside of any transaction
}

const serviceKey = "service"

// Within gives a request the service inside its transaction.
func Within(c *gin.Context, tx *shop.Service) { c.Set(serviceKey, tx) }

// In is the service that answers a request: inside the transaction of its key,
// where it has one.
func (s Scope) In(ctx context.Context) *shop.Service {
	if tx, ok := ctx.Value(serviceKey).(*shop.Service); ok {
		return tx
	}
	return s.Service
}

// Shop is the shop that a request is in.
func Shop(ctx context.Context) uuid.UUID { return record.ActorOf(ctx).Shop }
