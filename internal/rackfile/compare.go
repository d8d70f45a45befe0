package rackfile

import (
	"crypto/sha256"
	"encoding/hex"
	"fmt"
	"slices"
	"strings"

	"github.com/google/uuid"

	"corte/core/say"
	"corte/internal/record"
	"corte/internal/store"
	"corte/internal/wire"
)

// An Action is what an import would do with a row.
type Action string

const (
	Add    Action = "add"
	Change Action = "change"
	Same   Action = "same"
	Refuse Action = "refuse"
)

// A Difference is one field that a row would change.
type Difference struct{ Field, From, To string }

// A Line is what would become of one row.
type Line struct {
	Row
	Action      Action
	Differences []Difference
}

// A Preview is what an import would do, before anything is saved.
type Preview struct {
	Lines  []Line
	Digest string // of the file and of the rack that it was compared with
}

// Count is how many lines come to an action.
func (p Preview) Count(a Action) int {
	n := 0
	for _, l := range p.Lines {
		if l.Action == a {
			n++
		}
	}
	return n
}

// Changes are the saws and blades to save; those with a version are there
// already.
func (p Preview) Changes() (saws []store.Saw, blades []store.Blade) {
	for _, l := range p.Lines {
		switch {
		case l.Action != Add && l.Action != Change:
		case l.What == Saw:
			saws = append(saws, l.Saw)
		default:
			blades = append(blades, l.Blade)
		}
	}
	return saws, blades
}

// there is a row of the rack that a row of the file may meet.
type there struct {
	id      uuid.UUID
	name    string
	version int
	retired bool
	fields  map[string]any
}

// Compare says what each row would do to a shop's rack. A row meets the one
// with its id, or, without an id, the one with its name. Columns that a CSV does
// not have leave what is there as it is.
func (r *Reader) Compare(shop uuid.UUID, text string, rows []Row, saws []store.Saw, blades []store.Blade) Preview {
	rack := map[What][]there{}
	sum := sha256.New()
	fmt.Fprint(sum, text)
	for _, w := range saws {
		rack[Saw] = append(rack[Saw], there{w.ID, w.Name, w.Version, w.Retired != nil, fieldsOf(wire.SawInput(w))})
		fmt.Fprint(sum, w.ID, w.Version)
	}
	for _, b := range blades {
		rack[Blade] = append(rack[Blade], there{b.ID, b.Name, b.Version, b.Retired != nil, fieldsOf(wire.BladeInput(b))})
		fmt.Fprint(sum, b.ID, b.Version)
	}
	p := Preview{Lines: make([]Line, len(rows)), Digest: hex.EncodeToString(sum.Sum(nil)[:16])}
	met, names := map[uuid.UUID]int{}, map[string]uuid.UUID{} // names of the file's blades, in small letters
	for i, row := range rows {
		l := Line{Row: row, Action: Refuse}
		if len(row.Problems) == 0 {
			r.meet(&l, shop, rack[row.What], met, names)
		}
		p.Lines[i] = l
	}
	return p
}

// meet finds the row of the rack that a line is about and what it would change.
func (r *Reader) meet(l *Line, shop uuid.UUID, rack []there, met map[uuid.UUID]int, names map[string]uuid.UUID) {
	refuse := func(field, form string, args ...any) {
		l.Action = Refuse
		l.Problems = append(l.Problems, Problem{field, say.Of(form, args...)})
	}
	id := uuid.New()
	var found []there
	if l.ID != uuid.Nil {
		id = record.IDIn(shop, l.ID)
		found = where(rack, func(t there) bool { return t.id == l.ID || t.id == id })
	} else {
		found = where(rack, func(t there) bool { return t.name == l.Name && t.retired == (l.Retired != nil) })
	}
	if len(found) > 1 {
		refuse("name", "%d of yours are called %s. Give this row the id of the one you mean.", len(found), l.Name)
		return
	}
	version := 0
	l.Action = Add
	if len(found) == 1 {
		f := found[0]
		switch {
		case f.retired && l.Retired == nil:
			refuse("id", "%s is retired. Bring it back before you change it.", f.name)
			return
		case !f.retired && l.Retired != nil:
			refuse("retired", "%s is in use here. Retire it on its own page.", f.name)
			return
		}
		l.Name, id, version, l.Action = f.name, f.id, f.version, Same
		for name, v := range f.fields {
			// A set's parts stay where a file does not speak of them.
			if _, said := l.fields[name]; !said && name == "set" || l.columns != nil && !l.columns[name] {
				l.fields[name] = v
			}
		}
	}
	if r.check(&l.Row); len(l.Problems) > 0 {
		l.Action = Refuse
		return
	}
	if len(found) == 1 {
		now := fieldsOf(wire.BladeInput(l.Blade))
		if l.What == Saw {
			now = fieldsOf(wire.SawInput(l.Saw))
		}
		if l.Differences = differences(found[0].fields, now); len(l.Differences) > 0 {
			if found[0].retired {
				refuse("id", "%s is retired. Bring it back before you change it.", found[0].name)
				return
			}
			l.Action = Change
		}
	}
	if before, twice := met[id]; twice {
		refuse("id", "Row %d has the same one.", before)
		return
	}
	if l.What == Blade && l.Retired == nil && (len(found) == 0 || found[0].name != l.Blade.Name) {
		var taken []string
		for _, t := range rack {
			if t.id != id && !t.retired {
				taken = append(taken, strings.ToLower(t.name))
			}
		}
		for called, by := range names {
			if by != id {
				taken = append(taken, called)
			}
		}
		if other := record.FreeName(l.Blade.Name, taken); other != l.Blade.Name {
			refuse("name", "A blade is already called %s. Call this one %s.", l.Blade.Name, other)
			return
		}
	}
	met[id] = l.N
	if l.What == Blade && l.Retired == nil {
		names[strings.ToLower(l.Blade.Name)] = id
	}
	l.Blade.ID, l.Blade.Version, l.Saw.ID, l.Saw.Version = id, version, id, version
	l.Blade.Retired, l.Saw.Retired = l.Retired, l.Retired
}

func where(rack []there, ok func(there) bool) []there {
	var out []there
	for _, t := range rack {
		if ok(t) {
			out = append(out, t)
		}
	}
	return out
}

func differences(from, to map[string]any) []Difference {
	names := map[string]bool{}
	for k := range from {
		names[k] = true
	}
	for k := range to {
		names[k] = true
	}
	var out []Difference
	for name := range names {
		if a, b := cellOf(from[name]), cellOf(to[name]); a != b {
			out = append(out, Difference{name, a, b})
		}
	}
	slices.SortFunc(out, func(a, b Difference) int {
		if a.Field < b.Field {
			return -1
		}
		return 1
	})
	return out
}
