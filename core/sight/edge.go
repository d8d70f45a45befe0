package sight

import (
	"cmp"
	"math"
	"slices"

	"corte/core/fault"
)

// An Edge is what was read off a photo of a face and the edge along which it was cut,
// the whole edge in the picture and lying along it, the face above it.
type Edge struct {
	Ends      [2]Point // in the picture; from the first to the second the face lies on the left hand
	EndsSure  float64
	Length    float64    // from end to end, mm
	Splinters []Splinter // from the first end on
	Share     float64    // of the length that is splintered
	Fibres    int        // that stand out over the edge
}

// A Splinter is a place at which the face is broken away along an edge.
type Splinter struct {
	From, To float64 // shares of the edge's length
	Deep     float64 // into the face, mm
}

// Deepest is how far the worst splinter reaches into the face, in mm.
func (e Edge) Deepest() (deep float64) {
	for _, s := range e.Splinters {
		deep = max(deep, s.Deep)
	}
	return deep
}

// ErrNoEdge is returned where no edge is seen.
var ErrNoEdge = fault.At("", "no edge found in this photo. Lay the piece face up with the edge along the picture, on a surface of a different color, or mark the edge's two ends")

// LookAtEdge reads the edge of a face that is so many mm long from end to end, by its
// ends in shares of the picture's sides where somebody has shown them. Where nobody has
// it is looked for at the lower side of the face, or where that lies below at the upper.
func (p Picture) LookAtEdge(length float64, ends []Point, below bool) (Edge, error) {
	if err := p.fault(); err != nil {
		return Edge{}, err
	}
	if !(length > 0) {
		return Edge{}, fault.At("", "enter the length of the edge in mm, so tear-out can be measured")
	}
	e := Edge{EndsSure: 1, Length: length}
	switch {
	case len(ends) == 0:
		upright, ok := p, false
		if below {
			upright = p.turned()
		}
		if e.Ends, e.EndsSure, ok = upright.edgeEnds(); !ok {
			return Edge{}, ErrNoEdge
		}
		if below {
			for i, at := range e.Ends {
				e.Ends[i] = Point{float64(p.Wide) - at.X, float64(p.High) - at.Y}
			}
		}
	case len(ends) == 2:
		for i, c := range ends {
			e.Ends[i] = Point{c.X * float64(p.Wide), c.Y * float64(p.High)}
		}
	default:
		return Edge{}, fault.At("", "you marked %d spots. Mark the two ends of the edge", len(ends))
	}
	long := apart(e.Ends[0], e.Ends[1])
	if long < leastEdgeLong {
		return Edge{}, fault.At("", "the edge is only %.0f pixels long in the photo. Take it closer", long)
	}
	b := bandOf(p, e.Ends, length)
	if b.in < 8*b.least() {
		return Edge{}, fault.At("", "too little of the face is visible beside this edge. Include more of it")
	}
	if !b.straightened() {
		return Edge{}, ErrNoEdge
	}
	if from, to := b.ends(); from != 0 || to != b.wide {
		e.Ends = [2]Point{b.point(float64(from), b.edge[b.margin+from]), b.point(float64(to), b.edge[b.margin+to])}
		if b = bandOf(p, e.Ends, length); !b.straightened() {
			return Edge{}, ErrNoEdge
		}
	}
	e.splintered(b)
	return e, nil
}

const (
	leastEdgeLong = 200  // pixels of an edge, under which nothing is told
	finest        = 0.04 // mm that a column of a band is at least
	faceDeep      = 14.0 // mm of the face that are looked at
	benchDeep     = 6.0  // and beyond the edge
	mostLean      = 0.35 // columns a row that the grain may go along an edge
	leastAlike    = 0.4  // of rows of the face, from which their grain runs into the edge
	beyondEnds    = 10   // the part of an edge's length that is looked at beyond its ends
	leastDeep     = 0.3  // mm, from which a face is splintered
	leastPixels   = 3.0  // and so many of the picture
	clearlyDeep   = 1.6  // as many times that one place of a splinter must reach
	splitAt       = 0.5  // of the lesser of two depths, to which it falls between two splinters
	faceOff       = 4.0  // spreads of the face's own colour, from which it is something else
	leastOff      = 16.0 // and so many levels
	otherwise     = 1.3  // as much as a place that looks like the face weighs against a splinter
)

