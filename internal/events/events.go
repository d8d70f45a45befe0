// Package events tells the pages of all servers on one database that something in a
// shop has changed. Events are sent by PostgreSQL's NOTIFY and received on a separate
// connection outside any pool. An event names the kind of what changed; subscribers
// fetch it. An event may be lost with the server that was to send it, so pages also
// refresh from time to time.
package events

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
	channel  = "corte"
	gather   = 100 * time.Millisecond // events of so long go out together: a commit that notifies waits for every other that does
	again    = time.Second            // between tries to listen
	interest = 25 * time.Second       // how long readings are sent on after another server asked for them
	pulse    = 100 * time.Millisecond // at most so often
)

// Everything is the kind of an event that may stand for any change.
const Everything = "everything"

// A note is the payload of a NOTIFY.
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

// A Broker sends and receives the events of one server. A nil Broker sends nothing.
type Broker struct {
	url string
	st  *store.Store
	log *slog.Logger
	id  string

	mu          sync.Mutex
	subscribers map[chan string]uuid.UUID
	due         map[string]struct{} // notes to be sent, as JSON
	hub         *gauge.Hub          // whose readings go to other servers, and that shows theirs
	home        uuid.UUID           // the hub's shop
	wanted      time.Time           // when another server last wanted its readings
	anew        chan struct{}       // another server asks that did not before
}

// New makes a broker over the database at a URL; Run starts it. The hub of dial
// gauges stands in the home shop.
func New(url string, st *store.Store, log *slog.Logger, hub *gauge.Hub, home uuid.UUID) *Broker {
	return &Broker{url: url, st: st, log: log, id: rand.Text(), subscribers: map[chan string]uuid.UUID{}, due: map[string]struct{}{}, hub: hub, home: home, anew: make(chan struct{}, 1)}
}

// Publish sends an event of a kind in a shop. It doesn't block.
func (b *Broker) Publish(shop uuid.UUID, what string) { b.send(note{Shop: shop, What: what}) }

// Want asks other servers for the readings of dial gauges that they hear.
func (b *Broker) Want() {
	if b != nil {
		b.send(note{Shop: b.home, What: wants})
	}
}

func (b *Broker) send(n note) {
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

// Subscribe receives the events of a shop until done is called. A subscriber that
// doesn't keep up receives Everything.
func (b *Broker) Subscribe(shop uuid.UUID) (<-chan string, func()) {
	w := make(chan string, 16)
	if b == nil {
		return w, func() {}
	}
	b.mu.Lock()
	b.subscribers[w] = shop
	b.mu.Unlock()
	return w, func() {
		b.mu.Lock()
		delete(b.subscribers, w)
		b.mu.Unlock()
	}
}

// Run sends and receives until ctx ends, and then closes every subscription.
func (b *Broker) Run(ctx context.Context) {
	var all sync.WaitGroup
	all.Go(func() { b.flush(ctx) })
	all.Go(func() { b.share(ctx) })
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
	for w := range b.subscribers {
		close(w)
	}
	clear(b.subscribers)
}

// flush sends pending events every tenth of a second, in one statement.
func (b *Broker) flush(ctx context.Context) {
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

// hear listens until the connection is lost. Events from before it was established
// are unknown, so every subscriber first receives Everything.
func (b *Broker) hear(ctx context.Context, first bool) error {
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

func (b *Broker) take(n note) {
	mine := n.From == b.id
	switch {
	case n.What == wants:
		if !mine && n.Shop == b.home {
			b.mu.Lock()
			fresh := time.Since(b.wanted) > interest
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

// tell passes an event to the subscribers of a shop, or to all.
func (b *Broker) tell(shop uuid.UUID, what string) {
	b.mu.Lock()
	defer b.mu.Unlock()
	for w, of := range b.subscribers {
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

// share sends the readings of this server's gauges to servers that want them: first
// each gauge's state, then its readings, at a bounded rate.
func (b *Broker) share(ctx context.Context) {
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
			wanted := time.Since(b.wanted) <= interest
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
