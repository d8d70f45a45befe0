package httpapi

import (
	"context"
	"encoding/base64"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"time"

	"github.com/google/uuid"

	"corte/core/care"
	"corte/core/cut"
	"corte/core/groove"
	"corte/core/history"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/outcome"
	"corte/core/say"
	"corte/internal/httpapi/contract"
	"corte/internal/logfile"
	"corte/internal/ptr"
	"corte/internal/record"
	"corte/internal/refusal"
	"corte/internal/shop"
	shoplog "corte/internal/shop/log"
	"corte/internal/store"
)

func filterOf(p contract.ListLogParams) store.Filter {
	f := store.Filter{Blade: p.BladeID, Saw: p.SawID, From: ptr.Value(p.From), To: ptr.Value(p.To), Material: ptr.Value(p.Material)}
	if p.FromDay != nil {
		f.FirstDay = p.FromDay.Time
	}
	if p.UntilDay != nil {
		f.LastDay = p.UntilDay.Time
	}
	if p.Finish != nil {
		f.Finish = p.Finish.String()
	}
	for _, k := range ptr.Value(p.Kind) {
		f.Kinds = append(f.Kinds, history.Kind(k))
	}
	return f
}

func (s *server) ListLog(ctx context.Context, r contract.ListLogRequestObject) (contract.ListLogResponseObject, error) {
	v := voiceOf(ctx)
	p := r.Params
	before, err := decodeMark(p.Before)
	if err != nil {
		return nil, err
	}
	page, next, err := s.in(ctx).Log.Rows(ctx, s.shop(ctx), filterOf(p), before, limitOf(p.Limit))
	if err != nil {
		return nil, err
	}
	items, err := v.encodeEntries(page)
	if err != nil {
		return nil, err
	}
	out := contract.ListLog200JSONResponse{Items: items}
	if next != nil {
		out.Next = ptr.To(encodeMark(*next))
	}
	return out, nil
}

func (s *server) GetSeason(ctx context.Context, r contract.GetSeasonRequestObject) (contract.GetSeasonResponseObject, error) {
	v := voiceOf(ctx)
	season, err := s.in(ctx).Log.Season(ctx, s.shop(ctx), r.Params.Days)
	if err != nil {
		return nil, err
	}
	out := contract.GetSeason200JSONResponse{From: dayOf(season.From), Until: dayOf(season.Until), Marks: make([]contract.DayMark, len(season.Marks))}
	for i, m := range season.Marks {
		out.Marks[i] = contract.DayMark{
			Day: dayOf(m.Day), Kind: contract.LogKind(m.Kind), Rows: m.Rows, SawID: ptr.NonZero(m.Saw), SawName: ptr.NonZero(m.SawName), BladeID: ptr.NonZero(m.Blade), BladeName: ptr.NonZero(m.BladeName),
			Material: ptr.NonZero(m.Material), MaterialName: ptr.NonZero(v.material(m.Material)), Finish: ptr.NonZero(m.Finish),
			Pieces: ptr.NonZero(m.Pieces), Metres: ptr.NonZero(m.Metres), Burnt: ptr.NonZero(m.Burnt), Splintery: ptr.NonZero(m.Splintery),
		}
	}
	return out, nil
}

// material is what a material is called; one that the table has no more
// goes by its id.
func (v voice) material(id string) string {
	return v.Word(material.Name(id))
}

