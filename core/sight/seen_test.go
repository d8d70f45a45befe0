package sight

import (
	"slices"
	"testing"

	"corte/core/outcome"
)

// along is a wall that is scorched from part to part.
func along(from, to int, brown, black float64) Wall {
	w := Wall{CornersSure: 1, Brown: brown, Black: black, Spots: 1}
	for i := from; i < to; i++ {
		w.Along[i] = 1
	}
	return w
}

func TestGradesAndSigns(t *testing.T) {
	marks := along(0, 0, 0, 0)
	marks.Spacing = 0.8
	crossing := marks
	crossing.Crossing = true
	two := along(4, 14, 0.3, 0)
	two.Spots = 2
	either := []string{"scorch-both-walls", "scorch-fence-wall", "scorch-offcut-wall"}
	for name, c := range map[string]struct {
		wall  Wall
		turn  Turn
		grade outcome.Wall
		signs []string
	}{
		"clean":                 {along(0, 0, 0.019, 0), Turn{}, "clean", nil},
		"just brown":            {along(0, 1, 0.02, 0), Turn{}, "brown", []string{"scorch-one-spot", "scorch-end-of-cut"}},
		"just black":            {along(8, 12, 0, 0.01), Turn{}, "black", []string{"scorch-one-spot"}},
		"five parts, one spot":  {along(8, 13, 0.2, 0), Turn{}, "brown", []string{"scorch-one-spot"}},
		"six are more than one": {along(8, 14, 0.3, 0), Turn{}, "brown", either},
		"two spots":             {two, Turn{}, "brown", either},
		"toward an end":         {along(10, 18, 0.4, 0), Turn{}, "brown", append(slices.Clone(either), "scorch-end-of-cut")},
		"a turn, nearly":        {marks, Turn{Turn: 0.745}, "clean", []string{"marks-once-per-turn"}},
		"not a turn":            {marks, Turn{Turn: 0.735}, "clean", nil},
		"no feed known":         {marks, Turn{}, "clean", nil},
		"crossing":              {crossing, Turn{Turn: 0.8}, "clean", []string{"marks-once-per-turn", "marks-rear-arcs"}},
	} {
		if grade, signs := c.wall.Grade(), c.wall.Signs(c.turn); grade != c.grade || !slices.Equal(signs, c.signs) {
			t.Errorf("%s: %s %v, want %s %v", name, grade, signs, c.grade, c.signs)
		}
	}
	for want, w := range map[int]Wall{0: along(0, 0, 0, 0), 1: marks, 2: crossing} {
		if got := w.Says(Turn{Turn: 0.8}); len(got) != want {
			t.Errorf("%v, want %d sentences", got, want)
		}
	}
	unsure := marks
	unsure.CornersSure = 0.4
	if got := unsure.Says(Turn{}); len(got) != 2 {
		t.Errorf("unsure of its corners: %v", got)
	}
}

func TestEdgeGradesAndSigns(t *testing.T) {
	either := []string{"splinter-exit-face", "splinter-both-faces"}
	at := func(from, to, deep float64) Edge {
		return Edge{EndsSure: 1, Splinters: []Splinter{{from, to, deep}}, Share: to - from}
	}
	for name, c := range map[string]struct {
		edge  Edge
		grade outcome.Face
		signs []string
		says  int
	}{
		"nothing":             {Edge{EndsSure: 1}, "none", nil, 0},
		"one fibre":           {Edge{EndsSure: 1, Fibres: 1}, "fuzz", nil, 1},
		"just fuzz":           {at(0.4, 0.49, 0.99), "fuzz", nil, 0},
		"just splinters":      {at(0.4, 0.45, 1), "splinters", either, 0},
		"wide, not deep":      {at(0.4, 0.51, 0.5), "splinters", either, 0},
		"nearly torn":         {at(0.3, 0.64, 2.99), "splinters", either, 0},
		"torn":                {at(0.4, 0.45, 3), "torn", either, 0},
		"torn all along":      {at(0.3, 0.65, 0.5), "torn", either, 0},
		"at the end":          {at(0.88, 0.95, 2), "splinters", append([]string{"splinter-end-edge"}, either...), 1},
		"at the other end":    {at(0.05, 0.12, 2), "splinters", append([]string{"splinter-end-edge"}, either...), 1},
		"not quite the end":   {at(0.87, 0.95, 2), "splinters", either, 0},
		"isn't certain where": {Edge{EndsSure: 0.4}, "none", nil, 1},
		"fibres, and at end":  {Edge{EndsSure: 1, Fibres: 2, Splinters: []Splinter{{0.9, 0.95, 0.4}}, Share: 0.05}, "fuzz", nil, 2},
	} {
		if grade, signs, says := c.edge.Grade(), c.edge.Signs(), c.edge.Says(); grade != c.grade || !slices.Equal(signs, c.signs) || len(says) != c.says {
			t.Errorf("%s: %s %v, %v", name, grade, signs, says)
		}
	}
}

func TestRunsAndSplits(t *testing.T) {
	for name, c := range map[string]struct {
		v     []float64
		gap   int
		runs  [][2]int
		parts [][2]int // of all of it, from 1 on
	}{
		"one":                    {[]float64{0, 1, 2, 1, 0}, 1, [][2]int{{1, 4}}, [][2]int{{0, 5}}},
		"a single place is none": {[]float64{0, 3, 0, 0}, 1, nil, [][2]int{{0, 4}}},
		"a gap is closed":        {[]float64{1, 1, 0, 1, 1}, 2, [][2]int{{0, 5}}, [][2]int{{0, 5}}},
		"a gap is not":           {[]float64{1, 1, 0, 0, 1, 1}, 2, [][2]int{{0, 2}, {4, 6}}, [][2]int{{0, 6}}},
		"two peaks":              {[]float64{4, 8, 3, 8, 4}, 1, [][2]int{{0, 5}}, [][2]int{{0, 2}, {2, 5}}},
		"hardly two":             {[]float64{4, 8, 4.5, 8, 4}, 1, [][2]int{{0, 5}}, [][2]int{{0, 5}}},
		"of the lesser":          {[]float64{2, 9, 1.9, 4, 1.8, 6, 2}, 1, [][2]int{{0, 7}}, [][2]int{{0, 2}, {2, 4}, {4, 7}}},
	} {
		if got := runs(c.v, 1, c.gap); !slices.Equal(got, c.runs) {
			t.Errorf("%s: runs %v, want %v", name, got, c.runs)
		}
		if got := split(c.v, 1); !slices.Equal(got, c.parts) {
			t.Errorf("%s: split %v, want %v", name, got, c.parts)
		}
	}
}
