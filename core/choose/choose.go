// Package choose weighs the blades of a rack for one cut on one saw: which may
// not go on and why, which are best and for what reasons, how high to set
// them, what one change would help most, and what the ideal blade would be.
// Craft sections 3, 4, 12 and 13; model sections 5 and 7.
package choose

import (
	"cmp"
	"slices"

	"corte/core/blade"
	"corte/core/cut"
	"corte/core/measure"
	"corte/core/saw"
	"corte/core/truing"
	"corte/core/verdict"
)

// A Candidate is a blade of the rack as it is today.
type Candidate struct {
	Blade   blade.Blade
	State   cut.State // Heel is the saw's and is filled in by Rank
	Mounted bool      // on this saw now
	Barred  *Stop     // by what its log says of it, whatever the cut
}

// A Request is one cut on one saw. Job.Height is ignored: every blade is
// judged at the height that suits it.
type Request struct {
	Job           cut.Job
	Saw           saw.Saw
	Heel          measure.Length    // last measured on this saw
	Doubt         cut.Doubt         // of the material's figures; zero for the table's own
	Rework        float64           // what mending takes here against the usual; 0 for the usual
	ChangeMinutes float64           // what the shop counts a change of blade for; 0 swaps freely
	School        School            // of height, as the shop prefers
	Tolerances    truing.Tolerances // that the saw and its blades are held to; zero for the usual ones
}

// heldTo is what saw and blades are held to.
func (r Request) heldTo() truing.Tolerances {
	if r.Tolerances == (truing.Tolerances{}) {
		return truing.Usual
	}
	return r.Tolerances
}

func (r Request) drive() cut.Drive {
	return DriveOf(r.Saw)
}

// DriveOf is what a saw gives a blade, and how it is led.
func DriveOf(s saw.Saw) cut.Drive {
	return cut.Drive{RPM: s.RPM, PowerLimitW: s.PowerLimitW(), HandHeld: s.Kind.HandHeld()}
}

// A Verdict is one of three words.
type Verdict = verdict.Verdict

// The three words, as this package uses them: Stop is the name of a broken
// rule here.
const (
	Clear   = verdict.Clear
	Caution = verdict.Caution
	Halt    = verdict.Stop
)

// An Option is what became of one candidate.
type Option struct {
	Index   int    // into the candidates
	Stops   []Stop // not empty: it may not go on, and nothing below is set but Height
	Minds   []Stop // what is to be known or asked before it goes on
	Height  measure.Length
	Figures cut.Figures // of the model; zero where the material has none
	Minutes cut.Minutes // that one piece takes; zero where the material has no figures
	Terms   Terms
	Score   float64 // weighted geometric mean of the terms, 0 to 1
	Level   bool    // it is one of several at the head whose scores cannot be told apart
}

// Verdict says in a word how an option stands.
func (o Option) Verdict(modelled bool, s cut.State) Verdict {
	switch {
	case len(o.Stops) > 0:
		return Halt
	case modelled && Judge(o.Figures) != Clear, CareVerdict(s) != Clear, len(o.Minds) > 0:
		return Caution
	}
	return Clear
}

// Judge says how a setting stands by its figures alone: clear where the feed
// range is at least fair and no more push is asked than a hand keeps up, else
// caution.
func Judge(f cut.Figures) Verdict {
	if f.Window.Grade() <= cut.Tight || f.Paces.Harder() {
		return Caution
	}
	return Clear
}

// A Ranking is every candidate weighed: the ones that may go on, best first,
// and the ones that may not, in the order given.
type Ranking struct {
	Fit     []Option
	Stopped []Option
	mean    Terms // of ln terms over Fit: what "better than the others" means
}

