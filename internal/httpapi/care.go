package httpapi

import (
	"context"
	"encoding/json"
	"strings"
	"time"

	"corte/core/care"
	"corte/core/choose"
	"corte/core/cut"
	"corte/core/history"
	"corte/internal/account"
	"corte/internal/httpapi/contract"
	"corte/internal/ptr"
	shopcare "corte/internal/shop/care"
)

func (s *server) SendBlade(ctx context.Context, r contract.SendBladeRequestObject) (contract.SendBladeResponseObject, error) {
	d := history.Sent{To: r.Body.To, Expected: noon(r.Body.Expected), Asked: ptr.Value(r.Body.PriceAsked)}
	e, err := s.in(ctx).Care.SendOut(ctx, s.shop(ctx), r.ID, d, ptr.Value(r.Body.By), ptr.Value(r.Body.Note))
	return logRow(ctx, e, err, func(o contract.LogEntry) contract.SendBladeResponseObject {
		return contract.SendBlade201JSONResponse(o)
	})
}

func (s *server) ReturnBlade(ctx context.Context, r contract.ReturnBladeRequestObject) (contract.ReturnBladeResponseObject, error) {
	b := r.Body
	d := history.Sharpened{Price: ptr.Value(b.Price), Report: ptr.Value(b.Report), Replaced: ptr.Value(b.TeethReplaced), Left: b.SharpeningsLeft,
		Kerf: ptr.Value(b.KerfMm), Diameter: ptr.Value(b.DiameterMm)}
	e, err := s.in(ctx).Care.TakeBack(ctx, s.shop(ctx), r.ID, b.Sharpened, d, ptr.Value(b.By), ptr.Value(b.Note))
	return logRow(ctx, e, err, func(o contract.LogEntry) contract.ReturnBladeResponseObject {
		return contract.ReturnBlade201JSONResponse(o)
	})
}

func (s *server) GetCare(ctx context.Context, _ contract.GetCareRequestObject) (contract.GetCareResponseObject, error) {
	v := voiceOf(ctx)
	all, err := s.in(ctx).Care.All(ctx, s.shop(ctx))
	if err != nil {
		return nil, err
	}
	out := contract.GetCare200JSONResponse{Blades: make([]contract.BladeCare, len(all.Blades)), Washes: []contract.Wash{}, Grooves: v.encodeGrooveRows(all.Grooves), Away: []contract.AwayBlade{}, Baths: v.encodeBaths(all.Baths)}
	for i, b := range all.Blades {
		h := b.Health
		one := contract.BladeCare{Blade: v.encodeBlade(b.Blade), Wash: contract.Urgency(h.Wash.String()), Sharpen: contract.Urgency(h.Sharpen.String()),
			WashAt: encodeDate(h.WashAt), SharpenAt: encodeDate(h.SharpenAt), LeftM: h.LeftM, LeftLowM: h.LeftLow, LeftHighM: h.LeftH,
			SharpeningsLeft: b.Left, LeftFrom: v.Say(b.LeftFrom)}
		one.Path = []contract.PathStep{}
		for _, st := range b.Path {
			one.Path = append(one.Path, contract.PathStep{ID: contract.PathStepID(st.ID), Text: st.Text, Done: st.Done})
		}
		out.Blades[i] = one
	}
	for _, w := range all.Washes {
		out.Washes = append(out.Washes, v.encodeWash(w, s.svc.Now()))
	}
	for _, e := range all.Away {
		var d history.Sent
		if json.Unmarshal(e.Detail, &d) != nil {
			d = history.Sent{} // it is away all the same
		}
		out.Away = append(out.Away, contract.AwayBlade{BladeID: *e.Blade, BladeName: ptr.Value(e.BladeName), To: d.To, At: e.At, Expected: dateOf(d.Expected), PriceAsked: ptr.Positive(d.Asked)})
	}
	return out, nil
}

