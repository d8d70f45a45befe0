package sound

import (
	"errors"
	"flag"
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"corte/core/fault"
)

const rate = 44100

var (
	many = flag.Int("scenes", 12, "that are made up; docs/sound.md is of 200")
	long = flag.Int("noise", 1, "minutes of an extractor and talk; docs/sound.md is of ten")
)

// A scene is a sound that is made up: what a saw, and all around it, does. The
// listening side never sees it.
type scene struct {
	teeth   int
	idle    float64
	seconds float64
	cuts    []Cut   // with the droop in LeastRPM
	snr     float64 // dB of the idling teeth over the extractor and talk
	talk    bool
	other   bool    // saw nearby
	whistle float64 // Hz
	gear    float64 // a tone, in times a turn
	stall   float64 // when it stops in the work; 0 never
	off     bool    // no saw runs
	gain    float64 // over 1 it clips; 0 means 1
	beat    float64 // how much louder one tooth is
}

func (s scene) speed(t float64) float64 {
	switch {
	case s.off:
		return 0
	case t < 1.2: // it runs up
		return s.idle * math.Min(1, 0.15+0.85*t/1.1)
	case s.stall > 0 && t > s.stall:
		return math.Max(0, s.idle*(1-0.06-(t-s.stall)/0.4))
	case t > s.seconds-2.5: // and down
		return s.idle * math.Max(0, 1-(t-s.seconds+2.5)/3.5)
	}
	v := s.idle
	for _, c := range s.cuts {
		in := math.Min(1, math.Max(0, math.Min((t-c.Start)/0.12, (c.End-t)/0.12)))
		v -= in * (s.idle - c.LeastRPM)
	}
	return v
}

func (s scene) samples(r *rand.Rand) []float64 {
	out := make([]float64, int(s.seconds*rate))
	phases := [6]float64{}
	for i := range phases {
		phases[i] = 2 * math.Pi * r.Float64()
	}
	noise := 0.1 * math.Pow(10, -s.snr/20) * 4
	teeth, turn, second, third, formant := 0.0, 0.0, 0.0, 0.0, 0.0
	low, voice := 0.0, 0.0
	pitch := 110 + 90*r.Float64()
	for i := range out {
		t := float64(i) / rate
		v := s.speed(t)
		turn += v / 60 / rate
		teeth += v / 60 * float64(s.teeth) / rate
		amp := 0.1 * math.Min(1, v/max(1, s.idle))
		if s.beat > 0 {
			amp *= 1 + s.beat*math.Exp(-30*math.Pow(math.Mod(turn, 1)-0.5, 2))
		}
		load := 0.0
		for _, c := range s.cuts {
			if t > c.Start && t < c.End {
				load = 1
			}
		}
		x := 0.0
		if v > 0 {
			for h := 1; h <= 5; h++ {
				x += amp * (1 + 1.5*load) / float64(h) * math.Sin(2*math.Pi*float64(h)*teeth+phases[h])
			}
			x += 0.08 * math.Sin(4*math.Pi*turn)
		}
		x += 0.05 * math.Sin(2*math.Pi*100*t) // the mains
		white := r.NormFloat64()
		low += 0.15 * (white - low)
		x += noise*(0.5*white+1.2*low) + 0.12*load*white*amp/0.1
		if s.talk && math.Sin(2*math.Pi*0.7*t)+math.Sin(2*math.Pi*0.31*t+1) > 0.4 {
			f := pitch * (1 + 0.15*math.Sin(2*math.Pi*2.3*t))
			second += f / rate
			formant = 700 + 500*math.Sin(2*math.Pi*1.1*t)
			voice += (math.Mod(second, 1) - 0.5 - voice) * formant / rate * 3
			x += 0.25 * voice
		}
		if s.other {
			third += (4730.0 / 60 * 36) / rate
			x += 0.03 * (math.Sin(2*math.Pi*third) + 0.5*math.Sin(4*math.Pi*third))
		}
		if s.whistle > 0 && v > 0.9*s.idle {
			x += 0.06 * math.Sin(2*math.Pi*s.whistle*t)
		}
		if s.gear > 0 {
			x += 0.03 * math.Min(1, v/s.idle) * math.Sin(2*math.Pi*s.gear*turn)
		}
		if s.gain > 0 {
			x *= s.gain
		}
		out[i] = math.Max(-1, math.Min(1, x))
	}
	return out
}

