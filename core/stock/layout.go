package stock

import (
	"cmp"
	"math"
	"slices"

	"corte/core/measure"
)

// LayOut lays the list out over as little stock as can be. Pieces that no stick
// yields are short, whatever else is laid out.
func (a Ask) LayOut() (Layout, error) {
	if err := a.Check(); err != nil {
		return Layout{}, err
	}
	s := newSearch(a)
	out := Layout{Short: make([]int, len(a.Pieces))}
	s.dropTooLong(out.Short)
	s.run()
	if s.best == nil { // not all of it comes out of what there is
		s.greedy(out.Short)
		out.Exact = false
	}
	for _, f := range s.best {
		fill := Fill{Stick: f.stick, Of: make([]int, len(a.Pieces))}
		left := s.room[f.stick]
		for k, n := range f.of {
			fill.Of[s.kind[k]] = n
			left -= float64(n) * s.takes[k]
		}
		fill.Left = measure.Length(max(0, left-float64(a.Kerf)))
		out.Used += a.Sticks[f.stick].Length
		out.Fills = append(out.Fills, fill)
	}
	if short := slices.ContainsFunc(out.Short, func(n int) bool { return n > 0 }); !short {
		out.Bound = measure.Length(min(s.bound, float64(out.Used)))
		out.Exact = float64(out.Used)-s.bound < 0.5
	}
	return out, nil
}

// A fill is a stick with so many of each kind, longest first.
type fill struct {
	stick int
	of    []int
}

// A search lays pieces out. Kinds are sorted, the longest first.
type search struct {
	a     Ask
	kind  []int     // the ask's piece of each kind
	takes []float64 // of each kind
	left  []int     // of each kind, while it is searched
	room  []float64 // of each stick
	price []float64 // its length
	stock []int     // of each stick, how many are left; many where there is no end
	rate  float64   // the least stock that a millimetre of room costs

	now   []fill
	used  float64
	best  []fill
	total float64
	bound float64
	work  int
}

const endless = math.MaxInt32

func newSearch(a Ask) *search {
	s := &search{a: a, total: math.Inf(1), rate: math.Inf(1)}
	for i := range a.Pieces {
		s.kind = append(s.kind, i)
	}
	slices.SortStableFunc(s.kind, func(i, j int) int { return cmp.Compare(a.Pieces[j].Length, a.Pieces[i].Length) })
	for _, i := range s.kind {
		s.takes = append(s.takes, a.takes(a.Pieces[i]))
		s.left = append(s.left, a.Pieces[i].Count)
	}
	for _, st := range a.Sticks {
		n := st.Count
		if n == 0 {
			n = endless
		}
		s.room, s.price, s.stock = append(s.room, a.room(st)), append(s.price, float64(st.Length)), append(s.stock, n)
		if r := a.room(st); r > 0 {
			s.rate = min(s.rate, float64(st.Length)/r)
		}
	}
	return s
}

// dropTooLong takes out what is longer than every stick.
func (s *search) dropTooLong(short []int) {
	longest := slices.Max(s.room)
	for k, t := range s.takes {
		if t > longest+hair {
			short[s.kind[k]], s.left[k] = s.left[k], 0
		}
	}
}

// run searches for the best layout of what is left: through all of it where it
// is short, and from its relaxation where it is long.
func (s *search) run() {
	s.bound = s.whole(s.least())
	s.branch()
	if s.work <= mostWork {
		if s.best != nil {
			s.bound = s.total // all was looked at
		}
		return
	}
	if s.total <= s.bound+0.5 {
		return
	}
	s.work = 0
	bound, ways := s.relax()
	s.bound = max(s.bound, s.whole(bound))
	s.round(ways)
}

// whole is a bound rounded up to what whole sticks can come to: a multiple of
// what all their lengths are multiples of.
func (s *search) whole(bound float64) float64 {
	step := 0
	for _, p := range s.price {
		if p != math.Trunc(p) {
			return bound
		}
		a, b := step, int(p)
		for b != 0 {
			a, b = b, a%b
		}
		step = a
	}
	return math.Ceil(bound/float64(step)-1e-6) * float64(step)
}

