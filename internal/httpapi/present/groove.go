package present

import (
	"corte/core/blade"
	"corte/core/groove"
	"corte/internal/httpapi/contract"
	"corte/internal/ptr"
	"corte/internal/record"
	shopgroove "corte/internal/shop/groove"
	"corte/internal/wire"
)

func (v Voice) DadoSet(d shopgroove.DadoSet) contract.DadoSet {
	set := wire.SetInput(d.Set)
	out := contract.DadoSet{BladeID: d.Blade, Version: d.Version, Kind: contract.DadoSetKind(set.Kind), LeftMm: set.LeftMm, RightMm: set.RightMm, Wings: set.Wings,
		Parts: set.Parts, EarsMm: set.EarsMm, Ranges: set.Ranges, Build: set.Build, Tests: d.Held.Told, Known: []contract.KnownPart{}, Saws: []contract.SetOnSaw{}}
	for _, w := range d.Saws {
		out.Saws = append(out.Saws, contract.SetOnSaw{SawName: w.Saw, Verdict: w.Verdict, Says: v.Say(w.Says)})
	}
	for _, k := range d.Known {
		out.Known = append(out.Known, contract.KnownPart{What: v.Say(k.What), StampedMm: k.Stamped, HeldMm: k.Held, SdMm: k.SD, Tests: k.Tests})
	}
	return out
}

func (v Voice) GrooveWay(w shopgroove.Way) contract.GrooveWay {
	out := contract.GrooveWay{BladeID: w.Blade.ID, BladeName: w.Blade.Name, Kind: "passes", Mounted: w.Mounted, Verdict: w.Verdict,
		Says: v.Say(w.Says), WidthMm: ptr.Positive(w.Width), SdMm: ptr.Positive(w.SD), Fits: w.Fits, BottomMm: make([][]float64, len(w.Bottom)), RidgeMm: w.Ridge,
		FlatFor: v.Say(w.FlatFor), Slots: make([]contract.ArborSlot, len(w.Slots)), Passes: Passes(w.Passes), KerfMm: ptr.Positive(w.Blade.Kerf),
		SetupMinutes: w.SetUp, EachMinutes: w.Each, Minutes: w.Minutes, Pays: v.Say(w.Pays), Needs: v.Each(w.Needs), Teeth: &w.Blade.Teeth, DiameterMm: ptr.To(w.Blade.Diameter)}
	for i, p := range w.Bottom {
		out.BottomMm[i] = []float64{p[0].Mm(), p[1].Mm()}
	}
	for i, x := range w.Slots {
		out.Slots[i] = contract.ArborSlot{What: contract.ArborSlotWhat(x.What), ThicknessMm: x.Thickness, TurnedDeg: x.Turned}
	}
	if w.Blade.Make == blade.Dado {
		out.Kind = "unsaid"
	}
	if set := w.Set; set != nil && set.Version > 0 {
		out.Kind, out.Clocked, out.Wings = contract.GrooveWayKind(set.Set.Kind.String()), &w.Clocked, &set.Set.Wings
		if len(set.Set.Ranges) > w.Range && set.Set.Kind == groove.Dialled {
			out.Cutters, out.Turns = &set.Set.Ranges[w.Range].Cutters, &w.Turns
		}
	}
	if a := w.Arbor; a != nil {
		out.Arbor = &contract.ArborFit{LengthMm: ptr.Positive(a.Length), SetMm: a.Set, WasherMm: a.Washer, NutMm: a.Nut, SpareMm: a.Spare,
			WasherOff: a.WasherOff, Verdict: a.Verdict, Says: v.Say(a.Says)}
	}
	if in := w.Insert; in != nil {
		out.Insert = &contract.InsertFit{WidthMm: in.Width, LengthMm: in.Length, FenceMm: in.Fence}
	}
	return out
}

func Passes(all []groove.Pass) []contract.GroovePass {
	out := make([]contract.GroovePass, len(all))
	for i, p := range all {
		out[i] = contract.GroovePass{FenceMm: p.Fence, CentreMm: p.Centre, HeightMm: p.Height}
	}
	return out
}

func (v Voice) GrooveRows(rows []shopgroove.Row) []contract.GrooveRow {
	out := make([]contract.GrooveRow, len(rows))
	for i, g := range rows {
		out[i] = contract.GrooveRow{ID: g.ID, At: g.Started, MaterialName: g.MaterialName, PieceMm: g.Piece, TargetMm: g.Target, DepthMm: g.Depth,
			BladeName: g.BladeName, SawName: g.SawName, Says: v.Say(g.Says), Made: g.Made, Tests: g.Tests, Ended: g.Ended != nil}
	}
	return out
}

func (v Voice) Groove(g shopgroove.Groove) contract.Groove {
	ask := contract.GrooveAsk{Cut: record.CutOf(g.Saw, g.Job), Fit: contract.Fit(g.Ask.Fit.String()), Count: g.Ask.Count, EdgeMm: ptr.To(g.Ask.Edge)}
	ask.PieceMm = append(ask.PieceMm, g.Ask.Piece...)
	out := contract.Groove{ID: g.ID, Version: g.Version, Ask: ask, SawID: g.Saw, SawName: g.SawName, TargetMm: g.Target, Way: v.GrooveWay(g.Way),
		HeightMm: g.Fitting.Stand.Height, Tests: make([]contract.GrooveTested, len(g.Fitting.Tests)), Says: v.Each(g.Says), Good: g.Good, By: g.By, StartedAt: g.Started,
		EndedAt: g.Ended, Made: g.Made, Cautions: v.Each(g.Cautions)}
	for i, t := range g.Fitting.Tests {
		out.Tests[i] = contract.GrooveTested{At: t.At, Says: v.Say(t.With.Says()), WidthMm: t.Width, OffMm: t.Off, DepthMm: ptr.Positive(t.Depth)}
	}
	if g.Way.Set != nil {
		out.Set = ptr.To(v.DadoSet(*g.Way.Set))
	}
	return out
}
