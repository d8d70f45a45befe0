package verify

import (
	"errors"

	"corte/core/measure"
	"corte/core/saw"
	"corte/core/truing"
)

var heel = kind(func(in struct {
	Front float64 `json:"front_mm"`
	Rear  float64 `json:"rear_mm"`
	Span  float64 `json:"span_mm"`
	Bolt  float64 `json:"bolt_mm"`
}) (any, error) {
	h, err := truing.HeelOf(measure.Length(in.Front), measure.Length(in.Rear), measure.Length(in.Span), measure.Length(in.Bolt), truing.DialIndicator, truing.Right)
	return obj{"heel": h.Heel, "per_100": h.Per100, "move_at_bolt": h.MoveAtBolt, "angle_deg": h.AngleDeg}, err
})

var runout = kind(func(in struct {
	First  []measure.Length `json:"first_mm"`
	Turned []measure.Length `json:"turned_mm"`
}) (any, error) {
	r, err := truing.RunOutOf(in.First, in.Turned)
	out := obj{"mean": r.Mean, "spread": r.Spread, "amplitude": r.First.Amplitude, "phase_deg": r.First.PhaseDeg}
	if r.Split {
		out["arbor"], out["blade"] = r.Arbor.Amplitude, r.Blade.Amplitude
	}
	return out, err
})

var tilt = kind(func(in struct {
	Gap    float64 `json:"gap_mm"`
	Height float64 `json:"height_mm"`
}) (any, error) {
	deg, err := truing.Tilt(measure.Length(in.Gap), measure.Length(in.Height))
	return obj{"angle_deg": deg}, err
})

var fiveCut = kind(func(in struct {
	First  float64 `json:"first_mm"`
	Last   float64 `json:"last_mm"`
	Length float64 `json:"length_mm"`
}) (any, error) {
	g, err := truing.FiveCut(measure.Length(in.First), measure.Length(in.Last), measure.Length(in.Length))
	return obj{"error_per_length": g.PerLength, "angle_deg": g.AngleDeg}, err
})

var hook = kind(func(in struct {
	Offset float64 `json:"offset_mm"`
	Radius float64 `json:"radius_mm"`
}) (any, error) {
	deg, err := truing.Hook(measure.Length(in.Offset), measure.Length(in.Radius))
	return obj{"hook_deg": deg}, err
})

var bevelDepth = kind(func(in struct {
	Square float64 `json:"depth_0_mm"`
	Tilted float64 `json:"depth_45_mm"`
	Bevel  float64 `json:"bevel_deg"`
}) (any, error) {
	if !(in.Square > 0 && in.Tilted > 0 && in.Bevel >= 0 && in.Bevel < 90) {
		return nil, errors.New("both depths must be over 0 and bevel_deg 0 to 90")
	}
	s := saw.Saw{Reach: measure.Length(in.Square), Reach45: measure.Length(in.Tilted)}
	return obj{"depth_mm": s.ReachAt(in.Bevel)}, nil
})

var sideClearance = kind(func(in struct {
	Readings []measure.Length `json:"readings_mm"`
}) (any, error) {
	c, err := truing.ClearanceOf(in.Readings, nil)
	return obj{"range": c.Range, "mean": c.Mean, "sd": c.SD, "median": c.Median, "mad": c.MAD, "outliers": c.Proud}, err
})
