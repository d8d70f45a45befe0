package groove

import (
	"cmp"
	"math"
	"slices"

	"corte/core/fault"
	"corte/core/measure"
	"corte/core/saw"
	"corte/core/say"
	"corte/core/word"
)

// A Kind is the way in which a dado set comes to a width.
type Kind uint8

const (
	Stacked Kind = iota // outer pair, chippers, shims
	Dialled             // cutters without wobble that a dial spreads
)

//corte:enum Kind parse
var kindNames = word.Names{Kind: "kind of set", Of: []string{"stack", "dial"}}

// A Range is the widths that a dial set makes with as many cutters.
type Range struct {
	Cutters     int // 2 alone, or 3 with the centre blade
	Least, Most measure.Length
	Start       measure.Length // width with the dial at 0
	Turn        measure.Length // that one turn of the dial adds
}

// A Set is a dado set. The blade that it belongs to in the rack has its
// diameter, bore and teeth; what is here is what makes its width.
type Set struct {
	Kind        Kind
	Left, Right measure.Length // tip widths of the outer blades, of a stack
	Parts       []Part         // chippers and shims that are owned, of a stack
	Wings       int            // teeth of a chipper
	Ears        measure.Length // how far the outer blades' points cut below the rest
	Ranges      []Range        // of a dial set
	Build       saw.Side       // of the arbor's nut that a dial set is built for
}

// Outer is the width of the outer pair alone.
func (s Set) Outer() measure.Length { return s.Left + s.Right }

const (
	thickestShim = measure.Length(1)
	deepestEars  = measure.Length(1)
)

// Check reports the first number that no real set can have.
func (s Set) Check() error {
	between := func(v, lo, hi measure.Length) bool { return v >= lo && v <= hi }
	if !between(s.Ears, 0, deepestEars) {
		return fault.At("ears", "ears are at most %s deep, or 0 if the bottom is flat", deepestEars)
	}
	if s.Kind == Dialled {
		if len(s.Ranges) == 0 || len(s.Ranges) > 2 {
			return fault.At("ranges", "an adjustable dado has a range with two cutters, and may have one with three")
		}
		for i, r := range s.Ranges {
			switch {
			case r.Cutters != 2 && r.Cutters != 3 || i > 0 && r.Cutters == s.Ranges[0].Cutters:
				return fault.Nth(i, "range, cutters", "one range is with two cutters, one with three")
			case !between(r.Least, 2, widest) || !between(r.Most, r.Least, widest):
				return fault.Nth(i, "range, most", "a range runs from a smaller width to a larger one, up to %s", widest)
			case !between(r.Start, 1, widest):
				return fault.Nth(i, "range, start", "enter how wide it cuts with the dial at 0")
			case !between(r.Turn, 0.05, 10):
				return fault.Nth(i, "range, turn", "one turn of a dial adds between %s and %s", measure.Length(0.05), measure.Length(10))
			}
		}
		return nil
	}
	switch {
	case !between(s.Left, 1.5, 8):
		return fault.At("left", "an outer blade cuts between %s and %s", measure.Length(1.5), measure.Length(8))
	case !between(s.Right, 1.5, 8):
		return fault.At("right", "an outer blade cuts between %s and %s", measure.Length(1.5), measure.Length(8))
	case s.Wings < 2 || s.Wings > 8:
		return fault.At("wings", "a chipper has 2 to 8 teeth")
	case len(s.Parts) > mostKinds:
		return fault.At("parts", "at most %d kinds of part", mostKinds)
	}
	thinnest := measure.Length(math.Inf(1))
	for _, p := range s.Parts {
		if !p.Shim {
			thinnest = min(thinnest, p.Thickness)
		}
	}
	for i, p := range s.Parts {
		const where = "part, thickness"
		switch {
		case !p.Shim && !between(p.Thickness, 0.8, 8):
			return fault.Nth(i, where, "a chipper is between %s and %s thick", measure.Length(0.8), measure.Length(8))
		case p.Shim && !between(p.Thickness, 0.02, thickestShim):
			return fault.Nth(i, where, "a shim is between %s and %s thick", measure.Length(0.02), thickestShim)
		case p.Shim && p.Thickness >= thinnest:
			return fault.Nth(i, where, "a shim of %s is as thick as a chipper. Is it a chipper?", p.Thickness)
		case p.Count < 1 || p.Count > 20:
			return fault.Nth(i, "part, count", "there are 1 to 20 of a part")
		}
		for _, q := range s.Parts[:i] {
			if q.Shim == p.Shim && math.Abs((q.Thickness-p.Thickness).Mm()) < 0.5*micron.Mm() {
				return fault.Nth(i, where, "this thickness is already there. Raise its count")
			}
		}
	}
	return nil
}

