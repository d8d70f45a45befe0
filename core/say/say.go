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
	"io"
	"reflect"
	"strings"
	"time"

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
	var (
		said    interface{ Said() Line }
		length  *measure.ParseError
		unknown *word.UnknownError
	)
	switch {
	case errors.As(err, &said):
		return said.Said()
	case errors.As(err, &length):
		return Of("%q is not a length: %s", length.Text, Line{Form: length.Form, With: length.With})
	case errors.As(err, &unknown):
		return Of("%q is not possible here. Use %s", unknown.Said, Or(Words(unknown.Known)))
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

// A Day is a date, as it is in the zone of its time.
type Day time.Time

// On is the day of a time.
func On(t time.Time) Day { return Day(t) }

func (d Day) String() string { return time.Time(d).Format(english.Date) }

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

// A Language is how lines are said in another language than English. What is
// left out is as in English.
type Language struct {
	Form    func(form string) string
	Last    func(joint, next string) string // what joins the last of a list: joint is " and " or " or " of English
	Decimal string                          // what stands for the point in figures
	Months  []string                        // January first
	Date    string                          // a layout of package time, with "{month}" for the month's name
}

var english = Language{Date: "2 January 2006"}

// A Voice says lines to one reader. The zero Voice speaks English and
// millimetres.
type Voice struct {
	Unit     measure.Unit
	Language *Language // nil for English
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
	if v.Language == nil || v.Language.Form == nil {
		return f
	}
	return v.Language.Form(f)
}

// figure writes a number with the language's decimal sign.
func (v Voice) figure(s string) string {
	if v.Language == nil || v.Language.Decimal == "" {
		return s
	}
	return strings.ReplaceAll(s, ".", v.Language.Decimal)
}

// A number is formatted as its verb says and written with the language's decimal sign.
type number struct {
	value float64
	in    Voice
}

func (n number) Format(s fmt.State, verb rune) {
	_, _ = io.WriteString(s, n.in.figure(fmt.Sprintf(fmt.FormatString(s, verb), n.value)))
}

func (v Voice) day(d Day) string {
	l := v.Language
	if l == nil || l.Date == "" {
		return d.String()
	}
	t := time.Time(d)
	return strings.ReplaceAll(t.Format(l.Date), "{month}", l.Months[t.Month()-1])
}

// part is what stands for one of a line's figures.
func (v Voice) part(a any) any {
	switch a := a.(type) {
	case measure.Length:
		return v.figure(a.Format(v.Unit))
	case Set:
		return v.figure(measure.Length(a).Setting(v.Unit))
	case Thin:
		return v.figure(measure.Length(a).Thin(v.Unit))
	case Dial:
		return v.figure(measure.Length(a).Dial(v.Unit))
	case Day:
		return v.day(a)
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
	if x := reflect.ValueOf(a); x.CanFloat() {
		return number{x.Float(), v}
	}
	return a
}

func (v Voice) last(joint, next string) string {
	if v.Language == nil || v.Language.Last == nil {
		return joint
	}
	return v.Language.Last(joint, next)
}

func (v Voice) joined(all []Line, between, last string) string {
	out := ""
	for i, l := range all {
		said := v.Say(l)
		switch {
		case i == 0:
		case i == len(all)-1:
			out += v.last(last, said)
		default:
			out += between
		}
		out += said
	}
	return out
}
