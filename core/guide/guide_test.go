package guide

import (
	"math"
	"slices"
	"strings"
	"testing"

	"corte/core/cut"
	"corte/core/fault"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/saw"
	"corte/core/say"
	"corte/core/truing"
	"corte/core/verdict"
)

// safe is a saw with all that a safe one has.
var (
	safe   = saw.Saw{Kind: saw.Table, Volts: 230, BreakerA: 16, Knife: 2.5, TiltSide: saw.Left, FenceReach: 700}
	bare   = saw.Saw{Kind: saw.Table}
	miters = saw.Saw{Kind: saw.Miter, Sliding: true, Volts: 230, BreakerA: 16}
	walker = saw.Saw{Kind: saw.Circular, Volts: 36}
)

func TestTheRightCautionAtTheRightSaw(t *testing.T) {
	kind := func(k material.Kind) material.Material { return material.Material{Kind: k, Name: k.String()} }
	for name, tt := range map[string]struct {
		s     saw.Saw
		j     cut.Job
		first string
		says  []string
		never string
		show  string
	}{
		"rip on a table":         {safe, cut.Job{}, "Unplug the saw before", []string{"Riving knife and blade guard on", "push block"}, "gauge", "up"},
		"rip without a knife":    {bare, cut.Job{}, "Unplug the saw or take the battery", []string{"Blade guard on"}, "knife", "up"},
		"a groove":               {safe, cut.Job{Form: cut.Groove}, "Unplug", []string{"tunnel guard", "put them back on"}, "guard on", "up"},
		"a groove, no knife":     {bare, cut.Job{Form: cut.Groove}, "Unplug", []string{"tunnel guard", "put it back on"}, "knife", "up"},
		"from both faces":        {safe, cut.Job{BothFaces: true}, "Unplug", []string{"tunnel guard", "put them back on"}, "guard on", "up"},
		"crosscut on a table":    {safe, cut.Job{Direction: cut.Crosscut}, "Unplug", []string{"Never use miter gauge and rip fence together"}, "ush block", "up"},
		"sheet on a table":       {safe, cut.Job{Direction: cut.Sheet}, "Unplug", []string{"both halves"}, "gauge", "up"},
		"across with a walker":   {walker, cut.Job{Direction: cut.Crosscut}, "Take the battery out before", []string{"between two supports"}, "fence", "down"},
		"a chop":                 {miters, cut.Job{Direction: cut.Crosscut, Motion: cut.Chop}, "Unplug", []string{"until it has stopped"}, "Riving", "up"},
		"a push":                 {miters, cut.Job{Direction: cut.Crosscut, Motion: cut.Push}, "Unplug", []string{"front to back", "Never pull it through"}, "Riving", "down"},
		"aluminium on a table":   {safe, cut.Job{Direction: cut.Crosscut, Material: kind(material.SoftMetal)}, "Unplug", []string{"face shield", "No wood dust"}, "melts", "up"},
		"acrylic on a table":     {safe, cut.Job{Direction: cut.Crosscut, Material: kind(material.Plastic)}, "Unplug", []string{"melts"}, "shield", "up"},
		"tile with a hand saw":   {walker, cut.Job{Direction: cut.Crosscut, Material: kind(material.Mineral)}, "Take the battery out", []string{"silica"}, "melts", "down"},
		"steel with a hand saw":  {walker, cut.Job{Direction: cut.Crosscut, Material: kind(material.Steel)}, "Take the battery out", []string{"made for steel"}, "silica", "down"},
		"nails":                  {walker, cut.Job{Direction: cut.Crosscut, Material: kind(material.Nailed)}, "Take the battery out", []string{"pull what you find"}, "silica", "down"},
		"with the brake off":     {saw.Saw{Kind: saw.Table, Volts: 230, Knife: 2.5, BreakerA: 10, Brake: &saw.Brake{}}, cut.Job{BrakeOff: true}, "Unplug", []string{"Switch it back on"}, "fire", "up"},
		"a brake that is on":     {saw.Saw{Kind: saw.Table, Volts: 230, Knife: 2.5, BreakerA: 10, Brake: &saw.Brake{}}, cut.Job{}, "Unplug", nil, "bypassed", "up"},
		"low volts on a breaker": {saw.Saw{Kind: saw.Circular, Volts: 36, BreakerA: 10}, cut.Job{}, "Unplug the saw before", nil, "fence", "down"},
		"high volts, no breaker": {saw.Saw{Kind: saw.Circular, Volts: 120}, cut.Job{}, "Unplug the saw before", nil, "fence", "down"},
	} {
		all := Cautions(tt.j, tt.s)
		text := strings.Join(say.Voice{}.Each(all), " ")
		if !strings.HasPrefix(all[0].String(), tt.first) || !strings.Contains(all[len(all)-1].String(), "Protect your eyes, ears and lungs") {
			t.Errorf("%s begins with %q and ends with %q", name, all[0], all[len(all)-1])
		}
		for _, want := range tt.says {
			if !strings.Contains(text, want) {
				t.Errorf("%s does not say %q: %s", name, want, text)
			}
		}
		if strings.Contains(text, tt.never) {
			t.Errorf("%s says %q, which is for another cut: %s", name, tt.never, text)
		}
		if got := ShowFace(tt.j, tt.s); got != tt.show {
			t.Errorf("%s: show face %s, want %s", name, got, tt.show)
		}
	}
}

