// Package verify runs worked cases: files of inputs with the figures that the
// core must give, so that any figure can be checked by hand. `corte verify` runs
// it.
//
// A file is a JSON array of cases {"kind", "name", "input", "want"}. Each kind
// is one calculation of the core; want may hold any of its figures.
package verify

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"math"
	"slices"
	"sort"

	"corte/core/blade"
	"corte/core/care"
	"corte/core/groove"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/trace"
)

// Tolerance is the largest relative difference that passes.
const Tolerance = 0.001

// A Result is what became of one case.
type Result struct {
	Name  string
	Worst float64 // the largest relative difference; +Inf where a word, a truth or a shape differs
	Where string  // the figure in which it was found
	Err   error   // the case could not be run
}

// OK reports whether the case passed.
func (r Result) OK() bool { return r.Err == nil && r.Worst <= Tolerance }

func (r Result) String() string {
	switch {
	case r.Err != nil:
		return fmt.Sprintf("FAIL  %s: %v", r.Name, r.Err)
	case r.OK():
		return fmt.Sprintf("ok    %s: largest difference %.2g in %s", r.Name, r.Worst, r.Where)
	}
	return fmt.Sprintf("FAIL  %s: %s differs by %.2g", r.Name, r.Where, r.Worst)
}

type worked struct {
	Kind  string          `json:"kind"`
	Name  string          `json:"name"`
	From  string          `json:"from"` // name of an earlier case, on whose input this one is a merge patch (RFC 7386)
	Input json.RawMessage `json:"input"`
	Want  json.RawMessage `json:"want"`
}

// patched is a case's input over that of the case that it is from.
func (c worked) patched(earlier map[string]json.RawMessage) (json.RawMessage, error) {
	if c.From == "" {
		return c.Input, nil
	}
	base, known := earlier[c.From]
	if !known {
		return nil, fmt.Errorf("no earlier case is named %q", c.From)
	}
	var under, over any
	if err := errors.Join(json.Unmarshal(base, &under), json.Unmarshal(c.Input, &over)); err != nil {
		return nil, fmt.Errorf("input cannot be read: %w", err)
	}
	return json.Marshal(merge(under, over))
}

func merge(under, over any) any {
	patch, is := over.(map[string]any)
	if !is {
		return over
	}
	out, _ := under.(map[string]any)
	if out == nil {
		out = map[string]any{}
	}
	for k, v := range patch {
		if v == nil {
			delete(out, k)
		} else {
			out[k] = merge(out[k], v)
		}
	}
	return out
}

// kinds are the calculations that cases can ask for. Each returns a value whose
// JSON holds the figures under the names that want uses.
var kinds = map[string]func(input json.RawMessage) (any, error){
	"cutting":       cutting,
	"decision":      decision,
	"groove_bottom": grooveBottom,
	"dado_stack":    dadoStack,
	"passes":        passes,
	"wear":          wear,
	"trace":         traced,
	"life_update":   lifeUpdate,
	"cost":          cost,

	"runsheet": laidOut,

	"heel":           heel,
	"runout":         runout,
	"tilt":           tilt,
	"five_cut":       fiveCut,
	"hook":           hook,
	"bevel_depth":    bevelDepth,
	"side_clearance": sideClearance,
}

// Run reads one file of cases and runs them all. The error is about the file
// as a whole; what is wrong with one case is in its Result.
func Run(r io.Reader) ([]Result, error) {
	var cases []worked
	if err := strict(r, &cases); err != nil {
		return nil, fmt.Errorf("not a file of worked cases: %w", err)
	}
	if len(cases) == 0 {
		return nil, errors.New("the file holds no cases")
	}
	results := make([]Result, len(cases))
	earlier := map[string]json.RawMessage{}
	for i, c := range cases {
		input, err := c.patched(earlier)
		if err != nil {
			results[i] = Result{Name: c.Name, Err: err}
			continue
		}
		earlier[c.Name], c.Input = input, input
		results[i] = run(i, c)
	}
	return results, nil
}

func run(i int, c worked) (res Result) {
	res.Name = c.Name
	if res.Name == "" {
		res.Name = fmt.Sprintf("%s %d", c.Kind, i+1)
	}
	calc, known := kinds[c.Kind]
	if !known {
		res.Err = fmt.Errorf("unknown kind %q", c.Kind)
		return res
	}
	got, err := calc(c.Input)
	if err != nil {
		res.Err = err
		return res
	}
	if t, ok := got.(meeter); ok {
		if res.Where, res.Err = t.meets(c.Want); res.Where != "" {
			res.Worst = math.Inf(1)
		} else {
			res.Where = t.what()
		}
		return res
	}
	raw, err := json.Marshal(got)
	if err != nil {
		res.Err = fmt.Errorf("the result is not a number: %w", err)
		return res
	}
	var have, want any
	if err := json.Unmarshal(c.Want, &want); err != nil {
		res.Err = fmt.Errorf("want cannot be read: %w", err)
		return res
	}
	if err := json.Unmarshal(raw, &have); err != nil {
		res.Err = err
		return res
	}
	if want == nil && have == nil {
		res.Where = "no answer, as wanted"
		return res
	}
	if _, figures := want.(map[string]any); !figures && want != nil || len(c.Want) == 0 {
		res.Err = errors.New("want names no figure")
		return res
	}
	res.compare("", have, want)
	return res
}

