// Package truing judges readings of a saw and a blade, and keeps them.
package truing

import (
	"context"
	"encoding/json"
	"slices"

	"github.com/google/uuid"

	"corte/core/fault"
	"corte/core/history"
	"corte/core/measure"
	"corte/core/saw"
	"corte/core/say"
	"corte/core/truing"
	"corte/internal/refusal"
	"corte/internal/shop/env"
	"corte/internal/shop/rack"
	"corte/internal/store"
)

// A Station does this work in every shop on one database. It holds no state.
type Station struct{ *env.Env }

// At is the station over an environment: a database, or a transaction of one.
func At(k *env.Env) Station { return Station{k} }

// A Reading is everything that a truing session read.
type Reading struct {
	Test          string // heel, fence, runout, tilt, gauge, clearance, width or depth
	Saw, Blade    *uuid.UUID
	First, Second []measure.Length
	Span          measure.Length
	Instrument    truing.Instrument
	Dial          truing.Side // of the blade, that the instrument stands on
	Gap, Height   measure.Length
	Length        measure.Length
	Wanted, Found measure.Length
	Slots         []int
	By, Note      string
}

// A Truing is what readings come to.
type Truing struct {
	truing.Finding
	Figure        float64 // what is kept and drawn over time
	Unit          string  // mm or deg
	Aim, Act      float64 // tolerances in that unit; 0 where there is none
	Heel          *truing.Heel
	Fence         *truing.Fence
	RunOut        *truing.RunOut
	Adjustment    *truing.Adjustment
	Left, Right   *truing.Clearance
	MarksApart    measure.Length
	First, Second []int // doubtful readings
	Saw           store.Saw
}

// WorkOut says what readings come to.
func (s Station) WorkOut(ctx context.Context, shop uuid.UUID, r Reading) (Truing, error) {
	var w store.Saw
	var err error
	if r.Saw != nil {
		if w, err = s.Store.Saw(ctx, shop, *r.Saw); err != nil {
			return Truing{}, refusal.NotThere(err, "saw_id", "saw")
		}
		if t := truing.Test(r.Test); slices.Contains(truing.TestsOf(saw.Table), t) && !slices.Contains(truing.TestsOf(w.Kind), t) {
			return Truing{}, refusal.Of("test", "%[2]q doesn't apply to a %[1]s saw", w.Kind, t.Words())
		}
		if r.Test == "scoring" && w.Scoring.Kerf == 0 {
			return Truing{}, refusal.Of("test", "no scoring blade is recorded for this saw. Record it first")
		}
	} else if r.Test != "clearance" && r.Test != "runout" {
		return Truing{}, refusal.Of("saw_id", "choose the saw")
	}
	out, err := workOut(r, w.Saw, w.HeldTo())
	out.Saw = w
	if err != nil {
		return out, refusal.Placed(err)
	}
	if out.First == nil {
		out.First = []int{}
	}
	if out.Second == nil {
		out.Second = []int{}
	}
	return out, err
}

func workOut(r Reading, w saw.Saw, t truing.Tolerances) (Truing, error) {
	out := Truing{Unit: "mm", First: truing.Doubtful(r.First), Second: truing.Doubtful(r.Second)}
	two := func(what string) error {
		if len(r.First) != 2 {
			return fault.At("first reading", "read %s", what)
		}
		return nil
	}
	switch r.Test {
	case "heel":
		if err := two("the same tooth at the front and at the rear"); err != nil {
			return out, err
		}
		h, err := truing.HeelOf(r.First[0], r.First[1], r.Span, w.ToBolt, r.Instrument, r.Dial)
		if err != nil {
			return out, err
		}
		out.Heel, out.Finding, out.Figure, out.Aim, out.Act = &h, h.Judge(t), h.TowardFence.Mm(), t.HeelAim.Mm(), t.HeelAct.Mm()
	case "fence":
		if err := two("the fence from the miter slot, at the front and at the rear"); err != nil {
			return out, err
		}
		f, err := truing.FenceOf(r.First[0], r.First[1], r.Span, r.Instrument)
		if err != nil {
			return out, err
		}
		out.First = nil // these are widths, not a dial's readings
		out.Fence, out.Finding, out.Figure, out.Act = &f, f.Judge(t), f.Open.Mm(), t.FenceOpen.Mm()
	case "runout":
		ro, err := truing.RunOutOf(r.First, r.Second)
		if err != nil {
			return out, err
		}
		out.RunOut, out.Finding, out.Figure, out.Aim, out.Act = &ro, ro.Judge(t), ro.Spread.Mm(), t.RunOutAim.Mm(), t.RunOutAct.Mm()
	case "tilt":
		deg, err := truing.Tilt(r.Gap, r.Height)
		if err != nil {
			return out, err
		}
		out.Finding, out.Figure, out.Unit, out.Act = truing.JudgeTilt(deg, t), deg, "deg", t.TiltDeg
	case "gauge":
		if err := two("the strip's width at the end that was cut first and at the one cut last"); err != nil {
			return out, err
		}
		out.First = nil
		g, err := truing.FiveCut(r.First[0], r.First[1], r.Length)
		if err != nil {
			return out, err
		}
		out.Finding, out.Figure, out.Unit, out.Act = g.Judge(t), g.AngleDeg, "deg", t.GaugeDeg
	case "width", "depth":
		lead := w.FenceLead
		if r.Test == "depth" {
			lead = w.WheelLead
		}
		a, err := truing.Adjust(r.Wanted, r.Found, lead)
		if err != nil {
			return out, err
		}
		out.Adjustment, out.Figure = &a, a.Move.Mm()
		if out.Finding = a.JudgeWidth(); r.Test == "depth" {
			out.Finding = a.JudgeDepth(w.Kind != saw.Table)
		}
	case "scoring":
		if err := two("how far the score extends past the main kerf, left and right"); err != nil {
			return out, err
		}
		x, err := truing.ScoredOf(r.First[0], r.First[1])
		if err != nil {
			return out, err
		}
		out.First = nil
		out.Adjustment, out.Finding, out.Figure = &truing.Adjustment{Move: x.Move}, x.Judge(), x.Wider.Mm()
	case "clearance":
		if w.RPM > 0 {
			out.MarksApart = truing.MarksApart(truing.UsualFeed, w.RPM)
		}
		l, err := truing.ClearanceOf(r.First, r.Slots)
		if err != nil {
			return out, err
		}
		out.Left, out.Finding, out.Figure = &l, l.Judge(out.MarksApart), l.Range.Mm()
		if len(r.Second) > 0 {
			rt, err := truing.ClearanceOf(r.Second, r.Slots)
			if err != nil {
				return out, fault.At("second reading", "%s", err)
			}
			f := rt.Judge(out.MarksApart)
			out.Right, out.Figure = &rt, max(out.Figure, rt.Range.Mm())
			out.Verdict = max(out.Verdict, f.Verdict)
			out.Says = append(prefixed("Left side: %s", out.Says), prefixed("Right side: %s", f.Says)...)
			out.Do = append(out.Do, f.Do...)
		}
	default:
		return out, fault.At("test", "there is no such test")
	}
	return out, nil
}

