package httpapi_test

import (
	"encoding/json"
	"fmt"
	"math"
	"net/http"
	"strings"
	"sync"
	"testing"

	"github.com/google/uuid"
	"github.com/santhosh-tekuri/jsonschema/v6"
)

const balustrade = `Balustrade:
8 posts, 44 × 44 hard maple, 900 long, rip, show
30 balusters, 22 × 22 red oak, 820 long
4 shelves, 18 × 300 birch ply, 900 long, show
6 housings, 300 long, groove 7 deep
`

// rowsOf are the lines of a list as a job takes them.
func (b *bench) rowsOf(text string) []any {
	b.t.Helper()
	var out obj
	if w := b.post("/job-lists", obj{"text": text, "units": "mm"}); json.Unmarshal(w.Body.Bytes(), &out) != nil || w.Code != 200 {
		b.t.Fatalf("%d: %s", w.Code, w.Body)
	}
	var rows []any
	for _, l := range out["lines"].([]any) {
		row := l.(obj)["row"].(obj)
		delete(row, "in_stage")
		row["id"] = uuid.NewString()
		rows = append(rows, row)
	}
	return rows
}

func (b *bench) job(name, text string) obj {
	b.t.Helper()
	var out obj
	if w := b.post("/jobs", obj{"name": name, "rows": b.rowsOf(text), "knobs": obj{"people": 1}}, "Idempotency-Key", uuid.NewString()); json.Unmarshal(w.Body.Bytes(), &out) != nil || w.Code != 201 {
		b.t.Fatalf("%d: %s", w.Code, w.Body)
	}
	return out
}

func version(j obj) []string { return []string{"If-Match", fmt.Sprintf(`"%v"`, j["version"])} }

