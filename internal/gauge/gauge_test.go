package gauge_test

import (
	"context"
	"fmt"
	"io"
	"log/slog"
	"math"
	"net"
	"strings"
	"testing"
	"time"

	"corte/internal/gauge"
	"corte/internal/gaugesim"
)

func listen(t *testing.T, addr string) net.Listener {
	t.Helper()
	l, err := net.Listen("tcp", addr)
	if err != nil {
		t.Fatal(err)
	}
	return l
}

func hub(t *testing.T, addrs ...string) *gauge.Hub {
	h := gauge.New(addrs, slog.New(slog.NewTextHandler(io.Discard, nil)))
	ctx, cancel := context.WithCancel(t.Context())
	t.Cleanup(cancel)
	go h.Run(ctx)
	return h
}

// await waits for an event that a test wants, and fails after some seconds.
func await(t *testing.T, events <-chan gauge.Event, what string, want func(gauge.Event) bool) gauge.Event {
	t.Helper()
	late := time.After(8 * time.Second)
	for {
		select {
		case e := <-events:
			if want(e) {
				return e
			}
		case <-late:
			t.Fatalf("no %s came", what)
		}
	}
}

// A stand-in's hidden truth comes back through the hub, to within its noise.
func TestReadingsComeThrough(t *testing.T) {
	l := listen(t, "127.0.0.1:0")
	ctx, cancel := context.WithCancel(t.Context())
	defer cancel()
	truth := gaugesim.Demo
	go gaugesim.Rig{Truth: truth, Names: []string{"dial", "other"}, Every: 5 * time.Millisecond}.Serve(ctx, l)
	h := hub(t, l.Addr().String())
	events, done := h.Watch()
	defer done()
	second, done2 := h.Watch() // two pages listen
	defer done2()
	await(t, events, "stand-in", func(e gauge.Event) bool { return e.State != nil && e.State.Name == "dial" && e.State.StandIn })
	for _, at := range []string{"heel-front", "heel-rear"} {
		if err := h.Place("dial", at, 0, 0); err != nil {
			t.Fatal(err)
		}
		want := truth.At(at, 0, 0)
		for name, w := range map[string]<-chan gauge.Event{"first": events, "second": second} {
			e := await(t, w, "still reading for the "+name, func(e gauge.Event) bool {
				return e.Reading != nil && e.Reading.Name == "dial" && e.Reading.Still && math.Abs((e.Reading.Value-want).Mm()) < 0.015
			})
			if e.Reading.Sequence == 0 {
				t.Errorf("a reading without a sequence: %+v", e.Reading)
			}
		}
	}
	if err := h.Place("nobody", "heel-front", 0, 0); err == nil {
		t.Error("a gauge that is not there was placed")
	}
}

// Garbage, a flood and a gauge that goes and comes back are said, and nothing
// hangs.
func TestBadGauges(t *testing.T) {
	l := listen(t, "127.0.0.1:0")
	addr := l.Addr().String()
	h := hub(t, addr)
	events, done := h.Watch()
	defer done()
	word := func(w gauge.Word) func(gauge.Event) bool {
		return func(e gauge.Event) bool { return e.State != nil && e.State.Word == w }
	}
	conn, err := l.Accept()
	if err != nil {
		t.Fatal(err)
	}
	fmt.Fprintln(conn, "gauge dial")
	await(t, events, "greeting", word(gauge.Live))
	for _, bad := range []string{"dial x 1 mm", "dial 2 NaN mm", "dial 3 1 cubits", "nonsense", strings.Repeat("z", 500)} {
		fmt.Fprintln(conn, bad)
	}
	await(t, events, "word of garbage", word(gauge.Garbled))
	const flood = 10_000
	start := time.Now()
	for i := range flood {
		fmt.Fprintf(conn, "dial %d %.3f in\n", i+1, float64(i)/flood)
	}
	e := await(t, events, "last reading", func(e gauge.Event) bool { return e.Reading != nil && e.Reading.Sequence == flood })
	if d := e.Reading.Value.Inches() - 1; math.Abs(d) > 0.001 {
		t.Errorf("the last of the flood reads %v", e.Reading.Value)
	}
	if took := time.Since(start); took > 5*time.Second {
		t.Errorf("%d lines took %v", flood, took)
	}
	conn.Close()
	l.Close()
	await(t, events, "word that it is gone", word(gauge.Gone))
	l = listen(t, addr)
	defer l.Close()
	if conn, err = l.Accept(); err != nil {
		t.Fatal(err)
	}
	defer conn.Close()
	fmt.Fprintln(conn, "gauge dial")
	fmt.Fprintln(conn, "dial 1 0.5 mm")
	await(t, events, "reading after it came back", func(e gauge.Event) bool { return e.Reading != nil && e.Reading.Value == 0.5 })
}

// tries keeps what a hub logs of a gauge that is not there.
type tries struct {
	slog.Handler
	said chan slog.Record
}

func (h tries) Handle(_ context.Context, r slog.Record) error {
	h.said <- r
	return nil
}

// A gauge that is not there is tried less and less often, and complained of
// once; somebody who begins to watch has it tried at once.
func TestGaugesThatAreNotThere(t *testing.T) {
	l := listen(t, "127.0.0.1:0")
	addr := l.Addr().String()
	l.Close()
	h := tries{slog.NewTextHandler(io.Discard, &slog.HandlerOptions{Level: slog.LevelDebug}), make(chan slog.Record, 100)}
	hub := gauge.New([]string{addr}, slog.New(h))
	ctx, cancel := context.WithCancel(t.Context())
	defer cancel()
	go hub.Run(ctx)
	next := func() (slog.Level, time.Duration) {
		r := <-h.said
		var wait time.Duration
		r.Attrs(func(a slog.Attr) bool {
			if a.Key == "next try in" {
				wait = a.Value.Duration()
			}
			return true
		})
		return r.Level, wait
	}
	for i, want := range []time.Duration{200, 400, 800} {
		level, wait := next()
		if wait != want*time.Millisecond || (level == slog.LevelWarn) != (i == 0) {
			t.Errorf("try %d: %v, again in %v", i, level, wait)
		}
	}
	_, done := hub.Watch()
	defer done()
	_, wait := next()
	if wait == 1600*time.Millisecond { // the try that was due came before they watched
		_, wait = next()
	}
	if wait != 200*time.Millisecond {
		t.Errorf("with somebody watching it is tried again in %v", wait)
	}
}

// No line, however broken, stops the hub: what follows it is read.
func FuzzLines(f *testing.F) {
	for _, s := range []string{"dial 1 0.5 mm", "gauge x stand-in", "\xff\xfe", "dial 18446744073709551615 1e309 in", strings.Repeat("a ", 100)} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, garbage string) {
		l := listen(t, "127.0.0.1:0")
		defer l.Close()
		h := hub(t, l.Addr().String())
		events, done := h.Watch()
		defer done()
		conn, err := l.Accept()
		if err != nil {
			t.Fatal(err)
		}
		defer conn.Close()
		fmt.Fprintf(conn, "gauge last\n%s\nlast 1 0.25 mm\n", garbage)
		await(t, events, "reading after garbage", func(e gauge.Event) bool {
			return e.Reading != nil && (e.Reading.Name == "last" || strings.Contains(garbage, "\n"))
		})
	})
}
