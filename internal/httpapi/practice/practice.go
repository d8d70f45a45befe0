// Package practice answers for drills and the practice board.
package practice

import (
	"cmp"
	"context"
	"math"
	"time"

	"corte/core/blade"
	"corte/core/cut"
	"corte/core/measure"
	"corte/core/practice"
	"corte/internal/httpapi/contract"
	"corte/internal/httpapi/present"
	"corte/internal/httpapi/request"
	"corte/internal/ptr"
	"corte/internal/refusal"
	shoppractice "corte/internal/shop/practice"
)

// Handlers meet the part of the contract that is this station's.
type Handlers struct {
	request.Scope
}

func (s Handlers) ListDrills(ctx context.Context, _ contract.ListDrillsRequestObject) (contract.ListDrillsResponseObject, error) {
	v := present.VoiceOf(ctx)
	all, asked, err := s.In(ctx).Practice.Shelf(ctx, request.Shop(ctx))
	if err != nil {
		return nil, err
	}
	out := contract.ListDrills200JSONResponse{Drills: make([]contract.ShelvedDrill, len(all)), Asked: append([]practice.Drill{}, asked...), Whys: []contract.ShelvedWhy{}}
	for i, st := range all {
		d := v.Standing(st)
		out.Drills[i] = contract.ShelvedDrill{Drill: d.Drill, Name: d.Name, Times: d.Times, Known: d.Known, Skills: d.Skills, Due: d.Due, LastAt: d.LastAt, Passed: d.Passed, About: v.Say(st.Drill.About())}
	}
	for _, id := range practice.Whys() {
		w, err := practice.WhyOf(id)
		if err != nil {
			return nil, err
		}
		out.Whys = append(out.Whys, contract.ShelvedWhy{Why: contract.WhyName(id), Title: v.Say(w.Title)})
	}
	return out, nil
}

func (s Handlers) GetDrillTask(ctx context.Context, r contract.GetDrillTaskRequestObject) (contract.GetDrillTaskResponseObject, error) {
	v := present.VoiceOf(ctx)
	t, err := s.In(ctx).Practice.Task(ctx, request.Shop(ctx), shoppractice.Ask{Drill: r.Drill, Skill: ptr.Value(r.Params.Skill), Number: uint64(r.Params.Number), Level: ptr.Value(r.Params.Level), Rack: ptr.Value(r.Params.Rack)})
	if err != nil {
		return nil, err
	}
	out := contract.GetDrillTask200JSONResponse{Drill: r.Drill, Skill: t.Skill, SkillName: v.Say(t.Skill.Words()), Number: r.Params.Number, Level: t.Level, Ask: v.Say(t.Ask),
		Choices: make([]contract.DrillChoice, len(t.Choices)), Unit: ptr.NonZero(contract.DrillTaskUnit(t.Unit))}
	for i, c := range t.Choices {
		out.Choices[i] = contract.DrillChoice{Key: c.Key, Text: ptr.NonZero(v.Say(c.Say)), Blade: drawn(c.Blade), Felt: felt(c.Felt), Plan: plan(c.Plan)}
	}
	if out.Blade = drawn(t.Blade); t.Blade != nil {
		out.Shows = ptr.To(contract.Rim)
		if t.Skill == "read/grind" {
			out.Shows = ptr.To(contract.Fronts)
		}
	}
	if t.Odd != nil {
		out.Odd = &contract.OddTooth{Tooth: t.Odd.Tooth, What: contract.OddToothWhat(t.Odd.What)}
	}
	if d := t.Dial; d != nil {
		out.Face = &contract.GaugeFace{Caliper: d.Caliper, Inch: d.Inch, ShowsMm: d.Shows.Mm(), StepMm: d.Step().Mm()}
	}
	if b := t.Board; b != nil {
		out.Board = &contract.DrillBoard{SpanMm: b.Span.Mm(), BreadthMm: b.Breadth.Mm(), LineMm: b.Line.Mm(), AtMm: millimetres(t.At)}
	}
	out.Plan, out.Fault = plan(t.Plan), v.Fault(t.Case)
	if t.Feed != nil {
		out.Feed = ptr.To(feedBoard(*t.Feed))
	}
	return out, nil
}

