package shop_test

import (
	"encoding/json"
	"errors"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"

	"corte/core/care"
	"corte/core/cut"
	"corte/core/history"
	"corte/core/measure"
	"corte/core/trace"
	"corte/internal/refusal"
	shopcare "corte/internal/shop/care"
	"corte/internal/shop/env"
	"corte/internal/shop/run"
	shoptrace "corte/internal/shop/trace"
	shoptruing "corte/internal/shop/truing"
	"corte/internal/store"
)

// What the shop knows moves a trace, what is done elsewhere answers its checks,
// and its end goes into the log.
func TestATraceRunsThroughTheShop(t *testing.T) {
	f := open(t)
	ctx := t.Context()
	c := f.cut("table", "red-oak", cut.Rip, 90)
	chorus := f.blade["Chorus"].ID
	begin := func(present ...string) shoptrace.Trace {
		t.Helper()
		tr, err := f.Trace.Start(ctx, f.id, c, json.RawMessage(`{}`), nil, 0, present, "Ilse")
		if err != nil {
			t.Fatal(err)
		}
		return tr
	}
	tr := begin("hard-to-push", "scorch-both-walls")
	if *tr.Blade != chorus || tr.Reasons[0].ID != "blade-pitchy" || tr.Next[0].ID != "wash-blade" || tr.Stop {
		t.Fatalf("with the pitchy blade on: %s, next %s, stop %v", tr.Reasons[0].ID, tr.Next[0].ID, tr.Stop)
	}
	if !slices.ContainsFunc(tr.Facts, func(x trace.Fact) bool { return strings.HasPrefix(x.Says.String(), "heel 0.09 mm toward the fence") }) {
		t.Errorf("it knows %+v", tr.Facts)
	}
	// Washed under Care it is half answered, and whole with the next cut.
	w, err := f.Care.StartWash(ctx, f.id, shopcare.WashAsk{Blades: []uuid.UUID{chorus}, Cleaner: "detergent", Brush: care.Nylon})
	for err == nil && w.Step < len(w.Steps)-1 {
		w, err = f.Care.StepWash(ctx, f.id, w.ID, w.Step+1, w.Version, env.Sent{})
	}
	if err == nil {
		_, err = f.Care.EndWash(ctx, f.id, w.ID, w.Version, env.Sent{})
	}
	if err != nil {
		t.Fatal(err)
	}
	if tr, _ = f.Trace.Get(ctx, f.id, tr.ID); !slices.Contains(tr.Pending, "wash-blade") || len(tr.Answers) != 0 {
		t.Errorf("washed: pending %v, answers %v", tr.Pending, tr.Answers)
	}
	back := true
	made := run.CutMade{Cut: c, Blade: chorus, Height: 30, Pieces: 1, Wall: "clean", Splinters: "none", CameBack: &back}
	if _, err := f.Run.LogCut(ctx, f.id, made); err != nil {
		t.Fatal(err)
	}
	if tr, _ = f.Trace.Get(ctx, f.id, tr.ID); tr.Answers["wash-blade"] != shoptrace.Found || tr.Reasons[0].Share < 0.9 {
		t.Errorf("it came back: answers %v, %s %.2f", tr.Answers, tr.Reasons[0].ID, tr.Reasons[0].Share)
	}
	var bad *refusal.Error
	if _, err := f.Trace.End(ctx, f.id, tr.ID, tr.Version, "", true, ""); !errors.As(err, &bad) || bad.Field != "cause" {
		t.Errorf("fixed, but what? %v", err)
	}
	if tr, err = f.Trace.End(ctx, f.id, tr.ID, tr.Version, "blade-pitchy", true, "cuts again"); err != nil || !tr.Fixed {
		t.Fatal(err)
	}
	rows, _, err := f.Log.Rows(ctx, f.id, store.Filter{Blade: &chorus, Kinds: []history.Kind{history.KindTraced}}, store.Mark{}, 5)
	if err != nil || len(rows) != 1 {
		t.Errorf("the log has %d traces, %v", len(rows), err)
	}
	if _, err := f.Trace.SetEvidence(ctx, f.id, tr.ID, tr.Version, nil, nil, nil); err == nil {
		t.Error("an ended trace is changed")
	}
	// The same fault again is pointed out, and a dull edge that is proved moves the belief.
	again := begin("hard-to-push")
	if len(again.Before) != 1 || again.Before[0].Cause != "Resin on teeth and plate" {
		t.Errorf("it remembers %+v", again.Before)
	}
	if again, err = f.Trace.SetEvidence(ctx, f.id, again.ID, again.Version, []string{"hard-to-push"}, []string{"cut-resinous"}, map[string]string{"wash-blade": shoptrace.NotFound, "feed-slower": shoptrace.CouldNot}); err != nil {
		t.Fatal(err)
	}
	if slices.ContainsFunc(again.Next, func(n trace.Next) bool { return n.ID == "feed-slower" || n.ID == "wash-blade" }) {
		t.Error("a check that was done, or could not be, is asked for again")
	}
	if _, err := f.Trace.SetEvidence(ctx, f.id, again.ID, 1, nil, nil, nil); !errors.As(err, &bad) || bad.Reason != refusal.Stale {
		t.Errorf("an old tablet: %v", err)
	}
	before, _ := f.Rack.Blade(ctx, f.id, chorus)
	if _, err := f.Trace.End(ctx, f.id, again.ID, again.Version, "edge-dull", true, ""); err != nil {
		t.Fatal(err)
	}
	if after, _ := f.Rack.Blade(ctx, f.id, chorus); !after.Condition.DullSaid || after.Condition.Life == before.Condition.Life {
		t.Errorf("proved dull, the blade's life is still %+v", after.Condition.Life)
	}
	// A heel that is measured meanwhile answers its check.
	bumped := begin("scorch-fence-wall", "marks-rear-arcs", "since-moved")
	if !bumped.Stop || bumped.Next[0].Kind != "measure" {
		t.Errorf("black at the fence: stop %v, next %+v", bumped.Stop, bumped.Next[0])
	}
	table := f.saws["table"].ID
	r := shoptruing.Reading{Test: "heel", Saw: &table, First: []measure.Length{0, 0.2}, Span: 200, Dial: 1}
	if _, err := f.Truing.Save(ctx, f.id, r, []byte(`{}`), env.Sent{}); err != nil {
		t.Fatal(err)
	}
	if bumped, _ = f.Trace.Get(ctx, f.id, bumped.ID); bumped.Answers["measure-heel"] != shoptrace.Found {
		t.Errorf("measured: %v", bumped.Answers)
	}
	// What waited in a tablet keeps its own time, and counts from then.
	early, err := f.Truing.Save(ctx, f.id, r, []byte(`{}`), env.Sent{Waited: 30 * time.Hour})
	if ago := time.Since(early.At); err != nil || ago.Round(time.Hour) != 30*time.Hour {
		t.Errorf("it is logged at %v, %v", early.At, err)
	}
}
