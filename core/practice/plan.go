package practice

import (
	"math/rand/v2"

	"corte/core/cut"
	"corte/core/guide"
	"corte/core/measure"
	"corte/core/say"
)

// A Plan is how a table saw is set up for a through cut, and who stands how at
// it, seen from above.
type Plan struct {
	Direction cut.Direction // rip or crosscut
	Fence     bool          // the fence stands beside the work, past the blade
	Gauge     bool          // the work lies against the miter gauge
	FenceOpen measure.Length
	Leans     cut.Side // the tilted blade leans to; unknown where it is square
	FenceSide cut.Side // of the blade, where there is a fence
	Knife     bool
	Stop      Stop
	Block     measure.Length // how wide the stop block on the fence is
	Hand      measure.Length // from the blade to the nearest hand
	PushBlock bool           // what is between them
	Gloves    bool
	InLine    bool // the person stands in the line of the cut
}

// A Stop is what pieces are cut to one length by.
type Stop string

// Stops.
const (
	NoStop    Stop = ""
	OnGauge   Stop = "gauge"  // on the gauge's fence
	BeforeIt  Stop = "before" // a block on the rip fence, well before the blade
	BesideIt  Stop = "beside" // a block on the rip fence that reaches to the blade
	FenceStop Stop = "fence"  // the rip fence itself
)

// A Harm is a way in which people get hurt at a saw: the second half of a skill of
// "before".
type Harm string

// Harms.
const (
	Offcut   Harm = "offcut"
	Closing  Harm = "fence"
	Both     Harm = "gauge"
	Glove    Harm = "glove"
	NoKnife  Harm = "knife"
	Line     Harm = "line"
	Freehand Harm = "freehand"
	Near     Harm = "hands"
)

// turns is how much room an offcut turns in without a jam; judgement: 20 mm is too
// little, guide.StopBlock enough.
const turns = measure.Length(60)

// Harms are what is wrong with a set-up: craft sections 5 and 15.
func (p Plan) Harms() (out []Harm) {
	add := func(is bool, h Harm) {
		if is {
			out = append(out, h)
		}
	}
	across := p.Direction.Across()
	add(!p.Gauge && (across || !p.Fence), Freehand)
	add(across && p.Gauge && (p.Fence && p.Stop != BeforeIt && p.Stop != BesideIt || p.Stop == FenceStop), Both)
	add(p.Stop == BesideIt || p.Stop == BeforeIt && p.Block < turns, Offcut)
	add(p.Leans != cut.UnknownSide && p.Leans == p.FenceSide && p.Fence, Offcut)
	add(p.Fence && p.FenceOpen < 0, Closing)
	add(!p.Knife, NoKnife)
	add(p.Gloves, Glove)
	add(p.InLine, Line)
	add(p.Hand < guide.HandsOff && !p.PushBlock, Near)
	return out
}

// Means is what a harm does.
func (h Harm) Means() say.Line { return say.Word(harmMeans[h]) }

var harmMeans = map[Harm]string{
	Offcut:   "The offcut is trapped: it jams between the blade and what is beside it, and gets thrown. End a stop block well before the blade, so the offcut comes free. Never tilt a blade toward the fence.",
	Closing:  "The fence toes in toward the rear of the blade. It presses the board onto the rising teeth, burns it and kicks it back. Set it parallel, or with a little toe-out at the rear.",
	Both:     "Miter gauge and rip fence are used together. The piece is held by both, twists as it comes off, and gets thrown. Pull the fence well back, or clamp a block to it before the blade.",
	Glove:    "Gloves: a tooth that catches one pulls the hand in. Wear gloves to handle blades, never for sawing.",
	NoKnife:  "There is no riving knife behind the blade. The kerf closes on the rear teeth, which lift the board and throw it. Fit a riving knife thicker than the plate and thinner than the kerf.",
	Line:     "A person stands behind the blade, in the line of kickback. Stand to the side.",
	Freehand: "Nothing guides the board. It turns a little, pinches the blade and gets thrown. Use the rip fence for a rip and a miter gauge or sled for a crosscut. Never cut freehand.",
	Near:     "A hand is closer than 150 mm to the blade with nothing in between. Use a push block.",
}

