// Package care works out the condition of a blade from its log (wear, pitch,
// cuts since the last wash and sharpening, what was said and found), what is due
// and when, how a wash goes, what a bath needs, and what a meter of cut costs:
// craft sections 9, 10 and 14, model section 9.
//
// A condition is never typed in. It follows from the log alone.
package care

import (
	"math"
	"time"

	"corte/core/blade"
	"corte/core/word"
)

// lifeM2 is the wood face, in m² per tooth at abrasion 1, after which an
// average edge is dull; pitchM2 likewise sets how soon pitch gathers.
const (
	lifeM2  = 1.9
	pitchM2 = 0.6
)

// grindLife is how much longer or shorter than lifeM2 a grind stays sharp;
// grinds that are not named here last as long as ATB.
var grindLife = map[blade.Grind]float64{blade.FTG: 1.2, blade.HighATB: 0.6, blade.TCG: 1.4}

// Life is the m² per tooth after which a blade of this grind is dull, before
// its owner has said anything.
func Life(g blade.Grind) float64 {
	if f, ok := grindLife[g]; ok {
		return lifeM2 * f
	}
	return lifeM2
}

// A Condition is what the log adds up to. The zero Condition is new and clean.
type Condition struct {
	WearM2       float64 // per tooth since new or sharpened, weighted by abrasion
	ResinM2      float64 // per tooth since washed or sharpened, weighted by resin
	MetresSharp  float64 // cut since new or sharpened
	MetresWashed float64 // cut since washed or sharpened
	Metres       float64 // cut in all its lives
	Cuts         int
	CutsSharp    int // log lines since new or sharpened
	CutsWashed   int
	Sharpenings  int
	Washes       int

	SharpFrom time.Time // first cut since new or sharpened; zero if none
	WashFrom  time.Time // first cut since washed or sharpened
	Used      time.Time // last cut

	Life  Belief // about the m² that dull it
	Pitch Belief // about the m² that gum it up

	// What its owner says of a blade stands from that moment, whatever its log
	// says: so much is added to the wear and to the resin.
	ToldM2      float64 // under 0 where it is sharper than its log says
	ToldResinM2 float64

	DullSaid   bool // "dull" was said since new or sharpened, of an edge that was no longer fresh
	Complained bool // it was complained of since the last wash that cared for it
	Seen       int  // cuts since then that came out worse than they should
	Asked      bool // it was washed, and nobody has said yet whether that brought it back
	NotBack    bool // the wash did not bring it back
	Looked     bool // teeth and plate were looked over since the complaint

	Flaw  string // what the last look-over found that may still run
	Unfit string // what a look-over found that may not run, until it is mended and inspected
	Hit   bool   // it hit something hard, and nobody has looked since
	Away  bool   // with the saw doctor

	SaidLeft bool // the saw doctor said how many sharpenings are left
	Left     int
	Spent    float64 // on sharpenings, in the shop's own money

	Before Before // the complaint, for a wash to give back
}

// Before is what was believed of a blade before it was complained of.
type Before struct {
	Life, Pitch Belief
	Resin       float64 // at the wash
}

// A Kind is what happened to a blade.
type Kind uint8

const (
	Cut    Kind = iota // wood was cut
	Wash               // the pitch was taken off
	Return             // it came back from the saw doctor
	Say                // somebody said how it cuts
	Look               // teeth and plate were looked over
	Send               // it went to the saw doctor
	Mend               // somebody mended it, and somebody inspected it
)

var kindNames = word.Names{Kind: "event", Of: []string{"cut", "wash", "return", "say", "look", "send", "mend"}}

func (k Kind) String() string { return word.Name(kindNames, k) }

