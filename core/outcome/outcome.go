// Package outcome has the grades of a finished cut, as people, photos and the
// microphone give them and the log records them. An empty grade means that it
// wasn't recorded.
package outcome

import "slices"

// A Wall is what heat left on the walls of a cut.
type Wall string

const (
	Clean Wall = "clean"
	Brown Wall = "brown"
	Black Wall = "black"
)

// Burnt reports whether a wall browned or worse.
func (w Wall) Burnt() bool { return Rank(w, Walls) >= Rank(Brown, Walls) }

// A Face is how a face of the work came out along the cut.
type Face string

const (
	None      Face = "none"      // good enough for a fine face
	Fuzz      Face = "fuzz"      // for a show face, with a light sanding
	Splinters Face = "splinters" // for a hidden one
	Torn      Face = "torn"      // for nothing that is looked at
)

// Splintered reports whether a face splintered at all.
func (f Face) Splintered() bool { return Rank(f, Faces) > Rank(None, Faces) }

// An Effort is how hard the motor, or whoever fed the work, had to push.
type Effort string

const (
	Easy   Effort = "easy"
	Normal Effort = "normal"
	Hard   Effort = "hard"
)

// A Noise is how a cut sounded.
type Noise string

const (
	Smooth Noise = "smooth"
	Usual  Noise = "usual"
	Loud   Noise = "loud"
)

// The grades of each type, the best first.
var (
	Walls   = []Wall{Clean, Brown, Black}
	Faces   = []Face{None, Fuzz, Splinters, Torn}
	Efforts = []Effort{Easy, Normal, Hard}
	Noises  = []Noise{Smooth, Usual, Loud}
)

// Rank is the place of a grade among its type's, 0 for the best; -1 where nobody
// looked, or the grade is unknown.
func Rank[T ~string](v T, grades []T) int { return slices.Index(grades, v) }
