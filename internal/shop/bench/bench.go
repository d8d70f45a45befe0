// Package bench shows every saw with what is on it and what is due.
package bench

import (
	"context"
	"encoding/json"
	"time"

	"github.com/google/uuid"

	"corte/core/bench"
	"corte/core/choose"
	"corte/core/history"
	"corte/core/truing"
	"corte/core/verdict"
	shopchoose "corte/internal/shop/choose"
	"corte/internal/shop/env"
	"corte/internal/store"
)

// A Station does this work in every shop on one database. It holds no state.
type Station struct{ *env.Env }

// At is the station over an environment: a database, or a transaction of one.
func At(k *env.Env) Station { return Station{k} }

// A Saw is a saw with what is on it, due and under way.
type Saw struct {
	Saw      store.Saw
	Blade    *store.Blade
	Due      []bench.Due // the most pressing first
	Stands   []Stand
	Last     []store.Entry
	Mounting *store.Mounting
	Goes     string // name of the blade that is being mounted
}

// A Stand is what a test of a saw last came to.
type Stand struct {
	Test    truing.Test
	Entry   *store.Entry // nil if it was never measured
	Verdict verdict.Verdict
	Doubt   truing.Doubt
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
		b := Saw{Saw: w, Last: last[w.ID], Stands: StandsOf(w, stands, s.Now())}
		var on *bench.Blade
		if w.Mounted != nil {
			blade := blades[*w.Mounted]
			b.Blade = &blade
			c, state := blade.Condition, shopchoose.State(blade.Blade, blade.Condition)
			on = &bench.Blade{Name: blade.Name, Unfit: choose.Bar(c) != nil, Found: c.Unfit, Sharpness: state.Sharpness, Pitch: state.Pitch}
		}
		for k := range mountings {
			if mountings[k].Saw == w.ID {
				b.Mounting = &mountings[k]
				b.Goes = blades[mountings[k].Blade].Name
			}
		}
		measured := make([]bench.Stand, len(b.Stands))
		for k, st := range b.Stands {
			measured[k] = bench.Stand{Test: st.Test, Verdict: st.Verdict, Doubt: st.Doubt}
		}
		b.Due = bench.DueOn(on, measured)
		out[i] = b
	}
	return out, nil
}

// StandsOf tells how each test of a saw stands, by the last readings of all.
func StandsOf(w store.Saw, all []store.Entry, now time.Time) []Stand {
	var moved time.Time
	last := map[string]*store.Entry{}
	for i := range all {
		if e := &all[i]; *e.Saw == w.ID {
			if e.Kind == history.KindMoved {
				moved = e.At
			} else {
				last[string(e.Kind)] = e
			}
		}
	}
	var out []Stand
	for _, test := range truing.TestsOf(w.Kind) {
		if !test.OfSaw() {
			continue
		}
		st := Stand{Test: test, Entry: last[string(test)]}
		var at time.Time
		if st.Entry != nil {
			at, st.Verdict = st.Entry.At, TruingVerdict(*st.Entry)
		}
		st.Doubt = truing.Stale(at, moved, now)
		out = append(out, st)
	}
	return out
}

// TruingVerdict is what a reading of the log was judged to be; what it does not
// say is taken as a caution.
func TruingVerdict(e store.Entry) verdict.Verdict {
	v := verdict.Caution
	var d history.Truing
	if json.Unmarshal(e.Detail, &d) == nil {
		_ = v.UnmarshalText([]byte(d.Verdict))
	}
	return v
}
