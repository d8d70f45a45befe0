package httpapi

import (
	"context"
	"errors"

	"corte/core/guide"
	"corte/core/say"
	"corte/internal/account"
	"corte/internal/httpapi/contract"
	"corte/internal/httpapi/present"
	"corte/internal/httpapi/request"
	"corte/internal/ptr"
	"corte/internal/record"
	"corte/internal/refusal"
	"corte/internal/store"
)

func (s *server) ListPeople(ctx context.Context, _ contract.ListPeopleRequestObject) (contract.ListPeopleResponseObject, error) {
	all, err := s.In(ctx).People.All(ctx, request.Shop(ctx))
	if err != nil {
		return nil, err
	}
	saws, err := s.In(ctx).Rack.Saws(ctx, request.Shop(ctx))
	out := contract.ListPeople200JSONResponse{Items: make([]contract.Member, len(all)), Saws: make([]contract.SawDuties, len(saws))}
	for i, m := range all {
		out.Items[i] = present.VoiceOf(ctx).Member(m)
	}
	for i, w := range saws {
		out.Saws[i] = contract.SawDuties{SawID: w.ID, Name: w.Name}
		for _, d := range guide.Duties(w.Saw) {
			out.Saws[i].Cuts = append(out.Saws[i].Cuts, contract.SignOffCut(d))
		}
	}
	return out, err
}

func decodeRole(r contract.Role) record.Role {
	role, _ := record.ParseRole(string(r)) // the contract lets no other word through
	return role
}

func (s *server) AddMember(ctx context.Context, r contract.AddMemberRequestObject) (contract.AddMemberResponseObject, error) {
	m, err := s.In(ctx).People.Add(ctx, request.Shop(ctx), r.Body.Name, decodeRole(r.Body.Role))
	return contract.AddMember201JSONResponse(present.VoiceOf(ctx).Member(m)), err
}

func (s *server) ChangeMember(ctx context.Context, r contract.ChangeMemberRequestObject) (contract.ChangeMemberResponseObject, error) {
	m, err := s.In(ctx).People.Change(ctx, request.Shop(ctx), r.ID, request.Version(r.Params.IfMatch), r.Body.Name, decodeRole(r.Body.Role))
	return contract.ChangeMember200JSONResponse(present.VoiceOf(ctx).Member(m)), err
}

func (s *server) RemoveMember(ctx context.Context, r contract.RemoveMemberRequestObject) (contract.RemoveMemberResponseObject, error) {
	return contract.RemoveMember204Response{}, s.In(ctx).People.Remove(ctx, request.Shop(ctx), r.ID)
}

func (s *server) DropPin(ctx context.Context, r contract.DropPinRequestObject) (contract.DropPinResponseObject, error) {
	return contract.DropPin204Response{}, s.In(ctx).People.SetPin(ctx, request.Shop(ctx), r.ID, "")
}

func (s *server) Invite(ctx context.Context, r contract.InviteRequestObject) (contract.InviteResponseObject, error) {
	if s.door == nil {
		return nil, errOpen
	}
	secret, ends, err := s.In(ctx).People.Invite(ctx, request.Shop(ctx), r.ID)
	return contract.Invite201JSONResponse{Path: "/join/" + secret, EndsAt: ends}, err
}

func (s *server) SignOff(ctx context.Context, r contract.SignOffRequestObject) (contract.SignOffResponseObject, error) {
	cuts := make([]string, len(r.Body.Cuts))
	for i, c := range r.Body.Cuts {
		cuts[i] = string(c)
	}
	m, err := s.In(ctx).People.SignOff(ctx, request.Shop(ctx), r.ID, r.Saw, cuts)
	return contract.SignOff200JSONResponse(present.VoiceOf(ctx).Member(m)), err
}

func (s *server) ListPasses(ctx context.Context, _ contract.ListPassesRequestObject) (contract.ListPassesResponseObject, error) {
	all, err := s.In(ctx).People.Passes(ctx, request.Shop(ctx))
	out := contract.ListPasses200JSONResponse{Items: make([]contract.ShopPass, len(all))}
	for i, p := range all {
		out.Items[i] = contract.ShopPass{ID: p.ID, Kind: contract.ShopPassKind(p.Kind), Name: p.Name, Blade: p.BladeName, MadeBy: p.MadeBy, MadeAt: p.Made, EndsAt: p.Ends, UsedAt: p.Used}
		if p.Kind == "token" {
			out.Items[i].Role = ptr.NonZero(contract.Role(p.Role))
		}
	}
	return out, err
}

