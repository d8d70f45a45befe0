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
	"corte/internal/opt"
	"corte/internal/store"
)

// BladeOf reads a blade from the contract's record.
func BladeOf(in contract.BladeInput) (store.Blade, error) {
	var b store.Blade
	b.Make, b.KeptFor, b.Grind = in.Make, in.KeptFor, opt.Value(in.Grind)
	b.Name, b.Hangs, b.Note = in.Name, opt.Value(in.Hangs), opt.Value(in.Note)
	b.Diameter, b.Bore, b.Kerf = in.DiameterMm, in.BoreMm, in.KerfMm
	b.Plate, b.Gullet, b.Raker = opt.Value(in.PlateMm), opt.Value(in.GulletMm), opt.Value(in.RakerMm)
	b.Teeth, b.Group = in.Teeth, opt.Value(in.Group)
	b.Bevel, b.Hook, b.MaxRPM = opt.Value(in.BevelDeg), opt.Value(in.HookDeg), opt.Value(in.MaxRpm)
	b.Nails, b.Ferrous = opt.Value(in.Nails), opt.Value(in.Ferrous)
	b.Coating, b.Slots = "none", opt.Value(in.Slots)
	if in.Coating != nil {
		b.Coating = string(*in.Coating)
	}
	b.Price, b.Tip, b.Sharpened = opt.Value(in.Price), opt.Value(in.CarbideMm), opt.Value(in.SharpenedBefore)
	b.HookUnknown = in.HookDeg == nil && b.Teeth > 0
	b.Shoulder, b.Shear, b.Throwaway = opt.Value(in.Shoulder), opt.Value(in.Shear), opt.Value(in.Throwaway)
	b.Blade.Carbide, b.GulletShape = opt.Value(in.Carbide), opt.Value(in.GulletShape)
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
	set := groove.Set{Left: opt.Value(in.LeftMm), Right: opt.Value(in.RightMm), Wings: opt.Value(in.Wings), Ears: opt.Value(in.EarsMm)}
	var err error
	if set.Kind, err = groove.ParseKind(string(in.Kind)); err != nil {
		return set, err
	}
	set.Build = opt.Value(in.Build)
	for _, p := range opt.Value(in.Parts) {
		set.Parts = append(set.Parts, groove.Part{Thickness: p.ThicknessMm, Count: p.Count, Shim: opt.Value(p.Shim)})
	}
	for _, x := range opt.Value(in.Ranges) {
		set.Ranges = append(set.Ranges, groove.Range{Cutters: x.Cutters, Least: x.LeastMm, Most: x.MostMm,
			Start: x.StartMm, Turn: x.TurnMm})
	}
	return set, nil
}

