package care

import (
	"encoding/json"
	"math"
	"math/rand/v2"
	"strings"
	"testing"
	"time"

	"corte/core/blade"
	"corte/core/material"
	"corte/core/say"
	"corte/core/verdict"
)

var day0 = time.Date(2026, 3, 2, 9, 0, 0, 0, time.UTC)

func wood(t testing.TB, id string, metres, thicknessMm float64, at time.Time) Event {
	t.Helper()
	m, err := material.Get(id)
	if err != nil {
		t.Fatal(err)
	}
	return Event{Kind: Cut, At: at, Metres: metres, FaceM2: metres * thicknessMm / 1000, Abrasion: m.Abrasion, Resin: m.Resin}
}

func TestALifeInTheShop(t *testing.T) {
	b := blade.Blade{Teeth: 40, Grind: blade.ATB}
	var c Condition
	if c.Sharpness(b.Grind) != 1 || c.PitchLevel() != 0 || c.Word(b.Grind) != "fine" {
		t.Errorf("a new blade is %v", c.Word(b.Grind))
	}
	// Resinous pine loads a blade long before it dulls it.
	for c.PitchLevel() < WashAt {
		c = c.Then(b, wood(t, "yellow-pine", 3, 38, day0))
	}
	if c.Word(b.Grind) != "pitchy" || c.Sharpness(b.Grind) > WornAt {
		t.Errorf("after %v m of pine it is %s, sharpness %v", c.Metres, c.Word(b.Grind), c.Sharpness(b.Grind))
	}
	worn := c.WearM2
	c = c.Then(b, Event{Kind: Wash})
	if c.PitchLevel() != 0 || c.WearM2 != worn || c.MetresWashed != 0 || c.MetresSharp != c.Metres {
		t.Errorf("a wash left %+v", c)
	}
	for c.Word(b.Grind) != "dull" {
		c = c.Then(b, wood(t, "mdf", 2.4, 18, day0))
	}
	if share := c.WearShare(b.Grind); math.Abs(share-1) > 0.02 {
		t.Errorf("dull at %v of its life", share)
	}
	metres := c.Metres
	c = c.Then(b, Event{Kind: Send})
	if c.Word(b.Grind) != "away" {
		t.Errorf("sent out it is %s", c.Word(b.Grind))
	}
	c = c.Then(b, Event{Kind: Return, Sharpened: true, Price: 13, SaidLeft: true, Left: 4})
	left, _ := SharpeningsLeft(c, b, 0, 0)
	if c.Word(b.Grind) != "fine" || c.Metres != metres || c.MetresSharp != 0 || c.Sharpenings != 1 || c.Spent != 13 || left != 4 {
		t.Errorf("a sharpening left %+v", c)
	}
	// What one cut of two metres does, two cuts of one do as well.
	once, twice := Condition{}.Then(b, wood(t, "red-oak", 2, 25, day0)), Condition{}
	for range 2 {
		twice = twice.Then(b, wood(t, "red-oak", 1, 25, day0))
	}
	if math.Abs(once.WearM2-twice.WearM2) > 1e-15 || once.Metres != twice.Metres {
		t.Errorf("%+v and %+v", once, twice)
	}
	if wheel := (Condition{}).Then(blade.Blade{}, wood(t, "tile", 1, 10, day0)); wheel.WearM2 != 0 || math.IsNaN(wheel.ResinM2) || wheel.Metres != 1 {
		t.Errorf("a wheel without teeth: %+v", wheel)
	}
}

// used is a blade that is so much of the way to dull, and to its next wash.
func used(t *testing.T, b blade.Blade, metres float64) Condition {
	var c Condition
	for i := range 10 {
		c = c.Then(b, wood(t, "yellow-pine", metres/10, 38, day0.AddDate(0, 0, 3*i)))
	}
	return c
}

