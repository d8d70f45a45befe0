package practice

import (
	"hash/fnv"
	"math/rand/v2"
	"slices"
	"strings"

	"corte/core/blade"
	"corte/core/choose"
	"corte/core/cut"
	"corte/core/fault"
	"corte/core/guide"
	"corte/core/measure"
	"corte/core/say"
)

// A Drill is one kind of exercise.
type Drill string

// The drills, in the order in which they stand on the shelf.
const (
	FeedIt   Drill = "feed"
	Feel     Drill = "feel"
	Which    Drill = "which"
	Read     Drill = "read"
	SetUp    Drill = "set-up"
	ReadWall Drill = "wall"
	Before   Drill = "before"
)

// A Skill is one thing that a drill trains, and what is remembered of somebody:
// such as "read/hook".
type Skill string

// Drill is the drill that trains it.
func (s Skill) Drill() Drill {
	d, _, _ := strings.Cut(string(s), "/")
	return Drill(d)
}

// Of is what of its drill it is, without the drill's name.
func (s Skill) Of() string {
	_, what, _ := strings.Cut(string(s), "/")
	return what
}

var skills = []struct {
	skill Skill
	words string
}{
	{"feed/board", "a board fed on a table saw"},
	{"feed/hand-held", "a hand-held saw moved over the board"},
	{"feel/edge", "sharp against dull"},
	{"feel/pitch", "clean against resin buildup"},
	{"feel/height", "low against high"},
	{"feel/teeth", "few teeth against many"},
	{"which/rip", "a blade for a rip"},
	{"which/crosscut", "a blade for a crosscut"},
	{"which/sheet", "a blade for a sheet"},
	{"read/count", "counting teeth"},
	{"read/hook", "the hook"},
	{"read/kerf", "the kerf, by caliper"},
	{"read/dial", "a dial"},
	{"read/grind", "the grind, from the front"},
	{"read/tooth", "the one odd tooth"},
	{"set-up/supports", "supports under a board"},
	{"set-up/trap", "stop and fence"},
	{"set-up/face", "show face up or down"},
	{"set-up/order", "the order of a blade change"},
	{"wall/reason", "a cut edge and its cause"},
	{"before/offcut", "a trapped offcut"},
	{"before/fence", "a fence that closes"},
	{"before/gauge", "miter gauge and rip fence together"},
	{"before/glove", "gloves"},
	{"before/knife", "no riving knife"},
	{"before/line", "standing in line"},
	{"before/freehand", "freehand"},
	{"before/hands", "hands near the blade"},
}

// Drills are all drills, in their order.
func Drills() []Drill { return []Drill{FeedIt, Feel, Which, Read, SetUp, ReadWall, Before} }

// Skills are those of a drill, in their order.
func (d Drill) Skills() (out []Skill) {
	for _, s := range skills {
		if s.skill.Drill() == d {
			out = append(out, s.skill)
		}
	}
	return out
}

// Words are what a skill is called in a sentence; nothing where there is none of
// the name.
func (s Skill) Words() say.Line {
	for _, k := range skills {
		if k.skill == s {
			return say.Word(k.words)
		}
	}
	return say.Line{}
}

// Levels go from 1 to 3: what is easy to see, what has to be looked for, what
// only somebody sees who has looked often.
const (
	easiest = 1
	hardest = 3
)

// A Task is one question of a drill. The same skill, number and level always
// pose the same one.
type Task struct {
	Skill  Skill
	Number uint64
	Level  int
	Ask    say.Line

	// What is answered: one of Choices, a number of Unit within Near of the truth,
	// places of supports, or what the hand did (feed).
	Choices []Choice
	Unit    Unit

	// What is drawn; nil where it is not.
	Blade *blade.Blade
	Odd   *Odd
	Dial  *Dial
	Board *guide.Board
	At    []measure.Length // where the supports stand at first
	Plan  *Plan
	Case  *Hidden

	truth string  // key of the right choice
	value float64 // right number
	near  float64
	why   []say.Line // told with the verdict
	ranks *ranks     // of "which"
}

