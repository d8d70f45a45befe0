package httpapi_test

import (
	"fmt"
	"net/http/httptest"
	"slices"
	"strings"
	"testing"

	"github.com/google/uuid"
)

// rules are those of the findings of an answer.
func rules(answer obj) (out []string) {
	for _, f := range answer["findings"].([]any) {
		out = append(out, f.(obj)["rule"].(string))
	}
	return out
}

// keep is a post that changes something, under a key of its own.
func (b *bench) keep(path string, body obj) *httptest.ResponseRecorder {
	return b.post(path, body, "Idempotency-Key", uuid.NewString())
}

// read keeps a reading of a saw.
func (b *bench) read(test string, change obj) obj {
	b.t.Helper()
	in := obj{"test": test, "saw_id": b.saw["table"], "units": "mm"}
	for k, v := range change {
		in[k] = v
	}
	w := b.keep("/truings", in)
	if w.Code != 201 {
		b.t.Fatalf("%s: %d %s", test, w.Code, w.Body)
	}
	return decode(b.t, w)
}

// What True measures is heard wherever a cut is chosen, set up, mounted, planned
// or bought for, in the same words and with the same way out.
func TestMeasuredDangersAreHeard(t *testing.T) {
	for name, tt := range map[string]struct {
		test, rule, says, wayOut string
		reading                  obj
	}{
		"a heel of 0.3 mm toward the fence": {"heel", "heel", "toes in 0.3 mm toward the fence", "parallel to the miter slot", obj{"first_mm": []float64{1, 1.3}, "span_mm": 200, "instrument": "dial", "dial": "right"}},
		"a fence that closes 0.4 mm":        {"fence", "fence", "The fence toes in by 0.4 mm", "open the rear of the fence by 0.45 mm", obj{"first_mm": []float64{100, 99.6}, "span_mm": 600, "instrument": "distance"}},
	} {
		t.Run(name, func(t *testing.T) {
			b := newBench(t)
			if v := decode(t, b.plan(nil))["verdict"]; v == "stop" {
				t.Fatalf("before it was measured: %v", v)
			}
			b.read(tt.test, tt.reading)
			heard := func(where string, w *httptest.ResponseRecorder) {
				t.Helper()
				if said := w.Body.String(); !strings.Contains(said, tt.says) || !strings.Contains(said, tt.wayOut) {
					t.Errorf("%s: %d, and nobody says %q and %q in %.600s", where, w.Code, tt.says, tt.wayOut, said)
				}
			}
			w := b.plan(nil)
			heard("Choose and Run", w)
			p := decode(t, w)
			if p["verdict"] != "stop" || !slices.Contains(rules(p), tt.rule) || p["swap"] != nil || p["kerfs"] != nil {
				t.Errorf("Choose: %v, %v, beside it %v", p["verdict"], rules(p), p["swap"])
			}
			for _, o := range p["options"].([]any) {
				if o := o.(obj); o["verdict"] != "stop" || o["setting"].(obj)["verdict"] != "stop" || o["best_change"] != nil {
					t.Fatalf("an option says %v, its setting %v", o["verdict"], o["setting"].(obj)["verdict"])
				}
			}
			for _, h := range p["hold"].([]any) {
				if h.(obj)["halt"] != true {
					t.Errorf("set-up beside a stop: %v", h)
				}
			}
			sweep := decode(t, b.post("/sweeps", obj{"cut": b.cut(nil), "blade_id": b.blade["Plough"], "step_mm": 5, "units": "mm"}))
			if at := sweep["settings"].([]any)[5].(obj); at["verdict"] != "stop" {
				t.Errorf("a height of it: %v", at["verdict"])
			}
			if w := b.keep("/trials", obj{"cut": b.cut(nil), "settings": []obj{{"blade_id": b.blade["Plough"]}, {"blade_id": b.blade["Plough"], "height_mm": 30}}, "repeats": 2, "blind": false, "units": "mm"}); w.Code != 422 {
				t.Errorf("a comparison begins: %d", w.Code)
			} else {
				heard("Run's comparison", w)
			}
			groove := b.cut(obj{"material": "birch-ply", "direction": "sheet", "thickness_mm": 18, "width_mm": 400, "form": "groove", "depth_mm": 6})
			w = b.post("/groove-plans", obj{"ask": obj{"cut": groove, "piece_mm": []float64{12.1}, "fit": "slip", "edge_mm": 40, "count": 1}, "units": "mm"})
			heard("Groove", w)
			for _, way := range decode(t, w)["ways"].([]any) {
				if way.(obj)["verdict"] != "stop" {
					t.Errorf("Groove: a way that may be cut, %v", way.(obj)["says"])
				}
			}
			heard("Mount", b.keep("/mountings", obj{"saw_id": b.saw["table"], "blade_id": b.blade["Plough"], "units": "mm"}))
			heard("Own", b.post("/owning-plans", obj{"units": "mm"}))
			job := decode(t, b.keep("/jobs", obj{"name": "rails", "rows": b.rowsOf("4 hard maple rails 25 x 90 x 900 rip"), "knobs": obj{"people": 1}}))
			w = b.put(fmt.Sprintf("/jobs/%v/sheet", job["id"]), obj{"knobs": obj{"people": 1}, "units": "mm"}, version(job)...)
			heard("Jobs", w)
			for _, turn := range decode(t, w)["sheet"].(obj)["turns"].([]any) {
				if turn := turn.(obj); turn["saw_id"] == b.saw["table"] {
					t.Errorf("a run sheet lays a cut on it: %v", turn)
				}
			}
			heard("a taper", b.post("/special-cuts", obj{"kind": "taper", "saw_id": b.saw["table"], "width_mm": 60, "narrow_mm": 30, "length_mm": 700, "units": "mm"}))
			across := decode(t, b.plan(obj{"direction": "crosscut", "width_mm": 150}))
			if across["verdict"] == "stop" {
				t.Errorf("on the gauge nothing is pinched, and it is %v", across["verdict"])
			}
			if made := b.keep("/cuts", b.made(nil)); made.Code != 201 {
				t.Errorf("what was cut all the same is not logged: %d %s", made.Code, made.Body)
			}
			// Put right, it is heard of no more.
			b.read(tt.test, obj{"first_mm": []float64{100, 100}, "span_mm": 600})
			if p := decode(t, b.plan(nil)); p["verdict"] != "clear" && p["verdict"] != "caution" || slices.Contains(rules(p), tt.rule) {
				t.Errorf("put right: %v, %v", p["verdict"], rules(p))
			}
		})
	}
}

