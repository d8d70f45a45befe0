package sight

import (
	"math"
)

// A strip is a part of the blade unrolled: a row for each direction, from one radius
// to another.
type strip struct {
	turns, rows int
	from, step  float64      // radii
	c           [][3]float32 // colours; a direction's, from the inside out, after the other
	seen        []bool       // within the picture
}

// unrolled is what lies between two radii of a plane.
func unrolled(p Picture, h plane, turns, rows int, from, to float64) strip {
	s := strip{turns: turns, rows: rows, from: from, step: (to - from) / float64(rows-1)}
	s.c, s.seen = make([][3]float32, turns*rows), make([]bool, turns*rows)
	for i := range turns {
		sin, cos := math.Sincos(2 * math.Pi * float64(i) / float64(turns))
		ax, ay, aw := h[0]*cos+h[1]*sin, h[3]*cos+h[4]*sin, h[6]*cos+h[7]*sin
		for j := range rows {
			r := from + s.step*float64(j)
			w := aw*r + h[8]
			x, y := (ax*r+h[2])/w, (ay*r+h[5])/w
			if !(x >= 0 && y >= 0 && x < float64(p.Wide-1) && y < float64(p.High-1)) {
				continue
			}
			u, v := int(x), int(y)
			k := i*rows + j
			s.seen[k] = true
			s.c[k] = p.mixed(u, v, float32(x-float64(u)), float32(y-float64(v)))
		}
	}
	return s
}

// mixed is the colour of a place between four pixels.
func (p Picture) mixed(u, v int, fx, fy float32) [3]float32 {
	i := 4 * (v*p.Wide + u)
	a, b := p.Pix[i:i+8], p.Pix[i+4*p.Wide:i+4*p.Wide+8]
	w00, w10, w01, w11 := (1-fx)*(1-fy), fx*(1-fy), (1-fx)*fy, fx*fy
	at := func(k int) float32 {
		return w00*float32(a[k]) + w10*float32(a[k+4]) + w01*float32(b[k]) + w11*float32(b[k+4])
	}
	r, g, bl := at(0), at(1), at(2)
	return [3]float32{(r + g + bl) / 3, r - bl, g - (r+bl)/2}
}

func (s strip) radius(row float64) float64 { return s.from + s.step*row }

// row is the first at a radius or beyond it.
func (s strip) row(radius float64) int {
	return min(s.rows, max(0, int(math.Ceil((radius-s.from)/s.step))))
}

// A look is how a part of the picture looks: the middle of its colours and how far
// they lie about it.
type look struct{ mean, inv, sure [3]float32 }

// lookOf is that of some colours, by their medians, so that print, slots and what
// lies about count for little.
func lookOf(all [][3]float32) (l look) {
	one := make([]float32, len(all))
	for k := range 3 {
		for i, c := range all {
			one[i] = c[k]
		}
		l.mean[k] = ranked(one, len(one)/2)
		for i, c := range all {
			one[i] = abs(c[k] - l.mean[k])
		}
		spread := max(leastSpread[k], 1.5*ranked(one, len(one)*6/10))
		l.inv[k], l.sure[k] = 1/spread, float32(math.Log(float64(spread)))
	}
	return l
}

// ranked is what would stand at a place of some values if they were sorted (Hoare). It
// changes their order.
func ranked(v []float32, place int) float32 {
	for lo, hi := 0, len(v)-1; lo < hi; {
		pivot, i, j := v[(lo+hi)/2], lo, hi
		for i <= j {
			for v[i] < pivot {
				i++
			}
			for v[j] > pivot {
				j--
			}
			if i <= j {
				v[i], v[j] = v[j], v[i]
				i, j = i+1, j-1
			}
		}
		switch {
		case place <= j:
			hi = j
		case place >= i:
			lo = i
		default:
			return v[place]
		}
	}
	return v[place]
}

// leastSpread is what a camera's noise alone brings.
var leastSpread = [3]float32{5, 4, 3}

func abs(x float32) float32 { return max(x, -x) }

// likely is the logarithm of how likely a colour is of a look, up to what is the same
// for all.
func (l *look) likely(c [3]float32, shade float32) float32 {
	a := (c[0] - shade*l.mean[0]) * l.inv[0]
	b := (c[1] - shade*l.mean[1]) * l.inv[1]
	d := (c[2] - shade*l.mean[2]) * l.inv[2]
	return -0.5*(a*a+b*b+d*d) - l.sure[0] - l.sure[1] - l.sure[2]
}

