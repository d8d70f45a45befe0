// Package rack answers for blades and saws, and for files of them.
package rack

import (
	"context"
	"encoding/base64"
	"encoding/json"
	"slices"
	"strings"

	"corte/core/measure"
	"corte/core/saw"
	"corte/core/say"
	"corte/core/starter"
	"corte/internal/httpapi/contract"
	"corte/internal/httpapi/present"
	"corte/internal/httpapi/request"
	"corte/internal/ptr"
	"corte/internal/rackfile"
	"corte/internal/refusal"
	"corte/internal/shop/rack"
	"corte/internal/store"
	"corte/internal/wire"
)

// Handlers meet the part of the contract that is this station's.
type Handlers struct {
	request.Scope
	Files *rackfile.Reader
}

func (s Handlers) AddBlade(ctx context.Context, r contract.AddBladeRequestObject) (contract.AddBladeResponseObject, error) {
	v := present.VoiceOf(ctx)
	b, err := wire.ReadBlade(*r.Body)
	if err != nil {
		return nil, err
	}
	if b, err = s.In(ctx).Rack.AddBlade(ctx, request.Shop(ctx), b); err != nil {
		return nil, err
	}
	return contract.AddBlade201JSONResponse(present.WithProfile(v.Blade(b), b)), nil
}

func (s Handlers) DraftBlade(ctx context.Context, r contract.DraftBladeRequestObject) (contract.DraftBladeResponseObject, error) {
	v := present.VoiceOf(ctx)
	b, err := wire.ReadBlade(*r.Body)
	if err != nil {
		return nil, err
	}
	if err := rack.CheckBlade(b); err != nil {
		return nil, err
	}
	return contract.DraftBlade200JSONResponse(present.WithProfile(v.Blade(b), b)), nil
}

func (s Handlers) ReadUnmarkedBlade(_ context.Context, r contract.ReadUnmarkedBladeRequestObject) (contract.ReadUnmarkedBladeResponseObject, error) {
	out, err := wire.Unmarked(*r.Body)
	return contract.ReadUnmarkedBlade200JSONResponse(out), err
}

func (s Handlers) ChangeBlade(ctx context.Context, r contract.ChangeBladeRequestObject) (contract.ChangeBladeResponseObject, error) {
	v := present.VoiceOf(ctx)
	b, err := wire.ReadBlade(*r.Body)
	if err != nil {
		return nil, err
	}
	b.ID, b.Version = r.ID, request.Version(r.Params.IfMatch)
	if b, err = s.In(ctx).Rack.ChangeBlade(ctx, request.Shop(ctx), b); err != nil {
		return nil, err
	}
	return contract.ChangeBlade200JSONResponse(present.WithProfile(v.Blade(b), b)), nil
}

func (s Handlers) RetireBlade(ctx context.Context, r contract.RetireBladeRequestObject) (contract.RetireBladeResponseObject, error) {
	v := present.VoiceOf(ctx)
	b, err := s.In(ctx).Rack.RetireBlade(ctx, request.Shop(ctx), r.ID, string(r.Body.Reason), ptr.Value(r.Body.Note))
	return contract.RetireBlade200JSONResponse(v.Blade(b)), err
}

func (s Handlers) RestoreBlade(ctx context.Context, r contract.RestoreBladeRequestObject) (contract.RestoreBladeResponseObject, error) {
	v := present.VoiceOf(ctx)
	b, err := s.In(ctx).Rack.RestoreBlade(ctx, request.Shop(ctx), r.ID)
	return contract.RestoreBlade200JSONResponse(v.Blade(b)), err
}

func (s Handlers) AddSaw(ctx context.Context, r contract.AddSawRequestObject) (contract.AddSawResponseObject, error) {
	w, err := s.In(ctx).Rack.AddSaw(ctx, request.Shop(ctx), wire.ReadSaw(*r.Body))
	return contract.AddSaw201JSONResponse(present.Saw(w)), err
}

func (s Handlers) DraftSaw(_ context.Context, r contract.DraftSawRequestObject) (contract.DraftSawResponseObject, error) {
	w := wire.ReadSaw(*r.Body)
	return contract.DraftSaw200JSONResponse(present.Saw(w)), rack.CheckSaw(w)
}

func (s Handlers) GetSaw(ctx context.Context, r contract.GetSawRequestObject) (contract.GetSawResponseObject, error) {
	w, err := s.In(ctx).Rack.Saw(ctx, request.Shop(ctx), r.ID)
	return contract.GetSaw200JSONResponse(present.Saw(w)), err
}

func (s Handlers) ChangeSaw(ctx context.Context, r contract.ChangeSawRequestObject) (contract.ChangeSawResponseObject, error) {
	w := wire.ReadSaw(*r.Body)
	w.ID, w.Version = r.ID, request.Version(r.Params.IfMatch)
	w, err := s.In(ctx).Rack.ChangeSaw(ctx, request.Shop(ctx), w)
	return contract.ChangeSaw200JSONResponse(present.Saw(w)), err
}

