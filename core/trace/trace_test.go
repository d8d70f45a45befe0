package trace

import (
	"math"
	"math/rand/v2"
	"reflect"
	"slices"
	"strings"
	"testing"
)

// Every number is a chance, every sign is explained, every cause is told by
// some check and from every other cause by some sign or check.
func TestTables(t *testing.T) {
	for _, c := range tables.causes {
		if !(c.Prior > 0) || c.Remedy == "" || c.Source == "" || c.Label == "" || len(c.On) == 0 {
			t.Errorf("cause %+v", c)
		}
	}
	all := func(what string, m [][]float64) {
		for i, row := range m {
			for k, v := range row {
				if v < 0 || v >= 1 {
					t.Errorf("%s %d: %s has %v", what, i, tables.causes[k].ID, v)
				}
			}
			if slices.Max(row) < forStrength {
				t.Errorf("%s %d is explained by nothing", what, i)
			}
		}
	}
	all("sign", tables.shows)
	all("check", tables.finds)
	for _, s := range tables.signs {
		if s.Leak <= 0 || s.Leak > 0.2 || s.Place == "" {
			t.Errorf("sign %+v", s)
		}
	}
	kinds := []string{"look", "measure", "care", "cut", "right"}
	for _, k := range tables.checks {
		if !(k.Minutes > 0) || !slices.Contains(kinds, k.Kind) || k.How == "" {
			t.Errorf("check %+v", k)
		}
	}
	column := func(m [][]float64, c int) (out []float64) {
		for _, row := range m {
			out = append(out, row[c])
		}
		return out
	}
	for i, a := range tables.causes {
		if slices.Max(column(tables.finds, i)) < 0.6 {
			t.Errorf("no check finds %s", a.ID)
		}
		for k := range i {
			apart := 0.0
			for j, v := range append(column(tables.finds, i), column(tables.shows, i)...) {
				apart = max(apart, math.Abs(v-append(column(tables.finds, k), column(tables.shows, k)...)[j]))
			}
			if apart < 0.3 {
				t.Errorf("%s and %s look the same to every sign and check", a.ID, tables.causes[k].ID)
			}
		}
	}
	for _, m := range tables.moves {
		if m.low >= m.high || m.atLow <= 0 || m.atHi <= 0 {
			t.Errorf("state %+v", m)
		}
	}
}

func TestProperties(t *testing.T) {
	dice := rand.New(rand.NewPCG(6, 6))
	total := 0.0
	for _, c := range tables.causes {
		total += c.Prior
	}
	nothing := Weigh(Evidence{})
	for _, c := range tables.causes {
		p := c.Prior / total // of being the one, or one of two
		one, two := (1-secondShare)*p, 2*secondShare*p*(1-p)
		sum := 1 - secondShare
		for _, d := range tables.causes {
			q := d.Prior / total
			sum += secondShare * q * (1 - q)
		}
		if got := nothing.Of(c.ID); math.Abs(got-(one+two)/sum) > 1e-12 {
			t.Errorf("nothing seen, %s has %v, its prior is %v", c.ID, got, (one+two)/sum)
		}
	}
	for range 60 {
		var e Evidence
		for _, s := range tables.signs {
			switch x := dice.IntN(9); {
			case x == 0:
				e.Present = append(e.Present, s.ID)
			case x < 3:
				e.Absent = append(e.Absent, s.ID)
			}
		}
		b := Weigh(e)
		sum := 0.0
		for _, p := range b.p {
			sum += p
		}
		if math.Abs(sum-1) > 1e-9 {
			t.Fatalf("hypotheses add up to %v", sum)
		}
		mixed := Evidence{Present: slices.Clone(e.Present), Absent: slices.Clone(e.Absent)}
		dice.Shuffle(len(mixed.Present), reflect.Swapper(mixed.Present))
		dice.Shuffle(len(mixed.Absent), reflect.Swapper(mixed.Absent))
		if !slices.Equal(Weigh(mixed).p, b.p) {
			t.Error("the order of evidence matters")
		}
		// A sign that a cause makes more than others do speaks for it.
		for i, c := range tables.causes {
			for k, s := range tables.signs {
				if tables.shows[k][i] == slices.Max(tables.shows[k]) && !slices.Contains(append(e.Present, e.Absent...), s.ID) {
					more := Weigh(Evidence{Present: append(slices.Clone(e.Present), s.ID), Absent: e.Absent})
					less := Weigh(Evidence{Present: e.Present, Absent: append(slices.Clone(e.Absent), s.ID)})
					if more.Of(c.ID) < b.Of(c.ID)-1e-12 || less.Of(c.ID) > b.Of(c.ID)+1e-12 {
						t.Errorf("%s seen moves %s from %v to %v, not seen to %v", s.ID, c.ID, b.Of(c.ID), more.Of(c.ID), less.Of(c.ID))
					}
				}
			}
		}
	}
}

