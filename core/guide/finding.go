package guide

import (
	"slices"

	"corte/core/cut"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/saw"
	"corte/core/say"
	"corte/core/truing"
	"corte/core/verdict"
)

// A Rule is one that a cut itself can break on a saw, whatever blade is on it.
type Rule string

const (
	RuleHeel    Rule = "heel"     // the blade is not parallel to the slot
	RuleFence   Rule = "fence"    // the fence is not parallel to the slot
	RuleSquare  Rule = "square"   // the blade is not square to the table
	RuleGauge   Rule = "gauge"    // the gauge is not square to the blade
	RuleRunOut  Rule = "runout"   // the plate wobbles, whatever blade is on
	RuleReach   Rule = "reach"    // the fence does not go so far
	RuleThin    Rule = "thin"     // thin metal, which creeps under the fence and grabs
	RuleStrip   Rule = "strip"    // too narrow to carry a hand-held saw's shoe
	RuleTrim    Rule = "trim"     // less than a kerf off an edge, by hand
	RuleSag     Rule = "sag"      // a sheet that hangs between its supports
	RuleShort   Rule = "short"    // too short or too wide for the fence to guide
	RuleClamp   Rule = "clamp"    // nothing to clamp it by, under a hand-held saw
	RuleTrapped Rule = "trapped"  // a bevel that wedges the piece under the blade
	RuleTilt    Rule = "tilt"     // nobody has said which way the blade leans
	RuleFires   Rule = "fires"    // the blade brake would take it for a hand
	RuleKnife   Rule = "knife"    // no riving knife on record
	RuleVeneer  Rule = "veneer"   // too thin for any saw
	RuleSignOff Rule = "sign-off" // who makes it may not make it alone
)

// A Finding is what stands against a cut on a saw before a blade is chosen:
// stop names the rule and the way out, caution is something to put right or to
// know. Ask is the question whose yes lifts a stop, where one can.
type Finding struct {
	Rule    Rule
	Verdict verdict.Verdict
	Why     say.Line // a sentence
	WayOut  say.Line // a sentence
	Ask     say.Line // nothing where nothing lifts it
}

// HandsOff is how near to a blade no hand comes (craft section 5).
const HandsOff = measure.Length(150)

// Sizes under which work is not led along a fence or by hand (craft section 5),
// and the thinnest that teeth part at all.
const (
	shortOnFence  = measure.Length(300)
	pushUnder     = measure.Length(60)  // to the fence: a push block from end to end
	stripUnder    = measure.Length(20)  // to the fence: the strip comes off as the offcut
	smallPiece    = measure.Length(150) // shorter than a hand can hold safely
	longStock     = measure.Length(1500)
	thinnestSawn  = measure.Length(1)
	leastClamping = measure.Length(300) // of a half, to hold it down beside a hand-held saw
)

// AlongFence reports whether the fence guides a job on a saw: rips and sheets
// on a table saw, but what rides on its carriage.
func AlongFence(j cut.Job, s saw.Saw) bool {
	return s.Kind == saw.Table && j.Direction != cut.Crosscut && !j.Carriage
}

// pastFence reports whether the piece is wider than the fence of a table saw goes.
func pastFence(j cut.Job, s saw.Saw) bool {
	return AlongFence(j, s) && s.FenceReach > 0 && j.Width > s.FenceReach
}

// tooShort reports whether the fence may not guide a piece: shorter than
// 300 mm, or shorter than it is wide.
func tooShort(j cut.Job) bool { return j.Length < shortOnFence || j.Length < j.Width }

// FenceSide is the side of the blade that the fence stands on. A tilted blade
// leans away from it, so that the piece is never wedged under the blade. It is
// unknown where the cut has no fence, or where nobody has said how a tilted
// blade leans.
func FenceSide(j cut.Job, s saw.Saw) cut.Side {
	switch {
	case !AlongFence(j, s):
		return cut.UnknownSide
	case j.BevelDeg > 0:
		return s.TiltSide.Opposite()
	case j.FenceSide != cut.UnknownSide:
		return j.FenceSide
	}
	return cut.Right
}

