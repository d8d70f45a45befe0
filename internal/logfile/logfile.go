// Package logfile is the log as a file: CSV, or JSON with a published schema.
// What goes out comes back: every row of a file that Corte wrote can be read
// again, and a list that somebody kept by hand needs no more than a date, a
// blade and what was done.
package logfile

import (
	"bytes"
	"cmp"
	_ "embed" // for the schema
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"maps"
	"slices"
	"strconv"
	"strings"
	"time"

	"github.com/google/uuid"

	"corte/core/care"
	"corte/core/cut"
	"corte/core/history"
	"corte/core/material"
	"corte/core/measure"
	"corte/core/outcome"
	"corte/core/verdict"
	"corte/internal/sheet"
	"corte/internal/store"
)

// Schema is the JSON Schema of a log as JSON.
//
//go:embed schema.json
var Schema json.RawMessage

// A Record is one row of a file. Blades and saws are named for who reads it; the
// ids beside them say which of two that are called the same.
type Record struct {
	At      time.Time       `json:"at"`
	Kind    string          `json:"kind"`
	Blade   string          `json:"blade,omitempty"`
	Saw     string          `json:"saw,omitempty"`
	BladeID *uuid.UUID      `json:"blade_id,omitempty"`
	SawID   *uuid.UUID      `json:"saw_id,omitempty"`
	By      string          `json:"by,omitempty"`
	Note    string          `json:"note,omitempty"`
	Cut     *history.Cut    `json:"cut,omitempty"`    // of a cut
	More    json.RawMessage `json:"detail,omitempty"` // of any other kind
}

// RecordOf is a row of the log as it goes into a file.
func RecordOf(e store.Entry) (Record, error) {
	r := Record{At: e.At.UTC(), Kind: string(e.Kind), BladeID: e.Blade, SawID: e.Saw, By: e.By, Note: e.Note}
	if e.BladeName != nil {
		r.Blade = *e.BladeName
	}
	if e.SawName != nil {
		r.Saw = *e.SawName
	}
	if e.Kind == history.KindCut {
		r.Cut = new(history.Cut)
		if json.Unmarshal(e.Detail, r.Cut) == nil {
			return r, nil
		}
		r.Cut = nil // it goes out as it stands, so that somebody can repair it
	}
	if !bytes.Equal(e.Detail, []byte("{}")) {
		r.More = e.Detail
	}
	return r, nil
}

// A habit is how people who write files by hand mean what they leave out.
type habit struct {
	unit measure.Unit   // of lengths without one
	zone *time.Location // of times without one
}

// A column of a CSV file, and how a record holds it.
type column struct {
	name string
	get  func(Record) string
	set  func(*Record, string, habit) error
}

func ofCut(name string, get func(*history.Cut) string, set func(*history.Cut, string, habit) error) column {
	return column{name, func(r Record) string {
		if r.Cut == nil {
			return ""
		}
		return get(r.Cut)
	}, func(r *Record, v string, in habit) error {
		if r.Cut == nil {
			r.Cut = new(history.Cut)
		}
		return set(r.Cut, v, in)
	}}
}

func word[T ~string](name string, field func(*history.Cut) *T) column {
	return ofCut(name, func(d *history.Cut) string { return string(*field(d)) },
		func(d *history.Cut, v string, _ habit) error { *field(d) = T(v); return nil })
}

// quantity is a number that is left out where it is 0.
func quantity[T ~float64](name string, field func(*history.Cut) *T, read func(string, habit) (T, error)) column {
	return ofCut(name, func(d *history.Cut) string {
		if *field(d) == 0 {
			return ""
		}
		return strconv.FormatFloat(float64(*field(d)), 'f', -1, 64)
	}, func(d *history.Cut, v string, in habit) (err error) {
		*field(d), err = read(v, in)
		return err
	})
}

// length is in millimetres going out, and coming in as people write lengths.
func length(name string, field func(*history.Cut) *measure.Length) column {
	return quantity(name, field, func(v string, in habit) (measure.Length, error) { return measure.Parse(v, in.unit) })
}

func number(name string, field func(*history.Cut) *float64) column {
	return quantity(name, field, func(v string, _ habit) (float64, error) {
		n, err := strconv.ParseFloat(v, 64)
		if err != nil {
			err = fmt.Errorf("%q is not a number", v)
		}
		return n, err
	})
}

