package shop_test

import (
	"errors"
	"math"
	"strings"
	"testing"

	"corte/core/care"
	"corte/core/joint"
	"corte/core/measure"
	"corte/core/say"
	"corte/core/verdict"
	"corte/internal/refusal"
	shopgroove "corte/internal/shop/groove"
	shopmount "corte/internal/shop/mount"
)

// Joints are worked out for the blade that is really there: its kerf, its
// bottom, its reach, and whether it may run at all.
func TestJointsKnowTheBlade(t *testing.T) {
	f, ctx := open(t), t.Context()
	mm := func(v float64) *measure.Length { l := measure.Length(v); return &l }
	plan := func(blade string, ask joint.Ask) (joint.Plan, error) {
		on := f.saws["table"].ID
		if blade == "Batten" { // it is 305 mm wide
			on = f.saws["miter"].ID
		}
		id := f.blade[blade].ID
		p, err := f.Joint.Plan(ctx, f.id, on, &id, ask)
		return p.Plan, err
	}
	for name, tt := range map[string]struct {
		blade   string
		ask     joint.Ask
		verdict verdict.Verdict
		says    string
		minds   string
	}{
		"a tenon in the middle":   {"Mortise", joint.Ask{Kind: "tenon", Stock: 25, Tenon: 9, Length: 30}, verdict.Clear, "and repeat", ""},
		"one off the middle":      {"Mortise", joint.Ask{Kind: "tenon", Stock: 25, Tenon: 9, Length: 30, Off: mm(4)}, verdict.Clear, "Turn it over, set the blade 12 mm high", ""},
		"one that is ridged":      {"Stagehand", joint.Ask{Kind: "tenon", Stock: 25, Tenon: 9, Length: 30}, verdict.Caution, "That is the shoulder", "a ridge of 0.43 mm"},
		"a box joint of one kerf": {"Mortise", joint.Ask{Kind: "box", Width: 96, Room: 0.1, Stock: 12}, verdict.Caution, "a spacing of 6.3 mm", "ends whole"},
		"a box joint in passes":   {"Mortise", joint.Ask{Kind: "box", Width: 96, Slot: 8, Room: 0.1}, verdict.Caution, "each slot over it", "3 passes each, or a dado stack"},
		"with a stack":            {"Trapdoor", joint.Ask{Kind: "box", Width: 101.7, Slot: 6.4, Room: 0.1}, verdict.Clear, "8 slots", ""},
		"a loose test":            {"Trapdoor", joint.Ask{Kind: "box", Width: 101.7, Slot: 6.4, Room: 0.1, Gap: mm(0.9), Fingers: 3}, verdict.Clear, "move the key 0.2 mm away from the blade", ""},
		"a test that fits":        {"Trapdoor", joint.Ask{Kind: "box", Width: 101.7, Slot: 6.4, Room: 0.1, Gap: mm(0.1), Fingers: 1}, verdict.Clear, "The test joint fits", ""},
		"tails":                   {"Dovecote", joint.Ask{Kind: "tails", Stock: 19}, verdict.Clear, "The slope is 1 in 7.1", ""},
		"a slope":                 {"Plough", joint.Ask{Kind: "slope", Edge: 40, Width: 15, Depth: 9, SlopeDeg: 12}, verdict.Clear, "the deepest at the near side", ""},
		"a fold":                  {"Plough", joint.Ask{Kind: "fold", Stock: 12, Radius: 150, BendDeg: 90}, verdict.Caution, "leaves 1.5 mm uncut", "differs from sheet to sheet"},
		"a fold with points":      {"Understudy", joint.Ask{Kind: "fold", Stock: 4, Skin: 0.6, Radius: 60, BendDeg: 60}, verdict.Caution, "leaves 0.6 mm uncut", "tooth points cut deeper"},
	} {
		p, err := plan(tt.blade, tt.ask)
		if err != nil {
			t.Errorf("%s: %v", name, err)
			continue
		}
		do, minds := strings.Join(say.Voice{}.Each(p.Do), " "), strings.Join(say.Voice{}.Each(p.Mind), " ")
		if p.Verdict != tt.verdict || !strings.Contains(do, tt.says) || !strings.Contains(minds, tt.minds) || (tt.minds == "") != (minds == "") {
			t.Errorf("%s is %v: %s Mind: %s", name, p.Verdict, do, minds)
		}
		if !strings.Contains(strings.Join(say.Voice{}.Each(p.Cautions), " "), "Never put your hands over the cut") || math.Abs((p.Kerf-f.blade[tt.blade].Kerf).Mm()) > 0.11 {
			t.Errorf("%s: kerf %v, cautions %v", name, p.Kerf, p.Cautions)
		}
	}
	if _, err := f.Care.Inspect(ctx, f.id, f.blade["Plough"].ID, care.Cracked, nil, "", ""); err != nil {
		t.Fatal(err)
	}
	for name, tt := range map[string]struct {
		blade string
		ask   joint.Ask
		field string
		says  string
	}{
		"a cracked blade":    {"Plough", joint.Ask{Kind: "slope", Edge: 40, Width: 15, Depth: 9, SlopeDeg: 12}, "blade_id", "can't be mounted"},
		"a blade by hand":    {"Trot", joint.Ask{Kind: "tenon", Stock: 25, Tenon: 9, Length: 30}, "blade_id", "can't be used on Long Table"},
		"on the miter saw":   {"Batten", joint.Ask{Kind: "box", Width: 96}, "saw_id", "Drop is a miter saw"},
		"a slot too narrow":  {"Mortise", joint.Ask{Kind: "box", Width: 96, Slot: 2, Room: 0.1}, "slot_mm", "less than the kerf"},
		"deeper than it is":  {"Trapdoor", joint.Ask{Kind: "box", Width: 101.7, Slot: 6.4, Stock: 90}, "blade_id", "cuts only"},
		"tails from a plain": {"Mortise", joint.Ask{Kind: "tails", Stock: 19}, "blade_id", "beveled to one side"},
		"tails of nothing":   {"Dovecote", joint.Ask{Kind: "tails"}, "stock_mm", "thickness of the board"},
		"no such joint":      {"Mortise", joint.Ask{Kind: "biscuit"}, "kind", "no such joint"},
	} {
		_, err := plan(tt.blade, tt.ask)
		var e *refusal.Error
		if !errors.As(err, &e) || e.Field != tt.field || !strings.Contains(e.What.String(), tt.says) {
			t.Errorf("%s: %v", name, err)
		}
	}
}

