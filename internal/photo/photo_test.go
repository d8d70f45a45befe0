package photo_test

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
	"testing"

	"corte/internal/photo"
)

// However the camera was held, the photo comes back upright, and without what
// else the camera wrote into it.
func TestPhotosAreTurnedUprightAndStripped(t *testing.T) {
	red, green, blue, grey := color.RGBA{255, 0, 0, 255}, color.RGBA{0, 255, 0, 255}, color.RGBA{0, 0, 255, 255}, color.RGBA{128, 128, 128, 255}
	flat := image.NewRGBA(image.Rect(0, 0, 60, 40)) // a colour to a quarter
	for x := range 60 {
		for y := range 40 {
			flat.Set(x, y, [2][2]color.Color{{red, green}, {blue, grey}}[y/20][x/30])
		}
	}
	var raw bytes.Buffer
	if err := jpeg.Encode(&raw, flat, &jpeg.Options{Quality: 100}); err != nil {
		t.Fatal(err)
	}
	// Exif names the place of the file's first row and column in what is meant.
	for o, want := range [][4]color.RGBA{ // top left, top right, below left, below right
		1: {red, green, blue, grey},
		2: {green, red, grey, blue},
		3: {grey, blue, green, red},
		4: {blue, grey, red, green},
		5: {red, blue, green, grey},
		6: {blue, red, grey, green},
		7: {grey, green, blue, red},
		8: {green, grey, red, blue},
	} {
		if o == 0 {
			continue
		}
		kept, err := photo.Small(t.Context(), withOrientation(raw.Bytes(), uint16(o)), 30)
		if err != nil {
			t.Fatal(err)
		}
		got, err := jpeg.Decode(bytes.NewReader(kept))
		w, h := 30, 20
		if o >= 5 {
			w, h = h, w
		}
		if err != nil || got.Bounds().Dx() != w || got.Bounds().Dy() != h {
			t.Fatalf("%d: %v, %v", o, got.Bounds(), err)
		}
		for i, c := range want {
			at := color.RGBAModel.Convert(got.At(w/4+w/2*(i%2), h/4+h/2*(i/2))).(color.RGBA)
			if far(at.R, c.R) || far(at.G, c.G) || far(at.B, c.B) {
				t.Errorf("%d, quarter %d is %v, not %v", o, i, at, c)
			}
		}
		if bytes.Contains(kept, []byte("Exif")) {
			t.Error("what the camera wrote is still in it")
		}
	}
}

// A photo that is larger than anybody needs is refused before it is decoded, and
// one whose request has ended is given up.
func TestPhotosAreBounded(t *testing.T) {
	var file bytes.Buffer
	if err := png.Encode(&file, image.NewGray(image.Rect(0, 0, 5000, 3000))); err != nil {
		t.Fatal(err)
	}
	for wide, ok := range map[uint32]bool{10_000: false, 10_001: true} { // of 5000 high
		huge := bytes.Clone(file.Bytes())
		binary.BigEndian.PutUint32(huge[16:], wide)
		binary.BigEndian.PutUint32(huge[20:], 5_000)
		binary.BigEndian.PutUint32(huge[29:], crc32.ChecksumIEEE(huge[12:29]))
		var size *photo.SizeError
		if _, err := photo.Small(t.Context(), huge, 1280); errors.As(err, &size) != ok || ok && size.Width != 10_001 {
			t.Errorf("%d by 5000: %v", wide, err)
		}
	}
	gone, cancel := context.WithCancel(t.Context())
	cancel()
	if _, err := photo.Small(gone, file.Bytes(), 1280); !errors.Is(err, photo.ErrLate) {
		t.Errorf("for somebody who hung up: %v", err)
	}
	if _, err := photo.Small(t.Context(), []byte("<svg onload=x>"), 1280); !errors.Is(err, photo.ErrUnreadable) {
		t.Errorf("a drawing: %v", err)
	}
	small, err := photo.Small(t.Context(), file.Bytes(), 1280)
	if size, _, _ := image.DecodeConfig(bytes.NewReader(small)); err != nil || size.Width != 1280 || size.Height != 768 {
		t.Errorf("with time enough: %v, %v", size, err)
	}
}

func far(a, b uint8) bool { return max(a, b)-min(a, b) > 60 }

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

// How many pixels are read goes by what decoding one of them takes: a file is
// refused by its header alone.
func TestAreaIsBoundedByFormat(t *testing.T) {
	jpegOf := func(marker byte) []byte { // four luma samples share two of color
		var b bytes.Buffer
		if err := jpeg.Encode(&b, image.NewYCbCr(image.Rect(0, 0, 16, 16), image.YCbCrSubsampleRatio420), nil); err != nil {
			t.Fatal(err)
		}
		raw := b.Bytes()
		raw[bytes.Index(raw, []byte{0xff, 0xc0})+1] = marker
		return raw
	}
	pngOf := func(interlace byte, p image.Image) []byte {
		var b bytes.Buffer
		if err := png.Encode(&b, p); err != nil {
			t.Fatal(err)
		}
		raw := b.Bytes()
		raw[28] = interlace
		return raw
	}
	small := image.Rect(0, 0, 16, 16)
	for name, at := range map[string]struct {
		file []byte
		most int // thousands of pixels
	}{
		"a camera's JPEG":       {jpegOf(0xc0), 50_000},
		"a progressive JPEG":    {jpegOf(0xc2), 44_739},
		"a PNG":                 {pngOf(0, image.NewNRGBA(small)), 50_000},
		"a PNG of 16 bits":      {pngOf(0, image.NewNRGBA64(small)), 41_943},
		"an interlaced PNG":     {pngOf(1, image.NewNRGBA(small)), 41_943},
		"both of these at once": {pngOf(1, image.NewNRGBA64(small)), 20_971},
	} {
		for more, refused := range map[int]bool{0: false, 1: true} {
			raw := bytes.Clone(at.file)
			wide, high := uint32(at.most+more), uint32(1000)
			if bytes.HasPrefix(raw, []byte("\x89PNG")) {
				binary.BigEndian.PutUint32(raw[16:], wide)
				binary.BigEndian.PutUint32(raw[20:], high)
				binary.BigEndian.PutUint32(raw[29:], crc32.ChecksumIEEE(raw[12:29]))
			} else {
				frame := max(bytes.Index(raw, []byte{0xff, 0xc0}), bytes.Index(raw, []byte{0xff, 0xc2}))
				binary.BigEndian.PutUint16(raw[frame+5:], uint16(high))
				binary.BigEndian.PutUint16(raw[frame+7:], uint16(wide))
			}
			var size *photo.SizeError
			if _, err := photo.Small(t.Context(), raw, 100); errors.As(err, &size) != refused {
				t.Errorf("%s of %d thousand pixels: %v", name, wide, err)
			}
		}
	}
}
