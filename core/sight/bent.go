package sight

import (
	"math"
	"slices"
)

// oddTeeth are those that are not like the others, each of one kind.
type oddTeeth struct{ gone, short, bent []int }

func (r *reading) odd() oddTeeth {
	odd := oddTeeth{gone: r.gone(), bent: r.bent()}
	for _, k := range r.short() {
		if !slices.Contains(odd.bent, k) {
			odd.short = append(odd.short, k)
		}
	}
	return odd
}

// What a tooth's outer half must stand out of line by for it to be bent: in teeth's heights,
// in pixels, and in what the others do; and how much less unlike them it must be from there.
// Our judgement; docs/sight.md has what they find.
const (
	bentBy       = 0.06
	bentPixels   = 2.5
	bentOfUsual  = 5
	bentUnlike   = 0.45
	furthestBent = 0.25 // that is looked for, in pitches
)

// bent are the teeth whose outer half stands further on or further back than the others'
// does, as that of one does that has hit something hard. An axis that is a little off moves
// all teeth, smoothly round the rim, and a shadow several in a row; what is left of one or
// two alone is their own.
func (r *reading) bent() (out []int) {
	by, unlike := r.moved()
	if by == nil {
		return nil
	}
	own, sorted := make([]float64, r.teeth), make([]float64, r.teeth)
	for k := range own {
		var near [5]float64
		for i := range near {
			near[i] = by[(k+i-len(near)/2+r.teeth)%r.teeth]
		}
		slices.Sort(near[:])
		own[k] = by[k] - near[len(near)/2]
		sorted[k] = math.Abs(own[k])
	}
	slices.Sort(sorted)
	pitch := 2 * math.Pi / float64(r.teeth)
	least := max(bentBy*(r.tip-r.gullet)/pitch, bentPixels/(pitch*r.rim.plane.size()), bentOfUsual*sorted[len(sorted)*7/10])
	for k, d := range own {
		if math.Abs(d) > least && unlike(k, by[k]) < bentUnlike*unlike(k, by[k]-d) {
			out = append(out, k)
		}
	}
	return out
}

// moved is how far on, in pitches, the outer half of every tooth must be moved back to
// look most like the mean one's; and how unlike it is when moved by so much.
func (r *reading) moved() (by []float64, unlike func(k int, by float64) float64) {
	rows := r.hi - r.lo
	lo := max(r.lo, r.strip.row(r.gullet+0.5*(r.tip-r.gullet)))
	hi := min(r.hi, r.strip.row(r.gullet+0.92*(r.tip-r.gullet)))
	if hi-lo < 2 {
		return nil, nil
	}
	directions := make([][]int, r.teeth)
	for i := range r.phase {
		k := r.ofTooth(i)
		directions[k] = append(directions[k], i)
	}
	parts := func(k, d int) (sum float64) {
		for _, i := range directions[k] {
			u := (r.part(i) - d + across) % across
			for j := lo; j < hi; j++ {
				v := clipped(r.on[i*r.strip.rows+j]) - clipped(r.mean[u*rows+j-r.lo])
				sum += float64(v * v)
			}
		}
		return sum
	}
	by = make([]float64, r.teeth)
	for k := range by {
		_, at := lowest(furthestBent*across, func(d int) float64 { return parts(k, d) })
		by[k] = at / across
	}
	return by, func(k int, by float64) float64 { return parts(k, int(math.Round(by*across))) }
}

// clipped is whether a place is on the blade, from -1 to 1: how sure it is beyond that says
// nothing of where the blade ends.
func clipped(nats float32) float32 { return max(-1, min(1, nats)) }
