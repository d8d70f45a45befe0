// Package job reads a list of cuts that somebody types or pastes, sorts its rows
// into the stages of a day, counts ticks, and learns how long the shop really
// takes: craft section 16.
package job

import (
	"corte/core/cut"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/say"
	"corte/core/word"
)

// A Stage is what must be over before the next begins.
type Stage uint8

const (
	ByRule    Stage = iota // nothing said: the rule of thumb decides
	Rough                  // broken down over size, before boards move and are flattened
	Rips                   // to width, on stock that is flat and straight
	Crosscuts              // to length, to a stop
	Sheets                 // sheet goods to size
	Joints                 // grooves, rabbets, cheeks and folds, with test pieces
)

//corte:enum Stage parse blank
var stageNames = word.Names{Kind: "stage", Of: []string{"by rule", "rough", "rips", "crosscuts", "sheets", "joints"}}

// A Row is pieces alike, before a saw and a blade are chosen for them.
type Row struct {
	Name     string `json:"name"`
	Assembly string `json:"assembly,omitempty"` // that the pieces are parts of; empty for none
	cut.Part
	Stage Stage `json:"stage"` // ByRule leaves it to In
}

// In is the stage that a row is cut in: what was said, or the rule of thumb. What
// is cut rough comes first, since it is cut again; joints come last, since they
// are fitted to what the other cuts left.
func (r Row) In() Stage {
	switch {
	case r.Stage != ByRule:
		return r.Stage
	case r.Form != cut.Through:
		return Joints
	case r.Finish == cut.Rough:
		return Rough
	case r.Direction == cut.Sheet:
		return Sheets
	case r.Direction == cut.Rip:
		return Rips
	}
	return Crosscuts
}

// Check says what of a row cannot be, whatever saw it comes to.
func (r Row) Check() []Fault {
	var out []Fault
	fault := func(field, form string, with ...any) { out = append(out, Fault{field, say.Of(form, with...)}) }
	if _, err := material.Get(r.Material); err != nil {
		fault("material", "enter a material, as in the list of materials or as a lumber yard names it")
	}
	if r.Pieces < 1 || r.Pieces > cut.MostPieces {
		fault("pieces", "enter the number of pieces, 1 to 9999")
	}
	for _, x := range [...]struct {
		field, name string
		l, lo, hi   measure.Length
	}{
		{"thickness_mm", "thick", r.Thickness, 0.5, 400},
		{"width_mm", "wide", r.Width, 1, 5000},
		{"length_mm", "long", r.Length, 1, 20_000},
	} {
		switch {
		case x.l == 0:
			fault(x.field, "say how %s", say.Word(x.name))
		case !(x.l >= x.lo && x.l <= x.hi):
			fault(x.field, "%s %s isn't possible. It must be between %s and %s", x.l, say.Word(x.name), x.lo, x.hi)
		}
	}
	if r.Form != cut.Through && !(r.Depth >= 0.5 && r.Depth < r.Thickness) {
		fault("depth_mm", "a %s doesn't go through. Enter a depth less than the thickness", r.Form)
	}
	for _, x := range [...]struct {
		field string
		deg   float64
	}{{"bevel_deg", r.BevelDeg}, {"miter_deg", r.MiterDeg}} {
		if !(x.deg >= 0 && x.deg <= 60) {
			fault(x.field, "an angle is between 0 and 60 degrees, measured from square")
		}
	}
	return out
}

// A Tick is pieces of a row that were made, or spoilt. A slip is taken back by
// a tick below zero, so that ticks of two people add up in any order.
type Tick struct{ Made, Spoilt int }

// Progress is what ticks come to.
type Progress struct{ Made, Spoilt, Left int }

// After is how far a row is after its ticks. A spoilt piece is wood and time
// gone, and is still to be made.
func (r Row) After(ticks []Tick) Progress {
	var p Progress
	for _, t := range ticks {
		p.Made += t.Made
		p.Spoilt += t.Spoilt
	}
	p.Made, p.Spoilt = max(0, p.Made), max(0, p.Spoilt)
	p.Left = max(0, r.Pieces-p.Made)
	return p
}
