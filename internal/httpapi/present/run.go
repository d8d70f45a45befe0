package present

import (
	"encoding/json"

	"corte/core/measure"
	"corte/internal/httpapi/contract"
	"corte/internal/ptr"
	"corte/internal/shop/run"
)

func (v Voice) Trial(t run.Trial) (contract.Trial, error) {
	out := contract.Trial{ID: t.ID, Version: t.Version, Repeats: t.Repeats, Blind: t.Blind, Grading: t.Grading, Differ: v.Each(t.Differ), Note: v.Sentence(t.Note), By: t.By,
		StartedAt: t.Started, EndedAt: t.Ended, Says: v.Each(t.Says)}
	if err := json.Unmarshal(t.Cut, &out.Cut); err != nil {
		return out, err
	}
	for _, one := range t.Settings {
		out.Settings = append(out.Settings, contract.TrialSetting{BladeID: one.Blade, BladeName: one.Name, HeightMm: measure.Length(one.Height),
			ExitSupport: WordOf[contract.Support](one.Exit), FeedMMin: ptr.Positive(one.Feed)})
	}
	if len(t.Settings) > 0 {
		out.EdgeLengthMm = ptr.Positive(t.Settings[0].Detail.EdgeLength())
	}
	hidden := t.Hidden()
	for _, one := range t.Runs {
		run := contract.TrialRun{Piece: one.Piece, Cut: one.Cut, Graded: one.Graded, Seconds: ptr.Positive(one.Seconds),
			Wall: (*contract.Wall)(ptr.NonZero(one.Wall)), Splinters: (*contract.Splinters)(ptr.NonZero(one.Splinters)), Effort: (*contract.Effort)(ptr.NonZero(one.Effort))}
		if !hidden {
			run.Setting = &one.Setting
		}
		out.Runs = append(out.Runs, run)
	}
	out.Results = []contract.TrialResult{}
	for _, one := range t.Results {
		out.Results = append(out.Results, contract.TrialResult{Measure: contract.TrialResultMeasure(one.Measure), A: one.A, B: one.B,
			Mean: one.Mean, Chance: one.Chance, Sure: v.Say(one.Sure)})
	}
	return out, nil
}
