package sound

import "corte/core/say"

// Says is what is to be done at once about what is heard, and about cuts that slowed
// the saw so many times as much as was foretold; 0 where that is not known.
func (h Heard) Says(strays float64) (out []say.Line) {
	switch h.Doing {
	case Stalled:
		out = append(out, say.Of("the blade has stopped in the work: switch off, let nothing move until it stands, and free it with the power off"))
	case Labouring:
		out = append(out, say.Of("the motor labours: feed slower, and stop if it does not come back"))
	}
	for _, s := range h.Signs {
		switch s {
		case Whistle:
			out = append(out, say.Of("something whistles that is not the teeth; Trace looks for it"))
		case Beat:
			out = append(out, say.Of("one tooth is louder than the others, once a turn: look at the teeth with the power off before the next cut"))
		}
	}
	switch {
	case strays > 1:
		out = append(out, say.Of("the last cuts with this blade slowed the saw %.1f times as much as they should: a dull or pitchy edge, or a weak supply; Trace asks which", strays))
	case strays > 0:
		out = append(out, say.Of("the last cuts with this blade slowed the saw only %.1f times as much as was foretold: look whether the motor's watts and the material are put in right", strays))
	}
	return out
}
