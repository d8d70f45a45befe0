package care

import (
	"fmt"
	"testing"
	"time"

	"corte/core/blade"
	"corte/core/measure"
	"corte/internal/testkit/golden"
)

// What a log comes to step by step, washes, baths, surveys and money; read over
// once and held to the letter.
func TestCareIsAsItWasReadOver(t *testing.T) {
	b := blade.Blade{Diameter: 254, Bore: 15.875, Kerf: 3.2, Plate: 2.2, Teeth: 40, Grind: blade.ATB, Bevel: 15, Hook: 15}
	day := func(n int) time.Time { return day0.AddDate(0, 0, n) }
	cut := func(n int, metres, abrasion, resin float64) Event {
		return Event{Kind: Cut, At: day(n), Metres: metres, FaceM2: metres * 0.025, Abrasion: abrasion, Resin: resin}
	}
	surprise, easy, back := cut(40, 5, 1, 1), cut(41, 5, 1, 1), cut(51, 20, 1, 1)
	surprise.Surprise, easy.Easy, back.Answered, back.CameBack = true, true, true, true
	var c Condition
	var said []any
	for i, e := range []Event{
		cut(0, 300, 1.1, 0.3), cut(5, 400, 0.9, 2.5), {Kind: Say, At: day(8), Says: Gummed}, {Kind: Wash, At: day(9)}, cut(10, 700, 1.8, 0.8), {Kind: Say, At: day(12), Says: Hard},
		{Kind: Say, At: day(13), Says: Dull}, {Kind: Say, At: day(14), Says: LikeNew}, cut(20, 900, 3, 0.4), {Kind: Say, At: day(21), Says: Dull}, {Kind: Look, At: day(22), Fault: Chipped},
		{Kind: Send, At: day(23)}, {Kind: Return, At: day(30), Sharpened: true, Price: 24, SaidLeft: true, Left: 3}, cut(35, 400, 1.5, 1), surprise, easy, {Kind: Wash, At: day(50)}, back,
		{Kind: Say, At: day(60), Says: Hit}, {Kind: Look, At: day(61), Fault: Loose}, {Kind: Mend, At: day(62)},
	} {
		c = c.Then(b, e)
		left, from := SharpeningsLeft(c, b, 2.1, 1)
		low, high := c.LifeRange(b.Grind)
		said = append(said, fmt.Sprint("== ", i), map[string]any{"condition": c, "health": HealthOf(c, b.Grind, day(63)), "path": Path(c, b.Grind, i%2 == 0), "word": c.Word(b.Grind), "confidence": c.Confidence(),
			"sharpness": c.Sharpness(b.Grind), "pitch": c.PitchLevel(), "left": left, "from": from, "low": low, "high": high, "life": c.LifeM(b)})
	}
	golden.Check(t, "a log", said...)
	said = nil
	for _, k := range Cleaners() {
		risk, harsh := k.Risk()
		said = append(said, k, WashSteps(k, Nylon, 2), Agrees(k, "Needle", "nitride"), Agrees(k, "Needle", "none"), map[string]any{"risk": risk, "harsh": harsh})
		for _, tray := range []Tray{{400, 300, 60, false}, {360, 0, 80, true}, {274, 274, 40, false}, {273, 400, 40, false}, {2001, 400, 40, false}, {400, 400, 501, false}, {400, 400, 26, false}} {
			for _, n := range []int{0, 1, 2, 20, 21} {
				m, err := MixFor(tray, k, 254, 3.2, n)
				if err != nil {
					said = append(said, err.Error())
				} else {
					said = append(said, m)
				}
			}
		}
		for _, uses := range []int{0, k.Uses - 1, k.Uses} {
			for _, since := range []int{0, 5, 6} {
				for _, days := range []int{0, k.Keeps - 1, k.Keeps} {
					word, why := BathState(k, uses, since, time.Duration(days)*24*time.Hour)
					said = append(said, word+": "+why.String())
				}
			}
		}
	}
	golden.Check(t, "washes", said...)
	yes, no := true, false
	said = nil
	for _, s := range []Survey{
		{After: "hit", Cleaned: true, Crack: "none", Blue: &no, Bent: &no, Beside: "even"},
		{After: "lost-tip", Cleaned: true, Missing: 1, Seat: "ground", Braze: "even", Rest: "sharp", Crack: "none", Blue: &no, Bent: &no, Beside: "shifted"},
		{After: "lost-tip", Missing: 3, Chipped: 2, Seat: "saw-marks", Braze: "squeezed", Rest: "worn", Pitch: "caked", Crack: "gullet", Blue: &yes, Bent: &yes},
		{After: "doubt", Loose: 1, Pitch: "light", Rest: "worn"}, {After: "doubt", Chipped: 4, Crack: "slot", Bent: &yes, Cleaned: true},
	} {
		for _, of := range []Subject{{Teeth: 60, Price: 100, Sharpen: 24, Left: 6}, {Teeth: 24, Price: 20, Sharpen: 22, Left: 0, Throwaway: true}, {Teeth: 40, Left: 2, Years: 12}, {Teeth: 80, Price: 60, Sharpen: 30, Left: 1, Years: 3}} {
			said = append(said, s.Report(of), s.Fault())
		}
	}
	golden.Check(t, "surveys", said...)
	dear := Plan{Price: 92, Sharpening: 24, Sharpenings: 5, LifeM: 2200}
	cheap := Plan{Price: 20, LifeM: 900}
	line, from, ever := Compare(dear, cheap, 13_200)
	golden.Check(t, "money", map[string]any{"line": line, "from": from, "ever": ever, "metre": CostPerMetre(92, 24, 5, 2200), "new": Condition{}.LifeM(b), "unit": measure.Length(0)})
}
