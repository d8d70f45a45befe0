package choose

import (
	"corte/core/material"
	"corte/core/saw"
	"corte/core/say"
)

// A Sheet is how a material without a feed window is cut, by rule (craft
// section 13): which blade or wheel, on which saw, with what, and what never.
type Sheet struct {
	Blade      say.Line
	Saw        say.Line
	SawMay     bool // whether this saw may
	Feed       say.Line
	Lubricant  say.Line // nothing where none is used
	Protection []say.Line
	Never      []say.Line
}

// RuleSheet gives the sheet of a material on a saw. It reports false for woods,
// which have a window instead.
func RuleSheet(m material.Material, s saw.Saw) (Sheet, bool) {
	if m.Kind.Modelled() {
		return Sheet{}, false
	}
	sheet := sheets[m.Kind]
	if m.Kind == material.SoftMetal {
		sheet.Protection = append([]say.Line{noSliver(s)}, sheet.Protection...)
	}
	switch m.Kind {
	case material.Steel:
		sheet.SawMay = s.Steel
	case material.Mineral:
		sheet.SawMay = s.Wheels
	default:
		sheet.SawMay = true
	}
	if sheet.SawMay {
		sheet.Saw = say.Of("This %s saw may, with the right blade; its manual has the last word.", s.Kind)
	}
	return sheet, true
}

// noSliver is what keeps a thin offcut of metal from being drawn in beside the
// blade, with what the saw has.
func noSliver(s saw.Saw) say.Line {
	if s.Kind == saw.Circular {
		return say.Of("A backer under and behind it, so that no sliver is trapped.")
	}
	return say.Of("Zero-clearance insert or a backer, so that no sliver is trapped.")
}

var sheets = map[material.Kind]Sheet{
	material.SoftMetal: {
		Blade:     say.Of("Triple chip, many teeth (about 80 at 254 mm), hook about zero to negative, of the saw's own size."),
		Feed:      say.Of("Clamp the work, put the lubricant on, let the blade come up to speed; then slow and even, pushed with a block, never by hand."),
		Lubricant: say.Of("Wax stick on the blade, or a little light oil on the line."),
		Protection: say.All("Face shield over the glasses.",
			"Collector emptied of wood dust first: hot chips and dust do not meet.", "Ends are sharp: deburr before you handle them."),
		Never: say.All("No strong hook: it climbs and throws.", "No bevelled points: they grab and break.", "Never freehand, never a thin piece unclamped."),
	},
	material.Plastic: {
		Blade:      say.Of("Triple chip, many teeth, low or negative hook; sharp."),
		Feed:       say.Of("Steady, without dwelling: where the blade stands still the plastic melts and welds."),
		Protection: say.All("Eyes: plastic chips fly far and sharp.", "Leave the film on; support the sheet right up to the line."),
		Never:      say.All("No few-toothed blade: it cracks the edge.", "Never stop in the cut."),
	},
	material.SolidSurface: {
		Blade:      say.Of("Triple chip, many teeth, low hook."),
		Feed:       say.Of("Steady, sheet supported along its whole length: it is heavy and brittle."),
		Protection: say.All("Dust mask: the filler is fine mineral.", "Two people for a full sheet."),
		Never:      say.All("No worn blade: it chips the edge, and every chip shows."),
	},
	material.CementBoard: {
		Blade:      say.Of("A blade kept for dirty work with few teeth, or a diamond wheel in a saw that allows it. For any quantity, score and snap instead."),
		Feed:       say.Of("Slow; outdoors, or with good extraction."),
		Protection: say.All("Dust mask for silica: this dust stays in the lungs.", "Blow out the saw afterwards; the dust eats bearings."),
		Never:      say.All("Never a blade that is kept for wood: one cut ruins it."),
	},
	material.Mineral: {
		Blade:      say.Of("A diamond or abrasive wheel rated for the saw's speed."),
		Saw:        say.Of("This saw's maker does not allow wheels: use a wet saw, or one whose manual allows them."),
		Feed:       say.Of("Shallow passes, straight, no side load on the wheel. A wet saw for any quantity."),
		Lubricant:  say.Of("Water, where the saw is made for it."),
		Protection: say.All("Dust mask for silica, or water.", "Face shield; look the wheel over for cracks before it turns."),
		Never:      say.All("No teeth: they shatter.", "No cracked or dropped wheel."),
	},
	material.Steel: {
		Blade:      say.Of("A blade made for steel, its limit above the saw's speed."),
		Saw:        say.Of("This saw is not made for steel: use one that is."),
		Feed:       say.Of("Work clamped, light even pressure."),
		Protection: say.All("Face shield, ears, gloves for handling only.", "Sparks away from all dust, collector off."),
		Never:      say.All("Never a wood blade.", "Never a saw that turns faster than the blade allows.", "Never into a collector that has held wood dust."),
	},
	material.Nailed: {
		Blade:      say.Of("A nail-rated blade, or an old one to be thrown away."),
		Feed:       say.Of("Slow where metal is likely; stop and look when the sound changes."),
		Protection: say.All("Face shield: tips and nail ends fly.", "Pull and search for metal first."),
		Never:      say.All("No good blade: the first nail takes its tips.", "No blade with a tip missing goes on."),
	},
}
