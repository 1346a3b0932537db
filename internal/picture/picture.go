// Package picture takes in evidence pictures: it refuses what is no picture or
// too much of one, turns them upright, strips everything but the pixels (a
// phone writes where it stood) and makes a thumbnail.
package picture

import (
	"bytes"
	"encoding/binary"
	"errors"
	"fmt"
	"image"
	"image/jpeg"
	"image/png"
	"io"

	"golang.org/x/image/draw"
	_ "golang.org/x/image/webp" // registers WebP
)

// Bounds of what is taken in.
const (
	MaxBytes  = 12 << 20
	MaxPixels = 50_000_000 // decoded; a small file can hold far more
	keepSide  = 2400       // longer side of what is kept
	thumbSide = 360
	paperSide = 1000 // on a PDF, half a sheet wide
	markSide  = 600
	quality   = 86
)

// Errors tell in the user's words what is wrong.
var (
	ErrTooBig  = fmt.Errorf("is larger than %d MB", MaxBytes>>20)
	ErrKind    = errors.New("is not a JPEG, PNG or WebP picture")
	ErrPixels  = fmt.Errorf("has more than %d million pixels; take it smaller", MaxPixels/1_000_000)
	ErrDamaged = errors.New("is damaged or not whole; take it again")
)

// Taken is a picture as it is kept.
type Taken struct {
	MediaType, Ext string
	Width, Height  int
	Content, Thumb []byte
}

// kinds by their first bytes: a name says nothing.
func kind(head []byte) string {
	switch {
	case bytes.HasPrefix(head, []byte("\xff\xd8\xff")):
		return "jpeg"
	case bytes.HasPrefix(head, []byte("\x89PNG\r\n\x1a\n")):
		return "png"
	case len(head) >= 12 && string(head[:4]) == "RIFF" && string(head[8:12]) == "WEBP":
		return "webp"
	}
	return ""
}

// Take reads a picture from a stream of at most MaxBytes.
func Take(r io.Reader) (*Taken, error) {
	content, err := io.ReadAll(io.LimitReader(r, MaxBytes+1))
	if err != nil {
		return nil, err
	}
	if len(content) > MaxBytes {
		return nil, ErrTooBig
	}
	k := kind(content)
	if k == "" {
		return nil, ErrKind
	}
	// The head tells the size before a byte of pixels is unpacked.
	cfg, _, err := image.DecodeConfig(bytes.NewReader(content))
	if err != nil {
		return nil, ErrDamaged
	}
	if cfg.Width <= 0 || cfg.Height <= 0 || cfg.Width > MaxPixels/cfg.Height {
		return nil, ErrPixels
	}
	small, err := decoded(content, keepSide)
	if err != nil {
		return nil, err
	}
	turn := 1
	if k == "jpeg" {
		turn = orientation(content)
	}
	kept := upright(small, turn)
	t := &Taken{MediaType: "image/jpeg", Ext: ".jpg", Width: kept.Bounds().Dx(), Height: kept.Bounds().Dy()}
	var b bytes.Buffer
	if k == "png" { // drawings and screens stay sharp
		t.MediaType, t.Ext = "image/png", ".png"
		err = png.Encode(&b, kept)
	} else {
		err = jpeg.Encode(&b, kept, &jpeg.Options{Quality: quality})
	}
	if err != nil {
		return nil, err
	}
	t.Content = bytes.Clone(b.Bytes())
	if t.Thumb, err = Thumb(kept); err != nil {
		return nil, err
	}
	return t, nil
}

// turns are taken to unpack pictures: one of 50 million pixels takes up to 400 MB until it is
// scaled, and eight that come at once must not take eight times as much.
var turns = make(chan struct{}, 1)

// decoded unpacks a picture with its longer side at most so many pixels. Those who come at once
// wait for one another.
func decoded(content []byte, side int) (image.Image, error) {
	turns <- struct{}{}
	defer func() { <-turns }()
	img, _, err := image.Decode(bytes.NewReader(content))
	if err != nil {
		return nil, ErrDamaged
	}
	return scaled(img, side), nil
}

// Thumb is a small JPEG of a picture.
func Thumb(img image.Image) ([]byte, error) { return flatJPEG(img, thumbSide) }

// ForPaper makes a kept picture ready for a PDF: a JPEG that is no larger than it prints.
func ForPaper(content []byte) ([]byte, error) {
	img, err := decoded(content, paperSide)
	if err != nil {
		return nil, err
	}
	return flatJPEG(img, paperSide)
}

