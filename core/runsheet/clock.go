package runsheet

import (
	"cmp"
	"slices"
)

// A Slot is a turn by the clock, in minutes from when the day begins. The
// change comes first, where there is one.
type Slot struct {
	Turn     int // of the sheet's turns
	Person   int // from 0
	Begin    float64
	CutsFrom float64 // Begin, or when the change is over
	End      float64
}

// Clock says when each turn begins and ends with so many people at the saws,
// and when all is done. A person works at one saw at a time and a saw has one
// person; whoever is done in a stage waits until it is over. Longest queues are
// begun first, which for two people is never more than a sixth over the best.
func (s Sheet) Clock(d Day, people int) (slots []Slot, end float64) {
	people = max(1, people)
	slots = make([]Slot, len(s.Turns))
	for from := 0; from < len(s.Turns); {
		to := from
		var queues [][]int
		var length []float64
		for ; to < len(s.Turns) && s.Turns[to].Stage == s.Turns[from].Stage; to++ {
			if to == from || s.Turns[to].Saw != s.Turns[to-1].Saw {
				queues, length = append(queues, nil), append(length, 0)
			}
			last := len(queues) - 1
			queues[last] = append(queues[last], to)
			length[last] += s.Turns[to].minutes(d)
		}
		order := make([]int, len(queues))
		for i := range order {
			order[i] = i
		}
		if people > 1 {
			slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(length[b], length[a]) })
		}
		at := make([]float64, people)
		for i := range at {
			at[i] = end
		}
		for _, q := range order {
			who := 0
			for i := range at {
				if at[i] < at[who] {
					who = i
				}
			}
			for _, turn := range queues[q] {
				t := s.Turns[turn]
				slot := Slot{Turn: turn, Person: who, Begin: at[who], CutsFrom: at[who]}
				if t.Changed {
					slot.CutsFrom += d.putOn(t.Blade)
				}
				slot.End = slot.Begin + t.minutes(d)
				at[who] = slot.End
				slots[turn] = slot
			}
		}
		end = slices.Max(at)
		from = to
	}
	return slots, end
}

// minutes is what a turn takes, its change included.
func (t Turn) minutes(d Day) float64 {
	sum := 0.0
	if t.Changed {
		sum = d.putOn(t.Blade)
	}
	for _, c := range t.Cuts {
		sum += d.Minutes[c][t.Blade]
	}
	return sum
}
