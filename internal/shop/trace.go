package shop

import (
	"cmp"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"time"

	"github.com/google/uuid"

	"corte/core/care"
	"corte/core/choose"
	"corte/core/cut"
	"corte/core/measure"
	"corte/core/saw"
	"corte/core/trace"
	"corte/core/verdict"
	"corte/internal/store"
)

// A Fact is something that the shop knew when a trace began.
type Fact struct {
	Fact  string  `json:"fact"`
	Value float64 `json:"value"`
	Says  string  `json:"says"`
}

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
	Facts     []Fact
	Answers   map[string]string // check to its answer, typed or from the log
	FromLog   map[string]string // check to what the log said that answered it
	Pending   []string          // what is half done: washed, and not cut yet
	Reasons   []trace.Reason
	Next      []trace.Next
	Stop      bool
	Doubts    []string
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

// StartTrace begins to trace a fault. What the shop knows of
// blade, saw, wood and cut is taken down as it stands.
func (s *Service) StartTrace(ctx context.Context, shop uuid.UUID, c Cut, raw json.RawMessage, blade *uuid.UUID, height measure.Length, present []string, by string, u measure.Unit) (Trace, error) {
	w, j, r, err := s.request(ctx, shop, c, u)
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
		one, err := s.st.Blade(ctx, shop, *blade)
		if err != nil {
			return Trace{}, missing(err, "blade_id", "blade")
		}
		b = &one
	}
	facts, err := s.facts(ctx, shop, w, j, r, b, height, u)
	if err != nil {
		return Trace{}, err
	}
	rawFacts, err := json.Marshal(facts)
	if err != nil {
		return Trace{}, err
	}
	now := s.now()
	id, err := s.add(ctx, func(tx *store.Store, id uuid.UUID) error {
		return tx.AddTrace(ctx, store.Trace{ID: id, Shop: shop, Saw: w.ID, Blade: blade, Cut: raw, Finish: j.Finish.String(), Groove: j.NotThrough(),
			Facts: rawFacts, Present: orEmpty(present), Absent: []string{}, Answers: json.RawMessage(`{}`), By: by, Started: now})
	})
	if err != nil {
		return Trace{}, err
	}
	return s.Trace(ctx, shop, id)
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
			return invalid("present", "there is no sign %q", s)
		}
	}
	return nil
}

