package practice

import (
	"errors"
	"fmt"
	"math"
	"math/rand/v2"
	"reflect"
	"slices"
	"strings"
	"testing"
	"time"

	"corte/core/blade"
	"corte/core/choose"
	"corte/core/cut"
	"corte/core/fault"
	"corte/core/guide"
	"corte/core/measure"
	"corte/core/mount"
	"corte/core/saw"
	"corte/core/trace"
)

// every poses tasks of every skill at every level.
func every(t *testing.T, numbers int, f func(t *testing.T, task Task)) {
	t.Helper()
	for _, k := range skills {
		if k.skill.Drill() == FeedIt {
			continue // its boards are tested with Feed
		}
		n := numbers
		if k.skill.Drill() == ReadWall {
			n /= 4 // each is weighed many times
		}
		for level := easiest; level <= hardest; level++ {
			for number := range n {
				task, err := Pose(k.skill, uint64(number), level, nil)
				if err != nil {
					t.Fatal(k.skill, number, level, err)
				}
				f(t, task)
			}
		}
	}
}

// rightAnswer is what somebody says who knows.
func rightAnswer(task Task) Answer {
	a := Answer{Choice: task.truth, Value: task.value}
	if task.Board != nil {
		a.Places = guide.PlanSupports(*task.Board).At
	}
	return a
}

func TestTheSameTaskOfANumber(t *testing.T) {
	every(t, 8, func(t *testing.T, task Task) {
		again, err := Pose(task.Skill, task.Number, task.Level, nil)
		if err != nil || !reflect.DeepEqual(again, task) {
			t.Fatalf("%s %d at %d is posed otherwise a second time", task.Skill, task.Number, task.Level)
		}
	})
}

func TestRightIsRightAndNothingElseIs(t *testing.T) {
	said := map[Skill]map[string]int{}
	every(t, 20, func(t *testing.T, task Task) {
		v, err := task.Judge(rightAnswer(task))
		if err != nil || !v.Right || len(v.Says) == 0 && len(v.Told) == 0 {
			t.Fatalf("%s %d at %d: the right answer is judged %+v, %v", task.Skill, task.Number, task.Level, v, err)
		}
		if said[task.Skill] == nil {
			said[task.Skill] = map[string]int{}
		}
		said[task.Skill][task.truth]++
		for _, c := range task.Choices {
			if c.Key == task.truth || task.ranks != nil {
				continue
			}
			if v, err := task.Judge(Answer{Choice: c.Key}); err != nil || v.Right || v.Truth != task.truth {
				t.Fatalf("%s %d at %d: %s is judged %+v, %v", task.Skill, task.Number, task.Level, c.Key, v, err)
			}
		}
		if task.Unit != NoNumber {
			for off, right := range map[float64]bool{0.99 * task.near: true, -0.99 * task.near: true, 1.01*task.near + 0.001: false, -1.01*task.near - 0.001: false} {
				if v, err := task.Judge(Answer{Value: task.value + off}); err != nil || v.Right != right || v.Value != task.value {
					t.Fatalf("%s %d at %d: %g beside %g is judged %+v, %v", task.Skill, task.Number, task.Level, off, task.value, v, err)
				}
			}
		}
	})
	// Whoever always says the same is wrong at least as often as the fewest choices allow.
	for s, truths := range said {
		total := 0
		for _, n := range truths {
			total += n
		}
		for key, n := range truths {
			if key != "" && n > total*9/10 {
				t.Errorf("%s: %q is right %d times of %d", s, key, n, total)
			}
		}
	}
}

