package job

import (
	"slices"

	"corte/core/runsheet"
)

// A step is pieces of a row that a blade cuts without a break. Its minutes are
// those of the blade as it is now, as all of the sheet's are.
type step struct {
	stage, saw, col int // as the day has them
	row             int // of the weighing
	pieces          int
	minutes         float64
	wash            bool // its blade is washed before it
}

// steps are a plan's cuts in their order.
func (w *weighing) steps(plan runsheet.Sheet, rows []int) []step {
	var out []step
	for _, t := range plan.Turns {
		for _, c := range t.Cuts {
			row := rows[c]
			out = append(out, step{stage: t.Stage, saw: t.Saw, col: t.Blade, row: row, pieces: w.left[row], minutes: w.ways[row][t.Blade].minutes})
		}
	}
	return out
}

// takes is what so many pieces of a row take in a column, set up unless they go
// on from pieces before them.
func (w *weighing) takes(row, col, pieces int, goOn bool) float64 {
	x, share := w.ways[row][col], float64(pieces)/float64(w.left[row])
	set := x.setUp
	switch {
	case w.shelf.Saws[w.cols[col].saw].Kind.HandHeld():
		set *= share
	case goOn:
		set = 0
	}
	return (x.minutes-w.pace*x.setUp)*share + w.pace*set
}

// parted is steps with one of them parted after so many of its pieces, and where
// the second part stands. After none it is the step itself.
func (w *weighing) parted(steps []step, k, pieces int) ([]step, int) {
	if pieces == 0 {
		return slices.Clone(steps), k
	}
	first, second := steps[k], steps[k]
	first.pieces, second.pieces, second.wash = pieces, second.pieces-pieces, false
	second.minutes = w.takes(second.row, second.col, second.pieces, true)
	first.minutes -= second.minutes
	return slices.Concat(steps[:k], []step{first, second}, steps[k+1:]), k + 1
}

// washed is steps with the blade of one washed after so many of its pieces.
func (w *weighing) washed(steps []step, k, pieces int) ([]step, int) {
	out, at := w.parted(steps, k, pieces)
	out[at].wash = true
	return out, at
}

// swapped is steps with another column for all that is left of one's blade after
// so many of its pieces.
func (w *weighing) swapped(steps []step, k, pieces, col int) []step {
	out, at := w.parted(steps, k, pieces)
	for i, from := at, out[at].col; i < len(out); i++ {
		if t := &out[i]; t.col == from {
			t.col, t.minutes = col, w.takes(t.row, col, t.pieces, false)
		}
	}
	return out
}

// A spell is steps that follow each other with one blade: a turn of the sheet.
type spell struct {
	runsheet.Spell
	col     int
	changed bool
	steps   []step
}

// spells parts steps where another blade is put on, and where one is washed.
func spells(d runsheet.Day, steps []step) []spell {
	var out []spell
	on := slices.Clone(d.Mounted)
	for i, t := range steps {
		if i == 0 || t.wash || t.col != steps[i-1].col || t.saw != steps[i-1].saw || t.stage != steps[i-1].stage {
			s := spell{Spell: runsheet.Spell{Stage: t.stage, Saw: t.saw}, col: t.col, changed: on[t.saw] != t.col}
			if s.changed {
				s.BeforeMin = d.PutOn(t.col)
			}
			if t.wash {
				s.BeforeMin += washMin
			}
			on[t.saw] = t.col
			out = append(out, s)
		}
		last := &out[len(out)-1]
		last.steps, last.CutMin = append(last.steps, t), last.CutMin+t.minutes
	}
	return out
}

// minutes is what steps take with what comes between them, one after the other.
func minutes(d runsheet.Day, steps []step) (sum float64) {
	for _, s := range spells(d, steps) {
		sum += s.BeforeMin + s.CutMin
	}
	return sum
}