// A dial indicator grows as the surface comes nearer, a distance as it goes away:
// the sign of what is kept is the same, on either side of the blade.
func TestBothInstruments(t *testing.T) {
	b := newBench(t)
	for _, tt := range []struct {
		test, instrument, side string
		front, rear            float64
		toward, open           any
		verdict                string
	}{
		{"heel", "dial", "right", 1, 1.3, 0.3, nil, "stop"},
		{"heel", "dial", "left", 1, 1.3, -0.3, nil, "caution"},
		{"heel", "distance", "right", 50, 49.7, 0.3, nil, "stop"},
		{"heel", "distance", "right", 50, 50.3, -0.3, nil, "caution"},
		{"heel", "distance", "left", 50, 50.3, 0.3, nil, "stop"},
		{"heel", "", "right", 1, 1.3, 0.3, nil, "stop"},
		{"fence", "distance", "", 100, 99.6, nil, -0.4, "stop"},
		{"fence", "distance", "", 100, 100.05, nil, 0.05, "clear"},
		{"fence", "dial", "", 0.2, 0.6, nil, -0.4, "stop"},
		{"fence", "dial", "", 0.2, 0.15, nil, 0.05, "clear"},
		{"fence", "", "", 100, 99.6, nil, -0.4, "stop"},
	} {
		in := obj{"test": tt.test, "saw_id": b.saw["table"], "first_mm": []float64{tt.front, tt.rear}, "span_mm": 200, "units": "mm"}
		if tt.instrument != "" {
			in["instrument"] = tt.instrument
		}
		if tt.side != "" {
			in["dial"] = tt.side
		}
		out := decode(t, b.post("/truing-results", in))
		near := func(got, want any) bool {
			g, ok := got.(float64)
			w, asked := want.(float64)
			return ok == asked && (!ok || g-w < 1e-9 && w-g < 1e-9)
		}
		if !near(out["toward_fence_mm"], tt.toward) || !near(out["open_mm"], tt.open) || out["verdict"] != tt.verdict {
			t.Errorf("%+v: toward %v, open %v, %v", tt, out["toward_fence_mm"], out["open_mm"], out["verdict"])
		}
	}
	if w := b.post("/truing-results", obj{"test": "heel", "saw_id": b.saw["table"], "first_mm": []float64{1, 2}, "span_mm": 200, "instrument": "rule", "units": "mm"}); w.Code != 422 && w.Code != 400 {
		t.Errorf("an unknown instrument: %d", w.Code)
	}
}

