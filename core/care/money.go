package care

import (
	"cmp"
	"math"
	"slices"

	"corte/core/blade"
)

// CostPerMetre of a blade over all its lives: its price and its sharpenings
// over the metres that it cuts (model section 9).
func CostPerMetre(price, sharpening float64, sharpenings int, lifeM float64) float64 {
	n := float64(sharpenings)
	return (price + n*sharpening) / (lifeM * (n + 1))
}

// What an edge cuts where a blade has cut too little to tell by itself: middling
// board in mixed work.
const (
	usualAbrasion  = 1.5
	usualThickness = 0.020 // m
	enoughToTell   = 0.02  // m² a tooth
)

// LifeM is how many metres of its usual work one sharp edge of a blade lasts.
func (c Condition) LifeM(b blade.Blade) float64 {
	if c.WearM2 > enoughToTell {
		return c.LifeM2(b.Grind) / c.WearM2 * c.MetresSharp
	}
	return c.LifeM2(b.Grind) * float64(b.Teeth) / (usualAbrasion * usualThickness)
}

// A Plan of owning: a blade of a price that is sharpened so many times and
// then bought anew.
type Plan struct {
	Price       float64
	Sharpening  float64
	Sharpenings int
	LifeM       float64 // metres that one sharp edge lasts
}

// Spent is what a plan has cost by the time it has cut so many metres: an edge
// is paid for when it is begun.
func (p Plan) Spent(metres float64) float64 {
	edges := max(1, math.Ceil(metres/p.LifeM-1e-9))
	blades := math.Ceil(edges / float64(p.Sharpenings+1))
	return blades*p.Price + (edges-blades)*p.Sharpening
}

// A Point of a cost drawn against metres.
type Point struct{ Metres, A, B float64 }

// Known reports whether there is a life to reckon with.
func (p Plan) Known() bool { return p.LifeM > 0 && !math.IsInf(p.LifeM, 1) }

// Compare draws what two plans have cost by every metre at which one of them
// pays, up to most metres, and finds the metres from which a costs less than b
// for good as far as is drawn: 0 if from the start, and false if never. Nothing
// is drawn of a plan whose life is not known.
func Compare(a, b Plan, most float64) (line []Point, from float64, ever bool) {
	if !a.Known() || !b.Known() {
		return nil, 0, false
	}
	at := map[float64]bool{0: true, most: true}
	for _, p := range []Plan{a, b} {
		for x := p.LifeM; x < most && len(at) < maxPoints; x += p.LifeM {
			at[x] = true
		}
	}
	for x := range at {
		past := min(x+hair, most) // at the end nothing new is begun
		line = append(line, Point{x, a.Spent(past), b.Spent(past)})
	}
	sortPoints(line)
	for i := len(line) - 1; i >= 0 && line[i].A <= line[i].B; i-- {
		from, ever = line[i].Metres, true
	}
	return line, from, ever
}

const (
	maxPoints = 600
	hair      = 1e-6 // past a step, so that its cost is in
)

func sortPoints(line []Point) {
	slices.SortFunc(line, func(a, b Point) int { return cmp.Compare(a.Metres, b.Metres) })
}
