package httpapi_test

import (
	"encoding/json"
	"fmt"
	"io"
	"log/slog"
	"maps"
	"net/http"
	"net/http/httptest"
	"os"
	"regexp"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/alexedwards/argon2id"
	"github.com/getkin/kin-openapi/openapi3"
	"github.com/google/uuid"
	"github.com/jmoiron/sqlx"

	"corte/internal/httpapi"
	"corte/internal/httpapi/contract"
	"corte/internal/shop"
	"corte/internal/store"
	"corte/internal/testkit/pgtest"
)

const password = "six words are easy to keep"

// A house is a server that people sign in to, over the demo shop.
type house struct {
	*bench
	svc *shop.Service
	now time.Time // by its clock
}

func newHouse(t testing.TB) *house {
	b := newBench(t)
	h := &house{bench: b, now: time.Now()}
	h.svc = shop.New(b.st, func() time.Time { return h.now })
	b.h = h.serve(httpapi.Options{})
	return h
}

func (h *house) serve(o httpapi.Options) http.Handler {
	h.t.Helper()
	o.Service, o.Shop, o.Web, o.Pages, o.Log = h.svc, h.shop, page, []string{""}, slog.New(slog.NewTextHandler(io.Discard, nil))
	if o.SignIn == nil {
		o.SignIn = &httpapi.SignIn{}
	}
	o.SignIn.Cost = &argon2id.Params{Memory: 64, Iterations: 1, Parallelism: 1, SaltLength: 8, KeyLength: 16}
	handler, err := httpapi.New(o)
	if err != nil {
		h.t.Fatal(err)
	}
	return handler
}

// A browser keeps its cookies.
type browser struct {
	h      *house
	jar    map[string]string
	from   string // address
	bearer string
}

func (h *house) browser() *browser {
	return &browser{h: h, jar: map[string]string{}, from: "192.0.2.1"}
}

func (br *browser) do(method, path string, body any, header ...string) *httptest.ResponseRecorder {
	raw, sent := body.(string) // a file, or else JSON
	if body != nil && !sent {
		b, err := json.Marshal(body)
		if err != nil {
			br.h.t.Fatal(err)
		}
		raw = string(b)
	}
	r := httptest.NewRequest(method, "http://127.0.0.1/api/v1"+path, strings.NewReader(raw))
	r.RemoteAddr = br.from + ":1234"
	if raw != "" {
		r.Header.Set("Content-Type", "application/json")
	}
	for name, value := range br.jar {
		r.AddCookie(&http.Cookie{Name: name, Value: value})
	}
	if br.bearer != "" {
		r.Header.Set("Authorization", "Bearer "+br.bearer)
	}
	for i := 0; i+1 < len(header); i += 2 {
		r.Header.Set(header[i], header[i+1])
	}
	w := httptest.NewRecorder()
	br.h.h.ServeHTTP(w, r)
	for _, c := range w.Result().Cookies() {
		if c.MaxAge < 0 || c.Value == "" {
			delete(br.jar, c.Name)
		} else {
			br.jar[c.Name] = c.Value
		}
		if !c.HttpOnly || c.SameSite != http.SameSiteLaxMode || c.Path != "/" {
			br.h.t.Errorf("%s %s sets %s", method, path, c)
		}
	}
	return w
}

// must is an answer that has to be of a status.
func (br *browser) must(code int, method, path string, body any, header ...string) obj {
	br.h.t.Helper()
	w := br.do(method, path, body, header...)
	if w.Code != code {
		br.h.t.Fatalf("%s %s: %d, not %d: %s", method, path, w.Code, code, w.Body)
	}
	if w.Body.Len() == 0 {
		return nil
	}
	return decode(br.h.t, w)
}

func (br *browser) as() string {
	s := br.must(200, "GET", "/session", nil)
	return fmt.Sprint(s["state"], " ", s["role"], " ", s["name"])
}

// owner makes the first owner, as the console's link does.
func (h *house) owner() *browser {
	h.t.Helper()
	secret, err := h.svc.People.FirstOwner(h.t.Context(), h.shop)
	if err != nil || secret == "" {
		h.t.Fatalf("no way in: %q, %v", secret, err)
	}
	br := h.browser()
	br.must(200, "POST", "/invitations/"+secret, obj{"name": "Maren", "password": password})
	return br
}

// member adds somebody and lets them in.
func (h *house) member(owner *browser, name, role string) (*browser, string) {
	h.t.Helper()
	m := owner.must(201, "POST", "/people", obj{"name": name, "role": role}, "Idempotency-Key", uuid.NewString())
	id := m["id"].(string)
	at := owner.must(201, "POST", "/people/"+id+"/invitations", nil)["path"].(string)
	br := h.browser()
	br.must(200, "POST", "/invitations/"+strings.TrimPrefix(at, "/join/"), obj{"name": name, "password": password})
	return br, id
}

// named is the one of a list that is called so.
func named(list any, name string) obj {
	for _, one := range list.([]any) {
		if one := one.(obj); one["name"] == name {
			return one
		}
	}
	return nil
}

