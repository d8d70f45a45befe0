package groove

import (
	"errors"
	"fmt"
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"corte/core/blade"
	"corte/core/fault"
	"corte/core/measure"
	"corte/core/saw"
	"corte/core/say"
	"corte/core/verdict"
)

var trapdoor = Set{Left: 3.2, Right: 3.2, Wings: 2, Parts: []Part{{3.2, 2, false}, {2.4, 1, false}, {1.6, 2, false},
	{0.5, 1, true}, {0.25, 2, true}, {0.1, 4, true}, {0.05, 2, true}}}

var spreader = Set{Kind: Dialled, Build: saw.Right, Ranges: []Range{
	{2, 6.4, 12.7, 6.4, 1.2}, {3, 12.7, 20.6, 12.7, 1.2}}}

// A set with hidden errors is learnt from a dozen grooves, each measured at
// three places: what a stack will make is then foretold to a hundredth.
func TestPartsAreLearnt(t *testing.T) {
	for _, readings := range []int{1, 3} {
		dice := rand.New(rand.NewPCG(3, 30))
		miss, sets := 0.0, 60
		for range sets {
			truth := make([]float64, 1+len(trapdoor.Parts))
			for i := range truth {
				truth[i] = partSD * dice.NormFloat64()
			}
			makes := func(use []float64) (w measure.Length) {
				for i, n := range use {
					w += measure.Length(n * truth[i])
				}
				return w
			}
			b := trapdoor.Believed()
			var uses [][]float64
			for range 12 {
				s, err := trapdoor.Stack(b, measure.Length(7+11*dice.Float64()))
				if err != nil {
					t.Fatal(err)
				}
				use := trapdoor.Use(s.Counts)
				found := makes(use) + measure.Length(measureSD/math.Sqrt(float64(readings))*dice.NormFloat64())
				b = b.Measured(use, 0, found, readings)
				uses = append(uses, use)
			}
			for _, use := range uses {
				mean, _ := b.Foretold(use)
				miss += math.Pow((mean-makes(use)).Mm(), 2) / float64(sets*len(uses))
			}
			for i := range truth {
				if b.SD(i) > partSD+1e-12 {
					t.Fatalf("part %d is known to %v after a dozen grooves", i, b.SD(i))
				}
			}
		}
		rms := math.Sqrt(miss)
		t.Logf("%d readings a groove: after a dozen a stack is foretold to %.4f mm (root mean square)", readings, rms)
		if readings == 3 && rms > 0.01 || rms > 0.016 {
			t.Errorf("%d readings a groove: foretold to %.4f mm", readings, rms)
		}
	}
}

func TestWearAndSharpeningForget(t *testing.T) {
	b := trapdoor.Believed()
	for range 8 {
		b = b.Measured(trapdoor.Use([]int{1, 0, 0, 0, 1, 0, 0}), 0, 0.06, 3)
	}
	sharp := b.Renewed(0)
	if sharp.Mean[0] != 0 || sharp.SD(0) != partSD || sharp.Mean[1] != b.Mean[1] {
		t.Errorf("sharpened, the outer pair is held to be %v off, within %v", sharp.Mean[0], sharp.SD(0))
	}
	worn := b.Worn(400, trapdoor.Toothed)
	switch {
	case worn.SD(0) <= b.SD(0) || worn.Mean[0] != b.Mean[0]:
		t.Errorf("400 m on, the outer pair is known to %v, before to %v", worn.SD(0), b.SD(0))
	case worn.SD(5) != b.SD(5):
		t.Error("a shim wears")
	case b.Worn(1e7, trapdoor.Toothed).SD(0) > partSD+1e-12:
		t.Error("wear makes a part less known than a new one")
	}
}

