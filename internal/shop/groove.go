package shop

import (
	"context"
	"encoding/json"
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

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
	MaterialName, BladeName, SawName string
	Piece, Target, Depth             measure.Length
	Says                             string
	Tests                            int
}

// A GrooveTested is a test groove.
type GrooveTested struct {
	At    time.Time `json:"at"`
	Width float64   `json:"width_mm"`
	Off   float64   `json:"off_mm"`
	Depth float64   `json:"depth_mm,omitempty"`

	Set   grooveSetting `json:"set"`             // that it was made with
	Doubt bool          `json:"doubt,omitempty"` // its parts do not account for it
	Says  string        `json:"-"`
}

// grooveSetting is how a tool stands for a groove.
type grooveSetting struct {
	Parts  []store.PartUsed `json:"parts,omitempty"` // of a stack
	Dial   *store.DialUsed  `json:"dial,omitempty"`
	Shift  float64          `json:"shift_mm,omitempty"` // of the last pass
	Off    float64          `json:"off_mm,omitempty"`   // that the last test came wider than its parts say
	Passes int              `json:"passes,omitempty"`
	Height float64          `json:"height_mm"`
}

// says is a setting in words.
func (s grooveSetting) says(u measure.Unit) string {
	switch {
	case s.Dial != nil:
		return groove.OnDial(s.Dial.Cutters, s.Dial.Turns)
	case s.Passes == 1:
		return "one pass"
	case s.Passes > 0:
		return fmt.Sprintf("%d passes", s.Passes)
	}
	counts, parts := make([]int, len(s.Parts)), make([]groove.Part, len(s.Parts))
	for i, p := range s.Parts {
		counts[i], parts[i] = p.Count, groove.Part{Thickness: measure.Length(p.Thickness), Shim: p.Shim}
	}
	return groove.InStack(counts, parts, u)
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
	Height   measure.Length
	Tests    []GrooveTested
	Says     []string
	Good     bool
	Cautions []string
}

// grooveAsked is what is kept of an ask.
type grooveAsked struct {
	Ask    GrooveAsk `json:"ask"`
	Piece  float64   `json:"piece_mm"`
	Target float64   `json:"target_mm"`
	Depth  float64   `json:"depth_mm"`
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
		return scene{}, grooveError(err)
	}
	if j.Form == cut.Rabbet {
		ask.Edge = 0 // it is the edge
	}
	out := scene{ask, w, j, piece, groove.Request{Width: piece.Thickest + ask.Fit.Allowance(), Depth: j.Depth, Length: j.CutLength(), Edge: ask.Edge,
		Count: ask.Count, Shown: j.Finish >= cut.Show, Saw: w.Saw, Heel: r.Heel, Change: w.ChangeMinutes, Unit: u}}
	return out, grooveError(out.want.Check())
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
		t.Set, t.Belief = &set.Set, set.Belief
	}
	return t
}

// PlanGroove works out how wide a groove is to be and every way to it: each
// dado set, the best flat-top blade in passes, and the blade that is on.
func (s *Service) PlanGroove(ctx context.Context, shop uuid.UUID, ask GrooveAsk, u measure.Unit) (GroovePlan, error) {
	c, err := s.scene(ctx, shop, ask, u)
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
		set, err := s.held(ctx, shop, r)
		if err != nil {
			return nil, err
		}
		out[r.Blade] = &set
	}
	return out, nil
}

// way is one blade put to a groove, standing as it is set.
func (s *Service) way(ctx context.Context, shop uuid.UUID, c scene, id uuid.UUID, now *grooveSetting) (GrooveWay, error) {
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
	t := c.tool(b, out.Set)
	if now != nil && t.Stop == "" {
		t.Now = &groove.Setting{Shift: measure.Length(now.Shift), Off: measure.Length(now.Off)}
		if now.Dial != nil {
			t.Now.Cutters, t.Now.Turns = now.Dial.Cutters, now.Dial.Turns
		}
		if t.Set != nil && t.Set.Kind == groove.Stacked {
			var ok bool
			if t.Now.Counts, ok = countsOf(*t.Set, now.Parts); !ok {
				t.Stop, t.WayOut = "parts of this stack are no longer in the set’s record", "begin the groove again"
			}
		}
	}
	out.Way = c.want.Ways([]groove.Tool{t})[0]
	return out, nil
}

