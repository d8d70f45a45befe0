// Package cut says what one blade at one setting does to one piece of work:
// the arc it makes, the power it takes, how near it is to scorching, how the
// faces splinter where teeth leave, and between which feeds it cuts well.
//
// It is the cutting model of docs/model.md, sections 1 to 5, in closed form: a
// few dozen operations, no allocation. Lengths are millimetres, angles
// degrees, feed m/min, rim speed m/s, power W, heat J/cm².
package cut

import (
	"math"

	"corte/core/fault"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/word"
)

// A Direction is how the cut runs to the grain.
type Direction uint8

const (
	Rip      Direction = iota // along the grain
	Crosscut                  // across it
	Sheet                     // through face veneers that run both ways
)

//corte:enum Direction parse
var directionNames = word.Names{Kind: "direction", Of: []string{"rip", "crosscut", "sheet"}}

// Across reports whether fibres are severed: in sheet goods the face veneers
// are across the grain somewhere, so a sheet counts as a crosscut.
func (d Direction) Across() bool { return d != Rip }

// A Motion is how blade and work pass each other.
type Motion uint8

const (
	Along Motion = iota // the work past the blade, or a hand-held saw along the work
	Chop                // a miter saw down through the work
	Push                // a sliding miter saw along the work, front to back
)

//corte:enum Motion parse
var motionNames = word.Names{Kind: "motion", Of: []string{"along", "chop", "push"}}

// A Finish is what the cut face must be good for (craft section 1).
type Finish uint8

const (
	Rough  Finish = iota // cut or planed again
	Hidden               // glued up or out of sight
	Show                 // seen; light sanding only
	Fine                 // straight off the saw
)

var (
	//corte:enum Finish parse
	finishNames  = word.Names{Kind: "finish", Of: []string{"rough", "hidden", "show", "fine"}}
	finishLimits = [...]float64{2.5, 1.2, 0.6, 0.3}         // model section 4
	wallLimits   = [...]measure.Length{0, 0.12, 0.06, 0.03} // model section 4b
)

// alongBears is how much more an edge bears along the grain (model section 4).
const alongBears = 2

// SplinterLimit is the most splintering, on the model's scale, that a face of
// this finish bears across the grain. Along it an edge bears alongBears times
// that: there the wall is what counts. See Job.SplinterLimit.
func (f Finish) SplinterLimit() float64 { return finishLimits[f] }

// WallLimit is the deepest mark on the wall that this finish bears (model
// section 4b); 0 where none is looked for.
func (f Finish) WallLimit() measure.Length { return wallLimits[f] }

// A Support is what holds the fibres of a face where teeth leave it.
type Support uint8

const (
	Open          Support = iota
	Tape                  // over the line
	ZeroClearance         // an insert that closes on the plate
	Backer                // a fresh backer or fence
	Scored                // a knife line
	ScoringBlade          // a scoring blade before the main one
	Spare                 // the face is trimmed or out of sight: splinters there do not count
)

var (
	//corte:enum Support parse
	supportNames   = word.Names{Kind: "support", Of: []string{"open", "tape", "zero-clearance", "backer", "scored", "scoring-blade", "spare"}}
	supportFactors = [...]float64{1, 0.7, 0.45, 0.4, 0.35, 0.3, 1} // model section 4, u; the scoring blade craft section 19
)

// Factor is the share of the splintering that is left with this support.
func (s Support) Factor() float64 { return supportFactors[s] }

// FaceNames are the two places where teeth leave the work, in the order of
// Figures.Exit and Figures.Other. carried says that the work lies on the saw
// and the blade comes up through it.
func FaceNames(m Motion, carried bool) (exit, other string) {
	switch {
	case m == Chop:
		return "back edge", "bottom face"
	case carried:
		return "underside", "end edge"
	}
	return "top face", "end edge"
}

