package shop_test

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"math"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/santhosh-tekuri/jsonschema/v6"

	"corte/core/care"
	"corte/core/cut"
	"corte/core/history"
	"corte/core/measure"
	"corte/core/mount"
	"corte/core/outcome"
	"corte/core/say"
	"corte/internal/logfile"
	"corte/internal/record"
	"corte/internal/refusal"
	shopcare "corte/internal/shop/care"
	shopchoose "corte/internal/shop/choose"
	"corte/internal/shop/env"
	shoplog "corte/internal/shop/log"
	"corte/internal/shop/run"
	"corte/internal/store"
)

// A shop whose cherry scorches early is planned differently after 20 cuts, and
// as the table says again where it does not want to learn.
func TestTheShopsOwnCutsTeach(t *testing.T) {
	f := open(t)
	c := f.cut("table", "cherry", cut.Crosscut, 90)
	c.Material = "teak" // of which the demo shop has cut none
	plan := func() shopchoose.Option {
		t.Helper()
		p, err := f.Choose.Plan(t.Context(), f.id, c, 60)
		if err != nil {
			t.Fatal(err)
		}
		for _, o := range p.Options {
			if o.Blade == f.blade["Quill"].ID {
				o.Reasons = nil
				return o
			}
		}
		t.Fatal("Quill is not offered")
		return shopchoose.Option{}
	}
	before := plan()
	for range 20 {
		made := run.CutMade{Cut: c, Blade: f.blade["Quill"].ID, Height: before.Setting.Height, Feed: 2 * before.Setting.Window.Scorch, Pieces: 1, Wall: "brown", Splinters: "none"}
		if _, err := f.Run.LogCut(t.Context(), f.id, made); err != nil {
			t.Fatal(err)
		}
	}
	lessons, err := f.Run.Lessons(t.Context(), f.id)
	if err != nil {
		t.Fatal(err)
	}
	i := slices.IndexFunc(lessons, func(l store.Lesson) bool { return l.Material == "teak" })
	if i < 0 || lessons[i].Cuts != 20 || lessons[i].LnScorch > -0.2 || lessons[i].LnSplinter >= 0 {
		t.Fatalf("it taught %+v", lessons)
	}
	rows, _, err := f.Log.Rows(t.Context(), f.id, store.Filter{}, store.Mark{}, 1)
	if err != nil {
		t.Fatal(err)
	}
	if _, err := f.Log.Strike(t.Context(), f.id, rows[0].ID, ""); err != nil {
		t.Fatal(err)
	}
	if lessons, err = f.Run.Lessons(t.Context(), f.id); err != nil || lessons[i].Cuts != 19 {
		t.Errorf("with one of 20 struck out, it taught %+v, %v", lessons[i], err)
	}
	after := plan()
	if after.Setting.Window.Slowest <= 1.2*before.Setting.Window.Slowest || after.Setting.Window.Splinter <= before.Setting.Window.Splinter {
		t.Errorf("the window was %+v and is %+v", before.Setting.Window, after.Setting.Window)
	}
	sh, _ := f.Rack.Shop(t.Context(), f.id)
	sh.Learning = false
	if _, err := f.Rack.ChangeShop(t.Context(), sh); err != nil {
		t.Fatal(err)
	}
	if off := plan(); math.Abs(float64(off.Setting.Window.Slowest/before.Setting.Window.Slowest)-1) > 0.01 { // what 20 cuts wear
		t.Errorf("switched off, the window is %+v, before it was %+v", off.Setting.Window, before.Setting.Window)
	}
}