func TestWhatIsSaidMovesTheBelief(t *testing.T) {
	b := blade.Blade{Teeth: 40, Grind: blade.ATB}
	c := used(t, b, 800) // of about 2,200 m that the table gives it
	said := c.Then(b, Event{Kind: Say, Says: Dull})
	if said.LifeM2(b.Grind) >= c.LifeM2(b.Grind) || said.Life.SD() >= c.Life.SD() || said.Sharpness(b.Grind) <= c.Sharpness(b.Grind) {
		t.Errorf("dull said early: life %v of %v", said.LifeM2(b.Grind), c.LifeM2(b.Grind))
	}
	if again := said.Then(b, Event{Kind: Say, Says: Dull}); again.Life != said.Life {
		t.Error("said twice it counts twice")
	}
	if HealthOf(said, b.Grind, day0).Sharpen != Due {
		t.Error("what is said to be dull is not due")
	}
	fresh := used(t, b, 20).Then(b, Event{Kind: Say, Says: Hard})
	if fresh.Life != (Belief{}) {
		t.Errorf("a blade that was sharpened yesterday is blamed: %+v", fresh.Life)
	}
	// Dull after half a metre has another reason than the edge; said again when
	// it is worn, it is news.
	half := Condition{}.Then(b, wood(t, "mdf", 0.5, 18, day0)).Then(b, Event{Kind: Say, Says: Dull})
	if half.Life != (Belief{}) || half.DullSaid || !half.Complained {
		t.Errorf("dull after half a metre: %+v", half)
	}
	if worn := half.Then(b, wood(t, "yellow-pine", 800, 38, day0)).Then(b, Event{Kind: Say, Says: Dull}); worn.Life == (Belief{}) || !worn.DullSaid {
		t.Errorf("and dull again after 800 m: %+v", worn)
	}
	if far, limit := (Belief{}).Observe(-700, sdSaid), (Belief{}).Observe(-3, sdSaid); far != limit || far == (Belief{}) {
		t.Errorf("what nobody can mean moves the belief by %+v, the most by %+v", far, limit)
	}
	// One cut that burns for no reason says less than the owner does.
	seen := c.Then(b, Event{Kind: Cut, Surprise: true})
	if !(seen.LifeM2(b.Grind) < c.LifeM2(b.Grind) && seen.LifeM2(b.Grind) > said.LifeM2(b.Grind)) {
		t.Errorf("seen %v, said %v, before %v", seen.LifeM2(b.Grind), said.LifeM2(b.Grind), c.LifeM2(b.Grind))
	}
	dull := used(t, b, 2000)
	if new := dull.Then(b, Event{Kind: Say, Says: LikeNew}); new.Sharpness(b.Grind) >= dull.Sharpness(b.Grind) {
		t.Error("cutting like new does not make it sharper")
	}
}