// Chippers stand in gullets of their own, touch nothing, and shims are spread.
func TestOrderOnTheArbor(t *testing.T) {
	for teeth := 12; teeth <= 48; teeth += 2 {
		for _, wings := range []int{2, 4} {
			for n := 1; n <= 7; n++ {
				turned, ok := Clock(n, wings, teeth)
				wing, tooth := Nearest(turned, wings, teeth)
				if !ok {
					if teeth%wings == 0 && n <= teeth/wings {
						t.Errorf("%d chippers of %d wings have no place in %d teeth", n, wings, teeth)
					}
					continue
				}
				if pitch := 360 / float64(teeth); tooth < pitch/2-1e-9 || n > 1 && wing < pitch-1e-9 {
					t.Errorf("%d chippers of %d wings in %d teeth: wings %v° apart, %v° from a tooth", n, wings, teeth, wing, tooth)
				}
			}
		}
	}
	slots, ok := trapdoor.Order([]int{2, 1, 0, 0, 2, 1, 0}, 24)
	said := ""
	for _, s := range slots {
		said += fmt.Sprintf(" %s %v", s.What, s.Thickness.Mm())
	}
	if want := " left 3.2 shim 0.25 chipper 3.2 shim 0.25 chipper 2.4 shim 0.1 chipper 3.2 right 3.2"; said != want || !ok {
		t.Errorf("on the arbor:%s, want%s", said, want)
	}
}

// A test groove that is narrow wants shims; the chippers stay.
func TestRestackKeepsTheChippers(t *testing.T) {
	b := trapdoor.Believed()
	first, err := trapdoor.Stack(b, 18)
	if err != nil {
		t.Fatal(err)
	}
	b = b.Measured(trapdoor.Use(first.Counts), first.Width, 17.85, 3)
	next, err := trapdoor.Restack(b, 18, first.Counts)
	if err != nil || math.Abs(next.Error.Mm()) > Near.Mm() || next.Shims <= first.Shims {
		t.Fatalf("next %+v, %v", next, err)
	}
	for i, p := range trapdoor.Parts {
		if !p.Shim && next.Counts[i] != first.Counts[i] {
			t.Errorf("%v of the chipper of %v, before %v", next.Counts[i], p.Thickness, first.Counts[i])
		}
	}
}

func TestDialAnswersAWidth(t *testing.T) {
	b := spreader.Believed()
	at, turns, err := spreader.Dial(b, 18)
	if err != nil || at != 1 || math.Abs(turns-(18-12.7)/1.2) > 1e-9 {
		t.Fatalf("18 mm is range %d at %v turns, %v", at, turns, err)
	}
	// It came out wide: the next time it is turned less.
	b = b.Measured(spreader.Turned(at, turns), 18, 18.09, 3)
	if _, again, _ := spreader.Dial(b, 18); again >= turns {
		t.Errorf("after a wide groove %v turns, before %v", again, turns)
	}
	if _, _, err := spreader.Dial(b, 25); err == nil || !strings.Contains(err.Error(), "none of its ranges") {
		t.Errorf("25 mm: %v", err)
	}
}

func TestBadSetsAreNamed(t *testing.T) {
	with := func(change func(*Set)) Set {
		s := trapdoor
		s.Parts = append([]Part(nil), s.Parts...)
		change(&s)
		return s
	}
	for field, s := range map[string]Set{
		"":                  trapdoor,
		"left 0":            with(func(s *Set) { s.Left = 0 }),
		"wings 0":           with(func(s *Set) { s.Wings = 1 }),
		"part, thickness 3": with(func(s *Set) { s.Parts[3].Thickness = 1.6; s.Parts[2].Thickness = 1.7 }),
		"part, thickness 4": with(func(s *Set) { s.Parts[4].Thickness = 0.5 }),
		"part, count 5":     with(func(s *Set) { s.Parts[5].Count = 0 }),
		"range, turn 0":     {Kind: Dialled, Ranges: []Range{{2, 6, 12, 6, 0}}},
		"range, cutters 1":  {Kind: Dialled, Ranges: []Range{{2, 6, 12, 6, 1}, {2, 12, 20, 12, 1}}},
	} {
		var e *fault.Error
		if err := s.Check(); errors.As(err, &e) != (field != "") || e != nil && fmt.Sprint(e.Where, " ", e.Nth) != field {
			t.Errorf("%q: %v", field, err)
		}
	}
	// A shim as thick as a chipper is probably one.
	s := with(func(s *Set) { s.Parts[3].Thickness, s.Parts[2].Thickness = 0.9, 0.85 })
	if err := s.Check(); err == nil || !strings.Contains(err.Error(), "Is it a chipper?") {
		t.Errorf("a thick shim: %v", err)
	}
}

