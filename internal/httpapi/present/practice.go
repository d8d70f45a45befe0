package present

import (
	"corte/core/practice"
	"corte/core/say"
	"corte/internal/httpapi/contract"
)

func (v Voice) Standing(st practice.Standing) contract.DrillStanding {
	out := contract.DrillStanding{Drill: st.Drill, Name: v.Say(st.Drill.Name()), Times: st.Times, Known: st.Known, Skills: st.Skills, Due: st.Due, Passed: st.Passed()}
	if !st.Last.IsZero() {
		out.LastAt = &st.Last
	}
	return out
}

func (v Voice) standings(all []practice.Standing) *[]contract.DrillStanding {
	out := make([]contract.DrillStanding, len(all))
	for i, st := range all {
		out[i] = v.Standing(st)
	}
	return &out
}

func (v Voice) Fault(h *practice.Hidden) *contract.DrillFault {
	if h == nil {
		return nil
	}
	out := contract.DrillFault{Saw: contract.DrillFaultSaw(h.Saw), Sharpness: h.State["sharpness"], PitchLevel: h.State["pitch_level"],
		Signs: make([]contract.DrillSign, len(h.Seen)), Checks: make([]contract.DrillCheck, len(h.Checks))}
	for i, sign := range h.Seen {
		out.Signs[i] = contract.DrillSign{ID: sign.ID, Text: v.Say(say.Word(sign.Label)), Asked: sign.Place == "feel" || sign.Place == "when"}
	}
	for i, k := range h.Checks {
		out.Checks[i] = contract.DrillCheck{ID: k.ID, Text: v.Say(say.Word(k.Label)), How: v.Say(say.Word(k.How)), Minutes: k.Minutes, Found: h.Found(k.ID)}
	}
	return &out
}
