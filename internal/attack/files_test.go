package attack

import (
	"archive/zip"
	"bytes"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"io"
	"net/url"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"

	"corte/internal/httpapi"
	"corte/internal/shopfile"
	"corte/internal/store"
)

func mustURL(t *testing.T, s string) *url.URL {
	t.Helper()
	u, err := url.Parse(s)
	if err != nil {
		t.Fatal(err)
	}
	return u
}

// forged is a shop file with one entry changed, and sums that are right again.
func forged(t *testing.T, file []byte, entry string, change func([]byte) []byte) []byte {
	t.Helper()
	z, err := zip.NewReader(bytes.NewReader(file), int64(len(file)))
	if err != nil {
		t.Fatal(err)
	}
	all, names := map[string][]byte{}, []string{}
	for _, e := range z.File {
		r, err := e.Open()
		if err != nil {
			t.Fatal(err)
		}
		raw, err := io.ReadAll(r)
		if err != nil {
			t.Fatal(err)
		}
		all[e.Name], names = raw, append(names, e.Name)
	}
	was := all[entry]
	if all[entry] = change(bytes.Clone(was)); bytes.Equal(was, all[entry]) {
		t.Fatalf("nothing of %s was changed", entry)
	}
	var sums struct {
		Entries map[string]map[string]any `json:"entries"`
	}
	if err := json.Unmarshal(all["sums.json"], &sums); err != nil {
		t.Fatal(err)
	}
	sum := sha256.Sum256(all[entry])
	sums.Entries[entry]["sha256"], sums.Entries[entry]["bytes"] = hex.EncodeToString(sum[:]), len(all[entry])
	if all["sums.json"], err = json.Marshal(sums); err != nil {
		t.Fatal(err)
	}
	var out bytes.Buffer
	w := zip.NewWriter(&out)
	for _, name := range names {
		to, err := w.CreateHeader(&zip.FileHeader{Name: name, Method: zip.Deflate, Modified: time.Now()})
		if err != nil {
			t.Fatal(err)
		}
		if _, err := to.Write(all[name]); err != nil {
			t.Fatal(err)
		}
	}
	if err := w.Close(); err != nil {
		t.Fatal(err)
	}
	return out.Bytes()
}

// A shop file whose sums are right and whose rows are not is refused with a
// sentence, over HTTP as well; nothing of it is written, and every shop's server
// starts as before.
func TestAHostileFileStopsNoServer(t *testing.T) {
	x := open(t)
	file := []byte(x.client().do("GET", "/shop-file", nil).body)
	there, _, err := x.st.EnsureShop(t.Context(), store.Shop{ID: uuid.New(), Slug: "there", Name: "Over there", ChangeMinutes: 3})
	if err != nil {
		t.Fatal(err)
	}
	o := x.opts
	o.Shop = there.ID
	x.srv.Config.Handler = x.handler(httpapi.Options{Service: o.Service, Shop: there.ID, Web: o.Web, Pages: o.Pages, Log: o.Log})
	c := x.client()
	put := func(old, new string) func([]byte) []byte {
		return func(b []byte) []byte { return bytes.Replace(b, []byte(old), []byte(new), 1) }
	}
	for name, f := range map[string][]byte{
		"a make":        forged(t, file, "tables/blades.ndjson", put(`"make": "`, `"make": "nope`)),
		"a grind":       forged(t, file, "tables/blades.ndjson", put(`"grind": "`, `"grind": "XX`)),
		"teeth":         forged(t, file, "tables/blades.ndjson", put(`"teeth": `, `"teeth": 100000000`)),
		"a fold":        forged(t, file, "tables/conditions.ndjson", put(`"fold": 4`, `"fold": 0`)),
		"a condition":   forged(t, file, "tables/conditions.ndjson", put(`"condition": {`, `"condition": [], "x": {`)),
		"a set":         forged(t, file, "tables/dado_sets.ndjson", put(`"made_of": {`, `"made_of": {"x": 5}, "held": {`)),
		"a time":        forged(t, file, "tables/log.ndjson", put(`"at": "`, `"at": "infinity", "note": "`)),
		"a cut":         forged(t, file, "tables/log.ndjson", put(`"wall": "`, `"wall": "un`)),
		"a cleaner":     forged(t, file, "tables/baths.ndjson", put(`"cleaner": "`, `"cleaner": "un`)),
		"a saw's speed": forged(t, file, "tables/saws.ndjson", put(`"rpm": `, `"rpm": 99999`)),
		"a role":        forged(t, file, "tables/members.ndjson", put(`"role": "`, `"role": "super`)),
	} {
		p := c.do("POST", "/shop-file-previews", bytes.NewReader(f), "Content-Type", "application/octet-stream")
		if p.code != 200 || len(p.obj(t)["faults"].([]any)) == 0 {
			t.Errorf("%s: looked at, %d %.300s", name, p.code, p.body)
		}
		if w := c.do("PUT", "/shop-file", bytes.NewReader(f), "Content-Type", "application/octet-stream"); w.code != 422 || w.obj(t)["field"] != "file" {
			t.Errorf("%s: taken with %d %.300s", name, w.code, w.body)
		}
		if n := len(c.must(200, "GET", "/blades", nil)["items"].([]any)); n != 0 {
			t.Fatalf("%s: %d blades came with it", name, n)
		}
	}
	if err := x.st.Migrate(t.Context()); err != nil {
		t.Errorf("the next start: %v", err)
	}
	if _, _, err := x.st.Conditions(t.Context(), true); err != nil {
		t.Errorf("corte conditions --mend: %v", err)
	}
	// The file itself is taken, and no upload is left where it was put down.
	c.must(200, "PUT", "/shop-file", bytes.NewReader(file), "Content-Type", "application/octet-stream")
	if left, err := filepath.Glob(filepath.Join(os.TempDir(), "corte-upload-*")); err != nil || len(left) > 0 {
		t.Errorf("uploads are left: %v, %v", left, err)
	}
}

