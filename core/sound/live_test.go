package sound

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"corte/core/outcome"
)

// heard plays a sound in blocks of a twentieth of a second, and calls back after each
// with the time that was played so far.
func heard(t *testing.T, s Saw, samples []float64, after func(at float64, h Heard)) Heard {
	t.Helper()
	l, err := NewLive(rate, s)
	if err != nil {
		t.Fatal(err)
	}
	for at := 0; at < len(samples); at += rate / 20 {
		l.Hear(samples[at:min(len(samples), at+rate/20)])
		after(float64(min(len(samples), at+rate/20))/rate, l.Heard())
	}
	return l.Heard()
}

// What a saw does is said while it does it: a cut, labouring and a stall within a
// quarter of a second, however the blocks fall; and at the end it is what the whole is.
func TestLive(t *testing.T) {
	r := rand.New(rand.NewPCG(8, 8))
	const idling = 4200.0
	s := scene{teeth: 40, idle: idling, seconds: 16, snr: 15, stall: 12, cuts: []Cut{{Start: 3, End: 5, LeastRPM: 0.97 * idling}, {Start: 7, End: 9, LeastRPM: 0.91 * idling}, {Start: 11, End: 99, LeastRPM: 0.94 * idling}}}
	x := s.samples(r)
	first := map[Doing]float64{}
	var doings []Doing
	live := heard(t, Saw{Teeth: 40, RPM: idling}, x, func(at float64, h Heard) {
		// Until the next block it is a twentieth of a second older.
		off := math.Inf(1)
		for ago := 0.0; ago <= 0.2; ago += 0.01 {
			off = min(off, math.Abs(h.RPM/s.speed(at-ago)-1))
		}
		if at > 2 && at < 12 && off > 0.005 {
			t.Errorf("at %.2f s %.0f turns are heard, as many as at no moment of the quarter second before", at, h.RPM)
		}
		if _, was := first[h.Doing]; !was {
			first[h.Doing] = at
		}
		if n := len(doings); n == 0 || doings[n-1] != h.Doing {
			doings = append(doings, h.Doing)
		}
	})
	// From when the teeth, that slow down within 0.12 s, are 1.1 % under their idle speed, six
	// and three quarters, and half.
	for doing, at := range map[Doing]float64{Cutting: 3.044, Labouring: 7.09, Stalled: 12.176} {
		if late := first[doing] - at; late < 0 || late > 0.25 {
			t.Errorf("%s from %g s on is said at %g: %v", doing, at, first[doing], doings)
		}
	}
	whole, err := Listen(x, rate, Saw{Teeth: 40, RPM: idling})
	if err != nil || len(whole.Cuts) != 2 || !slices.Equal(live.Cuts, whole.Cuts) || !slices.Equal(live.Stalls, whole.Stalls) || len(whole.Stalls) != 1 {
		t.Errorf("in blocks %+v %v, as a whole %+v %v, %v", live.Cuts, live.Stalls, whole.Cuts, whole.Stalls, err)
	}
}

// Minutes are summed up on the way: no cut is lost or counted twice, and little is
// kept.
func TestLongSounds(t *testing.T) {
	r := rand.New(rand.NewPCG(9, 9))
	s := scene{teeth: 40, idle: 4200, seconds: 160, snr: 12, whistle: 5150}
	for at := 4.0; at < 150; at += 6 {
		s.cuts = append(s.cuts, Cut{Start: at, End: at + 2.5, LeastRPM: 4000})
	}
	l, err := NewLive(rate, Saw{Teeth: 40, Idle: 4205})
	if err != nil {
		t.Fatal(err)
	}
	for x := s.samples(r); len(x) > 0; x = x[min(len(x), rate):] {
		l.Hear(x[:min(len(x), rate)])
	}
	h := l.Heard()
	if len(h.Cuts) != len(s.cuts) {
		t.Fatalf("%d cuts of %d", len(h.Cuts), len(s.cuts))
	}
	for i, c := range h.Cuts {
		if math.Abs(c.Start-s.cuts[i].Start) > 0.3 || math.Abs(c.End-s.cuts[i].End) > 0.3 {
			t.Errorf("cut %d: %+v, want %+v", i, c, s.cuts[i])
		}
	}
	if len(l.settled) > whole+often || l.past.from < 1500 || math.Abs(h.IdleRPM/4200-1) > 0.002 || !slices.Contains(h.Signs, Whistle) {
		t.Errorf("%d moments are kept after %d; idle %g, signs %v", len(l.settled), l.past.from, h.IdleRPM, h.Signs)
	}
}