// least is what no layout of what is left stays under: the room that it takes at
// the best rate, rounded up to whole sticks where they are all alike; and
// sticks that can hold no two of the pieces over half their room.
func (s *search) least() float64 {
	sum := 0.0
	for k, n := range s.left {
		sum += float64(n) * s.takes[k]
	}
	bound := sum * s.rate
	if len(s.room) != 1 {
		return bound // sticks that are cut already may be of any kind: nothing is rounded
	}
	room := s.room[0]
	big := 0 // no two of these share a stick
	for k, n := range s.left {
		if s.takes[k] > room/2+hair {
			big += n
		}
	}
	need := max(math.Ceil(sum/room-hair), float64(big))
	// Martello and Toth's second bound: over every threshold, long pieces have a
	// stick each, and middling ones what those leave.
	for _, at := range s.takes {
		if at > room/2+hair {
			continue
		}
		long, half := 0, 0
		mid, spare := 0.0, 0.0
		for k, n := range s.left {
			switch t := s.takes[k]; {
			case t > room-at+hair:
				long += n
			case t > room/2+hair:
				half += n
				spare += float64(n) * (room - t)
			case t >= at-hair:
				mid += float64(n) * t
			}
		}
		need = max(need, float64(long+half)+math.Max(0, math.Ceil((mid-spare)/room-hair)))
	}
	return need * s.price[0]
}

// branch fills one stick around the longest piece that is left in every way
// that leaves no room for another, and goes on from each.
func (s *search) branch() {
	if s.work > mostWork {
		return
	}
	first := slices.IndexFunc(s.left, func(n int) bool { return n > 0 })
	if first < 0 {
		if s.used < s.total-hair {
			s.total, s.best = s.used, slices.Clone(s.now)
		}
		return
	}
	if s.used+s.least() >= s.total-0.5 {
		return
	}
	type try struct {
		fill
		waste float64
	}
	var tries []try
	for st := range s.room {
		if s.stock[st] == 0 || s.takes[first] > s.room[st]+hair || slices.Index(s.price[:st], s.price[st]) >= 0 && s.stock[slices.Index(s.price[:st], s.price[st])] > 0 {
			continue
		}
		for _, of := range s.fillings(st, first) {
			left := s.room[st]
			for k, n := range of {
				left -= float64(n) * s.takes[k]
			}
			tries = append(tries, try{fill{st, of}, left * s.price[st] / s.room[st]})
		}
	}
	slices.SortStableFunc(tries, func(a, b try) int { return cmp.Compare(a.waste, b.waste) })
	for _, t := range tries {
		s.take(t.fill)
		s.branch()
		s.now = s.now[:len(s.now)-1]
		s.used -= s.price[t.stick]
		s.stock[t.stick]++
		for k, n := range t.of {
			s.left[k] += n
		}
		if s.work > mostWork || s.total <= s.bound+0.5 {
			return
		}
	}
}

// mostFillings is how many fillings of one stick are looked at, fullest first.
const mostFillings = 60

// fillings are the ways to fill a stick that has one of the longest kind, with
// room for none of what is left.
func (s *search) fillings(st, first int) [][]int {
	var out [][]int
	of := make([]int, len(s.left))
	of[first] = 1
	var add func(k int, room float64)
	add = func(k int, room float64) {
		s.work++
		if s.work > mostWork || len(out) >= 4*mostFillings {
			return
		}
		if k == len(s.left) {
			for i, n := range s.left { // not full
				if of[i] < n && s.takes[i] <= room+hair {
					return
				}
			}
			out = append(out, slices.Clone(of))
			return
		}
		n := min(s.left[k], of[k]+int((room+hair)/s.takes[k]))
		for ; n >= of[k]; n-- {
			was := of[k]
			of[k] = n
			add(k+1, room-float64(n-was)*s.takes[k])
			of[k] = was
		}
	}
	add(first, s.room[st]-s.takes[first])
	waste := func(of []int) float64 {
		left := s.room[st]
		for k, n := range of {
			left -= float64(n) * s.takes[k]
		}
		return left
	}
	slices.SortStableFunc(out, func(a, b []int) int { return cmp.Compare(waste(a), waste(b)) })
	return out[:min(len(out), mostFillings)]
}

// greedy lays out as much as there is stock for, the longest first.
func (s *search) greedy(short []int) {
	for {
		first := slices.IndexFunc(s.left, func(n int) bool { return n > 0 })
		if first < 0 {
			break
		}
		at := -1
		for st := range s.room {
			if s.stock[st] > 0 && s.takes[first] <= s.room[st]+hair && (at < 0 || s.room[st] < s.room[at]) {
				at = st
			}
		}
		s.work = 0
		var ways [][]int
		if at >= 0 {
			ways = s.fillings(at, first)
		}
		if len(ways) == 0 {
			short[s.kind[first]] += s.left[first]
			s.left[first] = 0
			continue
		}
		s.best = append(s.best, fill{at, ways[0]})
		s.stock[at]--
		for k, n := range ways[0] {
			s.left[k] -= n
		}
	}
}
