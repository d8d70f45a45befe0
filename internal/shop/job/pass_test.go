package job

import (
	"context"
	"math"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"

	"corte/core/blade"
	"corte/core/care"
	"corte/core/cut"
	"corte/core/job"
	"corte/core/material"
	"corte/core/saw"
	"corte/core/say"
	"corte/internal/record"
	shopchoose "corte/internal/shop/choose"
	"corte/internal/shop/env"
)

// workshop is one table saw with a worn combination blade on it and, where asked,
// a rip blade beside it; a long list of pine to rip, and a few boards after it.
func workshop(t *testing.T, blades ...record.Blade) (Station, record.Shelf, Job) {
	t.Helper()
	s := record.Saw{ID: uuid.New(), Name: "Long Table", ChangeMinutes: 3, Rework: 1, Mounted: &blades[0].ID, Saw: saw.Saw{Kind: saw.Table,
		Diameter: 254, Arbor: 15.875, RPM: 4000, MotorW: 1300, Reach: 79, Reach45: 55, Knife: 2.6}}
	row := func(name string, n int) Row {
		return Row{ID: uuid.New(), Row: job.Row{Name: name, Part: cut.Part{Pieces: n, Material: "yellow-pine", Direction: cut.Rip, Finish: cut.Fine, Thickness: 38, Width: 95, Length: 2400}}}
	}
	j := Job{Rows: []Row{row("battens", 150), row("rails", 20)}, Done: map[uuid.UUID]job.Progress{}}
	for _, r := range j.Rows {
		j.Done[r.ID] = job.Progress{Left: r.Pieces}
	}
	now := time.Date(2026, 11, 27, 8, 0, 0, 0, time.UTC)
	return Station{&env.Env{Now: func() time.Time { return now }}}, record.Shelf{Saws: []record.Saw{s}, Blades: blades}, j
}

func bladeOf(name string, teeth int, hook float64) record.Blade {
	return record.Blade{ID: uuid.New(), Name: name, Blade: blade.Blade{Diameter: 254, Bore: 15.875, Kerf: 3.2, Plate: 2.2, Teeth: teeth, Grind: blade.ATB, Hook: hook, Bevel: 15,
		MaxRPM: 6000}}
}

func laid(t *testing.T, s Station, shelf record.Shelf, j Job) Sheet {
	t.Helper()
	w, err := weigh(context.Background(), shelf, j, Knobs{}, 1)
	if err != nil {
		t.Fatal(err)
	}
	sheet, err := w.sheet(s, Knobs{})
	if err != nil {
		t.Fatal(err)
	}
	made := map[uuid.UUID]int{}
	end := 0.0
	for _, turn := range sheet.Turns {
		if math.Abs(turn.Begin-end) > 1e-9 {
			t.Errorf("a turn begins at %v, the one before ends at %v", turn.Begin, end)
		}
		at := turn.CutsFrom
		for _, c := range turn.Cuts {
			made[c.Row] += c.Pieces
			if math.Abs(c.Begin-at) > 1e-9 {
				t.Errorf("a cut begins at %v, not at %v", c.Begin, at)
			}
			at += c.Minutes
		}
		if end = turn.End; math.Abs(end-at) > 1e-9 {
			t.Errorf("a turn ends at %v, its cuts at %v", end, at)
		}
	}
	for _, r := range j.Rows {
		if made[r.ID] != r.Pieces {
			t.Fatalf("%d of %d %s are on the sheet: %+v", made[r.ID], r.Pieces, r.Name, sheet.LeftOut)
		}
	}
	if sum := sheet.CutMin + sheet.ChangesMin + sheet.WashMin; math.Abs(sum-sheet.EndMin) > 1e-9 || math.Abs(end-sum) > 1e-9 {
		t.Errorf("cuts, changes and washes are %v, and the day ends at %v", sum, sheet.EndMin)
	}
	return sheet
}

