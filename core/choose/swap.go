package choose

import (
	"corte/core/say"
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
	Text      say.Line // a sentence without its full stop; OnIt and Other stand for the blades' names
}

// Where the names of blades go: of the one on the saw, and of the other.
const (
	OnIt  say.Stand = "ON"
	Other say.Stand = "NAME"
)

// Swap compares the blade that is on the saw with the one that would be best
// if a change cost nothing. It reports false where no blade is on the saw, or
// none may go on.
func (k Ranking) Swap(r Request, rack []Candidate) (Swap, bool) {
	free := func(o *Option) float64 {
		t := o.Terms
		t[TermChange] = 1
		return t.logs().score()
	}
	on, best := -1, -1
	var most float64 // the score of the best
	for i := range k.Fit {
		if rack[k.Fit[i].Index].Mounted {
			on = i
		}
		score := free(&k.Fit[i])
		// The better one; or one as good that needs no care.
		if best < 0 || score > most/levelShare || score >= levelShare*most && k.worse(r, rack, best, i) {
			best, most = i, score
		}
	}
	if best < 0 {
		return Swap{}, false
	}
	s := Swap{On: -1, Best: k.Fit[best].Index}
	if on < 0 {
		for _, o := range k.Stopped {
			if rack[o.Index].Mounted {
				s.Text = say.Of("%s is on the saw and can't make this cut. Mount %s", OnIt, Other)
				return s, true
			}
		}
		return Swap{}, false
	}
	s.On = k.Fit[on].Index
	if on == best || (on == 0 || free(&k.Fit[on]) >= levelShare*most) && !k.worse(r, rack, on, best) {
		s.Best, s.Stay, s.Text = s.On, true, say.Of("%s is on the saw, and no other blade does this better", OnIt)
		return s, true
	}
	modelled := r.Job.Material.Kind.Modelled()
	a, b := k.Fit[on].Figures.Window, k.Fit[best].Figures.Window
	switch {
	case modelled && !a.Open() && b.Open():
		s.Text = say.Of("%s is on the saw and can't do this well at any feed rate: %s meets %s. Change to %s", OnIt, a.SlowBy.Words(), a.FastBy.Words(), Other)
	case modelled && !a.Open():
		s.Text = say.Of("Neither %s, which is on the saw, nor any other blade does this well. %s comes closest. See below what would help", OnIt, Other)
	case k.worse(r, rack, on, best):
		s.Text = say.Of("%s is on the saw and needs care here. %s doesn't. Change", OnIt, Other)
	case !modelled:
		s.Text = say.Of("%s is on the saw and works. %s is made for this", OnIt, Other)
		s.Stay = r.ChangeMinutes > longChange
	default:
		n := float64(r.Job.Count())
		s.OnMinutes, s.Minutes = n*k.Fit[on].Minutes.Total(), n*k.Fit[best].Minutes.Total()
		s.Stay = s.OnMinutes-s.Minutes <= r.ChangeMinutes || hardly(s.OnMinutes, s.Minutes)
		s.Text = s.says(r)
	}
	return s, true
}

// worse reports whether one option is at caution where another is clear: nobody
// is told to stay with it then.
func (k Ranking) worse(r Request, rack []Candidate, on, best int) bool {
	modelled := r.Job.Material.Kind.Modelled()
	stands := func(i int) Verdict { return k.Fit[i].Verdict(modelled, rack[k.Fit[i].Index].State) }
	return stands(on) > stands(best)
}

// longChange is the longest change, in minutes, that is advised where no gain in
// minutes can be worked out.
const longChange = 5

// hardly reports whether two times differ too little to matter: by less than half
// a minute, or than a twentieth of the first where that is more.
func hardly(a, b float64) bool { return math.Abs(a-b) < max(0.5, 0.05*a) }

func (s Swap) says(r Request) say.Line {
	work := say.Of("It takes")
	if n := r.Job.Count(); n > 1 {
		work = say.Of("The %d pieces take", n)
	}
	switch {
	case hardly(s.OnMinutes, s.Minutes):
		return say.Of("%[1]s is on the saw and takes as long as %[2]s, %[3]s. Stay", OnIt, Other, Took(s.OnMinutes))
	case s.OnMinutes < s.Minutes:
		return say.Of("%[1]s is on the saw and takes %[3]s, and %[2]s would take %[4]s. Stay", OnIt, Other, Took(s.OnMinutes), Took(s.Minutes))
	}
	text := say.Of("%s %s with %s, which is on the saw, and %s with %s. A change takes %s.",
		work, Took(s.OnMinutes), OnIt, Took(s.Minutes), Other, Took(r.ChangeMinutes))
	if r.ChangeMinutes == 0 {
		text = say.Of("%s %s with %s, which is on the saw, and %s with %s. A change costs no time here.", work, Took(s.OnMinutes), OnIt, Took(s.Minutes), Other)
	}
	if s.Stay {
		return say.Of("%s Stay", text)
	}
	return say.Of("%s Change", text)
}

// Took puts minutes into words.
func Took(minutes float64) say.Line {
	switch m := math.Round(minutes); {
	case minutes < 0.75:
		return say.Of("under a minute")
	case m < 100:
		return say.Of("%.0f min", m)
	default:
		return say.Of("%.0f h %02.0f min", math.Floor(m/60), math.Mod(m, 60))
	}
}
