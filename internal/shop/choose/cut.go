package choose

import (
	"github.com/google/uuid"

	"corte/core/blade"
	"corte/core/care"
	"corte/core/choose"
	"corte/core/cut"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/saw"
	"corte/internal/record"
	"corte/internal/refusal"
)

// A Cut is a cut as somebody says it. What they leave out follows from the saw.
type Cut struct {
	SawID     uuid.UUID
	Material  string
	Direction cut.Direction
	Motion    *cut.Motion
	Finish    cut.Finish
	Thickness measure.Length
	Width     measure.Length
	Length    measure.Length
	Exit      *cut.Support
	Other     *cut.Support
	Form      cut.Form
	Depth     measure.Length // of a form that does not go through
	BevelDeg  float64
	MiterDeg  float64
	Bed       cut.Bed
	Piece     measure.Length // length that is cut off; 0 if not said
	Pieces    int            // 0 for one
	Moisture  cut.Moisture
	Moves     bool
	FenceSide cut.Side
	BrakeOff  bool
	StoodBy   bool           // somebody who is signed off for it
	Board     measure.Length // that a piece is ripped from; 0 if not said
	Carriage  bool           // on the saw's sliding carriage
}

// Unanswered is the cut without what somebody answered to a question of safety:
// an answer holds for the cut that it was given for, and is asked for anew.
func (c Cut) Unanswered() Cut {
	c.BrakeOff, c.StoodBy = false, false
	return c
}

// Job settles what a cut leaves open on a saw.
func (c Cut) Job(s record.Saw) (cut.Job, error) {
	m, err := material.Get(c.Material)
	if err != nil {
		return cut.Job{}, refusal.Of("cut.material", "%s; choose one of the list", err)
	}
	j := cut.Job{
		Material: m, Direction: c.Direction, Finish: c.Finish,
		Thickness: c.Thickness, Width: c.Width, Length: c.Length,
		Form: c.Form, Depth: c.Depth, BevelDeg: c.BevelDeg, MiterDeg: c.MiterDeg, Bed: c.Bed, Piece: c.Piece,
		Pieces: max(1, c.Pieces), Moisture: c.Moisture, Moves: c.Moves, FenceSide: c.FenceSide, BrakeOff: c.BrakeOff, StoodBy: c.StoodBy, Board: c.Board, Carriage: c.Carriage,
	}
	if j.Form == cut.Through {
		j.Depth = 0
	}
	j.Motion = s.UsualMotion(j.MeetsWidth())
	if c.Motion != nil {
		j.Motion = *c.Motion
	}
	j.Exit, j.Other = cut.UsualSupport(j.Direction, j.Motion, s.Kind.CarriesWork())
	if s.Kind == saw.Table && j.Form == cut.Through && s.Scores(j.BevelDeg) {
		j.Exit = cut.ScoringBlade
	}
	if c.Exit != nil {
		j.Exit = *c.Exit
	}
	if c.Other != nil {
		j.Other = *c.Other
	}
	return choose.Settle(j, s.Saw), nil
}

// State is the condition of a blade as the cutting model sees it.
func State(b blade.Blade, c care.Condition) cut.State {
	return cut.State{Sharpness: c.Sharpness(b.Grind), Pitch: c.PitchLevel(), Chipped: c.Chipped()}
}
