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
		saw.Plug: say.Of("Pull the plug."), saw.Battery: say.Of("Take the battery out."),
		saw.UnknownPower: say.Of("Pull the plug, or take the battery out; whichever this saw has, and both if it has both."),
	}[c.Saw.Power()]
	add(Step{ID: "power", Title: say.Of("Power off"), Picture: PicPower,
		Text:    []say.Line{power, say.Of("Then press the switch once: nothing may move.")},
		Caution: say.Of("Every time, before a hand goes near the blade."),
		Checks:  []Check{{"dead", say.Of("Switch pressed, and nothing moved?"), say.Of("It still has power. Find out why before you go on.")}}})
	add(look(c))
	if limit, ask := limits(c); ask {
		add(limit)
	}
	if c.Back {
		add(Step{ID: "numbers", Title: say.Of("Measure it again"), Picture: PicNumbers, Numbers: true,
			Text: say.All("It is back from sharpening: a little smaller, its kerf a little less.", "Measure the diameter over two opposite tips, and count that every tooth is there.")})
	}
	if c.New {
		add(Step{ID: "oil", Title: say.Of("Oil off, film on"), Picture: PicOil,
			Text: say.All("A new blade comes in oil, which stains the work and holds dust: wipe it off both faces.", "Wipe on a thin dry protective film and let it dry.")})
	}
	add(wayIn(c))
	if c.Saw.Lock || c.Saw.Kind != saw.Table {
		add(Step{ID: "lock", Title: say.Of("Hold the arbor"), Picture: PicLock,
			Text: say.All("Press the arbor lock and turn the blade by hand until it catches.", "No lock, or it slips: bite the teeth into a scrap, never hold them by hand.")})
	} else {
		add(Step{ID: "lock", Title: say.Of("Wrench on the flat"), Picture: PicLock,
			Text:    say.All("One wrench on the arbor's flat, or on the second nut behind it; the other on the blade's nut."),
			Caution: say.Of("Keep knuckles off the teeth: pull so that a slip moves away from them.")})
	}
	add(undo(c))
	if c.Off != "" {
		add(Step{ID: "off", Title: say.Of("%s comes off", c.Off), Picture: PicWasher,
			Text:    say.All("Outer washer off, remember which way round it was; then the blade, straight off the arbor.", "Lay it on wood or hang it up: teeth touching nothing."),
			Caution: say.Of("Carbide is hard and brittle: never on cast iron, never a tooth against the opening.")})
	}
	flange := say.All("Wipe both flanges, the arbor's thread and the plate's middle: a speck here sways the rim ten times as much.")
	if c.Bushing {
		flange = append(flange, say.Of("Its bore of %s needs the bushing to %s: seated flush, no thicker than the plate.", c.Blade.Bore, c.Saw.Arbor))
	}
	if c.Saw.Knockout {
		flange = append(flange, say.Of("This saw takes the diamond knock-out: out of the blade with it, and the blade seated on the diamond."))
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
			Text:   say.All("Outer washer the way it was, hollow side to the blade. Nut by hand first, its full thread.", "Snug with the wrench, no more: it tightens itself in the cut; crushed, it dishes the plate."),
			Checks: []Check{{"thread", say.Of("Nut on its full thread, blade flush to the inner flange?"), say.Of("A nut on half a thread lets go. Something sits between, or the blade is too thick for this arbor.")}}})
	}
	add(Step{ID: "spin", Title: say.Of("Spin it by hand"), Picture: PicSpin,
		Text:   say.All("Lock off, wrench out. Turn the blade a full round and watch the rim against one point."),
		Checks: []Check{{"free", say.Of("Does it turn freely and touch nothing?"), say.Of("Find what it touches before anything else, from the guard to a chip on the flange.")}}})
	if c.Saw.Kind == saw.Table && c.Saw.Knife == 0 && c.Blade.Make != blade.Dado {
		add(Step{ID: "knife", Title: say.Of("Riving knife"), Picture: PicKnife,
			Text: []say.Line{say.Of("No riving knife is on this saw's record. Fit one that is thicker than the plate and thinner than the kerf of %s, and put its thickness into the record.", say.Thin(c.Blade.Kerf))}})
	}
	if c.Saw.Knife > 0 && c.Blade.Make != blade.Dado {
		add(Step{ID: "knife", Title: say.Of("Riving knife"), Picture: PicKnife,
			Text: []say.Line{say.Of("Knife back, in line with the blade, 3 to 8 mm behind the teeth. It is %s thick: thicker than the plate, thinner than the kerf of %s.",
				say.Thin(c.Saw.Knife), say.Thin(c.Blade.Kerf))}})
	}
	if k := c.Saw.Brake; k != nil && c.Blade.Make == blade.Dado {
		add(Step{ID: "brake", Title: say.Of("The dado cartridge"), Picture: PicBrake,
			Text:   say.All("A dado set wants a brake cartridge of its own, made for its diameter; the one for single blades does not reach it."),
			Checks: []Check{{"cartridge", say.Of("Dado cartridge for %s in, gap set?", c.Blade.Diameter), say.Of("The saw must not run a dado set on the other cartridge. Change it first.")}}})
	} else if k != nil {
		add(Step{ID: "brake", Title: say.Of("Blade brake"), Picture: PicBrake,
			Text:   say.All("The right cartridge for this diameter, its gap set by its own gauge."),
			Checks: []Check{{"cartridge", say.Of("Cartridge for %s, gap set?", c.Blade.Diameter), say.Of("The saw must not run on the wrong cartridge: it fires late, or by itself.")}}})
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
		Text:    say.All("Power on. Stand aside, out of the blade's plane; start, and let it run for some seconds.", "Listen: even, no rattle. Watch it run down: no sway."),
		Caution: say.Of("Eye and ear protection. Nobody in line with the blade."),
		Checks:  []Check{{"sound", say.Of("Even and quiet, no sway?"), say.Of("Off, power out, and begin again at the flanges.")}}})
	return out
}

