package trace

import (
	"fmt"
	"testing"
	"time"

	"corte/core/blade"
	"corte/core/care"
	"corte/core/choose"
	"corte/core/cut"
	"corte/core/material"
	"corte/core/saw"
	"corte/core/say"
	"corte/internal/testkit/golden"
)

// What signs come to, what is asked next and what is doubted; and what a shop
// knows of a cut; read over once and held to the letter.
func TestTracesAreAsTheyWereReadOver(t *testing.T) {
	var said []any
	for i, s := range Signs() {
		for n, kind := range []string{"table", "miter", "circular"} {
			if n > 0 && i%3 != 0 { // the saw says little of most
				continue
			}
			e := Evidence{Present: []string{s.ID}, Saw: kind, State: map[string]float64{"sharpness": 1.9, "pitch_level": 1.2, "heel_mm": 0.1, "scorch_dose": 12, "truing_age_days": 40}}
			b := Weigh(e)
			reasons, checks := b.Reasons(), b.Checks(nil)
			said = append(said, fmt.Sprint("== ", s.ID, " ", kind), map[string]any{"reasons": reasons[:min(3, len(reasons))], "checks": ids(checks[:min(4, len(checks))]), "stop": b.Stop(), "doubts": b.Doubts()})
		}
	}
	golden.Check(t, "signs", said...)
	said = nil
	for _, k := range Tests() {
		for _, found := range []bool{true, false} {
			b := Weigh(Evidence{Present: []string{"scorch-both-walls", "hard-to-push"}, Checks: map[string]bool{k.ID: found}, Groove: k.ID == "heel"})
			reasons, next := b.Reasons(), b.Checks([]string{"feed-quicker"})
			said = append(said, fmt.Sprint("== ", k.ID, " ", found), map[string]any{"reasons": reasons[:min(3, len(reasons))], "checks": ids(next[:min(4, len(next))]), "stop": b.Stop(), "exhausted": b.Exhausted(nil)})
		}
	}
	for _, finish := range []string{"rough", "hidden", "show", "fine"} {
		said = append(said, finish, Piece([]string{"scorch-both-walls", "splinters-top", "saw-marks"}, finish), Piece([]string{"splinters-bottom"}, finish), Piece(nil, finish))
	}
	golden.Check(t, "checks", said...)
}

func ids(next []Next) (out []string) {
	for _, n := range next {
		out = append(out, fmt.Sprintf("%s %.3f bits, finds %.3f", n.ID, n.Bits, n.Finds))
	}
	return out
}

func TestFactsAreAsTheyWereReadOver(t *testing.T) {
	day := func(n int) time.Time { return time.Date(2026, 3, n, 9, 0, 0, 0, time.UTC) }
	at := func(n int) *time.Time { d := day(n); return &d }
	get := func(id string) material.Material {
		m, err := material.Get(id)
		if err != nil {
			t.Fatal(err)
		}
		return m
	}
	table := saw.Saw{Kind: saw.Table, Diameter: 254, Least: 216, Arbor: 15.875, RPM: 4000, MotorW: 1300, Volts: 120, BreakerA: 15, Reach: 79}
	miter := saw.Saw{Kind: saw.Miter, Sliding: true, Diameter: 305, Arbor: 25.4, RPM: 3800, MotorW: 1500, Reach: 98, ChopWidth: 152, Crosscut: 340}
	b := blade.Blade{Diameter: 254, Bore: 15.875, Kerf: 3.2, Plate: 2.2, Teeth: 40, Grind: blade.ATB, Bevel: 15, Hook: 15, MaxRPM: 7000}
	wide := b
	wide.Diameter, wide.Bore, wide.Hook = 305, 25.4, -2
	misfit := b
	misfit.Bore = 30
	base := func() Known {
		j := cut.Job{Material: get("cherry"), Direction: cut.Rip, Finish: cut.Hidden, Thickness: 25, Width: 120, Length: 900, Pieces: 1}
		return Known{Now: day(30), Day: say.On, Saw: table, Request: choose.Request{Job: j, Saw: table}}
	}
	with := func(k *Known, b blade.Blade, c care.Condition) {
		k.Blade, k.BladeName, k.Condition, k.Candidate = &b, "Plough", c, choose.Candidate{Blade: b, State: cut.State{Sharpness: c.Sharpness(b.Grind), Pitch: c.PitchLevel()}}
	}
	worn := care.Condition{WearM2: 1, ResinM2: 0.4, MetresWashed: 80, MetresSharp: 400, Washes: 2, Sharpenings: 1}
	for name, change := range map[string]func(*Known){
		"nothing known": func(k *Known) {},
		"true to the fence": func(k *Known) {
			k.Heel, k.HeelAt, k.FenceOpen, k.FenceAt = 0.09, at(3), 0.2, at(4)
			with(k, b, care.Condition{})
		},
		"from the fence":   func(k *Known) { k.Heel, k.HeelAt, k.FenceOpen, k.FenceAt, k.Moved = -0.12, at(3), -0.1, at(4), at(5) },
		"moved before":     func(k *Known) { k.HeelAt, k.Moved = at(6), at(5) },
		"moved, no truing": func(k *Known) { k.Moved = at(5) },
		"run-out and spread": func(k *Known) {
			k.RunOut, k.Spread = &Measured{0.12, day(2)}, &Measured{0.08, day(1)}
			with(k, b, worn)
		},
		"washed, not used": func(k *Known) { with(k, b, care.Condition{Washes: 1}) },
		"chipped":          func(k *Known) { with(k, b, care.Condition{Flaw: care.Chipped.Words()}) },
		"loose":            func(k *Known) { with(k, b, care.Condition{Unfit: care.Loose.Words()}) },
		"cracked":          func(k *Known) { with(k, b, care.Condition{Unfit: care.Cracked.Words()}) },
		"blue":             func(k *Known) { with(k, b, care.Condition{Flaw: care.Blue.Words()}) },
		"a misfit":         func(k *Known) { with(k, misfit, worn) },
		"too high":         func(k *Known) { k.Height = 200; with(k, b, worn) },
		"high":             func(k *Known) { k.Height = 60; with(k, b, worn) },
		"wet and moving":   func(k *Known) { k.Request.Job.Moisture, k.Request.Job.Moves = cut.Wet, true; with(k, b, worn) },
		"calm oak, taped": func(k *Known) {
			k.Request.Job.Material, k.Request.Job.Exit = get("red-oak"), cut.Tape
			with(k, b, worn)
		},
		"acrylic": func(k *Known) { k.Request.Job.Material = get("acrylic"); with(k, b, worn) },
		"a wheel": func(k *Known) {
			with(k, blade.Blade{Make: blade.Diamond, Diameter: 254, Bore: 15.875}, care.Condition{})
		},
		"pushed on a miter": func(k *Known) {
			k.Saw, k.Request.Saw = miter, miter
			k.Request.Job.Motion, k.Request.Job.Direction, k.Request.Job.Width = cut.Push, cut.Crosscut, 300
			with(k, wide, worn)
		},
	} {
		k := base()
		change(&k)
		golden.Check(t, "facts, "+name, k.Facts())
	}
}
