package guide

import (
	"math"

	"corte/core/cut"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/saw"
	"corte/core/say"
	"corte/core/verdict"
)

// An adder adds a finding, and returns it.
type adder func(rule Rule, v verdict.Verdict, wayOut say.Line, why string, with ...any) *Finding

// thinSheetMetal is metal that creeps under a fence and has fewer than two teeth
// of a usual blade in it (craft section 13).
const thinSheetMetal = measure.Length(6)

// thinMetal says how metal is held before any blade is chosen.
func thinMetal(j cut.Job, s saw.Saw, add adder) {
	if k := j.Material.Kind; k != material.SoftMetal && k != material.Steel || j.Form != cut.Through {
		return
	}
	switch {
	case s.Kind == saw.Miter:
		add(RuleThin, verdict.Caution, say.Of("Clamp it to the table and the fence. Clamp thin pieces between two boards."),
			"Metal held by hand on a miter saw turns and gets thrown.")
	case j.Thickness > thinSheetMetal:
	case s.Kind == saw.Circular:
		add(RuleThin, verdict.Caution, say.Of("Clamp it between two boards and cut all three."),
			"%s of metal has fewer than two teeth in it, so each one grabs.", say.Set(j.Thickness))
	case AlongFence(j, s):
		add(RuleThin, verdict.Caution, say.Of("Clamp it between two boards and cut all three, over a zero-clearance throat plate, with a strip fixed along the foot of the fence."),
			"%s of metal has fewer than two teeth in it and creeps under the fence.", say.Set(j.Thickness))
	default:
		add(RuleThin, verdict.Caution, say.Of("Clamp it between two boards and cut all three, over a zero-clearance throat plate."),
			"%s of metal has fewer than two teeth in it, so each one grabs.", say.Set(j.Thickness))
	}
}

// usualShoe is how wide the shoe of a hand-held saw is, where nobody has measured
// it.
const usualShoe = measure.Length(130)

// trimUnder is what is cut off an edge with air on one side of the teeth.
const trimUnder = measure.Length(5)

// bendsBind is by how much a sheet may hang before the cut binds at its end, and
// longSheet from where it is worth a word (craft section 19).
const (
	bendsBind = measure.Length(3)
	longSheet = measure.Length(1400)
)

// byHandFindings is what a hand-held saw asks of the stock beside its line.
func byHandFindings(j cut.Job, s saw.Saw, add adder) {
	if !s.Kind.HandHeld() {
		return
	}
	shoe := s.Shoe
	if shoe == 0 {
		shoe = usualShoe
	}
	board := max(j.Board, j.Width)
	off := board - j.Width // on the far side of the line
	if j.Direction == cut.Crosscut {
		board, off = j.Length, j.Piece
	}
	if j.Form == cut.Through && off > 0 && off <= trimUnder {
		add(RuleTrim, verdict.Caution, say.Of("Clamp a waste piece beside the line and cut into both, or use fine teeth along a straightedge, or plane it."),
			"Only %s comes off. Teeth with air on one side drift outward.", say.Set(off))
	}
	if carries := max(board-off, off); j.Direction != cut.Crosscut && carries < shoe/2 {
		add(RuleStrip, verdict.Caution, say.Of("Cut it off a wider board from the wide side, or lay a board of the same thickness beside it."),
			"%s beside the line is too narrow for the shoe, which needs %s. The saw tips.", say.Set(carries), say.Set(shoe/2))
	}
	if long := max(j.Length, j.Width); j.Material.Kind.Sheet() && long > longSheet {
		if hangs := Hangs(j.Material, j.Thickness, long); hangs > bendsBind {
			add(RuleSag, verdict.Caution, say.Of("Support it in the middle too, close to the line on both sides."),
				"Supported only at its ends, %s of this sheet sags by %s. The kerf closes and the blade binds at the end of the cut.", say.Set(long), say.Set(hangs))
		}
	}
}

// Hangs is how far a sheet that is carried at its ends hangs in the middle by its
// own weight: 5·q·L⁴/(384·E·I) of a plate (craft section 19).
func Hangs(m material.Material, thickness, span measure.Length) measure.Length {
	l, t := span.Mm()/1000, thickness.Mm()/1000
	return measure.Length(1000 * 5 * 12 * m.Density * gravity * math.Pow(l, 4) / (384 * stiffness(m) * t * t))
}

const gravity = 9.81

// stiffness is Young's modulus, Pa, as a shop's boards have it (craft section 19).
func stiffness(m material.Material) float64 {
	switch {
	case m.ID == "mdf":
		return 3e9
	case m.Kind == material.Composite, m.Kind == material.Laminate:
		return 2.5e9
	case m.Kind == material.Plywood:
		return 8e9
	}
	return 10e9
}
