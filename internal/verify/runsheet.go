package verify

import (
	"errors"
	"fmt"
	"math"

	"corte/core/fault"
	"corte/core/runsheet"
)

// laidOut plans a day of a case, and adds the sheet up by itself before it
// says what that comes to.
var laidOut = kind(func(in struct {
	Minutes [][]*float64 `json:"minutes"`
	Saw     []int        `json:"saw"`
	Mounted []*int       `json:"mounted"`
	Change  []float64    `json:"change_min"`
	Stage   []int        `json:"stage"`
}) (any, error) {
	d := runsheet.Day{Saw: in.Saw, ChangeMin: in.Change, Stage: in.Stage}
	for _, row := range in.Minutes {
		minutes := make([]float64, len(row))
		for b, m := range row {
			if minutes[b] = runsheet.Never; m != nil {
				minutes[b] = *m
			}
		}
		d.Minutes = append(d.Minutes, minutes)
	}
	for _, b := range in.Mounted {
		on := runsheet.None
		if b != nil {
			on = *b
		}
		d.Mounted = append(d.Mounted, on)
	}
	s, err := runsheet.Plan(d)
	var f *fault.Error
	if errors.As(err, &f) && f.Where == "cuts" {
		return nil, nil //nolint:nilerr // no blade may make a cut, which a case says as null
	}
	if err != nil {
		return nil, err
	}
	total, err := addUp(d, s)
	return obj{"total_min": total, "changes": s.Changes, "blade": s.Blade, "exact": s.Exact()}, err
})

// addUp is what a sheet takes, turn by turn; it refuses one that leaves a cut
// out, makes it twice, or out of its stage.
func addUp(d runsheet.Day, s runsheet.Sheet) (float64, error) {
	total, stage, made := 0.0, 0, make([]bool, len(d.Minutes))
	on := append([]int(nil), d.Mounted...)
	for _, t := range s.Turns {
		if t.Stage < stage || d.Saw[t.Blade] != t.Saw {
			return 0, fmt.Errorf("blade %d on saw %d in stage %d cannot be", t.Blade, t.Saw, t.Stage)
		}
		if stage = t.Stage; on[t.Saw] != t.Blade {
			total += d.ChangeMin[t.Saw]
		}
		on[t.Saw] = t.Blade
		for _, c := range t.Cuts {
			if made[c] || d.Stage[c] != stage {
				return 0, fmt.Errorf("cut %d is made twice, or in stage %d", c, stage)
			}
			made[c] = true
			total += d.Minutes[c][t.Blade]
		}
	}
	for c, m := range made {
		if !m {
			return 0, fmt.Errorf("cut %d is left out", c)
		}
	}
	if math.Abs(total-s.TotalMin()) > Tolerance*total {
		return 0, fmt.Errorf("the sheet says %v minutes and comes to %v", s.TotalMin(), total)
	}
	return total, nil
}
