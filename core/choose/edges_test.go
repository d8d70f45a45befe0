package choose

import (
	"testing"

	"corte/core/blade"
	"corte/core/care"
	"corte/core/cut"
	"corte/core/measure"
	"corte/core/saw"
)

// Rules and words at their very edges.
func TestEdges(t *testing.T) {
	for minutes, want := range map[float64]string{0: "under a minute", 0.749: "under a minute", 0.75: "1 min", 1.4: "1 min", 99.4: "99 min", 99.5: "1 h 40 min", 107: "1 h 47 min", 120: "2 h 00 min"} {
		if got := Took(minutes); got.String() != want {
			t.Errorf("%v minutes are %q", minutes, got)
		}
	}
	// Only a cut that goes through spoils what lies below it.
	below := request(t, "birch-ply", cut.Sheet, cut.Show).Job
	below.Bed, below.Thickness, below.Height = cut.Runners, 18, 22
	shallow, air := below, below
	shallow.Form, air.Bed = cut.Groove, cut.Air
	if !SpoilsBed(below) || SpoilsBed(shallow) || SpoilsBed(air) {
		t.Error("what spoils a bed")
	}
	// A change is counted once, and not for the blade that is on.
	change := Request{Job: below, ChangeMinutes: 4}
	change.Job.Pieces = 3
	took := Option{Minutes: cut.Minutes{Feeding: 2}}
	if on, off := change.total(took, Candidate{Mounted: true}), change.total(took, Candidate{}); on != 6 || off != 10 {
		t.Errorf("three pieces take %v with the blade that is on, %v with another", on, off)
	}
	// A calm hook is no matter on a slide, shoulders or none.
	for _, hook := range []float64{calmSlideHook, calmSlideHook + 0.5} {
		for _, shoulder := range []bool{true, false} {
			b := blade.Blade{Diameter: 305, Bore: 25.4, Kerf: 3, Teeth: 80, Grind: blade.ATB, Bevel: 15, Hook: hook, MaxRPM: 7000, Shoulder: shoulder}
			if n := len(MountMinds(b, slider)); (n == 0) != (hook == calmSlideHook) {
				t.Errorf("a hook of %v, shoulders %v: %d to mind", hook, shoulder, n)
			}
		}
	}
	steel := table
	steel.Steel, steel.RPM = true, 1600
	ferrous, abrasive := rip24, blade.Blade{Make: blade.Abrasive, Diameter: 254, Bore: 15.875, Kerf: 3}
	ferrous.Ferrous = true
	r := request(t, "steel", cut.Crosscut, cut.Hidden)
	for what, tt := range map[string]struct {
		s     saw.Saw
		b     blade.Blade
		stops bool
	}{
		"a wood saw":        {table, ferrous, true},
		"a wood blade":      {steel, rip24, true},
		"a blade for steel": {steel, ferrous, false},
	} {
		stopped := false
		for _, s := range Stops(tt.b, r.Job, tt.s) {
			stopped = stopped || s.Rule == RuleMaterial
		}
		if stopped != tt.stops {
			t.Errorf("%s on steel: stopped %v", what, stopped)
		}
	}
	wheels := steel
	wheels.Wheels = true
	for _, s := range Stops(abrasive, r.Job, wheels) {
		if s.Rule == RuleMaterial {
			t.Errorf("an abrasive wheel on steel: %s", s.Why)
		}
	}
	// A saw for steel goes too slow for wood, up to the speed that wood wants.
	wood := request(t, "cherry", cut.Rip, cut.Hidden).Job
	for rpm, slow := range map[float64]bool{1600: true, 4000: false} {
		s := steel
		s.RPM = rpm
		said := false
		for _, x := range minds(Request{Job: wood, Saw: s}, Candidate{Blade: rip24}, wood, cut.Figures{TeethInCut: 3}) {
			said = said || x.Rule == RuleSpeed
		}
		if said != slow || len(Stops(rip24, wood, s)) > 0 {
			t.Errorf("a saw for steel at %v rpm on wood: caution %v", rpm, said)
		}
	}
	// The saw's reach, to a hundredth.
	for thick, ok := range map[measure.Length]bool{77: true, 77.01: true, 77.03: false} {
		j := wood
		j.Thickness = thick
		if err := CheckJob(j, table); (err == nil) != ok && !needsBothFaces(j, table) {
			t.Errorf("%v on a saw that reaches 79: %v", thick, err)
		}
	}
	chops := slider
	j := request(t, "cherry", cut.Crosscut, cut.Hidden).Job
	j.Motion, j.Thickness = cut.Chop, 95
	if err := CheckJob(j, chops); err == nil {
		t.Error("stock past a miter saw's reach is taken")
	}
	// A tooth alone in thin stock grabs; in thicker stock, or two at once, none does.
	thin := request(t, "cherry", cut.Crosscut, cut.Hidden)
	for _, tt := range []struct {
		thick measure.Length
		teeth float64
		form  cut.Form
		minds bool
	}{{4, 1.99, cut.Through, true}, {4.01, 1.99, cut.Through, false}, {4, 2, cut.Through, false}, {4, 1.99, cut.Groove, false}} {
		thin.Job.Thickness, thin.Job.Form = tt.thick, tt.form
		said := false
		for _, s := range minds(thin, Candidate{Blade: rip24}, thin.Job, cut.Figures{TeethInCut: tt.teeth}) {
			said = said || s.Rule == RuleTeeth
		}
		if said != tt.minds {
			t.Errorf("%v teeth in %v: minded %v", tt.teeth, tt.thick, said)
		}
	}
	thin.Job.Form = cut.Through
	// Steep points in abrasive board, and only there.
	steep, mdf := fine80, request(t, "mdf", cut.Sheet, cut.Show).Job
	if f := fitnessOf(steep, mdf); f != fitSteep {
		t.Errorf("steep points in MDF: %v", f)
	}
	for _, id := range []string{"birch-ply", "melamine-board"} {
		if f := fitnessOf(steep, request(t, id, cut.Sheet, cut.Show).Job); f == fitSteep {
			t.Errorf("steep points in %s", id)
		}
	}
	// Burns at the bound are put down to thin chips, just under it they are a risk alone.
	o := Option{Figures: cut.Figures{Burn: 0.2}}
	if got := told(TermScorch, thin, Candidate{Blade: rip24}, o).String(); got != "thin chips: burn risk 20 %" {
		t.Errorf("at the bound: %s", got)
	}
	o.Figures.Burn = 0.199
	if got := told(TermScorch, thin, Candidate{Blade: rip24}, o).String(); got != "burn risk 20 %" {
		t.Errorf("under it: %s", got)
	}
	for burn, want := range map[float64]bool{0.0999: true, 0.1: false} {
		o.Figures.Burn = burn
		if good(TermScorch, o) != want {
			t.Errorf("a burn of %v is good: %v", burn, !want)
		}
	}
}

