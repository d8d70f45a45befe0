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
		return Plan{}, fault.At("saw", "joints are cut on a table saw, and %s is a %s saw", t.SawName, w.Kind)
	}
	if stops := choose.MountStops(b, w); len(stops) > 0 {
		return Plan{}, fault.At("blade", "%s can't be used on %s: %s. %s", t.BladeName, t.SawName, stops[0].Why, stops[0].WayOut.Upper())
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
			do("Set the blade %s high for the first cheek.", at(x.Height[0]))
		} else {
			do("Leave the first face as it is. Set the blade %s high for the other.", at(x.Height[1]))
		}
		do("Set the stop so the far side of the blade is %s from it. That is the shoulder. Cut this face of all pieces.", at(x.Stops[0]))
		if n := len(x.Stops); n > 1 {
			do("Then cut outward in %d more passes of %s to the end.", n-1, at(x.Step))
		}
		switch {
		case x.Height[0] == x.Height[1]:
			do("Turn the piece over and repeat.")
		case x.Height[0] > 0 && x.Height[1] > 0:
			do("Turn it over, set the blade %s high, and repeat.", at(x.Height[1]))
		}
		do("Fit the first one in its mortise before you cut the rest. Take half of the excess off each face.")
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
		do("Make the key as wide as a slot, %s. Set it %s from the blade, which gives a spacing of %s.", say.Thin(slot), say.Thin(x.Offset), say.Thin(x.Pitch))
		if ask.Stock > 0 {
			do("Set the blade as high as the other board is thick, %s, plus a little.", at(ask.Stock))
		}
		do("Put the first board against the key, then each slot over it: %d slots. The other board starts with a slot at its edge.", x.Slots)
		do("Cut a test joint of a few fingers in scrap and enter its gap. Corte works out how to move the key.")
		if slot > b.Kerf+0.02 {
			passes, _, err := groove.Passes(slot, b.Kerf, groove.Overlap)
			if err == nil {
				mind("A slot is wider than this kerf of %s. Use %d passes each, or a dado stack.", say.Thin(b.Kerf), passes)
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
				do("The test joint fits.")
			case move > 0:
				do("Loose: move the key %s away from the blade.", say.Thin(move))
			default:
				do("Tight: move the key %s toward the blade.", say.Thin(-move))
			}
		}
		out.Cautions = append(out.Cautions, say.Of("Fix the jig to the miter gauge or a crosscut sled, with its backer behind the cut. Keep your hands on the outer edges."))
		out.flat(b, "clean the bottoms with a chisel, or cut with flat-top teeth")
	case "tails":
		x, err := groove.TailOf(b, ask.Stock, w.ReachWith(b, b.Bevel), w.MostBevel())
		if err != nil {
			return out, err
		}
		out.Tail = &x
		do("Tilt the blade %.1f°, as its teeth are ground, so they cut flat on the baseline. The slope is 1 in %.1f.", x.Tilt, x.Slope)
		do("Set the height to the baseline, %s above the table, with the blade tilted.", at(x.Up))
		do("Stand the board on end against a tall backer. Cut one side of every tail, then turn the board around for the other.")
		do("Remove the waste between them with a narrow upright blade, stopping short of the line.")
		out.Cautions = append(out.Cautions, say.Of("Stock on end needs a tall fence or jig on the miter gauge, clamped to it. Never freehand."))
	case "slope":
		j.Direction = cut.Rip
		x, err := groove.SlantOf(ask.Edge, ask.Width, b.Kerf, ask.Depth, ask.SlopeDeg)
		if err != nil {
			return out, err
		}
		out.Slant = &x
		deepest = x.Passes[0].Height
		do("%d passes, each at its own height, the deepest at the near side.", len(x.Passes))
		do("This leaves steps of at most %s. Pare them with a chisel or a shoulder plane.", say.Thin(x.Left))
		out.flat(b, "flat-top teeth leave cleaner steps")
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
		do("Set the blade %s high. That leaves %s uncut.", at(x.Depth), say.Thin(skin))
		do("Cut %d kerfs, %s center to center, over %s, on the inside of the bend.", x.Kerfs, at(x.Spacing), at(x.Span))
		do("Each closes by %.1f°. Try a strip first. Wet plywood a little and bend it slowly over a form.", x.Closes)
		mind("How thin it must be to bend without breaking differs from sheet to sheet. It breaks first across the grain.")
		if b.Grind == blade.ATB || b.Grind == blade.HighATB {
			mind("The tooth points cut deeper than the middle. Measure what is left at the points.")
		}
	default:
		return out, fault.At("kind", "there is no such joint")
	}
	if reach := w.ReachWith(b, 0); deepest >= reach {
		return out, fault.At("blade", "%s cuts only %s deep here, and you need %s", t.BladeName, reach, deepest)
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