// setting is how a way stands, to be kept.
func (w GrooveWay) setting(height measure.Length) grooveSetting {
	out := grooveSetting{Height: height.Mm(), Passes: len(w.Passes)}
	switch {
	case w.Set == nil:
	case w.Set.Set.Kind == groove.Dialled:
		out.Dial = &store.DialUsed{Cutters: w.Set.Set.Ranges[w.Range].Cutters, Turns: w.Turns}
	default:
		for i, n := range w.Stack.Counts {
			if n > 0 {
				out.Parts = append(out.Parts, used(w.Set.Set.Parts[i], n))
			}
		}
	}
	return out
}

// shy is how much the first test groove stays short of its depth.
func shy(depth measure.Length) measure.Length { return min(1, depth/4) }

// StartGroove begins a groove with one of its ways.
func (s *Service) StartGroove(ctx context.Context, shop uuid.UUID, ask GrooveAsk, blade uuid.UUID, by string, u measure.Unit) (Groove, error) {
	c, err := s.scene(ctx, shop, ask, u)
	if err != nil {
		return Groove{}, err
	}
	way, err := s.way(ctx, shop, c, blade, nil)
	if err != nil {
		return Groove{}, err
	}
	if way.Verdict == verdict.Stop {
		return Groove{}, invalid("blade_id", "%s may not make this groove: %s", way.Blade.Name, way.Says)
	}
	return s.addGroove(ctx, shop, c, way, way.setting(c.want.Depth-shy(c.want.Depth)), by, u)
}

// CallUp begins a groove with the ask and the last settings of an earlier one.
func (s *Service) CallUp(ctx context.Context, shop uuid.UUID, like uuid.UUID, by string, u measure.Unit) (Groove, error) {
	row, err := s.st.Groove(ctx, shop, like)
	if err != nil {
		return Groove{}, missing(err, "like", "groove")
	}
	var asked grooveAsked
	var now grooveSetting
	if err := unmarshal(row.Asked, &asked, row.Setting, &now); err != nil {
		return Groove{}, err
	}
	c, err := s.scene(ctx, shop, asked.Ask, u)
	if err != nil {
		return Groove{}, err
	}
	way, err := s.way(ctx, shop, c, row.Blade, &now)
	if err != nil {
		return Groove{}, err
	}
	if way.Verdict == verdict.Stop {
		return Groove{}, invalid("like", "%s cannot be set like that now: %s", way.Blade.Name, way.Says)
	}
	return s.addGroove(ctx, shop, c, way, now, by, u)
}

func unmarshal(pairs ...any) error {
	for i := 0; i < len(pairs); i += 2 {
		if err := json.Unmarshal(pairs[i].(json.RawMessage), pairs[i+1]); err != nil {
			return err
		}
	}
	return nil
}

func (s *Service) addGroove(ctx context.Context, shop uuid.UUID, c scene, way GrooveWay, now grooveSetting, by string, u measure.Unit) (Groove, error) {
	asked, err := json.Marshal(grooveAsked{c.ask, c.piece.Thickest.Mm(), c.want.Width.Mm(), c.want.Depth.Mm()})
	if err != nil {
		return Groove{}, err
	}
	setting, err := json.Marshal(now)
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
	var now grooveSetting
	if err := unmarshal(row.Asked, &asked, row.Setting, &now, row.Tests, &g.Tests); err != nil {
		return scene{}, g, err
	}
	g.Ask, g.Height = asked.Ask, measure.Length(now.Height)
	c, err := s.scene(ctx, shop, asked.Ask, u)
	if err != nil {
		return c, g, err
	}
	g.Job = c.job
	g.SawName, g.Target, g.Depth, g.Cautions = c.saw.Name, c.want.Width, c.want.Depth, c.cautions()
	if g.Way, err = s.way(ctx, shop, c, row.Blade, &now); err != nil {
		return c, g, err
	}
	for i := range g.Tests {
		g.Tests[i].Says = g.Tests[i].Set.says(u)
	}
	g.Good = c.good(g.Tests)
	g.Says = c.next(g, now, u)
	return c, g, nil
}

