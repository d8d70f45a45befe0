// Package mount lists the steps of putting a blade on a saw: craft section 6,
// and the look over a blade before it is used, craft section 10. Steps that do
// not apply to this saw and this blade do not appear.
package mount

import (
	"corte/core/blade"
	"corte/core/groove"
	"corte/core/saw"
	"corte/core/say"
)

// A Picture names the drawing of a step.
type Picture string

const (
	PicPower   Picture = "power"
	PicLook    Picture = "look"
	PicOil     Picture = "oil"
	PicNumbers Picture = "numbers"
	PicWayIn   Picture = "way-in"
	PicLock    Picture = "lock"
	PicUndo    Picture = "undo"
	PicFlange  Picture = "flange"
	PicTeeth   Picture = "teeth"
	PicWasher  Picture = "washer"
	PicNut     Picture = "nut"
	PicSpin    Picture = "spin"
	PicKnife   Picture = "knife"
	PicBrake   Picture = "brake"
	PicClose   Picture = "close"
	PicTest    Picture = "test"
	PicStack   Picture = "stack"
	PicClock   Picture = "clock"
	PicInsert  Picture = "insert"
)

// A Step is one card: what to do, what to mind, and, where it is a check, what
// is looked for. A check that is answered with no stops the mounting.
type Step struct {
	ID      string
	Title   say.Line
	Text    []say.Line
	Caution say.Line
	Picture Picture
	Checks  []Check
	Numbers bool // the blade's diameter and teeth are asked for again
}

// A Check is a question whose wrong answer stops the mounting.
type Check struct {
	ID    string
	Ask   say.Line // answered yes or no; yes goes on
	IfNot say.Line // what it means, and the way out
}

// A Case is what the log knows of this mounting.
type Case struct {
	Saw     saw.Saw
	Blade   blade.Blade
	Off     string      // name of the blade that is on the saw now; empty if none is known
	New     bool        // never used, as far as the log knows
	Back    bool        // back from sharpening since it was last used
	LongAgo bool        // unused for long
	Bushing bool        // its bore needs one
	Chipped bool        // the last look-over found a chipped tip
	Heard   []say.Line  // what was measured of saw and blade that stands against a cut, a sentence each
	Way     *groove.Way // of a dado set, the groove that it is put together for; nil if none is
}

// LongUnused is after how many days a blade is looked over before it is used.
const LongUnused = 180

