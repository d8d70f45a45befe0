package httpapi

import (
	"context"
	"encoding/json"

	"corte/core/trace"
	"corte/internal/httpapi/contract"
	"corte/internal/ptr"
	shoptrace "corte/internal/shop/trace"
)

func (s *server) ListTraceWords(ctx context.Context, _ contract.ListTraceWordsRequestObject) (contract.ListTraceWordsResponseObject, error) {
	v := voiceOf(ctx)
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

func (v voice) cause(id string) string {
	c, _ := trace.CauseByID(id)
	return v.Word(c.Label)
}

func (s *server) ListTraces(ctx context.Context, r contract.ListTracesRequestObject) (contract.ListTracesResponseObject, error) {
	v := voiceOf(ctx)
	rows, err := s.in(ctx).Trace.Recent(ctx, s.shop(ctx), r.Params.SawID, r.Params.BladeID, limitOf(r.Params.Limit))
	if err != nil {
		return nil, err
	}
	out := contract.ListTraces200JSONResponse{Items: make([]contract.TraceRow, len(rows))}
	for i, t := range rows {
		out.Items[i] = contract.TraceRow{ID: t.ID, SawID: t.Saw, BladeID: t.Blade, Present: v.inWords(t.Present), StartedAt: t.Started, EndedAt: t.Ended, Cause: v.cause(t.Cause), Fixed: t.Fixed}
	}
	return out, nil
}

// inWords puts the ids of signs and checks into words.
func (v voice) inWords(ids []string) []string {
	out := make([]string, len(ids))
	for i, id := range ids {
		if s, ok := trace.SignByID(id); ok {
			out[i] = v.Word(s.Label)
		} else if c, ok := trace.CheckByID(id); ok {
			out[i] = v.Word(c.Label)
		}
	}
	return out
}

func (s *server) StartTrace(ctx context.Context, r contract.StartTraceRequestObject) (contract.StartTraceResponseObject, error) {
	v := voiceOf(ctx)
	raw, err := json.Marshal(r.Body.Cut)
	if err != nil {
		return nil, err
	}
	t, err := s.in(ctx).Trace.Start(ctx, s.shop(ctx), r.Body.Cut, raw, r.Body.BladeID, ptr.Value(r.Body.HeightMm), r.Body.Present, ptr.Value(r.Body.By))
	if err != nil {
		return nil, err
	}
	out, err := v.encodeTrace(t)
	return contract.StartTrace201JSONResponse(out), err
}

func (s *server) GetTrace(ctx context.Context, r contract.GetTraceRequestObject) (contract.GetTraceResponseObject, error) {
	v := voiceOf(ctx)
	t, err := s.in(ctx).Trace.Get(ctx, s.shop(ctx), r.ID)
	if err != nil {
		return nil, err
	}
	out, err := v.encodeTrace(t)
	return contract.GetTrace200JSONResponse(out), err
}

func (s *server) SetTraceEvidence(ctx context.Context, r contract.SetTraceEvidenceRequestObject) (contract.SetTraceEvidenceResponseObject, error) {
	v := voiceOf(ctx)
	answers := make(map[string]string, len(r.Body.Answers))
	for k, a := range r.Body.Answers {
		answers[k] = string(a)
	}
	t, err := s.in(ctx).Trace.SetEvidence(ctx, s.shop(ctx), r.ID, version(r.Params.IfMatch), r.Body.Present, r.Body.Absent, answers)
	if err != nil {
		return nil, err
	}
	out, err := v.encodeTrace(t)
	return contract.SetTraceEvidence200JSONResponse(out), err
}

func (s *server) EndTrace(ctx context.Context, r contract.EndTraceRequestObject) (contract.EndTraceResponseObject, error) {
	v := voiceOf(ctx)
	t, err := s.in(ctx).Trace.End(ctx, s.shop(ctx), r.ID, version(r.Params.IfMatch), ptr.Value(r.Body.Cause), r.Body.Fixed, ptr.Value(r.Body.Note))
	if err != nil {
		return nil, err
	}
	out, err := v.encodeTrace(t)
	return contract.EndTrace200JSONResponse(out), err
}

func (s *server) DropTrace(ctx context.Context, r contract.DropTraceRequestObject) (contract.DropTraceResponseObject, error) {
	return contract.DropTrace204Response{}, s.in(ctx).Trace.Drop(ctx, s.shop(ctx), r.ID)
}

// reasonsShown are as many as anyone weighs; the rest is hardly likely.
const reasonsShown = 8

func (v voice) encodeTrace(t shoptrace.Trace) (contract.Trace, error) {
	out := contract.Trace{ID: t.ID, Version: t.Version, SawID: t.Saw, SawName: t.SawName, SawKind: contract.TraceSawKind(t.SawKind.String()), BladeID: t.Blade,
		BladeName: t.BladeName, Present: append([]string{}, t.Present...), Absent: append([]string{}, t.Absent...), Facts: []string{}, Done: []contract.TraceDone{}, Pending: append([]string{}, t.Pending...),
		Stop: t.Stop, Doubts: v.Each(t.Doubts), Reasons: []contract.TraceReason{}, Next: []contract.TraceCheck{}, Exhausted: t.Exhausted, Piece: v.Words(t.Piece),
		Before: []contract.TraceEarlier{}, By: t.By, StartedAt: t.Started, EndedAt: t.Ended, Cause: v.cause(t.Trace.Cause), Fixed: t.Fixed, Note: t.Note}
	for _, f := range t.Facts {
		if !f.Says.Zero() {
			out.Facts = append(out.Facts, v.Say(f.Says))
		}
	}
	for _, k := range trace.Tests() {
		if a, done := t.Answers[k.ID]; done {
			out.Done = append(out.Done, contract.TraceDone{ID: k.ID, Label: v.Word(k.Label), Answer: contract.TraceDoneAnswer(a), FromLog: v.Say(t.FromLog[k.ID])})
		}
	}
	for _, r := range t.Reasons[:reasonsShown] {
		out.Reasons = append(out.Reasons, contract.TraceReason{ID: r.ID, Label: v.Word(r.Label), Share: r.Share, Hazard: r.Hazard, For: v.inWords(r.For), Against: v.inWords(r.Against), Remedy: v.Word(r.Remedy)})
	}
	for _, n := range t.Next {
		out.Next = append(out.Next, contract.TraceCheck{Leads: (*contract.TraceCheckLeads)(ptr.NonZero(n.Leads())), ID: n.ID, Label: v.Word(n.Label), Minutes: n.Minutes, Kind: contract.TraceCheckKind(n.Kind), Record: n.Record, How: v.Word(n.How), Bits: n.Bits})
	}
	for _, b := range t.Before {
		out.Before = append(out.Before, contract.TraceEarlier{ID: b.ID, At: b.At, Signs: b.Signs, Cause: b.Cause, Fixed: b.Fixed})
	}
	err := json.Unmarshal(t.Cut, &out.Cut)
	return out, err
}
