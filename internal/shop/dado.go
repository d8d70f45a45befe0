package shop

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"slices"

	"github.com/google/uuid"

	"corte/core/blade"
	"corte/core/choose"
	"corte/core/groove"
	"corte/core/measure"
	"corte/core/verdict"
	"corte/internal/store"
)

// A DadoSet is what a set is made of, and how thick its test grooves say that
// its parts really are.
type DadoSet struct {
	store.DadoSet
	Belief groove.Belief
	Known  []KnownPart
	Tests  int // that stand in the log
	Saws   []SetOnSaw
}

// A SetOnSaw is whether a set may go on one of the shop's saws.
type SetOnSaw struct {
	Saw     string
	Verdict verdict.Verdict
	Says    string
}

// A KnownPart is one part as it is held to be.
type KnownPart struct {
	What          string
	Stamped, Held measure.Length
	SD            measure.Length
	Tests         int // that it was in since it was new or sharpened
}

// DadoSet finds what a dado set is made of, and on which saws it may go; its
// version is 0 where nobody has said what it is made of.
func (s *Service) DadoSet(ctx context.Context, shop, id uuid.UUID, u measure.Unit) (DadoSet, error) {
	b, err := s.dadoBlade(ctx, shop, id)
	if err != nil {
		return DadoSet{}, err
	}
	out, err := s.dadoSet(ctx, shop, id)
	if err != nil {
		return out, err
	}
	saws, err := s.st.Saws(ctx, shop)
	if err != nil {
		return out, err
	}
	for _, w := range saws {
		out.Saws = append(out.Saws, out.on(w, b, u))
	}
	return out, nil
}

func (s *Service) dadoSet(ctx context.Context, shop, blade uuid.UUID) (DadoSet, error) {
	set, err := s.st.DadoSet(ctx, shop, blade)
	switch {
	case errors.Is(err, store.ErrNone):
		return DadoSet{DadoSet: store.DadoSet{Blade: blade}}, nil
	case err != nil:
		return DadoSet{}, err
	}
	return s.held(ctx, shop, set)
}

// on says whether a set may go on a saw, and how wide its arbor takes it.
func (d DadoSet) on(w store.Saw, b store.Blade, u measure.Unit) SetOnSaw {
	if stops := choose.MountStops(b.Blade, w.Saw, u); len(stops) > 0 {
		return SetOnSaw{w.Name, verdict.Stop, stops[0].Why}
	}
	if w.ArborLength <= 0 || w.Nut <= 0 {
		return SetOnSaw{w.Name, verdict.Mind, "it may go on; how long the arbor is stands in no record"}
	}
	room := w.ArborLength - w.Nut - w.Washer
	if w.WasherOff {
		room += w.Washer
	}
	return SetOnSaw{w.Name, verdict.Clear, "its arbor takes " + room.Format(u) + " under the nut"}
}

func (s *Service) dadoBlade(ctx context.Context, shop, id uuid.UUID) (store.Blade, error) {
	b, err := s.Blade(ctx, shop, id)
	if err == nil && b.Make != blade.Dado {
		err = invalid("id", "%s is a single blade; only a dado set has parts", b.Name)
	}
	return b, err
}

// SetDadoSet says what a set is made of, over the version it carries.
func (s *Service) SetDadoSet(ctx context.Context, shop uuid.UUID, set store.DadoSet, u measure.Unit) (DadoSet, error) {
	if _, err := s.dadoBlade(ctx, shop, set.Blade); err != nil {
		return DadoSet{}, err
	}
	if err := set.Set.Check(u); err != nil {
		return DadoSet{}, grooveError(err)
	}
	if err := s.st.SetDadoSet(ctx, shop, set); err != nil {
		return DadoSet{}, stale(err, "set")
	}
	return s.DadoSet(ctx, shop, set.Blade, u)
}

// grooveError puts the core's error about a groove into the API's terms.
func grooveError(err error) error {
	var ge *groove.Error
	if errors.As(err, &ge) {
		return invalid(ge.Field, "%s", ge.Reason)
	}
	return err
}

// RenewParts notes that parts of a set were sharpened, replaced or are worn, so
// that what grooves taught of them counts no more.
func (s *Service) RenewParts(ctx context.Context, shop uuid.UUID, id uuid.UUID, why string, outer bool, parts []int, by, note string, u measure.Unit) (DadoSet, error) {
	set, err := s.DadoSet(ctx, shop, id, u)
	switch {
	case err != nil:
		return set, err
	case set.Version == 0:
		return set, invalid("id", "say first what this set is made of")
	case !outer && len(parts) == 0:
		return set, invalid("parts", "say which parts")
	}
	d := store.RenewedDetail{Why: why, Outer: outer}
	for _, i := range parts {
		if i >= len(set.Set.Parts) {
			return set, invalid("parts", "this set has %d kinds of part", len(set.Set.Parts))
		}
		d.Parts = append(d.Parts, used(set.Set.Parts[i], 0))
	}
	raw, err := json.Marshal(d)
	if err != nil {
		return set, err
	}
	e := store.Entry{Shop: shop, At: s.now(), Kind: store.KindRenewed, Blade: &id, By: by, Note: note, Detail: raw}
	if _, err := s.st.Append(ctx, e); err != nil {
		return set, err
	}
	return s.DadoSet(ctx, shop, id, u)
}