func TestTruthIsTheCores(t *testing.T) {
	every(t, 20, func(t *testing.T, task Task) {
		wrong := func(form string, with ...any) {
			t.Helper()
			t.Fatalf("%s %d at %d: "+form, append([]any{task.Skill, task.Number, task.Level}, with...)...)
		}
		switch s := task.Skill; {
		case s.Drill() == Feel:
			i := slices.IndexFunc(task.Choices, func(c Choice) bool { return c.Key == task.truth })
			is, other := task.Choices[i].Felt, task.Choices[1-i].Felt
			asked := map[Skill]bool{
				"feel/edge": is.Setup.State.Sharpness > other.Setup.State.Sharpness, "feel/pitch": is.Setup.State.Pitch > other.Setup.State.Pitch,
				"feel/height": is.Setup.Job.Height > other.Setup.Job.Height, "feel/teeth": is.Setup.Blade.Teeth == 80,
			}
			apart := []measure.Feed{1.5, 1.25, 1.12}[task.Level-1]
			slower := is.Feed*apart <= other.Feed
			if s == "feel/height" {
				slower = other.Feed*apart <= is.Feed
			}
			push := is.Setup.Push(is.Feed) / other.Setup.Push(other.Feed)
			if !asked[s] || !slower || math.Abs(push-1) > 1e-3 {
				wrong("feeds %v and %v under pushes %g apart", is.Feed, other.Feed, push)
			}
			if !is.Setup.Job.Parts() || !other.Setup.Job.Parts() {
				wrong("a blade at %v does not come through %v", is.Setup.Job.Height, is.Setup.Job.Thickness)
			}
			if want := is.Turns / 60 * float64(is.Setup.Blade.Teeth); math.Abs(is.Note-want) > 1e-9 || is.Turns >= 4000 {
				wrong("a note of %g Hz at %g turns", is.Note, is.Turns)
			}
		case s.Drill() == Which:
			var rack []choose.Candidate
			for _, c := range task.Choices {
				rack = append(rack, choose.Candidate{Blade: *c.Blade})
			}
			best := choose.Rank(task.ranks.request, rack).Fit
			good := 0
			for _, o := range best {
				v, err := task.Judge(Answer{Choice: letters[o.Index]})
				if err != nil || v.Right != (o.Score >= 0.97*best[0].Score) {
					wrong("%s of score %g beside %g is judged %v, %v", letters[o.Index], o.Score, best[0].Score, v.Right, err)
				}
				if v.Right {
					good++
				}
				if told := v.Told[o.Index]; told.Key != letters[o.Index] || told.Window != o.Figures.Window || len(told.Says) == 0 {
					wrong("%s is told as %+v", letters[o.Index], told)
				}
			}
			if len(rack) != 5 || good > 4-task.Level || choose.Judge(best[0].Figures) != choose.Clear {
				wrong("%d of %d are right", good, len(rack))
			}
		case s == "read/hook" && task.near != []float64{3, 2, 1}[task.Level-1], task.Dial != nil && math.Abs(task.near-0.6*task.Dial.Step().Mm()) > 1e-9, s == "read/count" && task.near != 0, task.Unit == Degrees && (task.value < -8 || task.value > 25):
			wrong("%g is right within %g", task.value, task.near)
		case s == "read/count" && task.value != float64(task.Blade.Teeth), s == "read/hook" && task.value != task.Blade.Hook,
			s == "read/grind" && task.truth != task.Blade.Grind.String(), s == "read/tooth" && task.truth != toothKey(task.Odd.Tooth),
			(s == "read/kerf" || s == "read/dial") && task.value != task.Dial.Shows.Mm():
			wrong("what is called right is not what is drawn")
		case task.Dial != nil:
			want := fmt.Sprintf("%.3f in", task.value/25.4)
			if !task.Dial.Inch {
				want = fmt.Sprintf("%.*f mm", map[bool]int{true: 1, false: 2}[task.Dial.Caliper], task.value)
			}
			if n := task.value / task.Dial.Step().Mm(); !strings.Contains(task.why[0].String(), " "+want) || math.Abs(n-math.Round(n)) > 1e-6 || !task.Dial.Caliper && math.Abs(n) > 49 {
				wrong("%s is told as %s", want, task.why[0])
			}
		case s.Drill() == Read && task.Blade != nil:
			if err := task.Blade.Check(); err != nil {
				wrong("no such blade: %v", err)
			}
		case s == "set-up/supports":
			if v, err := task.Judge(Answer{Places: task.At}); err != nil || v.Right {
				wrong("the supports hold as they stand: %v", err)
			}
		case s == "set-up/trap":
			for _, c := range task.Choices {
				if clear := len(c.Plan.Harms()) == 0; clear != (c.Key == task.truth) {
					wrong("%s has harms %v", c.Key, c.Plan.Harms())
				}
				if c.Key == task.truth && c.Plan.Leans != cut.UnknownSide {
					j, w := cut.Job{Direction: cut.Rip, BevelDeg: 30}, saw.Saw{Kind: saw.Table, TiltSide: c.Plan.Leans}
					if side := guide.FenceSide(j, w); side != c.Plan.FenceSide {
						wrong("the fence goes to the %s, and %s is called right", side, c.Plan.FenceSide)
					}
				}
			}
		case s == "set-up/order":
			if !inOrder(task, task.truth) {
				wrong("without %s it is not in mount's order", task.truth)
			}
			for _, c := range task.Choices {
				if c.Key != task.truth && inOrder(task, c.Key) {
					wrong("%s could stand wrongly as well as %s", c.Key, task.truth)
				}
			}
		case s.Drill() == Before:
			harms := task.Plan.Harms()
			switch {
			case task.truth == string(PartNothing) && len(harms) > 0, task.truth != string(PartNothing) && len(harms) != 1:
				wrong("harms %v, and %s is called right", harms, task.truth)
			case len(harms) == 1 && (string(partOf[harms[0]]) != task.truth || string(harms[0]) != s.Of()):
				wrong("harm %s, and %s is called right", harms[0], task.truth)
			}
		case s.Drill() == ReadWall:
			w := trace.Weigh(task.Case.evidence(task.Case.own.checks)).Reasons()
			h, minutes := task.Case, 0.0
			for _, id := range h.own.checks {
				k, _ := trace.CheckByID(id)
				minutes += k.Minutes
			}
			if sharp, pitch := h.State["sharpness"], h.State["pitch_level"]; sharp < 1 || sharp > 2.5 || pitch < 0 || pitch > 3 || math.Abs(minutes-h.own.minutes) > 1e-9 {
				wrong("an edge of %g, pitch of %g, %g minutes", sharp, pitch, h.own.minutes)
			}
			// Who goes Trace's own way is told that it took as long, and what gave it away.
			v, err := task.Judge(Answer{Choice: task.truth, Checks: h.own.checks})
			took := effort(len(h.own.checks), minutes).String()
			said := fmt.Sprint(v.Says)
			if err != nil || !strings.Contains(said, "You took "+took+". Diagnose takes "+took+".") || !strings.Contains(said, "What gave it away: ") || strings.Contains(said, "It begins with") {
				wrong("%s, %v", said, err)
			}
			if w[0].ID != task.truth || w[0].Share < trace.ProvenAt || len(task.Choices) != offered {
				wrong("Trace's own way ends at %s with %g", w[0].ID, w[0].Share)
			}
		}
	})
}

