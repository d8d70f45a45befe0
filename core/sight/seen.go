package sight

import (
	"math"

	"corte/core/outcome"
	"corte/core/say"
)

// A Turn is how far apart marks lie that come once a turn of the blade, and once a
// tooth, in mm; 0 where nobody knows the feed.
type Turn struct{ Turn, Tooth float64 }

const (
	leastBrown = 0.02 // of a wall, from which it is not clean any more
	leastBlack = 0.01
	sameMarks  = 0.08 // of a turn's spacing, within which marks are a turn's
	oneSpot    = 0.25 // of the length, in which all that is scorched is one spot

	splinterDeep  = 1.0  // mm into a face, from which it is more than fuzz
	splinterShare = 0.1  // or so much of the edge
	tornDeep      = 3.0  // and from which it is torn
	tornShare     = 0.35 // or so much of the edge
	runsOut       = 0.12 // of an edge at either end, that all splinters lie in where the cut runs out
)

// Grade is how the wall came out, as a log has it.
func (w Wall) Grade() outcome.Wall {
	switch {
	case w.Black >= leastBlack:
		return outcome.Black
	case w.Brown+w.Black >= leastBrown:
		return outcome.Brown
	}
	return outcome.Clean
}

// Signs are those of Trace that a wall shows, to be confirmed: a picture does not say
// which of the two walls it is of.
func (w Wall) Signs(t Turn) (out []string) {
	if w.Grade().Burnt() {
		if from, to := w.scorchedFrom(); w.Spots == 1 && to-from <= oneSpot {
			out = append(out, "scorch-one-spot")
		} else {
			out = append(out, "scorch-both-walls", "scorch-fence-wall", "scorch-offcut-wall")
		}
		if from, to := w.scorchedFrom(); from >= 0.5 || to <= 0.5 {
			out = append(out, "scorch-end-of-cut")
		}
	}
	if w.OnceATurn(t) {
		out = append(out, "marks-once-per-turn")
	}
	if w.Crossing {
		out = append(out, "marks-rear-arcs")
	}
	return out
}

// OnceATurn reports whether the marks lie a turn of the blade apart.
func (w Wall) OnceATurn(t Turn) bool {
	return w.Spacing > 0 && t.Turn > 0 && math.Abs(w.Spacing/t.Turn-1) <= sameMarks
}

// scorchedFrom is from where to where along the wall anything is scorched, in shares.
func (w Wall) scorchedFrom() (from, to float64) {
	from, to = 1, 0
	for i, v := range w.Along {
		if v > 0.05 {
			from, to = min(from, float64(i)/Parts), max(to, float64(i+1)/Parts)
		}
	}
	return from, to
}

// Says is what was seen, in sentences, with what it may mean.
func (w Wall) Says(t Turn) (out []say.Line) {
	if TrustIn(w.CornersSure) == Doubtful {
		out = append(out, say.Of("it isn't certain where the cut edge ends. Check the frame and drag its corners onto it"))
	}
	switch {
	case w.Spacing > 0 && w.OnceATurn(t):
		out = append(out, say.Of("marks every %s, one per turn of the blade: one tooth sticks out, or the blade wobbles", say.Thin(w.Spacing)))
	case w.Spacing > 0 && t.Turn > 0:
		out = append(out, say.Of("marks every %s. One per turn would be every %s", say.Thin(w.Spacing), say.Thin(t.Turn)))
	case w.Spacing > 0:
		out = append(out, say.Of("marks every %s", say.Thin(w.Spacing)))
	}
	if w.Crossing {
		out = append(out, say.Of("crossing marks: the rear of the blade cuts too, so the stock may be fed at an angle"))
	}
	return out
}

// Grade is how an edge came out, as a log has it. The bounds are our judgement.
func (e Edge) Grade() outcome.Face {
	switch deep := e.Deepest(); {
	case deep >= tornDeep || e.Share >= tornShare:
		return outcome.Torn
	case deep >= splinterDeep || e.Share >= splinterShare:
		return outcome.Splinters
	case deep > 0 || e.Fibres > 0:
		return outcome.Fuzz
	}
	return outcome.None
}

// Signs are those of Trace that an edge shows, to be confirmed: a picture does not say
// of which face it is.
func (e Edge) Signs() []string {
	switch e.Grade() {
	case outcome.None, outcome.Fuzz:
		return nil
	}
	if e.atOneEnd() {
		return []string{"splinter-end-edge", "splinter-exit-face", "splinter-both-faces"}
	}
	return []string{"splinter-exit-face", "splinter-both-faces"}
}

// atOneEnd reports whether all splinters lie at one end, where a cut runs out.
func (e Edge) atOneEnd() bool {
	from, to := 1.0, 0.0
	for _, s := range e.Splinters {
		from, to = min(from, s.From), max(to, s.To)
	}
	return len(e.Splinters) > 0 && (to <= runsOut || from >= 1-runsOut)
}

// Says is what was seen, in sentences, with what it may mean.
func (e Edge) Says() (out []say.Line) {
	if TrustIn(e.EndsSure) == Doubtful {
		out = append(out, say.Of("it isn't certain where the edge is. Check the line and drag its ends onto it"))
	}
	switch {
	case e.Fibres == 1:
		out = append(out, say.Of("a fiber sticks out over the edge. Sand it off, and score the line with a knife before the next cut"))
	case e.Fibres > 1:
		out = append(out, say.Of("fibers stick out over the edge in %d places. Sand them off, and score the line with a knife before the next cut", e.Fibres))
	}
	if e.atOneEnd() {
		out = append(out, say.Of("everything is at one end. If the cut ended there, put a sacrificial backer behind that end"))
	}
	return out
}
