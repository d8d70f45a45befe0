package guide

import (
	"corte/core/cut"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/saw"
	"corte/core/say"
)

// A Topic is what a piece of advice is about.
type Topic string

const (
	TopicFence   Topic = "fence"
	TopicStop    Topic = "stop"
	TopicSled    Topic = "sled"
	TopicPush    Topic = "push"
	TopicEnd     Topic = "end"
	TopicSupport Topic = "support"
	TopicPasses  Topic = "passes"
	TopicStock   Topic = "stock"
)

// Advice is one sentence on how to hold and guide the work. Halt says that
// the obvious way would hurt somebody, so that this one is no choice.
type Advice struct {
	Topic Topic
	Text  say.Line
	Halt  bool
}

// StopBlock is the width of a stop block on the rip fence. 100 mm is handy
// because it adds without thought and leaves the offcut room to turn; 20 mm
// does not (craft section 5).
const StopBlock = measure.Length(100)

// InchStopBlock is its like for a fence that reads inches.
var InchStopBlock = measure.Inches(4)

// An adviser collects advice; its lengths are those that are set.
type adviser struct {
	j   cut.Job
	s   saw.Saw
	out []Advice
}

func (a *adviser) say(t Topic, form string, with ...any) {
	a.out = append(a.out, Advice{Topic: t, Text: say.Of(form, with...)})
}

// halt says what is no choice.
func (a *adviser) halt(t Topic, form string, with ...any) {
	a.out = append(a.out, Advice{t, say.Of(form, with...), true})
}

// Hold says how the work of a job is guided, held and supported on a saw:
// craft section 5. No piece of advice names a part
// that the saw has not, or contradicts another; Findings says what stands
// against the cut as a whole.
func Hold(j cut.Job, s saw.Saw) []Advice {
	a := adviser{j: j, s: s}
	switch {
	case j.Carriage:
		a.carriage()
	case AlongFence(j, s):
		a.fence()
	case s.Kind == saw.Table:
		a.gauge()
	case s.Kind == saw.Miter:
		a.miter()
	default:
		a.byHand()
	}
	a.stock()
	a.end()
	return a.out
}

// parts reports whether a pass parts the work, so that there is an offcut.
func (a *adviser) parts() bool { return a.j.Form == cut.Through && !a.j.BothFaces }

