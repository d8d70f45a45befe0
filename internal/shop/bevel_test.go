package shop_test

import (
	"bytes"
	"context"
	"encoding/binary"
	"errors"
	"hash/crc32"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"io"
	"math"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"

	"corte/core/cut"
	"corte/core/measure"
	"corte/internal/shop"
	"corte/internal/store"
)

// A tilted cut, a groove and a cut from both faces wear a blade by the wood
// that it really went through.
func TestWearFollowsTheWoodThatWasMet(t *testing.T) {
	f := open(t)
	wear := func(name string, height measure.Length, change func(*shop.Cut)) float64 {
		t.Helper()
		c := f.cut("table", "red-oak", cut.Rip, 90)
		change(&c)
		before, err := f.Blade(t.Context(), f.id, f.blade[name].ID)
		if err != nil {
			t.Fatal(err)
		}
		made := shop.CutMade{Cut: c, Blade: before.ID, Height: height, Pieces: 10, Wall: "clean", Splinters: "none"}
		if _, err := f.LogCut(t.Context(), f.id, made, measure.Millimetre); err != nil {
			t.Fatal(err)
		}
		after, err := f.Blade(t.Context(), f.id, before.ID)
		if err != nil {
			t.Fatal(err)
		}
		return after.Condition.WearM2 - before.Condition.WearM2
	}
	square := wear("Plough", 30, func(*shop.Cut) {})
	for name, tt := range map[string]struct {
		height measure.Length
		change func(*shop.Cut)
		times  float64
	}{
		"tilted to 45":    {30, func(c *shop.Cut) { c.BevelDeg = 45 }, math.Sqrt2},
		"a shallow kerf":  {6, func(c *shop.Cut) { c.Form, c.Depth = cut.Groove, 6 }, 6.0 / 19},
		"from both faces": {62, func(c *shop.Cut) { c.Thickness = 120 }, 120.0 / 19},
	} {
		if got := wear("Plough", tt.height, tt.change) / square; math.Abs(got-tt.times) > 1e-9 {
			t.Errorf("%s wears %v times as much as square, want %v", name, got, tt.times)
		}
	}
}

// Pins are answered one by one: one that may not be does not spoil the rest.
func TestComparedPinsStandAlone(t *testing.T) {
	f := open(t)
	insert := cut.ZeroClearance
	c := f.cut("table", "birch-ply", cut.Sheet, 600)
	_, got, err := f.Compare(t.Context(), f.id, c, []shop.Pin{
		{Blade: f.blade["Needle"].ID}, {Blade: f.blade["Needle"].ID, Exit: &insert}, {Blade: f.blade["Reed"].ID}, {Blade: f.blade["Needle"].ID, Height: 200},
	}, measure.Millimetre)
	if err != nil || len(got) != 4 {
		t.Fatalf("%d, %v", len(got), err)
	}
	if open, closed := got[0].Setting, got[1].Setting; closed.Exit.Splinter >= open.Exit.Splinter || got[1].Job.Exit != cut.ZeroClearance {
		t.Errorf("open %v, with the insert %v", open.Exit, closed.Exit)
	}
	if got[2].Setting != nil || !strings.Contains(got[2].Refused, "riving knife") || !strings.Contains(got[3].Refused, "past this saw's reach") {
		t.Errorf("refused: %q and %q", got[2].Refused, got[3].Refused)
	}
	if _, got, err = f.Compare(t.Context(), f.id, f.cut("table", "aluminium", cut.Crosscut, 90), []shop.Pin{{Blade: f.blade["Tinsel"].ID}}, measure.Millimetre); err != nil || !strings.Contains(got[0].Refused, "chosen by rule") {
		t.Errorf("without a window: %+v, %v", got, err)
	}
	var e *shop.Error
	steep := c
	steep.BevelDeg = 50
	if _, _, err := f.Compare(t.Context(), f.id, steep, []shop.Pin{{Blade: f.blade["Needle"].ID}}, measure.Millimetre); !errors.As(err, &e) || e.Field != "cut.bevel_deg" {
		t.Errorf("a cut that cannot be: %v", err)
	}
}

// A photo taken with the camera on its side comes back upright, and without
// what else the camera wrote into it.
func TestPhotoIsTurnedUprightAndStripped(t *testing.T) {
	f := open(t)
	id := f.blade["Quill"].ID
	flat := image.NewRGBA(image.Rect(0, 0, 60, 40))
	for x := range 60 {
		for y := range 40 {
			if x < 30 {
				flat.Set(x, y, color.RGBA{R: 255, A: 255})
			} else {
				flat.Set(x, y, color.RGBA{B: 255, A: 255})
			}
		}
	}
	var raw bytes.Buffer
	if err := jpeg.Encode(&raw, flat, &jpeg.Options{Quality: 95}); err != nil {
		t.Fatal(err)
	}
	if _, err := f.SetPhoto(t.Context(), f.id, id, bytes.NewReader(withOrientation(raw.Bytes(), 6))); err != nil {
		t.Fatal(err)
	}
	kept, err := f.Photo(t.Context(), f.id, id)
	if err != nil {
		t.Fatal(err)
	}
	got, err := jpeg.Decode(bytes.NewReader(kept))
	if err != nil || got.Bounds().Dx() != 40 || got.Bounds().Dy() != 60 {
		t.Fatalf("%v, %v", got.Bounds(), err)
	}
	// Orientation 6: the camera lay on its side, so that the left of the file is the top.
	if r, _, b, _ := got.At(20, 5).RGBA(); r < 0xc000 || b > 0x4000 {
		t.Errorf("its top is not what was the left: %x %x", r, b)
	}
	if bytes.Contains(kept, []byte("Exif")) {
		t.Error("what the camera wrote is still in it")
	}
	if _, err := f.SetPhoto(t.Context(), f.id, uuid.New(), &raw); err == nil {
		t.Error("a photo of a blade that is not there")
	}
}