func TestAWashFromTrayToLog(t *testing.T) {
	f := open(t)
	ctx := t.Context()
	needle, rook, chorus := f.blade["Needle"].ID, f.blade["Rook"].ID, f.blade["Chorus"].ID
	ask := shopcare.WashAsk{Blades: []uuid.UUID{rook, needle}, Cleaner: "oven-cleaner", Brush: care.Nylon, Accepted: true}
	refused := func(field string, a shopcare.WashAsk) {
		t.Helper()
		var e *refusal.Error
		if _, err := f.Care.StartWash(ctx, f.id, a); !errors.As(err, &e) || e.Field != field {
			t.Errorf("want a refusal of %s, got %v", field, err)
		}
	}
	refused("cleaner", ask) // Needle is coated
	ask.Blades = []uuid.UUID{rook}
	ask.Accepted = false
	refused("accept_risk", ask)
	ask.Brush = care.Steel
	refused("brush", ask)
	baths, err := f.Care.Baths(ctx, f.id)
	if err != nil || len(baths) != 1 {
		t.Fatal(baths, err)
	}
	ask = shopcare.WashAsk{Blades: []uuid.UUID{rook, chorus}, Cleaner: "citrus", Brush: care.Brass, Bath: &baths[0].ID, By: "Ilse"}
	refused("bath_id", ask) // never mix
	ask.Bath = &rook
	refused("bath_id", ask) // a blade is no bath
	ask.Bath = &baths[0].ID
	ask.Cleaner = "detergent"
	w, err := f.Care.StartWash(ctx, f.id, ask)
	if err != nil {
		t.Fatal(err)
	}
	if _, err := f.Care.EndWash(ctx, f.id, w.ID, w.Version, env.Sent{}); err == nil {
		t.Error("it ended before it was rinsed")
	}
	for w.Step < len(w.Steps)-1 {
		if w, err = f.Care.StepWash(ctx, f.id, w.ID, w.Step+1, w.Version, env.Sent{Waited: time.Hour}); err != nil {
			t.Fatal(err)
		}
	}
	if _, err := f.Care.StepWash(ctx, f.id, w.ID, 0, 1, env.Sent{}); err == nil {
		t.Error("an old tablet moved it")
	}
	// Done at the tray while the server was away, it counts from then.
	ago := func(at time.Time) float64 { return time.Since(at).Round(time.Minute).Minutes() }
	if ago(w.StepAt) != 60 {
		t.Errorf("a step of an hour ago began %v", w.StepAt)
	}
	rows, err := f.Care.EndWash(ctx, f.id, w.ID, w.Version, env.Sent{Waited: 50 * time.Minute})
	if err != nil || len(rows) != 2 || ago(rows[0].At) != 50 || ago(rows[1].At) != 50 {
		t.Fatal(rows, err)
	}
	b, _ := f.Rack.Blade(ctx, f.id, chorus)
	after, _ := f.Care.Baths(ctx, f.id)
	if !b.Condition.Asked || b.Condition.PitchLevel() != 0 || after[0].Uses != baths[0].Uses+2 {
		t.Errorf("after it %+v, bath %+v", b.Condition, after[0])
	}
	if _, err := f.Care.EndWash(ctx, f.id, w.ID, w.Version, env.Sent{}); err == nil {
		t.Error("it ended twice")
	}
}

