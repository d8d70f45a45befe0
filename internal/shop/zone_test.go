package shop_test

import (
	"encoding/json"
	"errors"
	"strings"
	"testing"
	"time"

	"corte/core/cut"
	"corte/core/history"
	"corte/core/measure"
	"corte/core/outcome"
	"corte/core/say"
	"corte/internal/logfile"
	"corte/internal/record"
	"corte/internal/refusal"
	"corte/internal/shop"
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
	sent, _, err := svc.Log.Rows(ctx, f.id, store.Filter{Kinds: []history.Kind{history.KindSent}}, store.Mark{}, 1)
	if err != nil {
		t.Fatal(err)
	}
	var d history.Sent
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
		rows, err := logfile.Read([]byte("at,kind,blade\n"+there.Add(-time.Hour).Format("2006-01-02 15:04")+",washed,Plough\n"), measure.Millimetre, record.Zone(zone))
		if err != nil {
			t.Fatal(err)
		}
		if old, err := svc.Log.TakeIn(ctx, f.id, rows, false); err != nil || old.Refuse != 0 || !rows[0].At.Equal(now.Add(-time.Hour)) {
			t.Errorf("%s: an hour ago is %v, %+v, %v", zone, rows[0].At, old, err)
		}
		cal, err := svc.Care.Feed(ctx, say.Voice{}, secret)
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
		if got := record.Day(now, zone).String(); got != there.Format("2 January 2006") {
			t.Errorf("%s: today is %s", zone, got)
		}
		p, err := svc.Choose.Plan(ctx, f.id, f.cut("table", "cherry", cut.Rip, 90), 60)
		if err != nil || !strings.Contains(p.HeelFrom.String(), "on "+record.Day(*f.saws["table"].HeelAt, zone).String()) {
			t.Errorf("%s: %q, %v", zone, p.HeelFrom, err)
		}
	}
	sh, _ := svc.Rack.Shop(ctx, f.id)
	for _, bad := range []string{"Local", "Nowhere/None", "../etc/passwd"} {
		sh.Zone = bad
		var e *refusal.Error
		if _, err := svc.Rack.ChangeShop(ctx, sh); !errors.As(err, &e) || e.Field != "time_zone" {
			t.Errorf("%s: %v", bad, err)
		}
	}
}

// A season sums up by the shop's days what stands: a cut just after its
// midnight is of the next day, and a row struck out is of none.
func TestSeasonIsSummedByTheShopsDays(t *testing.T) {
	f := open(t)
	ctx := t.Context()
	now := time.Now().UTC().Truncate(24 * time.Hour).Add(23 * time.Hour)
	svc := shop.New(f.st, func() time.Time { return now })
	sh, err := svc.Rack.Shop(ctx, f.id)
	if err != nil {
		t.Fatal(err)
	}
	sh.Zone = "Etc/GMT-2" // two hours ahead: it is tomorrow there
	if _, err := svc.Rack.ChangeShop(ctx, sh); err != nil {
		t.Fatal(err)
	}
	saw, blade := f.saws["table"].ID, f.blade["Ragman"].ID
	made := func(ago time.Duration, wall outcome.Wall, splinters, other outcome.Face) int64 {
		d, _ := json.Marshal(history.Cut{Material: "cherry", Direction: "rip", Motion: "along", Finish: "fine", Thickness: 20, Width: 100, Length: 500, Pieces: 3, Wall: wall, Splinters: splinters, OtherSplinters: other})
		e, err := f.st.Append(ctx, store.Entry{Shop: f.id, At: now.Add(-ago), Kind: history.KindCut, Blade: &blade, Saw: &saw, Detail: d})
		if err != nil {
			t.Fatal(err)
		}
		return e.ID
	}
	made(0, "brown", "none", "none")
	made(time.Hour, "clean", "none", "fuzz") // midnight there
	made(time.Hour+time.Microsecond, "black", "torn", "")
	if _, err := svc.Log.Strike(ctx, f.id, made(0, "black", "torn", "torn"), ""); err != nil {
		t.Fatal(err)
	}
	season, err := svc.Log.Season(ctx, f.id, 2)
	if err != nil {
		t.Fatal(err)
	}
	tomorrow := now.Truncate(24*time.Hour).AddDate(0, 0, 1)
	if !season.Until.Equal(tomorrow) || !season.From.Equal(tomorrow.AddDate(0, 0, -1)) {
		t.Errorf("from %v until %v", season.From, season.Until)
	}
	want := map[time.Time]store.DayMark{
		tomorrow:                   {Rows: 2, Pieces: 6, Metres: 3, Burnt: 1, Splintery: 1},
		tomorrow.AddDate(0, 0, -1): {Rows: 1, Pieces: 3, Metres: 1.5, Burnt: 1, Splintery: 1},
	}
	for _, m := range season.Marks {
		if m.Kind != history.KindCut || m.Blade != blade {
			continue
		}
		w, ok := want[m.Day]
		w.Day, w.Kind, w.Saw, w.Blade, w.SawName, w.BladeName, w.Material, w.Finish = m.Day, history.KindCut, saw, blade, f.saws["table"].Name, "Ragman", "cherry", "fine"
		if !ok || m != w {
			t.Errorf("%v: %+v, not %+v", m.Day, m, w)
		}
		delete(want, m.Day)
	}
	if len(want) > 0 {
		t.Errorf("missing: %v", want)
	}
	today := tomorrow.AddDate(0, 0, -1)
	for name, tt := range map[string]struct {
		first, last time.Time
		until       time.Time // the filter's own end
		rows        int
	}{
		"that day":                {tomorrow, tomorrow, time.Time{}, 2},
		"from it on":              {tomorrow, time.Time{}, time.Time{}, 2},
		"up to the day before":    {time.Time{}, today, time.Time{}, 1},
		"the earlier of two ends": {time.Time{}, tomorrow, now.Add(-time.Hour), 1},
		"whichever comes first":   {time.Time{}, today, now.Add(time.Hour), 1},
	} {
		of := store.Filter{Blade: &blade, Kinds: []history.Kind{history.KindCut}, Standing: true, From: today.AddDate(0, 0, -1), To: tt.until, FirstDay: tt.first, LastDay: tt.last}
		if rows, _, err := svc.Log.Rows(ctx, f.id, of, store.Mark{}, 10); err != nil || len(rows) != tt.rows {
			t.Errorf("%s: %d rows, not %d, %v", name, len(rows), tt.rows, err)
		}
	}
	if one, err := svc.Log.Season(ctx, f.id, 1); err != nil || !one.From.Equal(one.Until) {
		t.Errorf("a season of a day: %+v, %v", one, err)
	}
	var refused *refusal.Error
	for _, days := range []int{0, 401} {
		if _, err := svc.Log.Season(ctx, f.id, days); !errors.As(err, &refused) || refused.Field != "days" {
			t.Errorf("%d days: %v", days, err)
		}
	}
}
