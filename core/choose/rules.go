package choose

import (
	"math"
	"slices"

	"corte/core/blade"
	"corte/core/care"
	"corte/core/cut"
	"corte/core/fault"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/saw"
	"corte/core/say"
	"corte/core/truing"
	"corte/core/verdict"
	"corte/core/word"
)

// A Rule is one of the hard rules of craft sections 3, 6, 12 and 13. A blade
// that breaks one is not ranked; it does not go on.
type Rule uint8

const (
	RuleMake Rule = iota
	RuleDiameter
	RuleBore
	RuleSpeed
	RuleKnife
	RuleBrake
	RuleDado
	RuleMaterial
	RuleHook
	RuleReach
	RuleCondition
	RuleTeeth // too few of them in thin stock
	RulePush  // more of it than a hand keeps up
)

//corte:enum Rule
var ruleNames = word.Names{Kind: "rule", Of: []string{"make", "diameter", "bore", "speed", "riving-knife", "brake", "dado", "material", "hook", "reach", "condition", "teeth", "push"}}

// A Stop says which rule a blade breaks on this saw and cut, why, and what
// would be right instead.
type Stop struct {
	Rule   Rule
	Why    say.Line
	WayOut say.Line
}

// Bar is the stop of a blade that its own log keeps off every saw: a fault that
// may not run until somebody has mended and inspected it (craft sections 10 and
// 15), a knock that nobody has looked at since, or a stay with the saw doctor.
// It is nil for a blade that may go on.
func Bar(c care.Condition) *Stop {
	switch {
	case c.Unfit == care.Blue.Words():
		return &Stop{RuleCondition, say.Of("the inspection found that %s", say.Word(c.Unfit)), say.Of("have a sharpening service inspect it. Use it again once that is recorded under Care, or retire it")}
	case c.Unfit != "":
		return &Stop{RuleCondition, say.Of("the inspection found that %s", say.Word(c.Unfit)), say.Of("have it repaired. Use it again once the repair and the inspection are recorded under Care, or retire it")}
	case c.Hit:
		return &Stop{RuleCondition, say.Of("it hit something hard and hasn't been inspected since"), say.Of("check every tooth, gullet and slot in good light, and record what you find under Care")}
	case c.Away:
		return &Stop{RuleCondition, say.Of("it is away for sharpening"), say.Of("record under Care when it is back")}
	}
	return nil
}

// A checker collects stops.
type checker struct{ stops []Stop }

func (c *checker) add(r Rule, wayOut, why string, with ...any) {
	c.stops = append(c.stops, Stop{r, say.Of(why, with...), say.Word(wayOut)})
}