func drawn(r *rand.Rand) scene {
	s := scene{teeth: []int{24, 40, 48, 60, 80}[r.IntN(5)], idle: 3300 + 2000*r.Float64(), snr: 6 + 14*r.Float64(), talk: r.IntN(2) == 0, other: r.IntN(3) == 0, gain: math.Exp(1.6 * (r.Float64() - 0.4))}
	at := 2.2 + r.Float64()
	for range r.IntN(4) {
		long := 1 + 3*r.Float64()
		s.cuts = append(s.cuts, Cut{Start: at, End: at + long, LeastRPM: s.idle * (1 - 0.02 - 0.08*r.Float64())})
		at += long + 0.9 + r.Float64()
	}
	s.seconds = at + 4
	return s
}

func TestScenes(t *testing.T) {
	r := rand.New(rand.NewPCG(18, 17))
	scenes := *many
	moments, right, counted, timed, cuts := 0, 0, 0, 0, 0
	for range scenes {
		s := drawn(r)
		h, err := Listen(s.samples(r), rate, Saw{Teeth: s.teeth, RPM: math.Round(s.idle/100) * 100})
		if err != nil {
			t.Fatal(err)
		}
		for i, v := range h.Track {
			at := (float64(i) + 1.85) * Step
			if want := s.speed(at); at > 1.4 && at < s.seconds-2.6 {
				moments++
				if math.Abs(v/want-1) < 0.01 {
					right++
				}
			}
		}
		if len(h.Cuts) != len(s.cuts) {
			t.Logf("%d cuts of %d: %+v at %.0f dB, %d teeth, other %v: %+v", len(h.Cuts), len(s.cuts), h.Cuts, s.snr, s.teeth, s.other, s.cuts)
			continue
		}
		counted++
		for i, c := range h.Cuts {
			cuts++
			if math.Abs(c.Start-s.cuts[i].Start) < 0.3 && math.Abs(c.End-s.cuts[i].End) < 0.3 && math.Abs(c.LeastRPM/s.cuts[i].LeastRPM-1) < 0.01 {
				timed++
			}
		}
	}
	t.Logf("speed right in %d of %d moments, cuts counted in %d of %d scenes, %d of %d cuts in time", right, moments, counted, scenes, timed, cuts)
	if float64(right) < 0.95*float64(moments) || float64(counted) < 0.95*float64(scenes) || float64(timed) < 0.95*float64(cuts) {
		t.Error("it hears too little")
	}
}

func TestNoSawNoCut(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 3))
	for range 2 * *long {
		s := scene{teeth: 40, idle: 4000, seconds: 30, snr: 3, talk: true, off: true}
		if h, err := Listen(s.samples(r), rate, Saw{Teeth: 40, RPM: 4000}); err != nil || len(h.Cuts) > 0 || len(h.Stalls) > 0 {
			t.Errorf("extractor and talk are %+v, %v", h.Cuts, err)
		}
	}
}

func TestStallsAndWhistles(t *testing.T) {
	r := rand.New(rand.NewPCG(4, 4))
	s := scene{teeth: 40, idle: 4200, seconds: 12, snr: 15, stall: 6, cuts: []Cut{{Start: 5, End: 99, LeastRPM: 4200 * 0.94}}}
	h, err := Listen(s.samples(r), rate, Saw{Teeth: 40, RPM: 4200})
	if err != nil || len(h.Cuts) != 0 || len(h.Stalls) != 1 || math.Abs(h.Stalls[0]-6.2) > 0.4 {
		t.Errorf("a stall at 6 s is heard as %v, cuts %+v, %v", h.Stalls, h.Cuts, err)
	}
	for _, hz := range []float64{0, 5150} {
		s := scene{teeth: 40, idle: 4200, seconds: 8, snr: 15, whistle: hz}
		h, err := Listen(s.samples(r), rate, Saw{Teeth: 40, RPM: 0}) // nobody knows its speed
		if err != nil || slices.Contains(h.Signs, "whistle") != (hz > 0) || math.Abs(h.IdleRPM/4200-1) > 0.01 {
			t.Errorf("a tone of %g Hz: signs %v at %.0f a minute, %v", hz, h.Signs, h.IdleRPM, err)
		}
	}
	// What slows down with the teeth is a gear's.
	for _, c := range []struct{ whistle, gear float64 }{{whistle: 5150}, {gear: 73.6}} {
		s := scene{teeth: 40, idle: 4200, seconds: 14, snr: 15, whistle: c.whistle, gear: c.gear, cuts: []Cut{{Start: 4, End: 7, LeastRPM: 4000}}}
		h, err := Listen(s.samples(r), rate, Saw{Teeth: 40, RPM: 4200})
		if err != nil || len(h.Cuts) != 1 || slices.Contains(h.Signs, "whistle") != (c.whistle > 0) {
			t.Errorf("with a cut, a tone of %g Hz, or of %g times a turn: signs %v, %d cuts, %v", c.whistle, c.gear, h.Signs, len(h.Cuts), err)
		}
	}
}

