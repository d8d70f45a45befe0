package record

import (
	"context"
	"slices"

	"github.com/google/uuid"
)

// A Shelf is all that decides about a cut in one shop, as it was at one moment:
// what a browser keeps, to weigh cuts by while the server is away.
type Shelf struct {
	Edition int // of the model that it is weighed by
	Saws    []Saw
	Blades  []Blade // as a rack lists them
	Taught  []Lesson
	Swayed  map[uuid.UUID]map[uuid.UUID]Wobble // by saw and blade
	Mine    map[uuid.UUID]Alone                // what whoever asked may do alone, by saw
}

// Saw finds a saw. A shelf is of one shop, whatever shop is named.
func (s Shelf) Saw(_ context.Context, _, id uuid.UUID) (Saw, error) {
	if i := slices.IndexFunc(s.Saws, func(w Saw) bool { return w.ID == id }); i >= 0 {
		return s.Saws[i], nil
	}
	return Saw{}, ErrNone
}

// Blade finds a blade.
func (s Shelf) Blade(_ context.Context, _, id uuid.UUID) (Blade, error) {
	if i := slices.IndexFunc(s.Blades, func(b Blade) bool { return b.ID == id }); i >= 0 {
		return s.Blades[i], nil
	}
	return Blade{}, ErrNone
}

// Rack lists the blades.
func (s Shelf) Rack(context.Context, uuid.UUID) ([]Blade, error) { return s.Blades, nil }

// Lessons lists what was taught of a material.
func (s Shelf) Lessons(_ context.Context, _ uuid.UUID, material string) (out []Lesson, _ error) {
	for _, l := range s.Taught {
		if l.Material == material {
			out = append(out, l)
		}
	}
	return out, nil
}

// Alone is what whoever asked for the shelf may do alone on a saw.
func (s Shelf) Alone(_ context.Context, _, saw uuid.UUID) (Alone, error) { return s.Mine[saw], nil }

// Wobbles are how blades were last measured on a saw.
func (s Shelf) Wobbles(_ context.Context, _, saw uuid.UUID) (map[uuid.UUID]Wobble, error) {
	return s.Swayed[saw], nil
}
