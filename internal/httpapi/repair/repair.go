// Package repair answers for damaged rows.
package repair

import (
	"context"
	"encoding/json"

	"corte/internal/httpapi/contract"
	"corte/internal/httpapi/request"
	"corte/internal/ptr"
)

// Handlers meet the part of the contract that is this station's.
type Handlers struct {
	request.Scope
}

func (s Handlers) damaged(ctx context.Context, log bool) (contract.DamagedRows, error) {
	all, err := s.In(ctx).Repair.All(ctx, request.Shop(ctx), log)
	out := contract.DamagedRows{Items: make([]contract.DamagedRow, len(all))}
	for i, r := range all {
		out.Items[i] = contract.DamagedRow{Table: r.Table, ID: r.ID, Name: ptr.NonZero(r.Name), Why: r.Why, Digest: r.Digest, Repairable: r.Repairable, Removable: r.Removable}
		if err := json.Unmarshal(r.JSON, &out.Items[i].Row); err != nil {
			return out, err
		}
	}
	return out, err
}

func (s Handlers) ListDamagedRows(ctx context.Context, r contract.ListDamagedRowsRequestObject) (contract.ListDamagedRowsResponseObject, error) {
	out, err := s.damaged(ctx, ptr.Value(r.Params.Log))
	return contract.ListDamagedRows200JSONResponse(out), err
}

func (s Handlers) RepairRow(ctx context.Context, r contract.RepairRowRequestObject) (contract.RepairRowResponseObject, error) {
	raw, err := json.Marshal(r.Body.Row)
	if err != nil {
		return nil, err
	}
	if err := s.In(ctx).Repair.Repair(ctx, request.Shop(ctx), r.Table, r.Row, r.Body.Digest, raw); err != nil {
		return nil, err
	}
	out, err := s.damaged(ctx, false)
	return contract.RepairRow200JSONResponse(out), err
}

func (s Handlers) RemoveRow(ctx context.Context, r contract.RemoveRowRequestObject) (contract.RemoveRowResponseObject, error) {
	if err := s.In(ctx).Repair.Remove(ctx, request.Shop(ctx), r.Table, r.Row, r.Params.Digest); err != nil {
		return nil, err
	}
	out, err := s.damaged(ctx, false)
	return contract.RemoveRow200JSONResponse(out), err
}
