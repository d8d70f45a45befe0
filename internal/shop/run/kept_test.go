package run

import (
	"testing"

	"corte/internal/testkit/golden"
)

// A comparison that was begun in an earlier edition goes on in this one.
func TestAComparisonIsReadAsItWasOnceKept(t *testing.T) {
	golden.Kept(t, "testdata/asked.json", &trialAsked{})
	golden.Kept(t, "testdata/run.json", &Run{})
}
