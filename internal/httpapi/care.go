package httpapi

import (
	"context"
	"strings"

	"corte/internal/account"
	"corte/internal/httpapi/contract"
	"corte/internal/httpapi/present"
)

func (s *server) ReadCalendar(ctx context.Context, r contract.ReadCalendarRequestObject) (contract.ReadCalendarResponseObject, error) {
	if s.door != nil {
		if err := s.door.desk.From(account.Apart(ctx), account.Links, visitOf(ctx).address); err != nil {
			return nil, err
		}
	}
	text, err := s.In(ctx).Care.Feed(ctx, present.VoiceOf(ctx).Voice.Voice, r.Secret)
	return contract.ReadCalendar200TextCalendarResponse{Body: strings.NewReader(text), ContentLength: int64(len(text))}, err
}
