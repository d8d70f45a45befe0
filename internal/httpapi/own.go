package httpapi

import (
	"context"
	"maps"
	"slices"

	"corte/core/stock"
	"corte/internal/httpapi/contract"
	"corte/internal/ptr"
	"corte/internal/record"
	"corte/internal/refusal"
	"corte/internal/shop/job"
	"corte/internal/shop/own"
)

// PlanStock lays a list of lengths out; it needs nothing of the shop.
func (s *server) PlanStock(ctx context.Context, r contract.PlanStockRequestObject) (contract.PlanStockResponseObject, error) {
	v := voiceOf(ctx)
	b := r.Body
	ask := stock.Ask{Kerf: b.KerfMm, Trim: ptr.Value(b.TrimMm), Oversize: ptr.Value(b.OversizeMm)}
	for _, p := range b.Pieces {
		ask.Pieces = append(ask.Pieces, stock.Piece{Length: p.LengthMm, Count: p.Count})
	}
	for _, st := range b.Sticks {
		ask.Sticks = append(ask.Sticks, stock.Stick{Length: st.LengthMm, Count: ptr.Value(st.Count)})
	}
	l, err := ask.LayOut()
	if err != nil {
		return nil, refusal.Placed(err)
	}
	out := contract.PlanStock200JSONResponse{Fills: []contract.StockFill{}, Short: []contract.StockCount{}, UsedMm: l.Used, Exact: l.Exact, OverMm: max(0, l.Used-l.Bound)}
	for i, n := range l.Short {
		if n > 0 {
			out.Short = append(out.Short, contract.StockCount{Piece: i, Count: n})
			out.OverMm = 0
		}
	}
	for i, f := range l.Fills {
		alike := func(g stock.Fill) bool { return g.Stick == f.Stick && slices.Equal(g.Of, f.Of) }
		if slices.IndexFunc(l.Fills[:i], alike) >= 0 {
			continue
		}
		fill := contract.StockFill{Stick: f.Stick, LeftMm: f.Left, Pieces: []contract.StockCount{}}
		for _, g := range l.Fills {
			if alike(g) {
				fill.Times++
			}
		}
		for k, n := range f.Of {
			if n > 0 {
				fill.Pieces = append(fill.Pieces, contract.StockCount{Piece: k, Count: n})
			}
		}
		out.Fills = append(out.Fills, fill)
	}
	says := l.Says()
	if b.ThinnerMm != nil {
		thin, err := ask.WithKerf(*b.ThinnerMm, l)
		if err != nil {
			return nil, refusal.Placed(err)
		}
		says = append(says, thin.Says(ask))
	}
	out.Says = []string{}
	for _, one := range says {
		out.Says = append(out.Says, v.Sentence(one))
	}
	return out, nil
}

func (s *server) GetOwning(ctx context.Context, _ contract.GetOwningRequestObject) (contract.GetOwningResponseObject, error) {
	n, err := s.in(ctx).Own.Notes(ctx, s.shop(ctx))
	return contract.GetOwning200JSONResponse(encodeNotes(n)), err
}

func (s *server) ChangeOwning(ctx context.Context, r contract.ChangeOwningRequestObject) (contract.ChangeOwningResponseObject, error) {
	n := own.Notes{Hour: ptr.Value(r.Body.Hour), Prices: map[string]float64{}, Version: version(r.Params.IfMatch)}
	for _, p := range r.Body.Prices {
		n.Prices[p.ID] = p.Price
	}
	for _, w := range r.Body.Wishes {
		n.Wishes = append(n.Wishes, own.Wish(w))
	}
	n, err := s.in(ctx).Own.Note(ctx, s.shop(ctx), n)
	return contract.ChangeOwning200JSONResponse(encodeNotes(n)), err
}

