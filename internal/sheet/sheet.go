// Package sheet reads and writes CSV as spreadsheets do: with either separator,
// with lengths such as 3/4" in a cell, and without a cell that would run there
// as a formula.
package sheet

import (
	"encoding/csv"
	"io"
	"slices"
	"strconv"
	"strings"
	"unicode"
	"unicode/utf8"

	"corte/core/fault"
)

// A Table is read row by row under a first line that names its columns.
type Table struct {
	Columns []string // in small letters
	in      *csv.Reader
}

// Open reads the first line. Commas or semicolons part the cells, whichever
// that line has more of, and a quote inside a cell is inches. The error says
// what is wrong with the line: nothing in it, or a name twice.
func Open(text string) (*Table, error) {
	text = strings.TrimPrefix(text, "\ufeff")
	in := csv.NewReader(strings.NewReader(text))
	in.FieldsPerRecord, in.TrimLeadingSpace, in.LazyQuotes = -1, true, true
	if first, _, _ := strings.Cut(text, "\n"); strings.Count(first, ";") > strings.Count(first, ",") {
		in.Comma = ';'
	}
	head, err := in.Read()
	if err != nil {
		return nil, fault.At("", "the file is empty; its first line names the columns")
	}
	for i, name := range head {
		head[i] = strings.ToLower(strings.TrimSpace(name))
		if head[i] != "" && slices.Contains(head[:i], head[i]) {
			return nil, fault.At("", "the first line has two columns called %s", head[i])
		}
	}
	return &Table{head, in}, nil
}

// Next reads a row: its line in the file, and the cells that are not empty by
// the place of their column, as they were before Safe. The error is io.EOF
// behind the last row; another one is about this row alone.
func (t *Table) Next() (line int, cells map[int]string, err error) {
	record, err := t.in.Read()
	if err == io.EOF {
		return 0, nil, err
	}
	line, _ = t.in.FieldPos(0)
	cells = map[int]string{}
	for i, cell := range record {
		if cell = Plain(strings.TrimSpace(cell)); cell == "" {
			continue
		}
		if i >= len(t.Columns) {
			return line, cells, fault.At("", "the row has more cells than the first line has names")
		}
		cells[i] = cell
	}
	return line, cells, err
}

// A Writer writes records, every cell made safe.
type Writer struct{ *csv.Writer }

// NewWriter writes to out.
func NewWriter(out io.Writer) *Writer { return &Writer{csv.NewWriter(out)} }

// Write adds a record.
func (w *Writer) Write(record []string) error {
	safe := make([]string, len(record))
	for i, cell := range record {
		safe[i] = Safe(cell)
	}
	return w.Writer.Write(safe)
}

// Safe is a cell that no spreadsheet takes for a formula: one that begins as a
// formula does, and is not a number, gets a quote before it. Plain takes it off.
func Safe(cell string) string {
	if _, err := strconv.ParseFloat(cell, 64); err != nil && runs(cell) {
		return "'" + cell
	}
	return cell
}

// Plain is the cell that Safe was given.
func Plain(cell string) string {
	if rest, quoted := strings.CutPrefix(cell, "'"); quoted && runs(rest) {
		return rest
	}
	return cell
}

// runs reports whether a cell begins as a formula, behind any quotes, blanks and
// separators: a spreadsheet of another country parts cells at semicolons, and
// some take wide signs for plain ones.
func runs(cell string) bool {
	cell = strings.TrimLeft(cell, "'")
	if strings.HasPrefix(cell, "\t") || strings.HasPrefix(cell, "\r") {
		return true
	}
	cell = strings.TrimLeftFunc(cell, func(r rune) bool {
		return unicode.IsSpace(r) || unicode.Is(unicode.Cf, r) || strings.ContainsRune("';,", r)
	})
	first, _ := utf8.DecodeRuneInString(cell)
	return cell != "" && strings.ContainsRune("=+-@\uff1d\uff0b\uff0d\uff20\u2212", first)
}
