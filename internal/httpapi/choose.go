package httpapi

import (
	"context"
	"math"

	"github.com/google/uuid"

	"corte/core/choose"
	"corte/core/cut"
	"corte/core/guide"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/say"
	"corte/internal/httpapi/contract"
	shopchoose "corte/internal/shop/choose"
	"corte/internal/shop/kit"
)

func (s *server) CreatePlan(ctx context.Context, r contract.CreatePlanRequestObject) (contract.CreatePlanResponseObject, error) {
	v := voiceOf(ctx)
	c := DecodeCut(r.Body.Cut)
	p, err := s.in(ctx).Choose.Plan(ctx, s.shop, c, planLimit(r.Body.Limit))
	if err != nil {
		return nil, err
	}
	return contract.CreatePlan200JSONResponse(v.encodePlan(p)), nil
}

func (s *server) CreateSweep(ctx context.Context, r contract.CreateSweepRequestObject) (contract.CreateSweepResponseObject, error) {
	v := voiceOf(ctx)
	c := DecodeCut(r.Body.Cut)
	spec := shopchoose.SweepSpec{Blade: r.Body.BladeID, Step: r.Body.StepMm, Also: value(r.Body.AlsoMm)}
	sweep, err := s.in(ctx).Choose.Sweep(ctx, s.shop, c, spec)
	if err != nil {
		return nil, err
	}
	return contract.CreateSweep200JSONResponse(v.encodeSweep(sweep)), nil
}

// planLimit is how many options are told of; more than anyone reads.
func planLimit(l *int) int {
	if l == nil {
		return 60
	}
	return *l
}

// DecodeCut reads a cut: its words are the core's own.
func DecodeCut(c contract.Cut) shopchoose.Cut {
	return shopchoose.Cut{
		SawID: c.SawID, Material: c.Material, Direction: c.Direction, Motion: c.Motion, Finish: c.Finish,
		Thickness: c.ThicknessMm, Width: c.WidthMm, Length: c.LengthMm,
		Exit: c.ExitSupport, Other: c.OtherSupport, Form: value(c.Form), Bed: value(c.Bed),
		Depth: value(c.DepthMm), Piece: value(c.PieceMm), BevelDeg: value(c.BevelDeg), MiterDeg: value(c.MiterDeg),
		Pieces: value(c.Pieces), Moves: value(c.Moves), BrakeOff: value(c.BrakeOff), Moisture: value(c.Moisture), FenceSide: value(c.FenceSide),
	}
}

func (s *server) CreateComparison(ctx context.Context, r contract.CreateComparisonRequestObject) (contract.CreateComparisonResponseObject, error) {
	v := voiceOf(ctx)
	c := DecodeCut(r.Body.Cut)
	pins := make([]shopchoose.Pin, len(r.Body.Pins))
	for i, p := range r.Body.Pins {
		pins[i] = shopchoose.Pin{Blade: p.BladeID, Height: value(p.HeightMm)}
		pins[i].Exit = p.ExitSupport
		pins[i].Other = p.OtherSupport
	}
	w, all, err := s.in(ctx).Choose.Compare(ctx, s.shop, c, pins)
	if err != nil {
		return nil, err
	}
	out := contract.CreateComparison200JSONResponse{Items: make([]contract.Compared, len(all))}
	for i, one := range all {
		out.Items[i] = contract.Compared{BladeID: one.Blade, Cut: encodeCut(w.ID, one.Job), Refused: text(sentence(v.Say(one.Refused)))}
		if one.Setting != nil {
			out.Items[i].Setting = ptr(v.encodeSetting(*one.Setting))
		}
	}
	return out, nil
}

