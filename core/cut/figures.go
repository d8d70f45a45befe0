package cut

import (
	"math"

	"corte/core/blade"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/say"
	"corte/core/word"
)

// A State is what the log says of blade and saw today. The zero State is a
// sharp, clean blade on a true saw.
type State struct {
	Sharpness float64        // 1 sharp, 2.5 dull; 0 means 1
	Pitch     float64        // 0 clean to 3 caked
	Heel      measure.Length // rear of the blade out of line with the slot, either way
	Spread    measure.Length // range of side clearance over the teeth; 0 means the usual 0.04
	RunOut    measure.Length // total, at the plate; 0 means the usual 0.03
	Chipped   bool           // a look-over found a chipped tip, which may still run
}

func (s State) dullness() float64 { return max(s.Sharpness, 1) }

// What a blade and an arbor in order come to, where nobody has measured them
// (model section 4b).
const (
	usualSpread = measure.Length(0.04)
	usualRunOut = measure.Length(0.03)
)

// wobble is how deep the marks are, once a turn, of the teeth that stand out:
// half of what clearance and run-out come to together.
func (s State) wobble() float64 {
	spread, runOut := s.Spread, s.RunOut
	if spread <= 0 {
		spread = usualSpread
	}
	if runOut <= 0 {
		runOut = usualRunOut
	}
	return 0.5 * (spread + runOut).Mm()
}

// A Drive is what turns the blade, and how it is led.
type Drive struct {
	RPM         float64
	PowerLimitW float64 // the smaller of the motor's shaft power and what the circuit carries
	HandHeld    bool    // the saw is led over the work by hand
}

// Edition is raised whenever the model's figures change, so that what a log
// row was foretold by another edition is never read as this one's.
const Edition = 3

// A Bound is what sets one end of a feed window.
type Bound uint8

const (
	ByScorch   Bound = iota // slower would brown the wall
	ByHand                  // slower or faster than a hand holds steadily
	ByBog                   // faster would ask more than the motor or circuit gives
	BySplinter              // faster would break out a face that matters
	ByGullet                // faster would overfill the gullets
	ByWall                  // faster would mark the wall deeper than the finish bears
	ByShoulder              // no tooth can bite deeper than the shoulder before it
)

//corte:enum Bound
var boundNames = word.Names{Kind: "bound", Of: []string{"scorch", "hand", "bog", "splinter", "gullet", "wall", "shoulder"}}

var boundWords = [...]string{"burning", "losing control", "bogging down", "tear-out", "full gullets", "tooth marks", "the tooth shoulders"}

// Words names what happens past the bound.
func (b Bound) Words() say.Line { return say.Word(boundWords[b]) }

// A Window is the range of feeds at which a blade makes a cut well.
type Window struct {
	Slowest, Fastest measure.Feed
	SlowBy, FastBy   Bound
	Scorch           measure.Feed // the bounds one by one
	Bog              measure.Feed
	Splinter         measure.Feed
	Hand             measure.Feed
	Gullet           measure.Feed
	Wall             measure.Feed // +Inf where no mark can reach the limit
	Shoulder         measure.Feed // +Inf where the blade has none
	slow             measure.Feed // that a hand still holds steadily
}

// Room is how wide the window stands: fastest over slowest. Under 1 it is shut.
func (w Window) Room() float64 { return float64(w.Fastest) / float64(w.Slowest) }

// Open reports whether there is a feed at which the cut goes well.
func (w Window) Open() bool { return w.Room() >= tightRoom }

// A RoomWord puts the room of a window into a word.
type RoomWord uint8

const (
	Shut RoomWord = iota
	Tight
	Fair
	Roomy
)

//corte:enum RoomWord
var gradeNames = word.Names{Kind: "grade", Of: []string{"shut", "tight", "fair", "roomy"}}

// Grade is shut under 1, tight to 1.5, fair to 2.5, roomy over that.
func (w Window) Grade() RoomWord {
	switch r := w.Room(); {
	case r < tightRoom:
		return Shut
	case r < FairRoom:
		return Tight
	case r < roomyRoom:
		return Fair
	}
	return Roomy
}

