// Package gaugesim simulates dial gauges on a saw with known errors: heel,
// fence, run-out of arbor and blade, and scatter of the teeth. The demo and
// tests use it in place of a real gauge, and tests compare what a session found
// with the known errors.
package gaugesim

import (
	"bufio"
	"context"
	"fmt"
	"math"
	"math/rand/v2"
	"net"
	"strings"
	"sync"
	"time"

	"corte/core/measure"
)

// A Truth is what is to be found.
type Truth struct {
	Heel       measure.Length // rear less front, seen from the right
	Fence      measure.Length // open at the rear
	Arbor      measure.Length // amplitude of what stays with the arbor
	ArborDeg   float64
	Blade      measure.Length // amplitude of what travels with the blade
	BladeDeg   float64
	Clearance  measure.Length // mean of the teeth
	Scatter    measure.Length // standard deviation of the teeth
	ProudTooth int            // from 1; 0 for none
	ProudBy    measure.Length
	Noise      measure.Length // standard deviation of one reading
	Seed       uint64
}

// Demo is the Long Table of the demo shop, out of line since the platform truck
// bumped it, with Quill and its proud tooth on.
var Demo = Truth{Heel: 0.09, Fence: 0.04, Arbor: 0.02, ArborDeg: 70, Blade: 0.05, BladeDeg: 215,
	Clearance: 0.5, Scatter: 0.008, ProudTooth: 23, ProudBy: 0.09, Noise: 0.002, Seed: 254}

// A Rig is a set of gauges on one saw.
type Rig struct {
	Truth Truth
	Names []string // of the gauges, such as "dial"
	Every time.Duration
}

// place is where a hand has put a dial.
type place struct {
	where    string
	step, of int
}

// Serve answers on a listener until the context ends, and returns once nobody is
// answered any more.
func (r Rig) Serve(ctx context.Context, l net.Listener) {
	stop := context.AfterFunc(ctx, func() { l.Close() })
	defer stop()
	var playing sync.WaitGroup
	defer playing.Wait()
	for {
		conn, err := l.Accept()
		if err != nil {
			return
		}
		playing.Go(func() { r.play(ctx, conn) })
	}
}

func (r Rig) play(ctx context.Context, conn net.Conn) {
	stop := context.AfterFunc(ctx, func() { conn.Close() })
	defer stop()
	var hands sync.WaitGroup
	defer func() {
		conn.Close()
		hands.Wait()
	}()
	var mu sync.Mutex
	at := map[string]place{}
	hands.Go(func() {
		lines := bufio.NewScanner(conn)
		for lines.Scan() {
			var name string
			var p place
			if n, _ := fmt.Sscanf(strings.TrimSpace(lines.Text()), "place %s %s %d %d", &name, &p.where, &p.step, &p.of); n >= 2 {
				mu.Lock()
				at[name] = p
				mu.Unlock()
			}
		}
	})
	w := bufio.NewWriter(conn)
	for _, name := range r.Names {
		fmt.Fprintf(w, "gauge %s stand-in\n", name)
	}
	dice := rand.New(rand.NewPCG(r.Truth.Seed, 1))
	ticker := time.NewTicker(max(r.Every, time.Microsecond))
	defer ticker.Stop()
	for seq := uint64(1); ; seq++ {
		for _, name := range r.Names {
			mu.Lock()
			p := at[name]
			mu.Unlock()
			v := r.Truth.At(p.where, p.step, p.of) + measure.Length(dice.NormFloat64())*r.Truth.Noise
			fmt.Fprintf(w, "%s %d %.4f mm\n", name, seq, v.Mm())
		}
		if w.Flush() != nil {
			return
		}
		select {
		case <-ctx.Done():
			return
		case <-ticker.C:
		}
	}
}

// At is what a dial without noise shows at a place.
func (t Truth) At(where string, step, of int) measure.Length {
	wobble := func(turned bool) measure.Length {
		angle := 2 * math.Pi * float64(step) / float64(max(1, of))
		arbor := t.Arbor.Mm() * math.Cos(angle-t.ArborDeg*math.Pi/180)
		blade := t.Blade.Mm() * math.Cos(angle-t.BladeDeg*math.Pi/180)
		if turned {
			blade = -blade
		}
		return measure.Length(arbor + blade)
	}
	switch where {
	case "heel-front", "fence-front":
		return 0.2
	case "heel-rear":
		return 0.2 + t.Heel
	case "fence-rear":
		return 0.2 - t.Fence // a dial indicator grows as the fence comes nearer
	case "runout":
		return wobble(false)
	case "turned":
		return wobble(true)
	case "left", "right":
		side := uint64(2)
		if where == "right" {
			side = 3
		}
		dice := rand.New(rand.NewPCG(t.Seed+uint64(step), side))
		v := t.Clearance + measure.Length(dice.NormFloat64())*t.Scatter
		if where == "left" && step == t.ProudTooth-1 {
			v += t.ProudBy
		}
		return v
	}
	return 0
}
