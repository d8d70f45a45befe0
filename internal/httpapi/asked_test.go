package httpapi_test

import (
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"github.com/google/uuid"

	"corte/internal/httpapi/contract"
)

// Every page that can be asked for, of a thing that is there, of one that is
// not, and with every parameter spoilt in turn: an answer or a sentence, never a
// crash, and reading changes nothing.
func TestWhateverIsAskedIsAnswered(t *testing.T) {
	b := newBench(t)
	spec, err := contract.GetSpec()
	if err != nil {
		t.Fatal(err)
	}
	rows := len(b.get("/log?limit=500")["items"].([]any))
	asked, answered := 0, map[string]bool{}
	ask := func(path, name string, query url.Values) {
		if strings.HasPrefix(path, "/gauges/stream") || path == "/events" {
			return // it does not end
		}
		w := b.do(http.MethodGet, "/api/v1"+path+"?"+query.Encode(), "")
		asked++
		switch {
		case w.Code >= 500:
			t.Errorf("%s?%s: %d %s", path, query.Encode(), w.Code, w.Body)
		case w.Code >= 400:
			if p := decode(t, w); len(p["detail"].(string)) < 8 || p["request_id"] == nil {
				t.Errorf("%s?%s is refused with %s", path, query.Encode(), w.Body)
			}
		default:
			answered[name] = true
		}
	}
	for path, item := range spec.Paths.Map() {
		if item.Get == nil {
			continue
		}
		good := url.Values{}
		var names []string
		for _, p := range item.Get.Parameters {
			if p.Value.In != "query" {
				continue
			}
			names = append(names, p.Value.Name)
			if p.Value.Required {
				good.Set(p.Value.Name, fmt.Sprint(b.plausible(p.Value.Name, p.Value.Schema.Value, 1)))
			}
		}
		for _, id := range []string{b.blade["Trapdoor"], b.saw["table"], uuid.NewString(), "nonsense", "%00", strings.Repeat("9", 400)} {
			at := strings.NewReplacer("{id}", id, "{name}", id, "{secret}", id).Replace(path)
			ask(at, path, good)
			if at == path {
				break
			}
		}
		for _, name := range names {
			for _, bad := range []string{"", "x", "-1", "1e400", "99999999999999999999", "\x00", "2026-13-45", strings.Repeat("a", 3000)} {
				spoilt := url.Values{}
				for k, v := range good {
					spoilt[k] = v
				}
				spoilt.Set(name, bad)
				ask(strings.NewReplacer("{id}", b.blade["Trapdoor"], "{name}", "dial", "{secret}", "none").Replace(path), path, spoilt)
			}
		}
	}
	if len(answered) < 25 || asked < 250 {
		t.Errorf("%d calls, %d pages answered: the test no longer reaches much", asked, len(answered))
	}
	if now := len(b.get("/log?limit=500")["items"].([]any)); now != rows {
		t.Errorf("asking left the log with %d rows of %d", now, rows)
	}
}
