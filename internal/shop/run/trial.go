package run

import (
	"context"
	"encoding/binary"
	"encoding/json"
	"errors"
	"fmt"
	"slices"

	"github.com/google/uuid"

	"corte/core/cut"
	"corte/core/history"
	"corte/core/measure"
	"corte/core/outcome"
	"corte/core/say"
	"corte/core/trial"
	"corte/core/verdict"
	"corte/internal/record"
	"corte/internal/refusal"
	shopchoose "corte/internal/shop/choose"
	"corte/internal/shop/env"
	"corte/internal/shop/rack"
	"corte/internal/store"
)

// A TrialSetting is one way to make the cut of a comparison.
type TrialSetting struct {
	Blade  uuid.UUID   `json:"blade_id"`
	Name   string      `json:"blade_name"`
	Height float64     `json:"height_mm"`
	Exit   string      `json:"exit_support"`
	Feed   float64     `json:"feed_m_min"` // aimed at
	Detail history.Cut `json:"detail"`     // its log row, before anything came out
}

// A Run is one piece of a comparison, in the order of cutting.
type Run struct {
	Piece     int            `json:"piece"`
	Setting   int            `json:"setting"`
	Cut       bool           `json:"cut"`
	Seconds   float64        `json:"seconds,omitempty"`
	Graded    bool           `json:"graded"`
	Wall      outcome.Wall   `json:"wall,omitempty"`
	Splinters outcome.Face   `json:"splinters,omitempty"`
	Effort    outcome.Effort `json:"effort,omitempty"`
}

type trialAsked struct {
	Cut      json.RawMessage `json:"cut"` // as it was said, for whoever asks
	Settings []TrialSetting  `json:"settings"`
	Repeats  int             `json:"repeats"`
}

// A Trial is settings compared on one board.
type Trial struct {
	store.Trial
	Cut      json.RawMessage
	Settings []TrialSetting
	Repeats  int
	Runs     []Run // in the order of cutting
	Grading  []int // the pieces in the order of grading, which tells nothing
	Note     say.Line
	Differ   []say.Line
	Results  []TrialResult // once it has ended
	Says     []say.Line
}

// A TrialResult is the difference between two settings in one measure.
type TrialResult struct {
	Measure string // scorch, splinters, effort or seconds
	A, B    int
	Mean    float64 // of B less that of A; less is better
	Chance  float64
	Sure    say.Line
}

// Hidden reports whether nobody is to know which setting made which piece: all
// is cut and it is graded blind.
func (t Trial) Hidden() bool {
	return t.Blind && t.Ended == nil && !slices.ContainsFunc(t.Runs, func(r Run) bool { return !r.Cut })
}

// StartTrial begins a comparison. raw is the cut as it was
// said. Settings that are the same, or that may not make the cut, are refused.
func (s Station) StartTrial(ctx context.Context, shop uuid.UUID, c record.Cut, raw json.RawMessage, pins []shopchoose.Pin, feeds []float64, repeats int, blind bool, by string) (Trial, error) {
	asked := trialAsked{Cut: raw, Repeats: repeats}
	saw, compared, err := shopchoose.At(s.Store).Compare(ctx, shop, c, pins)
	if err != nil {
		return Trial{}, err
	}
	material := ""
	for i, one := range compared {
		if !one.Refused.Zero() {
			return Trial{}, refusal.Of("settings", "setting %c: %s", 'A'+i, one.Refused)
		}
		if found := shopchoose.Findings(one.Job, saw); shopchoose.Worst(found) == verdict.Stop {
			return Trial{}, refusal.Of("cut", "%s %s", found[0].Why, found[0].WayOut)
		}
		b, err := rack.At(s.Env).Blade(ctx, shop, one.Blade)
		if err != nil {
			return Trial{}, err
		}
		set := TrialSetting{Blade: b.ID, Name: b.Name, Height: one.Setting.Height.Mm(), Exit: one.Job.Exit.String(), Feed: feeds[i]}
		feed := measure.Feed(feeds[i])
		if feed == 0 {
			feed = one.Setting.Feed
		}
		mine := c
		mine.Exit, mine.Other = &one.Job.Exit, &one.Job.Other
		made := CutMade{Cut: mine, Blade: b.ID, Height: one.Setting.Height, Feed: feed, Pieces: 1, Wall: "clean", Splinters: "none"}
		if one.Job.Motion == cut.Chop {
			made.Height, set.Height = 0, 0
		}
		if set.Detail, _, err = s.CutDetail(ctx, shop, made); err != nil {
			return Trial{}, err
		}
		material = set.Detail.Material
		asked.Settings = append(asked.Settings, set)
	}
	if _, err := trial.Check(asked.plain(), repeats); err != nil {
		return Trial{}, refusal.Of("settings", "%s", err)
	}
	id, err := s.Add(ctx, func(tx *store.Store, id uuid.UUID) error {
		runs := make([]Run, 0, repeats*len(pins))
		for i, set := range trial.Order(len(pins), repeats, seedOf(id)) {
			runs = append(runs, Run{Piece: i + 1, Setting: set})
		}
		t := store.Trial{ID: id, Shop: shop, Saw: saw.ID, Blade: asked.Settings[0].Blade, Material: material, Blind: blind, By: by, Started: s.Now()}
		var err error
		if t.Asked, err = json.Marshal(asked); err != nil {
			return err
		}
		if t.Runs, err = json.Marshal(runs); err != nil {
			return err
		}
		return tx.AddTrial(ctx, t)
	})
	if err != nil {
		return Trial{}, err
	}
	return s.Trial(ctx, shop, id)
}

