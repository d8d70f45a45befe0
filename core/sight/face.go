package sight

import (
	"math"
	"slices"
)

// eighths are the parts of the rim whose teeth are looked at each part on its own: a
// shadow lies along the faces of some and not of others.
const eighths = 8

// A meanTooth is how a tooth looks, over many: columns along the rim, as many as a
// pitch has pixels, and rows outwards.
type meanTooth struct {
	columns, rows int
	c             [][3]float64 // a column's, from the inside out, after the other
	sum           [][3]float64 // of every row up to a column, so that a part of a row is one difference
}

func newMeanTooth(columns, rows int) meanTooth {
	return meanTooth{columns, rows, make([][3]float64, columns*rows), nil}
}

func (m *meanTooth) add() {
	m.sum = make([][3]float64, (m.columns+1)*m.rows)
	for i, c := range m.c {
		for k, v := range c {
			m.sum[m.rows+i][k] = m.sum[i][k] + v
		}
	}
}

// to is the sum of a row up to a column that need not be whole, round and round.
func (m *meanTooth) to(row int, u float64) (out [3]float64) {
	n := float64(m.columns)
	turns := math.Floor(u / n)
	u -= turns * n
	k := min(m.columns-1, int(u))
	part, whole := u-float64(k), m.sum[m.columns*m.rows+row]
	for i, v := range m.c[k*m.rows+row] {
		out[i] = turns*whole[i] + m.sum[k*m.rows+row][i] + part*v
	}
	return out
}

// between is the mean of a row between two columns, given in any order.
func (m *meanTooth) between(row int, a, b float64) (out [3]float64) {
	from, to := m.to(row, a), m.to(row, b)
	for i := range out {
		out[i] = (to[i] - from[i]) / (b - a)
	}
	return out
}

// A rimPart is what the teeth of an eighth of the rim look like, and their gaps.
type rimPart struct {
	meanTooth
	teeth       int        // that are there and have neighbours
	bench, body [3]float64 // what lies in the gaps, and what below them
}

// aside is how far to either side the middle of a gap is looked at, in pitches.
const aside = 0.117

// parts are the eighths of the rim, of teeth that lie somewhere each.
func (r reading) parts(f faceSearch, whole []int, laid []lie) (out [eighths]rimPart) {
	for o := range out {
		out[o].meanTooth = newMeanTooth(f.columns, len(f.radius))
	}
	for i, k := range whole {
		p := &out[k*eighths/r.teeth]
		p.teeth++
		for j, c := range r.tooth(f, k, laid[i]) {
			for n, v := range c {
				p.c[j][n] += float64(v)
			}
		}
	}
	middle, columns := r.middleOfGap(), float64(f.columns)
	rows := f.between(0.5, 0.95, 0)
	inner := 0 // rows that no gap reaches
	for inner < f.rows-1 && f.radius[inner] < r.gullet-0.005 {
		inner++
	}
	for o := range out {
		p := &out[o]
		for i := range p.c {
			for c := range p.c[i] {
				p.c[i][c] /= max(1, float64(p.teeth))
			}
		}
		p.add()
		for _, row := range rows {
			for c, v := range p.between(row, (middle-aside)*columns, (middle+aside)*columns) {
				p.bench[c] += v / float64(len(rows))
			}
		}
		for row := range inner {
			for c, v := range p.between(row, 0, columns) {
				p.body[c] += v / float64(inner)
			}
		}
	}
	return out
}

// middleOfGap is where there is least of the mean tooth, in pitches.
func (r reading) middleOfGap() float64 {
	const beside = 5 // parts of a pitch
	s := r.strip
	rows := r.hi - r.lo
	lo, hi := s.row(r.gullet+0.5*(r.tip-r.gullet)), s.row(r.gullet+0.95*(r.tip-r.gullet))
	lo, hi = max(lo, r.lo)-r.lo, min(hi, r.hi)-r.lo // what was folded
	middle, least := 0, float32(math.Inf(1))
	for u := range across {
		sum := float32(0)
		for d := -beside; d <= beside; d++ {
			for j := lo; j < hi; j++ {
				sum += r.mean[(u+d+across)%across*rows+j]
			}
		}
		if sum < least {
			middle, least = u, sum
		}
	}
	return (float64(middle)+0.5)/across - r.first + math.Floor(r.first)
}

