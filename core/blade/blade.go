// Package blade describes one circular blade by the numbers that can be read
// or measured off it: craft section 2.
//
// A Blade is a small value. It says nothing about how sharp or clean the blade
// is now; that is folded from its log by package care.
package blade

import (
	"math"

	"corte/core/fault"
	"corte/core/measure"
	"corte/core/say"
	"corte/core/word"
)

// A Grind is the shape to which the tips of a blade are ground.
type Grind uint8

// The grinds, from craft section 2. The zero Grind is unknown and not valid.
const (
	_       Grind = iota
	FTG           // flat top: every tooth a chisel
	ATB           // alternate top bevel: knife points left and right
	HighATB       // alternate bevel of 30 degrees and more
	ATBR          // groups of ATB teeth, each group with one flat raker
	TCG           // triple chip: a chamfered tooth leads a flat one
	OneWay        // all teeth bevelled to one side, for dovetails
	Conical       // kerf widens with depth, for scoring units
)

var (
	//corte:enum Grind parse unread
	grindNames = word.Names{Kind: "grind", Of: []string{FTG: "FTG", ATB: "ATB", HighATB: "HIATB", ATBR: "ATBR", TCG: "TCG", OneWay: "ONEWAY", Conical: "CONICAL"}}
	grindWords = [...]string{FTG: "flat top", ATB: "alternate bevel", HighATB: "high alternate bevel", ATBR: "alternate bevel with raker", TCG: "triple chip", OneWay: "one-way bevel", Conical: "conical"}
)

// Grinds lists every grind in the order of the constants.
func Grinds() []Grind { return []Grind{FTG, ATB, HighATB, ATBR, TCG, OneWay, Conical} }

// UnmarshalText is the inverse of MarshalText.
func (g *Grind) UnmarshalText(text []byte) (err error) {
	if len(text) == 0 { // a disc without teeth
		*g = 0
		return nil
	}
	*g, err = ParseGrind(string(text))
	return err
}

// Words returns the grind's name in words.
func (g Grind) Words() say.Line {
	if int(g) < len(grindWords) {
		return say.Word(grindWords[g])
	}
	return say.Word(g.String())
}

// A Make says what the disc is, before any question of teeth.
type Make uint8

const (
	Toothed  Make = iota // carbide teeth on a steel plate
	Dado                 // a stacked or adjustable grooving set
	Scoring              // for the scoring unit of a panel saw
	Diamond              // continuous or segmented diamond rim, no teeth
	Abrasive             // bonded abrasive wheel
)

//corte:enum Make parse
var makeNames = word.Names{Kind: "make", Of: []string{"toothed", "dado", "scoring", "diamond", "abrasive"}}

// A Use is what an owner keeps a blade for.
type Use uint8

const (
	UseGeneral Use = iota
	UseRip
	UseCrosscut
	UseSheet
	UseJoints
	UseMetal
	UsePlastic
	UseDirty   // nails, cement, demolition
	UseMineral // tile, brick, stone
)

//corte:enum Use parse
var useNames = word.Names{Kind: "use", Of: []string{"general", "rip", "crosscut", "sheet", "joints", "metal", "plastic", "dirty", "mineral"}}

// A Blade is one circular blade. Lengths are millimetres, angles degrees.
type Blade struct {
	Make     Make
	Diameter measure.Length // over the tips
	Bore     measure.Length
	Kerf     measure.Length // tip to tip across one tooth pair
	Plate    measure.Length // thickness of the plate; 0 if not measured
	Teeth    int
	Grind    Grind
	Group    int     // teeth in one ATBR group, raker included; 0 means 5
	Bevel    float64 // top bevel
	Hook     float64
	MaxRPM   float64        // 0 if the blade does not say
	Gullet   measure.Length // measured depth; 0 if not measured
	Raker    measure.Length // how far an ATBR raker sits below its points; 0 means 0.15 mm
	KeptFor  Use
	Nails    bool // rated for wood with nails in it
	Ferrous  bool // made for steel

	// What its owner sees on it and what changes the advice: Features says why.
	HookUnknown bool        // nobody has read the hook off it; Hook is not looked at
	Shoulder    bool        // a shoulder behind each tooth limits the bite
	Shear       bool        // tooth faces ground askew
	Throwaway   bool        // made, or marked by its owner, to be thrown away
	Carbide     Carbide     // the grade of its tips
	GulletShape GulletShape // of its gullets
}

