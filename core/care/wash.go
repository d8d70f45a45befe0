package care

import (
	"fmt"
	"math"
	"time"

	"corte/core/measure"
	"corte/core/verdict"
)

// A Cleaner is a kind of cleaner, never a make (craft section 9).
type Cleaner struct {
	ID, Name string
	Soak     time.Duration
	Parts    float64 // of water to one of cleaner; 0 is used neat
	Uses     int     // blades that a bath of it takes
	Keeps    int     // days that a bath of it keeps
	Harsh    string  // why it is warned of, for anyone; empty if it is mild
	Attacks  string  // why it may not meet a coated blade; empty if it may
}

// Cleaners lists every kind, the mildest first.
func Cleaners() []Cleaner { return append([]Cleaner(nil), cleaners...) }

var cleaners = []Cleaner{
	{"detergent", "mild detergent", 10 * time.Minute, 10, 12, 14, "", ""},
	{"blade-wash", "made for blades", 5 * time.Minute, 4, 40, 180, "", ""},
	{"citrus", "citrus cleaner", 6 * time.Minute, 6, 25, 60, "", ""},
	{"laundry-soap", "diluted laundry soap", 8 * time.Minute, 16, 12, 14, "", ""},
	{"vinegar", "vinegar", 4 * time.Minute, 1, 6, 7,
		"it etches carbide's binder and rusts the plate: a few minutes, never longer",
		"acid attacks the coating"},
	{"oven-cleaner", "oven cleaner", 5 * time.Minute, 0, 1, 1,
		"caustic: it can harm plate, braze, hands and lungs; gloves, glasses, open air",
		"caustic strips the coating"},
	{"solvent", "solvent", 5 * time.Minute, 0, 10, 60,
		"its vapour burns and harms: open air, no flame, gloves; rags dry flat outdoors",
		"solvent lifts a slick coating"},
}

// CleanerByID finds a kind of cleaner.
func CleanerByID(id string) (Cleaner, error) {
	for _, c := range cleaners {
		if c.ID == id {
			return c, nil
		}
	}
	return Cleaner{}, fmt.Errorf("there is no cleaner %q", id)
}

// A Warning is why a cleaner does not agree with a blade, or with hands and
// lungs, and what to use instead.
type Warning struct {
	Verdict verdict.Verdict
	Says    string
}

// Agrees says whether a cleaner and a blade's coating agree. A coated blade in
// what attacks the coating is a stop; what is harsh for all is a caution.
func Agrees(k Cleaner, name, coating string) []Warning {
	var out []Warning
	if coating != "none" && coating != "" && k.Attacks != "" {
		out = append(out, Warning{verdict.Stop, fmt.Sprintf("%s is coated: %s; use a mild detergent or what is made for blades", name, k.Attacks)})
	}
	return out
}

// Risk is what a cleaner asks of the person; false where it is mild.
func (k Cleaner) Risk() (Warning, bool) {
	return Warning{verdict.Caution, fmt.Sprintf("%s: %s. A milder one does it too", k.Name, k.Harsh)}, k.Harsh != ""
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
		return fmt.Errorf("a steel brush chips carbide: use nylon or brass")
	}
	return fmt.Errorf("there is no brush %q", b)
}

// A WashStep is one step of a wash. Least is how long it takes before the next
// may begin, 0 if it is done when it is done; after Most it rings again,
// because cleaner must not dry on.
type WashStep struct {
	ID, Title, Text string
	Least, Most     time.Duration
}

// WashSteps are the steps of one wash with a cleaner and a brush, both faces.
func WashSteps(k Cleaner, b Brush, blades int) []WashStep {
	them := "the blade"
	if blades > 1 {
		them = "the blades, not touching one another,"
	}
	return []WashStep{
		{"soak", "Soak", fmt.Sprintf("Gloves and glasses on. Lay %s in the tray with the plate covered. Bare edges cut hands.", them), k.Soak, 2 * k.Soak},
		{"scrub", "Scrub", fmt.Sprintf("Scrub teeth and gullets with %s, from the bore outward. Never steel on carbide.", b), 0, 10 * time.Minute},
		{"flip", "Flip", "Turn over and scrub the other face.", 0, 10 * time.Minute},
		{"rinse", "Rinse", "Rinse both faces until the water runs clear.", time.Minute, 5 * time.Minute},
		{"dry", "Dry", "Dry at once, gullets and bore too: towel, then warm air.", 2 * time.Minute, 20 * time.Minute},
		{"film", "Film", "Wipe a dry protective film on plate and teeth, let it flash, wipe again. None on the bore and where flanges sit.", 2 * time.Minute, 30 * time.Minute},
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
		return Mix{}, fmt.Errorf("a tray has a length, a width and a depth, at most 2 m and 500 mm deep")
	}
	if diameter+2*roomAround > min(t.Length, width) {
		return Mix{}, fmt.Errorf("a blade of %v does not lie flat in a tray of %v: take a wider one", diameter, min(t.Length, width))
	}
	if blades < 1 || blades > 20 {
		return Mix{}, fmt.Errorf("1 to 20 blades go in one bath")
	}
	n := measure.Length(blades)
	level := n*kerf + (n-1)*between + above
	if level > t.Depth {
		return Mix{}, fmt.Errorf("%d blades want %v of bath and the tray is %v deep: wash fewer at once", blades, level, t.Depth)
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
func BathState(k Cleaner, uses, sinceStrained int, age time.Duration) (word, why string) {
	days := int(age.Hours() / 24)
	switch {
	case uses >= k.Uses:
		return "replace", fmt.Sprintf("it has taken %d blades, and %s is spent after about %d", uses, k.Name, k.Uses)
	case days >= k.Keeps:
		return "replace", fmt.Sprintf("it is %d days old, and %s keeps about %d", days, k.Name, k.Keeps)
	case sinceStrained >= strainEvery:
		return "strain", fmt.Sprintf("%d blades since it was strained: pour it through a cloth, so that grit does not go round", sinceStrained)
	}
	return "good", fmt.Sprintf("%d of about %d blades, %d of about %d days", uses, k.Uses, days, k.Keeps)
}