// Another saw that is held faster is not taken for this one's idling, since it goes on
// while this one droops.
func TestAnotherSaw(t *testing.T) {
	track := slices.Concat(slices.Repeat([]float64{4255}, 40), slices.Repeat([]float64{4145}, 40), slices.Repeat([]float64{4000}, 40))
	for name, c := range map[string]struct {
		share float64 // of the moments at 4,000 at which the fastest is there as well
		want  float64
	}{"there": {0.6, 4145}, "mostly gone": {0.4, 4255}} {
		var all []moment
		for i, v := range track {
			m := moment{rpm: v}
			if v < 4255 && float64(i%10) < 10*c.share {
				m.also = []float32{4256}
			}
			all = append(all, m)
		}
		if got := idle(track, all, 0); got != c.want {
			t.Errorf("%s: idles at %g, want %g", name, got, c.want)
		}
	}
	if got := idle(track, nil, 4010); got != 4000 {
		t.Errorf("near the one that it had before: %g", got)
	}
}

func TestEffort(t *testing.T) {
	for droop, want := range map[float64]outcome.Effort{0.017: outcome.Easy, 0.019: outcome.Normal, 0.044: outcome.Normal, 0.046: outcome.Hard} {
		if got := (Saw{}).Effort(droop); got != want {
			t.Errorf("a droop of %g is %s, want %s", droop, got, want)
		}
	}
	if got := (Saw{Full: 0.2}).Effort(0.07); got != outcome.Easy {
		t.Errorf("of a motor that droops by a fifth: %s", got)
	}
}

// A tone that few samples cannot hold is not folded down onto another when they are
// thinned; one that they can goes through as it was, in whatever blocks it comes.
func TestThinner(t *testing.T) {
	for hz, want := range map[float64]float64{1000: 1, 6000: 1, 16000: 0} {
		th := newThinner(2)
		var out []float64
		block := 0
		for i := 0; i < rate; i += block {
			block = 1 + (i*7)%613
			x := make([]float64, min(block, rate-i))
			for k := range x {
				x[k] = math.Sin(2 * math.Pi * hz * float64(i+k) / rate)
			}
			out = th.thin(out, x)
		}
		sum := 0.0
		for _, v := range out {
			sum += 2 * v * v / float64(len(out))
		}
		if math.Abs(sum-want) > 0.02 || math.Abs(float64(len(out))-rate/2) > 30 {
			t.Errorf("%g Hz: power %g, want %g, in %d samples", hz, sum, want, len(out))
		}
	}
}

// Cuts stray from what was foretold where most of them do, to the same side.
func TestStrays(t *testing.T) {
	of := func(times ...float64) (out []Load) {
		for _, x := range times {
			out = append(out, Load{Droop: x * 0.045 * 0.5, Foretold: 0.5})
		}
		return out
	}
	for name, c := range map[string]struct {
		loads []Load
		want  float64
	}{
		"as foretold":       {of(1, 1.1, 0.9, 1.2, 1), 0},
		"twice as much":     {of(2, 1.4, 2.1, 1.9, 2.2), 2},
		"four of them":      {of(2, 2, 2, 2), 0},
		"now and then":      {of(2, 1, 1, 2, 2.2), 0},
		"half":              {of(0.5, 0.5, 0.7, 0.5, 0.9), 0.5},
		"with light ones":   {append(of(2, 2, 2, 2), Load{0.1, 0.14}), 0},
		"a quarter astray":  {of(2, 2, 2, 2, 1.2, 2, 2, 2), 2},
		"more than that is": {of(2, 2, 2, 2, 1.2, 1.2, 1.2, 2), 0},
	} {
		if got := Strays(c.loads, 0.045); math.Abs(got-c.want) > 1e-9 {
			t.Errorf("%s: %g, want %g", name, got, c.want)
		}
	}
}