// inOrder reports whether the steps that are shown are in mount's order once one
// of them is taken away.
func inOrder(task Task, without string) bool {
	order := map[string]int{}
	for i, s := range mount.Steps(mount.Case{Saw: saw.Saw{Kind: saw.Table, Knife: 2.5}, Blade: blade.Blade{Kerf: 3.2, MaxRPM: 9000}, Off: "x"}) {
		order[s.ID] = i
	}
	last := -1
	for _, c := range task.Choices {
		if c.Key == without {
			continue
		}
		if order[c.Key] < last {
			return false
		}
		last = order[c.Key]
	}
	return true
}

func TestFaceThatIsSeen(t *testing.T) {
	up := map[string]int{}
	every(t, 20, func(t *testing.T, task Task) {
		if task.Skill != "set-up/face" {
			return
		}
		up[task.Ask.String()+" "+task.truth]++
	})
	for _, want := range []string{"on a table saw. Which way does the show face go? up", "with a hand-held circular saw. Which way does the show face go? down",
		"on a miter saw that is pushed from front to back. Which way does the show face go? down", "on a miter saw, straight down. Which way does the show face go? up"} {
		if up["You cut veneered plywood "+want] == 0 {
			t.Errorf("never asked: %s", want)
		}
	}
	if len(up) != 4 {
		t.Errorf("it is asked as %v", up)
	}
}

