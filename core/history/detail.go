package history

import (
	"encoding/json"
	"time"

	"github.com/google/uuid"

	"corte/core/measure"
	"corte/core/say"
)

// A Traced links a log row to the fault finding that it closes.
type Traced struct {
	Trace uuid.UUID `json:"trace_id"`
	Cause string    `json:"cause"`
	Fixed bool      `json:"fixed"`
}

// A Sharpened is what a log row keeps of a blade that came back from the
// saw doctor, sharpened or not.
type Sharpened struct {
	Price    float64        `json:"price,omitempty"`
	Report   string         `json:"report,omitempty"`
	Replaced int            `json:"teeth_replaced,omitempty"`
	Left     *int           `json:"sharpenings_left,omitempty"`
	Kerf     measure.Length `json:"kerf_mm,omitempty"`
	Diameter measure.Length `json:"diameter_mm,omitempty"`
}

// A Sent is what a log row keeps of a blade that goes to the saw doctor.
type Sent struct {
	To       string     `json:"to"`
	Expected *time.Time `json:"expected,omitempty"` // a day, whatever the zone: the one that it is at Greenwich
	Asked    float64    `json:"price_asked,omitempty"`
}

// A Washed is what a log row keeps of a wash.
type Washed struct {
	Cleaner string     `json:"cleaner,omitempty"`
	Brush   string     `json:"brush,omitempty"`
	Bath    *uuid.UUID `json:"bath_id,omitempty"`
	With    int        `json:"with,omitempty"` // blades in the same bath
}

// A Judged is what somebody said of how a blade cuts.
type Judged struct {
	Says string `json:"says"` // dull, hard, pitchy or like-new
}

// An Inspected is what a look-over found.
type Inspected struct {
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

// A Mended says who mended a blade and who inspected it.
type Mended struct {
	MendedBy    string `json:"mended_by"`
	InspectedBy string `json:"inspected_by"`
	What        string `json:"what,omitempty"`
}

// A Compared links a log row to its comparison.
type Compared struct {
	Trial uuid.UUID  `json:"trial_id"`
	Says  []say.Line `json:"says"`
}

// A Retired is what a log row keeps of a blade or saw taken out of use.
type Retired struct {
	Reason string `json:"reason"`
}

// A Truing is what a log row keeps of a truing: the figure that it came
// to, and everything that was read.
type Truing struct {
	Figure  float64         `json:"figure"`
	Unit    string          `json:"figure_unit"` // mm or deg
	Verdict string          `json:"verdict"`
	Input   json.RawMessage `json:"input,omitempty"`

	Heel *measure.Length `json:"heel_mm,omitempty"` // toward the fence
	Open *measure.Length `json:"open_mm,omitempty"` // of the fence at the rear
}