// Rank weighs the candidates. The request's job must have passed CheckJob.
func Rank(r Request, rack []Candidate) Ranking {
	var out Ranking
	fit := make([]Option, 0, len(rack))
	modelled := r.Job.Material.Kind.Modelled()
	drive := r.drive()
	for i, c := range rack {
		o := Option{Index: i, Height: r.Heights(c.Blade).Suggested}
		j := r.Job
		j.Height = o.Height
		if c.Barred != nil {
			o.Stops = []Stop{*c.Barred}
		} else {
			o.Stops = Stops(c.Blade, j, r.Saw)
		}
		if len(o.Stops) > 0 {
			out.Stopped = append(out.Stopped, o)
			continue
		}
		c.State.Heel = r.Heel
		if modelled {
			o.Figures = cut.Work(j, c.Blade, drive, c.State)
			o.Minutes = o.Figures.Minutes(j, r.Rework)
		}
		o.Minds = minds(r, c, j, o.Figures)
		o.Terms = weigh(r, c, o)
		ln := o.Terms.logs()
		o.Score = ln.score()
		for t, v := range ln {
			out.mean[t] += v
		}
		fit = append(fit, o)
	}
	for t := range out.mean {
		out.mean[t] /= float64(max(1, len(fit)))
	}
	// Options are large: their places are sorted, and then each moves once.
	places := make([]int, len(fit))
	for i := range places {
		places[i] = i
	}
	slices.SortStableFunc(places, func(a, b int) int { return cmp.Compare(fit[b].Score, fit[a].Score) })
	level(r, places, fit, rack)
	out.Fit = make([]Option, len(fit))
	for i, at := range places {
		out.Fit[i] = fit[at]
	}
	out.agree(r, rack)
	return out
}

// agree puts the best first where only the cost of a change has kept the blade on
// the saw before it, and the advice is to change all the same: what is said and
// the order do not contradict each other.
func (k *Ranking) agree(r Request, rack []Candidate) {
	s, ok := k.Swap(r, rack)
	if !ok || s.Stay || s.On < 0 || k.Fit[0].Index != s.On {
		return
	}
	best := slices.IndexFunc(k.Fit, func(o Option) bool { return o.Index == s.Best })
	o := k.Fit[best]
	o.Score = k.Fit[0].Score
	copy(k.Fit[1:best+1], k.Fit[:best])
	k.Fit[0] = o
}

// levelShare is how near two scores must lie to be level (model section 7).
const levelShare = 0.98

// level orders those whose scores cannot be told apart: what is on the saw
// first, then what is kept for this, then what costs least. places are by
// score; each run of level ones begins with its best.
func level(r Request, places []int, fit []Option, rack []Candidate) {
	keys := make([]levelKey, len(fit)) // of those in a run, so that no pair is weighed twice
	for from := 0; from < len(places); {
		to := from + 1
		for to < len(places) && fit[places[to]].Score >= levelShare*fit[places[from]].Score {
			to++
		}
		run := places[from:to]
		if len(run) > 1 {
			best := fit[run[0]].Score
			for _, at := range run { // level ones share the score of the best: the order follows it
				fit[at].Level, fit[at].Score = from == 0, best
			}
			for _, at := range run {
				c := rack[fit[at].Index]
				keys[at] = levelKey{c.Mounted, fitOf(c, r.Job) == fitKept, r.total(fit[at], c)}
			}
			slices.SortStableFunc(run, func(a, b int) int {
				x, y := keys[a], keys[b]
				return cmp.Or(-compareBool(x.mounted, y.mounted), -compareBool(x.kept, y.kept), cmp.Compare(x.total, y.total))
			})
		}
		from = to
	}
}

// A levelKey is what level ones are ordered by.
type levelKey struct {
	mounted, kept bool
	total         float64 // minutes
}

func compareBool(a, b bool) int {
	switch {
	case a == b:
		return 0
	case a:
		return 1
	}
	return -1
}

// total is what all pieces take with an option, its change included.
func (r Request) total(o Option, c Candidate) float64 {
	all := o.Minutes.Total() * float64(r.Job.Count())
	if !c.Mounted {
		all += r.ChangeMinutes
	}
	return all
}

// Sweep works out the figures of one blade at every height of a list, into
// dst, which must be as long as the list.
func Sweep(r Request, c Candidate, heights []measure.Length, dst []cut.Figures) {
	c.State.Heel = r.Heel
	drive := r.drive()
	j := r.Job
	for i, h := range heights {
		j.Height = h
		dst[i] = cut.Work(j, c.Blade, drive, c.State)
	}
}

// At works out the figures of one blade at one height. The height must be over
// 0 and within the saw's reach; it is not looked at for a chop.
func At(r Request, c Candidate, height measure.Length) cut.Figures {
	var one [1]cut.Figures
	Sweep(r, c, []measure.Length{height}, one[:])
	return one[0]
}
