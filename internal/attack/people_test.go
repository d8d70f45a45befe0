package attack

import (
	"bufio"
	"fmt"
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/google/uuid"

	"corte/internal/httpapi/contract"
)

// plausible is a value that a schema takes.
func plausible(name string, s *openapi3.Schema, ids map[string]string, deep int) any {
	switch {
	case len(s.AllOf) > 0:
		return plausible(name, s.AllOf[0].Value, ids, deep)
	case len(s.Enum) > 0:
		return s.Enum[0]
	case s.Type.Is("object"):
		out := obj{}
		for p, v := range s.Properties {
			if deep > 0 && len(s.Required) > 0 {
				out[p] = plausible(p, v.Value, ids, deep-1)
			}
		}
		return out
	case s.Type.Is("array"):
		if s.MinItems == 0 && deep < 3 {
			return []any{}
		}
		return []any{plausible(strings.TrimSuffix(name, "s"), s.Items.Value, ids, deep-1)}
	case s.Type.Is("number"), s.Type.Is("integer"):
		v := 20.0
		if s.Min != nil {
			v = max(v, *s.Min)
		}
		if s.Max != nil {
			v = min(v, *s.Max)
		}
		return v
	case s.Type.Is("boolean"):
		return false
	}
	if id := ids[name]; id != "" {
		return id
	}
	switch {
	case s.Format == "uuid":
		return uuid.NewString()
	case s.Format == "date-time":
		return "2026-01-01T10:00:00Z"
	case s.Format == "date":
		return "2026-01-01"
	}
	return "six words are easy"
}

// Looking round the demo shop gives nobody anything on the server: no call of the
// contract makes an account, a person, a link or a shop, none shows who did what,
// and whoever belongs to no shop has no role there either.
func TestTheDemoGivesNoRights(t *testing.T) {
	x := closed(t)
	maren := x.owner()
	viewer, _ := maren.member("Vera", "viewer")
	former, formerID := maren.member("Fritz", "worker")
	maren.must(204, "DELETE", "/people/"+formerID, nil, keyed()...)
	tablet := maren.tablet("By the door")
	script := x.client()
	script.bearer = maren.must(201, "POST", "/tokens", obj{"name": "a script", "role": "owner", "days": 9})["token"].(string)
	blades, saws := maren.ids("/blades", "name"), maren.ids("/saws", "kind")
	members := maren.ids("/people", "name")
	names := map[string]string{"blade_id": blades["Chorus"], "saw_id": saws["table"], "member_id": members["Vera"], "shop_id": x.shop.String(), "id": blades["Chorus"], "saw": saws["table"]}

	db := x.db()
	count := func() string {
		var n string
		err := db.Get(&n, `SELECT concat_ws(' ', (SELECT count(*) FROM people), (SELECT count(*) FROM members), (SELECT count(*) FROM passes), (SELECT count(*) FROM passkeys),
			(SELECT count(*) FROM recovery_codes), (SELECT count(*) FROM shops), (SELECT count(*) FROM calendars), (SELECT string_agg(role || pin || name, ',' ORDER BY id) FROM members),
			(SELECT string_agg(password || epoch, ',' ORDER BY id) FROM people), (SELECT count(*) FROM audit), (SELECT count(*) FROM sign_offs))`)
		if err != nil {
			t.Fatal(err)
		}
		return n
	}
	spec, err := contract.GetSpec()
	if err != nil {
		t.Fatal(err)
	}
	who := map[string]*client{"a viewer": viewer, "an owner": maren, "a tablet": tablet, "a script": script, "a former member": former, "a stranger": x.client()}
	allowed := map[string]int{} // calls that went through, by who made them
	calls := 0
	for path, item := range spec.Paths.Map() {
		for method, op := range item.Operations() {
			if op.OperationID == "StreamEvents" || op.OperationID == "StreamGauges" {
				continue // they go on
			}
			calls++
			at := path
			for name, id := range names {
				at = strings.ReplaceAll(at, "{"+name+"}", id)
			}
			at = strings.NewReplacer("{secret}", strings.Repeat("A", 26), "{table}", "blades", "{row}", blades["Chorus"], "{drill}", "feed", "{why}", "hook", "{name}", "dial").Replace(at)
			var body any
			if op.RequestBody != nil {
				if j := op.RequestBody.Value.Content["application/json"]; j != nil {
					body = plausible("", j.Schema.Value, names, 3)
				} else {
					body = "x"
				}
			}
			header := append(keyed(), "If-Match", `"1"`)
			if body == "x" {
				header = append(header, "Content-Type", "application/octet-stream")
			}
			for name, c := range who {
				before := count()
				w := c.inDemo().do(method, at, body, header...)
				if after := count(); after != before {
					t.Errorf("%s: %s %s: %d, and accounts have changed:\n%s\n%s", name, method, at, w.code, before, after)
				}
				for _, cookie := range w.header.Values("Set-Cookie") {
					t.Errorf("%s: %s %s sets %s", name, method, at, cookie)
				}
				ok := w.code < 400
				if ok {
					allowed[name]++
				}
				open := op.OperationID == "GetSession" || op.OperationID == "GetLive" || op.OperationID == "GetHealth"
				if ok && !open && (name == "a former member" || name == "a stranger" || name == "a script") {
					t.Errorf("%s may %s %s in the demo: %d", name, method, at, w.code)
				}
				if ok && (strings.Contains(op.OperationID, "Audit") || strings.Contains(op.OperationID, "Passes") || strings.Contains(op.OperationID, "Account")) {
					t.Errorf("%s sees %s in the demo", name, op.OperationID)
				}
			}
		}
	}
	if calls < 130 || allowed["a viewer"] < 30 || allowed["a tablet"] != allowed["a viewer"] {
		t.Errorf("of %d calls these went through: %v", calls, allowed)
	}
	// In the demo nobody has a name or another shop.
	s := maren.inDemo().must(200, "GET", "/session", nil)
	if s["state"] != "open" || s["role"] != "worker" || s["name"] != nil || len(s["shops"].([]any))+len(s["hands"].([]any)) > 0 {
		t.Errorf("in the demo an owner is %v", s)
	}
	if s := former.must(200, "GET", "/session", nil); s["shop"] != nil {
		t.Errorf("a former member is in %v", s["shop"])
	}
	former.must(403, "GET", "/blades", nil)
}

