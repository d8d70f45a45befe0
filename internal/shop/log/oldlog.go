package log

import (
	"context"
	"encoding/json"
	"io"
	"log/slog"
	"sync"
	"sync/atomic"
	"time"

	"github.com/google/uuid"

	"corte/core/fault"
	"corte/core/history"
	"corte/core/say"
	"corte/internal/logfile"
	"corte/internal/record"
	"corte/internal/shop/rack"
	"corte/internal/store"
)

// An OldRow is what a row of a file would do to the log.
type OldRow struct {
	Line int
	Does string // add, same or refuse
	Says say.Line
	Kind string
}

// An Old is what a file would do to the log.
type Old struct {
	Rows              []OldRow // all that are refused, then others, to shownRows of them
	Add, Same, Refuse int
}

const shownRows = 500

// clockAhead is how far ahead the clock may be that a row's time was read off.
const clockAhead = 5 * time.Minute

// TakeIn says what a file of old records would add, or, where save is set,
// adds all of its good rows, or none. A row that is in the log already is left
// alone, so that a file may be brought in twice.
func (s Station) TakeIn(ctx context.Context, shop uuid.UUID, rows []logfile.Row, save bool) (out Old, err error) {
	if !save {
		out, _, err = s.weigh(ctx, shop, rows)
		return out, err
	}
	err = s.Store.Atomically(ctx, func(tx *store.Store) error {
		out, err = s.takeIn(ctx, tx, shop, rows, nil)
		return err
	})
	return out, err
}

// takeIn adds what is to be added of a file. Another import of the shop waits
// for it, or both would add what neither finds in the log.
func (s Station) takeIn(ctx context.Context, tx *store.Store, shop uuid.UUID, rows []logfile.Row, said func(int)) (Old, error) {
	if err := tx.HoldImports(ctx, shop); err != nil {
		return Old{}, err
	}
	out, add, err := At(s.In(tx)).weigh(ctx, shop, rows)
	if err != nil || len(add) == 0 {
		return out, err
	}
	return out, tx.AddOld(ctx, shop, add, said)
}

// Begin begins to add the good rows of a file in the background, under an ID that
// was made by who asks. Asked again it begins nothing, unless that failed or its
// server has fallen silent. What the file would do is told as it begins.
func (s Station) Begin(ctx context.Context, shop, id uuid.UUID, rows []logfile.Row) (store.Import, error) {
	old, _, err := s.weigh(ctx, shop, rows)
	if err != nil {
		return store.Import{}, err
	}
	in, begun, err := s.Store.BeginImport(ctx, store.Import{Shop: shop, ID: id, At: s.Now(), By: record.ActorOf(ctx).Who(), Rows: old.Add, Same: old.Same, Refuse: old.Refuse})
	if err == nil && begun {
		s.Background.Go(ctx, func(ctx context.Context) { s.work(ctx, in, rows) })
	}
	return in, err
}

// work adds the rows of an import, and lets it be heard how far it is.
func (s Station) work(ctx context.Context, in store.Import, rows []logfile.Row) {
	var added atomic.Int64
	var beating sync.WaitGroup
	over := make(chan struct{})
	defer func() {
		close(over)
		beating.Wait()
	}()
	beating.Go(func() {
		for beat := time.NewTicker(store.ImportSilent / 60); ; {
			select {
			case <-over:
				beat.Stop()
				return
			case <-beat.C:
				if err := s.Store.BeatImport(ctx, in, int(added.Load()), s.Now()); err != nil {
					slog.Warn("how far an import is could not be told", "error", err)
				}
			}
		}
	})
	err := s.Store.Atomically(ctx, func(tx *store.Store) error {
		out, err := s.takeIn(ctx, tx, in.Shop, rows, func(n int) { added.Store(int64(n)) })
		if err != nil {
			return err
		}
		done := in // which the beat reads at the same time
		done.Rows, done.Same, done.Refuse = out.Add, out.Same, out.Refuse
		return tx.EndImport(ctx, done, "done", "")
	})
	if err == nil {
		return
	}
	slog.Error("an import failed", "import", in.ID, "error", err)
	ctx = context.WithoutCancel(ctx) // that it failed is said even where Corte stops
	if err := s.Store.EndImport(ctx, in, "failed", "nothing was added. The server's log has the reason. Send the file again"); err != nil {
		slog.Error("and that could not be told", "error", err)
	}
}

// importShown is for how long somebody may want to know how an import ended.
const importShown = 24 * time.Hour

