package sight

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/floats"
	"gonum.org/v1/gonum/mat"
)

// A band is what lies along an edge, unrolled: out rows beyond it, and in rows of the
// face. Its first row is the furthest out; as many columns as its margin lie beyond
// either end.
type band struct {
	wide, margin, out, in int
	mm                    float64 // that a column, and a row, is
	px                    float64 // that it is of the picture
	photo                 float64 // how wide the picture is
	first, along          Point   // an end, and a column's step from there
	c                     [][3]float32
	edge                  []float64   // rows from the middle line, at which each column's edge lies
	side                  [2]sideLine // where the face ends at the left and at the right, by rows
	lean                  sideLine    // columns that the grain goes along the edge a row further in, by columns
}

// A sideLine is a column, and how much further right it lies a row further in.
type sideLine struct{ at, slope float64 }

func (l sideLine) col(row int) float64 { return l.at + l.slope*float64(row) }

// point is a place of the picture: columns from the first end, rows to the left hand.
func (b band) point(col, row float64) Point {
	return Point{b.first.X + b.along.X*col + b.along.Y*row, b.first.Y + b.along.Y*col - b.along.X*row}
}

func bandOf(p Picture, ends [2]Point, length float64) band {
	long := apart(ends[0], ends[1])
	b := band{wide: int(math.Min(math.Min(long, mostAcross), length/finest)), first: ends[0], photo: float64(p.Wide)}
	b.margin = b.wide / beyondEnds
	b.mm, b.px = length/float64(b.wide), long/float64(b.wide)
	b.along = Point{(ends[1].X - ends[0].X) / float64(b.wide), (ends[1].Y - ends[0].Y) / float64(b.wide)}
	// As many rows as the picture has at both ends.
	rows := func(mm, sign float64) int {
		n := min(mostDown, int(mm/b.mm))
		for ; n > 0; n-- {
			one, two := b.point(0, sign*float64(n)), b.point(float64(b.wide), sign*float64(n))
			if min(one.Y, two.Y) >= 0 && max(one.Y, two.Y) < float64(p.High-1) {
				break
			}
		}
		return n
	}
	b.in, b.out = rows(faceDeep, 1), rows(benchDeep, -1)
	all := b.wide + 2*b.margin
	b.c = make([][3]float32, all*(b.in+b.out))
	for row := range b.in + b.out {
		for col := range all {
			at := b.point(float64(col-b.margin)+0.5, float64(row-b.out)+0.5)
			x, y := max(0, min(float64(p.Wide-2), at.X-0.5)), max(0, min(float64(p.High-2), at.Y-0.5))
			b.c[row*all+col] = p.mixed(int(x), int(y), float32(x-math.Floor(x)), float32(y-math.Floor(y)))
		}
	}
	b.edge = make([]float64, all)
	return b
}

// least is how many rows deep a place must be broken away to count.
func (b band) least() int { return int(math.Ceil(max(leastDeep/b.mm, leastPixels/b.px))) }

// mean is the colour of some columns, from the margin's first on, and rows.
func (b band) mean(col0, col1, row0, row1 int) (m [3]float64) {
	all := b.wide + 2*b.margin
	col0, col1, row0, row1 = max(0, col0), min(all, col1), max(0, row0), min(b.in+b.out, row1)
	n := float64(max(1, (col1-col0)*(row1-row0)))
	for row := row0; row < row1; row++ {
		for _, c := range b.c[row*all+col0 : row*all+max(col0, col1)] {
			for k := range m {
				m[k] += float64(c[k]) / n
			}
		}
	}
	return m
}

// changes is where colours change most between lo and hi, by what lies a step before and
// after a place; not ok where they hardly change.
func changes(lo, hi, step int, mean func(from, to int) [3]float64) (at int, ok bool) {
	best := leastEdge
	for d := lo; d <= hi; d++ {
		if v := far(mean(d-step, d), mean(d, d+step)); v > best {
			best, at, ok = v, d, true
		}
	}
	return at, ok
}

