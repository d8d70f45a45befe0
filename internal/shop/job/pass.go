package job

import (
	"math"

	"corte/core/choose"
	"corte/core/cut"
	"corte/core/job"
	"corte/core/runsheet"
	shopchoose "corte/internal/shop/choose"
)

// passes says where blades become due, and whether a wash there pays.
func (w *weighing) passes(s Station, d runsheet.Day, plan runsheet.Sheet, rows []int) []Pass {
	uses := map[int][]job.Use{}
	cuts := map[int][]int{}
	col := map[int]int{}
	var order []int
	for _, t := range plan.Turns {
		b := w.cols[t.Blade].blade
		if uses[b] == nil {
			order = append(order, b)
		}
		col[b] = t.Blade
		for _, c := range t.Cuts {
			uses[b] = append(uses[b], job.Use{Job: w.ways[rows[c]][t.Blade].job})
			cuts[b] = append(cuts[b], rows[c])
		}
	}
	var out []Pass
	for _, b := range order {
		rec := w.shelf.Blades[b]
		for _, p := range job.Passes(rec.Blade, rec.Condition, uses[b], s.Now()) {
			better := p.Then
			if p.Dull {
				better.WearM2 = 0
			} else {
				better = job.Washed(rec.Blade, better, s.Now())
			}
			costs, going := 0.0, 0.0
			left := make([]int, 0, len(uses[b])-p.Use)
			for i := p.Use; i < len(uses[b]); i++ {
				n := uses[b][i].Job.Count()
				if i == p.Use {
					n -= p.Pieces
				}
				left = append(left, n)
				as := float64(n) * w.piece(cuts[b][i], col[b], shopchoose.State(rec.Blade, p.Then))
				going += as
				costs += as - float64(n)*w.piece(cuts[b][i], col[b], shopchoose.State(rec.Blade, better))
			}
			pass := Pass{Blade: rec.ID, BladeName: rec.Name, Row: w.rows[cuts[b][p.Use]].ID, Pieces: p.Pieces, Dull: p.Dull,
				Wash: !p.Dull && costs > washMin, Costs: math.Max(0, costs)}
			if c, minutes := w.instead(col[b], cuts[b][p.Use:], left); c >= 0 {
				saves := going - minutes - d.ChangeMin[d.Saw[c]]
				if saves > leastSaved && (!pass.Wash || saves > costs-washMin) {
					pass.Wash, pass.Swap, pass.Saves = false, w.shelf.Blades[w.cols[c].blade].Name, saves
				}
			}
			out = append(out, pass)
		}
	}
	return out
}

// leastSaved is from how many minutes a change in the middle of the work is worth
// a word.
const leastSaved = 1

// instead is the blade on the same saw with which what is left of a blade's work
// takes least, among those that are kept for it and cut all of it well, and what
// it takes; -1 where there is none. left are the pieces of each cut.
func (w *weighing) instead(not int, cuts, left []int) (column int, minutes float64) {
	column, minutes = -1, math.Inf(1)
	for c, col := range w.cols {
		if c == not || col.saw != w.cols[not].saw {
			continue
		}
		sum := 0.0
		for i, row := range cuts {
			x := w.ways[row][c]
			if !x.May || !x.Open || !x.Fits {
				sum = math.Inf(1)
				break
			}
			one := x.option.Minutes.Total()
			if !x.job.Material.Kind.Modelled() {
				one = ByRule(x.job)
			}
			sum += float64(left[i]) * one
		}
		if sum < minutes {
			column, minutes = c, sum
		}
	}
	return column, minutes
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