// Steps lists the cards in the order of the work, hard checks first.
func Steps(c Case) []Step {
	var out []Step
	add := func(s Step) { out = append(out, s) }
	power := map[saw.Power]say.Line{
		saw.Plug: say.Of("Unplug the saw."), saw.Battery: say.Of("Take the battery out."),
		saw.UnknownPower: say.Of("Unplug the saw or take the battery out. If it has both, do both."),
	}[c.Saw.Power()]
	add(Step{ID: "power", Title: say.Of("Power off"), Picture: PicPower,
		Text:    []say.Line{power, say.Of("Then press the switch once. Nothing must move.")},
		Caution: say.Of("Every time, before a hand goes near the blade."),
		Checks:  []Check{{"dead", say.Of("Switch pressed, and nothing moved?"), say.Of("It still has power. Find out why before you go on.")}}})
	add(look(c))
	if limit, ask := limits(c); ask {
		add(limit)
	}
	if c.Back {
		add(Step{ID: "numbers", Title: say.Of("Measure it again"), Picture: PicNumbers, Numbers: true,
			Text: say.All("It is back from sharpening, so diameter and kerf are a little smaller.", "Measure the diameter over two opposite tips, and check that every tooth is there.")})
	}
	if c.New {
		add(Step{ID: "oil", Title: say.Of("Oil off, film on"), Picture: PicOil,
			Text: say.All("A new blade comes oiled. Oil stains wood and holds dust, so wipe it off both faces.", "Wipe on a thin dry protective film and let it dry.")})
	}
	add(wayIn(c))
	if c.Saw.Lock || c.Saw.Kind != saw.Table {
		add(Step{ID: "lock", Title: say.Of("Hold the arbor"), Picture: PicLock,
			Text: say.All("Press the arbor lock and turn the blade by hand until it catches.", "If there is no lock or it slips, hold the teeth with a piece of scrap, never by hand.")})
	} else {
		add(Step{ID: "lock", Title: say.Of("Wrench on the arbor flat"), Picture: PicLock,
			Text:    say.All("Put one wrench on the arbor's flat or on the second nut behind it, the other on the arbor nut."),
			Caution: say.Of("Keep your knuckles off the teeth. Pull so that a slip moves away from them.")})
	}
	add(undo(c))
	if c.Off != "" {
		add(Step{ID: "off", Title: say.Of("Take off %s", c.Off), Picture: PicWasher,
			Text:    say.All("Take the outer washer off and remember which way it faced. Then take the blade straight off the arbor.", "Lay it on wood or put it on its hook, with the teeth touching nothing."),
			Caution: say.Of("Carbide is hard and brittle. Never lay it on cast iron or hit a tooth against the opening.")})
	}
	flange := say.All("Wipe both flanges, the arbor's thread and the center of the plate. A speck here moves the rim ten times as much.")
	if c.Bushing {
		flange = append(flange, say.Of("Its bore of %s needs the bushing to %s, seated flush and no thicker than the plate.", c.Blade.Bore, c.Saw.Arbor))
	}
	if c.Saw.Knockout {
		flange = append(flange, say.Of("This saw has a diamond arbor. Knock the diamond out of the blade and seat the blade on the arbor's diamond."))
	}
	add(Step{ID: "flange", Title: say.Of("Clean seats"), Picture: PicFlange, Text: flange})
	if c.Blade.Make == blade.Dado {
		for _, one := range stack(c) {
			add(one)
		}
	}
	add(teeth(c))
	if c.Blade.Make == blade.Dado {
		add(setNut(c))
	} else {
		add(Step{ID: "nut", Title: say.Of("Washer and nut"), Picture: PicNut,
			Text:   say.All("Put the outer washer back as it was, hollow side to the blade. Turn the arbor nut on by hand first, over its full thread.", "Snug it with the wrench, no more. It tightens itself in the cut, and too tight it dishes the plate."),
			Checks: []Check{{"thread", say.Of("Is the nut on its full thread and the blade flush with the inner flange?"), say.Of("A nut on half a thread comes off. Something is in between, or the blade is too thick for this arbor.")}}})
	}
	add(Step{ID: "spin", Title: say.Of("Spin it by hand"), Picture: PicSpin,
		Text:   say.All("Release the lock and take the wrench away. Turn the blade one full turn and watch the rim against one point."),
		Checks: []Check{{"free", say.Of("Does it turn freely and touch nothing?"), say.Of("First find what it touches, from the guard to a chip on the flange.")}}})
	if c.Saw.Kind == saw.Table && c.Saw.Knife == 0 && c.Blade.Make != blade.Dado {
		add(Step{ID: "knife", Title: say.Of("Riving knife"), Picture: PicKnife,
			Text: []say.Line{say.Of("No riving knife is recorded for this saw. Fit one that is thicker than the plate and thinner than the kerf of %s, and record its thickness.", say.Thin(c.Blade.Kerf))}})
	}
	if c.Saw.Knife > 0 && c.Blade.Make != blade.Dado {
		add(Step{ID: "knife", Title: say.Of("Riving knife"), Picture: PicKnife,
			Text: []say.Line{say.Of("Put the riving knife back in line with the blade, 3 to 8 mm behind the teeth. It is %s thick: thicker than the plate, thinner than the kerf of %s.",
				say.Thin(c.Saw.Knife), say.Thin(c.Blade.Kerf))}})
	}
	if k := c.Saw.Brake; k != nil && c.Blade.Make == blade.Dado {
		add(Step{ID: "brake", Title: say.Of("The dado cartridge"), Picture: PicBrake,
			Text:   say.All("A dado stack needs its own brake cartridge, made for its diameter. The one for single blades doesn't reach it."),
			Checks: []Check{{"cartridge", say.Of("Is the dado cartridge for %s in and its gap set?", c.Blade.Diameter), say.Of("Don't run a dado stack with the other cartridge. Change it first.")}}})
	} else if k != nil {
		add(Step{ID: "brake", Title: say.Of("Blade brake"), Picture: PicBrake,
			Text:   say.All("Use the right cartridge for this diameter and set its gap with its own gauge."),
			Checks: []Check{{"cartridge", say.Of("Is the cartridge for %s in and its gap set?", c.Blade.Diameter), say.Of("Don't run the saw with the wrong cartridge. It fires late or for no reason.")}}})
	}
	if c.Blade.Make == blade.Dado {
		add(insert(c))
	} else {
		add(closeUp(c))
	}
	if len(c.Heard) > 0 {
		add(Step{ID: "measured", Title: say.Of("Before you cut"), Picture: PicTest, Text: c.Heard})
	}
	add(Step{ID: "test", Title: say.Of("Test run"), Picture: PicTest,
		Text:    say.All("Power on. Stand to the side of the blade. Start it and let it run for a few seconds.", "Listen for an even sound without rattle. Watch it slow down without wobble."),
		Caution: say.Of("Wear eye and ear protection. Keep everyone out of line with the blade."),
		Checks:  []Check{{"sound", say.Of("Even sound and no wobble?"), say.Of("Switch off, disconnect the power, and start again at the flanges.")}}})
	return out
}

