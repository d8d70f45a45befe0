package practice

import (
	"math"

	"corte/core/blade"
	"corte/core/cut"
	"corte/core/fault"
	"corte/core/measure"
	"corte/core/say"
)

// A Why is a small drawing with one handle: what turns the figures that Corte
// gives, to be tried.
type Why struct {
	ID      string
	Title   say.Line
	Handle  say.Line // what is turned
	Notches []Notch  // from one end of it to the other
}

// A Notch is one place of the handle. What is drawn follows from its figures.
type Notch struct {
	Label   say.Line
	Says    say.Line
	Setup   Setup
	Figures cut.Figures
	Fill    float64 // of what a gullet holds without packing; 1 is too full
}

// Whys are all of them, by ID.
func Whys() []string { return []string{"fibres", "grinds", "arc", "gullets", "heat", "line", "backer"} }

// oak is the cut that all of them are drawn with, on the saw of the drills.
func oak() Setup {
	s := Setup{Drive: cut.Drive{RPM: 4000, PowerLimitW: 1300}, Blade: blades[1], Board: 0.5,
		Job: cut.Job{Material: wood("red-oak"), Finish: cut.Show, Thickness: 25, Width: 100, Length: 600, Height: 35, Exit: cut.ZeroClearance}}
	s.State.Sharpness = 1.2
	return s
}

func notch(s Setup, feed measure.Feed, label, says say.Line) Notch {
	f := s.At(feed)
	return Notch{Label: label, Says: says, Setup: s, Figures: f, Fill: float64(feed / f.Window.Gullet)}
}

const shownFeed = measure.Feed(3)