// A list is read, kept, planned, ticked and planned anew.
func TestAJobFromListToLastTick(t *testing.T) {
	b := newBench(t)
	j := b.job("A balustrade", balustrade)
	at := "/jobs/" + j["id"].(string)
	rows := j["rows"].([]any)
	if len(rows) != 4 || j["left"].(float64) != 48 || j["sheet"] != nil || rows[3].(obj)["in_stage"] != "joints" || rows[1].(obj)["assembly"] != "Balustrade" {
		t.Fatalf("kept as %v", j)
	}
	plan := func(knobs obj) obj {
		t.Helper()
		var out obj
		if w := b.put(at+"/sheet", obj{"knobs": knobs, "units": "mm"}, version(j)...); json.Unmarshal(w.Body.Bytes(), &out) != nil || w.Code != 200 {
			t.Fatalf("%d: %s", w.Code, w.Body)
		}
		j = out
		return out["sheet"].(obj)
	}
	sheet := plan(obj{"people": 1})
	cut, change, pieces := 0.0, 0.0, 0.0
	for _, u := range sheet["turns"].([]any) {
		turn := u.(obj)
		change += turn["cuts_from_min"].(float64) - turn["begin_min"].(float64)
		for _, c := range turn["cuts"].([]any) {
			cut += c.(obj)["minutes"].(float64)
			pieces += c.(obj)["pieces"].(float64)
		}
	}
	if pieces != 48 || fmt.Sprintf("%.4f", cut+change) != fmt.Sprintf("%.4f", sheet["total_min"]) || sheet["exact"] != true || sheet["end_min"].(float64) < sheet["total_min"].(float64)-1e-6 {
		t.Errorf("%v pieces in %v + %v minutes; the sheet says %v", pieces, cut, change, sheet)
	}
	// What is dear is done seldom; what is free, where it gains anything.
	var seldom, freely obj
	for change, into := range map[float64]*obj{100: &seldom, 0: &freely} {
		w := b.post(at+"/what-if", obj{"knobs": obj{"people": 1, "change_min": change}, "units": "mm"})
		if json.Unmarshal(w.Body.Bytes(), into) != nil || w.Code != 200 {
			t.Fatalf("%d: %s", w.Code, w.Body)
		}
	}
	if seldom["changes"].(float64) > sheet["changes"].(float64) || freely["cut_min"].(float64) > sheet["cut_min"].(float64)+1e-9 || freely["changes_min"].(float64) != 0 {
		t.Errorf("seldom %v, freely %v", seldom, freely)
	}
	// A held row is cut on its saw, whatever that costs.
	rows[2].(obj)["saw_id"] = b.saw["circular"]
	var sent []any
	for _, r := range rows {
		one := obj{}
		for k, v := range r.(obj) {
			if !strings.Contains(" in_stage made spoilt left material_name took_min ", " "+k+" ") {
				one[k] = v
			}
		}
		sent = append(sent, one)
	}
	stale := version(j)
	w := b.put(at, obj{"name": "A balustrade", "rows": sent, "knobs": obj{"people": 1}}, stale...)
	if err := json.Unmarshal(w.Body.Bytes(), &j); err != nil || w.Code != 200 || j["moved"] != true {
		t.Fatalf("%d: %s", w.Code, w.Body)
	}
	if w := b.put(at, obj{"name": "Mine", "rows": sent, "knobs": obj{"people": 1}}, stale...); w.Code != http.StatusPreconditionFailed {
		t.Errorf("over an old version: %d", w.Code)
	}
	held := plan(obj{"people": 2})
	for _, u := range held["turns"].([]any) {
		for _, c := range u.(obj)["cuts"].([]any) {
			if is := c.(obj)["row_id"] == rows[2].(obj)["id"]; is && u.(obj)["saw_id"] != b.saw["circular"] {
				t.Errorf("on another saw: %v", c)
			}
		}
	}
	if j["moved"] != false || held["total_min"].(float64) < sheet["total_min"].(float64)-1e-6 {
		t.Errorf("held, it takes %v, free %v", held["total_min"], sheet["total_min"])
	}
	// What is made is planned no more; the last tick ends it, and a slip begins it again.
	tick := func(row int, made, spoilt float64) obj {
		t.Helper()
		var out obj
		w := b.post(at+"/ticks", obj{"row_id": rows[row].(obj)["id"], "made": made, "spoilt": spoilt}, "Idempotency-Key", uuid.NewString())
		if json.Unmarshal(w.Body.Bytes(), &out) != nil || w.Code != 200 {
			t.Fatalf("%d: %s", w.Code, w.Body)
		}
		return out
	}
	tick(0, 8, 1)
	for _, u := range plan(obj{"people": 1})["turns"].([]any) {
		for _, c := range u.(obj)["cuts"].([]any) {
			if c.(obj)["row_id"] == rows[0].(obj)["id"] {
				t.Errorf("a row that is made is planned again: %v", c)
			}
		}
	}
	tick(1, 30, 0)
	tick(2, 4, 0)
	if got := tick(3, 6, 0); got["left"].(float64) != 0 || got["ended_at"] == nil || got["rows"].([]any)[0].(obj)["spoilt"].(float64) != 1 {
		t.Errorf("after the last tick %v", got)
	}
	// A row more, and it goes on; without it, it is over again.
	more := append(append([]any{}, sent...), obj{"id": uuid.NewString(), "name": "one more", "pieces": 1, "material": "ash", "direction": "rip", "finish": "show", "thickness_mm": 20, "width_mm": 90, "length_mm": 900})
	for i, rows := range [][]any{more, sent} {
		if err := json.Unmarshal(b.put(at, obj{"name": "A balustrade", "rows": rows, "knobs": obj{"people": 1}}, version(b.get(at))...).Body.Bytes(), &j); err != nil || (j["ended_at"] == nil) != (i == 0) {
			t.Errorf("with %d rows it ended at %v, %v", len(rows), j["ended_at"], err)
		}
		j = obj{}
	}
	if got := tick(3, -1, 1); got["left"].(float64) != 1 || got["ended_at"] != nil {
		t.Errorf("one taken back %v", got)
	}
	if w := b.post(at+"/ticks", obj{"row_id": rows[3].(obj)["id"], "made": -9, "spoilt": 0}, "Idempotency-Key", uuid.NewString()); w.Code != 422 {
		t.Errorf("fewer than none: %d", w.Code)
	}
}

// Two people tick at once, and nothing is lost; the same tick sent twice counts once.
func TestTicksOfTwoPeopleAddUp(t *testing.T) {
	b := newBench(t)
	j := b.job("Both", balustrade)
	var all sync.WaitGroup
	for _, r := range j["rows"].([]any) {
		for range int(r.(obj)["pieces"].(float64)) {
			all.Add(1)
			go func() {
				defer all.Done()
				key := uuid.NewString()
				for range 2 {
					if w := b.post("/jobs/"+j["id"].(string)+"/ticks", obj{"row_id": r.(obj)["id"], "made": 1, "spoilt": 0}, "Idempotency-Key", key); w.Code != 200 {
						t.Errorf("%d: %s", w.Code, w.Body)
					}
				}
			}()
		}
	}
	all.Wait()
	j = b.get("/jobs/" + j["id"].(string))
	for _, r := range j["rows"].([]any) {
		if r.(obj)["made"] != r.(obj)["pieces"] {
			t.Errorf("%v: %v made", r.(obj)["name"], r.(obj)["made"])
		}
	}
	if j["ended_at"] == nil {
		t.Error("all is made, and it goes on")
	}
}

