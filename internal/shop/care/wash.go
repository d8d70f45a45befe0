package care

import (
	"context"
	"encoding/json"
	"slices"
	"strings"

	"github.com/google/uuid"

	"corte/core/care"
	"corte/core/history"
	"corte/core/say"
	"corte/core/verdict"
	"corte/internal/record"
	"corte/internal/refusal"
	"corte/internal/shop/env"
	"corte/internal/store"
)

// A Wash is a wash under way, with its steps and its blades.
type Wash struct {
	store.Wash
	Of      []store.Blade
	Cleaner care.Cleaner
	Steps   []care.WashStep
}

// A WashAsk is what somebody wants to wash, and with what.
type WashAsk struct {
	Blades   []uuid.UUID
	Cleaner  string
	Brush    care.Brush
	Bath     *uuid.UUID
	ForScrap bool // a caked plate that is about to be scrapped or retipped
	Accepted bool // the risk of a harsh cleaner
	By       string
}

// mostAtOnce is how many blades go in one bath.
const mostAtOnce = 20

// CheckWash says what does not agree between blades, cleaner and brush, or
// refuses what cannot be.
func (s Station) CheckWash(ctx context.Context, shop uuid.UUID, a WashAsk) ([]care.Warning, error) {
	k, err := care.CleanerByID(a.Cleaner)
	if err != nil {
		return nil, refusal.Of("cleaner", "%s", err)
	}
	if err := care.CheckBrush(a.Brush); err != nil {
		return nil, refusal.Of("brush", "%s", err)
	}
	if len(a.Blades) == 0 || len(a.Blades) > mostAtOnce {
		return nil, refusal.Of("blade_ids", "choose 1 to %d blades", mostAtOnce)
	}
	warnings := []care.Warning{}
	if w, harsh := k.Risk(); harsh {
		warnings = append(warnings, w)
	}
	of, err := s.Store.BladesOf(ctx, shop, a.Blades)
	if err != nil {
		return nil, err
	}
	for _, id := range a.Blades {
		b, there := of[id]
		if !there {
			return nil, refusal.NotThere(store.ErrNone, "blade_ids", "blade")
		}
		if b.Condition.Away {
			return nil, refusal.Of("blade_ids", "%s is away for sharpening", b.Name)
		}
		if !a.ForScrap {
			warnings = append(warnings, care.Agrees(k, b.Name, b.Coating)...)
		}
		if b.MountedOn != nil {
			warnings = append(warnings, care.Warning{Verdict: verdict.Caution, Says: say.Of("%s is on a saw. Disconnect the power and wear gloves before you take it off", b.Name)})
		}
	}
	if a.Bath != nil {
		baths, err := s.Baths(ctx, shop)
		if err != nil {
			return nil, err
		}
		i := slices.IndexFunc(baths, func(b Bath) bool { return b.ID == *a.Bath })
		if i < 0 {
			return nil, &refusal.Error{Reason: refusal.Missing, Field: "bath_id", What: say.Of("there is no such bath in this shop")}
		}
		if baths[i].Cleaner.ID != k.ID {
			return nil, refusal.Of("bath_id", "that bath is %s. Never mix cleaners", baths[i].Cleaner.Name)
		}
		if baths[i].Word != "good" {
			warnings = append(warnings, care.Warning{Verdict: verdict.Caution, Says: say.Of("%s needs attention: %s", baths[i].Name, baths[i].Why)})
		}
	}
	return warnings, nil
}

// StartWash begins a wash. A cleaner that attacks a coating
// is refused; a harsh one wants its risk accepted.
func (s Station) StartWash(ctx context.Context, shop uuid.UUID, a WashAsk) (Wash, error) {
	warnings, err := s.CheckWash(ctx, shop, a)
	if err != nil {
		return Wash{}, err
	}
	k, _ := care.CleanerByID(a.Cleaner)
	for _, w := range warnings {
		if w.Verdict == verdict.Stop {
			return Wash{}, refusal.Of("cleaner", "%s", w.Says)
		}
	}
	if w, harsh := k.Risk(); harsh && !a.Accepted {
		return Wash{}, refusal.Of("accept_risk", "%s. Confirm that you follow these cautions, or choose another cleaner", w.Says)
	}
	now := s.Now()
	id, err := s.Add(ctx, func(tx *store.Store, id uuid.UUID) error {
		if err := apart(ctx, tx, shop, a.Blades); err != nil {
			return err
		}
		return tx.StartWash(ctx, store.Wash{ID: id, Shop: shop, Blades: a.Blades, Cleaner: a.Cleaner, Brush: string(a.Brush), Bath: a.Bath,
			StepAt: now, Started: now, By: a.By})
	})
	if err != nil {
		return Wash{}, err
	}
	return s.Wash(ctx, shop, id)
}

