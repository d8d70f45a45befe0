package trace

import (
	"slices"
	"strings"
	"testing"
)

// What leads, and what is done first, where an old hand would know at once; and
// what is never named on a saw, or of a blade, that has it not.
func TestWhatLeads(t *testing.T) {
	for name, tt := range map[string]struct {
		saw     string
		present string
		state   map[string]float64
		lead    string // one of the two likeliest
		first   string // one of these is done first
		second  string // the first or second check, where it matters
		never   string // causes that are as good as out, and checks that are not offered
	}{
		"every blade, since it was moved": {"table", "hard-to-push scorch-both-walls every-blade since-moved", map[string]float64{"pitch_level": 1.2, "sharpness": 1.6, "moved_since_truing": 1}, "heel-to-fence fence-closing", "measure-heel measure-fence", "", ""},
		"veneer under a hand-held saw":    {"circular", "splinter-exit-face", map[string]float64{"exit_support": 1}, "show-face-wrong", "flip-face", "", "insert-gap fresh-insert measure-heel"},
		"a beginner's cherry":             {"table", "scorch-both-walls only-this-wood", map[string]float64{"scorch_dose": 11}, "species-prone", "feed-quicker", "other-wood", ""},
		"thrown across the grain":         {"table", "kicked-back", map[string]float64{"across": 1}, "fence-with-gauge", "fence-off", "", ""},
		"a torn end edge":                 {"table", "splinter-end-edge", map[string]float64{"end_support": 1}, "no-backer", "add-backer", "feed-slower", ""},
		"a whistle":                       {"table", "whistle", nil, "", "check-arrow look-teeth", "", ""},
		"a whistle beside a spot":         {"table", "whistle scorch-one-spot", nil, "", "look-teeth check-arrow", "", ""},
		"sudden vibration":                {"miter", "vibration scorch-both-walls", nil, "", "look-teeth check-arrow", "", "raise-blade lower-blade blade-low"},
		"a hit":                           {"table", "since-a-hit", nil, "", "look-teeth", "", ""},
		"a thin kerf bogs":                {"table", "motor-bogs breaker-trips", map[string]float64{"thin_kerf": 1, "load_share": 1.2}, "supply-weak", "", "", "kerf-too-wide thin-kerf"},
		"a hook of -5 on a slider":        {"miter", "pulls-in", map[string]float64{"hook": -5, "hook_deg": -5}, "pull-climb", "push-through", "", "hook-too-strong less-hook look-knife knife-off"},
		"no riving knife":                 {"table", "catches-behind", map[string]float64{"no_knife": 1}, "", "", "", "knife-off look-knife"},
	} {
		w := Weigh(Evidence{Present: strings.Fields(tt.present), State: tt.state, Saw: tt.saw})
		reasons, checks := w.Reasons(), w.Checks(nil)
		if tt.lead != "" && !slices.Contains(strings.Fields(tt.lead), reasons[0].ID) {
			t.Errorf("%s: %s leads, with %.2f", name, reasons[0].ID, reasons[0].Share)
		}
		if tt.first != "" && !slices.Contains(strings.Fields(tt.first), checks[0].ID) || tt.second != "" && checks[1].ID != tt.second {
			t.Errorf("%s: first %s, then %s", name, checks[0].ID, checks[1].ID)
		}
		for _, never := range strings.Fields(tt.never) {
			if w.Of(never) > 0.01 || slices.ContainsFunc(checks, func(n Next) bool { return n.ID == never }) {
				t.Errorf("%s: %s is named, with %.3f", name, never, w.Of(never))
			}
		}
	}
	for _, saw := range []string{"miter", "table"} {
		w := Weigh(Evidence{Present: []string{"kerf-closes", "blade-binds"}, Saw: saw, State: map[string]float64{"no_knife": 1}})
		for _, r := range w.Reasons() {
			if r.Share > 0.01 && strings.Contains(r.Remedy, "knife") {
				t.Errorf("a %s saw without a riving knife: %s", saw, r.Remedy)
			}
		}
		for _, k := range w.Checks(nil) {
			if strings.Contains(k.Label+k.How, "knife") {
				t.Errorf("a %s saw without a riving knife: %s, %s", saw, k.Label, k.How)
			}
		}
	}
}
