package practice_test

import (
	"errors"
	"fmt"
	"math"
	"math/rand/v2"
	"reflect"
	"strings"
	"testing"
	"time"

	"corte/core/blade"
	"corte/core/cut"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/practice"
)

func wood(t testing.TB, name string) material.Material {
	t.Helper()
	m, err := material.Get(name)
	if err != nil {
		t.Fatal(err)
	}
	return m
}

func rip(t testing.TB, of string) practice.Setup {
	return practice.Setup{
		Job:   cut.Job{Material: wood(t, of), Direction: cut.Rip, Finish: cut.Hidden, Thickness: 25, Width: 120, Length: 600, Height: 39},
		Blade: blade.Blade{Diameter: 254, Bore: 15.875, Kerf: 3.2, Plate: 2.2, Teeth: 24, Grind: blade.FTG, Hook: 20},
		Drive: cut.Drive{RPM: 4000, PowerLimitW: 1300}, Board: 0.5,
	}
}

// pushed is a push from 20 mm before the blade to beyond the end, seen a number
// of times a second, with the feed at each place.
func pushed(s practice.Setup, hz float64, feed func(mm float64) float64) (all []practice.Moment) {
	pos, at := -20.0, 0.0
	for end := s.Job.FeedLength().Mm() + 5; pos < end; {
		all = append(all, practice.Moment{At: time.Duration(at * 1e9), Pos: measure.Length(pos)})
		pos += feed(pos) * 1000 / 60 / hz
		at += 1 / hz
	}
	return append(all, practice.Moment{At: time.Duration(at * 1e9), Pos: measure.Length(pos)})
}

func steady(f measure.Feed) func(float64) float64 { return func(float64) float64 { return float64(f) } }

func walled(t testing.TB, s practice.Setup, push []practice.Moment) practice.Wall {
	t.Helper()
	w, err := practice.Feed(s, push)
	if err != nil {
		t.Fatal(err)
	}
	return w
}

// A steady push leaves all along the wall what the core says of its feed.
func TestASteadyPushIsWhatTheCoreSays(t *testing.T) {
	for _, of := range []string{"hard-maple", "cherry", "white-pine"} {
		s := rip(t, of)
		f := s.Figures()
		w := walled(t, s, pushed(s, 60, steady(f.Feed)))
		if !w.Whole || len(w.Steps) != 600 || w.Stalled || w.Back {
			t.Fatalf("%s: %d steps, %+v", of, len(w.Steps), w)
		}
		for i, st := range w.Steps {
			if math.Abs(float64(st.Feed/f.Feed)-1) > 1e-6 || math.Abs(st.Load-f.Load) > 1e-6 || math.Abs(st.Scorch*f.BurnDose-f.Dose) > 1e-4*f.Dose {
				t.Fatalf("%s at %d mm: %+v, and the core says %+v", of, i, st, f)
			}
		}
		if want := 625 / float64(f.Feed) * 60 / 1000; math.Abs(w.Took.Seconds()-want) > 0.05 {
			t.Errorf("%s took %v, not %.2f s", of, w.Took, want)
		}
	}
}

// How often somebody looks changes little of the wall.
func TestTheWallIsTheSameHoweverOftenTheHandIsSeen(t *testing.T) {
	s := rip(t, "cherry")
	wave := func(mm float64) float64 { return 3 + 2*math.Sin(mm/40) }
	often, seldom := walled(t, s, pushed(s, 960, wave)), walled(t, s, pushed(s, 60, wave))
	if len(often.Steps) != len(seldom.Steps) || math.Abs(float64(often.Browned-seldom.Browned)) > 6 {
		t.Fatalf("%d of %d steps are brown, and %d of %d", often.Browned, len(often.Steps), seldom.Browned, len(seldom.Steps))
	}
	for i := range often.Steps {
		if a, b := often.Steps[i].Scorch, seldom.Steps[i].Scorch; math.Abs(a-b) > 0.1*a {
			t.Errorf("at %d mm %.3f and %.3f", i, a, b)
		}
	}
	if again := walled(t, s, pushed(s, 60, wave)); !reflect.DeepEqual(again, seldom) {
		t.Error("the same push leaves another wall")
	}
}

