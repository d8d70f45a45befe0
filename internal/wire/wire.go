// Package wire converts between the core's values and the contract's types, in
// the units of the request. It needs neither database nor network, so the server
// and the offline core share it.
package wire

import (
	"math"
	"strings"

	"github.com/google/uuid"

	"corte/core/choose"
	"corte/core/cut"
	"corte/core/guide"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/say"
	"corte/core/word"
	"corte/internal/httpapi/contract"
	"corte/internal/locale"
	"corte/internal/ptr"
	"corte/internal/record"
	"corte/internal/refusal"
	shopchoose "corte/internal/shop/choose"
)

// A Voice says what was found to one reader.
type Voice struct{ say.Voice }

// VoiceIn speaks in units and in the language of a tag, such as "es".
func VoiceIn(u contract.Units, language string) Voice {
	v := Voice{say.Voice{Language: locale.Of(language)}}
	if u == contract.UnitsIn {
		v.Unit = measure.Inch
	}
	return v
}

// Sentence says a line as a sentence: with a large letter and a full stop; nothing
// of nothing.
func (v Voice) Sentence(l say.Line) string { return Sentence(v.Say(l)) }

// Word says a word or a phrase of a table; nothing of nothing.
func (v Voice) Word(s string) string { return v.Say(say.Word(s)) }

// Words says several.
func (v Voice) Words(all []string) []string { return v.Each(say.Words(all)) }

// Sentence makes a core's phrase into a sentence.
func Sentence(s string) string {
	if s == "" {
		return s
	}
	s = word.Upper(s)
	if !strings.HasSuffix(s, ".") {
		s += "."
	}
	return s
}

