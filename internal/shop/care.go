package shop

import (
	"context"
	"crypto/rand"
	"crypto/sha256"
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"time"

	ics "github.com/arran4/golang-ical"
	"github.com/google/uuid"

	"corte/core/care"
	"corte/core/choose"
	"corte/core/measure"
	"corte/core/saw"
	"corte/core/verdict"
	"corte/core/word"
	"corte/internal/store"
)

// A Care is how all of a shop's blades stand, and what is under way.
type Care struct {
	Blades  []BladeCare // the most urgent first
	Washes  []Wash
	Grooves []GrooveRow   // that are being fitted
	Away    []store.Entry // sent rows of the blades that are with the saw doctor
	Baths   []Bath
}

// A BladeCare is what one blade wants.
type BladeCare struct {
	Blade    store.Blade
	Health   care.Health
	Path     []care.Step // where somebody complained of it
	Left     int         // sharpenings
	LeftFrom string
	StandIns []string // names of blades that can serve while it is away
}

// A Bath is a tray of cleaner and what it wants.
type Bath struct {
	store.Bath
	Cleaner care.Cleaner
	Word    string // good, strain or replace
	Why     string
	Until   time.Time // when it is too old
}

// Care tells of every blade that has teeth and is not retired.
func (s *Service) Care(ctx context.Context, shop uuid.UUID) (Care, error) {
	var out Care
	blades, err := s.st.Blades(ctx, shop, store.Place{}, 0)
	if err != nil {
		return out, err
	}
	owned, err := s.st.Saws(ctx, shop)
	if err != nil {
		return out, err
	}
	saws := make([]saw.Saw, len(owned))
	for i, w := range owned {
		saws[i] = w.Saw
	}
	aligned, err := s.aligned(ctx, shop)
	if err != nil {
		return out, err
	}
	now := s.now()
	for _, b := range blades {
		if b.Teeth == 0 {
			continue
		}
		one := BladeCare{Blade: b, Health: care.HealthOf(b.Condition, b.Grind, now),
			Path: care.Path(b.Condition, b.Grind, b.MountedOn != nil && aligned[*b.MountedOn])}
		one.Left, one.LeftFrom = care.SharpeningsLeft(b.Condition, b.Blade, b.Tip.Mm(), b.Sharpened)
		for _, o := range blades {
			if o.ID != b.ID && choose.StandsIn(o.Blade, b.Blade, saws) && choose.Bar(o.Condition) == nil && choose.CareVerdict(State(o.Blade, o.Condition)) == verdict.Clear {
				one.StandIns = append(one.StandIns, o.Name)
			}
		}
		out.Blades = append(out.Blades, one)
	}
	slices.SortStableFunc(out.Blades, func(a, b BladeCare) int {
		if d := int(b.Health.Worst()) - int(a.Health.Worst()); d != 0 {
			return d
		}
		return strings.Compare(a.Blade.Name, b.Blade.Name)
	})
	all, err := s.st.Washes(ctx, shop)
	if err != nil {
		return out, err
	}
	for _, w := range all {
		one, err := s.wash(ctx, w)
		if err != nil {
			return out, err
		}
		out.Washes = append(out.Washes, one)
	}
	if out.Grooves, err = s.fitting(ctx, shop); err != nil {
		return out, err
	}
	if out.Away, err = s.st.Away(ctx, shop); err != nil {
		return out, err
	}
	out.Baths, err = s.Baths(ctx, shop)
	return out, err
}

// aligned tells the saws whose heel and run-out were measured lately and found
// good; a saw that has no slot needs only the latter.
func (s *Service) aligned(ctx context.Context, shop uuid.UUID) (map[uuid.UUID]bool, error) {
	saws, err := s.st.Saws(ctx, shop)
	if err != nil {
		return nil, err
	}
	all, err := s.st.Stands(ctx, shop)
	if err != nil {
		return nil, err
	}
	out := map[uuid.UUID]bool{}
	for _, w := range saws {
		ok := true
		for _, st := range standsOf(w, all, s.now()) {
			if st.Test == "heel" || st.Test == "runout" {
				ok = ok && st.Stale == "" && st.Entry != nil && truingVerdict(*st.Entry) == verdict.Clear.String()
			}
		}
		out[w.ID] = ok
	}
	return out, nil
}