func TestDidItComeBack(t *testing.T) {
	b := blade.Blade{Teeth: 40, Grind: blade.ATB}
	c := Condition{}.Then(b, wood(t, "mdf", 500, 38, day0)) // gums and wears, neither to its end
	if Path(c, b.Grind, false) != nil {
		t.Error("nobody complained")
	}
	hard := c.Then(b, Event{Kind: Say, Says: Hard})
	next := func(c Condition) string {
		for _, s := range Path(c, b.Grind, false) {
			if !s.Done {
				return s.ID
			}
		}
		return ""
	}
	if next(hard) != "wash" {
		t.Errorf("first comes %s", next(hard))
	}
	washed := hard.Then(b, Event{Kind: Wash})
	if next(washed) != "answer" {
		t.Errorf("then %s", next(washed))
	}
	cut := Event{Kind: Cut, Answered: true, CameBack: true}
	back := washed.Then(b, cut)
	if back.Life != c.Life || back.Pitch.Shift >= c.Pitch.Shift || Path(back, b.Grind, false) != nil {
		t.Errorf("it came back: life %+v, pitch %+v", back.Life, back.Pitch)
	}
	// One cut that burnt for no reason is no complaint, but it was held against
	// the edge, and is taken back too.
	once := c.Then(b, Event{Kind: Cut, Surprise: true})
	if once.Life == c.Life || once.Complained {
		t.Fatalf("one surprise: %+v", once)
	}
	if back := once.Then(b, Event{Kind: Wash}).Then(b, cut); back.Life != c.Life || back.Pitch.Shift >= c.Pitch.Shift || back.Seen != 0 {
		t.Errorf("one surprise, and it came back: life %+v of %+v, pitch %+v", back.Life, c.Life, back.Pitch)
	}
	cut.CameBack = false
	not := washed.Then(b, cut)
	if not.Life != hard.Life || next(not) != "look" || HealthOf(not, b.Grind, day0).Sharpen != Due {
		t.Errorf("it did not: life %+v of %+v, next %s", not.Life, hard.Life, next(not))
	}
	if looked := not.Then(b, Event{Kind: Look}); next(looked) != "align" {
		t.Errorf("looked over, next %s", next(looked))
	}
	// What a look-over finds may stop it, and only the saw doctor clears that.
	cracked := not.Then(b, Event{Kind: Look, Fault: Cracked}).Then(b, Event{Kind: Look, Fault: Sound})
	if cracked.Unfit == "" || cracked.Word(b.Grind) != "unfit" {
		t.Error("a cracked plate runs again because somebody looked twice")
	}
	// That it was sent and came back, even sharpened, is not that it was mended.
	for _, back := range []Event{{Kind: Return}, {Kind: Return, Sharpened: true}} {
		if c := cracked.Then(b, Event{Kind: Send}).Then(b, back); c.Unfit == "" || c.Away {
			t.Errorf("sent and back, sharpened %v: %+v", back.Sharpened, c)
		}
	}
	if mended := cracked.Then(b, Event{Kind: Mend}); mended.Unfit != "" || mended.WearM2 != cracked.WearM2 {
		t.Error("mended is not mended, or sharp")
	}
}

// A chip may run and counts until it is ground away; a hit wants a look before
// the next cut, and says nothing of the edge.
func TestChipsAndHits(t *testing.T) {
	b := blade.Blade{Teeth: 40, Grind: blade.ATB}
	c := used(t, b, 50)
	chipped := c.Then(b, Event{Kind: Look, Fault: Chipped})
	if !chipped.Chipped() || chipped.Unfit != "" || chipped.Then(b, Event{Kind: Return}).Chipped() != true || chipped.Then(b, Event{Kind: Return, Sharpened: true}).Chipped() {
		t.Errorf("chipped: %+v", chipped)
	}
	hit := c.Then(b, Event{Kind: Say, Says: Hit})
	if !hit.Hit || hit.Word(b.Grind) != "unfit" || hit.Life != c.Life || hit.Complained {
		t.Errorf("hit: %+v", hit)
	}
	for _, e := range []Event{{Kind: Look}, {Kind: Mend}} {
		if after := hit.Then(b, e); after.Hit || after.Word(b.Grind) != c.Word(b.Grind) {
			t.Errorf("looked over: %+v", after)
		}
	}
	for _, e := range []Event{wood(t, "cherry", 1, 19, day0), {Kind: Wash}, {Kind: Say, Says: LikeNew}} {
		if !hit.Then(b, e).Hit {
			t.Errorf("%+v made up for a look", e)
		}
	}
}