// UsualSupport is what a shop does without being told. The fence backs the far
// edge on a miter saw, and the gauge's fence backs a crosscut on a saw that
// carries the work. In sheet goods only the faces are looked at: the last
// corner is of no account. The rest stands open.
func UsualSupport(d Direction, m Motion, gauge bool) (exit, other Support) {
	switch {
	case m == Chop:
		return Backer, Open
	case m == Push:
		return Open, Backer
	case d == Sheet:
		return Open, Spare
	case d == Crosscut && gauge:
		return Open, Backer
	}
	return Open, Open
}

// A Form is what a cut leaves of the work: it parts it, or it stops at a depth
// (craft sections 1 and 12).
type Form uint8

const (
	Through Form = iota
	Groove       // wood on both sides and below
	Rabbet       // a step along an edge
	Cheek        // the side of a tenon
	Fold         // a kerf to fold along
)

//corte:enum Form parse
var formNames = word.Names{Kind: "form", Of: []string{"through", "groove", "rabbet", "cheek", "fold"}}

// Bears reports whether the bottom of the form meets another piece, so that it
// wants to be flat.
func (f Form) Bears() bool { return f == Groove || f == Rabbet || f == Cheek }

// A Bed is what lies under work that a hand-held saw cuts.
type Bed uint8

const (
	Air       Bed = iota // nothing near the line
	Runners              // battens that must survive the cut
	Sacrifice            // a sheet to be cut into
)

//corte:enum Bed parse
var bedNames = word.Names{Kind: "bed", Of: []string{"air", "runners", "sheet"}}

// A Side is left or right as somebody sees it who stands at the saw.
type Side uint8

const (
	UnknownSide Side = iota
	Left
	Right
)

//corte:enum Side parse
var sideNames = word.Names{Kind: "side", Of: []string{"unknown", "left", "right"}}

// Opposite is the other side; of an unknown one it is unknown.
func (s Side) Opposite() Side {
	switch s {
	case Left:
		return Right
	case Right:
		return Left
	}
	return UnknownSide
}

// A Moisture is how wet the stock is (craft section 1). The zero Moisture is dry.
type Moisture uint8

const (
	Dry    Moisture = iota
	Wet             // green, wet or freshly treated
	Frozen          // with ice in it
)

//corte:enum Moisture parse blank
var moistureNames = word.Names{Kind: "moisture", Of: []string{"dry", "wet", "frozen"}}

// What water does to wood, as factors on the table. Wet is the craft's
// figure, frozen is judgement: ice makes wood heavier, harder and more brittle.
var (
	moistureWeighs  = [...]float64{1, 1.25, 1.35}
	moistureSplits  = [...]float64{1, 1.3, 1.3}
	moisturePitches = [...]float64{1, 2, 1}
)

// Pitches is how much more pitch the stock leaves on a blade than dry stock.
func (m Moisture) Pitches() float64 { return moisturePitches[m] }

// A Part is pieces alike that are to be cut, before any saw is chosen. The zero values of
// its later fields are the plain case: right through, square, dry.
//
// Its names and their order are those of the contract, of files and of stored rows.
type Part struct {
	Pieces    int            `json:"pieces,omitempty"` // 0 means one
	Material  string         `json:"material"`         // id
	Direction Direction      `json:"direction"`
	Finish    Finish         `json:"finish"`
	Thickness measure.Length `json:"thickness_mm"` // of the board
	Width     measure.Length `json:"width_mm"`     // of the board; of the piece between fence and blade for a rip
	Length    measure.Length `json:"length_mm"`    // of the board
	Form      Form           `json:"form"`
	Depth     measure.Length `json:"depth_mm,omitempty"`  // of a form that does not go through
	BevelDeg  float64        `json:"bevel_deg,omitempty"` // tilt of the blade from square, 0 to 60
	MiterDeg  float64        `json:"miter_deg,omitempty"` // turn of the cut from straight across, 0 to 60
	Moisture  Moisture       `json:"moisture"`
	Moves     bool           `json:"moves,omitempty"` // tension in the board: it may close on the blade, or spring, as it is opened
}