// Plan is every blade of the rack weighed for a cut.
func (v Voice) Plan(p shopchoose.Plan) contract.Plan {
	j := p.Job
	out := contract.Plan{
		Cut: record.CutOf(p.Saw.ID, j), Modelled: j.Material.Kind.Modelled(), HeelMm: p.Heel, HeelFrom: v.Sentence(p.HeelFrom), PowerLimitW: p.Saw.PowerLimitW(),
		MeetsWidthMm: j.MeetsWidth(), MeetsThicknessMm: j.MeetsThickness(), BothFaces: j.BothFaces,
		Options: make([]contract.Option, len(p.Options)), OptionsTotal: p.Total, Stopped: make([]contract.Stopped, len(p.Stopped)),
		Hold: make([]contract.Advice, len(p.Hold)), Cautions: v.Each(p.Cautions), Learnt: v.Each(p.Learnt), FeedLengthMm: j.FeedLength(), EdgeLengthMm: j.EdgeLength(), ShowFace: contract.PlanShowFace(p.ShowFace),
		Verdict: p.Verdict, Findings: v.Findings(p.Findings), Sure: v.Say(p.Sure),
		ExitSupports: append([]cut.Support{}, p.Exits...), OtherSupports: append([]cut.Support{}, p.Others...), FenceSide: side(p.Fence),
	}
	for i, o := range p.Options {
		out.Options[i] = v.option(o, j.Motion)
	}
	for i, st := range p.Stopped {
		out.Stopped[i] = contract.Stopped{
			Rule: contract.Rule(st.Rule.String()), Why: v.Sentence(st.Why), WayOut: v.Sentence(st.WayOut), BladeIds: st.Blades,
		}
	}
	for i, a := range p.Hold {
		out.Hold[i] = contract.Advice{Topic: contract.AdviceTopic(a.Topic), Text: v.Say(a.Text), Halt: a.Halt}
	}
	if w := p.Swap; w != nil {
		out.Swap = &contract.Swap{
			Stay: w.Stay, OnBladeID: w.On, BestBladeID: w.Best, OnMinutes: ptr.Positive(w.OnMinutes), Minutes: ptr.Positive(w.Minutes),
			ChangeMinutes: &p.Saw.ChangeMinutes, Text: v.Sentence(w.Text),
		}
	}
	if k := p.Kerfs; k != nil {
		out.Kerfs = &contract.KerfAdvice{
			Thin: v.kerf(k.Thin), Full: v.kerf(k.Full), MotorW: p.Saw.MotorW, CircuitW: ptr.Positive(k.CircuitW), Text: v.Sentence(k.Text), FeedMMin: float64(k.Feed),
		}
	}
	if r := p.ByRule; r != nil {
		out.ByRule = &contract.RuleSheet{
			Blade: v.Say(r.Blade), Saw: v.Say(r.Saw), SawMay: r.SawMay, Feed: v.Say(r.Feed), Lubricant: ptr.NonZero(v.Say(r.Lubricant)), Protection: v.Each(r.Protection), Never: v.Each(r.Never),
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

// Findings is what stands against a cut on a saw.
func (v Voice) Findings(all []guide.Finding) []contract.Finding {
	out := make([]contract.Finding, len(all))
	for i, f := range all {
		out[i] = contract.Finding{Rule: contract.FindingRule(f.Rule), Verdict: f.Verdict, Why: v.Say(f.Why), WayOut: v.Say(f.WayOut), Ask: ptr.NonZero(v.Say(f.Ask))}
	}
	return out
}

// side is a side of the blade; nothing where it is not known.
func side(s cut.Side) *contract.Side {
	if s == cut.UnknownSide {
		return nil
	}
	return &s
}

func (v Voice) kerf(k choose.KerfLoad) contract.KerfLoad {
	return contract.KerfLoad{KerfMm: k.Kerf, PowerW: k.PowerW, Load: k.Load, BogMMin: float64(k.Fastest), Refused: ptr.NonZero(v.Sentence(k.Refused))}
}

// Supports are where supports stand, and what comes of it.
func (v Voice) Supports(p guide.SupportPlan) contract.SupportPlan {
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

func (v Voice) option(o shopchoose.Option, m cut.Motion) contract.Option {
	out := contract.Option{
		BladeID: o.Blade, Mounted: o.Mounted, Verdict: o.Verdict, Score: o.Score,
		Reasons: make([]contract.Reason, len(o.Reasons)), Minds: make([]contract.Mind, len(o.Minds)), Level: o.Level,
	}
	for i, m := range o.Minds {
		out.Minds[i] = contract.Mind{Rule: contract.Rule(m.Rule.String()), Why: v.Sentence(m.Why), WayOut: v.Sentence(m.WayOut)}
	}
	for i, r := range o.Reasons {
		out.Reasons[i] = contract.Reason{Term: contract.ReasonTerm(r.Term.String()), Good: r.For, Text: v.Say(r.Text), Why: ptr.NonZero(contract.WhyName(r.Term.Why()))}
	}
	if m != cut.Chop {
		h := o.Heights
		out.Heights = &contract.Heights{ProudMm: h.Proud, GulletsMm: h.Gullets, FullMm: h.Full, SuggestedMm: h.Suggested, Why: v.Sentence(h.Why), Exact: h.Exact}
	}
	if o.Setting != nil {
		s := v.Setting(*o.Setting)
		out.Setting = &s
	}
	if c := o.Change; c != nil {
		out.BestChange = &contract.Change{Text: v.Sentence(c.Text), Room: c.Room, HeightMm: ptr.Positive(c.Height), BladeID: c.Blade}
	}
	return out
}

// Sweep is one blade at every height.
func (v Voice) Sweep(s shopchoose.Sweep) contract.Sweep {
	out := contract.Sweep{Settings: make([]contract.Setting, len(s.All)), Schools: make([]contract.School, len(s.Schools)), Passes: make([]contract.Pass, len(s.Passes))}
	for i, at := range s.All {
		out.Settings[i] = v.Setting(at)
	}
	if s.Also != nil {
		out.Also = ptr.To(v.Setting(*s.Also))
	}
	for i, one := range s.Schools {
		out.Schools[i] = contract.School{Name: contract.SchoolName(one.Name), Setting: v.Setting(one.Setting)}
	}
	for i, p := range s.Passes {
		out.Passes[i] = contract.Pass{Name: contract.PassName(p.Name), ScorchAssessed: !p.Scoring, Setting: v.Setting(p.Setting)}
	}
	return out
}

// Setting is one blade at one height, and what the model says of it.
func (v Voice) Setting(s shopchoose.Setting) contract.Setting {
	w := s.Window
	out := contract.Setting{
		HeightMm: s.Height, Verdict: s.Verdict, Through: s.Through,
		ArcMm: s.Arc, TeethInCut: s.TeethInCut, ChipLoadMm: s.ChipLoad, MeanChipMm: s.MeanChip,
		PushShare: s.PushShare, HoldShare: s.HoldShare, RimMS: s.RimSpeed, PowerW: s.PowerW, Load: s.Load,
		LoadAllowed: s.Allowed, Burn: s.Burn, FeedMMin: float64(s.Feed), EasyMMin: finite(s.Paces.Easy), ActingMMin: float64(s.Acting.Feed), PushN: s.PushN,
		SecPer300Mm: s.Feed.SecondsPer300mm(), SecPerFoot: s.Feed.SecondsPerFoot(),
		Exit: face(s.Exit, s.ExitName, s.SplinterLimit), Other: face(s.Other, s.OtherName, s.SplinterLimit),
		Window: contract.Window{
			SlowestMMin: float64(w.Slowest), FastestMMin: float64(w.Fastest),
			SlowBy: w.SlowBy, FastBy: w.FastBy,
			Room: w.Room(), Grade: contract.WindowGrade(w.Grade().String()), ScorchMMin: float64(w.Scorch),
			BogMMin: float64(w.Bog), HandMMin: float64(w.Hand), GulletMMin: float64(w.Gullet), WallMMin: finite(w.Wall), SplinterMMin: finite(w.Splinter),
		},
		SecPerStroke: ptr.Positive(s.Stroke), WallMarkMm: s.WallMark, WallLimitMm: ptr.Positive(s.WallLimit), WallFrom: ptr.NonZero(v.Sentence(s.WallFrom)), Hedge: ptr.NonZero(v.Say(s.Hedge)),
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
	return ptr.To(float64(f))
}

func face(f cut.Face, name string, limit float64) contract.Face {
	return contract.Face{
		Name: contract.FaceName(name), AngleDeg: f.AngleDeg, Splinter: f.Splinter, OfLimit: f.Splinter / limit, Matters: f.Matters,
	}
}

// PlanLimit is how many options are told of; more than anyone reads.
func PlanLimit(l *int) int {
	if l == nil {
		return 60
	}
	return *l
}

// ReadPins reads the settings that are compared.
func ReadPins(in []contract.Pin) []shopchoose.Pin {
	out := make([]shopchoose.Pin, len(in))
	for i, p := range in {
		out[i] = shopchoose.Pin{Blade: p.BladeID, Height: ptr.Value(p.HeightMm), Exit: p.ExitSupport, Other: p.OtherSupport}
	}
	return out
}

// Comparison is what became of each pin on a saw.
func (v Voice) Comparison(saw uuid.UUID, all []shopchoose.Compared) []contract.Compared {
	out := make([]contract.Compared, len(all))
	for i, one := range all {
		out[i] = contract.Compared{BladeID: one.Blade, Cut: record.CutOf(saw, one.Job), Refused: ptr.NonZero(v.Sentence(one.Refused))}
		if one.Setting != nil {
			out[i].Setting = ptr.To(v.Setting(*one.Setting))
		}
	}
	return out
}

// ReadBoard reads a board that is to be carried, and where its supports are now.
func ReadBoard(in contract.CreateSupportPlanJSONRequestBody) (guide.Board, []measure.Length, error) {
	m, err := material.Get(in.Material)
	if err != nil {
		return guide.Board{}, nil, refusal.Of("material", "%s", err)
	}
	return guide.Board{Material: m, Thickness: in.ThicknessMm, Span: in.SpanMm, Breadth: in.BreadthMm, Line: in.LineMm}, ptr.Value(in.NowMm), nil
}

// ReadSweep reads which heights of which blade are asked for.
func ReadSweep(in contract.CreateSweepJSONRequestBody) shopchoose.SweepSpec {
	return shopchoose.SweepSpec{Blade: in.BladeID, Step: in.StepMm, Also: ptr.Value(in.AlsoMm)}
}

// SupportPlans are where supports go, and what comes of where they are now.
func (v Voice) SupportPlans(plan guide.SupportPlan, as *guide.SupportPlan) contract.SupportAnswer {
	out := contract.SupportAnswer{Plan: v.Supports(plan)}
	if as != nil {
		out.Now = ptr.To(v.Supports(*as))
	}
	return out
}

// Length is a length that was read, and how it is written in either unit.
func Length(l measure.Length) contract.Length {
	return contract.Length{Mm: l.Mm(), TextMm: l.Format(measure.Millimetre), TextIn: l.Format(measure.Inch)}
}
