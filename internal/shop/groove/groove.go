// Package groove fits a groove to a piece with a dado set or a single blade, test by test.
package groove

import (
	"context"
	"encoding/json"

	"github.com/google/uuid"

	"corte/core/blade"
	"corte/core/cut"
	"corte/core/groove"
	"corte/core/guide"
	"corte/core/history"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/outcome"
	"corte/core/say"
	"corte/core/verdict"
	"corte/internal/record"
	"corte/internal/refusal"
	shopchoose "corte/internal/shop/choose"
	"corte/internal/shop/env"
	"corte/internal/shop/run"
	"corte/internal/store"
)

// A Station does this work in every shop on one database. It holds no state.
type Station struct{ *env.Env }

// At is the station over an environment: a database, or a transaction of one.
func At(k *env.Env) Station { return Station{k} }

// An Ask is a groove as somebody says it: the piece that goes in first.
type Ask struct {
	Cut   record.Cut // its form is a groove or a rabbet
	Piece []measure.Length
	Fit   groove.Fit
	Edge  measure.Length
	Count int
}

// A Way is a tool of the rack put to a groove.
type Way struct {
	groove.Way
	Blade   store.Blade
	Set     *DadoSet // of a dado set
	Mounted bool
}

// A Row is a groove in a list.
type Row struct {
	store.Groove
	MaterialName         string
	Piece, Target, Depth measure.Length
	Says                 say.Line
	Tests                int
}

// A Groove is one that is being set up, or was made.
type Groove struct {
	store.Groove
	SawName  string
	Ask      Ask
	Job      cut.Job // its cut, with everything settled
	Target   measure.Length
	Depth    measure.Length
	Way      Way
	Fitting  groove.Fitting
	Says     []say.Line
	Good     bool
	Cautions []say.Line
}

// A scene is a groove on its saw: what every step of it begins with.
type scene struct {
	ask   Ask
	saw   store.Saw
	job   cut.Job
	piece groove.Piece
	want  groove.Request
	found []guide.Finding // what stands against it, whatever the tool
}

func (s Station) scene(ctx context.Context, shop uuid.UUID, ask Ask) (scene, error) {
	w, j, r, err := shopchoose.At(s.Store).Request(ctx, shop, ask.Cut)
	if err != nil {
		return scene{}, err
	}
	if j.Form != cut.Groove && j.Form != cut.Rabbet {
		return scene{}, refusal.Of("ask.cut.form", "choose a groove or a rabbet. A %s is under Joints", j.Form)
	}
	piece, err := groove.PieceOf(ask.Piece)
	if err != nil {
		return scene{}, refusal.Placed(err)
	}
	if j.Form == cut.Rabbet {
		ask.Edge = 0 // it is the edge
	}
	found, err := shopchoose.At(s.Store).WithSignOff(ctx, shop, shopchoose.Findings(j, w), j, w)
	if err != nil {
		return scene{}, err
	}
	out := scene{ask, w, j, piece, groove.Request{Width: piece.Thickest + ask.Fit.Allowance(), Depth: j.Depth, Length: j.CutLength(), Edge: ask.Edge,
		Count: ask.Count, Shown: j.Finish >= cut.Show, Saw: w.Saw, Heel: r.Heel, Change: w.ChangeMinutes}, found}
	return out, refusal.Placed(out.want.Check())
}

