// Package special answers for special cuts.
package special

import (
	"context"

	"corte/core/material"
	"corte/core/special"
	"corte/internal/httpapi/contract"
	"corte/internal/httpapi/present"
	"corte/internal/httpapi/request"
	"corte/internal/ptr"
	"corte/internal/refusal"
	shopspecial "corte/internal/shop/special"
)

// Handlers meet the part of the contract that is this station's.
type Handlers struct {
	request.Scope
}

func (s Handlers) PlanSpecialCut(ctx context.Context, r contract.PlanSpecialCutRequestObject) (contract.PlanSpecialCutResponseObject, error) {
	v := present.VoiceOf(ctx)
	b := r.Body
	ask := special.Ask{Kind: b.Kind, Thickness: ptr.Value(b.ThicknessMm), Height: ptr.Value(b.HeightMm), Depth: ptr.Value(b.DepthMm), Width: ptr.Value(b.WidthMm),
		Narrow: ptr.Value(b.NarrowMm), Length: ptr.Value(b.LengthMm), Known: ptr.Value(b.KnownMm), SlopeDeg: ptr.Value(b.SlopeDeg), Sides: ptr.Value(b.Sides),
		SpringDeg: ptr.Value(b.SpringDeg), CornerDeg: ptr.Value(b.CornerDeg), Ends: ptr.Value(b.Ends)}
	if b.Material != nil {
		m, err := material.Get(*b.Material)
		if err != nil {
			return nil, refusal.Of("material", "%s; choose one of the list", err)
		}
		ask.Material = m
	}
	p, err := s.In(ctx).Special.Plan(ctx, request.Shop(ctx), b.SawID, b.BladeID, ask)
	if err != nil {
		return nil, err
	}
	out := contract.SpecialCut{Kind: b.Kind, Verdict: p.Verdict, Stop: ptr.NonZero(v.Say(p.Stop)), WayOut: ptr.NonZero(v.Say(p.WayOut)),
		Figures: make([]contract.SpecialFigure, len(p.Figures)), Passes: make([]contract.SpecialPass, len(p.Passes)),
		Steps: v.Each(p.Steps), Never: v.Each(p.Never), Cautions: v.Each(p.Cautions), Findings: v.Findings(p.Findings), PowerW: ptr.Positive(p.PowerW)}
	for i, f := range p.Figures {
		out.Figures[i] = contract.SpecialFigure{Name: v.Say(f.Name), Says: v.Say(shopspecial.Says(f))}
		if f.Angle {
			out.Figures[i].Deg = &f.Deg
		} else {
			out.Figures[i].LengthMm = ptr.To(f.Length)
		}
	}
	for i, x := range p.Passes {
		out.Passes[i] = contract.SpecialPass{HeightMm: x.Height, Says: v.Say(x.Says)}
	}
	if p.Blade != nil {
		out.BladeID = &p.Blade.ID
	}
	return contract.PlanSpecialCut200JSONResponse(out), nil
}