// seedOf makes the order of a comparison follow from its id, so that it can be
// worked out again.
func seedOf(id uuid.UUID) uint64 { return binary.BigEndian.Uint64(id[:8]) }

func (a trialAsked) plain() []trial.Setting {
	out := make([]trial.Setting, len(a.Settings))
	for i, s := range a.Settings {
		out[i] = trial.Setting{Blade: s.Blade.String(), Height: s.Height, Support: s.Exit, Feed: s.Feed}
	}
	return out
}

// Trial finds one comparison.
func (s Station) Trial(ctx context.Context, shop, id uuid.UUID) (Trial, error) {
	row, err := s.Store.Trial(ctx, shop, id)
	if err != nil {
		return Trial{}, refusal.NotThere(err, "id", "comparison")
	}
	return trialOf(row)
}

// Trials lists the newest comparisons, of a blade where one is named.
func (s Station) Trials(ctx context.Context, shop uuid.UUID, blade *uuid.UUID, limit int) ([]Trial, error) {
	rows, err := s.Store.Trials(ctx, shop, blade, limit)
	if err != nil {
		return nil, err
	}
	return record.Readable(rows, trialOf)
}

// ReadableTrial reports what of a row cannot be read.
func ReadableTrial(row store.Trial) error {
	_, err := trialOf(row)
	return err
}

// trialOf reads a row. The error is a *record.DamagedError.
func trialOf(row store.Trial) (Trial, error) {
	t := Trial{Trial: row}
	var asked trialAsked
	err := errors.Join(json.Unmarshal(row.Asked, &asked), json.Unmarshal(row.Runs, &t.Runs))
	var shape map[string]any // the handlers hand the cut on as it is
	if err == nil && json.Unmarshal(asked.Cut, &shape) != nil {
		err = errors.New("its cut has the wrong form")
	}
	for _, r := range t.Runs {
		if err == nil && (r.Setting < 0 || r.Setting >= len(asked.Settings)) {
			err = fmt.Errorf("a piece is of setting %d, and there are %d", r.Setting, len(asked.Settings))
		}
	}
	if err != nil {
		return t, record.Damaged("trials", row.ID, err)
	}
	t.Cut, t.Settings, t.Repeats = asked.Cut, asked.Settings, asked.Repeats
	t.Differ = trial.Differ(asked.plain())
	t.Note, _ = trial.Check(asked.plain(), asked.Repeats)
	// Another shuffle: the order of cutting must not be read from that of grading.
	t.Grading = trial.Order(len(t.Runs), 1, seedOf(row.ID)+1)
	for i := range t.Grading {
		t.Grading[i]++
	}
	if row.Ended != nil {
		t.Results, t.Says = results(t)
	}
	return t, nil
}

// RunCut says that a piece was cut and, if it was timed, how long it took.
func (s Station) RunCut(ctx context.Context, shop, id uuid.UUID, version, piece int, seconds float64) (Trial, error) {
	return s.changeRun(ctx, shop, id, version, piece, func(t Trial, r *Run) error {
		r.Cut, r.Seconds = true, seconds
		return nil
	})
}

// RunGraded says how a piece came out. All are cut before any is graded blind.
func (s Station) RunGraded(ctx context.Context, shop, id uuid.UUID, version, piece int, wall outcome.Wall, splinters outcome.Face, effort outcome.Effort) (Trial, error) {
	return s.changeRun(ctx, shop, id, version, piece, func(t Trial, r *Run) error {
		if !r.Cut {
			return refusal.Of("piece", "piece %d is not cut yet", piece)
		}
		if t.Blind && !t.Hidden() {
			return refusal.Of("piece", "cut every piece first. Settings stay hidden while you grade")
		}
		r.Graded, r.Wall, r.Splinters, r.Effort = true, wall, splinters, effort
		return nil
	})
}