// Paces are the three feeds of model section 5.
type Paces struct {
	Easy      measure.Feed // what a hand keeps up for long; +Inf where the blade pushes back at nobody
	Acting    measure.Feed // what a practised hand does, burn or not: minutes are counted at it
	Suggested measure.Feed // what Corte advises
}

// Harder reports whether the advice asks for more push than a hand keeps up
// for long.
func (p Paces) Harder() bool { return p.Suggested > p.Easy*(1+1e-9) }

// Acting is what a cut comes to at the acting feed: what minutes are counted
// from.
type Acting struct {
	Feed     measure.Feed
	Burn     float64        // chance of a visible burn
	Worst    float64        // of the faces that matter, 0 where none does
	WallMark measure.Length // depth of the marks on the wall, once a turn
}

// A Face is one place where teeth leave the work.
type Face struct {
	AngleDeg float64 // between the tooth's path and the face
	Splinter float64 // on the scale of Finish.SplinterLimit
	Matters  bool    // whether it may close the window
}

// Figures is everything that the model says of one blade on one cut, at the
// suggested feed.
type Figures struct {
	Arc        measure.Length // of the rim in the wood
	TeethInCut float64
	ChipLoad   measure.Length // feed per tooth
	MeanChip   measure.Length
	PushShare  float64 // of the cutting force along the table: back at the person at a table saw, to the fence in a chop
	HoldShare  float64 // of the cutting force square to the table: down on it at a table saw
	RimSpeed   float64
	Window     Window
	Feed       measure.Feed
	Paces      Paces
	Acting     Acting
	PushN      float64 // that it takes to feed the work, newtons
	PowerW     float64
	Load       float64 // PowerW over the power limit
	Allowed    float64 // the load that may be used: 0.9 on a rip, 1.2 across
	Dose       float64 // heat reaching the wall
	BurnDose   float64 // of which half of all boards show a burn
	Burn       float64 // chance of a visible burn
	Exit       Face
	Other      Face           // end edge; bottom face for a chop
	WallMark   measure.Length // depth of the marks on the wall, once a turn
}

// The model's constants: docs/model.md says where each comes from.
const (
	forceScale   = 0.0458 // specific cutting force over density
	forceExp     = 0.62   // 1 - Kienzle's m
	acrossPower  = 1.15
	allowedRip   = 0.9
	allowedCross = 1.2
	heatScale    = 3.47e-4
	bluntChip    = 0.006 // mm: no thicker than the edge is round, a tooth ploughs
	heatExp      = 0.8
	heelUnknown  = 0.03 // mm that a dial cannot tell
	heelScale    = 0.15 // mm
	coolShare    = 0.4  // of the heat that even the shortest cut makes
	warmLength   = 500  // mm along which a plate warms
	leadPush     = 1.2
	leadByHand   = 1.6
	splinterLoad = 0.03 // mm
	shearSheet   = 0.85 // of the splintering of a straight face, in sheet
	markTurn     = 0.6  // mm of feed per turn over which marks deepen
	slowChop     = 0.4
	slowHand     = 1.0
	fastRip      = 6.0
	fastCross    = 4.0
	gulletFill   = 0.5
	swellRip     = 8.0
	swellCross   = 4.0
	shoulderLoad = 1.1 // mm that a shoulder lets a tooth bite; judgement
	usualArc     = 45  // mm: at this arc a tooth is as hot as the dose assumes
	arcExp       = 0.4
	rubbing      = 0.3 // of the cutting force that a sharp, clean blade adds to the push
	easyTable    = 22  // N that a hand pushes with for long
	easyChop     = 25
	easyHand     = 18 // on the push, and with a saw held by hand
	overSlowest  = 1.15
	overBrisk    = 1.25
)

// The brisk pace of a practised hand by motion and direction, m/min, and what
// the finish makes of it and of the fastest feed (model section 5).
const (
	briskRip      = 3.6
	briskRipHand  = 3.0
	briskCross    = 2.4
	briskPush     = 2.0
	briskChopping = 1.2
)

var (
	briskFinish = [...]float64{Rough: 1.15, Hidden: 1, Show: 0.85, Fine: 0.65}
	fastShare   = [...]float64{Rough: 0.8, Hidden: 0.8, Show: 0.75, Fine: 0.65}
)

