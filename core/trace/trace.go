// Package trace finds the likely causes of what is seen on the work, felt and
// heard, and says which check to do next: craft section 11.
//
// It is a small Bayesian network. One main cause, and perhaps a second, produces
// signs by a leaky noisy-or: each cause that is present produces a sign with its
// own strength, and a sign may also appear for a reason that isn't listed. What
// the shop knows shifts the odds of the causes first. All hypotheses are
// weighed, so the result is exact. The numbers are in tables/, one row each with
// its source, to be edited with a spreadsheet.
package trace

import (
	"cmp"
	"corte/core/say"
	"math"
	"slices"
)

const (
	secondShare = 0.12 // of faults that have a second cause; judgement
	falseAlarm  = 0.03 // of checks that show what is not there; judgement
	// StopAt is the chance of a hazard from which no test cut is made.
	StopAt = 0.4
	// ProvenAt is the chance from which a cause is as good as found.
	ProvenAt = 0.9
)

// An outlook is how every hypothesis answers one sign or check: the chance that
// it shows nothing, and how uncertain that leaves the answer. It is worked out
// once, since neither depends on what is believed.
type outlook struct{ no, entropy []float64 }

func outlooks(strengths [][]float64, leak func(int) float64) []outlook {
	out := make([]outlook, len(strengths))
	for k, strength := range strengths {
		o := outlook{make([]float64, len(hypotheses)), make([]float64, len(hypotheses))}
		for i, h := range hypotheses {
			no := (1 - leak(k)) * (1 - strength[h.a])
			if h.b >= 0 {
				no *= 1 - strength[h.b]
			}
			o.no[i], o.entropy[i] = no, entropy(no)
		}
		out[k] = o
	}
	return out
}

var (
	bySign  = outlooks(tables.shows, func(k int) float64 { return tables.signs[k].Leak })
	byCheck = outlooks(tables.finds, func(int) float64 { return falseAlarm })
)

// Evidence is what was looked at. What is in neither list was not looked at and
// says nothing.
type Evidence struct {
	Present, Absent []string        // signs
	Checks          map[string]bool // check to whether it showed the fault, or made the cut better
	State           map[string]float64
	Saw             string // table, miter or circular; empty if not said
	Groove          bool   // the cut does not go through; asked only where Saw is said
}

// byHandFace is how much sooner the show face lies the wrong way under a
// hand-held saw, whose teeth leave at the top; judgement.
const byHandFace = 4

// elsewhere is what is left of the odds of a cause that this saw, or this cut,
// cannot have. It is not 0, because people err about that too.
const elsewhere = 1e-4

func (e Evidence) possible(c Cause) float64 {
	if e.Saw != "" && (!slices.Contains(c.On, e.Saw) || c.Group == "groove" && !e.Groove) {
		return elsewhere
	}
	hook, read := e.State[itsHook]
	switch c.ID {
	case "show-face-wrong":
		if e.Saw == "circular" {
			return byHandFace
		}
	case "knife-off":
		if !e.knife() {
			return elsewhere
		}
	case "hook-too-strong":
		if read && hook <= 0 {
			return elsewhere
		}
	case "hook-unsuited":
		if read && hook >= ripHook {
			return elsewhere
		}
	case "kerf-too-wide":
		if e.State[thinKerf] == 1 {
			return elsewhere
		}
	}
	return 1
}

// ripHook is a hook that is weak for no cut.
const ripHook = 12

// knife reports whether the saw may have a riving knife.
func (e Evidence) knife() bool { return e.Saw != "miter" && e.State[noKnife] != 1 }

// offers reports whether a check can be made on this saw with this blade: none
// names a part that they have not.
func (e Evidence) offers(k Check) bool {
	switch k.ID {
	case "look-knife":
		return e.knife()
	case "thin-kerf":
		return e.State[thinKerf] != 1
	case "less-hook":
		hook, read := e.State[itsHook]
		return !read || hook > 0
	}
	on, only := onlyOn[k.ID]
	return e.Saw == "" || !only || slices.Contains(on, e.Saw)
}