// Whoever reads links without end, or guesses passwords, hinders nobody who comes
// in otherwise from the same address.
func TestAFloodClosesNothingElse(t *testing.T) {
	x := closed(t)
	maren := x.owner()
	codes := maren.must(201, "POST", "/account/recovery-codes", obj{"password": password})["codes"].([]any)
	guest := maren.must(201, "POST", "/blades/"+maren.ids("/blades", "name")["Quill"]+"/guests", obj{"name": "Sharpener", "days": 3})["path"].(string)
	thief := x.client()
	last := reply{}
	for i := range 300 { // the owner's invitation was the first of them
		last = thief.do("GET", "/invitations/"+strings.Repeat("A", 26), nil)
		if i == 298 && last.code != 404 {
			t.Errorf("the 300th link: %d", last.code)
		}
	}
	if last.code != 429 || last.header.Get("Retry-After") != "900" {
		t.Errorf("after 301 links: %d, to come back after %q s", last.code, last.header.Get("Retry-After"))
	}
	for _, link := range []string{"/guests/" + strings.Repeat("B", 26), "/calendars/" + strings.Repeat("C", 26)} {
		thief.must(429, "GET", link, nil)
	}
	for i := range 120 {
		last = thief.do("POST", "/session", obj{"name": fmt.Sprint("name ", i), "password": "a guess or two"})
	}
	if last.code != 429 || last.header.Get("Retry-After") == "" {
		t.Errorf("after 120 passwords: %d", last.code)
	}
	// Her browser, a recovery code and a passkey's challenge are open all the same.
	maren.must(200, "DELETE", "/session", nil)
	maren.must(200, "POST", "/session", obj{"name": "Maren", "password": password})
	x.client().must(200, "POST", "/session/recovery", obj{"name": "Maren", "code": codes[0], "password": "six other words to keep"})
	if w := x.client().do("POST", "/session/passkey-challenges", nil); w.code != 409 { // under a number there are none
		t.Errorf("a passkey's challenge: %d %s", w.code, w.body)
	}
	x.clock.move(16 * time.Minute)
	x.client().must(200, "GET", "/guests/"+strings.TrimPrefix(guest, "/guest/"), nil)
}