// An Event is one row of a blade's log as the fold sees it.
type Event struct {
	Kind Kind
	At   time.Time

	// Of a cut.
	Metres    float64
	FaceM2    float64 // wood face: metres times thickness
	Abrasion  float64
	Resin     float64
	Burnt     bool // a wall browned or worse; for the blade's story alone
	Surprise  bool // it burnt or fed hard where the model saw no reason to
	Easy      bool // it fed easily
	CameBack  bool // the answer, if one was given, to whether a wash brought it back
	Answered  bool
	Says      Saying  // of a Say
	Fault     Fault   // of a Look
	Sharpened bool    // of a Return; otherwise it was only mended
	Price     float64 // of a Return
	SaidLeft  bool
	Left      int
}

// A Saying is what somebody says of how a blade cuts.
type Saying uint8

const (
	Dull     Saying = iota + 1 // dull now
	Hard                       // it feeds hard, and nobody knows why
	Gummed                     // pitch and resin have built up on it
	HalfWorn                   // the edge is half worn
	Sharp                      // the edge is sharp
	LikeNew                    // it cuts like new
	Hit                        // it hit metal, stone or the floor
)

var sayings = map[string]Saying{"dull": Dull, "hard": Hard, "pitchy": Gummed, "half-worn": HalfWorn, "sharp": Sharp, "like-new": LikeNew, "hit": Hit}

// ParseSaying reads a saying as records hold it, or 0.
func ParseSaying(s string) Saying { return sayings[s] }

// A Fault is what a look-over finds (craft section 10).
type Fault string

const (
	Sound   Fault = ""
	Cracked Fault = "cracked" // plate, at a gullet or slot
	Loose   Fault = "loose"   // a tip
	Missing Fault = "missing" // a tip
	Bent    Fault = "bent"    // the plate
	Chipped Fault = "chipped" // an edge
	Blue    Fault = "blue"    // the plate was hot
)

// Faults are those that a look-over can find, the gravest first.
func Faults() []Fault { return []Fault{Cracked, Missing, Loose, Bent, Chipped, Blue} }

// faultWords say what was found, and whether the blade may still run. A
// cracked plate or a loose tip is not run (craft section 15).
var faultWords = map[Fault]struct {
	says  string
	unfit bool
}{
	Cracked: {"its plate is cracked", true},
	Loose:   {"a tip is loose", true},
	Missing: {"a tip is missing", true},
	Bent:    {"its plate is bent", true},
	Chipped: {"a tip is chipped", false},
	Blue:    {"its plate has been blue hot", true}, // overheated steel may have lost its tension
}

// Unfits reports whether a blade with the fault may not run.
func (f Fault) Unfits() bool { return faultWords[f].unfit }

// Words says what was found, without a full stop; empty if all is sound.
func (f Fault) Words() string { return faultWords[f].says }

// Chipped reports whether the last look-over found a chipped tip that nobody
// has ground away since.
func (c Condition) Chipped() bool { return c.Flaw == Chipped.Words() }

// Then returns the condition after one more row of the log of a blade with so
// many teeth and such a grind. Rows come in the order of their time.
func (c Condition) Then(b blade.Blade, e Event) Condition {
	switch e.Kind {
	case Cut:
		c.cut(b, e)
	case Wash:
		c.Asked = c.GumM2() > 0 || c.Complained
		c.Before.Resin = c.GumM2()
		c.NotBack = false
		c.clean()
		c.Washes++
	case Return:
		// That it was sent and came back does not mend a plate or a tip; grinding
		// takes a chip off.
		c.Away = false
		c.Spent += e.Price
		if e.Sharpened {
			c.Flaw = ""
			c.sharpen()
		}
		if e.SaidLeft {
			c.SaidLeft, c.Left = true, e.Left
		}
	case Say:
		c.say(b.Grind, e.Says, sdSaid)
	case Look:
		c.Looked, c.Hit = true, false
		if e.Fault.Unfits() {
			c.Unfit = e.Fault.Words()
		} else {
			c.Flaw = e.Fault.Words()
		}
	case Mend:
		c.Unfit, c.Flaw, c.Hit = "", "", false
	case Send:
		c.Away = true
	}
	return c
}