// A blade that is away, or unfit, is offered for nothing until it is back.
func TestSentOutAndBack(t *testing.T) {
	f := open(t)
	ctx := t.Context()
	plough := f.blade["Plough"]
	c := f.cut("table", "hard-maple", cut.Rip, 90)
	stopped := func() string {
		t.Helper()
		p, err := f.Choose.Plan(ctx, f.id, c, 60)
		if err != nil {
			t.Fatal(err)
		}
		for _, s := range p.Stopped {
			if slices.Contains(s.Blades, plough.ID) {
				return s.Rule.String() + ": " + s.Why.String()
			}
		}
		return ""
	}
	if why := stopped(); why != "" {
		t.Fatal(why)
	}
	if _, err := f.Care.SendOut(ctx, f.id, plough.ID, history.Sent{To: "the saw doctor", Asked: 24}, "Maren", ""); err != nil {
		t.Fatal(err)
	}
	if why := stopped(); !strings.Contains(why, "condition: it is away") {
		t.Errorf("away, the plan says %q", why)
	}
	var e *refusal.Error
	if _, err := f.Mount.Start(ctx, f.id, f.saws["table"].ID, plough.ID, nil, ""); !errors.As(err, &e) {
		t.Errorf("away, it is mounted: %v", err)
	}
	all, err := f.Care.All(ctx, f.id)
	if err != nil || !slices.ContainsFunc(all.Away, func(e store.Entry) bool { return *e.Blade == plough.ID }) {
		t.Errorf("care lists %+v as away, %v", all.Away, err)
	}
	if _, err := f.Care.TakeBack(ctx, f.id, plough.ID, true, history.Sharpened{Diameter: plough.Diameter + 1.01}, "", ""); !errors.As(err, &e) || e.Field != "diameter_mm" {
		t.Errorf("back a hair over a millimetre larger: %v", err)
	}
	if _, err := f.Care.TakeBack(ctx, f.id, plough.ID, true, history.Sharpened{Diameter: 400}, "", ""); !errors.As(err, &e) || e.Field != "diameter_mm" {
		t.Errorf("it came back larger: %v", err)
	}
	left := 3
	if _, err := f.Care.TakeBack(ctx, f.id, plough.ID, true, history.Sharpened{Price: 24, Left: &left, Kerf: 3.15, Diameter: 253.4}, "", ""); err != nil {
		t.Fatal(err)
	}
	b, _ := f.Rack.Blade(ctx, f.id, plough.ID)
	if stopped() != "" || b.Kerf != 3.15 || b.Diameter != 253.4 || b.Condition.WearM2 != 0 || b.Condition.Sharpenings != 2 {
		t.Errorf("back: %+v", b)
	}
	m, err := f.Care.Money(ctx, f.id, plough.ID, shopcare.MoneyAsk{Sharpenings: -1, CheapPrice: 18, CheapLife: 0.5})
	if err != nil || m.Spent != 78+22+24 || m.Expected <= 0 || m.SoFar <= 0 || m.Pays == nil || m.Dear.Sharpenings != 5 {
		t.Errorf("money %+v, %v", m, err)
	}
	if _, err := f.Care.Inspect(ctx, f.id, plough.ID, care.Cracked, nil, "", ""); err != nil {
		t.Fatal(err)
	}
	if why := stopped(); !strings.Contains(why, "plate is cracked") {
		t.Errorf("cracked, the plan says %q", why)
	}
}

