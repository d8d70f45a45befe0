// Package bench answers what a saw wants next.
package bench

import (
	"context"

	"corte/internal/httpapi/contract"
	"corte/internal/httpapi/present"
	"corte/internal/httpapi/request"
	"corte/internal/ptr"
)

// Handlers meet the part of the contract that is this station's.
type Handlers struct {
	request.Scope
}

func (s Handlers) GetBench(ctx context.Context, _ contract.GetBenchRequestObject) (contract.GetBenchResponseObject, error) {
	v := present.VoiceOf(ctx)
	all, err := s.In(ctx).Bench.All(ctx, request.Shop(ctx))
	if err != nil {
		return nil, err
	}
	out := contract.GetBench200JSONResponse{Items: make([]contract.BenchSaw, len(all))}
	for i, b := range all {
		one := contract.BenchSaw{Saw: present.Saw(b.Saw), Due: make([]contract.BenchDue, len(b.Due)), Truings: []contract.TruingStand{}, Last: make([]contract.LogEntry, len(b.Last))}
		for k, d := range b.Due {
			one.Due[k] = contract.BenchDue{Place: contract.BenchDuePlace(d.Place), Reason: contract.BenchDueReason(d.Reason), Act: contract.BenchDueAct(d.Act()), Presses: d.Presses(), Text: v.Say(d.Said())}
		}
		if b.Blade != nil {
			one.Blade = ptr.To(v.Blade(*b.Blade))
		}
		for k, e := range b.Last {
			if one.Last[k], err = v.Entry(e); err != nil {
				return nil, err
			}
		}
		for _, st := range b.Stands {
			unit := contract.TruingStandFigureUnitMm
			if st.Test.InDegrees() {
				unit = contract.TruingStandFigureUnitDeg
			}
			stand := contract.TruingStand{FigureUnit: unit, Test: contract.TruingTest(st.Test), Stale: v.Say(st.Doubt.Said())}
			stand.Low, stand.High = b.Saw.HeldTo().Band(st.Test)
			if st.Entry != nil {
				e, err := v.Entry(*st.Entry)
				if err != nil {
					return nil, err
				}
				stand.Figure, stand.Verdict, stand.At = e.Figure, e.Verdict, &st.Entry.At
			}
			one.Truings = append(one.Truings, stand)
		}
		if b.Mounting != nil {
			one.MountingID, one.MountingBlade = &b.Mounting.ID, &b.Goes
		}
		out.Items[i] = one
	}
	return out, nil
}
