// Package log reads, strikes out, writes and takes in the shop's log.
package log

import (
	"context"
	"encoding/json"

	"github.com/google/uuid"

	"corte/core/history"
	"corte/core/say"
	"corte/internal/refusal"
	"corte/internal/shop/env"
	"corte/internal/store"
)

// A Station does this work in every shop on one database. It holds no state.
type Station struct{ *env.Env }

// At is the station over an environment: a database, or a transaction of one.
func At(k *env.Env) Station { return Station{k} }

// Rows lists one page of the log, newest first, and the mark before which the
// next page begins, if there is one.
func (s Station) Rows(ctx context.Context, shop uuid.UUID, f store.Filter, before store.Mark, limit int) ([]store.Entry, *store.Mark, error) {
	f, err := s.days(ctx, shop, f)
	if err != nil {
		return nil, nil, err
	}
	page, err := s.Store.Log(ctx, shop, f, before, limit+1)
	if err != nil || len(page) <= limit {
		return page, nil, err
	}
	last := page[limit-1]
	return page[:limit], &store.Mark{At: last.At, ID: last.ID}, nil
}

// strikable are the rows that may be struck out. What took a thing out of use
// is taken back by putting it into use again.
var strikable = map[history.Kind]bool{
	history.KindCut: true, history.KindWashed: true, history.KindSharpened: true, history.KindReturned: true, history.KindSent: true,
	history.KindJudged: true, history.KindInspected: true, history.KindMended: true, history.KindNoted: true, history.KindMounted: true, history.KindDismounted: true,
	history.KindMoved: true, history.KindHeel: true, history.KindFence: true, history.KindRunOut: true, history.KindTilt: true,
	history.KindGauge: true, history.KindClearance: true, history.KindGrooved: true, history.KindRenewed: true,
}

// Strike notes that a row of the log was a mistake. It stays, struck through,
// and counts no more.
func (s Station) Strike(ctx context.Context, shop uuid.UUID, id int64, note string) (store.Entry, error) {
	row, err := s.Store.Entry(ctx, shop, id)
	switch {
	case err != nil:
		return row, refusal.NotThere(err, "id", "log entry")
	case !strikable[row.Kind]:
		return row, refusal.Of("id", "this entry can't be deleted. Undo what it records instead")
	}
	e := store.Entry{Shop: shop, At: s.Now(), Kind: history.KindStruck, Blade: row.Blade, Saw: row.Saw, Strikes: &id, By: env.By(ctx, ""), Note: note}
	var d history.Cut
	_ = json.Unmarshal(row.Detail, &d)
	out, err := s.Store.Append(ctx, e, func(tx *store.Store, e store.Entry) error {
		if row.Kind != history.KindCut || d.Foretold == nil {
			return nil
		}
		return tx.Learn(ctx, shop, d.Material)
	})
	if store.IsDuplicate(err) {
		return row, &refusal.Error{Reason: refusal.Conflict, Field: "id", What: say.Of("this entry is already deleted")}
	}
	return out, err
}
