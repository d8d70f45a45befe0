package sight

import (
	"math"
	"slices"
)

// smallSide is how large a picture is made to look for a blade in it, in pixels.
const smallSide = 320

// A small picture has three values a pixel: how light it is, and two of its colour.
type small struct {
	wide, high int
	each       float64 // pixels of the whole one to a pixel of it
	c          [][3]float64
}

func smaller(p Picture) small {
	each := max(1, float64(max(p.Wide, p.High))/smallSide)
	s := small{wide: int(float64(p.Wide) / each), high: int(float64(p.High) / each), each: each}
	s.c = make([][3]float64, s.wide*s.high)
	for y := range s.high {
		for x := range s.wide {
			x0, y0 := int(float64(x)*each), int(float64(y)*each)
			x1, y1 := max(x0+1, int(float64(x+1)*each)), max(y0+1, int(float64(y+1)*each))
			step := max(1, int(each/6)) // of a large picture not every pixel is asked
			n := 0.0
			var sum [3]float64
			for v := y0; v < y1; v += step {
				for u := x0; u < x1; u += step {
					c := p.colour(u, v)
					for k := range c {
						sum[k] += c[k]
					}
					n++
				}
			}
			for k := range sum {
				s.c[y*s.wide+x][k] = sum[k] / n
			}
		}
	}
	return s
}

// colour is how light a pixel is and two differences of its colours, all of about
// 0 to 255.
func (p Picture) colour(x, y int) [3]float64 {
	i := 4 * (y*p.Wide + x)
	r, g, b := float64(p.Pix[i]), float64(p.Pix[i+1]), float64(p.Pix[i+2])
	return [3]float64{(r + g + b) / 3, r - b, g - (r+b)/2}
}

// candidates are circles that could be a rim, the likelier first.
func candidates(p Picture) []circle {
	s := smaller(p)
	out := s.blobs()
	out = append(out, s.centred()...)
	for i := range out {
		out[i] = circle{(out[i].x + 0.5) * s.each, (out[i].y + 0.5) * s.each, out[i].r * s.each}
	}
	return out
}

// blobs are round things that differ from what lies along the edge of the picture.
func (s small) blobs() (out []circle) {
	away := s.fromEdge()
	order := slices.Clone(away)
	slices.Sort(order)
	for _, bound := range []float64{otsu(order), otsu(order) / 2} {
		on := make([]bool, len(away))
		for i, v := range away {
			on[i] = v > bound
		}
		for _, part := range s.parts(s.opened(on)) {
			if c, ok := s.round(part); ok {
				out = append(out, c)
			}
		}
	}
	return out
}

// fromEdge is how far each pixel's colour is from the nearest of a few that the edge
// of the picture has.
func (s small) fromEdge() []float64 {
	var edge [][3]float64
	band := max(2, min(s.wide, s.high)/30)
	for y := range s.high {
		for x := range s.wide {
			if x < band || y < band || x >= s.wide-band || y >= s.high-band {
				edge = append(edge, s.c[y*s.wide+x])
			}
		}
	}
	means := clusters(edge, 4)
	out := make([]float64, len(s.c))
	for i, c := range s.c {
		out[i] = math.Inf(1)
		for _, m := range means {
			out[i] = min(out[i], far(c, m))
		}
		out[i] = math.Min(out[i], 120)
	}
	return out
}

// far is how unlike two colours are; shade counts for less than hue, since light
// falls unevenly.
func far(a, b [3]float64) float64 {
	d0, d1, d2 := a[0]-b[0], a[1]-b[1], a[2]-b[2]
	return math.Sqrt(0.6*d0*d0 + d1*d1 + 2*d2*d2)
}

