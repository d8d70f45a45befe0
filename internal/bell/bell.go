// Package bell tells every server on one database, and through them every page,
// that something of a shop has changed. It rings by PostgreSQL's NOTIFY and hears
// on a connection of its own, past any pool. A ring says what kind of thing has
// changed and never what it is: whoever hears it asks. A ring may be lost with
// the server that owed it; pages ask by themselves from time to time.
package bell

import (
	"context"
	"crypto/rand"
	"encoding/json"
	"log/slog"
	"sync"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"corte/internal/gauge"
	"corte/internal/store"
)

const (
	channel = "corte"
	gather  = 100 * time.Millisecond // rings of so long go out together: a commit that notifies waits for every other that does
	again   = time.Second            // between tries to hear
	lent    = 25 * time.Second       // readings are sent on so long after somebody wanted them
	pulse   = 100 * time.Millisecond // at most so often
)

// Everything is what has changed where it is not known what.
const Everything = "everything"

// A note is what goes over the wire.
type note struct {
	From  string       `json:"from"` // the server
	Shop  uuid.UUID    `json:"shop"`
	What  string       `json:"what"`
	Gauge *gauge.Event `json:"gauge,omitempty"`
}

const (
	wants = "wants gauges"
	shows = "shows a gauge"
)

// A Bell is one server's.
type Bell struct {
	url string
	st  *store.Store
	log *slog.Logger
	id  string

	mu       sync.Mutex
	watchers map[chan string]uuid.UUID
	due      map[string]struct{} // notes to be sent, as JSON
	hub      *gauge.Hub          // whose readings are lent, or that is shown others'
	home     uuid.UUID           // the shop that it stands in
	wanted   time.Time           // when another server last wanted its readings
	anew     chan struct{}       // somebody wants them who did not before
}

// New makes a bell over the database at a URL; Run brings it to life. The hub of
// dial gauges stands in the home shop.
func New(url string, st *store.Store, log *slog.Logger, hub *gauge.Hub, home uuid.UUID) *Bell {
	return &Bell{url: url, st: st, log: log, id: rand.Text(), watchers: map[chan string]uuid.UUID{}, due: map[string]struct{}{}, hub: hub, home: home, anew: make(chan struct{}, 1)}
}

// Ring says that something of a kind has changed in a shop. It never waits.
func (b *Bell) Ring(shop uuid.UUID, what string) { b.send(note{Shop: shop, What: what}) }

// Want asks other servers for the readings of dial gauges that they hear.
func (b *Bell) Want() {
	if b != nil {
		b.send(note{Shop: b.home, What: wants})
	}
}

func (b *Bell) send(n note) {
	if b == nil {
		return
	}
	n.From = b.id
	raw, err := json.Marshal(n)
	if err != nil {
		return
	}
	b.mu.Lock()
	b.due[string(raw)] = struct{}{}
	b.mu.Unlock()
}

// Watch hears what changes in a shop until done is called. A watcher that does
// not keep up is told that everything has.
func (b *Bell) Watch(shop uuid.UUID) (<-chan string, func()) {
	w := make(chan string, 16)
	if b == nil {
		return w, func() {}
	}
	b.mu.Lock()
	b.watchers[w] = shop
	b.mu.Unlock()
	return w, func() {
		b.mu.Lock()
		delete(b.watchers, w)
		b.mu.Unlock()
	}
}

// Run rings and hears until ctx ends.
func (b *Bell) Run(ctx context.Context) {
	var all sync.WaitGroup
	all.Go(func() { b.ringOut(ctx) })
	all.Go(func() { b.lend(ctx) })
	for first := true; ctx.Err() == nil; first = false {
		if err := b.hear(ctx, first); err != nil && ctx.Err() == nil {
			b.log.Debug("nothing is heard of other servers", "error", err)
		}
		select {
		case <-ctx.Done():
		case <-time.After(again):
		}
	}
	all.Wait()
	b.mu.Lock()
	defer b.mu.Unlock()
	for w := range b.watchers { // whoever still watches goes home
		close(w)
	}
	clear(b.watchers)
}

// ringOut sends what is due, all of a moment in one statement.
func (b *Bell) ringOut(ctx context.Context) {
	tick := time.NewTicker(gather)
	defer tick.Stop()
	for {
		select {
		case <-ctx.Done():
			return
		case <-tick.C:
		}
		b.mu.Lock()
		due := make([]string, 0, len(b.due))
		for n := range b.due {
			due = append(due, n)
		}
		clear(b.due)
		b.mu.Unlock()
		if len(due) == 0 {
			continue
		}
		if err := b.st.Notify(ctx, channel, due); err != nil { // who cannot be told asks by themselves
			b.log.Debug("other servers were not told", "error", err)
		}
	}
}

// hear listens until the connection is lost. What was rung before it stood is
// not known, so everybody is told that everything may have changed.
func (b *Bell) hear(ctx context.Context, first bool) error {
	conn, err := pgx.Connect(ctx, b.url)
	if err != nil {
		return err
	}
	defer conn.Close(context.WithoutCancel(ctx)) //nolint:errcheck // it is given up
	if _, err := conn.Exec(ctx, `LISTEN `+channel); err != nil {
		return err
	}
	if !first {
		b.tell(uuid.Nil, Everything)
	}
	for {
		said, err := conn.WaitForNotification(ctx)
		if err != nil {
			return err
		}
		var n note
		if json.Unmarshal([]byte(said.Payload), &n) != nil {
			continue // somebody else's, on the same channel
		}
		b.take(n)
	}
}

func (b *Bell) take(n note) {
	mine := n.From == b.id
	switch {
	case n.What == wants:
		if !mine && n.Shop == b.home {
			b.mu.Lock()
			fresh := time.Since(b.wanted) > lent
			b.wanted = time.Now()
			b.mu.Unlock()
			if fresh {
				select {
				case b.anew <- struct{}{}:
				default:
				}
			}
		}
	case n.What == shows:
		if !mine && n.Shop == b.home && n.Gauge != nil && b.hub != nil {
			b.hub.Hear(*n.Gauge)
		}
	default:
		b.tell(n.Shop, n.What)
	}
}

// tell hands a ring to who watches a shop, or to all of them.
func (b *Bell) tell(shop uuid.UUID, what string) {
	b.mu.Lock()
	defer b.mu.Unlock()
	for w, of := range b.watchers {
		if shop != uuid.Nil && of != shop {
			continue
		}
		select {
		case w <- what:
		default:
			select {
			case <-w: // it does not keep up: the oldest goes, and it is told to ask for all
			default:
			}
			select {
			case w <- Everything:
			default:
			}
		}
	}
}

// lend sends the hub's own readings to servers that want them: how each stands
// first, then what it shows, so often and no oftener.
func (b *Bell) lend(ctx context.Context) {
	if b.hub == nil {
		return
	}
	events, done := b.hub.Watch()
	defer done()
	last := map[string]time.Time{}
	for {
		select {
		case <-ctx.Done():
			return
		case <-b.anew:
			for _, s := range b.hub.Own() {
				b.send(note{Shop: b.home, What: shows, Gauge: &gauge.Event{State: &s}})
			}
		case e, ok := <-events:
			if !ok {
				return
			}
			b.mu.Lock()
			wanted := time.Since(b.wanted) <= lent
			b.mu.Unlock()
			if !wanted || e.Heard {
				continue
			}
			if r := e.Reading; r != nil {
				if time.Since(last[r.Name]) < pulse {
					continue
				}
				last[r.Name] = time.Now()
			}
			b.send(note{Shop: b.home, What: shows, Gauge: &e})
		}
	}
}