// standing is a frame of which what lies at places, in times of one, stands out so far.
func standing(l *Live, one float64, nats map[int]float64) frame {
	f := frame{make([]float64, len(l.logs)), make([]float64, len(l.ear.speeds)), make([]int16, len(l.best))}
	for h, v := range nats {
		for at := int(one*float64(h)) - 2; at < int(one*float64(h))+4; at++ { // the speeds that are tried lie apart
			f.level[at] = v
		}
	}
	return f
}

// Teeth whose first harmonics are all as clear are not taken for twice or three times as fast ones, whose own
// are among them.
func TestOvertones(t *testing.T) {
	l, err := NewLive(rate, Saw{Teeth: 40})
	if err != nil {
		t.Fatal(err)
	}
	slow := 100
	fast := slow + int(math.Round(math.Log(2)/math.Log(ratio)))
	one := l.ear.bin(l.ear.speeds[slow])
	for _, c := range []struct {
		odd  float64 // nats of the slower teeth's first and third
		slow bool    // they are taken for slow
	}{{5, true}, {3.8, true}, {3.6, false}, {0, false}} {
		f := standing(l, one, map[int]float64{1: c.odd, 2: 5, 3: c.odd, 4: 5, 6: 5, 8: 5})
		if l.step(f); f.scores[slow] > f.scores[fast] != c.slow {
			t.Errorf("of %g nats between, slow explains %g, fast %g", c.odd, f.scores[slow], f.scores[fast])
		}
	}
	f := standing(l, 300, map[int]float64{1: 5, 2: 5, 3: 5, 4: 5, 5: 5, 6: 5})
	if f.overtone(300) != 0 || f.overtone(600) != clear || f.overtone(900) != clear {
		t.Errorf("of teeth at 300, overtones of %g, at 600 %g, at 900 %g", f.overtone(300), f.overtone(600), f.overtone(900))
	}
	f = standing(l, 300, map[int]float64{1: 5, 4: 5, 5: 5, 6: 5}) // one tone at a half, or at a third, is not slower teeth
	if f.overtone(600) != 0 || f.overtone(900) != 0 {
		t.Errorf("of one tone, overtones of %g and %g", f.overtone(600), f.overtone(900))
	}
	// What stands out too little is nothing.
	for nats, heard := range map[float64]bool{1.5: false, 1.7: true} {
		l, _ := NewLive(rate, Saw{Teeth: 40})
		for range 40 {
			f := standing(l, one, map[int]float64{1: nats, 2: nats, 3: nats, 4: nats})
			l.step(f)
			l.recent = append(l.recent, f)
		}
		if way := l.way(); way[39] < len(l.ear.speeds) != heard {
			t.Errorf("%g nats: heard %v", nats, !heard)
		}
	}
	r := rand.New(rand.NewPCG(9, 9))
	s := scene{teeth: 80, idle: 2820, seconds: 9, snr: 12, cuts: []Cut{{Start: 3, End: 5, LeastRPM: 2650}}}
	var few []float64
	for x := s.samples(r); len(x) >= 2; x = x[2:] {
		few = append(few, (x[0]+x[1])/2)
	}
	if h, err := Listen(few, rate/2, Saw{Teeth: 80}); err != nil || len(h.Cuts) != 1 || math.Abs(h.IdleRPM/2820-1) > 0.005 {
		t.Errorf("80 teeth, of which two harmonics are heard: idles at %g, cuts %+v, %v", h.IdleRPM, h.Cuts, err)
	}
}

