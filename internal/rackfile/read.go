// Package rackfile is the rack as a file: JSON with a published schema, or CSV.
// It reads strictly and row by row, so that one bad row does not spoil a file,
// and compares what it read with the rack that is there before anything is
// saved.
//
// The records are the contract's own inputs with an id beside them: what a file
// may hold is what a person may type, checked by the same schema.
package rackfile

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"maps"
	"slices"
	"strconv"
	"strings"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/google/uuid"

	"corte/core/fault"
	"corte/core/measure"
	"corte/core/say"
	"corte/internal/httpapi/contract"
	"corte/internal/refusal"
	"corte/internal/sheet"
	"corte/internal/shop/rack"
	"corte/internal/store"
	"corte/internal/wire"
)

// A What says which kind of thing a row is.
type What string

const (
	Blade What = "blade"
	Saw   What = "saw"
)

// A Problem is what is wrong with one field of a row.
type Problem struct {
	Field  string
	Detail say.Line
}

// A Row is one blade or saw of a file.
type Row struct {
	N        int // from 1, within its kind; a CSV's header does not count
	What     What
	ID       uuid.UUID // nil where the file gives none
	Name     string
	Retired  *store.Retired // where the file says that it is out of use
	Blade    store.Blade
	Saw      store.Saw
	Problems []Problem

	fields  map[string]any  // by their names in the contract, without the id
	columns map[string]bool // that the file has; nil where what is left out is meant to be left out
}

// mostRows is how many rows a file may have.
const mostRows = 5000

// document is the JSON file.
type document struct {
	Schema  string            `json:"$schema,omitempty"`
	Format  string            `json:"format"`
	Version int               `json:"version"`
	Saws    []json.RawMessage `json:"saws"`
	Blades  []json.RawMessage `json:"blades"`
}

const (
	formatName    = "corte-rack"
	formatVersion = 1
	schemaName    = "rack.json"
)

// A Reader reads files by the contract's schemas.
type Reader struct {
	spec   *openapi3.T
	breach func(*openapi3.SchemaError, string) say.Line // says what is wrong with a field
}

// NewReader makes a reader. breach puts a breach of the schema into words.
func NewReader(spec *openapi3.T, breach func(*openapi3.SchemaError, string) say.Line) *Reader {
	return &Reader{spec, breach}
}

// Read reads a file. The error is about the file as a whole; what cannot be
// read of a row is in the row. Compare checks the rest.
func (r *Reader) Read(format contract.FileFormat, text string) ([]Row, error) {
	rows, err := r.readJSON, error(nil)
	if format == contract.FileFormatCsv {
		rows = r.readCSV
	}
	out, err := rows(text)
	if err == nil && len(out) > mostRows {
		err = fault.At("", "the file has %d rows. Send at most %d at once", len(out), mostRows)
	}
	if err == nil && len(out) == 0 {
		err = fault.At("", "the file has no rows")
	}
	return out, err
}

func (r *Reader) readJSON(text string) ([]Row, error) {
	d := json.NewDecoder(strings.NewReader(text))
	d.DisallowUnknownFields()
	var doc document
	if err := d.Decode(&doc); err != nil {
		return nil, fault.At("", "this isn't a file of saws and blades: %s", plainly(err))
	}
	if doc.Format != formatName || doc.Version != formatVersion {
		return nil, fault.At("", "this isn't a file of version %d. Its format should be %q", formatVersion, formatName)
	}
	var rows []Row
	for i, raw := range doc.Saws {
		rows = append(rows, r.row(i+1, Saw, raw))
	}
	for i, raw := range doc.Blades {
		rows = append(rows, r.row(i+1, Blade, raw))
	}
	return rows, nil
}

func plainly(err error) say.Line {
	var syntax *json.SyntaxError
	if errors.As(err, &syntax) {
		return say.Of("the JSON is wrong from character %d on", syntax.Offset)
	}
	if errors.Is(err, io.EOF) || errors.Is(err, io.ErrUnexpectedEOF) {
		return say.Of("it ends too early")
	}
	return say.Of("%s", strings.TrimPrefix(err.Error(), "json: "))
}

func (r *Reader) row(n int, what What, raw json.RawMessage) Row {
	var fields map[string]any
	if err := json.Unmarshal(raw, &fields); err != nil {
		return Row{N: n, What: what, Problems: []Problem{{"", say.Of("The row is not an object with fields.")}}}
	}
	return r.rowOf(n, what, fields)
}

// rowOf is a row with its id and name read, and nothing checked yet.
func (r *Reader) rowOf(n int, what What, fields map[string]any) Row {
	row := Row{N: n, What: what, fields: fields}
	row.Name, _ = fields["name"].(string)
	if id, ok := fields["id"]; ok {
		text, _ := id.(string)
		var err error
		if row.ID, err = uuid.Parse(text); err != nil {
			row.problem("id", say.Of("The id isn't a UUID. Leave it out to add the row as new."))
		}
		delete(fields, "id")
	}
	if said, ok := fields["retired"]; ok {
		delete(fields, "retired")
		raw, err := json.Marshal(said)
		var in contract.Retired
		if err == nil {
			err = json.Unmarshal(raw, &in)
		}
		if err != nil || in.At.IsZero() || !contract.RetirementReason(in.Reason).Valid() || len(in.Note) > 500 || strings.ContainsRune(in.Note, 0) {
			row.problem("retired", say.Of("Give the date, reason and note of retirement as an export has them."))
		}
		row.Retired = &store.Retired{At: in.At, Reason: in.Reason, Note: in.Note}
	}
	return row
}