func TestSettingsAreCompared(t *testing.T) {
	f := open(t)
	ctx := t.Context()
	c := f.cut("table", "hard-maple", cut.Rip, 90)
	quill := f.blade["Quill"].ID
	pins := []shopchoose.Pin{{Blade: quill, Height: 22}, {Blade: quill, Height: 60}}
	start := func(pins []shopchoose.Pin) (run.Trial, error) {
		return f.Run.StartTrial(ctx, f.id, c, json.RawMessage(`{}`), pins, make([]float64, len(pins)), 4, true, "Ilse")
	}
	if _, err := start([]shopchoose.Pin{pins[0], pins[0]}); err == nil {
		t.Error("a setting is compared with itself")
	}
	if both, err := start([]shopchoose.Pin{pins[0], {Blade: f.blade["Stagehand"].ID, Height: 60}}); err != nil || !strings.Contains(both.Note.String(), "blade and height changed at once") {
		t.Errorf("two things changed: %q, %v", both.Note, err)
	}
	tr, err := start(pins)
	if err != nil {
		t.Fatal(err)
	}
	for i := range tr.Runs {
		if _, err := f.Run.RunGraded(ctx, f.id, tr.ID, tr.Version, i+1, "clean", "none", "easy"); err == nil {
			t.Fatal("graded before it was cut")
		}
		if tr.Hidden() {
			t.Fatal("hidden from the one who cuts")
		}
		if tr, err = f.Run.RunCut(ctx, f.id, tr.ID, tr.Version, i+1, 12); err != nil {
			t.Fatal(err)
		}
	}
	if !tr.Hidden() || slices.IsSorted(tr.Grading) {
		t.Error("the grader is told which is which")
	}
	before, _ := f.Rack.Blade(ctx, f.id, quill)
	for _, piece := range tr.Grading {
		wall := outcome.Brown
		if tr.Runs[piece-1].Setting == 1 {
			wall = outcome.Clean
		}
		if tr, err = f.Run.RunGraded(ctx, f.id, tr.ID, tr.Version, piece, wall, "none", "normal"); err != nil {
			t.Fatal(err)
		}
	}
	if tr, err = f.Run.EndTrial(ctx, f.id, tr.ID, tr.Version); err != nil {
		t.Fatal(err)
	}
	after, _ := f.Rack.Blade(ctx, f.id, quill)
	if d := after.Condition.Metres - before.Condition.Metres; d < 7.19 || d > 7.21 {
		t.Errorf("eight pieces of 900 mm added %v m", d)
	}
	// A piece of it teaches what the same cut does when Run logs it.
	ran, err := f.Run.LogCut(ctx, f.id, run.CutMade{Cut: c, Blade: quill, Height: 22, Feed: measure.Feed(tr.Settings[0].Detail.Feed), Pieces: 1, Seconds: 12, Wall: "clean", Splinters: "none"})
	if err != nil {
		t.Fatal(err)
	}
	logged, _, err := f.Log.Rows(ctx, f.id, store.Filter{Blade: &quill, Kinds: []history.Kind{history.KindCut}}, store.Mark{}, 9)
	if err != nil {
		t.Fatal(err)
	}
	same := 0
	for _, row := range logged[1:] {
		var one, piece history.Cut
		_, _ = json.Unmarshal(ran.Detail, &one), json.Unmarshal(row.Detail, &piece)
		if piece.Height != one.Height {
			continue
		}
		same++
		one.Foretold.With, piece.Foretold.With = nil, nil // the blade has cut eight pieces between them
		if d := one.Foretold.Heat/piece.Foretold.Heat - 1; math.Abs(d) > 0.01 || math.Abs(one.Foretold.Load/piece.Foretold.Load-1) > 0.01 {
			t.Errorf("Run foretells %+v and the comparison %+v", one.Foretold, piece.Foretold)
		}
	}
	if same != 4 {
		t.Errorf("%d pieces were cut as high", same)
	}
	if r := tr.Results[0]; r.Measure != "scorch" || r.Mean != -1 || r.Chance > 0.03 || !strings.Contains(tr.Says[0].String(), "B burns less than A; sure") {
		t.Errorf("it came to %+v, %q", tr.Results, tr.Says)
	}
	if mine, err := f.Run.Trials(ctx, f.id, &quill, 10); err != nil || len(mine) != 2 || mine[0].ID != tr.ID {
		t.Errorf("the blade's comparisons: %d, %v", len(mine), err)
	}
}

