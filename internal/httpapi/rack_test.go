package httpapi_test

import (
	"bytes"
	"encoding/json"
	"encoding/xml"
	"errors"
	"fmt"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"io"
	"maps"
	"math"
	"net/http"
	"net/http/httptest"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/jmoiron/sqlx"
	"github.com/santhosh-tekuri/jsonschema/v6"

	"corte/core/blade"
	"corte/internal/httpapi/contract"
	"corte/internal/photo/phototest"
	"corte/internal/store"
)

func newBlade(change obj) obj {
	in := obj{"name": "Sprite", "make": "toothed", "diameter_mm": 254, "bore_mm": 15.875, "kerf_mm": 3.2, "plate_mm": 2.2,
		"teeth": 48, "grind": "ATB", "bevel_deg": 20, "hook_deg": 10, "kept_for": "crosscut"}
	maps.Copy(in, change)
	return in
}

func (b *bench) put(path string, body any, header ...string) *httptest.ResponseRecorder {
	raw, _ := json.Marshal(body)
	return b.do("PUT", "/api/v1"+path, string(raw), header...)
}

// Blades and saws are added once, changed by version, retired with a reason and
// brought back; impossible numbers are refused by name.
func TestRackIsEdited(t *testing.T) {
	b := newBench(t)
	key := []string{"Idempotency-Key", uuid.NewString()}
	w := b.post("/blades", newBlade(nil), key...)
	made := decode(t, w)
	id, _ := made["id"].(string)
	if w.Code != 201 || made["version"] != 1.0 || made["pitch_mm"].(float64) < 16 {
		t.Fatalf("%d %s", w.Code, w.Body)
	}
	if again := decode(t, b.post("/blades", newBlade(nil), key...)); again["id"] != id {
		t.Errorf("a retry made another blade: %v", again)
	}
	if w := b.post("/blades", newBlade(obj{"name": "Other"}), key...); w.Code != 422 {
		t.Errorf("the same key for another blade: %d", w.Code)
	}
	for name, tt := range map[string]struct {
		change obj
		field  string
		says   string
	}{
		"a thick plate":   {obj{"plate_mm": 3.4}, "plate_mm", "thinner than the kerf"},
		"a wide bore":     {obj{"bore_mm": 79, "diameter_mm": 120}, "bore_mm", "leaves no plate"},
		"a hook of 60":    {obj{"hook_deg": 60}, "hook_deg", "between -15 and +35"},
		"no name":         {obj{"name": ""}, "name", "at least 1"},
		"too many teeth":  {obj{"teeth": 190, "diameter_mm": 150}, "teeth", "do not fit"},
		"no grind":        {obj{"grind": nil}, "grind", "one of FTG"},
		"a strange grind": {obj{"grind": "WAVY"}, "grind", "one of FTG"},
	} {
		for _, path := range []string{"/blades", "/blade-drafts"} {
			w := b.post(path, newBlade(tt.change), "Idempotency-Key", uuid.NewString())
			if p := decode(t, w); w.Code < 400 || p["field"] != tt.field || !strings.Contains(p["detail"].(string), tt.says) {
				t.Errorf("%s at %s: %d %s", name, path, w.Code, w.Body)
			}
		}
	}
	// Two people edit one blade: the second is told, and nothing is overwritten.
	first := b.put("/blades/"+id, newBlade(obj{"note": "for the panels"}), "If-Match", `"1"`)
	second := b.put("/blades/"+id, newBlade(obj{"hangs": "peg 9"}), "If-Match", `"1"`)
	if first.Code != 200 || second.Code != http.StatusPreconditionFailed {
		t.Errorf("first %d, second %d %s", first.Code, second.Code, second.Body)
	}
	if now := b.get("/blades/" + id); now["note"] != "for the panels" || now["hangs"] != "" || now["version"] != 2.0 {
		t.Errorf("after both it is %v", now)
	}
	if w := b.put("/blades/"+id, newBlade(nil)); w.Code != 400 {
		t.Errorf("without If-Match: %d", w.Code)
	}
	if w := b.put("/blades/"+id+"/retirement", obj{"reason": "cracked", "note": "at a gullet"}); w.Code != 200 {
		t.Fatalf("%d %s", w.Code, w.Body)
	}
	refused := b.post("/cuts", b.made(obj{"blade_id": id}), "Idempotency-Key", uuid.NewString())
	if refused.Code != 422 || !strings.Contains(refused.Body.String(), "retired") {
		t.Errorf("a cut with a retired blade: %d %s", refused.Code, refused.Body)
	}
	if p := b.plan(nil).Body.String(); strings.Contains(p, id) {
		t.Error("a retired blade is still offered")
	}
	if gone := b.get("/blades?retired=true")["items"].([]any); len(gone) != 1 || gone[0].(obj)["retired"].(obj)["reason"] != "cracked" {
		t.Errorf("the retired: %v", gone)
	}
	if w := b.do("DELETE", "/api/v1/blades/"+id+"/retirement", ""); w.Code != 200 || !strings.Contains(b.plan(nil).Body.String(), id) {
		t.Errorf("brought back: %d", w.Code)
	}
	rows := b.get("/log?blade_id=" + id)["items"].([]any)
	if len(rows) != 2 || rows[1].(obj)["kind"] != "retired" || rows[1].(obj)["reason"] != "cracked" {
		t.Errorf("its log: %v", rows)
	}

	saw := obj{"name": "Stub", "kind": "circular", "diameter_mm": 160, "arbor_mm": 20, "rpm": 5000, "motor_w": 900, "reach_mm": 55, "reach45_mm": 40}
	made = decode(t, b.post("/saws", saw, "Idempotency-Key", uuid.NewString()))
	saw["reach_mm"] = 95
	if w := b.put("/saws/"+made["id"].(string), saw, "If-Match", `"1"`); w.Code != 422 || decode(t, w)["field"] != "reach_mm" {
		t.Errorf("a saw that reaches past its radius: %d %s", w.Code, w.Body)
	}
	shop := b.put("/shop", obj{"name": "Ours", "change_minutes": 12, "height_school": "proud", "learning": true, "sharpening_price": 0}, "If-Match", `"1"`)
	h := decode(t, b.plan(nil))["options"].([]any)[0].(obj)["heights"].(obj)
	if shop.Code != 200 || h["suggested_mm"] != 31.0 {
		t.Errorf("a shop that sets just proud: %s, heights %v", shop.Body, h)
	}
}

