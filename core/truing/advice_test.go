package truing

import (
	"fmt"
	"maps"
	"slices"
	"testing"

	"corte/core/measure"
	"corte/internal/testkit/golden"
)

// What readings come to, and what is to be moved, over the band of each test;
// read over once and held to the letter.
func TestFindingsAreAsTheyWereReadOver(t *testing.T) {
	var said []any
	say := func(what string, v any, err error) {
		said = append(said, "== "+what)
		if err != nil {
			v = err.Error()
		}
		said = append(said, map[string]any{"": v})
	}
	for _, off := range []measure.Length{0, 0.04, 0.05, 0.051, -0.08, 0.1, 0.101, -0.3, 1.2, -1.2} {
		for _, toBolt := range []measure.Length{0, 240} {
			h, err := HeelOf(1, 1+off, 200, toBolt, DialIndicator, Left)
			say(fmt.Sprint("heel ", off, " bolt ", toBolt), []any{h, h.Judge(Usual)}, err)
		}
		f, err := FenceOf(50, 50+off, 500, Distance)
		say(fmt.Sprint("fence ", off), []any{f, f.Judge(Usual), AlongFence(0.05, f.Open)}, err)
		say(fmt.Sprint("tilt ", off), JudgeTilt(off.Mm(), Usual), nil)
		g, err := FiveCut(20+off, 20, 300)
		say(fmt.Sprint("five cuts ", off), []any{g, g.Judge(Usual)}, err)
		a, err := Adjust(20, 20+off, 8)
		say(fmt.Sprint("width ", off), []any{a, a.JudgeWidth(), a.JudgeDepth(true), a.JudgeDepth(false)}, err)
	}
	runs := map[string][2][]measure.Length{
		"good":      {{0, 0.02, 0.03, 0.01}, nil},
		"middling":  {{0, 0.05, 0.1, 0.05, 0.02, -0.01}, nil},
		"bad":       {{0, 0.1, 0.2, 0.1}, nil},
		"the arbor": {{0, 0.1, 0.2, 0.1}, {0, 0.1, 0.19, 0.1}},
		"the blade": {{0, 0.1, 0.2, 0.1}, {0.2, 0.1, 0, 0.1}},
		"both":      {{0, 0.1, 0.2, 0.1}, {0.1, 0, 0.1, 0.2}},
		"too few":   {{0, 0.1, 0.2}, nil},
		"unlike":    {{0, 0.1, 0.2, 0.1}, {0.1, 0.2}},
	}
	for _, name := range slices.Sorted(maps.Keys(runs)) {
		r := runs[name]
		o, err := RunOutOf(r[0], r[1])
		say("run-out "+name, []any{o, o.Judge(Usual)}, err)
	}
	even := []measure.Length{0.5, 0.505, 0.5, 0.51, 0.5, 0.505, 0.5, 0.5}
	proud := append([]measure.Length(nil), even...)
	proud[3] = 0.56
	blades := map[string][]measure.Length{"even": even, "one proud": proud, "poor": {0.45, 0.5, 0.55, 0.52, 0.48, 0.5}, "reject": {0.3, 0.5, 0.6, 0.4, 0.5, 0.45}, "none": nil}
	for _, name := range slices.Sorted(maps.Keys(blades)) {
		r := blades[name]
		for _, slots := range [][]int{nil, {0, 4}} {
			c, err := ClearanceOf(r, slots)
			say(fmt.Sprint("clearance ", name, slots), []any{c, c.Judge(MarksApart(UsualFeed, 4000))}, err)
		}
	}
	deg, err := Tilt(0.35, 100)
	say("tilt", deg, err)
	hook, err := Hook(30, 127)
	say("hook", hook, err)
	say("doubtful", Doubtful([]measure.Length{0, 0.01, 0.02, 2, 0.01, 0}), nil)
	golden.Check(t, "findings", said...)
}