// clusters are at most k means of colours (Lloyd), those of fewer than a twelfth left
// out.
func clusters(all [][3]float64, k int) [][3]float64 {
	byLight := slices.Clone(all)
	slices.SortFunc(byLight, func(a, b [3]float64) int {
		switch {
		case a[0] < b[0]:
			return -1
		case a[0] > b[0]:
			return 1
		}
		return 0
	})
	means := make([][3]float64, k)
	for i := range means {
		means[i] = byLight[(2*i+1)*len(byLight)/(2*k)]
	}
	counts := make([]int, k)
	for range 8 {
		sums := make([][3]float64, k)
		clear(counts)
		for _, c := range all {
			best := 0
			for i, m := range means {
				if far(c, m) < far(c, means[best]) {
					best = i
				}
			}
			counts[best]++
			for j := range c {
				sums[best][j] += c[j]
			}
		}
		for i := range means {
			if counts[i] > 0 {
				for j := range sums[i] {
					means[i][j] = sums[i][j] / float64(counts[i])
				}
			}
		}
	}
	var out [][3]float64
	for i, m := range means {
		if 12*counts[i] >= len(all) {
			out = append(out, m)
		}
	}
	return out
}

// otsu is the bound that parts sorted values best in two.
func otsu(sorted []float64) float64 {
	total := 0.0
	for _, v := range sorted {
		total += v
	}
	best, at, below := 0.0, sorted[len(sorted)/2], 0.0
	for i := 0; i < len(sorted)-1; i++ {
		below += sorted[i]
		n := float64(i + 1)
		m := float64(len(sorted)) - n
		d := below/n - (total-below)/m
		if v := n * m * d * d; v > best {
			best, at = v, (sorted[i]+sorted[i+1])/2
		}
	}
	return at
}

// opened takes off what is narrower than three pixels.
func (s small) opened(on []bool) []bool {
	pass := func(in []bool, want bool) []bool {
		out := slices.Clone(in)
		for y := 1; y < s.high-1; y++ {
			for x := 1; x < s.wide-1; x++ {
				i := y*s.wide + x
				if in[i] != want && (in[i-1] == want || in[i+1] == want || in[i-s.wide] == want || in[i+s.wide] == want) {
					out[i] = want
				}
			}
		}
		return out
	}
	return pass(pass(on, false), true)
}

// parts are the connected parts of a mask of more than a hundredth of it, at most
// four, the largest first.
func (s small) parts(on []bool) (out [][]int) {
	seen := make([]bool, len(on))
	for i := range on {
		if !on[i] || seen[i] {
			continue
		}
		part := []int{i}
		seen[i] = true
		for k := 0; k < len(part); k++ {
			x, y := part[k]%s.wide, part[k]/s.wide
			for _, d := range [4][2]int{{1, 0}, {-1, 0}, {0, 1}, {0, -1}} {
				u, v := x+d[0], y+d[1]
				if j := v*s.wide + u; u >= 0 && v >= 0 && u < s.wide && v < s.high && on[j] && !seen[j] {
					seen[j] = true
					part = append(part, j)
				}
			}
		}
		if 100*len(part) > len(on) {
			out = append(out, part)
		}
	}
	slices.SortFunc(out, func(a, b []int) int { return len(b) - len(a) })
	return out[:min(4, len(out))]
}

// round is the circle round a part, if its outside lies on one by and large. What
// else touches it sticks out of that.
func (s small) round(part []int) (circle, bool) {
	var x, y float64
	for _, i := range part {
		x += float64(i%s.wide) / float64(len(part))
		y += float64(i/s.wide) / float64(len(part))
	}
	const rays = 72
	c := circle{x: x, y: y}
	for range 4 {
		var out [rays]float64
		for _, i := range part {
			dx, dy := float64(i%s.wide)-c.x, float64(i/s.wide)-c.y
			k := int((math.Atan2(dy, dx)/(2*math.Pi) + 1) * rays)
			out[k%rays] = max(out[k%rays], math.Hypot(dx, dy))
		}
		sorted := slices.Clone(out[:])
		slices.Sort(sorted)
		c.r = sorted[rays/2]
		if c.r < 8 {
			return c, false
		}
		dx, dy, n, good := 0.0, 0.0, 0.0, 0
		for k, r := range out {
			if math.Abs(r-c.r) < 0.2*c.r { // what lies far off is not the rim
				si, co := math.Sincos((float64(k) + 0.5) / rays * 2 * math.Pi)
				dx, dy, n = dx+2*(r-c.r)*co, dy+2*(r-c.r)*si, n+1
				good++
			}
		}
		if good < rays/2 {
			return c, false
		}
		c.x, c.y = c.x+dx/n, c.y+dy/n
	}
	return c, true
}