func TestALogGoesOutAndComesBack(t *testing.T) {
	f := open(t)
	ctx := t.Context()
	// A cut that waited in a tablet keeps its own time.
	made := run.CutMade{Cut: f.cut("table", "walnut", cut.Rip, 90), Blade: f.blade["Plough"].ID, Height: 30, Pieces: 1, Wall: "clean", Splinters: "none", Sent: env.Sent{Waited: 30 * time.Hour}}
	row, err := f.Run.LogCut(ctx, f.id, made)
	if ago := time.Since(row.At); err != nil || ago.Round(time.Hour) != 30*time.Hour {
		t.Errorf("it is logged at %v, %v", row.At, err)
	}
	// The next was on its way for less long than lay between the two: it still comes after.
	next := made
	next.Sent.Waited, next.Sent.After = 30*time.Hour+time.Second, row.At
	if after, err := f.Run.LogCut(ctx, f.id, next); err != nil || !after.At.Equal(row.At.Add(time.Microsecond)) {
		t.Errorf("the next is logged at %v after %v, %v", after.At, row.At, err)
	} else if _, err := f.Log.Strike(ctx, f.id, after.ID, "made twice"); err != nil {
		t.Error(err)
	}
	// What is said of a time that has not come is not believed.
	next.Sent.After = time.Now().Add(time.Hour)
	if early, err := f.Run.LogCut(ctx, f.id, next); err != nil || time.Since(early.At).Round(time.Hour) != 30*time.Hour {
		t.Errorf("after a row of the future it is logged at %v, %v", early.At, err)
	} else if _, err := f.Log.Strike(ctx, f.id, early.ID, "made twice"); err != nil {
		t.Error(err)
	}
	counted := made
	counted.Sent.Waited, counted.Metres, counted.Seconds = 0, 12.5, 10
	if row, err := f.Run.LogCut(ctx, f.id, counted); err != nil {
		t.Fatal(err)
	} else {
		var d history.Cut
		if err := json.Unmarshal(row.Detail, &d); err != nil || d.CutLength() != 12_500 || math.Abs(float64(d.RealFeed())-5.4) > 1e-9 {
			t.Errorf("12.5 m counted: %v mm at %v, %v", d.CutLength(), d.RealFeed(), err)
		}
	}
	if _, err := f.Log.Strike(ctx, f.id, row.ID, "the wrong blade"); err != nil {
		t.Fatal(err)
	}
	var conflict *refusal.Error
	if _, err := f.Log.Strike(ctx, f.id, row.ID, ""); !errors.As(err, &conflict) || conflict.Reason != refusal.Conflict {
		t.Errorf("struck out twice: %v", err)
	}
	total := 0
	for _, asCSV := range []bool{true, false} {
		var file bytes.Buffer
		if err := f.Log.WriteLog(ctx, f.id, store.Filter{}, asCSV, &file); err != nil {
			t.Fatal(err)
		}
		if !asCSV {
			keepsSchema(t, file.Bytes())
		}
		rows, err := logfile.Read(file.Bytes(), measure.Millimetre, time.UTC)
		if err != nil || len(rows) < 200 {
			t.Fatalf("%d rows, %v", len(rows), err)
		}
		total = len(rows)
		if back, err := f.Log.TakeIn(ctx, f.id, rows, true); err != nil || back.Add != 0 || back.Refuse != 0 || back.Same != total {
			t.Errorf("csv %v: brought in again it would add %d and refuse %d of %d: %+v, %v", asCSV, back.Add, back.Refuse, total, back.Rows[0], err)
		}
	}
	// A list kept by hand, in inches and with its own order of columns.
	hand := "kind,at,blade,saw,material,thickness_mm,width_mm,length_mm,pieces\n" +
		"cut,2025-03-02,Plough,Long Table,cherry,3/4\",3\",4',12\n" +
		"washed,2025-03-09 17:30,Plough,,,,,,\n" +
		"cut,2025-03-02,Nobody,Long Table,cherry,20,80,900,1\n" +
		"cut,2025-03-02,Plough,,cherry,20,80,900,1\n" +
		"cut,2025-03-02,Plough,Long Table,cheese,20,80,900,1\n" +
		"flew,2025-03-02,Plough,,,,,,\n" +
		"washed,soon,Plough,,,,,,\n"
	rows, err := logfile.Read([]byte(hand), measure.Millimetre, time.UTC)
	if err != nil {
		t.Fatal(err)
	}
	before, _ := f.Rack.Blade(ctx, f.id, f.blade["Plough"].ID)
	old, err := f.Log.TakeIn(ctx, f.id, rows, true)
	if err != nil || old.Add != 2 || old.Refuse != 5 {
		t.Errorf("%+v, %v", old, err)
	}
	after, _ := f.Rack.Blade(ctx, f.id, before.ID)
	if d := after.Condition.Metres - before.Condition.Metres; d < 14.62 || d > 14.64 || after.Condition.MetresSharp != before.Condition.MetresSharp || after.Condition.Washes != before.Condition.Washes+1 {
		t.Errorf("12 pieces of 4 ft added %v m, %v since sharpening", d, after.Condition.MetresSharp-before.Condition.MetresSharp)
	}
	if _, drifts, err := f.st.Conditions(ctx, false); err != nil || len(drifts) != 0 {
		t.Errorf("snapshots drifted: %+v, %v", drifts, err)
	}
}

