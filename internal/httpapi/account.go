package httpapi

import (
	"context"
	"errors"

	"github.com/google/uuid"

	"corte/core/say"
	"corte/internal/account"
	"corte/internal/httpapi/contract"
	"corte/internal/httpapi/request"
	"corte/internal/ptr"
	"corte/internal/record"
	"corte/internal/refusal"
	"corte/internal/store"
)

// errOpen refuses calls about accounts on a server without sign-in.
var errOpen = &refusal.Error{Reason: refusal.Conflict, What: say.Of("sign-in is off: anyone at this computer can use Corte. Set CORTE_SIGN_IN=on to change that")}

func (s *server) GetSession(ctx context.Context, _ contract.GetSessionRequestObject) (contract.GetSessionResponseObject, error) {
	out, err := s.session(ctx)
	return contract.GetSession200JSONResponse(out), err
}

func (s *server) SignIn(ctx context.Context, r contract.SignInRequestObject) (contract.SignInResponseObject, error) {
	v := visitOf(ctx)
	if v == nil {
		return nil, errOpen
	}
	apart := account.Apart(ctx)
	p, err := s.door.desk.SignIn(apart, r.Body.Name, r.Body.Password, v.address, v.browser)
	if err != nil {
		return nil, s.failed(ctx, r.Body.Name, err)
	}
	out, err := s.enter(ctx, p, "signed in")
	return contract.SignIn200JSONResponse(out), err
}

// enter signs a person in and records it in every shop that they belong to.
func (s *server) enter(ctx context.Context, p store.Person, what string) (contract.Session, error) {
	v := visitOf(ctx)
	apart := account.Apart(ctx)
	if err := v.enter(ctx, p, uuid.Nil); err != nil {
		return contract.Session{}, err
	}
	return s.noted(ctx, apart, p, what)
}

func (s *server) noted(ctx, apart context.Context, p store.Person, what string) (contract.Session, error) {
	all, err := s.Service.Store.Belongings(apart, p.ID)
	if err != nil {
		return contract.Session{}, err
	}
	for _, b := range all {
		as := record.As(apart, record.Actor{Name: b.Name, Address: visitOf(ctx).address})
		if err := s.Service.People.Note(as, b.Shop, what, ""); err != nil {
			return contract.Session{}, err
		}
		s.events.Publish(b.Shop, "people")
	}
	return s.anew(ctx)
}

// failed records a failed sign-in in the shops of the person with that name. The
// answer doesn't tell whether there is one.
func (s *server) failed(ctx context.Context, name string, why error) error {
	var no *refusal.Error
	if !errors.As(why, &no) {
		return why
	}
	apart := account.Apart(ctx)
	p, err := s.door.desk.Named(apart, name)
	if errors.Is(err, store.ErrNone) {
		return why
	}
	if err != nil {
		return err
	}
	all, err := s.Service.Store.Belongings(apart, p.ID)
	if err != nil {
		return err
	}
	for _, b := range all {
		as := record.As(apart, record.Actor{Address: visitOf(ctx).address})
		if err := s.Service.People.Note(as, b.Shop, "failed to sign in", b.Name); err != nil {
			return err
		}
	}
	return why
}

func (s *server) Recover(ctx context.Context, r contract.RecoverRequestObject) (contract.RecoverResponseObject, error) {
	v := visitOf(ctx)
	if v == nil {
		return nil, errOpen
	}
	p, err := s.door.desk.Recover(account.Apart(ctx), r.Body.Name, r.Body.Code, r.Body.Password, v.address)
	if err != nil {
		return nil, s.failed(ctx, r.Body.Name, err)
	}
	out, err := s.enter(ctx, p, "signed in with a recovery code and set a new password")
	return contract.Recover200JSONResponse(out), err
}

// SignOut ends the session, or puts down the name that was tapped on a tablet.
func (s *server) SignOut(ctx context.Context, _ contract.SignOutRequestObject) (contract.SignOutResponseObject, error) {
	if v := visitOf(ctx); v != nil {
		if err := s.door.sessions.Destroy(account.Apart(ctx)); err != nil {
			return nil, err
		}
		v.person = nil
		s.events.Publish(request.Shop(ctx), "people") // streams that were opened with this session end
	}
	out, err := s.anewOrOpen(ctx)
	return contract.SignOut200JSONResponse(out), err
}

func (s *server) anewOrOpen(ctx context.Context) (contract.Session, error) {
	if s.door == nil {
		return s.session(ctx)
	}
	return s.anew(ctx)
}