func (a *adviser) fence() {
	j := a.j
	if tooShort(j) {
		a.halt(TopicSled, "Not along the fence. Clamp it to a crosscut sled, or rip a longer blank and cut it to length afterward.")
		return
	}
	fence := say.Of("Fence at %s.", say.Set(j.Width))
	switch at := FenceSide(j, a.s); {
	case j.BevelDeg > 0 && at != cut.UnknownSide:
		fence = say.Of("Fence at %s, to the %s of the blade, which leans away from it.", say.Set(j.Width), at)
	case j.BevelDeg > 0:
		fence = say.Of("Fence at %s, on the side that the blade leans away from.", say.Set(j.Width))
	case at == cut.Left:
		fence = say.Of("Fence at %s, to the left of the blade.", say.Set(j.Width))
	}
	edge := say.Line{}
	switch {
	case j.Material.Kind == material.Softwood || j.Material.Kind == material.Hardwood:
		edge = say.Of("Joint the edge straight and the face flat, or the best blade leaves no glue line.")
		if j.Finish == cut.Fine {
			edge = say.Of("Joint edge and face first: only straight, flat stock comes out fit to glue.")
		}
	case !j.Material.Kind.Modelled():
		edge = say.Of("The edge must be straight and the sheet flat on the table.")
	default:
		edge = say.Of("The edge must be straight and the sheet tight to the fence all along.")
	}
	switch {
	case a.parts() && j.Width < stripUnder:
		a.say(TopicFence, "Never run a strip of %s between fence and blade. Let it come off as the offcut on the far side. Set a thin-rip stop before the blade, %s from the teeth, and move board and fence over to it for each strip: the fence at the board's width less %s and the kerf. Or cut the narrow piece last.",
			say.Set(j.Width), say.Set(j.Width), say.Set(j.Width))
		a.say(TopicSupport, "Use a zero-clearance throat plate, or the strip drops down beside the blade.")
	case pastFence(j, a.s):
		a.say(TopicFence, "The fence doesn't reach this width. Run the other side of the stock along it. The piece comes off on the far side, supported by a table or a helper who doesn't pull.")
	default:
		a.say(TopicFence, "%s %s", fence, edge)
		switch {
		case j.Width < pushUnder:
			a.say(TopicPush, "Only %s to the fence. Use a push block that hooks over the end, from before the blade to past it.", say.Set(j.Width))
		case j.Width < HandsOff:
			a.say(TopicPush, "Use a push block from %s before the blade. Keep your hands farther away than that. Two push blocks in turn keep the stock moving.", handsOff)
		}
	}
	a.rest()
	if k := j.Material.Kind; k == material.Plastic || k == material.SoftMetal && j.Thickness <= thinSheetMetal {
		a.say(TopicFence, "Close the gap under the fence with a strip along its foot. A thin sheet creeps under it and jams.")
	}
	if j.BothFaces {
		a.say(TopicPasses, "Make two passes, one from each face. Turn the stock end over end, with the same face against the fence both times.")
		if a.s.Knife > 0 {
			a.say(TopicPasses, "Keep the riving knife on, set below the top of the blade, because neither pass goes through.")
		}
	}
	if j.Length > longStock {
		a.say(TopicSupport, "%s is long. Use outfeed support at table height, or the end drops and lifts the stock onto the rear teeth.", say.Set(j.Length))
	}
}

// rest says what is left of the board beside the piece, and where it is held.
func (a *adviser) rest() {
	j := a.j
	left := j.Board - j.Width
	switch {
	case j.Board == 0 || !a.parts() || left <= 0 || pastFence(j, a.s):
	case j.Width < pushUnder && left > j.Width && left >= pushUnder:
		a.say(TopicPush, "The board is %s wide. Run its wide side along the fence instead, with the fence at %s less the kerf. The narrow piece comes off on the far side.", say.Set(j.Board), say.Set(left))
	case left < pushUnder:
		a.say(TopicPush, "About %s comes off on the far side and falls free. Don't hold it or reach for it. Clear it once the blade has stopped.", say.Set(left))
	default:
		a.say(TopicPush, "About %s stays on the far side. Press there only before the blade, never beside it or behind it.", say.Set(left))
	}
}

// carriage is how work that rides on a sliding carriage is held (craft section
// 19).
func (a *adviser) carriage() {
	j := a.j
	hold := say.Of("Clamp the stock to the carriage so it moves with it.")
	if !a.s.CarriageClamps {
		hold = say.Of("Clamp the stock to the carriage with your own clamps so it moves with it.")
	}
	a.out = append(a.out, Advice{Topic: TopicSled, Text: hold})
	a.say(TopicSled, "Keep your hands on the carriage's handle, never on the table. The offcut falls free on the far side.")
	if j.Direction == cut.Crosscut {
		a.say(TopicFence, "Hold it against the carriage's own fence. Pull the rip fence back before the blade and use it only as a length stop.")
	} else {
		a.say(TopicFence, "Move the rip fence well away. The carriage guides the cut straight, without a straightedge.")
	}
	a.say(TopicSupport, "The carriage travels %s, less the overhang of the stock at its front.", say.Set(a.s.Carriage))
}

// handsOff is HandsOff as a person says it.
var handsOff = say.Either{Mm: say.Set(HandsOff), Inch: say.Set(measure.Inches(6))}