func TestPieces(t *testing.T) {
	for _, tt := range []struct {
		readings  []measure.Length
		bad, mind string
	}{
		{nil, "measure the piece", ""},
		{[]measure.Length{18}, "", "one place"},
		{[]measure.Length{17.8, 17.9, 17.85}, "", ""},
		{[]measure.Length{17.8, 18.2}, "", "varies by 0.4 mm"},
		{[]measure.Length{17.2, 18.2}, "to one thickness", ""},
		{[]measure.Length{-3}, "between", ""},
		{[]measure.Length{measure.Length(math.NaN())}, "between", ""},
	} {
		p, err := PieceOf(tt.readings)
		switch {
		case (err != nil) != (tt.bad != "") || err != nil && !strings.Contains(err.Error(), tt.bad):
			t.Errorf("%v: %v", tt.readings, err)
		case err == nil && (tt.mind == "") != (p.Mind().Zero()) || !strings.Contains(p.Mind().String(), tt.mind):
			t.Errorf("%v: mind %q", tt.readings, p.Mind())
		}
	}
}

var (
	long = saw.Saw{Kind: saw.Table, Diameter: 254, Arbor: 15.875, ArborLength: 44, Washer: 5, Nut: 12, DadoSets: true, Reach: 79, NutSide: saw.Left}
	outs = blade.Blade{Make: blade.Dado, Diameter: 203, Bore: 15.875, Kerf: 6.4, Teeth: 24, Grind: blade.FTG}
	flat = blade.Blade{Diameter: 254, Bore: 15.875, Kerf: 3.2, Teeth: 30, Grind: blade.FTG}
	atb  = blade.Blade{Diameter: 254, Bore: 15.875, Kerf: 3.2, Teeth: 40, Grind: blade.ATB, Bevel: 15}
)

// Few grooves are quickest in passes, many with the stack; a ridged bottom and
// a forbidden saw come last.
func TestWays(t *testing.T) {
	rack := func() []Tool {
		return []Tool{
			{Blade: outs, Set: &trapdoor, Estimate: trapdoor.Believed()},
			{Blade: atb, Mounted: true},
			{Blade: flat},
			{Blade: outs, Set: &spreader, Estimate: spreader.Believed()},
			{Blade: outs, Set: &trapdoor, Stop: say.Of("this saw's manual doesn't allow dado stacks"), WayOut: say.Of("step a flat-top blade across the groove")},
		}
	}
	r := Request{Width: 18, Depth: 8, Length: 600, Edge: 100, Count: 1, Saw: long, Change: 3}
	tools := rack()
	ways := r.Ways(tools)
	if ways[0].Tool != 2 || len(ways[0].Passes) != 7 || ways[0].Ridge != 0 {
		t.Errorf("one groove is best made with tool %d: %+v", ways[0].Tool, ways[0])
	}
	for _, w := range ways {
		switch i := w.Tool; {
		case !tools[i].Stop.Zero() && (w.Verdict != verdict.Stop || !strings.Contains(w.Says.String(), "flat-top")):
			t.Errorf("a forbidden set: %v, %s", w.Verdict, w.Says)
		case tools[i].Blade.Grind == blade.ATB && (w.Fits || w.Ridge < 0.4):
			t.Errorf("an alternate bevel leaves %v and fits: %v", w.Ridge, w.Fits)
		case tools[i].Set == &spreader && !strings.Contains(w.Says.String(), "made for a nut on the right"):
			t.Errorf("a dial set for the other arbor: %s", w.Says)
		}
	}
	r.Count = 60
	if ways = r.Ways(tools); ways[0].Tool != 0 || !strings.HasPrefix(ways[0].Pays.String(), "saves") || ways[0].Arbor.Verdict != verdict.Clear || !ways[0].Clocked {
		t.Errorf("sixty grooves are best made with tool %d: %+v", ways[0].Tool, ways[0])
	}
	if in := ways[0].Insert; math.Abs(in.Length.Mm()-2*math.Sqrt(101.5*101.5-93.5*93.5)) > 1e-9 || in.Fence < 10 {
		t.Errorf("its insert is %+v", in)
	}
	// The arbor is too short for it, unless the maker lets the washer be left off.
	r.Saw.ArborLength = 33
	if w := r.Ways(rack()[:1])[0]; w.Verdict != verdict.Stop || !strings.Contains(w.Says.String(), "doesn't have its full thread") {
		t.Errorf("on a short arbor: %v, %s", w.Verdict, w.Says)
	}
	r.Saw.WasherOff = true
	if w := r.Ways(rack()[:1])[0]; w.Verdict != verdict.Caution || !w.Arbor.WasherOff {
		t.Errorf("without the washer: %v, %s", w.Verdict, w.Arbor.Says)
	}
	r.Width = 30
	if w := r.Ways(rack()[:1])[0]; w.Verdict == verdict.Stop || len(w.Passes) != 2 || math.Abs((w.Passes[1].Fence-w.Passes[0].Fence).Mm()-13.5) > 0.02 || w.Width != 30 {
		t.Errorf("30 mm: %s", w.Says)
	}
	r.Width = 58
	if w := r.Ways(rack()[:1])[0]; w.Verdict != verdict.Stop || !strings.Contains(w.Says.String(), "more than twice") {
		t.Errorf("58 mm: %s", w.Says)
	}
}

