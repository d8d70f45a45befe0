package care

import (
	"context"
	"encoding/json"

	"github.com/google/uuid"

	"corte/core/care"
	"corte/core/history"
	"corte/core/say"
	"corte/internal/refusal"
	"corte/internal/shop/env"
	"corte/internal/shop/rack"
	"corte/internal/store"
)

// Judge logs how somebody says that a blade cuts.
func (s Station) Judge(ctx context.Context, shop uuid.UUID, blade uuid.UUID, says, by, note string) (store.Entry, error) {
	if care.ParseSaying(says) == 0 {
		return store.Entry{}, refusal.Of("says", "say dull, half-worn, sharp, hard, pitchy, like-new or hit")
	}
	return s.note(ctx, shop, blade, history.KindJudged, history.Judged{Says: says}, by, note)
}

// Inspect logs what a look-over of a blade found. A fault that may not run
// keeps it off every saw until it is mended and inspected. A survey says by
// itself what the fault is.
func (s Station) Inspect(ctx context.Context, shop uuid.UUID, blade uuid.UUID, fault care.Fault, survey *history.Survey, by, note string) (store.Entry, error) {
	if fault != care.Sound && fault.Words() == "" {
		return store.Entry{}, refusal.Of("fault", "there is no such fault")
	}
	if survey != nil {
		if fault != care.Sound {
			return store.Entry{}, refusal.Of("fault", "leave the fault out. The inspection shows what it is")
		}
		fault = surveyOf(*survey).Fault()
	}
	return s.note(ctx, shop, blade, history.KindInspected, history.Inspected{Fault: string(fault), Survey: survey}, by, note)
}

// surveyOf is a survey as the core knows it.
func surveyOf(d history.Survey) care.Survey { return care.Survey(d) }

// A SurveyReport is the last survey of a blade, in words for the saw doctor.
type SurveyReport struct {
	Blade  store.Blade
	Entry  store.Entry
	Survey history.Survey
	care.Report
}

// Survey finds the last survey of a blade and what it comes to.
func (s Station) Survey(ctx context.Context, shop, id uuid.UUID) (SurveyReport, error) {
	var out SurveyReport
	b, err := rack.At(s.Env).Blade(ctx, shop, id)
	if err != nil {
		return out, err
	}
	sh, err := rack.At(s.Env).Shop(ctx, shop)
	if err != nil {
		return out, err
	}
	rows, err := s.Store.Log(ctx, shop, store.Filter{Blade: &id, Kinds: []history.Kind{history.KindInspected}, Standing: true}, store.Mark{}, surveysLookedAt)
	if err != nil {
		return out, err
	}
	for _, e := range rows {
		var d history.Inspected
		if err := json.Unmarshal(e.Detail, &d); err != nil {
			return out, err
		}
		if d.Survey == nil {
			continue
		}
		left, _ := care.SharpeningsLeft(b.Condition, b.Blade, b.Tip.Mm(), b.Sharpened)
		since, err := s.Store.Since(ctx, shop, id)
		if err != nil {
			return out, err
		}
		return SurveyReport{b, e, *d.Survey, surveyOf(*d.Survey).Report(care.Subject{
			Teeth: b.Teeth, Price: b.Price, Sharpen: sh.Sharpening, Left: left, Years: e.At.Sub(since).Hours() / (24 * 365.25), Throwaway: b.Throwaway})}, nil
	}
	return out, &refusal.Error{Reason: refusal.Missing, Field: "id", What: say.Of("this blade hasn't been inspected yet")}
}

// surveysLookedAt is how many look-overs are gone through for a survey.
const surveysLookedAt = 100

// A Mending says that a blade was mended and inspected, or that it cannot be.
type Mending struct {
	history.Mended
	Cannot bool
	By     string
}

// Mend logs that an unfit blade was mended and inspected, so that it may go on
// again; one that cannot be mended is retired.
func (s Station) Mend(ctx context.Context, shop uuid.UUID, id uuid.UUID, m Mending) (store.Entry, error) {
	var out store.Entry
	err := s.WithBlade(ctx, shop, id, func(in *env.Env, b store.Blade) error {
		if b.Retired != nil {
			return env.Already("id", "%s is retired", b.Name)
		}
		if !m.Cannot {
			var err error
			out, err = At(in).note(ctx, shop, id, history.KindMended, m.Mended, m.By, "")
			return err
		}
		raw, err := json.Marshal(history.Retired{Reason: "unmendable"})
		if err != nil {
			return err
		}
		note, now := "can't be repaired, says "+m.InspectedBy, s.Now()
		if out, err = in.Store.Append(ctx, store.Entry{Shop: shop, At: now, Kind: history.KindRetired, Blade: &id, By: m.By, Note: note, Detail: raw}); err != nil {
			return err
		}
		return in.Store.RetireBlade(ctx, shop, id, &store.Retired{At: now, Reason: "unmendable", Note: note})
	})
	return out, err
}

// Note logs a line of text about a blade: where it was stored, what was seen.
func (s Station) Note(ctx context.Context, shop uuid.UUID, blade uuid.UUID, by, note string) (store.Entry, error) {
	if note == "" {
		return store.Entry{}, refusal.Of("note", "enter a note")
	}
	return s.note(ctx, shop, blade, history.KindNoted, struct{}{}, by, note)
}

func (s Station) note(ctx context.Context, shop uuid.UUID, blade uuid.UUID, kind history.Kind, detail any, by, note string) (store.Entry, error) {
	if _, err := rack.At(s.Env).Blade(ctx, shop, blade); err != nil {
		return store.Entry{}, err
	}
	raw, err := json.Marshal(detail)
	if err != nil {
		return store.Entry{}, err
	}
	e := store.Entry{Shop: shop, At: s.Now(), Kind: kind, Blade: &blade, By: by, Note: note, Detail: raw}
	return s.Store.Append(ctx, e)
}
