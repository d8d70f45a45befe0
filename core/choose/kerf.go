package choose

import (
	"corte/core/blade"
	"corte/core/cut"
	"corte/core/measure"
	"corte/core/say"
)

// briskRip and briskCross are a brisk hand's feed, at which thin and full kerf
// are judged: a motor that labours there gets thin (model section 5 for the
// hands, judgement for the figures).
const (
	briskRip   = measure.Feed(4)
	briskCross = measure.Feed(3)
	briskChop  = measure.Feed(1.2) // 90 mm in four and a half seconds
)

// A KerfLoad is what a kerf asks of the motor at a brisk hand's feed.
type KerfLoad struct {
	Kerf    measure.Length
	PowerW  float64
	Load    float64      // of the power limit
	Fastest measure.Feed // before the motor bogs
	Refused say.Line     // by the riving knife or the brake, a sentence without its full stop; else nothing
}

// A KerfAdvice judges thin against full kerf by motor and circuit (craft
// section 3).
type KerfAdvice struct {
	Thin, Full KerfLoad
	Feed       measure.Feed // at which both are judged
	CircuitW   float64      // what the breaker carries for long; 0 where there is none
	Text       say.Line     // without its full stop
}

// labours is the share of the allowed load from which a motor is heard to.
const labours = 0.7

// strongMotorW is the power from which a saw has no need of a thin kerf.
const strongMotorW = 1500

// WithKerf is a blade with the usual thin or full kerf of its diameter, and the
// plate that goes with it.
func WithKerf(b blade.Blade, thin bool) blade.Blade {
	b.Kerf = kerfFor(b.Diameter, thin)
	b.Plate = b.Kerf * usualPlate
	return b
}

// Kerfs puts a full and a thin kerf on a blade's own teeth and compares what
// they ask. It reports false where the material has no window.
func Kerfs(r Request, b blade.Blade) (KerfAdvice, bool) {
	if !r.Job.Material.Kind.Modelled() || b.Teeth == 0 {
		return KerfAdvice{}, false
	}
	feed := briskRip
	switch {
	case r.Job.Motion == cut.Chop:
		feed = briskChop
	case r.Job.Direction.Across() || r.Job.Form != cut.Through:
		feed = briskCross
	}
	load := func(thin bool) KerfLoad {
		b := WithKerf(b, thin)
		j := r.Job
		j.Height = r.Heights(b).Suggested
		f := cut.WorkAt(j, b, r.drive(), cut.State{Heel: r.Heel}, feed)
		l := KerfLoad{Kerf: b.Kerf, PowerW: f.PowerW, Load: f.Load, Fastest: f.Window.Bog}
		if stops := guards(b, r.Saw); len(stops) > 0 {
			l.Refused = stops[0].Why
		}
		return l
	}
	a := KerfAdvice{Thin: load(true), Full: load(false), Feed: feed, CircuitW: r.Saw.CircuitW()}
	allowed := cut.AllowedLoad(r.Job.Direction)
	who := say.Of("the motor gives %.0f W", r.Saw.MotorW)
	if a.CircuitW > 0 && a.CircuitW < r.Saw.MotorW {
		who = say.Of("the circuit carries %.0f W", a.CircuitW)
	}
	switch {
	case !a.Thin.Refused.Zero() && !a.Full.Refused.Zero():
		a.Text = say.Of("neither usual kerf fits this saw's riving knife and brake")
	case !a.Thin.Refused.Zero():
		a.Text = say.Of("full kerf: %s", a.Thin.Refused)
	case !a.Full.Refused.Zero():
		a.Text = say.Of("thin kerf: %s", a.Full.Refused)
	case a.Full.Load > allowed && a.Thin.Load > allowed:
		a.Text = say.Of("thin kerf, and feed slower: at a brisk feed rate a full kerf needs %.0f %% of the power and a thin one %.0f %%; %s", 100*a.Full.Load, 100*a.Thin.Load, who)
	case a.Full.Load > allowed:
		a.Text = say.Of("thin kerf: at a brisk feed rate a full kerf needs %.0f %% of the power and a thin one %.0f %%; %s", 100*a.Full.Load, 100*a.Thin.Load, who)
	case r.Saw.PowerLimitW() < strongMotorW && a.Full.Load > labours*allowed:
		a.Text = say.Of("a thin kerf leaves more power in reserve: at a brisk feed rate a full kerf takes %.0f %% and a thin one %.0f %%; %s", 100*a.Full.Load, 100*a.Thin.Load, who)
	default:
		a.Text = say.Of("full kerf: stiffer, and at a brisk feed rate it takes %.0f %% where a thin one takes %.0f %%; %s", 100*a.Full.Load, 100*a.Thin.Load, who)
	}
	return a, true
}
