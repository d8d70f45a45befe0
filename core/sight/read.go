package sight

import (
	"math"
	"slices"
)

// leastShare is as much of a rim as teeth must explain, or there is no blade.
const leastShare = 0.12

// blade is what a reading comes to.
func (r reading) blade() (Blade, error) {
	if r.teeth == 0 || r.share < leastShare {
		return Blade{}, ErrNoBlade
	}
	b := Blade{Teeth: r.teeth, TeethSure: r.sure(), Gullet: r.tip - r.gullet}
	b.Group = r.groups()
	b.Slots = r.slots()
	if r.bore.sure > leastBore {
		b.BoreRatio, b.BoreSure = r.bore.r/r.tip, r.bore.sure
	}
	odd := r.odd()
	b.Hook, b.HookSure, b.Clockwise = r.hook(odd)
	r.places(&b, odd)
	return b, nil
}

// sure is how sure the count is.
func (r reading) sure() float64 {
	s := (r.share - 0.15) / 0.35
	if r.agree {
		s += 0.25
	} else {
		s -= 0.35
	}
	s -= max(0, 0.6-(r.share-r.second)/r.share)
	return max(0, min(0.99, s))
}

// slots counts narrow cuts that run inwards from under the gullets.
func (r reading) slots() int {
	s := r.strip
	lo, hi := s.row(r.gullet-0.10), s.row(r.gullet-0.03)
	if hi-lo < 3 {
		return 0
	}
	n, most := 0, int(0.02*float64(s.turns))
	run := 0
	off := make([]bool, s.turns)
	for i := range off {
		sum := float32(0)
		for j := lo; j < hi; j++ {
			sum += r.on[i*s.rows+j]
		}
		off[i] = sum < -0.3*float32(hi-lo)
	}
	start := slices.Index(off, false)
	if start < 0 {
		return 0
	}
	for k := 1; k <= s.turns; k++ {
		if off[(start+k)%s.turns] {
			run++
			continue
		}
		if run > 0 && run <= most {
			n++
		}
		run = 0
	}
	return n
}

// tipPlaces are where the tips lie in the picture, missing ones where they ought to.
func (r reading) tipPlaces() (out []Point) {
	// The tip of a tooth stands as far into its pitch as that of the mean one does.
	into := float64(r.top())/across + 0.5/across - r.first
	into -= math.Floor(into)
	for k, radius := range r.tops {
		if r.heights[k]-r.gullet < goneUnder*(r.tip-r.gullet) {
			radius = r.tip
		}
		s, c := math.Sincos(r.direction(r.first + float64(k) + into))
		out = append(out, r.rim.plane.point(radius*c, radius*s))
	}
	return out
}

// direction is where on the rim the teeth have turned so far, in radians.
func (r reading) direction(phase float64) float64 {
	n := len(r.phase)
	back := 0.0
	for phase < r.phase[0] {
		phase, back = phase+float64(r.teeth), back-1
	}
	for phase >= r.phase[0]+float64(r.teeth) {
		phase, back = phase-float64(r.teeth), back+1
	}
	i, _ := slices.BinarySearch(r.phase, phase)
	at := float64(i)
	if i > 0 {
		next := r.phase[0] + float64(r.teeth)
		if i < n {
			next = r.phase[i]
		}
		at += (phase - next) / (next - r.phase[i-1])
	}
	return 2 * math.Pi * (at/float64(n) + back)
}

// top is the part of the mean tooth that reaches furthest out.
func (r reading) top() (best int) {
	rows, most := r.hi-r.lo, float32(math.Inf(-1))
	for u := range across {
		sum := float32(0)
		for j := range rows {
			sum += clipped(r.mean[u*rows+j])
		}
		if sum > most {
			best, most = u, sum
		}
	}
	return best
}

// places says where everything lies in the picture.
func (r reading) places(b *Blade, odd oddTeeth) {
	around := func(radius float64) []Point {
		out := make([]Point, 72)
		for k := range out {
			s, c := math.Sincos(float64(k) * math.Pi / 36)
			out[k] = r.rim.plane.point(radius*c, radius*s)
		}
		return out
	}
	b.Rim = around(r.tip)
	if b.BoreSure > 0 {
		b.Bore = around(r.bore.r)
	}
	b.Tips = r.tipPlaces()
	x0, y0 := r.rim.plane.at(0, 0)
	places := func(teeth []int) (out []Place) {
		for _, k := range teeth {
			a := math.Atan2(b.Tips[k].X-x0, y0-b.Tips[k].Y) * 180 / math.Pi
			out = append(out, Place{math.Mod(a+360, 360), k})
		}
		return out
	}
	b.Missing, b.Short, b.Bent = places(odd.gone), places(odd.short), places(odd.bent)
}
