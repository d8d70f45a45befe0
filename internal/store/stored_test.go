package store

import (
	"bytes"
	"encoding/json"
	"os"
	"path/filepath"
	"reflect"
	"strconv"
	"testing"
	"time"

	"github.com/google/uuid"

	"corte/core/care"
	"corte/core/groove"
	"corte/core/history"
	"corte/core/saw"
	"corte/core/say"
	"corte/core/truing"
)

// A way is how something is written and read.
type way struct {
	write func(any) ([]byte, error)
	read  func([]byte) (any, error)
}

// plain is the way of a detail of the log, which is kept as it is.
func plain[T any]() way {
	return way{json.Marshal, func(raw []byte) (any, error) {
		var v T
		d := json.NewDecoder(bytes.NewReader(raw))
		d.DisallowUnknownFields()
		err := d.Decode(&v)
		return v, err
	}}
}

func by[T any](write func(T) ([]byte, error), read func([]byte) (T, error)) way {
	return way{func(v any) ([]byte, error) { return write(v.(T)) }, func(raw []byte) (any, error) { return read(raw) }}
}

// Everything that is kept as JSON is written as the golden files have it, field
// by field, and read from them: a name that changed would lose what is kept.
func TestWhatIsKeptIsReadAgain(t *testing.T) {
	for name, kept := range map[string]struct {
		zero any
		way
	}{
		"condition":  {care.Condition{}, by(writeCondition, readCondition)},
		"set":        {groove.Set{}, by(writeSet, readSet)},
		"tolerances": {truing.Tolerances{}, by(writeTolerances, readTolerances)},
		"held":       {heldOfTwo(), by(writeHeld, func(raw []byte) (groove.Held, error) { return readHeld(raw, groove.Set{Parts: []groove.Part{{}}}) })},
		"cut":        {history.Cut{}, plain[history.Cut]()},
		"washed":     {history.Washed{}, plain[history.Washed]()},
		"sharpened":  {history.Sharpened{}, plain[history.Sharpened]()},
		"sent":       {history.Sent{}, plain[history.Sent]()},
		"judged":     {history.Judged{}, plain[history.Judged]()},
		"inspected":  {history.Inspected{}, plain[history.Inspected]()},
		"mended":     {history.Mended{}, plain[history.Mended]()},
		"compared":   {history.Compared{}, plain[history.Compared]()},
		"retired":    {history.Retired{}, plain[history.Retired]()},
		"truing":     {history.Truing{}, plain[history.Truing]()},
		"grooved":    {history.Grooved{}, plain[history.Grooved]()},
		"renewed":    {history.Renewed{}, plain[history.Renewed]()},
		"traced":     {history.Traced{}, plain[history.Traced]()},
	} {
		full := reflect.New(reflect.TypeOf(kept.zero)).Elem()
		full.Set(reflect.ValueOf(kept.zero))
		if n := 0; full.IsZero() {
			fill(full, &n)
		}
		raw, err := kept.write(full.Interface())
		if err != nil {
			t.Fatal(err)
		}
		var tidy bytes.Buffer
		_ = json.Indent(&tidy, raw, "", "  ")
		path := filepath.Join("testdata", "stored", name+".json")
		if *update {
			if err := os.WriteFile(path, append(tidy.Bytes(), '\n'), 0o644); err != nil {
				t.Fatal(err)
			}
		}
		golden, err := os.ReadFile(path)
		if err != nil {
			t.Fatal(err)
		}
		if got := bytes.TrimSpace(golden); !bytes.Equal(got, tidy.Bytes()) {
			t.Errorf("%s is written as\n%s, not\n%s: where a field was added, -update; where one was renamed, read the old name too", name, &tidy, got)
		}
		if back, err := kept.read(golden); err != nil || !reflect.DeepEqual(back, full.Interface()) {
			t.Errorf("%s is read as\n%+v, not\n%+v (%v)", name, back, full.Interface(), err)
		}
	}
}

// heldOfTwo is what is held of an outer pair and one chipper.
func heldOfTwo() groove.Held {
	h, _ := groove.Set{Parts: []groove.Part{{}}}.Hold([]float64{0.01, -0.02}, [][]float64{{4e-4, 1e-5}, {1e-5, 9e-4}}, []int{3, 2}, 4)
	return h
}

// fill gives every field a value of its own, so that none can stand for another.
func fill(v reflect.Value, n *int) {
	*n++
	switch v.Interface().(type) {
	case time.Time:
		v.Set(reflect.ValueOf(time.Date(2026, 3, 1, 12, 0, *n, 0, time.UTC)))
		return
	case uuid.UUID:
		v.Set(reflect.ValueOf(uuid.UUID{15: byte(*n)}))
		return
	case json.RawMessage:
		v.SetBytes([]byte(`{}`))
		return
	case say.Line:
		v.Set(reflect.ValueOf(say.Of("said %s", say.Word(strconv.Itoa(*n)))))
		return
	case groove.Kind, saw.Side:
		v.SetUint(1)
		return
	}
	switch v.Kind() {
	case reflect.Struct:
		for i := range v.NumField() {
			fill(v.Field(i), n)
		}
	case reflect.Pointer:
		v.Set(reflect.New(v.Type().Elem()))
		fill(v.Elem(), n)
	case reflect.Slice:
		v.Set(reflect.MakeSlice(v.Type(), 2, 2))
		fill(v.Index(0), n)
		fill(v.Index(1), n)
	case reflect.Bool:
		v.SetBool(true)
	case reflect.Int:
		v.SetInt(int64(*n))
	case reflect.Float64:
		v.SetFloat(float64(*n) + 0.25)
	case reflect.String:
		v.SetString("word " + string(rune('a'+*n%26)))
	}
}

// The first sets and tolerances had no version and the core's own names.
func TestWhatWasFirstKeptIsReadAgain(t *testing.T) {
	raw, err := os.ReadFile("testdata/stored/set-first.json")
	if err != nil {
		t.Fatal(err)
	}
	want := groove.Set{Left: 3.2, Right: 3.1, Wings: 2, Ears: 0.08, Parts: []groove.Part{{Thickness: 3.2, Count: 2}, {Thickness: 0.1, Count: 4, Shim: true}},
		Ranges: []groove.Range{{Cutters: 2, Least: 6.4, Most: 12.7, Start: 6.5, Turn: 1.25}}}
	if got, err := readSet(raw); err != nil || !reflect.DeepEqual(got, want) {
		t.Errorf("%+v, %v", got, err)
	}
	if raw, err = os.ReadFile("testdata/stored/tolerances-first.json"); err != nil {
		t.Fatal(err)
	}
	held := truing.Tolerances{HeelAim: 0.05, HeelAct: 0.1, FenceOpen: 0.12, RunOutAim: 0.08, RunOutAct: 0.15, TiltDeg: 0.1, GaugeDeg: 0.06}
	if got, err := readTolerances(raw); err != nil || got != held {
		t.Errorf("%+v, %v", got, err)
	}
	// What a later Corte wrote is not guessed at.
	if _, err := readSet([]byte(`{"v": 2, "kind": "stack", "build": "left"}`)); err == nil {
		t.Error("a set of version 2 is read")
	}
}
