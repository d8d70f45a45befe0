// Package rackfile is the rack as a file: JSON with a published schema, or CSV.
// It reads strictly and row by row, so that one bad row does not spoil a file,
// and compares what it read with the rack that is there before anything is
// saved.
//
// The records are the contract's own inputs with an id beside them: what a file
// may hold is what a person may type, checked by the same schema.
package rackfile

import (
	"github.com/google/uuid"

	"corte/core/blade"
	"corte/core/groove"
	"corte/core/measure"
	"corte/core/saw"
	"corte/core/truing"
	"corte/internal/httpapi/contract"
	"corte/internal/store"
)

// BladeOf reads a blade from the contract's record.
func BladeOf(in contract.BladeInput) (store.Blade, error) {
	var b store.Blade
	b.Make, b.KeptFor, b.Grind = in.Make, in.KeptFor, value(in.Grind)
	b.Name, b.Hangs, b.Note = in.Name, value(in.Hangs), value(in.Note)
	b.Diameter, b.Bore, b.Kerf = in.DiameterMm, in.BoreMm, in.KerfMm
	b.Plate, b.Gullet, b.Raker = value(in.PlateMm), value(in.GulletMm), value(in.RakerMm)
	b.Teeth, b.Group = in.Teeth, value(in.Group)
	b.Bevel, b.Hook, b.MaxRPM = value(in.BevelDeg), value(in.HookDeg), value(in.MaxRpm)
	b.Nails, b.Ferrous = value(in.Nails), value(in.Ferrous)
	b.Coating, b.Slots = "none", value(in.Slots)
	if in.Coating != nil {
		b.Coating = string(*in.Coating)
	}
	b.Price, b.Tip, b.Sharpened = value(in.Price), value(in.CarbideMm), value(in.SharpenedBefore)
	b.HookUnknown = in.HookDeg == nil && b.Teeth > 0
	b.Shoulder, b.Shear, b.Throwaway = value(in.Shoulder), value(in.Shear), value(in.Throwaway)
	b.Blade.Carbide, b.GulletShape = value(in.Carbide), value(in.GulletShape)
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
	set := groove.Set{Left: value(in.LeftMm), Right: value(in.RightMm), Wings: value(in.Wings), Ears: value(in.EarsMm)}
	var err error
	if set.Kind, err = groove.ParseKind(string(in.Kind)); err != nil {
		return set, err
	}
	set.Build = value(in.Build)
	for _, p := range value(in.Parts) {
		set.Parts = append(set.Parts, groove.Part{Thickness: p.ThicknessMm, Count: p.Count, Shim: value(p.Shim)})
	}
	for _, x := range value(in.Ranges) {
		set.Ranges = append(set.Ranges, groove.Range{Cutters: x.Cutters, Least: x.LeastMm, Most: x.MostMm,
			Start: x.StartMm, Turn: x.TurnMm})
	}
	return set, nil
}

