// Package truing answers for readings of a saw.
package truing

import (
	"context"
	"encoding/json"

	"corte/core/history"
	"corte/core/truing"
	"corte/internal/httpapi/contract"
	"corte/internal/httpapi/present"
	"corte/internal/httpapi/request"
	"corte/internal/ptr"
	shoptruing "corte/internal/shop/truing"
)

// Handlers meet the part of the contract that is this station's.
type Handlers struct {
	request.Scope
}

func (s Handlers) WorkOutTruing(ctx context.Context, r contract.WorkOutTruingRequestObject) (contract.WorkOutTruingResponseObject, error) {
	v := present.VoiceOf(ctx)
	t, err := s.In(ctx).Truing.WorkOut(ctx, request.Shop(ctx), decodeReading(*r.Body))
	if err != nil {
		return nil, err
	}
	return contract.WorkOutTruing200JSONResponse(v.Truing(r.Body.Test, t)), nil
}

func (s Handlers) SaveTruing(ctx context.Context, r contract.SaveTruingRequestObject) (contract.SaveTruingResponseObject, error) {
	input, err := json.Marshal(r.Body)
	if err != nil {
		return nil, err
	}
	e, err := s.In(ctx).Truing.Save(ctx, request.Shop(ctx), decodeReading(*r.Body), input, request.Sent(r.Params.WaitedSeconds, r.Params.MadeAfter))
	if err != nil {
		return nil, err
	}
	out, err := encodeRecord(e)
	return contract.SaveTruing201JSONResponse(out), err
}

func (s Handlers) ListTruings(ctx context.Context, r contract.ListTruingsRequestObject) (contract.ListTruingsResponseObject, error) {
	p := r.Params
	rows, err := s.In(ctx).Truing.Recent(ctx, request.Shop(ctx), p.SawID, p.BladeID, string(ptr.Value(p.Test)), request.Limit(p.Limit))
	if err != nil {
		return nil, err
	}
	out := contract.ListTruings200JSONResponse{Items: make([]contract.TruingRecord, len(rows))}
	for i, e := range rows {
		if out.Items[i], err = encodeRecord(e); err != nil {
			return nil, err
		}
	}
	return out, nil
}

func (s Handlers) MoveSaw(ctx context.Context, r contract.MoveSawRequestObject) (contract.MoveSawResponseObject, error) {
	v := present.VoiceOf(ctx)
	e, err := s.In(ctx).Truing.MoveSaw(ctx, request.Shop(ctx), r.ID, ptr.Value(r.Body.Note))
	if err != nil {
		return nil, err
	}
	out, err := v.Entry(e)
	return contract.MoveSaw201JSONResponse(out), err
}

func decodeReading(in contract.TruingInput) shoptruing.Reading {
	r := shoptruing.Reading{
		Test: string(in.Test), Saw: in.SawID, Blade: in.BladeID, First: ptr.Value(in.FirstMm), Second: ptr.Value(in.SecondMm),
		Span: ptr.Value(in.SpanMm), Gap: ptr.Value(in.GapMm), Height: ptr.Value(in.HeightMm),
		Length: ptr.Value(in.LengthMm), Wanted: ptr.Value(in.WantedMm), Found: ptr.Value(in.MeasuredMm),
		Slots: ptr.Value(in.Slots), By: ptr.Value(in.By), Note: ptr.Value(in.Note),
	}
	// Left out, it is what was read before the contract asked: a dial indicator on
	// the plate, and a distance to the fence.
	if in.Instrument == nil && in.Test == contract.TruingTestFence || ptr.Value(in.Instrument) == contract.TruingInputInstrumentDistance {
		r.Instrument = truing.Distance
	}
	if ptr.Value(in.Dial) == contract.TruingInputDialRight {
		r.Dial = truing.Right
	}
	return r
}

func encodeRecord(e shoptruing.Past) (contract.TruingRecord, error) {
	var d history.Truing
	if err := json.Unmarshal(e.Detail, &d); err != nil {
		return contract.TruingRecord{}, err
	}
	out := contract.TruingRecord{ID: e.ID, At: e.At, By: ptr.NonZero(e.By), Note: ptr.NonZero(e.Note), Test: contract.TruingTest(e.Kind), SawID: e.Saw,
		BladeID: e.Blade, Figure: d.Figure, FigureUnit: contract.TruingRecordFigureUnit(d.Unit), Low: e.Low, High: e.High, Verdict: present.WordOf[contract.Verdict](d.Verdict)}
	err := json.Unmarshal(d.Input, &out.Input)
	return out, err
}
