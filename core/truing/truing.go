// Package truing turns the readings of a dial, a square and a rule into what a
// saw or a blade is out by, and what to move: craft sections 2, 7 and 10, model
// section 10.
package truing

import (
	"errors"
	"math"

	"corte/core/measure"
)

// Hook is the hook angle, in degrees, of a tooth whose face line, prolonged,
// passes the centre of the bore at an offset. Radius is that of the blade.
func Hook(offset, radius measure.Length) (float64, error) {
	if !(radius > 0) {
		return 0, errors.New("the radius must be over 0")
	}
	if s := float64(offset / radius); s >= -0.8 && s <= 0.8 {
		return math.Asin(s) * 180 / math.Pi, nil
	}
	return 0, errors.New("the offset is nearly as large as the radius; lay the straight edge along the face of one tooth and measure square to it from the middle of the bore")
}
