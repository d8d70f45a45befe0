package golden

import (
	"bytes"
	"encoding/json"
	"os"
	"reflect"
	"testing"
)

// Stored reads a file of JSON as it was once kept into v, a pointer: every name in
// it has to have its field, every field of v to be said in it, and v to be
// written again to the letter. A name that changed would lose what is kept.
func Stored(t *testing.T, path string, v any) {
	t.Helper()
	was, err := os.ReadFile(path)
	if err != nil {
		t.Fatal(err)
	}
	d := json.NewDecoder(bytes.NewReader(was))
	d.DisallowUnknownFields()
	if err := d.Decode(v); err != nil {
		t.Fatalf("%s: %v", path, err)
	}
	Full(t, v)
	again, err := json.MarshalIndent(v, "", "  ")
	if err != nil || string(again) != string(bytes.TrimSpace(was)) {
		t.Errorf("%s: %v; written again as\n%s", path, err, again)
	}
}

// Full finds fields that are zero, in structs at any depth.
func Full(t *testing.T, v any) {
	t.Helper()
	full(t, reflect.TypeOf(v).String(), reflect.ValueOf(v))
}

func full(t *testing.T, path string, v reflect.Value) {
	t.Helper()
	switch {
	case v.IsZero():
		t.Errorf("%s is lost", path)
	case v.Kind() == reflect.Pointer:
		full(t, path, v.Elem())
	case v.Kind() == reflect.Struct:
		for i := range v.NumField() {
			if v.Type().Field(i).IsExported() {
				full(t, path+"."+v.Type().Field(i).Name, v.Field(i))
			}
		}
	}
}
