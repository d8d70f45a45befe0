package groove

import (
	"context"
	"encoding/json"
	"errors"

	"github.com/google/uuid"

	"corte/core/blade"
	"corte/core/choose"
	"corte/core/groove"
	"corte/core/history"
	"corte/core/say"
	"corte/core/verdict"
	"corte/internal/refusal"
	"corte/internal/shop/rack"
	"corte/internal/store"
)

// A DadoSet is what a set is made of, and how thick its test grooves say that
// its parts really are.
type DadoSet struct {
	store.DadoSet
	Known []groove.KnownPart
	Saws  []SetOnSaw
}

// A SetOnSaw is whether a set may go on one of the shop's saws.
type SetOnSaw struct {
	Saw     string
	Verdict verdict.Verdict
	Says    say.Line
}

// DadoSet finds what a dado set is made of, and on which saws it may go; its
// version is 0 where nobody has said what it is made of.
func (s Station) DadoSet(ctx context.Context, shop, id uuid.UUID) (DadoSet, error) {
	b, err := s.dadoBlade(ctx, shop, id)
	if err != nil {
		return DadoSet{}, err
	}
	out, err := s.dadoSet(ctx, shop, id)
	if err != nil {
		return out, err
	}
	saws, err := s.Store.Saws(ctx, shop)
	if err != nil {
		return out, err
	}
	for _, w := range saws {
		out.Saws = append(out.Saws, out.on(w, b))
	}
	return out, nil
}

func (s Station) dadoSet(ctx context.Context, shop, blade uuid.UUID) (DadoSet, error) {
	set, err := s.Store.DadoSet(ctx, shop, blade)
	switch {
	case errors.Is(err, store.ErrNone):
		return DadoSet{DadoSet: store.DadoSet{Blade: blade}}, nil
	case err != nil:
		return DadoSet{}, err
	}
	return told(set), nil
}

func told(set store.DadoSet) DadoSet { return DadoSet{DadoSet: set, Known: set.Set.Known(set.Held)} }

// on says whether a set may go on a saw, and how wide its arbor takes it.
func (d DadoSet) on(w store.Saw, b store.Blade) SetOnSaw {
	if stops := choose.MountStops(b.Blade, w.Saw); len(stops) > 0 {
		return SetOnSaw{w.Name, verdict.Stop, stops[0].Why}
	}
	if w.ArborLength <= 0 || w.Nut <= 0 {
		return SetOnSaw{w.Name, verdict.Caution, say.Of("you can mount it, but the arbor's length isn't recorded")}
	}
	room := w.ArborLength - w.Nut - w.Washer
	if w.WasherOff {
		room += w.Washer
	}
	return SetOnSaw{w.Name, verdict.Clear, say.Of("its arbor holds %s under the nut", room)}
}

func (s Station) dadoBlade(ctx context.Context, shop, id uuid.UUID) (store.Blade, error) {
	b, err := rack.At(s.Env).Blade(ctx, shop, id)
	if err == nil && b.Make != blade.Dado {
		err = refusal.Of("id", "%s is a single blade. Only a dado stack has parts", b.Name)
	}
	return b, err
}

// SetDadoSet says what a set is made of, over the version it carries.
func (s Station) SetDadoSet(ctx context.Context, shop uuid.UUID, set store.DadoSet) (DadoSet, error) {
	if _, err := s.dadoBlade(ctx, shop, set.Blade); err != nil {
		return DadoSet{}, err
	}
	if err := set.Set.Check(); err != nil {
		return DadoSet{}, refusal.Placed(err)
	}
	if err := s.Store.SetDadoSet(ctx, shop, set); err != nil {
		return DadoSet{}, refusal.Changed(err, "set")
	}
	return s.DadoSet(ctx, shop, set.Blade)
}

// RenewParts notes that parts of a set were sharpened, replaced or are worn, so
// that what grooves taught of them counts no more.
func (s Station) RenewParts(ctx context.Context, shop uuid.UUID, id uuid.UUID, why string, outer bool, parts []int, by, note string) (DadoSet, error) {
	set, err := s.DadoSet(ctx, shop, id)
	switch {
	case err != nil:
		return set, err
	case set.Version == 0:
		return set, refusal.Of("id", "enter the parts of this set first")
	case !outer && len(parts) == 0:
		return set, refusal.Of("parts", "choose the parts")
	}
	d := history.Renewed{Why: why, Outer: outer}
	for _, i := range parts {
		if i >= len(set.Set.Parts) {
			return set, refusal.Of("parts", "this set has %d kinds of part", len(set.Set.Parts))
		}
		d.Parts = append(d.Parts, used(set.Set.Parts[i], 0))
	}
	raw, err := json.Marshal(d)
	if err != nil {
		return set, err
	}
	e := store.Entry{Shop: shop, At: s.Now(), Kind: history.KindRenewed, Blade: &id, By: by, Note: note, Detail: raw}
	if _, err := s.Store.Append(ctx, e); err != nil {
		return set, err
	}
	return s.DadoSet(ctx, shop, id)
}

func used(p groove.Part, n int) history.PartUsed {
	return history.PartUsed{Thickness: p.Thickness, Shim: p.Shim, Count: n}
}
