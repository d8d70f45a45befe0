package httpapi

import (
	"bytes"
	"context"
	"io"
	"net/http"

	"github.com/gin-gonic/gin"

	"corte/core/sight"
	"corte/internal/httpapi/contract"
	"corte/internal/httpapi/present"
	"corte/internal/httpapi/request"
	"corte/internal/ptr"
	"corte/internal/shop/rack"
	"corte/internal/wire"
)

func (s *server) GetPhoto(ctx context.Context, r contract.GetPhotoRequestObject) (contract.GetPhotoResponseObject, error) {
	raw, err := s.In(ctx).Rack.Photo(ctx, request.Shop(ctx), r.ID)
	return contract.GetPhoto200ImageJpegResponse{Body: bytes.NewReader(raw), ContentLength: int64(len(raw))}, err
}

func (s *server) SetPhoto(ctx context.Context, r contract.SetPhotoRequestObject) (contract.SetPhotoResponseObject, error) {
	v := present.VoiceOf(ctx)
	developed, err := io.ReadAll(r.Body)
	if err != nil {
		return nil, err
	}
	b, err := s.In(ctx).Rack.SetPhoto(ctx, request.Shop(ctx), r.ID, developed)
	return contract.SetPhoto200JSONResponse(v.Blade(b)), err
}

// develop scales a photo down before the request's transaction begins, since it may
// take seconds.
func develop(c *gin.Context) {
	if c.Request.Method != http.MethodPut || c.FullPath() != base+"/blades/:id/photo" {
		return
	}
	raw, err := readBody(c.Request)
	var small []byte
	if err == nil {
		small, err = rack.Develop(c.Request.Context(), raw)
	}
	if err != nil {
		refuseError(c, err)
		return
	}
	c.Request.Body = io.NopCloser(bytes.NewReader(small))
}

func (s *server) DropPhoto(ctx context.Context, r contract.DropPhotoRequestObject) (contract.DropPhotoResponseObject, error) {
	v := present.VoiceOf(ctx)
	b, err := s.In(ctx).Rack.DropPhoto(ctx, request.Shop(ctx), r.ID)
	return contract.DropPhoto200JSONResponse(v.Blade(b)), err
}

// looked reads what a request carries as a picture, and says how wide and high that is.
func looked[T any](ctx context.Context, body io.Reader, look func(sight.Picture) (T, error)) (seen T, wide, high int, err error) {
	raw, err := io.ReadAll(body)
	if err != nil {
		return seen, 0, 0, err
	}
	ctx, cancel := context.WithTimeout(ctx, patience) // from here on: a slow network is no fault of the photo
	defer cancel()
	wide, high, err = rack.Look(ctx, raw, func(p sight.Picture) (err error) {
		seen, err = look(p)
		return err
	})
	return seen, wide, high, err
}

func (s *server) LookAtBlade(ctx context.Context, r contract.LookAtBladeRequestObject) (contract.LookAtBladeResponseObject, error) {
	b, wide, high, err := looked(ctx, r.Body, func(p sight.Picture) (sight.Blade, error) {
		return p.Look(wire.Places(r.Params.Taps))
	})
	if err != nil {
		return nil, err
	}
	blades, err := s.In(ctx).Rack.Rack(ctx, request.Shop(ctx))
	if err != nil {
		return nil, err
	}
	return contract.LookAtBlade200JSONResponse(present.VoiceOf(ctx).Look(b, wide, high, blades)), nil
}

func (s *server) LookAtWall(ctx context.Context, r contract.LookAtWallRequestObject) (contract.LookAtWallResponseObject, error) {
	in := r.Params
	var turn sight.Turn
	if in.SawID != nil && in.BladeID != nil {
		w, err := s.In(ctx).Rack.Saw(ctx, request.Shop(ctx), *in.SawID)
		if err != nil {
			return nil, err
		}
		b, err := s.In(ctx).Rack.Blade(ctx, request.Shop(ctx), *in.BladeID)
		if err != nil {
			return nil, err
		}
		turn = wire.Turn(w, b, ptr.Value(in.FeedMMin))
	}
	w, wide, high, err := looked(ctx, r.Body, func(p sight.Picture) (sight.Wall, error) {
		return p.LookAtWall(in.ThicknessMm.Mm(), wire.Places(in.Corners))
	})
	if err != nil {
		return nil, err
	}
	return contract.LookAtWall200JSONResponse(present.VoiceOf(ctx).WallLook(w, wide, high, turn)), nil
}

func (s *server) LookAtEdge(ctx context.Context, r contract.LookAtEdgeRequestObject) (contract.LookAtEdgeResponseObject, error) {
	e, wide, high, err := looked(ctx, r.Body, func(p sight.Picture) (sight.Edge, error) {
		return p.LookAtEdge(r.Params.LengthMm.Mm(), wire.Places(r.Params.Ends), ptr.Value(r.Params.Face) == contract.EdgeFaceBelow)
	})
	if err != nil {
		return nil, err
	}
	return contract.LookAtEdge200JSONResponse(present.VoiceOf(ctx).EdgeLook(e, wide, high)), nil
}
