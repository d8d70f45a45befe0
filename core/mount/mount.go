// Package mount lists the steps of putting a blade on a saw: craft section 6,
// and the look over a blade before it is used, craft section 10. Steps that do
// not apply to this saw and this blade do not appear.
package mount

import (
	"fmt"
	"strings"

	"corte/core/blade"
	"corte/core/groove"
	"corte/core/measure"
	"corte/core/saw"
	"corte/core/word"
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
	Title   string
	Text    []string
	Caution string
	Picture Picture
	Checks  []Check
	Numbers bool // the blade's diameter and teeth are asked for again
}

// A Check is a question whose wrong answer stops the mounting.
type Check struct {
	ID    string
	Ask   string // answered yes or no; yes goes on
	IfNot string // what it means, and the way out
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
	Way     *groove.Way // of a dado set, the groove that it is put together for; nil if none is
	Unit    measure.Unit
}

// LongUnused is after how many days a blade is looked over before it is used.
const LongUnused = 180

// Steps lists the cards in the order of the work, hard checks first.
func Steps(c Case) []Step {
	var out []Step
	add := func(s Step) { out = append(out, s) }
	power := map[saw.Power]string{
		saw.Plug: "Pull the plug.", saw.Battery: "Take the battery out.",
		saw.UnknownPower: "Pull the plug, or take the battery out; whichever this saw has, and both if it has both.",
	}[c.Saw.Power()]
	add(Step{ID: "power", Title: "Power off", Picture: PicPower,
		Text:    []string{power, "Then press the switch once: nothing may move."},
		Caution: "Every time, before a hand goes near the blade.",
		Checks:  []Check{{"dead", "Switch pressed, and nothing moved?", "It still has power. Find out why before you go on."}}})
	add(look(c))
	if limit, ask := limits(c); ask {
		add(limit)
	}
	if c.Back {
		add(Step{ID: "numbers", Title: "Measure it again", Picture: PicNumbers, Numbers: true,
			Text: []string{"It is back from sharpening: a little smaller, its kerf a little less.", "Measure the diameter over two opposite tips, and count that every tooth is there."}})
	}
	if c.New {
		add(Step{ID: "oil", Title: "Oil off, film on", Picture: PicOil,
			Text: []string{"A new blade comes in oil, which stains the work and holds dust: wipe it off both faces.", "Wipe on a thin dry protective film and let it dry."}})
	}
	add(wayIn(c))
	if c.Saw.Lock || c.Saw.Kind != saw.Table {
		add(Step{ID: "lock", Title: "Hold the arbor", Picture: PicLock,
			Text: []string{"Press the arbor lock and turn the blade by hand until it catches.", "No lock, or it slips: bite the teeth into a scrap, never hold them by hand."}})
	} else {
		add(Step{ID: "lock", Title: "Wrench on the flat", Picture: PicLock,
			Text:    []string{"One wrench on the arbor's flat, or on the second nut behind it; the other on the blade's nut."},
			Caution: "Keep knuckles off the teeth: pull so that a slip moves away from them."})
	}
	add(undo(c))
	if c.Off != "" {
		add(Step{ID: "off", Title: c.Off + " comes off", Picture: PicWasher,
			Text:    []string{"Outer washer off, remember which way round it was; then the blade, straight off the arbor.", "Lay it on wood or hang it up: teeth touching nothing."},
			Caution: "Carbide is hard and brittle: never on cast iron, never a tooth against the opening."})
	}
	flange := []string{"Wipe both flanges, the arbor's thread and the plate's middle: a speck here sways the rim ten times as much."}
	if c.Bushing {
		flange = append(flange, fmt.Sprintf("Its bore of %s needs the bushing to %s: seated flush, no thicker than the plate.", c.Blade.Bore.Format(c.Unit), c.Saw.Arbor.Format(c.Unit)))
	}
	if c.Saw.Knockout {
		flange = append(flange, "This saw takes the diamond knock-out: out of the blade with it, and the blade seated on the diamond.")
	}
	add(Step{ID: "flange", Title: "Clean seats", Picture: PicFlange, Text: flange})
	if c.Blade.Make == blade.Dado {
		for _, one := range stack(c) {
			add(one)
		}
	}
	add(teeth(c))
	if c.Blade.Make == blade.Dado {
		add(setNut(c))
	} else {
		add(Step{ID: "nut", Title: "Washer and nut", Picture: PicNut,
			Text:   []string{"Outer washer the way it was, hollow side to the blade. Nut by hand first, its full thread.", "Snug with the wrench, no more: it tightens itself in the cut; crushed, it dishes the plate."},
			Checks: []Check{{"thread", "Nut on its full thread, blade flush to the inner flange?", "A nut on half a thread lets go. Something sits between, or the blade is too thick for this arbor."}}})
	}
	add(Step{ID: "spin", Title: "Spin it by hand", Picture: PicSpin,
		Text:   []string{"Lock off, wrench out. Turn the blade a full round and watch the rim against one point."},
		Checks: []Check{{"free", "Does it turn freely and touch nothing?", "Find what it touches before anything else, from the guard to a chip on the flange."}}})
	if c.Saw.Kind == saw.Table && c.Saw.Knife == 0 && c.Blade.Make != blade.Dado {
		add(Step{ID: "knife", Title: "Riving knife", Picture: PicKnife,
			Text: []string{"No riving knife is on this saw's record. Fit one that is thicker than the plate and thinner than the kerf" +
				fmt.Sprintf(" of %s, and put its thickness into the record.", c.Blade.Kerf.Format(c.Unit))}})
	}
	if c.Saw.Knife > 0 && c.Blade.Make != blade.Dado {
		add(Step{ID: "knife", Title: "Riving knife", Picture: PicKnife,
			Text: []string{fmt.Sprintf("Knife back, in line with the blade, 3 to 8 mm behind the teeth. It is %s thick: thicker than the plate, thinner than the kerf of %s.",
				c.Saw.Knife.Format(c.Unit), c.Blade.Kerf.Format(c.Unit))}})
	}
	if k := c.Saw.Brake; k != nil && c.Blade.Make == blade.Dado {
		add(Step{ID: "brake", Title: "The dado cartridge", Picture: PicBrake,
			Text:   []string{"A dado set wants a brake cartridge of its own, made for its diameter; the one for single blades does not reach it."},
			Checks: []Check{{"cartridge", fmt.Sprintf("Dado cartridge for %s in, gap set?", c.Blade.Diameter.Format(c.Unit)), "The saw must not run a dado set on the other cartridge. Change it first."}}})
	} else if k != nil {
		add(Step{ID: "brake", Title: "Blade brake", Picture: PicBrake,
			Text:   []string{"The right cartridge for this diameter, its gap set by its own gauge."},
			Checks: []Check{{"cartridge", fmt.Sprintf("Cartridge for %s, gap set?", c.Blade.Diameter.Format(c.Unit)), "The saw must not run on the wrong cartridge: it fires late, or by itself."}}})
	}
	if c.Blade.Make == blade.Dado {
		add(insert(c))
	} else {
		add(closeUp(c))
	}
	add(Step{ID: "test", Title: "Test run", Picture: PicTest,
		Text:    []string{"Power on. Stand aside, out of the blade's plane; start, and let it run for some seconds.", "Listen: even, no rattle. Watch it run down: no sway."},
		Caution: "Eye and ear protection. Nobody in line with the blade.",
		Checks:  []Check{{"sound", "Even and quiet, no sway?", "Off, power out, and begin again at the flanges."}}})
	return out
}

