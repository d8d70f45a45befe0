// Package joint works out joints and kerf bends for one blade on a table saw:
// what to set, step by step, and the figures to draw. Their geometry is in
// core/groove. Craft section 12.
package joint

import (
	"math"

	"corte/core/blade"
	"corte/core/choose"
	"corte/core/cut"
	"corte/core/fault"
	"corte/core/groove"
	"corte/core/guide"
	"corte/core/measure"
	"corte/core/saw"
	"corte/core/say"
	"corte/core/verdict"
)

// An Ask is a joint or fold to be worked out. Which of its sizes count depends
// on the kind.
type Ask struct {
	Kind string // tenon, box, tails, slope or fold
	Stock, Tenon, Length, Width,
	Slot, Room, Edge, Depth,
	Skin, Radius measure.Length
	Off      *measure.Length // of a tenon's first face; nil for the middle
	Gap      *measure.Length // of a test box joint
	Fingers  int             // over which it was measured
	SlopeDeg float64
	BendDeg  float64
}

// A Plan is what to set, and the figures to draw it from.
type Plan struct {
	Verdict  verdict.Verdict
	Do, Mind []say.Line
	Cautions []say.Line
	Kerf     measure.Length
	Tenon    *groove.Tenon
	Box      *groove.Box
	Move     *measure.Length // of a box joint's key
	Tail     *groove.Tail
	Slant    *groove.Slant
	Fold     *groove.FoldCut
	Skin     measure.Length
}

// A Tool is a blade on the saw that is to cut the joint, by their names.
type Tool struct {
	Blade     blade.Blade
	BladeName string
	Saw       saw.Saw
	SawName   string
}

// Likeliest is the place of the blade that is likeliest meant for a kind of
// joint among those that may go on the saw, or -1: one ground to one side for
// tails, a flat top for the rest and where there is none, what is kept for
// joints before what is not (craft section 12).
func Likeliest(kind string, blades []blade.Blade, w saw.Saw) int {
	grind := blade.FTG
	if kind == "tails" {
		grind = blade.OneWay
	}
	best, most := -1, -1
	for i, b := range blades {
		if b.Make != blade.Toothed || len(choose.MountStops(b, w)) > 0 {
			continue
		}
		worth := 0
		switch b.Grind {
		case grind:
			worth = 4
		case blade.FTG:
			worth = 2
		}
		if b.KeptFor == blade.UseJoints {
			worth++
		}
		if worth > most {
			best, most = i, worth
		}
	}
	return best
}

