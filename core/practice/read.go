package practice

import (
	"math/rand/v2"

	"corte/core/blade"
	"corte/core/measure"
	"corte/core/say"
)

// An Odd is the one tooth of a drawn blade that is not as it should be.
type Odd struct {
	Tooth int    // counted from the top, clockwise, from 0
	What  string // chipped, proud or turned
}

// A Dial is a face with a reading on it.
type Dial struct {
	Caliper bool // a sliding scale instead of a round face
	Inch    bool
	Shows   measure.Length
}

// Step is what one line of the face stands for, and the smallest of what it can
// be read to.
func (d Dial) Step() measure.Length {
	switch {
	case d.Inch:
		return measure.Inches(0.001)
	case d.Caliper:
		return 0.1
	}
	return 0.01
}

// tableBlade is a blade of 254 mm as one might hang in a shop.
func tableBlade(r *rand.Rand, g blade.Grind, least, most int) blade.Blade {
	b := blade.Blade{Diameter: 254, Bore: 15.875, Kerf: 3.2, Plate: 2.2, Grind: g, Hook: float64(5 * r.IntN(5)), Teeth: least + 2*r.IntN((most-least)/2+1)}
	switch g {
	case blade.ATB, blade.OneWay:
		b.Bevel = 15
	case blade.HighATB:
		b.Bevel = 35
	case blade.ATBR:
		b.Bevel, b.Group = 15, 5
		b.Teeth = 5 * ((b.Teeth + 4) / 5)
	}
	return b
}

func (t *Task) read(r *rand.Rand) {
	switch t.Skill.Of() {
	case "count":
		t.count(r)
	case "hook":
		t.hook(r)
	case "kerf":
		t.kerf(r)
	case "dial":
		t.dial(r)
	case "grind":
		t.grind(r)
	default:
		t.tooth(r)
	}
}

func (t *Task) count(r *rand.Rand) {
	most := []int{30, 50, 80}[t.Level-1]
	b := tableBlade(r, pick(r, blade.FTG, blade.ATB, blade.ATBR), most-14, most)
	t.Blade, t.Unit, t.value = &b, Teeth, float64(b.Teeth)
	t.Ask = say.Of("How many teeth has it?")
	t.why = []say.Line{say.Of("It has %d, about %s apart. Count a quarter of the rim between two marks and multiply by four. Count a combination blade by its groups of %d.", b.Teeth, say.Set(b.Pitch()), b.GroupSize())}
}

func (t *Task) hook(r *rand.Rand) {
	b := tableBlade(r, blade.ATB, 24, 40)
	b.Hook = float64([]int{5, 1, 1}[t.Level-1] * (r.IntN([]int{6, 33, 33}[t.Level-1]) - []int{1, 8, 8}[t.Level-1]))
	t.Blade, t.Unit, t.value, t.near = &b, Degrees, b.Hook, []float64{3, 2, 1}[t.Level-1]
	t.Ask = say.Of("What is the hook angle? Turn the straightedge at the tip until it lies along the tooth's face. Bore to tip is zero.")
	t.why = []say.Line{say.Of("The hook angle is %+.0f°.", b.Hook), hookMeans(b.Hook)}
}

func hookMeans(deg float64) say.Line {
	switch {
	case deg < 0:
		return say.Of("It leans back, so it pulls the work in least. For sliding saws, melamine and metal.")
	case deg < 12:
		return say.Of("It leans forward a little: clean edges, more feed force.")
	}
	return say.Of("It leans well forward and pulls the work in. Good for fast rips, but it climbs on a sliding saw.")
}

func (t *Task) kerf(r *rand.Rand) {
	t.Dial = &Dial{Caliper: true, Inch: t.Level > 1 && r.IntN(2) == 0}
	step := t.Dial.Step()
	n := int(float64(1.6/step) + 0.5)
	t.Dial.Shows = step * measure.Length(n+r.IntN(int(2/float64(step))))
	t.Unit, t.value, t.near = Millis, t.Dial.Shows.Mm(), 0.6*step.Mm()
	t.Ask = say.Of("The caliper lies over one tooth. How wide is the kerf?")
	t.why = []say.Line{say.Of("It shows %s. Read the whole part before the zero of the sliding scale, and the rest where its line meets one above.", shows(t.Dial))}
}

