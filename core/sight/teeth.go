package sight

import (
	"cmp"
	"math"
	"math/cmplx"
	"slices"

	"gonum.org/v1/gonum/dsp/fourier"
)

const (
	leastTeeth, mostTeeth = 8, 140
	leastHeight           = 0.012 // of a tooth over its gullet, in radii
	across                = 64    // parts of a tooth's pitch
)

// A reading is what one way of seeing the rim comes to.
type reading struct {
	picture Picture
	rim     rim
	bore    bore
	strip   strip
	shadows bool      // what is darker than the bench was taken for its shadow
	on      []float32 // of every place of the strip, nats that it is on the blade
	edge    []float64 // radius at which the blade ends
	teeth   int
	phase   []float64 // turns of the teeth, of every direction of the strip, rising by teeth all round
	agree   bool      // Fourier's count, the rim's likeness to itself and the tips say the same
	share   float64   // of the rim's ups and downs that teeth all alike explain
	second  float64   // and that the next best count does
	mean    []float32 // tooth: across × rows of the band
	lo, hi  int       // rows of the strip that the band of the teeth takes
	gullet  float64   // radius of its bottom
	tip     float64
	tops    []float64 // radius of every tip
	heights []float64 // the same, as in a circle that all of them lie on
	depths  []float64 // radius of the gullet after every tooth
	lowest  []float64 // of any direction in it, where a slot may open
	first   float64   // phase at which the first of them begins
}

func (r reading) better(than reading) bool { return r.share > than.share }

// plain is a share of a rim that teeth explain only where it is the right one.
const plain = 0.5

// fewTeeth are so few that the circle laid onto the furthest of each part of the rim
// may lie a little beside their tips.
const fewTeeth = 48

// In how many directions a rim is read at most, and few teeth once more.
const mostTurns, enoughForFew = 4320, 2400

// readingOf reads a rim with and without taking what is darker than the bench for
// its shadow, and keeps what teeth explain more of. Few teeth are read once more in
// the circle that runs through their tips.
func readingOf(p Picture, m rim) reading {
	b := boreOf(p, m.plane)
	if b.sure > leastBore {
		m.plane = m.plane.about(b.x, b.y)
	}
	best := readingIn(p, m, b, mostTurns, false, true)
	if best.teeth < leastTeeth || best.teeth > fewTeeth || best.share < leastShare {
		return best
	}
	var tips []Point
	for k, tip := range best.tipPlaces() {
		if best.heights[k]-best.gullet > shortUnder*(best.tip-best.gullet) {
			tips = append(tips, tip)
		}
	}
	plane, ok := plane{}, false
	if len(tips) >= leastTeeth-2 {
		plane, ok = ellipse(tips)
	}
	if !ok || math.Abs(plane.size()/m.plane.size()-1) > 0.03 {
		return best
	}
	if b.sure > leastBore { // the axis is where it was
		plane = plane.about(plane.inverse(m.plane.at(0, 0)))
	}
	b.r *= m.plane.size() / plane.size()
	if again := readingIn(p, rim{plane, m.sure}, b, enoughForFew, best.shadows); again.teeth == best.teeth && again.share > 0.98*best.share {
		return again
	}
	return best
}

// leastBore is the share of a bore's round that must be seen for it to be one.
const leastBore = 0.5

// readingIn is the best reading in one plane and at most so many directions, of those with
// shadows or without.
func readingIn(p Picture, m rim, b bore, most float64, shadows ...bool) (best reading) {
	const from, to = 0.60, 1.26
	size := m.plane.size()
	turns := nearest(min(most, 2*math.Pi*size/1.3), 1440, 1920, 2400, 2880, 3600, mostTurns)
	rows := int(min(most/12, max(90, (to-from)*size/1.3)))
	s := unrolled(p, m.plane, turns, rows, from, to)
	plate, bench := s.sides(rings{0.64, 0.82, 1.04, 1.2}, sectors)
	for _, dark := range shadows {
		r := reading{picture: p, rim: m, bore: b, strip: s, shadows: dark, on: s.onBlade(plate, bench, dark)}
		r.edge, _ = s.edge(r.on, 0.78, 1.08)
		r.count()
		if r.better(best) {
			best = r
		}
	}
	return best
}

func nearest(want float64, of ...int) int {
	best := of[0]
	for _, n := range of {
		if math.Abs(float64(n)-want) < math.Abs(float64(best)-want) {
			best = n
		}
	}
	return best
}