// measured lists what the last readings of a saw mean for a job on it, in the
// words that they are judged by where they are taken.
func measured(j cut.Job, s saw.Saw, a truing.Alignment, t truing.Tolerances) (out []Finding) {
	add := func(r Rule, is truing.Judgement) {
		if is.Verdict != verdict.Clear {
			out = append(out, Finding{Rule: r, Verdict: is.Verdict, Why: is.Says, WayOut: is.Do})
		}
	}
	looked := j.Finish > cut.Rough
	if s.Kind == saw.Table && a.Heel != nil {
		is := t.Heel(*a.Heel)
		if !AlongFence(j, s) {
			is.Verdict = min(is.Verdict, verdict.Caution) // nothing is pinched between blade and fence
		}
		add(RuleHeel, is)
	}
	if AlongFence(j, s) && a.Fence != nil {
		add(RuleFence, t.Fence(*a.Fence))
	}
	if looked && j.BevelDeg == 0 && a.Tilt != nil {
		add(RuleSquare, t.Tilt(*a.Tilt))
	}
	if looked && j.Direction == cut.Crosscut && a.Gauge != nil {
		add(RuleGauge, t.Gauge(*a.Gauge))
	}
	if looked && a.RunOut != nil {
		add(RuleRunOut, t.RunOut(*a.RunOut))
	}
	return out
}

// Standing lists what the last readings of a saw mean for the cuts that it makes:
// what is said where no cut is known yet.
func Standing(s saw.Saw, a truing.Alignment, t truing.Tolerances) []Finding {
	along := cut.Job{Direction: cut.Rip, Finish: cut.Hidden}
	across := cut.Job{Direction: cut.Crosscut, Finish: cut.Hidden}
	out := measured(along, s, a, t)
	for _, f := range measured(across, s, a, t) {
		if f.Rule == RuleGauge {
			out = append(out, f)
		}
	}
	slices.SortStableFunc(out, func(a, b Finding) int { return int(b.Verdict) - int(a.Verdict) })
	return out
}

// Findings lists what stands against a job on a saw that was last measured so,
// stops first.
func Findings(j cut.Job, s saw.Saw, a truing.Alignment, t truing.Tolerances) []Finding {
	var stops, minds []Finding
	add := func(rule Rule, v verdict.Verdict, wayOut say.Line, why string, with ...any) *Finding { // an adder
		f := Finding{Rule: rule, Verdict: v, Why: say.Of(why, with...), WayOut: wayOut}
		list := &minds
		if v == verdict.Stop {
			list = &stops
		}
		*list = append(*list, f)
		return &(*list)[len(*list)-1]
	}
	for _, f := range measured(j, s, a, t) {
		if f.Verdict == verdict.Stop {
			stops = append(stops, f)
		} else {
			minds = append(minds, f)
		}
	}
	if AlongFence(j, s) && tooShort(j) {
		why := say.Of("shorter than it is wide, it turns and gets thrown")
		if j.Length >= j.Width {
			why = say.Of("under %s nothing keeps it straight, and your hands come too close", say.Either{Mm: say.Set(shortOnFence), Inch: say.Set(measure.Inches(12))})
		}
		add(RuleShort, verdict.Stop, say.Of("Cut a longer blank and cut it to length afterward, or clamp it to a crosscut sled."),
			"The piece on the fence would be %s long and %s wide: %s.", say.Set(j.Length), say.Set(j.Width), why)
	}
	if pastFence(j, s) {
		add(RuleReach, verdict.Caution, say.Of("Run the other side of the stock along the fence, or cut it along a clamped straightedge with a hand-held saw. Never freehand."),
			"This saw’s fence reaches %s, and the piece on it would be %s wide.", say.Set(s.FenceReach), say.Set(j.Width))
	}
	thinMetal(j, s, add)
	byHandFindings(j, s, add)
	if s.Kind.HandHeld() && clampable(j) < leastClamping {
		add(RuleClamp, verdict.Stop, say.Of("Cut it from a longer board that is clamped, clamp it to one, or cut it on a saw with a table."),
			"%s is too short to clamp and support beside a hand-held saw. The blade would take it along.", say.Set(clampable(j)))
	}
	if AlongFence(j, s) && j.BevelDeg > 0 {
		switch {
		case s.TiltSide == cut.UnknownSide:
			add(RuleTilt, verdict.Caution, say.Of("Check which way the blade tilts, put the fence on the other side, and record it for this saw."),
				"The tilt direction of this saw isn't recorded. If the blade tilts toward the fence, it traps the piece and throws it.")
		case j.FenceSide == s.TiltSide:
			add(RuleTrapped, verdict.Stop, say.Of("Put the fence to the %s of the blade.", s.TiltSide.Opposite()),
				"The blade tilts to the %s, over a fence on that side. It would trap the piece and throw it.", s.TiltSide)
		}
	}
	if why := fires(j); s.Brake != nil && !why.Zero() && !j.BrakeOff {
		add(RuleFires, verdict.Stop, say.Of("Bypass the brake as the saw's manual says, or cut it on a saw without one."),
			"This saw has a touch brake, and %s. It would fire and ruin blade and cartridge.", why).Ask = say.Of("Is the brake bypassed, as the manual says?")
	}
	if s.Kind == saw.Table && s.Knife == 0 && j.Form == cut.Through && !j.BothFaces {
		add(RuleKnife, verdict.Caution, say.Of("Fit a riving knife thicker than the plate and thinner than the kerf, and record its thickness for this saw."),
			"No riving knife is recorded for this saw, and nothing else keeps the kerf from closing on the blade.")
	}
	if j.Material.Kind.Modelled() && j.Thickness < thinnestSawn {
		add(RuleVeneer, verdict.Caution, say.Of("Cut it with a knife along a straightedge."), "%s is veneer. A saw tears it.", say.Set(j.Thickness))
	}
	return append(stops, minds...)
}

