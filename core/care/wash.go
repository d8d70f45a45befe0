package care

import (
	"math"
	"time"

	"corte/core/fault"
	"corte/core/measure"
	"corte/core/say"
	"corte/core/verdict"
)

// A Cleaner is a kind of cleaner, never a make (craft section 9).
type Cleaner struct {
	ID      string
	Name    say.Line
	Soak    time.Duration
	Parts   float64  // of water to one of cleaner; 0 is used neat
	Uses    int      // blades that a bath of it takes
	Keeps   int      // days that a bath of it keeps
	Harsh   say.Line // why it is warned of, for anyone; nothing if it is mild
	Attacks say.Line // why it may not meet a coated blade; nothing if it may
}

// Cleaners lists every kind, the mildest first.
func Cleaners() []Cleaner { return append([]Cleaner(nil), cleaners...) }

var cleaners = []Cleaner{
	{"detergent", say.Of("mild detergent"), 10 * time.Minute, 10, 12, 14, say.Line{}, say.Line{}},
	{"blade-wash", say.Of("made for blades"), 5 * time.Minute, 4, 40, 180, say.Line{}, say.Line{}},
	{"citrus", say.Of("citrus cleaner"), 6 * time.Minute, 6, 25, 60, say.Line{}, say.Line{}},
	{"laundry-soap", say.Of("diluted laundry soap"), 8 * time.Minute, 16, 12, 14, say.Line{}, say.Line{}},
	{"vinegar", say.Of("vinegar"), 4 * time.Minute, 1, 6, 7,
		say.Of("it attacks the carbide's binder and rusts the plate. A few minutes, never longer"),
		say.Of("acid attacks the coating")},
	{"oven-cleaner", say.Of("oven cleaner"), 5 * time.Minute, 0, 1, 1,
		say.Of("caustic: it can harm plate, braze, hands and lungs. Wear gloves and glasses, and work in open air"),
		say.Of("caustic strips the coating")},
	{"solvent", say.Of("solvent"), 5 * time.Minute, 0, 10, 60,
		say.Of("its vapor is harmful and catches fire. Work in open air with gloves and no flame, and dry rags flat outdoors"),
		say.Of("solvent lifts a slick coating")},
}

// CleanerByID finds a kind of cleaner.
func CleanerByID(id string) (Cleaner, error) {
	for _, c := range cleaners {
		if c.ID == id {
			return c, nil
		}
	}
	return Cleaner{}, fault.At("cleaner", "there is no cleaner %q", id)
}

// A Warning is why a cleaner does not agree with a blade, or with hands and
// lungs, and what to use instead.
type Warning struct {
	Verdict verdict.Verdict
	Says    say.Line
}

// Agrees says whether a cleaner and a blade's coating agree. A coated blade in
// what attacks the coating is a stop; what is harsh for all is a caution.
func Agrees(k Cleaner, name, coating string) []Warning {
	var out []Warning
	if coating != "none" && coating != "" && !k.Attacks.Zero() {
		out = append(out, Warning{verdict.Stop, say.Of("%s has a coating: %s. Use a mild detergent or a blade cleaner", name, k.Attacks)})
	}
	return out
}

// Risk is what a cleaner asks of the person; false where it is mild.
func (k Cleaner) Risk() (Warning, bool) {
	return Warning{verdict.Caution, say.Of("%s: %s. A milder cleaner works too", k.Name, k.Harsh)}, !k.Harsh.Zero()
}

// A Brush is a kind of brush.
type Brush string

const (
	Nylon Brush = "nylon"
	Brass Brush = "brass"
	Steel Brush = "steel"
)

// CheckBrush refuses a brush that harms carbide.
func CheckBrush(b Brush) error {
	switch b {
	case Nylon, Brass:
		return nil
	case Steel:
		return fault.At("brush", "a steel brush chips carbide. Use nylon or brass")
	}
	return fault.At("brush", "there is no brush %q", b)
}

// A WashStep is one step of a wash. Least is how long it takes before the next
// may begin, 0 if it is done when it is done; after Most it rings again,
// because cleaner must not dry on.
type WashStep struct {
	ID          string
	Title, Text say.Line
	Least, Most time.Duration
}