// A Cut is a cut as somebody says it: the part and how they mean to make it.
// What is nil or unknown follows from the saw.
type Cut struct {
	Part
	Motion    *Motion        `json:"motion,omitempty"`
	Exit      *Support       `json:"exit_support,omitempty"`
	Other     *Support       `json:"other_support,omitempty"`
	Bed       Bed            `json:"bed,omitempty"`        // under a hand-held saw
	Piece     measure.Length `json:"piece_mm,omitempty"`   // length that is cut off; 0 if it was not said
	FenceSide Side           `json:"fence_side,omitempty"` // of the blade that somebody means to put the fence to
	BrakeOff  bool           `json:"brake_off,omitempty"`  // somebody says that the saw's blade brake is bypassed, as its manual says
	StoodBy   bool           `json:"stood_by,omitempty"`   // somebody who is signed off for it stands by
	Board     measure.Length `json:"board_mm,omitempty"`   // width of the board that a piece of Width is ripped from; 0 if not said
	Carriage  bool           `json:"carriage,omitempty"`   // on the saw's sliding carriage instead of along its fence
}

// Unanswered is the cut without what somebody answered to a question of safety:
// an answer holds for the cut that it was given for, and is asked for anew.
func (c Cut) Unanswered() Cut {
	c.BrakeOff, c.StoodBy = false, false
	return c
}

// A Job is a cut as it is settled on a saw, before any blade is chosen.
type Job struct {
	Material  material.Material
	Direction Direction
	Motion    Motion
	Finish    Finish
	Thickness measure.Length // of the board
	Width     measure.Length // of the board; of the piece between fence and blade for a rip
	Length    measure.Length // of the board
	Height    measure.Length // straight up from the table, down from the shoe, down from the top face on the push; unused for a chop
	Exit      Support        // of the face where teeth leave; of the back edge for a chop
	Other     Support        // of the end edge; of the bottom face for a chop

	Form      Form
	Depth     measure.Length
	BevelDeg  float64
	MiterDeg  float64
	Bed       Bed
	Piece     measure.Length
	BothFaces bool // half from each face, because the saw does not reach through
	Pieces    int
	Moisture  Moisture
	Moves     bool
	FenceSide Side
	BrakeOff  bool
	StoodBy   bool
	Board     measure.Length
	Carriage  bool
}

// Cut is the job as it would be said, with nothing left out.
func (j Job) Cut() Cut {
	return Cut{
		Part: Part{
			Pieces: j.Count(), Material: j.Material.ID, Direction: j.Direction, Finish: j.Finish,
			Thickness: j.Thickness, Width: j.Width, Length: j.Length, Form: j.Form, Depth: j.Depth,
			BevelDeg: j.BevelDeg, MiterDeg: j.MiterDeg, Moisture: j.Moisture, Moves: j.Moves,
		},
		Motion: &j.Motion, Exit: &j.Exit, Other: &j.Other, Bed: j.Bed, Piece: j.Piece, FenceSide: j.FenceSide,
		BrakeOff: j.BrakeOff, StoodBy: j.StoodBy, Board: j.Board, Carriage: j.Carriage,
	}
}

// Count is how many pieces are cut: one where it was not said.
func (j Job) Count() int { return max(1, j.Pieces) }

// SplinterLimit is the most splintering that a face of this job bears.
func (j Job) SplinterLimit() float64 {
	if j.Direction.Across() {
		return j.Finish.SplinterLimit()
	}
	return alongBears * j.Finish.SplinterLimit()
}

// MeetsWidth is the width of the section that the blade really meets: a turned
// cut is longer than the board is wide.
func (j Job) MeetsWidth() measure.Length {
	return j.Width / measure.Length(math.Cos(radians(j.MiterDeg)))
}

// MeetsThickness is the thickness of the section that the blade really meets:
// a tilted blade has more wood in its way.
func (j Job) MeetsThickness() measure.Length {
	return j.Thickness / measure.Length(math.Cos(radians(j.BevelDeg)))
}

// CutLength is how far the blade travels through the work in one cut.
func (j Job) CutLength() measure.Length {
	switch {
	case j.Direction == Crosscut:
		return j.MeetsWidth()
	case j.BothFaces:
		return 2 * j.Length
	}
	return j.Length
}