// Cautions of True and of a blade's survey are heard too; a blade that was blue
// hot goes on no saw until it is inspected; what its owner says of it stands.
func TestBladesAreHeard(t *testing.T) {
	b := newBench(t)
	b.read("gauge", obj{"first_mm": []float64{22, 20}, "length_mm": 300})
	b.read("tilt", obj{"gap_mm": 2, "height_mm": 100})
	show := obj{"direction": "crosscut", "width_mm": 150, "finish": "show"}
	if got := rules(decode(t, b.plan(show))); !slices.Contains(got, "gauge") || !slices.Contains(got, "square") {
		t.Errorf("a gauge and a tilt that are off: %v", got)
	}
	if got := rules(decode(t, b.plan(obj{"direction": "crosscut", "width_mm": 150, "finish": "rough"}))); slices.Contains(got, "gauge") || slices.Contains(got, "square") {
		t.Errorf("of a rough cut: %v", got)
	}
	option := func(blade string, change obj) obj {
		for _, o := range decode(t, b.plan(change))["options"].([]any) {
			if o := o.(obj); o["blade_id"] == b.blade[blade] {
				return o
			}
		}
		return obj{"verdict": "stopped"}
	}
	b.read("runout", obj{"blade_id": b.blade["Chorus"], "first_mm": []float64{0, 0.1, 0.2, 0.1}})
	if o := option("Chorus", show); o["verdict"] != "caution" || !strings.Contains(fmt.Sprint(o["minds"]), "Run-out is 0.2 mm") {
		t.Errorf("a plate that wobbles: %v %v", o["verdict"], o["minds"])
	}
	b.read("clearance", obj{"blade_id": b.blade["Needle"], "first_mm": []float64{0.3, 0.5, 0.6, 0.4, 0.5, 0.45}})
	if o := option("Needle", show); o["verdict"] != "caution" || !strings.Contains(fmt.Sprint(o["minds"]), "Side clearance varies") {
		t.Errorf("teeth that stand out: %v %v", o["verdict"], o["minds"])
	}
	// Said, and so.
	state := func(blade string) obj { return b.get("/blades/" + b.blade[blade])["condition"].(obj) }
	say := func(blade, says string) {
		t.Helper()
		if w := b.keep("/blades/"+b.blade[blade]+"/judgements", obj{"says": says}); w.Code != 201 {
			t.Fatalf("%s is %s: %d %s", blade, says, w.Code, w.Body)
		}
	}
	say("Plough", "sharp")
	if got := state("Plough"); got["sharpness"] != 1.0 {
		t.Errorf("said to be sharp: %v", got)
	}
	sharp := option("Plough", nil)
	say("Plough", "half-worn")
	half := option("Plough", nil)
	say("Plough", "dull")
	dull := option("Plough", nil)
	if got := state("Plough"); got["state"] != "dull" && got["state"] != "pitchy" {
		t.Errorf("said to be dull: %v", got)
	}
	at := func(o obj, key string) float64 { return o["setting"].(obj)[key].(float64) }
	if !(sharp["score"].(float64) > half["score"].(float64) && half["score"].(float64) > dull["score"].(float64)) || dull["verdict"] != "caution" || !strings.Contains(fmt.Sprint(dull["reasons"]), "dull") {
		t.Errorf("sharp %v, half worn %v, dull %v: %v", sharp["score"], half["score"], dull["score"], dull["reasons"])
	}
	if !(at(sharp, "easy_m_min") > at(half, "easy_m_min") && at(half, "easy_m_min") > at(dull, "easy_m_min")) || at(dull, "acting_m_min") > at(sharp, "acting_m_min") {
		t.Errorf("an easy feed of %v sharp and %v dull", at(sharp, "easy_m_min"), at(dull, "easy_m_min"))
	}
	due := func() bool { return strings.Contains(fmt.Sprint(b.get("/care?units=mm")), "sharpen:due") }
	if !due() {
		t.Error("said to be dull, and nothing is due")
	}
	// A blued plate.
	if w := b.keep("/blades/"+b.blade["Chorus"]+"/inspections", obj{"fault": "blue"}); w.Code != 201 {
		t.Fatalf("%d %s", w.Code, w.Body)
	}
	if o := option("Chorus", show); o["verdict"] != "stopped" {
		t.Errorf("a blued plate: %v", o["verdict"])
	}
	if w := b.keep("/mountings", obj{"saw_id": b.saw["table"], "blade_id": b.blade["Chorus"], "units": "mm"}); w.Code != 422 || !strings.Contains(w.Body.String(), "blue") {
		t.Errorf("a blued plate goes on: %d %s", w.Code, w.Body)
	}
	if !strings.Contains(b.post("/owning-plans", obj{"units": "mm"}).Body.String(), "blue") {
		t.Error("Own has not heard of it")
	}
	if w := b.keep("/blades/"+b.blade["Chorus"]+"/mending", obj{"mended_by": "Edge & Son", "inspected_by": "Ilse"}); w.Code == 201 {
		if o := option("Chorus", show); o["verdict"] == "stopped" {
			t.Error("inspected, and still off")
		}
	}
}

