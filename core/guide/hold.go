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
		a.halt(TopicSled, "Not along the fence: clamped on a sled, or as part of a longer blank that is cut to length afterwards.")
		return
	}
	side := say.Line{}
	switch at := FenceSide(j, a.s); {
	case j.BevelDeg > 0 && at != cut.UnknownSide:
		side = say.Of(", to the %s of the blade, which leans away from it", at)
	case j.BevelDeg > 0:
		side = say.Of(", on the side that the blade leans away from")
	case at == cut.Left:
		side = say.Of(", to the left of the blade")
	}
	flat := say.Line{}
	switch {
	case j.Material.Kind == material.Softwood || j.Material.Kind == material.Hardwood:
		flat = say.Of(": its edge straight and its face flat, or the best blade leaves no glue line")
		if j.Finish == cut.Fine {
			flat = say.Of(": only straight, flat stock comes out fit to glue, so edge and face are planed or jointed first")
		}
	case !j.Material.Kind.Modelled():
		flat = say.Of(": its edge straight, the sheet flat on the table")
	default:
		flat = say.Of(": its edge straight, the sheet tight to the fence all along")
	}
	switch {
	case a.parts() && j.Width < stripUnder:
		a.say(TopicFence, "A strip of %s is never run between fence and blade: it comes off as the offcut, on the far side. A thin-rip stop before the blade, %s from the teeth; board and fence come over to it for each strip, the fence at the board's width less %s and the kerf. Or cut wide stock narrow last.",
			say.Set(j.Width), say.Set(j.Width), say.Set(j.Width))
		a.say(TopicSupport, "A zero-clearance insert, or the strip goes down beside the blade.")
	case pastFence(j, a.s):
		a.say(TopicFence, "The fence doesn't reach this width: run the other side of the work along it, and the piece comes off on the far side, carried there by a table or a helper who doesn't pull.")
	default:
		a.say(TopicFence, "Fence at %s%s%s.", say.Set(j.Width), side, flat)
		switch {
		case j.Width < pushUnder:
			a.say(TopicPush, "Only %s to the fence: a push block that hooks over the end takes it from before the blade to past it.", say.Set(j.Width))
		case j.Width < HandsOff:
			a.say(TopicPush, "Push block from %s before the blade on: no hand nearer than that. Two, taken in turn, keep the work moving.", handsOff)
		}
	}
	a.rest()
	if k := j.Material.Kind; k == material.Plastic || k == material.SoftMetal && j.Thickness <= thinSheetMetal {
		a.say(TopicFence, "Close the gap under the fence with a strip along its foot: a thin sheet creeps under it and jams.")
	}
	if j.BothFaces {
		a.say(TopicPasses, "Two passes, one from each face: turn the work over its length, the same face against the fence both times.")
		if a.s.Knife > 0 {
			a.say(TopicPasses, "The riving knife stays, set below the top of the blade, since neither pass comes through.")
		}
	}
	if j.Length > longStock {
		a.say(TopicSupport, "%s is long: outfeed at table height, or the end drops and lifts the work onto the rear teeth.", say.Set(j.Length))
	}
}

// rest says what is left of the board beside the piece, and where it is held.
func (a *adviser) rest() {
	j := a.j
	left := j.Board - j.Width
	switch {
	case j.Board == 0 || !a.parts() || left <= 0 || pastFence(j, a.s):
	case j.Width < pushUnder && left > j.Width && left >= pushUnder:
		a.say(TopicPush, "The board is %s wide: run its wide side along the fence instead, the fence at %s less the kerf, and the narrow piece comes off on the far side.", say.Set(j.Board), say.Set(left))
	case left < pushUnder:
		a.say(TopicPush, "About %s comes off on the far side: it falls free. Don’t hold it or reach for it; clear it once the blade has stopped.", say.Set(left))
	default:
		a.say(TopicPush, "About %s stays on the far side: press there only before the blade, never beside it or behind it.", say.Set(left))
	}
}

