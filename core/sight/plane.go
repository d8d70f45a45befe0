package sight

import (
	"math"

	"gonum.org/v1/gonum/mat"
)

// A plane is how the blade lies in a picture: it takes places in radii, with the
// arbor's axis at 0 and the tips on the circle of 1, to pixels.
type plane [9]float64

func (h plane) at(x, y float64) (px, py float64) {
	w := h[6]*x + h[7]*y + h[8]
	return (h[0]*x + h[1]*y + h[2]) / w, (h[3]*x + h[4]*y + h[5]) / w
}

func (h plane) point(x, y float64) Point {
	px, py := h.at(x, y)
	return Point{px, py}
}

// A circle is a first guess at where a rim lies, in pixels.
type circle struct{ x, y, r float64 }

func (c circle) plane() plane { return plane{c.r, 0, c.x, 0, c.r, c.y, 0, 0, 1} }

// through is the circle through three places.
func through(p [3]Point) (circle, bool) {
	ax, ay, bx, by := p[1].X-p[0].X, p[1].Y-p[0].Y, p[2].X-p[0].X, p[2].Y-p[0].Y
	d := 2 * (ax*by - ay*bx)
	a2, b2 := ax*ax+ay*ay, bx*bx+by*by
	if math.Abs(d) < 0.02*(a2+b2) {
		return circle{}, false
	}
	x, y := (by*a2-ay*b2)/d, (ax*b2-bx*a2)/d
	return circle{p[0].X + x, p[0].Y + y, math.Hypot(x, y)}, true
}

// times is h after g.
func (h plane) times(g plane) (out plane) {
	for i := range 3 {
		for j := range 3 {
			for k := range 3 {
				out[3*i+j] += h[3*i+k] * g[3*k+j]
			}
		}
	}
	return out
}

// about moves the axis to a place within the rim and leaves the rim where it is: the
// projective maps that do are those of Klein's disc.
func (h plane) about(x, y float64) plane {
	d := math.Hypot(x, y)
	if d < 1e-9 || d > 0.5 {
		return h
	}
	c, s := x/d, y/d
	turn, back := plane{c, -s, 0, s, c, 0, 0, 0, 1}, plane{c, s, 0, -s, c, 0, 0, 0, 1}
	move := plane{1, 0, d, 0, math.Sqrt(1 - d*d), 0, d, 0, 1}
	return h.times(turn).times(move).times(back)
}

// ellipse is the plane whose rim runs through points, as seen from so far that
// lines keep their ratios; ok is false where the points lie on none.
func ellipse(points []Point) (plane, bool) {
	cx, cy := 0.0, 0.0
	for _, p := range points {
		cx += p.X / float64(len(points))
		cy += p.Y / float64(len(points))
	}
	scale := 0.0
	for _, p := range points {
		scale += math.Hypot(p.X-cx, p.Y-cy) / float64(len(points))
	}
	if !(scale > 0) {
		return plane{}, false
	}
	// a(x²-y²) + b·2xy + d·x + e·y + f = x²+y², which a circle fits with a and b of 0.
	a := mat.NewDense(len(points), 5, nil)
	b := mat.NewVecDense(len(points), nil)
	for i, p := range points {
		x, y := (p.X-cx)/scale, (p.Y-cy)/scale
		a.SetRow(i, []float64{x*x - y*y, 2 * x * y, x, y, 1})
		b.SetVec(i, x*x+y*y)
	}
	var v mat.VecDense
	if err := v.SolveVec(a, b); err != nil {
		return plane{}, false
	}
	// As (z-m)' Q (z-m) = 1.
	qa, qb, qc := 1-v.AtVec(0), -v.AtVec(1), 1+v.AtVec(0)
	det := qa*qc - qb*qb
	if det <= 0 || qa <= 0 {
		return plane{}, false
	}
	mx, my := (qc*v.AtVec(2)-qb*v.AtVec(3))/(2*det), (qa*v.AtVec(3)-qb*v.AtVec(2))/(2*det)
	k := v.AtVec(4) + qa*mx*mx + 2*qb*mx*my + qc*my*my
	if k <= 0 {
		return plane{}, false
	}
	// The symmetric root of the inverse of Q/k takes the circle to it and turns nothing.
	var eig mat.EigenSym
	if !eig.Factorize(mat.NewSymDense(2, []float64{qa / k, qb / k, qb / k, qc / k}), true) {
		return plane{}, false
	}
	var u mat.Dense
	eig.VectorsTo(&u)
	l := eig.Values(nil)
	if l[0] <= 0 || l[1] <= 0 {
		return plane{}, false
	}
	s0, s1 := scale/math.Sqrt(l[0]), scale/math.Sqrt(l[1])
	root := func(i, j int) float64 { return u.At(i, 0)*u.At(j, 0)*s0 + u.At(i, 1)*u.At(j, 1)*s1 }
	return plane{root(0, 0), root(0, 1), cx + scale*mx, root(1, 0), root(1, 1), cy + scale*my, 0, 0, 1}, true
}

// flattened is how much narrower than wide the rim lies in the picture: 1 from
// straight above.
func (h plane) flattened() float64 {
	lo, hi := math.Inf(1), 0.0
	x0, y0 := h.at(0, 0)
	for i := range 36 {
		s, c := math.Sincos(float64(i) * math.Pi / 18)
		x, y := h.at(c, s)
		d := math.Hypot(x-x0, y-y0)
		lo, hi = min(lo, d), max(hi, d)
	}
	return lo / hi
}

// inverse is the place of the blade that a pixel shows.
func (h plane) inverse(px, py float64) (x, y float64) {
	var m mat.Dense
	if err := m.Inverse(mat.NewDense(3, 3, h[:])); err != nil {
		return 0, 0
	}
	w := m.At(2, 0)*px + m.At(2, 1)*py + m.At(2, 2)
	return (m.At(0, 0)*px + m.At(0, 1)*py + m.At(0, 2)) / w, (m.At(1, 0)*px + m.At(1, 1)*py + m.At(1, 2)) / w
}

// size is the radius of the rim in pixels, by and large.
func (h plane) size() float64 {
	x0, y0 := h.at(0, 0)
	sum := 0.0
	for i := range 8 {
		s, c := math.Sincos(float64(i) * math.Pi / 4)
		x, y := h.at(c, s)
		sum += math.Hypot(x-x0, y-y0) / 8
	}
	return sum
}
