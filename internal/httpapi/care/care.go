// Package care answers for the wash, the saw doctor, surveys and what a blade costs.
package care

import (
	"context"
	"encoding/json"

	"corte/core/care"
	"corte/core/history"
	"corte/internal/httpapi/contract"
	"corte/internal/httpapi/present"
	"corte/internal/httpapi/request"
	"corte/internal/ptr"
	shopcare "corte/internal/shop/care"
)

// Handlers meet the part of the contract that is this station's.
type Handlers struct {
	request.Scope
}

func (s Handlers) SendBlade(ctx context.Context, r contract.SendBladeRequestObject) (contract.SendBladeResponseObject, error) {
	d := history.Sent{To: r.Body.To, Expected: request.Noon(r.Body.Expected), Asked: ptr.Value(r.Body.PriceAsked)}
	e, err := s.In(ctx).Care.SendOut(ctx, request.Shop(ctx), r.ID, d, ptr.Value(r.Body.By), ptr.Value(r.Body.Note))
	return present.LogRow(ctx, e, err, func(o contract.LogEntry) contract.SendBladeResponseObject {
		return contract.SendBlade201JSONResponse(o)
	})
}

func (s Handlers) ReturnBlade(ctx context.Context, r contract.ReturnBladeRequestObject) (contract.ReturnBladeResponseObject, error) {
	b := r.Body
	d := history.Sharpened{Price: ptr.Value(b.Price), Report: ptr.Value(b.Report), Replaced: ptr.Value(b.TeethReplaced), Left: b.SharpeningsLeft,
		Kerf: ptr.Value(b.KerfMm), Diameter: ptr.Value(b.DiameterMm)}
	e, err := s.In(ctx).Care.TakeBack(ctx, request.Shop(ctx), r.ID, b.Sharpened, d, ptr.Value(b.By), ptr.Value(b.Note))
	return present.LogRow(ctx, e, err, func(o contract.LogEntry) contract.ReturnBladeResponseObject {
		return contract.ReturnBlade201JSONResponse(o)
	})
}

func (s Handlers) GetCare(ctx context.Context, _ contract.GetCareRequestObject) (contract.GetCareResponseObject, error) {
	v := present.VoiceOf(ctx)
	all, err := s.In(ctx).Care.All(ctx, request.Shop(ctx))
	if err != nil {
		return nil, err
	}
	out := contract.GetCare200JSONResponse{Blades: make([]contract.BladeCare, len(all.Blades)), Washes: []contract.Wash{}, Grooves: v.GrooveRows(all.Grooves), Away: []contract.AwayBlade{}, Baths: v.Baths(all.Baths)}
	for i, b := range all.Blades {
		h := b.Health
		one := contract.BladeCare{Blade: v.Blade(b.Blade), Wash: contract.Urgency(h.Wash.String()), Sharpen: contract.Urgency(h.Sharpen.String()),
			WashAt: encodeDate(h.WashAt), SharpenAt: encodeDate(h.SharpenAt), LeftM: h.LeftM, LeftLowM: h.LeftLow, LeftHighM: h.LeftH,
			SharpeningsLeft: b.Left, LeftFrom: v.Say(b.LeftFrom)}
		one.Path = []contract.PathStep{}
		for _, st := range b.Path {
			one.Path = append(one.Path, contract.PathStep{ID: contract.PathStepID(st.ID), Text: v.Word(st.Text), Done: st.Done})
		}
		out.Blades[i] = one
	}
	for _, w := range all.Washes {
		out.Washes = append(out.Washes, v.Wash(w, s.Service.Now()))
	}
	for _, e := range all.Away {
		var d history.Sent
		if json.Unmarshal(e.Detail, &d) != nil {
			d = history.Sent{} // it is away all the same
		}
		out.Away = append(out.Away, contract.AwayBlade{BladeID: *e.Blade, BladeName: ptr.Value(e.BladeName), To: d.To, At: e.At, Expected: present.Date(d.Expected), PriceAsked: ptr.Positive(d.Asked)})
	}
	return out, nil
}

func (s Handlers) ListStandIns(ctx context.Context, r contract.ListStandInsRequestObject) (contract.ListStandInsResponseObject, error) {
	const most = 6 // names that a sentence bears
	names, err := s.In(ctx).Care.StandIns(ctx, request.Shop(ctx), r.ID, most)
	return contract.ListStandIns200JSONResponse{Items: names}, err
}

