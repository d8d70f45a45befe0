package httpapi_test

import (
	"fmt"
	"net/http"
	"strings"
	"sync"
	"testing"

	"github.com/google/uuid"
	"github.com/jmoiron/sqlx"
)

// A retry is answered as the first was, whatever has happened since.
func TestARetryOutlivesTheWorld(t *testing.T) {
	b := newBench(t)
	plough, table := b.blade["Plough"], b.saw["table"]
	kept := []struct {
		path string
		body obj
		say  obj // with the same key, and refused for it
		key  []string
		id   any
	}{
		{path: "/cuts", body: b.made(obj{"pieces": 3}), say: b.made(obj{"pieces": 4})},
		{path: "/saws/" + table + "/moves", body: obj{"note": "to the paint frame"}, say: obj{"note": "and back"}},
		{path: "/trials", say: obj{}, body: obj{"cut": b.cut(obj{"material": "hard-maple"}), "units": "mm", "repeats": 4, "blind": false,
			"settings": []obj{{"blade_id": plough, "height_mm": 31}, {"blade_id": plough, "height_mm": 60}}}},
	}
	for i := range kept {
		k := &kept[i]
		k.key = []string{"Idempotency-Key", uuid.NewString()}
		w := b.post(k.path, k.body, k.key...)
		if w.Code != http.StatusCreated {
			t.Fatalf("%s: %d %s", k.path, w.Code, w.Body)
		}
		k.id = decode(t, w)["id"]
	}
	key := func() []string { return []string{"Idempotency-Key", uuid.NewString()} }
	saw := b.get("/saws/" + table)
	for _, w := range []int{
		b.post("/cuts", b.made(obj{"pieces": 9, "wall": "black"}), key()...).Code, // foretells another figure
		b.post("/blades/"+plough+"/sending", obj{"to": "the saw doctor"}, key()...).Code,
		b.do("PUT", "/api/v1/saws/"+table+"/retirement", `{"reason":"sold","note":""}`, "If-Match", fmt.Sprintf(`"%v"`, saw["version"])).Code,
	} {
		if w/100 != 2 {
			t.Fatalf("the world did not move on: %d", w)
		}
	}
	before := b.logged("Plough")
	for _, k := range kept {
		w := b.post(k.path, k.body, k.key...)
		if w.Code != http.StatusCreated || decode(t, w)["id"] != k.id {
			t.Errorf("%s again: %d %s", k.path, w.Code, w.Body)
		}
		if w := b.post(k.path, k.say, k.key...); w.Code != http.StatusUnprocessableEntity || decode(t, w)["field"] != "Idempotency-Key" {
			t.Errorf("%s with other content: %d %s", k.path, w.Code, w.Body)
		}
		if w := b.post(k.path, k.body, key()...); w.Code/100 == 2 && k.path != "/saws/"+table+"/moves" {
			t.Errorf("%s anew: %d", k.path, w.Code)
		}
	}
	if after := b.logged("Plough"); after != before {
		t.Errorf("retries logged: %d rows, then %d", before, after)
	}
	// A key is of one address: the same words to another saw are something else.
	if w := b.post("/saws/"+b.saw["miter"]+"/moves", kept[1].body, kept[1].key...); w.Code != http.StatusUnprocessableEntity || decode(t, w)["field"] != "Idempotency-Key" {
		t.Errorf("the same key at another saw: %d %s", w.Code, w.Body)
	}
	// What answers nothing answers it again.
	gone := []string{"Idempotency-Key", uuid.NewString(), "Accept-Encoding", "gzip"}
	m := decode(t, b.post("/mountings", obj{"saw_id": b.saw["circular"], "blade_id": b.blade["Trot"], "units": "mm"}))
	for range 2 {
		if w := b.do("DELETE", fmt.Sprintf("/api/v1/mountings/%v", m["id"]), "", gone...); w.Code != http.StatusNoContent || w.Body.Len() != 0 {
			t.Errorf("given up: %d %s", w.Code, w.Body)
		}
	}
	// What was refused leaves its key free; what was made by an older Corte does not.
	again := key()
	if w := b.post("/blades", newBlade(obj{"teeth": 1}), again...); w.Code != 422 {
		t.Errorf("one tooth: %d", w.Code)
	}
	if w := b.post("/blades", newBlade(nil), again...); w.Code != http.StatusCreated {
		t.Errorf("put right: %d %s", w.Code, w.Body)
	}
	db := sqlx.MustConnect("pgx", b.url)
	defer db.Close()
	// Without its answer nothing is kept, as when the server dies between the two.
	db.MustExec(`ALTER TABLE idempotency ADD CONSTRAINT dies CHECK (key <> 'dies here')`)
	if w := b.post("/saws/"+b.saw["miter"]+"/moves", obj{"note": "lost"}, "Idempotency-Key", "dies here"); w.Code != http.StatusInternalServerError {
		t.Errorf("its answer was not kept: %d %s", w.Code, w.Body)
	}
	if row := b.get("/log?saw_id=" + b.saw["miter"] + "&limit=1")["items"].([]any)[0].(obj); row["note"] == "lost" {
		t.Errorf("kept without its answer: %v", row)
	}
	db.MustExec(`UPDATE idempotency SET status = NULL WHERE key = $1`, again[1])
	if w := b.post("/blades", newBlade(nil), again...); w.Code != http.StatusConflict || !strings.Contains(w.Body.String(), "Nothing was done twice") {
		t.Errorf("a key from before: %d %s", w.Code, w.Body)
	}
}

