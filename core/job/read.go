package job

import (
	"regexp"
	"strconv"
	"strings"

	"corte/core/cut"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/say"
)

// A Fault is what is wrong with one field of a line.
type Fault struct {
	Field string // as in the contract: "pieces", "material", "thickness_mm" …; empty for the line
	What  say.Line
}

// A Line is one line of a list as it was read.
type Line struct {
	Number  int    // from 1, as an editor counts
	Text    string // as it stood
	Row     Row
	Faults  []Fault  // it may not be kept while there are any
	Guessed []string // fields that nobody said, here or above
}

// Most is the longest list that is read in one go.
const Most = 1000

// Read reads a list: a table where its first line names columns, and otherwise
// sentences, a row a line, each sharing with the one above what it does not
// say. above is the row before the first, if there is one. Lengths without a
// unit are in bare. Nothing is refused as a whole: what is wrong with a line
// stands with it.
func Read(text string, bare measure.Unit, above *Row) []Line {
	text = strings.TrimPrefix(strings.ReplaceAll(text, "\r\n", "\n"), "\ufeff")
	if lines, is := readTable(text, bare, above); is {
		return lines
	}
	var out []Line
	last, assembly := above, ""
	if above != nil {
		assembly = above.Assembly
	}
	for i, raw := range strings.Split(text, "\n") {
		raw = strings.TrimSpace(raw)
		if raw == "" {
			continue
		}
		if name, heads := strings.CutSuffix(raw, ":"); heads && !strings.ContainsAny(name, "0123456789×") {
			assembly = strings.TrimSpace(name)
			continue
		}
		if len(out) == Most {
			break
		}
		s := sentence{rest: " " + tidy(raw) + " ", bare: bare, said: map[string]bool{}}
		s.row.Assembly = assembly
		s.read()
		l := s.line(i+1, raw, last)
		out = append(out, l)
		last = &out[len(out)-1].Row
	}
	return out
}

// A sentence is a line while it is read: what is understood is taken out of
// rest, and what is left is the name.
type sentence struct {
	rest   string
	bare   measure.Unit
	row    Row
	said   map[string]bool
	faults []Fault
}

func (s *sentence) fault(field, form string, with ...any) {
	s.faults = append(s.faults, Fault{field, say.Of(form, with...)})
}

var signs = strings.NewReplacer("”", `"`, "“", `"`, "″", `"`, "′", "'", "’", "'", "\u00a0", " ", "\u202f", " ", "⁄", "/",
	"½", " 1/2", "¼", " 1/4", "¾", " 3/4", "⅛", " 1/8", "⅜", " 3/8", "⅝", " 5/8", "⅞", " 7/8", "\t", " ", "×", " × ", "*", " × ")

// tidy folds the ways a keyboard writes the same thing, and takes out commas that
// part thousands: "1,200 long" is not one and a fifth.
func tidy(s string) string {
	s = signs.Replace(strings.ReplaceAll(s, "\x01", ""))
	for thousands.MatchString(s) {
		s = thousands.ReplaceAllString(s, "$1$2$3")
	}
	return by.ReplaceAllString(s, "$1 × ")
}

const (
	number = `\d+(?:\.\d+)?(?:[ -]\d+/\d+)?|\d+/\d+|\.\d+`
	length = `(?:(?:` + number + `)(?:\s?(?:(?:mm|cm|m|inches|inch|in|ft)\b|"|''|'))?)(?:\s?(?:` + number + `)\s?(?:"|''|in\b))?`
)

var (
	thousands = regexp.MustCompile(`(^|[^\d.,])(\d{1,3}),(\d{3}(?:[^\d]|$))`)
	by        = regexp.MustCompile(`(\d["']?|mm|cm|in)\s*[xX]\s*(?:\b|$)`)
	sized     = regexp.MustCompile(`(` + length + `)\s*×\s*(` + length + `)(?:\s*×\s*(` + length + `))?`)
	named     = regexp.MustCompile(`(` + length + `)\s+(long|wide|thick|deep|length|width|depth)\b`)
	turned    = regexp.MustCompile(`(\d+(?:\.\d+)?)\s?(?:°|degrees|degree|deg)?\s*(mitred|mitered|mitre|miter|mitres|miters|bevel|beveled|bevelled)\b`)
	turnedTo  = regexp.MustCompile(`\b(mitred|mitered|mitre|miter|bevel|beveled|bevelled)(?: ends)?(?: at| to)?\s+(\d+(?:\.\d+)?)\s?(?:°|degrees|degree|deg)?`)
	counted   = regexp.MustCompile(`^\s*(\d+)\s*(?:×|of them|of these|off|pcs|pieces|pc)?\s`)
	countedIn = regexp.MustCompile(`\b(\d+)\s+(?:of them|of these|off|pcs|pieces|pc)\b`)
)

