// Package gauge reads dial gauges that speak a line protocol over TCP
// (docs/gauge.md) and passes their readings to subscribers, at most twenty a
// second per gauge. It keeps only the last reading of each gauge.
package gauge

import (
	"bufio"
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"math"
	"net"
	"slices"
	"strconv"
	"sync"
	"time"

	"corte/core/measure"
)

// A Reading is what a gauge shows.
type Reading struct {
	Name     string
	Sequence uint64
	Value    measure.Length
	Still    bool // it has hardly moved for a second
}

// A Word says how a gauge stands.
type Word string

const (
	Live    Word = "live"
	Gone    Word = "gone"
	Garbled Word = "garbled" // it speaks, but not sense
)

// A State is how a gauge stands, in a word and a sentence.
type State struct {
	Name    string
	Word    Word
	Text    string
	StandIn bool // a program that plays a gauge, and can be told where it stands
}

// An Event is a reading or a change of state; the other is nil.
type Event struct {
	Reading *Reading `json:"reading,omitempty"`
	State   *State   `json:"state,omitempty"`
	Heard   bool     `json:"-"` // from another server, not from a gauge of this hub's own
}

const (
	longest   = 120 // bytes in a line
	beat      = 50 * time.Millisecond
	stillFor  = time.Second
	stillness = measure.Length(0.01) // a dial's own flicker
	silence   = 3 * time.Second      // without a line, it is gone
	firstWait = 200 * time.Millisecond
	lastWait  = time.Minute // somebody who begins to watch is not made to wait for it
)

// A Hub holds the gauges that its settings name by address.
type Hub struct {
	addrs []string
	log   *slog.Logger

	mu       sync.Mutex
	gauges   map[string]*gauge
	watchers map[chan Event]struct{}
	wanted   chan struct{} // closed, and made anew, when somebody begins to watch
}

type gauge struct {
	state  State
	last   Reading
	fresh  bool // not handed out yet
	anchor measure.Length
	since  time.Time // since when it has stood near the anchor
	lines  int       // since the last garbled one
	conn   net.Conn
	heard  time.Time // when another server last told of it; zero for one of the hub's own
}

// New makes a hub; Run brings it to life.
func New(addrs []string, log *slog.Logger) *Hub {
	return &Hub{addrs: addrs, log: log, gauges: map[string]*gauge{}, watchers: map[chan Event]struct{}{}, wanted: make(chan struct{})}
}

// Run listens until the context ends.
func (h *Hub) Run(ctx context.Context) {
	var wg sync.WaitGroup
	for _, addr := range h.addrs {
		wg.Go(func() { h.follow(ctx, addr) })
	}
	ticker := time.NewTicker(beat)
	defer ticker.Stop()
	for {
		select {
		case <-ctx.Done():
			wg.Wait()
			h.close()
			return
		case <-ticker.C:
			h.handOut()
		}
	}
}

// close ends every watch.
func (h *Hub) close() {
	h.mu.Lock()
	defer h.mu.Unlock()
	for w := range h.watchers {
		close(w)
	}
	clear(h.watchers)
}

// follow keeps one address connected. One that is not there is tried less and
// less often, until somebody wants to see it.
func (h *Hub) follow(ctx context.Context, addr string) {
	wait, level := firstWait, slog.LevelWarn
	for ctx.Err() == nil {
		h.mu.Lock()
		wanted := h.wanted // before it is tried, so that nobody who begins to watch meanwhile is missed
		h.mu.Unlock()
		start := time.Now()
		err := h.listen(ctx, addr)
		if ctx.Err() != nil {
			return
		}
		if time.Since(start) > silence {
			wait, level = firstWait, slog.LevelWarn // it was there
		}
		h.log.Log(ctx, level, "gauge gone", "addr", addr, "error", err, "next try in", wait)
		level = slog.LevelDebug // said once
		select {
		case <-ctx.Done():
			return
		case <-wanted:
			wait = firstWait
		case <-time.After(wait):
			wait = min(2*wait, lastWait)
		}
	}
}

