// Package run logs the cuts that were made, and compares two settings on one board.
package run

import (
	"context"
	"encoding/json"
	"math"
	"time"

	"github.com/google/uuid"

	"corte/core/choose"
	"corte/core/cut"
	"corte/core/history"
	"corte/core/measure"
	"corte/core/outcome"
	"corte/core/say"
	"corte/core/verdict"
	"corte/internal/record"
	"corte/internal/refusal"
	shopchoose "corte/internal/shop/choose"
	"corte/internal/shop/env"
	"corte/internal/store"
)

// A Station does this work in every shop on one database. It holds no state.
type Station struct{ *env.Env }

// At is the station over an environment: a database, or a transaction of one.
func At(k *env.Env) Station { return Station{k} }

// measures are what pieces are compared by; less is better in each.
var measures = []struct {
	name, less, more string
	of               func(Run) (float64, bool)
}{
	{"scorch", "burns less", "burns more", func(r Run) (float64, bool) { return grade(r.Wall, outcome.Walls) }},
	{"splinters", "tears out less", "tears out more", func(r Run) (float64, bool) { return grade(r.Splinters, outcome.Faces) }},
	{"effort", "is easier to feed", "is harder to feed", func(r Run) (float64, bool) { return grade(r.Effort, outcome.Efforts) }},
	{"seconds", "is faster", "is slower", func(r Run) (float64, bool) { return r.Seconds, r.Seconds > 0 }},
}

// A CutMade is a cut that was made, and how it came out.
type CutMade struct {
	Cut       record.Cut
	Blade     uuid.UUID
	Height    measure.Length // 0 for a chop
	Feed      measure.Feed   // aimed at; 0 if not known
	Pieces    int
	Metres    float64 // of cut in all, where those were counted; 0 for pieces
	Seconds   float64 // that one piece really took; 0 if nobody counted
	Wall      outcome.Wall
	Splinters outcome.Face
	Other     outcome.Face // splinters of the other face where teeth leave; empty if nobody looked
	Effort    outcome.Effort
	Noise     outcome.Noise
	CameBack  *bool          // after a wash
	Heard     *history.Heard // nil where nobody listened
	By, Note  string
	Sent      env.Sent
}

// LogCut adds a cut to the log, brings the blade's condition up to date, and
// takes in what the cut teaches of its material.
func (s Station) LogCut(ctx context.Context, shop uuid.UUID, made CutMade) (store.Entry, error) {
	detail, w, err := s.CutDetail(ctx, shop, made)
	if err != nil {
		return store.Entry{}, err
	}
	if made.Note, err = s.signedOff(ctx, shop, made, w); err != nil {
		return store.Entry{}, err
	}
	raw, err := json.Marshal(detail)
	if err != nil {
		return store.Entry{}, err
	}
	entry := store.Entry{Shop: shop, At: made.Sent.At(s.Now()), Kind: history.KindCut, Blade: &made.Blade, Saw: &w.ID, By: made.By, Note: made.Note, Detail: raw}
	return s.Store.Append(ctx, entry, teaches(ctx, detail), hears(ctx, detail, w))
}

// signedOff refuses a cut that whoever makes it may not make alone, and answers
// the note that the log keeps. One that was made while the server was away is
// logged whatever it was: the blade has done it.
func (s Station) signedOff(ctx context.Context, shop uuid.UUID, made CutMade, w store.Saw) (note string, err error) {
	j, err := made.Cut.Job(w)
	if err != nil {
		return "", refusal.Placed(err, "cut")
	}
	alone := j
	alone.StoodBy = false
	found, err := shopchoose.At(s.Store).WithSignOff(ctx, shop, nil, alone, w)
	switch {
	case err != nil || len(found) == 0:
		return made.Note, err
	case j.StoodBy:
		return noted("A person who is signed off stood by.", made.Note), nil
	case made.Sent.Waited > atOnce || found[0].Verdict != verdict.Stop:
		return noted("Not signed off for it.", made.Note), nil
	}
	return "", &refusal.Error{Reason: refusal.Forbidden, Field: "cut.stood_by", What: say.Of("%s If a person who is signed off stands by, say so.", found[0].Why)}
}

