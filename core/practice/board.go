package practice

import (
	"math/rand/v2"
	"slices"
	"time"

	"corte/core/blade"
	"corte/core/cut"
	"corte/core/measure"
	"corte/core/say"
)

// The blades that boards are made with: usual ones of a table saw of 254 mm.
var blades = []blade.Blade{
	{Diameter: 254, Bore: 15.875, Kerf: 3.2, Plate: 2.2, Teeth: 24, Grind: blade.FTG, Hook: 20},
	{Diameter: 254, Bore: 15.875, Kerf: 3.0, Plate: 2.0, Teeth: 40, Grind: blade.ATB, Bevel: 15, Hook: 15},
	{Diameter: 254, Bore: 15.875, Kerf: 2.8, Plate: 1.8, Teeth: 60, Grind: blade.ATB, Bevel: 20, Hook: 10},
	{Diameter: 254, Bore: 15.875, Kerf: 2.4, Plate: 1.8, Teeth: 24, Grind: blade.ATB, Bevel: 15, Hook: 18},
}

// carried are those of a hand-held saw of 184 mm.
var carried = []blade.Blade{
	{Diameter: 184, Bore: 15.875, Kerf: 1.8, Plate: 1.2, Teeth: 24, Grind: blade.ATB, Bevel: 15, Hook: 18},
	{Diameter: 184, Bore: 15.875, Kerf: 1.8, Plate: 1.2, Teeth: 40, Grind: blade.ATB, Bevel: 15, Hook: 15},
}

// woods are what boards are made of.
var woods = []string{"white-pine", "yellow-pine", "poplar", "cherry", "red-oak", "hard-maple", "walnut"}

// leastRoom is that of the feed range of a board that is given to somebody, by
// level: there is something to find.
var leastRoom = [...]float64{2.2, 1.4, 1.25}

// Board is the board of a skill, a number and a level, with a blade that suits it:
// the same for the same. On a table saw of 1.3 kW the work is pushed; a hand-held
// saw of 1.2 kW is led over it. Sharp and clean at the easiest; worn and pitchy
// after that; with a heel at the hardest. There is a feed at which the cut goes
// well.
func Board(skill Skill, number uint64, level int) (Setup, error) {
	if skill.Drill() != FeedIt || skill.Words().Zero() {
		return Setup{}, errSkill(skill)
	}
	if level < easiest || level > hardest {
		return Setup{}, errLevel
	}
	r := rand.New(rand.NewPCG(number, 0x636f727465+uint64(level)))
	for {
		s := Setup{Drive: cut.Drive{RPM: 4000, PowerLimitW: 1300}, Blade: pick(r, blades...), Board: 0.1 + 0.8*r.Float64()}
		s.Job = cut.Job{Material: wood(pick(r, woods...)), Finish: cut.Hidden, Thickness: measure.Length(16 + 3*r.IntN(9)), Width: measure.Length(60 + 20*r.IntN(5)), Length: measure.Length(400 + 50*r.IntN(9)), Exit: cut.ZeroClearance}
		if r.IntN(3) == 0 {
			s.Job.Direction, s.Job.Width = cut.Crosscut, measure.Length(150+25*r.IntN(7))
		}
		s.Job.Height = s.Job.Thickness + measure.Length(6+2*r.IntN(4))
		if skill == "feed/hand-held" {
			s.Drive = cut.Drive{RPM: 5200, PowerLimitW: 1200, HandHeld: true}
			s.Blade, s.Job.Exit = pick(r, carried...), cut.Open
			s.Job.Height = s.Job.Thickness + 4
		}
		s.State.Sharpness = 1
		if level > easiest {
			s.State.Sharpness = pick(r, 1, 1.2, 1.5, 2)
			s.State.Pitch = pick[float64](r, 0, 0, 1, 2)
		}
		if level == hardest {
			s.State.Heel = pick[measure.Length](r, 0.1, 0.15, 0.2)
		}
		// This board, of all of its wood, is one that can come out clean.
		if f := s.Figures(); f.Window.Room() >= leastRoom[level-1] && newBoard(s).step(f.Feed).Scorch < 1 {
			return s, nil
		}
	}
}

// Reach is how far hands take the work, or the saw, before they must be set anew.
const Reach = measure.Length(420)

// A Sample is how a setup is at a feed: what is heard and seen of it at once.
type Sample struct {
	Feed     measure.Feed
	Load     float64
	Turns    float64
	Scorch   float64 // over what this board bears, as in a Step
	Splinter float64
}

// Samples are those from the slowest feed to one that no hand comes to, evenly in
// their ratio.
func (s Setup) Samples() []Sample {
	const n, ratio = 40, 1.13
	out := make([]Sample, n)
	k, feed := newBoard(s), measure.Feed(0.12)
	for i := range out {
		st := k.step(feed)
		out[i] = Sample{feed, st.Load, s.Turns(st.Load), st.Scorch, st.Splinter}
		feed *= ratio
	}
	return out
}