// What the browser needs for an unmarked blade, worked out by the core.
func TestUnmarkedBlade(t *testing.T) {
	b := newBench(t)
	got := decode(t, b.post("/unmarked-blades", obj{"group_teeth": 5, "groups": 10, "diameter_mm": 254, "offset_mm": 41.1, "kerf_mm": 3.2, "plate_mm": 2.2}))
	if got["teeth"] != 50.0 || fmt.Sprintf("%.4f", got["hook_deg"]) != "18.8821" || got["side_clearance_mm"] != 0.5 {
		t.Errorf("%v", got)
	}
	// Of bore and diameter one gives the other, and the gullets with it.
	for said, want := range map[string]string{"bore_mm": "256 16 12.8", "diameter_mm": "254 15.9 12.7"} {
		of := 254
		if said == "bore_mm" {
			of = 16
		}
		got := decode(t, b.post("/unmarked-blades", obj{said: of, "bore_ratio": 0.0625, "gullet_ratio": 0.05}))
		if fmt.Sprint(got["diameter_mm"], " ", got["bore_mm"], " ", got["gullet_mm"]) != want {
			t.Errorf("%s said: %v", said, got)
		}
	}
	if w := b.post("/unmarked-blades", obj{"kerf_mm": 2, "plate_mm": 2}); w.Code != 422 || decode(t, w)["field"] != "plate_mm" {
		t.Errorf("%d %s", w.Code, w.Body)
	}
}

// A photo comes back smaller, as JPEG and nothing else; what is no photo is
// refused.
func TestPhoto(t *testing.T) {
	b := newBench(t)
	at := "/api/v1/blades/" + b.blade["Quill"] + "/photo"
	send := func(raw []byte) *httptest.ResponseRecorder {
		return b.do("PUT", at, string(raw), "Content-Type", "application/octet-stream")
	}
	var file bytes.Buffer
	big := image.NewRGBA(image.Rect(0, 0, 2000, 1000))
	for i := range 1000 {
		big.Set(2*i, i, color.White)
	}
	_ = png.Encode(&file, big)
	if w := b.do("GET", at, ""); w.Code != 404 {
		t.Errorf("before there is one: %d", w.Code)
	}
	if w := send(file.Bytes()); w.Code != 200 || decode(t, w)["photo_at"] == nil {
		t.Fatalf("%d %s", w.Code, w.Body)
	}
	w := b.do("GET", at, "")
	got, kind, err := image.Decode(w.Body)
	if err != nil || kind != "jpeg" || got.Bounds().Dx() != 1280 || got.Bounds().Dy() != 640 || w.Header().Get("Content-Type") != "image/jpeg" {
		t.Errorf("%v %s %v", err, kind, w.Header())
	}
	for name, raw := range map[string][]byte{"text": []byte("<svg onload=x>"), "half a photo": file.Bytes()[:200]} {
		if w := send(raw); w.Code != 422 || decode(t, w)["field"] != "photo" {
			t.Errorf("%s: %d %s", name, w.Code, w.Body)
		}
	}
	if w := send(make([]byte, 9<<20)); w.Code != 413 {
		t.Errorf("9 MB: %d", w.Code)
	}
	if w := b.do("DELETE", at, ""); w.Code != 200 || decode(t, w)["photo_at"] != nil {
		t.Errorf("thrown away: %d", w.Code)
	}
}