func (s *sentence) read() {
	for _, w := range sameWords {
		s.take(w)
	}
	s.takeCount()
	if m := s.cutFor(sized, afterSize); m != nil {
		s.length("thickness_mm", m[1])
		s.length("width_mm", m[2])
		if m[3] != "" {
			s.length("length_mm", m[3])
		}
	}
	for m := s.cut(named); m != nil; m = s.cut(named) {
		s.length(map[string]string{"thick": "thickness_mm", "wide": "width_mm", "width": "width_mm", "long": "length_mm", "length": "length_mm", "deep": "depth_mm", "depth": "depth_mm"}[m[2]], m[1])
	}
	if m := s.cut(turned); m != nil {
		s.angle(m[2], m[1])
	}
	if m := s.cut(turnedTo); m != nil {
		s.angle(m[1], m[2])
	}
	for _, c := range materialNames {
		if s.take(c.name) {
			s.row.Material = c.id
			s.said["material"] = true
			break
		}
	}
	takeWord(s, "form", formWords, &s.row.Form)
	takeWord(s, "direction", directionWords, &s.row.Direction)
	takeWord(s, "finish", finishWords, &s.row.Finish)
	takeWord(s, "moisture", moistureWords, &s.row.Moisture)
	for _, w := range []string{"it moves", "moves", "tension"} {
		if s.take(w) {
			s.row.Moves, s.said["moves"] = true, true
		}
	}
	if w := s.strange(); w != "" {
		s.fault("material", "%s is not a material Corte knows. Use a name from the list of materials", say.Word(w))
	}
	s.row.Name = name(strings.ReplaceAll(s.rest, "\x01", ""))
}

// takeCount reads how many, at the head of a line or said in it; "38 × 64" at
// the head is a size.
func (s *sentence) takeCount() {
	if at := sized.FindStringIndex(s.rest); at == nil || strings.TrimSpace(s.rest[:at[0]]) != "" || strings.Count(s.rest[at[0]:at[1]], "×") == 2 && s.headCounts(at) {
		if m := s.cut(counted); m != nil {
			s.pieces(m[1])
			return
		}
	}
	if m := s.cut(countedIn); m != nil {
		s.pieces(m[1])
	}
}

// headCounts reports whether three figures at the head of a line are a count and
// two sizes: a length is said after them.
func (s *sentence) headCounts(at []int) bool {
	return regexp.MustCompile(`\blong\b`).MatchString(s.rest[at[1]:])
}

func (s *sentence) pieces(text string) {
	n, err := strconv.Atoi(text)
	if err != nil || n < 1 || n > cut.MostPieces {
		s.fault("pieces", "%s pieces isn't possible. Enter 1 to 9999", say.Word(text))
		return
	}
	s.row.Pieces, s.said["pieces"] = n, true
}

func (s *sentence) length(field, text string) {
	l, err := measure.Parse(text, s.bare)
	if err != nil {
		s.fault(field, "%s", err)
		return
	}
	s.set(field, l)
}

func (s *sentence) set(field string, l measure.Length) {
	*map[string]*measure.Length{"thickness_mm": &s.row.Thickness, "width_mm": &s.row.Width, "length_mm": &s.row.Length, "depth_mm": &s.row.Depth}[field] = l
	s.said[field] = true
}

func (s *sentence) angle(of, text string) {
	deg, _ := strconv.ParseFloat(text, 64)
	field, at := "miter_deg", &s.row.MiterDeg
	if strings.HasPrefix(of, "bevel") {
		field, at = "bevel_deg", &s.row.BevelDeg
	}
	if deg > 60 {
		s.fault(field, "an angle is between 0 and 60 degrees, measured from square")
		return
	}
	*at, s.said[field] = deg, true
}

// cut takes the first match of a pattern out of what is left.
func (s *sentence) cut(p *regexp.Regexp) []string { return s.cutFor(p, " , ") }

func (s *sentence) cutFor(p *regexp.Regexp, mark string) []string {
	at := p.FindStringSubmatchIndex(s.rest)
	if at == nil {
		return nil
	}
	m := p.FindStringSubmatch(s.rest)
	s.rest = s.rest[:at[0]] + mark + s.rest[at[1]:]
	return m
}

// afterSize marks where a size stood: what follows it is what the piece is of.
const afterSize = " , \x01 "

// strange is a word where a material would stand that is none, so that nothing
// is cut from the wood of the row above by mistake.
func (s *sentence) strange() string {
	_, after, is := strings.Cut(s.rest, "\x01")
	if !is || s.said["material"] {
		return ""
	}
	return name(strings.FieldsFunc(after+" ,", func(r rune) bool { return r == ',' || r == ';' })[0])
}

