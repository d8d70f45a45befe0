package httpapi

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"time"

	"corte/core/measure"
	"corte/core/truing"
	"corte/internal/gauge"
	"corte/internal/httpapi/contract"
	"corte/internal/shop"
	"corte/internal/store"
)

func (s *server) WorkOutTruing(ctx context.Context, r contract.WorkOutTruingRequestObject) (contract.WorkOutTruingResponseObject, error) {
	t, err := s.in(ctx).WorkOut(ctx, s.shop, decodeReading(*r.Body), units(r.Body.Units))
	if err != nil {
		return nil, err
	}
	return contract.WorkOutTruing200JSONResponse(encodeTruing(r.Body.Test, t)), nil
}

func (s *server) SaveTruing(ctx context.Context, r contract.SaveTruingRequestObject) (contract.SaveTruingResponseObject, error) {
	input, err := json.Marshal(r.Body)
	if err != nil {
		return nil, err
	}
	e, err := s.in(ctx).SaveTruing(ctx, s.shop, decodeReading(*r.Body), input, units(r.Body.Units))
	if err != nil {
		return nil, err
	}
	out, err := encodeRecord(e)
	return contract.SaveTruing201JSONResponse(out), err
}

func (s *server) ListTruings(ctx context.Context, r contract.ListTruingsRequestObject) (contract.ListTruingsResponseObject, error) {
	p := r.Params
	rows, err := s.in(ctx).Truings(ctx, s.shop, p.SawID, p.BladeID, string(value(p.Test)), limitOf(p.Limit))
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
	e, err := s.in(ctx).MoveSaw(ctx, s.shop, r.ID, value(r.Body.Note))
	if err != nil {
		return nil, err
	}
	out, err := encodeEntry(e)
	return contract.MoveSaw201JSONResponse(out), err
}

func (s *server) GetBench(ctx context.Context, _ contract.GetBenchRequestObject) (contract.GetBenchResponseObject, error) {
	all, err := s.in(ctx).Bench(ctx, s.shop)
	if err != nil {
		return nil, err
	}
	out := contract.GetBench200JSONResponse{Items: make([]contract.BenchSaw, len(all))}
	for i, b := range all {
		one := contract.BenchSaw{Saw: encodeSaw(b.Saw), Due: b.Due, Truings: []contract.TruingStand{}, Last: make([]contract.LogEntry, len(b.Last))}
		if b.Blade != nil {
			one.Blade = ptr(encodeBlade(*b.Blade))
		}
		for k, e := range b.Last {
			if one.Last[k], err = encodeEntry(e); err != nil {
				return nil, err
			}
		}
		for _, st := range b.Stands {
			stand := contract.TruingStand{Test: contract.TruingTest(st.Test), Stale: st.Stale}
			if st.Entry != nil {
				e, err := encodeEntry(*st.Entry)
				if err != nil {
					return nil, err
				}
				stand.Figure, stand.FigureUnit, stand.Verdict, stand.At = e.Figure, (*contract.TruingStandFigureUnit)(e.FigureUnit), e.Verdict, &st.Entry.At
			}
			one.Truings = append(one.Truings, stand)
		}
		if b.Mounting != nil {
			one.MountingID, one.MountingBlade = &b.Mounting.ID, &b.Goes
		}
		out.Items[i] = one
	}
	return out, nil
}

func (s *server) StartMounting(ctx context.Context, r contract.StartMountingRequestObject) (contract.StartMountingResponseObject, error) {
	m, err := s.in(ctx).StartMounting(ctx, s.shop, r.Body.SawID, r.Body.BladeID, r.Body.GrooveID, value(r.Body.By), units(r.Body.Units))
	if err != nil {
		return nil, err
	}
	return contract.StartMounting200JSONResponse(encodeMounting(m)), nil
}

func (s *server) GetMounting(ctx context.Context, r contract.GetMountingRequestObject) (contract.GetMountingResponseObject, error) {
	m, err := s.in(ctx).Mounting(ctx, s.shop, r.ID, units(r.Params.Units))
	if err != nil {
		return nil, err
	}
	return contract.GetMounting200JSONResponse(encodeMounting(m)), nil
}

func (s *server) StepMounting(ctx context.Context, r contract.StepMountingRequestObject) (contract.StepMountingResponseObject, error) {
	m := store.Mounting{ID: r.ID, Shop: s.shop, Step: r.Body.Step, Version: version(r.Params.IfMatch)}
	out, err := s.in(ctx).StepMounting(ctx, m, r.Body.Answers, units(r.Body.Units))
	if err != nil {
		return nil, err
	}
	return contract.StepMounting200JSONResponse(encodeMounting(out)), nil
}

