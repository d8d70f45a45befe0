package httpapi_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"image"
	"image/draw"
	"image/jpeg"
	"net/url"
	"reflect"
	"strings"
	"testing"

	"corte/core/sight"
	"corte/internal/offline"
	"corte/internal/photo/phototest"

	"github.com/google/uuid"
)

// What a browser works out over the shelf that it last saw is what the server
// answers, to the letter: for every saw, several woods and directions, in both
// units, with what is refused.
func TestTheShelfAnswersAsTheServerDoes(t *testing.T) {
	b := newBench(t)
	if w := b.truing(obj{"test": "heel", "saw_id": b.saw["table"], "first_mm": []float64{0, 0.07}, "span_mm": 220, "dial": "right", "units": "mm"}); w.Code != 201 {
		t.Fatal(w.Code, w.Body)
	}
	for _, measured := range []obj{
		{"test": "clearance", "saw_id": b.saw["table"], "blade_id": b.blade["Plough"], "first_mm": []float64{0.2, 0.23, 0.21, 0.25, 0.2, 0.22}, "units": "mm"},
		{"test": "runout", "saw_id": b.saw["table"], "blade_id": b.blade["Plough"], "first_mm": []float64{0, 0.03, 0.06, 0.02}, "units": "mm"},
	} {
		if w := b.truing(measured); w.Code != 201 {
			t.Fatal(w.Code, w.Body)
		}
	}
	for range 3 {
		if w := b.post("/cuts", b.made(obj{"wall": "brown"}), "Idempotency-Key", uuid.NewString()); w.Code != 201 {
			t.Fatal(w.Code, w.Body)
		}
	}
	host, err := offline.New(b.do("GET", "/api/v1/shelf", "").Body.Bytes())
	if err != nil {
		t.Fatal(err)
	}
	n, refused := 0, 0
	same := func(address string, body obj) {
		t.Helper()
		raw, _ := json.Marshal(body)
		server := b.post(address, body)
		if address == "/length" {
			server = b.do("GET", "/api/v1/length?units="+body["units"].(string)+"&text="+url.QueryEscape(body["text"].(string)), "")
		}
		status, out := host.Ask(address, raw)
		var want, got obj
		if json.Unmarshal(server.Body.Bytes(), &want) != nil || json.Unmarshal(out, &got) != nil {
			t.Fatalf("%s %s: %s, %s", address, raw, server.Body, out)
		}
		if n++; server.Code != 200 {
			refused++
			for _, of := range []obj{want, got} {
				delete(of, "request_id")
				delete(of, "title")
				delete(of, "type")
			}
		}
		if status != server.Code || !reflect.DeepEqual(want, got) {
			t.Fatalf("%s %s:\n%d %s\nnot\n%d %s", address, raw, status, out, server.Code, server.Body)
		}
	}
	for i, saw := range []string{"table", "miter", "circular"} {
		for k, wood := range []string{"hard-maple", "cherry", "yellow-pine", "birch-ply", "aluminium", "tile"} {
			for _, across := range []string{"rip", "crosscut", "sheet"} {
				units := []string{"mm", "in"}[(i+k)%2]
				cut := b.cut(obj{"saw_id": b.saw[saw], "material": wood, "direction": across, "finish": []string{"fine", "show", "rough"}[k%3], "pieces": 1 + 6*k, "thickness_mm": 18 + 5*k})
				same("/plans", obj{"cut": cut, "units": units})
				for _, name := range []string{"Plough", "Curtain", "Trot"} {
					same("/sweeps", obj{"cut": cut, "blade_id": b.blade[name], "step_mm": 5, "also_mm": 30, "units": units})
				}
				same("/comparisons", obj{"cut": cut, "units": units, "pins": []obj{{"blade_id": b.blade["Plough"]}, {"blade_id": b.blade["Curtain"], "height_mm": 40}, {"blade_id": b.blade["Reed"]}}})
			}
		}
	}
	for _, line := range []float64{300, 1200, 2440} {
		same("/support-plans", obj{"material": "softwood-ply", "thickness_mm": 18, "span_mm": 2440, "breadth_mm": 1220, "line_mm": line, "now_mm": []float64{200, 2200}, "units": "in"})
	}
	for _, text := range []string{"1 3/16", "30 mm", "1,220 mm", "a foot", "12,5"} {
		same("/length", obj{"text": text, "units": "mm"})
	}
	// A photo that the browser has decoded is read as the server reads its file.
	photo := phototest.Blade(t, 60)
	img, err := jpeg.Decode(bytes.NewReader(photo))
	if err != nil {
		t.Fatal(err)
	}
	pix := image.NewRGBA(img.Bounds())
	draw.Draw(pix, pix.Rect, img, image.Point{}, draw.Src)
	for _, taps := range [][]float64{nil, {0.922, 0.5, 0.289, 0.866, 0.289, 0.134}, {0.1, 0.1, 0.2, 0.2, 0.3, 0.3}} {
		query := ""
		if taps != nil {
			query = "?taps=" + strings.Trim(strings.ReplaceAll(fmt.Sprint(taps), " ", ","), "[]")
		}
		server := b.do("POST", "/api/v1/blade-looks"+query, string(photo), "Content-Type", "application/octet-stream")
		status, out := host.Look("/blade-looks", nil, sight.Picture{Wide: pix.Rect.Dx(), High: pix.Rect.Dy(), Pix: pix.Pix}, taps)
		if status != server.Code || status == 200 && strings.TrimSpace(server.Body.String()) != string(out) {
			t.Errorf("a photo tapped at %v:\n%d %s\nnot\n%d %s", taps, status, out, server.Code, server.Body)
		}
	}
	for address, c := range map[string]struct {
		photo []byte
		of    obj
	}{
		"/wall-looks": {phototest.Wall(t), obj{"thickness_mm": 20, "saw_id": b.saw["table"], "blade_id": b.blade["Plough"], "feed_m_min": 8, "units": "in"}},
		"/edge-looks": {phototest.Edge(t), obj{"length_mm": 80, "face": "below", "units": "in"}},
	} {
		if img, err = jpeg.Decode(bytes.NewReader(c.photo)); err != nil {
			t.Fatal(err)
		}
		pix = image.NewRGBA(img.Bounds())
		draw.Draw(pix, pix.Rect, img, image.Point{}, draw.Src)
		query := url.Values{}
		for name, v := range c.of {
			query.Set(name, fmt.Sprint(v))
		}
		raw, _ := json.Marshal(c.of)
		server := b.do("POST", "/api/v1"+address+"?"+query.Encode(), string(c.photo), "Content-Type", "application/octet-stream")
		if status, out := host.Look(address, raw, sight.Picture{Wide: pix.Rect.Dx(), High: pix.Rect.Dy(), Pix: pix.Pix}, nil); status != 200 || strings.TrimSpace(server.Body.String()) != string(out) {
			t.Errorf("%s:\n%d %s\nnot\n%d %s", address, status, out, server.Code, server.Body)
		}
	}
	same("/unmarked-blades", obj{"diameter_mm": 254, "bore_ratio": 0.0625, "gullet_ratio": 0.05})
	same("/plans", obj{"cut": b.cut(obj{"saw_id": "00000000-0000-0000-0000-000000000000"}), "units": "mm"})
	if n < 200 || refused < 20 {
		t.Errorf("only %d answers were compared, %d of them refusals", n, refused)
	}
	if status, out := host.Ask("/cuts", nil); status != 404 {
		t.Errorf("what is no question to the core is answered with %d %s", status, out)
	}
	if _, err := offline.New([]byte(`{"Edition": 1}`)); err == nil {
		t.Error("a shelf of another edition is weighed")
	}
	if _, err := offline.New([]byte(fmt.Sprint(n))); err == nil {
		t.Error("a number is no shelf")
	}
}
