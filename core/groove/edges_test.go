package groove

import (
	"errors"
	"testing"

	"corte/core/blade"
	"corte/core/fault"
	"corte/core/measure"
	"corte/core/saw"
)

func at(err error) string {
	var f *fault.Error
	if errors.As(err, &f) {
		return f.Where
	}
	return ""
}

func ask(width, depth, edge measure.Length, count int) error {
	return Request{Width: width, Depth: depth, Edge: edge, Count: count}.Check()
}

// A search takes what a set can be, up to its bounds, and refuses the rest.
func TestSearchBounds(t *testing.T) {
	for what, tt := range map[string]struct {
		target, outer, tolerance measure.Length
		part                     Part
		ok                       bool
	}{
		"all at their most":  {60, 60, 5, Part{Thickness: 60, Count: 99}, true},
		"too wide":           {60.1, 6, 0.05, Part{Thickness: 60, Count: 1}, false},
		"too wide a pair":    {60, 60.1, 0.2, Part{Thickness: 3, Count: 1}, false},
		"too coarse":         {18, 6, 5.1, Part{Thickness: 3, Count: 9}, false},
		"a part too thick":   {18, 6, 0.05, Part{Thickness: 60.1, Count: 1}, false},
		"a part of nothing":  {18, 6, 0.05, Part{Count: 1}, false},
		"a hundred":          {18, 6, 0.05, Part{Thickness: 3, Count: 100}, false},
		"less than none":     {18, 6, 0.05, Part{Thickness: 3, Count: -1}, false},
		"the pair alone":     {6, 6.05, 0.05, Part{Thickness: 3, Count: 1}, true},
		"less than the pair": {5.99, 6.05, 0.05, Part{Thickness: 3, Count: 1}, false},
		"all together":       {9.05, 6, 0.05, Part{Thickness: 3, Count: 1}, true},
		"more than all":      {9.06, 6, 0.05, Part{Thickness: 3, Count: 1}, false},
	} {
		if _, err := Search(tt.target, tt.outer, tt.tolerance, []Part{tt.part}); (err == nil) != tt.ok {
			t.Errorf("%s: %v", what, err)
		}
	}
	kinds := make([]Part, mostKinds+1)
	for i := range kinds {
		kinds[i] = Part{Thickness: 0.1, Count: 1}
	}
	if _, err := Search(7, 6, 0.05, kinds[:mostKinds]); err != nil {
		t.Errorf("as many kinds as may be: %v", err)
	}
	if _, err := Search(7, 6, 0.05, kinds); err == nil {
		t.Error("one kind more is taken")
	}
}

