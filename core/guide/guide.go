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
		saw.Plug:         "Unplug the saw before you touch the blade.",
		saw.Battery:      "Take the battery out before you touch the blade.",
		saw.UnknownPower: "Unplug the saw or take the battery out before you touch the blade.",
	}[s.Power()])}
	guards, back := say.Of("Blade guard on. Stand to the side of the blade, never behind it."), say.Of("If the guard must come off for this cut, put it back on for the next one.")
	if s.Knife > 0 {
		guards, back = say.Of("Riving knife and blade guard on. Stand to the side of the blade, never behind it."), say.Of("If riving knife and guard must come off for this cut, put them back on for the next one.")
	}
	switch {
	case s.Kind == saw.Table && (j.Form != cut.Through || j.BothFaces):
		c = append(c,
			say.Of("The wood hides the blade. Never put your hands over the cut or behind it. Use push blocks and a featherboard, or a tunnel guard."),
			back)
		if j.Direction != cut.Crosscut {
			c = append(c, say.Of("Keep a straight edge against the fence along its whole length. Stand to the side of the blade, never behind it."))
		} else if j.Form != cut.Through {
			c = append(c, say.Of("Stand to the side of the blade, never behind it."))
		} else {
			c = append(c, say.Of("Never use miter gauge and rip fence together. Stand to the side of the blade, never behind it."))
		}
	case s.Kind == saw.Table && j.Direction == cut.Rip:
		c = append(c,
			guards,
			say.Of("Use a push block near the blade. Never cut freehand."))
	case s.Kind == saw.Table && j.Direction == cut.Sheet:
		c = append(c,
			guards,
			say.Of("Support both halves until the cut is done. Never cut freehand."))
	case s.Kind == saw.Table:
		c = append(c,
			guards,
			say.Of("Never use miter gauge and rip fence together: the offcut gets trapped and thrown."))
	case s.Kind == saw.Circular:
		c = append(c,
			say.Of("Support both halves with the cut line between two supports, or the kerf closes on the blade."),
			say.Of("Keep both hands on the saw, the guard free to close, and your body beside the line of cut."))
	case j.Motion == cut.Push:
		c = append(c,
			say.Of("Push from front to back. Never pull it through: the blade climbs."),
			say.Of("Hold the stock tight to fence and table, hands clear of the line. Wait until the blade has stopped."))
	default:
		c = append(c,
			say.Of("Hold the stock tight to fence and table, hands clear of the line."),
			say.Of("Hold the blade down until it has stopped."))
	}
	if s.Brake != nil && j.BrakeOff {
		c = append(c, say.Of("The blade brake is bypassed, so it won't stop the blade if you touch it. Switch it back on after this cut."))
	}
	switch j.Material.Kind {
	case material.SoftMetal:
		c = append(c, say.Of("Wear a face shield, hold the work down, feed slowly and use a little lubricant. No wood dust in the same collector."))
	case material.Plastic:
		c = append(c, say.Of("Feed steadily and don't pause: it melts."))
	case material.Mineral, material.CementBoard:
		c = append(c, say.Of("Wear a dust mask for silica."))
	case material.Steel:
		c = append(c, say.Of("Only with a saw and blade made for steel. Keep sparks away from all dust."))
	case material.Nailed:
		c = append(c, say.Of("Search it for metal and pull what you find. Wear a face shield."))
	}
	return append(c, say.Of("Protect your eyes, ears and lungs. No gloves, loose sleeves or rings near a turning blade."))
}
