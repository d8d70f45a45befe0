package env

import (
	"time"

	"corte/internal/refusal"
	"corte/internal/store"
)

// CheckZone refuses what is no time zone.
func CheckZone(sh store.Shop) error {
	if sh.Zone == "" {
		return nil
	}
	if _, err := time.LoadLocation(sh.Zone); err != nil || sh.Zone == "Local" {
		return refusal.Of("time_zone", "%q is no time zone; choose one such as Europe/Vienna", sh.Zone)
	}
	return nil
}
