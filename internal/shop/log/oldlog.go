package log

import (
	"context"
	"encoding/json"
	"fmt"
	"io"
	"time"

	"github.com/google/uuid"

	"corte/internal/logfile"
	"corte/internal/shop/rack"
	"corte/internal/store"
)

// An OldRow is what a row of a file would do to the log.
type OldRow struct {
	Line int
	Does string // add, same or refuse
	Says string
	Kind string
}

// An Old is what a file would do to the log.
type Old struct {
	Rows              []OldRow // the refused first, at most shownRows
	Add, Same, Refuse int
}

const shownRows = 500

// clockAhead is how far ahead the clock may be that a row's time was read off.
const clockAhead = 5 * time.Minute

// TakeIn says what a file of old records would add, or, where save is set,
// adds all of its good rows, or none. A row that is in the log already is left
// alone, so that a file may be brought in twice.
func (s Station) TakeIn(ctx context.Context, shop uuid.UUID, rows []logfile.Row, save bool) (Old, error) {
	var out Old
	saws, blades, err := rack.At(s.Kit).Whole(ctx, shop)
	if err != nil {
		return out, err
	}
	bladeIDs, sawIDs := map[string]*uuid.UUID{}, map[string]*uuid.UUID{}
	for i := range blades {
		bladeIDs[blades[i].Name] = &blades[i].ID
	}
	for i := range saws {
		sawIDs[saws[i].Name] = &saws[i].ID
	}
	times := make([]time.Time, 0, len(rows))
	for i := range rows {
		rows[i].At = rows[i].At.Truncate(time.Microsecond) // as the database keeps it
		times = append(times, rows[i].At)
	}
	there, err := s.Store.RowsAt(ctx, shop, times)
	if err != nil {
		return out, err
	}
	var add []store.Entry
	told := func(r logfile.Row, does, says string) {
		if len(out.Rows) < shownRows {
			out.Rows = append(out.Rows, OldRow{r.Line, does, says, r.Kind})
		}
	}
	for _, r := range rows {
		e, err := entryOf(r, bladeIDs, sawIDs, s.Now())
		if err != nil {
			out.Refuse++
			told(r, "refuse", err.Error())
			continue
		}
		e.Shop = shop
		if place := store.PlaceOf(e); there[place] > 0 {
			there[place]--
			out.Same++
			told(r, "same", "it is in the log already")
			continue
		}
		out.Add++
		told(r, "add", "")
		add = append(add, e)
	}
	if !save || len(add) == 0 {
		return out, nil
	}
	return out, s.Store.AddOld(ctx, shop, add)
}

func entryOf(r logfile.Row, blades, saws map[string]*uuid.UUID, now time.Time) (store.Entry, error) {
	if r.Err != nil {
		return store.Entry{}, r.Err
	}
	e := store.Entry{At: r.At, Kind: store.Kind(r.Kind), By: r.By, Note: r.Note, Detail: r.More}
	if r.Blade != "" {
		if e.Blade = blades[r.Blade]; e.Blade == nil {
			return e, fmt.Errorf("there is no blade called %q; put it on the rack first", r.Blade)
		}
	}
	if r.Saw != "" {
		if e.Saw = saws[r.Saw]; e.Saw == nil {
			return e, fmt.Errorf("there is no saw called %q", r.Saw)
		}
	}
	if r.Cut != nil {
		raw, err := json.Marshal(r.Cut)
		if err != nil {
			return e, err
		}
		e.Detail = raw
	}
	if e.Detail == nil {
		e.Detail = json.RawMessage(`{}`)
	}
	switch {
	case e.At.After(now.Add(clockAhead)):
		return e, fmt.Errorf("%s is in the future", e.At.Format("2 January 2006, 15:04 -07:00"))
	case e.Blade == nil && e.Kind.NeedsBlade():
		return e, fmt.Errorf("a row of kind %s needs its blade", e.Kind)
	case e.Saw == nil && e.Kind.NeedsSaw():
		return e, fmt.Errorf("a row of kind %s needs its saw", e.Kind)
	case e.Saw == nil && e.Blade == nil:
		return e, fmt.Errorf("say which blade or saw it is about")
	}
	return e, nil
}

// WriteLog writes the rows of the log that a filter wants into a file, newest
// first, without what was struck out.
func (s Station) WriteLog(ctx context.Context, shop uuid.UUID, f store.Filter, asCSV bool, out io.Writer) error {
	w, err := logfile.NewWriter(out, asCSV)
	if err != nil {
		return err
	}
	f.Standing = true
	const page = 1000
	for mark := (&store.Mark{}); mark != nil; {
		var rows []store.Entry
		if rows, mark, err = s.Rows(ctx, shop, f, *mark, page); err != nil {
			return err
		}
		for _, e := range rows {
			if err := w.Write(e); err != nil {
				return err
			}
		}
	}
	return w.Close()
}
