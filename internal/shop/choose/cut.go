package choose

import (
	"corte/core/blade"
	"corte/core/care"
	"corte/core/cut"
)

// State is the condition of a blade as the cutting model sees it.
func State(b blade.Blade, c care.Condition) cut.State {
	return cut.State{Sharpness: c.Sharpness(b.Grind), Pitch: c.PitchLevel(), Chipped: c.Chipped()}
}
