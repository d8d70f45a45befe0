package httpapi

import (
	"bytes"
	"cmp"
	"context"
	"strconv"
	"strings"

	"github.com/gin-gonic/gin"

	"corte/core/guide"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/truing"
	"corte/internal/httpapi/contract"
	"corte/internal/labels"
	"corte/internal/rackfile"
	"corte/internal/shop"
	"corte/internal/store"
)

func (s *server) CreateComparison(ctx context.Context, r contract.CreateComparisonRequestObject) (contract.CreateComparisonResponseObject, error) {
	c, err := DecodeCut(r.Body.Cut)
	if err != nil {
		return nil, err
	}
	pins := make([]shop.Pin, len(r.Body.Pins))
	for i, p := range r.Body.Pins {
		pins[i] = shop.Pin{Blade: p.BladeID, Height: measure.Length(value(p.HeightMm))}
		if pins[i].Exit, err = decodeSupport(p.ExitSupport); err != nil {
			return nil, err
		}
		if pins[i].Other, err = decodeSupport(p.OtherSupport); err != nil {
			return nil, err
		}
	}
	w, all, err := s.in(ctx).Compare(ctx, s.shop, c, pins, units(r.Body.Units))
	if err != nil {
		return nil, err
	}
	out := contract.CreateComparison200JSONResponse{Items: make([]contract.Compared, len(all))}
	for i, one := range all {
		out.Items[i] = contract.Compared{BladeID: one.Blade, Cut: encodeCut(w.ID, one.Job), Refused: text(sentence(one.Refused))}
		if one.Setting != nil {
			out.Items[i].Setting = ptr(encodeSetting(*one.Setting))
		}
	}
	return out, nil
}

func (s *server) CreateSupportPlan(ctx context.Context, r contract.CreateSupportPlanRequestObject) (contract.CreateSupportPlanResponseObject, error) {
	in := r.Body
	m, err := material.Get(in.Material)
	if err != nil {
		return nil, &shop.Error{Reason: shop.Invalid, Field: "material", Detail: err.Error()}
	}
	b := guide.Board{Material: m, Thickness: measure.Length(in.ThicknessMm), Span: measure.Length(in.SpanMm),
		Breadth: measure.Length(in.BreadthMm), Line: measure.Length(in.LineMm)}
	var now []measure.Length
	for _, at := range value(in.NowMm) {
		now = append(now, measure.Length(at))
	}
	plan, as, err := s.in(ctx).Supports(b, now, units(in.Units))
	if err != nil {
		return nil, err
	}
	out := contract.CreateSupportPlan200JSONResponse{Plan: encodeSupports(plan)}
	if as != nil {
		out.Now = ptr(encodeSupports(*as))
	}
	return out, nil
}

func (s *server) AddBlade(ctx context.Context, r contract.AddBladeRequestObject) (contract.AddBladeResponseObject, error) {
	b, err := rackfile.BladeOf(*r.Body)
	if err != nil {
		return nil, err
	}
	if b, err = s.in(ctx).AddBlade(ctx, s.shop, b); err != nil {
		return nil, err
	}
	return contract.AddBlade201JSONResponse(withProfile(encodeBlade(b), b)), nil
}

func (s *server) DraftBlade(_ context.Context, r contract.DraftBladeRequestObject) (contract.DraftBladeResponseObject, error) {
	b, err := rackfile.BladeOf(*r.Body)
	if err != nil {
		return nil, err
	}
	if err := shop.CheckBlade(b); err != nil {
		return nil, err
	}
	return contract.DraftBlade200JSONResponse(withProfile(encodeBlade(b), b)), nil
}

func (s *server) ReadUnmarkedBlade(_ context.Context, r contract.ReadUnmarkedBladeRequestObject) (contract.ReadUnmarkedBladeResponseObject, error) {
	in := r.Body
	var out contract.ReadUnmarkedBlade200JSONResponse
	if in.GroupTeeth != nil && in.Groups != nil {
		out.Teeth = ptr(*in.GroupTeeth * *in.Groups)
	}
	if in.OffsetMm != nil && in.DiameterMm != nil {
		hook, err := truing.Hook(measure.Length(*in.OffsetMm), measure.Length(*in.DiameterMm/2))
		if err != nil {
			return nil, &shop.Error{Reason: shop.Invalid, Field: "offset_mm", Detail: err.Error()}
		}
		out.HookDeg = &hook
	}
	if in.KerfMm != nil && in.PlateMm != nil {
		if *in.PlateMm >= *in.KerfMm {
			return nil, &shop.Error{Reason: shop.Invalid, Field: "plate_mm", Detail: "the plate is as thick as the kerf: a blade like that would rub. Measure across two neighbouring tips, and the plate between them"}
		}
		out.SideClearanceMm = ptr((*in.KerfMm - *in.PlateMm) / 2)
	}
	return out, nil
}