// CheckJob reports what no blade could make of a job on a saw: a rip on a
// miter saw, stock past the saw's reach. The error is a *fault.Error.
func CheckJob(j cut.Job, s saw.Saw) error {
	if err := j.Check(); err != nil {
		return err
	}
	refuse := fault.At
	if s.Kind == saw.Miter {
		switch {
		case j.Direction == cut.Rip:
			return refuse("direction", "a miter saw only crosscuts. Rip it on a table saw, or along a guide with a circular saw")
		case j.Motion == cut.Along:
			return refuse("motion", "a miter saw chops, or is pushed along the work")
		case j.Motion == cut.Push && !s.Sliding:
			return refuse("motion", "this miter saw does not slide; it can only chop")
		case j.Motion == cut.Chop && s.ChopWidth > 0 && j.MeetsWidth() > s.ChopWidth:
			if s.Sliding {
				return refuse("width", "%s across the cut is wider than this saw chops (%s); push it instead", j.MeetsWidth(), s.ChopWidth)
			}
			return refuse("width", "%s across the cut is wider than this saw chops (%s)", j.MeetsWidth(), s.ChopWidth)
		case j.Motion == cut.Push && s.Crosscut > 0 && j.MeetsWidth() > s.Crosscut:
			return refuse("width", "%s across the cut is wider than this saw's slide crosses (%s); use a circular saw along a guide", j.MeetsWidth(), s.Crosscut)
		}
	} else if j.Motion != cut.Along {
		return refuse("motion", "only a miter saw chops or is pushed along the work")
	}
	if j.Form != cut.Through && s.Kind == saw.Miter {
		return refuse("form", "a miter saw cuts through; cut a %s on a table saw or along a guide with a circular saw", j.Form)
	}
	if most := s.MostBevel(); j.BevelDeg > most {
		return refuse("bevel", "this saw tilts to %g degrees; for %g use another machine or a jig made for it", most, j.BevelDeg)
	}
	if most := s.MostMiter(); j.MiterDeg > most {
		return refuse("miter", "this saw turns to %g degrees; for %g use another machine or a jig made for it", most, j.MiterDeg)
	}
	switch {
	case j.Carriage && s.Carriage == 0:
		return refuse("carriage", "this saw has no sliding carriage; use its fence or miter gauge")
	case j.Carriage && j.CutLength() > s.Carriage:
		return refuse("carriage", "a cut of %s is longer than this saw's carriage travel (%s)", j.CutLength(), s.Carriage)
	}
	if j.Piece > j.Length {
		return refuse("piece", "you can't cut a piece of %s from a board of %s", j.Piece, j.Length)
	}
	exit, other := Supports(j, s)
	switch {
	case !slices.Contains(exit, j.Exit):
		face, _ := cut.FaceNames(j.Motion, s.Kind.CarriesWork())
		return refuse("exit support", "here the teeth exit at the %s, and %s doesn't help there. Use %s", say.Word(face), say.Word(supportWords[j.Exit]), oneOf(exit))
	case !slices.Contains(other, j.Other):
		_, face := cut.FaceNames(j.Motion, s.Kind.CarriesWork())
		return refuse("other support", "%s doesn't help the %s. Use %s", say.Word(supportWords[j.Other]), say.Word(face), oneOf(other))
	}
	// Through is a few millimetres through; a miter saw goes that far below its table.
	past := cut.LeastClears
	if s.Kind == saw.Miter {
		past = 0
	}
	switch reach := s.ReachAt(j.BevelDeg); {
	case needsBothFaces(j, s):
	case j.Form != cut.Through && j.Depth > reach:
		return refuse("depth", "%s is deeper than this saw reaches (%s)", j.Depth, reach)
	case j.Form != cut.Through:
	case j.Thickness+past <= reach+hair:
	case j.BevelDeg > 0:
		return refuse("thickness", "tilted to %g degrees this saw cuts %s deep, and the stock is %s, which the blade must pass by %s. You can't finish a tilted cut from the other face, so use another machine", j.BevelDeg, reach, j.Thickness, past)
	case s.Kind == saw.Miter:
		return refuse("thickness", "%s is thicker than this saw cuts (%s). Use another machine", j.Thickness, reach)
	default:
		return refuse("thickness", "%s is more than this saw cuts from both faces (%s each). Use another machine", j.Thickness, reach)
	}
	return nil
}

// hair is a rounding error of a length, mm.
const hair = measure.Length(0.01)

var supportWords = [...]string{cut.Open: "nothing", cut.Tape: "tape over the line", cut.ZeroClearance: "a zero-clearance throat plate", cut.Backer: "a fresh sacrificial backer",
	cut.Scored: "a knife line or a scoring pass", cut.ScoringBlade: "a scoring blade", cut.Spare: "treating this face as unimportant"}

func oneOf(all []cut.Support) say.Or {
	words := make(say.Or, len(all))
	for i, s := range all {
		words[i] = say.Word(supportWords[s])
	}
	return words
}

