package groove

import (
	"encoding/json"
	"errors"
	"time"

	"github.com/google/uuid"

	"corte/core/cut"
	"corte/core/groove"
	"corte/core/history"
	"corte/core/measure"
	"corte/internal/record"
	"corte/internal/store"
)

// A storedTest and a storedStand are how a fitting is kept.
type storedTest struct {
	At    time.Time      `json:"at"`
	Width measure.Length `json:"width_mm"`
	Off   measure.Length `json:"off_mm"`
	Depth measure.Length `json:"depth_mm,omitempty"`
	Set   storedStand    `json:"set"` // that it was made with
	Doubt bool           `json:"doubt,omitempty"`
}

type storedStand struct {
	Parts  []history.PartUsed `json:"parts,omitempty"`
	Dial   *history.DialUsed  `json:"dial,omitempty"`
	Shift  measure.Length     `json:"shift_mm,omitempty"`
	Off    measure.Length     `json:"off_mm,omitempty"`
	Passes int                `json:"passes,omitempty"`
	Height measure.Length     `json:"height_mm"`
}

func keepStand(s groove.Stand) storedStand {
	out := storedStand{Shift: s.Shift, Off: s.Off, Passes: s.Passes, Height: s.Height}
	for _, p := range s.Parts {
		out.Parts = append(out.Parts, used(p, p.Count))
	}
	if s.Dial != nil {
		out.Dial = &history.DialUsed{Cutters: s.Dial.Cutters, Turns: s.Dial.Turns}
	}
	return out
}

func (k storedStand) stand() groove.Stand {
	out := groove.Stand{Parts: history.PartsOf(k.Parts), Shift: measure.Length(k.Shift), Off: measure.Length(k.Off), Passes: k.Passes, Height: measure.Length(k.Height)}
	if k.Dial != nil {
		out.Dial = &groove.Dial{Cutters: k.Dial.Cutters, Turns: k.Dial.Turns}
	}
	return out
}

func keepTests(tests []groove.Test) []storedTest {
	out := make([]storedTest, len(tests))
	for i, t := range tests {
		out[i] = storedTest{t.At, t.Width, t.Off, t.Depth, keepStand(t.With), t.Doubt}
	}
	return out
}

func testsKept(kept []storedTest) []groove.Test {
	out := make([]groove.Test, len(kept))
	for i, k := range kept {
		out[i] = groove.Test{At: k.At, Width: measure.Length(k.Width), Off: measure.Length(k.Off), Depth: measure.Length(k.Depth), With: k.Set.stand(), Doubt: k.Doubt}
	}
	return out
}

// A storedAsk is what is kept of an ask, under the names that it has been kept
// under since the first edition: they are those of that edition's Go fields.
// testdata/asked.json holds one as it was written.
type storedAsk struct {
	Ask struct {
		Cut   storedCut
		Piece []measure.Length
		Fit   groove.Fit
		Edge  measure.Length
		Count int
	} `json:"ask"`
	Piece  measure.Length `json:"piece_mm"`  // at its thickest
	Target measure.Length `json:"target_mm"` // width of the groove
	Depth  measure.Length `json:"depth_mm"`
}

type storedCut struct {
	Saw uuid.UUID `json:"SawID"`
	storedPart
	Motion    *cut.Motion
	Exit      *cut.Support
	Other     *cut.Support
	Bed       cut.Bed
	Piece     measure.Length
	FenceSide cut.Side
	BrakeOff  bool
	StoodBy   bool
	Board     measure.Length `json:",omitempty"`
	Carriage  bool           `json:",omitempty"`
}

// A storedPart is cut.Part without the names that it has in the contract.
type storedPart struct {
	Pieces    int
	Material  string
	Direction cut.Direction
	Finish    cut.Finish
	Thickness measure.Length
	Width     measure.Length
	Length    measure.Length
	Form      cut.Form
	Depth     measure.Length
	BevelDeg  float64
	MiterDeg  float64
	Moisture  cut.Moisture
	Moves     bool
}

func (c scene) keep() ([]byte, error) {
	a, d := c.ask, c.ask.Cut
	k := storedAsk{Piece: c.piece.Thickest, Target: c.want.Width, Depth: c.want.Depth}
	k.Ask.Piece, k.Ask.Fit, k.Ask.Edge, k.Ask.Count = a.Piece, a.Fit, a.Edge, a.Count
	k.Ask.Cut = storedCut{d.SawID, storedPart(d.Part), d.Motion, d.Exit, d.Other, d.Bed, d.Piece, d.FenceSide, d.BrakeOff, d.StoodBy, d.Board, d.Carriage}
	return json.Marshal(k)
}

func (k storedAsk) ask() Ask {
	a, d := k.Ask, k.Ask.Cut
	return Ask{Piece: a.Piece, Fit: a.Fit, Edge: a.Edge, Count: a.Count, Cut: record.Cut{SawID: d.Saw, Cut: cut.Cut{
		Part: cut.Part(d.storedPart), Motion: d.Motion, Exit: d.Exit, Other: d.Other, Bed: d.Bed, Piece: d.Piece,
		FenceSide: d.FenceSide, BrakeOff: d.BrakeOff, StoodBy: d.StoodBy, Board: d.Board, Carriage: d.Carriage}}}
}

// Readable reports what of a row cannot be read.
func Readable(row store.Groove) error {
	var asked storedAsk
	var set storedStand
	var tests []storedTest
	if err := unmarshal(row.Asked, &asked, row.Setting, &set, row.Tests, &tests); err != nil {
		return err
	}
	all := []float64{asked.Piece.Mm(), asked.Target.Mm(), asked.Depth.Mm(), set.Shift.Mm(), set.Off.Mm(), set.Height.Mm()}
	for _, t := range tests {
		all = append(all, t.Width.Mm(), t.Off.Mm(), t.Depth.Mm())
	}
	return errors.Join(store.Figures(all...), store.Counts(row.Made, set.Passes))
}

func unmarshal(pairs ...any) error {
	for i := 0; i < len(pairs); i += 2 {
		if err := json.Unmarshal(pairs[i].(json.RawMessage), pairs[i+1]); err != nil {
			return err
		}
	}
	return nil
}
