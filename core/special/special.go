// Package special works out the cuts that need a set-up of their own: plunge
// cuts, tapers, coves, compound miters, resawing on edge, stopped cuts and round
// stock. Craft section 19. Each has its figures, the passes that it takes, how it
// is held, and what rules it out; the saw's manual, which may forbid it, comes
// first.
//
// Lengths are mm, angles degrees, powers W. R is the blade's radius, h how far the
// blade stands through the face that it works from, t the stock.
package special

import (
	"math"
	"slices"

	"corte/core/blade"
	"corte/core/cut"
	"corte/core/fault"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/saw"
	"corte/core/say"
	"corte/core/verdict"
	"corte/core/word"
)

// A Kind is one of the cuts.
type Kind uint8

const (
	Plunge Kind = iota
	Taper
	Cove
	Hopper // a compound miter of sides that slope
	Crown  // a compound miter of a molding that lies flat
	Resaw
	Stopped
	Round
	kinds
)

//corte:enum Kind
var kindNames = word.Names{Kind: "special cut", Of: []string{"plunge", "taper", "cove", "hopper", "crown", "resaw", "stopped", "round"}}

// An Ask is a cut as somebody says it. What a kind does not need is 0.
type Ask struct {
	Kind      Kind
	Saw       saw.Saw
	Blade     blade.Blade
	Material  material.Material // of Resaw
	Thickness measure.Length    // of the stock; of a round its diameter
	Height    measure.Length    // of the blade through the face that it works from
	Depth     measure.Length    // of a cove
	Width     measure.Length    // of a cove; the wide end of a taper; of a board that is resawn, on edge
	Narrow    measure.Length    // end of a taper
	Length    measure.Length    // of a taper; of a stopped or plunge cut; of a board that is resawn
	Known     measure.Length    // along a taper, where the jig's offset is wanted; 0 for its whole length
	SlopeDeg  float64           // of a hopper's sides, from the horizontal; 90 upright
	Sides     int               // of a hopper
	SpringDeg float64           // of a crown molding
	CornerDeg float64           // of the wall
	Ends      bool              // a stopped cut stops at both ends
}

// A Figure is one number of an answer, with its name.
type Figure struct {
	Name   say.Line
	Length measure.Length // where it is one
	Deg    float64        // where it is an angle
	Angle  bool
}

// A Pass is how high the blade stands for one pass.
type Pass struct {
	Height measure.Length
	Says   say.Line // which edge or pass it is
}

// A Plan is a cut worked out.
type Plan struct {
	Verdict  verdict.Verdict
	Stop     say.Line // why it may not be made; a sentence
	WayOut   say.Line // a sentence
	Figures  []Figure
	Passes   []Pass
	Steps    []say.Line // in order, how it is set up, held and cut
	Never    []say.Line
	Depth    measure.Length // that one pass takes; 0 where there is none
	PowerW   float64        // that the deepest pass takes
	Power    measure.Feed   // at this feed
	Cautions []say.Line
}

func (p *Plan) length(name say.Line, l measure.Length) {
	p.Figures = append(p.Figures, Figure{Name: name, Length: l})
}

func (p *Plan) angle(name say.Line, deg float64) {
	p.Figures = append(p.Figures, Figure{Name: name, Deg: deg, Angle: true})
}

func (p *Plan) step(form string, with ...any)  { p.Steps = append(p.Steps, say.Of(form, with...)) }
func (p *Plan) never(form string, with ...any) { p.Never = append(p.Never, say.Of(form, with...)) }

func (p *Plan) stop(wayOut say.Line, why string, with ...any) {
	*p = Plan{Verdict: verdict.Stop, Stop: say.Of(why, with...), WayOut: wayOut}
}

// manual is the last word on every one of these cuts.
var manual = say.Of("The saw’s manual has the last word: it may forbid this cut. Get trained before your first one.")

// Of works a cut out. The error is a *fault.Error that names the field.
func Of(a Ask) (Plan, error) {
	if err := a.check(); err != nil {
		return Plan{}, err
	}
	p := Plan{Verdict: verdict.Caution, Cautions: []say.Line{manual}}
	switch a.Kind {
	case Plunge:
		a.plunge(&p)
	case Taper:
		a.taper(&p)
	case Cove:
		a.cove(&p)
	case Hopper:
		a.hopper(&p)
	case Crown:
		a.crown(&p)
	case Resaw:
		a.resaw(&p)
	case Stopped:
		a.stopped(&p)
	case Round:
		a.round(&p)
	}
	return p, nil
}

// on lists the kinds of saw that make a cut.
var on = [kinds][]saw.Kind{
	Plunge: {saw.Circular}, Taper: {saw.Table}, Cove: {saw.Table}, Hopper: {saw.Table, saw.Miter}, Crown: {saw.Miter, saw.Table},
	Resaw: {saw.Table}, Stopped: {saw.Table}, Round: {saw.Table, saw.Miter},
}

