package guide

import (
	"math"
	"slices"

	"corte/core/fault"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/say"
)

// A Board lies across supports and is cut in two by a hand-held saw. Places
// are measured from one end, square to the cut line.
type Board struct {
	Material  material.Material
	Thickness measure.Length
	Span      measure.Length // square to the cut line
	Breadth   measure.Length // along the cut line
	Line      measure.Length // where the cut goes
}

// A Half is what the supports do for one of the two pieces.
type Half struct {
	From, To measure.Length
	KG       float64
	Loads    []Load // at the supports that carry it once it is cut off
	Verdict  HalfVerdict
}

// A Load is what one support bears.
type Load struct {
	At measure.Length
	KG float64
}

// A HalfVerdict says what a half does when the cut ends.
type HalfVerdict string

const (
	Carried HalfVerdict = "carried" // lies still during and after the cut
	Drops   HalfVerdict = "drops"   // the cut end sinks: the kerf closes on the blade
	Tips    HalfVerdict = "tips"    // the far end sinks and the cut end rises
	Falls   HalfVerdict = "falls"   // nothing carries it
)

// A SupportPlan is where supports go, or what comes of where they are.
type SupportPlan struct {
	At     []measure.Length
	KG     float64
	Halves [2]Half
	Gap    measure.Length // between the two supports next to the line
	Sag    measure.Length // how far the freer cut end hangs down, from its own weight
	Binds  bool
	Text   []say.Line
}

// Holds reports whether both halves lie still during the cut and after it.
func (p SupportPlan) Holds() bool {
	return !p.Binds && p.Halves[0].Verdict == Carried && p.Halves[1].Verdict == Carried && p.Sag <= sagMind
}

const (
	beside   = measure.Length(60)  // from the line to the supports next to it, at most
	closest  = measure.Length(12)  // and at least: the kerf and the hand's error lie between
	inset    = 0.2                 // of a half, from its end to its outer support
	shortest = measure.Length(220) // a half that two supports can carry
	sawKG    = 4.0                 // of a small circular saw, whose shoe rides on the line
	sagMind  = measure.Length(0.5)
)

// Check reports the first size that no board has.
func (b Board) Check() error {
	for _, s := range []struct {
		where, name string
		v, lo, hi   measure.Length
	}{
		{"thickness", "thickness", b.Thickness, 2, 400},
		{"span", "board", b.Span, 100, 20_000},
		{"breadth", "breadth along the cut", b.Breadth, 10, 20_000},
	} {
		if !(s.v >= s.lo && s.v <= s.hi) {
			return fault.At(s.where, "the %s must be between %v and %v", s.name, s.lo, s.hi)
		}
	}
	if !(b.Line > 10 && b.Line < b.Span-10) {
		return fault.At("line", "the cut line must leave a piece on both sides of it")
	}
	return nil
}

// perMm is the board's weight in kg for each millimetre of its span.
func (b Board) perMm() float64 {
	return b.Material.Density * b.Thickness.Mm() * b.Breadth.Mm() / 1e9 // kg/m³ to kg/mm³
}

// sides are what the halves are called.
var sides = [2]say.Line{say.Of("left"), say.Of("right")}

// PlanSupports says where four supports go so that both halves are carried
// during the cut and after it.
func PlanSupports(b Board) SupportPlan {
	var at []measure.Length
	for _, half := range [][2]measure.Length{{0, b.Line}, {b.Line, b.Span}} {
		length := half[1] - half[0]
		// Close enough that the saw on the cut end does not lift the far end.
		kg := b.perMm() * length.Mm()
		near := max(closest, min(beside, length/4, 0.8*length/2*measure.Length(kg/(kg+sawKG/2))))
		if half[0] == 0 {
			at = append(at, length*inset, b.Line-near)
		} else {
			at = append(at, b.Line+near, b.Span-length*inset)
		}
	}
	p := JudgeSupports(b, at)
	for i, h := range p.Halves {
		if length := h.To - h.From; length < shortest {
			p.Text = append(p.Text, say.Of("The %s piece is only %s, too short to rest safely on two supports. Clamp it down, or cut it on another saw.",
				sides[i], say.Set(length)))
		}
	}
	return p
}