// depthNear is how near a groove's depth is to come.
const depthNear = 0.15

// good reports whether the last test groove is as it should be in width, and
// the last depth that was measured as well: the first one stands shy.
func (c scene) good(tests []GrooveTested) bool {
	return len(tests) > 0 && math.Abs(tests[len(tests)-1].Off) <= groove.Near.Mm()+1e-9 && c.deepAs(tests)
}

func (c scene) deepAs(tests []GrooveTested) bool {
	for i := len(tests) - 1; i >= 0; i-- {
		if d := tests[i].Depth; d > 0 {
			return math.Abs(d-c.want.Depth.Mm()) <= depthNear
		}
	}
	return false
}

// next says what to do now, in order.
func (c scene) next(g Groove, now grooveSetting, u measure.Unit) []string {
	if g.Ended != nil {
		return nil
	}
	if g.Good {
		return []string{"It fits: cut them like that."}
	}
	out := []string{}
	if g.Way.Verdict == verdict.Stop {
		return append(out, "Stop: "+g.Way.Says+".")
	}
	height := "Set the blade " + g.Height.Setting(u) + " high"
	if len(g.Tests) == 0 {
		if g.Height < c.want.Depth {
			height += ", shy of the depth: the difference is added after it is measured"
		}
		return append(out, height+".", "Cut a test groove in scrap of the same stock. Measure its width at three places, and its depth.")
	}
	last := g.Tests[len(g.Tests)-1]
	if last.Doubt {
		out = append(out, "That is hardly what its parts make. Look first for a chip or a burr between them, and for chips in the groove; a test that was spoilt is struck out in the log, so that it teaches nothing.")
	}
	switch off := measure.Length(last.Off); {
	case math.Abs(last.Off) <= groove.Near.Mm()+1e-9:
		out = append(out, "Its width is right.")
	case g.Way.Set == nil && len(g.Way.Passes) == 1:
		out = append(out, fmt.Sprintf("The groove is %s too wide: its kerf alone is more than is wanted. Take a thinner blade, or true this one.", size(off).Thin(u)))
	case g.Way.Set == nil && last.Set.Passes == 1:
		out = append(out, fmt.Sprintf("The groove is %s too narrow: a second pass, the fence %s further.", size(off).Thin(u), size(off).Thin(u)))
	case g.Way.Set == nil:
		way := "further"
		if off > 0 {
			way = "nearer"
		}
		out = append(out, fmt.Sprintf("The groove is %s too %s: set the last pass %s %s.", size(off).Thin(u), groove.WideOrNarrow(off), size(off).Thin(u), way))
	default:
		change := changed(last.Set, now, u)
		if change == "" {
			out = append(out, fmt.Sprintf("The groove is %s too %s, and with the parts that there are it comes no nearer.", size(off).Thin(u), groove.WideOrNarrow(off)))
			break
		}
		out = append(out, fmt.Sprintf("The groove is %s too %s. Plug out, then %s.", size(off).Thin(u), groove.WideOrNarrow(off), change))
	}
	if d := c.want.Depth - measure.Length(last.Depth); last.Depth > 0 && math.Abs(d.Mm()) > depthNear {
		up := "Raise"
		if d < 0 {
			up = "Lower"
		}
		said := fmt.Sprintf("%s the blade by %s, to %s", up, size(d).Thin(u), g.Height.Setting(u))
		if lead := c.saw.WheelLead; lead > 0 {
			said += fmt.Sprintf(": %.2f turns of the wheel", math.Abs(float64(d/lead)))
		}
		out = append(out, said+".")
	} else if last.Depth == 0 && !c.deepAs(g.Tests) {
		out = append(out, "Measure the depth as well: the blade is set to "+g.Height.Setting(u)+".")
	}
	return append(out, "Test again.")
}