func TestWhatTheShopKnowsMovesIt(t *testing.T) {
	push := Evidence{Present: []string{"hard-to-push", "scorch-both-walls"}}
	of := func(cause, fact string, v float64) float64 {
		e := push
		e.State = map[string]float64{fact: v}
		return Weigh(e).Of(cause)
	}
	for _, m := range tables.moves {
		up := of(m.cause, m.fact, m.high) > of(m.cause, m.fact, m.low)
		if up != (m.atHi > m.atLow) {
			t.Errorf("%s does not move %s the way its table says", m.fact, m.cause)
		}
	}
	if washed := of("blade-pitchy", "washed_since_metres", 3); washed > 0.05 {
		t.Errorf("washed 3 m ago it is still pitchy with %v", washed)
	}
	hand := Weigh(Evidence{Present: []string{"blade-binds"}, Saw: "circular"})
	if hand.Of("fence-closing") > 0.001 || hand.Of("sag-unsupported") < 0.15 {
		t.Error("a circular saw is given a fence")
	}
}

func TestDoubtsStopsAndEnds(t *testing.T) {
	clash := Weigh(Evidence{Present: []string{"scorch-both-walls", "scorch-fence-wall"}})
	if d := clash.Doubts(); len(d) == 0 || !strings.Contains(d[0].String(), "Both edges, or only one?") {
		t.Errorf("of both walls and only one: %q", d)
	}
	odd := Weigh(Evidence{Present: []string{"groove-ridge", "breaker-trips", "end-not-plumb", "pulls-in"}})
	if len(odd.Doubts()) == 0 {
		t.Error("four faults of four causes go together without a word")
	}
	thrown := Weigh(Evidence{Present: []string{"kicked-back"}})
	for _, k := range thrown.Checks(nil) {
		if k.NeedsCut() {
			t.Errorf("thrown work, and %s is a test cut", k.ID)
		}
	}
	if !thrown.Stop() || Weigh(Evidence{Present: []string{"end-not-plumb"}}).Stop() {
		t.Error("stops")
	}
	for _, s := range Signs() {
		e := Evidence{Present: []string{s.ID}, Checks: map[string]bool{"look-over": false}}
		if s.Danger && !Weigh(e).Stop() {
			t.Errorf("%s is a hazard, and a test cut may be made", s.ID)
		}
	}
	var could []string
	tilt := Evidence{Present: []string{"end-not-plumb"}, Checks: map[string]bool{"flip-test": false}}
	for !Weigh(tilt).Exhausted(could) {
		next := Weigh(tilt).Checks(could)
		if len(next) == 0 {
			t.Fatal("nothing is left and it is not said")
		}
		could = append(could, next[0].ID)
	}
	if len(could) == 0 || len(could) > len(tables.checks) {
		t.Errorf("it went on for %d checks", len(could))
	}
}

// After a hit somebody looks before anything is cut, and where something points
// to the blade it is washed or looked at before another feed is tried.
func TestLookFirst(t *testing.T) {
	hit := Evidence{Present: []string{"since-a-hit", "splinter-exit-face"}, Checks: map[string]bool{}}
	b := Weigh(hit)
	if next := b.Checks(nil); !b.Stop() || next[0].ID != "look-teeth" {
		t.Errorf("after a hit: stop %v, %s first", b.Stop(), next[0].ID)
	}
	for _, k := range b.Checks(nil) {
		if k.NeedsCut() {
			t.Errorf("after a hit nobody has looked, and %s is a test cut", k.ID)
		}
	}
	hit.Checks["look-teeth"] = false
	if b := Weigh(hit); b.Stop() || b.Checks(nil)[0].ID == "look-teeth" {
		t.Error("looked, sound, and it still stops")
	}
	dull := Weigh(Evidence{Present: []string{"walls-fuzzy", "splinter-exit-face", "slowly-worse"}, State: map[string]float64{"sharpness": 2.2}})
	if next := dull.Checks(nil)[0]; next.Kind != "care" && next.ID != "look-teeth" {
		t.Errorf("where the blade is suspect, %s comes first", next.ID)
	}
	if next := Weigh(Evidence{Present: []string{"scorch-one-spot"}}).Checks(nil)[0]; next.ID != "feed-quicker" {
		t.Errorf("where nothing points to the blade, %s comes first", next.ID)
	}
	face := func(saw string) float64 {
		return Weigh(Evidence{Present: []string{"splinter-exit-face"}, Saw: saw}).Of("show-face-wrong")
	}
	if face("circular") < 2*face("table") {
		t.Errorf("by hand the show face weighs %v, on a table %v", face("circular"), face("table"))
	}
}

// A fault is a hidden cause, perhaps two, what was noticed of it, and answers
// that are true nineteen times in twenty.
type fault struct {
	causes []int
	e      Evidence
	dice   *rand.Rand
}

