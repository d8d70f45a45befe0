// Package trace runs fault findings: it starts them, takes answers, and records
// the cause.
package trace

import (
	"context"
	"encoding/json"
	"errors"
	"slices"
	"time"

	"github.com/google/uuid"

	"corte/core/history"
	"corte/core/measure"
	"corte/core/saw"
	"corte/core/say"
	"corte/core/trace"
	"corte/core/verdict"
	"corte/internal/record"
	"corte/internal/refusal"
	"corte/internal/shop/bench"
	shopchoose "corte/internal/shop/choose"
	"corte/internal/shop/env"
	"corte/internal/store"
)

// A Station does this work in every shop on one database. It holds no state.
type Station struct{ *env.Env }

// At is the station over an environment: a database, or a transaction of one.
func At(k *env.Env) Station { return Station{k} }

// Answers to a check.
const (
	Found    = "found"
	NotFound = "not"
	CouldNot = "could-not"
)

// A Trace is fault finding with what it comes to now.
type Trace struct {
	store.Trace
	SawName   string
	SawKind   saw.Kind
	BladeName string
	Facts     []trace.Fact
	Answers   map[string]string   // check to its answer, typed or from the log
	FromLog   map[string]say.Line // check to what the log said that answered it
	Pending   []string            // what is half done: washed, and not cut yet
	Reasons   []trace.Reason
	Next      []trace.Next
	Stop      bool
	Doubts    []say.Line
	Exhausted bool
	Piece     []string
	Before    []Earlier
}

// An Earlier trace of the same saw or blade that saw the same.
type Earlier struct {
	ID    uuid.UUID
	At    time.Time
	Signs []string
	Cause string // its label; empty if none was proved
	Fixed bool
}

// Start begins to trace a fault. What the shop knows of
// blade, saw, wood and cut is taken down as it stands.
func (s Station) Start(ctx context.Context, shop uuid.UUID, c record.Cut, raw json.RawMessage, blade *uuid.UUID, height measure.Length, present []string, by string) (Trace, error) {
	w, j, r, err := shopchoose.At(s.Store).Request(ctx, shop, c)
	if err != nil {
		return Trace{}, err
	}
	if err := checkSigns(present, nil); err != nil {
		return Trace{}, err
	}
	if blade == nil {
		blade = w.Mounted
	}
	var b *store.Blade
	if blade != nil {
		one, err := s.Store.Blade(ctx, shop, *blade)
		if err != nil {
			return Trace{}, refusal.NotThere(err, "blade_id", "blade")
		}
		b = &one
	}
	facts, err := s.facts(ctx, shop, w, r, b, height)
	if err != nil {
		return Trace{}, err
	}
	rawFacts, err := json.Marshal(facts)
	if err != nil {
		return Trace{}, err
	}
	now := s.Now()
	id, err := s.Add(ctx, func(tx *store.Store, id uuid.UUID) error {
		return tx.AddTrace(ctx, store.Trace{ID: id, Shop: shop, Saw: w.ID, Blade: blade, Cut: raw, Finish: j.Finish.String(), Groove: j.NotThrough(),
			Facts: rawFacts, Present: orEmpty(present), Absent: []string{}, Answers: json.RawMessage(`{}`), By: by, Started: now})
	})
	if err != nil {
		return Trace{}, err
	}
	return s.Get(ctx, shop, id)
}

func orEmpty(s []string) []string {
	if s == nil {
		return []string{}
	}
	return s
}

func checkSigns(present, absent []string) error {
	for _, s := range slices.Concat(present, absent) {
		if _, known := trace.SignByID(s); !known {
			return refusal.Of("present", "there is no sign %q", s)
		}
	}
	return nil
}

// facts are what the shop knows that moves the odds of causes.
func (s Station) facts(ctx context.Context, shop uuid.UUID, w store.Saw, r shopchoose.Request, b *store.Blade, height measure.Length) ([]trace.Fact, error) {
	k := trace.Known{
		Now: s.Now(), Day: func(t time.Time) say.Day { return record.Day(t, w.Zone) },
		Saw: w.Saw, Heel: w.Heel, HeelAt: w.HeelAt, FenceOpen: w.FenceOpen, FenceAt: w.FenceAt, Request: r.Request, Height: height,
	}
	all, err := s.Store.Stands(ctx, shop)
	if err != nil {
		return nil, err
	}
	for _, e := range all {
		switch {
		case *e.Saw != w.ID:
		case e.Kind == history.KindMoved:
			k.Moved = &e.At
		case e.Kind == history.KindRunOut:
			var d history.Truing
			if err := json.Unmarshal(e.Detail, &d); err != nil {
				return nil, err
			}
			k.RunOut = &trace.Measured{Figure: measure.Length(d.Figure), At: e.At}
		}
	}
	if b == nil {
		return k.Facts(), nil
	}
	wobbles, err := s.Store.Wobbles(ctx, shop, w.ID)
	if err != nil {
		return nil, err
	}
	if x := wobbles[b.ID]; x.Spread > 0 {
		k.Spread = &trace.Measured{Figure: measure.Length(x.Spread), At: x.SpreadAt}
	}
	k.Blade, k.BladeName, k.Condition, k.Candidate = &b.Blade, b.Name, b.Condition, r.Candidate(*b, w)
	return k.Facts(), nil
}