// A row of a file goes to the blade that it was about, whoever is called the same
// by now; where that is not known it is refused, and every refusal is told first.
func TestARowNeverGoesToAnotherOfTheSameName(t *testing.T) {
	f := open(t)
	ctx := t.Context()
	old := f.blade["Plough"]
	if _, err := f.Rack.RetireBlade(ctx, f.id, old.ID, "worn out", ""); err != nil {
		t.Fatal(err)
	}
	twin := old
	twin.ID, twin.Version = uuid.Nil, 0
	twin, err := f.Rack.AddBlade(ctx, f.id, twin)
	if err != nil {
		t.Fatal(err)
	}
	take := func(text string) shoplog.Old {
		t.Helper()
		rows, err := logfile.Read([]byte(text), measure.Millimetre, time.UTC)
		if err != nil {
			t.Fatal(err)
		}
		got, err := f.Log.TakeIn(ctx, f.id, rows, true)
		if err != nil {
			t.Fatal(err)
		}
		return got
	}
	washes := func(id uuid.UUID) int {
		b, err := f.Rack.Blade(ctx, f.id, id)
		if err != nil {
			t.Fatal(err)
		}
		return b.Condition.Washes
	}
	was := washes(old.ID)
	const head = "at,kind,blade,blade_id\n"
	if got := take(head + "2025-03-09,washed,Plough,\n"); got.Refuse != 1 || !strings.Contains(got.Rows[0].Says.String(), "2 of them are called \"Plough\". Enter the id of the right one in blade_id") {
		t.Errorf("by a name that two have: %+v", got)
	}
	if got := take(head + "2025-03-09,washed,Plough," + old.ID.String() + "\n2025-03-10,washed,Plough," + record.IDIn(f.id, old.ID).String() + "\n"); got.Add != 1 || got.Refuse != 1 || !strings.Contains(got.Rows[0].Says.String(), "isn't here") {
		t.Errorf("by ids: %+v", got)
	}
	if washes(old.ID) != was+1 || washes(twin.ID) != 0 {
		t.Errorf("the old one has %d washes, the new one %d", washes(old.ID)-was, washes(twin.ID))
	}
	many := head + strings.Repeat("2025-03-11,washed,Understudy,\n", 600) + "2025-03-11,washed,Nobody,\n"
	if got := take(many); got.Refuse != 1 || got.Rows[0].Does != "refuse" || got.Rows[0].Line != 602 || len(got.Rows) != 500 {
		t.Errorf("of 601 the refused one stands at %+v of %d", got.Rows[0], len(got.Rows))
	}
	// Of the other shop's rows those of the retired blade come back to it as well.
	var file bytes.Buffer
	if err := f.Log.WriteLog(ctx, f.id, store.Filter{}, true, &file); err != nil {
		t.Fatal(err)
	}
	if got := take(file.String()); got.Add != 0 || got.Refuse != 1 || got.Rows[0].Kind != "retired" { // that is the rack's
		t.Errorf("brought in again: %d added, %d refused, %+v", got.Add, got.Refuse, got.Rows[0])
	}
}

func keepsSchema(t *testing.T, file []byte) {
	t.Helper()
	schema, err := jsonschema.UnmarshalJSON(bytes.NewReader(logfile.Schema))
	if err != nil {
		t.Fatal(err)
	}
	c := jsonschema.NewCompiler()
	if err := c.AddResource("log.json", schema); err != nil {
		t.Fatal(err)
	}
	doc, err := jsonschema.UnmarshalJSON(bytes.NewReader(file))
	if err != nil {
		t.Fatal(err)
	}
	if err := c.MustCompile("log.json").Validate(doc); err != nil {
		t.Errorf("the file does not keep its schema: %v", err)
	}
}