// scorchAtBound is (q/qs) where the chance of a burn is 20 %: 0.25^(1/4).
var scorchAtBound = math.Pow(0.25, 0.25)

// An Engagement is how the rim meets the wood, before anything moves.
type Engagement struct {
	Arc        measure.Length
	Depth      measure.Length // of wood swept by the arc: d of the model
	TeethInCut float64
	ExitDeg    float64 // at the exit face; at the back edge for a chop
	OtherDeg   float64 // at the end edge, or the bottom face of a chop
	PushShare  float64
	HoldShare  float64

	steepest float64 // degrees at which the other face is left where it is left most steeply
}

// Engage works out model section 1. The height, in the plane of the blade, must
// be over 0 and no more than the radius, except for a chop, which has none.
func Engage(j Job, b blade.Blade) Engagement {
	r := b.Radius().Mm()
	pitch := b.Pitch().Mm()
	if j.Motion == Chop {
		width := j.MeetsWidth()
		half := math.Asin(min(1, width.Mm()/(2*r)))
		arc := 2 * r * half
		return Engagement{
			Arc: measure.Length(arc), Depth: width, TeethInCut: arc / pitch,
			ExitDeg: 90 - degrees(half), OtherDeg: 0,
			PushShare: 1, HoldShare: 0, steepest: 0,
		}
	}
	h, t := j.Height.Mm(), j.Thickness.Mm()
	if j.BevelDeg != 0 { // all that follows is in the plane of the tilted blade
		plane := 1 / math.Cos(radians(j.BevelDeg))
		h, t = h*plane, t*plane
	}
	d := min(t, h)
	c := r - h
	out := math.Acos(c / r)
	in := math.Acos(min(1, (c+d)/r))
	arc := r * (out - in)
	mean := (out + in) / 2
	sin, cos := math.Sincos(mean)
	return Engagement{
		Arc: measure.Length(arc), Depth: measure.Length(d), TeethInCut: arc / pitch,
		ExitDeg: degrees(out), OtherDeg: 90 - degrees(mean),
		PushShare: cos, HoldShare: sin,
		// The end edge breaks first where teeth leave it most steeply. By the mean
		// angle thicker stock, whose edge is left at a flatter one, would splinter less.
		steepest: 90 - degrees(in),
	}
}

func degrees(rad float64) float64 { return rad * 180 / math.Pi }
func radians(deg float64) float64 { return deg * math.Pi / 180 }

// Work works out everything that the model says of blade b making the job on a
// saw in a state, gullets included. The material must be one that is modelled.
func Work(j Job, b blade.Blade, d Drive, s State) Figures {
	e := Engage(j, b)
	k := newKernel(&j, &b, d, s, &e)
	w := k.window(&j, &b)
	p := k.paces(w)
	return k.at(&e, w, p, p.Suggested)
}

// WorkAt is Work at a feed of one's own choosing instead of the suggested one.
func WorkAt(j Job, b blade.Blade, d Drive, s State, feed measure.Feed) Figures {
	e := Engage(j, b)
	k := newKernel(&j, &b, d, s, &e)
	w := k.window(&j, &b)
	return k.at(&e, w, k.paces(w), feed)
}

// AllowedLoad is the share of the power limit that a cut may use: less in a
// long rip than in the short time of a crosscut (model section 2).
func AllowedLoad(d Direction) float64 {
	if d.Across() {
		return allowedCross
	}
	return allowedRip
}

// paces works out the three feeds of model section 5. A hand that feels more
// resistance goes slower, whatever that burns: only the advice moves away from
// the slow end.
func (k *kernel) paces(w Window) Paces {
	easy := k.feedAtPush(k.easyPush)
	act := min(easy, measure.Feed(k.brisk), measure.Feed(k.fastShare)*w.Fastest)
	p := Paces{Easy: easy, Acting: max(act, w.slow)}
	if !w.Open() {
		p.Suggested = max(w.Fastest, w.slow)
		return p
	}
	middle := measure.Feed(math.Sqrt(float64(w.Slowest) * float64(w.Fastest)))
	p.Suggested = max(act, min(overSlowest*w.Slowest, middle, measure.Feed(overBrisk*k.brisk)))
	return p
}

