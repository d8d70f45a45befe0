package choose

import (
	"fmt"
	"math"

	"corte/core/cut"
)

// A Swap weighs changing the blade against leaving on the one that is on the
// saw: the two schools of craft section 3.
type Swap struct {
	On, Best     int     // indices into the candidates; On is -1 where nothing that may make the cut is on the saw
	WorthMinutes float64 // of changing: a change that takes less pays for one cut
	Stay         bool
	Text         string // a sentence without its full stop; NAME and ON stand for the blades' names
}

// Swap compares the blade that is on the saw with the one that would be best
// if a change cost nothing. It reports false where no blade is on the saw, or
// none may go on.
func (k Ranking) Swap(r Request, rack []Candidate) (Swap, bool) {
	free := func(o Option) float64 {
		t := o.Terms
		t[TermChange] = 1
		return t.logs().score()
	}
	on, best := -1, -1
	for i, o := range k.Fit {
		if rack[o.Index].Mounted {
			on = i
		}
		if best < 0 || free(o) > free(k.Fit[best]) {
			best = i
		}
	}
	if best < 0 {
		return Swap{}, false
	}
	s := Swap{On: -1, Best: k.Fit[best].Index}
	if on < 0 {
		for _, o := range k.Stopped {
			if rack[o.Index].Mounted {
				s.Text = "ON is on the saw and may not make this cut: NAME goes on"
				return s, true
			}
		}
		return Swap{}, false
	}
	s.On = k.Fit[on].Index
	if on == best {
		s.Stay, s.Text = true, "ON is on the saw, and no other blade would do this better"
		return s, true
	}
	var sum float64
	for _, w := range weights {
		sum += w
	}
	gain := math.Log(free(k.Fit[best]) / free(k.Fit[on]))
	s.WorthMinutes = changeScale * gain * sum / weights[TermChange]
	s.Stay = s.WorthMinutes <= r.ChangeMinutes
	against := "better in the end"
	if a, b := k.Fit[best].Figures.Window, k.Fit[on].Figures.Window; a.Slowest > 0 && b.Slowest > 0 {
		against = fmt.Sprintf("its window stands %s against %s", width(a), width(b))
	}
	s.Text = fmt.Sprintf("ON is on the saw. NAME would be better, %s: worth about %.0f min of changing, and a change counts for %g here. ",
		against, math.Max(1, s.WorthMinutes), r.ChangeMinutes)
	if s.Stay {
		s.Text += "For one cut, stay"
	} else {
		s.Text += "Change"
	}
	return s, true
}

func width(w cut.Window) string {
	if !w.Open() {
		return "shut"
	}
	return fmt.Sprintf("%.1f", w.Room())
}
