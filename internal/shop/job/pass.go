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
func (w *weighing) passes(s Station, plan runsheet.Sheet, rows []int) []Pass {
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
			costs := 0.0
			for i := p.Use; i < len(uses[b]); i++ {
				n := uses[b][i].Job.Count()
				if i == p.Use {
					n -= p.Pieces
				}
				costs += float64(n) * (w.piece(cuts[b][i], col[b], shopchoose.State(rec.Blade, p.Then)) - w.piece(cuts[b][i], col[b], shopchoose.State(rec.Blade, better)))
			}
			out = append(out, Pass{Blade: rec.ID, BladeName: rec.Name, Row: w.rows[cuts[b][p.Use]].ID, Pieces: p.Pieces, Dull: p.Dull,
				Wash: !p.Dull && costs > washMin, Costs: math.Max(0, costs)})
		}
	}
	return out
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