// feedAtPush is the feed at which the work pushes back with so many newtons.
func (k *kernel) feedAtPush(newtons float64) measure.Feed {
	return k.feedAtForce(newtons * k.rim / (k.power * k.resist))
}

// A kernel holds what does not change with feed.
type kernel struct {
	chipPerFeed  float64 // mm of mean chip per m/min
	loadPerFeed  float64 // mm of chip load per m/min
	turnPerFeed  float64 // mm a turn per m/min
	power        float64 // W at a mean chip of 1 mm
	powerLimit   float64
	allowed      float64
	heat         float64 // J/cm² at a mean chip of 1 mm
	burnDose     float64 // qs
	exit, other  float64 // splinter at 1 m/min
	exitMatters  bool
	otherMatters bool
	slow         float64 // m/min that a hand still holds steadily
	rim          float64 // m/s
	depth        float64 // mm of wood under the arc
	wobble       float64 // mm that the marks deepen to
	resist       float64 // push at the work over the force at the rim
	resistSharp  float64 // the same, of a sharp and clean blade
	dull, worn   float64 // sharpness factor, and what wear and pitch add to the power
	easyPush     float64 // N that a hand keeps up for long
	brisk        float64 // m/min, for this finish
	fastShare    float64 // of the fastest feed, for this finish
}

func newKernel(j *Job, b *blade.Blade, d Drive, s State, e *Engagement) kernel {
	m := &j.Material
	across := j.Direction.Across()
	dull := s.dullness()
	density := m.Density * moistureWeighs[j.Moisture]
	k := kernel{
		turnPerFeed: 1000 / d.RPM,
		loadPerFeed: 1000 / (d.RPM * float64(b.Teeth)),
		wobble:      s.wobble(),
		powerLimit:  d.PowerLimitW,
		allowed:     AllowedLoad(j.Direction),
		burnDose:    m.ScorchDose,
		slow:        slowHand,
		depth:       e.Depth.Mm(),
		rim:         math.Pi * b.Diameter.Mm() / 1000 * d.RPM / 60,
		resist:      e.PushShare + rubbing*dull*(1+0.1*s.Pitch),
		resistSharp: e.PushShare + rubbing,
		dull:        dull,
		worn:        (0.6 + 0.4*dull) * (1 + 0.1*s.Pitch),
		fastShare:   fastShare[j.Finish],
	}
	k.brisk, k.easyPush = hands(j, d)
	k.brisk *= briskFinish[j.Finish]
	// A tilted blade rides on one wall and leaves one edge of it acute.
	lean := 1 / math.Cos(radians(j.BevelDeg))
	k.chipPerFeed = k.loadPerFeed * e.Depth.Mm() / e.Arc.Mm()
	k.power = b.Kerf.Mm() * e.TeethInCut * k.rim * forceScale * density * k.worn * (1 - 0.012*(b.Rake()-10))
	k.heat = heatScale * density * dull * (1 + 0.25*s.Pitch) *
		(1 + max(0, math.Abs(s.Heel.Mm())-heelUnknown)/heelScale) * lead(j, d) * lean *
		(coolShare + (1-coolShare)*(1-math.Exp(-j.passLength().Mm()/warmLength)))
	if across {
		k.power *= acrossPower
		k.burnDose *= 2
	}
	if j.Motion == Chop {
		k.slow = slowChop
	} else {
		k.heat *= power(e.Arc.Mm()/usualArc, arcExp)
	}

	prone := m.MAlong
	if across {
		prone = m.MAcross
	}
	prone *= moistureSplits[j.Moisture]
	if b.Shear && m.Kind.Sheet() {
		prone *= shearSheet
	}
	common := prone * lean * grindFactor(b, m.Kind) * (1 + 0.01*b.Rake()) * math.Sqrt(dull) *
		math.Sqrt(k.loadPerFeed*scoringTeeth(b)/splinterLoad)
	k.exit = common * (0.4 + 0.6*math.Sin(radians(e.ExitDeg))) * j.Exit.Factor()
	k.other = common * (0.4 + 0.6*math.Sin(radians(e.steepest))) * j.Other.Factor()
	k.exitMatters = j.Exit != Spare
	// The end of a rip is trimmed square afterwards, so it never closes the window.
	k.otherMatters = j.Other != Spare && across
	return k
}

