// Package job keeps a shop's jobs: lists of cuts, the run sheet that was laid
// over them, and what was ticked off. Rows are changed over a version; ticks
// only add up, so that two people at two saws lose nothing.
package job

import (
	"context"
	"encoding/json"
	"fmt"
	"slices"
	"time"

	"github.com/google/uuid"

	"corte/core/job"
	"corte/internal/record"
	"corte/internal/refusal"
	"corte/internal/shop/env"
	"corte/internal/store"
)

// A Station does this work in every shop on one database. It holds no state.
type Station struct{ *env.Env }

// At is the station over an environment: a database, or a transaction of one.
func At(k *env.Env) Station { return Station{k} }

// A Row is a row of a list, and the saw and blade that it is tied to.
type Row struct {
	ID uuid.UUID `json:"id"`
	job.Row
	Saw   *uuid.UUID `json:"saw_id,omitempty"`   // that it must be cut on
	Blade *uuid.UUID `json:"blade_id,omitempty"` // that it must be cut with
}

// Knobs are the options of a run sheet.
type Knobs struct {
	ChangeMin *float64    `json:"change_min,omitempty"` // nil for what the shop counts a change for
	People    int         `json:"people"`               // at the saws, 1 or 2
	Without   []uuid.UUID `json:"without,omitempty"`    // saws that are not used
	Only      []uuid.UUID `json:"only,omitempty"`       // blades; none for all
	Pace      bool        `json:"pace,omitempty"`       // at the shop's own pace, not as the model foretells
}

// A Job is a list of cuts and how far it is.
type Job struct {
	ID      uuid.UUID
	Shop    uuid.UUID
	Version int
	Name    string
	Rows    []Row
	Knobs   Knobs
	Sheet   *Sheet // nil until it is planned
	Moved   bool   // the rows have changed since
	Planned *time.Time
	Created time.Time
	Ended   *time.Time
	Done    map[uuid.UUID]job.Progress
	Took    map[uuid.UUID]float64 // minutes that the pieces ticked so far took, where somebody counted
	Timed   map[uuid.UUID]int     // how many those were
}

// Left is how many pieces are still to be made.
func (j Job) Left() (n int) {
	for _, r := range j.Rows {
		n += j.Done[r.ID].Left
	}
	return n
}

// Foretold is what was foretold of the pieces of a row that were timed; 0 where
// it was never planned.
func (j Job) Foretold(row uuid.UUID) float64 {
	if j.Sheet == nil {
		return 0
	}
	return float64(j.Timed[row]) * j.Sheet.Foretold[row]
}

// LeftMin is what the sheet foretold for the pieces that are still to be made,
// without changes.
func (j Job) LeftMin() (sum float64) {
	left := map[uuid.UUID]int{}
	for row, p := range j.Done {
		left[row] = p.Left
	}
	for _, t := range slices.Backward(j.Sheet.Turns) { // what is made was made from the front
		for _, c := range t.Cuts {
			n := min(c.Pieces, left[c.Row])
			left[c.Row] -= n
			sum += c.Minutes * float64(n) / float64(max(1, c.Pieces))
		}
	}
	return sum
}

// MostRows is the longest list that is kept.
const MostRows = 500

// Add keeps a new list.
func (s Station) Add(ctx context.Context, shop uuid.UUID, name string, rows []Row, k Knobs) (Job, error) {
	list, err := write(rows, k)
	if err != nil {
		return Job{}, err
	}
	id, err := s.Env.Add(ctx, func(tx *store.Store, id uuid.UUID) error {
		return tx.AddJob(ctx, store.Job{ID: id, Shop: shop, Name: name, List: list, Created: s.Now()})
	})
	if err != nil {
		return Job{}, err
	}
	return s.Job(ctx, shop, id)
}

// Change updates name, rows and knobs from a version. The run sheet stays as it is
// until the job is planned again.
func (s Station) Change(ctx context.Context, shop, id uuid.UUID, version int, name string, rows []Row, k Knobs) (Job, error) {
	row, err := s.Store.Job(ctx, shop, id)
	if err != nil {
		return Job{}, refusal.NotThere(err, "id", "job")
	}
	if row.List, err = write(rows, k); err != nil {
		return Job{}, err
	}
	row.Name, row.Version = name, version
	return s.changed(ctx, row)
}

func (s Station) changed(ctx context.Context, row store.Job) (Job, error) {
	if err := s.Store.ChangeJob(ctx, row); err != nil {
		return Job{}, refusal.Changed(refusal.NotThere(err, "id", "job"), "job")
	}
	j, err := s.Job(ctx, row.Shop, row.ID)
	if err != nil {
		return j, err
	}
	return s.settled(ctx, j)
}

// Drop throws a job away, with its ticks. What was logged stays in the log.
func (s Station) Drop(ctx context.Context, shop, id uuid.UUID, version int) error {
	return refusal.Changed(refusal.NotThere(s.Store.DropJob(ctx, shop, id, version), "id", "job"), "job")
}

// Plan makes a run sheet for what is left of a job, from the blades that are on the
// saws now, and stores it from a version of the job.
func (s Station) Plan(ctx context.Context, shop, id uuid.UUID, version int, k Knobs) (Job, error) {
	j, row, err := s.load(ctx, shop, id)
	if err != nil {
		return Job{}, err
	}
	sheet, err := s.layOut(ctx, shop, j, k)
	if err != nil {
		return Job{}, err
	}
	if sheet.Over, err = digest(j.Rows); err != nil {
		return Job{}, err
	}
	now := s.Now()
	row.Version, row.Planned = version, &now
	if row.List, err = write(j.Rows, k); err != nil {
		return Job{}, err
	}
	if row.Sheet, err = json.Marshal(sheet); err != nil {
		return Job{}, err
	}
	return s.changed(ctx, row)
}