func (s *server) ChangeBlade(ctx context.Context, r contract.ChangeBladeRequestObject) (contract.ChangeBladeResponseObject, error) {
	b, err := rackfile.BladeOf(*r.Body)
	if err != nil {
		return nil, err
	}
	b.ID, b.Version = r.ID, version(r.Params.IfMatch)
	if b, err = s.in(ctx).ChangeBlade(ctx, s.shop, b); err != nil {
		return nil, err
	}
	return contract.ChangeBlade200JSONResponse(withProfile(encodeBlade(b), b)), nil
}

func (s *server) RetireBlade(ctx context.Context, r contract.RetireBladeRequestObject) (contract.RetireBladeResponseObject, error) {
	b, err := s.in(ctx).RetireBlade(ctx, s.shop, r.ID, string(r.Body.Reason), value(r.Body.Note))
	return contract.RetireBlade200JSONResponse(encodeBlade(b)), err
}

func (s *server) RestoreBlade(ctx context.Context, r contract.RestoreBladeRequestObject) (contract.RestoreBladeResponseObject, error) {
	b, err := s.in(ctx).RestoreBlade(ctx, s.shop, r.ID)
	return contract.RestoreBlade200JSONResponse(encodeBlade(b)), err
}

func (s *server) GetPhoto(ctx context.Context, r contract.GetPhotoRequestObject) (contract.GetPhotoResponseObject, error) {
	raw, err := s.in(ctx).Photo(ctx, s.shop, r.ID)
	return contract.GetPhoto200ImageJpegResponse{Body: bytes.NewReader(raw), ContentLength: int64(len(raw))}, err
}

func (s *server) SetPhoto(ctx context.Context, r contract.SetPhotoRequestObject) (contract.SetPhotoResponseObject, error) {
	b, err := s.in(ctx).SetPhoto(ctx, s.shop, r.ID, r.Body)
	return contract.SetPhoto200JSONResponse(encodeBlade(b)), err
}

func (s *server) DropPhoto(ctx context.Context, r contract.DropPhotoRequestObject) (contract.DropPhotoResponseObject, error) {
	b, err := s.in(ctx).DropPhoto(ctx, s.shop, r.ID)
	return contract.DropPhoto200JSONResponse(encodeBlade(b)), err
}

func (s *server) PrintLabels(ctx context.Context, r contract.PrintLabelsRequestObject) (contract.PrintLabelsResponseObject, error) {
	blades := make([]store.Blade, len(r.Body.BladeIds))
	for i, id := range r.Body.BladeIds {
		var err error
		if blades[i], err = s.in(ctx).Blade(ctx, s.shop, id); err != nil {
			return nil, err
		}
	}
	home := "http://127.0.0.1"
	if c, ok := ctx.(*gin.Context); ok {
		home = "http://" + c.Request.Host
	}
	sheet, err := labels.Sheet(blades, func(b store.Blade) string { return home + "/rack/" + b.ID.String() }, value(r.Body.Skip), units(r.Body.Units))
	return contract.PrintLabels200ImageSvgXMLResponse{Body: bytes.NewReader(sheet), ContentLength: int64(len(sheet))}, err
}

func (s *server) ExportRack(ctx context.Context, r contract.ExportRackRequestObject) (contract.ExportRackResponseObject, error) {
	saws, err := s.in(ctx).Saws(ctx, s.shop)
	if err != nil {
		return nil, err
	}
	blades, _, err := s.in(ctx).Blades(ctx, s.shop, store.Place{}, rackLimit)
	if err != nil {
		return nil, err
	}
	file, err := rackfile.Write(r.Params.Format, saws, blades)
	return contract.ExportRack200ApplicationOctetStreamResponse{Body: bytes.NewReader(file), ContentLength: int64(len(file))}, err
}

// rackLimit is more blades than one file takes in.
const rackLimit = 5000

func (s *server) PreviewImport(ctx context.Context, r contract.PreviewImportRequestObject) (contract.PreviewImportResponseObject, error) {
	p, err := s.preview(ctx, *r.Body)
	if err != nil {
		return nil, err
	}
	return contract.PreviewImport200JSONResponse(encodePreview(p)), nil
}

func (s *server) ImportRack(ctx context.Context, r contract.ImportRackRequestObject) (contract.ImportRackResponseObject, error) {
	p, err := s.preview(ctx, *r.Body)
	if err != nil {
		return nil, err
	}
	if p.Digest != value(r.Body.Digest) {
		return nil, &shop.Error{Reason: shop.Stale, Field: "digest", Detail: "the file or the rack has changed since the preview; nothing was saved. Look at the preview again"}
	}
	saws, blades := p.Changes()
	if err := s.in(ctx).Import(ctx, s.shop, saws, blades); err != nil {
		return nil, err
	}
	return contract.ImportRack200JSONResponse(encodePreview(p)), nil
}