// The first owner comes in by the console's link, once; the link is made anew
// until somebody has, and never after that.
func TestFirstOwner(t *testing.T) {
	h := newHouse(t)
	lost, err := h.svc.People.FirstOwner(t.Context(), h.shop)
	if err != nil || lost == "" {
		t.Fatal(err)
	}
	if got := h.browser().as(); got != "out viewer <nil>" {
		t.Errorf("a stranger is %s", got)
	}
	secret, err := h.svc.People.FirstOwner(t.Context(), h.shop)
	if err != nil {
		t.Fatal(err)
	}
	h.browser().must(404, "POST", "/invitations/"+lost, obj{"name": "Maren", "password": password})
	in := h.browser().must(200, "GET", "/invitations/"+secret, nil)
	if in["role"] != "owner" || in["shop"] == "" {
		t.Errorf("it invites to %v", in)
	}
	for field, body := range map[string]obj{"name": {"name": " ", "password": password}, "password": {"name": "Mara Lind", "password": "mara  lind"}} {
		if w := h.browser().do("POST", "/invitations/"+secret, body); w.Code < 400 || decode(t, w)["field"] != field {
			t.Errorf("%v: %d %s", body, w.Code, w.Body)
		}
	}
	// Of two who take it at once, one is in.
	codes := make([]int, 6)
	var all sync.WaitGroup
	for i := range codes {
		all.Go(func() {
			codes[i] = h.browser().do("POST", "/invitations/"+secret, obj{"name": fmt.Sprint("Maren", i), "password": password}).Code
		})
	}
	all.Wait()
	slices.Sort(codes)
	if codes[0] != 200 || codes[1] != 404 {
		t.Errorf("an invitation is taken %v", codes)
	}
	if again, err := h.svc.People.FirstOwner(t.Context(), h.shop); err != nil || again != "" {
		t.Errorf("and again %q, %v", again, err)
	}
	// The machine's own way in makes another beside them.
	if secret, err = h.svc.People.AnotherOwner(t.Context(), h.shop); err != nil || secret == "" {
		t.Fatal(err)
	}
	h.now = h.now.Add(25 * time.Hour)
	h.browser().must(404, "GET", "/invitations/"+secret, nil)
}

// written reads who may what out of docs/security.md.
func written(t *testing.T) map[string]string {
	raw, err := os.ReadFile("../../docs/security.md")
	if err != nil {
		t.Fatal(err)
	}
	out := map[string]string{}
	for _, row := range regexp.MustCompile(`(?m)^\| ([a-z, ]+) \| (.*) \|$`).FindAllStringSubmatch(string(raw), -1) {
		for _, call := range regexp.MustCompile("`(\\w+)`").FindAllStringSubmatch(row[2], -1) {
			out[call[1]] = row[1]
		}
	}
	return out
}

// Every call of the contract by everybody there is: who may does, who may not is
// refused, as docs/security.md has it.
func TestWhoMayWhat(t *testing.T) {
	h := newHouse(t)
	owner := h.owner()
	by := map[string]*browser{"stranger": h.browser(), "owner": owner}
	for _, role := range []string{"viewer", "learner", "worker"} {
		by[role], _ = h.member(owner, "the "+role, role)
		token := owner.must(201, "POST", "/tokens", obj{"name": role, "role": role, "days": 1})["token"].(string)
		by["token "+role] = &browser{h: h, jar: map[string]string{}, from: "192.0.2.2", bearer: token}
	}
	tablet := h.browser()
	tablet.must(200, "POST", "/session", obj{"name": "Maren", "password": password})
	tablet.must(201, "POST", "/devices", obj{"name": "at the saw"})
	by["tablet"] = tablet
	tapped := h.browser()
	maps.Copy(tapped.jar, tablet.jar)
	maren := named(tablet.must(200, "GET", "/session", nil)["hands"], "Maren")
	tapped.must(200, "PUT", "/session/hand", obj{"member_id": maren["id"], "pin": "4711"})
	by["owner at the tablet"] = tapped
	// What each is, by the words of the table.
	order := []string{"anybody, a stranger too", "viewer", "learner", "worker", "owner"}
	rank := map[string]int{"stranger": 0, "tablet": 1, "viewer": 1, "token viewer": 1, "learner": 2, "token learner": 2, "worker": 3, "token worker": 3, "owner at the tablet": 3, "owner": 4}
	table := written(t)
	spec, err := contract.GetSpec()
	if err != nil {
		t.Fatal(err)
	}
	calls := 0
	for path, item := range spec.Paths.Map() {
		for method, op := range item.Operations() {
			call := strings.ToLower(op.OperationID[:1]) + op.OperationID[1:]
			need, ok := table[call]
			if !ok {
				t.Errorf("docs/security.md does not say who may %s", call)
				continue
			}
			delete(table, call)
			if slices.Contains([]string{"signOut", "signOutEverywhere", "streamGauges", "streamEvents", "addDevice"}, call) {
				continue // these end what asks, or do not end themselves; they have tests of their own
			}
			at := strings.NewReplacer("{id}", uuid.NewString(), "{saw}", uuid.NewString(), "{name}", "dial", "{drill}", "read", "{why}", "arc", "{secret}", strings.Repeat("x", 26)).Replace(path)
			for who, br := range by {
				may := rank[who] >= slices.Index(order, need)
				if need == "whoever has signed in, for themselves" {
					may = !strings.HasPrefix(who, "token") && rank[who] > 0 && !strings.Contains(who, "tablet")
				}
				w := br.do(method, at, nil)
				calls++
				refused := w.Code == 401 || w.Code == 403
				if call == "signInByPasskey" || call == "acceptInvitation" {
					refused = false // they answer so where they are answered at all
				}
				if refused == may || !may && (w.Code == 401) != (who == "stranger") {
					t.Errorf("%s: %s (%s %s) is answered %d: %s", who, call, method, at, w.Code, w.Body)
				}
			}
		}
	}
	if len(table) > 0 || calls < 1000 {
		t.Errorf("%d calls; the table has more: %v", calls, table)
	}
	if got := tablet.as() + ", " + tapped.as(); got != "tablet viewer <nil>, in worker Maren" {
		t.Errorf("at the tablet it is %s", got)
	}
	tapped.must(200, "DELETE", "/session", nil)
	if got := tapped.as(); got != "tablet viewer <nil>" {
		t.Errorf("let go, it is %s", got)
	}
}

