package groove

import (
	"math"

	"corte/core/blade"
	"corte/core/fault"
	"corte/core/measure"
)

// A Tenon is cut flat on the table, each cheek in passes against a stop: the
// shoulder first, then outward to the end.
type Tenon struct {
	Height [2]measure.Length // of the blade for the first cheek, and for the other
	Stops  []measure.Length  // from the stop to the far side of the blade, the shoulder first
	Step   measure.Length
}

const longestTenon = measure.Length(400)

// TenonOf works a tenon out: the stock's thickness, the tenon's thickness and
// length, how much is off its first face (half of what is over for a tenon in
// the middle, where off is under 0), and the kerf.
func TenonOf(stock, tenon, long, off, kerf measure.Length) (Tenon, error) {
	over := stock - tenon
	switch {
	case !(tenon > 0) || over < 0.2-hair:
		return Tenon{}, fault.At("tenon", "a tenon of %s cannot come out of stock of %s", tenon, stock)
	case !(long <= longestTenon):
		return Tenon{}, fault.At("length", "a tenon is at most %s long", longestTenon)
	case off > over:
		return Tenon{}, fault.At("way off", "%s off one face leaves less than the tenon", off)
	case !(long >= kerf):
		return Tenon{}, fault.At("length", "the tenon is shorter than the kerf of %s", kerf)
	}
	if off < 0 {
		off = over / 2
	}
	n, step, err := Passes(long, kerf, Overlap)
	if err != nil {
		return Tenon{}, fault.At("length", "%s", err)
	}
	t := Tenon{Height: [2]measure.Length{off, over - off}, Step: step}
	for i := range n {
		t.Stops = append(t.Stops, long-step*measure.Length(i))
	}
	return t, nil
}

// A Box is a box joint on a jig with a key: every slot is set over the key for
// the next one.
type Box struct {
	Slot   measure.Length // that the blade or stack cuts, and the key's width
	Offset measure.Length // from the key to the blade: the finger's width
	Pitch  measure.Length
	Slots  int            // in the first board
	Last   measure.Length // what there is at the far edge: a finger, or a part of one
	InSlot bool           // it is a part of a slot
	Whole  bool           // the far edge is a whole finger or slot
}

const leastFinger = measure.Length(1.5)

// BoxOf works a box joint out for boards of a width. room is by how much a
// finger is narrower than its slot, for glue.
func BoxOf(width, slot, room measure.Length) (Box, error) {
	switch {
	case !(slot >= leastFinger):
		return Box{}, fault.At("slot", "a finger is at least %s wide", leastFinger)
	case !(room >= 0) || room > 0.5:
		return Box{}, fault.At("room", "between nothing and %s of room for glue", measure.Length(0.5))
	case !(width >= 3*slot-hair) || width > 3000:
		return Box{}, fault.At("width", "a board is at least three fingers wide")
	}
	b := Box{Slot: slot, Offset: slot - room}
	b.Pitch = b.Slot + b.Offset
	// The first board begins with a finger, so a slot follows every finger.
	b.Slots = int(math.Floor(float64(width/b.Pitch) + 1e-9))
	b.Last = width - measure.Length(b.Slots)*b.Pitch
	if b.Last > b.Offset+1e-9 {
		// Part of a slot more runs out at the far edge.
		b.Slots++
		b.Last -= b.Offset
		b.InSlot = true
	}
	const whole = 0.3
	b.Whole = b.Last < whole || !b.InSlot && b.Offset-b.Last < whole || b.InSlot && b.Slot-b.Last < whole
	return b, nil
}

// Retouch says how to move the key after a test joint: over so many fingers
// there was a gap, or under 0 that much too much wood. More means away from the
// blade.
func (b Box) Retouch(gap measure.Length, fingers int) measure.Length {
	return gap/measure.Length(max(1, fingers)) - (b.Slot - b.Offset)
}

// A Tail is the saw's setting for dovetail tails with a one-way bevel blade:
// tilted by the bevel, its teeth lie flat on the base line.
type Tail struct {
	Tilt  float64        // degrees
	Slope float64        // one in so many
	Up    measure.Length // height over the table, upright measure, to the base line
}

