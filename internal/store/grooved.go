package store

import (
	"corte/core/measure"

	"github.com/google/uuid"
)

// A GroovedDetail is what a log row keeps of a groove: a test in scrap, or so
// many that were made.
type GroovedDetail struct {
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

// A RenewedDetail is what a log row keeps of parts that are no longer what they
// were.
type RenewedDetail struct {
	Why   string     `json:"why"` // sharpened, replaced or worn
	Outer bool       `json:"outer,omitempty"`
	Parts []PartUsed `json:"parts,omitempty"`
}
