package choose

import (
	"context"
	"errors"

	"github.com/google/uuid"

	"corte/core/choose"
	"corte/core/cut"
	"corte/core/measure"
	"corte/core/say"
	"corte/internal/record"
	"corte/internal/refusal"
)

// A Pin is a blade, and perhaps a height and supports, to compare.
type Pin struct {
	Blade       uuid.UUID
	Height      measure.Length // 0 for the suggested one
	Exit, Other *cut.Support
}

// A Compared is what became of a pin: a setting, or why it may not be.
type Compared struct {
	Pin
	Job     cut.Job
	Setting *Setting
	Refused say.Line
}

// Compare puts blades and settings side by side for the same cut.
func (s Station) Compare(ctx context.Context, shop uuid.UUID, c record.Cut, pins []Pin) (record.Saw, []Compared, error) {
	out := make([]Compared, len(pins))
	var saw record.Saw
	for i, pin := range pins {
		one := c
		if pin.Exit != nil {
			one.Exit = pin.Exit
		}
		if pin.Other != nil {
			one.Other = pin.Other
		}
		w, j, r, err := s.Request(ctx, shop, one)
		if err == nil {
			err = InUse(w, "cut.saw_id")
		}
		if err != nil {
			return saw, nil, err
		}
		saw = w
		out[i] = Compared{Pin: pin, Job: j}
		cand, err := s.Fit(ctx, shop, pin.Blade, w, j, r)
		var refused *refusal.Error
		switch {
		case errors.As(err, &refused):
			out[i].Refused = refused.What
			continue
		case err != nil:
			return saw, nil, err
		case !j.Material.Kind.Modelled():
			out[i].Refused = say.Of("%s has no feed range. Its blade is chosen by rule", j.Material)
			continue
		}
		h := r.Heights(cand.Blade)
		at := h.Suggested
		if pin.Height > 0 && j.Motion != cut.Chop {
			at = pin.Height
		}
		if at > h.Full && j.Motion != cut.Chop {
			out[i].Refused = say.Error(PastReach("", at, h.Full))
			continue
		}
		set := r.setting(w, pin.Blade, j, at, choose.At(r.Request, cand, at))
		out[i].Setting = &set
	}
	return saw, out, nil
}
