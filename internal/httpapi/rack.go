package httpapi

import (
	"context"
	"encoding/base64"
	"encoding/json"
	"slices"
	"strings"

	"corte/core/blade"
	"corte/core/groove"
	"corte/core/measure"
	"corte/core/saw"
	"corte/core/say"
	"corte/core/special"
	"corte/core/starter"
	"corte/core/truing"
	"corte/internal/httpapi/contract"
	"corte/internal/ptr"
	"corte/internal/refusal"
	shopchoose "corte/internal/shop/choose"
	"corte/internal/shop/rack"
	"corte/internal/store"
	"corte/internal/wire"
)

func (s *server) AddBlade(ctx context.Context, r contract.AddBladeRequestObject) (contract.AddBladeResponseObject, error) {
	v := voiceOf(ctx)
	b, err := wire.ReadBlade(*r.Body)
	if err != nil {
		return nil, err
	}
	if b, err = s.in(ctx).Rack.AddBlade(ctx, s.shop(ctx), b); err != nil {
		return nil, err
	}
	return contract.AddBlade201JSONResponse(withProfile(v.encodeBlade(b), b)), nil
}

func (s *server) DraftBlade(ctx context.Context, r contract.DraftBladeRequestObject) (contract.DraftBladeResponseObject, error) {
	v := voiceOf(ctx)
	b, err := wire.ReadBlade(*r.Body)
	if err != nil {
		return nil, err
	}
	if err := rack.CheckBlade(b); err != nil {
		return nil, err
	}
	return contract.DraftBlade200JSONResponse(withProfile(v.encodeBlade(b), b)), nil
}

func (s *server) ReadUnmarkedBlade(_ context.Context, r contract.ReadUnmarkedBladeRequestObject) (contract.ReadUnmarkedBladeResponseObject, error) {
	out, err := wire.Unmarked(*r.Body)
	return contract.ReadUnmarkedBlade200JSONResponse(out), err
}

func (s *server) ChangeBlade(ctx context.Context, r contract.ChangeBladeRequestObject) (contract.ChangeBladeResponseObject, error) {
	v := voiceOf(ctx)
	b, err := wire.ReadBlade(*r.Body)
	if err != nil {
		return nil, err
	}
	b.ID, b.Version = r.ID, version(r.Params.IfMatch)
	if b, err = s.in(ctx).Rack.ChangeBlade(ctx, s.shop(ctx), b); err != nil {
		return nil, err
	}
	return contract.ChangeBlade200JSONResponse(withProfile(v.encodeBlade(b), b)), nil
}

func (s *server) RetireBlade(ctx context.Context, r contract.RetireBladeRequestObject) (contract.RetireBladeResponseObject, error) {
	v := voiceOf(ctx)
	b, err := s.in(ctx).Rack.RetireBlade(ctx, s.shop(ctx), r.ID, string(r.Body.Reason), ptr.Value(r.Body.Note))
	return contract.RetireBlade200JSONResponse(v.encodeBlade(b)), err
}

func (s *server) RestoreBlade(ctx context.Context, r contract.RestoreBladeRequestObject) (contract.RestoreBladeResponseObject, error) {
	v := voiceOf(ctx)
	b, err := s.in(ctx).Rack.RestoreBlade(ctx, s.shop(ctx), r.ID)
	return contract.RestoreBlade200JSONResponse(v.encodeBlade(b)), err
}

func (s *server) AddSaw(ctx context.Context, r contract.AddSawRequestObject) (contract.AddSawResponseObject, error) {
	w, err := s.in(ctx).Rack.AddSaw(ctx, s.shop(ctx), wire.ReadSaw(*r.Body))
	return contract.AddSaw201JSONResponse(encodeSaw(w)), err
}

func (s *server) DraftSaw(_ context.Context, r contract.DraftSawRequestObject) (contract.DraftSawResponseObject, error) {
	w := wire.ReadSaw(*r.Body)
	return contract.DraftSaw200JSONResponse(encodeSaw(w)), rack.CheckSaw(w)
}

