package store

import (
	"corte/core/measure"
	"corte/core/say"
	"encoding/json"
	"time"

	"github.com/google/uuid"
)

// A CutDetail is what a log row keeps of a cut.
type CutDetail struct {
	Material  string         `json:"material"`
	Direction string         `json:"direction"`
	Motion    string         `json:"motion"`
	Finish    string         `json:"finish"`
	Thickness measure.Length `json:"thickness_mm"`
	Width     measure.Length `json:"width_mm"`
	Length    measure.Length `json:"length_mm"`
	Height    measure.Length `json:"height_mm,omitempty"`
	Pieces    int            `json:"pieces"`
	Metres    float64        `json:"metres,omitempty"` // of cut, where somebody counted those and not pieces
	Exit      string         `json:"exit_support"`
	Other     string         `json:"other_support"`
	Feed      float64        `json:"feed_m_min,omitempty"` // that was aimed at
	Wall      string         `json:"wall"`
	Splinters string         `json:"splinters"`

	OtherSplinters string  `json:"other_splinters,omitempty"` // of the other face where teeth leave
	Effort         string  `json:"effort,omitempty"`          // easy, normal or hard
	Noise          string  `json:"noise,omitempty"`           // smooth, usual or loud
	Seconds        float64 `json:"seconds,omitempty"`         // that a piece really took
	CameBack       *bool   `json:"came_back,omitempty"`       // after a wash

	Form      string         `json:"form,omitempty"` // through where it is not said
	Depth     measure.Length `json:"depth_mm,omitempty"`
	Bevel     float64        `json:"bevel_deg,omitempty"`
	Miter     float64        `json:"miter_deg,omitempty"`
	BothFaces bool           `json:"both_faces,omitempty"`
	Moisture  string         `json:"moisture,omitempty"` // dry where it is not said
	Moves     bool           `json:"moves,omitempty"`

	Heard    *Heard    `json:"heard,omitempty"` // where somebody listened
	Wears    *Wears    `json:"wears,omitempty"` // missing in old rows
	Foretold *Foretold `json:"foretold,omitempty"`
}

// A Heard is how fast a saw was heard to turn, a minute, idling and in the work.
type Heard struct {
	Idle  float64 `json:"idle_rpm"`
	Mean  float64 `json:"mean_rpm"`
	Least float64 `json:"least_rpm"`
}

// A Wears is what a material did to an edge and a plate when it was cut, so that
// a table that is put right later does not age the blades of years ago.
type Wears struct {
	Abrasion float64 `json:"abrasion"`
	Resin    float64 `json:"resin"`
}

// A TracedDetail links a log row to the fault finding that it closes.
type TracedDetail struct {
	Trace uuid.UUID `json:"trace_id"`
	Cause string    `json:"cause"`
	Fixed bool      `json:"fixed"`
}

// A SharpenedDetail is what a log row keeps of a blade that came back from the
// saw doctor, sharpened or not.
type SharpenedDetail struct {
	Price    float64        `json:"price,omitempty"`
	Report   string         `json:"report,omitempty"`
	Replaced int            `json:"teeth_replaced,omitempty"`
	Left     *int           `json:"sharpenings_left,omitempty"`
	Kerf     measure.Length `json:"kerf_mm,omitempty"`
	Diameter measure.Length `json:"diameter_mm,omitempty"`
}

// A SentDetail is what a log row keeps of a blade that goes to the saw doctor.
type SentDetail struct {
	To       string     `json:"to"`
	Expected *time.Time `json:"expected,omitempty"` // a day, whatever the zone: the one that it is at Greenwich
	Asked    float64    `json:"price_asked,omitempty"`
}

// A WashedDetail is what a log row keeps of a wash.
type WashedDetail struct {
	Cleaner string     `json:"cleaner,omitempty"`
	Brush   string     `json:"brush,omitempty"`
	Bath    *uuid.UUID `json:"bath_id,omitempty"`
	With    int        `json:"with,omitempty"` // blades in the same bath
}

// A JudgedDetail is what somebody said of how a blade cuts.
type JudgedDetail struct {
	Says string `json:"says"` // dull, hard, pitchy or like-new
}

// An InspectedDetail is what a look-over found.
type InspectedDetail struct {
	Fault  string  `json:"fault,omitempty"` // empty where all is sound
	Survey *Survey `json:"survey,omitempty"`
}

// A Survey is what a guided look-over saw, as it was said.
type Survey struct {
	After   string `json:"after"`
	Cleaned bool   `json:"cleaned,omitempty"`
	Missing int    `json:"missing,omitempty"`
	Chipped int    `json:"chipped,omitempty"`
	Loose   int    `json:"loose,omitempty"`
	Seat    string `json:"seat,omitempty"`
	Braze   string `json:"braze,omitempty"`
	Rest    string `json:"rest,omitempty"`
	Pitch   string `json:"pitch,omitempty"`
	Blue    *bool  `json:"blue,omitempty"`
	Crack   string `json:"crack,omitempty"`
	Bent    *bool  `json:"bent,omitempty"`
	Beside  string `json:"beside,omitempty"`
}

// A MendedDetail says who mended a blade and who inspected it.
type MendedDetail struct {
	MendedBy    string `json:"mended_by"`
	InspectedBy string `json:"inspected_by"`
	What        string `json:"what,omitempty"`
}

// A ComparedDetail links a log row to its comparison.
type ComparedDetail struct {
	Trial uuid.UUID  `json:"trial_id"`
	Says  []say.Line `json:"says"`
}

// A RetiredDetail is what a log row keeps of a blade or saw taken out of use.
type RetiredDetail struct {
	Reason string `json:"reason"`
}

// A TruingDetail is what a log row keeps of a truing: the figure that it came
// to, and everything that was read.
type TruingDetail struct {
	Figure  float64         `json:"figure"`
	Unit    string          `json:"figure_unit"` // mm or deg
	Verdict string          `json:"verdict"`
	Input   json.RawMessage `json:"input,omitempty"`

	Heel *measure.Length `json:"heel_mm,omitempty"` // toward the fence
	Open *measure.Length `json:"open_mm,omitempty"` // of the fence at the rear
}
