package sight

import (
	"bytes"
	"image"
	"image/color"
	"image/jpeg"
	"math"
	"math/rand/v2"
)

// A sitter is a blade that is drawn as a camera would see it. The reading side never
// sees any of this. Lengths are in mm.
type sitter struct {
	diameter, bore float64
	teeth          int
	hook           float64 // degrees
	gullet         float64
	group          int // a deeper gullet before every so many teeth; 0 none
	slots          int
	gone           []int
	bent           map[int]float64 // teeth whose tips stand so many mm further on than they were made
	low            map[int]float64 // and such that so many mm are gone from
	clockwise      bool

	tilt, towards, far float64 // degrees, of what direction, and how many diameters away
	turned             float64
	share              float64 // of the picture's smaller side that the rim takes
	wide, high         int
	offX, offY         float64 // of the smaller side

	plate, tip, bench [3]float64 // 0 to 1
	stripes, grain    float64    // of the bench: how strong
	grid              bool
	light, shine      float64 // from one side to the other, and over the plate
	shadow, soft      float64 // how far it falls, mm; how dark
	print             int     // words and rings on the plate
	things            int     // that lie about
	blur, noise       float64 // pixels, levels
	quality           int     // JPEG
}

func drawnSitter(r *rand.Rand, mostTilt float64) sitter {
	s := sitter{diameter: []float64{140, 160, 184, 190, 210, 216, 250, 254, 300, 305}[r.IntN(10)], clockwise: r.IntN(2) == 0}
	s.bore = []float64{15.875, 20, 25.4, 30}[r.IntN(4)]
	for { // teeth that a blade of this size could have
		s.teeth = []int{12, 16, 18, 20, 24, 28, 30, 32, 36, 40, 42, 48, 50, 52, 54, 56, 60, 64, 72, 80, 84, 90, 96, 100}[r.IntN(24)]
		if p := math.Pi * s.diameter / float64(s.teeth); p > 7 && p < 42 {
			break
		}
	}
	pitch := math.Pi * s.diameter / float64(s.teeth)
	s.hook = math.Round(-6 + 31*r.Float64())
	s.gullet = math.Min(0.085*s.diameter, pitch*(0.38+0.25*r.Float64()))
	if s.teeth%5 == 0 && r.IntN(3) == 0 {
		s.group = 5
	}
	if r.IntN(2) == 0 {
		s.slots = []int{3, 4, 5, 6, 8}[r.IntN(5)]
	}
	if r.IntN(4) == 0 {
		s.gone = []int{r.IntN(s.teeth)}
	}
	s.tilt, s.towards, s.far, s.turned = mostTilt*r.Float64(), 2*math.Pi*r.Float64(), 2+4*r.Float64(), 2*math.Pi*r.Float64()
	s.wide, s.high = pick(2400, 1600), pick(1800, 1200)
	if r.IntN(3) == 0 {
		s.wide, s.high = s.high, s.wide
	}
	s.share = 0.62 + 0.3*r.Float64()
	s.offX, s.offY = (1-s.share)*0.8*(r.Float64()-0.5), (1-s.share)*0.8*(r.Float64()-0.5)
	steel := 0.45 + 0.4*r.Float64()
	s.plate = [][3]float64{{steel, steel, steel * 1.02}, {steel, steel, steel * 1.02}, {0.6, 0.12, 0.1}, {0.12, 0.13, 0.15}, {0.15, 0.25, 0.5}, {0.65, 0.5, 0.2}}[r.IntN(6)]
	t := 0.35 + 0.3*r.Float64()
	s.tip = [3]float64{t, t, t}
	s.bench = [][3]float64{{0.75, 0.58, 0.38}, {0.55, 0.38, 0.22}, {0.92, 0.92, 0.9}, {0.5, 0.52, 0.5}, {0.2, 0.42, 0.3}, {0.25, 0.24, 0.23}}[r.IntN(6)]
	for math.Abs(s.bench[0]-s.plate[0])+math.Abs(s.bench[1]-s.plate[1])+math.Abs(s.bench[2]-s.plate[2]) < 0.25 {
		for k := range s.bench { // nobody would lay it there
			s.bench[k] = math.Mod(s.bench[k]+0.17, 0.95)
		}
	}
	for math.Abs(s.bench[0]-s.tip[0])+math.Abs(s.bench[1]-s.tip[1])+math.Abs(s.bench[2]-s.tip[2]) < 0.25 {
		for k := range s.tip {
			s.tip[k] = math.Mod(s.tip[k]+0.13, 0.95)
		}
	}
	s.stripes, s.grain, s.grid = 0.12*r.Float64(), 0.04*r.Float64(), r.IntN(5) == 0
	s.light, s.shine = 0.5*r.Float64(), 0.3*r.Float64()
	s.shadow, s.soft = 5*r.Float64(), 0.5*r.Float64()
	s.print, s.things = r.IntN(4), r.IntN(4)
	s.blur, s.noise, s.quality = 1.5*r.Float64(), 8*r.Float64(), 55+r.IntN(40)
	return s
}

