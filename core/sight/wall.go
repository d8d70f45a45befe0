package sight

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/mat"

	"corte/core/fault"
)

// A Wall is what was read off a photo of the wall of a cut, lying along the picture.
type Wall struct {
	Corners      [4]Point // in the picture, from the upper left one on, clockwise
	CornersSure  float64
	Length       float64 // that the picture shows, in mm
	Brown, Black float64 // shares of it that are scorched: black is not brown as well
	Along        [Parts]float64
	Spots        int     // scorched places
	Spacing      float64 // of marks along it, mm; 0 where none come back evenly
	SpacingSure  float64
	Crossing     bool // marks lean both ways
}

// Parts is how many parts of its length a wall's scorch is told of.
const Parts = 20

// ErrNoWall is returned where no wall is seen.
var ErrNoWall = fault.At("", "no cut edge found in this photo. Lay it along the picture, on a surface of a different color, or mark its four corners")

// LookAtWall reads the wall of a cut of so many mm of thickness, by its four corners in
// shares of the picture's sides where somebody has shown them.
func (p Picture) LookAtWall(thickness float64, corners []Point) (Wall, error) {
	if err := p.fault(); err != nil {
		return Wall{}, err
	}
	if !(thickness > 0) {
		return Wall{}, fault.At("", "enter the thickness of the piece in mm for scale")
	}
	w := Wall{CornersSure: 1}
	switch {
	case len(corners) == 0:
		var ok bool
		if w.Corners, w.CornersSure, ok = p.wallCorners(); !ok {
			return Wall{}, ErrNoWall
		}
	case len(corners) == 4:
		for i, c := range corners {
			w.Corners[i] = Point{c.X * float64(p.Wide), c.Y * float64(p.High)}
		}
	default:
		return Wall{}, fault.At("", "you marked %d corners. Mark four", len(corners))
	}
	h, ok := ofCorners(w.Corners)
	if !ok {
		return Wall{}, fault.At("", "mark the four corners clockwise, starting at the upper left")
	}
	long := (apart(w.Corners[0], w.Corners[1]) + apart(w.Corners[3], w.Corners[2])) / 2
	high := (apart(w.Corners[0], w.Corners[3]) + apart(w.Corners[1], w.Corners[2])) / 2
	if high < leastWall || long < leastWall {
		return Wall{}, fault.At("", "the cut edge is only %.0f pixels high in the photo. Take it closer", high)
	}
	w.Length = thickness * long / high
	f := faceOf(p, h, int(math.Min(long, mostAcross)), int(math.Min(high, mostDown)))
	w.scorched(f)
	spacing, sure, crossing := f.marks()
	w.Spacing, w.SpacingSure, w.Crossing = spacing*w.Length/float64(f.wide), sure, crossing
	return w, nil
}

const (
	leastWall  = 24   // pixels of its height, under which nothing is told
	mostAcross = 4000 // pixels that a wall is unrolled to
	mostDown   = 480
)

func apart(a, b Point) float64 { return math.Hypot(a.X-b.X, a.Y-b.Y) }

// ofCorners maps the square of 0 to 1 onto four corners (Heckbert, 1989); not ok where
// they do not go round clockwise.
func ofCorners(c [4]Point) (h plane, ok bool) {
	for i := range c {
		a, b, d := c[i], c[(i+1)%4], c[(i+2)%4]
		if (b.X-a.X)*(d.Y-b.Y)-(b.Y-a.Y)*(d.X-b.X) <= 0 {
			return h, false
		}
	}
	dx1, dx2, sx := c[1].X-c[2].X, c[3].X-c[2].X, c[0].X-c[1].X+c[2].X-c[3].X
	dy1, dy2, sy := c[1].Y-c[2].Y, c[3].Y-c[2].Y, c[0].Y-c[1].Y+c[2].Y-c[3].Y
	den := dx1*dy2 - dx2*dy1
	g, k := (sx*dy2-dx2*sy)/den, (dx1*sy-sx*dy1)/den
	return plane{c[1].X - c[0].X + g*c[1].X, c[3].X - c[0].X + k*c[3].X, c[0].X,
		c[1].Y - c[0].Y + g*c[1].Y, c[3].Y - c[0].Y + k*c[3].Y, c[0].Y, g, k, 1}, true
}

// A face is a wall unrolled: how light it is, as a logarithm, and how red.
type face struct {
	wide, high int
	light, red []float64 // rows of columns
}

