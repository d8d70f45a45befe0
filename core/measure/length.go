// Package measure holds the quantities a woodworker reads off a rule and a
// clock: lengths in millimetres or inch fractions, and feeds.
//
// Quantities are small value types. A Length always holds millimetres; the
// unit exists only where text is read or written. Both systems are first
// class (design principle 6): every inch is exactly 25.4 mm, and every 1/64 in
// survives Format followed by Parse unchanged.
package measure

import (
	"math"
	"strconv"
	"strings"
)

// A Unit is the system in which lengths are typed and shown.
type Unit uint8

const (
	Millimetre Unit = iota
	Inch
)

// MmPerInch is exact by definition.
const MmPerInch = 25.4

// A Length is a distance in millimetres. The zero Length is no distance.
type Length float64

// Inches returns a length of x inches.
func Inches(x float64) Length { return Length(x * MmPerInch) }

// Mm returns the length in millimetres.
func (l Length) Mm() float64 { return float64(l) }

// Inches returns the length in inches.
func (l Length) Inches() float64 { return float64(l) / MmPerInch }

// String writes the length in millimetres, as Format(Millimetre) does.
func (l Length) String() string { return l.Format(Millimetre) }

// finest is the denominator of the smallest division on a shop rule.
const finest = 64

// Fraction splits a length into whole inches and a reduced fraction to the
// nearest 1/64 in, and returns what the fraction leaves out. The sign of a
// negative length is not in the parts: they describe its magnitude, and rest
// is positive where the magnitude is larger than the fraction says.
func (l Length) Fraction() (whole, num, den int, rest Length) {
	mag := math.Abs(l.Inches())
	n := int(math.Round(mag * finest))
	rest = Inches(mag - float64(n)/finest)
	whole, num, den = n/finest, n%finest, finest
	if num == 0 {
		return whole, 0, 1, rest
	}
	for num%2 == 0 {
		num, den = num/2, den/2
	}
	return whole, num, den, rest
}

// A remainder is worth a word beside a fraction where it is at least restShown
// inches, about a tenth of a millimetre, and the length is small enough for
// that to matter: a groove or a tenon, not the length of a board.
const (
	restShown = 0.004
	restUpTo  = 2.0 // inches
)

// Format writes the length in a unit: "31.25 mm" to the nearest hundredth, or
// `1 7/32"` to the nearest 1/64 in, followed by the remainder in thousandths
// (`1 7/32" +0.005`) where the fraction is off by 0.004 in or more and the
// length is under 2 in.
func (l Length) Format(u Unit) string {
	if u == Millimetre {
		s := strconv.FormatFloat(l.Mm(), 'f', 2, 64)
		s = strings.TrimRight(strings.TrimRight(s, "0"), ".")
		if s == "-0" {
			s = "0"
		}
		return s + " mm"
	}
	whole, num, den, rest := l.Fraction()
	var b strings.Builder
	if l < 0 && (whole > 0 || num > 0) {
		b.WriteByte('-')
	}
	if whole > 0 || num == 0 {
		b.WriteString(strconv.Itoa(whole))
		if num > 0 {
			b.WriteByte(' ')
		}
	}
	if num > 0 {
		b.WriteString(strconv.Itoa(num) + "/" + strconv.Itoa(den))
	}
	b.WriteByte('"')
	if r := rest.Inches(); math.Abs(r) >= restShown && math.Abs(l.Inches()) < restUpTo {
		sign := "+"
		// A sign in front is for all that follows; nought has none in front.
		if r < 0 || l < 0 && whole == 0 && num == 0 {
			sign = "-"
		}
		b.WriteString(" " + sign + strconv.FormatFloat(math.Abs(r), 'f', 3, 64))
	}
	return b.String()
}

// Setting writes a length that somebody sets by a rule or a scale: to the
// nearest tenth of a millimetre or 1/64 in, with no remainder.
func (l Length) Setting(u Unit) string {
	if u == Millimetre {
		return Length(math.Round(l.Mm()*10) / 10).Format(u)
	}
	return Inches(math.Round(l.Inches()*finest) / finest).Format(u)
}

// Thin writes a thickness of metal, or how far something is off: hundredths of
// a millimetre, or thousandths of an inch, which no rule has but every caliper.
func (l Length) Thin(u Unit) string {
	if u == Inch {
		return strconv.FormatFloat(l.Inches(), 'f', 3, 64) + `"`
	}
	return l.Format(u)
}

// Dial writes what a dial reads, without its sign: thousandths of a millimetre,
// or ten-thousandths of an inch.
func (l Length) Dial(u Unit) string {
	mag := Length(math.Abs(l.Mm()))
	if u == Inch {
		return strconv.FormatFloat(mag.Inches(), 'f', 4, 64) + `"`
	}
	return strconv.FormatFloat(math.Round(mag.Mm()*1000)/1000, 'f', -1, 64) + " mm"
}

// A Feed is a speed of the work past the blade in metres a minute. The zero
// Feed stands still.
type Feed float64

// Seconds is how long a length of cut takes at this feed.
func (f Feed) Seconds(l Length) float64 { return l.Mm() / 1000 * 60 / float64(f) }

// SecondsPer300mm is how long 300 mm of cut takes at this feed.
func (f Feed) SecondsPer300mm() float64 { return 0.300 * 60 / float64(f) }

// SecondsPerFoot is how long a foot of cut takes at this feed.
func (f Feed) SecondsPerFoot() float64 { return 12 * MmPerInch / 1000 * 60 / float64(f) }
