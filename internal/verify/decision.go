package verify

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"strings"

	"corte/core/choose"
	"corte/core/cut"
	"corte/core/guide"
	"corte/core/measure"
	"corte/core/saw"
	"corte/core/truing"
	"corte/core/verdict"
	"corte/internal/httpapi/contract"
	"corte/internal/record"
	"corte/internal/store"
	"corte/internal/wire"
)

// A meeter is a result that is held to its case by meaning, because the case
// names what would do and not one figure.
type meeter interface {
	meets(want json.RawMessage) (where string, err error)
	what() string // that was looked at
}

// decisionBlade is a blade of the rack file, and how it stands.
type decisionBlade struct {
	contract.BladeInput
	Sharpness float64 `json:"sharpness"`
	Pitch     float64 `json:"pitch"`
	Spread    float64 `json:"spread_mm"`
	RunOut    float64 `json:"runout_mm"`
	Chipped   bool    `json:"chipped"`
	Mounted   bool    `json:"mounted"`
}

// decision puts a whole question to the choice: a saw and blades as a rack file
// has them, a cut as the contract has it. Blades may be a list, or an object by
// name. What the case leaves out is as a new shop has it.
func decision(raw json.RawMessage) (any, error) {
	var in struct {
		Saw     *contract.SawInput `json:"saw"`
		Blades  json.RawMessage    `json:"blades"`
		Cut     *record.Cut        `json:"cut"`
		Mounted string             `json:"mounted"`
		Heel    float64            `json:"heel_mm"`
		Change  *float64           `json:"change_minutes"`
		School  string             `json:"height_school"`
	}
	if err := json.Unmarshal(raw, &in); err != nil {
		return nil, fmt.Errorf("input cannot be read: %w", err)
	}
	if in.Saw == nil || in.Cut == nil {
		return nil, errors.New("a decision needs saw, blades and cut")
	}
	blades, err := decisionBlades(in.Blades)
	if err != nil {
		return nil, err
	}
	w := wire.ReadSaw(*in.Saw)
	said := *in.Cut
	return decide(w.Saw, blades, said, func(j cut.Job) (choose.Request, error) {
		r := choose.Request{Job: j, Saw: w.Saw, Heel: measure.Length(in.Heel), ChangeMinutes: usualChange}
		if in.Change != nil {
			r.ChangeMinutes = *in.Change
		}
		if in.School == "" {
			return r, nil
		}
		var err error
		r.School, err = choose.ParseSchool(in.School)
		return r, err
	}, in.Mounted)
}

// usualChange is what a new shop counts a change of blade for, in minutes.
const usualChange = 3

func decisionBlades(raw json.RawMessage) ([]decisionBlade, error) {
	var list []decisionBlade
	if json.Unmarshal(raw, &list) == nil {
		return list, nil
	}
	var byName map[string]decisionBlade
	if err := json.Unmarshal(raw, &byName); err != nil {
		return nil, fmt.Errorf("blades cannot be read: %w", err)
	}
	for name, b := range byName {
		b.Name = name
		list = append(list, b)
	}
	slices.SortFunc(list, func(a, b decisionBlade) int { return strings.Compare(a.Name, b.Name) })
	return list, nil
}

func decide(w saw.Saw, blades []decisionBlade, said record.Cut, request func(cut.Job) (choose.Request, error), mounted string) (any, error) {
	j, err := said.Job(store.Saw{Saw: w})
	if err != nil {
		return nil, err
	}
	out := decided{Stopped: map[string]string{}, Options: map[string]choose.Option{}, Verdicts: map[string]verdict.Verdict{}, job: j}
	if err := choose.CheckJob(j, w); err != nil {
		out.Refused = err.Error()
		return out, nil
	}
	r, err := request(j)
	if err != nil {
		return nil, err
	}
	rack := make([]choose.Candidate, len(blades))
	for i, d := range blades {
		b, err := wire.ReadBlade(d.BladeInput)
		if err != nil {
			return nil, fmt.Errorf("%s: %w", d.Name, err)
		}
		if err := b.Check(); err != nil {
			return nil, fmt.Errorf("%s: %w", d.Name, err)
		}
		rack[i] = choose.Candidate{Blade: b.Blade, Mounted: d.Mounted || mounted != "" && d.Name == mounted, State: cut.State{
			Sharpness: d.Sharpness, Pitch: d.Pitch, Spread: measure.Length(d.Spread), RunOut: measure.Length(d.RunOut), Chipped: d.Chipped}}
	}
	whole := verdict.Clear
	for _, f := range guide.Findings(j, w, truing.Alignment{}, truing.Usual) {
		if f.Verdict == verdict.Stop {
			whole = verdict.Stop
		}
		out.Findings = append(out.Findings, string(f.Rule))
	}
	ranking := choose.Rank(r, rack)
	for _, o := range ranking.Fit {
		name := blades[o.Index].Name
		out.Order = append(out.Order, name)
		out.Options[name] = o
		out.Verdicts[name] = max(whole, o.Verdict(j.Material.Kind.Modelled(), rack[o.Index].State))
	}
	for _, o := range ranking.Stopped {
		out.Stopped[blades[o.Index].Name] = o.Stops[0].Rule.String()
	}
	return out, nil
}