// An owner of another shop asks for everything of this one, through every call:
// nothing of it is answered, and nothing of it is changed.
func TestAnotherShopIsNotThere(t *testing.T) {
	h := newHouse(t)
	ctx := t.Context()
	there, _, err := h.st.EnsureShop(ctx, store.Shop{ID: uuid.New(), Slug: "there", Name: "Over there", ChangeMinutes: 3})
	if err != nil {
		t.Fatal(err)
	}
	maren := h.owner()
	h.member(maren, "Botho", "worker")
	mine := h.shop
	h.shop = there.ID
	secret, err := h.svc.People.FirstOwner(ctx, there.ID)
	if err != nil {
		t.Fatal(err)
	}
	thief := h.browser()
	thief.must(200, "POST", "/invitations/"+secret, obj{"name": "Mischa", "password": password})
	db := sqlx.MustConnect("pgx", h.url)
	defer db.Close()
	var tables []string
	if err := db.Select(&tables, pgtest.Tables); err != nil {
		t.Fatal(err)
	}
	sum := func() string {
		out := ""
		for _, name := range append(tables, "shops") {
			key, one := "shop_id", ""
			if name == "shops" {
				key = "id"
			}
			if err := db.Get(&one, `SELECT count(*) || ' ' || coalesce(sum(hashtextextended(x::text, 0)::numeric), 0) FROM `+name+` x WHERE `+key+` = $1`, mine); err != nil {
				t.Fatal(err)
			}
			out += name + " " + one + "\n"
		}
		return out
	}
	var ids, words []string
	for _, name := range tables {
		var has bool
		if err := db.Get(&has, `SELECT EXISTS (SELECT FROM information_schema.columns WHERE table_name = $1 AND column_name = 'id' AND data_type = 'uuid')`, name); err != nil {
			t.Fatal(err)
		}
		if has {
			var some []string
			if err := db.Select(&some, `SELECT id::text FROM `+name+` WHERE shop_id = $1`, mine); err != nil {
				t.Fatal(err)
			}
			ids = append(ids, some...)
		}
	}
	if err := db.Select(&words, `SELECT name FROM blades WHERE shop_id = $1 UNION SELECT name FROM saws WHERE shop_id = $1 UNION SELECT name FROM shops WHERE id = $1 UNION SELECT 'Botho'`, mine); err != nil {
		t.Fatal(err)
	}
	var row string
	if err := db.Get(&row, `SELECT max(id)::text FROM log WHERE shop_id = $1`, mine); err != nil {
		t.Fatal(err)
	}
	before := sum()
	spec, err := contract.GetSpec()
	if err != nil {
		t.Fatal(err)
	}
	calls, named := 0, 0
	ask := func(method, path string, op *openapi3.Operation, id string) {
		at := strings.NewReplacer("{id}", id, "{saw}", h.saw["table"], "{name}", "dial", "{drill}", "read", "{why}", "arc", "{secret}", strings.Repeat("x", 26)).Replace(path)
		var body any
		if op.RequestBody != nil && op.RequestBody.Value.Content["application/json"] != nil {
			body = h.plausible("", op.RequestBody.Value.Content["application/json"].Schema.Value, 0)
		}
		if op.Parameters.GetByInAndName("query", "units") != nil {
			at += "?units=mm"
		}
		for _, p := range op.Parameters {
			if p.Value.In == "query" && p.Value.Schema.Value.Format == "uuid" {
				at += map[bool]string{true: "&", false: "?"}[strings.Contains(at, "?")] + p.Value.Name + "=" + id
			}
		}
		w := thief.do(method, at, body, "Idempotency-Key", uuid.NewString(), "If-Match", `"1"`)
		calls++
		says := w.Body.String()
		for _, word := range words {
			if len(word) > 4 && strings.Contains(says, word) {
				t.Errorf("%s %s tells of %s: %.300s", method, at, word, says)
			}
		}
		if strings.Contains(path, "{id}") && w.Code < 300 && op.OperationID != "DropMounting" { // what is gone may be dropped again
			t.Errorf("%s %s is answered %d: %.300s", method, at, w.Code, says)
		}
		if w.Code >= 500 {
			t.Errorf("%s %s: %d %s", method, at, w.Code, says)
		}
	}
	for path, item := range spec.Paths.Map() {
		for method, op := range item.Operations() {
			switch op.OperationID {
			case "StreamGauges", "StreamEvents", "SignOut", "SignOutEverywhere", "AddDevice", "MakeRecoveryCodes", "AcceptInvitation":
				continue
			}
			all := []string{"none"}
			if strings.Contains(path, "{id}") || slices.ContainsFunc(op.Parameters, func(p *openapi3.ParameterRef) bool {
				return p.Value.In == "query" && p.Value.Schema.Value.Format == "uuid"
			}) {
				all = ids
				named++
			}
			if strings.HasPrefix(path, "/log/{id}") {
				all = []string{row, "1"}
			}
			for _, id := range all {
				ask(method, path, op, id)
			}
		}
	}
	if after := sum(); after != before {
		t.Errorf("something of this shop was changed:\n%s\n%s", before, after)
	}
	if calls < 2000 || named < 50 || len(words) < 10 {
		t.Errorf("%d calls, %d with %d ids: the test no longer reaches much", calls, named, len(ids))
	}
	thief.must(404, "PUT", "/session/shop", obj{"shop_id": mine})
	if sh := thief.must(200, "POST", "/shops", obj{"key": mine, "name": "Ours"}); sh["id"] == mine.String() {
		t.Error("a shop was founded over another")
	}
	if got := maren.must(200, "GET", "/blades", nil)["items"].([]any); len(got) == 0 {
		t.Error("and the shop itself sees nothing")
	}
}