// What a survey shows decides what keeps the blade off, what the saw doctor is
// told, and whether it is worth mending.
func TestSurvey(t *testing.T) {
	yes, no := true, false
	sound := Survey{After: "hit", Cleaned: true, Crack: "none", Blue: &no, Bent: &no, Beside: "even"}
	dear := Subject{Teeth: 60, Price: 100, Sharpen: 24, Left: 6}
	with := func(change func(*Survey, *Subject)) Report {
		s, of := sound, dear
		change(&s, &of)
		return s.Report(of)
	}
	for name, tt := range map[string]struct {
		r     Report
		fault Fault
		worth Worth
		says  string // somewhere in what was found or is told
	}{
		"sound":              {with(func(*Survey, *Subject) {}), Sound, WorthYes, "No damage found"},
		"a tip gone":         {with(func(s *Survey, _ *Subject) { s.Missing = 1 }), Missing, WorthYes, "1 tip of 60 missing"},
		"a seat not ground":  {with(func(s *Survey, _ *Subject) { s.Missing, s.Seat = 1, "saw-marks" }), Missing, WorthYes, "0.13 mm to 0.18 mm"},
		"pushed in too far":  {with(func(s *Survey, _ *Subject) { s.Missing, s.Braze = 1, "squeezed" }), Missing, WorthYes, "pushed in too far"},
		"ran long so":        {with(func(s *Survey, _ *Subject) { s.Missing, s.Rest = 2, "worn" }), Missing, WorthYes, "ran on after the damage"},
		"caked":              {with(func(s *Survey, _ *Subject) { s.Missing, s.Pitch = 1, "caked" }), Missing, WorthYes, "ran on after the damage"},
		"loose":              {with(func(s *Survey, _ *Subject) { s.Loose = 1 }), Loose, WorthYes, "braze again"},
		"cracked and loose":  {with(func(s *Survey, _ *Subject) { s.Loose, s.Crack = 1, "slot" }), Cracked, WorthNo, "Can it be stopped"},
		"bent":               {with(func(s *Survey, _ *Subject) { s.Bent = &yes }), Bent, WorthAsk, "Can it be flattened"},
		"shoulders bent":     {with(func(s *Survey, _ *Subject) { s.Beside = "shifted" }), Bent, WorthYes, "spacing of the teeth beside it is off"},
		"chipped":            {with(func(s *Survey, _ *Subject) { s.Chipped = 2 }), Chipped, WorthYes, "2 tips chipped"},
		"blue":               {with(func(s *Survey, _ *Subject) { s.Blue = &yes }), Blue, WorthAsk, "lost its tension"},
		"throwaway":          {with(func(s *Survey, of *Subject) { s.Missing, of.Throwaway = 1, true }), Missing, WorthNo, ""},
		"ground to the end":  {with(func(s *Survey, of *Subject) { s.Missing, of.Left = 1, 0 }), Missing, WorthNo, ""},
		"no price":           {with(func(s *Survey, of *Subject) { s.Missing, of.Price = 1, 0 }), Missing, WorthAsk, ""},
		"half a new one":     {with(func(s *Survey, of *Subject) { s.Missing, of.Price = 4, 96 }), Missing, WorthYes, ""},
		"more than half":     {with(func(s *Survey, of *Subject) { s.Missing, of.Price = 4, 95 }), Missing, WorthNo, ""},
		"eight years old":    {with(func(s *Survey, of *Subject) { s.Missing, of.Years = 2, 8 }), Missing, WorthNo, ""},
		"not quite":          {with(func(s *Survey, of *Subject) { s.Missing, of.Years = 2, 7.9 }), Missing, WorthYes, ""},
		"nobody cleaned it":  {with(func(s *Survey, _ *Subject) { s.Cleaned = false }), Sound, WorthYes, "wasn't cleaned first"},
		"nobody saw a crack": {with(func(s *Survey, _ *Subject) { s.Crack = "" }), Sound, WorthYes, "Not inspected: cracks"},
		"nearly a year old":  {with(func(s *Survey, of *Subject) { s.Missing, of.Years = 1, 0.99 }), Missing, WorthYes, "less than a year old"},
		"a year old":         {with(func(s *Survey, of *Subject) { s.Missing, of.Years = 1, 1 }), Missing, WorthYes, "here for a year"},
		"two years old":      {with(func(s *Survey, of *Subject) { s.Missing, of.Years = 1, 2 }), Missing, WorthYes, "here for 2 years"},
	} {
		text := strings.Join(say.Voice{}.Each(append(append(tt.r.Found, tt.r.ToDoctor...), tt.r.WorthWhy)), " ")
		for _, never := range []string{" 0 tip", "0 loose", "0 chipped"} {
			if strings.Contains(" "+text, never) {
				t.Errorf("%s tells of none: %q", name, text)
			}
		}
		if tt.r.Fault != tt.fault || tt.r.Worth != tt.worth || tt.r.WorthWhy.Zero() || !strings.Contains(text, tt.says) {
			t.Errorf("%s: %+v", name, tt.r)
		}
	}
}

