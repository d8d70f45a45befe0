// Package web embeds the built front end, so that one binary serves it.
package web

import (
	"embed"
	"io/fs"
	"slices"
)

//go:embed all:dist
var dist embed.FS

// Pages are the addresses that the front end answers, as its router writes
// them; a word after a colon stands for any.
var Pages = slices.Concat(pages, moved)

// pages are the addresses of src/app/router.tsx.
var pages = []string{
	"",
	"card",
	"run",
	"trial/new",
	"trial/:id",
	"jobs",
	"jobs/new",
	"jobs/:id",
	"jobs/:id/next",
	"jobs/:id/stock",
	"buy",
	"buy/first",
	"care",
	"care/wash",
	"care/wash/:id",
	"care/bath",
	"care/slip",
	"care/money/:id",
	"groove",
	"groove/joints",
	"groove/:id",
	"diagnose",
	"diagnose/:id",
	"log",
	"saws",
	"mount/:id",
	"align",
	"align/:test",
	"blades",
	"blades/new",
	"blades/look",
	"blades/files",
	"blades/labels",
	"saws/new",
	"saws/:id",
	"blades/:id/edit",
	"blades/:id/survey",
	"blades/:id/survey/report",
	"blades/:id/set",
	"start",
	"licenses",
	"practice",
	"practice/:drill",
	"practice/why/:why",
	"people",
	"me",
	"join/:secret",
	"guest/:secret",
	"settings",
	"special",
	"blades/:id",
	"glossary",
	"contract",
}

// moved are addresses that pages had once; src/app/places.ts says where they are now.
var moved = []string{
	"bench",
	"true",
	"true/:test",
	"own",
	"own/first",
	"trace",
	"trace/:id",
	"learn",
	"learn/:drill",
	"learn/why/:why",
	"words",
	"shop",
	"licences",
	"rack",
	"rack/:id",
	"rack/:id/:page",
	"rack/:id/:page/report",
}

// Files are the built front end: index.html, assets/ and what stands beside
// them. Before the first `make build` there is nothing in it.
func Files() fs.FS {
	files, err := fs.Sub(dist, "dist")
	if err != nil {
		panic(err) // dist is a directory of this package
	}
	return files
}
