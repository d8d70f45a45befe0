package history

import (
	"github.com/google/uuid"

	"corte/core/groove"
	"corte/core/measure"
)

// A Grooved is what a log row keeps of a groove: a test in scrap, or so
// many that were made.
type Grooved struct {
	Groove uuid.UUID        `json:"groove_id"`
	Test   bool             `json:"test,omitempty"`
	Target measure.Length   `json:"target_mm"`
	Width  []measure.Length `json:"width_mm,omitempty"` // as it was measured
	Depth  measure.Length   `json:"depth_mm,omitempty"`
	Made   int              `json:"made,omitempty"`
	Left   measure.Length   `json:"left_mm,omitempty"` // tip widths of the outer pair, as stamped
	Right  measure.Length   `json:"right_mm,omitempty"`
	Parts  []PartUsed       `json:"parts,omitempty"` // of a stack
	Dial   *DialUsed        `json:"dial,omitempty"`
}

// A PartUsed is how many of a part were in a stack.
type PartUsed struct {
	Thickness measure.Length `json:"thickness_mm"` // as stamped
	Shim      bool           `json:"shim,omitempty"`
	Count     int            `json:"count"`
}

// A DialUsed is how a dial set stood.
type DialUsed struct {
	Cutters int     `json:"cutters"`
	Turns   float64 `json:"turns"`
}

// A Renewed is what a log row keeps of parts that are no longer what they
// were.
type Renewed struct {
	Why   string     `json:"why"` // sharpened, replaced or worn
	Outer bool       `json:"outer,omitempty"`
	Parts []PartUsed `json:"parts,omitempty"`
}

// Event is a test groove as the core knows it.
func (d Grooved) Event() groove.Event {
	e := groove.Event{What: groove.Tested, Parts: PartsOf(d.Parts), Left: d.Left, Right: d.Right}
	if d.Dial != nil {
		e.Dial = &groove.Dial{Cutters: d.Dial.Cutters, Turns: d.Dial.Turns}
	}
	for _, w := range d.Width {
		e.Widths = append(e.Widths, measure.Length(w))
	}
	return e
}

// PartsOf are parts as the core knows them.
func PartsOf(used []PartUsed) []groove.Part {
	out := make([]groove.Part, len(used))
	for i, p := range used {
		out[i] = groove.Part{Thickness: p.Thickness, Shim: p.Shim, Count: p.Count}
	}
	return out
}
