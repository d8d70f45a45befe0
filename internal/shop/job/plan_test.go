package job

import (
	"maps"
	"slices"
	"testing"

	"corte/core/blade"
	"corte/core/choose"
	"corte/core/cut"
	"corte/core/material"
	"corte/core/runsheet"
	"corte/internal/record"
	shopchoose "corte/internal/shop/choose"
)

// A blade is on one saw at a time: it stays where it cuts longest, unless a row
// can be cut in no other way.
func TestABladeIsOnOneSawAtATime(t *testing.T) {
	may := way{Way: shopchoose.Way{May: true, Open: true, Fits: true}}
	// Blade 0 fits saws 0 and 1, blade 1 fits saw 1.
	w := &weighing{cols: []column{{0, 0}, {1, 0}, {1, 1}}, ways: [][]way{{may, may, {}}, {may, may, may}}}
	d := runsheet.Day{Minutes: [][]float64{{5, 9, runsheet.Never}, {9, 3, 4}}}
	barred := map[column]bool{}
	if again, moved := w.twice(d, runsheet.Sheet{Blade: []int{0, 0}}, barred); again || moved {
		t.Errorf("on one saw: %v, %v", again, moved)
	}
	if again, moved := w.twice(d, runsheet.Sheet{Blade: []int{0, 1}}, barred); !again || moved || !maps.Equal(barred, map[column]bool{{1, 0}: true}) {
		t.Errorf("on two: %v, %v, barred %v", again, moved, barred)
	}
	// The second row is only for saw 1 now, and only blade 0 cuts it.
	w.ways[1], barred = []way{{}, may, {}}, map[column]bool{}
	if again, moved := w.twice(d, runsheet.Sheet{Blade: []int{0, 1}}, barred); again || !moved || len(barred) != 0 {
		t.Errorf("it must move: %v, %v, barred %v", again, moved, barred)
	}
	// Both ways of the first row are on saws that it does not stay on: one is left to it.
	w = &weighing{cols: []column{{0, 0}, {1, 0}, {2, 0}}, ways: [][]way{{may, may, {}}, {may, may, may}, {may, may, may}}}
	d = runsheet.Day{Minutes: [][]float64{{1, 1, 1}, {1, 1, 1}, {1, 1, 9}}}
	if again, _ := w.twice(d, runsheet.Sheet{Blade: []int{0, 1, 2}}, barred); !again || len(barred) != 1 {
		t.Errorf("barred %v", barred)
	}
}

// What is left of a blade's work goes to one on the same saw that is kept for it
// and cuts all of it well, whichever takes least.
func TestWhatIsPutOnInstead(t *testing.T) {
	takes := func(minutes float64, more shopchoose.Way) way {
		return way{Way: more, job: cut.Job{Material: material.All()[0]}, option: choose.Option{Minutes: cut.Minutes{Feeding: minutes}}}
	}
	well := shopchoose.Way{May: true, Open: true, Fits: true}
	spare := shopchoose.Way{May: true, Open: true}
	w := &weighing{cols: []column{{0, 0}, {0, 1}, {0, 2}, {0, 3}, {1, 4}}, ways: [][]way{
		{takes(5, well), takes(2, well), takes(1, spare), takes(3, well), takes(0.1, well)},
		{takes(5, well), takes(4, well), takes(1, well), takes(2, well), takes(0.1, well)},
	}}
	for _, tt := range []struct {
		left []int
		at   int
	}{{[]int{10, 1}, 1}, {[]int{1, 10}, 3}} {
		if at := w.instead(0, []int{0, 1}, tt.left, []int{0}); at != tt.at {
			t.Errorf("%v left: %d, want %d", tt.left, at, tt.at)
		}
	}
	w.ways[1][1], w.ways[0][3] = takes(1, spare), takes(1, spare)
	if at := w.instead(0, []int{0, 1}, []int{1, 1}, []int{0}); at != -1 {
		t.Errorf("no other cuts all of it well: %d", at)
	}
}

// A stack takes longer to put on than a blade, but where changing counts for
// nothing.
func TestAStackTakesLongerToPutOn(t *testing.T) {
	w := &weighing{cols: []column{{0, 0}, {0, 1}}, saws: []int{0}, shelf: record.Shelf{
		Saws:   []record.Saw{{ChangeMinutes: 3}},
		Blades: []record.Blade{{Blade: blade.Blade{Make: blade.Dado}}, {}},
	}}
	if d, _ := w.day(Knobs{}, nil); d.ChangeMin[0] != 3 || !slices.Equal(d.Extra, []float64{17, 0}) {
		t.Errorf("%+v", d)
	}
	free := 0.0
	if d, _ := w.day(Knobs{ChangeMin: &free}, nil); d.ChangeMin[0] != 0 || d.Extra != nil {
		t.Errorf("freely %+v", d)
	}
}