// A photo is read, by itself or by three taps, compared with the rack, and not kept.
func TestLookAtBlade(t *testing.T) {
	b := newBench(t)
	look := func(query string, raw []byte) *httptest.ResponseRecorder {
		return b.do("POST", "/api/v1/blade-looks"+query, string(raw), "Content-Type", "application/octet-stream")
	}
	photo := phototest.Blade(t, 60)
	for _, query := range []string{"", "?taps=0.922,0.5,0.289,0.866,0.289,0.134"} {
		w := look(query, photo)
		got := decode(t, w)
		if w.Code != 200 || got["teeth"] != 60.0 || got["teeth_trust"] != "sure" || got["take"].(obj)["teeth"] != 60.0 || len(got["tips"].([]any)) != 60 || math.Abs(got["bore_ratio"].(float64)-0.1) > 0.002 {
			t.Fatalf("%q: %d %s", query, w.Code, w.Body)
		}
		first := got["rim"].([]any)[0].(obj) // to the right of the middle
		if x, y := first["x"].(float64), first["y"].(float64); math.Abs(x-0.922) > 0.01 || math.Abs(y-0.5) > 0.01 {
			t.Errorf("%q: the rim's right side at %g %g", query, x, y)
		}
		for _, a := range got["alike"].([]any) {
			if traits := a.(obj)["agrees"].([]any); traits[0] != "teeth" {
				t.Errorf("%v", a)
			}
		}
		if len(got["alike"].([]any)) != 3 {
			t.Errorf("%v", got["alike"])
		}
	}
	for name, c := range map[string]struct {
		query string
		raw   []byte
		code  int
		field string
	}{
		"text":            {"", []byte("<svg onload=x>"), 422, "photo"},
		"nothing to see":  {"", phototest.JPEG(t, image.NewGray(image.Rect(0, 0, 400, 300))), 422, "photo"},
		"taps in a line":  {"?taps=0.1,0.1,0.2,0.2,0.3,0.3", photo, 422, "photo"},
		"two taps":        {"?taps=0.1,0.1,0.2,0.2", photo, 422, "taps"},
		"a tap far away":  {"?taps=0.1,0.1,0.2,0.2,1e9,0.3", photo, 422, "photo"},
		"25 MB, too many": {"", make([]byte, 25<<20), 413, ""},
	} {
		if w := look(c.query, c.raw); w.Code != c.code || decode(t, w)["field"] != any(c.field) && c.field != "" {
			t.Errorf("%s: %d %s", name, w.Code, w.Body)
		}
	}
}

// A wall is read off a photo, by itself or by its corners, and its marks are held
// against what a turn of the blade would leave.
func TestLookAtWall(t *testing.T) {
	b := newBench(t)
	photo := phototest.Wall(t)
	look := func(query string, raw []byte) *httptest.ResponseRecorder {
		return b.do("POST", "/api/v1/wall-looks?"+query, string(raw), "Content-Type", "application/octet-stream")
	}
	// 1,000 pixels of a wall of 20 mm are 100 mm; a mark every 2 mm is a turn's at 8 m/min
	// and 4,000 turns.
	of := "thickness_mm=20&saw_id=" + b.saw["table"] + "&blade_id=" + b.blade["Plough"]
	rpm := b.get("/saws/" + b.saw["table"])["rpm"].(float64)
	turn := "&feed_m_min=" + fmt.Sprint(2*rpm/1000)
	corners := "&corners=0.0833,0.3333,0.9167,0.3333,0.9167,0.6667,0.0833,0.6667"
	for _, query := range []string{of + turn, of + turn + corners} {
		w := look(query, photo)
		got := decode(t, w)
		near := func(name string, want, by float64) bool {
			v, ok := got[name].(float64)
			return ok && math.Abs(v-want) <= by
		}
		if w.Code != 200 || !near("length_mm", 100, 1.5) || !near("brown", 0.2, 0.02) || !near("black", 0, 0.005) || !near("spacing_mm", 2, 0.04) || !near("turn_mm", 2, 1e-9) || !near("tooth_mm", 2.0/24, 1e-4) || got["grade"] != "brown" {
			t.Errorf("%s: %d %s", query, w.Code, w.Body)
		}
		if signs := fmt.Sprint(got["signs"]); signs != "[scorch-one-spot scorch-end-of-cut marks-once-per-turn]" {
			t.Errorf("signs %s", signs)
		}
	}
	if got := decode(t, look("thickness_mm=20", photo)); got["turn_mm"] != nil || fmt.Sprint(got["signs"]) != "[scorch-one-spot scorch-end-of-cut]" {
		t.Errorf("where no feed is known: %v %v", got["turn_mm"], got["signs"])
	}
	for name, c := range map[string]struct {
		query, field string
		raw          []byte
	}{
		"no thickness":  {"", "thickness_mm", photo},
		"two corners":   {of + "&corners=0,0,1,1", "corners", photo},
		"the wrong way": {of + "&corners=0,0,0,1,1,1,1,0", "photo", photo},
		"no photo":      {of, "photo", []byte("text")},
		"no such saw":   {strings.Replace(of, b.saw["table"], uuid.NewString(), 1), "saw_id", photo},
	} {
		if w := look(c.query, c.raw); w.Code < 400 || w.Code >= 500 || decode(t, w)["field"] != c.field && c.field != "saw_id" {
			t.Errorf("%s: %d %s", name, w.Code, w.Body)
		}
	}
}