// What cannot be is said in the reader's own unit.
func TestRefusalsSpeakTheUnit(t *testing.T) {
	for _, u := range []measure.Unit{measure.Millimetre, measure.Inch} {
		r := Request{Depth: 8, Length: 600, Count: 1, Saw: long, Change: 3}
		said := ""
		for _, width := range []measure.Length{3, 5, 19.3, 58} {
			r.Width = width
			for _, w := range r.Ways([]Tool{{Blade: outs, Set: &trapdoor, Estimate: trapdoor.Believed()}, {Blade: flat}, {Blade: outs, Set: &spreader, Estimate: spreader.Believed()}}) {
				voice := say.Voice{Unit: u}
				said += voice.Say(w.Says) + ". " + strings.Join(voice.Each(w.Needs), ". ") + voice.Say(w.Pays)
			}
		}
		if other := map[measure.Unit]string{measure.Millimetre: `"`, measure.Inch: " mm"}[u]; strings.Contains(said, other) {
			t.Errorf("to a reader of unit %v: %s", u, said)
		}
		if !strings.Contains(said, "less than the outer pair alone") || !strings.Contains(said, "more than twice as wide") || !strings.Contains(said, "in none of its ranges") {
			t.Errorf("of what cannot be it says %s", said)
		}
	}
	for _, size := range []struct{ width, kerf measure.Length }{{1e9, 3.2}, {measure.Length(math.Inf(1)), 3.2}, {5000, 3.2}} {
		if _, _, err := Passes(size.width, size.kerf, Overlap); err == nil {
			t.Errorf("%v is cut in passes", size.width)
		}
	}
}

// A blade that does not make the width that its kerf says is set right by its
// last pass, and gets a second where it had one.
func TestThePassThatMakesTheWidth(t *testing.T) {
	r := Request{Width: 12, Depth: 6, Length: 500, Edge: 30, Count: 1, Saw: long, Change: 3}
	before := r.Ways([]Tool{{Blade: flat}})[0]
	after := r.Ways([]Tool{{Blade: flat, Now: &Setting{Shift: -0.15}}})[0]
	last := len(before.Passes) - 1
	if math.Abs((before.Passes[last].Fence-after.Passes[last].Fence-0.15).Mm()) > 1e-9 || after.Passes[0] != before.Passes[0] {
		t.Errorf("the last pass goes from %+v to %+v", before.Passes[last], after.Passes[last])
	}
	if after.Width != 12 || after.Ridge != 0 {
		t.Errorf("set right, it is foretold %v wide and leaves %v", after.Width, after.Ridge)
	}
	r.Width = flat.Kerf
	for shift, passes := range map[measure.Length]int{0: 1, 0.1: 2, -0.1: 1} {
		if w := r.Ways([]Tool{{Blade: flat, Now: &Setting{Shift: shift}}})[0]; len(w.Passes) != passes || passes == 2 && w.Passes[1].Fence != 30+shift {
			t.Errorf("off by %v, a kerf's width takes %+v", shift, w.Passes)
		}
	}
}