// What the server logs says which route was asked, and no secret that stood in it.
func TestLogsHoldNoSecrets(t *testing.T) {
	x := closed(t)
	maren := x.owner()
	blade := maren.ids("/blades", "name")["Quill"]
	guest := strings.TrimPrefix(maren.must(201, "POST", "/blades/"+blade+"/guests", obj{"name": "Sharpener", "days": 3})["path"].(string), "/guest/")
	m := maren.must(201, "POST", "/people", obj{"name": "Rosa", "role": "learner"}, keyed()...)
	invitation := strings.TrimPrefix(maren.must(201, "POST", fmt.Sprint("/people/", m["id"], "/invitations"), nil)["path"].(string), "/join/")
	calendar := maren.must(201, "POST", "/calendar", nil)["path"].(string)
	calendar = strings.TrimSuffix(calendar[strings.LastIndex(calendar, "/")+1:], ".ics")
	c := x.client()
	for _, path := range []string{"/guests/" + guest, "/invitations/" + invitation, "/calendars/" + calendar, "/guests/" + guest + "?code=AAAAA-BBBBB", "/guests/" + guest + "/more", "/nothing/" + guest} {
		c.do("GET", path, nil)
	}
	page := *c
	page.under = ""
	for _, path := range []string{"/join/" + invitation, "/guest/" + guest, "/" + guest} {
		page.do("GET", path, nil)
	}
	log := x.logged()
	for what, secret := range map[string]string{"a guest's link": guest, "an invitation": invitation, "a calendar": calendar, "a code": "AAAAA-BBBBB", "a password": password} {
		if strings.Contains(log, secret) {
			t.Errorf("the log holds %s", what)
		}
	}
	for _, route := range []string{"/api/v1/guests/:secret", "/api/v1/calendars/:secret"} {
		if !strings.Contains(log, route) {
			t.Errorf("the log does not say %s:\n%.2000s", route, log)
		}
	}
}

// A record is by whoever the session is. An owner may log for somebody else, and
// the record names both.
func TestARecordIsByWhoeverMakesIt(t *testing.T) {
	x := closed(t)
	maren := x.owner()
	rosa, _ := maren.member("Rosa", "worker")
	saw, blade := maren.ids("/saws", "kind")["table"], maren.ids("/blades", "name")["Plough"]
	made := func(by string) obj {
		o := obj{"cut": cut(saw, nil), "blade_id": blade, "height_mm": 39, "wall": "clean", "splinters": "none"}
		if by != "" {
			o["by"] = by
		}
		return o
	}
	if e := rosa.must(201, "POST", "/cuts", made(""), keyed()...); e["by"] != "Rosa" {
		t.Errorf("hers is by %v", e["by"])
	}
	if p := rosa.must(403, "POST", "/cuts", made("Maren"), keyed()...); p["field"] != "by" {
		t.Errorf("in somebody else's name: %v", p)
	}
	// What waited in a browser is taken in its maker's session alone.
	of := func(member string) []string { return append(keyed(), "Made-By", x.shop.String()+":"+member) }
	me := rosa.must(200, "GET", "/session", nil)["member_id"].(string)
	for by, code := range map[string]int{me: 201, "": 403, maren.must(200, "GET", "/session", nil)["member_id"].(string): 403} {
		if w := rosa.do("POST", "/cuts", made(""), of(by)...); w.code != code || code == 403 && w.obj(t)["field"] != nil {
			t.Errorf("made by %q, sent by her: %d %s", by, w.code, w.body)
		}
	}
	rosa.must(403, "POST", "/cuts", made(""), append(keyed(), "Made-By", "7e57ab1e-0000-4000-8000-000000000001:"+me)...)
	row := maren.must(201, "POST", "/cuts", made("Rosa"), keyed()...)
	if row["by"] != "Rosa, logged by Maren" {
		t.Errorf("an owner's for her is by %v", row["by"])
	}
	// Who corrects a row does not become who made it; who struck it is on record.
	at := fmt.Sprint("/log/", int64(row["id"].(float64)))
	if e := maren.must(201, "POST", at+"/amendments", obj{"pieces": 3}, keyed()...); e["by"] != "Rosa, logged by Maren" {
		t.Errorf("corrected, it is by %v", e["by"])
	}
	for _, e := range maren.must(200, "GET", "/log?limit=4&kind=struck", nil)["items"].([]any) {
		if e.(obj)["by"] != "Maren" {
			t.Errorf("struck by %v", e.(obj)["by"])
		}
	}
}