func TestHarms(t *testing.T) {
	rip := Plan{Direction: cut.Rip, Fence: true, Knife: true, Hand: 150, FenceSide: cut.Right}
	across := Plan{Direction: cut.Crosscut, Gauge: true, Knife: true, Hand: 150}
	with := func(p Plan, f func(*Plan)) Plan { f(&p); return p }
	for name, c := range map[string]struct {
		plan Plan
		want []Harm
	}{
		"rip":                           {rip, nil},
		"crosscut":                      {across, nil},
		"a hand at 149":                 {with(rip, func(p *Plan) { p.Hand = 149 }), []Harm{Near}},
		"a push block at 40":            {with(rip, func(p *Plan) { p.Hand, p.PushBlock = 40, true }), nil},
		"parallel":                      {with(rip, func(p *Plan) { p.FenceOpen = 0 }), nil},
		"closing a hair":                {with(rip, func(p *Plan) { p.FenceOpen = -0.05 }), []Harm{Closing}},
		"no fence":                      {with(rip, func(p *Plan) { p.Fence = false }), []Harm{Freehand}},
		"crosscut by fence":             {with(across, func(p *Plan) { p.Gauge, p.Fence = false, true }), []Harm{Freehand}},
		"gauge and fence":               {with(across, func(p *Plan) { p.Fence = true }), []Harm{Both}},
		"the fence as stop":             {with(across, func(p *Plan) { p.Fence, p.Stop = true, FenceStop }), []Harm{Both}},
		"stop on the gauge":             {with(across, func(p *Plan) { p.Stop = OnGauge }), nil},
		"a wide block before":           {with(across, func(p *Plan) { p.Fence, p.Stop, p.Block = true, BeforeIt, 100 }), nil},
		"a block of 60 before":          {with(across, func(p *Plan) { p.Fence, p.Stop, p.Block = true, BeforeIt, 60 }), nil},
		"a narrow block":                {with(across, func(p *Plan) { p.Fence, p.Stop, p.Block = true, BeforeIt, 59 }), []Harm{Offcut}},
		"a block beside":                {with(across, func(p *Plan) { p.Fence, p.Stop, p.Block = true, BesideIt, 100 }), []Harm{Offcut}},
		"tilt a blade toward the fence": {with(rip, func(p *Plan) { p.Leans = cut.Right }), []Harm{Offcut}},
		"leans away from it":            {with(rip, func(p *Plan) { p.Leans = cut.Left }), nil},
		"no knife, gloves, line":        {with(rip, func(p *Plan) { p.Knife, p.Gloves, p.InLine = false, true, true }), []Harm{NoKnife, Glove, Line}},
	} {
		if got := c.plan.Harms(); !slices.Equal(got, c.want) {
			t.Errorf("%s: %v, want %v", name, got, c.want)
		}
	}
	for _, s := range Before.Skills() {
		if Harm(s.Of()).Means().Zero() || partOf[Harm(s.Of())] == "" {
			t.Errorf("%s means nothing", s)
		}
	}
}

// In how many set-ups nothing is wrong, and what a motor loses.
func TestSharesAndTurns(t *testing.T) {
	for level, want := range map[int]float64{1: 0.15, 2: 0.25, 3: 0.35} {
		const n = 3000
		nothing := 0.0
		for number := range uint64(n) {
			if task, err := Pose("before/glove", number, level, nil); err != nil {
				t.Fatal(err)
			} else if task.truth == string(PartNothing) {
				nothing += 1.0 / n
			}
		}
		if math.Abs(nothing-want) > 0.025 {
			t.Errorf("level %d: nothing is wrong in %.3f", level, nothing)
		}
	}
	for _, tt := range []struct {
		hand       bool
		load, want float64
	}{{false, 0, 4000}, {false, 1, 3820}, {false, 2.5, 3550}, {false, 20, 2000}, {true, 1, 3200}, {true, 2.5, 2000}, {true, 2.4, 2080}} {
		s := Setup{Drive: cut.Drive{RPM: 4000, HandHeld: tt.hand}}
		if got := s.Turns(tt.load); math.Abs(got-tt.want) > 1e-6 {
			t.Errorf("in the hand %v, at a load of %g it turns at %g", tt.hand, tt.load, got)
		}
	}
	for ms, told := range map[int]bool{249: false, 250: true} {
		at := time.Duration(ms) * time.Millisecond
		w := Wall{Whole: true, Steps: []Step{{Feed: 3}, {Feed: measure.Feed(0.06 / at.Seconds())}, {Feed: 3}}}
		if mm, long := w.stood(); mm != 1 || (long >= stoodLong) != told {
			t.Errorf("standing for %d ms is %v at %d", ms, long, mm)
		}
	}
}

