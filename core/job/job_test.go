package job

import (
	"math"
	"strings"
	"testing"

	"corte/core/cut"
	"corte/core/measure"
)

// row writes what matters of a row, in the order of a table.
func row(r Row) string { return strings.TrimRight(strings.Join(r.Cells(), "|"), "|") }

func faults(l Line) string {
	var all []string
	for _, f := range l.Faults {
		all = append(all, f.Field+": "+f.What.String())
	}
	return strings.Join(all, "; ")
}

func TestRead(t *testing.T) {
	for _, tt := range []struct {
		name, text string
		bare       measure.Unit
		want       []string // rows, or "! " and the faults
	}{
		{"a list as the issue has it", "Platforms:\n3 platforms, 18 × 800 birch ply, 1,200 long, show\n24 battens, 38 × 64 white pine, 1,200 long\n8 frame members, 900 long, mitred ends 45\n12 grooves 6 deep, 80 wide", measure.Millimetre, []string{
			"platforms|Platforms|3|birch-ply|sheet|show|18|800|1200",
			"battens|Platforms|24|white-pine|crosscut|show|38|64|1200",
			"frame members|Platforms|8|white-pine|crosscut|show|38|64|900||||45",
			"white pine|Platforms|12|white-pine|crosscut|hidden|38|80|900|groove|6",
		}},
		{"inches, and how many at the end", `rail, 3/4 x 3 1/2 oak, 36" long, rip, fine, 6 of them`, measure.Inch, []string{
			"rail||6|red-oak|rip|fine|19.049999999999997|88.89999999999999|914.4",
		}},
		{"three figures are a size, unless a length follows", "18 x 90 x 600 ash\n18 x 38 x 64 ash, 700 long", measure.Millimetre, []string{
			"ash||1|ash|crosscut|hidden|18|90|600", "ash||18|ash|crosscut|hidden|38|64|700",
		}},
		{"a strange wood is not taken for the one above", "2 sides, 20 × 100 cherry, 500 long\n2 lids, 20 × 100 elm, 400 long\n3 lids, 20 × 90 each, 300 long", measure.Millimetre, []string{
			"sides||2|cherry|crosscut|hidden|20|100|500", "! material: elm is not a material Corte knows. Use a name from the list of materials", "lids||3|cherry|crosscut|hidden|20|90|300",
		}},
		{"what a board is like is of that board", "2 rails, 38 × 90 spruce, 900 long, rip, wet, moves\n2 more, 800 long\n2 rails, 38 × 90 larch, 700 long", measure.Millimetre, []string{
			"rails||2|spruce|rip|hidden|38|90|900|||||wet|yes", "more||2|spruce|rip|hidden|38|90|800|||||wet|yes", "rails||2|larch|rip|hidden|38|90|700",
		}},
		{"a unit is no part of a word", "4 panels, 16 × 500 melamine board, 900 long, fine\n2 grooves in panels, 6 mm deep groove", measure.Millimetre, []string{
			"panels||4|melamine-board|sheet|fine|16|500|900", "in panels||2|melamine-board|sheet|hidden|16|500|900|groove|6",
		}},
		{"a form and an angle are of one row", "2 sides, 20 × 100 cherry, 500 long, bevel 30\n2 fronts", measure.Millimetre, []string{
			"sides||2|cherry|crosscut|hidden|20|100|500|||30", "fronts||2|cherry|crosscut|hidden|20|100|500",
		}},
		{"faults stand with their rows", "9 strips, 2000 × 40 elm, 600 long\nstrips, 20 × 40 beech, 25,000 long\n2 lids, 20 × 40 beech, 60 long, groove 20 deep", measure.Millimetre, []string{
			"! material: elm is not a material Corte knows. Use a name from the list of materials; thickness_mm: 2000 mm thick isn't possible. It must be between 0.5 mm and 400 mm",
			"! length_mm: 25000 mm long isn't possible. It must be between 1 mm and 20000 mm",
			"! depth_mm: a groove doesn't go through. Enter a depth less than the thickness",
		}},
		{"a table, its columns in any order", "Qty\tPart\tWood\tT\tW\tL\tCut\n24\tbatten\tpine\t38\t64\t1,200\trip\n\tlath\tditto\t12\t\t\t\n0\tbad\tmystery\tx\t\t\tsideways", measure.Millimetre, []string{
			"batten||24|white-pine|rip|hidden|38|64|1200", "lath||1|white-pine|rip|hidden|12|64|1200",
			`! pieces: 0 pieces isn't possible. Enter 1 to 9999; material: mystery is not a material Corte knows; thickness_mm: "x" is not a length: expected a number, such as 30 mm or 1 3/16"; direction: sideways isn't possible. Use rip, crosscut or sheet`,
		}},
		{"commas and quotes", "name,pieces,material,thickness_mm,width_mm,length_mm,moves\n\"door, left\",2,white oak,25,100,2000,yes", measure.Millimetre, []string{
			"door left||2|white-oak|crosscut|hidden|25|100|2000||||||yes",
		}},
	} {
		got := Read(tt.text, tt.bare, nil)
		if len(got) != len(tt.want) {
			t.Errorf("%s: %d rows, want %d", tt.name, len(got), len(tt.want))
			continue
		}
		for i, l := range got {
			have := row(l.Row)
			if len(l.Faults) > 0 {
				have = "! " + faults(l)
			}
			if have != tt.want[i] {
				t.Errorf("%s, row %d:\n got %s\nwant %s", tt.name, i+1, have, tt.want[i])
			}
		}
	}
}

