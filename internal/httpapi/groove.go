package httpapi

import (
	"cmp"
	"context"

	"corte/core/blade"
	"corte/core/groove"
	"corte/core/joint"
	"corte/core/measure"
	"corte/core/outcome"
	"corte/core/say"
	"corte/internal/httpapi/contract"
	"corte/internal/ptr"
	"corte/internal/record"
	"corte/internal/refusal"
	shopgroove "corte/internal/shop/groove"
	"corte/internal/store"
	"corte/internal/wire"
)

func (s *server) GetDadoSet(ctx context.Context, r contract.GetDadoSetRequestObject) (contract.GetDadoSetResponseObject, error) {
	v := voiceOf(ctx)
	set, err := s.in(ctx).Groove.DadoSet(ctx, s.shop(ctx), r.ID)
	if err != nil {
		return nil, err
	}
	return contract.GetDadoSet200JSONResponse(v.encodeDadoSet(set)), nil
}

func (s *server) SetDadoSet(ctx context.Context, r contract.SetDadoSetRequestObject) (contract.SetDadoSetResponseObject, error) {
	v := voiceOf(ctx)
	made, err := wire.ReadSet(*r.Body)
	if err != nil {
		return nil, err
	}
	out, err := s.in(ctx).Groove.SetDadoSet(ctx, s.shop(ctx), store.DadoSet{Blade: r.ID, Set: made, Version: version(r.Params.IfMatch)})
	if err != nil {
		return nil, err
	}
	return contract.SetDadoSet200JSONResponse(v.encodeDadoSet(out)), nil
}

func (s *server) RenewParts(ctx context.Context, r contract.RenewPartsRequestObject) (contract.RenewPartsResponseObject, error) {
	v := voiceOf(ctx)
	set, err := s.in(ctx).Groove.RenewParts(ctx, s.shop(ctx), r.ID, string(r.Body.Why), ptr.Value(r.Body.Outer), ptr.Value(r.Body.Parts), ptr.Value(r.Body.By), ptr.Value(r.Body.Note))
	if err != nil {
		return nil, err
	}
	return contract.RenewParts201JSONResponse(v.encodeDadoSet(set)), nil
}

func (v voice) encodeDadoSet(d shopgroove.DadoSet) contract.DadoSet {
	set := wire.SetInput(d.Set)
	out := contract.DadoSet{BladeID: d.Blade, Version: d.Version, Kind: contract.DadoSetKind(set.Kind), LeftMm: set.LeftMm, RightMm: set.RightMm, Wings: set.Wings,
		Parts: set.Parts, EarsMm: set.EarsMm, Ranges: set.Ranges, Build: set.Build, Tests: d.Held.Told, Known: []contract.KnownPart{}, Saws: []contract.SetOnSaw{}}
	for _, w := range d.Saws {
		out.Saws = append(out.Saws, contract.SetOnSaw{SawName: w.Saw, Verdict: w.Verdict, Says: v.Say(w.Says)})
	}
	for _, k := range d.Known {
		out.Known = append(out.Known, contract.KnownPart{What: v.Say(k.What), StampedMm: k.Stamped, HeldMm: k.Held, SdMm: k.SD, Tests: k.Tests})
	}
	return out
}

func decodeGrooveAsk(a contract.GrooveAsk) (shopgroove.Ask, error) {
	out := shopgroove.Ask{Count: a.Count, Edge: ptr.Value(a.EdgeMm)}
	var err error
	out.Cut = a.Cut
	if out.Fit, err = groove.ParseFit(string(a.Fit)); err != nil {
		return out, err
	}
	for _, p := range a.PieceMm {
		out.Piece = append(out.Piece, measure.Length(p))
	}
	return out, nil
}

func (s *server) PlanGroove(ctx context.Context, r contract.PlanGrooveRequestObject) (contract.PlanGrooveResponseObject, error) {
	v := voiceOf(ctx)
	ask, err := decodeGrooveAsk(r.Body.Ask)
	if err != nil {
		return nil, err
	}
	p, err := s.in(ctx).Groove.Plan(ctx, s.shop(ctx), ask)
	if err != nil {
		return nil, err
	}
	out := contract.PlanGroove200JSONResponse{TargetMm: p.Target, ThickestMm: p.Piece.Thickest, AllowanceMm: p.Allowance, Mind: v.Say(p.Mind),
		Cautions: v.Each(p.Cautions), Findings: v.Findings(p.Found), Ways: make([]contract.GrooveWay, len(p.Ways)), Earlier: v.encodeGrooveRows(p.Earlier)}
	for i, w := range p.Ways {
		out.Ways[i] = v.encodeGrooveWay(w)
	}
	return out, nil
}