// A Unit is what a number is asked in.
type Unit string

// The units; a length is answered in millimetres whatever the face says.
const (
	NoNumber Unit = ""
	Teeth    Unit = "teeth"
	Degrees  Unit = "degrees"
	Millis   Unit = "mm"
)

// A Choice is one of several answers, with what is drawn of it.
type Choice struct {
	Key   string
	Say   say.Line // nothing where only the drawing is seen
	Blade *blade.Blade
	Felt  *Felt
	Plan  *Plan
}

// An Answer is what somebody says to a task.
type Answer struct {
	Choice string
	Value  float64
	Places []measure.Length
	Checks []string // made on the way to Choice, in their order
}

// A Verdict is what an answer was worth.
type Verdict struct {
	Right    bool
	Truth    string // key of the right choice; empty where there is none
	Value    float64
	Says     []say.Line
	Told     []Told             // of every choice, where there is more to say
	Supports *guide.SupportPlan // what the supports do
}

// A Told is what there is to know of a choice once it was answered.
type Told struct {
	Key     string
	Verdict choose.Verdict
	Window  cut.Window // zero where it may not be used
	Says    []say.Line
}

var errLevel = fault.At("level", "a drill has levels from 1 to 3")

// errSkill is the error of a skill that no drill trains.
func errSkill(s Skill) error {
	return fault.At("skill", "there is no drill named %s. Go back and choose one", say.Word(string(s)))
}

// Pose makes a task. Rack is what "which" draws from, besides made-up blades;
// nil for those alone.
func Pose(s Skill, number uint64, level int, rack []choose.Candidate) (Task, error) {
	if s.Words().Zero() {
		return Task{}, errSkill(s)
	}
	if level < easiest || level > hardest {
		return Task{}, errLevel
	}
	h := fnv.New64a()
	_, _ = h.Write([]byte(s))
	t := Task{Skill: s, Number: number, Level: level}
	r := rand.New(rand.NewPCG(number, h.Sum64()+uint64(level)))
	switch s.Drill() {
	case Feel:
		t.feel(r)
	case Which:
		t.which(r, rack)
	case Read:
		t.read(r)
	case SetUp:
		t.setUp(r)
	case ReadWall:
		t.wall(r)
	case Before:
		t.before(r)
	default:
		return Task{}, errSkill(s) // a board is Board's
	}
	return t, nil
}

// Judge says what an answer to the task was worth. The error is of an answer that
// is none: a choice that was not offered, a number that is not one.
func (t Task) Judge(a Answer) (Verdict, error) {
	switch {
	case t.Board != nil:
		return t.judgeSupports(a)
	case t.Case != nil:
		return t.judgeWall(a)
	case t.Unit != NoNumber:
		return t.judgeNumber(a)
	}
	if !slices.ContainsFunc(t.Choices, func(c Choice) bool { return c.Key == a.Choice }) {
		return Verdict{}, fault.At("choice", "choose one of those shown")
	}
	v := Verdict{Right: a.Choice == t.truth, Truth: t.truth, Says: t.why}
	if t.ranks != nil {
		v.Right, v.Told = t.ranks.judge(a.Choice)
	}
	return v, nil
}

func (t Task) judgeNumber(a Answer) (Verdict, error) {
	if !(a.Value > -1e4 && a.Value < 1e4) {
		return Verdict{}, fault.At("value", "enter a number")
	}
	off := a.Value - t.value
	return Verdict{Right: off <= t.near+1e-9 && off >= -t.near-1e-9, Value: t.value, Says: t.why}, nil
}

// pick is one of several, by chance.
func pick[T any](r *rand.Rand, of ...T) T { return of[r.IntN(len(of))] }

// letters name choices that are told apart by their drawing alone.
var letters = []string{"A", "B", "C", "D", "E"}
