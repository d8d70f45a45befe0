package present

import (
	"corte/internal/httpapi/contract"
	"corte/internal/ptr"
	shopmount "corte/internal/shop/mount"
)

func (v Voice) Mounting(m shopmount.Mounting) contract.Mounting {
	out := contract.Mounting{ID: m.ID, Version: m.Version, SawID: m.Saw.ID, SawName: m.Saw.Name, SawKind: contract.MountingSawKind(m.Saw.Kind.String()),
		Thread: ptr.To(contract.MountingThread(m.Saw.Thread.String())), BladeID: m.Blade.ID, BladeName: m.Blade.Name, Step: min(m.Step, len(m.Steps)-1),
		Answers: m.Answers, By: m.By, StartedAt: m.Started, Steps: make([]contract.MountStep, len(m.Steps))}
	for i, st := range m.Steps {
		one := contract.MountStep{ID: st.ID, Title: v.Say(st.Title), Text: v.Each(st.Text), Caution: v.Say(st.Caution), Picture: contract.MountStepPicture(st.Picture),
			Numbers: st.Numbers, Checks: make([]contract.MountCheck, len(st.Checks))}
		for k, c := range st.Checks {
			one.Checks[k] = contract.MountCheck{ID: c.ID, Ask: v.Say(c.Ask), IfNot: v.Say(c.IfNot)}
		}
		out.Steps[i] = one
	}
	if m.Way != nil {
		out.Way = ptr.To(v.GrooveWay(*m.Way))
	}
	return out
}
