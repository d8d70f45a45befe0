package httpapi_test

import (
	"encoding/json"
	"net/http"
	"testing"

	"github.com/descope/virtualwebauthn"
)

// A passkey is added and opens, and only where the authenticator has made sure
// of who holds it: a stolen phone alone lets nobody in.
func TestPasskeyCeremony(t *testing.T) {
	h := newHouse(t)
	under := h.h
	h.h = http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) { // browsers bind passkeys to a name
		r.Host = "localhost"
		under.ServeHTTP(w, r)
	})
	rp := virtualwebauthn.RelyingParty{Name: "Corte", ID: "localhost", Origin: "http://localhost"}
	owner := h.owner()
	as := func(raw string) (out any) {
		if err := json.Unmarshal([]byte(raw), &out); err != nil {
			t.Fatal(err)
		}
		return out
	}
	challenge := func(br *browser, path string, body any) string {
		asked := br.must(200, "POST", path, body)
		verification := asked["userVerification"]
		if chosen, _ := asked["authenticatorSelection"].(map[string]any); chosen != nil {
			verification = chosen["userVerification"]
		}
		if verification != "required" {
			t.Errorf("%s asks for verification %v", path, verification)
		}
		raw, _ := json.Marshal(asked)
		return string(raw)
	}
	register := func(a *virtualwebauthn.Authenticator, c virtualwebauthn.Credential) int {
		o, err := virtualwebauthn.ParseAttestationOptions(challenge(owner, "/account/passkey-challenges", obj{"password": password}))
		if err != nil {
			t.Fatal(err)
		}
		a.Options.UserHandle = []byte(o.UserID)
		made := virtualwebauthn.CreateAttestationResponse(rp, *a, c, *o)
		return owner.do("POST", "/account/passkeys", obj{"name": "Phone", "credential": as(made)}).Code
	}
	signIn := func(a virtualwebauthn.Authenticator, c virtualwebauthn.Credential) (*browser, int) {
		br := h.browser()
		o, err := virtualwebauthn.ParseAssertionOptions(challenge(br, "/session/passkey-challenges", nil))
		if err != nil {
			t.Fatal(err)
		}
		return br, br.do("POST", "/session/passkeys", as(virtualwebauthn.CreateAssertionResponse(rp, a, c, *o))).Code
	}
	phone, key := virtualwebauthn.NewAuthenticator(), virtualwebauthn.NewCredential(virtualwebauthn.KeyTypeEC2)
	if code := register(&phone, key); code != 201 {
		t.Fatalf("added: %d", code)
	}
	phone.AddCredential(key)
	if br, code := signIn(phone, key); code != 200 || br.as() != "in owner Maren" {
		t.Errorf("signed in: %d, %s", code, br.as())
	}
	// Nobody was asked for a finger or a PIN.
	careless, other := virtualwebauthn.NewAuthenticatorWithOptions(virtualwebauthn.AuthenticatorOptions{UserNotVerified: true}), virtualwebauthn.NewCredential(virtualwebauthn.KeyTypeEC2)
	if code := register(&careless, other); code != 422 {
		t.Errorf("added without verification: %d", code)
	}
	phone.Options.UserNotVerified = true
	if br, code := signIn(phone, key); code != 401 || br.as() == "in owner Maren" {
		t.Errorf("signed in without verification: %d, %s", code, br.as())
	}
}