// heldByRest reports whether the rest of a long board holds a short piece: what no
// hand can hold is then on neither side of the cut.
func heldByRest(j cut.Job) bool {
	return j.Direction == cut.Crosscut && j.Piece > 0 && j.Length-j.Piece >= shortOnFence
}

func (a *adviser) gauge() {
	j := a.j
	kept := storedPiece(j)
	switch {
	case kept > 0 && kept < smallPiece && heldByRest(j):
		a.say(TopicSled, "Hold the long end against the miter gauge, at least %s from the blade. The short piece comes off free, with nothing touching it.", handsOff)
		a.say(TopicFence, "Use a crosscut sled or miter gauge with the rip fence pulled well back. Fence and gauge together trap the offcut and throw it.")
	case kept > 0 && kept < smallPiece:
		a.halt(TopicSled, "%s is too short to hold. Clamp it to a crosscut sled. Sandpaper on its fence stops it creeping.", say.Set(kept))
	case j.Piece > 0 && j.Width < j.Piece && a.parts():
		a.halt(TopicFence, "Use a crosscut sled or miter gauge. Don't use the rip fence: the edge on it would be %s, and %s to the blade.", say.Set(j.Width), say.Set(j.Piece))
	case a.parts():
		a.say(TopicFence, "Use a crosscut sled or miter gauge with the rip fence pulled well back. Fence and gauge together trap the offcut and throw it.")
	default:
		a.say(TopicFence, "Use a crosscut sled or miter gauge, square to the blade. Hold the stock down all the way across.")
	}
	if j.Piece > 0 && a.parts() {
		if kept < smallPiece && heldByRest(j) {
			a.say(TopicStop, "For a length of %s: clamp a %s stop block to the rip fence, well before the blade, and set the fence at %s. The end leaves the block before it meets the blade.", say.Set(j.Piece), say.Either{Mm: say.Set(StopBlock), Inch: say.Set(InchStopBlock)}, say.Either{Mm: say.Set(j.Piece + StopBlock), Inch: say.Set(j.Piece + InchStopBlock)})
		} else if a.s.FenceReach == 0 || j.Piece+InchStopBlock <= a.s.FenceReach {
			a.say(TopicStop, "For a length of %s: use a stop block on the miter gauge's fence. Or clamp a %s block to the rip fence, well before the blade, and set the fence at %s.", say.Set(j.Piece), say.Either{Mm: say.Set(StopBlock), Inch: say.Set(InchStopBlock)}, say.Either{Mm: say.Set(j.Piece + StopBlock), Inch: say.Set(j.Piece + InchStopBlock)})
		} else {
			a.say(TopicStop, "For a length of %s: use a stop block on the miter gauge's fence or its extension. The rip fence doesn't reach that far.", say.Set(j.Piece))
		}
		a.say(TopicStop, "Dust at the stop makes short pieces. Chamfer the block and blow it clean.")
	}
	if j.BothFaces {
		a.say(TopicPasses, "Make two passes, one from each face. Square the line all around and keep the same edge against the miter gauge.")
	}
	if j.Length > longStock {
		a.say(TopicSupport, "%s is long for a miter gauge. Support the far end at table height, or it pulls the board off square.", say.Set(j.Length))
	}
}

func (a *adviser) miter() {
	j := a.j
	switch kept := storedPiece(j); {
	case kept > 0 && kept < smallPiece && heldByRest(j):
		a.say(TopicSled, "Hold the long end tight to the fence, your hand at least %s from the line. The short piece comes off free.", handsOff)
	case kept > 0 && kept < smallPiece:
		a.halt(TopicSled, "%s is too short to hold. Use a clamp or a block, and keep your hands at least %s from the line.", say.Set(kept), handsOff)
	}
	if j.Piece > 0 {
		a.say(TopicStop, "For a length of %s: use a stop on one side only and leave the offcut free. Blow the stop clean between pieces.", say.Set(j.Piece))
	}
	if j.Motion == cut.Push && j.Exit == cut.Scored {
		a.say(TopicPasses, "Make a shallow pass first, then the full cut. Push both from front to back.")
	}
	if j.Length > longStock {
		a.say(TopicSupport, "%s is long. Support the ends at table height, or they lift off the table and pinch the blade.", say.Set(j.Length))
	}
}