// Which tones are whistles, to the moment.
func TestWhistles(t *testing.T) {
	for _, c := range []struct {
		heard, slower, follow int
		whistles              bool
	}{{61, 0, 0, true}, {60, 0, 0, false}, {61, 100, 10, true}, {61, 100, 11, false}, {61, 10, 9, false}, {61, 9, 9, true}} {
		y := tally{idles: 100, slower: c.slower, follow: map[uint16]int{501: c.follow}}
		if y.whistles(500, c.heard) != c.whistles {
			t.Errorf("%+v", c)
		}
	}
	h := Heard{IdleRPM: 1000, Track: []float64{1000, 981, 979, 751, 749}}
	var all []moment
	for _, v := range h.Track {
		all = append(all, moment{rpm: v, tones: []tone{{uint16(v), true}, {333, false}}})
	}
	if y := (tally{}).with(all, h); y.idles != 1 || y.tones[500] != 1 || len(y.tones) != 1 || y.slower != 2 || y.follow[500]+y.follow[499] != 2 {
		t.Errorf("what is counted: %+v", y)
	}
	l, _ := NewLive(rate, Saw{Teeth: 40})
	f := standing(l, 1, nil)
	f.level[1003], f.level[1013], f.level[1023], f.level[1033] = 2.4, 2.6, 4.9, 5.1
	if got := l.ear.tones(f, 3600); len(got) != 3 || got[1].clear || !got[2].clear {
		t.Errorf("tones: %+v", got)
	}
}

// One tooth that is louder beats once a turn; teeth all alike do not, whatever is
// around.
func TestBeats(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 5))
	for _, c := range []scene{
		{teeth: 40, idle: 4200, seconds: 8, snr: 15, beat: 1}, {teeth: 24, idle: 3600, seconds: 8, snr: 10, beat: 1.5, talk: true},
		{teeth: 40, idle: 4200, seconds: 8, snr: 15}, {teeth: 24, idle: 3600, seconds: 8, snr: 10, talk: true, other: true}, {teeth: 60, idle: 4400, seconds: 8, snr: 20, gain: 3},
	} {
		h, err := Listen(c.samples(r), rate, Saw{Teeth: c.teeth, RPM: 0})
		if err != nil || slices.Contains(h.Signs, "beat") != (c.beat > 0) {
			t.Errorf("%d teeth, one %g louder: signs %v, %v", c.teeth, c.beat, h.Signs, err)
		}
	}
}

// What few samples a second hold of coarse teeth is enough.
func TestFewSamples(t *testing.T) {
	r := rand.New(rand.NewPCG(6, 6))
	s := scene{teeth: 24, idle: 3500, seconds: 9, snr: 15, cuts: []Cut{{Start: 3, End: 5, LeastRPM: 3300}}}
	const each = 5
	var few []float64
	for x := s.samples(r); len(x) >= each; x = x[each:] {
		few = append(few, (x[0]+x[1]+x[2]+x[3]+x[4])/each)
	}
	if h, err := Listen(few, rate/each, Saw{Teeth: 24, RPM: 3500}); err != nil || len(h.Cuts) != 1 || math.Abs(h.IdleRPM/3500-1) > 0.005 {
		t.Errorf("%d samples a second: %+v at %.0f, %v", rate/each, h.Cuts, h.IdleRPM, err)
	}
}

func TestWhatCannotBeListenedTo(t *testing.T) {
	for where, c := range map[string]struct {
		rate float64
		saw  Saw
	}{"teeth": {rate, Saw{Teeth: 5, RPM: 0}}, "speed": {rate, Saw{Teeth: 40, RPM: 300}}} {
		var f *fault.Error
		if _, err := Listen(make([]float64, 100), c.rate, c.saw); !errors.As(err, &f) || f.Where != where {
			t.Errorf("%s: %v", where, err)
		}
	}
	if _, err := Listen(make([]float64, 100), 7999, Saw{Teeth: 40, RPM: 0}); err == nil {
		t.Error("7,999 samples a second are listened to")
	}
	if h, err := Listen(nil, rate, Saw{Teeth: 40, RPM: 0}); err != nil || h.IdleRPM != 0 || len(h.Cuts) > 0 {
		t.Errorf("silence is %+v, %v", h, err)
	}
}

// How many times faster it listens than the sound goes.
func BenchmarkListen(b *testing.B) {
	r := rand.New(rand.NewPCG(1, 1))
	x := drawn(r).samples(r)
	for b.Loop() {
		if _, err := Listen(x, rate, Saw{Teeth: 40, RPM: 4000}); err != nil {
			b.Fatal(err)
		}
	}
	b.ReportMetric(float64(len(x))/rate*float64(b.N)/b.Elapsed().Seconds(), "x-realtime")
}