// A cut that is logged from a row ticks it off; one whose row is gone is logged all the same.
func TestALoggedCutTicksItsRow(t *testing.T) {
	b := newBench(t)
	j := b.job("One", balustrade)
	made := b.made(obj{"pieces": 3})
	made["job_id"], made["row_id"] = j["id"], j["rows"].([]any)[0].(obj)["id"]
	for want, row := range map[string]any{"3": made["row_id"], "gone": uuid.NewString()} {
		made["row_id"] = row
		if w := b.post("/cuts", made, "Idempotency-Key", uuid.NewString()); w.Code != 201 {
			t.Fatalf("%s: %d: %s", want, w.Code, w.Body)
		}
	}
	if r := b.get("/jobs/" + j["id"].(string))["rows"].([]any)[0].(obj); r["made"].(float64) != 3 {
		t.Errorf("made %v", r["made"])
	}
}

// Both files of a list are read back as the rows that they were written from;
// the JSON keeps to its schema.
func TestAListComesBackFromItsFiles(t *testing.T) {
	b := newBench(t)
	j := b.job("=Files", balustrade)
	file := func(format string) string {
		w := b.do(http.MethodGet, "/api/v1/jobs/"+j["id"].(string)+"/file?format="+format, "")
		if w.Code != 200 || w.Body.Len() == 0 {
			t.Fatalf("%s: %d: %s", format, w.Code, w.Body)
		}
		return w.Body.String()
	}
	c := jsonschema.NewCompiler()
	if err := c.AddResource("job.json", map[string]any(b.get("/schemas/job.json"))); err != nil {
		t.Fatal(err)
	}
	schema, err := c.Compile("job.json")
	if err != nil {
		t.Fatal(err)
	}
	doc, err := jsonschema.UnmarshalJSON(strings.NewReader(file("json")))
	if err != nil || schema.Validate(doc) != nil {
		t.Errorf("%v: %v", err, schema.Validate(doc))
	}
	for _, format := range []string{"json", "csv"} {
		again := b.rowsOf(file(format))
		for i, r := range j["rows"].([]any) {
			for k, v := range again[i].(obj) {
				if k != "id" && fmt.Sprint(v) != fmt.Sprint(r.(obj)[k]) {
					t.Errorf("%s, row %d: %s is %v, was %v", format, i, k, v, r.(obj)[k])
				}
			}
		}
		if len(again) != 4 {
			t.Errorf("%s: %d rows", format, len(again))
		}
	}
	var sheet obj
	if w := b.put("/jobs/"+j["id"].(string)+"/sheet", obj{"knobs": obj{"people": 1}, "units": "mm"}, version(j)...); json.Unmarshal(w.Body.Bytes(), &sheet) != nil || w.Code != 200 {
		t.Fatalf("%d: %s", w.Code, w.Body)
	}
	turns := len(sheet["sheet"].(obj)["turns"].([]any))
	if ics := file("ics&starts_at=2026-11-27T08:00:00Z"); strings.Count(ics, "BEGIN:VEVENT") != turns || !strings.Contains(ics, "DTSTART:20261127T080000Z") {
		t.Errorf("%d turns, and the calendar %s", turns, ics)
	}
	if svg := file("svg"); strings.Count(svg, `height="34" fill="#fff"`) != 4 || !strings.Contains(svg, "30 × balusters") || strings.Contains(svg, "<no value>") {
		t.Errorf("drawn as %s", svg)
	}
	if w := b.post("/job-lists", obj{"text": `{"format":"corte-job","version":2,"rows":[]}`, "units": "mm"}); !strings.Contains(w.Body.String(), "this version of Corte") {
		t.Errorf("a later file: %s", w.Body)
	}
}

