package measure_test

import (
	"fmt"

	"corte/core/measure"
)

// Lengths are read as people write them, and written as a scale shows them.
func ExampleParse() {
	for _, said := range []string{"19", `1 3/16"`, `2' 3"`, "1,220 mm"} {
		l, err := measure.Parse(said, measure.Millimetre)
		if err != nil {
			fmt.Println(err)
			continue
		}
		fmt.Println(l, "or", l.Format(measure.Inch))
	}
	// Output:
	// 19 mm or 3/4"
	// 30.16 mm or 1 3/16"
	// 685.8 mm or 27"
	// "1,220 mm" is not a length: the comma may part thousands or decimals: write 1220 or 1.22
}
