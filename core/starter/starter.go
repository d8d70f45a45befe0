// Package starter has the usual numbers of each kind of saw and of the blades
// that go with it, so that a new shop gets a plan before it has filled in a
// form. They are guesses, to be corrected from the saw and the blade. Tooth
// counts, hooks and kerfs are from craft section 2, scaled to the diameter by
// tooth spacing; speeds and powers are our judgement.
package starter

import (
	"fmt"
	"math"

	"corte/core/blade"
	"corte/core/measure"
	"corte/core/saw"
)

const tenInch = measure.Length(254) // the diameter that the craft's counts are for

// Saw is a saw of a kind as it usually is.
func Saw(k saw.Kind) saw.Saw {
	switch k {
	case saw.Miter:
		return OfDiameter(saw.Saw{Kind: k, Diameter: 305, RPM: 3800, MotorW: 1500})
	case saw.Circular:
		return OfDiameter(saw.Saw{Kind: k, Diameter: 184, RPM: 5200, MotorW: 1200})
	}
	return OfDiameter(saw.Saw{Kind: saw.Table, Diameter: tenInch, RPM: 4000, MotorW: 1300})
}

// reachShare is how high or deep a saw's blade goes, of its diameter.
var reachShare = map[saw.Kind]float64{saw.Table: 0.31, saw.Miter: 0.32, saw.Circular: 0.34}

// OfDiameter fills in what follows from the diameter of a saw's blade: its
// arbor and its reach.
func OfDiameter(s saw.Saw) saw.Saw {
	s.Arbor = boreOf(s.Diameter)
	s.Reach = measure.Length(math.Floor(s.Diameter.Mm() * reachShare[s.Kind]))
	return s
}

// boreOf is 1 in on 12 in saws and up, 5/8 in below (craft section 2).
func boreOf(d measure.Length) measure.Length {
	if d >= 300 {
		return 25.4
	}
	return 15.875
}

// A Blade is a usual one, with what it is for.
type Blade struct {
	ID    string // such as rip
	Name  string // that it could go by
	For   string // a phrase
	Blade blade.Blade
}

// kind is a usual blade for 254 mm.
type kind struct {
	id, name, does string
	teeth          int
	grind          blade.Grind
	hook, bevel    float64
	use            blade.Use
	on             saw.Kind
}

var kinds = []kind{
	{"rip", "Rip", "fast along the grain, rough across it", 24, blade.FTG, 20, 0, blade.UseRip, saw.Table},
	{"general", "General", "a bit of everything", 40, blade.ATB, 15, 15, blade.UseGeneral, saw.Table},
	{"combination", "Combination", "rips and crosscuts, nearly flat grooves", 50, blade.ATBR, 12, 12, blade.UseGeneral, saw.Table},
	{"crosscut", "Crosscut", "clean ends", 60, blade.ATB, 10, 20, blade.UseCrosscut, saw.Table},
	{"veneer", "Veneer", "veneered sheets. Dulls quickly in anything dirty", 80, blade.HighATB, 5, 35, blade.UseSheet, saw.Table},
	{"laminate", "Laminate", "melamine, plastics, soft metal", 80, blade.TCG, -3, 0, blade.UseSheet, saw.Table},

	{"chop", "Chop", "framing and battens", 40, blade.ATB, 5, 15, blade.UseGeneral, saw.Miter},
	{"ends", "Ends", "clean ends and miters", 66, blade.ATB, -2, 20, blade.UseCrosscut, saw.Miter},
	{"trim", "Trim", "aluminum and plastic trim", 80, blade.TCG, -5, 0, blade.UseMetal, saw.Miter},

	{"framing", "Framing", "studs and sheets, rough cuts", 33, blade.ATB, 18, 15, blade.UseDirty, saw.Circular},
	{"finish", "Finish", "sheet with a clean face", 55, blade.ATB, 12, 15, blade.UseSheet, saw.Circular},
	{"board", "Board", "melamine and plastics", 66, blade.TCG, -2, 0, blade.UsePlastic, saw.Circular},
}

// ofGroup are the teeth of one group of a combination blade.
const ofGroup = 5

// Kerfs of blades for saws that stand, and for those that are carried.
const (
	fullKerf = measure.Length(3.2)
	thinKerf = measure.Length(1.8)
)

// fullPower is what a full kerf wants, W (craft section 3); below it a saw that
// stands is given thin blades.
const (
	fullPower    = 1250
	standingThin = measure.Length(2.4)
)

// Blades lists the usual blades of a saw, at its diameter and bore.
func Blades(s saw.Saw) []Blade {
	kerf := fullKerf
	switch {
	case s.Kind == saw.Circular:
		kerf = thinKerf
	case s.PowerLimitW() < fullPower:
		kerf = standingThin
	}
	var out []Blade
	for _, k := range kinds {
		if k.on != s.Kind {
			continue
		}
		b := blade.Blade{Diameter: s.Diameter, Bore: s.Arbor, Kerf: kerf, Teeth: teethAt(k, s.Diameter), Grind: k.grind, Hook: k.hook, Bevel: k.bevel, KeptFor: k.use}
		if k.grind == blade.ATBR {
			b.Group = ofGroup
		}
		out = append(out, Blade{k.id, fmt.Sprintf("%s %d", k.name, b.Teeth), k.does, b})
	}
	return out
}

// teethAt keeps the spacing of a kind of blade at another diameter, in whole
// pairs of teeth, or groups of them.
func teethAt(k kind, d measure.Length) int {
	step := 2.0
	if k.grind == blade.ATBR {
		step = ofGroup
	}
	return int(max(2, math.Round(float64(k.teeth)*d.Mm()/tenInch.Mm()/step)) * step)
}
