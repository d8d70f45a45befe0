package word_test

import (
	"encoding"
	"errors"
	"fmt"
	"strings"
	"testing"

	"corte/core/blade"
	"corte/core/care"
	"corte/core/choose"
	"corte/core/cut"
	"corte/core/groove"
	"corte/core/material"
	"corte/core/saw"
	"corte/core/truing"
	"corte/core/verdict"
	"corte/core/word"
)

type named interface {
	~uint8
	fmt.Stringer
	encoding.TextMarshaler
}

type readable[T any] interface {
	*T
	encoding.TextUnmarshaler
}

// holds makes sure that every value from first to last is written and read
// again under its own name, and that no other is.
func holds[T named, P readable[T]](t *testing.T, first, last T) {
	t.Helper()
	seen := map[string]bool{}
	for v := first; v <= last; v++ {
		text, err := v.MarshalText()
		var back T
		if err != nil || string(text) != v.String() || seen[string(text)] || P(&back).UnmarshalText(text) != nil || back != v {
			t.Errorf("%T %d is %q and comes back as %d, %v", v, v, text, back, err)
		}
		seen[string(text)] = true
	}
	past := last + 1
	if s := past.String(); !strings.HasSuffix(s, fmt.Sprintf("(%d)", past)) {
		t.Errorf("%T past its last is %q", past, s)
	}
	if text, err := past.MarshalText(); err == nil {
		t.Errorf("%T past its last is kept as %q", past, text)
	}
	var unknown *word.UnknownError
	if err := P(&past).UnmarshalText([]byte("no such word")); !errors.As(err, &unknown) || len(unknown.Known) != int(last-first)+1 {
		t.Errorf("%T of no such word: %v", past, err)
	}
}

func TestEveryKindOfWord(t *testing.T) {
	holds(t, blade.FTG, blade.Conical)
	holds(t, blade.Toothed, blade.Abrasive)
	holds(t, blade.UseGeneral, blade.UseMineral)
	holds(t, blade.UnknownCarbide, blade.HardCarbide)
	holds(t, blade.UnknownGullet, blade.NarrowGullet)
	holds(t, care.Fine, care.Due)
	holds(t, choose.BySaw, choose.FullReach)
	holds(t, choose.RuleMake, choose.RulePush)
	holds(t, choose.TermFinish, choose.TermChange)
	holds(t, cut.Rip, cut.Sheet)
	holds(t, cut.Along, cut.Push)
	holds(t, cut.Rough, cut.Fine)
	holds(t, cut.Open, cut.Spare)
	holds(t, cut.Through, cut.Fold)
	holds(t, cut.Air, cut.Sacrifice)
	holds(t, cut.UnknownSide, cut.Right)
	holds(t, cut.Dry, cut.Frozen)
	holds(t, cut.ByScorch, cut.ByShoulder)
	holds(t, cut.Shut, cut.Roomy)
	holds(t, groove.Stacked, groove.Dialled)
	holds(t, groove.Glue, groove.Tap)
	holds(t, material.Softwood, material.Steel)
	holds(t, saw.Table, saw.Circular)
	holds(t, saw.UnknownThread, saw.LeftHand)
	holds(t, truing.Excellent, truing.Reject)
	holds(t, verdict.Clear, verdict.Stop)
	if g := blade.Grind(0); g.String() != "" || g.UnmarshalText(nil) != nil {
		t.Errorf("a disc without teeth has the grind %q", g)
	}
	const says = `unknown saw "band"; use table, miter or circular`
	if _, err := saw.ParseKind("band"); err == nil || err.Error() != says {
		t.Errorf("%v, not %s", err, says)
	}
}
