package shop_test

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"

	"corte/core/care"
	"corte/core/cut"
	"corte/core/joint"
	"corte/core/measure"
	"corte/internal/demo"
	"corte/internal/record"
	"corte/internal/shop"
	shopcare "corte/internal/shop/care"
	shopchoose "corte/internal/shop/choose"
	shoptruing "corte/internal/shop/truing"
	"corte/internal/store"
	"corte/internal/testkit/golden"
	"corte/internal/testkit/pgtest"
)

// The demo shop on one day of one year, through every station: what it says was
// read over once, and is held to the letter.
func TestTheDemoShopSaysWhatWasReadOver(t *testing.T) {
	ctx := t.Context()
	now := time.Date(2026, 6, 1, 14, 0, 0, 0, time.UTC)
	st := pgtest.Store(t)
	sh, err := demo.Furnish(ctx, st, now)
	if err != nil {
		t.Fatal(err)
	}
	svc := shop.New(st, func() time.Time { return now })
	f := floor{svc, st, sh.ID, map[string]store.Saw{}, map[string]store.Blade{}}
	saws, _ := svc.Rack.Saws(ctx, sh.ID)
	for _, w := range saws {
		f.saws[w.Kind.String()] = w
	}
	blades, _, _ := svc.Rack.Blades(ctx, sh.ID, store.Place{}, 500)
	byID := map[uuid.UUID]string{}
	for _, b := range blades {
		f.blade[b.Name], byID[b.ID] = b, b.Name
	}
	var said []any
	say := func(what string, v any, err error) {
		t.Helper()
		if err != nil {
			v = err.Error()
		}
		said = append(said, "== "+what, map[string]any{"": v})
	}
	check := func(name string) {
		t.Helper()
		golden.Check(t, name, said...)
		said = nil
	}
	id := func(name string) uuid.UUID { return f.blade[name].ID }
	table := f.saws["table"].ID
	bevel, groovy, deep := f.cut("table", "poplar", cut.Crosscut, 90), f.cut("table", "birch-ply", cut.Sheet, 300), f.cut("table", "hard-maple", cut.Rip, 90)
	bevel.BevelDeg, groovy.Form, groovy.Depth, deep.Thickness = 45, cut.Groove, 6, 110
	for what, c := range map[string]record.Cut{
		"maple rip": f.cut("table", "hard-maple", cut.Rip, 90), "cherry": f.cut("table", "cherry", cut.Crosscut, 90), "ply": f.cut("table", "birch-ply", cut.Sheet, 600), "bevel": bevel, "groove": groovy,
		"too deep": deep, "chop": f.cut("miter", "white-pine", cut.Crosscut, 90), "push": f.cut("miter", "white-pine", cut.Crosscut, 300), "by hand": f.cut("circular", "softwood-ply", cut.Sheet, 600),
		"acrylic": f.cut("table", "acrylic", cut.Crosscut, 300),
	} {
		p, err := svc.Choose.Plan(ctx, sh.ID, c, 2)
		say("plan", p, err)
		s, err := svc.Choose.Sweep(ctx, sh.ID, c, shopchoose.SweepSpec{Blade: id("Chorus"), Step: 40, Also: 33})
		say("sweep", s, err)
		_, compared, err := svc.Choose.Compare(ctx, sh.ID, c, []shopchoose.Pin{{Blade: id("Needle")}, {Blade: id("Reed"), Height: 25}})
		say("compare", compared, err)
		check("plan, " + what)
	}
	// Where another blade is the way out, it is named, and led to.
	thick := f.cut("table", "hard-maple", cut.Crosscut, 90)
	thick.Thickness = 76
	whole, err := svc.Choose.Plan(ctx, sh.ID, thick, 60)
	if err != nil {
		t.Fatal(err)
	}
	led := 0
	for _, o := range whole.Options {
		if o.Change == nil || !strings.HasPrefix(o.Change.Text.String(), "use ") {
			continue
		}
		led++
		if o.Change.Blade == nil || o.Change.Text.String() != "use "+byID[*o.Change.Blade]+", which has a wide feed range here" {
			t.Errorf("the way out is %+v", o.Change)
		}
	}
	if led == 0 {
		t.Error("no blade is the way out of another's window")
	}
	bench, err := svc.Bench.All(ctx, sh.ID)
	say("bench", bench, err)
	if _, err := svc.Mount.Start(ctx, sh.ID, table, id("Plough"), nil, ""); err != nil {
		t.Fatal(err)
	}
	bench, err = svc.Bench.All(ctx, sh.ID)
	say("a blade under way", bench, err)
	check("bench")
	all, err := svc.Care.All(ctx, sh.ID)
	say("care", all, err)
	for _, name := range []string{"Plough", "Chorus", "Rook", "Mason", "Lace"} {
		m, err := svc.Care.Money(ctx, sh.ID, id(name), shopcare.MoneyAsk{Sharpenings: -1, CheapPrice: 20, CheapLife: 0.5})
		m.Line = m.Line[:min(3, len(m.Line))]
		say("money of "+name, m, err)
		in, err := svc.Care.StandIns(ctx, sh.ID, id(name), 6)
		say("stand-ins", in, err)
		r, err := svc.Care.Survey(ctx, sh.ID, id(name))
		say("survey", r, err)
	}
	for _, ask := range []shopcare.WashAsk{
		{Blades: []uuid.UUID{id("Needle")}, Cleaner: "vinegar", Brush: care.Nylon}, {Blades: []uuid.UUID{id("Stagehand"), id("Chorus")}, Cleaner: "detergent", Brush: care.Brass},
		{Blades: []uuid.UUID{id("Lace")}, Cleaner: "detergent", Brush: care.Nylon}, {Cleaner: "detergent", Brush: care.Nylon}, {Blades: []uuid.UUID{id("Rook")}, Cleaner: "oven-cleaner", Brush: care.Nylon},
		{Blades: []uuid.UUID{id("Rook")}, Cleaner: "soap", Brush: care.Nylon}, {Blades: []uuid.UUID{id("Rook")}, Cleaner: "citrus", Brush: care.Steel},
	} {
		w, err := svc.Care.CheckWash(ctx, sh.ID, ask)
		say("check a wash", w, err)
	}
	check("care")
	lessons, err := svc.Run.Lessons(ctx, sh.ID)
	say("lessons", lessons, err)
	rows, _, err := svc.Log.Rows(ctx, sh.ID, store.Filter{}, store.Mark{}, 25)
	say("log", rows, err)
	check("log")
	ask := f.groove("table", "birch-ply", 6, 17.8, 17.85, 17.8)
	ways, err := svc.Groove.Plan(ctx, sh.ID, ask)
	say("ways", ways, err)
	earlier, err := svc.Groove.Recent(ctx, sh.ID, 5)
	say("earlier", earlier, err)
	for _, name := range []string{"Trapdoor", "Bellows", "Mortise"} {
		set, err := svc.Groove.DadoSet(ctx, sh.ID, id(name))
		say("set", set, err)
		g, err := svc.Groove.Start(ctx, sh.ID, ask, id(name), "Ilse")
		say("begun", g, err)
		if err == nil {
			g, err = svc.Groove.Test(ctx, sh.ID, g.ID, g.Version, []measure.Length{17.6, 17.62, 17.61}, 5.2)
			say("tested", g, err)
		}
	}
	for _, a := range []joint.Ask{{Kind: "tenon", Stock: 25, Tenon: 9, Length: 30}, {Kind: "box", Width: 96, Room: 0.1, Stock: 12}, {Kind: "box", Width: 96, Slot: 8, Room: 0.1}, {Kind: "box", Width: 100, Slot: 2}, {Kind: "tails", Stock: 19},
		{Kind: "slope", Edge: 40, Width: 15, Depth: 9, SlopeDeg: 12}, {Kind: "fold", Stock: 12, Radius: 150, BendDeg: 90}, {Kind: "biscuit"}} {
		for _, name := range []string{"Mortise", "Trot"} {
			on := id(name)
			p, err := svc.Joint.Plan(ctx, sh.ID, table, &on, a)
			say(fmt.Sprint(a.Kind, " with ", name), p.Plan, err)
		}
	}
	check("grooves")
	for _, present := range [][]string{{"scorch-both-walls"}, {"splinters-bottom", "hard-to-push"}, {"scorch-fence-wall"}} {
		blade := id("Chorus")
		tr, err := svc.Trace.Start(ctx, sh.ID, f.cut("table", "cherry", cut.Rip, 90), json.RawMessage(`{}`), &blade, 30, present, "Maren")
		tr.Reasons, tr.Next = tr.Reasons[:min(4, len(tr.Reasons))], tr.Next[:min(3, len(tr.Next))]
		say("trace", tr, err)
	}
	check("traces")
	for _, name := range []string{"Plough", "Trapdoor", "Glass", "Reed"} {
		m, err := svc.Mount.Start(ctx, sh.ID, table, id(name), nil, "")
		say("mount "+name, m, err)
	}
	check("mountings")
	l := func(v ...float64) (out []measure.Length) {
		for _, x := range v {
			out = append(out, measure.Length(x))
		}
		return out
	}
	for _, r := range []shoptruing.Reading{
		{Test: "heel", Saw: &table, First: l(1, 1.08), Span: 200}, {Test: "heel", Saw: &table, First: l(1)}, {Test: "fence", Saw: &table, First: l(50, 50.1), Span: 500}, {Test: "runout", First: l(0, 0.1, 0.2, 0.1), Second: l(0.2, 0.1, 0, 0.1)},
		{Test: "clearance", First: l(0.5, 0.51, 0.5, 0.56, 0.5), Second: l(0.5, 0.5, 0.5, 0.5, 0.5)}, {Test: "tilt", Saw: &table}, {Test: "guess", Saw: &table},
	} {
		w, err := svc.Truing.WorkOut(ctx, sh.ID, r)
		w.Saw = store.Saw{}
		say(r.Test, w, err)
	}
	past, err := svc.Truing.Recent(ctx, sh.ID, &table, nil, "", 4)
	say("past", past, err)
	check("truings")
	trials, err := svc.Run.Trials(ctx, sh.ID, nil, 3)
	say("trials", trials, err)
	for i, m := range []shopcare.BathAsk{{Cleaner: "detergent", Tray: care.Tray{Length: 400, Width: 300, Depth: 80}, Diameter: 254, Kerf: 3.2, Blades: 2}, {Cleaner: "water"}, {Cleaner: "citrus", Blades: 40}} {
		mix, err := svc.Care.MixBath(m)
		say(fmt.Sprint("bath ", i), mix, err)
	}
	check("trials")
}