// heard is a speed of a cut that somebody listened to.
func heard(name string, field func(*history.Heard) *float64) column {
	speed := number(name, func(d *history.Cut) *float64 { return field(d.Heard) })
	return ofCut(name, func(d *history.Cut) string {
		if d.Heard == nil {
			return ""
		}
		return speed.get(Record{Cut: d})
	}, func(d *history.Cut, v string, in habit) error {
		if d.Heard == nil {
			d.Heard = new(history.Heard)
		}
		return speed.set(&Record{Cut: d}, v, in)
	})
}

// which is the id of a blade or a saw.
func which(name string, field func(*Record) **uuid.UUID) column {
	return column{name, func(r Record) string {
		if id := *field(&r); id != nil {
			return id.String()
		}
		return ""
	}, func(r *Record, v string, _ habit) error {
		id, err := uuid.Parse(v)
		if err != nil {
			return fmt.Errorf("%q is not an id", v)
		}
		*field(r) = &id
		return nil
	}}
}

var columns = []column{
	{"at", func(r Record) string { return r.At.Format(time.RFC3339Nano) }, func(r *Record, v string, in habit) (err error) {
		for _, form := range []string{time.RFC3339Nano, "2006-01-02 15:04", "2006-01-02T15:04", "2006-01-02"} {
			if r.At, err = time.ParseInLocation(form, v, in.zone); err == nil {
				return nil
			}
		}
		return fmt.Errorf("%q is not a date such as 2026-05-12 or 2026-05-12 14:30", v)
	}},
	{"kind", func(r Record) string { return r.Kind }, func(r *Record, v string, _ habit) error { r.Kind = v; return nil }},
	{"blade", func(r Record) string { return r.Blade }, func(r *Record, v string, _ habit) error { r.Blade = v; return nil }},
	{"saw", func(r Record) string { return r.Saw }, func(r *Record, v string, _ habit) error { r.Saw = v; return nil }},
	{"by", func(r Record) string { return r.By }, func(r *Record, v string, _ habit) error { r.By = v; return nil }},
	{"note", func(r Record) string { return r.Note }, func(r *Record, v string, _ habit) error { r.Note = v; return nil }},
	word("material", func(d *history.Cut) *string { return &d.Material }),
	word("direction", func(d *history.Cut) *string { return &d.Direction }),
	word("motion", func(d *history.Cut) *string { return &d.Motion }),
	word("finish", func(d *history.Cut) *string { return &d.Finish }),
	word("form", func(d *history.Cut) *string { return &d.Form }),
	length("thickness_mm", func(d *history.Cut) *measure.Length { return &d.Thickness }),
	length("width_mm", func(d *history.Cut) *measure.Length { return &d.Width }),
	length("length_mm", func(d *history.Cut) *measure.Length { return &d.Length }),
	length("depth_mm", func(d *history.Cut) *measure.Length { return &d.Depth }),
	length("height_mm", func(d *history.Cut) *measure.Length { return &d.Height }),
	number("bevel_deg", func(d *history.Cut) *float64 { return &d.Bevel }),
	number("miter_deg", func(d *history.Cut) *float64 { return &d.Miter }),
	number("feed_m_min", func(d *history.Cut) *float64 { return &d.Feed }),
	number("seconds", func(d *history.Cut) *float64 { return &d.Seconds }),
	ofCut("pieces", func(d *history.Cut) string { return strconv.Itoa(d.Pieces) }, func(d *history.Cut, v string, _ habit) (err error) {
		if d.Pieces, err = strconv.Atoi(v); err != nil {
			err = fmt.Errorf("%q pieces is not a count", v)
		}
		return err
	}),
	number("metres", func(d *history.Cut) *float64 { return &d.Metres }),
	word("exit_support", func(d *history.Cut) *string { return &d.Exit }),
	word("other_support", func(d *history.Cut) *string { return &d.Other }),
	word("wall", func(d *history.Cut) *outcome.Wall { return &d.Wall }),
	word("splinters", func(d *history.Cut) *outcome.Face { return &d.Splinters }),
	word("other_splinters", func(d *history.Cut) *outcome.Face { return &d.OtherSplinters }),
	word("effort", func(d *history.Cut) *outcome.Effort { return &d.Effort }),
	word("noise", func(d *history.Cut) *outcome.Noise { return &d.Noise }),
	heard("heard_idle_rpm", func(h *history.Heard) *float64 { return &h.Idle }),
	heard("heard_mean_rpm", func(h *history.Heard) *float64 { return &h.Mean }),
	heard("heard_least_rpm", func(h *history.Heard) *float64 { return &h.Least }),
	ofCut("came_back", func(d *history.Cut) string {
		if d.CameBack == nil {
			return ""
		}
		return strconv.FormatBool(*d.CameBack)
	}, func(d *history.Cut, v string, _ habit) error {
		b, err := strconv.ParseBool(v)
		d.CameBack = &b
		return err
	}),
	ofCut("both_faces", func(d *history.Cut) string {
		if !d.BothFaces {
			return ""
		}
		return "true"
	}, func(d *history.Cut, v string, _ habit) (err error) {
		d.BothFaces, err = strconv.ParseBool(v)
		return err
	}),
	word("moisture", func(d *history.Cut) *string { return &d.Moisture }),
	ofCut("moves", func(d *history.Cut) string {
		if !d.Moves {
			return ""
		}
		return "true"
	}, func(d *history.Cut, v string, _ habit) (err error) {
		d.Moves, err = strconv.ParseBool(v)
		return err
	}),
	ofCut("wears", func(d *history.Cut) string { return asJSON(d.Wears) }, func(d *history.Cut, v string, _ habit) error {
		return json.Unmarshal([]byte(v), &d.Wears)
	}),
	ofCut("foretold", func(d *history.Cut) string { return asJSON(d.Foretold) }, func(d *history.Cut, v string, _ habit) error {
		return json.Unmarshal([]byte(v), &d.Foretold)
	}),
	{"detail", func(r Record) string { return string(r.More) }, func(r *Record, v string, _ habit) error {
		if !json.Valid([]byte(v)) {
			return errors.New("detail is not JSON")
		}
		r.More = json.RawMessage(v)
		return nil
	}},
	which("blade_id", func(r *Record) **uuid.UUID { return &r.BladeID }),
	which("saw_id", func(r *Record) **uuid.UUID { return &r.SawID }),
}

