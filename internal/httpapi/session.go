package httpapi

import (
	"context"
	"encoding/base64"
	"errors"
	"fmt"
	"log/slog"
	"net/http"
	"slices"
	"strings"
	"sync"
	"time"

	"github.com/alexedwards/argon2id"
	"github.com/alexedwards/scs/postgresstore"
	"github.com/alexedwards/scs/v2"
	"github.com/gin-gonic/gin"
	"github.com/google/uuid"

	"corte/core/say"
	"corte/internal/account"
	"corte/internal/events"
	"corte/internal/httpapi/contract"
	"corte/internal/httpapi/request"
	"corte/internal/ptr"
	"corte/internal/record"
	"corte/internal/store"
)

// SignIn configures sign-in.
type SignIn struct {
	Secure bool             // cookies go over TLS alone
	Cost   *argon2id.Params // of a password's hash; nil for the usual
}

// The keys of a session's values.
const (
	inPerson  = "person" // who signed in
	inEpoch   = "epoch"  // of theirs, then
	inSigned  = "signed" // when they signed in, by the service's clock
	inShop    = "shop"   // that they are in
	inMember  = "member" // who was tapped at a tablet
	inSince   = "since"  // when that was
	inHold    = "hold"   // what the tapped name holds by
	inPasskey = "passkey"
)

const (
	sessionLifetime = 30 * 24 * time.Hour
	browserLifetime = 400 * 24 * time.Hour // as long as browsers keep anything
	tappedLifetime  = 12 * time.Hour       // a name that was tapped goes on no longer than a day's work
)

// A door finds out who sends a request: by session, tablet or token.
type door struct {
	desk     *account.Desk
	sessions *scs.SessionManager
	secure   bool
}

func newDoor(st *store.Store, now func() time.Time, how *SignIn) (*door, error) {
	desk, err := account.At(st, now, how.Cost)
	if err != nil {
		return nil, err
	}
	m := scs.New()
	m.Store = postgresstore.NewWithCleanupInterval(st.DB(), 0) // old ones are swept with the rest
	m.Lifetime, m.HashTokenInStore = sessionLifetime, true
	m.Cookie = scs.SessionCookie{Name: cookieName("corte_session", how.Secure), Path: "/", HttpOnly: true, Persist: true, SameSite: http.SameSiteLaxMode, Secure: how.Secure}
	return &door{desk, m, how.Secure}, nil
}

// cookieName adds the __Host- prefix where cookies are secure, so that browsers refuse
// a cookie that another service on the same host has set.
func cookieName(name string, secure bool) string {
	if secure {
		return "__Host-" + name
	}
	return name
}

func (d *door) tabletCookie() string { return cookieName("corte_tablet", d.secure) }

func (d *door) browserCookie() string { return cookieName("corte_browser", d.secure) }

// cookie makes a cookie that scripts can't read. An empty value deletes it.
func (d *door) cookie(name, value string) *http.Cookie {
	c := &http.Cookie{Name: name, Value: value, Path: "/", HttpOnly: true, Secure: d.secure, SameSite: http.SameSiteLaxMode, MaxAge: int(browserLifetime.Seconds())}
	if value == "" {
		c.MaxAge = -1
	}
	return c
}

// A visit is what is known of the sender of one request. Cookies that a handler adds
// are written when the answer begins.
type visit struct {
	door    *door
	person  *store.Person // who is signed in
	tablet  *store.Pass   // at which it is
	address string
	host    string // scheme and name that the page is under
	browser string // the secret of one that somebody signed in on
	cookies []*http.Cookie
	begun   bool
}

const visitKey = "visit"

func visitOf(ctx context.Context) *visit {
	v, _ := ctx.Value(visitKey).(*visit)
	return v
}