// A file that is exported comes back the same, in both formats, and keeps to
// the published schema; what would change or be refused is shown row by row.
func TestARackFileGoesOutAndComesBack(t *testing.T) {
	b := newBench(t)
	export := func(format string) string {
		return b.do("GET", "/api/v1/rack-exports?format="+format, "").Body.String()
	}
	preview := func(format, text string) obj {
		t.Helper()
		w := b.post("/rack-import-previews", obj{"format": format, "text": text})
		if w.Code != 200 {
			t.Fatalf("%d %s", w.Code, w.Body)
		}
		return decode(t, w)
	}
	// A retired blade goes along, also one whose name another has by now, and comes
	// to a shop where it never was as what it is.
	if w := b.do("PUT", "/api/v1/blades/"+b.blade["Quill"]+"/retirement", `{"reason": "worn-out", "note": "thin; \"done\""}`, "Idempotency-Key", "retire-quill"); w.Code != 200 {
		t.Fatalf("%d %s", w.Code, w.Body)
	}
	again := b.get("/blades/" + b.blade["Quill"])
	if w := b.post("/blades", obj{"name": "Quill", "make": "toothed", "diameter_mm": 254, "bore_mm": 15.875, "kerf_mm": 3.2, "plate_mm": 2.2, "teeth": 80, "grind": "ATB", "bevel_deg": 15, "hook_deg": 5, "kept_for": "joints"}, "Idempotency-Key", "another-quill"); w.Code != 201 {
		t.Fatalf("%d %s", w.Code, w.Body)
	}
	for _, format := range []string{"json", "csv"} {
		other := b.beside(nil)
		file := export(format)
		seen := decode(t, other.post("/rack-import-previews", obj{"format": format, "text": file}))
		if w := other.post("/rack-imports", obj{"format": format, "text": file, "digest": seen["digest"]}, "Idempotency-Key", "import-"+format); w.Code != 200 || seen["refuse"] != 0.0 {
			t.Fatalf("%s into another shop: %d %s", format, w.Code, w.Body)
		}
		gone := other.get("/blades?retired=true")["items"].([]any)
		if len(gone) != 1 || gone[0].(obj)["name"] != "Quill" || fmt.Sprint(gone[0].(obj)["retired"]) != fmt.Sprint(again["retired"]) {
			t.Errorf("%s: what is retired comes as %v, not %v", format, gone, again["retired"])
		}
		if n := len(other.get("/blades")["items"].([]any)); n != len(b.blade) {
			t.Errorf("%s: %d blades hang in the other shop, %d here", format, n, len(b.blade))
		}
		p := preview(format, export(format))
		if n := len(p["rows"].([]any)); p["same"] != float64(n) || n < len(b.blade) {
			t.Errorf("%s comes back as %v add, %v change, %v refuse of %d", format, p["add"], p["change"], p["refuse"], n)
		}
	}
	c := jsonschema.NewCompiler()
	if err := c.AddResource("rack.json", map[string]any(b.get("/schemas/rack.json"))); err != nil {
		t.Fatal(err)
	}
	schema, err := c.Compile("rack.json")
	if err != nil {
		t.Fatal(err)
	}
	file := export("json")
	doc, _ := jsonschema.UnmarshalJSON(strings.NewReader(file))
	if err := schema.Validate(doc); err != nil {
		t.Errorf("the export breaks its schema: %v", err)
	}
	wrong, _ := jsonschema.UnmarshalJSON(strings.NewReader(strings.Replace(file, `"teeth": 24`, `"teeth": "many"`, 1)))
	if schema.Validate(wrong) == nil {
		t.Error("the schema lets anything pass")
	}

	text := "name;make;diameter_mm;bore_mm;kerf_mm;plate_mm;teeth;grind;hook_deg;bevel_deg;kept_for\n" +
		"Sprite;toothed;10\";5/8;1/8\";2,2;48;ATB;10;20;crosscut\n" + // added, sizes as people write them
		"Thick;toothed;254;15.875;2;2.4;40;ATB;10;20;general\n" + // the plate would rub
		"Plough;toothed;254;15.875;3.2;2.2;22;FTG;20;;rip\n" + // two teeth fewer
		"Odd;toothed;254;15.875;wide;2.2;40;ATB;10;20;general\n" +
		"Sprite;toothed;254;15.875;3.2;2.2;48;ATB;10;20;crosscut\n"
	p := preview("csv", text)
	rows := p["rows"].([]any)
	action := func(i int) string { return rows[i].(obj)["action"].(string) }
	if p["add"] != 1.0 || p["change"] != 1.0 || p["refuse"] != 3.0 || action(1) != "refuse" || action(2) != "change" || action(3) != "refuse" {
		t.Errorf("%v", p)
	}
	problem := rows[1].(obj)["problems"].([]any)[0].(obj)
	if problem["field"] != "plate_mm" || !strings.Contains(rows[3].(obj)["problems"].([]any)[0].(obj)["detail"].(string), `"wide" is not a length`) {
		t.Errorf("problems %v, %v", problem, rows[3])
	}
	// What the file has no column for stays as it is.
	if changes := rows[2].(obj)["changes"].([]any); len(changes) != 1 || changes[0].(obj)["field"] != "teeth" || changes[0].(obj)["to"] != "22" {
		t.Errorf("Plough: %v", changes)
	}
	if one := preview("csv", "id,price\n"+b.blade["Needle"]+",88\n"); one["change"] != 1.0 {
		t.Errorf("a price alone: %v", one)
	}
	if n := len(b.get("/blades")["items"].([]any)); n != len(b.blade) {
		t.Errorf("a preview saved: %d blades", n)
	}
	save := func(digest any) *httptest.ResponseRecorder {
		return b.post("/rack-imports", obj{"format": "csv", "text": text, "digest": digest})
	}
	if w := save("another"); w.Code != http.StatusPreconditionFailed {
		t.Errorf("without its preview: %d", w.Code)
	}
	if w := save(p["digest"]); w.Code != 200 || b.get("/blades/" + b.blade["Plough"])["teeth"] != 22.0 {
		t.Errorf("saved: %d %s", w.Code, w.Body)
	}
	if w := save(p["digest"]); w.Code != http.StatusPreconditionFailed {
		t.Errorf("saved twice: %d", w.Code)
	}
	for name, bad := range map[string][2]string{
		"not JSON": {"json", "{"}, "another file": {"json", `{"format":"x","version":1}`}, "an unknown field": {"csv", "name,colour\nA,red\n"}, "empty": {"csv", ""},
	} {
		if w := b.post("/rack-import-previews", obj{"format": bad[0], "text": bad[1]}); w.Code != 422 || decode(t, w)["field"] != "text" {
			t.Errorf("%s: %d %s", name, w.Code, w.Body)
		}
	}
}

