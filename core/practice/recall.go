package practice

import (
	"cmp"
	"slices"
	"time"

	"corte/core/say"
)

// A Done is one answer of somebody, as it is kept.
type Done struct {
	Skill Skill
	At    time.Time
	Level int
	Right bool
}

// A Card is what is known of somebody in one skill. The zero Card is of somebody
// who has not tried it.
type Card struct {
	Skill Skill
	Times int       // answered
	Run   int       // right since the last that was not
	Level int       // at which it is asked next, 1 to 3
	Due   time.Time // when it is asked again; zero where it never was

	ease float64 // by how much the time until then grows
	days float64
	hard bool // it was wrong last time
}

// The rule is SuperMemo 2's: P. A. Woźniak, "Optimization of learning" (1990),
// section 3.2. Of its grades from 0 to 5 a drill knows three: wrong is 2, which
// begins again; right is 4, which leaves the ease as it is; right after having
// been wrong is 3, which lowers it.
const (
	firstEase  = 2.5
	leastEase  = 1.3
	hardEase   = 0.14 // (5-3)*(0.08 + (5-3)*0.02) - 0.1, of grade 3
	firstDays  = 1
	secondDays = 6
	mostDays   = 180 // what is not asked for longer is not known: judgement
	rise       = 2   // right ones in a row after which it gets harder: judgement
)

// Remember folds what somebody did, in its order, into what they know: a card of
// every skill that was tried, in the order of the shelf.
func Remember(done []Done) []Card {
	by := map[Skill]*Card{}
	for _, d := range done {
		c := by[d.Skill]
		if c == nil {
			c = &Card{Skill: d.Skill, Level: easiest, ease: firstEase}
			by[d.Skill] = c
		}
		c.add(d)
	}
	var out []Card
	for _, s := range skills {
		if c := by[s.skill]; c != nil {
			out = append(out, *c)
		}
	}
	return out
}

func (c *Card) add(d Done) {
	c.Times++
	if !d.Right {
		c.Run, c.days, c.hard = 0, 0, true
		c.Level = max(easiest, d.Level-1)
		c.Due = d.At // at once: it was hard
		return
	}
	c.Run++
	if c.hard {
		c.hard, c.ease = false, max(leastEase, c.ease-hardEase)
	}
	early := d.At.Before(c.Due) && c.Run > 1 // more than was asked for puts nothing off
	switch {
	case early:
	case c.days == 0:
		c.days = firstDays
	case c.days == firstDays:
		c.days = secondDays
	default:
		c.days = min(mostDays, c.days*c.ease)
	}
	if !early {
		c.Due = d.At.Add(time.Duration(c.days * 24 * float64(time.Hour)))
	}
	if c.Level = d.Level; c.Run%rise == 0 {
		c.Level = min(hardest, d.Level+1)
	}
}

// Next is the skill of a drill to be asked now, and its level: the one that is
// longest due, else one that was never tried, else the one that falls due first.
func Next(cards []Card, d Drill, now time.Time) (Skill, int) {
	type wait struct {
		Card
		class int
	}
	var all []wait
	for _, s := range d.Skills() {
		w := wait{Card{Skill: s, Level: easiest}, 1}
		if i := slices.IndexFunc(cards, func(c Card) bool { return c.Skill == s }); i >= 0 {
			w = wait{cards[i], 2}
			if !w.Due.After(now) {
				w.class = 0
			}
		}
		all = append(all, w)
	}
	if len(all) == 0 {
		return "", 0
	}
	first := slices.MinFunc(all, func(a, b wait) int { return cmp.Or(cmp.Compare(a.class, b.class), a.Due.Compare(b.Due)) })
	return first.Skill, first.Level
}

// mastered is how many right answers in a row a skill takes to count: once could
// be luck. Judgement.
const mastered = 2

// A Standing is how somebody stands with a drill.
type Standing struct {
	Drill         Drill
	Times         int
	Known, Skills int // of its skills, those that were right as often in a row as it takes
	Due           int // of those that were tried, to be asked again by now
	Last          time.Time
}

// Passed reports whether every skill of the drill is known.
func (s Standing) Passed() bool { return s.Known == s.Skills }

// Stand is how somebody stands with every drill. What was known once counts until
// it is answered wrong.
func Stand(done []Done, now time.Time) []Standing {
	cards := Remember(done)
	out := make([]Standing, 0, len(Drills()))
	for _, d := range Drills() {
		st := Standing{Drill: d, Skills: len(d.Skills())}
		for _, c := range cards {
			if c.Skill.Drill() != d {
				continue
			}
			st.Times += c.Times
			if c.Run >= mastered {
				st.Known++
			}
			if !c.Due.After(now) {
				st.Due++
			}
		}
		for _, x := range done {
			if x.Skill.Drill() == d && x.At.After(st.Last) {
				st.Last = x.At
			}
		}
		out = append(out, st)
	}
	return out
}

var drillWords = map[Drill]string{
	FeedIt: "Feed the board", Feel: "Feel the difference", Which: "Which blade?", Read: "Read a blade",
	SetUp: "Set up a saw", ReadWall: "Read the cut", Before: "Spot the danger",
}

// Name is what a drill is called.
func (d Drill) Name() say.Line { return say.Word(drillWords[d]) }

var drillAbout = map[Drill]string{
	FeedIt:   "Push a board past the blade and see the cut edge you get.",
	Feel:     "Two cuts with the same push and one thing changed. Tell which is which.",
	Which:    "A cut and five blades without names. Choose by what you see.",
	Read:     "Read teeth, hook angle, kerf, grind and a dial indicator.",
	SetUp:    "Supports, stop and fence, face, and a blade change.",
	ReadWall: "A piece came out wrong. Look, check and name the cause.",
	Before:   "Something is wrong with this setup. Find it before the saw runs.",
}

// About is what there is to do in it.
func (d Drill) About() say.Line { return say.Word(drillAbout[d]) }