// changed is how a set's setting differs from that of a test, in words; empty
// if it does not.
func changed(last, now grooveSetting, u measure.Unit) string {
	if now.Dial != nil && last.Dial != nil {
		if now.Dial.Turns == last.Dial.Turns {
			return ""
		}
		return fmt.Sprintf("turn the dial from %.2f to %.2f", last.Dial.Turns, now.Dial.Turns)
	}
	of := func(parts []store.PartUsed, p store.PartUsed) int {
		for _, q := range parts {
			if q.Thickness == p.Thickness && q.Shim == p.Shim {
				return q.Count
			}
		}
		return 0
	}
	var out []string
	say := func(p store.PartUsed, verb string, n int) {
		what := groove.Part{Shim: p.Shim}.What()
		if n > 1 {
			what = fmt.Sprintf("%d %ss", n, what)
		} else {
			what = "a " + what
		}
		out = append(out, fmt.Sprintf("%s %s of %s", verb, what, measure.Length(p.Thickness).Thin(u)))
	}
	for _, p := range last.Parts {
		if n := p.Count - of(now.Parts, p); n > 0 {
			say(p, "take out", n)
		}
	}
	for _, p := range now.Parts {
		if n := p.Count - of(last.Parts, p); n > 0 {
			say(p, "put in", n)
		}
	}
	return strings.Join(out, ", ")
}

func size(l measure.Length) measure.Length { return measure.Length(math.Abs(l.Mm())) }

// mostUneven is by how much the readings of one groove may differ.
const mostUneven = 0.4

// TestGroove takes in a test groove: it goes into the log, teaches how thick
// the parts are, and changes the setting, over the version that it carries.
func (s *Service) TestGroove(ctx context.Context, shop, id uuid.UUID, version int, width []float64, depth float64, u measure.Unit) (Groove, error) {
	c, g, err := s.groove(ctx, shop, id, u)
	if err != nil {
		return g, err
	}
	mean := Mean(width)
	off := mean - c.want.Width.Mm()
	switch {
	case g.Ended != nil:
		return g, invalid("id", "this groove is made and closed")
	case g.Way.Verdict == verdict.Stop:
		return g, invalid("id", "%s", g.Way.Says)
	case slices.Max(width)-slices.Min(width) > mostUneven:
		return g, invalid("width_mm", "the readings of one groove run from %s to %s; clear the chips out and measure again",
			measure.Length(slices.Min(width)).Format(u), measure.Length(slices.Max(width)).Format(u))
	case math.Abs(off) > 3:
		return g, invalid("width_mm", "%s is far from the %s that is wanted; was another groove measured?", measure.Length(mean).Format(u), c.want.Width.Format(u))
	case depth > 0 && math.Abs(depth-g.Height.Mm()) > 5:
		return g, invalid("depth_mm", "%s is far from the %s that the blade was set to; measure again", measure.Length(depth).Format(u), g.Height.Setting(u))
	}
	var now grooveSetting
	if err := unmarshal(g.Setting, &now); err != nil {
		return g, err
	}
	d := store.GroovedDetail{Groove: id, Test: true, Target: c.want.Width.Mm(), Width: width, Depth: depth, Parts: now.Parts, Dial: now.Dial}
	if set := g.Way.Set; set != nil {
		d.Left, d.Right = set.Set.Left.Mm(), set.Set.Right.Mm()
	}
	detail, err := json.Marshal(d)
	if err != nil {
		return g, err
	}
	tested := append(g.Tests, GrooveTested{At: s.now(), Width: mean, Off: off, Depth: depth, Set: now, Doubt: surprising(g.Way.Set, d)})
	err = s.st.Atomically(ctx, func(st *store.Store) error {
		tx := &Service{st, s.now}
		if _, err := st.Append(ctx, store.Entry{Shop: shop, At: s.now(), Kind: store.KindGrooved, Blade: &g.Blade, Saw: &g.Saw, By: g.By, Detail: detail}); err != nil {
			return err
		}
		now, err := tx.reset(ctx, shop, c, g, now, off, depth, u)
		if err != nil {
			return err
		}
		row := g.Groove
		row.Version = version
		if row.Setting, err = json.Marshal(now); err != nil {
			return err
		}
		if row.Tests, err = json.Marshal(tested); err != nil {
			return err
		}
		return stale(st.ChangeGroove(ctx, row), "groove")
	})
	if err != nil {
		return g, err
	}
	return s.Groove(ctx, shop, id, u)
}