var onlyOn = map[string][]string{
	"measure-heel": {"table"}, "measure-fence": {"table"}, "fence-off": {"table"}, "restack": {"table"}, "push-through": {"miter"},
	"raise-blade": {"table", "circular"}, "lower-blade": {"table", "circular"},
	"fresh-insert": {"table", "miter"}, "square-test": {"table", "miter"}, "clean-stops": {"table", "miter"}, "lift-clear": {"table", "miter"},
	"level-outfeed": {"table", "miter"}, "look-belt": {"table", "miter"},
}

// A hypothesis is one cause, or two.
type hypothesis struct{ a, b int } // b is -1 for one

var hypotheses = func() []hypothesis {
	n := len(tables.causes)
	out := make([]hypothesis, 0, n+n*(n-1)/2)
	for i := range n {
		out = append(out, hypothesis{i, -1})
	}
	for i := range n {
		for k := range i {
			out = append(out, hypothesis{k, i})
		}
	}
	return out
}()

// A Weighed is how likely every hypothesis is. The zero Weighed is not valid; use
// Weigh.
type Weighed struct {
	p        []float64 // over hypotheses, sums to 1
	evidence Evidence
}

// Weigh weighs all hypotheses by the evidence. Names that it does not know say
// nothing.
func Weigh(e Evidence) Weighed {
	odds := make([]float64, len(tables.causes))
	total := 0.0
	for i, c := range tables.causes {
		odds[i] = c.Prior * factor(c.ID, e.State) * e.possible(c)
		total += odds[i]
	}
	b := Weighed{make([]float64, len(hypotheses)), e}
	for i, h := range hypotheses {
		p := odds[h.a] / total
		if h.b >= 0 {
			b.p[i] = 2 * secondShare * p * odds[h.b] / total
		} else {
			b.p[i] = (1 - secondShare) * p
		}
	}
	b.normalise()
	for _, s := range sorted(e.Present) {
		b.see(s, true)
	}
	for _, s := range sorted(e.Absent) {
		b.see(s, false)
	}
	for _, k := range tables.checks {
		if found, done := e.Checks[k.ID]; done {
			b.update(byCheck[k.at], found)
		}
	}
	return b
}

// sorted makes the order of evidence not matter, to the last bit.
func sorted(all []string) []string {
	out := slices.Clone(all)
	slices.Sort(out)
	return slices.Compact(out)
}

func (b *Weighed) see(sign string, present bool) {
	if s, known := tables.sign[sign]; known {
		b.update(bySign[s], present)
	}
}

// update is one step of the leaky noisy-or.
func (b *Weighed) update(o outlook, yes bool) {
	for i, no := range o.no {
		if yes {
			no = 1 - no
		}
		b.p[i] *= no
	}
	b.normalise()
}

func (b *Weighed) normalise() {
	sum := 0.0
	for _, p := range b.p {
		sum += p
	}
	for i := range b.p {
		b.p[i] /= sum
	}
}

// Of is the chance that a cause is there, alone or as one of two.
func (b Weighed) Of(cause string) float64 {
	c, known := tables.cause[cause]
	if !known {
		return 0
	}
	return b.shares()[c]
}

// A Reason is a cause with its weight, and what speaks for and against it.
type Reason struct {
	Cause
	Share   float64
	For     []string // signs that it explains, and checks that showed it; by id
	Against []string // signs that it does not explain, or that it would show and are absent
	ByState float64  // odds that what the shop knows moved it by; 1 for none
}

// shares are the chances of all causes, in the order of their table.
func (b Weighed) shares() []float64 {
	out := make([]float64, len(tables.causes))
	for i, h := range hypotheses {
		out[h.a] += b.p[i]
		if h.b >= 0 {
			out[h.b] += b.p[i]
		}
	}
	return out
}

// forStrength is the strength from which a sign speaks for a cause, and against
// it where the sign is absent; under weak a present sign speaks against it.
const (
	forStrength = 0.3
	weak        = 0.05
)