// A Wash is a wash under way, with its steps and its blades.
type Wash struct {
	store.Wash
	Of      []store.Blade
	Cleaner care.Cleaner
	Steps   []care.WashStep
}

// A WashAsk is what somebody wants to wash, and with what.
type WashAsk struct {
	Blades   []uuid.UUID
	Cleaner  string
	Brush    care.Brush
	Bath     *uuid.UUID
	ForScrap bool // a caked plate that is about to be scrapped or retipped
	Accepted bool // the risk of a harsh cleaner
	By       string
}

// mostAtOnce is how many blades go in one bath.
const mostAtOnce = 20

// CheckWash says what does not agree between blades, cleaner and brush, or
// refuses what cannot be.
func (s *Service) CheckWash(ctx context.Context, shop uuid.UUID, a WashAsk) ([]care.Warning, error) {
	k, err := care.CleanerByID(a.Cleaner)
	if err != nil {
		return nil, invalid("cleaner", "%s", err)
	}
	if err := care.CheckBrush(a.Brush); err != nil {
		return nil, invalid("brush", "%s", err)
	}
	if len(a.Blades) == 0 || len(a.Blades) > mostAtOnce {
		return nil, invalid("blade_ids", "choose 1 to %d blades", mostAtOnce)
	}
	warnings := []care.Warning{}
	if w, harsh := k.Risk(); harsh {
		warnings = append(warnings, w)
	}
	for _, id := range a.Blades {
		b, err := s.st.Blade(ctx, shop, id)
		if err != nil {
			return nil, missing(err, "blade_ids", "blade")
		}
		if b.Condition.Away {
			return nil, invalid("blade_ids", "%s is away at the saw doctor", b.Name)
		}
		if !a.ForScrap {
			warnings = append(warnings, care.Agrees(k, b.Name, b.Coating)...)
		}
		if b.MountedOn != nil {
			warnings = append(warnings, care.Warning{Verdict: verdict.Mind, Says: b.Name + " is on a saw: power off at the plug, and gloves, before it comes off"})
		}
	}
	if a.Bath != nil {
		baths, err := s.Baths(ctx, shop)
		if err != nil {
			return nil, err
		}
		i := slices.IndexFunc(baths, func(b Bath) bool { return b.ID == *a.Bath })
		if i < 0 {
			return nil, &Error{Missing, "bath_id", "there is no such bath in this shop"}
		}
		if baths[i].Cleaner.ID != k.ID {
			return nil, invalid("bath_id", "that bath is %s; never mix cleaners", baths[i].Cleaner.Name)
		}
		if baths[i].Word != "good" {
			warnings = append(warnings, care.Warning{Verdict: verdict.Mind, Says: fmt.Sprintf("%s wants to be seen to: %s", baths[i].Name, baths[i].Why)})
		}
	}
	return warnings, nil
}

// StartWash begins a wash. A cleaner that attacks a coating
// is refused; a harsh one wants its risk accepted.
func (s *Service) StartWash(ctx context.Context, shop uuid.UUID, a WashAsk) (Wash, error) {
	warnings, err := s.CheckWash(ctx, shop, a)
	if err != nil {
		return Wash{}, err
	}
	k, _ := care.CleanerByID(a.Cleaner)
	for _, w := range warnings {
		if w.Verdict == verdict.Stop {
			return Wash{}, invalid("cleaner", "%s", w.Says)
		}
	}
	if w, harsh := k.Risk(); harsh && !a.Accepted {
		return Wash{}, invalid("accept_risk", "%s. Say that you take the care it asks, or choose another", w.Says)
	}
	now := s.now()
	id, err := s.add(ctx, func(tx *store.Store, id uuid.UUID) error {
		return tx.StartWash(ctx, store.Wash{ID: id, Shop: shop, Blades: a.Blades, Cleaner: a.Cleaner, Brush: string(a.Brush), Bath: a.Bath,
			StepAt: now, Started: now, By: a.By})
	})
	if err != nil {
		return Wash{}, err
	}
	return s.Wash(ctx, shop, id)
}

