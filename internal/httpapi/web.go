package httpapi

import (
	"bytes"
	"crypto/rand"
	"errors"
	"fmt"
	"io/fs"
	"net/http"
	"path"
	"strings"

	"github.com/gin-gonic/gin"
)

// A web serves the built front end: files by their names, and the page itself
// for every other address, because the page finds its station by itself.
type web struct {
	files fs.FS
	page  []byte
}

// nonceMark stands in the page where each answer's nonce goes.
const nonceMark = "__CSP_NONCE__"

func newWeb(files fs.FS) (*web, error) {
	page, err := fs.ReadFile(files, "index.html")
	if errors.Is(err, fs.ErrNotExist) {
		page, err = []byte("<!doctype html><title>Corte</title><p>This build of Corte has no front end in it. Run <code>make build</code>."), nil
	}
	return &web{files, page}, err
}

func (w *web) serve(c *gin.Context) {
	if c.Request.Method != http.MethodGet && c.Request.Method != http.MethodHead {
		refuse(c, http.StatusMethodNotAllowed, "", fmt.Sprintf("%s is not possible at this address.", c.Request.Method))
		return
	}
	name := strings.TrimPrefix(path.Clean(c.Request.URL.Path), "/")
	if info, err := fs.Stat(w.files, name); err == nil && !info.IsDir() && name != "index.html" {
		if strings.HasPrefix(name, "assets/") {
			c.Header("Cache-Control", "public, max-age=31536000, immutable") // their names carry their hash
		}
		c.Status(http.StatusOK)
		http.ServeFileFS(c.Writer, c.Request, w.files, name)
		return
	}
	if strings.HasPrefix(name, "assets/") {
		refuse(c, http.StatusNotFound, "", "This file is not part of this build; reload the page.")
		return
	}
	nonce := rand.Text()
	c.Header("Content-Security-Policy", "default-src 'none'; script-src 'self'; connect-src 'self'; font-src 'self'; "+
		"img-src 'self' data:; manifest-src 'self'; style-src 'self' 'nonce-"+nonce+"'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'")
	c.Header("Cache-Control", "no-cache")
	c.Data(http.StatusOK, "text/html; charset=utf-8", bytes.ReplaceAll(w.page, []byte(nonceMark), []byte(nonce)))
}