func prefixed(form string, says []say.Line) []say.Line {
	out := make([]say.Line, len(says))
	for i, s := range says {
		out[i] = say.Line{Form: form, With: []any{s}}
	}
	return out
}

// Save logs a session. input is what was sent, kept
// whole so that it can be worked out anew.
func (s Station) Save(ctx context.Context, shop uuid.UUID, r Reading, input []byte, sent env.Sent) (Past, error) {
	if r.Test == "width" || r.Test == "depth" || r.Test == "scoring" {
		return Past{}, refusal.Of("test", "an adjustment isn't saved")
	}
	if r.Test == "clearance" && r.Blade == nil {
		return Past{}, refusal.Of("blade_id", "choose the blade")
	}
	t, err := s.WorkOut(ctx, shop, r)
	if err != nil {
		return Past{}, err
	}
	if r.Blade != nil {
		if _, err := s.Store.Blade(ctx, shop, *r.Blade); err != nil {
			return Past{}, refusal.NotThere(err, "blade_id", "blade")
		}
	}
	d := history.Truing{Figure: t.Figure, Unit: t.Unit, Verdict: t.Verdict.String(), Input: input}
	if t.Heel != nil {
		d.Heel = &t.Heel.TowardFence
	}
	if t.Fence != nil {
		d.Open = &t.Fence.Open
	}
	raw, err := json.Marshal(d)
	if err != nil {
		return Past{}, err
	}
	e := store.Entry{Shop: shop, At: sent.At(s.Now()), Kind: history.Kind(r.Test), Blade: r.Blade, Saw: r.Saw, By: r.By, Note: r.Note, Detail: raw}
	out, err := s.Store.Append(ctx, e)
	return past(out, t.Saw), err
}

// A Past is one of the log, with the band that its figure is held to now.
type Past struct {
	store.Entry
	Low, High float64
}

// Recent lists what was measured before, newest first.
func (s Station) Recent(ctx context.Context, shop uuid.UUID, saw, blade *uuid.UUID, test string, limit int) ([]Past, error) {
	rows, err := s.Store.Truings(ctx, shop, saw, blade, test, limit)
	if err != nil {
		return nil, err
	}
	saws, err := s.Store.Saws(ctx, shop)
	if err != nil {
		return nil, err
	}
	out := make([]Past, len(rows))
	for i, e := range rows {
		var w store.Saw // a retired saw is held to what is usual
		if e.Saw != nil {
			if k := slices.IndexFunc(saws, func(w store.Saw) bool { return w.ID == *e.Saw }); k >= 0 {
				w = saws[k]
			}
		}
		out[i] = past(e, w)
	}
	return out, nil
}

func past(e store.Entry, w store.Saw) Past {
	low, high := w.HeldTo().Band(truing.Test(e.Kind))
	return Past{e, low, high}
}

// MoveSaw logs that a saw was moved or bumped.
func (s Station) MoveSaw(ctx context.Context, shop uuid.UUID, id uuid.UUID, note string) (store.Entry, error) {
	if _, err := rack.At(s.Env).Saw(ctx, shop, id); err != nil {
		return store.Entry{}, err
	}
	e := store.Entry{Shop: shop, At: s.Now(), Kind: history.KindMoved, Saw: &id, Note: note}
	return s.Store.Append(ctx, e)
}