// Blades that hang in a shop are called apart, and a name that is taken is
// answered with one that is free; a retired one keeps its name until it comes back.
func TestNamesAreApart(t *testing.T) {
	b := newBench(t)
	named := func(name string) *httptest.ResponseRecorder {
		return b.post("/blades", newBlade(obj{"name": name}), "Idempotency-Key", uuid.NewString())
	}
	conflict := func(w *httptest.ResponseRecorder, says string) {
		t.Helper()
		if w.Code != 409 || decode(t, w)["field"] != "name" || !strings.Contains(w.Body.String(), says) {
			t.Errorf("%d: %s, want %q", w.Code, w.Body, says)
		}
	}
	conflict(named("pLOUGH"), "A blade is already called pLOUGH. Call this one pLOUGH 2")
	if w := named("Plough 2"); w.Code != 201 {
		t.Fatalf("%d: %s", w.Code, w.Body)
	}
	conflict(named("Plough"), "Call this one Plough 3")
	long := strings.Repeat("ü", 60)
	if w := named(long); w.Code != 201 {
		t.Fatalf("%d: %s", w.Code, w.Body)
	}
	conflict(named(long), "Call this one "+strings.Repeat("ü", 58)+" 2")
	// Its own name is no other's; another's is.
	id := b.blade["Needle"]
	v := b.get("/blades/" + id)["version"]
	conflict(b.put("/blades/"+id, newBlade(obj{"name": "Plough"}), "If-Match", fmt.Sprintf(`"%v"`, v)), "Call this one Plough 3")
	if w := b.put("/blades/"+id, newBlade(obj{"name": "needle"}), "If-Match", fmt.Sprintf(`"%v"`, v)); w.Code != 200 {
		t.Errorf("its own name: %d: %s", w.Code, w.Body)
	}
	// Of two at once one has it.
	codes := make(chan int, 4)
	for range cap(codes) {
		go func() { codes <- named("Fiddle").Code }()
	}
	sum := 0
	for range cap(codes) {
		sum += <-codes
	}
	if sum != 201+3*409 {
		t.Errorf("four at once are answered %d in all", sum)
	}
	// A retired one leaves its name, and does not take it back from another.
	if w := b.put("/blades/"+id+"/retirement", obj{"reason": "lost"}); w.Code != 200 {
		t.Fatalf("%d: %s", w.Code, w.Body)
	}
	if w := named("Needle"); w.Code != 201 {
		t.Errorf("its name is free: %d: %s", w.Code, w.Body)
	}
	conflict(b.do("DELETE", "/api/v1/blades/"+id+"/retirement", ""), "Call this one needle 2")
	// The same kind for another saw is offered under a name of its own.
	usual := func(kind string) obj {
		return b.get("/starters/blades?saw_id=" + b.saw[kind])["items"].([]any)[0].(obj)["input"].(obj)
	}
	first := usual("table")
	first["name"], first["diameter_mm"] = usual("circular")["name"], 254
	if w := b.post("/blades", first, "Idempotency-Key", uuid.NewString()); w.Code != 201 {
		t.Fatalf("%d: %s", w.Code, w.Body)
	}
	if name := usual("circular")["name"].(string); !strings.HasSuffix(name, ", Walker") || named(name).Code != 201 {
		t.Errorf("for the other saw it is called %s", name)
	}
}