// How long edges of each grind last against alternate bevels (craft section 10).
func TestLifeByGrind(t *testing.T) {
	for g, want := range map[blade.Grind]float64{blade.FTG: 1.2, blade.HighATB: 0.6, blade.TCG: 1.4, blade.ATBR: 1} {
		if got := Life(g) / Life(blade.ATB); math.Abs(got-want) > 1e-12 {
			t.Errorf("%v lasts %v times as long, not %v", g, got, want)
		}
	}
}

func TestSharpeningsLeftByGrade(t *testing.T) {
	for _, tt := range []struct {
		b       blade.Blade
		carbide float64
		before  int
		want    int
	}{
		{blade.Blade{}, 0, 0, 10}, {blade.Blade{}, 0, 3, 7}, {blade.Blade{Carbide: blade.ToughCarbide}, 0, 0, 8}, {blade.Blade{Carbide: blade.HardCarbide}, 0, 0, 13},
		{blade.Blade{}, 2, 0, 5}, {blade.Blade{Carbide: blade.ToughCarbide}, 2, 0, 3}, {blade.Blade{Carbide: blade.HardCarbide}, 2, 0, 6},
		{blade.Blade{}, 0.9, 0, 0}, {blade.Blade{Throwaway: true}, 3, 0, 0},
	} {
		if got, from := SharpeningsLeft(Condition{}, tt.b, tt.carbide, tt.before); got != tt.want || from.Zero() {
			t.Errorf("%+v with %v mm: %d %s, want %d", tt.b, tt.carbide, got, from, tt.want)
		}
	}
}

func TestDates(t *testing.T) {
	b := blade.Blade{Teeth: 40, Grind: blade.ATB}
	c := used(t, b, 150)
	now := day0.AddDate(0, 0, 30)
	h := HealthOf(c, b.Grind, now)
	if !h.WashAt.Known() || !h.WashAt.Early.Before(h.WashAt.Likely) || !h.WashAt.Likely.Before(h.WashAt.Late) || h.WashAt.Early.Before(now) {
		t.Errorf("wash at %v", h.WashAt)
	}
	// At its own pace: after as many days again as the share wants.
	share := c.ResinM2 / pitchM2 / math.Ln2
	if got, want := h.WashAt.Likely.Sub(now).Hours()/24, 30*(1/share-1); math.Abs(got-want) > 0.01 {
		t.Errorf("washing is %v days off, not %v", got, want)
	}
	if h := HealthOf(Condition{}, b.Grind, now); h.WashAt.Known() || h.SharpenAt.Known() || h.Worst() != Fine {
		t.Errorf("a new blade: %+v", h)
	}
	if !(h.LeftLow < h.LeftM && h.LeftM < h.LeftH) {
		t.Errorf("metres left %v, %v, %v", h.LeftLow, h.LeftM, h.LeftH)
	}
}

func TestSnapshotKeepsEverything(t *testing.T) {
	b := blade.Blade{Teeth: 40, Grind: blade.ATB}
	c := used(t, b, 500).Then(b, Event{Kind: Say, Says: Hard}).Then(b, Event{Kind: Wash})
	raw, err := json.Marshal(c)
	if err != nil {
		t.Fatal(err)
	}
	var back Condition
	if err := json.Unmarshal(raw, &back); err != nil || back != c {
		t.Errorf("%v: %+v became %+v", err, c, back)
	}
}

