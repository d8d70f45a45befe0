package httpapi

import (
	"context"
	"math"
	"time"

	"corte/core/cut"
	"corte/core/measure"
	"corte/core/practice"
	"corte/core/say"
	"corte/internal/httpapi/contract"
	"corte/internal/refusal"
)

func (s *server) GetPracticeBoard(ctx context.Context, r contract.GetPracticeBoardRequestObject) (contract.GetPracticeBoardResponseObject, error) {
	v := voiceOf(ctx)
	b := practice.Board(uint64(r.Number))
	w := cut.Work(b.Job, b.Blade, b.Drive, b.State).Window
	return contract.GetPracticeBoard200JSONResponse{
		Number: r.Number, Text: v.Say(b.Said()), LengthMm: b.Job.FeedLength().Mm(), Across: b.Job.Direction.Across(),
		SlowestMMin: float64(w.Slowest), FastestMMin: float64(w.Fastest),
	}, nil
}

func (s *server) PractiseCut(ctx context.Context, r contract.PractiseCutRequestObject) (contract.PractiseCutResponseObject, error) {
	v := voiceOf(ctx)
	if len(r.Body.Ms) != len(r.Body.Mm) {
		return nil, refusal.Of("mm", "there are not as many places as times")
	}
	push := make([]practice.Moment, len(r.Body.Ms))
	for i := range push {
		push[i] = practice.Moment{At: time.Duration(r.Body.Ms[i] * float64(time.Millisecond)), Pos: measure.Length(r.Body.Mm[i])}
	}
	b := practice.Board(uint64(r.Body.Board))
	w, err := practice.Feed(b, push)
	if err != nil {
		return nil, &refusal.Error{Reason: refusal.Invalid, Field: "mm", What: say.Error(err)}
	}
	even, err := practice.Steady(b, cut.Work(b.Job, b.Blade, b.Drive, b.State).Feed)
	if err != nil {
		return nil, err
	}
	n := len(w.Steps)
	out := contract.PractiseCut200JSONResponse{
		FeedMMin: make([]float64, n), Scorch: make([]float64, n), Splinter: make([]float64, n),
		Whole: w.Whole, Clean: w.Clean(), Seconds: w.Took.Seconds(), Says: v.Each(w.Says(b, even)),
	}
	for i, st := range w.Steps {
		out.FeedMMin[i], out.Scorch[i], out.Splinter[i] = thousandths(float64(st.Feed)), thousandths(st.Scorch), thousandths(st.Splinter)
	}
	return out, nil
}

// thousandths is fine enough for a drawing, and a third of the length on the way.
func thousandths(x float64) float64 { return math.Round(x*1000) / 1000 }
