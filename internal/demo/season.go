package demo

import (
	"context"
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"time"

	"corte/core/care"
	"corte/core/choose"
	"corte/core/cut"
	"corte/core/history"
	"corte/core/learn"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/outcome"
	"corte/core/saw"
	"corte/core/truing"
	"corte/internal/gaugesim"
	shopchoose "corte/internal/shop/choose"
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
		if err := engage(ctx, st, now); err != nil {
			return err
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
	{"Stagehand", longTable, "cherry", cut.Rip, cut.Hidden, 25, 60, 1200, 4, "Ilse", 5, 4, season},
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

// careDays is what was done to blades and saws on a day of the season.
var careDays = map[int][]store.Entry{
	0:   {heel(longTable, 0.04, "after the dock was swept"), fence(longTable, 0.03, "")},
	42:  {heel(longTable, 0.05, "")},
	30:  {washed("Stagehand", "Maren"), washed("Chorus", "Maren")},
	45:  {washed("Plough", "Ilse")},
	46:  {about("Plough", history.KindInspected, history.Inspected{}, "24 tips, all there; washed, and no better")},
	47:  {about("Plough", history.KindSent, history.Sent{To: "the saw doctor on Quay Street", Asked: 22}, "")},
	52:  {sharpened("Plough", history.Sharpened{Price: 22, Report: "24 tips sound", Left: at(6)})},
	60:  {sharpened("Understudy", history.Sharpened{Price: 26, Report: "one tip new", Replaced: 1, Left: at(4), Kerf: 2.35})},
	75:  {washed("Stagehand", "Ilse"), washed("Batten", "Wick")},
	90:  {clearance("Quill"), runOut(longTable, "Quill")},
	91:  {about("Quill", history.KindInspected, history.Inspected{Fault: "chipped"}, "the proud tooth")},
	98:  {{Kind: history.KindMoved, Saw: &longTable.ID, By: "Tobin", Note: "the platform truck bumped it"}, heel(longTable, 0.09, "after the bump")},
	119: {about("Lace", history.KindSent, history.Sent{To: "the saw doctor on Quay Street", Asked: 28, Expected: later(9)}, "")},
	121: {about("Chorus", history.KindJudged, history.Judged{Says: "hard"}, "three lengths of pine and the arms know it")},
}

func at(n int) *int { return &n }

// later is a time after the season's end; play puts it there.
func later(days int) *time.Time {
	t := time.Time{}.AddDate(0, 0, days)
	return &t
}

func about(name string, kind history.Kind, detail any, note string) store.Entry {
	b := named(name).ID
	raw, _ := json.Marshal(detail)
	return store.Entry{Kind: kind, Blade: &b, By: "Maren", Note: note, Detail: raw}
}

func heel(s store.Saw, mm float64, note string) store.Entry {
	// The rear has come toward the fence, which a dial in the right slot shows.
	return measured(s, history.KindHeel, measure.Length(mm), truing.Heel{Heel: measure.Length(mm), TowardFence: measure.Length(mm), Span: 200}.Judge(truing.Usual),
		map[string]any{"first_mm": []float64{0.2, 0.2 + mm}, "span_mm": 200, "dial": "right"}, note)
}

func fence(s store.Saw, open float64, note string) store.Entry {
	return measured(s, history.KindFence, measure.Length(open), truing.Fence{Open: measure.Length(open)}.Judge(truing.Usual),
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
	e := measured(longTable, history.KindClearance, c.Range, c.Judge(0),
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
	e := measured(s, history.KindRunOut, r.Spread, r.Judge(truing.Usual),
		map[string]any{"blade_id": b, "first_mm": first, "second_mm": turned}, "")
	e.Blade = &b
	return e
}

func measured(s store.Saw, kind history.Kind, figure measure.Length, f truing.Finding, input map[string]any, note string) store.Entry {
	input["test"], input["saw_id"], input["units"] = kind, s.ID, "mm"
	in, _ := json.Marshal(input)
	d := history.Truing{Figure: figure.Mm(), Unit: "mm", Verdict: f.Verdict.String(), Input: in}
	switch kind {
	case history.KindHeel:
		d.Heel = &figure
	case history.KindFence:
		d.Open = &figure
	}
	raw, _ := json.Marshal(d)
	return store.Entry{Kind: kind, Saw: &s.ID, By: "Maren", Note: note, Detail: raw}
}

func washed(name, by string) store.Entry {
	e := about(name, history.KindWashed, history.Washed{Cleaner: "detergent", Brush: "nylon"}, "")
	e.By = by
	return e
}

func sharpened(name string, d history.Sharpened) store.Entry {
	return about(name, history.KindSharpened, d, "")
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
			var sent history.Sent
			if e.Kind == history.KindSent && json.Unmarshal(e.Detail, &sent) == nil && sent.Expected != nil {
				back := begin.AddDate(0, 0, season).Add(sent.Expected.Sub(time.Time{}))
				sent.Expected = &back
				e.Detail, _ = json.Marshal(sent)
			}
			_, err := st.Append(ctx, e)
			return err
		}
		for _, e := range careDays[day] {
			if err := add(e); err != nil {
				return err
			}
		}
		if h, ok := housings[day]; ok {
			// With dice of its own, so that the season's fall as they did.
			if err := h.dig(ctx, st, hour, rand.New(rand.NewPCG(203, uint64(day)))); err != nil {
				return err
			}
			delete(on, longTable.Name)
			hour = hour.Add(2 * time.Hour)
		}
		for _, t := range tasks {
			if day < t.from || day >= t.until || (day-t.from)%t.every != 0 {
				continue
			}
			b, err := st.Blade(ctx, shopRow.ID, named(t.blade).ID)
			if err != nil {
				return err
			}
			if b.Condition.Away {
				continue
			}
			if on[t.saw.Name] != t.blade {
				on[t.saw.Name] = t.blade
				if err := add(store.Entry{Kind: history.KindMounted, Blade: &b.ID, Saw: &t.saw.ID, By: t.by}); err != nil {
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
	// What the season taught, and a bath that still stands.
	for _, t := range tasks {
		if m, err := material.Get(t.material); err != nil || !m.Kind.Modelled() {
			continue
		}
		if err := st.Learn(ctx, shopRow.ID, t.material); err != nil {
			return err
		}
	}
	if err := st.AddBath(ctx, store.Bath{ID: id("tray"), Shop: shopRow.ID, Name: "Paint tray", Cleaner: "detergent", Length: 400, Width: 340, Depth: 60,
		Litres: 2.9, Made: now.AddDate(0, 0, -9)}); err != nil {
		return err
	}
	if err := st.UseBath(ctx, shopRow.ID, id("tray"), 4); err != nil {
		return err
	}
	return startJob(ctx, st, now)
}

// truth is how the demo shop's own wood differs from the table, in the
// logarithm of scorch dose and of proneness to splinter. Its log teaches it.
var truth = map[string]learn.Correction{
	"cherry":       {LnScorch: -0.35},
	"softwood-ply": {LnSplinter: 0.25},
	"red-oak":      {LnScorch: 0.1, LnSplinter: -0.1},
}

// fineSupport is what the shop puts where teeth leave a face that is seen.
var fineSupport = map[saw.Kind]cut.Support{saw.Table: cut.ZeroClearance, saw.Miter: cut.Scored, saw.Circular: cut.Tape}

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
		j.Exit = fineSupport[t.saw.Kind]
	}
	j.Height = choose.Request{Job: j, Saw: t.saw.Saw}.Heights(b.Blade).Suggested
	if err := choose.CheckJob(j, t.saw.Saw); err != nil {
		return store.Entry{}, fmt.Errorf("%s: %w", t.blade, err)
	}
	if stops := choose.Stops(b.Blade, j, t.saw.Saw); len(stops) > 0 {
		return store.Entry{}, fmt.Errorf("%s: %s", t.blade, stops[0].Why)
	}
	d := history.Cut{
		Material: m.ID, Direction: j.Direction.String(), Motion: j.Motion.String(), Finish: j.Finish.String(),
		Thickness: j.Thickness, Width: j.Width, Length: j.Length, Height: j.Height,
		Exit: j.Exit.String(), Other: j.Other.String(), Pieces: max(1, t.pieces+dice.IntN(5)-2),
		Wall: "clean", Splinters: "none", Wears: &history.Wears{Abrasion: m.Abrasion, Resin: m.Resin},
	}
	if m.Kind.Modelled() {
		c := choose.Candidate{Blade: b.Blade, State: shopchoose.State(b.Blade, b.Condition)}
		drive := choose.DriveOf(t.saw.Saw)
		feed := cut.Work(j, b.Blade, drive, c.State).Feed // as the table says
		d.Foretold = history.Foretell(j, b.Blade, drive, c.State, feed)
		mine := j
		mine.Material = truth[m.ID].Apply(m)
		f := cut.WorkAt(mine, b.Blade, drive, c.State, feed)
		d.Feed = float64(feed)
		d.Wall = wall(f.Burn, dice)
		d.Splinters = splinters(f.Exit.Splinter, dice)
		d.Seconds = feed.Seconds(j.FeedLength()) * (0.9 + 0.2*dice.Float64())
		d.Effort = effort(f.Load/f.Allowed, dice)
		if b.Condition.Asked {
			back := b.Condition.Sharpness(b.Grind) < care.DullAt && !b.Condition.DullSaid
			d.CameBack = &back
		}
	}
	raw, err := json.Marshal(d)
	return store.Entry{Kind: history.KindCut, Blade: &b.ID, Saw: &t.saw.ID, By: t.by, Detail: raw}, err
}

func wall(burn float64, dice *rand.Rand) outcome.Wall {
	switch p := dice.Float64(); {
	case p < burn/3:
		return outcome.Black
	case p < burn:
		return outcome.Brown
	}
	return outcome.Clean
}

func splinters(t float64, dice *rand.Rand) outcome.Face {
	x, at := dice.Float64(), 0
	for p := learn.Chances(t); at < len(outcome.Faces)-1 && x >= p[at]; at++ {
		x -= p[at]
	}
	return outcome.Faces[at]
}

func effort(load float64, dice *rand.Rand) outcome.Effort {
	switch x := load * (0.8 + 0.4*dice.Float64()); {
	case x > 0.95:
		return outcome.Hard
	case x < 0.3:
		return outcome.Easy
	}
	return outcome.Normal
}