func (s Handlers) ListFaults(ctx context.Context, _ contract.ListFaultsRequestObject) (contract.ListFaultsResponseObject, error) {
	v := present.VoiceOf(ctx)
	out := contract.ListFaults200JSONResponse{Items: []contract.FaultOf{}}
	for _, f := range care.Faults() {
		out.Items = append(out.Items, contract.FaultOf{Fault: contract.Fault(f), Says: v.Word(f.Words()), Unfits: f.Unfits()})
	}
	return out, nil
}

func (s Handlers) GetLife(ctx context.Context, r contract.GetLifeRequestObject) (contract.GetLifeResponseObject, error) {
	life, err := s.In(ctx).Care.Life(ctx, request.Shop(ctx), r.ID)
	if err != nil {
		return nil, err
	}
	h := life.Health
	out := contract.GetLife200JSONResponse{
		Points: make([]contract.LifePoint, len(life.Points)), Wash: contract.Urgency(h.Wash.String()), Sharpen: contract.Urgency(h.Sharpen.String()),
		WashAt: encodeDate(h.WashAt), SharpenAt: encodeDate(h.SharpenAt), LeftM: h.LeftM, LeftLowM: h.LeftLow, LeftHighM: h.LeftH, PitchDue: care.WashAt, PitchMost: care.Caked,
	}
	for i, p := range life.Points {
		out.Points[i] = contract.LifePoint{At: p.At, What: contract.LifePointWhat(p.What.String()), Metres: p.Metres, Edge: p.Edge, Pitch: p.Pitch, Burnt: p.Burnt, Rows: p.Rows}
	}
	return out, nil
}

func encodeDate(d care.Date) *contract.Forecast {
	if !d.Known() {
		return nil
	}
	return &contract.Forecast{Early: d.Early, Likely: d.Likely, Late: d.Late}
}

func (s Handlers) ListCleaners(ctx context.Context, _ contract.ListCleanersRequestObject) (contract.ListCleanersResponseObject, error) {
	v := present.VoiceOf(ctx)
	out := contract.ListCleaners200JSONResponse{}
	for _, k := range care.Cleaners() {
		out.Items = append(out.Items, v.Cleaner(k))
	}
	return out, nil
}

func washAsk(b contract.WashAsk) shopcare.WashAsk {
	return shopcare.WashAsk{Blades: b.BladeIds, Cleaner: b.Cleaner, Brush: care.Brush(b.Brush), Bath: b.BathID, ForScrap: ptr.Value(b.ForScrap),
		Accepted: ptr.Value(b.AcceptRisk), By: ptr.Value(b.By)}
}

func (s Handlers) CheckWash(ctx context.Context, r contract.CheckWashRequestObject) (contract.CheckWashResponseObject, error) {
	v := present.VoiceOf(ctx)
	all, err := s.In(ctx).Care.CheckWash(ctx, request.Shop(ctx), washAsk(*r.Body))
	if err != nil {
		return nil, err
	}
	out := contract.CheckWash200JSONResponse{Items: make([]contract.Warning, len(all))}
	for i, w := range all {
		out.Items[i] = contract.Warning{Verdict: w.Verdict, Says: v.Say(w.Says)}
	}
	return out, nil
}

func (s Handlers) StartWash(ctx context.Context, r contract.StartWashRequestObject) (contract.StartWashResponseObject, error) {
	v := present.VoiceOf(ctx)
	w, err := s.In(ctx).Care.StartWash(ctx, request.Shop(ctx), washAsk(*r.Body))
	return contract.StartWash201JSONResponse(v.Wash(w, s.Service.Now())), err
}

func (s Handlers) GetWash(ctx context.Context, r contract.GetWashRequestObject) (contract.GetWashResponseObject, error) {
	v := present.VoiceOf(ctx)
	w, err := s.In(ctx).Care.Wash(ctx, request.Shop(ctx), r.ID)
	return contract.GetWash200JSONResponse(v.Wash(w, s.Service.Now())), err
}

func (s Handlers) StepWash(ctx context.Context, r contract.StepWashRequestObject) (contract.StepWashResponseObject, error) {
	v := present.VoiceOf(ctx)
	w, err := s.In(ctx).Care.StepWash(ctx, request.Shop(ctx), r.ID, r.Body.Step, request.Version(r.Params.IfMatch), request.Sent(r.Params.WaitedSeconds, nil))
	return contract.StepWash200JSONResponse(v.Wash(w, s.Service.Now())), err
}

