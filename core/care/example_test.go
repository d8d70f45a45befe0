package care_test

import (
	"fmt"
	"time"

	"corte/core/blade"
	"corte/core/care"
)

// A blade whose log is known is known: it is never typed in how worn it is.
func ExampleCondition_Then() {
	b := blade.Blade{Teeth: 40, Grind: blade.ATB}
	monday := time.Date(2026, 3, 2, 9, 0, 0, 0, time.UTC)
	var c care.Condition
	for _, e := range []care.Event{
		{Kind: care.Cut, At: monday, Metres: 900, FaceM2: 900 * 0.038, Abrasion: 0.9, Resin: 2.5}, // yellow pine
		{Kind: care.Wash, At: monday.AddDate(0, 0, 1)},
		{Kind: care.Cut, At: monday.AddDate(0, 0, 2), Metres: 300, FaceM2: 300 * 0.018, Abrasion: 3, Resin: 0.4}, // MDF
	} {
		c = c.Then(b, e)
		fmt.Printf("edge %.0f %% used, pitch %.1f of 3: %s\n", 100*c.WearShare(b.Grind), c.PitchLevel(), c.Word(b.Grind))
	}
	// Output:
	// edge 41 % used, pitch 2.9 of 3: pitchy
	// edge 41 % used, pitch 0.0 of 3: fine
	// edge 62 % used, pitch 0.3 of 3: worn
}
