package sight

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/optimize"
)

// A drawnTooth is the end of a tooth as a camera sees it: a straight face, a land
// behind the tip, a tip of another colour than the plate that ends in a straight line
// behind and at a height below, and everything blurred. Lengths are in pixels, angles
// in radians; x is along the rim towards the gap, y outwards, from where the tip was
// thought to be.
type drawnTooth struct {
	hook, x, y, land         float64
	wide, back, height, blur float64 // of the tip; back is the angle of its end behind
}

// asDrawn and values are the same as numbers to be searched over.
func asDrawn(v []float64) drawnTooth {
	return drawnTooth{v[0], v[1], v[2], v[3], v[4], v[5], v[6], v[7]}
}

func (d drawnTooth) values() [8]float64 {
	return [8]float64{d.hook, d.x, d.y, d.land, d.wide, d.back, d.height, d.blur}
}

// bounded is the nearest tooth that there could be, and how far from it this one is.
func (d drawnTooth) bounded() (drawnTooth, float64) {
	off := 0.0
	within := func(v *float64, least, most, scale float64) {
		is := max(least, min(most, *v))
		off += math.Pow((*v-is)/scale, 2)
		*v = is
	}
	within(&d.blur, 0.4, 3, 0.5)
	within(&d.land, 0, 0.9, 0.2)
	within(&d.wide, 0.5, 40, 2)
	within(&d.height, 1, 60, 2)
	within(&d.hook, -0.5, 0.85, 0.2)
	within(&d.back, d.hook-0.5, d.hook+0.9, 0.2)
	return d, off
}

// A pixel is a place by a face and what is seen there.
type pixel struct {
	x, y float64
	c    [3]float64
}

// levels are how much light and the two differences of colours count in a square.
var levels = [3]float64{0.6, 1, 2}

// off is how far what is drawn is from what is seen, in squared levels: bench, tip and
// plate have whatever colours fit best.
func (d drawnTooth) off(pixels []pixel) float64 {
	d, beyond := d.bounded()
	sa, ca := math.Sincos(d.hook)
	sl, cl := math.Sincos(d.land)
	sb, cb := math.Sincos(d.back)
	together := -math.Sin(d.hook + d.land)
	var cover [3][3]float64
	var seen [3][3]float64
	total := 0.0
	for i := range pixels {
		p := &pixels[i]
		x, y := p.x-d.x, p.y-d.y
		blade := bothUnder((y*sa-x*ca)/d.blur, (x*sl-y*cl)/d.blur, together)
		tip := blade * under(((x+d.wide)*cb-y*sb)/d.blur) * under((y+d.height)/d.blur)
		of := [3]float64{1 - blade, tip, blade - tip}
		for j, a := range of {
			for k, b := range of {
				cover[j][k] += a * b
			}
			for k, c := range p.c {
				seen[j][k] += a * c
			}
		}
		for k, c := range p.c {
			total += levels[k] * c * c
		}
	}
	for k := range cover {
		cover[k][k] += 0.05 // or what covers nothing would have any colour
	}
	inverse, ok := inverted(cover)
	if !ok {
		return math.Inf(1)
	}
	for c, w := range levels {
		for j := range seen {
			for k := range seen {
				total -= w * seen[j][c] * inverse[j][k] * seen[k][c]
			}
		}
	}
	colour := func(j int) (out [3]float64) {
		for k := range seen {
			for c := range out {
				out[c] += inverse[j][k] * seen[k][c]
			}
		}
		return out
	}
	return total/float64(len(pixels)) + beyond + tipAsBench*math.Exp(-far(colour(0), colour(1))/likeBench)
}

// A tip that looks like the bench could as well not be there, and its end behind be the
// face: so much it counts, in squared levels, and within so many levels.
const tipAsBench, likeBench = 3, 8.0

// inverted is the inverse of a matrix that is its own transpose.
func inverted(m [3][3]float64) (out [3][3]float64, ok bool) {
	minor := func(a, b, c, d int) float64 { return m[a][b]*m[c][d] - m[a][d]*m[c][b] }
	det := m[0][0]*minor(1, 1, 2, 2) - m[0][1]*minor(1, 0, 2, 2) + m[0][2]*minor(1, 0, 2, 1)
	if det == 0 {
		return out, false
	}
	out[0] = [3]float64{minor(1, 1, 2, 2) / det, -minor(0, 1, 2, 2) / det, minor(0, 1, 1, 2) / det}
	out[1] = [3]float64{out[0][1], minor(0, 0, 2, 2) / det, -minor(0, 0, 1, 2) / det}
	out[2] = [3]float64{out[0][2], out[1][2], minor(0, 0, 1, 1) / det}
	return out, true
}