// facts are what the shop knows that moves the odds of causes.
func (s *Service) facts(ctx context.Context, shop uuid.UUID, w store.Saw, j cut.Job, r request, b *store.Blade, height measure.Length, u measure.Unit) ([]Fact, error) {
	out := []Fact{}
	add := func(fact string, v float64, says string, args ...any) {
		out = append(out, Fact{fact, v, fmt.Sprintf(says, args...)})
	}
	day := func(t time.Time) string { return t.Format("2 January") }
	if w.HeelAt != nil {
		side := "toward the fence"
		if w.Heel < 0 {
			side = "from the fence"
		}
		add("heel_mm", max(0, w.Heel.Mm()), "heel %s %s on %s", max(w.Heel, -w.Heel).Thin(u), side, day(*w.HeelAt))
		add("heel_away_mm", max(0, -w.Heel.Mm()), "")
		add("truing_age_days", s.now().Sub(*w.HeelAt).Hours()/24, "")
	}
	if w.FenceAt != nil {
		word := "open"
		if w.FenceOpen < 0 {
			word = "closing"
		}
		add("fence_open_mm", max(0, w.FenceOpen.Mm()), "fence %s %s at the rear on %s", max(w.FenceOpen, -w.FenceOpen).Thin(u), word, day(*w.FenceAt))
		add("fence_closing_mm", max(0, -w.FenceOpen.Mm()), "")
	}
	all, err := s.st.Stands(ctx, shop)
	if err != nil {
		return nil, err
	}
	for _, e := range all {
		if *e.Saw != w.ID {
			continue
		}
		var d store.TruingDetail
		_ = json.Unmarshal(e.Detail, &d)
		switch e.Kind {
		case store.KindMoved:
			if w.HeelAt == nil || e.At.After(*w.HeelAt) {
				add("moved_since_truing", 1, "moved or bumped on %s, and not measured since", day(e.At))
			}
		case store.KindRunOut:
			add("runout_mm", d.Figure, "run-out %s on %s", measure.Length(d.Figure).Thin(u), day(e.At))
		}
	}
	if j.Material.Kind.Modelled() {
		says := ""
		if j.Material.ScorchDose < 16 {
			says = j.Material.Name + " scorches easily"
		}
		add("scorch_dose", j.Material.ScorchDose, "%s", says)
	}
	if j.Moisture == cut.Wet {
		add("wet", 1, "the stock is wet or treated")
	}
	if j.Moves {
		add("moves", 1, "the board moves as it is opened")
	}
	if j.Motion == cut.Push {
		add("top_exit", 1, "teeth leave at the top face")
	}
	add("exit_support", j.Exit.Factor(), "")
	add("end_support", j.Other.Factor(), "")
	if b == nil || b.Teeth == 0 {
		return out, nil
	}
	c := b.Condition
	add("sharpness", c.Sharpness(b.Grind), "%s: edge %.0f %% used up", b.Name, 100*c.WearShare(b.Grind))
	add("pitch_level", c.PitchLevel(), "%s: pitch %.1f of 3", b.Name, c.PitchLevel())
	if c.Washes+c.Sharpenings > 0 {
		says := fmt.Sprintf("washed %.0f m ago", c.MetresWashed)
		if c.MetresWashed == 0 {
			says = "washed, and not used since"
		}
		add("washed_since_metres", c.MetresWashed, "%s", says)
	}
	if c.Sharpenings > 0 {
		add("sharpened_since_metres", c.MetresSharp, "sharpened %.0f m ago", c.MetresSharp)
	}
	tip := c.Unfit == care.Missing.Words() || c.Unfit == care.Loose.Words()
	switch {
	case tip, c.Chipped():
		add("chipped", 1, "%s: %s, as it was last looked over", b.Name, cmp.Or(c.Unfit, c.Flaw))
	case c.Unfit != "", c.Flaw == care.Blue.Words():
		add("blue", 1, "%s: %s, as it was last looked over", b.Name, cmp.Or(c.Unfit, c.Flaw))
	}
	for _, stop := range choose.MountStops(b.Blade, w.Saw, u) {
		if stop.Rule == choose.RuleDiameter || stop.Rule == choose.RuleBore {
			add("misfit", 1, "%s on this saw: %s", b.Name, stop.Why)
			break
		}
	}
	wobbles, err := s.st.Wobbles(ctx, shop, w.ID)
	if err != nil {
		return nil, err
	}
	if k := wobbles[b.ID]; k.Spread > 0 {
		add("spread_mm", k.Spread, "side clearance over the teeth %s, measured on %s", measure.Length(k.Spread).Thin(u), day(k.SpreadAt))
	}
	if w.Kind == saw.Miter {
		add("hook_deg", b.Hook, "hook %+.0f°", b.Hook)
	}
	if !j.Material.Kind.Modelled() || len(choose.Stops(b.Blade, j, w.Saw, u)) > 0 {
		return out, nil
	}
	heights := r.Heights(b.Blade)
	if height <= 0 || height > heights.Full {
		height = heights.Suggested
	}
	f := choose.At(r.Request, r.candidate(*b, w), height)
	room := f.Window.Room()
	says := fmt.Sprintf("window %s: %d teeth on this cut", f.Window.Grade(), b.Teeth)
	add("window_room", room, "%s", says)
	add("teeth_in_cut", f.TeethInCut, "%.1f teeth in the cut", f.TeethInCut)
	add("load_share", f.Load/f.Allowed, "asks %.0f %% of the power that may be used", 100*f.Load/f.Allowed)
	if j.Motion == cut.Along && heights.Full > j.Thickness {
		add("height_share", float64((height-j.Thickness)/(heights.Full-j.Thickness)), "")
	}
	return out, nil
}

