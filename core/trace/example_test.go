package trace_test

import (
	"fmt"

	"corte/core/trace"
)

// Both walls are brown and it is hard to push: what is it, and what tells most?
func ExampleWeigh() {
	w := trace.Weigh(trace.Evidence{Present: []string{"scorch-both-walls", "hard-to-push"}, Saw: "table", State: map[string]float64{"pitch_level": 2.2}})
	for _, r := range w.Reasons()[:2] {
		fmt.Printf("%s, %.0f %%\n", r.ID, 100*r.Share)
	}
	fmt.Println("next:", w.Checks(nil)[0].ID)
	// Output:
	// blade-pitchy, 67 %
	// edge-dull, 16 %
	// next: wash-blade
}