func (row *Row) problem(field string, detail say.Line) {
	row.Problems = append(row.Problems, Problem{field, detail})
}

// check holds a row to the schema, and then to the craft.
func (r *Reader) check(row *Row) {
	if err := r.schema(row.What).VisitJSON(row.fields, openapi3.MultiErrors()); err != nil {
		for _, one := range flatten(err) {
			var se *openapi3.SchemaError
			if errors.As(one, &se) {
				field := strings.Join(se.JSONPointer(), ".")
				row.problem(field, r.breach(se, field))
			} else {
				row.problem("", say.Of("%s", one.Error()))
			}
		}
		return
	}
	raw, err := json.Marshal(row.fields)
	if err == nil {
		err = row.take(raw)
	}
	var se *refusal.Error
	if errors.As(err, &se) {
		row.problem(se.Field, se.What)
	} else if err != nil {
		row.problem("", say.Error(err))
	}
}

// CheckBlade reports what is wrong with a blade by the schema and the craft, as
// with one that somebody sends.
func (r *Reader) CheckBlade(b store.Blade) error { return r.checkRecord(Blade, wire.BladeInput(b)) }

// CheckSaw is CheckBlade of a saw.
func (r *Reader) CheckSaw(w store.Saw) error { return r.checkRecord(Saw, wire.SawInput(w)) }

func (r *Reader) checkRecord(what What, record any) error {
	raw, err := json.Marshal(record)
	if err != nil {
		return err
	}
	row := r.row(1, what, raw)
	r.check(&row)
	if len(row.Problems) > 0 {
		return errors.New(row.Problems[0].Detail.String())
	}
	return nil
}

// take decodes and checks a row that keeps to the schema.
func (row *Row) take(raw []byte) error {
	if row.What == Saw {
		var in contract.SawInput
		if err := json.Unmarshal(raw, &in); err != nil {
			return err
		}
		row.Saw = wire.ReadSaw(in)
		return rack.CheckSaw(row.Saw)
	}
	var in contract.BladeInput
	if err := json.Unmarshal(raw, &in); err != nil {
		return err
	}
	var err error
	if row.Blade, err = wire.ReadBlade(in); err != nil {
		return err
	}
	return rack.CheckBlade(row.Blade)
}

func flatten(err error) []error {
	var many openapi3.MultiError
	if errors.As(err, &many) {
		var out []error
		for _, one := range many {
			out = append(out, flatten(one)...)
		}
		return out
	}
	return []error{err}
}

func (r *Reader) schema(what What) *openapi3.Schema {
	name := "BladeInput"
	if what == Saw {
		name = "SawInput"
	}
	return r.spec.Components.Schemas[name].Value
}

// readCSV reads blades, one a row under a header of field names. Lengths may be
// written as people write them: 3.2, 1/8", 3/32.
func (r *Reader) readCSV(text string) ([]Row, error) {
	table, err := sheet.Open(text)
	if err != nil {
		return nil, err
	}
	props, columns := r.schema(Blade).Properties, map[string]bool{}
	for _, h := range table.Columns {
		if columns[h] = true; h != "id" && h != "retired" && props[h] == nil {
			return nil, fault.At("", "%q in the first line is an unknown field. An export shows them all", h)
		}
	}
	if !columns["name"] && !columns["id"] {
		return nil, fault.At("", "the first line has neither a field called name nor one called id")
	}
	var rows []Row
	for n := 1; ; n++ {
		_, cells, err := table.Next()
		if errors.Is(err, io.EOF) {
			return rows, nil
		}
		fields, problems := map[string]any{}, []Problem(nil)
		if err != nil {
			problems = append(problems, Problem{"", say.Error(err)})
		}
		for _, i := range slices.Sorted(maps.Keys(cells)) {
			field := table.Columns[i]
			v, err := readCell(field, cells[i], props)
			if err != nil {
				problems = append(problems, Problem{field, say.Error(err)})
				continue
			}
			fields[field] = v
		}
		row := r.rowOf(n, Blade, fields)
		row.columns, row.Problems = columns, append(row.Problems, problems...)
		rows = append(rows, row)
	}
}