func (h *Hub) listen(ctx context.Context, addr string) error {
	d := net.Dialer{Timeout: silence}
	conn, err := d.DialContext(ctx, "tcp", addr)
	if err != nil {
		return err
	}
	defer conn.Close()
	stop := context.AfterFunc(ctx, func() { conn.Close() })
	defer stop()
	defer h.lost(conn)
	r := bufio.NewReaderSize(conn, longest+2)
	for {
		_ = conn.SetReadDeadline(time.Now().Add(silence))
		line, err := r.ReadSlice('\n')
		switch {
		case errors.Is(err, bufio.ErrBufferFull):
			h.garbled(conn, "lines longer than 120 bytes")
			if err := skipLine(r); err != nil {
				return err
			}
		case err != nil:
			return err
		default:
			h.take(conn, bytes.TrimSpace(line))
		}
	}
}

func skipLine(r *bufio.Reader) error {
	for {
		_, err := r.ReadSlice('\n')
		if !errors.Is(err, bufio.ErrBufferFull) {
			return err
		}
	}
}

// take reads one line: a greeting or a reading.
func (h *Hub) take(conn net.Conn, line []byte) {
	if len(line) == 0 {
		return
	}
	fields := bytes.Fields(line)
	if len(fields) >= 2 && string(fields[0]) == "gauge" {
		h.greet(conn, string(fields[1]), len(fields) > 2 && string(fields[2]) == "stand-in")
		return
	}
	r, err := parse(fields)
	if err != nil {
		h.garbled(conn, err.Error())
		return
	}
	h.mu.Lock()
	defer h.mu.Unlock()
	g := h.named(conn, r.Name)
	if r.Sequence <= g.last.Sequence && g.lines > 0 {
		return // late or twice
	}
	now := time.Now()
	if d := (r.Value - g.anchor).Mm(); math.Abs(d) > stillness.Mm() || g.lines == 0 {
		g.anchor, g.since = r.Value, now
	}
	g.anchor += (r.Value - g.anchor) / 20 // settles in the middle of the flicker
	r.Still = now.Sub(g.since) >= stillFor
	g.last, g.fresh = r, true
	g.lines++
	if g.state.Word != Live && g.lines > 3 {
		g.state.Word, g.state.Text = Live, r.Name+" is connected."
		h.tell(Event{State: &g.state})
	}
}

func parse(f [][]byte) (Reading, error) {
	var r Reading
	if len(f) != 4 {
		return r, fmt.Errorf("%d words in a line, where four are expected", len(f))
	}
	seq, err := strconv.ParseUint(string(f[1]), 10, 64)
	if err != nil {
		return r, errors.New("a sequence that is no number")
	}
	v, err := strconv.ParseFloat(string(f[2]), 64)
	if err != nil || math.IsNaN(v) || math.Abs(v) > 1000 {
		return r, errors.New("a value that is no reading")
	}
	r = Reading{Name: string(f[0]), Sequence: seq, Value: measure.Length(v)}
	switch string(f[3]) {
	case "mm":
	case "in":
		r.Value = measure.Inches(v)
	default:
		return r, fmt.Errorf("a unit %q that is neither mm nor in", f[3])
	}
	return r, nil
}

func (h *Hub) greet(conn net.Conn, name string, standIn bool) {
	h.mu.Lock()
	defer h.mu.Unlock()
	g := h.named(conn, name)
	g.state = State{Name: name, Word: Live, Text: name + " is connected.", StandIn: standIn}
	g.lines = 0
	h.tell(Event{State: &g.state})
}

// named finds a gauge, or makes it known. The lock is held.
func (h *Hub) named(conn net.Conn, name string) *gauge {
	g := h.gauges[name]
	if g == nil {
		g = &gauge{state: State{Name: name, Word: Live, Text: name + " is connected."}}
		h.gauges[name] = g
	}
	g.conn = conn
	return g
}

func (h *Hub) garbled(conn net.Conn, why string) {
	h.mu.Lock()
	defer h.mu.Unlock()
	for _, g := range h.gauges {
		if g.conn != conn {
			continue
		}
		g.lines = 0
		if g.state.Word != Garbled {
			g.state.Word, g.state.Text = Garbled, fmt.Sprintf("%s sends what cannot be read: %s. Its last good reading stands still.", g.state.Name, why)
			h.tell(Event{State: &g.state})
		}
	}
}

func (h *Hub) lost(conn net.Conn) {
	h.mu.Lock()
	defer h.mu.Unlock()
	for _, g := range h.gauges {
		if g.conn == conn {
			g.conn, g.lines = nil, 0
			g.state.Word, g.state.Text = Gone, g.state.Name+" is disconnected. Corte keeps trying. Captured readings are kept. Type the rest, or wait."
			h.tell(Event{State: &g.state})
		}
	}
}