// Wash finds a wash that is under way.
func (s *Service) Wash(ctx context.Context, shop, id uuid.UUID) (Wash, error) {
	w, err := s.st.Wash(ctx, shop, id)
	if err != nil {
		return Wash{}, missing(err, "id", "wash under way")
	}
	return s.wash(ctx, w)
}

func (s *Service) wash(ctx context.Context, w store.Wash) (Wash, error) {
	out := Wash{Wash: w}
	var err error
	if out.Cleaner, err = care.CleanerByID(w.Cleaner); err != nil {
		return out, err
	}
	for _, id := range w.Blades {
		b, err := s.st.Blade(ctx, w.Shop, id)
		if err != nil {
			return out, err
		}
		out.Of = append(out.Of, b)
	}
	out.Steps = care.WashSteps(out.Cleaner, care.Brush(w.Brush), len(w.Blades))
	return out, nil
}

// StepWash moves a wash to a step, over the version it carries. The step's
// timer begins now.
func (s *Service) StepWash(ctx context.Context, shop, id uuid.UUID, step, version int) (Wash, error) {
	w, err := s.Wash(ctx, shop, id)
	if err != nil {
		return w, err
	}
	if step < 0 || step >= len(w.Steps) {
		return w, invalid("step", "this wash has %d steps", len(w.Steps))
	}
	row := w.Wash
	row.Step, row.StepAt, row.Version = step, s.now(), version
	if err := s.st.StepWash(ctx, row); err != nil {
		return w, stale(missing(err, "id", "wash under way"), "wash")
	}
	return s.Wash(ctx, shop, id)
}

// DropWash gives a wash up without a trace.
func (s *Service) DropWash(ctx context.Context, shop, id uuid.UUID) error {
	return missing(s.st.DropWash(ctx, shop, id), "id", "wash under way")
}

// EndWash logs the wash of every blade, and counts the bath's use.
func (s *Service) EndWash(ctx context.Context, shop, id uuid.UUID, version int) ([]store.Entry, error) {
	w, err := s.Wash(ctx, shop, id)
	if err != nil {
		return nil, err
	}
	if w.Version != version {
		return nil, stale(store.ErrStale, "wash")
	}
	if last := len(w.Steps) - 1; w.Step != last {
		return nil, invalid("step", "%s comes first: the wash ends with the film", w.Steps[w.Step+1].Title)
	}
	raw, err := json.Marshal(store.WashedDetail{Cleaner: w.Cleaner.ID, Brush: w.Brush, Bath: w.Bath, With: len(w.Blades)})
	if err != nil {
		return nil, err
	}
	var rows []store.Entry
	err = s.st.Atomically(ctx, func(tx *store.Store) error {
		rows = nil
		if err := tx.EndWash(ctx, shop, id, version); err != nil {
			return stale(missing(err, "id", "wash under way"), "wash") // somebody else ended it
		}
		// Blades are taken in one order, so that two washes cannot wait for each other.
		ids := slices.SortedFunc(slices.Values(w.Blades), func(a, b uuid.UUID) int { return strings.Compare(a.String(), b.String()) })
		for _, blade := range slices.Compact(ids) {
			row, err := tx.Append(ctx, store.Entry{Shop: shop, At: s.now(), Kind: store.KindWashed, Blade: &blade, By: w.By, Detail: raw})
			if err != nil {
				return err
			}
			rows = append(rows, row)
		}
		if w.Bath != nil {
			return tx.UseBath(ctx, shop, *w.Bath, len(rows))
		}
		return nil
	})
	return rows, err
}