// Labels are well-formed, carry each name, and say nothing that a name could
// smuggle in.
func TestLabels(t *testing.T) {
	b := newBench(t)
	evil := decode(t, b.post("/blades", newBlade(obj{"name": `<b>&"`}), "Idempotency-Key", uuid.NewString()))["id"].(string)
	w := b.post("/labels", obj{"blade_ids": []string{b.blade["Plough"], evil}, "units": "in", "skip": 23})
	d := xml.NewDecoder(w.Body)
	var said strings.Builder
	paths := 0
	for {
		tok, err := d.Token()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			t.Fatal(err)
		}
		switch tok := tok.(type) {
		case xml.CharData:
			said.Write(tok)
		case xml.StartElement:
			if tok.Name.Local == "path" {
				paths++
			}
			if tok.Name.Local == "b" {
				t.Error("a name became an element")
			}
			if tok.Name.Local == "svg" && tok.Attr[2].Value != "594mm" {
				t.Errorf("two labels after 23 gone take two pages: %v", tok.Attr)
			}
		}
	}
	if s := said.String(); paths != 2 || !strings.Contains(s, "Plough") || !strings.Contains(s, `<b>&"`) || !strings.Contains(s, `0.126"`) {
		t.Errorf("%d codes, it says %s", paths, s)
	}
}

// BenchmarkPlan2000 weighs a rack of 2,000 blades, as a large shop's, through
// the whole server.
func BenchmarkPlan2000(b *testing.B) {
	on := newBench(b)
	for i := range 2000 - len(on.blade) {
		one := store.Blade{ID: uuid.New(), Name: fmt.Sprintf("Blade %d", i), Blade: blade.Blade{Diameter: 254, Bore: 15.875, Kerf: 3.2,
			Plate: 2.2, Teeth: 20 + 2*(i%40), Grind: blade.ATB, Bevel: 15, Hook: float64(i % 20), MaxRPM: 7000}}
		if err := on.st.AddBlade(b.Context(), on.shop, one); err != nil {
			b.Fatal(err)
		}
	}
	// A database that has run for a minute has counted its rows by itself.
	db := sqlx.MustConnect("pgx", on.url)
	db.MustExec(`ANALYZE`)
	db.Close()
	raw, _ := json.Marshal(obj{"cut": on.cut(nil), "units": "mm"})
	start := time.Now()
	for b.Loop() {
		r := httptest.NewRequest("POST", "http://127.0.0.1/api/v1/plans", bytes.NewReader(raw))
		r.Header.Set("Content-Type", "application/json")
		w := httptest.NewRecorder()
		on.h.ServeHTTP(w, r)
		if w.Code != http.StatusOK {
			b.Fatal(w.Code, w.Body)
		}
	}
	b.ReportMetric(float64(time.Since(start).Milliseconds())/float64(b.N), "ms/plan")
}