// carriage is how work that rides on a sliding carriage is held (craft section
// 19).
func (a *adviser) carriage() {
	j := a.j
	hold := say.Of("Clamp the work to the carriage: it moves with it.")
	if !a.s.CarriageClamps {
		hold = say.Of("Hold the work to the carriage with clamps of your own: it moves with it.")
	}
	a.out = append(a.out, Advice{Topic: TopicSled, Text: hold})
	a.say(TopicSled, "Hands on the carriage’s handle, never on the table. The offcut falls free on the far side.")
	if j.Direction == cut.Crosscut {
		a.say(TopicFence, "Against the carriage’s own fence. Draw the rip fence back before the blade: it is a length stop there, and no more.")
	} else {
		a.say(TopicFence, "The rip fence well away: the clamped edge guides the cut, straight without a straightedge.")
	}
	a.say(TopicSupport, "The carriage travels %s, less what the work hangs over its front.", say.Set(a.s.Carriage))
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
		a.say(TopicSled, "Hold the long end against the gauge, at least %s from the blade: the short piece comes off free, with nothing touching it.", handsOff)
		a.say(TopicFence, "Sled or miter gauge, the rip fence drawn well back: fence and gauge together trap the offcut, and it is thrown.")
	case kept > 0 && kept < smallPiece:
		a.halt(TopicSled, "%s is too short to hold: on a sled, under a clamp. Sandpaper on its fence stops creep.", say.Set(kept))
	case j.Piece > 0 && j.Width < j.Piece && a.parts():
		a.halt(TopicFence, "Sled or miter gauge: the rip fence may not guide this, since the edge on it would be %s, and %s to the blade.", say.Set(j.Width), say.Set(j.Piece))
	case a.parts():
		a.say(TopicFence, "Sled or miter gauge, the rip fence drawn well back: fence and gauge together trap the offcut, and it is thrown.")
	default:
		a.say(TopicFence, "Sled or miter gauge, square to the blade; hold the work down on the way over it.")
	}
	if j.Piece > 0 && a.parts() {
		if kept < smallPiece && heldByRest(j) {
			a.say(TopicStop, "To length %s: a %s block on the rip fence, well before the blade, and the fence at %s. The end leaves the block before it meets the blade.", say.Set(j.Piece), say.Either{Mm: say.Set(StopBlock), Inch: say.Set(InchStopBlock)}, say.Either{Mm: say.Set(j.Piece + StopBlock), Inch: say.Set(j.Piece + InchStopBlock)})
		} else if a.s.FenceReach == 0 || j.Piece+InchStopBlock <= a.s.FenceReach {
			a.say(TopicStop, "To length %s: stop block on the gauge's fence; or a %s block on the rip fence, well before the blade, and the fence at %s.", say.Set(j.Piece), say.Either{Mm: say.Set(StopBlock), Inch: say.Set(InchStopBlock)}, say.Either{Mm: say.Set(j.Piece + StopBlock), Inch: say.Set(j.Piece + InchStopBlock)})
		} else {
			a.say(TopicStop, "To length %s: stop block on the gauge's fence, or on an arm of it; the rip fence does not reach so far.", say.Set(j.Piece))
		}
		a.say(TopicStop, "Dust at the stop makes short pieces: chamfer the block, blow it clean.")
	}
	if j.BothFaces {
		a.say(TopicPasses, "Two passes, one from each face: square the line all round, and keep the same edge against the gauge.")
	}
	if j.Length > longStock {
		a.say(TopicSupport, "%s is long for a gauge: carry the far end at table height, or it drags the board off square.", say.Set(j.Length))
	}
}