// limits asks for what nobody has noted of the blade: the speed that it may
// turn at, and on a miter saw its hook. It reports false where both are known.
func limits(c Case) (Step, bool) {
	s := Step{ID: "limits", Title: say.Of("Read the plate"), Picture: PicLook}
	if c.Blade.MaxRPM == 0 {
		s.Text = append(s.Text, say.Of("Nobody has noted the speed that it may turn at. This saw turns at %.0f a minute.", c.Saw.RPM))
		s.Checks = append(s.Checks, Check{"limit", say.Of("Does the plate say %.0f rpm or more?", c.Saw.RPM),
			say.Of("It is not run on this saw. Where the print is gone, ask a saw doctor, or take a blade that says it.")})
	}
	if c.Saw.Kind == saw.Miter && c.Blade.HookUnknown && c.Blade.Teeth > 0 {
		s.Text = append(s.Text, say.Of("Nobody has read its hook: a straight edge from the middle of the bore to a tip, and look at the tooth's face against it."))
		s.Checks = append(s.Checks, Check{"hook", say.Of("Does the face lie along the edge, or lean back from it?"),
			say.Of("A hook that leans forward climbs on a miter saw. Read it in degrees and put it into the record first.")})
	}
	return s, len(s.Checks) > 0
}

// look is the check before use: short for a blade in use, long for one that
// hung long.
func look(c Case) Step {
	s := Step{ID: "look", Title: say.Of("Look it over"), Picture: PicLook,
		Caution: say.Of("Bare edges cut hands: gloves for handling, none for sawing.")}
	if c.Blade.Make == blade.Diamond || c.Blade.Make == blade.Abrasive {
		s.Text = say.All("A wheel that was dropped or has got wet is suspect.")
		s.Checks = []Check{{"whole", say.Of("No crack, no chip, rim whole all round?"), say.Of("It is not run. Throw it away.")}}
		return s
	}
	s.Text = say.All("Once round, both faces, in good light.")
	if c.Blade.Make == blade.Dado {
		s.Text = say.All("Both outer blades and every chipper, both faces, in good light.", "Shims flat and clean: a crease is a shim more.")
	}
	s.Checks = []Check{
		{"teeth", chipAsked(c), say.Of("A blade with a loose or missing tip is not run: it goes to a saw doctor.")},
		{"plate", say.Of("No crack at gullets or slots, no blue on the plate?"), say.Of("A cracked or burnt plate is not run. Retire it, or show it to a saw doctor.")},
	}
	if c.LongAgo {
		s.Title = say.Of("Look it over: it has hung long")
		s.Text = append(s.Text, say.Of("Rust or dried pitch on the teeth: wash it before it goes on."))
		s.Checks = append(s.Checks, Check{"clean", say.Of("Clean enough to see every braze and corner?"), say.Of("Wash it first; pitch hides cracks and cuts like a dull blade.")})
	}
	return s
}