// Where a blade gets pitchy in the middle of its work and that is dear, a wash is
// laid in before that very piece; the pieces stay as many, and are set up once.
func TestAWashIsLaidInWhereItPays(t *testing.T) {
	b := bladeOf("Understudy", 40, 15)
	s, shelf, j := workshop(t, b)
	sheet := laid(t, s, shelf, j)
	first := sheet.Passes[0]
	if !first.Wash || first.Row != j.Rows[0].ID || first.Costs <= washMin || len(sheet.Turns) < 2 {
		t.Fatalf("%+v in %d turns", first, len(sheet.Turns))
	}
	if got := (say.Voice{}).Say(first.Says("battens")); !strings.Contains(got, "Clean it there") {
		t.Errorf("says %q", got)
	}
	turn := sheet.Turns[1]
	if sheet.Turns[0].Wash || !turn.Wash || turn.Changed || turn.CutsFrom-turn.Begin != washMin || sheet.Turns[0].Cuts[0].Pieces != first.Pieces {
		t.Errorf("after %d pieces a turn %+v", sheet.Turns[0].Cuts[0].Pieces, turn)
	}
	// The log of such a day has it pitchy with the next piece, and clean after the wash.
	pine, err := material.Get("yellow-pine")
	if err != nil {
		t.Fatal(err)
	}
	use := []job.Use{{Job: cut.Job{Material: pine, Direction: cut.Rip, Thickness: 38, Width: 95, Length: 2400, Height: turn.Cuts[0].Height, Pieces: 150}}}
	if p := job.Passes(b.Blade, care.Condition{}, use, s.Now()); len(p) == 0 || p[0].Pieces != first.Pieces {
		t.Errorf("the log has it at %+v", p)
	}
	washes := 0
	for _, turn := range sheet.Turns {
		if turn.Wash {
			washes++
		}
	}
	if washes < 2 || sheet.WashMin != float64(washes)*washMin {
		t.Errorf("%d washes in %v min", washes, sheet.WashMin)
	}
	// Setting up is paid once for a row, however often its blade is washed.
	w, err := weigh(context.Background(), shelf, j, Knobs{}, 1)
	if err != nil {
		t.Fatal(err)
	}
	if whole := w.ways[0][0].minutes + w.ways[1][0].minutes; math.Abs(whole-sheet.CutMin) > 1e-9 {
		t.Errorf("parted they take %v min, whole %v", sheet.CutMin, whole)
	}
	// Few pieces more are not worth one.
	j.Rows[0].Pieces, j.Rows = first.Pieces+1, j.Rows[:1]
	j.Done[j.Rows[0].ID] = job.Progress{Left: first.Pieces + 1}
	if sheet = laid(t, s, shelf, j); len(sheet.Turns) != 1 || len(sheet.Passes) != 1 || sheet.Passes[0].Wash {
		t.Errorf("for one piece: %+v", sheet.Passes)
	}
}

// A blade that cuts as well takes over where putting it on takes less than a wash,
// and the one that was on is not put on again.
func TestAnotherBladeIsLaidInWhereItPays(t *testing.T) {
	one, twin := bladeOf("Understudy", 40, 15), bladeOf("Twin", 40, 15)
	s, shelf, j := workshop(t, one, twin)
	sheet := laid(t, s, shelf, j)
	first := sheet.Passes[0]
	if first.Wash || first.Swap != "Twin" || sheet.Changes != 1 || sheet.ChangesMin != 3 || first.Saves <= leastSaved {
		t.Fatalf("%+v with %d changes", first, sheet.Changes)
	}
	before, after := sheet.Turns[0], sheet.Turns[1]
	if before.Blade != one.ID || before.Cuts[0].Pieces != first.Pieces || after.Blade != twin.ID || !after.Changed || after.Wash {
		t.Errorf("%+v, then %+v", before, after)
	}
	for _, turn := range sheet.Turns[1:] {
		if turn.Blade != twin.ID {
			t.Errorf("%s is put on again", turn.BladeName)
		}
	}
	// The twin gets pitchy as well, counted over the whole of the row.
	if second := sheet.Passes[1]; second.BladeName != "Twin" || second.Pieces <= first.Pieces || !second.Wash {
		t.Errorf("then %+v", second)
	}
	// What it saves is what the rest would take with the pitch on, less what it takes
	// with the twin, set up anew and put on.
	w, err := weigh(context.Background(), shelf, j, Knobs{}, 1)
	if err != nil {
		t.Fatal(err)
	}
	on := slices.IndexFunc(w.cols, func(c column) bool { return shelf.Blades[c.blade].ID == one.ID })
	use := []job.Use{{Job: w.ways[0][on].job}}
	then := shopchoose.State(one.Blade, job.Passes(one.Blade, care.Condition{}, use, s.Now())[0].Then)
	n := 150 - first.Pieces
	pitchy := w.takes(0, on, n, true) + float64(n)*(w.piece(0, on, then)-w.asNow(0, on)) + w.takes(1, on, 20, false) + 20*(w.piece(1, on, then)-w.asNow(1, on))
	if want := pitchy - 3 - w.takes(0, 1-on, n, false) - w.takes(1, 1-on, 20, false); math.Abs(first.Saves-want) > 1e-9 {
		t.Errorf("saves %v, want %v", first.Saves, want)
	}
	steps := []step{{col: on, row: 0, pieces: 150, minutes: 7}, {col: on, row: 1, pieces: 20, minutes: 3}}
	if all, at := w.washed(steps, 1, 0); len(all) != 2 || at != 1 || !all[1].wash || all[0].wash || steps[1].wash {
		t.Errorf("washed before a row: %+v at %d, out of %+v", all, at, steps)
	}
	// What changing costs decides, to the minute: a twin is sharp as well as clean.
	as := 3 + first.Saves - (first.Costs - washMin)
	shelf.Saws[0].ChangeMinutes = as - 0.1
	if sheet = laid(t, s, shelf, j); sheet.Passes[0].Swap != "Twin" || sheet.Passes[0].Pieces != first.Pieces {
		t.Errorf("changes a little cheaper: %+v", sheet.Passes[0])
	}
	shelf.Saws[0].ChangeMinutes = as + 0.1
	if sheet = laid(t, s, shelf, j); !sheet.Passes[0].Wash || sheet.Passes[0].Pieces != first.Pieces || sheet.Changes != 0 {
		t.Errorf("changes a little dearer: %+v", sheet.Passes[0])
	}
}
