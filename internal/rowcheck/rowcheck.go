// Package rowcheck checks a row of a shop against what Corte itself would write:
// types and ranges of every column, enumerations, and for blades and saws the
// checks of the contract and the core. A row is JSON, as in a shop file. It
// checks files before they are imported, and finds damaged rows in the database.
// References between rows are checked by the database.
package rowcheck

import (
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"strings"
	"sync"
	"time"

	"github.com/getkin/kin-openapi/openapi3"

	"corte/core/care"
	"corte/core/choose"
	"corte/core/guide"
	"corte/core/practice"
	"corte/core/saw"
	"corte/core/say"
	"corte/core/trace"
	"corte/internal/httpapi/contract"
	"corte/internal/logfile"
	"corte/internal/rackfile"
	"corte/internal/record"
	"corte/internal/shop/env"
	"corte/internal/shop/groove"
	"corte/internal/shop/job"
	"corte/internal/shop/own"
	"corte/internal/shop/run"
	"corte/internal/store"
)

// reader reads blades and saws as rack files are read.
var reader = sync.OnceValues(func() (*rackfile.Reader, error) {
	spec, err := contract.GetSpec()
	if err != nil {
		return nil, err
	}
	return rackfile.NewReader(spec, func(e *openapi3.SchemaError, field string) say.Line { return say.Of("%s: %s", field, e.Reason) }), nil
})

// Bounds of what Corte writes, with room to spare.
const (
	mostName = 200
	mostText = 4000
	mostStep = 100
)

var (
	earliest = time.Date(1900, 1, 1, 0, 0, 0, 0, time.UTC)
	latest   = time.Date(2200, 1, 1, 0, 0, 0, 0, time.UTC)
)

// Check reports what is wrong with a row of a table; nil for a good one.
func Check(table string, row json.RawMessage) error {
	check, ok := checks[table]
	if !ok {
		return fmt.Errorf("%s is not a known table", table)
	}
	if err := texts(row); err != nil {
		return err
	}
	return check(row)
}

// texts bounds what stands in columns of text, whichever they are.
func texts(row json.RawMessage) error {
	var columns map[string]any
	if err := json.Unmarshal(row, &columns); err != nil || columns == nil {
		return errors.New("this isn't a JSON object of columns")
	}
	for name, v := range columns {
		s, ok := v.(string)
		switch {
		case !ok || name == "body" || name == "jpeg" || name == "request":
		case len(s) > mostText:
			return fmt.Errorf("%s is longer than a text can be", name)
		case strings.ContainsRune(s, 0):
			return fmt.Errorf("%s holds a zero byte", name)
		case strings.HasSuffix(name, "name") && len(s) > mostName:
			return fmt.Errorf("%s is longer than a name can be", name)
		}
	}
	return nil
}

// of reads a row into its struct, and then checks that.
func of[R any](check func(R) error) func(json.RawMessage) error {
	return func(raw json.RawMessage) error {
		row, err := store.RowOf[R](raw)
		if err != nil {
			return err
		}
		return check(row)
	}
}