// tooth is the outline of one tooth, from its gullet's bottom in front round the tip
// to the next gullet's, as angle (in pitches, the tip at 0, the face at the positive
// side) and radius.
func (s sitter) tooth(deeper bool) [][2]float64 {
	R, pitch := s.diameter/2, 2*math.Pi/float64(s.teeth)
	var out [][2]float64
	add := func(x, y float64) { // x along the rim from the tip, y outwards from the axis
		out = append(out, [2]float64{math.Atan2(x, y) / pitch, math.Hypot(x, y)})
	}
	h := s.hook * math.Pi / 180
	g := s.gullet
	face := 0.62 * g
	fx, fy := -face*math.Sin(h), R-face*math.Cos(h)
	bottom := R - g
	if deeper {
		bottom -= 0.45 * g
	}
	// From the foot of the next tooth's back, through the gullet, up the face.
	arc := pitch * R
	add(0.42*arc, R-g*0.75)
	for k := 0.0; k <= 1; k += 0.125 {
		x0, y0, x1, y1, x2, y2 := 0.42*arc, R-g*0.75, 0.12*arc-0.3*g*math.Sin(h), bottom-0.28*g, fx, fy
		add((1-k)*(1-k)*x0+2*k*(1-k)*x1+k*k*x2, (1-k)*(1-k)*y0+2*k*(1-k)*y1+k*k*y2)
	}
	add(0, R)
	land := 0.22 * arc
	add(-land, R*math.Cos(land/R)-land*math.Tan(14*math.Pi/180))
	add(-0.58*arc, (R-g*0.75)*math.Cos(0.58*pitch))
	return out
}

// inside reports whether a place is on the blade: 0 not, 1 plate, 2 tip.
func (s sitter) inside(x, y float64, teeth [2][][2]float64) int {
	radius, angle := math.Hypot(x, y), math.Atan2(y, x)
	R := s.diameter / 2
	if radius > R || radius < s.bore/2 {
		return 0
	}
	if s.slots > 0 && radius > R*0.72 && radius < R-s.gullet*0.9 {
		f := angle/(2*math.Pi)*float64(s.slots) + 0.37
		if d := math.Abs(f-math.Round(f)) / float64(s.slots) * 2 * math.Pi * radius; d < 1 || radius < R*0.72+2 && d < 2.5 {
			return 0
		}
	}
	low := R - 1.75*s.gullet
	if radius < low {
		return 1
	}
	if !s.clockwise {
		angle = -angle
	}
	// Every tooth's outline with the one before it closes a part of the rim.
	pos := angle / (2 * math.Pi) * float64(s.teeth)
	k := math.Round(pos)
	for _, at := range [3]float64{k - 1, k, k + 1} {
		i := (int(at)%s.teeth + s.teeth) % s.teeth
		gone := false
		for _, g := range s.gone {
			gone = gone || g == i
		}
		if gone {
			if math.Abs(pos-at) < 0.5 && radius < R-0.9*s.gullet {
				return 1
			}
			continue
		}
		outline := teeth[0]
		if s.group > 0 && i%s.group == 0 {
			outline = teeth[1]
		}
		u := pos - at - s.bent[i]*max(0, 1-(R-radius)/s.gullet)/(2*math.Pi*R/float64(s.teeth))
		if radius < R-s.low[i] && within(outline, u, radius, low) {
			if radius > R-0.45*s.gullet && u > -0.13 {
				return 2
			}
			return 1
		}
	}
	return 0
}

// seenTip is where in the picture the tip of a tooth lies as it was made.
func (s sitter) seenTip(k int) Point {
	angle := 2 * math.Pi * float64(k) / float64(s.teeth)
	if !s.clockwise {
		angle = -angle
	}
	side, R := float64(min(s.wide, s.high)), s.diameter/2
	along, beside := R*math.Cos(angle+s.turned-s.towards), R*math.Sin(angle+s.turned-s.towards) // the tilt
	sin, cos := math.Sincos(s.tilt * math.Pi / 180)
	smaller := s.share * side / s.diameter * s.far * s.diameter / (s.far*s.diameter + along*sin)
	along, beside = along*cos*smaller, beside*smaller
	sin, cos = math.Sincos(s.towards)
	return Point{float64(s.wide)/2 + s.offX*side + along*cos - beside*sin, float64(s.high)/2 + s.offY*side + along*sin + beside*cos}
}

