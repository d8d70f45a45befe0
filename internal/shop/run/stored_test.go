package run

import (
	"testing"

	"corte/internal/testkit/golden"
)

// A comparison that was begun in an earlier edition goes on in this one.
func TestAComparisonIsReadAsItWasOnceKept(t *testing.T) {
	golden.Stored(t, "testdata/asked.json", &trialAsked{})
	golden.Stored(t, "testdata/run.json", &Run{})
}