func TestCleaners(t *testing.T) {
	oven, _ := CleanerByID("oven-cleaner")
	mild, _ := CleanerByID("detergent")
	if w := Agrees(oven, "Quill", "nitride"); len(w) != 1 || w[0].Verdict != verdict.Stop || !strings.Contains(w[0].Says.String(), "Quill has a coating") {
		t.Errorf("caustic on a coating: %+v", w)
	}
	if w := Agrees(oven, "Rook", "none"); len(w) != 0 {
		t.Errorf("on a bare plate: %+v", w)
	}
	if _, harsh := mild.Risk(); harsh || len(Agrees(mild, "Quill", "slick")) != 0 {
		t.Error("a mild detergent is warned of")
	}
	if CheckBrush(Steel) == nil || CheckBrush(Nylon) != nil {
		t.Error("brushes")
	}
	m, err := MixFor(Tray{Length: 400, Width: 300, Depth: 60}, mild, 254, 3, 2)
	steel := 2 * math.Pi / 4 * 254 * 254 * 3 / 1e6
	if want := 0.4*0.3*29 - steel; err != nil || math.Abs(m.Litres-want) > 1e-9 || math.Abs(m.Cleaner*11-m.Litres) > 1e-9 {
		t.Errorf("%+v, want %v: %v", m, want, err)
	}
	for _, tray := range []Tray{{Length: 270, Width: 400, Depth: 60}, {Length: 400, Width: 400, Depth: 20}, {}} {
		if _, err := MixFor(tray, mild, 254, 3, 2); err == nil {
			t.Errorf("a tray of %v is let pass", tray)
		}
	}
	if word, _ := BathState(mild, 12, 0, time.Hour); word != "replace" {
		t.Errorf("a spent bath is %s", word)
	}
	if word, _ := BathState(mild, 7, 6, time.Hour); word != "strain" {
		t.Errorf("a gritty bath is %s", word)
	}
}

func TestMoney(t *testing.T) {
	dear, cheap := Plan{102, 13, 8, 1832}, Plan{25, 0, 0, 900}
	if got := dear.Spent(9*1832) / (9 * 1832); math.Abs(got-CostPerMetre(102, 13, 8, 1832)) > 1e-12 {
		t.Errorf("over all its lives %v a metre", got)
	}
	line, from, ever := Compare(dear, cheap, 20_000)
	if !ever || from < 1832 || from > 8000 || line[0].A != 102 || line[0].B != 25 {
		t.Errorf("pays from %v (%v), first %+v", from, ever, line[0])
	}
	if _, _, ever := Compare(Plan{500, 40, 2, 900}, cheap, 20_000); ever {
		t.Error("a dear blade that is no better pays")
	}
}

func BenchmarkFold(b *testing.B) {
	bl := blade.Blade{Teeth: 40, Grind: blade.ATB}
	rows := make([]Event, 100_000)
	for i := range rows {
		rows[i] = wood(b, "yellow-pine", 1, 25, day0.Add(time.Duration(i)*time.Hour))
		switch {
		case i%400 == 399:
			rows[i] = Event{Kind: Wash}
		case i%4000 == 3998:
			rows[i] = Event{Kind: Return, Sharpened: true}
		case i%50 == 49:
			rows[i].Surprise = true
		}
	}
	for b.Loop() {
		var c Condition
		for _, e := range rows {
			c = c.Then(bl, e)
		}
	}
}