// take takes a word or phrase out of what is left, whole and in any case.
func (s *sentence) take(phrase string) bool {
	lower := strings.ToLower(s.rest)
	if len(lower) != len(s.rest) {
		return false // of a script whose letters change length; no word of ours is in it
	}
	for from := 0; ; {
		i := strings.Index(lower[from:], phrase)
		if i < 0 {
			return false
		}
		i += from
		if end := i + len(phrase); !letter(lower, i-1) && !letter(lower, end) {
			s.rest = s.rest[:i] + " , " + s.rest[end:]
			return true
		}
		from = i + 1
	}
}

func letter(s string, i int) bool {
	return i >= 0 && i < len(s) && (s[i] >= 'a' && s[i] <= 'z' || s[i] >= '0' && s[i] <= '9' || s[i] >= 0x80)
}

// takeWord takes the word of a list that stands first.
func takeWord[T any](s *sentence, field string, words map[string]T, into *T) {
	best, at := "", len(s.rest)+1
	lower := strings.ToLower(s.rest)
	for w := range words {
		if i := strings.Index(lower, w); i >= 0 && !letter(lower, i-1) && !letter(lower, i+len(w)) && (i < at || i == at && len(w) > len(best)) {
			best, at = w, i
		}
	}
	if best == "" || !s.take(best) {
		return
	}
	*into, s.said[field] = words[best], true
	for w, v := range words { // said twice, as in "12 grooves, groove 6 deep"
		if any(v) == any(words[best]) {
			s.take(w)
		}
	}
}

var gap = regexp.MustCompile(`[\s,;]+`)

// name is what is left of a line: its first run of words that says something.
func name(rest string) string {
	var words []string
	for _, part := range strings.FieldsFunc(rest, func(r rune) bool { return r == ',' || r == ';' }) {
		part = strings.TrimSpace(gap.ReplaceAllString(part, " "))
		if part = strings.Trim(part, "-–: "); part != "" && !filler[strings.ToLower(part)] {
			words = append(words, part)
		}
	}
	out := []rune(strings.Join(words, ", "))
	return string(out[:min(len(out), 60)])
}

var filler = map[string]bool{"of": true, "of them": true, "with": true, "and": true, "in": true, "the": true, "each": true, "cut": true, "ends": true, "at": true, "to": true, "a": true, "from": true}

// line fills in from above what a line does not say, and says what is missing.
func (s *sentence) line(n int, text string, above *Row) Line {
	r := s.row
	l := Line{Number: n, Text: text}
	if above != nil {
		s.share(&r, *above)
	}
	guess := func(field string, must bool) {
		if must {
			l.Guessed = append(l.Guessed, field)
		}
	}
	if r.Name == "" {
		r.Name = nameless(r)
	}
	if r.Pieces == 0 && !s.bad("pieces") {
		r.Pieces = 1
		guess("pieces", true)
	}
	told := above != nil
	if !s.said["direction"] && r.Form == cut.Through && (!told || s.said["material"] && sheet(r.Material) != sheet(above.Material)) {
		r.Direction = cut.Crosscut
		if sheet(r.Material) {
			r.Direction = cut.Sheet
		}
		guess("direction", true)
	}
	if !s.said["finish"] && !told {
		r.Finish = cut.Hidden
		guess("finish", true)
	}
	for _, f := range r.Check() {
		if !s.bad(f.Field) {
			s.faults = append(s.faults, f)
		}
	}
	l.Row, l.Faults = r, s.faults
	return l
}

func (s *sentence) bad(field string) bool {
	for _, f := range s.faults {
		if f.Field == field {
			return true
		}
	}
	return false
}

// share takes from the row above what this one does not say. A form and an
// angle are of one row: who cuts a groove below through cuts says so, and back.
func (s *sentence) share(r *Row, above Row) {
	if !s.said["material"] {
		r.Material = above.Material
	}
	if !s.said["direction"] && (!s.said["material"] || sheet(r.Material) == sheet(above.Material)) {
		r.Direction = above.Direction
	}
	if !s.said["finish"] {
		r.Finish = above.Finish
		if r.Form != cut.Through {
			r.Finish = cut.Hidden // another piece goes in
		}
	}
	if same := !s.said["material"]; same { // what a board is like is of that board
		if !s.said["moisture"] {
			r.Moisture = above.Moisture
		}
		if !s.said["moves"] {
			r.Moves = above.Moves
		}
	}
	for _, x := range []struct {
		field string
		mine  *measure.Length
		above measure.Length
	}{{"thickness_mm", &r.Thickness, above.Thickness}, {"width_mm", &r.Width, above.Width}, {"length_mm", &r.Length, above.Length}} {
		if !s.said[x.field] && !s.bad(x.field) {
			*x.mine = x.above
		}
	}
	if r.Assembly == "" && !s.said["assembly"] {
		r.Assembly = above.Assembly
	}
}

// nameless names a row by what it is cut from.
func nameless(r Row) string {
	if r.Material == "" {
		return "?"
	}
	return material.Name(r.Material)
}

func sheet(id string) bool {
	m, err := material.Get(id)
	return err == nil && m.Kind.Sheet()
}
