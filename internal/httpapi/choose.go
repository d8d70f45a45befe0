package httpapi

import (
	"context"

	"corte/internal/httpapi/contract"
	"corte/internal/wire"
)

func (s *server) CreatePlan(ctx context.Context, r contract.CreatePlanRequestObject) (contract.CreatePlanResponseObject, error) {
	v := voiceOf(ctx)
	p, err := s.in(ctx).Choose.Plan(ctx, s.shop(ctx), r.Body.Cut, wire.PlanLimit(r.Body.Limit))
	if err != nil {
		return nil, err
	}
	return contract.CreatePlan200JSONResponse(v.Plan(p)), nil
}

func (s *server) CreateSweep(ctx context.Context, r contract.CreateSweepRequestObject) (contract.CreateSweepResponseObject, error) {
	v := voiceOf(ctx)
	sweep, err := s.in(ctx).Choose.Sweep(ctx, s.shop(ctx), r.Body.Cut, wire.ReadSweep(*r.Body))
	if err != nil {
		return nil, err
	}
	return contract.CreateSweep200JSONResponse(v.Sweep(sweep)), nil
}

func (s *server) CreateComparison(ctx context.Context, r contract.CreateComparisonRequestObject) (contract.CreateComparisonResponseObject, error) {
	v := voiceOf(ctx)
	w, all, err := s.in(ctx).Choose.Compare(ctx, s.shop(ctx), r.Body.Cut, wire.ReadPins(r.Body.Pins))
	if err != nil {
		return nil, err
	}
	return contract.CreateComparison200JSONResponse{Items: v.Comparison(w.ID, all)}, nil
}

func (s *server) CreateSupportPlan(ctx context.Context, r contract.CreateSupportPlanRequestObject) (contract.CreateSupportPlanResponseObject, error) {
	v := voiceOf(ctx)
	b, now, err := wire.ReadBoard(*r.Body)
	if err != nil {
		return nil, err
	}
	plan, as, err := s.in(ctx).Choose.Supports(b, now)
	if err != nil {
		return nil, err
	}
	return contract.CreateSupportPlan200JSONResponse(v.SupportPlans(plan, as)), nil
}

func (s *server) GetShelf(ctx context.Context, _ contract.GetShelfRequestObject) (contract.GetShelfResponseObject, error) {
	shelf, err := s.in(ctx).Store.Shelf(ctx, s.shop(ctx))
	return contract.GetShelf200JSONResponse(shelf), err
}
