// Package mount answers for blades that are put on a saw.
package mount

import (
	"context"

	"corte/internal/httpapi/contract"
	"corte/internal/httpapi/present"
	"corte/internal/httpapi/request"
	"corte/internal/ptr"
	"corte/internal/store"
)

// Handlers meet the part of the contract that is this station's.
type Handlers struct {
	request.Scope
}

func (s Handlers) StartMounting(ctx context.Context, r contract.StartMountingRequestObject) (contract.StartMountingResponseObject, error) {
	v := present.VoiceOf(ctx)
	m, err := s.In(ctx).Mount.Start(ctx, request.Shop(ctx), r.Body.SawID, r.Body.BladeID, r.Body.GrooveID, ptr.Value(r.Body.By))
	if err != nil {
		return nil, err
	}
	return contract.StartMounting200JSONResponse(v.Mounting(m)), nil
}

func (s Handlers) GetMounting(ctx context.Context, r contract.GetMountingRequestObject) (contract.GetMountingResponseObject, error) {
	v := present.VoiceOf(ctx)
	m, err := s.In(ctx).Mount.Get(ctx, request.Shop(ctx), r.ID)
	if err != nil {
		return nil, err
	}
	return contract.GetMounting200JSONResponse(v.Mounting(m)), nil
}

func (s Handlers) StepMounting(ctx context.Context, r contract.StepMountingRequestObject) (contract.StepMountingResponseObject, error) {
	v := present.VoiceOf(ctx)
	m := store.Mounting{ID: r.ID, Shop: request.Shop(ctx), Step: r.Body.Step, Version: request.Version(r.Params.IfMatch)}
	out, err := s.In(ctx).Mount.Step(ctx, m, r.Body.Answers)
	if err != nil {
		return nil, err
	}
	return contract.StepMounting200JSONResponse(v.Mounting(out)), nil
}

func (s Handlers) DropMounting(ctx context.Context, r contract.DropMountingRequestObject) (contract.DropMountingResponseObject, error) {
	return contract.DropMounting204Response{}, s.In(ctx).Mount.Drop(ctx, request.Shop(ctx), r.ID)
}

func (s Handlers) EndMounting(ctx context.Context, r contract.EndMountingRequestObject) (contract.EndMountingResponseObject, error) {
	v := present.VoiceOf(ctx)
	e, err := s.In(ctx).Mount.End(ctx, request.Shop(ctx), r.ID, request.Version(r.Params.IfMatch), ptr.Value(r.Body.By), ptr.Value(r.Body.DiameterMm))
	if err != nil {
		return nil, err
	}
	out, err := v.Entry(e)
	return contract.EndMounting201JSONResponse(out), err
}
