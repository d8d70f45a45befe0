package sound

import "corte/core/say"

// Says is what is to be done at once about what is heard, and about cuts that slowed
// the saw so many times as much as was foretold; 0 where that is not known.
func (h Heard) Says(strays float64) (out []say.Line) {
	switch h.Doing {
	case Stalled:
		out = append(out, say.Of("the blade has stalled. Switch off, let nothing move until it stops, and free it with the power off"))
	case Labouring:
		out = append(out, say.Of("the motor is working too hard. Feed slower, and stop if it doesn't recover"))
	}
	for _, s := range h.Signs {
		switch s {
		case Whistle:
			out = append(out, say.Of("there is a whistle that isn't the teeth. Diagnose it"))
		case Beat:
			out = append(out, say.Of("one tooth is louder than the others. Switch off and check the teeth before the next cut"))
		}
	}
	switch {
	case strays > 1:
		out = append(out, say.Of("the last cuts with this blade slowed the saw %.1f times as much as they should. The blade may be dull or dirty, or the power supply weak. Diagnose it", strays))
	case strays > 0:
		out = append(out, say.Of("the last cuts with this blade slowed the saw only %.1f times as much as expected. Check the motor's watts and the material", strays))
	}
	return out
}
