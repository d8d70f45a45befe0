package run

import (
	"context"
	"encoding/json"

	"github.com/google/uuid"

	"corte/core/history"
	"corte/core/sound"
	"corte/internal/refusal"
	"corte/internal/store"
)

// looksBack is how many of a blade's last cuts are asked how they were heard.
const looksBack = 20

// Ear finds a saw and the blade on it for somebody who is about to listen, and how many
// times as much as was foretold the blade's last cuts slowed the saw; 0 where they were
// not listened to, or did not stray.
func (s Station) Ear(ctx context.Context, shop, saw, blade uuid.UUID) (w store.Saw, b store.Blade, strays float64, err error) {
	if w, err = s.Store.Saw(ctx, shop, saw); err != nil {
		return w, b, 0, refusal.NotThere(err, "saw_id", "saw")
	}
	if b, err = s.Store.Blade(ctx, shop, blade); err != nil {
		return w, b, 0, refusal.NotThere(err, "blade_id", "blade")
	}
	if b.Teeth == 0 {
		return w, b, 0, refusal.Of("blade_id", "%s has no teeth, and teeth are what is listened for", b.Name)
	}
	rows, err := s.Store.Log(ctx, shop, store.Filter{Blade: &blade, Saw: &saw, Kinds: []history.Kind{history.KindCut}, Standing: true}, store.Mark{}, looksBack)
	if err != nil {
		return w, b, 0, err
	}
	var loads []sound.Load
	for _, e := range rows {
		var d history.Cut
		if json.Unmarshal(e.Detail, &d) == nil && d.Heard != nil && d.Foretold != nil {
			loads = append(loads, sound.Load{Droop: 1 - d.Heard.Mean/d.Heard.Idle, Foretold: d.Foretold.Load})
		}
	}
	return w, b, sound.Strays(loads, w.Kind.FullDroop()), nil
}
