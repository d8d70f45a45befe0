package sight

import (
	"errors"
	"flag"
	"image"
	"image/png"
	"math"
	"math/rand/v2"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"
)

// long asks for full pictures and larger sets; without it a test renders a few small ones.
var long = os.Getenv("CORTE_LONG") != ""

// pick is the first value for a long run, else the second.
func pick[T any](forLong, short T) T {
	if long {
		return forLong
	}
	return short
}

var (
	many  = flag.Int("blades", pick(5, 4), "that are made up; docs/sight.md says of how many its table is")
	first = flag.Int("first", 0, "of them")
	keep  = flag.String("keep", "", "a folder for the pictures of those whose teeth are counted wrong")
)

// kept writes a picture down to be looked at.
func kept(t *testing.T, name string, p Picture) {
	if *keep == "" {
		return
	}
	f, err := os.Create(filepath.Join(*keep, name))
	if err != nil {
		t.Fatal(err)
	}
	defer f.Close()
	if err := png.Encode(f, &image.RGBA{Pix: p.Pix, Stride: 4 * p.Wide, Rect: image.Rect(0, 0, p.Wide, p.High)}); err != nil {
		t.Fatal(err)
	}
}

// A tally is how often something was read right.
type tally struct{ right, of int }

func (a *tally) add(right bool) bool {
	a.of++
	if right {
		a.right++
	}
	return right
}

func (a tally) share() float64 { return float64(a.right) / float64(max(1, a.of)) }

func TestBlades(t *testing.T) {
	var teeth, hooks, sureHooks, sides, gone, none, straight, groups, slots, bores tally
	wrongSure := 0
	var spent time.Duration
	for i := *first; i < *first+*many; i++ {
		r := rand.New(rand.NewPCG(17, uint64(i)))
		s := drawnSitter(r, 15)
		p := s.picture(r)
		began := time.Now()
		b, err := p.Look(nil)
		spent += time.Since(began)
		if !teeth.add(err == nil && b.Teeth == s.teeth) {
			t.Logf("%d: %d teeth of %d, %.2f sure, %v", i, b.Teeth, s.teeth, b.TeethSure, err)
			if b.TeethSure >= 0.8 {
				wrongSure++
			}
			kept(t, "wrong.png", p)
			continue
		}
		hook := hooks.add(math.Abs(b.Hook-s.hook) <= 2)
		if b.HookSure >= 0.6 {
			sureHooks.add(hook)
		}
		sides.add(b.Clockwise == s.clockwise)
		if !hook {
			t.Logf("%d: a hook of %.1f for %.0f, %.2f sure", i, b.Hook, s.hook, b.HookSure)
		}
		if len(s.gone) > 0 {
			gone.add(len(b.Missing) == len(s.gone))
		} else {
			none.add(len(b.Missing) == 0)
		}
		if !straight.add(len(b.Bent) == 0) {
			t.Logf("%d: bent %v of %d teeth", i, b.Bent, s.teeth)
		}
		groups.add(b.Group == s.group)
		slots.add(b.Slots == s.slots)
		bores.add(math.Abs(b.BoreRatio/(s.bore/s.diameter)-1) < 0.03)
		if len(b.Tips) != s.teeth || len(b.Rim) != 72 {
			t.Errorf("%d: %d tips, %d places of the rim", i, len(b.Tips), len(b.Rim))
		}
	}
	for name, a := range map[string]tally{"teeth": teeth, "hook within 2 degrees": hooks, "of those at least 0.6 sure": sureHooks, "way the faces look": sides, "missing found": gone, "none missing": none, "none bent": straight, "groups": groups, "slots": slots, "bores within 3 %": bores} {
		t.Logf("%s: %d of %d, %.1f %%", name, a.right, a.of, 100*a.share())
	}
	t.Logf("wrong and 0.8 sure: %d; %v each", wrongSure, spent/time.Duration(*many))
	// What a few may bring; docs/sight.md has the shares of many.
	if teeth.share() < 0.9 || wrongSure > *many/100 || hooks.share() < 0.75 || gone.share() < 0.85 && gone.of > 0 || none.share() < 0.9 || straight.share() < 0.9 || groups.share() < 0.85 || bores.share() < 0.9 {
		t.Error("it sees too little")
	}
}

