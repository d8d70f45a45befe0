package choose

import (
	"fmt"

	"corte/core/blade"
	"corte/core/cut"
	"corte/core/measure"
)

// A KerfLoad is what a kerf asks of the motor in one cut.
type KerfLoad struct {
	Kerf    measure.Length
	PowerW  float64
	Load    float64      // of the power limit
	Fastest measure.Feed // before the motor bogs
	Refused string       // by the riving knife or the brake, a sentence without its full stop; else empty
}

// A KerfAdvice judges thin against full kerf by motor and circuit (craft
// section 3).
type KerfAdvice struct {
	Thin, Full KerfLoad
	CircuitW   float64 // what the breaker carries for long; 0 where there is none
	Text       string  // without its full stop
}

// strongMotorW is the power from which a saw has no need of a thin kerf.
const strongMotorW = 1500

// Kerfs puts a full and a thin kerf on a blade's own teeth and compares what
// they ask. It reports false where the material has no window.
func Kerfs(r Request, b blade.Blade) (KerfAdvice, bool) {
	if !r.Job.Material.Kind.Modelled() || b.Teeth == 0 {
		return KerfAdvice{}, false
	}
	load := func(thin bool) KerfLoad {
		b := b
		b.Kerf = kerfFor(b.Diameter, thin)
		b.Plate = b.Kerf * usualPlate
		j := r.Job
		j.Height = r.Heights(b).Suggested
		f := cut.Work(j, b, r.drive(), cut.State{Heel: r.Heel})
		l := KerfLoad{Kerf: b.Kerf, PowerW: f.PowerW, Load: f.Load, Fastest: f.Window.Bog}
		if stops := guards(b, r.Saw, r.Unit); len(stops) > 0 {
			l.Refused = stops[0].Why
		}
		return l
	}
	a := KerfAdvice{Thin: load(true), Full: load(false), CircuitW: r.Saw.CircuitW()}
	allowed := cut.AllowedLoad(r.Job.Direction)
	who := fmt.Sprintf("the motor gives %.0f W", r.Saw.MotorW)
	if a.CircuitW > 0 && a.CircuitW < r.Saw.MotorW {
		who = fmt.Sprintf("the breaker carries %.0f W", a.CircuitW)
	}
	switch {
	case a.Thin.Refused != "" && a.Full.Refused != "":
		a.Text = "neither usual kerf passes this saw's knife and brake"
	case a.Thin.Refused != "":
		a.Text = "full kerf: " + a.Thin.Refused
	case a.Full.Refused != "":
		a.Text = "thin kerf: " + a.Full.Refused
	case a.Full.Load > allowed:
		a.Text = fmt.Sprintf("thin kerf: full would ask %.0f %% of what there is, and %s", 100*a.Full.Load, who)
	case r.Saw.PowerLimitW() < strongMotorW && a.Full.Load > 0.7*allowed:
		a.Text = fmt.Sprintf("thin kerf leaves more in hand: %s, and full takes %.0f %% of it where thin takes %.0f %%", who, 100*a.Full.Load, 100*a.Thin.Load)
	default:
		a.Text = fmt.Sprintf("full kerf: stiffer, and %s, of which it takes %.0f %%", who, 100*a.Full.Load)
	}
	return a, true
}
