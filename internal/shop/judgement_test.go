package shop_test

import (
	"encoding/json"
	"errors"
	"math"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"

	"corte/core/care"
	"corte/core/choose"
	"corte/core/cut"
	"corte/core/guide"
	"corte/core/history"
	"corte/core/trace"
	"corte/internal/record"
	"corte/internal/refusal"
	shopcare "corte/internal/shop/care"
	shopchoose "corte/internal/shop/choose"
	"corte/internal/shop/run"
	"corte/internal/store"
)

func (f floor) plan(t *testing.T, c record.Cut) shopchoose.Plan {
	t.Helper()
	p, err := f.Choose.Plan(t.Context(), f.id, c, 60)
	if err != nil {
		t.Fatal(err)
	}
	return p
}

func (p planned) of(id uuid.UUID) *shopchoose.Option {
	for i := range p.Options {
		if p.Options[i].Blade == id {
			return &p.Options[i]
		}
	}
	return nil
}

type planned struct{ shopchoose.Plan }

// What True measured of a blade on a saw is what its walls are reckoned with,
// until it is sharpened; and it is said where from.
func TestWallMarksComeFromTruing(t *testing.T) {
	f := open(t)
	plough := f.blade["Plough"].ID
	c := f.cut("table", "red-oak", cut.Rip, 90)
	c.Finish = cut.Fine
	at := func() shopchoose.Setting { return *planned{f.plan(t, c)}.of(plough).Setting }
	before := at()
	if !strings.Contains(before.WallFrom.String(), "never measured here") || math.Abs(before.WallLimit.Mm()-0.03) > 1e-12 {
		t.Errorf("never measured: %s, limit %v", before.WallFrom, before.WallLimit)
	}
	tell := func(kind history.Kind, mm float64, ago time.Duration) {
		t.Helper()
		raw, _ := json.Marshal(history.Truing{Figure: mm, Unit: "mm", Verdict: "mind"})
		saw := f.saws["table"].ID
		if _, err := f.st.Append(t.Context(), store.Entry{Shop: f.id, At: time.Now().Add(-ago), Kind: kind, Blade: &plough, Saw: &saw, Detail: raw}); err != nil {
			t.Fatal(err)
		}
	}
	tell(history.KindClearance, 0.10, 2*time.Hour)
	tell(history.KindRunOut, 0.09, time.Hour)
	after := at()
	if math.Abs(float64(after.Window.Wall)-float64(-0.6*math.Log1p(-0.03/(0.5*0.19))*4000/1000)) > 1e-9 || after.Window.FastBy != cut.ByWall ||
		!strings.Contains(after.WallFrom.String(), "side clearance 0.1 mm, measured on") || !strings.Contains(after.WallFrom.String(), "run-out 0.09 mm") {
		t.Errorf("measured: bound %v by %v, %s", after.Window.Wall, after.Window.FastBy, after.WallFrom)
	}
	if _, err := f.Care.SendOut(t.Context(), f.id, plough, history.Sent{To: "the saw doctor"}, "", ""); err != nil {
		t.Fatal(err)
	}
	if _, err := f.Care.TakeBack(t.Context(), f.id, plough, true, history.Sharpened{}, "", ""); err != nil {
		t.Fatal(err)
	}
	if ground := at(); strings.Contains(ground.WallFrom.String(), "side clearance 0.1 mm") || !strings.Contains(ground.WallFrom.String(), "run-out 0.09 mm") {
		t.Errorf("sharpened since: %s", ground.WallFrom)
	}
}

// A cut on a saw can be stopped whatever blade is on it; an acknowledged brake
// is not asked about again.
func TestACutIsStoppedBySaw(t *testing.T) {
	f := open(t)
	rules := func(c record.Cut) (out []string) {
		for _, x := range f.plan(t, c).Findings {
			out = append(out, string(x.Rule))
		}
		return out
	}
	short := f.cut("table", "red-oak", cut.Rip, 60)
	short.Length = 250
	if p := f.plan(t, short); p.Verdict != choose.Halt || !slices.Equal(rules(short), []string{string(guide.RuleShort)}) {
		t.Errorf("a short piece: %v, %v", p.Verdict, rules(short))
	}
	wet := f.cut("table", "white-pine", cut.Rip, 90)
	wet.Moisture = cut.Wet
	if got := rules(wet); got != nil {
		t.Errorf("no brake, and it would fire: %v", got)
	}
	bevel := f.cut("table", "red-oak", cut.Rip, 90)
	bevel.BevelDeg = 20
	if p := f.plan(t, bevel); p.Fence != cut.Right || p.Verdict != choose.Clear {
		t.Errorf("a bevel: fence %v, %v", p.Fence, p.Verdict)
	}
	bevel.FenceSide = cut.Left
	if got := rules(bevel); !slices.Equal(got, []string{string(guide.RuleTrapped)}) {
		t.Errorf("a trapped bevel: %v", got)
	}
	top := f.cut("circular", "birch-ply", cut.Sheet, 600)
	insert := cut.ZeroClearance
	top.Exit = &insert
	var e *refusal.Error
	if _, err := f.Choose.Plan(t.Context(), f.id, top, 60); !errors.As(err, &e) || e.Field != "cut.exit_support" {
		t.Errorf("an insert at a top face: %v", err)
	}
}

