package history

import (
	"corte/core/blade"
	"corte/core/cut"
	"corte/core/learn"
	"corte/core/measure"
)

// Foretold is what the model's own table said of a cut before it was made, and
// with what. An edition of the model never reads another's figures as its own:
// they are worked anew from With, or left out.
type Foretold struct {
	Edition int      `json:"edition,omitempty"` // of the model; 0 is the first
	Heat    float64  `json:"heat"`              // dose over the table's scorch dose
	Load    float64  `json:"load"`              // share of the load that was allowed
	Exit    float64  `json:"exit"`              // splinter figures
	Other   *float64 `json:"other,omitempty"`
	With    *With    `json:"with,omitempty"`
}

// A With is blade, saw and state as they stood when the cut was made: all that
// the model needs beside the cut itself.
type With struct {
	Diameter    measure.Length `json:"diameter_mm"`
	Kerf        measure.Length `json:"kerf_mm"`
	Teeth       int            `json:"teeth"`
	Grind       string         `json:"grind"`
	Group       int            `json:"group,omitempty"`
	Bevel       float64        `json:"bevel_deg,omitempty"`
	Hook        float64        `json:"hook_deg"` // that was reckoned with
	Gullet      measure.Length `json:"gullet_mm,omitempty"`
	GulletShape string         `json:"gullet_shape,omitempty"`
	Shear       bool           `json:"shear,omitempty"`
	Shoulder    bool           `json:"shoulder,omitempty"`

	RPM        float64 `json:"rpm"`
	PowerLimit float64 `json:"power_limit_w"`
	HandHeld   bool    `json:"hand_held,omitempty"`

	Sharpness float64        `json:"sharpness"`
	Pitch     float64        `json:"pitch"`
	Heel      measure.Length `json:"heel_mm,omitempty"`
	Spread    measure.Length `json:"spread_mm,omitempty"`
	RunOut    measure.Length `json:"runout_mm,omitempty"`
}

// Foretell writes down what the table says of a job at a feed (the one that it
// suggests where that is 0), with all that it followed from.
func Foretell(j cut.Job, b blade.Blade, d cut.Drive, s cut.State, feed measure.Feed) *Foretold {
	with := &With{
		Diameter: b.Diameter, Kerf: b.Kerf, Teeth: b.Teeth, Grind: b.Grind.String(), Group: b.Group, Bevel: b.Bevel,
		Hook: b.Rake(), Gullet: b.Gullet, Shear: b.Shear, Shoulder: b.Shoulder,
		RPM: d.RPM, PowerLimit: d.PowerLimitW, HandHeld: d.HandHeld,
		Sharpness: s.Sharpness, Pitch: s.Pitch, Heel: s.Heel, Spread: s.Spread, RunOut: s.RunOut,
	}
	if b.GulletShape != blade.UnknownGullet {
		with.GulletShape = b.GulletShape.String()
	}
	return keep(learn.Foretell(j, b, d, s, feed), with)
}

func keep(f learn.Foretold, with *With) *Foretold {
	return &Foretold{Edition: cut.Edition, Heat: f.Heat, Load: f.Load, Exit: f.Exit, Other: f.Other, With: with}
}

// foretold is what this edition of the model foretold of a cut: as it was
// written, or worked anew from what the row holds. It is nil where neither can
// be, and for a cut whose material has no figures.
func (c Cut) foretold() *Foretold {
	if f := c.Foretold; f == nil || f.Edition == cut.Edition {
		return f
	}
	return c.Anew()
}

// Anew is what this edition of the model foretells of a row, worked from what
// the row holds: the feed at which the cut was really made among it.
func (c Cut) Anew() *Foretold {
	if c.Foretold == nil || c.Foretold.With == nil {
		return nil
	}
	w := c.Foretold.With
	if !(w.Teeth > 1 && w.RPM > 0 && w.PowerLimit > 0 && w.Kerf > 0 && w.Diameter > 2*c.Height) {
		return nil
	}
	j, err := c.job()
	if err != nil || !j.Material.Kind.Modelled() {
		return nil
	}
	grind, err := blade.ParseGrind(w.Grind)
	if err != nil {
		return nil
	}
	shape, err := blade.ParseGulletShape(w.GulletShape)
	if err != nil {
		return nil
	}
	b := blade.Blade{Diameter: w.Diameter, Kerf: w.Kerf, Teeth: w.Teeth, Grind: grind, Group: w.Group,
		Bevel: w.Bevel, Hook: w.Hook, Gullet: w.Gullet, GulletShape: shape, Shear: w.Shear, Shoulder: w.Shoulder}
	return keep(learn.Foretell(j, b, cut.Drive{RPM: w.RPM, PowerLimitW: w.PowerLimit, HandHeld: w.HandHeld},
		cut.State{Sharpness: w.Sharpness, Pitch: w.Pitch, Heel: w.Heel, Spread: w.Spread, RunOut: w.RunOut},
		c.RealFeed()), w)
}