// Supports are what can hold the fibres of the two faces where teeth leave: an
// insert closes on the plate only at a face that lies on the saw's own table.
// Where teeth leave at the top, tape, a knife line or a scoring pass does it.
func Supports(j cut.Job, s saw.Saw) (exit, other []cut.Support) {
	edge := []cut.Support{cut.Open, cut.Tape, cut.Backer, cut.Scored, cut.Spare}
	face := []cut.Support{cut.Open, cut.Tape, cut.Scored, cut.Spare}
	table := []cut.Support{cut.Open, cut.Tape, cut.ZeroClearance, cut.Backer, cut.Scored, cut.Spare}
	if s.Scores(j.BevelDeg) && j.Form == cut.Through {
		table = slices.Insert(table, len(table)-1, cut.ScoringBlade)
	}
	switch {
	case j.Motion == cut.Chop:
		return edge, table // the back edge, and the bottom face
	case s.Kind == saw.Table:
		return table, edge
	}
	return face, edge
}

// Stops checks every hard rule for one blade, job and saw. No stops: it may go
// on.
func Stops(b blade.Blade, j cut.Job, s saw.Saw) []Stop {
	var c checker
	c.mounting(b, s)
	c.material(b, j, s)
	c.hook(b, s)
	c.reach(b, j, s)
	return c.stops
}

// reach checks that the blade parts the work: through is Clears through, and a
// miter saw's blade has to come that far below the bed.
func (c *checker) reach(b blade.Blade, j cut.Job, s saw.Saw) {
	reach, deep := s.ReachWith(b, j.BevelDeg), deepest(j)
	if s.Kind == saw.Miter {
		if below := s.Below() - (s.Diameter-b.Diameter)/2; below < cut.Clears-hair && b.Diameter < s.Diameter {
			c.add(RuleReach, "use a blade of the saw's own size", "it is too small for this saw: the cut would end %s short of the %s needed to go through", cut.Clears-below, cut.Clears)
		} else if deep > reach+hair {
			c.add(RuleReach, "use a larger blade", "this blade cuts stock up to %s here, and yours is %s", reach, deep)
		}
		return
	}
	if j.Form == cut.Through && !j.BothFaces {
		deep += through(j, s)
	}
	if deep > reach+hair {
		c.add(RuleReach, "use a larger blade", "this blade cuts only %s deep here, and the cut needs %s", reach, deep)
	}
}

// minds are what has to be known or asked before a blade that may go on does.
func minds(r Request, c Candidate, j cut.Job, f cut.Figures) []Stop {
	b, s := c.Blade, r.Saw
	out := MountMinds(b, s)
	var k checker
	if c.State.Chipped {
		k.add(RuleCondition, "have it sharpened, or use an undamaged blade like it", "a tip is chipped. It leaves one deep mark per turn, and the chip will grow")
	}
	if j.Finish > cut.Rough {
		k.stops = append(k.stops, Measured(c.State.Spread, c.State.RunOut, r.heldTo())...)
	}
	if f.Paces.Harder() && f.Window.Open() {
		k.add(RulePush, "clean or sharpen the blade, or use fewer teeth", "avoiding burn marks needs an uncomfortable feed force")
	}
	teeth := f.TeethInCut
	thin := j.Thickness <= thinSheet
	if metal := j.Material.Kind == material.SoftMetal || j.Material.Kind == material.Steel; metal && b.Teeth > 0 {
		teeth, thin = cut.Engage(j, b).TeethInCut, true
	}
	if b.Teeth > 0 && teeth > 0 && j.Motion != cut.Chop && j.Form == cut.Through && thin && teeth < leastTeeth {
		k.add(RuleTeeth, "clamp it between two boards and cut all three, or use more teeth", "fewer than two teeth are in stock this thin, so each one grabs")
	}
	if rim := RimSpeed(b, s); b.Teeth > 0 && rim < slowestForWood && !metalOrStone(j.Material.Kind) {
		k.add(RuleSpeed, "use a saw made for wood; feed slowly if you must use this one", "its rim runs at %.0f m/s on this saw, and wood needs %d or more. Slow teeth tear out and grab", rim, slowestForWood)
	}
	if j.Exit == cut.ScoringBlade {
		switch wider := s.Scoring.Kerf - b.Kerf; {
		case wider < truing.ScoresLeast-hair:
			k.add(RuleMake, "use a blade with a narrower kerf, or shim the scoring blade out", "the scoring kerf (%s) is less than %s wider than this kerf (%s): the face chips beside it", say.Thin(s.Scoring.Kerf), say.Thin(truing.ScoresLeast), say.Thin(b.Kerf))
		case wider > truing.ScoresMost+hair:
			k.add(RuleMake, "set the scoring kerf nearer to this one", "the scoring kerf (%s) is more than %s wider than this kerf (%s): it leaves a step that you can feel", say.Thin(s.Scoring.Kerf), say.Thin(truing.ScoresMost), say.Thin(b.Kerf))
		}
	}
	if j.Form == cut.Through && !j.BothFaces && j.Motion == cut.Along {
		if through := r.Saw.ReachWith(b, j.BevelDeg) - j.Thickness; through < cut.Clears-hair {
			k.add(RuleReach, "check on scrap that it cuts all the way through, and don't force the last fibers", "this saw goes only %s past the stock here, and %s is usual", through, cut.Clears)
		}
	}
	return append(out, k.stops...)
}