// Of works a joint out. A blade that may not go on the saw is refused; the
// error is a *fault.Error.
func Of(ask Ask, t Tool) (Plan, error) {
	b, w := t.Blade, t.Saw
	if w.Kind != saw.Table {
		return Plan{}, fault.At("saw", "joints are cut on a table saw, where the work lies on the table and the blade stands still; %s is a %s saw", t.SawName, w.Kind)
	}
	if stops := choose.MountStops(b, w); len(stops) > 0 {
		return Plan{}, fault.At("blade", "%s may not go on %s: %s; %s", t.BladeName, t.SawName, stops[0].Why, stops[0].WayOut)
	}
	out := Plan{Kerf: b.Kerf}
	deepest := measure.Length(0) // that the blade is to reach
	j := cut.Job{Direction: cut.Crosscut, Form: cut.Cheek}
	at := func(l measure.Length) say.Set { return say.Set(l) }
	do := func(form string, with ...any) { out.Do = append(out.Do, say.Of(form, with...)) }
	mind := func(form string, with ...any) { out.Mind = append(out.Mind, say.Of(form, with...)) }
	switch ask.Kind {
	case "tenon":
		off := measure.Length(-1)
		if ask.Off != nil {
			off = *ask.Off
		}
		x, err := groove.TenonOf(ask.Stock, ask.Tenon, ask.Length, off, b.Kerf)
		if err != nil {
			return out, err
		}
		out.Tenon = &x
		deepest = max(x.Height[0], x.Height[1])
		if x.Height[0] > 0 {
			do("Blade %s high for the first cheek.", at(x.Height[0]))
		} else {
			do("The first face stays as it is; blade %s high for the other.", at(x.Height[1]))
		}
		do("Stop so that the far side of the blade is %s from it: that is the shoulder. All pieces, this face.", at(x.Stops[0]))
		if n := len(x.Stops); n > 1 {
			do("Then outward in %d more passes, %s each, to the end.", n-1, at(x.Step))
		}
		switch {
		case x.Height[0] == x.Height[1]:
			do("Turn the piece over, the same again.")
		case x.Height[0] > 0 && x.Height[1] > 0:
			do("Turn over, blade %s high, the same again.", at(x.Height[1]))
		}
		do("Fit the first one in its mortise before the rest; half of what it is too thick comes off each face.")
		out.flat(b, "pare the cheeks, or cut with flat-top teeth")
	case "box":
		slot := ask.Slot
		if slot <= 0 {
			slot = b.Kerf
		}
		x, err := groove.BoxOf(ask.Width, slot, ask.Room)
		if err != nil {
			return out, err
		}
		out.Box = &x
		deepest = ask.Stock
		do("The key as wide as a slot, %s; from key to blade %s; a pitch of %s.", say.Thin(slot), say.Thin(x.Offset), say.Thin(x.Pitch))
		if ask.Stock > 0 {
			do("Blade as high as the other board is thick, %s, and a hair.", at(ask.Stock))
		}
		do("First board against the key, then every slot over it: %d slots. The other board begins with a slot at its edge.", x.Slots)
		do("A test joint of a few fingers in scrap; say what gap it has and the key’s move is worked out.")
		if slot > b.Kerf+0.02 {
			passes, _, err := groove.Passes(slot, b.Kerf, groove.Overlap)
			if err == nil {
				mind("A slot is wider than this kerf of %s: %d passes each, or a stack.", say.Thin(b.Kerf), passes)
			}
		} else if slot < b.Kerf-0.02 {
			return out, fault.At("slot", "a slot of %s is less than the kerf of %s", say.Thin(slot), say.Thin(b.Kerf))
		}
		if !x.Whole {
			what := say.Of("finger")
			if x.InSlot {
				what = say.Of("slot")
			}
			mind("The far edge ends in a part of a %s, %s wide; a board of %s ends whole.", what, at(x.Last), at(ask.Width-x.Last))
		}
		if ask.Gap != nil {
			move := x.Retouch(*ask.Gap, ask.Fingers)
			out.Move = &move
			switch {
			case math.Abs(move.Mm()) < 0.01:
				do("The test joint is as it should be.")
			case move > 0:
				do("Loose: the key %s further from the blade.", say.Thin(move))
			default:
				do("Tight: the key %s nearer to the blade.", say.Thin(-move))
			}
		}
		out.Cautions = append(out.Cautions, say.Of("The jig on the miter gauge or a sled, its backer behind the cut; hands on the outer edges."))
		out.flat(b, "clean the bottoms with a chisel, or cut with flat-top teeth")
	case "tails":
		x, err := groove.TailOf(b, ask.Stock, w.ReachWith(b, b.Bevel), w.MostBevel())
		if err != nil {
			return out, err
		}
		out.Tail = &x
		do("Blade tilted %.1f°, as its teeth are ground: they then lie flat on the base line. A slope of 1 in %.1f.", x.Tilt, x.Slope)
		do("Height to the base line, %s over the table, set with the blade tilted.", at(x.Up))
		do("Board on end against a tall backer: one side of every tail, then the board turned round for the other.")
		do("Waste between them with a narrow upright blade, short of the line.")
		out.Cautions = append(out.Cautions, say.Of("Work on end wants a tall fence or jig on the miter gauge, clamped to it; never freehand."))
	case "slope":
		j.Direction = cut.Rip
		x, err := groove.SlantOf(ask.Edge, ask.Width, b.Kerf, ask.Depth, ask.SlopeDeg)
		if err != nil {
			return out, err
		}
		out.Slant = &x
		deepest = x.Passes[0].Height
		do("%d passes, each with its own height, the deepest at the near wall.", len(x.Passes))
		do("What is left are stairs of at most %s: pare them with a chisel or a shoulder plane.", say.Thin(x.Left))
		out.flat(b, "flat-top teeth leave cleaner stairs")
	case "fold":
		skin := ask.Skin
		if skin <= 0 {
			skin = groove.UsualSkin(ask.Stock)
		}
		x, err := groove.FoldOf(ask.Stock, skin, b.Kerf, ask.Radius, ask.BendDeg)
		if err != nil {
			return out, err
		}
		out.Fold, out.Skin = &x, skin
		deepest = x.Depth
		do("Blade %s high: a skin of %s stays.", at(x.Depth), say.Thin(skin))
		do("%d kerfs, %s from middle to middle, over %s; on the inside of the bend.", x.Kerfs, at(x.Spacing), at(x.Span))
		do("Each closes by %.1f°. Try a strip first; wet the skin of ply a little, bend slowly over a form.", x.Closes)
		mind("How thin a skin bends without breaking differs from sheet to sheet; across the skin’s grain it breaks first.")
		if b.Grind == blade.ATB || b.Grind == blade.HighATB {
			mind("The points of its teeth go deeper than the middle: measure the skin at the points.")
		}
	default:
		return out, fault.At("kind", "there is no such joint")
	}
	if reach := w.ReachWith(b, 0); deepest >= reach {
		return out, fault.At("blade", "%s reaches only %s here, and %s is wanted", t.BladeName, reach, deepest)
	}
	if len(out.Mind) > 0 {
		out.Verdict = verdict.Caution
	}
	out.Cautions = append(out.Cautions, guide.Cautions(j, w)...)
	return out, nil
}

// flat minds a blade that leaves no flat bottom.
func (p *Plan) flat(b blade.Blade, wayOut string) {
	if groove.Flatness(b) >= groove.Sloping {
		p.Mind = append(p.Mind, say.Of("Its teeth leave a ridge of %s: %s.", say.Thin(groove.Ridge(b)), say.Word(wayOut)))
	}
}
