package httpapi

import (
	"encoding/json"
	"fmt"
	"math"

	"github.com/google/uuid"

	"corte/core/blade"
	"corte/core/care"
	"corte/core/choose"
	"corte/core/cut"
	"corte/core/groove"
	"corte/core/guide"
	"corte/core/material"
	"corte/core/measure"
	"corte/internal/httpapi/contract"
	"corte/internal/rackfile"
	"corte/internal/shop"
	"corte/internal/store"
)

func encodePlan(p shop.Plan) contract.Plan {
	j := p.Job
	out := contract.Plan{
		Cut: encodeCut(p.Saw.ID, j), Modelled: j.Material.Kind.Modelled(), HeelMm: p.Heel.Mm(), HeelFrom: sentence(p.HeelFrom), PowerLimitW: p.Saw.PowerLimitW(),
		MeetsWidthMm: j.MeetsWidth().Mm(), MeetsThicknessMm: j.MeetsThickness().Mm(), BothFaces: j.BothFaces,
		Options: make([]contract.Option, len(p.Options)), OptionsTotal: p.Total, Stopped: make([]contract.Stopped, len(p.Stopped)),
		Hold: make([]contract.Advice, len(p.Hold)), Cautions: p.Cautions, Learnt: orNone(p.Learnt), FeedLengthMm: j.FeedLength().Mm(), ShowFace: contract.PlanShowFace(p.ShowFace),
		Verdict: contract.Verdict(p.Verdict.String()), Findings: make([]contract.Finding, len(p.Findings)), Sure: p.Sure,
		ExitSupports: encodeSupportList(p.Exits), OtherSupports: encodeSupportList(p.Others), FenceSide: encodeSide(p.Fence),
	}
	for i, f := range p.Findings {
		out.Findings[i] = contract.Finding{Rule: contract.FindingRule(f.Rule), Verdict: contract.Verdict(f.Verdict.String()), Why: f.Why, WayOut: f.WayOut, Ask: text(f.Ask)}
	}
	for i, o := range p.Options {
		out.Options[i] = encodeOption(o, j.Motion)
	}
	for i, st := range p.Stopped {
		out.Stopped[i] = contract.Stopped{
			Rule: contract.Rule(st.Rule.String()), Why: sentence(st.Why), WayOut: sentence(st.WayOut), BladeIds: st.Blades,
		}
	}
	for i, a := range p.Hold {
		out.Hold[i] = contract.Advice{Topic: contract.AdviceTopic(a.Topic), Text: a.Text, Halt: a.Halt}
	}
	if w := p.Swap; w != nil {
		out.Swap = &contract.Swap{
			Stay: w.Stay, OnBladeID: w.On, BestBladeID: w.Best, OnMinutes: positive(w.OnMinutes), Minutes: positive(w.Minutes),
			ChangeMinutes: &p.Saw.ChangeMinutes, Text: sentence(w.Text),
		}
	}
	if k := p.Kerfs; k != nil {
		out.Kerfs = &contract.KerfAdvice{
			Thin: encodeKerf(k.Thin), Full: encodeKerf(k.Full), MotorW: p.Saw.MotorW, CircuitW: positive(k.CircuitW), Text: sentence(k.Text), FeedMMin: float64(k.Feed),
		}
	}
	if r := p.ByRule; r != nil {
		out.ByRule = &contract.RuleSheet{
			Blade: r.Blade, Saw: r.Saw, SawMay: r.SawMay, Feed: r.Feed, Lubricant: text(r.Lubricant), Protection: r.Protection, Never: r.Never,
		}
	}
	if i := p.Ideal; i != nil {
		out.Ideal = &contract.Ideal{
			Teeth: i.Blade.Teeth, Grind: contract.Grind(i.Blade.Grind.String()), BevelDeg: i.Blade.Bevel,
			HookDeg: i.Blade.Hook, KerfMm: i.Blade.Kerf.Mm(), HeightMm: i.Height.Mm(), Room: i.Room,
		}
	}
	return out
}