// A set goes on for a groove of its own: the cards are of that stack, another
// saw's groove is refused, and a groove that is given up takes nothing with it.
func TestASetIsMountedForItsGroove(t *testing.T) {
	f, ctx := open(t), t.Context()
	set, table := f.blade["Trapdoor"].ID, f.saws["table"].ID
	begin := func(piece measure.Length) shopgroove.Groove {
		g, err := f.Groove.Start(ctx, f.id, f.groove("table", "poplar", 8, piece), set, "Ilse")
		if err != nil {
			t.Fatal(err)
		}
		return g
	}
	order := func(m shopmount.Mounting) string {
		for _, s := range m.Steps {
			if s.ID == "order" {
				return strings.Join(say.Voice{}.Each(s.Text), " ")
			}
		}
		return ""
	}
	narrow, wide := begin(6.3), begin(18)
	first, err := f.Mount.Start(ctx, f.id, table, set, &narrow.ID, "")
	if err != nil || strings.Contains(order(first), "chipper") {
		t.Fatalf("the outer pair alone: %s, %v", order(first), err)
	}
	second, err := f.Mount.Start(ctx, f.id, table, set, &wide.ID, "")
	if err != nil || second.ID == first.ID || !strings.Contains(order(second), "chipper 3.2 mm") {
		t.Fatalf("another groove is another mounting: %s, %v", order(second), err)
	}
	again, err := f.Mount.Start(ctx, f.id, table, set, &wide.ID, "")
	if err != nil || again.ID != second.ID {
		t.Errorf("begun again it is %v, %v", again.ID, err)
	}
	var e *refusal.Error
	if _, err := f.Mount.Start(ctx, f.id, table, f.blade["Bellows"].ID, &wide.ID, ""); !errors.As(err, &e) || e.Field != "groove_id" {
		t.Errorf("another set for this groove: %v", err)
	}
	if err := f.Groove.Drop(ctx, f.id, wide.ID); err != nil {
		t.Fatal(err)
	}
	left, err := f.Mount.Get(ctx, f.id, second.ID)
	if err != nil || left.Way != nil || !strings.Contains(order(left), "Left and right are not the same") {
		t.Errorf("with its groove given up: %s, %v", order(left), err)
	}
	if err := f.Groove.Drop(ctx, f.id, wide.ID); !errors.As(err, &e) || e.Reason != refusal.Missing {
		t.Errorf("given up twice: %v", err)
	}
}

// Where no blade is named, the likeliest of those that may go on is taken.
func TestTheLikeliestBladeOfAJoint(t *testing.T) {
	f := open(t)
	for kind, want := range map[string]string{"tails": "Dovecote", "tenon": "Mortise"} {
		p, err := f.Joint.Plan(t.Context(), f.id, f.saws["table"].ID, nil, joint.Ask{Kind: kind, Stock: 19, Tenon: 6, Length: 30})
		if err != nil || p.Blade != f.blade[want].ID {
			t.Errorf("%s: %v, not %s's; %v", kind, p.Blade, want, err)
		}
	}
}
