package measure

import (
	"errors"
	"fmt"
	"math"
	"strconv"
	"strings"
	"unicode"
)

// A ParseError says which text could not be read as a length, and why, in
// words for the person who typed it.
type ParseError struct {
	Text string
	Form string // why, as package fmt writes formats
	With []any
}

func (e *ParseError) Error() string {
	return fmt.Sprintf("%q is not a length: %s", e.Text, e.Reason())
}

// Reason says in English why it is none.
func (e *ParseError) Reason() string { return fmt.Sprintf(e.Form, e.With...) }

// A badWord is a reason with the word that it is about.
type badWord struct{ form, word string }

func (e badWord) Error() string { return fmt.Sprintf(e.form, e.word) }

// Longest is the largest length that Parse accepts; nothing in a shop is
// longer, so a larger number is a slip of the finger.
const Longest Length = 100_000

var (
	errEmpty     = errors.New(`type a number, such as 30 mm or 1 3/16"`)
	errNoNumber  = errors.New(`expected a number, such as 30 mm or 1 3/16"`)
	errZeroDen   = errors.New("a fraction cannot be over zero")
	errAfterFeet = errors.New("after feet only inches can follow")
	errTooLong   = errors.New("it is longer than 100 m")
	errRemainder = errors.New(`what follows a fraction is thousandths of an inch, such as 1 7/32" +0.005`)
	errComma     = errors.New("the comma may part thousands or decimals: write 1220 or 1.22")
)

// spellings folds the many ways a keyboard or a pasted drawing writes the same
// thing into the plain signs that the reader below knows.
var spellings = strings.NewReplacer(
	"″", `"`, "”", `"`, "“", `"`, "''", `"`,
	"′", "'", "’", "'", "‘", "'",
	"−", "-", "–", "-", "⁄", "/", "\u00a0", " ", "\u202f", " ",
	"½", " 1/2", "¼", " 1/4", "¾", " 3/4",
	"⅛", " 1/8", "⅜", " 3/8", "⅝", " 5/8", "⅞", " 7/8",
)

// Parse reads a length: `30mm`, `1 3/16`, `1-3/16"`, `2' 3 1/2"`, `0.1875`,
// `12,5 mm`, `90 cm`. A number without a unit is in unit bare, except that a
// fraction without a unit is always inches: nobody says three sixteenths of a
// millimetre. A remainder as Format writes it (`1 7/32" +0.005`) is read back.
// The error is a *ParseError.
func Parse(text string, bare Unit) (Length, error) {
	fail := func(err error) (Length, error) {
		if bad, ok := err.(badWord); ok {
			return 0, &ParseError{text, bad.form, []any{bad.word}}
		}
		return 0, &ParseError{Text: text, Form: err.Error()}
	}
	r := reader{strings.TrimSpace(spellings.Replace(strings.ToLower(text)))}
	if r.rest == "" {
		return fail(errEmpty)
	}
	negative := r.skip("-")
	mm, unit, err := r.length(bare)
	if err != nil {
		return fail(err)
	}
	if unit == foot && r.rest != "" {
		r.skip("-")
		inches, unit, err := r.length(Inch)
		if err != nil {
			return fail(err)
		}
		if unit != inch {
			return fail(errAfterFeet)
		}
		mm += inches
	}
	if unit != metric && r.rest != "" {
		rest, err := r.remainder()
		if err != nil {
			return fail(err)
		}
		mm += rest
	}
	if r.rest != "" {
		return fail(badWord{"%q at its end cannot be read", r.rest})
	}
	// The longest length written to the nearest 1/64 in is a little longer, and
	// what Format writes must be read back.
	if mm > Longest.Mm()+MmPerInch/finest/2 {
		return fail(errTooLong)
	}
	mm = min(mm, Longest.Mm())
	if negative {
		mm = -mm
	}
	return Length(mm), nil
}

// A system says which words may follow a number: inches may follow feet, and a
// remainder may follow inches.
type system uint8

const (
	metric system = iota
	inch
	foot
)

// A reader consumes text from the left.
type reader struct{ rest string }

