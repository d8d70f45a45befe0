package choose

import (
	"slices"
	"strings"
	"testing"

	"corte/core/blade"
	"corte/core/cut"
	"corte/core/fault"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/saw"
)

func TestHardRules(t *testing.T) {
	with := func(change func(*blade.Blade)) blade.Blade {
		b := combo50
		change(&b)
		return b
	}
	braked := table
	braked.Brake = &saw.Brake{MinKerf: 2.3, MaxKerf: 4.8, MinDiameter: 250, MaxDiameter: 260}
	for name, tt := range map[string]struct {
		b        blade.Blade
		s        saw.Saw
		material string
		rule     Rule
		says     string
	}{
		"too large":             {with(func(b *blade.Blade) { b.Diameter = 305 }), table, "cherry", RuleDiameter, "305 mm does not fit"},
		"too small":             {with(func(b *blade.Blade) { b.Diameter = 210 }), table, "cherry", RuleDiameter, "too small"},
		"wrong bore":            {with(func(b *blade.Blade) { b.Bore = 30 }), table, "cherry", RuleBore, "bore of 30 mm"},
		"too slow":              {with(func(b *blade.Blade) { b.MaxRPM = 3000 }), table, "cherry", RuleSpeed, "3000 rpm"},
		"knife fills the kerf":  {with(func(b *blade.Blade) { b.Kerf, b.Plate = 2.3, 1.6 }), table, "cherry", RuleKnife, "would jam"},
		"knife under the plate": {with(func(b *blade.Blade) { b.Plate = 2.4 }), table, "cherry", RuleKnife, "keep the kerf open"},
		"brake kerf":            {with(func(b *blade.Blade) { b.Kerf = 5 }), braked, "cherry", RuleBrake, "kerfs from 2.3 mm"},
		"brake diameter":        {with(func(b *blade.Blade) { b.Diameter = 240 }), braked, "cherry", RuleBrake, "diameters from"},
		"hook on a miter saw":   {with(func(b *blade.Blade) { b.Hook, b.Bore = 15, 25.4 }), slider, "cherry", RuleHook, "climb"},
		"dado on a miter saw":   {with(func(b *blade.Blade) { b.Make, b.Bore = blade.Dado, 25.4 }), slider, "cherry", RuleDado, "never goes on a miter saw"},
		"dado not allowed":      {with(func(b *blade.Blade) { b.Make = blade.Dado }), table, "cherry", RuleDado, "doesn't allow dado"},
		"bevel on aluminium":    {combo50, table, "aluminium", RuleMaterial, "grab aluminium"},
		"hook on aluminium":     {with(func(b *blade.Blade) { b.Grind, b.Hook = blade.TCG, 10 }), table, "aluminium", RuleMaterial, "hook angle of 10"},
		"teeth on tile":         {combo50, table, "tile", RuleMaterial, "teeth do not cut tile"},
		"wood blade on steel":   {combo50, table, "steel", RuleMaterial, "not made for steel"},
		"nails":                 {combo50, table, "nailed-wood", RuleMaterial, "knocks the tips off"},
		"wheel on wood":         {blade.Blade{Make: blade.Diamond, Diameter: 254, Bore: 15.875, Kerf: 2.4}, table, "cherry", RuleMaterial, "grinds and burns"},
		"conical":               {with(func(b *blade.Blade) { b.Grind = blade.Conical }), table, "cherry", RuleMake, "scoring"},
		"out of reach":          {with(func(b *blade.Blade) { b.Diameter = 218 }), table, "cherry", RuleReach, "cuts only"},
	} {
		r := request(t, tt.material, cut.Crosscut, cut.Show)
		if tt.rule == RuleReach {
			r.Job.Thickness = 65
		}
		if tt.s.Kind == saw.Miter {
			r.Job.Motion = cut.Push
		}
		found := false
		for _, s := range Stops(tt.b, r.Job, tt.s) {
			found = found || s.Rule == tt.rule && strings.Contains(s.Why.String(), tt.says) && !s.WayOut.Zero()
		}
		if !found {
			t.Errorf("%s: %+v; want rule %v that says %q", name, Stops(tt.b, r.Job, tt.s), tt.rule, tt.says)
		}
	}
	if s := Stops(combo50, request(t, "cherry", cut.Crosscut, cut.Show).Job, braked); len(s) > 0 {
		t.Errorf("an ordinary blade on an ordinary saw: %v", s)
	}
}

