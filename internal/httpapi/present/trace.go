package present

import (
	"encoding/json"

	"corte/core/trace"
	"corte/internal/httpapi/contract"
	"corte/internal/ptr"
	shoptrace "corte/internal/shop/trace"
)

func (v Voice) Cause(id string) string {
	c, _ := trace.CauseByID(id)
	return v.Word(c.Label)
}

// InWords puts the ids of signs and checks into words.
func (v Voice) InWords(ids []string) []string {
	out := make([]string, len(ids))
	for i, id := range ids {
		if s, ok := trace.SignByID(id); ok {
			out[i] = v.Word(s.Label)
		} else if c, ok := trace.CheckByID(id); ok {
			out[i] = v.Word(c.Label)
		}
	}
	return out
}

// reasonsShown are as many as anyone weighs; the rest is hardly likely.
const reasonsShown = 8

func (v Voice) Trace(t shoptrace.Trace) (contract.Trace, error) {
	out := contract.Trace{ID: t.ID, Version: t.Version, SawID: t.Saw, SawName: t.SawName, SawKind: contract.TraceSawKind(t.SawKind.String()), BladeID: t.Blade,
		BladeName: t.BladeName, Present: append([]string{}, t.Present...), Absent: append([]string{}, t.Absent...), Facts: []string{}, Done: []contract.TraceDone{}, Pending: append([]string{}, t.Pending...),
		Stop: t.Stop, Doubts: v.Each(t.Doubts), Reasons: []contract.TraceReason{}, Next: []contract.TraceCheck{}, Exhausted: t.Exhausted, Piece: v.Words(t.Piece),
		Before: []contract.TraceEarlier{}, By: t.By, StartedAt: t.Started, EndedAt: t.Ended, Cause: v.Cause(t.Trace.Cause), Fixed: t.Fixed, Note: t.Note}
	for _, f := range t.Facts {
		if !f.Says.Zero() {
			out.Facts = append(out.Facts, v.Say(f.Says))
		}
	}
	for _, k := range trace.Tests() {
		if a, done := t.Answers[k.ID]; done {
			out.Done = append(out.Done, contract.TraceDone{ID: k.ID, Label: v.Word(k.Label), Answer: contract.TraceDoneAnswer(a), FromLog: v.Say(t.FromLog[k.ID])})
		}
	}
	for _, r := range t.Reasons[:reasonsShown] {
		out.Reasons = append(out.Reasons, contract.TraceReason{ID: r.ID, Label: v.Word(r.Label), Share: r.Share, Hazard: r.Hazard, For: v.InWords(r.For), Against: v.InWords(r.Against), Remedy: v.Word(r.Remedy)})
	}
	for _, n := range t.Next {
		out.Next = append(out.Next, contract.TraceCheck{Leads: (*contract.TraceCheckLeads)(ptr.NonZero(n.Leads())), ID: n.ID, Label: v.Word(n.Label), Minutes: n.Minutes, Kind: contract.TraceCheckKind(n.Kind), Record: n.Record, How: v.Word(n.How), Bits: n.Bits})
	}
	for _, b := range t.Before {
		out.Before = append(out.Before, contract.TraceEarlier{ID: b.ID, At: b.At, Signs: b.Signs, Cause: b.Cause, Fixed: b.Fixed})
	}
	err := json.Unmarshal(t.Cut, &out.Cut)
	return out, err
}