// A Writer writes rows to a file as they come, so that a long log need not be
// held.
type Writer struct {
	csv  *sheet.Writer // nil for JSON
	out  io.Writer
	rows int
}

// asJSON is what a cell of several values holds; empty where there are none.
func asJSON[T any](v *T) string {
	if v == nil {
		return ""
	}
	raw, _ := json.Marshal(v)
	return string(raw)
}

// NewWriter begins a file, as CSV or as JSON.
func NewWriter(out io.Writer, asCSV bool) (*Writer, error) {
	w := &Writer{out: out}
	if !asCSV {
		_, err := io.WriteString(out, "{\"format\": \"corte-log\", \"version\": 1, \"rows\": [")
		return w, err
	}
	w.csv = sheet.NewWriter(out)
	head := make([]string, len(columns))
	for i, c := range columns {
		head[i] = c.name
	}
	return w, w.csv.Write(head)
}

// Write adds a row.
func (w *Writer) Write(e store.Entry) error {
	r, err := RecordOf(e)
	if err != nil {
		return err
	}
	w.rows++
	if w.csv != nil {
		cells := make([]string, len(columns))
		for i, c := range columns {
			cells[i] = c.get(r)
		}
		return w.csv.Write(cells)
	}
	raw, err := json.Marshal(r)
	if err != nil {
		return err
	}
	sep := ",\n"
	if w.rows == 1 {
		sep = "\n"
	}
	_, err = w.out.Write(append([]byte(sep), raw...))
	return err
}

// Close ends the file.
func (w *Writer) Close() error {
	if w.csv != nil {
		w.csv.Flush()
		return w.csv.Error()
	}
	_, err := io.WriteString(w.out, "\n]}\n")
	return err
}

// A Row is a record of a file, or why it cannot be one.
type Row struct {
	Line int
	Record
	Err error
}

// mostRows is how many rows one file may hold.
const mostRows = 200_000