// Joints, pieces and sets are taken up to their bounds and refused past them.
func TestEdges(t *testing.T) {
	for what, tt := range map[string]struct {
		err   func() error
		where string
	}{
		"a tenon of nothing":          {func() error { _, err := TenonOf(25, 0, 30, -1, 3.2); return err }, "tenon"},
		"0.2 to take off":             {func() error { _, err := TenonOf(9.2, 9, 30, -1, 3.2); return err }, ""},
		"less than that":              {func() error { _, err := TenonOf(9.19, 9, 30, -1, 3.2); return err }, "tenon"},
		"the longest tenon":           {func() error { _, err := TenonOf(25, 9, longestTenon, -1, 3.2); return err }, ""},
		"a longer one":                {func() error { _, err := TenonOf(25, 9, longestTenon+0.1, -1, 3.2); return err }, "length"},
		"as long as the kerf":         {func() error { _, err := TenonOf(25, 9, 3.2, -1, 3.2); return err }, ""},
		"shorter":                     {func() error { _, err := TenonOf(25, 9, 3.1, -1, 3.2); return err }, "length"},
		"all off one face":            {func() error { _, err := TenonOf(25, 9, 30, 16, 3.2); return err }, ""},
		"more than that":              {func() error { _, err := TenonOf(25, 9, 30, 16.1, 3.2); return err }, "way off"},
		"a board for three slots":     {func() error { _, err := BoxOf(19.2, 6.4, 0.1); return err }, ""},
		"a narrower one":              {func() error { _, err := BoxOf(19.1, 6.4, 0.1); return err }, "width"},
		"the widest board":            {func() error { _, err := BoxOf(3000, 6.4, 0.1); return err }, ""},
		"a wider one":                 {func() error { _, err := BoxOf(3000.1, 6.4, 0.1); return err }, "width"},
		"two wings":                   {func() error { s := trapdoor; s.Wings = 2; return s.Check() }, ""},
		"eight wings":                 {func() error { s := trapdoor; s.Wings = 8; return s.Check() }, ""},
		"nine":                        {func() error { s := trapdoor; s.Wings = 9; return s.Check() }, "wings"},
		"one":                         {func() error { s := trapdoor; s.Wings = 1; return s.Check() }, "wings"},
		"the thinnest outer blade":    {func() error { s := trapdoor; s.Left = 1.5; return s.Check() }, ""},
		"a thinner one":               {func() error { s := trapdoor; s.Left = 1.49; return s.Check() }, "left"},
		"the thickest":                {func() error { s := trapdoor; s.Right = 8; return s.Check() }, ""},
		"a thicker one":               {func() error { s := trapdoor; s.Right = 8.01; return s.Check() }, "right"},
		"the deepest ears":            {func() error { s := trapdoor; s.Ears = 1; return s.Check() }, ""},
		"deeper":                      {func() error { s := trapdoor; s.Ears = 1.01; return s.Check() }, "ears"},
		"a turn of 10 mm":             {func() error { s := spreader; s.Ranges = []Range{{2, 6, 12, 6, 10}}; return s.Check() }, ""},
		"a turn of 0.05 mm":           {func() error { s := spreader; s.Ranges = []Range{{2, 6, 12, 6, 0.05}}; return s.Check() }, ""},
		"less":                        {func() error { s := spreader; s.Ranges = []Range{{2, 6, 12, 6, 0.049}}; return s.Check() }, "range, turn"},
		"three ranges":                {func() error { s := spreader; s.Ranges = make([]Range, 3); return s.Check() }, "ranges"},
		"a piece of 0.3 mm":           {func() error { _, err := PieceOf([]measure.Length{0.3}); return err }, ""},
		"a thinner piece":             {func() error { _, err := PieceOf([]measure.Length{0.29}); return err }, "piece"},
		"readings as far as they may": {func() error { _, err := PieceOf([]measure.Length{18, 18 + mostSpread}); return err }, ""},
		"further":                     {func() error { _, err := PieceOf([]measure.Length{18, 18.001 + mostSpread}); return err }, "piece"},
		"the narrowest groove":        {func() error { return ask(0.5, 8, 0, 1) }, ""},
		"a narrower groove":           {func() error { return ask(0.49, 8, 0, 1) }, "piece"},
		"the widest groove":           {func() error { return ask(60, 8, 0, 1) }, ""},
		"a wider groove":              {func() error { return ask(60.1, 8, 0, 1) }, "piece"},
		"the shallowest":              {func() error { return ask(18, 0.2, 0, 1) }, ""},
		"a shallower one":             {func() error { return ask(18, 0.19, 0, 1) }, "depth"},
		"the deepest":                 {func() error { return ask(18, 150, 0, 1) }, ""},
		"a deeper one":                {func() error { return ask(18, 150.1, 0, 1) }, "depth"},
		"3 m from the edge":           {func() error { return ask(18, 8, 3000, 1000) }, ""},
		"further off":                 {func() error { return ask(18, 8, 3000.1, 1) }, "edge"},
		"beside the board":            {func() error { return ask(18, 8, -0.1, 1) }, "edge"},
		"no groove":                   {func() error { return ask(18, 8, 0, 0) }, "count"},
		"1,001 grooves":               {func() error { return ask(18, 8, 0, 1001) }, "count"},
	} {
		if where := at(tt.err()); where != tt.where {
			t.Errorf("%s: refused at %q", what, where)
		}
	}
	if p := (Piece{18 + slackSpread, 18, 3}); !p.Mind().Zero() || (Piece{18.001 + slackSpread, 18, 3}).Mind().Zero() || (Piece{18, 18, 1}).Mind().Zero() {
		t.Error("a piece that hardly varies is minded, or one that does is not")
	}
	// Readings of a test groove, at their bounds.
	f := Fitting{Want: Request{Width: 18, Depth: 8}, Stand: Stand{Height: 8}}
	for what, tt := range map[string]struct {
		widths []measure.Length
		depth  measure.Length
		where  string
	}{
		"0.4 apart":       {[]measure.Length{18, 18.4 - 1e-9}, 8, ""},
		"more":            {[]measure.Length{18, 18.41}, 8, "width"},
		"3 mm off":        {[]measure.Length{15.001}, 8, ""},
		"more than that":  {[]measure.Length{14.99}, 8, "width"},
		"5 mm deeper":     {[]measure.Length{18}, 13, ""},
		"deeper":          {[]measure.Length{18}, 13.01, "depth"},
		"depth not taken": {[]measure.Length{18}, 0, ""},
	} {
		if where := at(f.Check(tt.widths, tt.depth)); where != tt.where {
			t.Errorf("%s: refused at %q", what, where)
		}
	}
	// Right where both are near, and not before the depth is.
	for what, tt := range map[string]struct {
		tests []Test
		good  bool
	}{
		"no test":               {nil, false},
		"right":                 {[]Test{{Off: 0.05, Depth: 8.15}}, true},
		"too wide":              {[]Test{{Off: 0.051, Depth: 8}}, false},
		"too narrow":            {[]Test{{Off: -0.051, Depth: 8}}, false},
		"too deep":              {[]Test{{Depth: 8.151}}, false},
		"shy":                   {[]Test{{Depth: 7.849}}, false},
		"depth from before":     {[]Test{{Depth: 8}, {Off: 0.01}}, true},
		"depth never taken":     {[]Test{{Off: 0.01}}, false},
		"depth from before off": {[]Test{{Depth: 7}, {Off: 0.01}}, false},
	} {
		f.Tests = tt.tests
		if f.Good() != tt.good {
			t.Errorf("%s: good %v", what, f.Good())
		}
	}
	d := Set{Kind: Dialled, Ranges: []Range{{Cutters: 2, Most: 12.7, Start: 6.4, Turn: 1.25}, {Cutters: 3, Most: 20.6, Start: 12.7, Turn: 1.2}}}
	if k := d.Known(d.New()); len(k) != 4 || k[0].What.String() != "2 cutters, dial at 0" || k[3].Stamped != 1.2 || k[2].Stamped != 12.7 {
		t.Errorf("a dial's parts: %+v", k)
	}
	// A dial that stands at a range which is no longer there does not go on.
	r := Request{Width: 9, Depth: 6, Length: 300, Count: 1, Saw: saw.Saw{Kind: saw.Table, Diameter: 254, Reach: 79, ArborLength: 44, Nut: 12}}
	tool := Tool{Blade: blade.Blade{Make: blade.Dado, Diameter: 203, Bore: 15.875, Kerf: 6.4, Teeth: 24, Grind: blade.FTG}, Set: &d, Estimate: d.Believed(), Now: &Setting{Cutters: 4, Turns: 1}}
	if w := r.Ways([]Tool{tool})[0]; w.Says.Zero() || w.Verdict.String() != "stop" {
		t.Errorf("four cutters: %+v", w)
	}
	// Ears are borne to 0.03 where the bottom shows, to 0.2 where it does not.
	for ears, fits := range map[measure.Length][2]bool{0: {true, true}, 0.03: {true, true}, 0.04: {false, true}, 0.2: {false, true}, 0.21: {false, false}} {
		for i, shown := range []bool{true, false} {
			w := Way{Width: 18}
			w.set(Request{Depth: 6, Shown: shown, Saw: r.Saw}, Tool{Blade: tool.Blade, Set: &Set{Kind: Stacked, Left: 3.2, Right: 3.2, Ears: ears}})
			if w.Fits != fits[i] {
				t.Errorf("ears of %v, shown %v: fits %v", ears, shown, w.Fits)
			}
		}
	}
	// The ears of an outer blade that nobody measured stand to the other's.
	for _, tt := range []struct{ left, right, fromLeft, fromRight, want measure.Length }{
		{3.2, 3.2, 0, 6.4, 0}, {3.2, 3.2, 1.6, 4.8, 0.1}, {3.2, 3.2, 3.2, 3.2, 0.2}, {3.2, 3.2, 4.8, 1.6, 0.1},
		{3.2, 0, 1.6, 0, 0.1}, {0, 3.2, 0, 0.8, 0.05}, {0, 0, 0, 0, 0.2}, {3.2, 3.2, -1, 9, 0},
	} {
		if got := ear(tt.fromLeft, tt.fromRight, tt.left, tt.right, 0.2); got < tt.want-1e-9 || got > tt.want+1e-9 {
			t.Errorf("%+v: %v stand", tt, got)
		}
	}
	// One pass is said as one.
	one := Request{Width: 3.2, Depth: 6, Length: 300, Count: 1, Saw: r.Saw}
	rip := Tool{Blade: blade.Blade{Diameter: 254, Bore: 15.875, Kerf: 3.2, Plate: 2.2, Teeth: 24, Grind: blade.FTG}}
	if w := one.Ways([]Tool{rip})[0]; w.Says.String() != "one pass: its kerf is as wide as the groove" {
		t.Errorf("a kerf wide: %q", w.Says)
	}
	one.Width = 4
	if w := one.Ways([]Tool{rip})[0]; w.Says.String() != "2 passes, moving the fence 0.8 mm each time, overlapping the pass before by 2.4 mm" {
		t.Errorf("0.8 wider: %q", w.Says)
	}
	tool.Now = &Setting{Cutters: 3, Turns: 1}
	if w := r.Ways([]Tool{tool})[0]; w.Range != 1 || w.Turns != 1 {
		t.Errorf("three cutters: range %d, %v turns", w.Range, w.Turns)
	}
}