// Believed is what is held of the set before any groove is measured. Of a stack
// the outer pair is part 0, and the parts follow in their order; of a dial set
// each range has its start and its turn.
func (s Set) Believed() Estimate {
	if s.Kind == Dialled {
		var sd []float64
		for range s.Ranges {
			sd = append(sd, partSD, turnSD)
		}
		return NewEstimate(sd...)
	}
	sd := make([]float64, 1+len(s.Parts))
	for i := range sd {
		sd[i] = partSD
	}
	return NewEstimate(sd...)
}

// Toothed reports whether a part of the belief cuts, and so wears and is
// sharpened. Shims do neither.
func (s Set) Toothed(part int) bool {
	return s.Kind == Dialled || part == 0 || !s.Parts[part-1].Shim
}

// True are the parts as thick as they are held to be. However a thin shim's
// error comes out, it is not held to be nothing.
func (s Set) True(b Estimate) (outer measure.Length, parts []Part) {
	parts = slices.Clone(s.Parts)
	for i := range parts {
		parts[i].Thickness = max(parts[i].Thickness/4, parts[i].Thickness+measure.Length(b.Mean[i+1]))
	}
	return s.Outer() + measure.Length(b.Mean[0]), parts
}

// Use is what a stack takes of every part, as a belief counts them.
func (s Set) Use(counts []int) []float64 {
	use := make([]float64, 1+len(s.Parts))
	use[0] = 1
	for i, n := range counts {
		use[i+1] = float64(n)
	}
	return use
}

// Nominal is the width that a stack should have by what is stamped on its parts.
func (s Set) Nominal(counts []int) measure.Length {
	w := s.Outer()
	for i, n := range counts {
		w += s.Parts[i].Thickness * measure.Length(n)
	}
	return w
}

// Stack finds the stack for a width, within Near, by what the parts are held to
// be.
func (s Set) Stack(b Estimate, target measure.Length) (Stack, error) {
	outer, parts := s.True(b)
	return Search(target, outer, Near, parts)
}

// Made is a stack of so many of each part, for a width that was wanted.
func (s Set) Made(b Estimate, target measure.Length, counts []int) Stack {
	outer, parts := s.True(b)
	out := Stack{Counts: counts, Width: outer}
	for i, n := range counts {
		out.Width += parts[i].Thickness * measure.Length(n)
		out.Parts += n
		if parts[i].Shim {
			out.Shims += n
		}
	}
	out.Error = out.Width - target
	return out
}

// Restack finds the next stack after a test groove: where shims alone bring it
// within Near the chippers stay as they are, else it is searched anew.
func (s Set) Restack(b Estimate, target measure.Length, now []int) (Stack, error) {
	outer, parts := s.True(b)
	kept, shims := outer, slices.Clone(parts)
	for i, p := range parts {
		if !p.Shim {
			kept += p.Thickness * measure.Length(now[i])
			shims[i].Count = 0
		}
	}
	next, err := Search(target, kept, Near, shims)
	if err != nil || math.Abs(next.Error.Mm()) > Near.Mm() {
		return Search(target, outer, Near, parts)
	}
	for i, p := range parts {
		if !p.Shim {
			next.Counts[i] = now[i]
			next.Parts += now[i]
		}
	}
	return next, nil
}

// Dial finds the range and the turns of a dial set for a width.
func (s Set) Dial(b Estimate, width measure.Length) (at int, turns float64, err error) {
	for i, r := range s.Ranges {
		if width < r.Least || width > r.Most {
			continue
		}
		start, turn := r.Start+measure.Length(b.Mean[2*i]), r.Turn+measure.Length(b.Mean[2*i+1])
		return i, float64((width - start) / turn), nil
	}
	var ranges say.And
	for _, r := range s.Ranges {
		ranges = append(ranges, say.Of("%s to %s", r.Least, r.Most))
	}
	return 0, 0, fault.At("width", "%s is in none of its ranges (%s)", width, ranges)
}