// WashSteps are the steps of one wash with a cleaner and a brush, both faces.
func WashSteps(k Cleaner, b Brush, blades int) []WashStep {
	them := say.Of("the blade")
	if blades > 1 {
		them = say.Of("the blades, not touching one another,")
	}
	return []WashStep{
		{"soak", say.Of("Soak"), say.Of("Wear gloves and glasses. Lay %s in the tray and cover the plate. Exposed teeth cut hands.", them), k.Soak, 2 * k.Soak},
		{"scrub", say.Of("Scrub"), say.Of("Scrub teeth and gullets with %s, from the bore outward. Never steel on carbide.", say.Word(string(b))), 0, 10 * time.Minute},
		{"flip", say.Of("Flip"), say.Of("Turn over and scrub the other face."), 0, 10 * time.Minute},
		{"rinse", say.Of("Rinse"), say.Of("Rinse both faces until the water runs clear."), time.Minute, 5 * time.Minute},
		{"dry", say.Of("Dry"), say.Of("Dry it at once with a towel, then warm air. Dry gullets and bore too."), 2 * time.Minute, 20 * time.Minute},
		{"film", say.Of("Film"), say.Of("Wipe a dry protectant on plate and teeth, let it dry, and wipe again. Keep it off the bore and where the flanges sit."), 2 * time.Minute, 30 * time.Minute},
	}
}

// A Tray is what a bath stands in. Round has its diameter in Length.
type Tray struct {
	Length, Width, Depth measure.Length
	Round                bool
}

// A Mix is how a bath is made up.
type Mix struct {
	Litres, Cleaner, Water float64 // litres
	Level                  measure.Length
}

const (
	roomAround = measure.Length(10) // between blade and tray
	above      = measure.Length(15) // of bath over the plate
	between    = measure.Length(8)  // spacers between blades
)

// MixFor works out a bath that covers so many blades of a diameter and kerf in
// a tray. The error says what does not fit.
func MixFor(t Tray, k Cleaner, diameter, kerf measure.Length, blades int) (Mix, error) {
	width := t.Width
	if t.Round {
		width = t.Length
	}
	if !(t.Length > 0 && width > 0 && t.Depth > 0) || t.Length > 2000 || width > 2000 || t.Depth > 500 {
		return Mix{}, fault.At("length", "a tray has a length, a width and a depth, at most 2 m and 500 mm deep")
	}
	if diameter+2*roomAround > min(t.Length, width) {
		return Mix{}, fault.At("length", "a blade of %v doesn't lie flat in a tray of %v. Use a wider tray", diameter, min(t.Length, width))
	}
	if blades < 1 || blades > 20 {
		return Mix{}, fault.At("blades", "1 to 20 blades go in one bath")
	}
	n := measure.Length(blades)
	level := n*kerf + (n-1)*between + above
	if level > t.Depth {
		return Mix{}, fault.At("depth", "%d blades need %v of liquid and the tray is %v deep. Clean fewer at once", blades, level, t.Depth)
	}
	area := t.Length.Mm() * width.Mm()
	if t.Round {
		area *= math.Pi / 4
	}
	steel := float64(blades) * math.Pi / 4 * diameter.Mm() * diameter.Mm() * kerf.Mm()
	m := Mix{Litres: (area*level.Mm() - steel) / 1e6, Level: level}
	m.Cleaner = m.Litres / (1 + k.Parts)
	m.Water = m.Litres - m.Cleaner
	return m, nil
}

// strainEvery is how many blades a bath takes before it wants to be strained;
// our judgement.
const strainEvery = 6

// BathState says what a bath wants: nothing, strain, or replace and why.
func BathState(k Cleaner, uses, sinceStrained int, age time.Duration) (word string, why say.Line) {
	days := int(age.Hours() / 24)
	switch {
	case uses >= k.Uses:
		return "replace", say.Of("it has taken %d blades, and %s is spent after about %d", uses, k.Name, k.Uses)
	case days >= k.Keeps:
		return "replace", say.Of("it is %d days old, and %s keeps about %d", days, k.Name, k.Keeps)
	case sinceStrained >= strainEvery:
		return "strain", say.Of("%d blades since it was strained. Pour it through a cloth to remove grit", sinceStrained)
	}
	return "good", say.Of("%d of about %d blades, %d of about %d days", uses, k.Uses, days, k.Keeps)
}
