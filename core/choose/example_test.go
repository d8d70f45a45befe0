package choose_test

import (
	"fmt"

	"corte/core/blade"
	"corte/core/choose"
	"corte/core/cut"
	"corte/core/material"
	"corte/core/saw"
)

// Which of three blades makes a rip in oak, and why not the others?
func ExampleRank() {
	oak, _ := material.Get("red-oak")
	s := saw.Saw{Kind: saw.Table, Diameter: 254, Arbor: 15.875, RPM: 4000, MotorW: 1300, Volts: 120, BreakerA: 15, Reach: 79}
	r := choose.Request{Saw: s, ChangeMinutes: 3, Rework: 1,
		Job: choose.Settle(cut.Job{Material: oak, Direction: cut.Rip, Finish: cut.Hidden, Thickness: 40, Width: 120, Length: 900}, s)}
	rack := []choose.Candidate{
		{Blade: blade.Blade{Diameter: 254, Bore: 15.875, Kerf: 3.2, Plate: 2.2, Teeth: 24, Grind: blade.FTG, Hook: 20, MaxRPM: 7000, KeptFor: blade.UseRip}},
		{Blade: blade.Blade{Diameter: 254, Bore: 15.875, Kerf: 3.2, Plate: 2.2, Teeth: 80, Grind: blade.ATB, Bevel: 15, Hook: 5, MaxRPM: 7000}},
		{Blade: blade.Blade{Diameter: 305, Bore: 25.4, Kerf: 3, Plate: 2.2, Teeth: 60, Grind: blade.ATB, Bevel: 20, Hook: 5, MaxRPM: 5000}},
	}
	k := choose.Rank(r, rack)
	for _, o := range k.Fit {
		b := rack[o.Index]
		fmt.Printf("%d teeth, %v high: %s\n", b.Blade.Teeth, o.Height, k.Reasons(r, b, o)[0].Text)
	}
	for _, o := range k.Stopped {
		fmt.Printf("%d teeth: %s\n", rack[o.Index].Blade.Teeth, o.Stops[0].Why)
	}
	// Output:
	// 24 teeth, 54 mm high: roomy feed range (5.6×)
	// 80 teeth, 46 mm high: no feed range: burning meets bogging down
	// 60 teeth: a blade of 305 mm does not fit a saw made for 254 mm
}
