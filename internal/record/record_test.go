package record

import (
	"testing"
	"time"
)

// A day is the shop's: where it has said no zone, this machine's.
func TestDaysAreTheShops(t *testing.T) {
	at := time.Date(2026, 5, 4, 23, 30, 0, 0, time.UTC)
	for zone, want := range map[string]string{"Europe/Vienna": "5 May 2026", "America/New_York": "4 May 2026", "": at.Local().Format("2 January 2006"), "No/Where": at.Local().Format("2 January 2006")} {
		if got := Day(at, zone).String(); got != want {
			t.Errorf("in %q it is %s, not %s", zone, got, want)
		}
	}
	if Zone("") != time.Local || Zone("Europe/Vienna") == time.Local {
		t.Error("a zone")
	}
}