// RecordOfSet is the inverse of SetOf.
func RecordOfSet(set groove.Set) contract.DadoSetInput {
	out := contract.DadoSetInput{Kind: contract.DadoSetInputKind(set.Kind.String()), LeftMm: opt.Known(set.Left), RightMm: opt.Known(set.Right),
		Wings: opt.Known(set.Wings), EarsMm: opt.Known(set.Ears)}
	if set.Build != saw.UnknownSide {
		out.Build = opt.Of(set.Build)
	}
	if len(set.Parts) > 0 {
		parts := make([]contract.DadoPart, len(set.Parts))
		for i, p := range set.Parts {
			parts[i] = contract.DadoPart{ThicknessMm: p.Thickness, Count: p.Count, Shim: opt.Known(p.Shim)}
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
		KerfMm: b.Kerf, PlateMm: opt.Known(b.Plate), Teeth: b.Teeth, Group: opt.Known(b.Group),
		MaxRpm: opt.Known(b.MaxRPM), GulletMm: opt.Known(b.Gullet), RakerMm: opt.Known(b.Raker),
		KeptFor: b.KeptFor, Nails: opt.Known(b.Nails), Ferrous: opt.Known(b.Ferrous), Hangs: opt.Known(b.Hangs), Note: opt.Known(b.Note),
		Slots: opt.Known(b.Slots), Price: opt.Known(b.Price), CarbideMm: opt.Known(b.Tip), SharpenedBefore: opt.Known(b.Sharpened),
		BevelDeg: opt.Known(b.Bevel), Shoulder: opt.Known(b.Shoulder), Shear: opt.Known(b.Shear), Throwaway: opt.Known(b.Throwaway),
	}
	if b.Blade.Carbide != blade.UnknownCarbide {
		out.Carbide = opt.Of(b.Blade.Carbide)
	}
	if b.GulletShape != blade.UnknownGullet {
		out.GulletShape = opt.Of(b.GulletShape)
	}
	if b.Coating != "" && b.Coating != "none" {
		out.Coating = opt.Of(contract.Coating(b.Coating))
	}
	if b.Set != nil {
		out.Set = opt.Of(RecordOfSet(*b.Set))
	}
	if b.Grind != 0 {
		out.Grind = opt.Of(b.Grind)
		if !b.HookUnknown {
			out.HookDeg = opt.Of(b.Hook)
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
	w.Name, w.Note = in.Name, opt.Value(in.Note)
	w.Sliding, w.DadoSets, w.Wheels, w.Steel = opt.Value(in.Sliding), opt.Value(in.DadoSets), opt.Value(in.Wheels), opt.Value(in.Steel)
	w.Diameter, w.Least, w.Arbor = in.DiameterMm, opt.Value(in.LeastMm), in.ArborMm
	w.RPM, w.MotorW, w.Volts, w.BreakerA = in.Rpm, in.MotorW, opt.Value(in.Volts), opt.Value(in.BreakerA)
	w.Knife, w.Reach, w.Reach45 = opt.Value(in.KnifeMm), in.ReachMm, opt.Value(in.Reach45Mm)
	w.Tilt, w.Turn = opt.Value(in.TiltDeg), opt.Value(in.TurnDeg)
	w.BelowTable, w.ChopWidth, w.Crosscut = opt.Value(in.BelowTableMm), opt.Value(in.ChopWidthMm), opt.Value(in.CrosscutMm)
	if in.Thread != nil {
		if w.Thread, err = saw.ParseThread(string(*in.Thread)); err != nil {
			return w, err
		}
	}
	w.Lock, w.Knockout = opt.Value(in.ArborLock), opt.Value(in.Knockout)
	w.WheelLead, w.FenceLead, w.ToBolt = opt.Value(in.WheelLeadMm), opt.Value(in.FenceLeadMm), opt.Value(in.ToBoltMm)
	w.ArborLength, w.Washer, w.Nut, w.WasherOff = opt.Value(in.ArborLengthMm), opt.Value(in.WasherMm), opt.Value(in.NutMm), opt.Value(in.WasherOff)
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
	w.FenceReach, w.Shoe = opt.Value(in.FenceReachMm), opt.Value(in.ShoeMm)
	w.Carriage, w.CarriageClamps = opt.Value(in.CarriageMm), opt.Value(in.CarriageClamps)
	w.Scoring = saw.Scoring{Diameter: opt.Value(in.ScoringDiameterMm), Kerf: opt.Value(in.ScoringKerfMm), RPM: opt.Value(in.ScoringRpm), Tilts: opt.Value(in.ScoringTilts)}
	if t := in.Tolerances; t != nil {
		w.Tolerances = &truing.Tolerances{HeelAim: t.HeelAimMm, HeelAct: t.HeelActMm,
			FenceOpen: t.FenceOpenMm, RunOutAim: t.RunoutAimMm, RunOutAct: t.RunoutActMm,
			TiltDeg: t.TiltDeg, GaugeDeg: t.GaugeDeg}
	}
	for _, b := range opt.Value(in.BushingsMm) {
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
		Name: w.Name, Kind: contract.SawInputKind(w.Kind.String()), Sliding: opt.Known(w.Sliding), DiameterMm: w.Diameter,
		LeastMm: opt.Known(w.Least), ArborMm: w.Arbor, Rpm: w.RPM, MotorW: w.MotorW, Volts: opt.Known(w.Volts),
		BreakerA: opt.Known(w.BreakerA), KnifeMm: opt.Known(w.Knife), DadoSets: opt.Known(w.DadoSets), Wheels: opt.Known(w.Wheels),
		Steel: opt.Known(w.Steel), ReachMm: w.Reach, Reach45Mm: opt.Known(w.Reach45), TiltDeg: opt.Known(w.Tilt),
		TurnDeg: opt.Known(w.Turn), BelowTableMm: opt.Known(w.BelowTable), ChopWidthMm: opt.Known(w.ChopWidth),
		CrosscutMm: opt.Known(w.Crosscut), Note: opt.Known(w.Note), ArborLock: opt.Known(w.Lock), Knockout: opt.Known(w.Knockout),
		WheelLeadMm: opt.Known(w.WheelLead), FenceLeadMm: opt.Known(w.FenceLead), ToBoltMm: opt.Known(w.ToBolt),
		ArborLengthMm: opt.Known(w.ArborLength), WasherMm: opt.Known(w.Washer), NutMm: opt.Known(w.Nut), WasherOff: opt.Known(w.WasherOff),
	}
	if w.NutSide != saw.UnknownSide {
		out.NutSide = opt.Of(contract.SawInputNutSide(w.NutSide.String()))
	}
	if w.TiltSide != saw.UnknownSide {
		out.TiltSide = opt.Of(contract.SawInputTiltSide(w.TiltSide.String()))
	}
	out.FenceReachMm, out.ShoeMm = opt.Known(w.FenceReach), opt.Known(w.Shoe)
	out.CarriageMm, out.CarriageClamps = opt.Known(w.Carriage), opt.Known(w.CarriageClamps)
	out.ScoringDiameterMm, out.ScoringKerfMm = opt.Known(w.Scoring.Diameter), opt.Known(w.Scoring.Kerf)
	out.ScoringRpm, out.ScoringTilts = opt.Known(w.Scoring.RPM), opt.Known(w.Scoring.Tilts)
	if w.Thread != saw.UnknownThread {
		out.Thread = opt.Of(contract.SawInputThread(w.Thread.String()))
	}
	if t := w.Tolerances; t != nil {
		out.Tolerances = opt.Of(RecordOfTolerances(*t))
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
