package shop

import (
	"context"
	"encoding/json"

	"github.com/google/uuid"

	"corte/core/blade"
	"corte/core/choose"
	"corte/core/cut"
	"corte/core/groove"
	"corte/core/guide"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/verdict"
	"corte/internal/store"
)

// A GrooveAsk is a groove as somebody says it: the piece that goes in first.
type GrooveAsk struct {
	Cut   Cut // its form is a groove or a rabbet
	Piece []measure.Length
	Fit   groove.Fit
	Edge  measure.Length
	Count int
}

// A GrooveWay is a tool of the rack put to a groove.
type GrooveWay struct {
	groove.Way
	Blade   store.Blade
	Set     *DadoSet // of a dado set
	Mounted bool
}

// A GroovePlan is every way in which the shop can cut a groove.
type GroovePlan struct {
	Target, Allowance measure.Length
	Piece             groove.Piece
	Mind              string
	Cautions          []string
	Ways              []GrooveWay
	Earlier           []GrooveRow
}

// A GrooveRow is a groove in a list.
type GrooveRow struct {
	store.Groove
	MaterialName         string
	Piece, Target, Depth measure.Length
	Says                 string
	Tests                int
}

// A Groove is one that is being set up, or was made.
type Groove struct {
	store.Groove
	SawName  string
	Ask      GrooveAsk
	Job      cut.Job // its cut, with everything settled
	Target   measure.Length
	Depth    measure.Length
	Way      GrooveWay
	Fitting  groove.Fitting
	Says     []string
	Good     bool
	Cautions []string
}

// A scene is a groove on its saw: what every step of it begins with.
type scene struct {
	ask   GrooveAsk
	saw   store.Saw
	job   cut.Job
	piece groove.Piece
	want  groove.Request
}

func (s *Service) scene(ctx context.Context, shop uuid.UUID, ask GrooveAsk, u measure.Unit) (scene, error) {
	w, j, r, err := s.request(ctx, shop, ask.Cut, u)
	if err != nil {
		return scene{}, err
	}
	if j.Form != cut.Groove && j.Form != cut.Rabbet {
		return scene{}, invalid("ask.cut.form", "say a groove or a rabbet; a %s is worked out under Joints", j.Form)
	}
	piece, err := groove.PieceOf(ask.Piece, u)
	if err != nil {
		return scene{}, refused(err)
	}
	if j.Form == cut.Rabbet {
		ask.Edge = 0 // it is the edge
	}
	out := scene{ask, w, j, piece, groove.Request{Width: piece.Thickest + ask.Fit.Allowance(), Depth: j.Depth, Length: j.CutLength(), Edge: ask.Edge,
		Count: ask.Count, Shown: j.Finish >= cut.Show, Saw: w.Saw, Heel: r.Heel, Change: w.ChangeMinutes, Unit: u}}
	return out, refused(out.want.Check())
}

// cautions are those of the cut, and what a groove at the very edge adds.
func (c scene) cautions() []string {
	out := guide.Cautions(c.job, c.saw.Saw)
	if c.job.Form == cut.Rabbet {
		out = append(out, "The blade runs in the fence: a sacrificial board on it, covering the part of the blade that is not wanted.")
	}
	return out
}

// tool makes a blade a tool for a groove; set is nil for a single blade.
func (c scene) tool(b store.Blade, set *DadoSet) groove.Tool {
	t := groove.Tool{Blade: b.Blade, Mounted: c.saw.Mounted != nil && *c.saw.Mounted == b.ID}
	if bar := choose.Bar(b.Condition); bar != nil {
		t.Stop, t.WayOut = bar.Why, bar.WayOut
	} else if stops := choose.Stops(b.Blade, c.job, c.saw.Saw, c.want.Unit); len(stops) > 0 {
		t.Stop, t.WayOut = stops[0].Why, stops[0].WayOut
	}
	if b.Make != blade.Dado {
		return t
	}
	switch {
	case set == nil || set.Version == 0:
		if t.Stop == "" {
			t.Stop, t.WayOut = "nobody has said what this set is made of", "put its parts into its record under Rack"
		}
	default:
		t.Set, t.Estimate = &set.Set, set.Held.Estimate
	}
	return t
}

