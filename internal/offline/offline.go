// Package offline answers plans, sweeps, comparisons, supports and lengths from
// the shelf that the server last sent, with the same packages as the server.
// cmd/corte-offline compiles it for the browser.
package offline

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"

	"github.com/google/uuid"

	"corte/core/cut"
	"corte/core/measure"
	"corte/core/say"
	"corte/core/sight"
	"corte/core/sound"
	"corte/internal/httpapi/contract"
	"corte/internal/ptr"
	"corte/internal/record"
	"corte/internal/refusal"
	"corte/internal/shop/choose"
	"corte/internal/wire"
)

// A Host answers over one shelf, and listens to one saw at a time.
type Host struct {
	station  choose.Station
	language string // a tag, such as "es"

	saw   sound.Saw
	live  *sound.Live
	rate  float64
	heard int // samples
}

// New reads a shelf as the server gave it. A shelf of another edition of the
// model is refused.
func New(shelf []byte) (*Host, error) {
	var s record.Shelf
	if err := json.Unmarshal(shelf, &s); err != nil {
		return nil, fmt.Errorf("the shelf cannot be read: %w", err)
	}
	if s.Edition != cut.Edition {
		return nil, fmt.Errorf("the shelf is of edition %d of the model, and this is %d", s.Edition, cut.Edition)
	}
	return &Host{station: choose.At(s)}, nil
}

// Speak makes a host answer in the language of a tag.
func (h *Host) Speak(language string) { h.language = language }

func (h *Host) voice(u contract.Units) wire.Voice { return wire.VoiceIn(u, h.language) }

// shop stands for the one shop that a shelf is of.
var shop uuid.UUID

// Ask answers a call of the contract by its address: its status, and the answer
// or the problem as JSON. What a shelf does not know is answered with 404.
func (h *Host) Ask(address string, body []byte) (status int, out []byte) {
	return h.said(h.answer(address, body))
}

// Look answers what the server is asked by /blade-looks, /wall-looks and /edge-looks, of a picture
// that the browser has decoded: places are in shares of its sides, two numbers each.
func (h *Host) Look(address string, body []byte, p sight.Picture, places []float64) (status int, out []byte) {
	ctx := context.Background()
	if address == "/blade-looks" {
		b, err := p.Look(wire.Places(&places))
		if err != nil {
			return h.said(nil, "", refusal.Of("photo", "%v", err))
		}
		rack, err := h.station.Rack(ctx, shop)
		return h.said(h.voice("").Look(b, p.Wide, p.High, rack), "", err)
	}
	var in struct {
		Thickness float64           `json:"thickness_mm"`
		Length    float64           `json:"length_mm"`
		Face      contract.EdgeFace `json:"face"`
		Saw       uuid.UUID         `json:"saw_id"`
		Blade     uuid.UUID         `json:"blade_id"`
		Feed      float64           `json:"feed_m_min"`
		Units     contract.Units    `json:"units"`
	}
	if err := json.Unmarshal(body, &in); err != nil {
		return h.said(nil, "", err)
	}
	if address == "/edge-looks" {
		e, err := p.LookAtEdge(in.Length, wire.Places(&places), in.Face == contract.EdgeFaceBelow)
		if err != nil {
			return h.said(nil, in.Units, refusal.Of("photo", "%v", err))
		}
		return h.said(h.voice(in.Units).EdgeLook(e, p.Wide, p.High), in.Units, nil)
	}
	w, err := p.LookAtWall(in.Thickness, wire.Places(&places))
	if err != nil {
		return h.said(nil, in.Units, refusal.Of("photo", "%v", err))
	}
	var turn sight.Turn
	if saw, err := h.station.Saw(ctx, shop, in.Saw); err == nil {
		if b, err := h.station.Blade(ctx, shop, in.Blade); err == nil {
			turn = wire.Turn(saw, b, in.Feed)
		}
	}
	return h.said(h.voice(in.Units).WallLook(w, p.Wide, p.High, turn), in.Units, nil)
}

// Listen begins to listen to a saw and the blade that is on it, to so many samples a
// second. What was listened to before is forgotten. The answer is empty, or a problem.
func (h *Host) Listen(saw, blade string, rate float64) (status int, out []byte) {
	begin := func() error {
		sawID, err := uuid.Parse(saw)
		if err != nil {
			return err
		}
		bladeID, err := uuid.Parse(blade)
		if err != nil {
			return err
		}
		w, err := h.station.Saw(context.Background(), shop, sawID)
		if err != nil {
			return refusal.NotThere(err, "saw_id", "saw")
		}
		b, err := h.station.Blade(context.Background(), shop, bladeID)
		if err != nil {
			return refusal.NotThere(err, "blade_id", "blade")
		}
		h.saw, h.rate, h.heard = wire.Ear(w, b), rate, 0
		h.live, err = sound.NewLive(rate, h.saw)
		return err
	}
	return h.said(struct{}{}, "", begin())
}

