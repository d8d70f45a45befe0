package choose

import (
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"corte/core/blade"
	"corte/core/cut"
	"corte/core/fault"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/saw"
)

var anySaws = []saw.Saw{
	table, slider,
	{Kind: saw.Circular, Diameter: 254, Arbor: 15.875, RPM: 4500, MotorW: 1500, Reach: 85, Reach45: 60, Tilt: 55},
	{Kind: saw.Miter, Diameter: 254, Arbor: 15.875, RPM: 4800, MotorW: 1400, Reach: 88, Reach45: 50, ChopWidth: 130, BelowTable: 5},
}

func anyJob(dice *rand.Rand, s saw.Saw) cut.Job {
	all := material.All()
	j := cut.Job{
		Material: all[dice.IntN(len(all))], Direction: cut.Direction(dice.IntN(3)), Finish: cut.Finish(dice.IntN(4)),
		Thickness: measure.Length(2 + dice.Float64()*160), Width: measure.Length(5 + dice.Float64()*350), Length: measure.Length(50 + dice.Float64()*2400),
		Bed: cut.Bed(dice.IntN(3)), Pieces: dice.IntN(40), Moisture: cut.Moisture(dice.IntN(3)), Moves: dice.IntN(4) == 0,
	}
	if dice.IntN(3) == 0 {
		j.BevelDeg = dice.Float64() * 55
	}
	if dice.IntN(3) == 0 && j.Direction != cut.Rip {
		j.MiterDeg = dice.Float64() * 55
	}
	if dice.IntN(3) == 0 {
		j.Form, j.Depth = cut.Form(1+dice.IntN(4)), j.Thickness*measure.Length(0.1+0.85*dice.Float64())
	}
	j.Motion = s.UsualMotion(j.MeetsWidth())
	exits, others := Supports(j, s)
	j.Exit, j.Other = exits[dice.IntN(len(exits))], others[dice.IntN(len(others))]
	return Settle(j, s)
}

func anyBlade(dice *rand.Rand, s saw.Saw) blade.Blade {
	grinds := []blade.Grind{blade.FTG, blade.ATB, blade.HighATB, blade.ATBR, blade.TCG, blade.OneWay}
	return blade.Blade{Diameter: s.Diameter - measure.Length(dice.IntN(30)), Bore: s.Arbor, Kerf: 2.4 + measure.Length(dice.Float64()), Plate: 1.8,
		Teeth: 12 + dice.IntN(90), Grind: grinds[dice.IntN(len(grinds))], Bevel: 5 + dice.Float64()*35, Hook: dice.Float64()*28 - 7,
		KeptFor: blade.Use(dice.IntN(9))}
}