// centred are circles about the place that most edges look to: rim, bore, print and
// flange all do. It is for blades that hardly differ from the bench.
func (s small) centred() (out []circle) {
	gx, gy := s.gradients()
	votes := make([]float64, len(gx))
	reach := float64(min(s.wide, s.high)) * 0.6
	strongest := 0.0
	for i := range gx {
		strongest = max(strongest, math.Hypot(gx[i], gy[i]))
	}
	for i := range gx {
		m := math.Hypot(gx[i], gy[i])
		if m == 0 || m < 0.06*strongest {
			continue
		}
		ux, uy, vote := gx[i]/m, gy[i]/m, math.Sqrt(m)
		for _, way := range [2]float64{-1, 1} {
			for d := 5.0; d <= reach; d++ {
				x, y := int(float64(i%s.wide)+way*d*ux+0.5), int(float64(i/s.wide)+way*d*uy+0.5)
				if x < 0 || y < 0 || x >= s.wide || y >= s.high {
					break // and nothing further on is in it either
				}
				votes[y*s.wide+x] += vote / d
			}
		}
	}
	votes = s.blurred(votes, 3)
	for range 2 {
		best := 0
		for i, v := range votes {
			if v > votes[best] {
				best = i
			}
		}
		x, y := best%s.wide, best/s.wide
		out = append(out, s.rings(float64(x), float64(y), gx, gy)...)
		for v := max(0, y-12); v < min(s.high, y+13); v++ { // then somewhere else
			for u := max(0, x-12); u < min(s.wide, x+13); u++ {
				votes[v*s.wide+u] = 0
			}
		}
	}
	return out
}

// gradients are those of the light and colour of a picture, the strongest of each.
func (s small) gradients() (gx, gy []float64) {
	gx, gy = make([]float64, len(s.c)), make([]float64, len(s.c))
	for y := 1; y < s.high-1; y++ {
		for x := 1; x < s.wide-1; x++ {
			i := y*s.wide + x
			for k := range 3 {
				at := func(d int) float64 { return s.c[i+d][k] }
				dx := at(1-s.wide) + 2*at(1) + at(1+s.wide) - at(-1-s.wide) - 2*at(-1) - at(-1+s.wide)
				dy := at(s.wide-1) + 2*at(s.wide) + at(s.wide+1) - at(-s.wide-1) - 2*at(-s.wide) - at(1-s.wide)
				if dx*dx+dy*dy > gx[i]*gx[i]+gy[i]*gy[i] {
					gx[i], gy[i] = dx, dy
				}
			}
		}
	}
	return gx, gy
}

// blurred is the mean over a square.
func (s small) blurred(in []float64, side int) []float64 {
	out := make([]float64, len(in))
	for y := side; y < s.high-side; y++ {
		for x := side; x < s.wide-side; x++ {
			for v := -side; v <= side; v++ {
				for u := -side; u <= side; u++ {
					out[y*s.wide+x] += in[(y+v)*s.wide+x+u]
				}
			}
		}
	}
	return out
}

// rings are the strongest circles about a place, by how many of the directions have
// an edge there that looks at it.
func (s small) rings(x, y float64, gx, gy []float64) (out []circle) {
	most := max(s.wide, s.high)
	sums := make([]float64, most)
	for i := range gx {
		dx, dy := float64(i%s.wide)-x, float64(i/s.wide)-y
		d := math.Hypot(dx, dy)
		m := math.Hypot(gx[i], gy[i])
		if m == 0 || int(d) >= most || d < 12 {
			continue
		}
		look := math.Abs(gx[i]*dx+gy[i]*dy) / (m * d)
		if look > 0.8 {
			sums[int(d)] += math.Min(m, 60) / d
		}
	}
	for range 4 {
		best, v := 0, 0.0
		for r := 12; r < most-2; r++ {
			if w := sums[r-1] + sums[r] + sums[r+1]; w > v {
				best, v = r, w
			}
		}
		if best == 0 {
			break
		}
		out = append(out, circle{x, y, float64(best)})
		for r := best - 4; r <= best+4 && r < most; r++ {
			sums[r] = 0
		}
	}
	return out
}
