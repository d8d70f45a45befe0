package store

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"

	"github.com/google/uuid"

	"corte/core/groove"
	"corte/core/measure"
	"corte/internal/record"
)

// HeldFold numbers the fold of a dado set's log, as Fold does a blade's.
const HeldFold = 1

// told are the rows that tell how thick a set's parts are.
var told = []Kind{KindGrooved, KindRenewed, KindSharpened, KindCut}

// keptHeld is what a set's log adds up to, part by part.
type keptHeld struct {
	V     int         `json:"v"`
	Mean  []float64   `json:"mean_mm"`
	Cov   [][]float64 `json:"cov_mm2"`
	Tests []int       `json:"tests"`
	Told  int         `json:"told"`
}

func writeHeld(h groove.Held) ([]byte, error) {
	return json.Marshal(keptHeld{keptNow, h.Estimate.Mean, h.Estimate.Cov, h.Tests, h.Told})
}

// readHeld reads what is held of a set; what is of other parts than it has is
// as good as nothing.
func readHeld(raw []byte, s groove.Set) (groove.Held, error) {
	if raw == nil {
		return s.New(), nil
	}
	var k keptHeld
	if err := read(raw, &k, &k.V, keptNow); err != nil {
		return groove.Held{}, err
	}
	h, _ := s.Hold(k.Mean, k.Cov, k.Tests, k.Told)
	return h, nil
}

// ofSet is a row as the fold of a set sees it; false where it says nothing of one.
func (e Entry) ofSet() (groove.Event, bool) {
	read := func(v any) bool { return json.Unmarshal(e.Detail, v) == nil }
	switch e.Kind {
	case KindCut:
		var d CutDetail
		return groove.Event{What: groove.Cut, Metres: d.CutLength().Mm() / 1000}, read(&d)
	case KindSharpened:
		return groove.Event{What: groove.Sharpened}, true
	case KindRenewed:
		var d RenewedDetail
		ok := read(&d)
		return groove.Event{What: groove.Renewed, Outer: d.Outer, Parts: PartsOf(d.Parts)}, ok
	case KindGrooved:
		var d GroovedDetail
		ok := read(&d) && d.Test
		return d.Event(), ok
	}
	return groove.Event{}, false
}

// Event is a test groove as the core knows it.
func (d GroovedDetail) Event() groove.Event {
	e := groove.Event{What: groove.Tested, Parts: PartsOf(d.Parts), Left: d.Left, Right: d.Right}
	if d.Dial != nil {
		e.Dial = &groove.Dial{Cutters: d.Dial.Cutters, Turns: d.Dial.Turns}
	}
	for _, w := range d.Width {
		e.Widths = append(e.Widths, measure.Length(w))
	}
	return e
}

// PartsOf are parts as the core knows them.
func PartsOf(used []PartUsed) []groove.Part {
	out := make([]groove.Part, len(used))
	for i, p := range used {
		out[i] = groove.Part{Thickness: p.Thickness, Shim: p.Shim, Count: p.Count}
	}
	return out
}

// keepHeld brings what is held of a blade's parts up to date with a row that
// was just added to its log; late says that the row is not its last word.
func (s *Store) keepHeld(ctx context.Context, shop uuid.UUID, b Blade, e Entry, late bool) error {
	if b.Set == nil {
		return nil
	}
	if late {
		return s.refoldHeld(ctx, shop, b.ID, *b.Set)
	}
	event, says := e.ofSet()
	if !says {
		return nil
	}
	d, err := s.DadoSet(ctx, shop, b.ID)
	if err != nil {
		return err
	}
	return s.saveHeld(ctx, shop, b.ID, d.Set.Then(d.Held, event))
}

// foldHeld is what all of a set's log adds up to.
func (s *Store) foldHeld(ctx context.Context, shop, blade uuid.UUID, set groove.Set) (groove.Held, error) {
	h := set.New()
	kinds := make([]string, len(told))
	for i, k := range told {
		kinds[i] = string(k)
	}
	var rows []Entry
	err := s.db.SelectContext(ctx, &rows, `SELECT l.id, l.at, l.kind, l.detail FROM log l
		WHERE l.shop_id = $1 AND l.blade_id = $2 AND l.kind = ANY($3)`+stands+` ORDER BY l.at, l.id`, shop, blade, kinds)
	for _, e := range rows {
		if event, says := e.ofSet(); says {
			h = set.Then(h, event)
		}
	}
	return h, err
}

func (s *Store) refoldHeld(ctx context.Context, shop, blade uuid.UUID, set groove.Set) error {
	h, err := s.foldHeld(ctx, shop, blade, set)
	if err != nil {
		return err
	}
	return s.saveHeld(ctx, shop, blade, h)
}

// heldDrifts reports whether what is kept of a set is not what its log adds up
// to, and writes that where mend is set.
func (s *Store) heldDrifts(ctx context.Context, shop, blade uuid.UUID, mend bool) (bool, error) {
	d, err := s.DadoSet(ctx, shop, blade)
	if err != nil {
		return false, err
	}
	h, err := s.foldHeld(ctx, shop, blade, d.Set)
	if err != nil {
		return false, err
	}
	kept, err := writeHeld(d.Held)
	if err != nil {
		return false, err
	}
	folded, err := writeHeld(h)
	if err == nil && mend {
		err = s.saveHeld(ctx, shop, blade, h)
	}
	return !bytes.Equal(kept, folded), err
}

func (s *Store) saveHeld(ctx context.Context, shop, blade uuid.UUID, h groove.Held) error {
	raw, err := writeHeld(h)
	if err != nil {
		return err
	}
	_, err = s.db.ExecContext(ctx, `UPDATE dado_sets SET held = $3, held_fold = $4 WHERE shop_id = $1 AND blade_id = $2`, shop, blade, raw, HeldFold)
	return err
}

// holdNew folds the sets anew that an older Corte folded, or none did.
func (s *Store) holdNew(ctx context.Context) error {
	var old []struct {
		Shop  uuid.UUID `db:"shop_id"`
		Blade uuid.UUID `db:"blade_id"`
	}
	if err := s.db.SelectContext(ctx, &old, `SELECT shop_id, blade_id FROM dado_sets WHERE held_fold <> $1 ORDER BY shop_id, blade_id`, HeldFold); err != nil {
		return err
	}
	for _, o := range old {
		err := s.Atomically(ctx, func(tx *Store) error {
			b, err := tx.lock(ctx, o.Shop, o.Blade)
			if err != nil || b.Set == nil {
				return err
			}
			return tx.refoldHeld(ctx, o.Shop, o.Blade, *b.Set)
		})
		var damaged *record.DamagedError
		if errors.As(err, &damaged) {
			continue // Conditions has said so
		}
		if err != nil {
			return err
		}
	}
	return nil
}
