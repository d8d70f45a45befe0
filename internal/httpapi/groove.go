package httpapi

import (
	"context"

	"corte/core/blade"
	"corte/core/groove"
	"corte/core/joint"
	"corte/core/measure"
	"corte/core/say"
	"corte/internal/httpapi/contract"
	"corte/internal/rackfile"
	shopgroove "corte/internal/shop/groove"
	"corte/internal/shop/kit"
	"corte/internal/store"
)

func (s *server) GetDadoSet(ctx context.Context, r contract.GetDadoSetRequestObject) (contract.GetDadoSetResponseObject, error) {
	v := voiceOf(ctx)
	set, err := s.in(ctx).Groove.DadoSet(ctx, s.shop, r.ID)
	if err != nil {
		return nil, err
	}
	return contract.GetDadoSet200JSONResponse(v.encodeDadoSet(set)), nil
}

func (s *server) SetDadoSet(ctx context.Context, r contract.SetDadoSetRequestObject) (contract.SetDadoSetResponseObject, error) {
	v := voiceOf(ctx)
	made, err := rackfile.SetOf(*r.Body)
	if err != nil {
		return nil, err
	}
	out, err := s.in(ctx).Groove.SetDadoSet(ctx, s.shop, store.DadoSet{Blade: r.ID, Set: made, Version: version(r.Params.IfMatch)})
	if err != nil {
		return nil, err
	}
	return contract.SetDadoSet200JSONResponse(v.encodeDadoSet(out)), nil
}

func (s *server) RenewParts(ctx context.Context, r contract.RenewPartsRequestObject) (contract.RenewPartsResponseObject, error) {
	v := voiceOf(ctx)
	set, err := s.in(ctx).Groove.RenewParts(ctx, s.shop, r.ID, string(r.Body.Why), value(r.Body.Outer), value(r.Body.Parts), value(r.Body.By), value(r.Body.Note))
	if err != nil {
		return nil, err
	}
	return contract.RenewParts201JSONResponse(v.encodeDadoSet(set)), nil
}

func (v voice) encodeDadoSet(d shopgroove.DadoSet) contract.DadoSet {
	set := rackfile.RecordOfSet(d.Set)
	out := contract.DadoSet{BladeID: d.Blade, Version: d.Version, Kind: contract.DadoSetKind(set.Kind), LeftMm: set.LeftMm, RightMm: set.RightMm, Wings: set.Wings,
		Parts: set.Parts, EarsMm: set.EarsMm, Ranges: set.Ranges, Build: set.Build, Tests: d.Held.Told, Known: []contract.KnownPart{}, Saws: []contract.SetOnSaw{}}
	for _, w := range d.Saws {
		out.Saws = append(out.Saws, contract.SetOnSaw{SawName: w.Saw, Verdict: w.Verdict, Says: v.Say(w.Says)})
	}
	for _, k := range d.Known {
		out.Known = append(out.Known, contract.KnownPart{What: v.Say(k.What), StampedMm: k.Stamped.Mm(), HeldMm: k.Held.Mm(), SdMm: k.SD.Mm(), Tests: k.Tests})
	}
	return out
}

func decodeGrooveAsk(a contract.GrooveAsk) (shopgroove.Ask, error) {
	out := shopgroove.Ask{Count: a.Count, Edge: measure.Length(value(a.EdgeMm))}
	var err error
	out.Cut = DecodeCut(a.Cut)
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
	p, err := s.in(ctx).Groove.Plan(ctx, s.shop, ask)
	if err != nil {
		return nil, err
	}
	out := contract.PlanGroove200JSONResponse{TargetMm: p.Target.Mm(), ThickestMm: p.Piece.Thickest.Mm(), AllowanceMm: p.Allowance.Mm(), Mind: v.Say(p.Mind),
		Cautions: v.Each(p.Cautions), Ways: make([]contract.GrooveWay, len(p.Ways)), Earlier: v.encodeGrooveRows(p.Earlier)}
	for i, w := range p.Ways {
		out.Ways[i] = v.encodeGrooveWay(w)
	}
	return out, nil
}

