package httpapi

import (
	"context"
	"encoding/json"
	"errors"
	"net"
	"net/url"
	"strings"

	"github.com/go-webauthn/webauthn/protocol"
	"github.com/go-webauthn/webauthn/webauthn"
	"github.com/google/uuid"

	"corte/core/say"
	"corte/internal/account"
	"corte/internal/httpapi/contract"
	"corte/internal/refusal"
	"corte/internal/store"
)

// passkeysUnder reports whether an address can have passkeys: browsers bind them
// to a name, and never to a number.
func passkeysUnder(host string) bool {
	u, err := url.Parse(host)
	return err == nil && net.ParseIP(strings.Trim(u.Hostname(), "[]")) == nil && (u.Scheme == "https" || u.Hostname() == "localhost")
}

var (
	errNoPasskeys = &refusal.Error{Reason: refusal.Conflict, What: say.Of("passkeys need https with a host name, or localhost. At this address, sign in with your password")}
	errPasskey    = &refusal.Error{Reason: refusal.Unknown, What: say.Of("that passkey doesn't belong to this shop. Sign in with your password")}
)

// relying is the relying party of WebAuthn: this server, under the host name of the
// page.
func (v *visit) relying() (*webauthn.WebAuthn, error) {
	if v == nil {
		return nil, errOpen
	}
	if !passkeysUnder(v.host) {
		return nil, errNoPasskeys
	}
	u, err := url.Parse(v.host)
	if err != nil {
		return nil, err
	}
	return webauthn.New(&webauthn.Config{RPID: u.Hostname(), RPDisplayName: "Corte", RPOrigins: []string{v.host}})
}

// A holder is the WebAuthn user of a person.
type holder struct {
	store.Person
	keys []store.Passkey
}

func (h holder) WebAuthnID() []byte { return h.ID[:] }

func (h holder) WebAuthnName() string { return h.Name }

func (h holder) WebAuthnDisplayName() string { return h.Name }

func (h holder) WebAuthnCredentials() []webauthn.Credential {
	out := make([]webauthn.Credential, 0, len(h.keys))
	for _, k := range h.keys {
		var c webauthn.Credential
		if json.Unmarshal(k.Credential, &c) == nil {
			out = append(out, c)
		}
	}
	return out
}

// options is what an authenticator is asked, kept in the session until it answers.
func (v *visit) options(ctx context.Context, asked any, kept *webauthn.SessionData) (contract.PasskeyOptions, error) {
	raw, err := json.Marshal(kept)
	if err != nil {
		return nil, err
	}
	v.door.sessions.Put(ctx, inPasskey, raw)
	var out contract.PasskeyOptions
	if raw, err = json.Marshal(asked); err != nil {
		return nil, err
	}
	return out, json.Unmarshal(raw, &out)
}

// asked takes the stored options out of the session.
func (v *visit) asked(ctx context.Context) (kept webauthn.SessionData, err error) {
	raw := v.door.sessions.PopBytes(ctx, inPasskey)
	if raw == nil {
		return kept, &refusal.Error{Reason: refusal.Conflict, What: say.Of("this took too long or was already answered. Start again")}
	}
	return kept, json.Unmarshal(raw, &kept)
}

func (s *server) ChallengePasskey(ctx context.Context, _ contract.ChallengePasskeyRequestObject) (contract.ChallengePasskeyResponseObject, error) {
	v := visitOf(ctx)
	w, err := v.relying()
	if err != nil {
		return nil, err
	}
	if err := s.door.desk.From(account.Apart(ctx), account.Passkeys, v.address); err != nil {
		return nil, err
	}
	asked, kept, err := w.BeginDiscoverableLogin(webauthn.WithUserVerification(protocol.VerificationRequired))
	if err != nil {
		return nil, err
	}
	out, err := v.options(ctx, asked.Response, kept)
	return contract.ChallengePasskey200JSONResponse(out), err
}