// Cuts and stalls of tracks that are written down: what counts, to the moment.
func TestSegments(t *testing.T) {
	const idling = 4000.0
	times := func(n int, v float64) []float64 { return slices.Repeat([]float64{v}, n) }
	at := func(droop float64) float64 { return idling * (1 - droop) }
	falling := func(n int) (out []float64) { // from idling to nothing in so many steps
		for i := range n {
			out = append(out, idling*(1-float64(i+1)/float64(n)))
		}
		return out
	}
	growing := func(from, to float64) (out []float64) {
		for i := range 10 {
			out = append(out, at(from+(to-from)*float64(i)/9))
		}
		return out
	}
	for name, c := range map[string]struct {
		track        []float64
		cuts, stalls int
	}{
		"a droop of 1.2 %":        {slices.Concat(times(20, idling), times(20, at(0.012)), times(20, idling)), 1, 0},
		"of 1 %":                  {slices.Concat(times(20, idling), times(20, at(0.010)), times(20, idling)), 0, 0},
		"for 0.35 s":              {slices.Concat(times(20, idling), times(7, at(0.05)), times(20, idling)), 1, 0},
		"for 0.3 s":               {slices.Concat(times(20, idling), times(6, at(0.05)), times(20, idling)), 0, 0},
		"a pause of 0.25 s":       {slices.Concat(times(20, idling), times(10, at(0.05)), times(5, idling), times(10, at(0.05)), times(20, idling)), 1, 0},
		"a pause of 0.3 s":        {slices.Concat(times(20, idling), times(10, at(0.05)), times(6, idling), times(10, at(0.05)), times(20, idling)), 2, 0},
		"running up":              {slices.Concat(times(5, 0), times(20, at(0.2)), times(30, idling)), 0, 0},
		"ends within a cut":       {slices.Concat(times(20, idling), times(20, at(0.05))), 0, 0},
		"idled for 0.6 s":         {slices.Concat(times(12, idling), times(20, at(0.05)), times(20, idling)), 1, 0},
		"for less":                {slices.Concat(times(11, idling), times(20, at(0.05)), times(20, idling)), 0, 0},
		"unevenly":                {slices.Concat(times(10, idling), times(10, at(0.0045)), times(20, at(0.05)), times(20, idling)), 0, 0},
		"another saw, further":    {slices.Concat(times(20, idling), times(20, at(0.05)), times(20, at(-0.016))), 0, 0},
		"back in a leap":          {slices.Concat(times(20, idling), times(10, at(0.05)), times(3, at(0.21)), times(20, idling)), 0, 0},
		"running down":            {slices.Concat(times(20, idling), falling(60)), 0, 0},
		"a stall":                 {slices.Concat(times(20, idling), times(10, at(0.06)), falling(10)), 0, 1},
		"falls a little slower":   {slices.Concat(times(20, idling), times(10, at(0.06)), falling(44)), 0, 1},
		"and slower than stalls":  {slices.Concat(times(20, idling), times(10, at(0.06)), falling(52)), 1, 0},
		"a motor with a brake":    {slices.Concat(times(20, idling), falling(20)), 0, 0},
		"after a touch":           {slices.Concat(times(20, idling), times(3, at(0.06)), falling(20)), 0, 0},
		"after a droop of 18 %":   {slices.Concat(times(20, idling), times(12, at(0.18)), falling(30)[6:]), 0, 1},
		"lost in the work":        {slices.Concat(times(20, idling), times(10, at(0.06)), times(20, 0)), 0, 1},
		"for a fifth of a second": {slices.Concat(times(20, idling), times(4, at(0.06)), times(20, 0)), 0, 1},
		"for less of one":         {slices.Concat(times(20, idling), times(3, at(0.06)), times(20, 0)), 0, 0},
		"lost as it falls":        {slices.Concat(times(20, idling), times(10, at(0.06)), times(1, at(0.38)), times(20, 0)), 0, 1},
		"lost as it slows":        {slices.Concat(times(20, idling), growing(0.088, 0.2), times(20, 0)), 0, 0},
		"lost in hard work":       {slices.Concat(times(20, idling), growing(0.136, 0.2), times(20, 0)), 0, 1},
		"lost in running down":    {slices.Concat(times(20, idling), falling(60)[:14], times(20, 0)), 0, 0},
		"lost, and not followed":  {slices.Concat(times(20, idling), times(6, at(0.3)), times(4, at(0.12)), times(20, 0)), 0, 0},
	} {
		h := Heard{Track: c.track, IdleRPM: idling}
		if h.segment(Saw{}); len(h.Cuts) != c.cuts || len(h.Stalls) != c.stalls {
			t.Errorf("%s: cuts %+v, stalls %v", name, h.Cuts, h.Stalls)
		}
	}
	h := Heard{Track: slices.Concat(times(20, idling), times(10, 3800), times(10, 3600), times(20, idling)), IdleRPM: idling}
	h.segment(Saw{})
	if c := h.Cuts[0]; c.LeastRPM != 3600 || math.Abs(c.MeanRPM-3700) > 1e-6 || math.Abs(c.End-c.Start-1) > 1e-9 || math.Abs(c.Start-1.08) > 1e-9 {
		t.Errorf("one cut is %+v", c)
	}
	for over, doing := range map[float64]Doing{-0.05: Cutting, 0.016: Turning} { // no saw turns so much faster than it idles
		h := Heard{Track: slices.Concat(times(20, idling), times(10, at(0.06)), times(3, at(-over))), IdleRPM: idling}
		if h.segment(Saw{}); h.Doing != doing {
			t.Errorf("at %g over its idle speed it is %s", over, h.Doing)
		}
	}
	// A motor that takes its time to be back: the cut was over before.
	var back []float64
	for k := range 20 {
		back = append(back, at(0.1*math.Exp(-float64(k)/4)))
	}
	h = Heard{Track: slices.Concat(times(20, idling), times(20, at(0.1)), back, times(20, idling)), IdleRPM: idling}
	h.segment(Saw{})
	if c := h.Cuts[0]; math.Abs(c.End-c.Start-1.15) > 1e-9 || math.Abs(c.MeanRPM-3610.7) > 0.1 {
		t.Errorf("a cut of 1 s, after which the motor takes its time, is %+v", c)
	}
	h = Heard{Track: slices.Concat(times(20, idling), times(20, at(0.08)), falling(80)[7:]), IdleRPM: idling}
	h.segment(Saw{})
	if c := h.Cuts[0]; math.Abs(c.End-c.Start-1) > 0.36 || c.LeastRPM != at(0.08) {
		t.Errorf("a cut of 1 s, at the end of which the saw is switched off, is %+v", c)
	}
	if got := bridged([]float64{0, 4000, 0, 0, 4300, 0, 0, 0, 0, 0, 0, 4000}); !slices.Equal(got[:5], []float64{0, 4000, 4100, 4200, 4300}) || got[5] != 0 || got[10] != 0 {
		t.Errorf("bridged is %v", got)
	}
	for _, c := range []struct {
		zeros  int
		after  float64
		filled bool
	}{{20, 3900, true}, {21, 3900, false}, {20, 3870, false}, {5, 3000, true}, {6, 3000, false}} {
		got := bridged(slices.Concat(times(1, idling), times(c.zeros, 0), times(1, c.after)))
		if filled := got[1] > 0; filled != c.filled {
			t.Errorf("%d moments of nothing before %g: filled %v", c.zeros, c.after, filled)
		}
	}
	for _, c := range []struct {
		track []float64
		want  float64
	}{{times(11, idling), idling}, {times(10, idling), 0}, {slices.Concat(times(11, idling), times(9, 4400)), idling}, {slices.Concat(times(30, 3800), times(11, idling)), idling}} {
		if got := idle(c.track, nil, 0); got != c.want {
			t.Errorf("of %d moments it idles at %g, want %g", len(c.track), got, c.want)
		}
	}
}

// A saw that is switched on after a while of nothing is heard.
func TestALateStart(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 7))
	quiet := scene{teeth: 40, idle: 4000, seconds: 8, snr: 12, talk: true, off: true}.samples(r)
	s := scene{teeth: 40, idle: 4000, seconds: 9, snr: 12, cuts: []Cut{{Start: 3, End: 5, LeastRPM: 3800}}}
	h, err := Listen(append(quiet, s.samples(r)...), rate, Saw{Teeth: 40, RPM: 4000})
	if err != nil || len(h.Cuts) != 1 || math.Abs(h.Cuts[0].Start-11) > 0.3 || h.Track[40] != 0 {
		t.Errorf("after eight seconds of nothing: %+v, %g, %v", h.Cuts, h.Track[40], err)
	}
}
