package sight

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"
)

// flatReading is that of a rim which is on the blade up to the edge that a tooth has in a
// part of its pitch, in shares of its height; so many pixels from its axis.
func flatReading(teeth int, pixels float64, on func(k int, part, share float64) bool) *reading {
	const parts, gullet, tip = 2 * across, 0.93, 1.0
	r := &reading{teeth: teeth, gullet: gullet, tip: tip, strip: strip{turns: parts * teeth, rows: 120, from: 0.9, step: 0.001}}
	r.rim.plane = plane{pixels, 0, 0, 0, pixels, 0, 0, 0, 1}
	r.on, r.edge = make([]float32, r.strip.turns*r.strip.rows), make([]float64, r.strip.turns)
	for i := range r.strip.turns {
		r.phase = append(r.phase, (float64(i)+0.5)/parts)
		for j := range r.strip.rows {
			radius := r.strip.radius(float64(j))
			r.on[i*r.strip.rows+j] = -mostLikely
			if on(i/parts, (float64(i%parts)+0.5)/parts, (radius-gullet)/(tip-gullet)) {
				r.on[i*r.strip.rows+j] = mostLikely
			}
		}
		for r.edge[i] = r.strip.from; r.on[i*r.strip.rows+min(r.strip.rows-1, r.strip.row(r.edge[i]))] > 0; {
			r.edge[i] += r.strip.step
		}
	}
	r.fold()
	r.measure()
	return r
}

// A tooth of a rim leans when its outer part stands off; it is lower when something is gone
// from it. A line of light across a tip is neither, nor is what moves all of them.
func TestOddTeeth(t *testing.T) {
	const teeth, odd = 30, 7
	leaning := func(by func(k int) float64) func(int, float64, float64) bool {
		return func(k int, part, share float64) bool {
			part -= by(k) * max(0, share)
			return share <= 0 || share <= 1 && part > 0.3+0.3*share && part < 0.8
		}
	}
	// besides is one tooth that leans by so much more than it and the others do.
	besides := func(by float64, others func(k int) float64) func(int, float64, float64) bool {
		return leaning(func(k int) float64 {
			if k == odd {
				return by + others(k)
			}
			return others(k)
		})
	}
	even := func(int) float64 { return 0 }
	uneven := func(by float64) func(int) float64 { return func(k int) float64 { return by * float64(k%3-1) } }
	round := func(k int) float64 { return 0.03 * math.Sin(2*math.Pi*float64(k)/teeth) }
	straight := leaning(even)
	// but is a straight rim with one tooth that is not on the blade everywhere it ought to be.
	but := func(on func(part, share float64) bool) func(int, float64, float64) bool {
		return func(k int, part, share float64) bool {
			return straight(k, part, share) && (k != odd || on(part, share)) && (k%2 == 0 || share < 0.98)
		}
	}
	// lying is something of a width that lies against the next tooth of one that leans.
	lying := func(width float64) func(int, float64, float64) bool {
		leans := besides(0.05, even)
		return func(k int, part, share float64) bool {
			return leans(k, part, share) || k == odd && share < 1 && part > 1-width
		}
	}
	for name, c := range map[string]struct {
		on          func(k int, part, share float64) bool
		bent, short []int
	}{
		"straight":                {straight, nil, nil},
		"a little on":             {besides(0.031, even), []int{odd}, nil},
		"a little back":           {besides(-0.034, even), []int{odd}, nil},
		"hardly":                  {besides(0.025, even), nil, nil},
		"uneven":                  {leaning(uneven(0.03)), nil, nil},
		"more than a little more": {besides(0.07, uneven(0.005)), []int{odd}, nil},
		"all round":               {leaning(round), nil, nil},
		"all round, and one":      {besides(0.05, round), []int{odd}, nil},
		"two of them":             {leaning(func(k int) float64 { return map[int]float64{odd: 0.05, odd + 1: 0.05}[k] }), []int{odd, odd + 1}, nil},
		"a shadow over some": {leaning(func(k int) float64 {
			return map[int]float64{odd - 1: 0.03, odd: 0.07, odd + 1: 0.06, odd + 2: 0.05, odd + 3: 0.03}[k]
		}), nil, nil},
		"leaning, a little beside it":   {lying(0.03), []int{odd}, nil},
		"leaning, a little more beside": {lying(0.05), nil, nil},
		"something beside it": {func(k int, part, share float64) bool {
			return straight(k, part, share) || k == odd && share < 1 && part < 0.25
		}, nil, nil},
		"lower": {but(func(_, share float64) bool { return share < 0.84 }), nil, []int{odd}},
		"lower, and leaning": {func(k int, part, share float64) bool {
			return besides(0.08, even)(k, part, share) && (k != odd || share < 0.85)
		}, []int{odd}, nil},
		"hardly lower": {func(k int, part, share float64) bool {
			return straight(k, part, share) && (k != odd || share < 0.9)
		}, nil, nil},
		"a line of light": {but(func(_, share float64) bool { return math.Abs(share-0.8) > 0.02 }), nil, nil},
		"gone":            {but(func(_, share float64) bool { return share < 0.05 }), nil, nil},
	} {
		r := flatReading(teeth, 800, c.on)
		if got := r.odd(); !slices.Equal(got.bent, c.bent) || !slices.Equal(got.short, c.short) {
			t.Errorf("%s: bent %v, short %v; want %v, %v", name, got.bent, got.short, c.bent, c.short)
		}
	}
	// In a small picture it is the pixels that count.
	for by, found := range map[float64]bool{0.05: false, 0.062: true} {
		if bent := flatReading(teeth, 300, besides(by, even)).bent(); (len(bent) == 1) != found {
			t.Errorf("by %g of a pitch of 63 pixels: bent %v", by, bent)
		}
	}
}

