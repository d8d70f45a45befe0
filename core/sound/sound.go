// Package sound works out from a microphone, and the tooth count of the blade,
// how fast the arbor turned, when it cut, how far its speed dropped and where it
// stalled: craft section 18. It looks for the teeth that pass per second and
// their harmonics; a tone that is no multiple of these is something else.
//
// The sound is split into frames of 50 ms. For each frame every speed gets a
// score for how well it explains the spectrum, and a dynamic program picks the
// path that explains most and jumps least. A stretch below the idle speed that
// returns to it is a cut. Live sound is worked through in the same way.
package sound

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/dsp/fourier"

	"corte/core/outcome"
)

// A Saw is what is known of the saw that is listened to.
type Saw struct {
	Teeth int     // of the blade that is on
	RPM   float64 // that the saw is said to turn at; 0 if nobody knows
	Idle  float64 // at which it was heard to idle before, a minute; 0 if never
	Full  float64 // share of the idle speed that the motor droops by under all that it may bear; 0 for a usual one
}

// usualFull is the droop of an induction motor that bears what it may.
const usualFull = 0.045

// labours is how many times the droop of all that a motor may bear it labours at.
const labours = 1.5

func (s Saw) full() float64 {
	if s.Full > 0 {
		return s.Full
	}
	return usualFull
}

// Effort says how hard a cut was for the motor, by its droop: a share of the idle speed.
func (s Saw) Effort(droop float64) outcome.Effort {
	switch share := droop / s.full(); {
	case share < 0.4:
		return outcome.Easy
	case share < 1:
		return outcome.Normal
	}
	return outcome.Hard
}

// A Doing is what a saw does at a moment.
type Doing string

const (
	Silent    Doing = "silent"    // or not heard
	Turning   Doing = "turning"   // running up or down, or its idle speed is not known yet
	Idling    Doing = "idling"    //
	Cutting   Doing = "cutting"   //
	Labouring Doing = "labouring" // drooping more than it may
	Stalled   Doing = "stalled"   // in the work
)

// A Cut is a time in which the teeth were in the work, in seconds from the
// beginning.
type Cut struct {
	Start, End        float64
	LeastRPM, MeanRPM float64
}

// A Heard is the result of listening to a saw.
type Heard struct {
	IdleRPM float64 // 0 where no saw was heard
	Cuts    []Cut
	Stalls  []float64 // when the motor stopped in the work, s
	Signs   []string  // for Trace: whistle, beat
	Doing   Doing     // at the end
	RPM     float64   // at the end; 0 where it was not heard
	Track   []float64 // arbor speed, a value each Step; 0 where it was not heard. Of a long sound, the end of it
	from    int       // moments before the track begins
}

// What may be heard beside speeds and cuts.
const (
	Whistle = "whistle" // a tone that is no multiple of the teeth's
	Beat    = "beat"    // one tooth louder than the others
)

// Step is how far apart the values of a track are, s.
const Step = 0.05

const (
	leastRate = 8000 // samples a second, under which teeth are not heard
	mostRate  = 192000
	harmonics = 4

	slowestRPM, fastestRPM = 1500.0, 8000.0
	overSaid               = 1.08  // of the speed that the saw is said to have
	overIdle               = 1.03  // of the one at which it was heard before
	underSaid              = 0.3   // of it, under which it is as good as stopped
	ratio                  = 1.001 // from one speed that is tried to the next
	underLoudest           = 1e-6  // of its power, under which nothing is told apart
	flat                   = 48    // bins to either side, over which a spectrum is levelled

	near      = 0.006 // of a speed, within which another is the same
	overtones = 0.2   // of what says that a speed is an overtone, by which it explains less
	also      = 2.0   // nats from which a speed explains a sound as well
	silence   = 1.6   // nats over the floor that a speed must bring, or nothing is heard
	jump      = 0.025 // nats for each step of the ratio from one moment to the next
	entering  = 1.5   // nats for coming out of silence, or going into it
)

// What makes a cut; judgement, held by synthesised scenes.
const (
	droopIn   = 0.011 // of the idle speed
	droopOut  = 0.005
	leastCut  = 0.35  // s
	even      = 0.004 // of the idle speed, by which a motor's own differs
	evenFor   = 0.6   // s, for which it does
	mostOver  = 0.015 // of the idle speed, over which it is not this saw
	mostLeap  = 0.2   // of the idle speed: no saw is back at it from further in a moment
	mostShift = 0.03  // of a speed, within which it is as fast as before
	mostPause = 0.3   // s, within one cut
	runDown   = 0.5   // of the idle speed, under which it has stopped cutting
	quarter   = 0.75  // of it, from which it is a quarter more to fall to that
	stallIn   = 0.55  // s, in which a motor that stalls falls that quarter
	slowing   = 0.8   // of the droop at the end, under which the mean of one shows that it grew
	leastWork = 0.2   // s, for which it was slowed before; a brake slows at once
)

