package care

import (
	"context"
	"crypto/rand"
	"crypto/sha256"
	"encoding/json"
	"time"

	ics "github.com/arran4/golang-ical"
	"github.com/google/uuid"

	"corte/core/care"
	"corte/core/history"
	"corte/core/say"
	"corte/internal/record"
	"corte/internal/refusal"
	"corte/internal/shop/rack"
	"corte/internal/store"
)

// NewCalendar makes a private address for the shop's calendar, in place of any
// before, and returns its secret, which is not kept.
func (s Station) NewCalendar(ctx context.Context, shop uuid.UUID) (string, error) {
	secret := rand.Text()
	digest := sha256.Sum256([]byte(secret))
	return secret, s.Store.SetCalendar(ctx, shop, digest[:], s.Now())
}

// Calendar is when the shop's calendar address was made, or nil.
func (s Station) Calendar(ctx context.Context, shop uuid.UUID) (*time.Time, error) {
	return s.Store.Calendar(ctx, shop)
}

// WithdrawCalendar makes the calendar's address lead nowhere.
func (s Station) WithdrawCalendar(ctx context.Context, shop uuid.UUID) error {
	return s.Store.SetCalendar(ctx, shop, nil, time.Time{})
}

// Feed writes the calendar that a secret leads to, as iCalendar, as a voice says it.
func (s Station) Feed(ctx context.Context, v say.Voice, secret string) (string, error) {
	digest := sha256.Sum256([]byte(secret))
	shop, err := s.Store.CalendarOf(store.For(ctx, uuid.Nil), digest[:])
	if err != nil {
		return "", refusal.NotThere(err, "", "calendar address")
	}
	ctx = store.For(ctx, shop) // whoever asks may be known to no shop
	sh, err := rack.At(s.Env).Shop(ctx, shop)
	if err != nil {
		return "", err
	}
	all, err := s.All(ctx, shop)
	if err != nil {
		return "", err
	}
	now := s.Now().In(record.Zone(sh.Zone))
	cal := ics.NewCalendarFor("Corte")
	cal.SetMethod(ics.MethodPublish)
	cal.SetXWRCalName(sh.Name)
	cal.SetRefreshInterval("PT6H")
	day := func(uid string, at time.Time, summary, description say.Line) {
		if at = at.In(now.Location()); at.Before(now) {
			at = now // what is overdue is due today
		}
		e := cal.AddEvent(uid + "@corte.invalid")
		e.SetDtStampTime(now)
		e.SetAllDayStartAt(at)
		e.SetAllDayEndAt(at.AddDate(0, 0, 1))
		e.SetSummary(v.Say(summary))
		e.SetDescription(v.Say(description))
	}
	for _, b := range all.Blades {
		if b.Blade.Condition.Away {
			continue
		}
		for _, due := range []struct {
			what, todo string
			u          care.Urgency
			d          care.Date
		}{{"wash", "Clean %s", b.Health.Wash, b.Health.WashAt}, {"sharpen", "Sharpen %s", b.Health.Sharpen, b.Health.SharpenAt}} {
			uid := due.what + "-" + b.Blade.ID.String()
			switch {
			case due.u == care.Due:
				day(uid, now, say.Of(due.todo, b.Blade.Name), say.Of("Due now."))
			case due.d.Known():
				day(uid, due.d.Likely, say.Of(due.todo, b.Blade.Name),
					say.Of("At your usual pace, between %s and %s.", record.Day(due.d.Early, sh.Zone), record.Day(due.d.Late, sh.Zone)))
			}
		}
	}
	for _, e := range all.Away {
		var d history.Sent
		if json.Unmarshal(e.Detail, &d) != nil {
			continue // when it is expected cannot be read
		}
		if d.Expected != nil {
			y, m, on := d.Expected.UTC().Date()
			day("back-"+e.Blade.String(), time.Date(y, m, on, 0, 0, 0, 0, now.Location()), say.Of("%s is due back", *e.BladeName), say.Of("From %s.", d.To))
		}
	}
	for _, b := range all.Baths {
		day("bath-"+b.ID.String(), b.Until, say.Of("Replace the bath %s", b.Name), say.Of("%s.", b.Why.Upper()))
	}
	return cal.Serialize(), nil
}
