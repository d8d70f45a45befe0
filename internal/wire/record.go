package wire

import (
	"corte/core/groove"
	"corte/core/saw"
	"corte/core/truing"
	"corte/internal/httpapi/contract"
	"corte/internal/ptr"
	"corte/internal/record"
)

// ReadBlade reads a blade from the contract. The error is of its dado set.
func ReadBlade(in contract.BladeInput) (b record.Blade, err error) {
	readBladeFields(in, &b)
	b.Hook = ptr.Value(in.HookDeg)
	b.HookUnknown = in.HookDeg == nil && b.Teeth > 0
	if in.Set != nil {
		set, err := ReadSet(*in.Set)
		if err != nil {
			return b, err
		}
		b.Set = &set
	}
	return b, nil
}

// BladeInput is the inverse of ReadBlade.
func BladeInput(b record.Blade) contract.BladeInput {
	out := bladeInput(b)
	if b.Grind != 0 && !b.HookUnknown {
		out.HookDeg = ptr.To(b.Hook)
	}
	if b.Set != nil {
		out.Set = ptr.To(SetInput(*b.Set))
	}
	return out
}

// ReadSet reads what a dado set is made of from the contract.
func ReadSet(in contract.DadoSetInput) (groove.Set, error) {
	set := groove.Set{Left: ptr.Value(in.LeftMm), Right: ptr.Value(in.RightMm), Wings: ptr.Value(in.Wings), Ears: ptr.Value(in.EarsMm)}
	var err error
	if set.Kind, err = groove.ParseKind(string(in.Kind)); err != nil {
		return set, err
	}
	set.Build = ptr.Value(in.Build)
	for _, p := range ptr.Value(in.Parts) {
		set.Parts = append(set.Parts, groove.Part{Thickness: p.ThicknessMm, Count: p.Count, Shim: ptr.Value(p.Shim)})
	}
	for _, x := range ptr.Value(in.Ranges) {
		set.Ranges = append(set.Ranges, groove.Range{Cutters: x.Cutters, Least: x.LeastMm, Most: x.MostMm,
			Start: x.StartMm, Turn: x.TurnMm})
	}
	return set, nil
}

// SetInput is the inverse of ReadSet.
func SetInput(set groove.Set) contract.DadoSetInput {
	out := contract.DadoSetInput{Kind: contract.DadoSetInputKind(set.Kind.String()), LeftMm: ptr.NonZero(set.Left), RightMm: ptr.NonZero(set.Right),
		Wings: ptr.NonZero(set.Wings), EarsMm: ptr.NonZero(set.Ears)}
	if set.Build != saw.UnknownSide {
		out.Build = ptr.To(set.Build)
	}
	if len(set.Parts) > 0 {
		parts := make([]contract.DadoPart, len(set.Parts))
		for i, p := range set.Parts {
			parts[i] = contract.DadoPart{ThicknessMm: p.Thickness, Count: p.Count, Shim: ptr.NonZero(p.Shim)}
		}
		out.Parts = &parts
	}
	if len(set.Ranges) > 0 {
		ranges := make([]contract.DialRange, len(set.Ranges))
		for i, x := range set.Ranges {
			ranges[i] = contract.DialRange{Cutters: x.Cutters, LeastMm: x.Least, MostMm: x.Most, StartMm: x.Start, TurnMm: x.Turn}
		}
		out.Ranges = &ranges
	}
	return out
}

// ReadSaw reads a saw from the contract.
func ReadSaw(in contract.SawInput) (w record.Saw) {
	readSawFields(in, &w)
	w.Bushings = append(w.Bushings, ptr.Value(in.BushingsMm)...)
	if t := in.Tolerances; t != nil {
		w.Tolerances = &truing.Tolerances{HeelAim: t.HeelAimMm, HeelAct: t.HeelActMm, FenceOpen: t.FenceOpenMm,
			RunOutAim: t.RunoutAimMm, RunOutAct: t.RunoutActMm, TiltDeg: t.TiltDeg, GaugeDeg: t.GaugeDeg}
	}
	if k := in.Brake; k != nil {
		w.Brake = &saw.Brake{MinKerf: k.MinKerfMm, MaxKerf: k.MaxKerfMm, MinDiameter: k.MinDiameterMm, MaxDiameter: k.MaxDiameterMm}
	}
	return w
}

// SawInput is the inverse of ReadSaw.
func SawInput(w record.Saw) contract.SawInput {
	out := sawInput(w)
	if t := w.Tolerances; t != nil {
		out.Tolerances = ptr.To(Tolerances(*t))
	}
	if len(w.Bushings) > 0 {
		out.BushingsMm = &w.Bushings
	}
	if k := w.Brake; k != nil {
		out.Brake = &contract.Brake{MinKerfMm: k.MinKerf, MaxKerfMm: k.MaxKerf, MinDiameterMm: k.MinDiameter, MaxDiameterMm: k.MaxDiameter}
	}
	return out
}

// Tolerances writes what a saw is held to.
func Tolerances(t truing.Tolerances) contract.Tolerances {
	return contract.Tolerances{HeelAimMm: t.HeelAim, HeelActMm: t.HeelAct, FenceOpenMm: t.FenceOpen,
		RunoutAimMm: t.RunOutAim, RunoutActMm: t.RunOutAct, TiltDeg: t.TiltDeg, GaugeDeg: t.GaugeDeg}
}
