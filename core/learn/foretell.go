package learn

import (
	"math"

	"corte/core/blade"
	"corte/core/cut"
	"corte/core/measure"
)

// A Foretold is what the model's table says of a cut before it is made, so that
// what comes out can teach.
type Foretold struct {
	Heat  float64  // dose over the table's scorch dose
	Load  float64  // share of the load that is allowed
	Exit  float64  // splinter figure of the face where teeth leave
	Other *float64 // of the other one; nil where it does not matter
}

// Foretell is what the model says of a job at a feed, or at the one that it
// suggests where that is 0. The job's material must be the table's own row, or
// a correction would be taught by itself.
func Foretell(j cut.Job, b blade.Blade, d cut.Drive, s cut.State, feed measure.Feed) Foretold {
	f := cut.Work(j, b, d, s)
	if feed > 0 {
		f = cut.WorkAt(j, b, d, s, feed)
	}
	out := Foretold{Heat: math.Pow(f.Burn/(1-f.Burn), 1/steep), Load: f.Load / f.Allowed, Exit: f.Exit.Splinter}
	if f.Other.Matters {
		out.Other = &f.Other.Splinter
	}
	return out
}