// under is the share of a normal distribution below a value, of a table: it is asked for
// hundreds of thousands of times.
func under(x float64) float64 {
	at := (x + mostUnder) * underEach
	if at <= 0 {
		return 0
	}
	k := int(at)
	if k >= len(unders)-1 {
		return 1
	}
	part := at - float64(k)
	return (1-part)*unders[k] + part*unders[k+1]
}

const mostUnder, underEach = 5, 64

var unders = func() (out [2*mostUnder*underEach + 1]float64) {
	for i := range out {
		out[i] = 0.5 * math.Erfc((mostUnder-float64(i)/underEach)/math.Sqrt2)
	}
	return out
}()

// bothUnder is that of two that go together so much below two values: how much of a
// pixel lies behind both sides of a corner. Drezner and Wesolowsky's integral, by
// Gauss's six points.
func bothUnder(h, k, together float64) float64 {
	const far = 3.2
	switch {
	case h < -far || k < -far:
		return 0
	case h > far:
		return under(k)
	case k > far:
		return under(h)
	}
	angle, sum := math.Asin(together), 0.0
	for i, x := range [3]float64{0.9324695142, 0.6612093865, 0.2386191861} {
		for _, x := range [2]float64{1 - x, 1 + x} {
			s := math.Sin(angle * x / 2)
			sum += [3]float64{0.1713244924, 0.3607615730, 0.4679139346}[i] * math.Exp((s*h*k-(h*h+k*k)/2)/(1-s*s))
		}
	}
	return max(0, min(1, sum*angle/(4*math.Pi)+under(h)*under(k)))
}

// What of a tooth is drawn: from a share of its height up, so far in front of the face
// and behind it, and over the tip, in pixels, in at most so many rows.
const (
	drawnFrom, drawnRows               = 0.55, 14
	drawnFront, drawnBehind, drawnOver = 3.5, 12.0, 3.0
)

// by are the pixels of a part by a line.
func (f faceSearch) by(p *rimPart, line faceLine) (out []pixel) {
	height := f.tip - f.gullet
	sin, cos := math.Sincos(line.hook * math.Pi / 180)
	step := (f.radius[1] - f.radius[0]) * f.size
	every := max(1, int((1-drawnFrom)*height*f.size/step/drawnRows))
	half := float64(f.columns) / 2
	for row := 0; row < f.rows; row += every {
		radius := f.radius[row]
		if radius-f.gullet < drawnFrom*height || (radius-f.tip)*f.size > drawnOver {
			continue
		}
		for u := int(line.foot - half); u < int(line.foot+half); u++ {
			s, c := math.Sincos(line.sign * (float64(u) - line.foot) / float64(f.columns) * f.pitch)
			x, y := radius*s*f.size, (radius*c-f.tip)*f.size
			if front := x*cos - y*sin; front < drawnFront && front > -min(drawnBehind, 0.3*f.pitch*f.size) {
				out = append(out, pixel{x, y, p.c[(u%f.columns+f.columns)%f.columns*f.rows+row]})
			}
		}
	}
	return out
}

// A shapeless start would settle on the border between tip and plate: these widths of a
// tip, in pitches, and heights, in teeth's, are tried first, with an end behind that is
// radial or goes with the face.
var (
	tipWidths  = [3]float64{0.07, 0.12, 0.18}
	tipHeights = [4]float64{0.3, 0.4, 0.5, 0.65}
)

// begun are the teeth from which the fitting of a part begins: at the line, and where that
// looks better some pixels off it. Where a face is off the line, what is drawn as its tip
// takes the bench's colour, and its end behind the face's place.
func (f faceSearch) begun(pixels []pixel, line faceLine) []drawnTooth {
	hook, height := line.hook*math.Pi/180, (f.tip-f.gullet)*f.size
	best := func(x, y float64) (start drawnTooth, least float64) {
		least = math.Inf(1)
		for _, wide := range tipWidths {
			for _, back := range [2]float64{0, hook} {
				for _, high := range tipHeights {
					d := drawnTooth{hook: hook, x: x, y: y, land: 0.25, wide: wide * f.pitch * f.size, back: back, height: high * height, blur: 1.3}
					if off := d.off(pixels); off < least {
						least, start = off, d
					}
				}
			}
		}
		return start, least
	}
	at, off := best(0, 0)
	all, least := []drawnTooth{at}, clearlyBetter*off
	for _, x := range [3]float64{-3, 0, 3} {
		for _, y := range [2]float64{0, 3} {
			if at, off := best(x, y); off < least {
				least, all = off, append(all[:1], at)
			}
		}
	}
	return all
}

