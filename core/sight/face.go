package sight

import (
	"math"
	"slices"
)

// A mean tooth is how unlike the bench every part of a tooth's pitch is, over all
// teeth: columns along the rim, rows outwards.
type meanTooth struct {
	columns, rows int
	off           []float64 // from 0 to 1: what differs at all counts nearly as much as what differs much
	radius        func(row int) float64
}

// meanTooth is of some teeth. It takes the mean of the colours against that of the gap beside each tooth,
// so that a tip of another colour than the plate is as much part of the tooth.
func (r reading) meanTooth(of func(tooth int) bool) meanTooth {
	s := r.strip
	pitch := 2 * math.Pi * r.rim.plane.size() / float64(r.teeth)
	m := meanTooth{columns: int(min(200, max(24, 0.75*pitch))), rows: r.hi - r.lo, radius: func(row int) float64 { return s.radius(float64(r.lo + row)) }}
	bench, most := r.gaps()
	sums, counts := make([][3]float32, m.columns*m.rows), make([]float32, m.columns)
	gone := map[int]bool{}
	for _, k := range append(r.gone(), r.short()...) {
		gone[k], gone[(k+1)%r.teeth], gone[(k+r.teeth-1)%r.teeth] = true, true, true
	}
	for i := range s.turns {
		k := (int(math.Floor(r.phase[i]-r.first)) + 2*r.teeth) % r.teeth
		if gone[k] || bench[k].spread > most || !of(k) {
			continue
		}
		// Between two columns, or some would be of other parts of a pixel than others.
		f := (r.phase[i] - math.Floor(r.phase[i])) * float64(m.columns)
		u, part := int(f), float32(f-math.Floor(f))
		b := bench[k].mean
		for d, w := range [2]float32{1 - part, part} {
			u := (u + d) % m.columns
			counts[u] += w
			for j := range m.rows {
				c := s.c[i*s.rows+r.lo+j]
				for k := range c {
					sums[u*m.rows+j][k] += w * (c[k] - b[k])
				}
			}
		}
	}
	m.off = make([]float64, m.columns*m.rows)
	for u, n := range counts {
		for j := 0; j < m.rows && n > 0; j++ {
			c := sums[u*m.rows+j]
			m.off[u*m.rows+j] = far([3]float64{float64(c[0] / n), float64(c[1] / n), float64(c[2] / n)}, [3]float64{})
		}
	}
	body := 0.0
	for u := range m.columns {
		body += m.off[u*m.rows] / float64(m.columns)
	}
	for i, v := range m.off {
		m.off[i] = 1 - math.Exp(-v/max(leastTold, partTold*body))
	}
	return m
}

// What is told from the bench: levels, and parts of how far the plate is from it.
const leastTold, partTold = 5, 0.25

// A gap is how the bench looks in front of a tooth.
type gap struct {
	mean   [3]float32
	spread float64
}

// aside is how far to either side the middle of a gap is looked at, in parts of a pitch.
const aside = 7

// gaps are those of all teeth, and the bound of spread that half of them keep: in
// the others a border of a shadow lies, or a line of the bench.
func (r reading) gaps() (all []gap, bound float64) {
	s := r.strip
	rows := r.hi - r.lo
	lo, hi := s.row(r.gullet+0.5*(r.tip-r.gullet)), s.row(r.gullet+0.95*(r.tip-r.gullet))
	lo, hi = max(lo, r.lo), min(hi, r.hi) // what was folded
	middle, least := 0, float32(math.Inf(1))
	for u := range across {
		sum := float32(0)
		for d := -5; d <= 5; d++ {
			for j := lo; j < hi; j++ {
				sum += r.mean[(u+d+across)%across*rows+j-r.lo]
			}
		}
		if sum < least {
			middle, least = u, sum
		}
	}
	all = make([]gap, r.teeth)
	n := make([]float32, r.teeth)
	each := func(do func(k int, c [3]float32)) {
		for i := range s.turns {
			if d := (r.part(i) - middle + across) % across; d > aside && d < across-aside {
				continue
			}
			k := (int(math.Floor(r.phase[i]-r.first)) + 2*r.teeth) % r.teeth
			for j := lo; j < hi; j++ {
				do(k, s.c[i*s.rows+j])
			}
		}
	}
	each(func(k int, c [3]float32) {
		n[k]++
		for i, v := range c {
			all[k].mean[i] += v
		}
	})
	for k := range all {
		for i := range all[k].mean {
			all[k].mean[i] /= max(1, n[k])
		}
	}
	each(func(k int, c [3]float32) {
		l := look{mean: all[k].mean}
		all[k].spread += l.apart(c) / float64(max(1, n[k]))
	})
	spreads := make([]float64, r.teeth)
	for k, g := range all {
		spreads[k] = g.spread
	}
	slices.Sort(spreads)
	return all, spreads[max(min(6, r.teeth-1), r.teeth/2)]
}

