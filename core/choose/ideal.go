package choose

import (
	"math"

	"corte/core/blade"
	"corte/core/cut"
	"corte/core/measure"
	"corte/core/saw"
)

// An Ideal is the best blade for a cut, owned or not.
type Ideal struct {
	Blade  blade.Blade
	Height measure.Length
	Room   float64
}

// A family is a kind of blade as it is sold (craft section 2). Counts are for
// 254 mm; other diameters keep the spacing of the teeth.
type family struct {
	grind  blade.Grind
	bevel  float64
	counts []float64
	hooks  []float64
}

var families = [...]family{
	{blade.FTG, 0, []float64{16, 20, 24, 30}, []float64{20, 15}},
	{blade.TCG, 0, []float64{24, 30}, []float64{20, 15}},
	{blade.ATB, 15, []float64{24, 30, 40}, []float64{20, 15, 10}},
	{blade.ATBR, 15, []float64{40, 50}, []float64{12, 10}},
	{blade.ATB, 20, []float64{40, 60, 80}, []float64{10, 5, -2}},
	{blade.ATB, 30, []float64{40, 60, 80}, []float64{10, 5, -2}},
	{blade.HighATB, 38, []float64{60, 80, 100}, []float64{5, -2}},
	{blade.TCG, 0, []float64{60, 80, 100}, []float64{5, -3}},
}

// strongestIdealMiterHook keeps the advice for miter saws near zero, below
// what the hard rule still lets pass.
const strongestIdealMiterHook = 5

// FindIdeal searches the blades that could be bought for this saw for the one
// that opens the window widest. Of those within a tenth of the widest it takes
// the cleanest cut, as room that no hand uses is worth less than a face that
// needs no sanding. It reports false where the material has no window.
func FindIdeal(r Request) (Ideal, bool) {
	if !r.Job.Material.Kind.Modelled() {
		return Ideal{}, false
	}
	drive := r.drive()
	base := blade.Blade{Diameter: r.Saw.Diameter, Bore: r.Saw.Arbor}
	scale := base.Diameter.Mm() / 254
	kerfs := [...]measure.Length{kerfFor(base.Diameter, false), kerfFor(base.Diameter, true)}
	type tried struct {
		Ideal
		worst float64
	}
	var all []tried
	widest := 0.0
	try := func(b blade.Blade) {
		if r.Saw.Kind == saw.Miter && b.Hook > strongestIdealMiterHook || !suits(b, r) {
			return
		}
		j := r.Job
		j.Height = r.Heights(b).Suggested
		b.MaxRPM = r.Saw.RPM
		f := cut.Work(j, b, drive, cut.State{Heel: r.Heel})
		room := f.Window.Room()
		widest = max(widest, room)
		all = append(all, tried{Ideal{b, j.Height, room}, f.WorstFace()})
	}
	for _, kerf := range kerfs {
		for _, k := range families {
			for _, hook := range k.hooks {
				for _, count := range k.counts {
					b := base
					b.Kerf, b.Plate = kerf, kerf*usualPlate
					b.Grind, b.Bevel, b.Hook = k.grind, k.bevel, hook
					b.Teeth = 2 * int(math.Round(count*scale/2))
					try(b)
				}
			}
		}
	}
	var best Ideal
	cleanest := math.Inf(1)
	for _, t := range all {
		if t.Room >= 0.9*widest && t.worst < cleanest {
			best, cleanest = t.Ideal, t.worst
		}
	}
	return best, len(all) > 0
}

// suits leaves out what the hard rules or the owner's sense would refuse.
func suits(b blade.Blade, r Request) bool {
	b.KeptFor = wanted(r.Job)
	if len(guards(b, r.Saw)) > 0 {
		return false
	}
	return fitnessOf(b, r.Job) != fitSaved && fitnessOf(b, r.Job) != fitRidged
}

// usualPlate is a plate's thickness as a share of its kerf, where nothing is
// measured.
const usualPlate = 0.7

// kerfFor is the usual full or thin kerf of a diameter (craft section 2).
func kerfFor(d measure.Length, thin bool) measure.Length {
	small := d < 200
	switch {
	case small && thin:
		return 1.6
	case small:
		return 2.0
	case thin:
		return 2.4
	}
	return 3.2
}