// A Carbide is a grade of tip, as far as it changes the advice.
type Carbide uint8

const (
	UnknownCarbide Carbide = iota
	ToughCarbide           // coarse: bears knocks and nails, dulls sooner
	UsualCarbide           // general
	HardCarbide            // fine-grained: stays sharp long, chips easily
)

//corte:enum Carbide parse blank
var carbideNames = word.Names{Kind: "carbide", Of: []string{"unknown", "tough", "usual", "hard"}}

// A GulletShape is how much room a gullet of a depth holds.
type GulletShape uint8

const (
	UnknownGullet GulletShape = iota
	RoundGullet               // wide and round: the most room
	HookedGullet              // the usual hooked one
	NarrowGullet              // little behind a long shoulder or a filled-in back
)

//corte:enum GulletShape parse blank
var gulletNames = word.Names{Kind: "gullet", Of: []string{"unknown", "round", "hooked", "narrow"}}

// gulletShares are the areas of the shapes as shares of pitch times depth. The
// usual one is the model's (section 5); the others are judgement.
var gulletShares = [...]float64{0.45, 0.52, 0.45, 0.36}

// GulletArea is the room of one gullet in mm².
func (b Blade) GulletArea() float64 {
	return gulletShares[b.GulletShape] * b.Pitch().Mm() * b.GulletDepth().Mm()
}

// guessedHook is what is reckoned with where nobody has read the hook: the
// model's neutral one.
const guessedHook = 10

// Rake is the hook that is reckoned with: the one that was read off the blade,
// or a guess.
func (b Blade) Rake() float64 {
	if b.HookUnknown {
		return guessedHook
	}
	return b.Hook
}

// A Feature is something that its owner sees on a blade, and why it matters.
type Feature struct{ Name, Why string }

// Features lists what is noted of a blade beyond its numbers, a line each.
func (b Blade) Features() []Feature {
	out := []Feature{}
	add := func(yes bool, name, why string) {
		if yes {
			out = append(out, Feature{name, why})
		}
	}
	add(b.HookUnknown, "hook angle unknown", "assumed to be +10 degrees. Lay a straightedge from the bore to a tooth and measure it")
	add(b.Shoulder, "shoulder behind each tooth", "limits how deep each tooth cuts, which calms a high hook angle. It doesn't make one safe on a sliding saw")
	add(b.Shear, "face bevel", "a slicing cut: about a seventh less tear-out in veneer and chipping in melamine")
	add(b.Throwaway, "disposable", "not worth sharpening, so it can take nails and dirt")
	add(b.Carbide == ToughCarbide, "tough carbide", "stands up to knocks and nails. Each sharpening removes more")
	add(b.Carbide == HardCarbide, "hard carbide", "stays sharp for long but chips when hit. Each sharpening removes little")
	add(b.GulletShape == RoundGullet, "round gullets", "most room for chips: for long rips and thick stock")
	add(b.GulletShape == NarrowGullet, "narrow gullets", "little room for chips: they fill up first in thick rips")
	return out
}

const (
	defaultGroup = 5
	defaultRaker = measure.Length(0.15)
	deepestShare = 0.45 // gullet depth as a share of the pitch, where not measured
	deepest      = measure.Length(14)
)

// Thin reports whether the kerf is no wider than the thin one that is usual for
// the diameter (craft section 2).
func (b Blade) Thin() bool {
	if b.Diameter < 200 {
		return b.Kerf > 0 && b.Kerf <= 1.7
	}
	return b.Kerf > 0 && b.Kerf <= 2.5
}

// Radius is half the diameter over the tips.
func (b Blade) Radius() measure.Length { return b.Diameter / 2 }

// Pitch is the distance from tip to tip along the rim.
func (b Blade) Pitch() measure.Length {
	return measure.Length(math.Pi * b.Diameter.Mm() / float64(b.Teeth))
}