// straightened finds where the bench ends in every column: a line that may bow a little,
// as lenses make it, through where colours change most in most places. Then it finds
// both sides of the face.
func (b *band) straightened() bool {
	const places = 160
	step := max(3, int(2/b.px))
	reach := min(b.out-step, b.in-step, max(8, b.wide/60))
	if reach < 2 {
		return false
	}
	var xs, ys []float64
	for k := range places {
		from, to := k*b.wide/places, max(k*b.wide/places+1, (k+1)*b.wide/places)
		where, ok := changes(-reach, reach, step, func(r0, r1 int) [3]float64 {
			return b.mean(b.margin+from, b.margin+to, b.out+r0, b.out+r1)
		})
		if ok {
			xs, ys = append(xs, (float64(from)+float64(to))/2/float64(b.wide)-0.5), append(ys, float64(where))
		}
	}
	if len(xs) < places/4 {
		return false
	}
	p := [3]float64{}
	weights := make([]float64, len(xs))
	for i := range weights {
		weights[i] = 1
	}
	for range 12 { // the least sum of distances, by weights
		a, v := mat.NewDense(len(xs), 3, nil), mat.NewVecDense(len(xs), nil)
		for i, x := range xs {
			a.SetRow(i, []float64{weights[i], weights[i] * x, weights[i] * x * x})
			v.SetVec(i, weights[i]*ys[i])
		}
		var s mat.VecDense
		if s.SolveVec(a, v) != nil {
			return false
		}
		p = [3]float64{s.AtVec(0), s.AtVec(1), s.AtVec(2)}
		for i, x := range xs {
			weights[i] = 1 / math.Sqrt(0.5+math.Abs(ys[i]-p[0]-p[1]*x-p[2]*x*x))
		}
	}
	for col := range b.edge {
		x := (float64(col-b.margin)+0.5)/float64(b.wide) - 0.5
		b.edge[col] = p[0] + p[1]*x + p[2]*x*x
	}
	b.side[0] = b.sideNear(b.margin, 0)
	b.side[1] = b.sideNear(b.margin+b.wide, len(b.edge))
	b.leans()
	return true
}

// leans finds how the grain leans, where it runs into the edge: what a place further in
// looks like nearer the edge. Perspective lets it lean otherwise at either end.
func (b *band) leans() {
	const parts = 8
	b.lean = sideLine{}
	high := max(2, b.in/8)
	one, two := b.out+b.in*3/10, b.out+b.in*8/10
	near, deep := b.lightness(one, one+high), b.lightness(two, two+high)
	most := int(mostLean * float64(two-one))
	var xs, ys []float64
	for k := range parts {
		from, to := b.margin+k*b.wide/parts+most, b.margin+(k+1)*b.wide/parts-most
		if to-from < 4*most {
			from, to = from-most/2, to+most/2
		}
		best, where := leastAlike, 0
		for d := -most; d <= most; d++ {
			if from+d < 0 || to+d > len(deep) || to <= from {
				continue
			}
			if v := alike(near[from:to], deep[from+d:to+d]); v > best {
				best, where = v, d
			}
		}
		if best > leastAlike {
			xs, ys = append(xs, float64(from+to)/2), append(ys, float64(where)/float64(two-one))
		}
	}
	if len(xs) >= parts/2 {
		b.lean.slope, b.lean.at = medianLine(xs, ys, 2)
	}
}

// lightness is how light some rows are, column by column, without what changes slowly.
func (b band) lightness(row0, row1 int) []float64 {
	v := make([]float64, len(b.edge))
	for col := range v {
		v[col] = b.mean(col, col+1, row0, row1)[0]
	}
	half := max(8, len(v)/40)
	out := make([]float64, len(v))
	for col := range v {
		lo, hi := max(0, col-half), min(len(v), col+half+1)
		out[col] = v[col] - floats.Sum(v[lo:hi])/float64(hi-lo)
	}
	return out
}

// alike is how far two rows of numbers go together, -1 to 1.
func alike(a, b []float64) float64 {
	return floats.Dot(a, b) / math.Sqrt(floats.Dot(a, a)*floats.Dot(b, b)+1e-9)
}

// sideNear is the side of the face near a column, or none where nothing ends there: the
// face goes on past the picture, or past the part of it that was shown.
func (b band) sideNear(col, none int) sideLine {
	const places = 24
	step := max(3, int(2/b.px))
	var xs, ys []float64
	low := b.out + 2*b.least()
	for k := range places {
		from, to := low+k*(b.in-2*b.least())/places, low+(k+1)*(b.in-2*b.least())/places
		if at, ok := changes(col-b.margin+step, col+b.margin-step, step, func(c0, c1 int) [3]float64 { return b.mean(c0, c1, from, to) }); ok {
			xs, ys = append(xs, float64(from+to)/2), append(ys, float64(at))
		}
	}
	if len(xs) < places*3/4 {
		return sideLine{at: float64(none)}
	}
	slope, at := medianLine(xs, ys, places/6)
	// A line that half of its places do not lie on is none.
	on := 0
	for i := range xs {
		if math.Abs(ys[i]-at-slope*xs[i]) <= 2 {
			on++
		}
	}
	if on < len(xs)/2 {
		return sideLine{at: float64(none)}
	}
	return sideLine{at, slope}
}

// ends are the columns at which the edge meets the face's sides, from the first end on,
// where it has any.
func (b band) ends() (from, to int) {
	to = b.wide
	if l := b.side[0]; l.at > 0 {
		from = int(math.Round(l.col(b.out))) - b.margin
	}
	if l := b.side[1]; l.at < float64(len(b.edge)) {
		to = int(math.Round(l.col(b.out))) - b.margin
	}
	return max(-b.margin, from), min(b.wide+b.margin-1, to)
}

