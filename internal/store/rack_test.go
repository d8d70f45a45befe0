package store_test

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/google/uuid"

	"corte/core/history"
	"corte/core/saw"
	"corte/core/truing"
	"corte/internal/store"
	"corte/internal/testkit/pgtest"
)

// Of many who change one version, one is first and the others are told.
func TestOneVersionIsChangedOnce(t *testing.T) {
	ctx, st := t.Context(), pgtest.Store(t)
	sh, saws, b := furnished(t, st, "a")
	b.Version = 1
	var wg sync.WaitGroup
	done := make(chan error, 12)
	for i := range cap(done) {
		wg.Go(func() {
			mine := b
			mine.Hangs = fmt.Sprintf("peg %d", i)
			done <- st.ChangeBlade(ctx, sh.ID, mine)
		})
	}
	wg.Wait()
	close(done)
	first, late := 0, 0
	for err := range done {
		switch {
		case err == nil:
			first++
		case errors.Is(err, store.ErrStale):
			late++
		default:
			t.Error(err)
		}
	}
	got, err := st.Blade(ctx, sh.ID, b.ID)
	if first != 1 || late != cap(done)-1 || err != nil || got.Version != 2 {
		t.Errorf("%d were first and %d late; now it is version %d, %v", first, late, got.Version, err)
	}
	nobody := b
	nobody.ID = uuid.New()
	if err := st.ChangeBlade(ctx, sh.ID, nobody); !errors.Is(err, store.ErrNone) {
		t.Errorf("a blade that is not there: %v", err)
	}
	other, _, _ := furnished(t, st, "b")
	got.Version = 2
	if err := st.ChangeBlade(ctx, other.ID, got); err == nil {
		t.Error("another shop's blade was changed")
	}

	// Everything that a saw's record can hold comes back as it went.
	w := saws[0]
	w.Version, w.Thread, w.Lock, w.Knockout, w.WheelLead, w.FenceLead, w.ToBolt = 1, saw.LeftHand, true, true, 8, 1.5, 240
	own := truing.Usual
	own.HeelAim = 0.03
	w.Tolerances, w.Tilt, w.Turn = &own, 47, 50
	if err := st.ChangeSaw(ctx, sh.ID, w); err != nil {
		t.Fatal(err)
	}
	back, err := st.Saw(ctx, sh.ID, w.ID)
	if err != nil || *back.Tolerances != own || back.Thread != saw.LeftHand || back.ToBolt != 240 || !back.Lock || back.Tilt != 47 {
		t.Errorf("the saw came back as %+v, %v", back, err)
	}
}

