package history

import (
	"errors"

	"corte/core/care"
	"corte/core/cut"
	"corte/core/learn"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/outcome"
)

// A Cut is what a row keeps of a cut.
type Cut struct {
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
	Wall      outcome.Wall   `json:"wall"`
	Splinters outcome.Face   `json:"splinters"`

	OtherSplinters outcome.Face   `json:"other_splinters,omitempty"` // of the other face where teeth leave
	Effort         outcome.Effort `json:"effort,omitempty"`
	Noise          outcome.Noise  `json:"noise,omitempty"`
	Seconds        float64        `json:"seconds,omitempty"`   // that a piece really took
	CameBack       *bool          `json:"came_back,omitempty"` // after a wash

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

// Splintered reports whether a face splintered at all.
func (c Cut) Splintered() bool { return c.Splinters.Splintered() || c.OtherSplinters.Splintered() }

// CutLength is how far the blade cut in all pieces of a row together.
func (c Cut) CutLength() measure.Length {
	if c.Metres > 0 {
		return measure.Length(1000 * c.Metres)
	}
	return c.PieceLength() * measure.Length(c.Pieces)
}

// PieceLength is how far the blade cut in one piece.
func (c Cut) PieceLength() measure.Length { return c.length(cut.Job.CutLength) }

// FeedLength is how far blade and work passed each other in one piece.
func (c Cut) FeedLength() measure.Length { return c.length(cut.Job.FeedLength) }

// EdgeLength is how long each edge of the cut is.
func (c Cut) EdgeLength() measure.Length { return c.length(cut.Job.EdgeLength) }

// length is 0 of a cut whose geometry cannot be read.
func (c Cut) length(of func(cut.Job) measure.Length) measure.Length {
	j, err := c.geometry()
	if err != nil {
		return 0
	}
	return of(j)
}

// RealFeed is the feed at which a cut was made: from the seconds that it took,
// else the one that was aimed at, else 0.
func (c Cut) RealFeed() measure.Feed {
	if c.Seconds > 0 {
		return measure.Feed(c.FeedLength().Mm() / 1000 / c.Seconds * 60)
	}
	return measure.Feed(c.Feed)
}

// geometry is the shape of a cut. What the oldest rows did not say yet is as the
// zero value of its type: ripped, pushed along, dry, through.
func (c Cut) geometry() (cut.Job, error) {
	j := cut.Job{
		Thickness: c.Thickness, Width: c.Width, Length: c.Length, Height: c.Height, Depth: c.Depth,
		BevelDeg: c.Bevel, MiterDeg: c.Miter, BothFaces: c.BothFaces, Pieces: c.Pieces, Moves: c.Moves,
	}
	return j, errors.Join(
		said(&j.Direction, c.Direction, cut.ParseDirection), said(&j.Motion, c.Motion, cut.ParseMotion),
		said(&j.Moisture, c.Moisture, cut.ParseMoisture), said(&j.Form, c.Form, cut.ParseForm))
}

// said parses a word that a row may lack.
func said[T any](into *T, s string, parse func(string) (T, error)) (err error) {
	if s != "" {
		*into, err = parse(s)
	}
	return err
}

// job is all of a cut that the model needs.
func (c Cut) job() (j cut.Job, err error) {
	if j, err = c.geometry(); err != nil {
		return j, err
	}
	if j.Material, err = material.Get(c.Material); err != nil {
		return j, err
	}
	if j.Finish, err = cut.ParseFinish(c.Finish); err != nil {
		return j, err
	}
	if j.Exit, err = cut.ParseSupport(c.Exit); err != nil {
		return j, err
	}
	j.Other, err = cut.ParseSupport(c.Other)
	return j, err
}

// wear writes down what a cut did to its blade.
func (c Cut) wear(e *care.Event) error {
	j, err := c.geometry()
	if err != nil {
		return err
	}
	wears := c.Wears
	if wears == nil {
		m, err := material.Get(c.Material)
		if err != nil {
			return err
		}
		wears = &Wears{m.Abrasion, m.Resin}
	}
	e.Kind, e.Metres = care.Cut, c.CutLength().Mm()/1000
	e.FaceM2 = e.Metres * j.Swept().Mm() / 1000
	e.Abrasion, e.Resin, e.Easy = wears.Abrasion, wears.Resin*j.Moisture.Pitches(), c.Effort == outcome.Easy
	e.Burnt = c.Wall.Burnt()
	if f := c.foretold(); f != nil {
		e.Surprise = care.Surprising(e.Burnt, c.Effort == outcome.Hard, f.Heat, f.Load)
	}
	if c.CameBack != nil {
		e.Answered, e.CameBack = true, *c.CameBack
	}
	return nil
}

// Lesson is what a cut teaches of its material: from what this edition of the
// model foretold and how it came out. It is false where nothing was foretold.
func (c Cut) Lesson() (learn.Cut, bool) {
	f := c.foretold()
	if f == nil {
		return learn.Cut{}, false
	}
	out := learn.Cut{Heat: f.Heat, Burnt: c.Wall.Burnt()}
	face := func(came outcome.Face, foretold float64) {
		if grade := outcome.Rank(came, outcome.Faces); grade >= 0 && foretold > 0 {
			out.Grades, out.Foretold = append(out.Grades, learn.Grade(grade)), append(out.Foretold, foretold)
		}
	}
	face(c.Splinters, f.Exit)
	if f.Other != nil {
		face(c.OtherSplinters, *f.Other)
	}
	return out, true
}
