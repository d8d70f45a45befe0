// Package practice has the drills: tasks with their answers, and a simulated
// cut. From how a piece of work is pushed it works out the cut edge, millimeter
// by millimeter, with the model that Choose uses (core/cut). The same push over
// the same board always gives the same edge.
package practice

import (
	"errors"
	"fmt"
	"math"
	"time"

	"corte/core/blade"
	"corte/core/cut"
	"corte/core/measure"
)

// A Setup is what a push is made on.
type Setup struct {
	Job   cut.Job
	Blade blade.Blade
	Drive cut.Drive
	State cut.State
	// Board is which of all boards of its material it is, over 0 and under 1: the
	// share of them that scorch sooner. The model says of how many a wall browns
	// at a dose (model section 3); of one board it is so or not.
	Board float64
}

// Figures is what the model foretells of it at the suggested feed.
func (s Setup) Figures() cut.Figures { return cut.Work(s.Job, s.Blade, s.Drive, s.State) }

// At is the same at another feed.
func (s Setup) At(feed measure.Feed) cut.Figures {
	return cut.WorkAt(s.Job, s.Blade, s.Drive, s.State, feed)
}

// A Moment is where the work was at a time.
type Moment struct {
	At  time.Duration  // from when the push began
	Pos measure.Length // of the board's front edge past where the blade first meets it
}

// A Step is one millimetre of the wall.
type Step struct {
	Feed     measure.Feed
	Load     float64 // of the power limit
	Scorch   float64 // heat over what this board bears: over 1 it is brown, over 2 black
	Splinter float64 // of the face that matters most, over what the finish bears
	Mark     float64 // depth of the marks over what the finish bears; 0 where it bears any
}

// A Wall is what a push left behind.
type Wall struct {
	Steps []Step // from where the cut began; as many as were cut
	Took  time.Duration
	// Stalled says that the motor stopped: there the cut ends.
	Stalled bool
	// Back says that the work was drawn back against the blade, which throws it.
	Back bool

	Browned   int // steps
	Splinters int
	Marked    int
	Whole     bool // the blade went through to the end
}

// Clean reports whether nothing of it would have to be sanded or cut again.
func (w Wall) Clean() bool {
	return w.Whole && w.Browned == 0 && w.Splinters == 0 && w.Marked == 0
}

// ErrMoments is what errors of a push that cannot be followed wrap.
var ErrMoments = errors.New("can't follow the push")

// A motor that is asked for so much of its power limit for so long gives up;
// judgement.
const (
	StallLoad = 2.5
	StallTime = 300 * time.Millisecond
)

const (
	mostSteps = 20000 // millimetres
	sweepMin  = 4     // mm along which a wall takes up heat, at least
)

// Feed works out the wall of a push. Moments must follow one another in time;
// the work stands still before the first and after the last. Where it is drawn
// back the wall is not cut again: what was cut stands, and the time counts for
// where the blade is.
func Feed(s Setup, push []Moment) (Wall, error) {
	if !(s.Board > 0 && s.Board < 1) {
		return Wall{}, fmt.Errorf("%w: board %g is not between 0 and 1", ErrMoments, s.Board)
	}
	length := int(math.Ceil(s.Job.FeedLength().Mm()))
	if length < 1 || length > mostSteps {
		return Wall{}, fmt.Errorf("%w: a cut of %d mm; from 1 to %d can be practised", ErrMoments, length, mostSteps)
	}
	var w Wall
	at, back, err := times(push, length)
	if err != nil {
		return Wall{}, err
	}
	w.Back = back
	if len(push) > 0 {
		w.Took = push[len(push)-1].At - push[0].At
	}
	k := newBoard(s)
	hot := time.Duration(0) // for how long the motor has been asked too much
	w.Steps = make([]Step, 0, len(at))
	for _, spent := range at {
		st := k.step(measure.Feed(60 / max(spent.Seconds(), 1e-4) / 1000)) // a millimetre in that time
		if hot += spent; st.Load < StallLoad {
			hot = 0
		}
		w.Steps = append(w.Steps, st)
		if hot >= StallTime {
			w.Stalled = true
			break
		}
	}
	w.Whole = !w.Stalled && len(w.Steps) == length
	k.spread(w.Steps)
	for _, st := range w.Steps {
		if st.Scorch > 1 {
			w.Browned++
		}
		if st.Splinter > 1 {
			w.Splinters++
		}
		if st.Mark > 1 {
			w.Marked++
		}
	}
	return w, nil
}

