package httpapi_test

import (
	"encoding/json"
	"net/http"
	"strings"
	"testing"

	"github.com/google/uuid"
)

// Numbers that JSON can write and nobody means are told so, and never a 500.
func TestOddNumbers(t *testing.T) {
	b := newBench(t)
	blade := func(teeth string) string {
		raw, _ := json.Marshal(newBlade(obj{"teeth": 4242}))
		return strings.Replace(string(raw), "4242", teeth, 1)
	}
	board := func(span string) string {
		return `{"material":"birch-ply","thickness_mm":18,"span_mm":` + span + `,"breadth_mm":600,"line_mm":900,"units":"mm"}`
	}
	key := func() []string { return []string{"Idempotency-Key", uuid.NewString()} }
	id := b.blade["Plough"]
	for name, w := range map[string]struct {
		method, path, body string
		headers            []string
		code               int
		says               string
	}{
		"teeth as 40.0":       {"POST", "/blades", blade("40.0"), key(), 400, "whole number"},
		"teeth as 4e1":        {"POST", "/blades", blade("4e1"), key(), 400, "whole number"},
		"teeth as -0.0":       {"POST", "/blades", blade("-0.0"), key(), 400, "whole number"},
		"teeth past all":      {"POST", "/blades", blade("1e400"), key(), 400, ""},
		"a span of nothing":   {"POST", "/support-plans", board("5e-324"), nil, 422, "span_mm"},
		"a far version":       {"PUT", "/blades/" + id, blade("40"), []string{"If-Match", `"99999999999999999999"`}, 400, "If-Match"},
		"a late version":      {"PUT", "/blades/" + id, blade("40"), []string{"If-Match", `"999999999"`}, 412, "nother person"},
		"a far row":           {"POST", "/log/9223372036854775808/strike", `{}`, key(), 400, "id"},
		"a name in two lines": {"POST", "/blades", strings.Replace(blade("40"), `"Sprite"`, `"Spr\u000aite"`, 1), key(), 422, "line break"},
		"a name with a zero":  {"POST", "/blades", strings.Replace(blade("40"), `"Sprite"`, `"Spr\u0000ite"`, 1), key(), 422, "line break"},
		"a note with a zero":  {"POST", "/blades/" + id + "/notes", `{"note":"a\u0000b"}`, key(), 422, "can't be saved"},
		"a note in two lines": {"POST", "/blades/" + id + "/notes", `{"note":"a\u000ab"}`, key(), 201, ""},
		"a page of none":      {"GET", "/blades?limit=1e2", "", nil, 400, "limit"},
	} {
		r := b.do(w.method, "/api/v1"+w.path, w.body, w.headers...)
		if r.Code != w.code || !strings.Contains(r.Body.String(), w.says) || r.Code == http.StatusInternalServerError {
			t.Errorf("%s: %d %s", name, r.Code, r.Body)
		}
	}
}

// What is refused, found and imported is said in the language of the request; a
// page's own language goes before the browser's.
func TestLanguages(t *testing.T) {
	b := newBench(t)
	for _, w := range []struct{ path, accept, cookie, says string }{
		{"/blades/" + uuid.NewString(), "es-MX,en;q=0.5", "", "No existe en este taller: "},
		{"/blades/" + uuid.NewString(), "xx, *;q=0", "", "There is no such blade"},
		{"/blades/" + uuid.NewString(), ";;", "", "There is no such blade"},
		{"/blades/" + uuid.NewString(), "es", "en", "There is no such blade"},
		{"/blades/" + uuid.NewString(), "", "es", "No existe en este taller: "},
		{"/blades?limit=1e2", "es", "", "no se puede leer"},
		{"/nothing", "es", "", "No hay nada en esta direcci"},
		{"/materials", "es", "", `"cerezo"`},
	} {
		headers := []string{"Accept-Language", w.accept}
		if w.cookie != "" {
			headers = append(headers, "Cookie", "corte-language="+w.cookie)
		}
		if r := b.do("GET", "/api/v1"+w.path, "", headers...); !strings.Contains(r.Body.String(), w.says) {
			t.Errorf("%s in %q, pages in %q: %d %s", w.path, w.accept, w.cookie, r.Code, r.Body)
		}
	}
}