func (s *server) EnterShop(ctx context.Context, r contract.EnterShopRequestObject) (contract.EnterShopResponseObject, error) {
	v := visitOf(ctx)
	apart := account.Apart(ctx)
	all, err := s.Service.Store.Belongings(apart, v.person.ID)
	if err != nil {
		return nil, err
	}
	for _, b := range all {
		if b.Shop == r.Body.ShopID {
			s.door.sessions.Put(ctx, inShop, b.Shop.String())
			out, err := s.anew(ctx)
			return contract.EnterShop200JSONResponse(out), err
		}
	}
	return nil, &refusal.Error{Reason: refusal.Missing, Field: "", What: say.Of("you belong to no such shop")}
}

// FoundShop creates a shop with the caller as its owner.
func (s *server) FoundShop(ctx context.Context, r contract.FoundShopRequestObject) (contract.FoundShopResponseObject, error) {
	v := visitOf(ctx)
	if v == nil || v.person == nil {
		return nil, &refusal.Error{Reason: refusal.Conflict, Field: "", What: say.Of("sign in to create another shop. Without sign-in a server has one shop, named by CORTE_SHOP")}
	}
	sh, err := s.Service.People.Found(account.Apart(ctx), request.Shop(ctx), r.Body.Key, r.Body.Name, *v.person)
	return contract.FoundShop200JSONResponse{ID: sh.ID, Name: sh.Name}, err
}

// TakeHand sets who works at a tablet. In a shop that asks for a PIN, a member without
// one chooses it with this call.
func (s *server) TakeHand(ctx context.Context, r contract.TakeHandRequestObject) (contract.TakeHandResponseObject, error) {
	v := visitOf(ctx)
	if v == nil || v.tablet == nil {
		return nil, &refusal.Error{Reason: refusal.Conflict, What: say.Of("this isn't a shop tablet. An owner can make it one on the People page")}
	}
	apart := account.Apart(ctx)
	m, err := s.Service.Store.Member(apart, v.tablet.Shop, r.Body.MemberID)
	if err != nil {
		return nil, refusal.NotThere(err, "member_id", "person")
	}
	sh, err := s.Service.Store.Shop(apart, m.Shop)
	if err != nil {
		return nil, err
	}
	pin := ptr.Value(r.Body.Pin)
	switch {
	case !sh.Pins:
	case pin == "":
		return nil, refusal.Of("pin", "this shop requires a PIN with the name")
	case m.Pin == "":
		hash, err := s.door.desk.Hash(apart, pin)
		if err != nil {
			return nil, err
		}
		as := record.As(apart, record.Actor{Name: m.Name, Address: v.address})
		if err := s.Service.People.SetPin(as, m.Shop, m.ID, hash); err != nil {
			return nil, err
		}
		m.Pin = hash
	default:
		if err := s.door.desk.Pin(apart, m, pin); err != nil {
			return nil, err
		}
	}
	keep := s.door.sessions
	if err := keep.RenewToken(apart); err != nil {
		return nil, err
	}
	keep.Put(ctx, inMember, m.ID.String())
	keep.Put(ctx, inSince, s.Service.Now().Unix())
	holds, err := s.hold(apart, m)
	if err != nil {
		return nil, err
	}
	keep.Put(ctx, inHold, holds)
	out, err := s.anew(ctx)
	return contract.TakeHand200JSONResponse(out), err
}

func (s *server) account(ctx context.Context) (contract.Account, error) {
	v := visitOf(ctx)
	apart := account.Apart(ctx)
	out := contract.Account{Name: v.person.Name, Passkeys: []contract.Passkey{}}
	keys, err := s.Service.Store.Passkeys(apart, v.person.ID)
	if err != nil {
		return out, err
	}
	for _, k := range keys {
		out.Passkeys = append(out.Passkeys, contract.Passkey{ID: k.ID, Name: k.Name, MadeAt: k.Made, UsedAt: k.Used})
	}
	if out.RecoveryCodes, err = s.Service.Store.Codes(apart, v.person.ID); err != nil {
		return out, err
	}
	if a := record.ActorOf(ctx); a.Member != nil {
		m, err := s.Service.Store.Member(apart, a.Shop, *a.Member)
		if err != nil {
			return out, err
		}
		out.Pin = m.Pin != ""
	}
	return out, nil
}

func (s *server) GetAccount(ctx context.Context, _ contract.GetAccountRequestObject) (contract.GetAccountResponseObject, error) {
	out, err := s.account(ctx)
	return contract.GetAccount200JSONResponse(out), err
}

func (s *server) ChangePassword(ctx context.Context, r contract.ChangePasswordRequestObject) (contract.ChangePasswordResponseObject, error) {
	v := visitOf(ctx)
	apart := account.Apart(ctx)
	if err := s.door.desk.Again(apart, v.person.ID, r.Body.Now); err != nil {
		return nil, at("now", err)
	}
	epoch, err := s.door.desk.ChangePassword(apart, v.person.ID, r.Body.New)
	if err != nil {
		return nil, at("new", err)
	}
	v.person.Epoch = epoch
	if err := v.enter(ctx, *v.person, record.ActorOf(ctx).Shop); err != nil {
		return nil, err
	}
	if _, err := s.noted(ctx, apart, *v.person, "changed the password"); err != nil {
		return nil, err
	}
	out, err := s.account(ctx)
	return contract.ChangePassword200JSONResponse(out), err
}