func (v voice) encodeGrooveWay(w shopgroove.Way) contract.GrooveWay {
	out := contract.GrooveWay{BladeID: w.Blade.ID, BladeName: w.Blade.Name, Kind: "passes", Mounted: w.Mounted, Verdict: w.Verdict,
		Says: v.Say(w.Says), WidthMm: positive(w.Width.Mm()), SdMm: positive(w.SD.Mm()), Fits: w.Fits, BottomMm: make([][]float64, len(w.Bottom)), RidgeMm: w.Ridge.Mm(),
		FlatFor: v.Say(w.FlatFor), Slots: make([]contract.ArborSlot, len(w.Slots)), Passes: encodePasses(w.Passes), KerfMm: positive(w.Blade.Kerf.Mm()),
		SetupMinutes: w.SetUp, EachMinutes: w.Each, Minutes: w.Minutes, Pays: v.Say(w.Pays), Needs: orNone(v.Each(w.Needs)), Teeth: &w.Blade.Teeth, DiameterMm: ptr(w.Blade.Diameter.Mm())}
	for i, p := range w.Bottom {
		out.BottomMm[i] = []float64{p[0].Mm(), p[1].Mm()}
	}
	for i, x := range w.Slots {
		out.Slots[i] = contract.ArborSlot{What: contract.ArborSlotWhat(x.What), ThicknessMm: x.Thickness.Mm(), TurnedDeg: x.Turned}
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
		out.Arbor = &contract.ArborFit{LengthMm: positive(a.Length.Mm()), SetMm: a.Set.Mm(), WasherMm: a.Washer.Mm(), NutMm: a.Nut.Mm(), SpareMm: a.Spare.Mm(),
			WasherOff: a.WasherOff, Verdict: a.Verdict, Says: v.Say(a.Says)}
	}
	if in := w.Insert; in != nil {
		out.Insert = &contract.InsertFit{WidthMm: in.Width.Mm(), LengthMm: in.Length.Mm(), FenceMm: in.Fence.Mm()}
	}
	return out
}

func encodePasses(all []groove.Pass) []contract.GroovePass {
	out := make([]contract.GroovePass, len(all))
	for i, p := range all {
		out[i] = contract.GroovePass{FenceMm: p.Fence.Mm(), CentreMm: p.Centre.Mm(), HeightMm: p.Height.Mm()}
	}
	return out
}

func (v voice) encodeGrooveRows(rows []shopgroove.Row) []contract.GrooveRow {
	out := make([]contract.GrooveRow, len(rows))
	for i, g := range rows {
		out[i] = contract.GrooveRow{ID: g.ID, At: g.Started, MaterialName: g.MaterialName, PieceMm: g.Piece.Mm(), TargetMm: g.Target.Mm(), DepthMm: g.Depth.Mm(),
			BladeName: g.BladeName, SawName: g.SawName, Says: v.Say(g.Says), Made: g.Made, Tests: g.Tests, Ended: g.Ended != nil}
	}
	return out
}

func (s *server) ListGrooves(ctx context.Context, r contract.ListGroovesRequestObject) (contract.ListGroovesResponseObject, error) {
	v := voiceOf(ctx)
	rows, err := s.in(ctx).Groove.Recent(ctx, s.shop, limitOf(r.Params.Limit))
	if err != nil {
		return nil, err
	}
	return contract.ListGrooves200JSONResponse{Items: v.encodeGrooveRows(rows)}, nil
}

func (s *server) StartGroove(ctx context.Context, r contract.StartGrooveRequestObject) (contract.StartGrooveResponseObject, error) {
	v := voiceOf(ctx)
	by := value(r.Body.By)
	if r.Body.Like != nil {
		g, err := s.in(ctx).Groove.CallUp(ctx, s.shop, *r.Body.Like, by)
		if err != nil {
			return nil, err
		}
		return contract.StartGroove201JSONResponse(v.encodeGroove(g)), nil
	}
	if r.Body.Ask == nil || r.Body.BladeID == nil {
		return nil, &kit.Error{Field: "ask", What: say.Of("say the groove and the blade that is to cut it, or an earlier groove to call up")}
	}
	ask, err := decodeGrooveAsk(*r.Body.Ask)
	if err != nil {
		return nil, err
	}
	g, err := s.in(ctx).Groove.Start(ctx, s.shop, ask, *r.Body.BladeID, by)
	if err != nil {
		return nil, err
	}
	return contract.StartGroove201JSONResponse(v.encodeGroove(g)), nil
}

func (v voice) encodeGroove(g shopgroove.Groove) contract.Groove {
	ask := contract.GrooveAsk{Cut: encodeCut(g.Saw, g.Job), Fit: contract.Fit(g.Ask.Fit.String()), Count: g.Ask.Count, EdgeMm: ptr(g.Ask.Edge.Mm())}
	for _, p := range g.Ask.Piece {
		ask.PieceMm = append(ask.PieceMm, p.Mm())
	}
	out := contract.Groove{ID: g.ID, Version: g.Version, Ask: ask, SawID: g.Saw, SawName: g.SawName, TargetMm: g.Target.Mm(), Way: v.encodeGrooveWay(g.Way),
		HeightMm: g.Fitting.Stand.Height.Mm(), Tests: make([]contract.GrooveTested, len(g.Fitting.Tests)), Says: orNone(v.Each(g.Says)), Good: g.Good, By: g.By, StartedAt: g.Started,
		EndedAt: g.Ended, Made: g.Made, Cautions: v.Each(g.Cautions)}
	for i, t := range g.Fitting.Tests {
		out.Tests[i] = contract.GrooveTested{At: t.At, Says: v.Say(t.With.Says()), WidthMm: t.Width.Mm(), OffMm: t.Off.Mm(), DepthMm: positive(t.Depth.Mm())}
	}
	if g.Way.Set != nil {
		out.Set = ptr(v.encodeDadoSet(*g.Way.Set))
	}
	return out
}