func (s *server) GetSaw(ctx context.Context, r contract.GetSawRequestObject) (contract.GetSawResponseObject, error) {
	w, err := s.in(ctx).Rack.Saw(ctx, s.shop(ctx), r.ID)
	return contract.GetSaw200JSONResponse(encodeSaw(w)), err
}

func (s *server) ChangeSaw(ctx context.Context, r contract.ChangeSawRequestObject) (contract.ChangeSawResponseObject, error) {
	w := wire.ReadSaw(*r.Body)
	w.ID, w.Version = r.ID, version(r.Params.IfMatch)
	w, err := s.in(ctx).Rack.ChangeSaw(ctx, s.shop(ctx), w)
	return contract.ChangeSaw200JSONResponse(encodeSaw(w)), err
}

func (s *server) RetireSaw(ctx context.Context, r contract.RetireSawRequestObject) (contract.RetireSawResponseObject, error) {
	w, err := s.in(ctx).Rack.RetireSaw(ctx, s.shop(ctx), r.ID, string(r.Body.Reason), ptr.Value(r.Body.Note))
	return contract.RetireSaw200JSONResponse(encodeSaw(w)), err
}

func (s *server) RestoreSaw(ctx context.Context, r contract.RestoreSawRequestObject) (contract.RestoreSawResponseObject, error) {
	w, err := s.in(ctx).Rack.RetireSaw(ctx, s.shop(ctx), r.ID, "", "")
	return contract.RestoreSaw200JSONResponse(encodeSaw(w)), err
}

func (s *server) ListBlades(ctx context.Context, r contract.ListBladesRequestObject) (contract.ListBladesResponseObject, error) {
	v := voiceOf(ctx)
	after, err := decodePlace(r.Params.After)
	if err != nil {
		return nil, err
	}
	after.Retired = ptr.Value(r.Params.Retired)
	page, next, err := s.in(ctx).Rack.Blades(ctx, s.shop(ctx), after, limitOf(r.Params.Limit))
	if err != nil {
		return nil, err
	}
	out := contract.ListBlades200JSONResponse{Items: make([]contract.Blade, len(page))}
	for i, b := range page {
		out.Items[i] = v.encodeBlade(b)
	}
	if next != nil {
		mark := encodePlace(*next)
		out.Next = &mark
	}
	return out, nil
}

func (s *server) GetBlade(ctx context.Context, r contract.GetBladeRequestObject) (contract.GetBladeResponseObject, error) {
	v := voiceOf(ctx)
	b, err := s.in(ctx).Rack.Blade(ctx, s.shop(ctx), r.ID)
	if err != nil {
		return nil, err
	}
	return contract.GetBlade200JSONResponse(withProfile(v.encodeBlade(b), b)), nil
}

func (s *server) ListSaws(ctx context.Context, _ contract.ListSawsRequestObject) (contract.ListSawsResponseObject, error) {
	saws, err := s.in(ctx).Rack.Saws(ctx, s.shop(ctx))
	if err != nil {
		return nil, err
	}
	out := contract.ListSaws200JSONResponse{Items: make([]contract.Saw, len(saws))}
	for i, w := range saws {
		out.Items[i] = encodeSaw(w)
	}
	return out, nil
}

func (s *server) ListUsualSaws(_ context.Context, r contract.ListUsualSawsRequestObject) (contract.ListUsualSawsResponseObject, error) {
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

func (s *server) ListUsualBlades(ctx context.Context, r contract.ListUsualBladesRequestObject) (contract.ListUsualBladesResponseObject, error) {
	w, err := s.in(ctx).Rack.Saw(ctx, s.shop(ctx), r.Params.SawID)
	if err != nil {
		return nil, err
	}
	hung, _, err := s.in(ctx).Rack.Blades(ctx, s.shop(ctx), store.Place{}, 500) // as many as a page has
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
			ID: b.ID, For: voiceOf(ctx).Word(b.For), PitchMm: b.Blade.Pitch(), GulletDepthMm: b.Blade.GulletDepth(), Input: wire.BladeInput(store.Blade{Name: b.Name, Blade: b.Blade}),
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
		return p, &refusal.Error{Reason: refusal.Invalid, Field: "after", What: say.Of("this is not the next of a page; leave it out to begin at the first")}
	}
	return p, nil
}

