package trace

import (
	"math/rand/v2"
	"slices"
)

// A Hidden is a fault that somebody is to find: which cause it has, what it shows,
// and what every check would show of it. It is drawn from the same tables that
// faults are weighed by, noise included, so that whoever reasons as they do is
// right as often as they say.
type Hidden struct {
	Cause   string
	Present []string // signs
	found   map[string]bool
}

// Hide draws a fault on a kind of saw, of one cause and in a through cut, that
// shows at least so many signs.
func Hide(r *rand.Rand, saw string, signs int) Hidden {
	e := Evidence{Saw: saw}
	var total float64
	for _, c := range tables.causes {
		total += c.Prior * e.possible(c)
	}
	for {
		i := pickCause(r, total, func(c Cause) float64 { return c.Prior * e.possible(c) })
		h := Hidden{Cause: tables.causes[i].ID, found: map[string]bool{}}
		for k, s := range tables.signs {
			if s.Place != "groove" && r.Float64() < 1-(1-s.Leak)*(1-tables.shows[k][i]) {
				h.Present = append(h.Present, s.ID)
			}
		}
		if h.contradicts() || len(h.Present) < signs {
			continue
		}
		for _, k := range tables.checks {
			h.found[k.ID] = r.Float64() < 1-(1-falseAlarm)*(1-tables.finds[k.at][i])
		}
		return h
	}
}

func pickCause(r *rand.Rand, total float64, weight func(Cause) float64) int {
	x := r.Float64() * total
	for i, c := range tables.causes {
		if x -= weight(c); x < 0 {
			return i
		}
	}
	return len(tables.causes) - 1
}

// contradicts reports whether it shows two signs that nobody could see at once.
func (h Hidden) contradicts() bool {
	return slices.ContainsFunc(tables.clashes, func(c clash) bool {
		return slices.Contains(h.Present, c.a) && slices.Contains(h.Present, c.b)
	})
}

// Found is what a check shows.
func (h Hidden) Found(check string) bool { return h.found[check] }