// Guards hold a blade to the knife and the brake at exactly what they allow.
func TestGuardsAtTheirBounds(t *testing.T) {
	s := saw.Saw{Kind: saw.Table, Knife: 2.3, Brake: &saw.Brake{MinKerf: 2.4, MaxKerf: 4.8, MinDiameter: 250, MaxDiameter: 260}}
	of := func(diameter, kerf, plate measure.Length) blade.Blade {
		return blade.Blade{Diameter: diameter, Kerf: kerf, Plate: plate}
	}
	for what, tt := range map[string]struct {
		b    blade.Blade
		rule Rule
	}{
		"the least kerf":            {of(254, 2.4, 2.2), 0},
		"the most kerf":             {of(254, 4.8, 2.2), 0},
		"a wider kerf":              {of(254, 4.81, 2.2), RuleBrake},
		"a narrower one":            {of(254, 2.39, 2.2), RuleBrake},
		"the least diameter":        {of(250, 3.2, 2.2), 0},
		"the most diameter":         {of(260, 3.2, 2.2), 0},
		"a larger one":              {of(260.1, 3.2, 2.2), RuleBrake},
		"a smaller one":             {of(249.9, 3.2, 2.2), RuleBrake},
		"a plate as the knife":      {of(254, 3.2, 2.3), RuleKnife},
		"a plate just under":        {of(254, 3.2, 2.29), 0},
		"a plate nobody measured":   {of(254, 3.2, 0), 0},
		"a dado set meets no brake": {blade.Blade{Make: blade.Dado, Diameter: 203, Kerf: 12}, 0},
	} {
		stops := guards(tt.b, s)
		if len(stops) > 1 || len(stops) == 1 != (tt.rule != 0) || len(stops) == 1 && stops[0].Rule != tt.rule {
			t.Errorf("%s: %+v", what, stops)
		}
	}
	s.Brake = nil
	if stops := guards(of(254, 2.3, 2.2), s); len(stops) != 1 || stops[0].Rule != RuleKnife {
		t.Errorf("a kerf as thick as the knife: %+v", stops)
	}
}