func readCell(field, cell string, props openapi3.Schemas) (any, error) {
	switch field {
	case "id":
		return cell, nil
	case "retired":
		var v any
		if json.Unmarshal([]byte(cell), &v) != nil {
			return nil, fault.At("", "%q is not what an export has there", cell)
		}
		return v, nil
	}
	schema := props[field].Value
	if len(schema.AllOf) > 0 {
		schema = schema.AllOf[0].Value
	}
	switch {
	case schema.Type.Is("number") && strings.HasSuffix(field, "_mm"):
		l, err := measure.Parse(cell, measure.Millimetre)
		return l.Mm(), err
	case schema.Type.Is("number"), schema.Type.Is("integer"):
		v, err := strconv.ParseFloat(strings.Replace(cell, ",", ".", 1), 64)
		if err != nil {
			return nil, fault.At("", "%q is not a number", cell)
		}
		return v, nil
	case schema.Type.Is("boolean"):
		switch strings.ToLower(cell) {
		case "true", "yes", "1":
			return true, nil
		case "false", "no", "0":
			return false, nil
		}
		return nil, fault.At("", "%q is neither yes nor no", cell)
	}
	return cell, nil
}

// Write writes the rack in a format; CSV holds the blades alone.
func Write(format contract.FileFormat, saws []store.Saw, blades []store.Blade) ([]byte, error) {
	if format == contract.FileFormatCsv {
		return writeCSV(blades)
	}
	doc := struct {
		Schema  string           `json:"$schema"`
		Format  string           `json:"format"`
		Version int              `json:"version"`
		Saws    []map[string]any `json:"saws"`
		Blades  []map[string]any `json:"blades"`
	}{schemaName, formatName, formatVersion, []map[string]any{}, []map[string]any{}}
	for _, w := range saws {
		fields := fieldsOf(wire.SawInput(w))
		fields["id"] = w.ID
		retired(fields, w.Retired)
		doc.Saws = append(doc.Saws, fields)
	}
	for _, b := range blades {
		fields := fieldsOf(wire.BladeInput(b))
		fields["id"] = b.ID
		retired(fields, b.Retired)
		doc.Blades = append(doc.Blades, fields)
	}
	return json.MarshalIndent(doc, "", "  ")
}

// retired says in a record that it is out of use, where it is.
func retired(fields map[string]any, r *store.Retired) {
	if r != nil {
		fields["retired"] = map[string]any{"at": r.At.UTC(), "reason": r.Reason, "note": r.Note}
	}
}

// fieldsOf is a record as JSON has it.
func fieldsOf(record any) map[string]any {
	raw, _ := json.Marshal(record)
	var fields map[string]any
	_ = json.Unmarshal(raw, &fields)
	return fields
}

// csvHeader are the columns of a file, in the contract's order.
var csvHeader = slices.Concat([]string{"id"}, wire.BladeNames, []string{"retired"})

func writeCSV(blades []store.Blade) ([]byte, error) {
	var out bytes.Buffer
	w := sheet.NewWriter(&out)
	_ = w.Write(csvHeader)
	for _, b := range blades {
		fields := fieldsOf(wire.BladeInput(b))
		fields["id"] = b.ID.String()
		retired(fields, b.Retired)
		record := make([]string, len(csvHeader))
		for i, name := range csvHeader {
			record[i] = cellOf(fields[name])
		}
		_ = w.Write(record)
	}
	w.Flush()
	return out.Bytes(), w.Error()
}

func cellOf(v any) string {
	switch v := v.(type) {
	case nil:
		return ""
	case float64:
		return strconv.FormatFloat(v, 'f', -1, 64)
	}
	if m, ok := v.(map[string]any); ok {
		raw, _ := json.Marshal(m)
		return string(raw)
	}
	return fmt.Sprint(v)
}

// Schema is the JSON schema (draft 2020-12) that exported files keep to, made
// from the contract's own.
func (r *Reader) Schema() (map[string]any, error) {
	plain := map[string]any{}
	for _, name := range []string{"BladeInput", "SawInput", "Make", "Grind", "Use", "Coating", "Tolerances", "DadoSetInput", "DadoPart", "DialRange", "Side", "Carbide", "GulletShape", "SawKind", "Thread", "Brake", "Retired"} {
		raw, err := json.Marshal(r.spec.Components.Schemas[name].Value)
		if err != nil {
			return nil, err
		}
		raw = bytes.ReplaceAll(raw, []byte("#/components/schemas/"), []byte("#/$defs/"))
		var one map[string]any
		if err := json.Unmarshal(raw, &one); err != nil {
			return nil, err
		}
		for key := range one {
			if strings.HasPrefix(key, "x-") { // for the generator of our own code
				delete(one, key)
			}
		}
		if props, ok := one["properties"].(map[string]any); ok && (name == "BladeInput" || name == "SawInput") {
			props["id"] = map[string]any{"type": "string", "format": "uuid"}
			props["retired"] = map[string]any{"$ref": "#/$defs/Retired"}
		}
		plain[name] = one
	}
	list := func(name string) map[string]any {
		return map[string]any{"type": "array", "items": map[string]any{"$ref": "#/$defs/" + name}}
	}
	return map[string]any{
		"$schema": "https://json-schema.org/draft/2020-12/schema", "title": "A rack of saws and blades",
		"type": "object", "additionalProperties": false, "required": []string{"format", "version"},
		"properties": map[string]any{
			"$schema": map[string]any{"type": "string"}, "format": map[string]any{"const": formatName},
			"version": map[string]any{"const": formatVersion}, "saws": list("SawInput"), "blades": list("BladeInput"),
		},
		"$defs": plain,
	}, nil
}