func (r *reader) skip(prefix string) bool {
	s, ok := strings.CutPrefix(r.rest, prefix)
	if ok {
		r.rest = strings.TrimLeft(s, " ")
	}
	return ok
}

// digits takes a run of decimal digits, with one point or comma if allowed.
func (r *reader) digits(point bool) string {
	i, seen := 0, false
	for ; i < len(r.rest); i++ {
		c := r.rest[i]
		if c >= '0' && c <= '9' {
			continue
		}
		if point && !seen && (c == '.' || c == ',') {
			seen = true
			continue
		}
		break
	}
	s := r.rest[:i]
	r.rest = r.rest[i:]
	return s
}

func (r *reader) number(point bool) (float64, error) {
	s := r.digits(point)
	if thousands(s) {
		return 0, errComma
	}
	s = strings.Replace(s, ",", ".", 1)
	v, err := strconv.ParseFloat(s, 64)
	if err != nil || math.IsInf(v, 0) {
		return 0, errNoNumber
	}
	return v, nil
}

// thousands reports whether a comma may part thousands: one to three digits that
// do not begin with 0 before it, and three after.
func thousands(s string) bool {
	before, after, comma := strings.Cut(s, ",")
	return comma && len(after) == 3 && len(before) >= 1 && len(before) <= 3 && before[0] != '0'
}

// quantity reads `3/16`, `1 3/16`, `1-3/16` or a decimal.
func (r *reader) quantity() (v float64, fraction bool, err error) {
	if v, err = r.number(true); err != nil {
		return 0, false, err
	}
	if strings.HasPrefix(r.rest, "/") {
		v, err = r.over(v)
		return v, true, err
	}
	mark := r.rest
	r.rest = strings.TrimLeft(r.rest, " ")
	r.skip("-")
	if top, err := r.number(false); err == nil && strings.HasPrefix(r.rest, "/") {
		part, err := r.over(top)
		return v + part, true, err
	}
	r.rest = mark
	return v, false, nil
}

// over reads the denominator below a numerator.
func (r *reader) over(top float64) (float64, error) {
	r.rest = r.rest[1:]
	den, err := r.number(false)
	if err != nil {
		return 0, err
	}
	if den == 0 {
		return 0, errZeroDen
	}
	return top / den, nil
}

// length reads a quantity and its unit, and returns millimetres.
func (r *reader) length(bare Unit) (mm float64, s system, err error) {
	v, fraction, err := r.quantity()
	if err != nil {
		return 0, 0, err
	}
	r.rest = strings.TrimLeft(r.rest, " ")
	end := strings.IndexFunc(r.rest, func(c rune) bool {
		return c != '"' && c != '\'' && !unicode.IsLetter(c)
	})
	if end < 0 {
		end = len(r.rest)
	}
	word := r.rest[:end]
	r.rest = strings.TrimLeft(r.rest[end:], " ")
	switch word {
	case "":
		if bare == Inch || fraction {
			return v * MmPerInch, inch, nil
		}
		return v, metric, nil
	case "mm", "millimetre", "millimetres", "millimeter", "millimeters":
		return v, metric, nil
	case "cm":
		return v * 10, metric, nil
	case "m":
		return v * 1000, metric, nil
	case `"`, "in", "inch", "inches":
		return v * MmPerInch, inch, nil
	case "'", "ft", "foot", "feet":
		return v * 12 * MmPerInch, foot, nil
	}
	return 0, 0, badWord{"%q is not a unit; use mm, cm, m, in or ft", word}
}

// remainder reads the thousandths of an inch that Format writes behind a
// fraction, as `+0.005` or `-0.005`. As much as a sixteenth is no remainder but
// a sum, and a sum is more likely a slip.
func (r *reader) remainder() (float64, error) {
	sign := 1.0
	switch {
	case r.skip("+"):
	case r.skip("-"):
		sign = -1
	default:
		return 0, nil
	}
	v, err := r.number(true)
	if err == nil && v >= 1.0/16 {
		err = errRemainder
	}
	return sign * v * MmPerInch, err
}