func (c *Condition) cut(b blade.Blade, e Event) {
	c.Cuts++
	c.CutsSharp++
	c.CutsWashed++
	c.Metres += e.Metres
	c.MetresSharp += e.Metres
	c.MetresWashed += e.Metres
	if c.SharpFrom.IsZero() {
		c.SharpFrom = e.At
	}
	if c.WashFrom.IsZero() {
		c.WashFrom = e.At
	}
	c.Used = e.At
	if b.Teeth > 0 {
		face := e.FaceM2 / float64(b.Teeth)
		c.WearM2 += face * e.Abrasion
		c.ResinM2 += face * e.Resin
	}
	if e.Answered && c.Asked {
		c.answer(e.CameBack)
	}
	switch {
	case e.Surprise:
		c.say(b.Grind, Hard, sdSeen)
	case e.Easy:
		c.outlasts(b.Grind, easyFactor, sdSeen)
	}
}

// answer is whether a wash brought the cut back. If it did, it was pitch and
// not the edge, and what was held against the edge is taken back.
func (c *Condition) answer(back bool) {
	c.Asked = false
	if !back {
		c.NotBack = true
		return
	}
	if c.Complained || c.Seen > 0 {
		c.Life, c.Pitch = c.Before.Life, c.Before.Pitch
		c.gums(c.Before.Resin, sdSaid)
		c.ToldM2 = min(0, c.ToldM2)
	}
	c.Complained, c.Looked, c.DullSaid, c.Seen = false, false, false, 0
}

func (c *Condition) clean() {
	c.ResinM2, c.ToldResinM2, c.MetresWashed, c.CutsWashed, c.WashFrom = 0, 0, 0, 0, time.Time{}
}

// sharpen makes the edges new; a sharpened blade comes back clean.
func (c *Condition) sharpen() {
	c.WearM2, c.ToldM2, c.MetresSharp, c.CutsSharp, c.SharpFrom = 0, 0, 0, 0, time.Time{}
	c.clean()
	c.DullSaid, c.Complained, c.Asked, c.NotBack, c.Looked, c.Seen = false, false, false, false, false, 0
	c.Left = max(0, c.Left-1)
	c.Sharpenings++
}

// WearShare is how much of the edge's life is used up: 1 is dull.
func (c Condition) WearShare(g blade.Grind) float64 { return c.EdgeM2() / c.LifeM2(g) }

// EdgeM2 is the wear of the edge as it stands: what the log adds up to, and what
// its owner has said since.
func (c Condition) EdgeM2() float64 { return max(0, c.WearM2+c.ToldM2) }

// GumM2 is the same of pitch and resin.
func (c Condition) GumM2() float64 { return max(0, c.ResinM2+c.ToldResinM2) }

// LifeM2 is the m² per tooth after which this blade is thought to be dull.
func (c Condition) LifeM2(g blade.Grind) float64 { return Life(g) * math.Exp(c.Life.Shift) }

// Sharpness is the factor S by which the edge raises force and heat: 1 sharp,
// 2.5 where the wear has reached the life.
func (c Condition) Sharpness(g blade.Grind) float64 {
	return 1 + 1.5*math.Pow(c.WearShare(g), 1.2)
}

// Caked is the level of pitch past which nothing more is told apart.
const Caked = 3

// PitchLevel is from 0 clean to Caked.
func (c Condition) PitchLevel() float64 {
	return Caked * (1 - math.Exp(-c.GumM2()/(pitchM2*math.Exp(c.Pitch.Shift))))
}

// WashAt is the pitch level from which a wash is due; at DullAt the edges are
// dull, and from WornAt the edge is worth a word.
const (
	WashAt = 1.5
	DullAt = 2.5
	WornAt = 1.6
)

// Word says in one word how a blade stands, the gravest first.
func (c Condition) Word(g blade.Grind) string {
	switch s, p := c.Sharpness(g), c.PitchLevel(); {
	case c.Unfit != "", c.Hit:
		return "unfit"
	case c.Away:
		return "away"
	case s >= DullAt:
		return "dull"
	case p >= WashAt:
		return "pitchy"
	case s >= WornAt:
		return "worn"
	}
	return "fine"
}
