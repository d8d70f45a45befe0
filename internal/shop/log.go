package shop

import (
	"context"
	"encoding/json"
	"time"

	"github.com/google/uuid"

	"corte/core/care"
	"corte/core/choose"
	"corte/core/cut"
	"corte/core/measure"
	"corte/internal/store"
)

// A CutMade is a cut that was made, and how it came out.
type CutMade struct {
	Cut       Cut
	Blade     uuid.UUID
	Height    measure.Length // 0 for a chop
	Feed      measure.Feed   // aimed at; 0 if not known
	Pieces    int
	Metres    float64 // of cut in all, where those were counted; 0 for pieces
	Seconds   float64 // that one piece really took; 0 if nobody counted
	Wall      string
	Splinters string
	Other     string // splinters of the other face where teeth leave; empty if nobody looked
	Effort    string
	Noise     string
	CameBack  *bool // after a wash
	By, Note  string
	Waited    time.Duration // between being made and being sent
}

// LogCut adds a cut to the log, brings the blade's condition up to date, and
// takes in what the cut teaches of its material.
func (s *Service) LogCut(ctx context.Context, shop uuid.UUID, made CutMade, u measure.Unit) (store.Entry, error) {
	detail, w, err := s.cutDetail(ctx, shop, made, u)
	if err != nil {
		return store.Entry{}, err
	}
	at := s.now().Add(-made.Waited)
	raw, err := json.Marshal(detail)
	if err != nil {
		return store.Entry{}, err
	}
	entry := store.Entry{Shop: shop, At: at, Kind: store.KindCut, Blade: &made.Blade, Saw: &w.ID, By: made.By, Note: made.Note, Detail: raw}
	return s.st.Append(ctx, entry, teaches(ctx, detail))
}

// teaches takes in what a cut says of its material.
func teaches(ctx context.Context, d store.CutDetail) func(*store.Store, store.Entry) error {
	return func(tx *store.Store, row store.Entry) error {
		if d.Foretold == nil {
			return nil
		}
		return tx.Learn(ctx, row.Shop, d.Material)
	}
}

// cutDetail checks a cut that was made and writes it down as the log keeps it,
// with what the model's table said of it.
func (s *Service) cutDetail(ctx context.Context, shop uuid.UUID, made CutMade, u measure.Unit) (store.CutDetail, store.Saw, error) {
	fail := func(err error) (store.CutDetail, store.Saw, error) { return store.CutDetail{}, store.Saw{}, err }
	w, j, r, err := s.request(ctx, shop, made.Cut, u)
	if err != nil {
		return fail(err)
	}
	cand, err := s.fit(ctx, shop, made.Blade, w, j, r, u)
	if err != nil {
		return fail(err)
	}
	full := r.Heights(cand.Blade).Full
	switch {
	case j.Motion == cut.Chop && made.Height != 0:
		return fail(invalid("height_mm", "a chop has no height; leave it out"))
	case j.Motion != cut.Chop && made.Height <= 0:
		return fail(invalid("height_mm", "say how high the blade stood"))
	case made.Height > full:
		return fail(pastReach("height_mm", made.Height, full, u))
	}
	detail := store.CutDetail{
		Material: j.Material.ID, Direction: j.Direction.String(), Motion: j.Motion.String(), Finish: j.Finish.String(),
		Thickness: j.Thickness.Mm(), Width: j.Width.Mm(), Length: j.Length.Mm(), Height: made.Height.Mm(),
		Exit: j.Exit.String(), Other: j.Other.String(), Feed: float64(made.Feed), Pieces: made.Pieces, Metres: made.Metres,
		Wall: made.Wall, Splinters: made.Splinters, OtherSplinters: made.Other, Effort: made.Effort, Noise: made.Noise,
		Seconds: made.Seconds, CameBack: made.CameBack,
		Depth: j.Depth.Mm(), Bevel: j.BevelDeg, Miter: j.MiterDeg, BothFaces: j.BothFaces, Moves: j.Moves,
	}
	detail.Wears = &store.Wears{Abrasion: r.table.Abrasion, Resin: r.table.Resin}
	if j.Moisture != cut.Dry {
		detail.Moisture = j.Moisture.String()
	}
	if j.Form != cut.Through {
		detail.Form = j.Form.String()
	}
	if j.Material.Kind.Modelled() {
		j.Height, j.Material = made.Height, r.table
		cand.State.Heel = r.Heel
		detail.Foretold = store.Foretell(j, cand.Blade, choose.DriveOf(w.Saw), cand.State, detail.RealFeed())
	}
	return detail, w, nil
}

