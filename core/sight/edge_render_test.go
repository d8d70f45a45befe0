package sight

import (
	"math"
	"math/rand/v2"
)

// A ragged is a face whose lower edge is splintered, drawn as a camera would see it from
// above. Lengths are in mm.
type ragged struct {
	face, under [3]float64 // colours of the face, and of what lies under it
	grain       float64
	across      bool    // the grain runs to the edge, as after a crosscut
	deep        float64 // of the face
	splinters   []broken
	fibres      []broken
	view
}

// A broken place is so wide along the edge, and so deep in the middle of its jags.
type broken struct{ at, wide, deep, lean, jag float64 }

// drawnRagged is one with up to nine splinters, which are as far apart as they are wide.
func drawnRagged(r *rand.Rand, mostTilt float64) ragged {
	g := ragged{face: woods[r.IntN(len(woods))], grain: 0.02 + 0.06*r.Float64(), across: r.IntN(3) > 0}
	g.view = drawnView(r, benches[r.IntN(len(benches))], mostTilt)
	g.wide, g.high = 2400, 1350 // fibres are few pixels wide: less would not show them
	g.long = 60 + 340*r.Float64()
	g.deep = g.long * (0.15 + 0.5*r.Float64())
	g.fill = min(g.fill, 0.9)
	for i := range g.under {
		g.under[i] = g.face[i] * (0.6 + 0.2*r.Float64())
	}
	if r.IntN(3) == 0 { // a light one, as of a veneered sheet
		for i := range g.under {
			g.under[i] = min(1, g.face[i]*(1.12+0.1*float64(i)))
		}
	}
	px := g.fill * float64(g.wide) / g.long
	g.offY += 0.1 - px*g.deep/2/float64(g.high) // the edge about the middle of the picture
	at := -g.long/2 + 2 + 6/px
	for range r.IntN(10) {
		s := broken{wide: max(6/px, 0.6+3*r.Float64()), lean: r.Float64(), jag: 0.25 * r.Float64()}
		s.deep = max(9/px, s.wide*(0.5+1.5*r.Float64()))
		at += s.wide + max(6/px, 0.2*g.long*r.Float64())
		if at+2*s.wide > g.long/2-2 || s.deep > 9 || s.deep > g.deep/3 {
			break
		}
		s.at = at
		g.splinters = append(g.splinters, s)
		at += s.wide
	}
	if r.IntN(3) == 0 {
		n := 1 + r.IntN(5)
		for i := range n {
			g.fibres = append(g.fibres, broken{at: ((float64(i)+0.2+0.6*r.Float64())/float64(n) - 0.5) * 0.9 * g.long, wide: max(4/px, 0.4), deep: max(8/px, 0.8+2*r.Float64()), lean: r.Float64()})
		}
	}
	return g
}

// to is how far a broken place reaches at a place along the edge: 0 beside it.
func (s broken) to(u float64) float64 {
	x := (u-s.at)/s.wide + 0.5 // 0 to 1 over it
	if x <= 0 || x >= 1 {
		return 0
	}
	top := 0.25 + 0.5*s.lean
	h := x / top
	if x > top {
		h = (1 - x) / (1 - top)
	}
	return s.deep * math.Pow(h, 0.7) * (1 - s.jag*math.Abs(math.Sin(9*x+5*s.lean)))
}

// share is how much of the edge is broken away further than so many mm, and deepest how
// far at most.
func (g ragged) share(least float64) (share, deepest float64) {
	const n = 20000
	for i := range n {
		u := ((float64(i)+0.5)/n - 0.5) * g.long
		for _, s := range g.splinters {
			if d := s.to(u); d > least {
				share += 1.0 / n
				deepest = max(deepest, d)
			}
		}
	}
	return share, deepest
}

func (g ragged) picture(r *rand.Rand) Picture {
	lines := make([]float64, 2000)
	for i := range lines {
		lines[i] = r.NormFloat64()
	}
	rough := func(u, v float64) float64 {
		return math.Sin(7*u+3*math.Sin(5*v)) * math.Sin(6*v+2*math.Sin(4*u))
	}
	return g.view.picture(r, g.deep, func(u, v float64) (c [3]float64, on bool) {
		inside := g.deep/2 - v // from the edge into the face
		if math.Abs(u) > g.long/2 || inside > g.deep {
			return c, false
		}
		if inside < 0 {
			for _, f := range g.fibres {
				if -inside < f.to(u+0.3*inside*(f.lean-0.5)) {
					return [3]float64{g.face[0] * 1.02, g.face[1], g.face[2] * 0.96}, true
				}
			}
			return c, false
		}
		for _, s := range g.splinters {
			if d := s.to(u); inside < d {
				light := 1 + 0.06*rough(u, v)
				if d-inside < 0.25 {
					light *= 0.8 // the step at its end
				}
				return [3]float64{g.under[0] * light, g.under[1] * light, g.under[2] * light}, true
			}
		}
		along, over := u, v
		if g.across {
			along, over = v, u
		}
		row, into := math.Modf(math.Abs(over)*3 + 100)
		k := int(row) % (len(lines) - 1)
		grain := 1 + g.grain*(lines[k]+into*(lines[k+1]-lines[k]))*0.6 + 0.4*g.grain*math.Sin(0.8*over+2*math.Sin(0.05*along))
		return [3]float64{g.face[0] * grain, g.face[1] * grain, g.face[2] * grain}, true
	})
}
