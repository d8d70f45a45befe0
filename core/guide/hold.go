package guide

import (
	"fmt"

	"corte/core/cut"
	"corte/core/measure"
	"corte/core/saw"
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
)

// Advice is one sentence on how to hold and guide the work. Halt says that
// the obvious way would hurt somebody, so that this one is no choice.
type Advice struct {
	Topic Topic
	Text  string
	Halt  bool
}

// StopBlock is the width of a stop block on the rip fence. 100 mm is handy
// because it adds without thought and leaves the offcut room to turn; 20 mm
// does not (craft section 5).
const StopBlock = measure.Length(100)

// InchStopBlock is its like for a fence that reads inches.
var InchStopBlock = measure.Inches(4)

const (
	handsOff   = measure.Length(150) // no hand nearer to the blade than this
	tooNarrow  = measure.Length(50)  // between blade and fence, for a plain push block
	smallPiece = measure.Length(150) // shorter than a hand can hold safely
	longStock  = measure.Length(1500)
)

// Hold says how the work of a job is guided, held and supported on a saw:
// craft section 5. Lengths are written in u.
func Hold(j cut.Job, s saw.Saw, u measure.Unit) []Advice {
	var out []Advice
	say := func(t Topic, halt bool, format string, args ...any) {
		for i, a := range args {
			if l, ok := a.(measure.Length); ok {
				args[i] = l.Setting(u)
			}
		}
		out = append(out, Advice{t, fmt.Sprintf(format, args...), halt})
	}
	block := StopBlock
	if u == measure.Inch {
		block = InchStopBlock
	}
	if j.BothFaces {
		say(TopicPasses, false, "Two passes, one from each face: turn the work over its length, the same face against the fence both times.")
		say(TopicPasses, false, "Neither pass cuts through: the riving knife stays, below the top of the blade; a guard that rides on a splitter comes off only as the saw's manual says.")
	}
	switch {
	case s.Kind == saw.Table && j.Direction == cut.Rip:
		switch {
		case j.Length < j.Width:
			say(TopicFence, true, "Not along the fence: the edge on it (%v) is shorter than the way from fence to blade (%v), and the work would turn and be thrown. Use a sled.", j.Length, j.Width)
		case j.Width < tooNarrow:
			say(TopicFence, false, "Fence at %v. That is too narrow for a push block beside the guard: make the thin strip the offcut, on the far side of the blade.", j.Width)
		default:
			say(TopicFence, false, "Fence at %v, its edge straight and its face flat, or the best blade leaves no glue line.", j.Width)
		}
		if j.Width < handsOff {
			say(TopicPush, false, "Push block from %v before the blade on: no hand nearer than that. Two, taken in turn, keep the work moving.", handsOff)
		}
		if j.Length > longStock {
			say(TopicSupport, false, "%v is long: outfeed at table height, or the end drops and lifts the work onto the rear teeth.", j.Length)
		}
	case s.Kind == saw.Table:
		edge, reach := j.Width, j.Piece
		if j.Direction == cut.Sheet {
			edge, reach = j.Length, j.Width
		}
		switch {
		case j.Direction == cut.Sheet && edge >= reach:
			say(TopicFence, false, "Along the fence at %v: the edge on it (%v) is longer than the way to the blade, so it guides.", reach, edge)
		case j.Direction == cut.Sheet:
			say(TopicFence, true, "Not along the fence: the edge on it (%v) is shorter than the way to the blade (%v). Sled, or a circular saw along a guide.", edge, reach)
		case j.Piece == 0:
			say(TopicFence, false, "Sled or miter gauge, the fence drawn well back. Never both together: the offcut is trapped and thrown.")
		case edge < reach:
			say(TopicFence, true, "The fence may not guide this: the edge on it would be %v, and %v to the blade. Sled or miter gauge.", edge, reach)
		default:
			say(TopicFence, true, "Sled or miter gauge, not the fence: fence and gauge together trap the offcut.")
		}
		if j.Direction == cut.Crosscut && j.Piece > 0 {
			say(TopicStop, false, "To length %v: stop block on the gauge's fence; or a %v block on the rip fence, well before the blade, and the fence at %v.", j.Piece, block, j.Piece+block)
			say(TopicStop, false, "Dust at the stop makes short pieces: chamfer the block, blow it clean.")
		}
	case s.Kind == saw.Miter:
		if j.Piece > 0 {
			say(TopicStop, false, "To length %v: stop on one side only, the offcut free. Blow the stop clean between pieces.", j.Piece)
		}
		if j.Motion == cut.Push && j.Exit == cut.Scored {
			say(TopicPasses, false, "A shallow pass first, then the full one, both pushed from front to back.")
		}
		if j.Length > longStock {
			say(TopicSupport, false, "%v is long: carry both ends at table height, or they lift off the table and pinch.", j.Length)
		}
	default:
		if j.Direction == cut.Crosscut {
			say(TopicFence, false, "Along a square held or clamped to the edge; both hands stay on the saw.")
		} else {
			say(TopicFence, false, "Along a straight edge clamped at both ends, the shoe's own distance off the line.")
		}
		switch j.Bed {
		case cut.Runners:
			say(TopicSupport, false, "Over runners: 2 to 3 mm through, and they survive. One each side of the line, close to it.")
		case cut.Sacrifice:
			say(TopicSupport, false, "Over a sheet that may be cut: 2 to 3 mm through, the work flat on it all along.")
		default:
			say(TopicSupport, false, "Four supports, two for each half, so that neither sags onto the blade: the plan below sets them.")
		}
	}
	if kept := keptPiece(j); kept > 0 && kept < smallPiece && j.Direction != cut.Rip && s.Kind != saw.Circular {
		if s.Kind == saw.Table {
			say(TopicSled, true, "%v is too short to hold: on a sled, under a clamp. Sandpaper on the fence stops creep.", kept)
		} else {
			say(TopicSled, true, "%v is too short to hold: press it with a block or a clamp, no hand within %v of the line.", kept, handsOff)
		}
	}
	if j.Direction.Across() && j.Other == cut.Open && j.Motion != cut.Chop {
		say(TopicEnd, false, "The %s has no backer: the last fibres break off there. A fresh piece behind it holds them.", "end edge")
	}
	return out
}

func keptPiece(j cut.Job) measure.Length {
	if j.Piece > 0 {
		return j.Piece
	}
	if j.Direction == cut.Crosscut {
		return j.Length
	}
	return 0
}