// encodeCut is a job as the contract says it, with all that was left out
// filled in.
func encodeCut(saw uuid.UUID, j cut.Job) contract.Cut {
	out := contract.Cut{
		SawID: saw, Material: j.Material.ID, Direction: contract.Direction(j.Direction.String()),
		Motion: ptr(contract.Motion(j.Motion.String())), Finish: contract.Finish(j.Finish.String()),
		ThicknessMm: j.Thickness.Mm(), WidthMm: j.Width.Mm(), LengthMm: j.Length.Mm(),
		ExitSupport: ptr(contract.Support(j.Exit.String())), OtherSupport: ptr(contract.Support(j.Other.String())),
		Form: ptr(contract.Form(j.Form.String())), DepthMm: positive(j.Depth.Mm()), BevelDeg: ptr(j.BevelDeg),
		MiterDeg: ptr(j.MiterDeg), Bed: ptr(contract.Bed(j.Bed.String())), PieceMm: positive(j.Piece.Mm()),
		Pieces: ptr(j.Count()), Moisture: ptr(contract.Moisture(j.Moisture.String())), Moves: &j.Moves, FenceSide: encodeSide(j.FenceSide), BrakeOff: &j.BrakeOff,
	}
	return out
}

func encodeSide(s cut.Side) *contract.Side {
	if s == cut.UnknownSide {
		return nil
	}
	return ptr(contract.Side(s.String()))
}

func encodeSupportList(all []cut.Support) []contract.Support {
	out := make([]contract.Support, len(all))
	for i, s := range all {
		out[i] = contract.Support(s.String())
	}
	return out
}

func encodeKerf(k choose.KerfLoad) contract.KerfLoad {
	return contract.KerfLoad{KerfMm: k.Kerf.Mm(), PowerW: k.PowerW, Load: k.Load, BogMMin: float64(k.Fastest), Refused: text(sentence(k.Refused))}
}

func encodeSupports(p guide.SupportPlan) contract.SupportPlan {
	out := contract.SupportPlan{
		AtMm: make([]float64, len(p.At)), Kg: p.KG, GapMm: p.Gap.Mm(), SagMm: p.Sag.Mm(), Binds: p.Binds, Text: p.Text,
	}
	for i, at := range p.At {
		out.AtMm[i] = at.Mm()
	}
	raw := p.Halves[:]
	for _, h := range raw {
		one := contract.SupportHalf{FromMm: h.From.Mm(), ToMm: h.To.Mm(), Kg: h.KG, Verdict: contract.SupportHalfVerdict(h.Verdict), Loads: []contract.SupportLoad{}}
		for _, l := range h.Loads {
			one.Loads = append(one.Loads, contract.SupportLoad{AtMm: l.At.Mm(), Kg: l.KG})
		}
		out.Halves = append(out.Halves, one)
	}
	return out
}

func encodeRetired(r *store.Retired) *contract.Retired {
	if r == nil {
		return nil
	}
	return &contract.Retired{At: r.At, Reason: r.Reason, Note: r.Note}
}

func encodeOption(o shop.Option, m cut.Motion) contract.Option {
	out := contract.Option{
		BladeID: o.Blade, Mounted: o.Mounted, Verdict: contract.Verdict(o.Verdict.String()), Score: o.Score,
		Reasons: make([]contract.Reason, len(o.Reasons)), Minds: make([]contract.Mind, len(o.Minds)), Level: o.Level,
	}
	for i, m := range o.Minds {
		out.Minds[i] = contract.Mind{Rule: contract.Rule(m.Rule.String()), Why: sentence(m.Why), WayOut: sentence(m.WayOut)}
	}
	for i, r := range o.Reasons {
		out.Reasons[i] = contract.Reason{Term: contract.ReasonTerm(r.Term.String()), Good: r.For, Text: r.Text}
	}
	if m != cut.Chop {
		h := o.Heights
		out.Heights = &contract.Heights{ProudMm: h.Proud.Mm(), GulletsMm: h.Gullets.Mm(), FullMm: h.Full.Mm(), SuggestedMm: h.Suggested.Mm(), Why: sentence(h.Why), Exact: h.Exact}
	}
	if o.Setting != nil {
		s := encodeSetting(*o.Setting)
		out.Setting = &s
	}
	if c := o.Change; c != nil {
		out.BestChange = &contract.Change{Text: sentence(c.Text), Room: c.Room, HeightMm: positive(c.Height.Mm()), BladeID: c.Blade}
	}
	return out
}

