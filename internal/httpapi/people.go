package httpapi

import (
	"context"
	"errors"

	"corte/core/guide"
	"corte/core/say"
	"corte/internal/account"
	"corte/internal/httpapi/contract"
	"corte/internal/ptr"
	"corte/internal/record"
	"corte/internal/refusal"
	"corte/internal/shop/people"
	"corte/internal/store"
)

func (s *server) ListPeople(ctx context.Context, _ contract.ListPeopleRequestObject) (contract.ListPeopleResponseObject, error) {
	all, err := s.in(ctx).People.All(ctx, s.shop(ctx))
	if err != nil {
		return nil, err
	}
	saws, err := s.in(ctx).Rack.Saws(ctx, s.shop(ctx))
	out := contract.ListPeople200JSONResponse{Items: make([]contract.Member, len(all)), Saws: make([]contract.SawDuties, len(saws))}
	for i, m := range all {
		out.Items[i] = voiceOf(ctx).member(m)
	}
	for i, w := range saws {
		out.Saws[i] = contract.SawDuties{SawID: w.ID, Name: w.Name}
		for _, d := range guide.Duties(w.Saw) {
			out.Saws[i].Cuts = append(out.Saws[i].Cuts, contract.SignOffCut(d))
		}
	}
	return out, err
}

func (v voice) member(m people.Member) contract.Member {
	out := contract.Member{ID: m.ID, Version: m.Version, Name: m.Name, Role: contract.Role(m.Role), Since: m.Since, SignsIn: m.Person != nil, InvitedUntil: m.Invited,
		Pin: m.Pin != "", SignedOff: make([]contract.SignOff, len(m.SignedOff))}
	for i, o := range m.SignedOff {
		out.SignedOff[i] = contract.SignOff{SawID: o.Saw, Cuts: make([]contract.SignOffCut, len(o.Cuts)), By: o.By, At: o.At}
		for j, c := range o.Cuts {
			out.SignedOff[i].Cuts[j] = contract.SignOffCut(c)
		}
	}
	if m.Drills != nil {
		out.Drills = v.standings(m.Drills)
	}
	return out
}

func decodeRole(r contract.Role) record.Role {
	role, _ := record.ParseRole(string(r)) // the contract lets no other word through
	return role
}

func (s *server) AddMember(ctx context.Context, r contract.AddMemberRequestObject) (contract.AddMemberResponseObject, error) {
	m, err := s.in(ctx).People.Add(ctx, s.shop(ctx), r.Body.Name, decodeRole(r.Body.Role))
	return contract.AddMember201JSONResponse(voiceOf(ctx).member(m)), err
}

func (s *server) ChangeMember(ctx context.Context, r contract.ChangeMemberRequestObject) (contract.ChangeMemberResponseObject, error) {
	m, err := s.in(ctx).People.Change(ctx, s.shop(ctx), r.ID, version(r.Params.IfMatch), r.Body.Name, decodeRole(r.Body.Role))
	return contract.ChangeMember200JSONResponse(voiceOf(ctx).member(m)), err
}

func (s *server) RemoveMember(ctx context.Context, r contract.RemoveMemberRequestObject) (contract.RemoveMemberResponseObject, error) {
	return contract.RemoveMember204Response{}, s.in(ctx).People.Remove(ctx, s.shop(ctx), r.ID)
}

func (s *server) DropPin(ctx context.Context, r contract.DropPinRequestObject) (contract.DropPinResponseObject, error) {
	return contract.DropPin204Response{}, s.in(ctx).People.SetPin(ctx, s.shop(ctx), r.ID, "")
}

func (s *server) Invite(ctx context.Context, r contract.InviteRequestObject) (contract.InviteResponseObject, error) {
	if s.door == nil {
		return nil, errOpen
	}
	secret, ends, err := s.in(ctx).People.Invite(ctx, s.shop(ctx), r.ID)
	return contract.Invite201JSONResponse{Path: "/join/" + secret, EndsAt: ends}, err
}