// compare walks want and keeps the largest relative difference it meets.
func (r *Result) compare(path string, have, want any) {
	worst := func(d float64) {
		if r.Where == "" || d > r.Worst {
			r.Worst, r.Where = d, path
		}
	}
	switch w := want.(type) {
	case map[string]any:
		h, ok := have.(map[string]any)
		if !ok {
			worst(math.Inf(1))
			return
		}
		keys := make([]string, 0, len(w))
		for k := range w {
			keys = append(keys, k)
		}
		sort.Strings(keys)
		for _, k := range keys {
			r.compare(join(path, k), h[k], w[k])
		}
	case []any:
		h, ok := have.([]any)
		if !ok || len(h) != len(w) {
			worst(math.Inf(1))
			return
		}
		for i := range w {
			r.compare(join(path, fmt.Sprint(i)), h[i], w[i])
		}
	case float64:
		h, ok := have.(float64)
		if !ok {
			worst(math.Inf(1))
			return
		}
		const nothing = 1e-6 // below this a figure is a rounding remainder
		worst(math.Abs(h-w) / max(math.Abs(w), nothing))
	default:
		if have != want {
			worst(math.Inf(1))
			return
		}
		worst(0)
	}
}

func join(path, key string) string {
	if path == "" {
		return key
	}
	return path + "." + key
}

// strict decodes JSON and refuses fields that it does not know, so that a
// misspelt input cannot pass as a default.
func strict(r io.Reader, v any) error {
	d := json.NewDecoder(r)
	d.DisallowUnknownFields()
	if err := d.Decode(v); err != nil {
		return err
	}
	if d.More() {
		return errors.New("something follows the end of the JSON")
	}
	return nil
}

func input[T any](raw json.RawMessage) (T, error) {
	var v T
	if err := strict(bytes.NewReader(raw), &v); err != nil {
		return v, fmt.Errorf("input cannot be read: %w", err)
	}
	return v, nil
}

// kind makes a kind of case of what it does with its input.
func kind[In any](work func(In) (any, error)) func(json.RawMessage) (any, error) {
	return func(raw json.RawMessage) (any, error) {
		in, err := input[In](raw)
		if err != nil {
			return nil, err
		}
		return work(in)
	}
}

type obj = map[string]any

var grooveBottom = kind(func(in struct {
	Grind  string  `json:"grind"`
	Bevel  float64 `json:"bevel_deg"`
	Kerf   float64 `json:"kerf_mm"`
	Raker  float64 `json:"raker_mm"`
	Points int     `json:"points"`
}) (any, error) {
	grind, err := blade.ParseGrind(in.Grind)
	if err != nil {
		return nil, err
	}
	if in.Points < 2 || in.Points > 10_000 || !(in.Kerf > 0) {
		return nil, errors.New("points must be 2 to 10,000 and kerf_mm over 0")
	}
	return obj{"profile_mm": groove.Profile(blade.Blade{
		Grind: grind, Bevel: in.Bevel, Kerf: measure.Length(in.Kerf), Raker: measure.Length(in.Raker),
	}, in.Points)}, nil
})

var dadoStack = kind(func(in struct {
	Target    float64 `json:"target_mm"`
	Outer     float64 `json:"outer_pair_mm"`
	Tolerance float64 `json:"tolerance_mm"`
	Parts     []struct {
		Thickness float64 `json:"thickness_mm"`
		Count     int     `json:"count"`
		Shim      bool    `json:"shim"`
	} `json:"parts"`
}) (any, error) {
	parts := make([]groove.Part, len(in.Parts))
	for i, p := range in.Parts {
		parts[i] = groove.Part{Thickness: measure.Length(p.Thickness), Count: p.Count, Shim: p.Shim}
	}
	s, err := groove.Search(measure.Length(in.Target), measure.Length(in.Outer), measure.Length(in.Tolerance), parts)
	if err != nil {
		return nil, nil //nolint:nilerr // no stack comes near, which a case says as null
	}
	return obj{"width_mm": s.Width, "error_um": math.Round(math.Abs(s.Error.Mm()) * 1000), "shims": s.Shims, "parts": s.Parts}, nil
})

var passes = kind(func(in struct {
	Width   float64 `json:"width_mm"`
	Kerf    float64 `json:"kerf_mm"`
	Overlap float64 `json:"overlap_mm"`
}) (any, error) {
	n, step, err := groove.Passes(measure.Length(in.Width), measure.Length(in.Kerf), measure.Length(in.Overlap))
	return obj{"passes": n, "step_mm": step}, err
})

