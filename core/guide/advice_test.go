package guide

import (
	"fmt"
	"maps"
	"slices"
	"testing"

	"corte/core/cut"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/saw"
	"corte/core/truing"
	"corte/internal/testkit/golden"
)

// How work is held, what is minded and where supports stand, over saws and cuts
// that have each rule's say; read over once and held to the letter.
func TestAdviceIsAsItWasReadOver(t *testing.T) {
	get := func(id string) material.Material {
		m, err := material.Get(id)
		if err != nil {
			t.Fatal(err)
		}
		return m
	}
	saws := map[string]saw.Saw{
		"table": {Kind: saw.Table, Diameter: 254, Volts: 120, BreakerA: 15, Knife: 2.3, TiltSide: saw.Left, FenceReach: 760, Reach: 79, Brake: &saw.Brake{MinKerf: 2, MaxKerf: 4, MinDiameter: 250, MaxDiameter: 260}},
		"bare":  {Kind: saw.Table, Diameter: 254, Reach: 79},
		"slide": {Kind: saw.Miter, Sliding: true, Diameter: 305, Volts: 120, BreakerA: 20, Crosscut: 340, ChopWidth: 152, Reach: 98},
		"chop":  {Kind: saw.Miter, Diameter: 254, Volts: 230, BreakerA: 16, Reach: 80},
		"hand":  {Kind: saw.Circular, Diameter: 184, Volts: 120, BreakerA: 15, Wheels: true, Reach: 63},
		"tired": {Kind: saw.Circular, Diameter: 165, Volts: 18, Reach: 55},
	}
	oak := cut.Job{Material: get("red-oak"), Direction: cut.Crosscut, Finish: cut.Show, Thickness: 25, Width: 120, Length: 900, Pieces: 1}
	jobs := map[string]func(*cut.Job){
		"plain across":   func(j *cut.Job) {},
		"rip":            func(j *cut.Job) { j.Direction = cut.Rip },
		"narrow rip":     func(j *cut.Job) { j.Direction, j.Piece, j.Width = cut.Rip, 20, 60 },
		"long heavy rip": func(j *cut.Job) { j.Direction, j.Length, j.Thickness, j.Width = cut.Rip, 3000, 60, 300 },
		"short piece":    func(j *cut.Job) { j.Piece = 60 },
		"very short":     func(j *cut.Job) { j.Piece, j.Length, j.Width = 25, 140, 40 },
		"a sheet": func(j *cut.Job) {
			j.Material, j.Direction, j.Width, j.Length, j.Thickness = get("birch-ply"), cut.Sheet, 600, 2400, 18
		},
		"a small sheet": func(j *cut.Job) {
			j.Material, j.Direction, j.Width, j.Length, j.Thickness = get("mdf"), cut.Sheet, 90, 400, 6
		},
		"bevelled":       func(j *cut.Job) { j.BevelDeg = 45 },
		"bevelled rip":   func(j *cut.Job) { j.Direction, j.BevelDeg, j.FenceSide = cut.Rip, 30, cut.Left },
		"mitred":         func(j *cut.Job) { j.MiterDeg = 45 },
		"groove":         func(j *cut.Job) { j.Form, j.Depth = cut.Groove, 8 },
		"rabbet":         func(j *cut.Job) { j.Form, j.Depth, j.Direction = cut.Rabbet, 8, cut.Rip },
		"cheek":          func(j *cut.Job) { j.Form, j.Depth = cut.Cheek, 8 },
		"fold":           func(j *cut.Job) { j.Form, j.Depth, j.Material = cut.Fold, 10, get("mdf") },
		"both faces":     func(j *cut.Job) { j.Direction, j.BothFaces, j.Thickness = cut.Rip, true, 110 },
		"24 of them":     func(j *cut.Job) { j.Pieces = 24 },
		"pushed":         func(j *cut.Job) { j.Motion, j.Width = cut.Push, 300 },
		"pushed, scored": func(j *cut.Job) { j.Motion, j.Width, j.Exit = cut.Push, 300, cut.Scored },
		"chopped":        func(j *cut.Job) { j.Motion, j.Exit = cut.Chop, cut.Backer },
		"on runners":     func(j *cut.Job) { j.Bed = cut.Runners },
		"on a sheet":     func(j *cut.Job) { j.Bed = cut.Sacrifice },
		"wet":            func(j *cut.Job) { j.Moisture = cut.Wet },
		"frozen, moves":  func(j *cut.Job) { j.Moisture, j.Moves, j.Direction = cut.Frozen, true, cut.Rip },
		"foil":           func(j *cut.Job) { j.Material, j.Direction = get("foil-board"), cut.Sheet },
		"acrylic":        func(j *cut.Job) { j.Material, j.Thickness = get("acrylic"), 6 },
		"aluminium":      func(j *cut.Job) { j.Material, j.Thickness = get("aluminium"), 4 },
		"tile":           func(j *cut.Job) { j.Material, j.Thickness = get("tile"), 10 },
		"nails":          func(j *cut.Job) { j.Material = get("nailed-wood") },
		"brake off":      func(j *cut.Job) { j.Material, j.BrakeOff = get("aluminium"), true },
		"taped":          func(j *cut.Job) { j.Exit = cut.Tape },
		"thin":           func(j *cut.Job) { j.Thickness = 3 },
	}
	for name, s := range saws {
		var said []any
		for _, what := range slices.Sorted(maps.Keys(jobs)) {
			j := oak
			jobs[what](&j)
			if s.Kind == saw.Miter && j.Motion == cut.Along {
				j.Motion = cut.Chop
			}
			said = append(said, fmt.Sprint("== ", what), map[string]any{"hold": Hold(j, s), "cautions": Cautions(j, s), "findings": Findings(j, s, truing.Alignment{}, truing.Usual),
				"face": ShowFace(j, s), "fence": FenceSide(j, s), "along": AlongFence(j, s)})
		}
		golden.Check(t, name, said...)
	}
	ply := Board{Material: get("birch-ply"), Thickness: 18, Span: 2400, Breadth: 1200, Line: 800}
	thin := Board{Material: get("hardboard"), Thickness: 3, Span: 1200, Breadth: 600, Line: 200}
	stick := Board{Material: get("white-pine"), Thickness: 38, Span: 1500, Breadth: 64, Line: 1450}
	golden.Check(t, "supports", PlanSupports(ply), PlanSupports(thin), PlanSupports(stick),
		JudgeSupports(ply, []measure.Length{200, 740, 860, 2000}), JudgeSupports(ply, []measure.Length{300, 2100}),
		JudgeSupports(ply, []measure.Length{100, 500, 798, 2300}), JudgeSupports(ply, []measure.Length{820, 2300}),
		JudgeSupports(stick, []measure.Length{100, 1400}), JudgeSupports(ply, []measure.Length{100, 300, 400, 500}))
}