// On reports whether a kind of saw makes the cut.
func (k Kind) On(s saw.Kind) bool { return slices.Contains(on[k], s) }

// Kinds lists the cuts that a kind of saw makes.
func Kinds(s saw.Kind) []Kind {
	out := []Kind{}
	for k := range kinds {
		if k.On(s) {
			out = append(out, k)
		}
	}
	return out
}

func (a Ask) check() error {
	if a.Kind >= kinds {
		return fault.At("special cut", "there is no such cut")
	}
	if !a.Kind.On(a.Saw.Kind) {
		return fault.At("saw", "a %s saw doesn’t make this cut; choose another saw", a.Saw.Kind)
	}
	between := func(v, lo, hi float64) bool { return v >= lo && v <= hi } // false for NaN
	switch {
	case a.Kind == Hopper && (a.Sides < 3 || a.Sides > 60):
		return fault.At("sides", "a hopper has between 3 and 60 sides")
	case a.Kind == Hopper && !between(a.SlopeDeg, 1, 90):
		return fault.At("slope", "the sides slope between 1 and 90 degrees from the horizontal; 90 is upright")
	case a.Kind == Crown && !between(a.SpringDeg, 10, 80):
		return fault.At("spring", "the spring angle is between 10 and 80 degrees; 38 and 45 are usual")
	case a.Kind == Crown && !between(a.CornerDeg, 20, 179):
		return fault.At("corner", "the corner is between 20 and 179 degrees; 90 is square")
	case a.Kind == Resaw && (a.Material.ID == "" || !a.Material.Kind.Modelled()):
		return fault.At("material", "choose the wood you resaw")
	}
	for _, s := range a.sizes() {
		if !between(s.size.Mm(), s.lo.Mm(), s.hi.Mm()) {
			return fault.At(s.where, "the %s must be between %s and %s", say.Word(s.name), s.lo, s.hi)
		}
	}
	return nil
}

// A size is one length of an ask, and what it lies between.
type size struct {
	where, name  string
	size, lo, hi measure.Length
}

// sizes are the lengths that a kind needs.
func (a Ask) sizes() []size {
	r, reach := a.Blade.Radius(), a.Saw.ReachWith(a.Blade, 0)
	return map[Kind][]size{
		Plunge: {
			{"thickness", "thickness", a.Thickness, 1, 300},
			{"height", "blade height", a.Height, 1, min(r, reach)},
			{"length", "length of the cut", a.Length, 10, 20_000},
		},
		Taper: {
			{"width", "wide end", a.Width, 5, 1500},
			{"narrow end", "narrow end", a.Narrow, 0, a.Width},
			{"known length", "length along the jig", a.Known, 0, 5000},
			{"length", "length of the taper", a.Length, 50, 5000},
		},
		Cove: {
			{"depth", "depth of the cove", a.Depth, 1, min(r, reach)},
			{"thickness", "thickness", a.Thickness, a.Depth + 3, 300},
			{"width", "width of the cove", a.Width, a.Blade.Kerf, 2 * r},
		},
		Resaw: {
			{"width", "width of the board", a.Width, 10, 400},
			{"length", "length of the board", a.Length, 100, 5000},
			{"thickness", "thickness of the board", a.Thickness, 5, 150},
		},
		Stopped: {
			{"thickness", "thickness", a.Thickness, 1, 300},
			{"height", "blade height", a.Height, 1, min(r, reach)},
			{"length", "length of the cut", a.Length, 10, 20_000},
		},
		Round: {
			{"thickness", "diameter of the stock", a.Thickness, 3, 200},
		},
	}[a.Kind]
}

// chord is how long a blade's cut is at a height through a face, from where it
// enters to where it leaves: 2·√(h(2R − h)).
func chord(r, h measure.Length) measure.Length {
	if h <= 0 {
		return 0
	}
	return 2 * measure.Length(math.Sqrt((h * (2*r - h)).Mm()))
}

func degrees(rad float64) float64 { return rad * 180 / math.Pi }
func radians(deg float64) float64 { return deg * math.Pi / 180 }

// powerIn is the power that a blade asks for a rip of a depth at a feed, W.
func (a Ask) powerIn(depth measure.Length, feed measure.Feed) float64 {
	j := cut.Job{Material: a.Material, Direction: cut.Rip, Finish: cut.Rough, Thickness: 2 * depth, Height: depth, Depth: depth, Form: cut.Groove, Width: 100, Length: a.Length}
	return cut.WorkAt(j, a.Blade, cut.Drive{RPM: a.Saw.RPM, PowerLimitW: a.Saw.PowerLimitW()}, cut.State{}, feed).PowerW
}
