package store

import (
	"encoding/json"
	"errors"
	"fmt"
	"reflect"

	"github.com/google/uuid"
	"github.com/jmoiron/sqlx/reflectx"

	"corte/core/history"
)

// Rows travel as JSON objects of their columns, as to_jsonb writes them: in a
// shop file, and where a damaged row is looked at. RowOf reads one into the
// struct that a query fills.

var byColumn = reflectx.NewMapper("db")

var errNotRow = errors.New("this isn't a JSON object of columns")

// RowOf reads a row of JSON into a struct of columns. A column that the struct
// has not is left out; one of the wrong type is an error that names it.
func RowOf[R any](raw json.RawMessage) (R, error) {
	var row R
	var columns map[string]json.RawMessage
	if err := json.Unmarshal(raw, &columns); err != nil || columns == nil {
		return row, errNotRow
	}
	into := reflect.ValueOf(&row).Elem()
	fields := byColumn.TypeMap(into.Type())
	for name, value := range columns {
		field := fields.GetByPath(name)
		if field == nil || string(value) == "null" {
			continue
		}
		at := reflectx.FieldByIndexes(into, field.Index)
		if at.Type() == reflect.TypeFor[[]byte]() { // JSON, or bytes that are only counted
			at.SetBytes(value)
			continue
		}
		if err := json.Unmarshal(value, at.Addr().Interface()); err != nil {
			return row, fmt.Errorf("%s has the wrong type for its column", name)
		}
	}
	return row, nil
}

// BladeOfRow reads a blade from a row of JSON, with the ID it has there.
func BladeOfRow(raw json.RawMessage) (Blade, error) {
	r, err := RowOf[bladeRow](raw)
	if err != nil {
		return Blade{}, err
	}
	return r.numbers()
}

// SawOfRow reads a saw from a row of JSON.
func SawOfRow(raw json.RawMessage) (Saw, error) {
	r, err := RowOf[sawRow](raw)
	if err != nil {
		return Saw{}, err
	}
	r.School = "saw" // of the shop, and no column of a saw
	return r.numbers()
}

// DadoSetOfRow reads what a dado set is made of from a row of JSON.
func DadoSetOfRow(raw json.RawMessage) (DadoSet, error) {
	r, err := RowOf[setRow](raw)
	if err != nil {
		return DadoSet{}, err
	}
	set, err := readSet(r.MadeOf)
	if err != nil {
		return DadoSet{}, err
	}
	var held []byte
	if string(r.Held) != "" {
		held = r.Held
	}
	kept, err := readHeld(held, set)
	return DadoSet{r.Blade, set, kept, r.Version}, err
}

// CheckConditionRow reports what is wrong with a snapshot in a row of JSON. What
// it says is never trusted: it is folded anew from the log.
func CheckConditionRow(raw json.RawMessage) error {
	row, err := RowOf[struct {
		Blade     uuid.UUID `db:"blade_id"`
		Fold      int       `db:"fold"`
		Condition []byte    `db:"condition"`
	}](raw)
	if err != nil {
		return err
	}
	if row.Fold < 1 || row.Fold > history.ConditionFold {
		return fmt.Errorf("fold %d is unknown; this version knows 1 to %d", row.Fold, history.ConditionFold)
	}
	_, err = readCondition(row.Condition)
	return err
}

// CheckCorrectionRow reports what is wrong with a lesson in a row of JSON.
func CheckCorrectionRow(raw json.RawMessage) error {
	r, err := RowOf[lessonRow](raw)
	if err == nil {
		err = counts(r.Cuts)
	}
	if err == nil {
		_, err = r.lesson()
	}
	return err
}

// Figures reports the first that is no number or larger than any that is real.
func Figures(all ...float64) error { return figures(all...) }

// Counts reports the first that is negative or larger than any that is real.
func Counts(all ...int) error { return counts(all...) }
