// Package sheet reads and writes CSV as spreadsheets do: with either separator,
// with lengths such as 3/4" in a cell, and without a cell that would run there
// as a formula.
package sheet

import (
	"encoding/csv"
	"io"
	"strconv"
	"strings"
)

// NewReader reads a file whose first line names its columns. Commas or
// semicolons part the cells, whichever that line has more of, and a quote
// inside a cell is inches. Cells that Safe wrote are to be read with Plain.
func NewReader(text string) *csv.Reader {
	text = strings.TrimPrefix(text, "\ufeff")
	in := csv.NewReader(strings.NewReader(text))
	in.FieldsPerRecord, in.TrimLeadingSpace, in.LazyQuotes = -1, true, true
	if first, _, _ := strings.Cut(text, "\n"); strings.Count(first, ";") > strings.Count(first, ",") {
		in.Comma = ';'
	}
	return in
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

// runs reports whether a cell begins as a formula, behind any quotes.
func runs(cell string) bool {
	cell = strings.TrimLeft(cell, "'")
	return cell != "" && strings.ContainsRune("=+-@\t\r", rune(cell[0]))
}