// Trace finds one and works out what it comes to.
func (s *Service) Trace(ctx context.Context, shop, id uuid.UUID) (Trace, error) {
	row, err := s.st.Trace(ctx, shop, id)
	if err != nil {
		return Trace{}, missing(err, "id", "trace")
	}
	t := Trace{Trace: row, Answers: map[string]string{}, FromLog: map[string]string{}, Pending: []string{}}
	w, err := s.st.Saw(ctx, shop, row.Saw)
	if err != nil {
		return t, err
	}
	t.SawName, t.SawKind = w.Name, w.Kind
	if row.Blade != nil {
		b, err := s.st.Blade(ctx, shop, *row.Blade)
		if err != nil {
			return t, err
		}
		t.BladeName = b.Name
	}
	if err := errors.Join(json.Unmarshal(row.Facts, &t.Facts), json.Unmarshal(row.Answers, &t.Answers)); err != nil {
		return t, err
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
func (s *Service) fromLog(ctx context.Context, t *Trace) error {
	end := time.Time{}
	if t.Ended != nil {
		end = *t.Ended
	}
	rows, err := s.st.Log(ctx, t.Shop, store.Filter{From: t.Started, To: end, Standing: true}, store.Mark{}, sinceStart)
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
			if e.Kind == store.KindWashed {
				if back, ok := cameBack(rows, e, t.Blade); ok {
					t.Answers[k.ID], t.FromLog[k.ID] = foundOrNot(back), "said with the next cut"
				} else {
					t.Pending = append(t.Pending, k.ID)
				}
				break
			}
			found := false
			if e.Kind == store.KindInspected {
				var d store.InspectedDetail
				_ = json.Unmarshal(e.Detail, &d)
				found = d.Fault != ""
			} else {
				found = truingVerdict(e) != verdict.Clear.String()
			}
			t.Answers[k.ID], t.FromLog[k.ID] = foundOrNot(found), "measured at "+e.At.Format("15:04 on 2 January")
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
		if e.Kind != store.KindCut || blade == nil || e.Blade == nil || *e.Blade != *blade || e.At.Before(wash.At) {
			continue
		}
		var d store.CutDetail
		if json.Unmarshal(e.Detail, &d) == nil && d.CameBack != nil {
			return *d.CameBack, true
		}
	}
	return false, false
}

const earlierShown = 5

func (s *Service) earlier(ctx context.Context, row store.Trace) ([]Earlier, error) {
	all, err := s.st.Traces(ctx, row.Shop, &row.Saw, row.Blade, 100)
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

// Traces lists the newest ones, of a saw or a blade where one is named.
func (s *Service) Traces(ctx context.Context, shop uuid.UUID, saw, blade *uuid.UUID, limit int) ([]store.Trace, error) {
	return s.st.Traces(ctx, shop, saw, blade, limit)
}

// SetEvidence writes what is seen and what checks came to over the version that
// it was looked at.
func (s *Service) SetEvidence(ctx context.Context, shop, id uuid.UUID, version int, present, absent []string, answers map[string]string) (Trace, error) {
	row, err := s.st.Trace(ctx, shop, id)
	switch {
	case err != nil:
		return Trace{}, missing(err, "id", "trace")
	case row.Ended != nil:
		return Trace{}, invalid("id", "this trace has ended; begin another")
	}
	if err := checkSigns(present, absent); err != nil {
		return Trace{}, err
	}
	for k, a := range answers {
		if _, known := trace.CheckByID(k); !known {
			return Trace{}, invalid("answers", "there is no check %q", k)
		}
		if a != Found && a != NotFound && a != CouldNot {
			return Trace{}, invalid("answers", "answer found, not or could-not")
		}
	}
	row.Present, row.Absent, row.Version = orEmpty(present), orEmpty(absent), version
	if row.Answers, err = json.Marshal(answers); err != nil {
		return Trace{}, err
	}
	if err := s.st.ChangeTrace(ctx, row); err != nil {
		return Trace{}, stale(missing(err, "id", "trace"), "trace")
	}
	return s.Trace(ctx, shop, id)
}

// EndTrace closes a trace: with the cause that a good test cut proved, or
// without. What was learnt goes into the log.
func (s *Service) EndTrace(ctx context.Context, shop, id uuid.UUID, version int, cause string, fixed bool, note string) (Trace, error) {
	t, err := s.Trace(ctx, shop, id)
	switch {
	case err != nil:
		return t, err
	case t.Ended != nil:
		return t, nil
	}
	known, ok := trace.CauseByID(cause)
	if cause != "" && !ok {
		return t, invalid("cause", "there is no such cause")
	}
	if fixed && cause == "" {
		return t, invalid("cause", "say what it was that was put right")
	}
	now := s.now()
	row := t.Trace
	row.Ended, row.Cause, row.Fixed, row.Note, row.Version = &now, cause, fixed, note, version
	if row.Answers, err = json.Marshal(t.Answers); err != nil {
		return t, err
	}
	raw, err := json.Marshal(store.TracedDetail{Trace: id, Cause: cause, Fixed: fixed})
	if err != nil {
		return t, err
	}
	err = s.st.Atomically(ctx, func(tx *store.Store) error {
		if err := tx.ChangeTrace(ctx, row); err != nil {
			return stale(missing(err, "id", "trace"), "trace")
		}
		if known.ID == "edge-dull" && fixed && row.Blade != nil {
			says, _ := json.Marshal(store.JudgedDetail{Says: "dull"})
			if _, err := tx.Append(ctx, store.Entry{Shop: shop, At: now, Kind: store.KindJudged, Blade: row.Blade, By: row.By, Note: "proved by a trace", Detail: says}); err != nil {
				return err
			}
		}
		_, err := tx.Append(ctx, store.Entry{Shop: shop, At: now, Kind: store.KindTraced, Blade: row.Blade, Saw: &row.Saw, By: row.By, Note: note, Detail: raw})
		return err
	})
	if err != nil {
		return t, err
	}
	return s.Trace(ctx, shop, id)
}

// DropTrace gives a trace up that has not ended.
func (s *Service) DropTrace(ctx context.Context, shop, id uuid.UUID) error {
	return missing(s.st.DropTrace(ctx, shop, id), "id", "trace under way")
}