// Plan works out how wide a groove is to be and every way to it: each
// dado set, the best flat-top blade in passes, and the blade that is on.
func (s Station) Plan(ctx context.Context, shop uuid.UUID, ask Ask) (Plan, error) {
	c, err := s.scene(ctx, shop, ask)
	if err == nil {
		err = shopchoose.InUse(c.saw, "cut.saw_id")
	}
	if err != nil {
		return Plan{}, err
	}
	rack, err := s.Store.Rack(ctx, shop)
	if err != nil {
		return Plan{}, err
	}
	sets, err := s.sets(ctx, shop)
	if err != nil {
		return Plan{}, err
	}
	var tools []groove.Tool
	var ways []Way
	put := func(b store.Blade, set *DadoSet) {
		t := c.tool(b, set)
		tools = append(tools, t)
		ways = append(ways, Way{Blade: b, Set: set, Mounted: t.Mounted})
	}
	flat := -1
	for i, b := range rack {
		switch {
		case b.Make == blade.Dado:
			put(b, sets[b.ID])
		case c.saw.Mounted != nil && *c.saw.Mounted == b.ID && b.Teeth > 0:
			put(b, nil)
		case b.Make == blade.Toothed && b.Grind == blade.FTG && c.tool(b, nil).Stop.Zero() && (flat < 0 || flatter(b, rack[flat])):
			flat = i
		}
	}
	if flat >= 0 {
		put(rack[flat], nil)
	}
	out := Plan{Target: c.want.Width, Allowance: c.want.Width - c.piece.Thickest, Piece: c.piece, Mind: c.piece.Mind(), Cautions: c.cautions(), Found: c.found}
	for _, w := range c.want.Ways(tools) {
		one := ways[w.Tool]
		one.Way = w
		out.Ways = append(out.Ways, one)
	}
	made := true
	out.Earlier, err = s.grooveRows(ctx, shop, c.job.Material.ID, &made, groovesShown)
	return out, err
}

const groovesShown = 4

// fitting is a groove on its way to fit with a tool of the rack.
func (c scene) fitting(w Way, now groove.Stand, tests []groove.Test) groove.Fitting {
	f := groove.Fitting{Want: c.want, Tool: c.tool(w.Blade, w.Set), Stand: now, Tests: tests, Lead: c.saw.WheelLead}
	if w.Set != nil {
		f.Held = w.Set.Held
	}
	return f
}

// Start begins a groove with one of its ways.
func (s Station) Start(ctx context.Context, shop uuid.UUID, ask Ask, blade uuid.UUID, by string) (Groove, error) {
	c, err := s.scene(ctx, shop, ask)
	if err == nil {
		err = shopchoose.InUse(c.saw, "cut.saw_id")
	}
	if err != nil {
		return Groove{}, err
	}
	way, err := s.way(ctx, shop, c, blade, nil)
	if err != nil {
		return Groove{}, err
	}
	if way.Blade.Retired != nil {
		return Groove{}, refusal.Of("blade_id", "%s is retired. Bring it back first", way.Blade.Name)
	}
	if way.Verdict == verdict.Stop {
		return Groove{}, refusal.Of("blade_id", "%s can't make this groove: %s", way.Blade.Name, way.Says)
	}
	return s.addGroove(ctx, shop, c, way, way.Stand(c.tool(way.Blade, way.Set), c.want.Depth-groove.Shy(c.want.Depth)), by)
}

// CallUp begins a groove with the ask and the last settings of an earlier one.
func (s Station) CallUp(ctx context.Context, shop uuid.UUID, like uuid.UUID, by string) (Groove, error) {
	row, err := s.Store.Groove(ctx, shop, like)
	if err != nil {
		return Groove{}, refusal.NotThere(err, "like", "groove")
	}
	var asked storedAsk
	var kept storedStand
	if err := unmarshal(row.Asked, &asked, row.Setting, &kept); err != nil {
		return Groove{}, err
	}
	now := kept.stand()
	ask := asked.ask()
	ask.Cut = ask.Cut.Unanswered()
	c, err := s.scene(ctx, shop, ask)
	if err == nil {
		err = shopchoose.InUse(c.saw, "like")
	}
	if err != nil {
		return Groove{}, err
	}
	way, err := s.way(ctx, shop, c, row.Blade, &now)
	if err != nil {
		return Groove{}, err
	}
	if way.Blade.Retired != nil {
		return Groove{}, refusal.Of("like", "%s is retired. Bring it back first", way.Blade.Name)
	}
	if way.Verdict == verdict.Stop {
		return Groove{}, refusal.Of("like", "%s can't be set like that now: %s", way.Blade.Name, way.Says)
	}
	return s.addGroove(ctx, shop, c, way, now, by)
}

