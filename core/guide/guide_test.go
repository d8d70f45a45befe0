package guide

import (
	"strings"
	"testing"

	"corte/core/cut"
	"corte/core/material"
	"corte/core/saw"
)

func TestTheRightCautionAtTheRightSaw(t *testing.T) {
	for name, tt := range map[string]struct {
		s     saw.Kind
		j     cut.Job
		says  []string
		never string
		show  string
	}{
		"rip on a table":        {saw.Table, cut.Job{}, []string{"Riving knife", "push block"}, "gauge", "up"},
		"crosscut on a table":   {saw.Table, cut.Job{Direction: cut.Crosscut}, []string{"never together with the fence"}, "push block", "up"},
		"sheet on a table":      {saw.Table, cut.Job{Direction: cut.Sheet}, []string{"both halves"}, "gauge", "up"},
		"across with a walker":  {saw.Circular, cut.Job{Direction: cut.Crosscut}, []string{"between two supports"}, "fence", "down"},
		"a chop":                {saw.Miter, cut.Job{Direction: cut.Crosscut, Motion: cut.Chop}, []string{"until it has stopped"}, "Riving", "up"},
		"a push":                {saw.Miter, cut.Job{Direction: cut.Crosscut, Motion: cut.Push}, []string{"front to back", "never climb"}, "Riving", "down"},
		"aluminium on a table":  {saw.Table, cut.Job{Direction: cut.Crosscut, Material: material.Material{Kind: material.SoftMetal}}, []string{"Face shield", "no wood dust"}, "melts", "up"},
		"acrylic on a table":    {saw.Table, cut.Job{Direction: cut.Crosscut, Material: material.Material{Kind: material.Plastic}}, []string{"melts"}, "shield", "up"},
		"tile with a hand saw":  {saw.Circular, cut.Job{Direction: cut.Crosscut, Material: material.Material{Kind: material.Mineral}}, []string{"silica"}, "melts", "down"},
		"steel with a hand saw": {saw.Circular, cut.Job{Direction: cut.Crosscut, Material: material.Material{Kind: material.Steel}}, []string{"made for steel"}, "silica", "down"},
	} {
		s := saw.Saw{Kind: tt.s}
		all := Cautions(tt.j, s)
		text := strings.Join(all, " ")
		if !strings.HasPrefix(all[0], "Plug out") || !strings.Contains(all[len(all)-1], "Eye, ear and lung") {
			t.Errorf("%s begins with %q and ends with %q", name, all[0], all[len(all)-1])
		}
		for _, want := range tt.says {
			if !strings.Contains(text, want) {
				t.Errorf("%s does not say %q: %s", name, want, text)
			}
		}
		if strings.Contains(text, tt.never) {
			t.Errorf("%s says %q, which is for another cut", name, tt.never)
		}
		for _, c := range all {
			if len(c) > 120 {
				t.Errorf("%s: too long to read beside a saw: %q", name, c)
			}
		}
		if got := ShowFace(tt.j, s); got != tt.show {
			t.Errorf("%s: show face %s, want %s", name, got, tt.show)
		}
	}
}
