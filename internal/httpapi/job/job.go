// Package job answers for lists of parts, their run sheets and ticks.
package job

import (
	"context"
	"net/http"
	"strconv"

	corejob "corte/core/job"
	"corte/core/measure"
	"corte/internal/httpapi/contract"
	"corte/internal/httpapi/present"
	"corte/internal/httpapi/request"
	"corte/internal/jobfile"
	"corte/internal/ptr"
	"corte/internal/refusal"
	"corte/internal/shop/job"
)

// Handlers meet the part of the contract that is this station's.
type Handlers struct {
	request.Scope
}

func unitOf(u contract.Units) measure.Unit {
	if u == contract.UnitsIn {
		return measure.Inch
	}
	return measure.Millimetre
}

func (s Handlers) ReadJobList(ctx context.Context, r contract.ReadJobListRequestObject) (contract.ReadJobListResponseObject, error) {
	v := present.VoiceOf(ctx)
	var above *corejob.Row
	if r.Body.Above != nil {
		row, err := present.ReadJobRow(*r.Body.Above)
		if err != nil {
			return nil, err
		}
		above = &row.Row
	}
	out := contract.ReadJobList200JSONResponse{Lines: []contract.JobLine{}}
	for _, l := range jobfile.Read(r.Body.Text, unitOf(r.Body.Units), above) {
		line := contract.JobLine{Line: l.Number, Text: l.Text, Row: encodeRead(l.Row), Faults: []contract.JobFault{}, Guessed: l.Guessed}
		if line.Guessed == nil {
			line.Guessed = []string{}
		}
		for _, f := range l.Faults {
			line.Faults = append(line.Faults, contract.JobFault{Field: f.Field, What: v.Sentence(f.What)})
		}
		out.Lines = append(out.Lines, line)
	}
	return out, nil
}

func (s Handlers) ListJobs(ctx context.Context, r contract.ListJobsRequestObject) (contract.ListJobsResponseObject, error) {
	all, err := s.In(ctx).Job.Jobs(ctx, request.Shop(ctx), request.Limit(r.Params.Limit))
	if err != nil {
		return nil, err
	}
	out := contract.ListJobs200JSONResponse{Items: []contract.JobHead{}}
	for _, j := range all {
		h := contract.JobHead{ID: j.ID, Name: j.Name, Rows: len(j.Rows), CreatedAt: j.Created, EndedAt: j.Ended}
		for _, row := range j.Rows {
			h.Pieces += row.Pieces
			h.Made += min(row.Pieces, j.Done[row.ID].Made)
		}
		if j.Sheet != nil {
			h.LeftMin = ptr.To(j.LeftMin())
		}
		out.Items = append(out.Items, h)
	}
	return out, nil
}

func (s Handlers) AddJob(ctx context.Context, r contract.AddJobRequestObject) (contract.AddJobResponseObject, error) {
	rows, err := present.ReadJobRows(r.Body.Rows)
	if err != nil {
		return nil, err
	}
	j, err := s.In(ctx).Job.Add(ctx, request.Shop(ctx), r.Body.Name, rows, readKnobs(r.Body.Knobs))
	if err != nil {
		return nil, err
	}
	return contract.AddJob201JSONResponse(present.VoiceOf(ctx).Job(j)), nil
}

func (s Handlers) GetJob(ctx context.Context, r contract.GetJobRequestObject) (contract.GetJobResponseObject, error) {
	j, err := s.In(ctx).Job.Job(ctx, request.Shop(ctx), r.ID)
	if err != nil {
		return nil, err
	}
	return contract.GetJob200JSONResponse(present.VoiceOf(ctx).Job(j)), nil
}

func (s Handlers) GetPace(ctx context.Context, _ contract.GetPaceRequestObject) (contract.GetPaceResponseObject, error) {
	p, err := s.In(ctx).Job.Pace(ctx, request.Shop(ctx))
	if err != nil {
		return nil, err
	}
	low, high := p.Range()
	return contract.GetPace200JSONResponse{Factor: p.Factor(), Low: low, High: high, Rows: p.Rows}, nil
}

func (s Handlers) ChangeJob(ctx context.Context, r contract.ChangeJobRequestObject) (contract.ChangeJobResponseObject, error) {
	rows, err := present.ReadJobRows(r.Body.Rows)
	if err != nil {
		return nil, err
	}
	j, err := s.In(ctx).Job.Change(ctx, request.Shop(ctx), r.ID, request.Version(r.Params.IfMatch), r.Body.Name, rows, readKnobs(r.Body.Knobs))
	if err != nil {
		return nil, err
	}
	return contract.ChangeJob200JSONResponse(present.VoiceOf(ctx).Job(j)), nil
}

