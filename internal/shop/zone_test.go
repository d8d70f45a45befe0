package shop_test

import (
	"encoding/json"
	"errors"
	"strings"
	"testing"
	"time"

	"corte/core/cut"
	"corte/core/measure"
	"corte/internal/logfile"
	"corte/internal/shop"
	"corte/internal/shop/kit"
	"corte/internal/store"
)

// A shop's days are its own, wherever the server stands: a log written by its
// clock an hour ago is not of the future, its calendar says today when it is
// today there, and sentences date as it does.
func TestDaysAreTheShops(t *testing.T) {
	f := open(t)
	ctx := t.Context()
	now := time.Now().UTC().Truncate(24 * time.Hour).Add(22*time.Hour + 30*time.Minute)
	svc := shop.New(f.st, func() time.Time { return now })
	secret, err := svc.Care.NewCalendar(ctx, f.id)
	if err != nil {
		t.Fatal(err)
	}
	sent, _, err := svc.Log.Rows(ctx, f.id, store.Filter{Kinds: []store.Kind{store.KindSent}}, store.Mark{}, 1)
	if err != nil {
		t.Fatal(err)
	}
	var d store.SentDetail
	if err := json.Unmarshal(sent[0].Detail, &d); err != nil || d.Expected == nil {
		t.Fatal(d, err)
	}
	expected := d.Expected.UTC().Format("20060102")
	for zone, hours := range map[string]time.Duration{"Etc/GMT-12": 12, "Etc/GMT+5": -5} { // their signs are the old way round
		there := now.Add(hours * time.Hour) // as a clock there shows it
		sh, err := svc.Rack.Shop(ctx, f.id)
		if err != nil {
			t.Fatal(err)
		}
		sh.Zone = zone
		if _, err := svc.Rack.ChangeShop(ctx, sh); err != nil {
			t.Fatal(err)
		}
		rows, err := logfile.Read([]byte("at,kind,blade\n"+there.Add(-time.Hour).Format("2006-01-02 15:04")+",washed,Plough\n"), measure.Millimetre, kit.Zone(zone))
		if err != nil {
			t.Fatal(err)
		}
		if old, err := svc.Log.TakeIn(ctx, f.id, rows, false); err != nil || old.Refuse != 0 || !rows[0].At.Equal(now.Add(-time.Hour)) {
			t.Errorf("%s: an hour ago is %v, %+v, %v", zone, rows[0].At, old, err)
		}
		cal, err := svc.Care.Feed(ctx, secret)
		if err != nil {
			t.Fatal(err)
		}
		begins := func(event string) string {
			_, after, _ := strings.Cut(cal, "UID:"+event)
			_, after, _ = strings.Cut(after, "DTSTART;VALUE=DATE:")
			return after[:8]
		}
		if got := begins("sharpen-" + f.blade["Rook"].ID.String()); got != there.Format("20060102") {
			t.Errorf("%s: what is due is due on %s", zone, got)
		}
		if got := begins("back-" + f.blade["Lace"].ID.String()); got != expected {
			t.Errorf("%s: what is expected on %s is expected on %s", zone, expected, got)
		}
		if got := kit.Day(now, zone); got != there.Format("2 January 2006") {
			t.Errorf("%s: today is %s", zone, got)
		}
		p, err := svc.Choose.Plan(ctx, f.id, f.cut("table", "cherry", cut.Rip, 90), 60, measure.Millimetre)
		if err != nil || !strings.Contains(p.HeelFrom, "on "+kit.Day(*f.saws["table"].HeelAt, zone)) {
			t.Errorf("%s: %q, %v", zone, p.HeelFrom, err)
		}
	}
	sh, _ := svc.Rack.Shop(ctx, f.id)
	for _, bad := range []string{"Local", "Nowhere/None", "../etc/passwd"} {
		sh.Zone = bad
		var e *kit.Error
		if _, err := svc.Rack.ChangeShop(ctx, sh); !errors.As(err, &e) || e.Field != "time_zone" {
			t.Errorf("%s: %v", bad, err)
		}
	}
}
