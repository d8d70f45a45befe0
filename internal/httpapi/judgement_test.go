package httpapi_test

import (
	"encoding/json"
	"fmt"
	"maps"
	"math"
	"strings"
	"testing"

	"github.com/google/uuid"
)

// The answer in inches is the answer in millimetres: only its words differ.
func TestInchesAreMillimetres(t *testing.T) {
	b := newBench(t)
	for _, change := range []obj{nil, {"direction": "crosscut", "finish": "show"}, {"saw_id": b.saw["miter"], "direction": "crosscut", "width_mm": 90}, {"saw_id": b.saw["circular"], "material": "birch-ply", "direction": "sheet", "length_mm": 2000, "width_mm": 600, "thickness_mm": 18}} {
		var plans [2]obj
		for i, u := range []string{"mm", "in"} {
			plans[i] = decode(t, b.post("/plans", obj{"cut": b.cut(change), "units": u}))
		}
		mm, in := plans[0]["options"].([]any), plans[1]["options"].([]any)
		if len(mm) == 0 || len(mm) != len(in) || plans[0]["verdict"] != plans[1]["verdict"] {
			t.Fatalf("%v: %d and %d, %v and %v", change, len(mm), len(in), plans[0]["verdict"], plans[1]["verdict"])
		}
		for i := range mm {
			a, c := mm[i].(obj), in[i].(obj)
			for _, o := range []obj{a, c} {
				for _, words := range []string{"reasons", "minds", "heights", "best_change"} {
					delete(o, words)
				}
				delete(o["setting"].(obj), "wall_from")
			}
			if x, y := fmt.Sprint(a), fmt.Sprint(c); x != y {
				t.Fatalf("in inches it is\n%s, not\n%s", y, x)
			}
		}
	}
}

// Where no blade may, the verdict is stop, and nothing is set up beside it.
func TestNoBladeMay(t *testing.T) {
	b := newBench(t)
	p := decode(t, b.plan(obj{"material": "tile", "thickness_mm": 10, "direction": "crosscut"}))
	if p["verdict"] != "stop" || len(p["options"].([]any)) > 0 || len(p["stopped"].([]any)) == 0 || len(p["hold"].([]any)) > 0 || p["swap"] != nil || p["kerfs"] != nil {
		t.Errorf("tile on a table saw: %v, %d options, %d pieces of advice", p["verdict"], len(p["options"].([]any)), len(p["hold"].([]any)))
	}
}