// atOnce is how long what is logged at once may be on its way.
const atOnce = 10 * time.Second

func noted(first, note string) string {
	if note == "" {
		return first
	}
	return first + " " + note
}

// teaches takes in what a cut says of its material.
func teaches(ctx context.Context, d history.Cut) func(*store.Store, store.Entry) error {
	return func(tx *store.Store, row store.Entry) error {
		if d.Foretold == nil {
			return nil
		}
		return tx.Learn(ctx, row.Shop, d.Material)
	}
}

// another is by what share an idle speed is another than before.
const another = 0.002

// hears takes in how fast the saw idles.
func hears(ctx context.Context, d history.Cut, w store.Saw) func(*store.Store, store.Entry) error {
	return func(tx *store.Store, row store.Entry) error {
		if d.Heard == nil || math.Abs(d.Heard.Idle-w.HeardRPM) < another*d.Heard.Idle {
			return nil
		}
		return tx.HearSaw(ctx, row.Shop, w.ID, d.Heard.Idle)
	}
}

// CutDetail checks a cut that was made and writes it down as the log keeps it,
// with what the model's table said of it.
func (s Station) CutDetail(ctx context.Context, shop uuid.UUID, made CutMade) (history.Cut, store.Saw, error) {
	fail := func(err error) (history.Cut, store.Saw, error) { return history.Cut{}, store.Saw{}, err }
	w, j, r, err := shopchoose.At(s.Store).Request(ctx, shop, made.Cut)
	if err != nil {
		return fail(err)
	}
	cand, err := shopchoose.At(s.Store).Fit(ctx, shop, made.Blade, w, j, r)
	if err != nil {
		return fail(err)
	}
	full := r.Heights(cand.Blade).Full
	switch {
	case j.Motion == cut.Chop && made.Height != 0:
		return fail(refusal.Of("height_mm", "a chop has no height. Leave it out"))
	case j.Motion != cut.Chop && made.Height <= 0:
		return fail(refusal.Of("height_mm", "enter the blade height"))
	case made.Heard != nil && !(made.Heard.Least <= made.Heard.Mean && made.Heard.Mean <= made.Heard.Idle):
		return fail(refusal.Of("heard", "a saw is slower in the cut than idle, and its slowest speed is below the mean"))
	case made.Height > full:
		return fail(shopchoose.PastReach("height_mm", made.Height, full))
	}
	detail := history.Cut{
		Material: j.Material.ID, Direction: j.Direction.String(), Motion: j.Motion.String(), Finish: j.Finish.String(),
		Thickness: j.Thickness, Width: j.Width, Length: j.Length, Height: made.Height,
		Exit: j.Exit.String(), Other: j.Other.String(), Feed: float64(made.Feed), Pieces: made.Pieces, Metres: made.Metres,
		Wall: made.Wall, Splinters: made.Splinters, OtherSplinters: made.Other, Effort: made.Effort, Noise: made.Noise,
		Seconds: made.Seconds, CameBack: made.CameBack, Heard: made.Heard,
		Depth: j.Depth, Bevel: j.BevelDeg, Miter: j.MiterDeg, BothFaces: j.BothFaces, Moves: j.Moves,
	}
	detail.Wears = &history.Wears{Abrasion: r.Table.Abrasion, Resin: r.Table.Resin}
	if j.Moisture != cut.Dry {
		detail.Moisture = j.Moisture.String()
	}
	if j.Form != cut.Through {
		detail.Form = j.Form.String()
	}
	if j.Material.Kind.Modelled() {
		j.Height, j.Material = made.Height, r.Table
		cand.State.Heel = r.Heel
		detail.Foretold = history.Foretell(j, cand.Blade, choose.DriveOf(w.Saw), cand.State, detail.RealFeed())
	}
	return detail, w, nil
}

// Lessons lists what the shop's own cuts have taught, by material.
func (s Station) Lessons(ctx context.Context, shop uuid.UUID) ([]store.Lesson, error) {
	return s.Store.Lessons(ctx, shop, "")
}
