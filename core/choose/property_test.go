package choose

import (
	"math"
	"math/rand/v2"
	"testing"

	"corte/core/blade"
	"corte/core/cut"
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
		Exit: cut.Support(dice.IntN(6)), Other: cut.Support(dice.IntN(6)), Bed: cut.Bed(dice.IntN(3)),
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
	fields := map[string]bool{"thickness_mm": true, "width_mm": true, "length_mm": true, "direction": true, "motion": true, "form": true,
		"depth_mm": true, "bevel_deg": true, "miter_deg": true, "piece_mm": true}
	dice := rand.New(rand.NewPCG(7, 11))
	set, refused, tilted, halves := 0, 0, 0, 0
	for range 4000 {
		s := anySaws[dice.IntN(len(anySaws))]
		j := anyJob(dice, s)
		if err := CheckJob(j, s, measure.Inch); err != nil {
			e, ok := err.(*cut.Error)
			if !ok || !fields[e.Field] || e.Reason == "" {
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
		last := math.Inf(1)
		for _, o := range k.Fit {
			b := rack[o.Index].Blade
			h := r.Heights(b)
			at := j
			at.Height = o.Height
			switch {
			case !(o.Score > 0 && o.Score <= last):
				t.Fatalf("score %v after %v", o.Score, last)
			case j.Motion != cut.Chop && !(h.Suggested > 0 && h.Suggested <= h.Full && h.Proud <= h.Full && h.Gullets <= h.Full && h.Full <= s.Reach):
				t.Fatalf("%+v of a reach of %v for %+v", h, s.Reach, j)
			case !at.Parts():
				t.Fatalf("set to %v, %+v is not done", o.Height, j)
			case SpoilsBed(at):
				t.Fatalf("set to %v it spoils what lies below %+v", o.Height, j)
			case h.Why == "":
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
			if c, ok := BestChange(r, rack[o.Index], o); ok && !(c.Room > f.Window.Room() && c.Height <= h.Full) {
				t.Fatalf("%q opens %v to %v, at %v of %v", c.Text, f.Window.Room(), c.Room, c.Height, h.Full)
			}
			set++
			if j.BevelDeg > 0 {
				tilted++
			}
		}
		if swap, ok := k.Swap(r, rack); ok && swap.On >= 0 && (swap.WorthMinutes < 0 || swap.Stay != (swap.On == swap.Best || swap.WorthMinutes <= r.ChangeMinutes)) {
			t.Fatalf("%+v", swap)
		}
	}
	if set < 1000 || refused < 300 || tilted < 100 || halves < 20 {
		t.Errorf("the dice were too kind: %d set, %d refused, %d tilted, %d from both faces", set, refused, tilted, halves)
	}
}
