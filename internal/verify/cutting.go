package verify

import (
	"errors"
	"fmt"
	"math"

	"corte/core/blade"
	"corte/core/cut"
	"corte/core/material"
	"corte/core/measure"
)

var cutting = kind(func(in struct {
	Saw   string `json:"saw"`
	Blade struct {
		D, B, Hook, Bevel float64
		Z, Group          int
		Grind             string
	} `json:"blade"`
	Height      float64  `json:"height_mm"`
	Thickness   float64  `json:"thickness_mm"`
	RPM         float64  `json:"rpm"`
	Material    string   `json:"material"`
	Finish      string   `json:"finish"`
	PowerLimit  float64  `json:"power_limit_w"`
	Sharpness   float64  `json:"sharpness"`
	PitchLevel  float64  `json:"pitch_level"`
	AcrossGrain bool     `json:"across_grain"`
	Heel        float64  `json:"heel_mm"`
	Support     float64  `json:"support"`
	Width       *float64 `json:"width_mm"`
	Length      float64  `json:"length_mm"`
	Through     *bool    `json:"through"`
	Spread      float64  `json:"spread_mm"`
	RunOut      float64  `json:"runout_mm"`
	Pieces      int      `json:"pieces"`
}) (any, error) {
	m, err := material.Get(in.Material)
	if err != nil {
		return nil, err
	}
	if !m.Kind.Modelled() {
		return nil, fmt.Errorf("%s is chosen by rule and has no feed range", m.Name)
	}
	grind, err := blade.ParseGrind(in.Blade.Grind)
	if err != nil {
		return nil, err
	}
	finish, err := cut.ParseFinish(in.Finish)
	if err != nil {
		return nil, err
	}
	support, err := supportOf(in.Support)
	if err != nil {
		return nil, err
	}
	motions := map[string]cut.Motion{"table": cut.Along, "circular": cut.Along, "chop": cut.Chop, "push": cut.Push}
	motion, ok := motions[in.Saw]
	if !ok {
		return nil, fmt.Errorf("unknown saw %q; use table, circular, chop or push", in.Saw)
	}
	b := blade.Blade{
		Diameter: measure.Length(in.Blade.D), Bore: 15.875, Kerf: measure.Length(in.Blade.B),
		Teeth: in.Blade.Z, Grind: grind, Group: in.Blade.Group, Bevel: in.Blade.Bevel, Hook: in.Blade.Hook,
	}
	if !(b.Diameter > 0 && b.Kerf > 0 && b.Teeth > 0) {
		return nil, errors.New("the blade's D, B and z must be over 0")
	}
	// The worked cases leave gullets out: one too deep to fill never binds.
	b.Gullet = math.MaxFloat64
	j := cut.Job{
		Material: m, Motion: motion, Finish: finish, Exit: support, Other: cut.Spare,
		Thickness: measure.Length(in.Thickness), Height: measure.Length(in.Height), Width: 100, Length: 1000,
		Pieces: in.Pieces,
	}
	// The length of a case is that of the cut itself.
	if length := measure.Length(in.Length); length > 0 {
		j.Width, j.Length = length, length
	}
	if in.AcrossGrain {
		j.Direction = cut.Crosscut
	}
	if in.Width != nil {
		j.Width = measure.Length(*in.Width)
	}
	if in.Through != nil && !*in.Through {
		j.Form, j.Depth = cut.Groove, j.Height
	}
	if err := j.Check(); err != nil {
		return nil, err
	}
	if motion != cut.Chop && !(in.Height > 0 && in.Height <= in.Blade.D/2) {
		return nil, fmt.Errorf("height_mm must be over 0 and at most the blade's radius")
	}
	if motion == cut.Chop && in.Width == nil {
		return nil, errors.New("width_mm is needed for a chop")
	}
	if !(in.RPM > 0 && in.PowerLimit > 0) {
		return nil, errors.New("rpm and power_limit_w must be over 0")
	}
	f := cut.Work(j, b, cut.Drive{RPM: in.RPM, PowerLimitW: in.PowerLimit, HandHeld: in.Saw == "circular"},
		cut.State{Sharpness: in.Sharpness, Pitch: in.PitchLevel, Heel: measure.Length(in.Heel), Spread: measure.Length(in.Spread), RunOut: measure.Length(in.RunOut)})
	w := f.Window
	exit := f.Exit.AngleDeg
	if motion == cut.Chop {
		// The worked cases give a chop's splinter at the back edge, but its
		// angle at the bottom face.
		exit = f.Other.AngleDeg
	}
	return obj{
		"feed_scorch": w.Scorch, "feed_low": w.Slowest, "feed_max": w.Fastest,
		"feed_limits": obj{"bog": w.Bog, "splinter": finite(w.Splinter), "hand": w.Hand, "wall": finite(w.Wall)},
		"limited_by":  w.FastBy.String(), "open": w.Open(), "room": w.Room(),
		"feed": f.Feed, "feed_easy": f.Paces.Easy, "feed_act": f.Acting.Feed, "push_n": f.PushN, "sec_per_300mm": f.Feed.SecondsPer300mm(),
		"power": f.PowerW, "load": f.Load, "dose": f.Dose, "burn": f.Burn,
		"splinter": f.Exit.Splinter, "wall_mark": f.WallMark, "minutes": f.Minutes(j, 1).Total() * float64(j.Count()), "arc": f.Arc, "teeth_in_cut": f.TeethInCut,
		"bite": f.ChipLoad, "mean_chip": f.MeanChip, "exit_deg": exit,
		"push_share": f.PushShare, "hold_share": f.HoldShare, "v": f.RimSpeed,
	}, nil
})

// finite is a bound as cases write it: null where it does not bind at all.
func finite(f measure.Feed) any {
	if math.IsInf(float64(f), 1) {
		return nil
	}
	return f
}

// supportOf finds the kind of support that has a factor.
func supportOf(u float64) (cut.Support, error) {
	for s := cut.Open; s < cut.Spare; s++ {
		if math.Abs(s.Factor()-u) < 1e-9 {
			return s, nil
		}
	}
	return 0, fmt.Errorf("no kind of support has the factor %v", u)
}