func (v voice) encodeGrooveWay(w shopgroove.Way) contract.GrooveWay {
	out := contract.GrooveWay{BladeID: w.Blade.ID, BladeName: w.Blade.Name, Kind: "passes", Mounted: w.Mounted, Verdict: w.Verdict,
		Says: v.Say(w.Says), WidthMm: ptr.Positive(w.Width), SdMm: ptr.Positive(w.SD), Fits: w.Fits, BottomMm: make([][]float64, len(w.Bottom)), RidgeMm: w.Ridge,
		FlatFor: v.Say(w.FlatFor), Slots: make([]contract.ArborSlot, len(w.Slots)), Passes: encodePasses(w.Passes), KerfMm: ptr.Positive(w.Blade.Kerf),
		SetupMinutes: w.SetUp, EachMinutes: w.Each, Minutes: w.Minutes, Pays: v.Say(w.Pays), Needs: v.Each(w.Needs), Teeth: &w.Blade.Teeth, DiameterMm: ptr.To(w.Blade.Diameter)}
	for i, p := range w.Bottom {
		out.BottomMm[i] = []float64{p[0].Mm(), p[1].Mm()}
	}
	for i, x := range w.Slots {
		out.Slots[i] = contract.ArborSlot{What: contract.ArborSlotWhat(x.What), ThicknessMm: x.Thickness, TurnedDeg: x.Turned}
	}
	if w.Blade.Make == blade.Dado {
		out.Kind = "unsaid"
	}
	if set := w.Set; set != nil && set.Version > 0 {
		out.Kind, out.Clocked, out.Wings = contract.GrooveWayKind(set.Set.Kind.String()), &w.Clocked, &set.Set.Wings
		if len(set.Set.Ranges) > w.Range && set.Set.Kind == groove.Dialled {
			out.Cutters, out.Turns = &set.Set.Ranges[w.Range].Cutters, &w.Turns
		}
	}
	if a := w.Arbor; a != nil {
		out.Arbor = &contract.ArborFit{LengthMm: ptr.Positive(a.Length), SetMm: a.Set, WasherMm: a.Washer, NutMm: a.Nut, SpareMm: a.Spare,
			WasherOff: a.WasherOff, Verdict: a.Verdict, Says: v.Say(a.Says)}
	}
	if in := w.Insert; in != nil {
		out.Insert = &contract.InsertFit{WidthMm: in.Width, LengthMm: in.Length, FenceMm: in.Fence}
	}
	return out
}

func encodePasses(all []groove.Pass) []contract.GroovePass {
	out := make([]contract.GroovePass, len(all))
	for i, p := range all {
		out[i] = contract.GroovePass{FenceMm: p.Fence, CentreMm: p.Centre, HeightMm: p.Height}
	}
	return out
}

func (v voice) encodeGrooveRows(rows []shopgroove.Row) []contract.GrooveRow {
	out := make([]contract.GrooveRow, len(rows))
	for i, g := range rows {
		out[i] = contract.GrooveRow{ID: g.ID, At: g.Started, MaterialName: g.MaterialName, PieceMm: g.Piece, TargetMm: g.Target, DepthMm: g.Depth,
			BladeName: g.BladeName, SawName: g.SawName, Says: v.Say(g.Says), Made: g.Made, Tests: g.Tests, Ended: g.Ended != nil}
	}
	return out
}

func (s *server) ListGrooves(ctx context.Context, r contract.ListGroovesRequestObject) (contract.ListGroovesResponseObject, error) {
	v := voiceOf(ctx)
	rows, err := s.in(ctx).Groove.Recent(ctx, s.shop(ctx), limitOf(r.Params.Limit))
	if err != nil {
		return nil, err
	}
	return contract.ListGrooves200JSONResponse{Items: v.encodeGrooveRows(rows)}, nil
}

func (s *server) StartGroove(ctx context.Context, r contract.StartGrooveRequestObject) (contract.StartGrooveResponseObject, error) {
	v := voiceOf(ctx)
	by := ptr.Value(r.Body.By)
	if r.Body.Like != nil {
		g, err := s.in(ctx).Groove.CallUp(ctx, s.shop(ctx), *r.Body.Like, by)
		if err != nil {
			return nil, err
		}
		return contract.StartGroove201JSONResponse(v.encodeGroove(g)), nil
	}
	if r.Body.Ask == nil || r.Body.BladeID == nil {
		return nil, &refusal.Error{Field: "ask", What: say.Of("say the groove and the blade that is to cut it, or an earlier groove to call up")}
	}
	ask, err := decodeGrooveAsk(*r.Body.Ask)
	if err != nil {
		return nil, err
	}
	g, err := s.in(ctx).Groove.Start(ctx, s.shop(ctx), ask, *r.Body.BladeID, by)
	if err != nil {
		return nil, err
	}
	return contract.StartGroove201JSONResponse(v.encodeGroove(g)), nil
}