// Measured is what the last readings of a blade on a saw mean for its cuts: the
// range of side clearance over its teeth, and its run-out; 0 was not measured.
func Measured(spread, runOut measure.Length, t truing.Tolerances) (out []Stop) {
	add := func(is truing.Judgement, known bool) {
		if known && is.Verdict != verdict.Clear {
			out = append(out, Stop{RuleCondition, is.Says, is.Do})
		}
	}
	add(t.RunOut(runOut), runOut > 0)
	add(truing.Spread(spread), spread > 0)
	return out
}

// MountMinds are what has to be known or asked before a blade goes on a saw,
// whatever it is to cut.
func MountMinds(b blade.Blade, s saw.Saw) []Stop {
	var c checker
	if b.MaxRPM == 0 {
		c.add(RuleSpeed, "read it on the plate and add it to the blade", "its speed limit isn't recorded, and this saw runs at %.0f rpm", s.RPM)
	}
	switch {
	case s.Kind == saw.Circular && hookMatters(b, s):
		c.add(RuleHook, "lay a straightedge from the bore to a tooth and record the hook angle", "its hook angle isn't recorded, and a high one pulls a hand-held saw forward")
	case b.Teeth == 0 || s.Kind != saw.Miter:
	case b.HookUnknown:
		c.add(RuleHook, "lay a straightedge from the bore to a tooth and record the hook angle", "its hook angle isn't recorded, and a high one climbs on a miter saw")
	case s.Sliding && b.Hook > calmSlideHook && b.Shoulder:
		c.add(RuleHook, "a hook angle near zero or negative is calmer. Push slowly, never pull it through", "a hook angle of %g degrees pulls itself into the work on a sliding saw. Its shoulders only limit how deep it bites", b.Hook)
	case s.Sliding && b.Hook > calmSlideHook:
		c.add(RuleHook, "a hook angle near zero or negative is calmer. Push slowly, never pull it through", "a hook angle of %g degrees pulls itself into the work on a sliding saw", b.Hook)
	}
	return c.stops
}

// MountStops checks the rules that can be told from blade and saw alone,
// before any cut is said.
func MountStops(b blade.Blade, s saw.Saw) []Stop {
	var c checker
	c.mounting(b, s)
	c.hook(b, s)
	return c.stops
}

// StandsIn reports whether a blade can do another's work while that one is away:
// of its kind, and let by the hard rules of every saw that lets the other.
func StandsIn(b, other blade.Blade, saws []saw.Saw) bool {
	if !b.Serves(other) {
		return false
	}
	for _, s := range saws {
		if len(MountStops(other, s)) == 0 && len(MountStops(b, s)) > 0 {
			return false
		}
	}
	return true
}

const (
	// Miter saws are seen with hooks from -7 to +10 (craft section 2).
	strongestMiterHook = 10
	// calmSlideHook is the largest hook that a sliding saw takes without a caution.
	calmSlideHook = 5
	// Metals and plastics want about zero to negative (craft section 13).
	strongestMetalHook   = 5
	strongestPlasticHook = 10
)