// RecordOfSet is the inverse of SetOf.
func RecordOfSet(set groove.Set) contract.DadoSetInput {
	out := contract.DadoSetInput{Kind: contract.DadoSetInputKind(set.Kind.String()), LeftMm: known(set.Left), RightMm: known(set.Right),
		Wings: known(set.Wings), EarsMm: known(set.Ears)}
	if set.Build != saw.UnknownSide {
		out.Build = ptr(set.Build)
	}
	if len(set.Parts) > 0 {
		parts := make([]contract.DadoPart, len(set.Parts))
		for i, p := range set.Parts {
			parts[i] = contract.DadoPart{ThicknessMm: p.Thickness, Count: p.Count, Shim: known(p.Shim)}
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
		KerfMm: b.Kerf, PlateMm: known(b.Plate), Teeth: b.Teeth, Group: known(b.Group),
		MaxRpm: known(b.MaxRPM), GulletMm: known(b.Gullet), RakerMm: known(b.Raker),
		KeptFor: b.KeptFor, Nails: known(b.Nails), Ferrous: known(b.Ferrous), Hangs: known(b.Hangs), Note: known(b.Note),
		Slots: known(b.Slots), Price: known(b.Price), CarbideMm: known(b.Tip), SharpenedBefore: known(b.Sharpened),
		BevelDeg: known(b.Bevel), Shoulder: known(b.Shoulder), Shear: known(b.Shear), Throwaway: known(b.Throwaway),
	}
	if b.Blade.Carbide != blade.UnknownCarbide {
		out.Carbide = ptr(b.Blade.Carbide)
	}
	if b.GulletShape != blade.UnknownGullet {
		out.GulletShape = ptr(b.GulletShape)
	}
	if b.Coating != "" && b.Coating != "none" {
		out.Coating = ptr(contract.Coating(b.Coating))
	}
	if b.Set != nil {
		out.Set = ptr(RecordOfSet(*b.Set))
	}
	if b.Grind != 0 {
		out.Grind = ptr(b.Grind)
		if !b.HookUnknown {
			out.HookDeg = ptr(b.Hook)
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
	w.Name, w.Note = in.Name, value(in.Note)
	w.Sliding, w.DadoSets, w.Wheels, w.Steel = value(in.Sliding), value(in.DadoSets), value(in.Wheels), value(in.Steel)
	w.Diameter, w.Least, w.Arbor = in.DiameterMm, value(in.LeastMm), in.ArborMm
	w.RPM, w.MotorW, w.Volts, w.BreakerA = in.Rpm, in.MotorW, value(in.Volts), value(in.BreakerA)
	w.Knife, w.Reach, w.Reach45 = value(in.KnifeMm), in.ReachMm, value(in.Reach45Mm)
	w.Tilt, w.Turn = value(in.TiltDeg), value(in.TurnDeg)
	w.BelowTable, w.ChopWidth, w.Crosscut = value(in.BelowTableMm), value(in.ChopWidthMm), value(in.CrosscutMm)
	if in.Thread != nil {
		if w.Thread, err = saw.ParseThread(string(*in.Thread)); err != nil {
			return w, err
		}
	}
	w.Lock, w.Knockout = value(in.ArborLock), value(in.Knockout)
	w.WheelLead, w.FenceLead, w.ToBolt = value(in.WheelLeadMm), value(in.FenceLeadMm), value(in.ToBoltMm)
	w.ArborLength, w.Washer, w.Nut, w.WasherOff = value(in.ArborLengthMm), value(in.WasherMm), value(in.NutMm), value(in.WasherOff)
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
	w.FenceReach = value(in.FenceReachMm)
	if t := in.Tolerances; t != nil {
		w.Tolerances = &truing.Tolerances{HeelAim: t.HeelAimMm, HeelAct: t.HeelActMm,
			FenceOpen: t.FenceOpenMm, RunOutAim: t.RunoutAimMm, RunOutAct: t.RunoutActMm,
			TiltDeg: t.TiltDeg, GaugeDeg: t.GaugeDeg}
	}
	for _, b := range value(in.BushingsMm) {
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
		Name: w.Name, Kind: contract.SawInputKind(w.Kind.String()), Sliding: known(w.Sliding), DiameterMm: w.Diameter,
		LeastMm: known(w.Least), ArborMm: w.Arbor, Rpm: w.RPM, MotorW: w.MotorW, Volts: known(w.Volts),
		BreakerA: known(w.BreakerA), KnifeMm: known(w.Knife), DadoSets: known(w.DadoSets), Wheels: known(w.Wheels),
		Steel: known(w.Steel), ReachMm: w.Reach, Reach45Mm: known(w.Reach45), TiltDeg: known(w.Tilt),
		TurnDeg: known(w.Turn), BelowTableMm: known(w.BelowTable), ChopWidthMm: known(w.ChopWidth),
		CrosscutMm: known(w.Crosscut), Note: known(w.Note), ArborLock: known(w.Lock), Knockout: known(w.Knockout),
		WheelLeadMm: known(w.WheelLead), FenceLeadMm: known(w.FenceLead), ToBoltMm: known(w.ToBolt),
		ArborLengthMm: known(w.ArborLength), WasherMm: known(w.Washer), NutMm: known(w.Nut), WasherOff: known(w.WasherOff),
	}
	if w.NutSide != saw.UnknownSide {
		out.NutSide = ptr(contract.SawInputNutSide(w.NutSide.String()))
	}
	if w.TiltSide != saw.UnknownSide {
		out.TiltSide = ptr(contract.SawInputTiltSide(w.TiltSide.String()))
	}
	out.FenceReachMm = known(w.FenceReach)
	if w.Thread != saw.UnknownThread {
		out.Thread = ptr(contract.SawInputThread(w.Thread.String()))
	}
	if t := w.Tolerances; t != nil {
		out.Tolerances = ptr(RecordOfTolerances(*t))
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

func ptr[T any](v T) *T { return &v }

// known leaves out what stands for not known, or not there.
func known[T comparable](v T) *T {
	var zero T
	if v == zero {
		return nil
	}
	return &v
}

func value[T any](p *T) T {
	if p == nil {
		var zero T
		return zero
	}
	return *p
}

// idIn is the id that a file's row has in a shop: its own where it came from
// there, else one that is the same each time the file is read.
func idIn(shop, id uuid.UUID) uuid.UUID { return uuid.NewSHA1(shop, id[:]) }
