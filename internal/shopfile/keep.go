package shopfile

import (
	"context"
	"errors"
	"fmt"
	"io/fs"
	"log/slog"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"sync/atomic"
	"time"

	"github.com/google/uuid"

	"corte/internal/store"
)

// Save writes a shop to a path: beside it first, then read back and checked, and
// only then in its place, so that the path never holds half a copy.
func Save(ctx context.Context, st *store.Store, shop uuid.UUID, now time.Time, by, path string, p Progress) (*File, error) {
	if err := sweep(filepath.Dir(path), now); err != nil {
		return nil, err
	}
	part, err := os.CreateTemp(filepath.Dir(path), half)
	if err != nil {
		return nil, err
	}
	defer os.Remove(part.Name()) //nolint:errcheck // after the rename there is none
	defer part.Close()
	if err := Write(ctx, st, shop, now, by, part, p); err != nil {
		return nil, err
	}
	if err := part.Sync(); err != nil {
		return nil, err
	}
	f, err := read(ctx, st, part)
	if err != nil {
		return nil, err
	}
	if err := os.Rename(part.Name(), path); err != nil {
		return f, err
	}
	// Older copies are thrown away only once the name of this one is on the disk.
	dir, err := os.Open(filepath.Dir(path))
	if err != nil {
		return f, err
	}
	defer dir.Close()
	return f, dir.Sync()
}

// read opens a file that was just written and checks it whole.
func read(ctx context.Context, st *store.Store, part *os.File) (*File, error) {
	at, err := part.Stat()
	if err != nil {
		return nil, err
	}
	f, err := Open(part, at.Size())
	if err != nil {
		return nil, err
	}
	faults, err := f.Intact(ctx, st)
	if err == nil && len(faults) > 0 {
		err = fmt.Errorf("the backup can't be read back: %v", faults[0])
	}
	return f, err
}

// A Keeper makes a copy of a shop a day into a folder, and keeps so many.
type Keeper struct {
	Store *store.Store
	Shop  uuid.UUID
	Dir   string
	Keep  int // days: what is of an older one is thrown away
	By    string
	Now   func() time.Time

	one     sync.Mutex // copies are made one after the other
	trouble atomic.Pointer[string]
	others  sync.Map // keepers of other shops in the same folder
}

// Of is the keeper of any shop, in the same folder and by the same rules.
func (k *Keeper) Of(shop uuid.UUID) *Keeper {
	if shop == k.Shop {
		return k
	}
	other, _ := k.others.LoadOrStore(shop, &Keeper{Store: k.Store, Shop: shop, Dir: k.Dir, Keep: k.Keep, By: k.By, Now: k.Now})
	return other.(*Keeper)
}

// Trouble is why the last try made no copy; empty where it made one.
func (k *Keeper) Trouble() string {
	if why := k.trouble.Load(); why != nil {
		return *why
	}
	return ""
}

// A Copy is one that is kept.
type Copy struct {
	Name  string
	At    time.Time
	Bytes int64
}

const (
	daily  = 24 * time.Hour
	look   = time.Hour // between two looks at whether a day has gone by
	stamp  = "20060102T150405Z"
	ending = ".corte.zip"
	half   = ".corte-*.part" // what is being written
)

// prefix tells the copies of one shop from those of another in the same folder.
func (k *Keeper) prefix() string { return k.Shop.String()[:8] + "-" }

// Copies lists what is kept, the newest first. A name that is none of the
// keeper's own is somebody else's file, and is let alone.
func (k *Keeper) Copies() ([]Copy, error) {
	entries, err := os.ReadDir(k.Dir)
	if errors.Is(err, fs.ErrNotExist) {
		return nil, nil
	}
	if err != nil {
		return nil, err
	}
	var out []Copy
	for _, e := range entries {
		rest, mine := strings.CutPrefix(e.Name(), k.prefix())
		rest, whole := strings.CutSuffix(rest, ending)
		at, err := time.Parse(stamp, rest)
		if !mine || !whole || err != nil {
			continue
		}
		info, err := e.Info()
		if err != nil {
			continue // it was thrown away just now
		}
		out = append(out, Copy{e.Name(), at, info.Size()})
	}
	slices.SortFunc(out, func(a, b Copy) int { return b.At.Compare(a.At) })
	return out, nil
}

