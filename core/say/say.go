// Package say holds what Corte tells a person as values: which sentence, and
// the figures and words that stand in it. The core decides what is said; a
// Voice, at the edge, says it in a reader's unit and language.
//
// A sentence goes by its English form, written as package fmt writes formats:
//
//	say.Of("The plate wobbles by %s.", say.Thin(spread))
//
// So a line can be read where it is made, and a second language is a table from
// English forms to its own, whose verbs may name their figures by number:
// "%[2]s … %[1]s".
package say

import (
	"errors"
	"fmt"
	"strings"

	"corte/core/measure"
	"corte/core/word"
)

// A Line is something to be said. The zero Line says nothing.
type Line struct {
	Form string
	With []any
	big  bool // its first letter, whatever stands there
}

// Of makes a line of a form and what stands in it. Lengths are written in the
// reader's unit, other lines, lists and values with a word of their own in his
// language, and strings as they are: they are names.
func Of(form string, with ...any) Line {
	if false {
		_ = fmt.Sprintf(form, with...) // so that vet holds the verbs against what stands in them
	}
	return Line{Form: form, With: with}
}

// All makes a line of each of several forms in which nothing stands.
func All(forms ...string) []Line {
	out := make([]Line, len(forms))
	for i, f := range forms {
		out[i] = Line{Form: f}
	}
	return out
}

// Word is a word or a phrase of a table, which is its own form.
func Word(s string) Line { return Line{Form: strings.ReplaceAll(s, "%", "%%")} }

// Words are several.
func Words(all []string) []Line {
	out := make([]Line, len(all))
	for i, s := range all {
		out[i] = Word(s)
	}
	return out
}

// Error is the line of what an error says. An error that has none is said as
// it stands.
func Error(err error) Line {
	var said interface{ Said() Line }
	if errors.As(err, &said) {
		return said.Said()
	}
	return Of("%s", err.Error())
}

// Zero reports whether a line says nothing.
func (l Line) Zero() bool { return l.Form == "" }

// Upper is the line with its first letter large.
func (l Line) Upper() Line {
	l.big = true
	return l
}

// String says a line in English and millimetres.
func (l Line) String() string { return Voice{}.Say(l) }

// A Set length is one that somebody sets by a rule or a scale.
type Set measure.Length

func (s Set) String() string { return measure.Length(s).Setting(measure.Millimetre) }

// A Thin length is a thickness of metal, or how far something is off.
type Thin measure.Length

func (t Thin) String() string { return measure.Length(t).Thin(measure.Millimetre) }

// A Dial length is one that a dial reads; it is said without its sign.
type Dial measure.Length

func (d Dial) String() string { return measure.Length(d).Dial(measure.Millimetre) }

// A List is said one after another: "a, b".
type List []Line

func (l List) String() string { return Voice{}.joined(l, ", ", ", ") }

// An And is a list that is said as a whole: "a, b and c".
type And []Line

func (a And) String() string { return Voice{}.joined(a, ", ", " and ") }

// An Or is a list of which one is taken: "a, b or c".
type Or []Line

func (o Or) String() string { return Voice{}.joined(o, ", ", " or ") }

// An Either is a figure that is another, and as round, for who reads inches.
type Either struct{ Mm, Inch any }

func (e Either) String() string { return fmt.Sprint(Voice{}.part(e.Mm)) }

// A Stand is where a name goes that only who asks can tell.
type Stand string

// Filled is the line with names where a stand stood for them.
func (l Line) Filled(names map[Stand]string) Line {
	out := Line{l.Form, make([]any, len(l.With)), l.big}
	for i, a := range l.With {
		switch a := a.(type) {
		case Stand:
			out.With[i] = names[a]
		case Line:
			out.With[i] = a.Filled(names)
		default:
			out.With[i] = a
		}
	}
	return out
}

// A Voice says lines to one reader. The zero Voice speaks English and
// millimetres.
type Voice struct {
	Unit measure.Unit
	Of   func(form string) string // in another language; nil for English
}

// Say says a line.
func (v Voice) Say(l Line) string {
	if l.Zero() {
		return ""
	}
	with := make([]any, len(l.With))
	for i, a := range l.With {
		with[i] = v.part(a)
	}
	out := fmt.Sprintf(v.form(l.Form), with...)
	if l.big {
		return word.Upper(out)
	}
	return out
}

// Each says several lines.
func (v Voice) Each(lines []Line) []string {
	out := make([]string, len(lines))
	for i, l := range lines {
		out[i] = v.Say(l)
	}
	return out
}

func (v Voice) form(f string) string {
	if v.Of == nil {
		return f
	}
	return v.Of(f)
}

// part is what stands for one of a line's figures.
func (v Voice) part(a any) any {
	switch a := a.(type) {
	case measure.Length:
		return a.Format(v.Unit)
	case Set:
		return measure.Length(a).Setting(v.Unit)
	case Thin:
		return measure.Length(a).Thin(v.Unit)
	case Dial:
		return measure.Length(a).Dial(v.Unit)
	case Line:
		return v.Say(a)
	case List:
		return v.joined(a, ", ", ", ")
	case And:
		return v.joined(a, ", ", " and ")
	case Or:
		return v.joined(a, ", ", " or ")
	case Either:
		if v.Unit == measure.Inch {
			return v.part(a.Inch)
		}
		return v.part(a.Mm)
	case error:
		return v.Say(Error(a))
	case fmt.Stringer:
		return v.form(a.String())
	}
	return a
}

func (v Voice) joined(all []Line, between, last string) string {
	out := ""
	for i, l := range all {
		switch {
		case i == 0:
		case i == len(all)-1:
			out += v.form(last)
		default:
			out += v.form(between)
		}
		out += v.Say(l)
	}
	return out
}
