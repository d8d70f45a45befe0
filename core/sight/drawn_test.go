package sight

import (
	"math"
	"math/rand/v2"
	"testing"
)

func TestCornerOfAPixel(t *testing.T) {
	for _, c := range []struct{ h, k, together, want float64 }{
		{0, 0, 0, 0.25}, {0, 0, 0.5, 1.0 / 3}, {0, 0, -0.5, 1.0 / 6}, // a quarter and the angle over a whole turn
		{1, -1, 0, 0.841345 * 0.158655}, {1.5, 0.5, 0, 0.933193 * 0.691462}, {5, 0.5, 0.3, 0.691462}, {0.5, 5, 0.3, 0.691462}, {-5, 1, 0.3, 0},
	} {
		if got := bothUnder(c.h, c.k, c.together); math.Abs(got-c.want) > 2e-5 {
			t.Errorf("under %v and %v, %v together: %.6f, not %.6f", c.h, c.k, c.together, got, c.want)
		}
	}
}

func TestInverted(t *testing.T) {
	m := [3][3]float64{{4, 1, -2}, {1, 5, 3}, {-2, 3, 9}}
	n, ok := inverted(m)
	for i := range m {
		for j := range m {
			sum, want := 0.0, 0.0
			for k := range m {
				sum += m[i][k] * n[k][j]
			}
			if i == j {
				want = 1
			}
			if math.Abs(sum-want) > 1e-9 || !ok {
				t.Errorf("row %d, column %d of a matrix and its inverse: %v", i, j, sum)
			}
		}
	}
	if _, ok := inverted([3][3]float64{{1, 1, 0}, {1, 1, 0}, {0, 0, 1}}); ok {
		t.Error("two rows alike have an inverse")
	}
}

// A tooth that is sampled, not computed, is found again from beside it.
func TestDrawnToothSettles(t *testing.T) {
	for name, is := range map[string]drawnTooth{
		"forward":      {0.35, -0.8, 0.6, 0.25, 8, 0, 14, 1.2},
		"backward":     {-0.1, 0.5, -0.4, 0.2, 6, -0.1, 10, 0.8},
		"off the line": {0.35, -3.2, 0, 0.25, 8, 0, 14, 1.2},
	} {
		r := rand.New(rand.NewPCG(3, 9))
		colour := func(x, y float64) [3]float64 {
			tan := math.Tan
			switch {
			case x > y*tan(is.hook) || y > x*tan(is.land):
				return [3]float64{200, 40, 10}
			case y > -is.height && x > -is.wide+y*tan(is.back):
				return [3]float64{130, 2, -3}
			}
			return [3]float64{60, -45, 6}
		}
		var pixels []pixel
		for y := -18.0; y <= 3; y++ {
			for x := -12 + y*math.Tan(is.hook); x < 3.5+y*math.Tan(is.hook); x++ {
				p := pixel{x: x, y: y}
				const samples = 300
				for range samples {
					for k, v := range colour(x-is.x+is.blur*r.NormFloat64(), y-is.y+is.blur*r.NormFloat64()) {
						p.c[k] += v / samples
					}
				}
				pixels = append(pixels, p)
			}
		}
		f := faceSearch{pitch: 0.1, size: 600, gullet: 1 - 30.0/600, tip: 1}
		began := f.begun(pixels, faceLine{hook: is.hook * 180 / math.Pi})
		if far := is.x < -3; far != (len(began) == 2) || far && began[1].x != -3 {
			t.Errorf("%s: begun from %+v", name, began)
		}
		if len(began) == 2 {
			continue
		}
		got, off := f.drawnAs(pixels, faceLine{hook: is.hook*180/math.Pi + 5})
		if math.Abs(got.hook-is.hook) > 0.012 || math.Hypot(got.x-is.x, got.y-is.y) > 0.4 || math.Abs(got.wide-is.wide) > 0.7 || math.Abs(got.back-is.back) > 0.1 || math.Abs(got.height-is.height) > 0.7 || math.Abs(got.blur-is.blur) > 0.15 || off > 60 {
			t.Errorf("%s: %+v, %.0f off, of %+v", name, got, off, is)
		}
	}
}