// Three places of the rim will do where somebody taps them.
func TestTappedRim(t *testing.T) {
	r := rand.New(rand.NewPCG(17, 2))
	s := drawnSitter(r, 8)
	s.wide, s.high = 1200, 900
	p := s.picture(r)
	whole, err := p.Look(nil)
	if err != nil {
		t.Fatal(err)
	}
	b, err := p.Look(p.shares(whole.Rim[3], whole.Rim[30], whole.Rim[55]))
	if err != nil || b.Teeth != s.teeth || math.Abs(b.BoreRatio-whole.BoreRatio) > 0.002 {
		t.Errorf("tapped: %d teeth of %d, %v", b.Teeth, s.teeth, err)
	}
	if _, err := p.Look([]Point{{0.1, 0.1}, {0.2, 0.2}, {0.3, 0.3}}); err == nil || !strings.Contains(err.Error(), "are in a line") {
		t.Errorf("three places in a line: %v", err)
	}
	// Where each tooth is told to be, the blade ends.
	for k, tip := range whole.Tips {
		if d := math.Hypot(tip.X-whole.Tips[(k+1)%len(whole.Tips)].X, tip.Y-whole.Tips[(k+1)%len(whole.Tips)].Y); math.Abs(d/(s.share*900*math.Pi/float64(s.teeth))-1) > 0.15 {
			t.Errorf("from tooth %d to the next are %.1f pixels", k, d)
		}
	}
}

func TestWhatCannotBeLookedAt(t *testing.T) {
	plain := Picture{300, 200, make([]uint8, 4*300*200)}
	if _, err := plain.Look(nil); !errors.Is(err, ErrNoBlade) {
		t.Errorf("nothing at all: %v", err)
	}
	r := rand.New(rand.NewPCG(1, 1))
	noise := Picture{300, 200, make([]uint8, 4*300*200)}
	for i := range noise.Pix {
		noise.Pix[i] = uint8(r.IntN(256))
	}
	if b, err := noise.Look(nil); err == nil && b.TeethSure > 0.3 {
		t.Errorf("noise has %d teeth, %.2f sure", b.Teeth, b.TeethSure)
	}
	for want, p := range map[string]Picture{"too small": {100, 100, make([]uint8, 40000)}, "is too large": {10000, 10000, nil}, "bytes and not": {200, 200, nil}} {
		if _, err := p.Look(nil); err == nil || !strings.Contains(err.Error(), want) {
			t.Errorf("%s: %v", want, err)
		}
	}
}

// The circle through tilted places is set right, and the axis found again.
func TestPlanes(t *testing.T) {
	seen := plane{400, 30, 700, -20, 380, 500, 0.05, -0.03, 1}
	var rim []Point
	for k := range 90 {
		s, c := math.Sincos(float64(k) * math.Pi / 45)
		rim = append(rim, seen.point(c, s))
	}
	flat, ok := ellipse(rim)
	if !ok {
		t.Fatal("no ellipse")
	}
	for _, p := range rim {
		if x, y := flat.inverse(p.X, p.Y); math.Abs(math.Hypot(x, y)-1) > 1e-6 {
			t.Fatalf("a place of the rim lies %g from the middle", math.Hypot(x, y))
		}
	}
	// About the axis, places at half a radius lie at half a radius.
	x, y := flat.inverse(seen.at(0, 0))
	right := flat.about(x, y)
	for k := range 12 {
		s, c := math.Sincos(float64(k) * math.Pi / 6)
		px, py := seen.at(0.5*c, 0.5*s)
		if x, y := right.inverse(px, py); math.Abs(math.Hypot(x, y)-0.5) > 1e-6 {
			t.Errorf("half a radius is %g", math.Hypot(x, y))
		}
		px, py = seen.at(c, s)
		if x, y := right.inverse(px, py); math.Abs(math.Hypot(x, y)-1) > 1e-6 {
			t.Errorf("the rim is at %g", math.Hypot(x, y))
		}
	}
	if f := seen.flattened(); !(f > 0.8 && f < 0.9) {
		t.Errorf("flattened to %g", f)
	}
	if c, ok := through([3]Point{{3, 1}, {1, 3}, {-1, 1}}); !ok || math.Abs(c.x-1)+math.Abs(c.y-1)+math.Abs(c.r-2) > 1e-9 {
		t.Errorf("a circle %+v", c)
	}
}