// checks are those of every table of a shop file.
var checks = map[string]func(json.RawMessage) error{
	"blades": func(raw json.RawMessage) error {
		b, err := store.BladeOfRow(raw)
		if err != nil {
			return err
		}
		rack, err := reader()
		if err != nil {
			return err
		}
		return rack.CheckBlade(b)
	},
	"saws": func(raw json.RawMessage) error {
		w, err := store.SawOfRow(raw)
		if err != nil {
			return err
		}
		rack, err := reader()
		if err != nil {
			return err
		}
		return rack.CheckSaw(w)
	},
	"conditions":  store.CheckConditionRow,
	"corrections": store.CheckCorrectionRow,
	"dado_sets": func(raw json.RawMessage) error {
		d, err := store.DadoSetOfRow(raw)
		if err != nil {
			return err
		}
		return d.Set.Check()
	},
	"log": of(func(e store.Entry) error {
		if err := dated(e.At); err != nil {
			return err
		}
		return logfile.Check(e)
	}),
	"members": of(func(m store.Member) error {
		if _, err := record.ParseRole(m.Role); err != nil {
			return err
		}
		return errors.Join(named(m.Name), dated(m.Since), maybe(m.Gone))
	}),
	"sign_offs": of(func(o struct {
		Cuts []string  `db:"cuts"`
		At   time.Time `db:"at"`
	}) error {
		for _, c := range o.Cuts {
			if !slices.Contains(guide.Duties(saw.Saw{}), guide.Duty(c)) {
				return fmt.Errorf("%q is not a kind of cut", c)
			}
		}
		return dated(o.At)
	}),
	"practised": of(func(p store.Practised) error {
		if !slices.Contains(practice.Skill(p.Skill).Drill().Skills(), practice.Skill(p.Skill)) {
			return fmt.Errorf("%q is not a skill of a drill", p.Skill)
		}
		return errors.Join(store.Counts(p.Level), dated(p.At))
	}),
	"photos": of(func(p struct {
		At time.Time `db:"at"`
	}) error {
		return dated(p.At)
	}),
	"grooves": of(groove.Readable),
	"mountings": of(func(m store.Mounting) error {
		var answers map[string]bool
		if err := json.Unmarshal(m.Answers, &answers); err != nil {
			return errors.New("answers must be true or false")
		}
		return errors.Join(step(m.Step), dated(m.Started))
	}),
	"baths": of(func(b store.Bath) error {
		_, err := care.CleanerByID(b.Cleaner)
		return errors.Join(err, named(b.Name), store.Figures(b.Length.Mm(), b.Width.Mm(), b.Depth.Mm(), b.Litres), store.Counts(b.Uses, b.Strained), dated(b.Made))
	}),
	"washes": of(func(w store.Wash) error {
		_, err := care.CleanerByID(w.Cleaner)
		if len(w.Blades) == 0 {
			err = errors.Join(err, errors.New("no blade is in this wash"))
		}
		return errors.Join(err, care.CheckBrush(care.Brush(w.Brush)), step(w.Step), dated(w.StepAt), dated(w.Started))
	}),
	"trials": of(run.ReadableTrial),
	"traces": of(func(t store.Trace) error {
		var facts []trace.Fact
		var answers map[string]string
		var cut map[string]any
		if errors.Join(json.Unmarshal(t.Facts, &facts), json.Unmarshal(t.Answers, &answers), json.Unmarshal(t.Cut, &cut)) != nil {
			return errors.New("facts, answers or cut have the wrong form")
		}
		return errors.Join(dated(t.Started), maybe(t.Ended))
	}),
	"jobs": of(func(j store.Job) error {
		return errors.Join(job.Readable(j), named(j.Name), dated(j.Created), maybe(j.Planned), maybe(j.Ended))
	}),
	"job_ticks": of(func(t store.JobTick) error {
		if max(t.Made, -t.Made, t.Spoilt, -t.Spoilt) > 100_000 || t.Seconds < 0 || t.Seconds > 36_000 {
			return errors.New("pieces are at most 100,000, and seconds at most ten hours")
		}
		return dated(t.At)
	}),
	"owning": of(func(o struct {
		Notes []byte `db:"notes"`
	}) error {
		return own.Readable(o.Notes)
	}),
	"idempotency": of(func(a struct {
		Key     string            `db:"key"`
		Status  *int              `db:"status"`
		Headers map[string]string `db:"headers"`
	}) error {
		if len(a.Key) > mostName || a.Status != nil && *a.Status/100 != 2 {
			return errors.New("this isn't a stored answer")
		}
		for name, value := range a.Headers {
			known := slices.Contains(answerHeaders, name)
			if !known || strings.ContainsAny(value, "\r\n") || name == "Content-Type" && strings.Contains(value, "html") {
				return fmt.Errorf("a stored answer can't have the header %s: %s", name, value)
			}
		}
		return nil
	}),
}

// answerHeaders are those that a kept answer may have.
var answerHeaders = []string{"Content-Type", "Etag", "ETag", "Location", "Content-Length", "X-Request-Id", "Retry-After"}

// Settings reports what is wrong with a shop's own settings in a file.
func Settings(raw json.RawMessage) error {
	sh, err := store.RowOf[store.Shop](raw)
	if err != nil {
		return err
	}
	if err := texts(raw); err != nil {
		return err
	}
	if err := env.CheckZone(sh); err != nil {
		return err
	}
	if sh.HeightSchool != "" {
		if _, err := choose.ParseSchool(sh.HeightSchool); err != nil {
			return err
		}
	}
	if sh.SignOff != "" && !slices.Contains([]string{"off", "caution", "stop"}, sh.SignOff) {
		return fmt.Errorf("sign_off must be off, caution or stop, not %q", sh.SignOff)
	}
	for _, d := range strings.FieldsFunc(sh.Drills, func(r rune) bool { return r == ',' }) {
		if !slices.Contains(practice.Drills(), practice.Drill(d)) {
			return fmt.Errorf("%q is not a drill", d)
		}
	}
	between := func(v, lo, hi float64) bool { return v >= lo && v <= hi }
	if !between(sh.ChangeMinutes, 0, 120) || !between(sh.Sharpening, 0, 100_000) || sh.Rework != 0 && !between(sh.Rework, 0.25, 4) {
		return errors.New("change minutes, sharpening price or rework are out of range")
	}
	return named(sh.Name)
}

func dated(at time.Time) error {
	if at.Before(earliest) || at.After(latest) {
		return fmt.Errorf("%s is outside the years 1900 to 2200", at.Format(time.RFC3339))
	}
	return nil
}

func maybe(at *time.Time) error {
	if at == nil {
		return nil
	}
	return dated(*at)
}

func named(name string) error {
	if strings.TrimSpace(name) == "" || strings.ContainsAny(name, "\r\n") {
		return errors.New("the name is empty or has line breaks")
	}
	return nil
}

func step(n int) error {
	if n < 0 || n > mostStep {
		return fmt.Errorf("there is no step %d", n)
	}
	return nil
}
