package httpapi

import (
	"context"
	"encoding/json"

	"corte/core/history"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/outcome"
	"corte/core/say"
	"corte/internal/httpapi/contract"
	"corte/internal/ptr"
	shopchoose "corte/internal/shop/choose"
	"corte/internal/shop/run"
)

func (s *server) ListTrials(ctx context.Context, r contract.ListTrialsRequestObject) (contract.ListTrialsResponseObject, error) {
	v := voiceOf(ctx)
	all, err := s.in(ctx).Run.Trials(ctx, s.shop(ctx), r.Params.BladeID, limitOf(r.Params.Limit))
	if err != nil {
		return nil, err
	}
	out := contract.ListTrials200JSONResponse{Items: make([]contract.Trial, len(all))}
	for i, t := range all {
		if out.Items[i], err = v.encodeTrial(t); err != nil {
			return nil, err
		}
	}
	return out, nil
}

func (s *server) StartTrial(ctx context.Context, r contract.StartTrialRequestObject) (contract.StartTrialResponseObject, error) {
	v := voiceOf(ctx)
	raw, err := json.Marshal(r.Body.Cut)
	if err != nil {
		return nil, err
	}
	pins, feeds := make([]shopchoose.Pin, len(r.Body.Settings)), make([]float64, len(r.Body.Settings))
	for i, one := range r.Body.Settings {
		pins[i] = shopchoose.Pin{Blade: one.BladeID, Height: ptr.Value(one.HeightMm)}
		pins[i].Exit = one.ExitSupport
		feeds[i] = ptr.Value(one.FeedMMin)
	}
	t, err := s.in(ctx).Run.StartTrial(ctx, s.shop(ctx), r.Body.Cut, raw, pins, feeds, r.Body.Repeats, r.Body.Blind, ptr.Value(r.Body.By))
	if err != nil {
		return nil, err
	}
	out, err := v.encodeTrial(t)
	return contract.StartTrial201JSONResponse(out), err
}

func (s *server) GetTrial(ctx context.Context, r contract.GetTrialRequestObject) (contract.GetTrialResponseObject, error) {
	v := voiceOf(ctx)
	t, err := s.in(ctx).Run.Trial(ctx, s.shop(ctx), r.ID)
	if err != nil {
		return nil, err
	}
	out, err := v.encodeTrial(t)
	return contract.GetTrial200JSONResponse(out), err
}

func (s *server) CutTrialPiece(ctx context.Context, r contract.CutTrialPieceRequestObject) (contract.CutTrialPieceResponseObject, error) {
	v := voiceOf(ctx)
	t, err := s.in(ctx).Run.RunCut(ctx, s.shop(ctx), r.ID, version(r.Params.IfMatch), r.Body.Piece, ptr.Value(r.Body.Seconds))
	if err != nil {
		return nil, err
	}
	out, err := v.encodeTrial(t)
	return contract.CutTrialPiece200JSONResponse(out), err
}

func (s *server) GradeTrialPiece(ctx context.Context, r contract.GradeTrialPieceRequestObject) (contract.GradeTrialPieceResponseObject, error) {
	v := voiceOf(ctx)
	b := r.Body
	t, err := s.in(ctx).Run.RunGraded(ctx, s.shop(ctx), r.ID, version(r.Params.IfMatch), b.Piece, outcome.Wall(b.Wall), outcome.Face(b.Splinters), outcome.Effort(b.Effort))
	if err != nil {
		return nil, err
	}
	out, err := v.encodeTrial(t)
	return contract.GradeTrialPiece200JSONResponse(out), err
}

func (s *server) EndTrial(ctx context.Context, r contract.EndTrialRequestObject) (contract.EndTrialResponseObject, error) {
	v := voiceOf(ctx)
	t, err := s.in(ctx).Run.EndTrial(ctx, s.shop(ctx), r.ID, version(r.Params.IfMatch))
	if err != nil {
		return nil, err
	}
	out, err := v.encodeTrial(t)
	return contract.EndTrial200JSONResponse(out), err
}

func (v voice) encodeTrial(t run.Trial) (contract.Trial, error) {
	out := contract.Trial{ID: t.ID, Version: t.Version, Repeats: t.Repeats, Blind: t.Blind, Grading: t.Grading, Differ: v.Each(t.Differ), Note: v.Sentence(t.Note), By: t.By,
		StartedAt: t.Started, EndedAt: t.Ended, Says: v.Each(t.Says)}
	if err := json.Unmarshal(t.Cut, &out.Cut); err != nil {
		return out, err
	}
	for _, one := range t.Settings {
		out.Settings = append(out.Settings, contract.TrialSetting{BladeID: one.Blade, BladeName: one.Name, HeightMm: measure.Length(one.Height),
			ExitSupport: wordOf[contract.Support](one.Exit), FeedMMin: ptr.Positive(one.Feed)})
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

func (s *server) LogCut(ctx context.Context, r contract.LogCutRequestObject) (contract.LogCutResponseObject, error) {
	v := voiceOf(ctx)
	made := run.CutMade{
		Cut: r.Body.Cut, Blade: r.Body.BladeID, Height: ptr.Value(r.Body.HeightMm), Feed: measure.Feed(ptr.Value(r.Body.FeedMMin)),
		Pieces: max(1, ptr.Value(r.Body.Pieces)), Wall: outcome.Wall(r.Body.Wall), Splinters: outcome.Face(r.Body.Splinters),
		Other: outcome.Face(ptr.Value(r.Body.OtherSplinters)), Effort: outcome.Effort(ptr.Value(r.Body.Effort)), Noise: outcome.Noise(ptr.Value(r.Body.Noise)),
		Metres: ptr.Value(r.Body.Metres), Seconds: ptr.Value(r.Body.Seconds), CameBack: r.Body.CameBack, By: ptr.Value(r.Body.By), Note: ptr.Value(r.Body.Note),
		Sent: sentOf(r.Params.WaitedSeconds, r.Params.MadeAfter),
	}
	if h := r.Body.Heard; h != nil {
		made.Heard = &history.Heard{Idle: h.IdleRpm, Mean: h.MeanRpm, Least: h.LeastRpm}
	}
	e, err := s.in(ctx).Run.LogCut(ctx, s.shop(ctx), made)
	if err == nil && r.Body.JobID != nil && r.Body.RowID != nil {
		err = s.tickCut(ctx, *r.Body.JobID, *r.Body.RowID, made)
	}
	if err != nil {
		return nil, err
	}
	out, err := v.encodeEntry(e)
	return contract.LogCut201JSONResponse(out), err
}

func (s *server) ListLessons(ctx context.Context, _ contract.ListLessonsRequestObject) (contract.ListLessonsResponseObject, error) {
	v := voiceOf(ctx)
	all, err := s.in(ctx).Run.Lessons(ctx, s.shop(ctx))
	if err != nil {
		return nil, err
	}
	out := contract.ListLessons200JSONResponse{Items: []contract.Lesson{}}
	for _, l := range all {
		m, err := material.Get(l.Material)
		if err != nil || !m.Kind.Modelled() || l.Cuts == 0 {
			continue // not known to this version, chosen by rule, or of no cut yet
		}
		fixed := l.Apply(m)
		out.Items = append(out.Items, contract.Lesson{Material: l.Material, MaterialName: v.Word(m.Name), ScorchFactor: fixed.ScorchDose / m.ScorchDose,
			SplinterFactor: fixed.MAcross / m.MAcross, Cuts: l.Cuts, Says: v.Each(l.Says(say.Word(m.Name)))})
	}
	return out, nil
}
