package demo

import (
	"context"
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"time"

	"corte/core/choose"
	"corte/core/cut"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/truing"
	"corte/internal/gaugesim"
	"corte/internal/shop"
	"corte/internal/store"
)

// Furnish founds the demo shop with its rack and a season of log up to now. It
// does so whole or not at all; where the shop is there already, it is left as
// it is.
func Furnish(ctx context.Context, st *store.Store, now time.Time) (store.Shop, error) {
	var out store.Shop
	err := st.Atomically(ctx, func(st *store.Store) error {
		sh, founded, err := st.EnsureShop(ctx, shopRow)
		out = sh
		if err != nil || !founded {
			return err
		}
		for _, s := range saws {
			if err := st.AddSaw(ctx, sh.ID, s); err != nil {
				return fmt.Errorf("saw %s: %w", s.Name, err)
			}
		}
		for _, b := range blades {
			if err := st.AddBlade(ctx, sh.ID, b); err != nil {
				return fmt.Errorf("blade %s: %w", b.Name, err)
			}
		}
		return play(ctx, st, now)
	})
	return out, err
}

// A task is work of a kind that comes back through the season.
type task struct {
	blade     string
	saw       store.Saw
	material  string
	direction cut.Direction
	finish    cut.Finish
	thickness measure.Length
	width     measure.Length
	length    measure.Length
	pieces    int // about
	by        string
	every     int // days
	from      int // day of the season
	until     int
}

const season = 126 // days

var tasks = []task{
	{"Plough", longTable, "red-oak", cut.Rip, cut.Hidden, 25, 70, 1800, 8, "Maren", 9, 2, season},
	{"Plough", longTable, "hard-maple", cut.Rip, cut.Hidden, 25, 60, 900, 6, "Maren", 17, 8, season},
	{"Plough", longTable, "cherry", cut.Rip, cut.Show, 19, 80, 1200, 6, "Ilse", 21, 12, season},
	{"Stagehand", longTable, "walnut", cut.Crosscut, cut.Show, 19, 120, 900, 10, "Ilse", 12, 3, season},
	{"Stagehand", longTable, "poplar", cut.Rip, cut.Hidden, 19, 90, 2400, 10, "Tobin", 7, 1, season},
	{"Chorus", longTable, "yellow-pine", cut.Rip, cut.Hidden, 38, 45, 3000, 14, "Tobin", 6, 5, season},
	{"Needle", longTable, "birch-ply", cut.Sheet, cut.Show, 12, 300, 1220, 8, "Ilse", 14, 6, season},
	{"Quill", longTable, "cherry", cut.Crosscut, cut.Show, 19, 110, 700, 8, "Ilse", 15, 9, season},
	{"Glass", longTable, "melamine-board", cut.Sheet, cut.Show, 18, 400, 2440, 6, "Tobin", 13, 10, season},
	{"Rook", longTable, "softwood-ply", cut.Sheet, cut.Rough, 18, 610, 2440, 16, "Tobin", 3, 0, 110},
	{"Rook", longTable, "chipboard", cut.Sheet, cut.Rough, 22, 610, 2440, 10, "Wick", 6, 1, 112},
	{"Batten", drop, "white-pine", cut.Crosscut, cut.Hidden, 38, 90, 2400, 60, "Wick", 3, 1, season},
	{"Curtain", drop, "red-oak", cut.Crosscut, cut.Fine, 19, 90, 900, 16, "Maren", 11, 4, season},
	{"Curtain", drop, "poplar", cut.Crosscut, cut.Show, 19, 240, 1800, 8, "Ilse", 16, 7, season},
	{"Trot", walker, "softwood-ply", cut.Sheet, cut.Hidden, 18, 1220, 2440, 6, "Wick", 5, 2, season},
	{"Lace", walker, "birch-ply", cut.Sheet, cut.Show, 18, 600, 1500, 6, "Wick", 12, 5, season},
	{"Ragman", walker, "nailed-wood", cut.Crosscut, cut.Rough, 38, 140, 2400, 20, "Tobin", 30, 28, season},
}

