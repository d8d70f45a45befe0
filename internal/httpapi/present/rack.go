package present

import (
	"corte/core/blade"
	"corte/core/groove"
	"corte/core/measure"
	"corte/core/special"
	"corte/core/truing"
	"corte/internal/httpapi/contract"
	"corte/internal/ptr"
	shopchoose "corte/internal/shop/choose"
	"corte/internal/store"
	"corte/internal/wire"
)

func encodeRetired(r *store.Retired) *contract.Retired {
	if r == nil {
		return nil
	}
	return &contract.Retired{At: r.At, Reason: r.Reason, Note: r.Note}
}

func (v Voice) Blade(b store.Blade) contract.Blade {
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

// WithProfile adds the groove's bottom, which is too long for a list.
func WithProfile(out contract.Blade, b store.Blade) contract.Blade {
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

func Saw(w store.Saw) contract.Saw {
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