// chipAsked names a chip that is known, so that nobody takes it for a new one,
// or a new one for it.
func chipAsked(c Case) say.Line {
	if c.Chipped {
		return say.Of("The log knows of a chipped tip. That one no worse, every other tooth whole, none loose?")
	}
	return say.Of("Every tooth there, none chipped or loose?")
}

func wayIn(c Case) Step {
	switch c.Saw.Kind {
	case saw.Miter:
		return Step{ID: "way-in", Title: say.Of("Way in"), Picture: PicWayIn,
			Text: say.All("Head up and locked. Guard up; loosen the cover plate over the arbor and swing it away.")}
	case saw.Circular:
		return Step{ID: "way-in", Title: say.Of("Way in"), Picture: PicWayIn,
			Text: say.All("Saw on its side, on the motor. Lower guard back by its lever, and held there."), Caution: say.Of("Never wedge the guard open and forget it.")}
	}
	return Step{ID: "way-in", Title: say.Of("Way in"), Picture: PicWayIn,
		Text: say.All("Guard off its holder, insert out, blade raised all the way.", "Something over the dust chute: a nut that falls in is gone.")}
}

// stack are the cards of putting a dado set together on the arbor: craft
// section 12.
func stack(c Case) []Step {
	off := Step{ID: "knife-off", Title: say.Of("Knife and guard off, for this"), Picture: PicKnife,
		Text: say.All("Riving knife and guard cannot stand over a groove that stays in the wood: off as the saw’s manual says.",
			"They go back on with the next single blade."),
		Caution: say.Of("Without them the hands need push blocks, and the work a hold-down or feather board.")}
	order := Step{ID: "order", Title: say.Of("In this order"), Picture: PicStack,
		Text: say.All("The left outer blade against the inner flange, its flat face to the flange; left and right are not the same.",
			"Then chippers and shims, and the right outer blade last.")}
	if w := c.Way; w != nil && len(w.Slots) > 0 {
		order.Text = []say.Line{say.Of("From the inner flange outward:"), inOrder(w.Slots)}
	} else if w != nil {
		order.Title, order.Text = say.Of("Set the dial"), []say.Line{say.Of("%s. Do not overtighten: the dial is spoilt by it.", w.Says.Upper())}
	}
	order.Checks = []Check{{"order", say.Of("As drawn, and every shim flat between hubs?"), say.Of("Take it apart and begin again from the flange.")}}
	steps := []Step{off, order}
	if w := c.Way; w == nil || chippers(w.Slots) > 0 {
		clock := Step{ID: "clock", Title: say.Of("Chippers into the gullets"), Picture: PicClock,
			Text: say.All("Turn each chipper until its teeth stand in the middle of the outer blades’ gullets, spread evenly round.", "No tooth may touch another: carbide on carbide breaks.")}
		if w != nil && !w.Clocked {
			clock.Text = append(clock.Text, say.Of("There are more chippers than gullets for each: spread them as the set’s own sheet shows."))
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
		Text: say.All("Outer washer, then the nut by hand, its full thread. Hold the stack so that nothing turns while it is snugged.")}
	if w := c.Way; w != nil && w.Arbor != nil {
		if w.Arbor.WasherOff {
			s.Text[0] = say.Of("No outer washer: this saw’s maker allows it for a dado set. Nut by hand, its full thread; nothing may turn while it is snugged.")
		}
		s.Text = append(s.Text, say.Of("%s.", w.Arbor.Says))
	}
	s.Checks = []Check{{"thread", say.Of("Nut on its full thread?"), say.Of("Stop: a nut on half a thread lets go. Take chippers out and cut the groove in two.")}}
	return s
}

// insert is a set's own throat insert, cut by the set itself.
func insert(c Case) Step {
	s := Step{ID: "insert", Title: say.Of("Its own insert"), Picture: PicInsert,
		Text: say.All("A blank insert in, the set below it. Only for this width; write the width on it.",
			"A board over the blank, clamped or under the fence, clear of where the set comes up. Nobody’s hand on it.",
			"Saw on; raise the set slowly through the blank, a little over the groove’s depth. Off, and wait until it stands."),
		Caution: say.Of("Never raise it through a blank that is held by hand."),
		Checks:  []Check{{"insert", say.Of("Insert cut or in, flush, and nothing within its reach?"), say.Of("It is not run with the wide insert of another set, or without one.")}}}
	if w := c.Way; w != nil && w.Insert != nil {
		s.Text = append(s.Text, say.Of("The opening comes to %s by %s. Fence at least %s clear of the set while it rises.",
			say.Set(w.Insert.Width), say.Set(w.Insert.Length), say.Set(w.Insert.Fence)))
	}
	return s
}

// undo says which way the nut comes off.
func undo(c Case) Step {
	s := Step{ID: "undo", Title: say.Of("Undo the nut"), Picture: PicUndo}
	switch c.Saw.Thread {
	case saw.LeftHand:
		s.Text = say.All("A left-hand thread: facing the nut, turn it clockwise to undo.")
	case saw.RightHand:
		s.Text = say.All("A right-hand thread: facing the nut, turn it counter-clockwise to undo.")
	default:
		s.Text = say.All("The nut tightens against the turn of the blade, so it undoes the way the teeth travel: pull the wrench that way.",
			"Which thread it is stands in the saw's manual; put it into the saw's record, and the next time it is said here.")
	}
	if c.Saw.Kind == saw.Table {
		s.Text = append(s.Text, say.Of("Hold nut and washer as they come: nothing into the chute."))
	}
	return s
}

func teeth(c Case) Step {
	s := Step{ID: "teeth", Title: say.Of("Teeth the right way"), Picture: PicTeeth}
	var way say.Line
	switch c.Saw.Kind {
	case saw.Table:
		way = say.Of("Teeth toward you at the top; they come down through the work.")
	case saw.Miter:
		way = say.Of("Teeth down at the front, toward the fence at the bottom: like the arrow on the guard.")
	default:
		way = say.Of("Teeth up at the front: they cut from below, like the arrow on the guard.")
	}
	s.Text = []say.Line{way, say.Of("Slide it on straight, past the opening without touching, flush to the inner flange.")}
	if c.Blade.Make == blade.Diamond || c.Blade.Make == blade.Abrasive {
		s.Title, s.Text = say.Of("The arrow's way"), say.All("A wheel has no teeth, but an arrow: the same way as the saw's own.")
	}
	s.Checks = []Check{{"way", say.Of("Does it face the way of the drawing?"), say.Of("The wrong way round it burns, climbs and throws. Turn it over.")}}
	return s
}

func closeUp(c Case) Step {
	switch c.Saw.Kind {
	case saw.Miter:
		return Step{ID: "close", Title: say.Of("Cover and guard"), Picture: PicClose, Text: say.All("Cover plate back and tight, guard down: it must fall by itself."),
			Checks: []Check{{"guard", say.Of("Guard down and free?"), say.Of("It is not run without. Free the guard first.")}}}
	case saw.Circular:
		return Step{ID: "close", Title: say.Of("Guard"), Picture: PicClose, Text: say.All("Let the lower guard go: it must snap shut by itself. Wrench off the saw."),
			Checks: []Check{{"guard", say.Of("Guard shut and free?"), say.Of("It is not run without. Free the guard first.")}}}
	}
	return Step{ID: "close", Title: say.Of("Insert and guard"), Picture: PicClose, Text: say.All("Insert back, flush with the table. Guard on. Wrenches off the table."),
		Checks: []Check{{"guard", say.Of("Insert flush, guard on?"), say.Of("It is not run without. Set them first.")}}}
}