// The only owner is told as long as a forgotten password would close the shop, and
// no longer.
func TestALoneOwnerIsTold(t *testing.T) {
	x := closed(t)
	maren := x.owner()
	told := func() bool { return maren.must(200, "GET", "/session", nil)["no_way_back"] == true }
	if !told() {
		t.Error("the only owner, with a password alone, is not told")
	}
	db := x.db()
	for what, change := range map[string]func() func(){
		"recovery codes": func() func() {
			maren.must(201, "POST", "/account/recovery-codes", obj{"password": password})
			return func() { db.MustExec(`DELETE FROM recovery_codes`) }
		},
		"a passkey": func() func() {
			db.MustExec(`INSERT INTO passkeys (id, person_id, handle, name, credential, made_at) SELECT gen_random_uuid(), id, 'x', 'a key', '{}', now() FROM people WHERE folded = 'maren'`)
			return func() { db.MustExec(`DELETE FROM passkeys`) }
		},
		"another owner": func() func() {
			_, id := maren.member("Botho", "owner")
			return func() { maren.must(204, "DELETE", "/people/"+id, nil, keyed()...) }
		},
	} {
		back := change()
		if told() {
			t.Errorf("with %s an owner is still told", what)
		}
		back()
		if !told() {
			t.Errorf("without %s again an owner is not told", what)
		}
	}
	rosa, _ := maren.member("Rosa", "worker")
	if rosa.must(200, "GET", "/session", nil)["no_way_back"] != nil {
		t.Error("a worker is told")
	}
}

// A listener reads a stream of events line by line until it ends.
func (c *client) listen(path string) (ended <-chan time.Time) {
	c.x.t.Helper()
	r, err := http.NewRequestWithContext(c.x.t.Context(), "GET", c.x.srv.URL+c.under+path, nil)
	if err != nil {
		c.x.t.Fatal(err)
	}
	if c.bearer != "" {
		r.Header.Set("Authorization", "Bearer "+c.bearer)
	}
	w, err := c.http.Do(r)
	if err != nil || w.StatusCode != 200 {
		c.x.t.Fatalf("%s: %v, %v", path, w, err)
	}
	end := make(chan time.Time, 1)
	go func() {
		defer w.Body.Close()
		for s := bufio.NewScanner(w.Body); s.Scan(); {
		}
		end <- time.Now()
	}()
	return end
}

// A name that was tapped is put down, and every open stream and token ends, as
// soon as what it rested on does.
func TestWhatIsTakenBackEndsAtOnce(t *testing.T) {
	x := closed(t)
	maren := x.owner()
	rosa, id := maren.member("Rosa", "worker")
	tablet := maren.tablet("Long Table")
	version := 2
	for name, end := range map[string]func(){
		"signed out everywhere": func() { rosa.must(200, "POST", "/account/sign-outs", nil) },
		"a PIN forgotten":       func() { maren.must(204, "DELETE", "/people/"+id+"/pin", nil, keyed()...) },
		"a PIN changed":         func() { rosa.must(200, "PUT", "/account/pin", obj{"pin": "9753"}) },
		"another role": func() {
			maren.must(200, "PUT", "/people/"+id, obj{"name": "Rosa", "role": "learner"}, append(keyed(), "If-Match", fmt.Sprintf(`"%d"`, version))...)
		},
	} {
		rosa.must(200, "POST", "/session", obj{"name": "Rosa", "password": password})
		for _, m := range maren.must(200, "GET", "/people", nil)["items"].([]any) {
			if m := m.(obj); m["id"] == id {
				version = int(m["version"].(float64))
				if m["role"] != "worker" {
					maren.must(200, "PUT", "/people/"+id, obj{"name": "Rosa", "role": "worker"}, append(keyed(), "If-Match", fmt.Sprintf(`"%d"`, version))...)
					version++
				}
			}
		}
		rosa.must(200, "PUT", "/account/pin", obj{"pin": "2580"})
		tablet.must(200, "PUT", "/session/hand", obj{"member_id": id, "pin": "2580"})
		if s := tablet.must(200, "GET", "/session", nil); s["state"] != "in" || s["name"] != "Rosa" {
			t.Fatalf("%s: tapped, the tablet is %v", name, s)
		}
		stream := tablet.listen("/events")
		time.Sleep(150 * time.Millisecond)
		at := time.Now()
		end()
		if s := tablet.must(200, "GET", "/session", nil); s["state"] != "tablet" {
			t.Errorf("%s: the name is still tapped: %v", name, s)
		}
		select {
		case ended := <-stream:
			if took := ended.Sub(at); took > 3*time.Second {
				t.Errorf("%s: its stream ended after %v", name, took)
			}
		case <-time.After(5 * time.Second):
			t.Errorf("%s: its stream goes on", name)
		}
	}
	// A token ends with its maker's sign-out everywhere, role and belonging.
	token := func() *client {
		rosa.must(200, "POST", "/session", obj{"name": "Rosa", "password": password})
		s := x.client()
		s.bearer = rosa.must(201, "POST", "/tokens", obj{"name": "a script", "role": "viewer", "days": 9})["token"].(string)
		s.must(200, "GET", "/blades", nil)
		return s
	}
	get := func() int {
		for _, m := range maren.must(200, "GET", "/people", nil)["items"].([]any) {
			if m.(obj)["id"] == id {
				return int(m.(obj)["version"].(float64))
			}
		}
		return 0
	}
	role := func(to string) {
		maren.must(200, "PUT", "/people/"+id, obj{"name": "Rosa", "role": to}, append(keyed(), "If-Match", fmt.Sprintf(`"%d"`, get()))...)
	}
	role("owner")
	script := token()
	rosa.must(200, "POST", "/account/sign-outs", nil)
	script.must(401, "GET", "/blades", nil)
	script = token()
	stream := script.listen("/events")
	time.Sleep(150 * time.Millisecond)
	role("worker")
	script.must(401, "GET", "/blades", nil)
	role("owner")
	script.must(401, "GET", "/blades", nil)
	select {
	case <-stream:
	case <-time.After(5 * time.Second):
		t.Error("a token's stream goes on after it has ended")
	}
}