// hangUp ends a request when the last of its file has been read.
type hangUp struct{ cancel context.CancelFunc }

func (h hangUp) Read([]byte) (int, error) {
	h.cancel()
	return 0, io.EOF
}

// A photo that is larger than anybody needs is refused before it is decoded,
// and one that takes too long ends with its request; the old one stays.
func TestPhotosAreBounded(t *testing.T) {
	f := open(t)
	id := f.blade["Quill"].ID
	var file bytes.Buffer
	if err := png.Encode(&file, image.NewGray(image.Rect(0, 0, 5000, 3000))); err != nil {
		t.Fatal(err)
	}
	send := func(raw []byte) (e *shop.Error) {
		_, err := f.SetPhoto(t.Context(), f.id, id, bytes.NewReader(raw))
		if err != nil && !errors.As(err, &e) {
			t.Errorf("%v", err)
		}
		return e
	}
	huge := bytes.Clone(file.Bytes())
	binary.BigEndian.PutUint32(huge[16:], 10_001) // wide, of 3000 high
	binary.BigEndian.PutUint32(huge[20:], 5_000)
	binary.BigEndian.PutUint32(huge[29:], crc32.ChecksumIEEE(huge[12:29]))
	if e := send(huge); e == nil || !strings.Contains(e.Detail, "10001 by 5000") {
		t.Errorf("50,005,000 pixels: %v", e)
	}
	gone, cancel := context.WithCancel(t.Context())
	_, err := f.SetPhoto(gone, f.id, id, io.MultiReader(bytes.NewReader(file.Bytes()), hangUp{cancel}))
	var e *shop.Error
	if !errors.As(err, &e) || e.Reason != shop.Busy {
		t.Errorf("for somebody who hung up once it was sent: %v", err)
	}
	if _, err := f.Photo(t.Context(), f.id, id); err == nil {
		t.Error("a photo was kept that was refused")
	}
	if e := send(file.Bytes()); e != nil {
		t.Errorf("with time enough: %v", e)
	}
}

// withOrientation puts an Exif block that says how the camera was held behind a
// JPEG's first mark.
func withOrientation(raw []byte, o uint16) []byte {
	tiff := []byte("II*\x00\x08\x00\x00\x00\x01\x00\x12\x01\x03\x00\x01\x00\x00\x00")
	tiff = binary.LittleEndian.AppendUint16(tiff, o)
	tiff = append(tiff, 0, 0, 0, 0, 0, 0)
	body := append([]byte("Exif\x00\x00"), tiff...)
	block := binary.BigEndian.AppendUint16([]byte{0xff, 0xe1}, uint16(len(body)+2))
	return append(append(append([]byte{}, raw[:2]...), append(block, body...)...), raw[2:]...)
}

// A blade that was never used gets its oil off, one from the saw doctor is
// measured again and carries its new diameter, one that hung long is looked
// over longer.
func TestMountingKnowsTheLog(t *testing.T) {
	f := open(t)
	later := time.Now().AddDate(1, 0, 0)
	clock := time.Now()
	svc := shop.New(f.st, func() time.Time { return clock })
	ids := func(name string) string {
		t.Helper()
		m, err := svc.StartMounting(t.Context(), f.id, f.saws["table"].ID, f.blade[name].ID, nil, "", measure.Millimetre)
		if err != nil {
			t.Fatal(err)
		}
		out := " "
		for _, s := range m.Steps {
			out += s.ID + " "
			if s.ID == "look" && len(s.Checks) > 2 {
				out += "long "
			}
		}
		return out
	}
	if got := ids("Dovecote"); !strings.Contains(got, " oil ") || strings.Contains(got, " numbers ") {
		t.Errorf("a blade that was never used: %s", got)
	}
	if got := ids("Needle"); strings.Contains(got, " oil ") || strings.Contains(got, " long ") {
		t.Errorf("a blade in use: %s", got)
	}
	clock = later
	if got := ids("Needle"); !strings.Contains(got, " long ") {
		t.Errorf("a year on: %s", got)
	}
	needle := f.blade["Needle"]
	back := store.Entry{Shop: f.id, At: later, Kind: store.KindSharpened, Blade: &needle.ID}
	if _, err := f.st.Append(t.Context(), back); err != nil {
		t.Fatal(err)
	}
	if got := ids("Needle"); !strings.Contains(got, " numbers ") {
		t.Errorf("back from the saw doctor: %s", got)
	}
	m, err := svc.StartMounting(t.Context(), f.id, f.saws["table"].ID, needle.ID, nil, "Ilse", measure.Millimetre)
	if err != nil {
		t.Fatal(err)
	}
	answers := map[string]bool{}
	for _, s := range m.Steps {
		for _, c := range s.Checks {
			answers[c.ID] = true
		}
	}
	if m, err = svc.StepMounting(t.Context(), m.Mounting, answers, measure.Millimetre); err != nil {
		t.Fatal(err)
	}
	if _, err := svc.EndMounting(t.Context(), f.id, m.ID, m.Version, "", 9000); err == nil {
		t.Error("a diameter of 9 m was taken")
	}
	if _, err := svc.EndMounting(t.Context(), f.id, m.ID, m.Version, "Ilse", 253.2); err != nil {
		t.Fatal(err)
	}
	if b, err := svc.Blade(t.Context(), f.id, needle.ID); err != nil || b.Diameter != 253.2 || b.MountedOn == nil {
		t.Errorf("after it: %v on %v, %v", b.Diameter, b.MountedOn, err)
	}
}