func (s Handlers) RetireSaw(ctx context.Context, r contract.RetireSawRequestObject) (contract.RetireSawResponseObject, error) {
	w, err := s.In(ctx).Rack.RetireSaw(ctx, request.Shop(ctx), r.ID, string(r.Body.Reason), ptr.Value(r.Body.Note))
	return contract.RetireSaw200JSONResponse(present.Saw(w)), err
}

func (s Handlers) RestoreSaw(ctx context.Context, r contract.RestoreSawRequestObject) (contract.RestoreSawResponseObject, error) {
	w, err := s.In(ctx).Rack.RetireSaw(ctx, request.Shop(ctx), r.ID, "", "")
	return contract.RestoreSaw200JSONResponse(present.Saw(w)), err
}

func (s Handlers) ListBlades(ctx context.Context, r contract.ListBladesRequestObject) (contract.ListBladesResponseObject, error) {
	v := present.VoiceOf(ctx)
	after, err := decodePlace(r.Params.After)
	if err != nil {
		return nil, err
	}
	after.Retired = ptr.Value(r.Params.Retired)
	page, next, err := s.In(ctx).Rack.Blades(ctx, request.Shop(ctx), after, request.Limit(r.Params.Limit))
	if err != nil {
		return nil, err
	}
	out := contract.ListBlades200JSONResponse{Items: make([]contract.Blade, len(page))}
	for i, b := range page {
		out.Items[i] = v.Blade(b)
	}
	if next != nil {
		mark := encodePlace(*next)
		out.Next = &mark
	}
	return out, nil
}

func (s Handlers) GetBlade(ctx context.Context, r contract.GetBladeRequestObject) (contract.GetBladeResponseObject, error) {
	v := present.VoiceOf(ctx)
	b, err := s.In(ctx).Rack.Blade(ctx, request.Shop(ctx), r.ID)
	if err != nil {
		return nil, err
	}
	return contract.GetBlade200JSONResponse(present.WithProfile(v.Blade(b), b)), nil
}

func (s Handlers) ListSaws(ctx context.Context, _ contract.ListSawsRequestObject) (contract.ListSawsResponseObject, error) {
	saws, err := s.In(ctx).Rack.Saws(ctx, request.Shop(ctx))
	if err != nil {
		return nil, err
	}
	out := contract.ListSaws200JSONResponse{Items: make([]contract.Saw, len(saws))}
	for i, w := range saws {
		out.Items[i] = present.Saw(w)
	}
	return out, nil
}

func (s Handlers) ListUsualSaws(_ context.Context, r contract.ListUsualSawsRequestObject) (contract.ListUsualSawsResponseObject, error) {
	kinds := []saw.Kind{saw.Table, saw.Miter, saw.Circular}
	if r.Params.Kind != nil {
		k, err := saw.ParseKind(string(*r.Params.Kind))
		if err != nil {
			return nil, err
		}
		kinds = []saw.Kind{k}
	}
	out := contract.ListUsualSaws200JSONResponse{Items: []contract.SawInput{}}
	for _, k := range kinds {
		w := starter.Saw(k)
		if d := r.Params.DiameterMm; d != nil && len(kinds) == 1 {
			w.Diameter = measure.Length(*d)
			w = starter.OfDiameter(w)
		}
		out.Items = append(out.Items, wire.SawInput(store.Saw{Saw: w}))
	}
	return out, nil
}

func (s Handlers) ListUsualBlades(ctx context.Context, r contract.ListUsualBladesRequestObject) (contract.ListUsualBladesResponseObject, error) {
	w, err := s.In(ctx).Rack.Saw(ctx, request.Shop(ctx), r.Params.SawID)
	if err != nil {
		return nil, err
	}
	hung, _, err := s.In(ctx).Rack.Blades(ctx, request.Shop(ctx), store.Place{}, 500) // as many as a page has
	if err != nil {
		return nil, err
	}
	out := contract.ListUsualBlades200JSONResponse{Items: []contract.UsualBlade{}}
	for _, b := range starter.Blades(w.Saw) {
		// The same kind of another size, for another saw, hangs there already.
		if slices.ContainsFunc(hung, func(r store.Blade) bool { return strings.EqualFold(r.Name, b.Name) && r.Diameter != b.Blade.Diameter }) {
			b.Name += ", " + w.Name
		}
		out.Items = append(out.Items, contract.UsualBlade{
			ID: b.ID, For: present.VoiceOf(ctx).Word(b.For), PitchMm: b.Blade.Pitch(), GulletDepthMm: b.Blade.GulletDepth(), Input: wire.BladeInput(store.Blade{Name: b.Name, Blade: b.Blade}),
		})
	}
	return out, nil
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
		return p, &refusal.Error{Reason: refusal.Invalid, Field: "after", What: say.Of("this page position is unknown. Leave it out to start at the first page")}
	}
	return p, nil
}
