package sight

import (
	"flag"
	"math"
	"math/rand/v2"
	"strings"
	"testing"
)

var edges = flag.Int("edges", 8, "that are made up; docs/sight.md says of how many its table is")

func TestEdges(t *testing.T) {
	var numbers, depths, shares, places, whole, fibres, grades tally
	for i := *first; i < *first+*edges; i++ {
		r := rand.New(rand.NewPCG(19, uint64(i)))
		g := drawnRagged(r, 15)
		p := g.picture(r)
		e, err := p.LookAtEdge(g.long, nil)
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
		"no edge was found": func() (Edge, error) { return plain.LookAtEdge(100, nil) },
		"how long":          func() (Edge, error) { return p.LookAtEdge(math.NaN(), nil) },
		"two ends":          func() (Edge, error) { return p.LookAtEdge(100, []Point{{0, 0}}) },
		"from nearer":       func() (Edge, error) { return p.LookAtEdge(100, []Point{{0.5, 0.5}, {0.51, 0.5}}) },
		"hardly anything":   func() (Edge, error) { return p.LookAtEdge(100, []Point{{0, 0.001}, {1, 0.001}}) },
		"too small":         func() (Edge, error) { return Picture{100, 100, make([]uint8, 40000)}.LookAtEdge(100, nil) },
	} {
		if _, err := read(); err == nil || !strings.Contains(err.Error(), want) {
			t.Errorf("%v, want %q", err, want)
		}
	}
	// Ends that lie anywhere, and lengths of any size, are read or refused.
	for range 60 {
		ends := []Point{{3*r.Float64() - 1, 3*r.Float64() - 1}, {3*r.Float64() - 1, 3*r.Float64() - 1}}
		e, err := p.LookAtEdge(math.Pow(10, 8*r.Float64()-3), ends)
		if err == nil && !(e.Share >= 0 && e.Share <= 1+1e-9) {
			t.Errorf("%v: %+v", ends, e)
		}
	}
}