// The fence rule, the stop block, the sled: craft section 5 in numbers, on both
// sides of every limit.
func TestHoldSaysTheRuleThatApplies(t *testing.T) {
	oak, acrylic := material.Material{Kind: material.Hardwood}, material.Material{Kind: material.Plastic}
	mdf, melamine := material.Material{Kind: material.Composite}, material.Material{Kind: material.Laminate}
	job := func(d cut.Direction, width, length, piece measure.Length) cut.Job {
		return cut.Job{Material: oak, Direction: d, Width: width, Length: length, Piece: piece, Finish: cut.Hidden}
	}
	with := func(j cut.Job, change func(*cut.Job)) cut.Job { change(&j); return j }
	for name, tt := range map[string]struct {
		s     saw.Saw
		j     cut.Job
		u     measure.Unit
		says  string
		never string
	}{
		"wider than long":         {safe, job(cut.Rip, 401, 400, 0), 0, "Not along the fence", "Fence at"},
		"as wide as long":         {safe, job(cut.Rip, 400, 400, 0), 0, "Fence at 400 mm", "Not along"},
		"299 long":                {safe, job(cut.Rip, 80, 299, 0), 0, "Not along the fence", "Fence at"},
		"300 long":                {safe, job(cut.Rip, 80, 300, 0), 0, "Fence at 80 mm", "Not along"},
		"a strip":                 {safe, job(cut.Rip, 19.5, 900, 0), 0, "the fence at the board's width less 19.5 mm and the kerf", "ush block"},
		"a strip's insert":        {safe, job(cut.Rip, 12, 900, 0), 0, "a zero-clearance throat plate", "Fence at"},
		"20 mm":                   {safe, job(cut.Rip, 20, 900, 0), 0, "hooks over the end", "Never run a strip"},
		"a groove near an edge":   {safe, with(job(cut.Rip, 12, 900, 0), func(j *cut.Job) { j.Form = cut.Groove }), 0, "Fence at 12 mm", "offcut"},
		"under 60":                {safe, job(cut.Rip, 59, 900, 0), 0, "hooks over the end", "from 150 mm"},
		"60":                      {safe, job(cut.Rip, 60, 900, 0), 0, "push block from 150 mm", "hooks over"},
		"150":                     {safe, job(cut.Rip, 150, 900, 0), 0, "Fence at 150 mm", "ush block"},
		"a glue line":             {safe, with(job(cut.Rip, 150, 900, 0), func(j *cut.Job) { j.Finish = cut.Fine }), 0, "only straight, flat stock", ""},
		"MDF has no glue line":    {safe, with(job(cut.Rip, 150, 900, 0), func(j *cut.Job) { j.Material = mdf }), 0, "tight to the fence", "glue"},
		"acrylic creeps":          {safe, with(job(cut.Sheet, 150, 900, 0), func(j *cut.Job) { j.Material = acrylic }), 0, "creeps under it", "glue"},
		"a long rip":              {safe, job(cut.Rip, 150, 1501, 0), 0, "outfeed", ""},
		"a bevel":                 {safe, with(job(cut.Rip, 150, 900, 0), func(j *cut.Job) { j.BevelDeg = 30 }), 0, "to the right of the blade, which leans away", ""},
		"a bevel, tilt unknown":   {bare, with(job(cut.Rip, 150, 900, 0), func(j *cut.Job) { j.BevelDeg = 30 }), 0, "on the side that the blade leans away from", "to the right"},
		"fence for a cross":       {safe, job(cut.Crosscut, 200, 900, 300), 0, "edge on it would be 200 mm, and 300 mm", "fence and gauge"},
		"fence for a short cross": {safe, job(cut.Crosscut, 300, 900, 300), 0, "Fence and gauge together", "edge on it"},
		"to length":               {safe, job(cut.Crosscut, 400, 900, 300), 0, "the fence at 400 mm", ""},
		"past the fence":          {safe, job(cut.Crosscut, 400, 900, 601), 0, "doesn't reach that far", "the fence at"},
		"to length in inches":     {safe, job(cut.Crosscut, 400, 900, measure.Inches(12)), measure.Inch, `the fence at 16"`, ""},
		"a dado across":           {safe, with(job(cut.Crosscut, 400, 900, 300), func(j *cut.Job) { j.Form = cut.Groove }), 0, "Hold the stock down", "trap"},
		"long on a gauge":         {safe, job(cut.Crosscut, 150, 1501, 400), 0, "Support the far end", ""},
		"a small piece":           {safe, job(cut.Crosscut, 90, 440, 149), 0, "Clamp it to a crosscut sled", "Use a crosscut sled or miter gauge"},
		"held by its rest":        {safe, job(cut.Crosscut, 90, 900, 40), 0, "Hold the long end against the miter gauge", "too short"},
		"its rest, in inches":     {safe, job(cut.Crosscut, 90, 900, 40), measure.Inch, `at least 6" from the blade`, "29/32"},
		"a board of 400":          {safe, with(job(cut.Rip, 150, 900, 0), func(j *cut.Job) { j.Board = 400 }), 0, "About 250 mm stays on the far side", ""},
		"a rip past the fence":    {safe, with(job(cut.Rip, 701, 900, 0), func(j *cut.Job) { j.Board = 1200 }), 0, "Run the other side of the stock along it", "Fence at"},
		"the narrow side":         {safe, with(job(cut.Rip, 40, 900, 0), func(j *cut.Job) { j.Board = 400 }), 0, "Run its wide side along the fence", ""},
		"on a carriage":           {saw.Saw{Kind: saw.Table, Carriage: 1600, CarriageClamps: true}, with(job(cut.Sheet, 600, 1200, 0), func(j *cut.Job) { j.Carriage = true }), 0, "Clamp the stock to the carriage", "Fence at"},
		"150 is held":             {safe, job(cut.Crosscut, 200, 900, 150), 0, "Use a crosscut sled or miter gauge", "Clamp it to a crosscut sled"},
		"a small chop":            {miters, with(job(cut.Crosscut, 60, 300, 40), func(j *cut.Job) { j.Motion = cut.Chop }), 0, "too short to hold", ""},
		"on runners":              {walker, with(job(cut.Sheet, 600, 2400, 0), func(j *cut.Job) { j.Bed = cut.Runners }), 0, "3 mm past the stock", ""},
		"both faces, a table":     {safe, with(job(cut.Rip, 90, 900, 0), func(j *cut.Job) { j.BothFaces = true }), 0, "Keep the riving knife on", "square the line"},
		"both faces, no knife":    {bare, with(job(cut.Rip, 90, 900, 0), func(j *cut.Job) { j.BothFaces = true }), 0, "same face against the fence", "knife"},
		"both faces, by hand":     {walker, with(job(cut.Crosscut, 90, 900, 0), func(j *cut.Job) { j.BothFaces = true }), 0, "Square the line all around", "fence"},
		"fibers break off":        {safe, with(job(cut.Sheet, 300, 900, 0), func(j *cut.Job) { j.Material.Kind = material.Plywood }), 0, "fibers break off", ""},
		"MDF has no fibers":       {safe, with(job(cut.Sheet, 300, 900, 0), func(j *cut.Job) { j.Material = mdf }), 0, "", "fiber"},
		"laminate chips":          {safe, with(job(cut.Sheet, 300, 900, 0), func(j *cut.Job) { j.Material = melamine }), 0, "its face chips", "fiber"},
		"wet":                     {safe, with(job(cut.Rip, 150, 900, 0), func(j *cut.Job) { j.Moisture = cut.Wet }), 0, "the riving knife in line and a wedge", ""},
		"wet by hand":             {walker, with(job(cut.Rip, 150, 900, 0), func(j *cut.Job) { j.Moisture = cut.Wet }), 0, "a wedge ready", "knife"},
		"frozen":                  {safe, with(job(cut.Rip, 150, 900, 0), func(j *cut.Job) { j.Moisture = cut.Frozen }), 0, "thaw", "Wet"},
		"a board that moves":      {safe, with(job(cut.Rip, 150, 900, 0), func(j *cut.Job) { j.Moves = true }), 0, "oversize first", ""},
		"it moves, across":        {safe, with(job(cut.Crosscut, 150, 900, 0), func(j *cut.Job) { j.Moves = true }), 0, "Support both halves", "oversize"},
	} {
		text := ""
		for _, a := range Hold(tt.j, tt.s) {
			text += say.Voice{Unit: tt.u}.Say(a.Text) + " "
		}
		if !strings.Contains(text, tt.says) || tt.never != "" && strings.Contains(text, tt.never) {
			t.Errorf("%s: wants %q and not %q in %s", name, tt.says, tt.never, text)
		}
	}
}