func (s Handlers) DropJob(ctx context.Context, r contract.DropJobRequestObject) (contract.DropJobResponseObject, error) {
	if err := s.In(ctx).Job.Drop(ctx, request.Shop(ctx), r.ID, request.Version(r.Params.IfMatch)); err != nil {
		return nil, err
	}
	return contract.DropJob204Response{}, nil
}

func (s Handlers) PlanJob(ctx context.Context, r contract.PlanJobRequestObject) (contract.PlanJobResponseObject, error) {
	j, err := s.In(ctx).Job.Plan(ctx, request.Shop(ctx), r.ID, request.Version(r.Params.IfMatch), readKnobs(r.Body.Knobs))
	if err != nil {
		return nil, err
	}
	return contract.PlanJob200JSONResponse(present.VoiceOf(ctx).Job(j)), nil
}

func (s Handlers) TryJob(ctx context.Context, r contract.TryJobRequestObject) (contract.TryJobResponseObject, error) {
	j, sheet, err := s.In(ctx).Job.Try(ctx, request.Shop(ctx), r.ID, readKnobs(r.Body.Knobs))
	if err != nil {
		return nil, err
	}
	return contract.TryJob200JSONResponse(present.VoiceOf(ctx).Sheet(j, sheet)), nil
}

func (s Handlers) TickJob(ctx context.Context, r contract.TickJobRequestObject) (contract.TickJobResponseObject, error) {
	b := r.Body
	if b.Made == 0 && b.Spoilt == 0 {
		return nil, refusal.Of("made", "enter how many were made or spoiled")
	}
	j, err := s.In(ctx).Job.TickOff(ctx, request.Shop(ctx), r.ID, job.Tick{Row: b.RowID, Made: b.Made, Spoilt: b.Spoilt, Seconds: ptr.Value(b.Seconds), By: ptr.Value(b.By),
		Sent: request.Sent(r.Params.WaitedSeconds, r.Params.MadeAfter)})
	if err != nil {
		return nil, err
	}
	return contract.TickJob200JSONResponse(present.VoiceOf(ctx).Job(j)), nil
}

// jobFile answers with a file; a drawing is shown where it is asked for, and
// anything else kept.
type jobFile struct {
	kind, name string
	body       []byte
}

func (f jobFile) VisitGetJobFileResponse(w http.ResponseWriter) error {
	w.Header().Set("Content-Type", f.kind)
	w.Header().Set("Content-Disposition", `attachment; filename="`+f.name+`"`)
	w.Header().Set("Content-Length", strconv.Itoa(len(f.body)))
	w.WriteHeader(http.StatusOK)
	_, err := w.Write(f.body)
	return err
}

func (s Handlers) GetJobFile(ctx context.Context, r contract.GetJobFileRequestObject) (contract.GetJobFileResponseObject, error) {
	j, err := s.In(ctx).Job.Job(ctx, request.Shop(ctx), r.ID)
	if err != nil {
		return nil, err
	}
	var f jobFile
	switch r.Params.Format {
	case contract.GetJobFileParamsFormatJSON:
		f.kind, f.name = "application/json", "corte-job.json"
		f.body, err = jobfile.JSON(j)
	case contract.GetJobFileParamsFormatCsv:
		f.kind, f.name = "text/csv; charset=utf-8", "corte-job.csv"
		f.body, err = jobfile.CSV(j)
	case contract.GetJobFileParamsFormatSvg:
		f.kind, f.name = "image/svg+xml", "corte-run-sheet.svg"
		f.body, err = jobfile.Score(j, unitOf(ptr.Value(r.Params.Units)))
	case contract.GetJobFileParamsFormatIcs:
		now := s.Service.Now()
		f.kind, f.name = "text/calendar; charset=utf-8", "corte-run-sheet.ics"
		from := now
		if r.Params.StartsAt != nil {
			from = *r.Params.StartsAt
		}
		f.body = jobfile.Calendar(present.VoiceOf(ctx).Voice.Voice, j, from, now)
	}
	return f, err
}

func readKnobs(k contract.JobKnobs) job.Knobs {
	return job.Knobs{ChangeMin: k.ChangeMin, People: k.People, Without: ptr.Value(k.Without), Only: ptr.Value(k.Only), Pace: ptr.Value(k.Pace)}
}

func encodeRead(r corejob.Row) contract.JobRowRead {
	return contract.JobRowRead{Name: r.Name, Assembly: ptr.NonZero(r.Assembly), Pieces: r.Pieces, Material: r.Material, Direction: r.Direction, Finish: r.Finish,
		ThicknessMm: r.Thickness, WidthMm: r.Width, LengthMm: r.Length, Form: ptr.To(r.Form), DepthMm: ptr.Positive(r.Depth), BevelDeg: ptr.Positive(r.BevelDeg),
		MiterDeg: ptr.Positive(r.MiterDeg), Moisture: ptr.To(r.Moisture), Moves: &r.Moves, Stage: r.Stage, InStage: r.In()}
}
