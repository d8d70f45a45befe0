// Package photo turns photos upright, scales them down and encodes them again,
// so that nothing else in the file is stored. It limits the memory and the time
// that a file may take.
package photo

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"image"
	"image/color"
	"image/jpeg"
	_ "image/png" // photos come as PNG as well
	"io"

	"github.com/bep/imagemeta"
	"golang.org/x/image/draw"
	_ "golang.org/x/image/webp" // and as WebP
)

// MostPixels is the largest area that is read of one photo, and mostDecoded the
// memory that its decoder may take. A progressive JPEG or a PNG of 16 bits takes
// several times what a camera's JPEG of the same area does, so fewer pixels of
// those are read.
const (
	MostPixels  = 50_000_000
	mostDecoded = 320 << 20 // bytes
)

const tone = 82 // JPEG quality

var (
	// ErrUnreadable is returned for what is not a photo.
	ErrUnreadable = errors.New("can't read this photo. Send a JPEG, PNG or WebP")
	// ErrLate is returned where the context ended before the photo was done.
	ErrLate = errors.New("too many photos are being processed. Nothing was saved. Send it again in a moment, or a smaller one")
)

// A SizeError is returned for a photo of too many pixels for its format.
type SizeError struct{ Width, Height, Most int }

func (e *SizeError) Error() string {
	return fmt.Sprintf("%d by %d pixels is too large. Send at most %d million pixels in this format", e.Width, e.Height, e.Most/1_000_000)
}

// mostPixels is how many pixels of a file are read, by what decoding one of its
// pixels takes in image/jpeg, image/png and x/image/webp.
func mostPixels(file []byte, format string, size image.Config) int {
	each := 4.0 // bytes
	switch format {
	case "jpeg":
		each = jpegBytes(file)
	case "png":
		switch size.ColorModel {
		case color.RGBA64Model, color.NRGBA64Model:
			each = 8
		}
		const interlace = 28 // its place in the header
		if len(file) > interlace && file[interlace] != 0 {
			each *= 2 // each pass is a picture of its own
		}
	case "webp":
		each = 8 // a lossless one is unpacked beside the picture
	}
	return min(MostPixels, int(mostDecoded/each))
}

// jpegBytes is what decoding one pixel of a JPEG takes: a byte for each sample,
// and four more where it is progressive, since all coefficients are kept then.
func jpegBytes(file []byte) float64 {
	const worst = 4 * (1 + 4)
	for at := 2; at+9 < len(file) && file[at] == 0xff; {
		marker, length := file[at+1], int(file[at+2])<<8|int(file[at+3])
		switch {
		case marker == 0xff: // padding
			at++
			continue
		case marker == 0xda || length < 2:
			return worst
		case marker >= 0xc0 && marker <= 0xc2: // the frame: its components and how finely each is sampled
			n := int(file[at+9])
			if n == 0 || at+10+3*n > len(file) {
				return worst
			}
			samples, finest := 0, 1
			for i := range n {
				hv := file[at+10+3*i+1]
				one := int(hv>>4) * int(hv&15)
				samples, finest = samples+one, max(finest, one)
			}
			each := float64(samples) / float64(finest)
			if n > 1 {
				each = max(each, 1.5)
			}
			if marker == 0xc2 {
				each *= 1 + 4
			}
			return each
		}
		at += 2 + length
	}
	return worst
}

// places are for the photos that are worked on at once.
var places = make(chan struct{}, 2)

// Small makes a JPEG of at most side pixels either way out of a file. Two are
// worked on at a time and others wait until their context ends.
func Small(ctx context.Context, file []byte, side int) ([]byte, error) {
	small, err := Upright(ctx, file, side)
	if err != nil {
		return nil, err
	}
	var out bytes.Buffer
	err = jpeg.Encode(&out, small, &jpeg.Options{Quality: tone})
	return out.Bytes(), err
}