// Listen analyses samples between -1 and 1 at a rate a second. It returns an error for
// a saw or a rate that it can't work with.
func Listen(samples []float64, rate float64, s Saw) (Heard, error) {
	l, err := NewLive(rate, s)
	if err != nil {
		return Heard{}, err
	}
	l.Hear(samples)
	return l.Heard(), nil
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
	switch {
	case s.Idle > 0:
		lo, hi = underSaid*s.Idle, overIdle*s.Idle
	case s.RPM > 0:
		lo, hi = underSaid*s.RPM, overSaid*s.RPM
	}
	for rpm := lo; rpm <= hi; rpm *= ratio {
		e.speeds = append(e.speeds, rpm)
	}
	return e
}

// bin is the place of a speed's tooth-pass frequency in the spectrum.
func (e *ear) bin(rpm float64) float64 {
	return rpm / 60 * float64(e.saw.Teeth) * float64(e.n) / e.rate
}

// clear is the most that one tone counts, in nats.
const clear = 5

// weights are what each harmonic counts for.
var weights = func() (w [harmonics + 1]float64) {
	for h := 1; h <= harmonics; h++ {
		w[h] = 1 / math.Sqrt(float64(h))
	}
	return w
}()

// at is how far a bin stands out of the spectrum; 0 past its end.
func (f frame) at(bin float64) (nats float64, there bool) {
	i := int(bin)
	if i+2 >= len(f.level) {
		return 0, false
	}
	share := bin - float64(i)
	return f.level[i]*(1-share) + f.level[i+1]*share, true
}

// score is how far teeth that pass at a place of the spectrum stand out of it, with
// their harmonics: each counts for no more than a clear tone does, so that one
// loud tone is not taken for teeth.
func (f frame) score(bin, clear float64) float64 {
	sum, weight := 0.0, 0.0
	for h := 1; h <= harmonics; h++ {
		v, there := f.at(bin * float64(h))
		if !there {
			break
		}
		w := weights[h]
		sum, weight = sum+w*max(-1, min(clear, v)), weight+w
	}
	if weight == 0 {
		return -1
	}
	return sum / weight
}

// overtone is how clearly a speed is but a half or a third too many: what teeth that pass so much slower
// sound like is all there, also between its own harmonics.
func (f frame) overtone(bin float64) (nats float64) {
	for _, times := range [2]float64{2, 3} {
		first, _ := f.at(bin / times)
		second, there := f.at(bin / times * (5 - times)) // the third of two, the second of three
		if !there {
			second = first
		}
		nats = max(nats, min(first, second, clear))
	}
	return nats
}

// bridged fills in what was not heard for a moment, or for a second if it turned as fast before and after: it
// turned meanwhile.
func bridged(track []float64) []float64 {
	const most, alike = int(0.25 / Step), int(1 / Step)
	last := -1
	for t, v := range track {
		if v == 0 {
			continue
		}
		if gap := t - last; last >= 0 && gap > 1 && (gap <= most+1 || gap <= alike+1 && math.Abs(v/track[last]-1) < mostShift) {
			for k := 1; k < gap; k++ {
				track[last+k] = track[last] + (v-track[last])*float64(k)/float64(gap)
			}
		}
		last = t
	}
	return track
}

// fine refines a speed to a tenth of the step between the speeds that are tried.
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
// at least half a second of it, lies together; near the one that it had before, if that
// is known. What is there as well while the teeth turn slower is another machine.
func idle(track []float64, all []moment, before float64) float64 {
	var heard []float64
	for _, v := range track {
		if v > 0 && (before == 0 || math.Abs(v/before-1) < overIdle-1) {
			heard = append(heard, v)
		}
	}
	slices.Sort(heard)
	want := max(int(0.5/Step), len(heard)/10)
	for hi := len(heard) - 1; hi-want >= 0; hi-- {
		if v := heard[hi-want/2]; heard[hi]/heard[hi-want] < 1+near && !stays(all, v) {
			return v
		}
	}
	return 0
}

// stays reports whether a speed explains a sound also while another is held.
func stays(all []moment, rpm float64) bool {
	elsewhere, there := 0, 0
	for _, m := range all {
		if m.rpm == 0 || math.Abs(m.rpm/rpm-1) < near {
			continue
		}
		elsewhere++
		if slices.ContainsFunc(m.also, func(v float32) bool { return math.Abs(float64(v)/rpm-1) < near/2 }) {
			there++
		}
	}
	return elsewhere >= int(0.5/Step) && 2*there > elsewhere
}