// Whoever guesses is stopped, learns nothing of names, and locks nobody out.
func TestGuessing(t *testing.T) {
	h := newHouse(t)
	maren := h.owner()
	codes := maren.must(201, "POST", "/account/recovery-codes", obj{"password": password})["codes"].([]any)
	thief := h.browser()
	answers := map[string]string{}
	for _, name := range []string{"Maren", "Nobody"} {
		for i := range 14 {
			w := thief.do("POST", "/session", obj{"name": name, "password": fmt.Sprint("guess number ", i)})
			p := decode(t, w)
			answers[name] += fmt.Sprint(w.Code, p["detail"], p["field"], "\n")
			if want := map[bool]int{true: 401, false: 429}[i < 10]; w.Code != want {
				t.Errorf("%s, try %d: %d %s", name, i+1, w.Code, w.Body)
			}
		}
	}
	if answers["Maren"] != answers["Nobody"] {
		t.Errorf("a name that is there is answered otherwise:\n%s\n%s", answers["Maren"], answers["Nobody"])
	}
	// From elsewhere the name is closed too, even with the right password; where
	// she signed in before it is not, nor with a code, however it is written.
	far := h.browser()
	far.from = "198.51.100.9"
	far.must(429, "POST", "/session", obj{"name": " maren", "password": password})
	maren.must(200, "DELETE", "/session", nil)
	maren.must(200, "POST", "/session", obj{"name": "MAREN", "password": password})
	far.must(401, "POST", "/session/recovery", obj{"name": "Maren", "code": "AAAAA-AAAAA-AAAAA-AAAAA", "password": "another six words of hers"})
	code := strings.ToLower(strings.ReplaceAll(codes[3].(string), "-", " "))
	far.must(200, "POST", "/session/recovery", obj{"name": "Maren", "code": code, "password": "another six words of hers"})
	far.must(401, "POST", "/session/recovery", obj{"name": "Maren", "code": code, "password": "another six words of hers"})
	if got := far.as() + ", " + maren.as(); got != "in owner Maren, out viewer <nil>" {
		t.Errorf("after a recovery: %s", got)
	}
	if n := far.must(200, "GET", "/account", nil)["recovery_codes"]; n != 9.0 {
		t.Errorf("%v codes are left", n)
	}
	// After a while it is open again; an address has tries of its own.
	h.now = h.now.Add(16 * time.Minute)
	h.browser().must(200, "POST", "/session", obj{"name": "Maren", "password": "another six words of hers"})
	last := 0
	for i := range 101 {
		last = thief.do("POST", "/session", obj{"name": fmt.Sprint("name ", i), "password": "x"}).Code
	}
	if last != 429 {
		t.Errorf("a hundred names from one address: %d", last)
	}
	many := h.browser()
	for i := range 101 {
		many.from = fmt.Sprintf("[2001:db8::%x]", i)
		last = many.do("POST", "/session", obj{"name": fmt.Sprint("name ", i), "password": "x"}).Code
	}
	if many.from = "[2001:db8:0:1::7]"; last != 429 || many.do("POST", "/session", obj{"name": "name", "password": "x"}).Code != 401 {
		t.Errorf("a hundred addresses of one network: %d, or its neighbour as well", last)
	}
	// Passwords that were tried close no link.
	thief.must(404, "GET", "/invitations/"+strings.Repeat("A", 26), nil)
	thief.must(404, "GET", "/guests/"+strings.Repeat("A", 26), nil)
}

