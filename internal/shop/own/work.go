package own

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"time"

	"github.com/google/uuid"

	"corte/core/choose"
	"corte/core/cut"
	"corte/core/history"
	"corte/core/saw"
	"corte/internal/record"
	"corte/internal/shop/job"
	"corte/internal/store"
)

// logged is the work of the last year by the log, oldest first, on saws that are
// still in use.
func (s Station) logged(ctx context.Context, shop uuid.UUID, shelf record.Shelf) ([]piece, *time.Time, error) {
	rows, err := s.Store.Log(ctx, shop, store.Filter{Kinds: []history.Kind{history.KindCut}, From: s.Now().Add(-year), Standing: true}, store.Mark{}, mostRows)
	if err != nil {
		return nil, nil, err
	}
	slices.Reverse(rows)
	var out []piece
	var first *time.Time
	for _, e := range rows {
		if e.Saw == nil || !slices.ContainsFunc(shelf.Saws, func(w record.Saw) bool { return w.ID == *e.Saw && w.Retired == nil }) {
			continue
		}
		var d history.Cut
		if err := json.Unmarshal(e.Detail, &d); err != nil {
			return nil, nil, fmt.Errorf("log row %d: %w", e.ID, err)
		}
		c, err := cutOf(d, *e.Saw)
		if err != nil {
			continue // of a material or a word that this version no longer has
		}
		if first == nil {
			first = &e.At
		}
		out = append(out, piece{kindOf(c), c, max(1, d.Pieces), d.CutLength().Mm() / 1000})
	}
	return out, first, nil
}

func cutOf(d history.Cut, saw uuid.UUID) (c record.Cut, err error) {
	c = record.Cut{SawID: saw, Cut: cut.Cut{Part: cut.Part{Material: d.Material, Thickness: d.Thickness, Width: d.Width, Length: d.Length,
		Depth: d.Depth, BevelDeg: d.Bevel, MiterDeg: d.Miter, Pieces: 1, Moves: d.Moves}}}
	var errs [4]error
	c.Direction, errs[0] = cut.ParseDirection(d.Direction)
	c.Finish, errs[1] = cut.ParseFinish(d.Finish)
	if d.Form != "" {
		c.Form, errs[2] = cut.ParseForm(d.Form)
	}
	c.Moisture, errs[3] = cut.ParseMoisture(d.Moisture)
	return c, errors.Join(errs[:]...)
}

// planned is a list that is to be cut: each row on the first saw that takes it,
// tables before the others.
func planned(shelf record.Shelf, rows []job.Row) []piece {
	saws := slices.Clone(shelf.Saws)
	slices.SortStableFunc(saws, func(a, b record.Saw) int { return int(a.Kind) - int(b.Kind) })
	order := slices.Clone(rows)
	slices.SortStableFunc(order, func(a, b job.Row) int { return int(a.In()) - int(b.In()) })
	var out []piece
	for _, r := range order {
		for _, w := range saws {
			if w.Retired != nil || r.Saw != nil && *r.Saw != w.ID {
				continue
			}
			c := job.CutOf(r, w.ID)
			c.Pieces = 1
			j, err := c.Job(w)
			if err != nil || choose.CheckJob(j, w.Saw) != nil || r.Saw == nil && w.Kind == saw.Table && r.Direction == cut.Crosscut && r.Form == cut.Through && hasMiter(saws, r) {
				continue
			}
			out = append(out, piece{kindOf(c), c, r.Pieces, float64(r.Pieces) * j.CutLength().Mm() / 1000})
			break
		}
	}
	return out
}

// hasMiter reports whether a miter saw takes a crosscut, which a shop that has
// one makes there.
func hasMiter(saws []record.Saw, r job.Row) bool {
	return slices.ContainsFunc(saws, func(w record.Saw) bool {
		if w.Kind != saw.Miter || w.Retired != nil {
			return false
		}
		j, err := job.CutOf(r, w.ID).Job(w)
		return err == nil && choose.CheckJob(j, w.Saw) == nil
	})
}
