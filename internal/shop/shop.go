// Package shop holds the use cases: load what the shop knows, ask the core,
// save what was decided. It is the only place where craft and records meet.
package shop

import (
	"context"
	"errors"
	"fmt"
	"time"

	"github.com/google/uuid"

	"corte/core/blade"
	"corte/core/care"
	"corte/core/choose"
	"corte/core/cut"
	"corte/core/material"
	"corte/core/measure"
	"corte/internal/store"
)

// A Reason says in which way a request could not be met.
type Reason uint8

const (
	Invalid  Reason = iota // what was asked cannot be
	Missing                // what was named is not in this shop
	Conflict               // what was sent contradicts what was sent before
	Stale                  // somebody else changed it in the meantime
	Busy                   // there was no time for it
)

// An Error is a sentence for the person at the saw, and the field it is about.
type Error struct {
	Reason Reason
	Field  string // as in the API, such as "cut.thickness_mm"; empty if about the whole
	Detail string
}

func (e *Error) Error() string { return e.Detail }

func invalid(field, format string, args ...any) error {
	return &Error{Invalid, field, fmt.Sprintf(format, args...)}
}

// missing turns a row that is not there into a sentence about a field.
func missing(err error, field, what string) error {
	if errors.Is(err, store.ErrNone) {
		return &Error{Missing, field, "there is no such " + what + " in this shop"}
	}
	return err
}

// A Service answers for every shop on one database. It holds no state.
type Service struct {
	st  *store.Store
	now func() time.Time
}

// New makes a service that reads the time from now.
func New(st *store.Store, now func() time.Time) *Service { return &Service{st, now} }

// In is the service inside a transaction: what it does is kept with the rest of
// it, or not at all.
func (s *Service) In(tx *store.Store) *Service { return &Service{tx, s.now} }

// Once answers a request under a key: the first time by act, whose every change
// is kept together with the answer, and after that as it was answered then.
func (s *Service) Once(ctx context.Context, shop uuid.UUID, key string, request []byte, act func(*Service) (store.Answer, error)) (store.Answer, error) {
	out, err := s.st.Once(ctx, shop, key, request, func(tx *store.Store) (store.Answer, error) { return act(s.In(tx)) })
	switch {
	case errors.Is(err, store.ErrKeyReused):
		return out, &Error{Invalid, "Idempotency-Key", "this key was sent before with something else; send what is new with a new key"}
	case errors.Is(err, store.ErrAnsweredBefore):
		return out, &Error{Conflict, "Idempotency-Key", "this was kept already, by the Corte that ran here before; nothing was done twice"}
	}
	return out, err
}

// Together runs act in one transaction: what it reads is what it changes, and
// its every change is kept, or none.
func (s *Service) Together(ctx context.Context, act func(*Service) error) error {
	return s.st.Atomically(ctx, func(tx *store.Store) error { return act(s.In(tx)) })
}

// SweepAnswers forgets answers that are too old for anybody to ask again.
func (s *Service) SweepAnswers(ctx context.Context) error {
	return s.st.SweepAnswers(ctx, s.now().Add(-store.AnswersKept))
}

// Now is the time by the service's clock.
func (s *Service) Now() time.Time { return s.now() }

// Alive reports whether the database answers.
func (s *Service) Alive(ctx context.Context) error { return s.st.Ping(ctx) }

// Shop finds a shop.
func (s *Service) Shop(ctx context.Context, id uuid.UUID) (store.Shop, error) {
	shop, err := s.st.Shop(ctx, id)
	return shop, missing(err, "", "shop")
}

// Saws lists the shop's saws by name.
func (s *Service) Saws(ctx context.Context, shop uuid.UUID) ([]store.Saw, error) {
	return s.st.Saws(ctx, shop)
}

// Blades lists one page of the rack by name, and the place where the next page
// begins, if there is one.
func (s *Service) Blades(ctx context.Context, shop uuid.UUID, after store.Place, limit int) ([]store.Blade, *store.Place, error) {
	page, err := s.st.Blades(ctx, shop, after, limit+1)
	if err != nil || len(page) <= limit {
		return page, nil, err
	}
	last := page[limit-1]
	return page[:limit], &store.Place{Name: last.Name, ID: last.ID}, nil
}

// Blade finds one blade of the rack.
func (s *Service) Blade(ctx context.Context, shop, id uuid.UUID) (store.Blade, error) {
	b, err := s.st.Blade(ctx, shop, id)
	return b, missing(err, "id", "blade")
}

// State is the condition of a blade as the cutting model sees it.
func State(b blade.Blade, c care.Condition) cut.State {
	return cut.State{Sharpness: c.Sharpness(b.Grind), Pitch: c.PitchLevel(), Chipped: c.Chipped()}
}

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
}

// Job settles what a cut leaves open on a saw.
func (c Cut) Job(s store.Saw) (cut.Job, error) {
	m, err := material.Get(c.Material)
	if err != nil {
		return cut.Job{}, invalid("cut.material", "%s; choose one of the list", err)
	}
	j := cut.Job{
		Material: m, Direction: c.Direction, Finish: c.Finish,
		Thickness: c.Thickness, Width: c.Width, Length: c.Length,
		Form: c.Form, Depth: c.Depth, BevelDeg: c.BevelDeg, MiterDeg: c.MiterDeg, Bed: c.Bed, Piece: c.Piece,
		Pieces: max(1, c.Pieces), Moisture: c.Moisture, Moves: c.Moves, FenceSide: c.FenceSide, BrakeOff: c.BrakeOff,
	}
	if j.Form == cut.Through {
		j.Depth = 0
	}
	j.Motion = s.UsualMotion(j.MeetsWidth())
	if c.Motion != nil {
		j.Motion = *c.Motion
	}
	j.Exit, j.Other = cut.UsualSupport(j.Direction, j.Motion, s.Kind.CarriesWork())
	if c.Exit != nil {
		j.Exit = *c.Exit
	}
	if c.Other != nil {
		j.Other = *c.Other
	}
	return choose.Settle(j, s.Saw), nil
}
