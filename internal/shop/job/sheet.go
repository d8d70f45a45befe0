package job

import (
	"github.com/google/uuid"

	"corte/core/job"
	"corte/core/measure"
	"corte/core/say"
)

// A Sheet is a stored run sheet: the plan and the figures behind it. Times are minutes
// from the start of the day.
type Sheet struct {
	V    int    `json:"v"`
	Over string `json:"over"` // which rows it was laid over: their digest
	// Minutes a piece that were foretold of each row when it was first planned:
	// what is made is planned no more, and is weighed against this.
	Foretold   map[uuid.UUID]float64 `json:"foretold,omitempty"`
	Turns      []Turn                `json:"turns"`
	LeftOut    []LeftOut             `json:"left_out,omitempty"`
	Passes     []Pass                `json:"passes,omitempty"`
	Changes    int                   `json:"changes"`
	CutMin     float64               `json:"cut_min"`
	ChangesMin float64               `json:"changes_min"`
	WashMin    float64               `json:"wash_min,omitempty"` // of washes in the middle of the work
	BoundMin   float64               `json:"bound_min"`          // nothing is shorter
	EndMin     float64               `json:"end_min"`            // when all is done, with so many people
	People     int                   `json:"people"`
	Exact      bool                  `json:"exact"`
	Heard      []Heard               `json:"heard,omitempty"`
	Burn       float64               `json:"burn"` // mean over the pieces of what has a feed range
}

const sheetNow = 1

// A Turn is a stretch of work with one blade on one saw.
type Turn struct {
	Stage     job.Stage `json:"stage"`
	Saw       uuid.UUID `json:"saw_id"`
	SawName   string    `json:"saw_name"`
	Blade     uuid.UUID `json:"blade_id"`
	BladeName string    `json:"blade_name"`
	Teeth     int       `json:"teeth"`
	Changed   bool      `json:"changed"`
	Wash      bool      `json:"wash,omitempty"` // its blade is washed before
	Person    int       `json:"person"`
	Begin     float64   `json:"begin_min"`
	CutsFrom  float64   `json:"cuts_from_min"`
	End       float64   `json:"end_min"`
	Cuts      []Cut     `json:"cuts"`
}

// A Cut is pieces of a row in a turn, with the figures that Run shows.
type Cut struct {
	Row     uuid.UUID      `json:"row_id"`
	Pieces  int            `json:"pieces"` // that were left as it was planned
	Begin   float64        `json:"begin_min"`
	Minutes float64        `json:"minutes"`
	Height  measure.Length `json:"height_mm,omitempty"` // nothing for a chop
	Feed    float64        `json:"feed_m_min,omitempty"`
	Seconds float64        `json:"seconds,omitempty"` // a piece's feed; nothing without a feed range
	Verdict string         `json:"verdict"`
	Shut    bool           `json:"shut,omitempty"` // at no feed it cuts well, and no blade here does
	Burn    float64        `json:"burn"`
	Rework  float64        `json:"rework_min"` // of Minutes
}

// A Heard is a finding about a saw, from its readings, that stood when the sheet was
// made.
type Heard struct {
	Saw     string   `json:"saw_name"`
	Verdict string   `json:"verdict"`
	Why     say.Line `json:"why"`
	WayOut  say.Line `json:"way_out"`
}

// LeftOut is a row that no blade on any saw may cut.
type LeftOut struct {
	Row uuid.UUID `json:"row_id"`
	Why say.Line  `json:"why"`
}

// A Pass is where a blade becomes pitchy or dull in the middle of its work, and the
// cheapest thing to do there.
type Pass struct {
	Blade     uuid.UUID `json:"blade_id"`
	BladeName string    `json:"blade_name"`
	Row       uuid.UUID `json:"row_id"`
	Pieces    int       `json:"pieces"`              // of that row that are cut before
	Dull      bool      `json:"dull"`                // or else pitchy
	Wash      bool      `json:"wash"`                // a wash there costs less than going on, and is laid in
	Costs     float64   `json:"costs_min"`           // what going on costs more than a clean or sharp blade
	Swap      string    `json:"swap_to,omitempty"`   // the blade that is put on there, as laid in
	Saves     float64   `json:"saves_min,omitempty"` // with it, its change taken off
}

// Says puts a pass into words; row is what its row is called.
func (p Pass) Says(row string) say.Line {
	gets := say.Of("%s gets resin buildup at %s, after %d pieces of it", say.Word(p.BladeName), say.Word(row), p.Pieces)
	if p.Dull {
		gets = say.Of("%s gets dull at %s, after %d pieces of it", say.Word(p.BladeName), say.Word(row), p.Pieces)
	}
	switch {
	case p.Swap != "":
		return say.Of("%s. Change to %s there to save %.0f min", gets, say.Word(p.Swap), p.Saves)
	case p.Wash:
		return say.Of("%s. Clean it there: going on costs %.0f min more", gets, p.Costs)
	case p.Costs < 0.5:
		return say.Of("%s. Going on costs no extra time", gets)
	case p.Dull:
		return say.Of("%s. From there on it costs %.0f min more than a sharp one", gets, p.Costs)
	}
	return say.Of("%s. Go on and clean it afterward: it costs %.0f min more", gets, p.Costs)
}

// setUp is what it takes to set fence or stop and height for a row (craft
// section 16: a minute or two). A hand-held saw is led anew along every line.
const setUp = 1.5

// washMin is the time that a person spends on a wash. Soaking takes nobody's time.
const washMin = 12