// who finds out who sends a request and puts it into their shop. A stranger's shop
// doesn't exist.
func (s *server) who(c *gin.Context) {
	ctx := c.Request.Context()
	if s.door == nil {
		c.Request = c.Request.WithContext(record.As(store.For(ctx, s.home), record.Actor{Shop: s.home, Role: record.Owner, Way: record.Open, Address: c.ClientIP()}))
		return
	}
	v := &visit{door: s.door, address: c.ClientIP(), host: origin(c.Request, s.door.secure), browser: cookieOf(c, s.door.browserCookie())}
	apart := account.Apart(ctx)
	token := cookieOf(c, s.door.sessions.Cookie.Name)
	loaded, err := s.door.sessions.Load(apart, token)
	if err != nil {
		refuseError(c, err)
		return
	}
	c.Set(visitKey, v)
	a, err := s.actor(c, loaded, v)
	if err != nil {
		refuseError(c, err)
		return
	}
	if s.beside {
		a = s.lookingRound(a)
		v.person, v.tablet = nil, nil // who they are is their own shop's business
	}
	a.Address = v.address
	shop := a.Shop
	if shop == uuid.Nil {
		shop = uuid.Max
	}
	c.Request = c.Request.WithContext(record.As(store.For(loaded, shop), a))
	if keepsSession(c.Request) {
		direct := c.Writer
		c.Writer = &opening{direct, func() { s.door.leave(c.Request.Context(), direct, v) }}
	}
}

// lookingRound is who somebody of another shop is in the demo: they work in it,
// without a name, and run nothing. A script is let into its own shop alone, and
// whoever belongs to no shop has no role here either.
func (s *server) lookingRound(a record.Actor) record.Actor {
	switch {
	case a.Way == record.Out || a.Way == record.Token:
		return record.Actor{}
	case a.Role == record.Nobody:
		return record.Actor{Way: a.Way}
	}
	return record.Actor{Shop: s.home, Role: record.Worker, Way: record.Open}
}

func cookieOf(c *gin.Context, name string) string {
	value, err := c.Cookie(name)
	if err != nil {
		return ""
	}
	return value
}

// madeBy refuses a queued change of somebody other than the person who is signed in
// now. It stays in the browser's queue for its author.
func madeBy(c *gin.Context) {
	said := c.GetHeader("Made-By")
	if said == "" {
		return
	}
	a := record.ActorOf(c.Request.Context())
	is := a.Shop.String() + ":"
	if a.Member != nil {
		is += a.Member.String()
	}
	if said != is {
		refuse(c, http.StatusForbidden, "", say.Of("Another person made this on this device. Nothing was saved. It waits until they sign in here again."))
	}
}

// origin is the page's origin, as browsers write it.
func origin(r *http.Request, secure bool) string {
	if secure {
		return "https://" + r.Host
	}
	return "http://" + r.Host
}

// actor is the person of a token, a session or a tablet.
func (s *server) actor(c *gin.Context, ctx context.Context, v *visit) (record.Actor, error) {
	if bearer, ok := strings.CutPrefix(c.GetHeader("Authorization"), "Bearer "); ok {
		return s.byToken(ctx, strings.TrimSpace(bearer))
	}
	if a, err := s.bySession(ctx, v); err != nil || a.Way != record.Out {
		return a, err
	}
	if secret := cookieOf(c, s.door.tabletCookie()); secret != "" {
		now := s.Service.Now()
		p, err := s.Service.Store.PassOf(ctx, "tablet", account.Digest(secret), now)
		if errors.Is(err, store.ErrNone) {
			return record.Actor{}, nil
		}
		if err == nil {
			err = s.Service.Store.UsedPass(ctx, p, now)
		}
		if err != nil {
			return record.Actor{}, err
		}
		v.tablet = &p
	}
	return s.byTablet(ctx, v)
}

