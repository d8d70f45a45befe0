// Package practice serves the drills of core/practice, with the shop's own
// blades, and stores the answers.
package practice

import (
	"context"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"

	"corte/core/choose"
	"corte/core/practice"
	"corte/core/say"
	"corte/internal/record"
	"corte/internal/refusal"
	shopchoose "corte/internal/shop/choose"
	"corte/internal/shop/env"
	"corte/internal/store"
)

// A Station does this work in every shop on one database. It holds no state.
type Station struct{ *env.Env }

// At is the station over an environment: a database, or a transaction of one.
func At(k *env.Env) Station { return Station{k} }

// done are the answers of who asks.
func (s Station) done(ctx context.Context, shop uuid.UUID) ([]practice.Done, error) {
	rows, err := s.Store.Practised(ctx, shop, record.ActorOf(ctx).Member)
	return Done(rows), err
}

// Done are answers as the core remembers them.
func Done(rows []store.Practised) []practice.Done {
	out := make([]practice.Done, len(rows))
	for i, r := range rows {
		out[i] = practice.Done{Skill: practice.Skill(r.Skill), At: r.At, Level: r.Level, Right: r.Right}
	}
	return out
}

// Shelf is how who asks stands with every drill, and which ones the shop asks for.
func (s Station) Shelf(ctx context.Context, shop uuid.UUID) (all []practice.Standing, asked []practice.Drill, err error) {
	done, err := s.done(ctx, shop)
	if err != nil {
		return nil, nil, err
	}
	sh, err := s.Store.Shop(ctx, shop)
	return practice.Stand(done, s.Now()), Asked(sh), err
}

// Asked are the drills that a shop asks for before somebody is signed off.
func Asked(sh store.Shop) (out []practice.Drill) {
	for _, d := range practice.Drills() {
		if slices.Contains(strings.Split(sh.Drills, ","), string(d)) {
			out = append(out, d)
		}
	}
	return out
}

// Listed is Asked the other way: drills as a shop keeps them, in their order and
// each once.
func Listed(drills []practice.Drill) string {
	var out []string
	for _, d := range practice.Drills() {
		if slices.Contains(drills, d) {
			out = append(out, string(d))
		}
	}
	return strings.Join(out, ",")
}

// An Ask is which task is wanted; the zero Skill and Level are those that who asks
// is due for.
type Ask struct {
	Drill  practice.Drill
	Skill  practice.Skill
	Number uint64
	Level  int
	Rack   bool // blades are drawn from the shop's rack
}

// A Posed is a task, or, of a drill that is fed, a board.
type Posed struct {
	practice.Task
	Feed *practice.Setup
}

// Task poses one.
func (s Station) Task(ctx context.Context, shop uuid.UUID, a Ask) (Posed, error) {
	if a.Skill == "" || a.Level == 0 {
		done, err := s.done(ctx, shop)
		if err != nil {
			return Posed{}, err
		}
		cards := practice.Remember(done)
		if a.Skill == "" {
			a.Skill, a.Level = practice.Next(cards, a.Drill, s.Now())
		} else {
			a.Level = 1
			if i := slices.IndexFunc(cards, func(c practice.Card) bool { return c.Skill == a.Skill }); i >= 0 {
				a.Level = cards[i].Level
			}
		}
	}
	if a.Skill.Drill() != a.Drill {
		return Posed{}, refusal.Of("skill", "%s is not of this drill", say.Word(string(a.Skill)))
	}
	return s.pose(ctx, shop, a)
}

func (s Station) pose(ctx context.Context, shop uuid.UUID, a Ask) (Posed, error) {
	if a.Skill.Drill() == practice.FeedIt {
		b, err := practice.Board(a.Skill, a.Number, a.Level)
		return Posed{practice.Task{Skill: a.Skill, Number: a.Number, Level: a.Level, Ask: b.Said()}, &b}, refusal.Placed(err)
	}
	var rack []choose.Candidate
	if a.Rack && a.Skill.Drill() == practice.Which {
		blades, err := s.Store.Rack(ctx, shop)
		if err != nil {
			return Posed{}, err
		}
		for _, b := range blades {
			rack = append(rack, choose.Candidate{Blade: b.Blade, State: shopchoose.State(b.Blade, b.Condition), Barred: choose.Bar(b.Condition)})
		}
	}
	t, err := practice.Pose(a.Skill, a.Number, a.Level, rack)
	return Posed{Task: t}, refusal.Placed(err)
}

// A Given is an answer to a task, or a push of a board.
type Given struct {
	practice.Answer
	Push []practice.Moment // nil where it is no board
}

// A Result is what an answer was worth, and when it is asked again.
type Result struct {
	practice.Verdict
	Wall *practice.Wall
	Next time.Time
}

// Answer judges an answer and keeps it for who gave it.
func (s Station) Answer(ctx context.Context, shop uuid.UUID, a Ask, g Given) (Result, error) {
	t, err := s.pose(ctx, shop, a)
	if err != nil {
		return Result{}, err
	}
	var out Result
	if t.Feed != nil {
		out, err = fed(*t.Feed, g.Push)
	} else {
		out.Verdict, err = t.Judge(g.Answer)
	}
	if err != nil {
		return Result{}, refusal.Placed(err)
	}
	who := record.ActorOf(ctx).Member
	if err := s.Store.Practise(ctx, store.Practised{Shop: shop, Member: who, Skill: string(a.Skill), Number: int64(a.Number), Level: a.Level, Right: out.Right, At: s.Now()}); err != nil {
		return Result{}, err
	}
	done, err := s.done(ctx, shop)
	for _, c := range practice.Remember(done) {
		if c.Skill == a.Skill {
			out.Next = c.Due
		}
	}
	return out, err
}

func fed(b practice.Setup, push []practice.Moment) (Result, error) {
	w, err := practice.Feed(b, push)
	if err != nil {
		return Result{}, &refusal.Error{Reason: refusal.Invalid, Field: "push", What: say.Error(err)}
	}
	even, err := practice.Steady(b, b.Figures().Feed)
	return Result{Verdict: practice.Verdict{Right: w.Clean() && !w.Back, Says: w.Says(b, even)}, Wall: &w}, err
}
