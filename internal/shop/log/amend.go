package log

import (
	"context"
	"encoding/json"

	"github.com/google/uuid"

	"corte/core/history"
	"corte/core/outcome"
	"corte/core/say"
	"corte/internal/refusal"
	"corte/internal/shop/env"
	"corte/internal/store"
)

// An Amendment says what is to stand in a row of the log instead of what
// stands there; what is nil stays. Only a cut has more than its name and note.
type Amendment struct {
	By, Note         *string
	Pieces           *int
	Wall             *outcome.Wall
	Splinters, Other *outcome.Face
	Effort           *outcome.Effort
}

func (a Amendment) ofCut() bool {
	return a.Pieces != nil || a.Wall != nil || a.Splinters != nil || a.Other != nil || a.Effort != nil
}

// Amend puts a row right: it is struck out, unless it is already, and a copy
// with what is to stand instead takes its place at its own time, so that what
// follows is folded as if it had always stood there. With nothing to change, a
// row that was struck out by mistake comes back.
func (s Station) Amend(ctx context.Context, shop uuid.UUID, id int64, a Amendment) (store.Entry, error) {
	var out store.Entry
	err := s.Store.Atomically(ctx, func(tx *store.Store) error {
		row, err := tx.Entry(ctx, shop, id)
		switch {
		case err != nil:
			return refusal.NotThere(err, "id", "log entry")
		case !strikable[row.Kind]:
			return refusal.Of("id", "this entry can't be corrected here. Undo what it records instead")
		case a.ofCut() && row.Kind != history.KindCut:
			return refusal.Of("id", "this entry isn't a cut. You can correct its name and note")
		case row.AmendedBy != nil:
			return &refusal.Error{Reason: refusal.Conflict, Field: "id", What: say.Of("this row has been put right already; look at the one in its place")}
		case row.StruckBy == nil && a == Amendment{}:
			return refusal.Of("id", "nothing to correct. Change something first")
		}
		if row.StruckBy == nil {
			struck := store.Entry{Shop: shop, At: s.Now(), Kind: history.KindStruck, Blade: row.Blade, Saw: row.Saw, Strikes: &id, By: env.By(ctx, "")}
			if _, err := tx.Append(ctx, struck); err != nil {
				return err
			}
		}
		right := store.Entry{Shop: shop, At: row.At, Kind: row.Kind, Blade: row.Blade, Saw: row.Saw, Amends: &id, By: row.By, Note: row.Note, Detail: row.Detail}
		put(&right.By, a.By)
		put(&right.Note, a.Note)
		var d history.Cut
		if row.Kind == history.KindCut {
			if err := json.Unmarshal(row.Detail, &d); err != nil {
				return err
			}
			if a.Pieces != nil && d.Metres > 0 {
				d.Metres *= float64(*a.Pieces) / float64(max(1, d.Pieces)) // counted in metres: each piece is as long as it was
			}
			put(&d.Pieces, a.Pieces)
			put(&d.Wall, a.Wall)
			put(&d.Splinters, a.Splinters)
			put(&d.OtherSplinters, a.Other)
			put(&d.Effort, a.Effort)
			if right.Detail, err = json.Marshal(d); err != nil {
				return err
			}
		}
		if out, err = tx.Append(ctx, right); err != nil || d.Foretold == nil {
			return err
		}
		return tx.Learn(ctx, shop, d.Material)
	})
	if store.IsDuplicate(err) { // somebody else was quicker
		return out, &refusal.Error{Reason: refusal.Conflict, Field: "id", What: say.Of("this row has been put right already; look at the one in its place")}
	}
	return out, err
}

func put[T any](to *T, v *T) {
	if v != nil {
		*to = *v
	}
}
