package store_test

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"

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

// What a key made is made once, all of it or nothing.
func TestOnceMakesOnce(t *testing.T) {
	ctx, st := t.Context(), pgtest.Store(t)
	sh, _, b := furnished(t, st, "a")
	key := store.IdempotencyKey{Key: "one key", Content: []byte("content")}
	made := 0
	var mu sync.Mutex
	create := func(tx *store.Store) (store.Made, error) {
		mu.Lock()
		made++
		mu.Unlock()
		one := b
		one.ID = uuid.New()
		return store.Made{RowID: &one.ID}, tx.AddBlade(ctx, sh.ID, one)
	}
	failed := errors.New("half way")
	if _, err := st.Once(ctx, sh.ID, key, func(tx *store.Store) (store.Made, error) {
		m, err := create(tx)
		return m, errors.Join(err, failed)
	}); !errors.Is(err, failed) {
		t.Fatal(err)
	}
	ids := make(chan uuid.UUID, 10)
	var wg sync.WaitGroup
	for range cap(ids) {
		wg.Go(func() {
			m, err := st.Once(ctx, sh.ID, key, create)
			if err != nil {
				t.Error(err)
				return
			}
			ids <- *m.RowID
		})
	}
	wg.Wait()
	close(ids)
	seen := map[uuid.UUID]bool{}
	for id := range ids {
		seen[id] = true
	}
	all, err := st.Rack(ctx, sh.ID)
	if len(seen) != 1 || made != 2 || err != nil || len(all) != 2 {
		t.Errorf("%d ids, made %d times (once it failed), %d blades, %v", len(seen), made, len(all), err)
	}
	if _, err := st.Once(ctx, sh.ID, store.IdempotencyKey{Key: key.Key, Content: []byte("other")}, create); !errors.Is(err, store.ErrKeyReused) {
		t.Errorf("the key with other content: %v", err)
	}
	// Another shop may use the same key.
	other, _, _ := furnished(t, st, "b")
	if _, err := st.Once(ctx, other.ID, store.IdempotencyKey{Key: key.Key, Content: []byte("other")}, func(*store.Store) (store.Made, error) {
		id := uuid.New()
		return store.Made{RowID: &id}, nil
	}); err != nil {
		t.Error(err)
	}
}

// pine is a cut of so many pieces of pine, each a metre long.
func pine(pieces int) []byte {
	raw, _ := json.Marshal(store.CutDetail{Material: "yellow-pine", Direction: "rip", Thickness: 38, Width: 90, Length: 1000, Pieces: pieces, Wall: "clean", Splinters: "none"})
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
			{Kind: store.KindCut, Saw: &saws[i%2].ID, Detail: pine(40 * (i + 1))},
			{Kind: store.KindJudged, Detail: []byte(`{"says": "dull"}`)},
			{Kind: store.KindInspected, Detail: []byte(`{"fault": "` + []string{"", "cracked"}[i%2] + `"}`)},
			{Kind: store.KindSent, Detail: []byte(`{"to": "the saw doctor"}`)},
		}[:1+i%4] {
			e.Shop, e.At, e.Blade = sh.ID, time.Now(), &one.ID
			if _, err := st.Append(ctx, store.IdempotencyKey{}, e); err != nil {
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
	for i, kind := range []store.Kind{store.KindMounted, store.KindCut, store.KindDismounted} {
		e := store.Entry{Shop: sh.ID, At: time.Now(), Kind: kind, Blade: &b.ID, Saw: &saws[0].ID}
		if _, err := st.Append(ctx, store.IdempotencyKey{}, e); err != nil {
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
	other.ID = uuid.New()
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