// What Corte writes, it reads back.
func TestATableIsReadAsItWasWritten(t *testing.T) {
	for _, l := range Read("Set:\n24 battens, 38.5 × 64 Douglas fir, 1200 long, rip, fine, bevel 12.5, wet, moves\n2 lids, groove 6 deep, dry", measure.Millimetre, nil) {
		var table strings.Builder
		table.WriteString(strings.Join(Columns, ",") + "\n" + strings.Join(l.Row.Cells(), ",") + "\n")
		back := Read(table.String(), measure.Millimetre, nil)
		if len(back) != 1 || back[0].Row != l.Row || len(back[0].Faults) > 0 || len(l.Faults) > 0 {
			t.Errorf("wrote %+v\nread %+v", l.Row, back)
		}
	}
}

func TestTheRuleOfThumb(t *testing.T) {
	for _, tt := range []struct {
		r    Row
		want Stage
	}{
		{Row{Part: cut.Part{Direction: cut.Rip, Finish: cut.Rough}}, Rough},
		{Row{Part: cut.Part{Direction: cut.Sheet, Finish: cut.Rough}}, Rough},
		{Row{Part: cut.Part{Direction: cut.Rip, Finish: cut.Hidden}}, Rips},
		{Row{Part: cut.Part{Direction: cut.Crosscut, Finish: cut.Show}}, Crosscuts},
		{Row{Part: cut.Part{Direction: cut.Sheet, Finish: cut.Fine}}, Sheets},
		{Row{Part: cut.Part{Direction: cut.Crosscut, Finish: cut.Rough, Form: cut.Groove}}, Joints},
		{Row{Part: cut.Part{Direction: cut.Rip, Finish: cut.Rough}, Stage: Crosscuts}, Crosscuts},
	} {
		if got := tt.r.In(); got != tt.want {
			t.Errorf("%v: %v, want %v", tt.r, got, tt.want)
		}
	}
}

func TestTicksAddUpInAnyOrder(t *testing.T) {
	r := Row{Part: cut.Part{Pieces: 10}}
	for _, tt := range []struct {
		ticks []Tick
		want  Progress
	}{
		{nil, Progress{0, 0, 10}},
		{[]Tick{{3, 0}, {2, 1}}, Progress{5, 1, 5}},
		{[]Tick{{-1, 0}, {3, 0}}, Progress{2, 0, 8}},
		{[]Tick{{12, -1}}, Progress{12, 0, 0}},
	} {
		if got := r.After(tt.ticks); got != tt.want {
			t.Errorf("%v: %+v, want %+v", tt.ticks, got, tt.want)
		}
	}
}