// A session is over when it is over, and is nobody's but whose it is.
func TestSessions(t *testing.T) {
	h := newHouse(t)
	maren := h.owner()
	const cookie = "corte_session"
	// Planted beforehand, a cookie is worth nothing after she signs in with it.
	planted := h.browser()
	planted.jar[cookie] = maren.jar[cookie][:20] + strings.Repeat("A", 23)
	before := planted.jar[cookie]
	planted.must(200, "POST", "/session", obj{"name": "Maren", "password": password})
	if planted.jar[cookie] == before {
		t.Error("a planted session was taken on")
	}
	thief := h.browser()
	thief.jar[cookie] = before
	if got := thief.as(); got != "out viewer <nil>" {
		t.Errorf("who planted it is %s", got)
	}
	anonymous := h.browser()
	anonymous.jar[cookie] = planted.jar[cookie]
	planted.must(200, "POST", "/session", obj{"name": "Maren", "password": password})
	if got := anonymous.as(); got != "out viewer <nil>" {
		t.Errorf("the token before signing in anew is %s", got)
	}
	// Stolen, it is worth nothing after she signs out.
	maps.Copy(thief.jar, planted.jar)
	if got := thief.as(); got != "in owner Maren" {
		t.Fatalf("a stolen cookie is %s: the test steals nothing", got)
	}
	planted.must(200, "DELETE", "/session", nil)
	if got := thief.as(); got != "out viewer <nil>" {
		t.Errorf("stolen and signed out, it is %s", got)
	}
	// Everywhere, and by a new password everywhere but here.
	second := h.browser()
	second.must(200, "POST", "/session", obj{"name": "Maren", "password": password})
	second.must(403, "PUT", "/account/password", obj{"now": "not hers at all", "new": "a quite new password"})
	second.must(200, "PUT", "/account/password", obj{"now": password, "new": "a quite new password"})
	if got := maren.as() + ", " + second.as(); got != "out viewer <nil>, in owner Maren" {
		t.Errorf("after a new password: %s", got)
	}
	maps.Copy(maren.jar, second.jar)
	second.must(200, "POST", "/account/sign-outs", nil)
	if got := maren.as() + ", " + second.as(); got != "out viewer <nil>, out viewer <nil>" {
		t.Errorf("signed out everywhere: %s", got)
	}
	h.browser().must(401, "POST", "/session", obj{"name": "Maren", "password": password})
	maren.must(200, "POST", "/session", obj{"name": "Maren", "password": "a quite new password"})
	// Another site's page, and another name for this machine.
	for _, forged := range [][]string{{"Sec-Fetch-Site", "cross-site"}, {"Origin", "https://corte.example.net"}} {
		maren.must(403, "POST", "/copies", nil, forged...)
	}
	r := httptest.NewRequest("GET", "http://127.0.0.1/api/v1/session", nil)
	r.Host = "corte.example.net"
	w := httptest.NewRecorder()
	h.h.ServeHTTP(w, r)
	if w.Code != http.StatusMisdirectedRequest {
		t.Errorf("under another name: %d", w.Code)
	}
	// Behind a proxy: through it alone, under its name, with cookies for TLS.
	proxied := *h
	proxied.bench = &bench{}
	*proxied.bench = *h.bench
	proxied.h = h.serve(httpapi.Options{SignIn: &httpapi.SignIn{Secure: true}, Hosts: []string{"corte.example.net"}, Proxies: []string{"192.0.2.7"}})
	for from, want := range map[string]int{"192.0.2.7": 200, "192.0.2.8": 421, "127.0.0.1": 200} {
		r := httptest.NewRequest("POST", "http://corte.example.net/api/v1/session", strings.NewReader(`{"name": "Maren", "password": "a quite new password"}`))
		r.RemoteAddr = from + ":99"
		r.Header.Set("Content-Type", "application/json")
		r.Header.Set("X-Forwarded-For", "203.0.113.5")
		w := httptest.NewRecorder()
		proxied.h.ServeHTTP(w, r)
		if w.Code != want {
			t.Errorf("from %s: %d %s", from, w.Code, w.Body)
		}
		for _, c := range w.Result().Cookies() {
			if !c.Secure || !strings.HasPrefix(c.Name, "__Host-") {
				t.Errorf("over TLS it sets %s", c)
			}
		}
		if want == 200 && w.Header().Get("Strict-Transport-Security") == "" {
			t.Error("and does not say to stay on TLS")
		}
	}
	audit := maren.must(200, "GET", "/audit?limit=2", nil)
	if first := audit["items"].([]any)[0].(obj); first["what"] != "signed in" || first["address"] != "203.0.113.5" && first["address"] != "127.0.0.1" || audit["next"] == nil {
		t.Errorf("the audit begins with %v", audit)
	}
}

