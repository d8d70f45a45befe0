package httpapi

import (
	"context"
	"encoding/json"

	"corte/core/history"
	"corte/core/truing"
	"corte/internal/httpapi/contract"
	"corte/internal/ptr"
	shoptruing "corte/internal/shop/truing"
)

func (s *server) WorkOutTruing(ctx context.Context, r contract.WorkOutTruingRequestObject) (contract.WorkOutTruingResponseObject, error) {
	v := voiceOf(ctx)
	t, err := s.in(ctx).Truing.WorkOut(ctx, s.shop(ctx), decodeReading(*r.Body))
	if err != nil {
		return nil, err
	}
	return contract.WorkOutTruing200JSONResponse(v.encodeTruing(r.Body.Test, t)), nil
}

func (s *server) SaveTruing(ctx context.Context, r contract.SaveTruingRequestObject) (contract.SaveTruingResponseObject, error) {
	input, err := json.Marshal(r.Body)
	if err != nil {
		return nil, err
	}
	e, err := s.in(ctx).Truing.Save(ctx, s.shop(ctx), decodeReading(*r.Body), input, sentOf(r.Params.WaitedSeconds, r.Params.MadeAfter))
	if err != nil {
		return nil, err
	}
	out, err := encodeRecord(e)
	return contract.SaveTruing201JSONResponse(out), err
}

func (s *server) ListTruings(ctx context.Context, r contract.ListTruingsRequestObject) (contract.ListTruingsResponseObject, error) {
	p := r.Params
	rows, err := s.in(ctx).Truing.Recent(ctx, s.shop(ctx), p.SawID, p.BladeID, string(ptr.Value(p.Test)), limitOf(p.Limit))
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

func (s *server) MoveSaw(ctx context.Context, r contract.MoveSawRequestObject) (contract.MoveSawResponseObject, error) {
	v := voiceOf(ctx)
	e, err := s.in(ctx).Truing.MoveSaw(ctx, s.shop(ctx), r.ID, ptr.Value(r.Body.Note))
	if err != nil {
		return nil, err
	}
	out, err := v.encodeEntry(e)
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

func (v voice) encodeTruing(test contract.TruingTest, t shoptruing.Truing) contract.TruingResult {
	out := contract.TruingResult{
		Test: test, Verdict: t.Verdict, Figure: t.Figure, FigureUnit: contract.TruingResultFigureUnit(t.Unit),
		Aim: ptr.Positive(t.Aim), Act: ptr.Positive(t.Act), Says: v.Each(t.Says), Do: v.Each(t.Do), DoubtfulFirst: t.First, DoubtfulSecond: t.Second,
		MarksApartMm: ptr.Positive(t.MarksApart), Left: encodeClearance(t.Left), Right: encodeClearance(t.Right),
	}
	if h := t.Heel; h != nil {
		out.TowardFenceMm, out.MoveAtBoltMm = ptr.To(h.TowardFence), ptr.To(h.MoveAtBolt)
	}
	if f := t.Fence; f != nil {
		out.OpenMm = ptr.To(f.Open)
	}
	if a := t.Adjustment; a != nil {
		out.MoveMm, out.Turns = ptr.To(a.Move), &a.Turns
	}
	if r := t.RunOut; r != nil {
		harmonic := func(h truing.Harmonic) contract.Harmonic {
			return contract.Harmonic{AmplitudeMm: h.Amplitude, PhaseDeg: h.PhaseDeg}
		}
		out.Runout = &contract.RunOut{MeanMm: r.Mean, SpreadMm: r.Spread, First: harmonic(r.First)}
		if r.Split {
			out.Runout.Arbor, out.Runout.Blade = ptr.To(harmonic(r.Arbor)), ptr.To(harmonic(r.Blade))
		}
	}
	return out
}

func encodeClearance(c *truing.Clearance) *contract.Clearance {
	if c == nil {
		return nil
	}
	out := contract.Clearance{RangeMm: c.Range, MeanMm: c.Mean, SdMm: c.SD, MedianMm: c.Median, MadMm: c.MAD,
		Proud: c.Proud, Grade: contract.ClearanceGrade(c.Grade.String())}
	if c.Slots != nil {
		out.BesideSlotsMm, out.RestMm = ptr.To(c.Slots.Beside), ptr.To(c.Slots.Rest)
	}
	return &out
}

func encodeRecord(e shoptruing.Past) (contract.TruingRecord, error) {
	var d history.Truing
	if err := json.Unmarshal(e.Detail, &d); err != nil {
		return contract.TruingRecord{}, err
	}
	out := contract.TruingRecord{ID: e.ID, At: e.At, By: ptr.NonZero(e.By), Note: ptr.NonZero(e.Note), Test: contract.TruingTest(e.Kind), SawID: e.Saw,
		BladeID: e.Blade, Figure: d.Figure, FigureUnit: contract.TruingRecordFigureUnit(d.Unit), Low: e.Low, High: e.High, Verdict: wordOf[contract.Verdict](d.Verdict)}
	err := json.Unmarshal(d.Input, &out.Input)
	return out, err
}