func faceOf(p Picture, h plane, wide, high int) face {
	f := face{wide, high, make([]float64, wide*high), make([]float64, wide*high)}
	for j := range high {
		for i := range wide {
			// A little inside of the edges, which are chamfered by the picture's blur.
			x, y := h.at((float64(i)+0.5)/float64(wide), 0.03+0.94*(float64(j)+0.5)/float64(high))
			x, y = max(0, min(float64(p.Wide-2), x-0.5)), max(0, min(float64(p.High-2), y-0.5))
			c := p.mixed(int(x), int(y), float32(x-math.Floor(x)), float32(y-math.Floor(y)))
			// mixed gives light and two differences: red less blue, and green less both.
			light, redBlue, green := float64(c[0]), float64(c[1]), float64(c[2])
			g := light + 2*green/3
			r := (3*light - g + redBlue) / 2
			f.light[j*wide+i], f.red[j*wide+i] = math.Log(light+2), math.Log((r+2)/(r-redBlue+2))
		}
	}
	return f
}

const (
	aboveTo   = 0.01 // how much what is darker than the light weighs when the light is fitted
	darkened  = 0.2  // of the logarithm of light, from which wood may be scorched
	reddened  = 0.06 // and how much redder it is then than clean wood: shadow is not
	blackened = 1.05 // from which it is black, whatever its colour
	ofDepth   = 0.5  // how far to what is scorched its border lies
)

// scorched finds what is brown and black. Light over a wall rises or falls evenly, and
// what is scorched is darker than that and redder; shadow is not redder.
func (w *Wall) scorched(f face) {
	cells, cw, ch := f.cells()
	even := evenLight(cells, cw, ch)
	depth, red := make([]float64, len(cells)), make([]float64, len(cells))
	var clean []float64
	for i, c := range cells {
		depth[i] = even(i%cw, i/cw) - c[0]
		if depth[i] < darkened/2 {
			clean = append(clean, c[1])
		}
	}
	slices.Sort(clean)
	base := 0.0
	if len(clean) > 0 {
		base = clean[len(clean)/2]
	}
	var deep []float64
	for i, c := range cells {
		red[i] = c[1] - base
		if depth[i] > darkened && (red[i] > reddened || depth[i] > blackened) {
			deep = append(deep, min(depth[i], blackened))
		}
	}
	if len(deep) == 0 {
		return
	}
	slices.Sort(deep)
	bound := max(0.75*darkened, ofDepth*deep[len(deep)/2])
	on := make([]bool, len(cells))
	for i := range cells {
		on[i] = depth[i] > bound && (red[i] > reddened/2 || depth[i] > blackened)
		if on[i] {
			part := &w.Brown
			if depth[i] > blackened {
				part = &w.Black
			}
			*part += 1 / float64(len(cells))
			w.Along[i%cw*Parts/cw] += float64(Parts) / float64(len(cells))
		}
	}
	s := small{wide: cw, high: ch}
	for _, part := range s.parts(s.opened(on)) {
		if len(part) >= len(cells)/400 {
			w.Spots++
		}
	}
}

// cells are means of light and redness over parts of a face of a few pixels.
func (f face) cells() (out [][2]float64, wide, high int) {
	wide, high = min(f.wide, 240), min(f.high, 24)
	out = make([][2]float64, wide*high)
	n := make([]float64, wide*high)
	for j := range f.high {
		for i := range f.wide {
			k := j*high/f.high*wide + i*wide/f.wide
			out[k][0] += f.light[j*f.wide+i]
			out[k][1] += f.red[j*f.wide+i]
			n[k]++
		}
	}
	for k := range out {
		out[k][0] /= n[k]
		out[k][1] /= n[k]
	}
	return out, wide, high
}

// evenLight is the plane of light that most of what is clean lies on: what is darker
// hardly weighs (asymmetric least squares).
func evenLight(cells [][2]float64, wide, high int) func(x, y int) float64 {
	at := func(i int) [3]float64 {
		return [3]float64{1, float64(i%wide)/float64(wide) - 0.5, float64(i/wide)/float64(high) - 0.5}
	}
	var p [3]float64
	weights := make([]float64, len(cells))
	for i := range weights {
		weights[i] = 1
	}
	for range 20 {
		a, b := mat.NewDense(3, 3, nil), mat.NewVecDense(3, nil)
		for i, c := range cells {
			v := at(i)
			for r := range 3 {
				for k := range 3 {
					a.Set(r, k, a.At(r, k)+weights[i]*v[r]*v[k])
				}
				b.SetVec(r, b.AtVec(r)+weights[i]*v[r]*c[0])
			}
		}
		var x mat.VecDense
		if x.SolveVec(a, b) != nil {
			break // a few cells tell nothing: what was found before stands
		}
		p = [3]float64{x.AtVec(0), x.AtVec(1), x.AtVec(2)}
		for i, c := range cells {
			v := at(i)
			if off := c[0] - p[0]*v[0] - p[1]*v[1] - p[2]*v[2]; off < -0.04 {
				weights[i] = aboveTo
			} else {
				weights[i] = 1
			}
		}
	}
	return func(x, y int) float64 {
		v := at(y*wide + x)
		return p[0]*v[0] + p[1]*v[1] + p[2]*v[2]
	}
}