// Who stops with the work against the blade browns it there and nowhere else, and
// who draws it back is told so.
func TestStoppingBrownsOneSpot(t *testing.T) {
	s := rip(t, "cherry")
	push := pushed(s, 60, steady(s.Figures().Feed))
	stop := func(back measure.Length) []practice.Moment {
		var out []practice.Moment
		late := time.Duration(0)
		for _, m := range push {
			if m.At += late; m.Pos > 300 && late == 0 {
				for range 120 {
					out = append(out, practice.Moment{At: m.At + late, Pos: m.Pos - back})
					late += time.Second / 60
				}
				m.At += late
			}
			out = append(out, m)
		}
		return out
	}
	for _, back := range []measure.Length{0, 5} {
		w := walled(t, s, stop(back))
		if said := fmt.Sprint(w.Says(s, w)); !strings.Contains(said, "fed so slowly") {
			t.Errorf("drawn back %v: said is %s", back, said)
		}
		if w.Back != (back > 0) || !w.Whole || w.Browned == 0 || w.Browned > 40 {
			t.Errorf("drawn back %v: back %v, %d brown", back, w.Back, w.Browned)
		}
		for i, st := range w.Steps {
			if st.Scorch > 1 && (i < 280 || i > 325) {
				t.Errorf("drawn back %v: brown at %d mm", back, i)
			}
		}
	}
}

// Of two thousand boards of all kinds, pushed at the feed that is suggested by a
// hand that trembles, as many stay clean as the model says, to five points. Who
// dawdles browns more of them, who rushes breaks edges, each as it is foretold.
func TestLearnersComeOutAsTheModelSays(t *testing.T) {
	r := rand.New(rand.NewPCG(17, 1))
	all := material.All()
	foretold, clean, dawdled, foretoldSlow, browned, rushed, broken, n := 0.0, 0, 0.0, 0.0, 0, 0, 0, 0
	for n < 2000 {
		s := rip(t, "cherry")
		s.Job.Material = all[r.IntN(len(all))]
		if s.Job.Material.Kind > material.Hardwood {
			continue
		}
		s.Job.Thickness = measure.Length(12 + 28*r.Float64())
		s.Job.Height = s.Job.Thickness + measure.Length(3+15*r.Float64())
		s.Job.Length = measure.Length(200 + 400*r.Float64())
		if r.IntN(2) == 0 {
			s.Job.Direction, s.Job.Finish, s.Job.Width = cut.Crosscut, cut.Show, measure.Length(150+250*r.Float64())
			s.Blade.Grind, s.Blade.Bevel, s.Job.Exit = blade.ATB, 15, cut.ZeroClearance
		}
		s.Blade.Teeth = []int{24, 40, 60, 80}[r.IntN(4)]
		s.State.Sharpness, s.State.Pitch = 1+r.Float64(), 3*r.Float64()
		s.Board = 0.0005 + 0.999*r.Float64()
		f := s.Figures()
		if !f.Window.Open() {
			continue
		}
		n++
		tremble := func(float64) float64 { return float64(f.Feed) * (1 + 0.05*r.NormFloat64()) }
		foretold += 1 - f.Burn
		if w := walled(t, s, pushed(s, 60, tremble)); w.Whole && w.Browned == 0 {
			clean++
		}
		slow := f.Window.Scorch / 2
		dawdled++
		foretoldSlow += cut.WorkAt(s.Job, s.Blade, s.Drive, s.State, slow).Burn
		if walled(t, s, pushed(s, 60, steady(slow))).Browned > 0 {
			browned++
		}
		if fast := f.Window.Splinter * 1.1; f.Window.Splinter < 12 {
			rushed++
			if w := walled(t, s, pushed(s, 60, steady(fast))); w.Splinters == len(w.Steps) || w.Stalled {
				broken++
			}
			if w := walled(t, s, pushed(s, 60, steady(f.Window.Splinter*0.9))); w.Splinters > 0 {
				t.Fatalf("edges break under the bound: %+v", s)
			}
		}
	}
	if got, want := float64(clean)/float64(n), foretold/float64(n); math.Abs(got-want) > 0.05 || want > 0.99 {
		t.Errorf("at the suggested feed %.1f %% stay clean, and %.1f %% should", 100*got, 100*want)
	}
	if got, want := float64(browned)/dawdled, foretoldSlow/dawdled; math.Abs(got-want) > 0.05 || want < 0.5 {
		t.Errorf("of dawdlers' walls %.1f %% brown, and %.1f %% should", 100*got, 100*want)
	}
	if rushed < 50 || broken != rushed {
		t.Errorf("of %d who rush %d break the edge", rushed, broken)
	}
}