// unlike is how unlike the bench every part of the mean tooth is, from 0 to 1: what
// differs at all counts nearly as much as what differs much. It takes the mean of the
// colours against that of the gaps, so that a tip of another colour than the plate is
// as much part of the tooth.
func unlike(parts [eighths]rimPart) meanTooth {
	m := newMeanTooth(parts[0].columns, parts[0].rows)
	teeth := 0
	for _, p := range parts {
		for i, c := range p.c {
			for k := range c {
				m.c[i][k] += float64(p.teeth) * (c[k] - p.bench[k])
			}
		}
		teeth += p.teeth
	}
	off, body := make([]float64, len(m.c)), 0.0
	for i, c := range m.c {
		off[i] = far(c, [3]float64{}) / float64(max(1, teeth))
		if i%m.rows == 0 {
			body += off[i] / float64(m.columns)
		}
	}
	for i, v := range off {
		off[i] = 1 - math.Exp(-v/max(leastTold, partTold*body))
	}
	for u := range m.columns {
		before, after := (u+m.columns-1)%m.columns, (u+1)%m.columns
		for j := range m.rows { // a little smoothed, or lines along the columns would stand out
			m.c[u*m.rows+j] = [3]float64{(off[before*m.rows+j] + 2*off[u*m.rows+j] + off[after*m.rows+j]) / 4}
		}
	}
	m.add()
	return m
}

// What is told from the bench: levels, and parts of how far the plate is from it.
const leastTold, partTold = 5, 0.25

// Faces are looked for between these shares of a tooth's height, and these are the
// hooks that are looked for, in degrees.
const (
	wideFrom, wideTo      = 0.52, 0.94 // for which way they look
	faceFrom, faceTo      = 0.5, 0.95
	leastHook, mostHook   = -15.0, 42.0
	hookStep              = 0.75
	leastBeside, ofBeside = 2.5, 0.07 // pixels to either side of the face, and pitches
)

// A faceSearch is where faces are looked for.
type faceSearch struct {
	pitch         float64 // radians
	pixels        float64 // in a column
	tip, size     float64
	gullet        float64
	columns, rows int
	radius        []float64 // of every row
}

// mostColumns are enough for teeth of any size.
const mostColumns = 160

func (r reading) faceSearch() faceSearch {
	f := faceSearch{pitch: 2 * math.Pi / float64(r.teeth), tip: r.tip, size: r.rim.plane.size(), gullet: r.gullet}
	f.columns = int(min(mostColumns, max(24, f.pitch*f.size)))
	f.pixels = f.pitch * f.size / float64(f.columns)
	for radius := r.gullet - 0.02; radius < r.tip+0.02; radius += max(1, f.pixels) / f.size {
		f.radius = append(f.radius, radius)
	}
	f.rows = len(f.radius)
	return f
}

// searchRows are as many as tell where a face is, and searchFeet as many places of one.
const searchRows, searchFeet = 24, 200

// step is how far apart the places are at which a face may come out, in columns.
func (f faceSearch) step() float64 { return max(0.5, float64(f.columns)/searchFeet) }

// between are rows between two shares of a tooth's height, without those at the tip
// that blur takes, in pixels.
func (f faceSearch) between(from, to, blurred float64) (rows []int) {
	height := f.tip - f.gullet
	for j, radius := range f.radius {
		share, below := (radius-f.gullet)/height, (f.tip-radius)*f.size
		if share >= from && share <= to && below >= min(blurred, 0.3*height*f.size) {
			rows = append(rows, j)
		}
	}
	every := max(1, len(rows)/searchRows)
	for i := range rows[:len(rows)/every] {
		rows[i] = rows[i*every]
	}
	return rows[:len(rows)/every]
}

// A faceLine is where faces are: their hook in degrees, the column in which they come
// out at the rim, and 1 where they look clockwise or -1.
type faceLine struct{ hook, foot, sign float64 }

// lags are how far behind their tips faces of a hook are in some rows, in columns.
func (f faceSearch) lags(hook float64, rows []int) []float64 {
	out := make([]float64, len(rows))
	for i, row := range rows {
		out[i] = lagging(hook*math.Pi/180, f.radius[row], f.tip) / f.pitch * float64(f.columns)
	}
	return out
}

// lagging is how far behind the tip a face of a hook is at a radius, in radians.
func lagging(alpha, radius, tip float64) float64 {
	return math.Asin(max(-1, min(1, tip*math.Sin(alpha)/radius))) - alpha
}

// steepest is the straight line that parts blade from gap best, and how well it does.
func (f faceSearch) steepest(m *meanTooth, sign float64) (best faceLine, most float64) {
	rows := f.between(wideFrom, wideTo, 2)
	beside := max(leastBeside, ofBeside*f.pitch*f.size) / f.pixels
	most = math.Inf(-1)
	for a := leastHook; a <= mostHook; a += 2 * hookStep {
		lags := f.lags(a, rows)
		for foot := 0.0; foot < float64(f.columns); foot += f.step() {
			sum := 0.0
			for i, row := range rows {
				u := foot - sign*lags[i]
				sum += sign * (m.between(row, u-beside, u)[0] - m.between(row, u, u+beside)[0])
			}
			if sum > most {
				most, best = sum, faceLine{a, foot, sign}
			}
		}
	}
	return best, most
}

