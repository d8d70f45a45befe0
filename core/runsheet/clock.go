package runsheet

import (
	"cmp"
	"slices"
)

// A Slot is a turn by the clock, in minutes from when the day begins. The
// change comes first, where there is one.
type Slot struct {
	Turn     int // of the turns, or the spells
	Person   int // from 0
	Begin    float64
	CutsFrom float64 // Begin, or when the change is over
	End      float64
}

// A Spell is somebody's time at a saw, as a clock sees it: what comes before the
// cuts (a change, a wash), and the cuts.
type Spell struct {
	Stage, Saw        int
	BeforeMin, CutMin float64
}

func (s Spell) minutes() float64 { return s.BeforeMin + s.CutMin }

// Clock says when each turn begins and ends with so many people at the saws,
// and when all is done.
func (s Sheet) Clock(d Day, people int) (slots []Slot, end float64) {
	spells := make([]Spell, len(s.Turns))
	for i, t := range s.Turns {
		spells[i] = Spell{Stage: t.Stage, Saw: t.Saw}
		if t.Changed {
			spells[i].BeforeMin = d.PutOn(t.Blade)
		}
		for _, c := range t.Cuts {
			spells[i].CutMin += d.Minutes[c][t.Blade]
		}
	}
	return Clock(spells, people)
}

// Clock says when each spell begins and ends; they stand by stage, then by saw.
// A person works at one saw at a time and a saw has one person; whoever is done
// in a stage waits until it is over. Longest queues are begun first, which for
// two people is never more than a sixth over the best.
func Clock(spells []Spell, people int) (slots []Slot, end float64) {
	people = max(1, people)
	slots = make([]Slot, len(spells))
	for from := 0; from < len(spells); {
		to := from
		var queues [][]int
		var length []float64
		for ; to < len(spells) && spells[to].Stage == spells[from].Stage; to++ {
			if to == from || spells[to].Saw != spells[to-1].Saw {
				queues, length = append(queues, nil), append(length, 0)
			}
			last := len(queues) - 1
			queues[last] = append(queues[last], to)
			length[last] += spells[to].minutes()
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
			for _, i := range queues[q] {
				begin := at[who]
				slots[i] = Slot{Turn: i, Person: who, Begin: begin, CutsFrom: begin + spells[i].BeforeMin, End: begin + spells[i].minutes()}
				at[who] = slots[i].End
			}
		}
		end = slices.Max(at)
		from = to
	}
	return slots, end
}