func FuzzRead(f *testing.F) {
	f.Add("24 of them, 38 × 64 white pine, 1,200 long", true)
	f.Add("qty;part;wood\n1;a;\"b", false)
	f.Fuzz(func(t *testing.T, text string, inches bool) {
		bare := measure.Millimetre
		if inches {
			bare = measure.Inch
		}
		for _, l := range Read(text, bare, nil) {
			r := l.Row
			if len(l.Faults) == 0 && (r.Pieces < 1 || r.Material == "" || !(r.Thickness >= 0.5 && r.Length <= 20_000 && r.Width >= 1) || r.Form != cut.Through && r.Depth >= r.Thickness) {
				t.Errorf("%q passed as %+v", l.Text, r)
			}
		}
	})
}

func TestThePaceOfAShop(t *testing.T) {
	near := func(a, b float64) bool { return math.Abs(a-b) < 1e-9 }
	if p := Learn(nil); p.Factor() != 1 || !near(p.SD, 0.35) || p.Rows != 0 {
		t.Errorf("of nothing: %+v", p)
	}
	// By hand: prior 1/0.35² = 8.163, a row 1/0.4² = 6.25; ln 2 once gives 6.25 ln 2 / 14.413.
	one := Learn([]Took{{10, 20}, {0, 5}, {5, 0}})
	if !near(one.Ln, 6.25*math.Ln2/(1/0.1225+6.25)) || one.Rows != 1 {
		t.Errorf("of one row: %+v", one)
	}
	many := Learn([]Took{{10, 20}, {10, 20}, {10, 20}, {10, 20}, {1, 2}, {30, 60}})
	low, high := many.Range()
	if many.Factor() <= one.Factor() || many.Factor() >= 2 || many.SD >= one.SD || low >= many.Factor() || high <= many.Factor() {
		t.Errorf("of many: %+v", many)
	}
	if slow := Learn([]Took{{20, 10}}); !near(slow.Ln, -one.Ln) {
		t.Errorf("quicker: %+v", slow)
	}
}

// A row is refused just past each of its bounds, and not at them.
func TestTheBoundsOfARow(t *testing.T) {
	good := Read("2 rails, 20 × 100 ash, 900 long, groove 6 deep", measure.Millimetre, nil)[0].Row
	for _, tt := range []struct {
		field  string
		set    func(*Row, float64)
		at     []float64 // may be
		beyond []float64
	}{
		{"pieces", func(r *Row, v float64) { r.Pieces = int(v) }, []float64{1, 9999}, []float64{0, 10_000}},
		{"thickness_mm", func(r *Row, v float64) { r.Thickness, r.Form = measure.Length(v), cut.Through }, []float64{0.5, 400}, []float64{0.49, 400.1, math.NaN()}},
		{"width_mm", func(r *Row, v float64) { r.Width = measure.Length(v) }, []float64{1, 5000}, []float64{0.9, 5000.1}},
		{"length_mm", func(r *Row, v float64) { r.Length = measure.Length(v) }, []float64{1, 20_000}, []float64{0.9, 20_000.1}},
		{"depth_mm", func(r *Row, v float64) { r.Depth = measure.Length(v) }, []float64{0.5, 19.9}, []float64{0.49, 20}},
		{"bevel_deg", func(r *Row, v float64) { r.BevelDeg = v }, []float64{0, 60}, []float64{-0.1, 60.1}},
		{"miter_deg", func(r *Row, v float64) { r.MiterDeg = v }, []float64{0, 60}, []float64{-0.1, 60.1}},
	} {
		for past, all := range map[bool][]float64{false: tt.at, true: tt.beyond} {
			for _, v := range all {
				r := good
				tt.set(&r, v)
				got := r.Check()
				if past != (len(got) == 1 && got[0].Field == tt.field) || !past && len(got) > 0 {
					t.Errorf("%s of %v: %v", tt.field, v, got)
				}
			}
		}
	}
	if n := len(Read(strings.Repeat("rail, 20 × 100 ash, 900 long\n", 1001), measure.Millimetre, nil)); n != 1000 {
		t.Errorf("%d lines of 1001", n)
	}
	long := Read(strings.Repeat("ä", 70)+", 20 × 100 ash, 900 long", measure.Millimetre, nil)[0]
	if n := len([]rune(long.Row.Name)); n != 60 {
		t.Errorf("a name of %d letters", n)
	}
}