// whileIn is a context that ends when whoever asked is no longer let in as they
// were: signed out, let go, given another role, or a name that was put down. It
// is looked up at once where people or sign-ins of the shop change, and at every
// heartbeat. It outlasts the request's own deadline; done frees it.
func (s *server) whileIn(ctx context.Context) (still context.Context, done func()) {
	c, ok := ctx.(*gin.Context)
	if !ok || s.door == nil {
		return context.WithCancel(ctx)
	}
	still, cancel := context.WithCancel(c.Request.Context())
	rings, unwatch := s.events.Subscribe(request.Shop(still))
	was := record.ActorOf(still)
	var watching sync.WaitGroup
	watching.Go(func() {
		defer unwatch()
		defer cancel()
		beat := time.NewTicker(heartbeat)
		defer beat.Stop()
		for {
			select {
			case <-still.Done():
				return
			case <-beat.C:
			case what, ok := <-rings:
				if !ok {
					return // Corte is stopping
				}
				if !slices.Contains(aboutPeople, what) {
					continue
				}
			}
			if is, err := s.askedBy(c); err == nil && !is.Same(was) {
				return
			}
		}
	})
	return still, func() {
		cancel()
		watching.Wait()
	}
}

// aboutPeople lists the kinds of change that may end somebody's access.
var aboutPeople = []string{"people", "passes", "devices", "tokens", "session", "account", "shop", events.Everything}

// askedBy finds out again who sends a request.
func (s *server) askedBy(c *gin.Context) (record.Actor, error) {
	ctx := account.Apart(context.WithoutCancel(c.Request.Context()))
	loaded, err := s.door.sessions.Load(ctx, cookieOf(c, s.door.sessions.Cookie.Name))
	if err != nil {
		return record.Actor{}, err
	}
	a, err := s.actor(c, loaded, &visit{door: s.door})
	if err == nil && s.beside {
		a = s.lookingRound(a)
	}
	return a, err
}

// byTablet is the member whose name was tapped on a tablet; nobody if that was too
// long ago.
func (s *server) byTablet(ctx context.Context, v *visit) (record.Actor, error) {
	if v.tablet == nil {
		return record.Actor{}, nil
	}
	m, shop := s.door.sessions, v.tablet.Shop
	a := record.Actor{Shop: shop, Role: record.Viewer, Way: record.Tablet}
	id, err := uuid.Parse(m.GetString(ctx, inMember))
	if err != nil || s.Service.Now().Sub(time.Unix(m.GetInt64(ctx, inSince), 0)) > tappedLifetime {
		return a, nil //nolint:nilerr // nobody was
	}
	member, err := s.Service.Store.Member(ctx, shop, id)
	if errors.Is(err, store.ErrNone) {
		return a, nil
	}
	if err != nil {
		return a, err
	}
	holds, err := s.hold(ctx, member)
	if err != nil || holds != m.GetString(ctx, inHold) {
		return a, err
	}
	role, err := record.ParseRole(member.Role)
	// A PIN is short, so it gives no more than a worker's rights.
	a.Member, a.Name, a.Role = &member.ID, member.Name, min(role, record.Worker)
	return a, err
}

// hold is what a tapped name holds by: it changes where the PIN or the role
// does, or where the person signs out everywhere, and the name is put down then.
func (s *server) hold(ctx context.Context, m store.Member) (string, error) {
	epoch := 0
	if m.Person != nil {
		p, err := s.Service.Store.Person(ctx, *m.Person)
		if err != nil {
			return "", err
		}
		epoch = p.Epoch
	}
	return base64.RawStdEncoding.EncodeToString(account.Digest(fmt.Sprintf("%s %s %d", m.Role, m.Pin, epoch))), nil
}

