// Package run answers for cuts that are made, and for comparisons of settings on real pieces.
package run

import (
	"context"
	"encoding/json"
	"errors"

	"github.com/google/uuid"

	"corte/core/history"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/outcome"
	"corte/core/say"
	"corte/internal/httpapi/contract"
	"corte/internal/httpapi/present"
	"corte/internal/httpapi/request"
	"corte/internal/ptr"
	"corte/internal/refusal"
	shopchoose "corte/internal/shop/choose"
	"corte/internal/shop/job"
	"corte/internal/shop/run"
)

// Handlers meet the part of the contract that is this station's.
type Handlers struct {
	request.Scope
}

func (s Handlers) ListTrials(ctx context.Context, r contract.ListTrialsRequestObject) (contract.ListTrialsResponseObject, error) {
	v := present.VoiceOf(ctx)
	all, err := s.In(ctx).Run.Trials(ctx, request.Shop(ctx), r.Params.BladeID, request.Limit(r.Params.Limit))
	if err != nil {
		return nil, err
	}
	out := contract.ListTrials200JSONResponse{Items: make([]contract.Trial, len(all))}
	for i, t := range all {
		if out.Items[i], err = v.Trial(t); err != nil {
			return nil, err
		}
	}
	return out, nil
}

func (s Handlers) StartTrial(ctx context.Context, r contract.StartTrialRequestObject) (contract.StartTrialResponseObject, error) {
	v := present.VoiceOf(ctx)
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
	t, err := s.In(ctx).Run.StartTrial(ctx, request.Shop(ctx), r.Body.Cut, raw, pins, feeds, r.Body.Repeats, r.Body.Blind, ptr.Value(r.Body.By))
	if err != nil {
		return nil, err
	}
	out, err := v.Trial(t)
	return contract.StartTrial201JSONResponse(out), err
}

func (s Handlers) GetTrial(ctx context.Context, r contract.GetTrialRequestObject) (contract.GetTrialResponseObject, error) {
	v := present.VoiceOf(ctx)
	t, err := s.In(ctx).Run.Trial(ctx, request.Shop(ctx), r.ID)
	if err != nil {
		return nil, err
	}
	out, err := v.Trial(t)
	return contract.GetTrial200JSONResponse(out), err
}

func (s Handlers) CutTrialPiece(ctx context.Context, r contract.CutTrialPieceRequestObject) (contract.CutTrialPieceResponseObject, error) {
	v := present.VoiceOf(ctx)
	t, err := s.In(ctx).Run.RunCut(ctx, request.Shop(ctx), r.ID, request.Version(r.Params.IfMatch), r.Body.Piece, ptr.Value(r.Body.Seconds))
	if err != nil {
		return nil, err
	}
	out, err := v.Trial(t)
	return contract.CutTrialPiece200JSONResponse(out), err
}

func (s Handlers) GradeTrialPiece(ctx context.Context, r contract.GradeTrialPieceRequestObject) (contract.GradeTrialPieceResponseObject, error) {
	v := present.VoiceOf(ctx)
	b := r.Body
	t, err := s.In(ctx).Run.RunGraded(ctx, request.Shop(ctx), r.ID, request.Version(r.Params.IfMatch), b.Piece, outcome.Wall(b.Wall), outcome.Face(b.Splinters), outcome.Effort(b.Effort))
	if err != nil {
		return nil, err
	}
	out, err := v.Trial(t)
	return contract.GradeTrialPiece200JSONResponse(out), err
}

func (s Handlers) EndTrial(ctx context.Context, r contract.EndTrialRequestObject) (contract.EndTrialResponseObject, error) {
	v := present.VoiceOf(ctx)
	t, err := s.In(ctx).Run.EndTrial(ctx, request.Shop(ctx), r.ID, request.Version(r.Params.IfMatch))
	if err != nil {
		return nil, err
	}
	out, err := v.Trial(t)
	return contract.EndTrial200JSONResponse(out), err
}

func (s Handlers) LogCut(ctx context.Context, r contract.LogCutRequestObject) (contract.LogCutResponseObject, error) {
	v := present.VoiceOf(ctx)
	made := run.CutMade{
		Cut: r.Body.Cut, Blade: r.Body.BladeID, Height: ptr.Value(r.Body.HeightMm), Feed: measure.Feed(ptr.Value(r.Body.FeedMMin)),
		Pieces: max(1, ptr.Value(r.Body.Pieces)), Wall: outcome.Wall(r.Body.Wall), Splinters: outcome.Face(r.Body.Splinters),
		Other: outcome.Face(ptr.Value(r.Body.OtherSplinters)), Effort: outcome.Effort(ptr.Value(r.Body.Effort)), Noise: outcome.Noise(ptr.Value(r.Body.Noise)),
		Metres: ptr.Value(r.Body.Metres), Seconds: ptr.Value(r.Body.Seconds), CameBack: r.Body.CameBack, By: ptr.Value(r.Body.By), Note: ptr.Value(r.Body.Note),
		Sent: request.Sent(r.Params.WaitedSeconds, r.Params.MadeAfter),
	}
	if h := r.Body.Heard; h != nil {
		made.Heard = &history.Heard{Idle: h.IdleRpm, Mean: h.MeanRpm, Least: h.LeastRpm}
	}
	e, err := s.In(ctx).Run.LogCut(ctx, request.Shop(ctx), made)
	if err == nil && r.Body.JobID != nil && r.Body.RowID != nil {
		err = s.tickCut(ctx, *r.Body.JobID, *r.Body.RowID, made)
	}
	if err != nil {
		return nil, err
	}
	out, err := v.Entry(e)
	return contract.LogCut201JSONResponse(out), err
}

func (s Handlers) ListLessons(ctx context.Context, _ contract.ListLessonsRequestObject) (contract.ListLessonsResponseObject, error) {
	v := present.VoiceOf(ctx)
	all, err := s.In(ctx).Run.Lessons(ctx, request.Shop(ctx))
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

// tickCut ticks off what a logged cut made of a job's row. A job or a row that is
// gone by now is no reason to lose the cut.
func (s Handlers) tickCut(ctx context.Context, id, row uuid.UUID, made run.CutMade) error {
	_, err := s.In(ctx).Job.TickOff(ctx, request.Shop(ctx), id, job.Tick{Row: row, Made: made.Pieces, By: made.By, Sent: made.Sent})
	var gone *refusal.Error
	if errors.As(err, &gone) {
		return nil
	}
	return err
}