// limits asks for what nobody has noted of the blade: the speed that it may
// turn at, and on a miter saw its hook. It reports false where both are known.
func limits(c Case) (Step, bool) {
	s := Step{ID: "limits", Title: "Read the plate", Picture: PicLook}
	if c.Blade.MaxRPM == 0 {
		s.Text = append(s.Text, fmt.Sprintf("Nobody has noted the speed that it may turn at. This saw turns at %.0f a minute.", c.Saw.RPM))
		s.Checks = append(s.Checks, Check{"limit", fmt.Sprintf("Does the plate say %.0f rpm or more?", c.Saw.RPM),
			"It is not run on this saw. Where the print is gone, ask a saw doctor, or take a blade that says it."})
	}
	if c.Saw.Kind == saw.Miter && c.Blade.HookUnknown && c.Blade.Teeth > 0 {
		s.Text = append(s.Text, "Nobody has read its hook: a straight edge from the middle of the bore to a tip, and look at the tooth's face against it.")
		s.Checks = append(s.Checks, Check{"hook", "Does the face lie along the edge, or lean back from it?",
			"A hook that leans forward climbs on a miter saw. Read it in degrees and put it into the record first."})
	}
	return s, len(s.Checks) > 0
}

// look is the check before use: short for a blade in use, long for one that
// hung long.
func look(c Case) Step {
	s := Step{ID: "look", Title: "Look it over", Picture: PicLook,
		Caution: "Bare edges cut hands: gloves for handling, none for sawing."}
	if c.Blade.Make == blade.Diamond || c.Blade.Make == blade.Abrasive {
		s.Text = []string{"A wheel that was dropped or has got wet is suspect."}
		s.Checks = []Check{{"whole", "No crack, no chip, rim whole all round?", "It is not run. Throw it away."}}
		return s
	}
	s.Text = []string{"Once round, both faces, in good light."}
	if c.Blade.Make == blade.Dado {
		s.Text = []string{"Both outer blades and every chipper, both faces, in good light.", "Shims flat and clean: a crease is a shim more."}
	}
	s.Checks = []Check{
		{"teeth", chipAsked(c), "A blade with a loose or missing tip is not run: it goes to a saw doctor."},
		{"plate", "No crack at gullets or slots, no blue on the plate?", "A cracked or burnt plate is not run. Retire it, or show it to a saw doctor."},
	}
	if c.LongAgo {
		s.Title = "Look it over: it has hung long"
		s.Text = append(s.Text, "Rust or dried pitch on the teeth: wash it before it goes on.")
		s.Checks = append(s.Checks, Check{"clean", "Clean enough to see every braze and corner?", "Wash it first; pitch hides cracks and cuts like a dull blade."})
	}
	return s
}