// times says how long the blade was in each millimetre that was cut.
func times(push []Moment, length int) (at []time.Duration, back bool, err error) {
	if len(push) == 0 {
		return nil, false, nil
	}
	front := math.Max(0, push[0].Pos.Mm()) // as far as it has been cut
	if front >= 1 {
		return nil, false, fmt.Errorf("%w: it begins %.0f mm into the cut", ErrMoments, front)
	}
	spend := func(mm int, d float64) {
		for len(at) <= mm {
			at = append(at, 0)
		}
		at[mm] += time.Duration(d)
	}
	for i := 1; i < len(push); i++ {
		was, now := push[i-1], push[i]
		span := now.At - was.At
		if span < 0 || math.IsNaN(now.Pos.Mm()) || math.IsInf(now.Pos.Mm(), 0) {
			return nil, false, fmt.Errorf("%w: moment %d is %v after the one before it, at %v", ErrMoments, i, span, now.Pos)
		}
		to := min(now.Pos.Mm(), float64(length))
		if back = back || now.Pos < was.Pos && was.Pos > 0; to <= front || span == 0 {
			if front > 0 && front < float64(length) { // it stands, or is drawn back, against the blade
				spend(int(front), float64(span))
			}
			front = max(front, to)
			continue
		}
		// Only what lies beyond the cut is cut, in its share of the time.
		travelled := now.Pos.Mm() - was.Pos.Mm()
		if spare := front - was.Pos.Mm(); spare > 0 && was.Pos.Mm() > 0 {
			spend(int(front), float64(span)*spare/travelled)
		}
		for front < to {
			next := min(math.Floor(front)+1, to)
			spend(int(front), float64(span)*(next-front)/travelled)
			front = next
		}
	}
	// A millimetre that was only begun is not cut.
	if n := int(front); n < len(at) && front < float64(length) {
		at = at[:n]
	}
	return at, back, nil
}

// A board is what does not change along the cut.
type board struct {
	Setup
	bears    float64 // dose that it bears, over the model's own
	splinter float64
	mark     float64
	sweep    int // mm along which a wall takes up heat
}

func newBoard(s Setup) board {
	e := cut.Engage(s.Job, s.Blade)
	return board{
		Setup: s,
		// Of the boards that scorch at q the share is 1/(1 + (qs/q)^4): the dose at
		// which the one does that has a share of Board before it.
		bears:    math.Pow(s.Board/(1-s.Board), 0.25),
		splinter: s.Job.SplinterLimit(),
		mark:     s.Job.Finish.WallLimit().Mm(),
		sweep:    max(sweepMin, int(math.Round(e.Arc.Mm()*e.PushShare/8))),
	}
}

func (b board) step(feed measure.Feed) Step {
	f := b.At(feed)
	st := Step{Feed: feed, Load: f.Load}
	st.Scorch = f.Dose / f.BurnDose / b.bears
	for _, face := range []cut.Face{f.Exit, f.Other} {
		if face.Matters {
			st.Splinter = max(st.Splinter, face.Splinter/b.splinter)
		}
	}
	if b.mark > 0 {
		st.Mark = f.WallMark.Mm() / b.mark
	}
	return st
}

// spread evens heat out along the wall as far as the teeth that make it reach: a
// tremble of the hand browns nothing.
func (b board) spread(steps []Step) {
	sums := make([]float64, len(steps)+1)
	for i, st := range steps {
		sums[i+1] = sums[i] + st.Scorch
	}
	for i := range steps {
		from, to := max(0, i-b.sweep/2), min(len(steps), i+b.sweep/2+1)
		steps[i].Scorch = (sums[to] - sums[from]) / float64(to-from)
	}
}

func seconds(s float64) time.Duration { return time.Duration(s * float64(time.Second)) }
