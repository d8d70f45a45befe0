// Package sound listens to a saw: from what a microphone heard, and the number of
// teeth of the blade that is on, it says how fast the arbor turned, when it cut,
// how far it drooped, and where it stalled. It hears the teeth: so many pass in a
// second, with the harmonics of that, and a tone that is no multiple of theirs is
// something else (craft section 18).
//
// A sound is worked through twice. First every twentieth of a second is asked how
// well each speed explains it, and the one way through all of them is taken that
// explains most and jumps least; then what lies under the idle speed for a while,
// and comes back to it, is a cut.
package sound

import (
	"fmt"
	"math"
	"slices"

	"gonum.org/v1/gonum/dsp/fourier"

	"corte/core/fault"
)

// A Saw is what is known of what is listened to.
type Saw struct {
	Teeth int     // of the blade that is on
	RPM   float64 // that the saw is said to turn at; 0 if nobody knows
}

// A Cut is a time in which the teeth were in the work, in seconds from the
// beginning.
type Cut struct {
	Start, End        float64
	LeastRPM, MeanRPM float64
}

// A Heard is what was heard of a saw.
type Heard struct {
	IdleRPM float64 // 0 where no saw was heard
	Cuts    []Cut
	Stalls  []float64 // when the motor stopped in the work, s
	Signs   []string  // for Trace: whistle, beat
	Track   []float64 // arbor speed, a value each Step; 0 where it was not heard
}

// Step is how far apart the values of a track are, s.
const Step = 0.05

const (
	leastRate = 8000 // samples a second, under which teeth are not heard
	mostRate  = 192000
	harmonics = 4

	slowestRPM, fastestRPM = 1500.0, 8000.0
	overSaid               = 1.08  // of the speed that the saw is said to have
	underSaid              = 0.3   // of it, under which it is as good as stopped
	ratio                  = 1.001 // from one speed that is tried to the next
	underLoudest           = 1e-6  // of its power, under which nothing is told apart
	flat                   = 48    // bins to either side, over which a spectrum is levelled

	silence  = 1.1   // nats over the floor that a speed must bring, or nothing is heard
	jump     = 0.025 // nats for each step of the ratio from one moment to the next
	entering = 1.5   // nats for coming out of silence, or going into it
)

// What makes a cut; judgement, held by synthesised scenes.
const (
	droopIn   = 0.011 // of the idle speed
	droopOut  = 0.005
	leastCut  = 0.35 // s
	mostPause = 0.3  // s, within one cut
	runDown   = 0.5  // of the idle speed, under which it has stopped cutting
	stallIn   = 0.9  // s, in which a motor that stalls falls to that
)

// Listen works out what samples between -1 and 1 hold, so many a second. The error
// is of what cannot be listened to.
func Listen(samples []float64, rate float64, s Saw) (Heard, error) {
	switch {
	case !(rate >= leastRate && rate <= mostRate):
		return Heard{}, fmt.Errorf("a sound of %g samples a second; from %d to %d can be listened to", rate, leastRate, mostRate)
	case s.Teeth < 6 || s.Teeth > 200:
		return Heard{}, fault.At("teeth", "say how many teeth the blade has, from 6 to 200")
	case s.RPM != 0 && !(s.RPM >= 500 && s.RPM <= 20000):
		return Heard{}, fault.At("speed", "a saw turns at 500 to 20,000 a minute; leave it out if you do not know")
	}
	e := newEar(rate, s)
	frames := e.frames(samples)
	if len(frames) == 0 {
		return Heard{}, nil
	}
	h := Heard{Track: bridged(e.follow(frames))}
	h.IdleRPM = idle(h.Track)
	if h.IdleRPM == 0 {
		return h, nil
	}
	h.segment()
	if e.whistles(frames, h) {
		h.Signs = append(h.Signs, "whistle")
	}
	if e.beats(frames, h) {
		h.Signs = append(h.Signs, "beat")
	}
	return h, nil
}

// An ear knows which speeds it tries.
type ear struct {
	rate   float64
	saw    Saw
	n      int // samples of a frame
	window []float64
	fft    *fourier.FFT
	speeds []float64 // rpm, rising by ratio
}

// A frame is a moment's spectrum, levelled: nats over the noise around.
type frame struct {
	level  []float64
	scores []float64 // of each speed
}

func newEar(rate float64, s Saw) *ear {
	e := &ear{rate: rate, saw: s, n: 1024}
	for float64(e.n) < 0.16*rate {
		e.n *= 2
	}
	e.fft = fourier.NewFFT(e.n)
	e.window = make([]float64, e.n)
	for i := range e.window {
		e.window[i] = 0.5 - 0.5*math.Cos(2*math.Pi*float64(i)/float64(e.n))
	}
	lo, hi := slowestRPM, fastestRPM
	if s.RPM > 0 {
		lo, hi = underSaid*s.RPM, overSaid*s.RPM
	}
	for rpm := lo; rpm <= hi; rpm *= ratio {
		e.speeds = append(e.speeds, rpm)
	}
	return e
}