func TestAnswersThatAreNone(t *testing.T) {
	number, _ := Pose("read/hook", 1, 1, nil)
	choice, _ := Pose("before/knife", 1, 1, nil)
	board, _ := Pose("set-up/supports", 1, 1, nil)
	wall, _ := Pose("wall/reason", 1, 1, nil)
	check := wall.Case.Checks[0].ID
	for name, c := range map[string]struct {
		task  Task
		a     Answer
		where string
	}{
		"not a number":     {number, Answer{Value: math.NaN()}, "value"},
		"not offered":      {choice, Answer{Choice: "everything"}, "choice"},
		"no reason":        {wall, Answer{Choice: "gremlins"}, "choice"},
		"no such check":    {wall, Answer{Choice: wall.truth, Checks: []string{"pray"}}, "checks"},
		"checked twice":    {wall, Answer{Choice: wall.truth, Checks: []string{check, check}}, "checks"},
		"three supports":   {board, Answer{Places: board.At[:3]}, "places"},
		"beside the board": {board, Answer{Places: []measure.Length{1, 2, 3, board.Board.Span + 1}}, "places"},
	} {
		var f *fault.Error
		if _, err := c.task.Judge(c.a); !errors.As(err, &f) || f.Where != c.where {
			t.Errorf("%s: %v", name, err)
		}
	}
	for _, s := range []Skill{"", "read", "read/mind", "feed/board"} {
		if _, err := Pose(s, 1, 1, nil); err == nil {
			t.Errorf("a task of %q", s)
		}
	}
	for _, level := range []int{0, 4} {
		if _, err := Pose("read/hook", 1, level, nil); err == nil {
			t.Errorf("a task of level %d", level)
		}
	}
}

func TestFromTheRack(t *testing.T) {
	own := choose.Candidate{Blade: blade.Blade{Diameter: 254, Bore: 15.875, Kerf: 2.6, Plate: 1.8, Teeth: 28, Grind: blade.FTG, Hook: 20, MaxRPM: 7000}}
	barred := own
	barred.Blade.Teeth, barred.Barred = 26, &choose.Stop{}
	large := own
	large.Blade.Teeth, large.Blade.Diameter = 30, 305
	for number := range uint64(30) {
		task, err := Pose("which/rip", number, 1, []choose.Candidate{own, barred, large})
		if err != nil {
			t.Fatal(err)
		}
		var teeth []int
		for _, c := range task.Choices {
			teeth = append(teeth, c.Blade.Teeth)
		}
		if teeth[0] != 28 || slices.Contains(teeth, 26) || slices.Contains(teeth, 30) {
			t.Fatalf("%d: blades of %v teeth", number, teeth)
		}
	}
}

func TestRemember(t *testing.T) {
	day := func(d float64) time.Time {
		return time.Date(2026, 3, 1, 8, 0, 0, 0, time.UTC).Add(time.Duration(d * 24 * float64(time.Hour)))
	}
	done := func(at float64, level int, right bool) Done { return Done{"read/hook", day(at), level, right} }
	for name, c := range map[string]struct {
		done  []Done
		due   float64
		level int
		run   int
	}{
		"right once":                 {[]Done{done(0, 1, true)}, 1, 1, 1},
		"right twice":                {[]Done{done(0, 1, true), done(1, 1, true)}, 7, 2, 2},
		"three times":                {[]Done{done(0, 1, true), done(1, 1, true), done(7, 2, true)}, 7 + 15, 2, 3},
		"multiply by four":           {[]Done{done(0, 1, true), done(1, 1, true), done(7, 2, true), done(22, 2, true)}, 22 + 37.5, 3, 4},
		"late counts anew":           {[]Done{done(0, 1, true), done(5, 1, true)}, 11, 2, 2},
		"early puts off none":        {[]Done{done(0, 1, true), done(0.5, 1, true)}, 1, 2, 2},
		"wrong":                      {[]Done{done(0, 1, false)}, 0, 1, 0},
		"wrong is easier":            {[]Done{done(0, 3, false)}, 0, 2, 0},
		"wrong begins again":         {[]Done{done(0, 1, true), done(1, 1, true), done(7, 2, false), done(7, 1, true)}, 8, 1, 1},
		"hard comes sooner":          {[]Done{done(0, 1, false), done(0, 1, true), done(1, 1, true), done(7, 2, true)}, 7 + 6*2.36, 2, 3},
		"no longer than half a year": {[]Done{done(0, 1, true), done(1, 1, true), done(10, 1, true), done(50, 1, true), done(100, 1, true), done(300, 1, true)}, 480, 2, 6},
	} {
		cards := Remember(c.done)
		if len(cards) != 1 || cards[0].Times != len(c.done) || cards[0].Level != c.level || cards[0].Run != c.run {
			t.Errorf("%s: %+v", name, cards)
			continue
		}
		if off := cards[0].Due.Sub(day(c.due)); off.Abs() > time.Second {
			t.Errorf("%s: due %v off", name, off)
		}
	}
}

