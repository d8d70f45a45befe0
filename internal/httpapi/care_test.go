package httpapi_test

import (
	"encoding/json"
	"fmt"
	"net/http"
	"slices"
	"strings"
	"testing"

	"github.com/google/uuid"
)

// Every page of Run, Care, Trace and Log is answered for the demo shop, in the
// contract's own shape.
func TestCareAndLogAreAnswered(t *testing.T) {
	b := newBench(t)
	lessons := b.get("/lessons")["items"].([]any)
	told := false
	for _, l := range lessons {
		one := l.(obj)
		if one["scorch_factor"].(float64) <= 0 || one["splinter_factor"].(float64) <= 0 || one["cuts"].(float64) < 1 {
			t.Errorf("lesson %v", one)
		}
		told = told || one["material"] == "cherry" && len(one["says"].([]any)) > 0
	}
	if !told {
		t.Errorf("nothing is said of cherry in %v", lessons)
	}
	care := b.get("/care")
	if first := care["blades"].([]any)[0].(obj); first["wash"] != "due" && first["sharpen"] != "due" || len(care["away"].([]any)) != 1 || len(care["baths"].([]any)) != 1 {
		t.Errorf("care begins with %v", first)
	}
	if n := len(b.get("/cleaners")["items"].([]any)); n < 6 {
		t.Errorf("%d cleaners", n)
	}
	if s := b.get("/blades/" + b.blade["Stagehand"] + "/stand-ins"); len(s["items"].([]any)) == 0 || slices.Contains(s["items"].([]any), any("Stagehand")) {
		t.Errorf("while Stagehand is away: %v", s)
	}
	if s := b.get("/blades/" + b.blade["Mason"] + "/stand-ins"); len(s["items"].([]any)) != 0 {
		t.Errorf("a diamond rim is stood in for by %v", s)
	}
	if m := b.get("/blades/" + b.blade["Chorus"] + "/money?cheap_price=20&cheap_life=0.5"); m["expected_per_m"].(float64) <= 0 || len(m["line"].([]any)) < 4 {
		t.Errorf("money %v", m)
	}
	for _, e := range b.get("/log?kind=washed&kind=sharpened&limit=500")["items"].([]any) {
		if k := e.(obj)["kind"]; k != "washed" && k != "sharpened" {
			t.Errorf("a row of kind %v", k)
		}
	}
	csv := b.do(http.MethodGet, "/api/v1/log-exports?format=csv&blade_id="+b.blade["Plough"], "")
	if head, _, _ := strings.Cut(csv.Body.String(), "\n"); csv.Code != 200 || !strings.HasPrefix(head, "at,kind,blade,saw,by,note,material") {
		t.Errorf("%d: %s", csv.Code, head)
	}
	var schema obj
	if w := b.do(http.MethodGet, "/api/v1/schemas/log.json", ""); json.Unmarshal(w.Body.Bytes(), &schema) != nil || schema["title"] == nil {
		t.Errorf("the log's schema is %s", w.Body)
	}
	words := b.get("/trace-words")
	if len(words["signs"].([]any)) < 42 || len(words["causes"].([]any)) < 44 || len(words["checks"].([]any)) < 27 {
		t.Error("words of the trace are missing")
	}
	// What cannot be is refused by name, and nothing is saved.
	key := []string{"Idempotency-Key", uuid.NewString()}
	for path, tt := range map[string]struct {
		body  obj
		field string
	}{
		"/blades/" + b.blade["Rook"] + "/judgements":  {obj{"says": "fine"}, "says"},
		"/blades/" + b.blade["Rook"] + "/sending":     {obj{"to": ""}, "to"},
		"/blades/" + b.blade["Rook"] + "/inspections": {obj{"fault": "sad"}, "fault"},
		"/washes":              {obj{"blade_ids": []string{b.blade["Rook"]}, "cleaner": "lye", "brush": "nylon"}, "cleaner"},
		"/bath-mixes":          {obj{"name": "x", "cleaner": "citrus", "length_mm": 100, "width_mm": 100, "depth_mm": 50, "diameter_mm": 254, "kerf_mm": 3, "blades": 1}, "length_mm"},
		"/log-import-previews": {obj{"format": "corte-rack"}, "file"},
		"/traces":              {obj{"cut": b.cut(nil), "present": []string{"sad"}, "units": "mm"}, "present"},
		"/log/999999/strike":   {obj{}, "id"},
	} {
		if w := b.post(path, tt.body, key...); w.Code < 400 || w.Code > 499 || decode(t, w)["field"] != tt.field {
			t.Errorf("%s: %d %s", path, w.Code, w.Body)
		}
	}
}

