// Package bench shows every saw with what is on it and what is due.
package bench

import (
	"context"
	"encoding/json"
	"time"

	"github.com/google/uuid"

	"corte/core/care"
	"corte/core/cut"
	"corte/core/saw"
	"corte/core/truing"
	"corte/core/verdict"
	shopchoose "corte/internal/shop/choose"
	"corte/internal/shop/kit"
	"corte/internal/store"
)

// A Station does this work in every shop on one database. It holds no state.
type Station struct{ *kit.Kit }

// At is the station over a kit.
func At(k *kit.Kit) Station { return Station{k} }

// A Saw is a saw with what is on it, due and under way.
type Saw struct {
	Saw      store.Saw
	Blade    *store.Blade
	Due      []string
	Stands   []Stand
	Last     []store.Entry
	Mounting *store.Mounting
	Goes     string // name of the blade that is being mounted
}

// A Stand is what a test of a saw last came to.
type Stand struct {
	Test  string
	Entry *store.Entry // nil if it was never measured
	Stale string
}

// lastRows of a saw's log are shown on the bench.
const lastRows = 4

// All tells of every saw.
func (s Station) All(ctx context.Context, shop uuid.UUID) ([]Saw, error) {
	saws, err := s.Store.Saws(ctx, shop)
	if err != nil {
		return nil, err
	}
	stands, err := s.Store.Stands(ctx, shop)
	if err != nil {
		return nil, err
	}
	mountings, err := s.Store.Mountings(ctx, shop)
	if err != nil {
		return nil, err
	}
	var ids []uuid.UUID
	for _, w := range saws {
		if w.Mounted != nil {
			ids = append(ids, *w.Mounted)
		}
	}
	for _, m := range mountings {
		ids = append(ids, m.Blade)
	}
	blades, err := s.Store.BladesOf(ctx, shop, ids)
	if err != nil {
		return nil, err
	}
	last, err := s.Store.LastOfSaws(ctx, shop, lastRows)
	if err != nil {
		return nil, err
	}
	out := make([]Saw, len(saws))
	for i, w := range saws {
		b := Saw{Saw: w, Due: []string{}, Last: last[w.ID]}
		if w.Mounted != nil {
			blade := blades[*w.Mounted]
			b.Blade = &blade
			if due := careDue(shopchoose.State(blade.Blade, blade.Condition)); due != "" {
				b.Due = append(b.Due, blade.Name+" is "+due)
			}
		}
		for k := range mountings {
			if mountings[k].Saw == w.ID {
				b.Mounting = &mountings[k]
				b.Goes = blades[mountings[k].Blade].Name
			}
		}
		b.Stands = StandsOf(w, stands, s.Now())
		for _, st := range b.Stands {
			switch {
			case st.Stale != "":
				b.Due = append(b.Due, testNames[st.Test]+": "+st.Stale)
			case st.Entry != nil && TruingVerdict(*st.Entry) != verdict.Clear.String():
				b.Due = append(b.Due, testNames[st.Test]+": out when it was last measured")
			}
		}
		out[i] = b
	}
	return out, nil
}

// testNames are the tests as they are called on the bench.
var testNames = map[string]string{"heel": "Blade to slot", "fence": "Fence to slot", "runout": "Run-out", "tilt": "Tilt", "gauge": "Gauge"}

// testsOf are the tests that a kind of saw has.
func testsOf(k saw.Kind) []string {
	if k == saw.Table {
		return []string{"heel", "fence", "runout", "tilt", "gauge"}
	}
	return []string{"runout", "tilt", "gauge"}
}

func StandsOf(w store.Saw, all []store.Entry, now time.Time) []Stand {
	var moved time.Time
	last := map[string]*store.Entry{}
	for i := range all {
		if e := &all[i]; *e.Saw == w.ID {
			if e.Kind == store.KindMoved {
				moved = e.At
			} else {
				last[string(e.Kind)] = e
			}
		}
	}
	var out []Stand
	for _, test := range testsOf(w.Kind) {
		st := Stand{Test: test, Entry: last[test]}
		var at time.Time
		if st.Entry != nil {
			at = st.Entry.At
		}
		st.Stale = truing.Stale(at, moved, now)
		out = append(out, st)
	}
	return out
}

func TruingVerdict(e store.Entry) string {
	var d store.TruingDetail
	_ = json.Unmarshal(e.Detail, &d)
	return d.Verdict
}

// careDue says in a word what a blade wants, or nothing.
func careDue(s cut.State) string {
	switch {
	case s.Sharpness >= care.DullAt:
		return "dull"
	case s.Pitch >= care.WashAt:
		return "pitchy"
	}
	return ""
}