// Upright is the picture of a file as it was meant to be seen, of at most side pixels
// either way, under the bounds of Small.
func Upright(ctx context.Context, file []byte, side int) (*image.RGBA, error) {
	size, format, err := image.DecodeConfig(bytes.NewReader(file))
	if err != nil {
		return nil, ErrUnreadable
	}
	if most := mostPixels(file, format, size); size.Width*size.Height > most {
		return nil, &SizeError{size.Width, size.Height, most}
	}
	select {
	case places <- struct{}{}:
		defer func() { <-places }()
	case <-ctx.Done():
		return nil, ErrLate
	}
	whole, _, err := image.Decode(patient{ctx, bytes.NewReader(file)})
	switch {
	case ctx.Err() != nil:
		return nil, ErrLate
	case err != nil:
		return nil, ErrUnreadable
	}
	return upright(fit(whole, side), orientation(file, format)), nil
}

// A patient reader ends when its context does, and the decoder with it.
type patient struct {
	ctx context.Context
	io.Reader
}

func (r patient) Read(p []byte) (int, error) {
	if err := r.ctx.Err(); err != nil {
		return 0, err
	}
	return r.Reader.Read(p)
}

// fit makes a picture no larger than side pixels either way.
func fit(whole image.Image, side int) *image.RGBA {
	w, h := whole.Bounds().Dx(), whole.Bounds().Dy()
	if max(w, h) <= side {
		out := image.NewRGBA(image.Rect(0, 0, w, h))
		draw.Draw(out, out.Bounds(), whole, whole.Bounds().Min, draw.Src)
		return out
	}
	scaled := func(by draw.Scaler, from image.Image, side int) *image.RGBA {
		to := image.Rect(0, 0, w, h)
		if longer := max(w, h); longer > side {
			to = image.Rect(0, 0, max(1, w*side/longer), max(1, h*side/longer))
		}
		out := image.NewRGBA(to)
		by.Scale(out, to, from, from.Bounds(), draw.Src, nil)
		return out
	}
	// The fine kernel wants 32 bytes for every row of what it reads, so a large
	// picture is brought near its size first.
	if rough := 2 * side; max(w, h) > rough {
		whole = scaled(draw.ApproxBiLinear, whole, rough)
	}
	return scaled(draw.CatmullRom, whole, side)
}

// orientation is how the camera was held, 1 to 8 as Exif numbers it; 1 where
// the file does not say.
func orientation(file []byte, format string) int {
	formats := map[string]imagemeta.ImageFormat{"jpeg": imagemeta.JPEG, "png": imagemeta.PNG, "webp": imagemeta.WebP}
	o := 1
	// What cannot be read of it is left as it was taken.
	_, _ = imagemeta.Decode(imagemeta.Options{
		R: bytes.NewReader(file), ImageFormat: formats[format], Sources: imagemeta.EXIF,
		ShouldHandleTag: func(t imagemeta.TagInfo) bool { return t.Namespace == "IFD0" && t.Tag == "Orientation" },
		HandleTag: func(t imagemeta.TagInfo) error {
			if v, ok := t.Value.(uint16); ok && v >= 1 && v <= 8 {
				o = int(v)
			}
			return imagemeta.ErrStopWalking
		},
	})
	return o
}

// upright turns and mirrors a picture as its orientation asks for.
func upright(p *image.RGBA, orientation int) *image.RGBA {
	if orientation == 1 {
		return p
	}
	w, h := p.Bounds().Dx(), p.Bounds().Dy()
	out := image.NewRGBA(image.Rect(0, 0, w, h))
	if orientation >= 5 { // it lay on its side
		out = image.NewRGBA(image.Rect(0, 0, h, w))
	}
	for y := range out.Bounds().Dy() {
		for x := range out.Bounds().Dx() {
			fx, fy := x, y
			switch orientation {
			case 2:
				fx = w - 1 - x
			case 3:
				fx, fy = w-1-x, h-1-y
			case 4:
				fy = h - 1 - y
			case 5:
				fx, fy = y, x
			case 6:
				fx, fy = y, h-1-x
			case 7:
				fx, fy = w-1-y, h-1-x
			case 8:
				fx, fy = w-1-y, x
			}
			out.SetRGBA(x, y, p.RGBAAt(fx, fy))
		}
	}
	return out
}
