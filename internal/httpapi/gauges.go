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
	"corte/internal/httpapi/request"
	"corte/internal/ptr"
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
	err := s.hub(ctx).Place(r.Name, string(r.Body.Where), ptr.Value(r.Body.Step), max(1, ptr.Value(r.Body.Of)))
	if errors.Is(err, gauge.ErrNoStandIn) {
		return nil, &refusal.Error{Reason: refusal.Missing, What: say.Error(err)}
	}
	return contract.PlaceGauge204Response{}, err
}

func (s *server) StreamGauges(ctx context.Context, _ contract.StreamGaugesRequestObject) (contract.StreamGaugesResponseObject, error) {
	want := s.events.Want
	if request.Shop(ctx) != s.home {
		want = func() {}
	}
	return gaugeStream{ctx, s, want}, nil
}

func (s *server) StreamEvents(ctx context.Context, _ contract.StreamEventsRequestObject) (contract.StreamEventsResponseObject, error) {
	return changes{ctx, s}, nil
}

// changes streams the shop's change events until the page disconnects.
type changes struct {
	ctx context.Context
	s   *server
}

func (x changes) VisitStreamEventsResponse(w http.ResponseWriter) error {
	rings, done := x.s.events.Subscribe(request.Shop(x.ctx))
	defer done()
	ctx, out := x.s.whileIn(x.ctx)
	defer out()
	return stream(ctx, w, rings, func() {}, func(what string) (string, any) { return "changed", contract.Changed{What: what} })
}

// gaugeStream streams the readings of the dial gauges until the page disconnects.
// Meanwhile other servers are asked for theirs.
type gaugeStream struct {
	ctx  context.Context
	s    *server
	want func()
}

func (g gaugeStream) VisitStreamGaugesResponse(w http.ResponseWriter) error {
	events, done := g.s.hub(g.ctx).Watch()
	defer done()
	ctx, out := g.s.whileIn(g.ctx)
	defer out()
	return stream(ctx, w, events, g.want, func(e gauge.Event) (string, any) {
		if e.State != nil {
			return "state", encodeGauge(*e.State)
		}
		r := e.Reading
		return "reading", contract.GaugeReading{Name: r.Name, Sequence: int64(r.Sequence), Mm: r.Value.Mm(), Still: r.Still}
	})
}

const (
	heartbeat = 10 * time.Second // keeps proxies and pages from taking silence for the end
	streamed  = 10 * time.Minute // then the page asks anew, and whoever may no more is told so
)

// stream writes server-sent events until the page disconnects, with a heartbeat in
// between, at which it also calls at.
func stream[T any](ctx context.Context, w http.ResponseWriter, events <-chan T, at func(), say func(T) (kind string, v any)) error {
	w.Header().Set("Content-Type", "text/event-stream")
	w.WriteHeader(http.StatusOK)
	beat := time.NewTicker(heartbeat)
	defer beat.Stop()
	end := time.NewTimer(streamed)
	defer end.Stop()
	out := http.NewResponseController(w)
	_ = out.SetWriteDeadline(time.Time{}) // it lasts as long as the page does
	at()
	_, err := fmt.Fprint(w, ": here\n\n")
	for err == nil {
		_ = out.Flush()
		select {
		case <-ctx.Done():
			return nil
		case <-end.C:
			return nil
		case <-beat.C:
			at()
			_, err = fmt.Fprint(w, ": here\n\n")
		case e, ok := <-events:
			if !ok {
				return nil // Corte is stopping
			}
			kind, v := say(e)
			raw, bad := json.Marshal(v)
			if bad != nil {
				return bad
			}
			_, err = fmt.Fprintf(w, "event: %s\ndata: %s\n\n", kind, raw)
		}
	}
	return nil // nobody is listening any more
}

func encodeGauge(s gauge.State) contract.Gauge {
	return contract.Gauge{Name: s.Name, Word: contract.GaugeWord(s.Word), Text: s.Text, StandIn: s.StandIn}
}