// Baths lists the shop's baths and what they want.
func (s *Service) Baths(ctx context.Context, shop uuid.UUID) ([]Bath, error) {
	rows, err := s.st.Baths(ctx, shop)
	if err != nil {
		return nil, err
	}
	out := make([]Bath, len(rows))
	for i, b := range rows {
		k, err := care.CleanerByID(b.Cleaner)
		if err != nil {
			return nil, err
		}
		out[i] = Bath{Bath: b, Cleaner: k, Until: b.Made.AddDate(0, 0, k.Keeps)}
		out[i].Word, out[i].Why = care.BathState(k, b.Uses, b.Uses-b.Strained, s.now().Sub(b.Made))
	}
	return out, nil
}

// A BathAsk is a bath to make up.
type BathAsk struct {
	Name     string
	Cleaner  string
	Tray     care.Tray
	Diameter measure.Length
	Kerf     measure.Length
	Blades   int
}

// MixBath works out how a bath is made up.
func (s *Service) MixBath(a BathAsk) (care.Mix, error) {
	k, err := care.CleanerByID(a.Cleaner)
	if err != nil {
		return care.Mix{}, invalid("cleaner", "%s", err)
	}
	m, err := care.MixFor(a.Tray, k, a.Diameter, a.Kerf, a.Blades)
	if err != nil {
		return m, invalid("tray", "%s", err)
	}
	return m, nil
}

// MakeBath notes that a bath was made up.
func (s *Service) MakeBath(ctx context.Context, shop uuid.UUID, a BathAsk) (Bath, error) {
	m, err := s.MixBath(a)
	if err != nil {
		return Bath{}, err
	}
	id, err := s.add(ctx, func(tx *store.Store, id uuid.UUID) error {
		return tx.AddBath(ctx, store.Bath{ID: id, Shop: shop, Name: a.Name, Cleaner: a.Cleaner, Length: a.Tray.Length, Width: a.Tray.Width,
			Depth: a.Tray.Depth, Round: a.Tray.Round, Litres: m.Litres, Made: s.now()})
	})
	if err != nil {
		return Bath{}, err
	}
	return s.bath(ctx, shop, id)
}

func (s *Service) bath(ctx context.Context, shop, id uuid.UUID) (Bath, error) {
	all, err := s.Baths(ctx, shop)
	if err != nil {
		return Bath{}, err
	}
	for _, b := range all {
		if b.ID == id {
			return b, nil
		}
	}
	return Bath{}, missing(store.ErrNone, "id", "bath")
}

// StrainBath notes that a bath was strained.
func (s *Service) StrainBath(ctx context.Context, shop, id uuid.UUID) (Bath, error) {
	if err := s.st.StrainBath(ctx, shop, id); err != nil {
		return Bath{}, missing(err, "id", "bath")
	}
	return s.bath(ctx, shop, id)
}

// EmptyBath notes that a bath was thrown away.
func (s *Service) EmptyBath(ctx context.Context, shop, id uuid.UUID) error {
	return missing(s.st.EmptyBath(ctx, shop, id, s.now()), "id", "bath")
}

// SendOut logs that a blade goes to the saw doctor. A retired blade does not.
func (s *Service) SendOut(ctx context.Context, shop uuid.UUID, blade uuid.UUID, d store.SentDetail, by, note string) (store.Entry, error) {
	b, err := s.Blade(ctx, shop, blade)
	switch {
	case err != nil:
		return store.Entry{}, err
	case b.Retired != nil:
		return store.Entry{}, invalid("id", "%s is retired", b.Name)
	case d.To == "":
		return store.Entry{}, invalid("to", "say where it goes")
	}
	return s.note(ctx, shop, blade, store.KindSent, d, by, note)
}