// limits asks for what nobody has noted of the blade: the speed that it may
// turn at, and on a miter saw its hook. It reports false where both are known.
func limits(c Case) (Step, bool) {
	s := Step{ID: "limits", Title: say.Of("Check the speed limit"), Picture: PicLook}
	if c.Blade.MaxRPM == 0 {
		s.Text = append(s.Text, say.Of("This blade's speed limit isn't recorded. This saw runs at %.0f rpm.", c.Saw.RPM))
		s.Checks = append(s.Checks, Check{"limit", say.Of("Does the plate say %.0f rpm or more?", c.Saw.RPM),
			say.Of("Don't use it on this saw. If the print is gone, ask a sharpening service or use a blade that shows its limit.")})
	}
	if c.Saw.Kind == saw.Miter && c.Blade.HookUnknown && c.Blade.Teeth > 0 {
		s.Text = append(s.Text, say.Of("Its hook angle isn't recorded. Lay a straightedge from the center of the bore to a tip, and compare the tooth's face with it."))
		s.Checks = append(s.Checks, Check{"hook", say.Of("Does the face lie along the edge, or lean back from it?"),
			say.Of("A forward-leaning hook climbs on a miter saw. Measure the angle in degrees and record it first.")})
	}
	return s, len(s.Checks) > 0
}

// look is the check before use: short for a blade in use, long for one that
// hung long.
func look(c Case) Step {
	s := Step{ID: "look", Title: say.Of("Inspect it"), Picture: PicLook,
		Caution: say.Of("Teeth cut hands. Wear gloves to handle the blade, never for sawing.")}
	if c.Blade.Make == blade.Diamond || c.Blade.Make == blade.Abrasive {
		s.Text = say.All("A wheel that was dropped or has got wet is suspect.")
		s.Checks = []Check{{"whole", say.Of("No crack, no chip, rim whole all around?"), say.Of("Don't use it. Throw it away.")}}
		return s
	}
	s.Text = say.All("Look all around both faces in good light.")
	if c.Blade.Make == blade.Dado {
		s.Text = say.All("Look at both faces of both outer blades and every chipper in good light.", "Keep shims flat and clean. A crease adds thickness.")
	}
	s.Checks = []Check{
		{"teeth", chipAsked(c), say.Of("Don't use a blade with a loose or missing tip. Send it to a sharpening service.")},
		{"plate", say.Of("No crack at gullets or slots, no blue on the plate?"), say.Of("Don't use a cracked or burned plate. Retire it, or show it to a sharpening service.")},
	}
	if c.LongAgo {
		s.Title = say.Of("Inspect it: unused for long")
		s.Text = append(s.Text, say.Of("Check for rust or dried resin on the teeth. Clean it before you mount it."))
		s.Checks = append(s.Checks, Check{"clean", say.Of("Clean enough to see every braze and corner?"), say.Of("Clean it first. Resin hides cracks and makes it cut like a dull blade.")})
	}
	return s
}

// chipAsked names a chip that is known, so that nobody takes it for a new one,
// or a new one for it.
func chipAsked(c Case) say.Line {
	if c.Chipped {
		return say.Of("The log has a chipped tip. Is it no worse, every other tooth whole and none loose?")
	}
	return say.Of("Every tooth there, none chipped or loose?")
}