// Imports are the files of old records of the last day. Of one whose server has fallen
// silent, nothing was added.
func (s Station) Imports(ctx context.Context, shop uuid.UUID) ([]store.Import, error) {
	all, err := s.Store.Imports(ctx, shop, s.Now().Add(-importShown), 5)
	for i, in := range all {
		if in.State == "working" && s.Now().Sub(in.Beat) > store.ImportSilent {
			all[i].State, all[i].Says = "failed", "Corte was stopped during the import and nothing was added. Send the file again"
		}
	}
	return all, err
}

// weigh says what a file would do, and which rows it would add.
func (s Station) weigh(ctx context.Context, shop uuid.UUID, rows []logfile.Row) (out Old, add []store.Entry, err error) {
	saws, blades, err := rack.At(s.Env).Whole(ctx, shop)
	if err != nil {
		return out, nil, err
	}
	known := names{shop, map[string][]thing{}, map[string][]thing{}}
	for _, b := range blades {
		known.blades[b.Name] = append(known.blades[b.Name], thing{b.ID, b.Retired != nil})
	}
	for _, w := range saws {
		known.saws[w.Name] = append(known.saws[w.Name], thing{w.ID, w.Retired != nil})
	}
	times := make([]time.Time, 0, len(rows))
	for i := range rows {
		rows[i].At = rows[i].At.Truncate(time.Microsecond) // as the database keeps it
		times = append(times, rows[i].At)
	}
	there, err := s.Store.RowsAt(ctx, shop, times)
	if err != nil {
		return out, nil, err
	}
	var fine []OldRow
	told := func(r logfile.Row, does string, says say.Line) {
		switch row := (OldRow{r.Line, does, says, r.Kind}); {
		case does == "refuse":
			out.Rows = append(out.Rows, row)
		case len(fine) < shownRows:
			fine = append(fine, row)
		}
	}
	defer func() { out.Rows = append(out.Rows, fine[:min(len(fine), max(0, shownRows-len(out.Rows)))]...) }()
	for _, r := range rows {
		e, err := entryOf(r, known, s.Now())
		if err != nil {
			out.Refuse++
			told(r, "refuse", say.Error(err))
			continue
		}
		e.Shop = shop
		if place := store.PlaceOf(e); there[place] > 0 {
			there[place]--
			out.Same++
			told(r, "same", say.Of("it is already in the log"))
			continue
		}
		out.Add++
		told(r, "add", say.Line{})
		add = append(add, e)
	}
	return out, add, nil
}

// A thing is a blade or a saw that a row may be about.
type thing struct {
	id      uuid.UUID
	retired bool
}

// names are a shop's blades and saws, the retired ones as well.
type names struct {
	shop         uuid.UUID
	blades, saws map[string][]thing
}

// find finds what a row is about: by its id, or, where there is none, by its
// name, if no other is or was called so. A row never goes to another of the same
// name.
func (n names) find(all map[string][]thing, what, name string, id *uuid.UUID) (*uuid.UUID, error) {
	if id != nil {
		there := record.IDIn(n.shop, *id)
		for _, named := range all {
			for _, t := range named {
				if t.id == *id || t.id == there {
					return &t.id, nil
				}
			}
		}
		return nil, fault.At("", "the %s with this id, %q, isn't here. Import the blades first, or leave the id out", what, name)
	}
	switch named := all[name]; {
	case name == "":
		return nil, nil
	case len(named) == 0 && what == "blade":
		return nil, fault.At("", "there is no blade called %q. Add it first", name)
	case len(named) == 0:
		return nil, fault.At("", "there is no %s called %q", what, name)
	case len(named) > 1:
		return nil, fault.At("", "%d of them are called %q. Enter the id of the right one in %s_id", len(named), name, what)
	default:
		return &named[0].id, nil
	}
}

func entryOf(r logfile.Row, known names, now time.Time) (store.Entry, error) {
	if r.Err != nil {
		return store.Entry{}, r.Err
	}
	e := store.Entry{At: r.At, Kind: history.Kind(r.Kind), By: r.By, Note: r.Note, Detail: r.More}
	var err error
	if e.Blade, err = known.find(known.blades, "blade", r.Blade, r.BladeID); err != nil {
		return e, err
	}
	if e.Saw, err = known.find(known.saws, "saw", r.Saw, r.SawID); err != nil {
		return e, err
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
		return e, fault.At("", "%s is in the future", e.At.Format("2006-01-02 15:04 -07:00"))
	case e.Blade == nil && e.Kind.NeedsBlade():
		return e, fault.At("", "an entry of kind %s needs its blade", e.Kind)
	case e.Saw == nil && e.Kind.NeedsSaw():
		return e, fault.At("", "an entry of kind %s needs its saw", e.Kind)
	case e.Saw == nil && e.Blade == nil:
		return e, fault.At("", "enter its blade or saw")
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
