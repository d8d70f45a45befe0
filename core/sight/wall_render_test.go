package sight

import (
	"image"
	"image/color"
	"math"
	"math/rand/v2"
)

// A board is a wall of a cut that is drawn as a camera would see it. The reading side
// never sees any of this. Lengths are in mm.
type board struct {
	thick        float64
	wood         [3]float64
	grain        float64
	scorch       []scorch
	spacing      float64 // of marks; 0 none
	deep         float64 // how much darker they are
	lean         float64 // of a mark over the wall's height, mm
	crossing     bool
	uneven       float64 // of the spacing, that comes and goes along the wall
	cast         float64 // a shadow over part of the wall: how dark
	castAt, till float64
	view
}

// A view is how a camera sees a bench with something flat and long on it.
type view struct {
	long        float64 // of what lies there, mm
	bench       [3]float64
	tilt        [2]float64 // degrees, about its length and across it
	far         float64    // lengths away
	turned      float64    // degrees in the picture
	wide, high  int
	fill        float64 // of the picture's width that it takes
	light       [2]float64
	shadow      float64
	blur, noise float64
	quality     int
	stripes     float64 // of the bench
	things      int
	offX, offY  float64
}

// A scorch is a part of a wall: how much light it leaves of each colour.
type scorch struct {
	from, to, low, high float64 // shares of the length and of the height
	light               float64
	black               bool
}

var (
	woods   = [...][3]float64{{0.86, 0.72, 0.52}, {0.78, 0.6, 0.42}, {0.9, 0.8, 0.64}, {0.66, 0.47, 0.32}, {0.83, 0.7, 0.58}}
	benches = [...][3]float64{{0.25, 0.27, 0.3}, {0.93, 0.93, 0.92}, {0.35, 0.5, 0.42}, {0.55, 0.57, 0.6}, {0.15, 0.15, 0.16}, {0.3, 0.35, 0.55}}
)

func drawnView(r *rand.Rand, bench [3]float64, mostTilt float64) view {
	return view{bench: bench,
		tilt: [2]float64{mostTilt * (2*r.Float64() - 1) * 0.7, mostTilt * (2*r.Float64() - 1) * 0.7}, far: 1.5 + 3*r.Float64(), turned: 12*r.Float64() - 6,
		wide: pick(2400, 1200), high: pick(1350, 675), fill: 0.65 + 0.5*r.Float64(), light: [2]float64{0.25 * (2*r.Float64() - 1), 0.15 * (2*r.Float64() - 1)}, shadow: 0.5 * r.Float64(),
		blur: 0.5 + r.Float64(), noise: 1 + 4*r.Float64(), quality: 70 + r.IntN(28), stripes: 0.15 * r.Float64(), things: r.IntN(4), offX: 0.06 * (2*r.Float64() - 1), offY: 0.1 * (2*r.Float64() - 1)}
}

func drawnBoard(r *rand.Rand, mostTilt float64) board {
	b := board{thick: []float64{12, 18, 20, 25, 30, 40}[r.IntN(6)], wood: woods[r.IntN(5)]}
	b.bench, b.grain = benches[r.IntN(6)], 0.02+0.08*r.Float64()
	b.view = drawnView(r, b.bench, mostTilt)
	b.long = b.thick * (4 + 5*r.Float64())
	for range r.IntN(4) {
		s := scorch{light: 0.4 + 0.22*r.Float64(), low: 0, high: 1}
		s.from = 0.8 * r.Float64()
		s.to = math.Min(1, s.from+0.05+0.35*r.Float64())
		if r.IntN(3) == 0 {
			s.high = 0.4 + 0.4*r.Float64()
		}
		if r.IntN(4) == 0 {
			s.light, s.black = 0.14+0.08*r.Float64(), true
		}
		b.scorch = append(b.scorch, s)
	}
	if r.IntN(4) > 0 { // at least six pixels apart, so that a camera holds them
		px := b.fill * float64(b.wide) / b.long
		b.spacing = 6/px + 2.5*r.Float64()
		b.deep, b.lean, b.uneven = 0.04+0.1*r.Float64(), b.thick*(0.1+0.4*r.Float64())*float64(1-2*r.IntN(2)), 0.04*r.Float64()
		b.crossing = r.IntN(4) == 0
	}
	if r.IntN(3) == 0 {
		b.cast, b.castAt, b.till = 0.15+0.25*r.Float64(), 0.7*r.Float64(), 0.3+0.3*r.Float64()
	}
	return b
}

// brown and black are the shares of the wall that are scorched, by the middle of every
// border, and how much is of each part of its length.
func (b board) shares() (brown, black float64) {
	const n = 400
	for i := range n {
		for j := range 50 {
			switch worst := b.worst((float64(i)+0.5)/n, (float64(j)+0.5)/50); {
			case worst == nil:
			case worst.black:
				black += 1.0 / n / 50
			default:
				brown += 1.0 / n / 50
			}
		}
	}
	return brown, black
}

func (b board) worst(x, y float64) (worst *scorch) {
	for i, s := range b.scorch {
		if x > s.from && x < s.to && y > s.low && y < s.high && (worst == nil || s.light < worst.light) {
			worst = &b.scorch[i]
		}
	}
	return worst
}

// scorched is how much light the wall gives back at a place, of red and of blue.
func (b board) scorched(x, y float64) (red, blue float64) {
	light := 1.0
	for _, s := range b.scorch {
		soft := func(d float64) float64 { return 1 / (1 + math.Exp(-d/0.012)) }
		in := soft(x-s.from) * soft(s.to-x) * soft(4*(y-s.low)+10*b2f(s.low == 0)) * soft(4*(s.high-y)+10*b2f(s.high == 1))
		light = math.Min(light, 1-in*(1-s.light))
	}
	return math.Pow(light, 0.85), math.Pow(light, 1.2)
}

