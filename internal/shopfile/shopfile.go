// Package shopfile writes a whole shop into one file and restores it: a ZIP with
// a manifest, a table of JSON lines for every kind of row (with struck rows,
// retired blades and all IDs), photos as JPEG, and a digest of each. A file is
// checked whole before anything is written, and written in one transaction. It
// holds no secrets.
package shopfile

import (
	"archive/zip"
	"bufio"
	"bytes"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"fmt"
	"hash"
	"io"
	"time"

	"github.com/google/uuid"

	"corte/internal/store"
)

const (
	// Format and Version are what a manifest says of itself.
	Format  = "corte-shop"
	Version = 1

	manifestName = "corte-shop.json"
	sumsName     = "sums.json"
	photosTable  = "photos"
	photoColumn  = "jpeg"
)

// A Manifest says what a file is; it stands first in it.
type Manifest struct {
	Format  string          `json:"format"`
	Version int             `json:"version"`
	MadeAt  time.Time       `json:"made_at"`
	MadeBy  string          `json:"made_by"` // the Corte that wrote it
	Shop    json.RawMessage `json:"shop"`    // its own settings
	Tables  []TableIn       `json:"tables"`
}

// TableIn is a table of a file.
type TableIn struct {
	Name    string   `json:"name"`
	Columns []string `json:"columns"`
}

// Sums say what each entry holds; they stand last.
type Sums struct {
	Entries map[string]Sum `json:"entries"`
}

// A Sum is the digest of an entry, and its lines where it is a table.
type Sum struct {
	SHA256 string `json:"sha256"`
	Bytes  int64  `json:"bytes"`
	Rows   int    `json:"rows"`
}

// Progress hears how many rows of a table are done. It may be nil.
type Progress func(table string, rows int)

// every is how many rows go by between two words of progress.
const every = 10_000

func tableName(t string) string     { return "tables/" + t + ".ndjson" }
func photoName(blade string) string { return "photos/" + blade + ".jpg" }

// Write writes a shop as it is at this moment. It holds a row at a time.
func Write(ctx context.Context, st *store.Store, shop uuid.UUID, now time.Time, by string, w io.Writer, p Progress) error {
	return st.Still(ctx, func(st *store.Store) error {
		tables, err := st.Tables(ctx)
		if err != nil {
			return err
		}
		m := Manifest{Format: Format, Version: Version, MadeAt: now.UTC(), MadeBy: by}
		if m.Shop, err = st.Settings(ctx, shop); err != nil {
			return err
		}
		for _, t := range tables {
			m.Tables = append(m.Tables, TableIn{t.Name, kept(t)})
		}
		out := writer{zip: zip.NewWriter(w), sums: Sums{Entries: map[string]Sum{}}, now: now}
		if err := out.json(manifestName, m); err != nil {
			return err
		}
		for _, t := range tables {
			if err := out.table(ctx, st, t, shop, p); err != nil {
				return fmt.Errorf("%s: %w", t.Name, err)
			}
		}
		if err := out.photos(ctx, st, shop); err != nil {
			return err
		}
		if err := out.json(sumsName, out.sums); err != nil {
			return err
		}
		return out.zip.Close()
	})
}

// kept are the columns of a table that stand in its lines.
func kept(t store.Table) []string {
	out := make([]string, 0, len(t.Columns))
	for _, c := range t.Columns {
		if t.Name != photosTable || c != photoColumn {
			out = append(out, c)
		}
	}
	return out
}

type writer struct {
	zip  *zip.Writer
	sums Sums
	now  time.Time
}

// entry opens an entry; done closes it and keeps its sum.
func (w *writer) entry(name string, method uint16) (out *bufio.Writer, done func(rows int) error, err error) {
	e, err := w.zip.CreateHeader(&zip.FileHeader{Name: name, Method: method, Modified: w.now})
	if err != nil {
		return nil, nil, err
	}
	h := &counted{Hash: sha256.New()}
	out = bufio.NewWriterSize(io.MultiWriter(e, h), 64<<10)
	return out, func(rows int) error {
		if err := out.Flush(); err != nil {
			return err
		}
		w.sums.Entries[name] = Sum{hex.EncodeToString(h.Sum(nil)), h.n, rows}
		return nil
	}, nil
}

type counted struct {
	hash.Hash
	n int64
}

func (c *counted) Write(b []byte) (int, error) {
	c.n += int64(len(b))
	return c.Hash.Write(b)
}

func (w *writer) json(name string, v any) error {
	out, done, err := w.entry(name, zip.Deflate)
	if err != nil {
		return err
	}
	e := json.NewEncoder(out)
	e.SetIndent("", "  ")
	if err := e.Encode(v); err != nil {
		return err
	}
	return done(0)
}

func (w *writer) table(ctx context.Context, st *store.Store, t store.Table, shop uuid.UUID, p Progress) error {
	out, done, err := w.entry(tableName(t.Name), zip.Deflate)
	if err != nil {
		return err
	}
	n, without := 0, ""
	if t.Name == photosTable {
		without = photoColumn
	}
	if err := st.CopyOut(ctx, t, shop, without, func(row []byte) error {
		if n++; p != nil && n%every == 0 {
			p(t.Name, n)
		}
		if _, err := out.Write(row); err != nil {
			return err
		}
		return out.WriteByte('\n')
	}); err != nil {
		return err
	}
	if p != nil {
		p(t.Name, n)
	}
	return done(n)
}

func (w *writer) photos(ctx context.Context, st *store.Store, shop uuid.UUID) error {
	return st.Photos(ctx, shop, func(blade uuid.UUID, jpeg []byte) error {
		out, done, err := w.entry(photoName(blade.String()), zip.Store) // a JPEG gets no smaller
		if err != nil {
			return err
		}
		if _, err := out.Write(jpeg); err != nil {
			return err
		}
		return done(0)
	})
}

// lineOf reads lines of at most so many bytes.
func lineOf(r io.Reader, most int) *bufio.Scanner {
	s := bufio.NewScanner(r)
	s.Buffer(make([]byte, 0, 64<<10), most)
	return s
}

// isObject reports whether a line is one JSON object of known keys, and which is not.
func unknownKey(line []byte, known map[string]bool) (string, error) {
	d := json.NewDecoder(bytes.NewReader(line))
	var row map[string]json.RawMessage
	if err := d.Decode(&row); err != nil {
		return "", err
	}
	if row == nil || d.More() {
		return "", fmt.Errorf("it is not one object")
	}
	for k := range row {
		if !known[k] {
			return k, nil
		}
	}
	return "", nil
}