func (s *server) DropMounting(ctx context.Context, r contract.DropMountingRequestObject) (contract.DropMountingResponseObject, error) {
	return contract.DropMounting204Response{}, s.in(ctx).DropMounting(ctx, s.shop, r.ID)
}

func (s *server) EndMounting(ctx context.Context, r contract.EndMountingRequestObject) (contract.EndMountingResponseObject, error) {
	e, err := s.in(ctx).EndMounting(ctx, s.shop, r.ID, version(r.Params.IfMatch), value(r.Body.By), measure.Length(value(r.Body.DiameterMm)))
	if err != nil {
		return nil, err
	}
	out, err := encodeEntry(e)
	return contract.EndMounting201JSONResponse(out), err
}

func (s *server) ListGauges(context.Context, contract.ListGaugesRequestObject) (contract.ListGaugesResponseObject, error) {
	out := contract.ListGauges200JSONResponse{Items: []contract.Gauge{}}
	for _, st := range s.gauges.States() {
		out.Items = append(out.Items, encodeGauge(st))
	}
	return out, nil
}

func (s *server) PlaceGauge(_ context.Context, r contract.PlaceGaugeRequestObject) (contract.PlaceGaugeResponseObject, error) {
	err := s.gauges.Place(r.Name, string(r.Body.Where), value(r.Body.Step), max(1, value(r.Body.Of)))
	if errors.Is(err, gauge.ErrNoStandIn) {
		return nil, &shop.Error{Reason: shop.Missing, Detail: err.Error()}
	}
	return contract.PlaceGauge204Response{}, err
}

func (s *server) StreamGauges(ctx context.Context, _ contract.StreamGaugesRequestObject) (contract.StreamGaugesResponseObject, error) {
	return gaugeStream{ctx, s.gauges}, nil
}

// gaugeStream writes server-sent events until the page goes away.
type gaugeStream struct {
	ctx context.Context
	hub *gauge.Hub
}

// heartbeat keeps proxies and pages from taking silence for the end.
const heartbeat = 10 * time.Second

func (g gaugeStream) VisitStreamGaugesResponse(w http.ResponseWriter) error {
	w.Header().Set("Content-Type", "text/event-stream")
	w.WriteHeader(http.StatusOK)
	events, done := g.hub.Watch()
	defer done()
	beat := time.NewTicker(heartbeat)
	defer beat.Stop()
	out := http.NewResponseController(w)
	_ = out.SetWriteDeadline(time.Time{}) // it lasts as long as the page does
	send := func(kind string, v any) error {
		raw, err := json.Marshal(v)
		if err != nil {
			return err
		}
		_, err = fmt.Fprintf(w, "event: %s\ndata: %s\n\n", kind, raw)
		return err
	}
	if _, err := fmt.Fprint(w, ": here\n\n"); err != nil {
		return nil
	}
	for {
		_ = out.Flush()
		var err error
		select {
		case <-g.ctx.Done():
			return nil
		case <-beat.C:
			_, err = fmt.Fprint(w, ": here\n\n")
		case e, ok := <-events:
			if !ok {
				return nil // Corte is stopping
			}
			if e.State != nil {
				err = send("state", encodeGauge(*e.State))
			} else {
				r := e.Reading
				err = send("reading", contract.GaugeReading{Name: r.Name, Sequence: int64(r.Sequence), Mm: r.Value.Mm(), Still: r.Still})
			}
		}
		if err != nil {
			return nil // nobody is listening any more
		}
	}
}

func encodeGauge(s gauge.State) contract.Gauge {
	return contract.Gauge{Name: s.Name, Word: contract.GaugeWord(s.Word), Text: s.Text, StandIn: s.StandIn}
}

func decodeReading(in contract.TruingInput) shop.Reading {
	r := shop.Reading{
		Test: string(in.Test), Saw: in.SawID, Blade: in.BladeID, First: lengths(in.FirstMm), Second: lengths(in.SecondMm),
		Span: measure.Length(value(in.SpanMm)), Gap: measure.Length(value(in.GapMm)), Height: measure.Length(value(in.HeightMm)),
		Length: measure.Length(value(in.LengthMm)), Wanted: measure.Length(value(in.WantedMm)), Found: measure.Length(value(in.MeasuredMm)),
		Slots: value(in.Slots), By: value(in.By), Note: value(in.Note),
	}
	if value(in.Dial) == contract.TruingInputDialRight {
		r.Dial = truing.Right
	}
	return r
}