func (c *checker) hook(b blade.Blade, s saw.Saw) {
	if s.Kind == saw.Miter && !b.HookUnknown && b.Hook > strongestMiterHook && b.Teeth > 0 {
		c.add(RuleHook, "use a blade with a hook angle near zero or negative",
			"a hook angle of %g degrees makes the blade climb on a miter saw", b.Hook)
	}
}

// mounting checks what can be told from blade and saw alone.
func (c *checker) mounting(b blade.Blade, s saw.Saw) {
	switch b.Make {
	case blade.Scoring:
		c.add(RuleMake, "keep it for the scoring unit", "a scoring blade runs only in the scoring unit of a panel saw")
		return
	case blade.Dado:
		switch {
		case s.Kind != saw.Table:
			c.add(RuleDado, "cut the groove on a table saw that allows dado stacks", "a dado stack never goes on a %s saw", s.Kind)
		case !s.DadoSets:
			c.add(RuleDado, "step a flat-top blade across the groove", "this saw's manual doesn't allow dado stacks")
		case b.Diameter > s.LargestDado():
			c.add(RuleDado, "use a smaller stack", "a dado stack of %s is too large for this saw, which takes %s", b.Diameter, s.LargestDado()-1)
		}
	case blade.Diamond, blade.Abrasive:
		if !s.Wheels {
			c.add(RuleMake, "use a saw whose manual allows wheels", "this saw's manual doesn't allow %s wheels", b.Make)
		}
	}
	if b.Grind == blade.Conical && b.Make == blade.Toothed {
		c.add(RuleMake, "keep it for the scoring unit", "conical teeth are for scoring units only")
	}
	switch {
	case b.Diameter > s.Diameter+1:
		c.add(RuleDiameter, "use a blade of the saw's size", "a blade of %s does not fit a saw made for %s", b.Diameter, s.Diameter)
	case b.Make == blade.Toothed && s.Least > 0 && b.Diameter < s.Least:
		c.add(RuleDiameter, "use a blade of the saw's size", "%s is too small. This saw's guard and riving knife need at least %s", b.Diameter, s.Least)
	}
	if fits, _ := s.TakesBore(b.Bore); !fits {
		c.add(RuleBore, "use a blade with this arbor's bore, or a bushing made for it", "its bore of %s doesn't fit the arbor of %s, and you have no bushing for it", b.Bore, s.Arbor)
	}
	if b.MaxRPM > 0 && b.MaxRPM < s.RPM {
		c.add(RuleSpeed, "use a blade rated for this saw's speed", "its limit is %.0f rpm, and this saw runs at %.0f", b.MaxRPM, s.RPM)
	}
	c.guards(b, s)
}

// guards checks a blade against the riving knife and the blade brake.
func guards(b blade.Blade, s saw.Saw) []Stop {
	var c checker
	c.guards(b, s)
	return c.stops
}

func (c *checker) guards(b blade.Blade, s saw.Saw) {
	if s.Knife > 0 && b.Make == blade.Toothed {
		switch {
		case b.Kerf <= s.Knife:
			c.add(RuleKnife, "use a thicker blade, or the thinner riving knife made for this saw", "the riving knife (%s) is as thick as the kerf (%s). The work would jam on it", say.Thin(s.Knife), say.Thin(b.Kerf))
		case b.Plate > 0 && b.Plate >= s.Knife:
			c.add(RuleKnife, "use a thinner blade, or the thicker riving knife made for this saw", "the riving knife (%s) is no thicker than the plate (%s). It wouldn't keep the kerf open", say.Thin(s.Knife), say.Thin(b.Plate))
		}
	}
	if k := s.Brake; k != nil && b.Make != blade.Dado {
		if b.Kerf < k.MinKerf || b.Kerf > k.MaxKerf {
			c.add(RuleBrake, "use a blade in the brake's range", "the blade brake allows kerfs from %s to %s, and this one is %s", say.Thin(k.MinKerf), say.Thin(k.MaxKerf), say.Thin(b.Kerf))
		}
		if b.Diameter < k.MinDiameter || b.Diameter > k.MaxDiameter {
			c.add(RuleBrake, "use a blade in the brake's range, or the cartridge for this size", "the blade brake allows diameters from %s to %s, and this one is %s", k.MinDiameter, k.MaxDiameter, b.Diameter)
		}
	}
}

