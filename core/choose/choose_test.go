package choose

import (
	"math"
	"strings"
	"testing"

	"corte/core/blade"
	"corte/core/cut"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/saw"
	"corte/core/say"
)

var (
	table = saw.Saw{Kind: saw.Table, Diameter: 254, Least: 216, Arbor: 15.875, RPM: 4000, MotorW: 1300,
		Volts: 120, BreakerA: 15, Knife: 2.3, Reach: 79, Reach45: 57}
	slider = saw.Saw{Kind: saw.Miter, Sliding: true, Diameter: 305, Arbor: 25.4, RPM: 3800, MotorW: 1500,
		Reach: 92, BelowTable: 6, ChopWidth: 150, Crosscut: 340}

	rip24   = blade.Blade{Diameter: 254, Bore: 15.875, Kerf: 3.2, Plate: 2.2, Teeth: 24, Grind: blade.FTG, Hook: 20, MaxRPM: 7000, KeptFor: blade.UseRip}
	combo50 = blade.Blade{Diameter: 254, Bore: 15.875, Kerf: 3.2, Plate: 2.2, Teeth: 50, Grind: blade.ATBR, Bevel: 15, Hook: 12, MaxRPM: 7000}
	fine80  = blade.Blade{Diameter: 254, Bore: 15.875, Kerf: 3.0, Plate: 2.2, Teeth: 80, Grind: blade.HighATB, Bevel: 38, Hook: 5, MaxRPM: 7000, KeptFor: blade.UseSheet}
	tcg80   = blade.Blade{Diameter: 254, Bore: 15.875, Kerf: 3.2, Plate: 2.2, Teeth: 80, Grind: blade.TCG, Hook: -3, MaxRPM: 7000, KeptFor: blade.UsePlastic}
	rack    = []Candidate{{Blade: fine80}, {Blade: combo50, Mounted: true}, {Blade: rip24}, {Blade: tcg80}}
)

func request(t testing.TB, id string, d cut.Direction, f cut.Finish) Request {
	t.Helper()
	m, err := material.Get(id)
	if err != nil {
		t.Fatal(err)
	}
	return Request{Saw: table, ChangeMinutes: 3, Job: cut.Job{
		Material: m, Direction: d, Finish: f, Thickness: 25, Width: 120, Length: 900,
	}}
}

// What an experienced shop would reach for comes first.
func TestTheRightBladeWins(t *testing.T) {
	for _, tt := range []struct {
		material string
		d        cut.Direction
		f        cut.Finish
		exit     cut.Support
		want     []int // any of these first
		last     int
	}{
		{"hard-maple", cut.Rip, cut.Hidden, cut.Open, []int{2}, 3},
		{"cherry", cut.Rip, cut.Hidden, cut.Open, []int{2}, 3},
		{"birch-ply", cut.Sheet, cut.Show, cut.ZeroClearance, []int{0}, 2},
		{"melamine-board", cut.Sheet, cut.Show, cut.ZeroClearance, []int{0, 3}, 2},
		{"acrylic", cut.Crosscut, cut.Show, cut.Open, []int{3}, 3},
	} {
		r := request(t, tt.material, tt.d, tt.f)
		r.Job.Exit, r.Job.Other = tt.exit, cut.Backer
		k := Rank(r, rack)
		first, last := k.Fit[0].Index, k.Fit[len(k.Fit)-1].Index
		ok := false
		for _, w := range tt.want {
			ok = ok || w == first
		}
		if !ok || last != tt.last {
			for _, o := range k.Fit {
				t.Logf("%d %.3f %.2f %v", o.Index, o.Score, o.Terms, k.Reasons(r, rack[o.Index], o))
			}
			t.Errorf("%s %v %v: blade %d first, %d last", tt.material, tt.d, tt.f, first, last)
		}
		for _, o := range k.Fit {
			if n := len(k.Reasons(r, rack[o.Index], o)); n < 2 || n > 3 {
				t.Errorf("%s: %d reasons", tt.material, n)
			}
		}
	}
}

// Scores nearer than 2 % are level: then what is on the saw, what is kept for
// it and what costs least decide, in that order.
func TestLevelScores(t *testing.T) {
	r := request(t, "red-oak", cut.Rip, cut.Hidden)
	r.ChangeMinutes = 0
	twin, thinner := rip24, rip24
	twin.KeptFor = blade.UseGeneral
	thinner.Kerf = 3.1 // loads the motor a little less
	k := Rank(r, []Candidate{{Blade: thinner}, {Blade: rip24, Mounted: true}})
	if k.Fit[0].Index != 1 || !k.Fit[0].Level || !k.Fit[1].Level || k.Fit[1].Score != k.Fit[0].Score {
		t.Errorf("the one on the saw does not lead its twin: %+v", k.Fit)
	}
	k = Rank(r, []Candidate{{Blade: fine80}, {Blade: rip24}})
	if k.Fit[0].Level || k.Fit[1].Level {
		t.Errorf("%v and %v are level", k.Fit[0].Score, k.Fit[1].Score)
	}
	// A hook that nobody has read counts where a strong one climbs, and nowhere else.
	unread := rip24
	unread.HookUnknown = true
	k = Rank(r, []Candidate{{Blade: unread}, {Blade: combo50}})
	if k.Fit[0].Index != 0 {
		t.Errorf("an unread hook counts on a table saw: %+v", k.Fit)
	}
	r.Saw.Kind = saw.Circular
	k = Rank(r, []Candidate{{Blade: unread}, {Blade: rip24}})
	if k.Fit[0].Index != 1 || len(k.Fit[1].Minds) == 0 || k.Fit[1].Score > 0.95*k.Fit[0].Score {
		t.Errorf("an unread hook leads by hand: %+v", k.Fit)
	}
}

