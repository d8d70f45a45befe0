package httpapi

import (
	"context"
	"errors"
	"net/http"
	"strconv"

	"github.com/google/uuid"

	"corte/core/cut"
	corejob "corte/core/job"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/say"
	"corte/internal/httpapi/contract"
	"corte/internal/jobfile"
	"corte/internal/ptr"
	"corte/internal/refusal"
	"corte/internal/shop/job"
	"corte/internal/shop/run"
)

func unitOf(u contract.Units) measure.Unit {
	if u == contract.UnitsIn {
		return measure.Inch
	}
	return measure.Millimetre
}

func (s *server) ReadJobList(ctx context.Context, r contract.ReadJobListRequestObject) (contract.ReadJobListResponseObject, error) {
	v := voiceOf(ctx)
	var above *corejob.Row
	if r.Body.Above != nil {
		row, err := readJobRow(*r.Body.Above)
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

func (s *server) ListJobs(ctx context.Context, r contract.ListJobsRequestObject) (contract.ListJobsResponseObject, error) {
	all, err := s.in(ctx).Job.Jobs(ctx, s.shop(ctx), limitOf(r.Params.Limit))
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

func (s *server) AddJob(ctx context.Context, r contract.AddJobRequestObject) (contract.AddJobResponseObject, error) {
	rows, err := readJobRows(r.Body.Rows)
	if err != nil {
		return nil, err
	}
	j, err := s.in(ctx).Job.Add(ctx, s.shop(ctx), r.Body.Name, rows, readKnobs(r.Body.Knobs))
	if err != nil {
		return nil, err
	}
	return contract.AddJob201JSONResponse(voiceOf(ctx).encodeJob(j)), nil
}

func (s *server) GetJob(ctx context.Context, r contract.GetJobRequestObject) (contract.GetJobResponseObject, error) {
	j, err := s.in(ctx).Job.Job(ctx, s.shop(ctx), r.ID)
	if err != nil {
		return nil, err
	}
	return contract.GetJob200JSONResponse(voiceOf(ctx).encodeJob(j)), nil
}

func (s *server) GetPace(ctx context.Context, _ contract.GetPaceRequestObject) (contract.GetPaceResponseObject, error) {
	p, err := s.in(ctx).Job.Pace(ctx, s.shop(ctx))
	if err != nil {
		return nil, err
	}
	low, high := p.Range()
	return contract.GetPace200JSONResponse{Factor: p.Factor(), Low: low, High: high, Rows: p.Rows}, nil
}

func (s *server) ChangeJob(ctx context.Context, r contract.ChangeJobRequestObject) (contract.ChangeJobResponseObject, error) {
	rows, err := readJobRows(r.Body.Rows)
	if err != nil {
		return nil, err
	}
	j, err := s.in(ctx).Job.Change(ctx, s.shop(ctx), r.ID, version(r.Params.IfMatch), r.Body.Name, rows, readKnobs(r.Body.Knobs))
	if err != nil {
		return nil, err
	}
	return contract.ChangeJob200JSONResponse(voiceOf(ctx).encodeJob(j)), nil
}

func (s *server) DropJob(ctx context.Context, r contract.DropJobRequestObject) (contract.DropJobResponseObject, error) {
	if err := s.in(ctx).Job.Drop(ctx, s.shop(ctx), r.ID, version(r.Params.IfMatch)); err != nil {
		return nil, err
	}
	return contract.DropJob204Response{}, nil
}

func (s *server) PlanJob(ctx context.Context, r contract.PlanJobRequestObject) (contract.PlanJobResponseObject, error) {
	j, err := s.in(ctx).Job.Plan(ctx, s.shop(ctx), r.ID, version(r.Params.IfMatch), readKnobs(r.Body.Knobs))
	if err != nil {
		return nil, err
	}
	return contract.PlanJob200JSONResponse(voiceOf(ctx).encodeJob(j)), nil
}

func (s *server) TryJob(ctx context.Context, r contract.TryJobRequestObject) (contract.TryJobResponseObject, error) {
	j, sheet, err := s.in(ctx).Job.Try(ctx, s.shop(ctx), r.ID, readKnobs(r.Body.Knobs))
	if err != nil {
		return nil, err
	}
	return contract.TryJob200JSONResponse(voiceOf(ctx).encodeSheet(j, sheet)), nil
}

func (s *server) TickJob(ctx context.Context, r contract.TickJobRequestObject) (contract.TickJobResponseObject, error) {
	b := r.Body
	if b.Made == 0 && b.Spoilt == 0 {
		return nil, refusal.Of("made", "say how many were made or spoilt")
	}
	j, err := s.in(ctx).Job.TickOff(ctx, s.shop(ctx), r.ID, job.Tick{Row: b.RowID, Made: b.Made, Spoilt: b.Spoilt, Seconds: ptr.Value(b.Seconds), By: ptr.Value(b.By),
		Sent: sentOf(r.Params.WaitedSeconds, r.Params.MadeAfter)})
	if err != nil {
		return nil, err
	}
	return contract.TickJob200JSONResponse(voiceOf(ctx).encodeJob(j)), nil
}

// tickCut ticks off what a logged cut made of a job's row. A job or a row that is
// gone by now is no reason to lose the cut.
func (s *server) tickCut(ctx context.Context, id, row uuid.UUID, made run.CutMade) error {
	_, err := s.in(ctx).Job.TickOff(ctx, s.shop(ctx), id, job.Tick{Row: row, Made: made.Pieces, By: made.By, Sent: made.Sent})
	var gone *refusal.Error
	if errors.As(err, &gone) {
		return nil
	}
	return err
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

func (s *server) GetJobFile(ctx context.Context, r contract.GetJobFileRequestObject) (contract.GetJobFileResponseObject, error) {
	j, err := s.in(ctx).Job.Job(ctx, s.shop(ctx), r.ID)
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
		now := s.svc.Now()
		f.kind, f.name = "text/calendar; charset=utf-8", "corte-run-sheet.ics"
		from := now
		if r.Params.StartsAt != nil {
			from = *r.Params.StartsAt
		}
		f.body = jobfile.Calendar(j, from, now)
	}
	return f, err
}

func readKnobs(k contract.JobKnobs) job.Knobs {
	return job.Knobs{ChangeMin: k.ChangeMin, People: k.People, Without: ptr.Value(k.Without), Only: ptr.Value(k.Only), Pace: ptr.Value(k.Pace)}
}

func readJobRows(in []contract.JobRowInput) ([]job.Row, error) {
	out := make([]job.Row, len(in))
	for i, one := range in {
		var err error
		if out[i], err = readJobRow(one); err != nil {
			return nil, below(err, "rows."+strconv.Itoa(i))
		}
		for _, f := range out[i].Check() {
			return nil, refusal.Of("rows."+strconv.Itoa(i)+"."+f.Field, "%s: %s", say.Word(one.Name), f.What)
		}
	}
	return out, nil
}

func readJobRow(in contract.JobRowInput) (job.Row, error) {
	if _, err := material.Get(in.Material); err != nil {
		return job.Row{}, refusal.Of("material", "%s; choose one of the list", err)
	}
	return job.Row{ID: in.ID, Saw: in.SawID, Blade: in.BladeID, Row: corejob.Row{Name: in.Name, Assembly: ptr.Value(in.Assembly), Stage: ptr.Value(in.Stage),
		Part: cut.Part{Pieces: in.Pieces, Material: in.Material, Direction: in.Direction, Finish: in.Finish, Thickness: in.ThicknessMm, Width: in.WidthMm,
			Length: in.LengthMm, Form: ptr.Value(in.Form), Depth: ptr.Value(in.DepthMm), BevelDeg: ptr.Value(in.BevelDeg), MiterDeg: ptr.Value(in.MiterDeg),
			Moisture: ptr.Value(in.Moisture), Moves: ptr.Value(in.Moves)}}}, nil
}

func encodeRead(r corejob.Row) contract.JobRowRead {
	return contract.JobRowRead{Name: r.Name, Assembly: ptr.NonZero(r.Assembly), Pieces: r.Pieces, Material: r.Material, Direction: r.Direction, Finish: r.Finish,
		ThicknessMm: r.Thickness, WidthMm: r.Width, LengthMm: r.Length, Form: ptr.To(r.Form), DepthMm: ptr.Positive(r.Depth), BevelDeg: ptr.Positive(r.BevelDeg),
		MiterDeg: ptr.Positive(r.MiterDeg), Moisture: ptr.To(r.Moisture), Moves: &r.Moves, Stage: r.Stage, InStage: r.In()}
}

func (v voice) encodeJob(j job.Job) contract.Job {
	out := contract.Job{ID: j.ID, Version: j.Version, Name: j.Name, Rows: []contract.JobRow{}, CreatedAt: j.Created, PlannedAt: j.Planned, EndedAt: j.Ended, Left: j.Left(), Moved: j.Moved,
		Knobs: contract.JobKnobs{ChangeMin: j.Knobs.ChangeMin, People: j.Knobs.People, Without: ptr.To(orNone(j.Knobs.Without)), Only: ptr.To(orNone(j.Knobs.Only)), Pace: &j.Knobs.Pace}}
	for _, r := range j.Rows {
		p := j.Done[r.ID]
		out.Rows = append(out.Rows, contract.JobRow{ID: r.ID, Name: r.Name, Assembly: ptr.NonZero(r.Assembly), Pieces: r.Pieces, Material: r.Material, MaterialName: v.material(r.Material),
			Direction: r.Direction, Finish: r.Finish, ThicknessMm: r.Thickness, WidthMm: r.Width, LengthMm: r.Length, Form: ptr.To(r.Form),
			DepthMm: ptr.Positive(r.Depth), BevelDeg: ptr.Positive(r.BevelDeg), MiterDeg: ptr.Positive(r.MiterDeg), Moisture: ptr.To(r.Moisture), Moves: ptr.To(r.Moves),
			Stage: r.Stage, InStage: r.In(), SawID: r.Saw, BladeID: r.Blade, Made: p.Made, Spoilt: p.Spoilt, Left: p.Left, TookMin: ptr.Positive(j.Took[r.ID]), ForetoldMin: ptr.Positive(j.Foretold(r.ID))})
	}
	if j.Sheet != nil {
		out.Sheet = ptr.To(v.encodeSheet(j, *j.Sheet))
	}
	return out
}

func orNone(ids []uuid.UUID) []uuid.UUID {
	if ids == nil {
		return []uuid.UUID{}
	}
	return ids
}

func (v voice) encodeSheet(j job.Job, s job.Sheet) contract.RunSheet {
	out := contract.RunSheet{Turns: []contract.RunTurn{}, LeftOut: []contract.RunLeftOut{}, Passes: []contract.RunPass{}, Changes: s.Changes, CutMin: s.CutMin,
		ChangesMin: s.ChangesMin, WashMin: s.WashMin, TotalMin: s.CutMin + s.ChangesMin + s.WashMin, BoundMin: s.BoundMin, EndMin: s.EndMin, People: s.People, Exact: s.Exact, Burn: s.Burn}
	rows := map[uuid.UUID]job.Row{}
	for _, r := range j.Rows {
		rows[r.ID] = r
	}
	after := map[uuid.UUID]int{} // what a row lacks on the sheet was made before it
	for _, r := range j.Rows {
		after[r.ID] = r.Pieces
	}
	for _, t := range s.Turns {
		for _, c := range t.Cuts {
			after[c.Row] -= c.Pieces
		}
	}
	for _, t := range s.Turns {
		turn := contract.RunTurn{Stage: t.Stage, SawID: t.Saw, SawName: t.SawName, BladeID: t.Blade, BladeName: t.BladeName, Teeth: t.Teeth, Changed: t.Changed, Wash: t.Wash,
			Person: t.Person, BeginMin: t.Begin, CutsFromMin: t.CutsFrom, EndMin: t.End, Cuts: []contract.RunCut{}}
		for _, c := range t.Cuts {
			r, there := rows[c.Row]
			if !there {
				continue // taken out of the list since
			}
			r.Pieces = c.Pieces
			turn.Cuts = append(turn.Cuts, contract.RunCut{RowID: c.Row, Pieces: c.Pieces, After: after[c.Row], BeginMin: c.Begin, Minutes: c.Minutes, HeightMm: ptr.Positive(c.Height),
				FeedMMin: ptr.Positive(c.Feed), Seconds: ptr.Positive(c.Seconds), Verdict: wordOf[contract.Verdict](c.Verdict), Shut: c.Shut, Burn: c.Burn, ReworkMin: c.Rework,
				Cut: job.CutOf(r, t.Saw)})
			after[c.Row] += c.Pieces
		}
		out.Turns = append(out.Turns, turn)
	}
	for _, l := range s.LeftOut {
		out.LeftOut = append(out.LeftOut, contract.RunLeftOut{RowID: l.Row, Why: v.Sentence(l.Why)})
	}
	if len(s.Heard) > 0 {
		heard := make([]contract.Heard, len(s.Heard))
		for i, h := range s.Heard {
			heard[i] = contract.Heard{Name: h.Saw, Verdict: wordOf[contract.Verdict](h.Verdict), Why: v.Sentence(h.Why), WayOut: v.Sentence(h.WayOut)}
		}
		out.Heard = &heard
	}
	for _, p := range s.Passes {
		what := contract.RunPassWhat("pitchy")
		if p.Dull {
			what = "dull"
		}
		out.Passes = append(out.Passes, contract.RunPass{BladeID: p.Blade, BladeName: p.BladeName, RowID: p.Row, Pieces: p.Pieces, What: what, Wash: p.Wash, SwapTo: ptr.NonZero(p.Swap),
			Says: v.Sentence(p.Says(rows[p.Row].Name))})
	}
	return out
}

// below puts a refusal's field under the name of what it stands in.
func below(err error, under string) error {
	var e *refusal.Error
	if errors.As(err, &e) {
		return &refusal.Error{Reason: e.Reason, Field: under + "." + e.Field, What: e.What}
	}
	return err
}
