package care

import (
	"corte/core/measure"
	"corte/core/say"
)

// A Survey is what was seen on a blade after a lost tip or a hit, looked over
// in order (craft section 10). What is zero was not looked at, or not found.
type Survey struct {
	After   string // lost-tip, hit or doubt
	Cleaned bool   // pitch hides cracks and braze, so it is cleaned first
	Missing int    // tips
	Chipped int
	Loose   int
	Seat    string // of a lost tip: ground or saw-marks
	Braze   string // at the sides of the tips: even or squeezed
	Rest    string // the other teeth: sharp or worn
	Pitch   string // none, light or caked
	Blue    *bool  // the plate was hot
	Crack   string // none, gullet or slot
	Bent    *bool
	Beside  string // pitch of the teeth beside the place: even or shifted
}

// A Subject is what is known of the blade that is surveyed, for whether it is
// worth mending.
type Subject struct {
	Teeth     int
	Price     float64 // of a new one, in the shop's own money; 0 if not known
	Sharpen   float64 // what a sharpening costs; 0 if not known
	Left      int     // sharpenings
	Years     float64 // since its log began; 0 if it has none
	Throwaway bool
}

// Worth says whether a blade is worth mending.
type Worth string

const (
	WorthYes Worth = "yes"
	WorthNo  Worth = "no"
	WorthAsk Worth = "ask" // nobody can say from what is known
)

// A Report is what a survey comes to.
type Report struct {
	Fault    Fault      // the gravest that was found
	Found    []say.Line // what was found, and what it means
	ToDoctor []say.Line // what to tell and ask the saw doctor
	Worth    Worth
	WorthWhy say.Line
}

func yes(b *bool) bool { return b != nil && *b }

// Fault is the gravest fault that a survey shows.
func (s Survey) Fault() Fault {
	switch {
	case s.Crack == "gullet" || s.Crack == "slot":
		return Cracked
	case s.Missing > 0:
		return Missing
	case s.Loose > 0:
		return Loose
	case yes(s.Bent) || s.Beside == "shifted":
		return Bent
	case s.Chipped > 0:
		return Chipped
	case yes(s.Blue):
		return Blue
	}
	return Sound
}

// How deep a seat is ground back before a tip is brazed on (craft section 10),
// and what a new tip costs beside a sharpening; the second is judgement.
const (
	seatFrom     = measure.Length(0.13)
	seatTo       = measure.Length(0.18)
	tipsOfASharp = 0.25 // of a sharpening, a tip
	worthShare   = 0.5  // of a new blade's price
	oldShare     = 0.35 // the same for a plate that has run for oldYears
	oldYears     = 8
)

// Report says what a survey of a blade comes to. It does not judge what was not
// looked at: it asks for it.
func (s Survey) Report(of Subject) Report {
	r := Report{Fault: s.Fault()}
	found := func(form string, with ...any) { r.Found = append(r.Found, say.Of(form, with...)) }
	tell := func(form string, with ...any) { r.ToDoctor = append(r.ToDoctor, say.Of(form, with...)) }
	if !s.Cleaned {
		found("It wasn't cleaned first. Resin hides cracks and braze, so nothing here is certain until it is.")
	}
	if s.Missing > 0 {
		found("%s of %d missing.", tips(s.Missing), of.Teeth)
		tell("Please replace %s, matching the width and height of the rest.", tips(s.Missing))
	}
	if s.Loose > 0 {
		found("%s loose. A tip that moves under a thumbnail comes off at the next hard knot.", tips(s.Loose))
		tell("Please remove %s, clean the seat, and braze again.", looseTips(s.Loose))
	}
	if s.Chipped > 0 {
		found("%s chipped. Each leaves one deep mark per turn.", tips(s.Chipped))
		tell("%s chipped. Please grind out if shallow, otherwise replace.", tips(s.Chipped))
	}
	switch s.Seat {
	case "saw-marks":
		found("There are saw marks across the seat. It wasn't ground back by %s to %s before brazing, so the tip never had a clean seat.", say.Thin(seatFrom), say.Thin(seatTo))
		tell("The seats were not ground before brazing (there are saw marks). Please check all of them, not only this one.")
	case "ground":
		found("The seat is ground clean. The tip was well seated and something hit it.")
	}
	if s.Braze == "squeezed" {
		found("Braze sticks out at the sides. The tip was pushed in too far, so little was left to hold it.")
		tell("Braze is squeezed out at the sides of tips: please check how far they sit in.")
	}
	long := false
	if s.Rest == "worn" {
		found("The rest is worn evenly.")
		if s.Missing > 0 {
			long = true
			found("So it ran on for a good while after the first tip came off.")
		}
	}
	switch s.Pitch {
	case "caked":
		found("Heavy resin buildup.")
		long = long || s.Missing > 0
	case "light":
		found("A little resin.")
	}
	if yes(s.Blue) {
		found("The plate is blue. It got hot and may have lost its tension.")
		tell("The plate has been hot. Please check tension and flatness before you do paid work.")
	}
	switch s.Crack {
	case "gullet", "slot":
		from := say.Of("gullet")
		if s.Crack == "slot" {
			from = say.Of("slot")
		}
		found("A crack runs from a %s. Don't use this plate unless a sharpening service clears it.", from)
		tell("Crack from a %s. Can it be stopped? If not, please do nothing more.", from)
	}
	if yes(s.Bent) {
		found("The plate is bent.")
		tell("The plate is bent. Can it be flattened?")
	}
	if s.Beside == "shifted" {
		found("The spacing of the teeth beside it is off. The hit bent their shoulders.")
		tell("The spacing of the teeth beside it is off. Is the plate bent at the shoulder?")
	}
	if long {
		tell("It ran on after the damage. Please check all tips and the plate's run-out.")
	}
	if r.Fault == Sound {
		found("No damage found where you looked.")
	}
	for _, q := range s.open() {
		found("Not inspected: %s.", q)
	}
	r.worth(s, of)
	return r
}