// A log of years comes in as one file: what is refused of it is told first and all
// of it, what is there already is left alone.
func TestALongLogComesIn(t *testing.T) {
	b := newBench(t)
	const bad = 700
	long := 12_000
	if testing.Short() {
		long = 1_500
	}
	var file strings.Builder
	file.WriteString("at,kind,blade,saw,material,thickness_mm,width_mm,length_mm,height_mm,pieces,wall,splinters\n")
	at := time.Date(2021, 3, 1, 8, 0, 0, 0, time.UTC)
	for i := range long + bad {
		blade := []string{"Plough", "Chorus", "Rook"}[i%3]
		if i >= long {
			blade = "Nobody"
		}
		fmt.Fprintf(&file, "%s,cut,%s,Long Table,red-oak,20,80,900,30,1,clean,none\n", at.Add(time.Duration(i)*20*time.Minute).Format(time.RFC3339), blade)
	}
	send := func(path string) obj {
		t.Helper()
		w := b.do("POST", "/api/v1"+path, file.String(), "Content-Type", "application/octet-stream")
		if w.Code != 200 {
			t.Fatalf("%s: %d %.300s", path, w.Code, w.Body)
		}
		return decode(t, w)
	}
	before := len(b.get("/log?limit=500")["items"].([]any))
	p := send("/log-import-previews")
	if rows := p["rows"].([]any); p["add"] != float64(long) || p["refuse"] != float64(bad) || len(rows) < bad || rows[bad-1].(obj)["does"] != "refuse" || !strings.Contains(rows[0].(obj)["says"].(string), "Nobody") {
		t.Errorf("it would add %v and refuse %v, and tells of %d", p["add"], p["refuse"], len(rows))
	}
	if n := len(b.get("/log?limit=500")["items"].([]any)); n != before {
		t.Errorf("a preview left %d rows, not %d", n, before)
	}
	take := func(id, file string) *httptest.ResponseRecorder {
		return b.do("PUT", "/api/v1/log-imports/"+id, file, "Content-Type", "application/octet-stream")
	}
	// Sent again while it is worked through, and the same file under another ID:
	// each of its rows comes in once.
	id := uuid.NewString()
	for _, to := range []string{id, id, uuid.NewString()} {
		if w := take(to, file.String()); w.Code != 202 || decode(t, w)["rows"] != float64(long) || decode(t, w)["state"] != "working" {
			t.Fatalf("it begins with %d %s", w.Code, w.Body)
		}
	}
	ended := func() (all []any) {
		for range 600 {
			all = b.get("/log-imports")["items"].([]any)
			if !slices.ContainsFunc(all, func(one any) bool { return one.(obj)["state"] == "working" }) {
				return all
			}
			time.Sleep(100 * time.Millisecond)
		}
		t.Fatalf("they are still at it: %v", all)
		return nil
	}
	added, same := 0.0, 0.0
	all := ended()
	for _, one := range all {
		one := one.(obj)
		if one["state"] != "done" || one["done"] != one["rows"] || one["refuse"] != float64(bad) {
			t.Errorf("one ended as %v", one)
		}
		added, same = added+one["add"].(float64), same+one["same"].(float64)
	}
	if len(all) != 2 || added != float64(long) || same != float64(long) {
		t.Errorf("two imports of one file added %v and left %v: %v", added, same, all)
	}
	if w := take(id, file.String()); w.Code != 202 || decode(t, w)["state"] != "done" {
		t.Errorf("under an ID that is done: %d %s", w.Code, w.Body)
	}
	if w := take(uuid.NewString(), `{"format": "corte-log"`); w.Code != 422 || decode(t, w)["field"] != "file" {
		t.Errorf("half a file: %d %s", w.Code, w.Body)
	}
	// A commit that nobody heard of is not called a failure.
	if err := b.st.EndImport(t.Context(), store.Import{Shop: b.shop, ID: uuid.MustParse(id)}, "failed", "nothing was added"); err != nil {
		t.Fatal(err)
	}
	if w := take(id, file.String()); decode(t, w)["state"] != "done" {
		t.Errorf("what is done is said to be %s", w.Body)
	}
	// One whose server was killed has added nothing, says so, and begins anew.
	db := sqlx.MustConnect("pgx", b.url)
	defer db.Close()
	db.MustExec(`UPDATE imports SET state = 'working', beat_at = now() - interval '20 seconds' WHERE id = $1`, id)
	if w := take(id, file.String()); w.Code != 202 || decode(t, w)["rows"] == 0.0 {
		t.Errorf("one that was heard of lately begins anew: %d %s", w.Code, w.Body)
	}
	db.MustExec(`UPDATE imports SET state = 'working', beat_at = now() - interval '65 seconds' WHERE id = $1`, id)
	said := ""
	for _, one := range b.get("/log-imports")["items"].([]any) {
		if one := one.(obj); one["id"] == id {
			said = fmt.Sprint(one["state"], " ", one["says"])
		}
	}
	if !strings.Contains(said, "failed Corte was stopped during the import") {
		t.Errorf("of one that was cut off is said %q", said)
	}
	if w := take(id, file.String()); w.Code != 202 || decode(t, w)["state"] != "working" || decode(t, w)["rows"] != 0.0 {
		t.Errorf("sent again: %d %s", w.Code, w.Body)
	}
	ended()
}

