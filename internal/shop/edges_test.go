package shop_test

import (
	"encoding/json"
	"errors"
	"testing"
	"time"

	"github.com/google/uuid"

	"corte/core/blade"
	"corte/core/care"
	"corte/core/cut"
	"corte/core/history"
	"corte/internal/refusal"
	shopcare "corte/internal/shop/care"
	"corte/internal/shop/env"
	"corte/internal/store"
)

// What is refused at its edges, and over whose version.
func TestEdgesOfTheStations(t *testing.T) {
	f := open(t)
	ctx := t.Context()
	refused := func(what string, err error, field string) {
		t.Helper()
		var e *refusal.Error
		if field == "" && err != nil || field != "" && (!errors.As(err, &e) || e.Field != field) {
			t.Errorf("%s: %v", what, err)
		}
	}
	is := func(err error, why refusal.Reason) bool {
		var e *refusal.Error
		return errors.As(err, &e) && e.Reason == why
	}
	w, err := f.Care.StartWash(ctx, f.id, shopcare.WashAsk{Blades: []uuid.UUID{f.blade["Stagehand"].ID}, Cleaner: "detergent", Brush: care.Nylon})
	if err != nil {
		t.Fatal(err)
	}
	_, err = f.Care.StepWash(ctx, f.id, w.ID, len(w.Steps), w.Version, env.Sent{})
	refused("a step past the last", err, "step")
	_, err = f.Care.StepWash(ctx, f.id, w.ID, -1, w.Version, env.Sent{})
	refused("a step before the first", err, "step")
	stepped, err := f.Care.StepWash(ctx, f.id, w.ID, len(w.Steps)-1, w.Version, env.Sent{})
	refused("the last step", err, "")
	if _, err := f.Care.EndWash(ctx, f.id, w.ID, w.Version, env.Sent{}); !is(err, refusal.Stale) {
		t.Errorf("ended over an old version: %v", err)
	}
	if rows, err := f.Care.EndWash(ctx, f.id, w.ID, stepped.Version, env.Sent{}); err != nil || len(rows) != 1 {
		t.Errorf("ended: %d rows, %v", len(rows), err)
	}
	// A blade that is retired while it soaks is still in its wash.
	soaking, err := f.Care.StartWash(ctx, f.id, shopcare.WashAsk{Blades: []uuid.UUID{f.blade["Rook"].ID, f.blade["Chorus"].ID}, Cleaner: "detergent", Brush: care.Nylon})
	if err != nil {
		t.Fatal(err)
	}
	if _, err := f.Rack.RetireBlade(ctx, f.id, f.blade["Rook"].ID, "worn", ""); err != nil {
		t.Fatal(err)
	}
	if all, err := f.Care.All(ctx, f.id); err != nil || len(all.Washes) != 1 || len(all.Washes[0].Of) != 2 || all.Washes[0].ID != soaking.ID {
		t.Errorf("a retired blade soaks: %+v, %v", all.Washes, err)
	}
	// Money counts the sharpenings of all lives: done, done before, and those that
	// the saw doctor said are left.
	left, err := f.Care.Money(ctx, f.id, f.blade["Plough"].ID, shopcare.MoneyAsk{Sharpenings: -1})
	if err != nil {
		t.Fatal(err)
	}
	before := f.blade["Plough"]
	before.Sharpened += 2
	if _, err := f.Rack.ChangeBlade(ctx, f.id, before); err != nil {
		t.Fatal(err)
	}
	if now, err := f.Care.Money(ctx, f.id, before.ID, shopcare.MoneyAsk{Sharpenings: -1}); err != nil || now.Dear.Sharpenings != left.Dear.Sharpenings+2 {
		t.Errorf("two sharpenings from before the log make %d of %d, %v", now.Dear.Sharpenings, left.Dear.Sharpenings, err)
	}
	set, err := f.Groove.DadoSet(ctx, f.id, f.blade["Trapdoor"].ID)
	if err != nil {
		t.Fatal(err)
	}
	last := len(set.Set.Parts)
	_, err = f.Groove.RenewParts(ctx, f.id, set.Blade, "worn", false, []int{last}, "", "")
	refused("a part past the last", err, "parts")
	_, err = f.Groove.RenewParts(ctx, f.id, set.Blade, "worn", false, []int{last - 1}, "", "")
	refused("the last part", err, "")
	_, err = f.Groove.RenewParts(ctx, f.id, set.Blade, "worn", false, nil, "", "")
	refused("no part", err, "parts")
	// A groove that is made and closed is not made again.
	g, err := f.Groove.Start(ctx, f.id, f.groove("table", "birch-ply", 6, 17.8), set.Blade, "")
	if err != nil {
		t.Fatal(err)
	}
	for i := range 2 {
		if g, err = f.Groove.End(ctx, f.id, g.ID, g.Version, 3, "clean", "none", ""); err != nil || g.Made != 3 {
			t.Errorf("ended %d times: %d made, %v", i+1, g.Made, err)
		}
	}
	cuts, _, err := f.Log.Rows(ctx, f.id, store.Filter{Blade: &set.Blade, Kinds: []history.Kind{history.KindGrooved}, From: time.Now().Add(-time.Hour)}, store.Mark{}, 9)
	if err != nil || len(cuts) != 1 {
		t.Errorf("ended twice it is logged %d times, %v", len(cuts), err)
	}
	// Of two flat-top blades the one that is kept for joints cuts the groove.
	flat := f.blade["Mortise"]
	flat.ID, flat.Name, flat.KeptFor = uuid.New(), "Another", blade.UseGeneral
	if _, err := f.Rack.AddBlade(ctx, f.id, flat); err != nil {
		t.Fatal(err)
	}
	if ways := f.ways(t, f.groove("table", "birch-ply", 6, 17.8)); ways["Mortise"].Blade.ID == uuid.Nil || ways["Another"].Blade.ID != uuid.Nil {
		t.Error("a general flat-top blade is taken before the one that is kept for joints")
	}
	// Pages meet without a gap.
	all, none, err := f.Rack.Blades(ctx, f.id, store.Place{}, 500)
	if err != nil || none != nil {
		t.Fatal(none, err)
	}
	first, next, err := f.Rack.Blades(ctx, f.id, store.Place{}, 5)
	if err != nil || len(first) != 5 || next == nil || next.ID != all[4].ID {
		t.Fatalf("a page of five ends at %+v, %v", next, err)
	}
	if second, _, err := f.Rack.Blades(ctx, f.id, *next, 5); err != nil || second[0].ID != all[5].ID {
		t.Errorf("the next begins with %s, not %s, %v", second[0].Name, all[5].Name, err)
	}
	tr, err := f.Trace.Start(ctx, f.id, f.cut("table", "cherry", cut.Rip, 90), json.RawMessage(`{}`), nil, 0, []string{"scorch-both-walls"}, "")
	if err != nil {
		t.Fatal(err)
	}
	_, err = f.Trace.End(ctx, f.id, tr.ID, tr.Version, "bad luck", true, "")
	refused("a cause that is none", err, "cause")
	_, err = f.Trace.SetEvidence(ctx, f.id, tr.ID, tr.Version, []string{"no such sign"}, nil, nil)
	refused("a sign that is none", err, "present")
}