// A motor that is asked far too much stops, and so does the cut.
func TestAStalledMotorEndsTheCut(t *testing.T) {
	s := rip(t, "hard-maple")
	s.Drive.PowerLimitW = 250
	w := walled(t, s, pushed(s, 60, steady(6)))
	if !w.Stalled || w.Whole || w.Clean() || len(w.Steps) < 25 || len(w.Steps) > 40 {
		t.Errorf("%d steps, %+v", len(w.Steps), w.Stalled)
	}
}

// It stops at 2.5 times its power and not under, after 0.3 s and not before.
func TestWhenAMotorStalls(t *testing.T) {
	s := rip(t, "hard-maple")
	needs := cut.WorkAt(s.Job, s.Blade, s.Drive, s.State, 6).PowerW
	for _, tt := range []struct {
		load float64
		mm   float64 // pushed so hard, at 100 mm/s
		want bool
	}{{2.45, 600, false}, {2.55, 600, true}, {2.55, 29, false}, {2.55, 32, true}} {
		s.Drive.PowerLimitW = needs / tt.load
		hard := func(mm float64) float64 {
			if mm >= 0 && mm < tt.mm {
				return 6
			}
			return 1
		}
		if w := walled(t, s, pushed(s, 1000, hard)); w.Stalled != tt.want {
			t.Errorf("load %g for %g mm: stalled %v", tt.load, tt.mm, w.Stalled)
		}
	}
}

// Heat reaches an eighth of the arc's reach along the table, at least 4 mm, and
// no further: a millimetre that burns browns as much on both its sides together.
func TestHowFarHeatReaches(t *testing.T) {
	for _, tt := range []struct {
		thick  measure.Length
		browns int // the arc reaches 34 mm along the table at 25 mm, 63 at 70: 4 and 8, and itself
	}{{25, 5}, {70, 9}} {
		s := rip(t, "white-pine")
		s.Job.Thickness, s.Job.Height, s.Drive.PowerLimitW = tt.thick, tt.thick+14, 5000
		var push []practice.Moment
		for _, m := range pushed(s, 1000, steady(s.Figures().Feed)) {
			if m.Pos > 300.5 {
				m.At += 200 * time.Second
			}
			push = append(push, m)
		}
		if w := walled(t, s, push); w.Browned != tt.browns || w.Steps[300-tt.browns/2].Scorch < 1 {
			t.Errorf("%v thick, one millimetre that burns makes %d brown, not %d", tt.thick, w.Browned, tt.browns)
		}
	}
}

func TestPushesThatCannotBeFollowed(t *testing.T) {
	s := rip(t, "cherry")
	unknown := s
	unknown.Board = 0
	long := s
	long.Job.Length = 30000
	for what, tt := range map[string]struct {
		s    practice.Setup
		push []practice.Moment
	}{
		"a board that is none": {unknown, nil},
		"a board too long":     {long, nil},
		"time that runs back":  {s, []practice.Moment{{At: time.Second}, {At: 0, Pos: 5}}},
		"nowhere":              {s, []practice.Moment{{}, {At: 1, Pos: measure.Length(math.NaN())}}},
		"in the middle":        {s, []practice.Moment{{Pos: 40}}},
	} {
		if w, err := practice.Feed(tt.s, tt.push); !errors.Is(err, practice.ErrMoments) {
			t.Errorf("%s: %+v, %v", what, w, err)
		}
	}
	if w, err := practice.Feed(s, nil); err != nil || w.Whole || len(w.Steps) != 0 {
		t.Errorf("who does not push: %+v, %v", w, err)
	}
}

func BenchmarkFeed(b *testing.B) {
	s := rip(b, "cherry")
	push := pushed(s, 60, steady(3))
	for b.Loop() {
		walled(b, s, push)
	}
	b.ReportMetric(float64(b.Elapsed().Microseconds())/float64(b.N)/600, "µs/mm")
}

// Boards are the same for the same number, differ, and all come out clean at the
// feed that is suggested; of one that was fed too slowly is said how much is brown.
func TestBoards(t *testing.T) {
	for level, room := range map[int]float64{1: 2.2, 2: 1.4, 3: 1.25} {
		boards(t, "feed/board", level, room)
		boards(t, "feed/hand-held", level, room)
	}
}

