package shopfile

import (
	"archive/zip"
	"bufio"
	"bytes"
	"context"
	"crypto/sha256"
	"encoding/binary"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"image/jpeg"
	"io"
	"slices"
	"strings"

	"github.com/google/uuid"

	"corte/core/say"
	"corte/internal/refusal"
	"corte/internal/rowcheck"
	"corte/internal/store"
)

const (
	mostManifest = 1 << 20
	mostLine     = 8 << 20 // of a row
	mostPhoto    = 16 << 20
	mostSide     = 4096 // pixels
	mostUnpacked = 64 << 30
	mostFaults   = 20 // that are said of one file
	batchRows    = 500
	batchBytes   = 1 << 20
)

// A File is a shop's file, opened: its manifest is read, nothing else yet.
type File struct {
	Manifest
	sums    Sums
	entries map[string]*zip.File
}

// Open reads what a file says of itself.
func Open(r io.ReaderAt, size int64) (*File, error) {
	z, err := zip.NewReader(r, size)
	if err != nil {
		return nil, refusal.Of("file", "this isn't a backup: it isn't a ZIP, or its end is missing")
	}
	if err := noMore(z, size); err != nil {
		return nil, err
	}
	f := &File{entries: map[string]*zip.File{}}
	for _, e := range z.File {
		if f.entries[e.Name] != nil {
			return nil, refusal.Of("file", "it contains %q twice", e.Name)
		}
		f.entries[e.Name] = e
	}
	for _, part := range []struct {
		name string
		into any
	}{{manifestName, &f.Manifest}, {sumsName, &f.sums}} {
		e := f.entries[part.name]
		if e == nil {
			return nil, refusal.Of("file", "this isn't a Corte backup, or its end is missing: it has no %s", say.Word(part.name))
		}
		if err := readJSON(e, part.into); err != nil {
			return nil, refusal.Of("file", "%s in it cannot be read", say.Word(part.name))
		}
	}
	switch {
	case f.Format != Format:
		return nil, refusal.Of("file", "this isn't a Corte backup")
	case f.Version < 1:
		return nil, refusal.Of("file", "this file says format %d, but formats start at 1", f.Version)
	case f.Version > Version:
		return nil, refusal.Of("file", "this file is from a newer version of Corte (format %d). This version reads up to format %d", f.Version, Version)
	}
	unpacked := int64(0)
	for _, s := range f.sums.Entries {
		if s.Bytes < 0 || s.Bytes > mostUnpacked || unpacked > mostUnpacked-s.Bytes {
			return nil, refusal.Of("file", "unpacked it would be too large")
		}
		unpacked += s.Bytes
	}
	return f, nil
}

// noMore refuses what no sum covers: comments, extra fields but the time that
// Corte writes, and bytes between the entries.
func noMore(z *zip.Reader, size int64) error {
	extra := refusal.Of("file", "it holds extra data that its checksums don't cover; use a file as Corte wrote it")
	const header, stamp, descriptor = 30, 9, 24 // bytes before a name, of a time, and behind an entry
	if z.Comment != "" {
		return extra
	}
	at := int64(0)
	for _, e := range z.File {
		timed := len(e.Extra) == stamp && binary.LittleEndian.Uint16(e.Extra) == 0x5455
		begins, err := e.DataOffset()
		if err != nil {
			return extra
		}
		if e.Comment != "" || len(e.Extra) > 0 && !timed || begins < at || begins-at > int64(header+stamp+descriptor+len(e.Name)) {
			return extra
		}
		at = begins + int64(e.CompressedSize64)
	}
	if at > size {
		return extra
	}
	return nil
}

func readJSON(e *zip.File, into any) error {
	r, err := e.Open()
	if err != nil {
		return err
	}
	defer r.Close()
	raw, err := io.ReadAll(io.LimitReader(r, mostManifest+1))
	if err != nil {
		return err
	}
	if len(raw) > mostManifest {
		return errors.New("too long")
	}
	return json.Unmarshal(raw, into)
}

// Rows are how many rows of each table a file says that it has.
func (f *File) Rows() (all int) {
	for _, s := range f.sums.Entries {
		all += s.Rows
	}
	return all
}

// Check reads the whole file: against its own sums, against the tables that this
// Corte has, and every row against what Corte itself would write. It returns
// what is wrong, the first of it; nothing for a file that can be brought in.
func (f *File) Check(ctx context.Context, st *store.Store) ([]say.Line, error) {
	faults, err := f.Intact(ctx, st)
	if err == nil && len(faults) == 0 {
		faults, err = f.checkRows(), ctx.Err()
	}
	return faults, err
}

// Intact is Check without a look at what the rows say: whether the file is as it
// was written. A shop with a damaged row can still be backed up.
func (f *File) Intact(ctx context.Context, st *store.Store) ([]say.Line, error) {
	tables, err := st.Tables(ctx)
	if err != nil {
		return nil, err
	}
	return f.intact(tables), ctx.Err()
}