func TestNextAndStanding(t *testing.T) {
	now := time.Date(2026, 3, 10, 8, 0, 0, 0, time.UTC)
	ago := func(days int) time.Time { return now.Add(-time.Duration(days) * 24 * time.Hour) }
	var done []Done
	next := func(want Skill, level int) {
		t.Helper()
		if s, l := Next(Remember(done), SetUp, now); s != want || l != level {
			t.Errorf("after %d: %s at %d, want %s at %d", len(done), s, l, want, level)
		}
	}
	next("set-up/supports", 1)
	done = append(done, Done{"set-up/supports", ago(1), 1, true}) // due now
	next("set-up/supports", 1)
	done = append(done, Done{"set-up/supports", ago(0), 1, true}) // due in 6 days
	next("set-up/trap", 1)
	done = append(done, Done{"set-up/trap", ago(0), 2, false})
	next("set-up/trap", 1)
	for range 2 {
		for _, s := range SetUp.Skills()[1:] {
			done = append(done, Done{s, ago(0), 1, true})
		}
	}
	next("set-up/trap", 2) // nothing is due: the first that will be, in a day; supports are in six
	for _, st := range Stand(done, now) {
		want := Standing{Drill: st.Drill, Skills: len(st.Drill.Skills())}
		if st.Drill == SetUp {
			want.Times, want.Known, want.Last = 9, 4, now
		}
		if st != want || st.Passed() != (st.Drill == SetUp) {
			t.Errorf("%+v, want %+v", st, want)
		}
	}
	done = append(done, Done{"set-up/face", now, 1, false})
	if st := Stand(done, now)[4]; st.Passed() || st.Known != 3 || st.Due != 1 {
		t.Errorf("after a wrong one: %+v", st)
	}
}

// What is drawn of the reasons must go the way that the words say.
func TestWhys(t *testing.T) {
	of := func(id string, f func(Notch) float64) (out []float64) {
		w, err := WhyOf(id)
		if err != nil {
			t.Fatal(err)
		}
		for _, n := range w.Notches {
			out = append(out, f(n))
		}
		return out
	}
	falls := func(v []float64) bool {
		return slices.IsSortedFunc(v, func(a, b float64) int { return -int(math.Copysign(1, a-b)) })
	}
	for name, falling := range map[string]bool{
		"a higher blade has a shorter arc": falls(of("arc", func(n Notch) float64 { return n.Figures.Arc.Mm() })),
		"and pushes back less":             falls(of("arc", func(n Notch) float64 { return n.Figures.PushShare })),
		"and tears more":                   falls(of("arc", func(n Notch) float64 { return -n.Splinter() })),
		"a quicker feed heats less":        falls(of("heat", Notch.Heat)),
		"and fills gullets":                falls(of("gullets", func(n Notch) float64 { return -n.Fill })),
		"what holds fibres, in order":      falls(of("backer", Notch.Splinter)),
		"across it splinters more":         falls(of("fibres", func(n Notch) float64 { return -n.Splinter() })),
		"heel heats":                       slices.IsSorted(of("line", Notch.Heat)),
	} {
		if !falling {
			t.Error("not so: " + name)
		}
	}
	if fill := of("gullets", func(n Notch) float64 { return n.Fill }); fill[0] > 1 || fill[len(fill)-1] < 1 {
		t.Errorf("gullets are filled by %v: nothing turns", fill)
	}
	if _, err := WhyOf("x"); err == nil {
		t.Error("a drawing of nothing")
	}
	for term := choose.TermFinish; term <= choose.TermChange; term++ {
		if why := term.Why(); (why == "") != (term == choose.TermChange) || why != "" && !slices.Contains(Whys(), why) {
			t.Errorf("%s leads to %q", term, why)
		}
	}
	for _, id := range Whys() {
		if w, err := WhyOf(id); err != nil || len(w.Notches) < 2 {
			t.Errorf("%s: %v", id, err)
		}
	}
}

// A fault is hidden by the same tables that Trace weighs by: over many, the first
// reason is right as often as its share says.
func TestHiddenFaultsAreAsTraceSays(t *testing.T) {
	r := rand.New(rand.NewPCG(11, 26))
	const n = 400
	said, was := 0.0, 0.0
	for range n {
		h := Hidden{Hidden: trace.Hide(r, "table", 0), Saw: "table"}
		first := trace.Weigh(h.evidence(nil)).Reasons()[0]
		said += first.Share / n
		if first.ID == h.Cause {
			was += 1.0 / n
		}
	}
	if math.Abs(said-was) > 0.06 {
		t.Errorf("said %.2f, was %.2f", said, was)
	}
}
