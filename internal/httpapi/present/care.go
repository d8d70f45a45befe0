package present

import (
	"time"

	"corte/core/care"
	"corte/core/choose"
	"corte/core/cut"
	"corte/core/history"
	"corte/internal/httpapi/contract"
	"corte/internal/ptr"
	shopcare "corte/internal/shop/care"
)

func (v Voice) Cleaner(k care.Cleaner) contract.Cleaner {
	return contract.Cleaner{ID: k.ID, Name: v.Say(k.Name), SoakS: int(k.Soak.Seconds()), Parts: k.Parts, Harsh: v.Say(k.Harsh), Attacks: v.Say(k.Attacks), Uses: k.Uses, KeepsDays: k.Keeps}
}

func (v Voice) Wash(w shopcare.Wash, now time.Time) contract.Wash {
	out := contract.Wash{ID: w.ID, Version: w.Version, Cleaner: v.Cleaner(w.Cleaner), Brush: w.Brush, BathID: w.Bath, Step: w.Step, StepAt: w.StepAt,
		StartedAt: w.Started, Now: now, By: w.By}
	for _, b := range w.Of {
		out.Blades = append(out.Blades, contract.NamedBlade{ID: b.ID, Name: b.Name})
	}
	for _, st := range w.Steps {
		out.Steps = append(out.Steps, contract.WashStep{ID: st.ID, Title: v.Say(st.Title), Text: v.Say(st.Text), LeastS: int(st.Least.Seconds()), MostS: int(st.Most.Seconds())})
	}
	return out
}

func (v Voice) Bath(b shopcare.Bath) contract.Bath {
	return contract.Bath{ID: b.ID, Name: b.Name, Cleaner: v.Cleaner(b.Cleaner), Litres: b.Litres, MadeAt: b.Made, Until: b.Until, Uses: b.Uses,
		Word: contract.BathWord(b.Word), Why: v.Say(b.Why)}
}

func (v Voice) Baths(all []shopcare.Bath) []contract.Bath {
	out := make([]contract.Bath, len(all))
	for i, b := range all {
		out[i] = v.Bath(b)
	}
	return out
}

func (v Voice) Survey(found shopcare.SurveyReport) contract.SurveyReport {
	return contract.SurveyReport{
		BladeID: found.Blade.ID, BladeName: found.Blade.Name, At: found.Entry.At, By: found.Entry.By, Note: ptr.NonZero(found.Entry.Note), Survey: encodeSurvey(found.Survey),
		Found: v.Each(found.Found), Stop: found.Fault.Unfits(), ToDoctor: v.Each(found.ToDoctor), Worth: contract.SurveyReportWorth(found.Worth), WorthWhy: v.Say(found.WorthWhy), Teeth: found.Blade.Teeth,
	}
}

func encodeSurvey(s history.Survey) contract.Survey {
	return contract.Survey{After: contract.SurveyAfter(s.After), Cleaned: &s.Cleaned, Missing: &s.Missing, Chipped: &s.Chipped, Loose: &s.Loose,
		Seat: (*contract.SurveySeat)(ptr.NonZero(s.Seat)), Braze: (*contract.SurveyBraze)(ptr.NonZero(s.Braze)), Rest: (*contract.SurveyRest)(ptr.NonZero(s.Rest)),
		Pitch: (*contract.SurveyPitch)(ptr.NonZero(s.Pitch)), Blue: s.Blue, Crack: (*contract.SurveyCrack)(ptr.NonZero(s.Crack)), Bent: s.Bent, Beside: (*contract.SurveyBeside)(ptr.NonZero(s.Beside))}
}

func careVerdict(c care.Condition, s cut.State) choose.Verdict {
	if choose.Bar(c) != nil {
		return choose.Halt
	}
	return choose.CareVerdict(s)
}