// within reports whether a place lies in an outline that is closed below.
func within(outline [][2]float64, u, radius, low float64) bool {
	in := false
	test := func(a, b [2]float64) {
		if (a[0] > u) != (b[0] > u) && radius < a[1]+(b[1]-a[1])*(u-a[0])/(b[0]-a[0]) {
			in = !in
		}
	}
	for i := 1; i < len(outline); i++ {
		test(outline[i-1], outline[i])
	}
	_ = low
	return in
}

// picture draws it.
func (s sitter) picture(r *rand.Rand) Picture {
	R := s.diameter / 2
	side := float64(min(s.wide, s.high))
	scale := s.share * side / s.diameter // pixels a mm, from straight above
	ct, st := math.Cos(s.tilt*math.Pi/180), math.Sin(s.tilt*math.Pi/180)
	cd, sd := math.Cos(s.towards), math.Sin(s.towards)
	cx, cy := float64(s.wide)/2+s.offX*side, float64(s.high)/2+s.offY*side
	dist := s.far * s.diameter
	// From a pixel to the bench: a line from the camera meets the tilted plane.
	place := func(px, py float64) (x, y float64) {
		u, v := (px-cx)/scale, (py-cy)/scale
		a, b := u*cd+v*sd, -u*sd+v*cd // a along the tilt
		// The plane's point (X,Y) is seen at a = X ct dist/(dist + X st), b = Y dist/(dist + X st).
		X := a * dist / (ct*dist - a*st)
		Y := b * (dist + X*st) / dist
		return X*cd - Y*sd, X*sd + Y*cd
	}
	teeth := [2][][2]float64{s.tooth(false), s.tooth(true)}
	type thing struct{ x, y, a, w, h, shade float64 }
	var things []thing
	for range s.things {
		a := 2 * math.Pi * r.Float64()
		d := R*1.08 + 12 + 40*r.Float64()
		things = append(things, thing{d * math.Cos(a), d * math.Sin(a), a + math.Pi/2 + 0.3*r.NormFloat64(), 3 + 5*r.Float64(), 30 + 60*r.Float64(), r.Float64()})
	}
	var words []thing
	for range s.print {
		a := 2 * math.Pi * r.Float64()
		d := R * (0.35 + 0.3*r.Float64())
		words = append(words, thing{d * math.Cos(a), d * math.Sin(a), a, 3 + 4*r.Float64(), 15 + 25*r.Float64(), r.Float64()})
	}
	ring := R * (0.4 + 0.3*r.Float64())
	wood := 2 * math.Pi * r.Float64()
	lightAt := 2 * math.Pi * r.Float64()
	shadowAt := 2 * math.Pi * r.Float64()
	shineAt := 2 * math.Pi * r.Float64()
	ct2, st2 := math.Cos(s.turned), math.Sin(s.turned)
	onto := func(x, y float64) int { return s.inside(x*ct2+y*st2, -x*st2+y*ct2, teeth) }
	shade := func(x, y float64) [3]float64 {
		kind := onto(x, y)
		l := 1 + s.light*(x*math.Cos(lightAt)+y*math.Sin(lightAt))/s.diameter
		var c [3]float64
		switch kind {
		case 0:
			c = s.bench
			w := x*math.Cos(wood) + y*math.Sin(wood)
			v := -x*math.Sin(wood) + y*math.Cos(wood)
			k := s.stripes * math.Sin(w/3+2*math.Sin(v/60)+math.Sin(w/11))
			if s.grid && (math.Abs(math.Mod(w+1000, 25)) < 0.7 || math.Abs(math.Mod(v+1000, 25)) < 0.7) {
				k += 0.25
			}
			for i := range c {
				c[i] *= 1 + k
			}
			for _, t := range things {
				dx, dy := x-t.x, y-t.y
				a, b := dx*math.Cos(t.a)+dy*math.Sin(t.a), -dx*math.Sin(t.a)+dy*math.Cos(t.a)
				if math.Abs(a) < t.h/2 && math.Abs(b) < t.w/2 {
					c = [3]float64{t.shade, t.shade * 0.8, 0.3}
				}
			}
			if s.shadow > 0 && math.Hypot(x, y) < R+2*s.shadow {
				in := 0.0
				for _, f := range [3]float64{0.5, 1, 1.5} {
					if onto(x-f*s.shadow*math.Cos(shadowAt), y-f*s.shadow*math.Sin(shadowAt)) > 0 {
						in += 1.0 / 3
					}
				}
				l *= 1 - s.soft*in
			}
		default:
			c = s.plate
			if kind == 2 {
				c = s.tip
			}
			a := math.Atan2(y, x) - shineAt
			l *= 1 + s.shine*math.Pow(math.Cos(a), 6)
			rad := math.Hypot(x, y)
			if kind == 1 && s.print > 1 && math.Abs(rad-ring) < 0.6 {
				c = [3]float64{0.1, 0.1, 0.1}
			}
			for _, t := range words {
				dx, dy := x-t.x, y-t.y
				p, q := dx*math.Cos(t.a)+dy*math.Sin(t.a), -dx*math.Sin(t.a)+dy*math.Cos(t.a)
				if math.Abs(q) < t.h/2 && math.Abs(p) < t.w/2 && math.Mod(q+100, 4) < 2.4 {
					c = [3]float64{t.shade, t.shade * 0.3, 0.1}
				}
			}
		}
		for i := range c {
			c[i] *= l
		}
		return c
	}
	pix := make([]float64, 3*s.wide*s.high)
	for y := range s.high {
		for x := range s.wide {
			var sum [3]float64
			var at [4][2]float64
			edge := false
			middleX, middleY := place(float64(x), float64(y))
			from := math.Hypot(middleX, middleY)
			plain := from > R+1 || from > s.bore/2+1 && from < 0.7*R // no border runs there
			at[0] = [2]float64{middleX, middleY}
			for k, d := range [4][2]float64{{-0.25, -0.25}, {0.25, -0.25}, {-0.25, 0.25}, {0.25, 0.25}} {
				if plain {
					break
				}
				at[k][0], at[k][1] = place(float64(x)+d[0], float64(y)+d[1])
				edge = edge || onto(at[k][0], at[k][1]) != onto(at[0][0], at[0][1])
			}
			few := at[:1]
			if edge {
				few = at[:]
			}
			for _, a := range few {
				c := shade(a[0], a[1])
				for i := range c {
					sum[i] += c[i] / float64(len(few))
				}
			}
			copy(pix[3*(y*s.wide+x):], sum[:])
		}
	}
	blurPix(pix, s.wide, s.high, s.blur)
	img := image.NewRGBA(image.Rect(0, 0, s.wide, s.high))
	for y := range s.high {
		for x := range s.wide {
			var c [3]uint8
			for i := range c {
				grain := s.grain * 255 * r.NormFloat64() * 0.3
				c[i] = uint8(math.Max(0, math.Min(255, 255*pix[3*(y*s.wide+x)+i]+grain+s.noise*r.NormFloat64())))
			}
			img.SetRGBA(x, y, color.RGBA{c[0], c[1], c[2], 255})
		}
	}
	return through8(img, s.quality)
}