// Said is what somebody who is given the board is told of it.
func (s Setup) Said() say.Line {
	edge := say.Of("sharp")
	switch {
	case s.State.Sharpness >= 2:
		edge = say.Of("nearly dull")
	case s.State.Sharpness >= 1.5:
		edge = say.Of("half worn")
	case s.State.Sharpness > 1:
		edge = say.Of("no longer new")
	}
	pitch := say.Of("clean")
	switch {
	case s.State.Pitch >= 2:
		pitch = say.Of("covered with resin")
	case s.State.Pitch > 0:
		pitch = say.Of("a little resin")
	}
	wood := say.Word(s.Job.Material.Name)
	if s.State.Heel > 0 {
		edge = say.Of("%s, its rear %s out of line", edge, say.Dial(s.State.Heel))
	}
	if s.Drive.HandHeld {
		long := s.Job.FeedLength()
		return say.Of("Lead a hand-held saw through %s, %s thick, over %s, with %d teeth, %s; the blade is %s and %s.", wood, s.Job.Thickness, long, s.Blade.Teeth, s.Blade.Grind.Words(), pitch, edge)
	}
	if s.Job.Direction.Across() {
		return say.Of("Crosscut %s, %s thick and %s wide, with %d teeth, %s; the blade is %s and %s.", wood, s.Job.Thickness, s.Job.Width, s.Blade.Teeth, s.Blade.Grind.Words(), pitch, edge)
	}
	return say.Of("Rip %s, %s thick and %s long, with %d teeth, %s; the blade is %s and %s.", wood, s.Job.Thickness, s.Job.Length, s.Blade.Teeth, s.Blade.Grind.Words(), pitch, edge)
}

// Says is what there is to be seen on a wall, where, and what made it so. Even is
// the wall of the same board at a feed that was steady and right.
func (w Wall) Says(s Setup, even Wall) (lines []say.Line) {
	window := s.Figures().Window
	if w.Back {
		lines = append(lines, say.Of("You pulled the board back against the turning teeth. At a real saw that kicks back. Push on, or hold it still and switch off."))
	}
	if w.Stalled {
		lines = append(lines, say.Of("At %s the motor stalled: you fed faster than its power allows.", at(len(w.Steps))))
	}
	if i, stood := w.stood(); stood >= stoodLong {
		lines = append(lines, say.Of("At %s it stopped for %.1f s. Change hands so that one always keeps it moving, or accept the mark.", at(i), stood.Seconds()))
	}
	if from, to, n := w.where(func(st Step) bool { return st.Scorch > 1 }); n > 0 {
		why := say.Of("though you fed fast enough: this board burns sooner than most")
		if slices.ContainsFunc(w.Steps[from:to], func(st Step) bool { return st.Feed < window.Slowest }) {
			why = say.Of("where you fed so slowly that the teeth rubbed")
		}
		lines = append(lines, say.Of("Burn marks for %s, from %s on, %s.", at(n), at(from), why))
	}
	if from, _, n := w.where(func(st Step) bool { return st.Splinter > 1 }); n > 0 {
		lines = append(lines, say.Of("Tear-out for %s, from %s on, where each tooth took too thick a chip.", at(n), at(from)))
	}
	if from, _, n := w.where(func(st Step) bool { return st.Mark > 1 }); n > 0 {
		lines = append(lines, say.Of("Deep tooth marks for %s, from %s on, where you fed too fast.", at(n), at(from)))
	}
	switch {
	case w.Clean():
		lines = append(lines, say.Of("Clean from end to end."))
	case !w.Whole && !w.Stalled:
		lines = append(lines, say.Of("You stopped pushing at %s. Push until the board is past the blade.", at(len(w.Steps))))
	case even.Clean() && !w.Back:
		lines = append(lines, say.Of("At one steady feed rate in the middle of the range this board would be clean."))
	}
	return lines
}

// stoodLong is from when somebody sees that the work stands; judgement.
const stoodLong = 250 * time.Millisecond

// stood is where the work was longest within a millimetre, and for how long.
func (w Wall) stood() (mm int, long time.Duration) {
	for i, st := range w.Steps {
		if d := seconds(0.06 / float64(st.Feed)); d > long {
			mm, long = i, d
		}
	}
	return mm, long
}

func at(mm int) measure.Length { return measure.Length(mm) }

// where finds the steps that something is so of: the first, the one after the
// last, and how many.
func (w Wall) where(so func(Step) bool) (from, to, n int) {
	for i, st := range w.Steps {
		if so(st) {
			if n++; n == 1 {
				from = i
			}
			to = i + 1
		}
	}
	return from, to, n
}

// Steady is the wall of a setup at one feed from end to end.
func Steady(s Setup, feed measure.Feed) (Wall, error) {
	speed := float64(feed) * 1000 / 60 // mm a second
	long := s.Job.FeedLength().Mm() + 1
	return Feed(s, []Moment{{0, 0}, {seconds(long / speed), measure.Length(long)}})
}