// decided is what the choice said.
type decided struct {
	Order    []string          // of the blades that may, best first
	Stopped  map[string]string // name to rule
	Options  map[string]choose.Option
	Verdicts map[string]verdict.Verdict
	Findings []string // rules that the cut itself breaks
	Refused  string   // why no blade could make it
	job      cut.Job
}

func (d decided) what() string { return "order, stops, verdicts and ranges" }

// expected is what an old hand would say. verdict, grade, burn, load and
// seconds_a_stroke are of the first blade, or of each by name.
type expected struct {
	First    []string          `json:"first_any_of"`
	Not      []string          `json:"not_first"`
	Above    [][2]string       `json:"above"`
	Stopped  map[string]string `json:"stopped"`
	Verdict  json.RawMessage   `json:"verdict"`
	Grade    json.RawMessage   `json:"grade"`
	Burn     json.RawMessage   `json:"burn"`
	Load     json.RawMessage   `json:"load"`
	Stroke   json.RawMessage   `json:"seconds_a_stroke"`
	Findings []string          `json:"findings"`
	Refused  string            `json:"refused"` // words that the refusal holds
}

func (d decided) meets(raw json.RawMessage) (string, error) {
	var want expected
	if err := strict(bytes.NewReader(raw), &want); err != nil {
		return "", fmt.Errorf("want cannot be read: %w", err)
	}
	if (d.Refused != "") != (want.Refused != "") || !strings.Contains(d.Refused, want.Refused) {
		return fmt.Sprintf("refused (%q)", d.Refused), nil
	}
	first := ""
	if len(d.Order) > 0 {
		first = d.Order[0]
	}
	place := func(name string) int {
		if at := slices.Index(d.Order, name); at >= 0 {
			return at
		}
		return len(d.Order)
	}
	switch {
	case len(want.First) > 0 && !slices.Contains(want.First, first):
		return fmt.Sprintf("first_any_of (%s)", strings.Join(d.Order, ", ")), nil
	case slices.Contains(want.Not, first):
		return fmt.Sprintf("not_first (%s)", first), nil
	}
	for _, pair := range want.Above {
		if place(pair[0]) >= place(pair[1]) {
			return fmt.Sprintf("above %s over %s (%s)", pair[0], pair[1], strings.Join(d.Order, ", ")), nil
		}
	}
	for name, rule := range want.Stopped {
		if d.Stopped[name] != rule {
			return fmt.Sprintf("stopped.%s (%q)", name, d.Stopped[name]), nil
		}
	}
	for _, f := range want.Findings {
		if !slices.Contains(d.Findings, f) {
			return fmt.Sprintf("findings (%v)", d.Findings), nil
		}
	}
	for _, c := range []struct {
		what string
		raw  json.RawMessage
		of   func(name string) (word string, figure float64)
	}{
		{"verdict", want.Verdict, func(n string) (string, float64) {
			if v, ok := d.Verdicts[n]; ok {
				return v.String(), 0
			}
			return verdict.Stop.String(), 0
		}},
		{"grade", want.Grade, func(n string) (string, float64) { return d.Options[n].Figures.Window.Grade().String(), 0 }},
		{"burn", want.Burn, func(n string) (string, float64) { return "", d.Options[n].Figures.Burn }},
		{"load", want.Load, func(n string) (string, float64) { return "", d.Options[n].Figures.Load }},
		{"seconds_a_stroke", want.Stroke, func(n string) (string, float64) {
			f := d.Options[n].Figures.Feed
			if f == 0 {
				return "", 0
			}
			return "", f.Seconds(d.job.FeedLength())
		}},
	} {
		if where, err := each(c.what, c.raw, first, c.of); where != "" || err != nil {
			return where, err
		}
	}
	return "", nil
}

// each holds a word or a range to the first blade, or to each that is named.
func each(what string, raw json.RawMessage, first string, of func(string) (string, float64)) (string, error) {
	if raw == nil {
		return "", nil
	}
	byName := map[string]json.RawMessage{}
	if json.Unmarshal(raw, &byName) != nil {
		byName = map[string]json.RawMessage{first: raw}
	}
	for name, one := range byName {
		word, figure := of(name)
		var wantWord string
		var words []string
		var span [2]float64
		switch {
		case json.Unmarshal(one, &span) == nil:
			if !(figure >= span[0] && figure <= span[1]) {
				return fmt.Sprintf("%s.%s (%.3g)", what, name, figure), nil
			}
			continue
		case json.Unmarshal(one, &wantWord) == nil:
			words = []string{wantWord}
		case json.Unmarshal(one, &words) != nil:
			return "", fmt.Errorf("%s of %s is neither a word, a list of words nor a range", what, name)
		}
		for i, w := range words {
			var v verdict.Verdict // which reads the first edition's words as well
			if v.UnmarshalText([]byte(w)) == nil {
				words[i] = v.String()
			}
		}
		if !slices.Contains(words, word) {
			return fmt.Sprintf("%s.%s (%s)", what, name, word), nil
		}
	}
	return "", nil
}