// depths are, of each column, the rows to which it is broken away and to which
// something stands out.
func (b band) depths() (deep, out []float64) {
	deep, out = make([]float64, b.wide), make([]float64, b.wide)
	near := int(0.12 / b.mm) // columns that are taken together
	hold := max(near, b.wide/400)
	from, rows := b.out+b.in*3/5, b.out+b.in
	high := max(3, (rows-from)/8)
	beside := float64(hold + 3) // columns of a side, whose own face is not known
	// The face further in, along the grain, where it is the face alone.
	first := max(b.side[0].col(from), b.side[0].col(rows)) + float64(hold+2)
	last := min(b.side[1].col(from), b.side[1].col(rows)) - float64(hold+2)
	face := make([][3]float64, b.wide)
	var spread []float64
	for col := range face {
		lean := b.lean.col(b.margin + col)
		at := max(first, min(last, float64(b.margin+col)+lean*float64((from+rows)/2-b.out)))
		for row := from; row < rows; row += high {
			x := int(at + lean*float64(row-(from+rows)/2))
			c := b.mean(x-hold, x+hold+1, row, row+high)
			for k := range c {
				face[col][k] += c[k] / math.Ceil(float64(rows-from)/float64(high))
			}
		}
		for row := from; col%7 == 0 && row < rows; row += 5 {
			x := int(at + lean*float64(row-(from+rows)/2))
			spread = append(spread, far(b.mean(x-near, x+near+1, row-1, row+2), face[col]))
		}
	}
	slices.Sort(spread)
	bound := max(leastOff, faceOff*spread[len(spread)/2])
	onFace := func(col, row int) bool {
		x := b.point(float64(col-b.margin)+0.5, float64(row-b.out)+0.5).X
		return x > 2 && x < b.photo-3 && float64(col) > b.side[0].col(row)+beside && float64(col) < b.side[1].col(row)-beside
	}
	for col := range b.wide {
		at := b.margin + col
		edge, lean := b.out+int(math.Round(b.edge[at])), b.lean.col(at)
		bench := b.mean(at-hold, at+hold+1, 0, max(1, edge-2*b.least()))
		// Beside a side of the face the bench is the bench, not a place that is broken away.
		ending := float64(at) < b.side[0].col(edge)+5*beside || float64(at) > b.side[1].col(edge)-5*beside
		// The row up to which more is something else than is the face.
		sum, best := 0.0, 0.0
		for row := edge; row < from; row++ {
			x := at + int(math.Round(lean*float64(row-edge)))
			c := b.mean(x-near, x+near+1, row-1, row+2)
			if !onFace(x, row) || ending && far(c, bench) < far(c, face[col]) {
				break
			}
			if far(c, face[col]) > bound {
				sum++
			} else {
				sum -= otherwise
			}
			if sum > best {
				best, deep[col] = sum, float64(row+1-edge)
			}
			if sum < -float64(3*b.least()) {
				break
			}
		}
		sum, best = 0, 0
		for row := edge - 1; row >= 0 && onFace(at, row); row-- {
			c := b.mean(at, at+1, row, row+1)
			if far(c, face[col]) < 0.6*far(c, bench) {
				sum++
			} else {
				sum -= otherwise
			}
			if sum > best {
				best, out[col] = sum, float64(edge-row)
			}
			if sum < -float64(b.least()) {
				break
			}
		}
	}
	return deep, out
}

// runs are where values are at least so large, those not taken as parted that are less
// than gap apart.
func runs(v []float64, least float64, gap int) (out [][2]int) {
	for i, x := range v {
		switch {
		case x < least:
		case len(out) > 0 && i-out[len(out)-1][1] < gap:
			out[len(out)-1][1] = i + 1
		default:
			out = append(out, [2]int{i, i + 1})
		}
	}
	return slices.DeleteFunc(out, func(r [2]int) bool { return r[1]-r[0] < 2 })
}

// medians are those of each value and so many on either side of it.
func medians(v []float64, beside int) []float64 {
	out := make([]float64, len(v))
	for i := range v {
		near := slices.Clone(v[max(0, i-beside):min(len(v), i+beside+1)])
		slices.Sort(near)
		out[i] = near[len(near)/2]
	}
	return out
}

// split parts depths at valleys that are less than half as deep as what lies on either
// side.
func split(v []float64, least float64) (out [][2]int) {
	from, peak, valley, at := 0, 0.0, math.Inf(1), 0 // the valley since the peak
	for i, x := range v {
		switch {
		case x >= peak && valley >= splitAt*peak: // still the same rise
			peak, valley = x, math.Inf(1)
		case x < valley:
			valley, at = x, i
		case x > least && valley < splitAt*min(peak, x):
			out = append(out, [2]int{from, at})
			from, peak, valley = at, x, math.Inf(1)
		}
	}
	return append(out, [2]int{from, len(v)})
}