// Nobody becomes more than they are, and what was given is taken back at once.
func TestRoles(t *testing.T) {
	h := newHouse(t)
	maren := h.owner()
	all := func() []any { return maren.must(200, "GET", "/people", nil)["items"].([]any) }
	me := named(all(), "Maren")
	at := func(id any) string { return fmt.Sprint("/people/", id) }
	key := func() []string { return []string{"Idempotency-Key", uuid.NewString()} }
	// The only owner who can sign in stays one.
	maren.must(409, "PUT", at(me["id"]), obj{"name": "Maren", "role": "worker"}, "If-Match", fmt.Sprintf(`"%v"`, me["version"]))
	maren.must(409, "DELETE", at(me["id"]), nil)
	botho, id := h.member(maren, "Botho", "learner")
	maren.must(409, "POST", "/people", obj{"name": "botho", "role": "viewer"}, key()...)
	for _, try := range []obj{{"name": "Botho", "role": "owner"}, {"name": "Maren", "role": "learner"}} {
		botho.must(403, "PUT", at(id), try, "If-Match", `"2"`)
	}
	botho.must(403, "POST", "/people", obj{"name": "Third", "role": "owner"}, key()...)
	botho.must(403, "POST", "/tokens", obj{"name": "t", "role": "owner", "days": 1})
	// Two owners; each change is over a version.
	maren.must(412, "PUT", at(id), obj{"name": "Botho", "role": "owner"}, "If-Match", `"1"`)
	maren.must(200, "PUT", at(id), obj{"name": "Botho", "role": "owner"}, "If-Match", `"2"`)
	token := botho.must(201, "POST", "/tokens", obj{"name": "t", "role": "owner", "days": 1})["token"].(string)
	script := &browser{h: h, jar: map[string]string{}, from: "192.0.2.3", bearer: token}
	script.must(200, "GET", "/copies", nil)
	script.must(403, "POST", "/devices", obj{"name": "no browser"})
	// Of two owners who let each other go at once, one stays.
	codes := make([]int, 2)
	var both sync.WaitGroup
	both.Go(func() { codes[0] = maren.do("DELETE", at(id), nil).Code })
	both.Go(func() { codes[1] = botho.do("DELETE", at(me["id"]), nil).Code })
	both.Wait()
	if slices.Sort(codes); codes[0] != 204 || codes[1] == 204 {
		t.Fatalf("two owners let each other go: %v", codes)
	}
	stays, gone, name := maren, botho, "Botho"
	if maren.do("GET", "/people", nil).Code != 200 {
		stays, gone, name = botho, maren, "Maren"
	}
	gone.must(403, "GET", "/people", nil)
	gone.must(403, "GET", "/blades", nil)
	if name == "Botho" {
		script.must(401, "GET", "/blades", nil)
	}
	if got := gone.as(); got != "in viewer "+name {
		t.Errorf("who was let go is %s", got)
	}
	// A token ends where who made it may do less than before, and on its day.
	rosa, rid := h.member(stays, "Rosa", "owner")
	script.bearer = rosa.must(201, "POST", "/tokens", obj{"name": "backup", "role": "owner", "days": 2})["token"].(string)
	script.must(200, "GET", "/copies", nil)
	v := 2
	change := func(role string) {
		t.Helper()
		stays.must(200, "PUT", at(rid), obj{"name": "Rosa", "role": role}, "If-Match", fmt.Sprintf(`"%d"`, v))
		v++
	}
	change("viewer")
	script.must(401, "GET", "/blades", nil)
	change("owner")
	script.must(401, "GET", "/blades", nil)
	script.bearer = rosa.must(201, "POST", "/tokens", obj{"name": "backup", "role": "owner", "days": 2})["token"].(string)
	script.must(200, "GET", "/copies", nil)
	h.now = h.now.Add(49 * time.Hour)
	script.must(401, "GET", "/blades", nil)
	script.bearer = rosa.must(201, "POST", "/tokens", obj{"name": "again", "role": "viewer", "days": 2})["token"].(string)
	passes := stays.must(200, "GET", "/passes", nil)["items"].([]any)
	if len(passes) != 1 || passes[0].(obj)["name"] != "again" {
		t.Fatalf("what opens the shop: %v", passes)
	}
	stays.must(204, "DELETE", fmt.Sprint("/passes/", passes[0].(obj)["id"]), nil)
	script.must(401, "GET", "/blades", nil)
	// An invitation as something else is one no more.
	nils := stays.must(201, "POST", "/people", obj{"name": "Nils", "role": "worker"}, key()...)["id"].(string)
	invited := strings.TrimPrefix(stays.must(201, "POST", at(nils)+"/invitations", nil)["path"].(string), "/join/")
	stays.must(200, "PUT", at(nils), obj{"name": "Nils", "role": "viewer"}, "If-Match", `"1"`)
	if w := h.browser().do("POST", "/invitations/"+invited, obj{"name": "Nils", "password": password}); w.Code/100 == 2 {
		t.Errorf("invited as a worker and made a viewer, Nils comes in: %s", w.Body)
	}
	// Who was let go comes back under the same account once they are invited again.
	olga, former := h.member(stays, "Olga", "learner")
	stays.must(204, "DELETE", at(former), nil, key()...)
	anew := stays.must(201, "POST", "/people", obj{"name": "Olga", "role": "worker"}, key()...)["id"].(string)
	invited = strings.TrimPrefix(stays.must(201, "POST", at(anew)+"/invitations", nil)["path"].(string), "/join/")
	olga.must(200, "POST", "/invitations/"+invited, obj{})
	if got := olga.as(); got != "in worker Olga" {
		t.Errorf("back in the shop she is %s", got)
	}
	// What they did is by them, and stays so.
	e := rosa.must(201, "POST", "/cuts", h.made(nil), key()...)
	if e["by"] != "Rosa" {
		t.Errorf("a cut is by %v", e["by"])
	}
	row := fmt.Sprint("/log/", int64(e["id"].(float64)))
	rosa.must(201, "POST", row+"/strike", obj{"note": "not mine"}, key()...)
	found := ""
	for _, a := range stays.must(200, "GET", "/audit", nil)["items"].([]any) {
		found += fmt.Sprint(a.(obj)["who"], " ", a.(obj)["what"], "\n")
	}
	for _, want := range []string{"Rosa deleted an entry", "changed a role from owner to viewer", "removed a person", "revoked a token", "made a token as owner", "accepted an invitation as learner"} {
		if !strings.Contains(found, want) {
			t.Errorf("the audit lacks %q:\n%s", want, found)
		}
	}
}

// At a tablet a name is tapped, with its PIN; whose tablet it is no more, it is
// at once.
func TestTablet(t *testing.T) {
	h := newHouse(t)
	maren := h.owner()
	rosa := maren.must(201, "POST", "/people", obj{"name": "Rosa", "role": "learner"}, "Idempotency-Key", uuid.NewString())
	tablet := h.browser()
	tablet.must(200, "POST", "/session", obj{"name": "Maren", "password": password})
	if s := tablet.must(201, "POST", "/devices", obj{"name": "Long Table"}); s["state"] != "tablet" || s["device"] != "Long Table" {
		t.Fatalf("it is %v", s)
	}
	cut := func(code int) obj {
		t.Helper()
		return tablet.must(code, "POST", "/cuts", h.made(nil), "Idempotency-Key", uuid.NewString())
	}
	cut(403)
	tap := func(code int, pin string) {
		t.Helper()
		body := obj{"member_id": rosa["id"]}
		if pin != "" {
			body["pin"] = pin
		}
		tablet.must(code, "PUT", "/session/hand", body)
	}
	tap(422, "")
	tap(200, "2580") // she chooses it
	if e := cut(201); e["by"] != "Rosa" {
		t.Errorf("it is by %v", e["by"])
	}
	tablet.must(200, "DELETE", "/session", nil)
	for i := range 8 {
		tap(map[bool]int{true: 401, false: 429}[i < 6], "0000")
	}
	tap(429, "2580")
	h.now = h.now.Add(16 * time.Minute)
	tap(200, "2580")
	h.now = h.now.Add(13 * time.Hour)
	cut(403)
	// Her PIN forgotten, she chooses another; without PINs a tap does.
	maren.must(204, "DELETE", fmt.Sprint("/people/", rosa["id"], "/pin"), nil)
	tap(200, "1357")
	tablet.must(200, "DELETE", "/session", nil)
	tap(401, "2580")
	sh := maren.must(200, "GET", "/shop", nil)
	input := obj{"name": sh["name"], "change_minutes": 3, "height_school": "saw", "learning": true, "sharpening_price": 0, "pins": false}
	maren.must(200, "PUT", "/shop", input, "If-Match", fmt.Sprintf(`"%v"`, sh["version"]))
	tap(200, "")
	cut(201)
	// No hand of another shop's is there, and no other browser is the tablet.
	tablet.must(422, "PUT", "/session/hand", obj{"member_id": uuid.NewString()})
	h.browser().must(409, "PUT", "/session/hand", obj{"member_id": rosa["id"]})
	pass := maren.must(200, "GET", "/passes", nil)["items"].([]any)[0].(obj)
	maren.must(204, "DELETE", fmt.Sprint("/passes/", pass["id"]), nil)
	if got := tablet.as(); got != "out viewer <nil>" {
		t.Errorf("withdrawn, it is %s", got)
	}
}

