package care

import (
	"math"
	"time"

	"corte/core/blade"
	"corte/core/say"
	"corte/core/word"
)

// A Date is when something is expected to be due, at the shop's own pace, and
// the range that holds two of three. The zero Date is not known.
type Date struct {
	Early, Likely, Late time.Time
}

// Known reports whether there was enough to go by.
func (d Date) Known() bool { return !d.Likely.IsZero() }

// Urgency is how soon something is due.
type Urgency uint8

const (
	Fine Urgency = iota
	Soon         // within a fortnight, or most of the way there
	Due
)

//corte:enum Urgency
var urgencyNames = word.Names{Kind: "urgency", Of: []string{"fine", "soon", "due"}}

// A Health is what a blade wants, and when.
type Health struct {
	Wash, Sharpen         Urgency
	WashAt, SharpenAt     Date
	LeftM, LeftLow, LeftH float64 // metres of the usual work until it is dull; 0 if not known
}

// Worst is the more urgent of the two.
func (h Health) Worst() Urgency { return max(h.Wash, h.Sharpen) }

const (
	soonDays  = 14
	soonShare = 0.8
	// leastCuts and leastDays make a pace; from less nobody can tell one.
	leastCuts = 3
	leastDays = 3.0
	horizon   = 3 * 365 * 24 * time.Hour // further than this no date means anything
)

// HealthOf says what a blade wants at a time, and when it will want what it
// does not want yet if the shop goes on as it has.
func HealthOf(c Condition, g blade.Grind, now time.Time) Health {
	var h Health
	toWash := pitchM2 * math.Exp(c.Pitch.Shift) * -math.Log(1-WashAt/3)
	gum := c.GumM2() / toWash
	h.WashAt = forecast(gum, c.ResinM2/toWash, c.Pitch.SD(), c.CutsWashed, c.WashFrom, now)
	h.Wash = urgency(gum, h.WashAt, now)
	worn := c.WearShare(g)
	h.SharpenAt = forecast(worn, c.WearM2/c.LifeM2(g), c.Life.SD(), c.CutsSharp, c.SharpFrom, now)
	h.Sharpen = urgency(worn, h.SharpenAt, now)
	if c.WearM2 > 0 {
		perM2 := c.MetresSharp / c.WearM2
		low, high := c.LifeRange(g)
		left := func(life float64) float64 { return max(0, (life-c.EdgeM2())*perM2) }
		h.LeftM, h.LeftLow, h.LeftH = left(c.LifeM2(g)), left(low), left(high)
	}
	if c.NotBack || c.DullSaid {
		h.Sharpen = Due
	}
	return h
}

func urgency(share float64, at Date, now time.Time) Urgency {
	switch {
	case share >= 1:
		return Due
	case share >= soonShare, at.Known() && at.Likely.Sub(now) < soonDays*24*time.Hour:
		return Soon
	}
	return Fine
}

// forecast is when a share reaches 1 at the pace of what was cut of it since a
// time. How well the pace is known grows with the number of cuts.
func forecast(share, cut, sd float64, cuts int, since, now time.Time) Date {
	days := now.Sub(since).Hours() / 24
	if cuts < leastCuts || days < leastDays || cut <= 0 || since.IsZero() {
		return Date{}
	}
	spread := math.Hypot(sd, 1/math.Sqrt(float64(cuts)))
	at := func(limit float64) time.Time {
		left := max(0, limit-share) / cut * days * 24 * float64(time.Hour)
		return now.Add(time.Duration(min(left, float64(horizon))))
	}
	if at(1).Sub(now) >= horizon {
		return Date{}
	}
	return Date{at(math.Exp(-spread)), at(1), at(math.Exp(spread))}
}

// A Step of the way from a complaint to a remedy, cheapest and safest first
// (craft section 9).
type Step struct {
	ID   string // wash, answer, look, align or sharpen
	Text string
	Done bool
}

// Path is the way to go with a blade that cuts badly, or nil where nobody
// complains. aligned is whether its saw has been measured true since.
func Path(c Condition, g blade.Grind, aligned bool) []Step {
	if !c.Complained && !c.NotBack {
		return nil
	}
	washed := c.Asked || c.NotBack
	return []Step{
		{"wash", "Clean it first: a dirty blade cuts like a dull one", washed},
		{"answer", "Make a cut and record whether it helped", c.NotBack},
		{"look", "Look for broken, chipped or loose teeth", c.Looked},
		{"align", "Check the alignment: blade, fence and run-out", aligned},
		{"sharpen", "Only then send it out for sharpening", false},
	}
}

// Good carbide takes about ten sharpenings, small tips none (craft section 9).
const (
	usualSharpenings = 10
	perSharpening    = 0.2 // mm of carbide taken off the face, of a usual grade; our judgement
	leastCarbide     = 1.0 // mm that a tip needs to hold
)

// gradeTakes is how much more or less than usual a sharpening takes off a
// grade: a tough edge breaks back further, a hard one hardly; judgement.
var gradeTakes = [...]float64{blade.UnknownCarbide: 1, blade.ToughCarbide: 1.3, blade.UsualCarbide: 1, blade.HardCarbide: 0.8}

// SharpeningsLeft is how many more a blade takes, and where that is from.
// carbide is what is left on the face of a tip, mm, 0 if not measured; before
// counts sharpenings from before its log began.
func SharpeningsLeft(c Condition, b blade.Blade, carbide float64, before int) (left int, from say.Line) {
	takes := gradeTakes[b.Carbide]
	switch {
	case b.Throwaway:
		return 0, say.Of("it is disposable")
	case c.SaidLeft:
		return c.Left, say.Of("from the sharpening service")
	case carbide > 0:
		return max(0, int((carbide-leastCarbide)/(perSharpening*takes)+1e-9)), say.Of("from the measured carbide")
	}
	return max(0, int(usualSharpenings/takes+0.5)-c.Sharpenings-before), say.Of("good carbide can be sharpened about ten times")
}