// Between these shares of a tooth's height its face is taken to be straight, and
// these are the hooks that are looked for, in degrees.
const (
	faceFrom, faceTo      = 0.64, 0.94
	wideFrom              = 0.52 // for finding it at all
	leastHook, mostHook   = -15.0, 42.0
	hookStep              = 1.5
	roundOff              = 2.0       // pixels of a tip that blur takes
	leastBeside, ofBeside = 2.5, 0.07 // pixels to either side of the face, and pitches
)

// hook is the angle of the teeth's faces to the radius at their tips, in degrees, and
// whether the faces look clockwise: the straight line, of all that could be one, with
// most of the blade on one side and of the bench on the other. Which way they look is
// told of all teeth; the angle of a quarter of them at a time, all round, since a
// shadow lies along the faces of some and not of others: what half of the quarters
// agree on best is the hook.
func (r reading) hook() (degrees, sure float64, clockwise bool) {
	m := r.meanTooth(func(int) bool { return true })
	pitch := 2 * math.Pi / float64(r.teeth)
	f := faceSearch{pitch: pitch, tip: r.tip, column: pitch * r.rim.plane.size() / float64(m.columns)}
	f.beside = max(leastBeside, ofBeside*pitch*r.rim.plane.size()) / f.column
	height := r.tip - r.gullet
	for row := range m.rows {
		share, below := (m.radius(row)-r.gullet)/height, (r.tip-m.radius(row))*r.rim.plane.size()
		if share < wideFrom || share > faceTo || below < min(roundOff, 0.3*height*r.rim.plane.size()) {
			continue
		}
		f.rows = append(f.rows, row)
		if share > faceFrom {
			f.fine = append(f.fine, row)
		}
	}
	if len(f.rows) < 3 {
		return 0, 0, false
	}
	sums := m.sums()
	all := float64(m.columns)
	_, foot, right := f.steepest(sums, 1, 0, all)
	_, leftFoot, left := f.steepest(sums, -1, 0, all)
	sign := 1.0
	if left > right {
		foot, sign = leftFoot, -1
	}
	clockwise = sign > 0
	var found []float64
	for k := range quarters {
		part := r.meanTooth(func(tooth int) bool { return (tooth*quarters/r.teeth-k+quarters)%quarters < quarters/4 })
		at, where, _ := f.steepest(part.sums(), sign, foot-ofFoot*all, foot+ofFoot*all)
		found = append(found, part.finer(f, at, where-0.5, clockwise))
	}
	slices.Sort(found)
	agree, apart := 0, math.Inf(1)
	for i := 0; i+quarters/2 <= len(found); i++ {
		if d := found[i+quarters/2-1] - found[i]; d < apart {
			agree, apart = i, d
		}
	}
	for _, v := range found[agree : agree+quarters/2] {
		degrees += v / (quarters / 2)
	}
	long := height * (faceTo - faceFrom) * r.rim.plane.size()
	sure = max(0, min(0.8, (long-1)/15)) * max(0.2, min(1, 4*(1-min(left, right)/max(left, right)))) * max(0.4, min(1, 1.3-apart/10))
	return degrees, sure, clockwise
}

const (
	quarters = 8    // that lie half over one another
	ofFoot   = 0.12 // of a pitch, within which a quarter's faces stand where all do
)

// A faceSearch is how faces are looked for: in which rows, and the finer ones of those;
// how far to either side, in columns; and how long those are, in pixels.
type faceSearch struct {
	rows, fine     []int
	pitch, tip     float64
	beside, column float64
}

// steepest is the straight line that parts blade from gap best, of those that come out
// at the rim between two columns: its hook, its column, and how well it parts them.
func (f faceSearch) steepest(s columnSums, sign, from, to float64) (degrees, foot, best float64) {
	best = math.Inf(-1)
	lag := make([]float64, len(f.rows))
	for a := leastHook; a <= mostHook; a += hookStep {
		for i, row := range f.rows {
			lag[i] = lagging(a*math.Pi/180, s.radius(row), f.tip) / f.pitch * float64(s.columns)
		}
		for tip := from; tip < to; tip += 0.5 {
			sum := 0.0
			for i, row := range f.rows {
				u := tip - sign*lag[i]
				sum += sign * (s.between(row, u-f.beside, u) - s.between(row, u, u+f.beside))
			}
			if sum > best {
				best, degrees, foot = sum, a, tip
			}
		}
	}
	return degrees, foot, best
}

// lagging is how far behind the tip a face of a hook is at a radius, in radians.
func lagging(alpha, radius, tip float64) float64 {
	return math.Asin(max(-1, min(1, tip*math.Sin(alpha)/radius))) - alpha
}