// The colours to either side of a face, in pixels; of the gap further in front of it,
// in pitches; how many levels count as much; and how far a face may be from where it
// was thought to be, in pitches.
const (
	sideFrom, sideTo = 0.5, 2.5
	gapFrom, gapTo   = 0.12, 0.28
	muchApart        = 12.0
	ofFoot           = 0.15
)

// clearest is the line that all parts together show best of those near another: on
// one side of it there is something else than on the other, and on that other what
// lies further in the gap as well. Where there is a shadow along the faces it is not,
// so each part says how clearly it shows the line.
func (f faceSearch) clearest(parts [eighths]rimPart, near faceLine) (best faceLine, clear [eighths]float64) {
	rows := f.between(faceFrom, faceTo, 1)
	n, all := 2*f.columns, float64(f.columns)
	shown := make([]float64, eighths*len(rows)*n)
	for o := range parts {
		if parts[o].teeth == 0 {
			continue
		}
		for i, row := range rows {
			at := shown[(o*len(rows)+i)*n:]
			for h := range n {
				u := float64(h) / 2
				between := func(from, to float64) [3]float64 {
					return parts[o].between(row, u+near.sign*from, u+near.sign*to)
				}
				behind, front := between(-sideFrom/f.pixels, -sideTo/f.pixels), between(sideFrom/f.pixels, sideTo/f.pixels)
				gap := between(gapFrom*all, gapTo*all)
				at[h] = math.Exp(-far(front, gap)/muchApart) - math.Exp(-far(behind, front)/muchApart)
				// Along a tooth's back the blade lies in front.
				ofBody, ofBench := far(front, parts[o].body), far(front, parts[o].bench)
				at[h] *= ofBody / (ofBody + ofBench + 1e-9)
			}
		}
	}
	most := math.Inf(-1)
	for a := leastHook; a <= mostHook; a += hookStep {
		lags := f.lags(a, rows)
		for foot := near.foot - ofFoot*all; foot < near.foot+ofFoot*all; foot += f.step() {
			var each [eighths]float64
			total := 0.0
			for o := range each {
				for i := range rows {
					h := 2 * (foot - near.sign*lags[i])
					k := math.Floor(h)
					at, part := shown[(o*len(rows)+i)*n:], h-k
					u := (int(k)%n + n) % n
					each[o] += ((1-part)*at[u] + part*at[(u+1)%n]) / float64(len(rows))
				}
				each[o] = max(0, each[o])
				total += each[o]
			}
			if total > most {
				most, best, clear = total, faceLine{a, foot, near.sign}, each
			}
		}
	}
	return best, clear
}

// hook is the angle of the teeth's faces to the radius at their tips, in degrees, and
// whether the faces look clockwise. Which way they look is told of all teeth; where
// they are of all parts of the rim together; the angle of each part that shows them
// clearly, by a tooth that is drawn until it looks as theirs do.
func (r reading) hook(odd oddTeeth) (degrees, sure float64, clockwise bool) {
	f := r.faceSearch()
	if len(f.between(wideFrom, wideTo, 2)) < 3 {
		return 0, 0, false // too small for its faces to be seen
	}
	whole := r.whole(odd)
	parts := sharper(r.parts(f, whole, make([]lie, len(whole))), r.parts(f, whole, r.laid(f, whole)))
	m := unlike(parts)
	line, most := f.steepest(&m, 1)
	left, less := f.steepest(&m, -1)
	if less > most {
		line, most, less = left, less, most
	}
	line, clear := f.clearest(parts, line)
	hooks, weights := f.hooks(parts, line, clear)
	if len(hooks) == 0 {
		return line.hook, 0, line.sign > 0
	}
	degrees = weightedMedian(hooks, weights)
	apart, all := 0.0, 0.0
	for i, h := range hooks {
		apart, all = apart+weights[i]*min(10, math.Abs(h-degrees)), all+weights[i]
	}
	long := (r.tip - r.gullet) * f.size
	sure = max(0, min(1, (long-8)/30)) * max(0.2, min(1, 4*(1-less/most))) * max(0.2, min(1, 1.1-apart/all/5))
	return degrees, sure, line.sign > 0
}

// weightedMedian is the value of half of all weight.
func weightedMedian(values, weights []float64) float64 {
	order := make([]int, len(values))
	half := 0.0
	for i, w := range weights {
		order[i], half = i, half+w/2
	}
	slices.SortFunc(order, func(a, b int) int {
		if values[a] < values[b] {
			return -1
		}
		return 1
	})
	sum := 0.0
	for _, i := range order {
		if sum += weights[i]; sum >= half {
			return values[i]
		}
	}
	return 0
}