// In a picture as well: by turns a tooth that was bent along the rim, either way, and one
// that something is gone from. Which of them, and no other.
func TestOddTeethSeen(t *testing.T) {
	tallies := map[string]*tally{"bent": {}, "short": {}, "no other": {}}
	for i := *first + 2; i < *first+2+(*many+1)/2; i++ {
		r := rand.New(rand.NewPCG(29, uint64(i)))
		s := drawnSitter(r, 15)
		s.wide, s.high = pick(2*s.wide/3, s.wide), pick(2*s.high/3, s.high)
		odd := (r.IntN(s.teeth-3) + 2 + append(s.gone, 0)[0]) % s.teeth
		name, gone := "short", (0.2+0.2*r.Float64())*s.gullet
		s.low = map[int]float64{odd: gone}
		if i%2 == 0 {
			name, s.low, s.bent = "bent", nil, map[int]float64{odd: gone * float64(1-i%4)}
		}
		p := s.picture(r)
		b, err := p.Look(nil)
		if err != nil || b.Teeth != s.teeth {
			continue
		}
		found, others := false, 0
		made := s.seenTip(odd)
		for kind, places := range map[string][]Place{"bent": b.Bent, "short": b.Short} {
			for _, place := range places {
				near := true
				for _, tip := range b.Tips {
					seen := b.Tips[place.Tooth]
					near = near && math.Hypot(seen.X-made.X, seen.Y-made.Y) <= math.Hypot(tip.X-made.X, tip.Y-made.Y)+1e-9
				}
				if found = found || near && kind == name; !near || kind != name {
					others++
				}
			}
		}
		if a, b := tallies[name].add(found), tallies["no other"].add(others == 0); !a || !b {
			t.Logf("%d: %d teeth, one %s by %.2f of its height: found %v, and %d others", i, s.teeth, name, gone/s.gullet, a, others)
		}
	}
	for name, a := range tallies {
		t.Logf("%s: %d of %d", name, a.right, a.of)
		if a.of > 0 && a.share() < 0.6 {
			t.Error("it sees too little")
		}
	}
}