// A dado set makes neither of two passes that part the work, thin metal is said
// how to hold before any blade, and what rattles is looked at before it cuts.
func TestPartingMetalAndRattles(t *testing.T) {
	b := newBench(t)
	thick := decode(t, b.plan(obj{"thickness_mm": 100, "width_mm": 150}))
	if thick["both_faces"] != true {
		t.Fatalf("100 mm are cut from one face: %v", thick["both_faces"])
	}
	for _, o := range thick["options"].([]any) {
		if id := o.(obj)["blade_id"]; id == b.blade["Trapdoor"] {
			t.Error("a dado set parts the work in its second pass")
		}
	}
	for _, tt := range []struct {
		saw, direction string
		thick          float64
		says           []string
	}{
		{"table", "sheet", 1, []string{"between two boards", "zero-clearance throat plate", "along the foot of the fence"}},
		{"table", "crosscut", 2, []string{"between two boards", "zero-clearance throat plate"}},
		{"miter", "crosscut", 3, []string{"Clamp it to the table and the fence", "between two boards"}},
	} {
		p := decode(t, b.plan(obj{"saw_id": b.saw[tt.saw], "material": "brass", "direction": tt.direction, "thickness_mm": tt.thick, "width_mm": 60, "length_mm": 600}))
		said := fmt.Sprint(p["findings"])
		for _, says := range tt.says {
			if !strings.Contains(said, says) {
				t.Errorf("brass of %v mm on a %s saw: nobody says %q in %s", tt.thick, tt.saw, says, said)
			}
		}
	}
	for _, sign := range []string{"whistle", "vibration", "since-a-hit"} {
		w := b.keep("/traces", obj{"cut": b.cut(nil), "present": []string{sign, "scorch-one-spot"}, "units": "mm"})
		if w.Code != 201 {
			t.Fatalf("%s: %d %s", sign, w.Code, w.Body)
		}
		next := decode(t, w)["next"].([]any)[0].(obj)
		if kind := next["kind"]; kind != "look" && kind != "measure" {
			t.Errorf("%s: first %v, %v", sign, next["check"], kind)
		}
	}
}
