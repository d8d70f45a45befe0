package truing

import (
	"corte/core/saw"
	"corte/core/say"
)

// A Test is one thing that can be measured on a saw, a blade or a piece.
type Test string

const (
	HeelTest      Test = "heel"      // blade to slot
	FenceTest     Test = "fence"     // fence to slot
	RunOutTest    Test = "runout"    // the plate's wobble
	TiltTest      Test = "tilt"      // blade to table
	GaugeTest     Test = "gauge"     // gauge or fence to blade, by five cuts
	ClearanceTest Test = "clearance" // teeth that stand out; of a blade
	WidthTest     Test = "width"     // of one piece
	DepthTest     Test = "depth"     // of one groove
	ScoringTest   Test = "scoring"   // scoring kerf against the main one
)

// Tests lists those of a saw: of its kind, and of a scoring blade where it has
// one.
func Tests(s saw.Saw) []Test {
	out := TestsOf(s.Kind)
	if s.Scoring.Kerf > 0 {
		out = append(out, ScoringTest)
	}
	return out
}

// TestsOf lists the tests that a kind of saw has, in the order in which they
// are best done (craft section 7). Only a table saw has a slot and a fence that
// sets a width; what is held in the hand has no gauge to square; and a miter
// saw, which goes through, has no depth to set.
func TestsOf(k saw.Kind) []Test {
	switch k {
	case saw.Table:
		return []Test{HeelTest, FenceTest, RunOutTest, TiltTest, GaugeTest, ClearanceTest, WidthTest, DepthTest}
	case saw.Miter:
		return []Test{RunOutTest, TiltTest, GaugeTest, ClearanceTest}
	case saw.Circular:
		return []Test{RunOutTest, TiltTest, ClearanceTest, DepthTest}
	}
	return nil
}

// OfSaw reports whether a test says how a saw stands. The others are of a
// blade, or of the piece that is being cut.
func (t Test) OfSaw() bool {
	switch t {
	case HeelTest, FenceTest, RunOutTest, TiltTest, GaugeTest:
		return true
	}
	return false
}

// InDegrees reports whether its figure is an angle; the others are lengths.
func (t Test) InDegrees() bool { return t == TiltTest || t == GaugeTest }

// Words is what the test is called.
func (t Test) Words() say.Line {
	switch t {
	case HeelTest:
		return say.Of("Blade to slot")
	case FenceTest:
		return say.Of("Fence to slot")
	case RunOutTest:
		return say.Of("Run-out")
	case TiltTest:
		return say.Of("Tilt")
	case GaugeTest:
		return say.Of("Gauge")
	case ClearanceTest:
		return say.Of("Side clearance")
	case WidthTest:
		return say.Of("Exact width")
	case DepthTest:
		return say.Of("Exact depth")
	case ScoringTest:
		return say.Of("Scoring blade")
	}
	return say.Word(string(t))
}
