package groove

import (
	"slices"

	"corte/core/fault"
	"corte/core/measure"
	"corte/core/say"
	"corte/core/word"
)

// A Fit is how a piece is to sit in its groove.
type Fit uint8

const (
	Glue Fit = iota // slides in by hand, with room for a film of glue
	Slip            // slides in and out by hand, for a shelf that moves
	Tap             // wants a mallet
)

//corte:enum Fit parse
var fitNames = word.Names{Kind: "fit", Of: []string{"glue", "slip", "tap"}}

// Allowance is by how much the groove is wider than the piece.
func (f Fit) Allowance() measure.Length { return [...]measure.Length{0.1, 0.25, 0}[f] }

// A Piece is what goes into a groove, as thick as it was measured.
type Piece struct {
	Thickest, Thinnest measure.Length
	Places             int // at which it was measured
}

const (
	// A piece that varies by more than that is not one thickness.
	mostSpread = 0.8
	// From that on its thin places are slack in a groove that takes the thick ones.
	slackSpread = 0.2
)

// PieceOf takes the readings over a piece. They must be of one thickness.
func PieceOf(readings []measure.Length) (Piece, error) {
	if len(readings) == 0 {
		return Piece{}, fault.At("piece", "measure the piece that goes in, in at least one place")
	}
	for _, r := range readings {
		if !(r >= 0.3 && r <= widest) {
			return Piece{}, fault.At("piece", "a piece is between %s and %s thick", measure.Length(0.3), widest)
		}
	}
	p := Piece{slices.Max(readings), slices.Min(readings), len(readings)}
	if spread := p.Thickest - p.Thinnest; spread > mostSpread+hair {
		return p, fault.At("piece", "the readings range from %s to %s. Measure again, or plane the piece to one thickness first", p.Thinnest, p.Thickest)
	}
	return p, nil
}

// Mind says what to mind about a piece that is not all of one thickness, or
// was measured once; empty if nothing.
func (p Piece) Mind() say.Line {
	switch spread := p.Thickest - p.Thinnest; {
	case p.Places == 1:
		return say.Of("Measured in one place only. Sheets vary, so measure in two more.")
	case spread > slackSpread+hair:
		return say.Of("It varies by %s. The groove fits its thickest place, so the thinnest will be loose.", spread)
	}
	return say.Line{}
}
