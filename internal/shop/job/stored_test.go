package job

import (
	"testing"

	"corte/internal/testkit/golden"
)

// A job of an earlier edition is ticked on in this one, over the sheet that it had.
func TestAJobIsReadAsItWasOnceKept(t *testing.T) {
	golden.Stored(t, "testdata/list.json", &storedList{})
	golden.Stored(t, "testdata/sheet.json", &Sheet{})
}
