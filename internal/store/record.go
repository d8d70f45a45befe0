package store

import "corte/internal/record"

// What rows become.
type (
	Blade   = record.Blade
	Saw     = record.Saw
	Wobble  = record.Wobble
	Lesson  = record.Lesson
	Retired = record.Retired
)
