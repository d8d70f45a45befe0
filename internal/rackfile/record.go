// Package rackfile is the rack as a file: JSON with a published schema, or CSV.
// It reads strictly and row by row, so that one bad row does not spoil a file,
// and compares what it read with the rack that is there before anything is
// saved.
//
// The records are the contract's own inputs with an id beside them: what a file
// may hold is what a person may type, checked by the same schema.
package rackfile

import (
	"corte/core/blade"
	"corte/core/groove"
	"corte/core/measure"
	"corte/core/saw"
	"corte/core/truing"
	"corte/internal/httpapi/contract"
	"corte/internal/ptr"
	"corte/internal/store"
)

// BladeOf reads a blade from the contract's record.
func BladeOf(in contract.BladeInput) (store.Blade, error) {
	var b store.Blade
	b.Make, b.KeptFor, b.Grind = in.Make, in.KeptFor, ptr.Value(in.Grind)
	b.Name, b.Hangs, b.Note = in.Name, ptr.Value(in.Hangs), ptr.Value(in.Note)
	b.Diameter, b.Bore, b.Kerf = in.DiameterMm, in.BoreMm, in.KerfMm
	b.Plate, b.Gullet, b.Raker = ptr.Value(in.PlateMm), ptr.Value(in.GulletMm), ptr.Value(in.RakerMm)
	b.Teeth, b.Group = in.Teeth, ptr.Value(in.Group)
	b.Bevel, b.Hook, b.MaxRPM = ptr.Value(in.BevelDeg), ptr.Value(in.HookDeg), ptr.Value(in.MaxRpm)
	b.Nails, b.Ferrous = ptr.Value(in.Nails), ptr.Value(in.Ferrous)
	b.Coating, b.Slots = "none", ptr.Value(in.Slots)
	if in.Coating != nil {
		b.Coating = string(*in.Coating)
	}
	b.Price, b.Tip, b.Sharpened = ptr.Value(in.Price), ptr.Value(in.CarbideMm), ptr.Value(in.SharpenedBefore)
	b.HookUnknown = in.HookDeg == nil && b.Teeth > 0
	b.Shoulder, b.Shear, b.Throwaway = ptr.Value(in.Shoulder), ptr.Value(in.Shear), ptr.Value(in.Throwaway)
	b.Blade.Carbide, b.GulletShape = ptr.Value(in.Carbide), ptr.Value(in.GulletShape)
	if in.Set != nil {
		set, err := SetOf(*in.Set)
		if err != nil {
			return b, err
		}
		b.Set = &set
	}
	return b, nil
}

