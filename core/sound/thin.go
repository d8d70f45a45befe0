package sound

import "math"

// A thinner reduces the sample rate by a whole factor, after a low-pass filter that
// keeps aliases out.
type thinner struct {
	every int
	taps  []float64 // a sinc under Hann's window, symmetric
	tail  []float64
}

func newThinner(every int) *thinner {
	if every < 2 {
		return nil
	}
	half := 10 * every
	t := &thinner{every: every, taps: make([]float64, 2*half+1)}
	sum := 0.0
	for i := range t.taps {
		x := float64(i-half) / float64(every)
		v := 1.0
		if x != 0 {
			v = math.Sin(0.9*math.Pi*x) / (0.9 * math.Pi * x)
		}
		t.taps[i] = v * (0.5 + 0.5*math.Cos(math.Pi*float64(i-half)/float64(half+1)))
		sum += t.taps[i]
	}
	for i := range t.taps {
		t.taps[i] /= sum
	}
	return t
}

// thin appends the reduced samples to out.
func (t *thinner) thin(out, samples []float64) []float64 {
	t.tail = append(t.tail, samples...)
	used := 0
	for ; used+len(t.taps) <= len(t.tail); used += t.every {
		sum := 0.0
		for i, v := range t.tail[used : used+len(t.taps)] {
			sum += v * t.taps[i]
		}
		out = append(out, sum)
	}
	t.tail = append(t.tail[:0], t.tail[used:]...)
	return out
}