func (s Handlers) DropWash(ctx context.Context, r contract.DropWashRequestObject) (contract.DropWashResponseObject, error) {
	return contract.DropWash204Response{}, s.In(ctx).Care.DropWash(ctx, request.Shop(ctx), r.ID)
}

func (s Handlers) EndWash(ctx context.Context, r contract.EndWashRequestObject) (contract.EndWashResponseObject, error) {
	v := present.VoiceOf(ctx)
	rows, err := s.In(ctx).Care.EndWash(ctx, request.Shop(ctx), r.ID, request.Version(r.Params.IfMatch), request.Sent(r.Params.WaitedSeconds, r.Params.MadeAfter))
	if err != nil {
		return nil, err
	}
	items, err := v.Entries(rows)
	return contract.EndWash201JSONResponse{Items: items}, err
}

func (s Handlers) ListBaths(ctx context.Context, _ contract.ListBathsRequestObject) (contract.ListBathsResponseObject, error) {
	v := present.VoiceOf(ctx)
	all, err := s.In(ctx).Care.Baths(ctx, request.Shop(ctx))
	return contract.ListBaths200JSONResponse{Items: v.Baths(all)}, err
}

func bathAsk(b contract.BathAsk) shopcare.BathAsk {
	return shopcare.BathAsk{Name: b.Name, Cleaner: b.Cleaner, Diameter: b.DiameterMm, Kerf: b.KerfMm, Blades: b.Blades,
		Tray: care.Tray{Length: b.LengthMm, Width: ptr.Value(b.WidthMm), Depth: b.DepthMm, Round: b.WidthMm == nil}}
}

func (s Handlers) MixBath(ctx context.Context, r contract.MixBathRequestObject) (contract.MixBathResponseObject, error) {
	m, err := s.In(ctx).Care.MixBath(bathAsk(*r.Body))
	return contract.MixBath200JSONResponse{Litres: m.Litres, CleanerL: m.Cleaner, WaterL: m.Water, LevelMm: m.Level}, err
}

func (s Handlers) MakeBath(ctx context.Context, r contract.MakeBathRequestObject) (contract.MakeBathResponseObject, error) {
	v := present.VoiceOf(ctx)
	b, err := s.In(ctx).Care.MakeBath(ctx, request.Shop(ctx), bathAsk(*r.Body))
	return contract.MakeBath201JSONResponse(v.Bath(b)), err
}

func (s Handlers) StrainBath(ctx context.Context, r contract.StrainBathRequestObject) (contract.StrainBathResponseObject, error) {
	v := present.VoiceOf(ctx)
	b, err := s.In(ctx).Care.StrainBath(ctx, request.Shop(ctx), r.ID)
	return contract.StrainBath200JSONResponse(v.Bath(b)), err
}

func (s Handlers) EmptyBath(ctx context.Context, r contract.EmptyBathRequestObject) (contract.EmptyBathResponseObject, error) {
	return contract.EmptyBath204Response{}, s.In(ctx).Care.EmptyBath(ctx, request.Shop(ctx), r.ID)
}

func (s Handlers) GetMoney(ctx context.Context, r contract.GetMoneyRequestObject) (contract.GetMoneyResponseObject, error) {
	p := r.Params
	ask := shopcare.MoneyAsk{Price: ptr.Value(p.Price), Sharpening: ptr.Value(p.Sharpening), Sharpenings: -1, CheapPrice: ptr.Value(p.CheapPrice), CheapLife: 1}
	if p.Sharpenings != nil {
		ask.Sharpenings = *p.Sharpenings
	}
	if p.CheapLife != nil && *p.CheapLife > 0 {
		ask.CheapLife = *p.CheapLife
	}
	m, err := s.In(ctx).Care.Money(ctx, request.Shop(ctx), r.ID, ask)
	if err != nil {
		return nil, err
	}
	plan := func(p care.Plan) contract.OwningPlan {
		return contract.OwningPlan{Price: p.Price, Sharpening: p.Sharpening, Sharpenings: p.Sharpenings, LifeM: p.LifeM}
	}
	out := contract.GetMoney200JSONResponse{Spent: m.Spent, SoFarPerM: m.SoFar, ExpectedPerM: m.Expected, Dear: plan(m.Dear), Line: make([][]float64, len(m.Line)), PaysFromM: m.Pays}
	if m.Cheap.Price > 0 {
		out.Cheap = ptr.To(plan(m.Cheap))
	}
	for i, p := range m.Line {
		out.Line[i] = []float64{p.Metres, p.A, p.B}
	}
	return out, nil
}