// WhyOf is the drawing of an ID.
func WhyOf(id string) (Why, error) {
	w := Why{ID: id}
	add := func(s Setup, feed measure.Feed, label, says say.Line) {
		w.Notches = append(w.Notches, notch(s, feed, label, says))
	}
	switch id {
	case "fibres":
		w.Title, w.Handle = say.Of("Along the grain and across it"), say.Of("Direction of cut")
		along, across := oak(), oak()
		across.Job.Direction = cut.Crosscut
		across.Job.Width, across.Job.Length = along.Job.Length, along.Job.Width
		add(along, shownFeed, say.Of("Rip"), say.Of("Along the grain a tooth pries fibers apart and lifts long curls. Few teeth with deep gullets carry them out. There is little tear-out, because no fibers are cut short."))
		add(across, shownFeed, say.Of("Crosscut"), say.Of("Across the grain every fiber has to be cut at both sides before it can be lifted out, so points on the left and right score them first. Where nothing holds the last fibers, they bend away and tear out."))
	case "grinds":
		w.Title, w.Handle = say.Of("Grind of the teeth"), say.Of("The grind")
		for _, g := range grindsSeen {
			s := oak()
			s.Job.Direction, s.Job.Width, s.Job.Length = cut.Crosscut, 150, 600
			s.Blade.Grind, s.Blade.Bevel = g, map[blade.Grind]float64{blade.ATB: 15, blade.HighATB: 35, blade.ATBR: 15}[g]
			add(s, shownFeed, g.Words().Upper(), grindMeans[g])
		}
	case "arc":
		w.Title, w.Handle = say.Of("Blade height"), say.Of("The height")
		for _, over := range []measure.Length{4, 8, 13, 20, 28, 38, 50} {
			s := oak()
			s.Job.Height = s.Job.Thickness + over
			f := s.At(shownFeed)
			says := say.Of("Low: the arc in the wood is long (%s), chips are thin, kickback force is higher, and the bottom edge stays cleaner.", say.Set(f.Arc))
			if over > 25 {
				says = say.Of("High: the arc is short (%s), chips are thicker and cooler, the teeth press the board down, and the bottom edge tears out more. More of the blade is exposed.", say.Set(f.Arc))
			} else if over > 6 {
				says = say.Of("Between: %s of the rim is in the wood.", say.Set(f.Arc))
			}
			add(s, shownFeed, say.Of("%s above the stock", say.Set(over)), says)
		}
	case "gullets":
		w.Title, w.Handle = say.Of("Gullet capacity"), say.Of("The feed")
		for _, feed := range []measure.Feed{1, 2, 3, 4, 5, 6} {
			s := oak()
			s.Job.Thickness, s.Job.Height, s.Blade = 74, 78, blade.Blade{Diameter: 254, Bore: 15.875, Kerf: 3.2, Plate: 2.2, Teeth: 80, Grind: blade.ATB, Bevel: 15, Hook: 10}
			at := notch(s, feed, say.Line{}, say.Line{})
			says := say.Of("Each gullet is %.0f percent full, so the chips get out.", 100*at.Fill)
			if at.Fill > 1 {
				says = say.Of("Each gullet gets %.0f percent of what it holds. Chips pack, rub and spill. Fewer teeth have more room.", 100*at.Fill)
			}
			add(s, feed, say.Of("%.0f m/min", float64(feed)), says)
		}
	case "heat":
		w.Title, w.Handle = say.Of("Heat at the cut edge"), say.Of("The feed")
		for _, feed := range []measure.Feed{0.6, 1, 1.5, 2.2, 3.2, 4.5} {
			s := oak()
			f := s.At(feed)
			burns := say.Of("About %.0f of 100 such boards show burn marks.", 100*f.Burn)
			says := say.Of("Fast: each tooth takes a thick chip that carries the heat away. %s", burns)
			if f.Burn > 0.2 {
				says = say.Of("Slow: each tooth rubs off a thin chip that carries no heat away. The heat stays in the wood. %s", burns)
			}
			add(s, feed, say.Of("%.1f m/min", float64(feed)), says)
		}
	case "line":
		w.Title, w.Handle = say.Of("A blade out of line"), say.Of("Out of line, front to rear")
		for _, heel := range []measure.Length{0, 0.05, 0.1, 0.2, 0.3, 0.5} {
			s := oak()
			s.State.Heel = heel
			f := s.At(shownFeed)
			says := say.Of("In line: only tips touch the wood, and the plate runs free in the kerf.")
			if heel > 0.1 {
				says = say.Of("Out of line: the rear teeth rub the cut edge again, heat it, and push the board off its guide. The edge gets %.1f times the heat.", f.Dose/base(s).Dose)
			} else if heel > 0 {
				says = say.Of("As close as a saw can be set. A dial indicator barely shows it.")
			}
			add(s, shownFeed, say.Of("%s out", say.Dial(heel)), says)
		}
	case "backer":
		w.Title, w.Handle = say.Of("What holds the last fibers"), say.Of("Under the cut")
		for _, u := range []cut.Support{cut.Open, cut.Tape, cut.ZeroClearance, cut.Backer, cut.Scored} {
			s := oak()
			s.Job.Direction, s.Job.Width, s.Job.Length, s.Job.Exit = cut.Crosscut, 150, 600, u
			f := s.At(shownFeed)
			says := say.Of("Nothing holds the fibers where the teeth exit. They bend away before they are cut, and break.")
			if u != cut.Open {
				says = say.Of("%s leaves about %.0f %% of the tear-out.", held[u], 100*u.Factor())
			}
			if f.Exit.Splinter <= s.Job.SplinterLimit() {
				says = say.Of("%s That is clean enough to be visible.", says)
			}
			add(s, shownFeed, heldShort[u], says)
		}
	default:
		return Why{}, fault.At("why", "there is no drawing with that name. Go back and choose one")
	}
	return w, nil
}

// base is the same setup without heel.
func base(s Setup) cut.Figures {
	s.State.Heel = 0
	return s.At(shownFeed)
}

var held = map[cut.Support]say.Line{
	cut.Tape: say.Of("Tape over the line"), cut.ZeroClearance: say.Of("Zero-clearance throat plate"), cut.Backer: say.Of("A fresh backer"), cut.Scored: say.Of("A knife line"),
}

var heldShort = map[cut.Support]say.Line{
	cut.Open: say.Of("Nothing"), cut.Tape: say.Of("Tape"), cut.ZeroClearance: say.Of("Insert"), cut.Backer: say.Of("Backer"), cut.Scored: say.Of("Knife line"),
}

// Heat is the dose of a notch over the one that half of all boards burn at.
func (s Notch) Heat() float64 { return s.Figures.Dose / s.Figures.BurnDose }

// Splinter is that of the exit face over what is fit to be seen.
func (s Notch) Splinter() float64 {
	return math.Min(9, s.Figures.Exit.Splinter/s.Setup.Job.SplinterLimit())
}
