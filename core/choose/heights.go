package choose

import (
	"math"

	"corte/core/blade"
	"corte/core/cut"
	"corte/core/fault"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/saw"
	"corte/core/say"
	"corte/core/word"
)

// A School is a way of setting height or depth (craft section 4).
type School uint8

const (
	BySaw        School = iota // what suits the kind of saw: Corte's own first suggestion
	JustProud                  // little blade is exposed
	GulletsClear               // chips leave and teeth cool
	FullReach                  // teeth cross the work by the shortest way
)

//corte:enum School parse
var schoolNames = word.Names{Kind: "height method", Of: []string{"saw", "proud", "gullets", "full"}}

// Heights are where each school sets a blade, within the saw's reach, and what
// is suggested first. For a chop all are 0. A cut to a depth, or from both
// faces, has one height, which is every school's.
type Heights struct {
	Proud     measure.Length
	Gullets   measure.Length
	Full      measure.Length // as far as the saw goes
	Suggested measure.Length
	Why       say.Line // of the suggestion, a sentence without its full stop
	Exact     bool     // the cut leaves no choice of height
}

const (
	tableProud = measure.Length(6) // through on a table saw, where the reach allows
	overlapBy  = measure.Length(2) // past the middle, for a cut from both faces
)

// Heights works out the schools for one blade. The first suggestion is gullets
// clear on a table saw, 3 mm through on a circular saw, the fixed depth on a
// sliding miter saw, or what the shop prefers.
func (r Request) Heights(b blade.Blade) Heights {
	j, s := r.Job, r.Saw
	if j.Motion == cut.Chop {
		return Heights{Why: say.Of("a chop cuts as deep as the saw goes"), Exact: true}
	}
	reach := s.ReachWith(b, j.BevelDeg)
	one := func(at measure.Length, why say.Line) Heights {
		return Heights{Proud: at, Gullets: at, Full: reach, Suggested: at, Why: why, Exact: true}
	}
	switch {
	case j.Motion == cut.Push:
		reach = j.Thickness + s.Below() - (s.Diameter-b.Diameter)/2
		return one(reach, say.Of("a sliding cut has one depth, a little below the table"))
	case j.Form != cut.Through:
		return one(j.Depth, say.Of("the depth of the %s. Cut a little shallow, measure, and finish by going deeper, so the play is on one side", j.Form))
	case j.BothFaces:
		return one(j.Thickness/2+overlapBy, say.Of("from both faces, meeting just past the middle. Keep the same face against the fence"))
	}
	within := func(l measure.Length) measure.Length { return min(l, reach) }
	just := within(j.Thickness + cut.Clears)
	proud := just
	if s.Kind == saw.Table {
		proud = within(j.Thickness + tableProud)
	}
	h := Heights{
		Proud:   proud,
		Gullets: max(proud, within(j.Thickness+upright(b.GulletDepth(), j))),
		Full:    reach,
	}
	school := r.School
	switch {
	case s.Kind == saw.Circular && j.Bed != cut.Air:
		h.Suggested, h.Why = just, say.Of("just through, so what is below isn't cut")
	case school == JustProud:
		h.Suggested, h.Why = h.Proud, say.Of("your shop setting is just above the stock: little blade is exposed")
	case j.Thickness <= thinSheet:
		h.Suggested, h.Why = h.Proud, say.Of("just above the stock: thin stock needs as many teeth in it as possible")
	case school == FullReach:
		h.Suggested, h.Why = h.Full, say.Of("your shop setting is full height: the shortest path through the wood")
	case school == BySaw && s.Kind == saw.Circular:
		h.Suggested, h.Why = just, say.Of("just through: enough to cut it off, with little blade below")
	default:
		h.Suggested, h.Why = h.Gullets, say.Of("the gullets clear the stock, so chips escape and teeth stay cooler")
	}
	if h.Suggested == reach && school != FullReach {
		h.Why = say.Of("the full depth of this saw")
	}
	return h
}

// upright is how high a length along the tilted blade stands.
func upright(l measure.Length, j cut.Job) measure.Length {
	return l * measure.Length(math.Cos(j.BevelDeg*math.Pi/180))
}

// A Pass is one of the passes that a cut takes where one is not enough.
type Pass struct {
	Name    string
	Height  measure.Length
	Scoring bool // so shallow that scorch is not assessed (model section 3)
	Job     cut.Job
}

// scoreBy is the depth of a first pass that only cuts the fibres of the face.
const scoreBy = measure.Length(2)

