// Package demo furnishes the demo shop: the scene shop of the Lanterngate
// Playhouse, an invented town theatre that builds platforms in softwood ply,
// battens in pine, furniture props in oak, cherry and maple, and scenery in
// melamine, acrylic and aluminium trim. Its people and blades are invented.
package demo

import (
	"github.com/google/uuid"

	"corte/core/blade"
	"corte/core/measure"
	"corte/core/saw"
	"corte/internal/store"
)

// Slug is the demo shop's name in the database.
const Slug = "lanterngate"

var space = uuid.NewSHA1(uuid.NameSpaceURL, []byte("corte:demo"))

// id is the same for the same name on every machine, so that links into the
// demo shop hold.
func id(name string) uuid.UUID { return uuid.NewSHA1(space, []byte(name)) }

var shopRow = store.Shop{ID: id("shop"), Slug: Slug, Name: "Lanterngate Playhouse scene shop", ChangeMinutes: 3, Sharpening: 24, Zone: "America/New_York"}

// The saws.
var (
	longTable = store.Saw{ID: id("Long Table"), Name: "Long Table",
		Note: "By the dock door. Outfeed to the paint frame.",
		Saw: saw.Saw{Kind: saw.Table, Diameter: 254, Least: 216, Arbor: 15.875, RPM: 4000, MotorW: 1300, Volts: 120,
			BreakerA: 15, Knife: 2.3, Thread: saw.LeftHand, WheelLead: 8, ToBolt: 240, DadoSets: true, Reach: 79, Reach45: 57,
			ArborLength: 44, Washer: 5, Nut: 12, NutSide: saw.Left, TiltSide: saw.Left, FenceReach: 760}}
	drop = store.Saw{ID: id("Drop"), Name: "Drop",
		Note: "On the batten bench.",
		Saw: saw.Saw{Kind: saw.Miter, Sliding: true, Diameter: 305, Arbor: 25.4, RPM: 3800, MotorW: 1500, Volts: 120,
			BreakerA: 20, Reach: 98, Reach45: 60, Tilt: 48, Turn: 50, Thread: saw.LeftHand, Lock: true, BelowTable: 6, ChopWidth: 152, Crosscut: 340}}
	walker = store.Saw{ID: id("Walker"), Name: "Walker",
		Note: "With the long guide rail. Lives in the platform cart.",
		Saw: saw.Saw{Kind: saw.Circular, Diameter: 184, Least: 180, Arbor: 15.875, RPM: 5200, MotorW: 1200, Volts: 120,
			BreakerA: 15, Reach: 63, Reach45: 46, Tilt: 55, Lock: true, Knockout: true, Wheels: true}}
	saws = []store.Saw{longTable, drop, walker}
)

const (
	smallBore measure.Length = 15.875
	largeBore measure.Length = 25.4
)

func made(name, hangs, note string, b blade.Blade) store.Blade {
	out := store.Blade{ID: id(name), Name: name, Hangs: hangs, Note: note, Blade: b, Coating: coatings[name], Price: prices[name], Slots: slots[name]}
	if set, ok := sets[name]; ok {
		out.Set = &set
	}
	return out
}

// What the shop paid, in its own money, what is coated, and how many slots a body has.
var (
	prices = map[string]float64{"Plough": 78, "Stagehand": 64, "Understudy": 55, "Chorus": 92, "Quill": 98, "Needle": 118, "Glass": 126,
		"Tinsel": 110, "Mortise": 82, "Dovecote": 88, "Rook": 24, "Reed": 45, "Trapdoor": 160, "Bellows": 190, "Curtain": 124, "Batten": 86, "Gallop": 40,
		"Trot": 14, "Lace": 36, "Ragman": 22, "Mason": 48}
	slots    = map[string]int{"Plough": 4, "Stagehand": 4, "Chorus": 5, "Quill": 4, "Needle": 5, "Glass": 6, "Curtain": 6, "Lace": 5}
	coatings = map[string]string{"Needle": "nitride", "Glass": "slick", "Curtain": "slick", "Lace": "slick"}
)

// big is a 254 mm blade for the Long Table, full or thin kerf.
func big(teeth int, g blade.Grind, bevel, hook float64, kerf, plate measure.Length, use blade.Use) blade.Blade {
	return blade.Blade{Diameter: 254, Bore: smallBore, Kerf: kerf, Plate: plate, Teeth: teeth, Grind: g, Bevel: bevel,
		Hook: hook, MaxRPM: 7000, KeptFor: use}
}

// small is a 184 mm blade for the Walker.
func small(teeth int, g blade.Grind, bevel, hook float64, use blade.Use) blade.Blade {
	return blade.Blade{Diameter: 184, Bore: smallBore, Kerf: 1.8, Plate: 1.2, Teeth: teeth, Grind: g, Bevel: bevel,
		Hook: hook, MaxRPM: 9000, KeptFor: use}
}

