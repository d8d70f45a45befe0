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
		sheet.Saw = say.Of("This %s saw can with the right blade. Its manual decides.", s.Kind)
	}
	return sheet, true
}

// noSliver is what keeps a thin offcut of metal from being drawn in beside the
// blade, with what the saw has.
func noSliver(s saw.Saw) say.Line {
	if s.Kind == saw.Circular {
		return say.Of("Put a sacrificial backer under and behind it, so no sliver gets trapped.")
	}
	return say.Of("Use a zero-clearance throat plate or a backer, so no sliver gets trapped.")
}

var sheets = map[material.Kind]Sheet{
	material.SoftMetal: {
		Blade:     say.Of("TCG, many teeth (about 80 at 254 mm), hook angle about zero or negative, the saw's own size."),
		Feed:      say.Of("Clamp the work, apply the lubricant and let the blade reach full speed. Then feed slowly and evenly with a push block, never by hand."),
		Lubricant: say.Of("Wax stick on the blade, or a little light oil on the line."),
		Protection: say.All("Face shield over the glasses.",
			"Empty the wood dust from the collector first. Hot chips set it on fire.", "The ends are sharp. Deburr them before you handle them."),
		Never: say.All("No high hook angle: it climbs and kicks back.", "No beveled teeth: they grab and break.", "Never freehand, never a thin piece unclamped."),
	},
	material.Plastic: {
		Blade:      say.Of("TCG, many teeth, low or negative hook angle, sharp."),
		Feed:       say.Of("Feed steadily and don't pause. Where you stop, the plastic melts and welds shut."),
		Protection: say.All("Eyes: plastic chips fly far and sharp.", "Leave the film on; support the sheet right up to the line."),
		Never:      say.All("No few-toothed blade: it cracks the edge.", "Never stop in the cut."),
	},
	material.SolidSurface: {
		Blade:      say.Of("TCG, many teeth, low hook angle."),
		Feed:       say.Of("Feed steadily. Support the sheet along its whole length: it is heavy and brittle."),
		Protection: say.All("Dust mask: the filler is fine mineral.", "Two people for a full sheet."),
		Never:      say.All("No worn blade: it chips the edge and every chip shows."),
	},
	material.CementBoard: {
		Blade:      say.Of("A few-toothed blade set aside for dirty work, or a diamond wheel in a saw that allows it. For larger amounts, score and snap instead."),
		Feed:       say.Of("Feed slowly, outdoors or with good dust extraction."),
		Protection: say.All("Wear a dust mask for silica. This dust stays in the lungs.", "Blow the dust out of the saw when you are done. It wears out bearings."),
		Never:      say.All("Never use a blade you use for wood. One cut ruins it."),
	},
	material.Mineral: {
		Blade:      say.Of("A diamond or abrasive wheel rated for the saw's speed."),
		Saw:        say.Of("This saw's manual doesn't allow wheels. Use a wet saw, or a saw whose manual allows them."),
		Feed:       say.Of("Make shallow, straight passes with no side load on the wheel. Use a wet saw for larger amounts."),
		Lubricant:  say.Of("Water, if the saw is made for it."),
		Protection: say.All("Dust mask for silica, or water.", "Wear a face shield. Check the wheel for cracks before you start it."),
		Never:      say.All("No teeth: they shatter.", "No wheel that is cracked or was dropped."),
	},
	material.Steel: {
		Blade:      say.Of("A blade made for steel, with a speed limit above the saw's speed."),
		Saw:        say.Of("This saw isn't made for steel. Use one that is."),
		Feed:       say.Of("Clamp the work. Use light, even pressure."),
		Protection: say.All("Face shield and ear protection. Gloves for handling only.", "Keep sparks away from all dust. Switch the collector off."),
		Never:      say.All("Never a wood blade.", "Never a saw that turns faster than the blade allows.", "Never into a collector that has held wood dust."),
	},
	material.Nailed: {
		Blade:      say.Of("A nail-rated blade, or an old disposable one."),
		Feed:       say.Of("Feed slowly where metal is likely. Stop and look when the sound changes."),
		Protection: say.All("Wear a face shield: tips and nail ends fly off.", "Search for metal and pull it out first."),
		Never:      say.All("No good blade: the first nail takes its tips.", "No blade with a missing tip."),
	},
}