// What is said of a blade turns at the bounds that wash and sharpening have.
func TestWordsAtTheirBounds(t *testing.T) {
	r := request(t, "red-oak", cut.Rip, cut.Show)
	for what, tt := range map[string]struct {
		s    cut.State
		want string
		mind Verdict
	}{
		"new":           {cut.State{Sharpness: 1}, "sharp and clean", Clear},
		"a film":        {cut.State{Sharpness: 1, Pitch: 0.79}, "sharp and clean", Clear},
		"some":          {cut.State{Sharpness: 1, Pitch: 0.8}, "some resin buildup", Clear},
		"worn":          {cut.State{Sharpness: care.WornAt}, "edges well worn", Clear},
		"almost worn":   {cut.State{Sharpness: care.WornAt - 0.01}, "sharp and clean", Clear},
		"almost pitchy": {cut.State{Sharpness: 1, Pitch: care.WashAt - 0.01}, "some resin buildup", Clear},
		"pitchy":        {cut.State{Sharpness: 1, Pitch: care.WashAt}, "resin buildup: clean it first", Caution},
		"almost dull":   {cut.State{Sharpness: care.DullAt - 0.01}, "edges well worn", Clear},
		"dull":          {cut.State{Sharpness: care.DullAt, Pitch: 3}, "dull: sharpen it", Caution},
		"chipped":       {cut.State{Sharpness: 4, Chipped: true}, "a tip is chipped", Caution},
	} {
		if got := told(TermCondition, r, Candidate{Blade: rip24, State: tt.s}, Option{}).String(); got != tt.want || CareVerdict(tt.s) != tt.mind {
			t.Errorf("%s: %q, %v", what, got, CareVerdict(tt.s))
		}
	}
	limit := r.Job.SplinterLimit()
	for share, want := range map[float64]string{
		0: "no visible face can tear out", 0.34: "far cleaner than a show face asks", 0.341: "cleaner than a show face asks",
		0.67: "cleaner than a show face asks", 0.671: "just clean enough for a show face", 1.05: "just clean enough for a show face",
		1.06: "1.1 times the tear-out a show face allows",
	} {
		o := Option{Figures: cut.Figures{Exit: cut.Face{Matters: true, Splinter: share * limit}}}
		if got := told(TermFinish, r, Candidate{Blade: rip24}, o).String(); got != want {
			t.Errorf("at %v of what a face bears: %q", share, got)
		}
	}
	r.Job.Direction, r.Job.Finish = cut.Crosscut, cut.Hidden
	fineCross := tcg80
	crosscut := combo50
	fineCross.KeptFor, crosscut.KeptFor = blade.UseCrosscut, blade.UseCrosscut
	for what, tt := range map[string]struct {
		b    blade.Blade
		on   bool
		want string
	}{
		"for this":           {crosscut, false, "set aside for this"},
		"for anything":       {combo50, false, "for general work"},
		"finer, on the saw":  {fineCross, true, "finer than needed, but on the saw"},
		"finer, on the wall": {fineCross, false, "finer than needed: a common blade does it as well"},
		"saved":              {tcg80, true, "set aside for plastics: this would wear its edge"},
		"for something else": {blade.Blade{Diameter: 254, Kerf: 3.2, Teeth: 24, Grind: blade.ATB, KeptFor: blade.UseDirty}, false, "set aside for dirty work"},
	} {
		if got := told(TermFitness, r, Candidate{Blade: tt.b, Mounted: tt.on}, Option{}).String(); got != tt.want {
			t.Errorf("%s: %q", what, got)
		}
	}
}

// Blades that are tried for the ideal are those that docs/model.md lists: the
// spacing of teeth is kept on other diameters.
func TestIdealKeepsTheSpacing(t *testing.T) {
	for _, d := range []measure.Length{184, 254, 305} {
		r := request(t, "hard-maple", cut.Rip, cut.Hidden)
		r.Saw.Diameter, r.Saw.Least, r.Saw.Reach, r.Saw.Knife = d, 0, d/3, 0
		i, ok := FindIdeal(r)
		if !ok || i.Blade.Teeth%2 != 0 || i.Blade.Diameter != d || i.Blade.Bore != r.Saw.Arbor {
			t.Errorf("for %v: %+v, %v", d, i, ok)
		}
		if s := i.Blade.Pitch().Mm(); s < 20 || s > 55 {
			t.Errorf("for %v the teeth stand %v mm apart", d, s)
		}
	}
}
