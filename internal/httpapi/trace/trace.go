// Package trace answers for faults that are traced to their cause.
package trace

import (
	"context"
	"encoding/json"

	"corte/core/trace"
	"corte/internal/httpapi/contract"
	"corte/internal/httpapi/present"
	"corte/internal/httpapi/request"
	"corte/internal/ptr"
)

// Handlers meet the part of the contract that is this station's.
type Handlers struct {
	request.Scope
}

func (s Handlers) ListTraceWords(ctx context.Context, _ contract.ListTraceWordsRequestObject) (contract.ListTraceWordsResponseObject, error) {
	v := present.VoiceOf(ctx)
	var out contract.ListTraceWords200JSONResponse
	for _, x := range trace.Signs() {
		out.Signs = append(out.Signs, contract.TraceSign{ID: x.ID, Label: v.Word(x.Label), Place: contract.TraceSignPlace(x.Place)})
	}
	for _, x := range trace.Causes() {
		out.Causes = append(out.Causes, contract.TraceWord{ID: x.ID, Label: v.Word(x.Label)})
	}
	for _, x := range trace.Tests() {
		out.Checks = append(out.Checks, contract.TraceWord{ID: x.ID, Label: v.Word(x.Label)})
	}
	return out, nil
}

func (s Handlers) ListTraces(ctx context.Context, r contract.ListTracesRequestObject) (contract.ListTracesResponseObject, error) {
	v := present.VoiceOf(ctx)
	rows, err := s.In(ctx).Trace.Recent(ctx, request.Shop(ctx), r.Params.SawID, r.Params.BladeID, request.Limit(r.Params.Limit))
	if err != nil {
		return nil, err
	}
	out := contract.ListTraces200JSONResponse{Items: make([]contract.TraceRow, len(rows))}
	for i, t := range rows {
		out.Items[i] = contract.TraceRow{ID: t.ID, SawID: t.Saw, BladeID: t.Blade, Present: v.InWords(t.Present), StartedAt: t.Started, EndedAt: t.Ended, Cause: v.Cause(t.Cause), Fixed: t.Fixed}
	}
	return out, nil
}

func (s Handlers) StartTrace(ctx context.Context, r contract.StartTraceRequestObject) (contract.StartTraceResponseObject, error) {
	v := present.VoiceOf(ctx)
	raw, err := json.Marshal(r.Body.Cut)
	if err != nil {
		return nil, err
	}
	t, err := s.In(ctx).Trace.Start(ctx, request.Shop(ctx), r.Body.Cut, raw, r.Body.BladeID, ptr.Value(r.Body.HeightMm), r.Body.Present, ptr.Value(r.Body.By))
	if err != nil {
		return nil, err
	}
	out, err := v.Trace(t)
	return contract.StartTrace201JSONResponse(out), err
}

func (s Handlers) GetTrace(ctx context.Context, r contract.GetTraceRequestObject) (contract.GetTraceResponseObject, error) {
	v := present.VoiceOf(ctx)
	t, err := s.In(ctx).Trace.Get(ctx, request.Shop(ctx), r.ID)
	if err != nil {
		return nil, err
	}
	out, err := v.Trace(t)
	return contract.GetTrace200JSONResponse(out), err
}

func (s Handlers) SetTraceEvidence(ctx context.Context, r contract.SetTraceEvidenceRequestObject) (contract.SetTraceEvidenceResponseObject, error) {
	v := present.VoiceOf(ctx)
	answers := make(map[string]string, len(r.Body.Answers))
	for k, a := range r.Body.Answers {
		answers[k] = string(a)
	}
	t, err := s.In(ctx).Trace.SetEvidence(ctx, request.Shop(ctx), r.ID, request.Version(r.Params.IfMatch), r.Body.Present, r.Body.Absent, answers)
	if err != nil {
		return nil, err
	}
	out, err := v.Trace(t)
	return contract.SetTraceEvidence200JSONResponse(out), err
}

func (s Handlers) EndTrace(ctx context.Context, r contract.EndTraceRequestObject) (contract.EndTraceResponseObject, error) {
	v := present.VoiceOf(ctx)
	t, err := s.In(ctx).Trace.End(ctx, request.Shop(ctx), r.ID, request.Version(r.Params.IfMatch), ptr.Value(r.Body.Cause), r.Body.Fixed, ptr.Value(r.Body.Note))
	if err != nil {
		return nil, err
	}
	out, err := v.Trace(t)
	return contract.EndTrace200JSONResponse(out), err
}

func (s Handlers) DropTrace(ctx context.Context, r contract.DropTraceRequestObject) (contract.DropTraceResponseObject, error) {
	return contract.DropTrace204Response{}, s.In(ctx).Trace.Drop(ctx, request.Shop(ctx), r.ID)
}