func (s *server) CreateSupportPlan(ctx context.Context, r contract.CreateSupportPlanRequestObject) (contract.CreateSupportPlanResponseObject, error) {
	v := voiceOf(ctx)
	in := r.Body
	m, err := material.Get(in.Material)
	if err != nil {
		return nil, &kit.Error{Reason: kit.Invalid, Field: "material", What: say.Error(err)}
	}
	b := guide.Board{Material: m, Thickness: in.ThicknessMm, Span: in.SpanMm,
		Breadth: in.BreadthMm, Line: in.LineMm}
	var now []measure.Length
	for _, at := range value(in.NowMm) {
		now = append(now, measure.Length(at))
	}
	plan, as, err := s.in(ctx).Choose.Supports(b, now)
	if err != nil {
		return nil, err
	}
	out := contract.CreateSupportPlan200JSONResponse{Plan: v.encodeSupports(plan)}
	if as != nil {
		out.Now = ptr(v.encodeSupports(*as))
	}
	return out, nil
}

func (v voice) encodePlan(p shopchoose.Plan) contract.Plan {
	j := p.Job
	out := contract.Plan{
		Cut: encodeCut(p.Saw.ID, j), Modelled: j.Material.Kind.Modelled(), HeelMm: p.Heel, HeelFrom: sentence(v.Say(p.HeelFrom)), PowerLimitW: p.Saw.PowerLimitW(),
		MeetsWidthMm: j.MeetsWidth(), MeetsThicknessMm: j.MeetsThickness(), BothFaces: j.BothFaces,
		Options: make([]contract.Option, len(p.Options)), OptionsTotal: p.Total, Stopped: make([]contract.Stopped, len(p.Stopped)),
		Hold: make([]contract.Advice, len(p.Hold)), Cautions: v.Each(p.Cautions), Learnt: orNone(v.Each(p.Learnt)), FeedLengthMm: j.FeedLength(), ShowFace: contract.PlanShowFace(p.ShowFace),
		Verdict: p.Verdict, Findings: make([]contract.Finding, len(p.Findings)), Sure: v.Say(p.Sure),
		ExitSupports: append([]cut.Support{}, p.Exits...), OtherSupports: append([]cut.Support{}, p.Others...), FenceSide: encodeSide(p.Fence),
	}
	for i, f := range p.Findings {
		out.Findings[i] = contract.Finding{Rule: contract.FindingRule(f.Rule), Verdict: f.Verdict, Why: v.Say(f.Why), WayOut: v.Say(f.WayOut), Ask: text(v.Say(f.Ask))}
	}
	for i, o := range p.Options {
		out.Options[i] = v.encodeOption(o, j.Motion)
	}
	for i, st := range p.Stopped {
		out.Stopped[i] = contract.Stopped{
			Rule: contract.Rule(st.Rule.String()), Why: sentence(v.Say(st.Why)), WayOut: sentence(v.Say(st.WayOut)), BladeIds: st.Blades,
		}
	}
	for i, a := range p.Hold {
		out.Hold[i] = contract.Advice{Topic: contract.AdviceTopic(a.Topic), Text: v.Say(a.Text), Halt: a.Halt}
	}
	if w := p.Swap; w != nil {
		out.Swap = &contract.Swap{
			Stay: w.Stay, OnBladeID: w.On, BestBladeID: w.Best, OnMinutes: positive(w.OnMinutes), Minutes: positive(w.Minutes),
			ChangeMinutes: &p.Saw.ChangeMinutes, Text: sentence(v.Say(w.Text)),
		}
	}
	if k := p.Kerfs; k != nil {
		out.Kerfs = &contract.KerfAdvice{
			Thin: v.encodeKerf(k.Thin), Full: v.encodeKerf(k.Full), MotorW: p.Saw.MotorW, CircuitW: positive(k.CircuitW), Text: sentence(v.Say(k.Text)), FeedMMin: float64(k.Feed),
		}
	}
	if r := p.ByRule; r != nil {
		out.ByRule = &contract.RuleSheet{
			Blade: v.Say(r.Blade), Saw: v.Say(r.Saw), SawMay: r.SawMay, Feed: v.Say(r.Feed), Lubricant: text(v.Say(r.Lubricant)), Protection: v.Each(r.Protection), Never: v.Each(r.Never),
		}
	}
	if i := p.Ideal; i != nil {
		out.Ideal = &contract.Ideal{
			Teeth: i.Blade.Teeth, Grind: i.Blade.Grind, BevelDeg: i.Blade.Bevel,
			HookDeg: i.Blade.Hook, KerfMm: i.Blade.Kerf, HeightMm: i.Height, Room: i.Room,
		}
	}
	return out
}

