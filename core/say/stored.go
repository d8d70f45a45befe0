package say

import (
	"encoding/json"
	"fmt"
	"reflect"
	"time"

	"corte/core/measure"
)

// stored is a line, or what stands in one, as it is stored: a row of five
// years ago is said in the unit and the language of who reads it now.
type stored struct {
	Form   string   `json:"form,omitempty"`
	With   []stored `json:"with,omitempty"`
	Upper  bool     `json:"upper,omitempty"`
	Text   *string  `json:"text,omitempty"`
	Whole  *int64   `json:"whole,omitempty"`
	Number *float64 `json:"number,omitempty"`
	Mm     *float64 `json:"mm,omitempty"`   // a length
	As     string   `json:"as,omitempty"`   // how a length or a list is said
	List   []stored `json:"list,omitempty"` // or the two of an Either
}

// MarshalJSON writes a line as it lies in records.
func (l Line) MarshalJSON() ([]byte, error) {
	k, err := store(l)
	if err != nil {
		return nil, err
	}
	return json.Marshal(k)
}

// UnmarshalJSON is the inverse of MarshalJSON; a text stands for itself, as it
// did in the first edition's records.
func (l *Line) UnmarshalJSON(data []byte) error {
	var text string
	if json.Unmarshal(data, &text) == nil {
		*l = Word(text)
		return nil
	}
	var k stored
	if err := json.Unmarshal(data, &k); err != nil {
		return err
	}
	*l, _ = k.part().(Line)
	return nil
}

func store(a any) (stored, error) {
	length := func(v float64, as string) (stored, error) { return stored{Mm: &v, As: as}, nil }
	list := func(all []Line, as string) (stored, error) {
		out, err := each(len(all), func(i int) any { return all[i] })
		return stored{List: out, As: as}, err
	}
	switch a := a.(type) {
	case Line:
		with, err := each(len(a.With), func(i int) any { return a.With[i] })
		return stored{Form: a.Form, With: with, Upper: a.big}, err
	case measure.Length:
		return length(a.Mm(), "")
	case Set:
		return length(float64(a), "set")
	case Thin:
		return length(float64(a), "thin")
	case Dial:
		return length(float64(a), "dial")
	case List:
		return list(a, "list")
	case And:
		return list(a, "and")
	case Or:
		return list(a, "or")
	case Either:
		out, err := each(2, func(i int) any { return [...]any{a.Mm, a.Inch}[i] })
		return stored{List: out, As: "either"}, err
	case Day:
		day := time.Time(a).Format(time.DateOnly)
		return stored{Text: &day, As: "day"}, nil
	case error:
		return store(Error(a))
	case fmt.Stringer:
		return store(Word(a.String()))
	}
	switch v := reflect.ValueOf(a); {
	case v.CanInt():
		n := v.Int()
		return stored{Whole: &n}, nil
	case v.CanFloat():
		x := v.Float()
		return stored{Number: &x}, nil
	case v.Kind() == reflect.String:
		s := v.String()
		return stored{Text: &s}, nil
	}
	return stored{}, fmt.Errorf("a %T cannot stand in a sentence", a)
}

func each(n int, at func(int) any) (out []stored, err error) {
	out = make([]stored, n)
	for i := range out {
		if out[i], err = store(at(i)); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// part is the inverse of keep.
func (k stored) part() any {
	lines := func() []Line {
		out := make([]Line, len(k.List))
		for i, one := range k.List {
			out[i], _ = one.part().(Line)
		}
		return out
	}
	switch {
	case k.Text != nil && k.As == "day":
		if t, err := time.Parse(time.DateOnly, *k.Text); err == nil {
			return On(t)
		}
		return *k.Text
	case k.Text != nil:
		return *k.Text
	case k.Whole != nil:
		return *k.Whole
	case k.Number != nil:
		return *k.Number
	case k.Mm != nil:
		switch k.As {
		case "set":
			return Set(*k.Mm)
		case "thin":
			return Thin(*k.Mm)
		case "dial":
			return Dial(*k.Mm)
		}
		return measure.Length(*k.Mm)
	}
	switch k.As {
	case "list":
		return List(lines())
	case "and":
		return And(lines())
	case "or":
		return Or(lines())
	case "either":
		if len(k.List) == 2 {
			return Either{k.List[0].part(), k.List[1].part()}
		}
	}
	l := Line{Form: k.Form, big: k.Upper}
	for _, one := range k.With {
		l.With = append(l.With, one.part())
	}
	return l
}
