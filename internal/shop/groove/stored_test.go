package groove

import (
	"encoding/json"
	"testing"

	"corte/core/blade"
	"corte/core/saw"
	"corte/core/verdict"
	"corte/internal/store"
	"corte/internal/testkit/golden"
)

// Of two flat blades the one that is kept for joints suits a groove better, else
// the sharper one.
func TestFlatter(t *testing.T) {
	sharp, worn, kept := store.Blade{}, store.Blade{}, store.Blade{}
	worn.Condition.WearM2, kept.Condition.WearM2 = 1, 2
	kept.KeptFor = blade.UseJoints
	for _, tt := range []struct {
		a, b store.Blade
		want bool
	}{{sharp, worn, true}, {worn, sharp, false}, {sharp, sharp, false}, {kept, sharp, true}, {sharp, kept, false}} {
		if flatter(tt.a, tt.b) != tt.want {
			t.Errorf("%v, %v: not %v", tt.a.Condition.WearM2, tt.b.Condition.WearM2, tt.want)
		}
	}
}

// How long an arbor is has to be known before a set is called fit for it.
func TestAnUnknownArborIsACaution(t *testing.T) {
	set := store.Blade{Blade: blade.Blade{Make: blade.Dado, Diameter: 203, Bore: 15.875, Kerf: 6.4, Teeth: 24, MaxRPM: 7000}}
	known := store.Saw{Name: "Long Table", Saw: saw.Saw{Kind: saw.Table, Diameter: 254, Arbor: 15.875, RPM: 4000, DadoSets: true, ArborLength: 44, Nut: 12}}
	noLength, noNut := known, known
	noLength.ArborLength, noNut.Nut = 0, 0
	for _, tt := range []struct {
		w    store.Saw
		want verdict.Verdict
	}{{known, verdict.Clear}, {noLength, verdict.Caution}, {noNut, verdict.Caution}} {
		if got := (DadoSet{}).on(tt.w, set); got.Verdict != tt.want {
			t.Errorf("arbor %v, nut %v: %v, %s", tt.w.ArborLength, tt.w.Nut, got.Verdict, got.Says)
		}
	}
}

// What the first edition kept of a groove is read field by field, and kept
// again as it was.
func TestAnAskIsReadAsItWasOnceKept(t *testing.T) {
	var k storedAsk
	golden.Stored(t, "testdata/asked.json", &k)
	ask := k.ask()
	golden.Full(t, &ask)
	c := scene{ask: ask}
	c.piece.Thickest, c.want.Width, c.want.Depth = k.Piece, k.Target, k.Depth
	raw, err := c.keep()
	was, _ := json.Marshal(k)
	if err != nil || string(raw) != string(was) {
		t.Errorf("%v; kept again as %s", err, raw)
	}
}
