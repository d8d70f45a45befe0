package sight

import (
	"math"
	"testing"
)

// alikeParts are eighths of a rim whose teeth all show the same, by column and share of a
// tooth's height.
func alikeParts(f faceSearch, bench, body [3]float64, show func(u, share float64) [3]float64) (out [eighths]rimPart) {
	for o := range out {
		p := rimPart{meanTooth: newMeanTooth(f.columns, f.rows), teeth: 4, bench: bench, body: body}
		for u := range f.columns {
			for j, radius := range f.radius {
				p.c[u*f.rows+j] = show(float64(u)+0.5, (radius-f.gullet)/(f.tip-f.gullet))
			}
		}
		p.add()
		out[o] = p
	}
	return out
}

// The line is that of the face, though a shadow lies along it and the back of the tooth is
// clearer: in front of a back there is blade.
func TestClearest(t *testing.T) {
	f := faceSearch{pitch: 0.2, pixels: 1, tip: 1, size: 500, gullet: 0.94, columns: 100}
	for radius := f.gullet - 0.02; radius < 1.02; radius += 1.0 / f.size {
		f.radius = append(f.radius, radius)
	}
	f.rows = len(f.radius)
	bench, body := [3]float64{200}, [3]float64{100}
	for _, sign := range []float64{1, -1} {
		parts := alikeParts(f, bench, body, func(u, share float64) [3]float64 {
			if sign < 0 {
				u = 100 - u
			}
			face := 57 - (1-share)*0.06*f.size*math.Tan(8*math.Pi/180)
			blade := min(1, max(0, (u-28)*2)) * min(1, max(0, face+0.5-u))
			light := 200 - 100*blade
			if u > face && u < face+4 {
				light -= 8 // a shadow along the face
			}
			return [3]float64{light}
		})
		at := func(u float64) float64 { return 50 + sign*(u-50) }
		line, clear := f.clearest(parts, faceLine{foot: at(42.5), sign: sign})
		if math.Abs(line.foot-at(57)) > 1.5 || math.Abs(line.hook-8) > 4 {
			t.Errorf("%+v, where the face is at %.0f", line, at(57))
		}
		for o, v := range clear {
			if v <= 0.4 || v > 0.7 {
				t.Errorf("eighth %d shows it %.2f clearly", o, v)
			}
		}
	}
}

// Laid teeth are taken where they are more than a little sharper.
func TestSharper(t *testing.T) {
	f := faceSearch{gullet: 0.94, tip: 1, columns: 8, rows: 3, radius: []float64{0.95, 0.97, 0.99}}
	made := func(light float64) [eighths]rimPart {
		return alikeParts(f, [3]float64{}, [3]float64{}, func(u, _ float64) [3]float64 { return [3]float64{light * math.Mod(u, 3)} })
	}
	plain := made(10)
	for light, taken := range map[float64]bool{9: false, 10.1: false, 10.2: true} {
		laid := made(light)
		if got := sharper(plain, laid); (sharpness(got) == sharpness(laid)) != taken {
			t.Errorf("%g against 10: taken %v", light, !taken)
		}
	}
}