// What is asked under a key is done once, all of it or nothing, and answered
// again as it was then.
func TestOnceAnswersOnce(t *testing.T) {
	ctx, st := t.Context(), pgtest.Store(t)
	sh, _, b := furnished(t, st, "a")
	var acted atomic.Int32
	act := func(status int, err error) func(*store.Store) (store.Answer, error) {
		return func(tx *store.Store) (store.Answer, error) {
			acted.Add(1)
			one := b
			one.ID = uuid.New()
			one.Name = one.ID.String()
			if err := tx.AddBlade(ctx, sh.ID, one); err != nil {
				return store.Answer{}, err
			}
			return store.Answer{Status: status, Headers: map[string]string{"Etag": `"1"`}, Body: []byte(one.ID.String())}, err
		}
	}
	rack := func() int {
		all, err := st.Rack(ctx, sh.ID)
		if err != nil {
			t.Fatal(err)
		}
		return len(all)
	}
	failed := errors.New("half way")
	if _, err := st.Once(ctx, sh.ID, "one key", []byte("a"), act(201, failed)); !errors.Is(err, failed) || rack() != 1 {
		t.Errorf("what failed half way left %d blades, %v", rack(), err)
	}
	if a, err := st.Once(ctx, sh.ID, "one key", []byte("other"), act(422, nil)); err != nil || a.Status != 422 || rack() != 1 {
		t.Errorf("what was refused left %d blades, %d, %v", rack(), a.Status, err)
	}
	answers := make(chan string, 10)
	var wg sync.WaitGroup
	for range cap(answers) {
		wg.Go(func() {
			a, err := st.Once(ctx, sh.ID, "one key", []byte("a"), act(201, nil))
			if err != nil || a.Status != 201 || a.Headers["Etag"] != `"1"` {
				t.Error(a, err)
			}
			answers <- string(a.Body)
		})
	}
	wg.Wait()
	close(answers)
	seen := map[string]bool{}
	for a := range answers {
		seen[a] = true
	}
	if len(seen) != 1 || acted.Load() != 3 || rack() != 2 {
		t.Errorf("%d answers, acted %d times (twice in vain), %d blades", len(seen), acted.Load(), rack())
	}
	if _, err := st.Once(ctx, sh.ID, "one key", []byte("other"), act(201, nil)); !errors.Is(err, store.ErrKeyReused) {
		t.Errorf("the key with another request: %v", err)
	}
	// Another shop may use the same key, and so may this one when it is forgotten.
	other, _, _ := furnished(t, st, "b")
	if _, err := st.Once(ctx, other.ID, "one key", []byte("other"), act(201, nil)); err != nil {
		t.Error(err)
	}
	for _, sweep := range []struct {
		before time.Time
		want   error
	}{{time.Now().Add(-time.Hour), store.ErrKeyReused}, {time.Now().Add(time.Hour), nil}} {
		if err := st.SweepAnswers(ctx, sweep.before); err != nil {
			t.Fatal(err)
		}
		if _, err := st.Once(ctx, sh.ID, "one key", []byte("new"), act(201, nil)); !errors.Is(err, sweep.want) {
			t.Errorf("swept before %v: %v", sweep.before, err)
		}
	}
}

// pine is a cut of so many pieces of pine, each a metre long.
func pine(pieces int) []byte {
	raw, _ := json.Marshal(history.Cut{Material: "yellow-pine", Direction: "rip", Thickness: 38, Width: 90, Length: 1000, Pieces: pieces, Wall: "clean", Splinters: "none"})
	return raw
}

// The quick way to read the rack agrees with the plain one on all that decides.
func TestRackIsBladesInShort(t *testing.T) {
	ctx, st := t.Context(), pgtest.Store(t)
	sh, saws, b := furnished(t, st, "a")
	for i := range 5 {
		one := b
		one.ID, one.Name, one.Teeth, one.Note = uuid.New(), fmt.Sprintf("Blade %d", i), 24+i, "a note"
		if err := st.AddBlade(ctx, sh.ID, one); err != nil {
			t.Fatal(err)
		}
		for _, e := range []store.Entry{
			{Kind: history.KindCut, Saw: &saws[i%2].ID, Detail: pine(40 * (i + 1))},
			{Kind: history.KindJudged, Detail: []byte(`{"says": "dull"}`)},
			{Kind: history.KindInspected, Detail: []byte(`{"fault": "` + []string{"", "cracked"}[i%2] + `"}`)},
			{Kind: history.KindSent, Detail: []byte(`{"to": "the saw doctor"}`)},
		}[:1+i%4] {
			e.Shop, e.At, e.Blade = sh.ID, time.Now(), &one.ID
			if _, err := st.Append(ctx, e); err != nil {
				t.Fatal(err)
			}
		}
	}
	if err := st.RetireBlade(ctx, sh.ID, b.ID, &store.Retired{At: time.Now(), Reason: "lost"}); err != nil {
		t.Fatal(err)
	}
	plain, err := st.Blades(ctx, sh.ID, store.Place{}, 0)
	if err != nil {
		t.Fatal(err)
	}
	short, err := st.Rack(ctx, sh.ID)
	if err != nil || len(short) != len(plain) || len(plain) != 5 {
		t.Fatalf("%d and %d blades, %v", len(short), len(plain), err)
	}
	byID := map[uuid.UUID]store.Blade{}
	for _, s := range short {
		byID[s.ID] = s
	}
	mounted := 0
	for _, p := range plain {
		s := byID[p.ID]
		c, d := s.Condition, p.Condition
		if s.Blade != p.Blade || s.Name != p.Name || c.Sharpness(s.Grind) != d.Sharpness(p.Grind) || c.PitchLevel() != d.PitchLevel() || c.Unfit != d.Unfit || c.Away != d.Away || d.WearM2 == 0 {
			t.Errorf("in short %+v, plainly %+v", s, p)
		}
		if (s.MountedOn == nil) != (p.MountedOn == nil) || s.MountedOn != nil && *s.MountedOn != *p.MountedOn {
			t.Errorf("%s is on %v and on %v", p.Name, s.MountedOn, p.MountedOn)
		}
		if p.MountedOn != nil {
			mounted++
		}
	}
	if gone, err := st.Blades(ctx, sh.ID, store.Place{Retired: true}, 0); err != nil || mounted != 2 || len(gone) != 1 || gone[0].Retired.Reason != "lost" {
		t.Errorf("%d mounted, retired %+v, %v", mounted, gone, err)
	}
}

