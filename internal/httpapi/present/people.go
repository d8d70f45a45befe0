package present

import (
	"corte/internal/httpapi/contract"
	"corte/internal/shop/people"
)

func (v Voice) Member(m people.Member) contract.Member {
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