// clearlyBetter is the share of how far off a tooth at the line is, from which one off it
// is begun from as well.
const clearlyBetter = 0.5

// drawnAs is the tooth that looks most like some pixels by a line, and how far off it is:
// without end where there is none.
func (f faceSearch) drawnAs(pixels []pixel, line faceLine) (best drawnTooth, least float64) {
	least = math.Inf(1)
	for _, start := range f.begun(pixels, line) {
		if d, off, ok := start.settle(pixels, f.steps(1), 8); ok && off < least {
			least, best = off, d
		}
	}
	return best, least
}

// steps are how far what is drawn may well be from where it begins.
func (f faceSearch) steps(share float64) drawnTooth {
	height := (f.tip - f.gullet) * f.size
	return drawnTooth{hook: 0.08 * share, x: share, y: share, land: 0.1 * share, wide: 2 * share, back: 0.1 * share, height: 0.1 * height * share, blur: 0.3 * share}
}

// How much it counts in squared levels, a step away from where it begins; and how far
// from there the hook may be, in radians, before it counts for more and more.
const (
	stepCounts = 0.5
	hookMay    = 0.14
	hookCounts = 1250
)

// settle changes the first few values of a tooth until it looks as much like some pixels
// as it can, and says how far off it still is.
func (d drawnTooth) settle(pixels []pixel, steps drawnTooth, values int) (drawnTooth, float64, bool) {
	at, by, first := d.values(), steps.values(), 1.0
	moved := func(v []float64) drawnTooth {
		to := at
		for i, x := range v {
			to[i] += x * by[i]
		}
		return asDrawn(to[:])
	}
	off := func(v []float64) float64 {
		to := moved(v)
		sum := to.off(pixels) + hookCounts*math.Pow(max(0, math.Abs(to.hook-d.hook)-hookMay), 2)
		for _, x := range v {
			sum += stepCounts * x * x
		}
		return sum / first
	}
	start := make([]float64, values)
	first = off(start)
	// An error says that no step leads further down: that is where it ends.
	best, _ := optimize.Minimize(optimize.Problem{Func: off, Grad: func(grad, v []float64) {
		const step = 1e-3
		here := off(v)
		for i, x := range v {
			v[i] = x + step
			grad[i] = (off(v) - here) / step
			v[i] = x
		}
	}}, start, &optimize.Settings{MajorIterations: 40, Converger: &optimize.FunctionConverge{Absolute: 1e-3, Relative: 1e-3, Iterations: 4}}, &optimize.BFGS{})
	if best == nil || math.IsNaN(best.F) {
		return d, 0, false
	}
	d, _ = moved(best.X).bounded()
	return d, best.F * first, true
}

// partClear is how clearly a part must show the faces, of the clearest.
const partClear = 0.5

// hooks are those of the teeth, in degrees, that look most like the parts that show
// their faces clearly, and how much each counts. What a tip looks like is the same all
// round: once every part has been drawn by itself, the middle one of every value of it
// is kept, and hook and place are settled again.
func (f faceSearch) hooks(parts [eighths]rimPart, line faceLine, clear [eighths]float64) (hooks, weights []float64) {
	const leastPixels = 40
	var seen [][]pixel
	var found [][8]float64
	var clearness []float64
	for o, v := range clear {
		if v == 0 || v < partClear*slices.Max(clear[:]) {
			continue
		}
		pixels := f.by(&parts[o], line)
		if len(pixels) < leastPixels {
			continue
		}
		if d, off := f.drawnAs(pixels, line); !math.IsInf(off, 1) {
			seen, found, clearness = append(seen, pixels), append(found, d.values()), append(clearness, v*v)
			weights = append(weights, v*v/(off+noiseOff))
		}
	}
	var tip [8]float64
	for k := range tip {
		var all []float64
		for _, d := range found {
			all = append(all, d[k])
		}
		tip[k] = weightedMedian(all, weights)
	}
	for i, d := range found {
		start := asDrawn(tip[:])
		start.x, start.y = d[1], d[2]
		again, off, ok := start.settle(seen[i], f.steps(0.65), 3)
		if !ok {
			again, off = asDrawn(d[:]), math.Inf(1)
		}
		hooks = append(hooks, again.hook*180/math.Pi)
		weights[i] = clearness[i] / (off + noiseOff)
	}
	return hooks, weights
}

// noiseOff is what noise alone brings, in squared levels.
const noiseOff = 2
