package sight

import (
	"math"
	"math/rand/v2"
	"testing"
)

// plainFace is a wall unrolled of 240 by 24 pixels, clean and evenly lit.
func plainFace(wide, high int) face {
	f := face{wide, high, make([]float64, wide*high), make([]float64, wide*high)}
	for i := range f.light {
		f.light[i], f.red[i] = 5, 0.3
	}
	return f
}

// What is darker and redder is brown, what has a third of the light is black, and
// shadow is neither; light that falls off along a wall scorches nothing.
func TestScorched(t *testing.T) {
	for name, c := range map[string]struct {
		depth, red, fall float64
		brown, black     float64
	}{
		"hardly darker":    {0.18, 0.1, 0, 0, 0},
		"brown":            {0.22, 0.1, 0, 0.1, 0},
		"hardly redder":    {0.4, 0.055, 0, 0, 0},
		"redder":           {0.4, 0.065, 0, 0.1, 0},
		"a deep shadow":    {1.0, 0, 0, 0, 0},
		"deep brown":       {1.0, 0.1, 0, 0.1, 0},
		"black":            {1.1, 0, 0, 0, 0.1},
		"in falling light": {0.5, 0.1, 0.6, 0.1, 0},
	} {
		f := plainFace(240, 24)
		for j := range f.high {
			for i := range f.wide {
				k := j*f.wide + i
				f.light[k] -= c.fall * float64(i) / float64(f.wide)
				if i >= 96 && i < 120 {
					f.light[k], f.red[k] = f.light[k]-c.depth, f.red[k]+c.red
				}
			}
		}
		var w Wall
		w.scorched(f)
		if math.Abs(w.Brown-c.brown) > 0.005 || math.Abs(w.Black-c.black) > 0.005 {
			t.Errorf("%s: brown %.3f, black %.3f, want %g %g", name, w.Brown, w.Black, c.brown, c.black)
		}
		if scorched := c.brown+c.black > 0; scorched != (w.Spots == 1) || scorched && (w.Along[7] != 0 || w.Along[8] < 0.99 || w.Along[9] < 0.99 || w.Along[10] != 0) {
			t.Errorf("%s: %d spots, along %.2f", name, w.Spots, w.Along)
		}
	}
}

// Marks that stand out of the grain come back at their spacing, those that drown in it
// do not, and only such as lean both ways cross.
func TestMarks(t *testing.T) {
	for name, c := range map[string]struct {
		every, deep, other float64 // of those that lean the other way
		found, crossing    bool
	}{
		"none":                  {},
		"clear":                 {14.3, 0.02, 0, true, false},
		"near one another":      {4.6, 0.03, 0, true, false},
		"drowned":               {14.3, 0.0016, 0, false, false},
		"half as deep a second": {14.3, 0.02, 0.5, true, false},
		"two as good as alike":  {14.3, 0.02, 0.65, true, true},
	} {
		f := plainFace(1600, 120)
		r := rand.New(rand.NewPCG(3, 9))
		for j := range f.high {
			for i := range f.wide {
				k := j*f.wide + i
				f.light[k] += 0.03 * r.NormFloat64()
				if c.every > 0 {
					lean := 0.4 * float64(j)
					f.light[k] += c.deep * (math.Sin(2*math.Pi*(float64(i)+lean)/c.every) + c.other*math.Sin(2*math.Pi*(float64(i)-lean)/c.every+1))
				}
			}
		}
		period, sure, crossing := f.marks()
		if (period > 0) != c.found || c.found && (math.Abs(period/c.every-1) > 0.01 || sure < 0.99) || crossing != c.crossing {
			t.Errorf("%s: every %.2f, sure %.2f, crossing %v", name, period, sure, crossing)
		}
	}
}
