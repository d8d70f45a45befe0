package httpapi

import (
	"bytes"
	"crypto/rand"
	"errors"
	"io/fs"
	"net/http"
	"path"
	"slices"
	"strings"

	"github.com/gin-gonic/gin"

	"corte/core/say"
)

// A web serves the built front end: files by their names, and the page itself
// for every other address, because the page finds its station by itself.
type web struct {
	files fs.FS
	page  []byte
	pages [][]string // the addresses that the page has something for, cut at slashes
}

// nonceMark stands in the page where each answer's nonce goes.
const nonceMark = "__CSP_NONCE__"

func newWeb(files fs.FS, pages []string) (*web, error) {
	page, err := fs.ReadFile(files, "index.html")
	if errors.Is(err, fs.ErrNotExist) {
		page, err = []byte("<!doctype html><title>Corte</title><p>This build of Corte has no front end in it. Run <code>make build</code>."), nil
	}
	w := &web{files: files, page: page}
	for _, p := range pages {
		w.pages = append(w.pages, strings.Split(p, "/"))
	}
	return w, err
}

func (w *web) serve(c *gin.Context) {
	if c.Request.Method != http.MethodGet && c.Request.Method != http.MethodHead {
		refuse(c, http.StatusMethodNotAllowed, "", say.Of("%s is not possible at this address.", c.Request.Method))
		return
	}
	name := strings.TrimPrefix(path.Clean(c.Request.URL.Path), "/")
	if info, err := fs.Stat(w.files, name); err == nil && !info.IsDir() && name != "index.html" {
		if strings.HasPrefix(name, "assets/") {
			c.Header("Cache-Control", "public, max-age=31536000, immutable") // their names carry their hash
		}
		switch path.Ext(name) {
		case ".webmanifest":
			c.Header("Content-Type", "application/manifest+json")
		case ".js":
			// Also of a worker, which goes by its own: the core that one of them loads is compiled as it comes.
			c.Header("Content-Security-Policy", "default-src 'none'; script-src 'self' 'wasm-unsafe-eval'; connect-src 'self'; frame-ancestors 'none'")
			if !strings.HasPrefix(name, "assets/") {
				// The service worker must be revalidated, or a new version is never loaded.
				// It may fetch what it caches from this server.
				c.Header("Cache-Control", "no-cache")
				c.Header("Content-Security-Policy", "default-src 'none'; connect-src 'self'; frame-ancestors 'none'")
			}
		}
		c.Status(http.StatusOK)
		http.ServeFileFS(c.Writer, c.Request, w.files, name)
		return
	}
	if strings.HasPrefix(name, "assets/") {
		refuse(c, http.StatusNotFound, "", say.Of("This file isn't part of this version. Reload the page."))
		return
	}
	nonce := rand.Text()
	c.Header("Content-Security-Policy", "default-src 'none'; script-src 'self'; connect-src 'self'; font-src 'self'; "+
		"img-src 'self' data:; manifest-src 'self'; style-src 'self' 'nonce-"+nonce+"'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'")
	c.Header("Cache-Control", "no-cache")
	status := http.StatusNotFound // the page says so in its own words
	if w.has(strings.Split(name, "/")) {
		status = http.StatusOK
	}
	c.Data(status, "text/html; charset=utf-8", bytes.ReplaceAll(w.page, []byte(nonceMark), []byte(nonce)))
}

// has reports whether there is a page at an address.
func (w *web) has(address []string) bool {
	return slices.ContainsFunc(w.pages, func(p []string) bool {
		return slices.EqualFunc(p, address, func(want, is string) bool { return want == is || is != "" && strings.HasPrefix(want, ":") })
	})
}