// finer is the hook of the line through where each row's border really is: the middle
// of its slope, near the line that was found.
func (m meanTooth) finer(f faceSearch, degrees, tipAt float64, clockwise bool) float64 {
	pitch, tip := f.pitch, f.tip
	sign := -1.0
	if clockwise {
		sign = 1
	}
	at := func(u, row int) float64 { return m.off[((u%m.columns+m.columns)%m.columns)*m.rows+row] }
	for _, near := range [4]float64{6, 4.5, 3.5, 3.5} { // pixels
		beside := min(near, max(2.5, 0.1*float64(m.columns)*f.column)) / f.column
		var xs, ys []float64
		for _, row := range f.fine {
			radius := m.radius(row)
			want := tipAt - sign*lagging(degrees*math.Pi/180, radius, tip)/pitch*float64(m.columns)
			sum, all := 0.0, 0.0
			for u := int(math.Floor(want - beside)); u <= int(math.Ceil(want+beside)); u++ {
				slope := sign * (at(u, row) - at(u+1, row))
				middle := float64(u) + 0.5
				// What is only half within counts half.
				slope *= max(0, min(1, beside+0.5-math.Abs(middle-want)))
				if slope > 0 {
					sum, all = sum+slope*middle, all+slope
				}
			}
			if all > 0.05 {
				a := (sum/all - tipAt) / float64(m.columns) * pitch * sign
				xs, ys = append(xs, radius*math.Sin(a)), append(ys, radius*math.Cos(a))
			}
		}
		l := line(xs, ys)
		if l.n < 3 {
			return degrees
		}
		out := l.foot + math.Tan(l.angle)*tip // where the face comes out at the rim
		shift := math.Atan2(out, tip)
		now := (l.angle - shift) * 180 / math.Pi
		if math.Abs(now-degrees) > 12 {
			return degrees
		}
		degrees = now
		tipAt += sign * shift / pitch * float64(m.columns)
	}
	return degrees
}

// columnSums are sums along the rim, so that a part of a row is one difference.
type columnSums struct {
	meanTooth
	sum []float64
}

func (m meanTooth) sums() columnSums {
	s := columnSums{m, make([]float64, (m.columns+1)*m.rows)}
	s.off = make([]float64, len(m.off))
	for u := range m.columns {
		before, after := (u+m.columns-1)%m.columns, (u+1)%m.columns
		for row := range m.rows { // a little smoothed, or lines along the columns would stand out
			s.off[u*m.rows+row] = (m.off[before*m.rows+row] + 2*m.off[u*m.rows+row] + m.off[after*m.rows+row]) / 4
			s.sum[(u+1)*m.rows+row] = s.sum[u*m.rows+row] + s.off[u*m.rows+row]
		}
	}
	return s
}

// to is the sum of a row up to a column that need not be whole, round and round.
func (s columnSums) to(row int, u float64) float64 {
	n := float64(s.columns)
	turns := math.Floor(u / n)
	u -= turns * n
	k := min(s.columns-1, int(u))
	return turns*s.sum[s.columns*s.rows+row] + s.sum[k*s.rows+row] + (u-float64(k))*s.off[k*s.rows+row]
}

// between is the mean of a row between two columns.
func (s columnSums) between(row int, from, to float64) float64 {
	return (s.to(row, to) - s.to(row, from)) / (to - from)
}

// A side is a straight line: how it leans, in radians, where it meets the axis, and
// how many places it was laid through.
type side struct {
	angle, foot float64
	n           int
}

// line is the straight line through places, without those that lie off it.
func line(xs, ys []float64) (s side) {
	keep := slices.Repeat([]bool{true}, len(xs))
	for range 3 {
		n, mx, my, xy, yy := 0.0, 0.0, 0.0, 0.0, 0.0
		for i := range xs {
			if keep[i] {
				n, mx, my = n+1, mx+xs[i], my+ys[i]
			}
		}
		if n < 3 {
			return side{}
		}
		mx, my = mx/n, my/n
		for i := range xs {
			if keep[i] {
				xy, yy = xy+(xs[i]-mx)*(ys[i]-my), yy+(ys[i]-my)*(ys[i]-my)
			}
		}
		slope := xy / yy
		off := make([]float64, 0, len(xs))
		for i := range xs {
			off = append(off, math.Abs(xs[i]-mx-slope*(ys[i]-my)))
		}
		sorted := slices.Clone(off)
		slices.Sort(sorted)
		s = side{math.Atan(slope), mx - slope*my, int(n)}
		for i := range keep {
			keep[i] = off[i] <= max(3*sorted[len(sorted)/2], 1e-4)
		}
	}
	return s
}