// Several tablets that end or begin at once: one mounting, and each its own.
func TestMountingsAtOnce(t *testing.T) {
	b := newBench(t)
	table := b.saw["table"]
	start := func(name string) obj {
		w := b.post("/mountings", obj{"saw_id": table, "blade_id": b.blade[name], "units": "mm"})
		if w.Code != http.StatusOK {
			t.Errorf("%d %s", w.Code, w.Body)
		}
		return decode(t, w)
	}
	atOnce := func(n int, do func(i int)) {
		var wg sync.WaitGroup
		for i := range n {
			wg.Go(func() { do(i) })
		}
		wg.Wait()
	}
	names := []string{"Needle", "Mortise"}
	atOnce(8, func(i int) {
		if m := start(names[i%2]); m["blade_id"] != b.blade[names[i%2]] {
			t.Errorf("a beginning with %s was answered with another blade", names[i%2])
		}
	})
	m := start("Needle")
	answers := obj{}
	for _, s := range m["steps"].([]any) {
		for _, c := range s.(obj)["checks"].([]any) {
			answers[c.(obj)["id"].(string)] = true
		}
	}
	at := "/mountings/" + m["id"].(string)
	m = decode(t, b.put(at, obj{"step": 5, "answers": answers, "units": "mm"}, "If-Match", fmt.Sprintf(`"%v"`, m["version"])))
	mounted := func() (n int) {
		for _, row := range b.get("/log?blade_id=" + b.blade["Needle"] + "&limit=100")["items"].([]any) {
			if row.(obj)["kind"] == "mounted" {
				n++
			}
		}
		return n
	}
	before := mounted()
	codes := make([]int, 8)
	keys := []string{uuid.NewString(), uuid.NewString()}
	atOnce(len(codes), func(i int) {
		codes[i] = b.post(at+"/end", obj{"by": "Ilse"}, "If-Match", fmt.Sprintf(`"%v"`, m["version"]), "Idempotency-Key", keys[i%2]).Code
	})
	won := map[int]int{}
	for i, code := range codes {
		if code == http.StatusCreated {
			won[i%2]++
		} else if code != http.StatusNotFound && code != http.StatusPreconditionFailed {
			t.Errorf("an end at once with others: %d", code)
		}
	}
	if n := mounted() - before; n != 1 || len(won) != 1 || won[0]+won[1] != 4 {
		t.Errorf("%d mountings were logged; four retries of one key should have been answered: %v", n, codes)
	}
}