// checkRows checks every row of an intact file.
func (f *File) checkRows() (faults []say.Line) {
	if err := rowcheck.Settings(f.Shop); err != nil {
		faults = append(faults, say.Of("the shop's own settings: %s", say.Word(err.Error())))
	}
	for _, t := range f.Tables {
		r, err := f.entries[tableName(t.Name)].Open()
		if err != nil {
			return append(faults, say.Of("%s cannot be unpacked", say.Word(tableName(t.Name))))
		}
		lines := lineOf(r, mostLine)
		for n := 1; lines.Scan() && len(faults) < mostFaults; n++ {
			if err := rowcheck.Check(t.Name, lines.Bytes()); err != nil {
				faults = append(faults, say.Of("%s, line %d: %s", say.Word(t.Name), n, say.Word(err.Error())))
			}
		}
		r.Close()
	}
	return faults
}

func (f *File) intact(tables []store.Table) []say.Line {
	var faults []say.Line
	wrong := func(form string, args ...any) {
		if len(faults) < mostFaults {
			faults = append(faults, say.Of(form, args...))
		}
	}
	known := map[string]bool{manifestName: true, sumsName: true}
	f.checkEntry(manifestName, nil, wrong)
	for _, t := range f.Tables {
		known[tableName(t.Name)] = true
		i := slices.IndexFunc(tables, func(k store.Table) bool { return k.Name == t.Name })
		if i < 0 {
			wrong("it has a table %s that this version doesn't know", say.Word(t.Name))
			continue
		}
		columns := map[string]bool{}
		for _, c := range t.Columns {
			columns[c] = true
			if !slices.Contains(tables[i].Columns, c) {
				wrong("its %s have %s, which this version doesn't know", say.Word(t.Name), say.Word(c))
			}
		}
		f.checkEntry(tableName(t.Name), columns, wrong)
	}
	for name := range f.entries {
		if photo, ok := strings.CutPrefix(name, "photos/"); ok {
			id, jpg := strings.CutSuffix(photo, ".jpg")
			if _, err := uuid.Parse(id); jpg && err == nil {
				known[name] = true
				f.checkEntry(name, nil, wrong)
			}
		}
		if !known[name] {
			wrong("it contains %q, which isn't part of a backup", name)
		}
	}
	for name := range f.sums.Entries {
		if f.entries[name] == nil {
			wrong("%s is missing from it", say.Word(name))
		}
	}
	return faults
}

// harmless reports whether an entry is what a browser may be given as a photo: a
// JPEG, and none that unpacks to more than a screen holds.
func harmless(photo []byte) bool {
	if !bytes.HasPrefix(photo, []byte{0xff, 0xd8}) {
		return false
	}
	size, err := jpeg.DecodeConfig(bytes.NewReader(photo))
	return err != nil || max(size.Width, size.Height) <= mostSide // what is no picture does no harm
}

// checkEntry reads an entry through; columns are a table's, nil for a photo.
func (f *File) checkEntry(name string, columns map[string]bool, wrong func(string, ...any)) {
	e, sum := f.entries[name], f.sums.Entries[name]
	if e == nil {
		wrong("%s is missing from it", say.Word(name))
		return
	}
	r, err := e.Open()
	if err != nil {
		wrong("%s cannot be unpacked", say.Word(name))
		return
	}
	defer r.Close()
	h := &counted{Hash: sha256.New()}
	// No more is unpacked than the file says that there is.
	in := io.TeeReader(io.LimitReader(r, sum.Bytes+1), h)
	rows := 0
	if columns == nil {
		if sum.Bytes > mostPhoto {
			wrong("%s is larger than a photo is", say.Word(name))
			return
		}
		var whole bytes.Buffer
		if _, err = io.Copy(&whole, in); err == nil && name != manifestName && !harmless(whole.Bytes()) {
			wrong("%s is no photo as a shop keeps them: a JPEG of at most %d pixels a side", say.Word(name), mostSide)
			return
		}
	} else {
		lines := lineOf(in, mostLine)
		for lines.Scan() {
			rows++
			if key, bad := unknownKey(lines.Bytes(), columns); bad != nil {
				wrong("%s, line %d, is not a row", say.Word(name), rows)
			} else if key != "" {
				wrong("%s, line %d, has %q, which its columns do not name", say.Word(name), rows, key)
			}
		}
		if err = lines.Err(); errors.Is(err, bufio.ErrTooLong) {
			wrong("%s, line %d, is longer than a row is", say.Word(name), rows+1)
			return
		}
	}
	switch {
	case err != nil:
		wrong("%s is damaged: it cannot be unpacked to its end", say.Word(name))
	case h.n != sum.Bytes || hex.EncodeToString(h.Sum(nil)) != sum.SHA256:
		wrong("%s is damaged: it is not what was written", say.Word(name))
	case rows != sum.Rows:
		wrong("%s has %d rows, and was written with %d", say.Word(name), rows, sum.Rows)
	}
}