func (s *server) preview(ctx context.Context, f contract.RackFile) (rackfile.Preview, error) {
	rows, err := s.files.Read(f.Format, f.Text)
	if err != nil {
		return rackfile.Preview{}, &shop.Error{Reason: shop.Invalid, Field: "text", Detail: err.Error()}
	}
	saws, blades, err := s.in(ctx).Whole(ctx, s.shop)
	if err != nil {
		return rackfile.Preview{}, err
	}
	return s.files.Compare(s.shop, f.Text, rows, saws, blades), nil
}

func encodePreview(p rackfile.Preview) contract.ImportPreview {
	out := contract.ImportPreview{
		Digest: p.Digest, Add: p.Count(rackfile.Add), Change: p.Count(rackfile.Change), Same: p.Count(rackfile.Same),
		Refuse: p.Count(rackfile.Refuse), Rows: make([]contract.ImportRow, len(p.Lines)),
	}
	for i, l := range p.Lines {
		one := contract.ImportRow{Row: l.N, What: contract.ImportRowWhat(l.What), Name: l.Name, Action: contract.ImportRowAction(l.Action),
			Changes: []contract.FieldChange{}, Problems: []contract.FieldProblem{}}
		for _, d := range l.Differences {
			one.Changes = append(one.Changes, contract.FieldChange{Field: d.Field, From: d.From, To: d.To})
		}
		for _, pr := range l.Problems {
			one.Problems = append(one.Problems, contract.FieldProblem{Field: pr.Field, Detail: sentence(pr.Detail)})
		}
		out.Rows[i] = one
	}
	return out
}

func (s *server) AddSaw(ctx context.Context, r contract.AddSawRequestObject) (contract.AddSawResponseObject, error) {
	w, err := rackfile.SawOf(*r.Body)
	if err != nil {
		return nil, err
	}
	w, err = s.in(ctx).AddSaw(ctx, s.shop, w)
	return contract.AddSaw201JSONResponse(encodeSaw(w)), err
}

func (s *server) DraftSaw(_ context.Context, r contract.DraftSawRequestObject) (contract.DraftSawResponseObject, error) {
	w, err := rackfile.SawOf(*r.Body)
	if err != nil {
		return nil, err
	}
	return contract.DraftSaw200JSONResponse(encodeSaw(w)), shop.CheckSaw(w)
}

func (s *server) GetSaw(ctx context.Context, r contract.GetSawRequestObject) (contract.GetSawResponseObject, error) {
	w, err := s.in(ctx).Saw(ctx, s.shop, r.ID)
	return contract.GetSaw200JSONResponse(encodeSaw(w)), err
}

func (s *server) ChangeSaw(ctx context.Context, r contract.ChangeSawRequestObject) (contract.ChangeSawResponseObject, error) {
	w, err := rackfile.SawOf(*r.Body)
	if err != nil {
		return nil, err
	}
	w.ID, w.Version = r.ID, version(r.Params.IfMatch)
	w, err = s.in(ctx).ChangeSaw(ctx, s.shop, w)
	return contract.ChangeSaw200JSONResponse(encodeSaw(w)), err
}

func (s *server) RetireSaw(ctx context.Context, r contract.RetireSawRequestObject) (contract.RetireSawResponseObject, error) {
	w, err := s.in(ctx).RetireSaw(ctx, s.shop, r.ID, string(r.Body.Reason), value(r.Body.Note))
	return contract.RetireSaw200JSONResponse(encodeSaw(w)), err
}

func (s *server) RestoreSaw(ctx context.Context, r contract.RestoreSawRequestObject) (contract.RestoreSawResponseObject, error) {
	w, err := s.in(ctx).RetireSaw(ctx, s.shop, r.ID, "", "")
	return contract.RestoreSaw200JSONResponse(encodeSaw(w)), err
}

func (s *server) ChangeShop(ctx context.Context, r contract.ChangeShopRequestObject) (contract.ChangeShopResponseObject, error) {
	in := r.Body
	sh, err := s.in(ctx).ChangeShop(ctx, store.Shop{ID: s.shop, Version: version(r.Params.IfMatch), Name: in.Name,
		ChangeMinutes: in.ChangeMinutes, HeightSchool: string(in.HeightSchool), Learning: in.Learning, Sharpening: in.SharpeningPrice, Rework: cmp.Or(value(in.Rework), 1)})
	return contract.ChangeShop200JSONResponse(encodeShop(sh)), err
}

func encodeShop(sh store.Shop) contract.Shop {
	return contract.Shop{ID: sh.ID, Version: sh.Version, Name: sh.Name, ChangeMinutes: sh.ChangeMinutes, HeightSchool: contract.HeightSchool(sh.HeightSchool),
		Learning: sh.Learning, SharpeningPrice: sh.Sharpening, Rework: sh.Rework}
}

// version reads an ETag, whose form the contract has checked.
func version(etag string) int {
	v, _ := strconv.Atoi(strings.Trim(etag, `"`))
	return v
}