// A Part is a place of a plan that somebody can point at.
type Part string

// Parts: where what is wrong is found.
const (
	PartNothing Part = "nothing"
	PartGuide   Part = "guide"
	PartFence   Part = "fence"
	PartOffcut  Part = "offcut"
	PartBehind  Part = "behind"
	PartHands   Part = "hands"
	PartStand   Part = "stand"
)

var parts = []struct {
	part  Part
	words string
}{
	{PartGuide, "What guides the work"},
	{PartFence, "How the fence is set"},
	{PartOffcut, "Where the offcut goes"},
	{PartBehind, "Behind the blade"},
	{PartHands, "The hands"},
	{PartStand, "Where the person stands"},
	{PartNothing, "Nothing is wrong"},
}

var partOf = map[Harm]Part{
	Offcut: PartOffcut, Closing: PartFence, Both: PartGuide, Glove: PartHands, NoKnife: PartBehind, Line: PartStand, Freehand: PartGuide, Near: PartHands,
}

// safe is a set-up in which nothing is wrong.
func safe(d cut.Direction, r *rand.Rand) Plan {
	p := Plan{Direction: d, Knife: true, Hand: measure.Length(160 + 10*r.IntN(10)), FenceSide: cut.Right}
	if d.Across() {
		p.Gauge = true
		if r.IntN(2) == 0 {
			p.Stop = OnGauge
		}
		return p
	}
	p.Fence, p.PushBlock = true, true
	p.FenceOpen = measure.Length(0.1 * float64(r.IntN(2)))
	return p
}

// spoil makes one thing of a set-up wrong, the harder to see the higher the level.
func (p *Plan) spoil(h Harm, level int) {
	switch h {
	case Offcut:
		p.Stop, p.Block, p.Fence = BesideIt, guide.StopBlock, true
		if level > 1 {
			p.Stop, p.Block = BeforeIt, 20
		}
	case Closing:
		p.FenceOpen = -[]measure.Length{4, 2.5, 1.5}[level-1]
	case Both:
		p.Fence, p.Stop = true, FenceStop
	case Glove:
		p.Gloves = true
	case NoKnife:
		p.Knife = false
	case Line:
		p.InLine = true
	case Freehand:
		p.Fence, p.Gauge, p.Stop = false, false, NoStop
	case Near:
		p.PushBlock, p.Hand = false, []measure.Length{30, 60, 90}[level-1]
	}
}

// harmWants is the cut in which a harm is found; the others are found in either.
var harmWants = map[Harm]cut.Direction{Offcut: cut.Crosscut, Both: cut.Crosscut, Closing: cut.Rip, Near: cut.Rip}

// sound is in how many set-ups nothing is wrong, by level: where something always
// is, nobody has to look.
var sound = [...]float64{0.15, 0.25, 0.35}

func (t *Task) before(r *rand.Rand) {
	h := Harm(t.Skill.Of())
	d, fixed := harmWants[h]
	if !fixed {
		d = pick(r, cut.Rip, cut.Crosscut)
	}
	p := safe(d, r)
	t.truth = string(PartNothing)
	if r.Float64() >= sound[t.Level-1] {
		p.spoil(h, t.Level)
		t.truth = string(partOf[h])
	}
	t.Plan = &p
	t.Ask = say.Of("A crosscut on a table saw, from above. What is wrong?")
	if d == cut.Rip {
		t.Ask = say.Of("A rip on a table saw, from above. What is wrong?")
	}
	for _, k := range parts {
		t.Choices = append(t.Choices, Choice{Key: string(k.part), Say: say.Word(k.words)})
	}
	for _, h := range p.Harms() {
		t.why = append(t.why, h.Means())
	}
	if t.truth == string(PartNothing) {
		t.why = []say.Line{say.Of("This cut is safe to make. Check every time anyway: guide, fence, offcut, riving knife, hands, and where you stand.")}
	}
}