func (s *server) WithdrawPass(ctx context.Context, r contract.WithdrawPassRequestObject) (contract.WithdrawPassResponseObject, error) {
	return contract.WithdrawPass204Response{}, s.In(ctx).People.Withdraw(ctx, request.Shop(ctx), r.ID)
}

// AddDevice makes this browser a tablet of the shop and signs the owner out on it, so
// that the next person at it isn't an owner.
func (s *server) AddDevice(ctx context.Context, r contract.AddDeviceRequestObject) (contract.AddDeviceResponseObject, error) {
	v := visitOf(ctx)
	if v == nil {
		return nil, errOpen
	}
	if record.ActorOf(ctx).Way != record.SignedIn {
		return nil, &refusal.Error{Reason: refusal.Forbidden, What: say.Of("sign in on the browser that will be the tablet")}
	}
	secret, err := s.In(ctx).People.AddTablet(ctx, request.Shop(ctx), r.Body.Name)
	if err != nil {
		return nil, err
	}
	apart := account.Apart(ctx)
	if err := s.door.sessions.Destroy(apart); err != nil {
		return nil, err
	}
	v.person = nil
	v.cookies = append(v.cookies, s.door.cookie(s.door.tabletCookie(), secret))
	p, err := s.Service.Store.PassOf(apart, "tablet", account.Digest(secret), s.Service.Now())
	if err != nil {
		return nil, err
	}
	v.tablet = &p
	out, err := s.anew(ctx)
	return contract.AddDevice201JSONResponse(out), err
}

func (s *server) AddToken(ctx context.Context, r contract.AddTokenRequestObject) (contract.AddTokenResponseObject, error) {
	if s.door == nil {
		return nil, errOpen
	}
	secret, ends, err := s.In(ctx).People.AddToken(ctx, request.Shop(ctx), r.Body.Name, decodeRole(r.Body.Role), r.Body.Days)
	return contract.AddToken201JSONResponse{Token: secret, EndsAt: ends}, err
}

func (s *server) AddGuest(ctx context.Context, r contract.AddGuestRequestObject) (contract.AddGuestResponseObject, error) {
	secret, ends, err := s.In(ctx).People.AddGuest(ctx, request.Shop(ctx), r.ID, r.Body.Name, r.Body.Days)
	return contract.AddGuest201JSONResponse{Path: "/guest/" + secret, EndsAt: ends}, err
}

// ReadReport serves whoever has its address. It shows one blade and what was found on
// it, and no names of people.
func (s *server) ReadReport(ctx context.Context, r contract.ReadReportRequestObject) (contract.ReadReportResponseObject, error) {
	apart := account.Apart(ctx)
	if s.door != nil {
		if err := s.door.desk.From(apart, account.Links, visitOf(ctx).address); err != nil {
			return nil, err
		}
	}
	p, sh, err := s.Service.People.Guest(apart, r.Secret)
	if err != nil {
		return nil, err
	}
	in := store.For(ctx, p.Shop)
	b, err := s.Service.Rack.Blade(in, p.Shop, *p.Blade)
	if err != nil {
		return nil, err
	}
	out := contract.ReadReport200JSONResponse{Shop: sh.Name, Blade: present.WithProfile(present.VoiceOf(ctx).Blade(b), b), EndsAt: *p.Ends}
	found, err := s.Service.Care.Survey(in, p.Shop, *p.Blade)
	var none *refusal.Error
	if errors.As(err, &none) && none.Reason == refusal.Missing {
		return out, nil // nobody has looked it over yet
	}
	if err == nil {
		report := present.VoiceOf(ctx).Survey(found)
		report.By = ""
		out.Survey = &report
	}
	return out, err
}

func (s *server) ListAudit(ctx context.Context, r contract.ListAuditRequestObject) (contract.ListAuditResponseObject, error) {
	limit := ptr.Value(r.Params.Limit)
	if limit == 0 {
		limit = 100
	}
	rows, err := s.In(ctx).People.Audit(ctx, request.Shop(ctx), ptr.Value(r.Params.Before), limit+1)
	out := contract.ListAudit200JSONResponse{Items: []contract.AuditRow{}}
	for i, a := range rows {
		if i == limit {
			out.Next = &rows[i-1].ID
			break
		}
		out.Items = append(out.Items, contract.AuditRow{ID: a.ID, At: a.At, Who: a.Who, What: a.What, About: a.About, Address: ptr.NonZero(a.Address)})
	}
	return out, err
}
