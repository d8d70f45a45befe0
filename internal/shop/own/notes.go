package own

import (
	"context"
	"encoding/json"
	"errors"

	"github.com/google/uuid"

	"corte/internal/record"
	"corte/internal/refusal"
)

// Notes are what owning rests on that only the shop can say.
type Notes struct {
	V       int                `json:"v"`
	Hour    float64            `json:"hour,omitempty"`   // what one is worth; 0 if nobody has said
	Prices  map[string]float64 `json:"prices,omitempty"` // of sold blades, by their ids
	Wishes  []Wish             `json:"wishes,omitempty"` // in their order
	Version int                `json:"-"`
}

// A Wish is a blade that somebody means to buy, and why.
type Wish struct {
	ID   string `json:"id"` // of what is sold
	Name string `json:"name"`
	Why  string `json:"why,omitempty"` // as it was said then
}

const notesNow = 1

// Notes are a shop's.
func (s Station) Notes(ctx context.Context, shop uuid.UUID) (Notes, error) {
	raw, version, err := s.Store.Owning(ctx, shop)
	n := Notes{V: notesNow, Version: version}
	if err != nil || raw == nil {
		return n, err
	}
	if err := json.Unmarshal(raw, &n); err != nil {
		return n, record.Damaged("owning", shop, err)
	}
	return n, nil
}

// Readable reports what of a shop's notes cannot be read.
func Readable(raw json.RawMessage) error {
	var n Notes
	if err := json.Unmarshal(raw, &n); err != nil {
		return errors.New("notes on owning have the wrong form")
	}
	return nil
}

// Note writes them over a version.
func (s Station) Note(ctx context.Context, shop uuid.UUID, n Notes) (Notes, error) {
	seen := map[string]bool{}
	for i, w := range n.Wishes {
		if seen[w.ID] {
			return n, refusal.Of("wishes", "%s is on the list twice; wish %d is one too many", w.Name, i+1)
		}
		seen[w.ID] = true
	}
	n.V = notesNow
	raw, err := json.Marshal(n)
	if err != nil {
		return n, err
	}
	if err := s.Store.NoteOwning(ctx, shop, n.Version, raw); err != nil {
		return n, refusal.Changed(err, "list")
	}
	return s.Notes(ctx, shop)
}