// Make makes a copy now, and throws away what is too many.
func (k *Keeper) Make(ctx context.Context) (Copy, error) {
	c, err := k.make(ctx)
	if err != nil {
		why := err.Error()
		k.trouble.Store(&why)
	} else {
		k.trouble.Store(nil)
	}
	return c, err
}

func (k *Keeper) make(ctx context.Context) (Copy, error) {
	k.one.Lock()
	defer k.one.Unlock()
	if err := os.MkdirAll(k.Dir, 0o700); err != nil {
		return Copy{}, err
	}
	now := k.Now().UTC().Truncate(time.Second)
	c := Copy{Name: k.prefix() + now.Format(stamp) + ending, At: now}
	path := filepath.Join(k.Dir, c.Name)
	if _, err := Save(ctx, k.Store, k.Shop, now, k.By, path, nil); err != nil {
		return c, err
	}
	if info, err := os.Stat(path); err == nil {
		c.Bytes = info.Size()
	}
	all, err := k.Copies()
	if err != nil {
		return c, err
	}
	for _, old := range k.tooMany(all) {
		if err := os.Remove(filepath.Join(k.Dir, old.Name)); err != nil {
			return c, err
		}
	}
	return c, nil
}

// tooMany are the copies beyond the days that are kept, and of every day that is
// over all but its last: whoever makes many in one day loses none of another.
func (k *Keeper) tooMany(all []Copy) (out []Copy) {
	days, day := 0, time.Time{}
	for _, c := range all {
		first := !c.At.Truncate(daily).Equal(day)
		if first {
			days, day = days+1, c.At.Truncate(daily)
		}
		if days > max(1, k.Keep) || !first && days > 1 {
			out = append(out, c)
		}
	}
	return out
}

// sweep throws away what was begun in a folder more than a day ago, by a Corte
// that was killed in the middle of it.
func sweep(dir string, now time.Time) error {
	halves, err := filepath.Glob(filepath.Join(dir, half))
	if err != nil {
		return err
	}
	for _, path := range halves {
		if info, err := os.Stat(path); err == nil && now.Sub(info.ModTime()) > daily {
			if err := os.Remove(path); err != nil {
				return err
			}
		}
	}
	return nil
}

// due reports whether a day has gone by since the last copy. What a clock that
// was wrong has dated ahead is no last one.
func (k *Keeper) due(all []Copy) bool {
	now := k.Now()
	i := slices.IndexFunc(all, func(c Copy) bool { return !c.At.After(now) })
	return i < 0 || now.Sub(all[i].At) >= daily
}

// Run makes a copy of the shop, and of every other that people sign in to,
// whenever its last one is a day old, until ctx ends.
func (k *Keeper) Run(ctx context.Context, log *slog.Logger) {
	if err := sweep(k.Dir, k.Now()); err != nil {
		log.Warn("half-written backups were not swept", "folder", k.Dir, "error", err)
	}
	for {
		shops, err := k.Store.ShopsWithPeople(ctx)
		if err != nil && ctx.Err() == nil {
			log.Error("it is not known which shops to copy", "error", err)
		}
		if !slices.Contains(shops, k.Shop) {
			shops = append(shops, k.Shop)
		}
		for _, id := range shops {
			one := k.Of(id)
			all, err := one.Copies()
			if err == nil && one.due(all) {
				_, err = one.Make(ctx)
			}
			if err != nil && ctx.Err() == nil {
				log.Error("no copy of the shop was made", "shop", id, "folder", k.Dir, "error", err)
			}
		}
		select {
		case <-ctx.Done():
			return
		case <-time.After(look):
		}
	}
}