func lengths(all *[]float64) []measure.Length {
	var out []measure.Length
	for _, v := range value(all) {
		out = append(out, measure.Length(v))
	}
	return out
}

func encodeTruing(test contract.TruingTest, t shop.Truing) contract.TruingResult {
	out := contract.TruingResult{
		Test: test, Verdict: contract.Verdict(t.Verdict.String()), Figure: t.Figure, FigureUnit: contract.TruingResultFigureUnit(t.Unit),
		Aim: positive(t.Aim), Act: positive(t.Act), Says: orNone(t.Says), Do: orNone(t.Do), DoubtfulFirst: t.First, DoubtfulSecond: t.Second,
		MarksApartMm: positive(t.MarksApart.Mm()), Left: encodeClearance(t.Left), Right: encodeClearance(t.Right),
	}
	if h := t.Heel; h != nil {
		out.TowardFenceMm, out.MoveAtBoltMm = ptr(h.TowardFence.Mm()), ptr(h.MoveAtBolt.Mm())
	}
	if f := t.Fence; f != nil {
		out.OpenMm = ptr(f.Open.Mm())
	}
	if a := t.Adjustment; a != nil {
		out.MoveMm, out.Turns = ptr(a.Move.Mm()), &a.Turns
	}
	if r := t.RunOut; r != nil {
		harmonic := func(h truing.Harmonic) contract.Harmonic {
			return contract.Harmonic{AmplitudeMm: h.Amplitude.Mm(), PhaseDeg: h.PhaseDeg}
		}
		out.Runout = &contract.RunOut{MeanMm: r.Mean.Mm(), SpreadMm: r.Spread.Mm(), First: harmonic(r.First)}
		if r.Split {
			out.Runout.Arbor, out.Runout.Blade = ptr(harmonic(r.Arbor)), ptr(harmonic(r.Blade))
		}
	}
	return out
}

func encodeClearance(c *truing.Clearance) *contract.Clearance {
	if c == nil {
		return nil
	}
	out := contract.Clearance{RangeMm: c.Range.Mm(), MeanMm: c.Mean.Mm(), SdMm: c.SD.Mm(), MedianMm: c.Median.Mm(), MadMm: c.MAD.Mm(),
		Proud: c.Proud, Grade: contract.ClearanceGrade(c.Grade.String())}
	if c.Slots != nil {
		out.BesideSlotsMm, out.RestMm = ptr(c.Slots.Beside.Mm()), ptr(c.Slots.Rest.Mm())
	}
	return &out
}

func orNone(s []string) []string {
	if s == nil {
		return []string{}
	}
	return s
}

func encodeRecord(e shop.PastTruing) (contract.TruingRecord, error) {
	var d store.TruingDetail
	if err := json.Unmarshal(e.Detail, &d); err != nil {
		return contract.TruingRecord{}, err
	}
	out := contract.TruingRecord{ID: e.ID, At: e.At, By: text(e.By), Note: text(e.Note), Test: contract.TruingTest(e.Kind), SawID: e.Saw,
		BladeID: e.Blade, Figure: d.Figure, FigureUnit: contract.TruingRecordFigureUnit(d.Unit), Low: e.Low, High: e.High, Verdict: contract.Verdict(d.Verdict)}
	err := json.Unmarshal(d.Input, &out.Input)
	return out, err
}

func encodeMounting(m shop.Mounting) contract.Mounting {
	out := contract.Mounting{ID: m.ID, Version: m.Version, SawID: m.Saw.ID, SawName: m.Saw.Name, SawKind: contract.MountingSawKind(m.Saw.Kind.String()),
		Thread: ptr(contract.MountingThread(m.Saw.Thread.String())), BladeID: m.Blade.ID, BladeName: m.Blade.Name, Step: min(m.Step, len(m.Steps)-1),
		Answers: m.Answers, By: m.By, StartedAt: m.Started, Steps: make([]contract.MountStep, len(m.Steps))}
	for i, st := range m.Steps {
		one := contract.MountStep{ID: st.ID, Title: st.Title, Text: st.Text, Caution: st.Caution, Picture: contract.MountStepPicture(st.Picture),
			Numbers: st.Numbers, Checks: make([]contract.MountCheck, len(st.Checks))}
		for k, c := range st.Checks {
			one.Checks[k] = contract.MountCheck{ID: c.ID, Ask: c.Ask, IfNot: c.IfNot}
		}
		out.Steps[i] = one
	}
	if m.Way != nil {
		out.Way = ptr(encodeGrooveWay(*m.Way))
	}
	return out
}