// count finds how many teeth explain the rim best.
func (r *reading) count() {
	n := r.strip.turns
	sorted := slices.Clone(r.edge)
	slices.Sort(sorted)
	r.gullet, r.tip = sorted[n/25], sorted[n*24/25]
	if r.tip-r.gullet < leastHeight {
		return
	}
	wave := make([]float64, n)
	middle := sorted[n/2]
	for i, v := range r.edge {
		wave[i] = v - middle
	}
	lines := fourier.NewFFT(n).Coefficients(nil, wave)
	type tried struct {
		teeth int
		phase []float64
		share float64
	}
	var all []tried
	for _, z := range likeliest(lines) {
		teeth, phase := turned(lines, n, z)
		if teeth < leastTeeth || teeth > mostTeeth || slices.ContainsFunc(all, func(t tried) bool { return t.teeth == teeth }) {
			continue
		}
		r.teeth, r.phase = teeth, phase
		r.fold()
		all = append(all, tried{teeth, phase, r.share})
	}
	if len(all) == 0 {
		r.teeth, r.share = 0, 0
		return
	}
	// What half as many explain, twice as many teeth explain as well if they are alike,
	// and the other way about never: of those that are as good as the best, the most
	// teeth are right.
	most := slices.MaxFunc(all, func(a, b tried) int { return cmp.Compare(a.share, b.share) }).share
	right := tried{}
	for _, t := range all {
		if t.share > most-0.02 && t.teeth > right.teeth {
			right = t
		}
	}
	r.teeth, r.phase, r.second = right.teeth, right.phase, 0
	for _, t := range all {
		if right.teeth%t.teeth != 0 {
			r.second = max(r.second, t.share)
		}
	}
	r.fold()
	r.align()
	r.measure()
	if r.tip-r.gullet < leastHeight {
		r.teeth, r.share = 0, 0
		return
	}
	r.agree = itself(lines, n) == r.teeth && r.tips() == r.teeth
}

// likeliest are the counts whose lines stand out, with two harmonics, the likeliest
// first.
func likeliest(lines []complex128) []int {
	power := make([]float64, len(lines))
	for i, c := range lines {
		power[i] = real(c)*real(c) + imag(c)*imag(c)
	}
	score := func(z int) float64 {
		sum := 0.0
		for h := 1; h <= 3; h++ {
			line := 0.0
			for k := h*z - 1; k <= h*z+1 && k < len(power); k++ {
				line += power[k]
			}
			sum += math.Sqrt(line) / float64(h)
		}
		return sum
	}
	var all []int
	for z := leastTeeth; z <= mostTeeth && 2*z < len(lines); z++ {
		if s := score(z); s >= score(z-1) && s >= score(z+1) {
			all = append(all, z)
		}
	}
	slices.SortFunc(all, func(a, b int) int { return cmp.Compare(score(b), score(a)) })
	return all[:min(5, len(all))]
}

// turned follows the teeth round the rim: a count that was near is set right by how
// often the phase of its line turns on the way, and the phase says where each is,
// where the picture is a little warped.
func turned(lines []complex128, n, near int) (teeth int, phase []float64) {
	const points = 720
	teeth = near
	for range 3 {
		reach := max(3, teeth/8)
		var turns [points + 1]float64
		last := 0.0
		for i := range turns {
			at := 2 * math.Pi * float64(i) / points
			sum := complex(0, 0)
			for d := -reach; d <= reach; d++ {
				if k := teeth + d; k > 0 && k < len(lines) {
					w := 0.5 + 0.5*math.Cos(math.Pi*float64(d)/float64(reach+1))
					sum += complex(w, 0) * lines[k] * cmplx.Exp(complex(0, float64(d)*at))
				}
			}
			now := cmplx.Phase(sum)
			if i > 0 {
				now += 2 * math.Pi * math.Round((last-now)/(2*math.Pi))
			}
			turns[i], last = now, now
		}
		off := int(math.Round((turns[points] - turns[0]) / (2 * math.Pi)))
		if off == 0 {
			// What a picture is warped by is smooth; what slots and a missing tooth do is not.
			warp := smooth(turns[:points])
			phase = make([]float64, n)
			for i := range phase {
				phase[i] = float64(teeth)*float64(i)/float64(n) + warp.at(2*math.Pi*float64(i)/float64(n))/(2*math.Pi)
			}
			return teeth, phase
		}
		teeth += off
		if teeth < leastTeeth {
			break
		}
	}
	return 0, nil
}

