package care

import (
	"context"

	"github.com/google/uuid"

	"corte/core/care"
	"corte/internal/shop/rack"
)

// A Life is how a blade has stood through its log, and what lies ahead of it.
type Life struct {
	Points []care.Chapter
	Health care.Health
}

// mostPoints is about how many stretches of cuts are told apart.
const mostPoints = 240

// Life follows a blade through its log.
func (s Station) Life(ctx context.Context, shop, blade uuid.UUID) (Life, error) {
	b, err := rack.At(s.Env).Blade(ctx, shop, blade)
	if err != nil {
		return Life{}, err
	}
	events, err := s.Store.Events(ctx, shop, blade)
	return Life{care.Story(b.Blade, events, mostPoints), care.HealthOf(b.Condition, b.Grind, s.Now())}, err
}