// Buying is weighed over the log of a year or over a job; what is missing says so.
func TestWhatToBuyNext(t *testing.T) {
	b := newBench(t)
	own := func(ask obj) obj {
		t.Helper()
		ask["units"] = "mm"
		w := b.post("/owning-plans", ask)
		if w.Code != 200 {
			t.Fatalf("%d: %s", w.Code, w.Body)
		}
		return decode(t, w)
	}
	year := own(obj{})
	if year["pieces"].(float64) < 4000 || year["years"].(float64) > 0.5 || len(year["one"].([]any)) != 0 || !strings.HasPrefix(year["says"].(string), "You don't need another blade") {
		t.Errorf("over the log: %v", year["says"])
	}
	// One blade, two, three: each saves more than a change, and all of them take no less.
	several := year["several"].([]any)
	undone, total := year["pieces"].(float64), math.Inf(1)
	for _, x := range several {
		n, min := x.(obj)["undone"].(float64), x.(obj)["total_min"].(float64)
		if n > undone || n == undone && min > total-3 || n == 0 && min < year["total_min"].(float64)-1e-6 {
			t.Errorf("with %s %v pieces are undone in %v min, before it %v in %v", x.(obj)["name"], n, min, undone, total)
		}
		undone, total = n, min
	}
	if len(several) < 2 || undone != 0 {
		t.Errorf("several: %v", several)
	}
	for _, x := range year["kerfs"].([]any) {
		thin, full := x.(obj)["thin"].(obj), x.(obj)["full"].(obj)
		if x.(obj)["pieces"].(float64) > 0 && thin["dust_l"].(float64) >= full["dust_l"].(float64) {
			t.Errorf("thin makes as much dust: %v", x)
		}
	}
	// Without the blade that does fine sheets, one that does is worth buying.
	for _, name := range []string{"Needle", "Glass", "Tinsel", "Quill", "Lace", "Chorus", "Dovecote"} {
		if w := b.put("/blades/"+b.blade[name]+"/retirement", obj{"reason": "lost"}); w.Code != 200 {
			t.Fatalf("%s: %d: %s", name, w.Code, w.Body)
		}
	}
	less := own(obj{})
	best := less["one"].([]any)[0].(obj)
	if saves := best["saves_min"].(float64); saves < 5 || less["total_min"].(float64) <= year["total_min"].(float64) || len(best["takes"].([]any)) == 0 || best["pays"] != nil {
		t.Errorf("without fine blades %v", best)
	}
	id := best["blades"].([]any)[0].(obj)["id"]
	for price, says := range map[float64]string{1: "pays for itself within a month", 1e6: "no blade pays off"} {
		now := b.get("/owning")
		wish := []obj{{"id": id, "name": "it", "why": "so"}}
		if w := b.put("/owning", obj{"hour": 60, "prices": []obj{{"id": id, "price": price}}, "wishes": wish}, version(now)...); w.Code != 200 || decode(t, w)["version"] != now["version"].(float64)+1 {
			t.Fatalf("prices over %v: %d: %s", now["version"], w.Code, w.Body)
		}
		if w := b.put("/owning", obj{"prices": []obj{}, "wishes": []obj{}}, version(now)...); w.Code != 412 {
			t.Errorf("over a version that is gone: %d", w.Code)
		}
		if w := b.put("/owning", obj{"prices": []obj{}, "wishes": append(wish, wish...)}, version(b.get("/owning"))...); w.Code != 422 || decode(t, w)["field"] != "wishes" {
			t.Errorf("twice on the list: %d: %s", w.Code, w.Body)
		}
		if kept := b.get("/owning"); kept["hour"].(float64) != 60 || len(kept["wishes"].([]any)) != 1 {
			t.Errorf("kept %v", kept)
		}
		dear := own(obj{})
		if !strings.Contains(strings.ToLower(dear["says"].(string)), says) {
			t.Errorf("at %v: %s", price, dear["says"])
		}
	}
	j := b.job("Small", "4 boards, 20 × 100 cherry, 900 long, rip, hidden")
	if over := own(obj{"job_id": j["id"]}); over["pieces"].(float64) != 4 || over["from"] != nil {
		t.Errorf("over a job %v", over)
	}
	w := b.post("/first-blades", obj{"rows": b.rowsOf("20 boards, 25 × 120 red oak, 900 long, rip, hidden\n6 panels, 18 × 600 birch ply, 1200 long, show"), "units": "mm"})
	first := decode(t, w)
	items := first["items"].([]any)
	if w.Code != 200 || len(items) < 2 || first["pieces"].(float64) != 26 || items[len(items)-1].(obj)["undone"].(float64) != 0 || len(items[0].(obj)["instead"].([]any)) == 0 {
		t.Errorf("first blades %v", first)
	}
}