// itself is the count by which the rim is most like itself a tooth further on.
func itself(lines []complex128, n int) int {
	power := make([]complex128, len(lines))
	for i, c := range lines {
		if i >= leastTeeth-1 && i <= 6*mostTeeth {
			power[i] = complex(real(c)*real(c)+imag(c)*imag(c), 0)
		}
	}
	like := fourier.NewFFT(n).Sequence(nil, power)
	best := 0.0
	for lag := n / mostTeeth; lag <= n/leastTeeth; lag++ {
		best = max(best, like[lag])
	}
	for lag := max(1, n/mostTeeth); lag <= n/leastTeeth; lag++ {
		if v := like[lag]; v > 0.8*best && v >= like[lag-1] && v >= like[lag+1] {
			// The same after many teeth says it to a part of a sample.
			d := 0.5 * (like[lag-1] - like[lag+1]) / (like[lag-1] - 2*v + like[lag+1] - 1e-12)
			pitch := float64(lag) + d
			for many := 2; many <= int(float64(n)/pitch)/3; many++ {
				about := int(math.Round(float64(many) * pitch))
				at := about
				for k := about - 2; k <= about+2; k++ {
					if like[k] > like[at] {
						at = k
					}
				}
				d := 0.5 * (like[at-1] - like[at+1]) / (like[at-1] - 2*like[at] + like[at+1] - 1e-12)
				if math.Abs(d) < 1 {
					pitch = (float64(at) + d) / float64(many)
				}
			}
			return int(math.Round(float64(n) / pitch))
		}
	}
	return 0
}

// tips counts the places where the edge rises over three fifths of a tooth and falls
// under two fifths again.
func (r *reading) tips() int {
	up, down := r.gullet+0.6*(r.tip-r.gullet), r.gullet+0.4*(r.tip-r.gullet)
	n, high := 0, false
	for i := range 2 * len(r.edge) {
		v := r.edge[i%len(r.edge)]
		if !high && v > up {
			high = true
			if i >= len(r.edge) {
				n++
			}
		} else if high && v < down {
			high = false
		}
	}
	return n + len(r.gone())
}

// fold lays all teeth over one another and says how much of the rim their mean
// explains.
func (r *reading) fold() {
	s := r.strip
	r.lo, r.hi = s.row(r.gullet-0.02), s.row(r.tip+0.02)
	rows := r.hi - r.lo
	r.mean = make([]float32, across*rows)
	counts := make([]float32, across)
	level := make([]float32, rows)
	for i := range s.turns {
		u := r.part(i)
		counts[u]++
		row := r.on[i*s.rows+r.lo : i*s.rows+r.hi]
		for j, v := range row {
			r.mean[u*rows+j] += v
			level[j] += v / float32(s.turns)
		}
	}
	for u, c := range counts {
		for j := range rows {
			if c > 0 {
				r.mean[u*rows+j] /= c
			}
		}
	}
	left, all := 0.0, 0.0
	for i := range s.turns {
		u := r.part(i)
		row := r.on[i*s.rows+r.lo : i*s.rows+r.hi]
		for j, v := range row {
			a, b := float64(v-r.mean[u*rows+j]), float64(v-level[j])
			left, all = left+a*a, all+b*b
		}
	}
	r.share = 0
	if all > 0 {
		by := 1 / float64(r.teeth) // what as many means explain of nothing but noise
		r.share = max(0, (1-left/all-by)/(1-by))
	}
}

// part is which part of a tooth a direction lies in.
func (r *reading) part(i int) int {
	f := r.phase[i] - math.Floor(r.phase[i])
	return min(across-1, int(f*across))
}

// ofTooth is which tooth a direction lies in, with the gaps' halves to either side of it.
func (r *reading) ofTooth(i int) int {
	return (int(math.Floor(r.phase[i]-r.first)) + r.teeth) % r.teeth
}

// measure takes the height of every tooth and the depth of the gullet after it.
func (r *reading) measure() {
	// A tooth is counted from the lowest part of the mean on.
	var sums, counts [across]float64
	for i, v := range r.edge {
		u := r.part(i)
		sums[u], counts[u] = sums[u]+v, counts[u]+1
	}
	low := 0
	for u := range sums {
		if counts[u] > 0 && (counts[low] == 0 || sums[u]/counts[u] < sums[low]/counts[low]) {
			low = u
		}
	}
	shift := float64(low) / across
	r.first = math.Floor(r.phase[0]-shift) + shift
	tops, bottoms := make([][]float64, r.teeth), make([][]float64, r.teeth)
	for i, v := range r.edge {
		at := r.phase[i] - r.first
		k := int(math.Floor(at))
		f := at - float64(k)
		tops[(k+r.teeth)%r.teeth] = append(tops[(k+r.teeth)%r.teeth], v)
		if f < 0.5 {
			k-- // the gullet before this one
		}
		bottoms[(k+r.teeth)%r.teeth] = append(bottoms[(k+r.teeth)%r.teeth], v)
	}
	r.heights, r.depths, r.lowest = make([]float64, r.teeth), make([]float64, r.teeth), make([]float64, r.teeth)
	for k := range r.teeth {
		slices.Sort(tops[k])
		slices.Sort(bottoms[k])
		if len(tops[k]) == 0 || len(bottoms[k]) == 0 {
			continue
		}
		r.heights[k] = tops[k][len(tops[k])*93/100]
		r.depths[k] = bottoms[k][len(bottoms[k])*8/100]
		r.lowest[k] = bottoms[k][0]
	}
	r.tops = slices.Clone(r.heights)
	level(r.heights)
	level(r.depths)
	sorted := slices.Clone(r.heights)
	slices.Sort(sorted)
	r.tip = sorted[len(sorted)*6/10]
	sorted = slices.Clone(r.depths)
	slices.Sort(sorted)
	r.gullet = sorted[len(sorted)/2]
}