// Logarithms of how likely a colour is that is of neither: on the blade, where tips,
// print and pitch are, and on the bench.
const (
	otherOnBlade = -13.6
	otherOnBench = -15.6
	mostLikely   = 3 // nats that one pixel may count for
	shadeLess    = 1.6
)

// between is how much of the way from one look to another a colour lies, if it does.
func between(from, to *look, c [3]float32) (part float32, ok bool) {
	weight := [3]float32{0.6, 1, 2}
	along, whole, away := float32(0), float32(0), float32(0)
	for k, w := range weight {
		d, v := to.mean[k]-from.mean[k], c[k]-from.mean[k]
		along, whole, away = along+w*d*v, whole+w*d*d, away+w*v*v
	}
	if whole == 0 {
		return 0, false
	}
	part = along / whole
	return part, part > 0 && part < 1 && away-part*along < 0.04*whole
}

// rings are the radii between which plate and bench are learnt.
type rings struct{ plateFrom, plateTo, benchFrom, benchTo float64 }

// sectors are the parts of the rim that have a look of their own each.
const sectors = 48

// onBlade is, of every place of a strip, how much likelier it is on the blade than on
// the bench, in nats. With shadows, the bench may be darker than it is further out.
func (s strip) onBlade(plate, bench []look, shadows bool) []float32 {
	parts := len(plate)
	out := make([]float32, len(s.c))
	for i := range s.turns {
		k := i * parts / s.turns
		pl, be := &plate[k], &bench[k]
		if pl.inv[0] == 0 || be.inv[0] == 0 {
			continue
		}
		for j := range s.rows {
			at := i*s.rows + j
			if !s.seen[at] {
				out[at] = -mostLikely
				continue
			}
			c := s.c[at]
			on, off := max(pl.likely(c, 1), otherOnBlade), max(be.likely(c, 1), otherOnBench)
			if shadows && on-off > -mostLikely { // or it is the bench anyway
				for _, shade := range [3]float32{0.85, 0.7, 0.55} {
					off = max(off, be.likely(c, shade)-shadeLess)
				}
			}
			if on == otherOnBlade && off == otherOnBench {
				if part, ok := between(be, pl, c); ok { // a pixel that shows some of both
					out[at] = max(-mostLikely, min(mostLikely, 2*mostLikely*(part-0.5)))
					continue
				}
			}
			out[at] = max(-mostLikely, min(mostLikely, on-off))
		}
	}
	return out
}

// sides are how plate and bench look, sector by sector.
func (s strip) sides(r rings, parts int) (plate, bench []look) {
	return s.looks(r.plateFrom, r.plateTo, parts), s.looks(r.benchFrom, r.benchTo, parts)
}

// looks are those between two radii, sector by sector, each with its neighbours.
func (s strip) looks(from, to float64, parts int) []look {
	out := make([]look, parts)
	lo, hi := s.row(from), s.row(to)
	var some [][3]float32
	for k := range out {
		some = some[:0]
		a, b := (k-1)*s.turns/parts, (k+2)*s.turns/parts
		step := max(1, (b-a)*(hi-lo)/300)
		for n := 0; n < (b-a)*(hi-lo); n += step {
			i := (a + n/(hi-lo) + s.turns) % s.turns
			if at := i*s.rows + lo + n%(hi-lo); s.seen[at] {
				some = append(some, s.c[at])
			}
		}
		if len(some) >= 40 {
			out[k] = lookOf(some)
		}
	}
	// Where the bench is out of the picture its neighbour's look will do.
	for k := range out {
		for d := 1; out[k].inv[0] == 0 && d < parts/2; d++ {
			if n := out[(k+d)%parts]; n.inv[0] != 0 {
				out[k] = n
			} else if n := out[(k-d+parts)%parts]; n.inv[0] != 0 {
				out[k] = n
			}
		}
	}
	return out
}

// edge is, for every direction, the radius at which the blade most likely ends, and
// how surely by and large, from 0 to 1.
func (s strip) edge(on []float32, from, to float64) (radii []float64, sure float64) {
	radii = make([]float64, s.turns)
	lo, hi := s.row(from), s.row(to)
	for i := range radii {
		row := on[i*s.rows : (i+1)*s.rows]
		sum, best, at, total := float32(0), float32(0), lo, float32(0)
		for j := lo; j < hi; j++ {
			sum += row[j]
			if sum > best {
				best, at = sum, j+1
			}
			total = sum
		}
		radii[i] = s.radius(float64(at) - 0.5)
		sure += float64(2*best-total) / float64(hi-lo) / mostLikely / float64(s.turns)
	}
	return radii, sure
}