func (s *server) SignInByPasskey(ctx context.Context, r contract.SignInByPasskeyRequestObject) (contract.SignInByPasskeyResponseObject, error) {
	v := visitOf(ctx)
	w, err := v.relying()
	if err != nil {
		return nil, err
	}
	kept, err := v.asked(ctx)
	if err != nil {
		return nil, err
	}
	raw, err := json.Marshal(r.Body)
	if err != nil {
		return nil, err
	}
	said, err := protocol.ParseCredentialRequestResponseBytes(raw)
	if err != nil {
		return nil, errPasskey
	}
	apart := account.Apart(ctx)
	var p store.Person
	credential, err := w.ValidateDiscoverableLogin(func(_, userHandle []byte) (webauthn.User, error) {
		id, err := uuid.FromBytes(userHandle)
		if err != nil {
			return nil, err
		}
		if p, err = s.Service.Store.Person(apart, id); err != nil {
			return nil, err
		}
		keys, err := s.Service.Store.Passkeys(apart, id)
		return holder{p, keys}, err
	}, kept, said)
	// A counter that went back means that the key was copied.
	if err != nil || credential.Authenticator.CloneWarning {
		return nil, errPasskey
	}
	if raw, err = json.Marshal(credential); err != nil {
		return nil, err
	}
	if err := s.Service.Store.UsePasskey(apart, credential.ID, raw, s.Service.Now()); err != nil {
		return nil, err
	}
	out, err := s.enter(ctx, p, "signed in with a passkey")
	return contract.SignInByPasskey200JSONResponse(out), err
}

func (s *server) ChallengeNewPasskey(ctx context.Context, r contract.ChallengeNewPasskeyRequestObject) (contract.ChallengeNewPasskeyResponseObject, error) {
	v := visitOf(ctx)
	w, err := v.relying()
	if err != nil {
		return nil, err
	}
	apart := account.Apart(ctx)
	if err := s.door.desk.Again(apart, v.person.ID, r.Body.Password); err != nil {
		return nil, err
	}
	keys, err := s.Service.Store.Passkeys(apart, v.person.ID)
	if err != nil {
		return nil, err
	}
	h := holder{*v.person, keys}
	var have []protocol.CredentialDescriptor
	for _, c := range h.WebAuthnCredentials() {
		have = append(have, c.Descriptor())
	}
	asked, kept, err := w.BeginRegistration(h, webauthn.WithExclusions(have), webauthn.WithResidentKeyRequirement(protocol.ResidentKeyRequirementRequired),
		webauthn.WithAuthenticatorSelection(protocol.AuthenticatorSelection{UserVerification: protocol.VerificationRequired, ResidentKey: protocol.ResidentKeyRequirementRequired}))
	if err != nil {
		return nil, err
	}
	out, err := v.options(ctx, asked.Response, kept)
	return contract.ChallengeNewPasskey200JSONResponse(out), err
}

func (s *server) AddPasskey(ctx context.Context, r contract.AddPasskeyRequestObject) (contract.AddPasskeyResponseObject, error) {
	v := visitOf(ctx)
	w, err := v.relying()
	if err != nil {
		return nil, err
	}
	kept, err := v.asked(ctx)
	if err != nil {
		return nil, err
	}
	raw, err := json.Marshal(r.Body.Credential)
	if err != nil {
		return nil, err
	}
	said, err := protocol.ParseCredentialCreationResponseBytes(raw)
	if err != nil {
		return nil, refusal.Of("credential", "the passkey's answer can't be read")
	}
	credential, err := w.CreateCredential(holder{*v.person, nil}, kept, said)
	var wrong *protocol.Error
	if errors.As(err, &wrong) {
		return nil, refusal.Of("credential", "the passkey's answer doesn't match the request. Start again")
	}
	if err != nil {
		return nil, err
	}
	if raw, err = json.Marshal(credential); err != nil {
		return nil, err
	}
	apart := account.Apart(ctx)
	err = s.Service.Store.AddPasskey(apart, store.Passkey{ID: uuid.New(), Person: v.person.ID, Handle: credential.ID, Name: r.Body.Name, Credential: raw, Made: s.Service.Now()})
	if store.IsDuplicate(err) {
		return nil, &refusal.Error{Reason: refusal.Conflict, Field: "credential", What: say.Of("you already have this passkey here")}
	}
	if err == nil {
		_, err = s.noted(ctx, apart, *v.person, "added a passkey")
	}
	if err != nil {
		return nil, err
	}
	out, err := s.account(ctx)
	return contract.AddPasskey201JSONResponse(out), err
}

func (s *server) DropPasskey(ctx context.Context, r contract.DropPasskeyRequestObject) (contract.DropPasskeyResponseObject, error) {
	v := visitOf(ctx)
	apart := account.Apart(ctx)
	if err := s.Service.Store.DropPasskey(apart, v.person.ID, r.ID); err != nil {
		return nil, refusal.NotThere(err, "id", "passkey")
	}
	if _, err := s.noted(ctx, apart, *v.person, "removed a passkey"); err != nil {
		return nil, err
	}
	out, err := s.account(ctx)
	return contract.DropPasskey200JSONResponse(out), err
}