// encodeCut is a job as the contract says it, with all that was left out
// filled in.
func encodeCut(saw uuid.UUID, j cut.Job) contract.Cut {
	out := contract.Cut{
		SawID: saw, Material: j.Material.ID, Direction: j.Direction,
		Motion: ptr(j.Motion), Finish: j.Finish,
		ThicknessMm: j.Thickness, WidthMm: j.Width, LengthMm: j.Length,
		ExitSupport: ptr(j.Exit), OtherSupport: ptr(j.Other),
		Form: ptr(j.Form), DepthMm: positive(j.Depth), BevelDeg: ptr(j.BevelDeg),
		MiterDeg: ptr(j.MiterDeg), Bed: ptr(j.Bed), PieceMm: positive(j.Piece),
		Pieces: ptr(j.Count()), Moisture: ptr(j.Moisture), Moves: &j.Moves, FenceSide: encodeSide(j.FenceSide), BrakeOff: &j.BrakeOff,
	}
	return out
}

func encodeSide(s cut.Side) *contract.Side {
	if s == cut.UnknownSide {
		return nil
	}
	return &s
}

func (v voice) encodeKerf(k choose.KerfLoad) contract.KerfLoad {
	return contract.KerfLoad{KerfMm: k.Kerf, PowerW: k.PowerW, Load: k.Load, BogMMin: float64(k.Fastest), Refused: text(sentence(v.Say(k.Refused)))}
}

func (v voice) encodeSupports(p guide.SupportPlan) contract.SupportPlan {
	out := contract.SupportPlan{
		AtMm: p.At, Kg: p.KG, GapMm: p.Gap, SagMm: p.Sag, Binds: p.Binds, Text: v.Each(p.Text),
	}
	raw := p.Halves[:]
	for _, h := range raw {
		one := contract.SupportHalf{FromMm: h.From, ToMm: h.To, Kg: h.KG, Verdict: contract.SupportHalfVerdict(h.Verdict), Loads: []contract.SupportLoad{}}
		for _, l := range h.Loads {
			one.Loads = append(one.Loads, contract.SupportLoad{AtMm: l.At, Kg: l.KG})
		}
		out.Halves = append(out.Halves, one)
	}
	return out
}

func (v voice) encodeOption(o shopchoose.Option, m cut.Motion) contract.Option {
	out := contract.Option{
		BladeID: o.Blade, Mounted: o.Mounted, Verdict: o.Verdict, Score: o.Score,
		Reasons: make([]contract.Reason, len(o.Reasons)), Minds: make([]contract.Mind, len(o.Minds)), Level: o.Level,
	}
	for i, m := range o.Minds {
		out.Minds[i] = contract.Mind{Rule: contract.Rule(m.Rule.String()), Why: sentence(v.Say(m.Why)), WayOut: sentence(v.Say(m.WayOut))}
	}
	for i, r := range o.Reasons {
		out.Reasons[i] = contract.Reason{Term: contract.ReasonTerm(r.Term.String()), Good: r.For, Text: v.Say(r.Text)}
	}
	if m != cut.Chop {
		h := o.Heights
		out.Heights = &contract.Heights{ProudMm: h.Proud, GulletsMm: h.Gullets, FullMm: h.Full, SuggestedMm: h.Suggested, Why: sentence(v.Say(h.Why)), Exact: h.Exact}
	}
	if o.Setting != nil {
		s := v.encodeSetting(*o.Setting)
		out.Setting = &s
	}
	if c := o.Change; c != nil {
		out.BestChange = &contract.Change{Text: sentence(v.Say(c.Text)), Room: c.Room, HeightMm: positive(c.Height), BladeID: c.Blade}
	}
	return out
}

