package demo

import (
	"context"
	"time"

	"github.com/google/uuid"

	"corte/internal/record"
	"corte/internal/store"
)

// somebody is one of the shop's people: who they are, and which cuts they were
// signed off for on which day of the season.
type somebody struct {
	name string
	role record.Role
	off  []signedOff
}

type signedOff struct {
	saw  store.Saw
	day  int
	cuts []string
}

var people = []somebody{
	{"Maren", record.Owner, nil},
	{"Ilse", record.Worker, []signedOff{{longTable, 0, []string{"rip", "crosscut", "sheet", "groove"}}, {drop, 0, []string{"crosscut"}}, {walker, 40, []string{"sheet"}}}},
	{"Tobin", record.Worker, []signedOff{{longTable, 0, []string{"rip", "sheet"}}, {walker, 0, []string{"rip", "crosscut", "sheet"}}}},
	{"Wick", record.Learner, []signedOff{{drop, 1, []string{"crosscut"}}, {walker, 2, []string{"sheet"}}, {longTable, 58, []string{"sheet"}}}},
	{"Bram", record.Learner, nil},
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
	}
	return nil
}