// Read reads a file row by row: JSON where it begins with a brace, else CSV
// with its columns named in the first line, in any order. Lengths without a
// unit are in u, and times without an offset in a zone. The error is about the
// file as a whole.
func Read(file []byte, u measure.Unit, zone *time.Location) ([]Row, error) {
	file = bytes.TrimPrefix(file, []byte("\xef\xbb\xbf"))
	if bytes.HasPrefix(bytes.TrimSpace(file), []byte("{")) {
		return readJSON(file)
	}
	table, err := sheet.Open(string(file))
	if err != nil {
		return nil, err
	}
	at := make([]*column, len(table.Columns))
	for i, name := range table.Columns {
		for k := range columns {
			if columns[k].name == name {
				at[i] = &columns[k]
			}
		}
		if at[i] == nil && name != "" {
			return nil, fmt.Errorf("column %q is not one that Corte knows; docs/operation.md lists them", name)
		}
	}
	if !slices.Contains(table.Columns, "at") || !slices.Contains(table.Columns, "kind") {
		return nil, errors.New("the file needs the columns at and kind")
	}
	var out []Row
	for {
		line, cells, err := table.Next()
		if err == io.EOF {
			return out, nil
		}
		row := Row{Line: line, Err: err}
		for _, i := range slices.Sorted(maps.Keys(cells)) {
			if at[i] != nil && row.Err == nil {
				row.Err = at[i].set(&row.Record, cells[i], habit{u, zone})
			}
		}
		if row.Err == nil {
			row.Err = row.check(true)
		}
		if out = append(out, row); len(out) > mostRows {
			return nil, fmt.Errorf("the file has more than %d rows. Import it in parts", mostRows)
		}
	}
}

func readJSON(file []byte) ([]Row, error) {
	var whole struct {
		Format  string            `json:"format"`
		Version int               `json:"version"`
		Rows    []json.RawMessage `json:"rows"`
	}
	if err := json.Unmarshal(file, &whole); err != nil {
		return nil, fmt.Errorf("the file is not JSON: %w", err)
	}
	if whole.Format != "corte-log" || whole.Version != 1 {
		return nil, errors.New("this isn't a Corte log: format must be corte-log and version 1")
	}
	if len(whole.Rows) > mostRows {
		return nil, fmt.Errorf("the file has more than %d rows. Import it in parts", mostRows)
	}
	out := make([]Row, len(whole.Rows))
	for i, raw := range whole.Rows {
		out[i].Line = i + 1
		d := json.NewDecoder(bytes.NewReader(raw))
		d.DisallowUnknownFields()
		if out[i].Err = d.Decode(&out[i].Record); out[i].Err == nil {
			out[i].Err = out[i].check(true)
		}
	}
	return out, nil
}

// Check refuses a row of the log that Corte would not have written, one of
// another row or of the rack among them.
func Check(e store.Entry) error {
	var about any
	switch e.Kind {
	case history.KindStruck, history.KindRestored:
		about = &struct{}{}
	case history.KindRetired:
		about = &history.Retired{}
	case history.KindCompared:
		about = &history.Compared{}
	case history.KindTraced:
		about = &history.Traced{}
	default:
		r, err := RecordOf(e)
		if err != nil {
			return fmt.Errorf("detail of a row of kind %s: %w", e.Kind, err)
		}
		if r.Cut == nil && e.Kind == history.KindCut {
			return errors.New("the cut can't be read")
		}
		return r.check(false)
	}
	return readDetail(e.Kind, e.Detail, about, false)
}

// readDetail reads what a row holds beside what every row has. strict refuses fields
// that are not known; a row that an older Corte wrote may have some.
func readDetail(kind history.Kind, raw json.RawMessage, into any, strict bool) error {
	d := json.NewDecoder(bytes.NewReader(raw))
	if strict {
		d.DisallowUnknownFields()
	}
	if err := d.Decode(into); err != nil {
		return fmt.Errorf("detail of a row of kind %s: %w", kind, err)
	}
	return nil
}

