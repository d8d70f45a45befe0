// Command records writes what follows from the description of a record in
// api/openapi.yaml: its row in the database and the mapping from row and
// contract to the value and back. A property says by x-field where it stands in
// record.Blade or record.Saw (else by its own name without its unit), by
// x-column what its column is called (else as it is), and by x-by-hand that the
// contract's side of it is written by hand.
package main

import (
	"bytes"
	_ "embed"
	"fmt"
	"go/format"
	"log"
	"os"
	"slices"
	"strings"
	"text/template"

	"go.yaml.in/yaml/v3"
)

type record struct {
	Name, Var string // Blade, b
	Plural    string
	Fields    []field
}

type field struct {
	Name, Contract, Field, Column string
	Type                          string // in Go: float64, measure.Length, blade.Grind
	Parse                         string // of an enum: blade.ParseGrind
	Default                       string // of a word: what it is where nothing is said
	Required, InAnswer            bool   // in the input, and in the answer
	ByHand                        bool
}

type schema struct {
	Type     string    `yaml:"type"`
	Ref      string    `yaml:"$ref"`
	AllOf    []schema  `yaml:"allOf"`
	GoType   string    `yaml:"x-go-type"`
	Field    string    `yaml:"x-field"`
	Column   string    `yaml:"x-column"`
	Default  string    `yaml:"x-default"`
	ByHand   bool      `yaml:"x-by-hand"`
	Required []string  `yaml:"required"`
	Props    yaml.Node `yaml:"properties"`
}

//go:embed records.tmpl
var source string

var files = map[string]string{"row": "internal/store/rows.gen.go", "wire": "internal/wire/records.gen.go"}

func main() {
	raw, err := os.ReadFile("api/openapi.yaml")
	check(err)
	var spec struct {
		Components struct {
			Schemas map[string]schema `yaml:"schemas"`
		} `yaml:"components"`
	}
	check(yaml.Unmarshal(raw, &spec))
	all := spec.Components.Schemas
	records := []record{{Name: "Blade", Var: "b", Plural: "blades"}, {Name: "Saw", Var: "w", Plural: "saws"}}
	for i, r := range records {
		records[i].Fields = fieldsOf(all[r.Name+"Input"], all[r.Name].Required, all)
	}
	t := template.Must(template.New("").Funcs(template.FuncMap{"hasSuffix": strings.HasSuffix, "lower": strings.ToLower, "only": only}).Parse(source))
	for name, path := range files {
		var out bytes.Buffer
		check(t.ExecuteTemplate(&out, name, records))
		done, err := format.Source(out.Bytes())
		if err != nil {
			check(fmt.Errorf("%w in\n%s", err, out.Bytes()))
		}
		check(os.WriteFile(path, done, 0o644))
	}
}

func fieldsOf(input schema, answered []string, all map[string]schema) (out []field) {
	for i := 0; i < len(input.Props.Content); i += 2 {
		name := input.Props.Content[i].Value
		var p schema
		check(input.Props.Content[i+1].Decode(&p))
		ref := p.Ref
		if len(p.AllOf) > 0 {
			ref = p.AllOf[0].Ref
		}
		f := field{Name: name, Contract: camel(name), Field: p.Field, Column: p.Column, Default: p.Default, ByHand: p.ByHand,
			Required: slices.Contains(input.Required, name), InAnswer: slices.Contains(answered, name)}
		if f.Field == "" {
			f.Field = camel(strings.TrimSuffix(strings.TrimSuffix(name, "_mm"), "_deg"))
		}
		if f.Column == "" {
			f.Column = name
		}
		of := all[ref[strings.LastIndex(ref, "/")+1:]]
		switch {
		case p.GoType != "":
			f.Type = p.GoType
		case of.GoType != "":
			f.Type = of.GoType
			pkg, kind, _ := strings.Cut(of.GoType, ".")
			f.Parse = pkg + ".Parse" + kind
		case of.Type == "string":
			f.Type = "contract." + ref[strings.LastIndex(ref, "/")+1:]
		case p.Type == "number":
			f.Type = "float64"
		case p.Type == "integer":
			f.Type = "int"
		case p.Type == "boolean":
			f.Type = "bool"
		case p.Type == "string":
			f.Type = "string"
		default:
			continue // an object or a list: by hand
		}
		out = append(out, f)
	}
	return out
}

// only are the fields of some types.
func only(fields []field, types ...string) (out []field) {
	for _, f := range fields {
		if slices.Contains(types, f.Type) {
			out = append(out, f)
		}
	}
	return out
}

func camel(name string) string {
	parts := strings.Split(name, "_")
	for i, p := range parts {
		parts[i] = strings.ToUpper(p[:1]) + p[1:]
	}
	return strings.Join(parts, "")
}

func check(err error) {
	if err != nil {
		log.Fatal(err)
	}
}