// care is what was done to blades and saws on a day of the season.
var careDays = map[int][]store.Entry{
	0:  {heel(longTable, 0.04, "after the dock was swept"), fence(longTable, 0.03, "")},
	42: {heel(longTable, 0.05, "")},
	30: {washed("Stagehand", "Maren"), washed("Chorus", "Maren")},
	52: {sharpened("Plough", "back from the saw doctor, 24 tips sound")},
	75: {washed("Stagehand", "Ilse"), washed("Batten", "Wick")},
	90: {clearance("Quill"), runOut(longTable, "Quill")},
	98: {{Kind: store.KindMoved, Saw: &longTable.ID, By: "Tobin", Note: "the platform truck bumped it"}, heel(longTable, 0.09, "after the bump")},
}

func heel(s store.Saw, mm float64, note string) store.Entry {
	// The rear has come toward the fence, which a dial in the right slot shows.
	return measured(s, store.KindHeel, mm, truing.Heel{Heel: measure.Length(mm), TowardFence: measure.Length(mm), Span: 200}.Judge(truing.Usual, measure.Millimetre),
		map[string]any{"first_mm": []float64{0.2, 0.2 + mm}, "span_mm": 200, "dial": "right"}, note)
}

func fence(s store.Saw, open float64, note string) store.Entry {
	return measured(s, store.KindFence, open, truing.Fence{Open: measure.Length(open)}.Judge(truing.Usual, measure.Millimetre),
		map[string]any{"first_mm": []float64{100, 100 + open}, "span_mm": 600}, note)
}

// clearance is every tooth of a blade, as the stand-in gauge shows them.
func clearance(name string) store.Entry {
	b := named(name)
	var left, right []measure.Length
	for i := range b.Teeth {
		left = append(left, gaugesim.Demo.At("left", i, b.Teeth))
		right = append(right, gaugesim.Demo.At("right", i, b.Teeth))
	}
	c, _ := truing.ClearanceOf(left, nil)
	e := measured(longTable, store.KindClearance, c.Range.Mm(), c.Judge(0, measure.Millimetre),
		map[string]any{"blade_id": b.ID, "first_mm": left, "second_mm": right}, "since the staple in April")
	e.Blade = &b.ID
	return e
}

// runOut is a round of the plate and one with the blade turned, as the
// stand-in gauge shows them.
func runOut(s store.Saw, name string) store.Entry {
	const steps = 12
	var first, turned []measure.Length
	for i := range steps {
		first = append(first, gaugesim.Demo.At("runout", i, steps))
		turned = append(turned, gaugesim.Demo.At("turned", i, steps))
	}
	r, _ := truing.RunOutOf(first, turned)
	b := named(name).ID
	e := measured(s, store.KindRunOut, r.Spread.Mm(), r.Judge(truing.Usual, measure.Millimetre),
		map[string]any{"blade_id": b, "first_mm": first, "second_mm": turned}, "")
	e.Blade = &b
	return e
}

func measured(s store.Saw, kind store.Kind, mm float64, f truing.Finding, input map[string]any, note string) store.Entry {
	input["test"], input["saw_id"], input["units"] = kind, s.ID, "mm"
	in, _ := json.Marshal(input)
	d := store.TruingDetail{Figure: mm, Unit: "mm", Verdict: f.Verdict.String(), Input: in}
	switch kind {
	case store.KindHeel:
		d.Heel = &mm
	case store.KindFence:
		d.Open = &mm
	}
	raw, _ := json.Marshal(d)
	return store.Entry{Kind: kind, Saw: &s.ID, By: "Maren", Note: note, Detail: raw}
}

func washed(name, by string) store.Entry {
	b := named(name).ID
	return store.Entry{Kind: store.KindWashed, Blade: &b, By: by}
}

func sharpened(name, note string) store.Entry {
	b := named(name).ID
	return store.Entry{Kind: store.KindSharpened, Blade: &b, By: "Maren", Note: note}
}

