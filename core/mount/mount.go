// Package mount lists the steps of putting a blade on a saw: craft section 6,
// and the look over a blade before it is used, craft section 10. Steps that do
// not apply to this saw and this blade do not appear.
package mount

import (
	"fmt"

	"corte/core/blade"
	"corte/core/measure"
	"corte/core/saw"
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
	Off     string // name of the blade that is on the saw now; empty if none is known
	New     bool   // never used, as far as the log knows
	Back    bool   // back from sharpening since it was last used
	LongAgo bool   // unused for long
	Bushing bool   // its bore needs one
	Unit    measure.Unit
}

// LongUnused is after how many days a blade is looked over before it is used.
const LongUnused = 180

// Steps lists the cards in the order of the work, hard checks first.
func Steps(c Case) []Step {
	var out []Step
	add := func(s Step) { out = append(out, s) }
	power := "Pull the plug."
	if c.Saw.Volts == 0 {
		power = "Take the battery out."
	}
	add(Step{ID: "power", Title: "Power off", Picture: PicPower,
		Text:    []string{power, "Then press the switch once: nothing may move."},
		Caution: "Every time, before a hand goes near the blade.",
		Checks:  []Check{{"dead", "Switch pressed, and nothing moved?", "It still has power. Find out why before you go on."}}})
	add(look(c))
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
	add(teeth(c))
	add(Step{ID: "nut", Title: "Washer and nut", Picture: PicNut,
		Text:   []string{"Outer washer the way it was, hollow side to the blade. Nut by hand first, its full thread.", "Snug with the wrench, no more: it tightens itself in the cut; crushed, it dishes the plate."},
		Checks: []Check{{"thread", "Nut on its full thread, blade flush to the inner flange?", "A nut on half a thread lets go. Something sits between, or the blade is too thick for this arbor."}}})
	add(Step{ID: "spin", Title: "Spin it by hand", Picture: PicSpin,
		Text:   []string{"Lock off, wrench out. Turn the blade a full round and watch the rim against one point."},
		Checks: []Check{{"free", "Does it turn freely and touch nothing?", "Find what it touches before anything else, from the guard to a chip on the flange."}}})
	if c.Saw.Knife > 0 {
		add(Step{ID: "knife", Title: "Riving knife", Picture: PicKnife,
			Text: []string{fmt.Sprintf("Knife back, in line with the blade, 3 to 8 mm behind the teeth. It is %s thick: thicker than the plate, thinner than the kerf of %s.",
				c.Saw.Knife.Format(c.Unit), c.Blade.Kerf.Format(c.Unit))}})
	}
	if k := c.Saw.Brake; k != nil {
		add(Step{ID: "brake", Title: "Blade brake", Picture: PicBrake,
			Text:   []string{"The right cartridge for this diameter, its gap set by its own gauge."},
			Checks: []Check{{"cartridge", fmt.Sprintf("Cartridge for %s, gap set?", c.Blade.Diameter.Format(c.Unit)), "The saw must not run on the wrong cartridge: it fires late, or by itself."}}})
	}
	add(closeUp(c))
	add(Step{ID: "test", Title: "Test run", Picture: PicTest,
		Text:    []string{"Power on. Stand aside, out of the blade's plane; start, and let it run for some seconds.", "Listen: even, no rattle. Watch it run down: no sway."},
		Caution: "Eye and ear protection. Nobody in line with the blade.",
		Checks:  []Check{{"sound", "Even and quiet, no sway?", "Off, power out, and begin again at the flanges."}}})
	return out
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
	s.Checks = []Check{
		{"teeth", "Every tooth there, none chipped or loose?", "A blade with a loose or missing tip is not run: it goes to a saw doctor."},
		{"plate", "No crack at gullets or slots, no blue on the plate?", "A cracked or burnt plate is not run. Retire it, or show it to a saw doctor."},
	}
	if c.LongAgo {
		s.Title = "Look it over: it has hung long"
		s.Text = append(s.Text, "Rust or dried pitch on the teeth: wash it before it goes on.")
		s.Checks = append(s.Checks, Check{"clean", "Clean enough to see every braze and corner?", "Wash it first; pitch hides cracks and cuts like a dull blade."})
	}
	return s
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
