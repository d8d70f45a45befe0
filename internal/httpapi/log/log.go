// Package log answers for the log: read, corrected, taken out and brought in.
package log

import (
	"context"
	"encoding/base64"
	"fmt"
	"io"
	"net/http"
	"time"

	"github.com/google/uuid"

	"corte/core/history"
	"corte/core/measure"
	"corte/core/outcome"
	"corte/core/say"
	"corte/internal/httpapi/contract"
	"corte/internal/httpapi/present"
	"corte/internal/httpapi/request"
	"corte/internal/logfile"
	"corte/internal/ptr"
	"corte/internal/record"
	"corte/internal/refusal"
	"corte/internal/shop"
	shoplog "corte/internal/shop/log"
	"corte/internal/store"
)

// Handlers meet the part of the contract that is this station's.
type Handlers struct {
	request.Scope
}

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

func (s Handlers) ListLog(ctx context.Context, r contract.ListLogRequestObject) (contract.ListLogResponseObject, error) {
	v := present.VoiceOf(ctx)
	p := r.Params
	before, err := decodeMark(p.Before)
	if err != nil {
		return nil, err
	}
	page, next, err := s.In(ctx).Log.Rows(ctx, request.Shop(ctx), filterOf(p), before, request.Limit(p.Limit))
	if err != nil {
		return nil, err
	}
	items, err := v.Entries(page)
	if err != nil {
		return nil, err
	}
	out := contract.ListLog200JSONResponse{Items: items}
	if next != nil {
		out.Next = ptr.To(encodeMark(*next))
	}
	return out, nil
}

func (s Handlers) GetSeason(ctx context.Context, r contract.GetSeasonRequestObject) (contract.GetSeasonResponseObject, error) {
	v := present.VoiceOf(ctx)
	season, err := s.In(ctx).Log.Season(ctx, request.Shop(ctx), r.Params.Days)
	if err != nil {
		return nil, err
	}
	out := contract.GetSeason200JSONResponse{From: present.Day(season.From), Until: present.Day(season.Until), Marks: make([]contract.DayMark, len(season.Marks))}
	for i, m := range season.Marks {
		out.Marks[i] = contract.DayMark{
			Day: present.Day(m.Day), Kind: contract.LogKind(m.Kind), Rows: m.Rows, SawID: ptr.NonZero(m.Saw), SawName: ptr.NonZero(m.SawName), BladeID: ptr.NonZero(m.Blade), BladeName: ptr.NonZero(m.BladeName),
			Material: ptr.NonZero(m.Material), MaterialName: ptr.NonZero(v.Material(m.Material)), Finish: ptr.NonZero(m.Finish),
			Pieces: ptr.NonZero(m.Pieces), Metres: ptr.NonZero(m.Metres), Burnt: ptr.NonZero(m.Burnt), Splintery: ptr.NonZero(m.Splintery),
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
		return m, &refusal.Error{Reason: refusal.Invalid, Field: "before", What: say.Of("this page position is unknown")}
	}
	m.At = time.UnixMicro(micro)
	return m, nil
}

func (s Handlers) StrikeRow(ctx context.Context, r contract.StrikeRowRequestObject) (contract.StrikeRowResponseObject, error) {
	e, err := s.In(ctx).Log.Strike(ctx, request.Shop(ctx), r.ID, ptr.Value(r.Body.Note))
	return present.LogRow(ctx, e, err, func(o contract.LogEntry) contract.StrikeRowResponseObject {
		return contract.StrikeRow201JSONResponse(o)
	})
}

func (s Handlers) AmendRow(ctx context.Context, r contract.AmendRowRequestObject) (contract.AmendRowResponseObject, error) {
	b := r.Body
	e, err := s.In(ctx).Log.Amend(ctx, request.Shop(ctx), r.ID, shoplog.Amendment{
		By: b.By, Note: b.Note, Pieces: b.Pieces, Wall: (*outcome.Wall)(b.Wall), Splinters: (*outcome.Face)(b.Splinters), Other: (*outcome.Face)(b.OtherSplinters), Effort: (*outcome.Effort)(b.Effort),
	})
	return present.LogRow(ctx, e, err, func(o contract.LogEntry) contract.AmendRowResponseObject {
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

func (s Handlers) ExportLog(ctx context.Context, r contract.ExportLogRequestObject) (contract.ExportLogResponseObject, error) {
	p := r.Params
	return logExport{ctx, s.Service, request.Shop(ctx), filterOf(contract.ListLogParams{BladeID: p.BladeID, SawID: p.SawID, Kind: p.Kind, From: p.From, To: p.To, Material: p.Material, Finish: p.Finish, FromDay: p.FromDay, UntilDay: p.UntilDay}), p.Format == contract.FileFormatCsv}, nil
}

func (s Handlers) PreviewLogImport(ctx context.Context, r contract.PreviewLogImportRequestObject) (contract.PreviewLogImportResponseObject, error) {
	rows, err := s.oldLog(ctx, r.Body)
	if err != nil {
		return nil, err
	}
	v := present.VoiceOf(ctx)
	old, err := s.In(ctx).Log.TakeIn(ctx, request.Shop(ctx), rows, false)
	out := contract.PreviewLogImport200JSONResponse{Add: old.Add, Same: old.Same, Refuse: old.Refuse, Rows: []contract.LogImportRow{}}
	for _, r := range old.Rows {
		out.Rows = append(out.Rows, contract.LogImportRow{Does: contract.LogImportRowDoes(r.Does), Kind: r.Kind, Line: r.Line, Says: v.Say(r.Says)})
	}
	return out, err
}

func (s Handlers) ImportLog(ctx context.Context, r contract.ImportLogRequestObject) (contract.ImportLogResponseObject, error) {
	rows, err := s.oldLog(ctx, r.Body)
	if err != nil {
		return nil, err
	}
	in, err := s.Service.Log.Begin(ctx, request.Shop(ctx), r.ID, rows)
	return contract.ImportLog202JSONResponse(encodeImport(present.VoiceOf(ctx), in)), err
}

func (s Handlers) ListLogImports(ctx context.Context, _ contract.ListLogImportsRequestObject) (contract.ListLogImportsResponseObject, error) {
	all, err := s.In(ctx).Log.Imports(ctx, request.Shop(ctx))
	out := contract.ListLogImports200JSONResponse{Items: make([]contract.LogImportWork, len(all))}
	for i, in := range all {
		out.Items[i] = encodeImport(present.VoiceOf(ctx), in)
	}
	return out, err
}

func encodeImport(v present.Voice, in store.Import) contract.LogImportWork {
	out := contract.LogImportWork{ID: in.ID, At: in.At, By: ptr.NonZero(in.By), State: contract.LogImportWorkState(in.State), Rows: in.Rows, Done: in.Done,
		Same: in.Same, Refuse: in.Refuse, Says: ptr.NonZero(v.Word(in.Says))}
	if in.State == "done" {
		out.Add = in.Rows
	}
	return out
}

// oldLog reads a file of old records.
func (s Handlers) oldLog(ctx context.Context, file io.Reader) ([]logfile.Row, error) {
	text, err := io.ReadAll(file)
	if err != nil {
		return nil, err
	}
	sh, err := s.In(ctx).Rack.Shop(ctx, request.Shop(ctx))
	if err != nil {
		return nil, err
	}
	rows, err := logfile.Read(text, measure.Millimetre, record.Zone(sh.Zone))
	if err != nil {
		return nil, &refusal.Error{Reason: refusal.Invalid, Field: "file", What: say.Error(err)}
	}
	return rows, nil
}