// What keeps a blade off a saw can be told before any cut is said; what only a
// cut forbids does not keep it off.
func TestMountStopsNeedNoCut(t *testing.T) {
	strong := combo50
	strong.Bore, strong.Hook = 25.4, 18
	for name, tt := range map[string]struct {
		b     blade.Blade
		s     saw.Saw
		rules []Rule
	}{
		"an ordinary blade":        {combo50, table, nil},
		"a blade for acrylic":      {tcg80, table, nil},
		"a strong hook on a slide": {strong, slider, []Rule{RuleHook}},
		"a wrong bore":             {strong, table, []Rule{RuleBore}},
	} {
		var got []Rule
		for _, s := range MountStops(tt.b, tt.s) {
			got = append(got, s.Rule)
		}
		if !slices.Equal(got, tt.rules) {
			t.Errorf("%s is stopped by %v, want %v", name, got, tt.rules)
		}
	}
}

// A stand-in passes the hard rules of the saws that the blade runs on.
func TestStandsIn(t *testing.T) {
	braked := table
	braked.Brake = &saw.Brake{MinKerf: 2.5, MaxKerf: 4, MinDiameter: 250, MaxDiameter: 258}
	thin, thirty := combo50, combo50
	thin.Kerf, thin.Plate = 2.4, 1.7
	thirty.Teeth = 30
	for name, tt := range map[string]struct {
		b    blade.Blade
		saws []saw.Saw
		want bool
	}{
		"a twin":                {combo50, []saw.Saw{braked, slider}, true},
		"a thin one":            {thin, []saw.Saw{table}, true},
		"that the brake stops":  {thin, []saw.Saw{table, braked}, false},
		"another kind":          {thirty, []saw.Saw{table}, false},
		"a saw that takes none": {thin, []saw.Saw{slider}, true},
	} {
		if got := StandsIn(tt.b, combo50, tt.saws); got != tt.want {
			t.Errorf("%s stands in: %v", name, got)
		}
	}
}

func TestJobsThatNoBladeCanDo(t *testing.T) {
	for name, tt := range map[string]struct {
		field, says string
		s           saw.Saw
		change      func(*cut.Job)
	}{
		"rip on a miter saw": {"direction", "only crosscuts", slider, func(j *cut.Job) { j.Direction = cut.Rip }},
		"too thick":          {"thickness", "from both faces (79 mm each)", table, func(j *cut.Job) { j.Motion, j.Thickness = cut.Along, 160 }},
		"too thick tilted":   {"thickness", "other face", table, func(j *cut.Job) { j.Motion, j.Thickness, j.BevelDeg = cut.Along, 60, 45 }},
		"tilted too far":     {"bevel", "tilts to 45", table, func(j *cut.Job) { j.Motion, j.BevelDeg = cut.Along, 50 }},
		"too thick to chop":  {"thickness", "Use another machine", slider, func(j *cut.Job) { j.Motion, j.Width, j.Thickness = cut.Chop, 90, 92.1 }},
		"a groove on a chop": {"form", "cuts through", slider, func(j *cut.Job) { j.Form, j.Depth = cut.Groove, 9 }},
		"a deep groove":      {"depth", "deeper than this saw", table, func(j *cut.Job) { j.Motion, j.Form, j.Thickness, j.Depth = cut.Along, cut.Groove, 120, 90 }},
		"a groove through":   {"depth", "doesn't go through", table, func(j *cut.Job) { j.Motion, j.Form, j.Depth = cut.Along, cut.Groove, 25 }},
		"mitred too wide":    {"width", "across the cut", slider, func(j *cut.Job) { j.Motion, j.Width, j.MiterDeg = cut.Chop, 120, 45 }},
		"no carriage":        {"carriage", "no sliding carriage", table, func(j *cut.Job) { j.Motion, j.Direction, j.Carriage = cut.Along, cut.Sheet, true }},
		"past the carriage":  {"carriage", "longer than this saw's carriage", func() saw.Saw { s := table; s.Carriage = 800; return s }(), func(j *cut.Job) { j.Motion, j.Direction, j.Carriage, j.Length = cut.Along, cut.Sheet, true, 801 }},
		"a narrow board":     {"board", "at least as wide", table, func(j *cut.Job) { j.Motion, j.Direction, j.Board = cut.Along, cut.Rip, 60 }},
		"an insert at a top": {"exit support", "teeth exit at the top face", slider, func(j *cut.Job) { j.Exit = cut.ZeroClearance }},
		"an end's insert":    {"other support", "doesn't help the end edge", table, func(j *cut.Job) { j.Motion, j.Other = cut.Along, cut.ZeroClearance }},
		"10,000 pieces":      {"pieces", "1 to 9999", table, func(j *cut.Job) { j.Motion, j.Pieces = cut.Along, 10_000 }},
		"longer than it is":  {"piece", "you can't cut a piece", table, func(j *cut.Job) { j.Motion, j.Piece = cut.Along, 1000 }},
		"too wide to chop":   {"width", "push it", slider, func(j *cut.Job) { j.Motion, j.Width = cut.Chop, 200 }},
		"too wide to push":   {"width", "slide crosses", slider, func(j *cut.Job) { j.Width = 400 }},
		"chop on a table":    {"motion", "only a miter saw", table, func(j *cut.Job) { j.Motion = cut.Chop }},
	} {
		j := request(t, "cherry", cut.Crosscut, cut.Show).Job
		j.Motion = cut.Push
		tt.change(&j)
		err, ok := CheckJob(j, tt.s).(*fault.Error)
		if !ok || err.Where != tt.field || !strings.Contains(err.What.String(), tt.says) {
			t.Errorf("%s: %v", name, err)
		}
	}
	// A miter saw's blade goes past its table, so that it cuts what it reaches; and square work is never told of its tilt.
	j := request(t, "cherry", cut.Crosscut, cut.Show).Job
	j.Motion, j.Width, j.Thickness = cut.Chop, 90, 92
	if err := CheckJob(j, slider); err != nil {
		t.Errorf("at a miter saw's reach: %v", err)
	}
	j.Motion, j.Thickness = cut.Along, 170
	if err := CheckJob(j, table); err == nil || strings.Contains(err.Error(), "tilted") {
		t.Errorf("far past a table saw's reach: %v", err)
	}
}