// Restore brings a checked file into an empty shop, whole or not at all. What
// its log adds up to is not taken from the file but worked out anew.
func (f *File) Restore(ctx context.Context, st *store.Store, shop uuid.UUID, p Progress) error {
	return st.Atomically(ctx, func(st *store.Store) error {
		has, err := st.Holds(ctx, shop)
		if err != nil {
			return err
		}
		if has > 0 {
			return &refusal.Error{Reason: refusal.Conflict, Field: "shop", What: say.Of("this shop isn't empty: it has %d rows. Restore into an empty shop", has)}
		}
		if err := st.TakeSettings(ctx, shop, f.Shop); err != nil {
			return refusal.Of("file", "its shop settings can't be used")
		}
		tables, err := st.Tables(ctx)
		if err != nil {
			return err
		}
		for _, t := range tables {
			i := slices.IndexFunc(f.Tables, func(in TableIn) bool { return in.Name == t.Name })
			if i < 0 {
				continue // an older Corte did not have it
			}
			if err := f.restore(ctx, st, t, f.Tables[i].Columns, shop, p); err != nil {
				return err
			}
		}
		if err := st.SamePeople(ctx, shop); err != nil {
			return err
		}
		if err := st.FoldShop(ctx, shop); err != nil {
			return err
		}
		return st.Beyond(ctx)
	})
}

func (f *File) restore(ctx context.Context, st *store.Store, t store.Table, columns []string, shop uuid.UUID, p Progress) error {
	r, err := f.entries[tableName(t.Name)].Open()
	if err != nil {
		return err
	}
	defer r.Close()
	if t.Name == photosTable {
		columns = append(slices.Clone(columns), photoColumn)
	}
	var batch []json.RawMessage
	size, done := 0, 0
	put := func() error {
		var row *store.RowError
		if err := st.CopyIn(ctx, t, columns, shop, batch); errors.As(err, &row) {
			return refusal.Of("file", "%s, line %d, is not taken: %s", say.Word(t.Name), done+row.Row+1, say.Word(row.Why))
		} else if err != nil {
			return fmt.Errorf("%s: %w", t.Name, err)
		}
		if done += len(batch); p != nil && len(batch) > 0 {
			p(t.Name, done)
		}
		batch, size = batch[:0], 0
		return nil
	}
	lines := lineOf(r, mostLine)
	for lines.Scan() {
		row := slices.Clone(lines.Bytes())
		if t.Name == photosTable {
			if row, err = f.withPhoto(row); err != nil {
				return err
			}
		}
		batch, size = append(batch, row), size+len(row)
		if len(batch) == batchRows || size >= batchBytes {
			if err := put(); err != nil {
				return err
			}
		}
	}
	if err := lines.Err(); err != nil {
		return err
	}
	return put()
}

// withPhoto puts a photo back into its row.
func (f *File) withPhoto(row []byte) ([]byte, error) {
	var of map[string]json.RawMessage
	var blade uuid.UUID
	if err := json.Unmarshal(row, &of); err != nil {
		return nil, err
	}
	if err := json.Unmarshal(of["blade_id"], &blade); err != nil {
		return nil, err
	}
	e := f.entries[photoName(blade.String())]
	if e == nil {
		return nil, refusal.Of("file", "%s is missing from it", say.Word(photoName(blade.String())))
	}
	r, err := e.Open()
	if err != nil {
		return nil, err
	}
	defer r.Close()
	jpeg, err := io.ReadAll(io.LimitReader(r, mostPhoto))
	if err != nil {
		return nil, err
	}
	of[photoColumn] = json.RawMessage(`"\\x` + hex.EncodeToString(jpeg) + `"`)
	return json.Marshal(of)
}

// Name is what the shop in a file is called.
func (f *File) Name() string {
	var shop struct {
		Name string `json:"name"`
	}
	if json.Unmarshal(f.Shop, &shop) != nil || shop.Name == "" {
		return "a shop without a name"
	}
	return shop.Name
}

// ByTable are how many rows of each table a file says that it has.
func (f *File) ByTable() map[string]int {
	out := map[string]int{}
	for _, t := range f.Tables {
		out[t.Name] = f.sums.Entries[tableName(t.Name)].Rows
	}
	return out
}

// Differs lists the entries in which two files of shops are not the same.
func (f *File) Differs(g *File) (entries []string) {
	for name, sum := range f.sums.Entries {
		if name != manifestName && g.sums.Entries[name] != sum {
			entries = append(entries, name)
		}
	}
	for name := range g.sums.Entries {
		if _, both := f.sums.Entries[name]; !both {
			entries = append(entries, name)
		}
	}
	if string(f.Shop) != string(g.Shop) {
		entries = append(entries, "the shop's own settings")
	}
	slices.Sort(entries)
	return entries
}