func (s Handlers) GetCalendar(ctx context.Context, _ contract.GetCalendarRequestObject) (contract.GetCalendarResponseObject, error) {
	at, err := s.In(ctx).Care.Calendar(ctx, request.Shop(ctx))
	return contract.GetCalendar200JSONResponse{MadeAt: at}, err
}

func (s Handlers) NewCalendar(ctx context.Context, _ contract.NewCalendarRequestObject) (contract.NewCalendarResponseObject, error) {
	secret, err := s.In(ctx).Care.NewCalendar(ctx, request.Shop(ctx))
	return contract.NewCalendar201JSONResponse{Path: request.Base + "/calendars/" + secret}, err
}

func (s Handlers) WithdrawCalendar(ctx context.Context, _ contract.WithdrawCalendarRequestObject) (contract.WithdrawCalendarResponseObject, error) {
	return contract.WithdrawCalendar204Response{}, s.In(ctx).Care.WithdrawCalendar(ctx, request.Shop(ctx))
}

func (s Handlers) JudgeBlade(ctx context.Context, r contract.JudgeBladeRequestObject) (contract.JudgeBladeResponseObject, error) {
	e, err := s.In(ctx).Care.Judge(ctx, request.Shop(ctx), r.ID, string(r.Body.Says), ptr.Value(r.Body.By), ptr.Value(r.Body.Note))
	return present.LogRow(ctx, e, err, func(o contract.LogEntry) contract.JudgeBladeResponseObject {
		return contract.JudgeBlade201JSONResponse(o)
	})
}

func (s Handlers) InspectBlade(ctx context.Context, r contract.InspectBladeRequestObject) (contract.InspectBladeResponseObject, error) {
	e, err := s.In(ctx).Care.Inspect(ctx, request.Shop(ctx), r.ID, care.Fault(ptr.Value(r.Body.Fault)), decodeSurvey(r.Body.Survey), ptr.Value(r.Body.By), ptr.Value(r.Body.Note))
	return present.LogRow(ctx, e, err, func(o contract.LogEntry) contract.InspectBladeResponseObject {
		return contract.InspectBlade201JSONResponse(o)
	})
}

func (s Handlers) MendBlade(ctx context.Context, r contract.MendBladeRequestObject) (contract.MendBladeResponseObject, error) {
	b := r.Body
	e, err := s.In(ctx).Care.Mend(ctx, request.Shop(ctx), r.ID, shopcare.Mending{
		Mended: history.Mended{MendedBy: b.MendedBy, InspectedBy: b.InspectedBy, What: ptr.Value(b.What)}, Cannot: ptr.Value(b.Cannot), By: ptr.Value(b.By)})
	return present.LogRow(ctx, e, err, func(o contract.LogEntry) contract.MendBladeResponseObject {
		return contract.MendBlade201JSONResponse(o)
	})
}

func (s Handlers) GetSurvey(ctx context.Context, r contract.GetSurveyRequestObject) (contract.GetSurveyResponseObject, error) {
	found, err := s.In(ctx).Care.Survey(ctx, request.Shop(ctx), r.ID)
	if err != nil {
		return nil, err
	}
	return contract.GetSurvey200JSONResponse(present.VoiceOf(ctx).Survey(found)), nil
}

func decodeSurvey(in *contract.Survey) *history.Survey {
	if in == nil {
		return nil
	}
	return &history.Survey{After: string(in.After), Cleaned: ptr.Value(in.Cleaned), Missing: ptr.Value(in.Missing), Chipped: ptr.Value(in.Chipped), Loose: ptr.Value(in.Loose),
		Seat: string(ptr.Value(in.Seat)), Braze: string(ptr.Value(in.Braze)), Rest: string(ptr.Value(in.Rest)), Pitch: string(ptr.Value(in.Pitch)),
		Blue: in.Blue, Crack: string(ptr.Value(in.Crack)), Bent: in.Bent, Beside: string(ptr.Value(in.Beside))}
}

func (s Handlers) NoteBlade(ctx context.Context, r contract.NoteBladeRequestObject) (contract.NoteBladeResponseObject, error) {
	e, err := s.In(ctx).Care.Note(ctx, request.Shop(ctx), r.ID, ptr.Value(r.Body.By), r.Body.Note)
	return present.LogRow(ctx, e, err, func(o contract.LogEntry) contract.NoteBladeResponseObject {
		return contract.NoteBlade201JSONResponse(o)
	})
}