// PlanGroove works out how wide a groove is to be and every way to it: each
// dado set, the best flat-top blade in passes, and the blade that is on.
func (s *Service) PlanGroove(ctx context.Context, shop uuid.UUID, ask GrooveAsk, u measure.Unit) (GroovePlan, error) {
	c, err := s.scene(ctx, shop, ask, u)
	if err == nil {
		err = inUse(c.saw, "cut.saw_id")
	}
	if err != nil {
		return GroovePlan{}, err
	}
	rack, err := s.st.Rack(ctx, shop)
	if err != nil {
		return GroovePlan{}, err
	}
	sets, err := s.sets(ctx, shop)
	if err != nil {
		return GroovePlan{}, err
	}
	var tools []groove.Tool
	var ways []GrooveWay
	put := func(b store.Blade, set *DadoSet) {
		t := c.tool(b, set)
		tools = append(tools, t)
		ways = append(ways, GrooveWay{Blade: b, Set: set, Mounted: t.Mounted})
	}
	flat := -1
	for i, b := range rack {
		switch {
		case b.Make == blade.Dado:
			put(b, sets[b.ID])
		case c.saw.Mounted != nil && *c.saw.Mounted == b.ID && b.Teeth > 0:
			put(b, nil)
		case b.Make == blade.Toothed && b.Grind == blade.FTG && c.tool(b, nil).Stop == "" && (flat < 0 || flatter(b, rack[flat])):
			flat = i
		}
	}
	if flat >= 0 {
		put(rack[flat], nil)
	}
	out := GroovePlan{Target: c.want.Width, Allowance: c.want.Width - c.piece.Thickest, Piece: c.piece, Mind: c.piece.Mind(u), Cautions: c.cautions()}
	for _, w := range c.want.Ways(tools) {
		one := ways[w.Tool]
		one.Way = w
		out.Ways = append(out.Ways, one)
	}
	made := true
	out.Earlier, err = s.grooveRows(ctx, shop, c.job.Material.ID, &made, groovesShown, u)
	return out, err
}

const groovesShown = 4

// flatter reports whether a flat-top blade suits a groove better: kept for
// joints, then sharper.
func flatter(a, b store.Blade) bool {
	if x, y := a.KeptFor == blade.UseJoints, b.KeptFor == blade.UseJoints; x != y {
		return x
	}
	return a.Condition.WearShare(a.Grind) < b.Condition.WearShare(b.Grind)
}

// sets are the shop's dado sets with what is held of their parts.
func (s *Service) sets(ctx context.Context, shop uuid.UUID) (map[uuid.UUID]*DadoSet, error) {
	rows, err := s.st.DadoSets(ctx, shop)
	if err != nil {
		return nil, err
	}
	out := make(map[uuid.UUID]*DadoSet, len(rows))
	for _, r := range rows {
		set := told(r)
		out[r.Blade] = &set
	}
	return out, nil
}

// way is one blade put to a groove, standing as it is set.
func (s *Service) way(ctx context.Context, shop uuid.UUID, c scene, id uuid.UUID, now *groove.Stand) (GrooveWay, error) {
	b, err := s.st.Blade(ctx, shop, id)
	if err != nil {
		return GrooveWay{}, missing(err, "blade_id", "blade")
	}
	out := GrooveWay{Blade: b, Mounted: c.saw.Mounted != nil && *c.saw.Mounted == id}
	if b.Make == blade.Dado {
		set, err := s.dadoSet(ctx, shop, id)
		if err != nil {
			return out, err
		}
		out.Set = &set
	}
	out.Way = c.want.Ways([]groove.Tool{c.tool(b, out.Set)})[0]
	if now != nil {
		out.Way = c.fitting(out, *now, nil).Way()
	}
	return out, nil
}

// fitting is a groove on its way to fit with a tool of the rack.
func (c scene) fitting(w GrooveWay, now groove.Stand, tests []groove.Test) groove.Fitting {
	f := groove.Fitting{Want: c.want, Tool: c.tool(w.Blade, w.Set), Stand: now, Tests: tests, Lead: c.saw.WheelLead}
	if w.Set != nil {
		f.Held = w.Set.Held
	}
	return f
}

// StartGroove begins a groove with one of its ways.
func (s *Service) StartGroove(ctx context.Context, shop uuid.UUID, ask GrooveAsk, blade uuid.UUID, by string, u measure.Unit) (Groove, error) {
	c, err := s.scene(ctx, shop, ask, u)
	if err == nil {
		err = inUse(c.saw, "cut.saw_id")
	}
	if err != nil {
		return Groove{}, err
	}
	way, err := s.way(ctx, shop, c, blade, nil)
	if err != nil {
		return Groove{}, err
	}
	if way.Blade.Retired != nil {
		return Groove{}, invalid("blade_id", "%s is retired and does not go on; put it back on the rack first", way.Blade.Name)
	}
	if way.Verdict == verdict.Stop {
		return Groove{}, invalid("blade_id", "%s may not make this groove: %s", way.Blade.Name, way.Says)
	}
	return s.addGroove(ctx, shop, c, way, way.Stand(c.tool(way.Blade, way.Set), c.want.Depth-groove.Shy(c.want.Depth)), by, u)
}