// bySession is the person who signed in, in the shop that they chose or else in the
// first that they belong to.
func (s *server) bySession(ctx context.Context, v *visit) (record.Actor, error) {
	m := s.door.sessions
	id, err := uuid.Parse(m.GetString(ctx, inPerson))
	if err != nil {
		return record.Actor{}, nil //nolint:nilerr // nobody signed in
	}
	p, err := s.Service.Store.Person(ctx, id)
	if errors.Is(err, store.ErrNone) || err == nil && p.Epoch != m.GetInt(ctx, inEpoch) {
		return record.Actor{}, nil // signed out everywhere
	}
	if signed := m.GetInt64(ctx, inSigned); signed > 0 && s.Service.Now().Sub(time.Unix(signed, 0)) > sessionLifetime {
		return record.Actor{}, nil
	}
	if err != nil {
		return record.Actor{}, err
	}
	v.person = &p
	all, err := s.Service.Store.Belongings(ctx, p.ID)
	if err != nil {
		return record.Actor{}, err
	}
	if len(all) == 0 {
		return record.Actor{Way: record.SignedIn, Name: p.Name}, nil
	}
	named := m.GetString(ctx, inShop)
	b := all[max(0, slices.IndexFunc(all, func(b store.Belonging) bool { return b.Shop.String() == named }))]
	role, err := record.ParseRole(b.Role)
	return record.Actor{Shop: b.Shop, Member: &b.ID, Name: b.Name, Role: role, Way: record.SignedIn}, err
}

// byToken is the script of a token. It has no more rights than the token's author has
// now.
func (s *server) byToken(ctx context.Context, secret string) (record.Actor, error) {
	now := s.Service.Now()
	p, err := s.Service.Store.PassOf(ctx, "token", account.Digest(secret), now)
	if errors.Is(err, store.ErrNone) {
		return record.Actor{}, nil
	}
	if err == nil {
		err = s.Service.Store.UsedPass(ctx, p, now)
	}
	if err != nil {
		return record.Actor{}, err
	}
	role, err := record.ParseRole(p.Role)
	if err == nil && p.Member != nil {
		maker, gone := s.Service.Store.Member(ctx, p.Shop, *p.Member)
		if gone != nil {
			return record.Actor{}, nil //nolint:nilerr // who is gone lets nobody in
		}
		most, bad := record.ParseRole(maker.Role)
		role, err = min(role, most), bad
	}
	return record.Actor{Shop: p.Shop, Name: p.Name, Role: role, Way: record.Token}, err
}

// keepsSession reports whether a request may change who is signed in.
func keepsSession(r *http.Request) bool {
	at, ok := strings.CutPrefix(r.URL.Path, base)
	return ok && r.Method != http.MethodGet && (strings.HasPrefix(at, "/session") || strings.HasPrefix(at, "/account") || strings.HasPrefix(at, "/invitations/") || at == "/devices")
}

// An opening writes cookies before the first of an answer.
type opening struct {
	gin.ResponseWriter
	before func()
}

func (w *opening) WriteHeader(status int) { w.before(); w.ResponseWriter.WriteHeader(status) }

func (w *opening) WriteHeaderNow() { w.before(); w.ResponseWriter.WriteHeaderNow() }

func (w *opening) Write(b []byte) (int, error) { w.before(); return w.ResponseWriter.Write(b) }

func (w *opening) WriteString(s string) (int, error) {
	w.before()
	return w.ResponseWriter.WriteString(s)
}

// leave saves the session after a handler changed it, and writes its cookies.
func (d *door) leave(ctx context.Context, w http.ResponseWriter, v *visit) {
	if v.begun {
		return
	}
	v.begun = true
	for _, c := range v.cookies {
		http.SetCookie(w, c)
	}
	switch d.sessions.Status(ctx) {
	case scs.Modified:
		token, until, err := d.sessions.Commit(account.Apart(ctx))
		if err != nil {
			slog.Error("a session was not kept", "error", err)
			return
		}
		d.sessions.WriteSessionCookie(ctx, w, token, until)
	case scs.Destroyed:
		d.sessions.WriteSessionCookie(ctx, w, "", time.Time{})
	case scs.Unmodified:
	}
}