// A sheet of MDF of 18 mm carried 2.4 m apart hangs by what the formula of craft
// section 19 makes of it.
func TestHangs(t *testing.T) {
	mdf, _ := material.Get("mdf")
	// q = 750·9.81·0.018 N/m², I = 0.018³/12 m⁴ a metre, E = 3 GPa: 5·q·2.4⁴/(384·E·I)
	want := 1000 * 5 * 750 * 9.81 * 0.018 * math.Pow(2.4, 4) / (384 * 3e9 * math.Pow(0.018, 3) / 12)
	if got := Hangs(mdf, 18, 2400); math.Abs(got.Mm()-want) > 1e-9 {
		t.Errorf("it hangs by %v, want %v mm", got, want)
	}
}

func TestFindings(t *testing.T) {
	braked := safe
	braked.Brake = &saw.Brake{}
	right := safe
	right.TiltSide = saw.Right
	of := func(id string) material.Material {
		m, err := material.Get(id)
		if err != nil {
			t.Fatal(err)
		}
		return m
	}
	oak := of("red-oak")
	job := func(change func(*cut.Job)) cut.Job {
		j := cut.Job{Material: oak, Thickness: 19, Width: 80, Length: 900}
		change(&j)
		return j
	}
	for name, tt := range map[string]struct {
		s    saw.Saw
		j    cut.Job
		want []Rule // with the stops first
		stop bool
		side cut.Side
	}{
		"in order":           {safe, job(func(*cut.Job) {}), nil, false, cut.Right},
		"299 long":           {safe, job(func(j *cut.Job) { j.Length = 299 }), []Rule{RuleShort}, true, cut.Right},
		"300 long":           {safe, job(func(j *cut.Job) { j.Length = 300 }), nil, false, cut.Right},
		"wider than long":    {safe, job(func(j *cut.Job) { j.Length, j.Width = 500, 501 }), []Rule{RuleShort}, true, cut.Right},
		"square":             {safe, job(func(j *cut.Job) { j.Length, j.Width = 500, 500 }), nil, false, cut.Right},
		"short, on a gauge":  {safe, job(func(j *cut.Job) { j.Direction, j.Length = cut.Crosscut, 250 }), nil, false, cut.UnknownSide},
		"by hand, 299":       {walker, job(func(j *cut.Job) { j.Length = 299 }), []Rule{RuleClamp}, true, cut.UnknownSide},
		"by hand, 300":       {walker, job(func(j *cut.Job) { j.Length = 300 }), nil, false, cut.UnknownSide},
		"by hand, two short": {walker, job(func(j *cut.Job) { j.Direction, j.Length, j.Piece = cut.Crosscut, 500, 250 }), []Rule{RuleClamp}, true, cut.UnknownSide},
		"by hand, one long":  {walker, job(func(j *cut.Job) { j.Direction, j.Length, j.Piece = cut.Crosscut, 500, 200 }), nil, false, cut.UnknownSide},
		"a bevel":            {safe, job(func(j *cut.Job) { j.BevelDeg = 30 }), nil, false, cut.Right},
		"tilting right":      {right, job(func(j *cut.Job) { j.BevelDeg = 30 }), nil, false, cut.Left},
		"trapped":            {safe, job(func(j *cut.Job) { j.BevelDeg, j.FenceSide = 30, cut.Left }), []Rule{RuleTrapped}, true, cut.Right},
		"not trapped":        {safe, job(func(j *cut.Job) { j.BevelDeg, j.FenceSide = 30, cut.Right }), nil, false, cut.Right},
		"upright, left":      {safe, job(func(j *cut.Job) { j.FenceSide = cut.Left }), nil, false, cut.Left},
		"tilt unknown":       {bare, job(func(j *cut.Job) { j.BevelDeg = 30 }), []Rule{RuleTilt, RuleKnife}, false, cut.UnknownSide},
		"no knife":           {bare, job(func(*cut.Job) {}), []Rule{RuleKnife}, false, cut.Right},
		"no knife, a groove": {bare, job(func(j *cut.Job) { j.Form = cut.Groove }), nil, false, cut.Right},
		"aluminium fires":    {braked, job(func(j *cut.Job) { j.Material = of("aluminium") }), []Rule{RuleFires}, true, cut.Right},
		"nails fire":         {braked, job(func(j *cut.Job) { j.Material = of("nailed-wood") }), []Rule{RuleFires}, true, cut.Right},
		"foil fires":         {braked, job(func(j *cut.Job) { j.Material = of("foil-board") }), []Rule{RuleFires}, true, cut.Right},
		"wet fires":          {braked, job(func(j *cut.Job) { j.Moisture = cut.Wet }), []Rule{RuleFires}, true, cut.Right},
		"bypassed":           {braked, job(func(j *cut.Job) { j.Moisture, j.BrakeOff = cut.Wet, true }), nil, false, cut.Right},
		"frozen":             {braked, job(func(j *cut.Job) { j.Moisture = cut.Frozen }), nil, false, cut.Right},
		"acrylic":            {braked, job(func(j *cut.Job) { j.Material = of("acrylic") }), nil, false, cut.Right},
		"no brake":           {safe, job(func(j *cut.Job) { j.Moisture = cut.Wet }), nil, false, cut.Right},
		"past the fence":     {safe, job(func(j *cut.Job) { j.Width, j.Length = 701, 900 }), []Rule{RuleReach}, false, cut.Right},
		"at its reach":       {safe, job(func(j *cut.Job) { j.Width, j.Length = 700, 900 }), nil, false, cut.Right},
		"brass of 1 mm":      {safe, job(func(j *cut.Job) { j.Material, j.Thickness = of("brass"), 1 }), []Rule{RuleThin}, false, cut.Right},
		"brass of 6 mm":      {safe, job(func(j *cut.Job) { j.Material, j.Thickness = of("brass"), 6 }), []Rule{RuleThin}, false, cut.Right},
		"brass of 6.1 mm":    {safe, job(func(j *cut.Job) { j.Material, j.Thickness = of("brass"), 6.1 }), nil, false, cut.Right},
		"brass on a chop": {miters, job(func(j *cut.Job) {
			j.Material, j.Thickness, j.Motion, j.Direction = of("brass"), 20, cut.Chop, cut.Crosscut
		}), []Rule{RuleThin}, false, cut.UnknownSide},
		"half a shoe":        {walker, job(func(j *cut.Job) { j.Width = 65 }), nil, false, cut.UnknownSide},
		"under half a shoe":  {walker, job(func(j *cut.Job) { j.Width = 64 }), []Rule{RuleStrip}, false, cut.UnknownSide},
		"from the wide side": {walker, job(func(j *cut.Job) { j.Width, j.Board = 40, 200 }), nil, false, cut.UnknownSide},
		"a wide shoe":        {func() saw.Saw { w := walker; w.Shoe = 180; return w }(), job(func(j *cut.Job) { j.Width = 80 }), []Rule{RuleStrip}, false, cut.UnknownSide},
		"5 mm off an edge":   {walker, job(func(j *cut.Job) { j.Width, j.Board = 195, 200 }), []Rule{RuleTrim}, false, cut.UnknownSide},
		"6 mm off an edge":   {walker, job(func(j *cut.Job) { j.Width, j.Board = 194, 200 }), nil, false, cut.UnknownSide},
		"a sheet that sags": {walker, job(func(j *cut.Job) {
			j.Material, j.Direction, j.Thickness, j.Width, j.Length = of("mdf"), cut.Sheet, 12, 600, 1900
		}), []Rule{RuleSag}, false, cut.UnknownSide},
		"a sheet of 1400": {walker, job(func(j *cut.Job) {
			j.Material, j.Direction, j.Thickness, j.Width, j.Length = of("mdf"), cut.Sheet, 6, 600, 1400
		}), nil, false, cut.UnknownSide},
		"on its carriage": {func() saw.Saw { s := safe; s.Carriage = 1600; return s }(), job(func(j *cut.Job) { j.Length, j.Carriage = 250, true }), nil, false, cut.UnknownSide},
		"veneer":          {safe, job(func(j *cut.Job) { j.Thickness = 0.9 }), []Rule{RuleVeneer}, false, cut.Right},
		"1 mm":            {safe, job(func(j *cut.Job) { j.Thickness = 1 }), nil, false, cut.Right},
	} {
		var got []Rule
		stop := false
		for i, f := range Findings(tt.j, tt.s, truing.Alignment{}, truing.Usual) {
			got = append(got, f.Rule)
			stop = stop || f.Verdict == verdict.Stop
			if f.Why.Zero() || f.WayOut.Zero() || f.Verdict == verdict.Clear || i > 0 && f.Verdict == verdict.Stop && !stop || (!f.Ask.Zero()) != (f.Rule == RuleFires) {
				t.Errorf("%s: %+v", name, f)
			}
		}
		if !slices.Equal(got, tt.want) || stop != tt.stop || FenceSide(tt.j, tt.s) != tt.side {
			t.Errorf("%s: %v, stop %v, fence %v; want %v, %v, %v", name, got, stop, FenceSide(tt.j, tt.s), tt.want, tt.stop, tt.side)
		}
	}
}

