package jobfile

import (
	"bytes"
	"encoding/xml"
	"fmt"
	"strings"
	"text/template"

	"corte/core/material"
	"corte/core/measure"
	"corte/internal/shop/job"
)

// A score on A4 across: a staff a saw, time along, a box a cut as long as it
// takes. Below it every cut with its setting, large enough to read at the saw.
const (
	scoreW    = 1120.0
	staffH    = 92.0
	staffX    = 130.0
	lineH     = 30.0
	pageH     = 792.0
	firstLine = 64.0
)

type box struct {
	X, Y, W float64
	Text    string
	Hatch   bool
}

type bar struct {
	X, Y float64
	Text string
	New  bool
}

// Score draws a run sheet as SVG, page below page.
func Score(j job.Job, u measure.Unit) ([]byte, error) {
	type staff struct {
		Y    float64
		Name string
	}
	type line struct {
		Y     float64
		Cells []string
		Head  bool
	}
	var staves []staff
	var boxes []box
	var bars []bar
	var lines []line
	names := map[string]job.Row{}
	for _, r := range j.Rows {
		names[r.ID.String()] = r
	}
	y := firstLine
	total := 0.0
	if j.Sheet != nil {
		total = j.Sheet.EndMin
		scale := (scoreW - staffX - 20) / max(1, total)
		at := map[string]float64{}
		for _, t := range j.Sheet.Turns {
			id := t.Saw.String()
			if _, seen := at[id]; !seen {
				at[id] = y
				staves = append(staves, staff{y, t.SawName})
				y += staffH
			}
		}
		textY := y + 26
		add := func(head bool, cells ...string) {
			if left := pageH - mod(textY, pageH); left < lineH {
				textY += left + 26
			}
			lines = append(lines, line{textY, cells, head})
			textY += lineH
		}
		for _, t := range j.Sheet.Turns {
			top := at[t.Saw.String()]
			bars = append(bars, bar{staffX + t.Begin*scale, top, t.BladeName, t.Changed})
			head := t.SawName + ": " + t.BladeName
			if t.Changed {
				head += ", mounted"
			}
			if t.Wash {
				head += ", clean first"
				boxes = append(boxes, box{staffX + t.Begin*scale, top + 26, max(2, (t.CutsFrom-t.Begin)*scale-1), "wash", false})
			}
			add(true, head, t.Stage.String(), "", "")
			for _, c := range t.Cuts {
				r := names[c.Row.String()]
				boxes = append(boxes, box{staffX + c.Begin*scale, top + 26, max(2, c.Minutes*scale-1), "", t.Teeth > 0})
				height, feed := "", ""
				if c.Height > 0 {
					height = c.Height.Setting(u) + " high"
				}
				if c.Seconds > 0 {
					feed = fmt.Sprintf("%.0f s each", c.Seconds)
				}
				add(false, fmt.Sprintf("%d × %s", c.Pieces, r.Name), fmt.Sprintf("%s × %s × %s %s", r.Thickness.Format(u), r.Width.Format(u), r.Length.Format(u), material.Name(r.Material)), height, feed)
			}
		}
		y = textY
	}
	pages := max(1, int((y+pageH-1)/pageH))
	var out bytes.Buffer
	err := score.Execute(&out, map[string]any{
		"W": scoreW, "H": float64(pages) * pageH, "Name": j.Name, "Staves": staves, "Boxes": boxes, "Bars": bars, "Lines": lines,
		"Sum": fmt.Sprintf("%.0f min", total), "Right": scoreW - 20,
	})
	return out.Bytes(), err
}

func mod(x, m float64) float64 { return x - m*float64(int(x/m)) }

var score = template.Must(template.New("").Funcs(template.FuncMap{
	"x": func(s string) (string, error) {
		var b strings.Builder
		err := xml.EscapeText(&b, []byte(s))
		return b.String(), err
	},
	"n":   func(v float64) string { return fmt.Sprintf("%.1f", v) },
	"add": func(a, b float64) float64 { return a + b },
	"at":  func(i int) float64 { return []float64{20, 330, 760, 960}[min(i, 3)] },
}).Parse(`<svg xmlns="http://www.w3.org/2000/svg" width="{{n .W}}" height="{{n .H}}" viewBox="0 0 {{n .W}} {{n .H}}" font-family="sans-serif">
<defs><pattern id="t" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(35)"><path d="M0 0V7" stroke="#000" stroke-width="1.2"/></pattern></defs>
<rect width="100%" height="100%" fill="#fff"/>
<text x="20" y="36" font-size="24" font-weight="700">{{x .Name}}</text><text x="{{n .Right}}" y="36" font-size="20" text-anchor="end">{{x .Sum}}</text>
{{$right := .Right}}{{range .Staves}}<text x="20" y="{{n (add .Y 50)}}" font-size="16" font-weight="600">{{x .Name}}</text><path d="M130 {{n (add .Y 60)}}H{{n $right}}" stroke="#000" stroke-width="1.4"/>
{{end}}{{range .Boxes}}<rect x="{{n .X}}" y="{{n .Y}}" width="{{n .W}}" height="34" fill="#fff"/><rect x="{{n .X}}" y="{{n .Y}}" width="{{n .W}}" height="34" fill="{{if .Hatch}}url(#t){{else}}none{{end}}" stroke="#000"{{if .Text}} stroke-dasharray="3 3"{{end}}/>{{if .Text}}<text x="{{n (add .X 4)}}" y="{{n (add .Y 22)}}" font-size="13">{{x .Text}}</text>{{end}}
{{end}}{{range .Bars}}<path d="M{{n .X}} {{n (add .Y 18)}}V{{n (add .Y 66)}}" stroke="#000" stroke-width="{{if .New}}4{{else}}1.4{{end}}"/><text x="{{n (add .X 4)}}" y="{{n (add .Y 18)}}" font-size="13">{{x .Text}}</text>
{{end}}{{range .Lines}}{{$y := .Y}}{{$h := .Head}}{{range $i, $c := .Cells}}{{if $c}}<text x="{{n (at $i)}}" y="{{n $y}}" font-size="{{if $h}}17{{else}}18{{end}}"{{if $h}} font-weight="700"{{end}}>{{x $c}}</text>{{end}}{{end}}
{{end}}</svg>
`))