func encodeRetired(r *store.Retired) *contract.Retired {
	if r == nil {
		return nil
	}
	return &contract.Retired{At: r.At, Reason: r.Reason, Note: r.Note}
}

func (v voice) encodeBlade(b store.Blade) contract.Blade {
	state := shopchoose.State(b.Blade, b.Condition)
	c := b.Condition
	low, high := c.LifeRange(b.Grind)
	out := contract.Blade{
		ID: b.ID, Version: b.Version, HookDeg: b.Rake(), HookKnown: !b.HookUnknown, Features: []struct {
			Name string `json:"name"`
			Why  string `json:"why"`
		}{},
		PhotoAt: b.PhotoAt, Retired: encodeRetired(b.Retired), MountedOn: b.MountedOn, SideClearanceMm: ptr.Positive(b.SideClearance()),
		Condition: contract.Condition{
			State: contract.ConditionState(c.Word(b.Grind)), Verdict: careVerdict(c, state),
			Sharpness: state.Sharpness, WearShare: c.WearShare(b.Grind), PitchLevel: state.Pitch,
			LifeM2: c.LifeM2(b.Grind), LifeLowM2: low, LifeHighM2: high, Confidence: c.Confidence(),
			Asked: c.Asked, Flaw: c.Flaw, Unfit: c.Unfit, Hit: c.Hit, Away: c.Away,
			Metres: c.Metres, MetresSinceWash: c.MetresWashed, MetresSinceSharpening: c.MetresSharp,
			Cuts: c.Cuts, Washes: c.Washes, Sharpenings: c.Sharpenings,
		},
	}
	wire.FillBlade(&out, b)
	for _, f := range b.Blade.Features() {
		out.Features = append(out.Features, struct {
			Name string `json:"name"`
			Why  string `json:"why"`
		}{v.Word(f.Name), wire.Sentence(v.Word(f.Why))})
	}
	if b.Teeth > 0 {
		out.PitchMm, out.GulletDepthMm = b.Pitch(), b.GulletDepth()
		out.Groove.RidgeMm = groove.Ridge(b.Blade)
		out.Groove.FlatEnoughFor = v.Say(groove.FlatEnoughFor(b.Blade))
	}
	out.Group = nil
	if b.Grind == blade.ATBR {
		out.Group = ptr.To(b.GroupSize())
	}
	return out
}

// withProfile adds the groove's bottom, which is too long for a list.
func withProfile(out contract.Blade, b store.Blade) contract.Blade {
	if b.Teeth > 0 {
		all := make([][]float64, 0, profilePoints)
		for _, p := range groove.Profile(b.Blade, profilePoints) {
			all = append(all, []float64{p[0].Mm(), p[1].Mm()})
		}
		out.Groove.ProfileMm = &all
	}
	return out
}

// profilePoints draw every grind's bottom without a visible corner cut off: the
// middle of the kerf is one of them.
const profilePoints = 33

func encodeSaw(w store.Saw) contract.Saw {
	record := wire.SawInput(w)
	out := contract.Saw{
		ID: w.ID, Version: w.Version, BushingsMm: append([]measure.Length{}, w.Bushings...), PowerLimitW: w.PowerLimitW(), Brake: record.Brake,
		Tolerances: record.Tolerances, HeldTo: wire.Tolerances(w.HeldTo()), HeelMm: w.Heel, HeelAt: w.HeelAt, FenceAt: w.FenceAt,
		MountedBladeID: w.Mounted, Retired: encodeRetired(w.Retired),
	}
	wire.FillSaw(&out, w)
	out.TiltDeg, out.TurnDeg = w.MostBevel(), w.MostMiter()
	if w.FenceAt != nil {
		out.FenceOpenMm = ptr.To(w.FenceOpen)
	}
	for _, t := range truing.Tests(w.Saw) {
		out.Tests = append(out.Tests, contract.TruingTest(t))
	}
	out.Directions = append(out.Directions, w.Kind.Directions()...)
	out.SpecialCuts = special.Kinds(w.Kind)
	return out
}