// Reasons lists every cause, the likeliest first.
func (b Weighed) Reasons() []Reason {
	shares := b.shares()
	out := make([]Reason, len(tables.causes))
	for i, c := range tables.causes {
		r := Reason{Cause: b.evidence.worded(c), Share: shares[i], ByState: factor(c.ID, b.evidence.State)}
		for _, s := range b.evidence.Present {
			if k, known := tables.sign[s]; known {
				switch w := tables.shows[k][i]; {
				case w >= forStrength:
					r.For = append(r.For, s)
				case w < weak:
					r.Against = append(r.Against, s)
				}
			}
		}
		for _, s := range b.evidence.Absent {
			if k, known := tables.sign[s]; known && tables.shows[k][i] >= forStrength {
				r.Against = append(r.Against, s)
			}
		}
		for _, k := range tables.checks {
			found, done := b.evidence.Checks[k.ID]
			if w := tables.finds[k.at][i]; done && w >= forStrength {
				if found {
					r.For = append(r.For, k.ID)
				} else {
					r.Against = append(r.Against, k.ID)
				}
			}
		}
		out[i] = r
	}
	slices.SortStableFunc(out, func(x, y Reason) int {
		switch {
		case x.Share > y.Share:
			return -1
		case x.Share < y.Share:
			return 1
		}
		return 0
	})
	return out
}

// Stop reports whether a hazard is likely enough that no test cut is made: by
// the weight of the causes that can hurt, or by a sign that is itself one.
func (b Weighed) Stop() bool {
	if b.unlooked() {
		return true
	}
	for _, s := range b.evidence.Present {
		if k, known := tables.sign[s]; known && tables.signs[k].Danger {
			return true
		}
	}
	return b.hazard() >= StopAt
}

// After a hit nothing is cut until somebody has looked (craft section 10).
const (
	hitSign   = "since-a-hit"
	lookCheck = "look-teeth"
)

func (b Weighed) unlooked() bool {
	_, looked := b.evidence.Checks[lookCheck]
	return !looked && slices.Contains(b.evidence.Present, hitSign)
}

// alarms are heard or felt before something lets go: power off, and look, before
// another cut is made.
var alarms = []string{"whistle", "vibration", "rim-sways"}

// alarmed reports whether one is there and nobody has looked at blade and nut.
func (b Weighed) alarmed() bool {
	if !slices.ContainsFunc(b.evidence.Present, func(s string) bool { return slices.Contains(alarms, s) }) {
		return false
	}
	for _, look := range []string{lookCheck, "check-arrow"} {
		if _, done := b.evidence.Checks[look]; done {
			return false
		}
	}
	return true
}

func (b Weighed) hazard() float64 {
	sum := 0.0
	for i, h := range hypotheses {
		if tables.causes[h.a].Hazard || h.b >= 0 && tables.causes[h.b].Hazard {
			sum += b.p[i]
		}
	}
	return sum
}

// A Next is a check that could be done now, and what it would tell.
type Next struct {
	Check
	Bits  float64 // expected information
	Finds float64 // chance that it shows the fault, or mends it
}

// Checks lists the checks that are safe now and not done yet, the one that
// tells most a minute first. Where it must stop, those that need a cut are left
// out. skip names checks that somebody could not do.
func (b Weighed) Checks(skip []string) []Next {
	stop := b.Stop()
	var out []Next
	for _, k := range tables.checks {
		_, done := b.evidence.Checks[k.ID]
		if done || slices.Contains(skip, k.ID) || stop && k.NeedsCut() || !b.evidence.offers(k) {
			continue
		}
		k = b.evidence.named(k)
		if bits, finds := b.tells(k.at); bits > noise {
			out = append(out, Next{k, bits, finds})
		}
	}
	slices.SortStableFunc(out, func(x, y Next) int { return -cmp.Compare(x.worth(), y.worth()) })
	b.lookFirst(out)
	return out
}

