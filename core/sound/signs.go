package sound

import (
	"maps"
	"math"
)

const (
	whistleNats  = 5.0
	whistleShare = 0.6 // of the idle moments
	whistleFrom  = 1500.0
)

// idles reports whether it idled at a moment.
func (h Heard) idles(t int) bool {
	return h.Track[t] > 0 && math.Abs(h.Track[t]/h.IdleRPM-1) <= droopOut
}

// tones are the bins of clear tones that are no multiple of the teeth's.
func (e *ear) tones(f frame, rpm float64) (out []uint16) {
	teeth := e.bin(rpm)
	for i := int(whistleFrom * float64(e.n) / e.rate); i < len(f.level)-1; i++ {
		if f.level[i] < whistleNats || f.level[i] < f.level[i-1] || f.level[i] < f.level[i+1] {
			continue
		}
		if near := float64(i) / teeth; math.Abs(near-math.Round(near)) > 0.04 {
			out = append(out, uint16(i))
		}
	}
	return out
}

// beside is how far what lies one and two turns to either side of the teeth's tone
// stands out; nothing where a spectrum does not reach there.
func (e *ear) beside(f frame, rpm float64) (out [4]float32) {
	teeth := e.bin(rpm)
	for k, turns := range [4]float64{-2, -1, 1, 2} {
		if at := int(math.Round(teeth * (1 + turns/float64(e.saw.Teeth)))); at >= 1 && at+1 < len(f.level) {
			out[k] = float32(max(f.level[at-1], f.level[at], f.level[at+1]))
		}
	}
	return out
}

// beatNats is how far what lies a turn beside the teeth's tone stands out of the noise,
// by and large, where one tooth is heard once a turn.
const beatNats = 2.0

// A tally is what was heard beside the teeth, over all moments of idling.
type tally struct {
	idles  int
	tones  map[uint16]int
	beside [4]float64
}

// with is a tally with more moments, of which a track is known.
func (y tally) with(all []moment, h Heard) tally {
	y.tones = maps.Clone(y.tones)
	if y.tones == nil {
		y.tones = map[uint16]int{}
	}
	for t, m := range all {
		if m.rpm == 0 || !h.idles(t) {
			continue
		}
		y.idles++
		for _, bin := range m.tones {
			y.tones[bin/2]++
		}
		for k, v := range m.beside {
			y.beside[k] += float64(v)
		}
	}
	return y
}

// signs are what Trace may ask about. A whistle is a tone that is there through most of
// the idling; teeth that are louder or fainter once a turn have tones one and two turns
// to either side of theirs, through all of it.
func (y tally) signs() (out []string) {
	if y.idles < int(1/Step) {
		return nil
	}
	for _, n := range y.tones {
		if float64(n) > whistleShare*float64(y.idles) {
			out = append(out, Whistle)
			break
		}
	}
	if min(y.beside[0], y.beside[1], y.beside[2], y.beside[3]) >= beatNats*float64(y.idles) {
		out = append(out, Beat)
	}
	return out
}
