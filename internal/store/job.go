package store

import (
	"context"
	"encoding/json"
	"time"

	"github.com/google/uuid"
)

// A Job is a list of cuts, and the sheet that was laid over it.
type Job struct {
	ID      uuid.UUID       `db:"id"`
	Shop    uuid.UUID       `db:"shop_id"`
	Name    string          `db:"name"`
	List    json.RawMessage `db:"list"`
	Sheet   []byte          `db:"sheet"` // nil until it is planned
	Created time.Time       `db:"created_at"`
	Planned *time.Time      `db:"planned_at"`
	Ended   *time.Time      `db:"ended_at"`
	Version int             `db:"version"`
}

// A JobTick is pieces of a row made or spoilt. They are only added.
type JobTick struct {
	Shop    uuid.UUID `db:"shop_id"`
	Job     uuid.UUID `db:"job_id"`
	Row     uuid.UUID `db:"row_id"`
	Made    int       `db:"made"`
	Spoilt  int       `db:"spoilt"`
	Seconds float64   `db:"seconds"`
	By      string    `db:"by_name"`
	At      time.Time `db:"at"`
}

var (
	jobColumns  = columns{"name", "list", "sheet", "created_at", "planned_at", "ended_at"}
	tickColumns = columns{"row_id", "made", "spoilt", "seconds", "by_name", "at"}
)

// AddJob keeps a list.
func (s *Store) AddJob(ctx context.Context, j Job) error {
	_, err := s.db.NamedExecContext(ctx, jobColumns.insert("jobs"), j)
	return err
}

// Job finds one.
func (s *Store) Job(ctx context.Context, shop, id uuid.UUID) (Job, error) {
	var j Job
	err := s.db.GetContext(ctx, &j, `SELECT id, shop_id, version, `+jobColumns.of("j")+` FROM jobs j WHERE shop_id = $1 AND id = $2`, shop, id)
	return j, noneIfNoRows(err)
}

// Jobs lists at most limit jobs, those that are not over first, then the newest.
func (s *Store) Jobs(ctx context.Context, shop uuid.UUID, limit int) ([]Job, error) {
	all := []Job{}
	err := s.db.SelectContext(ctx, &all, `SELECT id, shop_id, version, `+jobColumns.of("j")+` FROM jobs j WHERE shop_id = $1
		ORDER BY ended_at IS NOT NULL, created_at DESC, id LIMIT $2`, shop, limit)
	return all, err
}

// ChangeJob writes a job over its version.
func (s *Store) ChangeJob(ctx context.Context, j Job) error {
	return s.change(ctx, "jobs", `UPDATE jobs SET name = :name, list = :list, sheet = :sheet, planned_at = :planned_at, version = version + 1
		WHERE id = :id AND shop_id = :shop_id AND version = :version`, j.Shop, j.ID, j)
}

// EndJob says when the last piece of a job was made; nil where one is to be made
// again. It is no change of what somebody may be editing.
func (s *Store) EndJob(ctx context.Context, shop, id uuid.UUID, at *time.Time) error {
	_, err := s.db.ExecContext(ctx, `UPDATE jobs SET ended_at = $3 WHERE shop_id = $1 AND id = $2`, shop, id, at)
	return err
}

// DropJob throws one away over its version, with its ticks.
func (s *Store) DropJob(ctx context.Context, shop, id uuid.UUID, version int) error {
	return s.end(ctx, "jobs", shop, id, version)
}

// HoldJob makes whoever else ticks a job off wait until this transaction is over,
// so that one of them sees the last piece made.
func (s *Store) HoldJob(ctx context.Context, shop, id uuid.UUID) error {
	var there bool
	return noneIfNoRows(s.db.GetContext(ctx, &there, `SELECT true FROM jobs WHERE shop_id = $1 AND id = $2 FOR UPDATE`, shop, id))
}

// TickJob adds a tick.
func (s *Store) TickJob(ctx context.Context, t JobTick) error {
	_, err := s.db.NamedExecContext(ctx, `INSERT INTO job_ticks (shop_id, job_id, row_id, made, spoilt, seconds, by_name, at)
		VALUES (:shop_id, :job_id, :row_id, :made, :spoilt, :seconds, :by_name, :at)`, t)
	return err
}

// JobTicks lists a job's ticks in the order in which they came.
func (s *Store) JobTicks(ctx context.Context, shop, job uuid.UUID) ([]JobTick, error) {
	all := []JobTick{}
	err := s.db.SelectContext(ctx, &all, `SELECT shop_id, job_id, `+tickColumns.of("t")+` FROM job_ticks t WHERE shop_id = $1 AND job_id = $2 ORDER BY id`, shop, job)
	return all, err
}
