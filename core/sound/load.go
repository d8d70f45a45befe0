package sound

import "slices"

// A Load is how a cut was heard against what the model foretold of it.
type Load struct {
	Droop    float64 // of the idle speed, mean over the cut
	Foretold float64 // share of the load that the saw may bear
}

const (
	enoughLoads = 5    // cuts from which something is steady
	leastLoad   = 0.15 // foretold, under which a droop tells nothing
	more        = 1.6  // times what was foretold
	less        = 0.6
)

// Strays says how many times as much as was foretold cuts slowed a saw whose motor
// droops by full under all that it may bear; 0 where they are too few, or where what
// was heard does not steadily stray from it: three of four on the same side of half of
// the way. Judgement; a droop is no measure of power.
func Strays(loads []Load, full float64) float64 {
	var times []float64
	for _, l := range loads {
		if l.Foretold >= leastLoad && full > 0 {
			times = append(times, l.Droop/full/l.Foretold)
		}
	}
	if len(times) < enoughLoads {
		return 0
	}
	slices.Sort(times)
	low, middle, high := times[len(times)/4], times[len(times)/2], times[len(times)-1-len(times)/4]
	if middle >= more && low >= (1+more)/2 || middle <= less && high <= (1+less)/2 {
		return middle
	}
	return 0
}
