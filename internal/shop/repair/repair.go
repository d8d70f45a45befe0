// Package repair finds the rows of a shop that can't be read, and lets an owner
// correct or remove them. Everything else of the shop goes on meanwhile: lists
// and plans leave such a row out.
package repair

import (
	"bytes"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"errors"
	"slices"

	"github.com/google/uuid"

	"corte/core/say"
	"corte/internal/refusal"
	"corte/internal/rowcheck"
	"corte/internal/shop/env"
	"corte/internal/store"
)

// A Station does this work in every shop on one database. It holds no state.
type Station struct{ *env.Env }

// At is the station over an environment: a database, or a transaction of one.
func At(k *env.Env) Station { return Station{k} }

// A Row is one that can't be read.
type Row struct {
	Table, ID string
	Name      string // where it has one that can be read
	Why       string
	JSON      json.RawMessage // the row as a shop file has it
	Digest    string          // of JSON

	Repairable, Removable bool
}

// mostLooked is how many rows of the log are looked at, the newest; everything
// that is older is checked as it is read.
const mostLooked = 100_000

// All lists the rows that can't be read, table by table, those of the log where
// they are wanted. Snapshots and lessons are left out: they are worked out anew
// from the log.
func (s Station) All(ctx context.Context, shop uuid.UUID, log bool) ([]Row, error) {
	out := []Row{}
	err := s.Store.Atomically(ctx, func(st *store.Store) error {
		tables, err := st.Tables(ctx)
		if err != nil {
			return err
		}
		for _, t := range tables {
			if slices.Contains([]string{"conditions", "corrections", "idempotency", "photos"}, t.Name) || t.Name == "log" && !log {
				continue
			}
			if err := st.Newest(ctx, t, shop, mostLooked, func(raw []byte) error {
				if why := rowcheck.Check(t.Name, raw); why != nil {
					out = append(out, row(t, bytes.Clone(raw), why))
				}
				return nil
			}); err != nil {
				return err
			}
		}
		return nil
	})
	return out, err
}

func row(t store.Table, raw json.RawMessage, why error) Row {
	var said map[string]any
	_ = json.Unmarshal(raw, &said)
	out := Row{Table: t.Name, ID: idOf(t, raw), Why: why.Error(), JSON: raw, Digest: digest(raw)}
	out.Repairable = t.Name != "log" && !slices.Contains(onlyAdded, t.Name)
	out.Removable = out.Repairable && !slices.Contains(onRecord, t.Name)
	out.Name, _ = said["name"].(string)
	return out
}

// idOf is what a row is told apart by; the one row of a shop's notes by the word
// notes.
func idOf(t store.Table, raw json.RawMessage) string {
	var said map[string]json.RawMessage
	_ = json.Unmarshal(raw, &said)
	id := string(bytes.Trim(said[t.Key], `"`))
	if id == "" {
		id = "notes"
	}
	return id
}

func digest(raw []byte) string {
	sum := sha256.Sum256(raw)
	return hex.EncodeToString(sum[:16])
}

// onlyAdded are the tables whose rows nobody changes, beside the log.
var onlyAdded = []string{"job_ticks", "practised", "sign_offs"}

// onRecord are those whose rows stay, since the log names them.
var onRecord = []string{"blades", "saws", "members"}

// change finds a row that can't be read under a lock and hands it to f, with the
// errors of somebody who was first.
func (s Station) change(ctx context.Context, shop uuid.UUID, table, id, over string, f func(tx *store.Store, t store.Table) error) error {
	if slices.Contains(onlyAdded, table) {
		return env.Already("", "records of this kind can't be changed. Nothing was changed. The record is left out of every page and does no harm")
	}
	return s.Store.Atomically(ctx, func(tx *store.Store) error {
		tables, err := tx.Tables(ctx)
		if err != nil {
			return err
		}
		i := slices.IndexFunc(tables, func(t store.Table) bool { return t.Name == table })
		if i < 0 {
			return refusal.NotThere(store.ErrNone, "", "table")
		}
		t := tables[i]
		raw, err := tx.HoldRow(ctx, t, shop, id)
		switch {
		case err != nil:
			return refusal.NotThere(err, "", "row")
		case digest(raw) != over:
			return refusal.Changed(store.ErrStale, "row")
		case rowcheck.Check(table, raw) == nil:
			return env.Already("", "this record can be read. Nothing was changed. Edit it on its own page")
		case table == "log":
			return env.Already("", "log entries can't be edited here. Nothing was changed. Delete the entry on the Log page")
		}
		err = f(tx, t)
		if store.IsReferenced(err) {
			return env.Already("", "other records refer to this one, so it can't be removed. Nothing was changed. Repair it instead")
		}
		return err
	})
}

// Repair writes a corrected row over one that can't be read, whose digest is
// over. It is checked as a row of a file is.
func (s Station) Repair(ctx context.Context, shop uuid.UUID, table, id, over string, with json.RawMessage) error {
	return s.change(ctx, shop, table, id, over, func(tx *store.Store, t store.Table) error {
		if err := rowcheck.Check(table, with); err != nil {
			return &refusal.Error{Reason: refusal.Invalid, Field: "row", What: say.Of("this record still can't be read: %s. Nothing was saved", say.Word(err.Error()))}
		}
		if idOf(t, with) != id {
			return refusal.Of("row", "other records refer to this record's %s, so it must stay as it is. Nothing was saved", say.Word(t.Key))
		}
		var odd *store.RowError
		if err := tx.WriteRow(ctx, t, shop, id, with); errors.As(err, &odd) {
			return refusal.Of("row", "the database rejects this record: %s. Nothing was saved", say.Word(odd.Why))
		} else if err != nil {
			return err
		}
		return tx.FoldShop(ctx, shop) // what a blade's log adds up to depends on its teeth
	})
}

// Remove deletes a row that can't be read, whose digest is over.
func (s Station) Remove(ctx context.Context, shop uuid.UUID, table, id, over string) error {
	if slices.Contains(onRecord, table) {
		return env.Already("", "blades, saws and people stay on record because the log refers to them. Nothing was changed. Repair the record instead")
	}
	return s.change(ctx, shop, table, id, over, func(tx *store.Store, t store.Table) error { return tx.DeleteRow(ctx, t, shop, id) })
}
