package wire

import (
	"cmp"
	"math"

	"corte/core/blade"
	"corte/core/measure"
	"corte/core/say"
	"corte/core/sight"
	"corte/core/truing"
	"corte/internal/httpapi/contract"
	"corte/internal/ptr"
	"corte/internal/record"
	"corte/internal/refusal"
)

// Places are those of a photo that somebody has shown, in shares of its sides.
func Places(shares *[]float64) (out []sight.Point) {
	flat := ptr.Value(shares)
	for i := 0; i+1 < len(flat); i += 2 {
		out = append(out, sight.Point{X: flat[i], Y: flat[i+1]})
	}
	return out
}

// spots are places of a picture, in shares of its sides.
func spots(all []sight.Point, wide, high int) []contract.Spot {
	out := make([]contract.Spot, len(all))
	for i, p := range all {
		out[i] = contract.Spot{X: round4(p.X / float64(wide)), Y: round4(p.Y / float64(high))}
	}
	return out
}

// WallLook is what was read off a photo of a cut's wall, with what a turn of the blade
// and a tooth would leave on it.
func (v Voice) WallLook(w sight.Wall, wide, high int, t sight.Turn) contract.WallLook {
	out := contract.WallLook{
		Corners: spots(w.Corners[:], wide, high), LengthMm: to4(w.Length), Brown: round4(w.Brown), Black: round4(w.Black), Spots: w.Spots,
		Grade: contract.Wall(w.Grade()), Crossing: w.Crossing, Signs: append([]string{}, w.Signs(t)...), Says: []string{},
		SpacingMm: ptr.Positive(to4(w.Spacing)), TurnMm: ptr.Positive(to4(t.Turn)), ToothMm: ptr.Positive(to4(t.Tooth)),
	}
	if w.Spacing > 0 {
		out.SpacingTrust = ptr.To(sight.TrustIn(w.SpacingSure))
	}
	for _, share := range w.Along {
		out.Along = append(out.Along, round4(share))
	}
	for _, line := range w.Says(t) {
		out.Says = append(out.Says, v.Sentence(line))
	}
	return out
}

// EdgeLook is what was read off a photo of a cut's edge.
func (v Voice) EdgeLook(e sight.Edge, wide, high int) contract.EdgeLook {
	out := contract.EdgeLook{
		Ends: spots(e.Ends[:], wide, high), LengthMm: to4(e.Length), Splinters: []contract.SplinterSeen{}, DeepestMm: to4(e.Deepest()), Share: round4(e.Share),
		Fibres: e.Fibres, Grade: contract.Splinters(e.Grade()), Signs: append([]string{}, e.Signs()...), Says: []string{},
	}
	for _, s := range e.Splinters {
		out.Splinters = append(out.Splinters, contract.SplinterSeen{From: round4(s.From), To: round4(s.To), DeepMm: to4(s.Deep)})
	}
	for _, line := range e.Says() {
		out.Says = append(out.Says, v.Sentence(line))
	}
	return out
}

// Turn is what a turn of a blade and one of its teeth leave on a wall at a feed; nothing
// where any of them is not known.
func Turn(w record.Saw, b record.Blade, feed float64) sight.Turn {
	if w.RPM <= 0 || b.Teeth <= 0 || feed <= 0 {
		return sight.Turn{}
	}
	turn := 1000 * feed / w.RPM
	return sight.Turn{Turn: turn, Tooth: turn / float64(b.Teeth)}
}

// Look is what was read off a photo of a blade, and the blades of a rack that it may
// be.
func (v Voice) Look(b sight.Blade, wide, high int, rack []record.Blade) contract.BladeLook {
	teeth := func(all []sight.Place) []int {
		out := make([]int, len(all))
		for i, p := range all {
			out[i] = p.Tooth
		}
		return out
	}
	out := contract.BladeLook{
		Teeth: b.Teeth, TeethSure: b.TeethSure, HookDeg: b.Hook, HookSure: b.HookSure, Group: b.Group, Slots: b.Slots,
		Missing: teeth(b.Missing), Short: teeth(b.Short), Bent: teeth(b.Bent), Rim: spots(b.Rim, wide, high), Bore: spots(b.Bore, wide, high), Tips: spots(b.Tips, wide, high),
		TeethTrust: sight.TrustIn(b.TeethSure), HookTrust: sight.TrustIn(b.HookSure),
		BoreRatio: ptr.Positive(round4(b.BoreRatio)), GulletRatio: round4(b.Gullet / 2), Doubts: []string{}, Alike: []contract.AlikeBlade{},
	}
	if out.TeethTrust != sight.Doubtful {
		out.Take.Teeth, out.Take.Group = &b.Teeth, ptr.NonZero(b.Group)
	}
	if out.HookTrust != sight.Doubtful {
		out.Take.HookDeg = ptr.To(math.Round(2*b.Hook) / 2)
	}
	for _, d := range b.Doubts() {
		out.Doubts = append(out.Doubts, v.Sentence(d))
	}
	blades := make([]blade.Blade, len(rack))
	for i, r := range rack {
		blades[i] = r.Blade
	}
	for _, m := range b.Alike(blades) {
		r := rack[m.Index]
		out.Alike = append(out.Alike, contract.AlikeBlade{BladeID: r.ID, Name: r.Name, Agrees: append([]sight.Trait{}, m.Agrees...), Differs: append([]sight.Trait{}, m.Differs...)})
	}
	return out
}

// Unmarked is what the readings of a blade that has nothing written on it come to.
func Unmarked(in contract.UnmarkedReadings) (out contract.UnmarkedBlade, err error) {
	if in.GroupTeeth != nil && in.Groups != nil {
		out.Teeth = ptr.To(*in.GroupTeeth * *in.Groups)
	}
	if in.OffsetMm != nil && in.DiameterMm != nil {
		hook, err := truing.Hook(*in.OffsetMm, *in.DiameterMm/2)
		if err != nil {
			return out, &refusal.Error{Reason: refusal.Invalid, Field: "offset_mm", What: say.Error(err)}
		}
		out.HookDeg = &hook
	}
	if in.KerfMm != nil && in.PlateMm != nil {
		if *in.PlateMm >= *in.KerfMm {
			return out, refusal.Of("plate_mm", "the plate is as thick as the kerf, so the blade would rub. Measure across two neighboring tips, and the plate between them")
		}
		out.SideClearanceMm = ptr.To((*in.KerfMm - *in.PlateMm) / 2)
	}
	if in.BoreRatio != nil { // of bore and diameter one gives the other
		switch ratio := measure.Length(*in.BoreRatio); {
		case in.BoreMm != nil:
			out.BoreMm, out.DiameterMm = in.BoreMm, ptr.To(whole(*in.BoreMm/ratio))
		case in.DiameterMm != nil:
			out.DiameterMm, out.BoreMm = in.DiameterMm, ptr.To(whole(10**in.DiameterMm*ratio)/10)
		}
	}
	if in.GulletRatio != nil {
		if d := cmp.Or(out.DiameterMm, in.DiameterMm); d != nil {
			out.GulletMm = ptr.To(whole(10**d*measure.Length(*in.GulletRatio)) / 10)
		}
	}
	return out, nil
}

// whole is a length to a millimetre: a photo shows no more of it.
func whole(l measure.Length) measure.Length { return measure.Length(math.Round(float64(l))) }

// to4 is a length to as much as a photo or a feed can say of it.
func to4(mm float64) measure.Length { return measure.Length(round4(mm)) }

func round4(x float64) float64 { return math.Round(1e4*x) / 1e4 }