// Turned is what a dial setting takes of every part, as a belief counts them.
func (s Set) Turned(at int, turns float64) []float64 {
	use := make([]float64, 2*len(s.Ranges))
	use[2*at], use[2*at+1] = 1, turns
	return use
}

// A Slot is one part of a stack on the arbor, from the inner flange outward.
type Slot struct {
	What      string         // left, chipper, shim or right
	Thickness measure.Length // as it is stamped
	Turned    float64        // degrees against the outer blades, of a chipper
}

// Order lays a stack out on the arbor: the thick chippers outermost, the shims
// spread over the gaps so that none is much wider than another, and the
// chippers turned so that their teeth stand in the outer blades' gullets. ok is
// false where there are not gullets enough for every chipper to have its own.
func (s Set) Order(counts []int, teeth int) (slots []Slot, ok bool) {
	var chippers, shims []measure.Length
	for i, p := range s.Parts {
		for range counts[i] {
			if p.Shim {
				shims = append(shims, p.Thickness)
			} else {
				chippers = append(chippers, p.Thickness)
			}
		}
	}
	descending := func(a, b measure.Length) int { return cmp.Compare(b, a) }
	slices.SortFunc(chippers, descending)
	slices.SortFunc(shims, descending)
	chippers = outermostFirst(chippers)
	gaps := make([][]measure.Length, len(chippers)+1)
	filled := make([]measure.Length, len(gaps))
	for _, t := range shims {
		least := 0
		for g := range filled {
			if filled[g] < filled[least] {
				least = g
			}
		}
		gaps[least] = append(gaps[least], t)
		filled[least] += t
	}
	turned, ok := Clock(len(chippers), s.Wings, teeth)
	slots = append(slots, Slot{What: "left", Thickness: s.Left})
	for g, gap := range gaps {
		for _, t := range gap {
			slots = append(slots, Slot{What: "shim", Thickness: t})
		}
		if g < len(chippers) {
			slots = append(slots, Slot{What: "chipper", Thickness: chippers[g], Turned: turned[g]})
		}
	}
	return append(slots, Slot{What: "right", Thickness: s.Right}), ok
}

// outermostFirst deals sorted parts to both ends in turn.
func outermostFirst(sorted []measure.Length) []measure.Length {
	out := make([]measure.Length, len(sorted))
	left, right := 0, len(sorted)-1
	for i, t := range sorted {
		if i%2 == 0 {
			out[left], left = t, left+1
		} else {
			out[right], right = t, right-1
		}
	}
	return out
}

// Clock says how far each chipper is turned, in degrees, from a tooth of the
// outer blades: every wing in the middle of a gullet, no two chippers in the
// same one, spread evenly over the round. ok is false where that cannot be.
func Clock(chippers, wings, teeth int) (turned []float64, ok bool) {
	turned = make([]float64, chippers)
	if chippers == 0 || teeth < 2 || wings < 1 {
		return turned, chippers == 0
	}
	pitch := 360 / float64(teeth)
	places := teeth / wings // gullets before the next wing comes round
	for i := range turned {
		turned[i] = (math.Floor(float64(i*places)/float64(chippers)) + 0.5) * pitch
	}
	return turned, teeth%wings == 0 && chippers <= places
}

// Nearest is the least angle, in degrees, between wings of two chippers that
// lie beside each other, and between a wing and a tooth of the outer blades.
func Nearest(turned []float64, wings, teeth int) (wing, tooth float64) {
	apart := func(a, every float64) float64 {
		a = math.Mod(math.Mod(a, every)+every, every)
		return min(a, every-a)
	}
	wing, tooth = 360, 360
	for i, a := range turned {
		if i > 0 {
			wing = min(wing, apart(a-turned[i-1], 360/float64(wings)))
		}
		for w := range wings {
			tooth = min(tooth, apart(a+float64(w)*360/float64(wings), 360/float64(teeth)))
		}
	}
	return wing, tooth
}

// widest is the widest groove that the set makes in one cut: every chipper and
// shim between the outer blades, or the end of the dial.
func (s Set) widest(e Estimate) measure.Length {
	if s.Kind == Dialled {
		most := measure.Length(0)
		for _, r := range s.Ranges {
			most = max(most, r.Most)
		}
		return most
	}
	counts := make([]int, len(s.Parts))
	for i, p := range s.Parts {
		counts[i] = p.Count
	}
	return s.Made(e, 0, counts).Width + Near
}
