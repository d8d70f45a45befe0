package trace

import (
	"cmp"
	"time"

	"corte/core/blade"
	"corte/core/care"
	"corte/core/choose"
	"corte/core/cut"
	"corte/core/measure"
	"corte/core/saw"
	"corte/core/say"
)

// A Fact is what a shop knows that moves the odds of causes: the table's name
// for it, its figure, and how it is said; empty where it goes without saying.
type Fact struct {
	Fact  string   `json:"fact"`
	Value float64  `json:"value"`
	Says  say.Line `json:"says"`
}

// A Measured figure is one that was read, and when.
type Measured struct {
	Figure measure.Length
	At     time.Time
}

// Known is what is known of saw, blade and cut where a fault is to be traced.
// What is nil was never measured, or is not there.
type Known struct {
	Now time.Time
	Day func(time.Time) say.Day // a time's date in the shop's zone

	Saw       saw.Saw
	Heel      measure.Length // toward the fence
	HeelAt    *time.Time
	FenceOpen measure.Length // at the rear
	FenceAt   *time.Time
	Moved     *time.Time // when the saw was last moved or bumped
	RunOut    *Measured
	Request   choose.Request // the cut
	Blade     *blade.Blade
	BladeName string
	Condition care.Condition
	Spread    *Measured        // of side clearance over the teeth
	Candidate choose.Candidate // the blade as a choice sees it
	Height    measure.Length   // that it stood at; 0 for the suggested one
}

// Facts that say what saw and blade are like, so that nothing is named that they
// have not.
const (
	noKnife  = "no_knife"
	itsHook  = "hook"
	thinKerf = "thin_kerf"
)

// Facts are what of that moves the odds.
func (k Known) Facts() []Fact {
	out, j := []Fact{}, k.Request.Job
	add := func(fact string, v float64, form string, with ...any) {
		out = append(out, Fact{fact, v, say.Of(form, with...)})
	}
	if k.HeelAt != nil {
		side := say.Of("toward the fence")
		if k.Heel < 0 {
			side = say.Of("from the fence")
		}
		add("heel_mm", max(0, k.Heel.Mm()), "heel %s %s on %s", say.Dial(k.Heel), side, k.Day(*k.HeelAt))
		add("heel_away_mm", max(0, -k.Heel.Mm()), "")
		add("truing_age_days", k.Now.Sub(*k.HeelAt).Hours()/24, "")
	}
	if k.FenceAt != nil {
		way := say.Of("open")
		if k.FenceOpen < 0 {
			way = say.Of("closing")
		}
		add("fence_open_mm", max(0, k.FenceOpen.Mm()), "fence %s %s at the rear on %s", say.Dial(k.FenceOpen), way, k.Day(*k.FenceAt))
		add("fence_closing_mm", max(0, -k.FenceOpen.Mm()), "")
	}
	if k.Moved != nil && (k.HeelAt == nil || k.Moved.After(*k.HeelAt)) {
		add("moved_since_truing", 1, "moved or bumped on %s and not measured since", k.Day(*k.Moved))
	}
	if r := k.RunOut; r != nil {
		add("runout_mm", r.Figure.Mm(), "run-out %s on %s", say.Dial(r.Figure), k.Day(r.At))
	}
	if j.Material.Kind.Modelled() {
		easily := say.Line{}
		if j.Material.ScorchDose < 16 {
			easily = say.Of("%s burns easily", j.Material)
		}
		out = append(out, Fact{"scorch_dose", j.Material.ScorchDose, easily})
	}
	if j.Moisture == cut.Wet {
		add("wet", 1, "the stock is wet or treated")
	}
	if j.Moves {
		add("moves", 1, "the board moves as it is cut")
	}
	if j.Direction == cut.Crosscut {
		add("across", 1, "")
	}
	if k.Saw.Knife == 0 {
		add(noKnife, 1, "")
	}
	if j.Motion == cut.Push {
		add("top_exit", 1, "teeth leave at the top face")
	}
	add("exit_support", j.Exit.Factor(), "")
	add("end_support", j.Other.Factor(), "")
	if k.Blade == nil || k.Blade.Teeth == 0 {
		return out
	}
	b, c := *k.Blade, k.Condition
	add("sharpness", c.Sharpness(b.Grind), "%s: edge %.0f %% used up", k.BladeName, 100*c.WearShare(b.Grind))
	add("pitch_level", c.PitchLevel(), "%s: resin %.1f of 3", k.BladeName, c.PitchLevel())
	if c.Washes+c.Sharpenings > 0 {
		says := say.Of("cleaned %.0f m ago", c.MetresWashed)
		if c.MetresWashed == 0 {
			says = say.Of("cleaned and not used since")
		}
		add("washed_since_metres", c.MetresWashed, "%s", says)
	}
	if c.Sharpenings > 0 {
		add("sharpened_since_metres", c.MetresSharp, "sharpened %.0f m ago", c.MetresSharp)
	}
	tip := c.Unfit == care.Missing.Words() || c.Unfit == care.Loose.Words()
	switch {
	case tip, c.Chipped():
		add("chipped", 1, "%s: %s at its last inspection", k.BladeName, say.Word(cmp.Or(c.Unfit, c.Flaw)))
	case c.Unfit != "", c.Flaw == care.Blue.Words():
		add("blue", 1, "%s: %s at its last inspection", k.BladeName, say.Word(cmp.Or(c.Unfit, c.Flaw)))
	}
	for _, stop := range choose.MountStops(b, k.Saw) {
		if stop.Rule == choose.RuleDiameter || stop.Rule == choose.RuleBore {
			add("misfit", 1, "%s on this saw: %s", k.BladeName, stop.Why)
			break
		}
	}
	if r := k.Spread; r != nil {
		add("spread_mm", r.Figure.Mm(), "side clearance %s across the teeth, measured on %s", say.Dial(r.Figure), k.Day(r.At))
	}
	if !b.HookUnknown {
		add(itsHook, b.Hook, "")
	}
	if b.Thin() {
		add(thinKerf, 1, "")
	}
	if k.Saw.Kind == saw.Miter {
		add("hook_deg", b.Hook, "hook %+.0f°", b.Hook)
	}
	if !j.Material.Kind.Modelled() || len(choose.Stops(b, j, k.Saw)) > 0 {
		return out
	}
	heights, height := k.Request.Heights(b), k.Height
	if height <= 0 || height > heights.Full {
		height = heights.Suggested
	}
	f := choose.At(k.Request, k.Candidate, height)
	room := f.Window.Room()
	add("window_room", room, "feed range %s: %d teeth on this cut", f.Window.Grade(), b.Teeth)
	add("teeth_in_cut", f.TeethInCut, "%.1f teeth in the cut", f.TeethInCut)
	add("load_share", f.Load/f.Allowed, "needs %.0f %% of the available power", 100*f.Load/f.Allowed)
	if j.Motion == cut.Along && heights.Full > j.Thickness {
		add("height_share", float64((height-j.Thickness)/(heights.Full-j.Thickness)), "")
	}
	return out
}