// lookFirst puts what looks at the blade before a test cut at another feed,
// where something points to the blade, before any cut where something whistles,
// rattles or shakes, and before everything after a hit: wash and look first
// (craft sections 9 and 10). A change of feed that is free stays first where
// nothing does.
func (b Weighed) lookFirst(out []Next) {
	if len(out) == 0 {
		return
	}
	first := func(ok func(Next) bool) {
		if i := slices.IndexFunc(out, ok); i > 0 {
			n := out[i]
			copy(out[1:i+1], out[:i])
			out[0] = n
		}
	}
	switch {
	case b.unlooked():
		first(func(n Next) bool { return n.ID == lookCheck })
	case b.alarmed() && out[0].NeedsCut():
		first(func(n Next) bool { return !n.NeedsCut() })
		first(func(n Next) bool { return n.ID == lookCheck })
	case out[0].ID == "other-wood": // the same wood, fed quicker, tells as much and costs no board
		first(func(n Next) bool { return n.ID == "feed-quicker" })
	case slices.Contains(feedCuts, out[0].ID) && b.group("blade") >= pointsToBlade:
		first(func(n Next) bool { return n.ID == lookCheck || n.Kind == "care" })
	}
}

var feedCuts = []string{"feed-quicker", "feed-slower"}

// pointsToBlade is the weight of all that can be wrong with the blade itself
// from which it is looked at first; judgement.
const pointsToBlade = 0.45

// group is the chance that a cause of a group is there.
func (b Weighed) group(name string) float64 {
	sum := 0.0
	for i, h := range hypotheses {
		if tables.causes[h.a].Group == name || h.b >= 0 && tables.causes[h.b].Group == name {
			sum += b.p[i]
		}
	}
	return sum
}

// noise is the information under which a check is not worth its minutes.
const noise = 0.004

const (
	// whatItCosts weighs a check that costs money against one that does not:
	// wash and look before anything that costs money. Judgement.
	whatItCosts = 0.6
	// settingUp is what stopping, setting and looking take around any check, in
	// minutes; judgement.
	settingUp = 3
)

// worth is what a check brings a minute: what it tells, and the chance that it
// ends the search by showing the fault.
func (n Next) worth() float64 {
	w := (n.Bits + n.Finds) / (n.Minutes + settingUp)
	if n.Pays {
		w *= whatItCosts
	}
	return w
}

// tells is the mutual information, in bits, of a check's outcome and the
// hypotheses, and the chance that it shows what is there.
func (b Weighed) tells(k int) (bits, finds float64) {
	o := byCheck[k]
	silent, given := 0.0, 0.0
	for i, p := range b.p {
		silent += p * o.no[i]
		given += p * o.entropy[i]
	}
	return entropy(silent) - given, 1 - silent/(1-falseAlarm)
}

func entropy(p float64) float64 {
	if p <= 0 || p >= 1 {
		return 0
	}
	return -p*math.Log2(p) - (1-p)*math.Log2(1-p)
}

// Doubts says what in the evidence contradicts itself, or is explained by no
// likely cause. It is said, not hidden.
func (b Weighed) Doubts() []say.Line {
	out := []say.Line{}
	for _, c := range tables.clashes {
		if slices.Contains(b.evidence.Present, c.a) && slices.Contains(b.evidence.Present, c.b) {
			out = append(out, say.Of("“%s” and “%s”: %s", say.Word(tables.signs[tables.sign[c.a]].Label), say.Word(tables.signs[tables.sign[c.b]].Label), say.Word(c.why)))
		}
	}
	for _, s := range b.evidence.Present {
		k, known := tables.sign[s]
		if !known {
			continue
		}
		explained := 0.0
		for i, h := range hypotheses {
			w := tables.shows[k][h.a]
			if h.b >= 0 {
				w = 1 - (1-w)*(1-tables.shows[k][h.b])
			}
			explained += b.p[i] * w
		}
		if explained < unexplained {
			out = append(out, say.Of("“%s”: no likely cause explains it. Check again whether you see it", say.Word(tables.signs[k].Label)))
		}
	}
	for _, s := range b.evidence.Absent {
		if slices.Contains(b.evidence.Present, s) {
			if k, known := tables.sign[s]; known {
				out = append(out, say.Of("“%s” is marked both as seen and not seen", say.Word(tables.signs[k].Label)))
			}
		}
	}
	return out
}

// unexplained is the strength under which nothing likely explains a sign.
const unexplained = 0.15

// Exhausted reports whether nothing that can be checked is worth checking and
// no cause is as good as found.
func (b Weighed) Exhausted(skip []string) bool {
	r := b.Reasons()
	return len(b.Checks(skip)) == 0 && r[0].Share < ProvenAt
}