// A blade to throw away makes no face that shows, and any other.
func TestThrowawayMakesNoShowFace(t *testing.T) {
	old := combo50
	old.Throwaway = true
	for finish, stopped := range map[cut.Finish]bool{cut.Rough: false, cut.Hidden: false, cut.Show: true, cut.Fine: true} {
		r := request(t, "red-oak", cut.Crosscut, finish)
		if k := Rank(r, []Candidate{{Blade: old}}); (len(k.Stopped) == 1) != stopped {
			t.Errorf("for a %v face it is stopped: %v", finish, !stopped)
		}
	}
}

// Where the saw does not reach through, two passes meet in the middle, and a
// tilted blade has more wood in its way and less reach.
func TestBothFacesAndBevel(t *testing.T) {
	r := request(t, "red-oak", cut.Rip, cut.Hidden)
	r.Job.Thickness = 120
	r.Job = Settle(r.Job, table)
	if !r.Job.BothFaces || CheckJob(r.Job, table) != nil {
		t.Fatalf("120 mm of oak: %+v", r.Job)
	}
	h := r.Heights(rip24)
	passes := r.Passes(h.Suggested)
	if !h.Exact || len(passes) != 2 || passes[0].Height+passes[1].Height < 120 {
		t.Errorf("heights %+v, passes %+v", h, passes)
	}
	for _, p := range passes {
		if f := AtPass(r, rack[2], p); !(f.TeethInCut > 0 && f.PowerW > 0) {
			t.Errorf("%s: %+v", p.Name, f)
		}
	}
	r = request(t, "red-oak", cut.Rip, cut.Hidden)
	square := Rank(r, rack[2:3]).Fit[0].Figures
	r.Job.BevelDeg = 45
	tilted := Rank(r, rack[2:3]).Fit[0]
	if tilted.Figures.Arc <= square.Arc || tilted.Figures.PowerW <= square.PowerW {
		t.Errorf("tilted %+v, square %+v", tilted.Figures, square)
	}
	if h := r.Heights(rip24); h.Full != 57 || h.Suggested >= 25+rip24.GulletDepth() {
		t.Errorf("heights at 45 degrees %+v", h)
	}
}

// A groove for a joint wants a flat bottom before anything else.
func TestAGrooveWantsAFlatBottom(t *testing.T) {
	r := request(t, "birch-ply", cut.Sheet, cut.Hidden)
	r.Job.Form, r.Job.Depth, r.Job.Exit, r.Job.Other = cut.Groove, 9, cut.ZeroClearance, cut.Spare
	flat := tcg80
	flat.KeptFor = blade.UseGeneral
	k := Rank(r, []Candidate{{Blade: fine80}, {Blade: flat}})
	if k.Fit[0].Index != 1 || k.Fit[0].Height != 9 {
		t.Errorf("first is %+v", k.Fit[0])
	}
	said := ""
	for _, one := range k.Reasons(r, Candidate{Blade: fine80}, k.Fit[1]) {
		said += one.Text.String()
	}
	if !strings.Contains(said, "ridge of 1.17 mm") {
		t.Errorf("of the pointed blade it says %s", said)
	}
}

func TestKerfByMotorAndCircuit(t *testing.T) {
	r := request(t, "hard-maple", cut.Rip, cut.Hidden)
	r.Job.Thickness = 50
	free := table
	free.Knife = 0
	for name, tt := range map[string]struct {
		knife measure.Length
		motor float64
		says  string
	}{
		"a small motor":   {0, 900, "thin kerf"},
		"under 1500 W":    {0, 1499, "thin kerf leaves more power in reserve"},
		"1500 W and more": {0, 1500, "full kerf: stiffer"},
		"a strong motor":  {0, 3500, "full kerf: stiffer"},
		"a knife forbids": {2.5, 900, "riving knife (2.5 mm) is as thick"},
	} {
		r.Saw = free
		r.Saw.Knife, r.Saw.MotorW, r.Saw.BreakerA = tt.knife, tt.motor, 40
		a, ok := Kerfs(r, rip24)
		if !ok || !strings.Contains(a.Text.String(), tt.says) || a.Thin.PowerW >= a.Full.PowerW || a.CircuitW != 3600 {
			t.Errorf("%s: %+v", name, a)
		}
	}
}

