package sight

import (
	"math"

	"gonum.org/v1/gonum/dsp/fourier"
)

const (
	bandsDown   = 48  // of a wall's height, each with its own profile along it
	leastPeriod = 3.0 // pixels
	leastTimes  = 5   // periods that a part of a wall must show
	parted      = 3   // a wall is looked at in so many parts that lie half over one another
	standsOut   = 1.4 // nats over what lies around, from which marks come back
	sureOut     = 2.0 // and from which it is sure
	clearly     = 2.5 // as much as one tone counts for
	bothWays    = 0.3 // of what leans one way must lean the other to cross
)

// marks are how far apart marks come back along a face, in its columns; 0 where they do
// not. Each band of its height has a profile along it; what frequency stands out of
// their spectra, with its double, is that of the marks, and which way the bands' phases
// run at it tells how the marks lean.
func (f face) marks() (period, sure float64, crossing bool) {
	long := 2 * f.wide / (parted + 1)
	bands := min(bandsDown, f.high)
	if long < leastTimes*int(leastPeriod)+8 {
		return 0, 0, false
	}
	fft := fourier.NewFFT(long)
	window := make([]float64, long)
	for i := range window {
		window[i] = 0.5 - 0.5*math.Cos(2*math.Pi*float64(i)/float64(long))
	}
	power := make([]float64, long/2+1)
	spectra := make([][]complex128, parted*bands)
	buf := make([]float64, long)
	for b := range bands {
		v := f.profile(b*f.high/bands, (b+1)*f.high/bands)
		for part := range parted {
			for i, x := range v[part*long/2 : part*long/2+long] {
				buf[i] = x * window[i]
			}
			c := fft.Coefficients(nil, buf)
			spectra[part*bands+b] = c
			for i, z := range c {
				power[i] += real(z)*real(z) + imag(z)*imag(z)
			}
		}
	}
	level := risen(power)
	at := func(x float64) float64 {
		i := int(x)
		if i+1 >= len(level) {
			return 0
		}
		return level[i] + (x-float64(i))*(level[i+1]-level[i])
	}
	best, where := 0.0, 0
	for i := leastTimes; float64(i) <= float64(long)/leastPeriod && i+1 < len(level); i++ {
		if level[i] < level[i-1] || level[i] < level[i+1] {
			continue
		}
		// None counts for more than what is clear: a second of the marks' tones may stand out
		// further than their first.
		if v := min(clearly, level[i]) + 0.4*max(0, min(clearly, at(2*float64(i)))); v > best {
			best, where = v, i
		}
	}
	if best < standsOut || where == 0 {
		return 0, 0, false
	}
	// Of tones that are all clear, the clearest near the first.
	first := where
	for i := first - first/6; i <= min(first+first/6, len(level)-1); i++ {
		if level[i] > level[where] {
			where = i
		}
	}
	// The middle of the peak: marks that are not quite even spread it.
	sum, weight := 0.0, 0.0
	for i := max(1, where-3); i <= min(len(level)-1, where+3); i++ {
		w := max(0, math.Exp(level[i])-1)
		sum, weight = sum+w*float64(i), weight+w
	}
	return float64(long) * weight / sum, math.Min(1, best/sureOut), crosses(spectra, bands, where)
}

// risen is how far each power stands out of those around it, in nats; neighbours are
// taken together.
func risen(power []float64) []float64 {
	logs := make([]float64, len(power))
	for i := range power {
		lo, hi := max(0, i-1), min(len(power), i+2)
		for _, v := range power[lo:hi] {
			logs[i] += v / float64(hi-lo)
		}
		logs[i] = math.Log(logs[i] + 1e-12)
	}
	sums := make([]float64, len(logs)+1)
	for i, v := range logs {
		sums[i+1] = sums[i] + v
	}
	out := make([]float64, len(logs))
	for i, v := range logs {
		reach := max(8, i/3)
		// As much to either side, or a spectrum that falls would lift its beginning.
		reach = min(reach, i, len(logs)-1-i)
		if reach >= 4 {
			out[i] = v - (sums[i+reach+1]-sums[i-reach])/float64(2*reach+1)
		}
	}
	return out
}

// profile is how light a band is along the wall, without what changes slowly.
func (f face) profile(from, to int) []float64 {
	v := make([]float64, f.wide)
	for j := from; j < to; j++ {
		for i := range v {
			v[i] += f.light[j*f.wide+i] / float64(max(1, to-from))
		}
	}
	half := max(4, f.wide/50)
	sums := make([]float64, f.wide+1)
	for i, x := range v {
		sums[i+1] = sums[i] + x
	}
	out := make([]float64, f.wide)
	for i := range v {
		lo, hi := max(0, i-half), min(f.wide, i+half+1)
		// A border of what is scorched counts no more than a mark would.
		out[i] = max(-0.15, min(0.15, v[i]-(sums[hi]-sums[lo])/float64(hi-lo)))
	}
	return out
}

// crosses reports whether what comes back at a frequency leans both ways: its phase
// then runs both ways down the bands.
func crosses(spectra [][]complex128, bands, at int) bool {
	fft := fourier.NewCmplxFFT(bands)
	lean := make([]float64, bands)
	phases := make([]complex128, bands)
	for from := 0; from < len(spectra); from += bands {
		for b := range bands {
			hann := 0.5 - 0.5*math.Cos(2*math.Pi*(float64(b)+0.5)/float64(bands))
			phases[b] = spectra[from+b][at] * complex(hann, 0)
		}
		for k, z := range fft.Coefficients(nil, phases) {
			lean[k] += real(z)*real(z) + imag(z)*imag(z)
		}
	}
	var down, up float64
	for k := 2; k < bands/2; k++ {
		down, up = max(down, lean[k]), max(up, lean[bands-k])
	}
	return min(down, up) > bothWays*max(down, up, lean[0], lean[1], lean[bands-1])
}