func wayIn(c Case) Step {
	switch c.Saw.Kind {
	case saw.Miter:
		return Step{ID: "way-in", Title: say.Of("Way in"), Picture: PicWayIn,
			Text: say.All("Lock the head up. Raise the guard, loosen the cover plate over the arbor and swing it away.")}
	case saw.Circular:
		return Step{ID: "way-in", Title: say.Of("Way in"), Picture: PicWayIn,
			Text: say.All("Lay the saw on its side, on the motor. Pull the lower guard back by its lever and hold it there."), Caution: say.Of("Never wedge the guard open and forget it.")}
	}
	return Step{ID: "way-in", Title: say.Of("Way in"), Picture: PicWayIn,
		Text: say.All("Take the guard off its holder and the throat plate out. Raise the blade all the way.", "Cover the dust chute. A nut that falls in is hard to get back.")}
}

// stack are the cards of putting a dado set together on the arbor: craft
// section 12.
func stack(c Case) []Step {
	off := Step{ID: "knife-off", Title: say.Of("Knife and guard off, for this"), Picture: PicKnife,
		Text: say.All("Riving knife and guard can't stay on for a groove. Take them off as the saw's manual says.",
			"Put them back on with the next single blade."),
		Caution: say.Of("Without them, use push blocks and a featherboard.")}
	order := Step{ID: "order", Title: say.Of("Order on the arbor"), Picture: PicStack,
		Text: say.All("Put the left outer blade against the inner flange, flat face to the flange. Left and right are not the same.",
			"Then chippers and shims, and the right outer blade last.")}
	if w := c.Way; w != nil && len(w.Slots) > 0 {
		order.Text = []say.Line{say.Of("From the inner flange outward:"), inOrder(w.Slots)}
	} else if w != nil {
		order.Title, order.Text = say.Of("Set the dial"), []say.Line{say.Of("%s. Don't overtighten: that ruins the dial.", w.Says.Upper())}
	}
	order.Checks = []Check{{"order", say.Of("Is it as drawn, with every shim flat between the hubs?"), say.Of("Take it apart and start again from the flange.")}}
	steps := []Step{off, order}
	if w := c.Way; w == nil || chippers(w.Slots) > 0 {
		clock := Step{ID: "clock", Title: say.Of("Chippers into the gullets"), Picture: PicClock,
			Text: say.All("Turn each chipper until its teeth are in the middle of the outer blades' gullets, spread evenly around.", "No tooth may touch another: carbide on carbide breaks.")}
		if w != nil && !w.Clocked {
			clock.Text = append(clock.Text, say.Of("There are more chippers than gullets. Spread them as the instructions of the set show."))
		}
		clock.Checks = []Check{{"clocked", say.Of("No tooth touching another, all the way round?"), say.Of("Do not tighten. Turn the chippers on until every tooth stands free.")}}
		steps = append(steps, clock)
	}
	return steps
}

func chippers(slots []groove.Slot) (n int) {
	for _, s := range slots {
		if s.What == "chipper" {
			n++
		}
	}
	return n
}

func inOrder(slots []groove.Slot) say.Line {
	said := make(say.List, len(slots))
	for i, s := range slots {
		switch s.What {
		case "left":
			said[i] = say.Of("left outer blade")
		case "right":
			said[i] = say.Of("right outer blade")
		case "shim":
			said[i] = say.Of("shim %s", s.Thickness)
		default:
			said[i] = say.Of("chipper %s", s.Thickness)
		}
	}
	return say.Of("%s.", said).Upper()
}

func setNut(c Case) Step {
	s := Step{ID: "nut", Title: say.Of("Washer and nut"), Picture: PicNut,
		Text: say.All("Outer washer, then the arbor nut by hand over its full thread. Hold the stack so nothing turns while you snug it.")}
	if w := c.Way; w != nil && w.Arbor != nil {
		if w.Arbor.WasherOff {
			s.Text[0] = say.Of("No outer washer: this saw's manual allows that for a dado stack. Turn the arbor nut on by hand over its full thread. Nothing must turn while you snug it.")
		}
		s.Text = append(s.Text, say.Of("%s.", w.Arbor.Says))
	}
	s.Checks = []Check{{"thread", say.Of("Nut on its full thread?"), say.Of("Stop: a nut on half a thread comes off. Remove chippers and cut the groove in two passes.")}}
	return s
}

