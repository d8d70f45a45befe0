package rack

import (
	"bytes"
	"context"

	"github.com/gin-gonic/gin"

	"corte/core/say"
	"corte/internal/httpapi/contract"
	"corte/internal/httpapi/present"
	"corte/internal/httpapi/request"
	"corte/internal/labels"
	"corte/internal/ptr"
	"corte/internal/rackfile"
	"corte/internal/refusal"
	"corte/internal/store"
)

func (s Handlers) PrintLabels(ctx context.Context, r contract.PrintLabelsRequestObject) (contract.PrintLabelsResponseObject, error) {
	blades := make([]store.Blade, len(r.Body.BladeIds))
	for i, id := range r.Body.BladeIds {
		var err error
		if blades[i], err = s.In(ctx).Rack.Blade(ctx, request.Shop(ctx), id); err != nil {
			return nil, err
		}
	}
	home := "http://127.0.0.1"
	if c, ok := ctx.(*gin.Context); ok {
		home = "http://" + c.Request.Host
	}
	sheet, err := labels.Sheet(blades, func(b store.Blade) string { return home + "/blades/" + b.ID.String() }, ptr.Value(r.Body.Skip), present.VoiceOf(ctx).Unit)
	return contract.PrintLabels200ImageSvgXMLResponse{Body: bytes.NewReader(sheet), ContentLength: int64(len(sheet))}, err
}

func (s Handlers) ExportRack(ctx context.Context, r contract.ExportRackRequestObject) (contract.ExportRackResponseObject, error) {
	saws, blades, err := s.In(ctx).Rack.Whole(ctx, request.Shop(ctx))
	if err != nil {
		return nil, err
	}
	file, err := rackfile.Write(r.Params.Format, saws, blades)
	return contract.ExportRack200ApplicationOctetStreamResponse{Body: bytes.NewReader(file), ContentLength: int64(len(file))}, err
}

func (s Handlers) PreviewImport(ctx context.Context, r contract.PreviewImportRequestObject) (contract.PreviewImportResponseObject, error) {
	p, err := s.preview(ctx, *r.Body)
	if err != nil {
		return nil, err
	}
	return contract.PreviewImport200JSONResponse(encodePreview(present.VoiceOf(ctx), p)), nil
}

func (s Handlers) ImportRack(ctx context.Context, r contract.ImportRackRequestObject) (contract.ImportRackResponseObject, error) {
	p, err := s.preview(ctx, *r.Body)
	if err != nil {
		return nil, err
	}
	if p.Digest != ptr.Value(r.Body.Digest) {
		return nil, &refusal.Error{Reason: refusal.Stale, Field: "digest", What: say.Of("the file or the blades changed since the preview. Nothing was saved. Check the preview again")}
	}
	saws, blades := p.Changes()
	if err := s.In(ctx).Rack.Import(ctx, request.Shop(ctx), saws, blades); err != nil {
		return nil, err
	}
	return contract.ImportRack200JSONResponse(encodePreview(present.VoiceOf(ctx), p)), nil
}

func (s Handlers) preview(ctx context.Context, f contract.RackFile) (rackfile.Preview, error) {
	rows, err := s.Files.Read(f.Format, f.Text)
	if err != nil {
		return rackfile.Preview{}, &refusal.Error{Reason: refusal.Invalid, Field: "text", What: say.Error(err)}
	}
	saws, blades, err := s.In(ctx).Rack.Whole(ctx, request.Shop(ctx))
	if err != nil {
		return rackfile.Preview{}, err
	}
	return s.Files.Compare(request.Shop(ctx), f.Text, rows, saws, blades), nil
}

func encodePreview(v present.Voice, p rackfile.Preview) contract.ImportPreview {
	out := contract.ImportPreview{
		Digest: p.Digest, Add: p.Count(rackfile.Add), Change: p.Count(rackfile.Change), Same: p.Count(rackfile.Same),
		Refuse: p.Count(rackfile.Refuse), Rows: make([]contract.ImportRow, len(p.Lines)),
	}
	for i, l := range p.Lines {
		one := contract.ImportRow{Row: l.N, What: contract.ImportRowWhat(l.What), Name: l.Name, Action: contract.ImportRowAction(l.Action),
			Changes: []contract.FieldChange{}, Problems: []contract.FieldProblem{}}
		for _, d := range l.Differences {
			one.Changes = append(one.Changes, contract.FieldChange{Field: d.Field, From: d.From, To: d.To})
		}
		for _, pr := range l.Problems {
			one.Problems = append(one.Problems, contract.FieldProblem{Field: pr.Field, Detail: v.Sentence(pr.Detail)})
		}
		out.Rows[i] = one
	}
	return out
}
