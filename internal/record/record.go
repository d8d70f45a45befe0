// Package record has blades, saws and what else the shop stores as values. The
// store fills them; the core's callers read them, on the server and in the
// offline core.
package record

import (
	"errors"
	"fmt"
	"slices"
	"strconv"
	"strings"
	"time"

	"github.com/google/uuid"

	"corte/core/blade"
	"corte/core/care"
	"corte/core/choose"
	"corte/core/groove"
	"corte/core/learn"
	"corte/core/measure"
	"corte/core/saw"
	"corte/core/truing"
)

// Why a row is not to be had.
var (
	ErrNone  = errors.New("no such row")
	ErrStale = errors.New("changed by another person")
)

// A DamagedError is a row that cannot be read: a value in it is none that Corte
// writes. It costs that row alone; lists leave it out.
type DamagedError struct {
	Table string // of the database
	ID    string // of the row
	Why   error
}

func (e *DamagedError) Error() string {
	return "a row of " + e.Table + ", " + e.ID + ", cannot be read: " + e.Why.Error()
}

func (e *DamagedError) Unwrap() error { return e.Why }

// Readable turns rows into values. A row that is damaged is left out: it costs
// itself, and no list that it stands in.
func Readable[R, V any](rows []R, f func(R) (V, error)) ([]V, error) {
	out := make([]V, 0, len(rows))
	for _, r := range rows {
		v, err := f(r)
		var damaged *DamagedError
		if errors.As(err, &damaged) {
			continue
		}
		if err != nil {
			return nil, err
		}
		out = append(out, v)
	}
	return out, nil
}

// Damaged is the error of a row that cannot be read; nil where why is.
func Damaged(table string, id fmt.Stringer, why error) error {
	if why == nil {
		return nil
	}
	return &DamagedError{table, id.String(), why}
}

// A Blade is a blade of the shop, with the condition that its log adds up to.
type Blade struct {
	blade.Blade
	ID        uuid.UUID
	Name      string
	Hangs     string // where it hangs
	Note      string
	Coating   string         // none, nitride or slick
	Slots     int            // in the body
	Price     float64        // in the shop's own money; 0 if not said
	Tip       measure.Length // carbide left on the face of a tip; 0 if not measured
	Sharpened int            // times before its log began
	Set       *groove.Set    // that a dado set is made of; nil for a single blade, or where nobody has said
	Condition care.Condition
	MountedOn *uuid.UUID // the saw that it is on
	PhotoAt   *time.Time
	Version   int
	Retired   *Retired
}

// A Saw is a saw of the shop, with what the log last said of it.
type Saw struct {
	saw.Saw
	ID            uuid.UUID
	Name          string
	Note          string
	Heel          measure.Length // toward the fence, last measured; 0 if never
	HeelAt        *time.Time
	Mounted       *uuid.UUID     // the blade that is on it
	ChangeMinutes float64        // what the shop counts a change of blade for
	Rework        float64        // what mending takes here against the usual
	Zone          string         // the shop's time zone; empty until somebody has said
	School        choose.School  // of height, as the shop prefers
	Learning      bool           // the shop's own cuts correct the model
	FenceOpen     measure.Length // at the rear, last measured; negative where it closes
	FenceAt       *time.Time
	TiltOff       *float64           // degrees from square, last measured; positive opens at the top
	GaugeOff      *float64           // degrees from square, last measured
	RunOut        *measure.Length    // last read with no blade named
	Tolerances    *truing.Tolerances // nil for the usual ones
	HeardRPM      float64            // at which it was last heard to idle; 0 if never
	Version       int
	Retired       *Retired
}

// Alignment is how the saw was last measured.
func (w Saw) Alignment() truing.Alignment {
	a := truing.Alignment{Tilt: w.TiltOff, Gauge: w.GaugeOff, RunOut: w.RunOut}
	if w.HeelAt != nil {
		a.Heel = &w.Heel
	}
	if w.FenceAt != nil {
		a.Fence = &w.FenceOpen
	}
	return a
}

// HeldTo is what the saw is held to: its own tolerances, or the usual ones.
func (w Saw) HeldTo() truing.Tolerances {
	if w.Tolerances != nil {
		return *w.Tolerances
	}
	return truing.Usual
}

// A Wobble is how a blade and the saw that it is on were last measured, for what
// they leave on a wall: the range of side clearance over its teeth, and the
// run-out of its plate on that saw. A zero figure was not measured.
type Wobble struct {
	Spread, RunOut     float64
	SpreadAt, RunOutAt time.Time
}

// A Lesson is what the shop's own cuts taught of a material.
type Lesson struct {
	Material string
	learn.Correction
}

// Retired says when and why something was taken out of use.
type Retired struct {
	At     time.Time
	Reason string
	Note   string
}

// IDIn is the id that a row of a file has in a shop where it did not come from:
// always the same, so that a file may be brought in twice, and never that of a
// row of the shop's own.
func IDIn(shop, id uuid.UUID) uuid.UUID { return uuid.NewSHA1(shop, id[:]) }

// MostName is how long a name may be.
const MostName = 60

// FreeName is a name that nobody has yet: the name itself, or with the first
// number behind it that is free. taken are in small letters.
func FreeName(name string, taken []string) string {
	free := func(n string) bool { return !slices.Contains(taken, strings.ToLower(n)) }
	if free(name) {
		return name
	}
	for i := 2; ; i++ {
		behind := " " + strconv.Itoa(i)
		letters := []rune(name)
		if n := string(letters[:min(len(letters), MostName-len(behind))]) + behind; free(n) {
			return n
		}
	}
}
