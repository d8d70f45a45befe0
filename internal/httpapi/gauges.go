package httpapi

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"time"

	"corte/core/say"
	"corte/internal/gauge"
	"corte/internal/httpapi/contract"
	"corte/internal/opt"
	"corte/internal/refusal"
)

func (s *server) ListGauges(ctx context.Context, _ contract.ListGaugesRequestObject) (contract.ListGaugesResponseObject, error) {
	out := contract.ListGauges200JSONResponse{Items: []contract.Gauge{}}
	for _, st := range s.hub(ctx).States() {
		out.Items = append(out.Items, encodeGauge(st))
	}
	return out, nil
}

func (s *server) PlaceGauge(ctx context.Context, r contract.PlaceGaugeRequestObject) (contract.PlaceGaugeResponseObject, error) {
	err := s.hub(ctx).Place(r.Name, string(r.Body.Where), opt.Value(r.Body.Step), max(1, opt.Value(r.Body.Of)))
	if errors.Is(err, gauge.ErrNoStandIn) {
		return nil, &refusal.Error{Reason: refusal.Missing, What: say.Error(err)}
	}
	return contract.PlaceGauge204Response{}, err
}

func (s *server) StreamGauges(ctx context.Context, _ contract.StreamGaugesRequestObject) (contract.StreamGaugesResponseObject, error) {
	return gaugeStream{ctx, s.hub(ctx)}, nil
}

// gaugeStream writes server-sent events until the page goes away.
type gaugeStream struct {
	ctx context.Context
	hub *gauge.Hub
}

// heartbeat keeps proxies and pages from taking silence for the end.
const heartbeat = 10 * time.Second

func (g gaugeStream) VisitStreamGaugesResponse(w http.ResponseWriter) error {
	w.Header().Set("Content-Type", "text/event-stream")
	w.WriteHeader(http.StatusOK)
	events, done := g.hub.Watch()
	defer done()
	beat := time.NewTicker(heartbeat)
	defer beat.Stop()
	out := http.NewResponseController(w)
	_ = out.SetWriteDeadline(time.Time{}) // it lasts as long as the page does
	send := func(kind string, v any) error {
		raw, err := json.Marshal(v)
		if err != nil {
			return err
		}
		_, err = fmt.Fprintf(w, "event: %s\ndata: %s\n\n", kind, raw)
		return err
	}
	if _, err := fmt.Fprint(w, ": here\n\n"); err != nil {
		return nil
	}
	for {
		_ = out.Flush()
		var err error
		select {
		case <-g.ctx.Done():
			return nil
		case <-beat.C:
			_, err = fmt.Fprint(w, ": here\n\n")
		case e, ok := <-events:
			if !ok {
				return nil // Corte is stopping
			}
			if e.State != nil {
				err = send("state", encodeGauge(*e.State))
			} else {
				r := e.Reading
				err = send("reading", contract.GaugeReading{Name: r.Name, Sequence: int64(r.Sequence), Mm: r.Value.Mm(), Still: r.Still})
			}
		}
		if err != nil {
			return nil // nobody is listening any more
		}
	}
}

func encodeGauge(s gauge.State) contract.Gauge {
	return contract.Gauge{Name: s.Name, Word: contract.GaugeWord(s.Word), Text: s.Text, StandIn: s.StandIn}
}