// A damaged row is shown with its ID and what is wrong, goes out in a shop file,
// and is repaired or removed by an owner, once.
func TestADamagedRowIsRepaired(t *testing.T) {
	x := open(t)
	c := x.client()
	chorus := c.ids("/blades", "name")["Chorus"]
	db := x.db()
	db.MustExec(`UPDATE blades SET grind = 'XX' WHERE id::text = $1`, chorus)
	db.MustExec(`UPDATE baths SET cleaner = 'acid' WHERE ctid = (SELECT ctid FROM baths LIMIT 1)`)
	if p := c.must(409, "GET", "/blades/"+chorus, nil); !strings.Contains(p["detail"].(string), "damaged") {
		t.Errorf("its page says %v", p)
	}
	all := c.must(200, "GET", "/damaged-rows", nil)["items"].([]any)
	if len(all) != 2 {
		t.Fatalf("%d rows are damaged: %v", len(all), all)
	}
	find := func(table string) obj {
		t.Helper()
		for _, r := range c.must(200, "GET", "/damaged-rows", nil)["items"].([]any) {
			if r.(obj)["table"] == table {
				return r.(obj)
			}
		}
		t.Fatalf("no row of %s is damaged", table)
		return nil
	}
	blade, bath := find("blades"), find("baths")
	if blade["id"] != chorus || blade["name"] != "Chorus" || blade["why"] == "" || blade["repairable"] != true || blade["removable"] != false || bath["removable"] != true {
		t.Errorf("the blade: %v", blade)
	}
	// A backup is written and read back with it; brought in over HTTP it is refused,
	// and by whoever has the machine it comes as it is.
	backup := filepath.Join(t.TempDir(), "shop.zip")
	if _, err := shopfile.Save(t.Context(), x.st, x.shop, x.clock.now(), "a test", backup, nil); err != nil {
		t.Fatalf("a backup: %v", err)
	}
	raw, err := os.ReadFile(backup)
	if err != nil {
		t.Fatal(err)
	}
	f, err := shopfile.Open(bytes.NewReader(raw), int64(len(raw)))
	if err != nil {
		t.Fatal(err)
	}
	if faults, err := f.Check(t.Context(), x.st); err != nil || len(faults) != 2 {
		t.Errorf("its faults: %v, %v", faults, err)
	}
	spare, _, err := x.st.EnsureShop(t.Context(), store.Shop{ID: uuid.New(), Slug: "spare", Name: "Spare", ChangeMinutes: 3})
	if err != nil {
		t.Fatal(err)
	}
	if err := f.Restore(t.Context(), x.st, spare.ID, nil); err != nil {
		t.Errorf("brought in as it is: %v", err)
	}
	if all, err := x.svc.Repair.All(t.Context(), spare.ID, true); err != nil || len(all) != 2 {
		t.Errorf("there %d rows are damaged: %v", len(all), err)
	}
	at := func(r obj) string { return "/damaged-rows/" + r["table"].(string) + "/" + r["id"].(string) }
	row := blade["row"].(obj)
	c.must(422, "PUT", at(blade), obj{"row": row, "digest": blade["digest"]}, keyed()...)
	row["grind"] = "ATB"
	c.must(412, "PUT", at(blade), obj{"row": row, "digest": bath["digest"]}, keyed()...)
	c.must(409, "DELETE", at(blade)+"?digest="+blade["digest"].(string), nil, keyed()...)
	row["id"] = bath["id"]
	c.must(422, "PUT", at(blade), obj{"row": row, "digest": blade["digest"]}, keyed()...)
	row["id"] = chorus
	left := c.must(200, "PUT", at(blade), obj{"row": row, "digest": blade["digest"]}, keyed()...)
	if len(left["items"].([]any)) != 1 {
		t.Errorf("after a repair: %v", left)
	}
	if b := c.must(200, "GET", "/blades/"+chorus, nil); b["name"] != "Chorus" || b["condition"].(obj)["cuts"].(float64) == 0 {
		t.Errorf("repaired it is %v", b)
	}
	c.must(412, "PUT", at(blade), obj{"row": row, "digest": blade["digest"]}, keyed()...)
	c.must(200, "DELETE", at(bath)+"?digest="+bath["digest"].(string), nil, keyed()...)
	c.must(404, "DELETE", at(bath)+"?digest="+bath["digest"].(string), nil, keyed()...)
	if n := len(c.must(200, "GET", "/damaged-rows", nil)["items"].([]any)); n != 0 {
		t.Errorf("%d rows are still damaged", n)
	}
	// Another shop has none of them, and a row that can be read is not touched.
	good := c.must(200, "GET", "/blades", nil)["items"].([]any)[0].(obj)["id"].(string)
	c.must(412, "PUT", "/damaged-rows/blades/"+good, obj{"row": row, "digest": "00"}, keyed()...)
}