func (s Station) addGroove(ctx context.Context, shop uuid.UUID, c scene, way Way, now groove.Stand, by string) (Groove, error) {
	asked, err := c.keep()
	if err != nil {
		return Groove{}, err
	}
	setting, err := json.Marshal(keepStand(now))
	if err != nil {
		return Groove{}, err
	}
	at := s.Now()
	id, err := s.Add(ctx, func(tx *store.Store, id uuid.UUID) error {
		return tx.AddGroove(ctx, store.Groove{ID: id, Shop: shop, Saw: c.saw.ID, Blade: way.Blade.ID, Material: c.job.Material.ID,
			Asked: asked, Setting: setting, Tests: json.RawMessage(`[]`), By: by, Started: at})
	})
	if err != nil {
		return Groove{}, err
	}
	return s.Get(ctx, shop, id)
}

// Get finds one, with how it stands and what is next.
func (s Station) Get(ctx context.Context, shop, id uuid.UUID) (Groove, error) {
	_, g, err := s.groove(ctx, shop, id)
	return g, err
}

func (s Station) groove(ctx context.Context, shop, id uuid.UUID) (scene, Groove, error) {
	row, err := s.Store.Groove(ctx, shop, id)
	if err != nil {
		return scene{}, Groove{}, refusal.NotThere(err, "id", "groove")
	}
	g := Groove{Groove: row}
	var asked storedAsk
	var kept storedStand
	var tests []storedTest
	if err := unmarshal(row.Asked, &asked, row.Setting, &kept, row.Tests, &tests); err != nil {
		return scene{}, g, err
	}
	now := kept.stand()
	g.Ask = asked.ask()
	c, err := s.scene(ctx, shop, asked.ask())
	if err != nil {
		return c, g, err
	}
	g.Job = c.job
	g.SawName, g.Target, g.Depth, g.Cautions = c.saw.Name, c.want.Width, c.want.Depth, c.cautions()
	if g.Way, err = s.way(ctx, shop, c, row.Blade, &now); err != nil {
		return c, g, err
	}
	g.Fitting = c.fitting(g.Way, now, testsKept(tests))
	if g.Good = g.Fitting.Good(); g.Ended == nil {
		g.Says = g.Fitting.Next()
	}
	return c, g, nil
}

// Test takes in a test groove: it goes into the log, teaches how thick
// the parts are, and changes the setting, over the version that it carries.
func (s Station) Test(ctx context.Context, shop, id uuid.UUID, version int, width []measure.Length, depth measure.Length) (Groove, error) {
	c, g, err := s.groove(ctx, shop, id)
	if err != nil {
		return g, err
	}
	switch {
	case g.Ended != nil:
		return g, refusal.Of("id", "this groove is done and closed")
	case g.Way.Verdict == verdict.Stop:
		return g, refusal.Of("id", "%s", g.Way.Says)
	}
	if err := g.Fitting.Check(width, depth); err != nil {
		return g, refusal.Placed(err)
	}
	stood := keepStand(g.Fitting.Stand)
	d := history.Grooved{Groove: id, Test: true, Target: c.want.Width, Width: width, Depth: depth}
	if set := g.Way.Set; set != nil && len(g.Way.Passes) < 2 { // the sum of two cuts teaches nothing of the parts
		d.Parts, d.Dial = stood.Parts, stood.Dial
		d.Left, d.Right = set.Set.Left, set.Set.Right
	}
	detail, err := json.Marshal(d)
	if err != nil {
		return g, err
	}
	err = s.Store.Atomically(ctx, func(tx *store.Store) error {
		if g.Way.Set != nil { // as it is now that nobody else can teach it
			if err := tx.HoldBlade(ctx, shop, g.Blade); err != nil {
				return err
			}
			set, err := tx.DadoSet(ctx, shop, g.Blade)
			if err != nil {
				return err
			}
			g.Fitting.Held, g.Fitting.Tool.Set, g.Fitting.Tool.Estimate = set.Held, &set.Set, set.Held.Estimate
		}
		next, err := g.Fitting.Tested(s.Now(), width, measure.Length(depth))
		if err != nil {
			return refusal.Of("id", "%s", err)
		}
		if _, err := tx.Append(ctx, store.Entry{Shop: shop, At: s.Now(), Kind: history.KindGrooved, Blade: &g.Blade, Saw: &g.Saw, By: env.By(ctx, g.By), Detail: detail}); err != nil {
			return err
		}
		row := g.Groove
		row.Version = version
		if row.Setting, err = json.Marshal(keepStand(next.Stand)); err != nil {
			return err
		}
		if row.Tests, err = json.Marshal(keepTests(next.Tests)); err != nil {
			return err
		}
		return refusal.Changed(tx.ChangeGroove(ctx, row), "groove")
	})
	if err != nil {
		return g, err
	}
	return s.Get(ctx, shop, id)
}