// Clocks jump: by what a day or a month does to sessions, keys, invitations and
// tablets, and by one that was set wrong and is put right.
func TestClocksJump(t *testing.T) {
	x := closed(t)
	maren := x.owner()
	m := maren.must(201, "POST", "/people", obj{"name": "Rosa", "role": "learner"}, keyed()...)
	invite := func() string {
		return strings.TrimPrefix(maren.must(201, "POST", fmt.Sprint("/people/", m["id"], "/invitations"), nil)["path"].(string), "/join/")
	}
	late := invite()
	x.clock.move(8 * 24 * time.Hour)
	x.client().must(404, "GET", "/invitations/"+late, nil)
	saw, blade := maren.ids("/saws", "kind")["table"], maren.ids("/blades", "name")["Plough"]
	made := obj{"cut": cut(saw, nil), "blade_id": blade, "height_mm": 39, "wall": "clean", "splinters": "none"}
	key := keyed()
	first := maren.must(201, "POST", "/cuts", made, key...)
	// A week back: the same key is the same cut, a new one is still logged, and
	// nothing is due before it is begun.
	x.clock.move(-7 * 24 * time.Hour)
	if again := maren.must(201, "POST", "/cuts", made, key...); again["id"] != first["id"] {
		t.Errorf("a retry before its first logs %v and %v", first["id"], again["id"])
	}
	maren.must(201, "POST", "/cuts", made, keyed()...)
	for _, page := range []string{"/bench", "/care", "/log?limit=5", "/log/season?days=30", "/calendar"} {
		if w := maren.do("GET", page, nil); w.code != 200 {
			t.Errorf("a week back, %s: %d %s", page, w.code, w.body)
		}
	}
	early := invite() // made while the clock is behind
	x.clock.move(7 * 24 * time.Hour)
	if w := x.client().do("GET", "/invitations/"+early, nil); w.code != 200 && w.code != 404 {
		t.Errorf("an invitation of a clock that was behind: %d", w.code)
	}
	tablet := maren.tablet("Long Table")
	x.client().must(200, "POST", "/invitations/"+invite(), obj{"name": "Rosa", "password": password})
	tablet.must(200, "PUT", "/session/hand", obj{"member_id": m["id"], "pin": "2580"})
	x.clock.move(13 * time.Hour)
	if s := tablet.must(200, "GET", "/session", nil); s["state"] != "tablet" {
		t.Errorf("a name is tapped for %v", s)
	}
	tablet.must(200, "PUT", "/session/hand", obj{"member_id": m["id"], "pin": "2580"})
	x.clock.move(-48 * time.Hour) // who taps now, tapped in two days
	if s := tablet.must(200, "GET", "/session", nil); s["state"] != "in" {
		t.Errorf("with the clock put back the name is %v", s)
	}
	// A session lasts thirty days by the clock, however that came about.
	maren.must(200, "POST", "/session", obj{"name": "Maren", "password": password})
	x.clock.move(30*24*time.Hour - time.Minute)
	maren.must(200, "GET", "/blades", nil)
	x.clock.move(2 * time.Minute)
	maren.must(401, "GET", "/blades", nil)
	if err := x.svc.Sweep(t.Context()); err != nil {
		t.Error(err)
	}
	maren.must(200, "POST", "/session", obj{"name": "Maren", "password": password})
}
