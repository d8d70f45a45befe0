package httpapi

import (
	"context"
	"encoding/base64"
	"encoding/json"
	"time"

	"github.com/google/uuid"

	"corte/core/cut"
	"corte/core/material"
	"corte/core/measure"
	"corte/internal/gauge"
	"corte/internal/httpapi/contract"
	"corte/internal/rackfile"
	"corte/internal/shop"
	"corte/internal/store"
)

// A server meets the contract. Every answer but success is an error, which
// refuseError turns into a problem.
type server struct {
	svc    *shop.Service
	shop   uuid.UUID
	files  *rackfile.Reader
	gauges *gauge.Hub
}

func (s *server) CreatePlan(ctx context.Context, r contract.CreatePlanRequestObject) (contract.CreatePlanResponseObject, error) {
	c, err := DecodeCut(r.Body.Cut)
	if err != nil {
		return nil, err
	}
	p, err := s.in(ctx).Plan(ctx, s.shop, c, planLimit(r.Body.Limit), units(r.Body.Units))
	if err != nil {
		return nil, err
	}
	return contract.CreatePlan200JSONResponse(encodePlan(p)), nil
}

func (s *server) CreateSweep(ctx context.Context, r contract.CreateSweepRequestObject) (contract.CreateSweepResponseObject, error) {
	c, err := DecodeCut(r.Body.Cut)
	if err != nil {
		return nil, err
	}
	spec := shop.SweepSpec{Blade: r.Body.BladeID, Step: measure.Length(r.Body.StepMm), Also: measure.Length(value(r.Body.AlsoMm))}
	sweep, err := s.in(ctx).Sweep(ctx, s.shop, c, spec, units(r.Body.Units))
	if err != nil {
		return nil, err
	}
	return contract.CreateSweep200JSONResponse(encodeSweep(sweep)), nil
}

func (s *server) LogCut(ctx context.Context, r contract.LogCutRequestObject) (contract.LogCutResponseObject, error) {
	c, err := DecodeCut(r.Body.Cut)
	if err != nil {
		return nil, err
	}
	made := shop.CutMade{
		Cut: c, Blade: r.Body.BladeID, Height: measure.Length(value(r.Body.HeightMm)), Feed: measure.Feed(value(r.Body.FeedMMin)),
		Pieces: max(1, value(r.Body.Pieces)), Wall: string(r.Body.Wall), Splinters: string(r.Body.Splinters),
		Other: string(value(r.Body.OtherSplinters)), Effort: string(value(r.Body.Effort)), Noise: string(value(r.Body.Noise)),
		Metres: value(r.Body.Metres), Seconds: value(r.Body.Seconds), CameBack: r.Body.CameBack, By: value(r.Body.By), Note: value(r.Body.Note), Waited: time.Duration(value(r.Params.WaitedSeconds)) * time.Second,
	}
	e, err := s.in(ctx).LogCut(ctx, s.shop, made, measure.Millimetre)
	if err != nil {
		return nil, err
	}
	out, err := encodeEntry(e)
	return contract.LogCut201JSONResponse(out), err
}

func (s *server) ListBlades(ctx context.Context, r contract.ListBladesRequestObject) (contract.ListBladesResponseObject, error) {
	after, err := decodePlace(r.Params.After)
	if err != nil {
		return nil, err
	}
	after.Retired = value(r.Params.Retired)
	page, next, err := s.in(ctx).Blades(ctx, s.shop, after, limitOf(r.Params.Limit))
	if err != nil {
		return nil, err
	}
	out := contract.ListBlades200JSONResponse{Items: make([]contract.Blade, len(page))}
	for i, b := range page {
		out.Items[i] = encodeBlade(b)
	}
	if next != nil {
		mark := encodePlace(*next)
		out.Next = &mark
	}
	return out, nil
}

func (s *server) GetBlade(ctx context.Context, r contract.GetBladeRequestObject) (contract.GetBladeResponseObject, error) {
	b, err := s.in(ctx).Blade(ctx, s.shop, r.ID)
	if err != nil {
		return nil, err
	}
	return contract.GetBlade200JSONResponse(withProfile(encodeBlade(b), b)), nil
}

func (s *server) ListSaws(ctx context.Context, _ contract.ListSawsRequestObject) (contract.ListSawsResponseObject, error) {
	saws, err := s.in(ctx).Saws(ctx, s.shop)
	if err != nil {
		return nil, err
	}
	out := contract.ListSaws200JSONResponse{Items: make([]contract.Saw, len(saws))}
	for i, w := range saws {
		out.Items[i] = encodeSaw(w)
	}
	return out, nil
}

func (s *server) GetShop(ctx context.Context, _ contract.GetShopRequestObject) (contract.GetShopResponseObject, error) {
	sh, err := s.in(ctx).Shop(ctx, s.shop)
	if err != nil {
		return nil, err
	}
	return contract.GetShop200JSONResponse(encodeShop(sh)), nil
}