// check refuses what no log could hold. known says whether the material of a cut
// must stand in today's table, and every field be one of today's.
func (r *Record) check(known bool) error {
	if r.At.IsZero() {
		return errors.New("enter the date in the column at")
	}
	for name, v := range map[string]string{"blade": r.Blade, "saw": r.Saw, "by": r.By} {
		if strings.ContainsAny(v, "\r\n\x00") {
			return fmt.Errorf("%s holds a line break or a zero byte; write it in one line", name)
		}
	}
	if strings.ContainsRune(r.Note, 0) || bytes.Contains(r.More, []byte(`\u0000`)) {
		return errors.New("it contains a zero byte, which can't be saved. Type the text again")
	}
	var into any
	switch history.Kind(r.Kind) {
	case history.KindCut:
		return r.checkCut(known)
	case history.KindWashed:
		into = &history.Washed{}
	case history.KindSharpened, history.KindReturned:
		into = &history.Sharpened{}
	case history.KindSent:
		into = &history.Sent{}
	case history.KindJudged:
		into = &history.Judged{}
	case history.KindInspected:
		into = &history.Inspected{}
	case history.KindMended:
		into = &history.Mended{}
	case history.KindGrooved:
		into = &history.Grooved{}
	case history.KindRenewed:
		into = &history.Renewed{}
	case history.KindHeel, history.KindFence, history.KindRunOut, history.KindTilt, history.KindGauge, history.KindClearance:
		into = &history.Truing{}
	case history.KindNoted, history.KindMounted, history.KindDismounted, history.KindMoved:
		into = &struct{}{}
	case history.KindStruck, history.KindRetired, history.KindRestored, history.KindCompared, history.KindTraced:
		return fmt.Errorf("rows of kind %s aren't imported: they belong to other rows or to the blades", r.Kind)
	default:
		return fmt.Errorf("%q is not a kind of row; use cut, washed, sharpened, noted, inspected, judged or another of docs/operation.md", r.Kind)
	}
	r.Cut = nil
	if r.More != nil {
		if err := readDetail(history.Kind(r.Kind), r.More, into, known); err != nil {
			return err
		}
	}
	return sense(into)
}

// sense refuses figures and words of a detail that nothing real has.
func sense(detail any) error {
	oneOf := func(what, v string, words ...string) error {
		if v != "" && !slices.Contains(words, v) {
			return fmt.Errorf("%s %q is none of %s", what, v, strings.Join(words, ", "))
		}
		return nil
	}
	const dearest, mostMm, mostTeeth = 1e6, 1000, 1000
	switch d := detail.(type) {
	case *history.Washed:
		if d.Cleaner != "" {
			if _, err := care.CleanerByID(d.Cleaner); err != nil {
				return err
			}
		}
		return errors.Join(oneOf("brush", d.Brush, string(care.Nylon), string(care.Brass), string(care.Steel)), within("blades in one bath", float64(d.With), 0, 1000))
	case *history.Sharpened:
		left := 0
		if d.Left != nil {
			left = *d.Left
		}
		return errors.Join(within("price", d.Price, 0, dearest), within("kerf_mm", d.Kerf.Mm(), 0, mostMm), within("diameter_mm", d.Diameter.Mm(), 0, mostMm),
			within("teeth_replaced", float64(d.Replaced), 0, mostTeeth), within("sharpenings_left", float64(left), 0, mostTeeth))
	case *history.Sent:
		return within("price_asked", d.Asked, 0, dearest)
	case *history.Judged:
		if care.ParseSaying(d.Says) == 0 {
			return fmt.Errorf("%q is not a judgment; use dull, half-worn, sharp, hard, pitchy, like-new or hit", d.Says)
		}
	case *history.Inspected:
		if d.Fault != "" && !slices.Contains(care.Faults(), care.Fault(d.Fault)) {
			return fmt.Errorf("%q is not a blade fault", d.Fault)
		}
		if v := d.Survey; v != nil {
			return errors.Join(within("teeth", float64(max(v.Missing, v.Chipped, v.Loose)), 0, mostTeeth), within("teeth", float64(min(v.Missing, v.Chipped, v.Loose)), 0, mostTeeth),
				oneOf("after", v.After, "lost-tip", "hit", "doubt"), oneOf("seat", v.Seat, "ground", "saw-marks"), oneOf("braze", v.Braze, "even", "squeezed"), oneOf("rest", v.Rest, "sharp", "worn"),
				oneOf("pitch", v.Pitch, "none", "light", "caked"), oneOf("crack", v.Crack, "none", "gullet", "slot"), oneOf("beside", v.Beside, "even", "shifted"))
		}
	case *history.Grooved:
		if slices.ContainsFunc(d.Width, func(w measure.Length) bool { return !(w > 0 && w < 100) }) {
			return errors.New("a groove is between 0 and 100 mm wide")
		}
		return errors.Join(within("target_mm", d.Target.Mm(), 0, mostMm), within("depth_mm", d.Depth.Mm(), 0, mostMm), within("made", float64(d.Made), 0, 1e6))
	case *history.Truing:
		for _, l := range []*measure.Length{d.Heel, d.Open} {
			if l != nil {
				if err := within("a reading", l.Mm(), -mostMm, mostMm); err != nil {
					return err
				}
			}
		}
		var v verdict.Verdict
		if d.Verdict != "" {
			if err := v.UnmarshalText([]byte(d.Verdict)); err != nil {
				return err
			}
		}
		return errors.Join(within("figure", d.Figure, -mostMm, mostMm), oneOf("figure_unit", d.Unit, "mm", "deg"))
	}
	return nil
}