// A gullet that is deeper after every fifth tooth makes groups; one here and there,
// slots that open in some, and steps hardly to be seen make none.
func TestGroups(t *testing.T) {
	made := func(depth func(k int) float64) *reading {
		r := &reading{teeth: 40, gullet: 0.93, tip: 1}
		for k := range 40 {
			r.depths, r.lowest = append(r.depths, depth(k)), append(r.lowest, depth(k))
		}
		return r
	}
	for name, c := range map[string]struct {
		depth func(k int) float64
		want  int
	}{
		"alike":         {func(int) float64 { return 0.93 }, 0},
		"every fifth":   {func(k int) float64 { return 0.93 - 0.02*float64((k%5+3)/7) }, 5},
		"every fourth":  {func(k int) float64 { return 0.93 - 0.02*float64((k%4+1)/4) }, 4},
		"hardly deeper": {func(k int) float64 { return 0.93 - 0.008*float64((k%5+3)/7) }, 0},
		"eight slots":   {func(k int) float64 { return 0.93 - 0.1*float64((k%5+3)/7) }, 0},
		"one alone":     {func(k int) float64 { return 0.93 - 0.02*float64((k+1)/40) }, 0},
	} {
		if got := made(c.depth).groups(); got != c.want {
			t.Errorf("%s: groups of %d, want %d", name, got, c.want)
		}
	}
}

// Twelve million pixels on one core.
func BenchmarkLook(b *testing.B) {
	r := rand.New(rand.NewPCG(17, 4))
	s := drawnSitter(r, 15)
	s.wide, s.high = 4000, 3000
	p := s.picture(r)
	b.ReportAllocs()
	for b.Loop() {
		if _, err := p.Look(nil); err != nil {
			b.Fatal(err)
		}
	}
}

// Whatever is in a picture, and wherever it is tapped, it is answered.
func TestOddPictures(t *testing.T) {
	for seed := range uint64(pick(40, 12)) {
		r := rand.New(rand.NewPCG(9, seed))
		p := Picture{160 + r.IntN(120), 160 + r.IntN(120), nil}
		p.Pix = make([]uint8, 4*p.Wide*p.High)
		// Discs of a few colours over one another, some with something like teeth.
		for range 1 + r.IntN(5) {
			cx, cy, radius, teeth, light := r.IntN(p.Wide), r.IntN(p.High), 10+140*r.Float64(), float64(r.IntN(60)), uint8(r.IntN(256))
			for i := range p.Wide * p.High {
				dx, dy := float64(i%p.Wide-cx), float64(i/p.Wide-cy)
				if math.Hypot(dx, dy) < radius*(1+0.06*math.Sin(teeth*math.Atan2(dy, dx))) {
					p.Pix[4*i], p.Pix[4*i+1], p.Pix[4*i+2] = light, light, 255-light
				}
			}
		}
		b, err := p.Look(nil)
		if err == nil && (b.Teeth < leastTeeth || math.IsNaN(b.Hook) || len(b.Tips) != b.Teeth) || err != nil && !errors.Is(err, ErrNoBlade) {
			t.Errorf("%d: %+v, %v", seed, b, err)
		}
		tap := func() Point { return Point{1e9 * r.NormFloat64(), 1e9 * r.NormFloat64()} }
		if _, err := p.Look([]Point{tap(), tap(), tap()}); err == nil {
			t.Errorf("%d: tapped far away, a blade", seed)
		}
	}
}

// shares are places of a picture as somebody taps them.
func (p Picture) shares(all ...Point) (out []Point) {
	for _, at := range all {
		out = append(out, Point{at.X / float64(p.Wide), at.Y / float64(p.High)})
	}
	return out
}
