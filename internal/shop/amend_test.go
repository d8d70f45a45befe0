package shop_test

import (
	"encoding/json"
	"errors"
	"reflect"
	"sync"
	"testing"
	"time"

	"corte/core/cut"
	"corte/core/history"
	"corte/core/outcome"
	"corte/internal/refusal"
	"corte/internal/shop/env"
	shoplog "corte/internal/shop/log"
	"corte/internal/shop/run"
	"corte/internal/store"
)

// A row that is put right counts as if it had always stood as it does now: at
// its own time, for the blade's condition and for what is learnt, once.
func TestARowIsPutRight(t *testing.T) {
	f := open(t)
	ctx := t.Context()
	plough := f.blade["Plough"].ID
	condition := func() any {
		b, err := f.Rack.Blade(ctx, f.id, plough)
		if err != nil {
			t.Fatal(err)
		}
		return b.Condition
	}
	made := run.CutMade{Cut: f.cut("table", "walnut", cut.Rip, 90), Blade: plough, Height: 30, Pieces: 4, Wall: "brown", Splinters: "none", Sent: env.Sent{Waited: time.Hour}}
	row, err := f.Run.LogCut(ctx, f.id, made)
	if err != nil {
		t.Fatal(err)
	}
	four := condition()
	if _, err := f.Run.LogCut(ctx, f.id, run.CutMade{Cut: made.Cut, Blade: plough, Height: 30, Pieces: 1, Wall: "clean", Splinters: "none"}); err != nil {
		t.Fatal(err)
	}
	five := condition()
	var refused *refusal.Error
	if _, err := f.Log.Amend(ctx, f.id, row.ID, shoplog.Amendment{}); !errors.As(err, &refused) || refused.Field != "id" {
		t.Errorf("nothing to put right: %v", err)
	}
	forty, clean, whole, easy, maren := 40, outcome.Clean, outcome.None, outcome.Easy, "Maren"
	right, err := f.Log.Amend(ctx, f.id, row.ID, shoplog.Amendment{Pieces: &forty, Wall: &clean, By: &maren})
	if err != nil {
		t.Fatal(err)
	}
	var was, is history.Cut
	if json.Unmarshal(row.Detail, &was) != nil || json.Unmarshal(right.Detail, &is) != nil {
		t.Fatal(right)
	}
	was.Pieces, was.Wall = 40, "clean"
	if !reflect.DeepEqual(is, was) || !right.At.Equal(row.At) || right.By != "Maren" || right.Amends == nil || *right.Amends != row.ID {
		t.Errorf("it became %+v", right)
	}
	if reflect.DeepEqual(condition(), five) {
		t.Error("the blade's condition did not follow")
	}
	if _, err := f.Log.Amend(ctx, f.id, row.ID, shoplog.Amendment{Pieces: &forty}); !errors.As(err, &refused) || refused.Reason != refusal.Conflict {
		t.Errorf("put right twice: %v", err)
	}
	// Back to what it was: so is the condition.
	four4, brown, nobody := 4, outcome.Brown, ""
	again, err := f.Log.Amend(ctx, f.id, right.ID, shoplog.Amendment{Pieces: &four4, Wall: &brown, By: &nobody})
	if err != nil {
		t.Fatal(err)
	}
	if got := condition(); !reflect.DeepEqual(got, five) {
		t.Errorf("put back, the blade stands at\n%+v, not\n%+v", got, five)
	}
	// A row that was struck out by mistake comes back, for whoever is first.
	if _, err := f.Log.Strike(ctx, f.id, again.ID, ""); err != nil {
		t.Fatal(err)
	}
	if reflect.DeepEqual(condition(), five) || reflect.DeepEqual(condition(), four) {
		t.Error("a struck row still counts")
	}
	var wg sync.WaitGroup
	errs := make([]error, 4)
	for i := range errs {
		wg.Go(func() { _, errs[i] = f.Log.Amend(ctx, f.id, again.ID, shoplog.Amendment{}) })
	}
	wg.Wait()
	back := 0
	for _, err := range errs {
		if err == nil {
			back++
		} else if !errors.As(err, &refused) || refused.Reason != refusal.Conflict {
			t.Errorf("put back at once by several: %v", err)
		}
	}
	if got := condition(); back != 1 || !reflect.DeepEqual(got, five) {
		t.Errorf("put back %d times, it stands at\n%+v, not\n%+v", back, got, five)
	}
	// Counted in metres, each piece stays as long as it was.
	counted := made
	counted.Sent, counted.Metres = env.Sent{}, 12
	inMetres, err := f.Run.LogCut(ctx, f.id, counted)
	if err != nil {
		t.Fatal(err)
	}
	six := 6
	fewer, err := f.Log.Amend(ctx, f.id, inMetres.ID, shoplog.Amendment{Pieces: &six})
	if err != nil || json.Unmarshal(fewer.Detail, &is) != nil || is.Metres != 18 || is.Pieces != 6 {
		t.Errorf("six pieces for four of 12 m: %v m, %v", is.Metres, err)
	}
	fewer, err = f.Log.Amend(ctx, f.id, fewer.ID, shoplog.Amendment{Wall: &clean})
	if err != nil || json.Unmarshal(fewer.Detail, &is) != nil || is.Metres != 18 || is.Wall != "clean" {
		t.Errorf("its wall alone: %v m, wall %s, %v", is.Metres, is.Wall, err)
	}
	// The row that struck it says that another stands in its place.
	rows, _, err := f.Log.Rows(ctx, f.id, store.Filter{Kinds: []history.Kind{history.KindStruck}}, store.Mark{}, 1)
	if err != nil || rows[0].Strikes == nil || *rows[0].Strikes != *fewer.Amends || rows[0].AmendedBy == nil || *rows[0].AmendedBy != fewer.ID {
		t.Errorf("the row that strikes: %+v, %v", rows, err)
	}
	// What is no cut has no wall, and what took a thing out of use is undone elsewhere.
	washed, err := f.st.Append(ctx, store.Entry{Shop: f.id, At: time.Now(), Kind: history.KindWashed, Blade: &plough})
	if err != nil {
		t.Fatal(err)
	}
	for _, of := range []shoplog.Amendment{{Wall: &clean}, {Pieces: &six}, {Splinters: &whole}, {Other: &whole}, {Effort: &easy}} {
		if _, err := f.Log.Amend(ctx, f.id, washed.ID, of); !errors.As(err, &refused) || refused.Reason == refusal.Conflict {
			t.Errorf("%+v of a wash: %v", of, err)
		}
	}
	if e, err := f.Log.Amend(ctx, f.id, washed.ID, shoplog.Amendment{By: &maren}); err != nil || e.By != "Maren" || e.Kind != history.KindWashed {
		t.Errorf("who washed it: %+v, %v", e, err)
	}
}