// GroupSize is the number of teeth in one repeating ATBR group.
func (b Blade) GroupSize() int {
	if b.Group > 0 {
		return b.Group
	}
	return defaultGroup
}

// RakerStep is how far an ATBR raker sits below the bevelled points.
func (b Blade) RakerStep() measure.Length {
	if b.Raker > 0 {
		return b.Raker
	}
	return defaultRaker
}

// GulletDepth is the measured depth, or the usual one for the pitch: 0.45 of
// it and at most 14 mm (model section 5).
func (b Blade) GulletDepth() measure.Length {
	if b.Gullet > 0 {
		return b.Gullet
	}
	return min(deepestShare*b.Pitch(), deepest)
}

// SideClearance is how far each tip stands out beyond the plate, or 0 if the
// plate was not measured.
func (b Blade) SideClearance() measure.Length {
	if b.Plate <= 0 {
		return 0
	}
	return (b.Kerf - b.Plate) / 2
}

// Serves reports whether b can do the work of another blade while that one is
// away: the same size, bore and grind, and about as many teeth.
func (b Blade) Serves(other Blade) bool {
	size := (b.Diameter - other.Diameter).Mm()
	teeth := math.Abs(float64(b.Teeth - other.Teeth))
	return b.Make == other.Make && b.Grind == other.Grind && math.Abs(size) <= 3 && b.Bore == other.Bore && teeth <= 0.25*float64(other.Teeth)
}

// Check reports the first number that no real blade can have.
func (b Blade) Check() error {
	between := func(v, lo, hi float64) bool { return v >= lo && v <= hi } // false for NaN
	bevelled := b.Grind == ATB || b.Grind == HighATB || b.Grind == ATBR || b.Grind == OneWay
	switch {
	case !between(b.Diameter.Mm(), 50, 600):
		return fault.At("diameter", "a blade's diameter is between 50 and 600 mm")
	case !between(b.Bore.Mm(), 5, 80):
		return fault.At("bore", "a bore is between 5 and 80 mm")
	case b.Bore >= b.Diameter/2:
		return fault.At("bore", "a bore of %v leaves no plate on a blade of %v", b.Bore, b.Diameter)
	case !between(b.Kerf.Mm(), 0.5, 30):
		return fault.At("kerf", "a kerf is between 0.5 and 30 mm")
	case !between(b.Plate.Mm(), 0, 30):
		return fault.At("plate", "a plate is between 0.3 and 30 mm thick, or 0 if not measured")
	case b.Plate > 0 && b.Plate >= b.Kerf:
		return fault.At("plate", "a plate of %v would rub: it must be thinner than the kerf of %v", b.Plate, b.Kerf)
	case !between(b.MaxRPM, 0, 30_000):
		return fault.At("greatest speed", "a speed limit is at most 30,000 rpm, or 0 if the blade does not say")
	case b.Make == Diamond || b.Make == Abrasive:
		if b.Teeth != 0 {
			return fault.At("teeth", "a wheel has no teeth; leave the count at 0")
		}
		return nil
	case b.Teeth < 2 || b.Teeth > 200:
		return fault.At("teeth", "a blade has between 2 and 200 teeth")
	case b.Pitch() < 3:
		return fault.At("teeth", "%d teeth do not fit on a blade of %v", b.Teeth, b.Diameter)
	case b.Grind.String() == "":
		return fault.At("grind", "choose the grind")
	case !b.HookUnknown && !between(b.Hook, -15, 35):
		return fault.At("hook", "a hook is between -15 and +35 degrees")
	case !between(b.Bevel, 0, 50):
		return fault.At("bevel", "a top bevel is between 0 and 50 degrees")
	case bevelled && b.Bevel == 0:
		return fault.At("bevel", "%s has a top bevel; measure it or take it from the blade", b.Grind)
	case b.Group < 0 || b.Group == 1 || b.Group > 9:
		return fault.At("group", "a raker group has 2 to 9 teeth")
	case !between(b.Gullet.Mm(), 0, 40):
		return fault.At("gullet", "a gullet is at most 40 mm deep, or 0 if not measured")
	case !between(b.Raker.Mm(), 0, 1):
		return fault.At("raker", "a raker sits at most 1 mm below the points")
	}
	return nil
}
