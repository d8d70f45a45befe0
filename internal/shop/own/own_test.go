package own

import (
	"math"
	"strings"
	"testing"

	"corte/core/blade"
	"corte/core/choose"
	"corte/core/cut"
	"corte/core/material"
	"corte/core/own"
	"corte/core/saw"
	"corte/core/say"
	"corte/internal/record"
	"corte/internal/testkit/golden"
)

// What somebody said a year ago is what owning rests on today.
func TestNotesAreReadAsTheyWereOnceKept(t *testing.T) {
	golden.Stored(t, "testdata/notes.json", &Notes{Version: 1})
}

// Thin blades make less dust and ask less of the motor; which of the two cannot
// cut something is said first, and otherwise what the wood must cost.
func TestThinAgainstFullOverTheWork(t *testing.T) {
	maple, err := material.Get("hard-maple")
	if err != nil {
		t.Fatal(err)
	}
	of := func(watts float64) [2]Kerf {
		j := cut.Job{Material: maple, Direction: cut.Rip, Finish: cut.Hidden, Thickness: 40, Width: 90, Length: 1000}
		r := choose.Request{Job: j, Saw: saw.Saw{Kind: saw.Table, Diameter: 254, Arbor: 15.875, RPM: 4000, MotorW: watts, Reach: 79, Reach45: 55}}
		return thinFull(r, blade.Blade{Diameter: 254, Bore: 15.875, Kerf: 3.2, Plate: 2.2, Teeth: 24, Grind: blade.FTG, Hook: 20, MaxRPM: 6000})
	}
	strong, weak := of(2600), of(700)
	for i, kerf := range []float64{choose.WithKerf(blade.Blade{Diameter: 254}, true).Kerf.Mm(), choose.WithKerf(blade.Blade{Diameter: 254}, false).Kerf.Mm()} {
		if want := 1000 * 40 * kerf / 1e6; math.Abs(strong[i].Dust-want) > 1e-9 {
			t.Errorf("dust %v l of a kerf of %v mm, want %v", strong[i].Dust, kerf, want)
		}
	}
	if !(weak[0].Minutes < weak[1].Minutes) || weak[0].Minutes < strong[0].Minutes {
		t.Errorf("a weak motor takes %v min with thin, %v with full, a strong one %v", weak[0].Minutes, weak[1].Minutes, strong[0].Minutes)
	}
	never := math.Inf(1)
	w := weighed{Work: own.Work{Saw: []int{0, 0, 1, 0}, Rows: []own.Row{{Kind: 0, Pieces: 10}, {Kind: 1, Pieces: 3}, {Kind: 2, Pieces: 5}, {Kind: 3, Pieces: 7}, {Kind: 0, Pieces: 2}}},
		both: []*[2]Kerf{{{2, 0.1, 0}, {1.5, 0.2, 0}}, {{never, 0.1, 0}, {1, 0.2, 0}}, {{1, 0.5, 0}, {3, 1, 0}}, nil}}
	all := w.kerfs([]record.Saw{{Name: "Long Table"}, {Name: "Drop"}, {Name: "Idle"}})
	if len(all) != 2 || all[0].Pieces != 12 || all[0].Thin.Cannot != 3 || all[0].Full.Cannot != 0 || math.Abs(all[0].Thin.Minutes-24) > 1e-9 || math.Abs(all[0].Full.Minutes-18) > 1e-9 ||
		math.Abs(all[0].Full.Dust-2.4) > 1e-9 || all[1].Pieces != 5 || all[1].Thin.Minutes != 5 {
		t.Fatalf("%+v", all)
	}
	says := func(k Kerfs, hour float64) string { return say.Voice{}.Say(k.Says(hour)) }
	for got, want := range map[string]string{
		says(all[0], 60): "full kerf; thin cannot cut 3 pieces",
		says(all[1], 60): "thin kerf saves 2.5 liters of wood and 10 min",
		// 6 min at 60 an hour are 6, over 1.2 liters.
		says(Kerfs{Saw: all[0].Saw, Pieces: 12, Thin: Kerf{24, 1.2, 0}, Full: Kerf{18, 2.4, 0}}, 60): "pays where a liter costs more than 5.00",
		says(Kerfs{Saw: all[0].Saw, Pieces: 12, Thin: Kerf{24, 1.2, 0}, Full: Kerf{18, 2.4, 0}}, 0):  "takes 6 min longer",
		says(Kerfs{Full: Kerf{0, 0, 4}, Thin: Kerf{0, 0, 1}}, 0):                                     "full cannot cut 3 pieces",
	} {
		if !strings.Contains(got, want) {
			t.Errorf("says %q, want %q", got, want)
		}
	}
}
