package httpapi_test

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
)

// What somebody answers is theirs: it counts once, an owner sees how everybody
// stands and nobody else does, and nobody is signed off who has not passed what
// the shop asks for.
func TestDrillsAreOnesOwn(t *testing.T) {
	h := newHouse(t)
	maren := h.owner()
	botho, id := h.member(maren, "Botho", "learner")
	_, other := h.member(maren, "Ines", "learner")
	var saw string
	for _, w := range maren.must(200, "GET", "/people", nil)["saws"].([]any) {
		if w := w.(obj); slices.Contains(w["cuts"].([]any), any("rip")) {
			saw = w["saw_id"].(string)
		}
	}
	h.now = h.now.Add(time.Hour)

	answer := func(br *browser, body obj, key string) obj {
		t.Helper()
		body["units"] = "mm"
		return br.must(201, "POST", "/drill-answers", body, "Idempotency-Key", key)
	}
	stand := func(br *browser, drill string) string {
		t.Helper()
		for _, d := range br.must(200, "GET", "/drills", nil)["drills"].([]any) {
			if d := d.(obj); d["drill"] == drill {
				return fmt.Sprint(d["times"], " ", d["known"], "/", d["skills"], " ", d["due"], " ", d["passed"])
			}
		}
		return ""
	}
	sign := func(who string, cuts ...string) (int, string) {
		t.Helper()
		w := maren.do("PUT", "/people/"+who+"/sign-offs/"+saw, obj{"cuts": append([]string{}, cuts...)}, "Idempotency-Key", uuid.NewString())
		said := decode(t, w)
		return w.Code, fmt.Sprint(said["field"], ": ", said["detail"])
	}
	if code, said := sign(other, "rip"); code != 200 {
		t.Fatal(code, said)
	}
	was := maren.must(200, "GET", "/shop", nil)
	maren.must(200, "PUT", "/shop", obj{"name": was["name"], "change_minutes": 3, "height_school": "gullets", "learning": true, "sharpening_price": 0, "drills": []string{"before"}},
		"If-Match", fmt.Sprintf("%q", fmt.Sprint(was["version"])), "Idempotency-Key", uuid.NewString())
	if got := fmt.Sprint(botho.must(200, "GET", "/drills", nil)["asked"]); got != "[before]" {
		t.Errorf("asked is %s", got)
	}
	if code, said := sign(id, "rip"); code != 422 || !strings.Contains(said, "Botho hasn't passed Spot the danger yet") || !strings.HasPrefix(said, "cuts: ") {
		t.Errorf("signed off without: %d %s", code, said)
	}
	for _, harm := range []string{"offcut", "fence", "gauge", "glove", "knife", "line", "freehand", "hands"} {
		task := obj{"skill": "before/" + harm, "number": 7, "level": 1}
		truth := answer(maren, obj{"skill": "before/" + harm, "number": 7, "level": 1, "choice": "stand"}, uuid.NewString())["truth"]
		task["choice"] = truth
		key := uuid.NewString()
		for range 2 { // the answer was lost on the way
			if got := answer(botho, task, key); got["right"] != true {
				t.Fatalf("%v is answered %v", task, got)
			}
		}
		if harm != "hands" {
			answer(botho, task, uuid.NewString())
		}
	}
	if got := stand(botho, "before") + ", " + stand(maren, "before"); got != "15 7/8 0 false, 8 0/8 7 false" {
		t.Errorf("they stand at %s", got)
	}
	if code, _ := sign(id, "rip"); code != 422 {
		t.Error("signed off with one skill missing")
	}
	last := obj{"skill": "before/hands", "number": 7, "level": 1}
	last["choice"] = answer(maren, obj{"skill": "before/hands", "number": 7, "level": 1, "choice": "stand"}, uuid.NewString())["truth"]
	answer(botho, last, uuid.NewString())
	if got := stand(botho, "before"); got != "16 8/8 0 true" {
		t.Errorf("Botho stands at %s", got)
	}
	if code, said := sign(id, "rip", "sheet"); code != 200 {
		t.Errorf("not signed off after all: %d %s", code, said)
	}
	// What somebody had may stay, and go; more may not come.
	for _, cuts := range [][]string{{"rip", "sheet"}, {"rip"}, {}} {
		if code, said := sign(other, cuts...); code != map[bool]int{true: 422, false: 200}[len(cuts) == 2] {
			t.Errorf("%v for Ines: %d %s", cuts, code, said)
		}
	}
	all := maren.must(200, "GET", "/people", nil)["items"]
	if named(all, "Botho")["drills"] == nil || named(all, "Ines")["drills"] == nil {
		t.Error("an owner does not see how people stand")
	}
	all = botho.must(200, "GET", "/people", nil)["items"]
	if named(all, "Botho")["drills"] == nil || named(all, "Ines")["drills"] != nil || named(all, "Maren")["drills"] != nil {
		t.Error("a learner sees how others stand, or not how they do")
	}
	// A day on, what was right twice waits; what was right once at last is due.
	h.now = h.now.Add(25 * time.Hour)
	if got := stand(botho, "before"); got != "16 8/8 8 true" {
		t.Errorf("a day later Botho stands at %s", got)
	}
}