func millimetres(all []measure.Length) []float64 {
	out := make([]float64, len(all))
	for i, l := range all {
		out[i] = l.Mm()
	}
	return out
}

// drawn is what is drawn of a blade, and nothing else that is known of it.
func drawn(b *blade.Blade) *contract.DrawnBlade {
	if b == nil {
		return nil
	}
	out := contract.DrawnBlade{DiameterMm: b.Diameter.Mm(), BoreMm: b.Bore.Mm(), KerfMm: b.Kerf.Mm(), PlateMm: cmp.Or(b.Plate, 0.7*b.Kerf).Mm(), Teeth: b.Teeth, Grind: b.Grind,
		BevelDeg: b.Bevel, HookDeg: b.Hook, GulletDepthMm: b.GulletDepth().Mm(), Shoulder: &b.Shoulder, Shear: &b.Shear, GulletShape: &b.GulletShape}
	if b.Grind == blade.ATBR {
		out.Group = ptr.To(b.GroupSize())
	}
	return &out
}

func felt(f *practice.Felt) *contract.FeltCut {
	if f == nil {
		return nil
	}
	return &contract.FeltCut{Seconds: f.Took.Seconds(), NoteHz: f.Note, Turns: f.Turns, Load: f.Load, LengthMm: f.Setup.Job.FeedLength().Mm(), Wall: encodeWall(f.Wall)}
}

func plan(p *practice.Plan) *contract.SawPlanDrawn {
	if p == nil {
		return nil
	}
	return &contract.SawPlanDrawn{Across: p.Direction.Across(), Fence: p.Fence, Gauge: p.Gauge, FenceOpenMm: p.FenceOpen.Mm(), FenceSide: contract.SawPlanDrawnFenceSide(cmp.Or(p.FenceSide, cut.Right).String()),
		Leans: leans[p.Leans], Knife: p.Knife, Stop: contract.SawPlanDrawnStop(cmp.Or(string(p.Stop), "none")), BlockMm: p.Block.Mm(), HandMm: p.Hand.Mm(), PushBlock: p.PushBlock,
		Gloves: p.Gloves, InLine: p.InLine}
}

var leans = map[cut.Side]contract.SawPlanDrawnLeans{cut.UnknownSide: "none", cut.Left: "left", cut.Right: "right"}

func feedBoard(b practice.Setup) contract.PracticeBoard {
	w := b.Figures().Window
	out := contract.PracticeBoard{LengthMm: b.Job.FeedLength().Mm(), Across: b.Job.Direction.Across(), HandHeld: b.Drive.HandHeld, SlowestMMin: float64(w.Slowest), FastestMMin: float64(w.Fastest),
		ReachMm: practice.Reach.Mm(), Teeth: b.Blade.Teeth, StallLoad: practice.StallLoad, StallMs: float64(practice.StallTime.Milliseconds())}
	for _, x := range b.Samples() {
		out.Samples = append(out.Samples, contract.FeedSample{FeedMMin: thousandths(float64(x.Feed)), Load: thousandths(x.Load), Turns: thousandths(x.Turns), Scorch: thousandths(x.Scorch), Splinter: thousandths(x.Splinter)})
	}
	return out
}