// Try makes a run sheet with other knobs and stores nothing.
func (s Station) Try(ctx context.Context, shop, id uuid.UUID, k Knobs) (Job, Sheet, error) {
	j, _, err := s.load(ctx, shop, id)
	if err != nil {
		return j, Sheet{}, err
	}
	sheet, err := s.layOut(ctx, shop, j, k)
	return j, sheet, err
}

// A Tick is pieces of a row made or spoilt, as somebody says it.
type Tick struct {
	Row     uuid.UUID
	Made    int // below 0 takes back a slip
	Spoilt  int
	Seconds float64 // that a piece took with all that belongs to it; 0 if nobody counted
	By      string
	Sent    env.Sent
}

// TickOff adds a tick. It needs no version: ticks add up in any order.
func (s Station) TickOff(ctx context.Context, shop, id uuid.UUID, t Tick) (Job, error) {
	if err := s.Store.HoldJob(ctx, shop, id); err != nil {
		return Job{}, refusal.NotThere(err, "id", "job")
	}
	j, err := s.Job(ctx, shop, id)
	if err != nil {
		return Job{}, err
	}
	known := false
	for _, r := range j.Rows {
		known = known || r.ID == t.Row
	}
	switch p := j.Done[t.Row]; {
	case !known:
		return Job{}, refusal.Of("row_id", "this row is no longer in the list. Nothing was ticked")
	case p.Made+t.Made < 0 || p.Spoilt+t.Spoilt < 0:
		return Job{}, refusal.Of("made", "you can't undo more than the %d that were ticked", p.Made)
	}
	if err := s.Store.TickJob(ctx, store.JobTick{Shop: shop, Job: id, Row: t.Row, Made: t.Made, Spoilt: t.Spoilt, Seconds: t.Seconds, By: t.By, At: t.Sent.At(s.Now())}); err != nil {
		return Job{}, err
	}
	if j, err = s.Job(ctx, shop, id); err != nil {
		return Job{}, err
	}
	return s.settled(ctx, j)
}

// settled sets whether a job is over, from its rows and ticks.
func (s Station) settled(ctx context.Context, j Job) (Job, error) {
	over := len(j.Rows) > 0 && j.Left() == 0
	if over == (j.Ended != nil) {
		return j, nil
	}
	j.Ended = nil
	if over {
		now := s.Now()
		j.Ended = &now
	}
	return j, s.Store.EndJob(ctx, j.Shop, j.ID, j.Ended)
}

// Job finds one.
func (s Station) Job(ctx context.Context, shop, id uuid.UUID) (Job, error) {
	j, _, err := s.load(ctx, shop, id)
	return j, err
}

func (s Station) load(ctx context.Context, shop, id uuid.UUID) (Job, store.Job, error) {
	row, err := s.Store.Job(ctx, shop, id)
	if err != nil {
		return Job{}, row, refusal.NotThere(err, "id", "job")
	}
	ticks, err := s.Store.JobTicks(ctx, shop, id)
	if err != nil {
		return Job{}, row, err
	}
	j, err := jobOf(row, ticks)
	return j, row, err
}

// Jobs lists the newest jobs.
func (s Station) Jobs(ctx context.Context, shop uuid.UUID, limit int) ([]Job, error) {
	rows, err := s.Store.Jobs(ctx, shop, limit)
	if err != nil {
		return nil, err
	}
	return record.Readable(rows, func(r store.Job) (Job, error) {
		ticks, err := s.Store.JobTicks(ctx, shop, r.ID)
		if err != nil {
			return Job{}, err
		}
		return jobOf(r, ticks)
	})
}

// Readable reports what of a row cannot be read, or is of no real cut.
func Readable(row store.Job) error {
	j, err := jobOf(row, nil)
	for i, r := range j.Rows {
		if faults := r.Check(); err == nil && len(faults) > 0 {
			err = fmt.Errorf("row %d: %s", i+1, faults[0].What)
		}
	}
	return err
}

func jobOf(row store.Job, ticks []store.JobTick) (Job, error) {
	j := Job{ID: row.ID, Shop: row.Shop, Version: row.Version, Name: row.Name, Planned: row.Planned, Created: row.Created, Ended: row.Ended,
		Done: map[uuid.UUID]job.Progress{}, Took: map[uuid.UUID]float64{}, Timed: map[uuid.UUID]int{}}
	var err error
	if j.Rows, j.Knobs, err = readList(row.List); err != nil {
		return j, record.Damaged("jobs", row.ID, err)
	}
	if row.Sheet != nil {
		j.Sheet = &Sheet{}
		if err := json.Unmarshal(row.Sheet, j.Sheet); err != nil {
			return j, record.Damaged("jobs", row.ID, fmt.Errorf("its sheet: %w", err))
		}
		now, err := digest(j.Rows)
		if err != nil {
			return j, err
		}
		j.Moved = now != j.Sheet.Over
	}
	all := map[uuid.UUID][]job.Tick{}
	for _, t := range ticks {
		all[t.Row] = append(all[t.Row], job.Tick{Made: t.Made, Spoilt: t.Spoilt})
		if t.Seconds > 0 {
			j.Took[t.Row] += float64(t.Made) * t.Seconds / 60
			j.Timed[t.Row] += t.Made
		}
	}
	for _, r := range j.Rows {
		j.Done[r.ID] = r.After(all[r.ID])
	}
	return j, nil
}
