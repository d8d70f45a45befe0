package sight

import "math"

// align sets right where each tooth lies by the colours round its tip. Where the
// blade seems to end moves with its shadow; what a tooth looks like does not.
func (r *reading) align() {
	const reach = 12 // parts of a pitch that a tooth may lie off
	s := r.strip
	height := r.tip - r.gullet
	lo, hi := s.row(r.gullet+0.35*height), s.row(r.tip+0.03*height)
	rows := hi - lo
	if rows < 3 {
		return
	}
	for range 2 {
		top := r.top()
		near := func(u int) bool {
			d := (u - top + across + across/2) % across
			return d > across/6 && d < across-across/6
		}
		mean, n := make([][3]float32, across*rows), make([]float32, across)
		for i := range s.turns {
			u := r.part(i)
			n[u]++
			for j := range rows {
				for k, v := range s.c[i*s.rows+lo+j] {
					mean[u*rows+j][k] += v
				}
			}
		}
		for u := range across {
			for j := range rows {
				for k := range 3 {
					mean[u*rows+j][k] /= max(1, n[u])
				}
			}
		}
		off := make([][2*reach + 1]float64, r.teeth)
		for i := range s.turns {
			u := r.part(i)
			if !near(u) {
				continue
			}
			// A tooth is counted from the middle of the gap on.
			k := int(math.Floor(r.phase[i]-float64(top)/across+0.5)) + 2*r.teeth
			sums := &off[k%r.teeth]
			for d := range sums {
				other := mean[(u+d-reach+across)%across*rows:]
				sum := float32(0)
				for j := range rows {
					a, b := s.c[i*s.rows+lo+j], other[j]
					sum += abs(a[0]-b[0]) + abs(a[1]-b[1]) + abs(a[2]-b[2])
				}
				sums[d] += float64(sum)
			}
		}
		shifts := make([]float64, r.teeth)
		for k, sums := range off {
			best := 0
			for d, v := range sums {
				if v < sums[best] {
					best = d
				}
			}
			part := 0.0
			if best > 0 && best < 2*reach {
				a, b, c := sums[best-1], sums[best], sums[best+1]
				part = 0.5 * (a - c) / (a - 2*b + c + 1e-9)
			}
			shifts[k] = (float64(best-reach) + part) / across
		}
		// Teeth are told off from one of them on; the first lies where its number says.
		warp := smooth(shifts)
		turn := 2 * math.Pi / float64(r.teeth)
		for i := range r.phase {
			r.phase[i] += warp.at((r.phase[i] - float64(top)/across) * turn)
		}
		r.fold()
	}
}
