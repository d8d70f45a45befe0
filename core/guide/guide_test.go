package guide

import (
	"math"
	"strings"
	"testing"

	"corte/core/cut"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/saw"
)

func TestTheRightCautionAtTheRightSaw(t *testing.T) {
	for name, tt := range map[string]struct {
		s     saw.Kind
		j     cut.Job
		says  []string
		never string
		show  string
	}{
		"rip on a table":        {saw.Table, cut.Job{}, []string{"Riving knife", "push block"}, "gauge", "up"},
		"crosscut on a table":   {saw.Table, cut.Job{Direction: cut.Crosscut}, []string{"never together with the fence"}, "push block", "up"},
		"sheet on a table":      {saw.Table, cut.Job{Direction: cut.Sheet}, []string{"both halves"}, "gauge", "up"},
		"across with a walker":  {saw.Circular, cut.Job{Direction: cut.Crosscut}, []string{"between two supports"}, "fence", "down"},
		"a chop":                {saw.Miter, cut.Job{Direction: cut.Crosscut, Motion: cut.Chop}, []string{"until it has stopped"}, "Riving", "up"},
		"a push":                {saw.Miter, cut.Job{Direction: cut.Crosscut, Motion: cut.Push}, []string{"front to back", "never climb"}, "Riving", "down"},
		"aluminium on a table":  {saw.Table, cut.Job{Direction: cut.Crosscut, Material: material.Material{Kind: material.SoftMetal}}, []string{"Face shield", "no wood dust"}, "melts", "up"},
		"acrylic on a table":    {saw.Table, cut.Job{Direction: cut.Crosscut, Material: material.Material{Kind: material.Plastic}}, []string{"melts"}, "shield", "up"},
		"tile with a hand saw":  {saw.Circular, cut.Job{Direction: cut.Crosscut, Material: material.Material{Kind: material.Mineral}}, []string{"silica"}, "melts", "down"},
		"steel with a hand saw": {saw.Circular, cut.Job{Direction: cut.Crosscut, Material: material.Material{Kind: material.Steel}}, []string{"made for steel"}, "silica", "down"},
	} {
		s := saw.Saw{Kind: tt.s}
		all := Cautions(tt.j, s)
		text := strings.Join(all, " ")
		if !strings.HasPrefix(all[0], "Plug out") || !strings.Contains(all[len(all)-1], "Eye, ear and lung") {
			t.Errorf("%s begins with %q and ends with %q", name, all[0], all[len(all)-1])
		}
		for _, want := range tt.says {
			if !strings.Contains(text, want) {
				t.Errorf("%s does not say %q: %s", name, want, text)
			}
		}
		if strings.Contains(text, tt.never) {
			t.Errorf("%s says %q, which is for another cut", name, tt.never)
		}
		for _, c := range all {
			if len(c) > 120 {
				t.Errorf("%s: too long to read beside a saw: %q", name, c)
			}
		}
		if got := ShowFace(tt.j, s); got != tt.show {
			t.Errorf("%s: show face %s, want %s", name, got, tt.show)
		}
	}
}

// The fence rule, the stop block, the sled: craft section 5 in numbers.
func TestHoldSaysTheRuleThatApplies(t *testing.T) {
	table, miter, walker := saw.Saw{Kind: saw.Table}, saw.Saw{Kind: saw.Miter}, saw.Saw{Kind: saw.Circular}
	job := func(d cut.Direction, width, length, piece measure.Length) cut.Job {
		return cut.Job{Direction: d, Width: width, Length: length, Piece: piece}
	}
	for name, tt := range map[string]struct {
		s    saw.Saw
		j    cut.Job
		u    measure.Unit
		says string
		halt bool
	}{
		"wider than long":     {table, job(cut.Rip, 300, 200, 0), measure.Millimetre, "Use a sled", true},
		"a thin strip":        {table, job(cut.Rip, 12, 900, 0), measure.Millimetre, "the offcut", false},
		"near the blade":      {table, job(cut.Rip, 90, 900, 0), measure.Millimetre, "Push block from 150 mm", false},
		"fence for a cross":   {table, job(cut.Crosscut, 90, 900, 300), measure.Millimetre, "edge on it would be 90 mm, and 300 mm", true},
		"to length":           {table, job(cut.Crosscut, 400, 900, 300), measure.Millimetre, "the fence at 400 mm", false},
		"to length in inches": {table, job(cut.Crosscut, 400, 900, measure.Inches(12)), measure.Inch, `the fence at 16"`, false},
		"a narrow sheet":      {table, job(cut.Sheet, 600, 300, 0), measure.Millimetre, "Not along the fence", true},
		"a small piece":       {table, job(cut.Crosscut, 90, 900, 60), measure.Millimetre, "on a sled, under a clamp", true},
		"a small chop":        {miter, cut.Job{Direction: cut.Crosscut, Motion: cut.Chop, Width: 60, Length: 900, Piece: 40}, measure.Millimetre, "too short to hold", true},
		"over runners":        {walker, cut.Job{Direction: cut.Sheet, Bed: cut.Runners}, measure.Millimetre, "2 to 3 mm through", false},
		"both faces":          {table, cut.Job{BothFaces: true, Length: 900, Width: 90}, measure.Millimetre, "same face against the fence", false},
	} {
		found := false
		for _, a := range Hold(tt.j, tt.s, tt.u) {
			found = found || strings.Contains(a.Text, tt.says) && a.Halt == tt.halt
		}
		if !found {
			t.Errorf("%s: nobody says %q in %+v", name, tt.says, Hold(tt.j, tt.s, tt.u))
		}
	}
}