// What comes off is off; a photo is kept, replaced and thrown away; a mounting
// is one a saw.
func TestOffPhotosAndMountings(t *testing.T) {
	ctx, st := t.Context(), pgtest.Store(t)
	sh, saws, b := furnished(t, st, "a")
	for i, kind := range []history.Kind{history.KindMounted, history.KindCut, history.KindDismounted} {
		e := store.Entry{Shop: sh.ID, At: time.Now(), Kind: kind, Blade: &b.ID, Saw: &saws[0].ID}
		if _, err := st.Append(ctx, e); err != nil {
			t.Fatal(err)
		}
		w, err := st.Saw(ctx, sh.ID, saws[0].ID)
		if err != nil || (w.Mounted != nil) != (i < 2) {
			t.Errorf("after %s the saw has %v on it, %v", kind, w.Mounted, err)
		}
	}
	at := time.Date(2026, 5, 1, 8, 0, 0, 0, time.UTC)
	for _, raw := range [][]byte{[]byte("one"), []byte("another")} {
		if err := st.SetPhoto(ctx, sh.ID, b.ID, at, raw); err != nil {
			t.Fatal(err)
		}
		if got, err := st.Photo(ctx, sh.ID, b.ID); err != nil || !bytes.Equal(got, raw) {
			t.Errorf("the photo is %q, %v", got, err)
		}
	}
	if got, _ := st.Blade(ctx, sh.ID, b.ID); got.PhotoAt == nil || !got.PhotoAt.Equal(at) {
		t.Errorf("a photo at %v", got.PhotoAt)
	}
	if err := st.DropPhoto(ctx, sh.ID, b.ID); err != nil {
		t.Fatal(err)
	}
	if _, err := st.Photo(ctx, sh.ID, b.ID); !errors.Is(err, store.ErrNone) {
		t.Errorf("a photo that was thrown away: %v", err)
	}
	start := func(blade uuid.UUID) store.Mounting {
		t.Helper()
		m, err := st.StartMounting(ctx, store.Mounting{ID: uuid.New(), Shop: sh.ID, Saw: saws[0].ID, Blade: blade, Started: at})
		if err != nil {
			t.Fatal(err)
		}
		return m
	}
	other := b
	other.ID, other.Name = uuid.New(), "Other"
	if err := st.AddBlade(ctx, sh.ID, other); err != nil {
		t.Fatal(err)
	}
	first, again, instead := start(b.ID), start(b.ID), start(other.ID)
	all, err := st.Mountings(ctx, sh.ID)
	if first.ID != again.ID || instead.ID == first.ID || err != nil || len(all) != 1 || all[0].Blade != other.ID {
		t.Errorf("first %v, again %v, then %v; under way %+v, %v", first.ID, again.ID, instead.ID, all, err)
	}
	if _, err := st.Mounting(ctx, uuid.New(), instead.ID); !errors.Is(err, store.ErrNone) {
		t.Errorf("another shop's mounting: %v", err)
	}
}
