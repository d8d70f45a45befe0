// Package own answers what is worth buying.
package own

import (
	"context"
	"maps"
	"slices"

	"corte/core/stock"
	"corte/internal/httpapi/contract"
	"corte/internal/httpapi/present"
	"corte/internal/httpapi/request"
	"corte/internal/ptr"
	"corte/internal/refusal"
	"corte/internal/shop/job"
	"corte/internal/shop/own"
)

// Handlers meet the part of the contract that is this station's.
type Handlers struct {
	request.Scope
}

// PlanStock lays a list of lengths out; it needs nothing of the shop.
func (s Handlers) PlanStock(ctx context.Context, r contract.PlanStockRequestObject) (contract.PlanStockResponseObject, error) {
	v := present.VoiceOf(ctx)
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

func (s Handlers) GetOwning(ctx context.Context, _ contract.GetOwningRequestObject) (contract.GetOwningResponseObject, error) {
	n, err := s.In(ctx).Own.Notes(ctx, request.Shop(ctx))
	return contract.GetOwning200JSONResponse(encodeNotes(n)), err
}

func (s Handlers) ChangeOwning(ctx context.Context, r contract.ChangeOwningRequestObject) (contract.ChangeOwningResponseObject, error) {
	n := own.Notes{Hour: ptr.Value(r.Body.Hour), Prices: map[string]float64{}, Version: request.Version(r.Params.IfMatch)}
	for _, p := range r.Body.Prices {
		n.Prices[p.ID] = p.Price
	}
	for _, w := range r.Body.Wishes {
		n.Wishes = append(n.Wishes, own.Wish(w))
	}
	n, err := s.In(ctx).Own.Note(ctx, request.Shop(ctx), n)
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

func (s Handlers) PlanOwning(ctx context.Context, r contract.PlanOwningRequestObject) (contract.PlanOwningResponseObject, error) {
	v := present.VoiceOf(ctx)
	notes, err := s.In(ctx).Own.Notes(ctx, request.Shop(ctx))
	if err != nil {
		return nil, err
	}
	ask := own.Ask{Hour: notes.Hour, Prices: notes.Prices}
	if id := r.Body.JobID; id != nil {
		j, err := s.In(ctx).Job.Job(ctx, request.Shop(ctx), *id)
		if err != nil {
			return nil, refusal.NotThere(err, "job_id", "job")
		}
		ask.Rows = append([]job.Row{}, j.Rows...)
	}
	o, err := s.In(ctx).Own.Weigh(ctx, request.Shop(ctx), ask)
	if err != nil {
		return nil, err
	}
	return contract.PlanOwning200JSONResponse(v.Owning(o, ask.Hour)), nil
}

func (s Handlers) PlanFirstBlades(ctx context.Context, r contract.PlanFirstBladesRequestObject) (contract.PlanFirstBladesResponseObject, error) {
	rows, err := present.ReadJobRows(r.Body.Rows)
	if err != nil {
		return nil, err
	}
	all, err := s.In(ctx).Own.FirstBlades(ctx, request.Shop(ctx), rows)
	if err != nil {
		return nil, err
	}
	out := contract.PlanFirstBlades200JSONResponse{Items: []contract.FirstBlade{}}
	for _, row := range rows {
		out.Pieces += row.Pieces
	}
	for _, f := range all {
		b := present.VoiceOf(ctx).Sold(f.Sold)
		one := contract.FirstBlade{ID: b.ID, Name: b.Name, For: b.For, Saws: b.Saws, Teeth: b.Teeth, Grind: b.Grind, HookDeg: b.HookDeg, KerfMm: b.KerfMm,
			DiameterMm: b.DiameterMm, BoreMm: b.BoreMm, GulletDepthMm: b.GulletDepthMm, Undone: f.Undone, TotalMin: f.Total, Instead: []contract.OtherFirst{}}
		for _, o := range f.Or {
			one.Instead = append(one.Instead, contract.OtherFirst{Name: o.Name, Undone: o.Undone, TotalMin: o.Total})
		}
		out.Items = append(out.Items, one)
	}
	return out, nil
}
