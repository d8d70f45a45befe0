package shop_test

import (
	"encoding/json"
	"slices"
	"testing"
	"time"

	"corte/core/care"
	"corte/core/history"
	shopcare "corte/internal/shop/care"
	"corte/internal/store"
)

// On the way from a complaint to the saw doctor, a saw is true when both its
// heel and its run-out were found so.
func TestASawIsTrueByAllItsTests(t *testing.T) {
	f, ctx := open(t), t.Context()
	on := f.blade["Chorus"].ID // on the table saw
	if _, err := f.Care.Judge(ctx, f.id, on, "dull", "", ""); err != nil {
		t.Fatal(err)
	}
	for _, tt := range []struct {
		kind    history.Kind
		verdict string
		aligned bool
	}{
		{history.KindMoved, "", false},
		{history.KindHeel, "clear", false},
		{history.KindRunOut, "caution", false},
		{history.KindRunOut, "clear", true},
		{history.KindHeel, "stop", false},
	} {
		raw, _ := json.Marshal(history.Truing{Figure: 0.02, Unit: "mm", Verdict: tt.verdict})
		saw := f.saws["table"].ID
		if _, err := f.st.Append(ctx, store.Entry{Shop: f.id, At: time.Now(), Kind: tt.kind, Saw: &saw, Detail: raw}); err != nil {
			t.Fatal(err)
		}
		all, err := f.Care.All(ctx, f.id)
		if err != nil {
			t.Fatal(err)
		}
		b := all.Blades[slices.IndexFunc(all.Blades, func(b shopcare.BladeCare) bool { return b.Blade.ID == on })]
		i := slices.IndexFunc(b.Path, func(s care.Step) bool { return s.ID == "align" })
		if i < 0 || b.Path[i].Done != tt.aligned {
			t.Errorf("after %s %q: %+v", tt.kind, tt.verdict, b.Path)
		}
	}
}

// A blade's price against one that is thrown away: asked with figures of one's
// own, with those of the shop, and where one of the two is not known.
func TestMoneyIsComparedWhereItIsKnown(t *testing.T) {
	f, ctx := open(t), t.Context()
	ask := func(a shopcare.MoneyAsk, price float64) shopcare.Money {
		t.Helper()
		b, err := f.Rack.Blade(ctx, f.id, f.blade["Quill"].ID)
		if err != nil {
			t.Fatal(err)
		}
		b.Price = price
		if _, err := f.Rack.ChangeBlade(ctx, f.id, b); err != nil {
			t.Fatal(err)
		}
		m, err := f.Care.Money(ctx, f.id, b.ID, a)
		if err != nil {
			t.Fatal(err)
		}
		return m
	}
	if m := ask(shopcare.MoneyAsk{Sharpenings: 0, CheapPrice: 24, CheapLife: 0.5}, 98); m.Dear.Sharpenings != 0 || m.Dear.Price != 98 || m.Cheap.Price != 24 || m.Cheap.LifeM != m.LifeM/2 || len(m.Line) == 0 {
		t.Errorf("never sharpened, against a cheap one: %+v", m)
	}
	if m := ask(shopcare.MoneyAsk{Price: 120, Sharpenings: 2}, 98); m.Dear.Price != 120 || m.Dear.Sharpenings != 2 || m.Cheap.Price != 0 || len(m.Line) != 0 {
		t.Errorf("against nothing: %+v", m)
	}
	if m := ask(shopcare.MoneyAsk{CheapPrice: 24, CheapLife: 0.5}, 0); m.Cheap.Price != 0 || len(m.Line) != 0 || m.Pays != nil {
		t.Errorf("of a blade without a price: %+v", m)
	}
}
