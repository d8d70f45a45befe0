package mount

import (
	"fmt"
	"strings"
	"testing"

	"corte/core/blade"
	"corte/core/groove"
	"corte/core/saw"
	"corte/core/say"
)

func titles(c Case) (ids []string, all string) {
	for _, s := range Steps(c) {
		ids = append(ids, s.ID)
		all += fmt.Sprint(s.Title, s.Text, s.Caution, s.Checks)
	}
	return ids, all
}

// Only the steps that apply appear, power always first, and what the log knows
// adds its own.
func TestStepsFollowTheSawAndTheBlade(t *testing.T) {
	b := blade.Blade{Diameter: 254, Bore: 15.875, Kerf: 3.2, Teeth: 24, Grind: blade.FTG}
	table := saw.Saw{Kind: saw.Table, Volts: 120, Knife: 2.3, Arbor: 15.875}
	braked := table
	braked.Brake = &saw.Brake{}
	dado := blade.Blade{Make: blade.Dado, Diameter: 203, Bore: 15.875, Kerf: 6.4, Teeth: 24, Grind: blade.FTG}
	way := &groove.Way{Clocked: true, Arbor: &groove.Arbor{WasherOff: true}, Insert: &groove.Insert{Width: 9.7, Length: 78, Fence: 10.1},
		Slots: []groove.Slot{{What: "left", Thickness: 3.2}, {What: "shim", Thickness: 0.1}, {What: "chipper", Thickness: 3.2}, {What: "right", Thickness: 3.2}}}
	known, unread := b, b
	known.MaxRPM, unread.MaxRPM, unread.HookUnknown = 7000, 7000, true
	left := table
	left.Thread = saw.LeftHand
	for name, tt := range map[string]struct {
		c           Case
		has, hasnot string // step ids
		says, never string
	}{
		"a table saw":     {Case{Saw: table, Blade: b}, "knife", "brake", "throat plate out", "battery"},
		"with a brake":    {Case{Saw: braked, Blade: b}, "brake", "oil", "cartridge", "lower guard"},
		"a miter saw":     {Case{Saw: saw.Saw{Kind: saw.Miter, Volts: 120}, Blade: b}, "lock", "knife", "cover plate", "hroat plate"},
		"a circular saw":  {Case{Saw: saw.Saw{Kind: saw.Circular, Volts: 36}, Blade: b}, "close", "knife", "battery", "hroat plate"},
		"no limit noted":  {Case{Saw: saw.Saw{Kind: saw.Table, Volts: 120, RPM: 4000}, Blade: b}, "limits", "brake", "plate say 4000 rpm or more?", "lies along"},
		"a limit noted":   {Case{Saw: table, Blade: known}, "look", "limits", "chipped or loose", "rpm"},
		"no hook read":    {Case{Saw: saw.Saw{Kind: saw.Miter, Volts: 120}, Blade: unread}, "limits", "knife", "lean back from it?", "rpm or more"},
		"on a table":      {Case{Saw: table, Blade: unread}, "look", "limits", "throat plate out", "lean back"},
		"power unknown":   {Case{Saw: saw.Saw{Kind: saw.Circular}, Blade: b}, "close", "brake", "If it has both, do both", "hroat plate"},
		"a known chip":    {Case{Saw: table, Blade: known, Chipped: true}, "look", "oil", "Is it no worse", "none chipped or loose"},
		"no knife noted":  {Case{Saw: saw.Saw{Kind: saw.Table, Volts: 120}, Blade: known}, "knife", "brake", "Fit one that is thicker", "3 to 8 mm behind"},
		"a new blade":     {Case{Saw: table, Blade: b, New: true}, "oil", "numbers", "Oil off", "Measure it again"},
		"back from grind": {Case{Saw: table, Blade: b, Back: true}, "numbers", "oil", "a little smaller", "stains wood"},
		"unused for long": {Case{Saw: table, Blade: b, LongAgo: true}, "look", "oil", "unused for long", "battery"},
		"something on it": {Case{Saw: table, Blade: b, Off: "Chorus"}, "off", "oil", "Take off Chorus", "battery"},
		"a left thread":   {Case{Saw: left, Blade: b}, "undo", "off", "turn it clockwise to undo", "counterclockwise"},
		"a dado set":      {Case{Saw: table, Blade: dado}, "order", "knife", "push blocks", "Guard on."},
		"braked, a set":   {Case{Saw: braked, Blade: dado, Way: way}, "insert", "close", "Left outer blade, shim 0.1 mm, chipper 3.2 mm, right outer blade.", "the one for a single blade"},
		"a dial set":      {Case{Saw: table, Blade: dado, Way: &groove.Way{Says: say.Of("2 cutters, the dial at 1.50 turns")}}, "order", "clock", "the dial at 1.50 turns. Don't overtighten", "shim 0"},
		"a wheel":         {Case{Saw: saw.Saw{Kind: saw.Circular}, Blade: blade.Blade{Make: blade.Diamond, Diameter: 184}}, "teeth", "knife", "Direction of the arrow", "loose tip"},
	} {
		ids, all := titles(tt.c)
		list := " " + strings.Join(ids, " ") + " "
		if ids[0] != "power" || ids[len(ids)-1] != "test" || !strings.Contains(list, " "+tt.has+" ") || strings.Contains(list, " "+tt.hasnot+" ") {
			t.Errorf("%s: steps %v", name, ids)
		}
		if !strings.Contains(all, tt.says) || strings.Contains(all, tt.never) {
			t.Errorf("%s says %s", name, all)
		}
		for _, s := range Steps(tt.c) {
			for _, c := range s.Checks {
				if !strings.HasSuffix(c.Ask.String(), "?") || c.IfNot.Zero() {
					t.Errorf("%s: check %+v has no way out", name, c)
				}
			}
		}
	}
}
