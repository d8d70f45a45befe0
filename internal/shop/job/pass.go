package job

import (
	"math"
	"slices"

	"corte/core/choose"
	"corte/core/cut"
	"corte/core/job"
	"corte/core/runsheet"
	shopchoose "corte/internal/shop/choose"
)

// leastSaved is from how many minutes another blade in the middle of the work is
// worth its trouble.
const leastSaved = 1

// passes says where blades become due, and lays a wash or another blade in where
// that costs less than going on.
func (w *weighing) passes(s Station, d runsheet.Day, steps []step) ([]step, []Pass) {
	var out []Pass
	// The blades that are still to be looked at are among those that are on, and
	// none is put on again after another has taken its place.
	var seen []int
	next := func() int {
		for _, t := range steps {
			if b := w.cols[t.col].blade; !slices.Contains(seen, b) {
				return b
			}
		}
		return -1
	}
	for b := next(); b >= 0; b = next() {
		seen = append(seen, b)
		rec := w.shelf.Blades[b]
		for c, from := rec.Condition, 0; from < len(steps); {
			var mine []int
			var uses []job.Use
			for k, t := range steps[from:] {
				if w.cols[t.col].blade == b {
					j := w.ways[t.row][t.col].job
					j.Pieces = t.pieces
					mine, uses = append(mine, from+k), append(uses, job.Use{Job: j})
				}
			}
			all := job.Passes(rec.Blade, c, uses, s.Now())
			from = len(steps)
			for _, p := range all {
				pass, after := w.decide(s, d, steps, mine, seen, p)
				out = append(out, pass)
				if after != nil {
					steps = after
				}
				if pass.Wash { // from there on it is another blade
					c = job.Washed(rec.Blade, p.Then, s.Now())
					if from = mine[p.Use]; p.Pieces > 0 {
						from++
					}
				}
				if after != nil {
					break
				}
			}
		}
	}
	return steps, out
}

// decide weighs going on past where the blade that was seen last becomes due against
// a wash there and against another blade from there on. It returns the steps after that, or nil
// where going on takes least.
func (w *weighing) decide(s Station, d runsheet.Day, steps []step, mine, seen []int, p job.Pass) (Pass, []step) {
	rec := w.shelf.Blades[seen[len(seen)-1]]
	better := p.Then
	if p.Dull {
		better.WearM2, better.ToldM2 = 0, 0
	} else {
		better = job.Washed(rec.Blade, better, s.Now())
	}
	at := mine[p.Use]
	var rows, left []int
	now, going, costs, oneSaw := 0.0, 0.0, 0.0, true
	for i, k := range mine[p.Use:] {
		t := steps[k]
		n := t.pieces
		if i == 0 {
			n -= p.Pieces
		}
		as := float64(n) * w.piece(t.row, t.col, shopchoose.State(rec.Blade, p.Then))
		now += float64(n) * w.asNow(t.row, t.col)
		going += as
		costs += as - float64(n)*w.piece(t.row, t.col, shopchoose.State(rec.Blade, better))
		rows, left, oneSaw = append(rows, t.row), append(left, n), oneSaw && t.col == steps[at].col
	}
	before := p.Pieces // of the row, as far as the sheet has it
	for _, t := range steps[:at] {
		if t.row == steps[at].row {
			before += t.pieces
		}
	}
	pass := Pass{Blade: rec.ID, BladeName: rec.Name, Row: w.rows[steps[at].row].ID, Pieces: before, Dull: p.Dull, Costs: math.Max(0, w.pace*costs)}
	goOn := minutes(d, steps) + w.pace*(going-now)
	best := goOn
	var after []step
	// A wash that is due again with the next piece would never end.
	if !p.Dull && w.pace*costs > washMin && !(p.Pieces == 0 && steps[at].wash) {
		after, _ = w.washed(steps, at, p.Pieces)
		pass.Wash, best = true, goOn-w.pace*costs+washMin
	}
	if c := w.instead(steps[at].col, rows, left, seen); oneSaw && c >= 0 {
		other := w.swapped(steps, at, p.Pieces, c)
		if takes := minutes(d, other); takes < goOn-leastSaved && takes < best {
			pass.Wash, pass.Swap, pass.Saves, after = false, w.shelf.Blades[w.cols[c].blade].Name, goOn-takes, other
		}
	}
	return pass, after
}

// instead is the blade on the same saw with which what is left of a blade's work
// takes least, among those that are kept for it and cut all of it well; -1 where
// there is none. left are the pieces of each cut, seen the blades that had their turn.
func (w *weighing) instead(not int, cuts, left, seen []int) (column int) {
	column = -1
	least := math.Inf(1)
	for c, col := range w.cols {
		if c == not || col.saw != w.cols[not].saw || slices.Contains(seen, col.blade) {
			continue
		}
		sum := 0.0
		for i, row := range cuts {
			x := w.ways[row][c]
			if !x.May || !x.Open || !x.Fits {
				sum = math.Inf(1)
				break
			}
			sum += float64(left[i]) * w.asNow(row, c)
		}
		if sum < least {
			column, least = c, sum
		}
	}
	return column
}

// asNow is what a piece of a row takes in a column with its blade as it is, without
// setting up and at the model's pace.
func (w *weighing) asNow(row, c int) float64 {
	x := w.ways[row][c]
	if !x.job.Material.Kind.Modelled() {
		return ByRule(x.job)
	}
	return x.option.Minutes.Total()
}

// piece is what a piece of a row takes with a blade in another state.
func (w *weighing) piece(row, c int, state cut.State) float64 {
	x := w.ways[row][c]
	if !x.job.Material.Kind.Modelled() {
		return ByRule(x.job)
	}
	saw := w.shelf.Saws[w.cols[c].saw]
	b := w.shelf.Blades[w.cols[c].blade]
	return cut.Work(x.job, b.Blade, choose.DriveOf(saw.Saw), state).Minutes(x.job, saw.Rework).Total()
}