// A wash is moved by version from any device, and a comparison that is graded
// blind does not say which setting made which piece.
func TestWashesAndTrialsAreShared(t *testing.T) {
	b := newBench(t)
	put := func(path string, body obj, etag any) (int, obj) {
		t.Helper()
		w := b.put(path, body, "If-Match", fmt.Sprintf(`"%v"`, etag))
		return w.Code, decode(t, w)
	}
	w := b.post("/washes", obj{"blade_ids": []string{b.blade["Rook"], b.blade["Chorus"]}, "cleaner": "citrus", "brush": "nylon"}, "Idempotency-Key", uuid.NewString())
	wash := decode(t, w)
	path := "/washes/" + wash["id"].(string)
	if code, moved := put(path, obj{"step": 1}, wash["version"]); code != 200 || moved["step"] != 1.0 {
		t.Errorf("the next step: %d %v", code, moved)
	}
	if code, _ := put(path, obj{"step": 2}, wash["version"]); code != http.StatusPreconditionFailed {
		t.Errorf("the second of two devices: %d", code)
	}
	if n := len(b.get("/care")["washes"].([]any)); n != 1 {
		t.Errorf("%d washes under way", n)
	}
	if gone := b.do(http.MethodDelete, "/api/v1"+path, ""); gone.Code != http.StatusNoContent {
		t.Errorf("given up: %d", gone.Code)
	}

	setting := func(height float64) obj { return obj{"blade_id": b.blade["Stagehand"], "height_mm": height} }
	ask := obj{"cut": b.cut(nil), "settings": []obj{setting(31), setting(60)}, "repeats": 2, "blind": true, "units": "mm"}
	trial := decode(t, b.post("/trials", ask, "Idempotency-Key", uuid.NewString()))
	at := "/trials/" + trial["id"].(string)
	step := func(path string, body obj) obj {
		t.Helper()
		w := b.post(at+path, body, "If-Match", fmt.Sprintf(`"%v"`, trial["version"]))
		if w.Code != 200 {
			t.Fatalf("%s %v: %d %s", path, body, w.Code, w.Body)
		}
		return decode(t, w)
	}
	told := func() (n int) {
		for _, r := range trial["runs"].([]any) {
			if _, says := r.(obj)["setting"]; says {
				n++
			}
		}
		return n
	}
	for piece := 1; piece <= 4; piece++ {
		if told() != 4 {
			t.Error("the one who cuts is not told what to set")
		}
		trial = step("/cuts", obj{"piece": piece, "seconds": 9.5})
	}
	if told() != 0 {
		t.Error("the one who grades is told which is which")
	}
	for piece := 1; piece <= 4; piece++ {
		trial = step("/grades", obj{"piece": piece, "wall": "clean", "splinters": "none", "effort": "normal"})
	}
	if trial = step("/end", obj{}); told() != 4 || trial["ended_at"] == nil || len(trial["results"].([]any)) != 4 {
		t.Errorf("the end: %v", trial)
	}
	for _, s := range trial["says"].([]any) {
		if !strings.Contains(s.(string), "alike") {
			t.Errorf("pieces that are alike are said to differ: %s", s)
		}
	}
	// Closed twice it is the same, and it is logged once.
	step("/end", obj{})
	n := 0
	for _, e := range b.get("/log?kind=compared&kind=cut&limit=20&blade_id=" + b.blade["Stagehand"])["items"].([]any) {
		if one := e.(obj); one["kind"] == "compared" || strings.HasPrefix(fmt.Sprint(one["note"]), "comparison, piece") {
			n++
		}
	}
	if n != 5 {
		t.Errorf("four pieces and their comparison are %d rows", n)
	}
}
