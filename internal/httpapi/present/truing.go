package present

import (
	"corte/core/truing"
	"corte/internal/httpapi/contract"
	"corte/internal/ptr"
	shoptruing "corte/internal/shop/truing"
)

func (v Voice) Truing(test contract.TruingTest, t shoptruing.Truing) contract.TruingResult {
	out := contract.TruingResult{
		Test: test, Verdict: t.Verdict, Figure: t.Figure, FigureUnit: contract.TruingResultFigureUnit(t.Unit),
		Aim: ptr.Positive(t.Aim), Act: ptr.Positive(t.Act), Says: v.Each(t.Says), Do: v.Each(t.Do), DoubtfulFirst: t.First, DoubtfulSecond: t.Second,
		MarksApartMm: ptr.Positive(t.MarksApart), Left: encodeClearance(t.Left), Right: encodeClearance(t.Right),
	}
	if h := t.Heel; h != nil {
		out.TowardFenceMm, out.MoveAtBoltMm = ptr.To(h.TowardFence), ptr.To(h.MoveAtBolt)
	}
	if f := t.Fence; f != nil {
		out.OpenMm = ptr.To(f.Open)
	}
	if a := t.Adjustment; a != nil {
		out.MoveMm, out.Turns = ptr.To(a.Move), &a.Turns
	}
	if r := t.RunOut; r != nil {
		harmonic := func(h truing.Harmonic) contract.Harmonic {
			return contract.Harmonic{AmplitudeMm: h.Amplitude, PhaseDeg: h.PhaseDeg}
		}
		out.Runout = &contract.RunOut{MeanMm: r.Mean, SpreadMm: r.Spread, First: harmonic(r.First)}
		if r.Split {
			out.Runout.Arbor, out.Runout.Blade = ptr.To(harmonic(r.Arbor)), ptr.To(harmonic(r.Blade))
		}
	}
	return out
}

func encodeClearance(c *truing.Clearance) *contract.Clearance {
	if c == nil {
		return nil
	}
	out := contract.Clearance{RangeMm: c.Range, MeanMm: c.Mean, SdMm: c.SD, MedianMm: c.Median, MadMm: c.MAD,
		Proud: c.Proud, Grade: contract.ClearanceGrade(c.Grade.String())}
	if c.Slots != nil {
		out.BesideSlotsMm, out.RestMm = ptr.To(c.Slots.Beside), ptr.To(c.Slots.Rest)
	}
	return &out
}
