package learn

import (
	"math"
	"math/rand/v2"
	"testing"

	"corte/core/material"
	"corte/core/say"
)

// played draws cuts of a material whose true corrections are known.
func played(n int, scorch, splinter float64, seed uint64) []Cut {
	dice := rand.New(rand.NewPCG(seed, 1))
	out := make([]Cut, n)
	for i := range out {
		heat := math.Exp(dice.NormFloat64() * 0.5)
		t := math.Exp(dice.NormFloat64()*0.6) * 0.6
		p, at := Chances(t*math.Exp(splinter)), Grade(0)
		for x := dice.Float64(); at < Torn && x >= p[at]; at++ {
			x -= p[at]
		}
		out[i] = Cut{Heat: heat, Burnt: dice.Float64() < logistic(steep*(math.Log(heat)-scorch)), Grades: []Grade{at}, Foretold: []float64{t}}
	}
	return out
}

func TestCorrectionsAreFound(t *testing.T) {
	if c := From(nil); c.LnScorch != 0 || c.LnSplinter != 0 || math.Abs(c.SDScorch-priorSD) > 1e-12 || c.Says(say.Of("oak")) != nil {
		t.Errorf("from no cuts: %+v", c)
	}
	for _, tt := range []struct{ scorch, splinter float64 }{{0, 0}, {-0.3, 0.4}, {0.5, -0.2}} {
		c := From(played(400, tt.scorch, tt.splinter, 7))
		if math.Abs(c.LnScorch-tt.scorch) > 3*c.SDScorch || math.Abs(c.LnSplinter-tt.splinter) > 3*c.SDSplinter || c.SDScorch > 0.1 {
			t.Errorf("true %v, found %+v", tt, c)
		}
	}
}

// The prior and the bounds of the grades by figure, from docs/model.md; a cut
// whose heat nobody knows teaches no scorch.
func TestWhatIsBelievedBefore(t *testing.T) {
	c := From([]Cut{{Burnt: true}, {Heat: 0, Burnt: true}})
	if c.LnScorch != 0 || math.Abs(c.SDScorch-0.35) > 1e-9 || math.Abs(c.SDSplinter-0.35) > 1e-9 {
		t.Errorf("from cuts that tell nothing: %+v", c)
	}
	for at, grade := range map[float64]Grade{0.3: None, 0.6: Fuzz, 1.2: Splinters} {
		upTo := 0.0
		for g := range grade + 1 {
			upTo += Chances(at)[g]
		}
		if math.Abs(upTo-0.5) > 1e-9 {
			t.Errorf("at %v the chance to be no worse than %v is %v", at, grade, upTo)
		}
	}
}

// The curve of the grades is as steep as that of scorch, and what is under 5 % is
// not said: docs/model.md, section 8.
func TestSteepnessAndWhatIsSaid(t *testing.T) {
	if got, want := Chances(0.9)[Torn], 1/(1+math.Pow(1.2/0.9, 4)); math.Abs(got-want) > 1e-12 {
		t.Errorf("at 0.9 torn has a chance of %v, want %v", got, want)
	}
	burnt := From([]Cut{{Heat: 1, Burnt: true}}) // of x with x/0.1225 + 4·(1 − σ(−4x)) = 0
	if x := burnt.LnScorch; math.Abs(x/(0.35*0.35)+4*(1-1/(1+math.Exp(4*x)))) > 1e-6 {
		t.Errorf("one burn at the dose moves it by %v", x)
	}
	for pct, said := range map[float64]int{1.044: 0, 1.046: 1} {
		c := Correction{LnScorch: math.Log(pct), Cuts: 3}
		says := c.Says(say.Of("oak"))
		if len(says) != said || said > 0 && says[0].With[1] != 5.0 {
			t.Errorf("%v times: %v", pct, says)
		}
	}
}

// The found value is where the posterior is highest: no neighbour is higher.
func TestItIsTheHighest(t *testing.T) {
	cuts := played(30, -0.4, 0.2, 3)
	c := From(cuts)
	post := func(x float64) float64 {
		sum := -x * x / (2 * priorSD * priorSD)
		for _, k := range cuts {
			p := logistic(steep * (math.Log(k.Heat) - x))
			if !k.Burnt {
				p = 1 - p
			}
			sum += math.Log(p)
		}
		return sum
	}
	grades := func(x float64) float64 {
		sum := -x * x / (2 * priorSD * priorSD)
		for _, k := range cuts {
			sum += math.Log(Chances(k.Foretold[0] * math.Exp(x))[k.Grades[0]])
		}
		return sum
	}
	for _, d := range []float64{-0.01, 0.01} {
		if post(c.LnScorch+d) >= post(c.LnScorch) || grades(c.LnSplinter+d) >= grades(c.LnSplinter) {
			t.Errorf("a step of %v is likelier", d)
		}
	}
}

func TestACorrectionIsApplied(t *testing.T) {
	m, err := material.Get("cherry")
	if err != nil {
		t.Fatal(err)
	}
	cuts := make([]Cut, 20)
	for i := range cuts {
		cuts[i] = Cut{Heat: 0.5, Burnt: true} // the table gives this a chance of 6 %
	}
	c := From(cuts)
	if got := c.Apply(m); got.ScorchDose >= 0.8*m.ScorchDose || got.MAcross != m.MAcross {
		t.Errorf("after 20 early burns the dose is %v of %v", got.ScorchDose, m.ScorchDose)
	}
	if says := c.Says(say.Of("cherry")); len(says) != 1 {
		t.Errorf("says %q", says)
	}
}
