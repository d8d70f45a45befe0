package httpapi

import (
	"context"
	"errors"
	"io"
	"io/fs"
	"net/http"
	"os"
	"strings"
	"time"

	"github.com/gin-gonic/gin"
	"github.com/google/uuid"

	"corte/core/say"
	"corte/internal/httpapi/contract"
	"corte/internal/httpapi/present"
	"corte/internal/httpapi/request"
	"corte/internal/ptr"
	"corte/internal/refusal"
	"corte/internal/shopfile"
	"corte/internal/store"
)

// Export and import of a whole shop have no time limit.
const (
	shopFilePath  = base + "/shop-file"
	shopCheckPath = base + "/shop-file-previews"
	copiesPath    = base + "/copies"
	maxShop       = 4 << 30
	maxLog        = 128 << 20            // read into memory
	logImportPath = base + "/log-import" // and its preview
)

// slow reports whether a request may take longer than others.
func slow(path string) bool {
	switch path {
	case streamPath, eventsPath, listenPath, exportPath, shopFilePath, shopCheckPath, copiesPath:
		return true
	}
	return looks(path) || strings.HasPrefix(path, logImportPath)
}

// looks reports whether a request brings a photo to be read.
func looks(path string) bool { return path == lookPath || path == wallPath || path == edgePath }

// mostOf is how large the file may be that a request brings, which nobody reads
// before its handler; 0 for a request that brings none.
func mostOf(r *http.Request) int64 {
	switch {
	case r.Method != http.MethodGet && (r.URL.Path == shopFilePath || r.URL.Path == shopCheckPath):
		return maxShop
	case strings.HasPrefix(r.URL.Path, logImportPath):
		return maxLog
	case looks(r.URL.Path):
		return maxLook
	}
	return 0
}

// patient lifts the server's own limits on a slow request.
func patient(c *gin.Context) {
	out := http.NewResponseController(c.Writer)
	_ = out.SetReadDeadline(time.Time{})
	_ = out.SetWriteDeadline(time.Time{})
}

func (s *server) ListCopies(ctx context.Context, _ contract.ListCopiesRequestObject) (contract.ListCopiesResponseObject, error) {
	out, err := s.encodeCopies(ctx)
	return contract.ListCopies200JSONResponse(out), err
}

func (s *server) MakeCopy(ctx context.Context, _ contract.MakeCopyRequestObject) (contract.MakeCopyResponseObject, error) {
	keeper := s.keeper(ctx)
	if keeper == nil {
		return nil, refusal.Of("copies", "backups are off. Set CORTE_COPIES to a folder for them")
	}
	var path *fs.PathError
	if _, err := keeper.Make(ctx); errors.As(err, &path) {
		return nil, &refusal.Error{Reason: refusal.Conflict, Field: "copies", What: say.Of("can't write a backup to %s on the server: %s", say.Word(keeper.Dir), say.Word(path.Err.Error()))}
	} else if err != nil {
		return nil, err
	}
	out, err := s.encodeCopies(ctx)
	return contract.MakeCopy201JSONResponse(out), err
}

func (s *server) encodeCopies(ctx context.Context) (contract.Copies, error) {
	out := contract.Copies{Items: []contract.Copy{}}
	keeper := s.keeper(ctx)
	if keeper == nil {
		return out, nil
	}
	all, err := keeper.Copies()
	for _, c := range all {
		out.Items = append(out.Items, contract.Copy{Name: c.Name, At: c.At, Bytes: c.Bytes})
	}
	out.Daily, out.Keep, out.Trouble = true, keeper.Keep, ptr.NonZero(keeper.Trouble())
	return out, err
}

// shopFile streams a shop.
type shopFile struct {
	ctx  context.Context
	st   *store.Store
	shop uuid.UUID
	by   string
	now  time.Time
}

func (x shopFile) VisitGetShopFileResponse(w http.ResponseWriter) error {
	w.Header().Set("Content-Type", "application/octet-stream")
	w.Header().Set("Content-Disposition", `attachment; filename="corte-shop-`+x.now.Format("2006-01-02")+`.corte.zip"`)
	w.WriteHeader(http.StatusOK)
	return shopfile.Write(x.ctx, x.st, x.shop, x.now, x.by, w, nil)
}

func (s *server) GetShopFile(ctx context.Context, _ contract.GetShopFileRequestObject) (contract.GetShopFileResponseObject, error) {
	return shopFile{ctx, s.Service.Store, request.Shop(ctx), s.by, s.Service.Now()}, nil
}

func (s *server) PreviewShopFile(ctx context.Context, r contract.PreviewShopFileRequestObject) (contract.PreviewShopFileResponseObject, error) {
	out, _, err := s.shopFile(ctx, r.Body, false)
	return contract.PreviewShopFile200JSONResponse(out), err
}

func (s *server) BringShopFile(ctx context.Context, r contract.BringShopFileRequestObject) (contract.BringShopFileResponseObject, error) {
	out, faults, err := s.shopFile(ctx, r.Body, true)
	if err == nil && len(faults) > 0 {
		err = &refusal.Error{Reason: refusal.Invalid, Field: "file", What: faults[0]}
	}
	return contract.BringShopFile200JSONResponse(out), err
}

// shopFile puts an upload onto the disk, checks it from end to end, and brings it
// in where that is asked for and nothing is wrong.
func (s *server) shopFile(ctx context.Context, body io.Reader, bring bool) (contract.ShopFile, []say.Line, error) {
	var out contract.ShopFile
	spool, err := os.CreateTemp("", "corte-upload-")
	if err != nil {
		return out, nil, err
	}
	defer spool.Close()
	if err := os.Remove(spool.Name()); err != nil { // while it is open: a server that is killed leaves nothing
		return out, nil, err
	}
	size, err := io.Copy(spool, body)
	if err != nil {
		return out, nil, err
	}
	f, err := shopfile.Open(spool, size)
	if err != nil {
		return out, nil, err
	}
	faults, err := f.Check(ctx, s.Service.Store)
	if err != nil {
		return out, nil, err
	}
	out = contract.ShopFile{Name: f.Name(), MadeAt: f.MadeAt, MadeBy: f.MadeBy, Tables: []contract.ShopFileTable{}, Faults: []string{}}
	rows := f.ByTable()
	for _, t := range f.Tables {
		if rows[t.Name] > 0 {
			out.Tables = append(out.Tables, contract.ShopFileTable{Name: t.Name, Rows: rows[t.Name]})
		}
	}
	v := present.VoiceOf(ctx)
	for _, one := range faults {
		out.Faults = append(out.Faults, v.Sentence(one))
	}
	if bring && len(faults) == 0 {
		err = f.Restore(ctx, s.Service.Store, request.Shop(ctx), nil)
	} else if err = s.Service.Store.Atomically(ctx, func(tx *store.Store) (err error) { out.RowsHere, err = tx.Holds(ctx, request.Shop(ctx)); return err }); err != nil {
		return out, faults, err
	}
	return out, faults, err
}