func (v voice) encodeGroove(g shopgroove.Groove) contract.Groove {
	ask := contract.GrooveAsk{Cut: record.CutOf(g.Saw, g.Job), Fit: contract.Fit(g.Ask.Fit.String()), Count: g.Ask.Count, EdgeMm: ptr.To(g.Ask.Edge)}
	ask.PieceMm = append(ask.PieceMm, g.Ask.Piece...)
	out := contract.Groove{ID: g.ID, Version: g.Version, Ask: ask, SawID: g.Saw, SawName: g.SawName, TargetMm: g.Target, Way: v.encodeGrooveWay(g.Way),
		HeightMm: g.Fitting.Stand.Height, Tests: make([]contract.GrooveTested, len(g.Fitting.Tests)), Says: v.Each(g.Says), Good: g.Good, By: g.By, StartedAt: g.Started,
		EndedAt: g.Ended, Made: g.Made, Cautions: v.Each(g.Cautions)}
	for i, t := range g.Fitting.Tests {
		out.Tests[i] = contract.GrooveTested{At: t.At, Says: v.Say(t.With.Says()), WidthMm: t.Width, OffMm: t.Off, DepthMm: ptr.Positive(t.Depth)}
	}
	if g.Way.Set != nil {
		out.Set = ptr.To(v.encodeDadoSet(*g.Way.Set))
	}
	return out
}

func (s *server) GetGroove(ctx context.Context, r contract.GetGrooveRequestObject) (contract.GetGrooveResponseObject, error) {
	v := voiceOf(ctx)
	g, err := s.in(ctx).Groove.Get(ctx, s.shop(ctx), r.ID)
	if err != nil {
		return nil, err
	}
	return contract.GetGroove200JSONResponse(v.encodeGroove(g)), nil
}

func (s *server) DropGroove(ctx context.Context, r contract.DropGrooveRequestObject) (contract.DropGrooveResponseObject, error) {
	return contract.DropGroove204Response{}, s.in(ctx).Groove.Drop(ctx, s.shop(ctx), r.ID)
}

func (s *server) TestGroove(ctx context.Context, r contract.TestGrooveRequestObject) (contract.TestGrooveResponseObject, error) {
	v := voiceOf(ctx)
	g, err := s.in(ctx).Groove.Test(ctx, s.shop(ctx), r.ID, version(r.Params.IfMatch), r.Body.WidthMm, ptr.Value(r.Body.DepthMm))
	if err != nil {
		return nil, err
	}
	return contract.TestGroove200JSONResponse(v.encodeGroove(g)), nil
}

func (s *server) EndGroove(ctx context.Context, r contract.EndGrooveRequestObject) (contract.EndGrooveResponseObject, error) {
	v := voiceOf(ctx)
	g, err := s.in(ctx).Groove.End(ctx, s.shop(ctx), r.ID, version(r.Params.IfMatch), r.Body.Made,
		outcome.Wall(cmp.Or(ptr.Value(r.Body.Wall), contract.Wall(outcome.Clean))), outcome.Face(cmp.Or(ptr.Value(r.Body.Splinters), contract.Splinters(outcome.None))), ptr.Value(r.Body.Note))
	if err != nil {
		return nil, err
	}
	return contract.EndGroove200JSONResponse(v.encodeGroove(g)), nil
}

func (s *server) PlanJoint(ctx context.Context, r contract.PlanJointRequestObject) (contract.PlanJointResponseObject, error) {
	v := voiceOf(ctx)
	b := r.Body
	p, err := s.in(ctx).Joint.Plan(ctx, s.shop(ctx), b.SawID, b.BladeID, joint.Ask{Kind: string(b.Kind), Stock: ptr.Value(b.StockMm), Tenon: ptr.Value(b.TenonMm),
		Length: ptr.Value(b.LengthMm), Width: ptr.Value(b.WidthMm), Slot: ptr.Value(b.SlotMm), Room: ptr.Value(b.RoomMm), Edge: ptr.Value(b.EdgeMm), Depth: ptr.Value(b.DepthMm), Skin: ptr.Value(b.SkinMm), Radius: ptr.Value(b.RadiusMm),
		Off: b.OffMm, Gap: b.GapMm, Fingers: ptr.Value(b.Fingers), SlopeDeg: ptr.Value(b.SlopeDeg), BendDeg: ptr.Value(b.BendDeg)})
	if err != nil {
		return nil, err
	}
	out := contract.PlanJoint200JSONResponse{Kind: b.Kind, BladeID: p.Blade, Verdict: p.Verdict, Do: v.Each(p.Do), Mind: v.Each(p.Mind),
		Cautions: v.Each(p.Cautions), KerfMm: p.Kerf}
	if t := p.Tenon; t != nil {
		out.HeightsMm, out.StopsMm = ptr.To(t.Height[:]), &t.Stops
	}
	if x := p.Box; x != nil {
		out.SlotMm, out.OffsetMm, out.Slots, out.LastMm = ptr.To(x.Slot), ptr.To(x.Offset), &x.Slots, ptr.To(x.Last)
	}
	out.MoveMm = p.Move
	if t := p.Tail; t != nil {
		out.TiltDeg, out.HeightMm = &t.Tilt, ptr.To(t.Up)
	}
	if x := p.Slant; x != nil {
		out.Passes, out.LeftMm = ptr.To(encodePasses(x.Passes)), ptr.To(x.Left)
	}
	if x := p.Fold; x != nil {
		out.SkinMm, out.DepthMm, out.SpacingMm, out.Kerfs, out.SpanMm, out.ClosesDeg = ptr.To(p.Skin), ptr.To(x.Depth), ptr.To(x.Spacing), &x.Kerfs, ptr.To(x.Span), &x.Closes
	}
	return out, nil
}
