package cut

import "testing"

// Every word of a job reads back as itself, and nothing else reads at all.
func TestWordsRoundTrip(t *testing.T) {
	for d := Rip; d <= Sheet; d++ {
		if got, err := ParseDirection(d.String()); err != nil || got != d {
			t.Errorf("%v: %v, %v", d, got, err)
		}
	}
	for m := Along; m <= Push; m++ {
		if got, err := ParseMotion(m.String()); err != nil || got != m {
			t.Errorf("%v: %v, %v", m, got, err)
		}
	}
	for f := Rough; f <= Fine; f++ {
		if got, err := ParseFinish(f.String()); err != nil || got != f {
			t.Errorf("%v: %v, %v", f, got, err)
		}
		if f > Rough && f.SplinterLimit() >= (f-1).SplinterLimit() {
			t.Errorf("a %v face bears no less than a %v one", f, f-1)
		}
	}
	for s := Open; s <= Spare; s++ {
		if got, err := ParseSupport(s.String()); err != nil || got != s {
			t.Errorf("%v: %v, %v", s, got, err)
		}
		if s > Open && s < Spare && s.Factor() >= Open.Factor() {
			t.Errorf("%v holds no fibres", s)
		}
	}
	for _, err := range []error{second(ParseDirection("diagonal")), second(ParseMotion("")), second(ParseFinish("shiny")), second(ParseSupport("hope"))} {
		if err == nil {
			t.Error("a word that is none was read")
		}
	}
}

func second[T any](_ T, err error) error { return err }

func TestCutLength(t *testing.T) {
	j := Job{Width: 120, Length: 900, Thickness: 19, Height: 12}
	if j.CutLength() != 900 || !j.NotThrough() {
		t.Errorf("a rip runs %v, not through %v", j.CutLength(), j.NotThrough())
	}
	j.Direction, j.Motion = Crosscut, Chop
	if j.CutLength() != 120 || j.NotThrough() {
		t.Errorf("a chop runs %v, not through %v", j.CutLength(), j.NotThrough())
	}
}