// shows is a reading in the unit of its face, whatever the reader's.
func shows(d *Dial) say.Line {
	if d.Inch {
		return say.Of("%.3f in", d.Shows.Mm()/25.4)
	}
	if d.Caliper {
		return say.Of("%.1f mm", d.Shows.Mm())
	}
	return say.Of("%.2f mm", d.Shows.Mm())
}

func (t *Task) dial(r *rand.Rand) {
	t.Dial = &Dial{Inch: t.Level > 1 && r.IntN(2) == 0}
	step := t.Dial.Step()
	n := 2 + r.IntN([]int{20, 30, 44}[t.Level-1]) // half a round either way
	if t.Level > 1 && r.IntN(2) == 0 {
		n = -n
	}
	t.Dial.Shows = step * measure.Length(n)
	t.Unit, t.value, t.near = Millis, t.Dial.Shows.Mm(), 0.6*step.Mm()
	t.Ask = say.Of("The dial indicator was set to 0 at the front tooth. What does it show at the rear? Left of 0 is less.")
	t.why = []say.Line{say.Of("It shows %s. Each line is %s, and the needle went %s.", shows(t.Dial), shows(&Dial{Inch: t.Dial.Inch, Shows: step}), pickWay(n))}
}

func pickWay(n int) say.Line {
	if n < 0 {
		return say.Of("to the left of 0, so it is less")
	}
	return say.Of("to the right of 0")
}

// grindsSeen are those that can be told apart from the front.
var grindsSeen = []blade.Grind{blade.FTG, blade.ATB, blade.HighATB, blade.ATBR, blade.TCG}

func (t *Task) grind(r *rand.Rand) {
	b := tableBlade(r, pick(r, grindsSeen...), 40, 60)
	t.Blade, t.truth = &b, b.Grind.String()
	t.Ask = say.Of("What grind is it? You see the teeth from the front as they pass.")
	for _, g := range grindsSeen {
		t.Choices = append(t.Choices, Choice{Key: g.String(), Say: g.Words().Upper()})
	}
	t.why = []say.Line{say.Of("It is %s.", b.Grind.Words()), grindMeans[b.Grind]}
}

var grindMeans = map[blade.Grind]say.Line{
	blade.FTG:     say.Of("Flat teeth clear chips fast and leave flat bottoms. Good for rips and grooves. Across the grain they tear out."),
	blade.ATB:     say.Of("Alternating points score the fibers before they are lifted: clean across the grain."),
	blade.HighATB: say.Of("Steep points are like knives: clean in veneer, soon dull in anything dirty."),
	blade.ATBR:    say.Of("Groups of points with a flat raker behind each: a bit of both, and nearly flat grooves."),
	blade.TCG:     say.Of("A chamfered tooth cuts first and a flat one cleans up. For hard and brittle material."),
}

func (t *Task) tooth(r *rand.Rand) {
	b := tableBlade(r, blade.ATB, []int{24, 36, 48}[t.Level-1], []int{30, 48, 72}[t.Level-1])
	b.Hook = 15
	t.Blade = &b
	t.Odd = &Odd{Tooth: r.IntN(b.Teeth), What: pick(r, "chipped", "proud", "turned")}
	t.Ask = say.Of("One tooth is not like the others. Which?")
	for i := range b.Teeth {
		t.Choices = append(t.Choices, Choice{Key: toothKey(i)})
	}
	t.truth = toothKey(t.Odd.Tooth)
	t.why = []say.Line{map[string]say.Line{
		"chipped": say.Of("It is chipped: a corner of the carbide is missing. The next tooth has to do its work too. Have it repaired before more chip."),
		"proud":   say.Of("It sticks out: it cuts more than its share and leaves one deep mark per turn."),
		"turned":  say.Of("It faces the wrong way: it was brazed on wrong. Don't use this blade."),
	}[t.Odd.What]}
}

// toothKey names teeth as people count them, from 1.
func toothKey(i int) string { return say.Of("%d", i+1).String() }