// JudgeSupports says what comes of supports where they are: statics of two
// rigid halves, hinged at the line while the last fibres hold, each with its
// weight in its middle and half the saw on its cut end.
func JudgeSupports(b Board, at []measure.Length) SupportPlan {
	at = slices.Clone(at)
	slices.Sort(at)
	p := SupportPlan{At: at}
	perMm := b.perMm()
	p.KG = perMm * b.Span.Mm()
	left, right := measure.Length(-1), measure.Length(-1)
	for _, x := range at {
		if x < b.Line {
			left = x
		} else if right < 0 {
			right = x
		}
	}
	if left >= 0 && right >= 0 {
		p.Gap = right - left
	}
	for i, span := range [2][2]measure.Length{{0, b.Line}, {b.Line, b.Span}} {
		h := Half{From: span[0], To: span[1], KG: perMm * (span[1] - span[0]).Mm()}
		var carry []measure.Length
		for _, x := range at {
			if x > h.From && x < h.To {
				carry = append(carry, x)
			}
		}
		h.judge(carry, b.Line)
		p.Halves[i] = h
		if len(carry) > 0 {
			near := math.Min(math.Abs((carry[len(carry)-1] - b.Line).Mm()), math.Abs((carry[0] - b.Line).Mm()))
			p.Sag = max(p.Sag, sag(b, measure.Length(near)))
		}
		switch h.Verdict {
		case Drops:
			p.Binds = true
			if h.light() {
				p.Text = append(p.Text, say.Of("The %s piece is too light to carry the saw on its end. Clamp it to its supports.", sides[i]))
				continue
			}
			p.Text = append(p.Text, say.Of("The cut end of the %s piece sags, so the kerf closes on the blade and the saw kicks back. Put a support close to the line.", sides[i]))
		case Tips:
			p.Text = append(p.Text, say.Of("The %s piece tips away when the cut ends and tears the last corner. Put a support farther out.", sides[i]))
		case Falls:
			p.Binds = true
			p.Text = append(p.Text, say.Of("Nothing supports the %s piece. It dangles from the last fibers, pinches the blade and falls on your feet.", sides[i]))
		}
	}
	switch {
	case p.Binds:
	case p.Sag > sagMind:
		p.Text = append(p.Text, say.Of("The cut end sags by %s under its own weight. Move the supports closer to the line.", say.Set(p.Sag)))
	case p.Holds():
		p.Text = append(p.Text, say.Of("Both pieces stay still during the cut and after it."))
	}
	return p
}

// judge works out what the supports do for a half of which one end is the cut.
func (h *Half) judge(carry []measure.Length, line measure.Length) {
	if len(carry) == 0 {
		h.Verdict = Falls
		return
	}
	first, last := carry[0], carry[len(carry)-1]
	middle := (h.From + h.To) / 2
	// The saw's shoe rides on the cut end until the cut is done.
	with := (measure.Length(h.KG)*middle + sawKG/2*line) / measure.Length(h.KG+sawKG/2)
	toward := line == h.To // the cut end lies to the right
	over := func(x measure.Length) bool { return x >= first && x <= last }
	switch {
	case over(middle) && over(with):
		h.Verdict = Carried
	case toward == (middle > last) && !over(middle), !over(with) && over(middle):
		h.Verdict = Drops
	default:
		h.Verdict = Tips
	}
	if len(carry) == 1 || first == last {
		h.Loads = []Load{{first, h.KG}}
		if math.Abs((first - middle).Mm()) > 1 {
			return
		}
		return
	}
	// Two rigid supports share the weight by leverage; those between bear less
	// than these say, so the outer two are the ones that must hold.
	right := h.KG * float64((middle-first)/(last-first))
	h.Loads = []Load{{first, h.KG - right}, {last, right}}
}

// light reports whether a half would lie still without the saw on it.
func (h Half) light() bool {
	if len(h.Loads) < 2 {
		return false
	}
	middle := (h.From + h.To) / 2
	return middle >= h.Loads[0].At && middle <= h.Loads[1].At
}

// sag is how far an end that reaches over its support hangs down by its own
// weight: w·a⁴/(8·E·I) for a plate of the board's thickness.
func sag(b Board, over measure.Length) measure.Length {
	a, t := over.Mm()/1000, b.Thickness.Mm()/1000
	return measure.Length(1000 * 1.5 * b.Material.Density * gravity * math.Pow(a, 4) / (stiffness(b.Material) * t * t))
}
