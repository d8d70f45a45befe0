package choose

import (
	"fmt"
	"math"
)

// A Swap weighs changing the blade against leaving on the one that is on the
// saw, in minutes over all pieces (model section 7b): the two schools of craft
// section 3.
type Swap struct {
	On, Best  int     // indices into the candidates; On is -1 where nothing that may make the cut is on the saw
	OnMinutes float64 // that all pieces take with the one on the saw; 0 where that cannot be said
	Minutes   float64 // that they take with the best, without the change; 0 likewise
	Stay      bool
	Text      string // a sentence without its full stop; NAME and ON stand for the blades' names
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
		if best < 0 || free(o) > free(k.Fit[best])/levelShare {
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
	if on == best || free(k.Fit[on]) >= levelShare*free(k.Fit[best]) {
		s.Best, s.Stay, s.Text = s.On, true, "ON is on the saw, and no other blade would do this better"
		return s, true
	}
	modelled := r.Job.Material.Kind.Modelled()
	a, b := k.Fit[on].Figures.Window, k.Fit[best].Figures.Window
	switch {
	case !modelled:
		s.Text = "ON is on the saw and may; NAME is made for this"
		s.Stay = r.ChangeMinutes > longChange
	case !a.Open() && b.Open():
		s.Text = fmt.Sprintf("ON is on the saw and cannot make this well at any feed, for %s crosses %s. Change to NAME", a.SlowBy.Words(), a.FastBy.Words())
	case !a.Open():
		s.Text = "Neither ON, which is on the saw, nor any other makes this well; NAME comes nearest. See below what would"
	default:
		n := float64(r.Job.Count())
		s.OnMinutes, s.Minutes = n*k.Fit[on].Minutes.Total(), n*k.Fit[best].Minutes.Total()
		s.Stay = s.OnMinutes-s.Minutes <= r.ChangeMinutes || hardly(s.OnMinutes, s.Minutes)
		s.Text = s.says(r)
	}
	return s, true
}

// longChange is from how many minutes a change is left out where nothing can
// be reckoned in its favour.
const longChange = 5

// hardly is a difference that nobody would call one: a twentieth of the work, or
// half a minute.
func hardly(a, b float64) bool { return math.Abs(a-b) < max(0.5, 0.05*a) }

func (s Swap) says(r Request) string {
	work := "It takes"
	if n := r.Job.Count(); n > 1 {
		work = fmt.Sprintf("The %d pieces take", n)
	}
	if hardly(s.OnMinutes, s.Minutes) || s.OnMinutes < s.Minutes {
		return fmt.Sprintf("ON is on the saw and takes as long as NAME would, %s. Stay, unless the finish asks for NAME", Took(s.OnMinutes))
	}
	text := fmt.Sprintf("%s %s with ON, which is on the saw, and %s with NAME; a change is %s. ",
		work, Took(s.OnMinutes), Took(s.Minutes), Took(r.ChangeMinutes))
	if r.ChangeMinutes == 0 {
		text = fmt.Sprintf("%s %s with ON, which is on the saw, and %s with NAME, and a change counts for nothing here. ", work, Took(s.OnMinutes), Took(s.Minutes))
	}
	if s.Stay {
		return text + "Stay"
	}
	return text + "Change"
}

// Took puts minutes into words.
func Took(minutes float64) string {
	switch m := math.Round(minutes); {
	case minutes < 0.75:
		return "under a minute"
	case m < 100:
		return fmt.Sprintf("%.0f min", m)
	default:
		return fmt.Sprintf("%.0f h %02.0f min", math.Floor(m/60), math.Mod(m, 60))
	}
}