// through8 is a picture as JPEG leaves it.
func through8(img image.Image, quality int) Picture {
	var b bytes.Buffer
	if err := jpeg.Encode(&b, img, &jpeg.Options{Quality: quality}); err != nil {
		panic(err)
	}
	back, err := jpeg.Decode(&b)
	if err != nil {
		panic(err)
	}
	return pictureOf(back)
}

func pictureOf(img image.Image) Picture {
	box := img.Bounds()
	p := Picture{box.Dx(), box.Dy(), make([]uint8, 4*box.Dx()*box.Dy())}
	for y := range p.High {
		for x := range p.Wide {
			c := color.RGBAModel.Convert(img.At(box.Min.X+x, box.Min.Y+y)).(color.RGBA)
			copy(p.Pix[4*(y*p.Wide+x):], []uint8{c.R, c.G, c.B, 255})
		}
	}
	return p
}

// blurPix blurs by a Gauss of a width in pixels, as three boxes would.
func blurPix(pix []float64, wide, high int, sigma float64) {
	if sigma < 0.3 {
		return
	}
	n := int(math.Ceil(2.5 * sigma))
	kernel := make([]float64, 2*n+1)
	sum := 0.0
	for i := range kernel {
		kernel[i] = math.Exp(-0.5 * math.Pow(float64(i-n)/sigma, 2))
		sum += kernel[i]
	}
	tmp := make([]float64, len(pix))
	pass := func(in, out []float64, dx, dy int) {
		for y := range high {
			for x := range wide {
				for c := range 3 {
					v := 0.0
					for i, k := range kernel {
						u, w := min(wide-1, max(0, x+dx*(i-n))), min(high-1, max(0, y+dy*(i-n)))
						v += k * in[3*(w*wide+u)+c]
					}
					out[3*(y*wide+x)+c] = v / sum
				}
			}
		}
	}
	pass(pix, tmp, 1, 0)
	pass(tmp, pix, 0, 1)
}
