// Package stock says what comes out of boards and sticks in one dimension:
// strips out of a width, lengths out of a length, with what every kerf takes.
// Craft section 16: every kerf is wood, and a thinner one sometimes gives one
// piece more.
//
// A list of pieces is laid out over sticks by branch and bound: each stick is
// filled around the longest piece that is left, fullest first, and a branch is
// given up where what is left cannot come out of less than the best layout.
// Where the search is not over within the work that is allowed, the layout says
// how much less stock it could be at the most.
package stock

import (
	"math"
	"slices"

	"corte/core/fault"
	"corte/core/measure"
	"corte/core/say"
)

// A Piece is how many of one length are wanted, as it is to be in the end.
type Piece struct {
	Length measure.Length
	Count  int
}

// A Stick is boards or sticks alike.
type Stick struct {
	Length measure.Length
	Count  int // 0: as many as are wanted
}

// An Ask is what is wanted, and what there is.
type Ask struct {
	Pieces   []Piece
	Sticks   []Stick
	Kerf     measure.Length // that a cut takes
	Trim     measure.Length // off each end of a stick before anything
	Oversize measure.Length // that each piece is cut longer or wider, to be worked down: boards that move want it
}

// A Fill is what one stick is cut into.
type Fill struct {
	Stick int            // of those asked for
	Of    []int          // pieces of each kind
	Left  measure.Length // behind the last cut; its own kerf is off
}

// A Layout is a list laid out.
type Layout struct {
	Fills []Fill
	Short []int          // pieces of each kind that the sticks do not yield
	Used  measure.Length // of sticks
	Bound measure.Length // that no layout stays under; 0 where pieces are short
	Exact bool           // no less stock would do
}

const (
	most     = 500     // pieces
	mostWork = 200_000 // small steps of a search
)

// Check refuses what cannot be: the place is one of the Ask's own fields.
func (a Ask) Check() error {
	n := 0
	switch {
	case len(a.Pieces) == 0:
		return fault.At("pieces", "enter the pieces you need")
	case len(a.Sticks) == 0:
		return fault.At("sticks", "enter the stock you have")
	case !(a.Kerf >= 0 && a.Kerf <= 30):
		return fault.At("kerf", "a kerf is between 0 and %s", measure.Length(30))
	case !(a.Trim >= 0 && a.Trim <= 1000):
		return fault.At("trim", "what is trimmed off an end is between 0 and %s", measure.Length(1000))
	case !(a.Oversize >= 0 && a.Oversize <= 200):
		return fault.At("oversize", "an allowance is between 0 and %s", measure.Length(200))
	}
	for i, p := range a.Pieces {
		if !(p.Length >= 1 && p.Length <= 20_000) {
			return fault.Nth(i, "piece, length", "a piece is between %s and %s", measure.Length(1), measure.Length(20_000))
		}
		if p.Count < 1 {
			return fault.Nth(i, "piece, count", "enter a count of 1 or more")
		}
		n += p.Count
	}
	if n > most {
		return fault.At("pieces", "that is %d pieces. Plan at most %d at once", n, most)
	}
	for i, s := range a.Sticks {
		if !(s.Length >= 1 && s.Length <= 20_000) {
			return fault.Nth(i, "stick, length", "a board is between %s and %s", measure.Length(1), measure.Length(20_000))
		}
		if s.Count < 0 {
			return fault.Nth(i, "stick, count", "enter how many you have, or 0 for as many as needed")
		}
	}
	return nil
}

// takes is what a piece takes of a stick, its kerf included.
func (a Ask) takes(p Piece) float64 { return float64(p.Length + a.Oversize + a.Kerf) }

// room is what a stick has for pieces with their kerfs: the last one needs no
// cut behind it.
func (a Ask) room(s Stick) float64 { return float64(s.Length - 2*a.Trim + a.Kerf) }

// Yields is how many pieces of one length come out of one stick.
func (a Ask) Yields(s Stick, p Piece) int {
	return max(0, int(math.Floor(a.room(s)/a.takes(p)+hair)))
}

// hair is what rounding may make of a sum of lengths, in millimetres.
const hair = 1e-6

// A Thinner is what a thinner kerf would change.
type Thinner struct {
	Kerf  measure.Length
	Used  measure.Length // of sticks
	Saved measure.Length // against the layout with the ask's own kerf
	More  []int          // of each kind of stick, how many more of the longest piece one of them yields
}

// WithKerf lays the same list out with another kerf, against a layout of it.
func (a Ask) WithKerf(kerf measure.Length, now Layout) (Thinner, error) {
	b := a
	b.Kerf = kerf
	l, err := b.LayOut()
	if err != nil {
		return Thinner{}, err
	}
	t := Thinner{Kerf: kerf, Used: l.Used, Saved: now.Used - l.Used, More: make([]int, len(a.Sticks))}
	longest := a.Pieces[0]
	for _, p := range a.Pieces {
		if p.Length > longest.Length {
			longest = p
		}
	}
	for i, s := range a.Sticks {
		t.More[i] = b.Yields(s, longest) - a.Yields(s, longest)
	}
	return t, nil
}

// Says puts a layout into words, sentences without their full stops.
func (l Layout) Says() []say.Line {
	if len(l.Fills) == 0 {
		return []say.Line{say.Of("none of it can be cut from these")}
	}
	left, longest := measure.Length(0), measure.Length(0)
	for _, f := range l.Fills {
		left += f.Left
		longest = max(longest, f.Left)
	}
	out := []say.Line{say.Of("%d boards or sticks, %s in total. %s is left over, the longest piece %s", len(l.Fills), l.Used, left, longest)}
	switch {
	case slices.ContainsFunc(l.Short, func(n int) bool { return n > 0 }):
		out = append(out, say.Of("not everything can be cut from what you have"))
	case l.Exact:
		out = append(out, say.Of("this is the least stock possible"))
	default:
		out = append(out, say.Of("at most %s less would be possible", l.Used-l.Bound))
	}
	return out
}

// Says puts what a thinner kerf would change into words.
func (t Thinner) Says(a Ask) say.Line {
	kerf := say.Thin(t.Kerf)
	for i, n := range t.More {
		if n > 0 {
			more := say.Of("a kerf of %s gives %d more of the longest from each of %s", kerf, n, a.Sticks[i].Length)
			if n == 1 {
				more = say.Of("a kerf of %s gives one more of the longest from each of %s", kerf, a.Sticks[i].Length)
			}
			if t.Saved > 0 {
				return say.Of("%s and takes %s less stock in total", more, t.Saved)
			}
			return more
		}
	}
	if t.Saved > 0 {
		return say.Of("a kerf of %s takes %s less stock", kerf, t.Saved)
	}
	return say.Of("a kerf of %s makes no difference here", kerf)
}