func (s *server) ListStandIns(ctx context.Context, r contract.ListStandInsRequestObject) (contract.ListStandInsResponseObject, error) {
	const most = 6 // names that a sentence bears
	names, err := s.in(ctx).Care.StandIns(ctx, s.shop(ctx), r.ID, most)
	return contract.ListStandIns200JSONResponse{Items: names}, err
}

func (s *server) ListFaults(ctx context.Context, _ contract.ListFaultsRequestObject) (contract.ListFaultsResponseObject, error) {
	v := voiceOf(ctx)
	out := contract.ListFaults200JSONResponse{Items: []contract.FaultOf{}}
	for _, f := range care.Faults() {
		out.Items = append(out.Items, contract.FaultOf{Fault: contract.Fault(f), Says: v.Word(f.Words()), Unfits: f.Unfits()})
	}
	return out, nil
}

func (s *server) GetLife(ctx context.Context, r contract.GetLifeRequestObject) (contract.GetLifeResponseObject, error) {
	life, err := s.in(ctx).Care.Life(ctx, s.shop(ctx), r.ID)
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

func (s *server) ListCleaners(ctx context.Context, _ contract.ListCleanersRequestObject) (contract.ListCleanersResponseObject, error) {
	v := voiceOf(ctx)
	out := contract.ListCleaners200JSONResponse{}
	for _, k := range care.Cleaners() {
		out.Items = append(out.Items, v.encodeCleaner(k))
	}
	return out, nil
}

func (v voice) encodeCleaner(k care.Cleaner) contract.Cleaner {
	return contract.Cleaner{ID: k.ID, Name: v.Say(k.Name), SoakS: int(k.Soak.Seconds()), Parts: k.Parts, Harsh: v.Say(k.Harsh), Attacks: v.Say(k.Attacks), Uses: k.Uses, KeepsDays: k.Keeps}
}

func washAsk(b contract.WashAsk) shopcare.WashAsk {
	return shopcare.WashAsk{Blades: b.BladeIds, Cleaner: b.Cleaner, Brush: care.Brush(b.Brush), Bath: b.BathID, ForScrap: ptr.Value(b.ForScrap),
		Accepted: ptr.Value(b.AcceptRisk), By: ptr.Value(b.By)}
}

func (s *server) CheckWash(ctx context.Context, r contract.CheckWashRequestObject) (contract.CheckWashResponseObject, error) {
	v := voiceOf(ctx)
	all, err := s.in(ctx).Care.CheckWash(ctx, s.shop(ctx), washAsk(*r.Body))
	if err != nil {
		return nil, err
	}
	out := contract.CheckWash200JSONResponse{Items: make([]contract.Warning, len(all))}
	for i, w := range all {
		out.Items[i] = contract.Warning{Verdict: w.Verdict, Says: v.Say(w.Says)}
	}
	return out, nil
}

func (s *server) StartWash(ctx context.Context, r contract.StartWashRequestObject) (contract.StartWashResponseObject, error) {
	v := voiceOf(ctx)
	w, err := s.in(ctx).Care.StartWash(ctx, s.shop(ctx), washAsk(*r.Body))
	return contract.StartWash201JSONResponse(v.encodeWash(w, s.svc.Now())), err
}

func (s *server) GetWash(ctx context.Context, r contract.GetWashRequestObject) (contract.GetWashResponseObject, error) {
	v := voiceOf(ctx)
	w, err := s.in(ctx).Care.Wash(ctx, s.shop(ctx), r.ID)
	return contract.GetWash200JSONResponse(v.encodeWash(w, s.svc.Now())), err
}

func (s *server) StepWash(ctx context.Context, r contract.StepWashRequestObject) (contract.StepWashResponseObject, error) {
	v := voiceOf(ctx)
	w, err := s.in(ctx).Care.StepWash(ctx, s.shop(ctx), r.ID, r.Body.Step, version(r.Params.IfMatch), sentOf(r.Params.WaitedSeconds, nil))
	return contract.StepWash200JSONResponse(v.encodeWash(w, s.svc.Now())), err
}

func (s *server) DropWash(ctx context.Context, r contract.DropWashRequestObject) (contract.DropWashResponseObject, error) {
	return contract.DropWash204Response{}, s.in(ctx).Care.DropWash(ctx, s.shop(ctx), r.ID)
}

func (s *server) EndWash(ctx context.Context, r contract.EndWashRequestObject) (contract.EndWashResponseObject, error) {
	v := voiceOf(ctx)
	rows, err := s.in(ctx).Care.EndWash(ctx, s.shop(ctx), r.ID, version(r.Params.IfMatch), sentOf(r.Params.WaitedSeconds, r.Params.MadeAfter))
	if err != nil {
		return nil, err
	}
	items, err := v.encodeEntries(rows)
	return contract.EndWash201JSONResponse{Items: items}, err
}

func (v voice) encodeWash(w shopcare.Wash, now time.Time) contract.Wash {
	out := contract.Wash{ID: w.ID, Version: w.Version, Cleaner: v.encodeCleaner(w.Cleaner), Brush: w.Brush, BathID: w.Bath, Step: w.Step, StepAt: w.StepAt,
		StartedAt: w.Started, Now: now, By: w.By}
	for _, b := range w.Of {
		out.Blades = append(out.Blades, contract.NamedBlade{ID: b.ID, Name: b.Name})
	}
	for _, st := range w.Steps {
		out.Steps = append(out.Steps, contract.WashStep{ID: st.ID, Title: v.Say(st.Title), Text: v.Say(st.Text), LeastS: int(st.Least.Seconds()), MostS: int(st.Most.Seconds())})
	}
	return out
}

func (s *server) ListBaths(ctx context.Context, _ contract.ListBathsRequestObject) (contract.ListBathsResponseObject, error) {
	v := voiceOf(ctx)
	all, err := s.in(ctx).Care.Baths(ctx, s.shop(ctx))
	return contract.ListBaths200JSONResponse{Items: v.encodeBaths(all)}, err
}

func bathAsk(b contract.BathAsk) shopcare.BathAsk {
	return shopcare.BathAsk{Name: b.Name, Cleaner: b.Cleaner, Diameter: b.DiameterMm, Kerf: b.KerfMm, Blades: b.Blades,
		Tray: care.Tray{Length: b.LengthMm, Width: ptr.Value(b.WidthMm), Depth: b.DepthMm, Round: b.WidthMm == nil}}
}

func (s *server) MixBath(ctx context.Context, r contract.MixBathRequestObject) (contract.MixBathResponseObject, error) {
	m, err := s.in(ctx).Care.MixBath(bathAsk(*r.Body))
	return contract.MixBath200JSONResponse{Litres: m.Litres, CleanerL: m.Cleaner, WaterL: m.Water, LevelMm: m.Level}, err
}

func (s *server) MakeBath(ctx context.Context, r contract.MakeBathRequestObject) (contract.MakeBathResponseObject, error) {
	v := voiceOf(ctx)
	b, err := s.in(ctx).Care.MakeBath(ctx, s.shop(ctx), bathAsk(*r.Body))
	return contract.MakeBath201JSONResponse(v.encodeBath(b)), err
}

func (s *server) StrainBath(ctx context.Context, r contract.StrainBathRequestObject) (contract.StrainBathResponseObject, error) {
	v := voiceOf(ctx)
	b, err := s.in(ctx).Care.StrainBath(ctx, s.shop(ctx), r.ID)
	return contract.StrainBath200JSONResponse(v.encodeBath(b)), err
}

func (s *server) EmptyBath(ctx context.Context, r contract.EmptyBathRequestObject) (contract.EmptyBathResponseObject, error) {
	return contract.EmptyBath204Response{}, s.in(ctx).Care.EmptyBath(ctx, s.shop(ctx), r.ID)
}

func (v voice) encodeBath(b shopcare.Bath) contract.Bath {
	return contract.Bath{ID: b.ID, Name: b.Name, Cleaner: v.encodeCleaner(b.Cleaner), Litres: b.Litres, MadeAt: b.Made, Until: b.Until, Uses: b.Uses,
		Word: contract.BathWord(b.Word), Why: v.Say(b.Why)}
}

func (v voice) encodeBaths(all []shopcare.Bath) []contract.Bath {
	out := make([]contract.Bath, len(all))
	for i, b := range all {
		out[i] = v.encodeBath(b)
	}
	return out
}

func (s *server) GetMoney(ctx context.Context, r contract.GetMoneyRequestObject) (contract.GetMoneyResponseObject, error) {
	p := r.Params
	ask := shopcare.MoneyAsk{Price: ptr.Value(p.Price), Sharpening: ptr.Value(p.Sharpening), Sharpenings: -1, CheapPrice: ptr.Value(p.CheapPrice), CheapLife: 1}
	if p.Sharpenings != nil {
		ask.Sharpenings = *p.Sharpenings
	}
	if p.CheapLife != nil && *p.CheapLife > 0 {
		ask.CheapLife = *p.CheapLife
	}
	m, err := s.in(ctx).Care.Money(ctx, s.shop(ctx), r.ID, ask)
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

func (s *server) GetCalendar(ctx context.Context, _ contract.GetCalendarRequestObject) (contract.GetCalendarResponseObject, error) {
	at, err := s.in(ctx).Care.Calendar(ctx, s.shop(ctx))
	return contract.GetCalendar200JSONResponse{MadeAt: at}, err
}

func (s *server) NewCalendar(ctx context.Context, _ contract.NewCalendarRequestObject) (contract.NewCalendarResponseObject, error) {
	secret, err := s.in(ctx).Care.NewCalendar(ctx, s.shop(ctx))
	return contract.NewCalendar201JSONResponse{Path: base + "/calendars/" + secret}, err
}

func (s *server) WithdrawCalendar(ctx context.Context, _ contract.WithdrawCalendarRequestObject) (contract.WithdrawCalendarResponseObject, error) {
	return contract.WithdrawCalendar204Response{}, s.in(ctx).Care.WithdrawCalendar(ctx, s.shop(ctx))
}

func (s *server) ReadCalendar(ctx context.Context, r contract.ReadCalendarRequestObject) (contract.ReadCalendarResponseObject, error) {
	if s.door != nil {
		if err := s.door.desk.From(account.Apart(ctx), account.Links, visitOf(ctx).address); err != nil {
			return nil, err
		}
	}
	text, err := s.in(ctx).Care.Feed(ctx, r.Secret)
	return contract.ReadCalendar200TextCalendarResponse{Body: strings.NewReader(text), ContentLength: int64(len(text))}, err
}

func (s *server) JudgeBlade(ctx context.Context, r contract.JudgeBladeRequestObject) (contract.JudgeBladeResponseObject, error) {
	e, err := s.in(ctx).Care.Judge(ctx, s.shop(ctx), r.ID, string(r.Body.Says), ptr.Value(r.Body.By), ptr.Value(r.Body.Note))
	return logRow(ctx, e, err, func(o contract.LogEntry) contract.JudgeBladeResponseObject {
		return contract.JudgeBlade201JSONResponse(o)
	})
}

func (s *server) InspectBlade(ctx context.Context, r contract.InspectBladeRequestObject) (contract.InspectBladeResponseObject, error) {
	e, err := s.in(ctx).Care.Inspect(ctx, s.shop(ctx), r.ID, care.Fault(ptr.Value(r.Body.Fault)), decodeSurvey(r.Body.Survey), ptr.Value(r.Body.By), ptr.Value(r.Body.Note))
	return logRow(ctx, e, err, func(o contract.LogEntry) contract.InspectBladeResponseObject {
		return contract.InspectBlade201JSONResponse(o)
	})
}

func (s *server) MendBlade(ctx context.Context, r contract.MendBladeRequestObject) (contract.MendBladeResponseObject, error) {
	b := r.Body
	e, err := s.in(ctx).Care.Mend(ctx, s.shop(ctx), r.ID, shopcare.Mending{
		Mended: history.Mended{MendedBy: b.MendedBy, InspectedBy: b.InspectedBy, What: ptr.Value(b.What)}, Cannot: ptr.Value(b.Cannot), By: ptr.Value(b.By)})
	return logRow(ctx, e, err, func(o contract.LogEntry) contract.MendBladeResponseObject {
		return contract.MendBlade201JSONResponse(o)
	})
}

func (s *server) GetSurvey(ctx context.Context, r contract.GetSurveyRequestObject) (contract.GetSurveyResponseObject, error) {
	found, err := s.in(ctx).Care.Survey(ctx, s.shop(ctx), r.ID)
	if err != nil {
		return nil, err
	}
	return contract.GetSurvey200JSONResponse(voiceOf(ctx).survey(found)), nil
}

func (v voice) survey(found shopcare.SurveyReport) contract.SurveyReport {
	return contract.SurveyReport{
		BladeID: found.Blade.ID, BladeName: found.Blade.Name, At: found.Entry.At, By: found.Entry.By, Note: ptr.NonZero(found.Entry.Note), Survey: encodeSurvey(found.Survey),
		Found: v.Each(found.Found), Stop: found.Fault.Unfits(), ToDoctor: v.Each(found.ToDoctor), Worth: contract.SurveyReportWorth(found.Worth), WorthWhy: v.Say(found.WorthWhy), Teeth: found.Blade.Teeth,
	}
}

func decodeSurvey(in *contract.Survey) *history.Survey {
	if in == nil {
		return nil
	}
	return &history.Survey{After: string(in.After), Cleaned: ptr.Value(in.Cleaned), Missing: ptr.Value(in.Missing), Chipped: ptr.Value(in.Chipped), Loose: ptr.Value(in.Loose),
		Seat: string(ptr.Value(in.Seat)), Braze: string(ptr.Value(in.Braze)), Rest: string(ptr.Value(in.Rest)), Pitch: string(ptr.Value(in.Pitch)),
		Blue: in.Blue, Crack: string(ptr.Value(in.Crack)), Bent: in.Bent, Beside: string(ptr.Value(in.Beside))}
}

func encodeSurvey(s history.Survey) contract.Survey {
	return contract.Survey{After: contract.SurveyAfter(s.After), Cleaned: &s.Cleaned, Missing: &s.Missing, Chipped: &s.Chipped, Loose: &s.Loose,
		Seat: (*contract.SurveySeat)(ptr.NonZero(s.Seat)), Braze: (*contract.SurveyBraze)(ptr.NonZero(s.Braze)), Rest: (*contract.SurveyRest)(ptr.NonZero(s.Rest)),
		Pitch: (*contract.SurveyPitch)(ptr.NonZero(s.Pitch)), Blue: s.Blue, Crack: (*contract.SurveyCrack)(ptr.NonZero(s.Crack)), Bent: s.Bent, Beside: (*contract.SurveyBeside)(ptr.NonZero(s.Beside))}
}

func (s *server) NoteBlade(ctx context.Context, r contract.NoteBladeRequestObject) (contract.NoteBladeResponseObject, error) {
	e, err := s.in(ctx).Care.Note(ctx, s.shop(ctx), r.ID, ptr.Value(r.Body.By), r.Body.Note)
	return logRow(ctx, e, err, func(o contract.LogEntry) contract.NoteBladeResponseObject {
		return contract.NoteBlade201JSONResponse(o)
	})
}

func careVerdict(c care.Condition, s cut.State) choose.Verdict {
	if choose.Bar(c) != nil {
		return choose.Halt
	}
	return choose.CareVerdict(s)
}