// Log lists one page of the log, newest first, and the mark before which the
// next page begins, if there is one.
func (s *Service) Log(ctx context.Context, shop uuid.UUID, f store.Filter, before store.Mark, limit int) ([]store.Entry, *store.Mark, error) {
	page, err := s.st.Log(ctx, shop, f, before, limit+1)
	if err != nil || len(page) <= limit {
		return page, nil, err
	}
	last := page[limit-1]
	return page[:limit], &store.Mark{At: last.At, ID: last.ID}, nil
}

// strikable are the rows that may be struck out. What took a thing out of use
// is taken back by putting it into use again.
var strikable = map[store.Kind]bool{
	store.KindCut: true, store.KindWashed: true, store.KindSharpened: true, store.KindReturned: true, store.KindSent: true,
	store.KindJudged: true, store.KindInspected: true, store.KindMended: true, store.KindNoted: true, store.KindMounted: true, store.KindDismounted: true,
	store.KindMoved: true, store.KindHeel: true, store.KindFence: true, store.KindRunOut: true, store.KindTilt: true,
	store.KindGauge: true, store.KindClearance: true, store.KindGrooved: true, store.KindRenewed: true,
}

// Strike notes that a row of the log was a mistake. It stays, struck through,
// and counts no more.
func (s *Service) Strike(ctx context.Context, shop uuid.UUID, id int64, note string) (store.Entry, error) {
	row, err := s.st.Entry(ctx, shop, id)
	switch {
	case err != nil:
		return row, missing(err, "id", "row of the log")
	case !strikable[row.Kind]:
		return row, invalid("id", "this row cannot be struck out; undo what it records instead")
	}
	e := store.Entry{Shop: shop, At: s.now(), Kind: store.KindStruck, Blade: row.Blade, Saw: row.Saw, Strikes: &id, Note: note}
	var d store.CutDetail
	_ = json.Unmarshal(row.Detail, &d)
	out, err := s.st.Append(ctx, e, func(tx *store.Store, e store.Entry) error {
		if row.Kind != store.KindCut || d.Foretold == nil {
			return nil
		}
		return tx.Learn(ctx, shop, d.Material)
	})
	if store.IsDuplicate(err) {
		return row, &Error{Conflict, "id", "this row is struck out already"}
	}
	return out, err
}

// Judge logs how somebody says that a blade cuts.
func (s *Service) Judge(ctx context.Context, shop uuid.UUID, blade uuid.UUID, says, by, note string) (store.Entry, error) {
	if care.ParseSaying(says) == 0 {
		return store.Entry{}, invalid("says", "say dull, hard, pitchy, like-new or hit")
	}
	return s.note(ctx, shop, blade, store.KindJudged, store.JudgedDetail{Says: says}, by, note)
}

// Inspect logs what a look-over of a blade found. A fault that may not run
// keeps it off every saw until it is mended and inspected. A survey says by
// itself what the fault is.
func (s *Service) Inspect(ctx context.Context, shop uuid.UUID, blade uuid.UUID, fault care.Fault, survey *store.Survey, by, note string) (store.Entry, error) {
	if fault != care.Sound && fault.Words() == "" {
		return store.Entry{}, invalid("fault", "there is no such fault")
	}
	if survey != nil {
		if fault != care.Sound {
			return store.Entry{}, invalid("fault", "leave the fault out: the survey says what it is")
		}
		fault = surveyOf(*survey).Fault()
	}
	return s.note(ctx, shop, blade, store.KindInspected, store.InspectedDetail{Fault: string(fault), Survey: survey}, by, note)
}

// surveyOf is a survey as the core knows it.
func surveyOf(d store.Survey) care.Survey { return care.Survey(d) }