// Everything that is said of a cut is tried with all its limits at once: no
// sentence contradicts another, and none names a part that the saw has not or
// does what its kind cannot.
func TestNoAdviceContradicts(t *testing.T) {
	contradict := [][2]string{
		{"guard on", "must come off"}, {"uard on.", "tunnel guard"},
		{"Not along the fence", "Fence at"}, {"Not along the fence", "ush block from"}, {"Not along the fence", "thin-rip stop"},
		{"Never run a strip of", "Fence at"}, {"Never run a strip of", "hooks over the end"},
		{"Push block from", "hooks over the end"},
		{"Use a crosscut sled or miter gauge", "crosscut sled. Sandpaper"},
		{"Turn the stock end over end", "quare the line all around"},
		{"Don't hold it by hand", "Along a s"}, {"Don't hold it by hand", "Four supports"},
		{"Wet stock", "Frozen stock"},
	}
	lacks := map[string][]string{ // what a saw has not
		"miter":    {"fence at", "Fence at", "gauge", "insert", "iving knife", "outfeed", "ush block", "sled,", "square the line", "thin-rip"},
		"circular": {"fence at", "Fence at", "miter gauge", "insert", "iving knife", "outfeed", "ush block", "sled", "tight to fence", "rip fence"},
		"no knife": {"iving knife in line", "riving knife on, set", "iving knife and guard"},
	}
	var kinds []material.Material // one of each
	for _, m := range material.All() {
		if len(kinds) == 0 || kinds[len(kinds)-1].Kind != m.Kind {
			kinds = append(kinds, m)
		}
	}
	n := 0
	for _, s := range []saw.Saw{safe, bare, miters, walker} {
		for _, m := range kinds {
			for d := cut.Rip; d <= cut.Sheet; d++ {
				for _, size := range [][3]measure.Length{{12, 900, 0}, {19.9, 900, 0}, {20, 250, 100}, {59, 2400, 400}, {60, 600, 140}, {149, 300, 0}, {400, 350, 300}, {610, 2440, 700}} {
					for form := cut.Through; form <= cut.Fold; form++ {
						for bits := range 32 {
							j := cut.Job{Material: m, Direction: d, Finish: cut.Finish(bits % 4), Thickness: 18, Width: size[0], Length: size[1], Piece: size[2], Form: form, Depth: 6,
								BothFaces: bits&1 > 0 && form == cut.Through, Moves: bits&2 > 0, Moisture: cut.Moisture(bits / 4 % 3), Bed: cut.Bed(bits % 3)}
							if bits&16 > 0 {
								j.BevelDeg = 30
							}
							if s.Kind == saw.Miter {
								if d == cut.Rip || form != cut.Through || j.BothFaces {
									continue
								}
								j.Motion = cut.Chop + cut.Motion(bits&1)
							}
							n++
							text := strings.Join(say.Voice{}.Each(Cautions(j, s)), " ") + " "
							for _, a := range Hold(j, s) {
								text += a.Text.String() + " "
								if !strings.HasSuffix(a.Text.String(), ".") {
									t.Fatalf("not a sentence: %q", a.Text)
								}
							}
							findings := Findings(j, s, truing.Alignment{}, truing.Usual)
							for _, f := range findings {
								text += f.Why.String() + " "
							}
							for _, pair := range contradict {
								if strings.Contains(text, pair[0]) && strings.Contains(text, pair[1]) {
									t.Fatalf("%q against %q for %+v on a %v saw: %s", pair[0], pair[1], j, s.Kind, text)
								}
							}
							parts := lacks[s.Kind.String()]
							if s.Kind == saw.Table && s.Knife == 0 {
								parts = lacks["no knife"]
							}
							for _, part := range parts {
								if strings.Contains(text, part) {
									t.Fatalf("a %v saw has no %q: %s", s.Kind, part, text)
								}
							}
							if !m.Kind.Fibres() && strings.Contains(text, "fiber") {
								t.Fatalf("%s has no fibres: %s", m.Name, text)
							}
							if solid := m.Kind <= material.Hardwood; !solid && strings.Contains(text, "glue") {
								t.Fatalf("%s has no glue line: %s", m.Name, text)
							}
						}
					}
				}
			}
		}
	}
	if n < 50_000 {
		t.Errorf("only %d cuts were tried", n)
	}
}

