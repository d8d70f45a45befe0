// Package groove answers for dado sets, stacks and their test grooves.
package groove

import (
	"cmp"
	"context"

	"corte/core/groove"
	"corte/core/joint"
	"corte/core/measure"
	"corte/core/outcome"
	"corte/core/say"
	"corte/internal/httpapi/contract"
	"corte/internal/httpapi/present"
	"corte/internal/httpapi/request"
	"corte/internal/ptr"
	"corte/internal/refusal"
	shopgroove "corte/internal/shop/groove"
	"corte/internal/store"
	"corte/internal/wire"
)

// Handlers meet the part of the contract that is this station's.
type Handlers struct {
	request.Scope
}

func (s Handlers) GetDadoSet(ctx context.Context, r contract.GetDadoSetRequestObject) (contract.GetDadoSetResponseObject, error) {
	v := present.VoiceOf(ctx)
	set, err := s.In(ctx).Groove.DadoSet(ctx, request.Shop(ctx), r.ID)
	if err != nil {
		return nil, err
	}
	return contract.GetDadoSet200JSONResponse(v.DadoSet(set)), nil
}

func (s Handlers) SetDadoSet(ctx context.Context, r contract.SetDadoSetRequestObject) (contract.SetDadoSetResponseObject, error) {
	v := present.VoiceOf(ctx)
	made, err := wire.ReadSet(*r.Body)
	if err != nil {
		return nil, err
	}
	out, err := s.In(ctx).Groove.SetDadoSet(ctx, request.Shop(ctx), store.DadoSet{Blade: r.ID, Set: made, Version: request.Version(r.Params.IfMatch)})
	if err != nil {
		return nil, err
	}
	return contract.SetDadoSet200JSONResponse(v.DadoSet(out)), nil
}

func (s Handlers) RenewParts(ctx context.Context, r contract.RenewPartsRequestObject) (contract.RenewPartsResponseObject, error) {
	v := present.VoiceOf(ctx)
	set, err := s.In(ctx).Groove.RenewParts(ctx, request.Shop(ctx), r.ID, string(r.Body.Why), ptr.Value(r.Body.Outer), ptr.Value(r.Body.Parts), ptr.Value(r.Body.By), ptr.Value(r.Body.Note))
	if err != nil {
		return nil, err
	}
	return contract.RenewParts201JSONResponse(v.DadoSet(set)), nil
}

func decodeGrooveAsk(a contract.GrooveAsk) (shopgroove.Ask, error) {
	out := shopgroove.Ask{Count: a.Count, Edge: ptr.Value(a.EdgeMm)}
	var err error
	out.Cut = a.Cut
	if out.Fit, err = groove.ParseFit(string(a.Fit)); err != nil {
		return out, err
	}
	for _, p := range a.PieceMm {
		out.Piece = append(out.Piece, measure.Length(p))
	}
	return out, nil
}

func (s Handlers) PlanGroove(ctx context.Context, r contract.PlanGrooveRequestObject) (contract.PlanGrooveResponseObject, error) {
	v := present.VoiceOf(ctx)
	ask, err := decodeGrooveAsk(r.Body.Ask)
	if err != nil {
		return nil, err
	}
	p, err := s.In(ctx).Groove.Plan(ctx, request.Shop(ctx), ask)
	if err != nil {
		return nil, err
	}
	out := contract.PlanGroove200JSONResponse{TargetMm: p.Target, ThickestMm: p.Piece.Thickest, AllowanceMm: p.Allowance, Mind: v.Say(p.Mind),
		Cautions: v.Each(p.Cautions), Findings: v.Findings(p.Found), Ways: make([]contract.GrooveWay, len(p.Ways)), Earlier: v.GrooveRows(p.Earlier)}
	for i, w := range p.Ways {
		out.Ways[i] = v.GrooveWay(w)
	}
	return out, nil
}

func (s Handlers) ListGrooves(ctx context.Context, r contract.ListGroovesRequestObject) (contract.ListGroovesResponseObject, error) {
	v := present.VoiceOf(ctx)
	rows, err := s.In(ctx).Groove.Recent(ctx, request.Shop(ctx), request.Limit(r.Params.Limit))
	if err != nil {
		return nil, err
	}
	return contract.ListGrooves200JSONResponse{Items: v.GrooveRows(rows)}, nil
}

func (s Handlers) StartGroove(ctx context.Context, r contract.StartGrooveRequestObject) (contract.StartGrooveResponseObject, error) {
	v := present.VoiceOf(ctx)
	by := ptr.Value(r.Body.By)
	if r.Body.Like != nil {
		g, err := s.In(ctx).Groove.CallUp(ctx, request.Shop(ctx), *r.Body.Like, by)
		if err != nil {
			return nil, err
		}
		return contract.StartGroove201JSONResponse(v.Groove(g)), nil
	}
	if r.Body.Ask == nil || r.Body.BladeID == nil {
		return nil, &refusal.Error{Field: "ask", What: say.Of("give the groove and its blade, or an earlier groove to reuse")}
	}
	ask, err := decodeGrooveAsk(*r.Body.Ask)
	if err != nil {
		return nil, err
	}
	g, err := s.In(ctx).Groove.Start(ctx, request.Shop(ctx), ask, *r.Body.BladeID, by)
	if err != nil {
		return nil, err
	}
	return contract.StartGroove201JSONResponse(v.Groove(g)), nil
}