// WallLength is how long each wall is that a piece leaves behind: what may
// scorch, and what has to be sanded. A chop's wall is as long as the work is
// wide under the blade.
func (j Job) WallLength() measure.Length {
	if j.Motion == Chop {
		return j.MeetsWidth()
	}
	return j.CutLength()
}

// EdgeLength is how long one edge is that a cut leaves, where wall and face meet.
func (j Job) EdgeLength() measure.Length {
	if j.Direction == Crosscut {
		return j.MeetsWidth()
	}
	return j.Length
}

// FeedLength is how far blade and work pass each other in one piece: a chop
// goes down through the thickness.
func (j Job) FeedLength() measure.Length {
	if j.Motion == Chop {
		return j.MeetsThickness()
	}
	return j.CutLength()
}

// Swept is the depth of wood that one pass of the blade goes through, in the
// blade's own plane.
func (j Job) Swept() measure.Length {
	deep := j.Thickness
	if j.Form != Through {
		deep = j.Depth
	} else if j.BothFaces {
		deep /= 2
	}
	return deep / measure.Length(math.Cos(radians(j.BevelDeg)))
}

// NotThrough reports whether the setting leaves wood above or below the kerf.
func (j Job) NotThrough() bool { return j.Motion != Chop && j.Height < j.Thickness }

// Clears is how far a blade must stand through the work to have parted it: a
// hair is not through, since an alternate bevel alone leaves half a millimetre
// standing (craft section 4).
const Clears = measure.Length(3)

// LeastClears is how far through still parts it, where the saw reaches no
// further: enough on scrap, with care.
const LeastClears = measure.Length(2)

// Parts reports whether the setting does what the form asks: it parts the
// work, or stops where it should.
func (j Job) Parts() bool {
	const hair = 0.01 // mm, of rounding
	switch {
	case j.Motion == Chop:
		return true
	case j.Form != Through:
		return math.Abs((j.Height - j.Depth).Mm()) < hair
	case j.BothFaces:
		return j.Height > j.Thickness/2
	}
	return j.Height > j.Thickness+Clears-hair
}

// MostPieces is more alike than anybody cuts in one go.
const MostPieces = 9999

// Check reports the first size of a job that no saw could meet. It does not
// look at the height, which depends on the blade.
func (j Job) Check() error {
	for _, s := range []struct {
		where, name string
		v, lo, hi   measure.Length
	}{
		{"thickness", "thickness", j.Thickness, 0.5, 400},
		{"width", "width", j.Width, 1, 5000},
		{"length", "length", j.Length, 1, 20_000},
	} {
		if !(s.v >= s.lo && s.v <= s.hi) { // written so that NaN fails
			return fault.At(s.where, "the %s must be between %v and %v", s.name, s.lo, s.hi)
		}
	}
	const steepest = 60
	switch {
	case !(j.BevelDeg >= 0 && j.BevelDeg <= steepest):
		return fault.At("bevel", "a bevel is between 0 and 60 degrees from square")
	case !(j.MiterDeg >= 0 && j.MiterDeg <= steepest):
		return fault.At("miter", "a miter is between 0 and 60 degrees from straight across")
	case j.MiterDeg > 0 && j.Direction == Rip:
		return fault.At("miter", "a rip follows the fence and has no miter. Tilt the blade, or crosscut")
	case j.Form != Through && !(j.Depth >= 0.5 && j.Depth < j.Thickness):
		return fault.At("depth", "a %s doesn't go through. Its depth is at least 0.5 mm and less than the thickness, %v", j.Form, j.Thickness)
	case !(j.Piece >= 0 && j.Piece <= 20_000):
		return fault.At("piece", "the length to cut off is at most 20 m, or 0 if unknown")
	case j.Board != 0 && !(j.Board >= j.Width && j.Board <= 5000):
		return fault.At("board", "the board is at least as wide as the piece you rip from it, %v", j.Width)
	case j.Pieces < 0 || j.Pieces > MostPieces:
		return fault.At("pieces", "enter the number of pieces, 1 to 9999")
	}
	return nil
}
