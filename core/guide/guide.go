// Package guide says how the work is held and where hands and body belong:
// craft sections 5 and 15. Its sentences are short, because they are read
// beside a saw; the saw's own manual and local rules come first.
package guide

import (
	"corte/core/cut"
	"corte/core/material"
	"corte/core/saw"
)

// ShowFace says which way the face that will be seen lies: to the side where
// teeth enter, which is up where the blade comes from above or cuts down
// through the work on a table, and down under a hand-held saw.
func ShowFace(j cut.Job, s saw.Saw) string {
	if s.Kind == saw.Circular || j.Motion == cut.Push {
		return "down"
	}
	return "up"
}

// Cautions are the usual ones for a job on a saw, the gravest first.
func Cautions(j cut.Job, s saw.Saw) []string {
	c := []string{"Plug out or battery out before a hand touches the blade."}
	switch {
	case s.Kind == saw.Table && j.Form != cut.Through:
		c = append(c,
			"The wood hides the blade: hands never over the cut or behind it; push blocks and a hold-down.",
			"Riving knife and guard that must come off for it go back on with the next cut.")
		if j.Direction == cut.Crosscut {
			c = append(c, "Sled or miter gauge across the grain; the fence only with a stop block that ends before the blade.")
		} else {
			c = append(c, "Straight edge to the fence over its whole length; stand out of the line of the cut.")
		}
	case s.Kind == saw.Table && j.Direction == cut.Rip:
		c = append(c,
			"Riving knife and guard on; stand out of the line of the cut.",
			"Straight edge to the fence, push block for anything near the blade, never freehand.")
	case s.Kind == saw.Table && j.Direction == cut.Sheet:
		c = append(c,
			"Guard and riving knife on; stand out of the line of the cut.",
			"Sheet flat and tight to the fence, both halves carried until the cut is done.")
	case s.Kind == saw.Table:
		c = append(c,
			"Guard on; stand out of the line of the cut.",
			"Sled or miter gauge across the grain, never together with the fence: the offcut is trapped and thrown.")
	case s.Kind == saw.Circular:
		c = append(c,
			"Carry both halves, cut line between two supports, or the kerf closes on the blade.",
			"Both hands on the saw, guard free to close, body beside the line.")
	case j.Motion == cut.Push:
		c = append(c,
			"Push front to back; never climb by pulling through.",
			"Work tight to fence and table, hands clear of the line, wait until the blade has stopped.")
	default:
		c = append(c,
			"Work tight to fence and table, hands clear of the line.",
			"Hold the blade down until it has stopped.")
	}
	switch j.Material.Kind {
	case material.SoftMetal:
		c = append(c, "Face shield, work held down, slow, a touch of lubricant; no wood dust in the same collector.")
	case material.Plastic:
		c = append(c, "Steady feed without dwelling: it melts.")
	case material.Mineral, material.CementBoard:
		c = append(c, "Dust mask for silica.")
	case material.Steel:
		c = append(c, "Only with saw and blade made for steel; sparks away from all dust.")
	}
	return append(c, "Eye, ear and lung protection; no gloves, loose sleeves or rings near a turning blade.")
}