// segment finds the cuts and stalls in a track, and what the saw is doing at its end.
func (h *Heard) segment(s Saw) {
	h.Doing = Silent
	if n := len(h.Track); n > 0 && h.Track[n-1] > 0 {
		h.RPM, h.Doing = h.Track[n-1], Turning
		if h.idles(n - 1) {
			h.Doing = Idling
		}
	}
	droop := func(t int) float64 { return 1 - h.Track[t]/h.IdleRPM }
	idles := func(t int) bool {
		return t >= 0 && t < len(h.Track) && h.Track[t] > 0 && droop(t) < droopOut && droop(t) > -mostOver
	}
	for t := 0; t < len(h.Track); t++ {
		if h.Track[t] == 0 || droop(t) < droopIn {
			continue
		}
		// From where it left the idle speed to where it is back, or gone.
		start := t
		for start > 0 && h.Track[start-1] > 0 && droop(start-1) > droopOut {
			start--
		}
		end, fell := t, -1
		for end < len(h.Track) && !h.back(end, idles) {
			v := h.Track[end]
			if fell < 0 && (v == 0 || v < runDown*h.IdleRPM) {
				fell = end
			}
			end++
		}
		began, done := idles(start-1) && h.steady(start), end < len(h.Track)
		t = end
		switch {
		case !began: // it was running up
		case fell >= 0:
			off, quick := h.fall(start, fell)
			switch worked := float64(off-start) * Step; {
			case worked >= leastWork && quick <= stallIn:
				h.Stalls = append(h.Stalls, float64(h.from+fell)*Step)
				if !done {
					h.Doing = Stalled
				}
			case worked >= leastCut: // switched off at the end of the cut, as one does on a miter saw
				h.cut(start, off)
			}
		case !done && h.RPM > 0 && droop(len(h.Track)-1) > -mostOver:
			h.Doing = Cutting
			if droop(len(h.Track)-1) > labours*s.full() {
				h.Doing = Labouring
			}
		case done && float64(end-start)*Step >= leastCut && droop(max(start, end-2)) < mostLeap:
			h.cut(start, end)
		}
	}
}

// cut keeps a cut that began at one moment and was over by another. The motor takes its time to be back at
// its idle speed: the teeth left the wood where half of what they slowed it by was made up for.
func (h *Heard) cut(start, over int) {
	speeds := slices.Sorted(slices.Values(h.Track[start:over]))
	half := (speeds[len(speeds)/2] + h.IdleRPM) / 2
	end := over
	for end > start+1 && h.Track[end-1] > half {
		end--
	}
	c := Cut{Start: h.at(start), End: h.at(end), LeastRPM: slices.Min(h.Track[start:end])}
	for _, v := range h.Track[start:end] {
		c.MeanRPM += v / float64(end-start)
	}
	h.Cuts = append(h.Cuts, c)
}

// at is the time of a moment, in the middle of its frame.
func (h *Heard) at(t int) float64 { return (float64(h.from+t) + 1.6) * Step }

// steady reports whether the saw has idled evenly for long enough. A motor does; a
// voice doesn't.
func (h *Heard) steady(before int) bool {
	held := 0
	for t := before - 1; t >= 0 && h.Track[t] > 0; t-- {
		if held++; math.Abs(h.Track[t]/h.IdleRPM-1) > even {
			held = 0
		}
		if held == int(evenFor/Step) {
			return true
		}
	}
	return false
}

// back reports whether it idles from a moment on for longer than a pause in a cut.
func (h *Heard) back(t int, idles func(int) bool) bool {
	for k := range int(mostPause / Step) {
		if t+k < len(h.Track) && !idles(t+k) {
			return false
		}
	}
	return true
}

// fall is the moment from which it fell to where it stopped, had it fallen from idling at the pace of its
// last quarter, and how long that quarter took, s. A motor that is switched off falls no slower at first.
func (h *Heard) fall(start, fell int) (off int, quick float64) {
	last := h.Track[fell]
	if last == 0 { // it was not heard any more
		last = h.Track[fell-1]
	}
	if seen := quarter - last/h.IdleRPM; seen > 0.05 {
		from := fell
		for from > start && h.Track[from-1] < quarter*h.IdleRPM {
			from--
		}
		of := float64(fell-from) * (1 - quarter) / seen
		return from - int(math.Ceil(of)), of * Step
	}
	// Hardly heard to fall: it stood at once, or was slowing all the time.
	mean := 0.0
	for _, v := range h.Track[start:fell] {
		mean += (h.IdleRPM - v) / float64(fell-start)
	}
	if mean < slowing*(h.IdleRPM-last) || slices.Min(h.Track[start:fell]) < 0.9*last {
		return start, 0
	}
	return fell, 0
}