// Being sent and coming back is not being mended: that takes a name for each of
// two things. One that cannot be mended is retired, once.
func TestMendedAndInspected(t *testing.T) {
	f := open(t)
	ctx := t.Context()
	id := f.blade["Plough"].ID
	yes := true
	survey := &history.Survey{After: "hit", Cleaned: true, Missing: 1, Seat: "saw-marks", Crack: "none", Blue: &yes, Bent: new(bool)}
	if _, err := f.Care.Inspect(ctx, f.id, id, care.Cracked, survey, "", ""); err == nil {
		t.Error("a fault beside a survey was taken")
	}
	if _, err := f.Care.Survey(ctx, f.id, id); err == nil {
		t.Error("a survey that nobody made was found")
	}
	if _, err := f.Care.Inspect(ctx, f.id, id, care.Sound, survey, "Maren", "under the paint frame"); err != nil {
		t.Fatal(err)
	}
	report, err := f.Care.Survey(ctx, f.id, id)
	if err != nil || report.Fault != care.Missing || report.Entry.By != "Maren" || report.Survey.Seat != "saw-marks" || !*report.Survey.Blue || report.Worth != care.WorthAsk {
		t.Errorf("%+v, %v", report, err)
	}
	unfit := func() string { b, _ := f.Rack.Blade(ctx, f.id, id); return b.Condition.Unfit }
	if _, err := f.Care.SendOut(ctx, f.id, id, history.Sent{To: "the saw doctor"}, "", ""); err != nil {
		t.Fatal(err)
	}
	if _, err := f.Care.TakeBack(ctx, f.id, id, true, history.Sharpened{}, "", ""); err != nil || unfit() == "" {
		t.Errorf("sent and back, it is fit: %q, %v", unfit(), err)
	}
	mended := shopcare.Mending{Mended: history.Mended{MendedBy: "the saw doctor", InspectedBy: "Maren"}}
	_, err = f.Care.Mend(ctx, f.id, id, mended)
	if err != nil || unfit() != "" {
		t.Errorf("mended: %q, %v", unfit(), err)
	}
	if _, err := f.Care.Inspect(ctx, f.id, id, care.Cracked, nil, "", ""); err != nil {
		t.Fatal(err)
	}
	mended.Cannot = true
	if _, err := f.Care.Mend(ctx, f.id, id, mended); err != nil {
		t.Fatal(err)
	}
	b, err := f.Rack.Blade(ctx, f.id, id)
	if err != nil || b.Retired == nil || b.Retired.Reason != "unmendable" || unfit() == "" {
		t.Errorf("not mendable: %+v, %v", b.Retired, err)
	}
}

// A hit stops the blade until somebody looks; a chip ranks it under its twin,
// is asked about when it is mounted, and is a fact of a trace.
func TestHitsAndChips(t *testing.T) {
	f := open(t)
	ctx := t.Context()
	id := f.blade["Mortise"].ID
	c := f.cut("table", "hard-maple", cut.Rip, 90)
	if _, err := f.Care.Judge(ctx, f.id, id, "hit", "Tobin", ""); err != nil {
		t.Fatal(err)
	}
	var e *refusal.Error
	if _, err := f.Mount.Start(ctx, f.id, f.saws["table"].ID, id, nil, ""); !errors.As(err, &e) || !strings.Contains(e.What.String(), "hasn't been inspected since") {
		t.Errorf("mounted after a hit: %v", err)
	}
	before := *planned{f.plan(t, c)}.of(f.blade["Plough"].ID)
	if _, err := f.Care.Inspect(ctx, f.id, id, care.Chipped, nil, "", ""); err != nil {
		t.Fatal(err)
	}
	p := planned{f.plan(t, c)}
	chipped := p.of(id)
	if chipped == nil || chipped.Score >= before.Score || len(chipped.Minds) != 1 || chipped.Minds[0].Rule != choose.RuleCondition || chipped.Verdict != choose.Caution {
		t.Errorf("chipped: %+v", chipped)
	}
	m, err := f.Mount.Start(ctx, f.id, f.saws["table"].ID, id, nil, "")
	if err != nil || !strings.Contains(m.Steps[1].Checks[0].Ask.String(), "The log has a chipped tip") {
		t.Errorf("%+v, %v", m.Steps, err)
	}
	tr, err := f.Trace.Start(ctx, f.id, c, json.RawMessage(`{}`), &id, 0, []string{"marks-once-per-turn"}, "")
	if err != nil || !slices.ContainsFunc(tr.Facts, func(x trace.Fact) bool { return x.Fact == "chipped" && x.Value == 1 }) {
		t.Errorf("facts %+v, %v", tr.Facts, err)
	}
}

