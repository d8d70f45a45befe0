package present

import (
	"context"
	"encoding/json"

	"corte/core/care"
	"corte/core/cut"
	"corte/core/groove"
	"corte/core/history"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/say"
	"corte/internal/httpapi/contract"
	"corte/internal/ptr"
	"corte/internal/record"
	"corte/internal/store"
)

// Material is what a material is called; one that the table has no more
// goes by its id.
func (v Voice) Material(id string) string {
	return v.Word(material.Name(id))
}

func (v Voice) Entries(rows []store.Entry) ([]contract.LogEntry, error) {
	out := make([]contract.LogEntry, len(rows))
	for i, e := range rows {
		var err error
		if out[i], err = v.Entry(e); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// LogRow answers a call that added one row.
func LogRow[T any](ctx context.Context, e store.Entry, err error, wrap func(contract.LogEntry) T) (T, error) {
	var none T
	if err != nil {
		return none, err
	}
	out, err := VoiceOf(ctx).Entry(e)
	return wrap(out), err
}

// Entry is a row as the contract has it. Of a row that cannot be read it
// is what stands beside its detail, so that it can be seen and struck out.
func (v Voice) Entry(e store.Entry) (contract.LogEntry, error) {
	out, err := v.entry(e)
	if err == nil {
		_, err = json.Marshal(out) // a word that is none does not print itself
	}
	if err != nil {
		return contract.LogEntry{ID: e.ID, At: e.At, Kind: contract.LogKind(e.Kind), BladeID: e.Blade, SawID: e.Saw, SawName: e.SawName, BladeName: e.BladeName,
			By: ptr.NonZero(e.By), Note: ptr.NonZero(e.Note), Strikes: e.Strikes, StruckBy: e.StruckBy, Amends: e.Amends, AmendedBy: e.AmendedBy, Damaged: ptr.To(true)}, nil
	}
	return out, nil
}

func (v Voice) entry(e store.Entry) (contract.LogEntry, error) {
	out := contract.LogEntry{
		ID: e.ID, At: e.At, Kind: contract.LogKind(e.Kind), BladeID: e.Blade, SawID: e.Saw, SawName: e.SawName,
		By: ptr.NonZero(e.By), Note: ptr.NonZero(e.Note), BladeName: e.BladeName, Strikes: e.Strikes, StruckBy: e.StruckBy, Amends: e.Amends, AmendedBy: e.AmendedBy,
	}
	read := func(v any) error { return json.Unmarshal(e.Detail, v) }
	switch e.Kind {
	case history.KindCut:
		var d history.Cut
		if err := json.Unmarshal(e.Detail, &d); err != nil {
			return out, err
		}
		out.Cut = &contract.CutRecord{
			Material: d.Material, MaterialName: v.Material(d.Material), Direction: WordOf[contract.Direction](d.Direction), Motion: WordOf[contract.Motion](d.Motion),
			Finish: WordOf[contract.Finish](d.Finish), ThicknessMm: d.Thickness, WidthMm: d.Width, LengthMm: d.Length,
			HeightMm: ptr.Positive(d.Height), DepthMm: ptr.Positive(d.Depth), BevelDeg: ptr.Positive(d.Bevel), MiterDeg: ptr.Positive(d.Miter), FeedMMin: ptr.Positive(d.Feed), Pieces: d.Pieces, Metres: d.CutLength().Mm() / 1000,
			Wall: contract.Wall(d.Wall), Splinters: contract.Splinters(d.Splinters),
		}
		if d.Form != "" {
			out.Cut.Form = ptr.To(WordOf[contract.Form](d.Form))
		}
		if d.Moisture != "" {
			out.Cut.Moisture = ptr.To(WordOf[contract.Moisture](d.Moisture))
		}
		if feed := d.RealFeed(); d.Motion == cut.Chop.String() && feed > 0 {
			out.Cut.SecPerStroke = ptr.To(feed.Seconds(d.FeedLength()))
		}
		if d.Seconds > 0 {
			out.Cut.Seconds, out.Cut.RealFeedMMin = &d.Seconds, ptr.To(float64(d.RealFeed()))
		}
		if h := d.Heard; h != nil {
			out.Cut.Heard = &contract.HeardCut{IdleRpm: h.Idle, MeanRpm: h.Mean, LeastRpm: h.Least}
		}
		if d.Exit != "" {
			out.Cut.ExitSupport = ptr.To(WordOf[cut.Support](d.Exit))
		}
		out.Cut.OtherSplinters = (*contract.Splinters)(ptr.NonZero(d.OtherSplinters))
		out.Cut.Effort, out.Cut.Noise = (*contract.Effort)(ptr.NonZero(d.Effort)), (*contract.Noise)(ptr.NonZero(d.Noise))
	case history.KindWashed, history.KindSharpened, history.KindReturned, history.KindSent, history.KindJudged, history.KindInspected, history.KindMended, history.KindCompared, history.KindTraced,
		history.KindGrooved, history.KindRenewed:
		says, err := v.said(e.Kind, read)
		if err != nil {
			return out, err
		}
		out.Says = &says
		switch e.Kind {
		case history.KindTraced:
			var d history.Traced
			err = read(&d)
			out.TraceID = &d.Trace
		case history.KindCompared:
			var d history.Compared
			err = read(&d)
			out.TrialID = &d.Trial
		case history.KindSharpened, history.KindReturned:
			var d history.Sharpened
			err = read(&d)
			out.KerfMm, out.DiameterMm = ptr.Positive(d.Kerf), ptr.Positive(d.Diameter)
		case history.KindGrooved:
			var d history.Grooved
			err = read(&d)
			out.Groove = &contract.GrooveRecord{ID: d.Groove, Test: d.Test, TargetMm: d.Target, DepthMm: ptr.Positive(d.Depth), Made: d.Made}
			if d.Test {
				out.Groove.WidthMm = ptr.Positive(groove.Mean(d.Event().Widths))
			}
		case history.KindRenewed:
			var d history.Renewed
			err = read(&d)
			parts := make([]measure.Length, len(d.Parts))
			for i, p := range d.Parts {
				parts[i] = p.Thickness
			}
			out.RenewedMm = &parts
		}
		return out, err
	case history.KindRetired:
		var d history.Retired
		if err := json.Unmarshal(e.Detail, &d); err != nil {
			return out, err
		}
		out.Reason = ptr.NonZero(d.Reason)
	case history.KindHeel, history.KindFence, history.KindRunOut, history.KindTilt, history.KindGauge, history.KindClearance:
		var d history.Truing
		if err := json.Unmarshal(e.Detail, &d); err != nil {
			return out, err
		}
		out.Figure, out.FigureUnit, out.Verdict = &d.Figure, ptr.To(contract.LogEntryFigureUnit(d.Unit)), ptr.To(WordOf[contract.Verdict](d.Verdict))
	}
	return out, nil
}

// said puts the detail of a row into words.
func (v Voice) said(kind history.Kind, read func(any) error) (says []string, err error) {
	add := func(yes bool, form string, with ...any) {
		if yes {
			says = append(says, v.Say(say.Of(form, with...)))
		}
	}
	says = []string{}
	switch kind {
	case history.KindWashed:
		var d history.Washed
		err = read(&d)
		if k, none := care.CleanerByID(d.Cleaner); none == nil {
			add(true, "in %s", k.Name)
		}
		add(d.With > 1, "%d blades in one bath", d.With)
	case history.KindSharpened, history.KindReturned:
		var d history.Sharpened
		err = read(&d)
		add(d.Price > 0, "paid %.2f", d.Price)
		add(d.Replaced > 0, "%d teeth replaced", d.Replaced)
		add(d.Left != nil, "%d sharpenings left", ptr.Value(d.Left))
		add(d.Report != "", "%s", d.Report)
	case history.KindSent:
		var d history.Sent
		err = read(&d)
		add(true, "to %s", d.To)
		if d.Expected != nil {
			add(true, "expected back %s", record.Dated(*d.Expected))
		}
		add(d.Asked > 0, "price quoted %.2f", d.Asked)
	case history.KindJudged:
		var d history.Judged
		err = read(&d)
		add(true, "%s", say.Word(map[string]string{"dull": "dull", "hard": "hard to feed", "pitchy": "resin buildup", "half-worn": "half worn", "sharp": "sharp", "like-new": "cuts like new", "hit": "hit something hard"}[d.Says]))
	case history.KindInspected:
		var d history.Inspected
		err = read(&d)
		add(d.Fault == "", "no damage")
		add(d.Fault != "", "%s", say.Word(care.Fault(d.Fault).Words()))
	case history.KindMended:
		var d history.Mended
		err = read(&d)
		add(true, "repaired by %s, inspected by %s", d.MendedBy, d.InspectedBy)
		add(d.What != "", "%s", d.What)
	case history.KindCompared:
		var d history.Compared
		err = read(&d)
		says = v.Each(d.Says)
	case history.KindRenewed:
		var d history.Renewed
		err = read(&d)
		add(true, "%s", d.Why)
		add(d.Outer, "the outer pair")
	case history.KindTraced:
		var d history.Traced
		err = read(&d)
		add(d.Cause != "", "%s", v.Cause(d.Cause))
		add(d.Fixed, "fixed")
		add(!d.Fixed, "not fixed")
	}
	return says, err
}