// SetOf reads what a dado set is made of from the contract's record.
func SetOf(in contract.DadoSetInput) (groove.Set, error) {
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

// RecordOfSet is the inverse of SetOf.
func RecordOfSet(set groove.Set) contract.DadoSetInput {
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

// RecordOfBlade is the inverse of BladeOf.
func RecordOfBlade(b store.Blade) contract.BladeInput {
	out := contract.BladeInput{
		Name: b.Name, Make: b.Make, DiameterMm: b.Diameter, BoreMm: b.Bore,
		KerfMm: b.Kerf, PlateMm: ptr.NonZero(b.Plate), Teeth: b.Teeth, Group: ptr.NonZero(b.Group),
		MaxRpm: ptr.NonZero(b.MaxRPM), GulletMm: ptr.NonZero(b.Gullet), RakerMm: ptr.NonZero(b.Raker),
		KeptFor: b.KeptFor, Nails: ptr.NonZero(b.Nails), Ferrous: ptr.NonZero(b.Ferrous), Hangs: ptr.NonZero(b.Hangs), Note: ptr.NonZero(b.Note),
		Slots: ptr.NonZero(b.Slots), Price: ptr.NonZero(b.Price), CarbideMm: ptr.NonZero(b.Tip), SharpenedBefore: ptr.NonZero(b.Sharpened),
		BevelDeg: ptr.NonZero(b.Bevel), Shoulder: ptr.NonZero(b.Shoulder), Shear: ptr.NonZero(b.Shear), Throwaway: ptr.NonZero(b.Throwaway),
	}
	if b.Blade.Carbide != blade.UnknownCarbide {
		out.Carbide = ptr.To(b.Blade.Carbide)
	}
	if b.GulletShape != blade.UnknownGullet {
		out.GulletShape = ptr.To(b.GulletShape)
	}
	if b.Coating != "" && b.Coating != "none" {
		out.Coating = ptr.To(contract.Coating(b.Coating))
	}
	if b.Set != nil {
		out.Set = ptr.To(RecordOfSet(*b.Set))
	}
	if b.Grind != 0 {
		out.Grind = ptr.To(b.Grind)
		if !b.HookUnknown {
			out.HookDeg = ptr.To(b.Hook)
		}
	}
	return out
}

// SawOf reads a saw from the contract's record.
func SawOf(in contract.SawInput) (store.Saw, error) {
	var w store.Saw
	var err error
	if w.Kind, err = saw.ParseKind(string(in.Kind)); err != nil {
		return w, err
	}
	w.Name, w.Note = in.Name, ptr.Value(in.Note)
	w.Sliding, w.DadoSets, w.Wheels, w.Steel = ptr.Value(in.Sliding), ptr.Value(in.DadoSets), ptr.Value(in.Wheels), ptr.Value(in.Steel)
	w.Diameter, w.Least, w.Arbor = in.DiameterMm, ptr.Value(in.LeastMm), in.ArborMm
	w.RPM, w.MotorW, w.Volts, w.BreakerA = in.Rpm, in.MotorW, ptr.Value(in.Volts), ptr.Value(in.BreakerA)
	w.Knife, w.Reach, w.Reach45 = ptr.Value(in.KnifeMm), in.ReachMm, ptr.Value(in.Reach45Mm)
	w.Tilt, w.Turn = ptr.Value(in.TiltDeg), ptr.Value(in.TurnDeg)
	w.BelowTable, w.ChopWidth, w.Crosscut = ptr.Value(in.BelowTableMm), ptr.Value(in.ChopWidthMm), ptr.Value(in.CrosscutMm)
	if in.Thread != nil {
		if w.Thread, err = saw.ParseThread(string(*in.Thread)); err != nil {
			return w, err
		}
	}
	w.Lock, w.Knockout = ptr.Value(in.ArborLock), ptr.Value(in.Knockout)
	w.WheelLead, w.FenceLead, w.ToBolt = ptr.Value(in.WheelLeadMm), ptr.Value(in.FenceLeadMm), ptr.Value(in.ToBoltMm)
	w.ArborLength, w.Washer, w.Nut, w.WasherOff = ptr.Value(in.ArborLengthMm), ptr.Value(in.WasherMm), ptr.Value(in.NutMm), ptr.Value(in.WasherOff)
	if in.NutSide != nil {
		if w.NutSide, err = saw.ParseSide(string(*in.NutSide)); err != nil {
			return w, err
		}
	}
	if in.TiltSide != nil {
		if w.TiltSide, err = saw.ParseSide(string(*in.TiltSide)); err != nil {
			return w, err
		}
	}
	w.FenceReach, w.Shoe = ptr.Value(in.FenceReachMm), ptr.Value(in.ShoeMm)
	w.Carriage, w.CarriageClamps = ptr.Value(in.CarriageMm), ptr.Value(in.CarriageClamps)
	w.Scoring = saw.Scoring{Diameter: ptr.Value(in.ScoringDiameterMm), Kerf: ptr.Value(in.ScoringKerfMm), RPM: ptr.Value(in.ScoringRpm), Tilts: ptr.Value(in.ScoringTilts)}
	if t := in.Tolerances; t != nil {
		w.Tolerances = &truing.Tolerances{HeelAim: t.HeelAimMm, HeelAct: t.HeelActMm,
			FenceOpen: t.FenceOpenMm, RunOutAim: t.RunoutAimMm, RunOutAct: t.RunoutActMm,
			TiltDeg: t.TiltDeg, GaugeDeg: t.GaugeDeg}
	}
	for _, b := range ptr.Value(in.BushingsMm) {
		w.Bushings = append(w.Bushings, measure.Length(b))
	}
	if k := in.Brake; k != nil {
		w.Brake = &saw.Brake{MinKerf: k.MinKerfMm, MaxKerf: k.MaxKerfMm,
			MinDiameter: k.MinDiameterMm, MaxDiameter: k.MaxDiameterMm}
	}
	return w, nil
}

// RecordOfTolerances writes what a saw is held to.
func RecordOfTolerances(t truing.Tolerances) contract.Tolerances {
	return contract.Tolerances{HeelAimMm: t.HeelAim, HeelActMm: t.HeelAct, FenceOpenMm: t.FenceOpen,
		RunoutAimMm: t.RunOutAim, RunoutActMm: t.RunOutAct, TiltDeg: t.TiltDeg, GaugeDeg: t.GaugeDeg}
}

// RecordOfSaw is the inverse of SawOf.
func RecordOfSaw(w store.Saw) contract.SawInput {
	out := contract.SawInput{
		Name: w.Name, Kind: contract.SawInputKind(w.Kind.String()), Sliding: ptr.NonZero(w.Sliding), DiameterMm: w.Diameter,
		LeastMm: ptr.NonZero(w.Least), ArborMm: w.Arbor, Rpm: w.RPM, MotorW: w.MotorW, Volts: ptr.NonZero(w.Volts),
		BreakerA: ptr.NonZero(w.BreakerA), KnifeMm: ptr.NonZero(w.Knife), DadoSets: ptr.NonZero(w.DadoSets), Wheels: ptr.NonZero(w.Wheels),
		Steel: ptr.NonZero(w.Steel), ReachMm: w.Reach, Reach45Mm: ptr.NonZero(w.Reach45), TiltDeg: ptr.NonZero(w.Tilt),
		TurnDeg: ptr.NonZero(w.Turn), BelowTableMm: ptr.NonZero(w.BelowTable), ChopWidthMm: ptr.NonZero(w.ChopWidth),
		CrosscutMm: ptr.NonZero(w.Crosscut), Note: ptr.NonZero(w.Note), ArborLock: ptr.NonZero(w.Lock), Knockout: ptr.NonZero(w.Knockout),
		WheelLeadMm: ptr.NonZero(w.WheelLead), FenceLeadMm: ptr.NonZero(w.FenceLead), ToBoltMm: ptr.NonZero(w.ToBolt),
		ArborLengthMm: ptr.NonZero(w.ArborLength), WasherMm: ptr.NonZero(w.Washer), NutMm: ptr.NonZero(w.Nut), WasherOff: ptr.NonZero(w.WasherOff),
	}
	if w.NutSide != saw.UnknownSide {
		out.NutSide = ptr.To(contract.SawInputNutSide(w.NutSide.String()))
	}
	if w.TiltSide != saw.UnknownSide {
		out.TiltSide = ptr.To(contract.SawInputTiltSide(w.TiltSide.String()))
	}
	out.FenceReachMm, out.ShoeMm = ptr.NonZero(w.FenceReach), ptr.NonZero(w.Shoe)
	out.CarriageMm, out.CarriageClamps = ptr.NonZero(w.Carriage), ptr.NonZero(w.CarriageClamps)
	out.ScoringDiameterMm, out.ScoringKerfMm = ptr.NonZero(w.Scoring.Diameter), ptr.NonZero(w.Scoring.Kerf)
	out.ScoringRpm, out.ScoringTilts = ptr.NonZero(w.Scoring.RPM), ptr.NonZero(w.Scoring.Tilts)
	if w.Thread != saw.UnknownThread {
		out.Thread = ptr.To(contract.SawInputThread(w.Thread.String()))
	}
	if t := w.Tolerances; t != nil {
		out.Tolerances = ptr.To(RecordOfTolerances(*t))
	}
	if len(w.Bushings) > 0 {
		out.BushingsMm = &w.Bushings
	}
	if k := w.Brake; k != nil {
		out.Brake = &struct {
			MaxDiameterMm measure.Length `json:"max_diameter_mm"`
			MaxKerfMm     measure.Length `json:"max_kerf_mm"`
			MinDiameterMm measure.Length `json:"min_diameter_mm"`
			MinKerfMm     measure.Length `json:"min_kerf_mm"`
		}{k.MaxDiameter, k.MaxKerf, k.MinDiameter, k.MinKerf}
	}
	return out
}