// Splinters along an edge are counted and measured by its length, by itself or by its
// ends, and the face lies on the left hand from the first to the second.
// upsideDown is a photo that was taken from the other side of the bench.
func upsideDown(t *testing.T, photo []byte) []byte {
	img, err := jpeg.Decode(bytes.NewReader(photo))
	if err != nil {
		t.Fatal(err)
	}
	size := img.Bounds()
	turned := image.NewRGBA(size)
	for y := range size.Dy() {
		for x := range size.Dx() {
			turned.Set(size.Dx()-1-x, size.Dy()-1-y, img.At(x, y))
		}
	}
	var out bytes.Buffer
	if err := jpeg.Encode(&out, turned, &jpeg.Options{Quality: 95}); err != nil {
		t.Fatal(err)
	}
	return out.Bytes()
}

func TestLookAtEdge(t *testing.T) {
	b := newBench(t)
	photo := phototest.Edge(t)
	look := func(query string, raw []byte) *httptest.ResponseRecorder {
		return b.do("POST", "/api/v1/edge-looks?"+query, string(raw), "Content-Type", "application/octet-stream")
	}
	for query, deep := range map[string]float64{"length_mm=100": 4.2, "length_mm=100&face=below": 4.2, "length_mm=100&ends=0.0833,0.6667,0.9167,0.6667": 4.2, "length_mm=50": 2.1} {
		var got contract.EdgeLook
		of := photo
		if strings.Contains(query, "below") {
			of = upsideDown(t, photo)
		}
		if w := look(query, of); w.Code != 200 || json.Unmarshal(w.Body.Bytes(), &got) != nil || len(got.Splinters) != 3 {
			t.Errorf("%s: %d %s", query, w.Code, w.Body)
			continue
		}
		first := got.Splinters[0]
		if math.Abs(got.DeepestMm.Mm()-deep) > 0.1*deep || math.Abs(got.Share-0.11) > 0.02 || math.Abs((first.From+first.To)/2-0.1) > 0.005 || got.Fibres != 1 {
			t.Errorf("%s: %+v", query, got)
		}
		grade, said := "torn", "A fiber sticks out over the edge"
		if deep < 3 {
			grade = "splinters"
		}
		if string(got.Grade) != grade || fmt.Sprint(got.Signs) != "[splinter-exit-face splinter-both-faces]" || len(got.Says) != 1 || !strings.HasPrefix(got.Says[0], said) {
			t.Errorf("%s: %s, %s, %s", query, got.Grade, got.Signs, got.Says)
		}
	}
	// The other way round the bench would be the face.
	if got := decode(t, look("length_mm=100&ends=0.9167,0.6667,0.0833,0.6667", photo)); fmt.Sprint(got["grade"]) == "torn" {
		t.Errorf("from the right to the left: %v", got)
	}
	for name, c := range map[string]struct {
		query, field string
		raw          []byte
	}{
		"no length":     {"", "length_mm", photo},
		"one end":       {"length_mm=100&ends=0,1", "ends", photo},
		"one place":     {"length_mm=100&ends=0.5,0.5,0.5,0.5", "photo", photo},
		"no photo":      {"length_mm=100", "photo", []byte("text")},
		"at the border": {"length_mm=100&ends=0,0,1,0", "photo", photo},
	} {
		if w := look(c.query, c.raw); w.Code < 400 || w.Code >= 500 || decode(t, w)["field"] != c.field {
			t.Errorf("%s: %d %s", name, w.Code, w.Body)
		}
	}
}