// open lists what was left out of a survey that decides about running it.
func (s Survey) open() []say.Line {
	var out []say.Line
	if s.Crack == "" {
		out = append(out, say.Of("cracks at gullets and slots"))
	}
	if s.Blue == nil {
		out = append(out, say.Of("blue on the plate"))
	}
	if s.Bent == nil {
		out = append(out, say.Of("whether the plate is flat"))
	}
	return out
}

// worth weighs what mending costs against a new blade, by its price, its age
// and the sharpenings that are left in it.
func (r *Report) worth(s Survey, of Subject) {
	tips := s.Missing + s.Loose + s.Chipped
	switch {
	case r.Fault == Sound:
		r.Worth, r.WorthWhy = WorthYes, say.Of("Nothing to repair.")
	case r.Fault == Cracked:
		r.Worth, r.WorthWhy = WorthNo, say.Of("A cracked plate isn't worth repairing at any price. Only a sharpening service can say otherwise.")
	case of.Throwaway:
		r.Worth, r.WorthWhy = WorthNo, say.Of("It is a disposable blade.")
	case of.Left == 0:
		r.Worth, r.WorthWhy = WorthNo, say.Of("No sharpening is left in it.")
	case of.Price == 0 || of.Sharpen == 0:
		r.Worth, r.WorthWhy = WorthAsk, say.Of("Record what it cost and what a sharpening costs to see whether it pays. Otherwise ask the sharpening service first.")
	default:
		cost, share := of.Sharpen*(1+tipsOfASharp*float64(tips)), worthShare
		if of.Years >= oldYears {
			share = oldShare
		}
		r.Worth = WorthYes
		if cost > share*of.Price {
			r.Worth = WorthNo
		}
		r.WorthWhy = say.Of("Repair costs about %.0f and a new one %.0f; %s left in it, %s.", cost, of.Price, areLeft(of.Left), aged(of.Years))
	}
	if r.Worth == WorthYes && (yes(s.Blue) || yes(s.Bent)) {
		r.Worth, r.WorthWhy = WorthAsk, say.Of("Only if the plate can be made flat again. Ask before you pay. %s", r.WorthWhy)
	}
}

func areLeft(n int) say.Line {
	if n == 1 {
		return say.Of("1 sharpening is")
	}
	return say.Of("%d sharpenings are", n)
}

// aged says how long a blade has been known.
func aged(years float64) say.Line {
	switch {
	case years < 1:
		return say.Of("and by its log it is less than a year old")
	case years < 2:
		return say.Of("and it has been here for a year")
	}
	return say.Of("and it has been here for %.0f years", years)
}

func tips(n int) say.Line {
	if n == 1 {
		return say.Of("1 tip")
	}
	return say.Of("%d tips", n)
}

func looseTips(n int) say.Line {
	if n == 1 {
		return say.Of("1 loose tip")
	}
	return say.Of("%d loose tips", n)
}
