// Package web embeds the built front end, so that one binary serves it.
package web

import (
	"embed"
	"io/fs"
)

//go:embed all:dist
var dist embed.FS

// Files are the built front end: index.html, assets/ and what stands beside
// them. Before the first `make build` there is nothing in it.
func Files() fs.FS {
	files, err := fs.Sub(dist, "dist")
	if err != nil {
		panic(err) // dist is a directory of this package
	}
	return files
}