func (s Handlers) AnswerDrill(ctx context.Context, r contract.AnswerDrillRequestObject) (contract.AnswerDrillResponseObject, error) {
	v, in := present.VoiceOf(ctx), r.Body
	given := shoppractice.Given{Answer: practice.Answer{Choice: ptr.Value(in.Choice), Value: ptr.Value(in.Value), Checks: ptr.Value(in.Checks)}}
	for _, mm := range ptr.Value(in.PlacesMm) {
		given.Places = append(given.Places, measure.Length(mm))
	}
	if p := in.Push; p != nil {
		if len(p.Ms) != len(p.Mm) {
			return nil, refusal.Of("push.mm", "there are not as many places as times")
		}
		for i := range p.Ms {
			given.Push = append(given.Push, practice.Moment{At: time.Duration(p.Ms[i] * float64(time.Millisecond)), Pos: measure.Length(p.Mm[i])})
		}
	}
	got, err := s.In(ctx).Practice.Answer(ctx, request.Shop(ctx), shoppractice.Ask{Drill: in.Skill.Drill(), Skill: in.Skill, Number: uint64(in.Number), Level: in.Level, Rack: ptr.Value(in.Rack)}, given)
	if err != nil {
		return nil, err
	}
	out := contract.AnswerDrill201JSONResponse{Right: got.Right, Truth: ptr.NonZero(got.Truth), Says: v.Each(got.Says), Told: make([]contract.DrillTold, len(got.Told)), NextAt: ptr.NonZero(got.Next)}
	if got.Truth == "" && got.Wall == nil && got.Supports == nil {
		out.Value = &got.Value
	}
	for i, t := range got.Told {
		out.Told[i] = contract.DrillTold{Key: t.Key, Verdict: t.Verdict, Says: v.Each(t.Says), SlowestMMin: ptr.Positive(float64(t.Window.Slowest)), FastestMMin: ptr.Positive(float64(t.Window.Fastest))}
	}
	if got.Supports != nil {
		out.Supports = ptr.To(v.Supports(*got.Supports))
	}
	if got.Wall != nil {
		out.Wall = ptr.To(encodeWall(*got.Wall))
	}
	return out, nil
}

func encodeWall(w practice.Wall) contract.PracticeWall {
	n := len(w.Steps)
	out := contract.PracticeWall{FeedMMin: make([]float64, n), Scorch: make([]float64, n), Splinter: make([]float64, n), Whole: w.Whole, Clean: w.Clean(), Seconds: w.Took.Seconds()}
	for i, st := range w.Steps {
		out.FeedMMin[i], out.Scorch[i], out.Splinter[i] = thousandths(float64(st.Feed)), thousandths(st.Scorch), thousandths(st.Splinter)
	}
	return out
}

// thousandths is fine enough for a drawing, and a third of the length on the way.
func thousandths(x float64) float64 { return math.Round(x*1000) / 1000 }

func (s Handlers) GetWhy(ctx context.Context, r contract.GetWhyRequestObject) (contract.GetWhyResponseObject, error) {
	v := present.VoiceOf(ctx)
	w, err := practice.WhyOf(string(r.Why))
	if err != nil {
		return nil, refusal.Placed(err)
	}
	out := contract.GetWhy200JSONResponse{Why: r.Why, Title: v.Say(w.Title), Handle: v.Say(w.Handle), Notches: make([]contract.WhyNotch, len(w.Notches))}
	for i, n := range w.Notches {
		f, j := n.Figures, n.Setup.Job
		out.Notches[i] = contract.WhyNotch{Label: v.Say(n.Label), Says: v.Say(n.Says), Across: j.Direction.Across(), Support: j.Exit, Blade: *drawn(&n.Setup.Blade), ThicknessMm: j.Thickness.Mm(), HeightMm: j.Height.Mm(),
			HeelMm: n.Setup.State.Heel.Mm(), FeedMMin: float64(f.Feed), ArcMm: f.Arc.Mm(), ChipMm: f.MeanChip.Mm(), TeethInCut: f.TeethInCut, PushShare: f.PushShare, Load: f.Load, Heat: n.Heat(),
			Splinter: n.Splinter(), Fill: n.Fill, WallMarkMm: f.WallMark.Mm()}
	}
	return out, nil
}