// wide is a 305 mm blade for the Drop.
func wide(teeth int, bevel, hook float64, use blade.Use) blade.Blade {
	return blade.Blade{Diameter: 305, Bore: largeBore, Kerf: 3.0, Plate: 2.2, Teeth: teeth, Grind: blade.ATB,
		Bevel: bevel, Hook: hook, MaxRPM: 5000, KeptFor: use}
}

var blades = func() []store.Blade {
	nail := small(24, blade.FTG, 0, 15, blade.UseDirty)
	nail.Nails = true
	trapdoor := big(24, blade.FTG, 0, 5, 6.4, 0, blade.UseJoints)
	trapdoor.Make, trapdoor.Diameter = blade.Dado, 203
	bellows := trapdoor
	scribe := blade.Blade{Make: blade.Scoring, Diameter: 120, Bore: 20, Kerf: 3.2, Plate: 2.0, Teeth: 24,
		Grind: blade.Conical, Hook: 5, MaxRPM: 12000, KeptFor: blade.UseSheet}
	mason := blade.Blade{Make: blade.Diamond, Diameter: 184, Bore: smallBore, Kerf: 2.2, MaxRPM: 8300, KeptFor: blade.UseMineral}
	nail.Carbide = blade.ToughCarbide
	needle := big(80, blade.HighATB, 38, 5, 3.0, 2.2, blade.UseSheet)
	needle.Shear, needle.Carbide = true, blade.HardCarbide
	rook := big(40, blade.ATB, 15, 15, 3.2, 2.2, blade.UseDirty)
	rook.Throwaway, rook.MaxRPM = true, 0 // its print is worn off
	trot := small(24, blade.ATB, 15, 18, blade.UseGeneral)
	trot.Shoulder, trot.GulletShape = true, blade.NarrowGullet
	plough := big(24, blade.FTG, 0, 20, 3.2, 2.2, blade.UseRip)
	plough.GulletShape = blade.RoundGullet
	return []store.Blade{
		made("Plough", "table wall, peg 1", "For oak and maple rips. Nobody cuts ply with it.", plough),
		made("Stagehand", "table wall, peg 2", "Left on for whatever comes.", big(40, blade.ATB, 15, 15, 3.2, 2.2, blade.UseGeneral)),
		made("Understudy", "table wall, peg 3", "Thin kerf spare for Stagehand.", big(40, blade.ATB, 20, 15, 2.4, 1.7, blade.UseGeneral)),
		made("Chorus", "table wall, peg 4", "Combination. Did all the pine battens this season.", big(50, blade.ATBR, 15, 12, 3.2, 2.2, blade.UseGeneral)),
		made("Quill", "table wall, peg 5", "Sings since it met a staple in April: one tooth stands proud.", big(60, blade.ATB, 20, 10, 3.2, 2.2, blade.UseCrosscut)),
		made("Needle", "top drawer", "Veneer and birch ply only.", needle),
		made("Glass", "top drawer", "Acrylic and melamine.", big(80, blade.TCG, 0, -3, 3.0, 2.2, blade.UsePlastic)),
		made("Tinsel", "top drawer", "Aluminium trim, with the wax stick.", big(72, blade.TCG, 0, -5, 3.0, 2.2, blade.UseMetal)),
		made("Mortise", "joint drawer", "Flat bottoms: tenons and small grooves.", big(30, blade.FTG, 0, 20, 3.2, 2.2, blade.UseJoints)),
		made("Dovecote", "joint drawer", "All teeth to the left, for tails.", big(40, blade.OneWay, 8, 10, 3.2, 2.2, blade.UseJoints)),
		made("Rook", "behind the door", "Old. Ply and chipboard for platforms until it smokes.", rook),
		made("Reed", "top drawer", "Bought by mistake: too thin for our riving knife.", big(60, blade.ATB, 15, 10, 2.0, 1.4, blade.UseCrosscut)),
		made("Trapdoor", "joint drawer", "Stacked dado set; this is the outer pair.", trapdoor),
		made("Bellows", "joint drawer", "Adjustable dado set, from the carpenter before Maren. Its dial is stiff.", bellows),
		made("Scribe", "joint drawer", "From the panel saw that was sold.", scribe),
		made("Curtain", "batten bench", "Fine ends on frames.", wide(80, 15, -2, blade.UseCrosscut)),
		made("Batten", "batten bench", "Everyday pine.", wide(60, 20, 5, blade.UseGeneral)),
		made("Gallop", "batten bench", "Came with the old table saw. Strong hook.", wide(48, 15, 18, blade.UseRip)),
		made("Trot", "platform cart", "Framing.", trot),
		made("Lace", "platform cart", "Ply faces along the rail.", small(60, blade.ATB, 20, 8, blade.UseSheet)),
		made("Ragman", "platform cart", "Nail-rated, for striking sets.", nail),
		made("Mason", "platform cart", "Diamond rim, for the tiled foyer.", mason),
	}
}()

func named(name string) store.Blade {
	for _, b := range blades {
		if b.Name == name {
			return b
		}
	}
	panic("demo: no blade named " + name)
}
