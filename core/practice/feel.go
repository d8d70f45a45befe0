package practice

import (
	"math/rand/v2"
	"time"

	"corte/core/blade"
	"corte/core/cut"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/saw"
	"corte/core/say"
)

// A Felt is what somebody feels, hears and sees of a cut that is pushed with the
// same force as another.
type Felt struct {
	Setup Setup
	Feed  measure.Feed
	Took  time.Duration
	Load  float64
	Turns float64 // of the arbor a minute, under this load
	Note  float64 // teeth that pass in a second, Hz
	Wall  Wall
}

// leastTurn is the share of its speed under which a motor stalls anyway.
const leastTurn = 0.5

// Turns is how fast the arbor turns under a load, in turns a minute: what is
// heard as the note that drops.
func (s Setup) Turns(load float64) float64 {
	kind := saw.Table
	if s.Drive.HandHeld {
		kind = saw.Circular
	}
	return s.Drive.RPM * max(leastTurn, 1-kind.FullDroop()*load)
}

// Push is the force in newtons with which the work is pushed at a feed: the
// cutting force's share along the table.
func (s Setup) Push(feed measure.Feed) float64 {
	f := s.At(feed)
	return f.PowerW / f.RimSpeed * f.PushShare
}

// Speeds that hands keep a board between, m/min.
const (
	slowestHand = measure.Feed(0.2)
	fastestHand = measure.Feed(12)
)

// FeedUnder is how fast a push of so many newtons takes the work through.
func (s Setup) FeedUnder(push float64) measure.Feed {
	lo, hi := slowestHand, fastestHand
	for range 40 {
		mid := (lo + hi) / 2
		if s.Push(mid) < push {
			lo = mid
		} else {
			hi = mid
		}
	}
	return lo
}

// Under is what a setup feels like under a push.
func (s Setup) Under(push float64) Felt {
	f := Felt{Setup: s, Feed: s.FeedUnder(push)}
	f.Load = s.At(f.Feed).Load
	f.Turns = s.Turns(f.Load)
	f.Note = f.Turns / 60 * float64(s.Blade.Teeth)
	wall, err := Steady(s, f.Feed)
	if err != nil {
		panic(err) // one feed from end to end can always be followed
	}
	f.Wall, f.Took = wall, wall.Took
	return f
}

// tellable is by how much two cuts must differ in their feeds to be told apart,
// from easy to hard.
var tellable = [...]float64{1.5, 1.25, 1.12}

func (t *Task) feel(r *rand.Rand) {
	for {
		a := Setup{Drive: cut.Drive{RPM: 4000, PowerLimitW: 1300}, Blade: blades[1], Board: 0.3 + 0.4*r.Float64()}
		a.Job = cut.Job{Material: wood(pick(r, woods...)), Finish: cut.Rough, Thickness: measure.Length(19 + 3*r.IntN(7)), Width: 80, Length: 600, Exit: cut.ZeroClearance}
		a.Job.Height = a.Job.Thickness + 10
		a.State.Sharpness = 1
		b := a
		var ask, why say.Line
		switch t.Skill.Of() {
		case "edge":
			b.State.Sharpness = []float64{2.5, 2.1, 1.7}[t.Level-1]
			ask = say.Of("One blade is sharp, the other dull. Both get the same push. Which one is dull?")
			why = say.Of("A dull edge is round and has to be pressed into the wood. With the same push it cuts slower, and the rubbing turns into heat.")
		case "pitch":
			b.State.Pitch = []float64{3, 2.5, 2}[t.Level-1]
			ask = say.Of("It is the same sharp blade before and after cleaning. Which one has resin buildup?")
			why = say.Of("Resin on the teeth rubs along the kerf. It cuts slower with the same push, and warmer. A dirty blade cuts like a dull one, so clean it before you have it sharpened.")
		case "height":
			a.Job.Height, b.Job.Height = a.Job.Thickness+4, a.Job.Thickness+40
			ask = say.Of("The same blade, once low and once raised high. Which one is high?")
			why = say.Of("High, the teeth come down steeply through less wood and push back less, so it cuts faster with the same push. Low, they run longer in the wood, push back and rub, but leave a cleaner bottom edge.")
		default: // teeth
			a.Blade, b.Blade = blades[0], blade.Blade{Diameter: 254, Bore: 15.875, Kerf: 3.2, Plate: 2.2, Teeth: 80, Grind: blade.ATB, Bevel: 15, Hook: 5}
			ask = say.Of("One blade has 24 teeth, the other 80. Which has 80?")
			why = say.Of("Eighty teeth take many small chips where 24 take fewer big ones. The blade sounds higher, cuts slower with the same push, and makes more heat along the grain.")
		}
		push := a.Push(a.Figures().Feed)
		fa, fb := a.Under(push), b.Under(push)
		ratio := float64(max(fa.Feed, fb.Feed) / min(fa.Feed, fb.Feed))
		if ratio < tellable[t.Level-1] || min(fa.Feed, fb.Feed) <= 1.5*slowestHand || max(fa.Feed, fb.Feed) >= 0.9*fastestHand {
			continue
		}
		t.Ask, t.why = ask, []say.Line{why}
		order := []Felt{fa, fb}
		at := r.IntN(2) // where the one that is asked for stands
		if order[0], order[1] = fa, fb; at == 0 {
			order[0], order[1] = fb, fa
		}
		for i := range order {
			t.Choices = append(t.Choices, Choice{Key: letters[i], Felt: &order[i]})
		}
		t.truth = letters[at]
		return
	}
}

// wood is a material that the table has: a test asks for each that is used.
func wood(id string) material.Material {
	m, err := material.Get(id)
	if err != nil {
		panic(err)
	}
	return m
}