func (s Handlers) GetGroove(ctx context.Context, r contract.GetGrooveRequestObject) (contract.GetGrooveResponseObject, error) {
	v := present.VoiceOf(ctx)
	g, err := s.In(ctx).Groove.Get(ctx, request.Shop(ctx), r.ID)
	if err != nil {
		return nil, err
	}
	return contract.GetGroove200JSONResponse(v.Groove(g)), nil
}

func (s Handlers) DropGroove(ctx context.Context, r contract.DropGrooveRequestObject) (contract.DropGrooveResponseObject, error) {
	return contract.DropGroove204Response{}, s.In(ctx).Groove.Drop(ctx, request.Shop(ctx), r.ID)
}

func (s Handlers) TestGroove(ctx context.Context, r contract.TestGrooveRequestObject) (contract.TestGrooveResponseObject, error) {
	v := present.VoiceOf(ctx)
	g, err := s.In(ctx).Groove.Test(ctx, request.Shop(ctx), r.ID, request.Version(r.Params.IfMatch), r.Body.WidthMm, ptr.Value(r.Body.DepthMm))
	if err != nil {
		return nil, err
	}
	return contract.TestGroove200JSONResponse(v.Groove(g)), nil
}

func (s Handlers) EndGroove(ctx context.Context, r contract.EndGrooveRequestObject) (contract.EndGrooveResponseObject, error) {
	v := present.VoiceOf(ctx)
	g, err := s.In(ctx).Groove.End(ctx, request.Shop(ctx), r.ID, request.Version(r.Params.IfMatch), r.Body.Made,
		outcome.Wall(cmp.Or(ptr.Value(r.Body.Wall), contract.Wall(outcome.Clean))), outcome.Face(cmp.Or(ptr.Value(r.Body.Splinters), contract.Splinters(outcome.None))), ptr.Value(r.Body.Note))
	if err != nil {
		return nil, err
	}
	return contract.EndGroove200JSONResponse(v.Groove(g)), nil
}

func (s Handlers) PlanJoint(ctx context.Context, r contract.PlanJointRequestObject) (contract.PlanJointResponseObject, error) {
	v := present.VoiceOf(ctx)
	b := r.Body
	p, err := s.In(ctx).Joint.Plan(ctx, request.Shop(ctx), b.SawID, b.BladeID, joint.Ask{Kind: string(b.Kind), Stock: ptr.Value(b.StockMm), Tenon: ptr.Value(b.TenonMm),
		Length: ptr.Value(b.LengthMm), Width: ptr.Value(b.WidthMm), Slot: ptr.Value(b.SlotMm), Room: ptr.Value(b.RoomMm), Edge: ptr.Value(b.EdgeMm), Depth: ptr.Value(b.DepthMm), Skin: ptr.Value(b.SkinMm), Radius: ptr.Value(b.RadiusMm),
		Off: b.OffMm, Gap: b.GapMm, Fingers: ptr.Value(b.Fingers), SlopeDeg: ptr.Value(b.SlopeDeg), BendDeg: ptr.Value(b.BendDeg)})
	if err != nil {
		return nil, err
	}
	out := contract.PlanJoint200JSONResponse{Kind: b.Kind, BladeID: p.Blade, Verdict: p.Verdict, Do: v.Each(p.Do), Mind: v.Each(p.Mind),
		Cautions: v.Each(p.Cautions), KerfMm: p.Kerf}
	if t := p.Tenon; t != nil {
		out.HeightsMm, out.StopsMm = ptr.To(t.Height[:]), &t.Stops
	}
	if x := p.Box; x != nil {
		out.SlotMm, out.OffsetMm, out.Slots, out.LastMm = ptr.To(x.Slot), ptr.To(x.Offset), &x.Slots, ptr.To(x.Last)
	}
	out.MoveMm = p.Move
	if t := p.Tail; t != nil {
		out.TiltDeg, out.HeightMm = &t.Tilt, ptr.To(t.Up)
	}
	if x := p.Slant; x != nil {
		out.Passes, out.LeftMm = ptr.To(present.Passes(x.Passes)), ptr.To(x.Left)
	}
	if x := p.Fold; x != nil {
		out.SkinMm, out.DepthMm, out.SpacingMm, out.Kerfs, out.SpanMm, out.ClosesDeg = ptr.To(p.Skin), ptr.To(x.Depth), ptr.To(x.Spacing), &x.Kerfs, ptr.To(x.Span), &x.Closes
	}
	return out, nil
}
