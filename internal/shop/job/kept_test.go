package job

import (
	"testing"

	"corte/internal/testkit/golden"
)

// A job of an earlier edition is ticked on in this one, over the sheet that it had.
func TestAJobIsReadAsItWasOnceKept(t *testing.T) {
	golden.Kept(t, "testdata/list.json", &keptList{})
	golden.Kept(t, "testdata/sheet.json", &Sheet{})
}
