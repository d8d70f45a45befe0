package sight

import (
	"cmp"
	"math"
	"slices"
)

// A rim is a circle that has been laid onto the tips, and how surely.
type rim struct {
	plane plane
	sure  float64
}

// rims are the circles of a picture that could be tips', the surest first: at most
// three, none twice.
func rims(p Picture) (out []rim) {
	var all []rim
	for _, c := range candidates(p) {
		if m, ok := settled(p, c); ok {
			all = append(all, m)
		}
	}
	slices.SortFunc(all, func(a, b rim) int { return cmp.Compare(b.sure, a.sure) })
	for _, m := range all {
		if len(out) < 3 && !slices.ContainsFunc(out, func(o rim) bool { return o.near(m) }) {
			out = append(out, m)
		}
	}
	return out
}

// near reports whether two rims are as good as the same.
func (m rim) near(o rim) bool {
	size := o.plane.size()
	return math.Hypot(m.plane[2]-o.plane[2], m.plane[5]-o.plane[5]) < 0.02*size && math.Abs(m.plane.size()/size-1) < 0.02
}

// settled lays a first guess onto the tips: where the blade ends in every direction,
// the furthest of each part of the rim, and the ellipse through those, several times
// over.
func settled(p Picture, c circle) (rim, bool) {
	out := rim{plane: c.plane()}
	for round := range 4 {
		r, from, to := rings{0.62, 0.84, 1.06, 1.25}, 0.78, 1.18
		if round == 0 { // the guess may be a tenth off
			r, from, to = rings{0.5, 0.72, 1.16, 1.4}, 0.66, 1.36
		}
		s := unrolled(p, out.plane, 480, 60, 0.5, 1.4)
		plate, bench := s.sides(r, 16)
		radii, sure := s.edge(s.onBlade(plate, bench, false), from, to)
		out.sure = sure
		tips, ok := tipsCircle(radii)
		if !ok {
			return out, false
		}
		points := make([]Point, 72)
		for k := range points {
			a := float64(k) * math.Pi / 36
			sin, cos := math.Sincos(a)
			r := tips.at(a)
			points[k] = out.plane.point(r*cos, r*sin)
		}
		if out.plane, ok = ellipse(points); !ok || out.plane.flattened() < 0.75 {
			return out, false
		}
	}
	return out, true
}

// harmonics are a radius against the direction: a circle off its middle, and flat.
type harmonics [5]float64

func (h harmonics) at(a float64) float64 {
	s1, c1 := math.Sincos(a)
	s2, c2 := math.Sincos(2 * a)
	return h[0] + h[1]*c1 + h[2]*s1 + h[3]*c2 + h[4]*s2
}

// tipsCircle fits harmonics to the furthest that the blade reaches in every tenth of
// the rim; what lies on the bench and touches it is left out as it comes to light.
func tipsCircle(radii []float64) (harmonics, bool) {
	const places, share = 48, 9 // of the whole rim, a ninth to either side and about it
	n := len(radii)
	var far [places]float64
	some := make([]float64, 0, n/share+1)
	for k := range places {
		some = some[:0]
		for i := k*n/places - n/(2*share); i <= k*n/places+n/(2*share); i++ {
			some = append(some, radii[(i+n)%n])
		}
		slices.Sort(some)
		far[k] = some[len(some)*92/100]
	}
	h := smooth(far[:])
	return h, h[0] > 0.3
}

// smooth fits harmonics to values all round the rim; those that lie far off are left
// out as it comes to light (Tukey's biweight).
func smooth(v []float64) (h harmonics) {
	n := len(v)
	angle, weights, off := make([]float64, n), slices.Repeat([]float64{1}, n), make([]float64, n)
	for i := range angle {
		angle[i] = 2 * math.Pi * float64(i) / float64(n)
	}
	for range 6 {
		next, ok := fitted(angle, v, weights)
		if !ok {
			return h
		}
		h = next
		for k := range off {
			off[k] = math.Abs(v[k] - h.at(angle[k]))
		}
		sorted := slices.Clone(off)
		slices.Sort(sorted)
		scale := 3 * max(sorted[n*6/10], 0.002)
		for k, d := range off {
			weights[k] = math.Pow(max(0, 1-d*d/(scale*scale)), 2)
		}
	}
	return h
}