// End closes a groove: so many were made. They go into the log as the
// cuts that they were, and the settings with them.
func (s Station) End(ctx context.Context, shop, id uuid.UUID, version, made int, wall outcome.Wall, splinters outcome.Face, note string) (Groove, error) {
	c, g, err := s.groove(ctx, shop, id)
	if err != nil || g.Ended != nil {
		return g, err
	}
	at := s.Now()
	row := g.Groove
	row.Version, row.Ended, row.Made = version, &at, made
	var entries []store.Entry
	if made > 0 {
		if g.Way.Verdict == verdict.Stop {
			return g, refusal.Of("made", "%s", g.Way.Says)
		}
		cutMade := run.CutMade{Cut: c.ask.Cut, Blade: g.Blade, Height: g.Fitting.Stand.Height, Pieces: made, Wall: wall, Splinters: splinters}
		if n := len(g.Way.Passes); n > 1 {
			cutMade.Metres = float64(n*made) * c.job.CutLength().Mm() / 1000
		}
		d, _, err := run.At(s.Env).CutDetail(ctx, shop, cutMade)
		if err != nil {
			return g, err
		}
		d.Foretold = nil // the model's window is of one blade in a cut of its own kerf
		now := keepStand(g.Fitting.Stand)
		done := history.Grooved{Groove: id, Target: c.want.Width, Made: made, Depth: c.want.Depth, Parts: now.Parts, Dial: now.Dial}
		for _, one := range []struct {
			kind   history.Kind
			detail any
			note   string
		}{{history.KindCut, d, note}, {history.KindGrooved, done, ""}} {
			raw, err := json.Marshal(one.detail)
			if err != nil {
				return g, err
			}
			entries = append(entries, store.Entry{Shop: shop, At: at, Kind: one.kind, Blade: &g.Blade, Saw: &g.Saw, By: env.By(ctx, g.By), Note: one.note, Detail: raw})
		}
	}
	err = s.Store.Atomically(ctx, func(tx *store.Store) error {
		if err := refusal.Changed(tx.ChangeGroove(ctx, row), "groove"); err != nil {
			return err
		}
		for _, e := range entries {
			if _, err := tx.Append(ctx, e); err != nil {
				return err
			}
		}
		return nil
	})
	if err != nil {
		return g, err
	}
	return s.Get(ctx, shop, id)
}

// Drop gives a groove up that was not made.
func (s Station) Drop(ctx context.Context, shop, id uuid.UUID) error {
	return refusal.NotThere(s.Store.DropGroove(ctx, shop, id), "id", "groove in progress")
}

// Recent lists the newest grooves.
func (s Station) Recent(ctx context.Context, shop uuid.UUID, limit int) ([]Row, error) {
	return s.grooveRows(ctx, shop, "", nil, limit)
}

// Fitting lists the grooves that are being fitted.
func (s Station) Fitting(ctx context.Context, shop uuid.UUID) ([]Row, error) {
	made, most := false, 12
	return s.grooveRows(ctx, shop, "", &made, most)
}

func (s Station) grooveRows(ctx context.Context, shop uuid.UUID, of string, ended *bool, limit int) ([]Row, error) {
	rows, err := s.Store.Grooves(ctx, shop, of, ended, limit)
	if err != nil {
		return nil, err
	}
	out := make([]Row, len(rows))
	for i, r := range rows {
		var asked storedAsk
		var now storedStand
		var tests []storedTest
		if err := unmarshal(r.Asked, &asked, r.Setting, &now, r.Tests, &tests); err != nil {
			return nil, err
		}
		out[i] = Row{Groove: r, MaterialName: r.Material, Piece: asked.Piece, Target: asked.Target,
			Depth: asked.Depth, Says: now.stand().Says(), Tests: len(tests)}
		if m, err := material.Get(r.Material); err == nil {
			out[i].MaterialName = m.Name
		}
	}
	return out, nil
}