// A row keeps what it was foretold, by which edition and with what: the present
// edition counts, an older one that holds enough is worked anew to the same
// figures, and one that does not is left out. The server does that by itself
// when it starts.
func TestCorrectionsCountThePresentEdition(t *testing.T) {
	f := open(t)
	ctx := t.Context()
	c := f.cut("table", "teak", cut.Rip, 90)
	id := f.blade["Plough"].ID
	row, err := f.Run.LogCut(ctx, f.id, run.CutMade{Cut: c, Blade: id, Height: 33, Pieces: 1, Wall: "brown", Splinters: "fuzz", Seconds: 20})
	if err != nil {
		t.Fatal(err)
	}
	var d history.Cut
	if err := json.Unmarshal(row.Detail, &d); err != nil || d.Foretold == nil || d.Foretold.Edition != cut.Edition || d.Foretold.With == nil {
		t.Fatalf("%+v, %v", d.Foretold, err)
	}
	taught := func() store.Lesson {
		t.Helper()
		all, err := f.st.Lessons(ctx, f.id, "teak")
		if err != nil || len(all) != 1 {
			t.Fatal(all, err)
		}
		return all[0]
	}
	fresh := taught()
	if fresh.Cuts != 1 || fresh.LnScorch >= 0 {
		t.Errorf("one burn taught %+v", fresh)
	}
	again := func(change func(*history.Foretold)) {
		t.Helper()
		old := d
		f2 := *d.Foretold
		change(&f2)
		old.Foretold = &f2
		raw, _ := json.Marshal(old)
		if err := f.st.AddOld(ctx, f.id, []store.Entry{{Shop: f.id, At: time.Now().Add(-time.Hour), Kind: history.KindCut, Blade: row.Blade, Saw: row.Saw, Detail: raw}}, nil); err != nil {
			t.Fatal(err)
		}
	}
	// An edition whose figures mean something else, with all that it takes.
	again(func(x *history.Foretold) { x.Edition, x.Heat, x.Exit = 1, 99, 99 })
	two := taught()
	again(func(x *history.Foretold) { x.Edition, x.Heat, x.Exit, x.With = 0, 99, 99, nil })
	if left := taught(); left != two || two.Cuts != 2 {
		t.Errorf("a row that cannot be worked anew counted: %+v after %+v", left, two)
	}
	again(func(*history.Foretold) {})
	three := taught()
	again(func(x *history.Foretold) { x.Edition, x.Heat = 1, 1e-9 })
	four := taught()
	if three.Cuts != 3 || four.Cuts != 4 || !(four.LnScorch < three.LnScorch && three.LnScorch < two.LnScorch && two.LnScorch < fresh.LnScorch) {
		t.Errorf("four burns alike taught %v, %v, %v, %v", fresh.LnScorch, two.LnScorch, three.LnScorch, four.LnScorch)
	}
}

// Wet stock leaves twice the pitch, and a chop's feed is that of its stroke.
func TestWetStockAndStrokes(t *testing.T) {
	f := open(t)
	ctx := t.Context()
	id := f.blade["Mortise"].ID
	resin := func(m cut.Moisture) float64 {
		t.Helper()
		c := f.cut("table", "yellow-pine", cut.Rip, 90)
		c.Moisture = m
		was, _ := f.Rack.Blade(ctx, f.id, id)
		if _, err := f.Run.LogCut(ctx, f.id, run.CutMade{Cut: c, Blade: id, Height: 33, Pieces: 3, Wall: "clean", Splinters: "none"}); err != nil {
			t.Fatal(err)
		}
		now, _ := f.Rack.Blade(ctx, f.id, id)
		return now.Condition.ResinM2 - was.Condition.ResinM2
	}
	if dry, wet := resin(cut.Dry), resin(cut.Wet); math.Abs(wet/dry-2) > 1e-9 {
		t.Errorf("wet stock leaves %v times the pitch", wet/dry)
	}
	chop := f.cut("miter", "red-oak", cut.Crosscut, 90)
	p := f.plan(t, chop)
	at := p.Options[0].Setting
	if math.Abs(at.Stroke-0.019*60/float64(at.Feed)) > 1e-9 || at.Pieces != 1 {
		t.Errorf("a stroke of 19 mm at %v takes %v s", at.Feed, at.Stroke)
	}
	row, err := f.Run.LogCut(ctx, f.id, run.CutMade{Cut: chop, Blade: p.Options[0].Blade, Pieces: 1, Wall: "clean", Splinters: "none", Seconds: 2})
	var d history.Cut
	if err != nil || json.Unmarshal(row.Detail, &d) != nil || math.Abs(float64(d.RealFeed())-0.57) > 1e-9 {
		t.Errorf("19 mm in 2 s is %v m/min, %v", d.RealFeed(), err)
	}
}