func TestBoards(t *testing.T) {
	for what, tt := range map[string]struct {
		b     Board
		where string
	}{
		"the thinnest":      {Board{Thickness: 2, Span: 2000, Breadth: 600, Line: 900}, ""},
		"a thinner one":     {Board{Thickness: 1.99, Span: 2000, Breadth: 600, Line: 900}, "thickness"},
		"the thickest":      {Board{Thickness: 400, Span: 2000, Breadth: 600, Line: 900}, ""},
		"a thicker one":     {Board{Thickness: 400.1, Span: 2000, Breadth: 600, Line: 900}, "thickness"},
		"the shortest":      {Board{Thickness: 18, Span: 100, Breadth: 600, Line: 50}, ""},
		"a shorter one":     {Board{Thickness: 18, Span: 99.9, Breadth: 600, Line: 50}, "span"},
		"the longest":       {Board{Thickness: 18, Span: 20_000, Breadth: 600, Line: 50}, ""},
		"a longer one":      {Board{Thickness: 18, Span: 20_000.1, Breadth: 600, Line: 50}, "span"},
		"the narrowest":     {Board{Thickness: 18, Span: 2000, Breadth: 10, Line: 50}, ""},
		"a narrower one":    {Board{Thickness: 18, Span: 2000, Breadth: 9.9, Line: 50}, "breadth"},
		"the broadest":      {Board{Thickness: 18, Span: 2000, Breadth: 20_000, Line: 50}, ""},
		"a broader one":     {Board{Thickness: 18, Span: 2000, Breadth: 20_000.1, Line: 50}, "breadth"},
		"a piece of 10":     {Board{Thickness: 18, Span: 2000, Breadth: 600, Line: 10}, "line"},
		"one over 10":       {Board{Thickness: 18, Span: 2000, Breadth: 600, Line: 10.1}, ""},
		"10 at the far end": {Board{Thickness: 18, Span: 2000, Breadth: 600, Line: 1990}, "line"},
		"over 10 there":     {Board{Thickness: 18, Span: 2000, Breadth: 600, Line: 1989.9}, ""},
	} {
		where := ""
		if err := tt.b.Check(); err != nil {
			where = err.(*fault.Error).Where
		}
		if where != tt.where {
			t.Errorf("%s: refused at %q", what, where)
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
		p := PlanSupports(b)
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
		p := JudgeSupports(b, tt.at)
		if p.Halves[0].Verdict != tt.left || p.Halves[1].Verdict != tt.right || p.Binds != tt.binds || len(p.Text) == 0 {
			t.Errorf("%s: %s, %s, binds %v, %v", name, p.Halves[0].Verdict, p.Halves[1].Verdict, p.Binds, p.Text)
		}
	}
	light := Board{Material: ply, Thickness: 18, Span: 900, Breadth: 120, Line: 450}
	if p := PlanSupports(light); p.Binds || p.Gap >= 120 {
		t.Errorf("a light board wants its supports nearer: %+v", p)
	}
	if p := JudgeSupports(light, []measure.Length{90, 300, 600, 810}); !strings.Contains(p.Text[0].String(), "Clamp it") {
		t.Errorf("a light board on supports far out: %v", p.Text)
	}
	short := PlanSupports(Board{Material: ply, Thickness: 18, Span: 1000, Breadth: 300, Line: 80})
	if !strings.Contains(strings.Join(say.Voice{}.Each(short.Text), " "), "left piece is only 80 mm, too short") {
		t.Errorf("a short piece: %v", short.Text)
	}
}
