package choose

import "corte/core/choose"

// A Way is how one blade would do a cut on one saw, as far as it matters to who
// picks one for many cuts.
type Way struct {
	May   bool    // it may go on
	Open  bool    // at some feed it cuts well
	Fits  bool    // it is kept for this, or for general work
	Score float64 // of Choose
}

// WayOf is the way of an option that may go on.
func WayOf(o choose.Option, modelled bool) Way {
	return Way{May: true, Open: !modelled || o.Figures.Window.Open(), Fits: o.Terms[choose.TermFitness] >= fitting, Score: o.Score}
}

// fitting is from which fitness a blade is kept for a cut, or for general work.
const fitting = 0.85

// nearBest is how near a score must come to the best where no blade cuts well:
// there all of it wants mending, and minutes tell good from bad no more.
const nearBest = 0.9

// Likely are the ways that somebody would think of: blades that cut well and are
// kept for this or for general work; where there is none, those that cut well;
// and where there is none either, those that Choose puts first. Minutes alone
// would rip pine with the blade that is kept sharp for acrylic, to win one.
func Likely(ways []Way) []bool {
	best := 0.0
	for _, x := range ways {
		if x.May {
			best = max(best, x.Score)
		}
	}
	for _, good := range [...]func(Way) bool{
		func(x Way) bool { return x.Open && x.Fits },
		func(x Way) bool { return x.Open },
		func(x Way) bool { return x.Score >= nearBest*best },
	} {
		out, any := make([]bool, len(ways)), false
		for i, x := range ways {
			out[i] = x.May && good(x)
			any = any || out[i]
		}
		if any {
			return out
		}
	}
	return make([]bool, len(ways))
}
