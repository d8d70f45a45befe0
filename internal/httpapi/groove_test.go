package httpapi_test

import (
	"fmt"
	"net/http"
	"strings"
	"testing"

	"github.com/google/uuid"
)

// Grooves over the contract: a plan, a test by version, an end that reaches the
// log, and everything that cannot be refused by name with nothing saved.
func TestGroovesOverTheContract(t *testing.T) {
	b := newBench(t)
	key := func() []string { return []string{"Idempotency-Key", uuid.NewString()} }
	ask := func(change obj) obj {
		out := obj{"cut": b.cut(obj{"material": "birch-ply", "direction": "sheet", "finish": "hidden", "form": "groove", "depth_mm": 6, "thickness_mm": 18, "width_mm": 400}),
			"piece_mm": []float64{17.85, 17.9, 17.85}, "fit": "glue", "count": 12, "edge_mm": 50}
		for k, v := range change {
			out[k] = v
		}
		return out
	}
	plan := decode(t, b.post("/groove-plans", obj{"ask": ask(nil), "units": "in"}))
	first := plan["ways"].([]any)[0].(obj)
	if plan["target_mm"].(float64) != 18 || first["verdict"] != "clear" || len(first["bottom_mm"].([]any)) < 50 || len(plan["earlier"].([]any)) != 2 {
		t.Fatalf("the plan: %v", plan)
	}
	for _, w := range plan["ways"].([]any) {
		if way := w.(obj); way["blade_name"] == "Trapdoor" && (!strings.Contains(way["says"].(string), `0.126"`) || len(way["slots"].([]any)) < 6) {
			t.Errorf("the stack in inches: %v", way["says"])
		}
	}
	trapdoor := b.blade["Trapdoor"]
	groove := decode(t, b.post("/grooves", obj{"ask": ask(nil), "blade_id": trapdoor, "units": "mm"}, key()...))
	at := "/grooves/" + groove["id"].(string)
	if w := b.post(at+"/tests", obj{"width_mm": []float64{18}, "units": "mm"}, "If-Match", `"9"`); w.Code != http.StatusPreconditionFailed {
		t.Errorf("another version: %d", w.Code)
	}
	groove = decode(t, b.post(at+"/tests", obj{"width_mm": []float64{18, 18.01}, "depth_mm": 6, "units": "mm"}, "If-Match", `"1"`))
	if groove["good"] != true {
		t.Fatalf("a right test: %v", groove["says"])
	}
	set := groove["set"].(obj)
	if set["tests"].(float64) < 4 || len(set["known"].([]any)) != 8 {
		t.Errorf("its set: %v", set)
	}
	groove = decode(t, b.post(at+"/end", obj{"made": 12, "units": "mm"}, "If-Match", `"2"`))
	if groove["made"].(float64) != 12 || groove["ended_at"] == nil {
		t.Errorf("the end: %v", groove)
	}
	row := b.get("/log?kind=grooved&limit=1")["items"].([]any)[0].(obj)
	if made := row["groove"].(obj); made["id"] != groove["id"] || made["made"].(float64) != 12 || made["test"] != false {
		t.Errorf("the log's row: %v", row)
	}

	for units, says := range map[string]string{"mm": "its arbor holds 27 mm under the nut", "in": `its arbor holds 1 1/16" under the nut`} {
		saws := b.get("/blades/" + trapdoor + "/set?units=" + units)["saws"].([]any)
		if len(saws) != 3 || !strings.Contains(fmt.Sprint(saws), says) || !strings.Contains(fmt.Sprint(saws), "never goes on a circular saw") {
			t.Errorf("in %s it goes on %v", units, saws)
		}
	}

	for name, tt := range map[string]struct {
		path  string
		body  obj
		field string
	}{
		"an uneven piece":  {"/groove-plans", obj{"ask": ask(obj{"piece_mm": []float64{17, 18.4}}), "units": "mm"}, "piece_mm"},
		"no piece":         {"/groove-plans", obj{"ask": ask(obj{"piece_mm": []float64{}}), "units": "mm"}, "ask.piece_mm"},
		"no fit":           {"/groove-plans", obj{"ask": ask(obj{"fit": "loose"}), "units": "mm"}, "ask.fit"},
		"none":             {"/groove-plans", obj{"ask": ask(obj{"count": 0}), "units": "mm"}, "ask.count"},
		"neither ask":      {"/grooves", obj{"units": "mm"}, "ask"},
		"no such groove":   {"/grooves", obj{"like": uuid.NewString(), "units": "mm"}, "like"},
		"a single blade":   {"/blades/" + b.blade["Plough"] + "/renewals?units=mm", obj{"why": "worn", "outer": true}, "id"},
		"no part":          {"/blades/" + trapdoor + "/renewals?units=mm", obj{"why": "worn"}, "parts"},
		"a part too many":  {"/blades/" + trapdoor + "/renewals?units=mm", obj{"why": "worn", "parts": []int{19}}, "parts"},
		"tails from ATB":   {"/joint-plans", obj{"kind": "tails", "saw_id": b.saw["table"], "blade_id": b.blade["Stagehand"], "stock_mm": 19, "units": "mm"}, "blade_id"},
		"a joint by miter": {"/joint-plans", obj{"kind": "box", "saw_id": b.saw["miter"], "blade_id": b.blade["Batten"], "width_mm": 100, "units": "mm"}, "saw_id"},
		"an endless tenon": {"/joint-plans", obj{"kind": "tenon", "saw_id": b.saw["table"], "blade_id": b.blade["Mortise"], "stock_mm": 25, "tenon_mm": 9, "length_mm": 19999, "units": "mm"}, "length_mm"},
		"past all sizes":   {"/joint-plans", obj{"kind": "fold", "saw_id": b.saw["table"], "blade_id": b.blade["Mortise"], "stock_mm": 1e9, "radius_mm": 150, "bend_deg": 90, "units": "mm"}, "stock_mm"},
		"a wide slope":     {"/joint-plans", obj{"kind": "slope", "saw_id": b.saw["table"], "blade_id": b.blade["Mortise"], "edge_mm": 50, "width_mm": 9000, "depth_mm": 8, "slope_deg": 5, "units": "mm"}, "width_mm"},
		"a deep tenon":     {"/joint-plans", obj{"kind": "tenon", "saw_id": b.saw["table"], "blade_id": b.blade["Mortise"], "stock_mm": 200, "tenon_mm": 20, "length_mm": 30, "units": "mm"}, "blade_id"},
	} {
		if w := b.post(tt.path, tt.body, key()...); w.Code < 400 || w.Code > 499 || decode(t, w)["field"] != tt.field {
			t.Errorf("%s: %d %s", name, w.Code, w.Body)
		}
	}
	if w := b.do(http.MethodPut, "/api/v1/blades/"+trapdoor+"/set?units=mm", `{"kind":"stack","left_mm":3.2,"right_mm":3.2,"wings":2,"parts":[{"thickness_mm":0.1,"count":2,"shim":true},{"thickness_mm":0.1,"count":1,"shim":true}]}`,
		"If-Match", `"1"`, "Content-Type", "application/json"); w.Code != http.StatusUnprocessableEntity || decode(t, w)["field"] != "parts.1.thickness_mm" {
		t.Errorf("a shim said twice: %d %s", w.Code, w.Body)
	}
}

