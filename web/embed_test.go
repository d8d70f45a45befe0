package web

import (
	"os"
	"regexp"
	"slices"
	"testing"
)

// The server answers 404 to what the router has no page for, so both must know
// the same pages.
func TestPagesAreTheRouters(t *testing.T) {
	router, err := os.ReadFile("src/app/router.tsx")
	if err != nil {
		t.Fatal(err)
	}
	routed := []string{""}
	for _, m := range regexp.MustCompile(`path: '([^'/*][^']*)'`).FindAllSubmatch(router, -1) {
		routed = append(routed, string(m[1]))
	}
	slices.Sort(routed)
	known := slices.Sorted(slices.Values(Pages))
	if !slices.Equal(routed, known) {
		t.Errorf("the router has %q and Pages %q", routed, known)
	}
}