// Who is not signed off for a cut hears it where blades are chosen and where cuts
// are logged: a word of caution, or a stop until somebody stands by.
func TestSignedOff(t *testing.T) {
	h := newHouse(t)
	maren := h.owner()
	rosa, id := h.member(maren, "Rosa", "learner")
	policy := func(how string) {
		t.Helper()
		sh := maren.must(200, "GET", "/shop", nil)
		maren.must(200, "PUT", "/shop", obj{"name": sh["name"], "change_minutes": 3, "height_school": "saw", "learning": true, "sharpening_price": 0, "sign_off": how}, "If-Match", fmt.Sprintf(`"%v"`, sh["version"]))
	}
	says := func(br *browser, change obj) (verdict, ask string) {
		t.Helper()
		p := br.must(200, "POST", "/plans", obj{"cut": h.cut(change), "units": "mm"})
		for _, f := range p["findings"].([]any) {
			if f := f.(obj); f["rule"] == "sign-off" {
				return fmt.Sprint(f["verdict"], " of ", p["verdict"]), fmt.Sprint(f["ask"])
			}
		}
		return "", ""
	}
	log := func(code int, change obj, header ...string) string {
		t.Helper()
		header = append(header, "Idempotency-Key", uuid.NewString())
		e := rosa.must(code, "POST", "/cuts", h.made(obj{"cut": h.cut(change)}), header...)
		return fmt.Sprint(e["note"])
	}
	if v, _ := says(rosa, nil); v != "" {
		t.Errorf("where the shop asks for nothing it says %s", v)
	}
	policy("caution")
	if v, ask := says(rosa, nil); v != "caution of caution" || ask != "<nil>" {
		t.Errorf("as a caution: %s, %s", v, ask)
	}
	if note := log(201, nil); note != "Not signed off for it." {
		t.Errorf("the log notes %q", note)
	}
	if v, _ := says(maren, nil); v != "" {
		t.Errorf("to an owner it says %s", v)
	}
	policy("stop")
	if v, ask := says(rosa, nil); v != "stop of stop" || !strings.Contains(ask, "standing by") {
		t.Errorf("as a stop: %s, %s", v, ask)
	}
	log(403, nil)
	log(403, nil, "Waited-Seconds", "3")
	if note := log(201, nil, "Waited-Seconds", "90"); note != "Not signed off for it." {
		t.Errorf("made while the server was away: %q", note)
	}
	if v, _ := says(rosa, obj{"stood_by": true}); v != "" {
		t.Errorf("stood by: %s", v)
	}
	if note := log(201, obj{"stood_by": true}); note != "A person who is signed off stood by." {
		t.Errorf("stood by, the log notes %q", note)
	}
	// Signed off for rips on this saw, and no other kind nor saw.
	off := func(saw string, cuts ...string) obj {
		t.Helper()
		return maren.must(200, "PUT", "/people/"+id+"/sign-offs/"+h.saw[saw], obj{"cuts": append([]string{}, cuts...)})
	}
	maren.must(422, "PUT", "/people/"+id+"/sign-offs/"+h.saw["miter"], obj{"cuts": []string{"crosscut", "groove"}})
	m := off("table", "rip", "rip")
	if s := m["signed_off"].([]any)[0].(obj); s["by"] != "Maren" || fmt.Sprint(s["cuts"]) != "[rip]" {
		t.Errorf("signed off: %v", s)
	}
	for want, changes := range map[string][]obj{"": {nil}, "stop of stop": {{"direction": "crosscut"}, {"form": "groove", "depth_mm": 6}, {"saw_id": h.saw["miter"], "direction": "crosscut", "thickness_mm": 20, "width_mm": 60}}} {
		for _, change := range changes {
			if v, _ := says(rosa, change); v != want {
				t.Errorf("%v: %q, not %q", change, v, want)
			}
		}
	}
	if note := log(201, nil); note != "<nil>" {
		t.Errorf("signed off, the log notes %q", note)
	}
	mine := rosa.must(200, "GET", "/shelf", nil)["Mine"].(obj)
	if a := mine[h.saw["table"]].(obj); a["Asked"] != true || fmt.Sprint(a["Cuts"]) != "[rip]" {
		t.Errorf("what her browser keeps to weigh by: %v", mine)
	}
	off("table")
	if v, _ := says(rosa, nil); v != "stop of stop" {
		t.Errorf("withdrawn: %q", v)
	}
}

