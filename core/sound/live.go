package sound

import (
	"math"
	"slices"

	"corte/core/fault"
)

// lag is how many moments the path trails behind the sound. Later sound hardly ever
// changes what lies further back.
const lag = 60

// A Live listens to a saw while it sounds. It keeps three seconds of spectra, a few
// numbers for each moment of two minutes and, of all that is older, the cuts, so that
// it may listen for hours.
type Live struct {
	ear  *ear
	thin *thinner  // nil where every sample is needed
	tail []float64 // samples that no frame has used up
	buf  []float64
	bins []complex128
	logs []float64
	sums []float64

	best, next []float64 // score of the best path to each speed, in nats; the last is silence
	recent     []frame   // not settled yet, oldest first
	spare      []frame   // for reuse
	settled    []moment

	past  Heard // summary of what is older than that
	signs tally
}

// A frame is a moment's spectrum, levelled: nats over the noise around; what each speed
// explains of it; and from which state of the moment before each is reached best.
type frame struct {
	level  []float64
	scores []float64
	from   []int16
}

// A moment is what is kept of a frame.
type moment struct {
	rpm    float64    // 0 where no saw was heard
	beside [4]float32 // nats of the tones a turn and two beside the teeth's
	tones  []tone     // that are no multiple of the teeth's
	also   []float32  // speeds that would explain it as well
}

// NewLive begins to listen, to so many samples a second.
func NewLive(rate float64, s Saw) (*Live, error) {
	switch {
	case !(rate >= leastRate && rate <= mostRate):
		return nil, fault.At("", "a sound of %g samples a second; from %d to %d can be listened to", rate, leastRate, mostRate)
	case s.Teeth < 6 || s.Teeth > 200:
		return nil, fault.At("teeth", "enter the number of teeth, 6 to 200")
	case s.Idle != 0 && !(s.Idle >= 500 && s.Idle <= 20000):
		return nil, fault.At("speed", "idle speed is 500 to 20,000 rpm. Leave it out if unknown")
	case s.RPM != 0 && !(s.RPM >= 500 && s.RPM <= 20000):
		return nil, fault.At("speed", "speed is 500 to 20,000 rpm. Leave it out if unknown")
	}
	every := enough(rate, s)
	e := newEar(rate/float64(every), s)
	half := e.n/2 + 1
	return &Live{
		ear: e, thin: newThinner(every), buf: make([]float64, e.n), logs: make([]float64, half), sums: make([]float64, half+1),
		best: make([]float64, len(e.speeds)+1), next: make([]float64, len(e.speeds)+1),
	}, nil
}

// enough is of how many samples one is enough to hold three harmonics of the fastest
// teeth.
func enough(rate float64, s Saw) int {
	fastest := fastestRPM
	switch {
	case s.Idle > 0:
		fastest = overIdle * s.Idle
	case s.RPM > 0:
		fastest = overSaid * s.RPM
	}
	return max(1, int(rate/2/1.1/(3*fastest/60*float64(s.Teeth))))
}

// Hear takes the samples since the last call, each between -1 and 1.
func (l *Live) Hear(samples []float64) {
	if l.thin != nil {
		l.tail = l.thin.thin(l.tail, samples)
	} else {
		l.tail = append(l.tail, samples...)
	}
	hop, used := int(Step*l.ear.rate), 0
	for ; used+l.ear.n <= len(l.tail); used += hop {
		f := l.frame(l.tail[used:])
		l.step(f)
		if l.recent = append(l.recent, f); len(l.recent) > lag {
			l.settle()
		}
	}
	l.tail = append(l.tail[:0], l.tail[used:]...)
}

// frame is the spectrum of what begins samples.
func (l *Live) frame(samples []float64) frame {
	e := l.ear
	for i, w := range e.window {
		l.buf[i] = samples[i] * w
	}
	l.bins = e.fft.Coefficients(l.bins, l.buf)
	loudest := 0.0
	for i, c := range l.bins {
		l.logs[i] = real(c)*real(c) + imag(c)*imag(c)
		loudest = max(loudest, l.logs[i])
	}
	for i, v := range l.logs { // what is far under the loudest is the window's own
		l.logs[i] = math.Log(v + underLoudest*loudest + 1e-12)
		l.sums[i+1] = l.sums[i] + l.logs[i]
	}
	f := frame{make([]float64, len(l.logs)), make([]float64, len(l.ear.speeds)), make([]int16, len(l.best))}
	if n := len(l.spare); n > 0 {
		f, l.spare = l.spare[n-1], l.spare[:n-1]
	}
	for i, v := range l.logs { // the mean of what lies around is taken off
		lo, hi := max(0, i-flat), min(len(l.logs), i+flat+1)
		f.level[i] = v - (l.sums[hi]-l.sums[lo])/float64(hi-lo)
	}
	return f
}