func boards(t *testing.T, skill practice.Skill, level int, room float64) {
	woods, across, clean := map[string]bool{}, 0, 0
	const boards = 80
	for n := range uint64(boards) {
		s, err := practice.Board(skill, n, level)
		if again, _ := practice.Board(skill, n, level); err != nil || !reflect.DeepEqual(again, s) || s.Said().String() == "" {
			t.Fatalf("board %d is another the second time: %+v, %v", n, s, err)
		}
		if worn, heel := s.State.Sharpness > 1 || s.State.Pitch > 0, s.State.Heel > 0; level == 1 && worn || heel != (level == 3) || s.Drive.HandHeld != (skill == "feed/hand-held") {
			t.Fatalf("board %d at level %d: %+v", n, level, s)
		}
		f := s.Figures()
		even, err := practice.Steady(s, f.Feed)
		if err != nil || !even.Whole || even.Stalled {
			t.Fatalf("board %d cannot be cut: %+v, %v", n, even, err)
		}
		if f.Window.Room() < room || even.Splinters > 0 || even.Marked > 0 {
			t.Errorf("board %d: %d splinters, %d marks at the suggested feed", n, even.Splinters, even.Marked)
		}
		woods[s.Job.Material.ID] = true
		if s.Job.Direction.Across() {
			across++
		}
		if even.Clean() {
			clean++
		}
		// Half as fast as scorches every other board: what is said of it follows.
		slow, err := practice.Steady(s, f.Window.Scorch/3)
		if err != nil {
			t.Fatal(err)
		}
		if said := fmt.Sprint(slow.Says(s, even)); slow.Browned > 0 && !strings.Contains(said, "Burn marks for "+slowLength(slow)) {
			t.Errorf("board %d, %d brown: %q", n, slow.Browned, said)
		}
		// What is heard and seen at once is what comes of it.
		for _, x := range s.Samples() {
			if w, err := practice.Steady(s, x.Feed); err != nil || len(w.Steps) == 0 || math.Abs(w.Steps[0].Scorch-x.Scorch) > 1e-3*x.Scorch || math.Abs(w.Steps[0].Load-x.Load) > 1e-3*x.Load || x.Turns > s.Drive.RPM {
				t.Fatalf("board %d at %v: %+v, and is %+v, %v", n, x.Feed, x, w.Steps[:1], err)
			}
			if n > 5 {
				break
			}
		}
	}
	if len(woods) != 7 || across < boards/5 || across > boards*3/5 || clean != boards { // the feed that is shown afterwards is no lie
		t.Errorf("%d woods, %d across, %d of %d clean", len(woods), across, clean, boards)
	}
}

func slowLength(w practice.Wall) string { return fmt.Sprint(measure.Length(w.Browned)) }

// What is said of a push names its worst first, and no board's clean wall where
// the fault was the hand's alone.
func TestWhatIsSaid(t *testing.T) {
	s := rip(t, "cherry")
	even, err := practice.Steady(s, s.Figures().Feed)
	if err != nil || !even.Clean() {
		t.Fatal(even, err)
	}
	fine := s
	fine.Job.Finish, fine.State.RunOut = cut.Fine, 0.2
	if w := walled(t, fine, pushed(fine, 60, steady(5))); w.Marked == 0 || !strings.Contains(fmt.Sprint(w.Says(fine, even)), "Deep tooth marks for 600 mm, from 0 mm on") {
		t.Errorf("with a run-out: %d marked, said is %v", w.Marked, w.Says(fine, even))
	}
	for want, push := range map[string][]practice.Moment{
		"Clean from end to end.": pushed(s, 60, steady(3)),
		"Burn marks for 600 mm, from 0 mm on, where you fed so slowly that the teeth rubbed.|At one steady feed rate in the middle of the range this board would be clean.":                                                                                                    pushed(s, 60, steady(0.3)),
		"At 99 mm it stopped for 0.9 s. Change hands so that one always keeps it moving, or accept the mark.|Burn marks for 5 mm, from 97 mm on, where you fed so slowly that the teeth rubbed.|At one steady feed rate in the middle of the range this board would be clean.": {{At: 0, Pos: 0}, {At: 1980 * time.Millisecond, Pos: 99}, {At: 2880 * time.Millisecond, Pos: 99}, {At: 12920 * time.Millisecond, Pos: 601}},
		"You stopped pushing at 99 mm. Push until the board is past the blade.": {{At: 0, Pos: -10}, {At: 2 * time.Second, Pos: 99.5}},
		"You pulled the board back against the turning teeth. At a real saw that kicks back. Push on, or hold it still and switch off.|You stopped pushing at 99 mm. Push until the board is past the blade.": {{At: 0, Pos: -10}, {At: 2 * time.Second, Pos: 99.5}, {At: 2010 * time.Millisecond, Pos: 90}},
	} {
		var said []string
		for _, l := range walled(t, s, push).Says(s, even) {
			said = append(said, l.String())
		}
		if got := strings.Join(said, "|"); got != want {
			t.Errorf("said %q, not %q", got, want)
		}
	}
}