// Every material without a window has a sheet, and the saw's own limits are in it.
func TestEveryMaterialWithoutAWindowHasARule(t *testing.T) {
	for _, m := range material.All() {
		sheet, ok := RuleSheet(m, table)
		if ok == m.Kind.Modelled() {
			t.Errorf("%s: sheet %v", m.Name, ok)
		}
		refused := m.Kind == material.Steel || m.Kind == material.Mineral
		if ok && (sheet.Blade.Zero() || sheet.Saw.Zero() || sheet.SawMay == refused || len(sheet.Never) == 0 || len(sheet.Protection) == 0) {
			t.Errorf("%s: %+v", m.Name, sheet)
		}
	}
}

// What is not known, or is a little wrong, is said and asked before a blade
// goes on: it is a caution, not a stop.
func TestMinds(t *testing.T) {
	with := func(change func(*blade.Blade)) blade.Blade {
		b := blade.Blade{Diameter: 305, Bore: 25.4, Kerf: 3, Plate: 2.2, Teeth: 80, Grind: blade.ATB, Bevel: 15, Hook: 5, MaxRPM: 5000}
		change(&b)
		return b
	}
	fixed := slider
	fixed.Sliding = false
	for name, tt := range map[string]struct {
		b    blade.Blade
		s    saw.Saw
		want []Rule
		stop []Rule
	}{
		"in order":               {with(func(*blade.Blade) {}), slider, nil, nil},
		"no speed limit":         {with(func(b *blade.Blade) { b.MaxRPM = 0 }), slider, []Rule{RuleSpeed}, nil},
		"no hook":                {with(func(b *blade.Blade) { b.HookUnknown = true }), fixed, []Rule{RuleHook}, nil},
		"no hook, on a table":    {func() blade.Blade { b := rip24; b.HookUnknown = true; return b }(), table, nil, nil},
		"a hook over 5, sliding": {with(func(b *blade.Blade) { b.Hook = 5.5 }), slider, []Rule{RuleHook}, nil},
		"over 5, fixed":          {with(func(b *blade.Blade) { b.Hook = 5.5 }), fixed, nil, nil},
		"10, sliding":            {with(func(b *blade.Blade) { b.Hook = 10 }), slider, []Rule{RuleHook}, nil},
		"over 10":                {with(func(b *blade.Blade) { b.Hook = 10.5 }), fixed, nil, []Rule{RuleHook}},
		"shoulders calm it":      {with(func(b *blade.Blade) { b.Hook, b.Shoulder = 8, true }), slider, []Rule{RuleHook}, nil},
	} {
		rules := func(stops []Stop) (out []Rule) {
			for _, s := range stops {
				if s.Why.Zero() || s.WayOut.Zero() {
					t.Errorf("%s: %+v", name, s)
				}
				out = append(out, s.Rule)
			}
			return out
		}
		if stops := rules(MountStops(tt.b, tt.s)); !slices.Equal(stops, tt.stop) {
			t.Errorf("%s stops %v, want %v", name, stops, tt.stop)
		}
		if len(tt.stop) > 0 {
			continue
		}
		if got := rules(MountMinds(tt.b, tt.s)); !slices.Equal(got, tt.want) {
			t.Errorf("%s is minded for %v, want %v", name, got, tt.want)
		}
	}
	r := request(t, "birch-ply", cut.Sheet, cut.Show)
	r.Job.Exit = cut.ZeroClearance
	for thick, want := range map[measure.Length]bool{3: true, 4: true, 4.1: false, 18: false} {
		r.Job.Thickness = thick
		o := Rank(r, []Candidate{{Blade: fine80}}).Fit[0]
		if got := len(o.Minds) == 1 && o.Minds[0].Rule == RuleTeeth; got != want || want && o.Verdict(true, cut.State{}) != Caution {
			t.Errorf("in %v stock %.2f teeth stand and it says %+v", thick, o.Figures.TeethInCut, o.Minds)
		}
	}
}

