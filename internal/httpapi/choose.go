package httpapi

import (
	"context"

	"corte/core/guide"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/say"
	"corte/internal/answer"
	"corte/internal/httpapi/contract"
	"corte/internal/opt"
	"corte/internal/refusal"
	shopchoose "corte/internal/shop/choose"
)

func (s *server) CreatePlan(ctx context.Context, r contract.CreatePlanRequestObject) (contract.CreatePlanResponseObject, error) {
	v := voiceOf(ctx)
	c := answer.ReadCut(r.Body.Cut)
	p, err := s.in(ctx).Choose.Plan(ctx, s.shop, c, answer.PlanLimit(r.Body.Limit))
	if err != nil {
		return nil, err
	}
	return contract.CreatePlan200JSONResponse(v.Plan(p)), nil
}

func (s *server) CreateSweep(ctx context.Context, r contract.CreateSweepRequestObject) (contract.CreateSweepResponseObject, error) {
	v := voiceOf(ctx)
	c := answer.ReadCut(r.Body.Cut)
	spec := shopchoose.SweepSpec{Blade: r.Body.BladeID, Step: r.Body.StepMm, Also: opt.Value(r.Body.AlsoMm)}
	sweep, err := s.in(ctx).Choose.Sweep(ctx, s.shop, c, spec)
	if err != nil {
		return nil, err
	}
	return contract.CreateSweep200JSONResponse(v.Sweep(sweep)), nil
}

func (s *server) CreateComparison(ctx context.Context, r contract.CreateComparisonRequestObject) (contract.CreateComparisonResponseObject, error) {
	v := voiceOf(ctx)
	c := answer.ReadCut(r.Body.Cut)
	pins := make([]shopchoose.Pin, len(r.Body.Pins))
	for i, p := range r.Body.Pins {
		pins[i] = shopchoose.Pin{Blade: p.BladeID, Height: opt.Value(p.HeightMm)}
		pins[i].Exit = p.ExitSupport
		pins[i].Other = p.OtherSupport
	}
	w, all, err := s.in(ctx).Choose.Compare(ctx, s.shop, c, pins)
	if err != nil {
		return nil, err
	}
	out := contract.CreateComparison200JSONResponse{Items: make([]contract.Compared, len(all))}
	for i, one := range all {
		out.Items[i] = contract.Compared{BladeID: one.Blade, Cut: answer.Cut(w.ID, one.Job), Refused: opt.Known(v.Sentence(one.Refused))}
		if one.Setting != nil {
			out.Items[i].Setting = opt.Of(v.Setting(*one.Setting))
		}
	}
	return out, nil
}

func (s *server) CreateSupportPlan(ctx context.Context, r contract.CreateSupportPlanRequestObject) (contract.CreateSupportPlanResponseObject, error) {
	v := voiceOf(ctx)
	in := r.Body
	m, err := material.Get(in.Material)
	if err != nil {
		return nil, &refusal.Error{Reason: refusal.Invalid, Field: "material", What: say.Error(err)}
	}
	b := guide.Board{Material: m, Thickness: in.ThicknessMm, Span: in.SpanMm,
		Breadth: in.BreadthMm, Line: in.LineMm}
	var now []measure.Length
	for _, at := range opt.Value(in.NowMm) {
		now = append(now, measure.Length(at))
	}
	plan, as, err := s.in(ctx).Choose.Supports(b, now)
	if err != nil {
		return nil, err
	}
	out := contract.CreateSupportPlan200JSONResponse{Plan: v.Supports(plan)}
	if as != nil {
		out.Now = opt.Of(v.Supports(*as))
	}
	return out, nil
}
