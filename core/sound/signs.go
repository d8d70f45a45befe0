package sound

import (
	"maps"
	"math"
)

const (
	whistleNats  = 5.0
	faintNats    = 2.5
	whistleShare = 0.6 // of the idle moments
	whistleFrom  = 1500.0
	followFrom   = 0.02 // droop from which it is seen whether a tone goes along with the speed
	followShare  = 0.1  // of the moments of such a droop in which it does
)

// idles reports whether the saw idled at a moment.
func (h Heard) idles(t int) bool {
	return h.Track[t] > 0 && math.Abs(h.Track[t]/h.IdleRPM-1) <= droopOut
}

// A tone stands out of a spectrum, and is no multiple of the teeth's.
type tone struct {
	bin   uint16
	clear bool // enough to be heard by everybody
}

func (e *ear) tones(f frame, rpm float64) (out []tone) {
	teeth := e.bin(rpm)
	for i := int(whistleFrom * float64(e.n) / e.rate); i < len(f.level)-1; i++ {
		if f.level[i] < faintNats || f.level[i] < f.level[i-1] || f.level[i] < f.level[i+1] {
			continue
		}
		if near := float64(i) / teeth; math.Abs(near-math.Round(near)) > 0.04 {
			out = append(out, tone{uint16(i), f.level[i] >= whistleNats})
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

// A tally counts the tones that aren't the teeth's, over all moments of idling.
type tally struct {
	idles  int
	tones  map[uint16]int
	slower int            // moments of a droop
	follow map[uint16]int // tones then, where they would lie at the idle speed if they went along
	beside [4]float64
}

// with adds moments with a known track to a tally.
func (y tally) with(all []moment, h Heard) tally {
	y.tones, y.follow = counts(y.tones), counts(y.follow)
	for t, m := range all {
		if m.rpm == 0 {
			continue
		}
		if slow := m.rpm / h.IdleRPM; slow < 1-followFrom && slow > quarter {
			y.slower++
			for _, one := range m.tones {
				y.follow[uint16(float64(one.bin)/slow)/2]++
			}
		}
		if !h.idles(t) {
			continue
		}
		y.idles++
		for _, one := range m.tones {
			if one.clear {
				y.tones[one.bin/2]++
			}
		}
		for k, v := range m.beside {
			y.beside[k] += float64(v)
		}
	}
	return y
}

// counts is a copy that may be changed.
func counts(had map[uint16]int) map[uint16]int {
	if had == nil {
		return map[uint16]int{}
	}
	return maps.Clone(had)
}

// whistles reports whether a tone that was clear in so many moments of idling is one: it is there through most
// of them, and does not slow down with the teeth, as what gears and belts sing does.
func (y tally) whistles(at uint16, heard int) bool {
	follows := y.follow[at-1] + y.follow[at] + y.follow[at+1]
	geared := y.slower >= int(0.5/Step) && float64(follows) > followShare*float64(y.slower)
	return float64(heard) > whistleShare*float64(y.idles) && !geared
}

// signs are what Trace may ask about. Teeth that are louder or fainter once a turn have tones one and two turns
// to either side of theirs, through all of the idling.
func (y tally) signs() (out []string) {
	if y.idles < int(1/Step) {
		return nil
	}
	for at, n := range y.tones {
		if y.whistles(at, n) {
			out = append(out, Whistle)
			break
		}
	}
	if min(y.beside[0], y.beside[1], y.beside[2], y.beside[3]) >= beatNats*float64(y.idles) {
		out = append(out, Beat)
	}
	return out
}