// play lives through the season day by day. How each cut came out is drawn
// from the model itself, with the blade in the state that the log has brought
// it to, so that the demo shop's history bears out what Corte says of it.
func play(ctx context.Context, st *store.Store, now time.Time) error {
	dice := rand.New(rand.NewPCG(254, 15_875))
	begin := now.AddDate(0, 0, -season).Truncate(24 * time.Hour)
	on := map[string]string{} // saw to blade
	for day := range season {
		hour := begin.AddDate(0, 0, day).Add(8 * time.Hour)
		add := func(e store.Entry) error {
			hour = hour.Add(time.Duration(10+dice.IntN(25)) * time.Minute)
			e.Shop, e.At = shopRow.ID, hour
			_, err := st.Append(ctx, store.IdempotencyKey{}, e, shop.Fold(e))
			return err
		}
		for _, e := range careDays[day] {
			if err := add(e); err != nil {
				return err
			}
		}
		for _, t := range tasks {
			if day < t.from || day >= t.until || (day-t.from)%t.every != 0 {
				continue
			}
			b, err := st.Blade(ctx, shopRow.ID, named(t.blade).ID)
			if err != nil {
				return err
			}
			if on[t.saw.Name] != t.blade {
				on[t.saw.Name] = t.blade
				if err := add(store.Entry{Kind: store.KindMounted, Blade: &b.ID, Saw: &t.saw.ID, By: t.by}); err != nil {
					return err
				}
			}
			e, err := t.cut(b, dice)
			if err != nil {
				return err
			}
			if err := add(e); err != nil {
				return err
			}
		}
	}
	return nil
}

// cut makes the log row of one day's work at a task.
func (t task) cut(b store.Blade, dice *rand.Rand) (store.Entry, error) {
	m, err := material.Get(t.material)
	if err != nil {
		return store.Entry{}, err
	}
	j := cut.Job{Material: m, Direction: t.direction, Finish: t.finish, Thickness: t.thickness, Width: t.width,
		Length: t.length, Motion: t.saw.UsualMotion(t.width)}
	j.Exit, j.Other = cut.UsualSupport(j.Direction, j.Motion, t.saw.Kind.CarriesWork())
	if t.finish >= cut.Show && j.Exit == cut.Open {
		j.Exit = cut.ZeroClearance
	}
	j.Height = choose.Request{Job: j, Saw: t.saw.Saw}.Heights(b.Blade).Suggested
	if err := choose.CheckJob(j, t.saw.Saw, measure.Millimetre); err != nil {
		return store.Entry{}, fmt.Errorf("%s: %w", t.blade, err)
	}
	if stops := choose.Stops(b.Blade, j, t.saw.Saw, measure.Millimetre); len(stops) > 0 {
		return store.Entry{}, fmt.Errorf("%s: %s", t.blade, stops[0].Why)
	}
	d := store.CutDetail{
		Material: m.ID, Direction: j.Direction.String(), Motion: j.Motion.String(), Finish: j.Finish.String(),
		Thickness: j.Thickness.Mm(), Width: j.Width.Mm(), Length: j.Length.Mm(), Height: j.Height.Mm(),
		Exit: j.Exit.String(), Other: j.Other.String(), Pieces: max(1, t.pieces+dice.IntN(5)-2),
		Wall: "clean", Splinters: "none",
	}
	if m.Kind.Modelled() {
		f := cut.Work(j, b.Blade, cut.Drive{RPM: t.saw.RPM, PowerLimitW: t.saw.PowerLimitW()}, shop.State(b.Blade, b.Condition))
		d.Feed = float64(f.Feed)
		d.Wall = wall(f.Burn, dice)
		d.Splinters = splinters(f.Exit.Splinter/j.Finish.SplinterLimit(), dice)
	}
	raw, err := json.Marshal(d)
	return store.Entry{Kind: store.KindCut, Blade: &b.ID, Saw: &t.saw.ID, By: t.by, Detail: raw}, err
}

func wall(burn float64, dice *rand.Rand) string {
	switch p := dice.Float64(); {
	case p < burn/3:
		return "black"
	case p < burn:
		return "brown"
	}
	return "clean"
}

func splinters(ofLimit float64, dice *rand.Rand) string {
	switch x := ofLimit * (0.7 + 0.6*dice.Float64()); {
	case x > 1.6:
		return "torn"
	case x > 1:
		return "splinters"
	case x > 0.6:
		return "fuzz"
	}
	return "none"
}
