package care

import (
	"time"

	"corte/core/blade"
)

// A Chapter is how a blade stood right after one row of its log, as it was seen
// then.
type Chapter struct {
	At     time.Time
	What   Kind
	Metres float64 // cut in all its lives
	Edge   float64 // share of its life that is used up; 1 is dull
	Pitch  float64 // level, 0 to 3
	Burnt  bool    // a wall browned since the point before
	Rows   int     // that it stands for
}

// Story follows a blade through its log. Cuts that follow one another are put
// together, so that there are about as many of them as asked for; everything
// else stands for itself.
func Story(b blade.Blade, events []Event, most int) []Chapter {
	total := 0.0
	for _, e := range events {
		total += e.Metres
	}
	step := total / float64(max(1, most))
	out := []Chapter{}
	var c Condition
	from := 0.0 // metres at the beginning of the last point, if it is of cuts
	for _, e := range events {
		c = c.Then(b, e)
		p := Chapter{At: e.At, What: e.Kind, Metres: c.Metres, Edge: c.WearShare(b.Grind), Pitch: c.PitchLevel(), Burnt: e.Burnt, Rows: 1}
		if last := len(out) - 1; e.Kind == Cut && last >= 0 && out[last].What == Cut && c.Metres-from <= step {
			p.Burnt, p.Rows = p.Burnt || out[last].Burnt, out[last].Rows+1
			out[last] = p
			continue
		}
		from = c.Metres - e.Metres
		out = append(out, p)
	}
	return out
}
