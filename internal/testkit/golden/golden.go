// Package golden holds what a part of the core says of a scene to what it said
// when somebody read it over: every figure to six digits, every sentence to the
// letter. A long series of figures stands by its ends, bounds and mean, and what is
// in a table by its ID. A test that fails shows what has changed; where that is meant,
//
//	go test ./core/choose -accept
//
// writes it anew, and the difference is read over in the commit.
package golden

import (
	"bytes"
	"flag"
	"fmt"
	"math"
	"os"
	"path/filepath"
	"reflect"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"
	"time"

	"corte/core/measure"
	"corte/core/say"
	"corte/internal/locale"
)

var accept = flag.Bool("accept", false, "write the golden files anew")

// Check compares values, one a line and field, with testdata/name.golden.
func Check(t *testing.T, name string, values ...any) {
	t.Helper()
	var b writer
	for _, v := range values {
		write(&b, "", reflect.ValueOf(v))
	}
	for _, said := range b.said {
		if word := english.FindString(mute.Say(said)); word != "" {
			t.Errorf("%s: %q in %q is in no form, so that no other language has it", name, word, said)
		}
		for _, form := range locale.Lacks(said) {
			t.Errorf("%s: the form %q is in no catalogue of internal/locale: let scripts/forms find it", name, form)
		}
	}
	path := filepath.Join("testdata", name+".golden")
	if *accept {
		if err := os.MkdirAll("testdata", 0o755); err != nil {
			t.Fatal(err)
		}
		if err := os.WriteFile(path, []byte(b.String()), 0o644); err != nil {
			t.Fatal(err)
		}
	}
	want, err := os.ReadFile(path)
	if err != nil {
		t.Fatal(err)
	}
	got, was := strings.Split(b.String(), "\n"), strings.Split(string(want), "\n")
	for i := range max(len(got), len(was)) {
		switch {
		case i >= len(got):
			t.Fatalf("%s ends before line %d: %s", name, i+1, was[i])
		case i >= len(was):
			t.Fatalf("%s goes on with line %d: %s", name, i+1, got[i])
		case got[i] != was[i]:
			t.Fatalf("%s, line %d:\n%s, not\n%s", name, i+1, got[i], was[i])
		}
	}
}

// A writer also keeps what was said.
type writer struct {
	strings.Builder
	said []say.Line
}

// mute says of a line only what is in no form: names, dates and figures.
var (
	mute = say.Voice{Language: &say.Language{
		Form: func(form string) string { return strings.Join(verb.FindAllString(form, -1), " ") },
		Last: func(_, _ string) string { return " " },
		Date: "2 2006", Months: make([]string, 12),
	}}
	verb    = regexp.MustCompile(`%(\[\d+\])?[+.\d]*[a-z]`)
	english = regexp.MustCompile(`\b[a-z]{3,}\b`)
)

// write puts a value down under its path, without what is zero.
func write(b *writer, path string, v reflect.Value) {
	line := func(s string) { fmt.Fprintf(b, "%s: %s\n", strings.TrimPrefix(path, "."), s) }
	switch {
	case !v.IsValid(), v.IsZero() && path != "":
		return
	case v.Type().Name() == "UUID": // drawn anew each time
		return
	case v.Type() == reflect.TypeFor[time.Time]():
		line(v.Interface().(time.Time).UTC().Format(time.RFC3339))
		return
	case v.Kind() == reflect.Slice && v.Type().Elem().Kind() == reflect.Uint8:
		if !bytes.Contains(v.Bytes(), []byte("_id")) { // as a text; what names rows by their IDs is another each time
			line(string(v.Bytes()))
		}
		return
	case v.Kind() == reflect.Float64:
		line(strconv.FormatFloat(v.Float(), 'g', 6, 64))
		return
	case v.Type() == reflect.TypeFor[say.Line](): // in millimetres, and in inches where that is another sentence
		said := v.Interface().(say.Line)
		b.said = append(b.said, said)
		line(said.String())
		if in := (say.Voice{Unit: measure.Inch}).Say(said); in != said.String() {
			line(in)
		}
		return
	case v.CanInterface():
		if s, ok := v.Interface().(interface{ Said() say.Line }); ok && v.Kind() != reflect.Pointer {
			line(s.Said().String())
			return
		}
		if s, ok := v.Interface().(fmt.Stringer); ok && v.Kind() != reflect.Pointer {
			line(s.String())
			return
		}
	}
	switch v.Kind() {
	case reflect.Struct:
		if id := v.FieldByName("ID"); id.IsValid() && id.Kind() == reflect.String { // an entry of a table, which stands there
			line(id.String())
			return
		}
		for i := range v.NumField() {
			if f := v.Type().Field(i); f.IsExported() {
				write(b, path+"."+f.Name, v.Field(i))
			}
		}
	case reflect.Pointer, reflect.Interface:
		write(b, path, v.Elem())
	case reflect.Slice, reflect.Array:
		if series := figures(v); len(series) > few {
			line(fmt.Sprintf("%d figures from %.6g to %.6g, %.6g to %.6g, %.6g in the mean", len(series), series[0], series[len(series)-1], slices.Min(series), slices.Max(series), mean(series)))
			return
		}
		for i := range v.Len() {
			write(b, fmt.Sprintf("%s.%d", path, i), v.Index(i))
		}
	case reflect.Map:
		keys := v.MapKeys()
		slices.SortFunc(keys, func(a, b reflect.Value) int { return strings.Compare(fmt.Sprint(a), fmt.Sprint(b)) })
		for _, k := range keys {
			write(b, fmt.Sprintf("%s.%v", path, k), v.MapIndex(k))
		}
	default:
		line(fmt.Sprint(v))
	}
}

// few figures are written one by one; a longer series by its ends, bounds and mean.
const few = 9

// figures are the numbers of a series of numbers, or of points.
func figures(v reflect.Value) (out []float64) {
	for i := range v.Len() {
		switch at := v.Index(i); {
		case at.Kind() == reflect.Float64:
			out = append(out, at.Float())
		case (at.Kind() == reflect.Array || at.Kind() == reflect.Slice) && at.Len() > 0 && at.Index(0).Kind() == reflect.Float64:
			for k := range at.Len() {
				out = append(out, at.Index(k).Float())
			}
		default:
			return nil
		}
	}
	return out
}

func mean(series []float64) (sum float64) {
	for _, v := range series {
		sum += v
	}
	return math.Round(1e9*sum/float64(len(series))) / 1e9 // what cancels out is 0 on every machine
}