// TakeBack logs that a blade came back, sharpened or only mended, and writes
// its new kerf and diameter into its numbers.
func (s *Service) TakeBack(ctx context.Context, shop uuid.UUID, blade uuid.UUID, sharpened bool, d store.SharpenedDetail, by, note string) (store.Entry, error) {
	b, err := s.Blade(ctx, shop, blade)
	if err != nil {
		return store.Entry{}, err
	}
	changed := b
	if d.Kerf > 0 {
		changed.Kerf = measure.Length(d.Kerf)
	}
	if d.Diameter > 0 {
		changed.Diameter = measure.Length(d.Diameter)
	}
	if d.Diameter > b.Diameter.Mm()+1 {
		return store.Entry{}, invalid("diameter_mm", "a blade does not come back larger than the %v it went out with", b.Diameter)
	}
	if err := CheckBlade(changed); err != nil {
		return store.Entry{}, err
	}
	raw, err := json.Marshal(d)
	if err != nil {
		return store.Entry{}, err
	}
	kind := store.KindReturned
	if sharpened {
		kind = store.KindSharpened
	}
	e := store.Entry{Shop: shop, At: s.now(), Kind: kind, Blade: &blade, By: by, Note: note, Detail: raw}
	return s.st.Append(ctx, e, func(tx *store.Store, _ store.Entry) error {
		if changed == b {
			return nil
		}
		return stale(tx.ChangeBlade(ctx, shop, changed), "blade")
	})
}

// A Money is what a blade costs and has cost, in the shop's own money.
type Money struct {
	SoFar    float64 // a metre; 0 if nothing is known
	Expected float64
	Spent    float64
	LifeM    float64 // metres of the usual work that one sharp edge lasts
	Dear     care.Plan
	Cheap    care.Plan
	Line     []care.Point
	Pays     *float64 // metres from which it costs less than throwing cheap ones away; nil if never
}

// A MoneyAsk may put prices in place of those that are known; 0 leaves them.
type MoneyAsk struct {
	Price, Sharpening     float64
	Sharpenings           int     // -1 for those that are left
	CheapPrice, CheapLife float64 // the latter as a share of this blade's life on one edge
}

// usualLifeM is how far an edge goes in mixed work where this blade has cut too
// little to tell: middling board of abrasion 1.5, 20 mm thick.
func usualLifeM(b store.Blade) float64 {
	return b.Condition.LifeM2(b.Grind) * float64(b.Teeth) / (1.5 * 0.020)
}

// enoughToTell is the wear from which a blade's own work says how far an edge goes.
const enoughToTell = 0.02

// Money works out what a blade costs by the metre, and from when it costs less
// than cheap blades that are thrown away.
func (s *Service) Money(ctx context.Context, shop, id uuid.UUID, a MoneyAsk) (Money, error) {
	b, err := s.Blade(ctx, shop, id)
	if err != nil {
		return Money{}, err
	}
	sh, err := s.Shop(ctx, shop)
	if err != nil {
		return Money{}, err
	}
	c := b.Condition
	if b.Teeth == 0 {
		return Money{}, invalid("id", "a wheel is not sharpened; it is used up")
	}
	out := Money{Spent: b.Price + c.Spent, LifeM: usualLifeM(b)}
	if c.WearM2 > enoughToTell {
		out.LifeM = c.LifeM2(b.Grind) / c.WearM2 * c.MetresSharp
	}
	out.Dear = care.Plan{Price: a.Price, Sharpening: a.Sharpening, Sharpenings: a.Sharpenings, LifeM: out.LifeM}
	if out.Dear.Price == 0 {
		out.Dear.Price = b.Price
	}
	if out.Dear.Sharpening == 0 {
		out.Dear.Sharpening = sh.Sharpening
		if c.Spent > 0 && c.Sharpenings > 0 {
			out.Dear.Sharpening = c.Spent / float64(c.Sharpenings)
		}
	}
	if a.Sharpenings < 0 {
		left, _ := care.SharpeningsLeft(c, b.Blade, b.Tip.Mm(), b.Sharpened)
		out.Dear.Sharpenings = left + c.Sharpenings + b.Sharpened
	}
	if c.Metres > 0 && out.Spent > 0 {
		out.SoFar = out.Spent / c.Metres
	}
	if out.Dear.Price > 0 {
		out.Expected = care.CostPerMetre(out.Dear.Price, out.Dear.Sharpening, out.Dear.Sharpenings, out.LifeM)
	}
	if a.CheapPrice > 0 && out.Dear.Price > 0 {
		out.Cheap = care.Plan{Price: a.CheapPrice, LifeM: out.LifeM * a.CheapLife}
		line, from, ever := care.Compare(out.Dear, out.Cheap, out.LifeM*float64(out.Dear.Sharpenings+1))
		out.Line = line
		if ever {
			out.Pays = &from
		}
	}
	return out, nil
}

