// Package web embeds the built front end, so that one binary serves it.
package web

import (
	"embed"
	"io/fs"
)

//go:embed all:dist
var dist embed.FS

// Pages are the addresses that the front end has a page for, as its router
// (src/app/router.tsx) writes them; a word after a colon stands for any.
var Pages = []string{
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
	"own",
	"own/first",
	"care",
	"care/wash",
	"care/wash/:id",
	"care/bath",
	"care/slip",
	"care/money/:id",
	"groove",
	"groove/joints",
	"groove/:id",
	"trace",
	"trace/:id",
	"log",
	"bench",
	"mount/:id",
	"true",
	"true/:test",
	"rack",
	"rack/new",
	"rack/look",
	"rack/files",
	"rack/labels",
	"rack/saws/new",
	"rack/saws/:id",
	"rack/:id/edit",
	"rack/:id/survey",
	"rack/:id/survey/report",
	"rack/:id/set",
	"start",
	"licences",
	"learn",
	"learn/:drill",
	"learn/why/:why",
	"people",
	"me",
	"join/:secret",
	"guest/:secret",
	"shop",
	"special",
	"rack/:id",
	"words",
	"contract",
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
