// Package guide says how the work is held and where hands and body belong:
// craft sections 5 and 15. Its sentences are short, because they are read
// beside a saw; the saw's own manual and local rules come first.
package guide

import (
	"corte/core/cut"
	"corte/core/material"
	"corte/core/saw"
	"corte/core/say"
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

// Cautions are the usual ones for a job on a saw, the gravest first. They name
// only what this saw has, and never "guard on" where the guard cannot stand.
func Cautions(j cut.Job, s saw.Saw) []say.Line {
	c := []say.Line{say.Word(map[saw.Power]string{
		saw.Plug:         "Plug out before a hand touches the blade.",
		saw.Battery:      "Battery out before a hand touches the blade.",
		saw.UnknownPower: "Plug out or battery out before a hand touches the blade.",
	}[s.Power()])}
	guards, back := say.Of("Guard on; stand out of the line of the cut."), say.Of("The guard that must come off for it goes back on with the next cut.")
	if s.Knife > 0 {
		guards, back = say.Of("Riving knife and guard on; stand out of the line of the cut."), say.Of("Riving knife and guard that must come off for it go back on with the next cut.")
	}
	switch {
	case s.Kind == saw.Table && (j.Form != cut.Through || j.BothFaces):
		c = append(c,
			say.Of("The wood hides the blade: hands never over the cut or behind it; push blocks and a hold-down, or a tunnel guard."),
			back)
		if j.Direction != cut.Crosscut {
			c = append(c, say.Of("Straight edge to the fence over its whole length; stand out of the line of the cut."))
		} else if j.Form != cut.Through {
			c = append(c, say.Of("Stand out of the line of the cut."))
		} else {
			c = append(c, say.Of("Never gauge and fence together; stand out of the line of the cut."))
		}
	case s.Kind == saw.Table && j.Direction == cut.Rip:
		c = append(c,
			guards,
			say.Of("Push block for anything near the blade, never freehand."))
	case s.Kind == saw.Table && j.Direction == cut.Sheet:
		c = append(c,
			guards,
			say.Of("Both halves carried until the cut is done, never freehand."))
	case s.Kind == saw.Table:
		c = append(c,
			guards,
			say.Of("Never gauge and fence together: the offcut is trapped and thrown."))
	case s.Kind == saw.Circular:
		c = append(c,
			say.Of("Carry both halves, cut line between two supports, or the kerf closes on the blade."),
			say.Of("Both hands on the saw, guard free to close, body beside the line."))
	case j.Motion == cut.Push:
		c = append(c,
			say.Of("Push front to back; never climb by pulling through."),
			say.Of("Work tight to fence and table, hands clear of the line, wait until the blade has stopped."))
	default:
		c = append(c,
			say.Of("Work tight to fence and table, hands clear of the line."),
			say.Of("Hold the blade down until it has stopped."))
	}
	if s.Brake != nil && j.BrakeOff {
		c = append(c, say.Of("The blade brake is bypassed: nothing stops the blade at a touch. Switch it back on after this cut."))
	}
	switch j.Material.Kind {
	case material.SoftMetal:
		c = append(c, say.Of("Face shield, work held down, slow, a touch of lubricant; no wood dust in the same collector."))
	case material.Plastic:
		c = append(c, say.Of("Steady feed without dwelling: it melts."))
	case material.Mineral, material.CementBoard:
		c = append(c, say.Of("Dust mask for silica."))
	case material.Steel:
		c = append(c, say.Of("Only with saw and blade made for steel; sparks away from all dust."))
	case material.Nailed:
		c = append(c, say.Of("Search it for metal and pull what you find; face shield."))
	}
	return append(c, say.Of("Eye, ear and lung protection; no gloves, loose sleeves or rings near a turning blade."))
}