func (a *adviser) byHand() {
	j := a.j
	if clampable(j) < leastClamping {
		a.halt(TopicSupport, "Don't hold it by hand. Cut it as part of a longer board that is clamped.")
		return
	}
	if j.Direction == cut.Crosscut {
		a.say(TopicFence, "Guide it along a square held or clamped to the edge. Keep both hands on the saw.")
	} else {
		a.say(TopicFence, "Guide it along a straightedge clamped at both ends, as far from the line as the shoe reaches.")
	}
	if j.BothFaces {
		a.say(TopicPasses, "Square the line all around and cut from two sides, each a little past the middle. Keep the guide on the same side of the line.")
	}
	switch j.Bed {
	case cut.Runners:
		a.say(TopicSupport, "On runners: set the blade %s past the stock, so they aren't cut through. One on each side of the line, close to it.", aLittle)
	case cut.Sacrifice:
		a.say(TopicSupport, "On a sacrificial sheet: set the blade %s past the stock and lay the stock flat on it.", aLittle)
	default:
		a.say(TopicSupport, "Use four supports, two for each half, so neither sags onto the blade. See the plan below.")
	}
}

// stock is what wet, frozen or moving wood asks.
func (a *adviser) stock() {
	j := a.j
	hold := say.Of("a wedge ready for the kerf behind the blade")
	if a.s.Kind == saw.Table && a.s.Knife > 0 && j.Form == cut.Through {
		hold = say.Of("the riving knife in line and %s", hold)
	}
	switch {
	case j.Moisture == cut.Wet && a.s.Kind == saw.Miter:
		a.say(TopicStock, "Wet stock: the kerf may close. Hold both sides down and lift the blade out if it slows. Clean the blade soon after.")
	case j.Moisture == cut.Wet:
		a.say(TopicStock, "Wet stock: the kerf may close on the blade. Cut with %s. Stop and switch off if it pinches. Clean the blade soon after.", hold)
	case j.Moisture == cut.Frozen:
		a.say(TopicStock, "Frozen stock is hard and brittle, and its chips thaw and pack the gullets. Let it thaw if you can. If not, check the gullets.")
	}
	if !j.Moves {
		return
	}
	if a.s.Kind != saw.Miter {
		a.say(TopicStock, "This board has tension and moves as you cut it. Support both halves, with %s. Stop and switch off if it pinches.", hold)
	} else {
		a.say(TopicStock, "This board has tension and moves as you cut it. Rest it so it touches fence and table at the blade, hollow side away from both. Lift the blade out if it pinches.")
	}
	if j.Direction == cut.Rip {
		a.say(TopicStock, "Rip it a few millimeters oversize first, let it rest, straighten one edge, then rip it to width.")
	}
}

// end is what holds the last fibres, where there are any.
func (a *adviser) end() {
	if j := a.j; j.Direction.Across() && j.Other == cut.Open && j.Motion != cut.Chop {
		switch k := j.Material.Kind; {
		case k.Fibres():
			a.say(TopicEnd, "The end edge has no backer, so the last fibers break off. Put a fresh piece behind it.")
		case k == material.Laminate:
			a.say(TopicEnd, "The end edge has no backer, so its face chips. Put a fresh piece behind it.")
		}
	}
}

// aLittle is how far through a blade goes over what is to survive it.
var aLittle = say.Either{Mm: say.Set(3), Inch: say.Set(measure.Inches(1.0 / 8))}

func storedPiece(j cut.Job) measure.Length {
	if j.Piece > 0 {
		return j.Piece
	}
	if j.Direction == cut.Crosscut {
		return j.Length
	}
	return 0
}
