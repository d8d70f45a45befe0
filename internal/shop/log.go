package shop

import (
	"context"
	"crypto/sha256"
	"encoding/json"
	"errors"

	"github.com/google/uuid"

	"corte/core/care"
	"corte/core/cut"
	"corte/core/material"
	"corte/core/measure"
	"corte/internal/store"
)

// A CutMade is a cut that was made, and how it came out.
type CutMade struct {
	Cut       Cut
	Blade     uuid.UUID
	Height    measure.Length // 0 for a chop
	Feed      measure.Feed   // aimed at; 0 if not known
	Pieces    int
	Wall      string
	Splinters string
}

// LogCut adds a cut to the log and brings the blade's condition up to date.
// The same key with the same content logs once.
func (s *Service) LogCut(ctx context.Context, shop uuid.UUID, key string, made CutMade, u measure.Unit) (store.Entry, error) {
	w, j, r, err := s.request(ctx, shop, made.Cut, u)
	if err != nil {
		return store.Entry{}, err
	}
	cand, err := s.fit(ctx, shop, made.Blade, w, j, u)
	if err != nil {
		return store.Entry{}, err
	}
	full := r.Heights(cand.Blade).Full
	switch {
	case j.Motion == cut.Chop && made.Height != 0:
		return store.Entry{}, invalid("height_mm", "a chop has no height; leave it out")
	case j.Motion != cut.Chop && made.Height <= 0:
		return store.Entry{}, invalid("height_mm", "say how high the blade stood")
	case made.Height > full:
		return store.Entry{}, pastReach("height_mm", made.Height, full, u)
	}
	detail := store.CutDetail{
		Material: j.Material.ID, Direction: j.Direction.String(), Motion: j.Motion.String(), Finish: j.Finish.String(),
		Thickness: j.Thickness.Mm(), Width: j.Width.Mm(), Length: j.Length.Mm(), Height: made.Height.Mm(),
		Exit: j.Exit.String(), Other: j.Other.String(), Feed: float64(made.Feed), Pieces: made.Pieces,
		Wall: made.Wall, Splinters: made.Splinters,
		Depth: j.Depth.Mm(), Bevel: j.BevelDeg, Miter: j.MiterDeg, BothFaces: j.BothFaces,
	}
	if j.Form != cut.Through {
		detail.Form = j.Form.String()
	}
	raw, err := json.Marshal(detail)
	if err != nil {
		return store.Entry{}, err
	}
	entry := store.Entry{Shop: shop, At: s.now(), Kind: store.KindCut, Blade: &made.Blade, Saw: &w.ID, Detail: raw}
	digest := sha256.Sum256(append(raw, made.Blade.String()+w.ID.String()...))
	out, err := s.st.Append(ctx, store.IdempotencyKey{Key: key, Content: digest[:]}, entry, Fold(entry))
	if errors.Is(err, store.ErrKeyReused) {
		return out, &Error{Conflict, "Idempotency-Key", "this key was sent before with another cut; send a new cut with a new key"}
	}
	return out, err
}

// Fold returns how a log row changes a blade's condition.
func Fold(e store.Entry) func(store.Blade) care.Condition {
	return func(b store.Blade) care.Condition {
		switch e.Kind {
		case store.KindCut:
			var d store.CutDetail
			if json.Unmarshal(e.Detail, &d) != nil {
				return b.Condition
			}
			m, err := material.Get(d.Material)
			if err != nil {
				return b.Condition
			}
			j := logged(d)
			return b.Condition.Cut(b.Blade, m, j.CutLength()*measure.Length(d.Pieces), j.Swept())
		case store.KindWashed:
			return b.Condition.Wash()
		case store.KindSharpened:
			return b.Condition.Sharpen()
		}
		return b.Condition
	}
}

// CutLength is how far the blade cut in all pieces of a log row together.
func CutLength(d store.CutDetail) measure.Length {
	return logged(d).CutLength() * measure.Length(d.Pieces)
}

// logged is the geometry of a job as the log keeps it.
func logged(d store.CutDetail) cut.Job {
	direction, _ := cut.ParseDirection(d.Direction)
	j := cut.Job{
		Direction: direction, Thickness: measure.Length(d.Thickness), Width: measure.Length(d.Width), Length: measure.Length(d.Length),
		Depth: measure.Length(d.Depth), BevelDeg: d.Bevel, MiterDeg: d.Miter, BothFaces: d.BothFaces,
	}
	if d.Form != "" {
		j.Form, _ = cut.ParseForm(d.Form)
	}
	return j
}
