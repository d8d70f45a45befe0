// Package labels lays out a sheet of blade labels: name, numbers, use, and a QR
// code that opens the blade's page (craft section 9).
package labels

import (
	"bytes"
	"encoding/xml"
	"fmt"
	"image/color"
	"strconv"
	"strings"
	"text/template"

	"github.com/boombuler/barcode/qr"

	"corte/core/blade"
	"corte/core/measure"
	"corte/internal/store"
)

// A4 in millimetres, three labels by eight with room for a printer's margins.
const (
	pageW, pageH = 210.0, 297.0
	columns      = 3
	rowsOnPage   = 8
	perPage      = columns * rowsOnPage
	labelW       = 64.0
	labelH       = 34.0
	left         = (pageW - columns*labelW) / 2
	top          = (pageH - rowsOnPage*labelH) / 2
	code         = 22.0 // side of the QR code
)

// Sheet writes the labels of blades as SVG, page below page. skip leaves out
// the first places of the first page, whose labels are gone already. page gives
// the address of a blade's page.
func Sheet(blades []store.Blade, page func(store.Blade) string, skip int, u measure.Unit) ([]byte, error) {
	var cells []cell
	for i, b := range blades {
		at := skip + i
		c := cell{
			X:    left + float64(at%perPage%columns)*labelW,
			Y:    float64(at/perPage)*pageH + top + float64(at%perPage/columns)*labelH,
			Name: shorten(b.Name, 20), Lines: lines(b, u),
		}
		var err error
		if c.Code, err = path(page(b)); err != nil {
			return nil, fmt.Errorf("the code of %s: %w", b.Name, err)
		}
		cells = append(cells, c)
	}
	pages := (skip + len(blades) + perPage - 1) / perPage
	var out bytes.Buffer
	err := sheet.Execute(&out, map[string]any{
		"W": pageW, "H": pageH * float64(pages), "CellW": labelW, "CellH": labelH, "Cells": cells,
		"CodeX": labelW - code - 2, "CodeY": labelH - code - 1.5,
	})
	return out.Bytes(), err
}

type cell struct {
	X, Y  float64
	Name  string
	Lines []string
	Code  string
}

var sheet = template.Must(template.New("sheet").Funcs(template.FuncMap{"text": escape, "down": func(i int) float64 { return 13.4 + 3.8*float64(i) }}).Parse(
	`<svg xmlns="http://www.w3.org/2000/svg" width="{{.W}}mm" height="{{.H}}mm" viewBox="0 0 {{.W}} {{.H}}" font-family="sans-serif" fill="#000">
{{- range .Cells}}
<g transform="translate({{.X}} {{.Y}})">
<rect width="{{$.CellW}}" height="{{$.CellH}}" fill="none" stroke="#999" stroke-width="0.15"/>
<text x="3" y="8" font-size="5.2" font-weight="bold">{{text .Name}}</text>
{{- range $i, $l := .Lines}}
<text x="3" y="{{down $i}}" font-size="2.9">{{text $l}}</text>
{{- end}}
<path transform="translate({{$.CodeX}} {{$.CodeY}})" d="{{.Code}}"/>
</g>
{{- end}}
</svg>
`))

func escape(s string) string {
	var b strings.Builder
	_ = xml.EscapeText(&b, []byte(s))
	return b.String()
}

func shorten(s string, most int) string {
	if r := []rune(s); len(r) > most {
		return string(r[:most-1]) + "…"
	}
	return s
}

var uses = map[blade.Use]string{
	blade.UseGeneral: "general work", blade.UseRip: "ripping", blade.UseCrosscut: "crosscuts", blade.UseSheet: "sheet goods",
	blade.UseJoints: "joints", blade.UseMetal: "metal", blade.UsePlastic: "plastics", blade.UseDirty: "dirty work",
	blade.UseMineral: "tile and stone",
}

func lines(b store.Blade, u measure.Unit) []string {
	thin := func(l measure.Length) string {
		if u == measure.Inch {
			return strconv.FormatFloat(l.Inches(), 'f', 3, 64) + `"`
		}
		return l.Format(u)
	}
	out := []string{"for " + uses[b.KeptFor]}
	if b.Teeth > 0 {
		out = append(out, fmt.Sprintf("%d %s, hook %+g°", b.Teeth, b.Grind, b.Hook))
	} else {
		out = append(out, b.Make.String()+" wheel")
	}
	out = append(out, fmt.Sprintf("%s, bore %s", b.Diameter.Setting(u), b.Bore.Setting(u)), "kerf "+thin(b.Kerf))
	if b.MaxRPM > 0 {
		out = append(out, fmt.Sprintf("to %.0f rpm", b.MaxRPM))
	}
	return append(out, shorten(b.Hangs, 22))
}

// path is a QR code as the path of its dark squares, code millimetres a side.
func path(text string) (string, error) {
	q, err := qr.Encode(text, qr.M, qr.Auto)
	if err != nil {
		return "", err
	}
	n := q.Bounds().Dx()
	dark := func(x, y int) bool { return x < n && q.At(x, y) == color.Black }
	side := code / float64(n)
	var b strings.Builder
	for y := range n {
		for x := 0; x < n; x++ {
			if !dark(x, y) {
				continue
			}
			run := x
			for dark(run, y) {
				run++
			}
			fmt.Fprintf(&b, "M%.3f %.3fh%.3fv%.3fh%.3fz", float64(x)*side, float64(y)*side, float64(run-x)*side, side, -float64(run-x)*side)
			x = run
		}
	}
	return b.String(), nil
}