// More wear never makes an edge sharper, a date never comes before now, a range
// always holds its middle, and no event leaves a number that is none.
func TestNoLogBreaksACondition(t *testing.T) {
	dice := rand.New(rand.NewPCG(5, 5))
	woods := []string{"yellow-pine", "mdf", "cherry", "melamine-board", "teak"}
	faults := []Fault{Sound, Cracked, Loose, Missing, Bent, Chipped, Blue}
	for _, g := range blade.Grinds() {
		b := blade.Blade{Teeth: 10 + dice.IntN(90), Grind: g}
		var c Condition
		at := day0
		for range 400 {
			at = at.Add(time.Duration(dice.IntN(72)) * time.Hour)
			e := wood(t, woods[dice.IntN(len(woods))], 1+40*dice.Float64(), 3+50*dice.Float64(), at)
			e.Surprise, e.Easy, e.Answered, e.CameBack = dice.IntN(12) == 0, dice.IntN(4) == 0, dice.IntN(6) == 0, dice.IntN(2) == 0
			switch dice.IntN(16) {
			case 0:
				e = Event{Kind: Wash, At: at}
			case 1:
				e = Event{Kind: Say, At: at, Says: Saying(1 + dice.IntN(7))}
			case 2:
				e = Event{Kind: Look, At: at, Fault: faults[dice.IntN(len(faults))]}
			case 3:
				e = Event{Kind: Send, At: at}
			case 4:
				e = Event{Kind: Return, At: at, Sharpened: dice.IntN(3) > 0, Price: 20, SaidLeft: dice.IntN(4) == 0, Left: dice.IntN(5)}
			}
			was := c
			c = c.Then(b, e)
			low, high := c.LifeRange(g)
			h := HealthOf(c, g, at)
			for _, v := range []float64{c.Sharpness(g), c.PitchLevel(), low, high, h.LeftM, c.Life.SD(), c.Pitch.SD()} {
				if math.IsNaN(v) || math.IsInf(v, 0) || v < 0 {
					t.Fatalf("after %+v: %+v has %v", e, c, v)
				}
			}
			mid := c.LifeM2(g)
			switch {
			case !(low < mid && mid < high) || c.PitchLevel() > 3 || c.Sharpness(g) < 1:
				t.Fatalf("after %+v: life %v to %v about %v", e, low, high, mid)
			case e.Kind == Cut && c.Life == was.Life && c.ToldM2 == was.ToldM2 && c.Sharpness(g) < was.Sharpness(g):
				t.Fatalf("a cut made it sharper: %+v", e)
			case was.Life.SD() < c.Life.SD() && e.Kind != Cut:
				t.Fatalf("%+v made less sure", e) // only a wash that helped gives beliefs back
			}
			for _, d := range []Date{h.WashAt, h.SharpenAt} {
				if d.Known() && (d.Early.Before(at) || d.Likely.Before(d.Early) || d.Late.Before(d.Likely)) {
					t.Fatalf("at %v: due %+v", at, d)
				}
			}
			raw, err := json.Marshal(c)
			var back Condition
			if err != nil || json.Unmarshal(raw, &back) != nil || back != c {
				t.Fatalf("the snapshot of %+v comes back as %+v, %v", c, back, err)
			}
		}
	}
}

// A story puts cuts together and lets everything else stand; where it ends is
// where the fold ends.
func TestStory(t *testing.T) {
	b := blade.Blade{Grind: blade.ATB, Teeth: 40}
	var c Condition
	var events []Event
	add := func(e Event) {
		e.At = time.Unix(int64(len(events)), 0)
		c = c.Then(b, e)
		events = append(events, e)
	}
	for i := range 100 {
		if i == 50 {
			add(Event{Kind: Wash})
		}
		add(Event{Kind: Cut, Metres: 2, FaceM2: 0.5, Abrasion: 1, Resin: 1, Burnt: i == 30})
	}
	for _, most := range []int{1, 10, 25, 1000} {
		points := Story(b, events, most)
		cuts, rows, burnt, metres := 0, 0, 0, 0.0
		for i, p := range points {
			rows += p.Rows
			if p.What == Cut {
				cuts++
			}
			if p.Burnt {
				burnt++
			}
			if p.Metres < metres || p.What == Wash && (p.Pitch != 0 || p.Metres != 100 || points[i-1].Pitch == 0 || points[i-1].Edge != p.Edge) {
				t.Errorf("%d: after %v m comes %+v", most, metres, p)
			}
			metres = p.Metres
		}
		if want := min(100, max(2, most)); cuts < want || cuts > want+2 || rows != 101 || burnt != 1 {
			t.Errorf("%d asked for: %d stretches of cuts, %d rows, %d burns", most, cuts, rows, burnt)
		}
		if last := points[len(points)-1]; last.Metres != c.Metres || last.Edge != c.WearShare(b.Grind) || last.Pitch != c.PitchLevel() {
			t.Errorf("%d: it ends at %+v, the fold at %+v", most, last, c)
		}
	}
	if got := Story(b, events, 1); len(got) != 3 {
		t.Errorf("before the wash, the wash and after it are %d", len(got))
	}
	if got := Story(b, nil, 10); len(got) != 0 {
		t.Errorf("of nothing: %v", got)
	}
}