// handOut sends each gauge's last reading to every watcher, once.
func (h *Hub) handOut() {
	h.mu.Lock()
	defer h.mu.Unlock()
	for _, g := range h.gauges {
		if !g.heard.IsZero() && g.state.Word != Gone && time.Since(g.heard) > silence {
			g.state.Word, g.state.Text = Gone, g.state.Name+" sends no more readings. Captured readings are kept. Type the rest, or wait."
			h.tell(Event{State: &g.state, Heard: true})
		}
		if g.fresh {
			g.fresh = false
			r := g.last
			h.tell(Event{Reading: &r})
		}
	}
}

// tell never waits: a watcher that does not keep up misses readings, and sees
// the next one. The lock is held.
func (h *Hub) tell(e Event) {
	if e.State != nil {
		s := *e.State
		e.State = &s
	}
	for w := range h.watchers {
		select {
		case w <- e:
		default:
			if e.State != nil { // a state is worth more than an old reading
				select {
				case <-w:
				default:
				}
				select {
				case w <- e:
				default:
				}
			}
		}
	}
}

// Watch hands out events until done is called or the hub ends, beginning with how every gauge
// stands.
func (h *Hub) Watch() (events <-chan Event, done func()) {
	w := make(chan Event, 32)
	h.mu.Lock()
	defer h.mu.Unlock()
	h.watchers[w] = struct{}{}
	close(h.wanted)
	h.wanted = make(chan struct{})
	for _, g := range h.gauges {
		s := g.state
		w <- Event{State: &s}
	}
	return w, func() {
		h.mu.Lock()
		defer h.mu.Unlock()
		delete(h.watchers, w)
	}
}

// Hear takes what another server tells of a gauge that stands at it. A gauge of
// the hub's own is known better.
func (h *Hub) Hear(e Event) {
	h.mu.Lock()
	defer h.mu.Unlock()
	name := ""
	switch {
	case e.State != nil:
		name = e.State.Name
	case e.Reading != nil:
		name = e.Reading.Name
	}
	g := h.gauges[name]
	if name == "" || g != nil && g.heard.IsZero() {
		return
	}
	if g == nil {
		g = &gauge{state: State{Name: name, Word: Live, Text: name + " is connected."}}
		h.gauges[name] = g
	}
	g.heard = time.Now()
	if e.State != nil {
		g.state = *e.State
		g.state.StandIn = false // only at its own server can it be told where to stand
		h.tell(Event{State: &g.state, Heard: true})
		return
	}
	if g.state.Word == Gone {
		g.state.Word, g.state.Text = Live, name+" is connected."
		h.tell(Event{State: &g.state, Heard: true})
	}
	h.tell(Event{Reading: e.Reading, Heard: true})
}

// Own lists how the gauges of the hub's own stand.
func (h *Hub) Own() (out []State) {
	h.mu.Lock()
	defer h.mu.Unlock()
	for _, g := range h.gauges {
		if g.heard.IsZero() {
			out = append(out, g.state)
		}
	}
	return out
}

// States lists the gauges that were ever there, by name.
func (h *Hub) States() []State {
	h.mu.Lock()
	defer h.mu.Unlock()
	out := make([]State, 0, len(h.gauges))
	for _, g := range h.gauges {
		out = append(out, g.state)
	}
	slices.SortFunc(out, func(a, b State) int { return bytes.Compare([]byte(a.Name), []byte(b.Name)) })
	return out
}

// ErrNoStandIn is returned where a gauge is not one that can be told where it
// stands.
var ErrNoStandIn = errors.New("there is no stand-in gauge of that name")

// Place tells a stand-in where its dial is put, as a hand would put a real one.
func (h *Hub) Place(name, where string, step, of int) error {
	h.mu.Lock()
	g := h.gauges[name]
	var conn net.Conn
	if g != nil && g.state.StandIn {
		conn = g.conn
	}
	h.mu.Unlock()
	if conn == nil {
		return ErrNoStandIn
	}
	_, err := io.WriteString(conn, fmt.Sprintf("place %s %s %d %d\n", name, where, step, of))
	return err
}
