package groove

import (
	"math"

	"corte/core/blade"
	"corte/core/fault"
	"corte/core/measure"
)

// Passes is how a groove is cut with one blade: so many passes, the fence moved
// by a step between them, each overlapping the one before. Model section 11.
func Passes(width, kerf, overlap measure.Length) (passes int, step measure.Length, err error) {
	switch {
	case !(kerf > 0) || !(width >= kerf):
		return 0, 0, fault.At("width", "a groove of %v is narrower than the kerf of %v", width, kerf)
	case !(overlap >= 0) || overlap >= kerf:
		return 0, 0, fault.At("width", "an overlap of %v is as wide as a kerf of %v", overlap, kerf)
	case width == kerf:
		return 1, 0, nil
	case !((width-kerf)/(kerf-overlap) < mostPasses):
		return 0, 0, fault.At("width", "a groove of %v takes over %d passes with a kerf of %v", width, mostPasses, kerf)
	}
	passes = int(math.Ceil(float64((width-kerf)/(kerf-overlap))-1e-9)) + 1
	return passes, (width - kerf) / measure.Length(passes-1), nil
}

// mostPasses is more than anybody makes; what wants more is another machine's.
const mostPasses = 300

// Overlap is how much a pass takes in of the one before, so that no fin is left
// where the fence stands a little off.
const Overlap measure.Length = 0.4

// A Pass is one position of the fence. Fence is from the fence to the near side
// of the blade.
type Pass struct {
	Fence  measure.Length
	Centre measure.Length // of the kerf, from the middle of the groove
	Height measure.Length
}

// Stepped lays the passes of a groove whose near wall is edge from the fence:
// the near wall first, the fence moved away from the blade from pass to pass,
// so that the work's edge stays on the fence and the last pass makes the width.
func Stepped(edge, width, kerf, depth measure.Length) ([]Pass, error) {
	n, step, err := Passes(width, kerf, Overlap)
	if err != nil {
		return nil, err
	}
	out := make([]Pass, n)
	for i := range out {
		at := step * measure.Length(i)
		out[i] = Pass{Fence: edge + at, Centre: at + (kerf-width)/2, Height: depth}
	}
	return out, nil
}

// BottomOf is the bottom that passes of a blade leave together across a groove,
// in n points from wall to wall: x from the middle, and what stands above the
// deepest point. What no pass has cut stands at its full depth.
func BottomOf(b blade.Blade, width measure.Length, passes []Pass, n int) [][2]measure.Length {
	deepest := measure.Length(0)
	for _, p := range passes {
		deepest = max(deepest, p.Height)
	}
	out := make([][2]measure.Length, n)
	for i := range out {
		x := width * measure.Length(float64(i)/float64(n-1)-0.5)
		z := deepest
		for _, p := range passes {
			if off := x - p.Centre; math.Abs(off.Mm()) <= b.Kerf.Mm()/2+1e-9 {
				z = min(z, deepest-p.Height+Bottom(b, max(-b.Kerf/2, min(b.Kerf/2, off))))
			}
		}
		out[i] = [2]measure.Length{x, z}
	}
	return out
}