// fitted solves the weighted least squares of harmonics (Gauss).
func fitted(angle, v, weights []float64) (h harmonics, ok bool) {
	var m [5][6]float64
	for i, a := range angle {
		s1, c1 := math.Sincos(a)
		s2, c2 := math.Sincos(2 * a)
		row := [6]float64{1, c1, s1, c2, s2, v[i]}
		for j := range 5 {
			for k := range row {
				m[j][k] += weights[i] * row[j] * row[k]
			}
		}
	}
	for j := range 5 {
		if m[j][j] < 1e-9 {
			return h, false
		}
		for i := range 5 {
			if i == j {
				continue
			}
			f := m[i][j] / m[j][j]
			for k := j; k < 6; k++ {
				m[i][k] -= f * m[j][k]
			}
		}
	}
	for j := range h {
		h[j] = m[j][5] / m[j][j]
	}
	return h, true
}

// A bore is where the hole lies and how wide it is, in radii.
type bore struct{ x, y, r, sure float64 }

// mostBorders are those of one direction that are looked at, the steepest.
const mostBorders = 3

// boreOf looks for the hole in the middle: the circle that most directions have a
// border on. A shadow in the hole and print have some as well, but not all round.
func boreOf(p Picture, h plane) (best bore) {
	const turns, rows, reach = 120, 180, 3
	at := h
	for range 2 {
		s := unrolled(p, at, turns, rows, 0.004, 0.34)
		borders := make([][]Point, turns)
		for i := range turns {
			sin, cos := math.Sincos(2 * math.Pi * float64(i) / turns)
			steep := make([]float64, rows)
			for j := reach; j < rows-reach; j++ {
				var in, out [3]float64
				for d := range reach {
					for k := range in {
						in[k] += float64(s.c[i*rows+j-1-d][k]) / reach
						out[k] += float64(s.c[i*rows+j+d][k]) / reach
					}
				}
				steep[j] = far(in, out)
			}
			floor := 0.3 * slices.Max(steep)
			var steepest []int
			for j := reach; j < rows-reach; j++ {
				if v := steep[j]; v > max(5, floor) && v == slices.Max(steep[j-reach:j+reach+1]) {
					steepest = append(steepest, j)
				}
			}
			slices.SortFunc(steepest, func(a, b int) int { return cmp.Compare(steep[b], steep[a]) })
			for _, j := range steepest[:min(mostBorders, len(steepest))] {
				r := s.radius(float64(j) - 0.5)
				borders[i] = append(borders[i], Point{r * cos, r * sin})
			}
		}
		b := roundest(borders)
		if b.sure == 0 {
			return best
		}
		// It lies in the plane that was asked; its middle in the picture tells the axis.
		ox, oy := h.inverse(at.at(b.x, b.y))
		best = bore{ox, oy, b.r, b.sure}
		at = h.about(ox, oy)
	}
	return best
}

// roundest is the circle that most directions have a place on, of those through
// three of them; of two that are nearly as good the narrower, since print runs
// round the hole too.
func roundest(all [][]Point) (best bore) {
	n := len(all)
	on := func(c circle) (share float64, points []Point) {
		for _, some := range all {
			for _, p := range some {
				if math.Abs(math.Hypot(p.X-c.x, p.Y-c.y)-c.r) < 0.03*c.r+0.0025 {
					points = append(points, p)
					share += 1 / float64(n)
					break
				}
			}
		}
		return share, points
	}
	for k := range 2 * n {
		a, b, c := all[k%n], all[(k+n/3+k/n)%n], all[(k+2*n/3-k/n)%n]
		for _, pa := range a {
			for _, pb := range b {
				if math.Abs(math.Hypot(pa.X, pa.Y)-math.Hypot(pb.X, pb.Y)) > 0.08 {
					continue
				}
				for _, pc := range c {
					circ, ok := through([3]Point{pa, pb, pc})
					if !ok || circ.r < 0.015 || circ.r > 0.3 || math.Hypot(circ.x, circ.y) > 0.1 {
						continue
					}
					if share, _ := on(circ); share > best.sure+0.06 || share > best.sure-0.06 && share > 0.5 && circ.r < 0.9*best.r || share > best.sure && circ.r < 1.1*best.r {
						best = bore{circ.x, circ.y, circ.r, share}
					}
				}
			}
		}
	}
	for range 5 {
		_, near := on(circle{best.x, best.y, best.r})
		if len(near) < 12 {
			return best
		}
		dx, dy, r := 0.0, 0.0, 0.0
		for _, p := range near {
			r += math.Hypot(p.X-best.x, p.Y-best.y) / float64(len(near))
		}
		for _, p := range near {
			d := math.Hypot(p.X-best.x, p.Y-best.y)
			dx += 2 * (d - r) * (p.X - best.x) / d / float64(len(near))
			dy += 2 * (d - r) * (p.Y - best.y) / d / float64(len(near))
		}
		best.x, best.y, best.r = best.x+dx, best.y+dy, r
	}
	return best
}
