package mount

import (
	"fmt"
	"strings"
	"testing"

	"corte/core/blade"
	"corte/core/saw"
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
	left := table
	left.Thread = saw.LeftHand
	for name, tt := range map[string]struct {
		c           Case
		has, hasnot string // step ids
		says, never string
	}{
		"a table saw":     {Case{Saw: table, Blade: b}, "knife", "brake", "insert out", "battery"},
		"with a brake":    {Case{Saw: braked, Blade: b}, "brake", "oil", "cartridge", "lower guard"},
		"a miter saw":     {Case{Saw: saw.Saw{Kind: saw.Miter, Volts: 120}, Blade: b}, "lock", "knife", "cover plate", "nsert"},
		"a circular saw":  {Case{Saw: saw.Saw{Kind: saw.Circular}, Blade: b}, "close", "knife", "battery", "nsert"},
		"a new blade":     {Case{Saw: table, Blade: b, New: true}, "oil", "numbers", "Oil off", "Measure it again"},
		"back from grind": {Case{Saw: table, Blade: b, Back: true}, "numbers", "oil", "a little smaller", "stains the work"},
		"hung long":       {Case{Saw: table, Blade: b, LongAgo: true}, "look", "oil", "hung long", "battery"},
		"something on it": {Case{Saw: table, Blade: b, Off: "Chorus"}, "off", "oil", "Chorus comes off", "battery"},
		"a left thread":   {Case{Saw: left, Blade: b}, "undo", "off", "turn it clockwise to undo", "counter-clockwise"},
		"a wheel":         {Case{Saw: saw.Saw{Kind: saw.Circular}, Blade: blade.Blade{Make: blade.Diamond, Diameter: 184}}, "teeth", "knife", "The arrow's way", "loose tip"},
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
				if !strings.HasSuffix(c.Ask, "?") || c.IfNot == "" {
					t.Errorf("%s: check %+v has no way out", name, c)
				}
			}
		}
	}
}