// bin is where a speed's teeth stand in a spectrum.
func (e *ear) bin(rpm float64) float64 {
	return rpm / 60 * float64(e.saw.Teeth) * float64(e.n) / e.rate
}

func (e *ear) frames(samples []float64) []frame {
	hop := int(Step * e.rate)
	var out []frame
	buf := make([]float64, e.n)
	var coeff []complex128
	for at := 0; at+e.n <= len(samples); at += hop {
		for i := range buf {
			buf[i] = samples[at+i] * e.window[i]
		}
		coeff = e.fft.Coefficients(coeff, buf)
		out = append(out, e.frame(coeff))
	}
	return out
}

func (e *ear) frame(coeff []complex128) frame {
	logs := make([]float64, len(coeff))
	loudest := 0.0
	for i, c := range coeff {
		logs[i] = real(c)*real(c) + imag(c)*imag(c)
		loudest = max(loudest, logs[i])
	}
	for i, v := range logs { // what is far under the loudest is the window's own
		logs[i] = math.Log(v + underLoudest*loudest + 1e-12)
	}
	f := frame{level: levelled(logs), scores: make([]float64, len(e.speeds))}
	for i, rpm := range e.speeds {
		f.scores[i] = f.score(e.bin(rpm), clear)
	}
	return f
}

// levelled takes the mean of what lies around off every value.
func levelled(logs []float64) []float64 {
	sums := make([]float64, len(logs)+1)
	for i, v := range logs {
		sums[i+1] = sums[i] + v
	}
	out := make([]float64, len(logs))
	for i, v := range logs {
		lo, hi := max(0, i-flat), min(len(logs), i+flat+1)
		out[i] = v - (sums[hi]-sums[lo])/float64(hi-lo)
	}
	return out
}

// clear is as much as one tone counts for, nats.
const clear = 5

// weights are what each harmonic counts for.
var weights = func() (w [harmonics + 1]float64) {
	for h := 1; h <= harmonics; h++ {
		w[h] = 1 / math.Sqrt(float64(h))
	}
	return w
}()

// score is how far teeth that pass at a place of the spectrum stand out of it, with
// their harmonics: each counts for no more than a clear tone does, so that one
// loud tone is not taken for teeth.
func (f frame) score(bin, clear float64) float64 {
	sum, weight := 0.0, 0.0
	for h := 1; h <= harmonics; h++ {
		at := bin * float64(h)
		i := int(at)
		if i+2 >= len(f.level) {
			break
		}
		share := at - float64(i)
		v := f.level[i]*(1-share) + f.level[i+1]*share
		w := weights[h]
		sum, weight = sum+w*math.Max(-1, math.Min(clear, v)), weight+w
	}
	if weight == 0 {
		return -1
	}
	return sum / weight
}

// follow finds the speeds that explain most and jump least (Viterbi, 1967): of
// every moment the speed, or 0 for silence.
func (e *ear) follow(frames []frame) []float64 {
	n := len(e.speeds)
	best := make([]float64, n+1) // the last is silence
	from := make([][]int16, len(frames))
	for t, f := range frames {
		next, back := make([]float64, n+1), make([]int16, n+1)
		// The best way to each speed from every other, jumps paid: from below, then
		// from above (Felzenszwalb and Huttenlocher, 2012).
		for i := range n {
			next[i], back[i] = best[i], int16(i)
			if i > 0 && next[i-1]-jump > next[i] {
				next[i], back[i] = next[i-1]-jump, back[i-1]
			}
		}
		for i := n - 2; i >= 0; i-- {
			if next[i+1]-jump > next[i] {
				next[i], back[i] = next[i+1]-jump, back[i+1]
			}
		}
		next[n], back[n] = best[n], int16(n)
		for i := range n {
			if best[i]-entering > next[n] {
				next[n], back[n] = best[i]-entering, int16(i)
			}
			if best[n]-entering > next[i] {
				next[i], back[i] = best[n]-entering, int16(n)
			}
			next[i] += f.scores[i] - silence
		}
		best, from[t] = next, back
	}
	at := 0
	for i := range best {
		if best[i] > best[at] {
			at = i
		}
	}
	out := make([]float64, len(frames))
	for t := len(frames) - 1; t >= 0; t-- {
		if at < n {
			out[t] = e.fine(frames[t], e.speeds[at])
		}
		at = int(from[t][at])
	}
	return out
}

// bridged fills in what was not heard for a moment: it turned meanwhile.
func bridged(track []float64) []float64 {
	const most = int(0.25 / Step)
	last := -1
	for t, v := range track {
		if v == 0 {
			continue
		}
		if gap := t - last; last >= 0 && gap > 1 && gap <= most+1 {
			for k := 1; k < gap; k++ {
				track[last+k] = track[last] + (v-track[last])*float64(k)/float64(gap)
			}
		}
		last = t
	}
	return track
}

// fine is a speed to a tenth of the step that speeds are tried in.
func (e *ear) fine(f frame, rpm float64) float64 {
	best, v := rpm, math.Inf(-1)
	for k := -12; k <= 12; k++ {
		x := rpm * math.Pow(ratio, float64(k)/10)
		if s := f.score(e.bin(x), math.Inf(1)); s > v { // here the whole of a peak, for its middle
			best, v = x, s
		}
	}
	return best
}