// enter signs a person in under a new session token, against session fixation.
func (v *visit) enter(ctx context.Context, p store.Person, shop uuid.UUID) error {
	m := v.door.sessions
	apart := account.Apart(ctx)
	if err := m.Clear(apart); err != nil {
		return err
	}
	if err := m.RenewToken(apart); err != nil {
		return err
	}
	m.Put(ctx, inPerson, p.ID.String())
	m.Put(ctx, inEpoch, p.Epoch)
	m.Put(ctx, inSigned, v.door.desk.Now().Unix())
	if shop != uuid.Nil {
		m.Put(ctx, inShop, shop.String())
	}
	if v.browser == "" {
		v.browser = account.Secret()
	}
	v.cookies = append(v.cookies, v.door.cookie(v.door.browserCookie(), v.browser))
	v.person = &p
	return v.door.desk.Store.KnowBrowser(apart, p.ID, account.Digest(v.browser), v.door.desk.Now())
}

// session says who asks, after whatever a handler changed.
func (s *server) session(ctx context.Context) (contract.Session, error) {
	a := record.ActorOf(ctx)
	if s.door == nil {
		sh, err := s.Service.Store.Shop(ctx, a.Shop)
		return contract.Session{State: contract.SessionStateOpen, Role: contract.Owner, Shop: &contract.SessionShop{ID: sh.ID, Name: sh.Name},
			Shops: []contract.SessionShop{}, Hands: []contract.Hand{}}, err
	}
	v := visitOf(ctx)
	apart := account.Apart(ctx)
	out := contract.Session{State: contract.SessionStateOut, Role: contract.Viewer, Shops: []contract.SessionShop{}, Hands: []contract.Hand{}, Passkeys: passkeysUnder(v.host)}
	switch a.Way {
	case record.Open:
		out.State = contract.SessionStateOpen
	case record.SignedIn, record.Token:
		out.State = contract.SessionStateIn
	case record.Tablet:
		out.State = contract.SessionStateTablet
		if a.Member != nil {
			out.State = contract.SessionStateIn
		}
	case record.Out:
		return out, nil
	}
	out.Role, out.Name, out.MemberID = contract.Role(max(a.Role, record.Viewer).String()), ptr.NonZero(a.Name), a.Member
	if v.person != nil {
		all, err := s.Service.Store.Belongings(apart, v.person.ID)
		if err != nil {
			return out, err
		}
		for _, b := range all {
			out.Shops = append(out.Shops, contract.SessionShop{ID: b.Shop, Name: b.ShopName})
		}
	}
	if a.Shop == uuid.Nil {
		return out, nil
	}
	sh, err := s.Service.Store.Shop(apart, a.Shop)
	if err != nil {
		return out, err
	}
	out.Shop, out.Pins = &contract.SessionShop{ID: sh.ID, Name: sh.Name}, ptr.NonZero(sh.Pins)
	if a.Way == record.SignedIn && a.Role == record.Owner && v.person != nil {
		alone, err := s.Service.Store.OnlyWayIn(apart, a.Shop, v.person.ID)
		if err != nil {
			return out, err
		}
		out.NoWayBack = ptr.NonZero(alone)
	}
	if v.tablet == nil {
		return out, nil
	}
	out.Device = &v.tablet.Name
	members, err := s.Service.Store.Members(apart, v.tablet.Shop, s.Service.Now())
	for _, m := range members {
		out.Hands = append(out.Hands, contract.Hand{ID: m.ID, Name: m.Name, Pin: m.Pin != ""})
	}
	return out, err
}

// anew answers the session after a handler changed who is signed in.
func (s *server) anew(ctx context.Context) (contract.Session, error) {
	v := visitOf(ctx)
	apart := account.Apart(ctx)
	a, err := s.bySession(apart, v)
	if err == nil && a.Way == record.Out {
		a, err = s.byTablet(apart, v)
	}
	if err != nil {
		return contract.Session{}, err
	}
	return s.session(record.As(ctx, a))
}