// Get finds one and works out what it comes to.
func (s Station) Get(ctx context.Context, shop, id uuid.UUID) (Trace, error) {
	row, err := s.Store.Trace(ctx, shop, id)
	if err != nil {
		return Trace{}, refusal.NotThere(err, "id", "trace")
	}
	t := Trace{Trace: row, Answers: map[string]string{}, FromLog: map[string]say.Line{}, Pending: []string{}}
	w, err := s.Store.Saw(ctx, shop, row.Saw)
	if err != nil {
		return t, err
	}
	t.SawName, t.SawKind = w.Name, w.Kind
	if row.Blade != nil {
		b, err := s.Store.Blade(ctx, shop, *row.Blade)
		if err != nil {
			return t, err
		}
		t.BladeName = b.Name
	}
	if err := errors.Join(json.Unmarshal(row.Facts, &t.Facts), json.Unmarshal(row.Answers, &t.Answers)); err != nil {
		return t, record.Damaged("traces", row.ID, err)
	}
	if err := s.fromLog(ctx, &t); err != nil {
		return t, err
	}
	e := trace.Evidence{Present: row.Present, Absent: row.Absent, Checks: map[string]bool{}, State: map[string]float64{}, Saw: w.Kind.String(), Groove: row.Groove}
	for _, f := range t.Facts {
		e.State[f.Fact] = f.Value
	}
	var skip []string
	for k, a := range t.Answers {
		if a == CouldNot {
			skip = append(skip, k)
		} else {
			e.Checks[k] = a == Found
		}
	}
	b := trace.Weigh(e)
	t.Reasons, t.Next, t.Stop, t.Doubts, t.Exhausted = b.Reasons(), b.Checks(skip), b.Stop(), b.Doubts(), b.Exhausted(skip)
	t.Piece = trace.Piece(row.Present, row.Finish)
	t.Before, err = s.earlier(ctx, row)
	return t, err
}

// fromLog takes the answers of checks from what was measured, washed or looked
// over since the trace began. What somebody typed comes first.
func (s Station) fromLog(ctx context.Context, t *Trace) error {
	end := time.Time{}
	if t.Ended != nil {
		end = *t.Ended
	}
	rows, err := s.Store.Log(ctx, t.Shop, store.Filter{From: t.Started, To: end, Standing: true}, store.Mark{}, sinceStart)
	if err != nil {
		return err
	}
	for _, k := range trace.Tests() {
		if _, typed := t.Answers[k.ID]; typed || k.Record == "" {
			continue
		}
		for _, e := range rows { // newest first
			mine := e.Saw != nil && *e.Saw == t.Saw || e.Blade != nil && t.Blade != nil && *e.Blade == *t.Blade
			if !mine || string(e.Kind) != k.Record {
				continue
			}
			if e.Kind == history.KindWashed {
				if back, ok := cameBack(rows, e, t.Blade); ok {
					t.Answers[k.ID], t.FromLog[k.ID] = foundOrNot(back), say.Of("answer with the next cut")
				} else {
					t.Pending = append(t.Pending, k.ID)
				}
				break
			}
			found := false
			if e.Kind == history.KindInspected {
				var d history.Inspected
				_ = json.Unmarshal(e.Detail, &d)
				found = d.Fault != ""
			} else {
				found = bench.TruingVerdict(e) != verdict.Clear
			}
			t.Answers[k.ID], t.FromLog[k.ID] = foundOrNot(found), say.Of("measured at %s on %s", e.At.In(record.Zone(e.Zone)).Format("15:04"), record.Day(e.At, e.Zone))
			break
		}
	}
	return nil
}

// sinceStart is how many rows of the log are looked through for answers.
const sinceStart = 200

func foundOrNot(found bool) string {
	if found {
		return Found
	}
	return NotFound
}

// cameBack finds the first answer of a cut after a wash.
func cameBack(rows []store.Entry, wash store.Entry, blade *uuid.UUID) (back, ok bool) {
	for _, e := range slices.Backward(rows) {
		if e.Kind != history.KindCut || blade == nil || e.Blade == nil || *e.Blade != *blade || e.At.Before(wash.At) {
			continue
		}
		var d history.Cut
		if json.Unmarshal(e.Detail, &d) == nil && d.CameBack != nil {
			return *d.CameBack, true
		}
	}
	return false, false
}