// Hear answers a block of sound with what was heard so far, as the server does.
func (h *Host) Hear(block []byte) (status int, out []byte) {
	if h.live == nil {
		return h.said(nil, "", refusal.Of("rate", "listening hasn't started"))
	}
	samples := wire.Samples(block)
	h.heard += len(samples)
	h.live.Hear(samples)
	return h.said(h.voice("").Hear(h.live.Heard(), h.saw, float64(h.heard)/h.rate, 0), "", nil)
}

// GoOn takes over what another host, of an older shelf, was listening to.
func (h *Host) GoOn(from *Host) {
	if from != nil {
		h.saw, h.live, h.rate, h.heard = from.saw, from.live, from.rate, from.heard
	}
}

// said is a result, or a problem, as it is sent.
func (h *Host) said(result any, units contract.Units, err error) (status int, out []byte) {
	var r *refusal.Error
	switch {
	case errors.As(err, &r):
		status = r.Status()
		result = contract.Problem{Status: status, Detail: h.voice(units).Sentence(r.What), Field: ptr.NonZero(r.Field), Title: "away", Type: "about:blank"}
	case err != nil:
		status = 400
		result = contract.Problem{Status: status, Detail: h.voice("").Sentence(say.Error(err)), Title: "away", Type: "about:blank"}
	default:
		status = 200
	}
	out, err = json.Marshal(result)
	if err != nil {
		return 500, []byte(`{}`)
	}
	return status, out
}

func (h *Host) answer(address string, body []byte) (any, contract.Units, error) {
	ctx := context.Background()
	switch address {
	case "/plans":
		var in contract.CreatePlanJSONRequestBody
		if err := json.Unmarshal(body, &in); err != nil {
			return nil, "", err
		}
		p, err := h.station.Plan(ctx, shop, in.Cut, wire.PlanLimit(in.Limit))
		if err != nil {
			return nil, in.Units, err
		}
		return h.voice(in.Units).Plan(p), in.Units, nil
	case "/sweeps":
		var in contract.CreateSweepJSONRequestBody
		if err := json.Unmarshal(body, &in); err != nil {
			return nil, "", err
		}
		s, err := h.station.Sweep(ctx, shop, in.Cut, wire.ReadSweep(in))
		if err != nil {
			return nil, in.Units, err
		}
		return h.voice(in.Units).Sweep(s), in.Units, nil
	case "/comparisons":
		var in contract.CreateComparisonJSONRequestBody
		if err := json.Unmarshal(body, &in); err != nil {
			return nil, "", err
		}
		w, all, err := h.station.Compare(ctx, shop, in.Cut, wire.ReadPins(in.Pins))
		if err != nil {
			return nil, in.Units, err
		}
		return map[string]any{"items": h.voice(in.Units).Comparison(w.ID, all)}, in.Units, nil
	case "/support-plans":
		var in contract.CreateSupportPlanJSONRequestBody
		if err := json.Unmarshal(body, &in); err != nil {
			return nil, "", err
		}
		b, now, err := wire.ReadBoard(in)
		if err != nil {
			return nil, in.Units, err
		}
		plan, as, err := h.station.Supports(b, now)
		if err != nil {
			return nil, in.Units, err
		}
		return h.voice(in.Units).SupportPlans(plan, as), in.Units, nil
	case "/unmarked-blades":
		var in contract.UnmarkedReadings
		if err := json.Unmarshal(body, &in); err != nil {
			return nil, "", err
		}
		out, err := wire.Unmarked(in)
		return out, "", err
	case "/length":
		var in struct {
			Text  string
			Units contract.Units
		}
		if err := json.Unmarshal(body, &in); err != nil {
			return nil, "", err
		}
		l, err := measure.Parse(in.Text, h.voice(in.Units).Unit)
		if err != nil {
			return nil, in.Units, &refusal.Error{Field: "text", What: say.Error(err)}
		}
		return wire.Length(l), in.Units, nil
	}
	return nil, "", &refusal.Error{Reason: refusal.Missing, What: say.Of("Corte does not answer, and this cannot be worked out without it")}
}
