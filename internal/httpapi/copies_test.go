package httpapi_test

import (
	"io"
	"log/slog"
	"net/http"
	"os"
	"path/filepath"
	"reflect"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"

	"corte/internal/httpapi"
	"corte/internal/shop"
	"corte/internal/shopfile"
	"corte/internal/store"
)

// beside is the same server on an empty shop in the same database.
func (b *bench) beside(copies *shopfile.Keeper) *bench {
	b.t.Helper()
	sh, _, err := b.st.EnsureShop(b.t.Context(), store.Shop{ID: uuid.New(), Slug: uuid.NewString(), Name: "Our shop", ChangeMinutes: 3})
	if err != nil {
		b.t.Fatal(err)
	}
	h, err := httpapi.New(httpapi.Options{Service: shop.New(b.st, time.Now), Shop: sh.ID, Web: page, Pages: []string{""}, Log: slog.New(slog.NewTextHandler(io.Discard, nil)), Copies: copies})
	if err != nil {
		b.t.Fatal(err)
	}
	return &bench{t: b.t, url: b.url, h: h, st: b.st, shop: sh.ID}
}

const raw = "application/octet-stream"

// A shop goes out by one server and comes into an empty shop by another: looked
// at first, whole, and once; a key that was sent before is known there too.
func TestAWholeShopGoesOutAndComesIn(t *testing.T) {
	b := newBench(t)
	key := uuid.NewString()
	made := b.do("POST", "/api/v1/blades/"+b.blade["Plough"]+"/notes", `{"note":"kept"}`, "Idempotency-Key", key)
	if made.Code != http.StatusCreated {
		t.Fatalf("%d: %s", made.Code, made.Body)
	}
	out := b.do("GET", "/api/v1/shop-file", "")
	file := out.Body.String()
	if out.Code != 200 || !strings.HasPrefix(file, "PK") || !strings.Contains(out.Header().Get("Content-Disposition"), ".corte.zip") {
		t.Fatalf("%d, %v", out.Code, out.Header())
	}
	to := b.beside(nil)
	w := to.whole()
	seen := decode(t, to.do("POST", "/api/v1/shop-file-previews", file, "Content-Type", raw))
	if seen["name"] != "Lanterngate Playhouse scene shop" || len(seen["faults"].([]any)) != 0 || seen["rows_here"].(float64) != 0 || w.moved() {
		t.Errorf("looked at: %v", seen)
	}
	for name, bad := range map[string]string{"half": file[:len(file)/2], "none": "Corte", "empty": ""} {
		for _, call := range []string{"POST /api/v1/shop-file-previews", "PUT /api/v1/shop-file"} {
			method, path, _ := strings.Cut(call, " ")
			if r := to.do(method, path, bad, "Content-Type", raw); r.Code != 422 && !(bad == "" && r.Code == 400) || w.moved() {
				t.Errorf("%s of %s: %d: %s", call, name, r.Code, r.Body)
			}
		}
	}
	odd := strings.Replace(file, "PK\x03\x04", "PK\x03\x05", 1) // the manifest's own head
	if r := to.do("PUT", "/api/v1/shop-file", odd, "Content-Type", raw); r.Code != 422 || w.moved() {
		t.Errorf("damaged: %d: %s", r.Code, r.Body)
	}
	if r := to.do("PUT", "/api/v1/shop-file", file, "Content-Type", raw); r.Code != 200 {
		t.Fatalf("brought in: %d: %s", r.Code, r.Body)
	}
	if !reflect.DeepEqual(b.get("/log?limit=100"), to.get("/log?limit=100")) || !reflect.DeepEqual(b.get("/blades?limit=500"), to.get("/blades?limit=500")) || to.get("/shop")["name"] != seen["name"] {
		t.Error("what came in is not what went out")
	}
	if again := to.do("POST", "/api/v1/blades/"+b.blade["Plough"]+"/notes", `{"note":"kept"}`, "Idempotency-Key", key); again.Code != made.Code || again.Body.String() != made.Body.String() {
		t.Errorf("sent again it is answered %d: %s", again.Code, again.Body)
	}
	w.moved()
	if r := to.do("PUT", "/api/v1/shop-file", file, "Content-Type", raw); r.Code != http.StatusConflict || !strings.Contains(r.Body.String(), "isn't empty") || w.moved() {
		t.Errorf("a second time: %d: %s", r.Code, r.Body)
	}
	if r := decode(t, to.do("POST", "/api/v1/shop-file-previews", file, "Content-Type", raw)); r["rows_here"].(float64) < 500 {
		t.Errorf("looked at from there: %v", r["rows_here"])
	}
}

