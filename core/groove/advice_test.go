package groove

import (
	"testing"
	"time"

	"corte/core/blade"
	"corte/core/measure"
	"corte/core/saw"
	"corte/core/say"
	"corte/internal/testkit/golden"
)

// Ways to grooves, what is said while one is fitted, and the geometry of joints;
// read over once and held to the letter.
func TestGroovesAreAsTheyWereReadOver(t *testing.T) {
	table := saw.Saw{Kind: saw.Table, Diameter: 254, Arbor: 15.875, RPM: 4000, MotorW: 1300, Reach: 79, DadoSets: true, ArborLength: 44, Washer: 5, Nut: 12, WheelLead: 8}
	short := table
	short.ArborLength = 30
	flat := blade.Blade{Diameter: 254, Bore: 15.875, Kerf: 3.2, Plate: 2.2, Teeth: 30, Grind: blade.FTG, Hook: 20, MaxRPM: 7000, KeptFor: blade.UseJoints}
	ridged := flat
	ridged.Grind, ridged.Bevel, ridged.Teeth = blade.ATB, 15, 40
	set := blade.Blade{Make: blade.Dado, Diameter: 203, Bore: 15.875, Kerf: 6.4, Teeth: 24, Grind: blade.FTG, MaxRPM: 7000}
	stack, dial := trapdoor, spreader
	tools := []Tool{{Blade: flat}, {Blade: ridged, Mounted: true}, {Blade: set, Set: &stack, Estimate: stack.Believed()}, {Blade: set, Set: &dial, Estimate: dial.Believed()},
		{Blade: flat, Stop: say.Of("it hit something hard and hasn't been inspected since"), WayOut: say.Of("use a smaller stack")}}
	for name, r := range map[string]Request{
		"ply, 20":      {Width: 17.85, Depth: 6, Length: 300, Edge: 60, Count: 20, Saw: table, Change: 3},
		"one, shown":   {Width: 12.2, Depth: 8, Length: 900, Edge: 0, Count: 1, Shown: true, Saw: table, Heel: 0.04, Change: 3},
		"short arbor":  {Width: 19, Depth: 10, Length: 600, Edge: 200, Count: 4, Saw: short, Change: 3},
		"narrow":       {Width: 3.3, Depth: 6, Length: 600, Edge: 30, Count: 8, Saw: table, Change: 12},
		"wide":         {Width: 28, Depth: 12, Length: 600, Edge: 30, Count: 3, Saw: table},
		"no arbor":     {Width: 17.85, Depth: 6, Length: 300, Edge: 60, Count: 20, Saw: saw.Saw{Kind: saw.Table, Diameter: 254, Reach: 79, DadoSets: true}},
		"just thinner": {Width: 6.3, Depth: 6, Length: 300, Edge: 60, Count: 2, Saw: table},
	} {
		golden.Check(t, "ways, "+name, r.Ways(tools))
	}
	at := time.Date(2026, 3, 1, 9, 0, 0, 0, time.UTC)
	for i, name := range []string{"flat", "ridged", "stack", "dial"} {
		f := Fitting{Want: Request{Width: 17.85, Depth: 8, Length: 300, Edge: 60, Count: 20, Saw: table, Change: 3}, Tool: tools[i], Lead: table.WheelLead}
		if f.Tool.Set != nil {
			f.Held = f.Tool.Set.New()
		}
		f.Stand = f.Want.Ways([]Tool{f.Tool})[0].Stand(f.Tool, f.Want.Depth-Shy(f.Want.Depth))
		said := []any{f.Stand.Says(), f.Next()}
		for _, read := range []struct {
			widths []measure.Length
			depth  measure.Length
		}{{[]measure.Length{17.66, 17.65, 17.67}, 6.9}, {[]measure.Length{18.02, 18.0, 18.01}, 0}, {[]measure.Length{17.86}, 8.3}, {[]measure.Length{17.86, 17.84}, 8.1}, {[]measure.Length{18.9}, 8}} {
			check := f.Check(read.widths, read.depth)
			next, err := f.Tested(at, read.widths, read.depth)
			if err != nil {
				said = append(said, err.Error())
				continue
			}
			f = next
			said = append(said, map[string]any{"fits": check == nil, "good": f.Good(), "stands": f.Stand, "next": f.Next(), "told": f.Held.Told, "known": f.Held.Estimate.Mean})
		}
		for _, bad := range [][]measure.Length{nil, {17, 17.5}, {21}, {17.85}} {
			if err := f.Check(bad, 20); err != nil {
				said = append(said, err.Error())
			}
		}
		golden.Check(t, "fitting, "+name, said...)
	}
	var said []any
	say := func(v any, err error) {
		if err != nil {
			v = err.Error()
		}
		said = append(said, map[string]any{"": v})
	}
	for _, off := range []measure.Length{-1, 4, 0} {
		x, err := TenonOf(25, 9, 30, off, 3.2)
		say(x, err)
	}
	for _, w := range []measure.Length{96, 101.7, 19, 18, 3000, 3001} {
		x, err := BoxOf(w, 6.4, 0.1)
		say([]any{x, x.Retouch(0.3, 3)}, err)
	}
	tails := blade.Blade{Diameter: 254, Bore: 15.875, Kerf: 3.2, Plate: 2.2, Teeth: 40, Grind: blade.OneWay, Bevel: 8, Hook: 10}
	for _, thick := range []measure.Length{0, 12, 19, 90} {
		x, err := TailOf(tails, thick, 79, 45)
		say(x, err)
	}
	for _, deg := range []float64{0, 5, 12, 60} {
		x, err := SlantOf(40, 15, 3.2, 9, deg)
		say(x, err)
	}
	for _, r := range []measure.Length{20, 150, 600} {
		x, err := FoldOf(12, UsualSkin(12), 3.2, r, 90)
		say(x, err)
	}
	for _, read := range [][]measure.Length{{17.7, 17.75, 17.7}, {17.2, 17.9}, {}, {0.5}, {18, 18.35, 18}} {
		x, err := PieceOf(read)
		say(x, err)
	}
	for _, b := range []blade.Blade{flat, ridged, tails, set} {
		say([]any{Ridge(b), Flatness(b), Bottom(b, 3)}, nil)
	}
	golden.Check(t, "joints", said...)
}
