package word_test

import (
	"testing"

	"corte/core/word"
)

func TestUpper(t *testing.T) {
	for in, want := range map[string]string{"": "", "plough": "Plough", "österreich": "Österreich", "Österreich": "Österreich", "3 teeth": "3 teeth", "\xff": "\xff"} {
		if got := word.Upper(in); got != want {
			t.Errorf("%q became %q, not %q", in, got, want)
		}
	}
}
