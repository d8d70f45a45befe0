package present

import (
	"corte/internal/httpapi/contract"
	"corte/internal/ptr"
	"corte/internal/record"
	"corte/internal/shop/own"
)

func (v Voice) Owning(o own.Owning, hour float64) contract.Owning {
	out := contract.Owning{Rows: o.Rows, Pieces: o.Pieces, Metres: o.Metres, From: o.From, Years: o.Years, TotalMin: o.Total, One: []contract.Purchase{},
		NeverBest: named(o.NeverBest), Alone: named(o.Alone), Undone: []string{}, Market: []contract.SoldBlade{}, Several: []contract.OneMore{}, Kerfs: []contract.KerfsOnSaw{}, Heard: []contract.Heard{}, Says: v.Sentence(o.Says())}
	for _, b := range o.One {
		out.One = append(out.One, v.encodePurchase(b))
	}
	if o.Two != nil {
		out.Two = ptr.To(v.encodePurchase(*o.Two))
	}
	if o.Three != nil {
		out.Three = ptr.To(v.encodePurchase(*o.Three))
	}
	for _, h := range o.Heard {
		out.Heard = append(out.Heard, contract.Heard{Name: h.Name, Verdict: h.Verdict, Why: v.Sentence(h.Why), WayOut: v.Sentence(h.WayOut)})
	}
	for _, u := range o.Undone {
		out.Undone = append(out.Undone, v.Sentence(u))
	}
	for _, b := range o.Several {
		out.Several = append(out.Several, contract.OneMore{ID: b.Blade.ID, Name: b.Blade.Name, Undone: b.Undone, TotalMin: b.Total})
	}
	for _, k := range o.Kerfs {
		out.Kerfs = append(out.Kerfs, contract.KerfsOnSaw{SawID: k.Saw.ID, SawName: k.Saw.Name, Pieces: k.Pieces, Thin: kerfSum(k.Thin), Full: kerfSum(k.Full), Says: v.Sentence(k.Says(hour))})
	}
	for _, m := range o.Market {
		out.Market = append(out.Market, v.Sold(m))
	}
	return out
}

func kerfSum(k own.Kerf) contract.KerfSum {
	return contract.KerfSum{Minutes: k.Minutes, DustL: k.Dust, Cannot: k.Cannot}
}

func named(all []record.Blade) []contract.NamedBlade {
	out := []contract.NamedBlade{}
	for _, b := range all {
		out = append(out, contract.NamedBlade{ID: b.ID, Name: b.Name})
	}
	return out
}

func (v Voice) Sold(b own.Sold) contract.SoldBlade {
	return contract.SoldBlade{ID: b.ID, Name: b.Name, For: v.Word(b.For), Saws: b.Saws, Teeth: b.Blade.Teeth, Grind: b.Blade.Grind, HookDeg: b.Blade.Hook,
		KerfMm: b.Blade.Kerf, DiameterMm: b.Blade.Diameter, BoreMm: b.Blade.Bore, GulletDepthMm: b.Blade.GulletDepth()}
}

func (v Voice) encodePurchase(b own.Bought) contract.Purchase {
	out := contract.Purchase{Blades: []contract.SoldBlade{}, SavesMin: b.Saves, ChangesMin: b.Changes, Takes: []contract.TakenCut{}, Says: v.Sentence(b.Says())}
	for _, one := range b.Blades {
		out.Blades = append(out.Blades, v.Sold(one))
	}
	for _, t := range b.Takes {
		out.Takes = append(out.Takes, contract.TakenCut{What: v.Say(t.What), Blade: t.Blade, Pieces: t.Pieces, SavesMin: t.Saves})
	}
	if b.Pay != nil {
		out.Pays = ptr.To(b.Pays())
	}
	return out
}