// material checks craft section 13: which disc may meet which stuff.
func (c *checker) material(b blade.Blade, j cut.Job, s saw.Saw) {
	m := j.Material
	wheel := b.Make == blade.Diamond || b.Make == blade.Abrasive
	if b.Make == blade.Dado && (j.Form == cut.Through || !j.NotThrough()) { // nor the second of two passes
		c.add(RuleDado, "use a single blade for a through cut", "a dado stack never cuts through the work")
	}
	refuse := func(wayOut, why string, with ...any) { c.add(RuleMaterial, wayOut, why, with...) }
	switch m.Kind {
	case material.Mineral:
		if !wheel {
			refuse("use a diamond wheel in a saw that allows it, with water for any quantity", "teeth do not cut %s", m)
		}
		return
	case material.CementBoard:
		if !wheel && !forDirt(b) {
			refuse("use a few-toothed blade set aside for dirty work, or a diamond wheel", "cement would ruin it in one cut")
		}
		return
	case material.Steel:
		switch {
		case !s.Steel:
			refuse("use a saw and a blade made for steel", "this saw is not made for steel")
		case !b.Ferrous && b.Make != blade.Abrasive:
			refuse("use a blade made for steel", "steel is never cut with a wood blade")
		}
		return
	}
	if b.Throwaway && j.Finish >= cut.Show && m.Kind.Modelled() {
		c.add(RuleCondition, "use a sharp blade", "it is a disposable blade, and this face will be visible")
	}
	if wheel {
		refuse("use a toothed blade", "a %s wheel grinds and burns %s", b.Make, m)
		return
	}
	switch m.Kind {
	case material.Nailed:
		if !b.Nails && !forDirt(b) {
			refuse("use a nail-rated blade, one set aside for dirty work, or a disposable one. A good blade that is dull needs sharpening instead", "a nail knocks the tips off this blade")
		}
	case material.SoftMetal:
		c.tripleChip(b, m, strongestMetalHook)
	case material.Plastic, material.SolidSurface:
		c.tripleChip(b, m, strongestPlasticHook)
	}
}

// forDirt reports whether a blade may meet nails, grit and cement: only what
// its owner keeps for that, or would throw away.
func forDirt(b blade.Blade) bool { return b.KeptFor == blade.UseDirty || b.Throwaway }

// RimSpeed is that of a blade on a saw, m/s.
func RimSpeed(b blade.Blade, s saw.Saw) float64 {
	return math.Pi * b.Diameter.Mm() / 1000 * s.RPM / 60
}

func metalOrStone(k material.Kind) bool {
	return k == material.SoftMetal || k == material.Steel || k == material.Mineral || k == material.CementBoard
}

// slowestForWood is the rim speed, m/s, under which teeth tear wood instead of
// cutting it: wood saws run at 40 to 80; judgement.
const slowestForWood = 40

func (c *checker) tripleChip(b blade.Blade, m material.Material, hook float64) {
	if b.Grind != blade.TCG {
		c.add(RuleMaterial, "use a TCG blade with many teeth", "%s teeth grab %s", b.Grind.Words(), m)
	} else if b.HookUnknown {
		c.add(RuleMaterial, "measure its hook angle and record it", "its hook angle isn't recorded, and a high one grabs %s", m)
	} else if b.Hook > hook {
		c.add(RuleMaterial, "use a TCG blade with a hook angle of about zero or negative", "a hook angle of %g degrees grabs %s", b.Hook, m)
	}
}