// NewCalendar makes a private address for the shop's calendar, in place of any
// before, and returns its secret, which is not kept.
func (s *Service) NewCalendar(ctx context.Context, shop uuid.UUID) (string, error) {
	secret := rand.Text()
	digest := sha256.Sum256([]byte(secret))
	return secret, s.st.SetCalendar(ctx, shop, digest[:], s.now())
}

// Calendar is when the shop's calendar address was made, or nil.
func (s *Service) Calendar(ctx context.Context, shop uuid.UUID) (*time.Time, error) {
	return s.st.Calendar(ctx, shop)
}

// WithdrawCalendar makes the calendar's address lead nowhere.
func (s *Service) WithdrawCalendar(ctx context.Context, shop uuid.UUID) error {
	return s.st.SetCalendar(ctx, shop, nil, time.Time{})
}

// Feed writes the calendar that a secret leads to, as iCalendar.
func (s *Service) Feed(ctx context.Context, secret string) (string, error) {
	digest := sha256.Sum256([]byte(secret))
	shop, err := s.st.CalendarOf(ctx, digest[:])
	if err != nil {
		return "", missing(err, "", "calendar address")
	}
	sh, err := s.Shop(ctx, shop)
	if err != nil {
		return "", err
	}
	all, err := s.Care(ctx, shop)
	if err != nil {
		return "", err
	}
	now := s.now()
	cal := ics.NewCalendarFor("Corte")
	cal.SetMethod(ics.MethodPublish)
	cal.SetXWRCalName(sh.Name)
	cal.SetRefreshInterval("PT6H")
	day := func(uid string, at time.Time, summary, description string) {
		if at.Before(now) {
			at = now // what is overdue is due today
		}
		e := cal.AddEvent(uid + "@corte.invalid")
		e.SetDtStampTime(now)
		e.SetAllDayStartAt(at)
		e.SetAllDayEndAt(at.AddDate(0, 0, 1))
		e.SetSummary(summary)
		e.SetDescription(description)
	}
	for _, b := range all.Blades {
		if b.Blade.Condition.Away {
			continue
		}
		for _, due := range []struct {
			what string
			u    care.Urgency
			d    care.Date
		}{{"wash", b.Health.Wash, b.Health.WashAt}, {"sharpen", b.Health.Sharpen, b.Health.SharpenAt}} {
			uid := due.what + "-" + b.Blade.ID.String()
			switch {
			case due.u == care.Due:
				day(uid, now, word.Upper(due.what)+" "+b.Blade.Name, "Due now.")
			case due.d.Known():
				day(uid, due.d.Likely, word.Upper(due.what)+" "+b.Blade.Name,
					fmt.Sprintf("At the shop's own pace; between %s and %s.", due.d.Early.Format("2 January 2006"), due.d.Late.Format("2 January 2006")))
			}
		}
	}
	for _, e := range all.Away {
		var d store.SentDetail
		if err := json.Unmarshal(e.Detail, &d); err != nil {
			return "", err
		}
		if d.Expected != nil {
			day("back-"+e.Blade.String(), *d.Expected, *e.BladeName+" is expected back", "From "+d.To+".")
		}
	}
	for _, b := range all.Baths {
		day("bath-"+b.ID.String(), b.Until, "Replace the bath "+b.Name, word.Upper(b.Why)+".")
	}
	return cal.Serialize(), nil
}
