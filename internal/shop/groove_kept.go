package shop

import (
	"encoding/json"
	"time"

	"corte/core/groove"
	"corte/core/measure"
	"corte/internal/store"
)

// A keptTest and a keptStand are how a fitting is kept.
type keptTest struct {
	At    time.Time `json:"at"`
	Width float64   `json:"width_mm"`
	Off   float64   `json:"off_mm"`
	Depth float64   `json:"depth_mm,omitempty"`
	Set   keptStand `json:"set"` // that it was made with
	Doubt bool      `json:"doubt,omitempty"`
}

type keptStand struct {
	Parts  []store.PartUsed `json:"parts,omitempty"`
	Dial   *store.DialUsed  `json:"dial,omitempty"`
	Shift  float64          `json:"shift_mm,omitempty"`
	Off    float64          `json:"off_mm,omitempty"`
	Passes int              `json:"passes,omitempty"`
	Height float64          `json:"height_mm"`
}

func keepStand(s groove.Stand) keptStand {
	out := keptStand{Shift: s.Shift.Mm(), Off: s.Off.Mm(), Passes: s.Passes, Height: s.Height.Mm()}
	for _, p := range s.Parts {
		out.Parts = append(out.Parts, used(p, p.Count))
	}
	if s.Dial != nil {
		out.Dial = &store.DialUsed{Cutters: s.Dial.Cutters, Turns: s.Dial.Turns}
	}
	return out
}

func (k keptStand) stand() groove.Stand {
	out := groove.Stand{Parts: store.PartsOf(k.Parts), Shift: measure.Length(k.Shift), Off: measure.Length(k.Off), Passes: k.Passes, Height: measure.Length(k.Height)}
	if k.Dial != nil {
		out.Dial = &groove.Dial{Cutters: k.Dial.Cutters, Turns: k.Dial.Turns}
	}
	return out
}

func keepTests(tests []groove.Test) []keptTest {
	out := make([]keptTest, len(tests))
	for i, t := range tests {
		out[i] = keptTest{t.At, t.Width.Mm(), t.Off.Mm(), t.Depth.Mm(), keepStand(t.With), t.Doubt}
	}
	return out
}

func testsKept(kept []keptTest) []groove.Test {
	out := make([]groove.Test, len(kept))
	for i, k := range kept {
		out[i] = groove.Test{At: k.At, Width: measure.Length(k.Width), Off: measure.Length(k.Off), Depth: measure.Length(k.Depth), With: k.Set.stand(), Doubt: k.Doubt}
	}
	return out
}

// grooveAsked is what is kept of an ask.
type grooveAsked struct {
	Ask    GrooveAsk `json:"ask"`
	Piece  float64   `json:"piece_mm"`
	Target float64   `json:"target_mm"`
	Depth  float64   `json:"depth_mm"`
}

func unmarshal(pairs ...any) error {
	for i := 0; i < len(pairs); i += 2 {
		if err := json.Unmarshal(pairs[i].(json.RawMessage), pairs[i+1]); err != nil {
			return err
		}
	}
	return nil
}