func (s Station) changeRun(ctx context.Context, shop, id uuid.UUID, version, piece int, change func(Trial, *Run) error) (Trial, error) {
	t, err := s.Trial(ctx, shop, id)
	switch {
	case err != nil:
		return t, err
	case t.Ended != nil:
		return t, refusal.Of("id", "this comparison has ended")
	case piece < 1 || piece > len(t.Runs):
		return t, refusal.Of("piece", "there are pieces 1 to %d", len(t.Runs))
	}
	if err := change(t, &t.Runs[piece-1]); err != nil {
		return t, err
	}
	row := t.Trial
	row.Version = version
	if row.Runs, err = json.Marshal(t.Runs); err != nil {
		return t, err
	}
	if err := s.Store.ChangeTrial(ctx, row); err != nil {
		return t, refusal.Changed(refusal.NotThere(err, "id", "comparison"), "comparison")
	}
	return s.Trial(ctx, shop, id)
}

// EndTrial closes a comparison whose pieces are all graded: every piece goes
// into the log as the cut that it was, and the result with it.
func (s Station) EndTrial(ctx context.Context, shop, id uuid.UUID, version int) (Trial, error) {
	t, err := s.Trial(ctx, shop, id)
	if err != nil || t.Ended != nil {
		return t, err
	}
	if t.Version != version {
		return t, refusal.Changed(store.ErrStale, "comparison")
	}
	for _, r := range t.Runs {
		if !r.Graded {
			return t, refusal.Of("id", "piece %d is not graded yet", r.Piece)
		}
	}
	now := s.Now()
	t.Ended = &now
	by := env.By(ctx, t.By)
	_, t.Says = results(t)
	err = s.Store.Atomically(ctx, func(tx *store.Store) error {
		if err := tx.ChangeTrial(ctx, t.Trial); err != nil {
			return refusal.Changed(refusal.NotThere(err, "id", "comparison"), "comparison")
		}
		note := "comparison, piece "
		for _, r := range t.Runs {
			set := t.Settings[r.Setting]
			d := set.Detail
			d.Wall, d.Splinters, d.Effort, d.Seconds = r.Wall, r.Splinters, r.Effort, r.Seconds
			d.Foretold = d.Anew() // at the feed that the piece was really cut with, as Run has it
			raw, err := json.Marshal(d)
			if err != nil {
				return err
			}
			e := store.Entry{Shop: shop, At: now, Kind: history.KindCut, Blade: &set.Blade, Saw: &t.Saw, By: by, Note: note + fmt.Sprint(r.Piece), Detail: raw}
			if _, err := tx.Append(ctx, e); err != nil {
				return err
			}
		}
		if err := tx.Learn(ctx, shop, t.Material); err != nil {
			return err
		}
		raw, err := json.Marshal(history.Compared{Trial: id, Says: t.Says})
		if err != nil {
			return err
		}
		seen := map[uuid.UUID]bool{}
		for _, set := range t.Settings {
			if seen[set.Blade] {
				continue
			}
			seen[set.Blade] = true
			if _, err := tx.Append(ctx, store.Entry{Shop: shop, At: now, Kind: history.KindCompared, Blade: &set.Blade, Saw: &t.Saw, By: by, Detail: raw}); err != nil {
				return err
			}
		}
		return nil
	})
	if err != nil {
		return t, err
	}
	return s.Trial(ctx, shop, id)
}

func grade[T ~string](v T, grades []T) (float64, bool) {
	i := outcome.Rank(v, grades)
	return float64(i), i >= 0
}

func results(t Trial) (out []TrialResult, says []say.Line) {
	for a := range t.Settings {
		for b := a + 1; b < len(t.Settings); b++ {
			for _, m := range measures {
				var x, y []float64
				for _, r := range t.Runs {
					v, ok := m.of(r)
					switch {
					case !ok:
					case r.Setting == a:
						x = append(x, v)
					case r.Setting == b:
						y = append(y, v)
					}
				}
				if len(x) == 0 || len(y) == 0 {
					continue
				}
				mean, chance := trial.Compare(x, y)
				r := TrialResult{m.name, a, b, mean, chance, trial.Sure(chance, len(x)+len(y))}
				out = append(out, r)
				word := m.less
				if mean > 0 {
					word = m.more
				}
				switch {
				case mean == 0:
					says = append(says, say.Of("In %s %c and %c are alike", say.Word(m.name), 'A'+a, 'A'+b))
				case chance > trial.Likely:
					says = append(says, say.Of("In %s %c and %c are %s", say.Word(m.name), 'A'+a, 'A'+b, r.Sure))
				default:
					says = append(says, say.Of("%c %s than %c; %s", 'A'+b, say.Word(word), 'A'+a, r.Sure))
				}
			}
		}
	}
	if !t.Note.Zero() {
		says = append(says, t.Note)
	}
	return out, says
}