const earlierShown = 5

func (s Station) earlier(ctx context.Context, row store.Trace) ([]Earlier, error) {
	all, err := s.Store.Traces(ctx, row.Shop, &row.Saw, row.Blade, 100)
	if err != nil {
		return nil, err
	}
	out := []Earlier{}
	for _, o := range all {
		if o.ID == row.ID || o.Ended == nil || len(out) == earlierShown {
			continue
		}
		e := Earlier{ID: o.ID, At: *o.Ended, Fixed: o.Fixed}
		for _, sign := range o.Present {
			if slices.Contains(row.Present, sign) {
				if known, ok := trace.SignByID(sign); ok {
					e.Signs = append(e.Signs, known.Label)
				}
			}
		}
		if c, ok := trace.CauseByID(o.Cause); ok {
			e.Cause = c.Label
		}
		if len(e.Signs) > 0 {
			out = append(out, e)
		}
	}
	return out, nil
}

// Recent lists the newest ones, of a saw or a blade where one is named.
func (s Station) Recent(ctx context.Context, shop uuid.UUID, saw, blade *uuid.UUID, limit int) ([]store.Trace, error) {
	return s.Store.Traces(ctx, shop, saw, blade, limit)
}

// SetEvidence writes what is seen and what checks came to over the version that
// it was looked at.
func (s Station) SetEvidence(ctx context.Context, shop, id uuid.UUID, version int, present, absent []string, answers map[string]string) (Trace, error) {
	row, err := s.Store.Trace(ctx, shop, id)
	switch {
	case err != nil:
		return Trace{}, refusal.NotThere(err, "id", "trace")
	case row.Ended != nil:
		return Trace{}, refusal.Of("id", "this diagnosis has ended. Start another")
	}
	if err := checkSigns(present, absent); err != nil {
		return Trace{}, err
	}
	for k, a := range answers {
		if _, known := trace.CheckByID(k); !known {
			return Trace{}, refusal.Of("answers", "there is no check %q", k)
		}
		if a != Found && a != NotFound && a != CouldNot {
			return Trace{}, refusal.Of("answers", "answer found, not or could-not")
		}
	}
	row.Present, row.Absent, row.Version = orEmpty(present), orEmpty(absent), version
	if row.Answers, err = json.Marshal(answers); err != nil {
		return Trace{}, err
	}
	if err := s.Store.ChangeTrace(ctx, row); err != nil {
		return Trace{}, refusal.Changed(refusal.NotThere(err, "id", "trace"), "trace")
	}
	return s.Get(ctx, shop, id)
}

// End closes a trace: with the cause that a good test cut proved, or
// without. What was learnt goes into the log.
func (s Station) End(ctx context.Context, shop, id uuid.UUID, version int, cause string, fixed bool, note string) (Trace, error) {
	t, err := s.Get(ctx, shop, id)
	switch {
	case err != nil:
		return t, err
	case t.Ended != nil:
		return t, nil
	}
	known, ok := trace.CauseByID(cause)
	if cause != "" && !ok {
		return t, refusal.Of("cause", "there is no such cause")
	}
	if fixed && cause == "" {
		return t, refusal.Of("cause", "enter what you fixed")
	}
	now := s.Now()
	row := t.Trace
	row.Ended, row.Cause, row.Fixed, row.Note, row.Version = &now, cause, fixed, note, version
	if row.Answers, err = json.Marshal(t.Answers); err != nil {
		return t, err
	}
	raw, err := json.Marshal(history.Traced{Trace: id, Cause: cause, Fixed: fixed})
	if err != nil {
		return t, err
	}
	err = s.Store.Atomically(ctx, func(tx *store.Store) error {
		if err := tx.ChangeTrace(ctx, row); err != nil {
			return refusal.Changed(refusal.NotThere(err, "id", "trace"), "trace")
		}
		if known.ID == "edge-dull" && fixed && row.Blade != nil {
			says, _ := json.Marshal(history.Judged{Says: "dull"})
			if _, err := tx.Append(ctx, store.Entry{Shop: shop, At: now, Kind: history.KindJudged, Blade: row.Blade, By: env.By(ctx, row.By), Note: "proved by a diagnosis", Detail: says}); err != nil {
				return err
			}
		}
		_, err := tx.Append(ctx, store.Entry{Shop: shop, At: now, Kind: history.KindTraced, Blade: row.Blade, Saw: &row.Saw, By: env.By(ctx, row.By), Note: note, Detail: raw})
		return err
	})
	if err != nil {
		return t, err
	}
	return s.Get(ctx, shop, id)
}

// Drop gives a trace up that has not ended.
func (s Station) Drop(ctx context.Context, shop, id uuid.UUID) error {
	return refusal.NotThere(s.Store.DropTrace(ctx, shop, id), "id", "diagnosis in progress")
}