func draw(dice *rand.Rand) fault {
	f := fault{dice: dice}
	pick := func() int {
		total := 0.0
		for _, c := range tables.causes {
			total += c.Prior
		}
		x := dice.Float64() * total
		for i, c := range tables.causes {
			if x -= c.Prior; x < 0 {
				return i
			}
		}
		return 0
	}
	f.causes = []int{pick()}
	if dice.Float64() < secondShare {
		f.causes = append(f.causes, pick())
	}
	for len(f.e.Present) == 0 { // nobody comes without a complaint
		f.e = Evidence{Checks: map[string]bool{}}
		for k, s := range tables.signs {
			there := dice.Float64() < s.Leak
			for _, c := range f.causes {
				there = there || dice.Float64() < tables.shows[k][c]
			}
			switch noticed := dice.Float64(); {
			case there && noticed < 0.7:
				f.e.Present = append(f.e.Present, s.ID)
			case !there && noticed < 0.3:
				f.e.Absent = append(f.e.Absent, s.ID)
			}
		}
	}
	return f
}

func (f fault) answer(k Check) bool {
	shows := false
	for _, c := range f.causes {
		shows = shows || f.dice.Float64() < tables.finds[k.at][c]
	}
	if f.dice.Float64() < 0.05 {
		return !shows
	}
	return shows
}

// A strategy names the next check, or none.
type strategy func(b Weighed, left []Next) *Next

var strategies = map[string]strategy{
	"most told a minute": func(_ Weighed, left []Next) *Next { return &left[0] },
	"fixed checklist": func(_ Weighed, left []Next) *Next {
		at := slices.IndexFunc(tables.checks, func(k Check) bool {
			return slices.ContainsFunc(left, func(n Next) bool { return n.ID == k.ID })
		})
		i := slices.IndexFunc(left, func(n Next) bool { return n.ID == tables.checks[at].ID })
		return &left[i]
	},
	"most likely first": func(b Weighed, left []Next) *Next {
		c, _ := b.top()
		best := 0
		for i, n := range left {
			if tables.finds[n.at][c] > tables.finds[left[best].at][c] {
				best = i
			}
		}
		return &left[best]
	},
}

// play checks until a cause is as good as found or nothing is left.
func play(f fault, s strategy) (found bool, checks int, minutes float64) {
	const patience = 12
	b := Weigh(f.e)
	for {
		top, share := b.top()
		left := b.Checks(nil)
		if share >= ProvenAt || len(left) == 0 || checks == patience {
			return slices.Contains(f.causes, top), checks, minutes
		}
		k := s(b, left)
		found := f.answer(k.Check)
		b.evidence.Checks[k.ID] = found
		b.update(byCheck[k.at], found)
		checks++
		minutes += k.Minutes + settingUp
	}
}

// top is the likeliest cause and its share.
func (b Weighed) top() (cause int, share float64) {
	shares := b.shares()
	for i, s := range shares {
		if s > shares[cause] {
			cause = i
		}
	}
	return cause, shares[cause]
}

// A simulated shop: docs/trace.md has the table. Both plain
// strategies weigh evidence as this one does; they only choose their checks
// otherwise.
func TestSimulatedShop(t *testing.T) {
	if testing.Short() {
		t.Skip("of figures: the race detector has nothing to see here")
	}
	const faults = 2000
	perFound := map[string]float64{}
	for name, s := range strategies {
		dice := rand.New(rand.NewPCG(2026, 11)) // the same faults for each
		found, checks, minutes := 0, 0, 0.0
		for range faults {
			f := draw(rand.New(rand.NewPCG(dice.Uint64(), 1)))
			ok, n, m := play(f, s)
			if ok {
				found++
			}
			checks, minutes = checks+n, minutes+m
		}
		perFound[name] = minutes / float64(found)
		t.Logf("%-20s found %.1f %%, %.2f checks, %.1f minutes a fault, %.1f minutes a cause found", name,
			100*float64(found)/faults, float64(checks)/faults, minutes/faults, perFound[name])
	}
	// Ours looks at the blade before it cuts again, which costs a little; it may
	// not cost more than this against going for the likeliest at once.
	ours := perFound["most told a minute"]
	if likely, list := perFound["most likely first"], perFound["fixed checklist"]; ours > 1.02*likely || ours > 0.7*list {
		t.Errorf("ours needs %.1f minutes for a cause, the likeliest first %.1f, a checklist %.1f", ours, likely, list)
	}
}

var seen = Evidence{Present: []string{"hard-to-push", "scorch-both-walls", "slowly-worse"}, Absent: []string{"only-this-wood"}, State: map[string]float64{"sharpness": 1.9}}

// One more sign: everything is weighed anew and the reasons are listed.
func BenchmarkOneMoreSign(b *testing.B) {
	for b.Loop() {
		Weigh(seen).Reasons()
	}
}

func BenchmarkNextCheck(b *testing.B) {
	belief := Weigh(seen)
	for b.Loop() {
		belief.Checks(nil)
	}
}

// What leads somewhere is a check that there is.
func TestLeadsAreOfChecks(t *testing.T) {
	for id := range leads {
		if c, ok := CheckByID(id); !ok || c.Leads() == "" {
			t.Errorf("there is no check %q", id)
		}
	}
	if c, _ := CheckByID("measure-heel"); c.Leads() != "" {
		t.Errorf("measuring leads to %q", c.Leads())
	}
}
