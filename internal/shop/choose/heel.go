package choose

import (
	"time"

	"corte/core/cut"
	"corte/core/measure"
	"corte/core/saw"
	"corte/core/say"
	"corte/core/truing"
	"corte/internal/record"
)

// meets is the heel that the work of a job meets on a saw, and where it is
// from, a phrase; nothing where nothing was ever measured.
func meets(j cut.Job, w record.Saw) (measure.Length, say.Line) {
	if w.HeelAt == nil && w.FenceAt == nil {
		return 0, say.Line{}
	}
	day := func(t *time.Time) say.Day { return record.Day(*t, w.Zone) }
	var from say.List
	if w.HeelAt != nil {
		form := "toe-in %s toward the fence on %s"
		if w.Heel < 0 {
			form = "toe-out %s from the fence on %s"
		}
		from = append(from, say.Line{Form: form, With: []any{say.Dial(w.Heel), day(w.HeelAt)}})
	}
	heel := w.Heel
	if w.Kind == saw.Table && j.Direction != cut.Crosscut && w.FenceAt != nil {
		heel = truing.AlongFence(w.Heel, w.FenceOpen)
		form := "fence toe-out %s on %s"
		if w.FenceOpen < 0 {
			form = "fence toe-in %s on %s"
		}
		from = append(from, say.Line{Form: form, With: []any{say.Dial(w.FenceOpen), day(w.FenceAt)}})
	}
	return heel, say.Of("%s", from)
}