// insert is a set's own throat insert, cut by the set itself.
func insert(c Case) Step {
	s := Step{ID: "insert", Title: say.Of("Its own throat plate"), Picture: PicInsert,
		Text: say.All("Fit a blank insert with the stack below it. It is only for this width, so write the width on it.",
			"Clamp a board over the blank or hold it with the fence, clear of where the stack comes up. Keep all hands off it.",
			"Switch on and raise the stack slowly through the blank, a little higher than the groove's depth. Switch off and wait until it stops."),
		Caution: say.Of("Never hold the blank by hand while you raise it."),
		Checks:  []Check{{"insert", say.Of("Is the throat plate cut or fitted, flush, and nothing within reach of the stack?"), say.Of("Don't use it with the wide throat plate of another stack, or without one.")}}}
	if w := c.Way; w != nil && w.Insert != nil {
		s.Text = append(s.Text, say.Of("The opening is %s by %s. Keep the fence at least %s clear of the stack while it rises.",
			say.Set(w.Insert.Width), say.Set(w.Insert.Length), say.Set(w.Insert.Fence)))
	}
	return s
}

// undo says which way the nut comes off.
func undo(c Case) Step {
	s := Step{ID: "undo", Title: say.Of("Undo the nut"), Picture: PicUndo}
	switch c.Saw.Thread {
	case saw.LeftHand:
		s.Text = say.All("It has a left-hand thread. Facing the nut, turn it clockwise to undo.")
	case saw.RightHand:
		s.Text = say.All("It has a right-hand thread. Facing the nut, turn it counterclockwise to undo.")
	default:
		s.Text = say.All("The nut loosens in the direction the teeth travel. Pull the wrench that way.",
			"See the saw's manual for the thread direction. Record it for this saw and it shows here next time.")
	}
	if c.Saw.Kind == saw.Table {
		s.Text = append(s.Text, say.Of("Hold nut and washer as they come off, so nothing falls into the chute."))
	}
	return s
}

func teeth(c Case) Step {
	s := Step{ID: "teeth", Title: say.Of("Teeth facing the right way"), Picture: PicTeeth}
	var way say.Line
	switch c.Saw.Kind {
	case saw.Table:
		way = say.Of("Teeth toward you at the top. They cut down through the stock.")
	case saw.Miter:
		way = say.Of("Teeth down at the front and toward the fence at the bottom, like the arrow on the guard.")
	default:
		way = say.Of("Teeth up at the front. They cut from below, like the arrow on the guard.")
	}
	s.Text = []say.Line{way, say.Of("Slide it on straight without touching the opening, flush with the inner flange.")}
	if c.Blade.Make == blade.Diamond || c.Blade.Make == blade.Abrasive {
		s.Title, s.Text = say.Of("Direction of the arrow"), say.All("A wheel has an arrow instead of teeth. It points the same way as the arrow on the saw.")
	}
	s.Checks = []Check{{"way", say.Of("Does it face as in the drawing?"), say.Of("The wrong way around it burns, climbs and kicks back. Turn it over.")}}
	return s
}

func closeUp(c Case) Step {
	switch c.Saw.Kind {
	case saw.Miter:
		return Step{ID: "close", Title: say.Of("Cover and guard"), Picture: PicClose, Text: say.All("Put the cover plate back and tighten it. The guard must drop on its own."),
			Checks: []Check{{"guard", say.Of("Guard down and free?"), say.Of("Don't run the saw without a working guard. Free it first.")}}}
	case saw.Circular:
		return Step{ID: "close", Title: say.Of("Guard"), Picture: PicClose, Text: say.All("Let the lower guard go: it must snap shut on its own. Take the wrench off the saw."),
			Checks: []Check{{"guard", say.Of("Guard shut and free?"), say.Of("Don't run the saw without a working guard. Free it first.")}}}
	}
	return Step{ID: "close", Title: say.Of("Throat plate and guard"), Picture: PicClose, Text: say.All("Put the throat plate back, flush with the table. Put the guard on. Take wrenches off the table."),
		Checks: []Check{{"guard", say.Of("Throat plate flush and guard on?"), say.Of("Don't run the saw without them. Fit them first.")}}}
}
