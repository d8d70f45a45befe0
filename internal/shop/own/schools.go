package own

import (
	"math"

	"corte/core/blade"
	"corte/core/choose"
	"corte/core/cut"
	"corte/core/own"
	"corte/core/say"
	"corte/internal/record"
	shopchoose "corte/internal/shop/choose"
)

// A Several is what the work takes with a blade more, out of those that are owned.
type Several struct {
	Blade  record.Blade
	Undone int     // pieces that still cannot be made
	Total  float64 // minutes of those that can
}

// mostSeveral is how many blades are asked about, one after the other.
const mostSeveral = 8

// several begins with nothing and takes one owned blade after the other, for as
// long as the next saves more than a change.
func (w weighed) several() ([]Several, error) {
	steps, err := own.First(w.Work, w.owned(), mostSeveral, func([]int, int) bool { return false })
	if err != nil {
		return nil, err
	}
	out := []Several{}
	for _, x := range steps {
		out = append(out, Several{w.blades[x.Blade], x.Undone, x.Total})
	}
	return out, nil
}

// A Kerf is what all of the work on a saw comes to with thin blades or with full
// ones, each cut with the teeth of the owned blade that is best for it.
type Kerf struct {
	Minutes float64
	Dust    float64 // liters of wood
	Cannot  int     // pieces that it may not or cannot cut well
}

// Kerfs are both kerfs on one saw.
type Kerfs struct {
	Saw        record.Saw
	Pieces     int // that both can cut
	Thin, Full Kerf
}

// Says judges thin against full on a saw. With an hour's worth it says from what
// price of wood thin pays for a slower feed.
func (k Kerfs) Says(hour float64) say.Line {
	wood, minutes := k.Full.Dust-k.Thin.Dust, k.Thin.Minutes-k.Full.Minutes
	name := say.Word(k.Saw.Name)
	switch {
	case k.Thin.Cannot > k.Full.Cannot:
		return say.Of("%s: full kerf; thin cannot cut %d pieces of it", name, k.Thin.Cannot-k.Full.Cannot)
	case k.Full.Cannot > k.Thin.Cannot:
		return say.Of("%s: thin kerf; full cannot cut %d pieces of it", name, k.Full.Cannot-k.Thin.Cannot)
	case k.Pieces == 0:
		return say.Of("%s: neither kerf cuts any of it", name)
	case minutes <= 0:
		return say.Of("%s: thin kerf saves %.1f liters of wood and %s", name, wood, choose.Took(-minutes))
	case hour > 0:
		return say.Of("%s: thin kerf saves %.1f liters of wood and takes %s longer; it pays where a liter costs more than %.2f", name, wood, choose.Took(minutes), minutes/60*hour/wood)
	}
	return say.Of("%s: thin kerf saves %.1f liters of wood and takes %s longer", name, wood, choose.Took(minutes))
}

// thinFull is a piece of one kind of cut with both kerfs; a cut that cannot be
// made well at any feed has no minutes.
func thinFull(r choose.Request, b blade.Blade) (both [2]Kerf) {
	rack := make([]choose.Candidate, 2)
	for i := range rack {
		v := choose.WithKerf(b, i == 0)
		rack[i] = choose.Candidate{Blade: v, State: shopchoose.State(v, record.Blade{}.Condition)}
		both[i] = Kerf{Minutes: math.Inf(1), Dust: r.Job.CutLength().Mm() * r.Job.Swept().Mm() * v.Kerf.Mm() / 1e6}
	}
	for _, o := range choose.Rank(r, rack).Fit {
		if shopchoose.WayOf(o, true).Open {
			both[o.Index].Minutes = o.Minutes.Total()
		}
	}
	return both
}

// kerfs sums both kerfs over the work, saw by saw.
func (w weighed) kerfs(saws []record.Saw) []Kerfs {
	out := []Kerfs{}
	for at, saw := range saws {
		k := Kerfs{Saw: saw}
		met := false
		for _, row := range w.Rows {
			if w.Saw[row.Kind] != at || w.both[row.Kind] == nil {
				continue
			}
			met = true
			n := float64(row.Pieces)
			both := w.both[row.Kind]
			thin, full := !math.IsInf(both[0].Minutes, 1), !math.IsInf(both[1].Minutes, 1)
			if !thin {
				k.Thin.Cannot += row.Pieces
			}
			if !full {
				k.Full.Cannot += row.Pieces
			}
			if thin && full {
				k.Pieces += row.Pieces
				k.Thin.Minutes, k.Thin.Dust = k.Thin.Minutes+n*both[0].Minutes, k.Thin.Dust+n*both[0].Dust
				k.Full.Minutes, k.Full.Dust = k.Full.Minutes+n*both[1].Minutes, k.Full.Dust+n*both[1].Dust
			}
		}
		if met {
			out = append(out, k)
		}
	}
	return out
}

// through reports whether a cut's kerf is a matter of wood and power alone.
func through(j cut.Job) bool { return j.Form == cut.Through && j.Material.Kind.Modelled() }
