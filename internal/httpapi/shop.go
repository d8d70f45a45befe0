package httpapi

import (
	"cmp"
	"context"

	"corte/core/material"
	"corte/core/measure"
	"corte/core/practice"
	"corte/core/say"
	"corte/internal/httpapi/contract"
	"corte/internal/httpapi/present"
	"corte/internal/httpapi/request"
	"corte/internal/licences"
	"corte/internal/ptr"
	"corte/internal/refusal"
	shoppractice "corte/internal/shop/practice"
	"corte/internal/store"
	"corte/internal/wire"
)

func (s *server) GetShop(ctx context.Context, _ contract.GetShopRequestObject) (contract.GetShopResponseObject, error) {
	sh, err := s.In(ctx).Rack.Shop(ctx, request.Shop(ctx))
	if err != nil {
		return nil, err
	}
	return contract.GetShop200JSONResponse(encodeShop(sh)), nil
}

func (s *server) ListMaterials(ctx context.Context, _ contract.ListMaterialsRequestObject) (contract.ListMaterialsResponseObject, error) {
	v := present.VoiceOf(ctx)
	all := material.All()
	out := contract.ListMaterials200JSONResponse{Items: make([]contract.Material, len(all))}
	for i, m := range all {
		out.Items[i] = contract.Material{
			ID: m.ID, Name: v.Word(m.Name), Kind: contract.MaterialKind(m.Kind.String()), Modelled: m.Kind.Modelled(),
			Sheet: m.Kind.Sheet(), DensityKgM3: m.Density, Source: v.Word(m.Source),
		}
	}
	return out, nil
}

func (s *server) ReadLength(ctx context.Context, r contract.ReadLengthRequestObject) (contract.ReadLengthResponseObject, error) {
	l, err := measure.Parse(r.Params.Text, present.VoiceOf(ctx).Unit)
	if err != nil {
		return nil, &refusal.Error{Reason: refusal.Invalid, Field: "text", What: say.Error(err)}
	}
	return contract.ReadLength200JSONResponse(wire.Length(l)), nil
}

func (s *server) ListLicences(context.Context, contract.ListLicencesRequestObject) (contract.ListLicencesResponseObject, error) {
	all, err := licences.All()
	out := contract.ListLicences200JSONResponse{Items: make([]contract.Licence, len(all))}
	for i, l := range all {
		out.Items[i] = contract.Licence{Name: l.Name, Version: l.Version, Licence: l.Licence, Text: l.Text}
	}
	return out, err
}

func (s *server) GetHealth(ctx context.Context, _ contract.GetHealthRequestObject) (contract.GetHealthResponseObject, error) {
	if err := s.In(ctx).Alive(ctx); err != nil {
		return nil, err
	}
	return contract.GetHealth200JSONResponse{Status: "ok"}, nil
}

func (s *server) GetLive(context.Context, contract.GetLiveRequestObject) (contract.GetLiveResponseObject, error) {
	return contract.GetLive200JSONResponse{Status: "ok"}, nil
}

func (s *server) ChangeShop(ctx context.Context, r contract.ChangeShopRequestObject) (contract.ChangeShopResponseObject, error) {
	in := r.Body
	was, err := s.In(ctx).Rack.Shop(ctx, request.Shop(ctx))
	if err != nil {
		return nil, err
	}
	signOff, pins, drills := was.SignOff, was.Pins, was.Drills
	if in.Drills != nil {
		drills = shoppractice.Listed(*in.Drills)
	}
	if in.SignOff != nil {
		signOff = string(*in.SignOff)
	}
	if in.Pins != nil {
		pins = *in.Pins
	}
	sh, err := s.In(ctx).Rack.ChangeShop(ctx, store.Shop{ID: request.Shop(ctx), Version: request.Version(r.Params.IfMatch), Name: in.Name,
		ChangeMinutes: in.ChangeMinutes, HeightSchool: string(in.HeightSchool), Learning: in.Learning, Sharpening: in.SharpeningPrice, Rework: cmp.Or(ptr.Value(in.Rework), 1), Zone: ptr.Value(in.TimeZone), SignOff: signOff, Pins: pins, Drills: drills})
	return contract.ChangeShop200JSONResponse(encodeShop(sh)), err
}

func encodeShop(sh store.Shop) contract.Shop {
	return contract.Shop{TimeZone: ptr.NonZero(sh.Zone), ID: sh.ID, Version: sh.Version, Name: sh.Name, ChangeMinutes: sh.ChangeMinutes, HeightSchool: contract.HeightSchool(sh.HeightSchool),
		Learning: sh.Learning, SharpeningPrice: sh.Sharpening, Rework: sh.Rework, SignOff: ptr.NonZero(contract.ShopSignOff(sh.SignOff)), Pins: &sh.Pins, Drills: ptr.To(append([]practice.Drill{}, shoppractice.Asked(sh)...))}
}