// chipAsked names a chip that is known, so that nobody takes it for a new one,
// or a new one for it.
func chipAsked(c Case) string {
	if c.Chipped {
		return "The log knows of a chipped tip. That one no worse, every other tooth whole, none loose?"
	}
	return "Every tooth there, none chipped or loose?"
}

func wayIn(c Case) Step {
	switch c.Saw.Kind {
	case saw.Miter:
		return Step{ID: "way-in", Title: "Way in", Picture: PicWayIn,
			Text: []string{"Head up and locked. Guard up; loosen the cover plate over the arbor and swing it away."}}
	case saw.Circular:
		return Step{ID: "way-in", Title: "Way in", Picture: PicWayIn,
			Text: []string{"Saw on its side, on the motor. Lower guard back by its lever, and held there."}, Caution: "Never wedge the guard open and forget it."}
	}
	return Step{ID: "way-in", Title: "Way in", Picture: PicWayIn,
		Text: []string{"Guard off its holder, insert out, blade raised all the way.", "Something over the dust chute: a nut that falls in is gone."}}
}

// stack are the cards of putting a dado set together on the arbor: craft
// section 12.
func stack(c Case) []Step {
	off := Step{ID: "knife-off", Title: "Knife and guard off, for this", Picture: PicKnife,
		Text: []string{"Riving knife and guard cannot stand over a groove that stays in the wood: off as the saw’s manual says.",
			"They go back on with the next single blade."},
		Caution: "Without them the hands need push blocks, and the work a hold-down or feather board."}
	order := Step{ID: "order", Title: "In this order", Picture: PicStack,
		Text: []string{"The left outer blade against the inner flange, its flat face to the flange; left and right are not the same.",
			"Then chippers and shims, and the right outer blade last."}}
	if w := c.Way; w != nil && len(w.Slots) > 0 {
		order.Text = []string{"From the inner flange outward:", inOrder(w.Slots, c.Unit)}
	} else if w != nil {
		order.Title, order.Text = "Set the dial", []string{fmt.Sprintf("%s. Do not overtighten: the dial is spoilt by it.", word.Upper(w.Says))}
	}
	order.Checks = []Check{{"order", "As drawn, and every shim flat between hubs?", "Take it apart and begin again from the flange."}}
	steps := []Step{off, order}
	if w := c.Way; w == nil || chippers(w.Slots) > 0 {
		clock := Step{ID: "clock", Title: "Chippers into the gullets", Picture: PicClock,
			Text: []string{"Turn each chipper until its teeth stand in the middle of the outer blades’ gullets, spread evenly round.", "No tooth may touch another: carbide on carbide breaks."}}
		if w != nil && !w.Clocked {
			clock.Text = append(clock.Text, "There are more chippers than gullets for each: spread them as the set’s own sheet shows.")
		}
		clock.Checks = []Check{{"clocked", "No tooth touching another, all the way round?", "Do not tighten. Turn the chippers on until every tooth stands free."}}
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

func inOrder(slots []groove.Slot, u measure.Unit) string {
	var said []string
	for _, s := range slots {
		switch s.What {
		case "left", "right":
			said = append(said, s.What+" outer blade")
		default:
			said = append(said, s.What+" "+s.Thickness.Format(u))
		}
	}
	return word.Upper(strings.Join(said, ", ")) + "."
}

func setNut(c Case) Step {
	s := Step{ID: "nut", Title: "Washer and nut", Picture: PicNut,
		Text: []string{"Outer washer, then the nut by hand, its full thread. Hold the stack so that nothing turns while it is snugged."}}
	if w := c.Way; w != nil && w.Arbor != nil {
		if w.Arbor.WasherOff {
			s.Text[0] = "No outer washer: this saw’s maker allows it for a dado set. Nut by hand, its full thread; nothing may turn while it is snugged."
		}
		s.Text = append(s.Text, w.Arbor.Says+".")
	}
	s.Checks = []Check{{"thread", "Nut on its full thread?", "Stop: a nut on half a thread lets go. Take chippers out and cut the groove in two."}}
	return s
}

// insert is a set's own throat insert, cut by the set itself.
func insert(c Case) Step {
	s := Step{ID: "insert", Title: "Its own insert", Picture: PicInsert,
		Text: []string{"A blank insert in, the set below it. Only for this width; write the width on it.",
			"A board over the blank, clamped or under the fence, clear of where the set comes up. Nobody’s hand on it.",
			"Saw on; raise the set slowly through the blank, a little over the groove’s depth. Off, and wait until it stands."},
		Caution: "Never raise it through a blank that is held by hand.",
		Checks:  []Check{{"insert", "Insert cut or in, flush, and nothing within its reach?", "It is not run with the wide insert of another set, or without one."}}}
	if w := c.Way; w != nil && w.Insert != nil {
		s.Text = append(s.Text, fmt.Sprintf("The opening comes to %s by %s. Fence at least %s clear of the set while it rises.",
			w.Insert.Width.Setting(c.Unit), w.Insert.Length.Setting(c.Unit), w.Insert.Fence.Setting(c.Unit)))
	}
	return s
}

// undo says which way the nut comes off.
func undo(c Case) Step {
	s := Step{ID: "undo", Title: "Undo the nut", Picture: PicUndo}
	switch c.Saw.Thread {
	case saw.LeftHand:
		s.Text = []string{"A left-hand thread: facing the nut, turn it clockwise to undo."}
	case saw.RightHand:
		s.Text = []string{"A right-hand thread: facing the nut, turn it counter-clockwise to undo."}
	default:
		s.Text = []string{"The nut tightens against the turn of the blade, so it undoes the way the teeth travel: pull the wrench that way.",
			"Which thread it is stands in the saw's manual; put it into the saw's record, and the next time it is said here."}
	}
	if c.Saw.Kind == saw.Table {
		s.Text = append(s.Text, "Hold nut and washer as they come: nothing into the chute.")
	}
	return s
}

func teeth(c Case) Step {
	s := Step{ID: "teeth", Title: "Teeth the right way", Picture: PicTeeth}
	way := ""
	switch c.Saw.Kind {
	case saw.Table:
		way = "Teeth toward you at the top; they come down through the work."
	case saw.Miter:
		way = "Teeth down at the front, toward the fence at the bottom: like the arrow on the guard."
	default:
		way = "Teeth up at the front: they cut from below, like the arrow on the guard."
	}
	s.Text = []string{way, "Slide it on straight, past the opening without touching, flush to the inner flange."}
	if c.Blade.Make == blade.Diamond || c.Blade.Make == blade.Abrasive {
		s.Title, s.Text = "The arrow's way", []string{"A wheel has no teeth, but an arrow: the same way as the saw's own."}
	}
	s.Checks = []Check{{"way", "Does it face the way of the drawing?", "The wrong way round it burns, climbs and throws. Turn it over."}}
	return s
}

func closeUp(c Case) Step {
	switch c.Saw.Kind {
	case saw.Miter:
		return Step{ID: "close", Title: "Cover and guard", Picture: PicClose, Text: []string{"Cover plate back and tight, guard down: it must fall by itself."},
			Checks: []Check{{"guard", "Guard down and free?", "It is not run without. Free the guard first."}}}
	case saw.Circular:
		return Step{ID: "close", Title: "Guard", Picture: PicClose, Text: []string{"Let the lower guard go: it must snap shut by itself. Wrench off the saw."},
			Checks: []Check{{"guard", "Guard shut and free?", "It is not run without. Free the guard first."}}}
	}
	return Step{ID: "close", Title: "Insert and guard", Picture: PicClose, Text: []string{"Insert back, flush with the table. Guard on. Wrenches off the table."},
		Checks: []Check{{"guard", "Insert flush, guard on?", "It is not run without. Set them first."}}}
}