// idle is the fastest speed that is held: at which a tenth of all that is heard, and
// at least half a second of it, lies together.
func idle(track []float64) float64 {
	var heard []float64
	for _, v := range track {
		if v > 0 {
			heard = append(heard, v)
		}
	}
	slices.Sort(heard)
	want := max(int(0.5/Step), len(heard)/10)
	for hi := len(heard) - 1; hi-want >= 0; hi-- {
		if heard[hi]/heard[hi-want] < 1.006 {
			return heard[hi-want/2]
		}
	}
	return 0
}

// segment finds cuts and stalls in a track.
func (h *Heard) segment() {
	droop := func(t int) float64 { return 1 - h.Track[t]/h.IdleRPM }
	idles := func(t int) bool { return t >= 0 && t < len(h.Track) && h.Track[t] > 0 && droop(t) < droopOut }
	for t := 0; t < len(h.Track); t++ {
		if h.Track[t] == 0 || droop(t) < droopIn {
			continue
		}
		// From where it left the idle speed to where it is back, or gone.
		start := t
		for start > 0 && h.Track[start-1] > 0 && droop(start-1) > droopOut {
			start--
		}
		end, least, fell := t, h.Track[t], -1
		for end < len(h.Track) && !h.back(end, idles) {
			v := h.Track[end]
			if v > 0 {
				least = min(least, v)
			}
			if fell < 0 && (v == 0 || v < runDown*h.IdleRPM) {
				fell = end
			}
			end++
		}
		began, done := idles(start-1), end < len(h.Track)
		t = end
		switch {
		case !began: // it was running up
		case fell >= 0:
			if quick := h.fellWithin(start, fell); quick <= stallIn {
				h.Stalls = append(h.Stalls, float64(fell)*Step)
			}
		case done && float64(end-start)*Step >= leastCut:
			c := Cut{Start: h.at(start), End: h.at(end), LeastRPM: least}
			for _, v := range h.Track[start:end] {
				c.MeanRPM += v / float64(end-start)
			}
			h.Cuts = append(h.Cuts, c)
		}
	}
}

// at is the time of a moment: a frame's middle.
func (h *Heard) at(t int) float64 { return (float64(t) + 1.6) * Step }

// back reports whether it idles from a moment on for longer than a pause in a cut.
func (h *Heard) back(t int, idles func(int) bool) bool {
	for k := range int(mostPause / Step) {
		if t+k < len(h.Track) && !idles(t+k) {
			return false
		}
	}
	return true
}

// fellWithin is how long it took from a tenth under the idle speed to where it
// stopped, s.
func (h *Heard) fellWithin(start, fell int) float64 {
	for t := fell; t > start; t-- {
		if v := h.Track[t-1]; v > 0.9*h.IdleRPM {
			return float64(fell-t) * Step
		}
	}
	return float64(fell-start) * Step
}

const (
	whistleNats  = 5.0
	whistleShare = 0.6 // of the idle moments
	whistleFrom  = 1500.0
)

// idles reports whether it idled at a moment.
func (h Heard) idles(t int) bool {
	return h.Track[t] > 0 && math.Abs(h.Track[t]/h.IdleRPM-1) <= droopOut
}

// whistles reports whether a tone is there through most of the idling that is no
// multiple of the teeth.
func (e *ear) whistles(frames []frame, h Heard) bool {
	counts := map[int]int{}
	idles := 0
	for t, f := range frames {
		if !h.idles(t) {
			continue
		}
		idles++
		teeth := e.bin(h.Track[t])
		for i := int(whistleFrom * float64(e.n) / e.rate); i < len(f.level)-1; i++ {
			if f.level[i] < whistleNats || f.level[i] < f.level[i-1] || f.level[i] < f.level[i+1] {
				continue
			}
			if near := float64(i) / teeth; math.Abs(near-math.Round(near)) > 0.04 {
				counts[i/2]++
			}
		}
	}
	for _, n := range counts {
		if idles >= int(1/Step) && float64(n) > whistleShare*float64(idles) {
			return true
		}
	}
	return false
}

// beatNats is how far what lies a turn beside the teeth's tone stands out of the noise,
// by and large, where one tooth is heard once a turn.
const beatNats = 2.0

// beats reports whether the teeth are louder or fainter once a turn: then tones lie one
// and two turns to either side of theirs, through all of the idling.
func (e *ear) beats(frames []frame, h Heard) bool {
	idles := 0
	var beside [4]float64
	for t, f := range frames {
		if !h.idles(t) {
			continue
		}
		idles++
		teeth := e.bin(h.Track[t])
		for k, turns := range [4]float64{-2, -1, 1, 2} {
			at := int(math.Round(teeth * (1 + turns/float64(e.saw.Teeth))))
			if at < 1 || at+1 >= len(f.level) {
				return false
			}
			beside[k] += max(f.level[at-1], f.level[at], f.level[at+1])
		}
	}
	if idles < int(1/Step) {
		return false
	}
	for _, v := range beside {
		if v < beatNats*float64(idles) {
			return false
		}
	}
	return true
}
