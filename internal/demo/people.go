package demo

import (
	"context"
	"slices"
	"time"

	"github.com/google/uuid"

	"corte/core/practice"
	"corte/internal/record"
	"corte/internal/store"
)

// somebody is one of the shop's people: who they are, and which cuts they were
// signed off for on which day of the season.
type somebody struct {
	name string
	role record.Role
	off  []signedOff
	did  []did
}

// did is a skill of Learn that somebody answered on a day of the season.
type did struct {
	skill practice.Skill
	day   int
	right bool
}

// twice are all skills of a drill, right on two days.
func twice(d practice.Drill, day int) (out []did) {
	for _, s := range d.Skills() {
		out = append(out, did{s, day, true}, did{s, day + 1, true})
	}
	return out
}

type signedOff struct {
	saw  store.Saw
	day  int
	cuts []string
}

var people = []somebody{
	{"Maren", record.Owner, nil, nil},
	{"Ilse", record.Worker, []signedOff{{longTable, 0, []string{"rip", "crosscut", "sheet", "groove"}}, {drop, 0, []string{"crosscut"}}, {walker, 40, []string{"sheet"}}}, twice(practice.Which, 30)},
	{"Tobin", record.Worker, []signedOff{{longTable, 0, []string{"rip", "sheet"}}, {walker, 0, []string{"rip", "crosscut", "sheet"}}}, nil},
	{"Wick", record.Learner, []signedOff{{drop, 1, []string{"crosscut"}}, {walker, 2, []string{"sheet"}}, {longTable, 58, []string{"sheet"}}}, slices.Concat(twice(practice.Before, 1), twice(practice.SetUp, 3), []did{{"read/count", 50, true}, {"read/hook", 50, false}, {"feed/board", 51, true}})},
	{"Bram", record.Learner, nil, []did{{"before/glove", 80, true}, {"before/glove", 81, true}, {"before/knife", 80, true}, {"before/line", 81, false}, {"feed/board", 81, false}, {"feed/board", 82, true}}},
}

// engage lets the people belong to the shop from the first day of its season.
func engage(ctx context.Context, st *store.Store, now time.Time) error {
	first := now.AddDate(0, 0, -season)
	for _, p := range people {
		id := uuid.NewSHA1(shopRow.ID, []byte(p.name))
		if err := st.AddMember(ctx, store.Member{Shop: shopRow.ID, ID: id, Name: p.name, Role: p.role.String(), Since: first}); err != nil {
			return err
		}
		for _, o := range p.off {
			if err := st.AddSignOff(ctx, store.SignOff{Shop: shopRow.ID, Member: id, Saw: o.saw.ID, Cuts: o.cuts, By: "Maren", At: first.AddDate(0, 0, o.day)}); err != nil {
				return err
			}
		}
		for i, d := range p.did {
			err := st.Practise(ctx, store.Practised{Shop: shopRow.ID, Member: &id, Skill: string(d.skill), Number: int64(i), Level: 1, Right: d.right, At: first.AddDate(0, 0, d.day).Add(time.Duration(i) * time.Minute)})
			if err != nil {
				return err
			}
		}
	}
	return nil
}