// step advances the path by one moment. It takes each speed from the predecessor
// with the best score less its jump (Viterbi, 1967), with the cost of jumps as a
// distance transform (Felzenszwalb and Huttenlocher, 2012).
func (l *Live) step(f frame) {
	e, best, next, back := l.ear, l.best, l.next, f.from
	n := len(e.speeds)
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
		f.scores[i] = f.score(e.bin(e.speeds[i]), clear)
		if f.scores[i] > silence {
			f.scores[i] -= overtones * f.overtone(e.bin(e.speeds[i]))
		}
		next[i] += f.scores[i] - silence
	}
	// Only what one way is better than another counts: it does not grow for hours.
	most := next[0]
	for _, v := range next {
		most = max(most, v)
	}
	for i := range next {
		next[i] -= most
	}
	l.best, l.next = next, best
}

// way is the best path through the frames that are not settled yet: one state per
// frame.
func (l *Live) way() []int {
	at := 0
	for i, v := range l.best {
		if v > l.best[at] {
			at = i
		}
	}
	out := make([]int, len(l.recent))
	for t := len(out) - 1; t >= 0; t-- {
		out[t] = at
		at = int(l.recent[t].from[at])
	}
	return out
}

// settle turns the oldest frame into a moment and frees it.
func (l *Live) settle() {
	f := l.recent[0]
	l.settled = append(l.settled, l.moment(f, l.way()[0]))
	l.recent = append(l.recent[:0], l.recent[1:]...)
	l.spare = append(l.spare, f)
	l.fold()
}

func (l *Live) moment(f frame, state int) moment {
	if state == len(l.ear.speeds) {
		return moment{}
	}
	m := moment{rpm: l.ear.fine(f, l.ear.speeds[state])}
	m.beside = l.ear.beside(f, m.rpm)
	m.tones = l.ear.tones(f, m.rpm)
	for i, v := range f.scores {
		if v > also && i > 0 && i+1 < len(f.scores) && v >= f.scores[i-1] && v > f.scores[i+1] {
			m.also = append(m.also, float32(l.ear.speeds[i]))
		}
	}
	return m
}

// Heard is the result so far.
func (l *Live) Heard() Heard {
	all := append([]moment{}, l.settled...)
	for t, state := range l.way() {
		all = append(all, l.moment(l.recent[t], state))
	}
	h, signs := l.heard(all)
	h.Signs = signs.signs()
	h.Cuts = append(append([]Cut{}, l.past.Cuts...), h.Cuts...)
	h.Stalls = append(append([]float64{}, l.past.Stalls...), h.Stalls...)
	if h.IdleRPM == 0 {
		h.IdleRPM = l.past.IdleRPM
	}
	return h
}

// heard is the result of moments that follow an earlier result.
func (l *Live) heard(all []moment) (Heard, tally) {
	h := Heard{Track: make([]float64, len(all)), from: l.past.from, Doing: Silent}
	for t, m := range all {
		h.Track[t] = m.rpm
	}
	h.Track = bridged(h.Track)
	before := l.ear.saw.Idle
	if l.past.IdleRPM > 0 {
		before = l.past.IdleRPM
	}
	h.IdleRPM = idle(h.Track, all, before)
	if h.IdleRPM == 0 && before > 0 && slices.Max(append(h.Track, 0)) > 0 {
		h.IdleRPM = before // it has not idled yet, and is known from before
	}
	if h.IdleRPM == 0 {
		if n := len(h.Track); n > 0 && h.Track[n-1] > 0 {
			h.RPM, h.Doing = h.Track[n-1], Turning
		}
		return h, l.signs
	}
	h.segment(l.ear.saw)
	return h, l.signs.with(all, h)
}

const (
	whole = 2400 // moments that are kept before the older of them are summed up
	often = 100  // moments from one try to the next
	calm  = 40   // moments without a cut, in the middle of which that is done: half of them are as evenly idled as a cut wants before it
	fresh = 600  // moments that stay
)

// fold summarises old moments, so that memory and time don't grow with the sound.
func (l *Live) fold() {
	if len(l.settled) < whole || len(l.settled)%often != 0 {
		return
	}
	h, _ := l.heard(l.settled)
	for t := len(l.settled) - fresh; t > calm; t-- {
		if !h.calm(t) {
			continue
		}
		old := h
		old.Track = h.Track[:t]
		l.signs = l.signs.with(l.settled[:t], old)
		for _, c := range h.Cuts {
			if c.End <= h.at(t) {
				l.past.Cuts = append(l.past.Cuts, c)
			}
		}
		for _, s := range h.Stalls {
			if s <= h.at(t) {
				l.past.Stalls = append(l.past.Stalls, s)
			}
		}
		if h.IdleRPM > 0 {
			l.past.IdleRPM = h.IdleRPM
		}
		l.past.from += t
		l.settled = append([]moment{}, l.settled[t:]...)
		return
	}
}

// calm reports whether nothing but idling, or nothing at all, is heard around a moment.
func (h Heard) calm(t int) bool {
	idles, silent := true, true
	for _, v := range h.Track[t-calm/2 : t+calm/2] {
		idles = idles && v > 0 && math.Abs(v/h.IdleRPM-1) <= droopOut
		silent = silent && v == 0
	}
	return idles || silent
}