// A saw may have a sliding carriage and a scoring blade: cuts ride on the one, and
// the other holds the underside.
func TestCarriageAndScoringBlade(t *testing.T) {
	b := newBench(t)
	id := b.saw["table"]
	sheet := obj{"material": "melamine-board", "direction": "sheet", "thickness_mm": 18, "width_mm": 400, "length_mm": 900, "finish": "show"}
	on := func(more obj) obj { c := maps.Clone(sheet); maps.Copy(c, more); return c }
	if w := b.plan(on(obj{"carriage": true})); w.Code != 422 || decode(t, w)["field"] != "cut.carriage" {
		t.Errorf("on a carriage that is not there: %d %s", w.Code, w.Body)
	}
	before := decode(t, b.plan(sheet))
	saw := b.get("/saws/" + id)
	input := obj{}
	for _, k := range []string{"name", "kind", "diameter_mm", "arbor_mm", "rpm", "motor_w", "volts", "breaker_a", "knife_mm", "dado_sets", "reach_mm", "reach45_mm", "fence_reach_mm", "tilt_side"} {
		if saw[k] != nil {
			input[k] = saw[k]
		}
	}
	maps.Copy(input, obj{"carriage_mm": 1600, "carriage_clamps": true, "scoring_diameter_mm": 100, "scoring_kerf_mm": 3.3, "scoring_rpm": 8000})
	w := b.put("/saws/"+id, input, "If-Match", fmt.Sprintf(`"%v"`, saw["version"]))
	if w.Code != 200 {
		t.Fatalf("%d %s", w.Code, w.Body)
	}
	if got := b.get("/saws/" + id); got["carriage_mm"] != 1600.0 || got["scoring_kerf_mm"] != 3.3 || !strings.Contains(fmt.Sprint(got["tests"]), "scoring") {
		t.Errorf("kept: %v %v %v", got["carriage_mm"], got["scoring_kerf_mm"], got["tests"])
	}
	after := decode(t, b.plan(sheet))
	chips := func(p obj) float64 {
		least := math.Inf(1)
		for _, o := range p["options"].([]any) {
			least = min(least, o.(obj)["setting"].(obj)["exit"].(obj)["of_limit"].(float64))
		}
		return least
	}
	if after["cut"].(obj)["exit_support"] != "scoring-blade" || chips(after) > 0.4*chips(before) {
		t.Errorf("scored: %v, %.2f after %.2f of what it bears", after["cut"].(obj)["exit_support"], chips(after), chips(before))
	}
	tilted := decode(t, b.plan(on(obj{"bevel_deg": 30, "width_mm": 300})))
	if tilted["cut"].(obj)["exit_support"] == "scoring-blade" {
		t.Error("it scores a tilted cut that its manual does not allow")
	}
	rides := decode(t, b.plan(on(obj{"carriage": true, "length_mm": 1500})))
	hold := fmt.Sprint(rides["hold"])
	if rides["fence_side"] != nil || !strings.Contains(hold, "Clamp the stock to the carriage") || strings.Contains(hold, "Fence at") {
		t.Errorf("on the carriage: %s", hold)
	}
	if w := b.plan(on(obj{"carriage": true, "length_mm": 1601, "width_mm": 700})); w.Code != 422 || decode(t, w)["field"] != "cut.carriage" {
		t.Errorf("past its travel: %d %s", w.Code, w.Body)
	}
	for _, tt := range []struct {
		left, right, wider, move float64
		verdict                  string
	}{{0.05, 0.05, 0.1, 0, "clear"}, {0.02, 0.02, 0.04, 0, "caution"}, {0.1, 0.06, 0.16, 0.02, "caution"}, {0.1, 0.02, 0.12, 0.04, "caution"}, {0.02, 0.1, 0.12, -0.04, "caution"}} {
		r := decode(t, b.post("/truing-results", obj{"test": "scoring", "saw_id": id, "first_mm": []float64{tt.left, tt.right}, "units": "mm"}))
		if r["verdict"] != tt.verdict || math.Abs(r["figure"].(float64)-tt.wider) > 1e-9 || math.Abs(r["move_mm"].(float64)-tt.move) > 1e-9 {
			t.Errorf("%+v: %v, %v wider, move %v", tt, r["verdict"], r["figure"], r["move_mm"])
		}
	}
}

// A blade is bought only for the saw that makes the cuts; a shop with one saw is
// told of no blade for another.
func TestBoughtForItsSaw(t *testing.T) {
	b := newBench(t)
	job := decode(t, b.post("/jobs", obj{"name": "shelves", "rows": b.rowsOf("400 birch ply shelves 18 x 300 x 800 for show"), "knobs": obj{"people": 1}}, "Idempotency-Key", uuid.NewString()))
	for _, kind := range []string{"circular", "miter"} {
		if w := b.put("/saws/"+b.saw[kind]+"/retirement", obj{"reason": "sold"}); w.Code >= 300 {
			t.Fatalf("%s: %d %s", kind, w.Code, w.Body)
		}
	}
	var o obj
	w := b.post("/owning-plans", obj{"job_id": job["id"], "units": "mm"})
	if json.Unmarshal(w.Body.Bytes(), &o) != nil || w.Code != 200 || len(o["market"].([]any)) == 0 {
		t.Fatalf("%d %s", w.Code, w.Body)
	}
	for _, s := range o["market"].([]any) {
		if d := s.(obj)["diameter_mm"].(float64); d < 250 || d > 258 {
			t.Errorf("a shop with one saw of 254 mm is told of a blade of %v", d)
		}
	}
	for _, p := range o["one"].([]any) {
		for _, x := range p.(obj)["blades"].([]any) {
			if saws := fmt.Sprint(x.(obj)["saws"]); !strings.Contains(saws, "Long Table") {
				t.Errorf("bought for %s", saws)
			}
		}
	}
}