// Through is three millimetres through, never a hair.
func TestThrough(t *testing.T) {
	r := request(t, "red-oak", cut.Rip, cut.Hidden)
	walker := saw.Saw{Kind: saw.Circular, Diameter: 254, Arbor: 15.875, RPM: 4500, MotorW: 1500, Reach: 79}
	for _, tt := range []struct {
		name  string
		s     saw.Saw
		thick measure.Length
		proud measure.Length
		both  bool
	}{
		{"on a table", table, 25, 31, false},
		{"on a table near its reach", table, 75, 79, false},
		{"at its reach", table, 76, 79, false},
		{"two millimetres through", table, 77, 79, false},
		{"past it", table, 77.1, 0, true},
		{"by hand", walker, 25, 28, false},
		{"by hand past its reach", walker, 77.1, 0, true},
	} {
		r.Saw, r.Job.Thickness, r.Job.BothFaces = tt.s, tt.thick, false
		r.Job = Settle(r.Job, tt.s)
		if r.Job.BothFaces != tt.both || CheckJob(r.Job, tt.s) != nil {
			t.Errorf("%s, %v: from both faces %v, %v", tt.name, tt.thick, r.Job.BothFaces, CheckJob(r.Job, tt.s))
		}
		if h := r.Heights(rip24); !tt.both && (h.Proud != tt.proud || h.Gullets < h.Proud) {
			t.Errorf("%s, %v: %+v", tt.name, tt.thick, h)
		}
		j := r.Job
		for height, want := range map[measure.Length]bool{j.Thickness + 2.9: false, j.Thickness + 3: true} {
			if j.Height = height; !j.BothFaces && j.Parts() != want {
				t.Errorf("%v in %v parts: %v", height, j.Thickness, !want)
			}
		}
	}
	r.Job.Motion, r.Job.Direction, r.Job.Width = cut.Chop, cut.Crosscut, 90
	for d, stopped := range map[measure.Length]bool{305: false, 299: false, 298.9: true, 290: true} { // 6 mm below the table
		b := blade.Blade{Diameter: d, Bore: 25.4, Kerf: 3, Teeth: 60, Grind: blade.ATB, Bevel: 15, MaxRPM: 5000}
		if got := len(Stops(b, cut.Job{Material: r.Job.Material, Motion: cut.Chop, Direction: cut.Crosscut, Thickness: 38, Width: 90, Length: 900}, slider)) > 0; got != stopped {
			t.Errorf("a chop with %v is stopped: %v", d, got)
		}
	}
}
