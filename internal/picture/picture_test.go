package picture_test

import (
	"bytes"
	"encoding/binary"
	"hash/crc32"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"testing"

	"corvek/internal/picture"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// half is w×h, its left half red and its right half blue.
func half(w, h int) image.Image {
	img := image.NewRGBA(image.Rect(0, 0, w, h))
	for y := range h {
		for x := range w {
			c := color.RGBA{220, 20, 20, 255}
			if x >= w/2 {
				c = color.RGBA{20, 20, 220, 255}
			}
			img.Set(x, y, c)
		}
	}
	return img
}

// phone is a JPEG as a phone writes it: orientation and a place in its EXIF.
func phone(t testing.TB, turn uint16) []byte {
	var b bytes.Buffer
	require.NoError(t, jpeg.Encode(&b, half(80, 40), nil))
	tiff := []byte("II*\x00\x08\x00\x00\x00\x02\x00")
	entry := func(tag, kind uint16, count, value uint32) {
		tiff = binary.LittleEndian.AppendUint16(tiff, tag)
		tiff = binary.LittleEndian.AppendUint16(tiff, kind)
		tiff = binary.LittleEndian.AppendUint32(tiff, count)
		tiff = binary.LittleEndian.AppendUint32(tiff, value)
	}
	entry(0x0112, 3, 1, uint32(turn))
	entry(0x8825, 4, 1, 64)
	tiff = append(tiff, []byte("GPSLatitude 59 54 secret place")...)
	seg := append([]byte("Exif\x00\x00"), tiff...)
	head := []byte{0xff, 0xd8, 0xff, 0xe1}
	head = binary.BigEndian.AppendUint16(head, uint16(len(seg)+2))
	return append(append(head, seg...), b.Bytes()[2:]...)
}

func TestPlaceIsStrippedAndPictureUpright(t *testing.T) {
	for turn, want := range map[uint16][2]int{1: {80, 40}, 3: {80, 40}, 6: {40, 80}, 8: {40, 80}} {
		p, err := picture.Take(bytes.NewReader(phone(t, turn)))
		require.NoError(t, err)
		assert.Equal(t, want, [2]int{p.Width, p.Height}, "orientation %d", turn)
		assert.NotContains(t, string(p.Content), "secret place")
		assert.NotContains(t, string(p.Content), "Exif")
		img, err := jpeg.Decode(bytes.NewReader(p.Content))
		require.NoError(t, err)
		// Orientation 6: the camera lay on its right side, so its left edge is now on top.
		first := map[uint16]image.Point{1: {5, 20}, 3: {74, 20}, 6: {20, 5}, 8: {20, 74}}[turn]
		r, _, b, _ := img.At(first.X, first.Y).RGBA()
		assert.Greater(t, r, b, "orientation %d turns the wrong way", turn)
	}
}

func TestHostileFilesAreRefused(t *testing.T) {
	var small bytes.Buffer
	require.NoError(t, png.Encode(&small, half(8, 8)))
	for name, c := range map[string]struct {
		content []byte
		err     error
	}{
		"a renamed executable": {append([]byte("\x7fELF"), make([]byte, 400)...), picture.ErrKind},
		"a drawing with script": {[]byte(`<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>`),
			picture.ErrKind},
		"nothing":              {nil, picture.ErrKind},
		"20 MB":                {append([]byte("\xff\xd8\xff"), make([]byte, 20<<20)...), picture.ErrTooBig},
		"a decompression bomb": {bomb(60000, 60000), picture.ErrPixels},
		"cut short":            {small.Bytes()[:40], picture.ErrDamaged},
	} {
		_, err := picture.Take(bytes.NewReader(c.content))
		assert.ErrorIs(t, err, c.err, name)
	}
}

// bomb is a PNG head that promises far more pixels than it has bytes.
func bomb(w, h uint32) []byte {
	out := []byte("\x89PNG\r\n\x1a\n")
	ihdr := []byte("IHDR")
	ihdr = binary.BigEndian.AppendUint32(ihdr, w)
	ihdr = binary.BigEndian.AppendUint32(ihdr, h)
	ihdr = append(ihdr, 8, 6, 0, 0, 0)
	out = binary.BigEndian.AppendUint32(out, 13)
	out = append(out, ihdr...)
	return binary.BigEndian.AppendUint32(out, crc32.ChecksumIEEE(ihdr))
}

func TestLargePicturesAreMadeSmaller(t *testing.T) {
	var b bytes.Buffer
	require.NoError(t, jpeg.Encode(&b, half(4000, 1000), nil))
	p, err := picture.Take(&b)
	require.NoError(t, err)
	assert.Equal(t, [2]int{2400, 600}, [2]int{p.Width, p.Height})
	small, err := jpeg.Decode(bytes.NewReader(p.Thumb))
	require.NoError(t, err)
	assert.Equal(t, 360, small.Bounds().Dx())
}

func FuzzTake(f *testing.F) {
	f.Add(phone(f, 6))
	f.Add(bomb(10, 10))
	f.Add([]byte("RIFF\x00\x00\x00\x00WEBPVP8 "))
	f.Fuzz(func(t *testing.T, content []byte) { _, _ = picture.Take(bytes.NewReader(content)) })
}