// One copy a day is kept, so many of them, and nothing of anybody else's; what
// goes wrong is said until one is made again.
func TestCopiesAreKept(t *testing.T) {
	b := newBench(t)
	now := time.Date(2026, 11, 20, 6, 0, 0, 0, time.UTC)
	dir := filepath.Join(t.TempDir(), "copies")
	k := &shopfile.Keeper{Store: b.st, Dir: dir, Keep: 3, By: "a test", Now: func() time.Time { return now }}
	other := b.beside(k)
	k.Shop = other.shop
	if none := b.get("/copies"); none["daily"] != false {
		t.Errorf("without a folder: %v", none)
	}
	if r := b.post("/copies", obj{}); r.Code != 422 {
		t.Errorf("without a folder: %d", r.Code)
	}
	for range 5 {
		if r := other.do("POST", "/api/v1/copies", ""); r.Code != 201 {
			t.Fatalf("%d: %s", r.Code, r.Body)
		}
		now = now.Add(24 * time.Hour)
	}
	foreign := filepath.Join(dir, "00000000-20200101T000000Z.corte.zip")
	if err := os.WriteFile(foreign, []byte("x"), 0o600); err != nil {
		t.Fatal(err)
	}
	all := other.get("/copies")
	if items := all["items"].([]any); len(items) != 3 || items[0].(obj)["at"] != "2026-11-24T06:00:00Z" || items[0].(obj)["bytes"].(float64) < 1000 || all["trouble"] != nil {
		t.Errorf("%v", all)
	}
	// Many in one day throw away no other day's; of a day that is over its last is
	// kept, and a half of a Corte that was killed is swept a day later.
	for range 4 {
		now = now.Add(time.Minute)
		if r := other.do("POST", "/api/v1/copies", ""); r.Code != 201 {
			t.Fatalf("%d: %s", r.Code, r.Body)
		}
	}
	ats := func() (out []string) {
		for _, c := range other.get("/copies")["items"].([]any) {
			out = append(out, c.(obj)["at"].(string)[8:16])
		}
		return out
	}
	if got, want := ats(), []string{"25T06:04", "25T06:03", "25T06:02", "25T06:01", "24T06:00", "23T06:00"}; !slices.Equal(got, want) {
		t.Errorf("on the day itself %v, want %v", got, want)
	}
	young, old := filepath.Join(dir, ".corte-1.part"), filepath.Join(dir, ".corte-2.part")
	for path, at := range map[string]time.Time{young: now, old: now.Add(-time.Hour)} {
		if err := os.WriteFile(path, nil, 0o600); err != nil {
			t.Fatal(err)
		}
		if err := os.Chtimes(path, at, at); err != nil {
			t.Fatal(err)
		}
	}
	now = now.Add(24*time.Hour - time.Minute)
	if r := other.do("POST", "/api/v1/copies", ""); r.Code != 201 {
		t.Fatalf("%d: %s", r.Code, r.Body)
	}
	if got, want := ats(), []string{"26T06:03", "25T06:04", "24T06:00"}; !slices.Equal(got, want) {
		t.Errorf("a day later %v, want %v", got, want)
	}
	if left, err := filepath.Glob(filepath.Join(dir, ".corte-*")); err != nil || !slices.Equal(left, []string{young}) {
		t.Errorf("halves: %v, %v", left, err)
	}
	if _, err := os.Stat(foreign); err != nil {
		t.Errorf("somebody else's file: %v", err)
	}
	// The folder is gone, and a file is in its place.
	if err := os.RemoveAll(dir); err != nil {
		t.Fatal(err)
	}
	if err := os.WriteFile(dir, nil, 0o600); err != nil {
		t.Fatal(err)
	}
	if r := other.do("POST", "/api/v1/copies", ""); r.Code != 409 || !strings.Contains(r.Body.String(), "not a directory") || !strings.Contains(k.Trouble(), "not a directory") {
		t.Errorf("without a folder to write to: %d, %q", r.Code, k.Trouble())
	}
	if err := os.Remove(dir); err != nil {
		t.Fatal(err)
	}
	if r := other.do("POST", "/api/v1/copies", ""); r.Code != 201 || other.get("/copies")["trouble"] != nil {
		t.Errorf("with one again: %d: %s", r.Code, r.Body)
	}
	if left, err := filepath.Glob(filepath.Join(dir, ".corte-*")); err != nil || len(left) > 0 {
		t.Errorf("halves are left: %v, %v", left, err)
	}
}