// lead is how quietly the work is led past the plate: G of model section 3.
func lead(j *Job, d Drive) float64 {
	switch {
	case d.HandHeld:
		return leadByHand
	case j.Motion == Push:
		return leadPush
	}
	return 1
}

// hands says how briskly a practised hand feeds a cut of hidden finish, m/min,
// and with how many newtons it pushes for long.
func hands(j *Job, d Drive) (brisk, push float64) {
	switch {
	case j.Motion == Chop:
		return briskChopping, easyChop
	case j.Motion == Push:
		return briskPush, easyHand
	}
	brisk, push = briskRip, easyTable
	if d.HandHeld {
		brisk, push = briskRipHand, easyHand
	}
	if j.Direction.Across() {
		brisk = briskCross
	}
	return brisk, push
}

// passLength is the length along which a plate warms: between two passes from
// both faces it cools.
func (j Job) passLength() measure.Length {
	l := j.WallLength()
	if j.BothFaces {
		l /= 2
	}
	return l
}

// grindFactor is g of model section 4. A one-way bevel is a knife point like
// any other; the model leaves conical teeth out, which only score.
func grindFactor(b *blade.Blade, kind material.Kind) float64 {
	const flat = 2.2
	point := max(0.35, 1.25-0.02*b.Bevel)
	switch b.Grind {
	case blade.FTG, blade.Conical:
		return flat
	case blade.ATBR:
		k := float64(b.GroupSize())
		return ((k-1)*point + flat) / k
	case blade.TCG:
		if kind == material.Laminate {
			return 0.7
		}
		return 1.1
	}
	return point
}

// scoringTeeth is how many bites pass between two teeth that score the same
// wall.
func scoringTeeth(b *blade.Blade) float64 {
	switch b.Grind {
	case blade.FTG, blade.OneWay, blade.Conical:
		return 1
	case blade.ATBR:
		k := float64(b.GroupSize())
		return 2 * k / (k - 1)
	}
	return 2
}

// window works out model section 5.
func (k *kernel) window(j *Job, b *blade.Blade) Window {
	across := j.Direction.Across()
	// Heat falls with chip^-0.8, so the bound on heat is a least chip.
	scorchChip := power(k.heat/(k.burnDose*scorchAtBound), 1/heatExp)
	w := Window{
		Scorch: measure.Feed(scorchChip / k.chipPerFeed),
		Bog:    k.bog(),
		Hand:   fastRip,
	}
	swell := swellRip
	if across {
		w.Hand, swell = fastCross, swellCross
	}
	if j.Form != Through {
		w.Hand = fastCross
	}
	w.Splinter = measure.Feed(square(j.SplinterLimit() / k.worst())) // +Inf where no face matters
	w.Gullet = measure.Feed(gulletFill * b.GulletArea() / (swell * k.depth * k.loadPerFeed))
	w.Wall, w.Shoulder = measure.Feed(math.Inf(1)), measure.Feed(math.Inf(1))
	if limit := j.Finish.WallLimit().Mm(); limit > 0 && k.wobble > limit {
		w.Wall = measure.Feed(-markTurn * math.Log1p(-limit/k.wobble) / k.turnPerFeed)
	}
	if b.Shoulder {
		w.Shoulder = measure.Feed(shoulderLoad / k.loadPerFeed)
	}
	w.slow = measure.Feed(k.slow)

	w.Slowest, w.SlowBy = w.Scorch, ByScorch // whichever hinders first
	if k.slow > float64(w.Slowest) {
		w.Slowest, w.SlowBy = measure.Feed(k.slow), ByHand
	}
	w.Fastest, w.FastBy = w.Hand, ByHand
	for _, l := range [...]struct {
		f measure.Feed
		b Bound
	}{{w.Bog, ByBog}, {w.Splinter, BySplinter}, {w.Wall, ByWall}, {w.Gullet, ByGullet}, {w.Shoulder, ByShoulder}} {
		if l.f < w.Fastest {
			w.Fastest, w.FastBy = l.f, l.b
		}
	}
	return w
}