func (s *server) GetGroove(ctx context.Context, r contract.GetGrooveRequestObject) (contract.GetGrooveResponseObject, error) {
	v := voiceOf(ctx)
	g, err := s.in(ctx).Groove.Get(ctx, s.shop, r.ID)
	if err != nil {
		return nil, err
	}
	return contract.GetGroove200JSONResponse(v.encodeGroove(g)), nil
}

func (s *server) DropGroove(ctx context.Context, r contract.DropGrooveRequestObject) (contract.DropGrooveResponseObject, error) {
	return contract.DropGroove204Response{}, s.in(ctx).Groove.Drop(ctx, s.shop, r.ID)
}

func (s *server) TestGroove(ctx context.Context, r contract.TestGrooveRequestObject) (contract.TestGrooveResponseObject, error) {
	v := voiceOf(ctx)
	g, err := s.in(ctx).Groove.Test(ctx, s.shop, r.ID, version(r.Params.IfMatch), r.Body.WidthMm, value(r.Body.DepthMm))
	if err != nil {
		return nil, err
	}
	return contract.TestGroove200JSONResponse(v.encodeGroove(g)), nil
}

func (s *server) EndGroove(ctx context.Context, r contract.EndGrooveRequestObject) (contract.EndGrooveResponseObject, error) {
	v := voiceOf(ctx)
	wall, splinters := "clean", "none"
	if r.Body.Wall != nil {
		wall = string(*r.Body.Wall)
	}
	if r.Body.Splinters != nil {
		splinters = string(*r.Body.Splinters)
	}
	g, err := s.in(ctx).Groove.End(ctx, s.shop, r.ID, version(r.Params.IfMatch), r.Body.Made, wall, splinters, value(r.Body.Note))
	if err != nil {
		return nil, err
	}
	return contract.EndGroove200JSONResponse(v.encodeGroove(g)), nil
}

func (s *server) PlanJoint(ctx context.Context, r contract.PlanJointRequestObject) (contract.PlanJointResponseObject, error) {
	v := voiceOf(ctx)
	b := r.Body
	l := func(v *float64) measure.Length { return measure.Length(value(v)) }
	maybe := func(v *float64) *measure.Length {
		if v == nil {
			return nil
		}
		return ptr(measure.Length(*v))
	}
	p, err := s.in(ctx).Joint.Plan(ctx, s.shop, b.SawID, b.BladeID, joint.Ask{Kind: string(b.Kind), Stock: l(b.StockMm), Tenon: l(b.TenonMm),
		Length: l(b.LengthMm), Width: l(b.WidthMm), Slot: l(b.SlotMm), Room: l(b.RoomMm), Edge: l(b.EdgeMm), Depth: l(b.DepthMm), Skin: l(b.SkinMm), Radius: l(b.RadiusMm),
		Off: maybe(b.OffMm), Gap: maybe(b.GapMm), Fingers: value(b.Fingers), SlopeDeg: value(b.SlopeDeg), BendDeg: value(b.BendDeg)})
	if err != nil {
		return nil, err
	}
	out := contract.PlanJoint200JSONResponse{Kind: b.Kind, BladeID: p.Blade, Verdict: p.Verdict, Do: orNone(v.Each(p.Do)), Mind: orNone(v.Each(p.Mind)),
		Cautions: v.Each(p.Cautions), KerfMm: p.Kerf.Mm()}
	if t := p.Tenon; t != nil {
		stops := make([]float64, len(t.Stops))
		for i, x := range t.Stops {
			stops[i] = x.Mm()
		}
		out.HeightsMm, out.StopsMm = &[]float64{t.Height[0].Mm(), t.Height[1].Mm()}, &stops
	}
	if x := p.Box; x != nil {
		out.SlotMm, out.OffsetMm, out.Slots, out.LastMm = ptr(x.Slot.Mm()), ptr(x.Offset.Mm()), &x.Slots, ptr(x.Last.Mm())
	}
	if p.Move != nil {
		out.MoveMm = ptr(p.Move.Mm())
	}
	if t := p.Tail; t != nil {
		out.TiltDeg, out.HeightMm = &t.Tilt, ptr(t.Up.Mm())
	}
	if x := p.Slant; x != nil {
		out.Passes, out.LeftMm = ptr(encodePasses(x.Passes)), ptr(x.Left.Mm())
	}
	if x := p.Fold; x != nil {
		out.SkinMm, out.DepthMm, out.SpacingMm, out.Kerfs, out.SpanMm, out.ClosesDeg = ptr(p.Skin.Mm()), ptr(x.Depth.Mm()), ptr(x.Spacing.Mm()), &x.Kerfs, ptr(x.Span.Mm()), &x.Closes
	}
	return out, nil
}