// at names the field of the contract that a refusal is about.
func at(field string, err error) error {
	var no *refusal.Error
	if errors.As(err, &no) && no.Field == "password" {
		return &refusal.Error{Reason: no.Reason, Field: field, What: no.What}
	}
	return err
}

func (s *server) ChangePin(ctx context.Context, r contract.ChangePinRequestObject) (contract.ChangePinResponseObject, error) {
	a := record.ActorOf(ctx)
	if a.Member == nil {
		return nil, refusal.Of("pin", "you belong to no shop that has a tablet")
	}
	hash, err := s.door.desk.Hash(ctx, r.Body.Pin)
	if err != nil {
		return nil, err
	}
	if err := s.Service.People.SetPin(ctx, a.Shop, *a.Member, hash); err != nil {
		return nil, err
	}
	s.events.Publish(a.Shop, "people")
	out, err := s.account(ctx)
	return contract.ChangePin200JSONResponse(out), err
}

func (s *server) MakeRecoveryCodes(ctx context.Context, r contract.MakeRecoveryCodesRequestObject) (contract.MakeRecoveryCodesResponseObject, error) {
	v := visitOf(ctx)
	apart := account.Apart(ctx)
	if err := s.door.desk.Again(apart, v.person.ID, r.Body.Password); err != nil {
		return nil, err
	}
	codes, err := s.door.desk.MakeCodes(apart, v.person.ID)
	if err == nil {
		_, err = s.noted(ctx, apart, *v.person, "made new recovery codes")
	}
	return contract.MakeRecoveryCodes201JSONResponse{Codes: codes}, err
}

func (s *server) SignOutEverywhere(ctx context.Context, _ contract.SignOutEverywhereRequestObject) (contract.SignOutEverywhereResponseObject, error) {
	v := visitOf(ctx)
	apart := account.Apart(ctx)
	if err := s.Service.People.EndTokens(apart, v.person.ID); err != nil {
		return nil, err
	}
	if _, err := s.Service.Store.NewEpoch(apart, v.person.ID, ""); err != nil {
		return nil, err
	}
	if _, err := s.noted(ctx, apart, *v.person, "signed out everywhere"); err != nil {
		return nil, err
	}
	if err := s.door.sessions.Destroy(apart); err != nil {
		return nil, err
	}
	v.person = nil
	out, err := s.anew(ctx)
	return contract.SignOutEverywhere200JSONResponse(out), err
}

func (s *server) GetInvitation(ctx context.Context, r contract.GetInvitationRequestObject) (contract.GetInvitationResponseObject, error) {
	v := visitOf(ctx)
	if v == nil {
		return nil, errOpen
	}
	apart := account.Apart(ctx)
	if err := s.door.desk.From(apart, account.Links, v.address); err != nil {
		return nil, err
	}
	in, err := s.Service.People.Invitation(apart, r.Secret)
	if err != nil {
		return nil, err
	}
	out := contract.GetInvitation200JSONResponse{Shop: in.ShopName, Name: in.Name, Role: contract.Role(in.Role), EndsAt: *in.Ends}
	if v.person != nil {
		out.SignedIn = &v.person.Name
	}
	return out, nil
}

func (s *server) AcceptInvitation(ctx context.Context, r contract.AcceptInvitationRequestObject) (contract.AcceptInvitationResponseObject, error) {
	v := visitOf(ctx)
	if v == nil {
		return nil, errOpen
	}
	apart := account.Apart(ctx)
	if err := s.door.desk.From(apart, account.Links, v.address); err != nil {
		return nil, err
	}
	name, password := ptr.Value(r.Body.Name), ptr.Value(r.Body.Password)
	fresh := name != "" || password != ""
	if !fresh && v.person == nil {
		return nil, refusal.Of("name", "enter a name and a password to sign in with")
	}
	p, shop, err := s.Service.People.Accept(apart, r.Secret, name, func(tx *store.Store) (store.Person, error) {
		if !fresh {
			return *v.person, nil
		}
		if len([]rune(password)) < leastPassword {
			return store.Person{}, refusal.Of("password", "a password has at least ten characters. A few words work well")
		}
		return s.door.desk.New(apart, tx, name, password)
	})
	if err != nil {
		return nil, err
	}
	if err := v.enter(ctx, p, shop); err != nil {
		return nil, err
	}
	out, err := s.anew(ctx)
	return contract.AcceptInvitation200JSONResponse(out), err
}

const leastPassword = 10