// A chip between the parts is told from parts that are not as thick as stamped.
func TestASurpriseIsToldFromALesson(t *testing.T) {
	b := trapdoor.Believed()
	use := trapdoor.Use([]int{1, 1, 0, 0, 1, 0, 0})
	if b.Surprising(use, 12, 12.09, 3) {
		t.Error("of parts that nobody knows, a tenth off is a surprise")
	}
	for range 6 {
		b = b.Measured(use, 12, 12.09, 3)
	}
	for found, surprise := range map[measure.Length]bool{12.09: false, 12.14: false, 12.3: true, 11.9: true} {
		if b.Surprising(use, 12, found, 3) != surprise {
			t.Errorf("%v where 12.09 was made six times is a surprise: %v", found, !surprise)
		}
	}
}

func TestJoints(t *testing.T) {
	near := func(what string, got measure.Length, want float64) {
		t.Helper()
		if math.Abs(got.Mm()-want) > 1e-3 {
			t.Errorf("%s is %v, want %v", what, got.Mm(), want)
		}
	}
	tenon, err := TenonOf(25, 9, 30, -1, 3.2)
	if err != nil || len(tenon.Stops) != 11 {
		t.Fatalf("tenon %+v, %v", tenon, err)
	}
	near("height of a cheek", tenon.Height[0], 8)
	near("first stop, at the shoulder", tenon.Stops[0], 30)
	near("last stop, at the end", tenon.Stops[10], 3.2)

	box, err := BoxOf(100, 8, 0.1)
	if err != nil || box.Slots != 6 {
		t.Fatalf("box joint %+v, %v", box, err)
	}
	near("key to blade", box.Offset, 7.9)
	near("far edge", box.Last, 100-6*15.9)
	near("a loose joint moves the key away by", box.Retouch(0.9, 3), 0.2)
	near("a right one by", box.Retouch(0.1, 1), 0)

	tails := blade.Blade{Grind: blade.OneWay, Bevel: 8, Kerf: 3.2}
	if tail, err := TailOf(tails, 19, 60, 45); err != nil || tail.Tilt != 8 || math.Abs(tail.Slope-7.115) > 1e-3 {
		t.Errorf("tails %+v, %v", tail, err)
	}
	slant, err := SlantOf(50, 12, 3.2, 10, 10)
	if err != nil || len(slant.Passes) < 4 {
		t.Fatalf("slant %+v, %v", slant, err)
	}
	for _, p := range slant.Passes {
		if far := p.Centre + 1.6 + 6; math.Abs((p.Height - (10 - measure.Length(math.Tan(math.Pi/18))*far)).Mm()) > 1e-9 {
			t.Errorf("at %v a pass is %v high, past the slope", far, p.Height)
		}
	}
	fold, err := FoldOf(12, 2, 3.2, 150, 90)
	if err != nil || fold.Kerfs != 5 {
		t.Fatalf("fold %+v, %v", fold, err)
	}
	near("spacing", fold.Spacing, 149*math.Pi/2/5)

	for field, err := range map[string]error{
		"tenon":  second(TenonOf(20, 20, 30, -1, 3.2)),
		"length": second(TenonOf(25, 9, 2, -1, 3.2)),
		"slot":   second(BoxOf(100, 0.5, 0)),
		"width":  second(BoxOf(10, 8, 0.1)),
		"blade":  second(TailOf(flat, 19, 60, 45)),
		"stock":  second(TailOf(tails, 80, 60, 45)),
		"slope":  second(SlantOf(50, 12, 3.2, 3, 40)),
		"skin":   second(FoldOf(12, 12, 3.2, 150, 90)),
		"radius": second(FoldOf(12, 2, 3.2, 12.5, 90)),
	} {
		var e *fault.Error
		if !errors.As(err, &e) || e.Where != field {
			t.Errorf("%s: %v", field, err)
		}
	}
}

func second[T any](_ T, err error) error { return err }
