package sight

import (
	"flag"
	"math"
	"math/rand/v2"
	"strings"
	"testing"
)

var edges = flag.Int("edges", pick(8, 6), "that are made up; docs/sight.md says of how many its table is")

func TestEdges(t *testing.T) {
	var numbers, depths, shares, places, whole, fibres, grades tally
	for i := *first; i < *first+*edges; i++ {
		r := rand.New(rand.NewPCG(19, uint64(i)))
		g := drawnRagged(r, 15)
		p := g.picture(r)
		e, err := p.LookAtEdge(g.long, nil, false)
		wantShare, wantDeep := g.share(leastDeep)
		var fine bool
		if len(g.splinters) == 0 {
			fine = whole.add(err == nil && len(e.Splinters) == 0)
		} else {
			fine = numbers.add(err == nil && abs(float32(len(e.Splinters)-len(g.splinters))) <= max(1, float32(len(g.splinters))/5))
			fine = depths.add(err == nil && math.Abs(e.Deepest()-wantDeep) < max(0.5, 0.2*wantDeep)) && fine
			fine = shares.add(err == nil && math.Abs(e.Share-wantShare) < 0.05) && fine
		}
		for k := range min(len(g.splinters), len(e.Splinters)) {
			if len(g.splinters) == len(e.Splinters) { // where each lies, as far as a tilt lets it be told
				got := (e.Splinters[k].From+e.Splinters[k].To-1)/2*g.long - g.splinters[k].at
				places.add(math.Abs(got) < 0.03*g.long)
			}
		}
		if len(g.fibres) == 0 {
			fibres.add(e.Fibres == 0)
		} else {
			fibres.add(e.Fibres > 0)
		}
		want := Edge{Splinters: []Splinter{{Deep: wantDeep}}, Share: wantShare, Fibres: len(g.fibres)}.Grade()
		fine = grades.add(err == nil && e.Grade() == want) && fine
		if !fine {
			t.Logf("%d: %d splinters, deepest %.2f, share %.3f, %d fibres; want %d, %.2f, %.3f, %d; %.1f px a mm, across %v, tilt %.0f %.0f, ends %.0f sure %.2f; %v", i,
				len(e.Splinters), e.Deepest(), e.Share, e.Fibres, len(g.splinters), wantDeep, wantShare, len(g.fibres), g.fill*2400/g.long, g.across, g.tilt[0], g.tilt[1], e.Ends, e.EndsSure, err)
			kept(t, "edge.png", p)
			if *keep != "" {
				for _, s := range e.Splinters {
					t.Logf("at %.1f wide %.2f deep %.2f", (s.From+s.To-1)/2*g.long, (s.To-s.From)*g.long, s.Deep)
				}
				for _, s := range g.splinters {
					t.Logf("want at %.1f wide %.2f deep %.2f", s.at, s.wide, s.deep)
				}
			}
		}
	}
	t.Logf("number %d of %d, deepest %d of %d, share %d of %d, nothing where nothing is %d of %d, graded %d of %d, placed %d of %d, fibres or none %d of %d",
		numbers.right, numbers.of, depths.right, depths.of, shares.right, shares.of, whole.right, whole.of, grades.right, grades.of, places.right, places.of, fibres.right, fibres.of)
	// What a few may bring; docs/sight.md has the shares of many.
	if numbers.share() < 0.85 || depths.share() < 0.8 || shares.share() < 0.95 || whole.share() < 0.9 && whole.of > 0 || grades.share() < 0.9 || places.share() < 0.95 || fibres.share() < 0.85 {
		t.Error("it sees too little")
	}
}

