package joint_test

import (
	"errors"
	"fmt"
	"testing"

	"corte/core/blade"
	"corte/core/fault"
	"corte/core/joint"
	"corte/core/measure"
	"corte/core/saw"
	"corte/internal/testkit/golden"
)

var (
	table = saw.Saw{Kind: saw.Table, Diameter: 254, Least: 180, Arbor: 15.875, RPM: 4000, MotorW: 1300, Volts: 120, BreakerA: 15, Reach: 79, Reach45: 57, DadoSets: true}
	flat  = blade.Blade{Diameter: 254, Bore: 15.875, Kerf: 3.2, Plate: 2.2, Teeth: 30, Grind: blade.FTG, Hook: 20, MaxRPM: 7000}
)

// Every joint with blades that suit it and that do not; read over once and held
// to the letter.
func TestJointsAreAsTheyWereReadOver(t *testing.T) {
	mm := func(v float64) *measure.Length { l := measure.Length(v); return &l }
	ridged, tails := flat, flat
	ridged.Grind, ridged.Bevel, ridged.Teeth = blade.ATB, 15, 40
	tails.Grind, tails.Bevel, tails.Teeth = blade.OneWay, 8, 40
	var said []any
	for _, a := range []joint.Ask{
		{Kind: "tenon", Stock: 25, Tenon: 9, Length: 30}, {Kind: "tenon", Stock: 25, Tenon: 9, Length: 30, Off: mm(4)}, {Kind: "tenon", Stock: 25, Tenon: 9, Length: 3.2, Off: mm(0)}, {Kind: "tenon", Stock: 8, Tenon: 9, Length: 30},
		{Kind: "box", Width: 96, Room: 0.1, Stock: 12}, {Kind: "box", Width: 96, Slot: 8, Room: 0.1}, {Kind: "box", Width: 96, Slot: 3.22, Room: 0.1}, {Kind: "box", Width: 96, Slot: 3.221, Room: 0.1}, {Kind: "box", Width: 96, Slot: 3.18, Room: 0.1},
		{Kind: "box", Width: 96, Slot: 3.179, Room: 0.1}, {Kind: "box", Width: 101.7, Slot: 6.4, Room: 0.1, Gap: mm(0.9), Fingers: 3}, {Kind: "box", Width: 101.7, Slot: 6.4, Room: 0.1, Gap: mm(-0.4), Fingers: 3},
		{Kind: "box", Width: 101.7, Slot: 6.4, Room: 0.1, Gap: mm(0.1), Fingers: 1}, {Kind: "box", Width: 96, Slot: 6.4, Stock: 79}, {Kind: "box", Width: 96, Slot: 6.4, Stock: 78.9},
		{Kind: "tails", Stock: 19}, {Kind: "tails"}, {Kind: "slope", Edge: 40, Width: 15, Depth: 9, SlopeDeg: 12}, {Kind: "slope", Edge: 40, Width: 15, Depth: 9, SlopeDeg: 80},
		{Kind: "fold", Stock: 12, Radius: 150, BendDeg: 90}, {Kind: "fold", Stock: 4, Skin: 0.6, Radius: 60, BendDeg: 60}, {Kind: "fold", Stock: 12, Radius: 2, BendDeg: 90}, {Kind: "biscuit"},
	} {
		for _, one := range []struct {
			name string
			b    blade.Blade
		}{{"flat", flat}, {"ridged", ridged}, {"tails", tails}} {
			p, err := joint.Of(a, joint.Tool{Blade: one.b, BladeName: one.name, Saw: table, SawName: "Long Table"})
			said = append(said, fmt.Sprint("== ", a.Kind, " ", one.name))
			var f *fault.Error
			if errors.As(err, &f) {
				said = append(said, f.Where+": "+f.Error())
			} else {
				said = append(said, p)
			}
		}
	}
	golden.Check(t, "joints", said...)
	for _, where := range []struct {
		tool  joint.Tool
		field string
	}{
		{joint.Tool{Blade: flat, Saw: saw.Saw{Kind: saw.Miter, Diameter: 254, Arbor: 15.875}}, "saw"},
		{joint.Tool{Blade: blade.Blade{Diameter: 305, Bore: 25.4, Kerf: 3, Teeth: 60, Grind: blade.FTG}, Saw: table}, "blade"},
	} {
		var f *fault.Error
		if _, err := joint.Of(joint.Ask{Kind: "tenon", Stock: 25, Tenon: 9, Length: 30}, where.tool); !errors.As(err, &f) || f.Where != where.field {
			t.Errorf("%+v", err)
		}
	}
}
