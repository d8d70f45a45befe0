package job

import (
	"encoding/csv"
	"strconv"
	"strings"

	"corte/core/cut"
	"corte/core/measure"
	"corte/core/say"
)

// Columns are the columns of a table, in the order in which Corte writes them.
var Columns = []string{"name", "assembly", "pieces", "material", "direction", "finish", "thickness", "width", "length", "form", "depth", "bevel", "miter", "moisture", "moves", "stage"}

// What the first line of a table may call its columns.
var columnOf = map[string]string{
	"part": "name", "piece": "name", "item": "name", "description": "name", "label": "name",
	"unit": "assembly", "for": "assembly", "belongs to": "assembly",
	"qty": "pieces", "quantity": "pieces", "count": "pieces", "number": "pieces", "no": "pieces", "pcs": "pieces", "n": "pieces", "how many": "pieces",
	"wood": "material", "species": "material", "stock": "material", "timber": "material",
	"cut": "direction", "grain": "direction", "surface": "finish", "t": "thickness", "thick": "thickness", "w": "width", "wide": "width", "l": "length", "long": "length",
	"mitre": "miter", "mitre deg": "miter", "miter deg": "miter", "bevel deg": "bevel", "tilt": "bevel",
}

// leastColumns is from how many known names a first line is a table's head.
const leastColumns = 3

// readTable reads comma, semicolon or tab separated text whose first line names
// columns; it reports false where it does not.
func readTable(text string, bare measure.Unit, above *Row) ([]Line, bool) {
	first, _, _ := strings.Cut(strings.TrimLeft(text, "\n \t"), "\n")
	var sep rune
	var head []string
	for _, try := range []rune{'\t', ';', ','} {
		names, known := strings.Split(first, string(try)), 0
		for i, n := range names {
			names[i] = column(n)
			if isColumn(names[i]) {
				known++
			}
		}
		if known >= leastColumns {
			sep, head = try, names
			break
		}
	}
	if head == nil {
		return nil, false
	}
	r := csv.NewReader(strings.NewReader(strings.TrimLeft(text, "\n \t")))
	r.Comma, r.FieldsPerRecord, r.LazyQuotes, r.TrimLeadingSpace = sep, -1, true, sep != '\t'
	var out []Line
	last := above
	for at := 0; len(out) < Most; at++ {
		cells, err := r.Read()
		if err != nil {
			break
		}
		if at == 0 || strings.TrimSpace(strings.Join(cells, "")) == "" {
			continue
		}
		number, _ := r.FieldPos(0)
		s := sentence{bare: bare, said: map[string]bool{}}
		for i, c := range cells {
			if c = plain(strings.TrimSpace(c)); i < len(head) && c != "" && c != `"` && !isSame(c) {
				s.cell(head[i], c)
			}
		}
		l := s.line(number, strings.Join(cells, string(sep)), last)
		out = append(out, l)
		last = &out[len(out)-1].Row
	}
	return out, true
}

// plain takes off the quote that keeps a spreadsheet from running a cell.
func plain(cell string) string {
	if rest, quoted := strings.CutPrefix(cell, "'"); quoted && rest != "" && strings.ContainsRune("=+-@", rune(rest[0])) {
		return rest
	}
	return cell
}

// column is the name of a column as Corte calls it: in small letters, without a
// unit in brackets or behind an underline.
func column(s string) string {
	s, _, _ = strings.Cut(strings.ToLower(strings.Trim(s, "\ufeff \"\r")), "(")
	s = strings.TrimSpace(s)
	for _, unit := range []string{"_mm", "_deg", "_in", ", mm", " mm", " in"} {
		s = strings.TrimSuffix(s, unit)
	}
	if own, ok := columnOf[s]; ok {
		return own
	}
	return s
}

func isColumn(s string) bool {
	for _, c := range Columns {
		if c == s {
			return true
		}
	}
	return false
}

func isSame(s string) bool {
	for _, w := range sameWords {
		if strings.EqualFold(w, s) {
			return true
		}
	}
	return false
}

// cell reads one cell of a table.
func (s *sentence) cell(column, text string) {
	lower := strings.ToLower(text)
	switch column {
	case "name":
		s.row.Name = name(strings.ReplaceAll(text, ",", " "))
	case "assembly":
		s.row.Assembly, s.said["assembly"] = short(text), true
	case "pieces":
		s.pieces(strings.TrimSuffix(lower, "×"))
	case "material":
		for _, c := range materialNames {
			if lower == c.name || lower == c.id {
				s.row.Material = c.id
				s.said["material"] = true
				return
			}
		}
		s.fault("material", "%s is not a material Corte knows", say.Word(short(text)))
	case "direction":
		cellWord(s, "direction", lower, directionWords, &s.row.Direction, "rip, crosscut or sheet")
	case "finish":
		cellWord(s, "finish", lower, finishWords, &s.row.Finish, "rough, hidden, show or fine")
	case "form":
		if lower == "through" {
			s.said["form"] = true
			return
		}
		cellWord(s, "form", lower, formWords, &s.row.Form, "through, groove, rabbet, cheek or fold")
	case "moisture":
		cellWord(s, "moisture", lower, moistureWords, &s.row.Moisture, "dry, wet or frozen")
	case "thickness", "width", "length", "depth":
		s.length(column+"_mm", tidy(text))
	case "bevel", "miter":
		deg := strings.TrimSpace(strings.TrimRight(lower, "° deg"))
		if _, err := strconv.ParseFloat(deg, 64); err != nil {
			s.fault(column+"_deg", "%s is not an angle: say degrees, 0 to 60", say.Word(short(text)))
			return
		}
		s.angle(column, deg)
	case "moves":
		s.row.Moves = lower == "yes" || lower == "true" || lower == "1" || lower == "moves"
		s.said["moves"] = true
	case "stage":
		stage, err := ParseStage(lower)
		if err != nil {
			s.fault("stage", "%s", err)
			return
		}
		s.row.Stage = stage
	}
}

func cellWord[T any](s *sentence, field, text string, words map[string]T, into *T, can string) {
	v, ok := words[text]
	if !ok {
		s.fault(field, "%s isn't possible. Use %s", say.Word(short(text)), say.Word(can))
		return
	}
	*into, s.said[field] = v, true
}

// short is a text no longer than a name may be.
func short(s string) string {
	r := []rune(strings.TrimSpace(s))
	return string(r[:min(len(r), 60)])
}

// Cells writes a row as a line of a table with Columns; lengths in millimetres.
func (r Row) Cells() []string {
	num := func(x float64) string {
		if x == 0 {
			return ""
		}
		return strconv.FormatFloat(x, 'g', -1, 64)
	}
	text := func(s string, plain bool) string {
		if plain {
			return ""
		}
		return s
	}
	moves := ""
	if r.Moves {
		moves = "yes"
	}
	return []string{
		r.Name, r.Assembly, strconv.Itoa(r.Pieces), r.Material, r.Direction.String(), r.Finish.String(),
		num(r.Thickness.Mm()), num(r.Width.Mm()), num(r.Length.Mm()),
		text(r.Form.String(), r.Form == cut.Through), num(r.Depth.Mm()), num(r.BevelDeg), num(r.MiterDeg),
		text(r.Moisture.String(), r.Moisture == cut.Dry), moves, text(r.Stage.String(), r.Stage == ByRule),
	}
}