func (v voice) encodeEntries(rows []store.Entry) ([]contract.LogEntry, error) {
	out := make([]contract.LogEntry, len(rows))
	for i, e := range rows {
		var err error
		if out[i], err = v.encodeEntry(e); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// A mark in the log travels as opaque text, as a place in the rack does.
func encodeMark(m store.Mark) string {
	return base64.RawURLEncoding.EncodeToString(fmt.Appendf(nil, "%d %d", m.At.UnixMicro(), m.ID))
}

func decodeMark(s *string) (store.Mark, error) {
	var m store.Mark
	if s == nil {
		return m, nil
	}
	var micro int64
	raw, err := base64.RawURLEncoding.DecodeString(*s)
	if err == nil {
		_, err = fmt.Sscanf(string(raw), "%d %d", &micro, &m.ID)
	}
	if err != nil || m.ID < 1 {
		return m, &refusal.Error{Reason: refusal.Invalid, Field: "before", What: say.Of("this is no place that an earlier page named")}
	}
	m.At = time.UnixMicro(micro)
	return m, nil
}

// logRow answers a call that added one row.
func logRow[T any](ctx context.Context, e store.Entry, err error, wrap func(contract.LogEntry) T) (T, error) {
	var none T
	if err != nil {
		return none, err
	}
	out, err := voiceOf(ctx).encodeEntry(e)
	return wrap(out), err
}

func (s *server) StrikeRow(ctx context.Context, r contract.StrikeRowRequestObject) (contract.StrikeRowResponseObject, error) {
	e, err := s.in(ctx).Log.Strike(ctx, s.shop(ctx), r.ID, ptr.Value(r.Body.Note))
	return logRow(ctx, e, err, func(o contract.LogEntry) contract.StrikeRowResponseObject {
		return contract.StrikeRow201JSONResponse(o)
	})
}

func (s *server) AmendRow(ctx context.Context, r contract.AmendRowRequestObject) (contract.AmendRowResponseObject, error) {
	b := r.Body
	e, err := s.in(ctx).Log.Amend(ctx, s.shop(ctx), r.ID, shoplog.Amendment{
		By: b.By, Note: b.Note, Pieces: b.Pieces, Wall: (*outcome.Wall)(b.Wall), Splinters: (*outcome.Face)(b.Splinters), Other: (*outcome.Face)(b.OtherSplinters), Effort: (*outcome.Effort)(b.Effort),
	})
	return logRow(ctx, e, err, func(o contract.LogEntry) contract.AmendRowResponseObject {
		return contract.AmendRow201JSONResponse(o)
	})
}

// logExport writes the log as it reads it, for as long as that takes.
type logExport struct {
	ctx    context.Context
	svc    *shop.Service
	shop   uuid.UUID
	filter store.Filter
	csv    bool
}

func (x logExport) VisitExportLogResponse(w http.ResponseWriter) error {
	_ = http.NewResponseController(w).SetWriteDeadline(time.Time{})
	name := "corte-log.json"
	if x.csv {
		name = "corte-log.csv"
	}
	w.Header().Set("Content-Type", "application/octet-stream")
	w.Header().Set("Content-Disposition", `attachment; filename="`+name+`"`)
	w.WriteHeader(http.StatusOK)
	return x.svc.Log.WriteLog(x.ctx, x.shop, x.filter, x.csv, w)
}

func (s *server) ExportLog(ctx context.Context, r contract.ExportLogRequestObject) (contract.ExportLogResponseObject, error) {
	p := r.Params
	return logExport{ctx, s.svc, s.shop(ctx), filterOf(contract.ListLogParams{BladeID: p.BladeID, SawID: p.SawID, Kind: p.Kind, From: p.From, To: p.To, Material: p.Material, Finish: p.Finish, FromDay: p.FromDay, UntilDay: p.UntilDay}), p.Format == contract.FileFormatCsv}, nil
}

func (s *server) PreviewLogImport(ctx context.Context, r contract.PreviewLogImportRequestObject) (contract.PreviewLogImportResponseObject, error) {
	rows, err := s.oldLog(ctx, r.Body)
	if err != nil {
		return nil, err
	}
	old, err := s.in(ctx).Log.TakeIn(ctx, s.shop(ctx), rows, false)
	out := contract.PreviewLogImport200JSONResponse{Add: old.Add, Same: old.Same, Refuse: old.Refuse, Rows: []contract.LogImportRow{}}
	for _, r := range old.Rows {
		out.Rows = append(out.Rows, contract.LogImportRow{Does: contract.LogImportRowDoes(r.Does), Kind: r.Kind, Line: r.Line, Says: r.Says})
	}
	return out, err
}

func (s *server) ImportLog(ctx context.Context, r contract.ImportLogRequestObject) (contract.ImportLogResponseObject, error) {
	rows, err := s.oldLog(ctx, r.Body)
	if err != nil {
		return nil, err
	}
	in, err := s.svc.Log.Begin(ctx, s.shop(ctx), r.ID, rows)
	return contract.ImportLog202JSONResponse(encodeImport(in)), err
}

func (s *server) ListLogImports(ctx context.Context, _ contract.ListLogImportsRequestObject) (contract.ListLogImportsResponseObject, error) {
	all, err := s.in(ctx).Log.Imports(ctx, s.shop(ctx))
	out := contract.ListLogImports200JSONResponse{Items: make([]contract.LogImportWork, len(all))}
	for i, in := range all {
		out.Items[i] = encodeImport(in)
	}
	return out, err
}

func encodeImport(in store.Import) contract.LogImportWork {
	out := contract.LogImportWork{ID: in.ID, At: in.At, By: ptr.NonZero(in.By), State: contract.LogImportWorkState(in.State), Rows: in.Rows, Done: in.Done,
		Same: in.Same, Refuse: in.Refuse, Says: ptr.NonZero(in.Says)}
	if in.State == "done" {
		out.Add = in.Rows
	}
	return out
}

// oldLog reads a file of old records.
func (s *server) oldLog(ctx context.Context, file io.Reader) ([]logfile.Row, error) {
	text, err := io.ReadAll(file)
	if err != nil {
		return nil, err
	}
	sh, err := s.in(ctx).Rack.Shop(ctx, s.shop(ctx))
	if err != nil {
		return nil, err
	}
	rows, err := logfile.Read(text, measure.Millimetre, record.Zone(sh.Zone))
	if err != nil {
		return nil, &refusal.Error{Reason: refusal.Invalid, Field: "file", What: say.Error(err)}
	}
	return rows, nil
}

// encodeEntry is a row as the contract has it. Of a row that cannot be read it
// is what stands beside its detail, so that it can be seen and struck out.
func (v voice) encodeEntry(e store.Entry) (contract.LogEntry, error) {
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

func (v voice) entry(e store.Entry) (contract.LogEntry, error) {
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
			Material: d.Material, MaterialName: v.material(d.Material), Direction: wordOf[contract.Direction](d.Direction), Motion: wordOf[contract.Motion](d.Motion),
			Finish: wordOf[contract.Finish](d.Finish), ThicknessMm: d.Thickness, WidthMm: d.Width, LengthMm: d.Length,
			HeightMm: ptr.Positive(d.Height), DepthMm: ptr.Positive(d.Depth), BevelDeg: ptr.Positive(d.Bevel), MiterDeg: ptr.Positive(d.Miter), FeedMMin: ptr.Positive(d.Feed), Pieces: d.Pieces, Metres: d.CutLength().Mm() / 1000,
			Wall: contract.Wall(d.Wall), Splinters: contract.Splinters(d.Splinters),
		}
		if d.Form != "" {
			out.Cut.Form = ptr.To(wordOf[contract.Form](d.Form))
		}
		if d.Moisture != "" {
			out.Cut.Moisture = ptr.To(wordOf[contract.Moisture](d.Moisture))
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
			out.Cut.ExitSupport = ptr.To(wordOf[cut.Support](d.Exit))
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
		out.Figure, out.FigureUnit, out.Verdict = &d.Figure, ptr.To(contract.LogEntryFigureUnit(d.Unit)), ptr.To(wordOf[contract.Verdict](d.Verdict))
	}
	return out, nil
}

// said puts the detail of a row into words.
func (v voice) said(kind history.Kind, read func(any) error) (says []string, err error) {
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
		add(d.Asked > 0, "price asked %.2f", d.Asked)
	case history.KindJudged:
		var d history.Judged
		err = read(&d)
		add(true, "%s", say.Word(map[string]string{"dull": "dull", "hard": "feeds hard", "pitchy": "pitchy", "half-worn": "half worn", "sharp": "sharp", "like-new": "cuts like new", "hit": "hit something hard"}[d.Says]))
	case history.KindInspected:
		var d history.Inspected
		err = read(&d)
		add(d.Fault == "", "all sound")
		add(d.Fault != "", "%s", say.Word(care.Fault(d.Fault).Words()))
	case history.KindMended:
		var d history.Mended
		err = read(&d)
		add(true, "mended by %s, inspected by %s", d.MendedBy, d.InspectedBy)
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
		add(d.Cause != "", "%s", v.cause(d.Cause))
		add(d.Fixed, "fixed")
		add(!d.Fixed, "not fixed")
	}
	return says, err
}