func (s *server) ListMaterials(context.Context, contract.ListMaterialsRequestObject) (contract.ListMaterialsResponseObject, error) {
	all := material.All()
	out := contract.ListMaterials200JSONResponse{Items: make([]contract.Material, len(all))}
	for i, m := range all {
		out.Items[i] = contract.Material{
			ID: m.ID, Name: m.Name, Kind: contract.MaterialKind(m.Kind.String()), Modelled: m.Kind.Modelled(),
			Sheet: m.Kind.Sheet(), DensityKgM3: m.Density, Source: m.Source,
		}
	}
	return out, nil
}

func (s *server) ReadLength(_ context.Context, r contract.ReadLengthRequestObject) (contract.ReadLengthResponseObject, error) {
	l, err := measure.Parse(r.Params.Text, units(r.Params.Units))
	if err != nil {
		return nil, &shop.Error{Reason: shop.Invalid, Field: "text", Detail: err.Error()}
	}
	return contract.ReadLength200JSONResponse{Mm: l.Mm(), TextMm: l.Format(measure.Millimetre), TextIn: l.Format(measure.Inch)}, nil
}

func (s *server) GetHealth(ctx context.Context, _ contract.GetHealthRequestObject) (contract.GetHealthResponseObject, error) {
	if err := s.in(ctx).Alive(ctx); err != nil {
		return nil, err
	}
	return contract.GetHealth200JSONResponse{Status: "ok"}, nil
}

func units(u contract.Units) measure.Unit {
	if u == contract.UnitsIn {
		return measure.Inch
	}
	return measure.Millimetre
}

// planLimit is how many options are told of; more than anyone reads.
func planLimit(l *int) int {
	if l == nil {
		return 60
	}
	return *l
}

const usualLimit = 100

func limitOf(l *int) int {
	if l == nil {
		return usualLimit
	}
	return *l
}

func value[T any](p *T) T {
	if p == nil {
		var zero T
		return zero
	}
	return *p
}

// DecodeCut reads a cut. The contract has checked the words; an error here
// means that contract and core have drifted apart.
func DecodeCut(c contract.Cut) (shop.Cut, error) {
	out := shop.Cut{
		SawID: c.SawID, Material: c.Material,
		Thickness: measure.Length(c.ThicknessMm), Width: measure.Length(c.WidthMm), Length: measure.Length(c.LengthMm),
	}
	var err error
	if out.Direction, err = cut.ParseDirection(string(c.Direction)); err != nil {
		return out, err
	}
	if out.Finish, err = cut.ParseFinish(string(c.Finish)); err != nil {
		return out, err
	}
	if c.Motion != nil {
		m, err := cut.ParseMotion(string(*c.Motion))
		if err != nil {
			return out, err
		}
		out.Motion = &m
	}
	if out.Exit, err = decodeSupport(c.ExitSupport); err != nil {
		return out, err
	}
	if out.Other, err = decodeSupport(c.OtherSupport); err != nil {
		return out, err
	}
	if c.Form != nil {
		if out.Form, err = cut.ParseForm(string(*c.Form)); err != nil {
			return out, err
		}
	}
	if c.Bed != nil {
		if out.Bed, err = cut.ParseBed(string(*c.Bed)); err != nil {
			return out, err
		}
	}
	out.Depth, out.Piece = measure.Length(value(c.DepthMm)), measure.Length(value(c.PieceMm))
	out.BevelDeg, out.MiterDeg = value(c.BevelDeg), value(c.MiterDeg)
	out.Pieces, out.Moves, out.BrakeOff = value(c.Pieces), value(c.Moves), value(c.BrakeOff)
	if out.Moisture, err = cut.ParseMoisture(string(value(c.Moisture))); err != nil {
		return out, err
	}
	if c.FenceSide != nil {
		if out.FenceSide, err = cut.ParseSide(string(*c.FenceSide)); err != nil {
			return out, err
		}
	}
	return out, nil
}

func decodeSupport(s *contract.Support) (*cut.Support, error) {
	if s == nil {
		return nil, nil
	}
	v, err := cut.ParseSupport(string(*s))
	return &v, err
}

// A place in the rack travels as opaque text, so that no caller comes to
// depend on its inside.
func encodePlace(p store.Place) string {
	raw, _ := json.Marshal(p)
	return base64.RawURLEncoding.EncodeToString(raw)
}

func decodePlace(s *string) (store.Place, error) {
	var p store.Place
	if s == nil {
		return p, nil
	}
	raw, err := base64.RawURLEncoding.DecodeString(*s)
	if err == nil {
		err = json.Unmarshal(raw, &p)
	}
	if err != nil {
		return p, &shop.Error{Reason: shop.Invalid, Field: "after", Detail: "this is not the next of a page; leave it out to begin at the first"}
	}
	return p, nil
}