// A drill asks what is due; what was wrong comes at once, and easier.
func TestDrillsAskWhatIsDue(t *testing.T) {
	b := newBench(t)
	task := func(query string) obj { return b.get("/drills/read/task?units=mm&number=11" + query) }
	next := func() string {
		got := task("")
		return fmt.Sprint(got["skill"], " ", got["level"])
	}
	answer := func(skill string, level int, value float64) obj {
		w := b.post("/drill-answers", obj{"skill": skill, "number": 11, "level": level, "value": value, "units": "mm"}, "Idempotency-Key", uuid.NewString())
		if w.Code != 201 {
			t.Fatalf("%s: %d %s", skill, w.Code, w.Body)
		}
		return decode(t, w)
	}
	if got := next(); got != "read/count 1" {
		t.Errorf("first it asks %s", got)
	}
	teeth := task("")["blade"].(obj)["teeth"].(float64)
	if got := answer("read/count", 1, teeth); got["right"] != true || got["value"] != teeth {
		t.Errorf("%v teeth are %v", teeth, got)
	}
	if got := next(); got != "read/hook 1" {
		t.Errorf("then %s", got)
	}
	hook := task("&skill=read/hook&level=3")["blade"].(obj)["hook_deg"].(float64)
	if got := answer("read/hook", 3, hook+1.5); got["right"] != false || got["value"] != hook {
		t.Errorf("%v read as %v is %v", hook, hook+1.5, got)
	}
	if got := next(); got != "read/hook 2" {
		t.Errorf("after a wrong one %s", got)
	}
}

func TestABoardIsFed(t *testing.T) {
	b := newBench(t)
	task := b.get("/drills/feed/task?units=in&number=5&skill=feed/board&level=1")
	board := task["feed"].(obj)
	long := board["length_mm"].(float64)
	feed := math.Sqrt(board["slowest_m_min"].(float64) * board["fastest_m_min"].(float64)) // m/min
	push := func(feed float64) obj {
		ms := (long + 1) / (feed * 1000 / 60000)
		return obj{"skill": "feed/board", "number": 5, "level": 1, "units": "in", "push": obj{"ms": []float64{0, ms}, "mm": []float64{0, long + 1}}}
	}
	for at, right := range map[float64]bool{feed: true, 0.25: false} {
		w := b.post("/drill-answers", push(at), "Idempotency-Key", uuid.NewString())
		got := decode(t, w)
		if w.Code != 201 || got["right"] != right || got["wall"].(obj)["clean"] != right {
			t.Fatalf("fed at %.2f: %d %v %v", at, w.Code, got["right"], got["says"])
		}
		if n := len(got["wall"].(obj)["scorch"].([]any)); n != int(math.Ceil(long)) {
			t.Errorf("%d mm of wall", n)
		}
	}
	bad := push(feed)
	bad["push"].(obj)["mm"] = []float64{0}
	for field, body := range map[string]obj{"push.mm": bad, "push": {"skill": "feed/board", "number": 5, "level": 1, "units": "mm", "push": obj{"ms": []float64{0, 1}, "mm": []float64{50, 60}}},
		"skill": {"skill": "read/minds", "number": 5, "level": 1, "units": "mm"}} {
		if w := b.post("/drill-answers", body, "Idempotency-Key", uuid.NewString()); w.Code != 422 || decode(t, w)["field"] != field {
			t.Errorf("%s: %d %s", field, w.Code, w.Body)
		}
	}
	if w := b.do("GET", "/api/v1/drills/feed/task?units=mm&number=5&skill=read/hook", ""); w.Code != 422 {
		t.Errorf("a hook is fed: %d", w.Code)
	}
}