var wear = kind(func(in struct {
	Teeth int    `json:"teeth"`
	Grind string `json:"grind"`
	Cuts  []struct {
		Length    float64 `json:"length_m"`
		Thickness float64 `json:"thickness_mm"`
		Material  string  `json:"material"`
	} `json:"cuts"`
}) (any, error) {
	grind, err := blade.ParseGrind(in.Grind)
	if err != nil {
		return nil, err
	}
	if in.Teeth < 1 {
		return nil, errors.New("teeth must be at least 1")
	}
	var c care.Condition
	for _, one := range in.Cuts {
		m, err := material.Get(one.Material)
		if err != nil {
			return nil, err
		}
		c = c.Then(blade.Blade{Teeth: in.Teeth, Grind: grind}, care.Event{Kind: care.Cut, Metres: one.Length, FaceM2: one.Length * one.Thickness / 1000,
			Abrasion: m.Abrasion, Resin: m.Resin})
	}
	return obj{"wear_m2": c.WearM2, "life_m2": c.LifeM2(grind), "sharpness": c.Sharpness(grind),
		"resin_m2": c.ResinM2, "pitch_level": c.PitchLevel()}, nil
})

var lifeUpdate = kind(func(in struct {
	Life float64 `json:"prior_life_m2"`
	SD   float64 `json:"prior_sd"`
	Dull float64 `json:"dull_at_m2"`
}) (any, error) {
	if !(in.Life > 0 && in.SD > 0 && in.Dull > 0) {
		return nil, errors.New("prior_life_m2, prior_sd and dull_at_m2 must be over 0")
	}
	life, sd := care.Update(in.Life, in.SD, in.Dull)
	return obj{"life_m2": life, "sd": sd}, nil
})

var cost = kind(func(in struct {
	Price       float64 `json:"price"`
	Sharpening  float64 `json:"sharpening"`
	Sharpenings int     `json:"sharpenings"`
	LifeM       float64 `json:"life_m"`
}) (any, error) {
	if !(in.LifeM > 0) || in.Sharpenings < 0 {
		return nil, errors.New("life_m must be over 0 and sharpenings not under it")
	}
	return obj{"per_metre": care.CostPerMetre(in.Price, in.Sharpening, in.Sharpenings, in.LifeM)}, nil
})

// traced answers in the words of its case: whether a likely cause stands among
// the first ones, whether a fitting check comes first, and whether it stops.
// storyOf reads what is told of a fault.
func storyOf(raw json.RawMessage) (trace.Evidence, error) {
	in, err := input[struct {
		Present []string       `json:"present"`
		Absent  []string       `json:"absent"`
		State   map[string]any `json:"state"`
		Saw     string         `json:"saw"` // table, miter or circular; also among the state
	}](raw)
	if err != nil {
		return trace.Evidence{}, err
	}
	for _, s := range append(in.Present, in.Absent...) {
		if _, known := trace.SignByID(s); !known {
			return trace.Evidence{}, fmt.Errorf("there is no sign %q", s)
		}
	}
	state := map[string]float64{}
	for fact, v := range in.State {
		switch v := v.(type) {
		case float64:
			state[fact] = v
		case bool:
			if state[fact] = 0; v {
				state[fact] = 1
			}
		case string:
			if fact == "saw" {
				in.Saw = v
			}
		}
	}
	return trace.Evidence{Present: in.Present, Absent: in.Absent, State: state, Saw: in.Saw}, nil
}

func traced(raw json.RawMessage) (any, error) {
	e, err := storyOf(raw)
	if err != nil {
		return nil, err
	}
	b := trace.Weigh(e)
	out := tracedResult{Stop: b.Stop()}
	for _, r := range b.Reasons() {
		out.Causes = append(out.Causes, r.ID)
	}
	for _, k := range b.Checks(nil) {
		out.Checks = append(out.Checks, k.ID)
	}
	return out, nil
}

// A tracedResult is compared by meaning, because its case names what would do.
type tracedResult struct {
	Causes []string `json:"causes"`
	Checks []string `json:"checks"`
	Stop   bool     `json:"stop"`
}

func (t tracedResult) what() string { return "causes, first check and stop" }

// meets holds a trace to its case.
func (t tracedResult) meets(raw json.RawMessage) (where string, err error) {
	var want struct {
		Top    []string `json:"top_any_of"`
		Within int      `json:"within"`
		First  []string `json:"first_check_any_of"`
		Stop   *bool    `json:"stop"`
	}
	if err := strict(bytes.NewReader(raw), &want); err != nil {
		return "", fmt.Errorf("want cannot be read: %w", err)
	}
	any := func(among, of []string) bool {
		return slices.ContainsFunc(among, func(s string) bool { return slices.Contains(of, s) })
	}
	switch {
	case len(want.Top) > 0 && !any(t.Causes[:max(0, min(want.Within, len(t.Causes)))], want.Top):
		return fmt.Sprintf("top_any_of (%v first)", t.Causes[:3]), nil
	case len(want.First) > 0 && (len(t.Checks) == 0 || !any(t.Checks[:1], want.First)):
		return fmt.Sprintf("first_check_any_of (%v first)", t.Checks[:min(3, len(t.Checks))]), nil
	case want.Stop != nil && *want.Stop != t.Stop:
		return "stop", nil
	}
	return "", nil
}