// Passes lists the passes of a cut at a height: half from each face where the
// saw does not reach through, a scoring pass and a full one where the face
// that teeth leave is scored by the saw itself. Other cuts have none.
func (r Request) Passes(height measure.Length) []Pass {
	j := r.Job
	switch {
	case j.BothFaces:
		rest := j
		rest.Thickness = max(j.Thickness-height+overlapBy, height)
		return []Pass{{Name: "first face", Height: height, Job: j}, {Name: "other face", Height: height, Job: rest}}
	case j.Motion == cut.Push && j.Exit == cut.Scored:
		score := j
		score.Exit = cut.Open
		return []Pass{{Name: "scoring pass", Height: scoreBy, Scoring: true, Job: score}, {Name: "full pass", Height: height, Job: j}}
	}
	return nil
}

// AtPass works out the figures of one blade on one pass.
func AtPass(r Request, c Candidate, p Pass) cut.Figures {
	r.Job = p.Job
	return At(r, c, p.Height)
}

// needsBothFaces reports whether a cut that parts the work is too deep for the
// saw in one pass, but not in two, one from each face.
func needsBothFaces(j cut.Job, s saw.Saw) bool {
	return j.Form == cut.Through && j.BevelDeg == 0 && s.Kind != saw.Miter &&
		j.Thickness+cut.LeastClears > s.Reach+hair && j.Thickness/2+overlapBy < s.Reach
}

// Job settles on a saw what a cut leaves open. It refuses a material that is not
// in the table.
func Job(c cut.Cut, s saw.Saw) (cut.Job, error) {
	m, err := material.Get(c.Material)
	if err != nil {
		return cut.Job{}, fault.At("material", "%s; choose one of the list", err)
	}
	j := cut.Job{
		Material: m, Direction: c.Direction, Finish: c.Finish, Thickness: c.Thickness, Width: c.Width, Length: c.Length,
		Form: c.Form, Depth: c.Depth, BevelDeg: c.BevelDeg, MiterDeg: c.MiterDeg, Bed: c.Bed, Piece: c.Piece,
		Pieces: max(1, c.Pieces), Moisture: c.Moisture, Moves: c.Moves, FenceSide: c.FenceSide,
		BrakeOff: c.BrakeOff, StoodBy: c.StoodBy, Board: c.Board, Carriage: c.Carriage,
	}
	if j.Form == cut.Through {
		j.Depth = 0
	}
	j.Motion = s.UsualMotion(j.MeetsWidth())
	if c.Motion != nil {
		j.Motion = *c.Motion
	}
	j.Exit, j.Other = cut.UsualSupport(j.Direction, j.Motion, s.Kind.CarriesWork())
	if s.Kind == saw.Table && j.Form == cut.Through && s.Scores(j.BevelDeg) {
		j.Exit = cut.ScoringBlade
	}
	if c.Exit != nil {
		j.Exit = *c.Exit
	}
	if c.Other != nil {
		j.Other = *c.Other
	}
	return Settle(j, s), nil
}

// Settle decides what follows from a job and a saw together: whether the cut
// has to be made from both faces, and that only a hand-held saw has a bed.
func Settle(j cut.Job, s saw.Saw) cut.Job {
	if s.Kind != saw.Circular {
		j.Bed = cut.Air
	}
	j.BothFaces = needsBothFaces(j, s)
	return j
}

// deepest is the depth of work, straight down, that a job asks the saw to reach.
func deepest(j cut.Job) measure.Length {
	switch {
	case j.Form != cut.Through:
		return j.Depth
	case j.BothFaces:
		return j.Thickness/2 + overlapBy
	}
	return j.Thickness
}

// through is how far a blade goes through on a saw: Clears, or, where the saw does
// not reach that far, what still parts the work.
func through(j cut.Job, s saw.Saw) measure.Length {
	if left := s.ReachAt(j.BevelDeg) - j.Thickness; left < cut.Clears-hair {
		return max(cut.LeastClears, left)
	}
	return cut.Clears
}

// Parts reports whether a setting does what its form asks on a saw: it parts the
// work, or stops where it should.
func Parts(j cut.Job, s saw.Saw) bool {
	return j.Parts() || j.Form == cut.Through && !j.BothFaces && j.Motion != cut.Chop && j.Height >= j.Thickness+through(j, s)-hair
}

// SpoilsBed reports whether a setting cuts deeper into what lies below the work
// than that is meant to bear.
func SpoilsBed(j cut.Job) bool {
	const bears = 3.5 // mm; 2 to 3 is what runners and sheets are meant for
	return j.Bed != cut.Air && j.Form == cut.Through && (j.Height-j.Thickness).Mm() > bears
}