func (v voice) encodeSweep(s shopchoose.Sweep) contract.Sweep {
	out := contract.Sweep{Settings: make([]contract.Setting, len(s.All)), Schools: make([]contract.School, len(s.Schools)), Passes: make([]contract.Pass, len(s.Passes))}
	for i, at := range s.All {
		out.Settings[i] = v.encodeSetting(at)
	}
	if s.Also != nil {
		out.Also = ptr(v.encodeSetting(*s.Also))
	}
	for i, one := range s.Schools {
		out.Schools[i] = contract.School{Name: contract.SchoolName(one.Name), Setting: v.encodeSetting(one.Setting)}
	}
	for i, p := range s.Passes {
		out.Passes[i] = contract.Pass{Name: contract.PassName(p.Name), ScorchAssessed: !p.Scoring, Setting: v.encodeSetting(p.Setting)}
	}
	return out
}

func (v voice) encodeSetting(s shopchoose.Setting) contract.Setting {
	w := s.Window
	out := contract.Setting{
		HeightMm: s.Height, Verdict: s.Verdict, Through: s.Through,
		ArcMm: s.Arc, TeethInCut: s.TeethInCut, ChipLoadMm: s.ChipLoad, MeanChipMm: s.MeanChip,
		PushShare: s.PushShare, HoldShare: s.HoldShare, RimMS: s.RimSpeed, PowerW: s.PowerW, Load: s.Load,
		LoadAllowed: s.Allowed, Burn: s.Burn, FeedMMin: float64(s.Feed),
		SecPer300Mm: s.Feed.SecondsPer300mm(), SecPerFoot: s.Feed.SecondsPerFoot(),
		Exit: encodeFace(s.Exit, s.ExitName, s.SplinterLimit), Other: encodeFace(s.Other, s.OtherName, s.SplinterLimit),
		Window: contract.Window{
			SlowestMMin: float64(w.Slowest), FastestMMin: float64(w.Fastest),
			SlowBy: w.SlowBy, FastBy: w.FastBy,
			Room: w.Room(), Grade: contract.WindowGrade(w.Grade().String()), ScorchMMin: float64(w.Scorch),
			BogMMin: float64(w.Bog), HandMMin: float64(w.Hand), GulletMMin: float64(w.Gullet), WallMMin: finite(w.Wall), SplinterMMin: finite(w.Splinter),
		},
		SecPerStroke: positive(s.Stroke), WallMarkMm: s.WallMark, WallLimitMm: positive(s.WallLimit), WallFrom: text(sentence(v.Say(s.WallFrom))), Hedge: text(v.Say(s.Hedge)),
		Fade:    contract.Fade{SlowFromMMin: float64(s.Fade.SlowFrom), SlowToMMin: float64(s.Fade.SlowTo), FastFromMMin: float64(s.Fade.FastFrom), FastToMMin: float64(s.Fade.FastTo)},
		Minutes: contract.Minutes{Piece: s.Minutes.Total(), All: s.Minutes.Total() * float64(s.Pieces), Handling: s.Minutes.Handling, Feeding: s.Minutes.Feeding, Rework: s.Minutes.Rework()},
	}
	return out
}

// finite leaves out a bound that does not bind at all.
func finite(f measure.Feed) *float64 {
	if math.IsInf(float64(f), 1) {
		return nil
	}
	return ptr(float64(f))
}

func encodeFace(f cut.Face, name string, limit float64) contract.Face {
	return contract.Face{
		Name: contract.FaceName(name), AngleDeg: f.AngleDeg, Splinter: f.Splinter, OfLimit: f.Splinter / limit, Matters: f.Matters,
	}
}