// A brake that would fire is asked about for each groove: a yes lets one begin, and
// one that is called up after it is asked about anew.
func TestAGrooveAsksWhetherTheBrakeIsBypassed(t *testing.T) {
	b := newBench(t)
	key := func() []string { return []string{"Idempotency-Key", uuid.NewString()} }
	saw := decode(t, b.post("/saws", obj{"name": "Quick Stop", "kind": "table", "diameter_mm": 254, "arbor_mm": 15.875, "rpm": 4000, "motor_w": 1500,
		"volts": 230, "breaker_a": 16, "reach_mm": 79, "knife_mm": 2.3, "tilt_side": "left",
		"brake": obj{"min_kerf_mm": 2.3, "max_kerf_mm": 25, "min_diameter_mm": 150, "max_diameter_mm": 258}}, key()...))["id"]
	ask := func(more obj) obj {
		cut := b.cut(obj{"saw_id": saw, "material": "white-pine", "moisture": "wet", "direction": "rip", "form": "groove", "depth_mm": 6, "thickness_mm": 18, "width_mm": 400})
		for k, v := range more {
			cut[k] = v
		}
		return obj{"cut": cut, "piece_mm": []float64{12}, "fit": "glue", "count": 1, "edge_mm": 50}
	}
	plan := func(more obj) (found []any, way obj) {
		p := decode(t, b.post("/groove-plans", obj{"ask": ask(more), "units": "mm"}))
		return p["findings"].([]any), p["ways"].([]any)[0].(obj)
	}
	found, way := plan(nil)
	if len(found) == 0 || found[0].(obj)["rule"] != "fires" || found[0].(obj)["ask"] == nil || way["verdict"] != "stop" {
		t.Fatalf("not asked: %v, %v", found, way["says"])
	}
	yes := obj{"brake_off": true}
	found, way = plan(yes)
	if len(found) > 0 && found[0].(obj)["rule"] == "fires" || way["verdict"] == "stop" {
		t.Fatalf("after a yes: %v, %v", found, way["says"])
	}
	made := decode(t, b.post("/grooves", obj{"ask": ask(yes), "blade_id": way["blade_id"], "units": "mm"}, key()...))
	w := b.post("/grooves", obj{"like": made["id"], "units": "mm"}, key()...)
	if w.Code != http.StatusUnprocessableEntity || !strings.Contains(w.Body.String(), "It would fire") {
		t.Errorf("called up without being asked: %d %s", w.Code, w.Body)
	}
}
