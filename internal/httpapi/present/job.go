package present

import (
	"errors"
	"strconv"

	"github.com/google/uuid"

	"corte/core/cut"
	corejob "corte/core/job"
	"corte/core/material"
	"corte/core/say"
	"corte/internal/httpapi/contract"
	"corte/internal/ptr"
	"corte/internal/refusal"
	"corte/internal/shop/job"
)

func ReadJobRows(in []contract.JobRowInput) ([]job.Row, error) {
	out := make([]job.Row, len(in))
	for i, one := range in {
		var err error
		if out[i], err = ReadJobRow(one); err != nil {
			return nil, below(err, "rows."+strconv.Itoa(i))
		}
		for _, f := range out[i].Check() {
			return nil, refusal.Of("rows."+strconv.Itoa(i)+"."+f.Field, "%s: %s", say.Word(one.Name), f.What)
		}
	}
	return out, nil
}

func ReadJobRow(in contract.JobRowInput) (job.Row, error) {
	if _, err := material.Get(in.Material); err != nil {
		return job.Row{}, refusal.Of("material", "%s; choose one of the list", err)
	}
	return job.Row{ID: in.ID, Saw: in.SawID, Blade: in.BladeID, Row: corejob.Row{Name: in.Name, Assembly: ptr.Value(in.Assembly), Stage: ptr.Value(in.Stage),
		Part: cut.Part{Pieces: in.Pieces, Material: in.Material, Direction: in.Direction, Finish: in.Finish, Thickness: in.ThicknessMm, Width: in.WidthMm,
			Length: in.LengthMm, Form: ptr.Value(in.Form), Depth: ptr.Value(in.DepthMm), BevelDeg: ptr.Value(in.BevelDeg), MiterDeg: ptr.Value(in.MiterDeg),
			Moisture: ptr.Value(in.Moisture), Moves: ptr.Value(in.Moves)}}}, nil
}

func (v Voice) Job(j job.Job) contract.Job {
	out := contract.Job{ID: j.ID, Version: j.Version, Name: j.Name, Rows: []contract.JobRow{}, CreatedAt: j.Created, PlannedAt: j.Planned, EndedAt: j.Ended, Left: j.Left(), Moved: j.Moved,
		Knobs: contract.JobKnobs{ChangeMin: j.Knobs.ChangeMin, People: j.Knobs.People, Without: ptr.To(orNone(j.Knobs.Without)), Only: ptr.To(orNone(j.Knobs.Only)), Pace: &j.Knobs.Pace}}
	for _, r := range j.Rows {
		p := j.Done[r.ID]
		out.Rows = append(out.Rows, contract.JobRow{ID: r.ID, Name: r.Name, Assembly: ptr.NonZero(r.Assembly), Pieces: r.Pieces, Material: r.Material, MaterialName: v.Material(r.Material),
			Direction: r.Direction, Finish: r.Finish, ThicknessMm: r.Thickness, WidthMm: r.Width, LengthMm: r.Length, Form: ptr.To(r.Form),
			DepthMm: ptr.Positive(r.Depth), BevelDeg: ptr.Positive(r.BevelDeg), MiterDeg: ptr.Positive(r.MiterDeg), Moisture: ptr.To(r.Moisture), Moves: ptr.To(r.Moves),
			Stage: r.Stage, InStage: r.In(), SawID: r.Saw, BladeID: r.Blade, Made: p.Made, Spoilt: p.Spoilt, Left: p.Left, TookMin: ptr.Positive(j.Took[r.ID]), ForetoldMin: ptr.Positive(j.Foretold(r.ID))})
	}
	if j.Sheet != nil {
		out.Sheet = ptr.To(v.Sheet(j, *j.Sheet))
	}
	return out
}

func orNone(ids []uuid.UUID) []uuid.UUID {
	if ids == nil {
		return []uuid.UUID{}
	}
	return ids
}

func (v Voice) Sheet(j job.Job, s job.Sheet) contract.RunSheet {
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
				FeedMMin: ptr.Positive(c.Feed), Seconds: ptr.Positive(c.Seconds), Verdict: WordOf[contract.Verdict](c.Verdict), Shut: c.Shut, Burn: c.Burn, ReworkMin: c.Rework,
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
			heard[i] = contract.Heard{Name: h.Saw, Verdict: WordOf[contract.Verdict](h.Verdict), Why: v.Sentence(h.Why), WayOut: v.Sentence(h.WayOut)}
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