func encodeNotes(n own.Notes) contract.OwningNotes {
	out := contract.OwningNotes{Hour: ptr.Positive(n.Hour), Prices: []contract.PriceOf{}, Wishes: []contract.Wish{}, Version: n.Version}
	for _, id := range slices.Sorted(maps.Keys(n.Prices)) {
		out.Prices = append(out.Prices, contract.PriceOf{ID: id, Price: n.Prices[id]})
	}
	for _, w := range n.Wishes {
		out.Wishes = append(out.Wishes, contract.Wish(w))
	}
	return out
}

func (s *server) PlanOwning(ctx context.Context, r contract.PlanOwningRequestObject) (contract.PlanOwningResponseObject, error) {
	v := voiceOf(ctx)
	notes, err := s.in(ctx).Own.Notes(ctx, s.shop(ctx))
	if err != nil {
		return nil, err
	}
	ask := own.Ask{Hour: notes.Hour, Prices: notes.Prices}
	if id := r.Body.JobID; id != nil {
		j, err := s.in(ctx).Job.Job(ctx, s.shop(ctx), *id)
		if err != nil {
			return nil, refusal.NotThere(err, "job_id", "job")
		}
		ask.Rows = append([]job.Row{}, j.Rows...)
	}
	o, err := s.in(ctx).Own.Weigh(ctx, s.shop(ctx), ask)
	if err != nil {
		return nil, err
	}
	return contract.PlanOwning200JSONResponse(v.encodeOwning(o, ask.Hour)), nil
}

func (v voice) encodeOwning(o own.Owning, hour float64) contract.Owning {
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
		out.Market = append(out.Market, sold(m))
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

func sold(b own.Sold) contract.SoldBlade {
	return contract.SoldBlade{ID: b.ID, Name: b.Name, For: b.For, Saws: b.Saws, Teeth: b.Blade.Teeth, Grind: b.Blade.Grind, HookDeg: b.Blade.Hook,
		KerfMm: b.Blade.Kerf, DiameterMm: b.Blade.Diameter, BoreMm: b.Blade.Bore, GulletDepthMm: b.Blade.GulletDepth()}
}

func (v voice) encodePurchase(b own.Bought) contract.Purchase {
	out := contract.Purchase{Blades: []contract.SoldBlade{}, SavesMin: b.Saves, ChangesMin: b.Changes, Takes: []contract.TakenCut{}, Says: v.Sentence(b.Says())}
	for _, one := range b.Blades {
		out.Blades = append(out.Blades, sold(one))
	}
	for _, t := range b.Takes {
		out.Takes = append(out.Takes, contract.TakenCut{What: v.Say(t.What), Blade: t.Blade, Pieces: t.Pieces, SavesMin: t.Saves})
	}
	if b.Pay != nil {
		out.Pays = ptr.To(b.Pays())
	}
	return out
}

func (s *server) PlanFirstBlades(ctx context.Context, r contract.PlanFirstBladesRequestObject) (contract.PlanFirstBladesResponseObject, error) {
	rows, err := readJobRows(r.Body.Rows)
	if err != nil {
		return nil, err
	}
	all, err := s.in(ctx).Own.FirstBlades(ctx, s.shop(ctx), rows)
	if err != nil {
		return nil, err
	}
	out := contract.PlanFirstBlades200JSONResponse{Items: []contract.FirstBlade{}}
	for _, row := range rows {
		out.Pieces += row.Pieces
	}
	for _, f := range all {
		b := sold(f.Sold)
		one := contract.FirstBlade{ID: b.ID, Name: b.Name, For: b.For, Saws: b.Saws, Teeth: b.Teeth, Grind: b.Grind, HookDeg: b.HookDeg, KerfMm: b.KerfMm,
			DiameterMm: b.DiameterMm, BoreMm: b.BoreMm, GulletDepthMm: b.GulletDepthMm, Undone: f.Undone, TotalMin: f.Total, Instead: []contract.OtherFirst{}}
		for _, o := range f.Or {
			one.Instead = append(one.Instead, contract.OtherFirst{Name: o.Name, Undone: o.Undone, TotalMin: o.Total})
		}
		out.Items = append(out.Items, one)
	}
	return out, nil
}
