package choose

import (
	"testing"

	"corte/core/blade"
	"corte/core/care"
	"corte/core/cut"
	"corte/core/saw"
	"corte/internal/testkit/golden"
)

// Scenes in which every rule, reason and suggestion has its say, read over once
// and held to the letter.
func TestAdviceIsAsItWasReadOver(t *testing.T) {
	braked := table
	braked.Brake, braked.DadoSets, braked.FenceReach, braked.TiltSide = &saw.Brake{MinKerf: 2.3, MaxKerf: 4.8, MinDiameter: 250, MaxDiameter: 260}, true, 760, saw.Left
	weak := table
	weak.MotorW, weak.BreakerA, weak.Knife = 1100, 10, 0
	strong := table
	strong.MotorW, strong.Volts, strong.BreakerA = 3000, 230, 20
	walker := saw.Saw{Kind: saw.Circular, Diameter: 184, Least: 180, Arbor: 15.875, RPM: 5200, MotorW: 1200, Volts: 120, BreakerA: 15, Reach: 63, Reach45: 46, Tilt: 55, Wheels: true}
	small := func(teeth int, g blade.Grind, bevel, hook float64, use blade.Use) blade.Blade {
		return blade.Blade{Diameter: 184, Bore: 15.875, Kerf: 1.8, Plate: 1.2, Teeth: teeth, Grind: g, Bevel: bevel, Hook: hook, MaxRPM: 9000, KeptFor: use}
	}
	wide := func(teeth int, bevel, hook float64) blade.Blade {
		return blade.Blade{Diameter: 305, Bore: 25.4, Kerf: 3, Plate: 2.2, Teeth: teeth, Grind: blade.ATB, Bevel: bevel, Hook: hook, MaxRPM: 5000}
	}
	flat30 := rip24
	flat30.Teeth, flat30.KeptFor = 30, blade.UseJoints
	thin := combo50
	thin.Kerf, thin.Plate, thin.Grind, thin.Bevel, thin.Teeth = 2.4, 1.7, blade.ATB, 20, 40
	shoulder := small(24, blade.ATB, 15, 18, blade.UseGeneral)
	shoulder.Shoulder, shoulder.GulletShape = true, blade.NarrowGullet
	old := combo50
	old.Throwaway, old.MaxRPM, old.HookUnknown = true, 0, true
	big := []Candidate{{Blade: fine80}, {Blade: combo50, Mounted: true}, {Blade: rip24}, {Blade: tcg80}, {Blade: flat30}, {Blade: thin, State: cut.State{Sharpness: 2.2, Pitch: 2}},
		{Blade: old, Barred: Bar(care.Condition{Hit: true})}, {Blade: shoulder}, {Blade: wide(60, 20, 5)}, {Blade: blade.Blade{Make: blade.Diamond, Diameter: 184, Bore: 15.875, Kerf: 2.2, MaxRPM: 8300}}}
	hand := []Candidate{{Blade: shoulder, Mounted: true}, {Blade: small(60, blade.ATB, 20, 8, blade.UseSheet)}, {Blade: small(24, blade.FTG, 0, 15, blade.UseDirty)}, {Blade: rip24}}
	chops := []Candidate{{Blade: wide(80, 15, -2), Mounted: true}, {Blade: wide(60, 20, 5)}, {Blade: wide(48, 15, 18)}, {Blade: combo50}}
	scene := func(id string, d cut.Direction, f cut.Finish, s saw.Saw, change func(*cut.Job)) Request {
		r := request(t, id, d, f)
		r.Saw = s
		if change != nil {
			change(&r.Job)
		}
		r.Job = Settle(r.Job, s)
		return r
	}
	for name, tt := range map[string]struct {
		r    Request
		rack []Candidate
	}{
		"maple rip":          {scene("hard-maple", cut.Rip, cut.Hidden, table, nil), big},
		"thick oak rip":      {scene("red-oak", cut.Rip, cut.Rough, weak, func(j *cut.Job) { j.Thickness, j.Length = 60, 2400 }), big},
		"cherry crosscut":    {scene("cherry", cut.Crosscut, cut.Show, table, nil), big},
		"fine walnut":        {scene("walnut", cut.Crosscut, cut.Fine, strong, func(j *cut.Job) { j.Exit, j.Thickness = cut.ZeroClearance, 19 }), big},
		"veneered sheet":     {scene("veneered-board", cut.Sheet, cut.Show, braked, func(j *cut.Job) { j.Thickness, j.Width, j.Length = 18, 600, 2400 }), big},
		"wet pine, braked":   {scene("yellow-pine", cut.Rip, cut.Hidden, braked, func(j *cut.Job) { j.Moisture = cut.Wet }), big},
		"groove in ply":      {scene("birch-ply", cut.Sheet, cut.Hidden, braked, func(j *cut.Job) { j.Thickness, j.Form, j.Depth = 18, cut.Groove, 6 }), big},
		"bevel":              {scene("poplar", cut.Crosscut, cut.Show, table, func(j *cut.Job) { j.BevelDeg = 45 }), big},
		"both faces":         {scene("hard-maple", cut.Rip, cut.Hidden, table, func(j *cut.Job) { j.Thickness, j.BothFaces, j.Width = 110, true, 200 }), big},
		"24 of them":         {scene("white-pine", cut.Crosscut, cut.Hidden, table, func(j *cut.Job) { j.Pieces, j.Thickness, j.Width = 24, 38, 64 }), big},
		"aluminium":          {scene("aluminium", cut.Crosscut, cut.Show, table, func(j *cut.Job) { j.Thickness = 6 }), big},
		"acrylic":            {scene("acrylic", cut.Crosscut, cut.Show, table, func(j *cut.Job) { j.Thickness = 6 }), big},
		"nails":              {scene("nailed-wood", cut.Crosscut, cut.Rough, walker, nil), hand},
		"tile":               {scene("tile", cut.Crosscut, cut.Hidden, walker, func(j *cut.Job) { j.Thickness = 10 }), hand},
		"sheet by hand":      {scene("softwood-ply", cut.Sheet, cut.Show, walker, func(j *cut.Job) { j.Thickness, j.Length, j.Exit = 18, 2400, cut.Tape }), hand},
		"rip by hand":        {scene("yellow-pine", cut.Rip, cut.Rough, walker, func(j *cut.Job) { j.Thickness = 38 }), hand},
		"a chop":             {scene("white-pine", cut.Crosscut, cut.Show, slider, func(j *cut.Job) { j.Thickness, j.Width, j.Motion = 38, 90, cut.Chop }), chops},
		"a slide":            {scene("cherry", cut.Crosscut, cut.Fine, slider, func(j *cut.Job) { j.Width, j.Motion = 300, cut.Push }), chops},
		"frozen larch":       {scene("larch", cut.Crosscut, cut.Hidden, table, func(j *cut.Job) { j.Moisture, j.Moves = cut.Frozen, true }), big},
		"mdf, unlike others": {scene("mdf", cut.Sheet, cut.Show, table, func(j *cut.Job) { j.Thickness = 18 }), big[1:3]},
	} {
		r := tt.r
		r.Heel, r.Rework, r.School = 0.04, 1, BySaw
		if name == "cherry crosscut" {
			r.School = JustProud
		}
		k := Rank(r, tt.rack)
		said := []any{name, CheckJob(r.Job, r.Saw) == nil}
		for n, o := range k.Fit[:min(3, len(k.Fit))] {
			c := tt.rack[o.Index]
			h := r.Heights(c.Blade)
			change, gains := k.BestChange(r, c, o)
			shown := o
			if n > 0 { // the figures of the first blade do for a cut; core/cut has more
				shown.Figures = cut.Figures{}
			}
			said = append(said, map[string]any{"blade": o.Index, "option": shown, "heights": h, "reasons": k.Reasons(r, c, o), "verdict": o.Verdict(r.Job.Material.Kind.Modelled(), c.State),
				"change": change, "gains": gains, "passes": r.Passes(h.Suggested), "minds": MountMinds(c.Blade, r.Saw)})
		}
		said = append(said, map[string]any{"refused": k.Stopped})
		if s, ok := k.Swap(r, tt.rack); ok {
			said = append(said, map[string]any{"swap": s})
		}
		if i, ok := FindIdeal(r); ok {
			said = append(said, map[string]any{"ideal": i})
		}
		if a, ok := Kerfs(r, tt.rack[0].Blade); ok {
			said = append(said, map[string]any{"kerfs": a})
		}
		if s, ok := RuleSheet(r.Job.Material, r.Saw); ok {
			said = append(said, map[string]any{"rules": s})
		}
		golden.Check(t, name, said...)
	}
}