// A plan carries both halves; what binds, tips or falls is told apart, and the
// loads of a carried half add up to its weight.
func TestSupports(t *testing.T) {
	ply, err := material.Get("softwood-ply")
	if err != nil {
		t.Fatal(err)
	}
	b := Board{Material: ply, Thickness: 18, Span: 2440, Breadth: 1220, Line: 900}
	for _, line := range []measure.Length{300, 900, 1220, 2000} {
		b.Line = line
		p := PlanSupports(b, measure.Millimetre)
		if len(p.At) != 4 || p.Binds || p.Gap > 130 || p.Sag > sagMind {
			t.Errorf("at %v: %+v", line, p)
		}
		for _, h := range p.Halves {
			sum, moment := 0.0, 0.0
			for _, l := range h.Loads {
				sum, moment = sum+l.KG, moment+l.KG*l.At.Mm()
			}
			if h.Verdict != Carried || math.Abs(sum-h.KG) > 1e-9 || math.Abs(moment/sum-(h.From+h.To).Mm()/2) > 1e-6 {
				t.Errorf("at %v half %+v", line, h)
			}
		}
		if math.Abs(p.KG-29.47) > 0.01 {
			t.Errorf("a sheet of 18 mm ply weighs %v kg", p.KG)
		}
	}
	b.Line = 1200
	for name, tt := range map[string]struct {
		at    []measure.Length
		left  HalfVerdict
		right HalfVerdict
		binds bool
	}{
		"two trestles at the ends": {[]measure.Length{200, 2200}, Drops, Drops, true},
		"two close to the line":    {[]measure.Length{1100, 1300}, Tips, Tips, false},
		"all to the left":          {[]measure.Length{100, 1100}, Carried, Falls, true},
		"four":                     {[]measure.Length{250, 1140, 1260, 2190}, Carried, Carried, false},
	} {
		p := JudgeSupports(b, tt.at, measure.Millimetre)
		if p.Halves[0].Verdict != tt.left || p.Halves[1].Verdict != tt.right || p.Binds != tt.binds || len(p.Text) == 0 {
			t.Errorf("%s: %s, %s, binds %v, %v", name, p.Halves[0].Verdict, p.Halves[1].Verdict, p.Binds, p.Text)
		}
	}
	light := Board{Material: ply, Thickness: 18, Span: 900, Breadth: 120, Line: 450}
	if p := PlanSupports(light, measure.Millimetre); p.Binds || p.Gap >= 120 {
		t.Errorf("a light board wants its supports nearer: %+v", p)
	}
	if p := JudgeSupports(light, []measure.Length{90, 300, 600, 810}, measure.Millimetre); !strings.Contains(p.Text[0], "clamp it") {
		t.Errorf("a light board on supports far out: %v", p.Text)
	}
	short := PlanSupports(Board{Material: ply, Thickness: 18, Span: 1000, Breadth: 300, Line: 80}, measure.Millimetre)
	if !strings.Contains(strings.Join(short.Text, " "), "left piece is 80 mm: too short") {
		t.Errorf("a short piece: %v", short.Text)
	}
}
