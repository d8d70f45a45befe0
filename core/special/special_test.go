package special

import (
	"errors"
	"fmt"
	"math"
	"strings"
	"testing"

	"corte/core/blade"
	"corte/core/fault"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/saw"
	"corte/core/say"
	"corte/core/verdict"
)

var (
	table  = saw.Saw{Kind: saw.Table, Diameter: 254, Arbor: 15.875, RPM: 4000, MotorW: 1300, Volts: 120, BreakerA: 15, Reach: 79, Reach45: 54, Knife: 2.3}
	slider = saw.Saw{Kind: saw.Miter, Sliding: true, Diameter: 305, Arbor: 25.4, RPM: 4000, MotorW: 1500, Reach: 98, Turn: 50, Tilt: 48}
	hand   = saw.Saw{Kind: saw.Circular, Diameter: 184, Arbor: 15.875, RPM: 5200, MotorW: 1200, Reach: 63}
	flat   = blade.Blade{Diameter: 254, Bore: 15.875, Kerf: 3.2, Plate: 2.2, Teeth: 24, Grind: blade.FTG, Hook: 20}
	small  = blade.Blade{Diameter: 184, Bore: 15.875, Kerf: 1.8, Plate: 1.2, Teeth: 24, Grind: blade.ATB, Bevel: 15, Hook: 18}
)

func said(p Plan) string {
	v := say.Voice{}
	return strings.Join(append(append(v.Each(p.Steps), v.Each(p.Never)...), v.Say(p.Stop), v.Say(p.WayOut)), " ")
}

// Figures worked by hand from the formulas of craft section 19.
func TestFigures(t *testing.T) {
	oak, _ := material.Get("red-oak")
	for name, tt := range map[string]struct {
		a    Ask
		want []float64
		says string
	}{
		// 2·√(21·163) = 117.013, 2·√(3·181) = 46.605, half of the difference 35.204
		"plunge through 18 mm":       {Ask{Kind: Plunge, Saw: hand, Blade: small, Thickness: 18, Height: 21, Length: 300}, []float64{117.013, 46.605, 35.204}, "mark 35.2 mm past it"},
		"plunge, not through":        {Ask{Kind: Plunge, Saw: hand, Blade: small, Thickness: 30, Height: 21, Length: 300}, []float64{117.013}, "cut forward only"},
		"taper 60 to 30 over 700":    {Ask{Kind: Taper, Saw: table, Blade: flat, Width: 60, Narrow: 30, Length: 700}, []float64{2.4540, 30, 30}, "toggle clamps"},
		"the jig at 300":             {Ask{Kind: Taper, Saw: table, Blade: flat, Width: 60, Narrow: 30, Length: 700, Known: 300}, []float64{2.4540, 12.857, 30}, ""},
		"cove 80 wide, 12 deep":      {Ask{Kind: Cove, Saw: table, Blade: flat, Width: 80, Depth: 12, Thickness: 25}, []float64{46.772, 107.778 + 2.0}, ""},
		"hopper of 4, upright":       {Ask{Kind: Hopper, Saw: table, Blade: flat, SlopeDeg: 90, Sides: 4}, []float64{0, 45}, "two scraps"},
		"hopper of 6 at 60":          {Ask{Kind: Hopper, Saw: table, Blade: flat, SlopeDeg: 60, Sides: 6}, []float64{16.102, 25.659}, ""},
		"crown 38, square":           {Ask{Kind: Crown, Saw: slider, Blade: flat, SpringDeg: 38, CornerDeg: 90}, []float64{31.62, 33.86}, "lies flat"},
		"crown 45, square":           {Ask{Kind: Crown, Saw: slider, Blade: flat, SpringDeg: 45, CornerDeg: 90}, []float64{35.264, 30}, ""},
		"stopped, 8 deep":            {Ask{Kind: Stopped, Saw: table, Blade: flat, Thickness: 18, Height: 8, Length: 300}, []float64{44.362, 44.362}, "44.4 mm before its center"},
		"round 30":                   {Ask{Kind: Round, Saw: slider, Blade: flat, Thickness: 30}, []float64{21.213}, "must not turn"},
		"resaw 120 of oak, 25 thick": {Ask{Kind: Resaw, Saw: table, Blade: flat, Material: oak, Width: 120, Length: 900, Thickness: 25}, []float64{58.5, 3, 10.9}, "tall fence"},
	} {
		p, err := Of(tt.a)
		if err != nil || p.Verdict == verdict.Stop {
			t.Errorf("%s: %v, %v %s", name, err, p.Verdict, p.Stop)
			continue
		}
		if name == "cove 80 wide, 12 deep" { // 2·√(12·242) = 107.777; asin(80/107.777)
			tt.want = []float64{degrees(math.Asin(80 / 107.7775)), 107.7775}
		}
		for i, want := range tt.want {
			f := p.Figures[i]
			if got := f.Deg + f.Length.Mm(); math.Abs(got-want) > 0.01 {
				t.Errorf("%s: %s is %v, want %v", name, f.Name, got, want)
			}
		}
		if len(p.Never) == 0 || len(p.Steps) < 3 || len(p.Cautions) == 0 || !strings.Contains(said(p), tt.says) {
			t.Errorf("%s: %q", name, said(p))
		}
	}
}