// surprising reports whether a test groove is hardly what the set's parts make.
func surprising(set *DadoSet, d store.GroovedDetail) bool {
	if set == nil {
		return false
	}
	use, nominal, ok := useOf(set.Set, d)
	return ok && set.Belief.Surprising(use, nominal, measure.Length(Mean(d.Width)), len(d.Width))
}

// reset is the next setting after a test groove that was off by so much.
func (s *Service) reset(ctx context.Context, shop uuid.UUID, c scene, g Groove, now grooveSetting, off, depth float64, u measure.Unit) (grooveSetting, error) {
	if d := c.want.Depth.Mm() - depth; depth > 0 && math.Abs(d) > depthNear {
		now.Height += d
	}
	if math.Abs(off) <= groove.Near.Mm()+1e-9 {
		return now, nil
	}
	if g.Way.Set == nil {
		now.Shift -= off
		way, err := s.way(ctx, shop, c, g.Blade, &now)
		now.Passes = len(way.Passes)
		return now, err
	}
	set, err := s.dadoSet(ctx, shop, g.Blade)
	if err != nil {
		return now, err
	}
	// What its parts do not account for stays as it is with the next setting.
	now.Off = 0
	way, err := s.way(ctx, shop, c, g.Blade, &now)
	if err != nil {
		return now, err
	}
	short := c.want.Width + measure.Length(off) - way.Width
	now.Off = short.Mm()
	if set.Set.Kind == groove.Dialled {
		at, turns, err := set.Set.Dial(set.Belief, c.want.Width-short, u)
		if err != nil {
			return now, invalid("id", "%s", err)
		}
		now.Dial = &store.DialUsed{Cutters: set.Set.Ranges[at].Cutters, Turns: turns}
		return now, nil
	}
	next, err := set.Set.Restack(set.Belief, c.want.Width-short, g.Way.Stack.Counts, u)
	if err != nil {
		return now, invalid("id", "%s", err)
	}
	now.Parts = nil
	for i, n := range next.Counts {
		if n > 0 {
			now.Parts = append(now.Parts, used(set.Set.Parts[i], n))
		}
	}
	return now, nil
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
		cutMade := CutMade{Cut: c.ask.Cut, Blade: g.Blade, Height: g.Height, Pieces: made, Wall: wall, Splinters: splinters}
		if n := len(g.Way.Passes); n > 1 {
			cutMade.Metres = float64(n*made) * c.job.CutLength().Mm() / 1000
		}
		d, _, err := s.cutDetail(ctx, shop, cutMade, u)
		if err != nil {
			return g, err
		}
		d.Foretold = nil // the model's window is of one blade in a cut of its own kerf
		var now grooveSetting
		if err := unmarshal(row.Setting, &now); err != nil {
			return g, err
		}
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
	names := map[uuid.UUID]string{}
	for i, r := range rows {
		var asked grooveAsked
		var now grooveSetting
		var tests []GrooveTested
		if err := unmarshal(r.Asked, &asked, r.Setting, &now, r.Tests, &tests); err != nil {
			return nil, err
		}
		out[i] = GrooveRow{Groove: r, MaterialName: r.Material, Piece: measure.Length(asked.Piece), Target: measure.Length(asked.Target),
			Depth: measure.Length(asked.Depth), Says: now.says(u), Tests: len(tests)}
		if m, err := material.Get(r.Material); err == nil {
			out[i].MaterialName = m.Name
		}
		if names[r.Blade] == "" {
			b, err := s.st.Blade(ctx, shop, r.Blade)
			if err != nil {
				return nil, err
			}
			names[r.Blade] = b.Name
		}
		if names[r.Saw] == "" {
			w, err := s.st.Saw(ctx, shop, r.Saw)
			if err != nil {
				return nil, err
			}
			names[r.Saw] = w.Name
		}
		out[i].BladeName, out[i].SawName = names[r.Blade], names[r.Saw]
	}
	return out, nil
}