// A saw doctor reads one blade's report, and nothing else.
func TestGuest(t *testing.T) {
	h := newHouse(t)
	maren := h.owner()
	at := maren.must(201, "POST", "/blades/"+h.blade["Trapdoor"]+"/guests", obj{"name": "Saw doctor", "days": 14})["path"].(string)
	secret := strings.TrimPrefix(at, "/guest/")
	doctor := h.browser()
	r := doctor.must(200, "GET", "/guests/"+secret, nil)
	if r["blade"].(obj)["name"] != "Trapdoor" || r["shop"] == nil {
		t.Errorf("the report is %v", r)
	}
	doctor.must(401, "GET", "/blades/"+h.blade["Trapdoor"], nil)
	(&browser{h: h, jar: map[string]string{}, from: "192.0.2.4", bearer: secret}).must(401, "GET", "/blades", nil)
	h.browser().must(404, "GET", "/invitations/"+secret, nil)
	h.now = h.now.Add(15 * 24 * time.Hour)
	doctor.must(404, "GET", "/guests/"+secret, nil)
	// The calendar's address opens for a stranger what it is of.
	cal := maren.must(201, "POST", "/calendar", nil)["path"].(string)
	if w := doctor.do("GET", strings.TrimPrefix(cal, "/api/v1"), nil); w.Code != 200 || !strings.Contains(w.Body.String(), "BEGIN:VCALENDAR") {
		t.Errorf("the calendar is answered %d", w.Code)
	}
}

// Somebody may belong to two shops, is in one at a time, and what is cut in one
// is not in the other.
func TestTwoShops(t *testing.T) {
	h := newHouse(t)
	maren := h.owner()
	there, _, err := h.st.EnsureShop(t.Context(), store.Shop{ID: uuid.New(), Slug: "there", Name: "Over there", ChangeMinutes: 3})
	if err != nil {
		t.Fatal(err)
	}
	secret, err := h.svc.People.FirstOwner(t.Context(), there.ID)
	if err != nil {
		t.Fatal(err)
	}
	if in := maren.must(200, "GET", "/invitations/"+secret, nil); in["signed_in"] != "Maren" {
		t.Errorf("it invites %v", in)
	}
	h.browser().must(409, "POST", "/invitations/"+secret, obj{"name": "MAREN", "password": password})
	s := maren.must(200, "POST", "/invitations/"+secret, obj{})
	if s["shop"].(obj)["name"] != "Over there" || len(s["shops"].([]any)) != 2 {
		t.Errorf("she is in %v of %v", s["shop"], s["shops"])
	}
	if n := len(maren.must(200, "GET", "/blades", nil)["items"].([]any)); n != 0 {
		t.Errorf("%d blades hang over there", n)
	}
	s = maren.must(200, "PUT", "/session/shop", obj{"shop_id": h.shop})
	if n := len(maren.must(200, "GET", "/blades", nil)["items"].([]any)); n == 0 || s["shop"].(obj)["id"] != h.shop.String() {
		t.Errorf("back in %v there are %d blades", s["shop"], n)
	}
}

// An owner founds another shop, once however often the answer is lost, goes over
// to it, and brings the first one's file into it.
func TestFoundingAnotherShop(t *testing.T) {
	h := newHouse(t)
	maren := h.owner()
	rosa, _ := h.member(maren, "Rosa", "worker")
	loft := obj{"key": uuid.NewString(), "name": "  The loft "}
	rosa.must(403, "POST", "/shops", loft)
	maren.must(422, "POST", "/shops", obj{"key": loft["key"], "name": "  "})
	id := ""
	var once sync.WaitGroup
	for range 4 { // the answer is lost, or both buttons were pressed
		once.Go(func() {
			if w := maren.do("POST", "/shops", loft); w.Code != 200 || !strings.Contains(w.Body.String(), `"The loft"`) {
				t.Errorf("founded %d %s", w.Code, w.Body)
			}
		})
	}
	once.Wait()
	id = maren.must(200, "POST", "/shops", loft)["id"].(string)
	if id == loft["key"] {
		t.Error("who asks chose the shop's ID")
	}
	if s := maren.must(200, "GET", "/session", nil); len(s["shops"].([]any)) != 2 || s["shop"].(obj)["id"] != h.shop.String() {
		t.Errorf("she is in %v of %v", s["shop"], s["shops"])
	}
	file := maren.do("GET", "/shop-file", nil).Body.String()
	if s := maren.must(200, "PUT", "/session/shop", obj{"shop_id": id}); s["role"] != "owner" {
		t.Errorf("in her own shop she is %v", s["role"])
	}
	if sh := maren.must(200, "GET", "/shop", nil); sh["time_zone"] != "America/New_York" {
		t.Errorf("its days are those of %q", sh["time_zone"])
	}
	if w := maren.do("PUT", "/shop-file", file, "Content-Type", "application/octet-stream"); w.Code != 200 {
		t.Errorf("bringing the other one's file: %d %s", w.Code, w.Body)
	}
	if n := len(maren.must(200, "GET", "/blades", nil)["items"].([]any)); n < 20 {
		t.Errorf("%d blades came with it", n)
	}
	if heard := fmt.Sprint(maren.must(200, "GET", "/audit", nil)["items"]); !strings.Contains(heard, "created the shop") {
		t.Errorf("of it is told %s", heard)
	}
	n := 0
	for w := maren.do("POST", "/shops", loft); w.Code == 200 && n < 60; n++ {
		w = maren.do("POST", "/shops", obj{"key": uuid.NewString(), "name": "One more"})
	}
	if s := maren.must(200, "GET", "/session", nil); len(s["shops"].([]any)) != 50 {
		t.Errorf("she has founded %d and has %d", n, len(s["shops"].([]any)))
	}
	// At a server that nobody signs in to there is one shop.
	if w := newBench(t).post("/shops", loft); w.Code != 409 || !strings.Contains(w.Body.String(), "CORTE_SHOP") {
		t.Errorf("without sign-in: %d %s", w.Code, w.Body)
	}
}