// Whatever cut is brought to whatever saw, it is refused by a field that it
// has, or every blade that may go on is set within the saw's reach to a height
// that does what the cut asks, with figures that are numbers.
func TestAnyCutIsRefusedOrSet(t *testing.T) {
	fields := map[string]bool{"thickness": true, "width": true, "length": true, "direction": true, "motion": true, "form": true,
		"depth": true, "bevel": true, "miter": true, "piece": true, "exit support": true, "other support": true}
	dice := rand.New(rand.NewPCG(7, 11))
	set, refused, tilted, halves := 0, 0, 0, 0
	for range 4000 {
		s := anySaws[dice.IntN(len(anySaws))]
		j := anyJob(dice, s)
		if err := CheckJob(j, s); err != nil {
			e, ok := err.(*fault.Error)
			if !ok || !fields[e.Where] || e.What.Zero() {
				t.Fatalf("%+v on a %v: %v", j, s.Kind, err)
			}
			refused++
			continue
		}
		r := Request{Job: j, Saw: s, ChangeMinutes: 3, School: School(dice.IntN(4)), Heel: measure.Length(dice.Float64() * 0.2)}
		rack := make([]Candidate, 8)
		for i := range rack {
			rack[i] = Candidate{Blade: anyBlade(dice, s), State: cut.State{Sharpness: 1 + dice.Float64()*2, Pitch: dice.Float64() * 3}, Mounted: i == 0}
		}
		k := Rank(r, rack)
		if len(k.Fit)+len(k.Stopped) != len(rack) {
			t.Fatalf("%d fit and %d stopped of %d", len(k.Fit), len(k.Stopped), len(rack))
		}
		if s, ok := k.Swap(r, rack); ok && s.On >= 0 {
			stands := map[int]Verdict{}
			for _, o := range k.Fit {
				stands[o.Index] = o.Verdict(j.Material.Kind.Modelled(), rack[o.Index].State)
			}
			if k.Fit[0].Index == s.On && !s.Stay {
				t.Fatalf("what is on ranks first, and is to be changed: %s", s.Text)
			}
			switch {
			case s.Stay && s.Best != s.On && stands[s.On] > stands[s.Best]:
				t.Fatalf("it says stay at %v, where the best is %v: %s", stands[s.On], stands[s.Best], s.Text)
			case s.Stay != strings.HasSuffix(s.Text.String(), "Stay") && s.Best != s.On && j.Material.Kind.Modelled() && !strings.Contains(s.Text.String(), "Neither"):
				t.Fatalf("stay %v, and it says %q", s.Stay, s.Text)
			case strings.Contains(s.Text.String(), "as long as") && !hardly(s.OnMinutes, s.Minutes):
				t.Fatalf("%v and %v minutes, and it says %q", s.OnMinutes, s.Minutes, s.Text)
			}
		}
		last := math.Inf(1)
		for _, o := range k.Fit {
			b := rack[o.Index].Blade
			h := r.Heights(b)
			at := j
			at.Height = o.Height
			switch {
			case !(o.Score > 0 && o.Score <= last): // the order follows the score
				t.Fatalf("score %v after %v", o.Score, last)
			case j.Motion != cut.Chop && !(h.Suggested > 0 && h.Suggested <= h.Full && h.Proud <= h.Full && h.Gullets <= h.Full && h.Full <= s.Reach+s.BelowTable):
				t.Fatalf("%+v of a reach of %v for %+v", h, s.Reach, j)
			case !Parts(at, s):
				t.Fatalf("set to %v, %+v is not done", o.Height, j)
			case SpoilsBed(at):
				t.Fatalf("set to %v it spoils what lies below %+v", o.Height, j)
			case h.Why.Zero():
				t.Fatal("a suggestion without its reason")
			}
			last = o.Score
			if !j.Material.Kind.Modelled() {
				continue
			}
			f := o.Figures
			for name, v := range map[string]float64{"arc": f.Arc.Mm(), "power": f.PowerW, "load": f.Load, "burn": f.Burn, "feed": float64(f.Feed), "room": f.Window.Room(), "chip": f.MeanChip.Mm()} {
				if math.IsNaN(v) || math.IsInf(v, 0) || v < 0 || v == 0 && name != "burn" {
					t.Fatalf("%s is %v for %+v with %+v", name, v, j, b)
				}
			}
			if share := math.Hypot(f.PushShare, f.HoldShare); math.Abs(share-1) > 1e-9 {
				t.Fatalf("the force is shared out as %v", share)
			}
			passes := r.Passes(o.Height)
			if j.BothFaces {
				halves++
				if passes[0].Height+passes[1].Height <= j.Thickness {
					t.Fatalf("two passes of %v do not meet in %v", o.Height, j.Thickness)
				}
			}
			for _, p := range passes {
				if f := AtPass(r, rack[o.Index], p); !(f.TeethInCut > 0) {
					t.Fatalf("on the %s %+v", p.Name, f)
				}
			}
			if c, ok := k.BestChange(r, rack[o.Index], o); ok && !(c.Room > f.Window.Room() && c.Height <= h.Full && (c.Height == 0 || c.Height <= j.Thickness+20)) && c.Blade < 0 {
				t.Fatalf("%q opens %v to %v, at %v of %v", c.Text, f.Window.Room(), c.Room, c.Height, h.Full)
			}
			set++
			if j.BevelDeg > 0 {
				tilted++
			}
		}
		if swap, ok := k.Swap(r, rack); ok && swap.On >= 0 && (strings.Contains(swap.Text.String(), "shut") || swap.Minutes > 0 && swap.Stay != (swap.OnMinutes-swap.Minutes <= r.ChangeMinutes)) {
			t.Fatalf("%+v", swap)
		}
	}
	if set < 1000 || refused < 300 || tilted < 100 || halves < 20 {
		t.Errorf("the dice were too kind: %d set, %d refused, %d tilted, %d from both faces", set, refused, tilted, halves)
	}
}