func b2f(v bool) float64 {
	if v {
		return 1
	}
	return 0
}

func (b board) picture(r *rand.Rand) Picture {
	rows := make([]float64, 400)
	for i := range rows {
		rows[i] = r.NormFloat64()
	}
	phase, wobble := 2*math.Pi*r.Float64(), 2*math.Pi*r.Float64()
	return b.view.picture(r, b.thick, func(u, v float64) (c [3]float64, on bool) {
		fx, fy := u/b.long+0.5, v/b.thick+0.5
		if !(fx >= 0 && fx <= 1 && fy >= 0 && fy <= 1) {
			return c, false
		}
		red, blue := b.scorched(fx, fy)
		row, into := math.Modf(fy * 90) // between two lines of the grain, or steps of it would ripple along a wall that lies askew
		grain := 1 + b.grain*(rows[int(row)]+into*(rows[int(row)+1]-rows[int(row)]))*0.6 + 0.4*b.grain*math.Sin(40*fy+3*math.Sin(7*fx))
		mark := 1.0
		if b.spacing > 0 {
			at := u + b.uneven*b.spacing*4*math.Sin(2*math.Pi*u/(9*b.spacing)+wobble)
			bow := b.lean * (fy - 0.5 + 0.2*(fy-0.5)*(fy-0.5))
			mark -= b.deep * math.Pow(0.5+0.5*math.Sin(2*math.Pi*(at+bow)/b.spacing+phase), 2)
			if b.crossing {
				mark -= b.deep * math.Pow(0.5+0.5*math.Sin(2*math.Pi*(at-bow)/b.spacing+phase), 2)
			}
		}
		shade := 1.0
		if b.cast > 0 {
			shade -= b.cast / (1 + math.Exp(-(fx-b.castAt)/0.02)) / (1 + math.Exp(-(b.castAt+b.till-fx)/0.02))
		}
		return [3]float64{b.wood[0] * red * grain * mark * shade, b.wood[1] * (red + blue) / 2 * grain * mark * shade, b.wood[2] * blue * grain * mark * shade}, true
	})
}

// picture is that of the bench and of what is so high and lies in the middle of it: its
// colour at a place, in mm from there, where it is.
func (b view) picture(r *rand.Rand, thick float64, colour func(u, v float64) (c [3]float64, on bool)) Picture {
	pix := make([]float64, 3*b.wide*b.high)
	px := b.fill * float64(b.wide) / b.long // pixels a mm, head on
	st, ct := math.Sincos(b.tilt[0] * math.Pi / 180)
	su, cu := math.Sincos(b.tilt[1] * math.Pi / 180)
	sr, cr := math.Sincos(b.turned * math.Pi / 180)
	away := b.far * b.long
	// Two axes in the wall's plane, turned out of the picture's.
	ax, ay := [3]float64{cu, 0, su}, [3]float64{0, ct, st}
	type thing struct{ x, y, r, light float64 }
	var things []thing
	for range b.things {
		things = append(things, thing{(r.Float64() - 0.5) * 1.2 * b.long, []float64{-1, 1}[r.IntN(2)] * thick * (1.3 + r.Float64()), thick * (0.1 + 0.4*r.Float64()), r.Float64()})
	}
	bx, by := r.Float64(), r.Float64()
	for y := range b.high {
		for x := range b.wide {
			// A ray through the pixel meets the plane: two equations of two unknowns.
			qx, qy := (float64(x)-float64(b.wide)*(0.5+b.offX))/px, (float64(y)-float64(b.high)*(0.5+b.offY))/px
			qx, qy = cr*qx+sr*qy, -sr*qx+cr*qy
			// u*ax + v*ay = (qx*(1+z/away), qy*(1+z/away), z)
			a11, a12 := ax[0]-qx*ax[2]/away, ay[0]-qx*ay[2]/away
			a21, a22 := ax[1]-qy*ax[2]/away, ay[1]-qy*ay[2]/away
			det := a11*a22 - a12*a21
			u, v := (qx*a22-a12*qy)/det, (a11*qy-a21*qx)/det
			c, on := colour(u, v)
			if !on {
				stripe := 1 + b.stripes*math.Sin(0.35*u*bx+0.6*v*by)
				dark := 1.0
				if d := v - thick/2; d > 0 && d < 0.5*thick && math.Abs(u) < b.long/2 {
					dark = 1 - b.shadow*(1-d/(0.5*thick))
				}
				for i := range c {
					c[i] = b.bench[i] * stripe * dark
				}
				for _, t := range things {
					if math.Hypot(u-t.x, v-t.y) < t.r {
						c = [3]float64{t.light, t.light * 0.9, t.light * 0.8}
					}
				}
			}
			light := 0.9 * (1 + b.light[0]*(float64(x)/float64(b.wide)-0.5) + b.light[1]*(float64(y)/float64(b.high)-0.5))
			for i := range c {
				pix[3*(y*b.wide+x)+i] = light * c[i]
			}
		}
	}
	blurPix(pix, b.wide, b.high, b.blur)
	img := image.NewRGBA(image.Rect(0, 0, b.wide, b.high))
	for i := range b.wide * b.high {
		var c [3]uint8
		for k := range c {
			c[k] = uint8(math.Max(0, math.Min(255, 255*pix[3*i+k]+b.noise*r.NormFloat64())))
		}
		img.SetRGBA(i%b.wide, i/b.wide, color.RGBA{c[0], c[1], c[2], 255})
	}
	return through8(img, b.quality)
}