// apart holds blades and refuses one that is in another wash already.
func apart(ctx context.Context, tx *store.Store, shop uuid.UUID, blades []uuid.UUID) error {
	for _, id := range inOrder(blades) {
		if err := tx.HoldBlade(ctx, shop, id); err != nil {
			return err
		}
	}
	washes, err := tx.Washes(ctx, shop)
	if err != nil {
		return err
	}
	for _, w := range washes {
		for _, id := range w.Blades {
			if !slices.Contains(blades, id) {
				continue
			}
			b, err := tx.Blade(ctx, shop, id)
			if err != nil {
				return err
			}
			return env.Already("blade_ids", "%s is already being cleaned. Nothing was saved. Finish or stop that cleaning first", b.Name)
		}
	}
	return nil
}

// inOrder is blades in the one order in which they are held, so that two who
// hold several cannot wait for each other.
func inOrder(blades []uuid.UUID) []uuid.UUID {
	return slices.Compact(slices.SortedFunc(slices.Values(blades), func(a, b uuid.UUID) int { return strings.Compare(a.String(), b.String()) }))
}

// Wash finds a wash that is under way.
func (s Station) Wash(ctx context.Context, shop, id uuid.UUID) (Wash, error) {
	w, err := s.Store.Wash(ctx, shop, id)
	if err != nil {
		return Wash{}, refusal.NotThere(err, "id", "cleaning in progress")
	}
	of, err := s.Store.BladesOf(ctx, shop, w.Blades)
	if err != nil {
		return Wash{}, err
	}
	return wash(w, of)
}

// wash is a row with its steps and its blades, which are among those of. The
// error is a *record.DamagedError.
func wash(w store.Wash, of map[uuid.UUID]store.Blade) (Wash, error) {
	out := Wash{Wash: w}
	var err error
	if out.Cleaner, err = care.CleanerByID(w.Cleaner); err != nil {
		return out, record.Damaged("washes", w.ID, err)
	}
	for _, id := range w.Blades {
		if b, there := of[id]; there { // one whose own row is damaged is left out
			out.Of = append(out.Of, b)
		}
	}
	out.Steps = care.WashSteps(out.Cleaner, care.Brush(w.Brush), len(w.Blades))
	return out, nil
}

// StepWash moves a wash to a step, over the version it carries. The step's
// timer began when somebody went to it, which may have waited to be sent.
func (s Station) StepWash(ctx context.Context, shop, id uuid.UUID, step, version int, sent env.Sent) (Wash, error) {
	w, err := s.Wash(ctx, shop, id)
	if err != nil {
		return w, err
	}
	if step < 0 || step >= len(w.Steps) {
		return w, refusal.Of("step", "this cleaning has %d steps", len(w.Steps))
	}
	row := w.Wash
	row.Step, row.StepAt, row.Version = step, sent.At(s.Now()), version
	if err := s.Store.StepWash(ctx, row); err != nil {
		return w, refusal.Changed(refusal.NotThere(err, "id", "cleaning in progress"), "wash")
	}
	return s.Wash(ctx, shop, id)
}

// DropWash gives a wash up without a trace.
func (s Station) DropWash(ctx context.Context, shop, id uuid.UUID) error {
	return refusal.NotThere(s.Store.DropWash(ctx, shop, id), "id", "cleaning in progress")
}

// EndWash logs the wash of every blade, as of when it was done, and counts the
// bath's use.
func (s Station) EndWash(ctx context.Context, shop, id uuid.UUID, version int, sent env.Sent) ([]store.Entry, error) {
	w, err := s.Wash(ctx, shop, id)
	if err != nil {
		return nil, err
	}
	if w.Version != version {
		return nil, refusal.Changed(store.ErrStale, "wash")
	}
	if last := len(w.Steps) - 1; w.Step != last {
		return nil, refusal.Of("step", "do %s first. Cleaning ends with the protective film", w.Steps[w.Step+1].Title)
	}
	raw, err := json.Marshal(history.Washed{Cleaner: w.Cleaner.ID, Brush: w.Brush, Bath: w.Bath, With: len(w.Blades)})
	if err != nil {
		return nil, err
	}
	at, by := sent.At(s.Now()), env.By(ctx, w.By)
	var rows []store.Entry
	err = s.Store.Atomically(ctx, func(tx *store.Store) error {
		rows = nil
		if err := tx.EndWash(ctx, shop, id, version); err != nil {
			return refusal.Changed(refusal.NotThere(err, "id", "cleaning in progress"), "wash") // somebody else ended it
		}
		for _, blade := range inOrder(w.Blades) {
			row, err := tx.Append(ctx, store.Entry{Shop: shop, At: at, Kind: history.KindWashed, Blade: &blade, By: by, Detail: raw})
			if err != nil {
				return err
			}
			rows = append(rows, row)
		}
		if w.Bath != nil {
			return tx.UseBath(ctx, shop, *w.Bath, len(rows))
		}
		return nil
	})
	return rows, err
}
