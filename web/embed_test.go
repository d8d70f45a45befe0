package web

import (
	"os"
	"regexp"
	"slices"
	"strings"
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
	known := slices.Sorted(slices.Values(pages))
	if !slices.Equal(routed, known) {
		t.Errorf("the router has %q and the server %q", routed, known)
	}
}

// An address that a page had once is known to both as well.
func TestOldAddressesLeadOn(t *testing.T) {
	places, err := os.ReadFile("src/app/places.ts")
	if err != nil {
		t.Fatal(err)
	}
	led := map[string]bool{}
	for _, m := range regexp.MustCompile(`\['([^']+)', '[^']+'\]`).FindAllSubmatch(places, -1) {
		led[string(m[1])] = true
	}
	known := map[string]bool{"rack/saws": true} // under rack/:id
	for _, address := range moved {
		first, _, _ := strings.Cut(address, "/")
		known[first] = true
		if !led[first] {
			t.Errorf("%s leads nowhere", address)
		}
	}
	for first := range led {
		if !known[first] {
			t.Errorf("the server does not know %s", first)
		}
	}
}