func (a *adviser) miter() {
	j := a.j
	switch kept := storedPiece(j); {
	case kept > 0 && kept < smallPiece && heldByRest(j):
		a.say(TopicSled, "Hold the long end tight to the fence, your hand at least %s from the line: the short piece comes off free.", handsOff)
	case kept > 0 && kept < smallPiece:
		a.halt(TopicSled, "%s is too short to hold: press it with a block or a clamp, no hand within %s of the line.", say.Set(kept), handsOff)
	}
	if j.Piece > 0 {
		a.say(TopicStop, "To length %s: stop on one side only, the offcut free. Blow the stop clean between pieces.", say.Set(j.Piece))
	}
	if j.Motion == cut.Push && j.Exit == cut.Scored {
		a.say(TopicPasses, "A shallow pass first, then the full one, both pushed from front to back.")
	}
	if j.Length > longStock {
		a.say(TopicSupport, "%s is long: carry the ends at table height, or they lift off the table and pinch.", say.Set(j.Length))
	}
}

func (a *adviser) byHand() {
	j := a.j
	if clampable(j) < leastClamping {
		a.halt(TopicSupport, "Not by hand: as part of a longer board that is clamped.")
		return
	}
	if j.Direction == cut.Crosscut {
		a.say(TopicFence, "Along a square held or clamped to the edge; both hands stay on the saw.")
	} else {
		a.say(TopicFence, "Along a straight edge clamped at both ends, the shoe's own distance off the line.")
	}
	if j.BothFaces {
		a.say(TopicPasses, "Square the line all round and cut from two sides, both a little past the middle; the guide stands on the same side of the line both times.")
	}
	switch j.Bed {
	case cut.Runners:
		a.say(TopicSupport, "Over runners: %s through, and they survive. One each side of the line, close to it.", aLittle)
	case cut.Sacrifice:
		a.say(TopicSupport, "Over a sheet that may be cut: %s through, the work flat on it all along.", aLittle)
	default:
		a.say(TopicSupport, "Four supports, two for each half, so that neither sags onto the blade: the plan below sets them.")
	}
}

// stock is what wet, frozen or moving wood asks.
func (a *adviser) stock() {
	j := a.j
	hold := say.Of("a wedge at hand for the kerf behind the blade")
	if a.s.Kind == saw.Table && a.s.Knife > 0 && j.Form == cut.Through {
		hold = say.Of("the riving knife in line, and %s", hold)
	}
	switch {
	case j.Moisture == cut.Wet && a.s.Kind == saw.Miter:
		a.say(TopicStock, "Wet stock: the kerf may close. Hold both sides down, and lift the blade out if it slows. Wash the blade soon after.")
	case j.Moisture == cut.Wet:
		a.say(TopicStock, "Wet stock: the kerf may close on the blade. %s; stop and switch off if it pinches. Wash the blade soon after.", hold.Upper())
	case j.Moisture == cut.Frozen:
		a.say(TopicStock, "Frozen stock is hard and brittle, and its chips thaw and pack in the gullets: let it thaw if you can, look at the gullets if you cannot.")
	}
	if !j.Moves {
		return
	}
	if a.s.Kind != saw.Miter {
		a.say(TopicStock, "This board moves as it is opened: carry both halves, %s; stop and switch off if it pinches.", hold)
	} else {
		a.say(TopicStock, "This board moves as it is opened: rest it where it touches fence and table at the blade, hollow away from both, and lift the blade out if it pinches.")
	}
	if j.Direction == cut.Rip {
		a.say(TopicStock, "Rip it a few millimetres oversize first, let it lie, straighten an edge, then rip it to width.")
	}
}

// end is what holds the last fibres, where there are any.
func (a *adviser) end() {
	if j := a.j; j.Direction.Across() && j.Other == cut.Open && j.Motion != cut.Chop {
		switch k := j.Material.Kind; {
		case k.Fibres():
			a.say(TopicEnd, "The end edge has no backer: the last fibres break off there. A fresh piece behind it holds them.")
		case k == material.Laminate:
			a.say(TopicEnd, "The end edge has no backer: its face chips there. A fresh piece behind it holds it.")
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
