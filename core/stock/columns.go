package stock

import (
	"cmp"
	"math"
	"slices"
)

// A column is a way to fill a stick, as often as it is used in the relaxation:
// so much of a stick's pattern that lists of any length come out of it in parts.
type column struct {
	fill
	times float64
}

// relax solves the list as if sticks could be cut by halves and thirds: by the
// simplex method over ways to fill a stick, of which it makes the ones that pay
// as it goes (Gilmore and Gomory). It reports what that takes, which no layout
// stays under, and the ways that it uses.
func (s *search) relax() (float64, []column) {
	var kinds []int
	for k, n := range s.left {
		if n > 0 {
			kinds = append(kinds, k)
		}
	}
	n := len(kinds)
	if n == 0 {
		return 0, nil
	}
	basis := make([]column, n)
	inverse := make([][]float64, n) // of the basis
	for i, k := range kinds {
		st, many := -1, 0
		for j, r := range s.room {
			if m := int((r + hair) / s.takes[k]); m > 0 && (st < 0 || s.price[j]*float64(many) < s.price[st]*float64(m)) {
				st, many = j, m
			}
		}
		of := make([]int, len(s.left))
		of[k] = many
		basis[i] = column{fill{st, of}, float64(s.left[k]) / float64(many)}
		inverse[i] = make([]float64, n)
		inverse[i][i] = 1 / float64(many)
	}
	total := func() (sum float64) {
		for _, c := range basis {
			sum += c.times * s.price[c.stick]
		}
		return sum
	}
	worth := make([]float64, n)
	turn := make([]float64, n)
	bound := 0.0
	for round := 0; round < 60*n+200; round++ {
		for j := range worth {
			worth[j] = 0
			for i, c := range basis {
				worth[j] += s.price[c.stick] * inverse[i][j]
			}
		}
		best, gain, ratio := fill{}, 1e-7, math.Inf(1)
		for st := range s.room {
			of, v := s.knapsack(st, kinds, worth)
			if v > 0 {
				ratio = min(ratio, s.price[st]/v)
			}
			if g := v - s.price[st]; g > gain {
				best, gain = fill{st, of}, g
			}
		}
		now := total()
		bound = max(bound, now*min(1, ratio))
		if best.of == nil || s.work > relaxWork {
			break
		}
		leave, least := -1, math.Inf(1)
		for i := range basis {
			turn[i] = 0
			for j, k := range kinds {
				turn[i] += inverse[i][j] * float64(best.of[k])
			}
			if turn[i] > 1e-9 {
				if r := basis[i].times / turn[i]; r < least {
					leave, least = i, r
				}
			}
		}
		if leave < 0 {
			break
		}
		for i := range basis {
			if i != leave {
				basis[i].times = max(0, basis[i].times-least*turn[i])
			}
		}
		pivot := inverse[leave]
		for j := range pivot {
			pivot[j] /= turn[leave]
		}
		for i := range basis {
			if i == leave || turn[i] == 0 {
				continue
			}
			for j := range pivot {
				inverse[i][j] -= turn[i] * pivot[j]
			}
		}
		s.work += n * n
		basis[leave] = column{best, least}
	}
	return bound, basis
}

// relaxWork is where a relaxation is ended, whose bound holds all the same.
const relaxWork = 12_000_000

// knapsack fills a stick with what is worth most.
func (s *search) knapsack(st int, kinds []int, worth []float64) ([]int, float64) {
	order := make([]int, 0, len(kinds)) // places in kinds, the best by length first
	for j := range kinds {
		if worth[j] > 1e-12 {
			order = append(order, j)
		}
	}
	rate := func(j int) float64 { return worth[j] / s.takes[kinds[j]] }
	slices.SortFunc(order, func(a, b int) int { return cmp.Compare(rate(b), rate(a)) })
	of, best := make([]int, len(s.left)), make([]int, len(s.left))
	most := 0.0
	steps := 0
	var add func(i int, room, v float64)
	add = func(i int, room, v float64) {
		s.work++
		if steps++; steps > 200_000 {
			return
		}
		if v > most+1e-12 {
			most = v
			copy(best, of)
		}
		if i == len(order) || v+room*rate(order[i]) <= most+1e-12 {
			return
		}
		k := kinds[order[i]]
		for n := min(s.left[k], int((room+hair)/s.takes[k])); n >= 0; n-- {
			of[k] = n
			add(i+1, room-float64(n)*s.takes[k], v+float64(n)*worth[order[i]])
		}
		of[k] = 0
	}
	add(0, s.room[st], 0)
	if steps > 200_000 { // what was not looked at is worth no more than this
		return best, max(most, s.room[st]*rate(order[0]))
	}
	return best, most
}

// round makes layouts of a relaxation: as many whole sticks of each way as it
// uses, give or take, and the rest by search.
func (s *search) round(ways []column) {
	slices.SortStableFunc(ways, func(a, b column) int { return cmp.Compare(b.times, a.times) })
	for _, up := range [...]float64{0, 0.25, 0.5, 0.75, 1} {
		left, stock := slices.Clone(s.left), slices.Clone(s.stock)
		for _, c := range ways {
			times := min(int(c.times+up+1e-9), s.stock[c.stick])
			for ; times > 0; times-- {
				if slices.ContainsFunc(s.kindsOf(c.fill), func(k int) bool { return s.left[k] < c.of[k] }) {
					break
				}
				s.take(c.fill)
			}
		}
		s.work = 0
		s.branch()
		s.now, s.used = s.now[:0], 0
		copy(s.left, left)
		copy(s.stock, stock)
		if s.total <= s.bound+0.5 {
			return
		}
	}
}

func (s *search) kindsOf(f fill) (out []int) {
	for k, n := range f.of {
		if n > 0 {
			out = append(out, k)
		}
	}
	return out
}

// take cuts a stick.
func (s *search) take(f fill) {
	for k, n := range f.of {
		s.left[k] -= n
	}
	s.stock[f.stick]--
	s.used += s.price[f.stick]
	s.now = append(s.now, f)
}
