package verify

import (
	"encoding/json"
	"os"
	"slices"
	"testing"

	"corte/core/trace"
)

// People leave a sign out, or tell of one that has nothing to do with it. With
// any one sign of a story dropped, or any one added, what can hurt must still
// stop; what cannot must not begin to, as far as the signs themselves allow.
func TestStoriesBearAWrongSign(t *testing.T) {
	raw, err := os.ReadFile("testdata/trace.json")
	if err != nil {
		t.Fatal(err)
	}
	var cases []worked
	if err := json.Unmarshal(raw, &cases); err != nil {
		t.Fatal(err)
	}
	type share struct{ kept, of int }
	var hazards, harmless share
	for _, c := range cases {
		var want struct {
			Stop bool `json:"stop"`
		}
		if err := json.Unmarshal(c.Want, &want); err != nil {
			t.Fatal(err)
		}
		in, err := storyOf(c.Input)
		if err != nil {
			t.Fatal(err)
		}
		count := &harmless
		if want.Stop {
			count = &hazards
		}
		try := func(what string, present []string) {
			e := in
			e.Present = present
			count.of++
			if trace.Weigh(e).Stop() == want.Stop {
				count.kept++
			} else if testing.Verbose() {
				t.Logf("%s, %s: stop %v", c.Name, what, !want.Stop)
			}
		}
		for i, s := range in.Present {
			if len(in.Present) > 1 {
				try("without "+s, slices.Delete(slices.Clone(in.Present), i, i+1))
			}
		}
		for _, s := range trace.Signs() {
			// A sign that is a danger in itself stops whatever the story.
			if s.Danger && !want.Stop || s.ID == "since-a-hit" || slices.Contains(in.Present, s.ID) || slices.Contains(in.Absent, s.ID) {
				continue
			}
			try("with "+s.ID, append(slices.Clone(in.Present), s.ID))
		}
	}
	of := func(s share) float64 { return 100 * float64(s.kept) / float64(s.of) }
	t.Logf("hazards still stop in %.1f %% of %d, harmless ones still go on in %.1f %% of %d", of(hazards), hazards.of, of(harmless), harmless.of)
	if of(hazards) <= 95 || of(harmless) < 85 {
		t.Errorf("hazards still stop in %.1f %%, harmless ones still go on in %.1f %%", of(hazards), of(harmless))
	}
}
