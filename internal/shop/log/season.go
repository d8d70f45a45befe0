package log

import (
	"context"
	"time"

	"github.com/google/uuid"

	"corte/internal/shop/kit"
	"corte/internal/store"
)

// A Season is the log summed up by the shop's days.
type Season struct {
	From, Until time.Time // days, as store.DayOf names them; both are in it
	Marks       []store.DayMark
}

// mostDays is how long a season may be.
const mostDays = 400

// Season sums up the days up to today, so many of them.
func (s Station) Season(ctx context.Context, shop uuid.UUID, days int) (Season, error) {
	if days < 1 || days > mostDays {
		return Season{}, kit.Refuse("days", "%d days cannot be summed up; ask for 1 to %d", days, mostDays)
	}
	sh, err := s.Store.Shop(ctx, shop)
	if err != nil {
		return Season{}, err
	}
	zone := kit.Zone(sh.Zone)
	today := s.Now().In(zone)
	from := time.Date(today.Year(), today.Month(), today.Day()-days+1, 0, 0, 0, 0, zone)
	until := time.Date(today.Year(), today.Month(), today.Day()+1, 0, 0, 0, 0, zone)
	marks, err := s.Store.Season(ctx, shop, from, until, zone)
	return Season{From: store.DayOf(from, zone), Until: store.DayOf(today, zone), Marks: marks}, err
}
