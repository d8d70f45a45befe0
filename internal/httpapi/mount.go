package httpapi

import (
	"context"

	"corte/internal/httpapi/contract"
	"corte/internal/ptr"
	shopmount "corte/internal/shop/mount"
	"corte/internal/store"
)

func (s *server) StartMounting(ctx context.Context, r contract.StartMountingRequestObject) (contract.StartMountingResponseObject, error) {
	v := voiceOf(ctx)
	m, err := s.in(ctx).Mount.Start(ctx, s.shop(ctx), r.Body.SawID, r.Body.BladeID, r.Body.GrooveID, ptr.Value(r.Body.By))
	if err != nil {
		return nil, err
	}
	return contract.StartMounting200JSONResponse(v.encodeMounting(m)), nil
}

func (s *server) GetMounting(ctx context.Context, r contract.GetMountingRequestObject) (contract.GetMountingResponseObject, error) {
	v := voiceOf(ctx)
	m, err := s.in(ctx).Mount.Get(ctx, s.shop(ctx), r.ID)
	if err != nil {
		return nil, err
	}
	return contract.GetMounting200JSONResponse(v.encodeMounting(m)), nil
}

func (s *server) StepMounting(ctx context.Context, r contract.StepMountingRequestObject) (contract.StepMountingResponseObject, error) {
	v := voiceOf(ctx)
	m := store.Mounting{ID: r.ID, Shop: s.shop(ctx), Step: r.Body.Step, Version: version(r.Params.IfMatch)}
	out, err := s.in(ctx).Mount.Step(ctx, m, r.Body.Answers)
	if err != nil {
		return nil, err
	}
	return contract.StepMounting200JSONResponse(v.encodeMounting(out)), nil
}

func (s *server) DropMounting(ctx context.Context, r contract.DropMountingRequestObject) (contract.DropMountingResponseObject, error) {
	return contract.DropMounting204Response{}, s.in(ctx).Mount.Drop(ctx, s.shop(ctx), r.ID)
}

func (s *server) EndMounting(ctx context.Context, r contract.EndMountingRequestObject) (contract.EndMountingResponseObject, error) {
	v := voiceOf(ctx)
	e, err := s.in(ctx).Mount.End(ctx, s.shop(ctx), r.ID, version(r.Params.IfMatch), ptr.Value(r.Body.By), ptr.Value(r.Body.DiameterMm))
	if err != nil {
		return nil, err
	}
	out, err := v.encodeEntry(e)
	return contract.EndMounting201JSONResponse(out), err
}

func (v voice) encodeMounting(m shopmount.Mounting) contract.Mounting {
	out := contract.Mounting{ID: m.ID, Version: m.Version, SawID: m.Saw.ID, SawName: m.Saw.Name, SawKind: contract.MountingSawKind(m.Saw.Kind.String()),
		Thread: ptr.To(contract.MountingThread(m.Saw.Thread.String())), BladeID: m.Blade.ID, BladeName: m.Blade.Name, Step: min(m.Step, len(m.Steps)-1),
		Answers: m.Answers, By: m.By, StartedAt: m.Started, Steps: make([]contract.MountStep, len(m.Steps))}
	for i, st := range m.Steps {
		one := contract.MountStep{ID: st.ID, Title: v.Say(st.Title), Text: v.Each(st.Text), Caution: v.Say(st.Caution), Picture: contract.MountStepPicture(st.Picture),
			Numbers: st.Numbers, Checks: make([]contract.MountCheck, len(st.Checks))}
		for k, c := range st.Checks {
			one.Checks[k] = contract.MountCheck{ID: c.ID, Ask: v.Say(c.Ask), IfNot: v.Say(c.IfNot)}
		}
		out.Steps[i] = one
	}
	if m.Way != nil {
		out.Way = ptr.To(v.encodeGrooveWay(*m.Way))
	}
	return out
}