// A tip that looks like the bench counts against a tooth, the more the more it does.
func TestTipThatLooksLikeBench(t *testing.T) {
	d := drawnTooth{hook: 0.2, land: 0.25, wide: 7, back: 0.1, height: 10, blur: 1}
	for off, want := range map[float64]float64{0: 3, 8: 1.1, -8: 1.1, 40: 0.1} {
		var pixels []pixel
		for y := -18.0; y <= 3; y++ {
			for x := -16.0; x < 5; x++ {
				blade := bothUnder(y*math.Sin(d.hook)-x*math.Cos(d.hook), x*math.Sin(d.land)-y*math.Cos(d.land), -math.Sin(d.hook+d.land))
				tip := blade * under((x+d.wide)*math.Cos(d.back)-y*math.Sin(d.back)) * under(y+d.height)
				pixels = append(pixels, pixel{x, y, [3]float64{0, off*tip - 20*(blade-tip), 0}})
			}
		}
		if got := d.off(pixels); math.Abs(got-want) > 0.2 {
			t.Errorf("a tip %g levels from the bench: %.2f off, not %.1f", off, got, want)
		}
	}
}

// What is seen faintly does not draw a hook far from the line's.
func TestHowFarAHookGoes(t *testing.T) {
	is := drawnTooth{hook: 0.1, land: 0.25, wide: 6, back: 0.05, height: 12, blur: 1.3}
	var pixels []pixel
	for y := -18.0; y <= 3; y++ {
		for x := -12 + y*math.Tan(is.hook); x < 3.5+y*math.Tan(is.hook); x++ {
			blade := bothUnder((y*math.Sin(is.hook)-x*math.Cos(is.hook))/is.blur, (x*math.Sin(is.land)-y*math.Cos(is.land))/is.blur, -math.Sin(is.hook+is.land))
			pixels = append(pixels, pixel{x, y, [3]float64{20 * blade, 0, 0}})
		}
	}
	f := faceSearch{pitch: 0.1, size: 600, gullet: 1 - 30.0/600, tip: 1}
	for _, from := range []float64{0.1, 0.5} {
		start := is
		start.hook += from
		got, _, ok := start.settle(pixels, f.steps(1), 8)
		if went := start.hook - got.hook; !ok || went < 0.05 || went > hookMay+0.03 {
			t.Errorf("from %.2f off it goes %.3f", from, went)
		}
	}
}

// What has no direction once or twice round is not kept: a drift, and a shadow's jump.
func TestEvened(t *testing.T) {
	const n = 60
	steps := make([]float64, n)
	for i := range steps {
		steps[i] = 0.01*math.Cos(2*math.Pi*float64(i)/n) + 0.003
	}
	steps[20], steps[40] = 0.09, -0.07
	got := evened(steps)
	for i, v := range got {
		// The sum of cosines, about its middle.
		want := 0.01 * math.Sin(math.Pi*(2*float64(i)+1)/n) / (2 * math.Sin(math.Pi/n))
		if math.Abs(v-want) > 0.003 {
			t.Errorf("tooth %d lies %.4f on, not %.4f", i, v, want)
		}
	}
}

func TestLowest(t *testing.T) {
	for want, off := range map[float64]func(d int) float64{
		1.3: func(d int) float64 { return math.Pow(float64(d)-1.3, 2) }, -2: func(d int) float64 { return float64(d) },
	} {
		if best, at := lowest(2, off); math.Abs(at-want) > 1e-6 || best != int(math.Round(want)) {
			t.Errorf("least at %d, %g; not at %g", best, at, want)
		}
	}
}

func TestWeightedMedian(t *testing.T) {
	for _, c := range []struct {
		values, weights []float64
		want            float64
	}{{[]float64{3, 1, 2}, []float64{1, 1, 1}, 2}, {[]float64{3, 1, 2}, []float64{5, 1, 1}, 3}, {[]float64{9, 1}, []float64{1, 1}, 1}, {nil, nil, 0}} {
		if got := weightedMedian(c.values, c.weights); got != c.want {
			t.Errorf("%v by %v: %v, not %v", c.values, c.weights, got, c.want)
		}
	}
}