// CallUp begins a groove with the ask and the last settings of an earlier one.
func (s *Service) CallUp(ctx context.Context, shop uuid.UUID, like uuid.UUID, by string, u measure.Unit) (Groove, error) {
	row, err := s.st.Groove(ctx, shop, like)
	if err != nil {
		return Groove{}, missing(err, "like", "groove")
	}
	var asked grooveAsked
	var kept keptStand
	if err := unmarshal(row.Asked, &asked, row.Setting, &kept); err != nil {
		return Groove{}, err
	}
	now := kept.stand()
	c, err := s.scene(ctx, shop, asked.Ask, u)
	if err == nil {
		err = inUse(c.saw, "like")
	}
	if err != nil {
		return Groove{}, err
	}
	way, err := s.way(ctx, shop, c, row.Blade, &now)
	if err != nil {
		return Groove{}, err
	}
	if way.Blade.Retired != nil {
		return Groove{}, invalid("like", "%s is retired and does not go on; put it back on the rack first", way.Blade.Name)
	}
	if way.Verdict == verdict.Stop {
		return Groove{}, invalid("like", "%s cannot be set like that now: %s", way.Blade.Name, way.Says)
	}
	return s.addGroove(ctx, shop, c, way, now, by, u)
}

func (s *Service) addGroove(ctx context.Context, shop uuid.UUID, c scene, way GrooveWay, now groove.Stand, by string, u measure.Unit) (Groove, error) {
	asked, err := json.Marshal(grooveAsked{c.ask, c.piece.Thickest.Mm(), c.want.Width.Mm(), c.want.Depth.Mm()})
	if err != nil {
		return Groove{}, err
	}
	setting, err := json.Marshal(keepStand(now))
	if err != nil {
		return Groove{}, err
	}
	at := s.now()
	id, err := s.add(ctx, func(tx *store.Store, id uuid.UUID) error {
		return tx.AddGroove(ctx, store.Groove{ID: id, Shop: shop, Saw: c.saw.ID, Blade: way.Blade.ID, Material: c.job.Material.ID,
			Asked: asked, Setting: setting, Tests: json.RawMessage(`[]`), By: by, Started: at})
	})
	if err != nil {
		return Groove{}, err
	}
	return s.Groove(ctx, shop, id, u)
}

// Groove finds one, with how it stands and what is next.
func (s *Service) Groove(ctx context.Context, shop, id uuid.UUID, u measure.Unit) (Groove, error) {
	_, g, err := s.groove(ctx, shop, id, u)
	return g, err
}