// Passes rise to the depth that is wanted, each within what it may take.
func TestPasses(t *testing.T) {
	for deep := measure.Length(1); deep < 30; deep += 0.7 {
		p, err := Of(Ask{Kind: Cove, Saw: table, Blade: flat, Width: 20, Depth: deep, Thickness: 60})
		if err != nil || p.Verdict == verdict.Stop {
			t.Fatalf("%v: %v %s", deep, err, p.Stop)
		}
		last := measure.Length(0)
		for i, x := range p.Passes {
			most := coveBite
			if i == len(p.Passes)-1 {
				most = coveLast
			}
			if d := x.Height - last; !(d > 0) || d > most+1e-9 {
				t.Errorf("%v deep: pass %d takes %v", deep, i, d)
			}
			last = x.Height
		}
		if last != deep {
			t.Errorf("%v deep: ends at %v", deep, last)
		}
	}
	oak, _ := material.Get("red-oak")
	weak, pine := table, oak
	weak.MotorW = 300
	pine.Density = 400
	n := map[string]int{}
	for name, a := range map[string]Ask{"oak": {Saw: table, Material: oak}, "weak": {Saw: weak, Material: oak}, "pine": {Saw: table, Material: pine}} {
		a.Kind, a.Blade, a.Width, a.Length, a.Thickness = Resaw, flat, 140, 900, 30
		p, err := Of(a)
		if err != nil || p.Verdict == verdict.Stop || math.Abs((p.Passes[len(p.Passes)-1].Height-68.5).Mm()) > 1e-9 {
			t.Fatalf("%s: %v %s %v", name, err, p.Stop, p.Passes)
		}
		if p.PowerW > 0.72*a.Saw.PowerLimitW() {
			t.Errorf("%s: a pass asks %v W", name, p.PowerW)
		}
		n[name] = len(p.Passes)
	}
	if n["weak"] <= n["oak"] || n["pine"] > n["oak"] || n["oak"] < 2 || n["oak"] > 4 {
		t.Errorf("heights: %v", n)
	}
}

// Each kind of saw has its own cuts.
func TestKinds(t *testing.T) {
	for k, want := range map[saw.Kind]string{saw.Circular: "[plunge]", saw.Miter: "[hopper crown round]", saw.Table: "[taper cove hopper crown resaw stopped round]"} {
		if got := fmt.Sprint(Kinds(k)); got != want {
			t.Errorf("%s: %s, want %s", k, got, want)
		}
	}
}