func TestEdgesThatCannotBeRead(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 1))
	p := drawnRagged(r, 0).picture(r)
	plain := Picture{400, 300, make([]uint8, 4*400*300)}
	for want, read := range map[string]func() (Edge, error){
		"no edge found":      func() (Edge, error) { return plain.LookAtEdge(100, nil, false) },
		"length of the edge": func() (Edge, error) { return p.LookAtEdge(math.NaN(), nil, false) },
		"two ends":           func() (Edge, error) { return p.LookAtEdge(100, []Point{{0, 0}}, false) },
		"Take it closer":     func() (Edge, error) { return p.LookAtEdge(100, []Point{{0.5, 0.5}, {0.51, 0.5}}, false) },
		"too little":         func() (Edge, error) { return p.LookAtEdge(100, []Point{{0, 0.001}, {1, 0.001}}, false) },
		"too small":          func() (Edge, error) { return Picture{100, 100, make([]uint8, 40000)}.LookAtEdge(100, nil, false) },
	} {
		if _, err := read(); err == nil || !strings.Contains(err.Error(), want) {
			t.Errorf("%v, want %q", err, want)
		}
	}
	// Ends that lie anywhere, and lengths of any size, are read or refused.
	for range 60 {
		ends := []Point{{3*r.Float64() - 1, 3*r.Float64() - 1}, {3*r.Float64() - 1, 3*r.Float64() - 1}}
		e, err := p.LookAtEdge(math.Pow(10, 8*r.Float64()-3), ends, r.IntN(2) == 0)
		if err == nil && !(e.Share >= 0 && e.Share <= 1+1e-9) {
			t.Errorf("%v: %+v", ends, e)
		}
	}
}

// A face whose sides and grain lean, with a knot near the edge: one splinter, and
// nothing at the sides, in the grain or at the knot. Drawn without noise, to the pixel.
func TestALeaningFace(t *testing.T) {
	const wide, high, lean, slope = 1600, 1000, 0.25, 0.06
	p := Picture{wide, high, make([]uint8, 4*wide*high)}
	for y := range high {
		for x := range wide {
			in := 700 + slope*float64(x) - float64(y) // pixels over the edge, down the picture
			foot := float64(x) - lean*in              // where the grain comes out at the edge
			c := [3]float64{40, 70, 60}
			if in > 0 && foot > 200 && foot < 1400 {
				light := 1 + 0.06*math.Sin(foot/5+3*math.Sin(foot/37)) + 0.05*math.Sin(foot/11+2*math.Sin(foot/71)) // never the same twice
				c = [3]float64{190 * light, 150 * light, 100 * light}
				if math.Abs(foot-800) < 20 && in < 24 || math.Hypot(foot-500, in-45) < 14 {
					c = [3]float64{90, 60, 40}
				}
			}
			for k, v := range c {
				p.Pix[4*(y*wide+x)+k] = uint8(v)
			}
		}
	}
	e, err := p.LookAtEdge(120, nil, false)
	if err != nil || len(e.Splinters) != 1 || math.Abs(e.Deepest()-2.4) > 0.3 || e.Fibres != 0 {
		t.Fatalf("%+v, %v", e, err)
	}
	for i, x := range [2]float64{200, 1400} {
		if math.Abs(e.Ends[i].X-x) > 4 || math.Abs(e.Ends[i].Y-700-slope*x) > 3 {
			t.Errorf("ends %v", e.Ends)
		}
	}
	// The same upside down, with the face below its edge.
	below, err := p.turned().LookAtEdge(120, nil, true)
	if err != nil || len(below.Splinters) != 1 || math.Abs(below.Splinters[0].From-e.Splinters[0].From) > 0.002 || math.Abs(below.Deepest()-e.Deepest()) > 0.1 {
		t.Fatalf("upside down: %+v, %v, not %+v", below, err, e)
	}
	for i, at := range below.Ends {
		if apart(Point{wide - at.X, high - at.Y}, e.Ends[i]) > 1.5 {
			t.Errorf("ends %v upside down, and %v", below.Ends, e.Ends)
		}
	}
	// Rows go to the left hand, square to the edge.
	b := bandOf(p, e.Ends, 120)
	if o, up := b.point(0, 0), b.point(0, 10); math.Abs((up.X-o.X)*b.along.X+(up.Y-o.Y)*b.along.Y) > 1e-9 || up.Y >= o.Y {
		t.Errorf("a row in is from %v to %v", o, up)
	}
}