// What an owner says of a blade stands from that moment, with no log or against
// one, and wears on from there.
func TestWhatIsSaidStands(t *testing.T) {
	b := blade.Blade{Diameter: 254, Teeth: 40, Grind: blade.ATB}
	at := time.Date(2026, 3, 2, 9, 0, 0, 0, time.UTC)
	worn := Event{Kind: Cut, At: at, Metres: 2000, FaceM2: 40, Abrasion: 1.2, Resin: 0.8}
	for name, tt := range map[string]struct {
		log         []Event
		says        Saying
		edge, pitch float64
		word        string
	}{
		"dull, no log":           {nil, Dull, 2.5, 0, "dull"},
		"half worn, no log":      {nil, HalfWorn, 1 + 1.5*math.Pow(0.5, 1.2), 0, "worn"},
		"pitchy, no log":         {nil, Gummed, 1, 2, "pitchy"},
		"sharp, no log":          {nil, Sharp, 1, 0, "fine"},
		"dull, though cut twice": {[]Event{{Kind: Cut, At: at, Metres: 3, FaceM2: 0.06, Abrasion: 1}}, Dull, 2.5, 0, "dull"},
		"sharp, against its log": {[]Event{worn}, Sharp, 1, Condition{ResinM2: 0.8}.PitchLevel(), "pitchy"},
		"like new, against it":   {[]Event{worn}, LikeNew, 1, 0, "fine"},
		"half worn, against it":  {[]Event{worn, {Kind: Wash, At: at}}, HalfWorn, 1 + 1.5*math.Pow(0.5, 1.2), 0, "worn"},
	} {
		var c Condition
		for _, e := range tt.log {
			c = c.Then(b, e)
		}
		c = c.Then(b, Event{Kind: Say, At: at, Says: tt.says})
		if s, p := c.Sharpness(b.Grind), c.PitchLevel(); math.Abs(s-tt.edge) > 1e-9 || math.Abs(p-tt.pitch) > 1e-9 || c.Word(b.Grind) != tt.word {
			t.Errorf("%s: %v, pitch %v, %q", name, s, p, c.Word(b.Grind))
		}
		if h := HealthOf(c, b.Grind, at); (h.Sharpen == Due) != (tt.word == "dull") || (h.Wash == Due) != (tt.pitch >= WashAt) {
			t.Errorf("%s: due %+v", name, h)
		}
		on := c.Then(b, worn)
		if on.WearShare(b.Grind) <= c.WearShare(b.Grind) || on.PitchLevel() <= c.PitchLevel() {
			t.Errorf("%s: 2 km did not wear it", name)
		}
		ground := on.Then(b, Event{Kind: Return, At: at, Sharpened: true})
		if ground.Sharpness(b.Grind) != 1 || ground.PitchLevel() != 0 {
			t.Errorf("%s: back from sharpening, %+v", name, ground)
		}
	}
	// A wash that brought it back takes the blame off the edge.
	var c Condition
	for _, e := range []Event{{Kind: Say, At: at, Says: Dull}, {Kind: Wash, At: at}, {Kind: Cut, At: at, Metres: 1, FaceM2: 0.02, Abrasion: 1, Answered: true, CameBack: true}} {
		c = c.Then(b, e)
	}
	if c.WearShare(b.Grind) > 0.01 || c.Word(b.Grind) != "fine" {
		t.Errorf("it was pitch, and still it is %v", c.Word(b.Grind))
	}
}