func TestStockIsLaidOut(t *testing.T) {
	b := newBench(t)
	ask := obj{"pieces": []obj{{"length_mm": 40, "count": 17}}, "sticks": []obj{{"length_mm": 212}}, "kerf_mm": 3.2, "thinner_mm": 2.2, "units": "in"}
	w := b.post("/stock-plans", ask)
	p := decode(t, w)
	if fills := p["fills"].([]any); w.Code != 200 || len(fills) != 2 || fills[0].(obj)["times"].(float64) != 4 || p["used_mm"].(float64) != 5*212 || p["exact"] != true {
		t.Errorf("%d: %v", w.Code, p)
	}
	if says := fmt.Sprint(p["says"]); !strings.Contains(says, "gives one more of the longest from each") || strings.Contains(says, "mm") {
		t.Errorf("in inches it says %s", says)
	}
	ask["sticks"] = []obj{{"length_mm": 212, "count": 2}}
	if p = decode(t, b.post("/stock-plans", ask)); p["exact"] == true || p["short"].([]any)[0].(obj)["count"].(float64) != 9 {
		t.Errorf("out of two %v", p)
	}
	ask["kerf_mm"], ask["trim_mm"] = 3, 120
	if p = decode(t, b.post("/stock-plans", ask)); p["short"].([]any)[0].(obj)["count"].(float64) != 17 || len(p["fills"].([]any)) != 0 {
		t.Errorf("all trimmed away: %v", p)
	}
}

// What rows took is weighed against what was foretold of them, also after the
// rest is planned anew, and a sheet can be laid out at that pace.
func TestTheShopsOwnPace(t *testing.T) {
	b := newBench(t)
	at := "/jobs/" + b.get("/jobs")["items"].([]any)[0].(obj)["id"].(string)
	j := b.get(at)
	timed := func(j obj) string {
		var out []string
		for _, r := range j["rows"].([]any) {
			if took, is := r.(obj)["took_min"]; is {
				out = append(out, fmt.Sprintf("%.3f of %.3f", took, r.(obj)["foretold_min"]))
			}
		}
		return strings.Join(out, ", ")
	}
	before := timed(j)
	if strings.Count(before, " of ") != 3 || !strings.HasPrefix(before, "12.800 of ") {
		t.Fatalf("timed: %s", before)
	}
	if w := b.put(at+"/sheet", obj{"knobs": obj{"people": 1}, "units": "mm"}, version(j)...); w.Code != 200 {
		t.Fatalf("%d: %s", w.Code, w.Body)
	}
	if after := timed(b.get(at)); after != before {
		t.Errorf("planned anew, %s was %s", after, before)
	}
	pace := b.get("/pace")
	factor := pace["factor"].(float64)
	if pace["rows"].(float64) != 3 || factor == 1 || pace["low"].(float64) >= factor || pace["high"].(float64) <= factor {
		t.Errorf("pace %v", pace)
	}
	minutes := func(pace bool) float64 {
		return decode(t, b.post(at+"/what-if", obj{"knobs": obj{"people": 1, "pace": pace, "change_min": 0}, "units": "mm"}))["cut_min"].(float64)
	}
	if ours, theirs := minutes(true), minutes(false); fmt.Sprintf("%.6f", ours/theirs) != fmt.Sprintf("%.6f", factor) {
		t.Errorf("at our pace %v, as foretold %v; the pace is %v", ours, theirs, factor)
	}
}

// A row that nothing cuts is left out with the reason that matters, and the rest
// is planned.
func TestARowThatNothingCutsIsLeftOut(t *testing.T) {
	b := newBench(t)
	j := b.job("Hearth", "4 stones, 40 × 100 stone, 300 long, crosscut\n2 battens, 38 × 64 white pine, 900 long, crosscut\n1 top, 18 × 1300 birch ply, 2400 long, rough")
	out := decode(t, b.put("/jobs/"+j["id"].(string)+"/sheet", obj{"knobs": obj{"people": 1, "without": []string{b.saw["circular"]}}, "units": "mm"}, version(j)...))
	sheet := out["sheet"].(obj)
	var why []string
	for _, l := range sheet["left_out"].([]any) {
		why = append(why, l.(obj)["why"].(string))
	}
	if len(why) != 2 || !strings.Contains(why[0], "stone") || !strings.Contains(why[1], "circular saw") || len(sheet["turns"].([]any)) != 1 {
		t.Errorf("left out: %q; %v", why, sheet["turns"])
	}
	var all []string
	for _, id := range b.saw {
		all = append(all, id)
	}
	if w := b.post("/jobs/"+j["id"].(string)+"/what-if", obj{"knobs": obj{"people": 1, "without": all}, "units": "mm"}); w.Code != 422 || decode(t, w)["field"] != "knobs.without" {
		t.Errorf("without any saw: %d: %s", w.Code, w.Body)
	}
}