// turned is the picture upside down.
func (p Picture) turned() Picture {
	out := Picture{p.Wide, p.High, make([]uint8, len(p.Pix))}
	for i := 0; i < len(p.Pix); i += 4 {
		copy(out.Pix[len(p.Pix)-4-i:], p.Pix[i:i+4])
	}
	return out
}

// edgeEnds are those of the lowest line along the picture that parts colours about as
// well as any.
func (p Picture) edgeEnds() (ends [2]Point, sure float64, ok bool) {
	s := smaller(p)
	lines := s.allEdges()
	if len(lines) == 0 {
		return ends, 0, false
	}
	most := slices.MaxFunc(lines, func(a, b edgeLine) int { return cmp.Compare(a.strength, b.strength) }).strength
	mid := float64(s.wide) / 2
	best := edgeLine{at: math.Inf(-1)}
	for _, l := range lines {
		if l.strength < 0.6*most || l.strength < leastEdge {
			continue
		}
		// Of lines that are hardly apart the one that parts best, not the lowest.
		if d := l.at + mid*l.slope - best.at - mid*best.slope; d > 0.03*float64(s.high) || d > -0.03*float64(s.high) && l.strength > best.strength {
			best = l
		}
	}
	if math.IsInf(best.at, -1) {
		return ends, 0, false
	}
	from, to := s.faceEnds(best)
	l := s.fine(p, best)
	for i, x := range [2]float64{from, to} {
		x = (x + 0.5) * s.each
		ends[i] = Point{x, l.at + l.slope*x}
	}
	return ends, math.Min(1, best.strength/(3*leastEdge)), true
}

// faceEnds are the columns between which what lies over a line looks more like what
// mostly does than like what lies under it.
func (s small) faceEnds(l edgeLine) (from, to float64) {
	const reach = 12
	beside := func(x, sign int) (m [3]float64) {
		n := 0.0
		for k := 2; k <= reach; k++ {
			if y := int(l.at+l.slope*float64(x)) + sign*k; y >= 0 && y < s.high {
				for i, v := range s.c[y*s.wide+x] {
					m[i] += v
				}
				n++
			}
		}
		for i := range m {
			m[i] /= max(1, n)
		}
		return m
	}
	over, under := make([][3]float64, s.wide), make([][3]float64, s.wide)
	for x := range over {
		over[x], under[x] = beside(x, -1), beside(x, 1)
	}
	face, bench := middle(over), middle(under)
	on := make([]float64, s.wide)
	for x := range on {
		if far(over[x], face) < far(over[x], bench) {
			on[x] = 1
		}
	}
	// The longest run, over gaps that a knot or a splinter leaves.
	longest := [2]int{0, s.wide}
	if all := runs(on, 1, max(2, s.wide/25)); len(all) > 0 {
		longest = slices.MaxFunc(all, func(a, b [2]int) int { return cmp.Compare(a[1]-a[0], b[1]-b[0]) })
	}
	return float64(longest[0]), float64(longest[1] - 1)
}

// middle is the median of each of some colours' parts.
func middle(all [][3]float64) (m [3]float64) {
	for k := range m {
		one := make([]float64, len(all))
		for i, c := range all {
			one[i] = c[k]
		}
		slices.Sort(one)
		m[k] = one[len(one)/2]
	}
	return m
}

// splintered finds where what lies on the face's side of an edge is not the face, and
// where something like the face stands out over it.
func (e *Edge) splintered(b band) {
	deep, out := b.depths()
	least := float64(b.least())
	deep = medians(deep, max(1, b.least()/4)) // a column or two of another depth are noise
	share := func(col int) float64 { return float64(col) / float64(b.wide) }
	for _, run := range runs(deep, least, max(1, int(0.5*least))) {
		if run[1]-run[0] < 4 || slices.Max(deep[run[0]:run[1]]) < clearlyDeep*least {
			continue // the edge is only blurred, or worn round
		}
		for _, part := range split(deep[run[0]:run[1]], least) {
			from, to := run[0]+part[0], run[0]+part[1]
			e.Splinters = append(e.Splinters, Splinter{share(from), share(to), b.mm * slices.Max(deep[from:to])})
			e.Share += share(to) - share(from)
		}
	}
	e.Fibres = len(runs(out, 1.2*least, int(2*least)))
}
