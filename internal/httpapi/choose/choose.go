// Package choose answers for plans of a cut, sweeps of the height, comparisons and supports.
package choose

import (
	"context"

	"corte/internal/httpapi/contract"
	"corte/internal/httpapi/present"
	"corte/internal/httpapi/request"
	"corte/internal/wire"
)

// Handlers meet the part of the contract that is this station's.
type Handlers struct {
	request.Scope
}

func (s Handlers) CreatePlan(ctx context.Context, r contract.CreatePlanRequestObject) (contract.CreatePlanResponseObject, error) {
	v := present.VoiceOf(ctx)
	p, err := s.In(ctx).Choose.Plan(ctx, request.Shop(ctx), r.Body.Cut, wire.PlanLimit(r.Body.Limit))
	if err != nil {
		return nil, err
	}
	return contract.CreatePlan200JSONResponse(v.Plan(p)), nil
}

func (s Handlers) CreateSweep(ctx context.Context, r contract.CreateSweepRequestObject) (contract.CreateSweepResponseObject, error) {
	v := present.VoiceOf(ctx)
	sweep, err := s.In(ctx).Choose.Sweep(ctx, request.Shop(ctx), r.Body.Cut, wire.ReadSweep(*r.Body))
	if err != nil {
		return nil, err
	}
	return contract.CreateSweep200JSONResponse(v.Sweep(sweep)), nil
}

func (s Handlers) CreateComparison(ctx context.Context, r contract.CreateComparisonRequestObject) (contract.CreateComparisonResponseObject, error) {
	v := present.VoiceOf(ctx)
	w, all, err := s.In(ctx).Choose.Compare(ctx, request.Shop(ctx), r.Body.Cut, wire.ReadPins(r.Body.Pins))
	if err != nil {
		return nil, err
	}
	return contract.CreateComparison200JSONResponse{Items: v.Comparison(w.ID, all)}, nil
}

func (s Handlers) CreateSupportPlan(ctx context.Context, r contract.CreateSupportPlanRequestObject) (contract.CreateSupportPlanResponseObject, error) {
	v := present.VoiceOf(ctx)
	b, now, err := wire.ReadBoard(*r.Body)
	if err != nil {
		return nil, err
	}
	plan, as, err := s.In(ctx).Choose.Supports(b, now)
	if err != nil {
		return nil, err
	}
	return contract.CreateSupportPlan200JSONResponse(v.SupportPlans(plan, as)), nil
}

func (s Handlers) GetShelf(ctx context.Context, _ contract.GetShelfRequestObject) (contract.GetShelfResponseObject, error) {
	shelf, err := s.In(ctx).Store.Shelf(ctx, request.Shop(ctx))
	return contract.GetShelf200JSONResponse(shelf), err
}