// A Duty is a kind of cut that somebody may be signed off for.
type Duty string

const (
	Rips      Duty = "rip"
	Crosscuts Duty = "crosscut"
	Sheets    Duty = "sheet"
	Grooves   Duty = "groove" // what does not go through, whatever way it runs
)

var dutyNames = map[Duty]string{Rips: "rips", Crosscuts: "crosscuts", Sheets: "sheets", Grooves: "grooves"}

// DutyOf is the kind of cut that a job is.
func DutyOf(j cut.Job) Duty {
	if j.Form != cut.Through {
		return Grooves
	}
	return Duty(j.Direction.String())
}

// Duties are the kinds of cut that a saw makes.
func Duties(s saw.Saw) []Duty {
	if s.Kind == saw.Miter {
		return []Duty{Crosscuts, Sheets} // it neither rips nor stops at a depth
	}
	return []Duty{Rips, Crosscuts, Sheets, Grooves}
}

// NotSignedOff is what stands against a job that whoever makes it is not signed
// off for on a saw, by its name; halt where the shop lets nobody make it alone.
// ok is false where somebody stands by.
func NotSignedOff(j cut.Job, saw string, halt bool) (f Finding, ok bool) {
	if j.StoodBy {
		return Finding{}, false
	}
	f = Finding{Rule: RuleSignOff, Verdict: verdict.Caution, Why: say.Of("You are not signed off for %s on %s.", say.Word(dutyNames[DutyOf(j)]), say.Word(saw)),
		WayOut: say.Of("Have a person who is signed off stand by until an owner signs you off.")}
	if halt {
		f.Verdict, f.Ask = verdict.Stop, say.Of("Is a person who is signed off for this standing by?")
	}
	return f, true
}

// clampable is the longer of what can be held down on either side of a cut by
// a hand-held saw.
func clampable(j cut.Job) measure.Length {
	if j.Direction == cut.Crosscut && j.Piece > 0 {
		return max(j.Piece, j.Length-j.Piece)
	}
	return max(j.Length, j.Width)
}

// fires says why a brake that senses touch would take the work for a hand, or
// nothing.
func fires(j cut.Job) say.Line {
	switch k := j.Material.Kind; {
	case k == material.SoftMetal || k == material.Steel:
		return say.Of("%s conducts electricity like a hand", j.Material)
	case k == material.Nailed:
		return say.Of("nails conduct electricity like a hand")
	case j.Material.Foil:
		return say.Of("its foil conducts electricity like a hand")
	case j.Moisture == cut.Wet:
		return say.Of("wet stock conducts electricity like a hand")
	}
	return say.Line{}
}
