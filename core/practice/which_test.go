package practice

import (
	"testing"

	"corte/core/choose"
	"corte/core/cut"
	"corte/core/saw"
	"corte/core/starter"
)

// What the drills of choosing call right is what Choose itself calls right, asked
// about the very same cut as a shop would ask it: over 1,000 draws.
func TestWhichAgreesWithChoose(t *testing.T) {
	asked := map[Skill]int{}
	for n := uint64(0); n < 334; n++ {
		for _, skill := range []Skill{"which/rip", "which/crosscut", "which/sheet"} {
			task, err := Pose(skill, n, 1+int(n%3), nil)
			if err != nil {
				t.Fatal(err)
			}
			r := task.ranks
			j := r.request.Job
			// As the station settles it on that saw.
			exit := j.Exit
			_, j.Other = cut.UsualSupport(j.Direction, cut.Along, true)
			j.Exit, j.Motion = exit, cut.Along
			j = choose.Settle(j, starter.Saw(saw.Table))
			k := choose.Rank(choose.Request{Saw: starter.Saw(saw.Table), Job: j}, r.rack)
			for i, o := range k.Fit {
				right, told := r.judge(letters[o.Index])
				best := k.Fit[0]
				switch v := o.Verdict(true, r.rack[o.Index].State); {
				case i == 0 && (!right || task.truth != letters[o.Index]):
					t.Fatalf("%s %d: Choose puts %s first, and it is wrong", skill, n, letters[o.Index])
				case o.Level && !right:
					t.Fatalf("%s %d: Choose calls %s as good, and it is wrong", skill, n, letters[o.Index])
				case right && o.Score < asGood*best.Score:
					t.Fatalf("%s %d: %s is right at %.3f of %.3f", skill, n, letters[o.Index], o.Score, best.Score)
				case told[o.Index].Verdict != v:
					t.Fatalf("%s %d: %s is told as %v, and Choose says %v", skill, n, letters[o.Index], told[o.Index].Verdict, v)
				}
			}
			for _, o := range k.Stopped {
				if right, _ := r.judge(letters[o.Index]); right {
					t.Fatalf("%s %d: %s may not go on, and is right", skill, n, letters[o.Index])
				}
			}
			asked[skill]++
		}
	}
	if len(asked) != 3 {
		t.Errorf("asked %v", asked)
	}
}