// What rules a cut out is said, with what to do instead; a wrong number is refused
// by its field; and no part is named that the saw has not.
func TestWhatMayNotBe(t *testing.T) {
	bare := table
	bare.Knife = 0
	oak, _ := material.Get("red-oak")
	for name, tt := range map[string]struct {
		a     Ask
		field string // of a refusal
		says  string
	}{
		"an opening too short":    {Ask{Kind: Plunge, Saw: hand, Blade: small, Thickness: 18, Height: 21, Length: 100}, "", "overcut the corners"},
		"a plunge on a table":     {Ask{Kind: Plunge, Saw: table, Blade: flat, Thickness: 18, Height: 21, Length: 300}, "saw", "choose another saw"},
		"deeper than it reaches":  {Ask{Kind: Plunge, Saw: hand, Blade: small, Thickness: 60, Height: 64, Length: 300}, "height", "between 1 mm and 63 mm"},
		"too steep a taper":       {Ask{Kind: Taper, Saw: table, Blade: flat, Width: 200, Narrow: 10, Length: 600}, "", "too steep"},
		"wider at the narrow end": {Ask{Kind: Taper, Saw: table, Blade: flat, Width: 60, Narrow: 61, Length: 600}, "narrow end", "between"},
		"too wide a cove":         {Ask{Kind: Cove, Saw: table, Blade: flat, Width: 120, Depth: 12, Thickness: 25}, "", "wider than this blade makes"},
		"a cove through":          {Ask{Kind: Cove, Saw: table, Blade: flat, Width: 60, Depth: 12, Thickness: 14}, "thickness", "between"},
		"two sides":               {Ask{Kind: Hopper, Saw: table, Blade: flat, SlopeDeg: 60, Sides: 2}, "sides", "between 3 and 60"},
		"a tilt past the saw":     {Ask{Kind: Hopper, Saw: table, Blade: flat, SlopeDeg: 90, Sides: 3}, "", "tilts to 45°"},
		"a turn past the saw":     {Ask{Kind: Crown, Saw: table, Blade: flat, SpringDeg: 60, CornerDeg: 60}, "", "turns to 45°"},
		"a flat corner":           {Ask{Kind: Crown, Saw: slider, Blade: flat, SpringDeg: 38, CornerDeg: 180}, "corner", "between 20 and 179"},
		"too wide to resaw":       {Ask{Kind: Resaw, Saw: table, Blade: flat, Material: oak, Width: 162, Length: 900, Thickness: 25}, "", "band saw"},
		"too short to resaw":      {Ask{Kind: Resaw, Saw: table, Blade: flat, Material: oak, Width: 100, Length: 299, Thickness: 25}, "", "longer board"},
		"resaw of nothing":        {Ask{Kind: Resaw, Saw: table, Blade: flat, Width: 100, Length: 900, Thickness: 25}, "material", "the wood you resaw"},
		"a stopped cut through":   {Ask{Kind: Stopped, Saw: table, Blade: flat, Thickness: 18, Height: 18, Length: 300}, "", "goes through"},
		"a trunk":                 {Ask{Kind: Round, Saw: slider, Blade: flat, Thickness: 120}, "", "thicker than this saw"},
		"a length that is none":   {Ask{Kind: Round, Saw: slider, Blade: flat, Thickness: measure.Length(math.NaN())}, "thickness", "between"},
	} {
		p, err := Of(tt.a)
		var f *fault.Error
		switch {
		case tt.field == "" && (err != nil || p.Verdict != verdict.Stop || !strings.Contains(said(p), tt.says) || p.WayOut.Zero() || len(p.Figures)+len(p.Steps)+len(p.Passes) > 0):
			t.Errorf("%s: %v, %v %q", name, err, p.Verdict, said(p))
		case tt.field != "" && (!errors.As(err, &f) || f.Where != tt.field || !strings.Contains(err.Error(), tt.says)):
			t.Errorf("%s: %v", name, err)
		}
	}
	for _, a := range []Ask{{Kind: Cove, Saw: bare, Blade: flat, Width: 60, Depth: 12, Thickness: 25}, {Kind: Resaw, Saw: bare, Blade: flat, Material: oak, Width: 100, Length: 900, Thickness: 25}, {Kind: Plunge, Saw: hand, Blade: small, Thickness: 18, Height: 21, Length: 300}} {
		if p, err := Of(a); err != nil || strings.Contains(said(p), "knife") {
			t.Errorf("a %s without a riving knife: %v, %q", a.Kind, err, said(p))
		}
	}
}
