package demo

import (
	"context"
	"fmt"
	"time"

	"github.com/google/uuid"

	corejob "corte/core/job"
	"corte/core/measure"
	"corte/internal/shop"
	"corte/internal/shop/job"
	"corte/internal/store"
)

// balcony is a set that the shop is in the middle of building, as its list was
// typed.
const balcony = `Platforms:
12 rails, 38 × 140 yellow pine, 2,450 long, rip, rough, moves
24 battens, 38 × 64 white pine, 2,400 long, rip, hidden
24 battens to length, 38 × 64 white pine, 1,180 long, crosscut
6 lids, 18 × 600 softwood ply, 1,200 long, show
Balustrade:
8 posts, 44 × 44 hard maple, 900 long, rip, show
16 rail ends, 22 × 90 cherry, 740 long, crosscut, fine, mitred ends 45
30 balusters, 22 × 22 red oak, 820 long, rip, show
4 shelves, 18 × 300 birch ply, 900 long, fine
6 housings for shelves, 22 × 300 birch ply, 300 long, groove 7 deep
2 signs, 6 × 400 acrylic, 600 long, sheet, fine
`

// startJob keeps the set as a job half done.
func startJob(ctx context.Context, st *store.Store, now time.Time) error {
	svc := shop.New(st, func() time.Time { return now })
	var rows []job.Row
	for i, l := range corejob.Read(balcony, measure.Millimetre, nil) {
		if len(l.Faults) > 0 {
			return fmt.Errorf("line %d of the demo job: %s", l.Number, l.Faults[0].What)
		}
		rows = append(rows, job.Row{ID: id(fmt.Sprintf("row %d", i)), Row: l.Row})
	}
	j, err := svc.Job.Add(ctx, shopRow.ID, "Balcony set, third act", rows, job.Knobs{People: 1})
	if err != nil {
		return err
	}
	if j, err = svc.Job.Plan(ctx, shopRow.ID, j.ID, j.Version, j.Knobs); err != nil {
		return err
	}
	for i, t := range []job.Tick{{Made: 12, Spoilt: 1, Seconds: 64, By: "Ilse"}, {Made: 24, Seconds: 52, By: "Ilse"}, {Made: 15, Seconds: 31, By: "Bram"}} {
		t.Row = []uuid.UUID{rows[0].ID, rows[1].ID, rows[2].ID}[i]
		if _, err := svc.Job.TickOff(ctx, shopRow.ID, j.ID, t); err != nil {
			return err
		}
	}
	return nil
}
