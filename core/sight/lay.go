package sight

import (
	"math"
	"slices"
)

// A lie is where a tooth lies against where its number says: so much further on, in
// pitches, and out, in radii of the rim.
type lie struct{ on, out float64 }

// tooth is what the picture shows from one gap to the next, a pixel to a column and to a
// row unless it is large: the strip that the teeth were counted in is coarser, and half a
// pixel is a degree of a fine tooth.
func (r reading) tooth(f faceSearch, k int, at lie) [][3]float32 {
	out := make([][3]float32, f.columns*f.rows)
	for u := range f.columns {
		sin, cos := math.Sincos(r.direction(r.first + float64(k) + at.on + float64(u)/float64(f.columns)))
		for j, radius := range f.radius {
			radius += at.out
			at := r.rim.plane.point(radius*cos, radius*sin)
			if !(at.X >= 0 && at.Y >= 0 && at.X < float64(r.picture.Wide-1) && at.Y < float64(r.picture.High-1)) {
				continue
			}
			x, y := int(at.X), int(at.Y)
			out[u*f.rows+j] = r.picture.mixed(x, y, float32(at.X-float64(x)), float32(at.Y-float64(y)))
		}
	}
	return out
}

// whole are the teeth that are like the others and have such neighbours.
func (r reading) whole(odd oddTeeth) (out []int) {
	off := map[int]bool{}
	for _, k := range slices.Concat(odd.gone, odd.short, odd.bent) {
		off[k], off[(k+1)%r.teeth], off[(k+r.teeth-1)%r.teeth] = true, true, true
	}
	for k := range r.teeth {
		if !off[k] {
			out = append(out, k)
		}
	}
	return out
}

// What a tooth is laid onto: so many before it, about, once there are as many; and so far
// off at most, in pitches along the rim and in rows across it.
const (
	laidOnto         = 4
	laidOff, laidOut = 0.08, 2
)

// laid is where teeth lie, so that each looks as those before it do. Where their axis is
// not where it was taken for they slide along the rim and across it, all the way round;
// so does what a light from one side shows of them, but less.
func (r reading) laid(f faceSearch, whole []int) []lie {
	if len(whole) == 0 {
		return nil
	}
	reach := max(2, int(laidOff*float64(f.columns)))
	rows := f.between(0.35, 1, 0)
	var before, seen [][3]float32
	unlike := func(du, dj int) (sum float64) {
		for u := range f.columns {
			here, there := u*f.rows, (u+du+f.columns)%f.columns*f.rows
			for _, j := range rows {
				a, b := before[here+j], seen[there+min(f.rows-1, max(0, j+dj))]
				d0, d1, d2 := a[0]-b[0], a[1]-b[1], a[2]-b[2]
				sum += float64(d0*d0 + d1*d1 + d2*d2)
			}
		}
		return sum
	}
	at := lie{}
	columns, row := float64(f.columns), f.radius[1]-f.radius[0]
	along, across := make([]float64, len(whole)), make([]float64, len(whole)) // steps, in pitches
	for i := range len(whole) + laidOnto {
		n := i % len(whole)
		seen = r.tooth(f, whole[n], at)
		if i == 0 {
			before = seen
			continue
		}
		du, _ := lowest(reach, func(d int) float64 { return unlike(d, 0) })
		dj, out := lowest(laidOut, func(d int) float64 { return unlike(du, d) })
		_, on := lowest(1, func(d int) float64 { return unlike(du+d, dj) })
		along[n], across[n] = (float64(du)+on)/columns, out/columns
		at = lie{at.on + along[n], at.out + out*row}
		seen = r.tooth(f, whole[n], at)
		for j := range before {
			for k := range before[j] {
				before[j][k] += (seen[j][k] - before[j][k]) / laidOnto
			}
		}
	}
	along, across = evened(along), evened(across)
	out := make([]lie, len(whole))
	for i := range out {
		out[i] = lie{along[i], across[i] * columns * row}
	}
	return out
}

// evened is how far steps lead that are taken round a rim, about where they lead to on the
// whole. What is wrong with an axis goes once or twice round; what does not is a shadow.
func evened(steps []float64) []float64 {
	h := smooth(steps)
	h[0] = 0 // once round it is where it was
	out := make([]float64, len(steps))
	at, mean := 0.0, 0.0
	for i := range out {
		at += h.at(2 * math.Pi * float64(i) / float64(len(out)))
		out[i] = at
		mean += at / float64(len(out))
	}
	for i := range out {
		out[i] -= mean
	}
	return out
}

// lowest is which of the whole numbers to either side of nought something is least at,
// and where between them a parabola is.
func lowest(reach int, off func(d int) float64) (best int, at float64) {
	least := math.Inf(1)
	all := make([]float64, 2*reach+1)
	for i := range all {
		if all[i] = off(i - reach); all[i] < least {
			best, least = i, all[i]
		}
	}
	at = float64(best - reach)
	if best > 0 && best < 2*reach {
		a, b, c := all[best-1], all[best], all[best+1]
		at += 0.5 * (a - c) / (a - 2*b + c + 1e-9)
	}
	return best - reach, at
}

// clearlySharper is how much sharper teeth must come out over one another where they are
// laid, that what moved them was not the light.
const clearlySharper = 1.03

// sharper are the parts whose teeth were laid, where they came out clearly sharper than those
// that were not.
func sharper(parts, laid [eighths]rimPart) [eighths]rimPart {
	if sharpness(laid) > clearlySharper*sharpness(parts) {
		return laid
	}
	return parts
}

// sharpness is how much what the parts show differs from pixel to pixel.
func sharpness(parts [eighths]rimPart) (sum float64) {
	for _, p := range parts {
		for i, c := range p.c[:len(p.c)-p.rows] {
			sum += math.Pow(far(c, p.c[i+p.rows]), 2)
			if i%p.rows > 0 {
				sum += math.Pow(far(c, p.c[i-1]), 2)
			}
		}
	}
	return sum
}
