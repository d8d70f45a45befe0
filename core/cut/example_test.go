package cut_test

import (
	"fmt"

	"corte/core/blade"
	"corte/core/cut"
	"corte/core/material"
)

// A rip in maple with 24 flat-top teeth: between which feeds does it go well?
func ExampleWork() {
	maple, _ := material.Get("hard-maple")
	rip := cut.Job{Material: maple, Direction: cut.Rip, Finish: cut.Hidden, Thickness: 25, Width: 120, Length: 900, Height: 39}
	b := blade.Blade{Diameter: 254, Bore: 15.875, Kerf: 3.2, Plate: 2.2, Teeth: 24, Grind: blade.FTG, Hook: 20}
	f := cut.Work(rip, b, cut.Drive{RPM: 4000, PowerLimitW: 1300}, cut.State{})
	w := f.Window
	fmt.Printf("from %.1f m/min (%s) to %.1f (%s), a %s feed range; chips of %.3f mm\n", w.Slowest, w.SlowBy.Words(), w.Fastest, w.FastBy.Words(), w.Grade(), f.MeanChip)
	// Output: from 1.3 m/min (burning) to 6.0 (losing control), a roomy feed range; chips of 0.022 mm
}