func (s *server) SignOff(ctx context.Context, r contract.SignOffRequestObject) (contract.SignOffResponseObject, error) {
	cuts := make([]string, len(r.Body.Cuts))
	for i, c := range r.Body.Cuts {
		cuts[i] = string(c)
	}
	m, err := s.in(ctx).People.SignOff(ctx, s.shop(ctx), r.ID, r.Saw, cuts)
	return contract.SignOff200JSONResponse(voiceOf(ctx).member(m)), err
}

func (s *server) ListPasses(ctx context.Context, _ contract.ListPassesRequestObject) (contract.ListPassesResponseObject, error) {
	all, err := s.in(ctx).People.Passes(ctx, s.shop(ctx))
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
	return contract.WithdrawPass204Response{}, s.in(ctx).People.Withdraw(ctx, s.shop(ctx), r.ID)
}

// AddDevice makes this browser a tablet of the shop. Who made it is signed out on
// it: whoever comes to it next is not an owner.
func (s *server) AddDevice(ctx context.Context, r contract.AddDeviceRequestObject) (contract.AddDeviceResponseObject, error) {
	v := visitOf(ctx)
	if v == nil {
		return nil, errOpen
	}
	if record.ActorOf(ctx).Way != record.SignedIn {
		return nil, &refusal.Error{Reason: refusal.Forbidden, What: say.Of("sign in on the browser that is to be the tablet")}
	}
	secret, err := s.in(ctx).People.AddTablet(ctx, s.shop(ctx), r.Body.Name)
	if err != nil {
		return nil, err
	}
	apart := account.Apart(ctx)
	if err := s.door.sessions.Destroy(apart); err != nil {
		return nil, err
	}
	v.person = nil
	v.cookies = append(v.cookies, s.door.cookie(s.door.tabletCookie(), secret))
	p, err := s.svc.Store.PassOf(apart, "tablet", account.Digest(secret), s.svc.Now())
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
	secret, ends, err := s.in(ctx).People.AddToken(ctx, s.shop(ctx), r.Body.Name, decodeRole(r.Body.Role), r.Body.Days)
	return contract.AddToken201JSONResponse{Token: secret, EndsAt: ends}, err
}

func (s *server) AddGuest(ctx context.Context, r contract.AddGuestRequestObject) (contract.AddGuestResponseObject, error) {
	secret, ends, err := s.in(ctx).People.AddGuest(ctx, s.shop(ctx), r.ID, r.Body.Name, r.Body.Days)
	return contract.AddGuest201JSONResponse{Path: "/guest/" + secret, EndsAt: ends}, err
}

// ReadReport is for whoever has its address: what leaves the shop is one blade
// and what was found on it, not whose hands it went through.
func (s *server) ReadReport(ctx context.Context, r contract.ReadReportRequestObject) (contract.ReadReportResponseObject, error) {
	apart := account.Apart(ctx)
	if s.door != nil {
		if err := s.door.desk.From(apart, account.Links, visitOf(ctx).address); err != nil {
			return nil, err
		}
	}
	p, sh, err := s.svc.People.Guest(apart, r.Secret)
	if err != nil {
		return nil, err
	}
	in := store.For(ctx, p.Shop)
	b, err := s.svc.Rack.Blade(in, p.Shop, *p.Blade)
	if err != nil {
		return nil, err
	}
	out := contract.ReadReport200JSONResponse{Shop: sh.Name, Blade: withProfile(voiceOf(ctx).encodeBlade(b), b), EndsAt: *p.Ends}
	found, err := s.svc.Care.Survey(in, p.Shop, *p.Blade)
	var none *refusal.Error
	if errors.As(err, &none) && none.Reason == refusal.Missing {
		return out, nil // nobody has looked it over yet
	}
	if err == nil {
		report := voiceOf(ctx).survey(found)
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
	rows, err := s.in(ctx).People.Audit(ctx, s.shop(ctx), ptr.Value(r.Params.Before), limit+1)
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
