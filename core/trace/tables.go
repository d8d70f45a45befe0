package trace

import (
	"embed"
	"encoding/csv"
	"fmt"
	"math"
	"strconv"
	"strings"
)

// A Cause is a reason that a cut goes wrong.
type Cause struct {
	ID, Label, Group string
	Hazard           bool
	On               []string // kinds of saw that can have it
	Prior            float64  // how often shops meet it, against the others
	Remedy, Source   string
}

// A Sign is what can be seen, felt or heard, and where.
type Sign struct {
	ID, Label string
	Place     string // wall, face, end, shape, groove, feel or when
	Danger    bool   // it is a hazard whatever the cause
	Leak      float64
}

// A Check is something to do that tells causes apart.
type Check struct {
	ID, Label string
	Minutes   float64
	Kind      string // look, measure, care, cut, or right: a danger put right before any cut
	Record    string // the kind of log row that answers it, if one does
	Pays      bool   // it costs money
	How       string
	at        int
}

// Where a check leads that is set or fitted elsewhere.
const (
	LeadsToCut    = "cut"    // another setting or another blade for the same cut
	LeadsToGroove = "groove" // a groove's fit
)

var leads = map[string]string{
	"raise-blade": LeadsToCut, "lower-blade": LeadsToCut, "fewer-teeth": LeadsToCut, "more-teeth": LeadsToCut, "thin-kerf": LeadsToCut, "less-hook": LeadsToCut,
	"stiffer-blade": LeadsToCut, "sharp-blade": LeadsToCut, "feed-quicker": LeadsToCut, "feed-slower": LeadsToCut,
	"restack": LeadsToGroove, "measure-groove": LeadsToGroove,
}

// Leads is where a check is set or fitted, or empty.
func (c Check) Leads() string { return leads[c.ID] }

// NeedsCut reports whether a check is a test cut.
func (c Check) NeedsCut() bool { return c.Kind == "cut" || c.Kind == "care" }

type clash struct{ a, b, why string }

// A moved row says by how much a fact of the shop's state moves a cause's odds:
// from one factor to another, evenly in the logarithm, between two values.
type moved struct {
	fact, cause            string
	low, high, atLow, atHi float64
}

type data struct {
	causes  []Cause
	signs   []Sign
	checks  []Check
	cause   map[string]int
	sign    map[string]int
	checkAt map[string]int
	shows   [][]float64 // sign, then cause
	finds   [][]float64 // check, then cause
	clashes []clash
	moves   []moved
}

//go:embed tables/*.csv
var files embed.FS

var tables = func() data {
	d, err := load()
	if err != nil {
		panic("trace: " + err.Error()) // the tables are in the binary, and tested
	}
	return d
}()

// reader reads one table by the names of its columns.
type reader struct {
	name string
	err  error
}

func (r *reader) rows(want int) [][]string {
	f, err := files.Open("tables/" + r.name + ".csv")
	if err != nil {
		r.err = err
		return nil
	}
	defer f.Close()
	in := csv.NewReader(f)
	in.FieldsPerRecord = want
	all, err := in.ReadAll()
	if err != nil {
		r.err = fmt.Errorf("%s.csv: %w", r.name, err)
		return nil
	}
	return all[1:]
}

func (r *reader) number(s string) float64 {
	v, err := strconv.ParseFloat(s, 64)
	if err != nil && r.err == nil {
		r.err = fmt.Errorf("%s.csv: %q is not a number", r.name, s)
	}
	return v
}

func (r *reader) known(m map[string]int, id string) int {
	i, ok := m[id]
	if !ok && r.err == nil {
		r.err = fmt.Errorf("%s.csv: %q is not known", r.name, id)
	}
	return i
}

func load() (data, error) {
	d := data{cause: map[string]int{}, sign: map[string]int{}, checkAt: map[string]int{}}
	var errs []*reader
	open := func(name string) *reader {
		r := &reader{name: name}
		errs = append(errs, r)
		return r
	}
	r := open("causes")
	for i, c := range r.rows(8) {
		d.causes = append(d.causes, Cause{c[0], c[1], c[2], c[3] == "yes", strings.Fields(c[4]), r.number(c[5]), c[6], c[7]})
		d.cause[c[0]] = i
	}
	r = open("signs")
	for i, c := range r.rows(6) {
		d.signs = append(d.signs, Sign{c[0], c[1], c[2], c[3] == "yes", r.number(c[4])})
		d.sign[c[0]] = i
		d.shows = append(d.shows, make([]float64, len(d.causes)))
	}
	r = open("checks")
	for i, c := range r.rows(8) {
		d.checks = append(d.checks, Check{c[0], c[1], r.number(c[2]), c[3], c[4], c[5] == "yes", c[6], i})
		d.checkAt[c[0]] = i
		d.finds = append(d.finds, make([]float64, len(d.causes)))
	}
	r = open("links")
	for _, c := range r.rows(4) {
		d.shows[r.known(d.sign, c[1])][r.known(d.cause, c[0])] = r.number(c[2])
	}
	r = open("answers")
	for _, c := range r.rows(4) {
		d.finds[r.known(d.checkAt, c[0])][r.known(d.cause, c[1])] = r.number(c[2])
	}
	r = open("clashes")
	for _, c := range r.rows(3) {
		r.known(d.sign, c[0])
		r.known(d.sign, c[1])
		d.clashes = append(d.clashes, clash{c[0], c[1], c[2]})
	}
	r = open("state")
	for _, c := range r.rows(7) {
		r.known(d.cause, c[1])
		d.moves = append(d.moves, moved{c[0], c[1], r.number(c[2]), r.number(c[3]), r.number(c[4]), r.number(c[5])})
	}
	for _, r := range errs {
		if r.err != nil {
			return d, r.err
		}
	}
	return d, nil
}

// factor is what the shop's state makes of a cause's odds.
func factor(cause string, state map[string]float64) float64 {
	f := 1.0
	for _, m := range tables.moves {
		v, known := state[m.fact]
		if m.cause != cause || !known {
			continue
		}
		at := max(0, min(1, (v-m.low)/(m.high-m.low)))
		f *= math.Exp((1-at)*math.Log(m.atLow) + at*math.Log(m.atHi))
	}
	return f
}

// Causes, Signs and Tests list the tables.
func Causes() []Cause { return append([]Cause(nil), tables.causes...) }

// Signs lists every sign.
func Signs() []Sign { return append([]Sign(nil), tables.signs...) }

// Tests lists every check.
func Tests() []Check { return append([]Check(nil), tables.checks...) }

// CauseByID finds a cause.
func CauseByID(id string) (Cause, bool) {
	i, ok := tables.cause[id]
	if !ok {
		return Cause{}, false
	}
	return tables.causes[i], true
}

// SignByID finds a sign.
func SignByID(id string) (Sign, bool) {
	i, ok := tables.sign[id]
	if !ok {
		return Sign{}, false
	}
	return tables.signs[i], true
}

// CheckByID finds a check.
func CheckByID(id string) (Check, bool) {
	i, ok := tables.checkAt[id]
	if !ok {
		return Check{}, false
	}
	return tables.checks[i], true
}

// lower makes a label go on inside a sentence.
