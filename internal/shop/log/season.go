package log

import (
	"context"
	"time"

	"github.com/google/uuid"

	"corte/internal/record"
	"corte/internal/refusal"
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
		return Season{}, refusal.Of("days", "can't sum up %d days. Ask for 1 to %d", days, mostDays)
	}
	sh, err := s.Store.Shop(ctx, shop)
	if err != nil {
		return Season{}, err
	}
	zone := record.Zone(sh.Zone)
	today := s.Now().In(zone)
	from := time.Date(today.Year(), today.Month(), today.Day()-days+1, 0, 0, 0, 0, zone)
	until := time.Date(today.Year(), today.Month(), today.Day()+1, 0, 0, 0, 0, zone)
	marks, err := s.Store.Season(ctx, shop, from, until, zone)
	return Season{From: store.DayOf(from, zone), Until: store.DayOf(today, zone), Marks: marks}, err
}

// days narrows a filter to its days, which begin and end as the shop's do.
func (s Station) days(ctx context.Context, shop uuid.UUID, f store.Filter) (store.Filter, error) {
	if f.FirstDay.IsZero() && f.LastDay.IsZero() {
		return f, nil
	}
	sh, err := s.Store.Shop(ctx, shop)
	if err != nil {
		return f, err
	}
	midnight := func(day time.Time, after int) time.Time {
		return time.Date(day.Year(), day.Month(), day.Day()+after, 0, 0, 0, 0, record.Zone(sh.Zone))
	}
	if from := midnight(f.FirstDay, 0); !f.FirstDay.IsZero() && from.After(f.From) {
		f.From = from
	}
	if to := midnight(f.LastDay, 1); !f.LastDay.IsZero() && (f.To.IsZero() || to.Before(f.To)) {
		f.To = to
	}
	return f, nil
}
