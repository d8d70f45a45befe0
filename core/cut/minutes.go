package cut

// Minutes is what one piece takes, part by part: model section 7b. It is the
// one unit in which feed, rework and changes of blade can be weighed against
// each other.
type Minutes struct {
	Handling float64 // taking it up, laying it on, putting it away
	Feeding  float64
	Burn     float64 // sanding or scraping walls that browned, over many pieces
	Edge     float64 // mending splintered edges
	Wall     float64 // taking off the marks of teeth
}

// Total is what the piece takes in all.
func (m Minutes) Total() float64 { return m.Handling + m.Rework() + m.Feeding }

// Rework is what has to be put right after the cut.
func (m Minutes) Rework() float64 { return m.Burn + m.Edge + m.Wall }

// Minutes of rework a metre by finish, and of handling a piece: judgement, and
// the shop's to set by a factor.
var (
	burnMinutes = [...]float64{Rough: 0, Hidden: 0.3, Show: 2, Fine: 4}
	edgeMinutes = [...]float64{Rough: 0, Hidden: 0.5, Show: 3, Fine: 6}
	wallMinutes = [...]float64{Rough: 0, Hidden: 0.2, Show: 2, Fine: 4}
)

const (
	handlingRip   = 0.5
	handlingCross = 0.3
)

// Minutes works out what a piece takes at the acting feed. rework is how the
// shop's own mending compares with the usual: 1 for the usual, 0 the same.
func (f Figures) Minutes(j Job, rework float64) Minutes {
	if rework == 0 {
		rework = 1
	}
	m := Minutes{Handling: handlingRip, Feeding: j.FeedLength().Mm() / 1000 / float64(f.Acting.Feed)}
	if j.Direction.Across() {
		m.Handling = handlingCross
	}
	edge := j.WallLength().Mm() / 1000
	walls := 2 * edge
	m.Burn = rework * f.Acting.Burn * walls * burnMinutes[j.Finish]
	m.Edge = rework * past(f.Acting.Worst/j.SplinterLimit()) * edge * edgeMinutes[j.Finish]
	if limit := j.Finish.WallLimit(); limit > 0 {
		m.Wall = rework * past(float64(f.Acting.WallMark/limit)) * walls * wallMinutes[j.Finish]
	}
	return m
}

// past is the share of pieces that need mending where a figure stands at a
// ratio to its limit: half of them at the limit itself.
func past(ratio float64) float64 {
	if ratio <= 0 {
		return 0
	}
	six := square(ratio * ratio * ratio)
	return six / (1 + six)
}

// WorstFace is the most splintering of the faces that matter, 0 where none does.
func (f Figures) WorstFace() float64 {
	worst := 0.0
	for _, face := range [...]Face{f.Exit, f.Other} {
		if face.Matters {
			worst = max(worst, face.Splinter)
		}
	}
	return worst
}
