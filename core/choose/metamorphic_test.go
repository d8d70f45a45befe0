package choose

import (
	"math/rand/v2"
	"testing"

	"corte/core/blade"
	"corte/core/cut"
	"corte/core/measure"
	"corte/core/saw"
)

// What must hold between a cut and one that differs from it in one thing: the
// list at the head of docs/model.md. A share of 3 % is left for the rounding of
// a shut feed range.
func TestWorseIsNeverBetter(t *testing.T) {
	const share = 1.03
	type worked struct {
		cut.Figures
		minutes float64
		marked  float64 // of them, for tear-out and tooth marks
	}
	dice := rand.New(rand.NewPCG(31, 3))
	compared := map[string]int{}
	for cuts := 0; cuts < 2000; {
		s := anySaws[dice.IntN(len(anySaws))]
		j := anyJob(dice, s)
		if CheckJob(j, s) != nil || !j.Material.Kind.Modelled() {
			continue
		}
		b := anyBlade(dice, s)
		state := cut.State{Sharpness: 1 + dice.Float64()*1.4, Pitch: dice.Float64() * 2.5}
		school := School(dice.IntN(4))
		work := func(j cut.Job, b blade.Blade, state cut.State) (w worked, may bool) {
			r := Request{Job: j, Saw: s, School: school}
			j.Height = r.Heights(b).Suggested
			if CheckJob(j, s) != nil || len(Stops(b, j, s)) > 0 {
				return w, false
			}
			f := cut.Work(j, b, DriveOf(s), state)
			m := f.Minutes(j, 1)
			return worked{f, m.Total(), m.Edge + m.Wall}, true
		}
		base, may := work(j, b, state)
		if !may {
			continue
		}
		cuts++
		over := func(what string, is, was float64) {
			if is > was*share {
				t.Errorf("%s: %.4g after %.4g on a %v saw\n%+v\n%+v\n%+v", what, is, was, s.Kind, j, b, state)
			}
		}
		dull, dirty := state, state
		dull.Sharpness += 0.1 + dice.Float64()
		dirty.Pitch += 0.1 + dice.Float64()*0.5
		for name, worse := range map[string]cut.State{"duller": dull, "pitchier": dirty} {
			if w, may := work(j, b, worse); may {
				over(name+", easy feed", float64(w.Paces.Easy), float64(base.Paces.Easy))
				over(name+", acting feed", float64(w.Paces.Acting), float64(base.Paces.Acting))
				over(name+", room", w.Window.Room(), base.Window.Room())
				over(name+", minutes", base.minutes, w.minutes)
				compared[name]++
			}
		}
		if j.Direction == cut.Rip {
			more := b
			more.Teeth += 2 + dice.IntN(20)
			if w, may := work(j, more, state); may {
				over("more teeth, easy feed", float64(w.Paces.Easy), float64(base.Paces.Easy))
				compared["more teeth"]++
				marks := func(w worked) bool {
					return w.Window.FastBy == cut.BySplinter || w.Window.FastBy == cut.ByWall
				}
				if !marks(base) && !marks(w) {
					over("more teeth, acting feed", float64(w.Paces.Acting), float64(base.Paces.Acting))
					if base.marked < 0.01*base.minutes {
						over("more teeth, minutes", base.minutes, w.minutes)
						compared["more teeth, minutes"]++
					}
				}
			}
		}
		if j.Form == cut.Through && !j.BothFaces {
			thick := j
			thick.Thickness *= measure.Length(1.02 + dice.Float64()*0.5)
			if j.Thickness <= thinSheet { // it is set in another way, just above the stock
				thick.Thickness = min(thick.Thickness, thinSheet)
			}
			if w, may := work(Settle(thick, s), b, state); may && !Settle(thick, s).BothFaces {
				over("thicker", w.Window.Room(), base.Window.Room())
				compared["thicker"]++
			}
		}
		if s.Kind != saw.Miter {
			tilted := j
			tilted.BevelDeg += 1 + dice.Float64()*20
			if w, may := work(Settle(tilted, s), b, state); may && Settle(tilted, s).BothFaces == j.BothFaces {
				over("tilted", w.Window.Room(), base.Window.Room())
				compared["tilted"]++
			}
		}
	}
	for _, what := range []string{"duller", "pitchier", "more teeth", "more teeth, minutes", "thicker", "tilted"} {
		if compared[what] < 100 {
			t.Errorf("%s: only %d compared", what, compared[what])
		}
	}
}