// What can only make a cut worse never makes it better, whatever the cut: duller
// never opens the window, higher never lengthens the arc, more kerf never takes
// less power, more support never splinters more.
func TestMonotone(t *testing.T) {
	dice := rand.New(rand.NewPCG(3, 1415))
	tried := map[string]int{}
	for range 3000 {
		s := anySaws[dice.IntN(len(anySaws))]
		j := anyJob(dice, s)
		b := anyBlade(dice, s)
		r := Request{Job: j, Saw: s}
		j.Height = r.Heights(b).Suggested
		if CheckJob(j, s) != nil || len(Stops(b, j, s)) > 0 || !j.Material.Kind.Modelled() {
			continue
		}
		state := cut.State{Sharpness: 1 + dice.Float64(), Pitch: 2 * dice.Float64(), Heel: measure.Length(0.1 * dice.Float64()), Spread: 0.02, RunOut: 0.02}
		drive := DriveOf(s)
		was := cut.Work(j, b, drive, state)
		// The same cut with one thing changed, at its own feed and at the first's.
		with := func(change func(*cut.Job, *blade.Blade, *cut.State)) (own, same cut.Figures) {
			j, b, state := j, b, state
			change(&j, &b, &state)
			return cut.Work(j, b, drive, state), cut.WorkAt(j, b, drive, state, was.Feed)
		}
		never := func(name string, worse bool) {
			tried[name]++
			if worse {
				t.Errorf("%s: not so for %+v with %+v", name, j, b)
			}
		}
		const most = 1 + 1e-9
		own, same := with(func(_ *cut.Job, _ *blade.Blade, s *cut.State) { s.Sharpness *= 1.3 })
		never("duller opens nothing", own.Window.Room() > was.Window.Room()*most || same.Burn < was.Burn || same.PowerW < was.PowerW)
		own, same = with(func(_ *cut.Job, _ *blade.Blade, s *cut.State) { s.Pitch += 0.5 })
		never("pitchier opens nothing", own.Window.Room() > was.Window.Room()*most || same.Burn < was.Burn)
		own, _ = with(func(_ *cut.Job, _ *blade.Blade, s *cut.State) { s.Heel += 0.1 })
		never("out of line opens nothing", own.Window.Room() > was.Window.Room()*most)
		own, same = with(func(_ *cut.Job, _ *blade.Blade, s *cut.State) { s.RunOut += 0.05 })
		never("wobbling marks no less", own.Window.Room() > was.Window.Room()*most || same.WallMark < was.WallMark)
		if j.Motion != cut.Chop && j.Form == cut.Through && !j.BothFaces && was.Arc > 0 && (j.Height*1.1).Mm() < b.Radius().Mm()*math.Cos(j.BevelDeg*math.Pi/180) {
			own, _ = with(func(j *cut.Job, _ *blade.Blade, _ *cut.State) { j.Height *= 1.1 })
			never("higher lengthens no arc", own.Arc > was.Arc*most)
		}
		_, same = with(func(_ *cut.Job, b *blade.Blade, _ *cut.State) { b.Kerf *= 1.2 })
		never("more kerf takes no less power", same.PowerW < was.PowerW)
		if j.Exit == cut.Open {
			_, same = with(func(j *cut.Job, _ *blade.Blade, _ *cut.State) { j.Exit = cut.Scored })
			never("support splinters no more", same.Exit.Splinter > was.Exit.Splinter)
		}
		if j.Moisture == cut.Dry {
			own, same = with(func(j *cut.Job, _ *blade.Blade, _ *cut.State) { j.Moisture = cut.Wet })
			never("wet asks no less", same.PowerW < was.PowerW || same.Exit.Splinter < was.Exit.Splinter)
		}
		_, same = with(func(j *cut.Job, _ *blade.Blade, _ *cut.State) { j.Length *= 2; j.Width *= 2 })
		if j.Motion != cut.Chop {
			never("longer warms no less", same.Burn < was.Burn-1e-12)
		}
		a, c := was.Window.Fade(cut.Doubt{}), was.Window.Fade(cut.Doubt{Scorch: 0.1, Splinter: 0.1})
		never("what the shop has cut is firmer", c.SlowTo-c.SlowFrom > a.SlowTo-a.SlowFrom || c.FastTo-c.FastFrom > a.FastTo-a.FastFrom ||
			a.SlowFrom > was.Window.Slowest || a.SlowTo < was.Window.Slowest || a.FastFrom > was.Window.Fastest || a.FastTo < was.Window.Fastest)
	}
	for name, n := range tried {
		if n < 100 {
			t.Errorf("%s was tried only %d times", name, n)
		}
	}
}
