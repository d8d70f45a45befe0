// Package jobfile is a job as files: its list as JSON with a published schema
// or as CSV, both of which are read back, and its run sheet as a drawing or as
// blocks of a calendar.
package jobfile

import (
	"bytes"
	_ "embed" // for the schema
	"encoding/json"
	"fmt"
	"time"

	ics "github.com/arran4/golang-ical"

	corejob "corte/core/job"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/say"
	"corte/internal/sheet"
	"corte/internal/shop/job"
)

// Schema is the JSON Schema of a list as JSON.
//
//go:embed schema.json
var Schema json.RawMessage

const format, version = "corte-job", 1

// A list as it goes into a file. Saws and blades are of one shop, and so stay
// out of it.
type list struct {
	Format  string        `json:"format"`
	Version int           `json:"version"`
	Name    string        `json:"name"`
	Rows    []corejob.Row `json:"rows"`
}

// JSON writes a job's list.
func JSON(j job.Job) ([]byte, error) {
	out := list{format, version, j.Name, []corejob.Row{}}
	for _, r := range j.Rows {
		out.Rows = append(out.Rows, r.Row)
	}
	return json.MarshalIndent(out, "", "  ")
}

// CSV writes a job's list as a table.
func CSV(j job.Job) ([]byte, error) {
	var out bytes.Buffer
	w := sheet.NewWriter(&out)
	if err := w.Write(corejob.Columns); err != nil {
		return nil, err
	}
	for _, r := range j.Rows {
		if err := w.Write(r.Cells()); err != nil {
			return nil, err
		}
	}
	w.Flush()
	return out.Bytes(), w.Error()
}

// Read reads a list in any of its forms: JSON as it is written here, a table,
// or sentences.
func Read(text string, bare measure.Unit, above *corejob.Row) []corejob.Line {
	if trimmed := bytes.TrimSpace([]byte(text)); len(trimmed) > 0 && trimmed[0] == '{' {
		return readJSON(trimmed)
	}
	return corejob.Read(text, bare, above)
}

func readJSON(raw []byte) []corejob.Line {
	whole := func(form string, with ...any) []corejob.Line {
		return []corejob.Line{{Number: 1, Text: "{…}", Faults: []corejob.Fault{{What: say.Of(form, with...)}}}}
	}
	var in struct {
		Format  string            `json:"format"`
		Version int               `json:"version"`
		Rows    []json.RawMessage `json:"rows"`
	}
	switch err := json.Unmarshal(raw, &in); {
	case err != nil:
		return whole("this isn't a list in JSON: %s", say.Word(err.Error()))
	case in.Format != format || in.Version < 1 || in.Version > version:
		return whole("this isn't a job file for this version of Corte, which has format %q and version %d", format, version)
	}
	var out []corejob.Line
	for i, text := range in.Rows[:min(len(in.Rows), corejob.Most)] {
		l := corejob.Line{Number: i + 1, Text: string(text[:min(len(text), 200)])}
		d := json.NewDecoder(bytes.NewReader(text))
		d.DisallowUnknownFields()
		err := d.Decode(&l.Row)
		_, unknown := material.Get(l.Row.Material)
		switch {
		case err != nil:
			l.Faults = append(l.Faults, corejob.Fault{What: say.Word(err.Error())})
		case unknown != nil:
			l.Faults = append(l.Faults, corejob.Fault{Field: "material", What: say.Error(unknown)})
		}
		if len(l.Faults) == 0 {
			l.Faults = l.Row.Check()
		}
		out = append(out, l)
	}
	return out
}

// Calendar writes a run sheet as blocks from a moment on: a turn an event, with
// what is cut in it, as a voice says it.
func Calendar(v say.Voice, j job.Job, from, now time.Time) []byte {
	cal := ics.NewCalendarFor("Corte")
	cal.SetMethod(ics.MethodPublish)
	cal.SetXWRCalName(j.Name)
	names := map[string]job.Row{}
	for _, r := range j.Rows {
		names[r.ID.String()] = r
	}
	at := func(min float64) time.Time { return from.Add(time.Duration(min * float64(time.Minute))).UTC() }
	if j.Sheet != nil {
		for i, t := range j.Sheet.Turns {
			e := cal.AddEvent(fmt.Sprintf("%s-%d@corte.invalid", j.ID, i))
			e.SetDtStampTime(now.UTC())
			e.SetStartAt(at(t.Begin))
			e.SetEndAt(at(t.End))
			e.SetSummary(fmt.Sprintf("%s: %s", t.SawName, t.BladeName))
			e.SetLocation(t.SawName)
			var does bytes.Buffer
			if t.Wash {
				does.WriteString(v.Say(say.Of("Clean it first.")) + "\n")
			}
			for _, c := range t.Cuts {
				fmt.Fprintf(&does, "%d × %s\n", c.Pieces, names[c.Row.String()].Name)
			}
			e.SetDescription(does.String())
		}
	}
	return []byte(cal.Serialize())
}