// level takes off what a circle a little off or flat brings.
func level(v []float64) {
	h := smooth(v)
	for i := range v {
		v[i] += h[0] - h.at(2*math.Pi*float64(i)/float64(len(v)))
	}
}

const (
	goneUnder  = 0.5  // of a tooth's height, under which it is as good as not there
	shortUnder = 0.86 // under which it stands lower than the others
	thereUnder = 0.6  // of what there is of the others' outer part, under which something is gone from it
)

// gone are the teeth that are not there.
func (r *reading) gone() (out []int) {
	for k, h := range r.heights {
		if h-r.gullet < goneUnder*(r.tip-r.gullet) {
			out = append(out, k)
		}
	}
	return out
}

// short are those that stand lower than the others, by more than those differ, and have
// less of their outer part: light on a tip may take its edge away, not all of it.
func (r *reading) short() (out []int) {
	there := r.there()
	sorted := slices.Clone(there)
	slices.Sort(sorted)
	most := thereUnder * sorted[len(sorted)/2]
	off := make([]float64, len(r.heights))
	for k, h := range r.heights {
		off[k] = math.Abs(h - r.tip)
	}
	slices.Sort(off)
	usual := off[len(off)*7/10]
	for k, h := range r.heights {
		share := (h - r.gullet) / (r.tip - r.gullet)
		if share >= goneUnder && share < shortUnder && r.tip-h > 4*usual && there[k] < most {
			out = append(out, k)
		}
	}
	return out
}

// there is how much there is of the outer part of every tooth, of the mean one's.
func (r *reading) there() []float64 {
	rows, height := r.hi-r.lo, r.tip-r.gullet
	lo := max(r.lo, r.strip.row(r.gullet+0.7*height))
	hi := min(r.hi, r.strip.row(r.gullet+0.97*height))
	out, all := make([]float64, r.teeth), make([]float64, r.teeth)
	for i := range r.phase {
		k, u := r.ofTooth(i), r.part(i)
		for j := lo; j < hi; j++ {
			mean := float64(max(0, clipped(r.mean[u*rows+j-r.lo])))
			out[k] += float64(clipped(r.on[i*r.strip.rows+j])) * mean
			all[k] += mean * mean
		}
	}
	for k := range out {
		out[k] /= all[k] + 1e-9
	}
	return out
}

// groups is how many teeth there are from one deeper gullet to the next.
func (r *reading) groups() (group int) {
	sure := 0.85 // of the gullets that must be as deep as that
	height := r.tip - r.gullet
	depths := slices.Clone(r.depths)
	for k, d := range r.lowest {
		if d < r.gullet-0.8*height { // a slot in the body opens here
			depths[k] = math.NaN()
		}
	}
	for g := 3; g <= 12 && g <= r.teeth/2; g++ {
		if r.teeth%g != 0 {
			continue
		}
		var at []float64 // the usual depth at every place of a group
		for i := range g {
			var some []float64
			for k := i; k < r.teeth; k += g {
				if !math.IsNaN(depths[k]) {
					some = append(some, depths[k])
				}
			}
			if len(some) == 0 {
				break
			}
			slices.Sort(some)
			at = append(at, some[len(some)/2])
		}
		if len(at) < g {
			continue
		}
		// One gullet a good deal deeper, and the others alike.
		order := slices.Clone(at)
		slices.Sort(order)
		step, rest := order[1]-order[0], order[g-1]-order[1]
		if step < 0.15*height || rest > 0.6*step {
			continue
		}
		deep, bound, fit := slices.Index(at, order[0]), (order[0]+order[1])/2, 0
		for k, d := range depths {
			if math.IsNaN(d) || (d < bound) == (k%g == deep) {
				fit++
			}
		}
		if s := float64(fit) / float64(r.teeth); s > sure {
			group, sure = g, s
		}
	}
	return group
}