func encodeSweep(s shop.Sweep) contract.Sweep {
	out := contract.Sweep{Settings: make([]contract.Setting, len(s.All)), Schools: make([]contract.School, len(s.Schools)), Passes: make([]contract.Pass, len(s.Passes))}
	for i, at := range s.All {
		out.Settings[i] = encodeSetting(at)
	}
	if s.Also != nil {
		out.Also = ptr(encodeSetting(*s.Also))
	}
	for i, one := range s.Schools {
		out.Schools[i] = contract.School{Name: contract.SchoolName(one.Name), Setting: encodeSetting(one.Setting)}
	}
	for i, p := range s.Passes {
		out.Passes[i] = contract.Pass{Name: contract.PassName(p.Name), ScorchAssessed: !p.Scoring, Setting: encodeSetting(p.Setting)}
	}
	return out
}

func encodeSetting(s shop.Setting) contract.Setting {
	w := s.Window
	out := contract.Setting{
		HeightMm: s.Height.Mm(), Verdict: contract.Verdict(s.Verdict.String()), Through: s.Through,
		ArcMm: s.Arc.Mm(), TeethInCut: s.TeethInCut, BiteMm: s.Bite.Mm(), MeanChipMm: s.MeanChip.Mm(),
		PushShare: s.PushShare, HoldShare: s.HoldShare, RimMS: s.RimSpeed, PowerW: s.PowerW, Load: s.Load,
		LoadAllowed: s.Allowed, Burn: s.Burn, FeedMMin: float64(s.Feed),
		SecPer300Mm: s.Feed.SecondsPer300mm(), SecPerFoot: s.Feed.SecondsPerFoot(),
		Exit: encodeFace(s.Exit, s.ExitName, s.SplinterLimit), Other: encodeFace(s.Other, s.OtherName, s.SplinterLimit),
		Window: contract.Window{
			SlowestMMin: float64(w.Slowest), FastestMMin: float64(w.Fastest),
			SlowBy: contract.Bound(w.SlowBy.String()), FastBy: contract.Bound(w.FastBy.String()),
			Room: w.Room(), Grade: contract.WindowGrade(w.Grade().String()), ScorchMMin: float64(w.Scorch),
			BogMMin: float64(w.Bog), HandMMin: float64(w.Hand), GulletMMin: float64(w.Gullet), WallMMin: finite(w.Wall), SplinterMMin: finite(w.Splinter),
		},
		SecPerStroke: positive(s.Stroke), WallMarkMm: s.WallMark.Mm(), WallLimitMm: positive(s.WallLimit.Mm()), WallFrom: text(sentence(s.WallFrom)), Hedge: text(s.Hedge),
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

func encodeBlade(b store.Blade) contract.Blade {
	state := shop.State(b.Blade, b.Condition)
	c := b.Condition
	low, high := c.LifeRange(b.Grind)
	out := contract.Blade{
		ID: b.ID, Version: b.Version, Name: b.Name, Make: contract.Make(b.Make.String()), DiameterMm: b.Diameter.Mm(), BoreMm: b.Bore.Mm(),
		KerfMm: b.Kerf.Mm(), PlateMm: positive(b.Plate.Mm()), Teeth: b.Teeth, BevelDeg: b.Bevel, HookDeg: b.Rake(), HookKnown: !b.HookUnknown,
		Shoulder: &b.Shoulder, Shear: &b.Shear, Throwaway: &b.Throwaway, Carbide: ptr(contract.Carbide(b.Blade.Carbide.String())),
		GulletShape: ptr(contract.GulletShape(b.GulletShape.String())), Features: []struct {
			Name string `json:"name"`
			Why  string `json:"why"`
		}{},
		MaxRpm: positive(b.MaxRPM), GulletMm: positive(b.Gullet.Mm()), RakerMm: positive(b.Raker.Mm()),
		KeptFor: contract.Use(b.KeptFor.String()), Nails: b.Nails, Ferrous: b.Ferrous,
		Coating: contract.Coating(b.Coating), Slots: b.Slots, Price: positive(b.Price), CarbideMm: positive(b.Tip.Mm()),
		SharpenedBefore: b.Sharpened, PhotoAt: b.PhotoAt, Retired: encodeRetired(b.Retired),
		Hangs: b.Hangs, Note: b.Note, MountedOn: b.MountedOn, SideClearanceMm: positive(b.SideClearance().Mm()),
		Condition: contract.Condition{
			State: contract.ConditionState(c.Word(b.Grind)), Verdict: contract.Verdict(careVerdict(c, state).String()),
			Sharpness: state.Sharpness, WearShare: c.WearShare(b.Grind), PitchLevel: state.Pitch,
			LifeM2: c.LifeM2(b.Grind), LifeLowM2: low, LifeHighM2: high, Confidence: c.Confidence(),
			Asked: c.Asked, Flaw: c.Flaw, Unfit: c.Unfit, Hit: c.Hit, Away: c.Away,
			Metres: c.Metres, MetresSinceWash: c.MetresWashed, MetresSinceSharpening: c.MetresSharp,
			Cuts: c.Cuts, Washes: c.Washes, Sharpenings: c.Sharpenings,
		},
	}
	for _, f := range b.Blade.Features() {
		out.Features = append(out.Features, struct {
			Name string `json:"name"`
			Why  string `json:"why"`
		}{f.Name, sentence(f.Why)})
	}
	if b.Teeth > 0 {
		out.PitchMm, out.GulletDepthMm = b.Pitch().Mm(), b.GulletDepth().Mm()
		out.Grind = ptr(contract.Grind(b.Grind.String()))
		out.Groove.RidgeMm = groove.Ridge(b.Blade).Mm()
		out.Groove.FlatEnoughFor = groove.FlatEnoughFor(b.Blade)
	}
	if b.Grind == blade.ATBR {
		out.Group = ptr(b.GroupSize())
	}
	return out
}

func careVerdict(c care.Condition, s cut.State) choose.Verdict {
	if choose.Bar(c) != nil {
		return choose.Halt
	}
	return choose.CareVerdict(s)
}

// withProfile adds the groove's bottom, which is too long for a list.
func withProfile(out contract.Blade, b store.Blade) contract.Blade {
	if b.Teeth > 0 {
		all := make([][]float64, 0, profilePoints)
		for _, p := range groove.Profile(b.Blade, profilePoints) {
			all = append(all, []float64{p[0].Mm(), p[1].Mm()})
		}
		out.Groove.ProfileMm = &all
	}
	return out
}

// profilePoints draw every grind's bottom without a visible corner cut off: the
// middle of the kerf is one of them.
const profilePoints = 33

func encodeSaw(w store.Saw) contract.Saw {
	record := rackfile.RecordOfSaw(w)
	out := contract.Saw{
		ID: w.ID, Version: w.Version, Name: w.Name, Kind: contract.SawKind(w.Kind.String()), Sliding: w.Sliding, DiameterMm: w.Diameter.Mm(),
		LeastMm: positive(w.Least.Mm()), ArborMm: w.Arbor.Mm(), BushingsMm: make([]float64, len(w.Bushings)), Rpm: w.RPM, MotorW: w.MotorW, Volts: w.Volts,
		BreakerA: w.BreakerA, PowerLimitW: w.PowerLimitW(), KnifeMm: positive(w.Knife.Mm()), Brake: record.Brake, DadoSets: w.DadoSets,
		Wheels: w.Wheels, Steel: w.Steel, ReachMm: w.Reach.Mm(), Reach45Mm: positive(w.Reach45.Mm()), TiltDeg: w.MostBevel(), TurnDeg: w.MostMiter(),
		BelowTableMm: w.BelowTable.Mm(), ChopWidthMm: positive(w.ChopWidth.Mm()), CrosscutMm: positive(w.Crosscut.Mm()),
		Thread: ptr(contract.SawThread(w.Thread.String())), ArborLock: &w.Lock, Knockout: &w.Knockout, WheelLeadMm: positive(w.WheelLead.Mm()),
		FenceLeadMm: positive(w.FenceLead.Mm()), ToBoltMm: positive(w.ToBolt.Mm()), ArborLengthMm: record.ArborLengthMm, WasherMm: record.WasherMm, NutMm: record.NutMm, WasherOff: record.WasherOff,
		NutSide: ptr(contract.SawNutSide(w.NutSide.String())), TiltSide: ptr(contract.SawTiltSide(w.TiltSide.String())), FenceReachMm: record.FenceReachMm, Tolerances: record.Tolerances, HeldTo: rackfile.RecordOfTolerances(w.HeldTo()),
		HeelMm: w.Heel.Mm(), HeelAt: w.HeelAt, FenceAt: w.FenceAt, MountedBladeID: w.Mounted, Note: w.Note, Retired: encodeRetired(w.Retired),
	}
	for i, b := range w.Bushings {
		out.BushingsMm[i] = b.Mm()
	}
	if w.FenceAt != nil {
		out.FenceOpenMm = ptr(w.FenceOpen.Mm())
	}
	for _, d := range w.Kind.Directions() {
		out.Directions = append(out.Directions, contract.Direction(d.String()))
	}
	return out
}

func encodeEntry(e store.Entry) (contract.LogEntry, error) {
	out := contract.LogEntry{
		ID: e.ID, At: e.At, Kind: contract.LogKind(e.Kind), BladeID: e.Blade, SawID: e.Saw, SawName: e.SawName,
		By: text(e.By), Note: text(e.Note), BladeName: e.BladeName, Strikes: e.Strikes, StruckBy: e.StruckBy,
	}
	read := func(v any) error { return json.Unmarshal(e.Detail, v) }
	switch e.Kind {
	case store.KindCut:
		var d store.CutDetail
		if err := json.Unmarshal(e.Detail, &d); err != nil {
			return out, err
		}
		name := d.Material
		if m, err := material.Get(d.Material); err == nil {
			name = m.Name
		}
		out.Cut = &contract.CutRecord{
			Material: d.Material, MaterialName: name, Direction: contract.Direction(d.Direction), Motion: contract.Motion(d.Motion),
			Finish: contract.Finish(d.Finish), ThicknessMm: d.Thickness, WidthMm: d.Width, LengthMm: d.Length,
			HeightMm: positive(d.Height), DepthMm: positive(d.Depth), BevelDeg: positive(d.Bevel), MiterDeg: positive(d.Miter), FeedMMin: positive(d.Feed), Pieces: d.Pieces, Metres: d.CutLength().Mm() / 1000,
			Wall: contract.Wall(d.Wall), Splinters: contract.Splinters(d.Splinters),
		}
		if d.Form != "" {
			out.Cut.Form = ptr(contract.Form(d.Form))
		}
		if d.Moisture != "" {
			out.Cut.Moisture = ptr(contract.Moisture(d.Moisture))
		}
		if feed := d.RealFeed(); d.Motion == cut.Chop.String() && feed > 0 {
			out.Cut.SecPerStroke = ptr(feed.Seconds(d.FeedLength()))
		}
		if d.Seconds > 0 {
			out.Cut.Seconds, out.Cut.RealFeedMMin = &d.Seconds, ptr(float64(d.RealFeed()))
		}
		out.Cut.ExitSupport = (*contract.Support)(text(d.Exit))
		out.Cut.OtherSplinters = (*contract.Splinters)(text(d.OtherSplinters))
		out.Cut.Effort, out.Cut.Noise = (*contract.Effort)(text(d.Effort)), (*contract.Noise)(text(d.Noise))
	case store.KindWashed, store.KindSharpened, store.KindReturned, store.KindSent, store.KindJudged, store.KindInspected, store.KindMended, store.KindCompared, store.KindTraced,
		store.KindGrooved, store.KindRenewed:
		says, err := said(e.Kind, read)
		if err != nil {
			return out, err
		}
		out.Says = &says
		switch e.Kind {
		case store.KindTraced:
			var d store.TracedDetail
			err = read(&d)
			out.TraceID = &d.Trace
		case store.KindCompared:
			var d store.ComparedDetail
			err = read(&d)
			out.TrialID = &d.Trial
		case store.KindSharpened, store.KindReturned:
			var d store.SharpenedDetail
			err = read(&d)
			out.KerfMm, out.DiameterMm = positive(d.Kerf), positive(d.Diameter)
		case store.KindGrooved:
			var d store.GroovedDetail
			err = read(&d)
			out.Groove = &contract.GrooveRecord{ID: d.Groove, Test: d.Test, TargetMm: d.Target, DepthMm: positive(d.Depth), Made: d.Made}
			if d.Test {
				out.Groove.WidthMm = positive(shop.Mean(d.Width))
			}
		case store.KindRenewed:
			var d store.RenewedDetail
			err = read(&d)
			parts := make([]float64, len(d.Parts))
			for i, p := range d.Parts {
				parts[i] = p.Thickness
			}
			out.RenewedMm = &parts
		}
		return out, err
	case store.KindRetired:
		var d store.RetiredDetail
		if err := json.Unmarshal(e.Detail, &d); err != nil {
			return out, err
		}
		out.Reason = text(d.Reason)
	case store.KindHeel, store.KindFence, store.KindRunOut, store.KindTilt, store.KindGauge, store.KindClearance:
		var d store.TruingDetail
		if err := json.Unmarshal(e.Detail, &d); err != nil {
			return out, err
		}
		out.Figure, out.FigureUnit, out.Verdict = &d.Figure, ptr(contract.LogEntryFigureUnit(d.Unit)), ptr(contract.Verdict(d.Verdict))
	}
	return out, nil
}

// said puts the detail of a row into words.
func said(kind store.Kind, read func(any) error) (says []string, err error) {
	add := func(yes bool, format string, args ...any) {
		if yes {
			says = append(says, fmt.Sprintf(format, args...))
		}
	}
	says = []string{}
	switch kind {
	case store.KindWashed:
		var d store.WashedDetail
		err = read(&d)
		if k, none := care.CleanerByID(d.Cleaner); none == nil {
			add(true, "in %s", k.Name)
		}
		add(d.With > 1, "%d blades in one bath", d.With)
	case store.KindSharpened, store.KindReturned:
		var d store.SharpenedDetail
		err = read(&d)
		add(d.Price > 0, "paid %.2f", d.Price)
		add(d.Replaced > 0, "%d teeth replaced", d.Replaced)
		add(d.Left != nil, "%d sharpenings left", value(d.Left))
		add(d.Report != "", "%s", d.Report)
	case store.KindSent:
		var d store.SentDetail
		err = read(&d)
		add(true, "to %s", d.To)
		if d.Expected != nil {
			add(true, "expected back %s", d.Expected.Format("2 January 2006"))
		}
		add(d.Asked > 0, "price asked %.2f", d.Asked)
	case store.KindJudged:
		var d store.JudgedDetail
		err = read(&d)
		add(true, "%s", map[string]string{"dull": "dull", "hard": "feeds hard", "pitchy": "pitchy", "like-new": "cuts like new", "hit": "hit something hard"}[d.Says])
	case store.KindInspected:
		var d store.InspectedDetail
		err = read(&d)
		add(d.Fault == "", "all sound")
		add(d.Fault != "", "%s", care.Fault(d.Fault).Words())
	case store.KindMended:
		var d store.MendedDetail
		err = read(&d)
		add(true, "mended by %s, inspected by %s", d.MendedBy, d.InspectedBy)
		add(d.What != "", "%s", d.What)
	case store.KindCompared:
		var d store.ComparedDetail
		err = read(&d)
		says = orNone(d.Says)
	case store.KindRenewed:
		var d store.RenewedDetail
		err = read(&d)
		add(true, "%s", d.Why)
		add(d.Outer, "the outer pair")
	case store.KindTraced:
		var d store.TracedDetail
		err = read(&d)
		add(d.Cause != "", "%s", causeLabel(d.Cause))
		add(d.Fixed, "fixed")
		add(!d.Fixed, "not fixed")
	}
	return says, err
}

func ptr[T any](v T) *T { return &v }

// positive leaves out a number that stands for not known or not there.
func positive(v float64) *float64 {
	if v <= 0 {
		return nil
	}
	return &v
}

func text(s string) *string {
	if s == "" {
		return nil
	}
	return &s
}