func within(what string, v, lo, hi float64) error {
	if !(v >= lo && v <= hi) {
		return fmt.Errorf("%s is %g; it must be between %g and %g", what, v, lo, hi)
	}
	return nil
}

func (r *Record) checkCut(known bool) error {
	d := r.Cut
	if d == nil {
		return errors.New("a cut needs at least material, thickness_mm, width_mm and length_mm")
	}
	m, err := material.Get(d.Material)
	if err != nil && known {
		return err
	}
	defaults := []struct {
		field *string
		usual string
	}{{&d.Direction, "rip"}, {&d.Finish, "hidden"}, {&d.Motion, "along"}, {&d.Exit, "open"}, {&d.Other, "open"}}
	for _, f := range defaults {
		if *f.field == "" {
			*f.field = f.usual
		}
	}
	d.Wall, d.Splinters = cmp.Or(d.Wall, outcome.Clean), cmp.Or(d.Splinters, outcome.None)
	d.Pieces = cmp.Or(d.Pieces, 1)
	j := cut.Job{Material: m, Thickness: measure.Length(d.Thickness), Width: measure.Length(d.Width), Length: measure.Length(d.Length),
		Depth: measure.Length(d.Depth), BevelDeg: d.Bevel, MiterDeg: d.Miter}
	var errs [5]error
	j.Direction, errs[0] = cut.ParseDirection(d.Direction)
	j.Motion, errs[1] = cut.ParseMotion(d.Motion)
	j.Finish, errs[2] = cut.ParseFinish(d.Finish)
	j.Moisture, errs[4] = cut.ParseMoisture(d.Moisture)
	if d.Form != "" {
		j.Form, errs[3] = cut.ParseForm(d.Form)
	}
	if err := errors.Join(errs[:]...); err != nil {
		return err
	}
	if err := j.Check(); err != nil {
		return err
	}
	if err := store.Figures(d.Height.Mm(), d.Feed, d.Metres, d.Seconds); err != nil {
		return err
	}
	for _, u := range []string{d.Exit, d.Other} {
		if _, err := cut.ParseSupport(u); err != nil {
			return err
		}
	}
	if err := errors.Join(graded("wall", d.Wall, outcome.Walls), graded("splinters", d.Splinters, outcome.Faces), graded("other_splinters", d.OtherSplinters, outcome.Faces),
		graded("effort", d.Effort, outcome.Efforts), graded("noise", d.Noise, outcome.Noises)); err != nil {
		return err
	}
	if h := d.Heard; h != nil && !(h.Least > 0 && h.Least <= h.Mean && h.Mean <= h.Idle && h.Idle <= 20_000) {
		return errors.New("a saw was heard at speeds that rise from the least over the mean to the idle one, at most 20,000 a minute")
	}
	if d.Pieces < 1 || d.Pieces > 9999 || d.Seconds < 0 || d.Seconds > 36_000 || d.Metres < 0 || d.Metres > 100_000 {
		return errors.New("pieces are 1 to 9,999, metres at most 100,000, and seconds at most ten hours")
	}
	return nil
}

// graded refuses a grade that is none of its type's.
func graded[T ~string](name string, v T, of []T) error {
	if v == "" || outcome.Rank(v, of) >= 0 {
		return nil
	}
	words := make([]string, len(of))
	for i, w := range of {
		words[i] = string(w)
	}
	return fmt.Errorf("%s %q is none of %s", name, v, strings.Join(words, ", "))
}