// at fills in the figures at one feed.
func (k *kernel) at(e *Engagement, w Window, p Paces, feed measure.Feed) Figures {
	f := float64(feed)
	chip := k.chipPerFeed * f
	fig := Figures{
		Arc: e.Arc, TeethInCut: e.TeethInCut,
		PushShare: e.PushShare, HoldShare: e.HoldShare,
		ChipLoad: measure.Length(k.loadPerFeed * f), MeanChip: measure.Length(chip),
		RimSpeed: k.rim, Window: w, Feed: feed, Paces: p, Allowed: k.allowed,
		PowerW:   k.power * k.force(chip),
		WallMark: k.wallMark(f),
		Dose:     k.dose(chip), BurnDose: k.burnDose,
		Exit:  Face{e.ExitDeg, k.exit * math.Sqrt(f), k.exitMatters},
		Other: Face{e.OtherDeg, k.other * math.Sqrt(f), k.otherMatters},
	}
	fig.Load = fig.PowerW / k.powerLimit
	fig.PushN = fig.PowerW / k.rim * k.resist
	fig.Burn = k.burn(fig.Dose)
	a := float64(p.Acting)
	fig.Acting = Acting{p.Acting, k.burn(k.dose(k.chipPerFeed * a)), k.worst() * math.Sqrt(a), k.wallMark(float64(k.actingSharp(w, p)))}
	return fig
}

// actingSharp is the acting feed of the same blade, sharp and clean: a worn edge
// leaves marks no shallower for being fed more slowly, so that its wall costs no
// less.
func (k *kernel) actingSharp(w Window, p Paces) measure.Feed {
	if k.worn == 1 && k.dull == 1 {
		return p.Acting
	}
	sharp := *k
	sharp.power /= k.worn
	sharp.resist = k.resistSharp
	fastest := min(w.Hand, sharp.bog(), w.Splinter*measure.Feed(k.dull), w.Wall, w.Gullet, w.Shoulder)
	return max(w.slow, min(sharp.feedAtPush(k.easyPush), measure.Feed(k.brisk), measure.Feed(k.fastShare)*fastest))
}

// bog is the feed at which the motor or the circuit gives all that it may. Force
// per mm of kerf grows toward thin chips, but not under bluntChip.
func (k *kernel) bog() measure.Feed {
	return k.feedAtForce(k.allowed * k.powerLimit / k.power)
}

// feedAtForce is the inverse of force, in feed.
func (k *kernel) feedAtForce(force float64) measure.Feed {
	chip := power(force, 1/forceExp)
	if chip < bluntChip {
		chip = force / bluntForce
	}
	return measure.Feed(chip / k.chipPerFeed)
}

// dose is the heat that reaches the wall at a mean chip, J/cm².
func (k *kernel) dose(chip float64) float64 { return k.heat * power(chip, -heatExp) }

// burn is the chance of a visible burn under a dose of heat.
func (k *kernel) burn(dose float64) float64 {
	return 1 / (1 + square(square(k.burnDose/dose)))
}

// wallMark is how deep the marks on the wall are at a feed.
func (k *kernel) wallMark(feed float64) measure.Length {
	return measure.Length(k.wobble * (1 - math.Exp(-k.turnPerFeed*feed/markTurn)))
}

// worst is the most splintering, at 1 m/min, of the faces that matter.
func (k *kernel) worst() float64 {
	worst := 0.0
	if k.exitMatters {
		worst = k.exit
	}
	if k.otherMatters {
		worst = max(worst, k.other)
	}
	return worst
}

// force is the force at a mean chip, as a share of that at 1 mm.
func (k *kernel) force(chip float64) float64 {
	if chip < bluntChip {
		return chip * bluntForce
	}
	return power(chip, forceExp)
}

var bluntForce = math.Pow(bluntChip, forceExp-1)

func square(x float64) float64 { return x * x }

// power is x to the y for x over 0, in a third of the time that math.Pow takes
// for the exactness that it adds.
func power(x, y float64) float64 { return math.Exp(y * math.Log(x)) }
