package httpapi

import (
	"context"
	"encoding/json"
	"errors"
	"net/http"
	"time"

	"github.com/coder/websocket"
	"github.com/gin-gonic/gin"

	"corte/core/say"
	"corte/core/sound"
	"corte/internal/httpapi/contract"
	"corte/internal/httpapi/present"
	"corte/internal/httpapi/request"
	"corte/internal/refusal"
	"corte/internal/wire"
)

const (
	mostBlock  = 64 << 10         // bytes of sound at once
	unheard    = 30 * time.Second // without a block, after which nobody is there any more
	listenedTo = 2 * time.Hour    // then the page begins anew
)

func (s *server) Listen(ctx context.Context, r contract.ListenRequestObject) (contract.ListenResponseObject, error) {
	w, b, strays, err := s.In(ctx).Run.Ear(ctx, request.Shop(ctx), r.Params.SawID, r.Params.BladeID)
	if err != nil {
		return nil, err
	}
	saw := wire.Ear(w, b)
	live, err := sound.NewLive(r.Params.Rate, saw)
	if err != nil {
		return nil, &refusal.Error{Reason: refusal.Invalid, Field: "blade_id", What: say.Error(err)}
	}
	c, ok := ctx.(*gin.Context)
	if !ok || c.GetHeader("Upgrade") == "" {
		return nil, refusal.Of("upgrade", "this is listened over a WebSocket; ask for one")
	}
	done, err := s.ears.take(c.Request.Context())
	if err != nil {
		return nil, err
	}
	return &listening{s, c, done, present.VoiceOf(ctx), saw, live, r.Params.Rate, strays}, nil
}

// listening answers every block of sound with what was heard so far.
type listening struct {
	s      *server
	asked  *gin.Context
	done   func()
	voice  present.Voice
	saw    sound.Saw
	live   *sound.Live
	rate   float64
	strays float64
}

func (l *listening) VisitListenResponse(w http.ResponseWriter) error {
	defer l.done()
	conn, err := websocket.Accept(w, l.asked.Request, nil)
	if err != nil {
		return nil // it has answered why
	}
	defer conn.CloseNow()
	conn.SetReadLimit(mostBlock)
	// What is left of the request's own time is no measure of how long a saw runs.
	still, out := l.s.whileIn(l.asked)
	defer out()
	ctx, done := context.WithTimeout(still, listenedTo)
	defer done()
	samples := 0
	for {
		block, err := l.next(ctx, conn)
		if err != nil {
			var closed websocket.CloseError
			if !errors.As(err, &closed) {
				_ = conn.Close(websocket.StatusPolicyViolation, "blocks of sound are awaited, of at most 64 KB, at least every half minute")
			}
			return nil
		}
		heard := wire.Samples(block)
		samples += len(heard)
		l.live.Hear(heard)
		raw, err := json.Marshal(l.voice.Hear(l.live.Heard(), l.saw, float64(samples)/l.rate, l.strays))
		if err != nil {
			return err
		}
		if err := conn.Write(ctx, websocket.MessageText, raw); err != nil {
			return nil // the page is gone
		}
	}
}

func (l *listening) next(ctx context.Context, conn *websocket.Conn) ([]byte, error) {
	ctx, done := context.WithTimeout(ctx, unheard)
	defer done()
	kind, block, err := conn.Read(ctx)
	if err == nil && kind != websocket.MessageBinary {
		err = errors.New("text is no sound")
	}
	return block, err
}