func (s *Service) groove(ctx context.Context, shop, id uuid.UUID, u measure.Unit) (scene, Groove, error) {
	row, err := s.st.Groove(ctx, shop, id)
	if err != nil {
		return scene{}, Groove{}, missing(err, "id", "groove")
	}
	g := Groove{Groove: row}
	var asked grooveAsked
	var kept keptStand
	var tests []keptTest
	if err := unmarshal(row.Asked, &asked, row.Setting, &kept, row.Tests, &tests); err != nil {
		return scene{}, g, err
	}
	now := kept.stand()
	g.Ask = asked.Ask
	c, err := s.scene(ctx, shop, asked.Ask, u)
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

// TestGroove takes in a test groove: it goes into the log, teaches how thick
// the parts are, and changes the setting, over the version that it carries.
func (s *Service) TestGroove(ctx context.Context, shop, id uuid.UUID, version int, width []float64, depth float64, u measure.Unit) (Groove, error) {
	c, g, err := s.groove(ctx, shop, id, u)
	if err != nil {
		return g, err
	}
	switch {
	case g.Ended != nil:
		return g, invalid("id", "this groove is made and closed")
	case g.Way.Verdict == verdict.Stop:
		return g, invalid("id", "%s", g.Way.Says)
	}
	read := make([]measure.Length, len(width))
	for i, v := range width {
		read[i] = measure.Length(v)
	}
	if err := g.Fitting.Check(read, measure.Length(depth)); err != nil {
		return g, refused(err)
	}
	stood := keepStand(g.Fitting.Stand)
	d := store.GroovedDetail{Groove: id, Test: true, Target: c.want.Width.Mm(), Width: width, Depth: depth, Parts: stood.Parts, Dial: stood.Dial}
	if set := g.Way.Set; set != nil {
		d.Left, d.Right = set.Set.Left.Mm(), set.Set.Right.Mm()
	}
	detail, err := json.Marshal(d)
	if err != nil {
		return g, err
	}
	err = s.st.Atomically(ctx, func(tx *store.Store) error {
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
		next, err := g.Fitting.Tested(s.now(), read, measure.Length(depth))
		if err != nil {
			return invalid("id", "%s", err)
		}
		if _, err := tx.Append(ctx, store.Entry{Shop: shop, At: s.now(), Kind: store.KindGrooved, Blade: &g.Blade, Saw: &g.Saw, By: g.By, Detail: detail}); err != nil {
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
		return stale(tx.ChangeGroove(ctx, row), "groove")
	})
	if err != nil {
		return g, err
	}
	return s.Groove(ctx, shop, id, u)
}

// EndGroove closes a groove: so many were made. They go into the log as the
// cuts that they were, and the settings with them.
func (s *Service) EndGroove(ctx context.Context, shop, id uuid.UUID, version, made int, wall, splinters, note string, u measure.Unit) (Groove, error) {
	c, g, err := s.groove(ctx, shop, id, u)
	if err != nil || g.Ended != nil {
		return g, err
	}
	at := s.now()
	row := g.Groove
	row.Version, row.Ended, row.Made = version, &at, made
	var entries []store.Entry
	if made > 0 {
		if g.Way.Verdict == verdict.Stop {
			return g, invalid("made", "%s", g.Way.Says)
		}
		cutMade := CutMade{Cut: c.ask.Cut, Blade: g.Blade, Height: g.Fitting.Stand.Height, Pieces: made, Wall: wall, Splinters: splinters}
		if n := len(g.Way.Passes); n > 1 {
			cutMade.Metres = float64(n*made) * c.job.CutLength().Mm() / 1000
		}
		d, _, err := s.cutDetail(ctx, shop, cutMade, u)
		if err != nil {
			return g, err
		}
		d.Foretold = nil // the model's window is of one blade in a cut of its own kerf
		now := keepStand(g.Fitting.Stand)
		done := store.GroovedDetail{Groove: id, Target: c.want.Width.Mm(), Made: made, Depth: c.want.Depth.Mm(), Parts: now.Parts, Dial: now.Dial}
		for _, one := range []struct {
			kind   store.Kind
			detail any
			note   string
		}{{store.KindCut, d, note}, {store.KindGrooved, done, ""}} {
			raw, err := json.Marshal(one.detail)
			if err != nil {
				return g, err
			}
			entries = append(entries, store.Entry{Shop: shop, At: at, Kind: one.kind, Blade: &g.Blade, Saw: &g.Saw, By: g.By, Note: one.note, Detail: raw})
		}
	}
	err = s.st.Atomically(ctx, func(tx *store.Store) error {
		if err := stale(tx.ChangeGroove(ctx, row), "groove"); err != nil {
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
	return s.Groove(ctx, shop, id, u)
}

// DropGroove gives a groove up that was not made.
func (s *Service) DropGroove(ctx context.Context, shop, id uuid.UUID) error {
	return missing(s.st.DropGroove(ctx, shop, id), "id", "groove under way")
}

// Grooves lists the newest grooves.
func (s *Service) Grooves(ctx context.Context, shop uuid.UUID, limit int, u measure.Unit) ([]GrooveRow, error) {
	return s.grooveRows(ctx, shop, "", nil, limit, u)
}

// fitting lists the grooves that are being fitted.
func (s *Service) fitting(ctx context.Context, shop uuid.UUID) ([]GrooveRow, error) {
	made, most := false, 12
	return s.grooveRows(ctx, shop, "", &made, most, measure.Millimetre)
}

func (s *Service) grooveRows(ctx context.Context, shop uuid.UUID, of string, ended *bool, limit int, u measure.Unit) ([]GrooveRow, error) {
	rows, err := s.st.Grooves(ctx, shop, of, ended, limit)
	if err != nil {
		return nil, err
	}
	out := make([]GrooveRow, len(rows))
	for i, r := range rows {
		var asked grooveAsked
		var now keptStand
		var tests []keptTest
		if err := unmarshal(r.Asked, &asked, r.Setting, &now, r.Tests, &tests); err != nil {
			return nil, err
		}
		out[i] = GrooveRow{Groove: r, MaterialName: r.Material, Piece: measure.Length(asked.Piece), Target: measure.Length(asked.Target),
			Depth: measure.Length(asked.Depth), Says: now.stand().Says(u), Tests: len(tests)}
		if m, err := material.Get(r.Material); err == nil {
			out[i].MaterialName = m.Name
		}
	}
	return out, nil
}