// Mark takes in the mark of a shop, as a PNG.
func Mark(r io.Reader) ([]byte, error) {
	t, err := Take(r)
	if err != nil {
		return nil, err
	}
	img, err := decoded(t.Content, markSide)
	if err != nil {
		return nil, err
	}
	var b bytes.Buffer
	err = png.Encode(&b, img)
	return b.Bytes(), err
}

// flatJPEG is a picture on white, its longer side at most so many pixels.
func flatJPEG(img image.Image, side int) ([]byte, error) {
	var b bytes.Buffer
	small := scaled(img, side)
	flat := image.NewRGBA(small.Bounds())
	draw.Draw(flat, flat.Bounds(), image.White, image.Point{}, draw.Src) // JPEG has no transparency
	draw.Draw(flat, flat.Bounds(), small, small.Bounds().Min, draw.Over)
	err := jpeg.Encode(&b, flat, &jpeg.Options{Quality: 78})
	return b.Bytes(), err
}

// scaled makes the longer side at most so many pixels.
func scaled(img image.Image, side int) image.Image {
	w, h := img.Bounds().Dx(), img.Bounds().Dy()
	long := max(w, h)
	if long <= side {
		return img
	}
	to := image.NewRGBA(image.Rect(0, 0, max(1, w*side/long), max(1, h*side/long)))
	draw.ApproxBiLinear.Scale(to, to.Bounds(), img, img.Bounds(), draw.Src, nil)
	return to
}

// upright turns a picture by its EXIF orientation, 1 to 8.
func upright(img image.Image, turn int) image.Image {
	if turn <= 1 || turn > 8 {
		return img
	}
	b := img.Bounds()
	w, h := b.Dx(), b.Dy()
	if turn >= 5 {
		w, h = h, w
	}
	to := image.NewRGBA(image.Rect(0, 0, w, h))
	for y := range h {
		for x := range w {
			sx, sy := x, y
			switch turn {
			case 2:
				sx = w - 1 - x
			case 3:
				sx, sy = w-1-x, h-1-y
			case 4:
				sy = h - 1 - y
			case 5:
				sx, sy = y, x
			case 6:
				sx, sy = y, w-1-x
			case 7:
				sx, sy = h-1-y, w-1-x
			case 8:
				sx, sy = h-1-y, x
			}
			to.Set(x, y, img.At(b.Min.X+sx, b.Min.Y+sy))
		}
	}
	return to
}

// orientation reads tag 0x0112 of a JPEG's EXIF segment; 1 where there is none.
// Only this one figure is read; all else of EXIF is thrown away.
func orientation(jpg []byte) int {
	for at := 2; at+4 <= len(jpg); {
		if jpg[at] != 0xff {
			return 1
		}
		marker, size := jpg[at+1], int(binary.BigEndian.Uint16(jpg[at+2:]))
		if marker == 0xda || size < 2 || at+2+size > len(jpg) {
			return 1
		}
		if seg := jpg[at+4 : at+2+size]; marker == 0xe1 && bytes.HasPrefix(seg, []byte("Exif\x00\x00")) {
			return exifTurn(seg[6:])
		}
		at += 2 + size
	}
	return 1
}

func exifTurn(tiff []byte) int {
	if len(tiff) < 8 {
		return 1
	}
	var order binary.ByteOrder = binary.LittleEndian
	if string(tiff[:2]) == "MM" {
		order = binary.BigEndian
	}
	at := int64(order.Uint32(tiff[4:]))
	if at < 8 || at+2 > int64(len(tiff)) {
		return 1
	}
	n := int64(order.Uint16(tiff[at:]))
	for i := range n {
		e := at + 2 + 12*i
		if e+12 > int64(len(tiff)) {
			return 1
		}
		if order.Uint16(tiff[e:]) == 0x0112 {
			return int(order.Uint16(tiff[e+8:]))
		}
	}
	return 1
}

// Look checks a picture that was taken in before, by this shop or another, and
// makes its thumbnail; the content stays as it is.
func Look(content []byte) (width, height int, thumb []byte, err error) {
	if kind(content) == "" {
		return 0, 0, nil, ErrKind
	}
	cfg, _, err := image.DecodeConfig(bytes.NewReader(content))
	if err != nil {
		return 0, 0, nil, ErrDamaged
	}
	if cfg.Width <= 0 || cfg.Height <= 0 || cfg.Width > MaxPixels/cfg.Height {
		return 0, 0, nil, ErrPixels
	}
	img, err := decoded(content, thumbSide)
	if err != nil {
		return 0, 0, nil, err
	}
	thumb, err = Thumb(img)
	return cfg.Width, cfg.Height, thumb, err
}