// A SurveyReport is the last survey of a blade, in words for the saw doctor.
type SurveyReport struct {
	Blade  store.Blade
	Entry  store.Entry
	Survey store.Survey
	care.Report
}

// Survey finds the last survey of a blade and what it comes to.
func (s *Service) Survey(ctx context.Context, shop, id uuid.UUID) (SurveyReport, error) {
	var out SurveyReport
	b, err := s.Blade(ctx, shop, id)
	if err != nil {
		return out, err
	}
	sh, err := s.Shop(ctx, shop)
	if err != nil {
		return out, err
	}
	rows, err := s.st.Log(ctx, shop, store.Filter{Blade: &id, Kinds: []store.Kind{store.KindInspected}, Standing: true}, store.Mark{}, surveysLookedAt)
	if err != nil {
		return out, err
	}
	for _, e := range rows {
		var d store.InspectedDetail
		if err := json.Unmarshal(e.Detail, &d); err != nil {
			return out, err
		}
		if d.Survey == nil {
			continue
		}
		left, _ := care.SharpeningsLeft(b.Condition, b.Blade, b.Tip.Mm(), b.Sharpened)
		since, err := s.st.Since(ctx, shop, id)
		if err != nil {
			return out, err
		}
		return SurveyReport{b, e, *d.Survey, surveyOf(*d.Survey).Report(care.Subject{
			Teeth: b.Teeth, Price: b.Price, Sharpen: sh.Sharpening, Left: left, Years: e.At.Sub(since).Hours() / (24 * 365.25), Throwaway: b.Throwaway})}, nil
	}
	return out, &Error{Missing, "id", "nobody has surveyed this blade yet"}
}

// surveysLookedAt is how many look-overs are gone through for a survey.
const surveysLookedAt = 100

// A Mending says that a blade was mended and inspected, or that it cannot be.
type Mending struct {
	store.MendedDetail
	Cannot bool
	By     string
}

// Mend logs that an unfit blade was mended and inspected, so that it may go on
// again; one that cannot be mended is retired.
func (s *Service) Mend(ctx context.Context, shop uuid.UUID, id uuid.UUID, m Mending) (store.Entry, error) {
	b, err := s.Blade(ctx, shop, id)
	switch {
	case err != nil:
		return store.Entry{}, err
	case b.Retired != nil:
		return store.Entry{}, invalid("id", "%s is retired", b.Name)
	case m.Cannot:
		raw, err := json.Marshal(store.RetiredDetail{Reason: "unmendable"})
		if err != nil {
			return store.Entry{}, err
		}
		note := "cannot be mended, says " + m.InspectedBy
		now := s.now()
		return s.st.Append(ctx,
			store.Entry{Shop: shop, At: now, Kind: store.KindRetired, Blade: &id, By: m.By, Note: note, Detail: raw},
			func(tx *store.Store, _ store.Entry) error {
				return tx.RetireBlade(ctx, shop, id, &store.Retired{At: now, Reason: "unmendable", Note: note})
			})
	}
	return s.note(ctx, shop, id, store.KindMended, m.MendedDetail, m.By, "")
}

// Note logs a line of text about a blade: where it was stored, what was seen.
func (s *Service) Note(ctx context.Context, shop uuid.UUID, blade uuid.UUID, by, note string) (store.Entry, error) {
	if note == "" {
		return store.Entry{}, invalid("note", "write the note")
	}
	return s.note(ctx, shop, blade, store.KindNoted, struct{}{}, by, note)
}

func (s *Service) note(ctx context.Context, shop uuid.UUID, blade uuid.UUID, kind store.Kind, detail any, by, note string) (store.Entry, error) {
	if _, err := s.Blade(ctx, shop, blade); err != nil {
		return store.Entry{}, err
	}
	raw, err := json.Marshal(detail)
	if err != nil {
		return store.Entry{}, err
	}
	e := store.Entry{Shop: shop, At: s.now(), Kind: kind, Blade: &blade, By: by, Note: note, Detail: raw}
	return s.st.Append(ctx, e)
}

// Lessons lists what the shop's own cuts have taught, by material.
func (s *Service) Lessons(ctx context.Context, shop uuid.UUID) ([]store.Lesson, error) {
	return s.st.Lessons(ctx, shop, "")
}
