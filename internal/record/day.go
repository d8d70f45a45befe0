package record

import (
	"sync"
	"time"

	"corte/core/say"
)

var zones sync.Map // by name, as they are read from a file each time

// Zone is where a shop's days begin and end: in the zone that it has said, or
// in this machine's until it has.
func Zone(name string) *time.Location {
	if name == "" {
		return time.Local
	}
	if z, ok := zones.Load(name); ok {
		return z.(*time.Location)
	}
	z, err := time.LoadLocation(name)
	if err != nil { // it was checked when it was kept; a build without it goes by its own
		return time.Local
	}
	zones.Store(name, z)
	return z
}

// Day is the date of a time, by a shop's zone.
func Day(t time.Time, zone string) say.Day { return say.On(t.In(Zone(zone))) }

// Dated is the day that a date stands for, as the log keeps it: the one that it
// is at Greenwich.
func Dated(t time.Time) say.Day { return say.On(t.UTC()) }
