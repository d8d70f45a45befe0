package sight

import (
	"cmp"
	"math"
	"slices"
)

// An edgeLine is where a wall's edge may lie in a small picture: y = at + x * slope.
type edgeLine struct{ at, slope, strength float64 }

const (
	steepest   = 0.24 // slope of a wall's edges
	slopeStep  = 0.03
	leastHigh  = 0.1 // of the picture, that a wall is high
	leastEdge  = 9.0 // levels of colour by which a wall and what is around differ
	beyondEdge = 0.4 // of the edges' usual contrast, under which the wall has ended
)

// wallCorners are those of a wall that lies along the picture: two lines far enough
// apart at which colours change, as far as they do.
func (p Picture) wallCorners() (c [4]Point, sure float64, ok bool) {
	s := smaller(p)
	lines := s.allEdges()
	slices.SortFunc(lines, func(a, b edgeLine) int { return cmp.Compare(b.strength, a.strength) })
	lines = lines[:min(len(lines), 160)]
	mid := float64(s.wide) / 2
	var best [2]edgeLine
	score := 0.0
	for _, a := range lines {
		for _, b := range lines {
			gap := b.at + mid*b.slope - a.at - mid*a.slope
			if gap < leastHigh*float64(s.high) || math.Abs(a.slope-b.slope) > 2.5*slopeStep {
				continue
			}
			// Of two as good pairs the outer one: what lies along a wall is in it.
			if v := min(a.strength, b.strength) * (1 + 0.4*gap/float64(s.high)); v > score {
				score, best = v, [2]edgeLine{a, b}
			}
		}
	}
	if score == 0 || min(best[0].strength, best[1].strength) < leastEdge {
		return c, 0, false
	}
	top, bottom := s.fine(p, best[0]), s.fine(p, best[1])
	from, to := s.ends(best)
	corner := func(l edgeLine, x float64) Point {
		x = (x + 0.5) * s.each
		return Point{x, l.at + l.slope*x}
	}
	sure = math.Min(1, min(best[0].strength, best[1].strength)/(3*leastEdge))
	return [4]Point{corner(top, from), corner(top, to), corner(bottom, to), corner(bottom, from)}, sure, true
}

// across is the colour under a place of a line less the one over it.
func (s small) across(x int, y float64) (d [3]float64) {
	const reach = 3
	for k := 1; k <= reach; k++ {
		lo, hi := int(y)-k, int(y)+k
		if lo < 0 || hi >= s.high {
			return [3]float64{}
		}
		for i := range d {
			d[i] += (s.c[hi*s.wide+x][i] - s.c[lo*s.wide+x][i]) / reach
		}
	}
	return d
}

// allEdges are the lines of every slope that an edge may have.
func (s small) allEdges() (lines []edgeLine) {
	for slope := -steepest; slope <= steepest+1e-9; slope += slopeStep {
		lines = append(lines, s.edges(slope)...)
	}
	return lines
}

// edges are the lines of a slope at which colours change more than just beside them.
func (s small) edges(slope float64) (out []edgeLine) {
	from, to := -int(steepest*float64(s.wide)), s.high+int(steepest*float64(s.wide))
	strength := make([]float64, to-from)
	for at := from; at < to; at++ {
		var sum [3]float64
		n := 0.0
		for x := range s.wide {
			y := float64(at) + slope*float64(x)
			if y < 3 || y >= float64(s.high-3) {
				continue
			}
			d := s.across(x, y)
			for i := range sum {
				sum[i] += d[i]
			}
			n++
		}
		if n > 0.5*float64(s.wide) {
			strength[at-from] = far([3]float64{sum[0] / n, sum[1] / n, sum[2] / n}, [3]float64{}) * math.Sqrt(n/float64(s.wide))
		}
	}
	for i := 1; i+1 < len(strength); i++ {
		if v := strength[i]; v > leastEdge/2 && v >= strength[i-1] && v > strength[i+1] {
			out = append(out, edgeLine{float64(from + i), slope, v})
		}
	}
	return out
}

// ends are the columns from which on, and up to which, both lines part two colours.
func (s small) ends(lines [2]edgeLine) (from, to float64) {
	contrast := make([]float64, s.wide)
	for x := range contrast {
		for _, l := range lines {
			contrast[x] += far(s.across(x, l.at+l.slope*float64(x)), [3]float64{})
		}
	}
	even := make([]float64, s.wide)
	for x := range even {
		lo, hi := max(0, x-4), min(s.wide, x+5)
		for _, v := range contrast[lo:hi] {
			even[x] += v / float64(hi-lo)
		}
	}
	sorted := slices.Clone(even)
	slices.Sort(sorted)
	bound := beyondEdge * sorted[len(sorted)/2]
	left, right := 0, s.wide-1
	for left < s.wide/2 && even[left] < bound {
		left++
	}
	for right > s.wide/2 && even[right] < bound {
		right--
	}
	return float64(left), float64(right)
}

// fine is a line to the pixel of the whole picture: where colours change most near it,
// place by place, and the line through the middle of those.
func (s small) fine(p Picture, l edgeLine) edgeLine {
	var xs, ys []float64
	reach := max(3, int(2.5*s.each))
	for k := 0; k < 48; k++ {
		x := (float64(k) + 0.5) / 48 * float64(p.Wide)
		mid := (l.at+0.5)*s.each + l.slope*x
		best, where := 0.0, 0.0
		for d := -reach; d <= reach; d++ {
			y := int(mid) + d
			if y < reach || y >= p.High-reach {
				continue
			}
			var diff [3]float64
			for i := 1; i <= max(2, reach/3); i++ {
				for w := -4; w <= 4; w++ {
					u := max(0, min(p.Wide-1, int(x)+w))
					a, b := p.colour(u, y-i), p.colour(u, y+i)
					for c := range diff {
						diff[c] += b[c] - a[c]
					}
				}
			}
			if v := far(diff, [3]float64{}); v > best {
				best, where = v, float64(y)
			}
		}
		if best > 0 {
			xs, ys = append(xs, x), append(ys, where)
		}
	}
	if len(xs) < 8 {
		return edgeLine{(l.at + 0.5) * s.each, l.slope, l.strength}
	}
	slope, at := medianLine(xs, ys, 8)
	return edgeLine{at, slope, l.strength}
}

// medianLine is the line through most places, by the medians of their slopes and of how far
// they lie over it (Theil and Sen); those nearer than so many to one another have none.
func medianLine(xs, ys []float64, apart int) (slope, at float64) {
	var slopes, offs []float64
	for i := range xs {
		for j := i + apart; j < len(xs); j++ {
			slopes = append(slopes, (ys[j]-ys[i])/(xs[j]-xs[i]))
		}
	}
	slices.Sort(slopes)
	slope = slopes[len(slopes)/2]
	for i := range xs {
		offs = append(offs, ys[i]-slope*xs[i])
	}
	slices.Sort(offs)
	return slope, offs[len(offs)/2]
}