// The calendar's address opens it until it is withdrawn, and no other does.
func TestCalendar(t *testing.T) {
	f := open(t)
	ctx := t.Context()
	secret, err := f.Care.NewCalendar(ctx, f.id)
	if err != nil {
		t.Fatal(err)
	}
	text, err := f.Care.Feed(ctx, say.Voice{}, secret)
	for _, want := range []string{"BEGIN:VCALENDAR", "SUMMARY:Sharpen Rook", "SUMMARY:Lace is due back", "SUMMARY:Replace the bath Paint tray"} {
		if err != nil || !strings.Contains(text, want) {
			t.Errorf("the calendar lacks %q: %v", want, err)
		}
	}
	dead := func(secret string) {
		t.Helper()
		var e *refusal.Error
		if _, err := f.Care.Feed(context.WithoutCancel(ctx), say.Voice{}, secret); !errors.As(err, &e) || e.Reason != refusal.Missing {
			t.Errorf("%s: %v", secret, err)
		}
	}
	dead("guess")
	if _, err := f.Care.NewCalendar(ctx, f.id); err != nil {
		t.Fatal(err)
	}
	dead(secret)
	if err := f.Care.WithdrawCalendar(ctx, f.id); err != nil {
		t.Fatal(err)
	}
	dead(secret)
}

// What is done to one of several baths is done to that one alone.
func TestABathAmongOthers(t *testing.T) {
	f, ctx := open(t), t.Context()
	ask := shopcare.BathAsk{Name: "Second", Cleaner: "citrus", Tray: care.Tray{Length: 400, Width: 400, Depth: 100}, Diameter: 254, Kerf: 3, Blades: 2}
	made, err := f.Care.MakeBath(ctx, f.id, ask)
	if err != nil || made.Name != "Second" {
		t.Fatal(made.Name, err)
	}
	all, err := f.Care.Baths(ctx, f.id)
	if err != nil || len(all) != 2 {
		t.Fatal(len(all), err)
	}
	other := all[0]
	if other.ID == made.ID {
		other = all[1]
	}
	if strained, err := f.Care.StrainBath(ctx, f.id, other.ID); err != nil || strained.ID != other.ID || strained.Strained != other.Uses {
		t.Errorf("%s was strained at %d of %d: %v", strained.Name, strained.Strained, other.Uses, err)
	}
	wash := shopcare.WashAsk{Blades: []uuid.UUID{f.blade["Rook"].ID}, Cleaner: other.Cleaner.ID, Brush: care.Nylon, Bath: &other.ID}
	for warned, uses := range []int{0, 20} {
		if err := f.st.UseBath(ctx, f.id, other.ID, uses); err != nil {
			t.Fatal(err)
		}
		if warnings, err := f.Care.CheckWash(ctx, f.id, wash); err != nil || len(warnings) != warned {
			t.Errorf("after %d uses: %v, %v", uses, warnings, err)
		}
	}
	var e *refusal.Error
	if _, err := f.Care.StrainBath(ctx, f.id, f.id); !errors.As(err, &e) || e.Status() != 404 {
		t.Errorf("a bath that is not there: %v", err)
	}
}

// The blade that goes on is not the one that has to come off.
func TestABladeThatIsOnDoesNotComeOff(t *testing.T) {
	f, ctx := open(t), t.Context()
	w := f.saws["table"]
	for name, off := range map[string]bool{"Chorus": false, "Plough": true} {
		blade := f.blade[name].ID
		if (w.Mounted != nil && *w.Mounted == blade) == off {
			t.Fatalf("%s is not where it should be", name)
		}
		m, err := f.Mount.Start(ctx, f.id, w.ID, blade, nil, "")
		if err != nil {
			t.Fatal(err)
		}
		if got := slices.ContainsFunc(m.Steps, func(s mount.Step) bool { return s.ID == "off" }); got != off {
			t.Errorf("with %s a blade is to come off: %v", name, got)
		}
	}
}