// TailOf works tails out for stock of a thickness that the other board has.
func TailOf(b blade.Blade, thickness, most measure.Length, tiltsTo float64) (Tail, error) {
	switch {
	case b.Grind != blade.OneWay || b.Bevel <= 0:
		return Tail{}, fault.At("blade", "dovetails need a blade with all teeth beveled to one side. Others leave a ridge on the baseline")
	case b.Bevel > tiltsTo:
		return Tail{}, fault.At("blade", "this saw tilts to %g degrees, and the blade is ground for %g", tiltsTo, b.Bevel)
	case !(thickness > 0):
		return Tail{}, fault.At("stock", "enter the thickness of the board with the pins")
	case thickness > most:
		return Tail{}, fault.At("stock", "%s is higher than this blade reaches when it is tilted (%s)", thickness, most)
	}
	return Tail{b.Bevel, 1 / math.Tan(b.Bevel*math.Pi/180), thickness}, nil
}

// A Slant is a groove whose bottom slopes, cut in steps of height.
type Slant struct {
	Passes []Pass
	Left   measure.Length // the highest stair that is left to pare
}

// SlantOf works out the steps of a groove that is deep at its near wall and
// rises by deg to the far one.
func SlantOf(edge, width, kerf, deep measure.Length, deg float64) (Slant, error) {
	if !(deg > 0 && deg <= 45) {
		return Slant{}, fault.At("slope", "the bottom slopes by up to 45 degrees")
	}
	if !(width >= kerf && width <= widest) {
		return Slant{}, fault.At("width", "a groove is between its kerf, %s, and %s wide", kerf, widest)
	}
	passes, err := Stepped(edge, width, kerf, deep)
	if err != nil {
		return Slant{}, fault.At("width", "%s", err)
	}
	rise := measure.Length(math.Tan(deg * math.Pi / 180))
	if rise*width >= deep {
		return Slant{}, fault.At("slope", "at %g degrees the bottom comes out of the stock before the far side", deg)
	}
	s := Slant{Passes: passes}
	for i := range s.Passes {
		// The far side of a pass touches the slope; what stands on its near side is pared.
		far := s.Passes[i].Centre + kerf/2 + width/2
		s.Passes[i].Height = deep - rise*far
	}
	// The near wall is where it is deepest, and nothing goes deeper than the slope.
	s.Left = rise * max(kerf, step(passes))
	return s, nil
}

// A FoldCut is kerfs that let a sheet bend: each closes, and together they turn
// the corner.
type FoldCut struct {
	Depth   measure.Length
	Spacing measure.Length // from middle to middle
	Kerfs   int
	Span    measure.Length // over all of them
	Closes  float64        // degrees, each
}

const (
	thickestSheet = measure.Length(60)
	widestBend    = measure.Length(10_000)
)

// FoldOf works kerfs out that bend a sheet to an outer radius by an angle,
// leaving a skin. The kerfs lie on the inside and close as it bends: each gives
// its width over its depth, as an angle about the skin.
func FoldOf(sheet, skin, kerf, radius measure.Length, deg float64) (FoldCut, error) {
	switch {
	case !(sheet > 0 && sheet <= thickestSheet):
		return FoldCut{}, fault.At("stock", "a sheet that is folded is at most %s thick", thickestSheet)
	case !(radius <= widestBend):
		return FoldCut{}, fault.At("radius", "a bend radius over %s needs no kerfs", widestBend)
	case !(skin > 0) || skin >= sheet:
		return FoldCut{}, fault.At("skin", "leave part of the sheet's %s uncut, so it can bend", sheet)
	case !(deg > 0 && deg <= 360):
		return FoldCut{}, fault.At("bend", "a bend is up to 360 degrees")
	case !(radius > sheet):
		return FoldCut{}, fault.At("radius", "the outer radius is more than the sheet is thick (%s)", sheet)
	}
	f := FoldCut{Depth: sheet - skin}
	closes := 2 * math.Atan(float64(kerf/2/f.Depth))
	turn := deg * math.Pi / 180
	f.Kerfs = int(math.Ceil(turn/closes - 1e-9))
	along := (radius - skin/2) * measure.Length(turn) // the skin's middle keeps its length
	f.Spacing = along / measure.Length(f.Kerfs)
	f.Span = f.Spacing*measure.Length(f.Kerfs-1) + kerf
	f.Closes = closes * 180 / math.Pi
	if f.Spacing <= kerf+0.5 {
		least := measure.Length(float64(f.Kerfs)*(kerf+0.5).Mm()/turn) + skin/2
		return f, fault.At("radius", "a bend this tight leaves no wood between the kerfs. The tightest with this blade is %s", least)
	}
	return f, nil
}

// UsualSkin is what is left of a sheet that is to bend: a liner of cardboard, a
// veneer or two of ply. Try it in scrap; sheets differ.
func UsualSkin(sheet measure.Length) measure.Length {
	return max(0.6, min(3, sheet/8))
}