func used(p groove.Part, n int) store.PartUsed {
	return store.PartUsed{Thickness: p.Thickness.Mm(), Shim: p.Shim, Count: n}
}

// countsOf are the counts of a stack in the order of a set's parts; false where
// the set no longer has one of them.
func countsOf(set groove.Set, parts []store.PartUsed) ([]int, bool) {
	counts := make([]int, len(set.Parts))
	for _, p := range parts {
		i := slices.IndexFunc(set.Parts, func(q groove.Part) bool {
			d := q.Thickness.Mm() - p.Thickness
			return q.Shim == p.Shim && d > -1e-6 && d < 1e-6
		})
		if i < 0 {
			return nil, false
		}
		counts[i] = p.Count
	}
	return counts, true
}

// held folds what the log says of a set's parts: every test groove teaches,
// every metre and every sharpening forgets. A test with parts that the set no
// longer has says nothing.
func (s *Service) held(ctx context.Context, shop uuid.UUID, set store.DadoSet) (DadoSet, error) {
	out := DadoSet{DadoSet: set, Belief: set.Set.Believed()}
	rows, err := s.st.SetRows(ctx, shop, set.Blade)
	if err != nil {
		return out, err
	}
	tests := make([]int, len(out.Belief.Mean))
	renew := func(part int) {
		out.Belief, tests[part] = out.Belief.Renewed(part), 0
	}
	for _, e := range rows {
		switch e.Kind {
		case store.KindCut:
			var d store.CutDetail
			if err := json.Unmarshal(e.Detail, &d); err != nil {
				return out, err
			}
			out.Belief = out.Belief.Worn(d.CutLength().Mm()/1000, set.Set.Toothed)
		case store.KindSharpened:
			for i := range tests {
				if set.Set.Toothed(i) {
					renew(i)
				}
			}
		case store.KindRenewed:
			var d store.RenewedDetail
			if err := json.Unmarshal(e.Detail, &d); err != nil {
				return out, err
			}
			if d.Outer {
				for i := range outerParts(set.Set) {
					renew(i)
				}
			}
			for _, p := range d.Parts {
				p.Count = 1
				if counts, ok := countsOf(set.Set, []store.PartUsed{p}); ok {
					renew(1 + slices.Index(counts, 1))
				}
			}
		case store.KindGrooved:
			var d store.GroovedDetail
			if err := json.Unmarshal(e.Detail, &d); err != nil {
				return out, err
			}
			use, nominal, ok := useOf(set.Set, d)
			if !d.Test || !ok || len(d.Width) == 0 {
				continue
			}
			out.Tests++
			out.Belief = out.Belief.Measured(use, nominal, measure.Length(Mean(d.Width)), len(d.Width))
			for i, n := range use {
				if n != 0 {
					tests[i]++
				}
			}
		}
	}
	out.Known = known(set.Set, out.Belief, tests)
	return out, nil
}

// outerParts is how many parts of the belief the outer pair is: all of a dial
// set, whose cutters are in every range.
func outerParts(s groove.Set) int {
	if s.Kind == groove.Dialled {
		return 2 * len(s.Ranges)
	}
	return 1
}

// useOf is what a logged test says of the parts of a set as it is now, and the
// width that they should have made.
func useOf(set groove.Set, d store.GroovedDetail) (use []float64, nominal measure.Length, ok bool) {
	if set.Kind == groove.Dialled {
		if d.Dial == nil {
			return nil, 0, false
		}
		at := slices.IndexFunc(set.Ranges, func(r groove.Range) bool { return r.Cutters == d.Dial.Cutters })
		if at < 0 {
			return nil, 0, false
		}
		r := set.Ranges[at]
		return set.Turned(at, d.Dial.Turns), r.Start + r.Turn*measure.Length(d.Dial.Turns), true
	}
	counts, ok := countsOf(set, d.Parts)
	if !ok || d.Left != set.Left.Mm() || d.Right != set.Right.Mm() {
		return nil, 0, false
	}
	return set.Use(counts), set.Nominal(counts), true
}

func known(set groove.Set, b groove.Belief, tests []int) (out []KnownPart) {
	add := func(i int, what string, stamped measure.Length) {
		out = append(out, KnownPart{what, stamped, stamped + measure.Length(b.Mean[i]), b.SD(i), tests[i]})
	}
	if set.Kind == groove.Dialled {
		for i, r := range set.Ranges {
			add(2*i, fmt.Sprintf("%d cutters, dial at 0", r.Cutters), r.Start)
			add(2*i+1, fmt.Sprintf("%d cutters, one turn", r.Cutters), r.Turn)
		}
		return out
	}
	add(0, "outer pair", set.Outer())
	_, real := set.True(b)
	for i, p := range set.Parts {
		add(i+1, p.What(), p.Thickness)
		out[i+1].Held = real[i].Thickness
	}
	return out
}

// Mean of readings.
func Mean(v []float64) float64 {
	sum := 0.0
	for _, x := range v {
		sum += x
	}
	return sum / float64(max(1, len(v)))
}