// A blade that is worse in any one way never gains by it.
func TestWorseNeverRanksHigher(t *testing.T) {
	r := request(t, "cherry", cut.Rip, cut.Hidden)
	base := Rank(r, []Candidate{{Blade: rip24}}).Fit[0].Score
	for name, c := range map[string]Candidate{
		"duller":   {Blade: rip24, State: cut.State{Sharpness: 1.8}},
		"pitchy":   {Blade: rip24, State: cut.State{Pitch: 1.2}},
		"unsuited": {Blade: func() blade.Blade { b := rip24; b.KeptFor = blade.UseMetal; return b }()},
	} {
		if got := Rank(r, []Candidate{c}).Fit[0].Score; got >= base {
			t.Errorf("%s: %v, no lower than %v", name, got, base)
		}
	}
	r.Heel = 0.15
	if got := Rank(r, []Candidate{{Blade: rip24}}).Fit[0].Score; got >= base {
		t.Errorf("on a saw out of line: %v, no lower than %v", got, base)
	}
	if k := Rank(r, nil); len(k.Fit)+len(k.Stopped) != 0 {
		t.Errorf("an empty rack: %+v", k)
	}
}

// Reasons speak in the reader's unit and say which two limits cross.
func TestReasonsInWords(t *testing.T) {
	r := request(t, "hard-maple", cut.Rip, cut.Hidden)
	k := Rank(r, rack)
	var said []string
	for _, o := range k.Fit {
		for _, reason := range k.Reasons(r, rack[o.Index], o) {
			said = append(said, reason.Text.String())
			if reason.For && strings.Contains(reason.Text.String(), "shut") {
				t.Errorf("a shut window speaks for a blade: %q", reason.Text)
			}
		}
	}
	all := strings.Join(said, "; ")
	for _, want := range []string{"set aside for this", "no feed range: burning meets bogging down", "set aside for sheet goods"} {
		if !strings.Contains(all, want) {
			t.Errorf("nobody says %q in: %s", want, all)
		}
	}
	thick := r.Job
	thick.Thickness = 65
	small := combo50
	small.Diameter = 218
	if stops := Stops(small, thick, table); len(stops) != 1 || !strings.Contains(say.Voice{Unit: measure.Inch}.Say(stops[0].Why), `2 13/32"`) {
		t.Errorf("in inches: %+v", stops)
	}
}

func TestSweepIsWork(t *testing.T) {
	r := request(t, "hard-maple", cut.Rip, cut.Hidden)
	r.Heel = 0.1
	heights := []measure.Length{26, 31, 60}
	got := make([]cut.Figures, 3)
	Sweep(r, rack[2], heights, got)
	for i, h := range heights {
		if got[i] != At(r, rack[2], h) || math.IsNaN(got[i].Load) {
			t.Errorf("at %v the sweep says %+v", h, got[i])
		}
	}
	if got[0].Burn <= got[2].Burn {
		t.Error("the low blade is not the one that scorches")
	}
}

func BenchmarkRank1000(b *testing.B) {
	r := request(b, "hard-maple", cut.Rip, cut.Hidden)
	many := make([]Candidate, 1000)
	for i := range many {
		many[i] = rack[i%len(rack)]
		many[i].Blade.Teeth += 2 * (i % 17)
	}
	b.ReportAllocs()
	for b.Loop() {
		Rank(r, many)
	}
}

func BenchmarkSweep200(b *testing.B) {
	r := request(b, "hard-maple", cut.Rip, cut.Hidden)
	heights := make([]measure.Length, 200)
	for i := range heights {
		heights[i] = 1 + measure.Length(i)*0.39
	}
	dst := make([]cut.Figures, len(heights))
	for b.Loop() {
		Sweep(r, rack[2], heights, dst)
	}
}

func BenchmarkIdeal(b *testing.B) {
	r := request(b, "hard-maple", cut.Rip, cut.Hidden)
	for b.Loop() {
		FindIdeal(r)
	}
}

// The ideal follows the cut: few teeth along the grain, many and pointed
// through veneer.
func TestIdealFollowsTheCut(t *testing.T) {
	rip, ok := FindIdeal(request(t, "hard-maple", cut.Rip, cut.Hidden))
	if !ok || rip.Blade.Teeth > 30 || rip.Blade.Hook < 15 {
		t.Errorf("for a rip: %+v", rip)
	}
	r := request(t, "birch-ply", cut.Sheet, cut.Fine)
	r.Job.Exit, r.Job.Other = cut.ZeroClearance, cut.Backer
	sheet, ok := FindIdeal(r)
	if !ok || sheet.Blade.Teeth < 60 || sheet.Blade.Grind != blade.HighATB {
		t.Errorf("for veneer: %+v", sheet)
	}
	if err := sheet.Blade.Check(); err != nil || len(Stops(sheet.Blade, r.Job, r.Saw)) > 0 {
		t.Errorf("the ideal blade could not be used: %v", err)
	}
	if _, ok := FindIdeal(request(t, "tile", cut.Crosscut, cut.Show)); ok {
		t.Error("an ideal toothed blade for tile")
	}
}
