package mount

import (
	"testing"

	"corte/core/blade"
	"corte/core/groove"
	"corte/core/saw"
	"corte/internal/testkit/golden"
)

// The cards of every kind of saw, blade and past; read over once and held to
// the letter.
func TestCardsAreAsTheyWereReadOver(t *testing.T) {
	b := blade.Blade{Diameter: 254, Bore: 15.875, Kerf: 3.2, Plate: 2.2, Teeth: 40, Grind: blade.ATB, Bevel: 15, Hook: 15, MaxRPM: 7000}
	unread := b
	unread.MaxRPM, unread.HookUnknown = 0, true
	dado := blade.Blade{Make: blade.Dado, Diameter: 203, Bore: 15.875, Kerf: 6.4, Teeth: 24, Grind: blade.FTG, MaxRPM: 7000}
	rim := blade.Blade{Make: blade.Diamond, Diameter: 184, Bore: 15.875, Kerf: 2.2, MaxRPM: 8300}
	table := saw.Saw{Kind: saw.Table, Diameter: 254, Arbor: 15.875, RPM: 4000, Volts: 120, BreakerA: 15, Knife: 2.3, Thread: saw.LeftHand, NutSide: saw.Left, TiltSide: saw.Left,
		Brake: &saw.Brake{MinKerf: 2, MaxKerf: 4, MinDiameter: 250, MaxDiameter: 260}, DadoSets: true, ArborLength: 44, Washer: 5, Nut: 12}
	plain := saw.Saw{Kind: saw.Table, Diameter: 254, Arbor: 15.875, RPM: 4000}
	miter := saw.Saw{Kind: saw.Miter, Diameter: 305, Arbor: 25.4, RPM: 3800, Volts: 120, BreakerA: 20, Lock: true, Thread: saw.LeftHand, BelowTable: 6}
	hand := saw.Saw{Kind: saw.Circular, Diameter: 184, Arbor: 15.875, RPM: 5200, Volts: 120, BreakerA: 15, Lock: true, Knockout: true, Wheels: true}
	way := &groove.Way{Clocked: true, Arbor: &groove.Arbor{WasherOff: true}, Insert: &groove.Insert{Width: 9.7, Length: 78, Fence: 10.1},
		Slots: []groove.Slot{{What: "left", Thickness: 3.2}, {What: "shim", Thickness: 0.1}, {What: "chipper", Thickness: 3.2}, {What: "right", Thickness: 3.2}}}
	crowded := *way
	crowded.Clocked = false
	for name, c := range map[string]Case{
		"table":            {Saw: table, Blade: b, Off: "Stagehand"},
		"table, new":       {Saw: table, Blade: unread, New: true},
		"table, back":      {Saw: plain, Blade: b, Back: true, Chipped: true},
		"table, long ago":  {Saw: plain, Blade: b, LongAgo: true, Bushing: true},
		"dado":             {Saw: table, Blade: dado, Way: way, Off: "Plough"},
		"dado, crowded":    {Saw: table, Blade: dado, Way: &crowded},
		"dado, no groove":  {Saw: table, Blade: dado},
		"miter":            {Saw: miter, Blade: b},
		"miter, unread":    {Saw: miter, Blade: unread, Bushing: true},
		"hand":             {Saw: hand, Blade: b, Off: "Trot"},
		"hand, a wheel":    {Saw: hand, Blade: rim, New: true},
		"hand, by battery": {Saw: saw.Saw{Kind: saw.Circular, Diameter: 165, Arbor: 20, RPM: 5000, Volts: 18, Thread: saw.RightHand}, Blade: b},
	} {
		golden.Check(t, name, Steps(c))
	}
}
